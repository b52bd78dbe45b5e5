"""Proposals about a finish as it starts, and about its house style: what has to be found for the
photo first."""

from collections.abc import Collection
from dataclasses import replace

from lucky_margin.core.document import (
    NO_ROW,
    PARTS,
    Box,
    Finish,
    HouseStyle,
    PartKey,
    Row,
    Settings,
    Value,
    changed_since,
    with_style,
    with_words,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.cut_out import SetSubject
from lucky_margin.core.edits.styling import UseStyle, lacks_subject
from lucky_margin.core.progress import Progress, untold
from lucky_margin.core.proposals.for_photos import (
    found_subject,
    proposed_focus,
    swap_proposal,
)
from lucky_margin.core.proposals.proposal import Proposal
from lucky_margin.core.scene import Scene, Sources
from lucky_margin.core.tone import propose_tone


class PartChange(Value):
    """What a style does to one part of a finish, in words; ``is_mine`` says that somebody changed
    it since the finish got the style."""

    key: PartKey
    title: str
    now: str
    then: str
    is_mine: bool


def style_changes(finish: Finish, style: HouseStyle) -> list[PartChange]:
    """The parts that the style would give, in the order of the docket."""
    use = finish.style if finish.style and finish.style.id == style.id else None
    mine = changed_since(finish) if use else ()
    changes = []
    for part in PARTS:
        given = getattr(style.parts, part.key)
        if part.key == "light" and style.suggest_light and use:
            given = use.gave.light
        is_suggested = part.key == "light" and style.suggest_light and given is None
        if given is None and not is_suggested:
            continue
        changes.append(
            PartChange(
                key=part.key,
                title=part.title,
                now=part.in_words(part.of(finish)),
                then="as suggested" if is_suggested else part.in_words(given),
                is_mine=part.key in mine,
            )
        )
    return changes


def style_proposal(
    scene: Scene,
    style: HouseStyle,
    put: Collection[PartKey] | None = None,
    progress: Progress = untold,
    *,
    row: Row | None = None,
) -> Proposal:
    """The finish in a house style, with the photo's suggested light and its subject where the style
    asks for them. ``put`` are the parts to take over and ``row`` fills the columns in its words, as
    ``UseStyle`` has them.

    Raises:
        NotFound: the photo is not known.
        Cancelled: by ``progress``.
    """
    edit = UseStyle(
        style=style,
        put=None if put is None else tuple(put),
        light=_suggested_light(scene) if style.suggest_light else None,
        row=row,
    )
    styled = with_style(scene.finish, style, put=put, light=edit.light, row=row)
    if scene.finish.photo and lacks_subject(styled):
        subjects = _found(Scene(styled, styled.sizes[0], scene.sources), progress)
        edit = edit.model_copy(update={"subjects": subjects})
    return Proposal(message="", edit=edit)


def _suggested_light(scene: Scene) -> Settings | None:
    """What is suggested for the photo; what it has already stands as suggested."""
    if scene.finish.photo is None:
        return None
    focus = scene.finish.focus
    tone = propose_tone(scene.taken.level(0), focus.box if focus else None)
    return Settings(**{name: getattr(tone, name) for name in Settings.model_fields})


def _found(scene: Scene, progress: Progress) -> tuple[Box, ...]:
    edit = found_subject(scene, progress, cut_out=False).edit
    return edit.boxes if isinstance(edit, SetSubject) else ()


def started(
    finish: Finish, sources: Sources, style: HouseStyle | None = None, row: Row = NO_ROW
) -> Finish:
    """A fresh finish of a photo with what to keep in view of it, and in a house style if there is
    one, its words filled from the ``row`` of a table. Where the style cuts the subject out, the
    subject is what stays in view.

    Raises:
        NotFound: the photo is not known, or a picture of the style.
        TooLarge: a size comes to too many pixels.
    """
    scene = Scene(finish, finish.sizes[0], sources)
    if style is None or style.parts.cut_out is None or not style.parts.cut_out.on:
        focus = proposed_focus(scene)
        scene = replace(scene, finish=finish.model_copy(update={"focus": focus}))
    if style is None:
        return scene.finish
    return _taken(scene, style_proposal(scene, style, row=row))


def started_like(
    like: Finish, sha256: str, name: str, sources: Sources, row: Row = NO_ROW
) -> Finish:
    """A finish of another photo, with all else as in ``like``, its words filled from ``row``.

    Raises:
        NotFound: there is no such photo.
    """
    scene = Scene(like, like.sizes[0], sources)
    finish = _taken(scene, swap_proposal(scene, sha256)).model_copy(update={"name": name})
    filled = with_words(finish, row).model_copy(update={"style": None})
    return Finish.model_validate(filled.model_dump())


def _taken(scene: Scene, proposal: Proposal) -> Finish:
    assert proposal.edit is not None  # these always have one
    return apply_edit(scene, proposal.edit).finish
