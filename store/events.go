package store

import (
	"context"
	"database/sql"
	"time"
)

// Event is one thing that happened to a document: its id is the tablet's. Seq rises with every event of the file, and is
// never given twice.
type Event struct {
	Seq  int64
	ID   string
	At   time.Time
	Body []byte
}

// Events returns what happened to a document after an event of it, in the order in which it came; 0 is from the beginning.
func (s *Store) Events(ctx context.Context, document string, after int64) ([]Event, error) {
	return events(ctx, s.db, document, after)
}

// Events is Store.Events as a part of more.
func (t *Tx) Events(ctx context.Context, document string, after int64) ([]Event, error) {
	return events(ctx, t.tx, document, after)
}

// Events is Store.Events at that moment.
func (s Still) Events(ctx context.Context, document string, after int64) ([]Event, error) {
	return events(ctx, s.conn, document, after)
}

func events(ctx context.Context, q querier, document string, after int64) ([]Event, error) {
	var out []Event
	err := each(ctx, q, `SELECT seq, id, at, body FROM events WHERE document = ? AND seq > ? ORDER BY seq`, func(rows *sql.Rows) error {
		var e Event
		var stamp string
		err := rows.Scan(&e.Seq, &e.ID, &stamp, &e.Body)
		if err == nil {
			e.At, err = time.Parse(timeLayout, stamp)
		}
		out = append(out, e)
		return err
	}, document, after)
	return out, err
}

// Head is a document without its body; LastEvent rises with every event of it, and is 0 without one.
type Head struct {
	ID, Name, Form      string
	Revision, LastEvent int64
	UpdatedAt           time.Time
}

// Heads returns the documents of a kind that events happen to, the last touched first, at most so many.
func (s *Store) Heads(ctx context.Context, kind Kind, limit int) (out []Head, err error) {
	err = each(ctx, s.db, `SELECT id, name, form, revision, updated_at, (SELECT coalesce(max(seq), 0) FROM events WHERE document = documents.id)
		FROM documents WHERE kind = ? AND deleted_at IS NULL ORDER BY updated_at DESC, id DESC LIMIT ?`, func(rows *sql.Rows) error {
		var h Head
		var stamp string
		err := rows.Scan(&h.ID, &h.Name, &h.Form, &h.Revision, &stamp, &h.LastEvent)
		if err == nil {
			h.UpdatedAt, err = time.Parse(timeLayout, stamp)
		}
		out = append(out, h)
		return err
	}, kind, limit)
	return out, err
}

// AddEvent writes one more, unless one with its id is there; new tells which.
func (t *Tx) AddEvent(ctx context.Context, document string, e Event) (fresh bool, err error) {
	r, err := t.tx.ExecContext(ctx, `INSERT INTO events (document, id, at, body) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING`,
		document, e.ID, e.At.UTC().Format(timeLayout), e.Body)
	if err != nil {
		return false, err
	}
	n, err := r.RowsAffected()
	if err == nil && n > 0 { // it moves up in its list
		_, err = t.tx.ExecContext(ctx, `UPDATE documents SET updated_at = ? WHERE id = ?`, t.s.stamp(), document)
	}
	return n > 0, err
}
