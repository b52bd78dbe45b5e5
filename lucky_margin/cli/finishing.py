"""``lucky-margin finish``: the options as edits of a fresh finish of each photo."""

import argparse
import contextlib
import sys
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path
from typing import TypeVar

from tqdm import tqdm

from lucky_margin.cli import bordering, cutting, treating, values
from lucky_margin.cli.data import data_folder
from lucky_margin.cli.files import FORMAT_OF_SUFFIX, format_of, read_photo, write, write_bytes
from lucky_margin.cli.lettering import kept_mark, lettered, logo_of, settled
from lucky_margin.core.document import (
    Box,
    Export,
    Finish,
    Focus,
    LookUse,
    Point,
    Rectangle,
    Size,
    SizePlan,
    Tone,
    Turn,
    UsedMark,
    new_finish,
)
from lucky_margin.core.edits import Edit, apply_edit
from lucky_margin.core.edits.borders import SetBandPicture
from lucky_margin.core.edits.framing import SetContain, SetWindow
from lucky_margin.core.edits.shapes import SetShape
from lucky_margin.core.edits.sizes import ChooseRatio, size_of_plan
from lucky_margin.core.edits.squaring import SquareUp
from lucky_margin.core.errors import BadInput, LuckyMarginError
from lucky_margin.core.export import cut_line, export, export_reveal, mask_file, open_raster
from lucky_margin.core.photos import DecodedPhoto
from lucky_margin.core.proposals import Proposal, focus_proposal, tone_proposal, trim_proposal
from lucky_margin.core.scene import MemorySources, Scene, Sources
from lucky_margin.core.text import STAND_IN, Face, is_own
from lucky_margin.core.types import ImageFormat
from lucky_margin.store import Store

Item = TypeVar("Item")


@dataclass
class Outcome:
    """How many photos could not be finished, and of how many the cut-out should be checked."""

    failed: int = 0
    doubtful: int = 0


def finish_photos(chosen: argparse.Namespace) -> Outcome:
    """Finish every photo.

    Raises:
        LuckyMarginError: the only photo could not be, or the options do not fit together.
    """
    cutting.check_options(chosen)
    several_photos = len(chosen.photos) > 1
    if several_photos and (chosen.save_mask or chosen.save_cut_line):
        raise BadInput("--save-mask and --save-cut-line take one photo at a time.")
    several = several_photos or len(chosen.size or ()) > 1
    if several and chosen.out.suffix.lower() in FORMAT_OF_SUFFIX:
        what = "photos" if several_photos else "sizes"
        raise BadInput(f"Several {what} need a folder as OUT, not the file {chosen.out}.")
    to_folder = several or chosen.out.is_dir() or not chosen.out.suffix
    image_format = chosen.format
    if not to_folder and not chosen.reveal:
        image_format = format_of(chosen.out, chosen.format)
    outcome = Outcome()
    for path in _with_progress(chosen.photos):
        try:
            doubt = _finish_photo(path, chosen, image_format, to_folder)
        except (LuckyMarginError, OSError) as error:
            if not several_photos:
                raise
            outcome.failed += 1
            print(f"{path}: {error}", file=sys.stderr)
            continue
        if doubt:
            outcome.doubtful += 1
            print(f"{path}: {doubt}", file=sys.stderr)
    return outcome


