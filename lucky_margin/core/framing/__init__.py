"""Framing: which part of the photo a size shows, at how many pixels."""

from lucky_margin.core.framing.frame import Frame, focus_on, frame_of, laid, turned_photo
from lucky_margin.core.framing.gestures import Grip, WindowField, dragged, drawn, scaled, typed
from lucky_margin.core.framing.outputs import Band, Output, output_of
from lucky_margin.core.framing.rooms import Room
from lucky_margin.core.framing.turning import TurnedPhoto
from lucky_margin.core.framing.windows import focus_box, following, largest_inside, whole, within

__all__ = [
    "Band",
    "Frame",
    "Grip",
    "Output",
    "Room",
    "TurnedPhoto",
    "WindowField",
    "dragged",
    "drawn",
    "focus_box",
    "focus_on",
    "following",
    "frame_of",
    "laid",
    "largest_inside",
    "output_of",
    "scaled",
    "turned_photo",
    "typed",
    "whole",
    "within",
]
