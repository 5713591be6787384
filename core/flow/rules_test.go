package flow_test

import (
	"testing"

	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"class":  func(t testing.TB, g rules.Given) string { return string(flow.ClassOf(g.F(t, 0))) },
		"stress": func(t testing.TB, g rules.Given) string { return rules.N(flow.Prior.YieldStress(g.F(t, 0))) },
		"spread": func(t testing.TB, g rules.Given) string {
			d, _ := flow.Spread(g.F(t, 0), g.F(t, 1), g.F(t, 2))
			return rules.N(d)
		},
		"disc": func(t testing.TB, g rules.Given) string { return rules.N(flow.Disc(g.F(t, 0), g.F(t, 1))) },
		"loosens": func(_ testing.TB, g rules.Given) string {
			c := map[string]food.Composition{"water": {Water: 100}, "sugars": {Sugars: 100}, "fat": {Fat: 100}, "protein": {Protein: 100}, "alcohol": {Alcohol: 100}}[g.At(0)]
			return rules.N(flow.LiquidPerGram(&food.Ingredient{Composition: c}))
		},
		"let go": func(t testing.TB, g rules.Given) string {
			in := &food.Ingredient{Group: food.GroupGrated, ReleaseFraction: 1, Composition: food.Composition{Water: 100}}
			return rules.N(flow.At([]food.Part{{Ingredient: in, Grams: 1}}, g.F(t, 0)).Liquid)
		},
		"drunk": func(t testing.TB, g rules.Given) string {
			in := &food.Ingredient{Group: food.GroupDryPiece, Uptake: 1}
			return rules.N(-flow.At([]food.Part{{Ingredient: in, Grams: 1}}, g.F(t, 0)).Liquid)
		},
		"rested":   func(t testing.TB, g rules.Given) string { return rules.N(flow.RestShare(g.F(t, 0), g.F(t, 1))) },
		"believed": func(t testing.TB, g rules.Given) string { return rules.YesNo(flow.InModel(g.F(t, 0))) },
	})
}
