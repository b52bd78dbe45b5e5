"""House styles and finishes as files, out of a shelf and into another."""

from typing import TYPE_CHECKING

from lucky_margin.core.cut_out import WORKING_SIDE, read_matte
from lucky_margin.core.document import Finish, HouseStyle, Value
from lucky_margin.core.document.references import fonts_of, photos_of, tables_of
from lucky_margin.core.export import FINISH, STYLE, PackageFiles, package, read_package
from lucky_margin.core.render import matte_sides
from lucky_margin.core.scene import subjects_in
from lucky_margin.store.finishes import FinishRecord

if TYPE_CHECKING:
    from lucky_margin.store import Store


def export_style(store: "Store", style: HouseStyle) -> bytes:
    """A style as a file, with every picture, font and colour table that it needs."""
    return package(STYLE, style, files_of(store, style))


def export_finish(store: "Store", finish: Finish) -> bytes:
    """A finish as a file, likewise, with what was found of its subjects."""
    files = files_of(store, finish)
    for subject in subjects_in(finish):
        matte = store.mattes.data(subject.matte_key)
        if matte is not None:
            files.mattes[subject.matte_key.name] = matte
    return package(FINISH, finish, files)


def files_of(store: "Store", value: Value) -> PackageFiles:
    """The pictures, fonts and colour tables that a style or a finish needs.

    Raises:
        NotFound: one of them is gone.
    """
    photos = {}
    for sha256 in photos_of(value):
        record = store.photos.get(sha256)
        photos[sha256] = (record.name, store.photos.original(sha256).read_bytes())
    fonts = {one: store.fonts.data(one) for one in fonts_of(value)}
    tables = {one: store.tables.data(one) for one in tables_of(value)}
    return PackageFiles(photos, fonts, tables)


def import_style(store: "Store", data: bytes) -> HouseStyle:
    """Keep the style of such a file; one that is here already gets a new version where it differs.

    Raises:
        BadDocument: it is no such file, or something that it needs is not in it.
        LuckyMarginError: a picture, a font or a colour table of it is not taken.
    """
    style, files = read_package(STYLE, data)
    _take_in(store, files)
    return store.styles.keep(style)


def import_finish(store: "Store", data: bytes) -> FinishRecord:
    """A new finish from such a file.

    Raises:
        BadDocument: it is no such file, or something that it needs is not in it.
        LuckyMarginError: a picture, a font or a colour table of it is not taken.
    """
    finish, files = read_package(FINISH, data)
    _take_in(store, files)
    record = store.finishes.create(finish, label="Opened from a file")
    for subject in subjects_in(finish):
        matte = read_matte(files.mattes.get(subject.matte_key.name, b""), WORKING_SIDE)
        if matte is not None and matte.shape == matte_sides(subject, store.photos):
            store.mattes.keep(subject.matte_key, matte)
    return record


def _take_in(store: "Store", files: PackageFiles) -> None:
    for name, photo in files.photos.values():
        store.photos.add(photo, name)
    for font in files.fonts.values():
        store.fonts.add(font)
    for table in files.tables.values():
        store.tables.add(table)
