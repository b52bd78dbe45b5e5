"""Running some of the tests in a process of their own."""

import io
import time
import unittest
from dataclasses import dataclass
from typing import Any

SLOWEST, SLOW = 5, 8.0
"""How many of the slowest tests are named, of those that take so many seconds."""


@dataclass(frozen=True)
class Outcome:
    """What came of some tests, with unittest's report."""

    passed: int
    failed: int
    skipped: int
    report: str


class TimedResult(unittest.TextTestResult):
    """Knows how long each test took."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.seconds: dict[str, float] = {}

    def startTest(self, test: unittest.TestCase) -> None:  # noqa: N802 - unittest's name
        self.seconds[test.id()] = -time.monotonic()
        super().startTest(test)

    def stopTest(self, test: unittest.TestCase) -> None:  # noqa: N802
        super().stopTest(test)
        self.seconds[test.id()] += time.monotonic()

    def slowest(self) -> str:
        """The tests that take longest, a line each."""
        slow = sorted(self.seconds.items(), key=lambda item: -item[1])[:SLOWEST]
        return "".join(f"{took:5.0f} s {name}\n" for name, took in slow if took >= SLOW)


def run(names: list[str]) -> Outcome:
    """Run the tests of modules, classes or methods."""
    report = io.StringIO()
    suite = unittest.defaultTestLoader.loadTestsFromNames(names)
    runner = unittest.TextTestRunner(report, buffer=True, resultclass=TimedResult)
    result = runner.run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    skipped = len(result.skipped)
    return Outcome(
        result.testsRun - failed - skipped, failed, skipped, report.getvalue() + result.slowest()
    )
