"""Checks of pieces and of the watermark, measured on a size. All thresholds stand here."""

from dataclasses import replace

import numpy as np
import shapely

from lucky_margin.core.checks.check import Check, CheckAction, percent
from lucky_margin.core.checks.legibility import contrast_of, make_readable
from lucky_margin.core.document import (
    PieceChanges,
    TextPiece,
    WatermarkChanges,
    columns_in,
)
from lucky_margin.core.edits.moving import AlignPieces, PlacePiece, scaled_fields
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.edits.steps import SetWatermark
from lucky_margin.core.framing import focus_on
from lucky_margin.core.oklab import from_light
from lucky_margin.core.pieces import LaidPiece
from lucky_margin.core.render.calm import calm_places_of
from lucky_margin.core.render.grid import Grid
from lucky_margin.core.render.layers import behind_subject
from lucky_margin.core.render.pieces import sprite_on
from lucky_margin.core.render.render import render
from lucky_margin.core.render.subject_alpha import alpha_near_subject
from lucky_margin.core.render.writing import writing_of
from lucky_margin.core.sampling.srgb import decode
from lucky_margin.core.scene import Scene
from lucky_margin.core.text import FAMILIES, STAND_IN, is_own

LEAST_X_HEIGHT = 7.0
"""Pixels of a small x, as people see the size."""

PAST = 0.5
"""Output pixels that a piece may reach past the margin box without a word."""

MOST_OF_FOCUS = 0.12
"""Share of the focus box that words may cover."""

MOST_HIDDEN = 0.5
"""Share of their letters that the subject may hide of words behind it."""

HIDDEN_SIDE = 480
"""Longest side of the picture on which that is measured."""

MEASURED_SIDE = 960
"""Longest side of the picture on which a watermark is measured."""

_OPACITIES = (0.05, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5, 0.6, 0.8, 1.0)

FAINT, LOUD = 0.04, 0.35
"""OKLab lightness that a watermark changes under its letters at least, and at most."""


def piece_checks(scene: Scene) -> list[Check]:
    """What asks for a look about the pieces of a size."""
    found: list[Check | None] = []
    for laid in scene.pieces:
        found += [_past(laid, scene), _pointing_out(laid, scene), _font(laid)]
        if isinstance(laid.piece, TextPiece) and laid.piece.text.strip():
            found += [
                _contrast(laid, scene),
                _small(laid, scene),
                _missing(laid),
                _hidden(laid, scene) if behind_subject(laid.piece, scene) else None,
                _over_focus(laid, scene),
            ]
    return [item for item in found if item is not None]


def name_of(laid: LaidPiece) -> str:
    """What a piece is called in a check: by its words if it has any."""
    piece = laid.piece
    if not isinstance(piece, TextPiece):
        return f"The {piece.kind}"
    line = " ".join(piece.text.split())
    return f"“{line if len(line) < 24 else line[:22] + '…'}”"


def _contrast(laid: LaidPiece, scene: Scene) -> Check | None:
    contrast = contrast_of(scene, laid.piece.id)
    if contrast is None or contrast.suffices:
        return None
    mend = make_readable(scene, laid.piece.id)
    action = None
    if mend:
        edit = SetPiece(ids=(laid.piece.id,), changes=mend[0], only_this_size=True)
        action = CheckAction(label="Make it readable", edit=edit)
    text = (
        f"{name_of(laid)} is hard to read: contrast {contrast.ratio:.1f} to 1, "
        f"{contrast.wanted:g} is needed at this size."
    )
    return Check(key="contrast", severity="warning", text=text, action=action)


def _past(laid: LaidPiece, scene: Scene) -> Check | None:
    """How far a piece reaches past the margin box."""
    box, room = laid.bounds, scene.margins.box
    if laid.spans_ends:
        return None
    past = max(
        room.left - box.left,
        room.top - box.top,
        box.right - room.right,
        box.bottom - room.bottom,
    )
    if letters := _letters_on_arc(laid, scene):
        # They may follow the shape's edge, and lie on its border.
        edge = scene.outer.inset(*4 * [scene.margins.thickness]).region
        past = max(edge.distance(shapely.Point(corner)) for letter in letters for corner in letter)
    if past <= PAST or laid.piece.anchor.kind == "photo" or laid.piece.kind == "picture":
        return None
    piece = laid.piece
    fits = box.width <= room.width and box.height <= room.height
    if fits:
        to = "left" if box.left < room.left else "right"
        if box.top < room.top or box.bottom > room.bottom:
            to = "top" if box.top < room.top else "bottom"
        edit = AlignPieces.model_validate({"ids": [piece.id], "to": to, "only_this_size": True})
        action = CheckAction(label="Move it inside", edit=edit)
    else:
        shrunk = 0.99 * min(room.width / box.width, room.height / box.height)
        fields = scaled_fields(laid, shrunk) | {"dx": 0, "dy": 0}
        if isinstance(piece, TextPiece):
            # Its lines may be as long as they were.
            fields["wrap"] = piece.wrap
        changes = PieceChanges.model_validate(fields)
        whole = SetPiece(ids=(piece.id,), changes=changes, only_this_size=True)
        action = CheckAction(label="Make it fit", edit=whole)
    text = f"{name_of(laid)} reaches {past:.0f} px past the margin."
    return Check(key="past", severity="warning", text=text, action=action)


