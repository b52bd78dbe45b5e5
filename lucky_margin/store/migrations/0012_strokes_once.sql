-- A brush stroke is stored once for each finish: its changes name it by the first digits of the
-- SHA-256 of its JSON. Documents from before hold theirs themselves.
CREATE TABLE strokes (
    finish_id TEXT NOT NULL REFERENCES finishes (id) ON DELETE CASCADE,
    key TEXT NOT NULL,
    stroke TEXT NOT NULL, -- JSON of core.document's Stroke
    PRIMARY KEY (finish_id, key)
) STRICT, WITHOUT ROWID;
