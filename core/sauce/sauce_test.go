package sauce_test

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/core/sauce"
	"upbeatladle/internal/evidence"
)

func part(id string, g float64) food.Part {
	return food.Part{Ingredient: food.Reference().ByID(id), Grams: g}
}

func work(t testing.TB, p sauce.Pot) sauce.Result {
	t.Helper()
	r, err := sauce.Work(p)
	require.NoError(t, err)
	return r
}

// The boiling points of sugar in water, as GNU units tabulates Starzak and Peacock's equation: within 0.3 K to 80 °Brix.
func TestSugarBoilsAsPublished(t *testing.T) {
	for brix, above := range map[float64]float64{
		20: 0.3936, 30: 0.7027, 40: 1.1475, 50: 1.8249, 56: 2.4200, 60: 2.9400, 65: 3.7944, 70: 4.9905, 72: 5.6075, 75: 6.7417, 78: 8.2155, 80: 9.4578, 85: 13.9982, 90: 22.3564,
	} {
		r := work(t, sauce.Pot{Kind: sauce.SugarSyrup, Parts: []food.Part{part("granulated_sugar", 300), part("water", 2000)}, Target: sauce.Target{Brix: brix}})
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("sugar and water boil at %g °Brix", brix), Unit: "°C", Kind: evidence.Published,
			Source: "Starzak and Peacock, as GNU units carries it", Tie: evidence.Copied, Outside: 100 + above, Ours: *r.End.BoilsC, Tolerance: map[bool]float64{true: 0.3, false: 1}[brix <= 80]})
		assert.InDelta(t, brix, *r.End.Brix, 0.01)
	}
}

// Water boils lower on a mountain, and so does a syrup.
func TestBoilingFollowsAltitude(t *testing.T) {
	pot := sauce.Pot{Kind: sauce.SugarSyrup, Parts: []food.Part{part("granulated_sugar", 700), part("water", 300)}, Target: sauce.Target{MassG: 1000}}
	sea := *work(t, pot).End.BoilsC
	pot.AltitudeM = 1600
	high := *work(t, pot).End.BoilsC
	assert.InDelta(t, 5.3, sea-high, 0.4, "water boils at about 94.7 °C at 1600 m")
}

// By hand: 300 g of sugar and 200 g of water at 70 °Brix are 300/0.7 g.
func TestASyrupByHand(t *testing.T) {
	r := work(t, sauce.Pot{Kind: sauce.SugarSyrup, Parts: []food.Part{part("granulated_sugar", 300), part("water", 200)}, Target: sauce.Target{Brix: 70}})
	assert.InDelta(t, 300*0.9998/0.7, r.Total.Mass, 0.5)
	assert.InDelta(t, 500-r.Total.Mass, r.WaterOff, 1e-9)
	assert.Equal(t, 21, r.Servings)
	assert.InDelta(t, 14, r.SugarsG, 0.1, "20 g of 70 °Brix")
	forty := work(t, sauce.Pot{Kind: sauce.SugarSyrup, Parts: r.Parts, Target: sauce.Target{Servings: 40, ServingG: 25}})
	assert.InDelta(t, 1000, forty.Total.Mass, 1e-6, "40 servings of 25 g")
	assert.InDelta(t, 1.5, forty.Parts[0].Grams/forty.Parts[1].Grams, 1e-9)
}

// By hand: cream of twice the volume; butter without its water; caramel by its water.
func TestCreamButterCaramel(t *testing.T) {
	cream := work(t, sauce.Pot{Kind: sauce.Cream, Parts: []food.Part{part("cream_heavy", 500), part("granulated_sugar", 40)}, Overrun: 100})
	assert.InDelta(t, 2*cream.Start.VolumeML, cream.End.VolumeML, 1e-9)
	assert.InDelta(t, 540, cream.Total.Mass, 1e-9)
	butter := food.Reference().ByID("butter_unsalted")
	brown := work(t, sauce.Pot{Kind: sauce.Butter, Browned: true, Parts: []food.Part{{Ingredient: butter, Grams: 250}}})
	assert.InDelta(t, 250*(1-butter.Water/100), brown.Total.Mass, 1e-9, "only its water goes: the solids stay")
	sauced := work(t, sauce.Pot{Kind: sauce.Caramel, Parts: []food.Part{part("granulated_sugar", 200), part("cream_heavy", 200), part("butter_unsalted", 40)}})
	assert.Contains(t, sauced.Texture, "pourable")
	assert.Contains(t, strings.Join(sauced.Cautions, " "), "foam")
	dry := work(t, sauce.Pot{Kind: sauce.Caramel, Parts: []food.Part{part("granulated_sugar", 200), part("water", 60)}})
	assert.Contains(t, dry.Texture, "brittle")
	assert.InDelta(t, 60, dry.WaterOff, 0.1)
	for _, r := range []sauce.Result{sauced, dry} {
		assert.Contains(t, strings.Join(r.Cautions, " "), "burn deeper than water")
	}
}

