"""Export: exact pixels, honest weights, safe names, nothing said that was not asked for."""

import csv
import io
import unittest
import warnings
import zipfile

import numpy as np
import pikepdf
from defusedxml.ElementTree import fromstring
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, ImageCms
from PIL.ExifTags import Base

from lucky_margin.core.document import Export, FixedPixels, Printed, Rectangle
from lucky_margin.core.errors import BadInput
from lucky_margin.core.export import (
    QUALITY_FLOOR,
    SUFFIXES,
    FewerColours,
    FewerPixels,
    OtherFormat,
    alt_text_table,
    encode,
    export,
    file_names,
    file_stem,
    pages_together,
    zipped,
)
from lucky_margin.core.export.names import MAX_STEM_BYTES, safe_stem, unlike
from lucky_margin.core.photos import decode
from lucky_margin.core.proposals import alt_text_proposal
from tests.support import (
    SHA,
    demo_sources,
    encoded,
    finish_of,
    gradient,
    noise,
    scene_of,
    sources_of,
    with_size,
)

FORMATS = ("jpeg", "png", "webp", "avif")
IPTC = "http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/"
RDF = "http://www.w3.org/1999/02/22-rdf-syntax-ns#"


def exported(finish, sources):
    return export(scene_of(finish, sources))


def opened(file):
    return Image.open(io.BytesIO(file.data))


def said_in(image, name):
    """What a file's packet of metadata says under a name."""
    prefix, _, field = name.partition(":")
    packet = image.info["xmp"]
    names = {"dc": "http://purl.org/dc/elements/1.1/", "Iptc4xmpCore": IPTC}
    return fromstring(packet).find(f".//{{{names[prefix]}}}{field}//{{{RDF}}}li").text


class FileTest(unittest.TestCase):
    sources = sources_of(gradient(300, 200))

    def test_every_format_has_the_exact_pixels_and_an_srgb_profile(self):
        for image_format in FORMATS:
            with self.subTest(image_format):
                file = exported(
                    finish_of(101, 57, export=Export(format=image_format)), self.sources
                )
                image = opened(file)
                self.assertEqual((image.size, image.format.lower()), ((101, 57), image_format))
                profile = ImageCms.ImageCmsProfile(io.BytesIO(image.info["icc_profile"]))
                self.assertIn("sRGB", ImageCms.getProfileDescription(profile))

    def test_the_same_finish_gives_the_same_bytes(self):
        for image_format in FORMATS:
            with self.subTest(image_format):
                finish = finish_of(90, 90, export=Export(format=image_format))
                fresh = sources_of(gradient(300, 200))
                self.assertEqual(exported(finish, self.sources).data, exported(finish, fresh).data)

    def test_png_of_an_untouched_photo_is_bit_exact(self):
        photo = noise(40, 30, 4)
        file = exported(finish_of(export=Export(format="png")), sources_of(photo))
        np.testing.assert_array_equal(np.asarray(opened(file)), photo)

    def test_transparency_is_kept_by_all_but_jpeg(self):
        for image_format in FORMATS:
            finish = finish_of(80, 80, export=Export(format=image_format))
            image = opened(exported(with_size(finish, shape=Rectangle(radius=0.5)), self.sources))
            with self.subTest(image_format):
                self.assertEqual(image.mode, "RGB" if image_format == "jpeg" else "RGBA")

    def test_a_format_that_cannot_hold_a_side_is_said(self):
        with self.assertRaisesRegex(BadInput, "WEBP holds at most 16383"):
            encode(np.zeros((1, 16384, 3), np.uint8), Export(format="webp"), quality=80)


