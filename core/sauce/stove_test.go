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

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/sauce"
)

// anyPot draws a pot that can be made; skip tells that this one cannot.
func anyPot(t *rapid.T, shelf []*food.Ingredient) (p sauce.Pot, r sauce.Result, ok bool) {
	p = sauce.Pot{Kind: rapid.SampledFrom(sauce.Kinds()).Draw(t, "kind"), AltitudeM: rapid.Float64Range(0, 2500).Draw(t, "m"), Browned: rapid.Bool().Draw(t, "browned"),
		WideMM: rapid.Float64Range(80, 400).Draw(t, "wide"), EmptyG: rapid.SampledFrom([]float64{0, 900}).Draw(t, "empty")}
	for range rapid.IntRange(1, 6).Draw(t, "n") {
		p.Parts = append(p.Parts, food.Part{Ingredient: rapid.SampledFrom(shelf).Draw(t, "in"), Grams: rapid.Float64Range(5, 800).Draw(t, "g")})
	}
	if rapid.Bool().Draw(t, "aims") {
		p.Target.Brix = rapid.Float64Range(20, 80).Draw(t, "brix")
	}
	if rapid.Bool().Draw(t, "counted") {
		p.Target.Servings, p.Target.ServingG = rapid.IntRange(1, 90).Draw(t, "servings"), rapid.Float64Range(5, 60).Draw(t, "each")
	}
	r, err := sauce.Work(p)
	return p, r, err == nil
}

// By hand: a pot of 160 mm holds 201.06 cm², so 402 ml stand 20 mm deep; 750 W that reach the water boil 20 g a minute off.
func TestAPotByHand(t *testing.T) {
	assert.InDelta(t, 20, sauce.LevelMM(402.12, 160), 0.01)
	assert.InDelta(t, 750.0/2257*60, sauce.RateG(160), 0.3)
	r := work(t, sauce.Pot{Kind: sauce.SugarSyrup, Parts: []food.Part{part("granulated_sugar", 500), part("water", 500)}, Target: sauce.Target{Brix: 70}, EmptyG: 1080})
	d := r.InPot()
	assert.True(t, d.Boils)
	assert.InDelta(t, 1000-500*0.9998/0.7, d.OffG, 0.5, "down to 714 g")
	assert.InDelta(t, d.OffG/20.1, d.Minutes, 0.1)
	assert.Greater(t, d.StartMM, d.StopMM)
	assert.Greater(t, d.HighMM, d.StartMM, "what foams needs room")
	half, err := r.At(sauce.Reading{ScaleG: 1080 + 1000 - d.OffG/2})
	require.NoError(t, err)
	assert.InDelta(t, 0.5, half.Share, 1e-9)
	assert.InDelta(t, d.OffG/2, half.ToGoG, 1e-9)
	assert.Contains(t, half.Says, "min more")
	assert.Equal(t, "still to boil off", half.Head)
	watched := r.Watched()
	assert.InDelta(t, d.OffG, watched.Figure, 1e-9)
	assert.Contains(t, watched.Head, "about 15 min", "286 g at 20 g a minute")
	assert.Contains(t, r.Stops[0].Text, "1794 g", "with the pot: 1080 + 714")
}

// The three devices agree: what one shows of a pot is what the others show of it then.
func TestDevicesAgreeOnAPot(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		sugar, water := rapid.Float64Range(200, 800).Draw(t, "sugar"), rapid.Float64Range(300, 900).Draw(t, "water")
		r, err := sauce.Work(sauce.Pot{Kind: sauce.SugarSyrup, Parts: []food.Part{part("granulated_sugar", sugar), part("water", water)}, Target: sauce.Target{Brix: 78}})
		if err != nil {
			t.Skip()
		}
		share := rapid.Float64Range(0.05, 0.98).Draw(t, "share")
		byScale, err := r.At(sauce.Reading{ScaleG: sugar + water - share*r.InPot().OffG})
		require.NoError(t, err)
		byGlass, err := r.At(sauce.Reading{Brix: *byScale.Brix})
		require.NoError(t, err)
		byProbe, err := r.At(sauce.Reading{TemperatureC: *byScale.BoilsC})
		require.NoError(t, err)
		assert.InDelta(t, byScale.MassG, byGlass.MassG, 1e-6*byScale.MassG)
		assert.InDelta(t, byScale.MassG, byProbe.MassG, 1e-4*byScale.MassG)
		assert.InDelta(t, share, byScale.Share, 1e-9)
	})
}

