-- +goose Up
-- Every state of the kitchen that was saved.
CREATE TABLE kitchen_revisions (
  revision  INTEGER PRIMARY KEY,
  saved_at  TEXT NOT NULL,
  body      BLOB NOT NULL
) STRICT;
INSERT INTO kitchen_revisions SELECT revision, saved_at, body FROM kitchen;

-- +goose Down
DROP TABLE kitchen_revisions;
