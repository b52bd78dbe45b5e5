"""Train the network: ``python -m tools.subject_net.train OUT.pt --data FOLDER… --val FOLDER
--minutes M [--start FILE.pt]``.

The sides of the pictures follow the clock, small ones first, as the learning rate does.
"""

import argparse
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import numpy as np
import torch
from numpy.random import Generator, default_rng
from torch import Tensor
from torch.nn import functional

from tools.subject_net.conditions import Bytes, box_of, example, strokes
from tools.subject_net.network import SIDE, SubjectNetwork
from tools.subject_net.training import Training, asked, fastest

STAGES = ((0.35, 192, 24), (0.8, 256, 16), (1.0, SIDE, 12))
"""Until what share of the time, at what side, how many pictures at once. Weights that were trained
before start at the second."""

FED_BACK, MENDED = 0.3, 0.6
"""Share of the steps in which the network is shown its own answer as the earlier mask, and of the
examples there that come with strokes on what is wrong in it."""

PARTLY = (0.02, 0.98)
"""Coverage between these is that of an edge, or of hair."""

CLOSE_BY = 5
"""Over so many pixels of the answer, a square's side, is counted how much is covered in part."""


class Pictures:
    """Made photos and their alpha, as ``make_data`` keeps them."""

    def __init__(self, folders: Sequence[Path]) -> None:
        self.photos = [np.load(folder / "rgb.npy", mmap_mode="r") for folder in folders]
        self.alphas = [np.load(folder / "alpha.npy", mmap_mode="r") for folder in folders]
        self.places = [
            (folder, one)
            for folder, alphas in enumerate(self.alphas)
            for one in range(len(alphas))
            if alphas[one, ::8, ::8].max() > 100
        ]

    def __len__(self) -> int:
        return len(self.places)

    def __getitem__(self, number: int) -> tuple[Bytes, Bytes]:
        folder, one = self.places[number]
        return np.asarray(self.photos[folder][one]), np.asarray(self.alphas[folder][one])


