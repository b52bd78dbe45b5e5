"""Areas of tone under the subject, and under all but the subject."""

import unittest

import numpy as np

from lucky_margin.core.document import (
    Area,
    BandMask,
    Box,
    CutOut,
    Export,
    PhotoPoint,
    SubjectAreaMask,
    ThisPhoto,
    Tone,
    Turn,
    Window,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import SetSubject
from lucky_margin.core.edits.tone import AddArea
from lucky_margin.core.errors import BadInput
from lucky_margin.core.proposals import found_subject
from lucky_margin.core.render import render
from lucky_margin.core.tone import toned
from tests.support import finish_of, noise, scene_of, sources_of, with_size

SIDE = 200
BOX = Box(left=0.2, top=0.2, width=0.6, height=0.6)
SUBJECT, REST = SubjectAreaMask(), SubjectAreaMask(inverted=True)
PNG = Export(format="png")


def photo_with_square() -> np.ndarray:
    """A red square from 60 to 140 in a bluish photo."""
    photo = np.full((SIDE, SIDE, 3), (90, 110, 150), np.uint8)
    photo[60:140, 60:140] = (200, 40, 30)
    return photo


def drawn(*masks, cut_out=None, exposure=-1.0, scale=1.0, **fields):
    """The photo with an area under these masks, its subject found and not cut out."""
    finish = finish_of(
        tone=Tone(areas=(Area(masks=masks, exposure=exposure),)),
        cut_out=cut_out or CutOut(boxes=(BOX,)),
        export=PNG,
        **fields,
    )
    return render(scene_of(finish, sources_of(photo_with_square())), scale=scale)


class SubjectMaskTest(unittest.TestCase):
    def test_the_subject_and_the_rest_are_toned_each_alone(self):
        photo = photo_with_square()
        inside = np.s_[62:138, 62:138]
        dark_subject, dark_rest = drawn(SUBJECT), drawn(REST)
        self.assertLess(dark_subject[inside].max(), 160)
        np.testing.assert_array_equal(dark_subject[:55], photo[:55])
        np.testing.assert_array_equal(dark_rest[inside], photo[inside])
        self.assertLess(dark_rest[:55].max(), 120)

    def test_the_mask_follows_a_new_crop_and_turn(self):
        finish = finish_of(
            tone=Tone(areas=(Area(masks=(REST,), exposure=-1),)),
            cut_out=CutOut(boxes=(BOX,)),
            export=PNG,
        )
        sources = sources_of(photo_with_square())
        full = render(scene_of(finish, sources))
        window = Window(centre_x=140, centre_y=100, width=80, height=80)
        part = render(scene_of(with_size(finish, crop={"window": window.model_dump()}), sources))
        self.assertLessEqual(np.abs(part.astype(int) - full[60:140, 100:180]).max(), 1)
        turned = finish.model_copy(update={"turn": Turn(quarters=1, mirrored=True)})
        quarter = render(scene_of(turned, sources)).astype(int)
        self.assertLessEqual(np.abs(quarter - full[:, ::-1].swapaxes(0, 1)[:, ::-1]).max(), 1)

    def test_it_intersects_with_other_masks(self):
        upper = BandMask(start=PhotoPoint(x=0.5, y=0.49), end=PhotoPoint(x=0.5, y=0.51))
        out = drawn(SUBJECT, upper)
        photo = photo_with_square()
        self.assertLess(out[65:95, 100].max(), 160)
        np.testing.assert_array_equal(out[105:], photo[105:])
        np.testing.assert_array_equal(out[:55], photo[:55])

    def test_its_edge_moves_by_its_shift_and_fades_over_its_feather(self):
        plain = drawn(SUBJECT)[100, :, 0].astype(float)
        wider = drawn(SubjectAreaMask(shift=0.05))[100, :, 0].astype(float)
        narrower = drawn(SubjectAreaMask(shift=-0.05))[100, :, 0].astype(float)
        photo = photo_with_square()[100, :, 0]
        changed = [np.flatnonzero(row != photo)[[0, -1]] for row in (plain, wider, narrower)]
        np.testing.assert_allclose(changed[1], changed[0] + (-10, 10), atol=1)
        np.testing.assert_allclose(changed[2], changed[0] + (10, -10), atol=1)
        feathered = drawn(SubjectAreaMask(feather=0.1))[100, :, 2] / photo_with_square()[100, :, 2]
        soft = np.flatnonzero((feathered < 0.99) & (feathered > 0.75))
        self.assertTrue(((soft > 40) & (soft < 80) | (soft > 120) & (soft < 160)).all())
        self.assertGreater(len(soft), 15)

    def test_two_edges_of_one_subject_are_told_apart(self):
        areas = tuple(
            Area(masks=(mask,), exposure=-1) for mask in (SUBJECT, SubjectAreaMask(shift=0.05))
        )
        finish = finish_of(tone=Tone(areas=areas), cut_out=CutOut(boxes=(BOX,)), export=PNG)
        out = render(scene_of(finish, sources_of(photo_with_square())))[100, :, 2].astype(int)
        untouched, once, twice = out[40], out[55], out[100]
        self.assertEqual(untouched, 150)
        self.assertLess(once, 120)
        self.assertLess(twice, 20)

    def test_cut_out_all_of_the_subject_is_toned_and_nothing_of_its_ground(self):
        cut_out = CutOut(on=True, boxes=(BOX,))
        blurred = ThisPhoto(blur=0.02)
        untouched = drawn(SUBJECT, exposure=0, cut_out=cut_out, backdrop=blurred)
        dark = drawn(SUBJECT, cut_out=cut_out, backdrop=blurred)
        np.testing.assert_array_equal(dark[:50], untouched[:50])
        self.assertLess(dark[62:138, 62:138].max(), 160)
        rest = drawn(REST, cut_out=cut_out, backdrop=blurred)
        np.testing.assert_array_equal(rest[62:138, 62:138], untouched[62:138, 62:138])
        self.assertLess(rest[:50].max(), 120)

    def test_small_previews_show_what_the_export_will_have(self):
        full = drawn(REST).astype(float)
        half = drawn(REST, scale=0.5).astype(float)
        shrunk = full.reshape(100, 2, 100, 2, 3).mean(axis=(1, 3))
        self.assertLess(np.abs(shrunk - half).mean(), 1.5)

    def test_a_photo_that_is_transparent_already_has_its_own_subject(self):
        photo = np.dstack([photo_with_square(), np.zeros((SIDE, SIDE), np.uint8)])
        photo[60:140, 60:140, 3] = 255
        finish = finish_of(tone=Tone(areas=(Area(masks=(REST,), exposure=2),)), export=PNG)
        out = render(scene_of(finish, sources_of(photo)))
        np.testing.assert_array_equal(out[62:138, 62:138], photo[62:138, 62:138])

    def test_without_what_the_subject_covers_a_tone_is_refused(self):
        tone = Tone(areas=(Area(masks=(SUBJECT,), exposure=1),))
        with self.assertRaises(ValueError):
            toned(noise(4, 4).astype(np.uint16), tone)


class EditTest(unittest.TestCase):
    def scene(self, **fields):
        return scene_of(finish_of(**fields), sources_of(photo_with_square()))

    def test_the_subject_is_found_without_being_cut_out(self):
        scene = self.scene()
        proposal = found_subject(scene, cut_out=False)
        finish = apply_edit(scene, proposal.edit).finish
        self.assertFalse(finish.cut_out.on)
        self.assertEqual(len(finish.cut_out.boxes), 1)
        again = found_subject(scene_of(finish, scene.sources), cut_out=False)
        self.assertEqual(again.edit.cut_out, False)

    def test_finding_another_subject_leaves_it_cut_out_where_it_is(self):
        cut = self.scene(cut_out=CutOut(on=True, boxes=(BOX,)))
        finish = apply_edit(cut, SetSubject(boxes=(BOX,), cut_out=False)).finish
        self.assertTrue(finish.cut_out.on)

    def test_an_area_comes_with_its_settings(self):
        edit = AddArea(mask="subject", inverted=True, settings={"saturation": -100})
        area = apply_edit(self.scene(), edit).finish.tone.areas[0]
        self.assertEqual(area, Area(masks=(REST,), saturation=-100))
        with self.assertRaises(BadInput):
            apply_edit(self.scene(), AddArea(mask="subject", settings={"saturation": -400}))


if __name__ == "__main__":
    unittest.main()
