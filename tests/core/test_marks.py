"""Marks, icons and copies: arranged without overlap, the same as PNG and SVG, even."""

import io
import itertools
import unittest

import numpy as np
import resvg_py
import skia
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from lucky_margin.core.document import (
    Export,
    KnockOut,
    MarkColours,
    MarkDesign,
    MarkLogo,
    MarkPiece,
    MarkVersions,
    Repeat,
    UsedMark,
    Watermark,
    rgb_of,
)
from lucky_margin.core.document.summaries import watermark_in_words
from lucky_margin.core.errors import NotFound
from lucky_margin.core.icons import FILE, all_icons, icon_outline, icons_like
from lucky_margin.core.photos import DecodedPhoto, PhotoFacts
from lucky_margin.core.pieces import MARK_LAYOUTS, mark_picture, mark_svg
from lucky_margin.core.pieces.marks import frame_line, mark_parts
from lucky_margin.core.pieces.repeats import copies_of
from lucky_margin.core.render import render
from lucky_margin.core.sampling import sample
from lucky_margin.core.scene import MemorySources
from lucky_margin.core.text import no_fonts
from tests.support import finish_of, scene_of, sources_of

LOGO = "ef" * 32
layouts = st.sampled_from(["beside", "stacked", "round"])
frames = st.sampled_from(["none", "circle", "oval", "label", "box"])


class MarkTest(unittest.TestCase):
    @settings(max_examples=40)
    @given(
        words=st.text(max_size=20), line=st.text(max_size=20), layout=layouts, frame=frames,
        icon=st.sampled_from([None, "amphora", "heart"]), rule=st.booleans(),
    )  # fmt: skip
    def test_any_words_make_a_mark_about_its_middle(self, words, line, layout, frame, icon, rule):
        design = MarkDesign(
            words=words, line=line, layout=layout, frame=frame, icon=icon, rule=rule
        )
        path = mark_parts(design, no_fonts).whole
        box = path.computeTightBounds()
        self.assertAlmostEqual(box.centerX(), 0, delta=0.02)
        self.assertAlmostEqual(box.centerY(), 0, delta=0.02)

    def test_words_stay_inside_their_frame(self):
        for layout, frame in itertools.product(
            ("stacked", "beside", "round"), ("circle", "oval", "label", "box")
        ):
            design = MarkDesign(words="Pebblewick Pottery", line="by hand", layout=layout)
            bare = mark_parts(design, no_fonts).whole
            framed = mark_parts(design.model_copy(update={"frame": frame}), no_fonts).whole
            inner, outer = bare.computeTightBounds(), framed.computeTightBounds()
            with self.subTest(layout=layout, frame=frame):
                self.assertGreater(outer.width(), inner.width() + 0.3)
                self.assertGreater(outer.height(), inner.height() + 0.3)
                line = frame_line(design.model_copy(update={"frame": frame}), inner)
                shared = skia.Op(bare, line, skia.PathOp.kIntersect_PathOp)
                self.assertTrue(shared.isEmpty())

    def test_the_svg_is_the_picture(self):
        """Drawn by another program, letters as outlines, circles as curves."""
        design = MarkDesign(
            words="Pebblewick", line="pottery", icon="amphora", layout="round", frame="circle"
        )
        ours = mark_picture(design, "dark", 400, no_fonts)
        png = resvg_py.svg_to_bytes(
            svg_string=mark_svg(design, "dark", no_fonts),
            width=ours.shape[1],
            skip_system_fonts=True,
        )
        other = np.asarray(Image.open(io.BytesIO(png)).convert("RGBA"))
        self.assertLess(abs(other.shape[0] - ours.shape[0]), 2)
        rows = min(len(ours), len(other))
        difference = np.abs(ours[:rows, :, 3].astype(int) - other[:rows, :, 3])
        self.assertLess(difference.mean(), 1.5)


GREEN, RED, BLUE = "#00A000", "#D00000", "#0000D0"
COLOURED = MarkDesign(
    words="Pebblewick",
    line="by hand",
    icon="heart",
    frame="box",
    rule=True,
    colours=MarkVersions(
        dark=MarkColours(words=GREEN, icon=RED, frame=BLUE),
        light=MarkColours(words=BLUE, icon=GREEN, frame=RED),
    ),
)


def pixels_of(picture, colour):
    """Where a picture has a colour, fully opaque."""
    is_there = (picture[:, :, :3] == rgb_of(colour)).all(axis=2)
    return is_there & (picture[:, :, 3] == 255 if picture.shape[2] == 4 else True)


