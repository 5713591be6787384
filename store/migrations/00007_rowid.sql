-- +goose NO TRANSACTION
-- +goose Up
-- Bodies in a table with row ids: without them a page holds two or three, and splits at every
-- save. Foreign keys are off, or the old table would take the names with it.
-- +goose StatementBegin
PRAGMA foreign_keys = OFF;
BEGIN IMMEDIATE;
CREATE TABLE revisions_new (
  id        TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
  revision  INTEGER NOT NULL,
  saved_at  TEXT NOT NULL,
  body      BLOB NOT NULL,
  PRIMARY KEY (id, revision)
) STRICT;
INSERT INTO revisions_new SELECT id, revision, saved_at, body FROM revisions ORDER BY saved_at, id, revision;
DROP TABLE revisions;
ALTER TABLE revisions_new RENAME TO revisions;
COMMIT;
PRAGMA foreign_keys = ON;
-- +goose StatementEnd

-- +goose Down
SELECT 1;
