package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

// Version is a named state of a document.
type Version struct {
	Name     string
	Revision int64
	NamedAt  time.Time
}

// Name gives a saved state of a document a name; naming it again replaces the name. A
// revision that was never saved is ErrNotFound.
func (s *Store) Name(ctx context.Context, kind Kind, id, name string, revision int64) (Version, error) {
	v := Version{Name: name, Revision: revision}
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := get(ctx, tx, kind, id); err != nil {
			return err
		}
		var one int
		err := tx.QueryRowContext(ctx, `SELECT 1 FROM revisions WHERE id = ? AND revision = ?`, id, revision).Scan(&one)
		if errors.Is(err, sql.ErrNoRows) {
			return ErrNotFound
		}
		if err != nil {
			return err
		}
		at := s.stamp()
		if v.NamedAt, err = time.Parse(timeLayout, at); err != nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO versions (id, revision, name, named_at) VALUES (?, ?, ?, ?)
			ON CONFLICT (id, revision) DO UPDATE SET name = excluded.name, named_at = excluded.named_at`, id, revision, name, at)
		return err
	})
	return v, err
}

// State is one that a document was saved in.
type State struct {
	Revision int64
	SavedAt  time.Time
	Name     string // empty when it has none
	Body     []byte
}

// States lists those that are kept of a document, the newest first; the first one is how it is now.
func (s *Store) States(ctx context.Context, kind Kind, id string) ([]State, error) {
	if _, err := s.Get(ctx, kind, id); err != nil {
		return nil, err
	}
	var out []State
	err := each(ctx, s.db, `SELECT r.revision, r.saved_at, coalesce(v.name, ''), r.body FROM revisions r
		LEFT JOIN versions v ON v.id = r.id AND v.revision = r.revision WHERE r.id = ? ORDER BY r.revision DESC`, func(rows *sql.Rows) error {
		var st State
		err := rows.Scan(&st.Revision, moment{&st.SavedAt}, &st.Name, &st.Body)
		out = append(out, st)
		return err
	}, id)
	return out, err
}

// Versions lists the named states of a document, newest first.
func (s *Store) Versions(ctx context.Context, kind Kind, id string) ([]Version, error) {
	if _, err := s.Get(ctx, kind, id); err != nil {
		return nil, err
	}
	rows, err := s.db.QueryContext(ctx, `SELECT name, revision, named_at FROM versions WHERE id = ? ORDER BY revision DESC`, id)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Version
	for rows.Next() {
		var v Version
		var at string
		if err := rows.Scan(&v.Name, &v.Revision, &at); err != nil {
			return nil, err
		}
		if v.NamedAt, err = time.Parse(timeLayout, at); err != nil {
			return nil, err
		}
		out = append(out, v)
	}
	return out, rows.Err()
}

// Revision returns a document as it was saved then.
func (s *Store) Revision(ctx context.Context, kind Kind, id string, revision int64) (Document, error) {
	d, err := s.Get(ctx, kind, id)
	if err != nil {
		return Document{}, err
	}
	var at string
	err = s.db.QueryRowContext(ctx, `SELECT saved_at, body FROM revisions WHERE id = ? AND revision = ?`, id, revision).Scan(&at, &d.Body)
	if errors.Is(err, sql.ErrNoRows) {
		return Document{}, ErrNotFound
	}
	if err != nil {
		return Document{}, err
	}
	d.Revision = revision
	d.UpdatedAt, err = time.Parse(timeLayout, at)
	return d, err
}
