"""The cut-out: what is found, how strokes and the edge change it, and how it is shown."""

import hashlib
import re
import unittest
from unittest import mock

import cv2
import numpy as np

from lucky_margin.core.cut_out import (
    VERSION,
    after_stroke,
    box_of,
    coverage,
    disagreement,
    doubts_about,
    fringe_colours,
    matte_of,
    place_of,
    proposal,
    strands_at_edge,
    subject_picture,
    working_picture,
)
from lucky_margin.core.cut_out.deciding import decided, links_of
from lucky_margin.core.cut_out.distances import geodesic_distance
from lucky_margin.core.cut_out.doubts import MOST_DISAGREEMENT, MOST_STRANDS
from lucky_margin.core.cut_out.edges import finished
from lucky_margin.core.cut_out.network import (
    WEIGHTS,
    certainty,
    guessed,
    guessed_again,
    guessed_people,
    soft_edge_shares,
)
from lucky_margin.core.cut_out.soft_edges import in_hair, softened
from lucky_margin.core.document import (
    Box,
    CutOut,
    SolidColour,
    Stroke,
    SubjectEdge,
    read_finish,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import (
    DeleteStroke,
    DrawStroke,
    DrawSubject,
    SetSubject,
    SetSubjectEdge,
    SetSubjectMask,
)
from lucky_margin.core.edits.framing import TurnQuarter
from lucky_margin.core.edits.steps import SwitchStep
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.finding import subject_candidates
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts
from lucky_margin.core.render import render
from lucky_margin.core.render.shown import shown_photo
from lucky_margin.core.scene import MemorySources, Scene, TakenPhoto
from lucky_margin.core.scene.subjects import subject_digest
from tests.support import SHA, demo_sources, finish_of, noise, scene_of, sources_of
from tests.truth.figures import errors
from tests.truth.photos import TUNING, true_photo
from tests.truth.strokes import next_stroke

MASK = "cd" * 32
BRUSHES = {"keep": "keep", "leave out": "leave_out"}
WITH_BOX, AFTER_THREE = 0.019, 0.0133
"""Ceilings of the mean error over the photos that the finding was tuned on."""
HAIR_PLANE = 5
"""Of evidence: how much of what lies close by is covered in part. Older evidence ends before it."""
SOFT_BRUSHED, PHOTO_BRUSHED = 0.20, 0.048
"""Ceilings of the mean errors in hair and over its photo, once the soft brush has been along it."""


def disc_photo(side: int = 240, radius: float = 70) -> np.ndarray:
    """A red disc in the middle of a blue photo, both a little uneven."""
    y, x = np.mgrid[:side, :side]
    share = np.clip(radius + 0.5 - np.hypot(x + 0.5 - side / 2, y + 0.5 - side / 2), 0, 1)
    red, blue = np.array([190, 60, 50]), np.array([60, 90, 160])
    photo = share[..., None] * red + (1 - share[..., None]) * blue
    return np.clip(photo + 0.05 * noise(side, side) - 6, 0, 255).astype(np.uint8)


def disc(side: int = 240, radius: float = 70) -> np.ndarray:
    y, x = np.mgrid[:side, :side]
    return np.clip(radius + 0.5 - np.hypot(x + 0.5 - side / 2, y + 0.5 - side / 2), 0, 1)


def cut(photo: np.ndarray, *edits, **fields) -> Scene:
    """A scene of the photo after edits that cut something out."""
    sources = sources_of(photo)
    scene = scene_of(finish_of(**fields), sources)
    for edit in edits:
        scene = Scene(apply_edit(scene, edit).finish, scene.size, sources)
        scene = Scene.of(scene.finish, scene.size.id, sources)
    return scene


ROUND_DISC = SetSubject(boxes=(Box(left=0.15, top=0.15, width=0.7, height=0.7),))


def _shared(one: Box, other: Box) -> float:
    """The area two boxes share, of what both cover."""
    width = min(one.right, other.right) - max(one.left, other.left)
    height = min(one.bottom, other.bottom) - max(one.top, other.top)
    shared = max(0, width) * max(0, height)
    return shared / (one.width * one.height + other.width * other.height - shared)


def matte(scene: Scene) -> np.ndarray:
    return shown_photo(scene).matte() / 255


class TruthTest(unittest.TestCase):
    """Half of the photos with truth; the others are looked at once, by hand."""

    def test_errors_on_the_photos_it_was_tuned_on(self):
        found, mended = [], []
        for name in TUNING:
            truth = true_photo(name)
            working = working_picture(truth.photo)
            cut_out = CutOut(on=True, boxes=(truth.box(1),))
            place = place_of(working, cut_out)
            evidence = proposal(working, cut_out.boxes, place)

            def error_of(cut_out, evidence, place, working=working, truth=truth):
                alpha = coverage(working, evidence, cut_out, place)
                alpha = cv2.resize(alpha, truth.alpha.shape[::-1])
                return alpha, errors(alpha, truth, cut_out.boxes[0]).photo

            alpha, error = error_of(cut_out, evidence, place)
            found.append(error)
            for _ in range(3):
                laid = next_stroke(alpha, truth.alpha)
                if laid is None:
                    break
                stroke = Stroke(brush=BRUSHES[laid.kind], radius=laid.radius, points=laid.points)
                cut_out = cut_out.model_copy(update={"strokes": (*cut_out.strokes, stroke)})
                if place_of(working, cut_out) != place:
                    place = place_of(working, cut_out)
                    evidence = proposal(working, cut_out.boxes, place)
                    for earlier in cut_out.strokes[:-1]:
                        evidence = after_stroke(evidence, earlier, place)
                evidence = after_stroke(evidence, stroke, place)
                alpha, error = error_of(cut_out, evidence, place)
            mended.append(error)
        self.assertLess(np.mean(found), WITH_BOX, found)
        self.assertLess(np.mean(mended), AFTER_THREE, mended)

    def test_the_shaded_side_of_a_vase_stays_though_the_wall_has_its_colour(self):
        working = working_picture(demo_sources("vase-grasses.jpg").level(SHA, 0))
        rows, columns = working.shape[:2]
        for box in (
            Box(left=0.22, top=0.2, width=0.57, height=0.745),
            Box(left=0.223, top=0.113, width=0.534, height=0.887),
        ):
            cut_out = CutOut(on=True, boxes=(box,))
            place = place_of(working, cut_out)
            alpha = coverage(working, proposal(working, (box,), place), cut_out, place)
            for x, y in ((0.49, 0.63), (0.5, 0.66), (0.47, 0.72), (0.45, 0.8), (0.57, 0.8)):
                with self.subTest(box=box, x=x, y=y):
                    self.assertGreater(alpha[round(y * rows), round(x * columns)], 0.9)

    def test_hair_is_soft_without_a_stroke_and_a_sharp_thing_is_not(self):
        wrong, changed = {}, {}
        for name in ("hair-figure", "pale-jug", "leafy-plant"):
            truth = true_photo(name)
            working = working_picture(truth.photo)
            cut_out = CutOut(on=True, boxes=(truth.box(0),))
            place = place_of(working, cut_out)
            evidence = proposal(working, cut_out.boxes, place)
            sharp = cut_out.model_copy(update={"edge": SubjectEdge(soft_hair=False)})
            hard, soft, switched_off = (
                coverage(working, told, how, place)
                for told, how in (
                    (evidence[:, :, :HAIR_PLANE], cut_out),
                    (evidence, cut_out),
                    (evidence, sharp),
                )
            )
            np.testing.assert_array_equal(switched_off, hard)
            sides = truth.alpha.shape[::-1]
            wrong[name] = [
                errors(cv2.resize(alpha, sides), truth, cut_out.boxes[0]) for alpha in (hard, soft)
            ]
            changed[name] = (np.abs(soft - hard) > 0.1).mean()
        hard, soft = wrong["hair-figure"]
        self.assertLess(soft.soft, hard.soft - 0.02)
        self.assertLess(soft.photo, hard.photo - 0.001)
        self.assertLess(max(changed["pale-jug"], changed["leafy-plant"]), 0.001, changed)

    def test_a_stroke_says_what_is_no_hair(self):
        evidence = np.zeros((60, 60, HAIR_PLANE + 1), np.float32)
        evidence[:, :, HAIR_PLANE] = 1
        place = Box(left=0, top=0, width=1, height=1)
        keep = Stroke(brush="keep", radius=0.05, points=((0.5, 0.2), (0.5, 0.8)))
        left = after_stroke(evidence, keep, place)[:, :, HAIR_PLANE]
        np.testing.assert_array_equal(left[15:45, 28:32], 0)
        np.testing.assert_array_equal(left[:, 58:], 1)

    def test_a_soft_brush_along_hair_brings_its_strands(self):
        truth = true_photo("hair-figure")
        working = working_picture(truth.photo)
        plain = CutOut(on=True, boxes=(truth.box(0),))
        brushed = plain.model_copy(update={"strokes": (_along_hair(truth.alpha),)})
        place = place_of(working, plain)
        evidence = proposal(working, plain.boxes, place)
        cut, soft = (
            errors(
                cv2.resize(coverage(working, evidence, one, place), truth.alpha.shape[::-1]),
                truth,
                plain.boxes[0],
            )
            for one in (plain, brushed)
        )
        self.assertLess(soft.soft, min(SOFT_BRUSHED, cut.soft - 0.02))
        self.assertLess(soft.photo, PHOTO_BRUSHED)


def _along_hair(alpha: np.ndarray) -> Stroke:
    """One broad stroke along the upper outline of a subject."""
    side = max(alpha.shape)
    outline = (cv2.GaussianBlur(alpha, (0, 0), 0.01 * side) > 0.5).astype(np.uint8)
    contours, _ = cv2.findContours(outline, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
    points = max(contours, key=len)[:, 0]
    points = points[points[:, 1] < 0.55 * alpha.shape[0]]
    points = points[:: len(points) // 150] / alpha.shape[::-1]
    return Stroke(brush="soft_edge", radius=0.06, points=tuple(map(tuple, points.tolist())))


class HairTest(unittest.TestCase):
    """Hair that is soft without a brush."""

    def test_hair_grows_from_where_it_is_sure(self):
        partly = np.zeros((60, 60), np.float32)
        partly[10:20, 5:15] = 0.6  # surely hair
        partly[13:17, 15:40] = 0.4  # what is connected with it
        partly[40:50, 5:40] = 0.45  # a sharp edge of something else
        hair = in_hair(partly, 120, 120)
        self.assertEqual(hair.shape, (120, 120))
        np.testing.assert_array_equal(hair[24:36, 14:26], 1)
        self.assertGreater(hair[30, 40:76].min(), 0.9)
        self.assertEqual(hair[70:].max(), 0)

    def test_strands_are_told_from_what_lies_between_them(self):
        side, radius, reach = 320, 60, 130
        y, x = np.mgrid[0:side, 0:side].astype(np.float32) - side / 2
        far, turn = np.hypot(x, y), np.arctan2(y, x)
        across = np.abs((turn * 36 / (2 * np.pi) + 0.5) % 1 - 0.5) * 2 * np.pi * far / 36
        strands = np.clip(1.5 - across, 0, 1) * (far < reach)
        true = np.maximum(strands, far < radius).astype(np.float32)
        for colour, ground in (((40, 30, 25), (90, 130, 190)), ((225, 200, 150), (40, 70, 60))):
            photo = (true[..., None] * colour + (1 - true[..., None]) * np.array(ground)) / 255
            photo = photo + np.random.default_rng(1).normal(0, 0.01, photo.shape)
            where = ((far > radius - 8) & (far < reach + 6)).astype(np.float32)
            for found in (far < radius, far < (radius + reach) / 2):
                found = found.astype(np.float32)
                off = [
                    np.abs(alpha - true)[where > 0].mean()
                    for alpha in (found, softened(photo.astype(np.float32), found, where))
                ]
                with self.subTest(colour=colour):
                    self.assertLess(off[1], off[0] / 2)

    def test_softening_what_is_plainly_one_side_leaves_no_veil(self):
        side = 700
        y, x = np.mgrid[0:side, 0:side]
        disc = (np.hypot(x - 0.3 * side, y - side / 2) < 0.15 * side).astype(np.float32)
        photo = disc[..., None] * (40, 30, 25) + (1 - disc[..., None]) * np.array((90, 130, 190))
        photo = photo / 255 + np.random.default_rng(3).normal(0, 0.012, photo.shape)
        for middle in (0.3, 0.75):  # within the subject, and on the wall
            where = (np.hypot(x - middle * side, y - side / 2) < 0.08 * side).astype(np.float32)
            off = np.abs(softened(photo.astype(np.float32), disc, where) - disc)
            self.assertLess(off[where > 0].mean(), 0.01)

    def test_nothing_is_softened_where_nothing_is_hair(self):
        alpha = np.random.default_rng(2).random((40, 50)).astype(np.float32)
        photo = noise(50, 40)[..., :3].astype(np.float32) / 255
        np.testing.assert_array_equal(softened(photo, alpha, np.zeros_like(alpha)), alpha)
        where = np.zeros_like(alpha)
        where[10:20, 10:30] = 1
        np.testing.assert_array_equal(softened(photo, alpha, where)[20:], alpha[20:])


class NetworkTest(unittest.TestCase):
    """The networks: two say where the subject may be, one decides on soft edges."""

    def test_the_weights_are_those_of_the_card(self):
        card = (WEIGHTS / "README.md").read_text("utf-8")
        for name in ("subject.onnx", "soft_edges.onnx", "people.tflite"):
            part = card.split(f"# {name}\n")[1]
            told = re.search(r"SHA-256 \| `([0-9a-f]{64})`", part)
            self.assertEqual(told[1], hashlib.sha256((WEIGHTS / name).read_bytes()).hexdigest())

    def test_what_holds_in_a_soft_edge_adds_up_to_one(self):
        for rows, columns in ((1, 1), (7, 13), (64, 50)):
            seen = np.random.default_rng(rows).random((rows, columns, 14)).astype(np.float32)
            shares = soft_edge_shares(seen)
            self.assertEqual(shares.shape, (5, rows, columns))
            np.testing.assert_allclose(shares.sum(axis=0), 1, atol=1e-5)

    def test_things_are_not_taken_for_people(self):
        for name in ("pale-jug", "leafy-plant"):
            certain, _ = certainty(guessed_people(working_picture(true_photo(name).photo)))
            self.assertLess(certain, 0.01, name)

    def test_a_figure_is_taken_for_one(self):
        truth = true_photo("hair-figure")
        working = working_picture(truth.photo)
        alpha = cv2.resize(truth.alpha, working.shape[1::-1], interpolation=cv2.INTER_AREA)
        self.assertGreater(certainty(guessed_people(working))[0], 0.8 * alpha.mean())
        found = subject_candidates(TakenPhoto(SHA, sources_of(truth.photo)))
        self.assertGreater(_shared(found[0], truth.box(1)), 0.85)

    def test_a_stroke_changes_the_guess_where_it_is_drawn(self):
        working = working_picture(disc_photo())
        within = np.zeros((240, 240), np.bool_)
        within[36:204, 36:204] = True
        nothing, stroke = np.zeros_like(within), np.zeros_like(within)
        stroke[100:108, 90:150] = True
        found = guessed(working, within)[0] > 0.5
        before = guessed_again(working, within, nothing, nothing, found)
        after = guessed_again(working, within, nothing, stroke, found)
        self.assertLess(after[stroke].mean(), before[stroke].mean() - 0.3)


class FindingTest(unittest.TestCase):
    def test_a_disc_on_a_plain_ground_is_found_to_the_pixel(self):
        found = matte(cut(disc_photo(), ROUND_DISC))
        self.assertLess(np.abs(found - disc()).mean(), 0.004)

    def test_a_newer_version_changes_nothing_before_it_is_asked(self):
        """What an earlier version found is kept under its number."""
        scene = cut(disc_photo(), ROUND_DISC)
        older = scene.finish.cut_out.model_copy(update={"found_by": VERSION - 1})
        old = scene_of(scene.finish.model_copy(update={"cut_out": older}), scene.sources)
        with mock.patch(
            "lucky_margin.core.cut_out.coverage", lambda working, *_: 0 * working[..., 0]
        ):
            self.assertEqual(matte(old).max(), 0)  # that version found nothing
        self.assertEqual(matte(scene).max(), 1)
        self.assertEqual(matte(old).max(), 0)
        self.assertEqual(render(old).min(), 255)  # a JPEG of nothing is white
        again = scene_of(apply_edit(old, ROUND_DISC).finish, scene.sources)
        self.assertEqual(again.cut_out.found_by, VERSION)
        self.assertEqual(matte(again).max(), 1)

    def test_the_same_photo_gives_the_same_matte(self):
        one, other = (matte(cut(disc_photo(), ROUND_DISC)) for _ in range(2))
        np.testing.assert_array_equal(one, other)

    def test_outside_the_boxes_there_is_no_subject(self):
        box = Box(left=0.5, top=0.15, width=0.35, height=0.7)
        found = matte(cut(disc_photo(), SetSubject(boxes=(box,))))
        self.assertLess(found[:, :110].max(), 0.1)

    def test_a_second_box_adds_a_second_subject(self):
        photo = np.hstack([disc_photo(), disc_photo()])
        halves = [Box(left=x, top=0.15, width=0.35, height=0.7) for x in (0.075, 0.575)]
        one = matte(cut(photo, SetSubject(boxes=(halves[0],))))
        both = matte(cut(photo, SetSubject(boxes=tuple(halves))))
        truth = np.hstack([disc(), disc()])
        self.assertLess(one[:, 240:].mean(), 0.01)
        self.assertLess(np.abs(both - truth).mean(), 0.02)

    def test_a_photo_that_has_transparency_brings_its_own_cut_out(self):
        photo = np.dstack([disc_photo(), np.rint(255 * disc()).astype(np.uint8)])
        scene = cut(photo, SetSubject())
        picture = render(scene, view="subject")
        np.testing.assert_allclose(picture[:, :, 3] / 255, disc(), atol=0.02)

    def test_a_mask_of_other_sides_is_stretched_over_the_photo(self):
        sources = sources_of(disc_photo())
        half = np.zeros((10, 30, 3), np.uint8)
        half[:, 15:] = 255
        facts = PhotoFacts(30, 10, file_format="PNG", bits=8, has_alpha=False)
        sources = MemorySources(
            {SHA: DecodedPhoto(disc_photo(), sources.facts(SHA)), MASK: DecodedPhoto(half, facts)}
        )
        scene = scene_of(finish_of(), sources)
        scene = scene_of(apply_edit(scene, SetSubjectMask(mask=MASK)).finish, sources)
        found = matte(scene)
        self.assertEqual(found[:, :110].max(), 0)
        self.assertEqual(found[:, 130:].min(), 1)
        with self.assertRaises(NotFound):
            apply_edit(scene, SetSubjectMask(mask="ef" * 32))

    def test_photos_of_one_colour_one_pixel_or_noise_give_some_result(self):
        for photo in (
            np.full((90, 120, 3), 128, np.uint8),
            np.full((1, 1, 3), 128, np.uint8),
            noise(7, 300),
            noise(64, 48, 4),
            noise(50, 40, 3, np.uint16),
        ):
            scene = cut(photo, SetSubject(), DrawStroke(brush="keep", radius=3, points=((1, 1),)))
            picture = render(scene, view="subject")
            self.assertEqual(picture.shape[:2], photo.shape[:2])


class StrokeTest(unittest.TestCase):
    def test_strokes_are_obeyed_where_they_were_drawn(self):
        line = ((60.0, 40.0), (180.0, 40.0))
        for brush, kept in (("keep", 1), ("bring_back", 1), ("leave_out", 0), ("erase", 0)):
            y = 40.0 if kept else 120.0
            points = tuple((x, y) for x, _ in line)
            scene = cut(disc_photo(), ROUND_DISC, DrawStroke(brush=brush, radius=8, points=points))
            np.testing.assert_array_equal(matte(scene)[int(y) - 4 : int(y) + 4, 70:170], kept)

    def test_a_later_stroke_goes_over_an_earlier_one(self):
        points = ((100.0, 120.0), (140.0, 120.0))
        away = DrawStroke(brush="leave_out", radius=10, points=points)
        back = DrawStroke(brush="keep", radius=10, points=points)
        self.assertEqual(matte(cut(disc_photo(), ROUND_DISC, away))[120, 120], 0)
        self.assertEqual(matte(cut(disc_photo(), ROUND_DISC, away, back))[120, 120], 1)

    def test_erasing_takes_nothing_but_what_it_touches(self):
        before = matte(cut(disc_photo(), ROUND_DISC))
        stroke = DrawStroke(brush="erase", radius=6, points=((120.0, 120.0),))
        after = matte(cut(disc_photo(), ROUND_DISC, stroke))
        y, x = np.mgrid[:240, :240]
        far = np.hypot(x + 0.5 - 120, y + 0.5 - 120) > 8
        np.testing.assert_array_equal(after[far], before[far])

    def test_a_soft_eraser_fades_out(self):
        stroke = DrawStroke(brush="erase", radius=20, softness=1, points=((120.0, 120.0),))
        found = matte(cut(disc_photo(), ROUND_DISC, stroke))
        along = found[120, 120:145]
        self.assertEqual(along[0], 0)
        self.assertTrue((np.diff(along) >= 0).all())
        self.assertGreater(((along > 0.1) & (along < 0.9)).sum(), 10)

    def test_keeping_takes_nothing_away_and_leaving_out_brings_nothing(self):
        before = matte(cut(disc_photo(), ROUND_DISC)) > 0.5
        at = ((70.0, 60.0), (80.0, 52.0))
        kept = matte(cut(disc_photo(), ROUND_DISC, DrawStroke(brush="keep", radius=5, points=at)))
        left = matte(
            cut(disc_photo(), ROUND_DISC, DrawStroke(brush="leave_out", radius=5, points=at))
        )
        self.assertFalse((before & ~(kept > 0.5)).sum() > 3)  # but for the rim's own rounding
        self.assertFalse((~before & (left > 0.5)).sum() > 3)

    def test_a_stroke_that_keeps_brings_its_like_around_it_too(self):
        """A notch in the disc that is of the background's colour."""
        photo, notch = disc_photo(), np.zeros((240, 240), np.bool_)
        photo[100:140, 120:190] = photo[10:50, 120:190]
        notch[100:140, 120:190] = disc()[100:140, 120:190] > 0.5
        stroke = DrawStroke(brush="keep", radius=8, points=((135.0, 120.0), (175.0, 120.0)))
        drawn = (40 * 16 + np.pi * 8**2) / notch.sum()
        self.assertLess(matte(cut(photo, ROUND_DISC))[notch].mean(), 0.05)
        self.assertGreater(matte(cut(photo, ROUND_DISC, stroke))[notch].mean(), 2 * drawn)

    def test_what_a_stroke_changes_goes_its_way(self):
        """A decision that would fall otherwise today is left alone where a stroke says nothing."""
        evidence = np.zeros((60, 60, 5), np.float32)
        evidence[:, :30, 3:] = (-12, 1)  # subject so far, against what is known
        place = Box(left=0, top=0, width=1, height=1)
        keep = Stroke(brush="keep", radius=0.05, points=((0.52, 0.2), (0.52, 0.8)))
        share = after_stroke(evidence, keep, place)[:, :, 4]
        np.testing.assert_array_equal(share[:, :30], 1)
        self.assertGreater(share[30, 31], 0.5)
        away = keep.model_copy(update={"brush": "leave_out"})
        share = after_stroke(evidence, away, place)[:, :, 4]
        np.testing.assert_array_equal(share[:, 30:], 0)

    def test_what_is_left_out_takes_separate_parts_of_its_colour_along(self):
        """A board with five holes: three show the wall, one of them much larger than the one that
        is drawn in, one shows something else, one is in the board's colour."""
        board, wall, other = (60, 35, 25), (55, -10, -30), (75, -5, 60)
        evidence = np.zeros((160, 160, 5), np.float32)
        evidence[:] = (*wall, -3, 0)
        evidence[20:140, 30:150] = (*board, 3, 1)
        holes = {"drawn": (40, 50), "alike": (40, 110), "other": (90, 50), "board": (90, 110)}
        colours = {"drawn": wall, "alike": wall, "other": other, "board": board, "large": wall}
        parts = {name: np.s_[y : y + 20, x : x + 20] for name, (y, x) in holes.items()}
        parts["large"] = np.s_[64:86, 60:120]
        for name, part in parts.items():
            evidence[part][:, :, :3] = colours[name]
        evidence[parts["other"]][:, :, 3] = -12  # it would go by what is known
        place = Box(left=0, top=0, width=1, height=1)

        def left_of(*points):
            points = tuple((x / 160, y / 160) for x, y in points)
            stroke = Stroke(brush="leave_out", radius=0.02, points=points)
            share = after_stroke(evidence, stroke, place)[:, :, 4]
            return {name: float((share[part] > 0.5).mean()) for name, part in parts.items()}

        left = {"drawn": 0, "alike": 0, "other": 1, "board": 1, "large": 1}
        self.assertEqual(left_of((56, 50), (64, 50)), left)
        # On the wall nothing had to be left out.
        self.assertEqual(left_of((15, 20), (15, 140)), dict.fromkeys(parts, 1))

    def test_among_leaves_a_stroke_reaches_as_far_as_on_plain_ground(self):
        place = Box(left=0, top=0, width=1, height=1)
        stroke = Stroke(brush="leave_out", radius=0.05, points=((0.72, 0.25), (0.72, 0.75)))
        board, leaves = np.s_[20:140, 15:75], np.s_[20:140, 85:145]
        stripes = np.indices((120, 60)).sum(axis=0) // 3 % 2  # 3 pixels wide
        for contrast in (0, 36):
            evidence = np.zeros((160, 160, 5), np.float32)
            evidence[:] = (55, 0, 20, -3, 0)
            evidence[board] = (40, 50, 30, 1, 1)
            evidence[leaves] = (30, -25, 20, 1, 1)
            evidence[leaves][:, :, 0] += contrast * stripes
            share = after_stroke(evidence, stroke, place)[:, :, 4]
            with self.subTest(contrast=contrast):
                self.assertLess((share[leaves] > 0.5).mean(), 0.15)
                self.assertGreater((share[board] > 0.5).mean(), 0.95)

    def test_where_colours_tell_nothing_separate_parts_stay(self):
        evidence = np.zeros((160, 160, 5), np.float32)
        evidence[:] = (55, -10, -30, -3, 0)
        board, part = np.s_[20:80, 20:140], np.s_[100:110, 60:70]
        evidence[board][:, :, 3:] = evidence[part][:, :, 3:] = (1, 1)
        place = Box(left=0, top=0, width=1, height=1)
        stroke = Stroke(brush="leave_out", radius=0.05, points=((0.3, 0.3), (0.7, 0.3)))
        share = after_stroke(evidence, stroke, place)[:, :, 4]
        self.assertLess(share[board].mean(), 0.5)
        np.testing.assert_array_equal(share[part], 1)

    def test_a_soft_edge_shares_out_what_lies_between_two_colours(self):
        side = 240
        box = SetSubject(boxes=(Box(left=0.3, top=0.0, width=0.7, height=1.0),))
        stroke = DrawStroke(brush="soft_edge", radius=32, points=((120.0, 0.0), (120.0, 239.0)))
        for wide in (10, 40):  # pixels over which a subject fades in
            start = 120 - wide // 2
            ramp = np.clip((np.arange(side) - start) / wide, 0, 1)
            share = np.broadcast_to(ramp, (side, side))[..., None]
            photo = share * np.array([190, 60, 50]) + (1 - share) * np.array([60, 90, 160])
            photo = np.rint(photo).astype(np.uint8)
            edge = np.s_[start : start + wide]
            off = [
                np.abs(matte(cut(photo, *edits))[60:180, edge] - ramp[edge]).mean()
                for edits in ((box,), (box, stroke))
            ]
            with self.subTest(wide=wide):
                self.assertLess(off[1], 0.03)
                self.assertLess(off[1], max(0.01, off[0] / 2))  # some is found without a brush

    def test_each_stroke_can_be_deleted(self):
        one = DrawStroke(brush="erase", radius=6, points=((120.0, 120.0),))
        other = DrawStroke(brush="erase", radius=6, points=((90.0, 120.0),))
        scene = cut(disc_photo(), ROUND_DISC, one, other, DeleteStroke(number=0))
        (left,) = scene.finish.cut_out.strokes
        self.assertEqual(left.points, ((0.375, 0.5),))
        with self.assertRaises(BadInput):
            apply_edit(scene, DeleteStroke(number=1))
        emptied = apply_edit(scene, DeleteStroke(number=None)).finish
        self.assertEqual(emptied.cut_out.strokes, ())

    def test_a_stroke_keeps_few_points_and_its_way(self):
        angles = np.linspace(0, 2 * np.pi, 3000)
        drawn = np.stack([120 + 80 * np.cos(angles), 120 + 80 * np.sin(angles)], axis=1)
        stroke = DrawStroke(brush="keep", radius=3, points=tuple(map(tuple, drawn.tolist())))
        (kept,) = cut(disc_photo(), ROUND_DISC, stroke).finish.cut_out.strokes
        self.assertLessEqual(len(kept.points), 200)
        corners = 240 * np.array(kept.points)
        off = np.abs(np.hypot(*(corners - 120).T) - 80).max()
        self.assertLess(off, 0.5)

    def test_a_stroke_in_the_turned_photo_lies_on_the_photo(self):
        scene = cut(disc_photo(), ROUND_DISC)
        turned = apply_edit(scene, TurnQuarter(way="right")).finish
        scene = Scene.of(turned, "main", scene.sources)
        edit = DrawStroke(brush="erase", radius=6, points=((200.0, 30.0),))
        (stroke,) = apply_edit(scene, edit).finish.cut_out.strokes
        x, y = stroke.points[0]
        self.assertAlmostEqual(240 * x, 30, places=3)
        self.assertAlmostEqual(240 * y, 40, places=3)

    def test_strokes_that_make_no_sense_are_refused(self):
        scene = cut(disc_photo(), ROUND_DISC)
        for edit, words in (
            (DrawStroke(brush="keep", radius=3, points=((900.0, 900.0),)), "outside the photo"),
            (DrawSubject(x0=5, y0=5, x1=5, y1=90), "To draw a box"),
        ):
            with self.assertRaisesRegex(BadInput, words):
                apply_edit(scene, edit)
        uncut = cut(disc_photo())
        with self.assertRaisesRegex(BadInput, "Find the subject first"):
            apply_edit(uncut, DrawStroke(brush="keep", radius=3, points=((9.0, 9.0),)))


class EdgeTest(unittest.TestCase):
    def test_what_was_kept_before_hair_had_a_switch_is_still_found(self):
        """By the digest that a cut-out had then."""
        boxes = (Box(left=0.25, top=0.25, width=0.5, height=0.5),)
        self.assertEqual(
            subject_digest(CutOut(on=True, boxes=boxes)), "bae31cb253b68f27320377ac6ade9ec9"
        )
        sharp = SubjectEdge(soft_hair=False)
        self.assertNotEqual(subject_digest(CutOut()), subject_digest(CutOut(edge=sharp)))

    def area(self, **edge) -> float:
        return float(matte(cut(disc_photo(), ROUND_DISC, SetSubjectEdge(**edge))).sum())

    def test_the_edge_moves_by_what_it_is_shifted(self):
        radius = [np.sqrt(self.area(shift=shift) / np.pi) for shift in (-0.01, 0.0, 0.01)]
        self.assertAlmostEqual(radius[1] - radius[0], 2.4, delta=0.4)
        self.assertAlmostEqual(radius[2] - radius[1], 2.4, delta=0.4)

    def test_small_parts_and_holes_go_and_the_largest_stays(self):
        alpha = np.zeros((100, 100), np.float32)
        alpha[20:80, 20:80] = 1
        alpha[40:44, 40:44] = 0
        alpha[5:9, 5:9] = 1
        kept = finished(alpha, SubjectEdge(specks=0, holes=0))
        np.testing.assert_array_equal(kept, alpha)
        tidy = finished(alpha, SubjectEdge(specks=0.08, holes=0.08))
        self.assertEqual(tidy[6, 6], 0)
        self.assertEqual(tidy[42, 42], 1)
        self.assertEqual(finished(alpha, SubjectEdge(specks=0.2, holes=0))[50, 30], 1)

    def test_a_small_part_takes_its_faint_rim_along_and_no_other(self):
        alpha = np.zeros((100, 100), np.float32)
        alpha[20:80, 20:80] = 1
        alpha[19, 20:80] = 0.08  # the largest part's own
        alpha[4:11, 4:11] = 0.06
        alpha[5:10, 5:10] = 0.7
        alpha[90:95, 40:60] = 0.06  # a veil apart from everything
        tidy = finished(alpha, SubjectEdge(specks=0.08, holes=0))
        self.assertEqual(tidy[:15, :15].max(), 0)
        np.testing.assert_allclose(tidy[15:], alpha[15:], atol=1e-6)

    def test_a_larger_photo_leads_the_edge_of_a_smaller_matte(self):
        large, truth = disc_photo(960, 280), disc(960, 280)
        small = cv2.resize(truth, (240, 240), interpolation=cv2.INTER_AREA)
        plain = cv2.resize(small, (960, 960), interpolation=cv2.INTER_LINEAR)
        found = subject_picture(large, matte_of(small.astype(np.float32)), None)[:, :, 3] / 255
        rim = np.abs(plain - truth) > 0.02
        off, plain_off = (np.abs(one - truth)[rim].mean() for one in (found, plain))
        self.assertLess(off, 0.6 * plain_off)

    def test_the_fringe_loses_the_old_background(self):
        """A soft rim's colours are the disc's own, whatever lay behind."""
        truth = cv2.GaussianBlur(disc().astype(np.float32), (0, 0), 3)
        photo = truth[..., None] * (200, 40, 30) + (1 - truth[..., None]) * (20, 200, 60)
        photo = np.rint(photo).astype(np.uint8)
        found = matte_of(truth)
        fringe = fringe_colours(working_picture(photo), found)
        rim = (found > 60) & (found < 240)
        cleaned = subject_picture(photo, found, fringe)[rim][:, :3].astype(float)
        plain = subject_picture(photo, found, None)[rim][:, :3].astype(float)
        self.assertLess(np.abs(cleaned - (200, 40, 30)).mean(), 8)
        self.assertGreater(np.abs(plain - (200, 40, 30)).mean(), 30)


class ShownTest(unittest.TestCase):
    def test_switched_off_nothing_changes(self):
        plain = render(cut(disc_photo()))
        scene = cut(disc_photo(), ROUND_DISC, SwitchStep(step="cut_out", on=False))
        self.assertTrue(scene.finish.cut_out.boxes)
        np.testing.assert_array_equal(render(scene), plain)

    def test_the_ground_shows_behind_the_subject(self):
        scene = cut(disc_photo(), ROUND_DISC, backdrop=SolidColour(colour="#FFFFFF"))
        picture = render(scene)
        self.assertEqual(picture.shape[2], 3)
        np.testing.assert_array_equal(picture[:30], 255)
        np.testing.assert_allclose(picture[120, 120], (190, 60, 50), atol=12)

    def test_a_part_is_the_same_as_in_the_whole(self):
        scene = cut(disc_photo(), ROUND_DISC, backdrop=SolidColour(colour="#FFFFFF"))
        whole = render(scene)
        part = render(scene, region=(50, 40, 90, 70))
        np.testing.assert_array_equal(part, whole[40:110, 50:140])

    def test_one_size_may_show_the_whole_photo(self):
        scene = cut(disc_photo(), ROUND_DISC)
        size = scene.size.with_overrides(cut_out={"on": False})
        np.testing.assert_array_equal(
            render(Scene(scene.finish, size, scene.sources)), render(cut(disc_photo()))
        )

    def test_views_for_working_on_it(self):
        scene = cut(disc_photo(), ROUND_DISC, backdrop=SolidColour(colour="#FFFFFF"))
        alone, cover, dimmed = (
            render(scene, view=view) for view in ("subject", "coverage", "dimmed")
        )
        self.assertEqual(alone[5, 5, 3], 0)
        np.testing.assert_array_equal(cover[5, 5], 0)
        np.testing.assert_array_equal(cover[120, 120], 255)
        np.testing.assert_allclose(dimmed[5, 5], 0.3 * disc_photo()[5, 5].astype(float), atol=2)

    def test_what_the_newest_stroke_changed_is_shown_alone(self):
        first = DrawStroke(brush="erase", radius=9, points=((90.0, 120.0),))
        newest = DrawStroke(brush="erase", radius=9, points=((150.0, 120.0),))
        shown = render(cut(disc_photo(), ROUND_DISC, first, newest), view="changed")
        self.assertEqual(shown[120, 150, 3], 255)
        self.assertEqual((shown[120, 90, 3], shown[5, 5, 3]), (0, 0))
        untouched = render(cut(disc_photo()), view="changed")
        self.assertEqual(untouched[:, :, 3].max(), 0)

    def test_the_subject_is_the_focus_unless_one_is_set(self):
        scene = cut(
            disc_photo(), SetSubject(boxes=(Box(left=0.6, top=0.6, width=0.4, height=0.4),))
        )
        self.assertEqual(scene.focus.point.x, 0.8)
        self.assertIsNone(scene.finish.focus)

    def test_it_is_kept_in_the_document(self):
        stroke = DrawStroke(brush="erase", radius=6, softness=0.5, points=((120.0, 120.0),))
        finish = cut(disc_photo(), ROUND_DISC, stroke, SetSubjectEdge(shift=0.002)).finish
        self.assertEqual(read_finish(finish.model_dump(mode="json")), finish)


class PartsTest(unittest.TestCase):
    def test_geodesic_distance_goes_round_what_is_dear(self):
        cost = np.ones((9, 9), np.float32)
        cost[:8, 4] = 1000
        start = np.zeros((9, 9), np.bool_)
        start[0, 0] = True
        found = geodesic_distance(cost, start)
        self.assertAlmostEqual(float(found[0, 3]), 3, places=4)
        self.assertGreater(found[0, 8], 15)
        self.assertLess(found[8, 8], 600)

    def test_a_decision_follows_evidence_and_closes_small_gaps(self):
        lab = np.zeros((40, 40, 3), np.float32)
        evidence = np.full((40, 40), -3, np.float32)
        evidence[10:30, 10:30] = 3
        evidence[18:20, 18:20] = -3
        share = decided(evidence, links_of(lab), np.full((40, 40), 0.5, np.float32), 300)
        self.assertGreater(share[19, 19], 0.5)
        self.assertGreater(share[12, 20], 0.5)
        self.assertLess(share[3, 3], 0.5)

    def test_doubts_say_why(self):
        photo = disc_photo()
        found = matte_of(disc().astype(np.float32))
        sure = fringe_colours(working_picture(photo), found)
        self.assertEqual(doubts_about(found, sure, 0, 0), [])
        grey = fringe_colours(working_picture(np.full_like(photo, 128)), found)
        self.assertRegex(doubts_about(found, grey, 0, 0)[0], "colours hardly differ")
        nothing = np.zeros_like(found)
        self.assertEqual(doubts_about(nothing, sure, 0, 0), ["nothing was found"])
        self.assertRegex(doubts_about(found, sure, 0.2, 0)[0], "hair, grass or holes")
        self.assertRegex(doubts_about(found, sure, 0, 0.2)[0], "unclear in places")

    def test_what_the_network_sees_otherwise_is_unclear_until_a_stroke_tells(self):
        truth = true_photo("pale-jug")
        working, box = working_picture(truth.photo), truth.box(0)
        place = place_of(working, CutOut(boxes=(box,)))
        alpha = cv2.resize(truth.alpha, working.shape[1::-1], interpolation=cv2.INTER_AREA)
        halved = alpha.copy()
        halved[:, : round(working.shape[1] * box.centre[0])] = 0
        right, wrong = (
            disagreement(working, matte_of(found), (box,), place) for found in (alpha, halved)
        )
        self.assertLess(right, MOST_DISAGREEMENT)
        self.assertGreater(wrong, 2 * MOST_DISAGREEMENT)
        scene = cut(truth.photo, SetSubject(boxes=(box,)))
        self.assertGreater(shown_photo(scene).disagreement(), 0)
        x, y = box.centre
        at = (x * truth.photo.shape[1], y * truth.photo.shape[0])
        stroke = DrawStroke(brush="keep", radius=20, points=(at,))
        mended = cut(truth.photo, SetSubject(boxes=(box,)), stroke)
        self.assertEqual(shown_photo(mended).disagreement(), 0)

    def test_strands_are_seen_where_a_hard_edge_cuts_or_fills_them(self):
        side = 400
        y, x = np.mgrid[:side, :side]
        far = np.hypot(x - 200, y - 200)
        disc = far < 100
        bristles = (far < 130) & (np.sin(60 * np.arctan2(y - 200, x - 200)) > 0.3)
        for what, covered, hard, strands in (
            ("a disc", disc, disc, False),
            ("bristles that were cut off", disc | bristles, disc, True),
            ("bristles whose gaps were filled", disc | bristles, far < 130, True),
            ("bristles cut out as they are", disc | bristles, disc | bristles, False),
        ):
            photo = np.where(covered[:, :, None], (190, 60, 50), (60, 90, 160))
            working = working_picture(cv2.GaussianBlur(photo.astype(np.uint8), (0, 0), 0.7))
            found = strands_at_edge(working, matte_of(hard.astype(np.float32)))
            with self.subTest(what):
                (self.assertGreater if strands else self.assertLess)(found, MOST_STRANDS)

    def test_the_box_round_a_matte(self):
        found = matte_of(disc().astype(np.float32))
        box = box_of(found)
        self.assertAlmostEqual(box.left, 50 / 240)
        self.assertAlmostEqual(box.width, 140 / 240)
        self.assertIsNone(box_of(np.zeros_like(found)))
