package recipe

import (
	"slices"
	"strings"
	"unicode"

	"upbeatladle/core/food"
)

// How a typed word meets a word of a name; lower is better.
const (
	meetsWhole  = iota
	meetsStart  // it begins with it
	meetsInside // it has it somewhere
	meetsSlip   // one letter changed, lost, added or swapped
	meetsGroup  // only the shelf that it stands on does
	meetsNot
)

const (
	insideFrom = 3 // letters that must be typed to be found inside a word
	slipFrom   = 4 // and to be taken for a slip
	unmet      = 20
)

// Search finds ingredients as a cook types them: by any name that recipes use, in the plural, by
// the beginning of a word, with a slip of the keys, with an amount before it, tubs by their own
// name. Every word has to be met. The best come first: whole words before beginnings before slips,
// names with little else in them before long ones, what recipes mean by the name before what else
// is called so. Nothing typed is everything; a group other than "" keeps only that group.
func Search(t *food.Table, text string, group food.Group) []*food.Ingredient {
	asked := typed(text)
	if len(asked) == 0 {
		return t.Shelf(group)
	}
	best := map[*food.Ingredient]found{}
	for _, n := range indexOf(t).names {
		if n.in == nil || group != "" && n.in.Group != group {
			continue
		}
		f := meetAll(n, asked)
		if f.worst == meetsNot {
			continue
		}
		if had, ok := best[n.in]; !ok || f.worst < had.worst || f.worst == had.worst && f.rest+f.order < had.rest+had.order {
			best[n.in] = f
		}
	}
	var out []found
	for _, in := range t.All() { // in the table's order, where nothing else decides
		if f, ok := best[in]; ok {
			out = append(out, f)
		}
	}
	slices.SortStableFunc(out, func(a, b found) int {
		if a.worst != b.worst {
			return a.worst - b.worst
		}
		if d := a.rest + min(a.order, byTable/10) - b.rest - min(b.order, byTable/10); d != 0 {
			return d
		}
		return slices.Index(food.Groups, a.in.Group) - slices.Index(food.Groups, b.in.Group)
	})
	list := make([]*food.Ingredient, len(out))
	for i, f := range out {
		list[i] = f.in
	}
	return list
}

// found is how well a name is met: by its worst word, and by what else there is in it.
type found struct {
	in                 *food.Ingredient
	worst, rest, order int
}

// meetAll meets a name with all the words that were asked.
func meetAll(n name, asked []string) found {
	f := found{in: n.in, order: n.order}
	for i, w := range asked {
		met := meet(n, w)
		switch {
		case !stop[w] || len(asked) == 1:
			f.worst = max(f.worst, met)
		case met > meetsInside: // what any name could have ranks, and does not rule out
			f.rest += unmet
		}
		if i == 0 && len(n.words) > 0 && meetWord(n.words[0], w) > meetsStart {
			f.rest++ // the name begins otherwise
		}
	}
	f.rest += 2 * max(0, len(n.words)-len(asked))
	return f
}

// Meets tells how well what a cook types finds a name that somebody gave: by whole words, their beginnings, inside them,
// with a slip; lower is better. Every word has to be met. Nothing typed meets everything.
func Meets(name, text string) (rank int, ok bool) {
	own := words(name)
	for i := range own {
		own[i] = stem(own[i])
	}
	for _, w := range typed(text) {
		best := meetsNot
		for _, o := range own {
			best = min(best, meetWord(o, w))
		}
		if best == meetsNot {
			return 0, false
		}
		rank = max(rank, best)
	}
	return rank, true
}

// typed are the words that name something: an amount before them is left out.
func typed(text string) []string {
	first := strings.IndexFunc(strings.TrimSpace(text), func(r rune) bool { return !unicode.IsSpace(r) })
	amount := first >= 0 && unicode.IsNumber([]rune(strings.TrimSpace(text))[0])
	var out []string
	for i, w := range words(text) {
		if _, unit := units[w]; amount && i == 0 && unit || particles[w] {
			continue
		}
		out = append(out, w)
	}
	return out
}

// particles name nothing.
var particles = set("of the a an and or with for some")

func meet(n name, w string) int {
	best := meetsNot
	for _, word := range n.words {
		best = min(best, meetWord(word, w))
	}
	if best > meetsInside && strings.Contains(n.in.ID, w) && len(w) >= insideFrom {
		best = meetsInside
	}
	if best == meetsNot && strings.HasPrefix(string(n.in.Group), w) {
		return meetsGroup
	}
	return best
}

func meetWord(word, w string) int {
	s := stem(spell(w))
	switch {
	case word == s || word == w:
		return meetsWhole
	case strings.HasPrefix(word, w), strings.HasPrefix(word, s):
		return meetsStart
	case len(w) >= insideFrom && strings.Contains(word, w):
		return meetsInside
	case len(w) >= slipFrom && len(word) >= slipFrom && (oneSlip(word, s) || oneSlip(word+"s", w) || slipped(word, w)):
		return meetsSlip
	}
	return meetsNot
}

// slipped tells whether a word begins with what was typed but for one letter.
func slipped(word, w string) bool {
	for _, n := range []int{len(w) - 1, len(w), len(w) + 1} {
		if n <= len(word) && n >= slipFrom && oneSlip(word[:n], w) {
			return true
		}
	}
	return false
}