class OtherFormatTest(unittest.TestCase):
    """Formats for print shops and old programs, and what only some formats have."""

    sources = sources_of(gradient(300, 200))

    def made(self, finish=None, **settings):
        return exported(finish or finish_of(120, 80, export=Export(**settings)), self.sources)

    def test_what_is_lossless_is_bit_exact(self):
        photo = noise(40, 30)
        for image_format in ("tiff", "bmp", "webp"):
            settings = Export(format=image_format, lossless=True)
            with self.subTest(image_format):
                file = exported(finish_of(export=settings), sources_of(photo))
                np.testing.assert_array_equal(np.asarray(opened(file).convert("RGB")), photo)
                again = exported(finish_of(export=settings), sources_of(photo))
                self.assertEqual(file.data, again.data)

    def test_transparency_is_kept_flattened_or_made_plain(self):
        for image_format, corner in (
            ("tiff", (0, 0, 0, 0)),
            ("gif", (0, 0, 0, 0)),
            ("bmp", (255, 255, 255, 255)),
        ):
            finish = finish_of(80, 80, export=Export(format=image_format))
            image = opened(self.made(with_size(finish, shape=Rectangle(radius=0.5))))
            with self.subTest(image_format):
                self.assertEqual(image.format.lower(), image_format)
                found = image.convert("RGBA").getpixel((0, 0))
                self.assertEqual(found[3], corner[3])
                if corner[3]:
                    self.assertEqual(found, corner)
                self.assertEqual(image.convert("RGBA").getpixel((40, 40))[3], 255)

    def test_few_colours_are_no_more_and_near_the_picture(self):
        whole = np.asarray(opened(self.made(format="png")), float)
        for image_format in ("png", "gif"):
            for colours in (2, 16, 256):
                with self.subTest(image_format, colours=colours):
                    image = opened(self.made(format=image_format, colours=colours))
                    found = np.asarray(image.convert("RGB"), float)
                    self.assertLessEqual(len(np.unique(found.reshape(-1, 3), axis=0)), colours)
                    if colours == 256:
                        self.assertLess(np.abs(found - whole).mean(), 6)
        clear = with_size(
            finish_of(80, 80, export=Export(format="png", colours=2)), shape=Rectangle(radius=0.5)
        )
        image = opened(self.made(clear))
        self.assertEqual(image.convert("RGBA").getpixel((0, 0))[3], 0)

    def test_a_cap_says_how_few_colours_would_do(self):
        heavy = self.made(format="png")
        cap = 0.6 * len(heavy.data) / 1000
        (fewer,) = (
            remedy
            for remedy in self.made(format="png", max_kb=cap).remedies
            if isinstance(remedy, FewerColours)
        )
        lighter = self.made(format="png", max_kb=cap, colours=fewer.colours)
        self.assertTrue(lighter.meets_cap)

    def test_progressive_and_colour_detail(self):
        self.assertTrue(opened(self.made(format="jpeg", progressive=True)).info["progressive"])
        self.assertNotIn("progressive", opened(self.made(format="jpeg")).info)
        for chroma, quality, full in (
            ("auto", 95, True),
            ("auto", 60, False),
            ("full", 60, True),
            ("half", 95, False),
        ):
            image = opened(self.made(format="jpeg", chroma=chroma, quality=quality))
            sampling = {layer[1:3] for layer in image.layer}
            self.assertEqual(sampling == {(1, 1)}, full, (chroma, quality))

    def test_a_pdf_has_its_true_size_its_words_and_no_date(self):
        printed = Printed(width=50, height=40, unit="mm", ppi=150)
        width, height = printed.pixels
        pixels = FixedPixels(width=width, height=height, printed=printed)
        export = Export(format="pdf", title="Mugs 🪴", author="Ana")
        finish = with_size(finish_of(10, 10, export=export), pixels=pixels)
        file = self.made(finish)
        self.assertEqual(file.data, self.made(finish).data)
        with pikepdf.open(io.BytesIO(file.data)) as document:
            (page,) = document.pages
            sides = [float(side) / 72 * 25.4 for side in page.MediaBox[2:]]
            np.testing.assert_allclose(sides, (50, 40), atol=0.1)
            self.assertEqual(str(document.docinfo.Title), "Mugs 🪴")
            self.assertNotIn("/CreationDate", document.docinfo)
            (image,) = page.get_images().values()
            inside = pikepdf.PdfImage(image).as_pil_image()
            self.assertEqual(inside.size, (width, height))

    def test_bleed_goes_on_past_the_trimmed_page(self):
        printed = Printed(width=50, height=40, unit="mm", ppi=254)
        width, height = printed.pixels
        pixels = FixedPixels(width=width, height=height, printed=printed)
        finish = with_size(finish_of(10, 10, export=Export(format="pdf", bleed=3)), pixels=pixels)
        with pikepdf.open(io.BytesIO(self.made(finish).data)) as document:
            (page,) = document.pages
            media, trim = ([float(one) / 72 * 25.4 for one in box] for box in (
                page.MediaBox, page.TrimBox
            ))  # fmt: skip
            np.testing.assert_allclose(media[2:], (56, 46), atol=0.1)
            np.testing.assert_allclose(trim, (3, 3, 53, 43), atol=0.1)
            (image,) = page.get_images().values()
            inside = np.asarray(pikepdf.PdfImage(image).as_pil_image(), float)
        self.assertEqual(inside.shape[:2], (height + 60, width + 60))
        mirrored = np.abs(inside[:30, 30:-30] - inside[59:29:-1, 30:-30])
        self.assertLess(mirrored.mean(), 2)

    def test_files_of_any_format_become_pages_of_one_pdf_in_their_order(self):
        files = [
            self.made(finish_of(60 + number, 40, export=Export(format=one)))
            for number, one in enumerate(SUFFIXES)
        ]
        data = pages_together([file.data for file in files])
        self.assertEqual(data, pages_together([file.data for file in files]))
        with pikepdf.open(io.BytesIO(data)) as document:
            widths = [round(float(page.MediaBox[2]) * 96 / 72) for page in document.pages]
        self.assertEqual(widths, [60 + number for number in range(len(SUFFIXES))])


