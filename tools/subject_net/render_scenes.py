"""Render still lifes of made-up things: ``python -m tools.subject_net.render_scenes FOLDER
--seconds S --seed N [--side PIXELS] [--soft] [--traced]``.

Of each are kept the picture, the subject alone, and its exact alpha (``N_picture.png``,
``N_subject.png``, ``N_alpha.png``). Every shape, colour and light is drawn by chance; the subject
stands in front, and nothing before it. ``--soft``: subjects with stems, hair, fur, leaves or
meshes. ``--traced``: by path tracing, with the light that things throw on each other, which takes
twice as long.
"""

import argparse
import os
import tempfile
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import cv2
import mitsuba as mi
import numpy as np
import pyoidn
from numpy.random import Generator, default_rng
from numpy.typing import NDArray

from tools.subject_net.accumulated import rendered as accumulated
from tools.subject_net.meshes import Shape

Floats = NDArray[np.float32]
Bytes = NDArray[np.uint8]

SIDE = 336

SAMPLES, ALPHA_SAMPLES = 6, 16
"""Paths a pixel; Open Image Denoise cleans the picture afterwards."""

GLANCE = 2
"""Pictures added up to see how much of a scene its subject would cover."""

LEAST_SUBJECT, MOST_SUBJECT = 0.015, 0.75
"""Shares of the picture between which its subject must cover."""

LEAST_SOFT = 0.008
"""Share of the picture that a soft subject covers in part."""

FULL_SHELVES, BLURRED = 0.2, 0.2
"""Shares of the scenes with full shelves close behind the subject, and with parts of the subject
out of focus."""

BOARD = 0.03
"""Half as thick as a shelf."""

SCENES_PER_SEED = 100_000


