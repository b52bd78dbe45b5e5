"""Sampling photos in linear light."""

from lucky_margin.core.sampling.sample import halved, sample, warm_up

__all__ = ["halved", "sample", "warm_up"]
