"""Seed a data folder with the photos and finishes of the invented Pebblewick Pottery.

Running it again changes nothing: what is there is left alone.
"""

import sys
from dataclasses import dataclass
from pathlib import Path

from lucky_margin.cli import data_folder
from lucky_margin.core.borders import FRAME_STYLES
from lucky_margin.core.document import (
    SIZE_LIBRARY,
    BorderChanges,
    Box,
    BrushedBand,
    CastShadow,
    ContactShadow,
    Dots,
    ExportChanges,
    Focus,
    HouseStyle,
    Lift,
    LiftBase,
    LiftsChanges,
    LineBand,
    MarginAnchor,
    MarkDesign,
    OutlinesChanges,
    PartKey,
    PatternBand,
    Perspective,
    PieceChanges,
    PlainShape,
    Point,
    Repeat,
    Shadow,
    ShapeRegion,
    Sides,
    SizePlan,
    SolidColour,
    SubjectAreaMask,
    SubjectOutline,
    SubjectShadowChanges,
    ToneChanges,
    TreatmentsChanges,
    TurnChanges,
    Vignette,
    WatermarkChanges,
    kept_style,
    new_finish,
)
from lucky_margin.core.edits import Edit, apply_edit
from lucky_margin.core.edits.cut_out import DrawStroke, SetSubject
from lucky_margin.core.edits.framing import SetFocus, SetWindow
from lucky_margin.core.edits.moving import DragPieces
from lucky_margin.core.edits.pieces import AddBadge, AddPicture, AddText, SetPiece
from lucky_margin.core.edits.pointing import PointPiece
from lucky_margin.core.edits.shapes import SetShape
from lucky_margin.core.edits.sizes import AddSize, UseSize
from lucky_margin.core.edits.steps import (
    SetBorder,
    SetExport,
    SetGround,
    SetLifts,
    SetOutlines,
    SetSubjectShadow,
    SetTone,
    SetTreatments,
    SetTurn,
    SetWatermark,
    SwitchStep,
)
from lucky_margin.core.edits.tone import AddWash
from lucky_margin.core.export import kept_subject
from lucky_margin.core.proposals import started
from lucky_margin.core.scene import Scene
from lucky_margin.core.stock import BACKDROPS
from lucky_margin.store import Store, new_style_id, used_subject

PHOTOS = Path(__file__).parent / "photos"


@dataclass(frozen=True)
class Subject:
    """A subject of a photo that is kept on the shelf, and the edits that cut it out."""

    photo: str
    name: str
    edits: tuple[Edit, ...]


@dataclass(frozen=True)
class TakeSubject:
    """An edit that adds a kept subject, by its name."""

    name: str


@dataclass(frozen=True)
class Story:
    """A finish and the edits that made it, one revision each; ``keep`` names versions."""

    photo: str
    name: str
    edits: tuple[Edit | TakeSubject, ...]
    keep: tuple[tuple[int, str], ...] = ()


def _plan(key: str) -> SizePlan:
    return next(size.plan for size in SIZE_LIBRARY if size.key == key)


def _size(key: str) -> UseSize:
    return UseSize(plan=_plan(key))


def _also(key: str) -> AddSize:
    return AddSize(plan=_plan(key))


def _window(left: float, top: float, width: float, height: float) -> SetWindow:
    return SetWindow(window=Box(left=left, top=top, width=width, height=height))


def _border(thickness: float, colour: str = "#FFFFFF", outside: bool = False) -> SetBorder:
    band = LineBand(thickness=Sides.all(thickness), colour=colour, around=outside)
    return SetBorder(changes=BorderChanges(bands=(band,)))


def _frame(key: str) -> SetBorder:
    style = next(style for style in FRAME_STYLES if style.key == key)
    return SetBorder(changes=BorderChanges(bands=style.border.bands))


def _piece(piece: str, **fields: object) -> SetPiece:
    return SetPiece(ids=(piece,), changes=PieceChanges.model_validate(fields))


def _here(piece: str, **fields: object) -> SetPiece:
    """A piece set differently on the size in hand."""
    changes = PieceChanges.model_validate(fields)
    return SetPiece(ids=(piece,), changes=changes, only_this_size=True)


def _not_here(piece: str) -> SetPiece:
    """Leave a piece out on the size in hand."""
    return SetPiece(ids=(piece,), changes=PieceChanges(on=False), only_this_size=True)


STUDIO_MARK = MarkDesign(
    words="Pebblewick Pottery", icon="amphora", layout="beside", family="zilla-slab"
)

