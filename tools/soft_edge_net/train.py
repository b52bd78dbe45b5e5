"""Train the network: ``python -m tools.soft_edge_net.train OUT.pt --data FILE.npy… --val FILE.npy
--minutes M [--start FILE.pt]``."""

import argparse
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import numpy as np
import torch
from numpy.random import Generator, default_rng
from numpy.typing import NDArray
from torch import Tensor
from torch.nn import functional

from lucky_margin.core.cut_out.soft_edges import DECIDED, WHERE
from tools.soft_edge_net.network import COLOURS, PLANES, SoftEdgeNetwork, coverage
from tools.subject_net.training import Training, asked, fastest

Bytes = NDArray[np.uint8]

SIDE, COUNT = 160, 16
"""Of a crop, and how many at once."""

BLOCK = 8
"""Coverage is to be true on average over squares of this side, too."""

FAINT, MOST_FAINT = (0.03, 0.4), 0.3
"""Crops with so much faint coverage far from all that was found lie in the blur of a strand right
before the lens, and teach nothing."""


class Crops:
    """What ``make_data`` kept."""

    def __init__(self, files: Sequence[Path]) -> None:
        self.files = [np.load(file, mmap_mode="r") for file in files]
        self.places = [
            (file, one)
            for file, crops in enumerate(self.files)
            for one in range(len(crops))
            if _faint(crops[one]) < MOST_FAINT
        ]

    def __len__(self) -> int:
        return len(self.places)

    def whole(self, number: int) -> Bytes:
        file, one = self.places[number]
        return np.asarray(self.files[file][one])

    def varied(self, number: int, rng: Generator) -> Bytes:
        """A part of a crop, turned, mirrored, with its colours exchanged."""
        crop = self.whole(number)
        top, left = rng.integers(0, crop.shape[0] - SIDE + 1, 2)
        crop = crop[top : top + SIDE, left : left + SIDE]
        if rng.random() < 0.5:
            way = rng.permutation(3)
            crop = crop[..., [*way, *(3 + way), *(6 + way), *range(COLOURS, PLANES + 1)]]
        crop = np.rot90(crop, rng.integers(4))
        return crop[:, ::-1] if rng.random() < 0.5 else crop


def _faint(crop: Bytes) -> float:
    truth, found = crop[..., PLANES] / 255, crop[..., DECIDED]
    return float(((truth > FAINT[0]) & (truth < FAINT[1]) & (found < 13)).mean())


def batch(crops: Sequence[Bytes]) -> tuple[Tensor, Tensor]:
    """What the network sees, and the true coverage."""
    stacked = np.stack([np.ascontiguousarray(crop.transpose(2, 0, 1)) for crop in crops])
    planes = torch.from_numpy(stacked).float() / 255
    seen, truth = planes[:, :PLANES], planes[:, PLANES:]
    return seen.contiguous(memory_format=torch.channels_last), truth


def lit(seen: Tensor, rng: Generator) -> Tensor:
    """With half of the photos lighter or darker."""
    changes = rng.random(len(seen)) < 0.5
    gain = np.where(changes, rng.uniform(0.75, 1.25, len(seen)), 1)
    lift = np.where(changes, rng.uniform(-0.08, 0.08, len(seen)), 0)
    gain, lift = (torch.from_numpy(by).float().reshape(-1, 1, 1, 1) for by in (gain, lift))
    seen[:, :COLOURS] = (seen[:, :COLOURS] * gain + lift).clamp(0, 1)
    return seen


def softened(network: SoftEdgeNetwork, seen: Tensor) -> Tensor:
    with fastest():
        logits = network(seen)
    found = coverage(logits.float().softmax(1), seen)
    where = seen[:, WHERE : WHERE + 1]
    return where * found + (1 - where) * seen[:, DECIDED : DECIDED + 1]


def difference(made: Tensor, truth: Tensor, where: Tensor) -> Tensor:
    return ((made - truth).abs() * where).sum() / (where.sum() + 1)


def loss_of(made: Tensor, truth: Tensor, seen: Tensor) -> Tensor:
    """Differences of coverage, of its gradients, and of its means over squares."""
    where = seen[:, WHERE : WHERE + 1]
    area = where.sum() + 1
    gradients = sum(
        ((made.diff(dim=dim) - truth.diff(dim=dim)).abs() * where.narrow(dim, 1, SIDE - 1)).sum()
        for dim in (2, 3)
    )
    off = functional.avg_pool2d((made - truth) * (where > 0), BLOCK).abs().sum() * BLOCK**2
    return difference(made, truth, where) + 0.5 * (gradients + off) / area


@torch.no_grad()
def validated(network: SoftEdgeNetwork, crops: Crops, most: int = 240) -> tuple[float, float]:
    """The mean difference where edges are soft, on crops that it was not trained on, and that of
    what was there before."""
    network.eval()
    results = []
    for start in range(0, min(most, len(crops)), COUNT):
        chosen = range(start, min(start + COUNT, len(crops)))
        seen, truth = batch([crops.whole(number) for number in chosen])
        where = seen[:, WHERE : WHERE + 1]
        before = seen[:, DECIDED : DECIDED + 1]
        answers = softened(network, seen), before
        results.append([difference(answer, truth, where).item() for answer in answers])
    network.train()
    after, before = np.mean(results, axis=0)
    return float(after), float(before)


def trained(options: argparse.Namespace) -> None:
    rng = default_rng(options.seed)
    crops, unseen = Crops(options.data), Crops([options.val])
    training = Training(SoftEdgeNetwork(), options)
    with ThreadPoolExecutor() as pool:
        while training.gone < 1:
            chosen, seeds = rng.integers(len(crops), size=COUNT), rng.integers(2**62, size=COUNT)
            varied = pool.map(
                lambda one, seed: crops.varied(int(one), default_rng(int(seed))), chosen, seeds
            )
            seen, truth = batch(list(varied))
            seen = lit(seen, rng)
            loss = loss_of(softened(training.network, seen), truth, seen)
            training.step(loss)
            if training.to_be_told():
                after, before = validated(training.mean, unseen)
                training.tell(f"loss {loss.item():.3f}, unseen {after:.4f} instead of {before:.4f}")
    training.keep()


if __name__ == "__main__":
    trained(asked(__doc__))
