"""Meshes: surfaces over a grid of points, tubes along a path, turned vessels, ellipsoids, and
threads by the hundred. They are written as PLY, which Mitsuba reads, and read again."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import count
from pathlib import Path
from typing import Any

import numpy as np
from numpy.random import Generator
from numpy.typing import ArrayLike, NDArray

Points = NDArray[np.float64]
Shape = dict[str, Any]

ACROSS = np.array([0.31, 0.95, 0.07])
"""A direction that hardly any path has; tubes are spread from it."""


VERTEX = ("x", "y", "z", "nx", "ny", "nz", "u", "v")
"""What a file says of each vertex: place, normal, and place in the pattern."""

FACE = np.dtype([("n", "u1"), ("corners", "<i4", 3)])


@dataclass(frozen=True)
class Mesh:
    """Triangles: the place and normal of each vertex and its place in the pattern, and the numbers
    of each triangle's vertices."""

    vertices: NDArray[np.float32]
    normals: NDArray[np.float32]
    pattern: NDArray[np.float32]
    triangles: NDArray[np.int32]

    def moved(self, way: Points) -> "Mesh":
        """By a matrix of (4, 4)."""
        vertices = self.vertices @ way[:3, :3].T + way[:3, 3]
        normals = self.normals @ np.linalg.inv(way[:3, :3])
        return Mesh(
            vertices.astype(np.float32), normals.astype(np.float32), self.pattern, self.triangles
        )

    @staticmethod
    def together(meshes: Sequence["Mesh"]) -> "Mesh":
        """All as one."""
        begin = np.cumsum([0, *(len(one.vertices) for one in meshes)])
        triangles = [one.triangles + at for one, at in zip(meshes, begin, strict=False)]
        return Mesh(
            np.concatenate([one.vertices for one in meshes]),
            np.concatenate([one.normals for one in meshes]),
            np.concatenate([one.pattern for one in meshes]),
            np.concatenate(triangles).astype(np.int32),
        )


def read(file: str) -> Mesh:
    """A mesh that ``Meshes`` wrote."""
    head, body = Path(file).read_bytes().split(b"end_header\n", 1)
    vertices, faces = (int(line.split()[2]) for line in head.splitlines() if b"element" in line)
    numbers = np.frombuffer(body, "<f4", vertices * len(VERTEX)).reshape(-1, len(VERTEX))
    corners = np.frombuffer(body, FACE, faces, numbers.nbytes)["corners"]
    return Mesh(numbers[:, :3], numbers[:, 3:6], numbers[:, 6:], corners.astype(np.int32))


def plane(squares: int = 48) -> Mesh:
    """A square from -1 to 1, facing up."""
    v, u = np.mgrid[0 : squares + 1, 0 : squares + 1].reshape(2, -1) / squares
    flat = np.stack([2 * u - 1, 2 * v - 1, 0 * u], 1)
    first = np.arange((squares + 1) * squares)
    first = first[first % (squares + 1) < squares]
    corners = [np.stack([first, first + 1, first + squares + 2], 1),
               np.stack([first, first + squares + 2, first + squares + 1], 1)]  # fmt: skip
    return Mesh(
        flat.astype(np.float32), np.float32([[0, 0, 1]]).repeat(len(flat), 0),
        np.stack([u, v], 1).astype(np.float32), np.concatenate(corners).astype(np.int32),
    )  # fmt: skip


def box() -> Mesh:
    """A cube from -1 to 1."""
    face = plane(1)
    up = np.eye(4)
    up[2, 3] = 1
    turns = [np.eye(4)[[*order, 3]] * [*sign, 1] for order, sign in (
        ((0, 1, 2), (1, 1, 1)), ((0, 1, 2), (1, -1, -1)), ((2, 0, 1), (1, 1, 1)),
        ((2, 0, 1), (1, -1, -1)), ((1, 2, 0), (1, 1, 1)), ((1, 2, 0), (1, -1, -1)))]  # fmt: skip
    return Mesh.together([face.moved(turn @ up) for turn in turns])


