"""Finishes and their revisions: every committed change is a row, and none is ever lost."""

import json
import sqlite3
import uuid
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass

from lucky_margin.core.document import (
    Finish,
    HouseStyle,
    Used,
    UsedMark,
    UsedSubject,
    read_finish,
    renewed,
)
from lucky_margin.core.document.history import describe_change
from lucky_margin.core.errors import BadDocument, Conflict, NotFound, StaleSave, StorageFull
from lucky_margin.core.render import check_sound
from lucky_margin.core.scene import MATTE, subjects_in
from lucky_margin.core.stock import folded
from lucky_margin.store.database import PAGE, Database, now
from lucky_margin.store.photos import PhotoStore
from lucky_margin.store.strokes import apart, together

MAX_VERSION_NAME = 120


@dataclass(frozen=True)
class FinishRecord:
    """A finish as it stands: its head revision's document and where that is in its history."""

    id: str
    etag: int
    revision: int
    changes: int
    document: Finish
    can_undo: bool
    can_redo: bool
    changed_at: str
    binned: bool


@dataclass(frozen=True)
class FinishEntry:
    """A finish as a list shows it. Where its document can't be read, ``document`` is None and
    ``problem`` says why."""

    id: str
    etag: int
    name: str
    photo_sha256: str | None
    document: Finish | None
    problem: str
    can_undo: bool
    changed_at: str


@dataclass(frozen=True)
class RevisionRecord:
    """One committed change."""

    id: int
    parent: int | None
    label: str
    version_name: str | None
    created_at: str


@dataclass(frozen=True)
class FinishesWanted:
    """Which finishes a list has: those in whose names ``search`` is, of the bin or not, and of
    those what ``uses`` a photo or backdrop now, by its key in the library."""

    search: str = ""
    binned: bool = False
    uses: str | None = None

    @property
    def condition(self) -> str:
        """What SQL asks of them; the index of those on the shelf needs the plain words."""
        return f"""
            WHERE binned_at IS {"NOT NULL" if self.binned else "NULL"}
              AND (:search = '' OR instr(folded_name, :search) > 0)
              AND (:kind = '' OR EXISTS (
                  SELECT 1 FROM refers_to
                  WHERE refers_to.kind = :kind AND refers_to.key = :key AND revision_id = head))
        """

    @property
    def bound(self) -> dict[str, object]:
        """The values of that."""
        kind, _, key = (self.uses or "").partition(":")
        return {"search": folded(self.search), "kind": kind, "key": key}


EVERY_FINISH = FinishesWanted()


