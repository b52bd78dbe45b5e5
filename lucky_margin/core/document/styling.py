"""House styles kept from finishes, given to others and taken from them again.

A style gives whole parts. A part that somebody changed afterwards is theirs: it stays when the
style is renewed or removed. Giving a style twice is giving it once, and removing it leaves what was
there before, exactly.
"""

from collections.abc import Callable, Collection
from dataclasses import dataclass
from itertools import count
from typing import Any

from lucky_margin.core.document.columns import filled_pieces, filled_watermark, row_of
from lucky_margin.core.document.cut_out import CutOut
from lucky_margin.core.document.finish import Finish
from lucky_margin.core.document.house_style import (
    CutOutPart,
    GroundPart,
    HouseStyle,
    LookPart,
    PartKey,
    StyleParts,
    StyleUse,
)
from lucky_margin.core.document.lifts import Lifts
from lucky_margin.core.document.overrides import PieceChanges
from lucky_margin.core.document.pieces import PhotoAnchor, Piece
from lucky_margin.core.document.placeless import placeless
from lucky_margin.core.document.row import NO_ROW, Row
from lucky_margin.core.document.sizes import Crop, Size
from lucky_margin.core.document.summaries import (
    border_in_words,
    cut_out_in_words,
    export_in_words,
    ground_in_words,
    look_name,
    pieces_in_words,
    tone_in_words,
    treatments_in_words,
    watermark_in_words,
)
from lucky_margin.core.document.tone import Settings, Tone

STYLE_PIECE = "style-"
"""How the ids of a style's pieces begin; no other piece's does."""

STYLE_GROUPS = 1_000_000
"""Groups of a style's pieces count from here, away from those of a finish's own pieces."""

MOST_NAMES = 3
"""Names that are told of a longer list."""


@dataclass(frozen=True)
class StylePart:
    """A part of a finish that a style may give: its value ``of`` a finish, the finish with another
    value ``put`` there, the value in words, and what of it counts when two are compared.

    Where what a style gives stands beside the finish's own, something else is remembered from
    ``before`` it and comes ``back``.
    """

    key: PartKey
    title: str
    of: Callable[[Finish], Any]
    put: Callable[[Finish, Any], Finish]
    in_words: Callable[[Any], str]
    compared: Callable[[Any], Any] = lambda value: value
    before: Callable[[Finish], Any] | None = None
    back: Callable[[Finish, Any], Finish] | None = None

    def value_before(self, finish: Finish) -> Any:
        """What is remembered of a finish that gets a style."""
        return (self.before or self.of)(finish)

    def put_back(self, finish: Finish, value: Any) -> Finish:
        """The finish with what was remembered of it."""
        return (self.back or self.put)(finish, value)


def _field_part(key: PartKey, title: str, in_words: Callable[[Any], str]) -> StylePart:
    """A part that is a whole field of the finish."""
    return StylePart(
        key=key,
        title=title,
        of=lambda finish: getattr(finish, key),
        put=lambda finish, value: finish.model_copy(update={key: value}),
        in_words=in_words,
    )


def _unframed(sizes: tuple[Size, ...]) -> list[Size]:
    """Sizes without their crops, which are of one photo."""
    return [size.model_copy(update={"crop": Crop()}) for size in sizes]


def _put_sizes(finish: Finish, sizes: tuple[Size, ...]) -> Finish:
    """Sizes that are there already stay framed as they are."""
    return _framed_like(finish, finish.model_copy(update={"sizes": sizes}))


def _framed_like(finish: Finish, other: Finish) -> Finish:
    """``other`` with those of its sizes that ``finish`` has too framed as they are there."""
    crops = {(size.id, size.pixels): size.crop for size in finish.sizes}
    sizes = [
        size.model_copy(update={"crop": crops.get((size.id, size.pixels), size.crop)})
        for size in other.sizes
    ]
    return other.model_copy(update={"sizes": tuple(sizes)})


def _sizes_in_words(sizes: tuple[Size, ...]) -> str:
    names = [size.name for size in sizes[:MOST_NAMES]]
    more = len(sizes) - len(names)
    return ", ".join([*names, f"{more} more"] if more else names)


