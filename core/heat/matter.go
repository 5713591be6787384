// Package heat cooks a portion on paper: a slab of batter heated from one face and flipped, or
// from both in an iron. It answers how hot, how long a side, what to look for and why it differs
// from the base. It is an adviser, not a food-safety device: the cook's thermometer outranks it.
// Formulas and limits: docs/maths.md section 18.
package heat

import (
	"math"

	"upbeatladle/core/food"
)

// Matter is what a layer is made of: shares of its mass (0-1), gas apart. Alcohol counts as water.
type Matter struct {
	Water, Protein, Fat, Carbohydrate, Fibre, Ash float64 // carbohydrate without fibre
	Sugars, Sucrose, Reducing                     float64 // reducing: glucose, fructose, lactose, maltose
}

// MatterOf is the matter of a mixture; the zero value when it is empty.
func MatterOf(t food.Total) Matter {
	dry := t.Protein + t.Fat + t.Carbohydrate + t.Ash
	all := t.Water + t.Alcohol + dry
	if all <= 0 || dry <= 0 {
		return Matter{}
	}
	return Matter{
		Water: (t.Water + t.Alcohol) / all, Protein: t.Protein / all, Fat: t.Fat / all,
		Carbohydrate: math.Max(0, t.Carbohydrate-t.Fibre) / all, Fibre: t.Fibre / all, Ash: t.Ash / all,
		Sugars: t.Sugars / all, Sucrose: t.Sucrose / all, Reducing: (t.Glucose + t.Fructose + t.Lactose + t.Maltose) / all,
	}
}

// Known tells whether there is anything to heat.
func (m Matter) Known() bool { return m.dry() > 0 && m.Water >= 0 }

func (m Matter) dry() float64 { return m.Protein + m.Fat + m.Carbohydrate + m.Fibre + m.Ash }

// Setting of egg and starch (modelling choice, after the shift of starch's gelatinisation by
// sucrose, about 0.3-0.5 K a percent in the liquid, from memory).
const (
	setBareC  = 70.0
	setPerPct = 0.35 // K per g of sugar in 100 g of sugar and water
)

// SetC is the temperature in °C at which the batter has set.
func (m Matter) SetC() float64 {
	if m.Sugars+m.Water <= 0 {
		return setBareC
	}
	return setBareC + setPerPct*100*m.Sugars/(m.Sugars+m.Water)
}

// A component's conductivity k [W/mK], density rho [kg/m³] and heat capacity cp [kJ/kgK] are
// polynomials of the temperature in °C: Choi & Okos 1986, from memory.
type component struct{ k, rho, cp [3]float64 }

var (
	ofWater        = component{[3]float64{.57109, 1.7625e-3, -6.7036e-6}, [3]float64{997.18, 3.1439e-3, -3.7574e-3}, [3]float64{4.1762, -9.0864e-5, 5.4731e-6}}
	ofProtein      = component{[3]float64{.17881, 1.1958e-3, -2.7178e-6}, [3]float64{1329.9, -.51840}, [3]float64{2.0082, 1.2089e-3, -1.3129e-6}}
	ofFat          = component{[3]float64{.18071, -2.7604e-4, -1.7749e-7}, [3]float64{925.59, -.41757}, [3]float64{1.9842, 1.4733e-3, -4.8008e-6}} // a printed version has 2.7604e-3, which takes it to nothing at 65 °C
	ofCarbohydrate = component{[3]float64{.20141, 1.3874e-3, -4.3312e-6}, [3]float64{1599.1, -.31046}, [3]float64{1.5488, 1.9625e-3, -5.9399e-6}}
	ofFibre        = component{[3]float64{.18331, 1.2497e-3, -3.1683e-6}, [3]float64{1311.5, -.36589}, [3]float64{1.8459, 1.8306e-3, -4.6509e-6}}
	ofAsh          = component{[3]float64{.32962, 1.4011e-3, -2.9069e-6}, [3]float64{2423.8, -.28063}, [3]float64{1.0926, 1.8896e-3, -3.6817e-6}}
)

func at(p [3]float64, t float64) float64 { return p[0] + t*(p[1]+t*p[2]) }

// The temperatures beyond which the polynomials are not asked [°C].
const (
	waterMostC = 150
	mostC      = 200
)

// tables hold a matter's figures by whole degrees, for one kg of dry solids and one of water:
// volume [m³], volume times conductivity, and heat capacity [J/kgK].
type tables struct {
	vs, ks, cs, vw, kw, cw [mostC + 2]float64
}

func tabulate(m Matter) *tables {
	t := &tables{}
	dry := m.dry()
	if dry <= 0 {
		dry = 1
	}
	shares := []struct {
		of    component
		share float64
	}{{ofProtein, m.Protein / dry}, {ofFat, m.Fat / dry}, {ofCarbohydrate, m.Carbohydrate / dry}, {ofFibre, m.Fibre / dry}, {ofAsh, m.Ash / dry}}
	for i := range t.vs {
		c := math.Min(float64(i), mostC)
		for _, s := range shares {
			v := s.share / at(s.of.rho, c)
			t.vs[i] += v
			t.ks[i] += v * at(s.of.k, c)
			t.cs[i] += 1000 * s.share * at(s.of.cp, c)
		}
		w := math.Min(c, waterMostC)
		t.vw[i] = 1 / at(ofWater.rho, w)
		t.kw[i] = t.vw[i] * at(ofWater.k, w)
		t.cw[i] = 1000 * at(ofWater.cp, w)
	}
	return t
}

