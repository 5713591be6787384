package worksheet

import (
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// used lists everything in the serving: the batter, what stands beside it, and the fat of the plate.
func (w *measured) used() []*food.Ingredient {
	return append(w.inBatter(), w.withIt(func(batter.Place) bool { return true })...)
}

// inBatter lists the base and the additions of which there is any.
func (w *measured) inBatter() (out []*food.Ingredient) {
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

// cooked lists what of it is cooked: without what goes on at the table.
func (w *measured) cooked() []*food.Ingredient {
	return append(w.inBatter(), w.withIt(meetsPlate)...)
}

// meetsPlate tells of a place beside the batter whether it meets the plate.
func meetsPlate(p batter.Place) bool { return p == batter.InPan || p == batter.Middle }

// withIt lists what stands beside the batter in some places, and the fat of the plate.
func (w *measured) withIt(is func(batter.Place) bool) (out []*food.Ingredient) {
	for _, b := range w.v.Beside {
		if is(b.Place) {
			out = append(out, b.Uses...)
		}
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
			notKnown = append(notKnown, quoted(b.Text))
		}
		w.out.Parts = append(w.out.Parts, ServedPart{Kind: b.Place, Text: b.Text, Allergens: own.Contains, MayContain: own.May, Each: b.OnEach(), House: b.House, Unknown: len(b.Uses) == 0})
	}
	switch p := w.pan; {
	case p.unknown != "":
		notKnown = append(notKnown, quoted(p.unknown)+" for the pan")
		w.out.Parts = append(w.out.Parts, ServedPart{Kind: batter.InPan, Text: p.unknown, Unknown: true})
	case p.said && !p.beside: // as a line that can be weighed and read back
		for _, in := range p.used {
			text, g := in.Name, math.Round(p.each*float64(w.out.Portion.Count)/float64(len(p.used)))
			if g >= 1 {
				text = words.Grams(g, 1) + " " + text
			}
			own := safety.AllergensOf([]*food.Ingredient{in})
			w.out.Parts = append(w.out.Parts, ServedPart{Kind: batter.InPan, Text: text, Allergens: own.Contains, MayContain: own.May, Pan: &food.Part{Ingredient: in, Grams: g}})
		}
	}
	return notKnown
}

func quoted(text string) string { return "“" + text + "”" }

// safety gathers allergens and cautions of everything in the serving, once each.
func (w *described) safety() {
	used := w.used()
	w.allergens = safety.AllergensOf(used, w.beside()...)
	w.out.Allergens, w.out.AllergensEU, w.out.AllergensUS = w.allergens.Contains, w.allergens.EU(), w.allergens.US()
	w.out.MayContain, w.out.AllergenText, w.out.Suspects = w.allergens.May, w.allergens.Text(), w.allergens.Suspects()
	var unknown []string
	for _, b := range w.v.Beside {
		if len(b.Uses) == 0 && meetsPlate(b.Place) {
			unknown = append(unknown, quoted(b.Text))
		}
	}
	if w.pan.unknown != "" {
		unknown = append(unknown, quoted(w.pan.unknown)+" for the pan")
	}
	w.out.Cooked = safety.AllergensOf(w.cooked(), unknown...)
	w.out.Cautions = safety.CautionsFor(w.v.Form, used)
	for _, b := range w.v.Beside {
		if b.House == nil {
			continue
		}
		for _, text := range b.House.Cautions {
			if !slices.ContainsFunc(w.out.Cautions, func(c safety.Caution) bool { return c.Text == text }) {
				w.out.Cautions = append(w.out.Cautions, safety.Caution{Code: "sauce", Text: text})
			}
		}
	}
}
