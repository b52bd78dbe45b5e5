"""House styles: kept under a name, one of them for every new photo, each out and in as a file."""

import uuid
from collections.abc import Sequence
from typing import TYPE_CHECKING

from lucky_margin.core.document import HouseStyle
from lucky_margin.core.document.references import fonts_of, photos_of, tables_of
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.core.export import StyleFiles, read_style_file, style_file
from lucky_margin.store.database import Database
from lucky_margin.store.kept import Kept, KeptStore
from lucky_margin.store.settings import SettingsStore

if TYPE_CHECKING:
    from lucky_margin.store import Store

DEFAULT = "house style"


class StyleStore:
    """The house styles of a data folder."""

    def __init__(self, database: Database, settings: SettingsStore) -> None:
        self._kept = KeptStore[HouseStyle](database, "style", HouseStyle, "house style")
        self._settings = settings

    def list(self) -> Sequence[HouseStyle]:
        """All of them, the one changed last first."""
        return [_style(kept) for kept in self._kept.list()]

    def get(self, style_id: str) -> HouseStyle:
        """
        Raises:
            NotFound: there is no such style.
        """
        return _style(self._row(style_id))

    def named(self, name: str) -> HouseStyle:
        """The style of this name, whatever its case.

        Raises:
            NotFound: there is none; the message names those that are there.
        """
        styles = self.list()
        for style in styles:
            if style.name.casefold() == name.casefold():
                return style
        known = ", ".join(f"“{style.name}”" for style in styles) or "none yet"
        raise NotFound(f"There is no house style “{name}”; saved are: {known}.")

    def keep(self, style: HouseStyle) -> HouseStyle:
        """Keep a style: a new one, or a new version of one that is kept.

        Raises:
            BadInput: it gives nothing, or there are too many.
        """
        if not style.parts.given and not style.suggest_light:
            raise BadInput("Tick at least one part; a house style needs something to give.")
        style = style.model_copy(update={"version": 1})
        try:
            kept = self._row(style.id)
        except NotFound:
            return _style(self._kept.add(style.name, style))
        return _style(self._kept.change(kept.id, style.name, style))

    def remove(self, style_id: str) -> None:
        """Forget a style; finishes that have it keep it.

        Raises:
            NotFound: there is no such style.
        """
        self._kept.delete(self._row(style_id).id)
        if self._settings.get(DEFAULT) == style_id:
            self._settings.set(DEFAULT, None)

    @property
    def default(self) -> HouseStyle | None:
        """The style that new photos get, if one was chosen."""
        chosen = self._settings.get(DEFAULT)
        return self.get(chosen) if chosen else None

    def set_default(self, style_id: str | None) -> None:
        """Choose the style that new photos get.

        Raises:
            NotFound: there is no such style.
        """
        if style_id is not None:
            self._row(style_id)
        self._settings.set(DEFAULT, style_id)

    def _row(self, style_id: str) -> Kept[HouseStyle]:
        for kept in self._kept.list():
            if kept.value.id == style_id:
                return kept
        raise NotFound("This house style was removed; finishes that use it still have it.")


def new_style_id() -> str:
    """An id that no other style has."""
    return uuid.uuid4().hex[:16]


def _style(kept: Kept[HouseStyle]) -> HouseStyle:
    return kept.value.model_copy(update={"name": kept.name, "version": kept.version})


def export_style(store: "Store", style: HouseStyle) -> bytes:
    """A style as a file, with every picture, font and colour table that it needs."""
    return style_file(style, files_of_style(store, style))


def files_of_style(store: "Store", style: HouseStyle) -> StyleFiles:
    """The pictures, fonts and colour tables that a style needs.

    Raises:
        NotFound: one of them is gone.
    """
    photos = {}
    for sha256 in photos_of(style):
        record = store.photos.get(sha256)
        photos[sha256] = (record.name, store.photos.original(sha256).read_bytes())
    fonts = {one: store.fonts.data(one) for one in fonts_of(style)}
    tables = {one: store.tables.data(one) for one in tables_of(style)}
    return StyleFiles(photos, fonts, tables)


def import_style(store: "Store", data: bytes) -> HouseStyle:
    """Keep the style of such a file; one that is here already gets a new version where it differs.

    Raises:
        BadDocument: it is no such file, or something that it needs is not in it.
        LuckyMarginError: a picture, a font or a colour table of it is not taken.
    """
    style, files = read_style_file(data)
    for name, photo in files.photos.values():
        store.photos.add(photo, name)
    for font in files.fonts.values():
        store.fonts.add(font)
    for table in files.tables.values():
        store.tables.add(table)
    return store.styles.keep(style)
