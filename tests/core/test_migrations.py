"""Documents of earlier versions mean today what they meant."""

import json
import unittest
from copy import deepcopy

import numpy as np

from lucky_margin.core.document import (
    Border,
    FixedPixels,
    HueShift,
    LineBand,
    Sides,
    SizePlan,
    Tone,
    read_finish,
    upgraded_look,
    upgraded_size_plan,
)
from lucky_margin.core.errors import BadDocument
from lucky_margin.core.sampling.srgb import encode
from lucky_margin.core.tone.curves import STEPS, end_places, luminance_curve
from lucky_margin.core.tone.hues import HUE_STEPS, by_hue
from lucky_margin.core.tone.looks import look_of
from tests.support import finish_of

OLD_CENTRES = np.array([29.0, 60.0, 105.0, 142.0, 195.0, 260.0, 305.0, 345.0])
OLD_NAMES = ("red", "orange", "yellow", "green", "aqua", "blue", "purple", "magenta")


def version_3(**fields):
    """What a document of version 3 is today; its size has these fields of its own, too."""
    plain = json.loads(finish_of(400, 500).model_dump_json()) | {"version": 3}
    size = plain["sizes"][0] | {"own": {"tone": fields.get("tone", {})}}
    del size["overrides"]
    return read_finish(plain | {"sizes": [size]} | fields)


def old_hue(bands, part, degrees):
    """Version 3's amount at a hue: from band to band along a smooth step."""
    around = np.mod(degrees - OLD_CENTRES[0], 360) + OLD_CENTRES[0]
    ends = np.append(OLD_CENTRES, OLD_CENTRES[0] + 360)
    values = np.array([bands.get(name, {}).get(part, 0) for name in OLD_NAMES], float)
    first = np.clip(np.searchsorted(ends, around, side="right") - 1, 0, 7)
    t = (around - ends[first]) / (ends[first + 1] - ends[first])
    share = t * t * (3 - 2 * t)
    return values[first] * (1 - share) + values[(first + 1) % 8] * share


def old_ends(e, whites, blacks, black=0.0, white=1.0):
    """Version 3's levels, whites and blacks of encoded brightness."""
    bent = np.clip((e - black) / (white - black), 0, 1)
    bent = bent + 0.2 * (whites / 100 * bent**3 + blacks / 100 * (1 - bent) ** 3)
    return np.clip(bent, 0, 1)


class ToneOfVersion3Test(unittest.TestCase):
    def test_settings_have_other_names_in_the_finish_and_in_its_sizes(self):
        old = {
            "vibrance": 20, "clarity": 15, "texture": -10, "smooth_light": 30, "smooth_colour": 40,
            "sharpen": 25, "grey": 60, "recolour": {"strength": 50}, "temperature": 40,
            "areas": [{"masks": [{"kind": "light"}], "temperature": -30, "vibrance": 10}],
        }  # fmt: skip
        finish = version_3(tone=old)
        for tone in (finish.tone, finish.tone_of(finish.sizes[0])):
            found = (
                *(tone.muted_colours, tone.local_contrast, tone.fine_detail),
                *(tone.noise_reduction, tone.colour_noise_reduction, tone.sharpening),
                *(tone.black_and_white, tone.duotone.strength, tone.areas[0].muted_colours),
            )
            self.assertEqual(found, (20, 15, -10, 30, 40, 25, 60, 50, 10))
            self.assertAlmostEqual(1e6 / tone.warmth, 1e6 / 6500 - 28, places=1)
            self.assertAlmostEqual(1e6 / tone.areas[0].warmth, 1e6 / 6500 + 21, places=1)
        self.assertEqual(version_3(tone={}).tone, Tone())

    def test_the_ends_end_where_they_did(self):
        e = np.linspace(0, 1, STEPS + 1)
        cases = (
            {"whites": 70}, {"whites": 12, "blacks": -22}, {"blacks": 45}, {"whites": -30},
            {"black_point": 0.1, "white_point": 0.9}, {"black_point": 0.08, "blacks": -40},
        )  # fmt: skip
        for old in cases:
            tone = version_3(tone=old).tone
            levels = (old.get("black_point", 0), old.get("white_point", 1))
            was = old_ends(e, old.get("whites", 0), old.get("blacks", 0), *levels)
            now = encode(luminance_curve(tone))
            with self.subTest(old, now=(tone.black_point, tone.white_point)):
                black, white = end_places(tone)
                self.assertAlmostEqual(black, e[was <= 0].max(initial=0), delta=0.002)
                self.assertAlmostEqual(white, e[was >= 1].min(initial=1), delta=0.002)
                # Levels were straight between the ends, which the pair is not.
                self.assertLess(np.abs(now - was).mean(), 0.03 if "black_point" in old else 2 / 255)

    def test_what_could_not_be_as_strong_is_as_strong_as_it_can_be(self):
        tone = version_3(tone={"black_point": 0.6, "white_point": 0.7}).tone
        self.assertEqual((tone.black_point, tone.white_point), (-100, 100))

    def test_eight_hues_become_nine(self):
        bands = {
            "green": {"hue": 15, "saturation": -10, "lightness": -25},
            "yellow": {"hue": 20, "saturation": -20},
            "magenta": {"saturation": 40},
        }
        hues = version_3(tone={"bands": bands}).tone.hues
        degrees = np.linspace(-180, 180, HUE_STEPS + 1)
        turn, strength, _, _ = by_hue(hues)
        self.assertLess(np.abs(np.degrees(turn) - 0.3 * old_hue(bands, "hue", degrees)).mean(), 0.6)
        self.assertLess(np.abs(100 * strength - old_hue(bands, "saturation", degrees)).mean(), 4)
        self.assertEqual(version_3(tone={"bands": {}}).tone.hues.red, HueShift())

    def test_british_spelling_and_overrides(self):
        pieces = [{"kind": "text", "id": "text-1", "text": "Pots", "align": "center"}]
        mask = {"kind": "ellipse", "center": {"x": 0.2, "y": 0.3}, "radius_x": 0.1, "radius_y": 0.1}
        size = {
            "id": "main",
            "name": "Post",
            "pixels": {"kind": "fixed", "width": 10, "height": 10},
            "crop": {"window": {"center_x": 7, "center_y": 5, "width": 8, "height": 8}},
            "came_as": {"kind": "heart"},
            "own": {"pieces": {"text-1": {"align": "center"}}, "turn": {"quarters": 1}},
        }
        tone = {"areas": [{"masks": [mask]}]}
        finish = version_3(pieces=pieces, tone=tone, sizes=[size])
        today = finish.sizes[0]
        self.assertEqual((today.crop.window.centre_x, today.crop.window.centre_y), (7, 5))
        self.assertEqual(today.default_shape.kind, "heart")
        self.assertEqual(today.overrides.turn.quarters, 1)
        self.assertEqual(today.overrides.pieces["text-1"].align, "centre")
        self.assertEqual(finish.pieces[0].align, "centre")
        self.assertEqual(finish.tone.areas[0].masks[0].centre.x, 0.2)

    def test_a_saved_size_of_one_s_own_is_read_too(self):
        plan = SizePlan(name="Card", pixels=FixedPixels(width=30, height=20))
        today = plan.model_dump(mode="json")
        self.assertEqual(upgraded_size_plan(dict(today)), today)
        older = {key: value for key, value in today.items() if key != "overrides"}
        older["own"] = today["overrides"]
        self.assertEqual(SizePlan.model_validate(upgraded_size_plan(older)), plan)

    def test_a_saved_look_of_one_s_own_is_read_too(self):
        look = {"kind": "own", "name": "Mine", "settings": {"clarity": 10, "bands": {}}}
        self.assertEqual(upgraded_look(look)["settings"], {"local_contrast": 10, "hues": {}})
        table = {"kind": "table", "name": "Mine", "table": "0" * 64}
        self.assertEqual(upgraded_look(dict(table)), table)

    def test_a_look_saved_in_today_s_words_stays_as_it_is(self):
        for tone in (Tone(), Tone(exposure=-0.8, white_point=30, black_point=1)):
            look = look_of(tone, "Mine").model_dump(mode="json")
            self.assertEqual(upgraded_look(deepcopy(look)), look)


