"""Photos: originals kept untouched, their facts, and the pictures made from them."""

import dataclasses
import hashlib
import json
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any, Literal

from numpy.typing import NDArray

from lucky_margin.core.errors import NotFound, OriginalMissing, PhotoInUse, StorageFull
from lucky_margin.core.palette import ColourName, colours_seen
from lucky_margin.core.photos import PhotoFacts, decode
from lucky_margin.core.sampling import as_8_bits, halved
from lucky_margin.core.scene import MATTE, DerivedKey, PictureCache
from lucky_margin.core.stock import folded
from lucky_margin.core.types import AnyPicture
from lucky_margin.store.database import PAGE, Database, now
from lucky_margin.store.derived import DerivedStore
from lucky_margin.store.files import FileStore
from lucky_margin.store.fonts import FontStore
from lucky_margin.store.mattes import MatteStore
from lucky_margin.store.tables import TableStore

MISSING = "The original of this photo is gone from the data folder; add the same photo again."

SMALLEST_SIDE = 64
"""Pixels: halved copies are kept until one's short side would be less."""

COLOURS_LEVEL = 3
"""The halved copy that is large enough to say what colours a photo has."""

_FACTS_KEPT = 4096
"""Photos whose facts are remembered; they never change."""


@dataclass(frozen=True)
class PhotoRecord:
    """A photo on the shelf."""

    sha256: str
    name: str
    bytes: int
    facts: PhotoFacts
    created_at: str
    favourite: bool
    uses: int


@dataclass(frozen=True)
class PhotosWanted:
    """Which photos a list has: those in whose names ``search`` is, of that ``colour``, and ``only``
    the favourites or those that were used lately."""

    search: str = ""
    colour: ColourName | None = None
    only: Literal["favourites", "recent"] | None = None

    @property
    def condition(self) -> str:
        """What SQL asks of them; what is not asked for costs nothing."""
        asked = ["1"]
        if self.colour:
            asked.append("instr(colours, :colour) > 0")
        if self.search:
            asked.append("instr(folded_name, :search) > 0")
        if self.only:
            field = "used_at IS NOT NULL" if self.only == "recent" else "favourite"
            asked.append(f"(SELECT {field} FROM library WHERE key = 'photo:' || sha256)")
        return " AND ".join(asked)

    @property
    def place(self) -> str:
        """What SQL sorts them by, the largest first."""
        if self.only == "recent":
            return "(SELECT used_at FROM library WHERE key = 'photo:' || sha256)"
        return "rowid"

    @property
    def bound(self) -> dict[str, object]:
        """The values of the condition."""
        return {"search": folded(self.search), "colour": f" {self.colour} "}


EVERY_PHOTO = PhotosWanted()


@dataclass(frozen=True)
class PhotoPage:
    """One page of a list, and how many photos all of it has."""

    photos: list[PhotoRecord]
    total: int


_FIELDS = """
    photos.*,
    coalesce((SELECT favourite FROM library WHERE key = 'photo:' || sha256), 0) AS favourite,
    (SELECT count(*) FROM refers_to JOIN finishes ON finishes.head = refers_to.revision_id
     WHERE refers_to.kind = 'photo' AND refers_to.key = sha256 AND binned_at IS NULL) AS uses
"""


