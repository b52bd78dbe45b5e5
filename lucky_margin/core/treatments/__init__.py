"""Treatments: changes of the photo's texture. See ``working`` for how they keep to any scale."""

from lucky_margin.core.treatments import blur as _blur
from lucky_margin.core.treatments import dots as _dots
from lucky_margin.core.treatments import drawing as _drawing
from lucky_margin.core.treatments import inking as _inking
from lucky_margin.core.treatments import mosaic as _mosaic
from lucky_margin.core.treatments import paint as _paint
from lucky_margin.core.treatments import poster as _poster
from lucky_margin.core.treatments import textures as _textures
from lucky_margin.core.treatments.methods import Method, method_of
from lucky_margin.core.treatments.styles import TREATMENT_STYLES, TreatmentStyle
from lucky_margin.core.treatments.working import WORKING_SIDE, Pixels, Working


def warm_up() -> None:
    """Compile all loops, or load them from disk."""
    for module in (_mosaic, _dots, _inking, _drawing, _poster, _paint, _blur, _textures):
        module.warm_up()


__all__ = [
    "TREATMENT_STYLES",
    "WORKING_SIDE",
    "Method",
    "Pixels",
    "TreatmentStyle",
    "Working",
    "method_of",
    "warm_up",
]
