package worksheet

import (
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
)

// used lists everything in the serving: the base, additions of which there is any, and what
// stands beside the batter.
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
	for _, b := range w.v.Beside {
		out = append(out, b.Uses...)
	}
	return out
}

// beside tells what the serving has beside the batter, and names what nobody knows in it.
func (w *described) beside() (notKnown []string) {
	for _, b := range w.v.Beside {
		own := safety.AllergensOf(b.Uses)
		if len(b.Uses) == 0 {
			notKnown = append(notKnown, "“"+b.Text+"”")
		}
		w.out.Parts = append(w.out.Parts, ServedPart{Kind: b.Place, Text: b.Text, Allergens: own.Contains, MayContain: own.May})
	}
	return notKnown
}

// safety gathers allergens and cautions of everything in the serving, once each.
func (w *described) safety() {
	used := w.used()
	w.allergens = safety.AllergensOf(used, w.beside()...)
	w.out.Allergens, w.out.AllergensEU, w.out.AllergensUS = w.allergens.Contains, w.allergens.EU(), w.allergens.US()
	w.out.MayContain, w.out.AllergenText = w.allergens.May, w.allergens.Text()
	w.out.Cautions = safety.CautionsFor(w.v.Form, used)
}