class Meshes:
    """Shapes of a scene, their files in ``folder``."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.numbers = count()

    def surface(self, points: Points, material: Shape) -> Shape:
        """A surface through ``points``, shape (rows, columns, 3)."""
        rows, columns, _ = points.shape
        v, u = np.mgrid[0:rows, 0:columns]
        places = np.stack([u / (columns - 1) * 2, v / (rows - 1)], -1)
        normals = np.cross(np.gradient(points, axis=1), np.gradient(points, axis=0))
        length = np.linalg.norm(normals, axis=2, keepdims=True)
        normals = np.where(length > 1e-9, normals / np.maximum(length, 1e-9), [0, 0, 1.0])
        corners = np.arange(rows * columns).reshape(1, rows, columns)
        return self._written(points, normals, places, corners, material)

    def tube(
        self, path: ArrayLike, start: float, end: float, material: Shape, *,
        sides: int = 14, rings: int = 40, flat: float = 1.0,
    ) -> Shape:  # fmt: skip
        """A tube along a path, shape (points, 3), smoothed, of radius ``start`` to ``end``."""
        given = np.asarray(path, float)
        at, wanted = np.linspace(0, 1, len(given)), np.linspace(0, 1, rings)
        points = np.stack([np.interp(wanted, at, given[:, axis]) for axis in range(3)], 1)
        for _ in range(6):
            points[1:-1] = (points[:-2] + 2 * points[1:-1] + points[2:]) / 4
        side, other = _frame(points)
        angle = np.linspace(0, 2 * np.pi, sides)[None, :, None]
        radius = np.interp(wanted, [0, 1], [start, end])[:, None, None]
        around = np.cos(angle) * side[:, None] + flat * np.sin(angle) * other[:, None]
        return self.surface(points[:, None] + radius * around, material)

    def turned(self, place: ArrayLike, profile: Points, heights: Points, wave: Points,
               material: Shape) -> Shape:  # fmt: skip
        """A vessel turned on a wheel: radius and height along its profile, and what each radius is
        multiplied by around it."""
        angle = np.linspace(0, 2 * np.pi, len(wave))
        x, y, z = np.asarray(place, float)
        points = [
            x + profile[:, None] * np.cos(angle) * wave,
            y + profile[:, None] * np.sin(angle) * wave,
            z + heights[:, None] + 0 * angle,
        ]
        return self.surface(np.stack(points, -1), material)

    def ellipsoid(self, middle: ArrayLike, radii: ArrayLike, material: Shape) -> Shape:
        u, v = np.linspace(-np.pi, np.pi, 25), np.linspace(-1.5, 1.5, 15)[:, None]
        ball = np.stack([np.cos(v) * np.cos(u), np.cos(v) * np.sin(u), np.sin(v) + 0 * u], -1)
        return self.surface(np.asarray(middle, float) + ball * np.asarray(radii, float), material)

    def threads(self, paths: Points, start: float, end: float, material: Shape,
                sides: int = 4) -> Shape:  # fmt: skip
        """Many thin tubes as one mesh; ``paths`` has shape (threads, points, 3)."""
        many, long, _ = paths.shape
        side, other = _frame(paths)
        angle = np.linspace(0, 2 * np.pi, sides + 1)[:, None]
        normals = np.cos(angle) * side[:, :, None] + np.sin(angle) * other[:, :, None]
        radius = np.linspace(start, end, long)[None, :, None, None]
        points = paths[:, :, None] + radius * normals
        along = np.linspace(0, 1, long)[None, :, None]
        which = (np.arange(many) / many)[:, None, None]
        places = np.stack(np.broadcast_arrays(along + 0 * points[..., 0], which), -1)
        corners = np.arange(points.size // 3).reshape(many, long, sides + 1)
        return self._written(points, normals, places, corners, material)

    def _written(self, points: Points, normals: Points, places: Points,
                 corners: NDArray[np.int64], material: Shape) -> Shape:  # fmt: skip
        """``corners`` numbers the points, shape (surfaces, rows, columns)."""
        first, right = corners[:, :-1, :-1].ravel(), corners[:, :-1, 1:].ravel()
        across, below = corners[:, 1:, 1:].ravel(), corners[:, 1:, :-1].ravel()
        triangles = np.concatenate(
            [np.stack([first, right, across], 1), np.stack([first, across, below], 1)]
        )
        faces = np.empty(len(triangles), FACE)
        faces["n"], faces["corners"] = 3, triangles
        vertices = np.concatenate(
            [points.reshape(-1, 3), normals.reshape(-1, 3), places.reshape(-1, 2)], 1
        )
        head = [
            "ply", "format binary_little_endian 1.0", f"element vertex {len(vertices)}",
            *(f"property float {name}" for name in VERTEX),
            f"element face {len(faces)}", "property list uchar int vertex_indices", "end_header",
        ]  # fmt: skip
        file = self.folder / f"{next(self.numbers)}.ply"
        file.write_bytes(
            "\n".join([*head, ""]).encode() + vertices.astype("<f4").tobytes() + faces.tobytes()
        )
        return {"type": "ply", "filename": str(file), "bsdf": material}


def bent(roots: Points, ways: Points, lengths: Points, points: int, drop: float, curl: float,
         rng: Generator) -> Points:  # fmt: skip
    """Paths of hairs from ``roots`` along ``ways``, bent down and by chance, shape (hairs, points,
    3)."""
    along = np.linspace(0, 1, points)[None, :, None]
    bend = rng.normal(0, curl, (len(roots), 1, 3)) - [0, 0, drop]
    return roots[:, None] + lengths[:, None, None] * (ways[:, None] * along + bend * along**2)


def directions(count: int, rng: Generator) -> Points:
    """Unit vectors every which way, shape (count, 3)."""
    drawn = rng.normal(0, 1, (count, 3))
    return np.asarray(drawn / np.linalg.norm(drawn, axis=1, keepdims=True))


def _frame(paths: Points) -> Sequence[Points]:
    """Two directions across each point of the paths, shape (..., points, 3)."""
    along = _unit(np.gradient(paths, axis=-2))
    side = _unit(np.cross(along, ACROSS))
    return side, np.cross(along, side)


def _unit(vectors: Points) -> Points:
    return np.asarray(vectors / np.maximum(np.linalg.norm(vectors, axis=-1, keepdims=True), 1e-9))
