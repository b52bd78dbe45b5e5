"""Backdrops of plaster, stone, sand, glaze and tiles."""

import cv2
import numpy as np
import skia

from lucky_margin.core.document.values import BackdropKey
from lucky_margin.core.grounds.stock.means import (
    Draw,
    Floats,
    Random,
    between,
    covered,
    flat,
    inked,
    noise,
    places,
    smooth,
)


def plaster(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A rendered wall, lit from the side."""
    height = noise(rows, columns, random, 60) + 0.5 * noise(rows, columns, random, 14)
    height += 0.16 * noise(rows, columns, random, 2)
    lit = cv2.Sobel(height[:, :, 0], cv2.CV_32F, 1, 1, ksize=3)[:, :, None]
    plain = flat(rows, columns, colours[0])
    return np.asarray(plain + 4 * height + np.clip(26 * lit, -9, 9), np.float32)


def limewash(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Two shades in broad strokes of a brush."""
    cloud = 0.5 + 0.22 * noise(rows, columns, random, 70, 110)
    cloud += 0.1 * noise(rows, columns, random, 8, 60) + 0.08 * noise(rows, columns, random, 60, 8)
    return between(colours, smooth(cloud)) + 1.6 * noise(rows, columns, random, 1)


def stone(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Soft clouds of the second colour, and fine veins of the third."""
    cloud = 0.35 + 0.25 * noise(rows, columns, random, 110) + 0.1 * noise(rows, columns, random, 25)
    paths = noise(rows, columns, random, 170) + 0.2 * noise(rows, columns, random, 45)
    veins = np.exp(-((paths / 0.035) ** 2)) * smooth(0.5 + 0.5 * noise(rows, columns, random, 150))
    base = between(colours, smooth(cloud))
    return np.asarray(base + 0.5 * veins * (colours[2] - base), np.float32)


def sand(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Grains in ripples."""
    down = np.mgrid[:rows, :columns][0].astype(np.float32)[:, :, None]
    bent = down + 26 * noise(rows, columns, random, 120, 200)
    ripples = 5 * np.sin(2 * np.pi * bent / 58)
    grains = 7 * noise(rows, columns, random, 0.7)
    return np.asarray(flat(rows, columns, colours[0]) + ripples + grains, np.float32)


def speckle(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A glaze with spots of the second colour."""
    spots = np.zeros((rows, columns), np.uint8)
    for _ in range(int(rows * columns / 2600)):
        x, y = int(random.randint(0, columns * 16)), int(random.randint(0, rows * 16))
        radius = int(16 * (0.6 + 3.2 * random.random_sample() ** 4))
        shade = int(random.randint(110, 235))
        cv2.circle(spots, (x, y), radius, shade, -1, cv2.LINE_AA, 4)
    soft = np.asarray(cv2.GaussianBlur(spots, (0, 0), 0.7), np.float32)
    share = soft[:, :, None] / np.float32(255)
    return between(colours, share) + 2 * noise(rows, columns, random, 40)


def concrete(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Cast concrete: clouds of the second colour, small holes, one joint of the formwork."""
    cloud = 0.4 + 0.2 * noise(rows, columns, random, 150) + 0.12 * noise(rows, columns, random, 20)
    base = between(colours, smooth(cloud)) + 2.6 * noise(rows, columns, random, 1.2)
    holes = skia.Path()
    for _ in range(rows * columns // 15000):
        radius = 0.8 + 3.4 * random.random_sample() ** 4
        holes.addCircle(random.uniform(0, columns), random.uniform(0, rows), radius)
    holed = inked(base, 0.55 * colours[1], 0.75 * covered(rows, columns, holes))
    _, along = places(rows, columns)
    joint = np.exp(-(((along - 0.72 * columns) / 2.2) ** 2))
    return np.asarray(holed - 16 * joint, np.float32)


def terrazzo(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Chips of the second and third colour, and some between, in a ground of the first."""
    base = flat(rows, columns, colours[0]) + 1.2 * noise(rows, columns, random, 2)
    chips = [skia.Path() for _ in range(3)]
    for number in range(rows * columns // 3600):
        x, y = random.uniform(0, columns), random.uniform(0, rows)
        size = 7 + 44 * random.random_sample() ** 3
        corners = np.sort(random.uniform(0, 2 * np.pi, int(random.randint(4, 8))))
        reach = size * random.uniform(0.6, 1.1, corners.size)
        points = [
            skia.Point(float(x + r * np.cos(turn)), float(y + r * np.sin(turn)))
            for turn, r in zip(corners, reach, strict=True)
        ]
        chips[number % 3].addPoly(points, True)
    inks = (colours[1], colours[2], (colours[1] + colours[2] + colours[0]) / 3)
    for ink, form in zip(inks, chips, strict=True):
        base = inked(base, ink, covered(rows, columns, form))
    return base


def slate(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Split stone: thin layers that end in small steps."""
    layers = noise(rows, columns, random, 110, 260) + 0.3 * noise(rows, columns, random, 26, 60)
    split = 2.6 * layers + 0.08 * noise(rows, columns, random, 4)
    step = split - np.floor(split)
    ledge = np.exp(-step * 9) - 0.6 * np.exp(-(1 - step) * 22)
    grain = 2.6 * noise(rows, columns, random, 1) + 3 * noise(rows, columns, random, 60)
    sheen = between(colours, smooth(0.4 + 0.25 * noise(rows, columns, random, 190)))
    return np.asarray(sheen + 17 * ledge + grain, np.float32)


def tiles(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """Glazed squares, each a little different, with joints of the second colour."""
    side, joint = 150.0, 5.0
    down, along = places(rows, columns)
    within = [np.minimum(at % side, side - at % side) for at in (down, along)]
    inside = smooth((np.minimum(*within) - joint / 2) / 2)
    numbers = (np.floor(down / side) * 37 + np.floor(along / side) * 101).astype(int) % 997
    shades = random.uniform(-7, 7, 997).astype(np.float32)[numbers]
    bulge = smooth((np.minimum(*within) - joint / 2) / 16) - 1
    shine = 5 * np.exp(-(((down % side + along % side) / side - 0.55) ** 2) / 0.03)
    glaze = flat(rows, columns, colours[0]) + shades + 14 * bulge + shine
    glaze += 2 * noise(rows, columns, random, 40)
    grout = flat(rows, columns, colours[1]) + 4 * noise(rows, columns, random, 1.5)
    return np.asarray(grout + (glaze - grout) * inside, np.float32)


def brick(rows: int, columns: int, colours: Floats, random: Random) -> Floats:
    """A painted wall of bricks, half a brick off in every other row."""
    wide, high, joint = 200.0, 66.0, 7.0
    down, along = places(rows, columns)
    wobble = 1.4 * noise(rows, columns, random, 9)
    row = np.floor(down / high)
    shifted = along + (row % 2) * wide / 2
    within = np.minimum(
        np.minimum(down % high, high - down % high),
        np.minimum(shifted % wide, wide - shifted % wide),
    )
    raised = smooth((within + wobble - joint / 2) / 5)
    numbers = (row * 53 + np.floor(shifted / wide) * 17).astype(int) % 499
    shades = random.uniform(-6, 6, 499).astype(np.float32)[numbers]
    lit = cv2.Sobel(np.asarray(raised[:, :, 0], np.float32), cv2.CV_32F, 0, 1, ksize=5)
    face = shades + 2.6 * noise(rows, columns, random, 3) + 3 * noise(rows, columns, random, 26)
    wall = flat(rows, columns, colours[0]) + face * raised - 20 * (1 - raised)
    return np.asarray(wall + np.clip(lit[:, :, None], -12, 12), np.float32)


WALLS: dict[BackdropKey, Draw] = {
    "plaster": plaster,
    "limewash": limewash,
    "stone": stone,
    "sand": sand,
    "speckle": speckle,
    "concrete": concrete,
    "terrazzo": terrazzo,
    "slate": slate,
    "tiles": tiles,
    "brick": brick,
}
