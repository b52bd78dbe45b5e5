"""The edits that may be asked for: each a model, registered by the function that carries it out.

Framing edits belong to one size. An edit of a step goes to the finish, so that every size
follows, unless ``only_this_size`` is on; a finish with one size has no use for overrides.
"""

from collections.abc import Callable
from typing import Annotated, Any, Literal, TypeVar

from pydantic import Field

from lucky_margin.core.document import Identifier, Value
from lucky_margin.core.edits.edited import Edited
from lucky_margin.core.scene import Scene

PieceIds = Annotated[tuple[Identifier, ...], Field(min_length=1, max_length=100)]
MaskKind = Literal["band", "ellipse", "light", "hue", "subject"]
MaskPlace = Literal["area", "treatment"]
"""What masks are of: areas of the tone, or treatments."""

ToneGrip = Literal["start", "middle", "end", "right", "below"]
"""What a wash or a mask is dragged by; an ellipse by its middle and two places of its rim."""


class EditBase(Value):
    """An edit; ``kind`` says which."""

    kind: Any


Carrier = Callable[[Scene, Any], Edited]
AnyCarrier = TypeVar("AnyCarrier", bound=Carrier)

CARRIERS: dict[type[EditBase], Carrier] = {}
"""What carries out each edit. Filled while the modules of this package are imported."""


def carries_out(edit: type[EditBase]) -> Callable[[AnyCarrier], AnyCarrier]:
    """Register the function below as what carries out ``edit``."""

    def register(carrier: AnyCarrier) -> AnyCarrier:
        CARRIERS[edit] = carrier
        return carrier

    return register
