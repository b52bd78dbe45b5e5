"""Turning: exact where it can be, sharp and without empty corners where it can't."""

import itertools
import unittest

import cv2
import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from lucky_margin.core.affine import Affine
from lucky_margin.core.document import (
    BlurredPhoto,
    Border,
    Export,
    Gradient,
    LineBand,
    OtherPhoto,
    PlainShape,
    Sides,
    SolidColour,
    Turn,
    Window,
)
from lucky_margin.core.framing import TurnedPhoto, frame_of
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts
from lucky_margin.core.render import render
from lucky_margin.core.sampling import place
from lucky_margin.core.scene import MemorySources
from tests.support import SHA, finish_of, gradient, noise, scene_of, sources_of, with_size

PNG = Export(format="png")

turns = st.builds(
    Turn,
    mirrored=st.booleans(),
    quarters=st.integers(0, 3),
    straighten=st.floats(-45, 45),
    empty_corners=st.booleans(),
)
sides = st.tuples(st.integers(1, 4000), st.integers(1, 4000))


def drawn(finish, sources, **options):
    return render(scene_of(finish, sources), **options)


class TurnedPhotoTest(unittest.TestCase):
    @given(sides=sides, turn=turns, at=st.tuples(st.floats(0, 1), st.floats(0, 1)))
    def test_there_and_back_is_the_same_point_inside_the_bounds(self, sides, turn, at):
        photo = TurnedPhoto(*sides, turn)
        x, y = at[0] * sides[0], at[1] * sides[1]
        turned = photo.to_turned(x, y)
        back = photo.to_photo(*turned)
        self.assertAlmostEqual(back[0], x, delta=1e-6)
        self.assertAlmostEqual(back[1], y, delta=1e-6)
        self.assertTrue(-1e-6 <= turned[0] <= photo.bounds.width + 1e-6)
        self.assertTrue(-1e-6 <= turned[1] <= photo.bounds.height + 1e-6)

    @given(sides=sides, turn=turns, size=st.tuples(st.integers(1, 900), st.integers(1, 900)))
    def test_a_window_never_shows_an_empty_corner_unless_that_is_allowed(self, sides, turn, size):
        finish = finish_of(*size, turn=turn.model_copy(update={"empty_corners": False}))
        self.assertTrue(frame_of(finish, finish.sizes[0], *sides).covers)


class ExactTest(unittest.TestCase):
    """Quarter turns and mirroring copy pixels."""

    def test_all_eight_ways_to_lay_a_photo(self):
        photo = noise(61, 47, 4)
        for mirrored, quarters in itertools.product((False, True), range(4)):
            expected = np.rot90(photo[:, ::-1] if mirrored else photo, -quarters)
            turn = Turn(mirrored=mirrored, quarters=quarters)
            with self.subTest(mirrored=mirrored, quarters=quarters):
                finish = finish_of(export=PNG, turn=turn)
                np.testing.assert_array_equal(drawn(finish, sources_of(photo)), expected)
                np.testing.assert_array_equal(
                    drawn(finish, sources_of(photo), view="photo"), expected
                )

    def test_a_shrunk_picture_turns_with_the_photo(self):
        sources = sources_of(gradient(400, 300))
        straight = drawn(finish_of(80, 60, export=PNG), sources).astype(int)
        turned = drawn(finish_of(60, 80, export=PNG, turn=Turn(quarters=1)), sources)
        self.assertLessEqual(np.abs(np.rot90(straight, -1) - turned).max(), 1)


class AskewTest(unittest.TestCase):
    def test_it_is_the_photo_turned_by_a_general_library(self):
        """Against OpenCV's warp of a smooth picture, in the middle where both have pixels."""
        photo = gradient(900, 900)
        angle = np.radians(12)
        cos, sin = np.cos(angle), np.sin(angle)
        mapping = Affine(cos, sin, -sin, cos, 450 - 300 * (cos + sin), 450 - 300 * (cos - sin))
        ours = place(photo, mapping, (0, 0, 600, 600))
        # OpenCV counts from pixel centres.
        shift_x = mapping.x0 + 0.5 * (mapping.a + mapping.b) - 0.5
        shift_y = mapping.y0 + 0.5 * (mapping.c + mapping.d) - 0.5
        matrix = np.array([[mapping.a, mapping.b, shift_x], [mapping.c, mapping.d, shift_y]])
        flags = cv2.INTER_LINEAR | cv2.WARP_INVERSE_MAP
        theirs = cv2.warpAffine(photo, matrix, (600, 600), flags=flags)
        self.assertLessEqual(np.abs(ours.astype(int) - theirs).max(), 1)

    def test_an_edge_keeps_its_contrast(self):
        """A black and white edge laid askew is white and black two pixels beside it."""
        photo = np.zeros((400, 400, 3), np.uint8)
        photo[:, 200:] = 255
        finish = finish_of(300, 300, export=PNG, turn=Turn(straighten=10))
        window = Window(centre_x=200, centre_y=200, width=300, height=300)
        picture = drawn(with_size(finish, crop={"window": window}), sources_of(photo))
        row = picture[150, :, 0].astype(int)
        middle = int(np.argmax(row > 127))
        self.assertLessEqual(row[middle - 3], 2)
        self.assertGreaterEqual(row[middle + 3], 253)

    def test_regions_and_tiles_fit_together(self):
        finish = finish_of(700, 560, export=PNG, turn=Turn(straighten=-7.3, mirrored=True))
        sources = sources_of(noise(900, 800))
        whole = drawn(finish, sources)
        for region in ((0, 0, 10, 10), (505, 500, 190, 60), (3, 511, 640, 2)):
            left, top, width, height = region
            with self.subTest(region=region):
                np.testing.assert_array_equal(
                    drawn(finish, sources, region=region),
                    whole[top : top + height, left : left + width],
                )

    def test_empty_corners_are_transparent_or_show_the_backdrop(self):
        turn = Turn(straighten=30, empty_corners=True)
        window = Window(centre_x=100, centre_y=100, width=260, height=260)
        finish = with_size(finish_of(130, 130, export=PNG, turn=turn), crop={"window": window})
        sources = sources_of(noise(200, 200))
        picture = drawn(finish, sources)
        self.assertEqual(picture[0, 0].tolist(), [0, 0, 0, 0])
        self.assertEqual(picture[65, 65, 3], 255)
        filled = finish.model_copy(update={"backdrop": SolidColour(colour="#0A141E")})
        self.assertEqual(drawn(filled, sources)[0, 0].tolist(), [10, 20, 30])


