"""Another photo in a finish: what hung on the old one goes, everything else stays."""

import unittest

import numpy as np

from lucky_margin.core.document import (
    Area,
    BandMask,
    Crop,
    CutOut,
    Export,
    FixedPixels,
    Focus,
    Lift,
    Lifts,
    LightMask,
    PhotoAnchor,
    PhotoPoint,
    Point,
    Size,
    Spot,
    Spots,
    SubjectRegion,
    TextPiece,
    Tone,
    Turn,
    Window,
)
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.swapping import SwapPhoto
from lucky_margin.core.errors import NotFound
from lucky_margin.core.proposals import swap_proposal
from lucky_margin.core.render import render
from lucky_margin.core.scene import Scene
from tests.support import SHA, finish_of, gradient, noise, scene_of, sources_of

OTHER = "cd" * 32
SOURCES = sources_of(noise(300, 200), others={OTHER: gradient(400, 600)})

BOX = {"left": 0.2, "top": 0.2, "width": 0.4, "height": 0.4}
BAND, LIGHT = Area(masks=(BandMask(),), exposure=1), Area(masks=(LightMask(),), exposure=1)
WORDS = TextPiece(id="words", text="Hello")
ON_PHOTO = PhotoAnchor(point=PhotoPoint(x=0.3, y=0.6))

KEPT = {
    "border": {"bands": [{"kind": "line", "colour": "#0A6B52"}]},
    "watermark": {"on": True, "text": "Pebblewick"},
    "backdrop": {"kind": "colour", "colour": "#AABBCC"},
}


def full_finish():
    """A finish in which everything that can hang on a photo does."""
    own_size = Size(
        id="own",
        name="Wide",
        pixels=FixedPixels(width=400, height=200),
        crop=Crop(window=Window(centre_x=100, centre_y=100, width=100, height=50), contain=True),
    ).with_overrides(turn={"straighten": 3.0}, tone={"areas": (BAND,), "contrast": 20})
    square = Size(id="square", name="Square", pixels=FixedPixels(width=200, height=200))
    return finish_of(
        focus=Focus(point=Point(x=0.1, y=0.1)),
        turn=Turn(quarters=1),
        spots=Spots(filled=(Spot(radius=0.01, points=((0.5, 0.5),)),)),
        tone=Tone(exposure=0.5, areas=(BAND, LIGHT)),
        cut_out=CutOut(boxes=(BOX,)),
        lifts=Lifts(lifted=(Lift(), Lift(region=SubjectRegion()))),
        treatments={"made": [{"kind": "grain"}, {"kind": "glow", "masks": [BandMask()]}]},
        pieces=(WORDS, WORDS.model_copy(update={"id": "there", "anchor": ON_PHOTO})),
        export=Export(alt_text="A bowl", author="Ada"),
        sizes=(square, own_size),
        **KEPT,
    )


