"""Coverage smoothed along a photo's edges."""

import unittest

import numpy as np

from lucky_margin.core.cut_out import guided_filter
from lucky_margin.core.cut_out.guided_filter import PIECE, REACH, SMOOTHNESS, STRIP, guided

SIDES = ((1, 1), (3, 9), (2 * STRIP + 5, 17), (4, PIECE + 30), (23, 40))


def window(values, y, x, radius):
    """What lies in the window around a pixel, a row each."""
    part = values[max(0, y - radius) : y + radius + 1, max(0, x - radius) : x + radius + 1]
    return part.reshape(-1, values.shape[2])


def as_published(photo, alpha, radius):
    """The filter window by window, in doubles."""
    rows, columns = alpha.shape
    both = np.dstack([photo, alpha]).astype(float)
    fitted, out = np.empty((rows, columns, 4)), np.empty((rows, columns))
    for y, x in np.ndindex(rows, columns):
        seen = window(both, y, x, radius)
        mean = seen.mean(axis=0)
        spread = (seen - mean).T @ (seen - mean) / len(seen)
        takes = np.linalg.solve(spread[:3, :3] + SMOOTHNESS * np.eye(3), spread[:3, 3])
        fitted[y, x] = [*takes, mean[3] - takes @ mean[:3]]
    for y, x in np.ndindex(rows, columns):
        takes = window(fitted, y, x, radius).mean(axis=0)
        out[y, x] = takes[:3] @ both[y, x, :3] + takes[3]
    return out.clip(0, 1)


def drawn(rows, columns, seed=3):
    """A photo of noise and a hard mask, which a third of its colours go by."""
    rng = np.random.default_rng(seed)
    alpha = (rng.random((rows, columns)) > 0.5).astype(np.float32)
    photo = 0.7 * rng.random((rows, columns, 3)) + 0.3 * alpha[..., None]
    return photo.astype(np.float32), alpha


class GuidedTest(unittest.TestCase):
    def test_it_is_the_published_filter_whatever_the_sides(self):
        for rows, columns in SIDES:
            photo, alpha = drawn(rows, columns)
            for radius in (1, 4):
                with self.subTest(rows=rows, columns=columns, radius=radius):
                    found = guided(photo, alpha, radius)
                    self.assertEqual(found.dtype, np.float32)
                    wanted = as_published(photo, alpha, radius)
                    np.testing.assert_allclose(found, wanted, atol=5e-6)

    def test_a_part_with_its_surroundings_is_what_it_is_in_the_whole(self):
        photo, alpha = drawn(90, 300)
        whole, around = guided(photo, alpha, 3), REACH * 3
        part = np.s_[40 - around : 70 + around, 100 - around : 260 + around]
        found = guided(photo[part], alpha[part], 3)[around:-around, around:-around]
        np.testing.assert_allclose(found, whole[40:70, 100:260], atol=2e-6)

    def test_nothing_is_smoothed_across_an_edge_and_all_is_where_there_is_none(self):
        alpha = np.zeros((30, 30), np.float32)
        alpha[:, 15:] = 1
        grey = np.full((30, 30, 3), 0.5, np.float32)
        with_edge = grey.copy()
        with_edge[:, 15:] = (1.0, 0.0, 0.9)
        np.testing.assert_allclose(guided(with_edge, alpha, 4), alpha, atol=0.05)
        self.assertAlmostEqual(float(guided(grey, alpha, 4)[15, 14]), 0.44, delta=0.02)

    def test_it_is_compiled_for_one_kind_of_arrays(self):
        photo, alpha = drawn(20, 30)
        fixed = photo.copy()
        fixed.flags.writeable = False
        for seen, share, radius in ((photo, alpha, 2), (fixed, alpha[::-1], np.int32(3))):
            guided(seen, share, radius)
        for loop in (guided_filter._fit, guided_filter._apply):
            self.assertEqual(len(loop.signatures), 1, loop.signatures)
