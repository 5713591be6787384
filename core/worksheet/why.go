package worksheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/balance"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/words"
)

// because is how a line's property is held: what brings it, and what spreads it; a line stays where
// Σ grams·(brings − level·spreads) is nothing over the bowl.
type because struct {
	brings, spreads property
	level           float64
	bring, spread   string // of the additions, before their names; the second may do without them
}

type property = func(*food.Ingredient) float64

// becauseOf is why a line of a role moves; false for what is told without a sum.
func (w *described) becauseOf(role food.Role) (because, bool) {
	g := &w.out.Gauges
	switch role {
	case food.RoleLiquid, food.RoleFlour:
		return because{flow.LiquidPerGram, func(in *food.Ingredient) float64 { return in.Body }, g.Thickness.Goal(), "the liquid of ", "the thickening by "}, true
	case food.RoleSugar:
		return because{func(in *food.Ingredient) float64 { return in.Release() * in.Sweetness() / 100 }, (*food.Ingredient).BatterMass, g.Sweetness.Goal() / 100, "the sweetness of ", "more batter to sweeten"}, true
	case food.RoleSalt:
		return because{balance.SaltPerGram, (*food.Ingredient).BatterMass, g.Salt.Goal() / 100, "the salt of ", "more batter to salt"}, true
	}
	return because{}, false
}

// SumTerm is a part of a line's weigh-out; all of them add up to it.
type SumTerm struct {
	Label string  `json:"label"`
	Value float64 `json:"value"`
}

// named3 lists what brings most, three at most.
func named3(parts []food.Part, of property, step float64) string {
	type one struct {
		name string
		g    float64
	}
	var all []one
	for _, p := range parts {
		if g := math.Abs(p.Grams * of(p.Ingredient)); g >= step/2 {
			all = append(all, one{words.Lower(p.Ingredient.Label()), g})
		}
	}
	slices.SortStableFunc(all, func(a, b one) int { return cmp.Compare(b.g, a.g) })
	var names []string
	for i, o := range all {
		if i == 3 {
			names = append(names, "the rest")
			break
		}
		names = append(names, o.name)
	}
	return words.List(names)
}

// sumOf adds a line's weigh-out up, on its scale step, and says it in a sentence; nothing for a
// line that does not move, and for recipes as written, whose additions are in the reference.
func (w *described) sumOf(i int, l Line) (sum []SumTerm, text string) {
	if l.Offset == nil || *l.Offset == 0 {
		return nil, ""
	}
	sum = []SumTerm{{"in the base", *l.Base}}
	if w.v.Reference.AsWritten {
		sum[0].Label = "in the recipe"
	}
	what := words.Lower(l.Label)
	text = fmt.Sprintf("Weigh %s of %s, %s %s than the base has", words.Grams(l.Weigh, l.Step), what, words.Grams(math.Abs(*l.Offset), l.Step), words.Either(*l.Offset < 0, "less", "more"))
	b, ok := w.becauseOf(l.Role)
	per := b.perGram(w.v.Base.Lines[i].Ingredient)
	if !ok || w.reference != nil || math.Abs(per) < 1e-6 || math.IsNaN(b.level) {
		return append(sum, SumTerm{words.Either(*l.Offset < 0, "held back", "added"), *l.Offset}), w.named(text + ".")
	}
	var bring, spread float64
	for _, p := range w.made {
		bring += p.Grams * b.brings(p.Ingredient) / per
		spread += p.Grams * b.level * b.spreads(p.Ingredient) / per
	}
	rest := *l.Offset
	var why []string
	add := func(label string, g float64) {
		if g = measure.Round(g, l.Step); math.Abs(g) < l.Step/2 {
			return
		}
		sum = append(sum, SumTerm{label, g})
		rest -= g
		why = append(why, fmt.Sprintf("%s %s %s", label, words.Either(g < 0, "stands for", "asks for"), words.Grams(math.Abs(g), l.Step)))
	}
	add(w.whose(b.bring, b.brings, per, l.Step), -bring)
	add(w.whose(b.spread, b.spreads, per/b.level, l.Step), spread)
	add("everything else", rest)
	return sum, w.named(text + ": " + words.List(why) + ".")
}

// whose names the additions behind a part of a sum, where its label asks for them.
func (w *described) whose(label string, of property, per, step float64) string {
	if !strings.HasSuffix(label, " ") {
		return label
	}
	names := named3(w.made, func(in *food.Ingredient) float64 { return of(in) / per }, step)
	return label + words.Either(names == "", "the additions", names)
}

// perGram is what a gram of an ingredient moves.
func (b because) perGram(in *food.Ingredient) float64 {
	if b.brings == nil {
		return 0
	}
	return b.brings(in) - b.level*b.spreads(in)
}
