"""The functions that stand in for slow ones, against those, over all that pictures hold."""

import unittest

import numba
import numpy as np

from lucky_margin.core.sampling.srgb import encode
from lucky_margin.core.sampling.vector_maths import encode as encode_row
from lucky_margin.core.sampling.vector_maths import exp2, log2
from lucky_margin.core.tone.oklch import to_lab
from lucky_margin.core.tone.rows import angle, cube_root, into_gamut, look_up


def over(function, *rows):
    """A function of single numbers, for rows of them."""

    @numba.njit
    def loop(first, second):
        out = np.empty_like(first)
        for i in range(first.size):
            out[i] = function(first[i], second[i])
        return out

    @numba.njit
    def single(row):
        out = np.empty_like(row)
        for i in range(row.size):
            out[i] = function(row[i])
        return out

    return loop(*rows) if len(rows) == 2 else single(*rows)


class VectorMathsTest(unittest.TestCase):
    def test_logarithms_and_powers_of_two(self):
        x = np.concatenate([2.0 ** np.linspace(-40, 40, 4001), [1.0, 2.0, 0.5]])
        np.testing.assert_allclose(over(log2, x), np.log2(x), atol=1e-7)
        powers = np.linspace(-40, 40, 4001).astype(np.float32)
        np.testing.assert_allclose(over(exp2, powers), 2.0 ** powers.astype(np.float64), rtol=1e-6)

    def test_cube_roots_of_either_sign_and_of_nothing(self):
        x = np.concatenate([np.linspace(-3, 3, 5001), 10.0 ** np.linspace(-12, 4, 500), [0.0]])
        np.testing.assert_allclose(over(cube_root, x), np.cbrt(x), rtol=1e-6, atol=1e-9)

    def test_angles_all_round(self):
        turn = np.linspace(-np.pi, np.pi, 2001)[1:-1]
        for size in (1e-9, 1.0, 50.0):
            found = over(angle, size * np.sin(turn), size * np.cos(turn))
            np.testing.assert_allclose(found, turn, atol=1e-7)

    def test_encoding_is_the_standard_s_and_keeps_black_and_white(self):
        light = np.linspace(0, 1, 100_001)
        row = light.copy()
        encode_row(row)
        np.testing.assert_allclose(row, encode(light), atol=1e-6)
        self.assertEqual((row[0], row[-1]), (0.0, 1.0))
        outside = np.array([-1.0, 2.0])
        encode_row(outside)
        self.assertEqual(outside.tolist(), [0.0, 1.0])

    def test_what_becomes_of_a_number_does_not_depend_on_its_place_in_the_row(self):
        # A part of a picture has to be what it is in the whole, and a row's last, odd numbers are
        # worked on one by one.
        rows = np.random.default_rng(3).random((3, 1003)).astype(np.float32)
        for work in (lambda r, g, b: encode_row(r), into_gamut, to_lab):
            whole = rows.copy()
            work(*whole)
            for start in (1, 3, 7, 990):
                part = rows[:, start:].copy()
                work(*part)
                np.testing.assert_array_equal(part, whole[:, start:])

    def test_tables_are_read_between_their_entries_and_not_past_their_ends(self):
        table = np.array([0.0, 1.0, 4.0])
        places = np.array([0.0, 0.5, 1.0, 1.25, 2.0])
        look_up(table, places, places)
        np.testing.assert_allclose(places, [0, 0.5, 1, 1.75, 4])
