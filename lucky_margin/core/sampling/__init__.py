"""Sampling photos in linear light."""

from lucky_margin.core.sampling.sample import halved, sample

__all__ = ["halved", "sample"]
