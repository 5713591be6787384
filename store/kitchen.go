package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"time"
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

// PutKitchen saves the kitchen over the revision that the caller read. Saving what is already
// there keeps the revision.
func (s *Store) PutKitchen(ctx context.Context, body []byte, revision int64) (saved int64, err error) {
	err = s.Together(ctx, func(t *Tx) error {
		saved, err = t.PutKitchen(ctx, body, revision)
		return err
	})
	return saved, err
}

// PutKitchen is Store.PutKitchen as a part of more.
func (t *Tx) PutKitchen(ctx context.Context, body []byte, revision int64) (int64, error) {
	was, now, err := t.Kitchen(ctx)
	switch {
	case err != nil:
		return 0, err
	case now != revision:
		return 0, &KitchenConflictError{now}
	case now > 0 && bytes.Equal(was, body):
		return now, nil
	}
	at := t.s.stamp()
	for _, q := range []string{
		`INSERT INTO kitchen (id, revision, saved_at, body) VALUES (1, ?, ?, ?)
			ON CONFLICT (id) DO UPDATE SET revision = excluded.revision, saved_at = excluded.saved_at, body = excluded.body`,
		`INSERT INTO kitchen_revisions (revision, saved_at, body) VALUES (?, ?, ?)`,
	} {
		if _, err := t.tx.ExecContext(ctx, q, revision+1, at, body); err != nil {
			return 0, err
		}
	}
	_, err = t.tx.ExecContext(ctx, `DELETE FROM kitchen_revisions WHERE revision <= ?`, revision+1-kitchensKept)
	return revision + 1, err
}

// kitchensKept is how many states of the kitchen are kept (modelling choice: it changes when
// something is bought).
const kitchensKept = 50

// EarlierKitchens are the states that the kitchen had, the last one first, without the one that
// it has.
func (s *Store) EarlierKitchens(ctx context.Context) ([]Past, error) {
	var out []Past
	err := each(ctx, s.db, `SELECT revision, saved_at, body FROM kitchen_revisions
		WHERE revision < (SELECT revision FROM kitchen WHERE id = 1) ORDER BY revision DESC`, func(rows *sql.Rows) error {
		var p Past
		var at string
		err := rows.Scan(&p.Revision, &at, &p.Body)
		if err == nil {
			p.SavedAt, err = time.Parse(timeLayout, at)
		}
		out = append(out, p)
		return err
	})
	return out, err
}
