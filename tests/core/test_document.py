"""Documents: what validates, what follows, and how changes are put into words."""

import json
import unittest

from hypothesis import given
from hypothesis import strategies as st

from lucky_margin.core.document import (
    MAX_SIZES,
    SIZE_LIBRARY,
    VERSION,
    AsCropped,
    Border,
    BorderChanges,
    Box,
    BrushedBand,
    Export,
    ExportChanges,
    Finish,
    FixedPixels,
    LineBand,
    MarginAnchor,
    MatBand,
    Overrides,
    PatternBand,
    PieceChanges,
    PlainShape,
    Printed,
    Ratio,
    Rectangle,
    Sides,
    TextPiece,
    Tone,
    ToneChanges,
    Turn,
    TurnChanges,
    json_schema,
    new_finish,
    read_finish,
)
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.document.measures import pixels_of
from lucky_margin.core.document.summaries import (
    border_in_words,
    crop_in_words,
    export_in_words,
    overrides_in_words,
)
from lucky_margin.core.errors import BadDocument, NotFound
from tests.support import SHA, finish_of, with_size


def as_json(finish):
    return json.loads(finish.model_dump_json())


def bands(fields, number=1):
    """The change of a finish to a border of so many lines with these fields."""
    return {"border": {"bands": number * [{"kind": "line", **fields}]}}


