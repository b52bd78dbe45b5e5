"""Render a scene in seconds where path tracing takes a minute: many rasterised pictures are added
up, each seen from another point of the lens and of the pixel, lit from another point of a lamp and
of the sky (P. Haeberli and K. Akeley, "The accumulation buffer", 1990; shadows as in L. Williams,
"Casting curved shadows on curved surfaces", 1978).

Light that things throw on each other is left out, but for an even share of the sky's.
"""

from collections.abc import Sequence
from statistics import NormalDist
from typing import Any, NamedTuple

import numpy as np
from numpy.random import Generator
from numpy.typing import ArrayLike, NDArray

from tools.subject_net.meshes import Mesh, Points, box, plane, read
from tools.subject_net.rasterising import projected, rasterised, shaded

Floats = NDArray[np.float32]
Integers = NDArray[np.int32]
Scene = dict[str, Any]

PASSES = 28
"""Pictures that are added up."""

PIXEL = NormalDist(0, 0.5)
"""The bell with which a pixel sees, in pixels."""

SHADOW_SIDE, SHADOW_RADIUS = 768, 2.6
"""Of what a light sees, in pixels, and how far around ``MIDDLE`` that is, in the scene's units."""

MIDDLE = np.array([0, 0.6, 0.4])

FROM_THINGS = 0.35
"""Share of the sky's light that comes everywhere by way of other things."""

SUBJECT = "subject"
"""How the names of the subject's shapes begin."""


class Surfaces(NamedTuple):
    """All triangles of a scene: ``Mesh`` put together; of each its material, and whether it is the
    subject's; the colours of all patterns one after another; per material where its colours begin,
    its rows and columns, and its gloss: share that is reflected, exponent, and how metallic."""

    vertices: Floats
    normals: Floats
    pattern: Floats
    triangles: Integers
    material: Integers
    is_subject: NDArray[np.bool_]
    colours: Floats
    sides: Integers
    gloss: Floats


class Light(NamedTuple):
    """A point of a lamp, or a direction of the sky: where it is, where it looks (the sky: nowhere),
    how strong it is, what it sees as a projection, and how near the nearest is in each pixel."""

    origin: Floats
    ahead: Floats
    strength: Floats
    projection: Floats
    nearest: Floats


def rendered(scene: Scene, rng: Generator, passes: int = PASSES) -> tuple[Floats, Floats]:
    """A scene as ``render_scenes`` writes it, and its subject alone: linear, premultiplied, shape
    (rows, columns, 4)."""
    surfaces, sensor = _gathered(scene), scene["sensor"]
    side = sensor["film"]["width"]
    picture, alone = np.zeros((2, side, side, 4), np.float32)
    lamps = [shape for shape in scene.values() if _is_lamp(shape)]
    for number, (pixel, lens, sky, lamp) in enumerate(_spread(passes, 4, rng)):
        # Each lamp has its turn, and shines for all.
        turn = lamps[number % len(lamps)]
        lights = (
            _from_sky(scene["around"], sky, surfaces),
            _from_lamp(turn, len(lamps), lamp, surfaces),
        )
        projection, eye = _through_lens(sensor, pixel, lens)
        hit, shares = np.full((side, side), -1, np.int32), np.zeros((side, side, 2), np.float32)
        points = projected(surfaces.vertices, projection)
        nearest = np.zeros((side, side), np.float32)
        rasterised(points, surfaces.triangles, nearest, hit, shares)
        even = lights[0].strength * np.float32(FROM_THINGS / (2 * np.pi))
        stacked = Light(*map(np.stack, zip(*lights, strict=True)))
        light = shaded(hit, shares, surfaces, stacked, even, eye)
        seen = np.dstack([light, hit >= 0])
        picture += seen
        alone += seen * (surfaces.is_subject[hit] & (hit >= 0))[:, :, None]
    return picture / passes, alone / passes


def _gathered(scene: Scene) -> Surfaces:
    """What a scene's shapes consist of."""
    meshes, belongs, materials = [], [], {}
    for name, shape in scene.items():
        if isinstance(shape, dict) and "bsdf" in shape:
            meshes.append(_mesh(shape))
            surface = shape["bsdf"]["surface"]
            kind, _ = materials.setdefault(id(surface), (len(materials), surface))
            belongs += [(kind, name.startswith(SUBJECT))] * len(meshes[-1].triangles)
    begin, patterns, sides, gloss = 0, [], [], []
    for _, surface in materials.values():
        pattern = np.array(surface["base_color"]["bitmap"], np.float32)
        patterns.append(pattern.reshape(-1, 3))
        sides.append((begin, *pattern.shape[:2]))
        begin += len(patterns[-1])
        # B. Walter et al., "Microfacet models for refraction through rough surfaces", 2007: the
        # exponent that is as wide as a roughness; 8 % is what "specular" of 1 stands for.
        exponent = np.clip(2 / surface["roughness"] ** 4 - 2, 1, 4000)
        gloss.append((0.08 * surface["specular"], exponent, surface["metallic"]))
    mesh, kinds = Mesh.together(meshes), np.array(belongs, np.int32)
    return Surfaces(
        mesh.vertices, mesh.normals, mesh.pattern, mesh.triangles, kinds[:, 0], kinds[:, 1] > 0,
        np.concatenate(patterns), np.array(sides, np.int32), np.array(gloss, np.float32),
    )  # fmt: skip