class GroundTest(unittest.TestCase):
    photo = noise(120, 90)

    def contained(self, **fields):
        return with_size(
            finish_of(200, 400, export=PNG, **fields), crop={"contain": True, "window": None}
        )

    def test_a_contained_photo_is_whole_and_undistorted(self):
        picture = drawn(
            self.contained(backdrop=SolidColour(colour="#FF0000")), sources_of(self.photo)
        )
        red = (picture == [255, 0, 0]).all(axis=2).all(axis=1)
        self.assertEqual((int(red.sum()), bool(red[0]), bool(red[-1])), (250, True, True))

    def test_a_gradient_goes_from_corner_to_corner_in_its_direction(self):
        for angle, first, last in (
            (180, (0, 0), (-1, 0)),
            (90, (0, 0), (0, -1)),
            (0, (-1, 0), (0, 0)),
            (135, (0, 0), (-1, -1)),
        ):
            ground = Gradient(start="#000000", end="#FFFFFF", angle=angle)
            clear = np.zeros((50, 50, 4), np.uint8)
            finish = finish_of(120, 90, export=PNG, backdrop=ground)
            picture = drawn(finish, sources_of(clear))
            with self.subTest(angle=angle):
                self.assertLessEqual(picture[first].max(), 3)
                self.assertGreaterEqual(picture[last].min(), 252)

    def test_a_gradient_does_not_band(self):
        """Over few levels it is dithered: no run of one level is as long as its step."""
        ground = Gradient(start="#404040", end="#484848", angle=90)
        clear = np.zeros((50, 50, 4), np.uint8)
        picture = drawn(finish_of(800, 20, export=PNG, backdrop=ground), sources_of(clear))
        changes = (np.diff(picture[7, :, 0].astype(int)) != 0).sum()
        self.assertGreater(changes, 100)
        np.testing.assert_allclose(picture[:, 400].mean(), 0x44, atol=0.3)

    def test_the_blurred_photo_keeps_its_mean_light_and_loses_its_detail(self):
        photo = np.zeros((300, 300, 3), np.uint8)
        photo[::2] = 255  # stripes of half the light
        ground = BlurredPhoto(blur=0.1)
        picture = drawn(self.contained(backdrop=ground), sources_of(photo))
        beside = picture[:90].astype(float)
        self.assertAlmostEqual(beside.mean(), 188, delta=2)  # sRGB of one half
        self.assertLess(beside.std(), 2)

    def test_another_photo_covers_the_size(self):
        other = np.full((30, 60, 3), (9, 8, 7), np.uint8)
        facts = PhotoFacts(60, 30, file_format="PNG", bits=8, has_alpha=False)
        first = sources_of(self.photo)
        sources = MemorySources({**first._photos, "cd" * 32: DecodedPhoto(other, facts)})
        finish = with_size(
            finish_of(80, 80, export=PNG, outside=OtherPhoto(sha256="cd" * 32)),
            shape=PlainShape(kind="circle"),
        )
        picture = drawn(finish, sources)
        self.assertEqual((picture.shape[2], picture[0, 0].tolist()), (3, [9, 8, 7]))
        self.assertEqual(first.facts(SHA).width, 120)

    def test_jpeg_flattens_what_a_ground_leaves_transparent(self):
        photo = np.zeros((40, 40, 4), np.uint8)
        finish = finish_of(40, 40, outside=BlurredPhoto())
        picture = drawn(with_size(finish, shape=PlainShape(kind="circle")), sources_of(photo))
        self.assertTrue((picture == 255).all())


class BorderOnShapesTest(unittest.TestCase):
    def test_no_photo_shows_through_at_any_edge_of_a_border(self):
        """A grey border on a grey photo is invisible, inside or outside, on any shape."""
        grey = np.full((300, 300, 3), 90, np.uint8)
        for kind, outside, line in itertools.product(
            ("circle", "heart", "triangle", "bubble"),
            (False, True),
            ("solid", "double", "dashed", "dotted"),
        ):
            border = Border.of(
                LineBand(thickness=Sides.all(0.08), colour="#5A5A5A", around=outside, line=line)
            )
            finish = finish_of(
                150, 150, export=PNG, border=border, backdrop=SolidColour(colour="#5A5A5A")
            )
            picture = drawn(with_size(finish, shape=PlainShape(kind=kind)), sources_of(grey))
            # Where little shows, straight colours are coarse: a step of alpha is several of theirs.
            seen = picture[picture[:, :, 3] > 64][:, :3].astype(int)
            with self.subTest(kind=kind, outside=outside, line=line):
                self.assertGreater(len(seen), 1000)
                self.assertLessEqual(np.abs(seen - 90).max(), 2)