def _pointing_out(laid: LaidPiece, scene: Scene) -> Check | None:
    """Whether what a piece points at has been cropped away."""
    if laid.ends is None:
        return None
    (x, y), (width, height) = laid.ends.tip, scene.sides
    if 0 <= x <= width and 0 <= y <= height:
        return None
    edit = SetPiece(ids=(laid.piece.id,), changes=PieceChanges(on=False), only_this_size=True)
    action = CheckAction(label="Hide it on this size", edit=edit)
    text = "An arrow or bubble points at something that this size does not show."
    return Check(key="points out", severity="warning", text=text, action=action)


def _small(laid: LaidPiece, scene: Scene) -> Check | None:
    assert laid.text is not None  # only called for texts
    seen = laid.text.x_height * scene.seen_scale
    if seen >= LEAST_X_HEIGHT:
        return None
    wanted = laid.em / laid.short_side * LEAST_X_HEIGHT / seen * 1.02
    changes = PieceChanges(size=round(min(wanted, 4.0), 5), fill=False)
    edit = SetPiece(ids=(laid.piece.id,), changes=changes, only_this_size=True)
    text = (
        f"{name_of(laid)} is too small: a lower-case x is {seen:.1f} px high as people see it, "
        f"{LEAST_X_HEIGHT:g} is needed."
    )
    action = CheckAction(label="Make it larger", edit=edit)
    return Check(key="small", severity="warning", text=text, action=action)


def _missing(laid: LaidPiece) -> Check | None:
    assert laid.text is not None  # only called for texts
    if not laid.text.missing:
        return None
    letters = " ".join(laid.text.missing[:6])
    text = f"{name_of(laid)} has characters that no font here has: {letters}"
    action = None
    if isinstance(laid.piece, TextPiece):
        kept = "".join(letter for letter in laid.piece.text if letter not in laid.text.missing)
        edit = SetPiece(ids=(laid.piece.id,), changes=PieceChanges(text=kept), only_this_size=True)
        action = CheckAction(label="Remove them", edit=edit)
    return Check(key="missing", severity="warning", text=text, action=action)


def columns(scene: Scene) -> Check | None:
    """Whether words name columns that no table filled."""
    texts = [getattr(laid.piece, "text", "") for laid in scene.pieces]
    named = dict.fromkeys(name for text in texts for name in columns_in(text))
    if not named:
        return None
    listed = ", ".join(f"“{{{name}}}”" for name in named)
    stands = "stands" if len(named) == 1 else "stand"
    text = (
        f"{listed} {stands} for a column of a table; type the words, or finish photos with a "
        "table that has it."
    )
    return Check(key="columns", severity="warning", text=text)


def _font(laid: LaidPiece) -> Check | None:
    """Whether the own font of a piece's words is gone."""
    if not laid.lacks_font:
        return None
    action = None
    if laid.piece.kind != "mark":
        edit = SetPiece(ids=(laid.piece.id,), changes=PieceChanges(family=STAND_IN))
        action = CheckAction(label=f"Use {FAMILIES[STAND_IN].name}", edit=edit)
    text = f"{name_of(laid)} uses a font that is missing; add its file again."
    return Check(key="font", severity="warning", text=text, action=action)


def _over_focus(laid: LaidPiece, scene: Scene) -> Check | None:
    """How much of what has to stay in view the words cover."""
    focus = focus_on(scene.focus, scene.frame)
    if focus is None or behind_subject(laid.piece, scene):
        return None
    covered = words_region(laid, scene).intersection(shapely.box(*focus.edges))
    share = covered.area / (focus.width * focus.height)
    if share <= MOST_OF_FOCUS:
        return None
    action = None
    if scene.cut_out.on:
        action = CheckAction(label="Move it behind the subject", edit=_set_behind(laid, True))
    elif places := calm_places_of(scene, laid.piece.id):
        best = places[0]
        edit = PlacePiece(id=laid.piece.id, x=best.x, y=best.y, only_this_size=True)
        action = CheckAction(label="Move it aside", edit=edit)
    text = f"{name_of(laid)} covers {percent(share)} of the focus box."
    return Check(key="over focus", severity="warning", text=text, action=action)


