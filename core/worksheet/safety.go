package worksheet

import (
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// used lists everything in the serving: the base, additions of which there is any, what stands
// beside the batter, and the fat of the plate.
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
	if w.pan.said && !w.pan.beside {
		out = append(out, w.pan.used...)
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
		w.out.Parts = append(w.out.Parts, ServedPart{Kind: b.Place, Text: b.Text, Allergens: own.Contains, MayContain: own.May, Each: b.OnEach()})
	}
	switch p := w.pan; {
	case p.unknown != "":
		notKnown = append(notKnown, "“"+p.unknown+"” for the pan")
		w.out.Parts = append(w.out.Parts, ServedPart{Kind: batter.InPan, Text: p.unknown})
	case p.said && !p.beside: // as a line that can be weighed and read back
		for _, in := range p.used {
			text := in.Name
			if g := math.Round(p.each * float64(w.out.Portion.Count) / float64(len(p.used))); g >= 1 {
				text = words.Grams(g, 1) + " " + text
			}
			own := safety.AllergensOf([]*food.Ingredient{in})
			w.out.Parts = append(w.out.Parts, ServedPart{Kind: batter.InPan, Text: text, Allergens: own.Contains, MayContain: own.May})
		}
	}
	return notKnown
}

// safety gathers allergens and cautions of everything in the serving, once each.
func (w *described) safety() {
	used := w.used()
	w.allergens = safety.AllergensOf(used, w.beside()...)
	w.out.Allergens, w.out.AllergensEU, w.out.AllergensUS = w.allergens.Contains, w.allergens.EU(), w.allergens.US()
	w.out.MayContain, w.out.AllergenText, w.out.Suspects = w.allergens.May, w.allergens.Text(), w.allergens.Suspects()
	w.out.Cautions = safety.CautionsFor(w.v.Form, used)
}