class ColouredMarkTest(unittest.TestCase):
    def test_each_part_has_its_colour_in_both_versions(self):
        versions = {"dark": (GREEN, RED, BLUE), "light": (BLUE, GREEN, RED)}
        for shade, colours in versions.items():
            picture = mark_picture(COLOURED, shade, 500, no_fonts)
            words, icon, frame = (pixels_of(picture, colour) for colour in colours)
            with self.subTest(shade):
                for part in (words, icon, frame):
                    self.assertGreater(part.sum(), 200)
                # The icon is over the words, and the frame around both.
                rows = [np.nonzero(part.any(axis=1))[0] for part in (icon, words, frame)]
                self.assertLess(rows[0].max(), rows[1].min() + 1)
                self.assertLess(rows[2].min(), rows[0].min())
                self.assertGreater(rows[2].max(), rows[1].max())

    def test_without_colours_white_or_ink_is_all_there_is(self):
        design = COLOURED.model_copy(update={"colours": None})
        for shade, colour in (("dark", "#1E2A2F"), ("light", "#FFFFFF")):
            picture = mark_picture(design, shade, 300, no_fonts)
            drawn = picture[picture[:, :, 3] == 255][:, :3]
            np.testing.assert_array_equal(np.unique(drawn, axis=0), [rgb_of(colour)])

    def test_the_svg_has_a_path_for_each_colour(self):
        svg = mark_svg(COLOURED, "light", no_fonts)
        for colour in (GREEN, RED, BLUE):
            self.assertEqual(svg.count(f'fill="{colour}"'), 1)

    def test_on_a_picture_it_is_of_one_colour_or_of_its_own(self):
        used = UsedMark(id=1, name="Studio", version=1, design=COLOURED)
        grey = np.full((300, 400, 3), 120, np.uint8)

        def drawn(**fields):
            piece = MarkPiece(id="mark-1", mark=used, width=0.9, **fields)
            return render(scene_of(finish_of(400, 300, pieces=(piece,)), sources_of(grey)))

        own = drawn(shade="dark")
        for colour in (GREEN, RED, BLUE):
            self.assertGreater(pixels_of(own, colour).sum(), 20)
        one = drawn(colour="#FFFFFF")
        self.assertEqual(sum(pixels_of(one, colour).sum() for colour in (GREEN, RED, BLUE)), 0)
        self.assertGreater(pixels_of(one, "#FFFFFF").sum(), 100)

    def test_as_a_watermark_the_version_follows_what_is_behind(self):
        used = UsedMark(id=1, name="Studio", version=1, design=COLOURED)
        for value, words in ((40, BLUE), (235, GREEN)):
            picture = np.full((300, 400, 3), value, np.uint8)
            watermark = Watermark(mark=used, opacity=1, size=0.1)
            out = render(scene_of(finish_of(400, 300, watermark=watermark), sources_of(picture)))
            with self.subTest(value=value):
                self.assertGreater(pixels_of(out, words).sum(), 20)

    def test_a_dozen_layouts_take_any_words(self):
        self.assertEqual(len(MARK_LAYOUTS), 12)
        pictures = set()
        for name, layout in MARK_LAYOUTS.items():
            design = layout.model_copy(update={"words": "Pebblewick", "line": "pottery"})
            picture = mark_picture(design, "dark", 200, no_fonts)
            with self.subTest(name):
                self.assertTrue(layout.words == layout.line == "")
                self.assertGreater((picture[:, :, 3] > 0).mean(), 0.03)
            pictures.add(picture.tobytes())
        self.assertEqual(len(pictures), 12)


