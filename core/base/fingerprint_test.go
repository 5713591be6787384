package base_test

import (
	"context"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/base"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/worksheet"
)

var in = food.Reference().ByID

func line(id, ingredient string, amount float64, unit measure.Unit) batter.Line {
	return batter.Line{ID: id, Ingredient: in(ingredient), Amount: amount, Unit: unit, Role: in(ingredient).Role}
}

// worked is the worked base of docs/maths.md section 6.
func worked(additions ...batter.Addition) batter.Variation {
	return batter.Variation{
		Name: "Worked", Form: batter.Pancake, Additions: additions, Portion: batter.Portion{VolumeML: 60},
		Base: batter.Base{Name: "Plain", Lines: []batter.Line{
			line("flour", "plain_flour", 250, measure.Gram), line("milk", "milk_whole", 400, measure.Gram), line("egg", "egg_whole", 2, measure.Each),
			line("butter", "butter_unsalted", 50, measure.Gram), line("sugar", "granulated_sugar", 30, measure.Gram),
		}},
	}
}

func printOf(t require.TestingT, v batter.Variation) base.Fingerprint {
	f, err := base.FingerprintOf(context.Background(), v, batter.DefaultKitchen())
	require.NoError(t, err)
	return f
}

func ratio(t require.TestingT, f base.Fingerprint, key string) base.Ratio {
	for _, r := range f.Ratios {
		if r.Key == key {
			return r
		}
	}
	require.Fail(t, "no ratio "+key)
	return base.Ratio{}
}

// Baker's percentages by hand: 400 g milk, 100 g egg, 50 g butter and 30 g sugar on 250 g flour;
// L* is the 1.99 that was worked by hand.
func TestFingerprintByHand(t *testing.T) {
	f := printOf(t, worked(batter.Addition{Line: line("beetroot", "beetroot_cooked", 200, measure.Gram), Stage: batter.StageBatter}))
	for key, want := range map[string]float64{"liquid": 160, "egg": 40, "fat": 20, "sugar": 12, "salt": 0} {
		assert.InDelta(t, want, ratio(t, f, key).Value, 1e-9, key)
	}
	assert.InDelta(t, 1.99, ratio(t, f, worksheet.Thickness).Value, 0.01, "what was added is not the base's")
	assert.Equal(t, 250.0, f.FlourG)
	assert.Equal(t, worksheet.Low, ratio(t, f, "salt").State)
	assert.Contains(t, strings.Join(f.Sentences, " "), "Salt is low for this flour")
	assert.Equal(t, "standard", f.Class)
}

// Twice the batch has the same fingerprint.
func TestFingerprintDoesNotDependOnTheBatch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		k := rapid.Float64Range(0.2, 20).Draw(t, "times")
		a := worked()
		b := worked()
		for i := range b.Base.Lines {
			b.Base.Lines[i].Amount *= k
		}
		fa, fb := printOf(t, a), printOf(t, b)
		require.Len(t, fb.Ratios, len(fa.Ratios))
		for i, r := range fa.Ratios {
			assert.InDelta(t, r.Value, fb.Ratios[i].Value, 1e-6*math.Max(1, math.Abs(r.Value)), r.Name)
			assert.Equal(t, r.State, fb.Ratios[i].State)
		}
		assert.Equal(t, fa.Sentences, fb.Sentences)
	})
}

func TestSodaAgainstAcidAndTooMuchOfIt(t *testing.T) {
	v := worked()
	v.Base.Lines = append(v.Base.Lines, line("soda", "baking_soda", 10, "g"))
	f := printOf(t, v)
	soda := ratio(t, f, "soda")
	assert.Greater(t, soda.Value, 1.1)
	assert.Equal(t, worksheet.High, soda.State)
	assert.Contains(t, strings.Join(f.Sentences, " "), "Soda against acid is high")
	for _, r := range printOf(t, worked()).Ratios {
		assert.NotEqual(t, "soda", r.Key, "without soda there is nothing to say")
	}
}

func TestAStyleHasItsOwnUsual(t *testing.T) {
	v := worked()
	v.Base.Lines[1].Ingredient, v.Base.Lines[1].Amount = in("buttermilk_cultured"), 480
	assert.Equal(t, worksheet.High, ratio(t, printOf(t, v), "liquid").State)
	v.Base.Style = "cultured"
	assert.Equal(t, worksheet.InBand, ratio(t, printOf(t, v), "liquid").State, "buttermilk is thicker than milk")
}
