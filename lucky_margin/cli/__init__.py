"""The command line: the same job without the bench.

Every refusal is one sentence on standard error and exit code 2.
"""

import sys
from pathlib import Path

from lucky_margin.cli.data import data_folder
from lucky_margin.compiled_loops import choose_folder

__all__ = ["data_folder", "main"]


def main(arguments: list[str] | None = None) -> int:
    """Run the command line; returns the exit code."""
    given = sys.argv[1:] if arguments is None else arguments
    refusal = choose_folder(_data_folder(given))
    if refusal:
        print(refusal, file=sys.stderr)
        return 2
    from lucky_margin.cli.commands import main as run  # compiled loops have their place now

    return run(given)


def _data_folder(arguments: list[str]) -> Path:
    """The data folder, before the arguments are really read."""
    for option, value in zip(arguments, [*arguments[1:], ""], strict=True):
        if option == "--data" and value:
            return Path(value)
        if option.startswith("--data="):
            return Path(option.partition("=")[2])
    return data_folder()
