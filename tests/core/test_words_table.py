"""Tables of words: read from anything people paste, matched to photos, and filled into words."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from lucky_margin.core.checks import check
from lucky_margin.core.document import (
    BadgePiece,
    TextPart,
    TextPiece,
    Watermark,
    columns_of,
    kept_style,
    with_style,
    with_words,
    without_style,
)
from lucky_margin.core.errors import BadInput
from lucky_margin.core.proposals import started, started_like
from lucky_margin.core.words_table import MOST_ROWS, WordsTable, read_cells, read_table, rows_for
from tests.support import finish_of, gradient, noise, scene_of, sources_of

OTHER = "cd" * 32
SOURCES = sources_of(noise(300, 200), others={OTHER: gradient(400, 600)})


def worded(text, **fields):
    return finish_of(300, 200, pieces=(TextPiece(id="text-1", text=text, **fields),))


class ReadingTest(unittest.TestCase):
    def test_what_people_paste_and_save_is_read(self):
        wanted = WordsTable(("name", "price"), (("Mug", "12 €"), ("Böwl, large", "30")))
        lines = 'name{0}price\r\nMug{0}12 €\r\n"Böwl, large"{0}30\r\n'
        for delimiter in ",;\t":
            text = lines.format(delimiter)
            for data in (text, text.encode(), text.encode("utf-8-sig"), text.encode("utf-16")):
                with self.subTest(delimiter=delimiter, data=data[:4]):
                    self.assertEqual(read_table(data), wanted)
        self.assertEqual(read_table(lines.format(";").encode("cp1252")), wanted)
        self.assertEqual(read_table(wanted.as_text()), wanted)

    def test_lines_in_a_cell_empty_lines_and_short_rows(self):
        table = read_table('name,line,price,,\n\nMug,"two\nlines",\nBowl\n,,\n')
        self.assertEqual(table.columns, ("name", "line", "price"))
        self.assertEqual(table.rows, (("Mug", "two\nlines", ""), ("Bowl", "", "")))

    def test_a_block_has_lines_in_cells_and_commas_divide_nothing(self):
        self.assertEqual(
            read_cells('12 €\t"two\nlines, one comma"\r\n\t say ""so""\r\n'),
            [["12 €", "two\nlines, one comma"], ["", 'say ""so""']],
        )
        self.assertEqual(read_cells("\n"), [])

    def test_nothing_and_a_head_alone_are_tables_too(self):
        self.assertEqual(read_table(""), WordsTable())
        self.assertEqual(read_table("\n \n"), WordsTable())
        self.assertEqual(read_table("name,price").rows, ())

    def test_formulas_stay_text(self):
        table = read_table("name,price\n=1+1,@SUM(A1)\n")
        self.assertEqual(table.rows, (("=1+1", "@SUM(A1)"),))

    def test_ten_thousand_rows_and_no_more(self):
        rows = "name\n" + "Mug\n" * MOST_ROWS
        self.assertEqual(len(read_table(rows).rows), MOST_ROWS)
        for bad in (rows + "Bowl\n", "a,,b\n1,2,3", "a,A\n1,2", "a,b\n1,2,3", "a\n" + "x" * 1001):
            with self.subTest(bad[:12]), self.assertRaises(BadInput):
                read_table(bad)

    @given(st.one_of(st.text(), st.binary(max_size=60)))
    def test_anything_is_a_table_or_a_sentence(self, data):
        try:
            table = read_table(data)
        except BadInput as error:
            self.assertRegex(str(error), r"\.$")
        else:
            self.assertTrue(all(len(row) == len(table.columns) for row in table.rows))


class MatchingTest(unittest.TestCase):
    table = read_table("File,price\nMUG.jpg,12\nbo\u0308wl,30\n")

    def test_by_name_whatever_its_case_suffix_or_accents(self):
        rows = rows_for(self.table, ["b\u00f6wl.png", "mug.JPG"])
        self.assertEqual([row["price"] for row in rows], ["30", "12"])

    def test_by_order(self):
        table = read_table("price\n12\n30\n")
        self.assertEqual([row["price"] for row in rows_for(table, ["a", "b"])], ["12", "30"])
        self.assertEqual(rows_for(WordsTable(), ["a", "b"]), [{}, {}])

    def test_what_does_not_match_is_said(self):
        for table, photos, said in [
            (read_table("price\n12\n30\n"), ["a"], "2 rows for 1 photo"),
            (self.table, ["mug", "vase", "plate"], "“vase” and 1 more"),
            (read_table("file,price\na.jpg,1\nA.png,2"), ["a"], "Two rows"),
        ]:
            with self.subTest(said), self.assertRaisesRegex(BadInput, said):
                rows_for(table, photos)


class FillingTest(unittest.TestCase):
    def test_columns_are_filled_whatever_their_case(self):
        finish = finish_of(
            pieces=(
                TextPiece(id="text-1", text="{ Name }: {Price} {unknown} {empty}"),
                BadgePiece(id="badge-1", text="{price}"),
            ),
            watermark=Watermark(text="{line}"),
        )
        named = columns_of(finish.pieces, finish.watermark)
        self.assertEqual(named, ["Name", "Price", "unknown", "empty", "price", "line"])
        filled = with_words(finish, {"price": "12 €", "LINE": "Pottery", "empty": " "})
        self.assertEqual(filled.pieces[0].text, "Test: 12 € {unknown} {empty}")
        self.assertEqual(filled.pieces[1].text, "12 €")
        self.assertEqual(filled.watermark.text, "Pottery")

    def test_styled_letters_go_along(self):
        text = "Now {price}, was {old}"
        parts = [TextPart(start=4, end=11, weight=900), TextPart(start=13, end=22, struck=True)]
        finish = with_words(worded(text, parts=parts), {"price": "€ 12", "old": "15"})
        piece = finish.pieces[0]
        styled = [piece.text[part.start : part.end] for part in piece.parts]
        self.assertEqual((piece.text, styled), ("Now € 12, was 15", ["€ 12", "was 15"]))

    @given(st.text("ab{}x ", max_size=30), st.text("ab{} ", max_size=6))
    def test_places_stay_in_order_and_in_the_text(self, text, cell):
        parts = [TextPart(start=n, end=n) for n in range(len(text) + 1)]
        piece = with_words(worded(text, parts=parts[:50]), {"a": cell, "b": ""}).pieces[0]
        places = [part.start for part in piece.parts]
        self.assertEqual(places, sorted(places))
        self.assertLessEqual(max(places), len(piece.text))

    def test_a_column_that_nothing_filled_is_a_check(self):
        def said(finish):
            return [one.text for one in check(scene_of(finish, SOURCES)) if one.key == "columns"]

        self.assertEqual(said(worded("Mug")), [])
        self.assertIn("“{price}”, “{old}” stand", said(worded("{price} {old}"))[0])


class InFinishesTest(unittest.TestCase):
    style = kept_style(
        worded("{name}, {price}"), "0" * 16, "Shop", ("pieces",), suggest_light=False
    )

    def test_a_style_is_filled_renewed_with_the_same_words_and_removed(self):
        finish = started(finish_of(), SOURCES, self.style, {"price": "12"})
        self.assertEqual(finish.pieces[0].text, "Test, 12")
        self.assertEqual(finish.style.row, {"price": "12"})
        newer = kept_style(
            worded("Only {price}"), "0" * 16, "Shop", ("pieces",), suggest_light=False
        )
        self.assertEqual(with_style(finish, newer).pieces[0].text, "Only 12")
        self.assertEqual(without_style(finish).pieces, ())

    def test_a_finish_like_another_one(self):
        like = with_style(worded("{name}, {price}"), self.style)
        finish = started_like(like, OTHER, "Bowl", SOURCES, {"price": "30"})
        self.assertEqual(finish.photo.sha256, OTHER)
        self.assertEqual((finish.name, finish.style), ("Bowl", None))
        self.assertIn("Bowl, 30", [piece.text for piece in finish.pieces])
