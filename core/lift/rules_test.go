package lift_test

import (
	"testing"

	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	bowl := func(t testing.TB, g rules.Given) []food.Part {
		var out []food.Part
		for i := 0; i+1 < len(g); i += 2 {
			out = append(out, part(g.At(i), g.F(t, i+1)))
		}
		return out
	}
	rules.Check(t, map[string]rules.Do{
		"soda gas":   func(t testing.TB, g rules.Given) string { return rules.N(lift.SodaGas(g.F(t, 0), g.F(t, 1))) },
		"gas":        func(_ testing.TB, g rules.Given) string { return rules.N(lift.GasPerGram(in(g.At(0)))) },
		"powder for": func(t testing.TB, g rules.Given) string { return rules.N(lift.PowderFor(g.F(t, 0))) },
		"meq":        func(testing.TB, rules.Given) string { return rules.N(lift.MeqPerGram) },
		"expands":    func(t testing.TB, g rules.Given) string { return rules.N(lift.Expansion(g.F(t, 0))) },
		"pressure":   func(t testing.TB, g rules.Given) string { return rules.N(lift.PressureKPa(g.F(t, 0))) },
		"grey":       func(testing.TB, rules.Given) string { return rules.N(lift.GreyAbove) },
		"sour":       func(t testing.TB, g rules.Given) string { return rules.YesNo(lift.Of(bowl(t, g)).Sour) },
		"sour acid": func(t testing.TB, g rules.Given) string {
			in := &food.Ingredient{Group: food.GroupLiquid, Composition: food.Composition{Water: 100, Acid: g.F(t, 0)}}
			return rules.YesNo(lift.Of([]food.Part{{Ingredient: in, Grams: 100}}).Sour)
		},
		"sour share": func(t testing.TB, g rules.Given) string { // a liquid of 4 meq beside one of 2
			sour := &food.Ingredient{Group: food.GroupLiquid, Composition: food.Composition{Water: 100, Acid: 4}}
			mild := &food.Ingredient{Group: food.GroupLiquid, Composition: food.Composition{Water: 100, Acid: 2}}
			return rules.YesNo(lift.Of([]food.Part{{Ingredient: sour, Grams: 100 * g.F(t, 0) / 4}, {Ingredient: mild, Grams: 100 * (1 - g.F(t, 0)) / 2}}).Sour)
		},
		"ratio": func(t testing.TB, g rules.Given) string {
			return rules.N(lift.Lift{SodaG: g.F(t, 0), AcidMeq: g.F(t, 1)}.SodaToAcid())
		},
		"tang": func(t testing.TB, g rules.Given) string {
			return rules.N(lift.Lift{AcidMeq: g.F(t, 0), SodaG: g.F(t, 1)}.Tang(g.F(t, 2)))
		},
		"foam":  func(t testing.TB, g rules.Given) string { return rules.N(lift.Foam(bowl(t, g))) },
		"holds": func(_ testing.TB, g rules.Given) string { return rules.N(lift.FlourBody(in(g.At(0)))) },
	})
}
