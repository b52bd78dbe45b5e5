"""Pieces that show only the subject of their picture, and take over the light around them."""

import unittest

import numpy as np

from lucky_margin.core.document import (
    Box,
    CutOut,
    Export,
    MarginAnchor,
    Overrides,
    PicturePiece,
    PieceChanges,
    Square,
    TextPiece,
    UsedSubject,
    renewed,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.piece_subjects import SetPieceSubject
from lucky_margin.core.edits.pieces import AddPicture
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.export import kept_subject
from lucky_margin.core.oklab import from_light
from lucky_margin.core.render import render
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import MemorySources
from tests.support import finish_of, noise, scene_of, sources_of, with_size

WALL, OTHER = "a" * 64, "b" * 64
GREY = 128
BOX = Box(left=0.2, top=0.1, width=0.5, height=0.6)
"""Around the subject of the picture, a red block that is not in its middle."""


def picture_with_block() -> np.ndarray:
    """A red block from (75, 30) to (150, 110) in a pale picture of 300 x 200."""
    picture = np.full((200, 300, 3), (225, 228, 230), np.uint8)
    picture[30:110, 75:150] = (200, 40, 30)
    return picture


def sources(wall: np.ndarray | None = None) -> MemorySources:
    wall = np.full((400, 400, 3), GREY, np.uint8) if wall is None else wall
    known = sources_of(wall), sources_of(picture_with_block())
    photos = [one._photos[next(iter(one._photos))] for one in known]
    return MemorySources({WALL: photos[0], OTHER: photos[1]})


def finish_with(*pieces, **fields):
    finish = finish_of(export=Export(format="png"), pieces=pieces, **fields)
    return finish.model_copy(update={"photo": finish.photo.model_copy(update={"sha256": WALL})})


def picture_piece(**fields) -> PicturePiece:
    return PicturePiece(id="picture-1", sha256=OTHER, ratio=1.5, width=0.6, **fields)


def used(version: int = 1, cut_out: CutOut | None = None) -> UsedSubject:
    """The block as it is kept."""
    finish = finish_of(cut_out=cut_out or CutOut(on=True, boxes=(BOX,)))
    kept = kept_subject(scene_of(finish, sources_of(picture_with_block())))
    return UsedSubject(id=7, name="Block", version=version, cut_out=kept.cut_out, box=kept.box)


def red(picture: np.ndarray) -> tuple[float, float, float]:
    """Middle (x, y) and number of the red pixels."""
    rows, columns = np.nonzero((picture[:, :, 0] > 150) & (picture[:, :, 1] < 90))
    return float(columns.mean()), float(rows.mean()), float(len(rows))


class SubjectOfPieceTest(unittest.TestCase):
    def test_the_subject_stays_where_it_was_and_as_large(self):
        corner = MarginAnchor(x=1, y=1)
        for angle, anchor in ((0, MarginAnchor()), (30, MarginAnchor()), (0, corner)):
            with self.subTest(angle=angle, anchor=anchor):
                scene = scene_of(finish_with(picture_piece(angle=angle, anchor=anchor)), sources())
                finish = apply_edit(scene, SetPieceSubject(id="picture-1", subject=used())).finish
                before, after = render(scene), render(scene_of(finish, scene.sources))
                np.testing.assert_allclose(red(after)[:2], red(before)[:2], atol=0.8)
                self.assertAlmostEqual(red(after)[2] / red(before)[2], 1, delta=0.04)
                pale = (after[:, :, :3].min(axis=2) > 200).sum()
                self.assertLess(pale, 0.02 * red(after)[2])

    def test_all_of_the_picture_comes_back_as_it_was(self):
        scene = scene_of(finish_with(picture_piece()), sources())
        cut = apply_edit(scene, SetPieceSubject(id="picture-1", subject=used())).finish
        whole = apply_edit(
            scene_of(cut, scene.sources), SetPieceSubject(id="picture-1", subject=None)
        ).finish
        piece = whole.pieces[0]
        self.assertIsNone(piece.subject)
        np.testing.assert_allclose((piece.width, piece.ratio), (0.6, 1.5), rtol=1e-9)
        np.testing.assert_allclose(
            render(scene_of(whole, scene.sources)).astype(int), render(scene), atol=1
        )

    def test_a_width_of_one_size_alone_is_cut_alike(self):
        own = Overrides(pieces={"picture-1": PieceChanges(width=0.3)})
        finish = with_size(finish_with(picture_piece()), overrides=own)
        subject = used()
        edited = apply_edit(
            scene_of(finish, sources()), SetPieceSubject(id="picture-1", subject=subject)
        ).finish
        width = edited.sizes[0].overrides.pieces["picture-1"].width
        self.assertAlmostEqual(width, 0.3 * subject.box.width)

    def test_a_newer_version_takes_the_place_of_an_older_one(self):
        scene = scene_of(finish_with(), sources())
        added = apply_edit(scene, AddPicture(sha256=OTHER, ratio=1.5, subject=used())).finish
        newer = used(version=2)
        self.assertEqual(renewed(added, newer).pieces[0].subject, newer)
        other = newer.model_copy(update={"id": 8})
        self.assertEqual(renewed(added, other), added)

    def test_a_subject_of_what_is_squared_up_keeps_its_proportions(self):
        """The left half of the picture, squared up, holds a part of the block."""
        square = Square(corners=((0, 0), (0.5, 0), (0.5, 1), (0, 1)), ratio=0.75)
        box = Box(left=0.3, top=0.05, width=0.7, height=0.7)
        finish = finish_of(cut_out=CutOut(on=True, boxes=(box,)))
        taken = finish.photo.model_copy(update={"square": square})
        finish = finish.model_copy(update={"photo": taken})
        kept = kept_subject(scene_of(finish, sources_of(picture_with_block())))
        self.assertEqual(kept.square, square)
        subject = UsedSubject(
            id=7, name="Half", version=1, square=square, cut_out=kept.cut_out, box=kept.box
        )
        scene = scene_of(finish_with(picture_piece()), sources())
        edited = apply_edit(scene, SetPieceSubject(id="picture-1", subject=subject)).finish
        # 75 x 80 pixels of the block.
        self.assertAlmostEqual(edited.pieces[0].ratio, 75 / 80, delta=0.03)

    def test_a_line_goes_round_the_subject(self):
        piece = picture_piece(stroke="#00FF00", stroke_width=0.02)
        scene = scene_of(finish_with(piece), sources())
        finish = apply_edit(scene, SetPieceSubject(id="picture-1", subject=used())).finish
        out = render(scene_of(finish, scene.sources)).astype(int)
        green = (out[:, :, 1] > 200) & (out[:, :, 0] < 80)
        wide, high = (np.ptp(np.nonzero(green)[axis]) + 1 for axis in (1, 0))
        # The block is 75 x 80 of 300 pixels, shown 240 wide, with 8 on all sides.
        np.testing.assert_allclose((wide, high), (60 + 16, 64 + 16), atol=3)

    def test_what_makes_no_sense_is_said(self):
        scene = scene_of(finish_with(TextPiece(id="text-1", text="A")), sources())
        with self.assertRaisesRegex(BadInput, "Only a picture"):
            apply_edit(scene, SetPieceSubject(id="text-1", subject=used()))
        with self.assertRaises(NotFound):
            apply_edit(scene, SetPieceSubject(id="picture-9", subject=None))
        uncut = scene_of(finish_of(), sources_of(picture_with_block()))
        with self.assertRaisesRegex(BadInput, "find the subject first"):
            kept_subject(uncut)


class MatchTest(unittest.TestCase):
    """A picture of noise on a coloured ground."""

    def shown(self, match, scale=1.0):
        wall = np.clip(noise(400, 400).astype(int) // 4 + (20, 60, 100), 0, 255).astype(np.uint8)
        piece = picture_piece(match=match)
        return render(scene_of(finish_with(piece), sources(wall)), scale=scale)

    def lab_of(self, picture):
        """Mean of the piece's middle, in OKLab."""
        return from_light(decode(picture[150:250, 110:290, :3] / 255)).reshape(-1, 3).mean(axis=0)

    def test_the_more_it_matches_the_more_its_colours_are_those_around(self):
        ground = (
            from_light(decode(self.shown(0)[:100, :, :3].astype(float) / 255))
            .reshape(-1, 3)
            .mean(axis=0)
        )
        away = [np.abs(self.lab_of(self.shown(match)) - ground)[0] for match in (0, 50, 100)]
        self.assertGreater(away[0], 2 * away[1])
        self.assertGreater(away[1], 1.5 * away[2])

    def test_what_matches_nothing_has_its_own_colours(self):
        piece = picture_piece(match=0).model_copy(update={"width": 0.75})
        out = render(scene_of(finish_with(piece), sources()))
        np.testing.assert_array_equal(out[100:300, 50:350, :3], picture_with_block())

    def test_previews_and_regions_show_what_the_export_will_have(self):
        full = self.shown(80).astype(float)
        half = self.shown(80, scale=0.5)
        shrunk = full.reshape(200, 2, 200, 2, -1).mean(axis=(1, 3))
        self.assertLess(np.abs(shrunk - half)[80:120, 60:140].mean(), 2)


if __name__ == "__main__":
    unittest.main()
