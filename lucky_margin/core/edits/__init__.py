"""Edits of a finish: everything the interface, the command line or a check's action may ask."""

from lucky_margin.core.edits.apply import Edit, apply_edit
from lucky_margin.core.edits.edited import Edited, Guide
from lucky_margin.core.edits.registry import CARRIERS, EditBase, MaskPlace, ToneGrip

__all__ = ["CARRIERS", "Edit", "EditBase", "Edited", "Guide", "MaskPlace", "ToneGrip", "apply_edit"]
