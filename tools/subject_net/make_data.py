"""Make training pictures: ``python -m tools.subject_net.make_data FOLDER COUNT --seed N
--scenes FOLDER [--unseen]``.

Half are rendered scenes cropped around their subject, the others things (drawn, or from a
rendering) laid on made-up grounds with shadows, reflected light and blur. Kept as ``rgb.npy``,
shape (COUNT, SIDE, SIDE, 3), and ``alpha.npy``, shape (COUNT, SIDE, SIDE), both 0..255.
``--unseen`` makes them of outlines, surfaces and scenes that are used for nothing else.
"""

import argparse
from dataclasses import dataclass
from pathlib import Path

import cv2
import numpy as np
from numpy.random import Generator, default_rng
from numpy.typing import NDArray

from tools.subject_net.camera import photographed
from tools.subject_net.silhouettes import Silhouettes
from tools.subject_net.surfaces import Surfaces

Floats = NDArray[np.float32]
Bytes = NDArray[np.uint8]

SIDE = 320
RENDERED = 0.55
"""Share of the pictures that are cropped from rendered scenes."""

WIDE = 0.3
"""Share of those that show more of the scene, up to all of it, as when no box is drawn."""

EVERY_UNSEEN = 10
"""One rendered scene of so many is kept for validation."""

RECENT = 80
"""So many drawn things are kept to stand in backgrounds."""


@dataclass(frozen=True)
class Thing:
    """Colour 0..1, shape (rows, columns, 3), and alpha 0..1, shape (rows, columns)."""

    colour: Floats
    alpha: Floats


