"""What every training here has in common.

The learning rate follows the clock, so that a run ends well whatever the machine. Convolutions
calculate in bfloat16 on processors with matrix units for it, which do that several times as fast.
"""

import argparse
import copy
import time
from pathlib import Path

import cv2
import numpy as np
import torch
from torch import Tensor, nn

WARMING_STEPS = 100
LEAST_RATE = 1e-5

PROCESSOR = Path("/proc/cpuinfo")


def asked(purpose: str | None) -> argparse.Namespace:
    """What the command line asks of a training."""
    parser = argparse.ArgumentParser(description=purpose)
    parser.add_argument("out", type=Path)
    parser.add_argument("--data", type=Path, nargs="+", required=True)
    parser.add_argument("--val", type=Path, required=True)
    parser.add_argument("--minutes", type=float, required=True)
    parser.add_argument("--start", type=Path)
    parser.add_argument("--rate", type=float, default=2e-3)
    parser.add_argument("--every", type=float, default=420, help="seconds between reports")
    parser.add_argument("--seed", type=int, default=0)
    return parser.parse_args()


def fastest() -> torch.autocast:
    """Calculating in the numbers that this processor is fastest with."""
    has_units = PROCESSOR.exists() and "amx_bf16" in PROCESSOR.read_text()
    return torch.autocast("cpu", dtype=torch.bfloat16, enabled=has_units)


class Training:
    """A network, the running mean of its weights, which is what is kept, its optimiser, and the
    clock."""

    def __init__(self, network: nn.Module, options: argparse.Namespace) -> None:
        torch.set_flush_denormal(True)
        torch.manual_seed(options.seed)
        cv2.setNumThreads(1)
        self.options = options
        self.network = network.to(memory_format=torch.channels_last)
        if options.start:
            self.network.load_state_dict(torch.load(options.start))
        self.mean = copy.deepcopy(self.network)
        self.optimiser = torch.optim.AdamW(
            self.network.parameters(), options.rate, weight_decay=0.01, betas=(0.9, 0.98)
        )
        self.steps = 0
        self.began = self.told = time.monotonic()

    @property
    def gone(self) -> float:
        """The share of the time that has gone."""
        return (time.monotonic() - self.began) / (60 * self.options.minutes)

    def step(self, loss: Tensor) -> None:
        warm = min(1.0, (self.steps + 1) / WARMING_STEPS)
        sinking = 0.5 + 0.5 * float(np.cos(np.pi * min(1.0, self.gone)))
        for group in self.optimiser.param_groups:
            group["lr"] = self.options.rate * warm * sinking + LEAST_RATE
        self.optimiser.zero_grad(set_to_none=True)
        loss.backward()
        torch.nn.utils.clip_grad_norm_(self.network.parameters(), 2.0)
        self.optimiser.step()
        self.steps += 1
        self._follow(min(0.998, (1 + self.steps) / (20 + self.steps)))

    def to_be_told(self) -> bool:
        return time.monotonic() - self.told > self.options.every

    def tell(self, how: str) -> None:
        self.told = time.monotonic()
        print(f"{self.gone:.0%}, step {self.steps}, {how}", flush=True)
        self.keep()

    def keep(self) -> None:
        torch.save(self.mean.state_dict(), self.options.out)

    @torch.no_grad()
    def _follow(self, kept: float) -> None:
        pairs = zip(
            self.mean.state_dict().values(), self.network.state_dict().values(), strict=True
        )
        for mean, now in pairs:
            if mean.dtype.is_floating_point:
                mean.lerp_(now, 1 - kept)
            else:
                mean.copy_(now)