class StillLife:
    """One scene after another, in ``mi``'s terms."""

    def __init__(self, folder: Path, rng: Generator, options: argparse.Namespace) -> None:
        # These need a variant of Mitsuba to be set.
        from tools.subject_net.meshes import Meshes
        from tools.subject_net.things import KINDS, SOFT_KINDS, Things

        self.things = Things(Meshes(folder), rng)
        self.rng, self.uniform = rng, rng.uniform
        self.side, self.traced = options.side, options.traced
        # A denoiser wants noise that differs from pixel to pixel.
        self.filter = "box" if options.traced else "gaussian"
        self.kinds = SOFT_KINDS if options.soft else KINDS
        self.least_soft = LEAST_SOFT if options.soft else 0.0

    def rendered(self, number: int) -> tuple[Floats, Floats]:
        """The picture and its subject alone, linear, shape (rows, columns, 4)."""
        subject = self._subject()
        whole = subject | self._room()
        if not self.traced:
            return accumulated(whole, self.rng)
        path = {"integrator": {"type": "path", "max_depth": 4, "hide_emitters": True}}
        picture = mi.render(mi.load_dict(whole | path), seed=number, spp=SAMPLES)
        alone = mi.render(mi.load_dict(subject | path), seed=number + 1, spp=ALPHA_SAMPLES)
        return np.asarray(picture, np.float32), np.asarray(alone, np.float32)

    def _subject(self) -> dict[str, Any]:
        """A subject with a camera and lights that cover as much of the picture as is wanted."""
        while True:
            made = self.things.made((0, 0, 0), 1.0, self.kinds)
            scene = {"type": "scene", "sensor": self._camera(), **self._lights()}
            scene |= dict(zip(names("subject"), made, strict=False))
            alpha = accumulated(scene, self.rng, GLANCE)[1][..., 3]
            soft = ((alpha > 0) & (alpha < 1)).mean()
            if LEAST_SUBJECT < alpha.mean() < MOST_SUBJECT and soft > self.least_soft:
                return scene

    def _room(self) -> dict[str, Any]:
        """A floor and a wall, and mostly things behind the subject and on shelves."""
        uniform, rng = self.uniform, self.rng
        to = mi.ScalarTransform4f
        plain, far = uniform() < 0.15, uniform(1.2, 5)
        ground = self.things.materials.any()
        wall = ground if plain and uniform() < 0.6 else self.things.materials.any()
        upright = to().translate([0, float(far), 2]) @ to().rotate([1, 0, 0], 90)
        room = {
            "floor": _plane(to().translate([0, 3, 0]) @ to().scale([8, 8, 1]), ground),
            "wall": _plane(upright @ to().scale([7, 7, 1]), wall),
        }
        if plain:
            return room
        shapes = self._close_by()
        for _ in range(rng.integers(0, 9)):
            x, y = uniform(-1.8, 1.8), uniform(0.55, max(0.7, far - 0.3))
            shapes += self.things.made((x * (1 + y * 0.4), y, 0), uniform(0.3, 1.3))
        if uniform() < FULL_SHELVES:
            shapes += self._full_shelves(uniform(0.8, max(1, far - 0.3)))
        for _ in range(rng.integers(0, 3)):
            high = uniform(0.6, 2)
            shapes.append(self._board(uniform(-1, 1), far - 0.2, high, uniform(0.6, 3)))
            for _ in range(rng.integers(0, 5)):
                place = (uniform(-1.8, 1.8), far - 0.2, high + BOARD)
                shapes += self.things.made(place, uniform(0.2, 0.6))
        return room | dict(zip(names("thing"), shapes, strict=False))

    def _full_shelves(self, far: float) -> list[Shape]:
        """Boards above each other close behind the subject, with one thing next to another."""
        uniform, shapes = self.uniform, []
        gap, wide = uniform(0.3, 0.7), 1 + 0.5 * far
        for high in np.arange(uniform(0.05, gap), 1.6, gap):
            shapes.append(self._board(0, far, high, wide))
            for x in np.arange(-wide, wide, uniform(0.6, 1.1) * gap):
                place = (x + uniform(-0.2, 0.2) * gap, far, high + BOARD)
                shapes += self.things.made(place, uniform(0.4, 0.9) * gap)
        return shapes

    def _board(self, x: float, y: float, high: float, wide: float) -> Shape:
        to = mi.ScalarTransform4f
        place = to().translate([float(x), float(y), float(high)])
        sides = to().scale([float(wide), 0.2, BOARD])
        return {"type": "cube", "to_world": place @ sides, "bsdf": self.things.materials.any()}

    def _close_by(self) -> list[Shape]:
        """At times a cloth or a mat beneath the subject, and things beside it that are not meant,
        lying or standing."""
        uniform, things, shapes = self.uniform, self.things, []
        if uniform() < 0.35:
            shapes.append(things.mat((uniform(-0.3, 0.3), uniform(-0.2, 0.2), 0)))
        if uniform() < 0.4:
            for _ in range(self.rng.integers(1, 4)):
                x = self.rng.choice([-1, 1]) * uniform(0.5, 0.95)
                if uniform() < 0.5:
                    shapes += things.lying((x, uniform(-0.4, 0.4), 0))
                else:
                    shapes += things.made((x, uniform(0.1, 0.5), 0), uniform(0.12, 0.4))
        return shapes

    def _lights(self) -> dict[str, Any]:
        """Light from all around, and one to three lamps or windows."""
        uniform = self.uniform
        around = uniform(0.08, 0.6) * uniform(0.8, 1.2, 3)
        lights: dict[str, Any] = {"around": {"type": "constant", "radiance": _colour(around)}}
        for number in range(self.rng.integers(1, 4)):
            angle, far = uniform(-3.4, 0.2), uniform(2.5, 5)
            origin = [far * np.cos(angle), far * np.sin(angle), uniform(0.8, 5)]
            wide = float(10 ** uniform(-0.7, 0.25))
            light = uniform(3, 14) / (wide**2 + 0.15) * (1 + uniform(-0.25, 0.25, 3))
            lights[f"lamp{number}"] = {
                "type": "rectangle",
                "to_world": _looking(origin, [0, 0, 0.4], [0, 0, 1])
                @ mi.ScalarTransform4f().scale([wide, wide, 1]),
                "emitter": {"type": "area", "radiance": _colour(light)},
            }
        return lights

    def _camera(self) -> dict[str, Any]:
        uniform = self.uniform
        height = uniform(0.02, 0.9) if uniform() < 0.9 else uniform(0.9, 1.45)
        aside, far = uniform(-0.5, 0.5), uniform(3, 5)
        origin = [
            far * np.cos(height) * np.sin(aside), -far * np.cos(height) * np.cos(aside),
            0.35 + far * np.sin(height),
        ]  # fmt: skip
        sharp = far + (uniform(-0.1, 0.1) if uniform() < 0.85 else uniform(0.5, 2))
        lens = self.rng.choice([0.002, uniform(0.01, 0.12)])
        if uniform() < BLURRED:
            sharp, lens = far + uniform(-0.4, 0.4), uniform(0.08, 0.2)
        target = [uniform(-0.15, 0.15), 0, uniform(0.3, 0.85)]
        return {
            "type": "thinlens",
            "fov": float(np.degrees(2 * np.arctan(uniform(0.5, 1.3) / far))),
            "aperture_radius": float(lens),
            "focus_distance": float(sharp),
            "to_world": _looking(origin, target, [uniform(-0.1, 0.1), 0, 1]),
            "film": {"type": "hdrfilm", "width": self.side, "height": self.side,
                     "pixel_format": "rgba", "rfilter": {"type": self.filter}},
            "sampler": {"type": "independent", "sample_count": 16},
        }  # fmt: skip


