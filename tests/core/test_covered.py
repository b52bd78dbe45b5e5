"""Covered zones: what lies under a clock, a bar or a round picture, and the way out."""

import unittest

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    SIZE_LIBRARY,
    CoveredZone,
    MarginAnchor,
    TextPiece,
)
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.covered import DragCovered, SetCovered
from lucky_margin.core.edits.sizes import UseSize
from lucky_margin.core.errors import BadDocument, NotFound
from lucky_margin.core.outlines import covered_region
from lucky_margin.core.render import layout
from tests.support import finish_of, noise, scene_of, sources_of, with_size

SOURCES = sources_of(noise(400, 400))
CORNER = MarginAnchor(x=1, y=1)


def zone(left, top, width, height, **fields):
    box = {"left": left, "top": top, "width": width, "height": height}
    return CoveredZone.model_validate({"name": "clock", "box": box, **fields})


def finish(*zones, x=0.5, y=0.9, **fields):
    text = TextPiece(id="text-1", text="Glaze", anchor=MarginAnchor(x=x, y=y), wrap=None)
    return with_size(finish_of(400, 400, pieces=(text,), **fields), covered=zones)


def said(finish):
    return [one for one in check(scene_of(finish, SOURCES)) if one.key == "covered"]


class CheckTest(unittest.TestCase):
    def test_words_clear_of_all_zones_are_no_matter(self):
        self.assertEqual(said(finish(zone(0, 0, 1, 0.5), zone(0.9, 0.9, 0.1, 0.1))), [])

    def test_words_under_a_zone_are_said_and_moved_clear_the_shortest_way(self):
        covered = finish(zone(0, 0.8, 1, 0.2))
        (found,) = said(covered)
        self.assertRegex(found.text, r"“Glaze” lies \d+.% under the clock\.")
        scene = scene_of(covered, SOURCES)
        moved = apply_edit(scene, found.action.edit).finish
        self.assertEqual(said(moved), [])
        before, after = scene.pieces[0], scene_of(moved, SOURCES).pieces[0]
        self.assertAlmostEqual(after.x, before.x)
        self.assertAlmostEqual(after.bounds.bottom, 0.8 * 400 - 2, places=6)

    def test_between_two_zones_there_is_a_way_round_the_corner(self):
        covered = finish(zone(0.3, 0.7, 0.7, 0.3), zone(0, 0.5, 0.3, 0.5))
        (found, *_) = said(covered)
        moved = apply_edit(scene_of(covered, SOURCES), found.action.edit).finish
        self.assertEqual(said(moved), [])

    def test_where_there_is_no_room_nothing_is_offered(self):
        (found,) = said(finish(zone(0, 0, 1, 1)))
        self.assertIsNone(found.action)

    def test_the_corner_of_a_round_zone_covers_nothing(self):
        square, circle = zone(0.6, 0.6, 0.36, 0.345), zone(0.6, 0.6, 0.36, 0.345, round=True)
        area = covered_region(circle, 400, 400).area / covered_region(square, 400, 400).area
        self.assertAlmostEqual(area, 0.785, places=2)
        # A letter in the margin's corner, which is that of the zones' box.
        text = TextPiece(id="text-1", text="i", size=0.03, anchor=CORNER, wrap=None)
        for one, count in ((square, 1), (circle, 0)):
            with self.subTest(round=one.round):
                lettered = with_size(finish_of(400, 400, pieces=(text,)), covered=(one,))
                self.assertEqual(len(said(lettered)), count)

    def test_a_covered_focus_box_is_said(self):
        box = {"left": 0.4, "top": 0.1, "width": 0.2, "height": 0.2}
        focus = {"point": {"x": 0.5, "y": 0.2}, "box": box}
        (found,) = said(finish(zone(0.4, 0.1, 0.1, 0.2), focus=focus))
        self.assertIn("50\N{NO-BREAK SPACE}% of the focus box", found.text)


class EditTest(unittest.TestCase):
    def dragged(self, finish, **fields):
        edit = DragCovered.model_validate({"dx": 0, "dy": 0, "number": 0} | fields)
        return apply_edit(scene_of(finish, SOURCES), edit).finish.sizes[0].covered[0].box

    def test_a_zone_is_moved_and_made_larger_within_the_size(self):
        covered = finish(zone(0.1, 0.1, 0.2, 0.2))
        self.assertAlmostEqual(self.dragged(covered, dx=40).left, 0.2)
        self.assertAlmostEqual(self.dragged(covered, dx=-400, dy=4000).left, 0)
        self.assertAlmostEqual(self.dragged(covered, dx=-400, dy=4000).top, 0.8)
        larger = self.dragged(covered, grip="corner", dx=40, dy=9000)
        self.assertAlmostEqual(larger.width, 0.3)
        self.assertAlmostEqual(larger.top + larger.height, 1)
        self.assertAlmostEqual(self.dragged(covered, grip="corner", dx=-4000).width, 0.02)

    def test_bad_zones_are_refused(self):
        with self.assertRaises(NotFound):
            self.dragged(finish())
        with self.assertRaises(BadDocument):
            finish_of(
                sizes=[{"id": "a", "name": "A", "pixels": {"kind": "as_cropped"}, "covered": []}]
            )
            apply_edit(scene_of(finish(), SOURCES), SetCovered.model_construct(covered=[1] * 5))

    def test_a_size_of_the_library_brings_its_zones_and_they_are_laid_out(self):
        plan = next(size.plan for size in SIZE_LIBRARY if size.key == "story")
        story = apply_edit(scene_of(finish_of(), SOURCES), UseSize(plan=plan)).finish
        laid = layout(scene_of(story, SOURCES)).covered
        self.assertEqual([one.name for one in laid], ["upper bar", "lower bar"])
        self.assertAlmostEqual(laid[0].box.height, 0.12 * 1920)
        none = apply_edit(scene_of(story, SOURCES), SetCovered(covered=())).finish
        self.assertEqual(describe_change(story, none), "Story: covered zones")
