"""The lifts of a scene: parts of the photo over its base, with their edges and shadows."""

import math
from dataclasses import dataclass
from functools import cached_property

import cv2
import numpy as np
from numpy.typing import NDArray

from lucky_margin.core.affine import UNCHANGED, Affine
from lucky_margin.core.blurring import blurred
from lucky_margin.core.contour import distance_to_contour, line_mask
from lucky_margin.core.cut_out import box_of
from lucky_margin.core.document import (
    Lift,
    LiftBase,
    ShapeRegion,
    rgb_of,
)
from lucky_margin.core.edits.registry import ToneGrip
from lucky_margin.core.grounds import toned_down
from lucky_margin.core.outlines import PolygonOutline, outline_of
from lucky_margin.core.pieces import Sprite
from lucky_margin.core.render.compose import AnyLayer, SpriteLayer
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.laying import placed
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.render.tone_shapes import ShapeGrip, ToneShape
from lucky_margin.core.render.treated import treated_under
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Mask, Picture8, Region

Floats = NDArray[np.float32]

_UNIT = 1000
"""Pixels of the box in which a shape is drawn before it is laid on the photo."""


def on_base(picture: Picture8, scene: Scene) -> Picture8:
    """``picture``, which has the base's treatments, as toned down as the base is."""
    if not scene.lifts.is_set or scene.cut_out.on:
        return picture
    base = scene.lifts.base
    return toned_down(picture, base.grey, base.light)


def lift_layers(scene: Scene, grid: Grid) -> list[AnyLayer]:
    """Every lift with its shadow and its edge, the lowest first."""
    if scene.finish.photo is None:
        return []
    return [
        layer
        for lift in scene.lifts.seen
        if not _changes_nothing(lift, scene)
        for layer in _Laid(lift, scene, grid).layers
    ]


def lift_outline(lift: Lift, scene: Scene) -> PolygonOutline | None:
    """The edge of a lift's region in output pixels, tilted and enlarged; of the subject, of the
    box around it. None where there is no subject."""
    points = _points(lift, scene)
    if points is None:
        return None
    turned = _turned(lift, points)
    return PolygonOutline.of(np.array([turned(x, y) for x, y in points]))


def _changes_nothing(lift: Lift, scene: Scene) -> bool:
    same = all(one.covers == "all" for one in scene.treatments)
    is_bare = scene.lifts.base == LiftBase() and not scene.cut_out.on
    return lift.is_plain and is_bare and same


def _points(lift: Lift, scene: Scene) -> NDArray[np.float64] | None:
    """The region's edge in output pixels, before it is tilted."""
    facts, to_output = scene.facts, scene.frame.from_output.inverse
    if isinstance(lift.region, ShapeRegion):
        box = lift.region.box.scaled(facts.width, facts.height)
        ratio = box.width / box.height
        sides = max(1, round(_UNIT * max(ratio, 1))), max(1, round(_UNIT / min(ratio, 1)))
        points = np.vstack(outline_of(lift.region.shape, *sides).rings)
        laid = points * [box.width / sides[0], box.height / sides[1]] + [box.left, box.top]
        return np.array([to_output(x, y) for x, y in laid])
    found = box_of(shown_photo(scene).matte())
    if found is None:
        return None
    box = found.scaled(facts.width, facts.height)
    left, top, right, bottom = box.edges
    corners = ((left, top), (right, top), (right, bottom), (left, bottom))
    return np.array([to_output(x, y) for x, y in corners])


def _turned(lift: Lift, points: NDArray[np.float64]) -> Affine:
    """A lift's tilt and size about the middle of its region, in output pixels."""
    x, y = (points.min(axis=0) + points.max(axis=0)) / 2
    turn = math.radians(lift.tilt)
    cos, sin = lift.size * math.cos(turn), lift.size * math.sin(turn)
    return Affine(cos, -sin, sin, cos, x, y).after(Affine(1, 0, 0, 1, -x, -y))