class FinishStore:
    """The finishes of a data folder; ``photos`` are those that they may refer to."""

    def __init__(self, database: Database, photos: PhotoStore) -> None:
        self._database = database
        self._photos = photos

    def create(self, document: Finish, label: str = "Started") -> FinishRecord:
        """A new finish whose first revision is ``document``.

        Raises:
            NotFound: a photo of it is not on the shelf.
            TooLarge: one of its sizes comes to too many pixels.
        """
        check_sound(document, self._photos)
        finish_id = uuid.uuid4().hex[:16]
        moment = now()
        photo = document.photo and document.photo.sha256
        with self._database.write() as connection:
            connection.execute(
                "INSERT INTO finishes (id, name, folded_name, photo, created_at, changed_at)"
                " VALUES (?, ?, ?, ?, ?, ?)",
                (finish_id, document.name, folded(document.name), photo, moment, moment),
            )
            revision = _add_revision(connection, finish_id, None, label, document)
            connection.execute("UPDATE finishes SET head = ? WHERE id = ?", (revision, finish_id))
            record = _read(connection, finish_id)
        self._keep_mattes(document)
        return record

    def get(self, finish_id: str) -> FinishRecord:
        """
        Raises:
            NotFound: there is no such finish.
        """
        with self._database.read() as connection:
            return _read(connection, finish_id)

    def save(self, finish_id: str, etag: int, document: Finish) -> FinishRecord:
        """Commit ``document`` as a new revision after the head; an unchanged one is no revision.

        Raises:
            NotFound: there is no such finish, or a photo of it is not on the shelf.
            TooLarge: one of its sizes comes to too many pixels.
            StaleSave: somebody saved since ``etag``; nothing is changed.
        """
        check_sound(document, self._photos)
        with self._database.write() as connection:
            current = _entry(_checked(connection, finish_id, etag))
            label = describe_change(current.document, document) if current.document else MENDED
            if label:
                _commit(connection, finish_id, label, document)
            record = _read(connection, finish_id)
        self._keep_mattes(document)
        return record

    def undo(self, finish_id: str, etag: int) -> FinishRecord:
        """Make the head's parent the head; at the first revision nothing happens.

        Raises:
            NotFound: there is no such finish.
            StaleSave: somebody saved since ``etag``.
        """
        with self._database.write() as connection:
            head = _checked(connection, finish_id, etag)["head"]
            parent = _revision(connection, finish_id, head)["parent_id"]
            _move_head(connection, finish_id, parent)
            return _read(connection, finish_id)

    def redo(self, finish_id: str, etag: int) -> FinishRecord:
        """Make the head's newest child the head; where there is none nothing happens.

        Raises:
            NotFound: there is no such finish.
            StaleSave: somebody saved since ``etag``.
        """
        with self._database.write() as connection:
            head = _checked(connection, finish_id, etag)["head"]
            _move_head(connection, finish_id, _newest_child(connection, head))
            return _read(connection, finish_id)

    def reopen(self, finish_id: str, etag: int, revision: int) -> FinishRecord:
        """Commit an earlier revision's document again, so that undo leads back to the present.

        Raises:
            NotFound: there is no such finish or revision.
            StaleSave: somebody saved since ``etag``.
        """
        with self._database.write() as connection:
            current = _entry(_checked(connection, finish_id, etag))
            row = _revision(connection, finish_id, revision)
            document = _document(row)
            if document != current.document:
                label = f"Back to “{row['version_name'] or row['label']}”"
                _commit(connection, finish_id, label, document)
            return _read(connection, finish_id)

    def revision_document(self, finish_id: str, revision: int) -> Finish:
        """The document of one revision.

        Raises:
            NotFound: there is no such revision of this finish.
        """
        with self._database.read() as connection:
            return _document(_revision(connection, finish_id, revision))

    def revisions(self, finish_id: str) -> list[RevisionRecord]:
        """Every revision, newest first.

        Raises:
            NotFound: there is no such finish.
        """
        with self._database.read() as connection:
            _row(connection, finish_id)
            rows = connection.execute(
                "SELECT * FROM revisions WHERE finish_id = ? ORDER BY id DESC", (finish_id,)
            )
            return [_revision_record(row) for row in rows]

    def keep_version(self, finish_id: str, name: str) -> RevisionRecord:
        """Name the head revision, so that it is found again among the versions.

        Raises:
            NotFound: there is no such finish.
        """
        with self._database.write() as connection:
            head = _row(connection, finish_id)["head"]
            connection.execute(
                "UPDATE revisions SET version_name = ? WHERE id = ?",
                (name.strip()[:MAX_VERSION_NAME], head),
            )
            return _revision_record(_revision(connection, finish_id, head))

    def list(
        self, wanted: FinishesWanted = EVERY_FINISH, *, offset: int = 0, limit: int = PAGE
    ) -> list[FinishEntry]:
        """One page of finishes, those changed last first. One that can't be read is listed with
        what is wrong with it."""
        with self._database.read() as connection:
            rows = connection.execute(
                f"{_SELECT} {wanted.condition} ORDER BY changed_at DESC, head DESC"
                " LIMIT :limit OFFSET :offset",
                wanted.bound | {"limit": limit, "offset": offset},
            )
            return [_entry(row) for row in rows]

    def named(self, name: str) -> Finish:
        """The document of the finish of this name, whatever its case; of several, that which was
        changed last.

        Raises:
            NotFound: there is none on the shelf.
        """
        with self._database.read() as connection:
            row = connection.execute(
                f"{_SELECT} WHERE binned_at IS NULL AND folded_name = ?"
                " ORDER BY changed_at DESC LIMIT 1",
                (folded(name),),
            ).fetchone()
        if row is None:
            raise NotFound(
                f"There is no finish “{name}” on the shelf; see how it is written there."
            )
        return _document(row)

    def entries(self, ids: Sequence[str]) -> Sequence[FinishEntry]:
        """These finishes, in this order.

        Raises:
            NotFound: one of them is not there.
        """
        with self._database.read() as connection:
            return [_entry(_row(connection, one)) for one in ids]

    def count(self, wanted: FinishesWanted = EVERY_FINISH) -> int:
        """How many finishes such a list has."""
        with self._database.read() as connection:
            row = connection.execute(
                f"SELECT count(*) AS total FROM finishes {wanted.condition}", wanted.bound
            ).fetchone()
            return int(row["total"])

    def count_older_uses(self, used: Used) -> int:
        """How many finishes use an earlier version of what is kept, those in the bin left out."""
        with self._database.read() as connection:
            row = connection.execute(
                f"SELECT count(*) AS total FROM ({_OLDER_USES})",
                _older_than(used),
            ).fetchone()
            return int(row["total"])

    def using_older(self, used: Used) -> Sequence[FinishEntry]:
        """Finishes that use an earlier version of what is kept, those in the bin left out."""
        with self._database.read() as connection:
            return _using_older(connection, used)

    def renew(self, used: Used) -> int:
        """The present version of what is kept in every finish that uses an earlier one, a revision
        in each; how many there were."""
        documents = []
        with self._database.write() as connection:
            for entry in _using_older(connection, used):
                if entry.document is not None:
                    documents.append(renewed(entry.document, used))
                    self.save(entry.id, entry.etag, documents[-1])
        for document in documents:
            self._keep_mattes(document)
        return len(documents)

    def set_binned(self, finish_id: str, binned: bool) -> None:
        """Put a finish in the bin, or back on the shelf.

        Raises:
            NotFound: there is no such finish.
        """
        with self._database.write() as connection:
            _row(connection, finish_id)
            connection.execute(
                "UPDATE finishes SET binned_at = ? WHERE id = ?",
                (now() if binned else None, finish_id),
            )

    def delete(self, finish_id: str) -> None:
        """Delete a finish in the bin for good, with its revisions and the records of its exports.

        Raises:
            NotFound: there is no such finish.
            Conflict: it is not in the bin.
        """
        with self._database.write() as connection:
            if _row(connection, finish_id)["binned_at"] is None:
                raise Conflict("Only a finish in the bin can be deleted for good; bin it first.")
            connection.execute("UPDATE finishes SET head = NULL WHERE id = ?", (finish_id,))
            connection.execute(
                "UPDATE revisions SET parent_id = NULL WHERE finish_id = ?", (finish_id,)
            )
            connection.execute("DELETE FROM finishes WHERE id = ?", (finish_id,))

    def _keep_mattes(self, document: Finish) -> None:
        """Keep what was found already of the subjects in a document that was just committed; what
        is found later is kept then."""
        with suppress(StorageFull):  # the change itself is saved
            for subject in subjects_in(document):
                self._photos.keep_matte(subject.matte_key)


