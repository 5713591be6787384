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

// standIn says what stands in for which lines of the base, "oat flour for plain wheat flour"; empty when the base is
// its own. A scaled batch has whole eggs: that is no stand-in.
func (w *measured) standIn() string {
	own, now := w.ownParts(), w.baseParts(w.base)
	in, out := missing(now, own), missing(own, now)
	switch {
	case len(in) == 0 && len(out) == 0:
		return ""
	case len(in) == 0: // it joined a line that was there
		in = sameRole(now, out)
	case len(out) == 0: // one of two lines of it went
		out = sameRole(own, in)
	}
	return words.List(labels(in)) + " for " + words.List(labels(out))
}

// ownParts are the base's own lines, where others stand in for some; nil when it has no others.
func (w *measured) ownParts() []food.Part {
	if w.v.Reference.Lines == nil {
		return nil
	}
	return w.reference[:len(w.v.Reference.Lines)]
}

// standsIn tells whether a line of the base is none of its own.
func (w *measured) standsIn(in *food.Ingredient) bool {
	own := w.ownParts()
	return own != nil && !has(own, in)
}

func has(parts []food.Part, in *food.Ingredient) bool {
	return slices.ContainsFunc(parts, func(p food.Part) bool { return p.Ingredient.ID == in.ID })
}

// missing are the ingredients of a that b has not; none when there is no b.
func missing(a, b []food.Part) (out []*food.Ingredient) {
	for _, p := range a {
		if b != nil && !has(b, p.Ingredient) && !slices.Contains(out, p.Ingredient) {
			out = append(out, p.Ingredient)
		}
	}
	return out
}

// sameRole are the ingredients of parts that do what one of others does.
func sameRole(parts []food.Part, others []*food.Ingredient) (out []*food.Ingredient) {
	for _, p := range parts {
		same := slices.ContainsFunc(others, func(o *food.Ingredient) bool { return o.Role == p.Ingredient.Role })
		if same && !slices.Contains(out, p.Ingredient) {
			out = append(out, p.Ingredient)
		}
	}
	return out
}

func labels(all []*food.Ingredient) []string {
	out := make([]string, len(all))
	for i, in := range all {
		out[i] = words.Lower(in.Label())
	}
	return out
}

// swapCosts says what the stand-in does to the structure of the plain base, when that is worth a word.
func (w *measured) swapCosts() string {
	said := structureChange(balance.Structure(w.ownParts()), balance.Structure(w.baseParts(w.base)), w.v.Form)
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