class PhotoStore:
    """The photos of a data folder; also the renderer's ``Sources``."""

    def __init__(
        self,
        database: Database,
        originals: FileStore,
        derived: DerivedStore,
        tables: TableStore,
        fonts: FontStore,
        mattes: MatteStore,
    ) -> None:
        self.cache = PictureCache()
        self._database = database
        self._originals = originals
        self._derived = derived
        self._mattes = mattes
        self.table = tables.get
        self.font = fonts.face
        self.facts = lru_cache(_FACTS_KEPT)(self._facts)

    def add(self, data: bytes, name: str) -> tuple[PhotoRecord, bool]:
        """Keep a photo; returns its record and whether it was known already.

        The same bytes again are the same photo, and bring back an original that was lost.

        Raises:
            UnreadablePhoto, TooLarge: it is not taken; nothing is kept.
            StorageFull: the disk took no more bytes; nothing is kept.
        """
        sha256 = hashlib.sha256(data).hexdigest()
        known = self._find(sha256)
        if known and sha256 in self._originals:
            return known, True
        decoded = decode(data, name)
        with self._originals.adding(data):
            known = self._find(sha256)
            try:
                smallest = self._keep_levels(sha256, decoded.picture)
                if not known:
                    self._insert(sha256, name, len(data), decoded.facts, _colours_of(smallest))
            except BaseException:
                if not known:
                    self._derived.remove(sha256)
                raise
        return known or self.get(sha256), known is not None

    def _insert(self, sha256: str, name: str, size: int, facts: PhotoFacts, colours: str) -> None:
        fields = dataclasses.asdict(facts)
        exif = fields.pop("exif")
        with self._database.write() as connection:
            connection.execute(
                "INSERT INTO photos VALUES (?, ?, ?, ?, ?, ?, ?, ?)",
                (sha256, name, size, json.dumps(fields), exif, now(), folded(name), colours),
            )

    def learn_colours(self, sha256: str) -> None:
        """Note what the colours are called of a photo that was added before that was done."""
        with self._database.read() as connection:
            row = connection.execute(
                "SELECT colours FROM photos WHERE sha256 = ?", (sha256,)
            ).fetchone()
        if row is None or row["colours"]:
            return
        colours = _colours_of(self.level(sha256, COLOURS_LEVEL))
        with self._database.write() as connection:
            connection.execute("UPDATE photos SET colours = ? WHERE sha256 = ?", (colours, sha256))

    def sweep(self) -> None:
        """Remove originals that no photo names and files that were never finished, if they are
        older than a day: a crash left them."""
        with self._database.read() as connection:
            wanted = {row["sha256"] for row in connection.execute("SELECT sha256 FROM photos")}
        self._originals.sweep(wanted)
        self._derived.sweep()

    def get(self, sha256: str) -> PhotoRecord:
        """
        Raises:
            NotFound: there is no such photo.
        """
        record = self._find(sha256)
        if record is None:
            raise NotFound("There is no such photo on the shelf; add it again.")
        return record

    def page(
        self, wanted: PhotosWanted = EVERY_PHOTO, *, offset: int = 0, limit: int = PAGE
    ) -> PhotoPage:
        """One page of photos, newest first; of those used last, that first."""
        # All that are wanted are found in one pass over the index of their words.
        script = f"""
            WITH hits AS MATERIALIZED (
                SELECT rowid AS hit, {wanted.place} AS place
                FROM photos INDEXED BY photos_by_words WHERE {wanted.condition}
            )
            SELECT {_FIELDS}, (SELECT count(*) FROM hits) AS total
            FROM (SELECT * FROM hits ORDER BY place DESC LIMIT :limit OFFSET :offset)
                 JOIN photos ON photos.rowid = hit
            ORDER BY place DESC
        """
        with self._database.read() as connection:
            rows = connection.execute(
                script, wanted.bound | {"limit": limit, "offset": offset}
            ).fetchall()
            if not rows and offset:
                return PhotoPage([], self.page(wanted, limit=1).total)
        return PhotoPage([_record(row) for row in rows], rows[0]["total"] if rows else 0)

    def original(self, sha256: str) -> Path:
        """Where the original's untouched bytes are.

        Raises:
            NotFound: there is no such photo.
            OriginalMissing: its bytes are gone.
        """
        self.get(sha256)
        path = self._originals.path(sha256)
        if not path.is_file():
            raise OriginalMissing(MISSING)
        return path

    def delete(self, sha256: str) -> None:
        """Delete a photo that no finish uses or has ever used as a ground, original and all.

        Raises:
            NotFound: there is no such photo.
            PhotoInUse: finishes (those in the bin too) or what was kept for reuse refer to it.
        """
        self.get(sha256)
        with self._database.write() as connection:
            users = connection.execute(
                """
                SELECT DISTINCT finishes.id, finishes.name, binned_at
                FROM finishes
                LEFT JOIN revisions ON revisions.finish_id = finishes.id
                LEFT JOIN refers_to ON refers_to.revision_id = revisions.id
                     AND refers_to.kind = 'photo' AND refers_to.key = :sha256
                WHERE finishes.photo = :sha256 OR refers_to.key IS NOT NULL
                ORDER BY finishes.name
                """,
                {"sha256": sha256},
            ).fetchall()
            kept = connection.execute(
                """
                SELECT name FROM kept
                WHERE EXISTS (SELECT 1 FROM json_tree(kept.value) AS node
                              WHERE node.key = 'sha256' AND node.atom = :sha256)
                ORDER BY name
                """,
                {"sha256": sha256},
            ).fetchall()
            if kept:
                saved = ", ".join(f"“{row['name']}”" for row in kept)
                raise PhotoInUse(
                    f"{saved}, which you saved for reuse, needs this photo; remove that first.",
                    finishes=[],
                )
            if users:
                names = [
                    f"{u['name']} (in the bin)" if u["binned_at"] else u["name"] for u in users
                ]
                raise PhotoInUse(
                    f"This photo is still used by {', '.join(names)}; "
                    "delete those finishes for good first.",
                    finishes=names,
                )
            connection.execute("DELETE FROM photos WHERE sha256 = ?", (sha256,))
        self._originals.remove(sha256)
        self._derived.remove(sha256)
        self.facts.cache_clear()

    def level(self, sha256: str, number: int) -> AnyPicture:
        """See ``core.scene.Sources``."""
        return self.derived(_level(sha256, number), lambda: self._made(sha256, number))

    def derived(self, key: DerivedKey, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """See ``core.scene.Sources``. On a full disk it is kept in memory alone."""
        try:
            if key.kind == MATTE:
                return self._matte(key, make)
            return self._derived.get_or_make(key, make)
        except StorageFull:
            return self.cache.get_or_make(key, make)

    def keep_matte(self, key: DerivedKey) -> None:
        """Keep a matte for good that was made already, if a saved change is drawn with it.

        Raises:
            StorageFull: the disk took no more bytes.
        """
        matte = self._derived.load(key)
        if matte is not None:
            self._mattes.keep(key, matte)

    def _matte(self, key: DerivedKey, make: Callable[[], NDArray[Any]]) -> NDArray[Any]:
        """One that is kept for good goes before one that is made now."""
        matte = self._derived.load(key)
        if matte is None:
            matte = self._derived.get_or_make(
                key, lambda: make() if (kept := self._mattes.load(key)) is None else kept
            )
            self._mattes.keep(key, matte)
        return matte

    def _keep_levels(self, sha256: str, picture: AnyPicture) -> AnyPicture:
        """Keep a decoded photo and its halved copies; returns the smallest."""
        number = 0
        self._derived.keep(_level(sha256, 0), picture)
        while min(picture.shape[:2]) >= 2 * SMALLEST_SIDE:
            picture = halved(picture)
            number += 1
            self._derived.keep(_level(sha256, number), picture)
        return picture

    def _made(self, sha256: str, number: int) -> AnyPicture:
        """A level that is not on disk: past the smallest kept, or pruned."""
        if number > 0:
            return halved(self.level(sha256, number - 1))
        return decode(self.original(sha256).read_bytes(), self.get(sha256).name).picture

    def _facts(self, sha256: str) -> PhotoFacts:
        """See ``core.render.Sources``."""
        return self.get(sha256).facts

    def _find(self, sha256: str) -> PhotoRecord | None:
        with self._database.read() as connection:
            row = connection.execute(
                f"SELECT {_FIELDS} FROM photos WHERE sha256 = ?", (sha256,)
            ).fetchone()
        return _record(row) if row else None


def _level(sha256: str, number: int) -> DerivedKey:
    return DerivedKey("level", sha256, (str(number),))


def _colours_of(picture: AnyPicture) -> str:
    """What its colours are called, as it is stored."""
    return f" {' '.join(colours_seen(as_8_bits(picture)))} "


def _record(row: sqlite3.Row) -> PhotoRecord:
    fields = json.loads(row["facts"])
    fields["notes"] = tuple(fields["notes"])
    return PhotoRecord(
        sha256=row["sha256"],
        name=row["name"],
        bytes=row["bytes"],
        facts=PhotoFacts(**fields, exif=row["exif"]),
        created_at=row["created_at"],
        favourite=bool(row["favourite"]),
        uses=row["uses"],
    )
