package batter_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
)

// A flour gives way to flours of the same thickening power, a fat to the same fat.
func TestDrySwapsKeepWhatTheyAreSwappedFor(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		in := rapid.SampledFrom(food.Reference().All()).Draw(t, "in")
		g := rapid.Float64Range(1, 2000).Draw(t, "g")
		for _, s := range batter.DrySwaps(in, g, food.Reference()) {
			require.NotEmpty(t, s.Parts)
			assert.NotEmpty(t, s.Label)
			for _, p := range s.Parts {
				assert.Positive(t, p.Grams)
				assert.True(t, len(s.Parts) > 1 || in.ID != p.Ingredient.ID, "not by itself")
			}
			whole := food.Whole(s.Parts)
			switch {
			case in.Group == food.GroupFlour:
				assert.InEpsilon(t, g*in.Body, flow.Of(s.Parts).Body, 1e-9)
			case in.Role == food.RoleFat:
				assert.InEpsilon(t, g*in.Fat/100, whole.Fat, 1e-9)
			default:
				assert.Equal(t, "egg_whole", in.ID)
				assert.NotContains(t, strings.Join(allergens(s), " "), "egg")
			}
		}
	})
}

func allergens(s batter.Swap) []string {
	var out []string
	for _, p := range s.Parts {
		out = append(out, p.Ingredient.Allergens...)
	}
	return out
}

func TestTheMixWithoutGlutenHasNone(t *testing.T) {
	table := food.Reference()
	found := false
	for _, s := range batter.DrySwaps(table.ByID("plain_flour"), 250, table) {
		if strings.Contains(s.Label, "no gluten") {
			found = true
			assert.NotContains(t, allergens(s), "wheat")
			assert.InDelta(t, 0.7/0.3, s.Parts[0].Grams/s.Parts[1].Grams, 1e-9)
		}
	}
	assert.True(t, found)
	for _, s := range batter.DrySwaps(table.ByID("self_raising_flour"), 250, table) {
		powder := s.Parts[len(s.Parts)-1]
		assert.Equal(t, "baking_powder", powder.Ingredient.ID, "the lift comes along")
		assert.InDelta(t, 11.5, powder.Grams, 1e-9, "4.6 % of 250 g: the table's own note")
	}
	assert.Empty(t, batter.DrySwaps(table.ByID("baking_powder"), 10, table))
	assert.Empty(t, batter.DrySwaps(table.ByID("plain_flour"), 250, &food.Table{}), "nothing that is not on the shelf")
}
