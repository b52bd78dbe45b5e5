"""The border that the options of the command line ask for."""

import argparse
from pathlib import Path
from typing import get_args

from lucky_margin.cli import values
from lucky_margin.core.borders import FRAME_STYLES
from lucky_margin.core.document import (
    MOST_BANDS,
    STOCK_PATTERNS,
    Border,
    BorderBand,
    BrushedBand,
    BrushedLook,
    LineBand,
    MatBand,
    PatternBand,
    Profile,
    Sides,
)
from lucky_margin.core.errors import BadInput

_PROFILES = {"mat": "board", **{name: name for name in get_args(Profile) if name != "board"}}
_LOOKS: tuple[str, ...] = get_args(BrushedLook)


def add_options(parser: argparse.ArgumentParser) -> None:
    """Options for the border."""
    border = parser.add_mutually_exclusive_group()
    border.add_argument("--border", metavar="N%%[:#COLOUR]", help="a line, of the short side")
    border.add_argument(
        "--frame",
        action="append",
        metavar="NAME|KIND:N%%[:#COLOUR]",
        help="a frame style such as oak or vine, or a band of a kind, up to three from the outside "
        f"inwards: line, {', '.join(_PROFILES)}, a pattern ({STOCK_PATTERNS[0]} ...) or "
        f"{', '.join(_LOOKS)}",
    )
    parser.add_argument(
        "--pattern",
        metavar="NAME|FILE",
        help="one more band inside: a stock pattern, or a picture of a frame or a strip",
    )
    parser.add_argument("--border-outside", action="store_true", help="frame the photo smaller")


def border_of(chosen: argparse.Namespace) -> Border:
    """
    Raises:
        BadInput: there is no such frame or kind, or too many bands.
    """
    outside = chosen.border_outside
    texts = [f"line:{chosen.border}"] if chosen.border else chosen.frame or []
    bands = [band for text in texts for band in _framed(text, outside)]
    if chosen.pattern in STOCK_PATTERNS:
        bands.append(PatternBand(pattern=chosen.pattern, around=True))
    count = len(bands) + (pattern_file(chosen) is not None)
    if count > MOST_BANDS:
        raise BadInput(f"A border has {MOST_BANDS} bands at most, not {count}.")
    return Border.of(*bands)


def pattern_file(chosen: argparse.Namespace) -> Path | None:
    """The picture that the innermost band is to be made of."""
    return Path(chosen.pattern) if chosen.pattern and chosen.pattern not in STOCK_PATTERNS else None


def _framed(text: str, outside: bool) -> tuple[BorderBand, ...]:
    known = {style.key: style.border.bands for style in FRAME_STYLES}
    if text in known:
        return known[text]
    if ":" not in text:
        raise BadInput(
            f"There is no frame “{text}”; take one of {', '.join(known)}, or a band such as mat:9%."
        )
    return (_band(text, outside),)


def _band(text: str, outside: bool) -> BorderBand:
    kind, _, rest = text.partition(":")
    percent, _, colour = rest.partition(":")
    name = "--border" if kind == "line" else "--frame"
    fields: dict[str, object] = {"thickness": Sides.all(values.percent(percent, name))}
    if colour:
        fields["colour"] = colour
    if kind in _LOOKS:
        return BrushedBand.model_validate(fields | {"look": kind})
    if kind == "line":
        return LineBand.model_validate(fields | {"around": outside})
    if kind in _PROFILES:
        return MatBand.model_validate(fields | {"profile": _PROFILES[kind], "around": True})
    if kind in STOCK_PATTERNS:
        return PatternBand.model_validate(fields | {"pattern": kind, "around": True})
    raise BadInput(f"There is no band of the kind “{kind}”.")
