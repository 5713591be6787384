package document_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/document"
)

// variationOf writes "plain_flour 250, milk_whole 390" as a document with the usual wishes.
func variationOf(t require.TestingT, base, additions string) document.Variation {
	lines := func(s string) (out []document.Line) {
		for part := range strings.SplitSeq(s, ", ") {
			if part == "" {
				continue
			}
			var id string
			var g float64
			_, err := fmt.Sscan(part, &id, &g)
			require.NoError(t, err, part)
			out = append(out, document.Line{Ingredient: id, Amount: &g, Unit: "g"})
		}
		return out
	}
	v := document.Variation{
		Format: document.VariationFormat, Version: document.Version, Name: "Hard", Form: string(batter.Pancake),
		Base: &document.BasePart{Name: "Hard", Lines: lines(base)},
	}
	for _, l := range lines(additions) {
		v.Additions = append(v.Additions, document.Addition{Line: l})
	}
	return v
}

func answer(t *testing.T, v document.Variation) string {
	t.Helper()
	text, err := v.Encode()
	require.NoError(t, err)
	out, err := document.Work(context.Background(), text, setting)
	require.NoError(t, err)
	return string(out)
}

// Recipes that once took the program down, or ran away with its memory.
func TestHardRecipesAreAnswered(t *testing.T) {
	for name, v := range map[string]document.Variation{
		"fat and flour that chase each other": variationOf(t, "tapioca_starch 5, skim_milk_powder 100, butter_unsalted 1000, oats_rolled 20", "ginger_crystallised 5, corn_starch 100"),
		"a purée for a base":                  variationOf(t, "cherry_puree 100, corn_starch 20, butter_salted 500", "blueberry_frozen 100, apricot_dried_diced 20"),
		"hardly any flour":                    variationOf(t, "plain_flour 0.2", "beetroot_cooked 50"),
		"curd for a liquid":                   variationOf(t, "plain_flour 60, cottage_cheese 300, egg_whole 150, granulated_sugar 25, baking_powder 4, salt_fine 1", "peanut_powder 80"),
	} {
		for _, strategy := range batter.Strategies {
			v.Offset = &document.Offset{Strategy: string(strategy), Hold: []string{"thickness", "sweetness", "lift", "tang", "salt", "fat", "structure", "batch_size"}}
			assert.False(t, strings.Contains(answer(t, v), "NaN"), name)
		}
	}
	for _, flour := range food.Reference().Shelf(food.GroupFlour) {
		answer(t, variationOf(t, flour.ID+" 250", ""))
		answer(t, variationOf(t, flour.ID+" 250", "banana_mashed 100"))
	}
	v := variationOf(t, "plain_flour 250, milk_whole 390, egg_whole 100, butter_unsalted 40, granulated_sugar 25, baking_powder 10, salt_fine 2.5", "banana_mashed 300")
	v.Offset = &document.Offset{Strategy: "build_up_flour", Hold: []string{"batch_size", "sweetness", "lift"}}
	assert.True(t, strings.Contains(answer(t, v), `"weigh_g":88`), "flour keeps 35 % of its base")
	v.Offset.AllowLow = []string{"flour"}
	assert.False(t, strings.Contains(answer(t, v), `"weigh_g":88`))
}

// A bowl beyond all portions is answered with a sentence in the place of its pieces.
func TestABowlOfMillionsOfPortions(t *testing.T) {
	v := variationOf(t, "plain_flour 100000", "")
	for range 198 {
		v.Base.Lines = append(v.Base.Lines, v.Base.Lines[0])
	}
	v.Additions = variationOf(t, "", "poppy_seeds 100000").Additions
	ml := 5.0
	v.Portion = &document.Portion{VolumeML: &ml}
	out := answer(t, v)
	assert.True(t, strings.Contains(out, "pieces and plates are worked out up to 5000"))
	assert.False(t, strings.Contains(out, `"inclusions"`))
	_, err := document.Simulate(context.Background(), document.SimulationWish{Variation: &v, Bowls: 5}, setting)
	assert.ErrorContains(t, err, "Take a larger ladle")

	v = variationOf(t, "plain_flour 20000, milk_whole 40000", "poppy_seeds 5000")
	_, err = document.Simulate(context.Background(), document.SimulationWish{Variation: &v, Bowls: 5000}, setting)
	assert.ErrorContains(t, err, "at most 2 bowls")
	gone, cancel := context.WithCancel(context.Background())
	cancel()
	_, err = document.Simulate(gone, document.SimulationWish{Variation: &v, Bowls: 1}, setting)
	assert.ErrorIs(t, err, context.Canceled, "nobody waits for it any more")
}

// BenchmarkTwoHundredLines is the largest document that is taken.
func BenchmarkTwoHundredLines(b *testing.B) {
	v := variationOf(b, "plain_flour 100000", "")
	for i := range 150 {
		id := []string{"milk_whole", "granulated_sugar", "butter_unsalted", "plain_flour", "baking_powder"}[i%5]
		v.Base.Lines = append(v.Base.Lines, variationOf(b, id+" 100000", "").Base.Lines...)
	}
	for i, in := range food.Reference().All() {
		if i < 49 {
			v.Additions = append(v.Additions, variationOf(b, "", fmt.Sprint(in.ID, " 100000")).Additions...)
		}
	}
	text, err := v.Encode()
	require.NoError(b, err)
	for b.Loop() {
		_, err := document.Work(context.Background(), text, setting)
		require.NoError(b, err)
	}
}
