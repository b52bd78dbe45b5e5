"""Washes: each blend mode against skia's, colours, reach and place."""

import unittest
from typing import get_args

import numpy as np
import skia

from lucky_margin.core.document import (
    BlendMode,
    Export,
    PhotoPoint,
    Stop,
    Tone,
    Turn,
    Wash,
    Window,
    read_finish,
    rgb_of,
)
from lucky_margin.core.errors import BadDocument
from lucky_margin.core.oklab import from_light, into_gamut, to_light
from lucky_margin.core.render import render
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.tone import toned
from lucky_margin.core.tone.washes import stop_colour, wash_colours
from tests.support import finish_of, noise, scene_of, sources_of, with_size

PNG = Export(format="png")
SKIA = {
    "normal": "kSrcOver",
    "color-burn": "kColorBurn",
    "color-dodge": "kColorDodge",
    "soft-light": "kSoftLight",
    "hard-light": "kHardLight",
}


def plain(colour, **fields):
    """A wash of one colour everywhere."""
    stops = (Stop(at=0, colour=colour), Stop(at=1, colour=colour))
    return Wash(**({"stops": stops, "opacity": 100, "blend": "normal"} | fields))


def fine(picture):
    return picture.astype(np.uint16) * np.uint16(257)


def by_skia(picture, colour, mode, opacity):
    """``picture`` under a plain colour as skia blends it in floats, in 8-bit steps."""
    height, width = picture.shape[:2]
    pixels = np.dstack([picture / 255, np.ones((height, width))]).astype(np.float32)
    info = skia.ImageInfo.Make(width, height, skia.kRGBA_F32_ColorType, skia.kPremul_AlphaType)
    canvas = skia.Surface.MakeRasterDirect(info, pixels).getCanvas()
    name = SKIA.get(mode, f"k{mode.capitalize()}")
    red, green, blue = (code / 255 for code in rgb_of(colour))
    paint = skia.Paint(skia.Color4f(red, green, blue, opacity))
    paint.setBlendMode(getattr(skia.BlendMode, name))
    canvas.drawRect(skia.Rect.MakeWH(width, height), paint)
    return 255 * pixels[:, :, :3]


class BlendingTest(unittest.TestCase):
    def test_every_mode_is_that_of_the_standard(self):
        picture = noise(64, 48)
        for mode in get_args(BlendMode):
            for colour, opacity in (("#C8542E", 1.0), ("#2E5AC8", 0.4), ("#808080", 0.7)):
                with self.subTest(mode=mode, colour=colour):
                    wash = plain(colour, blend=mode, opacity=100 * opacity)
                    found = toned(fine(picture), Tone(washes=(wash,))).astype(int)
                    expected = by_skia(picture, colour, mode, opacity)
                    self.assertLessEqual(np.abs(found - expected).max(), 1.01)

    def test_white_and_black_at_the_ends_of_burn_and_dodge(self):
        ends = np.array([[[0, 0, 0], [255, 255, 255]]], np.uint8)
        for mode in ("color-burn", "color-dodge"):
            for colour in ("#000000", "#FFFFFF"):
                wash = plain(colour, blend=mode)
                found = toned(fine(ends), Tone(washes=(wash,)))
                np.testing.assert_allclose(found, by_skia(ends, colour, mode, 1), atol=0.01)


class ColoursTest(unittest.TestCase):
    def test_stops_lie_where_they_were_put_and_mix_in_encoded_srgb(self):
        stops = (
            Stop(at=0, colour="#FF0000"),
            Stop(at=0.25, colour="#00FF00"),
            Stop(at=1, colour="#0000FF"),
        )
        colours = wash_colours(stops)
        np.testing.assert_allclose(colours[0], (1, 0, 0))
        np.testing.assert_allclose(colours[64], (0, 1, 0))
        np.testing.assert_allclose(colours[160], (0, 0.5, 0.5))
        np.testing.assert_allclose(colours[-1], (0, 0, 1))

    def test_richer_deepens_and_saturates_and_keeps_the_hue(self):
        for colour in ("#B98A6A", "#6A8AB9", "#8FB27A"):
            before = from_light(decode(np.array(rgb_of(colour)) / 255))
            after = from_light(decode(stop_colour(Stop(at=0, colour=colour, richer=60))))
            with self.subTest(colour=colour):
                self.assertLess(after[0], before[0])
                self.assertGreater(np.hypot(*after[1:]), 1.3 * np.hypot(*before[1:]))
                turn = np.arctan2(after[2], after[1]) - np.arctan2(before[2], before[1])
                self.assertLess(abs(np.degrees(turn)), 0.5)

    def test_oklab_goes_there_and_back_and_into_the_gamut(self):
        light = np.random.default_rng(3).random((50, 3))
        np.testing.assert_allclose(to_light(from_light(light)), light, atol=1e-6)
        wild = np.array([0.6, 0.4, 0.1])
        kept = from_light(into_gamut(wild))
        self.assertAlmostEqual(kept[0], 0.6, places=4)
        self.assertAlmostEqual(kept[2] / kept[1], 0.25, places=3)