class WeightTest(unittest.TestCase):
    sources = sources_of(noise(300, 300))

    def test_a_cap_is_met_with_the_best_quality_that_meets_it(self):
        for image_format in ("jpeg", "webp"):
            free = exported(finish_of(export=Export(format=image_format, quality=70)), self.sources)
            cap = len(free.data) / 1000
            with self.subTest(image_format):
                file = exported(
                    finish_of(export=Export(format=image_format, max_kb=cap)), self.sources
                )
                self.assertTrue(file.meets_cap)
                self.assertGreaterEqual(file.quality, 70)
                picture = np.asarray(Image.fromarray(noise(300, 300)))
                heavier = encode(picture, Export(format=image_format), quality=file.quality + 1)
                self.assertGreater(len(heavier), cap * 1000)

    def test_a_cap_that_cannot_be_met_is_said_with_what_would_help(self):
        file = exported(finish_of(export=Export(max_kb=12)), self.sources)
        self.assertFalse(file.meets_cap)
        self.assertEqual(file.quality, QUALITY_FLOOR)
        fewer = next(r for r in file.remedies if isinstance(r, FewerPixels))
        finish = finish_of(fewer.width, fewer.height, export=Export(max_kb=12))
        self.assertTrue(exported(finish, self.sources).meets_cap)

    def test_fewer_pixels_that_are_offered_hold_for_every_format_and_photo(self):
        for photo, image_format, cap, sides in (
            ("mugs-window.jpg", "jpeg", 25, (1080, 1350)),
            ("vase-grasses.jpg", "webp", 12, (1080, 1350)),
            ("bowl-top.jpg", "png", 120, (700, 700)),
            ("field-noon.jpg", "avif", 4, (1280, 720)),
        ):
            settings = Export(format=image_format, max_kb=cap)
            file = exported(finish_of(*sides, export=settings), demo_sources(photo))
            with self.subTest(photo):
                self.assertFalse(file.meets_cap)
                fewer = [r for r in file.remedies if isinstance(r, FewerPixels)]
                self.assertEqual(len(fewer), 1)
                finish = finish_of(fewer[0].width, fewer[0].height, export=settings)
                self.assertTrue(exported(finish, demo_sources(photo)).meets_cap)
                # Not far fewer than need be.
                larger = finish_of(
                    int(fewer[0].width * 1.35), int(fewer[0].height * 1.35), export=settings
                )
                self.assertFalse(exported(larger, demo_sources(photo)).meets_cap)

    def test_png_over_its_cap_suggests_formats_that_would_do(self):
        photo = demo_sources("bird-figure.jpg")
        file = exported(finish_of(300, 300, export=Export(format="png", max_kb=20)), photo)
        self.assertFalse(file.meets_cap)
        self.assertIn(OtherFormat("webp"), file.remedies)
        webp = exported(finish_of(300, 300, export=Export(format="webp", max_kb=20)), photo)
        self.assertTrue(webp.meets_cap)

    def test_a_cap_with_room_stops_at_the_ceiling(self):
        file = exported(finish_of(export=Export(max_kb=99999)), self.sources)
        self.assertEqual(file.quality, 95)


