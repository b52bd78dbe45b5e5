"""Thinning out: old changes and old saved files removed by a rule that the person sets."""

from datetime import UTC, datetime, timedelta
from sqlite3 import Connection

from pydantic import Field

from lucky_margin.core.document import Value
from lucky_margin.store.database import Database
from lucky_margin.store.exports import ExportStore


class ThinningRule(Value):
    """What is older than ``days`` goes: of the ``changes`` of a finish all but the last of each
    day, of saved ``files`` all."""

    days: int = Field(default=90, ge=1, le=36_500)
    changes: bool = True
    files: bool = False


class Thinned(Value):
    """How much goes, or has gone; bytes of documents and of files."""

    changes: int
    files: int
    bytes: int


def thin(database: Database, exports: ExportStore, rule: ThinningRule, *, remove: bool) -> Thinned:
    """Count what goes by ``rule``, and ``remove`` it if that is asked.

    What stands is never touched: the present state of a finish, its first, versions with a name,
    and what a saved file came from stay, and undo steps over what is gone.
    """
    before = (datetime.now(UTC) - timedelta(days=rule.days)).isoformat()
    with database.write() as connection:
        files, changes = [], []
        if rule.files:
            files = connection.execute(_OLD_FILES, (before,)).fetchall()
        if rule.changes:
            changes = connection.execute(_OLD_CHANGES, (before, rule.files)).fetchall()
        if remove:
            connection.executemany("DELETE FROM exports WHERE id = ?", [row[:1] for row in files])
            _remove(connection, {row["id"]: row["parent_id"] for row in changes})
    if remove:
        exports.remove_unrecorded({row["sha256"] for row in files})
        database.compact()
    freed = {row["sha256"]: row["bytes"] for row in files if row["is_last"]}
    return Thinned(
        changes=len(changes),
        files=len(files),
        bytes=sum(freed.values()) + sum(row["bytes"] for row in changes),
    )


def _remove(connection: Connection, parents: dict[int, int]) -> None:
    """Remove revisions, given with their parents; what follows them follows the nearest that is
    kept."""
    for gone in parents:
        nearest = parents[gone]
        while nearest in parents:
            nearest = parents[nearest]
        connection.execute(
            "UPDATE revisions SET parent_id = ? WHERE parent_id = ?", (nearest, gone)
        )
    connection.executemany("DELETE FROM revisions WHERE id = ?", [(gone,) for gone in parents])
    connection.execute(
        "DELETE FROM strokes WHERE NOT EXISTS (SELECT 1 FROM revisions"
        " WHERE revisions.finish_id = strokes.finish_id AND instr(document, strokes.key) > 0)"
    )


_OLD_FILES = """
    SELECT id, sha256, bytes, NOT EXISTS (
               SELECT 1 FROM exports AS younger
               WHERE younger.sha256 = exports.sha256 AND younger.created_at >= ?1
           ) AS is_last
    FROM exports WHERE created_at < ?1
"""

_OLD_CHANGES = """
    SELECT id, parent_id, length(document) AS bytes
    FROM revisions
    WHERE created_at < ?1 AND parent_id IS NOT NULL AND version_name IS NULL
      AND id NOT IN (SELECT head FROM finishes WHERE head IS NOT NULL)
      AND id NOT IN (SELECT revision_id FROM exports WHERE NOT ?2 OR created_at >= ?1)
      AND EXISTS (
          SELECT 1 FROM revisions AS later
          WHERE later.finish_id = revisions.finish_id AND later.id > revisions.id
            AND date(later.created_at) = date(revisions.created_at)
      )
"""