def names(stem: str, most: int = 1000) -> list[str]:
    return [f"{stem}{number}" for number in range(most)]


def developed(light: Floats, uniform: Callable[[float, float], float], *, noisy: bool) -> Bytes:
    """A rendering as a picture of 8 bits, blue first; cleaned where it is of few paths."""
    light = np.ascontiguousarray(np.nan_to_num(np.clip(light[..., :3], 0, 20)), np.float32)
    if noisy:
        light = np.clip(pyoidn.denoise(light, hdr=True), 0, 20)
    exposure = uniform(0.7, 1.2) * 0.65 / (np.median(light) + 0.15)
    encoded = np.clip(1 - np.exp(-light * exposure), 0, 1) ** (1 / 2.2)
    return np.ascontiguousarray((encoded * 255).astype(np.uint8)[..., ::-1])


def _plane(way: Any, material: dict[str, Any]) -> dict[str, Any]:
    return {"type": "rectangle", "to_world": way, "bsdf": material}


def _colour(values: NDArray[np.float64]) -> dict[str, Any]:
    return {"type": "rgb", "value": values.tolist()}


def _looking(origin: list[float], target: list[float], up: list[float]) -> Any:
    return mi.ScalarTransform4f().look_at(
        *([float(value) for value in point] for point in (origin, target, up))
    )


def render(options: argparse.Namespace) -> None:
    folder, rng = options.folder, default_rng(options.seed)
    folder.mkdir(parents=True, exist_ok=True)
    until, number = time.monotonic() + options.seconds, options.seed * SCENES_PER_SEED
    with tempfile.TemporaryDirectory() as meshes:
        still_life = StillLife(Path(meshes), rng, options)
        while time.monotonic() < until:
            number += 1
            picture, alone = still_life.rendered(number)
            for mesh in Path(meshes).iterdir():
                mesh.unlink()
            alpha = np.clip(alone[..., 3:], 0, 1)
            subject = alone[..., :3] / np.maximum(alpha, 1e-3) * (alpha > 1e-3)
            kept = {
                "picture": developed(picture, rng.uniform, noisy=options.traced),
                "subject": developed(subject, rng.uniform, noisy=options.traced),
                "alpha": (alpha * 255).round().astype(np.uint8),
            }
            for name, pixels in kept.items():
                cv2.imwrite(str(folder / f"{number:09}_{name}.png"), pixels)


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("--seconds", type=float, required=True)
    parser.add_argument("--seed", type=int, required=True)
    parser.add_argument("--side", type=int, default=SIDE)
    parser.add_argument("--soft", action="store_true")
    parser.add_argument("--traced", action="store_true")
    options = parser.parse_args()
    cv2.setNumThreads(1)
    # llvm_ad_rgb is faster where a recent LLVM is installed.
    mi.set_variant(os.environ.get("MI_VARIANT", "scalar_rgb"))
    render(options)
