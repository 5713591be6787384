// Package store keeps the kitchen's documents in one SQLite file. Every save keeps the
// state before it as a revision; a delete only puts aside.
package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"time"

	"github.com/google/uuid"
	_ "modernc.org/sqlite" // the driver "sqlite"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Kind is what a document is.
type Kind string

// The kinds.
const (
	Base      Kind = "base"
	Variation Kind = "variation"
	Pantry    Kind = "pantry"
	Text      Kind = "text" // what something was read from
	Batch     Kind = "batch"
	Board     Kind = "board" // a morning at the plates
	Pack      Kind = "pack"  // in the freezer
	Sauce     Kind = "sauce"
)

// Errors that callers tell apart with errors.Is.
var (
	ErrNotFound  = errors.New("there is no such document")
	ErrKeyReused = errors.New("the idempotency key was used for another document")
)

// ConflictError says that the document was saved by somebody else since it was read.
type ConflictError struct{ Current Document }

func (e *ConflictError) Error() string {
	return fmt.Sprintf("the document is at revision %d by now", e.Current.Revision)
}

// Content is what a caller saves: the encoded document, and its name and form for lists.
type Content struct {
	Name, Form string
	Body       []byte
	Asked      []byte // what the caller sent, when the program added to it; a repeated call sends the same
}

// Document is a saved document.
type Document struct {
	ID        string
	Revision  int64
	UpdatedAt time.Time
	Content
}

// Store is the database. It is safe for concurrent use.
type Store struct {
	db    *sql.DB
	path  string
	watch *sql.Conn // never writes, so that it sees what anybody else commits
	now   func() time.Time
}

// busyMS is how long a writer waits for another [ms] (modelling choice: longer than any
// save takes, shorter than a cook's patience).
const busyMS = 5000

// Open opens the file, makes it when it is missing, and brings its tables up to date. A file
// that is something else, empty, damaged or from a newer program is refused as it is.
func Open(ctx context.Context, path string, now func() time.Time) (*Store, error) {
	_, err := os.Stat(path)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		err = begin(ctx, path)
	case err == nil:
		err = admit(ctx, path)
	}
	if err != nil {
		return nil, err
	}
	if err := os.Chmod(path, private); err != nil && !errors.Is(err, fs.ErrPermission) {
		return nil, err
	}
	db, err := sql.Open("sqlite", source(path, url.Values{"_pragma": {
		"journal_mode(WAL)", "foreign_keys(1)", fmt.Sprintf("busy_timeout(%d)", busyMS), "synchronous(FULL)", // what was acknowledged is on the disk
	}, "mode": {"rw"}, "_txlock": {"immediate"}}))
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", path, err)
	}
	if err := migrate(ctx, db); err != nil {
		return nil, errors.Join(fmt.Errorf("preparing %s: %w", path, err), db.Close())
	}
	s := &Store{db: db, path: path, now: now}
	if err := s.mendRevisions(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("mending %s: %w", path, err), db.Close())
	}
	if s.watch, err = db.Conn(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("opening %s: %w", path, err), db.Close())
	}
	return s, nil
}

// Close closes the file.
func (s *Store) Close() error { return errors.Join(s.watch.Close(), s.db.Close()) }

// Commits is a number that changes whenever anybody commits anything to the file. It costs a
// few microseconds, so that what was read may be kept until it changes. It is asked to the end
// even for somebody who has gone: all share one connection, and a question that is given up in
// the middle would break off whoever asks next.
func (s *Store) Commits(ctx context.Context) (int64, error) {
	var n int64
	err := s.watch.QueryRowContext(context.WithoutCancel(ctx), `PRAGMA data_version`).Scan(&n)
	return n, err
}

// tables are those that a kitchen cannot do without.
var tables = []string{"documents", "revisions", "versions", "idempotency", "kitchen", "kitchen_revisions", "events"}

