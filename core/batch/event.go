package batch

import (
	"math"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/happen"
	"upbeatladle/core/mixing"
)

// EventKind is what happened.
type EventKind = happen.Kind

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
	Made       EventKind = "made"          // the batch is done
	TookBack             = happen.TookBack // Undoes
)

// Choice is what a cook takes of the ways out.
type Choice string

// The ways out.
const (
	SpoonOut Choice = "spoon_out" // the scale counts down
	HoldBack Choice = "hold_back" // of the liquid that is still to weigh
	ScaleUp  Choice = "scale_up"  // the rest follows
	ToJug    Choice = "to_jug"    // what is too much waits for the test
	Leave    Choice = "leave"
	TopUp    Choice = "top_up" // of what was spilt
)

// Choices lists them.
var Choices = []Choice{SpoonOut, HoldBack, ScaleUp, ToJug, Leave, TopUp}

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

// Said is what every event says.
func (e *Event) Said() happen.Said {
	return happen.Said{ID: &e.ID, Kind: e.Kind, At: &e.At, WaitedMS: &e.WaitedMS, Undoes: e.Undoes}
}

var (
	ofTask  = happen.Need[Event]{Field: "task", Has: func(e Event) bool { return e.Task != "" }, Sentence: "Say which task it is."}
	inGrams = happen.Need[Event]{Field: "grams", Has: func(e Event) bool { return e.Grams != nil }, Sentence: "Say how many grams."}
	inFills = happen.Need[Event]{Field: "fills", Has: func(e Event) bool { return e.Fills != nil }, Sentence: "Say how many cups or spoons are in."}
	way     = happen.Need[Event]{Field: "choice", Has: func(e Event) bool { return e.Choice != "" }, Sentence: "Say which way out."}
	gone    = happen.Need[Event]{Field: "bowl", Has: func(e Event) bool { return e.Grams != nil && e.Bowl != "" }, Sentence: "Say what of which bowl is gone: the bowl and about how many grams."}
	ran     = happen.Need[Event]{Field: "diameter_mm", Has: func(e Event) bool { return e.byRuler() != (e.Says != "") }, Sentence: "Tell the ladle in ml and how wide it ran (20 to 500 mm), or say how it ran: one of the two."}
	ofEvent = happen.Need[Event]{Field: "undoes", Has: func(e Event) bool { return e.Undoes != "" }, Sentence: "Say which event is taken back."}
)

// Rows are what can happen to a batch.
var Rows = happen.Rows[Event]{
	{Kind: Weighed, Needs: []happen.Need[Event]{inGrams, ofTask}}, {Kind: Filled, Needs: []happen.Need[Event]{inFills, ofTask}},
	{Kind: Done, Needs: []happen.Need[Event]{ofTask}}, {Kind: Skipped, Needs: []happen.Need[Event]{ofTask}},
	{Kind: Chose, Needs: []happen.Need[Event]{way, ofTask}}, {Kind: Spilled, Needs: []happen.Need[Event]{gone}},
	{Kind: Tested, Needs: []happen.Need[Event]{ran}}, {Kind: StirredIn, Needs: []happen.Need[Event]{inGrams}},
	{Kind: IntoFridge}, {Kind: OutFridge}, {Kind: Made}, {Kind: TookBack, Needs: []happen.Need[Event]{ofEvent}},
}

// Bounds of what is counted (modelling choice: beyond is a slip).
const mostFills = 1000

// Bounds are what the figures of an event lie within.
var Bounds = []happen.Bound[Event]{
	{Field: "grams", Of: func(e Event) *float64 { return e.Grams }, High: batter.MaxLineG, What: "A weight in g"},
	{Field: "volume_ml", Of: func(e Event) *float64 { return e.VolumeML }, High: mixing.MostTestML, What: "The ladle of the test, in ml,"},
	{Field: "diameter_mm", Of: func(e Event) *float64 { return e.DiameterMM }, High: mixing.MostTestMM, What: "How wide it ran, in mm,"},
	{Field: "fills", Of: func(e Event) *float64 { return float(e.Fills) }, High: mostFills, What: "The count of cups and spoons"},
	{Field: "extra", Of: func(e Event) *float64 { return float(&e.Extra) }, High: mostFills, What: "The count of cups and spoons too many"},
	{Field: "knew", Of: func(e Event) *float64 { return float(&e.Knew) }, High: math.MaxInt32, What: "What the tablet knew"},
}

func float(n *int) *float64 {
	if n == nil {
		return nil
	}
	v := float64(*n)
	return &v
}

// byRuler tells whether a test was measured.
func (e Event) byRuler() bool {
	return e.VolumeML != nil && *e.VolumeML >= mixing.LeastTestML && e.DiameterMM != nil && *e.DiameterMM >= mixing.LeastTestMM
}