def _put_fields(part: Any) -> dict[str, Any]:
    return {name: getattr(part, name) for name in type(part).model_fields}


def _look_in_words(part: LookPart) -> str:
    words = [look_name(part.look)] if part.look else []
    if part.washes:
        words.append(f"{len(part.washes)} wash{'es' if len(part.washes) > 1 else ''}")
    if part.fade.amount:
        words.append("fade")
    return ", ".join(words) or "none"


def _cut_out_of(finish: Finish) -> CutOutPart:
    cut_out = finish.cut_out
    return CutOutPart(
        on=cut_out.on,
        edge=cut_out.edge,
        stands_out=cut_out.stands_out,
        outlines=finish.outlines,
        subject_shadow=finish.subject_shadow,
    )


def _put_cut_out(finish: Finish, part: CutOutPart) -> Finish:
    own = {"on": part.on, "edge": part.edge, "stands_out": part.stands_out}
    return finish.model_copy(
        update={
            "cut_out": finish.cut_out.model_copy(update=own),
            "outlines": part.outlines,
            "subject_shadow": part.subject_shadow,
        }
    )


def _is_of_style(piece: Piece) -> bool:
    return piece.id.startswith(STYLE_PIECE)


def _own_pieces(finish: Finish) -> tuple[Piece, ...]:
    return tuple(piece for piece in finish.pieces if not _is_of_style(piece))


def _put_pieces(finish: Finish, pieces: tuple[Piece, ...]) -> Finish:
    """The style's pieces in front of all others; an own piece that is the same is no other."""
    own, twins = _own_pieces(finish), _twins(_own_pieces(finish), pieces)
    others = [piece for piece in own if piece.id not in twins]
    put = finish.model_copy(update={"pieces": (*others, *pieces)})
    return _overrides_renamed(put, twins)


def _pieces_back(finish: Finish, before: tuple[Piece, ...]) -> Finish:
    """Own pieces that were the same as the style's are there again, where they were."""
    assert finish.style is not None
    twins = _twins(before, finish.style.gave.pieces or ())
    own = {piece.id: piece for piece in _own_pieces(finish)}
    known = [own.pop(p.id, p) for p in before if p.id in own or p.id in twins]
    put = finish.model_copy(update={"pieces": (*known, *own.values())})
    return _overrides_renamed(put, {style_id: own_id for own_id, style_id in twins.items()})


def _as_own(finish: Finish) -> Finish:
    """What is left of a style's pieces, since somebody changed them, under ids of their own: the
    next style does not take their place."""
    taken = {piece.id for piece in finish.pieces}
    names: dict[str, str] = {}
    for piece in finish.pieces:
        if _is_of_style(piece):
            numbered = (f"{piece.kind}-{number}" for number in count(1))
            names[piece.id] = next(name for name in numbered if name not in taken)
            taken.add(names[piece.id])
    pieces = tuple(
        piece.model_copy(update={"id": names.get(piece.id, piece.id)}) for piece in finish.pieces
    )
    return _overrides_renamed(finish.model_copy(update={"pieces": pieces}), names)


def _twins(own: tuple[Piece, ...], given: tuple[Piece, ...]) -> dict[str, str]:
    """The ids of own pieces that are the same as one of a style, with that one's."""
    left, found = list(given), {}
    for piece in own:
        twin = next((other for other in left if _nameless(other) == _nameless(piece)), None)
        if twin is not None:
            left.remove(twin)
            found[piece.id] = twin.id
    return found


def _nameless(piece: Piece) -> Piece:
    return piece.model_copy(update={"id": "", "group": None, "sizes": None})


def _overrides_renamed(finish: Finish, names: dict[str, str]) -> Finish:
    """The sizes' overrides of pieces under other ids."""
    sizes = []
    for size in finish.sizes:
        ways = size.overrides.pieces
        renamed = {names.get(key, key): way for key, way in ways.items()}
        sizes.append(size if renamed == ways else size.with_overrides(pieces=renamed))
    return finish.model_copy(update={"sizes": tuple(sizes)})