MENDED = "Mended"
"""The label of a change to a document that could not be read."""

_STROKES = """
    (SELECT json_group_object(key, stroke) FROM strokes
     WHERE strokes.finish_id = revisions.finish_id) AS strokes
"""
"""All strokes of the finish whose revision a row is."""

_SELECT = f"""
    SELECT finishes.id, etag, finishes.name, photo, head, changed_at, binned_at,
           revisions.document, {_STROKES},
           revisions.parent_id IS NOT NULL AS can_undo,
           EXISTS (SELECT 1 FROM revisions AS child WHERE child.parent_id = head) AS can_redo,
           (SELECT count(*) FROM revisions AS one WHERE one.finish_id = finishes.id) AS changes
    FROM finishes JOIN revisions ON revisions.id = head
"""


_OLDER_USES = """
    SELECT DISTINCT finishes.id
    FROM refers_to JOIN finishes ON finishes.head = refers_to.revision_id
    WHERE refers_to.kind = :kind AND refers_to.key = :key AND refers_to.version < :version
      AND finishes.binned_at IS NULL
"""


def _row(connection: sqlite3.Connection, finish_id: str) -> sqlite3.Row:
    row: sqlite3.Row | None = connection.execute(
        f"{_SELECT} WHERE finishes.id = ?", (finish_id,)
    ).fetchone()
    if row is None:
        raise NotFound("There is no such finish (any more); pick one from the shelf.")
    return row


def _read(connection: sqlite3.Connection, finish_id: str) -> FinishRecord:
    return _record(_row(connection, finish_id))


def _older_than(used: Used) -> dict[str, str | int]:
    kinds = {UsedMark: "mark", UsedSubject: "subject", HouseStyle: "style"}
    return {"kind": kinds[type(used)], "key": str(used.id), "version": used.version}


