"""The scenes that the networks are trained on: coverage, blur, light and shadows as they should be,
by what geometry and optics say."""

import unittest
from types import SimpleNamespace

import numpy as np

from tools.subject_net.accumulated import rendered

SIDE, FAR = 64, 4.0
"""Of the picture, in pixels, and between the lens and the subject."""

PASSES = 64
WHITE = [0.8, 0.8, 0.8]


def moved(x=0.0, y=0.0, z=0.0, scale=1.0):
    matrix = np.diag([scale, scale, scale, 1.0])
    matrix[:3, 3] = x, y, z
    return SimpleNamespace(matrix=matrix)


def looking_down(x=0.0, y=0.0, z=0.0, scale=1.0):
    """For a camera or a lamp: its third axis points down."""
    matrix = np.diag([scale, -scale, -scale, 1.0])
    matrix[:3, 3] = x, y, z
    return SimpleNamespace(matrix=matrix)


def square(place, colour=WHITE):
    pattern = np.float32(colour) * np.ones((2, 2, 1), np.float32)
    surface = {
        "roughness": 0.9, "specular": 0.0, "metallic": 0.0, "base_color": {"bitmap": pattern},
    }  # fmt: skip
    return {"type": "rectangle", "to_world": place, "bsdf": {"surface": surface}}


def lamp(place, strength):
    emitter = {"radiance": {"value": [strength] * 3}}
    return {"type": "rectangle", "to_world": place, "emitter": emitter}


def scene(shapes, *, aperture=0.0, sharp=FAR, sky=0.0, strength=1.0, lamp_at=None):
    """Seen from above the origin, one unit of which is 16 pixels."""
    camera = {
        "to_world": looking_down(z=FAR), "film": {"width": SIDE}, "aperture_radius": aperture,
        "focus_distance": sharp, "fov": float(np.degrees(2 * np.arctan(2 / FAR))),
    }  # fmt: skip
    around = {"radiance": {"value": [sky] * 3}}
    light = lamp(lamp_at or looking_down(z=3, scale=0.01), strength)
    return {"type": "scene", "sensor": camera, "around": around, "lamp0": light, **shapes}


def drawn(*arguments, **named):
    return rendered(scene(*arguments, **named), np.random.default_rng(1), PASSES)


class CoverageTest(unittest.TestCase):
    def test_an_edge_covers_what_it_covers(self):
        """A square of a side of 2 units, moved right by .3 of a pixel."""
        _, alone = drawn({"subject": square(moved(x=0.3 / 16))})
        alpha = alone[..., 3]
        self.assertAlmostEqual(float(alpha.sum()), 32 * 32, delta=32 * 0.05)
        centre = (alpha * (np.arange(SIDE) + 0.5)).sum() / alpha.sum()
        self.assertAlmostEqual(float(centre), 32.3, delta=0.05)
        self.assertEqual(set(np.unique(alpha[:, :13])), {0})
        self.assertEqual(set(np.unique(alpha[20:44, 20:44])), {1})

    def test_what_stands_before_the_subject_hides_it(self):
        before = square(moved(z=1, scale=0.5))
        picture, alone = drawn({"subject": square(moved()), "thing": before})
        self.assertEqual(alone[32, 32, 3], 0)
        self.assertEqual(picture[32, 32, 3], 1)
        self.assertEqual(alone[18, 18, 3], 1)

    def test_only_the_subject_is_kept_alone(self):
        picture, alone = drawn({"thing": square(moved(), [0.5, 0.2, 0.1])}, sky=1)
        self.assertEqual(alone.max(), 0)
        self.assertGreater(picture[32, 32, 0], 0)

    def test_an_edge_out_of_focus_is_as_wide_as_its_circle_of_confusion(self):
        """S. F. Ray, "Applied photographic optics", 2002: its diameter is that of the lens, times
        how far the edge lies off, over how far the sharp plane is."""
        aperture, sharp = 0.25, 3.0
        _, alone = drawn({"subject": square(moved())}, aperture=aperture, sharp=sharp)
        diameter = 2 * aperture * (FAR - sharp) / sharp * 16
        along = alone[32, :32, 3]
        # A disc seen from the side spreads by a quarter of its diameter, besides the pixel.
        rise = np.diff(along, prepend=0)
        at = np.arange(32)
        mean = (rise * at).sum()
        spread = np.sqrt((rise * (at - mean) ** 2).sum())
        self.assertAlmostEqual(float(spread), np.hypot(diameter / 4, 0.58), delta=0.12)


