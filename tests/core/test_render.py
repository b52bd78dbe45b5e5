"""The renderer's invariants (design: "Always true")."""

import hashlib
import threading
import time
import unittest
from concurrent.futures import ThreadPoolExecutor

import numpy as np

from lucky_margin.core.document import (
    Blob,
    BlurredPhoto,
    Border,
    Box,
    Export,
    Focus,
    Gradient,
    LineBand,
    PlainShape,
    Point,
    Rectangle,
    Sides,
    SolidColour,
    Star,
    Tone,
    Turn,
    Window,
)
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.render import layout, render
from lucky_margin.core.sampling import sample
from lucky_margin.core.scene import MemorySources, PictureCache
from lucky_margin.core.scene.cache import KEY_BYTES
from tests.support import demo_sources, finish_of, gradient, noise, scene_of, sources_of, with_size

PNG = Export(format="png")

EVERYTHING = {
    "border": Border.of(LineBand(thickness=Sides.all(0.03), colour="#B8401A", opacity=0.7)),
    "backdrop": SolidColour(colour="#204060"),
    "export": PNG,
}


def drawn(finish, sources, **options):
    return render(scene_of(finish, sources), **options)


class NothingSetTest(unittest.TestCase):
    def test_no_edits_give_the_photo_bit_for_bit(self):
        for channels in (3, 4):
            with self.subTest(channels=channels):
                photo = noise(61, 47, channels)
                np.testing.assert_array_equal(
                    drawn(finish_of(export=PNG), sources_of(photo)), photo
                )

    def test_a_step_switched_off_is_absent(self):
        sources = sources_of(noise(80, 60))
        band = LineBand(thickness=Sides.all(0.1), around=True)
        border = Border(bands=(band,), on=False)
        np.testing.assert_array_equal(
            drawn(finish_of(50, 50, border=border), sources), drawn(finish_of(50, 50), sources)
        )

    def test_the_photo_is_never_changed(self):
        photo = noise(90, 70, 4)
        before = photo.copy()
        drawn(
            with_size(finish_of(31, 17, **EVERYTHING), shape=Rectangle(radius=0.2)),
            sources_of(photo),
        )
        np.testing.assert_array_equal(photo, before)


