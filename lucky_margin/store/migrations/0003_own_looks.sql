-- Looks that were saved for reuse, kept as own sizes are.
ALTER TABLE own_sizes RENAME COLUMN plan TO value;
CREATE TABLE own_looks (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    value TEXT NOT NULL, -- JSON of core.document.OwnLook or TableLook
    created_at TEXT NOT NULL
) STRICT;