class MetadataTest(unittest.TestCase):
    def setUp(self):
        block = Image.Exif()
        block[0x013B] = "Möller".encode()
        block[0x010F] = "A camera"
        block.get_ifd(0x8825)[1] = "N"
        block.get_ifd(0x8769)[0x829D] = 2.8
        self.data = encoded(gradient(40, 40), "JPEG", exif=block)
        facts = decode(self.data).facts
        self.sources = sources_of(
            gradient(40, 40), author=facts.author, copyright=facts.copyright, exif=facts.exif
        )

    def exif(self, **settings):
        file = exported(finish_of(export=Export(**settings)), self.sources)
        return opened(file).getexif(), decode(file.data).facts

    def test_camera_and_location_are_dropped_and_the_author_kept(self):
        for image_format in FORMATS:
            with self.subTest(image_format):
                exif, facts = self.exif(format=image_format)
                self.assertEqual(set(exif), {0x013B})
                self.assertEqual(facts.author, "Möller")

    def test_camera_data_and_the_place_are_kept_when_asked_for_each_alone(self):
        for image_format in FORMATS:
            for camera, place in ((True, False), (False, True), (True, True)):
                with self.subTest(image_format, camera=camera, place=place):
                    exif, facts = self.exif(
                        format=image_format, keep_camera_data=camera, keep_place=place
                    )
                    self.assertEqual(exif.get(0x010F), "A camera" if camera else None)
                    self.assertEqual(exif.get_ifd(0x8825).get(1), "N" if place else None)
                    self.assertEqual(exif.get_ifd(0x8769).get(0x829D), 2.8 if camera else None)
                    self.assertEqual(facts.author, "Möller")

    def test_a_damaged_block_is_left_out_and_the_credits_stay(self):
        rng = np.random.default_rng(4)
        clean = decode(self.data).facts.exif
        for number in range(200):
            damaged = bytearray(clean)
            for place in rng.integers(6, len(clean), 3):
                damaged[place] = rng.integers(0, 256)
            sources = sources_of(gradient(9, 9), author="Ana", exif=bytes(damaged))
            settings = Export(keep_camera_data=True, keep_place=True)
            with self.subTest(number), warnings.catch_warnings():
                warnings.simplefilter("ignore")
                file = exported(finish_of(export=settings), sources)
                self.assertEqual(decode(file.data).facts.author, "Ana")

    def test_credits_can_be_set(self):
        _, facts = self.exif(author="Ana", copyright="© 2026 Pebblewick Pottery")
        self.assertEqual((facts.author, facts.copyright), ("Ana", "© 2026 Pebblewick Pottery"))

    def test_what_it_shows_is_told_in_every_format(self):
        shown = "Blue mugs & bowls,\n<on> a \N{POTTED PLANT} shelf\x0b"
        for image_format in FORMATS:
            settings = Export(format=image_format, alt_text=shown)
            image = opened(exported(finish_of(export=settings), self.sources))
            with self.subTest(image_format):
                if image_format == "png":
                    self.assertEqual(image.info["Description"], shown.removesuffix("\x0b"))
                told = said_in(image, "Iptc4xmpCore:AltTextAccessibility")
                self.assertEqual(told, shown.removesuffix("\x0b"))
                described = image.getexif()[Base.ImageDescription]
                self.assertEqual(described.encode("latin-1").decode(), shown.strip())

    def test_words_have_the_names_of_the_iptc_core(self):
        said = {
            "dc:title": "Mugs & <bowls>",
            "dc:description": "Four of them.",
            "dc:creator": "Ana 🪴",
            "dc:rights": "© 2026",
        }
        fields = ("title", "description", "author", "copyright")
        for image_format in (*FORMATS, "tiff"):
            settings = Export(format=image_format, **dict(zip(fields, said.values(), strict=True)))
            image = opened(exported(finish_of(export=settings), self.sources))
            with self.subTest(image_format):
                self.assertEqual({name: said_in(image, name) for name in said}, said)
                described = image.getexif()[Base.ImageDescription]
                self.assertEqual(described, "Four of them.")

    def test_a_photo_without_credits_gives_a_file_without_metadata(self):
        for image_format in FORMATS:
            settings = Export(format=image_format)
            image = opened(exported(finish_of(export=settings), sources_of(gradient(20, 20))))
            self.assertEqual(len(image.getexif()), 0)
            self.assertFalse({"xmp", "Description"} & set(image.info))