// Whatever pot stands on the stove: it falls from its start to its stop and never under it without a word; what went too
// far is said with the water that brings it back.
func TestAPotFallsToItsStop(t *testing.T) {
	shelf := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		p, r, ok := anyPot(t, shelf)
		if !ok {
			t.Skip()
		}
		d := r.InPot()
		if !d.Boils {
			_, err := r.At(sauce.Reading{ScaleG: 100})
			var wrong *sauce.Problem
			require.True(t, errors.As(err, &wrong))
			return
		}
		shows := p.EmptyG + d.StopG + d.OffG
		start, err := r.At(sauce.Reading{ScaleG: shows})
		require.NoError(t, err)
		assert.InDelta(t, d.OffG, start.ToGoG, 1e-6)
		stop, err := r.At(sauce.Reading{ScaleG: shows - d.OffG})
		require.NoError(t, err)
		assert.True(t, stop.Done, stop.Says)
		assert.InDelta(t, 1, stop.Share, 1e-9)
		assert.LessOrEqual(t, stop.LevelMM, start.LevelMM+1e-9)
		over := math.Max(5, 0.03*d.StopG)
		if past, err := r.At(sauce.Reading{ScaleG: shows - d.OffG - over}); err == nil {
			assert.Contains(t, past.Says, "stir in")
			assert.Equal(t, "too much is gone", past.Head)
			assert.Positive(t, past.Figure)
			assert.True(t, past.Done)
		}
	})
}

// Every line of a pot is named by its steps, and a sauce of another size is the same sauce.
func TestEveryLineIsInAStep(t *testing.T) {
	shelf := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		_, r, ok := anyPot(t, shelf)
		if !ok {
			t.Skip()
		}
		told := strings.ToLower(strings.Join(r.Steps, " "))
		for _, p := range r.Parts {
			assert.Contains(t, told, strings.ToLower(p.Ingredient.Label()), "%s", r.Kind)
		}
		assert.NotContains(t, told, "  ")
		double, err := r.Of(2 * r.Total.Mass)
		require.NoError(t, err)
		assert.InDelta(t, 2*r.WaterOff, double.WaterOff, 1e-6*math.Max(1, r.WaterOff))
		for i := range r.Parts {
			assert.InDelta(t, 2*r.Parts[i].Grams, double.Parts[i].Grams, 1e-6*r.Parts[i].Grams)
		}
		p := r.Product("x", "X")
		whole := 0.0
		for _, v := range []float64{p.Water, p.Protein, p.Fat, p.Carbohydrate, p.Ash, p.Alcohol} {
			whole += v
		}
		in := food.Whole(r.Parts)
		assert.InDelta(t, 1, whole/100/((in.Water+in.Protein+in.Fat+in.Carbohydrate+in.Ash+in.Alcohol)/in.Mass), 0.2, "a product is as whole as what went in")
		for _, x := range r.Used() {
			for _, a := range x.Allergens {
				assert.Contains(t, p.Allergens, a, "never silent")
			}
		}
	})
}

// What is stirred in off the heat is not in the pot when it is weighed: the steps add up as they stand.
func TestWhatComesLateIsNotWeighed(t *testing.T) {
	r := work(t, sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{part("plum_diced", 900), part("granulated_sugar", 180), part("water", 100), part("lemon_juice", 20)}, Target: sauce.Target{Brix: 32}})
	assert.Equal(t, "Simmer without a lid, stirring, until 869 g are left (311 g of water go); the fruit is soft after 5 to 8 min.", r.Steps[1])
	assert.Equal(t, "Off the heat: stir in 20 g lemon juice.", r.Steps[2])
	assert.InDelta(t, 32, *r.End.Brix, 1e-9, "what was asked for is the finished pot's")
	assert.InDelta(t, 889, r.Total.Mass, 0.5, "its solids over 0.32")
	assert.InDelta(t, 869, r.Stops[0].At, 0.5, "without the 20 g of lemon")
	assert.Equal(t, batter.MadeBefore, r.When)
	weak := r.Stops[len(r.Stops)-2]
	assert.Equal(t, sauce.ByTemperature, weak.By)
	assert.Contains(t, weak.Text, "weak judge", "1 K decides nothing")
}

