package batter

import (
	"math"
	"slices"
)

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
	Heat     []HeatStep
	Own      []OwnMinutes // one a plate or iron

	SaidMinutes float64 // a side, as the recipe claims; offered as the cook's own, never worked with
}

// HeatStep is where the cook wants the plate from a moment on: in °C, or by a mark of its dial.
type HeatStep struct {
	At   HeatAt
	C    float64
	Mark string
}

// HeatAt is a moment at which the plate is turned.
type HeatAt string

// The moments, in their order.
const (
	AtMixing HeatAt = "mixing"
	AtPour   HeatAt = "pour"
	AtTurn   HeatAt = "flip"
)

// HeatAts lists them.
var HeatAts = []HeatAt{AtMixing, AtPour, AtTurn}

// HeatFrom is what the cook wants at a moment, if anything.
func (c Cooking) HeatFrom(at HeatAt) (HeatStep, bool) {
	i := slices.IndexFunc(c.Heat, func(h HeatStep) bool { return h.At == at })
	if i < 0 {
		return HeatStep{}, false
	}
	return c.Heat[i], true
}

// Standing is the wishes for a plate that was moved to a heat: what was wanted at the pour gives way.
func (c Cooking) Standing(plateC float64) Cooking {
	c.PlateC = plateC
	c.Heat = slices.DeleteFunc(slices.Clone(c.Heat), func(h HeatStep) bool { return h.At == AtPour })
	return c
}

// OwnMinutes are the times that a cook has always used, on one plate or iron.
type OwnMinutes struct {
	On              string  // id of the plate or iron; empty in a kitchen that names none
	FirstS, SecondS float64 // s; in an iron the first is the time closed, and there is no second
	C               float64 // °C that the plate stood at; 0 where nobody said
	Mark            string  // of its dial, instead
	PouredMM        float64 // how thick the batter was poured; 0 where nobody said
	From            OwnFrom
	Day             string // on which they were taken over
}

// OwnFrom is where such times were taken from.
type OwnFrom string

// The sources.
const (
	OwnSaid  OwnFrom = "said" // by the recipe
	OwnTyped OwnFrom = "typed"
	OwnBoard OwnFrom = "board" // what the board saw, with a good verdict
)

// OwnFroms lists them.
var OwnFroms = []OwnFrom{OwnSaid, OwnTyped, OwnBoard}

// What the cook's own times hold for: so much of the poured thickness, and so many K of the plate (modelling choices).
const (
	OwnWithin  = 0.10
	OwnWithinK = 8.0
)

// Reach is between which figures a cook chooses, and by what step of the hand.
type Reach struct{ Low, High, Step float64 }

// What can be chosen at the plate (modelling choices: what no kitchen does is a slip of the keys).
var (
	HeatReach = Reach{60, 300, 5}   // °C of a step of the heat
	SideReach = Reach{5, 3600, 5}   // s of a side
	FatReach  = Reach{0.5, 50, 0.5} // g of the plate's fat for a piece
)

// MayBeOne tells whether the whole bowl of a form can be poured as one cake: not what is thin, nor what takes the shape of an iron.
func (f Form) MayBeOne() bool { return f != Waffle && f != Crepe }

// OwnOn are the cook's times for a plate or iron, if there are any.
func (c Cooking) OwnOn(id string) (OwnMinutes, bool) {
	i := slices.IndexFunc(c.Own, func(o OwnMinutes) bool { return o.On == id })
	if i < 0 {
		return OwnMinutes{}, false
	}
	return c.Own[i], true
}

// Thick tells whether a batter poured so thick [mm] is what the times were for.
func (o OwnMinutes) Thick(mm float64) bool {
	return o.PouredMM <= 0 || math.Abs(mm-o.PouredMM) <= OwnWithin*o.PouredMM
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
