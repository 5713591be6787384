package batter

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/food"
)

// Swap is a pair of ingredients that brings the acid and the water of a line.
type Swap struct {
	Label string
	Says  string
	Parts []food.Part
}

// pairs of ingredients that stand in for milk, buttermilk and yogurt: what brings the acid
// or the dry matter, and what brings the rest of the water. The second may be none.
var pairs = [][2]string{
	{"buttermilk_cultured", "water"}, {"buttermilk_cultured", "milk_whole"}, {"milk_whole", "lemon_juice"}, {"milk_whole", "vinegar_white"},
	{"yogurt_plain", "water"}, {"yogurt_plain", "milk_whole"}, {"kefir_plain", "water"}, {"buttermilk_powder", "water"}, {"whole_milk_powder", "water"},
}

const (
	leastSwap = 0.5  // g, less of the second ingredient is none (modelling choice)
	tartLimit = 6.0  // meq/100 g: above, plain milk powder is no stand-in, however much of it (modelling choice)
	creamy    = 15.0 // g of fat in 100 g: a milk powder that stands for milk (modelling choice)
	mildLimit = 3.0  // meq/100 g: below, nothing cultured is (modelling choice)
)

// Swaps lists what can stand in for grams of an ingredient so that acid and water stay:
// two equations for two amounts, and only answers that can be poured. Body and fat are not
// kept: the worksheet shows what that changes. Butter may be browned. Ingredients that are neither
// milk nor cultured nor butter have none.
func Swaps(in *food.Ingredient, grams float64, table *food.Table) []Swap {
	if s, ok := browned(in, grams, table); ok {
		return []Swap{s}
	}
	if in.Role != food.RoleLiquid && in.Group != food.GroupCulturedDairy || in.Acid <= 0 {
		return nil
	}
	acid, water := grams*in.Acid/100, grams*in.Water/100
	var out []Swap
	for _, p := range pairs {
		a, b := table.ByID(p[0]), table.ByID(p[1])
		if a == nil || b == nil || a == in || b == in {
			continue
		}
		powder := a.Group == food.GroupPowder
		if in.Acid > tartLimit && powder && a.Acid < 2*tartLimit || in.Acid < mildLimit && !(powder && a.Fat > creamy) {
			continue
		}
		det := a.Acid*b.Water - b.Acid*a.Water
		if math.Abs(det) < 1e-9 {
			continue
		}
		x := 100 * (acid*b.Water - b.Acid*water) / det
		y := 100 * (a.Acid*water - acid*a.Water) / det
		if x < leastSwap || y < -leastSwap {
			continue
		}
		s := Swap{Label: a.Label(), Parts: []food.Part{{Ingredient: a, Grams: x}}}
		if y >= leastSwap {
			s.Label += " and " + lowerFirst(b.Label())
			s.Parts = append(s.Parts, food.Part{Ingredient: b, Grams: y})
		}
		s.Says = fmt.Sprintf("the same %.1f meq of acid and %.0f g of water", acid, water)
		out = append(out, s)
	}
	return out
}

// What butter may be browned: there is water to lose and milk to brown, and salt would be left behind (modelling choices).
const (
	leastWet  = 5.0   // g of water in 100 g
	mostSalty = 100.0 // mg of sodium in 100 g
)

// browned is butter without its water, which comes back as milk.
func browned(in *food.Ingredient, grams float64, table *food.Table) (Swap, bool) {
	brown, milk := table.ByID("butter_browned"), table.ByID("milk_whole")
	if brown == nil || milk == nil || in.Group != food.GroupFat || in.Water < leastWet || in.Sodium > mostSalty || !slices.Contains(in.Allergens, "milk") {
		return Swap{}, false
	}
	water := grams * in.Water / 100
	back := 100 * water / milk.Water
	if back < leastSwap {
		return Swap{}, false
	}
	return Swap{
		Label: brown.Label() + " and " + lowerFirst(milk.Label()), Parts: []food.Part{{Ingredient: brown, Grams: grams - water}, {Ingredient: milk, Grams: back}},
		Says: fmt.Sprintf("brown %.0f g of it: %.0f g of water go, and come back as milk", grams, water),
	}, true
}

func lowerFirst(s string) string {
	if s == "" {
		return s
	}
	return string(s[0]|0x20) + s[1:]
}
