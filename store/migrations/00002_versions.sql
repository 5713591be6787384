-- +goose Up
-- Names that a cook gave to saved states.
CREATE TABLE versions (
  id        TEXT NOT NULL,
  revision  INTEGER NOT NULL,
  name      TEXT NOT NULL,
  named_at  TEXT NOT NULL,
  PRIMARY KEY (id, revision),
  FOREIGN KEY (id, revision) REFERENCES revisions (id, revision) ON DELETE CASCADE
) STRICT, WITHOUT ROWID;

-- What a card draws of a document: JSON, worked out when it was saved.
ALTER TABLE documents ADD COLUMN picture BLOB NOT NULL DEFAULT x'';

-- +goose Down
ALTER TABLE documents DROP COLUMN picture;
DROP TABLE versions;
