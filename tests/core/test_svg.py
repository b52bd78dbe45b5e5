"""Drawings in SVG are made safe and drawn in shipped fonts; hostile ones are refused."""

import unittest

import numpy as np

from lucky_margin.core.errors import TooLarge, UnreadablePhoto
from lucky_margin.core.photos import decode
from lucky_margin.core.photos.svg import LONG_SIDE, MOST_DEPTH, is_svg

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
        with self.assertRaisesRegex(TooLarge, "MB that are taken of an SVG"):
            decode(svg(b" " * 10_000_001))
