package store

import (
	"context"
	"database/sql"
)

// Steps is how many steps the tables have by now.
func Steps() int64 { return newest() }

// BuildUpTo makes a file as a program made it whose last step of the tables was this one.
func BuildUpTo(ctx context.Context, path string, step int64) (*sql.DB, error) {
	if err := touch(path); err != nil {
		return nil, err
	}
	db, err := look(path, "journal_mode(WAL)")
	if err != nil {
		return nil, err
	}
	p, err := provider(db)
	if err != nil {
		return nil, err
	}
	_, err = p.UpTo(ctx, step)
	return db, err
}
