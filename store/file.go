package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"runtime"
	"strings"

	"github.com/pressly/goose/v3"
)

// applicationID marks the file as this program's; "UPLD" in ASCII. Files from before the mark
// are known by their tables.
const applicationID = 0x55504C44

// private is the mode of the files: what a kitchen keeps is for whoever runs the program.
const private fs.FileMode = 0o600

// Errors of a file that is not opened, told apart with errors.Is. None of them is ever taken
// for a kitchen that was not begun.
var (
	ErrForeign = errors.New("this is not a kitchen's file")
	ErrEmptied = errors.New("there is no kitchen in the file")
	ErrNewer   = errors.New("a newer program has used the file")
	ErrDamaged = errors.New("the file is damaged")
)

// source is the name under which the driver opens a file.
func source(path string, q url.Values) string {
	return (&url.URL{Scheme: "file", Opaque: (&url.URL{Path: path}).EscapedPath(), RawQuery: q.Encode()}).String()
}

// look opens a file that is there, as it is: no table is changed.
func look(path string, pragmas ...string) (*sql.DB, error) {
	db, err := sql.Open("sqlite", source(path, url.Values{"mode": {"rw"}, "_pragma": append(pragmas, fmt.Sprintf("busy_timeout(%d)", busyMS)), "_txlock": {"immediate"}}))
	if err == nil {
		db.SetMaxOpenConns(1)
	}
	return db, err
}

// admit tells whether the file at path may be opened as a kitchen; every refusal says what to
// do. It changes nothing. It looks through SQLite only: to open and close the file by any other
// way would drop the locks that this process holds on it.
func admit(ctx context.Context, path string) (err error) {
	info, err := os.Stat(path)
	if err != nil {
		return err
	}
	if info.Size() == 0 {
		return fmt.Errorf("%w: %s is empty; take it away to begin a new kitchen, or bring one back with “upbeat-ladle restore”", ErrEmptied, path)
	}
	db, err := look(path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	var objects, id, ours int
	err = db.QueryRowContext(ctx, `SELECT count(*), coalesce(sum(name IN ('documents', 'goose_db_version')), 0) FROM sqlite_schema`).Scan(&objects, &ours)
	if err == nil {
		err = db.QueryRowContext(ctx, `PRAGMA application_id`).Scan(&id)
	}
	switch {
	case err != nil:
		return whyNot(path, err)
	case objects == 0:
		return fmt.Errorf("%w: %s was perhaps copied while the bench was open, without %[2]s-wal beside it; copy with “upbeat-ladle backup”, or put the missing file beside it", ErrEmptied, path)
	case id != applicationID && (id != 0 || ours < 2):
		return fmt.Errorf("%w: %s was made by another program; name another file with --db", ErrForeign, path)
	}
	var there int64
	if err := db.QueryRowContext(ctx, `SELECT coalesce(max(version_id), 0) FROM goose_db_version WHERE is_applied`).Scan(&there); err != nil {
		return whyNot(path, err)
	}
	if known := newest(); there > known {
		return fmt.Errorf("%w: the tables of %s are at step %d, this program knows %d; open it with the program that used it last, or a newer one", ErrNewer, path, there, known)
	}
	return check(ctx, path, db, quickly)
}

// How a file is checked: every page read once, as at each start; or all that it says twice compared as well, as for a copy, which may
// be all that is left some day.
const (
	quickly    = `PRAGMA quick_check(1)`
	thoroughly = `PRAGMA integrity_check(1)`
)

// admitWhole is admit for a file that a copy is made from or of.
func admitWhole(ctx context.Context, path string) (err error) {
	if err := admit(ctx, path); err != nil {
		return err
	}
	db, err := look(path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	return check(ctx, path, db, thoroughly)
}

func check(ctx context.Context, path string, db *sql.DB, how string) error {
	var found string
	if err := db.QueryRowContext(ctx, how).Scan(&found); err != nil {
		return whyNot(path, err)
	}
	if found != "ok" {
		return damaged(path, found)
	}
	return nil
}

func damaged(path, found string) error {
	return fmt.Errorf("%w: %s (%s); nothing was changed: try again, and if it says so again, bring back a copy of a day before with “upbeat-ladle restore”, they are in %s", ErrDamaged, path, strings.TrimSpace(found), daysOf(path))
}

func whyNot(path string, err error) error {
	if FaultOf(err) == Foreign {
		return fmt.Errorf("%w: %s holds something else; name another file with --db", ErrForeign, path)
	}
	if FaultOf(err) == Damaged {
		return damaged(path, err.Error())
	}
	return fmt.Errorf("opening %s: %w", path, err)
}

// newest is the last step of the tables that this program knows.
func newest() int64 {
	p, err := provider(nil)
	if err != nil {
		return 0
	}
	steps := p.ListSources()
	return steps[len(steps)-1].Version
}

// begin makes a new kitchen's file beside path and moves it there when it is whole, so that a
// file without tables is never one that was just begun.
func begin(ctx context.Context, path string) error {
	fresh := path + ".new"
	if err := sweep(fresh); err != nil {
		return err
	}
	if err := touch(fresh); err != nil {
		return err
	}
	db, err := look(fresh, "journal_mode(WAL)")
	if err != nil {
		return err
	}
	if err := errors.Join(migrate(ctx, db), db.Close()); err != nil {
		return errors.Join(fmt.Errorf("making %s: %w", path, err), sweep(fresh))
	}
	return settle(fresh, path)
}

// touch makes an empty file that only its owner may read.
func touch(path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, private)
	if err != nil {
		return err
	}
	return f.Close()
}

// sweep takes away a database file with what stands beside it.
func sweep(path string) error {
	for _, end := range []string{"", "-wal", "-shm", "-journal"} {
		if err := os.Remove(path + end); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
	}
	return nil
}

// settle moves a whole file to where it belongs and waits until the disk holds it.
func settle(from, to string) error {
	if err := synced(from); err != nil {
		return err
	}
	if err := os.Rename(from, to); err != nil {
		return err
	}
	if runtime.GOOS == "windows" { // there a folder cannot be waited for
		return nil
	}
	return synced(filepath.Dir(to))
}

func synced(path string) error {
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	return errors.Join(f.Sync(), f.Close())
}

func migrate(ctx context.Context, db *sql.DB) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

func provider(db *sql.DB) (*goose.Provider, error) {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	if db == nil { // only to list the steps; nothing is opened
		if db, err = sql.Open("sqlite", ":memory:"); err != nil {
			return nil, err
		}
		defer db.Close()
	}
	return goose.NewProvider(goose.DialectSQLite3, db, dir)
}