def _finish_photo(
    path: Path, chosen: argparse.Namespace, image_format: ImageFormat | None, to_folder: bool
) -> str | None:
    """Finish one photo; returns why its cut-out should be checked, if it should."""
    photo, digest = read_photo(path)
    look, tables = values.look(chosen.look) if chosen.look else (None, {})
    family, fonts = values.font(chosen.font or STAND_IN)
    mark, face = _kept_mark(chosen)
    if mark and face:
        fonts[mark.design.family] = face
    photos = {digest: photo}
    mask = _added(chosen.mask, photos)
    drawing = _added(chosen.mark_file, photos)
    logo = logo_of(drawing, photos[drawing]) if drawing else None
    pattern = _added(bordering.pattern_file(chosen), photos)
    sources = MemorySources(photos, tables=tables, fonts=fonts)
    finish = _fresh(path.stem[:120], digest, chosen, image_format)
    finish = _prepared(finish, chosen, sources, pattern)
    tone = _tone(chosen, finish.tone, look)
    areas = cutting.areas(chosen, Scene(finish, finish.sizes[0], sources))
    finish = finish.model_copy(update={"tone": tone.model_copy(update={"areas": areas})})
    for edit in cutting.cutting_edits(chosen, Scene(finish, finish.sizes[0], sources), mask):
        finish = apply_edit(Scene(finish, finish.sizes[0], sources), edit).finish
    for size in finish.sizes:
        finish = _framed(finish, size.id, chosen, sources)
    worded = lettered(finish, chosen, family, logo, mark)
    finish = Finish.model_validate(worded.model_dump())
    for size in finish.sizes:
        finish = settled(finish, size.id, chosen, sources)
    for size in finish.sizes:
        make = export_reveal if chosen.reveal else export
        scene = Scene(finish, size, sources)
        file = make(scene)
        path = chosen.out / file.file_name if to_folder else chosen.out
        write(file, path, chosen.replace)
        if chosen.layers:
            write_bytes(open_raster(scene), path.with_suffix(".ora"), chosen.replace)
    scene = Scene(finish, finish.sizes[0], sources)
    if chosen.save_mask:
        write_bytes(mask_file(scene), chosen.save_mask, chosen.replace)
    if chosen.save_cut_line:
        write_bytes(cut_line(scene), chosen.save_cut_line, chosen.replace)
    return cutting.doubt(scene)


def _added(file: Path | str | None, photos: dict[str, DecodedPhoto]) -> str | None:
    """The hash of a picture that an option names, which is added to ``photos``."""
    if not file:
        return None
    picture, sha256 = read_photo(Path(file))
    photos[sha256] = picture
    return sha256


def _prepared(
    finish: Finish, chosen: argparse.Namespace, sources: Sources, pattern: str | None
) -> Finish:
    """The finish with what comes before all else: the border's picture, squaring up, and what is
    proposed."""
    if pattern:
        laid = SetBandPicture(band=len(finish.border.bands), sha256=pattern)
        finish = apply_edit(Scene(finish, finish.sizes[0], sources), laid).finish
    if chosen.square:
        finish = apply_edit(Scene(finish, finish.sizes[0], sources), _square(chosen.square)).finish
    for proposal in _proposals_for_all(finish, chosen, sources):
        finish = _taken(proposal, Scene(finish, finish.sizes[0], sources))
    return finish


def _framed(finish: Finish, size_id: str, chosen: argparse.Namespace, sources: Sources) -> Finish:
    """The finish with what the options ask of one size."""
    for edit in _edits(chosen):
        edited = apply_edit(Scene.of(finish, size_id, sources), edit)
        finish = edited.finish
        if edited.message:
            print(edited.message, file=sys.stderr)
    scene = Scene.of(finish, size_id, sources)
    if chosen.trim and not chosen.window:
        finish = _taken(trim_proposal(scene), scene)
    elif placed := cutting.placing(chosen, scene):
        finish = _taken(placed, scene)
    return finish


def _proposals_for_all(
    finish: Finish, chosen: argparse.Namespace, sources: Sources
) -> Iterator[Proposal]:
    """What is asked to be proposed for all sizes together."""
    if chosen.focus == "auto":
        yield focus_proposal(Scene(finish, finish.sizes[0], sources))
    if chosen.auto:
        yield tone_proposal(Scene(finish, finish.sizes[0], sources))


def _taken(proposal: Proposal, scene: Scene) -> Finish:
    """The scene's finish as proposed; when there is nothing to propose, that is said."""
    if proposal.edit is None:
        print(proposal.message, file=sys.stderr)
        return scene.finish
    return apply_edit(scene, proposal.edit).finish


