// Package measure holds every unit a cook weighs or spoons with: the four kitchen
// standards, mass from volume by density, typed amounts, and the way back from
// grams to what a scale and a set of spoons can give.
package measure

import (
	"errors"
	"fmt"
	"math"
)

// Exact volumes [ml].
const (
	USCup  = 236.5882365 // US customary cup; NIST SP 811
	USTbsp = USCup / 16  // 14.787 ml; NIST SP 811
	USTsp  = USCup / 48  // 4.929 ml; NIST SP 811
	USFlOz = USCup / 8   // 29.574 ml; NIST SP 811

	ImperialFlOz = 28.4130625        // UK Weights and Measures Act; GNU units brfloz
	ImperialCup  = 10 * ImperialFlOz // 284.131 ml, half a UK pint; GNU units
)

// Exact masses [g].
const (
	Ounce = 28.349523125 // avoirdupois; NIST SP 811
	Pound = 16 * Ounce
)

// PinchPerTsp says how many pinches fill a teaspoon (common practice, no source).
const PinchPerTsp = 16

// Standard is the set of cups and spoons that a kitchen owns; volumes in ml.
type Standard struct {
	Name                 string
	Cup, Tbsp, Tsp, FlOz float64

	Mug, Glass, Handful float64 // the kitchen's own, weighed once with water; 0 until then
	Heaped              float64 // how many level spoons of a powder a heaped one of the kitchen holds, weighed once; 0 until then
}

// Says names the standard by its cup and its tablespoon, the two that differ most, to the millilitre.
func (st Standard) Says() string {
	name := map[string]string{Metric.Name: "metric", US.Name: "US", Imperial.Name: "UK imperial", Australian.Name: "Australian"}[st.Name]
	return fmt.Sprintf("%s: cup %.0f ml, tbsp %.0f ml", name, st.Cup, st.Tbsp)
}

// The four standards that a document may name. Metric and Australian spoons: GNU
// units; the imperial set keeps the modern 15 and 5 ml spoons (common practice).
var (
	Metric     = Standard{Name: "metric", Cup: 250, Tbsp: 15, Tsp: 5, FlOz: ImperialFlOz}
	US         = Standard{Name: "us", Cup: USCup, Tbsp: USTbsp, Tsp: USTsp, FlOz: USFlOz}
	Imperial   = Standard{Name: "imperial", Cup: ImperialCup, Tbsp: 15, Tsp: 5, FlOz: ImperialFlOz}
	Australian = Standard{Name: "au", Cup: 250, Tbsp: 20, Tsp: 5, FlOz: ImperialFlOz}
)

// Standards lists them by the name used in documents.
var Standards = map[string]Standard{
	Metric.Name: Metric, US.Name: US, Imperial.Name: Imperial, Australian.Name: Australian,
}

// Unit is a unit of a line in a recipe.
type Unit string

// Every unit that a line may use.
const (
	Gram     Unit = "g"
	Kilogram Unit = "kg"
	Ml       Unit = "ml"
	Litre    Unit = "l"
	Tsp      Unit = "tsp"
	Tbsp     Unit = "tbsp"
	Cup      Unit = "cup"
	FlOz     Unit = "fl_oz"
	Oz       Unit = "oz"
	Lb       Unit = "lb"
	Each     Unit = "each"
	Pinch    Unit = "pinch"
	Can      Unit = "can"
	Mug      Unit = "mug"
	Glass    Unit = "glass"
	Handful  Unit = "handful"
)

// Units lists every unit in the order in which a chooser shows them.
var Units = []Unit{Gram, Kilogram, Ml, Litre, Tsp, Tbsp, Cup, FlOz, Oz, Lb, Each, Pinch, Can, Mug, Glass, Handful}

// Own lists the measures that differ from kitchen to kitchen.
var Own = []Unit{Mug, Glass, Handful}

// FlourMethod says how flour got into the cup.
type FlourMethod string

// The three ways of filling a cup.
const (
	Spooned FlourMethod = "spooned"
	Scooped FlourMethod = "scooped"
	Sifted  FlourMethod = "sifted"
)

// FlourMethods are all of them; spoon and level, the first, is meant when nothing is said.
var FlourMethods = []FlourMethod{Spooned, Scooped, Sifted}

// Fullness says how full a spoon or a cup of a powder is.
type Fullness string

// What is not level holds so much of a level one (common practice, no source).
const (
	Heaped  Fullness = "heaped"
	Rounded Fullness = "rounded"
	Level   Fullness = "level"
	Scant   Fullness = "scant"

	heapedHolds  = 2
	roundedHolds = 1.5
	scantHolds   = 0.9
)

// Fullnesses are all of them; level is meant when nothing is said.
var Fullnesses = []Fullness{Heaped, Rounded, Level, Scant}

