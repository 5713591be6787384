package portion

import (
	"math"

	"upbeatladle/core/batter"
)

// ScoopML is the volume in ml of a disher by its number: scoops to a US quart (definition).
func ScoopML(number float64) float64 { return 946.353 / number }

// Rise of a batter with its gas [ml per 100 g of flour-type body] (modelling choices).
const (
	riseLeast  = 1.1   // cooked over poured thickness without any gas,
	riseMore   = 0.8   // and as much more as it ever gains,
	riseGas    = 300.0 // with so much gas for 63 % of that
	holdsGas   = 800.0 // more than this the crumb does not hold: bubbles run together and burst,
	sinksMost  = 0.35  // so that it sinks back by this share at most,
	sinksGas   = 600.0 // with so much beyond it for 63 % of that
	sinksWorth = 0.05  // of its height lost is worth a sentence
)

// Rise is cooked over poured thickness for gas in ml per 100 g of flour-type body. Gas that is no
// number, for want of flour, lifts nothing.
func Rise(gas float64) float64 {
	if !(gas > 0) {
		gas = 0
	}
	return (riseLeast + riseMore*(1-math.Exp(-gas/riseGas))) * (1 - lost(gas))
}

// lost is the share of its height that a batter with so much gas loses again.
func lost(gas float64) float64 {
	return sinksMost * (1 - math.Exp(-math.Max(0, gas-holdsGas)/sinksGas))
}

// Sinks tells whether that is worth a sentence.
func Sinks(gas float64) bool { return lost(gas) >= sinksWorth }

// gapMM is left between two pancakes on the plate for the turner (common practice, no source).
const gapMM = 15.0

// At is the middle of a disc in mm from the left and the top of its plate.
type At struct {
	X float64 `json:"x_mm"`
	Y float64 `json:"y_mm"`
}

// Fit is how many discs of a diameter go on a plate of width × depth, all in mm: in rows, or
// staggered when that holds more.
func Fit(diameterMM, widthMM, depthMM float64) int {
	return len(Places(diameterMM, widthMM, depthMM))
}

// Places are where those discs lie, row by row from the top left; a row that is not full stands in the middle.
func Places(diameterMM, widthMM, depthMM float64) []At {
	cell := diameterMM + gapMM
	if cell <= 0 || widthMM < diameterMM || depthMM < diameterMM {
		return nil
	}
	across := func(width float64) int { return int((width + gapMM) / cell) }
	var best []At
	for turned, side := range [2][2]float64{{widthMM, depthMM}, {depthMM, widthMM}} {
		w, d := side[0], side[1]
		full, offset, row := across(w), across(w-cell/2), cell*math.Sqrt(3)/2
		staggered := 1 + int(math.Max(0, d-diameterMM)/row)
		inRows := full * across(d)
		rows, second := across(d), full
		if n := (staggered+1)/2*full + staggered/2*offset; n > inRows {
			rows, second = staggered, offset
		} else {
			row = cell
		}
		n := (rows+1)/2*full + rows/2*second
		if n <= len(best) {
			continue
		}
		left, top := (w-float64(full)*cell+gapMM)/2, (d-diameterMM-float64(rows-1)*row)/2
		if row < cell { // the shifted rows need half a disc more
			left = math.Max(0, w-(float64(full)*cell-gapMM+half(second == full)*cell/2)) / 2
		}
		best = best[:0]
		for r := range rows {
			many, shift := full, 0.0
			if r%2 == 1 && row < cell {
				many, shift = second, cell/2
			}
			for c := range many {
				at := At{left + shift + float64(c)*cell + diameterMM/2, top + float64(r)*row + diameterMM/2}
				if turned == 1 {
					at.X, at.Y = at.Y, at.X
				}
				best = append(best, at)
			}
		}
	}
	return best
}

// PlacesOn are where discs of a diameter in mm lie on a plate or in a pan.
func PlacesOn(g batter.Griddle, diameterMM float64) []At {
	if g.Round {
		return InPan(diameterMM, g.WidthMM)
	}
	return Places(diameterMM, g.WidthMM, g.DepthMM)
}

// panGapMM is left between two pancakes in a round pan: the turner comes from the rim (common practice, no source).
const panGapMM = 5.0

// InPan are where discs of a diameter lie on the round floor of a pan, both in mm, from the left and the top of the
// square around it: the most there is room for, up to seven as circles in a circle pack best (one ring, with one in the
// middle for seven; exact), beyond that as a honeycomb.
func InPan(diameterMM, floorMM float64) []At {
	d, reach := diameterMM+panGapMM, (floorMM-diameterMM)/2 // a middle lies within reach of the pan's
	if diameterMM <= 0 || reach < 0 {
		return nil
	}
	at := func(x, y float64) At { return At{floorMM/2 + x, floorMM/2 + y} }
	ring := func(n int) (out []At) {
		for i := range n {
			turn := 2*math.Pi*float64(i)/float64(n) - math.Pi/2
			out = append(out, at(reach*math.Cos(turn), reach*math.Sin(turn)))
		}
		return out
	}
	best := []At{at(0, 0)}
	for n := 2; n <= 5; n++ {
		if 2*reach*math.Sin(math.Pi/float64(n)) >= d {
			best = ring(n)
		}
	}
	if reach >= d { // six round one, no closer together than to it
		best = append(ring(6), at(0, 0))
	}
	if reach >= d*(1+1e-9) {
		if comb := honeycomb(d, reach); len(comb) > len(best) {
			best = best[:0]
			for _, p := range comb {
				best = append(best, at(p.X, p.Y))
			}
		}
	}
	return best
}

// honeycomb are the points of a triangular lattice of side d within reach of the middle, round a point, a hole or the
// middle of a side: whichever has the most.
func honeycomb(d, reach float64) (best []At) {
	row := d * math.Sqrt(3) / 2
	for _, from := range [3]At{{}, {X: d / 2, Y: row / 3}, {X: d / 2}} {
		var all []At
		n := int(reach/row) + 2
		for j := -n; j <= n; j++ {
			for i := -n - 1; i <= n+1; i++ {
				p := At{float64(i)*d + float64(j&1)*d/2 - from.X, float64(j)*row - from.Y}
				if math.Hypot(p.X, p.Y) <= reach+1e-9 {
					all = append(all, p)
				}
			}
		}
		if len(all) > len(best) {
			best = all
		}
	}
	return best
}

// half is 1 when the shifted rows are as full as the others, and so stick out by half a disc.
func half(yes bool) float64 {
	if yes {
		return 1
	}
	return 0
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

// A usual waffle batter: how it rises and what it weighs (the cooking model's waffle; modelling choices).
const (
	usualRise    = 1.6
	usualDensity = 1.06 // g/ml
	fillStepML   = 5.0  // that a usual fill is told in
)

// UsualFill is the ml of a usual batter that fill an iron well, in steps of fillStepML.
func UsualFill(i batter.Iron) float64 {
	_, ml := Fill(i, 0, usualRise, usualDensity)
	return fillStepML * math.Round(ml/fillStepML)
}

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
