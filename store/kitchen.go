package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
)

// KitchenConflictError says that the kitchen was saved by somebody else since it was read.
type KitchenConflictError struct{ Revision int64 }

func (e *KitchenConflictError) Error() string {
	return fmt.Sprintf("the kitchen is at revision %d by now", e.Revision)
}

// Kitchen returns the kitchen and its revision; revision 0 and no body when none was saved.
func (s *Store) Kitchen(ctx context.Context) (body []byte, revision int64, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT body, revision FROM kitchen WHERE id = 1`).Scan(&body, &revision)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, 0, nil
	}
	return body, revision, err
}

// PutKitchen saves the kitchen over the revision that the caller read.
func (s *Store) PutKitchen(ctx context.Context, body []byte, revision int64) (int64, error) {
	err := s.tx(ctx, func(tx *sql.Tx) error {
		var now int64
		err := tx.QueryRowContext(ctx, `SELECT revision FROM kitchen WHERE id = 1`).Scan(&now)
		if err != nil && !errors.Is(err, sql.ErrNoRows) {
			return err
		}
		if now != revision {
			return &KitchenConflictError{now}
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO kitchen (id, revision, saved_at, body) VALUES (1, ?, ?, ?)
			ON CONFLICT (id) DO UPDATE SET revision = excluded.revision, saved_at = excluded.saved_at, body = excluded.body`,
			revision+1, s.stamp(), body)
		return err
	})
	return revision + 1, err
}
