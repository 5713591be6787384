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
	} {
		v, unit, err := recipe.ReadAmount(text)
		require.NoError(t, err, text)
		assert.InDelta(t, want.amount, v, 1e-9, text)
		assert.Equal(t, want.unit, unit, text)
	}
	for _, text := range []string{"", "x", "some", "200 g milk", "2 or 3 cups", "1,000", "-3", "2-3 g", "1e400", "a pinch or two"} {
		_, _, err := recipe.ReadAmount(text)
		assert.ErrorIs(t, err, measure.ErrAmount, text)
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
