"""Run all tests: ``python -m tests [NAME...]``; the last line counts them."""

import sys
import unittest


def main(names: list[str]) -> int:
    loader = unittest.TestLoader()
    suite = (
        loader.loadTestsFromNames(names) if names else loader.discover("tests", top_level_dir=".")
    )
    result = unittest.TextTestRunner(verbosity=1, buffer=True).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    skipped = len(result.skipped)
    passed = result.testsRun - failed - skipped
    print(f"{passed} passed, {failed} failed, {skipped} skipped")
    return 1 if failed or not result.testsRun else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
