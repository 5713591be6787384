package food_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	row := func(t testing.TB, g rules.Given) *food.Ingredient {
		in := food.Reference().ByID(g.At(0))
		require.NotNil(t, in, g.At(0))
		return in
	}
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(food.Values),
		"contains": func(t testing.TB, g rules.Given) string {
			if a := row(t, g).Allergens; len(a) > 0 {
				return strings.Join(a, ", ")
			}
			return "-"
		},
		"releases": func(t testing.TB, g rules.Given) string {
			if row(t, g).Release() < 1 {
				return "part"
			}
			return "all"
		},
		"white": func(t testing.TB, g rules.Given) string { return rules.N(row(t, g).White()) },
		"sweet": func(_ testing.TB, g rules.Given) string {
			c := map[string]food.Composition{"sucrose": {Sucrose: 100}, "glucose": {Glucose: 100}, "fructose": {Fructose: 100}, "lactose": {Lactose: 100}, "maltose": {Maltose: 100}, "polyols": {Polyols: 100}}[g.At(0)]
			return rules.N(c.Sweetness() / 100)
		},
		"salt": func(t testing.TB, g rules.Given) string { return rules.N(g.F(t, 0) * food.SaltOnLabel) },
	})
}