class PlaceTest(unittest.TestCase):
    def drawn(self, wash, **fields):
        """A mid-grey photo of 200 x 100 under a wash."""
        grey = np.full((100, 200, 3), 128, np.uint8)
        finish = finish_of(tone=Tone(washes=(wash,)), export=PNG, **fields)
        return finish, sources_of(grey)

    def test_the_reach_leaves_the_middle_clean(self):
        wash = plain("#FF0000", start=PhotoPoint(x=0, y=0), end=PhotoPoint(x=1, y=0), reach=40)
        finish, sources = self.drawn(wash)
        row = render(scene_of(finish, sources))[50, :, 0].astype(int)
        self.assertEqual(row[100], 128)
        self.assertGreater(row[0], 250)
        self.assertGreater(row[-1], 250)
        self.assertLessEqual(np.diff(row[:100]).max(), 1)  # never more towards the middle
        finish, sources = self.drawn(wash.model_copy(update={"reach": 100}))
        self.assertTrue((render(scene_of(finish, sources))[:, :, 0] == 255).all())

    def test_a_radial_wash_is_round_in_photo_pixels_and_its_reach_cleans_its_centre(self):
        wash = plain(
            "#FF0000",
            form="radial",
            start=PhotoPoint(x=0.5, y=0.5),
            end=PhotoPoint(x=0.7, y=0.5),
            reach=30,
        )
        finish, sources = self.drawn(wash)
        out = render(scene_of(finish, sources))[:, :, 0].astype(int)
        self.assertEqual(out[50, 100], 128)
        for x, y in ((139, 50), (100, 89), (71, 21)):
            self.assertGreater(out[y, x], 240)
        self.assertAlmostEqual(out[50, 128], out[78, 100], delta=3)

    def test_it_stays_on_the_photo_under_another_crop_turn_and_size(self):
        stops = (Stop(at=0, colour="#000000"), Stop(at=1, colour="#FFFFFF"))
        wash = plain("#000000", stops=stops, start=PhotoPoint(x=0, y=0), end=PhotoPoint(x=1, y=0))
        finish, sources = self.drawn(wash)
        row = render(scene_of(finish, sources))[50, :, 0].astype(int)
        window = Window(centre_x=130, centre_y=50, width=60, height=60)
        cut = with_size(finish, crop={"window": window.model_dump()})
        part = render(scene_of(cut, sources))[30, :, 0].astype(int)
        self.assertLessEqual(np.abs(part - row[100:160]).max(), 1)
        turned = finish.model_copy(update={"turn": Turn(quarters=1)})
        column = render(scene_of(turned, sources))[:, 50, 0].astype(int)
        self.assertLessEqual(np.abs(column - row).max(), 1)
        mirrored = finish.model_copy(update={"turn": Turn(mirrored=True)})
        other = render(scene_of(mirrored, sources))[50, ::-1, 0].astype(int)
        self.assertLessEqual(np.abs(other - row).max(), 1)

    def test_a_smooth_wash_does_not_band(self):
        stops = (Stop(at=0, colour="#405060"), Stop(at=1, colour="#506070"))
        wash = plain("#000000", stops=stops, start=PhotoPoint(x=0, y=0), end=PhotoPoint(x=1, y=0))
        grey = np.full((40, 1600, 3), 128, np.uint8)
        finish = finish_of(tone=Tone(washes=(wash,)), export=PNG)
        row = render(scene_of(finish, sources_of(grey)))[20, :, 0].astype(int)
        runs = np.diff(np.flatnonzero(np.append(True, np.append(np.diff(row) != 0, True))))
        self.assertLess(runs.max(), 1.5 * 1600 / 16)

    def test_transparency_stays_and_a_line_of_no_length_is_sensible(self):
        photo = noise(40, 30, channels=4)
        middle = PhotoPoint(x=0.5, y=0.5)
        for form in ("linear", "radial"):
            wash = Wash(form=form, start=middle, end=middle, opacity=80)
            finish = finish_of(tone=Tone(washes=(wash,)), export=PNG)
            out = render(scene_of(finish, sources_of(photo)))
            np.testing.assert_array_equal(out[:, :, 3], photo[:, :, 3])


class RefusalTest(unittest.TestCase):
    def test_one_sentence_for_a_wash_of_one_colour_or_in_disorder(self):
        one = {"stops": [{"at": 0, "colour": "#FFFFFF"}]}
        back = {"stops": [{"at": 1, "colour": "#FFFFFF"}, {"at": 0, "colour": "#000000"}]}
        document = finish_of().model_dump(mode="json")
        for wash, said in ((one, "two to five colours, not 1"), (back, "from its start")):
            document["tone"]["washes"] = [wash]
            with self.subTest(said=said), self.assertRaisesRegex(BadDocument, said):
                read_finish(document)
