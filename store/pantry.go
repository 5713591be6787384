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
