"""Photos of 16 bits and TIFFs of every arrangement, against files whose pixels are known."""

import io
import itertools
import struct
import unittest
import zlib
from unittest import mock

import imagecodecs
import numpy as np
import tifffile
from PIL import Image

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos import decode
from tests.support import encoded, gradient, noise


def tiff(picture, **options):
    buffer = io.BytesIO()
    tifffile.imwrite(buffer, picture, **options)
    return buffer.getvalue()


def png(rows, colour_type, chunks=()):
    """A 16-bit PNG (ISO 15948) of ``rows``, shape (height, width, channels), without filters."""
    height, width = rows.shape[:2]
    lines = b"".join(b"\0" + row.astype(">u2").tobytes() for row in rows)
    header = struct.pack(">IIBBBBB", width, height, 16, colour_type, 0, 0, 0)
    parts = [(b"IHDR", header), *chunks, (b"IDAT", zlib.compress(lines)), (b"IEND", b"")]
    return b"\x89PNG\r\n\x1a\n" + b"".join(
        struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))
        for kind, body in parts
    )


def widened(picture):
    """Grey, with or without alpha, as the image contract has it."""
    if picture.shape[2] >= 3:
        return picture
    return np.concatenate([np.repeat(picture[:, :, :1], 3, 2), picture[:, :, 1:]], axis=2)