BIRD = (
    SetSubject(boxes=(Box(left=0.19, top=0.31, width=0.6, height=0.5),)),
    DrawStroke(
        brush="keep",
        radius=36,
        points=((660, 1500), (690, 1700), (840, 1850), (1104, 1850), (1272, 1728)),
    ),
    DrawStroke(brush="keep", radius=46, points=((1680, 960), (1764, 900))),
)
"""The bird cut out of its photo."""

VASE = (
    SetSubject(boxes=(Box(left=0.17, top=0.145, width=0.66, height=0.8),)),
    DrawStroke(
        brush="keep",
        radius=40,
        points=((1205, 1890), (1195, 2010), (1130, 2130), (1070, 2260), (1045, 2450), (1100, 2740)),
    ),
    DrawStroke(
        brush="keep",
        radius=40,
        points=((1205, 2010), (1280, 2130), (1340, 2260), (1360, 2450), (1300, 2740)),
    ),
    DrawStroke(
        brush="leave_out",
        radius=25,
        points=((1075, 1900), (1065, 1990), (990, 2130), (945, 2260), (930, 2450)),
    ),
    DrawStroke(
        brush="leave_out",
        radius=25,
        points=((1335, 1900), (1345, 1990), (1420, 2130), (1465, 2260), (1475, 2450), (1440, 2700)),
    ),
    DrawStroke(brush="leave_out", radius=22, points=((1405, 2790), (1500, 2780), (1880, 2700))),
    DrawStroke(
        brush="soft_edge",
        radius=250,
        points=(
            (620, 1000), (1150, 700), (1700, 880), (1780, 1200), (1500, 1350),
            (1150, 1050), (720, 1350), (1000, 1560), (1180, 1580), (1420, 1560),
        ),
    ),
)  # fmt: skip
"""The vase cut out of its photo, with the grasses in it."""

SUBJECTS = (
    Subject(
        "mugs-window.jpg",
        "Speckled mug",
        (
            SetSubject(boxes=(Box(left=0.26, top=0.41, width=0.335, height=0.47),)),
            DrawStroke(
                brush="leave_out", radius=30, points=((1850, 1250), (1900, 1400), (1860, 1560))
            ),
            DrawStroke(
                brush="leave_out", radius=14, points=((1180, 2108), (1500, 2126), (1700, 2110))
            ),
            DrawStroke(brush="leave_out", radius=22, points=((1728, 2108), (1742, 2070))),
        ),
    ),
)