@dataclass(frozen=True)
class _Laid:
    """One lift on a grid."""

    lift: Lift
    scene: Scene
    grid: Grid

    @property
    def layers(self) -> list[AnyLayer]:
        if self._outline is None or self._seen is None:
            return []
        lift, layers = self.lift, list[AnyLayer]()
        covered, outer = self._masks
        if lift.shadow:
            layers.append(self._in_colour(lift.shadow.colour, self._shadow(outer)))
        if lift.edge:
            layers.append(self._in_colour(lift.edge_colour, self._cut(outer)))
        layers.append(self._sprite(self._picture, self._cut(covered)))
        return layers

    @cached_property
    def _outline(self) -> PolygonOutline | None:
        return lift_outline(self.lift, self.scene)

    @property
    def _moved(self) -> Affine:
        """From output pixels to where the photo shows what is there, in output pixels."""
        if self.lift.tilt == 0 and self.lift.size == 1:
            return UNCHANGED
        points = _points(self.lift, self.scene)
        assert points is not None
        return _turned(self.lift, points).inverse

    @cached_property
    def _part(self) -> Region:
        """The part of the grid's whole picture, and beyond it, where anything of it can be: the
        same for every region."""
        lift, grid = self.lift, self.grid
        assert self._outline is not None
        left, top, right, bottom = self._outline.region.bounds
        room = lift.edge * self._short
        if lift.shadow:
            shadow = lift.shadow
            room += (max(abs(shadow.x), abs(shadow.y)) + 3 * shadow.blur) * self._short
        scale = grid.mean_scale
        first_x, first_y = (math.floor((side - room) * scale) - 2 for side in (left, top))
        last_x, last_y = (math.ceil((side + room) * scale) + 2 for side in (right, bottom))
        first_x, first_y = max(first_x, -grid.columns), max(first_y, -grid.rows)
        last_x, last_y = min(last_x, 2 * grid.columns), min(last_y, 2 * grid.rows)
        return first_x, first_y, max(1, last_x - first_x), max(1, last_y - first_y)

    @cached_property
    def _seen(self) -> Region | None:
        """What of that lies in the grid's region, in the whole picture's pixels."""
        (left, top, width, height), (x, y, wide, high) = self._part, self.grid.region
        first_x, first_y = max(left, x), max(top, y)
        sides = min(left + width, x + wide) - first_x, min(top + height, y + high) - first_y
        return (first_x, first_y, *sides) if min(sides) > 0 else None

    @property
    def _short(self) -> float:
        return min(self.scene.sides)

    @property
    def _masks(self) -> tuple[Mask, Mask]:
        """What the lift covers of its part, and what it covers with its edge."""
        lift, width = self.lift, self.lift.edge * self._short * self.grid.mean_scale
        if isinstance(lift.region, ShapeRegion):
            return self._covered(0), self._covered(lift.edge * self._short)
        to_full = self._moved.after(self.grid.to_full)
        subject = shown_photo(self.scene).subject_alone
        alpha = placed(subject, self.scene.mapping(to_full), self._part)[:, :, 3]
        if not width:
            return alpha, alpha
        distance = distance_to_contour(alpha.astype(np.float32) / np.float32(255), width + 2)
        line = line_mask(distance, gap=0, width=width, softness=0, strength=1, inside=False)
        return alpha, np.maximum(alpha, line)

    def _covered(self, grown: float) -> Mask:
        """How much of each pixel of its part its outline covers, ``grown`` by output pixels."""
        assert self._outline is not None
        outline = self._outline.grown(grown).scaled(self.grid.scale_x, self.grid.scale_y)
        left, top, width, height = self._part
        return outline.moved(-left, -top).coverage(width, height)

    def _shadow(self, outer: Mask) -> Mask:
        shadow = self.lift.shadow
        assert shadow is not None
        scale = self._short * self.grid.mean_scale
        way = np.array([[1, 0, shadow.x * scale], [0, 1, shadow.y * scale]])
        moved = cv2.warpAffine(outer.astype(np.float32), way, outer.shape[::-1])
        soft = blurred(np.asarray(moved, np.float32), shadow.blur * scale)
        return self._cut(np.asarray(np.rint(soft * np.float32(shadow.opacity)), np.uint8))

    def _cut(self, mask: Mask) -> Mask:
        """What is seen of a mask of its part."""
        assert self._seen is not None
        (left, top, _, _), (x, y, width, height) = self._part, self._seen
        return mask[y - top : y - top + height, x - left : x - left + width]

    @property
    def _picture(self) -> Picture8:
        """The photo as the lift shows it, where it is seen."""
        grid, scene = self.grid, self.scene
        assert self._seen is not None
        part = Grid(grid.columns, grid.rows, grid.scale_x, grid.scale_y, self._seen)
        kept = tuple(one for one in scene.treatments if one.covers != "base")
        return treated_under(shown_photo(scene).whole, scene, part, kept, self._moved)

    def _in_colour(self, colour: str, mask: Mask) -> SpriteLayer:
        picture = np.empty((*mask.shape, 3), np.uint8)
        picture[:] = rgb_of(colour)
        return self._sprite(picture, mask)

    def _sprite(self, picture: Picture8, mask: Mask) -> SpriteLayer:
        """``picture`` where ``mask`` lets it through, where it is seen."""
        assert self._seen is not None
        alpha = np.ascontiguousarray(mask)
        if picture.shape[2] == 4:
            own = np.ascontiguousarray(picture[:, :, 3])
            alpha = np.asarray(cv2.multiply(alpha, own, scale=1 / 255), np.uint8)
        straight = np.dstack([picture[:, :, :3], alpha])
        pixels = np.asarray(cv2.cvtColor(straight, cv2.COLOR_RGBA2mRGBA), np.uint8)
        x, y = self._seen[0] - self.grid.region[0], self._seen[1] - self.grid.region[1]
        return SpriteLayer(Sprite(x, y, pixels), x, y)


def lift_shapes(scene: Scene) -> list[ToneShape]:
    """What a screen draws of the lifts: their edges as they lie, and grips on the regions they are
    taken from. The subject has its own edge and no grips."""
    if scene.finish.photo is None:
        return []
    lifted = scene.finish.as_set("lifts", scene.size).lifted
    return [
        ToneShape(place="lift", number=number, path=_edge(lift, scene), grips=_grips(lift, scene))
        for number, lift in enumerate(lifted)
        if isinstance(lift.region, ShapeRegion)
    ]


def _edge(lift: Lift, scene: Scene) -> str:
    outline = lift_outline(lift, scene)
    return outline.svg() if outline else ""


def _grips(lift: Lift, scene: Scene) -> list[ShapeGrip]:
    assert isinstance(lift.region, ShapeRegion)
    box = lift.region.box.scaled(scene.facts.width, scene.facts.height)
    to_output = scene.frame.from_output.inverse
    places: dict[ToneGrip, tuple[float, float]] = {
        "start": (box.left, box.top),
        "middle": box.centre,
        "end": (box.right, box.bottom),
    }
    laid = {grip: to_output(*place) for grip, place in places.items()}
    return [ShapeGrip(grip=grip, x=x, y=y) for grip, (x, y) in laid.items()]
