package worksheet

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// leastApart is how many grams a line has to differ by before something stands in for it (modelling choice).
const leastApart = 0.05

// standIn says what stands in for which lines of the base, "oat flour for plain wheat flour"; empty when the base is
// its own.
func (w *measured) standIn() string {
	if w.v.Reference.Lines == nil {
		return ""
	}
	var own, now []food.Part
	for _, l := range w.v.Reference.Lines {
		g, _ := w.k.Grams(l)
		own = append(own, food.Part{Ingredient: l.Ingredient, Grams: g})
	}
	for i, l := range w.v.Base.Lines {
		now = append(now, food.Part{Ingredient: l.Ingredient, Grams: w.base[i]})
	}
	names := func(parts []food.Part, id string) bool {
		return slices.ContainsFunc(parts, func(p food.Part) bool { return p.Ingredient.ID == id })
	}
	other := func(a, b []food.Part) bool {
		return slices.ContainsFunc(a, func(p food.Part) bool { return !names(b, p.Ingredient.ID) })
	}
	in, out := more(now, own), more(own, now)
	if !other(now, own) && !other(own, now) || len(in) == 0 || len(out) == 0 { // a scaled batch has whole eggs
		return ""
	}
	return words.List(in) + " for " + words.List(out)
}

// more names what there is more of in a than in b.
func more(a, b []food.Part) []string {
	sum := func(parts []food.Part, in *food.Ingredient) float64 {
		var g float64
		for _, p := range parts {
			if p.Ingredient.ID == in.ID {
				g += p.Grams
			}
		}
		return g
	}
	var out []string
	seen := map[string]bool{}
	for _, p := range a {
		if !seen[p.Ingredient.ID] && sum(a, p.Ingredient) > sum(b, p.Ingredient)+leastApart {
			out = append(out, words.Lower(p.Ingredient.Label()))
		}
		seen[p.Ingredient.ID] = true
	}
	return out
}

// swapCosts says what the stand-in does to the structure of the plain base, when that is worth a word.
func (w *measured) swapCosts() string {
	var own []food.Part
	for _, l := range w.v.Reference.Lines {
		g, _ := w.k.Grams(l)
		own = append(own, food.Part{Ingredient: l.Ingredient, Grams: g})
	}
	said := structureChange(balance.Structure(own), balance.Structure(w.baseParts(w.base)), w.v.Form)
	if said == "" {
		return ""
	}
	return " It has a price: " + said + "."
}

// structureChange tells a change of structure that is worth saying; empty when it is not.
func structureChange(was, is float64, form batter.Form) string {
	if was <= 0 || math.Abs(is/was-1) <= worthSaying {
		return ""
	}
	return fmt.Sprintf("structure %s from %.1f to %.1f g in 100 g%s", words.Either(is < was, "falls", "rises"), was, is,
		words.Either(is/was-1 < balance.StructureWord-1, ": it "+tears(form), ""))
}
