"""Running some of the tests in a process of their own."""

import io
import unittest
from dataclasses import dataclass


@dataclass(frozen=True)
class Outcome:
    """What came of some tests, with unittest's report."""

    passed: int
    failed: int
    skipped: int
    report: str


def run(names: list[str]) -> Outcome:
    """Run the tests of modules, classes or methods."""
    report = io.StringIO()
    suite = unittest.defaultTestLoader.loadTestsFromNames(names)
    result = unittest.TextTestRunner(report, verbosity=1, buffer=True).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    skipped = len(result.skipped)
    return Outcome(result.testsRun - failed - skipped, failed, skipped, report.getvalue())
