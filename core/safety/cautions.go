package safety

import (
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// Caution is a warning that applies to a serving, short and once.
type Caution struct {
	Code string `json:"code"`
	Text string `json:"text"`
}

// CautionsFor gathers the cautions of everything in a serving and of the work with it, once
// each. A row's own sentence speaks for the row; only its codes can make another one needless.
func CautionsFor(f batter.Form, used []*food.Ingredient) []Caution {
	var out []Caution
	warn := func(yes bool, code, text string) {
		if yes {
			out = append(out, Caution{code, text})
		}
	}
	any := func(is func(*food.Ingredient) bool) bool { return slices.ContainsFunc(used, is) }
	minds := func(c food.CautionCode) bool {
		return any(func(in *food.Ingredient) bool { return in.Minds(c) })
	}
	raw := any(func(in *food.Ingredient) bool { return in.Group == food.GroupEgg || in.IsFlour() })
	produce := func(in *food.Ingredient) bool {
		switch in.Group {
		case food.GroupGrated, food.GroupFreshPiece, food.GroupZest, food.GroupHerb:
			return true
		}
		return false
	}
	warn(raw && !minds(food.CodeTasting), "raw_batter", "Do not taste raw batter: flour and egg are raw until cooked through.")
	warn(true, "allergens", "Allergens follow the usual makes: check every pack. A shared griddle, iron or ladle carries them over.")
	for _, s := range sentences(used) {
		warn(true, "ingredient", words.Upper(s.text)+" ("+words.List(s.who)+").")
	}
	warn(any(func(in *food.Ingredient) bool { return produce(in) && !in.Minds(food.CodeWash) }), "wash", "Wash fruit, vegetables and herbs before they go in.")
	warn(any(func(in *food.Ingredient) bool { return in.Group == food.GroupGrated }), "grater", "Grater: use the guard, and stop before your fingers do.")
	switch {
	case minds(food.CodeKnifeRound):
		warn(true, "knife", "Round fruit rolls: cut a flat side first and lay it on that. Claw grip, fingertips back.")
	case minds(food.CodeKnife):
		warn(true, "knife", "Knife: claw grip, fingertips back.")
	}
	warn(minds(food.CodeMelt), "melted_butter", "Melted fat hot enough to sting sets egg: let it cool to hand-warm.")
	warn(any(func(in *food.Ingredient) bool { return in.Alcohol > 0 }), "alcohol", "Not all alcohol of extracts and spirits cooks off.")
	warn(any(func(in *food.Ingredient) bool { return slices.Contains(in.Allergens, "egg") }), "cook_through", "Egg is safe when it has set: 74 °C in the middle by a probe outranks every clock and every model.")
	warn(f == batter.Waffle, "iron", "Keep hands clear of a closing iron, and of the steam when it opens.")
	warn(f != batter.Waffle, "hot_fat", "Hot fat and plates burn: long handle, dry hands.")
	warn(true, "local_code", "This is kitchen help, not a food-safety plan: follow your local code.")
	return out
}

type sentence struct {
	text string
	who  []string
}

// sentences are the rows' own cautions, each once with the names of the rows that carry it.
func sentences(used []*food.Ingredient) []sentence {
	var out []sentence
	for _, in := range used {
		if in.Caution == "" {
			continue
		}
		at := slices.IndexFunc(out, func(s sentence) bool { return s.text == in.Caution })
		if at < 0 {
			at = len(out)
			out = append(out, sentence{text: in.Caution})
		}
		if who := words.Lower(in.Label()); !slices.Contains(out[at].who, who) {
			out[at].who = append(out[at].who, who)
		}
	}
	return out
}

// Clocks of a bowl with egg or milk (the 2 h/4 h rule and the usual day in the fridge, from
// memory; the local code decides) [min].
const (
	FridgeFromMin   = 30      // a rest of so long stands in the fridge
	LeavenWaitsMin  = 2 * 60  // beyond it powder and soda have spent their gas, so they go in last
	DiscardAfterMin = 24 * 60 // mixed batter is kept no longer
)

// Spoils tells whether a bowl has egg or milk in it, which must not stand warm.
func Spoils(used []*food.Ingredient) bool {
	return slices.ContainsFunc(used, func(in *food.Ingredient) bool {
		return slices.Contains(in.Allergens, "egg") || slices.Contains(in.Allergens, "milk") && in.Group != food.GroupFat && in.Water > dryBelow ||
			in.Group == food.GroupLiquid && in.Protein > 0.5
	})
}

// dryBelow is the water in g per 100 g below which milk is a powder or a chip that keeps.
const dryBelow = 20

// The clock of a bowl with egg or milk, in total time above 5 °C (the 2 h/4 h rule, from memory; the
// local code decides).
const (
	ChillAgainWithinMin = 2 * 60 // under it, use it or chill it again
	UseWithinMin        = 4 * 60 // under it, use it now and do not chill it again; above it, discard it
)

// MindFor are the cautions of one ingredient while it is handled: its own, and those of its kind.
func MindFor(in *food.Ingredient) []string {
	var out []string
	for _, c := range CautionsFor(batter.Pancake, []*food.Ingredient{in}) {
		switch c.Code {
		case "allergens", "hot_fat", "local_code", "cook_through":
			continue
		case "ingredient":
			c.Text = words.Upper(strings.TrimSuffix(in.Caution, ".")) + "."
		}
		out = append(out, c.Text)
	}
	return out
}
