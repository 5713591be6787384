package document

import (
	"slices"
	"strconv"

	"upbeatladle/core/happen"
)

// Bounds of what happens to something (modelling choices: ten times what a long morning needs).
const (
	MaxEvents   = 5000
	maxEventID  = 64
	maxWaitedMS = 31 * 24 * 3600 * 1000 // a tablet that was away for a month
)

// checkHappened tells what is wrong with an event by the rows of its kind: its name, its times, what it left out, and
// figures that cannot be.
func checkHappened[E any, P happen.Event[E]](e P, rows happen.Rows[E], bounds []happen.Bound[E], what string) Problems {
	var p Problems
	said := e.Said()
	if *said.ID == "" || len(*said.ID) > maxEventID {
		p.Add("/id", "missing", "Name the event, so that it counts once: 1 to %d letters.", maxEventID)
	}
	if *said.WaitedMS < 0 || *said.WaitedMS > maxWaitedMS {
		p.Add("/waited_ms", "out_of_range", "What waits on a tablet waits from 0 ms to 31 days.")
	}
	checkTime(&p, "/at", *said.At)
	for _, b := range bounds {
		if v := b.Of(*e); v != nil && !(*v >= b.Low && *v <= b.High) {
			p.Add("/"+b.Field, "out_of_range", "%s must lie between %g and %g.", b.What, b.Low, b.High)
		}
	}
	missing, known := rows.Missing(said.Kind, *e)
	if !known {
		p.Add("/kind", "unknown_choice", "“%s” is not %s. Use one of %s.", clip(string(said.Kind)), what, words(rows.Kinds()))
	}
	for _, n := range missing {
		p.Add("/"+n.Field, "missing", "%s", n.Sentence)
	}
	return p
}

// checkChoice tells whether a word is one of a few, or none.
func checkChoice[C ~string](p *Problems, at string, said C, all []C, what string) {
	if said != "" && !slices.Contains(all, said) {
		p.Add(at, "unknown_choice", "“%s” is not %s. Use one of %s.", clip(string(said)), what, words(all))
	}
}

// checkEvents says what is wrong with the first event that cannot be.
func checkEvents[E any](p *Problems, events []E, what string, check func(E) Problems) {
	if len(events) > MaxEvents {
		p.Add("/events", "too_many", "A %s has at most %d events.", what, MaxEvents)
	}
	for i, e := range events {
		if q := check(e); len(q) > 0 {
			for _, one := range q {
				one.Pointer = "/events/" + strconv.Itoa(i) + one.Pointer
				*p = append(*p, one)
			}
			return
		}
	}
}

// EncodeEvent writes one event as it is kept.
func EncodeEvent[E any, P happen.Event[E]](e P) ([]byte, error) { return encode(e) }
