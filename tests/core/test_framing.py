"""Framing: windows inside the photo, of the exact ratio, whatever is asked."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from lucky_margin.core.document import (
    AsCropped,
    Border,
    Box,
    Finish,
    FixedPixels,
    Focus,
    LineBand,
    OneSide,
    Point,
    Ratio,
    Sides,
    Window,
)
from lucky_margin.core.framing import frame_of, whole
from tests.support import finish_of, with_size

SLACK = 1e-6

photo_sides = st.integers(1, 6000)
output_sides = st.integers(1, 4000)
ratios = st.floats(0.02, 50)
parts = st.floats(0, 1)
thicknesses = st.floats(0, 0.45)


def inside(test: unittest.TestCase, box: Box, photo: Box) -> None:
    test.assertGreaterEqual(box.left, photo.left - SLACK)
    test.assertGreaterEqual(box.top, photo.top - SLACK)
    test.assertLessEqual(box.right, photo.right + SLACK)
    test.assertLessEqual(box.bottom, photo.bottom + SLACK)


class FrameTest(unittest.TestCase):
    @given(
        photo=st.tuples(photo_sides, photo_sides),
        output=st.tuples(output_sides, output_sides),
        focus=st.tuples(parts, parts),
        thickness=thicknesses,
        outside=st.booleans(),
    )
    def test_a_following_window_is_inside_the_photo_and_never_stretches(
        self, photo, output, focus, thickness, outside
    ):
        border = Border.of(LineBand(thickness=Sides.all(thickness), around=outside))
        finish = finish_of(*output, border=border, focus=Focus(point=Point(x=focus[0], y=focus[1])))
        frame = frame_of(finish, finish.sizes[0], *photo)
        inside(self, frame.sampled, whole(*photo))
        box = frame.output.photo_box
        scale_x, scale_y = frame.sampled.width / box.width, frame.sampled.height / box.height
        self.assertAlmostEqual(scale_x / scale_y, 1, delta=1e-6)
        self.assertEqual((frame.output.width, frame.output.height), output)
        self.assertLess(frame.lost, SLACK * max(photo))

    @given(
        photo=st.tuples(photo_sides, photo_sides),
        window=st.tuples(st.floats(-9000, 9000), st.floats(-9000, 9000),
                         st.floats(0.1, 9000), st.floats(0.1, 9000)),
        output=st.tuples(output_sides, output_sides),
    )  # fmt: skip
    def test_any_typed_window_is_moved_inside_and_sampled_undistorted(self, photo, window, output):
        x, y, width, height = window
        own = Window(centre_x=x, centre_y=y, width=width, height=height)
        finish = with_size(finish_of(*output), crop={"window": own})
        frame = frame_of(finish, finish.sizes[0], *photo)
        inside(self, frame.window, whole(*photo))
        inside(self, frame.sampled, frame.window)
        box = frame.output.photo_box
        self.assertAlmostEqual(frame.sampled.ratio / box.ratio, 1, delta=1e-6)

    @given(
        window=st.tuples(st.integers(0, 90), st.integers(0, 70), st.integers(1, 60)), t=thicknesses
    )
    def test_as_cropped_gives_one_output_pixel_to_a_photo_pixel(self, window, t):
        left, top, side = window
        own = Window(
            centre_x=left + side / 2, centre_y=top + (side + 3) / 2, width=side, height=side + 3
        )
        border = Border.of(LineBand(thickness=Sides.all(t), around=True))
        finish = with_size(finish_of(border=border), crop={"window": own})
        frame = frame_of(finish, finish.sizes[0], 200, 200)
        self.assertEqual(
            (frame.output.photo_box.width, frame.output.photo_box.height), (side, side + 3)
        )
        self.assertEqual(frame.sampled, frame.window)

    def test_a_locked_ratio_holds_within_a_pixel_as_cropped(self):
        finish = with_size(finish_of(), pixels=AsCropped(ratio=Ratio(width=7, height=9.5)))
        frame = frame_of(finish, finish.sizes[0], 3600, 2400)
        self.assertEqual(frame.output.height, 2400)
        self.assertEqual(frame.output.width, round(2400 * 7 / 9.5))
        self.assertEqual(frame.enlargement, 1)

    @given(
        side=st.sampled_from(["width", "height"]),
        length=st.integers(20, 1500),
        ratio=st.floats(0.1, 10),
        t=st.floats(0, 0.2),
    )
    def test_one_side_keeps_its_length_and_the_other_follows(self, side, length, ratio, t):
        border = Border.of(LineBand(thickness=Sides.all(t), around=True))
        pixels = OneSide(side=side, length=length, ratio=Ratio(width=ratio, height=1))
        finish = with_size(finish_of(border=border), pixels=pixels)
        output = frame_of(finish, finish.sizes[0], 5000, 5000).output
        self.assertEqual(getattr(output, side), length)
        # Sides and hues are whole pixels, so the box's ratio is off by their rounding at most.
        box = output.photo_box
        self.assertLessEqual(abs(box.width - ratio * box.height), 2 * (1 + ratio))

    def test_straight_borders_snap_to_whole_pixels_and_leave_one_for_the_photo(self):
        for width, height, t in ((1080, 1350, 0.025), (3, 3, 0.45), (1, 1, 0.45), (2, 50, 0.45)):
            with self.subTest(width=width, t=t):
                finish = finish_of(
                    width, height, border=Border.of(LineBand(thickness=Sides.all(t), around=True))
                )
                box = frame_of(finish, finish.sizes[0], 500, 500).output.photo_box
                self.assertEqual(
                    box, Box.model_validate({k: round(v) for k, v in box.model_dump().items()})
                )
                self.assertGreaterEqual(min(box.width, box.height), 1)


class FollowingTest(unittest.TestCase):
    def frame(self, focus: Focus, width: int, height: int):
        finish: Finish = finish_of(width, height, focus=focus)
        return frame_of(finish, finish.sizes[0], 1000, 500)

    def test_the_window_is_centred_on_the_focus_where_the_photo_allows(self):
        self.assertEqual(self.frame(Focus(point=Point(x=0.5, y=0.5)), 10, 10).window.left, 250)
        self.assertEqual(self.frame(Focus(point=Point(x=0.9, y=0.5)), 10, 10).window.right, 1000)

    def test_the_focus_box_is_kept_in(self):
        box = Box(left=0.2, top=0, width=0.4, height=1)
        window = self.frame(Focus(point=Point(x=0.55, y=0.5), box=box), 10, 10).window
        self.assertLessEqual(window.left, 200)
        self.assertGreaterEqual(window.right, 600)

    def test_a_focus_box_larger_than_the_window_is_centred_in_it(self):
        box = Box(left=0.1, top=0, width=0.6, height=1)
        window = self.frame(Focus(point=Point(x=0.1, y=0.5), box=box), 10, 10).window
        self.assertAlmostEqual(window.centre[0], 400)


class TooLargeTest(unittest.TestCase):
    def test_a_size_over_the_limit_is_refused(self):
        from lucky_margin.core.errors import TooLarge

        finish = with_size(finish_of(), pixels=OneSide(side="width", length=16000))
        with self.assertRaisesRegex(TooLarge, "16000 × 12000 pixels"):
            frame_of(finish, finish.sizes[0], 400, 300)

    def test_fixed_pixels_know_their_ratio(self):
        self.assertEqual(FixedPixels(width=1080, height=1350).ratio.value, 0.8)