class SameAtEveryScaleTest(unittest.TestCase):
    """What you see is what you export."""

    def test_a_scaled_picture_is_the_picture_scaled(self):
        for photo in ("mugs-window.jpg", "bowl-top.jpg", "vase-grasses.jpg"):
            for around in (False, True):
                (band,) = EVERYTHING["border"].bands
                border = Border.of(band.model_copy(update={"around": around}))
                finish = finish_of(1080, 1350, **{**EVERYTHING, "border": border})
                finish = with_size(finish, shape=Rectangle(radius=0.08))
                full = drawn(finish, demo_sources(photo))
                for scale in (0.5, 0.37, 0.25, 0.08):
                    with self.subTest(photo=photo, around=around, scale=scale):
                        self.compare(full, drawn(finish, demo_sources(photo), scale=scale))

    def test_turned_shaped_and_grounded_pictures_too(self):
        tone = Tone(
            exposure=0.3, shadows=40, local_contrast=25, contrast=15, muted_colours=20, tint=10
        )
        cases = (
            (
                {
                    "turn": Turn(straighten=6.5, mirrored=True),
                    "outside": Gradient(angle=40),
                    "tone": tone,
                },
                {"shape": PlainShape(kind="circle")},
                Border.of(LineBand(thickness=Sides.all(0.03), colour="#B8401A", line="dashed")),
            ),
            (
                {"turn": Turn(quarters=1), "backdrop": BlurredPhoto(blur=0.05)},
                {"shape": Star(points=6, scale=0.9), "crop": {"contain": True}},
                Border.of(
                    LineBand(
                        thickness=Sides.all(0.04), colour="#1F6B4B", around=True, line="double"
                    )
                ),
            ),
            (
                {"turn": Turn(straighten=-20, empty_corners=True)},
                {
                    "shape": Blob(seed=2),
                    "crop": {
                        "window": Window(centre_x=1500, centre_y=1300, width=2900, height=2900)
                    },
                },
                Border.of(LineBand(thickness=Sides.all(0.05), colour="#FFFFFF", line="dotted")),
            ),
        )
        for photo in ("bird-figure.jpg", "shelf-wide.jpg"):
            for number, (fields, size, border) in enumerate(cases):
                finish = finish_of(1000, 1000, border=border, export=PNG, **fields)
                finish = with_size(finish, **size)
                full = drawn(finish, demo_sources(photo))
                for scale in (0.5, 0.25, 0.08):
                    with self.subTest(photo=photo, case=number, scale=scale):
                        self.compare(full, drawn(finish, demo_sources(photo), scale=scale))
                left, top, width, height = 3, 5, 300, 170
                with self.subTest(photo=photo, case=number, region=True):
                    np.testing.assert_array_equal(
                        drawn(finish, demo_sources(photo), region=(left, top, width, height)),
                        full[top : top + height, left : left + width],
                    )

    def compare(self, full, small):
        height, width = small.shape[:2]
        step_x, step_y = full.shape[1] / width, full.shape[0] / height
        region = (0, 0, width, height)
        shrunk = sample(full, left=0, top=0, step_x=step_x, step_y=step_y, region=region)
        # Colour counts as much as it shows, so compare it multiplied by alpha.
        difference = np.abs(premultiplied(shrunk) - premultiplied(small))
        self.assertLessEqual(difference.mean(), 1.5)
        self.assertLessEqual(np.percentile(difference, 99), 8)

    def test_a_region_is_the_same_cut_of_the_whole(self):
        finish = with_size(finish_of(300, 200, **EVERYTHING), shape=Rectangle(radius=0.3))
        sources = sources_of(noise(500, 400, 4))
        for scale in (1.0, 0.6, 0.3):
            with self.subTest(scale=scale):
                full = drawn(finish, sources, scale=scale)
                part = drawn(finish, sources, scale=scale, region=(3, 5, 70, 40))
                np.testing.assert_array_equal(part, full[5:45, 3:73])


class RepeatableTest(unittest.TestCase):
    def test_the_cache_never_changes_a_pixel(self):
        photo = noise(400, 300)
        finish = finish_of(90, 60, **EVERYTHING)
        cached = sources_of(photo)
        first = drawn(finish, cached)
        again = drawn(finish, cached)
        none = MemorySources(cached._photos, PictureCache(max_bytes=0))
        np.testing.assert_array_equal(first, again)
        np.testing.assert_array_equal(first, drawn(finish, none))

    def test_exact_pixels_for_odd_sizes(self):
        sources = sources_of(noise(33, 21))
        for width, height in ((1, 1), (1, 37), (801, 3), (7, 500)):
            with self.subTest(width=width, height=height):
                picture = drawn(finish_of(width, height, **EVERYTHING), sources)
                self.assertEqual(picture.shape[:2], (height, width))


