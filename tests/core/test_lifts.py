"""Lifts: in register over their base, tilted and enlarged; and the animations that reveal them."""

import io
import unittest
from itertools import pairwise

import numpy as np
from PIL import Image

from lucky_margin.core.document import (
    Box,
    CutOut,
    Finish,
    Focus,
    Lift,
    LiftBase,
    Lifts,
    Mosaic,
    PlainShape,
    Point,
    Rectangle,
    Reveal,
    ShapeRegion,
    SolidColour,
    SubjectRegion,
    ThisPhoto,
    Tone,
    Treatments,
    Turn,
)
from lucky_margin.core.document.lifts import MOST_LIFTS
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.lifts import SMALLEST, AddLift, DragLift
from lucky_margin.core.edits.steps import SetLifts, SwitchStep
from lucky_margin.core.errors import BadDocument, BadInput
from lucky_margin.core.export import export_reveal
from lucky_margin.core.export.reveal import FIRST_MS, MOMENT_MS, moments_of, share_over
from lucky_margin.core.progress import Cancelled
from lucky_margin.core.render import layout, render
from lucky_margin.core.scene import Scene
from tests.support import finish_of, gradient, noise, scene_of, sources_of, with_size

SIDE = 200
BOX = Box(left=0.25, top=0.3, width=0.4, height=0.35)
INSIDE = np.s_[60:130, 50:130]
PLAIN = {"edge": 0, "shadow": None}
GREY = LiftBase(grey=1)
LUMA = np.array([0.2126, 0.7152, 0.0722])


def of_box(box=BOX, shape=None, **fields):
    return Lift(region=ShapeRegion(box=box, shape=shape or Rectangle()), **(PLAIN | fields))


def lifted_scene(photo, *lifted, base=None, **fields):
    lifts = Lifts(base=base or LiftBase(), lifted=lifted)
    finish = finish_of(lifts=lifts, **({"export": {"format": "png"}} | fields))
    return scene_of(finish, sources_of(photo))


def lifted(photo, *lifts, **fields):
    return render(lifted_scene(photo, *lifts, **fields))


def greyed(photo):
    return np.repeat(np.rint(photo @ LUMA)[:, :, None], 3, axis=2)


