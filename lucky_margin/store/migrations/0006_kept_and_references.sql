-- One table for all that is saved for reuse, whatever its kind. A mark keeps its number, since
-- finishes name it by that; nothing names the others.
CREATE TABLE kept (
    id INTEGER PRIMARY KEY AUTOINCREMENT,
    kind TEXT NOT NULL, -- 'size', 'look', 'mark'
    name TEXT NOT NULL,
    version INTEGER NOT NULL, -- raised by every change
    tags TEXT NOT NULL, -- JSON list of words
    value TEXT NOT NULL, -- JSON of core.document's SizePlan, OwnLook or TableLook, MarkDesign
    changed_at TEXT NOT NULL
) STRICT;
CREATE INDEX kept_by_kind ON kept (kind, changed_at DESC, id DESC);

INSERT INTO kept (id, kind, name, version, tags, value, changed_at)
    SELECT id, 'mark', name, version, '[]', design, changed_at FROM marks;
-- Numbers of marks that were deleted are still named by finishes, and not given to others.
INSERT INTO sqlite_sequence (name, seq)
    SELECT 'kept', 0 WHERE NOT EXISTS (SELECT 1 FROM sqlite_sequence WHERE name = 'kept');
UPDATE sqlite_sequence SET seq = coalesce((SELECT seq FROM sqlite_sequence WHERE name = 'marks'), 0)
    WHERE name = 'kept';
INSERT INTO kept (kind, name, version, tags, value, changed_at)
    SELECT 'size', json_extract(value, '$.name'), 1, '[]', value, created_at FROM own_sizes
    ORDER BY id;
INSERT INTO kept (kind, name, version, tags, value, changed_at)
    SELECT 'look', json_extract(value, '$.name'), 1, '[]', value, created_at FROM own_looks
    ORDER BY id;
DROP TABLE own_sizes;
DROP TABLE own_looks;
DROP TABLE marks;

-- What every revision refers to outside itself: photos, fonts and colour tables by the SHA-256
-- of their files, marks by their number. Kept by the triggers below.
CREATE TABLE refers_to (
    revision_id INTEGER NOT NULL REFERENCES revisions (id) ON DELETE CASCADE,
    kind TEXT NOT NULL, -- 'photo', 'font', 'table', 'mark'
    key TEXT NOT NULL,
    version INTEGER NOT NULL, -- of a mark; else 0
    PRIMARY KEY (kind, key, version, revision_id)
) STRICT, WITHOUT ROWID;
CREATE INDEX references_of_revision ON refers_to (revision_id);

CREATE VIEW found_references AS
    SELECT
        revisions.id AS revision_id,
        CASE node.key
            WHEN 'sha256' THEN 'photo'
            WHEN 'family' THEN 'font'
            WHEN 'table' THEN 'table'
            ELSE 'mark'
        END AS kind,
        CASE node.key
            WHEN 'mark' THEN CAST(json_extract(node.value, '$.id') AS TEXT)
            ELSE CAST(node.atom AS TEXT)
        END AS key,
        CASE node.key WHEN 'mark' THEN json_extract(node.value, '$.version') ELSE 0 END AS version
    FROM revisions, json_tree(
        CASE WHEN json_valid(revisions.document) THEN revisions.document ELSE '{}' END
    ) AS node
    WHERE (node.key IN ('sha256', 'family', 'table') AND node.type = 'text'
           AND length(node.atom) = 64)
       OR (node.key = 'mark' AND node.type = 'object'
           AND json_type(node.value, '$.id') = 'integer'
           AND json_type(node.value, '$.version') = 'integer');

INSERT OR IGNORE INTO refers_to
    SELECT revision_id, kind, key, version FROM found_references;

CREATE TRIGGER references_of_new_revision AFTER INSERT ON revisions BEGIN
    INSERT OR IGNORE INTO refers_to
        SELECT revision_id, kind, key, version FROM found_references
        WHERE revision_id = NEW.id;
END;
