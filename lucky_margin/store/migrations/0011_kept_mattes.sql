-- Mattes: how far a subject covers each pixel of its photo, as lossless files by the SHA-256 of
-- their bytes. A key names what each was found from, and by which version of the finding; revisions
-- refer to it as to a photo, so that a newer version never finds another subject for them unasked.
CREATE TABLE mattes (
    key TEXT PRIMARY KEY,
    sha256 TEXT NOT NULL,
    bytes INTEGER NOT NULL
) STRICT;
