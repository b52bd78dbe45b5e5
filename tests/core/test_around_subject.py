"""Everything around a subject at once: previews, regions and switches still hold."""

import unittest

import numpy as np

from lucky_margin.core.document import (
    Area,
    Border,
    Box,
    CastShadow,
    ContactShadow,
    CutOut,
    Export,
    LineBand,
    Outlines,
    PicturePiece,
    Sides,
    Spot,
    Spots,
    Square,
    SubjectAreaMask,
    SubjectOutline,
    SubjectShadow,
    TextPiece,
    ThisPhoto,
    Tone,
    UsedSubject,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.steps import SwitchStep
from lucky_margin.core.render import render
from lucky_margin.core.sampling import sample
from tests.support import SHA, demo_sources, finish_of, scene_of

BIRD = CutOut(on=True, boxes=(Box(left=0.19, top=0.31, width=0.6, height=0.5),))
MEAN, MOST = 1.5, 8.0
"""What a preview may differ by from the shrunk export: on average, and for 99 % of it."""


def everything(**fields):
    """The bird squared up a little, on its own blurred photo, with all that may lie around it."""
    subject = UsedSubject(
        id=1,
        name="Bird",
        version=1,
        cut_out=BIRD,
        box=Box(left=0.2, top=0.3, width=0.6, height=0.55),
    )
    finish = finish_of(
        1280,
        720,
        spots=Spots(filled=(Spot(radius=0.01, points=((0.3, 0.85), (0.4, 0.86))),)),
        tone=Tone(
            exposure=0.2,
            areas=(
                Area(masks=(SubjectAreaMask(),), exposure=0.3),
                Area(
                    masks=(SubjectAreaMask(inverted=True, feather=0.05, shift=0.01),),
                    saturation=-80,
                ),
            ),
        ),
        cut_out=BIRD,
        outlines=Outlines(lines=(SubjectOutline(width=0.02), SubjectOutline(softness=1))),
        subject_shadow=SubjectShadow(cast=CastShadow(), contact=ContactShadow(), own=0.5),
        backdrop=ThisPhoto(blur=0.02, grey=0.3),
        border=Border.of(LineBand(thickness=Sides.all(0.02))),
        pieces=(
            TextPiece(id="text-1", text="Behind", size=0.3, behind=True),
            PicturePiece(
                id="picture-1",
                sha256=SHA,
                ratio=1,
                width=0.4,
                dx=0.4,
                subject=subject,
                match=60,
                stroke="#FFFFFF",
            ),
        ),
        export=Export(format="png"),
        **fields,
    )
    square = Square(corners=((0.02, 0.03), (0.97, 0.0), (0.99, 0.98), (0.0, 0.95)), ratio=1.0)
    return finish.model_copy(update={"photo": finish.photo.model_copy(update={"square": square})})


class EverythingTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.sources = demo_sources("bird-figure.jpg")
        cls.full = render(scene_of(everything(), cls.sources))

    def test_previews_show_what_the_export_will_have(self):
        for scale in (0.5, 0.25):
            with self.subTest(scale):
                small = render(scene_of(everything(), self.sources), scale=scale)
                rows, columns = small.shape[:2]
                step = 1 / scale
                shrunk = sample(
                    self.full, left=0, top=0, step_x=step, step_y=step,
                    region=(0, 0, columns, rows),
                )  # fmt: skip
                off = np.abs(shrunk.astype(int) - small)
                self.assertLessEqual(off.mean(), MEAN)
                self.assertLessEqual(np.percentile(off, 99), MOST)

    def test_a_region_is_that_part_of_the_whole(self):
        left, top, width, height = 380, 150, 300, 260
        part = render(scene_of(everything(), self.sources), region=(left, top, width, height))
        whole = self.full[top : top + height, left : left + width]
        self.assertLessEqual(np.abs(part.astype(int) - whole).max(), 1)

    def test_it_is_the_same_every_time(self):
        again = render(scene_of(everything(), demo_sources("bird-figure.jpg")))
        np.testing.assert_array_equal(again, self.full)

    def test_what_is_switched_off_is_absent(self):
        for step, field, fresh in (
            ("spots", "spots", Spots()),
            ("tone", "tone", Tone()),
            ("border", "border", Border()),
        ):
            with self.subTest(step):
                edit = SwitchStep(step=step, on=False)
                off = apply_edit(scene_of(everything(), self.sources), edit).finish
                absent = everything().model_copy(update={field: fresh})
                np.testing.assert_array_equal(
                    render(scene_of(off, self.sources), scale=0.5),
                    render(scene_of(absent, self.sources), scale=0.5),
                )


if __name__ == "__main__":
    unittest.main()
