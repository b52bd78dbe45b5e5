"""Badges of several parts that were kept: a shape, an icon and words, say."""

from fastapi import APIRouter
from pydantic import Field

from lucky_margin.core.document import BadgeParts, Name, Piece, Value
from lucky_margin.core.document.pieces import MOST_BADGE_PARTS
from lucky_margin.core.errors import BadInput
from lucky_margin.web.app_state import AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.routes.finishes import RowId

router = APIRouter(prefix="/badges", tags=["badges"])


class KeptBadge(Value):
    """Pieces that were kept for reuse, back to front."""

    id: int
    name: str
    parts: BadgeParts


class NewBadge(Value):
    """Pieces to keep as one badge."""

    model_config = example(
        name="New glaze", parts=[{"kind": "badge", "id": "badge-1", "form": "burst"}]
    )

    name: Name
    parts: tuple[Piece, ...] = Field(min_length=1, max_length=MOST_BADGE_PARTS)


@router.post("", status_code=201)
def keep_badge(new: NewBadge, state: AppStateDep) -> KeptBadge:
    """Keep pieces as one badge; one of the same name takes the place of the older one."""
    if any(part.kind == "picture" for part in new.parts):
        raise BadInput("A saved badge holds words, badges and marks; leave pictures out of it.")
    badge = KeptBadge.model_validate(_told(0, new.name, new.parts))
    kept = state.store.badges.put(new.name, badge.parts)
    return badge.model_copy(update={"id": kept.id})


@router.delete("/{badge_id}", status_code=204)
def forget_badge(badge_id: RowId, state: AppStateDep) -> None:
    """Forget a badge; finishes that have it keep it."""
    state.store.badges.delete(badge_id)


def _told(badge_id: int, name: str, parts: tuple[Piece, ...]) -> dict[str, object]:
    return {"id": badge_id, "name": name, "parts": [part.model_dump() for part in parts]}
