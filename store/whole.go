package store

import (
	"context"
	"crypto/sha256"
	"database/sql"
	"errors"
	"time"
)

// Past is a state that a document had.
type Past struct {
	Revision int64
	SavedAt  time.Time
	Body     []byte
}

// Whole is a document with everything that is kept of it.
type Whole struct {
	Document
	Kind     Kind
	PutAside bool
	Earlier  []Past    // before the current one, the first one first
	Names    []Version // of any of its states, the first one first
}

// Shelved returns every document of a kind, last changed first, those that were put aside as
// well, without their histories.
func (s *Store) Shelved(ctx context.Context, kind Kind) ([]Whole, error) {
	return shelved(ctx, s.db, kind)
}

func shelved(ctx context.Context, q querier, kind Kind) ([]Whole, error) {
	var out []Whole
	err := each(ctx, q, `SELECT `+columns+`, deleted_at FROM documents WHERE kind = ? ORDER BY updated_at DESC, id DESC`, func(rows *sql.Rows) error {
		w := Whole{Kind: kind}
		var updated string
		var gone sql.NullString
		err := rows.Scan(&w.ID, &w.Name, &w.Form, &w.Revision, &updated, &w.Body, &gone)
		if err == nil {
			w.UpdatedAt, err = time.Parse(timeLayout, updated)
		}
		w.PutAside = gone.Valid
		out = append(out, w)
		return err
	}, kind)
	return out, err
}

// Still is the file as it stood at one moment. It is read while others go on saving.
type Still struct{ conn *sql.Conn }

// Still calls f with the file as it stands.
func (s *Store) Still(ctx context.Context, f func(Still) error) error {
	conn, err := s.db.Conn(ctx)
	if err != nil {
		return err
	}
	defer conn.Close()
	if _, err := conn.ExecContext(ctx, `BEGIN DEFERRED`); err != nil {
		return err
	}
	defer conn.ExecContext(context.WithoutCancel(ctx), `ROLLBACK`) //nolint:errcheck // it wrote nothing
	return f(Still{conn})
}

// Kitchen returns the kitchen as it is and as it was before, the first one first; revision 0
// when none was saved.
func (s Still) Kitchen(ctx context.Context) (now Past, earlier []Past, err error) {
	err = each(ctx, s.conn, `SELECT revision, saved_at, body FROM kitchen`, func(rows *sql.Rows) (err error) {
		now, err = past(rows)
		return err
	})
	if err != nil || now.Revision == 0 {
		return now, nil, err
	}
	err = each(ctx, s.conn, `SELECT revision, saved_at, body FROM kitchen_revisions WHERE revision < ? ORDER BY revision`, func(rows *sql.Rows) error {
		p, err := past(rows)
		earlier = append(earlier, p)
		return err
	}, now.Revision)
	return now, earlier, err
}

// Shelved is Store.Shelved.
func (s Still) Shelved(ctx context.Context, kind Kind) ([]Whole, error) {
	return shelved(ctx, s.conn, kind)
}

// Whole fills in what was before, and the names.
func (s Still) Whole(ctx context.Context, w Whole) (Whole, error) {
	err := each(ctx, s.conn, `SELECT revision, saved_at, body FROM revisions WHERE id = ? AND revision < ? ORDER BY revision`, func(rows *sql.Rows) error {
		p, err := past(rows)
		w.Earlier = append(w.Earlier, p)
		return err
	}, w.ID, w.Revision)
	if err != nil {
		return w, err
	}
	return w, each(ctx, s.conn, `SELECT revision, name, named_at FROM versions WHERE id = ? ORDER BY revision`, func(rows *sql.Rows) error {
		var named string
		var v Version
		err := rows.Scan(&v.Revision, &v.Name, &named)
		if err == nil {
			v.NamedAt, err = time.Parse(timeLayout, named)
		}
		w.Names = append(w.Names, v)
		return err
	}, w.ID)
}

// past reads a row of a revision, a day and a body.
func past(rows *sql.Rows) (p Past, err error) {
	var saved string
	if err = rows.Scan(&p.Revision, &saved, &p.Body); err == nil {
		p.SavedAt, err = time.Parse(timeLayout, saved)
	}
	return p, err
}

func each(ctx context.Context, q querier, query string, f func(*sql.Rows) error, args ...any) error {
	rows, err := q.QueryContext(ctx, query, args...)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		if err := f(rows); err != nil {
			return err
		}
	}
	return rows.Err()
}

// Write is one document of a batch. A new one keeps the id, the revision and the day that it
// comes with, so that what refers to it still does; without an id it gets one, and a revision
// that nobody can count on from begins anew. Onto one that is there, states that it has not are
// appended, and one that was put aside comes back.
type Write struct {
	ID       string
	New      bool
	Revision int64     // of a new one
	SavedAt  time.Time // of a new one; zero, or later than now: now
	PutAside bool      // a new one begins aside
	Same     bool      // it is what is there: only what is missing of its past is filled in
	Earlier  []Past    // the first one first; of a new one rising, below Revision
	Names    []Version // by the revisions of Earlier and Revision
	Content
}

