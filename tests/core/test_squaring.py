"""Squaring up: flat things are seen straight on, to a fraction of a pixel, in their own ratio."""

import unittest

import cv2
import numpy as np

from lucky_margin.core.document import (
    Area,
    BandMask,
    Box,
    CutOut,
    Export,
    Focus,
    Overrides,
    PhotoPoint,
    Point,
    Ratio,
    Spot,
    Spots,
    Stroke,
    Tone,
    Turn,
    TurnChanges,
    Window,
)
from lucky_margin.core.document.docket import docket_of
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.resetting import ResetStep
from lucky_margin.core.edits.squaring import SquareUp
from lucky_margin.core.errors import BadInput
from lucky_margin.core.render import render
from lucky_margin.core.squaring import is_convex, mapped, onto_corners, squared, true_ratio
from tests.support import finish_of, gradient, noise, scene_of, sources_of, with_size

CARD = Ratio(width=240, height=150)
CORNERS = np.array([(60.0, 40.0), (330.0, 75.0), (300.0, 260.0), (45.0, 230.0)])


def seen_at_an_angle(card, corners, columns, rows):
    """A photo of a card whose corners lie at these places; four samples a pixel each way."""
    more = 4
    matrix = onto_corners(corners * more, card.shape[1], card.shape[0])
    shift = np.array([[1, 0, 0.5], [0, 1, 0.5], [0, 0, 1]])
    large = cv2.warpPerspective(
        card,
        np.linalg.inv(shift) @ matrix @ shift,
        (columns * more, rows * more),
        flags=cv2.INTER_CUBIC,
        borderMode=cv2.BORDER_CONSTANT,
        borderValue=(90, 90, 90),
    )
    return cv2.resize(large, (columns, rows), interpolation=cv2.INTER_AREA)


def looked_at(ratio, turn, lean, focal=1.2):
    """Corners (photo pixels) of a rectangle in space, and the photo's sides: a camera without
    distortion looks at its middle."""
    square = np.array([(-ratio, -1, 0), (ratio, -1, 0), (ratio, 1, 0), (-ratio, 1, 0)]) / 2
    across = cv2.Rodrigues(np.array([0.0, turn, 0.0]))[0]
    down = cv2.Rodrigues(np.array([lean, 0.0, 0.0]))[0]
    places = square @ (down @ across).T + (0.1, -0.05, 3.0)
    width, height = 4000, 3000
    return focal * width * places[:, :2] / places[:, 2:] + (width / 2, height / 2), width, height


class HomographyTest(unittest.TestCase):
    def test_corners_lead_to_corners(self):
        matrix = onto_corners(CORNERS, 200, 100)
        ideal = np.array([(0, 0), (200, 0), (200, 100), (0, 100)], float)
        np.testing.assert_allclose(mapped(ideal, matrix), CORNERS, atol=1e-9)

    def test_the_true_ratio_is_measured_from_any_side(self):
        for ratio in (0.5, 1.0, 1.586, 3.0):
            for turn, lean in ((0.5, 0.3), (-0.7, 0.2), (0.2, -0.6), (0.4, 0.4)):
                with self.subTest(ratio=ratio, turn=turn, lean=lean):
                    measured = true_ratio(*looked_at(ratio, turn, lean))
                    self.assertAlmostEqual(measured / ratio, 1, delta=0.001)

    def test_straight_on_the_sides_tell_the_ratio(self):
        corners = np.array([(10, 10), (410, 10), (410, 210), (10, 210)], float)
        self.assertAlmostEqual(true_ratio(corners, 1000, 800), 2)

    def test_a_little_askew_the_ratio_hardly_changes(self):
        for turn, lean in ((0.02, 0.0), (0.0, 0.03), (0.01, 0.01)):
            measured = true_ratio(*looked_at(1.5, turn, lean))
            self.assertAlmostEqual(measured / 1.5, 1, delta=0.02)

    def test_crossed_corners_and_lines_are_told(self):
        self.assertTrue(is_convex(CORNERS))
        self.assertFalse(is_convex(CORNERS[[0, 2, 1, 3]]))
        self.assertFalse(is_convex(CORNERS[::-1]))
        self.assertFalse(is_convex(np.array([(0, 0), (1, 1), (2, 2), (0, 5)], float)))


