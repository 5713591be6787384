package batter

// Cooking is what a cook wants of the plate; the zero value leaves all of it to the advice.
type Cooking struct {
	On       string  // id of the plate or iron; empty for the first that suits the form
	PlateC   float64 // °C that the plate stands at; 0 to be advised
	Colour   Colour
	From     From
	Fat      Fat
	When     When
	HotStart bool // hot for the first moments, then lower
	Lacy     bool // a crisp, lacy edge
}

// Colour is what a face turns.
type Colour string

// The colours.
const (
	Pale   Colour = "pale"
	Golden Colour = "golden"
	Deep   Colour = "deep"
	Burnt  Colour = "burnt"
)

// Colours are those that can be wished for.
var Colours = []Colour{Pale, Golden, Deep}

// From is where the batter comes from when it is cooked.
type From string

// The places.
const (
	FromCounter From = "counter"
	FromFridge  From = "fridge"
)

// Froms lists them.
var Froms = []From{FromCounter, FromFridge}

// StartC is how warm such a batter is [°C] (common practice, no source).
func (f From) StartC() float64 {
	if f == FromFridge {
		return 6
	}
	return 21
}

// Fat is what goes on the plate.
type Fat string

// The fats.
const (
	Film   Fat = "film" // of oil, wiped or sprayed: the most even colour
	Butter Fat = "butter"
	Oil    Fat = "oil"
	Both   Fat = "both" // oil with butter, so that the butter burns later
	NoFat  Fat = "none" // a plate that needs none
)

// Fats lists them.
var Fats = []Fat{Film, Butter, Oil, Both, NoFat}

// When is how often the plate is greased.
type When string

// The times.
const (
	EachLoad  When = "each"
	FirstOnly When = "first" // before the first load
	AtFlip    When = "flip"  // each load, and again when it is flipped
	OnCooked  When = "top"   // brushed on the cooked one
)

// Whens lists them.
var Whens = []When{EachLoad, FirstOnly, AtFlip, OnCooked}

// Dial is what stands on a plate's knob.
type Dial string

// The dials; none is a thermometer, or nobody said.
const (
	Words   Dial = "words"   // low to high
	Numbers Dial = "numbers" // 1 to 9
	Gas     Dial = "gas"     // a flame
)

// Dials lists them.
var Dials = []Dial{Words, Numbers, Gas}

// Mark is what a place on a dial gives: its place among the dial's marks, from 0, and the plate in
// °C there.
type Mark struct{ At, C float64 }