class LightTest(unittest.TestCase):
    def test_a_lamp_lights_by_its_angle_and_distance(self):
        """J. H. Lambert, 1760: a small lamp of area A and radiance L, at the distance d and the
        angle w off both normals, brings L A cos(w)^2 / d^2; an even surface gives back its share
        over pi."""
        picture, _ = drawn({"subject": square(moved(scale=2))}, strength=1e4)
        area = 0.02**2
        for x in (0.0, 0.75, 1.5):
            squared = 9 + x**2
            expected = 1e4 * area * 9 / squared / squared * 0.8 / np.pi
            column = 32 + round(x * 16)
            self.assertAlmostEqual(picture[32, column, 0] / expected, 1, delta=0.02, msg=str(x))

    def test_an_open_place_has_the_whole_skys_light(self):
        """Of a radiance of 1 from above an even surface gives back its own share, besides what
        comes by way of things."""
        picture, _ = drawn({"subject": square(moved())}, sky=1, strength=0)
        self.assertAlmostEqual(float(picture[32, 32, 0]), 0.8 * (1 + 0.35), delta=0.02)

    def test_what_is_before_a_lamp_throws_a_shadow(self):
        """The lamp stands aside, 3 high; a square 1.5 high, .25 to each side of the point above 0.
        Its shadow lies twice as large on the other side."""
        shapes = {"subject": square(moved(scale=2)), "thing": square(moved(z=1.5, scale=0.25))}
        picture, _ = drawn(shapes, strength=1e4, lamp_at=looking_down(x=1, z=3, scale=0.01))
        row = picture[32, :, 0]
        shadow = np.flatnonzero(row < 1e-3)
        self.assertEqual(row[60] > 0.05, True)
        # From -1.5 to -.5 in units; the camera sees the square itself before a part of that.
        self.assertAlmostEqual(shadow.min(), 32 - 1.5 * 16, delta=1)
        self.assertAlmostEqual(shadow.max(), 32 - 0.5 * 16 - 1, delta=1)

    def test_a_lamp_behind_a_surface_does_not_light_it(self):
        below = looking_down(z=-3, scale=0.01)
        below.matrix[:3, :3] *= [[1], [-1], [-1]]
        picture, _ = drawn({"subject": square(moved())}, strength=1e4, lamp_at=below)
        self.assertEqual(picture[..., :3].max(), 0)


class ShapesTest(unittest.TestCase):
    def test_a_cube_looks_the_same_from_six_sides(self):
        turns = [np.eye(4)[[*order, 3]] * [*sign, 1] for order, sign in (
            ((0, 1, 2), (1, 1, 1)), ((0, 1, 2), (1, -1, -1)), ((2, 0, 1), (1, 1, 1)),
            ((2, 0, 1), (-1, 1, -1)), ((1, 2, 0), (1, 1, 1)), ((1, 2, 0), (1, -1, -1)),
        )]  # fmt: skip
        pictures = []
        for turn in turns:
            cube = square(SimpleNamespace(matrix=turn * [0.5, 0.5, 0.5, 1])) | {"type": "cube"}
            pictures.append(drawn({"subject": cube}, sky=0, strength=1e4)[0])
        for other in pictures[1:]:
            np.testing.assert_allclose(other, pictures[0], atol=0.02)
        self.assertGreater(pictures[0][32, 32, 0], 0.1)


if __name__ == "__main__":
    unittest.main()
