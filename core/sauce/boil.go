// Package sauce works a pot out: what goes in, what boils off, when to stop, what it makes. Every pot is a mass
// balance: nothing is made or lost except where it says so. Formulas and constants: docs/maths.md section 21.
package sauce

import (
	"math"

	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/core/prep"
)

// Molar masses [g/mol].
const (
	sucroseMol = 342.3
	hexoseMol  = 180.16
	waterMol   = 18.02
)

// sugarShare is the molar share of what is dissolved in the water of a mixture. What is dissolved and no sugar counts as
// sucrose (modelling choice: there is little of it).
func sugarShare(t food.Total) float64 {
	if t.Water <= 0 {
		return 1
	}
	hexoses := t.Glucose + t.Fructose
	n := (dissolved(t)-hexoses)/sucroseMol + hexoses/hexoseMol
	return n / (n + t.Water/waterMol)
}

// dissolved is how many g of solids are dissolved in the water of a mixture.
func dissolved(t food.Total) float64 {
	b := brixOf(t)
	if b >= 100 {
		return t.Sugars
	}
	return (t.Water + t.Alcohol) * b / (100 - b)
}

// brixOf is what a refractometer reads of a mixture at 20 °C.
func brixOf(t food.Total) float64 {
	if t.Mass <= 0 {
		return 0
	}
	if t.Water+t.Alcohol <= 0 {
		return 100
	}
	return prep.SolubleSolids(&food.Ingredient{Composition: t.Per100()})
}

// Elevation is by how many K a solution of a molar share of sugar boils above water at 100 °C (Starzak and Peacock, as GNU
// units carries it).
func Elevation(x float64) float64 {
	return ((1+0.48851085*x*x*(1-1.0038*x-0.24653*x*x))/(1+0.08592964*math.Log(1-x)) - 1) * 326.28
}

// Bounds of the search for a temperature [°C].
const (
	coldest = 40.0
	hottest = 250.0
)

// boils is where a mixture boils at an altitude in m [°C]: its water is as active as at sea level (modelling choice).
func boils(t food.Total, altitudeM float64) float64 {
	x := math.Min(sugarShare(t), 0.97)
	active := heat.SaturationPa(100) / heat.SaturationPa(100+Elevation(x))
	wanted := heat.PressureAt(altitudeM) / heat.PressureAt(0) * heat.SaturationPa(100) / active
	low, high := coldest, hottest
	for range 60 {
		if mid := (low + high) / 2; heat.SaturationPa(mid) < wanted {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}

// without is a mixture after so many g of water boiled off.
func without(t food.Total, water float64) food.Total {
	t.Mass -= water
	t.Water -= water
	return t
}

// offToBrix is how much water boils off until a mixture reads so many °Brix; below zero when it reads more already.
func offToBrix(t food.Total, brix float64) float64 {
	return t.Water + t.Alcohol - dissolved(t)*(100-brix)/brix
}

// offToTemperature is how much water boils off until it boils at so many °C; false when it never does.
func offToTemperature(t food.Total, c, altitudeM float64) (float64, bool) {
	most := t.Water * 0.9999
	if boils(without(t, most), altitudeM) < c {
		return 0, false
	}
	low, high := 0.0, most
	for range 60 {
		if mid := (low + high) / 2; boils(without(t, mid), altitudeM) < c {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2, true
}
