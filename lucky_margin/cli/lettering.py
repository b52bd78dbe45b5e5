"""Words and marks of ``lucky-margin finish``."""

import argparse
from typing import Any

from lucky_margin.cli import values
from lucky_margin.core.document import (
    AnyFamily,
    Finish,
    KnockOut,
    MarginAnchor,
    MarkLogo,
    Shadow,
    TextPiece,
    UsedMark,
    Watermark,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.errors import BadInput
from lucky_margin.core.photos import DecodedPhoto
from lucky_margin.core.pieces import plain_background
from lucky_margin.core.proposals import Proposal, calm_place_proposal, readable_proposal
from lucky_margin.core.sampling import as_8_bits
from lucky_margin.core.scene import Scene, Sources
from lucky_margin.core.text import FAMILIES
from lucky_margin.store import Store, used

ROWS = {"upper": 0.0, "middle": 0.5, "lower": 1.0}
COLUMNS = {"left": 0.0, "centre": 0.5, "right": 1.0}
PLACES = {
    **{f"{row}-{column}": (x, y) for row, y in ROWS.items() for column, x in COLUMNS.items()},
    "middle": (0.5, 0.5),
}
"""Nine places of the margin box by name."""

MARK_SIZE = 0.04


def add_options(finish: argparse.ArgumentParser) -> None:
    """The options of words and marks."""
    finish.add_argument("--text", metavar="WORDS", help="words on the picture; \\n ends a line")
    finish.add_argument(
        "--text-at", metavar="PLACE", help="such as upper-left, lower-centre, middle; or calm"
    )
    finish.add_argument(
        "--text-behind", action="store_true", help="the words behind the subject that is cut out"
    )
    finish.add_argument("--text-size", metavar="N%%", help="of the short side; default: 8%%")
    finish.add_argument(
        "--font", metavar="NAME", help=f"a TTF or OTF file, or one of {', '.join(FAMILIES)}"
    )
    finish.add_argument(
        "--text-colour", "--text-color", metavar="#COLOUR", help="or auto: a readable one"
    )
    mark = finish.add_mutually_exclusive_group()
    mark.add_argument("--mark-text", metavar="WORDS", help="words as a watermark")
    mark.add_argument(
        "--mark-file",
        metavar="FILE",
        help="a logo as a watermark; a plain background becomes transparent",
    )
    mark.add_argument("--mark", metavar="NAME", help="a saved mark as a watermark")
    finish.add_argument("--mark-at", metavar="PLACE", help="default: lower-right")
    finish.add_argument("--mark-repeat", action="store_true", help="repeat it all over the picture")
    finish.add_argument("--mark-opacity", metavar="N%%", help="default: 35%%")


def lettered(
    finish: Finish,
    chosen: argparse.Namespace,
    family: AnyFamily,
    logo: MarkLogo | None,
    mark: UsedMark | None,
) -> Finish:
    """``finish`` with the words and the mark that the options name; ``family`` is that of --font,
    ``logo`` that of --mark-file, ``mark`` that of --mark.

    Raises:
        BadInput: an option is not understood.
    """
    pieces = (_text(chosen, family),) if chosen.text else ()
    watermark = _watermark(chosen, logo, mark)
    return finish.model_copy(update={"pieces": pieces, "watermark": watermark})


def logo_of(sha256: str, photo: DecodedPhoto) -> MarkLogo:
    """A file as a mark; the plain colour that it may lie on is left out."""
    facts = photo.facts
    colour = plain_background(as_8_bits(photo.picture))
    return MarkLogo(
        sha256=sha256,
        ratio=facts.width / facts.height,
        knock_out=KnockOut(colour=colour) if colour else None,
    )


def kept_mark(name: str, store: Store) -> UsedMark:
    """The kept mark of a name.

    Raises:
        BadInput: there is none.
    """
    marks = store.marks.list()
    for mark in marks:
        if mark.name.casefold() == name.strip().casefold():
            return used(mark)
    known = ", ".join(f"“{mark.name}”" for mark in marks) or "none yet"
    raise BadInput(f"--mark needs the name of a saved mark ({known}), not “{name}”.")


def settled(finish: Finish, size_id: str, chosen: argparse.Namespace, sources: Sources) -> Finish:
    """What depends on the picture: a calm place and a colour that can be read, for one size."""
    if chosen.text_at == "calm":
        proposal = calm_place_proposal(Scene.of(finish, size_id, sources), "text-1")
        if proposal.edit is None:
            raise BadInput(f"--text: {proposal.message}")
        finish = _taken(proposal, finish, size_id, sources, colour=None)
    if chosen.text and chosen.text_colour == "auto":
        proposal = readable_proposal(Scene.of(finish, size_id, sources), "text-1")
        finish = _taken(proposal, finish, size_id, sources)
    return finish


def _taken(
    proposal: Proposal, finish: Finish, size_id: str, sources: Sources, **changed: Any
) -> Finish:
    """``finish`` as proposed for one size, where anything is; ``changed`` fields of the edit."""
    if proposal.edit is None:
        return finish
    edit = proposal.edit.model_copy(update={"only_this_size": True} | changed)
    return apply_edit(Scene.of(finish, size_id, sources), edit).finish


def _text(chosen: argparse.Namespace, family: AnyFamily) -> TextPiece:
    anchor = MarginAnchor(x=0.5, y=1)
    if chosen.text_at and chosen.text_at != "calm":
        anchor = _anchor(chosen.text_at, "--text-at")
    colour = chosen.text_colour if chosen.text_colour not in (None, "auto") else "#FFFFFF"
    align = {0.0: "left", 0.5: "centre", 1.0: "right"}[anchor.x]
    return TextPiece.model_validate(
        {
            "id": "text-1",
            "behind": chosen.text_behind,
            "text": chosen.text.replace("\\n", "\n"),
            "family": family,
            "size": values.percent(chosen.text_size or "8%", "--text-size"),
            "anchor": anchor,
            "align": align,
            "colour": colour,
            "shadow": Shadow(),
        }
    )


def _watermark(
    chosen: argparse.Namespace, logo: MarkLogo | None, mark: UsedMark | None
) -> Watermark:
    if not (chosen.mark_text or logo or mark):
        return Watermark()
    return Watermark(
        text=chosen.mark_text or "",
        logo=logo,
        mark=mark,
        size=MARK_SIZE,
        opacity=_opacity(chosen),
        place="repeated" if chosen.mark_repeat else "spot",
        spot=_anchor(chosen.mark_at or "lower-right", "--mark-at"),
    )


def _opacity(chosen: argparse.Namespace) -> float:
    if chosen.mark_opacity:
        return values.percent(chosen.mark_opacity, "--mark-opacity")
    return Watermark().opacity


def _anchor(name: str, option: str) -> MarginAnchor:
    place = PLACES.get(name.strip().lower().replace("center", "centre"))
    if place is None:
        raise BadInput(f"{option} needs one of {', '.join(PLACES)}, not “{name}”.")
    return MarginAnchor(x=place[0], y=place[1])
