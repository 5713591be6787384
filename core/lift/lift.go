// Package lift says how much gas a batter makes and how sour it stays: powder, soda against
// the acid that is there, altitude, and air from whipped whites. Formulas: docs/maths.md
// section 9.
package lift

import (
	"math"

	"upbeatladle/core/food"
)

const (
	molarSoda = 84.01 // g/mol NaHCO3
	molarCO2  = 44.01 // g/mol
	molarML   = 24.47 // ml/mmol of gas at 25 °C and 1 atm (ideal gas)

	// MeqPerGram is the acid that one gram of soda neutralises [meq] (stoichiometry).
	MeqPerGram = 1000 / molarSoda // 11.9

	// surplusML is the gas of soda that meets no acid [ml/mmol]: half as much, late and in
	// the heat only (2 NaHCO3 → Na2CO3 + CO2 + H2O).
	surplusML = 12.2

	// SourMeq is the acidity [meq/100 g] from which an ingredient is something sour that
	// soda can work on; milk and flour titrate to less (modelling choice).
	SourMeq = 4

	// traceOfSour is the share of the acid below which something sour does not count
	// (modelling choice).
	traceOfSour = 0.05
)

// IsSoda tells a base that gives gas where acid meets it from a powder that carries its acid.
func IsSoda(in *food.Ingredient) bool { return in.Acid < 0 && in.CO2 > 0 }

// FlourBody is the flour-type body of one gram: flours and starches, oats and cocoa; purées
// thicken too but hold no bubbles.
func FlourBody(in *food.Ingredient) float64 {
	if in.Role == food.RoleFlour || in.IsFlour() || in.Is(food.HoldsGas) {
		return in.Body
	}
	return 0
}

// GasPerGram is the gas in ml at 25 °C and 1 atm that one gram gives by itself: powder, and
// the powder in self-raising flour. Soda gives none by itself.
func GasPerGram(in *food.Ingredient) float64 {
	if IsSoda(in) {
		return 0
	}
	return in.CO2 / 100 / molarCO2 * 1000 * molarML
}

// AcidPerGram is the acid in meq that one gram releases into the batter; bases count
// nothing here.
func AcidPerGram(in *food.Ingredient) float64 {
	return math.Max(0, in.Release()*in.Acid/100)
}

// SodaGas is the gas in ml of soda [g] in a batter with acid [meq]: what acid there is
// limits its share, the surplus gives half.
func SodaGas(sodaG, acidMeq float64) float64 {
	n := sodaG * MeqPerGram
	return molarML*math.Min(n, acidMeq) + surplusML*math.Max(0, n-acidMeq)
}

// Lift is the account of gas and acid of a bowl.
type Lift struct {
	AcidMeq   float64 // released into the batter
	SodaG     float64
	OwnGasML  float64 // of powder and self-raising flour
	FlourBody float64 // g
	Sour      bool    // something sour is there for soda to work on, more than a trace of it
}

// Of returns the account of a bowl.
func Of(parts []food.Part) Lift {
	var l Lift
	var sour float64 // meq of what is sour by itself
	for _, p := range parts {
		in := p.Ingredient
		if IsSoda(in) {
			l.SodaG += p.Grams
			continue
		}
		l.AcidMeq += p.Grams * AcidPerGram(in)
		l.OwnGasML += p.Grams * GasPerGram(in)
		l.FlourBody += p.Grams * FlourBody(in)
		if in.Acid >= SourMeq {
			sour += p.Grams * AcidPerGram(in)
		}
	}
	l.Sour = sour > traceOfSour*l.AcidMeq
	return l
}

// GasML is all the gas at 25 °C and 1 atm.
func (l Lift) GasML() float64 { return l.OwnGasML + SodaGas(l.SodaG, l.AcidMeq) }

// Per100 is the gas in ml per 100 g of flour-type body; NaN without any.
func (l Lift) Per100() float64 {
	if l.FlourBody <= 0 {
		return math.NaN()
	}
	return 100 * l.GasML() / l.FlourBody
}

// SodaToAcid is the share of the acid that the soda takes; NaN without soda or acid.
func (l Lift) SodaToAcid() float64 {
	if l.SodaG <= 0 || l.AcidMeq <= 0 {
		return math.NaN()
	}
	return l.SodaG * MeqPerGram / l.AcidMeq
}

// Tang is the acid left per 100 g of batter account [meq]; negative is soapy.
func (l Lift) Tang(batterG float64) float64 {
	if batterG <= 0 {
		return 0
	}
	return 100 * (l.AcidMeq - MeqPerGram*l.SodaG) / batterG
}

// PowderFor is the powder in g that gives ml of gas, for powder of 13 % CO2 as in the table.
func PowderFor(ml float64) float64 { return ml / (13.0 / 100 / molarCO2 * 1000 * molarML) }

// GreyAbove is the soda:acid ratio from which anthocyanin fruit turns green-grey (modelling
// choice).
const GreyAbove = 0.95

// Standard atmosphere of the ICAO.
const (
	seaLevelKPa = 101.325
	lapse       = 0.0065 // K/m
	seaLevelK   = 288.15
	exponent    = 5.25588
)

// PressureKPa is the standard pressure at an altitude in m (ICAO).
func PressureKPa(altitudeM float64) float64 {
	return seaLevelKPa * math.Pow(1-lapse*altitudeM/seaLevelK, exponent)
}

// Expansion is how much more room the same gas fills at an altitude than at sea level.
func Expansion(altitudeM float64) float64 { return seaLevelKPa / PressureKPa(altitudeM) }

// Whipped whites (modelling choices): stiff foam has five times the volume of the whites, and
// folding keeps two fifths of its air.
const (
	whiteOverrun = 4.0 // ml of air in a ml of whites
	foldingKeeps = 0.4
)

// Foam is the air in ml that the whipped whites of a bowl bring into it.
func Foam(parts []food.Part) float64 {
	var whites float64 // ml
	for _, p := range parts {
		if share := p.Ingredient.White(); share > 0 {
			whites += p.Grams * share / p.Ingredient.Density
		}
	}
	return whites * whiteOverrun * foldingKeeps
}
