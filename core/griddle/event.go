package griddle

import (
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/happen"
)

// EventKind is what happened.
type EventKind = happen.Kind

// What can happen.
const (
	PutOn    EventKind = "put_on"        // a bowl, on Plate: Batch; Bowl is what it asks
	SwitchOn EventKind = "on"            // Plate
	IsHot    EventKind = "hot"           // Plate
	Greased  EventKind = "greased"       // Plate
	Wiped    EventKind = "wiped"         // Plate, between two bowls
	Turned   EventKind = "turned"        // Plate, to C or Mark: a step of the heat
	Uses     EventKind = "uses"          // Plate, so many places of it: Count
	Poured   EventKind = "poured"        // Plate, Place
	Placed   EventKind = "placed"        // Portion
	Flipped  EventKind = "flipped"       // Portion
	Lifted   EventKind = "lifted"        // Portion; To
	Judged   EventKind = "judged"        // Of, Verdict; Bowl is what the bowl asks now
	Stirred  EventKind = "stirred"       // Of: what the verdict asked for
	Ended    EventKind = "ended"         // Of: no more of this bowl is poured
	Oven     EventKind = "oven"          // it is on, or off: Off
	Probed   EventKind = "probed"        // C of the food in the oven
	Served   EventKind = "served"        // Tray, Count
	Thrown   EventKind = "thrown"        // Tray, Count
	Frozen   EventKind = "frozen"        // Tray, Count: they lie flat in the freezer
	Bagged   EventKind = "bagged"        // Tray: what lay flat, Count in a pack
	Stopped  EventKind = "stopped"       // no more is poured at all
	Closed   EventKind = "closed"        // the board is put away
	TookBack           = happen.TookBack // Undoes
)

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
	Mark     string    `json:"mark,omitzero"` // of a dial
	Off      bool      `json:"off,omitzero"`
	Undoes   string    `json:"undoes,omitzero"`
	Bowl     *Bowl     `json:"bowl,omitzero"`  // by the program
	Packs    []string  `json:"packs,omitzero"` // that it made, by the program

	Also map[string]Bowl `json:"also,omitzero"` // what the bowls that follow on the same plate ask now, by the program
}

// Said is what every event says.
func (e *Event) Said() happen.Said {
	return happen.Said{ID: &e.ID, Kind: e.Kind, At: &e.At, WaitedMS: &e.WaitedMS, Undoes: e.Undoes}
}

func need(field string, has func(Event) bool, sentence string) []happen.Need[Event] {
	return []happen.Need[Event]{{Field: field, Has: has, Sentence: sentence}}
}

var (
	onPlate   = need("plate", func(e Event) bool { return e.Plate != "" }, "Say which plate or iron.")
	ofBatch   = need("batch", func(e Event) bool { return e.Batch != "" }, "Say which bowl it is.")
	ofPortion = need("portion", func(e Event) bool { return e.Portion != "" }, "Say which portion, by the event that poured it.")
	ofBowl    = need("of", func(e Event) bool { return e.Of != "" }, "Say which bowl of the board.")
	ofTray    = need("tray", func(e Event) bool { return e.Tray != "" }, "Say which tray.")
	toHeat    = need("c", func(e Event) bool { return e.C != nil || e.Mark != "" }, "Say what the plate was turned to.")
	byProbe   = need("c", func(e Event) bool { return e.C != nil }, "Say what the probe reads.")
	ofEvent   = need("undoes", func(e Event) bool { return e.Undoes != "" }, "Say which event is taken back.")
)

// Rows are what can happen at a board.
var Rows = happen.Rows[Event]{
	{Kind: PutOn, Needs: append(onPlate[:1:1], ofBatch...)},
	{Kind: SwitchOn, Needs: onPlate}, {Kind: IsHot, Needs: onPlate}, {Kind: Greased, Needs: onPlate}, {Kind: Wiped, Needs: onPlate},
	{Kind: Turned, Needs: append(onPlate[:1:1], toHeat...)}, {Kind: Uses, Needs: onPlate}, {Kind: Poured, Needs: onPlate},
	{Kind: Placed, Needs: ofPortion}, {Kind: Flipped, Needs: ofPortion}, {Kind: Lifted, Needs: ofPortion},
	{Kind: Judged, Needs: ofBowl}, {Kind: Stirred, Needs: ofBowl}, {Kind: Ended, Needs: ofBowl},
	{Kind: Oven}, {Kind: Probed, Needs: byProbe},
	{Kind: Served, Needs: ofTray}, {Kind: Thrown, Needs: ofTray}, {Kind: Frozen, Needs: ofTray}, {Kind: Bagged, Needs: ofTray},
	{Kind: Stopped}, {Kind: Closed}, {Kind: TookBack, Needs: ofEvent},
}

// MostPieces is the most that is counted at a board (modelling choice).
const MostPieces = 500

// Bounds are what the figures of an event lie within (modelling choices).
var Bounds = []happen.Bound[Event]{
	{Field: "count", Of: func(e Event) *float64 { return float(e.Count) }, High: MostPieces, What: "A count"},
	{Field: "place", Of: func(e Event) *float64 { return float(e.Place) }, High: MostPieces, What: "The number of a place"},
	{Field: "c", Of: func(e Event) *float64 { return only(e.Kind != Turned, e.C) }, Low: -30, High: 150, What: "What a probe in food reads, in °C,"},
	{Field: "c", Of: func(e Event) *float64 { return only(e.Kind == Turned, e.C) }, Low: batter.HeatReach.Low, High: batter.HeatReach.High, What: "What a plate is turned to, in °C,"},
}

// only is a figure where it means that; nil elsewhere.
func only(means bool, v *float64) *float64 {
	if !means {
		return nil
	}
	return v
}

func float(n int) *float64 {
	v := float64(n)
	return &v
}
