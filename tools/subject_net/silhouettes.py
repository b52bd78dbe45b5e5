"""Drawn outlines of made-up things, part by part. Those of the validation pictures are never seen
in training."""

from collections.abc import Sequence

import cv2
import numpy as np
from numpy.random import Generator
from numpy.typing import ArrayLike, NDArray

Bytes = NDArray[np.uint8]
Points = NDArray[np.float64]

SIDE, MIDDLE = 512, 256.0
FINE = 16
"""Polygons and curves are drawn to a sixteenth of a pixel."""

TRAINING = (
    "blobs", "overlapping", "animal", "person", "vessel", "vessel", "plant", "furry", "furniture",
    "potted",
)  # fmt: skip
VALIDATION = ("flower", "bird", "tree", "tool", "turned")


def empty() -> Bytes:
    return np.zeros((SIDE, SIDE), np.uint8)


def polygon(points: ArrayLike, part: Bytes | None = None) -> Bytes:
    part = empty() if part is None else part
    cv2.fillPoly(part, [np.int32(np.round(np.asarray(points) * FINE))], 255, cv2.LINE_AA, 4)
    return part


def ellipse(
    part: Bytes,
    middle: ArrayLike,
    radii: ArrayLike,
    turn: float = 0,
    part_of: Sequence[int] = (0, 360),
) -> None:
    at, axes = np.int32(middle).tolist(), np.maximum(np.int32(radii), 1).tolist()
    cv2.ellipse(part, at, axes, turn, *part_of, 255, -1, cv2.LINE_AA)


def limb(part: Bytes, path: ArrayLike, start: float, end: float, count: int = 40) -> Points:
    """A tapered Bézier curve, drawn in; its points."""
    knots, at = np.asarray(path, float), np.linspace(0, 1, count)
    curve = knots[None].repeat(count, 0)
    while curve.shape[1] > 1:
        curve = curve[:, :-1] * (1 - at)[:, None, None] + curve[:, 1:] * at[:, None, None]
    points, radii = curve[:, 0], start + (end - start) * at
    fine = np.int32(points * 8).tolist()
    for one in range(count - 1):
        width = max(1, int(radii[one] + radii[one + 1]))
        cv2.line(part, fine[one], fine[one + 1], 255, width, cv2.LINE_AA, 3)
    return points


