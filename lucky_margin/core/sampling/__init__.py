"""Sampling photos in linear light."""

from lucky_margin.core.sampling.gradients import linear_gradient, radial_gradient
from lucky_margin.core.sampling.lines import dither_pattern
from lucky_margin.core.sampling.place import place, place_at_16_bits
from lucky_margin.core.sampling.sample import halved, sample, shrunk
from lucky_margin.core.sampling.srgb import as_8_bits, as_16_bits, encode_16_bits, to_linear
from lucky_margin.core.sampling.warm_up import warm_up

__all__ = [
    "as_8_bits",
    "as_16_bits",
    "dither_pattern",
    "encode_16_bits",
    "halved",
    "linear_gradient",
    "place",
    "place_at_16_bits",
    "radial_gradient",
    "sample",
    "shrunk",
    "to_linear",
    "warm_up",
]
