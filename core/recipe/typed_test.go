package recipe_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
)

func TestAmountsAsTheyAreTyped(t *testing.T) {
	for text, want := range map[string]struct {
		amount float64
		unit   measure.Unit
	}{
		"200": {200, ""}, "0,5": {0.5, ""}, "1½": {1.5, ""}, "200g": {200, measure.Gram}, "200 G": {200, measure.Gram}, "1 1/2 cups": {1.5, measure.Cup}, "1½ cups": {1.5, measure.Cup},
		"2 Tbsp": {2, measure.Tbsp}, "2 tbsp.": {2, measure.Tbsp}, "½ tsp": {0.5, measure.Tsp}, "0.2 kg": {0.2, "kg"}, "250ml": {250, measure.Ml}, "3 oz": {3, "oz"},
		// as they are read in a recipe
		"1 lb 2 oz": {18, "oz"}, "1 kg 250 g": {1250, measure.Gram}, "1 stick": {113, measure.Gram}, "1½ sticks": {169.5, measure.Gram}, "2 c. à s.": {2, measure.Tbsp}, "1 c. à c.": {1, measure.Tsp}, "2 EL": {2, measure.Tbsp}, "1 cda": {1, measure.Tbsp},
		"1.250 kg": {1.25, "kg"}, "1.250,5 g": {1250.5, measure.Gram}, "0.125": {0.125, ""}, "0,125 l": {0.125, "l"}, "1.250.000": {1250000, ""},
	} {
		v, unit, err := recipe.ReadAmount(text)
		require.NoError(t, err, text)
		assert.InDelta(t, want.amount, v, 1e-9, text)
		assert.Equal(t, want.unit, unit, text)
	}
	for _, text := range []string{"", "x", "some", "200 g milk", "2 or 3 cups", "1,000", "-3", "2-3 g", "1e400", "a pinch or two"} {
		_, _, err := recipe.ReadAmount(text)
		assert.Error(t, err, text)
	}
	for text, unit := range map[string]measure.Unit{"1,250": "", "1.250": "", "1.250 g": measure.Gram, "1,250 ml": measure.Ml} {
		_, _, err := recipe.ReadAmount(text)
		var two *recipe.TwoReadings
		require.ErrorAs(t, err, &two, text)
		assert.Equal(t, recipe.TwoReadings{Small: 1.25, Large: 1250, Unit: unit}, *two, text)
	}
}

// A thousand and a bit, or one and a bit: whoever wrote it knows. Of salt and powders the little is likelier, of the rest the much.
func TestThousandsAreAsked(t *testing.T) {
	for text, want := range map[string]struct {
		amount float64
		asks   string
	}{
		"1.250 g flour": {1250, "Is it 1250 g, or 1.25 g?"}, "1,250 g flour": {1250, "Is it 1250 g, or 1.25 g?"}, "1.500 ml milk": {1500, "Is it 1500 ml, or 1.5 ml?"},
		"5.125 g salt": {5.125, "Is it 5.125 g, or 5125 g?"}, "1.250 kg flour": {1.25, ""}, "1,250 l milk": {1.25, ""}, "1.250,5 g flour": {1250.5, ""}, "0.125 l milk": {0.125, ""},
		"1 lb 2 oz flour": {18, ""}, "2 kg 250 g flour": {2250, ""}, "1 lb, 4 eggs": {1, "x"},
	} {
		r := listed(text)
		if want.asks == "x" { // a pound of what, and eggs: two things
			assert.Len(t, r.Lines, 2, text)
			continue
		}
		require.Len(t, r.Lines, 1, text)
		assert.InDelta(t, want.amount, r.Lines[0].Amount, 1e-9, text)
		assert.Equal(t, want.asks, r.Lines[0].Asks, text)
		if want.asks != "" {
			assert.Equal(t, recipe.Unsure, r.Lines[0].Status, text)
			require.NotNil(t, r.Lines[0].Suggests, text)
		}
	}
}

func FuzzReadAmount(f *testing.F) {
	f.Add("1 1/2 cups")
	f.Add("200g")
	f.Fuzz(func(t *testing.T, text string) {
		if v, _, err := recipe.ReadAmount(text); err == nil && !(v >= 0 && v < 1e300) {
			t.Fatalf("%q is %g", text, v)
		}
	})
}

// Thousands stand in ranges, in brackets, in sums and on packs as well: nowhere is a kilogram read as a gram without a word.
func TestThousandsWhereverTheyStand(t *testing.T) {
	for text, want := range map[string]struct {
		amount float64
		unit   measure.Unit
		asks   string
	}{
		"1.250-1.500 g flour":               {1375, measure.Gram, "Is it 1375 g, or 1.375 g?"},
		"900-1.100 g flour":                 {1000, measure.Gram, ""},
		"8 cups (1.000 g) flour":            {1000, measure.Gram, "Is it 1000 g, or 1 g?"},
		"1.000 g plus 250 g flour":          {1250, measure.Gram, "Is it 1250 g, or 251 g?"},
		"2 x 1.000 g bags flour":            {2000, measure.Gram, ""},
		"1 bag (1.000 g) flour":             {1000, measure.Gram, ""},
		"a 1.000 g bag of flour":            {1000, measure.Gram, "Is it 1000 g, or 1 g?"},
		"flour, 1.250 g":                    {1250, measure.Gram, "Is it 1250 g, or 1.25 g?"},
		"Flour: 1.250 g":                    {1250, measure.Gram, "Is it 1250 g, or 1.25 g?"},
		"1.000 g flour, or 2.2 lb":          {1000, measure.Gram, "Is it 1000 g, or 1 g?"},
		"1'000 g flour":                     {1000, measure.Gram, ""},
		"1 1/2 lb 2 oz flour":               {26, "oz", ""},
		"2.500 g baking powder":             {2.5, measure.Gram, "Is it 2.5 g, or 2500 g?"},
		"1.250 g (2 lb 12 oz) flour":        {1250, measure.Gram, ""},
		"about 1.250 ml milk, warm":         {1250, measure.Ml, "Is it 1250 ml, or 1.25 ml?"},
		"3 large eggs, 1.250 g in all":      {3, measure.Each, ""},
		"1 kg 250 g (about 2.750 lb) flour": {1250, measure.Gram, ""},
	} {
		r := listed(text)
		if !assert.NotEmpty(t, r.Lines, text) {
			continue
		}
		l := r.Lines[0]
		assert.InDelta(t, want.amount, l.Amount, 1e-6, text)
		assert.Equal(t, want.unit, l.Unit, text)
		assert.Equal(t, want.asks, l.Asks, text)
		assert.Equal(t, want.asks != "", l.Status == recipe.Unsure, text)
	}
}