def _put_export(finish: Finish, export: Any) -> Finish:
    """The alternative text is of one photo, and stays."""
    alt_text = finish.export.alt_text
    return finish.model_copy(update={"export": export.model_copy(update={"alt_text": alt_text})})


PARTS: tuple[StylePart, ...] = (
    StylePart(
        "sizes",
        "Sizes",
        of=lambda finish: finish.sizes,
        put=_put_sizes,
        in_words=_sizes_in_words,
        compared=_unframed,
    ),
    StylePart(
        "ground",
        "Backdrop",
        of=lambda finish: GroundPart(backdrop=finish.backdrop, outside=finish.outside),
        put=lambda finish, part: finish.model_copy(update=_put_fields(part)),
        in_words=lambda part: ground_in_words(part.backdrop),
    ),
    StylePart(
        "light",
        "Light and colour",
        of=lambda finish: Settings(
            **{name: getattr(finish.tone, name) for name in Settings.model_fields}
        ),
        put=lambda finish, part: finish.model_copy(
            update={"tone": finish.tone.model_copy(update=_put_fields(part))}
        ),
        in_words=lambda part: tone_in_words(Tone(**_put_fields(part))),
    ),
    StylePart(
        "look",
        "Look",
        of=lambda finish: LookPart(
            look=finish.tone.look, washes=finish.tone.washes, fade=finish.tone.fade
        ),
        put=lambda finish, part: finish.model_copy(
            update={"tone": finish.tone.model_copy(update=_put_fields(part))}
        ),
        in_words=_look_in_words,
    ),
    StylePart(
        "cut_out",
        "Cut-out",
        of=_cut_out_of,
        put=_put_cut_out,
        in_words=lambda part: cut_out_in_words(
            CutOut(on=part.on), part.outlines, part.subject_shadow
        ),
    ),
    _field_part("treatments", "Treatments", lambda made: treatments_in_words(made, Lifts())),
    _field_part("border", "Border", border_in_words),
    StylePart(
        "pieces",
        "Text & badges",
        of=lambda finish: tuple(piece for piece in finish.pieces if _is_of_style(piece)),
        put=_put_pieces,
        in_words=pieces_in_words,
        before=_own_pieces,
        back=_pieces_back,
    ),
    _field_part("watermark", "Watermark", watermark_in_words),
    StylePart(
        "export",
        "Export",
        of=lambda finish: finish.export,
        put=_put_export,
        in_words=export_in_words,
        compared=lambda export: export.model_copy(update={"alt_text": ""}),
    ),
)
"""In the order of the docket."""


def kept_style(
    finish: Finish, style_id: str, name: str, keys: Collection[PartKey], *, suggest_light: bool
) -> HouseStyle:
    """These parts of a finish as a style, without what lies in a place of its photo."""
    general = placeless(finish)
    pieces = [piece for piece in general.pieces if not _hangs_on_photo(piece)]
    renamed = {piece.id: f"{STYLE_PIECE}{number}" for number, piece in enumerate(pieces, 1)}
    sizes = tuple(_with_renamed(size, renamed) for size in general.sizes)
    style_pieces = tuple(_style_piece(piece, renamed[piece.id]) for piece in pieces)
    if "pieces" not in keys:
        sizes = tuple(size.with_overrides(pieces={}) for size in sizes)
    if "sizes" not in keys:
        style_pieces = tuple(piece.model_copy(update={"sizes": None}) for piece in style_pieces)
    general = general.model_copy(update={"pieces": style_pieces, "sizes": sizes})
    parts = {part.key: part.of(general) for part in PARTS if part.key in keys}
    return HouseStyle(
        id=style_id, name=name, parts=StyleParts(**parts), suggest_light=suggest_light
    )


def _hangs_on_photo(piece: Piece) -> bool:
    return isinstance(piece.anchor, PhotoAnchor) or getattr(piece, "tip", None) is not None


def _with_renamed(size: Size, renamed: dict[str, str]) -> Size:
    """The size with its overrides of pieces under their new ids."""
    ways = size.overrides.pieces
    mine: dict[str, PieceChanges] = {renamed[key]: ways[key] for key in ways if key in renamed}
    return size.with_overrides(pieces=mine)


