package house

import (
	"net/netip"
	"time"
)

// How wrong passcodes are met (modelling choices; NIST SP 800-63B wants at most 100 in a row
// before the next one is refused).
const (
	freeMisses  = 5           // slips of the finger in a row from one address
	firstLock   = time.Minute // then; it doubles with every further one
	longestLock = time.Hour
	forgetAfter = 24 * time.Hour
	mostAnHour  = 100 // from all addresses together; whoever is in stays in
)

// wrong is what one address has missed in a row.
type wrong struct {
	misses int
	last   time.Time
	until  time.Time
}

// tries counts wrong passcodes by address. It is not safe for concurrent use.
type tries struct {
	from   map[netip.Prefix]*wrong
	recent []time.Time // of the last hour, from anywhere
}

// NetOf is what counts as one address: one of the old kind, a household's 64 bits of the new.
func NetOf(a netip.Addr) netip.Prefix {
	bits := 32
	if a = a.Unmap(); !a.Is4() {
		bits = 64
	}
	p, _ := a.WithZone("").Prefix(bits) // the zero prefix for no address
	return p
}

// wait is how long an address has to wait before it may try again; 0 when it may.
func (t *tries) wait(from netip.Addr, now time.Time) time.Duration {
	t.forget(now)
	var wait time.Duration
	if w := t.from[NetOf(from)]; w != nil {
		wait = w.until.Sub(now)
	}
	if len(t.recent) >= mostAnHour {
		wait = max(wait, t.recent[0].Add(time.Hour).Sub(now))
	}
	return max(0, wait)
}

// missed counts a wrong one.
func (t *tries) missed(from netip.Addr, now time.Time) {
	w := t.from[NetOf(from)]
	if w == nil {
		w = &wrong{}
		t.from[NetOf(from)] = w
	}
	w.misses++
	w.last = now
	if over := w.misses - freeMisses; over >= 0 {
		w.until = now.Add(min(longestLock, firstLock<<min(over, 10)))
	}
	t.recent = append(t.recent, now)
}

// met forgets an address that gave the right one.
func (t *tries) met(from netip.Addr) { delete(t.from, NetOf(from)) }

func (t *tries) forget(now time.Time) {
	for len(t.recent) > 0 && now.Sub(t.recent[0]) >= time.Hour {
		t.recent = t.recent[1:]
	}
	for p, w := range t.from {
		if now.Sub(w.last) >= forgetAfter {
			delete(t.from, p)
		}
	}
}
