package mixing_test

import (
	"testing"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/mixing"
	"upbeatladle/internal/rules"
)

// Values of practice, one row each.
func TestRules(t *testing.T) {
	// 250 g of flour, L* 2.0
	bowl := mixing.Recipe{
		Items: []mixing.Item{{Role: food.RoleFlour, Label: "Flour", Ingredient: food.Reference().ByID("plain_flour"), IntoG: 250, Step: 1}}, Thickness: flow.Thickness{Liquid: 500, Body: 250}, MassG: 800,
	}
	thin := func(t testing.TB, r mixing.Recipe, g rules.Given) string {
		return mixing.TooThin(r, g.F(t, 0), -g.F(t, 1), g.F(t, 2))
	}
	rules.Check(t, map[string]rules.Do{
		"too thin": func(t testing.TB, g rules.Given) string { return thin(t, bowl, g) },
		"too thin whites": func(t testing.TB, g rules.Given) string {
			whipped := bowl
			whipped.Base.Style = batter.Whipped
			return thin(t, whipped, g)
		},
		"figure": rules.Figure(mixing.Figures),
	})
}