// Starch waits for the end as well: the weight to simmer down to is that of the pot without it.
func TestStarchIsNotWeighedEither(t *testing.T) {
	r := work(t, sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{part("blueberry_fresh", 500), part("granulated_sugar", 100), part("corn_starch", 12)}, Target: sauce.Target{MassG: 560}})
	assert.InDelta(t, 548, r.Stops[0].At, 1e-9)
	assert.InDelta(t, 560, r.Total.Mass, 1e-9)
	assert.Contains(t, r.Steps[1], "until 548 g are left (52 g of water go)")
}

// A syrup with zest in it is one of sugar, with dried fruit one of fruit; nuts and chocolate make none.
func TestWhichSyrupItIs(t *testing.T) {
	for id, kind := range map[string]sauce.Kind{"orange_zest": sauce.SugarSyrup, "walnuts_chopped": sauce.SugarSyrup, "chocolate_chips": sauce.SugarSyrup,
		"raisins": sauce.FruitSyrup, "blueberry_frozen": sauce.FruitSyrup, "plum_puree": sauce.FruitSyrup} {
		assert.Equal(t, kind, sauce.SyrupOf([]food.Part{part("granulated_sugar", 300), part(id, 20)}), id)
	}
}

// Caramel is watched by its sugar, before anything is poured in.
func TestCaramelIsWatched(t *testing.T) {
	r := work(t, sauce.Pot{Kind: sauce.Caramel, Parts: []food.Part{part("granulated_sugar", 250), part("water", 60), part("vanilla_pod", 3), part("cream_heavy", 110)}})
	assert.Equal(t, sauce.ByTemperature, r.Stops[0].By)
	assert.InDelta(t, 3, r.Sieved, 1e-9, "the pod is taken out")
	for c, says := range map[float64]string{120: "not yet", 164: "nearly", 171: "amber", 183: "bitter", 195: "burnt"} {
		now, err := r.At(sauce.Reading{TemperatureC: c})
		require.NoError(t, err)
		assert.Contains(t, now.Says, says)
		assert.Equal(t, c >= 168, now.Done)
	}
}

// A reading that cannot be is refused at its field.
func TestBadReadings(t *testing.T) {
	r := work(t, sauce.Pot{Kind: sauce.SugarSyrup, Parts: []food.Part{part("granulated_sugar", 300), part("water", 300)}, Target: sauce.Target{Brix: 66}})
	for field, now := range map[string]sauce.Reading{
		"now/scale_g": {ScaleG: 900}, "now": {}, "now/brix": {Brix: 100},
	} {
		_, err := r.At(now)
		var wrong *sauce.Problem
		require.True(t, errors.As(err, &wrong), field)
		assert.Equal(t, field, wrong.Field)
	}
	thin := work(t, sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{part("blueberry_fresh", 300)}})
	_, err := thin.At(sauce.Reading{TemperatureC: 170})
	var wrong *sauce.Problem
	require.True(t, errors.As(err, &wrong))
	assert.Contains(t, wrong.Text, "bottom of the pot")
}

// Eggs that are not boiled are heated, and that is said.
func TestRawEggIsCooked(t *testing.T) {
	r := work(t, sauce.Pot{Kind: sauce.Dairy, Parts: []food.Part{part("quark", 200), part("egg_yolk", 40)}})
	assert.Contains(t, strings.Join(r.Steps, " "), "74 °C")
	assert.Contains(t, strings.Join(r.Cautions, " "), "74 °C")
}

// The curve begins at water and rises.
func TestTheCurve(t *testing.T) {
	curve := sauce.Curve(0)
	assert.InDelta(t, 100, curve[0].BoilsC, 0.01)
	for i := 1; i < len(curve); i++ {
		assert.Greater(t, curve[i].BoilsC, curve[i-1].BoilsC)
	}
}

