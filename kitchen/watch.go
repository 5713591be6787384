package kitchen

import (
	"context"
	"sync"
)

// watchers are woken when something happens to a batch or at a board.
type watchers struct {
	mu sync.Mutex
	of map[string]map[chan struct{}]struct{}
}

// Watch sends whenever something happens to a batch or at a board, until the context ends.
func (k *Kitchen) Watch(ctx context.Context, id string) <-chan struct{} {
	w := &k.watchers
	c := make(chan struct{}, 1)
	w.mu.Lock()
	defer w.mu.Unlock()
	if w.of == nil {
		w.of = map[string]map[chan struct{}]struct{}{}
	}
	if w.of[id] == nil {
		w.of[id] = map[chan struct{}]struct{}{}
	}
	w.of[id][c] = struct{}{}
	context.AfterFunc(ctx, func() {
		w.mu.Lock()
		defer w.mu.Unlock()
		if delete(w.of[id], c); len(w.of[id]) == 0 {
			delete(w.of, id)
		}
	})
	return c
}

func (w *watchers) told(id string) {
	w.mu.Lock()
	defer w.mu.Unlock()
	for c := range w.of[id] {
		select {
		case c <- struct{}{}:
		default: // it has not looked since the last
		}
	}
}
