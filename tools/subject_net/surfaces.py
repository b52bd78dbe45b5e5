"""Made-up surfaces: noise, stripes, checks, bricks, wood and the like, in any colours. Those of the
validation pictures are never seen in training."""

import cv2
import numpy as np
from numpy.random import Generator
from numpy.typing import NDArray

Floats = NDArray[np.float32]

TRAINING = ("flat", "cloudy", "stripes", "checks", "specks", "shaded", "bricks", "marks", "wood")
VALIDATION = ("flat", "cells", "rings", "hatched", "shaded", "camouflage")

POOL, POOL_SIDE = 160, 400
"""So many surfaces are made; pieces of them are used again and again."""


class Surfaces:
    """Draws surfaces, encoded sRGB 0..1, shape (rows, columns, 3)."""

    def __init__(self, rng: Generator, unseen: bool) -> None:
        self.rng, self.uniform = rng, rng.uniform
        self.kinds = VALIDATION if unseen else TRAINING
        self.pool: list[Floats] = []

    def any(self, rows: int, columns: int) -> Floats:
        """A piece of one of the pool's, turned, scaled and recoloured; now and then plain."""
        if self.uniform() < 0.12:
            return self.plain(rows, columns, self.colour())
        if len(self.pool) < POOL:
            self.pool.append(self._new(POOL_SIDE))
        surface = self.pool[self.rng.integers(len(self.pool))]
        side = int(self.rng.integers(120, POOL_SIDE + 1))
        top, left = self.rng.integers(POOL_SIDE + 1 - side, size=2)
        piece = cv2.resize(surface[top : top + side, left : left + side], (columns, rows))
        down, across = self.rng.choice([-1, 1], 2)
        piece = piece[::down, ::across, self.rng.permutation(3)]
        recoloured = piece * self.rng.normal(1, 0.2, 3) + self.rng.normal(0, 0.12, 3)
        return np.asarray(np.clip(recoloured, 0, 1), np.float32)

    def plain(self, rows: int, columns: int, colour: Floats) -> Floats:
        return np.ones((rows, columns, 3), np.float32) * colour

    def colour(self) -> Floats:
        saturation = self.uniform() * self.rng.choice([0.25, 0.6, 1])
        hsv = [self.rng.integers(180), 255 * saturation, 255 * self.uniform(0.05, 1)]
        rgb = cv2.cvtColor(np.uint8([[hsv]]), cv2.COLOR_HSV2RGB)[0, 0]
        return np.asarray(rgb / 255, np.float32)

    def near(self, colour: Floats, spread: float) -> Floats:
        return np.asarray(np.clip(colour + self.rng.normal(0, spread, 3), 0, 1), np.float32)

    def noise(
        self, rows: int, columns: int, cells: float, octaves: int = 4, gain: float = 0.55
    ) -> Floats:
        """Smooth noise in octaves, about -2..2."""
        total = np.zeros((rows, columns), np.float32)
        long = max(rows, columns)
        for octave in range(octaves):
            across = int(cells * 2**octave) + 2
            if across > 2 * long:
                break
            down = max(2, across * rows // long + 1)
            field = self.rng.standard_normal((down, across), dtype=np.float32)
            total += gain**octave * cv2.resize(
                field, (columns, rows), interpolation=cv2.INTER_CUBIC
            )
        return total

    def _new(self, side: int) -> Floats:
        uniform = self.uniform
        colours = [self.colour()]
        spread = uniform(0.03, 0.35)
        colours += [
            self.near(colours[0], spread) if uniform() < 0.6 else self.colour() for _ in range(3)
        ]
        share = self._shares(side)
        surface = _mixed(colours[0], colours[1], share)
        if uniform() < 0.3:  # a second surface in places
            places = np.clip(self.noise(side, side, uniform(1, 5), 2) * 3, 0, 1)
            surface = _mixed(surface, _mixed(colours[2], colours[3], share), places)
        wear = 1 + uniform(0, 0.15) * self.noise(side, side, uniform(2, 40), 3)
        return np.asarray(np.clip(surface * wear[..., None], 0, 1), np.float32)

    def _shares(self, side: int) -> Floats:
        """How far each place has the second colour, 0..1."""
        y, x = np.mgrid[0:side, 0:side].astype(np.float32) / side
        angle = self.uniform(0, 2 * np.pi)
        u = x * np.cos(angle) + y * np.sin(angle)
        v = y * np.cos(angle) - x * np.sin(angle)
        kind = self.rng.choice(self.kinds)
        return np.asarray(np.clip(getattr(self, f"_{kind}")(u, v, side), 0, 1), np.float32)

    def _flat(self, u: Floats, v: Floats, side: int) -> Floats:
        return np.zeros_like(u)

    def _cloudy(self, u: Floats, v: Floats, side: int) -> Floats:
        cells, gain = self.uniform(1.5, 14), self.uniform(0.4, 0.8)
        return self.noise(side, side, cells, 5, gain) * self.uniform(0.3, 1) + 0.5

    def _stripes(self, u: Floats, v: Floats, side: int) -> Floats:
        bend = self.noise(side, side, 3, 2) * self.uniform(0, 1.5)
        wave = np.sin(u * self.uniform(12, 160) + bend)
        return wave * self.uniform(1, 6) + self.uniform(-0.5, 1)

    def _checks(self, u: Floats, v: Floats, side: int) -> Floats:
        count = self.uniform(3, 22)
        return (np.floor(u * count) + np.floor(v * count * self.uniform(0.5, 2))) % 2

    def _specks(self, u: Floats, v: Floats, side: int) -> Floats:
        return (self.noise(side, side, self.uniform(10, 60), 2) - self.uniform(1, 2.2)) * 4

    def _shaded(self, u: Floats, v: Floats, side: int) -> Floats:
        return u * self.uniform(0.5, 2) + 0.1 * self.noise(side, side, 4)

    def _bricks(self, u: Floats, v: Floats, side: int) -> Floats:
        count = self.uniform(4, 16)
        row = np.floor(v * count)
        joints = ((v * count) % 1 < 0.1) | ((u * count / 2 + row % 2 / 2) % 1 < 0.06)
        return joints.astype(np.float32)

    def _marks(self, u: Floats, v: Floats, side: int) -> Floats:
        integers, marks = self.rng.integers, np.zeros((side, side), np.uint8)
        for _ in range(integers(20, 160)):
            middle, axes = integers(side, size=2).tolist(), integers([2, 1], [26, 12]).tolist()
            turn, grey = int(integers(180)), int(integers(60, 255))
            cv2.ellipse(marks, middle, axes, turn, 0, 360, grey, -1, cv2.LINE_AA)
        return marks / np.float32(255)

    def _wood(self, u: Floats, v: Floats, side: int) -> Floats:
        wave = (u + 0.05 * self.noise(side, side, 2, 3)) * self.uniform(20, 90) + v * 3
        grain = cv2.resize(self.noise(side, side // 12, 60, 2), (side, side))
        return np.sin(wave) * 0.5 + 0.5 + 0.25 * grain

    def _cells(self, u: Floats, v: Floats, side: int) -> Floats:
        y, x = np.mgrid[0:side, 0:side].astype(np.float32) / side
        nearest, share = np.full_like(x, 9), np.zeros_like(x)
        for column, row in self.uniform(0, 1, (self.rng.integers(8, 60), 2)):
            far = (x - column) ** 2 + (y - row) ** 2
            share = np.where(far < nearest, self.uniform(), share)
            nearest = np.minimum(nearest, far)
        return share

    def _rings(self, u: Floats, v: Floats, side: int) -> Floats:
        far = np.hypot(u - self.uniform(), (v - self.uniform()) * self.uniform(0.5, 2))
        return np.sin(far * self.uniform(20, 120)) * self.uniform(0.5, 3) + 0.5

    def _hatched(self, u: Floats, v: Floats, side: int) -> Floats:
        lines = np.maximum(np.sin(u * self.uniform(40, 200)), np.sin(v * self.uniform(40, 200)))
        return lines * 2 - 1

    def _camouflage(self, u: Floats, v: Floats, side: int) -> Floats:
        return np.round(self.noise(side, side, self.uniform(2, 8), 3) * 1.5) / 3 + 0.5


def _mixed(first: Floats, second: Floats, share: Floats) -> Floats:
    return np.asarray(first * (1 - share[..., None]) + second * share[..., None], np.float32)
