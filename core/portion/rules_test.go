package portion_test

import (
	"fmt"
	"testing"

	"upbeatladle/core/batter"
	"upbeatladle/core/portion"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	iron := func(t testing.TB, g rules.Given) batter.Iron {
		return batter.Iron{Round: true, WidthMM: g.F(t, 0), DepthMM: g.F(t, 1)}
	}
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(portion.Figures),
		"air":    func(_ testing.TB, g rules.Given) string { return rules.N(portion.Air(batter.Form(g.At(0)))) },
		"value": func(_ testing.TB, g rules.Given) string {
			return rules.N(map[string]float64{"loss": portion.BowlLoss, "bite": portion.BiteMM, "most": portion.MaxPortions}[g.At(0)])
		},
		"scoop":    func(t testing.TB, g rules.Given) string { return rules.N(portion.ScoopML(g.F(t, 0))) },
		"stiffens": func(t testing.TB, g rules.Given) string { return rules.N(portion.Stiffen(g.F(t, 0))) },
		"lies": func(t testing.TB, g rules.Given) string {
			l, ok := portion.LayerOf(batter.Form(g.At(0)), g.F(t, 1), g.F(t, 2), g.F(t, 3))
			if !ok {
				return "-"
			}
			return rules.N(l.DiameterMM)
		},
		"sinks":      func(t testing.TB, g rules.Given) string { return rules.YesNo(portion.Sinks(g.F(t, 0))) },
		"usual fill": func(t testing.TB, g rules.Given) string { return rules.N(portion.UsualFill(iron(t, g))) },
		"stands": func(t testing.TB, g rules.Given) string {
			return rules.N(portion.HotStress(batter.Form(g.At(0)), g.F(t, 1), g.F(t, 2)))
		},
		"patted": func(t testing.TB, g rules.Given) string { return rules.N(portion.Patted(g.F(t, 0)).DiameterMM) },
		"mould":  func(t testing.TB, g rules.Given) string { return rules.N(portion.MouldML(iron(t, g))) },
		"fills": func(t testing.TB, g rules.Given) string {
			_, ml := portion.Fill(iron(t, g), 100, g.F(t, 2), 1)
			return rules.N(ml)
		},
		"rises": func(t testing.TB, g rules.Given) string { return rules.N(portion.Rise(g.F(t, 0))) },
		"fit": func(t testing.TB, g rules.Given) string {
			return fmt.Sprint(portion.Fit(g.F(t, 0), g.F(t, 1), g.F(t, 2)))
		},
		"viscosity": func(_ testing.TB, g rules.Given) string { return rules.N(portion.Viscosity(batter.Form(g.At(0)))) },
	})
}