def _using_older(connection: sqlite3.Connection, used: Used) -> list[FinishEntry]:
    rows = connection.execute(f"{_SELECT} WHERE finishes.id IN ({_OLDER_USES})", _older_than(used))
    return [_entry(row) for row in rows]


def _document(row: sqlite3.Row) -> Finish:
    """The document of a revision's row.

    Raises:
        BadDocument, ValueError: it is damaged.
    """
    return read_finish(together(row["document"], row["strokes"]))


def _entry(row: sqlite3.Row) -> FinishEntry:
    document, problem = None, ""
    try:
        document = _document(row)
    except BadDocument as error:
        problem = str(error)
    except ValueError:
        problem = "Its document is damaged."
    return FinishEntry(
        id=row["id"],
        etag=row["etag"],
        name=row["name"],
        photo_sha256=row["photo"],
        document=document,
        problem=problem,
        can_undo=bool(row["can_undo"]),
        changed_at=row["changed_at"],
    )


def _record(row: sqlite3.Row) -> FinishRecord:
    return FinishRecord(
        id=row["id"],
        etag=row["etag"],
        revision=row["head"],
        changes=row["changes"],
        document=_document(row),
        can_undo=bool(row["can_undo"]),
        can_redo=bool(row["can_redo"]),
        changed_at=row["changed_at"],
        binned=row["binned_at"] is not None,
    )


def _checked(connection: sqlite3.Connection, finish_id: str, etag: int) -> sqlite3.Row:
    """The finish's row, if ``etag`` is current."""
    current = _row(connection, finish_id)
    if current["etag"] != etag:
        raise StaleSave(
            "This finish was changed in another window meanwhile; "
            "load the newer one or keep yours as a copy.",
            etag=current["etag"],
        )
    return current


def _commit(connection: sqlite3.Connection, finish_id: str, label: str, document: Finish) -> None:
    head = _row(connection, finish_id)["head"]
    revision = _add_revision(connection, finish_id, head, label, document)
    _move_head(connection, finish_id, revision)


def _add_revision(
    connection: sqlite3.Connection,
    finish_id: str,
    parent: int | None,
    label: str,
    document: Finish,
) -> int:
    text, strokes = apart(document)
    connection.executemany(
        "INSERT OR IGNORE INTO strokes VALUES (?, ?, ?)",
        [(finish_id, name, stroke) for name, stroke in strokes.items()],
    )
    cursor = connection.execute(
        "INSERT INTO revisions (finish_id, parent_id, label, document, created_at)"
        " VALUES (?, ?, ?, ?, ?)",
        (finish_id, parent, label, text, now()),
    )
    assert cursor.lastrowid is not None  # an INSERT always has one
    # All else that it refers to is found in it by a trigger.
    connection.executemany(
        "INSERT INTO refers_to (kind, key, version, revision_id) VALUES (?, ?, 0, ?)",
        {(MATTE, one.matte_key.name, cursor.lastrowid) for one in subjects_in(document)},
    )
    return cursor.lastrowid


def _move_head(connection: sqlite3.Connection, finish_id: str, revision: int | None) -> None:
    """Make ``revision`` the head; None leaves it."""
    if revision is None:
        return
    name = json.loads(_revision(connection, finish_id, revision)["document"])["name"]
    connection.execute(
        "UPDATE finishes SET head = ?, etag = etag + 1, name = ?, folded_name = ?, changed_at = ?"
        " WHERE id = ?",
        (revision, name, folded(name), now(), finish_id),
    )


def _newest_child(connection: sqlite3.Connection, revision: int) -> int | None:
    row = connection.execute(
        "SELECT max(id) AS id FROM revisions WHERE parent_id = ?", (revision,)
    ).fetchone()
    newest: int | None = row["id"]
    return newest


def _revision(connection: sqlite3.Connection, finish_id: str, revision: int) -> sqlite3.Row:
    row: sqlite3.Row | None = connection.execute(
        f"SELECT *, {_STROKES} FROM revisions WHERE finish_id = ? AND id = ?",
        (finish_id, revision),
    ).fetchone()
    if row is None:
        raise NotFound("There is no such change of this finish; pick one from its history.")
    return row


def _revision_record(row: sqlite3.Row) -> RevisionRecord:
    return RevisionRecord(
        id=row["id"],
        parent=row["parent_id"],
        label=row["label"],
        version_name=row["version_name"],
        created_at=row["created_at"],
    )