class DrawnAsWatermarkTest(unittest.TestCase):
    """Kept marks and logos on a picture, in every place they may have."""

    used = UsedMark(
        id=1, name="Studio", version=1, design=MarkDesign(words="Pebblewick", icon="amphora")
    )

    def drawn(self, watermark, value=120, **options):
        grey = np.full((400, 600, 3), value, np.uint8)
        logo = np.full((40, 80, 3), 255, np.uint8)
        logo[10:30, 10:70] = (20, 90, 60)
        facts = PhotoFacts(width=80, height=40, file_format="PNG", bits=8, has_alpha=False)
        sources = MemorySources({**sources_of(grey)._photos, LOGO: DecodedPhoto(logo, facts)})
        finish = finish_of(400, 500, watermark=watermark, export=Export(format="png"))
        return render(scene_of(finish, sources), **options).astype(int)

    def test_a_kept_mark_is_light_on_dark_and_dark_on_light(self):
        for value, lighter in ((60, True), (230, False)):
            out = self.drawn(Watermark(mark=self.used, opacity=1), value)
            changed = out[np.abs(out - value).max(axis=2) > 20]
            with self.subTest(value=value):
                self.assertGreater(len(changed), 300)
                self.assertEqual(bool(changed.mean() > value), lighter)

    def test_places_and_strength(self):
        for place, most in (("spot", 0.1), ("across", 0.6), ("repeated", 0.6)):
            for fields in ({"mark": self.used}, {"logo": MarkLogo(sha256=LOGO, ratio=2)}):
                faint, strong = (
                    np.abs(self.drawn(Watermark(place=place, opacity=o, **fields)) - 120)
                    for o in (0.2, 0.8)
                )
                with self.subTest(place=place, fields=fields):
                    share = (strong.max(axis=2) > 10).mean()
                    self.assertTrue(0.002 < share < most, share)
                    self.assertAlmostEqual(strong.max() / faint.max(), 4, delta=0.5)

    def test_a_logo_without_its_plain_colour_shows_none_of_it(self):
        logo = MarkLogo(sha256=LOGO, ratio=2, knock_out=KnockOut())
        out = self.drawn(Watermark(logo=logo, opacity=1, size=0.08))
        self.assertFalse((out > 200).any())
        self.assertGreater((np.abs(out - (20, 90, 60)).max(axis=2) < 6).sum(), 500)

    def test_previews_show_what_the_export_will_have(self):
        for fields in ({"mark": self.used}, {"logo": MarkLogo(sha256=LOGO, ratio=2)}):
            # So far apart that the marks' edges, which do differ, are under 1 % of the picture.
            mark = Watermark(place="repeated", opacity=0.5, gap=4, **fields)
            whole = self.drawn(mark).astype(np.uint8)
            half = self.drawn(mark, scale=0.5)
            shrunk = sample(
                whole, left=0, top=0, step_x=2, step_y=2, region=(0, 0, 200, 250)
            ).astype(int)
            difference = np.abs(half - shrunk)
            with self.subTest(fields=fields):
                self.assertLessEqual(difference.mean(), 1.5)
                self.assertLessEqual(np.percentile(difference, 99), 8)

    def test_what_it_is_is_said_in_words(self):
        cases = {
            "mark “Studio”, on one spot, 35\N{NO-BREAK SPACE}%": Watermark(mark=self.used),
            "a logo, repeated, 20\N{NO-BREAK SPACE}%": Watermark(
                logo=MarkLogo(sha256=LOGO), place="repeated", opacity=0.2
            ),
            "none": Watermark(),
            "switched off": Watermark(mark=self.used, on=False),
        }
        for said, mark in cases.items():
            self.assertEqual(watermark_in_words(mark), said)


class IconTest(unittest.TestCase):
    def test_icons_are_centred_by_their_ink(self):
        for name in ("heart", "amphora", "camera", "zap"):
            box = icon_outline(name, 240).computeTightBounds()
            with self.subTest(name):
                self.assertAlmostEqual(box.centerX(), 0, delta=0.05)
                self.assertAlmostEqual(box.centerY(), 0, delta=0.05)

    def test_every_icon_is_drawn_inside_its_square(self):
        for name in all_icons():
            box = icon_outline(name, 24).computeTightBounds()
            with self.subTest(name):
                self.assertGreater(max(box.width(), box.height()), 2)
                self.assertLess(max(-box.left(), box.right(), -box.top(), box.bottom()), 12.7)

    def test_their_licence_lies_beside_them(self):
        self.assertIn("ISC License", (FILE.parent / "LICENSE").read_text())

    def test_they_are_found_by_what_they_show_and_unknown_ones_are_said(self):
        self.assertIn("heart", [icon.name for icon in icons_like("lov")])
        self.assertEqual(icons_like("zzz"), [])
        self.assertEqual(len(icons_like("")), len(all_icons()))
        with self.assertRaisesRegex(NotFound, "no icon “nothing”"):
            icon_outline("nothing", 10)


class CopiesTest(unittest.TestCase):
    @given(count=st.integers(2, 60), spread=st.floats(0.01, 4))
    def test_rows_and_rings_are_even(self, count, spread):
        row = copies_of(Repeat(kind="row", count=count, spread=spread), 100)
        xs = [one.x for one in row]
        self.assertEqual(len(row), count)
        np.testing.assert_allclose(np.diff(xs), spread * 100 / (count - 1))
        self.assertAlmostEqual(xs[0], -xs[-1])
        ring = copies_of(Repeat(kind="ring", count=count, spread=spread, turned=True), 100)
        radii = [np.hypot(one.x, one.y) for one in ring]
        np.testing.assert_allclose(radii, spread * 50)
        np.testing.assert_allclose(np.diff([one.angle for one in ring]), 360 / count)

    def test_a_scatter_keeps_apart_and_is_the_same_each_time(self):
        repeat = Repeat(kind="scatter", count=20, spread=1, seed=3)
        places = np.array([(one.x, one.y) for one in copies_of(repeat, 100)])
        self.assertEqual(copies_of(repeat, 100), copies_of(repeat, 100))
        self.assertLessEqual(np.abs(places).max(), 50)
        away = np.linalg.norm(places[:, None] - places[None], axis=2)
        away[np.diag_indices(20)] = np.inf
        # Twenty points that fell anywhere would lie within a few pixels of each other.
        self.assertGreater(away.min(), 8)
        other = copies_of(repeat.model_copy(update={"seed": 4}), 100)
        self.assertNotEqual(places[0].tolist(), [other[0].x, other[0].y])
