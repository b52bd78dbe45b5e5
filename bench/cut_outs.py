"""Figures of the cut-out: what is seen while it is worked on, and its files."""

from collections.abc import Iterator
from contextlib import ExitStack
from itertools import cycle

import cv2
import numpy as np

from bench.figure import Figure, Work
from bench.material import DEMO_PHOTO, PIECES, SHA, framed, jpeg, photo_of
from lucky_margin.core.cut_out.edges import RADIUS
from lucky_margin.core.cut_out.guided_filter import SMOOTHNESS, guided
from lucky_margin.core.document import (
    AsCropped,
    Border,
    Box,
    CastShadow,
    ContactShadow,
    CutOut,
    Finish,
    Gradient,
    Outlines,
    Piece,
    SolidColour,
    Stroke,
    SubjectOutline,
    SubjectShadow,
)
from lucky_margin.core.export import export
from lucky_margin.core.photos import decode
from lucky_margin.core.render import render
from lucky_margin.core.scene import MemorySources, Scene

MUG = CutOut(on=True, boxes=(Box(left=0.53, top=0.36, width=0.3, height=0.42),))


ONE_BEHIND = (PIECES[0].model_copy(update={"behind": True}), *PIECES[1:])


def cut_out_figures(_: ExitStack) -> Iterator[Figure]:
    """Sliders, strokes and finding against a JPEG encode of the frame; a file against the same
    without a cut-out."""
    sources = MemorySources({SHA: decode(DEMO_PHOTO.read_bytes())})
    picture = render(_scene(framed(), sources))
    works = {
        "outline slider to preview, two outlines, shadow, gradient": (_outline(sources), "8"),
        "shadow slider to preview, two outlines, shadow, gradient": (_shadow(sources), "8"),
        "the same with words behind and six pieces": (_shadow(sources, ONE_BEHIND), "8"),
        "a stroke to the new edge": (_stroke(sources), "0.4 s"),
        "finding a subject": (_finding(sources), "1.5 s"),
    }
    for name, (work, wanted) in works.items():
        yield Figure(name, work, lambda: jpeg(picture), "JPEG encode", wanted)
    yield _filtering(sources)
    large = MemorySources({SHA: decode(photo_of(24))})
    plain = framed().model_copy(update={"border": Border(), "backdrop": SolidColour()})
    plain = plain.with_size(plain.sizes[0].model_copy(update={"pixels": AsCropped()}))
    cut = plain.model_copy(update={"cut_out": MUG})
    render(_scene(cut, large), scale=0.1)  # the matte is made
    name = "24 MP file on a colour ground, matte made"
    yield Figure(
        name,
        lambda: export(_scene(cut, large)),
        lambda: export(_scene(plain, large)),
        "the same without a cut-out",
        "1.6",
    )


def _filtering(sources: MemorySources) -> Figure:
    """Coverage led by a photo's edges, against the same filter of a general-purpose library."""
    photo = sources.level(SHA, 1)[:, :, :3].astype(np.float32) / np.float32(255)
    alpha = (photo[:, :, 1] > np.median(photo[:, :, 1])).astype(np.float32)
    return Figure(
        "coverage led by the photo",
        lambda: guided(photo, alpha, RADIUS),
        lambda: cv2.ximgproc.guidedFilter(photo, alpha, RADIUS, SMOOTHNESS),
        "OpenCV's guided filter",
        "1",
    )


def _scene(finish: Finish, sources: MemorySources) -> Scene:
    return Scene(finish, finish.sizes[0], sources)


def _outline(sources: MemorySources) -> Work:
    widths = cycle([0.01 + 0.0005 * step for step in range(20)])

    def move() -> None:
        jpeg(render(_scene(_surrounded(width=next(widths)), sources)))

    return move


def _shadow(sources: MemorySources, pieces: tuple[Piece, ...] = ()) -> Work:
    distances = cycle([0.02 + 0.001 * step for step in range(20)])

    def move() -> None:
        finish = _surrounded(distance=next(distances)).model_copy(update={"pieces": pieces})
        jpeg(render(_scene(finish, sources)))

    return move


def _surrounded(width: float = 0.01, distance: float = 0.03) -> Finish:
    """A subject with two outlines and both shadows on a gradient."""
    lines = (SubjectOutline(width=0.008, gap=0.03, colour="#1E2A2F"), SubjectOutline(width=width))
    shadow = SubjectShadow(cast=CastShadow(distance=distance), contact=ContactShadow())
    around = {"backdrop": Gradient(), "outlines": Outlines(lines=lines), "subject_shadow": shadow}
    return framed().model_copy(update={"cut_out": MUG, **around})


def _stroke(sources: MemorySources) -> Work:
    places = cycle([0.6 + 0.002 * step for step in range(60)])

    def draw() -> None:
        x = next(places)
        stroke = Stroke(brush="keep", radius=0.01, points=((x, 0.5), (x + 0.03, 0.6)))
        cut_out = MUG.model_copy(update={"strokes": (stroke,)})
        render(_scene(framed().model_copy(update={"cut_out": cut_out}), sources), scale=0.5)

    return draw


def _finding(sources: MemorySources) -> Work:
    lefts = cycle([0.5 + 0.0005 * step for step in range(60)])

    def find() -> None:
        box = Box(left=next(lefts), top=0.36, width=0.33, height=0.42)
        cut_out = CutOut(on=True, boxes=(box,))
        render(_scene(framed().model_copy(update={"cut_out": cut_out}), sources), scale=0.5)

    return find