// Ping tells whether the file answers and still holds every table.
func (s *Store) Ping(ctx context.Context) error {
	for _, t := range tables {
		var one int
		if err := s.db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM `+t+`)`).Scan(&one); err != nil {
			return err
		}
	}
	return nil
}

const timeLayout = "2006-01-02T15:04:05.000000000Z"

func (s *Store) stamp() string { return s.now().UTC().Format(timeLayout) }

const columns = `id, name, form, revision, updated_at, body`

func scan(row interface{ Scan(...any) error }) (Document, error) {
	var d Document
	var at string
	if err := row.Scan(&d.ID, &d.Name, &d.Form, &d.Revision, &at, &d.Body); err != nil {
		if errors.Is(err, sql.ErrNoRows) {
			return Document{}, ErrNotFound
		}
		return Document{}, err
	}
	t, err := time.Parse(timeLayout, at)
	d.UpdatedAt = t
	return d, err
}

// Tx is a stretch of work that is kept as a whole or not at all, and that nobody else's
// writing falls into: what it reads is what it writes over.
type Tx struct {
	s  *Store
	tx *sql.Tx
}

// Together runs f in one transaction. What f returns is returned; an error undoes everything.
func (s *Store) Together(ctx context.Context, f func(*Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	defer tx.Rollback() //nolint:errcheck // after a commit it has nothing to undo
	if err := f(&Tx{s, tx}); err != nil {
		return err
	}
	return tx.Commit()
}

// tx is Together for this package's own statements.
func (s *Store) tx(ctx context.Context, f func(*sql.Tx) error) error {
	return s.Together(ctx, func(t *Tx) error { return f(t.tx) })
}

// querier is the database or a transaction on it.
type querier interface {
	QueryRowContext(context.Context, string, ...any) *sql.Row
	QueryContext(context.Context, string, ...any) (*sql.Rows, error)
	ExecContext(context.Context, string, ...any) (sql.Result, error)
}

func get(ctx context.Context, q querier, kind Kind, id string) (Document, error) {
	return scan(q.QueryRowContext(ctx, `SELECT `+columns+` FROM documents WHERE kind = ? AND id = ? AND deleted_at IS NULL`, kind, id))
}

// Get returns a document, or ErrNotFound when it is missing or put aside.
func (s *Store) Get(ctx context.Context, kind Kind, id string) (Document, error) {
	return get(ctx, s.db, kind, id)
}

// Create saves a new document under a new id. A key other than "" makes a repeated call
// with the same content return the first document; with other content it is ErrKeyReused.
func (s *Store) Create(ctx context.Context, kind Kind, c Content, key string) (out Document, err error) {
	err = s.Together(ctx, func(t *Tx) error {
		out, err = t.Create(ctx, kind, c, key)
		return err
	})
	return out, err
}

// Create is Store.Create as a part of more.
func (t *Tx) Create(ctx context.Context, kind Kind, c Content, key string) (Document, error) {
	asked := c.Asked
	if asked == nil {
		asked = c.Body
	}
	hash := sha256.Sum256(asked)
	if key != "" {
		var had []byte
		var hadID string
		err := t.tx.QueryRowContext(ctx, `SELECT body_hash, id FROM idempotency WHERE kind = ? AND key = ?`, kind, key).Scan(&had, &hadID)
		switch {
		case err == nil && !bytes.Equal(had, hash[:]):
			return Document{}, ErrKeyReused
		case err == nil:
			return get(ctx, t.tx, kind, hadID)
		case !errors.Is(err, sql.ErrNoRows):
			return Document{}, err
		}
	}
	now := t.s.stamp()
	id, err := insert(ctx, t.tx, kind, "", 1, c, now)
	if err != nil {
		return Document{}, err
	}
	if key != "" {
		if _, err := t.tx.ExecContext(ctx, `INSERT INTO idempotency (key, kind, body_hash, id, created_at) VALUES (?, ?, ?, ?, ?)`,
			key, kind, hash[:], id, now); err != nil {
			return Document{}, err
		}
	}
	return get(ctx, t.tx, kind, id)
}

// insert writes a new document, under a new id when it has none. A revision that nobody can
// count on from begins anew.
func insert(ctx context.Context, tx *sql.Tx, kind Kind, id string, revision int64, c Content, now string) (string, error) {
	if revision < 1 || revision > MaxRevision {
		revision = 1
	}
	if id == "" {
		fresh, err := uuid.NewV7()
		if err != nil {
			return "", err
		}
		id = fresh.String()
	}
	if _, err := tx.ExecContext(ctx, `INSERT INTO documents (id, kind, name, form, revision, updated_at, body) VALUES (?, ?, ?, ?, ?, ?, ?)`,
		id, kind, c.Name, c.Form, revision, now, c.Body); err != nil {
		return "", err
	}
	return id, keep(ctx, tx, id, revision, now, c.Body)
}

// overwrite saves over a revision that is known to be the current one.
func overwrite(ctx context.Context, tx *sql.Tx, id string, revision int64, c Content, now string) error {
	if _, err := tx.ExecContext(ctx, `UPDATE documents SET name = ?, form = ?, revision = revision + 1, updated_at = ?, body = ? WHERE id = ?`,
		c.Name, c.Form, now, c.Body, id); err != nil {
		return err
	}
	return keep(ctx, tx, id, revision+1, now, c.Body)
}

func keep(ctx context.Context, tx *sql.Tx, id string, revision int64, at string, body []byte) error {
	_, err := tx.ExecContext(ctx, `INSERT INTO revisions (id, revision, saved_at, body) VALUES (?, ?, ?, ?)`, id, revision, at, body)
	return err
}

// Put saves over the revision that the caller read. A later one in the store is a
// *ConflictError with the current document, and nothing is saved. Saving what is already
// there keeps the revision, whichever the caller read: a save whose answer got lost is sent again.
func (s *Store) Put(ctx context.Context, kind Kind, id string, revision int64, c Content) (Document, error) {
	var out Document
	err := s.tx(ctx, func(tx *sql.Tx) error {
		current, err := get(ctx, tx, kind, id)
		if err != nil {
			return err
		}
		if bytes.Equal(current.Body, c.Body) {
			out = current
			return nil
		}
		if current.Revision != revision {
			return &ConflictError{current}
		}
		if err := overwrite(ctx, tx, id, revision, c, s.stamp()); err != nil {
			return err
		}
		out, err = get(ctx, tx, kind, id)
		return err
	})
	return out, err
}

// Delete puts a document aside.
func (s *Store) Delete(ctx context.Context, kind Kind, id string) error {
	return affectOne(ctx, s.db, `UPDATE documents SET deleted_at = ? WHERE kind = ? AND id = ? AND deleted_at IS NULL`, s.stamp(), kind, id)
}

// Delete is Store.Delete as a part of more.
func (t *Tx) Delete(ctx context.Context, kind Kind, id string) error {
	return affectOne(ctx, t.tx, `UPDATE documents SET deleted_at = ? WHERE kind = ? AND id = ? AND deleted_at IS NULL`, t.s.stamp(), kind, id)
}

// Restore brings a document back that was put aside; one that is there stays as it is.
func (t *Tx) Restore(ctx context.Context, kind Kind, id string) (Document, error) {
	if err := affectOne(ctx, t.tx, `UPDATE documents SET deleted_at = NULL WHERE kind = ? AND id = ?`, kind, id); err != nil {
		return Document{}, err
	}
	return get(ctx, t.tx, kind, id)
}

// Get is Store.Get as a part of more.
func (t *Tx) Get(ctx context.Context, kind Kind, id string) (Document, error) {
	return get(ctx, t.tx, kind, id)
}

func affectOne(ctx context.Context, q querier, query string, args ...any) error {
	r, err := q.ExecContext(ctx, query, args...)
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// Page is one page of a list, last changed first; Next is empty on the last one.
type Page struct {
	Items []Document
	Next  string
}

// List returns a page of at most limit documents after the cursor of the page before.
func (s *Store) List(ctx context.Context, kind Kind, after string, limit int) (Page, error) {
	// The cursor is "time id" of the last item; an unknown one starts at the top.
	cursorTime, cursorID := "9", ""
	if len(after) > len(timeLayout) {
		cursorTime, cursorID = after[:len(timeLayout)], after[len(timeLayout)+1:]
	}
	rows, err := s.db.QueryContext(ctx, `SELECT `+columns+` FROM documents
		WHERE kind = ? AND deleted_at IS NULL AND (updated_at, id) < (?, ?)
		ORDER BY updated_at DESC, id DESC LIMIT ?`, kind, cursorTime, cursorID, limit+1)
	if err != nil {
		return Page{}, err
	}
	defer rows.Close()
	var p Page
	for rows.Next() {
		d, err := scan(rows)
		if err != nil {
			return Page{}, err
		}
		p.Items = append(p.Items, d)
	}
	if len(p.Items) > limit {
		p.Items = p.Items[:limit]
		last := p.Items[limit-1]
		p.Next = last.UpdatedAt.Format(timeLayout) + " " + last.ID
	}
	return p, rows.Err()
}

// Empty tells whether no document was ever saved, so that a demo may be written.
func (t *Tx) Empty(ctx context.Context) (bool, error) {
	var n int
	err := t.tx.QueryRowContext(ctx, `SELECT count(*) FROM (SELECT 1 FROM documents LIMIT 1)`).Scan(&n)
	return n == 0, err
}