class NameTest(unittest.TestCase):
    def stem(self, pattern, name="Thursday mugs"):
        return file_stem(pattern, name=name, size="Tall post", width=1080, height=1350)

    def test_patterns(self):
        for pattern, expected in (
            ("{name}-{width}x{height}", "thursday-mugs-1080x1350"),
            ("{size} of {name}", "tall-post-of-thursday-mugs"),
            ("plain", "plain"),
            ("{{{name}}}", "{thursday-mugs}"),
        ):
            with self.subTest(pattern):
                self.assertEqual(self.stem(pattern), expected)

    def test_bad_patterns_are_said(self):
        for pattern in ("{nam}", "{", "{name!r}", "{width:>9}", "{0}", "{name.real}"):
            with self.subTest(pattern), self.assertRaisesRegex(BadInput, "can use {name}"):
                self.stem(pattern)

    def test_hostile_names_become_safe(self):
        for name, expected in (
            ("../../etc/passwd", "etc-passwd"),
            ("a/b\\c:d", "a-b-c-d"),
            ("🏺 Töpferei", "🏺-töpferei"),
            ("...", "photo"),
            ("CON", "con-photo"),
            ("x\0y", "x-y"),
        ):
            with self.subTest(name):
                self.assertEqual(safe_stem(name), expected)

    @given(st.text(max_size=400))
    def test_any_name_is_short_and_harmless(self, name):
        stem = safe_stem(name)
        self.assertTrue(stem)
        self.assertLessEqual(len(stem.encode()), MAX_STEM_BYTES + len("-photo"))
        self.assertFalse(set(stem) & set('/\\:*?"<>|\0\n'))
        self.assertFalse(stem.startswith("."))


