package sauce_test

import (
	"errors"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/sauce"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	row := func(id string, g float64) food.Part {
		return food.Part{Ingredient: food.Reference().ByID(id), Grams: g}
	}
	pots := map[sauce.Kind][]food.Part{
		sauce.Compote: {row("plum_diced", 800), row("granulated_sugar", 120)}, sauce.FruitSyrup: {row("raspberry_fresh", 800), row("granulated_sugar", 400)},
		sauce.SugarSyrup: {row("granulated_sugar", 500), row("water", 500)}, sauce.Caramel: {row("granulated_sugar", 200), row("water", 50), row("cream_heavy", 150)},
		sauce.Cream: {row("cream_heavy", 500), row("icing_sugar", 40)}, sauce.Butter: {row("butter_unsalted", 250), row("honey", 40)}, sauce.Macerated: {row("strawberry_diced", 500), row("granulated_sugar", 60)},
		sauce.Nut: {row("hazelnut_spread", 200), row("milk_whole", 100)}, sauce.Dairy: {row("yogurt_strained", 300), row("honey", 30)}, sauce.Filling: {row("ricotta", 300), row("honey", 30)},
	}
	work := func(t testing.TB, kind string) sauce.Result {
		r, err := sauce.Work(sauce.Pot{Kind: sauce.Kind(kind), Parts: pots[sauce.Kind(kind)]})
		require.NoError(t, err, kind)
		return r
	}
	mix := func(c food.Composition, group food.Group) []food.Part {
		return []food.Part{{Ingredient: &food.Ingredient{ID: "mix", Name: "Mix", Group: group, Density: 1, Composition: c}, Grams: 1000}}
	}
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(sauce.Figures),
		"usual": func(t testing.TB, g rules.Given) string {
			r := work(t, g.At(0))
			return fmt.Sprintf("%g g, %d days, %s, %s, %s", sauce.UsualG(r.Kind), r.KeepDays, r.Served, r.Place, r.When)
		},
		"guess": func(t testing.TB, g rules.Given) string { // g of an ingredient in 100, the rest of another
			share := g.F(t, 1)
			return string(sauce.Guess([]food.Part{row(g.At(0), share), row(g.At(2), 100-share)}, batter.Place(g.At(3))))
		},
		"water off": func(t testing.TB, g rules.Given) string {
			return rules.N(work(t, g.At(0)).WaterOff / food.Whole(pots[sauce.Kind(g.At(0))]).Water)
		},
		"softens": func(t testing.TB, g rules.Given) string {
			r, err := sauce.Work(sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{row(g.At(0), 500), row("water", 100)}})
			require.NoError(t, err)
			_, after, _ := strings.Cut(r.Steps[1], "soft after ")
			return strings.TrimSuffix(after, " min.")
		},
		"brix": func(t testing.TB, g rules.Given) string { return rules.N(*work(t, g.At(0)).End.Brix) },
		"whips": func(t testing.TB, g rules.Given) string {
			r, err := sauce.Work(sauce.Pot{Kind: sauce.Cream, Parts: mix(food.Composition{Fat: g.F(t, 0), Water: 98 - g.F(t, 0), Protein: 2}, food.GroupLiquid)})
			if err != nil {
				return "no"
			}
			return r.Texture
		},
		"overrun": func(t testing.TB, g rules.Given) string {
			r, err := sauce.Work(sauce.Pot{Kind: sauce.Cream, Parts: mix(food.Composition{Fat: g.F(t, 0), Water: 98 - g.F(t, 0), Protein: 2}, food.GroupLiquid)})
			require.NoError(t, err)
			return rules.N(r.End.VolumeML / r.Start.VolumeML)
		},
		"draws": func(t testing.TB, g rules.Given) string { return rules.N(sauce.Drawn(g.F(t, 0), g.F(t, 1))) },
		"level": func(t testing.TB, g rules.Given) string { return rules.N(sauce.LevelMM(g.F(t, 0), g.F(t, 1))) },
		"rate":  func(t testing.TB, g rules.Given) string { return rules.N(sauce.RateG(g.F(t, 0))) },
		"value": func(_ testing.TB, g rules.Given) string {
			return rules.N(map[string]float64{"pot": sauce.UsualPotMM, "least pot": sauce.MinPotMM, "most pot": sauce.MaxPotMM, "servings": sauce.MaxServings}[g.At(0)])
		},
		"caramel": func(t testing.TB, g rules.Given) string { return sauce.CaramelWord(g.F(t, 0)) },
		"amber": func(t testing.TB, _ rules.Given) string {
			w := work(t, string(sauce.Caramel)).Watched()
			return rules.N(w.Figure) + " " + w.Unit
		},
		"sugar": func(t testing.TB, g rules.Given) string {
			now, err := work(t, string(sauce.Caramel)).At(sauce.Reading{TemperatureC: g.F(t, 0)})
			require.NoError(t, err)
			return now.Says
		},
		"stands": func(t testing.TB, g rules.Given) string {
			r := work(t, string(sauce.Compote))
			now, err := r.At(sauce.Reading{ScaleG: r.InPot().StopG + g.F(t, 0)})
			require.NoError(t, err)
			return now.Says
		},
		"cooks to": func(t testing.TB, g rules.Given) string {
			_, err := sauce.Work(sauce.Pot{Kind: sauce.SugarSyrup, Parts: pots[sauce.SugarSyrup], Target: sauce.Target{TemperatureC: g.F(t, 0)}})
			var wrong *sauce.Problem
			if errors.As(err, &wrong) && wrong.Code == "out_of_range" {
				return wrong.Code
			}
			return "may be"
		},
		"water to": func(t testing.TB, g rules.Given) string {
			_, err := sauce.Work(sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{row("water", 500)}, Target: sauce.Target{Brix: g.F(t, 0)}})
			var wrong *sauce.Problem
			if errors.As(err, &wrong) {
				return wrong.Field + " " + wrong.Code
			}
			return "may be"
		},
		"dried": func(t testing.TB, g rules.Given) string {
			return string(sauce.SyrupOf(mix(food.Composition{Sugars: g.F(t, 0), Fat: g.F(t, 1)}, food.GroupDryPiece)))
		},
		"wall": func(t testing.TB, g rules.Given) string {
			r, err := sauce.Work(sauce.Pot{Kind: sauce.Dairy, Parts: []food.Part{row("yogurt_strained", g.F(t, 0))}})
			require.NoError(t, err)
			return rules.N(r.InPot().HighMM)
		},
		"is butter": func(t testing.TB, g rules.Given) string {
			_, err := sauce.Work(sauce.Pot{Kind: sauce.Butter, Parts: mix(food.Composition{Fat: g.F(t, 0), Water: 100 - g.F(t, 0)}, food.GroupFat)})
			return rules.YesNo(err == nil)
		},
		"runs": func(t testing.TB, g rules.Given) string {
			r, err := sauce.Work(sauce.Pot{Kind: sauce.Filling, Parts: mix(food.Composition{Fat: 100 - g.F(t, 0), Water: g.F(t, 0)}, food.GroupLiquid)})
			require.NoError(t, err)
			return rules.YesNo(r.Loose())
		},
	})
}
