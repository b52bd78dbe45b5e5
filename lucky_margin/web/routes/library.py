"""The library: stock and own things, found by word, kind and colour; favourites, and what was
used last."""

from collections.abc import Iterable, Sequence
from typing import get_args

from fastapi import APIRouter, Response

from lucky_margin.core.document import BadgeParts, Value
from lucky_margin.core.errors import NotFound
from lucky_margin.core.palette import ColourName
from lucky_margin.core.scene import DerivedKey
from lucky_margin.core.stock import BACKDROPS, BADGES, LICENCE, BadgeItem, colours_of, found
from lucky_margin.core.stock.item import BackdropItem, BackdropKind, BadgeKind
from lucky_margin.core.stock.pictures import backdrop_face, badge_face
from lucky_margin.core.stock.search import Item
from lucky_margin.store import LibraryStore
from lucky_margin.web.app_state import AppState, AppStateDep
from lucky_margin.web.examples import example
from lucky_margin.web.pictures import FOREVER, PICTURE, picture_response
from lucky_margin.web.routes.finishes import LibraryKey
from lucky_margin.web.routes.photos import Only, Search
from lucky_margin.web.work_desk import Priority

MOST_NAMED = 3
"""How many users of a thing are named."""

router = APIRouter(prefix="/library", tags=["library"])


class BackdropShown(BackdropItem):
    """A stock backdrop as it is listed; ``uses`` counts the finishes that have it, and those
    changed last of them are named."""

    key: LibraryKey
    favourite: bool
    uses: int
    used_in: list[str]


class BadgeShown(BadgeItem):
    """A badge as it is listed."""

    key: LibraryKey
    favourite: bool


class BackdropPage(Value):
    """What was found, and all that can be asked for."""

    items: list[BackdropShown]
    kinds: list[BackdropKind]
    licence: str = LICENCE


class BadgePage(Value):
    """What was found, and all that can be asked for."""

    items: list[BadgeShown]
    kinds: list[BadgeKind]
    licence: str = LICENCE


class Favourite(Value):
    """Whether something is a favourite."""

    model_config = example(key="backdrop:linen", favourite=True)

    key: LibraryKey
    favourite: bool


class Taken(Value):
    """Something that was taken just now."""

    model_config = example(key="backdrop:linen")

    key: LibraryKey


@router.get("/backdrops")
def list_backdrops(
    state: AppStateDep,
    search: Search = "",
    kind: BackdropKind | None = None,
    colour: ColourName | None = None,
    only: Only | None = None,
) -> BackdropPage:
    """Stock backdrops, in their order; those used last, that first."""
    library = state.store.library
    favourites, users = library.favourites(), library.users("backdrop")
    items = found(BACKDROPS.values(), words=search, kind=kind, colour=colour)
    return BackdropPage(
        items=[
            BackdropShown(
                **item.model_dump(exclude={"key"}),
                key=key,
                favourite=key in favourites,
                uses=len(users.get(item.key, ())),
                used_in=users.get(item.key, [])[:MOST_NAMED],
            )
            for key, item in _only(only, _keyed("backdrop", items), library)
        ],
        kinds=list(get_args(BackdropKind)),
    )


@router.get("/badges")
def list_badges(
    state: AppStateDep,
    search: Search = "",
    kind: BadgeKind | None = None,
    colour: ColourName | None = None,
    only: Only | None = None,
) -> BadgePage:
    """Own badges, the newest first, then those in stock; those used last, that first."""
    library = state.store.library
    favourites = library.favourites()
    own = found(_own_badges(state), words=search, kind=kind, colour=colour)
    stock = found(BADGES.values(), words=search, kind=kind, colour=colour)
    keyed = {**_keyed("own badge", own), **_keyed("badge", stock)}
    return BadgePage(
        items=[
            BadgeShown(**item.model_dump(exclude={"key"}), key=key, favourite=key in favourites)
            for key, item in _only(only, keyed, library)
        ],
        kinds=list(get_args(BadgeKind)),
    )


@router.get("/backdrops/{name}/picture", response_class=Response, responses=PICTURE)
async def get_backdrop_picture(name: str, state: AppStateDep) -> Response:
    """A stock backdrop, small."""
    if name not in BACKDROPS:
        raise NotFound("There is no such backdrop in stock.")

    def draw() -> Response:
        face = state.store.photos.derived(
            DerivedKey("face", "stock", (name,)), lambda: backdrop_face(BACKDROPS[name].ground)
        )
        return picture_response(face, headers=FOREVER)

    return await state.desk.run(draw, Priority.THUMBNAIL)


@router.get("/badges/{key}/picture", response_class=Response, responses=PICTURE)
async def get_badge_picture(key: LibraryKey, state: AppStateDep) -> Response:
    """A badge, small; one that is changed gets a new key."""
    parts = _parts_of(key, state)

    def draw() -> Response:
        return picture_response(badge_face(parts, state.store.photos), headers=FOREVER)

    return await state.desk.run(draw, Priority.THUMBNAIL)


@router.post("/favourites")
def set_favourite(wanted: Favourite, state: AppStateDep) -> Favourite:
    """Make something a favourite, or none any more."""
    state.store.library.set_favourite(wanted.key, wanted.favourite)
    return wanted


@router.post("/recent")
def note_use(taken: Taken, state: AppStateDep) -> Taken:
    """Note that something was taken, so that it stands among what was used last."""
    state.store.library.note_use(taken.key)
    return taken


def _own_badges(state: AppState) -> Iterable[BadgeItem]:
    for kept in state.store.badges.list():
        yield BadgeItem(
            key=str(kept.id),
            name=kept.name,
            kind="own",
            colours=colours_of(kept.value),
            parts=kept.value,
        )


def _parts_of(key: str, state: AppState) -> BadgeParts:
    kind, _, name = key.partition(":")
    own = _own_badges(state) if kind == "own badge" else BADGES.values()
    for item in own:
        if item.key == name:
            return item.parts
    raise NotFound("This badge was removed; finishes that have it keep it.")


def _keyed(prefix: str, items: Iterable[Item]) -> dict[str, Item]:
    return {f"{prefix}:{item.key}": item for item in items}


def _only(
    only: Only | None, items: dict[str, Item], library: LibraryStore
) -> Sequence[tuple[str, Item]]:
    """All of them, the favourites among them, or those used last."""
    if only == "recent":
        return [(key, items[key]) for key in library.recent() if key in items]
    if only == "favourites":
        favourites = library.favourites()
        return [(key, item) for key, item in items.items() if key in favourites]
    return list(items.items())
