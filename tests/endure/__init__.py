"""What takes long: fuzz, kills and soak. ``make test`` runs a small sample of each, ``make endure``
all of it (``LUCKY_MARGIN_ENDURE`` in the environment)."""

import os


def rounds(sample, full):
    """How often to do it: ``sample`` times in ``make test``, ``full`` times in ``make endure``."""
    return full if os.environ.get("LUCKY_MARGIN_ENDURE") else sample
