-- +goose Up
-- What happened to a batch, in the order in which it came. The tablet names an event, so that it
-- counts once however often it is sent; nothing is ever changed here.
CREATE TABLE batch_events (
  seq    INTEGER PRIMARY KEY AUTOINCREMENT,
  batch  TEXT NOT NULL REFERENCES documents (id) ON DELETE CASCADE,
  id     TEXT NOT NULL,
  at     TEXT NOT NULL,
  body   BLOB NOT NULL,
  UNIQUE (batch, id)
) STRICT;

-- +goose Down
DROP TABLE batch_events;
