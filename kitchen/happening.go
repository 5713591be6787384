package kitchen

import (
	"context"
	"errors"
	"sync"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"

	"upbeatladle/core/happen"
	"upbeatladle/document"
	"upbeatladle/store"
)

// course is something that goes on: a kept document with what happened to it folded.
type course[E any] interface {
	Take(E)
	Events() []E
	Find(id string) *E
	Earliest(E) time.Time

	begun() time.Time
	read(data []byte) (E, error) // an event as a tablet sends it
}

// happening is a kind of kept document that events happen to: a row of what sets it apart, and everything that is done
// with all of them. D is the document, E its event, C the document as it goes on. It is safe for concurrent use.
type happening[D interface{ Encode() ([]byte, error) }, E any, P happen.Event[E], C course[E]] struct {
	kind   store.Kind
	decode func([]byte) (D, error)
	events func(*D) *[]E                                        // of a document that is whole
	open   func(context.Context, D) (C, error)                  // a document to which nothing happened yet
	before func(context.Context, *store.Tx, string, C, P) error // what it does elsewhere, kept together with it
	text   func(C) string

	k       *Kitchen
	running *lru.Cache[string, *running[C]]
}

// mostRunning is how many of a kind are kept folded (modelling choice: more than any kitchen has on the go).
const mostRunning = 64

// running is one that somebody looks at or works on. The course is only touched under mu, and only while it is read: what it
// says is its own.
type running[C any] struct {
	body string // of the document as it is kept
	mu   sync.Mutex
	last int64 // the last event that the course knows
	goes C
}

// eventful is a happening of whatever kind, for whoever keeps documents.
type eventful interface {
	whole(body []byte, rows []store.Event) ([]byte, error)
	apart(data []byte) (body []byte, rows []store.Event, err error)
	exported(ctx context.Context, d store.Document, as string) ([]byte, error)
	forget(id string)
}

func newHappening[D interface{ Encode() ([]byte, error) }, E any, P happen.Event[E], C course[E]](k *Kitchen, h happening[D, E, P, C]) *happening[D, E, P, C] {
	h.k, h.running = k, kept[string, *running[C]](mostRunning)
	return &h
}

// kept is a memory of so many, the last used ones.
func kept[K comparable, V any](most int) *lru.Cache[K, V] {
	c, err := lru.New[K, V](most)
	if err != nil {
		panic(err) // a size above zero is not refused
	}
	return c
}

// reader is the store, or a transaction on it.
type reader interface {
	Get(context.Context, store.Kind, string) (store.Document, error)
	Events(ctx context.Context, document string, after int64) ([]store.Event, error)
}

// look lets somebody see a document with all that happened to it by now. Nobody else does meanwhile, and what is seen is not
// kept: see reads from it and ends.
func (h *happening[D, E, P, C]) look(ctx context.Context, from reader, id string, see func(C) error) error {
	d, err := from.Get(ctx, h.kind, id)
	if err != nil {
		return err
	}
	return h.lookAt(ctx, from, d, see)
}

