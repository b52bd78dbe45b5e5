"""Outlines: true areas, borders that follow them, dashes that close, boxes inside them."""

import math
import unittest

import numpy as np
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import Blob, PlainShape, Polygon, Rectangle, Star
from lucky_margin.core.outlines import (
    dashes_along,
    largest_box_inside,
    line_coverage,
    outline_of,
)

KINDS = ("circle", "oval", "arch", "triangle", "diamond", "heart", "bubble")
SHAPES = (
    Rectangle(),
    Rectangle(radius=0.2),
    *(PlainShape(kind=kind) for kind in KINDS),
    Polygon(sides=5),
    Star(points=7),
    Blob(seed=4),
)


def regular_height(sides):
    """Width and height of a regular polygon of radius 1 with a corner at the top."""
    angles = 2 * math.pi * (np.arange(sides) / sides - 0.25)
    return np.ptp(np.cos(angles)), np.ptp(np.sin(angles))


def exact_areas(width, height):
    """The area of each shape by its textbook formula, filling a size of these sides."""
    short = min(width, height)
    yield PlainShape(kind="circle"), math.pi * short**2 / 4
    yield PlainShape(kind="oval"), math.pi * width * height / 4
    yield PlainShape(kind="triangle"), width * height / 2
    yield PlainShape(kind="diamond"), width * height / 2
    rise = min(width / 2, 0.75 * height)
    yield PlainShape(kind="arch"), math.pi * width * rise / 4 + width * (height - rise)
    # A square of side s on its corner, two half discs of diameter s; its bounds in s.
    wide, high = math.sqrt(0.5) + 1, 1.5 * math.sqrt(0.5) + 0.5
    side = min(width / wide, height / high)
    yield PlainShape(kind="heart"), side**2 + math.pi * side**2 / 4
    yield Rectangle(radius=0.3), width * height - (4 - math.pi) * (0.3 * short) ** 2
    for sides in (3, 5, 6, 11):
        wide, high = regular_height(sides)
        radius = min(width / wide, height / high)
        yield Polygon(sides=sides), sides * radius**2 * math.sin(2 * math.pi / sides) / 2
    for points, depth in ((5, 0.5), (8, 0.3)):
        wide, high = regular_height(points)
        radius = min(width / wide, height / high)
        inner = radius * math.cos(math.pi / points) * (1 - depth)
        yield Star(points=points, depth=depth), points * radius * inner * math.sin(math.pi / points)


class AreaTest(unittest.TestCase):
    def test_masks_have_the_exact_area(self):
        for width, height in ((100, 100), (240, 160), (130, 311)):
            for shape, area in exact_areas(width, height):
                with self.subTest(shape=shape, sides=(width, height)):
                    mask = outline_of(shape, width, height).coverage(width, height)
                    self.assertAlmostEqual(mask.sum() / 255 / area, 1, delta=0.003)

    @settings(max_examples=60)
    @given(
        shape=st.sampled_from(SHAPES),
        sides=st.tuples(st.integers(1, 400), st.integers(1, 400)),
        scale=st.floats(0.05, 1),
        place=st.tuples(st.floats(0, 1), st.floats(0, 1)),
    )
    def test_every_shape_lies_in_its_size(self, shape, sides, scale, place):
        placed = shape.model_copy(update={"scale": scale, "x": place[0], "y": place[1]})
        region = outline_of(placed, *sides).region
        left, top, right, bottom = region.bounds
        self.assertTrue(region.is_valid)
        self.assertGreaterEqual(min(left, top), -1e-6)
        self.assertLessEqual(right, sides[0] + 1e-6)
        self.assertLessEqual(bottom, sides[1] + 1e-6)

    def test_shapes_that_keep_their_proportions_and_those_that_fill(self):
        for shape in SHAPES:
            left, top, right, bottom = outline_of(shape, 400, 200).region.bounds
            fills = shape.kind not in ("circle", "heart", "polygon", "star")
            with self.subTest(shape.kind):
                self.assertAlmostEqual(bottom - top, 200, delta=0.1)
                if fills:
                    self.assertAlmostEqual(right - left, 400, delta=0.1)
                else:
                    self.assertLess(right - left, 260)

    def test_a_seed_gives_one_blob(self):
        one, same, other = (outline_of(Blob(seed=seed), 90, 90).svg() for seed in (3, 3, 4))
        self.assertEqual(one, same)
        self.assertNotEqual(one, other)


