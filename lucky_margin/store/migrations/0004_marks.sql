-- Marks that were made once and are used again; each change is a new version.
CREATE TABLE marks (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    name TEXT NOT NULL,
    version INTEGER NOT NULL,
    design TEXT NOT NULL, -- JSON of core.document.MarkDesign
    changed_at TEXT NOT NULL
) STRICT;
