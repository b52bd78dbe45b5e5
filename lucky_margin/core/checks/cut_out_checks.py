"""Checks of the cut-out: its subject, the lines round it, and the ground behind it. All thresholds
stand here."""

from collections.abc import Iterator
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from lucky_margin.core import oklab
from lucky_margin.core.checks.check import Check, CheckAction, percent
from lucky_margin.core.cut_out import doubts_about
from lucky_margin.core.document import (
    Box,
    OutlinesChanges,
    Size,
    SolidColour,
    SubjectOutline,
    WatermarkChanges,
    rgb_of,
)
from lucky_margin.core.edits.framing import SetWindow
from lucky_margin.core.edits.steps import SetGround, SetOutlines
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.render import render
from lucky_margin.core.render.shown import seen_coverage, shown_photo
from lucky_margin.core.render.subject_lines import subject_distance
from lucky_margin.core.sampling.srgb import decode, encode
from lucky_margin.core.scene import Scene
from lucky_margin.core.types import Picture8

Floats = NDArray[np.float64]

MEASURED_SIDE = 960
"""Longest side of the picture on which lines and grounds are measured."""

SEEN = 0.12
"""Distance in OKLab from which a line stands off from what lies next to it."""

MOST_UNSEEN = 0.2
"""Share of a line's length that may be nearer than that without a word."""

NEXT_TO = 2.0
"""Pixels past a line's edge that count as what lies next to it."""

NEARLY_WHITE = 235
"""Least of 255 in each channel of a ground that is meant to be white."""

LEAST_ENDED = 0.02
"""Length of a straight edge, in the photo's long sides, that is worth a word."""

_LIGHTNESS_STEP = 0.02


def subject(scene: Scene) -> Check | None:
    """Whether what was found should be looked at, and why."""
    if not scene.cut_out.on:
        return None
    photo, cut_out = shown_photo(scene), scene.cut_out
    if cut_out.mask or (not cut_out.boxes and photo.brings_own):
        return None  # nothing was guessed
    doubts = doubts_about(
        photo.matte(), photo.fringe_colours(), photo.strands_at_edge(), photo.disagreement()
    )
    if not doubts:
        return None
    text = f"Please check the cut-out: {', and '.join(doubts)}."
    return Check(key="subject", severity="warning", text=text)


def ended(scene: Scene) -> Check | None:
    """Whether a straight edge shows where the photo, as it was taken, ended and the subject with
    it."""
    if not scene.cut_out.on or scene.photo.turn.is_set:
        return None
    cover = seen_coverage(scene) >= 128
    window = scene.frame.sampled
    right, bottom = scene.facts.width - window.width, scene.facts.height - window.height
    edges = {
        "left": (cover[:, 0], window.left < -1, {"left": 0.0}),
        "top": (cover[0], window.top < -1, {"top": 0.0}),
        "right": (cover[:, -1], window.left > right + 1, {"left": right}),
        "bottom": (cover[-1], window.top > bottom + 1, {"top": bottom}),
    }
    for name, (rim, shows, moved) in edges.items():
        if shows and np.count_nonzero(rim) > LEAST_ENDED * max(cover.shape):
            box = Box.model_validate(window.model_dump() | moved)
            return Check(
                key="ended",
                severity="warning",
                text=f"The photo ends at the subject's {name}; its straight edge shows.",
                action=CheckAction(label="Move it to the edge", edit=SetWindow(window=box)),
            )
    return None


def outlines(scene: Scene) -> Iterator[Check]:
    """Whether each line stands off from what lies next to it."""
    lines = scene.outlines.lines
    if not lines or scene.finish.photo is None:
        return
    picture, distance, short = _measured(scene)
    for number, line in enumerate(lines):
        beside = _next_to(line, picture, distance, short)
        if not len(beside):
            continue
        unseen = unseen_share(line, beside)
        name = "The outline" if len(lines) == 1 else f"Outline {number + 1}"
        if unseen <= MOST_UNSEEN:
            text = f"{name} stands out along {percent(1 - unseen)} of its length."
            yield Check(key="outline", severity="ok", text=text)
            continue
        mended = made_visible(line, beside)
        action = None
        if mended:
            changed = (*lines[:number], mended, *lines[number + 1 :])
            edit = SetOutlines(changes=OutlinesChanges(lines=changed), only_this_size=_own(scene))
            action = CheckAction(label="Make it visible", edit=edit)
        text = f"{name} hardly shows along {percent(unseen)} of its length."
        yield Check(key="outline", severity="warning", text=text, action=action)


