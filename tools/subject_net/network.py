"""The network that guesses which part of a box is its subject.

In: N x 7 x 320 x 320, red, green, blue (encoded sRGB 0..1), the box (1 inside), strokes that keep,
strokes that leave out, an earlier mask. Out: N x 2 x 320 x 320, logits: of coverage, and of the
share of pixels close by that are covered in part, which is large in hair, fur and grass.

A U of dense convolutions, which processors with matrix units train fast, and in its middle
attention of all places to all others (A. Vaswani et al., "Attention is all you need", 2017): what
looks like the ground far away is ground. It answers at half size; what is finer is decided from the
photo itself.
"""

import torch
from torch import Tensor, nn
from torch.nn import functional

SIDE = 320
WIDTHS = (24, 48, 96, 128, 160)
"""Channels at a half, a quarter, an eighth, a sixteenth and a thirty-second of the side."""


def convolution(
    channels: int, out: int, side: int = 3, *, stride: int = 1, groups: int = 1, dilation: int = 1,
    active: bool = True,
) -> nn.Sequential:  # fmt: skip
    layers: list[nn.Module] = [
        nn.Conv2d(channels, out, side, stride, side // 2 * dilation, dilation, groups, bias=False),
        nn.BatchNorm2d(out),
    ]
    if active:
        layers.append(nn.ReLU(inplace=True))
    return nn.Sequential(*layers)


class Residual(nn.Module):
    """Two convolutions, and what came in (K. He et al., "Deep residual learning", 2016)."""

    def __init__(self, channels: int, dilation: int = 1) -> None:
        super().__init__()
        self.f = nn.Sequential(
            convolution(channels, channels, dilation=dilation),
            convolution(channels, channels, active=False),
        )

    def forward(self, x: Tensor) -> Tensor:
        return functional.relu(x + self.f(x))


class Inverted(nn.Module):
    """Each channel by itself, between a widening and a narrowing (M. Sandler et al.,
    "MobileNetV2", 2018)."""

    def __init__(
        self, channels: int, out: int, side: int = 5, *, stride: int = 1, dilation: int = 1
    ) -> None:
        super().__init__()
        self.adds = stride == 1 and channels == out
        wide = 3 * channels
        self.f = nn.Sequential(
            convolution(channels, wide, 1),
            convolution(wide, wide, side, stride=stride, groups=wide, dilation=dilation),
            convolution(wide, out, 1, active=False),
        )

    def forward(self, x: Tensor) -> Tensor:
        return x + self.f(x) if self.adds else self.f(x)


class WholeFrame(nn.Module):
    """The mean over the frame, told to every place."""

    def __init__(self, channels: int) -> None:
        super().__init__()
        self.a = nn.Conv2d(channels, channels, 1)
        self.b = nn.Conv2d(channels, channels, 1)

    def forward(self, x: Tensor) -> Tensor:
        mean = functional.relu(functional.adaptive_avg_pool2d(x, 1))
        return x * torch.sigmoid(self.b(mean)) + self.a(mean)


class Attention(nn.Module):
    """Attention over all places of the frame, then a small perceptron."""

    def __init__(self, channels: int, heads: int = 4) -> None:
        super().__init__()
        self.heads = heads
        self.n = nn.BatchNorm2d(channels)
        self.q = nn.Conv2d(channels, 3 * channels, 1)
        self.p = convolution(channels, channels, 1, active=False)
        self.m = nn.Sequential(
            convolution(channels, 2 * channels, 1),
            convolution(2 * channels, channels, 1, active=False),
        )

    def forward(self, x: Tensor) -> Tensor:
        count, channels, rows, columns = x.shape
        parted = self.q(self.n(x)).reshape(count, 3, self.heads, -1, rows * columns)
        asks, answers, values = (part.transpose(2, 3) for part in parted.unbind(1))
        heard = functional.scaled_dot_product_attention(asks, answers, values).transpose(2, 3)
        x = x + self.p(heard.reshape(count, channels, rows, columns))
        return x + self.m(x)


class SubjectNetwork(nn.Module):
    """In training it answers at half the size, with two coarse answers besides."""

    def __init__(self) -> None:
        super().__init__()
        half, quarter, eighth, sixteenth, least = WIDTHS
        self.s2 = convolution(7, half, stride=2)
        self.s4 = nn.Sequential(convolution(half, quarter, stride=2), Residual(quarter))
        self.s8 = nn.Sequential(
            convolution(quarter, eighth, stride=2), Residual(eighth), Residual(eighth)
        )
        self.s16 = nn.Sequential(
            convolution(eighth, sixteenth, stride=2), Residual(sixteenth), Residual(sixteenth, 2)
        )
        self.pos = nn.Parameter(torch.zeros(1, sixteenth, SIDE // 16, SIDE // 16))
        self.a16 = nn.Sequential(Attention(sixteenth), Attention(sixteenth))
        self.s32 = nn.Sequential(
            Inverted(sixteenth, least, stride=2), Inverted(least, least), WholeFrame(least),
            Inverted(least, least, 3, dilation=2), Inverted(least, least), WholeFrame(least),
        )  # fmt: skip
        self.u16, self.d16 = convolution(least, sixteenth, 1), Residual(sixteenth)
        self.u8, self.d8 = convolution(sixteenth, eighth, 1), Residual(eighth)
        self.u4, self.d4 = convolution(eighth, quarter, 1), Residual(quarter)
        self.u2, self.k2 = convolution(quarter, half, 1), convolution(half, half, 1)
        self.d2, self.out = convolution(half, half), nn.Conv2d(half, 2, 3, 1, 1)
        self.h8, self.h16 = nn.Conv2d(eighth, 1, 1), nn.Conv2d(sixteenth, 1, 1)

    def forward(self, x: Tensor) -> Tensor | tuple[Tensor, Tensor, Tensor]:
        x = torch.cat([x[:, :3] * 4 - 2, x[:, 3:]], 1)
        at2 = self.s2(x)
        at4 = self.s4(at2)
        at8 = self.s8(at4)
        at16 = self.s16(at8)
        at16 = self.a16(at16 + _resized(self.pos, at16))
        at16 = self.d16(at16 + doubled(self.u16(self.s32(at16))))
        at8 = self.d8(at8 + doubled(self.u8(at16)))
        at4 = self.d4(at4 + doubled(self.u4(at8)))
        answer = self.out(self.d2(self.k2(at2) + doubled(self.u2(at4))))
        if self.training:
            return answer, self.h8(at8), self.h16(at16)
        return doubled(answer)


def doubled(x: Tensor) -> Tensor:
    return functional.interpolate(x, scale_factor=2, mode="bilinear", align_corners=False)


def _resized(x: Tensor, like: Tensor) -> Tensor:
    if x.shape[-2:] == like.shape[-2:]:
        return x
    return functional.interpolate(x, size=like.shape[-2:], mode="bilinear", align_corners=False)
