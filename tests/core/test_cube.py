"""Colour tables: there and back, between the entries, and what is refused."""

import itertools
import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from lucky_margin.core.document import (
    Area,
    Duotone,
    EllipseMask,
    Export,
    Hues,
    HueShift,
    StockLook,
    TableLook,
    Tone,
    Wash,
)
from lucky_margin.core.errors import NotFound, TooLarge, UnreadableTable
from lucky_margin.core.render import render
from lucky_margin.core.scene import MemorySources
from lucky_margin.core.tone import (
    ColourTable,
    cube_text,
    left_out,
    look_of,
    read_cube,
    table_error,
    toned_values,
    with_look,
    with_table,
)
from lucky_margin.core.tone.cube import WRITTEN_SIDE
from tests.support import finish_of, noise, scene_of, sources_of

TABLE = "cd" * 32


def identity(side=5):
    steps = np.linspace(0, 1, side, dtype=np.float32)
    blue, green, red = np.meshgrid(steps, steps, steps, indexing="ij")
    return np.stack([red, green, blue], axis=-1)


def cube(side=2, lines=None, head=""):
    colours = identity(side).reshape(-1, 3) if lines is None else lines
    body = "\n".join(" ".join(f"{value:.6f}" for value in colour) for colour in colours)
    return f"# made up\n{head}LUT_3D_SIZE {side}\n\n{body}\n".encode()


class ReadingTest(unittest.TestCase):
    def test_title_side_domain_and_order(self):
        head = 'TITLE "Dusk ☾"\nDOMAIN_MIN 0 0 0\nDOMAIN_MAX 2 2 2\n'
        table = read_cube(cube(3, head=head))
        self.assertEqual((table.title, table.colours.shape), ("Dusk ☾", (3, 3, 3, 3)))
        self.assertEqual(table.high, (2, 2, 2))
        # Red changes fastest.
        np.testing.assert_array_equal(table.colours[0, 0, 1], (0.5, 0, 0))
        np.testing.assert_array_equal(table.colours[2, 0, 0], (0, 0, 1))

    def test_what_is_no_table_is_refused_in_one_sentence(self):
        good = cube(2)
        for said, data in (
            ("no LUT_3D_SIZE", b""),
            ("no LUT_3D_SIZE", b"\x89PNG\r\n\x1a\n\0\0"),
            ("one-dimensional", b"LUT_1D_SIZE 2\n0 0 0\n1 1 1\n"),
            ("from 2 to 65", b"LUT_3D_SIZE 256\n"),
            ("from 2 to 65", b"LUT_3D_SIZE -3\n"),
            ("announces 8 colours and has 7", good.rsplit(b"\n", 2)[0]),
            ("other than numbers", good.replace(b"1.000000", b"1.0O0000", 1)),
            ("not a number", good.replace(b"1.000000", b"0nan".replace(b"0", b"+"), 1)),
            ("DOMAIN_MAX has to lie above", b"DOMAIN_MAX 0 1 1\n" + good),
            ("DOMAIN_MIN needs three", b"DOMAIN_MIN 0 1\n" + good),
        ):
            with self.subTest(said=said), self.assertRaisesRegex(UnreadableTable, said):
                read_cube(data)
        with self.assertRaisesRegex(TooLarge, "at most 12 MB"):
            read_cube(b"#" * 12_000_001)


class InterpolationTest(unittest.TestCase):
    picture = noise(40, 30, dtype=np.uint16)

    def test_the_identity_changes_nothing(self):
        for side in (2, 5, 33):
            out = with_table(self.picture, ColourTable("", identity(side)), 1)
            self.assertLessEqual(np.abs(out.astype(int) - self.picture).max(), 1)

    def test_entries_are_met_exactly_and_strength_mixes(self):
        side = 4
        colours = np.random.default_rng(5).random((side, side, side, 3)).astype(np.float32)
        codes = np.rint(np.linspace(0, 65535, side)).astype(np.uint16)
        blue, green, red = np.meshgrid(codes, codes, codes, indexing="ij")
        grid = np.stack([red, green, blue], axis=-1).reshape(-1, side, 3)
        table = ColourTable("", colours)
        wanted = colours.reshape(-1, side, 3) * 65535
        full = with_table(grid, table, 1)
        np.testing.assert_allclose(full, wanted, atol=1.5)
        half = with_table(grid, table, 0.5)
        np.testing.assert_allclose(half, (wanted + grid) / 2, atol=1.5)

    def test_what_is_linear_in_the_colour_is_exact_everywhere(self):
        """Tetrahedra hold any affine function, whichever of the six a colour lies in."""
        matrix = np.array([[0.6, 0.3, 0.1], [0.2, 0.5, 0.2], [0.1, 0.1, 0.7]])
        table = ColourTable("", (identity(3) @ matrix.T.astype(np.float32)).astype(np.float32))
        out = with_table(self.picture, table, 1)
        np.testing.assert_allclose(out, self.picture @ matrix.T, atol=2)

    def test_greys_of_a_grey_table_stay_grey(self):
        bent = identity(9) ** np.float32(1.7)
        ramp = np.repeat(np.arange(0, 65536, 97, np.uint16)[None, :, None], 3, axis=2)
        out = with_table(ramp, ColourTable("", bent), 1)
        self.assertEqual(np.ptp(out.astype(int), axis=2).max(), 0)
        self.assertTrue((np.diff(out[0, :, 0].astype(int)) >= 0).all())

    def test_8_bits_and_transparency(self):
        picture = noise(12, 10, channels=4)
        out = with_table(picture, ColourTable("", identity(2)), 1)
        np.testing.assert_allclose(out / 257, picture, atol=0.01)


