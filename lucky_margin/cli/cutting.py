"""Options of ``finish`` that cut the subject out."""

import argparse
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from lucky_margin.cli import treating, values
from lucky_margin.core.checks.cut_out_checks import subject as subject_check
from lucky_margin.core.document import (
    Area,
    CastShadow,
    ContactShadow,
    Outlines,
    SubjectAreaMask,
    SubjectOutline,
    SubjectShadow,
)
from lucky_margin.core.document.areas import AREA_SETTINGS
from lucky_margin.core.edits import Edit
from lucky_margin.core.edits.cut_out import SetSubject, SetSubjectMask
from lucky_margin.core.errors import BadInput
from lucky_margin.core.proposals import Proposal, placing_proposal, subject_proposal
from lucky_margin.core.scene import Scene

SHADOWS: dict[str, dict[str, Any]] = {
    "soft": {"cast": CastShadow()},
    "standing": {"contact": ContactShadow()},
    "photo": {"own": 1.0},
}
"""By the option's words: its shape to one side, under its foot, and the one in the photo."""

AREAS = {"subject": False, "background": True}
"""By the option's words: whether it is all but the subject."""

AREA_EXAMPLE = "background:saturation=-100,feather=20"

_EDGE = ("shift", "feather")
"""Of an area; in photo pixels."""

OUTLINE_EXAMPLE = "2%:#FFFFFF:soft=30%:gap=1%"


def add_options(finish: argparse.ArgumentParser) -> None:
    """Add them to the command's parser."""
    subject = finish.add_mutually_exclusive_group()
    subject.add_argument(
        "--cut-out",
        action="append",
        metavar="BOX",
        help="cut the subject out: auto, or its box LEFT,TOP,RIGHT,BOTTOM in 0..1; several times "
        "for several subjects",
    )
    subject.add_argument(
        "--mask", type=Path, metavar="FILE", help="cut out what is white in this picture"
    )
    finish.add_argument(
        "--outline",
        action="append",
        metavar="N%%[:#COLOUR][:soft=N%%][:gap=N%%]",
        help="an outline round the subject, of the short side; several times, the lowest first",
    )
    finish.add_argument(
        "--shadow",
        action="append",
        choices=list(SHADOWS),
        help="a shadow of the subject on its ground; several times for several",
    )
    finish.add_argument(
        "--area",
        action="append",
        metavar="WHERE:NAME=N,...",
        help="light and colour of the subject or the background alone, cut out or not, such as "
        f"{AREA_EXAMPLE} (feather in photo pixels); several times for several",
    )
    finish.add_argument(
        "--crop-to-subject", metavar="N%%", help="crop to the subject with this much room around it"
    )
    finish.add_argument(
        "--save-mask",
        type=Path,
        metavar="FILE",
        help="save the cut-out of the first size as a picture too: white is subject",
    )
    finish.add_argument(
        "--save-cut-line",
        type=Path,
        metavar="FILE.svg",
        help="save the line round the first size's subject too, for a cutting plotter",
    )
    finish.add_argument(
        "--strict", action="store_true", help="exit with 3 where a cut-out should be checked"
    )


def check_options(chosen: argparse.Namespace) -> None:
    """
    Raises:
        BadInput: an option needs a cut-out and there is none, or two say what is shown.
    """
    if chosen.crop_to_subject and (chosen.trim or chosen.window):
        raise BadInput("--crop-to-subject says what is shown; leave --trim and --window out.")
    if chosen.cut_out or chosen.mask:
        return
    for option in (
        *("outline", "shadow", "text_behind", "crop_to_subject"),
        *("save_mask", "save_cut_line", "strict"),
    ):
        if getattr(chosen, option):
            raise BadInput(f"--{option.replace('_', '-')} needs --cut-out or --mask.")


def outlines(chosen: argparse.Namespace) -> Outlines:
    """The lines that are asked for.

    Raises:
        BadInput: one can't be read.
    """
    return Outlines(lines=tuple(_outline(text) for text in chosen.outline or ()))


def shadow(chosen: argparse.Namespace) -> SubjectShadow:
    """The shadows that are asked for."""
    fields: dict[str, Any] = {}
    for name in chosen.shadow or ():
        fields |= SHADOWS[name]
    return SubjectShadow(**fields)


def areas(chosen: argparse.Namespace, scene: Scene) -> tuple[Area, ...]:
    """The parts of the photo that are asked for.

    Raises:
        BadInput: one can't be read.
    """
    long_side = max(scene.facts.width, scene.facts.height)
    return tuple(_area(text, long_side) for text in chosen.area or ())


def cutting_edits(chosen: argparse.Namespace, scene: Scene, mask: str | None) -> Iterator[Edit]:
    """The edit that cuts the subject out, or only finds it where nothing but areas need it;
    ``mask`` is the SHA-256 of the mask's picture."""
    if mask is not None:
        yield SetSubjectMask(mask=mask)
    elif chosen.cut_out == ["auto"]:
        proposal = subject_proposal(scene)
        if proposal.edit is not None:
            yield proposal.edit
    elif chosen.cut_out:
        yield SetSubject(boxes=tuple(values.box(text, "--cut-out") for text in chosen.cut_out))
    elif chosen.area or treating.needs_subject(chosen):
        found = subject_proposal(scene, cut_out=False)
        if found.edit is not None:
            yield found.edit


def placing(chosen: argparse.Namespace, scene: Scene) -> Proposal | None:
    """The window around the subject, where that is asked for."""
    if not chosen.crop_to_subject:
        return None
    return placing_proposal(scene, values.percent(chosen.crop_to_subject, "--crop-to-subject"))


def doubt(scene: Scene) -> str | None:
    """Why the cut-out should be checked."""
    found = subject_check(scene)
    return found.text if found else None


def _area(text: str, long_side: int) -> Area:
    where, _, numbers = text.partition(":")
    if where not in AREAS or not numbers:
        raise BadInput(f"--area is written like {AREA_EXAMPLE}, not “{text}”.")
    found = values.settings(numbers, (*AREA_SETTINGS, *_EDGE), "--area")
    edge = {name: found.pop(name) / long_side for name in _EDGE if name in found}
    mask = SubjectAreaMask.model_validate({"inverted": AREAS[where], **edge})
    return Area.model_validate({"masks": (mask,), **found})


def _outline(text: str) -> SubjectOutline:
    width, *others = text.split(":")
    fields: dict[str, float | str] = {"width": values.percent(width, "--outline")}
    for part in others:
        name, _, share = part.partition("=")
        if name.startswith("#"):
            fields["colour"] = name
        elif name in ("soft", "gap"):
            fields["softness" if name == "soft" else name] = values.percent(share, "--outline")
        else:
            raise BadInput(f"--outline is written like {OUTLINE_EXAMPLE}, not “{text}”.")
    return SubjectOutline.model_validate(fields)