STORIES = (
    Story(
        "bench-tools.jpg",
        "Bench, wide",
        (_size("link-card"), _window(330, 420, 2743, 1412.1), _border(0.02, "#F5F1E8", True)),
    ),
    Story(
        "bench-tools.jpg",
        "Tools, marked",
        (
            _size("square-post"),
            SetWatermark(
                changes=WatermarkChanges.model_validate(
                    {"text": "Pebblewick Pottery", "place": "repeated", "opacity": 0.3}
                )
            ),
        ),
    ),
    Story(
        "bowl-top.jpg",
        "Reactive blue, video",
        (
            _size("video-thumbnail"),
            _window(1400, 864, 1600, 900),
            AddText(purpose="headline", text="Reactive\nblue"),
            _piece(
                "text-1",
                family="anton",
                size=0.16,
                align="left",
                line_spacing=0.95,
                anchor=MarginAnchor(x=0.98, y=0.3).model_dump(),
                shadow=Shadow(y=0.01, blur=0.06, opacity=0.5).model_dump(),
            ),
            AddBadge(form="arrow"),
            _piece("badge-1", height=0.1, colour="#D9A441"),
            DragPieces(ids=("badge-1",), dx=330, dy=180),
            PointPiece(id="badge-1", end="tip", dx=-500, dy=-70),
        ),
    ),
    Story(
        "bird-figure.jpg",
        "Bird, cut out",
        (
            _size("video-thumbnail"),
            *BIRD,
            SetGround(place="backdrop", ground=BACKDROPS["glow"].ground),
            SetOutlines(changes=OutlinesChanges(lines=(SubjectOutline(width=0.035),))),
            SetSubjectShadow(
                changes=SubjectShadowChanges(cast=CastShadow(angle=165, distance=0.05, opacity=0.4))
            ),
            AddText(purpose="headline", text="JUST" + 18 * " " + "FIRED"),
            _piece(
                "text-1",
                family="anton",
                weight=400,
                size=0.21,
                wrap=None,
                colour="#4A1608",
                anchor=MarginAnchor(x=0.5, y=0.62).model_dump(),
                shadow=None,
                behind=True,
            ),
        ),
    ),
    Story(
        "bird-figure.jpg",
        "Kiln banner",
        (
            _size("wide-banner"),
            *BIRD,
            SetGround(place="backdrop", ground=BACKDROPS["linen"].ground),
            SetSubjectShadow(
                changes=SubjectShadowChanges(contact=ContactShadow(height=0.07, opacity=0.45))
            ),
            _window(120, 560, 4800, 1600),
            TakeSubject("Speckled mug"),
            _piece(
                "picture-1",
                width=0.62,
                anchor=MarginAnchor(x=0.97, y=0.75).model_dump(),
                match=35,
                shadow=Shadow(x=0.012, y=0.02, blur=0.03, opacity=0.4).model_dump(),
            ),
            AddText(purpose="headline", text="Fresh from\nthe kiln"),
            _piece(
                "text-1",
                family="zilla-slab",
                weight=700,
                size=0.18,
                colour="#3A2A1E",
                anchor=MarginAnchor(x=0.58, y=0.47).model_dump(),
                shadow=None,
            ),
        ),
    ),
    Story(
        "field-noon.jpg",
        "Field behind the studio",
        (
            _size("link-card"),
            SetTurn(changes=TurnChanges(straighten=-0.6)),
            _window(60, 540, 3440, 1752.8),
            SetTone(
                changes=ToneChanges(
                    haze=45, exposure=0.15, contrast=12, warmth=7000, muted_colours=25
                ),
            ),
            AddWash(),
            _border(0.03, "#F5F1E8", True),
            AddText(purpose="headline", text="Open studio"),
            _piece(
                "text-1",
                family="playfair-display",
                weight=900,
                size=0.17,
                align="left",
                colour="#33302A",
                shadow=None,
                anchor=MarginAnchor(x=0.06, y=0.13).model_dump(),
            ),
            AddText(purpose="line", text="Second Saturday in June, ten to four"),
            _piece(
                "text-2",
                size=0.056,
                align="left",
                colour="#33302A",
                shadow=None,
                anchor=MarginAnchor(x=0.06, y=0.33).model_dump(),
            ),
        ),
    ),
    Story(
        "bowl-top.jpg",
        "Bowl avatar",
        (
            _size("round-avatar"),
            SetFocus(
                focus=Focus(
                    point=Point(x=0.588, y=0.438),
                    box=Box(left=0.42, top=0.27, width=0.336, height=0.336),
                )
            ),
            _window(994, 544, 1540, 1540),
            _also("round-sticker"),
            _window(900, 450, 1730, 1730),
            SetBorder(
                changes=BorderChanges(
                    on=True, bands=(LineBand(thickness=Sides.all(0.12), colour="#22445C"),)
                ),
                only_this_size=True,
            ),
            AddText(purpose="line", text="Pebblewick Pottery · Reactive blue ·"),
            _piece(
                "text-1",
                family="zilla-slab",
                case="capitals",
                size=0.078,
                letter_spacing=0.28,
                wrap=None,
                bend=350,
                colour="#F5F1E8",
                shadow=None,
                anchor=MarginAnchor(x=0.5, y=0.5).model_dump(),
                sizes=("size-2",),
            ),
        ),
    ),
    Story(
        "shelf-wide.jpg",
        "Studio banner",
        (
            _size("wide-banner"),
            _window(0, 440, 4000, 1333.3333),
            AddText(purpose="headline", text="Pebblewick Pottery"),
            _piece(
                "text-1",
                family="zilla-slab",
                weight=700,
                size=0.2,
                anchor=MarginAnchor(x=0.5, y=0.4).model_dump(),
                dy=0,
            ),
            AddText(purpose="line", text="thrown, glazed and fired by hand"),
            _piece("text-2", size=0.08, anchor=MarginAnchor(x=0.5, y=0.62).model_dump(), dy=0),
        ),
    ),
    Story(
        "shelf-wide.jpg",
        "Shelf, framed",
        (
            _size("link-card"),
            _frame("brass"),
            _window(380, 390, 2900, 1334.67),
        ),
    ),
    Story(
        "bench-tools.jpg",
        "Tools, brushed",
        (
            _size("tall-post"),
            _window(860, 0, 1920, 2400),
            SetBorder(
                changes=BorderChanges(
                    bands=(
                        BrushedBand(
                            look="dry", colour="#F5F1E8", thickness=Sides.all(0.12), seed=8
                        ),
                    )
                )
            ),
        ),
    ),
    Story(
        "shelf-wide.jpg",
        "Shelf, one bay",
        (
            _size("link-card"),
            _window(380, 300, 2900, 1522.5),
            SetLifts(
                changes=LiftsChanges(
                    base=LiftBase(grey=1, light=0.25),
                    lifted=(
                        Lift(
                            region=ShapeRegion(
                                box=Box(left=0.345, top=0.385, width=0.305, height=0.27)
                            ),
                            edge=0.012,
                            tilt=-2.5,
                            size=1.12,
                        ),
                    ),
                )
            ),
            AddText(purpose="headline", text="This row is new"),
            _piece(
                "text-1",
                family="zilla-slab",
                size=0.1,
                colour="#1E2A2F",
                shadow=None,
                anchor=MarginAnchor(x=0.5, y=0.04).model_dump(),
            ),
        ),
    ),
    Story(
        "bird-figure.jpg",
        "Bird, in print",
        (
            _size("square-post"),
            *BIRD,
            SwitchStep(step="cut_out", on=False),
            _window(250, 560, 1760, 1760),
            SetTreatments(
                changes=TreatmentsChanges(
                    made=(
                        Dots(
                            pitch=0.018,
                            ink="#B8401A",
                            lighter=60,
                            masks=(SubjectAreaMask(inverted=True),),
                        ),
                    )
                )
            ),
        ),
    ),
    Story(
        "bowl-top.jpg",
        "Bowl, with hearts",
        (
            _size("square-post"),
            SetTreatments(changes=TreatmentsChanges(made=(Vignette(colour="#4A1608"),))),
            AddBadge(form="heart"),
            _piece(
                "badge-1",
                width=0.13,
                height=0.12,
                colour="#B8401A",
                anchor=MarginAnchor(x=0.5, y=0.5).model_dump(),
                dx=0,
                dy=0,
                perspective=Perspective(lean=-20, swing=15).model_dump(),
                repeat=Repeat(
                    kind="scatter",
                    count=14,
                    spread=0.7,
                    turned=True,
                    seed=8,
                    smallest=35,
                    near_blur=0.012,
                ).model_dump(),
            ),
        ),
    ),
    Story(
        "mugs-window.jpg",
        "Mug avatar",
        (
            _size("round-avatar"),
            _window(690, 690, 1700, 1700),
            SetBorder(
                changes=BorderChanges(
                    on=True,
                    bands=(
                        PatternBand(
                            pattern="scallops",
                            colour="#22445C",
                            ground="#F5F1E8",
                            thickness=Sides.all(0.08),
                        ),
                        LineBand(thickness=Sides.all(0.012), colour="#F5F1E8"),
                    ),
                )
            ),
        ),
    ),
    Story(
        "vase-grasses.jpg",
        "Grasses story",
        (
            _size("story"),
            SetShape(shape=PlainShape(kind="arch")),
            _border(0.03, "#D9C6A5", True),
            SetGround(place="outside", ground=SolidColour(colour="#F5F1E8")),
        ),
    ),
    Story(
        "vase-grasses.jpg",
        "Vase on green",
        (_size("story"), *VASE, SetGround(place="backdrop", ground=SolidColour(colour="#3B4F45"))),
    ),
    Story(
        "mugs-window.jpg",
        "Thursday mugs",
        (
            _size("tall-post"),
            SetFocus(
                focus=Focus(
                    point=Point(x=0.425, y=0.645),
                    box=Box(left=0.26, top=0.41, width=0.335, height=0.47),
                )
            ),
            _border(0.025),
            AddText(purpose="headline", text="New glaze,\nevery Thursday"),
            _piece("text-1", family="playfair-display", weight=900, size=0.115),
            SetExport(changes=ExportChanges(max_kb=400)),
            _also("square-post"),
            _also("video-thumbnail"),
            _window(0, 150, 3600, 2025),
            _here("text-1", text="New glaze, every Thursday", size=0.12),
            _also("link-card"),
            _window(0, 240, 3600, 1890),
            _here("text-1", text="New glaze, every Thursday", size=0.12),
            _also("round-avatar"),
            _not_here("text-1"),
        ),
        keep=((1, "Before the border"),),
    ),
)


