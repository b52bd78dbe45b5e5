-- Finishes name house styles by their id and version.
DROP VIEW found_references;
CREATE VIEW found_references AS
    SELECT
        revisions.id AS revision_id,
        CASE node.key
            WHEN 'sha256' THEN 'photo'
            WHEN 'family' THEN 'font'
            WHEN 'table' THEN 'table'
            ELSE node.key
        END AS kind,
        CASE
            WHEN node.type = 'object' THEN CAST(json_extract(node.value, '$.id') AS TEXT)
            ELSE CAST(node.atom AS TEXT)
        END AS key,
        CASE WHEN node.type = 'object' THEN json_extract(node.value, '$.version') ELSE 0
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
           AND json_type(node.value, '$.version') = 'integer');

-- What the user chose once for the whole shelf.
CREATE TABLE settings (
    key TEXT PRIMARY KEY, -- 'house style'
    value TEXT NOT NULL
) STRICT;
