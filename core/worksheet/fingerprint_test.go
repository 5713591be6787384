package worksheet_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
)

func printOf(t require.TestingT, v batter.Variation) worksheet.Fingerprint {
	f, err := worksheet.FingerprintOf(context.Background(), v, batter.DefaultKitchen())
	require.NoError(t, err)
	return f
}

func ratio(t require.TestingT, f worksheet.Fingerprint, key string) worksheet.Ratio {
	for _, r := range f.Ratios {
		if r.Key == key {
			return r
		}
	}
	require.Fail(t, "no ratio "+key)
	return worksheet.Ratio{}
}

// Baker's percentages by hand: 400 g milk, 100 g egg, 50 g butter and 30 g sugar on 250 g flour;
// L* is the design's worked 1.99.
func TestFingerprintByHand(t *testing.T) {
	f := printOf(t, worked(add("beetroot_cooked", 200, batter.StageBatter)))
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

// Taking the egg out costs structure, and the choice says how much.
func TestSwapsTellWhatTheyCost(t *testing.T) {
	table := food.Reference()
	swaps, err := worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "egg", table)
	require.NoError(t, err)
	require.NotEmpty(t, swaps)
	for _, s := range swaps {
		assert.Contains(t, s.Says, "structure falls from", s.Label)
	}
	swaps, err = worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "butter", table)
	require.NoError(t, err)
	for _, s := range swaps {
		assert.NotContains(t, s.Says, "structure", "a fat holds nothing together")
	}
	swaps, err = worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "flour", table)
	require.NoError(t, err)
	said := fmt.Sprint(swaps)
	assert.Contains(t, said, "no gluten")
	assert.Contains(t, said, "thickens like the 250 g there were")
	milk, err := worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "milk", table)
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(milk), "meq of acid", "milk keeps its own swaps")
}

// Two bases whose lines have other ids are still set side by side by what they are.
func TestCompareByIngredientWhenIdsDiffer(t *testing.T) {
	a, b := worked(), worked()
	for i := range b.Base.Lines {
		b.Base.Lines[i].ID = fmt.Sprintf("other%d", i)
	}
	b.Base.Lines[1].Amount = 420
	b.Base.Lines = append(b.Base.Lines, line("more", "plain_flour", 20, "g"))
	rows := worksheet.Compare(work(t, a), work(t, b))
	require.Len(t, rows, 6)
	assert.Equal(t, worksheet.Same, rows[0].Change)
	assert.Equal(t, worksheet.MoreOf, rows[1].Change)
	assert.Equal(t, worksheet.NewLine, rows[5].Change, "a second line of flour is a line of its own")
}
