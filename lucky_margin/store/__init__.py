"""The data folder: what is kept between starts."""

from pathlib import Path

from lucky_margin.store.database import Database, migrate
from lucky_margin.store.exports import ExportRecord, ExportStore
from lucky_margin.store.files import FileStore
from lucky_margin.store.finishes import PAGE, FinishRecord, FinishStore, RevisionRecord
from lucky_margin.store.own_sizes import OwnSize, OwnSizeStore
from lucky_margin.store.photos import PhotoRecord, PhotoStore
from lucky_margin.store.proxies import ProxyStore

__all__ = [
    "PAGE",
    "ExportRecord",
    "ExportStore",
    "FinishRecord",
    "FinishStore",
    "OwnSize",
    "OwnSizeStore",
    "PhotoRecord",
    "PhotoStore",
    "RevisionRecord",
    "Store",
]


class Store:
    """Everything in one data folder, which is made when missing and migrated when old."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self._database = Database(folder / "lucky-margin.sqlite3")
        migrate(self._database)
        originals = FileStore(folder / "originals")
        self.photos = PhotoStore(self._database, originals, ProxyStore(folder / "proxies"))
        self.own_sizes = OwnSizeStore(self._database)
        self.finishes = FinishStore(self._database)
        self.exports = ExportStore(self._database, FileStore(folder / "exports"))

    def delete_finish(self, finish_id: str) -> None:
        """Delete a finish in the bin for good, with its revisions and exports.

        Raises:
            NotFound: there is no such finish.
            Conflict: it is not in the bin.
        """
        hashes = {record.sha256 for record in self.exports.list(finish_id)}
        self.finishes.delete(finish_id)
        self.exports.remove_unrecorded(hashes)

    def close(self) -> None:
        self._database.close()
