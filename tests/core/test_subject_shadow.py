"""The subject's shadows, and pieces behind it."""

import unittest

import cv2
import numpy as np

from lucky_margin.core.blurring import blurred
from lucky_margin.core.checks import check
from lucky_margin.core.cut_out import own_shadow
from lucky_margin.core.document import (
    BadgePiece,
    Box,
    CastShadow,
    ContactShadow,
    Focus,
    Outlines,
    PieceChanges,
    Point,
    SolidColour,
    SubjectOutline,
    SubjectShadow,
    SubjectShadowChanges,
    TextPiece,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import SetSubject
from lucky_margin.core.edits.framing import SetWindow
from lucky_margin.core.edits.moving import DragPieces
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.edits.steps import Follow, SetSubjectShadow, SwitchStep
from lucky_margin.core.render import calm_places_of, render
from lucky_margin.core.scene import Scene
from tests.support import finish_of, noise, scene_of, sources_of

SIDE = 200
ROUND_SQUARE = SetSubject(boxes=(Box(left=0.2, top=0.2, width=0.6, height=0.6),))
GROUND = "#80C0E0"


def photo_with_square() -> np.ndarray:
    """A red square from 60 to 140 in a grey photo."""
    photo = np.full((SIDE, SIDE, 3), 128, np.uint8)
    photo[60:140, 60:140] = (200, 40, 30)
    return photo


def cut(shadow: SubjectShadow, photo: np.ndarray | None = None, **fields) -> Scene:
    sources = sources_of(photo_with_square() if photo is None else photo)
    fields = {"backdrop": SolidColour(colour=GROUND), "subject_shadow": shadow, **fields}
    return scene_of(
        apply_edit(scene_of(finish_of(**fields), sources), ROUND_SQUARE).finish, sources
    )


def darkness(scene: Scene, **how) -> np.ndarray:
    """How much (0..1) of the ground's light each pixel lacks."""
    return 1 - render(scene, **how)[:, :, 2].astype(float) / 0xE0


class CastTest(unittest.TestCase):
    def test_it_is_the_subjects_shape_moved_by_its_distance_and_angle(self):
        shadow = CastShadow(angle=120, distance=0.2, softness=0, opacity=0.5)
        dark = darkness(cut(SubjectShadow(cast=shadow)))
        x, y = 0.2 * SIDE * np.sin(np.radians(120)), -0.2 * SIDE * np.cos(np.radians(120))
        left, top = 60 + x, 60 + y  # 34.6 to the right, 20 down
        inside = dark[round(top) + 3 : round(top) + 77, 143 : round(left) + 77]
        np.testing.assert_allclose(inside, 0.5, atol=0.02)
        # Half covered pixels lie where the formula says.
        edge = dark[150, 60 : round(left) + 3]
        self.assertAlmostEqual(60 + np.argmax(edge > 0.25), left, delta=1.5)
        self.assertLess(dark[:58].max(), 0.01)

    def test_its_edge_fades_as_a_gaussian_does(self):
        shadow = CastShadow(angle=180, distance=0.25, softness=0.1, opacity=1)
        found = 255 * darkness(cut(SubjectShadow(cast=shadow)))[145:, 100]
        square = np.zeros((400, 400), np.float32)
        square[160:240, 160:240] = 1
        true = cv2.GaussianBlur(square, (0, 0), 0.1 * SIDE / 2)
        along = 255 * true[145 - 50 + 100 : 145 - 50 + 100 + len(found), 200]
        self.assertLess(np.abs(found - along).mean(), 4)

    def test_a_wide_blur_on_a_smaller_picture_is_the_same(self):
        values = np.zeros((300, 300), np.float32)
        values[80:200, 110:240] = 1
        for deviation in (2, 9, 25):
            plain = cv2.GaussianBlur(values, (0, 0), deviation, borderType=cv2.BORDER_REPLICATE)
            self.assertLess(np.abs(blurred(values, deviation) - plain).max(), 0.02, deviation)

    def test_none_and_one_of_nothing_change_nothing(self):
        plain = render(cut(SubjectShadow()))
        under = CastShadow(distance=0, softness=0, opacity=1)
        np.testing.assert_array_equal(plain[:50], render(cut(SubjectShadow(cast=under)))[:50])
        off = apply_edit(
            cut(SubjectShadow(cast=CastShadow())), SwitchStep(step="cut_out", on=False)
        )
        whole = scene_of(off.finish, sources_of(photo_with_square()))
        np.testing.assert_array_equal(render(whole), photo_with_square())

    def test_a_part_is_the_same_as_in_the_whole_and_small_is_shrunk(self):
        both = SubjectShadow(cast=CastShadow(), contact=ContactShadow())
        whole = render(cut(both))
        part = render(cut(both), region=(90, 110, 70, 60))
        self.assertLessEqual(np.abs(part.astype(int) - whole[110:170, 90:160]).max(), 1)
        half = render(cut(both), scale=0.5).astype(float)
        shrunk = whole.reshape(100, 2, 100, 2, 3).mean(axis=(1, 3))
        self.assertLess(np.abs(half - shrunk).mean(), 1.5)

    def test_it_covers_the_whole_picture_where_that_is_asked(self):
        shadow = CastShadow(distance=0.5, softness=0.4, opacity=1)
        self.assertEqual(render(cut(SubjectShadow(cast=shadow))).shape, (SIDE, SIDE, 3))


class ContactTest(unittest.TestCase):
    def test_it_lies_at_the_foot_and_as_wide(self):
        shadow = ContactShadow(height=0.1, softness=0, opacity=1)
        dark = darkness(cut(SubjectShadow(contact=shadow))) > 0.4
        rows, columns = np.nonzero(dark[:, :] & ~_red(cut(SubjectShadow())))
        self.assertAlmostEqual(rows.max(), 140 + 0.3 * 0.1 * SIDE, delta=2)
        self.assertGreaterEqual(rows.min(), 139)
        self.assertAlmostEqual(columns.min(), 60, delta=2)
        self.assertAlmostEqual(columns.max(), 139, delta=2)

    def test_a_subject_that_is_not_there_throws_none(self):
        scene = cut(SubjectShadow(contact=ContactShadow()), np.full((9, 9, 3), 90, np.uint8))
        self.assertEqual(render(scene).shape[:2], (9, 9))


def _red(scene: Scene) -> np.ndarray:
    picture = render(scene).astype(int)
    return picture[:, :, 0] > picture[:, :, 2] + 60


class OwnShadowTest(unittest.TestCase):
    def photo(self):
        """A subject on an uneven ground with a soft shadow, and how dark that truly is."""
        y, x = np.mgrid[:300, :400]
        lit = 0.75 + 0.1 * (x / 400) - 0.08 * (y / 300) ** 2
        true = 0.35 * np.exp(-(((x - 240) / 60) ** 2 + ((y - 190) / 18) ** 2))
        light = lit * (1 - true) + 0.002 * (noise(400, 300)[:, :, 0] / 127.5 - 1)
        photo = np.repeat(light[:, :, None], 3, axis=2).astype(np.float32)
        matte = np.zeros((300, 400), np.uint8)
        matte[80:190, 150:230] = 255
        photo[matte > 0] = (0.6, 0.2, 0.1)
        return photo, matte, true

    def test_it_is_found_as_dark_as_it_is_and_nothing_beside_it(self):
        photo, matte, true = self.photo()
        found = own_shadow(photo, matte) / 255
        ground = cv2.dilate(matte, np.ones((15, 15), np.uint8)) == 0
        self.assertLess(np.abs(found - true)[ground & (true > 0.05)].mean(), 0.02)
        self.assertLess(found[ground & (true < 0.002)].max() * 255, 2)

    def test_past_the_photos_edges_there_is_none(self):
        photo = np.rint(255 * self.photo()[0][:, :280]).astype(np.uint8)  # through the shadow
        box = SetSubject(boxes=(Box(left=0.45, top=0.2, width=0.45, height=0.5),))
        white = SolidColour(colour="#FFFFFF")
        finish = finish_of(backdrop=white, subject_shadow=SubjectShadow(own=1))
        sources = sources_of(photo)
        scene = scene_of(apply_edit(scene_of(finish, sources), box).finish, sources)
        past = SetWindow(window=Box(left=100, top=0, width=400, height=300))
        picture = render(scene_of(apply_edit(scene, past).finish, sources))
        self.assertLess(picture[195, 170:178].max(), 230)
        self.assertEqual(picture[:, 182:].min(), 255)

    def test_an_even_ground_has_none(self):
        photo = np.full((100, 100, 3), 0.7, np.float32)
        matte = np.zeros((100, 100), np.uint8)
        matte[40:60, 40:60] = 255
        self.assertEqual(own_shadow(photo, matte).max(), 0)

    def test_a_photo_that_is_all_subject_has_none(self):
        nothing = own_shadow(
            np.full((20, 20, 3), 0.5, np.float32), np.full((20, 20), 255, np.uint8)
        )
        self.assertEqual(nothing.max(), 0)


class DocumentTest(unittest.TestCase):
    def test_one_size_may_have_a_shadow_of_its_own_and_follow_again(self):
        scene = cut(SubjectShadow(cast=CastShadow()))
        other_size = scene.finish.sizes[0].model_copy(update={"id": "other"})
        finish = scene.finish.model_copy(update={"sizes": (*scene.finish.sizes, other_size)})
        other = Scene.of(finish, "other", scene.sources)
        none = SubjectShadowChanges(cast=None, own=0.5)
        own = apply_edit(other, SetSubjectShadow(changes=none, only_this_size=True)).finish
        self.assertEqual(Scene.of(own, "other", scene.sources).subject_shadow.own, 0.5)
        self.assertIsNotNone(Scene.of(own, "main", scene.sources).subject_shadow.cast)
        again = apply_edit(Scene.of(own, "other", scene.sources), Follow(step="subject_shadow"))
        self.assertEqual(again.finish.size("other").overrides.overridden, [])


class BehindTest(unittest.TestCase):
    """Drawn back to front: ground, pieces behind, shadow, outlines, subject, pieces."""

    BAND = BadgePiece(id="band", width=2, height=0.1, colour="#00FF00", behind=True)
    LINE = SubjectOutline(width=0.05, colour="#0000FF")

    def test_a_piece_lies_under_shadow_outline_and_subject(self):
        shadow = CastShadow(angle=90, distance=0.3, softness=0, opacity=0.5)
        scene = cut(
            SubjectShadow(cast=shadow), pieces=(self.BAND,), outlines=Outlines(lines=(self.LINE,))
        )
        middle = render(scene)[100]
        self.assertEqual(tuple(middle[20]), (0, 255, 0))
        self.assertEqual(tuple(middle[55]), (0, 0, 255))
        self.assertGreater(middle[100][0], 180)
        np.testing.assert_allclose(middle[170], (0, 128, 0), atol=3)

    def test_without_a_cut_out_nothing_is_behind(self):
        sources = sources_of(photo_with_square())
        scene = scene_of(finish_of(pieces=(self.BAND,)), sources)
        self.assertEqual(tuple(render(scene)[100, 100]), (0, 255, 0))

    def test_words_over_the_subject_can_be_put_behind_it(self):
        words = TextPiece(id="words", text="HELLO", size=0.3, colour="#000000")
        focus = Focus(point=Point(x=0.5, y=0.5), box=ROUND_SQUARE.boxes[0])
        scene = cut(SubjectShadow(), pieces=(words,), focus=focus)
        over = next(one for one in check(scene) if one.key == "over focus")
        self.assertEqual(over.action.label, "Move it behind the subject")
        behind = scene_of(apply_edit(scene, over.action.edit).finish, scene.sources)
        self.assertTrue(behind.pieces[0].piece.behind)
        self.assertNotIn("over focus", [one.key for one in check(behind)])

    def test_words_that_the_subject_hides_are_said(self):
        words = TextPiece(id="words", text="HI", size=0.15, colour="#000000", behind=True)
        scene = cut(SubjectShadow(), pieces=(words,))
        hidden = next(one for one in check(scene) if one.key == "hidden")
        self.assertRegex(hidden.text, r"hides \d+\s% of .*HI")
        front = scene_of(apply_edit(scene, hidden.action.edit).finish, scene.sources)
        self.assertFalse(front.pieces[0].piece.behind)

    def test_only_what_can_be_seen_of_words_is_judged(self):
        """Black letters on a light ground can be read, though the subject before them is dark."""
        photo = photo_with_square()
        photo[60:140, 60:140] = (20, 10, 10)
        words = TextPiece(id="words", text="MMMMMM", size=0.2, colour="#000000", behind=True)
        scene = cut(SubjectShadow(), photo, pieces=(words,))
        self.assertNotIn("contrast", [o.key for o in check(scene) if o.severity == "warning"])
        over = SetPiece(ids=("words",), changes=PieceChanges(behind=False))
        front = scene_of(apply_edit(scene, over).finish, scene.sources)
        self.assertIn("contrast", [o.key for o in check(front) if o.severity == "warning"])

    def test_a_new_crop_moves_subject_and_shadow_together(self):
        scene = cut(SubjectShadow(cast=CastShadow(angle=180, distance=0.1, softness=0, opacity=1)))
        window = SetWindow(window=Box(left=10, top=0, width=200, height=200))
        moved = scene_of(apply_edit(scene, window).finish, scene.sources)
        apart = np.abs(render(moved)[:, 20:170].astype(int) - render(scene)[:, 30:180])
        self.assertLess(apart.max(), 4)


class PieceBySubjectTest(unittest.TestCase):
    """The red square lies from 60 to 140 on the size."""

    def test_a_dragged_piece_is_drawn_to_the_subjects_sides(self):
        badge = BadgePiece(id="badge-1", form="label", width=0.1, height=0.1)
        scene = cut(SubjectShadow(), pieces=(badge,))
        # In the middle, 20 wide: its right side at 110.
        edit = DragPieces(ids=("badge-1",), dx=28, dy=0, snap=4)
        edited = apply_edit(scene, edit)
        after = scene_of(edited.finish, scene.sources)
        self.assertAlmostEqual(after.pieces[0].bounds.right, 140, delta=0.6)
        self.assertTrue(any(abs(guide.x1 - 140) < 0.6 for guide in edited.guides))

    def test_a_calm_place_for_words_is_beside_the_subject(self):
        words = TextPiece(id="text-1", text="Soft", size=0.1)
        scene = cut(SubjectShadow(), pieces=(words,))
        own = scene.pieces[0].bounds
        for place in calm_places_of(scene, "text-1")[:3]:
            across = abs(place.x - 100) - own.width / 2
            down = abs(place.y - 100) - own.height / 2
            self.assertGreater(max(across, down), 40 - 3)
