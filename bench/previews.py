"""Figures of what is seen while something is dragged or typed, the sampled photo cached."""

from collections.abc import Iterator
from contextlib import ExitStack
from itertools import count, cycle

from bench.figure import Figure, Work
from bench.material import DEMO_PHOTO, MARK, PIECES, SHA, framed, jpeg
from lucky_margin.core.borders import FRAME_STYLES
from lucky_margin.core.document import (
    Area,
    Border,
    BorderBand,
    BrushedBand,
    EllipseMask,
    Finish,
    MatBand,
    PatternBand,
    PieceChanges,
    Sides,
    SubjectAreaMask,
    Tone,
    Treatment,
    Treatments,
    Wash,
)
from lucky_margin.core.edits import apply_edit
from lucky_margin.core.edits.pieces import SetPiece
from lucky_margin.core.photos import decode
from lucky_margin.core.render import layout, render
from lucky_margin.core.scene import MemorySources, Scene
from lucky_margin.core.treatments import TREATMENT_STYLES

AGAINST = "JPEG encode"

_EXPOSURES = (0.01 + 0.002 * step for step in count())
"""No two alike, since a toned photo is kept."""


def preview_figures(_: ExitStack) -> Iterator[Figure]:
    """Each against one JPEG encode of the frame."""
    sources = MemorySources({SHA: decode(DEMO_PHOTO.read_bytes())})
    picture = render(_scene(framed(), sources))
    area = Area(masks=(EllipseMask(),), exposure=0.3, saturation=20)
    around_subject = Area(masks=(SubjectAreaMask(inverted=True),), exposure=-0.5)
    tones = {
        "exposure slider to preview, exposure alone": Tone(),
        "the same with an area and a wash": Tone(areas=(area,), washes=(Wash(),)),
        "the same with all but the subject darkened": Tone(areas=(around_subject,)),
        "the same with shadows, contrast, muted_colours": Tone(
            shadows=30, contrast=15, muted_colours=20
        ),
    }
    works = {"border slider to preview, 1080x1350": _border(sources)}
    works |= {name: _exposure(tone, framed(), sources) for name, tone in tones.items()}
    lettered = framed().model_copy(update={"pieces": PIECES, "watermark": MARK})
    works["exposure, six pieces, repeated mark"] = _exposure(Tone(), lettered, sources)
    bands = (MatBand(around=True), PatternBand(around=True), BrushedBand())
    for band in bands:
        bordered = framed().model_copy(update={"border": Border.of(band)})
        works[f"exposure with a {band.kind} band"] = _exposure(Tone(), bordered, sources)
        works[f"thickness of a {band.kind} band"] = _thickness(band, sources)
    for style in TREATMENT_STYLES:
        works[f"a number of “{style.name}” dragged"] = _treated(style.treatment, sources)
    for name, work in works.items():
        wanted = "15" if "dragged" in name else "10, then 6"
        yield Figure(name, work, lambda: jpeg(picture), AGAINST, wanted)
    name = "a letter typed, six pieces, tone and mark"
    yield Figure(name, _typing(lettered, sources), lambda: jpeg(picture), AGAINST, "100 ms")
    gallery = _gallery(framed(), sources)
    yield Figure("all frame styles, small", gallery, lambda: jpeg(picture), AGAINST, "1.5 s")


def _scene(finish: Finish, sources: MemorySources) -> Scene:
    return Scene(finish, finish.sizes[0], sources)


def _border(sources: MemorySources) -> Work:
    thickness = cycle([0.01 + 0.003 * step for step in range(30)])
    return lambda: jpeg(render(_scene(framed(next(thickness)), sources)))


def _thickness(band: BorderBand, sources: MemorySources) -> Work:
    """As while it is dragged: at half the size, every time another one."""
    thickness = cycle([0.06 + 0.002 * step for step in range(30)])

    def move() -> None:
        sides = Sides.all(next(thickness))
        border = Border.of(band.model_copy(update={"thickness": sides}))
        finish = framed().model_copy(update={"border": border})
        jpeg(render(_scene(finish, sources), scale=0.5))

    return move


_DRAGGED = {
    "mosaic": "cell",
    "dots": "pitch",
    "drawing": "line",
    "poster": "smooth",
    "paint": "brush",
    "relief": "grain",
    "grain": "size",
    "vignette": "softness",
    "glow": "radius",
    "blur": "radius",
    "sharp_zone": "radius",
}
"""The number of each treatment that is dragged."""


def _treated(treatment: Treatment, sources: MemorySources) -> Work:
    """As while one of its numbers is dragged: at half the size, every time another one."""
    number = _DRAGGED[treatment.kind]
    before = getattr(treatment, number)
    values = cycle([before * (1 + 0.01 * step) for step in range(30)])

    def move() -> None:
        made = (treatment.model_copy(update={number: next(values)}),)
        finish = framed().model_copy(update={"treatments": Treatments(made=made)})
        jpeg(render(_scene(finish, sources), scale=0.5))

    return move


def _exposure(others: Tone, finish: Finish, sources: MemorySources) -> Work:
    def move() -> None:
        tone = others.model_copy(update={"exposure": next(_EXPOSURES)})
        jpeg(render(_scene(finish.model_copy(update={"tone": tone}), sources)))

    return move


def _gallery(finish: Finish, sources: MemorySources) -> Work:
    """Every frame style as a small picture, each time at another scale, so that none is kept."""
    scale = cycle([0.08 + 0.0007 * step for step in range(30)])

    def draw() -> None:
        here = next(scale)
        for style in FRAME_STYLES:
            bordered = finish.model_copy(update={"border": style.border})
            jpeg(render(_scene(bordered, sources), scale=here, rough=True))

    return draw


def _typing(finish: Finish, sources: MemorySources) -> Work:
    """The draft laid out and its picture as the stage shows it."""
    finish = finish.model_copy(update={"tone": Tone(exposure=0.3, shadows=20)})
    typed = (("every Thursday " * 5)[: number % 60 + 1] for number in count())

    def letter() -> None:
        edit = SetPiece(ids=("title",), changes=PieceChanges(text=next(typed)))
        scene = _scene(apply_edit(_scene(finish, sources), edit).finish, sources)
        layout(scene)
        jpeg(render(scene))

    return letter
