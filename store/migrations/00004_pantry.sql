-- +goose NO TRANSACTION
-- +goose Up
-- A pantry item is a document too; from here on the program alone says which kinds there are.
-- +goose StatementBegin
PRAGMA foreign_keys = OFF;
BEGIN IMMEDIATE;
CREATE TABLE documents_new (
  id          TEXT PRIMARY KEY,
  kind        TEXT NOT NULL CHECK (kind <> ''),
  name        TEXT NOT NULL,
  form        TEXT NOT NULL,
  verdict     TEXT NOT NULL,
  revision    INTEGER NOT NULL CHECK (revision > 0),
  updated_at  TEXT NOT NULL, -- RFC 3339 in UTC with nanoseconds, so that text order is time order
  deleted_at  TEXT,
  body        BLOB NOT NULL,
  picture     BLOB NOT NULL DEFAULT x''
) STRICT;
INSERT INTO documents_new SELECT id, kind, name, form, verdict, revision, updated_at, deleted_at, body, picture FROM documents;
DROP TABLE documents;
ALTER TABLE documents_new RENAME TO documents;
CREATE INDEX documents_by_time ON documents (kind, updated_at DESC, id DESC) WHERE deleted_at IS NULL;
COMMIT;
PRAGMA foreign_keys = ON;
-- +goose StatementEnd

-- +goose Down
DELETE FROM documents WHERE kind NOT IN ('base', 'variation');
