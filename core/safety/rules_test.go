package safety_test

import (
	"fmt"
	"strings"
	"testing"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	told := func(ids []string) safety.Allergens {
		var notKnown, known []string
		for _, id := range ids {
			if what, ok := strings.CutPrefix(id, "?"); ok {
				notKnown = append(notKnown, what)
			} else {
				known = append(known, id)
			}
		}
		return safety.AllergensOf(of(known...), notKnown...)
	}
	onList := func(list func(safety.Allergens) []string) rules.Do {
		return func(_ testing.TB, g rules.Given) string {
			if names := list(safety.Allergens{Contains: []string{g.At(0)}}); len(names) > 0 {
				return strings.Join(names, ", ")
			}
			return "-"
		}
	}
	rules.Check(t, map[string]rules.Do{
		"eu":  onList(safety.Allergens.EU),
		"us":  onList(safety.Allergens.US),
		"may": func(_ testing.TB, g rules.Given) string { return strings.Join(told(g).May, ", ") },
		"text": func(_ testing.TB, g rules.Given) string {
			return told(g).Text()
		},
		"suspects": func(_ testing.TB, g rules.Given) string { return fmt.Sprint(len(told(g).Suspects())) },
		"caution": func(_ testing.TB, g rules.Given) string {
			return rules.YesNo(code(safety.CautionsFor(batter.Form(g.At(0)), of(g.At(1))), g.At(2)))
		},
		"minutes": func(_ testing.TB, g rules.Given) string {
			return fmt.Sprint(map[string]int{"fridge from": safety.FridgeFromMin, "leaven waits": safety.LeavenWaitsMin, "discard after": safety.DiscardAfterMin,
				"chill again within": safety.ChillAgainWithinMin, "use within": safety.UseWithinMin}[g.At(0)])
		},
		"spoils milk": func(t testing.TB, g rules.Given) string {
			return rules.YesNo(safety.Spoils([]*food.Ingredient{{Group: food.GroupCulturedDairy, Allergens: []string{"milk"}, Composition: food.Composition{Water: g.F(t, 0)}}}))
		},
		"spoils": func(_ testing.TB, g rules.Given) string {
			return rules.YesNo(safety.Spoils([]*food.Ingredient{food.Reference().ByID(g.At(0))}))
		},
	})
}
