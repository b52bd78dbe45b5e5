"""The command line: the same job without the bench.

Every refusal is one sentence on standard error and exit code 2.
"""

from lucky_margin.cli.commands import main
from lucky_margin.cli.data import data_folder

__all__ = ["data_folder", "main"]
