package portion

import (
	"math"

	"upbeatladle/core/batter"
)

const (
	gravity = 9.81 // m/s², standard

	// stillShare is the share of the rested yield stress that holds a piece while the bowl is
	// stirred and warms (modelling choice: a standard batter then holds about 20 mm of chip, a
	// crêpe batter 4 mm).
	stillShare  = 0.1
	berisFactor = 21.0 // Beris et al. 1985, from memory: a sphere stays put above Δρ·g·d/21

	// plasticPas is the viscosity of a batter that flows [Pa·s], thinPas that of a crêpe batter
	// (modelling choices).
	plasticPas = 1.0
	thinPas    = 0.3
	// secondsALadle is the time from one ladle to the next on a full plate (common practice, no
	// source).
	secondsALadle = 20.0
)

// HoldsStill is the yield stress in Pa that keeps a piece of sizeMM where it is, for a density
// that differs by delta [g/ml] from the batter's.
func HoldsStill(sizeMM, delta float64) float64 {
	return math.Abs(delta) * 1000 * gravity * sizeMM / 1000 / berisFactor
}

// Sinking is what a piece does in the bowl while it is ladled out.
type Sinking struct {
	Moves bool    // it does not stay put
	Down  bool    // it sinks; else it floats
	Speed float64 // mm/s
}

// Viscosity is that of a form's batter while it flows [Pa·s].
func Viscosity(f batter.Form) float64 {
	if f == batter.Crepe {
		return thinPas
	}
	return plasticPas
}

// SinkingOf tells whether a piece whose smallest measure is sizeMM stays put in a batter of
// yield stress tau [Pa, rested], viscosity [Pa·s] and density rho [g/ml], and how fast it goes if
// not: Stokes' law, less what the yield stress holds (docs/maths.md section 14).
func SinkingOf(sizeMM, pieceDensity, tau, viscosity, rho float64) Sinking {
	delta := pieceDensity - rho
	need, has := HoldsStill(sizeMM, delta), stillShare*tau
	if need <= has {
		return Sinking{}
	}
	d := sizeMM / 1000
	stokes := math.Abs(delta) * 1000 * gravity * d * d / (18 * viscosity) // m/s
	return Sinking{Moves: true, Down: delta > 0, Speed: 1000 * stokes * (1 - has/need)}
}

// FirstToLast is the expected number of pieces in each portion from the first ladle to the
// last, for n portions from a bowl of volumeML that rested restMin minutes after the pieces
// went in. The ladle takes from the top; what has sunk lies in the last tenth of the bowl, what
// floats in a layer of the same size on top. The pieces of all portions and of what stays in the
// bowl sum to what went in. For no portions or more than MaxPortions there is no answer.
func FirstToLast(pieces float64, n int, volumeML, portionML, restMin float64, s Sinking) []float64 {
	if n <= 0 || n > MaxPortions || volumeML <= 0 {
		return nil
	}
	out := make([]float64, n)
	if !s.Moves {
		for i := range out {
			out[i] = pieces * portionML / volumeML
		}
		return out
	}
	depth := 10 * math.Cbrt(volumeML) // mm, of a bowl about as deep as wide
	layer := volumeML * layerShare
	afloat, settled, left := pieces, 0.0, volumeML
	settle := func(seconds float64) {
		f := math.Min(1, s.Speed*seconds/(depth*left/volumeML))
		settled += afloat * f
		afloat -= afloat * f
	}
	settle(restMin * 60)
	for i := range out {
		// The share of what has settled that this ladle meets: a floating layer always lies on
		// top, a sunk one is reached when no more than it is left.
		met := math.Min(1, portionML/layer)
		if s.Down {
			met = 0
			if here := math.Min(layer, left); here > 0 {
				met = math.Min(1, math.Max(0, portionML-math.Max(0, left-layer))/here)
			}
		}
		taken := afloat * math.Min(1, portionML/left)
		out[i] = settled * met
		settled -= settled * met
		out[i] += taken
		afloat -= taken
		left -= portionML
		if left <= 0 {
			break
		}
		settle(secondsALadle)
	}
	return out
}

// layerShare is the part of the bowl in which settled pieces lie (modelling choice).
const layerShare = 0.1
