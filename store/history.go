package store

import (
	"context"
	"database/sql"
	"fmt"
	"time"
)

// How long what was saved stays in full, and what was put aside can come back (modelling
// choices: a week is what a cook still remembers by the hour, a month by the week).
const (
	everySaveFor = 7 * 24 * time.Hour
	everyDayFor  = 30 * 24 * time.Hour
	asideFor     = 30 * 24 * time.Hour
)

// Tidied is what a tidying took away.
type Tidied struct {
	States int64 // of documents that are there
	Purged int64 // documents that were put aside long enough
	Packed bool  // the file was packed
}

// Tidy thins histories and purges what was put aside more than a month ago. Of the states of
// more than a week ago the last of each UTC day stays, of those of more than a month ago the
// last of each week; the current one, those with a name and those that a variation names as its
// base stay always. The file is packed when that pays.
func (s *Store) Tidy(ctx context.Context) (Tidied, error) {
	var out Tidied
	now := s.now().UTC()
	before := func(d time.Duration) string { return now.Add(-d).Format(timeLayout) }
	err := s.tx(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, `DELETE FROM documents WHERE deleted_at < ?`, before(asideFor))
		if err != nil {
			return err
		}
		if out.Purged, err = r.RowsAffected(); err != nil {
			return err
		}
		// A day is its first ten letters; a week is counted from its Monday, as Julian day 0 was one.
		r, err = tx.ExecContext(ctx, `WITH aged AS (
				SELECT r.rowid AS at, r.id, r.revision,
					CASE WHEN r.saved_at < ?2 THEN 'week ' || CAST((julianday(substr(r.saved_at, 1, 10)) + 0.5) / 7 AS INTEGER) ELSE substr(r.saved_at, 1, 10) END AS span
				FROM revisions r WHERE r.saved_at < ?1
			), last AS (SELECT id, span, max(revision) AS revision FROM aged GROUP BY id, span)
			DELETE FROM revisions WHERE rowid IN (
				SELECT a.at FROM aged a JOIN last l ON l.id = a.id AND l.span = a.span WHERE a.revision < l.revision
				AND a.revision <> (SELECT d.revision FROM documents d WHERE d.id = a.id)
				AND NOT EXISTS (SELECT 1 FROM versions v WHERE v.id = a.id AND v.revision = a.revision)
				AND NOT EXISTS (SELECT 1 FROM documents d WHERE d.kind = 'variation' AND json_valid(d.body)
					AND json_extract(d.body, '$.base.base_ref.id') = a.id AND json_extract(d.body, '$.base.base_ref.revision') = a.revision)
			)`, before(everySaveFor), before(everyDayFor))
		if err != nil {
			return err
		}
		out.States, err = r.RowsAffected()
		return err
	})
	if err != nil {
		return out, fmt.Errorf("tidying: %w", err)
	}
	out.Packed, err = s.pack(ctx)
	return out, err
}

// The file is packed when a quarter of it is empty, and that is more than some megabytes
// (modelling choices: packing rewrites the whole file).
const (
	packShare = 4
	packBytes = 8 << 20
)

// pack gives the file's empty pages back, unless somebody writes.
func (s *Store) pack(ctx context.Context) (bool, error) {
	var empty, pages, size int64
	err := s.db.QueryRowContext(ctx, `SELECT freelist_count, page_count, page_size FROM pragma_freelist_count, pragma_page_count, pragma_page_size`).Scan(&empty, &pages, &size)
	if err != nil || empty*size < packBytes || empty*packShare < pages {
		return false, err
	}
	if _, err := s.db.ExecContext(ctx, `VACUUM`); err != nil {
		if FaultOf(err) == Locked {
			return false, nil
		}
		return false, fmt.Errorf("packing: %w", err)
	}
	var busy, log, moved int64
	return true, s.db.QueryRowContext(ctx, `PRAGMA wal_checkpoint(TRUNCATE)`).Scan(&busy, &log, &moved)
}

// Aside is a document that was put aside and can still come back.
type Aside struct {
	ID, Name string
	Kind     Kind
	At       time.Time
	Until    time.Time // then it is purged
}

// Bin lists what was put aside, of every kind, last put aside first.
func (s *Store) Bin(ctx context.Context) ([]Aside, error) {
	var out []Aside
	err := each(ctx, s.db, `SELECT id, kind, name, deleted_at FROM documents WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC, id DESC`, func(rows *sql.Rows) error {
		var a Aside
		var at string
		err := rows.Scan(&a.ID, &a.Kind, &a.Name, &at)
		if err == nil {
			a.At, err = time.Parse(timeLayout, at)
		}
		a.Until = a.At.Add(asideFor)
		out = append(out, a)
		return err
	})
	return out, err
}

// LookAside returns a document that was put aside.
func (s *Store) LookAside(ctx context.Context, kind Kind, id string) (Document, error) {
	return scan(s.db.QueryRowContext(ctx, `SELECT `+columns+` FROM documents WHERE kind = ? AND id = ? AND deleted_at IS NOT NULL`, kind, id))
}

// Purge takes one that was put aside away for good, with its past.
func (s *Store) Purge(ctx context.Context, kind Kind, id string) error {
	return affectOne(ctx, s.db, `DELETE FROM documents WHERE kind = ? AND id = ? AND deleted_at IS NOT NULL`, kind, id)
}

// Unname takes the name from a state; the state stays.
func (s *Store) Unname(ctx context.Context, kind Kind, id string, revision int64) error {
	if _, err := s.Get(ctx, kind, id); err != nil {
		return err
	}
	return affectOne(ctx, s.db, `DELETE FROM versions WHERE id = ? AND revision = ?`, id, revision)
}
