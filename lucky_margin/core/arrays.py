"""Arrays that nobody may write."""

from typing import Any, TypeVar

import numpy as np
from numpy.typing import NDArray

Array = TypeVar("Array", bound=NDArray[Any])


def read_only(array: Array) -> Array:
    """The same values as an array that can't be written.

    What is shared between callers is read-only, and so is all that compiled loops read, since
    numba compiles a loop once more for arrays that may be written.
    """
    view = array.view()
    view.flags.writeable = False
    return view


def shared(value: Any) -> Any:
    """``value`` as it may be shared: an array as a read-only one, anything else as it is."""
    return read_only(value) if isinstance(value, np.ndarray) else value