class Composer:
    """Makes one picture after another."""

    def __init__(self, scenes: Path, rng: Generator, unseen: bool) -> None:
        self.rng, self.uniform, self.integer = rng, rng.uniform, rng.integers
        self.surfaces, self.silhouettes = Surfaces(rng, unseen), Silhouettes(rng, unseen)
        everything = sorted(scenes.glob("*_picture.png"))
        self.scenes = [
            one for number, one in enumerate(everything) if (number % EVERY_UNSEEN == 0) == unseen
        ]
        self.recent: list[Thing] = []

    def example(self) -> tuple[Bytes, Bytes]:
        """A picture and its alpha, 0..255."""
        while True:
            made = self._cropped() if self.uniform() < RENDERED else self._composed()
            if made and 0.02 < made.alpha.mean() < 0.85:
                alpha = (np.clip(made.alpha, 0, 1) * 255).round().astype(np.uint8)
                return photographed(made.colour, self.rng), alpha

    def _chance(self, share: float) -> bool:
        return bool(self.uniform() < share)

    def _scene(self) -> Path:
        return self.scenes[self.integer(len(self.scenes))]

    def _rendering(self) -> Thing:
        scene = self._scene()
        return Thing(kept(scene, "subject"), kept(scene, "alpha"))

    def _drawn(self) -> Thing:
        """Parts of several surfaces, shaded as if they were solid."""
        uniform = self.uniform
        colour, alpha = np.zeros((SIDE, SIDE, 3), np.float32), np.zeros((SIDE, SIDE), np.float32)
        one_surface, base = self._chance(0.25), self.surfaces.colour()
        surface = self.surfaces.any(SIDE, SIDE)
        for drawn in self.silhouettes.any():
            part = cv2.resize(drawn, (SIDE, SIDE), interpolation=cv2.INTER_AREA) / np.float32(255)
            if not one_surface:
                near = self.surfaces.plain(SIDE, SIDE, self.surfaces.near(base, 0.25))
                surface = self.surfaces.any(SIDE, SIDE) if self._chance(0.6) else near
            colour += (surface - colour) * part[..., None]
            alpha = np.maximum(alpha, part)
            if self._chance(0.5):  # one part shades the next
                shade = cv2.GaussianBlur(part, (0, 0), uniform(2, 10)) * (1 - part)
                colour *= 1 - uniform(0, 0.4) * shade[..., None]
        if self._chance(0.4):  # another surface below
            rows = np.mgrid[0:SIDE, 0:SIDE][0] - uniform(0.2, 0.8) * SIDE
            rows = rows + self.surfaces.noise(SIDE, SIDE, 3, 2) * uniform(0, 30)
            below = np.clip(rows / uniform(1, 40) + 0.5, 0, 1)[..., None]
            colour += (self.surfaces.any(SIDE, SIDE) - colour) * below
        thing = Thing(np.asarray(np.clip(self._lit(colour, alpha), 0, 1), np.float32), alpha)
        self.recent = [*self.recent[1 - RECENT :], thing]
        return thing

    def _lit(self, colour: Floats, alpha: Floats) -> Floats:
        """Lit from one side, as if it rose from its outline."""
        uniform = self.uniform
        solid = (alpha > 0.5).astype(np.uint8)
        depth = cv2.distanceTransform(solid, cv2.DIST_L2, 3)
        height = np.sqrt(np.minimum(depth, uniform(10, 90))) * uniform(1, 6)
        height = cv2.GaussianBlur(height, (0, 0), uniform(2, 9))
        height = height + uniform(0, 0.8) * self.surfaces.noise(SIDE, SIDE, uniform(3, 20), 2)
        across = cv2.Sobel(height, cv2.CV_32F, 1, 0, scale=1 / 8)
        down = cv2.Sobel(height, cv2.CV_32F, 0, 1, scale=1 / 8)
        angle, high = uniform(0, 2 * np.pi), uniform(0.2, 1.3)
        aside = np.cos(high) * (across * np.cos(angle) + down * np.sin(angle))
        facing = np.clip((np.sin(high) - aside) / np.sqrt(across**2 + down**2 + 1), 0, 1)
        around = uniform(0.2, 0.9)
        lit = colour * (around + (1 - around) * 1.4 * facing)[..., None]
        if self._chance(0.5):
            lit = lit + (uniform(0.1, 0.9) * facing ** uniform(8, 60))[..., None]
        return np.asarray(lit, np.float32)

    def _any_thing(self) -> Thing:
        if self._chance(0.35):
            return self._rendering()
        if len(self.recent) > 20 and self._chance(0.85):
            return self.recent[self.integer(len(self.recent))]
        return self._drawn()

    def _fitted(self, thing: Thing, width: float, height: float) -> Floats | None:
        """A thing cut to its outline and scaled, colour times alpha and alpha, shape
        (rows, columns, 4); None if there is hardly any."""
        ys, xs = np.where(thing.alpha > 0.03)
        if len(ys) < 50:
            return None
        part = np.s_[ys.min() : ys.max() + 1, xs.min() : xs.max() + 1]
        alpha = thing.alpha[part]
        piece = np.dstack([thing.colour[part] * alpha[..., None], alpha])
        sides = (max(4, int(width)), max(4, int(height)))
        piece = cv2.resize(piece, sides, interpolation=cv2.INTER_AREA)
        return piece[:, ::-1] if self._chance(0.5) else piece

    def _background(self) -> Floats:
        kind = self.uniform()
        if kind < 0.4:
            ground = self._part_of_a_scene()
        elif kind < 0.55:
            ground = self._shaded_ground()
        else:
            ground = self.surfaces.any(SIDE, SIDE)
            if kind < 0.8:  # a wall and a table
                horizon = int(self.integer(SIDE // 4, SIDE - 20))
                table = self.surfaces.any(SIDE, SIDE)[horizon:]
                fading = np.linspace(self.uniform(0.6, 1), 1, SIDE - horizon)
                ground[horizon:] = table * fading[:, None, None]
        things = 0 if 0.4 <= kind < 0.55 else self.integer(0, 3 if kind < 0.4 else 6)
        for _ in range(things):
            piece = self._fitted(self._any_thing(), *(self.uniform(0.15, 0.9, 2) * SIDE))
            if piece is None:
                continue
            layer = _placed(piece, *(self.uniform(-0.3, 0.9, 2) * SIDE))
            if self._chance(0.4):
                layer = cv2.GaussianBlur(layer, (0, 0), self.uniform(1, 6))
            ground = _over(ground, layer)
        if self._chance(0.5):
            ground = cv2.GaussianBlur(ground, (0, 0), float(np.exp(self.uniform(-0.7, 2.6))))
        return np.asarray(np.clip(ground, 0, 1), np.float32)

    def _part_of_a_scene(self) -> Floats:
        picture = kept(self._scene(), "picture")
        side = int(self.integer(140, picture.shape[0]))
        top, left = self.integer(picture.shape[0] - side + 1, size=2)
        part = cv2.resize(picture[top : top + side, left : left + side], (SIDE, SIDE))
        part = part[:, ::-1] if self._chance(0.5) else part
        return np.asarray(part[::-1] if self._chance(0.1) else part, np.float32)

    def _shaded_ground(self) -> Floats:
        y, x = np.mgrid[0:SIDE, 0:SIDE].astype(np.float32) / SIDE
        shade = 1 + self.uniform(-0.4, 0.4) * y + self.uniform(-0.4, 0.4) * x
        shade += self.uniform(0, 0.05) * self.surfaces.noise(SIDE, SIDE, 3)
        return self.surfaces.plain(SIDE, SIDE, self.surfaces.colour()) * shade[..., None]

    def _composed(self) -> Thing | None:
        """A thing before a background, with its shadows, the light of the ground on its rim, out of
        focus or in motion."""
        uniform = self.uniform
        sides = (uniform(0.66, 0.8) * SIDE, uniform(0.4, 0.8) * SIDE)
        width, height = sides if self._chance(0.5) else sides[::-1]
        piece = self._fitted(
            self._rendering() if self._chance(0.3) else self._drawn(), width, height
        )
        if piece is None:
            return None
        ground = self._background()
        left, top = self._place(width, height)
        layer = _placed(piece, left, top)
        alpha = layer[..., 3]
        if self._chance(0.2):  # as light as its ground
            rest = (1 - alpha)[..., None]
            off = (ground * rest).sum((0, 1)) / (rest.sum() + 1)
            off = off - layer[..., :3].sum((0, 1)) / (alpha.sum() + 1)
            moved = layer[..., :3] + off * uniform(0.5, 1) * alpha[..., None]
            layer[..., :3] = np.clip(moved, 0, alpha[..., None])
        ground = self._shadowed(ground, alpha, (left + width / 2, top + height), width, height)
        if self._chance(0.3):
            light = cv2.GaussianBlur(ground, (0, 0), 20)
            rim = uniform(0.05, 0.4) * (1 - cv2.GaussianBlur(alpha, (0, 0), 8))[..., None]
            layer[..., :3] = layer[..., :3] * (1 - rim) + light * rim * alpha[..., None]
        if self._chance(0.25):
            layer = cv2.GaussianBlur(layer, (0, 0), float(np.exp(uniform(-1, 1.2))))
        if self._chance(0.08):
            layer = self._in_motion(layer)
        return Thing(_over(ground, layer), layer[..., 3])

    def _place(self, width: float, height: float) -> tuple[float, float]:
        """About the middle; now and then cut by a side of the picture."""
        uniform = self.uniform
        left, top = (SIDE - np.array([width, height])) / 2 + uniform(-0.05, 0.05, 2) * SIDE
        if self._chance(0.2):
            side = self.integer(4)
            if side < 2:
                left = -width * uniform(0, 0.25) if side else SIDE - width * uniform(0.75, 1)
            else:
                top = -height * uniform(0, 0.25) if side == 2 else SIDE - height * uniform(0.75, 1)
        return float(left), float(top)

    def _shadowed(
        self, ground: Floats, alpha: Floats, foot: tuple[float, float], width: float, height: float
    ) -> Floats:
        uniform = self.uniform
        if self._chance(0.6):  # cast
            soft = cv2.GaussianBlur(alpha, (0, 0), uniform(2, 22))
            slant, across = uniform(-0.4, 0.4), uniform(-25, 25)
            way = np.array([[1, slant, across], [0, uniform(0.6, 1), uniform(0, 50)]], np.float32)
            cast = cv2.warpAffine(soft, way, (SIDE, SIDE))
            ground = ground * (1 - uniform(0.1, 0.65) * cast)[..., None]
        if self._chance(0.5):  # where it stands
            contact = np.zeros((SIDE, SIDE), np.float32)
            radii = (int(width * uniform(0.25, 0.6)), max(2, int(height * uniform(0.02, 0.1))))
            cv2.ellipse(contact, np.int32(foot).tolist(), radii, 0, 0, 360, 1, -1)
            soft = cv2.GaussianBlur(contact, (0, 0), uniform(2, 14))
            ground = ground * (1 - uniform(0.1, 0.7) * soft)[..., None]
        return np.asarray(ground, np.float32)

    def _in_motion(self, layer: Floats) -> Floats:
        side = int(self.integer(3, 15))
        way = np.zeros((side, side), np.float32)
        start, end = self.integer(side, size=2).tolist()
        cv2.line(way, (start, 0), (end, side - 1), 1)
        return np.asarray(cv2.filter2D(layer, -1, way / way.sum()), np.float32)

    def _cropped(self) -> Thing:
        """A rendered scene around its subject, light and shadow as rendered."""
        uniform, scene = self.uniform, self._scene()
        picture, alpha = kept(scene, "picture"), kept(scene, "alpha")
        rows, columns = alpha.shape
        ys, xs = np.where(alpha > 0.03)
        margin = uniform(0.1, 0.25) * max(np.ptp(xs), np.ptp(ys)) * uniform(0.5, 1.5, 4)
        if self._chance(WIDE):
            margin = uniform(0.1, 1, 4) * columns
        left, top = max(0, int(xs.min() - margin[0])), max(0, int(ys.min() - margin[1]))
        right = min(columns, int(xs.max() + 1 + margin[2]))
        bottom = min(rows, int(ys.max() + 1 + margin[3]))
        if self._chance(0.15):  # the subject is cut
            left = int(xs.min() + uniform(0.05, 0.3) * np.ptp(xs))
        how = cv2.INTER_CUBIC if right - left < SIDE else cv2.INTER_AREA
        picture, alpha = (
            cv2.resize(one[top:bottom, left:right], (SIDE, SIDE), interpolation=how)
            for one in (picture, alpha)
        )
        way = np.s_[:, ::-1] if self._chance(0.5) else np.s_[:, :]
        return Thing(picture[way], np.clip(alpha[way], 0, 1))


def kept(scene: Path, what: str) -> Floats:
    """What ``render_scenes`` kept of a scene (its ``_picture.png``), 0..1: ``picture`` or
    ``subject`` in colour, or ``alpha``."""
    file = str(scene).replace("_picture.png", f"_{what}.png")
    if what == "alpha":
        return cv2.imread(file, cv2.IMREAD_GRAYSCALE) / np.float32(255)
    return cv2.imread(file)[..., ::-1] / np.float32(255)


def _placed(piece: Floats, left: float, top: float) -> Floats:
    """A piece on an empty picture, shape (SIDE, SIDE, 4)."""
    layer = np.zeros((SIDE, SIDE, 4), np.float32)
    x, y = int(left), int(top)
    rows, columns = piece.shape[:2]
    from_x, from_y = max(0, x), max(0, y)
    to_x, to_y = min(SIDE, x + columns), min(SIDE, y + rows)
    if to_x > from_x and to_y > from_y:
        layer[from_y:to_y, from_x:to_x] = piece[from_y - y : to_y - y, from_x - x : to_x - x]
    return layer


def _over(ground: Floats, layer: Floats) -> Floats:
    return np.asarray(ground * (1 - layer[..., 3:]) + layer[..., :3], np.float32)


def make(folder: Path, count: int, composer: Composer) -> None:
    folder.mkdir(parents=True, exist_ok=True)
    keep = np.lib.format.open_memmap
    photos = keep(folder / "rgb.npy", "w+", np.uint8, (count, SIDE, SIDE, 3))
    alphas = keep(folder / "alpha.npy", "w+", np.uint8, (count, SIDE, SIDE))
    for number in range(count):
        photos[number], alphas[number] = composer.example()


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("folder", type=Path)
    parser.add_argument("count", type=int)
    parser.add_argument("--seed", type=int, required=True)
    parser.add_argument("--scenes", type=Path, required=True)
    parser.add_argument("--unseen", action="store_true")
    options = parser.parse_args()
    cv2.setNumThreads(1)
    rng = default_rng(options.seed)
    make(options.folder, options.count, Composer(options.scenes, rng, options.unseen))