def unclipped(picture, tone):
    """Pixels in whose cell of a written table no corner is clipped: beside one that is, the tone
    has a sharp bend, which no table between its points can follow."""
    low = np.minimum(picture / 65535 * (WRITTEN_SIDE - 1) // 1, WRITTEN_SIDE - 2)
    smooth = np.ones(picture.shape[:2], bool)
    for corner in itertools.product((0, 1), repeat=3):
        at = np.rint((low + corner) / (WRITTEN_SIDE - 1) * 65535).astype(np.uint16)
        values = toned_values(at, tone)
        smooth &= ((values > 0.001) & (values < 0.999)).all(axis=2)
    return smooth


class WritingTest(unittest.TestCase):
    @settings(max_examples=8)
    @given(
        exposure=st.floats(-1.5, 1),
        contrast=st.floats(-60, 60),
        warmth=st.floats(4500, 9000),
        saturation=st.floats(-80, 40),
    )
    def test_a_tone_written_and_read_is_the_tone(self, exposure, contrast, warmth, saturation):
        tone = Tone(exposure=exposure, contrast=contrast, warmth=warmth, saturation=saturation)
        picture = noise(40, 30, dtype=np.uint16) // 2 + 12_000
        table = read_cube(cube_text(tone, "Mine").encode())
        found = with_table(picture, table, 1) / 65535
        difference = np.abs(found - toned_values(picture, tone))
        smooth = unclipped(picture, tone)
        self.assertGreater(smooth.mean(), 0.4)
        self.assertLess(difference[smooth].mean(), 0.002)
        self.assertLess(difference[smooth].max(), 0.03)

    def test_a_look_that_is_a_table_is_written_with_what_lies_over_it(self):
        table = ColourTable("", 1 - identity(9))
        tone = Tone(look=TableLook(name="Negative", table=TABLE))
        back = read_cube(cube_text(tone, "Negative", table).encode())
        np.testing.assert_allclose(back.colours[0, 0, 0], 1, atol=1e-4)
        np.testing.assert_allclose(back.colours[-1, -1, -1], 0, atol=1e-4)

    def test_where_it_is_off_is_said(self):
        """Judged by colours of chance; sharp turns lie between two of the table's steps."""
        colours = noise(200, 200, dtype=np.uint16)
        for tone in (
            Tone(contrast=100, exposure=3, black_point=-100),
            Tone(exposure=1.5, saturation=60),
            Tone(contrast=10, saturation=5),
        ):
            text = cube_text(tone, "Table")
            read = with_table(colours, read_cube(text.encode()), 1) / 65535
            off = 255 * np.abs(read - toned_values(colours, tone)).max()
            with self.subTest(off=off):
                error = table_error(tone)
                self.assertTrue(off / 1.5 < error.steps < off * 1.5, error)
                self.assertEqual(f"# Off by up to {error.steps:.0f} of 255 " in text, off > 4)

    def test_what_it_cannot_hold_is_said(self):
        area = Area(masks=(EllipseMask(),), exposure=1)
        tone = Tone(shadows=20, sharpening=30, areas=(area,), washes=(Wash(),), exposure=0.5)
        parts = left_out(tone)
        self.assertEqual(len(parts), 4)
        text = cube_text(tone, 'A "quoted"\nname')
        self.assertTrue(text.startswith('TITLE "A quotedname"\n# Left out: highlights'))
        self.assertEqual(text.count("# Left out"), 4)
        self.assertEqual(left_out(Tone(exposure=1, contrast=10)), [])


class LookTest(unittest.TestCase):
    def test_a_table_lies_under_the_tone_of_a_picture(self):
        photo = noise(60, 40)
        tables = {TABLE: ColourTable("", 1 - identity(17))}
        sources = MemorySources(sources_of(photo)._photos, tables=tables)
        look = TableLook(name="Negative", table=TABLE)
        png = Export(format="png")
        finish = finish_of(tone=Tone(look=look), export=png)
        out = render(scene_of(finish, sources))
        self.assertLessEqual(np.abs(out.astype(int) - (255 - photo.astype(int))).max(), 1)
        half = look.model_copy(update={"strength": 50})
        finish = finish_of(tone=Tone(look=half), export=png)
        grey = render(scene_of(finish, sources))
        self.assertLessEqual(np.abs(grey.astype(int) - 128).max(), 1)
        with self.assertRaisesRegex(NotFound, "add its .cube file"):
            render(scene_of(finish, sources_of(photo)))

    def test_an_own_look_does_what_its_tone_did(self):
        tone = Tone(
            exposure=0.4,
            contrast=20,
            curve=({"x": 0, "y": 0.1}, {"x": 1, "y": 0.9}),
            black_point=-20,
            hues=Hues(red=HueShift(strength=-40)),
            duotone=Duotone(strength=30),
            look=StockLook(key="golden", strength=50),
        )
        picture = noise(40, 30, dtype=np.uint16)
        own = look_of(tone, "Mine")
        expected = toned_values(picture, tone)
        np.testing.assert_allclose(toned_values(picture, Tone(look=own)), expected, atol=1e-5)
        none = own.model_copy(update={"strength": 0})
        plain = toned_values(picture, Tone())
        np.testing.assert_array_equal(toned_values(picture, Tone(look=none)), plain)

    def test_one_s_own_curve_goes_before_the_look_s(self):
        own = look_of(Tone(curve=({"x": 0, "y": 0.2}, {"x": 1, "y": 1})), "Lifted")
        mine = ({"x": 0, "y": 0}, {"x": 1, "y": 0.8})
        whole = with_look(Tone(look=own, curve=mine))
        self.assertEqual(whole.curve, Tone(curve=mine).curve)
