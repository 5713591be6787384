package worksheet_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// By hand: what goes on a portion counts in its label, gram by gram; the batter knows nothing of it.
func TestAServingWithWhatGoesOn(t *testing.T) {
	ref := food.Reference()
	syrup, butter, nuts := ref.ByID("maple_syrup"), ref.ByID("butter_unsalted"), ref.ByID("walnuts_chopped")
	v := hatch()
	bare := work(t, v)
	v.Beside = []batter.Beside{
		{Place: batter.OnTop, Text: "Maple syrup, a drizzle of 20 g", Uses: []*food.Ingredient{syrup}, EachG: 20},
		{Place: batter.OnTop, Text: "Butter and walnuts, 12 g", Uses: []*food.Ingredient{butter, nuts}, Grams: []float64{20, 10}, EachG: 12},
		{Place: batter.Serving, Text: "50 g honey on the table", Uses: []*food.Ingredient{ref.ByID("honey")}, Grams: []float64{50}},
	}
	w := work(t, v)
	hand := func(of func(*food.Ingredient) float64) float64 {
		return 0.20*of(syrup) + 0.08*of(butter) + 0.04*of(nuts)
	}
	was, is := bare.NutritionPerPortion, w.NutritionPerPortion
	assert.InDelta(t, was.Sugars+hand(func(in *food.Ingredient) float64 { return in.Sugars }), is.Sugars, 1e-9)
	assert.InDelta(t, was.Fat+hand(func(in *food.Ingredient) float64 { return in.Fat }), is.Fat, 1e-9)
	assert.InDelta(t, was.EnergyKcal+hand(func(in *food.Ingredient) float64 { return in.Energy }), is.EnergyKcal, 1e-9)
	assert.Equal(t, bare.Gauges, w.Gauges, "the batter knows nothing of it")
	require.NotNil(t, w.Served)
	assert.InDelta(t, 32, w.Served.ToppingsG, 1e-9, "what nobody said how much of does not count")
	assert.InDelta(t, is.Sugars, w.Served.SugarsG, 1e-9)
	assert.Contains(t, w.Served.Text, "g of sugar a serving")
	assert.Positive(t, w.Served.HoldBackG)
	assert.Contains(t, w.Allergens, "walnut")
	assert.Contains(t, w.AllergenText, "walnut", "never silent")
	assert.Nil(t, bare.Served)
}
