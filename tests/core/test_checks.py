"""Checks: measured, with an action that mends what they found."""

import unittest

import numpy as np

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    Box,
    CurvePoint,
    Export,
    Fade,
    Focus,
    Point,
    Rectangle,
    SolidColour,
    Tone,
    Turn,
    Window,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene
from tests.support import finish_of, gradient, noise, scene_of, sources_of, with_size


class Checking(unittest.TestCase):
    sources = sources_of(noise(1000, 800))

    def found(self, finish, sources=None):
        sources = sources or self.sources
        return {c.key: c for c in check(scene_of(finish, sources))}

    def mended(self, finish, key, sources=None):
        sources = sources or self.sources
        action = self.found(finish, sources)[key].action
        return self.found(apply_edit(scene_of(finish, sources), action.edit).finish, sources)


class CheckTest(Checking):
    def test_enough_pixels_are_fine(self):
        found = self.found(finish_of(400, 400), sources_of(gradient(1000, 800)))
        self.assertEqual((found["sharpness"].severity, found["sharpness"].action), ("ok", None))
        self.assertIn("2.0 photo pixels", found["sharpness"].text)
        self.assertEqual(set(found), {"sharpness"})

    def test_exactly_one_to_one_is_still_sharp(self):
        self.assertEqual(self.found(finish_of(800, 800))["sharpness"].severity, "ok")
        self.assertEqual(self.found(finish_of())["sharpness"].severity, "ok")

    def test_soft_and_poor_are_told_apart(self):
        self.assertTrue(self.found(finish_of(900, 900))["sharpness"].text.startswith("Soft"))
        self.assertTrue(self.found(finish_of(1200, 1200))["sharpness"].text.startswith("Poor"))

    def test_fewer_pixels_mend_it(self):
        self.assertEqual(
            self.mended(finish_of(1300, 1200), "sharpness")["sharpness"].severity, "ok"
        )

    def test_showing_more_of_the_photo_mends_it_where_that_is_enough(self):
        own = {"window": Window(centre_x=100, centre_y=100, width=200, height=200)}
        finish = with_size(finish_of(600, 600), crop=own)
        self.assertEqual(self.found(finish)["sharpness"].action.label, "Show more of the photo")
        self.assertEqual(self.mended(finish, "sharpness")["sharpness"].severity, "ok")

    def test_a_window_of_another_ratio_is_said_and_fitted(self):
        own = {"window": Window(centre_x=250, centre_y=150, width=500, height=300)}
        finish = with_size(finish_of(200, 200), crop=own)
        self.assertIn("200 photo pixels", self.found(finish)["window"].text)
        self.assertNotIn("window", self.mended(finish, "window"))

    def test_transparency_lost_in_jpeg_is_measured(self):
        clear = noise(100, 100, 3)
        clear = np.dstack([clear, np.full((100, 100), 255, np.uint8)])
        clear[:, :25, 3] = 0
        sources = sources_of(clear)
        found = self.found(finish_of(), sources)
        self.assertIn(
            "25.0\N{NO-BREAK SPACE}% of this size is filled with white", found["transparency"].text
        )
        self.assertNotIn("transparency", self.mended(finish_of(), "transparency", sources))
        self.assertNotIn(
            "transparency", self.found(finish_of(export=Export(format="webp")), sources)
        )

    def test_a_colour_outside_the_shape_leaves_nothing_to_lose(self):
        finish = with_size(finish_of(200, 200), shape=Rectangle(radius=0.2))
        self.assertIn("transparency", self.found(finish))
        coloured = finish.model_copy(update={"outside": SolidColour(colour="#FFFFFF")})
        self.assertNotIn("transparency", self.found(coloured))


