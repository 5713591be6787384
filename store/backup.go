package store

import (
	"context"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// DaysKept is how many daily copies stay beside the file (modelling choice: two weeks, longer
// than anybody takes to miss a recipe that they use).
const DaysKept = 14

const dayLayout = "2006-01-02"

// daysOf is the folder of the daily copies of a file.
func daysOf(path string) string { return strings.TrimSuffix(path, filepath.Ext(path)) + "-days" }

// Backup copies the kitchen at path to a file that is not there yet, whether or not a bench is
// open on it. The copy is whole, one file, read through once before it stands under its name.
func Backup(ctx context.Context, path, to string) error {
	if _, err := os.Stat(to); err == nil {
		return fmt.Errorf("%s is there already; name another file", to)
	}
	if err := admitWhole(ctx, path); err != nil {
		return err
	}
	part := to + ".part"
	if err := copied(ctx, path, part); err != nil {
		return errors.Join(err, sweep(part))
	}
	return settle(part, to)
}

// copied writes a checked copy of a database with all that was committed, but for who may come in.
func copied(ctx context.Context, from, to string) (err error) {
	if err := sweep(to); err != nil {
		return err
	}
	if err := touch(to); err != nil {
		return err
	}
	db, err := look(from)
	if err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, `VACUUM INTO ?`, to)
	if err := errors.Join(err, db.Close()); err != nil {
		return fmt.Errorf("copying %s: %w", from, err)
	}
	if err := admitWhole(ctx, to); err != nil {
		return err
	}
	return forgetDoors(ctx, to)
}

// Restore puts a backup in the place of the kitchen at path, which no bench may have open. What
// was there stays beside it, under the name that is returned; empty when nothing was.
func Restore(ctx context.Context, from, path string, now time.Time) (replaced string, err error) {
	if err := admitWhole(ctx, from); err != nil {
		return "", err
	}
	part := path + ".part"
	if err := copied(ctx, from, part); err != nil {
		return "", errors.Join(err, sweep(part))
	}
	if _, err := os.Stat(path); err == nil {
		if err := alone(ctx, path); err != nil {
			return "", errors.Join(err, sweep(part))
		}
		replaced = strings.TrimSuffix(path, filepath.Ext(path)) + "-until-" + now.Format("2006-01-02-150405") + filepath.Ext(path)
		if err := aside(path, replaced); err != nil {
			return "", errors.Join(err, sweep(part))
		}
	}
	for _, end := range []string{"-wal", "-shm"} { // of the file that was there: they would be read into the new one
		if err := os.Remove(path + end); err != nil && !errors.Is(err, fs.ErrNotExist) {
			return replaced, err
		}
	}
	return replaced, settle(part, path)
}

// alone fails when somebody else has the file open; what waits in its log is written into it.
// A file that cannot be read any more is let pass, nobody can work with it.
func alone(ctx context.Context, path string) error {
	db, err := look(path, "locking_mode(EXCLUSIVE)")
	if err != nil {
		return err
	}
	tx, err := db.BeginTx(ctx, nil)
	if err == nil {
		err = tx.Rollback()
	}
	if err == nil {
		_, err = db.ExecContext(ctx, `PRAGMA wal_checkpoint(TRUNCATE)`)
	}
	fault := FaultOf(err)
	err = errors.Join(err, db.Close())
	switch {
	case fault == Locked:
		return fmt.Errorf("the bench is open on %s: close it, then restore", path)
	case fault == Damaged, fault == Foreign:
		return nil
	}
	return err
}

// aside keeps a file under a second name as well, with its log when it still has one.
func aside(path, as string) error {
	for _, end := range []string{"", "-wal"} {
		err := os.Link(path+end, as+end)
		if err != nil && !errors.Is(err, fs.ErrNotExist) { // a disk without second names
			err = bytesOf(path+end, as+end)
		}
		if err != nil && (end == "" || !errors.Is(err, fs.ErrNotExist)) {
			return fmt.Errorf("keeping what was there: %w", err)
		}
	}
	return nil
}

func bytesOf(from, to string) error {
	data, err := os.ReadFile(from)
	if err != nil {
		return err
	}
	return os.WriteFile(to, data, private)
}

// KeepDay copies the kitchen once a day into the folder beside it and keeps the last DaysKept
// copies. The day that was copied is returned; empty when today's was there.
func (s *Store) KeepDay(ctx context.Context) (string, error) {
	dir := daysOf(s.path)
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return "", err
	}
	ending := filepath.Ext(s.path)
	to := filepath.Join(dir, s.now().Format(dayLayout)+ending)
	if _, err := os.Stat(to); err == nil {
		return "", nil
	}
	if err := Backup(ctx, s.path, to); err != nil {
		return "", err
	}
	names, err := filepath.Glob(filepath.Join(globbed(dir), "????-??-??"+globbed(ending)))
	if err != nil {
		return to, err
	}
	slices.Sort(names)
	for _, old := range names[:max(0, len(names)-DaysKept)] {
		err = errors.Join(err, os.Remove(old))
	}
	return to, err
}

// globbed lets a path stand for itself in a pattern.
func globbed(path string) string {
	return strings.NewReplacer(`\`, `\\`, `*`, `\*`, `?`, `\?`, `[`, `\[`).Replace(path)
}
