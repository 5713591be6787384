package griddle

import "time"

// EventKind is what happened.
type EventKind string

// What can happen.
const (
	PutOn    EventKind = "put_on"    // a bowl, on Plate: Batch; Bowl is what it asks
	SwitchOn EventKind = "on"        // Plate
	IsHot    EventKind = "hot"       // Plate
	Greased  EventKind = "greased"   // Plate
	Wiped    EventKind = "wiped"     // Plate, between two bowls
	Uses     EventKind = "uses"      // Plate, so many places of it: Count
	Poured   EventKind = "poured"    // Plate, Place
	Placed   EventKind = "placed"    // Portion
	Flipped  EventKind = "flipped"   // Portion
	Lifted   EventKind = "lifted"    // Portion; To
	Judged   EventKind = "judged"    // Of, Verdict; Bowl is what the bowl asks now
	Stirred  EventKind = "stirred"   // Of: what the verdict asked for
	Ended    EventKind = "ended"     // Of: no more of this bowl is poured
	Oven     EventKind = "oven"      // it is on, or off: Off
	Probed   EventKind = "probed"    // C of the food in the oven
	Served   EventKind = "served"    // Tray, Count
	Thrown   EventKind = "thrown"    // Tray, Count
	Frozen   EventKind = "frozen"    // Tray, Count: they lie flat in the freezer
	Bagged   EventKind = "bagged"    // Tray: what lay flat, Count in a pack
	Stopped  EventKind = "stopped"   // no more is poured at all
	Closed   EventKind = "closed"    // the board is put away
	TookBack EventKind = "took_back" // Undoes
)

// EventKinds lists them.
var EventKinds = []EventKind{PutOn, SwitchOn, IsHot, Greased, Wiped, Uses, Poured, Placed, Flipped, Lifted, Judged, Stirred, Ended, Oven, Probed, Served, Thrown, Frozen, Bagged, Stopped, Closed, TookBack}

// Where what is lifted goes.
const (
	ToRack  = ""
	ToGuest = "guest"
	ToBin   = "bin"
)

// Event is one thing that happened. The tablet names it, so that it counts once however often it arrives; the
// program stamps the time at which it happened, and how long it waited on its tablet before it landed. A portion is named by the event that poured it, a bowl by the one that put it on, a tray
// by the one that lifted its first: so a tick for what somebody else has moved on already changes nothing.
type Event struct {
	ID       string    `json:"id"`
	At       time.Time `json:"at"`
	WaitedMS int64     `json:"waited_ms,omitzero"` // it landed so much later
	Kind     EventKind `json:"kind"`
	Plate    string    `json:"plate,omitzero"`
	Place    int       `json:"place,omitzero"` // from 1, on its plate
	Portion  string    `json:"portion,omitzero"`
	Of       string    `json:"of,omitzero"` // a bowl
	Batch    string    `json:"batch,omitzero"`
	Tray     string    `json:"tray,omitzero"`
	Count    int       `json:"count,omitzero"`
	Verdict  Verdict   `json:"verdict,omitzero"`
	To       string    `json:"to,omitzero"`
	C        *float64  `json:"c,omitzero"`
	Off      bool      `json:"off,omitzero"`
	Undoes   string    `json:"undoes,omitzero"`
	Bowl     *Bowl     `json:"bowl,omitzero"`  // by the program
	Packs    []string  `json:"packs,omitzero"` // that it made, by the program

	Also map[string]Bowl `json:"also,omitzero"` // what the bowls that follow on the same plate ask now, by the program
}
