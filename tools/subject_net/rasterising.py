"""Draw triangles into a picture of what is nearest, and give that its colour: the loops of
``tools.subject_net.accumulated``."""

import numba
import numpy as np

NEAREST = np.float32(0.05)
"""Nothing nearer to the lens is seen."""

LIFTED = np.float32(0.01)
"""How far a place is lifted off its surface before its shadow is looked up: rather more than a
pixel of what a light sees."""

ONE, HALF, EIGHT, PI = (np.float32(value) for value in (1, 0.5, 8, np.pi))
TINY = np.float32(1e-9)

compiled = numba.njit(cache=True, fastmath=True, error_model="numpy")
within_loop = numba.njit(inline="always", fastmath=True, error_model="numpy")


@compiled
def projected(vertices, projection):
    """Column, row and nearness (larger is nearer) of each vertex, shape (vertices, 3); nearness is
    0 where it cannot be seen. ``projection``, shape (4, 4), gives the three times depth, and
    depth."""
    points = np.empty((len(vertices), 3), np.float32)
    for number in range(len(vertices)):
        x, y, z = vertices[number, 0], vertices[number, 1], vertices[number, 2]
        deep = _row(projection, 3, x, y, z)
        for axis in range(3):
            points[number, axis] = _row(projection, axis, x, y, z) / deep
        if deep < NEAREST:
            points[number, 2] = 0
    return points


@compiled
def rasterised(points, triangles, nearest, hit, shares):
    """Draws triangles: into ``nearest`` how near the nearest is in each pixel; and, where ``hit``
    is not empty, its number there, and how much of its second and third corner is in what is seen,
    corrected for perspective."""
    side, told = len(nearest), len(hit) > 0
    for number in range(len(triangles)):
        one, two, three = triangles[number]
        n1, n2, n3 = points[one, 2], points[two, 2], points[three, 2]
        if n1 <= 0 or n2 <= 0 or n3 <= 0:
            continue
        x1, y1 = points[one, 0] - HALF, points[one, 1] - HALF
        x2, y2 = points[two, 0] - HALF, points[two, 1] - HALF
        x3, y3 = points[three, 0] - HALF, points[three, 1] - HALF
        left, right = max(0, np.ceil(min(x1, x2, x3))), min(side - 1, np.floor(max(x1, x2, x3)))
        top, bottom = max(0, np.ceil(min(y1, y2, y3))), min(side - 1, np.floor(max(y1, y2, y3)))
        area = (x2 - x1) * (y3 - y1) - (x3 - x1) * (y2 - y1)
        if left > right or top > bottom or area == 0:
            continue
        for row in range(int(top), int(bottom) + 1):
            for column in range(int(left), int(right) + 1):
                x, y = np.float32(column) - x1, np.float32(row) - y1
                second = (x * (y3 - y1) - (x3 - x1) * y) / area
                third = ((x2 - x1) * y - x * (y2 - y1)) / area
                if second < 0 or third < 0 or second + third > 1:
                    continue
                near = n1 + second * (n2 - n1) + third * (n3 - n1)
                if near > nearest[row, column]:
                    nearest[row, column] = near
                    if told:
                        hit[row, column] = number
                        shares[row, column, 0] = second * n2 / near
                        shares[row, column, 1] = third * n3 / near


@compiled
def shaded(hit, shares, surfaces, lights, even, eye):
    """The light that comes from what is seen in each pixel, shape (rows, columns, 3): even
    reflection (J. H. Lambert, 1760) and gloss (J. F. Blinn, "Models of light reflection for
    computer synthesized pictures", 1977). ``even`` comes to every place from all sides."""
    vertices, normals, pattern, triangles, material, _, colours, sides, gloss = surfaces
    origins, aheads, strengths, projections, nearest = lights
    light = np.zeros((*hit.shape, 3), np.float32)
    for row in range(len(hit)):
        for column in range(len(hit)):
            number = hit[row, column]
            if number < 0:
                continue
            corners = triangles[number, 0], triangles[number, 1], triangles[number, 2]
            share = shares[row, column, 0], shares[row, column, 1]
            x, y, z = _within(vertices, corners, share)
            nx, ny, nz = _within(normals, corners, share)
            nx, ny, nz = _unit(nx, ny, nz)
            ex, ey, ez = _unit(eye[0] - x, eye[1] - y, eye[2] - z)
            if nx * ex + ny * ey + nz * ez < 0:
                nx, ny, nz = -nx, -ny, -nz
            kind = material[number]
            across, down, _ = _within(pattern, corners, share)
            own = _coloured(colours, sides, kind, across, down)
            reflected, power, metallic = gloss[kind, 0], gloss[kind, 1], gloss[kind, 2]
            for axis in range(3):
                light[row, column, axis] = even[axis] * own[axis]
            for one in range(len(origins)):
                lx, ly, lz, received = _falls(origins, aheads, one, x, y, z)
                received *= max(np.float32(0), nx * lx + ny * ly + nz * lz)
                if received == 0 or _is_shadowed(
                    projections[one],
                    nearest[one],
                    x + nx * LIFTED,
                    y + ny * LIFTED,
                    z + nz * LIFTED,
                ):
                    continue
                hx, hy, hz = _unit(lx + ex, ly + ey, lz + ez)
                facing = max(np.float32(0), nx * hx + ny * hy + nz * hz)
                shine = (power + EIGHT) / EIGHT * facing**power
                from_own = ONE - metallic + metallic * shine
                from_all = reflected * (ONE - metallic) * shine
                for axis in range(3):
                    back = own[axis] * from_own + from_all
                    light[row, column, axis] += back * received * strengths[one, axis] / PI
    return light


