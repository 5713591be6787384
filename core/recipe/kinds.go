package recipe

import (
	_ "embed"
	"slices"
	"strings"
	"sync"

	"upbeatladle/core/food"
)

// describing.csv holds, by language, the words that do not change which food a name means: size, ripeness, state, quality,
// temperature, whose it is, how many, and what holds a phrase together; without accents (from memory). Every other word
// beside a name makes another kind of it.
//
//go:embed describing.csv
var describingFile string

// allergens.csv holds the words that name one of the 14 allergens in the languages that are read: which allergens, then
// words without accents; one with "=" before it is met whole only (from memory).
//
//go:embed allergens.csv
var allergensFile string

var describing = sync.OnceValue(func() map[Language]map[string]bool {
	out := map[Language]map[string]bool{}
	for line := range strings.Lines(describingFile) {
		lang, list, ok := strings.Cut(strings.TrimSpace(line), ";")
		if !ok {
			continue
		}
		l := Language(lang)
		if out[l] == nil {
			out[l] = map[string]bool{}
		}
		for _, w := range strings.Fields(list) {
			out[l][w], out[l][stem(w)] = true, true
		}
	}
	return out
})

// allergenWord is a word that names allergens of the table.
type allergenWord struct {
	word  string
	whole bool
	of    []string
}

var allergenWords = sync.OnceValue(func() (out []allergenWord) {
	for line := range strings.Lines(allergensFile) {
		f := strings.Split(strings.TrimSpace(line), ";")
		for _, w := range f[1:] {
			w, whole := strings.CutPrefix(w, "=")
			out = append(out, allergenWord{w, whole, strings.Split(f[0], ",")})
		}
	}
	return out
})

// From so many letters on an allergen's word is also met as the beginning of another, and inside it: "sojamehl", "haselnussmilch".
const (
	beginsWord = 4
	insideWord = 5
)

// allergenOf are the allergens that a folded word names, none when it names none.
func allergenOf(w string) []string {
	one := stem(w)
	for _, a := range allergenWords() {
		if w == a.word || one == a.word || !a.whole && len(a.word) >= beginsWord && (strings.HasPrefix(w, a.word) || len(a.word) >= insideWord && strings.Contains(w, a.word)) {
			return a.of
		}
	}
	return nil
}

// leavesOut are the words beside an allergen that say it is not there.
var (
	leavesOut   = set("free frei ohne sans sin senza zonder vrij bez without no")
	saysWithout = set("ohne sans sin senza zonder bez without")
)

// carries tells whether an ingredient has one of some allergens in it.
func carries(in *food.Ingredient, of []string) bool {
	return in != nil && slices.ContainsFunc(in.Allergens, func(a string) bool { return slices.Contains(of, a) })
}

// unmetAllergen is the first word of a text that names an allergen which none of the ingredients has; what is said to be left
// out is not meant.
func unmetAllergen(ws []string, in ...*food.Ingredient) string {
	for i, w := range ws {
		of := allergenOf(w)
		if of == nil || i > 0 && leavesOut[ws[i-1]] || i+1 < len(ws) && leavesOut[ws[i+1]] {
			continue
		}
		if !slices.ContainsFunc(in, func(one *food.Ingredient) bool { return carries(one, of) }) {
			return w
		}
	}
	return ""
}

// kindMaking are the weak words that make another food of what they stand beside.
var kindMaking = set("cheese chip powder powdered style cultured")

// kindOf are the words of a line beside a name that make another kind of it; lang is what the line was read in.
func kindOf(h hit, note string, lang Language) []string {
	known := describing()
	return slices.DeleteFunc(append(slices.Clone(h.beside), oneWord(note)...), func(w string) bool {
		switch {
		case h.names[stem(spell(w))]:
			return true
		case allergenOf(w) != nil:
			return false
		case weak[w] || weak[stem(w)]:
			return !kindMaking[stem(w)]
		}
		return len(w) == 1 || units[w].unit != "" || containers[w] || sizeWords[w] || vague[w] || numberWords[w] > 0 || known[English][w] || known[English][stem(w)] || known[lang][w] || notFoods[w] && w != "mix" || verbs[w] && w != "mix"
	})
}

// saidOfIt are the words of a note that describe the thing itself: not what may be taken instead.
func saidOfIt(note string) (out []string) {
	for part := range strings.SplitSeq(note, "; ") {
		if !strings.HasPrefix(part, "or ") {
			out = append(out, words(part)...)
		}
	}
	return out
}

// AllergensNamed are the allergens of the table that a word of a recipe names, in any language that is read; none when it names none.
func AllergensNamed(word string) []string { return allergenOf(fold(word)) }

// oneWord are the parts of a note that are one word: "flour, chestnut" is as much a kind as "chestnut flour".
func oneWord(note string) (out []string) {
	for part := range strings.SplitSeq(note, "; ") {
		if ws := words(part); len(ws) == 1 && !strings.ContainsAny(part, "0123456789") {
			out = append(out, ws[0])
		}
	}
	return out
}
