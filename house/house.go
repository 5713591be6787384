// Package house is who may come in from other tablets: the passcode, the tablets that gave it,
// links for guests, and the certificate that the tablets know the house by. It knows no HTTP.
package house

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/base64"
	"errors"
	"net/netip"
	"strings"
	"sync"
	"time"
	"unicode/utf8"

	"github.com/google/uuid"

	"upbeatladle/store"
)

// How long a tablet stays in (modelling choices: a week away from the kitchen is a lost tablet or
// a holiday; a month is often enough to be asked again), and how often it is noted as seen.
const (
	idleFor   = 7 * 24 * time.Hour
	inFor     = 30 * 24 * time.Hour
	noteSeen  = time.Hour
	longName  = 60 // letters of a tablet's name
	tokenSize = 32 // bytes, from the system's source of randomness
)

// GuestDays is how long a link may open its card [days] (modelling choice).
const GuestDays = 30

// Errors that callers tell apart with errors.Is.
var (
	ErrWrong   = errors.New("that is not the passcode")
	ErrOutside = errors.New("this tablet is not signed in")
)

// LockedError says that too many wrong passcodes were given, and how long to wait.
type LockedError struct{ Wait time.Duration }

func (e *LockedError) Error() string {
	return "too many wrong passcodes: wait " + e.Wait.Round(time.Second).String()
}

// House is one kitchen's door. It is safe for concurrent use.
type House struct {
	Work Work // of a guess, Costly unless a test sets it before the door is used

	store *store.Store
	now   func() time.Time

	mu    sync.Mutex // one passcode is tried at a time: the hash takes memory, and a guess must count before the next
	tries tries

	known known
}

// known are the addresses that tablets which are in come from.
type known struct {
	mu   sync.RWMutex
	seen map[netip.Prefix]time.Time
}

// mostKnown is how many addresses are remembered (modelling choice: far more tablets than a house has).
const mostKnown = 1024

// Meet notes that a tablet that is in came from an address.
func (h *House) Meet(from netip.Addr) {
	at, now := NetOf(from), h.now()
	k := &h.known
	k.mu.RLock()
	fresh := now.Sub(k.seen[at]) < time.Minute
	k.mu.RUnlock()
	if fresh {
		return
	}
	k.mu.Lock()
	defer k.mu.Unlock()
	for a, t := range k.seen {
		if now.Sub(t) >= idleFor {
			delete(k.seen, a)
		}
	}
	if len(k.seen) < mostKnown || !k.seen[at].IsZero() {
		k.seen[at] = now
	}
}

// Knows tells whether a tablet that is in came from an address, since the program was started.
func (h *House) Knows(from netip.Addr) bool {
	h.known.mu.RLock()
	defer h.known.mu.RUnlock()
	seen, ok := h.known.seen[NetOf(from)]
	return ok && h.now().Sub(seen) < idleFor
}

// New returns the door of a store.
func New(st *store.Store, now func() time.Time) *House {
	return &House{Work: Costly, store: st, now: now, tries: tries{from: map[netip.Prefix]*wrong{}}, known: known{seen: map[netip.Prefix]time.Time{}}}
}

// Begin sets a passcode of four words when there is none, and returns it; empty when there was one.
func (h *House) Begin(ctx context.Context) (passcode string, err error) {
	had, err := h.store.Passcode(ctx)
	if err != nil || had != "" {
		return "", err
	}
	passcode = fourWords()
	return passcode, h.store.SetPasscode(ctx, h.Work.hashed(passcode), "")
}

// Set sets a passcode of a kitchen without asking for the one before; every tablet is signed out.
func (h *House) Set(ctx context.Context, passcode, kitchen string) error {
	if err := fit(passcode, kitchen); err != nil {
		return err
	}
	return h.store.SetPasscode(ctx, h.Work.hashed(passcode), "")
}

// Change sets another passcode of a kitchen for whoever is in and knows the one before; every other tablet is signed out. However many
// wrong ones were given elsewhere, who is in is not locked out of it.
func (h *House) Change(ctx context.Context, from netip.Addr, tablet, passcode, next, kitchen string) error {
	if err := fit(next, kitchen); err != nil {
		return err
	}
	if err := h.try(ctx, from, passcode, tablet != ""); err != nil {
		return err
	}
	return h.store.SetPasscode(ctx, h.Work.hashed(next), tablet)
}

