"""Run all tests: ``python -m tests [NAME...]``; the last line counts them.

Two processes share the work. The tests of the browser, which mostly wait, run beside all others,
and when those are done, beside each other.
"""

import sys
from concurrent.futures import ProcessPoolExecutor, as_completed
from multiprocessing import get_context
from pathlib import Path

from tests.running import run


def parts() -> list[list[str]]:
    """The names of all modules of tests, in the parts that are run each by one process: the longest
    module of the browser's, then all that are not the browser's, then its other modules."""
    root = Path(__file__).parents[1]
    files = sorted((root / "tests").rglob("test_*.py"), key=lambda file: -file.stat().st_size)
    names = [".".join(file.relative_to(root).with_suffix("").parts) for file in files]
    others = [name for name in names if ".browser." not in name]
    longest, *rest = [[name] for name in names if ".browser." in name]
    return [longest, others, *rest]


def main(names: list[str]) -> int:
    passed = failed = skipped = 0
    with ProcessPoolExecutor(2, get_context("spawn")) as pool:
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
