"""What a screen draws of washes, masks, zones and lifts: lines and grips, in output pixels."""

import math
from collections.abc import Iterator, Sequence
from typing import Literal

from pydantic import Field

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import (
    AreaMask,
    BandMask,
    EllipseMask,
    PhotoPoint,
    SharpZone,
    Tone,
    Treatments,
    Value,
    Wash,
)
from lucky_margin.core.edits.registry import ToneGrip
from lucky_margin.core.framing import Frame

_CROSS = 0.2
"""Of a line's length: how far its ends are marked to either side."""

_CORNERS = 72
"""Of the polygon that an ellipse is drawn as."""


class ShapeGrip(Value):
    """A place to take hold of."""

    grip: ToneGrip
    x: float
    y: float


class ToneShape(Value):
    """A wash, one mask of an area or a treatment, the zone that a treatment leaves sharp, or what
    is lifted, as it lies over the picture; in output pixels."""

    place: Literal["wash", "area", "treatment", "zone", "lift"]
    number: int
    mask: int = Field(default=0, description="Of the area or the treatment; else 0.")
    path: str = Field(description="SVG path data.")
    grips: list[ShapeGrip]


def tone_shapes(tone: Tone, treatments: Treatments, frame: Frame) -> list[ToneShape]:
    """Every wash, every band and ellipse of areas and treatments, and every sharp zone."""
    to_output = frame.from_output.inverse
    sides = frame.photo.photo_width, frame.photo.photo_height
    shapes = []
    for number, wash in enumerate(tone.washes):
        path, grips = _line(wash, to_output, sides)
        if wash.form == "radial":
            path = _circle(wash, to_output, sides)
        shapes.append(ToneShape(place="wash", number=number, path=path, grips=grips))
    for number, area in enumerate(tone.areas):
        shapes += _masks("area", number, area.masks, to_output, sides)
    for number, treatment in enumerate(treatments.made):
        shapes += _masks("treatment", number, treatment.masks, to_output, sides)
        if isinstance(treatment, SharpZone):
            path, grips = _zone(treatment, _laid(treatment.centre, to_output, sides), frame)
            shapes.append(ToneShape(place="zone", number=number, path=path, grips=grips))
    return shapes


def _masks(
    place: Literal["area", "treatment"],
    number: int,
    masks: Sequence[AreaMask],
    to_output: Affine,
    sides: tuple[int, int],
) -> Iterator[ToneShape]:
    for which, mask in enumerate(masks):
        if isinstance(mask, BandMask):
            path, grips = _line(mask, to_output, sides)
        elif isinstance(mask, EllipseMask):
            path, grips = _ellipse(mask, to_output, sides)
        else:
            continue
        yield ToneShape(place=place, number=number, mask=which, path=path, grips=grips)


Spots = tuple[float, float]


def _line(
    line: Wash | BandMask, to_output: Affine, sides: tuple[int, int]
) -> tuple[str, list[ShapeGrip]]:
    """From start, marked by a bar across, to end, marked by an arrow's head."""
    (x0, y0), (x1, y1) = (_laid(spot, to_output, sides) for spot in (line.start, line.end))
    along = (x1 - x0) * _CROSS, (y1 - y0) * _CROSS
    across = -along[1], along[0]
    path = f"M{x0:.2f} {y0:.2f}L{x1:.2f} {y1:.2f}"
    path += f"M{x0 - across[0]:.2f} {y0 - across[1]:.2f}l{2 * across[0]:.2f} {2 * across[1]:.2f}"
    for side in (1, -1):
        x, y = x1 - along[0] + side * across[0], y1 - along[1] + side * across[1]
        path += f"M{x:.2f} {y:.2f}L{x1:.2f} {y1:.2f}"
    middle = ShapeGrip(grip="middle", x=(x0 + x1) / 2, y=(y0 + y1) / 2)
    return path, [ShapeGrip(grip="start", x=x0, y=y0), middle, ShapeGrip(grip="end", x=x1, y=y1)]


def _zone(zone: SharpZone, middle: Spots, frame: Frame) -> tuple[str, list[ShapeGrip]]:
    """The edge up to which it is sharp, and the one from which on it is wholly blurred."""
    x, y = middle
    short = frame.output.short_side
    ways = zone.sharp * short, (zone.sharp + zone.fade) * short
    if zone.form == "round":
        end = x + ways[0], y
        path = "".join(_round(x, y, way) for way in ways)
    else:
        angle = math.radians(zone.angle)
        along, across = (math.cos(angle), math.sin(angle)), (-math.sin(angle), math.cos(angle))
        end = x + ways[0] * across[0], y + ways[0] * across[1]
        reach = frame.output.width + frame.output.height
        path = ""
        for way in (*ways, -ways[0], -ways[1]):
            px, py = x + way * across[0], y + way * across[1]
            path += f"M{px - reach * along[0]:.2f} {py - reach * along[1]:.2f}"
            path += f"l{2 * reach * along[0]:.2f} {2 * reach * along[1]:.2f}"
    return path, [ShapeGrip(grip="middle", x=x, y=y), ShapeGrip(grip="end", x=end[0], y=end[1])]


def _circle(wash: Wash, to_output: Affine, sides: tuple[int, int]) -> str:
    (x, y), (rim_x, rim_y) = (_laid(spot, to_output, sides) for spot in (wash.start, wash.end))
    return _round(x, y, math.hypot(rim_x - x, rim_y - y))


def _round(x: float, y: float, radius: float) -> str:
    turn = [2 * math.pi * corner / _CORNERS for corner in range(_CORNERS)]
    return _closed([(x + radius * math.cos(a), y + radius * math.sin(a)) for a in turn])


def _ellipse(
    ellipse: EllipseMask, to_output: Affine, sides: tuple[int, int]
) -> tuple[str, list[ShapeGrip]]:
    long_side, angle = max(sides), math.radians(ellipse.angle)
    x0, y0 = ellipse.centre.x * sides[0], ellipse.centre.y * sides[1]

    def rim(turn: float) -> Spots:
        x = ellipse.radius_x * long_side * math.cos(turn)
        y = ellipse.radius_y * long_side * math.sin(turn)
        along, across = math.cos(angle), math.sin(angle)
        return to_output(x0 + x * along - y * across, y0 + x * across + y * along)

    path = _closed([rim(2 * math.pi * corner / _CORNERS) for corner in range(_CORNERS)])
    places: dict[ToneGrip, Spots] = {
        "middle": to_output(x0, y0),
        "right": rim(0),
        "below": rim(math.pi / 2),
    }
    return path, [ShapeGrip(grip=grip, x=x, y=y) for grip, (x, y) in places.items()]


def _laid(spot: PhotoPoint, to_output: Affine, sides: tuple[int, int]) -> Spots:
    return to_output(spot.x * sides[0], spot.y * sides[1])


def _closed(corners: list[Spots]) -> str:
    return "M" + "L".join(f"{x:.2f} {y:.2f}" for x, y in corners) + "Z"