// try compares a passcode with the one that is set. Wrong ones count against the address; who is in, or comes from where a tablet is
// in, is never locked out: the work of a guess alone slows it down.
func (h *House) try(ctx context.Context, from netip.Addr, passcode string, inside bool) error {
	h.mu.Lock()
	defer h.mu.Unlock()
	now := h.now()
	free := inside || h.Knows(from)
	if wait := h.tries.wait(from, now); wait > 0 && !free {
		return &LockedError{wait}
	}
	kept, err := h.store.Passcode(ctx)
	if err != nil {
		return err
	}
	if !matches(kept, passcode) {
		h.tries.missed(from, now)
		if wait := h.tries.wait(from, now); wait > 0 && !free {
			return &LockedError{wait}
		}
		return ErrWrong
	}
	h.tries.met(from)
	return nil
}

// SignIn lets a tablet in that gives the passcode. The token is the tablet's alone; the house
// keeps its hash.
func (h *House) SignIn(ctx context.Context, from netip.Addr, passcode, name string) (token string, t store.Tablet, err error) {
	if err := h.try(ctx, from, passcode, false); err != nil {
		return "", t, err
	}
	token = newToken()
	now := h.now()
	t = store.Tablet{ID: newID(), Name: called(name), Since: now, Seen: now, Until: now.Add(idleFor)}
	h.Meet(from)
	return token, t, h.store.AddTablet(ctx, t, hashOf(token))
}

// Who returns the tablet that a token belongs to, or ErrOutside. Being seen keeps it in for
// another while, up to a month after it came in.
func (h *House) Who(ctx context.Context, token string) (store.Tablet, error) {
	if token == "" {
		return store.Tablet{}, ErrOutside
	}
	t, err := h.store.TabletOf(ctx, hashOf(token))
	now := h.now()
	switch {
	case errors.Is(err, store.ErrNotFound):
		return t, ErrOutside
	case err != nil:
		return t, err
	case !now.Before(t.Until):
		return t, ErrOutside
	case now.Sub(t.Seen) >= noteSeen:
		t.Seen, t.Until = now, now.Add(idleFor)
		if last := t.Since.Add(inFor); last.Before(t.Until) {
			t.Until = last
		}
		return t, h.store.SeeTablet(ctx, t.ID, t.Seen, t.Until)
	}
	return t, nil
}

// InFor is how long a tablet stays in at most.
func InFor() time.Duration { return inFor }

// Tablets lists those that are in.
func (h *House) Tablets(ctx context.Context) ([]store.Tablet, error) { return h.store.Tablets(ctx) }

// SignOut signs a tablet out; nothing that it kept opens the door again.
func (h *House) SignOut(ctx context.Context, id string) error { return h.store.EndTablet(ctx, id) }

// Invite makes a link to one card, for as many days. The token stands in the link alone.
func (h *House) Invite(ctx context.Context, card string, days int) (token string, g store.Guest, err error) {
	token = newToken()
	now := h.now()
	g = store.Guest{ID: newID(), Card: card, Made: now, Until: now.AddDate(0, 0, days)}
	return token, g, h.store.AddGuest(ctx, g, hashOf(token))
}

// Guest returns what a link opens, or store.ErrNotFound.
func (h *House) Guest(ctx context.Context, token string) (store.Guest, error) {
	g, err := h.store.GuestOf(ctx, hashOf(token))
	if err == nil && !h.now().Before(g.Until) {
		err = store.ErrNotFound
	}
	return g, err
}

// Guests lists the links that still open a card.
func (h *House) Guests(ctx context.Context) ([]store.Guest, error) { return h.store.Guests(ctx) }

// TakeBack takes a link back.
func (h *House) TakeBack(ctx context.Context, id string) error { return h.store.EndGuest(ctx, id) }

func newToken() string {
	b := make([]byte, tokenSize)
	_, _ = rand.Read(b) // never fails
	return base64.RawURLEncoding.EncodeToString(b)
}

// hashOf is what is kept of a token. Its 256 random bits need no slow hash.
func hashOf(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

func newID() string { return uuid.NewString() }

// called is the name of a tablet as it is shown: one line, not too long.
func called(name string) string {
	name = strings.Join(strings.Fields(name), " ")
	if name == "" {
		return "A tablet"
	}
	for utf8.RuneCountInString(name) > longName {
		_, size := utf8.DecodeLastRuneInString(name)
		name = name[:len(name)-size]
	}
	return name
}
