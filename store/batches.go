package store

import (
	"context"
	"database/sql"
	"time"
)

// BatchEvent is one thing that happened to a batch: its id is the tablet's.
type BatchEvent struct {
	ID   string
	At   time.Time
	Body []byte
}

// Events returns what happened to a batch, in the order in which it came.
func (s *Store) Events(ctx context.Context, batch string) ([]BatchEvent, error) {
	return events(ctx, s.db, batch)
}

// Events is Store.Events as a part of more.
func (t *Tx) Events(ctx context.Context, batch string) ([]BatchEvent, error) {
	return events(ctx, t.tx, batch)
}

// Events is Store.Events at that moment.
func (s Still) Events(ctx context.Context, batch string) ([]BatchEvent, error) {
	return events(ctx, s.conn, batch)
}

func events(ctx context.Context, q querier, batch string) ([]BatchEvent, error) {
	var out []BatchEvent
	err := each(ctx, q, `SELECT id, at, body FROM batch_events WHERE batch = ? ORDER BY seq`, func(rows *sql.Rows) error {
		var e BatchEvent
		var stamp string
		err := rows.Scan(&e.ID, &stamp, &e.Body)
		if err == nil {
			e.At, err = time.Parse(timeLayout, stamp)
		}
		out = append(out, e)
		return err
	}, batch)
	return out, err
}

// AddEvent writes one more, unless one with its id is there; new tells which.
func (t *Tx) AddEvent(ctx context.Context, batch string, e BatchEvent) (fresh bool, err error) {
	r, err := t.tx.ExecContext(ctx, `INSERT INTO batch_events (batch, id, at, body) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING`,
		batch, e.ID, e.At.UTC().Format(timeLayout), e.Body)
	if err != nil {
		return false, err
	}
	n, err := r.RowsAffected()
	if err == nil && n > 0 { // the batch moves up in its list
		_, err = t.tx.ExecContext(ctx, `UPDATE documents SET updated_at = ? WHERE id = ?`, t.s.stamp(), batch)
	}
	return n > 0, err
}
