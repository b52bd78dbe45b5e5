"""The network that decides how much of a pixel is covered in hair, fur and grass.

In: N x 14 x rows x columns, multiples of 8: the photo, the subject's colours and the background's
(encoded sRGB 0..1), coverage as it was decided, as a mixture of the two colours, and smoothed; how
far the pixel is to be softened; how sure the mixture is. Out: N x 5 x rows x columns, logits: which
of the three answers holds, or nothing, or all.

It chooses between answers instead of making one, so little training goes a long way. A U of
convolutions that calculates at half the size.
"""

import torch
from torch import Tensor, nn
from torch.nn import functional

from lucky_margin.core.cut_out.soft_edges import DECIDED, MIXED, SMOOTHED, SURE
from tools.subject_net.network import convolution, doubled

PLANES, COLOURS, ANSWERS = SURE + 1, DECIDED, 5
"""What comes in, how much of that are colours, and what comes out."""

WIDTHS = (24, 40, 64)
"""Channels at a half, a quarter and an eighth of the side."""

FIRST_GUESS = (1.0, 1.0, 0.0, -2.0, -2.0)
"""Logits before anything is learned."""


class SoftEdgeNetwork(nn.Module):
    def __init__(self) -> None:
        super().__init__()
        half, quarter, eighth = WIDTHS
        self.s2 = nn.Sequential(convolution(4 * PLANES, half), convolution(half, half))
        self.s4 = nn.Sequential(convolution(half, quarter, stride=2), convolution(quarter, quarter))
        self.s8 = nn.Sequential(
            convolution(quarter, eighth, stride=2), convolution(eighth, eighth, dilation=2),
            convolution(eighth, eighth, dilation=4),
        )  # fmt: skip
        self.u4, self.d4 = nn.Conv2d(eighth, quarter, 1), convolution(quarter, quarter)
        self.u2, self.d2 = nn.Conv2d(quarter, half, 1), convolution(half, half)
        self.out = nn.Conv2d(half, 4 * ANSWERS, 3, 1, 1)
        nn.init.zeros_(self.out.weight)
        self.out.bias.data = torch.tensor(FIRST_GUESS).repeat_interleave(4)
        scale = torch.tensor([4.0] * COLOURS + [2.0] * (PLANES - COLOURS))
        self.register_buffer("scale", scale.repeat_interleave(4).reshape(1, -1, 1, 1))

    def forward(self, x: Tensor) -> Tensor:
        return functional.pixel_shuffle(self.fours(functional.pixel_unshuffle(x, 2)), 2)

    def fours(self, x: Tensor) -> Tensor:
        """The same with four neighbours as channels, coming in and going out."""
        at2 = self.s2((x - 0.5) * self.scale)
        at4 = self.s4(at2)
        at4 = self.d4(at4 + doubled(self.u4(self.s8(at4))))
        return self.out(self.d2(at2 + doubled(self.u2(at4))))


def coverage(shares: Tensor, planes: Tensor) -> Tensor:
    """What the answers come to, each by its share, N x 1 x rows x columns."""
    answers = (DECIDED, MIXED, SMOOTHED)
    known = sum(shares[:, k : k + 1] * planes[:, at : at + 1] for k, at in enumerate(answers))
    return known + shares[:, -1:]