class FramingCheckTest(Checking):
    """Focus, corners and columns: each goes out when its action is taken."""

    box = Box(left=0.6, top=0.3, width=0.3, height=0.4)
    focus = Focus(point=Point(x=0.75, y=0.5), box=box)

    def test_a_cut_focus_box_is_measured_and_followed_again(self):
        own = {"window": Window(centre_x=400, centre_y=400, width=700, height=700)}
        finish = with_size(finish_of(300, 300, focus=self.focus), crop=own)
        # The box goes from 600 to 900, the window to 750.
        self.assertIn("50.0\N{NO-BREAK SPACE}%", self.found(finish)["focus"].text)
        self.assertEqual(self.mended(finish, "focus")["focus"].severity, "ok")

    def test_a_focus_box_on_the_edge_is_said(self):
        own = {"window": Window(centre_x=500, centre_y=400, width=800, height=800)}
        finish = with_size(finish_of(300, 300, focus=self.focus), crop=own)
        self.assertIn("touches the edge (right)", self.found(finish)["focus"].text)
        self.assertEqual(self.mended(finish, "focus")["focus"].severity, "ok")

    def test_a_box_too_wide_for_the_size_is_mended_by_showing_the_photo_whole(self):
        focus = Focus(point=Point(x=0.5, y=0.5), box=Box(left=0.1, top=0.1, width=0.8, height=0.8))
        finish = finish_of(200, 400, focus=focus)
        self.assertEqual(self.found(finish)["focus"].action.label, "Show the whole photo")
        self.assertEqual(self.mended(finish, "focus")["focus"].severity, "ok")

    def test_empty_corners_are_measured_until_something_shows_there(self):
        finish = finish_of(400, 400, turn=Turn(straighten=45, empty_corners=True))
        x, y = 500, 400
        finish = with_size(
            finish, crop={"window": Window(centre_x=x, centre_y=y, width=1200, height=1200)}
        )
        corners = self.found(finish)["corners"]
        picture = render(Scene(finish_of_png(finish), finish.sizes[0], self.sources))
        empty = 100 * (1 - picture[:, :, 3].mean() / 255)
        said = float(corners.text.split(": ")[1].split("\N{NO-BREAK SPACE}")[0])
        self.assertAlmostEqual(said, empty, delta=0.2)
        self.assertNotIn("corners", self.mended(finish, "corners"))
        filled = finish.model_copy(update={"backdrop": SolidColour(colour="#FFFFFF")})
        self.assertNotIn("corners", self.found(filled))

    def test_a_header_wider_than_its_column(self):
        finish = with_size(finish_of(900, 300), in_column=True, seen_width=600)
        found = self.found(finish)["column"]
        self.assertIn("900 px in 600", found.text)
        self.assertIn("67\N{NO-BREAK SPACE}%", found.text)
        self.assertEqual(self.mended(finish, "column")["column"].severity, "ok")


class ClippingCheckTest(Checking):
    photo = np.linspace(40, 230, 400).round().astype(np.uint8)
    sources = sources_of(np.broadcast_to(photo[None, :, None], (300, 400, 3)).copy())

    def test_what_the_tone_clips_is_measured_and_mended(self):
        for tone in (Tone(exposure=1.5), Tone(exposure=-3, black_point=-50), Tone(saturation=5)):
            finish = finish_of(200, 150, tone=tone)
            found = self.found(finish)
            with self.subTest(tone=tone):
                if tone.saturation:
                    self.assertEqual(found["clipping"].severity, "ok")
                    self.assertEqual(found["clipping"].text, "The tone clips nothing.")
                else:
                    self.assertRegex(
                        found["clipping"].text, r"\d\.\d.% to white and \d+\.\d.% to black"
                    )
                    self.assertEqual(found["clipping"].severity, "warning")
                    self.assertEqual(self.mended(finish, "clipping")["clipping"].severity, "ok")
        self.assertNotIn("clipping", self.found(finish_of(200, 150)))

    def test_the_figure_is_the_share_of_pixels(self):
        # Over 2 EV less than white: encoded 137 of 255 is 0.25 in linear light.
        share = 100 * (self.photo >= 137).mean()
        text = self.found(finish_of(tone=Tone(exposure=2)))["clipping"].text
        said = float(text.split(": ")[1].split("\N{NO-BREAK SPACE}")[0])
        self.assertAlmostEqual(said, share, delta=1)

    def test_where_weaker_settings_do_not_help_the_tone_is_reset(self):
        curve = (CurvePoint(x=0, y=0), CurvePoint(x=0.4, y=1), CurvePoint(x=1, y=1))
        finish = finish_of(200, 150, tone=Tone(curve=curve))
        self.assertEqual(self.found(finish)["clipping"].action.label, "Reset Tone")
        self.assertNotIn("clipping", self.mended(finish, "clipping"))

    def test_fading_to_transparent_is_lost_in_jpeg(self):
        finish = finish_of(200, 150, tone=Tone(fade=Fade(amount=75, colour=None)))
        self.assertIn("75.0\N{NO-BREAK SPACE}%", self.found(finish)["transparency"].text)


def finish_of_png(finish):
    return finish.model_copy(update={"export": Export(format="png")})
