"""Drawings in SVG are made safe and drawn in shipped fonts; hostile ones are refused."""

import base64
import os
import struct
import time
import unittest
import zlib

import numpy as np

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos import decode
from lucky_margin.core.photos import svg as svg_module
from lucky_margin.core.photos.svg import LONG_SIDE, MOST_DEPTH, is_svg
from tests.support import encoded, noise

HEAD = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 50">'


def svg(body, head=HEAD):
    return head + body + b"</svg>"


class DrawnTest(unittest.TestCase):
    def test_style_sheets_are_followed_and_the_rest_is_transparent(self):
        photo = decode(svg(b"<style>.a{fill:#c00}</style><rect class='a' width='50' height='50'/>"))
        self.assertEqual(photo.picture.shape, (LONG_SIDE // 2, LONG_SIDE, 4))
        self.assertEqual(photo.picture[600, 600].tolist(), [204, 0, 0, 255])
        self.assertEqual(photo.picture[600, 1800, 3], 0)
        self.assertEqual(photo.facts.file_format, "SVG")

    def test_letters_are_drawn_in_shipped_fonts_and_others_are_said(self):
        text = b"<text x='5' y='35' font-family='%s' font-size='30'>Pots</text>"
        shipped = decode(svg(text % b"Figtree"))
        self.assertTrue(shipped.picture[:, :, 3].any())
        self.assertEqual(shipped.facts.notes, ())
        other = decode(svg(text % b"Some Face"))
        self.assertTrue(other.picture[:, :, 3].any())
        self.assertIn("some face", other.facts.notes[0])

    def test_no_size_endless_and_odd_ones_come_out_at_a_sensible_size(self):
        plain = b"<rect width='100%' height='100%'/>"
        for head in (
            b'<svg xmlns="http://www.w3.org/2000/svg">',
            b'<svg xmlns="http://www.w3.org/2000/svg" width="1e9" height="1e9">',
            b'<svg xmlns="http://www.w3.org/2000/svg" width="-3" height="abc">',
            b'\xef\xbb\xbf<?xml version="1.0"?>' + HEAD,
        ):
            with self.subTest(head):
                sides = decode(svg(plain, head)).picture.shape[:2]
                self.assertEqual(max(sides), LONG_SIDE)

    def test_the_namespace_may_have_a_prefix(self):
        data = b"<s:svg xmlns:s='http://www.w3.org/2000/svg'><s:rect width='9' height='9'/></s:svg>"
        self.assertEqual(decode(data, "logo.svg").picture.shape[2], 4)

    def test_a_photo_that_mentions_svg_is_a_photo(self):
        self.assertFalse(is_svg(b"\xff\xd8\xff\xe1 <svg "))


class HostileTest(unittest.TestCase):
    def test_scripts_are_left_out_and_said(self):
        body = b"<script>alert(1)</script><rect onclick='x()' width='50' height='50'/>"
        photo = decode(svg(body))
        self.assertIn("scripts", photo.facts.notes[0])
        self.assertTrue(np.any(photo.picture[:, :, 3]))

    def test_what_is_not_safe_is_refused_in_one_sentence(self):
        bomb = (
            b'<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "b"><!ENTITY c "&a;&a;">]>'
            b'<svg xmlns="http://www.w3.org/2000/svg"><text>&c;</text></svg>'
        )
        outside = b'<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]><svg>&x;</svg>'
        deep = svg(b"<g>" * (MOST_DEPTH + 5) + b"</g>" * (MOST_DEPTH + 5))
        cases = {
            "entities": bomb,
            "entities of": outside,
            "links to other files": svg(b"<image href='http://127.0.0.1/x.png'/>"),
            "links to": svg(b"<image href='../../secret.png'/>"),
            "links": svg(b"<style>@import 'x.css';</style><rect width='9' height='9'/>"),
            "which are not fetched": svg(b"<rect fill='url(http://x/#a)' width='9' height='9'/>"),
            "well-formed": svg(b"<g>"),
            "not an SVG drawing": b"<html><svg></svg></html>",
            "nests too deeply": deep,
            "without anything to see": svg(b""),
        }
        for saying, data in cases.items():
            with self.subTest(saying), self.assertRaisesRegex(UnreadablePhoto, saying):
                decode(data, "logo.svg")
        with self.assertRaisesRegex(TooLarge, "long and narrow"):
            decode(
                svg(b"<rect/>", b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9000 1">')
            )
        with self.assertRaisesRegex(TooLarge, "MB accepted for an SVG"):
            decode(svg(b" " * 10_000_001))


class LimitsTest(unittest.TestCase):
    """What a small file can ask for: it is refused, and the next one is drawn as ever."""

    FILTERED = b"<rect width='99' height='50' filter='url(#f)'/>"

    def refused(self, body, saying, error=UnreadablePhoto):
        began = time.monotonic()
        with self.assertRaisesRegex(error, saying) as caught:
            decode(svg(body), "logo.svg")
        self.assertTrue(str(caught.exception).startswith("“logo.svg” "))
        # The child's own limit is 4 s; a process has to be started and ended besides.
        self.assertLess(time.monotonic() - began, 20)
        self.assertTrue(decode(svg(b"<rect width='9' height='9'/>")).picture[:, :, 3].any())

    def test_what_would_end_the_process(self):
        pattern = (
            b"<pattern id='p' width='1e6' height='1e6' patternUnits='userSpaceOnUse'>"
            b"<rect width='9' height='9'/></pattern><rect width='99' height='50' fill='url(#p)'/>"
        )
        self.refused(pattern, "too long or too much memory")

    def test_what_would_take_forever(self):
        noise_filter = b"<filter id='f'><feTurbulence numOctaves='60' baseFrequency='.1'/></filter>"
        self.refused(noise_filter + self.FILTERED, "too long or too much memory")

    def test_embedded_pictures_are_measured_before_they_are_drawn(self):
        head = struct.pack(">IIBBBBB", 30_000, 30_000, 8, 0, 0, 0, 0)
        chunks = ((b"IHDR", head), (b"IDAT", zlib.compress(bytes(9))), (b"IEND", b""))
        huge = b"\x89PNG\r\n\x1a\n" + b"".join(
            struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))
            for kind, body in chunks
        )
        link = b"<image width='9' height='9' href='data:image/png;base64,%s'/>"
        self.refused(link % base64.b64encode(huge), "more than 50 megapixels", TooLarge)
        self.refused(link % base64.b64encode(b"no picture"), "picture that can't be read")
        nested = b"<image href='data:image/svg+xml;base64,%s'/>" % base64.b64encode(svg(b""))
        self.refused(nested, "links to other files")
        self.assertTrue(decode(svg(link % base64.b64encode(encoded(noise(6, 6))))).picture.any())

    def test_a_child_that_was_ended_from_outside_is_replaced(self):
        decode(svg(b"<rect width='9' height='9'/>"))
        child = svg_module._drawer()._child
        os.kill(child.pid, 9)
        child.wait()
        self.assertTrue(decode(svg(b"<rect width='9' height='9'/>")).picture.any())

    def test_the_child_is_kept_for_the_next_drawing(self):
        decode(svg(b"<rect width='9' height='9'/>"))
        child = svg_module._drawer()._child
        decode(svg(b"<circle r='9'/>"))
        self.assertIs(svg_module._drawer()._child, child)
