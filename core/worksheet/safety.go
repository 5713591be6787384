package worksheet

import (
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
)

// used lists everything in the serving: the base, and additions of which there is any.
func (w *measured) used() []*food.Ingredient {
	var out []*food.Ingredient
	for _, l := range w.v.Base.Lines {
		out = append(out, l.Ingredient)
	}
	for i, a := range w.v.Additions {
		if w.adds[i] > 0 {
			out = append(out, a.Ingredient)
		}
	}
	return out
}

// safety gathers allergens and cautions of everything in the serving, once each.
func (w *described) safety() {
	used := w.used()
	w.allergens = safety.AllergensOf(used)
	w.out.Allergens, w.out.AllergensEU, w.out.AllergensUS = w.allergens.Contains, w.allergens.EU(), w.allergens.US()
	w.out.MayContain, w.out.AllergenText = w.allergens.May, w.allergens.Text()
	w.out.Cautions = safety.CautionsFor(w.v.Form, used)
}
