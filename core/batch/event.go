package batch

import "time"

// EventKind is what happened.
type EventKind string

// What can happen.
const (
	Weighed    EventKind = "weighed"     // Task, Grams; Adds on top of what is there
	Filled     EventKind = "filled"      // Task, Fills of it are in, Extra too many
	Done       EventKind = "done"        // Task
	Skipped    EventKind = "skipped"     // Task: left out, or not waited for
	Chose      EventKind = "chose"       // Task, Choice
	Spilled    EventKind = "spilled"     // Bowl, Grams
	Tested     EventKind = "tested"      // VolumeML and DiameterMM, or Says
	StirredIn  EventKind = "stirred_in"  // Grams of the liquid
	IntoFridge EventKind = "into_fridge" //
	OutFridge  EventKind = "out_of_fridge"
	Made       EventKind = "made"      // the batch is done
	TookBack   EventKind = "took_back" // Undoes
)

// EventKinds lists them.
var EventKinds = []EventKind{Weighed, Filled, Done, Skipped, Chose, Spilled, Tested, StirredIn, IntoFridge, OutFridge, Made, TookBack}

// Choice is what a cook takes of the ways out.
type Choice string

// The ways out.
const (
	SpoonOut Choice = "spoon_out" // the scale counts down
	ScaleUp  Choice = "scale_up"  // the rest follows
	ToJug    Choice = "to_jug"    // what is too much waits for the test
	Leave    Choice = "leave"
	TopUp    Choice = "top_up" // of what was spilt
)

// Choices lists them.
var Choices = []Choice{SpoonOut, ScaleUp, ToJug, Leave, TopUp}

// Event is one thing that happened. The tablet names it, so that it counts once however often it
// arrives; the program stamps the time at which it happened, and how long it waited on its tablet before it landed. Knew is how many events the tablet had seen: two ticks of the
// same task that did not know of each other are one.
type Event struct {
	ID         string    `json:"id"`
	At         time.Time `json:"at"`
	WaitedMS   int64     `json:"waited_ms,omitzero"` // it landed so much later
	Kind       EventKind `json:"kind"`
	Knew       int       `json:"knew,omitzero"`
	Task       string    `json:"task,omitzero"`
	Bowl       string    `json:"bowl,omitzero"`
	Grams      *float64  `json:"grams,omitzero"`
	Adds       bool      `json:"adds,omitzero"`
	Taste      bool      `json:"taste,omitzero"` // as much as tasted right, not as much as was asked
	Fills      *int      `json:"fills,omitzero"`
	Extra      int       `json:"extra,omitzero"`
	Heaped     bool      `json:"heaped,omitzero"` // the last of the fills, not level
	Choice     Choice    `json:"choice,omitzero"`
	VolumeML   *float64  `json:"volume_ml,omitzero"`
	DiameterMM *float64  `json:"diameter_mm,omitzero"`
	Says       string    `json:"says,omitzero"`
	Undoes     string    `json:"undoes,omitzero"`
	Took       []Take    `json:"took,omitzero"` // of the stock, when it was made
}

// Take is what a batch took of an item of the pantry [g].
type Take struct {
	Item  string  `json:"item"`
	Grams float64 `json:"grams"`
}