class TiffTest(unittest.TestCase):
    def test_every_arrangement_of_16_bits_comes_back_exactly(self):
        kinds = {
            "minisblack": (1, None),
            "miniswhite": (1, None),
            "grey with alpha": (2, "unassalpha"),
            "rgb": (3, None),
            "rgb with alpha": (4, "unassalpha"),
            "rgb and something": (4, "unspecified"),
            "rgb with two more": (5, "unassalpha"),
        }
        packings = [(None, False), ("packbits", False), ("lzw", True), ("zlib", True)]
        variants = itertools.product(kinds.items(), packings, (None, (16, 16)), "<>", (1, 2))
        for (kind, (channels, extra)), (packing, predictor), tile, order, planar in variants:
            if channels == 1 and planar == 2:
                continue
            stored = noise(37, 23, channels, np.uint16)
            with self.subTest(kind=kind, packing=packing, tile=tile, order=order, planar=planar):
                written = stored if channels > 1 else stored[:, :, 0]
                options = {"photometric": "minisblack" if "grey" in kind else kind.split(" ")[0]}
                if channels > 1:
                    options["planarconfig"] = "contig" if planar == 1 else "separate"
                if extra:
                    options["extrasamples"] = [extra] + ["unspecified"] * (channels == 5)
                if planar == 2:
                    written = np.ascontiguousarray(np.moveaxis(stored, 2, 0))
                data = tiff(
                    written, compression=packing, predictor=predictor, tile=tile, byteorder=order,
                    **options,
                )  # fmt: skip
                truth = ~stored if kind == "miniswhite" else stored
                truth = truth[:, :, :3] if extra == "unspecified" else truth[:, :, :4]
                np.testing.assert_array_equal(decode(data).picture, widened(truth))

    def test_planes_of_8_bits_are_put_together(self):
        for channels, extra in ((3, []), (4, ["unassalpha"])):
            stored = noise(31, 17, channels)
            planes = np.ascontiguousarray(np.moveaxis(stored, 2, 0))
            data = tiff(planes, photometric="rgb", planarconfig="separate", extrasamples=extra)
            np.testing.assert_array_equal(decode(data).picture, stored)

    def test_colours_multiplied_by_alpha_are_divided(self):
        straight = noise(40, 30, 4, np.uint16)
        alpha = straight[:, :, 3:].astype(np.float64) / 65535
        stored = np.concatenate([np.rint(straight[:, :, :3] * alpha), straight[:, :, 3:]], axis=2)
        data = tiff(stored.astype(np.uint16), photometric="rgb", extrasamples=["assocalpha"])
        found = decode(data).picture
        np.testing.assert_array_equal(found[:, :, 3], straight[:, :, 3])
        error = np.abs(found[:, :, :3].astype(float) - straight[:, :, :3])
        # What rounding to whole numbers at that alpha loses, and half a step of ours.
        self.assertLessEqual((error - 0.5 / np.maximum(alpha, 1e-9)).max(), 0.5)

    def test_600_compressed_tiffs_of_8_bits_are_read(self):
        rng = np.random.default_rng(16)
        for number in range(600):
            width, height = rng.integers(1, 90, 2)
            channels, packing = rng.choice([1, 3, 4]), rng.choice(["tiff_lzw", "tiff_deflate"])
            picture = rng.integers(0, 256, (height, width, channels), dtype=np.uint8)
            with self.subTest(number):
                stored = picture if channels > 1 else picture[:, :, 0]
                data = encoded(stored, "TIFF", compression=str(packing))
                np.testing.assert_array_equal(decode(data).picture, widened(picture))

    def test_jpeg_inside_a_tiff_is_read_print_colours_too(self):
        photo = gradient(64, 48)
        for mode in ("RGB", "CMYK"):
            image = Image.fromarray(photo).convert(mode)
            buffer = io.BytesIO()
            image.save(buffer, "TIFF", compression="jpeg", quality=95)
            found = decode(buffer.getvalue()).picture.astype(int)
            self.assertLess(np.abs(found - np.asarray(image.convert("RGB"))).mean(), 3, mode)

    def test_print_colours_of_16_bits_are_read_at_8(self):
        inks = np.zeros((8, 8, 4), np.uint16)
        inks[:, :4, 0] = 65535
        found = decode(tiff(inks, photometric="separated")).picture
        self.assertEqual(found.dtype, np.uint8)
        np.testing.assert_array_equal(found[0, 0], [0, 255, 255])
        np.testing.assert_array_equal(found[0, 7], [255, 255, 255])

    def test_what_cannot_be_read_rightly_is_refused_with_the_true_reason(self):
        cases = (
            ("floating-point numbers of 32 bits", np.float32, 1),
            ("floating-point numbers of 32 bits", np.float32, 3),
            ("floating-point numbers of 16 bits", np.float16, 3),
            ("floating-point numbers of 64 bits", np.float64, 3),
            ("signed numbers of 32 bits", np.int32, 1),
            ("signed numbers of 16 bits", np.int16, 3),
            ("whole numbers of 32 bits", np.uint32, 3),
        )
        for saying, dtype, channels in cases:
            picture = np.ones((9, 9, channels), dtype)
            kind = "rgb" if channels == 3 else "minisblack"
            data = tiff(picture if channels == 3 else picture[:, :, 0], photometric=kind)
            with self.subTest(saying), self.assertRaisesRegex(UnreadablePhoto, saying):
                decode(data, "scan.tif")
        many = tiff(np.ones((9, 9, 12), np.uint8), photometric="rgb")
        with self.assertRaisesRegex(UnreadablePhoto, "more than 8 channels"):
            decode(many, "scan.tif")

    def test_pages_orientation_and_credits_come_from_the_tags(self):
        first, second = noise(9, 5, 3, np.uint16), noise(4, 4, 3, np.uint16)
        tags = [(274, 3, 1, 6, True), (315, 2, 0, "Möller".encode(), True)]
        buffer = io.BytesIO()
        with tifffile.TiffWriter(buffer) as writer:
            writer.write(first, photometric="rgb", extratags=tags)
            writer.write(second, photometric="rgb")
        photo = decode(buffer.getvalue())
        np.testing.assert_array_equal(photo.picture, np.rot90(first, -1))
        self.assertEqual(photo.facts.author, "Möller")
        self.assertIn("first of 2", photo.facts.notes[0])

    def test_damaged_tags_are_refused_or_read_but_never_crash(self):
        rng = np.random.default_rng(5)
        clean = tiff(noise(24, 16, 3, np.uint16), photometric="rgb", compression="lzw")
        read = 0
        for number in range(300):
            data = bytearray(clean)
            for place in rng.integers(0, 200, 4):
                data[place] = rng.integers(0, 256)
            with self.subTest(number):
                try:
                    read += decode(bytes(data), "scan.tif").picture.size > 0
                except (UnreadablePhoto, TooLarge) as error:
                    self.assertTrue(str(error).endswith("."))
        self.assertGreater(read, 10)

    def test_running_out_of_memory_is_said_as_such(self):
        data = tiff(noise(8, 8, 3, np.uint16), photometric="rgb")
        with (
            mock.patch.object(imagecodecs, "tiff_decode", side_effect=MemoryError),
            self.assertRaisesRegex(TooLarge, "more memory than is free"),
        ):
            decode(data, "scan.tif")


