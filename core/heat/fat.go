package heat

import (
	"math"

	"upbeatladle/core/batter"
)

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
	FirstOnly When = "first" // before the first load
	EachLoad  When = "each"
	AtFlip    When = "flip"  // each load, and again when it is flipped
	OnTop     When = "top"   // brushed on the cooked one
)

// Whens lists them.
var Whens = []When{EachLoad, FirstOnly, AtFlip, OnTop}

// Fat for each cm² of plate under a portion [g] (common practice, no source: a film on a 28 cm pan
// is about half a teaspoon wiped, a knob of butter a teaspoon).
const (
	filmG   = 0.0035
	spreadG = 0.008
	lacyG   = 0.020 // for an edge that fries crisp
	ironG   = 0.006 // both plates of an iron
)

// ButterBurnsC is the plate's temperature above which butter alone darkens while a side cooks
// (its solids brown from about 150 °C on; common practice, no source).
const ButterBurnsC = 175.0

// PerPortion is the fat in g that a portion of an area in cm² takes, of loads portions to a load
// and count in all.
func (f Fat) PerPortion(form batter.Form, when When, areaCM2 float64, lacy bool, loads, count int) float64 {
	per := spreadG
	switch {
	case f == NoFat || areaCM2 <= 0:
		return 0
	case f == Film:
		per = filmG
	case lacy:
		per = lacyG
	}
	if form == batter.Waffle {
		per = ironG
		if f == Film {
			per = filmG
		}
	}
	g := per * areaCM2
	switch {
	case when == FirstOnly && count > 0 && loads > 0:
		return g * math.Min(1, float64(loads)/float64(count)) // shared out over all of them
	case when == AtFlip:
		return 2 * g
	}
	return g
}
