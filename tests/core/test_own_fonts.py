"""Own fonts: what is taken and what is refused, and words set in them or without them."""

import hashlib
import struct
import unittest

import numpy as np

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    BadgePiece,
    MarkDesign,
    MarkPiece,
    TextPiece,
    UsedMark,
    Watermark,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.moving import AlignPieces
from lucky_margin.core.errors import UnreadableFont
from lucky_margin.core.render import layout, render
from lucky_margin.core.text import TextStyle, face_of, lay_text, read_font
from tests.support import finish_of, scene_of, sources_of

FILE = face_of("zilla-slab", 700, False).read_bytes()
FONT = hashlib.sha256(FILE).hexdigest()
GREY = np.full((300, 300, 3), 120, np.uint8)


def tables_of(data):
    """The font's tables by name, as its directory lists them."""
    count = struct.unpack(">H", data[4:6])[0]
    entries = [struct.unpack(">4sIII", data[12 + 16 * n : 28 + 16 * n]) for n in range(count)]
    return {name.decode(): (start, length) for name, _, start, length in entries}


class ReadingTest(unittest.TestCase):
    def test_a_font_says_its_name_and_weight(self):
        font = read_font(FILE, FONT)
        self.assertEqual((font.name, font.weight, font.face.key), ("Zilla Slab Bold", 700, FONT))

    def test_words_are_set_as_in_the_same_shipped_face(self):
        own = lay_text("Wheel & kiln", TextStyle(read_font(FILE, FONT).face), 40)
        shipped = lay_text("Wheel & kiln", TextStyle("zilla-slab", 700), 40)
        self.assertEqual(own.ink, shipped.ink)
        self.assertEqual(lay_text("שלום", TextStyle(read_font(FILE, FONT).face), 40).missing, "")

    def test_what_is_no_sound_font_is_refused(self):
        start, length = tables_of(FILE)["glyf"]
        torn = FILE[:start] + bytes(length) + FILE[start + length :]
        head = tables_of(FILE)["head"][0]
        for name, data in (
            ("empty", b""),
            ("text", b"not a font at all"),
            ("web font", b"wOF2" + FILE[4:]),
            ("collection", b"ttcf" + FILE[4:]),
            ("only a beginning", FILE[: len(FILE) // 2]),
            ("only the magic number", FILE[:4]),
            ("tables that reach past the end", FILE[:12] + b"\xff" * 400 + FILE[412:]),
            ("no units to an em", FILE[: head + 18] + b"\0\0" + FILE[head + 20 :]),
            ("no outlines inside", torn),
        ):
            with self.subTest(name), self.assertRaises(UnreadableFont) as caught:
                read_font(data, FONT)
            self.assertRegex(str(caught.exception), r"^[A-Z][^\n]+\.$")

    def test_a_table_whose_tag_is_no_text_is_passed_over(self):
        at = FILE.index(b"GSUB")
        font = read_font(FILE[:at] + b"\xff\xfe\x80a" + FILE[at + 4 :], FONT)
        self.assertEqual(font.name, "Zilla Slab Bold")

    def test_a_font_without_letters_is_refused(self):
        """The map of characters to glyphs made to name no character: of format 4, no segment
        but the last one."""
        start, _ = tables_of(FILE)["cmap"]
        data = bytearray(FILE)
        for number in range(struct.unpack(">H", data[start + 2 : start + 4])[0]):
            at = start + 4 + 8 * number
            table = start + struct.unpack(">I", data[at + 4 : at + 8])[0]
            segments = struct.unpack(">H", data[table + 6 : table + 8])[0] // 2
            for segment in range(segments - 1):
                place = table + 16 + 2 * segments + 2 * segment
                end = data[table + 14 + 2 * segment : table + 16 + 2 * segment]
                data[place : place + 2] = end
                delta = place + 2 * segments
                data[delta : delta + 2] = struct.pack(">H", -struct.unpack(">H", end)[0] % 65536)
                data[delta + 2 * segments : delta + 2 * segments + 2] = b"\0\0"
        with self.assertRaises(UnreadableFont):
            read_font(bytes(data), FONT)


class WordsTest(unittest.TestCase):
    def setUp(self):
        self.here = sources_of(GREY, fonts={FONT: read_font(FILE, FONT).face})
        self.gone = sources_of(GREY)

    def drawn(self, sources, **fields):
        finish = finish_of(300, 300, **fields)
        return render(scene_of(finish, sources))

    def test_every_kind_of_words_is_drawn_in_it(self):
        used = UsedMark(
            id=1, name="m", version=1, design=MarkDesign(words="Kiln", family=FONT, weight=700)
        )
        shipped = used.model_copy(
            update={"design": MarkDesign(words="Kiln", family="zilla-slab", weight=700)}
        )
        for own, same in (
            ({"pieces": (TextPiece(id="a", text="Kiln", size=0.2, family=FONT),)},
             {"pieces": (TextPiece(id="a", text="Kiln", size=0.2, family="zilla-slab"),)}),
            ({"pieces": (BadgePiece(id="a", text="Kiln", family=FONT),)},
             {"pieces": (BadgePiece(id="a", text="Kiln", family="zilla-slab"),)}),
            ({"pieces": (MarkPiece(id="a", mark=used),)},
             {"pieces": (MarkPiece(id="a", mark=shipped),)}),
            ({"watermark": Watermark(text="Kiln", family=FONT)},
             {"watermark": Watermark(text="Kiln", family="zilla-slab")}),
            ({"watermark": Watermark(mark=used)}, {"watermark": Watermark(mark=shipped)}),
        ):  # fmt: skip
            with self.subTest(next(iter(own.values()))):
                wanted = self.drawn(self.here, **same)
                np.testing.assert_array_equal(self.drawn(self.here, **own), wanted)
                self.assertGreater(np.abs(self.drawn(self.gone, **own) - wanted).max(), 0)

    def test_a_font_that_is_gone_is_said_and_mended(self):
        piece = TextPiece(id="a", text="Kiln", size=0.2, family=FONT, colour="#000000")
        finish = finish_of(300, 300, pieces=(piece,))
        self.assertNotIn("font", self.keys(finish, self.here))
        found = {one.key: one for one in check(scene_of(finish, self.gone))}["font"]
        self.assertIn("“Kiln” uses a font that is missing", found.text)
        mended = apply_edit(scene_of(finish, self.gone), found.action.edit).finish
        self.assertEqual(mended.pieces[0].family, "figtree")
        self.assertNotIn("font", self.keys(mended, self.gone))
        marked = finish_of(300, 300, watermark=Watermark(text="Kiln", family=FONT))
        self.assertIn("font", self.keys(marked, self.gone))
        self.assertNotIn("font", self.keys(marked, self.here))

    def test_a_font_that_comes_back_is_drawn_at_once(self):
        """What was drawn without it is not taken from the cache."""
        piece = TextPiece(id="a", text="Kiln", size=0.2, family=FONT)
        without = self.drawn(self.gone, pieces=(piece,))
        self.here.cache = self.gone.cache
        self.assertGreater(np.abs(self.drawn(self.here, pieces=(piece,)) - without).max(), 0)

    def test_edits_go_by_the_letters_of_the_font(self):
        piece = TextPiece(id="a", text="Kiln", size=0.2, family=FONT)
        finish = finish_of(300, 300, pieces=(piece,))
        edit = AlignPieces(ids=("a",), to="right")
        edited = apply_edit(scene_of(finish, self.here), edit).finish
        laid = layout(scene_of(edited, self.here))
        right = laid.pieces[0].x + laid.pieces[0].width / 2
        self.assertAlmostEqual(right, laid.margin_box.right, delta=0.01)

    def keys(self, finish, sources):
        return {one.key for one in check(scene_of(finish, sources))}
