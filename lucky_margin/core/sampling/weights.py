"""How much of each source pixel goes into each output pixel, along one axis."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray


@dataclass(frozen=True)
class AxisWeights:
    """For each output pixel: the first source pixel, and a weight for it and its followers.

    ``first`` has shape ``(n,)``, ``weights`` ``(n, taps)``; each row sums to 1.
    """

    first: NDArray[np.int64]
    weights: NDArray[np.float32]


def axis_weights(
    start: float, step: float, first_output: int, outputs: int, length: int
) -> AxisWeights:
    """Weights for ``outputs`` output pixels from number ``first_output`` on.

    Output pixel ``i`` covers the source from ``start + i * step`` to ``start + (i + 1) * step``,
    in source pixels of an axis ``length`` long; past its ends the last pixel goes on.

    A source pixel weighs what the output pixel covers of it.
    """
    index = np.arange(first_output, first_output + outputs, dtype=np.float64)
    first, weights = _area(start + index * step, step)
    return _inside(first, weights, length)


def _area(begin: NDArray[np.float64], step: float) -> tuple[NDArray[np.int64], NDArray[np.float64]]:
    first = np.floor(begin + 1e-9).astype(np.int64)
    taps = int(np.ceil(step)) + 1
    edges = first[:, None] + np.arange(taps)
    covered = np.minimum(edges + 1, begin[:, None] + step) - np.maximum(edges, begin[:, None])
    return first, np.maximum(covered, 0)


def _inside(first: NDArray[np.int64], weights: NDArray[np.float64], length: int) -> AxisWeights:
    """The same weights with every tap inside the axis: taps past an end go to its last pixel."""
    taps = weights.shape[1]
    if taps <= length:
        begin = np.clip(first, 0, length - taps)
        kept = np.zeros_like(weights)
    else:
        begin = np.zeros_like(first)
        kept = np.zeros((len(first), length))
    rows = np.arange(len(first))
    for tap in range(taps):
        target = np.clip(first + tap, 0, length - 1) - begin
        np.add.at(kept, (rows, target), weights[:, tap])
    kept /= kept.sum(axis=1, keepdims=True)
    return AxisWeights(first=begin, weights=np.ascontiguousarray(kept, dtype=np.float32))
