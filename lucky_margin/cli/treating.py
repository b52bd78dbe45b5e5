"""The treatments and lifts that the options of the command line ask for."""

import argparse
from typing import get_args

from lucky_margin.cli import values
from lucky_margin.core.document import (
    Lift,
    LiftBase,
    Lifts,
    Reveal,
    ShapeRegion,
    SubjectAreaMask,
    Treatment,
    Treatments,
)
from lucky_margin.core.errors import BadInput
from lucky_margin.core.treatments import TREATMENT_STYLES

WHERE = {"subject": False, "background": True}
"""By the option's words: whether it is all but the subject."""

EXAMPLE = "print-dots:80%@background"


def add_options(parser: argparse.ArgumentParser) -> None:
    """Options for treatments."""
    names = ", ".join(style.key for style in TREATMENT_STYLES)
    parser.add_argument(
        "--treat",
        action="append",
        metavar="NAME[:N%%][@WHERE]",
        help=f"change the photo's texture, several in order: {names}; @subject or @background only",
    )
    parser.add_argument(
        "--lift",
        action="append",
        metavar="LEFT,TOP,RIGHT,BOTTOM",
        help="raise a part of the photo (0..1) over its greyed base, several in order",
    )
    parser.add_argument(
        "--reveal",
        choices=get_args(Reveal.model_fields["way"].annotation),
        help="an animated WebP or GIF, by OUT's suffix, from the plain photo to its lifts",
    )


def reveal_of(chosen: argparse.Namespace) -> Reveal:
    """The animation that is asked for, in the format of OUT's suffix; in a folder, WebP.

    Raises:
        BadInput: the suffix is none of an animation.
    """
    suffix = chosen.out.suffix.lower()
    if chosen.reveal and suffix not in ("", ".webp", ".gif"):
        raise BadInput(f"--reveal writes .webp or .gif, not {chosen.out.suffix}.")
    return Reveal(way=chosen.reveal or "side", format="gif" if suffix == ".gif" else "webp")


def lifts_of(chosen: argparse.Namespace) -> Lifts:
    """
    Raises:
        BadInput: one can't be read.
    """
    if not chosen.lift:
        return Lifts()
    regions = [ShapeRegion(box=values.box(text, "--lift")) for text in chosen.lift]
    return Lifts(base=LiftBase(grey=1), lifted=tuple(Lift(region=region) for region in regions))


def treatments_of(chosen: argparse.Namespace) -> Treatments:
    """
    Raises:
        BadInput: one can't be read.
    """
    return Treatments(made=tuple(_treatment(text) for text in chosen.treat or ()))


def needs_subject(chosen: argparse.Namespace) -> bool:
    """Whether one is made of a part of the photo."""
    return any("@" in text for text in chosen.treat or ())


def _treatment(text: str) -> Treatment:
    named, _, where = text.partition("@")
    name, _, amount = named.partition(":")
    found = next((one.treatment for one in TREATMENT_STYLES if one.key == name), None)
    if found is None:
        known = ", ".join(style.key for style in TREATMENT_STYLES)
        raise BadInput(f"There is no treatment “{name}”; take one of {known}.")
    fields: dict[str, object] = {}
    if amount:
        fields["strength"] = 100 * values.percent(amount, "--treat")
    if where and where not in WHERE:
        raise BadInput(f"--treat is written like {EXAMPLE}, not “{text}”.")
    if where:
        fields["masks"] = (SubjectAreaMask(inverted=WHERE[where]),)
    return type(found).model_validate(found.model_dump() | fields)
