"""Where the command line finds the data folder."""

import os
from pathlib import Path


def data_folder() -> Path:
    """Where the data is: ``LUCKY_MARGIN_DATA``, or ``data`` in the present folder."""
    return Path(os.environ.get("LUCKY_MARGIN_DATA", "data"))
