"""Where compiled loops are kept: beside the code where that can be written, else with the data.

Numba looks for its folder when it is first imported, so this comes before everything else.
"""

import os
from pathlib import Path

_CODE = Path(__file__).parent / "core"
FOLDER = "compiled"

NO_PLACE = (
    "Compiled loops can't be kept in “{}”; let that folder be written, or choose another with "
    "--data or LUCKY_MARGIN_DATA."
)


def choose_folder(data: Path) -> str | None:
    """Have compiled loops kept; returns a sentence when there is no place for them.

    ``data`` is the data folder. A folder that the environment names (``NUMBA_CACHE_DIR``) holds.
    """
    if "NUMBA_CACHE_DIR" in os.environ or os.access(_CODE, os.W_OK):
        return None
    folder = data.absolute() / FOLDER
    try:
        folder.mkdir(parents=True, exist_ok=True)
        writable = os.access(folder, os.W_OK)
    except OSError:
        writable = False
    if not writable:
        return NO_PLACE.format(folder)
    os.environ["NUMBA_CACHE_DIR"] = str(folder)
    return None
