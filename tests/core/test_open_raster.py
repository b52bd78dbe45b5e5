"""A size as layers: what they come to when an editor puts them together."""

import io
import unittest
import zipfile

import numpy as np
from defusedxml.ElementTree import fromstring
from PIL import Image

from lucky_margin.core.document import Export, FixedPixels, Printed, Sides
from lucky_margin.core.errors import TooLarge
from lucky_margin.core.export import layers_name, open_raster
from lucky_margin.core.render import render
from tests.support import finish_of, gradient, noise, scene_of, sources_of, with_size

BLENDS = {
    "svg:src-over": lambda below, above: above,
    "svg:multiply": lambda below, above: below * above,
    "svg:screen": lambda below, above: below + above - below * above,
}


def layers_in(data):
    """The archive's layers, lowest first: name, operator, and pixels on a sheet of its sides."""
    archive = zipfile.ZipFile(io.BytesIO(data))
    image = fromstring(archive.read("stack.xml"))
    sheet = (int(image.get("h")), int(image.get("w")), 4)
    for layer in reversed(image.findall("stack/layer")):
        pixels = np.zeros(sheet, np.uint8)
        picture = np.asarray(Image.open(archive.open(layer.get("src"))))
        top, left = int(layer.get("y")), int(layer.get("x"))
        pixels[top : top + picture.shape[0], left : left + picture.shape[1]] = picture
        yield layer.get("name"), layer.get("composite-op"), pixels


def put_together(layers):
    """The layers over each other as 8-bit editors lay them (W3C, Compositing and Blending 1)."""
    sheet = None
    for _, operator, pixels in layers:
        above = pixels / 255
        if sheet is None:
            sheet = np.zeros_like(above)
        cover, below = above[:, :, 3:], sheet[:, :, 3:]
        mixed = BLENDS[operator](sheet[:, :, :3], above[:, :, :3])
        source = (1 - below) * above[:, :, :3] + below * mixed
        whole = cover + below * (1 - cover)
        shown = cover * source + below * (1 - cover) * sheet[:, :, :3]
        colours = np.divide(shown, whole, out=np.zeros_like(shown), where=whole > 0)
        sheet = np.rint(255 * np.concatenate([colours, whole], axis=2)) / 255
    return sheet


def rgba(picture):
    return np.asarray(Image.fromarray(picture).convert("RGBA")) / 255


class OpenRasterTest(unittest.TestCase):
    """Layers against the picture that is exported."""

    photo = gradient(160, 120)

    def assert_is_the_picture(self, scene):
        layers = list(layers_in(open_raster(scene)))
        together, picture = put_together(layers), rgba(render(scene))
        apart = [
            np.concatenate([one[:, :, :3] * one[:, :, 3:], one[:, :, 3:]], axis=2)
            for one in (together, picture)
        ]
        self.assertLessEqual(255 * np.abs(apart[0] - apart[1]).max(), 1.01)
        return [name for name, _, _ in layers]

    def scene(self, photo=None, size=None, **fields):
        finish = finish_of(90, 110, **{"export": Export(format="png"), **fields})
        finish = with_size(finish, **size) if size else finish
        return scene_of(finish, sources_of(self.photo if photo is None else photo))

    def test_photo_pieces_border_and_mark_are_layers_by_name(self):
        scene = self.scene(
            border={"bands": [{"kind": "line", "thickness": Sides.all(0.08), "colour": "#AA3311"}]},
            pieces=[
                {"kind": "badge", "id": "badge-1", "text": "New", "over_border": True},
                {"kind": "text", "id": "text-1", "text": "Just\nfired"},
            ],
            watermark={"text": "Pebblewick"},
        )
        names = self.assert_is_the_picture(scene)
        self.assertEqual(names[0], "Photo")
        self.assertCountEqual(
            names, ["Photo", "Text “Just fired”", "Border", "Badge “New”", "Watermark"]
        )
        self.assertLess(names.index("Border"), names.index("Badge “New”"))

    def test_a_shape_and_what_is_clear(self):
        clear = np.dstack([noise(160, 120), np.broadcast_to(np.arange(160) * 1.5, (120, 160))])
        band = {"kind": "line", "thickness": Sides.all(0.1), "opacity": 0.4}
        for shape in ({"kind": "circle"}, {"kind": "heart"}):
            for image_format in ("png", "jpeg"):
                for border in ({}, {"bands": [band | {"around": True}]}, {"bands": [band]}):
                    scene = self.scene(
                        clear.astype(np.uint8),
                        {"shape": shape},
                        border=border,
                        export=Export(format=image_format),
                        pieces=[{"kind": "text", "id": "text-1", "text": "Bowls", "opacity": 0.5}],
                    )
                    with self.subTest(shape=shape, image_format=image_format, border=border):
                        names = self.assert_is_the_picture(scene)
                        self.assertIn("Photo", names)
                        self.assertEqual("Border" in names, bool(border))

    def test_a_blend_is_kept_where_the_format_knows_it(self):
        for blend, operator in (
            ("multiply", "svg:multiply"),
            ("screen", "svg:screen"),
            ("difference", "svg:src-over"),
        ):
            piece = {"kind": "badge", "id": "badge-1", "colour": "#44AA88", "blend": blend}
            scene = self.scene(pieces=[piece])
            with self.subTest(blend):
                self.assert_is_the_picture(scene)
                *_, (_, found, _) = layers_in(open_raster(scene))
                self.assertEqual(found, operator)

    def test_a_layer_holds_what_lies_under_others(self):
        scene = self.scene(
            backdrop={"kind": "colour", "colour": "#224466"},
            pieces=[{"kind": "text", "id": "text-1", "text": "Bowls"}],
        )
        lowest = next(layers_in(open_raster(scene)))[2]
        self.assertTrue((lowest == (0x22, 0x44, 0x66, 255)).all())

    def test_the_archive_is_the_same_every_time_and_begins_with_what_it_is(self):
        printed = Printed(width=9, height=11, ppi=254)
        pixels = FixedPixels(width=90, height=110, printed=printed)
        scene = self.scene(size={"pixels": pixels})
        data = open_raster(scene)
        self.assertEqual(data, open_raster(scene))
        self.assertEqual(data[30:54], b"mimetypeimage/openraster")
        archive = zipfile.ZipFile(io.BytesIO(data))
        image = fromstring(archive.read("stack.xml"))
        self.assertEqual([image.get(name) for name in ("w", "h", "xres")], ["90", "110", "254"])
        merged = np.asarray(Image.open(archive.open("mergedimage.png")))
        np.testing.assert_array_equal(merged, render(scene))
        self.assertLessEqual(max(Image.open(archive.open("Thumbnails/thumbnail.png")).size), 256)
        self.assertEqual(layers_name(scene), "test-90x110.ora")

    def test_too_many_pixels_are_refused_before_anything_is_drawn(self):
        scene = self.scene(size={"pixels": {"kind": "fixed", "width": 8000, "height": 8000}})
        with self.assertRaisesRegex(TooLarge, "30 megapixels"):
            open_raster(scene)
