// Package flow says how thick a batter is and how far it spreads: suspending liquid per
// unit of body, the class a cook would name, yield stress, and the spread of a portion.
// Formulas: docs/maths.md section 3.
package flow

import (
	"math"

	"upbeatladle/core/food"
)

// What a gram of each constituent adds to the suspending liquid [ml/g].
const (
	liquidWater   = 1.00
	liquidSugars  = 0.62 // partial volume of dissolved sugar (handbook value, from memory)
	liquidFat     = 0.65 // 60 % of its volume, droplets thin less than water (modelling choice)
	liquidProtein = 0.74 // partial volume of protein (handbook value, from memory)
	liquidAlcohol = 1.27 // partial volume of ethanol (handbook value, from memory)
)

// LiquidPerGram is the suspending liquid in ml that one gram of an ingredient brings to
// the batter account. Flour and starch bring none: body describes them.
func LiquidPerGram(in *food.Ingredient) float64 {
	if in.IsFlour() {
		return 0
	}
	c := &in.Composition
	own := liquidWater*c.Water + liquidSugars*(c.Sugars+c.Polyols) + liquidFat*c.Fat + liquidProtein*c.Protein + liquidAlcohol*c.Alcohol
	return in.Release()*own/100 - in.Drinks()
}

// Thickness is the pair behind L*: suspending liquid V [ml] and body F [g of plain flour].
type Thickness struct{ Liquid, Body float64 }

// Of returns the thickness of a bowl with everything released and drunk, as offsets and
// gauges use it.
func Of(parts []food.Part) Thickness {
	var t Thickness
	for _, p := range parts {
		t.Liquid += p.Grams * LiquidPerGram(p.Ingredient)
		t.Body += p.Grams * p.Ingredient.Body
	}
	return t
}

// L is L* = V/F [ml/g], or NaN when nothing in the bowl thickens.
func (t Thickness) L() float64 {
	if t.Body <= 0 {
		return math.NaN()
	}
	return t.Liquid / t.Body
}

// Range of L* inside which the model was fitted [ml/g] (modelling choice).
const (
	ModelLow  = 1.3
	ModelHigh = 3.4
)

// InModel tells whether L* lies where the model may be believed.
func InModel(l float64) bool { return l >= ModelLow && l <= ModelHigh }

// Class is what a cook calls a thickness.
type Class string

// The classes, thickest last.
const (
	Runny    Class = "runny"
	Thin     Class = "thin"
	Standard Class = "standard"
	Thick    Class = "thick"
	Stiff    Class = "stiff"
)

// Lower edges of the classes on L* [ml/g] (modelling choice, fitted to common practice).
const (
	runnyAbove    = 2.45
	thinAbove     = 2.2
	standardAbove = 1.9
	thickAbove    = 1.55
)

// ClassOf names the thickness L*.
func ClassOf(l float64) Class {
	switch {
	case l > runnyAbove:
		return Runny
	case l > thinAbove:
		return Thin
	case l > standardAbove:
		return Standard
	case l > thickAbove:
		return Thick
	}
	return Stiff
}

// Calibration is a kitchen's own line from L* to yield stress:
// ln τ0 [Pa] = C − B·(L* − 2).
type Calibration struct{ C, B float64 }

// Prior is the calibration of a kitchen that has measured nothing yet (modelling choice,
// fitted to common practice).
var Prior = Calibration{C: 3.10, B: 2.15}

// What is thicker or thinner than any batter counts as this L* [ml/g]: dough and water
// (modelling choice, far outside of what the line was fitted to).
const doughL, waterL = 0, 10

// YieldStress is τ0 in Pa of the rested batter.
func (k Calibration) YieldStress(l float64) float64 {
	return math.Exp(k.C - k.B*(math.Max(doughL, math.Min(waterL, l))-2))
}

const gravity = 9.81 // m/s², standard

// MinLayerMM is the thinnest layer in mm that a batter left to itself settles to on a flat
// plate: about its capillary length (modelling choice).
const MinLayerMM = 3.0

// Spread returns the diameter and the mean thickness in mm of volume ml of batter with
// yield stress tau [Pa] and density rho [g/ml] poured on a flat cold plate: the spreading
// regime of Roussel & Coussot 2005, never thinner than MinLayerMM.
func Spread(ml, tau, rho float64) (diameterMM, thicknessMM float64) {
	if ml <= 0 || tau <= 0 || rho <= 0 {
		return 0, 0
	}
	v := ml * 1e-6
	r := math.Pow(225*rho*1000*gravity*v*v/(128*math.Pi*math.Pi*tau), 0.2)
	d, h := 2000*r, 1000*v/(math.Pi*r*r)
	if h < MinLayerMM {
		return Disc(ml, MinLayerMM), MinLayerMM
	}
	return d, h
}

// StressOf is the yield stress in Pa of a batter of density rho [g/ml] of which volume ml ran to a
// diameter in mm: Spread turned round. ok is false where the layer is the thinnest that any batter
// settles to, which says nothing of it.
func StressOf(ml, diameterMM, rho float64) (tau float64, ok bool) {
	if ml <= 0 || diameterMM <= 0 || rho <= 0 {
		return 0, false
	}
	v, r := ml*1e-6, diameterMM/2000
	tau = 225 * rho * 1000 * gravity * v * v / (128 * math.Pi * math.Pi * math.Pow(r, 5))
	return tau, diameterMM < Disc(ml, MinLayerMM)
}

// Disc returns the diameter in mm of ml spread to a layer of the given thickness in mm.
func Disc(ml, thicknessMM float64) float64 {
	return 2 * math.Sqrt(ml*1000/(math.Pi*thicknessMM))
}

// Time constants [min] (modelling choices).
const (
	releaseMin = 30.0 // cells let go of their water, cold and unsalted
	uptakeMin  = 60.0 // dry pieces drink
)

// At is the thickness of a bowl that was mixed so many minutes ago: cells have let go of a
// part of their water, dry pieces have drunk a part of theirs. Time without end is Of.
func At(parts []food.Part, minutes float64) Thickness {
	var t Thickness
	let, drunk := 1-math.Exp(-minutes/releaseMin), 1-math.Exp(-minutes/uptakeMin)
	for _, p := range parts {
		in := p.Ingredient
		own := LiquidPerGram(in) + in.Drinks()
		if in.HasCells() {
			own *= let
		}
		t.Liquid += p.Grams * (own - in.Drinks()*drunk)
		t.Body += p.Grams * in.Body
	}
	return t
}

// Flour keeps drinking: a batter just mixed has this share of its rested yield stress
// (modelling choice).
const freshShare = 0.75

// HydrationMin is the time constant in minutes with which the flours of a bowl drink, by
// their mass; 0 when none is known.
func HydrationMin(parts []food.Part) float64 {
	var sum, mass float64
	for _, p := range parts {
		if p.Ingredient.HydrationMin > 0 {
			sum += p.Grams * p.Ingredient.HydrationMin
			mass += p.Grams
		}
	}
	if mass <= 0 {
		return 0
	}
	return sum / mass
}

// RestShare is the share of the rested yield stress after so many minutes.
func RestShare(minutes, hydrationMin float64) float64 {
	if hydrationMin <= 0 {
		return 1
	}
	return freshShare + (1-freshShare)*(1-math.Exp(-minutes/hydrationMin))
}

// LOf is the L* that a yield stress tau [Pa] stands for.
func (k Calibration) LOf(tau float64) float64 { return 2 - (math.Log(tau)-k.C)/k.B }
