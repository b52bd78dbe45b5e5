"""Make training crops along soft edges: ``python -m tools.soft_edge_net.make_data FILE.npy
--seconds S --seed N --scenes FOLDER [--unseen]``.

Scenes of ``tools.subject_net.render_scenes``, often on another ground, are cut out by the product
itself, with a box and up to three strokes; so the network meets the mistakes that it has to mend.
Kept are crops of what ``core.cut_out.soft_edges`` sees there, and the true coverage as a last
plane: shape (COUNT, SIDE, SIDE, 15), 0..255.
"""

import argparse
import time
from dataclasses import dataclass
from pathlib import Path

import cv2
import numpy as np
from numpy.random import Generator, default_rng
from numpy.typing import NDArray

from lucky_margin.core import cut_out
from lucky_margin.core.cut_out.edges import refined
from lucky_margin.core.cut_out.evidence import partly_covered
from lucky_margin.core.cut_out.soft_edges import WHERE, in_hair, seen_around
from lucky_margin.core.document import CutOut, Stroke
from tests.truth.photos import TruePhoto
from tests.truth.strokes import next_stroke
from tools.subject_net.camera import photographed
from tools.subject_net.make_data import EVERY_UNSEEN, kept
from tools.subject_net.silhouettes import Silhouettes
from tools.subject_net.surfaces import Surfaces

Floats = NDArray[np.float32]
Bytes = NDArray[np.uint8]

SIDE = 192
MOST_CROPS = 5
"""Of one photo."""

LEAST_SOFT = 0.004
"""Share of a photo that has to be soft."""

OWN_GROUND, BRUSHED = 0.55, 0.35
"""Shares of the photos that keep the ground they were rendered on, and of those with a brush."""

DRAWN, DRAWN_SIDE = 0.5, 320
"""Share of drawings, which are quickly made, and their side."""

LONG_SIDES = (1.0, 1.8)
"""Of a photo, in sides of its rendering."""


@dataclass(frozen=True)
class Found:
    """A photo (encoded sRGB 0..1), what was found of it, and where it has hair, all 0..1."""

    photo: Floats
    alpha: Floats
    hair: Floats