class SwapTest(unittest.TestCase):
    def swapped(self, finish, **fields):
        return apply_edit(scene_of(finish, SOURCES), SwapPhoto(sha256=OTHER, **fields))

    def test_what_hung_on_the_old_photo_goes(self):
        box = BOX | {"left": 0.5}
        after = self.swapped(
            full_finish(), focus=Focus(point=Point(x=0.7, y=0.2)), subjects=(box,)
        ).finish
        self.assertEqual(after.photo.sha256, OTHER)
        self.assertEqual(after.focus.point, Point(x=0.7, y=0.2))
        self.assertEqual(after.turn, Turn())
        self.assertEqual(after.spots.filled, ())
        self.assertEqual(after.tone.areas, (LIGHT,))
        self.assertEqual([one.kind for one in after.treatments.made], ["grain"])
        self.assertEqual([one.region.kind for one in after.lifts.lifted], ["subject"])
        self.assertEqual([one.left for one in after.cut_out.boxes], [0.5])
        self.assertEqual(after.export.alt_text, "")
        own = after.size("own")
        self.assertIsNone(own.crop.window)
        self.assertFalse(own.overrides.turn.given)
        self.assertEqual(own.overrides.tone.model_dump(), {"areas": (), "contrast": 20})

    def test_everything_else_stays(self):
        before = full_finish()
        after = self.swapped(before).finish
        for field in (*KEPT, "name", "pieces", "outside", "outlines"):
            self.assertEqual(getattr(after, field), getattr(before, field), field)
        self.assertEqual(after.tone.exposure, 0.5)
        self.assertEqual(after.export.author, "Ada")
        self.assertTrue(after.size("own").crop.contain)
        self.assertEqual([size.pixels for size in after.sizes], [s.pixels for s in before.sizes])

    def test_a_finish_swapped_there_and_back_has_nothing_more_to_lose(self):
        there = self.swapped(full_finish())
        back = apply_edit(scene_of(there.finish, SOURCES), SwapPhoto(sha256=SHA))
        again = apply_edit(scene_of(back.finish, SOURCES), SwapPhoto(sha256=OTHER))
        self.assertEqual(again.finish, there.finish)
        self.assertNotIn("Gone", again.message)

    def test_a_subject_placed_by_hand_is_as_tall_on_the_same_line(self):
        window = Window(centre_x=150, centre_y=90, width=240, height=120)
        wide = Size(
            id="main",
            name="Wide",
            pixels=FixedPixels(width=480, height=240),
            crop=Crop(window=window),
        )
        before = finish_of(cut_out=CutOut(on=True, boxes=(BOX,)), sizes=(wide,))
        new_box = {"left": 0.5, "top": 0.3, "width": 0.2, "height": 0.6}
        after = self.swapped(before, subjects=(new_box,))
        places = []
        for finish, sides in ((before, (300, 200)), (after.finish, (400, 600))):
            scene = scene_of(finish, SOURCES)
            box, frame = finish.cut_out.box.scaled(*sides), scene.frame
            places.append(
                [
                    (box.centre[0] - frame.window.left) * frame.enlargement,
                    (box.bottom - frame.window.top) * frame.enlargement,
                    box.height * frame.enlargement,
                ]
            )
        np.testing.assert_allclose(places[1], places[0], atol=0.01)
        self.assertEqual(after.message, "The subject is found anew; look at its edge.")

    def test_it_is_said_what_went_and_what_still_points_there(self):
        message = self.swapped(full_finish()).message
        self.assertEqual(
            message,
            "Gone with the old photo: 1 crop of your own, the turning, 1 spot, 1 area of tone, "
            "1 treatment of a place, 1 lift, the alternative text. "
            "1 piece points to a place on the old photo; see where to.",
        )
        self.assertEqual(self.swapped(finish_of()).message, "")
        cut_out = self.swapped(finish_of(cut_out=CutOut(on=True, boxes=(BOX,)))).message
        self.assertEqual(cut_out, "The subject is found anew; look at its edge.")

    def test_the_revision_is_called_after_it(self):
        before = full_finish()
        self.assertEqual(describe_change(before, self.swapped(before).finish), "Another photo")

    def test_the_picture_is_of_the_new_photo(self):
        plain = finish_of(100, 150)
        picture = render(scene_of(self.swapped(plain).finish, SOURCES))
        expected = render(scene_of(finish_of(100, 150), sources_of(gradient(400, 600))))
        np.testing.assert_array_equal(picture, expected)

    def test_a_finish_without_a_photo_gets_one(self):
        fixed = Size(id="main", name="Banner", pixels=FixedPixels(width=90, height=60))
        none = finish_of(photo=None, sizes=(fixed,), **KEPT)
        after = self.swapped(none)
        self.assertEqual(after.finish.photo.sha256, OTHER)
        self.assertEqual(after.finish.border, none.border)
        self.assertEqual(describe_change(none, after.finish), "A photo put in")
        self.assertEqual(after.message, "")

    def test_an_unknown_photo_is_refused(self):
        with self.assertRaises(NotFound):
            apply_edit(scene_of(finish_of(), SOURCES), SwapPhoto(sha256="ef" * 32))


class ProposalTest(unittest.TestCase):
    """A disc of its own colour on a plain ground is what matters in the new photo."""

    def setUp(self):
        rows, columns = np.mgrid[0:400, 0:600]
        photo = np.full((400, 600, 3), 205, np.uint8)
        photo[np.hypot(rows - 260, columns - 420) < 80] = (190, 40, 30)
        self.sources = sources_of(noise(300, 200), others={OTHER: photo})

    def proposed(self, finish):
        scene = Scene(finish, finish.sizes[0], self.sources)
        proposal = swap_proposal(scene, OTHER)
        return apply_edit(scene, proposal.edit).finish

    def test_the_new_subject_is_found_where_the_old_one_was_cut_out(self):
        after = self.proposed(finish_of(cut_out=CutOut(on=True, boxes=(BOX,))))
        self.assertTrue(after.cut_out.on)
        self.assertIsNone(after.focus)
        (box,) = after.cut_out.boxes
        self.assertTrue(box.left <= 0.58 and box.right >= 0.82, box)
        self.assertTrue(box.top <= 0.46 and box.bottom >= 0.84, box)

    def test_a_strip_two_pixels_high_is_looked_at_too(self):
        strip = np.full((2, 4000, 3), 205, np.uint8)
        self.sources = sources_of(noise(300, 200), others={OTHER: strip})
        after = self.proposed(finish_of(cut_out=CutOut(on=True, boxes=(BOX,))))
        self.assertEqual(after.photo.sha256, OTHER)

    def test_none_is_looked_for_where_none_was(self):
        after = self.proposed(finish_of())
        self.assertEqual(after.cut_out, CutOut(found_by=after.cut_out.found_by))
        self.assertEqual(after.photo.sha256, OTHER)
        self.assertAlmostEqual(after.focus.point.x, 0.7, delta=0.1)
        self.assertAlmostEqual(after.focus.point.y, 0.65, delta=0.1)
