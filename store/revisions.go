package store

import (
	"context"
	"database/sql"
)

// MaxRevision is the largest revision that is kept as it comes: what a JSON number holds to
// the last digit.
const MaxRevision = 1<<53 - 1

// mendRevisions counts the revisions of a document anew when one of them is beyond MaxRevision,
// as an archive from elsewhere could once bring it: names and order stay.
func (s *Store) mendRevisions(ctx context.Context) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		bad, err := column[string](ctx, tx, `SELECT id FROM documents WHERE revision > ? UNION SELECT id FROM revisions WHERE revision > ? OR revision < 1`, MaxRevision, MaxRevision)
		if err != nil || len(bad) == 0 {
			return err
		}
		if _, err := tx.ExecContext(ctx, `PRAGMA defer_foreign_keys = ON`); err != nil {
			return err
		}
		for _, id := range bad {
			kept, err := column[int64](ctx, tx, `SELECT revision FROM revisions WHERE id = ? ORDER BY revision`, id)
			if err != nil {
				return err
			}
			for i, was := range kept {
				for _, q := range []string{`UPDATE revisions SET revision = ? WHERE id = ? AND revision = ?`, `UPDATE versions SET revision = ? WHERE id = ? AND revision = ?`} {
					if _, err := tx.ExecContext(ctx, q, i+1, id, was); err != nil {
						return err
					}
				}
			}
			if _, err := tx.ExecContext(ctx, `UPDATE documents SET revision = ? WHERE id = ?`, max(1, len(kept)), id); err != nil {
				return err
			}
		}
		return nil
	})
}

// column reads the one column of a query.
func column[T any](ctx context.Context, tx *sql.Tx, query string, args ...any) ([]T, error) {
	rows, err := tx.QueryContext(ctx, query, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []T
	for rows.Next() {
		var v T
		if err := rows.Scan(&v); err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, rows.Err()
}
