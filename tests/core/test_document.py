"""Documents: what validates, what follows, and how changes are put into words."""

import json
import unittest

from lucky_margin.core.document import (
    MAX_SIZES,
    AsCropped,
    Border,
    BorderChanges,
    Export,
    ExportChanges,
    Finish,
    FixedPixels,
    OwnWays,
    Ratio,
    Sides,
    json_schema,
    new_finish,
    read_finish,
)
from lucky_margin.core.document.size_library import SIZE_LIBRARY
from lucky_margin.core.document.words import (
    border_in_words,
    crop_in_words,
    describe_change,
    export_in_words,
)
from lucky_margin.core.errors import BadDocument, NotFound
from tests.support import SHA, finish_of, with_size


def as_json(finish):
    return json.loads(finish.model_dump_json())


class ReadingTest(unittest.TestCase):
    def test_a_document_survives_being_written(self):
        finish = finish_of(1080, 1350, border=Border(thickness=Sides.all(0.02)))
        self.assertEqual(read_finish(as_json(finish)), finish)

    def test_what_is_no_finish_is_refused(self):
        for data in (None, [], {}, {"format": "other"}, "text", 3):
            with self.subTest(data=data), self.assertRaisesRegex(BadDocument, "no finish"):
                read_finish(data)

    def test_a_newer_version_is_refused_with_the_way_out(self):
        with self.assertRaisesRegex(BadDocument, "newer Lucky Margin.*update"):
            read_finish(as_json(finish_of()) | {"version": 99})

    def test_bad_values_are_named(self):
        for place, change in (
            ("name", {"name": ""}),
            ("name", {"name": "x" * 300}),
            ("photo.sha256", {"photo": {"sha256": "../../etc/passwd"}}),
            ("sizes", {"sizes": []}),
            ("border.opacity", {"border": {"opacity": 1.5}}),
            ("border.thickness.top", {"border": {"thickness": {"top": -0.1}}}),
            ("border.thickness.left", {"border": {"thickness": {"left": float("nan")}}}),
            ("border.colour", {"border": {"colour": "red"}}),
            ("export.quality", {"export": {"quality": 0}}),
            ("export.max_kb", {"export": {"max_kb": float("inf")}}),
            ("focus", {"focus": {"point": {"x": 0.5, "y": 0.5},
                                 "box": {"left": 0.9, "top": 0, "width": 0.2, "height": 1}}}),
            ("unknown_step", {"unknown_step": {}}),
        ):  # fmt: skip
            with self.subTest(place), self.assertRaisesRegex(BadDocument, f"^{place}"):
                read_finish(as_json(finish_of()) | change)

    def test_sizes_are_checked(self):
        for pixels in (
            {"kind": "fixed", "width": 0, "height": 5},
            {"kind": "fixed", "width": 100000, "height": 5},
            {"kind": "fixed", "width": 16000, "height": 16000},
            {"kind": "fixed", "width": 10.5, "height": 5},
            {"kind": "one_side", "side": "depth", "length": 5},
        ):
            with self.subTest(pixels=pixels), self.assertRaises(BadDocument):
                data = as_json(finish_of())
                data["sizes"][0]["pixels"] = pixels
                read_finish(data)

    def test_too_many_sizes_and_twins_are_refused(self):
        size = as_json(finish_of())["sizes"][0]
        many = [size | {"id": f"size-{i}"} for i in range(MAX_SIZES + 1)]
        for sizes in (many, [size, size]):
            with self.assertRaisesRegex(BadDocument, "sizes|two sizes"):
                read_finish(as_json(finish_of()) | {"sizes": sizes})

    def test_colours_are_written_one_way(self):
        self.assertEqual(Border(colour="#abcdef").colour, "#ABCDEF")

    def test_the_schema_names_every_field(self):
        schema = json_schema()
        self.assertEqual(set(schema["properties"]), set(Finish.model_fields))
        self.assertFalse(schema["additionalProperties"])


