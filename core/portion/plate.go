package portion

import (
	"math"

	"upbeatladle/core/batter"
)

// ScoopML is the volume in ml of a disher by its number: scoops to a US quart (definition).
func ScoopML(number float64) float64 { return 946.353 / number }

// Rise is cooked over poured thickness for gas in ml per 100 g of flour-type body (modelling
// choice, 1.1 to 1.9). Gas that is no number, for want of flour, lifts nothing.
func Rise(gas float64) float64 {
	if !(gas > 0) {
		gas = 0
	}
	return 1.1 + 0.8*(1-math.Exp(-gas/300))
}

// gapMM is left between two pancakes on the plate for the turner (common practice, no source).
const gapMM = 15.0

// Fit is how many discs of a diameter go on a plate of width × depth, all in mm: in rows, or
// staggered when that holds more. A round plate is given as its inscribed square.
func Fit(diameterMM, widthMM, depthMM float64) int {
	cell := diameterMM + gapMM
	if cell <= 0 || widthMM < diameterMM || depthMM < diameterMM {
		return 0
	}
	across := func(width float64) int { return int((width + gapMM) / cell) }
	best := 0
	for _, side := range [2][2]float64{{widthMM, depthMM}, {depthMM, widthMM}} {
		w, d := side[0], side[1]
		best = max(best, across(w)*across(d))
		row := cell * math.Sqrt(3) / 2
		rows := 1 + int(math.Max(0, d-diameterMM)/row)
		full, offset := across(w), across(w-cell/2)
		best = max(best, (rows+1)/2*full+rows/2*offset)
	}
	return best
}

// meanOfDepth is the mean thickness of a ridged waffle against its overall height (the
// cooking model's figure).
const meanOfDepth = 0.62

// MouldArea is the area in mm² of one mould of an iron.
func MouldArea(i batter.Iron) float64 {
	if i.Round {
		return math.Pi * i.WidthMM * i.WidthMM / 4
	}
	return i.WidthMM * i.LengthMM
}

// MouldML is the room in ml of one mould.
func MouldML(i batter.Iron) float64 { return MouldArea(i) * i.DepthMM * meanOfDepth / 1000 }

// leavesRoom is the share of the mould that a well-poured waffle fills once it has risen; the
// rest is for the batter to run (modelling choice).
const leavesRoom = 0.85

// Fill is how full a mould gets with ml of batter that rises by rise, and the ml that fills it
// well. What a good one was weighed at outranks the mould's size; density is the batter's [g/ml].
func Fill(i batter.Iron, ml, rise, density float64) (share, adviseML float64) {
	if i.TakesG > 0 && density > 0 {
		well := i.TakesG / density
		return leavesRoom * ml / well, well
	}
	v := MouldML(i)
	return ml * rise / v, leavesRoom * v / rise
}
