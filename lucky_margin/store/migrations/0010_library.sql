-- What of the shelf is a favourite, and what was taken when, by a key such as 'backdrop:linen',
-- 'badge:sold-out', 'own badge:3' or 'photo:' with a SHA-256.
CREATE TABLE library (
    key TEXT PRIMARY KEY,
    favourite INTEGER NOT NULL DEFAULT 0,
    used_at TEXT
) STRICT;
CREATE INDEX library_by_use ON library (used_at DESC) WHERE used_at IS NOT NULL;

-- Photos are looked for by name, without case or accents, and by what their colours are called.
ALTER TABLE photos ADD COLUMN folded_name TEXT NOT NULL DEFAULT '';
ALTER TABLE photos ADD COLUMN colours TEXT NOT NULL DEFAULT ''; -- words with a space around each
UPDATE photos SET folded_name = folded(name);
-- All that is looked through, so that counting never reads the rows themselves.
CREATE INDEX photos_by_words ON photos (folded_name, colours);

-- Finishes refer to stock backdrops by what is drawn.
DROP VIEW found_references;
CREATE VIEW found_references AS
    SELECT
        revisions.id AS revision_id,
        CASE
            WHEN node.key = 'sha256' THEN 'photo'
            WHEN node.key = 'family' THEN 'font'
            WHEN node.key = 'table' THEN 'table'
            WHEN node.type = 'object' AND json_type(node.value, '$.colours') = 'array'
                THEN 'backdrop'
            ELSE node.key
        END AS kind,
        CASE
            WHEN node.type <> 'object' THEN CAST(node.atom AS TEXT)
            WHEN json_type(node.value, '$.colours') = 'array'
                THEN json_extract(node.value, '$.key')
            ELSE CAST(json_extract(node.value, '$.id') AS TEXT)
        END AS key,
        CASE
            WHEN node.type = 'object' THEN coalesce(json_extract(node.value, '$.version'), 0)
            ELSE 0
        END AS version
    FROM revisions, json_tree(
        CASE WHEN json_valid(revisions.document) THEN revisions.document ELSE '{}' END
    ) AS node
    WHERE (node.key IN ('sha256', 'family', 'table') AND node.type = 'text'
           AND length(node.atom) = 64)
       OR (node.key IN ('mark', 'subject') AND node.type = 'object'
           AND json_type(node.value, '$.id') = 'integer'
           AND json_type(node.value, '$.version') = 'integer')
       OR (node.fullkey = '$.style' AND node.type = 'object'
           AND json_type(node.value, '$.version') = 'integer')
       OR (node.type = 'object'
           AND json_extract(node.value, '$.kind') = 'stock'
           AND json_type(node.value, '$.key') = 'text'
           AND json_type(node.value, '$.colours') = 'array');

-- The columns of the key come first now: the integrity check of SQLite 3.40 takes another order for
-- missing values, so no damage could be told from it.
DROP TRIGGER references_of_new_revision;
ALTER TABLE refers_to RENAME TO refers_to_before;
CREATE TABLE refers_to (
    kind TEXT NOT NULL, -- 'photo', 'font', 'table', 'mark', 'subject', 'style', 'backdrop'
    key TEXT NOT NULL,
    version INTEGER NOT NULL, -- of a mark, subject or style; else 0
    revision_id INTEGER NOT NULL REFERENCES revisions (id) ON DELETE CASCADE,
    PRIMARY KEY (kind, key, version, revision_id)
) STRICT, WITHOUT ROWID;
INSERT INTO refers_to SELECT kind, key, version, revision_id FROM refers_to_before;
DROP TABLE refers_to_before;
CREATE INDEX references_of_revision ON refers_to (revision_id);
INSERT OR IGNORE INTO refers_to
    SELECT kind, key, version, revision_id FROM found_references WHERE kind = 'backdrop';

CREATE TRIGGER references_of_new_revision AFTER INSERT ON revisions BEGIN
    INSERT OR IGNORE INTO refers_to
        SELECT kind, key, version, revision_id FROM found_references
        WHERE revision_id = NEW.id;
END;