class RegisterTest(unittest.TestCase):
    def setUp(self):
        self.photo = noise(SIDE, SIDE)

    def test_with_nothing_set_the_picture_is_bit_identical(self):
        np.testing.assert_array_equal(lifted(self.photo, of_box()), self.photo)
        shown = lifted(self.photo, of_box(), treatments=Treatments(made=(Mosaic(),)))
        plain = lifted(self.photo, treatments=Treatments(made=(Mosaic(),)))
        np.testing.assert_array_equal(shown, plain)

    def test_over_a_changed_base_what_is_lifted_is_the_photo_itself(self):
        drawn = lifted(self.photo, of_box(), base=GREY)
        np.testing.assert_array_equal(drawn[INSIDE], self.photo[INSIDE])
        outside = np.ones((SIDE, SIDE), bool)
        outside[INSIDE] = False
        self.assertLessEqual(np.abs(drawn.astype(int) - greyed(self.photo))[outside].max(), 1)

    def test_so_it_is_with_a_tone_and_turned(self):
        for fields in ({"tone": Tone(exposure=0.4)}, {"turn": Turn(straighten=7)}):
            with self.subTest(fields):
                plain = lifted(self.photo, **fields)
                drawn = lifted(self.photo, of_box(), base=GREY, **fields)
                middle = np.s_[plain.shape[0] // 2 - 20 : plain.shape[0] // 2 + 20, 70:110]
                np.testing.assert_array_equal(drawn[middle], plain[middle])

    def test_the_base_is_lightened_and_blurred(self):
        white = lifted(self.photo, of_box(), base=LiftBase(light=1))
        self.assertTrue((white[:50] == 255).all())
        np.testing.assert_array_equal(white[INSIDE], self.photo[INSIDE])
        soft = lifted(self.photo, of_box(), base=LiftBase(blur=0.05)).astype(int)
        self.assertLess(soft[:50].std(), 0.4 * self.photo.std())
        np.testing.assert_array_equal(soft[INSIDE], self.photo[INSIDE])

    def test_any_shape(self):
        circle = PlainShape(kind="circle")
        box = Box(left=0.25, top=0.25, width=0.5, height=0.5)
        drawn = lifted(self.photo, of_box(box, circle), base=LiftBase(light=-1)).astype(int)
        y, x = np.mgrid[:SIDE, :SIDE] + 0.5 - SIDE / 2
        way = np.hypot(x, y)
        np.testing.assert_array_equal(drawn[way < 49], self.photo[way < 49])
        self.assertEqual(drawn[way > 51].max(), 0)

    def test_a_treatment_covers_base_or_lifts_or_both(self):
        plain = self.photo
        for covers, base_changes, lift_changes in (
            ("all", True, True),
            ("base", True, False),
            ("lifts", False, True),
        ):
            with self.subTest(covers):
                made = Treatments(made=(Mosaic(covers=covers),))
                drawn = lifted(self.photo, of_box(), treatments=made)
                self.assertEqual(not np.array_equal(drawn[:50], plain[:50]), base_changes)
                self.assertEqual(not np.array_equal(drawn[INSIDE], plain[INSIDE]), lift_changes)

    def test_a_region_of_the_picture_is_the_same_cut_of_it(self):
        lift = of_box(edge=0.03, shadow={"x": 0.02, "y": 0.03, "blur": 0.03}, tilt=15, size=1.3)
        scene = lifted_scene(self.photo, lift, base=GREY)
        whole = render(scene).astype(int)
        part = render(scene, region=(31, 47, 90, 70))
        self.assertLessEqual(np.abs(part - whole[47:117, 31:121]).max(), 1)

    def test_a_preview_shows_what_is_exported(self):
        photo = gradient(800, 800)
        scene = lifted_scene(photo, of_box(edge=0.02, tilt=9), of_box(size=0.5), base=GREY)
        whole, half = render(scene), render(scene, scale=0.5)
        shrunk = whole.reshape(400, 2, 400, 2, 3).mean(axis=(1, 3))
        off = np.abs(shrunk - half)
        self.assertLessEqual(off.mean(), 1.5)
        self.assertLessEqual(np.percentile(off, 99), 8)


class RaisedTest(unittest.TestCase):
    def quarters(self):
        photo = np.zeros((SIDE, SIDE, 3), np.uint8)
        photo[:100, :100], photo[:100, 100:] = (200, 0, 0), (0, 200, 0)
        photo[100:, :100], photo[100:, 100:] = (0, 0, 200), (200, 200, 0)
        return photo

    def test_tilted_by_half_a_turn_it_stands_on_its_head(self):
        photo = self.quarters()
        box = Box(left=0.25, top=0.25, width=0.5, height=0.5)
        drawn = lifted(photo, of_box(box, tilt=180), base=LiftBase(light=1))
        np.testing.assert_array_equal(drawn[60, 60], photo[140, 140])
        np.testing.assert_array_equal(drawn[60, 140], photo[140, 60])
        self.assertTrue((drawn[:48] == 255).all())

    def test_a_quarter_turn_is_clockwise(self):
        photo = self.quarters()
        box = Box(left=0.25, top=0.25, width=0.5, height=0.5)
        drawn = lifted(photo, of_box(box, tilt=90), base=LiftBase(light=1))
        np.testing.assert_array_equal(drawn[60, 140], photo[60, 60])

    def test_enlarged_about_its_middle(self):
        photo = self.quarters()
        box = Box(left=0.4, top=0.4, width=0.2, height=0.2)
        drawn = lifted(photo, of_box(box, size=3), base=LiftBase(light=1))
        edge = np.flatnonzero((drawn[120] != 255).any(axis=1))
        self.assertEqual((edge[0], edge[-1]), (40, 159))
        np.testing.assert_array_equal(drawn[45, 45], photo[90, 90])

    def test_its_edge_is_as_wide_as_said(self):
        for width in (0.01, 0.033, 0.08):
            photo = np.zeros((SIDE, SIDE, 3), np.uint8)
            drawn = lifted(photo, of_box(edge=width, edge_colour="#FFFFFF"))
            line = drawn[95, :50, 0].astype(int).sum() / 255
            self.assertAlmostEqual(line, width * SIDE, delta=0.3)

    def test_its_shadow_falls_where_it_is_sent(self):
        photo = np.full((SIDE, SIDE, 3), 255, np.uint8)
        shadow = {"x": 0.1, "y": 0, "blur": 0, "opacity": 1}
        drawn = lifted(photo, of_box(shadow=shadow))
        np.testing.assert_array_equal(drawn[95, 132:148], 0)
        np.testing.assert_array_equal(drawn[95, :48], 255)
        np.testing.assert_array_equal(drawn[INSIDE], 255)

    def test_the_last_lies_on_top(self):
        photo = np.zeros((SIDE, SIDE, 3), np.uint8)
        red, blue = (of_box(edge=0.1, edge_colour=c) for c in ("#FF0000", "#0000FF"))
        np.testing.assert_array_equal(lifted(photo, red, blue)[95, 40], (0, 0, 255))
        np.testing.assert_array_equal(lifted(photo, blue, red)[95, 40], (255, 0, 0))

    def test_switched_off_it_is_absent(self):
        photo = noise(SIDE, SIDE)
        off = of_box(edge=0.05, on=False)
        np.testing.assert_array_equal(lifted(photo, off, base=GREY), photo)
        scene = lifted_scene(photo, of_box(edge=0.05), base=GREY)
        finish = apply_edit(scene, SwitchStep(step="treatments", on=False)).finish
        np.testing.assert_array_equal(render(scene_of(finish, scene.sources)), photo)
        np.testing.assert_array_equal(render(scene, view="before"), photo)


class SubjectTest(unittest.TestCase):
    CUT_OUT = CutOut(boxes=(Box(left=0.3, top=0.3, width=0.4, height=0.4),))

    def photo(self):
        photo = np.full((SIDE, SIDE, 3), (90, 110, 150), np.uint8)
        photo[60:140, 60:140] = (200, 40, 30)
        return photo

    def test_the_subject_is_lifted_by_its_own_edge(self):
        lift = Lift(region=SubjectRegion(), edge=0.05, edge_colour="#00FF00", shadow=None)
        drawn = lifted(self.photo(), lift, base=GREY, cut_out=self.CUT_OUT).astype(int)
        self.assertLess(np.abs(drawn[65:135, 65:135] - (200, 40, 30)).max(), 3)
        np.testing.assert_array_equal(drawn[100, 54], (0, 255, 0))
        self.assertLess(np.ptp(drawn[30, 30]), 2)

    def test_over_a_backdrop_it_lies_behind_the_subject(self):
        shown = {"cut_out": self.CUT_OUT.model_copy(update={"on": True})}
        box = Box(left=0.1, top=0.4, width=0.8, height=0.2)
        lift = of_box(box, edge=0.02, edge_colour="#00FF00")
        drawn = lifted(self.photo(), lift, backdrop=SolidColour(colour="#FFFFFF"), **shown)
        self.assertLess(np.abs(drawn[100, 100].astype(int) - (200, 40, 30)).max(), 3)
        np.testing.assert_array_equal(drawn[100, 30], (90, 110, 150))
        np.testing.assert_array_equal(drawn[78, 30], (0, 255, 0))
        self.assertLess(np.abs(drawn[78, 100].astype(int) - (200, 40, 30)).max(), 3)
        np.testing.assert_array_equal(drawn[20, 20], (255, 255, 255))

    def test_the_photo_behind_a_subject_can_be_the_base(self):
        shown = {"cut_out": self.CUT_OUT.model_copy(update={"on": True})}
        drawn = lifted(self.photo(), of_box(), backdrop=ThisPhoto(blur=0, grey=1), **shown)
        self.assertLess(np.ptp(drawn[20, 20].astype(int)), 2)
        np.testing.assert_array_equal(drawn[100, 55], (90, 110, 150))


class EditTest(unittest.TestCase):
    def test_a_new_one_is_what_is_in_focus_over_a_grey_base(self):
        focus = Focus(point=Point(x=0.4, y=0.4), box=BOX)
        scene = lifted_scene(noise(SIDE, SIDE), focus=focus)
        lifts = apply_edit(scene, AddLift(shape=Rectangle())).finish.lifts
        self.assertEqual(lifts.lifted[0].region.box, BOX)
        self.assertEqual(lifts.base, GREY)

    def test_without_a_focus_it_is_the_middle_of_what_is_shown(self):
        scene = lifted_scene(noise(SIDE, SIDE))
        lifts = apply_edit(scene, AddLift(shape=Rectangle())).finish.lifts
        self.assertEqual(
            lifts.lifted[0].region.box, Box(left=0.25, top=0.25, width=0.5, height=0.5)
        )

    def test_a_base_that_is_set_stays_and_the_step_is_switched_on(self):
        base, off = LiftBase(blur=0.02), Treatments(on=False)
        scene = lifted_scene(noise(SIDE, SIDE), base=base, treatments=off)
        finish = apply_edit(scene, AddLift(shape=Rectangle())).finish
        self.assertEqual(finish.lifts.base, base)
        self.assertTrue(finish.treatments.on)

    def test_it_is_dragged_over_the_photo_and_never_off_it(self):
        scene = lifted_scene(noise(SIDE, SIDE), of_box())
        for grip, dx, dy, wanted in (
            ("middle", 10, -10, (0.3, 0.25, 0.7, 0.6)),
            ("middle", 999, 999, (0.6, 0.65, 1, 1)),
            ("start", -10, 10, (0.2, 0.35, 0.65, 0.65)),
            ("end", 20, 999, (0.25, 0.3, 0.75, 1)),
        ):
            with self.subTest(grip=grip, dx=dx):
                edit = DragLift(number=0, grip=grip, dx=dx, dy=dy)
                box = apply_edit(scene, edit).finish.lifts.lifted[0].region.box
                np.testing.assert_allclose(box.edges, wanted, atol=1e-6)

    def test_a_corner_dragged_past_the_other_leaves_a_little(self):
        scene = lifted_scene(noise(SIDE, SIDE), of_box())
        edit = DragLift(number=0, grip="start", dx=999, dy=999)
        box = apply_edit(scene, edit).finish.lifts.lifted[0].region.box
        self.assertAlmostEqual(box.width, SMALLEST)
        self.assertAlmostEqual(box.height, SMALLEST)

    def test_what_makes_no_sense_is_refused(self):
        scene = lifted_scene(noise(SIDE, SIDE), Lift(region=SubjectRegion()))
        for edit, words in (
            (DragLift(number=0, grip="end", dx=1, dy=1), "own edge"),
            (DragLift(number=3, grip="end", dx=1, dy=1), "no lift 4"),
        ):
            with self.assertRaisesRegex(BadInput, words):
                apply_edit(scene, edit)

    def test_a_hundred_lifts_are_too_many(self):
        full = lifted_scene(noise(SIDE, SIDE), *[of_box()] * MOST_LIFTS)
        with self.assertRaisesRegex(BadInput, "20 lifts at most"):
            apply_edit(full, AddLift(shape=Rectangle()))
        with self.assertRaises(BadDocument):
            apply_edit(full, SetLifts(changes={"lifted": [Lift()] * 100}))

    def test_its_grips_lie_on_the_region(self):
        scene = lifted_scene(noise(SIDE, SIDE), of_box(tilt=30))
        (shape,) = layout(scene).tone_shapes
        places = {one.grip: (one.x, one.y) for one in shape.grips}
        self.assertEqual(places["start"], (50, 60))
        self.assertEqual(places["end"], (130, 130))

    def test_the_finish_reads_back(self):
        finish = lifted_scene(noise(SIDE, SIDE), of_box(tilt=30), base=GREY).finish
        self.assertEqual(Finish.model_validate_json(finish.model_dump_json()), finish)


def means(picture):
    """Of 10 x 10 pixels each, which even a dither out."""
    return picture.reshape(SIDE // 10, 10, SIDE // 10, 10, 3).mean(axis=(1, 3))


class MomentsTest(unittest.TestCase):
    def test_lifts_come_one_after_the_other_and_then_all_stays(self):
        moments = moments_of(Reveal(seconds=0.5, pause=1), 2)
        self.assertEqual([one.picture for one in moments], [0] + [1] * 10 + [2] * 10)
        self.assertEqual(moments[0].milliseconds, FIRST_MS)
        self.assertEqual(moments[-1].milliseconds, 1000)
        shares = [one.share for one in moments[1:11]]
        self.assertEqual(shares, sorted(shares))
        self.assertEqual((shares[-1], moments[-1].share), (1, 1))

    def test_in_no_time_it_is_there_at_once(self):
        self.assertEqual([one.share for one in moments_of(Reveal(seconds=0), 1)], [1, 1])

    def test_from_the_side_from_below_and_fading(self):
        side = share_over("side", 0.5, 100, 60)
        self.assertTrue((side[:, :40] == 1).all() and (side[:, 60:] == 0).all())
        below = share_over("below", 0.5, 100, 60)
        self.assertTrue((below[40:] == 1).all() and (below[:20] == 0).all())
        self.assertTrue((share_over("fade", 0.3, 100, 60) == np.float32(0.3)).all())
        for way in ("side", "below", "fade"):
            self.assertTrue((share_over(way, 1, 100, 60) == 1).all())


class RevealTest(unittest.TestCase):
    def scene(self, *lifts, max_kb=None, photo=None, **reveal):
        export = {"format": "png", "max_kb": max_kb, "reveal": reveal, "quality": 90}
        photo = gradient(SIDE, SIDE) if photo is None else photo
        return lifted_scene(photo, *(lifts or [of_box(edge=0.03)]), base=GREY, export=export)

    def read(self, file):
        """Its pictures as an independent reader shows them, and how long each stays."""
        image = Image.open(io.BytesIO(file.data))
        pictures, times = [], []
        for number in range(image.n_frames):
            image.seek(number)
            image.load()
            pictures.append(np.array(image.convert("RGB")).astype(int))
            times.append(image.info["duration"])
        return image, pictures, times

    def test_it_goes_from_the_plain_photo_to_the_lifted_one_and_again(self):
        for image_format in ("webp", "gif"):
            with self.subTest(image_format):
                scene = self.scene(seconds=0.6, pause=1.5, format=image_format)
                file = export_reveal(scene)
                image, pictures, times = self.read(file)
                self.assertEqual(image.size, (SIDE, SIDE))
                self.assertEqual(image.info["loop"], 0)
                # Encoders put pictures together that are the same; the time stays.
                self.assertEqual(sum(times), FIRST_MS + 11 * MOMENT_MS + 1500)
                plain, whole = gradient(SIDE, SIDE).astype(int), render(scene).astype(int)
                # The palette lies within the photo's colours: the outermost are not reached.
                self.assertLess(np.abs(means(pictures[0]) - means(plain)).mean(), 1.5)
                self.assertLess(np.abs(means(pictures[-1]) - means(whole)).mean(), 1.5)

    def test_what_is_seen_at_a_moment_is_one_picture_over_the_other(self):
        photo = np.full((SIDE, SIDE, 3), (200, 60, 40), np.uint8)
        for way, came, waits in (
            ("side", np.s_[:, :60], np.s_[:, 150:]),
            ("below", np.s_[150:], np.s_[:40]),
        ):
            for image_format in ("webp", "gif"):
                with self.subTest(way, format=image_format):
                    scene = self.scene(
                        of_box(), photo=photo, way=way, seconds=0.3, format=image_format
                    )
                    _, pictures, _ = self.read(export_reveal(scene))
                    middle = pictures[len(pictures) // 2]
                    self.assertLess(np.ptp(middle[came].reshape(-1, 3)[0]), 12)
                    self.assertLess(np.abs(middle[waits] - (200, 60, 40)).max(), 14)

    def test_fading_in_halfway_is_half_of_both(self):
        photo = np.full((SIDE, SIDE, 3), (220, 40, 40), np.uint8)
        for image_format in ("webp", "gif"):
            scene = self.scene(of_box(), photo=photo, way="fade", seconds=0.5, format=image_format)
            _, pictures, _ = self.read(export_reveal(scene))
            share = moments_of(Reveal(seconds=0.5), 1)[5].share
            grey = (np.array([220, 40, 40]) @ LUMA).round()
            wanted = np.array([220, 40, 40]) * (1 - share) + grey * share
            np.testing.assert_allclose(pictures[5][:40].mean(axis=(0, 1)), wanted, atol=4)

    def test_a_gif_has_one_palette_and_what_stands_still_does_not_flicker(self):
        _, pictures, _ = self.read(export_reveal(self.scene(seconds=0.4, format="gif")))
        colours = np.unique(np.concatenate(pictures).reshape(-1, 3), axis=0)
        self.assertLessEqual(len(colours), 256)
        for before, after in pairwise(pictures):
            np.testing.assert_array_equal(before[75:115, 60:120], after[75:115, 60:120])

    def test_it_keeps_to_its_weight(self):
        for image_format in ("webp", "gif"):
            with self.subTest(image_format):
                wanted = {"photo": noise(SIDE, SIDE), "seconds": 0.3, "format": image_format}
                free = export_reveal(self.scene(**wanted))
                cap = 0.7 * len(free.data) / 1000
                file = export_reveal(self.scene(max_kb=cap, **wanted))
                self.assertLessEqual(len(file.data), 1000 * cap)
                self.assertLess(file.quality, free.quality)
                self.assertTrue(file.meets_cap)
                self.assertFalse(export_reveal(self.scene(max_kb=1, **wanted)).meets_cap)

    def test_what_is_transparent_stays_so_or_lies_on_white(self):
        photo = np.dstack([gradient(SIDE, SIDE), np.full((SIDE, SIDE), 0, np.uint8)])
        photo[50:150, 50:150, 3] = 255
        webp = export_reveal(self.scene(of_box(), photo=photo, seconds=0.1))
        image = Image.open(io.BytesIO(webp.data))
        self.assertEqual(image.convert("RGBA").getpixel((5, 5))[3], 0)
        gif = export_reveal(self.scene(of_box(), photo=photo, seconds=0.1, format="gif"))
        self.assertEqual(self.read(gif)[1][0][5, 5].tolist(), [255, 255, 255])

    def test_the_same_bytes_every_time(self):
        for image_format in ("webp", "gif"):
            scene = self.scene(seconds=0.2, format=image_format)
            self.assertEqual(export_reveal(scene).sha256, export_reveal(scene).sha256)

    def test_what_cannot_be_revealed_is_refused(self):
        for scene, words in (
            (lifted_scene(noise(SIDE, SIDE)), "Nothing is lifted"),
            (lifted_scene(noise(SIDE, SIDE), of_box(on=False)), "Nothing is lifted"),
        ):
            with self.assertRaisesRegex(BadInput, words):
                export_reveal(scene)
        large = with_size(
            self.scene().finish, pixels={"kind": "fixed", "width": 4000, "height": 4000}
        )
        with self.assertRaisesRegex(BadInput, "megapixels at most"):
            export_reveal(Scene.of(large, "main", sources_of(noise(SIDE, SIDE))))

    def test_it_can_be_called_off(self):
        def stop(share):
            if share > 0.2:
                raise Cancelled

        scene = self.scene(of_box(), of_box(tilt=9), of_box(size=2), max_kb=900)
        with self.assertRaises(Cancelled):
            export_reveal(scene, stop)

    def test_the_file_is_named_after_its_size(self):
        file = export_reveal(self.scene(seconds=0, format="gif"))
        self.assertEqual(file.file_name, f"test-{SIDE}x{SIDE}-reveal.gif")
        self.assertEqual((file.width, file.height), (SIDE, SIDE))
