package happen

// Row is a kind of event, and what it has to say to mean anything.
type Row[E any] struct {
	Kind  Kind
	Needs []Need[E]
}

// Need is something that an event has to say.
type Need[E any] struct {
	Field    string // as it is written
	Has      func(E) bool
	Sentence string // to whoever left it out
}

// Bound is what a figure of an event lies within, of whatever kind the event is. Both ends are included.
type Bound[E any] struct {
	Field     string // as it is written
	Of        func(E) *float64
	Low, High float64
	What      string // "A weight in g"
}

// Rows are the kinds of a thing's events.
type Rows[E any] []Row[E]

// Kinds lists them.
func (r Rows[E]) Kinds() []Kind {
	out := make([]Kind, len(r))
	for i, row := range r {
		out[i] = row.Kind
	}
	return out
}

// Missing is what an event of a kind should have said and did not; known is false for a kind that is none of them.
func (r Rows[E]) Missing(kind Kind, e E) (missing []Need[E], known bool) {
	for _, row := range r {
		if row.Kind != kind {
			continue
		}
		for _, n := range row.Needs {
			if !n.Has(e) {
				missing = append(missing, n)
			}
		}
		return missing, true
	}
	return nil, false
}

// Means tells whether an event of a kind says all that it needs to mean anything.
func (r Rows[E]) Means(kind Kind, e E) bool {
	missing, known := r.Missing(kind, e)
	return known && len(missing) == 0
}
