package balance_test

import (
	"testing"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(balance.Figures),
		"floor": func(t testing.TB, g rules.Given) string {
			p := problem(batter.HoldBackLiquid, part(g.At(1), g.F(t, 2)))
			p.Hold = append(p.Hold, batter.HoldFat)
			s := solve(t, p)
			for i, l := range p.Lines {
				if l.Ingredient.ID == g.At(0) {
					return rules.N(s.Grams[i] / l.Grams)
				}
			}
			return "no such line"
		},
		"salt": func(_ testing.TB, g rules.Given) string {
			switch v := balance.SaltPerGram(in(g.At(0))); {
			case v > 0.9:
				return "1"
			case v > 0:
				return "yes"
			}
			return "0"
		},
		"tastes sour": func(_ testing.TB, g rules.Given) string { return rules.YesNo(balance.TastesSour(in(g.At(0)))) },
		"sets":        func(_ testing.TB, g rules.Given) string { return rules.YesNo(balance.SettingProtein(in(g.At(0))) > 0) },
	})
}