// A jam sets by its solids, its fruit and its acid: the lemon boils with it, unless there is pectin; and how long it keeps
// goes by what it reads (common practice).
func TestAJam(t *testing.T) {
	jam := func(brix float64, more ...food.Part) sauce.Result {
		return work(t, sauce.Pot{Kind: sauce.Compote, Parts: append([]food.Part{part("strawberry_diced", 1000), part("granulated_sugar", 800), part("lemon_juice", 30)}, more...), Target: sauce.Target{Brix: brix}})
	}
	r := jam(62)
	told := strings.Join(r.Steps, " ")
	assert.Contains(t, r.Steps[0], "lemon juice", "it boils with the fruit")
	assert.NotContains(t, told, "stir in 30 g lemon juice")
	assert.InDelta(t, 62, *r.End.Brix, 1e-9)
	assert.Equal(t, 30, r.KeepDays)
	assert.Contains(t, told, "clean jars")
	assert.Contains(t, told, "104 to 105 °C")
	assert.Equal(t, "sets when it is cold, in a day", r.Texture)
	assert.InDelta(t, 104.5, *r.End.BoilsC, 1.2, "common practice for a jam, and the boiling curve")
	assert.Equal(t, 14, jam(57).KeepDays)
	assert.Equal(t, 5, jam(50).KeepDays)
	if food.Reference().ByID("pectin") != nil {
		with := jam(62, part("pectin", 10))
		assert.Contains(t, strings.Join(with.Steps, " "), "At the very end stir in 30 g lemon juice")
	}
}

// The sugar of a caramel may be stopped where a cook wants it.
func TestACaramelByItsTemperature(t *testing.T) {
	pot := sauce.Pot{Kind: sauce.Caramel, Parts: []food.Part{part("granulated_sugar", 200), part("water", 60), part("cream_heavy", 150)}}
	usual := work(t, pot)
	assert.Contains(t, strings.Join(usual.Steps, " "), "8 to 12 min")
	for c, says := range map[float64]string{160: "straw", 170: "amber", 182: "dark"} {
		pot.Target.TemperatureC = c
		r := work(t, pot)
		assert.Equal(t, c, r.Stops[0].At)
		assert.Contains(t, strings.Join(r.Steps, " "), fmt.Sprintf("Stop at %.0f °C", c))
		assert.Contains(t, r.Stops[0].Text, says)
		assert.InDelta(t, usual.Total.Mass, r.Total.Mass, 1e-9, "the pot at the end is the same")
		now, err := r.At(sauce.Reading{TemperatureC: c})
		require.NoError(t, err)
		assert.True(t, now.Done)
		now, err = r.At(sauce.Reading{TemperatureC: c - 6})
		require.NoError(t, err)
		assert.False(t, now.Done)
	}
	pot.Target.TemperatureC = 120
	_, err := sauce.Work(pot)
	require.ErrorContains(t, err, "between 155 and 190 °C")
}

func TestFruitMinutesPotsAndSpices(t *testing.T) {
	compote := func(id string, wide float64) sauce.Result {
		return work(t, sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{part(id, 500), part("granulated_sugar", 50), part("water", 50), part("cinnamon_stick", food.Reference().ByID("cinnamon_stick").UnitG*2)}, WideMM: wide})
	}
	for id, says := range map[string]string{"raspberry_frozen": "3 to 5 min", "rhubarb_diced": "5 to 8 min", "apple_diced": "10 to 15 min", "pear_diced": "10 to 15 min", "blueberry_fresh": "3 to 5 min"} {
		assert.Contains(t, strings.Join(compote(id, 0).Steps, " "), says, id)
	}
	assert.Contains(t, strings.Join(compote("apple_diced", 0).Steps, " "), "2 cinnamon sticks (")
	small := func(r sauce.Result) bool { return strings.Contains(strings.Join(r.Cautions, " "), "too small a pot") }
	assert.True(t, small(compote("apple_diced", 100)))
	assert.False(t, small(compote("apple_diced", 200)))
	cream := work(t, sauce.Pot{Kind: sauce.Cream, Parts: []food.Part{part("cream_heavy", 250), part("icing_sugar", 20)}})
	assert.Nil(t, cream.Start.BoilsC)
	assert.Nil(t, cream.End.BoilsC)
}