def loss_of(answers: Sequence[Tensor], alpha: Tensor, shown: Tensor) -> Tensor:
    """Cross entropy and difference, both heavier along the outline; difference of gradients;
    overlap of areas; disobeyed strokes; cross entropy of the coarse answers, and of how much is
    covered in part."""
    both_logits, at8, at16 = (answer.float() for answer in answers)
    logits, partly = both_logits[:, :1], both_logits[:, 1:]
    truth = functional.avg_pool2d(alpha, 2)
    share = torch.sigmoid(logits)
    near = functional.avg_pool2d(truth, 5, 1, 2, count_include_pad=False)
    weight = 1 + 12 * near * (1 - near)
    entropy = functional.binary_cross_entropy_with_logits(logits, truth, weight=0.5 + 0.5 * weight)
    difference = ((share - truth).abs() * weight).mean()
    gradients = sum((share.diff(dim=dim) - truth.diff(dim=dim)).abs().mean() for dim in (2, 3))
    both = (share * truth).sum((1, 2, 3))
    either = (share + truth).sum((1, 2, 3)) - both
    overlap = (1 - (both + 1) / (either + 1)).mean()
    strokes = functional.avg_pool2d(shown[:, 4:6], 2).sum(1, keepdim=True)
    disobeyed = ((share - truth).abs() * strokes).sum() / (strokes.sum() + 50)
    coarse = sum(
        functional.binary_cross_entropy_with_logits(
            answer, functional.adaptive_avg_pool2d(truth, answer.shape[-2:])
        )
        for answer in (at8, at16)
    )
    parts = functional.avg_pool2d(((alpha > PARTLY[0]) & (alpha < PARTLY[1])).float(), 2)
    parts = functional.avg_pool2d(parts, CLOSE_BY, 1, CLOSE_BY // 2, count_include_pad=False)
    coarse = coarse + functional.binary_cross_entropy_with_logits(partly, parts)
    return entropy + difference + 2 * gradients + 0.5 * overlap + 0.3 * disobeyed + 0.3 * coarse


def answered(network: SubjectNetwork, shown: Tensor) -> Tensor | tuple[Tensor, Tensor, Tensor]:
    with fastest():
        return network(shown)


@torch.no_grad()
def validated(network: SubjectNetwork, pictures: Pictures, count: int = 160) -> tuple[float, float]:
    """The mean difference and the mean overlap on pictures that it was not trained on, with a box
    alone."""
    network.eval()
    differences, overlaps = [], []
    for number in range(min(count, len(pictures))):
        photo, alpha = pictures[number]
        left, top, right, bottom = box_of(alpha, default_rng(number))
        shown = np.zeros((1, 7, SIDE, SIDE), np.float32)
        shown[0, :3] = photo.transpose(2, 0, 1) / np.float32(255)
        shown[0, 3, top:bottom, left:right] = 1
        share = torch.sigmoid(answered(network, torch.from_numpy(shown)).float())[0, 0].numpy()
        truth = alpha / 255
        differences.append(np.abs(share - truth).mean())
        both, either = (share > 0.5) & (truth > 0.5), (share > 0.5) | (truth > 0.5)
        overlaps.append(both.sum() / max(1, either.sum()))
    network.train()
    return float(np.mean(differences)), float(np.mean(overlaps))


def batch(
    pictures: Pictures, side: int, count: int, rng: Generator, pool: ThreadPoolExecutor
) -> tuple[Tensor, Tensor]:
    chosen = rng.integers(len(pictures), size=count)
    seeds = rng.integers(2**62, size=count)
    made = list(
        pool.map(
            lambda one, seed: example(*pictures[int(one)], side, default_rng(int(seed))),
            chosen,
            seeds,
        )
    )
    shown, alpha = (torch.from_numpy(np.stack(planes)) for planes in zip(*made, strict=True))
    return shown.contiguous(memory_format=torch.channels_last), alpha


@torch.no_grad()
def own_answer(network: SubjectNetwork, shown: Tensor) -> Tensor:
    network.eval()
    answer = (answered(network, shown)[:, :1] > 0).float()
    network.train()
    return answer


def feed_back(answer: Tensor, shown: Tensor, alpha: Tensor, rng: Generator) -> None:
    """Show an ``answer`` (N x 1 x rows x columns, 0 and 1) as the earlier mask, mostly with strokes
    on what is wrong in it."""
    shown[:, 6:7] = answer
    for one, mask, truth in zip(shown, answer.numpy(), alpha.numpy(), strict=True):
        if rng.random() < MENDED:
            as_bytes = np.rint(255 * truth[0]).astype(np.uint8)
            mends = strokes(as_bytes, mask[0].astype(np.uint8), rng)
            one[4:6] = torch.from_numpy(np.stack(mends).astype(np.float32))


def trained(options: argparse.Namespace) -> None:
    rng = default_rng(options.seed)
    pictures, unseen = Pictures(options.data), Pictures([options.val])
    training = Training(SubjectNetwork(), options)
    stages = STAGES[1:] if options.start else STAGES
    # Examples are made between the steps: beside them they would stall the network's own threads.
    with ThreadPoolExecutor() as pool:
        while training.gone < 1:
            side, count = next(
                (side, count) for until, side, count in stages if training.gone < until
            )
            shown, alpha = batch(pictures, side, count, rng, pool)
            if rng.random() < FED_BACK:
                feed_back(own_answer(training.mean, shown), shown, alpha, rng)
            loss = loss_of(answered(training.network, shown), alpha, shown)
            training.step(loss)
            if training.to_be_told():
                difference, overlap = validated(training.mean, unseen)
                training.tell(
                    f"side {side}: loss {loss.item():.3f}, unseen pictures {difference:.4f}, "
                    f"overlap {overlap:.3f}"
                )
    training.keep()


if __name__ == "__main__":
    trained(asked(__doc__))
