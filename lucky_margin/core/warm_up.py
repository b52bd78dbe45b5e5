"""Compiling all loops, or loading them from disk, so that no first picture waits for that."""

from lucky_margin.core import borders, contour, cut_out, noise, sampling, tone, treatments


def warm_up() -> None:
    """Compile or load every loop."""
    sampling.warm_up()
    tone.warm_up()
    cut_out.warm_up()
    contour.warm_up()
    borders.warm_up()
    noise.warm_up()
    treatments.warm_up()
