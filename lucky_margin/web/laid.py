"""A draft laid out: everything a screen needs to draw a size of it and to say about it."""

import json
import threading
from typing import Any

from cachetools import LRUCache, cachedmethod
from pydantic import Field, create_model

from lucky_margin.core.document import Finish, FixedPixels, Ground, Identifier, Piece, Sha256, Value
from lucky_margin.core.document.docket import VALUES, DocketLine, docket_of
from lucky_margin.core.document.summaries import Override, overrides_in_words
from lucky_margin.core.edits import Guide
from lucky_margin.core.render import Layout, layout
from lucky_margin.core.scene import Scene
from lucky_margin.web.drafts import Draft
from lucky_margin.web.patches import PatchOperation, patch

KEPT_LAYINGS = 32
"""Of which the next one may be told as a patch."""


class SizeLaid(Value):
    """One size of the draft, as a list of them shows it."""

    id: Identifier
    name: str
    width: int = Field(description="Output pixels.")
    height: int = Field(description="Output pixels.")
    seen_width: int
    on_paper: str = Field(description="Its measures on paper, or empty.")
    overridden: list[str] = Field(description="The steps that it overrides.")


_STEPS_HERE: dict[str, Any] = {field: (model, ...) for field, model in VALUES.items()}


class StepsHere(create_model("Values", __base__=Value, **_STEPS_HERE)):  # type: ignore[misc]
    """The steps as the size in hand has them."""

    pieces: list[Piece] = Field(description="Back to front; those switched off too.")
    backdrop: Ground
    outside: Ground
    overrides: list[Override] = Field(description="What the size does differently.")


class Laid(Value):
    """One size of a draft, laid out."""

    document: Finish
    layout: Layout
    here: StepsHere
    sizes: list[SizeLaid]
    docket: list[DocketLine] = Field(description="Its lines for the size in hand.")


class DraftLaid(Value):
    """A draft after its edit: whole, or as a patch of the one that the page has laid out."""

    draft: Sha256
    size_id: Identifier = Field(description="The size that is in hand now.")
    message: str
    guides: tuple[Guide, ...] = Field(description="What a drag was drawn to, and how far it is.")
    laid: Laid | None = Field(description="Null when it is told as a patch.")
    patch: list[PatchOperation] | None = Field(description="Of the other one; null when whole.")


def laid_as_json(draft: Draft, size_id: str) -> dict[str, Any]:
    """``Laid`` of one size.

    Raises:
        NotFound: the draft has no such size.
    """
    scene, finish = draft.scene(size_id), draft.finish
    steps = {field: finish.as_set(field, scene.size) for field in VALUES}
    here = StepsHere.model_construct(
        **steps,
        pieces=finish.pieces_as(scene.size),
        backdrop=scene.backdrop,
        outside=scene.outside,
        overrides=overrides_in_words(scene.size),
    )
    laid = Laid.model_construct(
        document=finish,
        layout=layout(scene),
        here=here,
        sizes=[_size_laid(one) for one in draft.scenes.values()],
        docket=docket_of(finish, scene.size),
    )
    return laid.model_dump(mode="json")


class Layings:
    """The drafts that were laid out last. Safe to use from several threads."""

    def __init__(self) -> None:
        self._kept: LRUCache[object, dict[str, Any]] = LRUCache(KEPT_LAYINGS)
        self._changed = threading.Condition()

    @cachedmethod(lambda self: self._kept, condition=lambda self: self._changed)
    def of(self, draft: Draft, size_id: str) -> dict[str, Any]:
        """``laid_as_json``, worked out once; not to be changed."""
        return laid_as_json(draft, size_id)


def told(
    draft: Draft,
    size_id: str,
    message: str,
    guides: tuple[Guide, ...],
    laid: dict[str, Any],
    since: dict[str, Any] | None,
) -> bytes:
    """``DraftLaid`` as JSON; ``since`` is what the page has laid out, if anything."""
    operations = None if since is None else patch(since, laid)
    body = {
        "draft": draft.sha256,
        "size_id": size_id,
        "message": message,
        "guides": [guide.model_dump() for guide in guides],
        "laid": laid if since is None else None,
        "patch": None if operations is None else [one.model_dump() for one in operations],
    }
    return json.dumps(body, ensure_ascii=False).encode()


def _size_laid(scene: Scene) -> SizeLaid:
    size, output = scene.size, scene.frame.output
    printed = size.pixels.printed if isinstance(size.pixels, FixedPixels) else None
    overridden = ["window"] if size.crop.window else []
    overridden += size.overrides.all_overridden
    return SizeLaid(
        id=size.id,
        name=size.name,
        width=output.width,
        height=output.height,
        seen_width=size.seen_width,
        on_paper=f"{printed.label}, {printed.ppi:g} ppi" if printed else "",
        overridden=overridden,
    )