class PictureTest(unittest.TestCase):
    def test_a_card_comes_back_as_it_is(self):
        card = gradient(240, 150)
        photo = seen_at_an_angle(card, CORNERS, 400, 300)
        back = squared(photo, CORNERS, 240, 150)
        off = np.abs(back.astype(int) - card)[3:-3, 3:-3]
        self.assertLess(off.mean(), 1)
        self.assertLess(off.max(), 8)

    def test_lines_on_it_lie_within_a_fifth_of_a_pixel(self):
        """Bars whose edges are measured at half height, all over the card."""
        card = np.full((150, 240, 3), 255, np.uint8)
        card[:, 60:120] = card[:, 180:230] = 0
        photo = seen_at_an_angle(card, CORNERS, 400, 300)
        back = squared(photo, CORNERS, 240, 150)[:, :, 0].astype(float) / 255
        for row in range(10, 140, 13):
            for edge, falls in ((60, True), (120, False), (180, True), (230, False)):
                part = back[row, edge - 4 : edge + 4]
                dark = (1 - part).sum() if falls else part.sum()
                # Half of eight pixels lie on the far side of an edge that is where it should be.
                self.assertAlmostEqual(dark, 4, delta=0.2)

    def test_corners_of_the_photo_itself_change_nothing(self):
        photo = noise(90, 60)
        corners = np.array([(0, 0), (90, 0), (90, 60), (0, 60)], float)
        np.testing.assert_allclose(squared(photo, corners, 90, 60).astype(int), photo, atol=1)

    def test_transparency_and_16_bits_stay(self):
        photo = noise(60, 50, 4, np.uint16)
        corners = np.array([(5, 5), (50, 8), (48, 44), (6, 40)], float)
        back = squared(photo, corners, 40, 30)
        self.assertEqual((back.shape, back.dtype), ((30, 40, 4), np.uint16))


