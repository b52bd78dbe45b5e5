"""Reading photos: every format, orientation and profile, and every kind of bad file."""

import io
import unittest
import zlib

import cv2
import numpy as np
from imagecodecs import png_encode
from PIL import Image, ImageOps

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos import decode
from lucky_margin.core.photos.jpeg import is_cut_off
from lucky_margin.core.photos.profiles import is_srgb, srgb_profile
from tests.support import DEMO_PHOTOS, encoded, gradient, noise

ORIENTATION, ARTIST, COPYRIGHT = 0x0112, 0x013B, 0x8298


def exif(**tags):
    block = Image.Exif()
    for tag, value in tags.items():
        block[{"orientation": ORIENTATION, "artist": ARTIST, "copyright": COPYRIGHT}[tag]] = value
    return block


def save(image, image_format, **options):
    buffer = io.BytesIO()
    image.save(buffer, image_format, **options)
    return buffer.getvalue()


class FormatTest(unittest.TestCase):
    def test_lossless_formats_come_back_exactly(self):
        photo = noise(37, 23)
        for image_format, options in (
            ("PNG", {}),
            ("TIFF", {}),
            ("BMP", {}),
            ("WEBP", {"lossless": True}),
        ):
            with self.subTest(image_format):
                np.testing.assert_array_equal(
                    decode(encoded(photo, image_format, **options)).picture, photo
                )

    def test_lossy_formats_come_back_nearly(self):
        photo = gradient(96, 64)
        for image_format in ("JPEG", "WEBP", "AVIF", "HEIF"):
            with self.subTest(image_format):
                found = decode(encoded(photo, image_format, quality=95)).picture
                self.assertLess(np.abs(found.astype(int) - photo).mean(), 3)

    def test_jpeg_is_what_pillow_decodes(self):
        path = DEMO_PHOTOS / "bird-figure.jpg"
        np.testing.assert_array_equal(
            decode(path.read_bytes()).picture, np.asarray(Image.open(path))
        )

    def test_the_end_of_a_thumbnail_is_not_taken_for_the_end_of_the_photo(self):
        block = Image.Exif()
        block[ARTIST] = b"\xff\xd9 is an end too"
        data = encoded(noise(64, 64), "JPEG", exif=block)
        self.assertFalse(is_cut_off(data))
        self.assertTrue(is_cut_off(data[: len(data) // 2]))

    def test_grey_palette_and_bilevel_are_widened(self):
        image = Image.fromarray(gradient(20, 10))
        for mode in ("L", "1", "P"):
            with self.subTest(mode):
                source = image.convert(mode)
                found = decode(save(source, "PNG")).picture
                np.testing.assert_array_equal(found, np.asarray(source.convert("RGB")))

    def test_transparency_is_kept_straight_and_an_idle_alpha_dropped(self):
        photo = noise(20, 10, 4)
        np.testing.assert_array_equal(decode(encoded(photo)).picture, photo)
        photo[:, :, 3] = 255
        self.assertEqual(decode(encoded(photo)).picture.shape, (10, 20, 3))

    def test_a_transparent_palette_entry_is_transparent(self):
        image = Image.fromarray(gradient(20, 10)).convert("P")
        image.putpixel((3, 4), 7)
        found = decode(save(image, "GIF", transparency=7)).picture
        self.assertEqual(found[4, 3, 3], 0)

    def test_sixteen_bits_are_kept(self):
        colour = noise(16, 12, 3, np.uint16)
        for suffix in (".png", ".tiff"):
            with self.subTest(suffix):
                data = cv2.imencode(suffix, colour[:, :, ::-1])[1].tobytes()
                photo = decode(data)
                np.testing.assert_array_equal(photo.picture, colour)
                self.assertEqual(photo.facts.bits, 16)

    def test_sixteen_bit_grey_and_alpha(self):
        grey = noise(16, 12, 1, np.uint16)
        found = decode(cv2.imencode(".png", grey)[1].tobytes()).picture
        np.testing.assert_array_equal(found, np.repeat(grey, 3, axis=2))
        clear = noise(16, 12, 4, np.uint16)
        found = decode(cv2.imencode(".png", clear)[1].tobytes()).picture
        np.testing.assert_array_equal(found, clear[:, :, [2, 1, 0, 3]])

    def test_several_frames_give_the_first_and_say_so(self):
        frames = [Image.fromarray(gradient(20, 10)), Image.fromarray(noise(20, 10))]
        for image_format in ("GIF", "TIFF", "WEBP"):
            with self.subTest(image_format):
                data = save(frames[0], image_format, save_all=True, append_images=frames[1:])
                photo = decode(data)
                self.assertEqual(photo.picture.shape[:2], (10, 20))
                self.assertIn("first of 2 frames", photo.facts.notes[0])

    def test_the_multi_picture_jpeg_of_phones_gives_its_main_picture(self):
        frames = [Image.fromarray(gradient(32, 16)), Image.fromarray(noise(8, 8))]
        data = save(frames[0], "MPO", save_all=True, append_images=frames[1:])
        photo = decode(data)
        self.assertEqual((photo.facts.width, photo.facts.file_format), (32, "JPEG"))


class OrientationTest(unittest.TestCase):
    def test_every_orientation_is_carried_out(self):
        photo = noise(9, 5)
        for orientation in range(1, 9):
            for image_format in ("PNG", "TIFF"):
                with self.subTest(orientation=orientation, image_format=image_format):
                    data = encoded(photo, image_format, exif=exif(orientation=orientation))
                    upright = ImageOps.exif_transpose(Image.open(io.BytesIO(data)))
                    np.testing.assert_array_equal(decode(data).picture, np.asarray(upright))

    def test_facts_are_of_the_upright_photo(self):
        facts = decode(encoded(noise(9, 5), exif=exif(orientation=6))).facts
        self.assertEqual((facts.width, facts.height), (5, 9))


class ProfileTest(unittest.TestCase):
    def test_srgb_is_recognised_and_left_alone(self):
        self.assertTrue(is_srgb(srgb_profile()))
        photo = noise(20, 20)
        np.testing.assert_array_equal(
            decode(encoded(photo, icc_profile=srgb_profile())).picture, photo
        )

    def test_the_profile_is_the_same_every_time(self):
        self.assertEqual(srgb_profile(), srgb_profile())
        self.assertEqual(srgb_profile()[24:36], bytes(12))

    def test_a_profile_with_other_primaries_moves_colours_as_the_matrices_say(self):
        wide = matrix_profile()
        self.assertFalse(is_srgb(wide))
        red = np.full((4, 4, 3), [255, 0, 0], np.uint8)
        found = decode(encoded(red, icc_profile=wide)).picture[0, 0].astype(int)
        # Swapped red and green primaries: what was full red is full green.
        np.testing.assert_allclose(found, [0, 255, 0], atol=2)

    def test_sixteen_bit_photos_are_converted_too(self):
        deep = np.full((4, 4, 3), [65535, 0, 0], np.uint16)
        data = with_png_profile(png_encode(deep), matrix_profile())
        photo = decode(data)
        self.assertEqual(photo.picture.dtype, np.uint16)
        np.testing.assert_allclose(photo.picture[0, 0] / 65535, [0, 1, 0], atol=0.01)

    def test_a_broken_profile_is_said_and_taken_as_srgb(self):
        deep = with_png_profile(png_encode(noise(6, 6, 3, np.uint16)), b"no profile")
        plain = encoded(noise(6, 6), icc_profile=b"no profile")
        jpeg = encoded(noise(6, 6), "JPEG", icc_profile=b"no profile")
        without = decode(encoded(noise(6, 6), "JPEG")).picture
        for data, expected in (
            (deep, noise(6, 6, 3, np.uint16)),
            (plain, noise(6, 6)),
            (jpeg, without),
        ):
            photo = decode(data)
            np.testing.assert_array_equal(photo.picture, expected)
            self.assertIn("profile is broken", photo.facts.notes[0])

    def test_print_colours_are_converted_and_said(self):
        image = Image.new("CMYK", (8, 8), (0, 0, 0, 255))
        photo = decode(save(image, "TIFF"))
        self.assertLess(photo.picture.max(), 40)
        self.assertIn("CMYK", photo.facts.notes[0])


class CreditTest(unittest.TestCase):
    def test_author_and_copyright_are_read_in_any_alphabet(self):
        block = exif(artist="Möller".encode(), copyright="© Pebblewick".encode())
        facts = decode(encoded(noise(4, 4), "JPEG", exif=block)).facts
        self.assertEqual((facts.author, facts.copyright), ("Möller", "© Pebblewick"))


class RefusalTest(unittest.TestCase):
    def refusal(self, data, name="thing.jpg", error=UnreadablePhoto):
        with self.assertRaises(error) as caught:
            decode(data, name)
        message = str(caught.exception)
        self.assertTrue(message.startswith(f"“{name}”") and message.endswith("."), message)
        return message

    def test_what_is_no_picture(self):
        for data in (
            b"",
            b"hello",
            b"%PDF-1.7 ...",
            b"<svg xmlns='http://www.w3.org/2000/svg'/>",
            bytes(999),
        ):
            with self.subTest(data[:9]):
                self.refusal(data)

    def test_truncated_files_of_every_format(self):
        for image_format in ("JPEG", "PNG", "WEBP", "AVIF", "HEIF", "TIFF", "GIF", "BMP"):
            data = encoded(noise(64, 64), image_format)
            for share in (0.1, 0.5, 0.9):
                with self.subTest(image_format, share=share):
                    self.refusal(data[: int(len(data) * share)])

    def test_corrupt_bytes_are_refused_or_read_but_never_crash(self):
        rng = np.random.default_rng(3)
        for image_format in ("JPEG", "PNG", "WEBP", "TIFF", "GIF"):
            clean = encoded(gradient(48, 48), image_format)
            for _ in range(25):
                data = bytearray(clean)
                for place in rng.integers(0, len(data), 12):
                    data[place] = rng.integers(0, 256)
                with self.subTest(image_format):
                    try:
                        self.assertEqual(decode(bytes(data)).picture.dtype.kind, "u")
                    except (UnreadablePhoto, TooLarge) as error:
                        self.assertTrue(str(error).endswith("."))

    def test_raw_files_of_cameras_are_told_what_to_do(self):
        self.assertIn("saved as JPEG or TIFF", self.refusal(b"anything", "scan.cr3"))
        sensor = save(Image.fromarray(noise(8, 8)), "TIFF", tiffinfo={50706: b"\1\4\0\0"})
        self.assertIn("saved as JPEG or TIFF", self.refusal(sensor, "scan.tif"))

    def test_float_tiffs_are_told_what_to_do(self):
        data = save(Image.new("F", (4, 4)), "TIFF")
        self.assertIn("8 or 16 bits", self.refusal(data))

    def test_too_many_pixels_are_refused_before_decoding(self):
        # The header alone claims them; there is no pixel data to decode.
        header = bytearray(encoded(noise(4, 4), "BMP")[:60])
        header[18:26] = (20_000).to_bytes(4, "little") + (20_000).to_bytes(4, "little")
        message = self.refusal(bytes(header), error=TooLarge)
        self.assertIn("20000 × 20000", message)

    def test_extreme_but_allowed_sides_are_read(self):
        for width, height in ((1, 1), (20000, 50), (1, 3000)):
            with self.subTest(width=width):
                self.assertEqual(
                    decode(encoded(noise(width, height))).picture.shape, (height, width, 3)
                )


def matrix_profile() -> bytes:
    """The sRGB profile with its red and green primaries swapped."""
    profile = bytearray(srgb_profile())
    count = int.from_bytes(profile[128:132], "big")
    places = {bytes(profile[i : i + 4]): i for i in range(132, 132 + 12 * count, 12)}
    red, green = places[b"rXYZ"], places[b"gXYZ"]
    profile[red + 4 : red + 12], profile[green + 4 : green + 12] = (
        profile[green + 4 : green + 12],
        profile[red + 4 : red + 12],
    )
    return bytes(profile)


def with_png_profile(data: bytes, profile: bytes) -> bytes:
    """A PNG with an iCCP chunk put in after its header."""
    body = b"iCCP" + b"other\0\0" + zlib.compress(profile)
    chunk = (len(body) - 4).to_bytes(4, "big") + body + zlib.crc32(body).to_bytes(4, "big")
    return data[:33] + chunk + data[33:]
