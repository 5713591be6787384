-- +goose Up
-- Who may come in from other tablets: one passcode as its hash, the tablets that gave it, and
-- links for guests. Of a secret only its hash is here.
CREATE TABLE passcode (
  id      INTEGER PRIMARY KEY CHECK (id = 1),
  hash    TEXT NOT NULL,
  set_at  TEXT NOT NULL
) STRICT;
CREATE TABLE tablets (
  id       TEXT PRIMARY KEY,
  token    BLOB NOT NULL UNIQUE,
  name     TEXT NOT NULL,
  since    TEXT NOT NULL,
  seen_at  TEXT NOT NULL,
  until    TEXT NOT NULL
) STRICT;
CREATE TABLE guests (
  id       TEXT PRIMARY KEY,
  token    BLOB NOT NULL UNIQUE,
  card     TEXT NOT NULL,
  made_at  TEXT NOT NULL,
  until    TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE guests;
DROP TABLE tablets;
DROP TABLE passcode;
