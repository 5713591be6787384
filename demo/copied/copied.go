// Package copied opens the demo kitchen for tests and pictures: it is written once a day of the
// clock handed in, and its file copied for whoever asks after that.
package copied

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"sync"
	"time"

	"upbeatladle/core/food"
	"upbeatladle/demo"
	"upbeatladle/store"
)

// written are the files of the demo kitchen by their day. Safe for concurrent use.
var written = struct {
	sync.Mutex
	days map[string][]byte
}{days: map[string][]byte{}}

// Open opens a store of its own at path, where nothing is yet, with the demo kitchen in it as of
// the day that now tells. Whoever opens it closes it. What is written in it was written at the
// moment at which that day was asked for first.
func Open(ctx context.Context, path string, now func() time.Time) (*store.Store, error) {
	file, err := ofDay(ctx, now)
	if err != nil {
		return nil, err
	}
	if err := os.WriteFile(path, file, 0o600); err != nil {
		return nil, err
	}
	return store.Open(ctx, path, now)
}

func ofDay(ctx context.Context, now func() time.Time) ([]byte, error) {
	written.Lock()
	defer written.Unlock()
	day := now().Format(time.DateOnly)
	if file, ok := written.days[day]; ok {
		return file, nil
	}
	dir, err := os.MkdirTemp("", "demo")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(dir)
	path := filepath.Join(dir, "demo.db")
	st, err := store.Open(ctx, path, now)
	if err != nil {
		return nil, err
	}
	if err := errors.Join(demo.Write(ctx, st, food.Reference(), now()), st.Close()); err != nil {
		return nil, err
	}
	file, err := os.ReadFile(path)
	if err == nil {
		written.days[day] = file
	}
	return file, err
}
