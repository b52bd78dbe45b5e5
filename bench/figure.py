"""What is measured: a piece of our work, and one of a general-purpose library to set against it."""

import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass

Work = Callable[[], object]

ROUNDS = 7


@dataclass(frozen=True)
class Figure:
    """One line of the report. ``reach`` is the ratio that the design asks for, or a remark."""

    name: str
    ours: Work
    theirs: Work
    against: str
    reach: str

    def report(self) -> str:
        """Both measured in turn, so that drift hits them alike: their medians and the ratio."""
        ours, theirs = median_times(self.ours, self.theirs)
        times = f"{1000 * ours:.1f} ms : {1000 * theirs:.1f} ms"
        ratio = f"{ours / theirs:5.2f} x {self.against}"
        return f"{self.name:52} {ratio} ({times}; reach {self.reach})"


def seconds(work: Work) -> float:
    """How long ``work`` takes, once."""
    begin = time.perf_counter()
    work()
    return time.perf_counter() - begin


def median_times(*works: Work) -> list[float]:
    """Median seconds of each piece of work, taken in turn; the first time does not count."""
    for work in works:
        work()
    times = [[seconds(work) for work in works] for _ in range(ROUNDS)]
    return [statistics.median(each) for each in zip(*times, strict=True)]