class BorderTest(unittest.TestCase):
    photo = np.full((200, 200, 3), 40, np.uint8)

    def picture(self, border, width=120, height=100, **size):
        finish = with_size(finish_of(width, height, border=border, export=PNG), **size)
        return drawn(finish, sources_of(self.photo))

    def test_a_border_has_its_thickness_on_every_side_and_no_gap(self):
        for outside in (False, True):
            with self.subTest(outside=outside):
                border = Border.of(
                    LineBand(thickness=Sides.all(0.05), colour="#FF0000", around=outside)
                )
                picture = self.picture(border)
                red = (picture == [255, 0, 0]).all(axis=2)
                expected = np.ones((100, 120), bool)
                expected[5:95, 5:115] = False
                np.testing.assert_array_equal(red, expected)
                self.assertTrue((picture[~red] == 40).all())

    def test_each_side_may_have_its_own_thickness(self):
        sides = Sides(top=0.02, right=0.1, bottom=0, left=0.3)
        picture = self.picture(Border.of(LineBand(thickness=sides, colour="#FF0000")))
        inner = (picture == 40).all(axis=2)
        rows, columns = np.where(inner)
        self.assertEqual((rows.min(), 100 - rows.max() - 1), (2, 0))
        self.assertEqual((columns.min(), 120 - columns.max() - 1), (30, 10))

    def test_half_opacity_mixes_encoded_values(self):
        picture = self.picture(
            Border.of(LineBand(thickness=Sides.all(0.1), colour="#FFFFFF", opacity=0.5))
        )
        self.assertAlmostEqual(int(picture[0, 0, 0]), (40 + 255) / 2, delta=1)

    def test_around_a_round_corner_no_photo_shows_outside_the_border(self):
        border = Border.of(LineBand(thickness=Sides.all(0.1), colour="#FF0000"))
        picture = self.picture(border, shape=Rectangle(radius=0.5), width=100)
        edge = picture[(picture[:, :, 3] > 0) & (picture[:, :, 3] < 255)]
        self.assertGreater(len(edge), 50)
        self.assertTrue((edge[:, :3] >= [250, 0, 0]).all() and (edge[:, 1:3] <= 5).all())

    def test_between_photo_and_border_nothing_shows_through(self):
        for outside in (False, True):
            with self.subTest(outside=outside):
                border = Border.of(
                    LineBand(thickness=Sides.all(0.1), colour="#282828", around=outside)
                )
                picture = self.picture(border, shape=Rectangle(radius=0.4), width=100)
                solid = picture[picture[:, :, 3] == 255]
                self.assertLessEqual(np.abs(solid[:, :3].astype(int) - 40).max(), 1)

    def test_a_translucent_border_around_the_photo_shows_what_is_behind_it(self):
        border = Border.of(
            LineBand(thickness=Sides.all(0.1), colour="#FF0000", opacity=0.5, around=True)
        )
        clear = self.picture(border)[0, 0]
        self.assertEqual(clear[:3].tolist(), [255, 0, 0])
        self.assertAlmostEqual(int(clear[3]), 128, delta=1)
        flat = drawn(finish_of(120, 100, border=border), sources_of(self.photo))
        self.assertEqual(flat.shape[2], 3)
        np.testing.assert_allclose(flat[0, 0], [255, 127, 127], atol=1)
        self.assertTrue((flat[20:80, 20:100] == 40).all())

    def test_a_border_lies_the_same_at_any_region_and_radius(self):
        """The shortcut that leaves the middle out must never leave out border."""
        for radius in (0.0, 0.1, 0.5):
            for thickness in (0.01, 0.2, 0.45):
                border = Border.of(LineBand(thickness=Sides.all(thickness), colour="#FF0000"))
                picture = self.picture(border, shape=Rectangle(radius=radius))
                with self.subTest(radius=radius, thickness=thickness):
                    band = (picture[:, :, :3] == [255, 0, 0]).all(axis=2).sum()
                    inner = (picture[:, :, :3] == 40).all(axis=2).sum()
                    t = round(thickness * 100)
                    wide, high = 120 - 2 * t, 100 - 2 * t
                    r = max(0.0, radius * 100 - t)
                    exact = wide * high - (4 - np.pi) * r * r
                    edge = 2 * np.pi * r + 1
                    self.assertAlmostEqual(inner, exact, delta=edge)
                    self.assertGreater(band, 0)

    def test_an_outside_border_frames_the_photo_smaller_and_whole(self):
        photo = gradient(300, 300)
        border = Border.of(LineBand(thickness=Sides.all(0.1), around=True))
        finish = finish_of(100, 100, border=border, export=PNG)
        inner = drawn(finish, sources_of(photo))[10:90, 10:90]
        plain = drawn(finish_of(80, 80, export=PNG), sources_of(photo))
        self.assertLessEqual(np.abs(inner.astype(int) - plain).max(), 1)


