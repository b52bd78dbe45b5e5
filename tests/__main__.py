"""Run all tests: ``python -m tests [NAME...]``; the last line counts them.

The tests of the browser, which mostly wait, run beside all others.
"""

import sys
from concurrent.futures import ProcessPoolExecutor, as_completed
from multiprocessing import get_context
from pathlib import Path

from tests.running import run


def halves() -> list[list[str]]:
    """The names of all modules of tests: those of the browser, and the others."""
    root = Path(__file__).parents[1]
    files = sorted((root / "tests").rglob("test_*.py"))
    names = [".".join(file.relative_to(root).with_suffix("").parts) for file in files]
    return [[name for name in names if (".browser." in name) == wanted] for wanted in (True, False)]


def main(names: list[str]) -> int:
    passed = failed = skipped = 0
    with ProcessPoolExecutor(2, get_context("spawn")) as pool:
        jobs = [pool.submit(run, part) for part in ([names] if names else halves())]
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