class SeveralTest(unittest.TestCase):
    """Files of several sizes: never two names alike, and one archive."""

    facts = sources_of(gradient(300, 200)).facts(SHA)

    def test_names_that_would_be_alike_get_numbers(self):
        finish = finish_of(80, 60, export=Export(name_pattern="{name}"))
        sizes = [finish.sizes[0].model_copy(update={"id": f"s{n}"}) for n in range(3)]
        names = file_names(finish.model_copy(update={"sizes": tuple(sizes)}), self.facts)
        self.assertEqual(list(names.values()), ["test.jpg", "test-2.jpg", "test-3.jpg"])

    def test_a_number_that_is_taken_is_passed_over(self):
        self.assertEqual(unlike("a.jpg", ["a.jpg", "a-2.jpg"]), "a-3.jpg")
        self.assertEqual(unlike("b.jpg", ["a.jpg"]), "b.jpg")

    def test_an_archive_holds_every_file_and_is_the_same_every_time(self):
        files = [("a.jpg", b"one"), ("a.jpg", b"two"), ("ü.png", b"three")]
        data = zipped(files)
        archive = zipfile.ZipFile(io.BytesIO(data))
        self.assertEqual(archive.namelist(), ["a.jpg", "a-2.jpg", "ü.png"])
        self.assertEqual(archive.read("a-2.jpg"), b"two")
        self.assertIsNone(archive.testzip())
        self.assertEqual(zipped(files), data)


class AltTextTest(unittest.TestCase):
    def test_it_is_proposed_from_the_name_and_the_words_from_the_top(self):
        pieces = [
            {"kind": "text", "id": "text-1", "text": "From  Friday"},
            {"kind": "text", "id": "text-2", "text": "New\nglazes", "dy": -0.3},
            {"kind": "badge", "id": "badge-1", "form": "burst", "text": "20 %", "dy": 0.3},
        ]
        finish = finish_of(300, 300, pieces=pieces).model_copy(update={"name": "Blue_mugs"})
        edit = alt_text_proposal(scene_of(finish, sources_of(gradient(30, 30)))).edit
        words = "\N{LEFT DOUBLE QUOTATION MARK}{}\N{RIGHT DOUBLE QUOTATION MARK}"
        said = ", ".join(words.format(line) for line in ("New glazes", "From Friday", "20 %"))
        self.assertEqual(edit.alt_text, f"Blue mugs. Words in the picture: {said}.")

    def test_a_name_alone_and_very_many_words(self):
        sources = sources_of(gradient(30, 30))
        plain = alt_text_proposal(scene_of(finish_of(300, 300), sources)).edit
        self.assertEqual(plain.alt_text, "Test.")
        long = {"kind": "text", "id": "text-1", "text": "words " * 300}
        full = alt_text_proposal(scene_of(finish_of(300, 300, pieces=[long]), sources)).edit
        self.assertEqual(len(full.alt_text), 1000)

    def test_the_table_of_several_is_harmless_in_a_spreadsheet(self):
        rows = [("a.jpg", "Mugs, blue"), ("=1+1.jpg", "@SUM(A1)"), ("ü.png", 'a "bowl"\nhere')]
        table = alt_text_table(rows).decode("utf-8-sig")
        read = list(csv.reader(io.StringIO(table, newline="")))
        wanted = [("a.jpg", "Mugs, blue"), ("'=1+1.jpg", "'@SUM(A1)"), rows[2]]
        self.assertEqual(read, [["File", "Alternative text"], *map(list, wanted)])


class ResolutionTest(unittest.TestCase):
    def test_a_size_on_paper_says_its_resolution_in_every_format(self):
        pixels = FixedPixels.on_paper(Printed(width=20, height=10, ppi=150))
        for image_format in FORMATS:
            finish = with_size(finish_of(export=Export(format=image_format)), pixels=pixels)
            image = opened(exported(finish, sources_of(gradient(300, 200))))
            with self.subTest(image_format):
                self.assertEqual(image.size, (118, 59))
                exif = image.getexif()
                self.assertEqual((float(exif[0x011A]), exif[0x0128]), (150, 2))
                if image_format in ("jpeg", "png"):
                    self.assertAlmostEqual(image.info["dpi"][0], 150, delta=0.1)

    def test_a_size_on_a_screen_says_none(self):
        image = opened(exported(finish_of(20, 10), sources_of(gradient(300, 200))))
        self.assertNotIn("dpi", image.info)
