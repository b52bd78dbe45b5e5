-- Photos by the SHA-256 of their original bytes; the bytes are files (see store/files.py).
CREATE TABLE photos (
    sha256 TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    bytes INTEGER NOT NULL,
    facts TEXT NOT NULL, -- JSON of core.photos.PhotoFacts without its EXIF block
    exif BLOB NOT NULL,
    created_at TEXT NOT NULL
) STRICT;
CREATE INDEX photos_by_age ON photos (created_at DESC);

CREATE TABLE finishes (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL, -- of the head revision, for lists
    folded_name TEXT NOT NULL, -- the same without case or accents, for searching
    photo_sha256 TEXT NOT NULL REFERENCES photos (sha256),
    head INTEGER REFERENCES revisions (id) DEFERRABLE INITIALLY DEFERRED,
    etag INTEGER NOT NULL DEFAULT 1, -- raised by every save, undo and redo
    created_at TEXT NOT NULL,
    changed_at TEXT NOT NULL,
    binned_at TEXT
) STRICT;
CREATE INDEX finishes_by_change ON finishes (changed_at DESC) WHERE binned_at IS NULL;
CREATE INDEX finishes_by_photo ON finishes (photo_sha256);

-- Every committed change of a finish. Rows are never changed, except to name a version.
CREATE TABLE revisions (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    finish_id TEXT NOT NULL REFERENCES finishes (id) ON DELETE CASCADE,
    parent_id INTEGER REFERENCES revisions (id),
    label TEXT NOT NULL,
    version_name TEXT,
    document TEXT NOT NULL,
    created_at TEXT NOT NULL
) STRICT;
CREATE INDEX revisions_of_finish ON revisions (finish_id, id DESC);
CREATE INDEX revisions_by_parent ON revisions (parent_id);

-- Files that were saved, with the revision they came from.
CREATE TABLE exports (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    finish_id TEXT NOT NULL REFERENCES finishes (id) ON DELETE CASCADE,
    revision_id INTEGER NOT NULL REFERENCES revisions (id) ON DELETE CASCADE,
    size_name TEXT NOT NULL,
    file_name TEXT NOT NULL,
    image_format TEXT NOT NULL,
    sha256 TEXT NOT NULL,
    bytes INTEGER NOT NULL,
    width INTEGER NOT NULL,
    height INTEGER NOT NULL,
    created_at TEXT NOT NULL
) STRICT;
CREATE INDEX exports_of_finish ON exports (finish_id, id DESC);