// lookAt is look at a document that was read already, on the shelf or not.
func (h *happening[D, E, P, C]) lookAt(ctx context.Context, from reader, d store.Document, see func(C) error) error {
	r, ok := h.running.Get(d.ID)
	if !ok || r.body != string(d.Body) {
		doc, err := h.decode(d.Body)
		if err != nil {
			return err
		}
		r = &running[C]{body: string(d.Body)}
		if r.goes, err = h.open(ctx, doc); err != nil {
			return err
		}
		h.running.Add(d.ID, r)
	}
	r.mu.Lock()
	last := r.last
	r.mu.Unlock() // nobody waits for the disk while somebody looks
	rows, err := from.Events(ctx, d.ID, last)
	if err != nil {
		return err
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	for _, row := range rows {
		if row.Seq <= r.last { // somebody else read it meanwhile
			continue
		}
		r.last = row.Seq
		if e, ok := h.event(row); ok {
			r.goes.Take(e)
		}
	}
	return see(r.goes)
}

// keep remembers a document that was opened just now.
func (h *happening[D, E, P, C]) keep(id string, body []byte, goes C) {
	h.running.Add(id, &running[C]{body: string(body), goes: goes})
}

func (h *happening[D, E, P, C]) forget(id string) { h.running.Remove(id) }

// event is a kept event; one that cannot be read is left out, and the rest stands.
func (h *happening[D, E, P, C]) event(row store.Event) (e E, ok bool) {
	if err := document.Strict(row.Body, &e); err != nil {
		h.k.log.Warn("an event cannot be read", "event", row.ID, "err", err)
		return e, false
	}
	return e, true
}

// decoded are kept events that can be read.
func (h *happening[D, E, P, C]) decoded(rows []store.Event) []E {
	var out []E
	for _, row := range rows {
		if e, ok := h.event(row); ok {
			out = append(out, e)
		}
	}
	return out
}

// ErrFull says that something takes no more events.
var ErrFull = errors.New("too much happened to this one; begin another")

// tell adds an event to a document, stamped with the time at which it happened: it waited so long on its tablet. One that is
// there already changes nothing. With work, what the event brings along is worked out before anybody waits for it.
func (h *happening[D, E, P, C]) tell(ctx context.Context, id string, data []byte, waited time.Duration, work func(context.Context, P, C) (func() error, error)) (e E, err error) {
	var later func() error
	err = h.look(ctx, h.k.store, id, func(c C) (err error) {
		if e, err = c.read(data); err != nil || work == nil {
			return err
		}
		h.k.stamp(P(&e).Said(), waited, c.begun(), time.Time{})
		later, err = work(ctx, &e, c)
		return err
	})
	if err == nil && later != nil {
		err = later()
	}
	if err != nil {
		return e, err
	}
	err = h.k.store.Together(ctx, func(tx *store.Tx) error {
		return h.look(ctx, tx, id, func(c C) error {
			said := P(&e).Said()
			if c.Find(*said.ID) != nil {
				return nil
			}
			if len(c.Events()) >= document.MaxEvents {
				return ErrFull
			}
			h.k.stamp(said, waited, c.begun(), c.Earliest(e))
			if err := h.before(ctx, tx, id, c, &e); err != nil {
				return err
			}
			body, err := document.EncodeEvent[E, P](&e)
			if err != nil {
				return err
			}
			_, err = tx.AddEvent(ctx, id, store.Event{ID: *said.ID, At: *said.At, Body: body})
			return err
		})
	})
	if err == nil {
		h.k.watchers.told(id)
	}
	return e, err
}

// stamp says of an event when it happened that waited so long before it landed now: not before its document was begun, not
// before what it needs, not after now; and how long that is before now.
func (k *Kitchen) stamp(said happen.Said, waited time.Duration, began, earliest time.Time) {
	landed := k.now().UTC().Truncate(time.Millisecond)
	at := landed.Add(-max(0, waited)).Truncate(time.Millisecond)
	at = happen.Later(at, happen.Later(began, earliest))
	if at.After(landed) { // the clock was set back since
		at = landed
	}
	*said.At, *said.WaitedMS = at, landed.Sub(at).Milliseconds()
}

// whole is a kept document together with what happened to it. One that cannot be read goes as it is.
func (h *happening[D, E, P, C]) whole(body []byte, rows []store.Event) ([]byte, error) {
	doc, err := h.decode(body)
	if err != nil {
		return body, nil
	}
	*h.events(&doc) = h.decoded(rows)
	return doc.Encode()
}

// apart is a document without what happened to it, and that as it is kept.
func (h *happening[D, E, P, C]) apart(data []byte) (body []byte, rows []store.Event, err error) {
	doc, err := h.decode(data)
	if err != nil {
		return nil, nil, err
	}
	all := h.events(&doc)
	for _, e := range *all {
		text, err := document.EncodeEvent[E, P](&e)
		if err != nil {
			return nil, nil, err
		}
		said := P(&e).Said()
		rows = append(rows, store.Event{ID: *said.ID, At: *said.At, Body: text})
	}
	*all = nil
	body, err = doc.Encode()
	return body, rows, err
}

// exported is a document with everything that happened, or in a few lines of text.
func (h *happening[D, E, P, C]) exported(ctx context.Context, d store.Document, as string) (out []byte, err error) {
	if as == "json" {
		rows, err := h.k.store.Events(ctx, d.ID, 0)
		if err != nil {
			return nil, err
		}
		return h.whole(d.Body, rows)
	}
	err = h.lookAt(ctx, h.k.store, d, func(c C) error {
		out = []byte(h.text(c))
		return nil
	})
	return out, err
}