STYLE_EDITS = (
    _size("square-post"),
    _also("tall-post"),
    SetBorder(
        changes=BorderChanges(
            bands=(
                LineBand(
                    thickness=Sides(top=0.035, right=0.035, bottom=0.145, left=0.035),
                    colour="#F5F1E8",
                    around=True,
                ),
            )
        )
    ),
    AddText(purpose="line", text="{name}"),
    _piece(
        "text-1",
        family="zilla-slab",
        size=0.062,
        wrap=None,
        colour="#1E2A2F",
        anchor=MarginAnchor(x=0, y=1).model_dump(),
        shadow=None,
    ),
    AddText(purpose="line", text="{price}"),
    _piece(
        "text-2",
        weight=600,
        size=0.05,
        wrap=None,
        colour="#1F6B4B",
        anchor=MarginAnchor(x=1, y=0.995).model_dump(),
        shadow=None,
    ),
    SetExport(changes=ExportChanges(max_kb=400)),
)
"""What makes the pottery's house style: a paper edge with the piece's name and price."""

STYLE_PARTS: tuple[PartKey, ...] = ("sizes", "border", "pieces", "export")

PIECES = {
    "Bird for a sill": ("bird-figure.jpg", "19 €"),
    "Everyday set": ("shelf-wide.jpg", "140 €"),
    "Kiln evening": ("kiln-night.jpg", "free"),
    "Tall vase": ("vase-grasses.jpg", "46 €"),
    "Throwing day": ("bench-tools.jpg", "65 €"),
    "Bowl in blue": ("bowl-top.jpg", "38 €"),
}
"""Finished in the house style: their photos and prices."""


