package store

import (
	"context"
	"database/sql"
	"fmt"
)

// All returns every document of a kind with its body, last changed first.
func (s *Store) All(ctx context.Context, kind Kind) ([]Document, error) { return all(ctx, s.db, kind) }

// All is Store.All as a part of more.
func (t *Tx) All(ctx context.Context, kind Kind) ([]Document, error) { return all(ctx, t.tx, kind) }

func all(ctx context.Context, q querier, kind Kind) ([]Document, error) {
	rows, err := q.QueryContext(ctx, `SELECT `+columns+` FROM documents WHERE kind = ? AND deleted_at IS NULL ORDER BY updated_at DESC, id DESC`, kind)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Document
	for rows.Next() {
		d, err := scan(rows)
		if err != nil {
			return nil, err
		}
		out = append(out, d)
	}
	return out, rows.Err()
}

// Stamp changes whenever a document of the kind is saved, put aside or brought back.
func (s *Store) Stamp(ctx context.Context, kind Kind) (string, error) {
	return stampOf(ctx, s.db, kind)
}

// Stamp is Store.Stamp as a part of more.
func (t *Tx) Stamp(ctx context.Context, kind Kind) (string, error) { return stampOf(ctx, t.tx, kind) }

func stampOf(ctx context.Context, q querier, kind Kind) (string, error) {
	var n, revisions int64
	var last, gone sql.NullString
	// A sum of remainders, so that no revision, however large, makes it overflow.
	err := q.QueryRowContext(ctx, `SELECT count(*), coalesce(sum(revision % 1000000007), 0), max(updated_at), max(deleted_at) FROM documents WHERE kind = ?`, kind).Scan(&n, &revisions, &last, &gone)
	if err != nil {
		return "", err
	}
	var aside int64
	err = q.QueryRowContext(ctx, `SELECT count(*) FROM documents WHERE kind = ? AND deleted_at IS NOT NULL`, kind).Scan(&aside)
	return fmt.Sprint(n, revisions, last.String, gone.String, aside), err
}

// Write is one document of a batch. A new one keeps the id and the revision that it comes
// with, so that what refers to it still does; without an id it gets one.
type Write struct {
	ID       string
	New      bool
	Revision int64 // of a new one, between 1 and MaxRevision; else it begins anew
	Content
}

// SaveAll writes a batch over whatever revisions are there: all of it, or nothing.
func (s *Store) SaveAll(ctx context.Context, kind Kind, batch []Write) error {
	return s.Together(ctx, func(t *Tx) error { return t.SaveAll(ctx, kind, batch) })
}

// SaveAll is Store.SaveAll as a part of more.
func (t *Tx) SaveAll(ctx context.Context, kind Kind, batch []Write) error {
	now := t.s.stamp()
	for _, w := range batch {
		if w.New || w.ID == "" {
			if _, err := insert(ctx, t.tx, kind, w.ID, w.Revision, w.Content, now); err != nil {
				return err
			}
			continue
		}
		current, err := get(ctx, t.tx, kind, w.ID)
		if err != nil {
			return err
		}
		if err := overwrite(ctx, t.tx, w.ID, current.Revision, w.Content, now); err != nil {
			return err
		}
	}
	return nil
}
