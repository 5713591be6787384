package kitchen

import (
	"time"

	"upbeatladle/core/batch"
	"upbeatladle/core/griddle"
	"upbeatladle/document"
	"upbeatladle/store"
)

// decoded are kept events of a batch or a board; one that cannot be read is left out, and the rest stands.
func decoded[E batch.Event | griddle.Event](k *Kitchen, rows []store.Event) []E {
	out := make([]E, 0, len(rows))
	for _, r := range rows {
		var e E
		if err := document.Strict(r.Body, &e); err != nil {
			k.log.Warn("an event cannot be read", "event", r.ID, "err", err)
			continue
		}
		out = append(out, e)
	}
	return out
}

// stamp is when something happened that waited so long before it landed now: not before its document was begun, not before
// what it needs, not after now; and how long that is before now.
func (k *Kitchen) stamp(waited time.Duration, began, earliest time.Time) (at time.Time, waitedMS int64) {
	landed := k.now().UTC().Truncate(time.Millisecond)
	at = landed.Add(-max(0, waited)).Truncate(time.Millisecond)
	for _, from := range []time.Time{began, earliest} {
		if at.Before(from) {
			at = from
		}
	}
	if at.After(landed) { // the clock was set back since
		at = landed
	}
	return at, landed.Sub(at).Milliseconds()
}

// rowsOf are events as they are kept; named tells their id and their time.
func rowsOf[E batch.Event | griddle.Event](events []E, named func(E) (string, time.Time)) ([]store.Event, error) {
	var rows []store.Event
	for _, e := range events {
		text, err := document.EncodeEvent(e)
		if err != nil {
			return nil, err
		}
		id, at := named(e)
		rows = append(rows, store.Event{ID: id, At: at, Body: text})
	}
	return rows, nil
}