def words_region(laid: LaidPiece, scene: Scene) -> shapely.Geometry:
    """What a piece takes up, in output pixels: its letters on an arc, else the box around it."""
    letters = _letters_on_arc(laid, scene)
    words = [shapely.Polygon(letter) for letter in letters] or shapely.box(*laid.bounds.edges)
    region: shapely.Geometry = shapely.union_all(words)
    return region


def _letters_on_arc(laid: LaidPiece, scene: Scene) -> list[list[tuple[float, float]]]:
    """The corners of each letter of words on an arc, in output pixels; none of anything else, whose
    box says as much."""
    piece = laid.piece
    if not isinstance(piece, TextPiece) or not piece.bend or len(laid.copies) > 1:
        return []
    letters = writing_of(scene, piece.id).letters
    edges = [(*letter.leading, *letter.trailing[2:], *letter.trailing[:2]) for letter in letters]
    return [list(zip(edge[::2], edge[1::2], strict=True)) for edge in edges]


def _hidden(laid: LaidPiece, scene: Scene) -> Check | None:
    """How much of the words the subject before them hides."""
    width, height = scene.sides
    grid = Grid.of(width, height, min(1.0, HIDDEN_SIDE / max(width, height)), None)
    sprite = sprite_on(laid, grid, scene.sources, "fill")
    letters = sprite.pixels[:, :, 3].astype(np.float32)
    rows, columns = letters.shape
    if not letters.any():
        return None
    subject = alpha_near_subject(scene, grid, (sprite.left, sprite.top, columns, rows))
    share = float((letters * subject).sum() / letters.sum())
    if share <= MOST_HIDDEN:
        return None
    text = f"The subject hides {percent(share)} of {name_of(laid)}."
    action = CheckAction(label="Move it in front of the subject", edit=_set_behind(laid, False))
    return Check(key="hidden", severity="warning", text=text, action=action)


def _set_behind(laid: LaidPiece, behind: bool) -> SetPiece:
    changes = PieceChanges(behind=behind)
    return SetPiece(ids=(laid.piece.id,), changes=changes, only_this_size=True)


def watermark(scene: Scene) -> Check | None:
    """How much the mark changes the picture under its letters."""
    if not scene.watermark.is_set:
        return None
    changed = watermark_strength(scene)
    if changed is None or FAINT <= changed <= LOUD:
        return None
    faint = changed < FAINT
    word = "faint" if faint else "loud"
    text = (
        f"The watermark is too {word}: it changes the lightness under it by {percent(changed, 1)}."
    )
    action = _suiting(scene, faint)
    return Check(key="mark", severity="warning", text=text, action=action)


def watermark_font(scene: Scene) -> Check | None:
    """Whether the own font of the watermark's words is gone."""
    mark = scene.watermark
    family = mark.mark.design.family if mark.mark else mark.family
    if not mark.is_set or mark.logo or not is_own(family) or scene.sources.font(family):
        return None
    text = "The watermark uses a font that is missing; add its file again."
    return Check(key="font", severity="warning", text=text)


def _suiting(scene: Scene, faint: bool) -> CheckAction | None:
    """The opacity nearest to the mark's own, of what is tried, that suits."""
    size, present = scene.size, scene.watermark.opacity
    stronger = [one for one in _OPACITIES if one > present]
    weaker = [one for one in reversed(_OPACITIES) if one < present]
    for opacity in stronger if faint else weaker:
        changes = WatermarkChanges(opacity=opacity)
        ways = WatermarkChanges.model_validate(
            size.overrides.watermark.model_dump() | changes.model_dump()
        )
        tried = size.with_overrides(watermark=ways)
        changed = watermark_strength(replace(scene, size=tried))
        if changed is not None and FAINT <= changed <= LOUD:
            label = "Make it stronger" if faint else "Make it fainter"
            edit = SetWatermark(changes=changes, only_this_size=True)
            return CheckAction(label=label, edit=edit)
    return None


def watermark_strength(scene: Scene) -> float | None:
    """The median change of OKLab lightness (0..1) under the mark's letters; None where none of
    them can be seen."""
    scale = scene.scale_for(MEASURED_SIDE)
    with_mark, plain = (
        from_light(decode(render(one, scale=scale, rough=True)[:, :, :3] / 255))
        for one in (scene, scene.without_watermark())
    )
    change = np.abs(with_mark[:, :, 0] - plain[:, :, 0])
    under = change > 0.2 * change.max() if change.max() > 0 else change > 0
    return float(np.median(change[under])) if under.any() else None