class Silhouettes:
    """Draws one thing after another as a list of parts, each of shape (SIDE, SIDE), 0..255."""

    def __init__(self, rng: Generator, unseen: bool) -> None:
        self.rng, self.uniform, self.integer = rng, rng.uniform, rng.integers
        self.kinds = VALIDATION if unseen else TRAINING

    def any(self) -> list[Bytes]:
        parts = getattr(self, f"_{self.rng.choice(self.kinds)}")()
        if self.uniform() < 0.12:  # a hole through everything
            hole = self._blob(self.uniform(180, 330, 2), self.uniform(12, 55), 0.3, 5)
            parts = [cv2.subtract(part, hole) for part in parts]
        return list(parts)

    def _blob(
        self, middle: ArrayLike, radius: float, rough: float, waves: int, part: Bytes | None = None
    ) -> Bytes:
        angle = np.linspace(0, 2 * np.pi, 160)
        wave = np.ones_like(angle)
        for number in range(1, waves):
            turns = number * angle + self.uniform(0, 2 * np.pi)
            wave += self.rng.normal(0, rough / number) * np.cos(turns)
        far = np.clip(wave, 0.15, 2.2) * radius
        across, down = self.uniform(0.6, 1.2, 2)
        outline = np.stack([far * np.cos(angle) * across, far * np.sin(angle) * down], 1)
        return polygon(np.asarray(middle) + outline, part)

    def _strands(
        self, part: Bytes, root: Sequence[float], count: int, length: float, spread: float,
        width: float, lean: float = 0,
    ) -> None:  # fmt: skip
        for _ in range(count):
            angle = -np.pi / 2 + self.rng.normal(lean, spread)
            reach = length * self.uniform(0.4, 1.1)
            start = np.array([root[0] + self.rng.normal(0, 12), root[1]])
            way = np.array([np.cos(angle), np.sin(angle)]) * reach
            path = [start, start + way / 2, start + way + self.rng.normal(0, 0.22, 2) * reach]
            thick, thin = self.uniform(0.5, width), self.uniform(0.5, max(0.5, width * 0.5))
            tip = limb(part, path, thick, thin, 14)[-1]
            if count < 60 and self.uniform() < 0.4:
                ellipse(part, tip, self.integer(2, [16, 8]), int(self.integer(180)))

    def _blobs(self) -> list[Bytes]:
        return [
            self._blob(
                self.uniform(150, 360, 2), self.uniform(50, 170), self.uniform(0.1, 0.5),
                int(self.integer(3, 14)),
            )
            for _ in range(self.integer(1, 5))
        ]  # fmt: skip

    def _flower(self) -> list[Bytes]:
        """A superformula."""
        angle = np.linspace(0, 2 * np.pi, 300)
        petals, (bend, pinch) = self.integer(2, 12), self.uniform(0.4, 5, 2)
        wave = np.abs(np.cos(petals * angle / 4)) ** pinch
        wave += np.abs(np.sin(petals * angle / 4)) ** pinch + 1e-3
        far = wave ** (-1 / bend)
        far *= 240 / far.max()
        outline = np.stack([far * np.cos(angle), far * np.sin(angle)], 1)
        parts = [polygon(MIDDLE + outline)]
        if self.uniform() < 0.5:
            middle, radius = self.uniform(150, 360, 2), self.uniform(30, 120)
            parts.append(self._blob(middle, radius, 0.3, 7))
        return parts

    def _overlapping(self) -> list[Bytes]:
        parts = []
        for _ in range(self.integer(2, 8)):
            part, middle = empty(), self.uniform(100, 410, 2)
            kind = self.integer(3)
            if kind == 0:
                ellipse(part, middle, self.integer(20, 140, 2), int(self.integer(180)))
            elif kind == 1:
                sides = (self.uniform(20, 260), self.uniform(20, 200))
                turn = self.uniform(0, 180) if self.uniform() < 0.5 else 0.0
                polygon(cv2.boxPoints((middle.tolist(), sides, turn)), part)
            else:
                polygon(self.uniform(90, 420, (self.integer(3, 6), 2)), part)
            parts.append(part)
        return parts

    def _body(self, legs_at: Sequence[float]) -> tuple[Bytes, Bytes, Points, float, float]:
        """Body with neck, legs, where the head is, its radius, and half the body's length."""
        uniform = self.uniform
        half, girth = uniform(80, 150), uniform(45, 100)
        body, legs = empty(), empty()
        ellipse(body, (MIDDLE, MIDDLE), (half, girth), int(self.integer(-20, 20)))
        head = MIDDLE + np.array([half * uniform(0.8, 1.3), -girth * uniform(0.2, 1.8)])
        radius = uniform(28, 65)
        for at in legs_at:
            hip = MIDDLE + np.array([at * half, girth * 0.5])
            knee = MIDDLE + np.array([at * half + uniform(-25, 25), girth + 40])
            foot = MIDDLE + np.array([at * half + uniform(-20, 30), girth + uniform(30, 140)])
            limb(legs, [hip, knee, foot], uniform(4, 22), uniform(3, 14))
        limb(body, [(MIDDLE + half * 0.5, MIDDLE), head], girth * 0.6, radius * 0.7)
        return body, legs, head, radius, half

    def _skull(self, head: Points, radius: float) -> Bytes:
        skull, radii = empty(), (radius * self.uniform(0.9, 1.3), radius)
        ellipse(skull, head, radii, int(self.integer(-30, 30)))
        return skull

    def _bird(self) -> list[Bytes]:
        uniform = self.uniform
        body, legs, head, radius, half = self._body((-0.75, -0.5))
        beak = [(radius * 0.7, -10), (radius * uniform(1.5, 2.5), uniform(0, 20)),
                (radius * 0.7, 14)]  # fmt: skip
        tail = [(-half * 0.7, -20), (-half * uniform(1.5, 2.3), uniform(-80, 60)),
                (-half * uniform(1.3, 2), uniform(0, 90)), (-half * 0.6, 30)]  # fmt: skip
        wing = self._blob((MIDDLE - 20, MIDDLE), half * 0.6, 0.3, 5)
        return [
            polygon(MIDDLE + np.array(tail)), legs, body, self._skull(head, radius), wing,
            polygon(head + np.array(beak)),
        ]  # fmt: skip

    def _animal(self) -> list[Bytes]:
        uniform = self.uniform
        body, legs, head, radius, half = self._body((-0.75, -0.5, 0.45, 0.7))
        ears, tail, eye, skull = empty(), empty(), empty(), self._skull(head, radius)
        for side in (-1, 1):
            outer = side * radius * np.array([0.7, 0]) - [0, radius * 0.3]
            tip = np.array([side * radius * uniform(0.6, 1.4), -radius * uniform(1.2, 2.6)])
            inner = np.array([side * radius * 0.1, -radius * 0.7])
            polygon(head + np.array([outer, tip, inner]), ears)
        ellipse(skull, head + np.array([radius, radius * 0.3]),
                radius * uniform([0.3, 0.3], [0.9, 0.5]), 10)  # fmt: skip
        root = MIDDLE - np.array([half * 0.8, 0])
        bend = MIDDLE - np.array([half * 1.4, uniform(-60, 120)])
        tip = MIDDLE - np.array([half * uniform(1, 1.9), uniform(-80, 190)])
        limb(tail, [root, bend, tip], uniform(6, 40), uniform(2, 30))
        ellipse(eye, head + radius * np.array([0.4, -0.2]), [radius * 0.13 + 1] * 2)
        return [tail, legs, body, ears, skull, eye]

    def _person(self) -> list[Bytes]:
        uniform = self.uniform
        width, top = uniform(40, 80), 120.0
        legs, arms, body, head, hair = (empty() for _ in range(5))
        whole = uniform() < 0.5
        waist = width * uniform(0.6, 1.3, 2)
        polygon([(MIDDLE - width, 190), (MIDDLE + width, 190), (MIDDLE + waist[0], 340),
                 (MIDDLE - waist[1], 340)], body)  # fmt: skip
        limb(body, [(MIDDLE - width * 0.8, 195), (MIDDLE + width * 0.8, 195)], 24, 24)
        for side in (-1, 1):
            out = side * width
            leg = [(MIDDLE + out * 0.5, 330), (MIDDLE + out * uniform(0.3, 1.4), 410),
                   (MIDDLE + out * uniform(0.2, 1.6), 495)]  # fmt: skip
            limb(legs, leg, width * 0.42, width * 0.25)
            arm = [(MIDDLE + out * 0.9, 200), (MIDDLE + out * uniform(1.1, 2.4), uniform(200, 320)),
                   (MIDDLE + out * uniform(0.2, 2.6), uniform(150, 360))]  # fmt: skip
            limb(arms, arm, width * 0.3, width * 0.2)
        limb(head, [(MIDDLE, 190), (MIDDLE, 150)], 18, 18)
        radius = uniform(34, 52)
        ellipse(head, (MIDDLE, top), (radius * 0.85, radius))
        ellipse(hair, (MIDDLE, top - radius * 0.3), (radius, radius * 0.8))
        if uniform() < 0.6:
            self._strands(
                hair, (MIDDLE, top - 10), int(self.integer(30, 90)), uniform(50, 140),
                uniform(0.6, 2.2), 2.2, self.rng.choice([0, np.pi]),
            )  # fmt: skip
        above = [hair, arms, body, head] if uniform() < 0.5 else [arms, body, head, hair]
        return [legs, *above] if whole else above

    def _vessel(self, *, smooth: bool = True, stems: float = 0.1) -> list[Bytes]:
        """A vessel from the side, with handles, spouts, a rim, a lid, stems."""
        uniform = self.uniform
        knots = uniform(25, 130, (1, self.integer(3, 7))).astype(np.float32)
        how = cv2.INTER_CUBIC if smooth else cv2.INTER_LINEAR
        radii = cv2.resize(knots, (90, 1), interpolation=how)[0].clip(12, 160)
        heights = np.linspace(uniform(90, 220), 450, 90)
        left = np.stack([MIDDLE - radii, heights], 1)
        right = np.stack([MIDDLE + radii, heights], 1)
        body, rim, handles, spouts = polygon([*left, *right[::-1]]), empty(), empty(), empty()
        mouth = (MIDDLE, heights[0])
        ellipse(rim, mouth, (radii[0], max(2, radii[0] * uniform(0.05, 0.35))))
        ellipse(body, (MIDDLE, 450), (radii[-1], radii[-1] * uniform(0.05, 0.3) + 1))
        for side in (-1, 1):
            if uniform() < 0.45:
                self._handle(handles, side, radii, heights)
            elif uniform() < 0.3:
                at = self.integer(15, 75)
                far, up = radii[at] + uniform(50, 110), heights[at] - uniform(40, 140)
                spout = [(MIDDLE + side * radii[at] * 0.8, heights[at]),
                         (MIDDLE + side * (radii[at] + 50), heights[at]),
                         (MIDDLE + side * far, up)]  # fmt: skip
                limb(spouts, spout, uniform(14, 30), uniform(6, 14))
        parts = [handles, spouts, body] + ([rim] if uniform() < 0.8 else [])
        if uniform() < stems:
            bunch = empty()
            self._strands(bunch, mouth, int(self.integer(5, 50)), uniform(80, 220),
                          uniform(0.2, 0.8), uniform(1, 4))  # fmt: skip
            parts = [bunch, *parts]
        if uniform() < 0.25:
            lid = empty()
            ellipse(lid, mouth, (radii[0] * 0.9, uniform(8, 40)), 0, (180, 360))
            ellipse(lid, (MIDDLE, heights[0] - 30), [self.integer(6, 18)] * 2)
            parts.append(lid)
        return parts

    def _turned(self) -> list[Bytes]:
        return self._vessel(smooth=False)

    def _potted(self) -> list[Bytes]:
        return self._vessel(stems=1.0)

    def _handle(self, part: Bytes, side: int, radii: Points, heights: Points) -> None:
        high, low = sorted(self.integer(5, 85, 2))
        out = self.uniform(40, 130)
        near, far = radii * 0.9, radii + out
        path = [
            (MIDDLE + side * near[high], heights[high]),
            (MIDDLE + side * far[high], heights[high] - self.uniform(-20, 30)),
            (MIDDLE + side * far[low], heights[low] + self.uniform(-20, 30)),
            (MIDDLE + side * near[low], heights[low]),
        ]
        limb(part, path, *self.uniform(4, 17, 2))

    def _plant(self, *, crowns: bool = False) -> list[Bytes]:
        uniform = self.uniform
        stems, leaves = empty(), empty()
        path = [(MIDDLE, 480), (MIDDLE + uniform(-60, 60), 330), (MIDDLE + uniform(-80, 80), 120)]
        trunk = limb(stems, path, uniform(3, 14), uniform(1, 5))
        for _ in range(self.integer(6, 40)):
            root = trunk[self.integer(5, 39)]
            tip = root + uniform([-170, -120], [170, 60])
            middle = (root + tip) / 2 + self.rng.normal(0, 20, 2)
            limb(stems, [root, middle, tip], uniform(1, 4), 1, 12)
            if crowns:
                self._blob(tip, uniform(10, 45), 0.3, 6, leaves)
            else:
                ellipse(leaves, tip, self.integer([8, 3], [50, 20]), int(self.integer(180)))
        return [stems, leaves]

    def _tree(self) -> list[Bytes]:
        return self._plant(crowns=True)

    def _furry(self) -> list[Bytes]:
        uniform = self.uniform
        middle = np.array([MIDDLE, MIDDLE])
        body = self._blob(middle, uniform(80, 150), uniform(0.1, 0.3), 6)
        contours, _ = cv2.findContours(body, cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_NONE)
        outline, length = max(contours, key=len)[:, 0].astype(float), uniform(8, 40)
        for _ in range(self.integer(150, 500)):
            root = outline[self.integer(len(outline))]
            way = root - middle
            way *= length * uniform(0.3, 1.2) / (np.linalg.norm(way) + 1)
            tip = root + way + self.rng.normal(0, length * 0.3, 2)
            limb(body, [root - way * 0.3, root + way * 0.5, tip], uniform(0.5, 2), 0.5, 7)
        return [body, self._blob(uniform(180, 330, 2), uniform(20, 60), 0.3, 7)]

    def _tool(self) -> list[Bytes]:
        uniform = self.uniform
        grip, hole, angle = empty(), empty(), uniform(-0.7, 0.7)
        way = np.array([np.sin(angle), -np.cos(angle)])
        limb(grip, [MIDDLE - 200 * way, MIDDLE + 120 * way], uniform(5, 24), uniform(5, 20))
        blade = self._blob(MIDDLE + 120 * way, uniform(30, 110), 0.3, 5)
        ellipse(hole, MIDDLE + 120 * way, [self.integer(8, 30)] * 2)
        return [grip, cv2.subtract(blade, hole)]

    def _furniture(self) -> list[Bytes]:
        """Legs, a seat, and perhaps a back of bars with open spaces."""
        uniform = self.uniform
        bars, boards = empty(), empty()
        left, right, top = uniform(100, 200), uniform(310, 410), uniform(220, 320)
        thick = int(self.integer(8, 26))
        low = top + uniform(15, 60)
        polygon([(left, top), (right, top), (right + 10, low), (left - 10, low)], boards)
        for x in np.linspace(left, right, self.integer(2, 5)):
            foot = np.int32([x + uniform(-20, 20), self.integer(400, 490)]).tolist()
            cv2.line(bars, np.int32([x, top]).tolist(), foot, 255, thick, cv2.LINE_AA)
        if uniform() < 0.7:
            for x in np.linspace(left, right, self.integer(2, 7)):
                ends = np.int32([[x, top], [x, 90]]).tolist()
                cv2.line(bars, *ends, 255, max(3, thick // 2), cv2.LINE_AA)
            ends = np.int32([[left, 90], [right, 90]]).tolist()
            cv2.line(boards, *ends, 255, thick, cv2.LINE_AA)
        return [bars, boards]
