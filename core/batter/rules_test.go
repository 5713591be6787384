package batter_test

import (
	"math"
	"testing"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	own := func(t testing.TB, g rules.Given) *food.Ingredient {
		return &food.Ingredient{Dose: food.Dose{Low: g.F(t, 0), High: g.F(t, 1)}}
	}
	rules.Check(t, map[string]rules.Do{
		"hand": func(t testing.TB, g rules.Given) string {
			low, high := batter.SpreadRange(batter.Form(g.At(0)), g.F(t, 1))
			return rules.N(low) + " " + rules.N(high)
		},
		"figure": rules.Figure(batter.Figures),
		"band": func(t testing.TB, g rules.Given) string {
			var b batter.Band
			switch g.At(0) {
			case "thickness":
				var ok bool
				if b, ok = batter.ThicknessBand(batter.Form(g.At(1))); !ok {
					return "none"
				}
			case "lift":
				b = batter.LiftBand(batter.Form(g.At(1)))
			case "tang":
				b = batter.TangBand()
			default:
				b = map[string]func(float64) batter.Band{"moisture": batter.MoistureBand, "sweetness": batter.SweetnessBand, "structure": batter.StructureBand, "salt": batter.SaltBand}[g.At(0)](g.F(t, 1))
			}
			return rules.N(b.Low) + " " + rules.N(b.High)
		},
		"tang": func(t testing.TB, g rules.Given) string { return batter.TangWord(g.F(t, 0)) },
		"load": func(_ testing.TB, g rules.Given) string { return rules.N(batter.LoadCeiling(batter.Form(g.At(0)))) },
		"value": func(_ testing.TB, g rules.Given) string {
			return rules.N(map[string]float64{"crepe piece": batter.CrepePieceMM, "scorch": batter.ScorchSugar, "max pull": batter.MaxPull, "min pull": batter.MinPull, "max tang pull": batter.MaxTangPull,
				"lines": batter.MaxLines, "least portion": batter.MinPortionML, "most portion": batter.MaxPortionML, "most line": batter.MaxLineG}[g.At(0)])
		},
		"stage": func(_ testing.TB, g rules.Given) string {
			return string(batter.UsualStage(food.Reference().ByID(g.At(0))))
		},
		"portion": func(_ testing.TB, g rules.Given) string {
			return rules.N(batter.DefaultPortionML(batter.Form(g.At(0))))
		},
		"dose":  func(t testing.TB, g rules.Given) string { return batter.DoseOf(own(t, g), g.F(t, 2), g.F(t, 3)).Word },
		"track": func(t testing.TB, g rules.Given) string { return rules.N(batter.DoseOf(own(t, g), g.F(t, 2), 0).Max) },
		"step": func(t testing.TB, g rules.Given) string {
			return rules.N(batter.DoseOf(&food.Ingredient{Dose: food.Dose{High: g.F(t, 0)}}, 100, 0).Step)
		},
		"rest": func(_ testing.TB, g rules.Given) string {
			return rules.N(batter.Base{School: batter.School{RestMin: math.NaN()}}.Rest(batter.Form(g.At(0)), batter.Kitchen{RestMin: math.NaN()}))
		},
		"dose of": func(t testing.TB, g rules.Given) string { return rules.N(batter.DoseReference(g.F(t, 0), g.F(t, 1))) },
	})
}
