// Package portion works out what a bowl of batter gives: its volume, how many portions, and
// how wide and thick one lies on the plate. Formulas: docs/maths.md section 5.
package portion

import (
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
)

// MaxPortions is the most portions that a bowl is shared out into: beyond it, pieces and plates
// are not worked out (modelling choice: more than any kitchen pours from one bowl).
const MaxPortions = 5000

// BowlLoss is the share of a batter that stays in the bowl and on the ladle (common
// practice, no source).
const BowlLoss = 0.025

// Gas that stirring leaves in the poured batter, share of its volume (modelling choice).
const (
	airDefault = 0.08
	airCrepe   = 0.02
)

// Air is the gas fraction φ0 of a freshly stirred batter of the form.
func Air(f batter.Form) float64 {
	if f == batter.Crepe {
		return airCrepe
	}
	return airDefault
}

// Bowl is a batter with everything that is folded into it.
type Bowl struct {
	MassG    float64
	VolumeML float64
}

// Density in g/ml, air included; 0 for an empty bowl.
func (b Bowl) Density() float64 {
	if b.VolumeML <= 0 {
		return 0
	}
	return b.MassG / b.VolumeML
}

// BowlOf returns mass and volume of a bowl: what is between the pieces by its composition
// and the air in it, the solid part of the pieces by piece density.
func BowlOf(parts []food.Part, air float64) Bowl {
	between := food.Batter(parts)
	b := Bowl{MassG: between.Mass}
	if d := between.Density(); d > 0 {
		b.VolumeML = between.Mass / (d * (1 - air))
	}
	for _, p := range parts {
		in := p.Ingredient
		solid, drunk := p.Grams*(1-in.Release()), p.Grams*in.Drinks()
		if solid > 0 {
			b.MassG += solid + drunk
			b.VolumeML += solid/in.PieceDensity() + drunk // a swollen piece grows by the water it drank
		}
	}
	return b
}

// Portions is how many portions of ml each the bowl gives, with the part of one that is left.
func (b Bowl) Portions(ml float64) float64 {
	if ml <= 0 {
		return 0
	}
	return b.VolumeML * (1 - BowlLoss) / ml
}

// Count is how many whole portions of ml each the bowl gives, after what sticks to it.
func (b Bowl) Count(ml float64) int {
	return int(math.Floor(b.Portions(ml) + 1e-9))
}

// crepeLayerMM is the layer of a crêpe spread by hand or by tilting the pan (modelling
// choice, the cooking model's crêpe).
const crepeLayerMM = 1.2

// On a hot plate the lowest film thins and slips before it sets, so that a stiff batter stands no higher than one of
// these yield stresses [Pa] (modelling choices, fitted to drop scones of 15-20 ml that come out 70-80 mm across).
const (
	hotMostPa = 22.0
	dropPa    = 10.0 // a drop scone up to dropML,
	dropML    = 25.0 // rising to hotMostPa
	dropFull  = 40.0 // at so many ml
)

// HotStress is the yield stress in Pa with which ml of a batter of tau [Pa] lie on a hot plate, before pieces and foam
// stiffen it. A cold plate knows none of it.
func HotStress(f batter.Form, ml, tau float64) float64 {
	switch f {
	case batter.Pancake:
		return math.Min(tau, hotMostPa)
	case batter.DropScone:
		rises := math.Min(1, math.Max(0, (ml-dropML)/(dropFull-dropML)))
		return math.Min(tau, dropPa+(hotMostPa-dropPa)*rises)
	}
	return tau
}

// A grated cake is patted flat to so many mm, not poured (common practice, no source: 8-10 mm).
const pattedMM = 9.0

// Patted is how a grated cake of ml lies.
func Patted(ml float64) Layer { return Layer{flow.Disc(ml, pattedMM), pattedMM} }

// Layer is one poured portion on the plate, in mm.
type Layer struct{ DiameterMM, ThicknessMM float64 }

// LayerOf returns how one portion of ml lies, for a batter of yield stress tau [Pa] and
// density rho [g/ml]. A waffle takes the shape of its iron and a flourless batter is not
// judged on thickness: for both ok is false.
func LayerOf(f batter.Form, ml, tau, rho float64) (l Layer, ok bool) {
	switch f {
	case batter.Waffle, batter.Flourless:
		return Layer{}, false
	case batter.Crepe:
		return Layer{flow.Disc(ml, crepeLayerMM), crepeLayerMM}, ml > 0
	}
	d, h := flow.Spread(ml, tau, rho)
	return Layer{d, h}, d > 0
}
