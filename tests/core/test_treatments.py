"""Treatments: each against a reference of its own, and all alike at every scale."""

import math
import unittest
from unittest import mock

import numpy as np

from lucky_margin.core.document import (
    CutOut,
    Dots,
    Drawing,
    EllipseMask,
    Glow,
    Grain,
    LensBlur,
    Mosaic,
    Paint,
    PhotoPoint,
    Poster,
    Relief,
    SharpZone,
    SubjectAreaMask,
    ThisPhoto,
    Tone,
    Treatments,
    Vignette,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.masks import AddMask, DragMask
from lucky_margin.core.edits.steps import SetTreatments
from lucky_margin.core.edits.treatments import DragZone
from lucky_margin.core.errors import BadInput
from lucky_margin.core.render import layout, render
from lucky_margin.core.sampling import sample, to_linear
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import Scene
from lucky_margin.core.treatments import TREATMENT_STYLES
from tests.support import demo_sources, finish_of, gradient, noise, scene_of, sources_of, with_size

PNG = {"format": "png"}
SIDE = 240
GREY = np.full((SIDE, SIDE, 3), 120, np.uint8)
LUMINANCE = np.array([0.2126, 0.7152, 0.0722])


def treated_scene(photo, *made, **fields):
    finish = finish_of(treatments=Treatments(made=made), export=PNG, **fields)
    return scene_of(finish, sources_of(photo))


def treated(photo, *made, **fields):
    """A photo as cropped, with treatments."""
    return render(treated_scene(photo, *made, **fields))


def halves(left, right, side=SIDE):
    photo = np.empty((side, side, 3), np.uint8)
    photo[:, : side // 2], photo[:, side // 2 :] = left, right
    return photo


def light_of(picture):
    """The mean light of a picture, 0..1."""
    return float((to_linear(picture)[:, :, :3] @ LUMINANCE).mean())


class MosaicTest(unittest.TestCase):
    def sites(self, mosaic):
        """Where the cells are that may show: a plain list about the middle of the picture."""
        cell = mosaic.cell * SIDE
        row = cell if mosaic.form == "square" else cell * math.sqrt(3) / 2
        reach = range(-8, 9)
        shift = 0.0 if mosaic.form == "square" else 0.5
        return np.array(
            [
                (SIDE / 2 + (i + shift * (j % 2)) * cell, SIDE / 2 + j * row)
                for j in reach
                for i in reach
            ]
        )

    def test_each_cell_is_the_mean_of_what_lies_nearest_to_its_site(self):
        photo = noise(SIDE, SIDE)
        y, x = np.mgrid[:SIDE, :SIDE] + 0.5
        for form in ("square", "hexagon"):
            with self.subTest(form):
                mosaic = Mosaic(form=form, cell=0.11)
                away = np.stack(
                    [(x - site[0]) ** 2 + (y - site[1]) ** 2 for site in self.sites(mosaic)]
                )
                nearest = away.argmin(axis=0)
                first, second = np.partition(away, 1, axis=0)[:2]
                clear = np.sqrt(second) - np.sqrt(first) > 3  # of any edge
                drawn = treated(photo, mosaic).astype(int)
                light = to_linear(photo)
                self.assertGreater(len(np.unique(nearest)), 80)
                for cell in np.unique(nearest[clear]):
                    mean = light[nearest == cell].mean(axis=0)
                    wanted = np.rint(255 * encoded(mean))
                    off = np.abs(drawn[clear & (nearest == cell)] - wanted)
                    self.assertLessEqual(off.max(), 1)

    def test_joints_are_as_wide_as_said(self):
        white = np.full((SIDE, SIDE, 3), 255, np.uint8)
        for share in (0.02, 0.1, 0.3):
            mosaic = Mosaic(cell=0.125, joint=share, joint_colour="#000000")
            left = light_of(treated(white, mosaic))
            self.assertAlmostEqual(left, (1 - share) ** 2, delta=0.012)

    def test_pebbles_differ_from_each_other_and_are_the_same_every_time(self):
        pebbles = Mosaic(form="pebble", cell=0.1, joint=0.1)
        photo = noise(SIDE, SIDE)
        drawn = treated(photo, pebbles)
        np.testing.assert_array_equal(drawn, treated(photo, pebbles))
        self.assertFalse(np.array_equal(drawn, treated(photo, Mosaic(form="hexagon", cell=0.1))))


def encoded(light):
    return np.where(light <= 0.0031308, 12.92 * light, 1.055 * light ** (1 / 2.4) - 0.055)


class DotsTest(unittest.TestCase):
    def test_ink_keeps_the_light_of_the_photo(self):
        for form in ("round", "line"):
            for grey in (30, 90, 128, 180, 235):
                with self.subTest(form=form, grey=grey):
                    photo = np.full((SIDE, SIDE, 3), grey, np.uint8)
                    dots = Dots(form=form, pitch=0.04, ink="#000000", paper="#FFFFFF", lighter=0)
                    self.assertAlmostEqual(
                        light_of(treated(photo, dots)),
                        float(decode(np.array(grey / 255))),
                        delta=0.012,
                    )

    def test_rows_lie_as_far_apart_and_as_turned_as_said(self):
        pitch, angle = 0.05, 30
        photo = np.full((SIDE, SIDE, 3), 150, np.uint8)
        drawn = treated(photo, Dots(form="line", pitch=pitch, angle=angle))
        waves = np.abs(np.fft.fft2(drawn[:, :, 1] - drawn[:, :, 1].mean()))
        v, u = np.unravel_index(waves[: SIDE // 2].argmax(), waves[: SIDE // 2].shape)
        u = u - SIDE if u > SIDE / 2 else u
        self.assertAlmostEqual(math.hypot(u, v), 1 / pitch, delta=0.8)
        # Lines run along the angle, so the wave goes across it.
        self.assertAlmostEqual(math.degrees(math.atan2(v, u)), 90 + angle, delta=3)

    def test_three_inks_keep_the_light_of_each_channel(self):
        photo = np.full((SIDE, SIDE, 3), (200, 90, 40), np.uint8)
        dots = Dots(ink=None, pitch=0.04, paper="#FFFFFF", lighter=0)
        means = to_linear(treated(photo, dots)).mean(axis=(0, 1))
        np.testing.assert_allclose(means, to_linear(photo).mean(axis=(0, 1)), atol=0.012)

    def test_light_ink_on_dark_paper_is_the_other_way_round(self):
        dots = Dots(ink="#FFFFFF", paper="#000000", lighter=0)
        dark, bright = (np.full((SIDE, SIDE, 3), grey, np.uint8) for grey in (60, 200))
        self.assertLess(light_of(treated(dark, dots)), light_of(treated(bright, dots)))


class DrawingTest(unittest.TestCase):
    def test_an_even_light_photo_is_bare_paper(self):
        photo = np.full((SIDE, SIDE, 3), 200, np.uint8)
        for medium in ("pencil", "ink"):
            drawn = treated(photo, Drawing(medium=medium, paper="#F5F1E8"))
            self.assertTrue((drawn == (0xF5, 0xF1, 0xE8)).all())

    def test_a_line_runs_along_an_edge_and_nowhere_else(self):
        photo = halves(235, 170)
        drawn = treated(photo, Drawing(medium="ink", line=0.01, shading=0)).astype(int)
        dark = drawn[:, :, 1] < 120
        columns = np.flatnonzero(dark.mean(axis=0) > 0.9)
        self.assertTrue(len(columns))
        self.assertLess(np.abs(columns - SIDE / 2).max(), 6)
        self.assertFalse(dark[:, : SIDE // 2 - 8].any() or dark[:, SIDE // 2 + 8 :].any())

    def test_the_darker_the_more_it_is_hatched(self):
        inks = []
        for grey in (200, 100, 60, 20):
            photo = np.full((SIDE, SIDE, 3), grey, np.uint8)
            inks.append(1 - light_of(treated(photo, Drawing(medium="ink", shading=100))))
        self.assertEqual(inks, sorted(inks))
        self.assertGreater(inks[-1] - inks[0], 0.4)


class PosterTest(unittest.TestCase):
    def test_few_colours_that_are_the_photos_own(self):
        drawn = treated(halves((200, 60, 40), (40, 90, 160)), Poster(colours=2, smooth=0))
        np.testing.assert_array_equal(
            drawn[:, :110], np.broadcast_to((200, 60, 40), (SIDE, 110, 3))
        )
        np.testing.assert_array_equal(
            drawn[:, 130:], np.broadcast_to((40, 90, 160), (SIDE, 110, 3))
        )

    def test_a_gradient_becomes_so_many_bands(self):
        for count in (2, 5, 9):
            grey = np.repeat(gradient(SIDE, SIDE)[:, :, :1], 3, axis=2)
            drawn = treated(grey, Poster(colours=count, smooth=0))
            levels, sizes = np.unique(drawn[:, :, 0], return_counts=True)
            # What lies on the way between two of them is narrow.
            self.assertEqual(len(levels[sizes > 0.02 * SIDE * SIDE]), count)


class PaintTest(unittest.TestCase):
    def test_an_even_photo_without_bristles_stays_as_it_is(self):
        self.assertLessEqual(np.abs(treated(GREY, Paint(bristles=0)).astype(int) - 120).max(), 1)

    def test_edges_stay_where_they_are(self):
        photo = halves(60, 200)
        drawn = treated(photo, Paint(brush=0.03, bristles=0)).astype(int)
        far = np.r_[0:95, 145:SIDE]
        self.assertLess(np.abs(drawn - photo)[:, far].max(), 4)

    def test_bristles_leave_the_mean_alone(self):
        drawn = treated(GREY, Paint(bristles=100)).astype(int)
        self.assertGreater(drawn.std(), 2)
        self.assertAlmostEqual(drawn.mean(), 120, delta=2)


class TextureTest(unittest.TestCase):
    def test_relief_of_no_depth_is_absent_and_any_leaves_the_mean_alone(self):
        for ground in ("paper", "canvas", "plaster"):
            with self.subTest(ground):
                flat = treated(GREY, Relief(ground=ground, depth=0))
                np.testing.assert_array_equal(flat, GREY)
                deep = treated(GREY, Relief(ground=ground, depth=100, grain=0.03)).astype(int)
                self.assertGreater(deep.std(), 3)
                self.assertAlmostEqual(deep.mean(), 120, delta=2.5)

    def test_light_from_the_other_side_turns_the_relief_round(self):
        one, other = (
            treated(GREY, Relief(light=light, grain=0.03)).astype(int) - 120 for light in (45, -135)
        )
        self.assertLess(np.corrcoef(one.ravel(), other.ravel())[0, 1], -0.98)

    def test_grain_is_strongest_in_the_middle_and_absent_in_black_and_white(self):
        for grey in (0, 255):
            photo = np.full((SIDE, SIDE, 3), grey, np.uint8)
            np.testing.assert_array_equal(treated(photo, Grain(amount=100)), photo)
        spread = {
            grey: treated(np.full((SIDE, SIDE, 3), grey, np.uint8), Grain(size=0.02)).std()
            for grey in (20, 128, 235)
        }
        self.assertGreater(spread[128], 1.3 * spread[20])
        self.assertGreater(spread[128], 1.3 * spread[235])

    def test_grain_is_grey_unless_it_is_coloured_and_follows_its_seed(self):
        grain = treated(GREY, Grain(size=0.01)).astype(int)
        self.assertEqual(np.ptp(grain, axis=2).max(), 0)
        self.assertGreater(np.ptp(treated(GREY, Grain(coloured=True)).astype(int), axis=2).max(), 5)
        np.testing.assert_array_equal(grain, treated(GREY, Grain(size=0.01)))
        self.assertFalse(np.array_equal(grain, treated(GREY, Grain(size=0.01, seed=2))))


class VignetteTest(unittest.TestCase):
    def test_the_middle_is_left_and_the_corners_have_the_colour(self):
        vignette = Vignette(colour="#FF0000", amount=80, reach=40, softness=60)
        drawn = treated(GREY, vignette).astype(int)
        y, x = (np.mgrid[:SIDE, :SIDE] + 0.5) / (SIDE / 2) - 1
        way = np.clip((np.hypot(x, y) / math.sqrt(2) - 0.4) / 0.6, 0, 1)
        share = 0.8 * way * way * (3 - 2 * way)
        wanted = 120 + share[:, :, None] * (np.array([255, 0, 0]) - 120)
        self.assertLess(np.abs(drawn - wanted).max(), 0.51)


class GlowTest(unittest.TestCase):
    def test_it_only_lightens_and_spreads_from_the_light(self):
        photo = np.full((SIDE, SIDE, 3), 40, np.uint8)
        photo[110:130, 110:130] = 250
        drawn = treated(photo, Glow(radius=0.1, amount=100, above=60)).astype(int)
        self.assertTrue((drawn >= photo).all())
        self.assertGreater(drawn[120, 140, 1], 60)
        self.assertLessEqual(drawn[5, 5, 1], 41)

    def test_a_dark_photo_has_none(self):
        photo = np.full((SIDE, SIDE, 3), 40, np.uint8)
        np.testing.assert_array_equal(treated(photo, Glow(above=60)), photo)


class BlurTest(unittest.TestCase):
    def test_a_point_of_light_becomes_a_disc_of_the_radius(self):
        photo = np.zeros((SIDE, SIDE, 3), np.uint8)
        photo[118:122, 118:122] = 255
        for radius in (0.05, 0.12):
            light = to_linear(treated(photo, LensBlur(radius=radius)))[:, :, 1]
            y, x = np.mgrid[:SIDE, :SIDE] + 0.5 - SIDE / 2
            lit = light > light.max() / 2
            self.assertAlmostEqual(math.sqrt(lit.sum() / math.pi), radius * SIDE, delta=2)
            self.assertLess(np.hypot(x, y)[lit].max(), radius * SIDE + 4)
            self.assertAlmostEqual(light.sum(), 16, delta=1.2)

    def test_no_blur_is_absent_and_one_as_large_as_the_picture_is_bearable(self):
        photo = noise(SIDE, SIDE)
        np.testing.assert_array_equal(treated(photo, LensBlur(radius=0)), photo)
        everything = treated(photo, LensBlur(radius=0.5)).astype(int)
        self.assertLess(everything.std(), 10)

    def test_a_sharp_zone_is_sharp_and_the_rest_is_not(self):
        photo = noise(SIDE, SIDE)
        zone = SharpZone(sharp=0.1, fade=0.1, radius=0.05, centre=PhotoPoint(x=0.5, y=0.5))
        drawn = treated(photo, zone)
        np.testing.assert_array_equal(drawn[97:143], photo[97:143])
        self.assertLess(drawn[:60].std(), 0.4 * photo.std())
        circle = treated(photo, zone.model_copy(update={"form": "round"}))
        np.testing.assert_array_equal(circle[110:130, 110:130], photo[110:130, 110:130])
        self.assertLess(circle[110:130, :40].std(), 0.4 * photo.std())

    def test_what_is_blurred_behind_a_subject_has_no_halo_of_it(self):
        photo = np.full((SIDE, SIDE, 3), (110, 110, 110), np.uint8)
        photo[80:160, 80:160] = (220, 30, 20)
        cut_out = CutOut(boxes=({"left": 0.3, "top": 0.3, "width": 0.4, "height": 0.4},))
        blur = LensBlur(radius=0.08, masks=(SubjectAreaMask(inverted=True),))
        drawn = treated(photo, blur, cut_out=cut_out.model_copy(update={"on": False})).astype(int)
        self.assertLess(np.abs(drawn[:74] - 110).max(), 6)
        self.assertLess(np.abs(drawn[90:150, 90:150] - photo[90:150, 90:150]).max(), 2)


class StackTest(unittest.TestCase):
    def test_off_or_of_no_strength_is_absent(self):
        photo = gradient(SIDE, SIDE)
        plain = treated(photo)
        np.testing.assert_array_equal(plain, treated(photo, Mosaic(on=False)))
        np.testing.assert_array_equal(plain, treated(photo, Mosaic(strength=0)))
        scene = treated_scene(photo, Mosaic())
        off = apply_edit(scene, SetTreatments(changes={"on": False})).finish
        np.testing.assert_array_equal(plain, render(Scene.of(off, "main", scene.sources)))
        np.testing.assert_array_equal(render(scene, view="before"), photo)

    def test_half_the_strength_is_halfway(self):
        photo = noise(SIDE, SIDE)
        whole, half = (treated(photo, Vignette(strength=share)).astype(int) for share in (100, 50))
        self.assertLessEqual(np.abs((photo + whole) / 2 - half).max(), 1.5)

    def test_order_counts(self):
        photo = gradient(SIDE, SIDE)
        grain, mosaic = Grain(size=0.01), Mosaic(cell=0.1)
        over, under = treated(photo, mosaic, grain), treated(photo, grain, mosaic)
        self.assertGreater(over[50:55, 50:55].std(axis=(0, 1)).max(), 3)
        self.assertLess(under[50:55, 50:55].std(axis=(0, 1)).max(), 1)

    def test_outside_its_masks_nothing_changes(self):
        photo = noise(SIDE, SIDE)
        ellipse = EllipseMask(radius_x=0.2, radius_y=0.2, softness=0)
        for made in (Mosaic(), LensBlur(), Dots(), Grain(), Glow()):
            with self.subTest(made.kind):
                drawn = treated(photo, made.model_copy(update={"masks": (ellipse,)}))
                np.testing.assert_array_equal(drawn[:60], photo[:60])
                self.assertFalse(np.array_equal(drawn[110:130], photo[110:130]))

    def test_what_is_kept_of_another_subject_is_not_taken_for_this_one(self):
        photo = np.full((SIDE, SIDE, 3), (110, 110, 110), np.uint8)
        photo[20:90, 20:90], photo[150:220, 150:220] = (220, 30, 20), (20, 60, 220)
        rest = (SubjectAreaMask(inverted=True),)
        made = (LensBlur(radius=0.1, masks=rest), Dots(masks=rest))

        def scene(place, sources):
            box = {"left": place, "top": place, "width": 0.34, "height": 0.34}
            finish = finish_of(
                treatments=Treatments(made=made), cut_out=CutOut(boxes=(box,)), export=PNG
            )
            return scene_of(finish, sources)

        sources = sources_of(photo)
        render(scene(0.06, sources))
        kept, fresh = (render(scene(0.6, one)) for one in (sources, sources_of(photo)))
        np.testing.assert_array_equal(kept, fresh)

    def test_a_treated_photo_is_drawn_once_for_all_that_is_laid_over_it(self):
        sources = sources_of(noise(SIDE, SIDE))
        made = Treatments(made=(Mosaic(),))

        def drawn(**fields):
            return render(scene_of(finish_of(treatments=made, export=PNG, **fields), sources))

        plain = drawn()
        with mock.patch("lucky_margin.core.render.treated.blended") as again:
            text = {"kind": "text", "id": "text-1", "text": "Mugs", "size": 0.3}
            self.assertFalse(np.array_equal(drawn(pieces=[text]), plain))
            again.assert_not_called()

    def test_what_is_kept_of_a_treated_photo_is_never_another_one(self):
        """One after the other from the same sources as from new ones."""
        photo = noise(SIDE, 180)
        grain, mosaic = Grain(strength=60), Mosaic(cell=0.06)
        ellipse = EllipseMask(radius_x=0.3, radius_y=0.3, softness=0)
        sources = sources_of(photo)
        for fields in (
            {"treatments": Treatments(made=(grain,))},
            {"treatments": Treatments(made=(grain.model_copy(update={"seed": 5}),))},
            {"treatments": Treatments(made=(grain, mosaic))},
            {"treatments": Treatments(made=(mosaic, grain))},
            {"treatments": Treatments(made=(mosaic.model_copy(update={"strength": 50}),))},
            {"treatments": Treatments(made=(mosaic.model_copy(update={"masks": (ellipse,)}),))},
            {"treatments": Treatments(made=(mosaic,)), "tone": Tone(exposure=1)},
            {"treatments": Treatments(made=(mosaic,)), "turn": {"straighten": 4}},
            {"treatments": Treatments(made=(mosaic,)), "turn": {"mirrored": True}},
            {"treatments": Treatments(made=(mosaic,)), "lifts": {"lifted": [{"tilt": 9}]}},
            {"treatments": Treatments(made=(mosaic,)), "lifts": {"lifted": [{"size": 1.2}]}},
        ):
            for scale in (1, 0.5):
                kept, fresh = (
                    render(scene_of(finish_of(200, 150, export=PNG, **fields), one), scale=scale)
                    for one in (sources, sources_of(photo))
                )
                with self.subTest(fields, scale=scale):
                    np.testing.assert_array_equal(kept, fresh)

    def test_its_masks_can_be_shown(self):
        ellipse = EllipseMask(radius_x=0.2, radius_y=0.2, softness=0)
        scene = treated_scene(GREY // 3, Mosaic(), Grain(masks=(ellipse,)))
        shown = render(scene, view="mask", area=1, masks_of="treatment")
        np.testing.assert_array_equal(shown[120, 120], 40)
        self.assertGreater(shown[10, 10].min(), 60)  # a grey veil lies over the rest
        for number in (0, 2):
            with self.assertRaisesRegex(BadInput, "no treatment"):
                render(scene, view="mask", area=number, masks_of="treatment")

    def test_a_photo_keeps_its_own_alpha(self):
        photo = np.dstack([gradient(SIDE, SIDE), np.full((SIDE, SIDE), 90, np.uint8)])
        drawn = treated(photo, Mosaic(), Grain())
        np.testing.assert_array_equal(drawn[:, :, 3], 90)

    def test_a_size_may_have_its_own(self):
        finish = finish_of(treatments=Treatments(made=(Mosaic(),)), export=PNG)
        finish = with_size(finish, overrides={"treatments": {"made": []}})
        photo = noise(SIDE, SIDE)
        np.testing.assert_array_equal(render(scene_of(finish, sources_of(photo))), photo)

    def test_the_background_of_a_cut_out_subject_is_treated_as_the_backdrop(self):
        photo = np.full((SIDE, SIDE, 3), (110, 110, 110), np.uint8)
        photo[80:160, 80:160] = (220, 30, 20)
        cut_out = CutOut(on=True, boxes=({"left": 0.3, "top": 0.3, "width": 0.4, "height": 0.4},))
        dots = Dots(masks=(SubjectAreaMask(inverted=True),), ink="#000000", paper="#FFFFFF")
        drawn = treated(photo, dots, cut_out=cut_out, backdrop=ThisPhoto(blur=0)).astype(int)
        self.assertGreater(drawn[:70].std(), 60)
        self.assertLess(np.abs(drawn[90:150, 90:150] - (220, 30, 20)).max(), 3)


class EveryScaleTest(unittest.TestCase):
    """Of each ready-made treatment: its preview is the export made smaller."""

    def setUp(self):
        self.sources = demo_sources("mugs-window.jpg")
        self.addCleanup(delattr, self, "sources")  # with all that it has cached

    def scene(self, *made, width=720, height=900):
        finish = finish_of(width, height, treatments=Treatments(made=made), tone=Tone(contrast=20))
        return scene_of(finish, self.sources)

    def shrunk(self, picture, like):
        rows, columns = like.shape[:2]
        step_x, step_y = picture.shape[1] / columns, picture.shape[0] / rows
        return sample(
            picture, left=0, top=0, step_x=step_x, step_y=step_y, region=(0, 0, columns, rows)
        )

    def test_a_preview_shows_what_is_exported(self):
        for style in TREATMENT_STYLES:
            scene = self.scene(style.treatment)
            whole = render(scene)
            for scale in (0.5, 0.25):
                with self.subTest(style.key, scale=scale):
                    small = render(scene, scale=scale)
                    off = np.abs(self.shrunk(whole, small).astype(int) - small)
                    self.assertLessEqual(off.mean(), 1.5)
                    self.assertLessEqual(np.percentile(off, 99), 8)

    def test_a_region_shows_what_the_whole_does(self):
        for style in TREATMENT_STYLES:
            with self.subTest(style.key):
                scene = self.scene(style.treatment, width=360, height=450)
                whole = render(scene).astype(int)
                part = render(scene, region=(101, 203, 150, 120))
                off = np.abs(part - whole[203:323, 101:251])
                self.assertLessEqual(off.max(), 1)

    def test_a_large_picture_is_the_same_in_strips(self):
        made = (Mosaic(form="pebble", joint=0.1), Dots(strength=50), Grain())
        whole = render(self.scene(*made, width=200, height=250))
        with mock.patch("lucky_margin.core.render.treated.STRIP_PIXELS", 200 * 37):
            strips = render(self.scene(*made, width=200, height=250))
        self.assertLessEqual(np.abs(strips.astype(int) - whole).max(), 1)


class EditTest(unittest.TestCase):
    def edited(self, edit, *made):
        scene = treated_scene(np.zeros((200, 300, 3), np.uint8), *made)
        return apply_edit(scene, edit).finish

    def test_masks_of_a_treatment_are_added_and_dragged_like_those_of_an_area(self):
        finish = self.edited(AddMask(place="treatment", number=0, mask="ellipse"), Mosaic())
        mask = finish.treatments.made[0].masks[0]
        drag = DragMask(place="treatment", number=0, mask=0, grip="middle", dx=30, dy=20)
        moved = self.edited(drag, *finish.treatments.made).treatments.made[0].masks[0]
        self.assertAlmostEqual(moved.centre.x - mask.centre.x, 0.1)
        self.assertAlmostEqual(moved.centre.y - mask.centre.y, 0.1)
        with self.assertRaisesRegex(BadInput, "no treatment 2"):
            self.edited(AddMask(place="treatment", number=1, mask="band"), Mosaic())

    def test_a_sharp_zone_is_dragged_by_its_middle_and_its_end(self):
        zone = SharpZone(sharp=0.1)
        drag = DragZone(number=0, grip="middle", dx=30, dy=-20)
        moved = self.edited(drag, zone).treatments.made[0]
        self.assertAlmostEqual(moved.centre.x, 0.6)
        self.assertAlmostEqual(moved.centre.y, 0.4)
        # The end lies 20 px below the middle; 20 px further left it stands at 45 degrees.
        turned = self.edited(DragZone(number=0, grip="end", dx=-20, dy=0), zone)
        self.assertAlmostEqual(turned.treatments.made[0].angle, 45)
        self.assertAlmostEqual(turned.treatments.made[0].sharp, math.hypot(20, 20) / 200, places=3)
        with self.assertRaisesRegex(BadInput, "leaves no zone sharp"):
            self.edited(DragZone(number=0, grip="end", dx=1, dy=1), Mosaic())

    def test_grips_lie_where_the_zone_is(self):
        scene = treated_scene(np.zeros((200, 300, 3), np.uint8), SharpZone(sharp=0.1, angle=90))
        (shape,) = layout(scene).tone_shapes
        places = {grip.grip: (round(grip.x, 3), round(grip.y, 3)) for grip in shape.grips}
        self.assertEqual(places, {"middle": (150, 100), "end": (130, 100)})
