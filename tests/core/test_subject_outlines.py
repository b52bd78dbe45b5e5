"""Lines round the subject: how wide, where, and whether they can be seen."""

import unittest

import cv2
import numpy as np
import shapely
from shapely import affinity

from lucky_margin.core import oklab
from lucky_margin.core.checks import check
from lucky_margin.core.checks.cut_out_checks import made_visible, unseen_share
from lucky_margin.core.contour import calmed, distance_to_contour, line_mask
from lucky_margin.core.document import (
    Box,
    FixedPixels,
    Outlines,
    OutlinesChanges,
    Size,
    SolidColour,
    SubjectOutline,
    rgb_of,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import SetSubject
from lucky_margin.core.edits.framing import ScaleWindow, SetFocus, SetWindow
from lucky_margin.core.edits.steps import Follow, SetOutlines
from lucky_margin.core.edits.subject_placing import DragSubject, StandSubject
from lucky_margin.core.errors import BadInput
from lucky_margin.core.outlines import PolygonOutline
from lucky_margin.core.proposals import focus_proposal, placing_proposal, subject_proposal
from lucky_margin.core.render import render
from lucky_margin.core.render.shown import subject_on_size
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import Scene
from tests.support import demo_sources, finish_of, noise, scene_of, sources_of, with_size

SIDE = 240
REACH = 30.0
NEAR_CORNER = 3.0
LINE = {"gap": 0, "width": 12, "softness": 0, "strength": 1, "inside": False}


def coverage_of(shape) -> np.ndarray:
    """How much a polygon covers of each pixel, 0..1."""
    corners = np.array(shape.exterior.coords)[:-1]
    return PolygonOutline.of(corners).coverage(SIDE, SIDE).astype(np.float32) / 255


def shapes(scale: float) -> dict[str, shapely.Polygon]:
    disc = shapely.Point(120.3, 119.6).buffer(30 * scale, quad_segs=64)
    square = affinity.rotate(shapely.box(95, 90, 145, 140), 17)
    angles = np.arange(10) * np.pi / 5
    far = np.where(np.arange(10) % 2, 18, 40) * scale
    star = shapely.Polygon(
        np.stack([120.4 + far * np.sin(angles), 119.7 - far * np.cos(angles)], axis=1)
    )
    return {"disc": disc, "square": affinity.scale(square, scale, scale), "star": star}


def hairy_disc() -> np.ndarray:
    """A disc with 60 thin hairs of uneven length round it."""
    alpha = np.zeros((SIDE, SIDE), np.uint8)
    cv2.circle(alpha, (120, 120), 50, 255, -1, cv2.LINE_AA)
    generator = np.random.default_rng(5)
    for turn in generator.uniform(0, 2 * np.pi, 60):
        way = np.array([np.cos(turn), np.sin(turn)])
        ends = [
            np.rint(16 * (120 + far * way)).astype(int) for far in (45, generator.uniform(56, 72))
        ]
        cv2.line(alpha, *(tuple(map(int, end)) for end in ends), 170, 1, cv2.LINE_AA, 4)
    return alpha.astype(np.float32) / 255


def roughness(line: np.ndarray) -> float:
    """How far the outer rim of a line round the middle strays from its own moving average, in
    pixels: root mean square."""
    y, x = np.nonzero(line)
    turns, away = np.arctan2(y - 119.5, x - 119.5), np.hypot(x - 119.5, y - 119.5)
    bins = np.rint((turns + np.pi) / (2 * np.pi) * 180).astype(int) % 180
    rim = np.zeros(180)
    np.maximum.at(rim, bins, away)
    average = np.convolve(np.tile(rim, 3), np.ones(19) / 19, "same")[180:360]
    return float(np.sqrt(np.mean((rim - average) ** 2)))


def true_distance(shape) -> np.ndarray:
    """NaN where a corner is nearest: of a sharp one no pixel is half covered."""
    y, x = np.mgrid[:SIDE, :SIDE] + 0.5
    points = shapely.points(x.ravel(), y.ravel())
    away = shapely.distance(points, shape.exterior)
    signed = np.where(shapely.contains(shape, points), -away, away)
    if len(shape.exterior.coords) < 20:
        feet = shapely.line_interpolate_point(
            shape.exterior, shapely.line_locate_point(shape.exterior, points)
        )
        corners = shapely.multipoints(shapely.points(np.array(shape.exterior.coords)))
        signed[shapely.distance(feet, corners) < NEAR_CORNER] = np.nan
    return signed.reshape(SIDE, SIDE)


def photo_with_square() -> np.ndarray:
    """A red square in a grey photo."""
    photo = np.full((200, 200, 3), 128, np.uint8)
    photo[60:140, 60:140] = (200, 40, 30)
    return photo


ROUND_SQUARE = SetSubject(boxes=(Box(left=0.2, top=0.2, width=0.6, height=0.6),))


def cut(*lines: SubjectOutline, ground: str = "#3366CC", **fields) -> Scene:
    sources = sources_of(photo_with_square())
    fields = {"backdrop": SolidColour(colour=ground), "outlines": Outlines(lines=lines), **fields}
    scene = scene_of(finish_of(**fields), sources)
    return scene_of(apply_edit(scene, ROUND_SQUARE).finish, sources)


def edited(scene: Scene, edit) -> Scene:
    return scene_of(apply_edit(scene, edit).finish, scene.sources)


class DistanceTest(unittest.TestCase):
    def test_it_is_exact_to_a_third_of_a_pixel_on_discs_squares_and_stars(self):
        for scale in (0.5, 1, 1.7):
            for name, shape in shapes(scale).items():
                with self.subTest(shape=name, scale=scale):
                    found = distance_to_contour(coverage_of(shape), REACH)
                    true = true_distance(shape)
                    off = np.abs(found - true)[np.abs(true) < REACH]
                    self.assertGreater(len(off), 500)
                    self.assertLess(np.percentile(off, 99), 0.2)
                    self.assertLess(off.max(), 0.7)  # single pixels, where two edges are as near
                    self.assertLess(off.mean(), 0.1)

    def test_plain_edges_are_measured_as_they_are(self):
        for name, shape in shapes(1).items():
            alpha = coverage_of(shape)
            for scale in (1.5, 4, 9):
                with self.subTest(shape=name, scale=scale):
                    calm, near = calmed(alpha, scale), distance_to_contour(alpha, REACH)
                    off = np.abs(distance_to_contour(calm, REACH) - near)[np.abs(near) < REACH]
                    self.assertLess(np.percentile(off, 98), 0.01)

    def test_the_line_round_hair_is_smooth(self):
        lines = [
            line_mask(distance_to_contour(alpha, REACH), **LINE) > 128
            for alpha in (hairy_disc(), calmed(hairy_disc(), 8))
        ]
        beaded, smooth = (roughness(line) for line in lines)
        self.assertLess(smooth, 0.6 * beaded)
        self.assertEqual(cv2.connectedComponents(lines[1].astype(np.uint8))[0], 2)

    def test_a_lines_width_is_what_it_says(self):
        for scale in (0.5, 1, 1.7):
            shape = shapes(scale)["disc"]
            distance = distance_to_contour(coverage_of(shape), REACH)
            mask = line_mask(distance, **LINE | {"gap": 4}) / 255
            ring = shape.buffer(16, quad_segs=64).area - shape.buffer(4, quad_segs=64).area
            middle = 2 * np.pi * (30 * scale + 10)
            self.assertAlmostEqual(mask.sum() / middle, ring / middle, delta=0.3)

    def test_nothing_and_everything_have_no_contour(self):
        for value in (0, 1):
            found = distance_to_contour(np.full((9, 9), value, np.float32), 3)
            self.assertTrue((np.abs(found) > 1000).all())
            self.assertEqual(set((found > 0).ravel().tolist()), {value == 0})

    def test_soft_lines_fade_from_the_edge_outwards(self):
        distance = np.linspace(0, 20, 200, dtype=np.float32)[None]
        hard = line_mask(distance, **LINE)[0]
        soft = line_mask(distance, **LINE | {"softness": 1})[0]
        full = line_mask(distance, **LINE | {"softness": 1, "strength": 3})[0]
        self.assertEqual(set(hard[:110].tolist()), {255})
        self.assertTrue((np.diff(soft.astype(int)) <= 0).all())
        self.assertGreater(full.sum(dtype=int), soft.sum(dtype=int))
        self.assertEqual(soft[-1], 0)

    def test_an_inside_line_lies_inside(self):
        distance = np.linspace(-20, 20, 400, dtype=np.float32)[None]
        mask = line_mask(distance, **LINE | {"inside": True, "gap": 3})[0]
        covered = distance[0][mask > 128]
        self.assertAlmostEqual(float(covered.max()), -3, delta=0.2)
        self.assertAlmostEqual(float(covered.min()), -15, delta=0.2)


class DrawnTest(unittest.TestCase):
    WHITE = SubjectOutline(width=0.05)

    def test_it_lies_between_subject_and_ground(self):
        picture = render(cut(self.WHITE))
        np.testing.assert_allclose(picture[100, 100], (200, 40, 30), atol=2)
        np.testing.assert_allclose(picture[100, 54], (255, 255, 255), atol=2)
        np.testing.assert_array_equal(picture[100, 40], rgb_of("#3366CC"))

    def test_it_is_as_wide_in_any_scale(self):
        scene = cut(self.WHITE)
        for scale in (1.0, 0.6):
            picture = render(scene, scale=scale, rough=True).astype(float)
            row = picture[round(100 * scale), : round(60 * scale)]
            blue, white = np.array(rgb_of("#3366CC")), 255.0
            share = (row[:, 0] - blue[0]) / (white - blue[0])
            self.assertAlmostEqual(share.sum() / scale, 10, delta=1.2)

    def test_a_part_is_the_same_as_in_the_whole(self):
        scene = cut(self.WHITE, SubjectOutline(width=0.02, gap=0.06, colour="#000000"))
        whole = render(scene)
        np.testing.assert_array_equal(render(scene, region=(30, 90, 80, 60)), whole[90:150, 30:110])

    def test_none_runs_along_where_the_size_cuts_the_subject(self):
        scene = cut(self.WHITE)
        window = Box(left=100, top=0, width=100, height=200)
        cutting = edited(scene, SetWindow(window=window))
        picture = render(cutting)
        np.testing.assert_allclose(picture[100, 0], (200, 40, 30), atol=2)

    def test_moving_the_window_moves_it_exactly(self):
        scene = cut(self.WHITE)
        first = render(edited(scene, SetWindow(window=Box(left=0, top=0, width=150, height=150))))
        other = render(edited(scene, SetWindow(window=Box(left=37, top=12, width=150, height=150))))
        np.testing.assert_array_equal(first[12:, 37:], other[:-12, :-37])

    def test_without_a_cut_out_there_is_none(self):
        scene = scene_of(
            finish_of(outlines=Outlines(lines=(self.WHITE,))), sources_of(photo_with_square())
        )
        np.testing.assert_array_equal(render(scene), photo_with_square())

    def test_one_size_may_have_others(self):
        scene = cut(self.WHITE)
        size = scene.size.model_copy(update={"id": "other", "name": "Other"})
        finish = scene.finish.model_copy(update={"sizes": (*scene.finish.sizes, size)})
        other = Scene.of(finish, "other", scene.sources)
        red = OutlinesChanges(lines=(SubjectOutline(colour="#FF0000"),))
        own = apply_edit(other, SetOutlines(changes=red, only_this_size=True)).finish
        self.assertEqual(own.outlines, scene.finish.outlines)
        self.assertEqual(own.outlines_of(own.size("other")).lines[0].colour, "#FF0000")
        again = apply_edit(Scene.of(own, "other", scene.sources), Follow(step="outlines")).finish
        self.assertEqual(again.outlines_of(again.size("other")), scene.finish.outlines)


class StandingOutTest(unittest.TestCase):
    """A red square that reaches past the top and the bottom of a circle."""

    def rendered(self, **cut_out):
        fields = {"shape": {"kind": "circle"}}
        scene = cut(SubjectOutline(width=0.03), export={"format": "png"})
        finish = scene.finish.model_copy(
            update={"cut_out": scene.finish.cut_out.model_copy(update=cut_out)}
        )
        finish = with_size(finish, pixels={"kind": "fixed", "width": 100, "height": 100}, **fields)
        scene = scene_of(finish, scene.sources)
        return render(edited(scene, SetWindow(window=Box(left=50, top=60, width=100, height=80))))

    def test_it_does_so_only_at_the_top(self):
        inside, out = self.rendered(), self.rendered(stands_out=True)
        self.assertEqual(inside[2, 20, 3], 0)
        np.testing.assert_allclose(out[2, 20], (200, 40, 30, 255), atol=3)
        self.assertEqual(out[97, 20, 3], 0)
        np.testing.assert_array_equal(out[50:], inside[50:])
        np.testing.assert_array_equal(out[30:50, 40:60], inside[30:50, 40:60])

    def test_a_rectangle_has_nothing_to_stand_out_of(self):
        scene = cut(SubjectOutline(width=0.03))
        standing = scene.finish.cut_out.model_copy(update={"stands_out": True})
        finish = scene.finish.model_copy(update={"cut_out": standing})
        np.testing.assert_array_equal(render(scene_of(finish, scene.sources)), render(scene))


class SeenTest(unittest.TestCase):
    def checked(self, scene: Scene, key: str):
        return [one for one in check(scene) if one.key == key]

    def test_a_white_line_shows_on_blue_and_not_on_nearly_white(self):
        (seen,) = self.checked(cut(SubjectOutline(width=0.05)), "outline")
        self.assertEqual(seen.severity, "ok")
        faint = cut(SubjectOutline(width=0.05), ground="#F4F2EE")
        (unseen,) = self.checked(faint, "outline")
        self.assertEqual(unseen.severity, "warning")
        (mended,) = self.checked(edited(faint, unseen.action.edit), "outline")
        self.assertEqual(mended.severity, "ok")

    def test_the_share_is_that_of_a_slow_reference(self):
        line = SubjectOutline(colour="#808080", opacity=0.8)
        colours = np.random.default_rng(3).integers(90, 200, (200, 3))
        beside = oklab.from_light(decode(colours / 255))
        unseen = 0
        for colour in colours:
            mixed = 0.8 * np.array(rgb_of(line.colour)) + 0.2 * colour
            one, other = (oklab.from_light(decode(part / 255)) for part in (mixed, colour))
            unseen += float(np.sqrt(((one - other) ** 2).sum())) < 0.12
        self.assertAlmostEqual(unseen_share(line, beside), unseen / 200)

    def test_the_least_change_is_made(self):
        beside = np.broadcast_to(oklab.from_light(decode(np.full(3, 0.5))), (50, 3))
        faint = SubjectOutline(colour="#FFFFFF", opacity=0.1)
        self.assertEqual(made_visible(faint, beside).colour, "#FFFFFF")
        near = made_visible(SubjectOutline(colour="#8A8A8A"), beside)
        lightness = oklab.from_light(decode(np.array(rgb_of(near.colour)) / 255))[0]
        self.assertAlmostEqual(abs(lightness - beside[0, 0]), 0.13, delta=0.02)

    def test_a_ground_that_is_nearly_white_is_said(self):
        (found,) = self.checked(cut(ground="#FDFDFB"), "white")
        self.assertEqual(found.severity, "warning")
        (white,) = self.checked(edited(cut(ground="#FDFDFB"), found.action.edit), "white")
        self.assertEqual(white.severity, "ok")
        self.assertEqual(self.checked(cut(ground="#3366CC"), "white"), [])

    def test_a_white_ground_is_white_beside_a_subject_at_the_edge_and_not_with_a_line_there(self):
        window = SetWindow(window=Box(left=100, top=0, width=100, height=200))
        (white,) = self.checked(edited(cut(ground="#FFFFFF"), window), "white")
        self.assertEqual(white.severity, "ok")
        lined = cut(SubjectOutline(width=0.2, colour="#000000"), ground="#FFFFFF")
        (crossed,) = self.checked(edited(lined, window), "white")
        self.assertRegex(crossed.text, "not #FFFFFF along")

    def test_a_straight_edge_where_the_photo_ended_is_said_and_mended(self):
        photo = np.full((200, 200, 3), 128, np.uint8)
        photo[60:, 60:140] = (200, 40, 30)
        sources = sources_of(photo)
        box = Box(left=0.2, top=0.2, width=0.6, height=0.8)
        scene = scene_of(finish_of(100, 100, backdrop=SolidColour()), sources)
        scene = scene_of(apply_edit(scene, SetSubject(boxes=(box,))).finish, sources)
        self.assertEqual(self.checked(scene, "ended"), [])
        scene = edited(scene, SetWindow(window=Box(left=20, top=60, width=160, height=160)))
        (found,) = self.checked(scene, "ended")
        self.assertRegex(found.text, "bottom")
        mended = edited(scene, found.action.edit)
        self.assertAlmostEqual(mended.frame.window.bottom, 200)
        self.assertEqual(self.checked(mended, "ended"), [])

    def test_the_line_goes_round_the_edge_where_the_photo_ended(self):
        photo = np.full((200, 200, 3), 128, np.uint8)
        photo[60:, 60:140] = (200, 40, 30)
        sources = sources_of(photo)
        box = Box(left=0.2, top=0.2, width=0.6, height=0.8)
        lines = Outlines(lines=(SubjectOutline(width=0.05),))
        fields = {"backdrop": SolidColour(colour="#3366CC"), "outlines": lines}
        scene = scene_of(finish_of(**fields), sources)
        scene = scene_of(apply_edit(scene, SetSubject(boxes=(box,))).finish, sources)
        window = SetWindow(window=Box(left=0, top=50, width=200, height=200))
        picture = render(edited(scene, window))
        np.testing.assert_allclose(picture[145, 100], (200, 40, 30), atol=3)
        np.testing.assert_allclose(picture[155, 100], (255, 255, 255), atol=3)
        self.assertTrue((picture[165:] == rgb_of("#3366CC")).all())

    def test_a_subject_that_the_size_cuts_is_said(self):
        scene = edited(cut(), SetWindow(window=Box(left=100, top=0, width=100, height=200)))
        (found,) = self.checked(scene, "focus")
        self.assertRegex(found.text, "The subject is cut")


class PlacingTest(unittest.TestCase):
    def test_the_subject_fills_as_much_as_is_asked(self):
        scene = cut()
        scene = scene_of(finish_of(100, 50, cut_out=scene.finish.cut_out), scene.sources)
        placed = edited(scene, placing_proposal(scene, (1 / 0.85 - 1) / 2).edit)
        height = placed.frame.window.height
        self.assertAlmostEqual(80 / height, 0.85, delta=0.02)
        self.assertAlmostEqual(placed.frame.window.centre[0], 100, delta=1.5)

    def test_a_free_size_gets_the_same_room_on_all_sides(self):
        window = placing_proposal(cut(), 0.1).box
        self.assertAlmostEqual(window.left, 60 - 8, delta=1.5)
        self.assertAlmostEqual(window.width, 80 + 16, delta=2)

    def test_the_window_may_go_past_the_photo_only_where_it_is_cut_out(self):
        far = Box(left=-80, top=-80, width=200, height=200)
        self.assertEqual(edited(cut(), SetWindow(window=far)).frame.window.left, -80)
        whole = scene_of(finish_of(), sources_of(photo_with_square()))
        self.assertEqual(edited(whole, SetWindow(window=far)).frame.window.left, 0)
        wider = edited(cut(), ScaleWindow(factor=2))
        self.assertEqual(wider.frame.window.width, 400)

    def test_an_inside_line_may_run_along_where_the_size_cuts_the_subject(self):
        line = SubjectOutline(width=0.1, inside=True)
        half = Box(left=100, top=0, width=100, height=200)  # through the square's middle
        for along in (False, True):
            outlines = Outlines(lines=(line,), along_cuts=along)
            picture = render(edited(cut(outlines=outlines), SetWindow(window=half)))
            self.assertEqual(tuple(picture[100, 34]), (255, 255, 255))  # at the square's own side
            white = (picture[70:130, :8] > 250).all()
            self.assertEqual(bool(white), along)

    def test_a_drag_moves_the_subject_by_output_pixels(self):
        scene = scene_of(finish_of(100, 50, cut_out=cut().finish.cut_out), cut().sources)
        before = scene.frame.to_output(100, 100)
        moved = edited(scene, DragSubject(dx=7.25, dy=-3.5)).frame.to_output(100, 100)
        self.assertAlmostEqual(moved[0] - before[0], 7.25, places=4)
        self.assertAlmostEqual(moved[1] - before[1], -3.5, places=4)

    def test_near_lines_draw_its_sides_and_middle(self):
        scene = scene_of(finish_of(400, 400, cut_out=cut().finish.cut_out), cut().sources)
        scene = edited(scene, placing_proposal(scene, 1.5).edit)  # 150 to 250 of 400
        aside = apply_edit(scene, DragSubject(dx=140, dy=3, snap=8))
        where = scene_of(aside.finish, scene.sources).frame
        right, middle = where.to_output(140, 100)
        self.assertAlmostEqual(right, 400 - 16, delta=1.5)  # the margin is 4 %
        self.assertAlmostEqual(middle, 200, delta=1.5)
        self.assertEqual(
            [(round(one.x1), round(one.y1)) for one in aside.guides], [(384, 0), (0, 200)]
        )
        free = apply_edit(scene, DragSubject(dx=140, dy=3))
        self.assertEqual(free.guides, ())
        with self.assertRaisesRegex(BadInput, "find the subject first"):
            nothing = scene_of(finish_of(), sources_of(photo_with_square()))
            apply_edit(nothing, DragSubject(dx=1, dy=1))

    def test_subjects_of_several_photos_stand_as_high_on_the_same_line(self):
        tall, wide = noise(200, 200, 4), noise(200, 200, 4)
        for photo, (height, width) in ((tall, (100, 60)), (wide, (20, 150))):
            photo[:, :, 3] = 0
            photo[60 : 60 + height, 20 : 20 + width, 3] = 255
        sizes = [
            Size(id=f"wide-{width}", name="Wide", pixels=FixedPixels(width=width, height=400))
            for width in (300, 800)
        ]
        found = []
        for photo in (tall, wide):
            scene = scene_of(finish_of(sizes=sizes, cut_out={"on": True}), sources_of(photo))
            stood = apply_edit(scene, StandSubject(height=0.5, line=0.8)).finish
            for size in stood.sizes:
                box = subject_on_size(Scene(stood, size, scene.sources))
                self.assertAlmostEqual(box.bottom, 320, delta=2)
                before = subject_on_size(Scene.of(scene.finish, size.id, scene.sources)).centre[0]
                half = box.width / 2
                across = min(max(before, half), size.pixels.width - half)
                self.assertAlmostEqual(box.centre[0], across, delta=2)
                found.append((round(box.height), round(box.width / size.pixels.width, 2)))
        for height, _ in found[:2]:
            self.assertAlmostEqual(height, 200, delta=2)
        for _, across in found[2:]:  # too wide to be as high
            self.assertAlmostEqual(across, 0.92, delta=0.02)
        with self.assertRaisesRegex(BadInput, "find the subject first"):
            apply_edit(scene_of(finish_of(), sources_of(photo_with_square())), StandSubject())

    def test_a_photo_that_is_transparent_already_is_placed_by_what_is_there(self):
        photo = np.full((200, 200, 4), 255, np.uint8)
        photo[:100, :, 3] = 0
        scene = scene_of(finish_of(), sources_of(photo))
        scene = edited(scene, subject_proposal(scene).edit)
        box = placing_proposal(scene, 0).box
        self.assertAlmostEqual(box.top, 100, delta=1)
        self.assertAlmostEqual(box.height, 100, delta=1)
        self.assertEqual([one for one in check(scene) if one.key == "subject"], [])

    def test_a_subject_that_was_not_found_is_not_placed(self):
        scene = scene_of(finish_of(), sources_of(np.zeros((20, 20, 4), np.uint8)))
        scene = edited(scene, subject_proposal(scene).edit)
        with self.assertRaisesRegex(BadInput, "draw a box"):
            placing_proposal(scene, 0)

    def test_nothing_is_placed_before_it_is_cut_out(self):
        with self.assertRaises(BadInput):
            placing_proposal(scene_of(finish_of(), sources_of(photo_with_square())), 0.1)

    def test_finding_again_goes_on_to_the_next_candidate(self):
        photo = np.full((200, 400, 3), 128, np.uint8)
        photo[60:140, 60:140] = (200, 40, 30)
        photo[70:130, 270:330] = (40, 80, 200)
        scene = scene_of(finish_of(), sources_of(photo))
        seen = []
        while not seen or seen[-1] not in seen[:-1]:
            proposal = subject_proposal(scene)
            seen.append(proposal.edit.boxes)
            scene = edited(scene, proposal.edit)
            self.assertLess(len(seen), 9)
        self.assertGreater(len(seen), 2)
        self.assertEqual(seen[-1], seen[0])

    def test_the_focus_box_is_where_a_subject_is_looked_for(self):
        scene = scene_of(
            finish_of(focus={"point": {"x": 0.5, "y": 0.5}, "box": ROUND_SQUARE.boxes[0]}),
            sources_of(photo_with_square()),
        )
        self.assertEqual(subject_proposal(scene).edit.boxes, ROUND_SQUARE.boxes)

    def test_a_focus_that_was_only_proposed_is_no_box_around_the_subject(self):
        scene = scene_of(finish_of(), demo_sources("bird-figure.jpg"))
        proposed = focus_proposal(scene).edit
        looked_for = subject_proposal(scene).edit.boxes
        self.assertEqual(subject_proposal(edited(scene, proposed)).edit.boxes, looked_for)
        box = proposed.focus.box.moved(-0.01, 0)
        drawn = proposed.focus.model_copy(update={"box": box})
        scene = edited(scene, SetFocus(focus=drawn))
        self.assertEqual(subject_proposal(scene).edit.boxes, (box,))
