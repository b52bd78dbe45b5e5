"""The data folder: what is kept between starts."""

import shutil
from contextlib import ExitStack
from datetime import date
from pathlib import Path
from typing import IO

from lucky_margin.core.document import (
    BadgeParts,
    Border,
    MarkDesign,
    Outlines,
    OwnLook,
    SizePlan,
    SubjectOfPhoto,
    TableLook,
    UsedMark,
    UsedSubject,
    upgraded_look,
    upgraded_size_plan,
)
from lucky_margin.core.progress import Progress, untold
from lucky_margin.core.scene import subjects_in
from lucky_margin.store.backup import restore_backup, restore_into, sweep_scratch, write_backup
from lucky_margin.store.database import (
    Database,
    full_disk_is_said,
    migrate,
    unusable_is_said,
)
from lucky_margin.store.derived import DerivedStore
from lucky_margin.store.disk_use import DiskUse, disk_use
from lucky_margin.store.exports import ExportRecord, ExportStore
from lucky_margin.store.files import FileStore, whole_file
from lucky_margin.store.finishes import (
    FinishEntry,
    FinishesWanted,
    FinishRecord,
    FinishStore,
    RevisionRecord,
)
from lucky_margin.store.folder_lock import FolderLock
from lucky_margin.store.fonts import FontRecord, FontStore
from lucky_margin.store.kept import Kept, KeptStore
from lucky_margin.store.library import LibraryStore
from lucky_margin.store.mattes import MatteStore
from lucky_margin.store.packages import (
    export_finish,
    export_style,
    files_of,
    import_finish,
    import_style,
)
from lucky_margin.store.photos import PhotoRecord, PhotoStore, PhotosWanted
from lucky_margin.store.settings import SettingsStore
from lucky_margin.store.snapshots import (
    DATABASE,
    database_in,
    go_back,
    snapshot_days,
    take_snapshot,
)
from lucky_margin.store.soundness import Soundness, look_over, mend
from lucky_margin.store.styles import StyleStore, new_style_id
from lucky_margin.store.tables import TableStore
from lucky_margin.store.thinning import Thinned, ThinningRule, thin

__all__ = [
    "DiskUse",
    "ExportRecord",
    "ExportStore",
    "FinishEntry",
    "FinishRecord",
    "FinishStore",
    "FinishesWanted",
    "FolderLock",
    "FontRecord",
    "FontStore",
    "Kept",
    "KeptStore",
    "LibraryStore",
    "OwnLookUse",
    "PhotoRecord",
    "PhotoStore",
    "PhotosWanted",
    "RevisionRecord",
    "Soundness",
    "Store",
    "StyleStore",
    "TableStore",
    "Thinned",
    "ThinningRule",
    "database_in",
    "export_finish",
    "export_style",
    "files_of",
    "full_disk_is_said",
    "go_back",
    "import_finish",
    "import_style",
    "look_over",
    "mend",
    "new_style_id",
    "restore_backup",
    "snapshot_days",
    "used",
    "used_subject",
    "whole_file",
]


OwnLookUse = OwnLook | TableLook
"""A look that was saved for reuse."""


def used_subject(kept: Kept[SubjectOfPhoto]) -> UsedSubject:
    """A kept subject as a finish holds it."""
    subject = kept.value
    return UsedSubject(
        id=kept.id,
        name=kept.name,
        version=kept.version,
        square=subject.square,
        cut_out=subject.cut_out,
        box=subject.box,
    )


def used(mark: Kept[MarkDesign]) -> UsedMark:
    """A kept mark as a finish holds it."""
    return UsedMark(id=mark.id, name=mark.name, version=mark.version, design=mark.value)


class Store:
    """Everything in one data folder, which is made when missing and migrated when old.

    Raises:
        UnusableFolder: a newer version used it.
    """

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self._folder = folder
        self._database = Database(folder / DATABASE)
        with ExitStack() as undo:
            undo.callback(self._database.close)
            with unusable_is_said(folder / DATABASE):
                migrate(self._database)
            undo.pop_all()
        originals = FileStore(folder / "originals")
        tables, fonts = FileStore(folder / "tables"), FileStore(folder / "fonts")
        self.tables = TableStore(tables)
        self.fonts = FontStore(self._database, fonts)
        shutil.rmtree(folder / "proxies", ignore_errors=True)  # of versions before derived/
        derived = DerivedStore(folder / "derived")
        self.mattes = MatteStore(self._database, FileStore(folder / "mattes"))
        self.photos = PhotoStore(
            self._database, originals, derived, self.tables, self.fonts, self.mattes
        )
        self.own_sizes = KeptStore[SizePlan](
            self._database, "size", SizePlan, "own size", upgraded_size_plan
        )
        self.own_looks = KeptStore[OwnLookUse](
            self._database, "look", OwnLookUse, "own look", upgraded_look
        )
        self.own_outlines = KeptStore[Outlines](
            self._database, "outlines", Outlines, "set of outlines"
        )
        self.own_frames = KeptStore[Border](self._database, "frame", Border, "frame style")
        self.subjects = KeptStore[SubjectOfPhoto](
            self._database, "subject", SubjectOfPhoto, "subject"
        )
        self.badges = KeptStore[BadgeParts](self._database, "badge", BadgeParts, "badge")
        self.marks = KeptStore[MarkDesign](self._database, "mark", MarkDesign, "mark")
        self.styles = StyleStore(self._database, SettingsStore(self._database))
        self.library = LibraryStore(self._database)
        self.finishes = FinishStore(self._database, self.photos)
        exports = FileStore(folder / "exports")
        self.exports = ExportStore(self._database, exports)
        self.photos.sweep()
        sweep_scratch(folder)
        for files in (exports, fonts, tables):
            files.sweep()
        subjects = [one for kept in self.subjects.list() for one in subjects_in(kept.value)]
        self.mattes.sweep([one.matte_key for one in subjects])

    def delete_finish(self, finish_id: str) -> None:
        """Delete a finish in the bin for good, with its revisions and exports.

        Raises:
            NotFound: there is no such finish.
            Conflict: it is not in the bin.
        """
        hashes = {record.sha256 for record in self.exports.list(finish_id)}
        self.finishes.delete(finish_id)
        self.exports.remove_unrecorded(hashes)

    def take_snapshot(self) -> bool:
        """Copy the database, once a day (see ``snapshots``); whether it was copied."""
        return take_snapshot(self._database, self._folder, date.today())

    def write_backup(self, file: IO[bytes], progress: Progress = untold) -> None:
        """The whole shelf as an archive (see ``backup``)."""
        write_backup(self._folder, file, progress)

    def restore(self, file: IO[bytes], progress: Progress = untold) -> None:
        """Fill this shelf, which has to be empty, with a backup (see ``backup``)."""
        restore_into(self._database, file, self._folder, progress)

    def look_over(self, progress: Progress = untold) -> Soundness:
        """Verify everything while it is in use (see ``soundness``)."""
        return look_over(self._folder, progress, in_use=True)

    def thin(self, rule: ThinningRule, *, remove: bool) -> Thinned:
        """Count or remove what is old (see ``thinning``)."""
        return thin(self._database, self.exports, rule, remove=remove)

    def disk_use(self) -> DiskUse:
        """What the shelf's parts take on the disk."""
        return disk_use(self._database, self._folder)

    def close(self) -> None:
        """Close the database; nothing of the folder is used any more."""
        self._database.close()