def _kept_mark(chosen: argparse.Namespace) -> tuple[UsedMark | None, Face | None]:
    """The mark that is asked for, and its own font if it has one."""
    if not chosen.mark:
        return None, None
    with contextlib.closing(Store(data_folder())) as store:
        mark = kept_mark(chosen.mark, store)
        family = mark.design.family
        return mark, store.fonts.face(family) if is_own(family) else None


def _fresh(
    name: str, digest: str, chosen: argparse.Namespace, image_format: ImageFormat | None
) -> Finish:
    """A finish of the photo with what the options say of all sizes."""
    plans = [values.size_plan(text) for text in chosen.size or ["as-cropped"]]
    exported = {
        "quality": chosen.quality,
        "max_kb": chosen.max_kb,
        "reveal": treating.reveal_of(chosen),
        "lossless": chosen.lossless,
        "progressive": chosen.progressive,
        "colours": chosen.colours,
        "bleed": chosen.bleed,
        "title": chosen.title,
        "description": chosen.description,
        "alt_text": chosen.alt,
    }
    finish = new_finish(name=name, photo_sha256=digest)
    fields = {
        "sizes": [_size(plan, number, image_format) for number, plan in enumerate(plans)],
        "turn": Turn(straighten=chosen.straighten),
        "focus": _focus(chosen.focus),
        "treatments": treating.treatments_of(chosen),
        "lifts": treating.lifts_of(chosen),
        "border": bordering.border_of(chosen),
        "outlines": cutting.outlines(chosen),
        "subject_shadow": cutting.shadow(chosen),
        "export": Export(format=image_format or "jpeg", **exported),
    }
    for place in ("backdrop", "outside"):
        if text := getattr(chosen, place):
            fields[place] = values.ground(text, f"--{place}")
    return Finish.model_validate(finish.model_dump() | fields)


def _size(plan: SizePlan, number: int, image_format: ImageFormat | None) -> Size:
    """A format that was asked for goes before the size's override."""
    size = size_of_plan(plan, "main" if number == 0 else f"size-{number + 1}")
    if image_format is None:
        return size
    return size.with_overrides(export=size.overrides.export.model_dump(exclude={"format"}))


def _focus(text: str | None) -> Focus | None:
    if not text or text == "auto":
        return None
    x, y = values.numbers(text, ",", 2, "--focus", "0.5,0.4")
    return Focus(point=Point(x=x, y=y))


def _tone(chosen: argparse.Namespace, proposed: Tone, look: LookUse | None) -> Tone:
    """What is proposed, then the look, then what is set."""
    tone = proposed.model_copy(update={"look": look})
    return values.tone(chosen.tone).applied_to(tone) if chosen.tone else tone


def _square(text: str) -> SquareUp:
    places = values.numbers(text, ",", 8, "--square", "120,80,900,140,880,700,100,640")
    return SquareUp(corners=tuple(zip(places[::2], places[1::2], strict=True)))


def _edits(chosen: argparse.Namespace) -> Iterator[Edit]:
    """What the options ask of each size."""
    if chosen.ratio:
        original = chosen.ratio == "original"
        yield ChooseRatio(ratio="original" if original else values.ratio(chosen.ratio))
    if chosen.contain:
        yield SetContain(contain=True)
    if chosen.window:
        left, top, width, height = values.numbers(
            chosen.window, ",", 4, "--window", "100,50,800,600"
        )
        if width <= 0 or height <= 0:
            raise BadInput("--window needs a width and a height over 0.")
        yield SetWindow(window=Box(left=left, top=top, width=width, height=height))
    if chosen.shape:
        yield SetShape(shape=values.shape(chosen.shape))
    if chosen.radius:
        if chosen.shape and chosen.shape != "rectangle":
            raise BadInput("--radius rounds a rectangle; leave it out with another --shape.")
        yield SetShape(shape=Rectangle(radius=values.percent(chosen.radius, "--radius")))


def _with_progress(items: list[Item]) -> Iterator[Item]:
    """``items``, with a progress bar when there are several and somebody is watching."""
    quiet = len(items) == 1 or not sys.stderr.isatty()
    shown: Iterable[Item] = tqdm(items, unit="photo", disable=quiet)
    yield from shown