// More sugar and more time draw more juice, never more than half.
func TestSugarDrawsJuice(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s, m := rapid.Float64Range(0, 2).Draw(t, "sugar"), rapid.Float64Range(0, 600).Draw(t, "minutes")
		assert.LessOrEqual(t, sauce.Drawn(s, m), sauce.Drawn(s+0.1, m))
		assert.LessOrEqual(t, sauce.Drawn(s, m), sauce.Drawn(s, m+5))
		assert.True(t, sauce.Drawn(s, m) >= 0 && sauce.Drawn(s, m) <= 0.5)
	})
	r := work(t, sauce.Pot{Kind: sauce.Macerated, Parts: []food.Part{part("blueberry_fresh", 400), part("granulated_sugar", 60)}})
	assert.InDelta(t, 460, r.Total.Mass, 1e-9)
	assert.True(t, r.JuiceG > 60 && r.JuiceG < 300)
}

// What is asked beyond what there is gets a sentence.
func TestBadPots(t *testing.T) {
	sugar, water := part("granulated_sugar", 300), part("water", 200)
	for name, p := range map[string]sauce.Pot{
		"101 °Brix":               {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{Brix: 101}},
		"less than is dry":        {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{MassG: 200}},
		"more than goes in":       {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{MassG: 600}},
		"thinner by boiling":      {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{Brix: 20}},
		"hot without sugar":       {Kind: sauce.Compote, Parts: []food.Part{part("water", 300)}, Target: sauce.Target{TemperatureC: 120}},
		"cream without fat":       {Kind: sauce.Cream, Parts: []food.Part{part("milk_whole", 300)}},
		"butter that is none":     {Kind: sauce.Butter, Parts: []food.Part{sugar}},
		"a syrup without sugar":   {Kind: sauce.SugarSyrup, Parts: []food.Part{water}},
		"fruit syrup, no fruit":   {Kind: sauce.FruitSyrup, Parts: []food.Part{sugar, water}},
		"two targets":             {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{Brix: 70, MassG: 300}},
		"nothing":                 {Kind: sauce.Compote},
		"servings without grams":  {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{Servings: 3}},
		"a burnt one":             {Kind: sauce.Caramel, Parts: []food.Part{sugar}, Target: sauce.Target{TemperatureC: 260}},
		"colder than it can boil": {Kind: sauce.SugarSyrup, Parts: []food.Part{sugar, water}, Target: sauce.Target{TemperatureC: 100}},
	} {
		_, err := sauce.Work(p)
		var wrong *sauce.Problem
		require.True(t, errors.As(err, &wrong), name)
		assert.True(t, strings.HasSuffix(wrong.Text, "."), wrong.Text)
	}
}

// Whatever goes into whatever pot: what goes in is what comes out, the sieve and the steam; nothing else is made or lost.
func TestAnyPotIsAMassBalance(t *testing.T) {
	shelf := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		p := sauce.Pot{Kind: rapid.SampledFrom(sauce.Kinds()).Draw(t, "kind"), AltitudeM: rapid.Float64Range(0, 3000).Draw(t, "m"), Browned: rapid.Bool().Draw(t, "browned"), Minutes: rapid.Float64Range(0, 200).Draw(t, "min")}
		in := 0.0
		for range rapid.IntRange(1, 6).Draw(t, "n") {
			x := food.Part{Ingredient: rapid.SampledFrom(shelf).Draw(t, "in"), Grams: rapid.Float64Range(1, 800).Draw(t, "g")}
			p.Parts = append(p.Parts, x)
			in += x.Grams
		}
		switch rapid.IntRange(0, 4).Draw(t, "target") {
		case 1:
			p.Target.Brix = rapid.Float64Range(1, 99).Draw(t, "brix")
		case 2:
			p.Target.MassG = rapid.Float64Range(1, in).Draw(t, "mass")
		case 3:
			p.Target.TemperatureC = rapid.Float64Range(90, 180).Draw(t, "c")
		case 4:
			p.Target.Servings, p.Target.ServingG = rapid.IntRange(1, 60).Draw(t, "servings"), rapid.Float64Range(5, 80).Draw(t, "each")
		}
		r, err := sauce.Work(p)
		var wrong *sauce.Problem
		if err != nil {
			require.True(t, errors.As(err, &wrong), "%v", err)
			return
		}
		whole := 0.0
		for _, x := range r.Parts {
			whole += x.Grams
		}
		assert.InDelta(t, 0, (whole-r.Total.Mass-r.WaterOff-r.Sieved)/whole, 1e-9)
		assert.GreaterOrEqual(t, r.Total.Water, -1e-6)
		assert.GreaterOrEqual(t, r.WaterOff, -1e-9)
		assert.False(t, math.IsNaN(r.End.VolumeML) || r.End.BoilsC != nil && math.IsNaN(*r.End.BoilsC))
		if p.Target.Servings > 0 {
			assert.InDelta(t, float64(p.Target.Servings)*p.Target.ServingG, r.Total.Mass, 1e-6*r.Total.Mass)
		}
		assert.NotEmpty(t, r.Steps)
		assert.NotEmpty(t, r.Stops)
		assert.NotEmpty(t, r.Cautions)
		for _, s := range append(r.Steps, r.Texture) {
			assert.NotContains(t, s, "NaN")
			assert.NotContains(t, s, "%!")
		}
	})
}

func BenchmarkPot(b *testing.B) {
	p := sauce.Pot{Kind: sauce.FruitSyrup, Parts: []food.Part{part("blueberry_fresh", 800), part("granulated_sugar", 300), part("lemon_juice", 20)}, Target: sauce.Target{TemperatureC: 104}}
	for b.Loop() {
		if _, err := sauce.Work(p); err != nil {
			b.Fatal(err)
		}
	}
}