@within_loop
def _within(values, corners, share):
    """What corners have, mixed; of a pattern's places the third is a repetition."""
    one, two, three = corners
    second, third = share
    first, last = ONE - second - third, values.shape[1] - 1
    return (
        first * values[one, 0] + second * values[two, 0] + third * values[three, 0],
        first * values[one, 1] + second * values[two, 1] + third * values[three, 1],
        first * values[one, last] + second * values[two, last] + third * values[three, last],
    )


@within_loop
def _unit(x, y, z):
    length = np.sqrt(x * x + y * y + z * z) + TINY
    return x / length, y / length, z / length


@within_loop
def _coloured(colours, sides, kind, across, down):
    """A pattern's colour, between its four nearest; ``sides`` says where its colours begin, and its
    rows and columns."""
    begin, rows, columns = sides[kind, 0], sides[kind, 1], sides[kind, 2]
    column, row = across * np.float32(columns) - HALF, down * np.float32(rows) - HALF
    left, top = int(np.floor(column)), int(np.floor(row))
    right_share, low_share = column - np.float32(left), row - np.float32(top)
    left, right = left % columns, (left + 1) % columns
    high, low = begin + top % rows * columns, begin + (top + 1) % rows * columns
    one, two = (ONE - right_share) * (ONE - low_share), right_share * (ONE - low_share)
    three, four = (ONE - right_share) * low_share, right_share * low_share
    return (
        one * colours[high + left, 0] + two * colours[high + right, 0]
        + three * colours[low + left, 0] + four * colours[low + right, 0],
        one * colours[high + left, 1] + two * colours[high + right, 1]
        + three * colours[low + left, 1] + four * colours[low + right, 1],
        one * colours[high + left, 2] + two * colours[high + right, 2]
        + three * colours[low + left, 2] + four * colours[low + right, 2],
    )  # fmt: skip


@within_loop
def _falls(origins, aheads, one, x, y, z):
    """The direction to a light, and how much of it comes: of a lamp by its angle and distance; the
    sky, which looks nowhere, is in every place the same."""
    ahead_x, ahead_y, ahead_z = aheads[one, 0], aheads[one, 1], aheads[one, 2]
    to_x, to_y, to_z = origins[one, 0], origins[one, 1], origins[one, 2]
    received = ONE
    if ahead_x != 0 or ahead_y != 0 or ahead_z != 0:
        to_x, to_y, to_z = to_x - x, to_y - y, to_z - z
        squared = to_x * to_x + to_y * to_y + to_z * to_z
        to_x, to_y, to_z = _unit(to_x, to_y, to_z)
        facing = -(to_x * ahead_x + to_y * ahead_y + to_z * ahead_z)
        received = max(np.float32(0), facing) / squared
    return to_x, to_y, to_z, received


@within_loop
def _is_shadowed(projection, nearest, x, y, z):
    """Whether something lies between a place and a light."""
    side, shadowed = len(nearest), False
    deep = _row(projection, 3, x, y, z)
    column, row = _row(projection, 0, x, y, z) / deep, _row(projection, 1, x, y, z) / deep
    if deep > NEAREST and column >= 0 and row >= 0 and column < side and row < side:
        near = _row(projection, 2, x, y, z) / deep
        shadowed = near < nearest[int(row), int(column)]
    return shadowed


@within_loop
def _row(matrix, row, x, y, z):
    return matrix[row, 0] * x + matrix[row, 1] * y + matrix[row, 2] * z + matrix[row, 3]