UNEVEN = {"top": 0.1, "right": 0.02, "bottom": 0.1, "left": 0.0}


class BorderOfVersion5Test(unittest.TestCase):
    """A border was one line; a size overrode it field by field."""

    def read(self, border, *overrides):
        plain = json.loads(finish_of(400, 500).model_dump_json()) | {"version": 5}
        (size,) = plain["sizes"]
        plain["border"] = border
        plain["sizes"] = [
            size | {"id": f"size-{number}", "overrides": {"border": changes}}
            for number, changes in enumerate(overrides or ({},))
        ]
        return read_finish(plain)

    def test_it_is_a_list_of_one_line(self):
        old = {"on": True, "thickness": UNEVEN, "colour": "#112233", "opacity": 0.5,
               "outside": True, "line": "dashed"}  # fmt: skip
        expected = LineBand(thickness=Sides(**UNEVEN), colour="#112233", opacity=0.5,
                            around=True, line="dashed")  # fmt: skip
        self.assertEqual(self.read(old).border, Border.of(expected))
        self.assertEqual(self.read({}).border, Border())
        switched_off = self.read({"on": False, "thickness": UNEVEN}).border
        self.assertEqual((switched_off.on, len(switched_off.bands)), (False, 1))
        # Without a thickness there was nothing to be seen, and there still is not.
        self.assertFalse(self.read({"colour": "#112233"}).border.is_set)

    def test_what_a_size_overrode_in_part_it_overrides_whole(self):
        finish = self.read(
            {"thickness": UNEVEN, "outside": True},
            {"colour": "#445566"},
            {"on": False},
            {"on": True, "thickness": dict.fromkeys(UNEVEN, 0.05), "colour": None},
            {},
        )
        shared = LineBand(thickness=Sides(**UNEVEN), around=True)
        red = shared.model_copy(update={"colour": "#445566"})
        thin = shared.model_copy(update={"thickness": Sides.all(0.05)})
        found = [finish.border_of(size) for size in finish.sizes]
        self.assertEqual([one.bands for one in found], [(red,), (), (thin,), (shared,)])
        own = [size.overrides.border.given for size in finish.sizes]
        self.assertEqual(own, [{"bands"}, {"on"}, {"on", "bands"}, set()])

    def test_nonsense_is_refused_and_a_saved_size_is_read(self):
        for border in ({"thickness": 3}, {"colour": "red"}, {"bands": [], "width": 1}):
            with self.subTest(border), self.assertRaises(BadDocument):
                self.read(border)
        saved = {"name": "Square", "pixels": {"kind": "fixed", "width": 9, "height": 9},
                 "overrides": {"border": {"on": True, "thickness": UNEVEN}}}  # fmt: skip
        plan = SizePlan.model_validate(upgraded_size_plan(saved))
        (band,) = plan.overrides.border.bands
        self.assertEqual(band, LineBand(thickness=Sides(**UNEVEN)))
        today = plan.model_dump(mode="json")
        self.assertEqual(upgraded_size_plan(deepcopy(today)), today)
