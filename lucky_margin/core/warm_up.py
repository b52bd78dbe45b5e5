"""Compiling all loops, or loading them from disk, so that no first picture waits for that.

``python -m lucky_margin.core.warm_up`` compiles them beside each other.
"""

from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context

from lucky_margin.core import borders, contour, cut_out, noise, png, sampling, tone, treatments

PARTS: tuple[Callable[[], None], ...] = (
    sampling.warm_up,
    tone.warm_up,
    treatments.warm_up,
    borders.warm_up,
    cut_out.warm_up,
    contour.warm_up,
    noise.warm_up,
    png.warm_up,
)
"""What compiles or loads the loops of a part, the longest first."""


def warm_up() -> None:
    """Compile or load every loop."""
    for part in PARTS:
        part()


def main() -> None:
    """Compile every loop, a part to a process."""
    with ProcessPoolExecutor(mp_context=get_context("spawn")) as pool:
        for job in [pool.submit(part) for part in PARTS]:
            job.result()
    warm_up()  # of a loop that two parts share, one may have replaced what the other kept


if __name__ == "__main__":
    main()