class ShapeTest(unittest.TestCase):
    def test_the_area_of_a_rounded_box_is_exact(self):
        for radius in (0.1, 0.25, 0.5):
            with self.subTest(radius=radius):
                finish = with_size(finish_of(240, 160, export=PNG), shape=Rectangle(radius=radius))
                picture = drawn(finish, sources_of(noise(300, 200)))
                corner = radius * 160
                exact = 240 * 160 - (4 - np.pi) * corner**2
                self.assertAlmostEqual(picture[:, :, 3].sum() / 255 / exact, 1, delta=0.003)

    def test_jpeg_shows_the_outside_colour_and_white_by_default(self):
        finish = with_size(finish_of(60, 60), shape=Rectangle(radius=0.5))
        sources = sources_of(noise(99, 99))
        self.assertEqual(drawn(finish, sources)[0, 0].tolist(), [255, 255, 255])
        coloured = finish.model_copy(update={"outside": SolidColour(colour="#102030")})
        self.assertEqual(drawn(coloured, sources)[0, 0].tolist(), [16, 32, 48])

    def test_the_backdrop_shows_behind_a_transparent_photo_only_inside(self):
        photo = np.zeros((50, 50, 4), np.uint8)
        finish = finish_of(50, 50, backdrop=SolidColour(colour="#0A141E"), export=PNG)
        picture = drawn(with_size(finish, shape=Rectangle(radius=0.5)), sources_of(photo))
        self.assertEqual(picture[25, 25].tolist(), [10, 20, 30, 255])
        self.assertEqual(picture[0, 0, 3], 0)


class ViewTest(unittest.TestCase):
    sources = sources_of(noise(100, 80))

    def test_the_photo_view_is_the_whole_photo(self):
        picture = drawn(finish_of(10, 10, **EVERYTHING), self.sources, view="photo")
        np.testing.assert_array_equal(picture, noise(100, 80))

    def test_before_is_only_the_crop(self):
        finish = finish_of(40, 40, **EVERYTHING)
        np.testing.assert_array_equal(
            drawn(finish, self.sources, view="before"), drawn(finish_of(40, 40), self.sources)
        )

    def test_bad_scales_regions_and_photos_are_refused(self):
        finish = finish_of(40, 40)
        for options in (
            {"scale": 0},
            {"scale": 1.01},
            {"region": (0, 0, 41, 1)},
            {"region": (-1, 0, 2, 2)},
        ):
            with self.subTest(**options), self.assertRaises(BadInput):
                drawn(finish, self.sources, **options)
        with self.assertRaises(NotFound):
            drawn(finish, MemorySources({}))


class LayoutTest(unittest.TestCase):
    def test_the_margin_lies_inside_an_inside_border(self):
        border = Border.of(LineBand(thickness=Sides.all(0.1)))
        found = layout(self.of(finish_of(200, 100, border=border)))
        self.assertEqual(found.border, (10, 10, 10, 10))
        box = found.margin_box
        self.assertAlmostEqual(box.height, 100 - 2 * 14)
        self.assertAlmostEqual(box.width, 200 - 2 * 14)

    def test_a_rectangles_margin_box_is_as_far_from_all_edges_as_the_guide(self):
        for sides, radius in (((1080, 1350), 0), ((400, 100), 0), ((300, 500), 0.2)):
            finish = with_size(finish_of(*sides), shape=Rectangle(radius=radius))
            box = layout(self.of(finish)).margin_box
            distances = [box.left, box.top, sides[0] - box.right, sides[1] - box.bottom]
            with self.subTest(sides):
                np.testing.assert_allclose(distances, distances[0], atol=1e-3)
                if not radius:
                    self.assertAlmostEqual(distances[0], 0.04 * min(sides))

    def test_the_margin_box_keeps_out_of_round_corners(self):
        finish = with_size(finish_of(100, 100), shape=Rectangle(radius=0.5), margin=0)
        box = layout(self.of(finish)).margin_box
        # The largest square in a circle.
        self.assertAlmostEqual(box.width, 100 / np.sqrt(2), places=3)

    def test_outlines_are_svg_paths_in_output_pixels(self):
        found = layout(self.of(finish_of(100, 60)))
        self.assertEqual(found.outline, "M0.00 0.00L100.00 0.00L100.00 60.00L0.00 60.00Z")
        self.assertEqual(found.photo_edges, "M0.00 0.00L300.00 0.00L300.00 300.00L0.00 300.00Z")

    def test_a_margin_that_leaves_nothing_has_no_box(self):
        finish = with_size(finish_of(100, 100), shape=PlainShape(kind="triangle"), margin=0.4)
        self.assertIsNone(layout(self.of(finish)).margin_box)

    def test_the_focus_is_told_in_turned_pixels(self):
        focus = Focus(point=Point(x=0.25, y=0.5), box=Box(left=0.2, top=0.4, width=0.1, height=0.2))
        finish = finish_of(100, 100, focus=focus, turn=Turn(quarters=1))
        found = layout(self.of(finish)).focus
        self.assertEqual((found.point.x, found.point.y), (150, 75))
        self.assertAlmostEqual(found.box.left, 120)
        self.assertAlmostEqual(found.box.width, 60)

    def test_own_windows_and_losses_are_told(self):
        own = Window(centre_x=50, centre_y=50, width=80, height=40)
        found = layout(self.of(with_size(finish_of(50, 50), crop={"window": own})))
        self.assertEqual((found.follows_focus, found.lost, found.enlargement), (False, 40, 1.25))

    @staticmethod
    def of(finish):
        return scene_of(finish, sources_of(noise(300, 300)))