// SaveAll writes a batch over whatever revisions are there.
func (t *Tx) SaveAll(ctx context.Context, kind Kind, batch []Write) error {
	for _, w := range batch {
		var err error
		switch {
		case w.New || w.ID == "":
			w.ID, err = t.begin(ctx, kind, w)
		case w.Same:
			err = t.fill(ctx, w)
		default:
			err = t.append(ctx, kind, w)
		}
		if err != nil {
			return err
		}
		if err := t.name(ctx, w); err != nil {
			return err
		}
	}
	return nil
}

// begin writes a new document with its history.
func (t *Tx) begin(ctx context.Context, kind Kind, w Write) (string, error) {
	id, err := insert(ctx, t.tx, kind, w.ID, w.Revision, w.Content, t.at(w.SavedAt))
	if err != nil {
		return id, err
	}
	for _, p := range w.Earlier {
		if err := keep(ctx, t.tx, id, p.Revision, t.at(p.SavedAt), p.Body); err != nil {
			return id, err
		}
	}
	if w.PutAside {
		_, err = t.tx.ExecContext(ctx, `UPDATE documents SET deleted_at = ? WHERE id = ?`, t.s.stamp(), id)
	}
	return id, err
}

// append writes onto a document what it has not, the current state last.
func (t *Tx) append(ctx context.Context, kind Kind, w Write) error {
	var revision int64
	var body []byte
	err := t.tx.QueryRowContext(ctx, `SELECT revision, body FROM documents WHERE kind = ? AND id = ?`, kind, w.ID).Scan(&revision, &body)
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	if err != nil {
		return err
	}
	have, err := t.bodies(ctx, w.ID)
	if err != nil {
		return err
	}
	for _, p := range w.Earlier {
		if hash := sha256.Sum256(p.Body); have[hash].last == 0 {
			revision++
			have[hash] = span{revision, revision}
			if err := keep(ctx, t.tx, w.ID, revision, t.at(p.SavedAt), p.Body); err != nil {
				return err
			}
		}
	}
	if have[sha256.Sum256(w.Body)].last == revision { // nothing was appended, and it is what is there
		_, err := t.tx.ExecContext(ctx, `UPDATE documents SET deleted_at = CASE WHEN ? THEN deleted_at END WHERE id = ?`, w.PutAside, w.ID)
		return err
	}
	now := t.s.stamp()
	if _, err := t.tx.ExecContext(ctx, `UPDATE documents SET name = ?, form = ?, revision = ?, updated_at = ?, body = ?, deleted_at = CASE WHEN ? THEN deleted_at END WHERE id = ?`,
		w.Content.Name, w.Form, revision+1, now, w.Body, w.PutAside, w.ID); err != nil {
		return err
	}
	return keep(ctx, t.tx, w.ID, revision+1, now, w.Body)
}

// fill writes states of the past whose revisions are free and come before the current one.
func (t *Tx) fill(ctx context.Context, w Write) error {
	for _, p := range w.Earlier {
		if _, err := t.tx.ExecContext(ctx, `INSERT INTO revisions (id, revision, saved_at, body)
			SELECT id, ?2, ?3, ?4 FROM documents WHERE id = ?1 AND revision > ?2 ON CONFLICT DO NOTHING`,
			w.ID, p.Revision, t.at(p.SavedAt), p.Body); err != nil {
			return err
		}
	}
	return nil
}

// span is the first and the last revision in which a document was what it was.
type span struct{ first, last int64 }

// bodies are the states of a document, by what is in them.
func (t *Tx) bodies(ctx context.Context, id string) (map[[sha256.Size]byte]span, error) {
	out := map[[sha256.Size]byte]span{}
	err := each(ctx, t.tx, `SELECT revision, body FROM revisions WHERE id = ? ORDER BY revision`, func(rows *sql.Rows) error {
		var revision int64
		var body []byte
		err := rows.Scan(&revision, &body)
		hash := sha256.Sum256(body)
		first := out[hash].first
		if first == 0 {
			first = revision
		}
		out[hash] = span{first, revision}
		return err
	}, id)
	return out, err
}

// name gives the names of a write to the states that they were given to. A state that has a
// name keeps it.
func (t *Tx) name(ctx context.Context, w Write) error {
	if len(w.Names) == 0 {
		return nil
	}
	there, err := t.bodies(ctx, w.ID)
	if err != nil {
		return err
	}
	theirs := map[int64][]byte{w.Revision: w.Body}
	for _, p := range w.Earlier {
		theirs[p.Revision] = p.Body
	}
	for _, n := range w.Names {
		body, known := theirs[n.Revision]
		revision := there[sha256.Sum256(body)].first
		if !known || revision == 0 {
			continue
		}
		var same bool // a state may have been what it was twice: the name stays where it was, if it can
		if err := t.tx.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM revisions WHERE id = ? AND revision = ? AND body = ?)`, w.ID, n.Revision, body).Scan(&same); err != nil {
			return err
		}
		if same {
			revision = n.Revision
		}
		if _, err := t.tx.ExecContext(ctx, `INSERT INTO versions (id, revision, name, named_at) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING`,
			w.ID, revision, n.Name, t.at(n.NamedAt)); err != nil {
			return err
		}
	}
	return nil
}

// at writes a time that came from elsewhere; one that is missing or still to come is now.
func (t *Tx) at(when time.Time) string {
	if now := t.s.now(); when.IsZero() || when.Year() < 1970 || when.After(now) {
		when = now
	}
	return when.UTC().Format(timeLayout)
}
