"""Treatments to start from."""

from fastapi import APIRouter

from lucky_margin.core.document import Treatment, Value
from lucky_margin.core.treatments import TREATMENT_STYLES

router = APIRouter(prefix="/treatments", tags=["treatments"])


class StockTreatment(Value):
    """A ready-made treatment."""

    key: str
    name: str
    treatment: Treatment


@router.get("")
def list_treatments() -> list[StockTreatment]:
    """In the order in which they are offered."""
    return [
        StockTreatment(key=style.key, name=style.name, treatment=style.treatment)
        for style in TREATMENT_STYLES
    ]
