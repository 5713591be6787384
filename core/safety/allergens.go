// Package safety tells what is to be minded with a serving: its allergens, what some makes may
// carry, and the cautions of its ingredients and of the work. It decides by the codes and lists
// of the table, never by reading sentences. Nothing here says that a food is without something:
// packs and local codes decide.
package safety

import (
	"slices"
	"strings"

	"upbeatladle/core/food"
	"upbeatladle/core/words"
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

// view names allergens in the words of one list; 0 is the EU's, 1 the US's. What a pack may
// carry can be less exact than the lists: it is told as it stands.
func view(allergens []string, list int) []string {
	var out []string
	for _, a := range allergens {
		v, ok := allergenViews[a]
		switch {
		case !ok:
			out = append(out, a)
		case v[list] != "":
			out = append(out, v[list])
		}
	}
	return unique(out)
}

// Allergens is what a serving contains and what some makes of its ingredients may carry, in the
// names of the table, each once and sorted; NotKnown names what nobody could look up.
type Allergens struct {
	Contains, May []string
	NotKnown      []string
}

// AllergensOf gathers the allergens of ingredients. What is contained is not told again among
// what may be there; an ingredient that something is only taken for is named as not known.
func AllergensOf(used []*food.Ingredient, notKnown ...string) Allergens {
	var a Allergens
	for _, in := range used {
		a.Contains = append(a.Contains, in.Allergens...)
		a.May = append(a.May, in.MayContain...)
		if in.Doubt != "" {
			notKnown = append(slices.Clone(notKnown), "“"+in.Doubt+"”")
		}
	}
	a.Contains, a.NotKnown = unique(a.Contains), unique(notKnown)
	a.May = slices.DeleteFunc(unique(a.May), func(m string) bool { return slices.Contains(a.Contains, m) })
	if at := slices.Index(a.May, food.Nuts); at >= 0 && slices.ContainsFunc(a.Contains, isNut) {
		a.May[at] = "other nuts"
	}
	return a
}

func isNut(a string) bool { return strings.HasPrefix(allergenViews[a][0], "nuts (") }

// Suspects are the allergens that a serving contains or may carry, as far as anybody knows: "nuts" are all of them, and what
// nobody could look up may be anything. Whoever leaves something out for a guest leaves out by these, and still checks packs.
func (a Allergens) Suspects() []string {
	if len(a.NotKnown) > 0 {
		return slices.Clone(food.Allergens)
	}
	out := slices.Clone(a.Contains)
	for _, m := range a.May {
		if m == food.Nuts || m == "other nuts" {
			out = append(out, slices.DeleteFunc(slices.Clone(food.Allergens), func(x string) bool { return !isNut(x) && x != "peanut" })...)
		} else {
			out = append(out, m)
		}
	}
	return unique(out)
}

// EU and US name what is contained in the words of the two lists.
func (a Allergens) EU() []string { return view(a.Contains, 0) }

// US names what is contained in the words of the US list.
func (a Allergens) US() []string { return view(a.Contains, 1) }

// None is said when the table names nothing; it is no promise.
const None = "No allergen of the lists is named for it"

// checkPacks ends every sentence about allergens.
const checkPacks = "check every pack"

// Lead is what is contained, as the beginning of a sentence.
func (a Allergens) Lead() string {
	if len(a.Contains) == 0 {
		return None
	}
	return "Contains " + words.List(a.Contains)
}

// Rest is what stands beside the lead wherever it stands: what may be there, what is not known,
// and who decides.
func (a Allergens) Rest() string {
	var parts []string
	if len(a.May) > 0 {
		parts = append(parts, "some makes may carry "+words.List(a.May))
	}
	if len(a.NotKnown) > 0 {
		parts = append(parts, "not known: "+words.List(a.NotKnown))
	}
	return strings.Join(append(parts, checkPacks), " · ")
}

// Text is the whole of it, in one line.
func (a Allergens) Text() string { return a.Lead() + " · " + words.Upper(a.Rest()) }

func unique(s []string) []string {
	s = slices.Clone(s)
	slices.Sort(s)
	return slices.Compact(s)
}
