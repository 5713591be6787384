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
	return kitchen(ctx, s.db)
}

// Kitchen is Store.Kitchen as a part of more.
func (t *Tx) Kitchen(ctx context.Context) (body []byte, revision int64, err error) {
	return kitchen(ctx, t.tx)
}

func kitchen(ctx context.Context, q querier) (body []byte, revision int64, err error) {
	err = q.QueryRowContext(ctx, `SELECT body, revision FROM kitchen WHERE id = 1`).Scan(&body, &revision)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, 0, nil
	}
	return body, revision, err
}

// PutKitchen saves the kitchen over the revision that the caller read.
func (s *Store) PutKitchen(ctx context.Context, body []byte, revision int64) (saved int64, err error) {
	err = s.Together(ctx, func(t *Tx) error {
		saved, err = t.PutKitchen(ctx, body, revision)
		return err
	})
	return saved, err
}

// PutKitchen is Store.PutKitchen as a part of more.
func (t *Tx) PutKitchen(ctx context.Context, body []byte, revision int64) (int64, error) {
	_, now, err := t.Kitchen(ctx)
	if err != nil {
		return 0, err
	}
	if now != revision {
		return 0, &KitchenConflictError{now}
	}
	_, err = t.tx.ExecContext(ctx, `INSERT INTO kitchen (id, revision, saved_at, body) VALUES (1, ?, ?, ?)
		ON CONFLICT (id) DO UPDATE SET revision = excluded.revision, saved_at = excluded.saved_at, body = excluded.body`,
		revision+1, t.s.stamp(), body)
	return revision + 1, err
}