def _mesh(shape: Scene) -> Mesh:
    makers = {"ply": lambda: read(shape["filename"]), "cube": box, "rectangle": plane}
    mesh = makers[shape["type"]]()
    return mesh.moved(np.array(shape["to_world"].matrix)) if "to_world" in shape else mesh


def _is_lamp(shape: Any) -> bool:
    return isinstance(shape, dict) and "emitter" in shape


def _spread(count: int, pairs: int, rng: Generator) -> Points:
    """Pairs of numbers 0..1, each kind spread evenly over the square and each number over its line,
    shape (count, pairs, 2): an additive recurrence by the plastic ratio (H. Niederreiter, "Random
    number generation and quasi-Monte Carlo methods", 1992), from its values to their ranks."""
    ratio = 1.32471795724474602596
    steps = np.arange(count)[:, None] * [1 / ratio, 1 / ratio**2]
    drawn = np.stack([rng.permutation((rng.random(2) + steps) % 1) for _ in range(pairs)], 1)
    return np.asarray((drawn.argsort(0).argsort(0) + 0.5) / count)


def _through_lens(sensor: Scene, pixel: Points, lens: Points) -> tuple[Floats, Floats]:
    """What is seen through one point of the lens and of each pixel, as a projection, and where that
    point is."""
    side, sharp = sensor["film"]["width"], sensor["focus_distance"]
    scale = side / 2 / np.tan(np.radians(sensor["fov"]) / 2)
    right, down = side / 2 + np.array([PIXEL.inv_cdf(at) for at in pixel])
    radius, angle = sensor["aperture_radius"] * np.sqrt(lens[0]), 2 * np.pi * lens[1]
    x, y = radius * np.cos(angle), radius * np.sin(angle)
    # What lies at the distance that is sharp stays in its place.
    from_camera = [
        [scale, 0, right + scale * x / sharp, -scale * x],
        [0, -scale, down - scale * y / sharp, scale * y],
        [0, 0, 0, 1],
        [0, 0, 1, 0],
    ]
    to_world = np.array(sensor["to_world"].matrix, float)
    return _single(from_camera @ np.linalg.inv(to_world)), _single(to_world[:3] @ [x, y, 0, 1])


def _from_lamp(lamp: Scene, among: int, at: Points, surfaces: Surfaces) -> Light:
    to_world = np.array(lamp["to_world"].matrix, float)
    origin, across, ahead = to_world[:3] @ [*(2 * at - 1), 0, 1], to_world[:3, 0], to_world[:3, 2]
    strength = among * 4 * (across @ across) * np.array(lamp["emitter"]["radiance"]["value"])
    far, middle = np.linalg.norm(MIDDLE - origin), SHADOW_SIDE / 2
    right, up, forward = _looking(MIDDLE - origin)
    scale = middle * far / SHADOW_RADIUS
    rows = scale * right + middle * forward, scale * up + middle * forward, 0 * up, forward
    projection = _seen_from(origin, rows, [0, 0, 1, 0])
    return _light(origin, ahead / np.linalg.norm(ahead), strength, projection, surfaces)


def _from_sky(around: Scene, at: Points, surfaces: Surfaces) -> Light:
    """One direction of its upper half, for all of that."""
    high, angle = at[0], 2 * np.pi * at[1]
    flat = np.sqrt(1 - high**2)
    way = np.array([flat * np.cos(angle), flat * np.sin(angle), high])
    right, up, forward = _looking(-way)
    middle = SHADOW_SIDE / 2
    scale, beyond = middle / SHADOW_RADIUS, 20
    rows = scale * right, scale * up, -forward, 0 * up
    projection = _seen_from(MIDDLE, rows, [middle, middle, beyond, 1])
    strength = 2 * np.pi * np.array(around["radiance"]["value"])
    return _light(way, np.zeros(3), strength, projection, surfaces)


def _light(origin: Points, ahead: Points, strength: Points, projection: Floats,
           surfaces: Surfaces) -> Light:  # fmt: skip
    nearest = np.zeros((SHADOW_SIDE, SHADOW_SIDE), np.float32)
    points = projected(surfaces.vertices, projection)
    nothing = np.zeros((0, 0), np.int32), np.zeros((0, 0, 2), np.float32)
    rasterised(points, surfaces.triangles, nearest, *nothing)
    return Light(_single(origin), _single(ahead), _single(strength), projection, nearest)


def _seen_from(origin: Points, rows: Sequence[Points], offset: ArrayLike) -> Floats:
    """A projection: ``rows`` of what is seen relative to ``origin``, and what is added to each."""
    turned = np.array(rows)
    return _single(np.column_stack([turned, offset - turned @ origin]))


def _looking(forward: Points) -> Sequence[Points]:
    """Right, up and forward, of unit length."""
    forward = forward / np.linalg.norm(forward)
    right = np.cross(forward, [0.1, 0.2, 1])
    right /= np.linalg.norm(right)
    return right, np.cross(right, forward), forward


def _single(values: ArrayLike) -> Floats:
    return np.asarray(values, np.float32)
