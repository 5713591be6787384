package worksheet

import (
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// The allergens of the table, named as the cereal and the nut, in the words of the two lists
// that packs are printed by: the 14 of the EU (Regulation 1169/2011, from memory) and the 9
// of the US (FALCPA and the FASTER act, from memory). Empty: not on that list.
var allergenViews = map[string][2]string{
	"wheat": {"cereals containing gluten (wheat)", "wheat"}, "rye": {"cereals containing gluten (rye)", ""},
	"barley": {"cereals containing gluten (barley)", ""}, "oats": {"cereals containing gluten (oats)", ""},
	"almond": {"nuts (almond)", "tree nuts (almond)"}, "walnut": {"nuts (walnut)", "tree nuts (walnut)"},
	"hazelnut": {"nuts (hazelnut)", "tree nuts (hazelnut)"}, "pecan": {"nuts (pecan)", "tree nuts (pecan)"},
	"pistachio": {"nuts (pistachio)", "tree nuts (pistachio)"}, "cashew": {"nuts (cashew)", "tree nuts (cashew)"},
	"milk": {"milk", "milk"}, "egg": {"eggs", "eggs"}, "soya": {"soybeans", "soybeans"}, "sesame": {"sesame", "sesame"},
	"brazil nut": {"nuts (Brazil)", "tree nuts (Brazil)"}, "macadamia": {"nuts (macadamia)", "tree nuts (macadamia)"},
	"celery": {"celery", ""}, "mustard": {"mustard", ""}, "lupin": {"lupin", ""}, "fish": {"fish", "fish"},
	"crustaceans": {"crustaceans", "crustacean shellfish"}, "molluscs": {"molluscs", ""},
	"peanut": {"peanuts", "peanuts"}, "sulphites": {"sulphur dioxide and sulphites", ""},
}

// view names the allergens in the words of one list; 0 is the EU's, 1 the US's.
func view(allergens []string, list int) []string {
	var out []string
	for _, a := range allergens {
		if v := allergenViews[a][list]; v != "" {
			out = append(out, v)
		}
	}
	return unique(out)
}

// used lists everything in the serving: the base, and additions of which there is any.
func (w *work) used() []*food.Ingredient {
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
func (w *work) safety() {
	var contains, may []string
	type said struct{ text, who string }
	var rows []said
	var raw, told, wash, grate, alcohol, melts bool
	used := w.used()
	for _, in := range used {
		contains = append(contains, in.Allergens...)
		may = append(may, in.MayContain...)
		if in.Caution != "" {
			rows = append(rows, said{in.Caution, lower(in.Label())})
			told = told || strings.Contains(in.Caution, "do not taste")
			wash = wash || strings.Contains(in.Caution, "wash")
		}
		raw = raw || in.Group == food.GroupEgg || in.IsFlour()
		grate = grate || in.Group == food.GroupGrated
		alcohol = alcohol || in.Alcohol > 0
		melts = melts || in.Group == food.GroupFat && strings.HasPrefix(in.ID, "butter")
	}
	produce := slices.ContainsFunc(used, func(in *food.Ingredient) bool {
		return in.Group == food.GroupGrated || in.Group == food.GroupFreshPiece || in.Group == food.GroupZest || in.Group == food.GroupHerb
	})
	w.out.Allergens = unique(contains)
	w.out.MayContain = slices.DeleteFunc(unique(may), func(m string) bool { return slices.Contains(w.out.Allergens, m) })
	w.out.AllergensEU, w.out.AllergensUS = view(w.out.Allergens, 0), view(w.out.Allergens, 1)

	warn := func(yes bool, code, text string) {
		if yes {
			w.out.Cautions = append(w.out.Cautions, Caution{code, text})
		}
	}
	warn(raw && !told, "raw_batter", "Do not taste raw batter: flour and egg are raw until cooked through.")
	warn(len(w.out.Allergens) > 0, "allergens", "Allergens follow the usual makes; the pack decides. A shared griddle or iron carries them over.")
	for len(rows) > 0 {
		text, who := rows[0].text, []string{}
		rows = slices.DeleteFunc(rows, func(s said) bool {
			if s.text == text && !slices.Contains(who, s.who) {
				who = append(who, s.who)
			}
			return s.text == text
		})
		warn(true, "ingredient", upper(text)+" ("+list(who)+").")
	}
	warn(produce && !wash, "wash", "Wash fruit, vegetables and herbs before they go in.")
	warn(grate, "grater", "Grater: use the guard, and stop before your fingers do.")
	warn(melts, "melted_butter", "Melted butter hot enough to sting sets egg: let it cool to hand-warm.")
	warn(alcohol, "alcohol", "Not all alcohol of extracts and spirits cooks off.")
	warn(w.v.Form == batter.Waffle, "iron", "Keep hands clear of a closing iron, and of the steam when it opens.")
	warn(w.v.Form != batter.Waffle, "hot_fat", "Hot fat and plates burn: long handle, dry hands.")
	warn(true, "local_code", "This is kitchen help, not a food-safety plan: follow your local code.")
}

func unique(s []string) []string {
	s = slices.Clone(s)
	slices.Sort(s)
	return slices.Compact(s)
}