class ReadingTest(unittest.TestCase):
    def test_a_document_survives_being_written(self):
        finish = finish_of(1080, 1350, border=Border.of(LineBand(thickness=Sides.all(0.02))))
        self.assertEqual(read_finish(as_json(finish)), finish)

    def test_what_is_no_finish_is_refused(self):
        for data in (None, [], {}, {"format": "other"}, "text", 3):
            with self.subTest(data=data), self.assertRaisesRegex(BadDocument, "not a finish"):
                read_finish(data)

    def test_a_newer_version_is_refused_with_the_way_out(self):
        with self.assertRaisesRegex(BadDocument, "newer Lucky Margin.*update"):
            read_finish(as_json(finish_of()) | {"version": 99})

    def test_version_1_means_the_same_today(self):
        old = {
            "format": "lucky-margin-finish",
            "version": 1,
            "name": "Old",
            "photo": {"sha256": SHA},
            "border": {"thickness": {"top": 0.02, "right": 0, "bottom": 0, "left": 0}},
            "sizes": [
                {
                    "id": "main",
                    "name": "Tall post",
                    "pixels": {"kind": "fixed", "width": 1080, "height": 1350},
                    "crop": {
                        "window": {"center_x": 700, "center_y": 500, "width": 80, "height": 100}
                    },
                    "shape": {"kind": "rectangle", "radius": 0.1},
                    "own": {"border": {}, "export": {"format": "png"}},
                }
            ],
        }
        finish = read_finish(old)
        size = finish.sizes[0]
        self.assertEqual((finish.version, finish.turn.is_set), (VERSION, False))
        self.assertEqual((size.shape.radius, size.crop.window.width), (0.1, 80))
        self.assertEqual(finish.export_of(size).format, "png")
        self.assertEqual(read_finish(as_json(finish)), finish)

    def test_bad_values_are_named(self):
        for place, change in (
            ("name", {"name": ""}),
            ("name", {"name": "x" * 300}),
            ("photo.sha256", {"photo": {"sha256": "../../etc/passwd"}}),
            ("sizes", {"sizes": []}),
            ("border.bands.0.line.opacity", bands({"opacity": 1.5})),
            ("border.bands.0.line.thickness.top", bands({"thickness": {"top": -0.1}})),
            ("border.bands.0.line.thickness.left", bands({"thickness": {"left": float("nan")}})),
            ("border.bands.0.line.colour", bands({"colour": "red"})),
            ("border: the bands take more than 45%", bands({"thickness": {"top": 0.3}}, number=2)),
            ("border.bands", bands({}, number=50)),
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
        self.assertEqual(LineBand(colour="#abcdef").colour, "#ABCDEF")

    def test_the_schema_names_every_field(self):
        schema = json_schema()
        self.assertEqual(set(schema["properties"]), set(Finish.model_fields))
        self.assertFalse(schema["additionalProperties"])


class OwnWaysTest(unittest.TestCase):
    def test_fields_that_were_given_differ_and_the_rest_follows(self):
        finish = finish_of(export=Export(format="jpeg", max_kb=400, quality=77))
        own = Overrides(export=ExportChanges(format="png", max_kb=None))
        size = finish.sizes[0].model_copy(update={"overrides": own})
        found = finish.export_of(size)
        self.assertEqual((found.format, found.max_kb, found.quality), ("png", None, 77))

    def test_only_given_fields_are_written(self):
        finish = with_size(finish_of(), overrides=Overrides(border=BorderChanges(on=False)))
        written = as_json(finish)["sizes"][0]["overrides"]
        given = {step: ways for step, ways in written.items() if ways}
        self.assertEqual(given, {"border": {"on": False}})
        self.assertEqual(read_finish(as_json(finish)), finish)

    def test_a_border_switched_off_in_one_size_is_the_default_there(self):
        finish = finish_of(border=Border.of(LineBand(thickness=Sides.all(0.1))))
        size = finish.sizes[0].model_copy(
            update={"overrides": Overrides(border=BorderChanges(on=False))}
        )
        self.assertEqual(finish.border_of(size), Border())
        self.assertTrue(finish.border_of(finish.sizes[0]).is_set)

    def test_a_border_of_a_shape_is_as_thick_as_its_thickest_side(self):
        uneven = Sides(top=0.1, right=0.02, bottom=0.1, left=0)
        line, cut = LineBand(thickness=uneven), LineBand(corners="cut")
        for shape, bands, expected in (
            (Rectangle(), [line], uneven),
            (Rectangle(), [MatBand(thickness=uneven)], uneven),
            (Rectangle(), [LineBand(thickness=uneven, line="dashed")], Sides.all(0.1)),
            (Rectangle(), [cut, line], Sides.all(0.1)),
            (PlainShape(kind="circle"), [line], Sides.all(0.1)),
        ):
            with self.subTest(shape=shape.kind, bands=bands):
                finish = with_size(finish_of(border=Border.of(*bands)), shape=shape)
                self.assertEqual(finish.border_of(finish.sizes[0]).bands[-1].thickness, expected)

    def test_a_band_outside_one_that_is_around_the_photo_is_so_too(self):
        inside, around = LineBand(), MatBand(around=True, thickness=Sides.all(0.1))
        for bands, expected in (((inside,), 0), ((inside, around), 2), ((around, inside), 1)):
            self.assertEqual(Border.of(*bands).around, expected)
        self.assertEqual(Border.of(inside, around, inside).room, Sides.all(0.125))

    def test_own_ways_that_make_no_valid_step_are_refused(self):
        data = as_json(finish_of())
        for own in ({"border": {"bands": [{"colour": "blue"}]}}, {"export": {"quality": None}}):
            data["sizes"][0]["overrides"] = own
            with self.subTest(overrides=own), self.assertRaises(BadDocument):
                read_finish(data)

    def test_changes_have_the_fields_of_their_step(self):
        self.assertEqual(set(BorderChanges.model_fields), set(Border.model_fields))
        self.assertEqual(set(ToneChanges.model_fields), set(Tone.model_fields))
        self.assertEqual(set(TurnChanges.model_fields), set(Turn.model_fields))
        self.assertLessEqual(set(ExportChanges.model_fields), set(Export.model_fields))


class SizeTest(unittest.TestCase):
    def test_an_unknown_size_says_so(self):
        with self.assertRaisesRegex(NotFound, "no size “other”"):
            finish_of().size("other")

    def test_the_library_serves_every_purpose(self):
        by_key = {size.key: size for size in SIZE_LIBRARY}
        self.assertEqual(len(by_key), len(SIZE_LIBRARY))
        sides = {key: (s.plan.pixels.width, s.plan.pixels.height) for key, s in by_key.items()}
        for key, expected in (
            ("square-post", (1080, 1080)),
            ("tall-post", (1080, 1350)),
            ("story", (1080, 1920)),
            ("video-thumbnail", (1280, 720)),
            ("link-card", (1200, 630)),
            ("wide-banner", (1500, 500)),
            ("round-avatar", (400, 400)),
            ("postcard", (1748, 1240)),
        ):
            self.assertEqual(sides[key], expected)
        avatar = by_key["round-avatar"].plan
        self.assertEqual((avatar.shape.kind, avatar.overrides.export.format), ("circle", "png"))
        self.assertTrue(by_key["page-header"].plan.in_column)


class MeasureTest(unittest.TestCase):
    def test_units_come_to_pixels(self):
        # A6 at 300 ppi, 10 cm at 254 ppi (100 pixels to the cm), an inch at 72.
        for width, unit, ppi, expected in (
            (148, "mm", 300, 1748),
            (10, "cm", 254, 1000),
            (1, "in", 72, 72),
            (25.4, "mm", 72, 72),
        ):
            with self.subTest(width=width, unit=unit):
                printed = Printed(width=width, height=width, unit=unit, ppi=ppi)
                self.assertEqual(printed.pixels, (expected, expected))

    @given(st.floats(1, 400), st.sampled_from(["mm", "cm", "in"]), st.floats(72, 600))
    def test_the_same_length_in_any_unit_is_the_same_pixels(self, length, unit, ppi):
        millimetres = length * {"mm": 1, "cm": 10, "in": 25.4}[unit]
        self.assertAlmostEqual(
            pixels_of(length, unit, ppi), pixels_of(millimetres, "mm", ppi), delta=1
        )

    def test_what_comes_to_no_pixel_or_too_many_is_refused_with_its_figure(self):
        for length in (0.01, 90_000):
            with self.subTest(length=length), self.assertRaisesRegex(ValueError, "comes to"):
                Printed(width=length, height=10)

    def test_pixels_have_to_agree_with_the_measures(self):
        printed = Printed(width=50, height=40)
        with self.assertRaisesRegex(ValueError, "50 × 40 mm at 300 ppi"):
            FixedPixels(width=591, height=100, printed=printed)
        self.assertEqual(FixedPixels.on_paper(printed).width, 591)


class WordsTest(unittest.TestCase):
    start = new_finish(name="Mugs", photo_sha256=SHA)

    def test_steps_in_words(self):
        self.assertEqual(crop_in_words(self.start, self.start.sizes[0]), "free, whole photo")
        tall = finish_of(1080, 1350)
        self.assertEqual(crop_in_words(tall, tall.sizes[0]), "1080 × 1350, centred")
        self.assertEqual(border_in_words(Border()), "none")
        border = Border.of(LineBand(thickness=Sides.all(0.025), opacity=0.5, around=True))
        words = border_in_words(border).replace("\u00a0", " ")
        self.assertEqual(words, "white, 2.5 %, 50 % opaque, around the photo")
        moulding = MatBand(colour="#5A3A22", profile="round")
        several = Border.of(moulding, PatternBand(), BrushedBand())
        self.assertEqual(border_in_words(several), "moulding, leaves, paint edge")
        self.assertEqual(export_in_words(Export(max_kb=400)), "JPEG, at most 400 KB")
        self.assertEqual(export_in_words(Export(format="png")), "PNG")

    def test_what_a_size_does_of_its_own_is_named_step_by_step_and_piece_by_piece(self):
        own = Overrides(
            border=BorderChanges(on=False, bands=(LineBand(),)),
            pieces={"text-1": PieceChanges(dx=0.1, dy=0.2, anchor=MarginAnchor(), wrap=0.5)},
            export=ExportChanges(max_kb=None),
        )
        text = TextPiece(id="text-1", text="Kiln")
        finish = with_size(finish_of(10, 20, pieces=(text,)), overrides=own)
        found = [(way.step, way.piece, way.fields) for way in overrides_in_words(finish.sizes[0])]
        self.assertEqual(
            found,
            [
                ("border", None, ["bands", "shown or hidden"]),
                ("export", None, ["size limit"]),
                ("pieces", "text-1", ["place", "line width"]),
            ],
        )
        self.assertEqual(overrides_in_words(self.start.sizes[0]), [])

    def test_boxes_meet_when_they_have_area_in_common(self):
        box = Box(left=0, top=0, width=10, height=5)
        for left, top, meets in ((9, 4, True), (10, 0, False), (0, 5, False), (-4, -4, True)):
            with self.subTest(left=left, top=top):
                other = Box(left=left, top=top, width=5, height=5)
                self.assertEqual((box.meets(other), other.meets(box)), (meets, meets))

    def test_changes_are_named_by_what_changed(self):
        for expected, changed in (
            ("", self.start),
            ("Renamed to “Cups”", self.start.model_copy(update={"name": "Cups"})),
            (
                "Border: white, 2 %",
                finish_of(name="Mugs", border=Border.of(LineBand(thickness=Sides.all(0.02)))),
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
                finish_of(
                    name="Mugs", border=Border.of(LineBand(thickness=Sides(top=0.1, left=0.05)))
                ),
            ),
            (
                "Crop: 30 × 40",
                with_size(
                    self.start,
                    crop={"window": {"centre_x": 50, "centre_y": 50, "width": 30, "height": 40}},
                ),
            ),
        ):
            with self.subTest(expected):
                words = describe_change(self.start, changed)
                self.assertEqual(words.replace("\u00a0", " "), expected)