class OwnWaysTest(unittest.TestCase):
    def test_fields_that_were_given_differ_and_the_rest_follows(self):
        finish = finish_of(export=Export(format="jpeg", max_kb=400, quality=77))
        own = OwnWays(export=ExportChanges(format="png", max_kb=None))
        size = finish.sizes[0].model_copy(update={"own": own})
        found = finish.export_of(size)
        self.assertEqual((found.format, found.max_kb, found.quality), ("png", None, 77))

    def test_only_given_fields_are_written(self):
        finish = with_size(finish_of(), own=OwnWays(border=BorderChanges(on=False)))
        written = as_json(finish)["sizes"][0]["own"]
        self.assertEqual(written, {"border": {"on": False}, "export": {}})
        self.assertEqual(read_finish(as_json(finish)), finish)

    def test_a_border_switched_off_in_one_size_is_the_default_there(self):
        finish = finish_of(border=Border(thickness=Sides.all(0.1)))
        size = finish.sizes[0].model_copy(update={"own": OwnWays(border=BorderChanges(on=False))})
        self.assertEqual(finish.border_of(size), Border())
        self.assertTrue(finish.border_of(finish.sizes[0]).is_set)

    def test_own_ways_that_make_no_valid_step_are_refused(self):
        data = as_json(finish_of())
        for own in ({"border": {"colour": "blue"}}, {"export": {"quality": None}}):
            data["sizes"][0]["own"] = own
            with self.subTest(own=own), self.assertRaises(BadDocument):
                read_finish(data)

    def test_changes_have_the_fields_of_their_step(self):
        self.assertEqual(set(BorderChanges.model_fields), set(Border.model_fields))
        self.assertLessEqual(set(ExportChanges.model_fields), set(Export.model_fields))


class SizeTest(unittest.TestCase):
    def test_an_unknown_size_says_so(self):
        with self.assertRaisesRegex(NotFound, "no size “other”"):
            finish_of().size("other")

    def test_the_library_has_the_promised_sizes(self):
        sides = {size.name: (size.pixels.width, size.pixels.height) for size in SIZE_LIBRARY}
        self.assertEqual(
            sides,
            {
                "Square post": (1080, 1080),
                "Tall post": (1080, 1350),
                "Story": (1080, 1920),
                "Video thumbnail": (1280, 720),
                "Link card": (1200, 630),
                "Wide banner": (1500, 500),
            },
        )


class WordsTest(unittest.TestCase):
    start = new_finish(name="Mugs", photo_sha256=SHA)

    def test_steps_in_words(self):
        self.assertEqual(crop_in_words(self.start, self.start.sizes[0]), "free, whole photo")
        tall = finish_of(1080, 1350)
        self.assertEqual(crop_in_words(tall, tall.sizes[0]), "1080 × 1350, centred")
        self.assertEqual(border_in_words(Border()), "none")
        border = Border(thickness=Sides.all(0.025), opacity=0.5, outside=True)
        self.assertEqual(
            border_in_words(border).replace("\u00a0", " "), "white, 2.5 %, 50 % opaque, outside"
        )
        self.assertEqual(export_in_words(Export(max_kb=400)), "JPEG, at most 400 KB")
        self.assertEqual(export_in_words(Export(format="png")), "PNG")

    def test_changes_are_named_by_what_changed(self):
        for expected, changed in (
            ("", self.start),
            ("Renamed to “Cups”", self.start.model_copy(update={"name": "Cups"})),
            (
                "Border: white, 2 %",
                finish_of(name="Mugs", border=Border(thickness=Sides.all(0.02))),
            ),
            ("Export: PNG", finish_of(name="Mugs", export=Export(format="png"))),
            ("Export: file details", finish_of(name="Mugs", export=Export(author="me"))),
            (
                "Size: As cropped, 10 × 20 px",
                with_size(self.start, pixels=FixedPixels(width=10, height=20)),
            ),
            ("Ratio: 4:5", with_size(self.start, pixels=AsCropped(ratio=Ratio(width=4, height=5)))),
            (
                "Border: white, top 10 %, left 5 %",
                finish_of(name="Mugs", border=Border(thickness=Sides(top=0.1, left=0.05))),
            ),
            (
                "Crop: 30 × 40",
                with_size(
                    self.start,
                    crop={"window": {"center_x": 50, "center_y": 50, "width": 30, "height": 40}},
                ),
            ),
        ):
            with self.subTest(expected):
                words = describe_change(self.start, changed)
                self.assertEqual(words.replace("\u00a0", " "), expected)
