"""Gestures: what drags and typed numbers make of windows, on straight and on turned photos."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import Box
from lucky_margin.core.framing import Room, dragged, drawn, scaled, typed, whole
from lucky_margin.core.framing.gestures import WindowField

parts = st.floats(0, 1)
ratios = st.floats(0.02, 50)
sides = st.integers(2, 6000)
ways = st.floats(-9000, 9000)
grips = st.sampled_from(["move", "n", "e", "s", "w", "ne", "se", "sw", "nw"])
fields = st.sampled_from(WindowField.__args__)
rooms = st.builds(
    lambda width, height, degrees: Room(3000, 2500, width, height, degrees),
    sides,
    sides,
    st.one_of(st.just(0.0), st.floats(-45, 45)),
)


class RoomTest(unittest.TestCase):
    """Any gesture in any room gives a window that lies in it and holds its ratio."""

    def check(self, box: Box, room: Room, ratio: float | None) -> None:
        self.assertTrue(room.holds(box), (box, room))
        self.assertGreater(min(box.width, box.height), 0)
        if ratio:
            self.assertAlmostEqual(box.ratio / ratio, 1, delta=1e-6)

    def start(self, room: Room, ratio: float | None) -> Box:
        width, height = room.largest(ratio)
        box = Box(left=0, top=0, width=width * 0.7, height=height * 0.7)
        return room.moved_inside(box)

    @settings(max_examples=400)
    @given(room=rooms, ratio=st.one_of(st.none(), ratios), grip=grips, dx=ways, dy=ways,
           pull=st.sampled_from([0, 8, 500]))  # fmt: skip
    def test_drags(self, room, ratio, grip, dx, dy, pull):
        start = self.start(room, ratio)
        box = dragged(start, room, grip=grip, dx=dx, dy=dy, ratio=ratio, pull=pull)
        self.check(box, room, ratio)
        if grip == "move":
            self.assertAlmostEqual(box.width, start.width, delta=1e-6)

    @settings(max_examples=200)
    @given(room=rooms, ratio=st.one_of(st.none(), ratios), x0=ways, y0=ways, x1=ways, y1=ways)
    def test_drawing(self, room, ratio, x0, y0, x1, y1):
        self.check(drawn(room, x0=x0, y0=y0, x1=x1, y1=y1, ratio=ratio), room, ratio)

    @settings(max_examples=200)
    @given(room=rooms, ratio=st.one_of(st.none(), ratios), field=fields, value=ways)
    def test_typing(self, room, ratio, field, value):
        box = typed(self.start(room, ratio), room, field=field, value=value, ratio=ratio)
        self.check(box, room, ratio)

    @given(room=rooms, ratio=ratios, factor=st.floats(0.02, 50))
    def test_scaling_keeps_the_proportions(self, room, ratio, factor):
        self.check(scaled(self.start(room, ratio), room, factor=factor), room, ratio)

    @given(room=rooms, ratio=ratios)
    def test_the_largest_window_cannot_be_larger(self, room, ratio):
        """By bisection over the four corners, which knows nothing of the closed form."""
        width, height = room.largest(ratio)

        def fits(share):
            box = Box(left=0, top=0, width=width * share, height=height * share)
            x, y = room.centre_x, room.centre_y
            return room.holds(box.moved(x - box.centre[0], y - box.centre[1]))

        self.assertTrue(fits(1))
        self.assertFalse(fits(1.001))


class SnapTest(unittest.TestCase):
    room = Room.upright(whole(900, 600))
    window = Box(left=310, top=205, width=200, height=120)

    def moved(self, dx, dy, pull):
        box = dragged(self.window, self.room, grip="move", dx=dx, dy=dy, ratio=None, pull=pull)
        return box.left, box.top

    def test_edges_and_centres_are_drawn_to_the_photos_lines(self):
        self.assertEqual(self.moved(-8, 0, 12), (300, 200))  # a third across, a third down
        self.assertEqual(self.moved(38, 34, 12), (350, 240))  # centre on centre
        self.assertEqual(self.moved(-305, -199, 12), (0, 0))  # the photo's own edges

    def test_nothing_is_drawn_from_further_away_or_without_snapping(self):
        self.assertEqual(self.moved(-25, 20, 12), (285, 225))
        self.assertEqual(self.moved(-8, 0, 0), (302, 205))

    def test_a_dragged_edge_snaps_alone(self):
        box = dragged(self.window, self.room, grip="e", dx=86, dy=0, ratio=None, pull=6)
        self.assertEqual((box.left, box.right), (310, 600))


class GestureTest(unittest.TestCase):
    room = Room.upright(whole(1000, 800))
    window = Box(left=200, top=100, width=400, height=500)

    @given(x0=parts, y0=parts, x1=parts, y1=parts, ratio=st.one_of(st.none(), ratios))
    def test_a_drawn_window_is_inside_and_of_the_ratio(self, x0, y0, x1, y1, ratio):
        box = drawn(self.room, x0=x0 * 1000, y0=y0 * 800, x1=x1 * 1000, y1=y1 * 800, ratio=ratio)
        self.assertTrue(self.room.holds(box))
        if ratio:
            self.assertAlmostEqual(box.ratio / ratio, 1, delta=1e-6)

    def test_one_edge_alone_moves_when_free(self):
        box = dragged(self.window, self.room, grip="e", dx=57.4, dy=999, ratio=None, pull=0)
        self.assertEqual((box.left, box.top, box.right, box.height), (200, 100, 657, 500))

    def test_a_corner_keeps_the_opposite_one_and_the_ratio(self):
        box = dragged(self.window, self.room, grip="nw", dx=-80, dy=-100, ratio=0.8, pull=0)
        self.assertEqual((box.right, box.bottom), (600, 600))
        self.assertEqual((box.width, box.height), (480, 600))

    def test_an_edge_cannot_pass_its_opposite(self):
        box = dragged(self.window, self.room, grip="w", dx=5000, dy=0, ratio=None, pull=0)
        self.assertEqual((box.width, box.right), (1, 600))

    def test_typed_numbers_become_what_was_typed(self):
        for field, value, expected in (
            ("from_left", 30, (30, 100, 400, 500)),
            ("from_top", 900, (200, 300, 400, 500)),
            ("width", 100, (200, 100, 100, 500)),
            ("right", 650, (200, 100, 450, 500)),
            ("bottom", 90, (200, 100, 400, 1)),
        ):
            with self.subTest(field):
                box = typed(self.window, self.room, field=field, value=value, ratio=None)
                self.assertEqual((box.left, box.top, box.width, box.height), expected)

    def test_a_typed_width_takes_the_height_along(self):
        box = typed(self.window, self.room, field="width", value=320, ratio=0.8)
        self.assertEqual((box.left, box.top, box.width, box.height), (200, 100, 320, 400))
