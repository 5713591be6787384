-- +goose Up
-- The one kitchen of this database.
CREATE TABLE kitchen (
  id        INTEGER PRIMARY KEY CHECK (id = 1),
  revision  INTEGER NOT NULL CHECK (revision > 0),
  saved_at  TEXT NOT NULL,
  body      BLOB NOT NULL
) STRICT;

-- +goose Down
DROP TABLE kitchen;
