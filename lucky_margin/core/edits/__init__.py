"""Edits of a finish."""

from lucky_margin.core.edits.apply import apply_edit
from lucky_margin.core.edits.context import Edited, Guide
from lucky_margin.core.edits.edit import Edit

__all__ = ["Edit", "Edited", "Guide", "apply_edit"]
