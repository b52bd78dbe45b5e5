"""Bands of a border: mitres, shades, patterns and brushed edges, against formulas of their own."""

import math
import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from lucky_margin.core.borders import (
    FRAME_STYLES,
    Edges,
    across,
    find_window,
    pattern_ink,
    picture_paint,
    repeats_along,
    shade,
    sheet_of,
    sheet_sides,
    slope_of,
    warm_up,
)
from lucky_margin.core.borders.stock import MOTIFS, corner_mask, motif_mask
from lucky_margin.core.document import (
    STOCK_PATTERNS,
    BandPicture,
    Border,
    Box,
    BrushedBand,
    LineBand,
    MatBand,
    PatternBand,
    PlainShape,
    Rectangle,
    Sides,
    SolidColour,
    Star,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.borders import SetBandPicture
from lucky_margin.core.errors import BadInput
from lucky_margin.core.outlines import RoundedBox, outline_of
from lucky_margin.core.render import render
from lucky_margin.core.render.bands import border_layers
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.sampling.srgb import decode, encode
from tests.support import SHA, finish_of, gradient, noise, scene_of, sources_of, with_size

PNG = {"format": "png"}
OTHER = "cd" * 32
CIRCLE, HEART = PlainShape(kind="circle"), PlainShape(kind="heart")


def drawn(*bands, width=300, height=200, shape=None, scale=1.0, photo=None, **fields):
    """A finish with these bands, drawn."""
    finish = finish_of(width, height, border=Border.of(*bands), export=PNG, **fields)
    if shape:
        finish = with_size(finish, shape=shape)
    sources = sources_of(gradient(900, 700) if photo is None else photo)
    return render(scene_of(finish, sources), scale=scale).astype(int)


def box(width, height):
    return RoundedBox(Box(left=0, top=0, width=width, height=height))


class AcrossTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        warm_up()

    @given(*[st.floats(2, 40)] * 4, st.integers(100, 160), st.integers(100, 160))
    def test_a_rectangle_is_mitred_from_corner_to_corner(self, top, right, bottom, left, w, h):
        lying = across(Edges.of(box(w, h), (top, right, bottom, left)), 0.5, 0.5, 1, w, h)
        x, y = np.meshgrid(np.arange(w) + 0.5, np.arange(h) + 0.5)
        depths = np.array([y / top, (w - x) / right, (h - y) / bottom, x / left])
        inside = depths.min(axis=0) < 1.2
        np.testing.assert_allclose(lying.depth[inside], depths.min(axis=0)[inside], atol=1e-4)
        clear = inside & (np.partition(depths, 1, axis=0)[1] - depths.min(axis=0) > 1e-3)
        np.testing.assert_array_equal(lying.edge[clear], depths.argmin(axis=0)[clear])

    def test_round_a_circle_depth_and_normal_are_those_of_the_radius(self):
        outline = outline_of(CIRCLE, 200, 200)
        edges = Edges.of(outline, (20, 20, 20, 20))
        lying = across(edges, 0.5, 0.5, 1, 200, 200)
        x, y = np.meshgrid(np.arange(200) - 99.5, np.arange(200) - 99.5)
        radius = np.hypot(x, y)
        band = (radius < 99) & (radius > 80)
        np.testing.assert_allclose(lying.depth[band], ((100 - radius) / 20)[band], atol=2e-3)
        normal_x, normal_y = lying.normals(edges)
        np.testing.assert_allclose(normal_x[band], (-x / radius)[band], atol=0.01)
        np.testing.assert_allclose(normal_y[band], (-y / radius)[band], atol=0.01)

    def test_in_the_notch_of_a_heart_the_band_ends_where_its_outline_does(self):
        outline = outline_of(HEART, 300, 300)
        lying = across(Edges.of(outline, (30, 30, 30, 30)), 0.5, 0.5, 1, 300, 300)
        inner = outline.inset(30, 30, 30, 30).coverage(300, 300)
        within = outline.coverage(300, 300) == 255
        np.testing.assert_array_equal(lying.depth[within & (inner == 255)] > 0.98, True)
        np.testing.assert_array_equal(lying.depth[within & (inner == 0)] < 1.02, True)


class ReliefTest(unittest.TestCase):
    def test_a_level_surface_has_the_full_light_from_anywhere(self):
        for light in (-45, 0, 133):
            level = np.zeros((1, 1), np.float32)
            self.assertAlmostEqual(shade(level, level + 0.6, level + 0.8, light)[0, 0], 1, places=6)

    def test_slopes_are_lit_by_the_cosine_law(self):
        # A bevel at 45 degrees whose face looks towards the light and away from it.
        slope, normal = np.full((1, 1), -1, np.float32), np.ones((1, 1), np.float32)
        altitude = math.radians(50)
        for light, toward in ((90, 1), (-90, -1), (0, 0)):
            lit = (math.sin(altitude) + toward * math.cos(altitude)) / math.sqrt(2)
            expected = 0.35 + 0.65 * max(0, lit) / math.sin(altitude)
            found = shade(slope, normal, 0 * normal, light)[0, 0]
            self.assertAlmostEqual(found, expected, places=5)

    def test_a_round_moulding_rises_as_far_as_it_falls(self):
        slope = slope_of("round", np.linspace(0, 1, 1001, dtype=np.float32))
        self.assertAlmostEqual(float(slope.sum()), 0, places=3)
        self.assertTrue((np.diff(slope) <= 0).all())

    def test_each_side_of_a_moulding_has_the_shade_of_its_own_direction(self):
        band = MatBand(thickness=Sides.all(0.2), colour="#808080", texture="smooth", bevel=0,
                       profile="sloped", depth=0, light=0, around=True)  # fmt: skip
        picture = drawn(band)
        top, left, bottom = picture[10, 150, 0], picture[100, 10, 0], picture[190, 150, 0]
        right = picture[100, 290, 0]
        self.assertEqual(left, right)
        self.assertLess(top, left)  # it faces down, away from the light
        self.assertGreater(bottom, left)
        # The mitre goes at 45 degrees through the corner.
        for place in (5, 20, 35):
            self.assertEqual(picture[place - 2, place + 2, 0], top)
            self.assertEqual(picture[place + 2, place - 2, 0], left)

    def test_the_bevel_shows_the_core_and_its_shadow_lies_on_the_photo(self):
        mat = MatBand(thickness=Sides.all(0.2), colour="#204060", texture="smooth", core="#FFFFFF",
                      bevel=0.04, depth=0.03, light=0, softness=0)  # fmt: skip
        white = np.full((200, 300, 3), 255, np.uint8)
        picture = drawn(mat, photo=white)
        np.testing.assert_array_equal(picture[5, 150], [0x20, 0x40, 0x60])
        self.assertEqual(len(set(picture[36, 150])), 1)  # a shade of the core
        self.assertGreater(picture[164, 150, 0], picture[36, 150, 0])
        np.testing.assert_allclose(picture[42, 150], 128, atol=2)  # half the light is kept off
        np.testing.assert_array_equal(picture[158, 150], 255)


class PatternTest(unittest.TestCase):
    @given(
        st.integers(60, 900),
        st.integers(60, 900),
        st.floats(4, 25),
        st.sampled_from(STOCK_PATTERNS),
    )
    def test_every_side_has_a_whole_number_of_motifs(self, width, height, thick, key):
        edges = Edges.of(box(width, height), (thick,) * 4)
        repeats = repeats_along(edges, MOTIFS[key].width)
        straight = np.array([width, height, width, height]) - 2 * thick
        period = straight / repeats.counts
        np.testing.assert_allclose(-repeats.starts * period, thick)
        np.testing.assert_allclose((repeats.ends - repeats.counts) * period, thick)
        # None is stretched or squeezed by more than half of itself, unless one alone is left.
        asked = MOTIFS[key].width * thick
        fits = straight / asked > 1
        self.assertTrue((np.abs(period / asked - 1)[fits] <= 0.5).all())

    def test_round_a_ring_they_close(self):
        for shape, rings in ((CIRCLE, 1), (HEART, 2)):
            edges = Edges.of(outline_of(shape, 400, 400), (30,) * 4)
            repeats = repeats_along(edges, 0.9)
            joins = np.roll(repeats.starts, -1) - repeats.ends
            jumps = joins[np.abs(joins) > 1e-6]
            self.assertEqual(len(jumps), rings)  # stretches between corners
            np.testing.assert_allclose(jumps, np.rint(jumps), atol=1e-6)

    def test_every_pixel_of_the_band_is_covered_once(self):
        """Whatever the ratio and the shape, nothing of the backdrop and no seam shows."""
        random = np.random.default_rng(5)
        for number in range(300):
            width, height = random.integers(16, 110, 2)
            shape = (Rectangle(), CIRCLE, HEART, Rectangle(radius=0.2))[number % 4]
            key = STOCK_PATTERNS[number % len(STOCK_PATTERNS)]
            band = PatternBand(pattern=key, colour="#00FF00", ground="#00FF00", around=True,
                               thickness=Sides.all(float(random.uniform(0.02, 0.2))))  # fmt: skip
            green = np.full((50, 50, 3), (0, 255, 0), np.uint8)
            found = drawn(band, LineBand(colour="#00FF00"), width=int(width), height=int(height),
                          shape=shape, photo=green,
                          backdrop=SolidColour(colour="#FF00FF").model_dump())  # fmt: skip
            opaque = found[found[:, :, 3] == 255] if found.shape[2] == 4 else found.reshape(-1, 3)
            with self.subTest(shape=shape.kind, width=width, height=height):
                self.assertLessEqual(np.abs(opaque[:, :3] - (0, 255, 0)).max(), 1)

    def test_motifs_join_and_corners_are_the_same_from_either_side(self):
        for key in STOCK_PATTERNS:
            with self.subTest(key):
                columns = round(64 * MOTIFS[key].width)
                motif = motif_mask(key, columns, 64).astype(int)
                self.assertGreater(motif.mean(), 8)
                corner = corner_mask(key, 64, 64).astype(int)
                np.testing.assert_allclose(corner, corner.T, atol=40)

    def test_ink_of_stripes_covers_their_share(self):
        edges = Edges.of(box(400, 400), (40,) * 4)
        lying = across(edges, 60.5, 0.5, 1, 280, 40)
        ink = pattern_ink("stripes", edges, lying, 1)
        self.assertAlmostEqual(float(ink.mean()) / 255, 0.5, delta=0.02)


class BrushedTest(unittest.TestCase):
    def test_the_same_seed_paints_the_same_and_another_one_does_not(self):
        for look in ("paint", "chalk", "torn", "dry", "ink", "dots", "mosaic"):
            with self.subTest(look):
                one = drawn(BrushedBand(look=look, seed=3))
                np.testing.assert_array_equal(one, drawn(BrushedBand(look=look, seed=3)))
                self.assertGreater(np.abs(one - drawn(BrushedBand(look=look, seed=4))).max(), 40)

    def test_it_is_full_at_the_edge_and_nothing_further_in(self):
        for look in ("paint", "chalk", "torn", "dry", "ink"):
            band = BrushedBand(look=look, colour="#FF0000", thickness=Sides.all(0.15))
            picture, bare = drawn(band), drawn()
            with self.subTest(look):
                edge = np.concatenate([picture[0], picture[-1], picture[:, 0], picture[:, -1]])
                share = (np.abs(edge - (255, 0, 0)).max(axis=1) < 8).mean()
                self.assertGreater(share, 0.9)
                np.testing.assert_array_equal(picture[60:140, 60:240], bare[60:140, 60:240])

    def test_dots_have_the_area_of_their_tone(self):
        band = BrushedBand(look="dots", colour="#000000", thickness=Sides.all(0.45), roughness=0,
                           softness=0)  # fmt: skip
        white = np.full((700, 2800, 3), 255, np.uint8)
        picture = drawn(band, width=2400, height=600, photo=white)
        for row in (60, 110, 160, 210):
            tone = 1.15 * (1 - row / 270)
            # Over a whole number of cells of 270 / 7 px on the diagonal.
            cell = 270 / 7 * math.sqrt(2)
            rows = slice(round(row - cell / 2), round(row + cell / 2))
            found = 1 - picture[rows, 600:1800, 0].mean() / 255
            with self.subTest(row=row):
                self.assertAlmostEqual(found, tone, delta=0.02)

    def test_cells_of_a_mosaic_are_exact(self):
        band = BrushedBand(look="mosaic", colour="#000000", thickness=Sides.all(0.21), softness=0)
        white = np.full((200, 300, 3), 255, np.uint8)
        picture = drawn(band, photo=white)[:, :, 0]
        cell = 6  # 42 px in 7
        whole = picture[: 200 // cell * cell, : 300 // cell * cell]
        cells = whole.reshape(200 // cell, cell, 300 // cell, cell)
        np.testing.assert_array_equal(cells.min(axis=(1, 3)), cells.max(axis=(1, 3)))
        self.assertGreater(len(np.unique(cells[1:4])), 1)

    def test_a_stroke_round_a_ring_has_no_seam(self):
        band = BrushedBand(look="paint", colour="#FF0000", thickness=Sides.all(0.2))
        picture = drawn(band, width=400, height=400, shape=CIRCLE)
        ring = outline_of(CIRCLE, 400, 400).rings[0]
        x, y = 200 + 0.8 * (ring[0] - 200)  # where the ring begins, in the middle of the paint
        here = picture[round(y) - 3 : round(y) + 4, round(x) - 3 : round(x) + 4, 1]
        self.assertLess(np.abs(np.diff(here, axis=0)).max(), 130)


def frame_picture(width=90, height=70, slices=(10, 20, 15, 5), window=0):
    """A frame whose sides (top, right, bottom, left) are red, green, blue and white, its corners
    black, around a window that is transparent, or plain where ``window`` is over 0."""
    top, right, bottom, left = slices
    picture = np.zeros((height, width, 4), np.uint8)
    picture[:, :, 3] = 255
    picture[:top, left:-right, 0] = picture[top:-bottom, -right:, 1] = 255
    picture[-bottom:, left:-right, 2] = picture[top:-bottom, :left, :3] = 255
    picture[top:-bottom, left:-right] = (200, 190, 180, window)
    return picture


class OwnPictureTest(unittest.TestCase):
    SLICES = (10, 20, 15, 5)

    def framed(self, width, height, shape=None, **fields):
        frame = frame_picture()
        sources = sources_of(np.full((50, 50, 3), 128, np.uint8), others={OTHER: frame})
        finish = finish_of(width, height, export=PNG)
        if shape:
            finish = with_size(finish, shape=shape)
        finish = apply_edit(scene_of(finish, sources), SetBandPicture(band=0, sha256=OTHER)).finish
        (band,) = finish.border.bands
        picture = band.picture.model_copy(update=fields)
        band = band.model_copy(update={"picture": picture, "thickness": Sides.all(0.2)})
        finish = finish.model_copy(update={"border": Border.of(band)})
        return render(scene_of(finish, sources)).astype(int)

    def test_a_window_is_found_whether_it_is_transparent_or_plain(self):
        for alpha in (0, 255):
            picture = frame_picture(window=alpha)
            for found in (picture, picture[:, :, :3] if alpha else picture):
                window = find_window(found)
                edges = (window.left * 90, window.top * 70, window.right * 90, window.bottom * 70)
                np.testing.assert_allclose(edges, (5, 10, 70, 55), atol=1e-6)
        for nothing in (noise(90, 70), np.full((1, 1, 3), 9, np.uint8), frame_picture()[12:50]):
            self.assertIsNone(find_window(nothing))

    def test_the_corners_of_a_frame_keep_their_proportions_at_any_ratio(self):
        for width, height in ((100, 100), (300, 100), (90, 160)):
            for stretch in (False, True):
                picture = self.framed(width, height, stretch=stretch)[:, :, :3]
                # The thickest side takes 0.2 of the short side, the others in proportion.
                unit = 0.2 * min(width, height) / 20
                top, right, bottom, left = (round(unit * part) for part in self.SLICES)
                with self.subTest(width=width, height=height, stretch=stretch):
                    inside = picture[top + 2 : -bottom - 2, left + 2 : -right - 2]
                    np.testing.assert_allclose(inside, 128, atol=1)
                    for rows in (slice(1, top - 1), slice(1 - bottom, -1)):
                        for columns in (slice(1, left - 1), slice(1 - right, -1)):
                            self.assertLess(picture[rows, columns].max(initial=0), 60)
                    red = picture[1 : top - 1, left + 2 : -right - 2]
                    green = picture[top + 2 : -bottom - 2, 2 - right : -2]
                    for side, colour in ((red, (255, 0, 0)), (green, (0, 255, 0))):
                        self.assertLessEqual(np.abs(side - colour).max(), 2)

    def test_round_a_shape_it_is_closed(self):
        for shape in (CIRCLE, HEART):
            picture = self.framed(300, 300, shape)
            outer = outline_of(shape, 300, 300)
            within, inner = (outer.inset(*4 * [d]).coverage(300, 300) for d in (3, 57))
            band = picture[(within == 255) & (inner == 0)]
            with self.subTest(shape.kind):
                self.assertEqual(band[:, 3].min(), 255)
                self.assertGreater(band[:, 0].min(), 250)  # its red upper side, all round

    def test_a_strip_is_repeated_whole(self):
        strip = np.zeros((20, 40, 3), np.uint8)
        strip[:, 10:30] = 255
        picture = BandPicture(sha256=OTHER, ratio=2)
        edges = Edges.of(box(400, 240), (20, 20, 20, 20))
        lying = across(edges, 0.5, 0.5, 1, 400, 20)
        sheet = sheet_of(picture, strip, sheet_sides(picture, 20))
        row = picture_paint(picture, sheet, edges, lying)[4, 4:-4, 0]
        self.assertEqual(int((np.diff((row > 128).astype(int)) == 1).sum()), 10)
        self.assertAlmostEqual(float(row.mean()), 255 / 2, delta=8)

    def test_a_band_that_is_not_there_is_refused(self):
        scene = scene_of(finish_of(40, 40), sources_of(gradient(40, 40)))
        with self.assertRaisesRegex(BadInput, "no band 3"):
            apply_edit(scene, SetBandPicture(band=2, sha256=SHA))


class BandsTest(unittest.TestCase):
    BANDS = (
        MatBand(thickness=Sides.all(0.06), profile="stepped", colour="#5A3A22", around=True),
        PatternBand(thickness=Sides.all(0.05), pattern="diamonds", around=True),
        BrushedBand(thickness=Sides.all(0.1), colour="#F5F1E8"),
    )

    def test_the_same_at_every_scale(self):
        photo = noise(60, 40)
        for shape in (Rectangle(), HEART):
            full = drawn(*self.BANDS, width=1200, height=800, shape=shape, photo=photo)
            for scale in (0.5, 0.25):
                small = drawn(
                    *self.BANDS, width=1200, height=800, shape=shape, photo=photo, scale=scale
                )
                step = round(1 / scale)
                rows, columns = small.shape[:2]
                # As pictures are shrunk everywhere: in linear light.
                light = decode(full / 255).reshape(rows, step, columns, step, -1)
                shrunk = 255 * encode(light.mean(axis=(1, 3)))
                with self.subTest(shape=shape.kind, scale=scale):
                    self.assertLess(np.abs(small - shrunk)[:, :, :3].mean(), 1.5)

    def test_a_region_is_cut_from_the_whole(self):
        finish = finish_of(300, 200, border=Border.of(*self.BANDS))
        scene = scene_of(finish, sources_of(gradient(300, 200)))
        whole = render(scene)
        part = render(scene, region=(17, 31, 150, 99))
        np.testing.assert_array_equal(part, whole[31:130, 17:167])

    def test_what_is_spared_has_nothing_of_the_border(self):
        soft = MatBand(depth=0.05, softness=1, light=30, thickness=Sides(top=0.1, left=0.02))
        deep = MatBand(depth=0.03, softness=0, light=200, around=True)
        for bands in ((soft,), (deep, soft), self.BANDS):
            finish = finish_of(900, 700, border=Border.of(*bands), export=PNG)
            scene = scene_of(finish, sources_of(gradient(90, 70)))
            (layer,) = border_layers(scene, Grid.of(900, 700, 1, None))
            left, top, right, bottom = (round(edge) for edge in layer.spared.edges)
            self.assertGreater((right - left) * (bottom - top), 100 * 100)
            self.assertEqual(layer.paint[top + 1 : bottom - 1, left + 1 : right - 1, 3].max(), 0)

    def test_a_side_without_thickness_leaves_the_others_their_bevel(self):
        sides = Sides(top=0.2, right=0.2, left=0.2)
        mat = MatBand(thickness=sides, colour="#204060", texture="smooth", core="#FFFFFF",
                      bevel=0.04, depth=0)  # fmt: skip
        even = mat.model_copy(update={"thickness": Sides.all(0.2)})
        np.testing.assert_array_equal(drawn(mat)[:40, 100:200], drawn(even)[:40, 100:200])

    def test_bands_wider_than_the_picture_leave_a_pixel_of_it(self):
        for width, height in ((1, 1), (2, 9), (40, 3)):
            mat = MatBand(thickness=Sides.all(0.2), around=True)
            picture = drawn(mat, LineBand(thickness=Sides.all(0.2)), width=width, height=height)
            self.assertEqual(picture.shape[:2], (height, width))

    def test_any_bands_can_be_drawn_in_any_shape_however_small(self):
        thin = BrushedBand(thickness=Sides.all(0.01))
        uneven = PatternBand(thickness=Sides(top=0.4, left=0.02), ground=None)
        sideways = MatBand(thickness=Sides(left=0.4), around=True, profile="round")
        shapes = (Rectangle(radius=0.5), HEART, Star(points=5, depth=0.6),
                  PlainShape(kind="triangle"), Rectangle())  # fmt: skip
        for bands in ((thin,), (uneven, sideways), (sideways, uneven, thin), self.BANDS):
            for shape in shapes:
                for width, height in ((1, 1), (7, 5), (40, 30), (200, 10)):
                    with self.subTest(shape=shape.kind, width=width, height=height):
                        picture = drawn(*bands, width=width, height=height, shape=shape)
                        self.assertEqual(picture.shape[:2], (height, width))

    def test_a_frame_that_is_all_window_is_refused(self):
        window = {"left": 0, "top": 0, "width": 1, "height": 1}
        with self.assertRaisesRegex(ValueError, "leave something of the frame"):
            BandPicture(sha256=OTHER, ratio=1, window=window)

    def test_every_frame_style_can_be_drawn_and_has_a_name_of_its_own(self):
        self.assertEqual(len({style.key for style in FRAME_STYLES}), len(FRAME_STYLES))
        bare = drawn()
        for style in FRAME_STYLES:
            for shape in (None, CIRCLE):
                with self.subTest(style.name, shape=shape):
                    picture = drawn(*style.border.bands, shape=shape)
                    self.assertGreater(np.abs(picture[:, :, :3] - bare[:, :, :3]).max(), 20)
