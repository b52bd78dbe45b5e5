"""How much room a shelf takes on the disk."""

from collections.abc import Iterable
from pathlib import Path

from lucky_margin.core.document import Value
from lucky_margin.store.database import Database
from lucky_margin.store.snapshots import DATABASE, FOLDER
from lucky_margin.store.soundness import derived_in


class SpaceUsed(Value):
    """How many there are, and their bytes."""

    count: int
    bytes: int


class DiskUse(Value):
    """What takes room: originals, saved files, changes (in the database, whose bytes these are),
    what was found of their subjects, daily copies of the database, and pictures that can be made
    again."""

    photos: SpaceUsed
    files: SpaceUsed
    changes: SpaceUsed
    cut_outs: SpaceUsed
    snapshots: SpaceUsed
    previews: SpaceUsed


def disk_use(database: Database, folder: Path) -> DiskUse:
    """The room that the shelf in a data ``folder`` takes."""
    with database.read() as connection:
        photos, files, cut_outs = (
            SpaceUsed(**dict(connection.execute(script).fetchone()))
            for script in (
                "SELECT count(*) AS count, coalesce(sum(bytes), 0) AS bytes FROM photos",
                "SELECT count(*) AS count, coalesce(sum(bytes), 0) AS bytes"
                " FROM (SELECT DISTINCT sha256, bytes FROM exports)",
                "SELECT count(*) AS count, coalesce(sum(bytes), 0) AS bytes"
                " FROM (SELECT DISTINCT sha256, bytes FROM mattes)",
            )
        )
        changes = connection.execute("SELECT count(*) FROM revisions").fetchone()[0]
    return DiskUse(
        photos=photos,
        files=files,
        changes=SpaceUsed(count=changes, bytes=(folder / DATABASE).stat().st_size),
        cut_outs=cut_outs,
        snapshots=_space_used_by((folder / FOLDER).glob("*.sqlite3")),
        previews=_space_used_by(derived_in(folder)),
    )


def _space_used_by(paths: Iterable[Path]) -> SpaceUsed:
    sizes = [path.stat().st_size for path in paths]
    return SpaceUsed(count=len(sizes), bytes=sum(sizes))
