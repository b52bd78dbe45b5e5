"""Proposals for words: what makes them readable, where the picture is calm, and what they say to
those who cannot see it."""

from lucky_margin.core.checks import make_readable, text_on
from lucky_margin.core.document import BadgePiece, MarkPiece, Piece, TextPiece
from lucky_margin.core.document.steps import MOST_ALT_LETTERS
from lucky_margin.core.edits.moving import PlacePiece
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.edits.steps import SetFileDetails
from lucky_margin.core.proposals.proposal import Proposal
from lucky_margin.core.render import calm_places_of
from lucky_margin.core.scene import Scene

QUOTED = "\N{LEFT DOUBLE QUOTATION MARK}{}\N{RIGHT DOUBLE QUOTATION MARK}"

LIGHT, DARK = "#FFFFFF", "#1E2A2F"
MIDDLE = 0.62
"""OKLab lightness behind words from which they are dark."""


def readable_proposal(scene: Scene, piece_id: str) -> Proposal:
    """The least that makes a text readable.

    Raises:
        BadInput: the piece is no text.
        NotFound: it is not on the size, or the photo is not known.
    """
    mended = make_readable(scene, piece_id)
    if mended is None:
        return Proposal(message="These words are readable as they are.")
    changes, message = mended
    return Proposal(message=message, edit=SetPiece(ids=(piece_id,), changes=changes))


def calm_place_proposal(scene: Scene, piece_id: str, place: int = 0) -> Proposal:
    """A place where the picture is quiet enough for a text; 0 is the calmest, 1 the next best,
    and after the last one the first comes again.

    Raises:
        BadInput: the piece is no text.
        NotFound: it is not on the size, or the photo is not known.
    """
    text_on(scene, piece_id)
    places = calm_places_of(scene, piece_id)
    if not places:
        return Proposal(
            message="These words do not fit inside the margin; make them smaller first."
        )
    number = place % len(places)
    best = places[number]
    colour = DARK if best.lightness > MIDDLE else LIGHT
    return Proposal(
        message=f"Place {number + 1} of {len(places)}, the calmest first.",
        edit=PlacePiece(id=piece_id, x=best.x, y=best.y, colour=colour),
    )


def alt_text_proposal(scene: Scene) -> Proposal:
    """An alternative text from the finish's name and the words on the size, read from the top."""
    by_place = sorted(scene.pieces, key=lambda laid: (laid.bounds.top, laid.bounds.left))
    lines = [line for laid in by_place for line in _words_of(laid.piece)]
    said = ", ".join(QUOTED.format(line) for line in lines)
    name = " ".join(scene.finish.name.replace("_", " ").split()).rstrip(".")
    text = f"{name}. Words in the picture: {said}." if said else f"{name}."
    return Proposal(
        message="Taken from the name and the words. Say what the picture shows, too.",
        edit=SetFileDetails(alt_text=text[:MOST_ALT_LETTERS]),
    )


def _words_of(piece: Piece) -> list[str]:
    """What a piece says, a line of text each."""
    match piece:
        case TextPiece() | BadgePiece():
            words = [piece.text]
        case MarkPiece():
            words = [piece.mark.design.words, piece.mark.design.line]
        case _:
            words = []
    return [" ".join(line.split()) for line in words if line.strip()]