class Crops:
    """Makes one photo after another and crops it."""

    def __init__(self, scenes: Path, rng: Generator, unseen: bool) -> None:
        self.rng, self.uniform = rng, rng.uniform
        self.surfaces, self.silhouettes = Surfaces(rng, unseen), Silhouettes(rng, unseen)
        everything = sorted(scenes.glob("*_picture.png"))
        self.scenes = [
            one for number, one in enumerate(everything) if (number % EVERY_UNSEEN == 0) == unseen
        ]
        soft = [float(_soft(kept(scene, "alpha")).mean()) for scene in self.scenes]
        chances = np.maximum(np.array(soft) - 0.01, 0.002) ** 0.7
        self.chances = chances / chances.sum()

    def any(self) -> list[Bytes]:
        return self._of_drawing() if self._chance(DRAWN) else self._of_photo()

    def _of_photo(self) -> list[Bytes]:
        true = self._photo()
        if not 0.02 < (true.alpha > 0.5).mean() < 0.8:
            return []
        found = self._found(true)
        where = found.hair
        if self._chance(BRUSHED):
            brush = self._brush(true.alpha)
            where = brush if self._chance(0.6) else np.maximum(brush, where)
        if (where > 0).mean() < LEAST_SOFT:
            return []
        return self._crops(found.photo, found.alpha, where, true.alpha)

    def _of_drawing(self) -> list[Bytes]:
        """Of something out of focus that was gone over with the brush."""
        outline = np.max(list(self.silhouettes.any()), axis=0) / np.float32(255)
        blur = float(np.exp(self.uniform(0.3, 3)))
        alpha = cv2.GaussianBlur(cv2.resize(outline, (DRAWN_SIDE, DRAWN_SIDE)), (0, 0), blur)
        subject, ground = (
            self.surfaces.plain(*alpha.shape, self.surfaces.colour())
            if self._chance(0.4)
            else cv2.GaussianBlur(self.surfaces.any(*alpha.shape), (0, 0), blur)
            for _ in range(2)
        )
        share = alpha[..., None]
        photo = photographed(subject * share + ground * (1 - share), self.rng) / np.float32(255)
        found = refined(photo, alpha + np.float32(self.uniform(-0.3, 0.3)))
        where = self._brush(alpha)
        return self._crops(photo, found, where, alpha)[:2] if where.any() else []

    def _crops(self, photo: Floats, found: Floats, where: Floats, true: Floats) -> list[Bytes]:
        part, seen = seen_around(photo, found, where)
        planes = np.dstack([seen, true[part]])
        room = [(0, max(0, SIDE - side)) for side in planes.shape[:2]]
        planes = np.pad(planes, [*room, (0, 0)], mode="edge")
        ys, xs = np.nonzero(planes[..., WHERE] > 0.3)
        if not len(ys):
            return []
        count = min(MOST_CROPS, 2 + int(2 * (where > 0).sum() / SIDE**2))
        chosen = self.rng.integers(len(ys), size=count)
        return [self._crop(planes, int(xs[one]), int(ys[one])) for one in chosen]

    def _chance(self, share: float) -> bool:
        return bool(self.uniform() < share)

    def _photo(self) -> TruePhoto:
        scene = self.scenes[self.rng.choice(len(self.scenes), p=self.chances)]
        picture, alpha = kept(scene, "picture"), kept(scene, "alpha")
        if not self._chance(OWN_GROUND):
            picture = self._on_another_ground(kept(scene, "subject"), alpha)
        side = min(cut_out.WORKING_SIDE, self.uniform(*LONG_SIDES) * max(alpha.shape))
        share = side / max(alpha.shape)
        sides = (round(alpha.shape[1] * share), round(alpha.shape[0] * share))
        picture, alpha = (
            np.clip(cv2.resize(one, sides, interpolation=cv2.INTER_CUBIC), 0, 1)
            for one in (picture, alpha)
        )
        if self._chance(0.3):
            blur = float(self.uniform(0.3, 1.2))
            picture, alpha = (cv2.GaussianBlur(one, (0, 0), blur) for one in (picture, alpha))
        way = np.s_[:, ::-1] if self._chance(0.5) else np.s_[:, :]
        photo = np.ascontiguousarray(photographed(picture, self.rng)[way])
        return TruePhoto("made", photo, np.ascontiguousarray(alpha[way]))

    def _on_another_ground(self, subject: Floats, alpha: Floats) -> Floats:
        uniform, rng = self.uniform, self.rng
        rows, columns = alpha.shape
        if self._chance(0.6):
            ground = kept(self.scenes[rng.integers(len(self.scenes))], "picture")
            ground = cv2.resize(ground, (columns, rows))
        else:
            ground = self.surfaces.any(rows, columns)
        if self._chance(0.6):
            blur = float(np.exp(uniform(-0.5, 2.7))) * columns / 600
            ground = cv2.GaussianBlur(ground, (0, 0), blur)
        share = alpha[..., None]
        if self._chance(0.35):  # much like the subject
            near = (subject * share).sum((0, 1)) / max(float(alpha.sum()), 1)
            ground = (ground - ground.mean((0, 1))) * uniform(0.3, 1) + near
            ground = ground + rng.normal(0, 0.16, 3) + rng.normal(0, 0.12)
        ground = np.clip(ground, 0, 1)
        if self._chance(0.3):
            return np.asarray(subject * share + ground * (1 - share), np.float32)
        light = subject**2.2 * share + ground**2.2 * (1 - share)
        return np.asarray(light ** (1 / 2.2), np.float32)

    def _found(self, true: TruePhoto) -> Found:
        """As the product finds it, before anything is softened."""
        photo = cut_out.working_picture(true.photo)
        asked = CutOut(on=True, boxes=(true.box(int(self.rng.integers(1000))),))
        place = cut_out.place_of(photo, asked)
        evidence = cut_out.proposal(photo, asked.boxes, place)
        for _ in range(self.rng.choice([0, 0, 0, 1, 2, 3])):
            drawn = next_stroke(cut_out.coverage(photo, evidence, asked, place), true.alpha)
            if drawn is None or not drawn.points:
                break
            stroke = Stroke(
                brush="keep" if drawn.kind == "keep" else "leave_out",
                radius=drawn.radius, points=drawn.points,
            )  # fmt: skip
            asked = asked.model_copy(update={"strokes": (*asked.strokes, stroke)})
            evidence = cut_out.after_stroke(evidence, stroke, place)
        rows, columns = true.alpha.shape
        alpha, hair = np.zeros((2, rows, columns), np.float32)
        part = cut_out.in_pixels(place, rows, columns)
        sides = alpha[part].shape[::-1]
        share = cv2.resize(evidence[:, :, 4], sides, interpolation=cv2.INTER_CUBIC)
        alpha[part] = refined(np.ascontiguousarray(photo[part]), share)
        hair[part] = in_hair(partly_covered(evidence), *alpha[part].shape)
        return Found(photo, alpha, hair)

    def _brush(self, alpha: Floats) -> Floats:
        """What somebody would go over with the brush for soft edges, now and then not all of it."""
        integer = self.rng.integers
        brush = cv2.dilate(_soft(alpha), _disc(int(integer(1, 8))))
        closing = int(integer(3, 22))
        brush = cv2.copyMakeBorder(brush, *[closing] * 4, cv2.BORDER_CONSTANT)
        brush = cv2.morphologyEx(brush, cv2.MORPH_CLOSE, _disc(closing))
        brush = brush[closing:-closing, closing:-closing].astype(np.float32)
        if self._chance(0.4):
            cells = self.rng.random((4, 4)).astype(np.float32)
            part = cv2.resize(cells, brush.shape[::-1], interpolation=cv2.INTER_CUBIC)
            brush = brush * (part > 0.4)
        brush = cv2.GaussianBlur(brush, (0, 0), 1.0)
        return np.where(brush < 0.02, 0, brush).astype(np.float32)

    def _crop(self, planes: Floats, x: int, y: int) -> Bytes:
        off = self.rng.integers(-50, 51, 2) - SIDE // 2
        top = int(np.clip(y + off[0], 0, planes.shape[0] - SIDE))
        left = int(np.clip(x + off[1], 0, planes.shape[1] - SIDE))
        crop = planes[top : top + SIDE, left : left + SIDE]
        return np.rint(np.clip(crop, 0, 1) * 255).astype(np.uint8)


def _soft(alpha: Floats) -> Bytes:
    return ((alpha > 0.03) & (alpha < 0.97)).astype(np.uint8)


def _disc(radius: int) -> Bytes:
    sides = (2 * radius + 1, 2 * radius + 1)
    return np.asarray(cv2.getStructuringElement(cv2.MORPH_ELLIPSE, sides), np.uint8)


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("file", type=Path)
    parser.add_argument("--seconds", type=float, required=True)
    parser.add_argument("--seed", type=int, required=True)
    parser.add_argument("--scenes", type=Path, required=True)
    parser.add_argument("--unseen", action="store_true")
    options = parser.parse_args()
    cv2.setNumThreads(1)
    crops = Crops(options.scenes, default_rng(options.seed), options.unseen)
    made: list[Bytes] = []
    began = time.monotonic()
    while time.monotonic() - began < options.seconds:
        made += crops.any()
    np.save(options.file, np.stack(made))
