package store

import (
	"bytes"
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

// PutKitchen saves the kitchen over the revision that the caller read. Saving what is already
// there keeps the revision, as for documents.
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
	case now > 0 && bytes.Equal(was, body):
		return now, nil
	case now != revision:
		return 0, &KitchenConflictError{now}
	}
	return now + 1, t.setKitchen(ctx, now+1, t.s.stamp(), body)
}

// setKitchen writes the kitchen and remembers it, and forgets what is too old.
func (t *Tx) setKitchen(ctx context.Context, revision int64, at string, body []byte) error {
	for _, q := range []string{
		`INSERT INTO kitchen (id, revision, saved_at, body) VALUES (1, ?, ?, ?)
			ON CONFLICT (id) DO UPDATE SET revision = excluded.revision, saved_at = excluded.saved_at, body = excluded.body`,
		`INSERT INTO kitchen_revisions (revision, saved_at, body) VALUES (?, ?, ?)`,
	} {
		if _, err := t.tx.ExecContext(ctx, q, revision, at, body); err != nil {
			return err
		}
	}
	return t.forgetKitchens(ctx)
}

// BringKitchen lays a kitchen that comes with its past over what is there: into a store
// without one as it comes, its revisions rising; onto another, states that are missing come
// first and it last; onto the same, only what is missing before it is filled in.
func (t *Tx) BringKitchen(ctx context.Context, k Past, earlier []Past) error {
	was, now, err := t.Kitchen(ctx)
	if err != nil {
		return err
	}
	same := bytes.Equal(was, k.Body)
	if now > 0 && !same {
		if earlier, err = t.missing(ctx, earlier, now); err != nil {
			return err
		}
		k = Past{Revision: now + int64(len(earlier)) + 1, Body: k.Body}
	}
	for _, p := range earlier {
		if same && p.Revision >= now {
			break
		}
		if _, err := t.tx.ExecContext(ctx, `INSERT INTO kitchen_revisions (revision, saved_at, body) VALUES (?, ?, ?) ON CONFLICT DO NOTHING`,
			p.Revision, t.at(p.SavedAt), p.Body); err != nil {
			return err
		}
	}
	if same {
		return t.forgetKitchens(ctx)
	}
	return t.setKitchen(ctx, k.Revision, t.at(k.SavedAt), k.Body)
}

// missing are the states that the kitchen never had, counted on from the revision that it has.
func (t *Tx) missing(ctx context.Context, earlier []Past, now int64) (out []Past, err error) {
	have := map[string]bool{}
	err = each(ctx, t.tx, `SELECT revision, saved_at, body FROM kitchen_revisions`, func(rows *sql.Rows) error {
		p, err := past(rows)
		have[string(p.Body)] = true
		return err
	})
	for _, p := range earlier {
		if !have[string(p.Body)] {
			have[string(p.Body)] = true
			p.Revision = now + int64(len(out)) + 1
			out = append(out, p)
		}
	}
	return out, err
}

func (t *Tx) forgetKitchens(ctx context.Context) error {
	_, err := t.tx.ExecContext(ctx, `DELETE FROM kitchen_revisions WHERE revision <= (SELECT revision FROM kitchen) - ?`, kitchensKept)
	return err
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
		p, err := past(rows)
		out = append(out, p)
		return err
	})
	return out, err
}
