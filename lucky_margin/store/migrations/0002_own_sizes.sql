-- Sizes that were saved for reuse.
CREATE TABLE own_sizes (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    plan TEXT NOT NULL, -- JSON of core.document.SizePlan
    created_at TEXT NOT NULL
) STRICT;
