"""House styles: kept under a name, one of them for every new photo, each out and in as a file."""

import uuid
from collections.abc import Sequence
from typing import TYPE_CHECKING

from lucky_margin.core.document import HouseStyle
from lucky_margin.core.errors import BadInput, NotFound
from lucky_margin.store.database import Database
from lucky_margin.store.kept import Kept, KeptStore
from lucky_margin.store.settings import SettingsStore

if TYPE_CHECKING:
    pass

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
