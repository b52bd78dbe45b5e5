"""Run all tests: ``python -m tests [NAME...]``; the last line counts them."""

import os
import sys
from concurrent.futures import ProcessPoolExecutor, as_completed
from multiprocessing import get_context
from pathlib import Path

from tests.running import run

PROCESSES = min(4, max(2, os.cpu_count() or 2))
"""A test of the browser keeps three busy at times: itself, the browser and the service."""


def parts() -> list[list[str]]:
    """The names of all modules of tests, in the parts that are run each by one process: a module of
    the browser's and a share of the others in turn, so that the browser's tests, which wait at
    times, run beside those that never do."""
    root = Path(__file__).parents[1]
    files = sorted((root / "tests").rglob("test_*.py"), key=lambda file: -file.stat().st_size)
    names = [".".join(file.relative_to(root).with_suffix("").parts) for file in files]
    browser = [name for name in names if ".browser." in name]
    others = [name for name in names if ".browser." not in name]
    shares = [others[start :: len(browser)] for start in range(len(browser))]
    return [part for name, share in zip(browser, shares, strict=True) for part in ([name], share)]


def main(names: list[str]) -> int:
    passed = failed = skipped = 0
    with ProcessPoolExecutor(PROCESSES, get_context("spawn")) as pool:
        jobs = [pool.submit(run, part) for part in ([names] if names else parts())]
        for job in as_completed(jobs):
            outcome = job.result()
            passed += outcome.passed
            failed += outcome.failed
            skipped += outcome.skipped
            print(outcome.report, flush=True)
    print(f"{passed} passed, {failed} failed, {skipped} skipped")
    return 1 if failed or not passed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