// Holds is how many level ones a spoon or a cup holds of a powder that is so full. Where a heaped one has been weighed, a rounded one
// lies between it and a level one, as it does in common practice.
func (st Standard) Holds(f Fullness) float64 {
	switch {
	case f == Heaped && st.Heaped > 0:
		return st.Heaped
	case f == Heaped:
		return heapedHolds
	case f == Rounded && st.Heaped > 0:
		return (1 + st.Heaped) / 2
	case f == Rounded:
		return roundedHolds
	case f == Scant:
		return scantHolds
	}
	return 1
}

// heaps tells whether what is measured by a unit can be more than level.
func (u Unit) heaps() bool { return u == Tsp || u == Tbsp || u == Cup || u == Mug || u == Glass }

// Share of the spooned density for a flour whose own figure is not known: 4 and 5 oz
// against 4.25 oz a cup (Beranbaum, The Cake Bible, as carried by GNU units).
const (
	siftedShare  = 4.0 / 4.25
	scoopedShare = 5.0 / 4.25
)

// Subject is what a measure needs to know of the thing measured. Zero means unknown.
type Subject struct {
	Density        float64     // g/ml as spooned or poured
	DensitySifted  float64     // g/ml
	DensityScooped float64     // g/ml
	EachG          float64     // edible grams of one
	CanG, CanML    float64     // contents of the can in hand
	Method         FlourMethod // how a flour was put in the cup; empty is spooned
	IsFlour        bool
	Fill           Fullness // of the spoon or cup; empty is level
	IsPowder       bool     // it heaps
}

// Errors that ToGrams returns; test with errors.Is.
var (
	ErrUnknownUnit = errors.New("unknown unit")
	ErrNoDensity   = errors.New("no density known")
	ErrNotCounted  = errors.New("not counted in pieces")
	ErrCanSize     = errors.New("size of the can not given")
	ErrNotWeighed  = errors.New("the kitchen has not weighed it")
)

// density in g/ml for the way the cup was filled.
func (s Subject) density() float64 {
	if !s.IsFlour {
		return s.Density
	}
	switch s.Method {
	case Sifted:
		if s.DensitySifted > 0 {
			return s.DensitySifted
		}
		return s.Density * siftedShare
	case Scooped:
		if s.DensityScooped > 0 {
			return s.DensityScooped
		}
		return s.Density * scoopedShare
	}
	return s.Density
}

// Volume returns the ml of one of the unit, or 0 for a unit that is not a volume.
func (st Standard) Volume(u Unit) float64 {
	switch u {
	case Ml:
		return 1
	case Litre:
		return 1000
	case Tsp:
		return st.Tsp
	case Tbsp:
		return st.Tbsp
	case Cup:
		return st.Cup
	case FlOz:
		return st.FlOz
	case Pinch:
		return st.Tsp / PinchPerTsp
	case Mug:
		return st.Mug
	case Glass:
		return st.Glass
	case Handful:
		return st.Handful
	}
	return 0
}

// mass returns the grams of one of the unit, or 0 for a unit that is not a mass.
func mass(u Unit) float64 {
	switch u {
	case Gram:
		return 1
	case Kilogram:
		return 1000
	case Oz:
		return Ounce
	case Lb:
		return Pound
	}
	return 0
}

// ToGrams turns an amount of a subject into grams. The error is one of those
// above when the unit does not fit the subject.
func (st Standard) ToGrams(amount float64, u Unit, s Subject) (float64, error) {
	if g := mass(u); g > 0 {
		return amount * g, nil
	}
	if ml := st.Volume(u); ml > 0 {
		d := s.density()
		if d <= 0 {
			return 0, ErrNoDensity
		}
		if s.IsPowder && u.heaps() {
			ml *= st.Holds(s.Fill)
		}
		return amount * ml * d, nil
	}
	switch u {
	case Each:
		if s.EachG <= 0 {
			return 0, ErrNotCounted
		}
		return amount * s.EachG, nil
	case Can:
		switch {
		case s.CanG > 0:
			return amount * s.CanG, nil
		case s.CanML > 0 && s.Density > 0:
			return amount * s.CanML * s.Density, nil
		case s.CanML > 0:
			return 0, ErrNoDensity
		}
		return 0, ErrCanSize
	case Mug, Glass, Handful:
		return 0, ErrNotWeighed
	}
	return 0, fmt.Errorf("%w %q", ErrUnknownUnit, u)
}

// FromGrams is the inverse of ToGrams.
func (st Standard) FromGrams(grams float64, u Unit, s Subject) (float64, error) {
	one, err := st.ToGrams(1, u, s)
	if err != nil {
		return 0, err
	}
	return grams / one, nil
}

// Round returns grams to the nearest multiple of step [g], halves away from zero.
// A step of zero or less leaves the figure alone.
func Round(grams, step float64) float64 {
	if step <= 0 {
		return grams
	}
	n := math.Round(grams / step)
	if inv := math.Round(1 / step); inv >= 1 && math.Abs(inv*step-1) < 1e-9 {
		return n / inv // 0.1 g steps stay exact decimals
	}
	return n * step
}