class EditTest(unittest.TestCase):
    def setUp(self):
        self.card = gradient(240, 150)
        self.sources = sources_of(seen_at_an_angle(self.card, CORNERS, 400, 300))

    def squared(self, finish=None, corners=CORNERS, ratio=CARD):
        scene = scene_of(finish or finish_of(export=Export(format="png")), self.sources)
        edit = SquareUp(corners=tuple(map(tuple, corners.tolist())), ratio=ratio)
        return apply_edit(scene, edit).finish

    def card_of(self, finish):
        picture = render(scene_of(finish, self.sources))
        rows, columns = self.card.shape[:2]
        return cv2.resize(picture, (columns, rows), interpolation=cv2.INTER_AREA).astype(int)

    def test_the_finish_shows_the_card_alone(self):
        finish = self.squared()
        off = np.abs(self.card_of(finish) - self.card)[4:-4, 4:-4]
        self.assertLess(off.mean(), 1.5)

    def test_turned_and_mirrored_the_corners_are_those_that_are_seen(self):
        for turn in (
            Turn(quarters=1),
            Turn(quarters=2),
            Turn(mirrored=True),
            Turn(quarters=3, mirrored=True),
        ):
            with self.subTest(turn=turn):
                fresh = finish_of(export=Export(format="png"), turn=turn)
                scene = scene_of(fresh, self.sources)
                seen = np.array([scene.photo.to_turned(x, y) for x, y in CORNERS])
                # Clockwise from the top left, as somebody would put them.
                order = np.argsort(np.arctan2(*(seen - seen.mean(axis=0)).T[::-1]))
                seen = seen[order]
                finish = self.squared(fresh, seen, None)
                shown = render(scene_of(finish, self.sources))
                plain = render(scene_of(fresh, self.sources))
                middle = tuple(np.array(shown.shape[:2]) // 2)
                x, y = seen.mean(axis=0).astype(int)
                np.testing.assert_allclose(
                    shown[middle].astype(int), plain[y, x].astype(int), atol=14
                )
                tall = turn.quarters % 2 == 1
                self.assertEqual(shown.shape[0] > shown.shape[1], tall)

    def test_squared_again_it_is_squared_from_the_photo(self):
        first = self.squared()
        scene = scene_of(first, self.sources)
        width, height = scene.facts.width, scene.facts.height
        whole = np.array([(0, 0), (width, 0), (width, height), (0, height)], float)
        again = self.squared(first, whole)
        np.testing.assert_allclose(
            again.photo.square.corners, first.photo.square.corners, atol=1e-6
        )
        inner = whole * 0.5 + (width / 4, height / 4)
        part = self.squared(first, inner)
        shown = render(scene_of(part, self.sources))
        middle = self.card[37:-37, 60:-60]
        small = cv2.resize(shown, middle.shape[1::-1], interpolation=cv2.INTER_AREA)
        self.assertLess(np.abs(small.astype(int) - middle).mean(), 2)
        undone = apply_edit(scene, SquareUp(corners=None)).finish
        self.assertIsNone(undone.photo.square)

    def test_what_was_drawn_on_the_photo_stays_where_it_was(self):
        middle = CORNERS.mean(axis=0) / (400, 300)
        x, y = middle.tolist()
        around = Box(left=x - 0.1, top=y - 0.1, width=0.2, height=0.2)
        before = finish_of(
            focus=Focus(
                point=Point(x=x, y=y), box=Box(left=x - 0.1, top=y - 0.1, width=0.2, height=0.2)
            ),
            spots=Spots(filled=(Spot(radius=0.01, points=((x, y),)),)),
            cut_out=CutOut(
                boxes=(around,),
                strokes=(Stroke(brush="keep", radius=0.01, points=((x, y),)),),
            ),
            tone=Tone(areas=(Area(masks=(BandMask(start=PhotoPoint(x=x, y=y)),)),)),
        )
        before = with_size(
            before, crop={"window": Window(centre_x=9, centre_y=9, width=9, height=9).model_dump()}
        )
        after = self.squared(before)
        matrix = np.linalg.inv(onto_corners(CORNERS / (400, 300), 1, 1))
        expected = mapped(middle[None], matrix)[0]
        for place in (
            (after.focus.point.x, after.focus.point.y),
            after.spots.filled[0].points[0],
            after.cut_out.strokes[0].points[0],
            (after.tone.areas[0].masks[0].start.x, after.tone.areas[0].masks[0].start.y),
        ):
            np.testing.assert_allclose(place, expected, atol=1e-5)
        box = after.cut_out.boxes[0]
        self.assertTrue(box.left < expected[0] < box.right and box.top < expected[1] < box.bottom)
        self.assertIsNone(after.sizes[0].crop.window)

    def test_no_size_is_straightened_any_more(self):
        own = Overrides(turn=TurnChanges(straighten=5, mirrored=False))
        fresh = with_size(finish_of(turn=Turn(straighten=2)), overrides=own)
        finish = self.squared(fresh)
        self.assertEqual(finish.turn_of(finish.sizes[0]), Turn())
        self.assertEqual(finish.sizes[0].overrides.turn.given, {"mirrored"})

    def test_it_is_told_in_words_and_reset_with_the_crop(self):
        fresh = finish_of(export=Export(format="png"))
        finish = self.squared()
        self.assertEqual(describe_change(fresh, finish), "Squared up")
        self.assertEqual(describe_change(finish, fresh), "The photo as it was taken")
        line = docket_of(finish, finish.sizes[0])[0]
        self.assertTrue(line.is_set)
        self.assertIn("squared up", line.summary)
        reset = apply_edit(scene_of(finish, self.sources), ResetStep(step="crop")).finish
        self.assertEqual(reset, fresh)

    def test_corners_that_make_no_sense_are_said(self):
        for corners in (CORNERS[[0, 2, 1, 3]], CORNERS[::-1], np.tile(CORNERS[:1], (4, 1))):
            with self.assertRaisesRegex(BadInput, "cross or lie in a line"):
                self.squared(corners=corners)


if __name__ == "__main__":
    unittest.main()
