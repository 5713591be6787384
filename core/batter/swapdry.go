package batter

import (
	"fmt"

	"upbeatladle/core/food"
)

// mix is a stand-in of fixed shares.
type mix struct {
	label string
	parts map[string]float64
	order []string
}

func one(id string) mix { return mix{parts: map[string]float64{id: 1}, order: []string{id}} }

// Stand-ins for flour and fat, and for 50 g of egg [g] (common practice, no source).
var (
	flours = []mix{
		one("plain_flour"), one("wholemeal_flour"), one("spelt_flour"), one("buckwheat_flour"), one("oat_flour"), one("bread_flour"),
		{"Rice flour and tapioca, no gluten", map[string]float64{"rice_flour": 0.7, "tapioca_starch": 0.3}, []string{"rice_flour", "tapioca_starch"}},
	}
	fats = []mix{one("butter_unsalted"), one("butter_salted"), one("ghee"), one("vegetable_oil"), one("olive_oil"), one("coconut_oil")}
	eggs = []mix{
		{"Mashed banana, no egg", map[string]float64{"banana_mashed": 60}, []string{"banana_mashed"}},
		{"Apple sauce, no egg", map[string]float64{"apple_sauce": 60}, []string{"apple_sauce"}},
		{"Yogurt, no egg", map[string]float64{"yogurt_plain": 55}, []string{"yogurt_plain"}},
		{"Chickpea flour and water, no egg", map[string]float64{"chickpea_flour": 15, "water": 35}, []string{"chickpea_flour", "water"}},
	}
)

// selfRaisingPowder is the baking powder in self-raising flour, of its mass (docs of the
// reference table: 4.6 %).
const selfRaisingPowder = 0.046

// DrySwaps lists what can stand in for a flour with the same body, for a fat with the same
// fat, and for egg by the custom of the trade. Everything else has none.
func DrySwaps(in *food.Ingredient, grams float64, table *food.Table) []Swap {
	switch {
	case in.Group == food.GroupFlour:
		return flourSwaps(in, grams, table)
	case in.Role == food.RoleFat && in.Fat > 0:
		return each(fats, in, table, func(m mix, parts []food.Part) (float64, string) {
			return grams * in.Fat / parts[0].Ingredient.Fat, fmt.Sprintf("the same %.0f g of fat", grams*in.Fat/100)
		})
	case in.IsWholeEgg():
		return each(eggs, in, table, func(mix, []food.Part) (float64, string) {
			return grams / DefaultEggG, "by the custom of the trade; it binds less than egg"
		})
	}
	return nil
}

func flourSwaps(in *food.Ingredient, grams float64, table *food.Table) []Swap {
	body := grams * in.Body
	out := each(flours, in, table, func(m mix, parts []food.Part) (float64, string) {
		var per float64
		for _, p := range parts {
			per += p.Grams * p.Ingredient.Body
		}
		return body / per, fmt.Sprintf("thickens like the %.0f g there were", grams)
	})
	if powder := table.ByID("baking_powder"); in.CO2 > 0 && powder != nil {
		for i := range out {
			out[i].Label += " and baking powder"
			out[i].Parts = append(out[i].Parts, food.Part{Ingredient: powder, Grams: grams * selfRaisingPowder})
		}
	}
	return out
}

// each makes a swap of every mix but the ingredient itself; amount scales its parts.
func each(mixes []mix, in *food.Ingredient, table *food.Table, amount func(mix, []food.Part) (float64, string)) []Swap {
	var out []Swap
	for _, m := range mixes {
		if len(m.order) == 1 && m.order[0] == in.ID {
			continue
		}
		var parts []food.Part
		for _, id := range m.order {
			if p := table.ByID(id); p != nil {
				parts = append(parts, food.Part{Ingredient: p, Grams: m.parts[id]})
			}
		}
		if len(parts) != len(m.order) {
			continue
		}
		k, says := amount(m, parts)
		s := Swap{Label: m.label, Says: says}
		if s.Label == "" {
			s.Label = parts[0].Ingredient.Label()
		}
		for _, p := range parts {
			s.Parts = append(s.Parts, food.Part{Ingredient: p.Ingredient, Grams: k * p.Grams})
		}
		out = append(out, s)
	}
	return out
}
