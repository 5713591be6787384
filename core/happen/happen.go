// Package happen is what things have in common to which events happen: a bowl that is made, a morning at the plates.
// What happened is a row of events that only grows; how a thing stands is folded from it, one event at a time.
package happen

import "time"

// Kind is what happened.
type Kind string

// TookBack is of every thing: what it names has not happened.
const TookBack Kind = "took_back"

// Said is what every event says, whatever it happens to: the tablet names it, so that it counts once however often it
// arrives; the program stamps when it happened, and how long it waited on its tablet before it landed.
type Said struct {
	ID       *string
	Kind     Kind
	At       *time.Time
	WaitedMS *int64
	Undoes   string // another event
}

// Waited is how long it waited on its tablet.
func (s Said) Waited() time.Duration { return time.Duration(max(0, *s.WaitedMS)) * time.Millisecond }

// Event is one thing that happened, by its pointer.
type Event[E any] interface {
	*E
	Said() Said
}

// Later is the later of two moments.
func Later(a, b time.Time) time.Time {
	if b.After(a) {
		return b
	}
	return a
}

// Story is a row of events with what they are folded into, an F. What lands late, or twice, or is taken back, comes out
// as it does when all of it is folded at once. It is not safe for concurrent use.
type Story[E any, P Event[E], F any] struct {
	begin func() F
	take  func(f F, n int, e E, counts bool) // every event, from 0; one that was taken back, or takes back, or came twice does not count

	fold   F
	events []E
	seen   map[string]bool
	undone map[string]bool
}

// Begin is a story in which nothing happened yet. An F is a pointer, or what holds one.
func Begin[E any, P Event[E], F any](begin func() F, take func(f F, n int, e E, counts bool)) *Story[E, P, F] {
	return &Story[E, P, F]{begin: begin, take: take, fold: begin(), seen: map[string]bool{}, undone: map[string]bool{}}
}

// Take adds what happened next. Taking back folds what is left anew.
func (s *Story[E, P, F]) Take(e E) {
	s.events = append(s.events, e)
	if said := P(&e).Said(); said.Kind == TookBack && !s.undone[said.Undoes] {
		s.undone[said.Undoes] = true
		if s.seen[said.Undoes] {
			s.fold = s.begin()
			clear(s.seen)
			for n, e := range s.events {
				s.next(n, e)
			}
			return
		}
	}
	s.next(len(s.events)-1, e)
}

func (s *Story[E, P, F]) next(n int, e E) {
	said := P(&e).Said()
	id := *said.ID
	counts := said.Kind != TookBack && !s.seen[id] && !s.undone[id]
	if said.Kind != TookBack {
		s.seen[id] = true
	}
	s.take(s.fold, n, e, counts)
}

// Fold is what the events are folded into by now.
func (s *Story[E, P, F]) Fold() F { return s.fold }

// Events are what happened, in the order in which it landed: not to be changed.
func (s *Story[E, P, F]) Events() []E { return s.events }

// Find is an event by its name; nil when there is none.
func (s *Story[E, P, F]) Find(id string) *E {
	for i := range s.events {
		if *P(&s.events[i]).Said().ID == id {
			return &s.events[i]
		}
	}
	return nil
}

// TookBack tells whether an event was taken back.
func (s *Story[E, P, F]) TookBack(id string) bool { return s.undone[id] }
