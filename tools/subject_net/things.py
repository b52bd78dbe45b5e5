"""Things of random shape to stand in a rendered scene: vessels, animals, people, boxes,
stacks, plants, fur, hair, lattices, rings."""

from typing import Any

import cv2
import mitsuba as mi
import numpy as np
from numpy.random import Generator

from tools.subject_net.materials import Materials
from tools.subject_net.meshes import Meshes, Points, Shape, bent, directions

KINDS = {
    "vessel": 0.18, "animal": 0.14, "rounded": 0.08, "boxes": 0.08, "stack": 0.08, "person": 0.08,
    "bouquet": 0.06, "furry": 0.07, "hairy": 0.08, "leafy": 0.06, "lattice": 0.05, "rings": 0.04,
}  # fmt: skip
"""How likely each is."""

SOFT_KINDS = {
    "bouquet": 0.4, "hairy": 0.2, "furry": 0.15, "leafy": 0.09, "lattice": 0.06, "animal": 0.04,
    "vessel": 0.04, "rings": 0.02,
}  # fmt: skip
"""Where hair, fur, stems and meshes are wanted."""

UP = np.array([0, 0, 1.0])

THIN = 0.003
"""How far a cloth lies above the floor, the thing that stands on it being 1 high."""


class Things:
    """Makes things: ``made`` gives the shapes of one about ``size`` high, standing at a place."""

    def __init__(self, meshes: Meshes, rng: Generator) -> None:
        self.meshes, self.materials = meshes, Materials(rng)
        self.rng, self.uniform = rng, rng.uniform

    def made(self, place: Any, size: float, kinds: dict[str, float] = KINDS) -> list[Shape]:
        kind = self.rng.choice(list(kinds), p=list(kinds.values()))
        materials = [self.materials.any() for _ in range(4)]
        return list(getattr(self, f"_{kind}")(np.asarray(place, float), size, materials))

    def mat(self, place: Any) -> Shape:
        """A cloth, a sheet or a round mat on the floor, hardly thicker than paper."""
        across, along = (float(half) for half in self.uniform(0.4, 1.1, 2))
        material = self.materials.any()
        if self.uniform() < 0.4:
            return self.meshes.ellipsoid(place, (across, across, THIN), material)
        at = mi.ScalarTransform4f().translate([float(value) for value in place])
        turned = at @ mi.ScalarTransform4f().rotate([0, 0, 1], float(self.uniform(0, 180)))
        sides = mi.ScalarTransform4f().scale([across, along, THIN])
        return {"type": "cube", "to_world": turned @ sides, "bsdf": material}

    def lying(self, place: Any) -> list[Shape]:
        """A brush, a pencil, a knife: one or two pieces of a rod that lies on the floor."""
        angle, half = self.uniform(0, np.pi), self.uniform(0.15, 0.5)
        way = np.array([np.cos(angle), np.sin(angle), 0]) * half
        thick, other = self.uniform(0.01, 0.04, 2)
        centre = np.asarray(place, float) + max(thick, other) * UP
        knot = centre + way * self.uniform(0.2, 1)
        pieces = [([centre - way, knot], thick, thick), ([knot, centre + way], other, 0.01)]
        return [
            self.meshes.tube(np.linspace(*ends, 4), start, end, self.materials.any())
            for ends, start, end in pieces
        ]

    def _turned(self, place: Points, radius: float, height: float,
                material: Shape) -> tuple[Shape, float]:  # fmt: skip
        """A turned vessel, open at the top, and its largest radius."""
        rings, knots = 48, int(self.rng.integers(3, 7))
        at = np.linspace(0, 1, rings)
        profile = np.interp(at, np.linspace(0, 1, knots), self.uniform(0.35, 1, knots))
        if self.uniform() < 0.8:
            blurred = cv2.GaussianBlur(profile[None].astype(np.float32), (0, 0), self.uniform(1, 5))
            profile = np.asarray(blurred[0], float)
        inner = [profile[-1] * 0.9, profile[-1] * 0.85, 0]
        profile = np.concatenate([[0], profile, inner]) * radius
        heights = np.concatenate([[0], at, [1, 0.9, 0.8]]) * height
        wave = np.ones(48)
        if self.uniform() < 0.2:
            turns = self.rng.integers(3, 14) * np.linspace(0, 2 * np.pi, len(wave))
            wave += self.uniform(0, 0.12) * np.cos(turns)
        shape = self.meshes.turned(place, profile, heights, wave, material)
        return shape, float(profile[1 : rings + 1].max())

    def _vessel(self, place: Points, size: float, materials: list[Shape], *,
                stems: float = 0.15) -> list[Shape]:  # fmt: skip
        """With handles or spouts, a lid, a bunch of stems."""
        uniform = self.uniform
        height = size * uniform(0.5, 1.1)
        radius = height * uniform(0.25, 0.75)
        body, widest = self._turned(place, radius, height, materials[0])
        shapes = [body]
        for _ in range(self.rng.integers(0, 3)):
            shapes.append(self._handle(place, size, height, widest, materials))
        if uniform() < 0.3:
            lid = (radius * 0.3, radius * 0.3, radius * uniform(0.1, 0.5))
            shapes.append(self.meshes.ellipsoid(place + height * UP, lid, materials[2]))
        if uniform() < stems:
            shapes += self._stems(place + 0.8 * height * UP, size, materials)
        return shapes

    def _bouquet(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        return self._vessel(place, size, materials, stems=1.0)

    def _handle(self, place: Points, size: float, height: float, widest: float,
                materials: list[Shape]) -> Shape:  # fmt: skip
        uniform = self.uniform
        angle = uniform(-0.5, 0.5) + self.rng.choice([0, np.pi])
        way = np.array([np.cos(angle), np.sin(angle), 0])
        low, high = sorted(uniform(0.1, 0.95, 2) * height)
        outer, inner = way * widest * uniform(1.2, 2), way * widest * 0.7
        if uniform() < 0.7:
            path = [inner + low * UP, outer + low * UP, outer + high * UP, inner + high * UP]
            start, end = size * uniform(0.02, 0.07, 2)
            return self.meshes.tube(place + path, start, end, materials[1], flat=uniform(0.5, 1))
        path = [inner + low * UP, outer + low * UP, 1.2 * outer + (high + 0.2 * height) * UP]
        return self.meshes.tube(place + path, size * 0.1, size * 0.04, materials[2])

    def _stems(self, root: Points, size: float, materials: list[Shape]) -> list[Shape]:
        uniform, shapes = self.uniform, []
        for number in range(int(np.exp(uniform(2, 4.6)))):
            angle, length, spread = uniform(0, 2 * np.pi), size * uniform(0.4, 1.1), uniform(0, 0.8)
            way = np.array([np.cos(angle) * spread, np.sin(angle) * spread, 1.0])
            bend = self.rng.normal(0, 0.12, 3) * length
            tip = root + way * length + 2 * bend
            path = [root, root + way * length * 0.5 + bend, tip]
            start, end = size * uniform(0.003, 0.015), size * uniform(0.002, 0.02)
            shapes.append(
                self.meshes.tube(path, start, end, materials[2 + number % 2], sides=6, rings=14)
            )
            if uniform() < 0.4:
                blossom = size * uniform(0.01, 0.06, 3)
                shapes.append(self.meshes.ellipsoid(tip, blossom, materials[3]))
        return shapes

    def _animal(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        uniform, tube, ellipsoid = self.uniform, self.meshes.tube, self.meshes.ellipsoid
        length, girth = size * uniform(0.35, 0.6), size * uniform(0.18, 0.4)
        legs, angle = size * uniform(0, 0.4), uniform(0, 2 * np.pi)
        ahead = np.array([np.cos(angle), np.sin(angle), 0])
        aside = np.array([-ahead[1], ahead[0], 0])
        body = place + (legs + girth * 0.8) * UP
        shapes = [
            ellipsoid(body + ahead * length * at * 0.55, (girth * uniform(0.75, 1),) * 3,
                      materials[0])
            for at in np.linspace(-1, 1, 4)
        ]  # fmt: skip
        head = body + ahead * length + size * uniform(0, 0.45) * UP
        skull = size * uniform(0.12, 0.25)
        face = materials[1 if uniform() < 0.5 else 0]
        shapes += [
            tube([body + ahead * length * 0.5, head], girth * 0.6, skull * 0.6, materials[0]),
            ellipsoid(head, (skull, skull * uniform(0.8, 1), skull), face),
            ellipsoid(head + ahead * skull, (skull * uniform(0.3, 0.6),) * 3, materials[2]),
        ]
        for side in (-1, 1):
            ear = aside * side * skull
            tip = head + ear * uniform(0.6, 1.5) + skull * uniform(0.6, 2.6) * UP
            start, end = skull * uniform(0.2, 0.4), skull * uniform(0.05, 0.2)
            shapes.append(tube([head + ear * 0.5, tip], start, end, materials[1], flat=0.5))
            eye = head + ahead * skull * 0.8 + ear * 0.45 + skull * 0.3 * UP
            shapes.append(ellipsoid(eye, (skull * 0.12,) * 3, materials[3]))
            for end_of in (-1, 1) if legs > size * 0.05 else ():
                hip = body + aside * side * girth * 0.5
                foot = (hip + ahead * length * uniform(0.5, 0.75) * end_of) * [1, 1, 0]
                path = [hip + ahead * length * 0.6 * end_of, foot + place * UP]
                start, end = girth * uniform(0.2, 0.4), girth * uniform(0.12, 0.3)
                shapes.append(tube(path, start, end, materials[self.rng.integers(2)]))
        if uniform() < 0.8:
            middle = body - ahead * length * 1.2 + size * uniform(-0.1, 0.3) * UP
            tip = body - ahead * length * uniform(1, 1.8) + size * uniform(-0.2, 0.6) * UP
            path = [body - ahead * length * 0.6, middle, tip]
            start, end = girth * uniform(0.15, 0.5), girth * uniform(0.02, 0.5)
            shapes.append(tube(path, start, end, materials[self.rng.integers(3)]))
        return shapes

    def _rounded(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        """A superellipsoid, perhaps fluted, with knobs."""
        uniform = self.uniform
        steep, round_ = uniform(0.3, 2.2, 2)
        u = np.linspace(-np.pi, np.pi, 60)
        v = np.linspace(-np.pi / 2, np.pi / 2, 40)[:, None]
        radii = size * uniform(0.2, 0.55, 3)
        flutes = self.rng.integers(2, 8) * u + uniform(0, 6)
        wave = 1 + uniform(0, 0.3) * np.cos(flutes) * np.cos(v) ** 2
        points = [
            radii[0] * wave * _power(np.cos(v), steep) * _power(np.cos(u), round_),
            radii[1] * wave * _power(np.cos(v), steep) * _power(np.sin(u), round_),
            radii[2] * (1 + _power(np.sin(v), steep) + 0 * u),
        ]
        shapes = [self.meshes.surface(place + np.stack(points, -1), materials[0])]
        for number in range(self.rng.integers(0, 5)):
            at = radii * [uniform(-1, 1), uniform(-1, 1), uniform(0.5, 2)]
            knob = size * uniform(0.04, 0.2, 3)
            shapes.append(self.meshes.ellipsoid(place + at, knob, materials[1 + number % 3]))
        return shapes

    def _boxes(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        shapes, height = [], 0.0
        for number in range(self.rng.integers(1, 5)):
            half = size * self.uniform(0.08, 0.4, 3)
            at = place + np.array([size * self.uniform(-0.1, 0.1), 0, height + half[2]])
            turn = mi.ScalarTransform4f().rotate(UP.tolist(), float(self.uniform(0, 90)))
            shapes.append({
                "type": "cube", "bsdf": materials[number % 4],
                "to_world": moved(at) @ turn @ mi.ScalarTransform4f().scale(half.tolist()),
            })  # fmt: skip
            height += 2 * half[2]
        return shapes

    def _stack(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        shapes, base = [], place
        for number in range(self.rng.integers(2, 5)):
            height, radius = size * self.uniform(0.1, 0.35), size * self.uniform(0.15, 0.45)
            aside = np.array([size * self.uniform(-0.05, 0.05), 0, 0])
            shapes.append(self._turned(base + aside, radius, height, materials[number % 4])[0])
            base = base + 0.95 * height * UP
        return shapes

    def _person(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        uniform, tube, ellipsoid = self.uniform, self.meshes.tube, self.meshes.ellipsoid
        width, angle = size * uniform(0.12, 0.22), uniform(0, 2 * np.pi)
        aside = np.array([np.cos(angle), np.sin(angle), 0])
        high = size * UP
        shapes = [
            tube([place + 0.42 * high, place + 0.8 * high], width * 0.8, width, materials[0],
                 flat=0.7),
            ellipsoid(place + 0.93 * high, size * np.array([0.08, 0.08, 0.1]), materials[1]),
            ellipsoid(place + 0.97 * high, size * np.array([0.09, 0.09, 0.08]), materials[2]),
        ]  # fmt: skip
        for side in (-1, 1):
            out = aside * side * width
            knee = place + out * uniform(0.4, 1.4) + 0.22 * high
            leg = [place + out * 0.4 + 0.45 * high, knee, place + out * uniform(0.4, 1.4)]
            shapes.append(tube(leg, width * 0.4, width * 0.25, materials[3]))
            shoulder = place + out + 0.76 * high
            elbow = shoulder + out * uniform(0.1, 1.6) + uniform(-0.25, 0.1) * high
            hand = shoulder + out * uniform(0.1, 1.8) + uniform(-0.4, 0.3) * high
            sleeve = materials[self.rng.integers(2)]
            shapes.append(tube([shoulder, elbow, hand], width * 0.26, width * 0.18, sleeve))
        return shapes

    def _furry(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        uniform, ellipsoid = self.uniform, self.meshes.ellipsoid
        balls = [((0, 0, 0.35), (0.3, 0.3, 0.35)),
                 ((uniform(-0.15, 0.15), uniform(-0.15, 0.15), 0.75), (0.2, 0.2, 0.2))]  # fmt: skip
        for _ in range(self.rng.integers(0, 5)):
            at = (uniform(-0.35, 0.35), uniform(-0.2, 0.2), uniform(0.05, 0.9))
            balls.append((at, (uniform(0.06, 0.14),) * 3))
        shapes = []
        for at, radii in balls:
            middle, out = place + size * np.array(at), size * np.array(radii)
            coat = materials[self.rng.integers(2)]
            ways = directions(int(np.exp(uniform(5.7, 7.8))), self.rng)
            lengths = size * uniform(0.03, 0.15) * uniform(0.5, 1.2, len(ways))
            drop, curl = uniform(0, 0.6), uniform(0.05, 0.4)
            hairs = bent(middle + ways * out, ways, lengths, 6, drop, curl, self.rng)
            thick = size * uniform(0.0015, 0.006)
            shapes += [
                ellipsoid(middle, out, coat),
                self.meshes.threads(hairs, thick, size * 0.001, coat),
            ]
        for side in (-1, 1):
            eye = place + size * np.array([side * 0.09, -0.18, 0.8])
            shapes.append(ellipsoid(eye, (size * 0.025,) * 3, materials[3]))
        return shapes

    def _hairy(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        """A figure with a head of hair, and perhaps arms."""
        uniform, ellipsoid = self.uniform, self.meshes.ellipsoid
        head, radius = place + 0.75 * size * UP, size * uniform(0.13, 0.22)
        trunk = (size * uniform(0.15, 0.35), size * uniform(0.12, 0.25), size * 0.36)
        ways = directions(int(np.exp(uniform(5, 7.8))), self.rng)
        ways[:, 2] = np.abs(ways[:, 2])
        ways[:, 1] = np.where(ways[:, 2] < 0.5, np.abs(ways[:, 1]), ways[:, 1])  # none on the face
        lengths = size * uniform(0.1, 0.6) * uniform(0.5, 1.1, len(ways))
        lie, drop, curl = uniform(0.4, 1), uniform(-0.2, 1.1), uniform(0.03, 0.35)
        hairs = bent(head + ways * radius, ways * lie, lengths, 12, drop, curl, self.rng)
        shapes = [
            ellipsoid(head, (radius, radius, radius * uniform(1, 1.3)), materials[0]),
            ellipsoid(place + 0.33 * size * UP, trunk, materials[1]),
            self.meshes.threads(hairs, size * uniform(0.0015, 0.008), size * 0.001, materials[2]),
        ]
        for side in (-1, 1):
            eye = head + radius * np.array([side * 0.4, -0.9, 0.1])
            shapes.append(ellipsoid(eye, (radius * 0.12,) * 3, materials[3]))
            if uniform() < 0.7:
                elbow = [side * uniform(0.2, 0.6), uniform(-0.3, 0.1), uniform(0.3, 0.7)]
                hand = [side * uniform(0.1, 0.6), uniform(-0.4, 0.1), uniform(0.2, 0.9)]
                arm = place + size * np.array([[side * 0.2, 0, 0.55], elbow, hand])
                sleeve = materials[self.rng.integers(2)]
                shapes.append(self.meshes.tube(arm, size * 0.06, size * 0.04, sleeve))
        return shapes

    def _leafy(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        uniform = self.uniform
        radius, height = size * uniform(0.1, 0.3), size * uniform(0.15, 0.4)
        shapes = [self._turned(place, radius, height, materials[0])[0]]
        top = place + 0.25 * size * UP
        for _ in range(self.rng.integers(4, 14)):
            angle = uniform(0, 2 * np.pi)
            reach = [np.cos(angle) * uniform(0.05, 0.5), np.sin(angle) * uniform(0.05, 0.5),
                     uniform(0.1, 0.75)]  # fmt: skip
            tip = top + size * np.array(reach)
            path = [top, (top + tip) / 2 + size * self.rng.normal(0, 0.05, 3), tip]
            start, end = size * uniform(0.005, 0.02), size * 0.005
            shapes.append(self.meshes.tube(path, start, end, materials[1], sides=6, rings=14))
            for _ in range(self.rng.integers(1, 4)):
                radii = size * np.array(
                    [uniform(0.04, 0.16), uniform(0.03, 0.12), uniform(0.004, 0.02)]
                )
                leaf = self.meshes.ellipsoid((0, 0, 0), radii, materials[1 + self.rng.integers(2)])
                axis = directions(1, self.rng)[0].tolist()
                turn = mi.ScalarTransform4f().rotate(axis, float(uniform(0, 120)))
                at = tip + size * self.rng.normal(0, 0.05, 3)
                shapes.append(leaf | {"to_world": moved(at) @ turn})
        return shapes

    def _lattice(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        """A basket: two sets of slanted bars, hoops, perhaps a handle and something within."""
        uniform = self.uniform
        height, radius = size * uniform(0.35, 0.9), size * uniform(0.2, 0.45)
        foot, bar, twist = uniform(0.6, 1.3), size * uniform(0.008, 0.03), uniform(0, 1.5)
        count = int(self.rng.integers(8, 26))
        around = np.linspace(0, 2 * np.pi, count, endpoint=False)[:, None, None]
        at = np.linspace(0, 1, 10)[None, :, None]
        wide = radius * (foot + (1 - foot) * at)
        shapes = []
        for way in (1, -1):
            angle = around + way * twist * at
            bars = [wide * np.cos(angle), wide * np.sin(angle), height * at + 0 * around]
            bars = place + np.concatenate(bars, 2)
            shapes.append(self.meshes.threads(bars, bar, bar, materials[0], 6))
        turn = np.linspace(0, 2 * np.pi, 40)
        for share in np.linspace(0, 1, self.rng.integers(2, 7)):
            wide_here = radius * (foot + (1 - foot) * share)
            hoop = [wide_here * np.cos(turn), wide_here * np.sin(turn), height * share + 0 * turn]
            path = place + np.stack(hoop, 1)
            shapes.append(
                self.meshes.tube(path, bar * 1.4, bar * 1.4, materials[1], sides=8, rings=60)
            )
        if uniform() < 0.6:
            half = np.linspace(0, np.pi, 30)
            arch = [radius * np.cos(half), 0 * half,
                    height + radius * uniform(0.5, 1.5) * np.sin(half)]  # fmt: skip
            path = place + np.stack(arch, 1)
            shapes.append(self.meshes.tube(path, bar * 2, bar * 2, materials[2], sides=8))
        for _ in range(self.rng.integers(1, 6) if uniform() < 0.5 else 0):
            at_ = [radius * uniform(-0.5, 0.5), radius * uniform(-0.5, 0.5),
                   height * uniform(0.2, 1)]  # fmt: skip
            fruit = materials[self.rng.integers(1, 4)]
            shapes.append(self.meshes.ellipsoid(place + at_, size * uniform(0.06, 0.15, 3), fruit))
        return shapes

    def _rings(self, place: Points, size: float, materials: list[Shape]) -> list[Shape]:
        uniform, shapes = self.uniform, []
        turn = np.linspace(0, 2 * np.pi, 50)
        for _ in range(self.rng.integers(1, 4)):
            radius = size * uniform(0.2, 0.45)
            thick, angle = radius * uniform(0.15, 0.5), uniform(0, 2 * np.pi)
            ring = [np.cos(turn) * np.cos(angle), np.cos(turn) * np.sin(angle), np.sin(turn)]
            off = [uniform(-0.2, 0.2) * size, uniform(-0.2, 0.2) * size, radius + thick]
            path = place + off + radius * np.stack(ring, 1)
            material = materials[self.rng.integers(4)]
            shapes.append(self.meshes.tube(path, thick, thick, material, sides=16, rings=60))
        for number in range(self.rng.integers(0, 5)):
            at = size * np.array([uniform(-0.3, 0.3), uniform(-0.2, 0.2), uniform(0.1, 0.8)])
            radii = size * uniform(0.04, 0.2, 3)
            shapes.append(self.meshes.ellipsoid(place + at, radii, materials[number % 4]))
        return shapes


def moved(place: Points) -> Any:
    """The transform that brings the origin to a place."""
    return mi.ScalarTransform4f().translate(place.tolist())


def _power(values: Points, exponent: float) -> Points:
    return np.asarray(np.sign(values) * np.abs(values) ** exponent)