def seed(folder: Path) -> None:
    """Add the demo's photos and finishes to an empty data folder."""
    store = Store(folder)
    try:
        if store.photos.page().total:
            return
        known = {}
        for path in sorted(PHOTOS.iterdir()):
            if path.suffix in (".jpg", ".png"):
                known[path.name] = store.photos.add(path.read_bytes(), path.name)[0].sha256
        store.marks.add("Studio mark", STUDIO_MARK)
        for subject in SUBJECTS:
            _keep(store, subject, known[subject.photo])
        style = _house_style(store, known["mugs-window.jpg"])
        for name, (photo, price) in PIECES.items():
            fresh = new_finish(name=name, photo_sha256=known[photo])
            store.finishes.create(started(fresh, store.photos, style, {"price": price}))
        for story in STORIES:
            _tell(store, story, known[story.photo])
        count = len(PIECES) + len(STORIES)
        print(f"Seeded {len(known)} photos and {count} finishes of Pebblewick Pottery.")
    finally:
        store.close()


def _keep(store: Store, subject: Subject, sha256: str) -> None:
    """Cut the subject out, and keep it on the shelf."""
    finish = new_finish(name=subject.name, photo_sha256=sha256)
    for edit in subject.edits:
        finish = apply_edit(Scene(finish, finish.sizes[0], store.photos), edit).finish
    store.subjects.add(subject.name, kept_subject(Scene(finish, finish.sizes[0], store.photos)))


def _house_style(store: Store, sha256: str) -> HouseStyle:
    """The pottery's style, kept from a finish that is itself not kept."""
    finish, size_id = new_finish(name="Paper edge", photo_sha256=sha256), "main"
    for edit in STYLE_EDITS:
        edited = apply_edit(Scene.of(finish, size_id, store.photos), edit)
        finish, size_id = edited.finish, edited.size_id
    style = kept_style(finish, new_style_id(), finish.name, STYLE_PARTS, suggest_light=False)
    return store.styles.keep(style)


def _taken(store: Store, name: str) -> AddPicture:
    """The edit that adds the kept subject of this name."""
    kept = next(one for one in store.subjects.list() if one.name == name)
    facts = store.photos.facts(kept.value.sha256)
    return AddPicture(
        sha256=kept.value.sha256, ratio=facts.width / facts.height, subject=used_subject(kept)
    )


def _tell(store: Store, story: Story, sha256: str) -> None:
    """Make the story's finish, each edit on the size that is then in hand."""
    record = store.finishes.create(new_finish(name=story.name, photo_sha256=sha256))
    versions = dict(story.keep)
    size_id = record.document.sizes[0].id
    for number, edit in enumerate(story.edits):
        if isinstance(edit, TakeSubject):
            edit = _taken(store, edit.name)
        edited = apply_edit(Scene.of(record.document, size_id, store.photos), edit)
        size_id = edited.size_id
        record = store.finishes.save(record.id, record.etag, edited.finish)
        if number in versions:
            store.finishes.keep_version(record.id, versions[number])


if __name__ == "__main__":
    seed(data_folder())
    sys.exit(0)