def _style_piece(piece: Piece, piece_id: str) -> Piece:
    group = piece.group and STYLE_GROUPS + piece.group % STYLE_GROUPS
    return piece.model_copy(update={"id": piece_id, "group": group})


def with_style(
    finish: Finish,
    style: HouseStyle,
    *,
    put: Collection[PartKey] | None = None,
    light: Settings | None = None,
    row: Row | None = None,
) -> Finish:
    """``finish`` in a style, in place of any other one. Only the parts ``put`` are taken over; by
    default all but those that somebody changed since the finish got the style. ``light`` is what is
    suggested for the photo, where the style asks for that; ``row`` fills the columns in its words.
    Without them those that the finish had in the same style before are taken."""
    use = finish.style if finish.style and finish.style.id == style.id else None
    mine = changed_since(finish) if use else ()
    bare = _without_parts(finish) if use else without_style(finish)
    if use:
        light, row = light or use.gave.light, use.row if row is None else row
    gave = _filled(style.parts, finish, row or NO_ROW)
    gave = gave.model_copy(update={"light": light if style.suggest_light else None})
    before: dict[str, Any] = {}
    styled = bare if gave.pieces else _as_own(bare)
    for part in PARTS:
        if (value := getattr(gave, part.key)) is None:
            continue
        known = getattr(use.before, part.key) if use and part.key in mine else None
        before[part.key] = part.value_before(bare) if known is None else known
        if part.key in put if put is not None else part.key not in mine:
            styled = part.put(styled, value)
    used = StyleUse(
        id=style.id,
        name=style.name,
        version=style.version,
        gave=gave,
        before=StyleParts(**before),
        row=row or NO_ROW,
        found=use.found if use else (),
    )
    return _framed_like(finish, styled).model_copy(update={"style": used})


def _filled(parts: StyleParts, finish: Finish, row: Row) -> StyleParts:
    """The parts with the columns in their words filled."""
    row, filled = row_of(finish, row), dict[str, Any]()
    if parts.pieces:
        filled["pieces"] = filled_pieces(parts.pieces, row)
    if parts.watermark:
        filled["watermark"] = filled_watermark(parts.watermark, row)
    return parts.model_copy(update=filled)


def parts_alike(finish: Finish, style: HouseStyle) -> tuple[PartKey, ...]:
    """The parts that a finish has just as the style gives them, pieces under whatever ids."""
    parts = _filled(style.parts, finish, NO_ROW)
    pieces = parts.pieces or ()
    if len(_twins(_own_pieces(finish), pieces)) == len(pieces):
        finish = _put_pieces(finish, pieces)
    return tuple(part.key for part in PARTS if _is_given(part, parts, finish))


def without_style(finish: Finish) -> Finish:
    """``finish`` with what it had before its style; what somebody changed since stays."""
    if finish.style is None:
        return finish
    found, bare = finish.style.found, _without_parts(finish)
    cut_out = bare.cut_out
    if found and cut_out.boxes == found and not cut_out.strokes and cut_out.mask is None:
        unfound = {"boxes": (), "found_by": CutOut().found_by}
        bare = bare.model_copy(update={"cut_out": cut_out.model_copy(update=unfound)})
    return _as_own(bare).model_copy(update={"style": None})


def _without_parts(finish: Finish) -> Finish:
    """The parts that are still as the style gave them, as they were before."""
    use = finish.style
    assert use is not None
    mine = changed_since(finish)
    for part in PARTS:
        if part.key in use.gave.given and part.key not in mine:
            finish = part.put_back(finish, getattr(use.before, part.key))
    return finish


def changed_since(finish: Finish) -> tuple[PartKey, ...]:
    """The parts of its style that a finish has otherwise than it was given them."""
    use = finish.style
    if use is None:
        return ()
    return tuple(
        part.key
        for part in PARTS
        if part.key in use.gave.given and not _is_given(part, use.gave, finish)
    )


def _is_given(part: StylePart, gave: StyleParts, finish: Finish) -> bool:
    """Whether a finish has a part just as it is given."""
    given = getattr(gave, part.key)
    return given is not None and part.compared(part.of(finish)) == part.compared(given)
