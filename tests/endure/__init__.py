"""What takes long: fuzz, kills and soak. ``make test`` runs a small sample of each, ``make endure``
all of it (``LUCKY_MARGIN_ENDURE`` in the environment)."""

import os
from typing import TypeVar

Amount = TypeVar("Amount")


def amount(sample: Amount, full: Amount) -> Amount:
    """How much is tried: ``sample`` in ``make test``, ``full`` in ``make endure``."""
    return full if os.environ.get("LUCKY_MARGIN_ENDURE") else sample