class CacheTest(unittest.TestCase):
    def test_the_least_recently_used_goes_first_and_bytes_are_bounded(self):
        room = 3 * (100 + KEY_BYTES)
        cache = PictureCache(max_bytes=room)
        made = []

        def ask(key):
            return cache.get_or_make(key, lambda: made.append(key) or np.zeros(100, np.uint8))

        for key in ("a", "b", "c", "a", "d", "a", "b"):
            ask(key)
        self.assertEqual(made, ["a", "b", "c", "d", "b"])
        self.assertLessEqual(cache.used_bytes, room)

    def test_single_pixels_are_bounded_by_their_keys(self):
        cache = PictureCache(max_bytes=10 * KEY_BYTES)
        for number in range(30):
            cache.get_or_make(number, lambda: np.zeros(3, np.uint8))
        made = []
        cache.get_or_make(0, lambda: made.append(0) or np.zeros(3, np.uint8))
        self.assertEqual(made, [0])

    def test_what_several_threads_ask_for_at_once_is_made_once_and_comes_out_read_only(self):
        cache = PictureCache()
        made, all_ask = [], threading.Barrier(6)

        def make():
            made.append(threading.get_ident())
            time.sleep(0.1)  # the others ask meanwhile
            return np.zeros(100, np.uint8)

        def ask(key):
            all_ask.wait()
            return cache.get_or_make(key, make)

        with ThreadPoolExecutor(6) as pool:
            pictures = list(pool.map(ask, ["a", "b"] * 3))
        self.assertEqual(len(made), 2)
        for picture in pictures:
            with self.assertRaises(ValueError):
                picture[0] = 1

    def test_a_maker_that_fails_leaves_its_turn_to_the_next(self):
        cache = PictureCache()
        with self.assertRaises(ZeroDivisionError):
            cache.get_or_make("a", lambda: np.zeros(1 // 0))
        self.assertEqual(cache.get_or_make("a", lambda: np.ones(3)).sum(), 3)

    def test_what_is_too_large_is_not_kept(self):
        cache = PictureCache(max_bytes=10 + KEY_BYTES)
        cache.get_or_make("a", lambda: np.zeros(11, np.uint8))
        self.assertEqual(cache.used_bytes, 0)


class OriginalTest(unittest.TestCase):
    def test_rendering_leaves_the_decoded_demo_photo_alone(self):
        sources = demo_sources("mugs-window.jpg")
        picture = next(iter(sources._photos.values())).picture
        before = hashlib.sha256(picture.tobytes()).hexdigest()
        drawn(finish_of(640, 640, **EVERYTHING), sources)
        self.assertEqual(hashlib.sha256(picture.tobytes()).hexdigest(), before)


def premultiplied(picture):
    if picture.shape[2] == 3:
        return picture.astype(float)
    alpha = picture[:, :, 3:] / 255.0
    return np.concatenate([picture[:, :, :3] * alpha, picture[:, :, 3:]], axis=2)
