package lift_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/internal/evidence"
)

var in = food.Reference().ByID

func part(id string, g float64) food.Part { return food.Part{Ingredient: in(id), Grams: g} }

// Stoichiometry and the ideal gas: 291 ml of CO2 a gram of soda where acid meets it.
func TestGasOfSoda(t *testing.T) {
	evidence.Check(t, evidence.Claim{What: "gas of soda where acid meets it, 25 °C, 1 atm", Unit: "ml/g", Kind: evidence.Law, Source: "stoichiometry and the ideal gas", Outside: 291, Ours: lift.SodaGas(1, 1000), Tolerance: 0.5})
	evidence.Check(t, evidence.Claim{What: "CO2 of soda", Unit: "g/g", Kind: evidence.Law, Source: "stoichiometry and the ideal gas", Outside: 0.524, Ours: lift.SodaGas(1, 1000) / 24.47 * 44.01 / 1000, Tolerance: 0.001})
	evidence.Check(t, evidence.Claim{What: "gas of soda without acid, half as much", Unit: "ml/g", Kind: evidence.Law, Source: "stoichiometry and the ideal gas", Outside: 12.2 * 11.903, Ours: lift.SodaGas(1, 0), Tolerance: 0.1})
	assert.InDelta(t, lift.SodaGas(1, 5), 24.47*5+12.2*(11.903-5), 0.1)
}

// One level teaspoon of powder (4.6 g) to a US cup of flour (125 g); powder gives at least 12 % CO2 (US standard of
// identity, from memory).
func TestGasOfPowder(t *testing.T) {
	l := lift.Of([]food.Part{part("plain_flour", 125), part("baking_powder", 4.6)})
	assert.InDelta(t, 266, l.Per100(), 1, "kept value: the powder's CO2 was set so")
	assert.GreaterOrEqual(t, in("baking_powder").CO2, 12.0)
	assert.InDelta(t, 4.6, lift.PowderFor(l.GasML()), 1e-9)
}

func TestSelfRaisingFlourBringsItsOwn(t *testing.T) {
	l := lift.Of([]food.Part{part("self_raising_flour", 250)})
	assert.InDelta(t, 250*0.006/44.01*24470, l.GasML(), 1)
	assert.Greater(t, l.Per100(), 250.0)
}

// Neutralising values, soda per 100 g of acid: cream of tartar 44.6 (handbook 45, from
// memory), citric acid 131 by stoichiometry of the pure acid.
func TestNeutralisingValues(t *testing.T) {
	soda := func(id string) float64 { return 100 * lift.AcidPerGram(in(id)) / lift.MeqPerGram }
	evidence.Check(t, evidence.Claim{What: "soda that 100 g cream of tartar takes", Unit: "g", Kind: evidence.Law, Source: "stoichiometry (handbook 45, from memory)", Outside: 44.6, Ours: soda("cream_of_tartar"), Tolerance: 0.6})
	evidence.Check(t, evidence.Claim{What: "soda that 100 g citric acid takes", Unit: "g", Kind: evidence.Law, Source: "stoichiometry", Outside: 131, Ours: soda("citric_acid"), Tolerance: 1})
}

// Cultured buttermilk at 0.85 % lactic acid: a US cup (245 g) takes 1.94 g soda, 0.42 tsp
// (stoichiometry); common practice: about half a teaspoon a cup.
func TestButtermilkTakesHalfASpoonOfSoda(t *testing.T) {
	l := lift.Of([]food.Part{part("buttermilk_cultured", 245)})
	evidence.Check(t, evidence.Claim{What: "soda that a US cup of buttermilk takes", Unit: "g", Kind: evidence.Law, Source: "stoichiometry, 0.85 % lactic acid; practice: about half a teaspoon", Outside: 1.94, Ours: l.AcidMeq / lift.MeqPerGram, Tolerance: 0.02})
	assert.True(t, l.Sour)
	assert.False(t, lift.Of([]food.Part{part("milk_whole", 400), part("plain_flour", 250)}).Sour, "milk and flour titrate, but are not sour")
}

// A plain milk base shows about 12 meq with nothing sour in it, tang near +1.4 (kept values).
func TestPlainMilkBase(t *testing.T) {
	parts := []food.Part{part("plain_flour", 250), part("milk_whole", 400), part("egg_whole", 100), part("butter_unsalted", 50), part("granulated_sugar", 30)}
	l := lift.Of(parts)
	assert.InDelta(t, 12, l.AcidMeq, 0.5)
	assert.InDelta(t, 1.4, l.Tang(food.Batter(parts).Mass), 0.1)
	assert.True(t, math.IsNaN(l.SodaToAcid()))
}

// ICAO standard atmosphere: 84.56 kPa at 1500 m.
func TestPressure(t *testing.T) {
	evidence.Check(t, evidence.Claim{What: "pressure at 1500 m", Unit: "kPa", Kind: evidence.Published, Source: "ICAO standard atmosphere", Outside: 84.56, Ours: lift.PressureKPa(1500), Tolerance: 0.01})
	evidence.Check(t, evidence.Claim{What: "pressure at sea level", Unit: "kPa", Kind: evidence.Published, Source: "ICAO standard atmosphere", Outside: 101.325, Ours: lift.PressureKPa(0), Tolerance: 1e-9})
	assert.InDelta(t, 101.325/84.56, lift.Expansion(1500), 1e-4)
}

func TestWhatCountsAsFlour(t *testing.T) {
	assert.Positive(t, lift.FlourBody(in("cocoa_natural")))
	assert.Positive(t, lift.FlourBody(in("oats_rolled")))
	assert.Zero(t, lift.FlourBody(in("beetroot_cooked")), "a purée holds no bubbles")
	assert.True(t, lift.IsSoda(in("baking_soda")))
	assert.False(t, lift.IsSoda(in("baking_powder")))
}

func TestFoam(t *testing.T) {
	assert.InDelta(t, lift.Foam([]food.Part{part("egg_whole", 100)}), lift.Foam([]food.Part{part("egg_white", 60)}), 1e-9)
	assert.Zero(t, lift.Foam([]food.Part{part("egg_yolk", 60)}))
}

func TestMoreSodaNeverGivesLessGas(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		soda := rapid.Float64Range(0, 10).Draw(t, "soda")
		more := rapid.Float64Range(0, 5).Draw(t, "more")
		acid := rapid.Float64Range(0, 100).Draw(t, "acid")
		assert.GreaterOrEqual(t, lift.SodaGas(soda+more, acid), lift.SodaGas(soda, acid))
		assert.GreaterOrEqual(t, lift.SodaGas(soda, acid+more), lift.SodaGas(soda, acid))
	})
}