def unseen_share(line: SubjectOutline, beside: Floats) -> float:
    """The share of what lies ``beside`` a line (OKLab, shape (n, 3)) that it hardly differs
    from."""
    light = oklab.to_light(beside)
    drawn = decode(np.array(rgb_of(line.colour)) / 255)
    mixed = encode(np.clip(light, 0, 1)) * (1 - line.opacity) + encode(drawn) * line.opacity
    apart = np.sqrt(((oklab.from_light(decode(mixed)) - beside) ** 2).sum(axis=1))
    return float((apart < SEEN).mean())


def made_visible(line: SubjectOutline, beside: Floats) -> SubjectOutline | None:
    """``line`` with the least change that makes it stand off: all of its opacity, else the nearest
    lightness that does."""
    opaque = line.model_copy(update={"opacity": 1.0})
    if unseen_share(opaque, beside) <= MOST_UNSEEN:
        return opaque
    lab = oklab.from_light(decode(np.array(rgb_of(line.colour)) / 255))
    for step in range(1, int(1 / _LIGHTNESS_STEP) + 1):
        for way in (1, -1):
            lightness = lab[0] + way * step * _LIGHTNESS_STEP
            if not 0 <= lightness <= 1:
                continue
            light = oklab.into_gamut(np.array([lightness, lab[1], lab[2]]))
            red, green, blue = (round(255 * float(part)) for part in encode(light))
            tried = opaque.model_copy(update={"colour": f"#{red:02X}{green:02X}{blue:02X}"})
            if unseen_share(tried, beside) <= MOST_UNSEEN:
                return tried
    return None


def white(scene: Scene) -> Check | None:
    """Whether a ground that is meant to be white is exactly so at every edge."""
    ground = scene.backdrop
    if not scene.cut_out.on or not isinstance(ground, SolidColour):
        return None
    if min(rgb_of(ground.colour)) < NEARLY_WHITE:
        return None
    if ground.colour.upper() != "#FFFFFF":
        only_here = scene.size.overrides.backdrop is not None
        edit = SetGround(place="backdrop", ground=SolidColour(), only_this_size=only_here)
        return Check(
            key="white",
            severity="warning",
            text=f"The background is {ground.colour}, nearly white but not #FFFFFF.",
            action=CheckAction(label="Make it white", edit=edit),
        )
    scale, bare = scene.scale_for(MEASURED_SIDE), _bare(scene)
    rim = _rim(render(bare, scale=scale, rough=True))
    subject_there = _rim(render(bare, scale=scale, view="coverage"))[:, 0] >= 128
    share = float(((rim < 255).any(axis=1) & ~subject_there).mean())
    if share == 0:
        return Check(key="white", severity="ok", text="The background is #FFFFFF at every edge.")
    text = f"The background is not #FFFFFF along {percent(share, 1)} of the edges."
    return Check(key="white", severity="warning", text=text)


def _rim(picture: Picture8) -> Picture8:
    """The outermost pixels, shape (n, channels)."""
    return np.concatenate([picture[0], picture[-1], picture[:, 0], picture[:, -1]])


def _own(scene: Scene) -> bool:
    return bool(scene.size.overrides.outlines.given)


def _bare(scene: Scene) -> Scene:
    """The scene without pieces and watermark."""
    size: Size = scene.size.with_overrides(pieces={}, watermark=WatermarkChanges(on=False))
    return replace(scene, finish=scene.finish.model_copy(update={"pieces": ()}), size=size)


def _measured(scene: Scene) -> tuple[Floats, NDArray[np.float32], float]:
    """A picture of the scene in OKLab (NaN where it is transparent), how far its pixels are from
    the subject's edge, and its short side in pixels."""
    grid = Grid.of(*scene.sides, scene.scale_for(MEASURED_SIDE), None)
    picture = render(_bare(scene), scale=scene.scale_for(MEASURED_SIDE), rough=True)
    short = min(grid.columns, grid.rows)
    reach = max(line.reach for line in scene.outlines.lines) + NEXT_TO / short
    lab = oklab.from_light(decode(picture[:, :, :3].astype(np.float64) / 255))
    if picture.shape[2] == 4:
        lab[picture[:, :, 3] < 128] = np.nan
    return lab, subject_distance(scene, grid, reach), short


def _next_to(
    line: SubjectOutline, picture: Floats, distance: NDArray[np.float32], short: float
) -> Floats:
    """What lies just past the line's far edge and is not transparent, shape (n, 3)."""
    away = -distance if line.inside else distance
    outer = line.reach * short
    beside = picture[(away > outer + 0.5) & (away <= outer + 0.5 + NEXT_TO)]
    return beside[~np.isnan(beside[:, 0])]
