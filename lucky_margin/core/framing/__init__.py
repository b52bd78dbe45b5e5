"""Framing: which part of the photo a size shows, at how many pixels."""

from lucky_margin.core.framing.frame import Frame, frame_of
from lucky_margin.core.framing.gestures import Grip, WindowField, dragged, drawn, typed
from lucky_margin.core.framing.outputs import Band, Output, output_of
from lucky_margin.core.framing.windows import following, largest_inside, moved_inside, whole

__all__ = [
    "Band",
    "Frame",
    "Grip",
    "Output",
    "WindowField",
    "dragged",
    "drawn",
    "following",
    "frame_of",
    "largest_inside",
    "moved_inside",
    "output_of",
    "typed",
    "whole",
]
