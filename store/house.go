package store

import (
	"context"
	"database/sql"
	"errors"
	"time"
)

// Tablet is one that gave the passcode and was let in; its token is kept as a hash only.
type Tablet struct {
	ID, Name           string
	Since, Seen, Until time.Time
}

// Guest is a link that shows one card and nothing else.
type Guest struct {
	ID, Card    string // Card is the id of a variation
	Name        string // of the card as it is called now; empty when it is gone
	Made, Until time.Time
}

// Passcode returns the hash of the passcode; empty when none was set.
func (s *Store) Passcode(ctx context.Context) (hash string, err error) {
	err = s.db.QueryRowContext(ctx, `SELECT hash FROM passcode WHERE id = 1`).Scan(&hash)
	if errors.Is(err, sql.ErrNoRows) {
		return "", nil
	}
	return hash, err
}

// SetPasscode keeps another and signs every tablet out, but for the one with the id stays.
func (s *Store) SetPasscode(ctx context.Context, hash, stays string) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `INSERT INTO passcode (id, hash, set_at) VALUES (1, ?, ?)
			ON CONFLICT (id) DO UPDATE SET hash = excluded.hash, set_at = excluded.set_at`, hash, s.stamp()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `DELETE FROM tablets WHERE id <> ?`, stays)
		return err
	})
}

// AddTablet lets one in, and forgets those whose time is over.
func (s *Store) AddTablet(ctx context.Context, t Tablet, token []byte) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := tx.ExecContext(ctx, `DELETE FROM tablets WHERE until <= ?`, s.stamp()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO tablets (id, token, name, since, seen_at, until) VALUES (?, ?, ?, ?, ?, ?)`,
			t.ID, token, t.Name, at(t.Since), at(t.Seen), at(t.Until))
		return err
	})
}

// TabletOf returns the tablet with a token's hash, or ErrNotFound.
func (s *Store) TabletOf(ctx context.Context, token []byte) (Tablet, error) {
	found, err := s.tablets(ctx, `WHERE token = ?`, token)
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return Tablet{}, err
	}
	return found[0], nil
}

// Tablets lists those that are in, the one seen last first.
func (s *Store) Tablets(ctx context.Context) ([]Tablet, error) {
	return s.tablets(ctx, `WHERE until > ? ORDER BY seen_at DESC, id`, s.stamp())
}

func (s *Store) tablets(ctx context.Context, where string, args ...any) ([]Tablet, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, name, since, seen_at, until FROM tablets `+where, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Tablet
	for rows.Next() {
		var t Tablet
		if err := rows.Scan(&t.ID, &t.Name, moment{&t.Since}, moment{&t.Seen}, moment{&t.Until}); err != nil {
			return nil, err
		}
		out = append(out, t)
	}
	return out, rows.Err()
}

// SeeTablet moves on when a tablet was seen, and how long it stays in.
func (s *Store) SeeTablet(ctx context.Context, id string, seen, until time.Time) error {
	_, err := s.db.ExecContext(ctx, `UPDATE tablets SET seen_at = ?, until = ? WHERE id = ?`, at(seen), at(until), id)
	return err
}

// EndTablet signs one out.
func (s *Store) EndTablet(ctx context.Context, id string) error {
	return affectOne(ctx, s.db, `DELETE FROM tablets WHERE id = ?`, id)
}

// AddGuest keeps a link, and forgets those whose time is over.
func (s *Store) AddGuest(ctx context.Context, g Guest, token []byte) error {
	return s.tx(ctx, func(tx *sql.Tx) error {
		if _, err := get(ctx, tx, Variation, g.Card); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, `DELETE FROM guests WHERE until <= ?`, s.stamp()); err != nil {
			return err
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO guests (id, token, card, made_at, until) VALUES (?, ?, ?, ?, ?)`,
			g.ID, token, g.Card, at(g.Made), at(g.Until))
		return err
	})
}

// Guests lists the links that still open something, the newest first.
func (s *Store) Guests(ctx context.Context) ([]Guest, error) {
	return s.guests(ctx, `WHERE g.until > ? ORDER BY g.made_at DESC, g.id`, s.stamp())
}

// GuestOf returns the link with a token's hash, or ErrNotFound.
func (s *Store) GuestOf(ctx context.Context, token []byte) (Guest, error) {
	found, err := s.guests(ctx, `WHERE g.token = ?`, token)
	if err == nil && len(found) == 0 {
		err = ErrNotFound
	}
	if err != nil {
		return Guest{}, err
	}
	return found[0], nil
}

func (s *Store) guests(ctx context.Context, where string, args ...any) ([]Guest, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT g.id, g.card, coalesce(d.name, ''), g.made_at, g.until FROM guests g
		LEFT JOIN documents d ON d.id = g.card AND d.kind = 'variation' AND d.deleted_at IS NULL `+where, args...)
	if err != nil {
		return nil, err
	}
	defer rows.Close()
	var out []Guest
	for rows.Next() {
		var g Guest
		if err := rows.Scan(&g.ID, &g.Card, &g.Name, moment{&g.Made}, moment{&g.Until}); err != nil {
			return nil, err
		}
		out = append(out, g)
	}
	return out, rows.Err()
}

// EndGuest takes a link back.
func (s *Store) EndGuest(ctx context.Context, id string) error {
	return affectOne(ctx, s.db, `DELETE FROM guests WHERE id = ?`, id)
}

func at(t time.Time) string { return t.UTC().Format(timeLayout) }

// moment reads a time as it is kept.
type moment struct{ to *time.Time }

func (m moment) Scan(v any) (err error) {
	text, _ := v.(string)
	*m.to, err = time.Parse(timeLayout, text)
	return err
}

// forgetDoors empties a copy of who may come in: what was signed out since must not come back with it.
func forgetDoors(ctx context.Context, path string) (err error) {
	db, err := look(path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	for _, table := range []string{"tablets", "guests"} {
		var there bool
		if err := db.QueryRowContext(ctx, `SELECT EXISTS (SELECT 1 FROM sqlite_schema WHERE name = ?)`, table).Scan(&there); err != nil {
			return err
		}
		if there {
			if _, err := db.ExecContext(ctx, `DELETE FROM `+table); err != nil {
				return err
			}
		}
	}
	return nil
}