class InsetTest(unittest.TestCase):
    def test_every_point_of_an_inset_is_that_far_inside(self):
        for shape in SHAPES:
            with self.subTest(shape):
                outer = outline_of(shape, 300, 240)
                inner = outer.inset(9, 9, 9, 9)
                for ring in inner.rings:
                    far = shapely.distance(shapely.points(ring), outer.region.exterior)
                    self.assertGreaterEqual(far.min(), 9 - 0.01)
                self.assertTrue(outer.region.contains(inner.region))

    def test_corners_stay_whole(self):
        inner = outline_of(PlainShape(kind="triangle"), 200, 200).inset(10, 10, 10, 10)
        self.assertEqual(len(inner.rings[0]), 3)

    def test_nothing_is_left_of_what_is_thinner(self):
        gone = outline_of(PlainShape(kind="circle"), 40, 40).inset(25, 25, 25, 25)
        self.assertEqual((gone.rings, gone.svg()), ([], ""))
        self.assertEqual(gone.coverage(40, 40).max(), 0)


class DashTest(unittest.TestCase):
    @settings(max_examples=80)
    @given(
        shape=st.sampled_from(SHAPES),
        sides=st.tuples(st.integers(60, 900), st.integers(60, 900)),
        dash=st.floats(2, 60),
        gap=st.floats(1, 40),
    )
    def test_dashes_and_gaps_alternate_and_close(self, shape, sides, dash, gap):
        ring = outline_of(shape, *sides).rings[0]
        found = dashes_along(ring, dash, gap)
        gaps = np.append(found.starts[1:], found.starts[0] + found.length) - found.ends
        self.assertGreater(gaps.min(), 0)
        total = (found.ends - found.starts).sum() + gaps.sum()
        self.assertAlmostEqual(total / found.length, 1, places=6)

    def test_on_a_smooth_ring_all_are_alike(self):
        ring = outline_of(PlainShape(kind="circle"), 500, 500).rings[0]
        found = dashes_along(ring, 25, 15)
        lengths = found.ends - found.starts
        self.assertAlmostEqual(np.ptp(lengths), 0, places=6)
        self.assertEqual(len(lengths), round(math.pi * 500 / 40))

    def test_every_corner_has_a_whole_dash(self):
        for shape in (Rectangle(), PlainShape(kind="triangle"), Polygon(sides=24), Star()):
            ring = outline_of(shape, 400, 300).rings[0]
            found = dashes_along(ring, 12, 8)
            stations = np.append(0, np.cumsum(np.linalg.norm(np.diff(ring, axis=0), axis=1)))
            with self.subTest(shape.kind):
                for corner in stations:
                    self.assertTrue(((found.starts < corner) & (corner < found.ends)).any())

    def test_a_dashed_line_covers_its_share_and_its_corners(self):
        outline = outline_of(Rectangle(), 400, 300)
        mask = line_coverage(outline, (10, 10, 10, 10), "dashed", 400, 300)
        self.assertTrue((mask[:10, :10] == 255).all())
        self.assertAlmostEqual(mask[:8].mean() / 255, 2.5 / 4, delta=0.05)

    def test_dots_are_as_wide_as_the_border_and_lie_at_the_corners(self):
        outline = outline_of(Rectangle(), 400, 300)
        mask = line_coverage(outline, (20, 20, 20, 20), "dotted", 400, 300)
        self.assertEqual((mask[10, 10], mask[10, 20], mask[0, 0]), (255, 0, 0))
        dots = round(2 * (380 + 280) / 40)
        self.assertAlmostEqual(mask.sum() / 255 / (dots * math.pi * 100), 1, delta=0.03)

    def test_a_double_line_leaves_the_middle_third(self):
        outline = outline_of(PlainShape(kind="circle"), 300, 300)
        mask = line_coverage(outline, (30, 30, 30, 30), "double", 300, 300)
        self.assertEqual([int(mask[y, 150]) for y in (5, 15, 25)], [255, 0, 255])


class MarginBoxTest(unittest.TestCase):
    def test_known_boxes(self):
        for shape, ratio, expected in (
            (PlainShape(kind="circle"), 1, 200 / math.sqrt(2)),  # a square in a circle
            (PlainShape(kind="diamond"), 1, 100),  # half as wide as the diamond
            (PlainShape(kind="triangle"), 1, 100),  # the same, standing on the base
            (Rectangle(), 2, 200),
        ):
            with self.subTest(shape.kind):
                box = largest_box_inside(outline_of(shape, 200, 200), ratio)
                self.assertAlmostEqual(box.width, expected, delta=1)
                self.assertAlmostEqual(box.ratio, ratio, places=6)

    @settings(max_examples=60)
    @given(
        shape=st.sampled_from(SHAPES),
        sides=st.tuples(st.integers(20, 600), st.integers(20, 600)),
        inset=st.floats(0, 8),
    )
    def test_it_lies_inside_and_touches(self, shape, sides, inset):
        outline = outline_of(shape, *sides).inset(inset, inset, inset, inset)
        box = largest_box_inside(outline, sides[0] / sides[1])
        if box is None:
            return self.assertLess(outline.region.area, 1)
        found = shapely.box(box.left, box.top, box.right, box.bottom)
        self.assertTrue(outline.region.buffer(1e-4).contains(found))
        grown = shapely.affinity.scale(found, 1.02, 1.02)
        self.assertFalse(outline.region.contains(grown))
        return None