class PngTest(unittest.TestCase):
    def test_every_kind_of_colour_comes_back_exactly(self):
        for colour_type, channels in ((0, 1), (2, 3), (4, 2), (6, 4)):
            stored = noise(19, 11, channels, np.uint16)
            with self.subTest(colour_type):
                found = decode(png(stored, colour_type)).picture
                np.testing.assert_array_equal(found, widened(stored))

    def test_one_transparent_colour_is_kept(self):
        for colour_type, channels in ((0, 1), (2, 3)):
            stored = noise(19, 11, channels, np.uint16)
            clear = stored[4, 7]
            data = png(stored, colour_type, [(b"tRNS", clear.astype(">u2").tobytes())])
            found = decode(data).picture
            np.testing.assert_array_equal(found[:, :, :3], widened(stored))
            self.assertEqual(found[4, 7, 3], 0)
            self.assertEqual((found[:, :, 3] == 65535).sum(), 19 * 11 - 1)

    def test_an_animation_gives_its_first_picture(self):
        frames = noise(16 * 3, 9, 3, np.uint16).reshape(3, 9, 16, 3)
        photo = decode(imagecodecs.apng_encode(frames))
        np.testing.assert_array_equal(photo.picture, frames[0])
        self.assertIn("first of 3", photo.facts.notes[0])


class WideProfileTest(unittest.TestCase):
    """In-gamut colours, converted by the matrices of their primaries (SMPTE RP 177)."""

    WIDE = (
        (0.64, 0.33, 0.21, 0.71, 0.15, 0.06),
        (0.68, 0.32, 0.265, 0.69, 0.15, 0.06),
        (0.7347, 0.2653, 0.1596, 0.8404, 0.0366, 0.0001),
    )
    SRGB = (0.64, 0.33, 0.30, 0.60, 0.15, 0.06)
    WHITE = (0.3127, 0.3290)

    def matrix(self, primaries):
        def xyz(x, y):
            return [x / y, 1, (1 - x - y) / y]

        sides = np.array([xyz(*primaries[i : i + 2]) for i in (0, 2, 4)]).T
        return sides * np.linalg.solve(sides, xyz(*self.WHITE))

    def test_16_bit_colours_are_off_by_less_than_a_step_of_8_bits(self):
        srgb = np.random.default_rng(2).random((60, 70, 3))
        linear = np.where(srgb <= 0.04045, srgb / 12.92, ((srgb + 0.055) / 1.055) ** 2.4)
        for primaries in self.WIDE:
            profile = imagecodecs.cms_profile(
                "rgb",
                whitepoint=[*self.WHITE, 1],
                primaries=[v for i in (0, 2, 4) for v in (*primaries[i : i + 2], 1)],
                gamma=2.2,
            )
            to_wide = np.linalg.inv(self.matrix(primaries)) @ self.matrix(self.SRGB)
            wide = np.clip(linear @ to_wide.T, 0, 1) ** (1 / 2.2)
            stored = np.rint(wide * 65535).astype(np.uint16)
            with self.subTest(primaries):
                found = decode(tiff(stored, photometric="rgb", iccprofile=profile)).picture
                self.assertLess(np.abs(found / 65535 - srgb).max() * 255, 0.4)

    def test_a_grey_profile_is_followed_too(self):
        profile = imagecodecs.cms_profile("gray", whitepoint=[*self.WHITE, 1], gamma=1.0)
        grey = np.array([[0.0, 0.05, 0.2140, 1.0]])
        data = tiff(np.rint(grey * 65535).astype(np.uint16), iccprofile=profile)
        found = decode(data).picture[0, :, 0] / 65535
        expected = np.where(grey <= 0.0031308, grey * 12.92, 1.055 * grey ** (1 / 2.4) - 0.055)
        np.testing.assert_allclose(found, expected[0], atol=1 / 255)


class CreditTest(unittest.TestCase):
    def test_credits_that_only_xmp_holds_are_read(self):
        xmp = (
            '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" '
            'xmlns:dc="http://purl.org/dc/elements/1.1/"><rdf:Description>'
            "<dc:creator><rdf:Seq><rdf:li>Möller</rdf:li><rdf:li>Ito</rdf:li></rdf:Seq></dc:creator>"
            '<dc:rights><rdf:Alt><rdf:li xml:lang="x-default">© Pebblewick</rdf:li></rdf:Alt>'
            "</dc:rights></rdf:Description></rdf:RDF>"
        ).encode()
        photo = noise(8, 8)
        files = {
            "JPEG": encoded(photo, "JPEG", xmp=xmp),
            "WEBP": encoded(photo, "WEBP", xmp=xmp),
            "TIFF": tiff(
                noise(8, 8, 3, np.uint16), photometric="rgb", extratags=[(700, 1, 0, xmp, True)]
            ),
        }
        for kind, data in files.items():
            with self.subTest(kind):
                facts = decode(data).facts
                self.assertEqual((facts.author, facts.copyright), ("Möller, Ito", "© Pebblewick"))
        for damaged in (b"<x", b"<!DOCTYPE x [<!ENTITY a 'b'>]><x>&a;</x>", b"\xff\xfe"):
            self.assertEqual(decode(encoded(photo, "JPEG", xmp=damaged)).facts.author, "")
