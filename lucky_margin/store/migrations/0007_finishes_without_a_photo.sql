-- A finish may be of no photo: words and badges on a ground.
DROP INDEX finishes_by_photo;
ALTER TABLE finishes ADD COLUMN photo TEXT REFERENCES photos (sha256);
UPDATE finishes SET photo = photo_sha256;
ALTER TABLE finishes DROP COLUMN photo_sha256;
CREATE INDEX finishes_by_photo ON finishes (photo);
