-- Fonts that were added from files; a file stays when its font is taken off this list, since
-- finishes may still be set in it.
CREATE TABLE fonts (
    sha256 TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    weight INTEGER NOT NULL,
    created_at TEXT NOT NULL
) STRICT;
