"""Seed a data folder with the photos and finishes of the invented Pebblewick Pottery.

Running it again changes nothing: what is there is left alone.
"""

import sys
from dataclasses import dataclass
from pathlib import Path

from lucky_margin.cli import data_folder
from lucky_margin.core.document import (
    BorderChanges,
    Box,
    ExportChanges,
    FixedPixels,
    Focus,
    Point,
    Shape,
    Sides,
    new_finish,
)
from lucky_margin.core.document.size_library import SIZE_LIBRARY
from lucky_margin.core.edits import Edit, apply_edit
from lucky_margin.core.edits.edit import (
    SetBorder,
    SetExport,
    SetFocus,
    SetPixels,
    SetShape,
    SetWindow,
)
from lucky_margin.store import Store

PHOTOS = Path(__file__).parent / "photos"


@dataclass(frozen=True)
class Story:
    """A finish and the edits that made it, one revision each; ``keep`` names versions."""

    photo: str
    name: str
    edits: tuple[Edit, ...]
    keep: tuple[tuple[int, str], ...] = ()


def _size(key: str) -> SetPixels:
    found = next(size for size in SIZE_LIBRARY if size.key == key)
    return SetPixels(pixels=found.pixels, name=found.name)


def _window(left: float, top: float, width: float, height: float) -> SetWindow:
    return SetWindow(window=Box(left=left, top=top, width=width, height=height))


def _border(thickness: float, colour: str = "#FFFFFF", outside: bool = False) -> SetBorder:
    changes = BorderChanges(thickness=Sides.all(thickness), colour=colour, outside=outside)
    return SetBorder(changes=changes)


STORIES = (
    Story(
        "bench-tools.jpg",
        "Bench, wide",
        (_size("link-card"), _window(330, 420, 2743, 1440), _border(0.02, "#F5F1E8", True)),
    ),
    Story("field-noon.jpg", "Field behind the studio", (_size("wide-banner"),)),
    Story(
        "bowl-top.jpg",
        "Bowl card",
        (
            SetPixels(pixels=FixedPixels(width=400, height=400), name="Own size"),
            _window(1010, 560, 1510, 1510),
            SetShape(shape=Shape(radius=0.5)),
            _border(0.03, "#1F6B4B"),
            SetExport(changes=ExportChanges(format="png")),
        ),
    ),
    Story(
        "shelf-wide.jpg",
        "Studio banner",
        (_size("wide-banner"), _window(0, 440, 4000, 1333.3333)),
    ),
    Story(
        "vase-grasses.jpg",
        "Grasses story",
        (_size("story"), SetShape(shape=Shape(radius=0.06)), _border(0.03, "#D9C6A5", True)),
    ),
    Story(
        "mugs-window.jpg",
        "Thursday mugs",
        (
            _size("tall-post"),
            SetFocus(focus=Focus(point=Point(x=0.45, y=0.6))),
            _border(0.025),
            SetExport(changes=ExportChanges(max_kb=400)),
        ),
        keep=((1, "Before the border"),),
    ),
)


def seed(folder: Path) -> None:
    """Add the demo's photos and finishes to an empty data folder."""
    store = Store(folder)
    try:
        if store.photos.list():
            return
        known = {}
        for path in sorted(PHOTOS.iterdir()):
            if path.suffix in (".jpg", ".png"):
                known[path.name] = store.photos.add(path.read_bytes(), path.name)[0].sha256
        for story in STORIES:
            _tell(store, story, known[story.photo])
        print(f"Seeded {len(known)} photos and {len(STORIES)} finishes of Pebblewick Pottery.")
    finally:
        store.close()


def _tell(store: Store, story: Story, sha256: str) -> None:
    facts = store.photos.facts(sha256)
    record = store.finishes.create(new_finish(name=story.name, photo_sha256=sha256))
    versions = dict(story.keep)
    for number, edit in enumerate(story.edits):
        document = apply_edit(record.document, "main", edit, facts).finish
        record = store.finishes.save(record.id, record.etag, document)
        if number in versions:
            store.finishes.keep_version(record.id, versions[number])


if __name__ == "__main__":
    seed(data_folder())
    sys.exit(0)
