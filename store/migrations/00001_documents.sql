-- +goose Up
CREATE TABLE documents (
  id          TEXT PRIMARY KEY,
  kind        TEXT NOT NULL CHECK (kind IN ('base', 'variation')),
  name        TEXT NOT NULL,
  form        TEXT NOT NULL,
  verdict     TEXT NOT NULL,
  revision    INTEGER NOT NULL CHECK (revision > 0),
  updated_at  TEXT NOT NULL, -- RFC 3339 in UTC with nanoseconds, so that text order is time order
  deleted_at  TEXT,
  body        BLOB NOT NULL
) STRICT;
CREATE INDEX documents_by_time ON documents (kind, updated_at DESC, id DESC) WHERE deleted_at IS NULL;

-- Every state that was ever saved.
CREATE TABLE revisions (
  id        TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
  revision  INTEGER NOT NULL,
  saved_at  TEXT NOT NULL,
  body      BLOB NOT NULL,
  PRIMARY KEY (id, revision)
) STRICT, WITHOUT ROWID;

-- What a POST with an idempotency key made.
CREATE TABLE idempotency (
  key         TEXT NOT NULL,
  kind        TEXT NOT NULL,
  body_hash   BLOB NOT NULL,
  id          TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
  created_at  TEXT NOT NULL,
  PRIMARY KEY (kind, key)
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE idempotency;
DROP TABLE revisions;
DROP TABLE documents;