// place finds a temperature in a table: the whole degree below and what is beyond it.
func place(c float64) (int, float64) {
	if !(c > 0) {
		return 0, 0
	}
	if c >= mostC {
		return mostC, 0
	}
	i := int(c)
	return i, c - float64(i)
}

func between(t *[mostC + 2]float64, i int, f float64) float64 { return t[i] + f*(t[i+1]-t[i]) }

// Properties are what matter without gas is at a temperature.
type Properties struct{ K, Rho, Cp float64 } // W/mK, kg/m³, J/kgK

// At returns them for a temperature in °C.
func (m Matter) At(c float64) Properties {
	t := tabulate(m)
	i, f := place(c)
	v := m.dry()*between(&t.vs, i, f) + m.Water*between(&t.vw, i, f)
	if v <= 0 {
		return Properties{}
	}
	kv := m.dry()*between(&t.ks, i, f) + m.Water*between(&t.kw, i, f)
	return Properties{kv / v, (m.dry() + m.Water) / v, m.dry()*between(&t.cs, i, f) + m.Water*between(&t.cw, i, f)}
}

// Physical constants and the steam's two laws.
const (
	latentJ      = 2.257e6  // J/kg, water at 100 °C (steam table)
	meltJ        = 334e3    // J/kg, ice (handbook value)
	gasR         = 8.314    // J/molK
	molarWater   = 0.018015 // kg/mol
	kelvin       = 273.15
	mmHg         = 133.322 // Pa
	sealevelPa   = 101325.0
	smithB       = 0.10  // kg/kg dry: Smith's isotherm near that of starch (modelling choice, from memory)
	driestX      = 0.004 // kg/kg dry, a crust keeps so much water (modelling choice)
	antoineLimit = 100.0 // °C between the two ranges of Antoine's law
)

var antoineLow, antoineHigh = [3]float64{8.07131, 1730.63, 233.426}, [3]float64{8.14019, 1810.94, 244.485} // mmHg, °C (handbook, from memory)

func antoine(p [3]float64, c float64) float64 {
	return mmHg * math.Pow(10, p[0]-p[1]/(p[2]+c))
}

// SaturationPa is the pressure of saturated steam in Pa at a temperature in °C.
func SaturationPa(c float64) float64 {
	if c <= antoineLimit {
		return antoine(antoineLow, c)
	}
	return antoine(antoineHigh, c)
}

// PressureAt is the air's pressure in Pa at an altitude in m (standard atmosphere).
func PressureAt(m float64) float64 {
	return sealevelPa * math.Pow(1-2.25577e-5*m, 5.25588)
}

// BoilsAt is where water boils in °C at an altitude in m.
func BoilsAt(m float64) float64 {
	return antoineLow[1]/(antoineLow[0]-math.Log10(PressureAt(m)/mmHg)) - antoineLow[2]
}

// waterActivity of X kg of water a kg of dry matter.
func waterActivity(x, b float64) float64 { return 1 - math.Exp(-x/b) }

// air is what the room makes of boiling.
type air struct {
	pressurePa float64 // of the room
	boilsC     float64 // water, there
	highPa     float64 // the upper range's pressure at that point, so that free water boils there
	b          float64 // Smith's
	vapour     [mostC + 2]float64
}

func airAt(altitudeM float64) *air {
	a := &air{pressurePa: PressureAt(altitudeM), boilsC: BoilsAt(altitudeM), b: smithB}
	a.highPa = antoine(antoineHigh, a.boilsC)
	for i := range a.vapour {
		a.vapour[i] = a.vapourK(float64(i))
	}
	return a
}

// boils is where a cell with X kg of water a kg of dry matter boils [°C], and how that moves with
// X [K per kg/kg].
func (a *air) boils(x float64) (c, slope float64) {
	x = math.Max(x, driestX)
	e := math.Exp(-x / a.b)
	aw := 1 - e
	denominator := antoineHigh[0] - math.Log10(a.highPa/(mmHg*aw))
	c = antoineHigh[1]/denominator - antoineHigh[2]
	// d/dx of log10(aw) is e/(b·aw·ln 10); the denominator grows with it
	return c, -antoineHigh[1] / (denominator * denominator) * e / (a.b * aw * math.Ln10)
}

// vapourK is how much heat vapour carries through a pore by evaporating here and condensing there,
// as a conductivity in W/mK (de Vries's form, from memory). It is held from 5 K below boiling and
// fades out within 10 K above it, where there is only steam.
func (a *air) vapourK(c float64) float64 {
	fade := 1.0
	if held := a.boilsC - 5; c > held {
		fade = math.Min(1, math.Max(0, (a.boilsC+10-c)/10))
		c = held
	}
	tk := c + kelvin
	d := 2.17e-5 * math.Pow(tk/kelvin, 1.88)
	l := 2.501e6 - 2430*c
	ps := SaturationPa(c)
	slope := ps * math.Ln10 * antoineLow[1] / ((antoineLow[2] + c) * (antoineLow[2] + c))
	return fade * d * molarWater * l / (gasR * tk) * a.pressurePa / (a.pressurePa - ps) * slope
}

// PorousK is the conductivity in W/mK of matter with gas dispersed in it: Maxwell-Eucken, from memory.
func PorousK(matter, gas, share float64) float64 {
	return matter * (2*matter + gas - 2*share*(matter-gas)) / (2*matter + gas + share*(matter-gas))
}
