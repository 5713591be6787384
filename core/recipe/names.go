package recipe

import (
	"cmp"
	_ "embed"
	"math"
	"slices"
	"strings"
	"sync/atomic"
	"unicode"

	"upbeatladle/core/food"
)

//go:embed names.csv
var namesFile string

// fold makes a text comparable: small letters without accents.
func fold(s string) string {
	var b strings.Builder
	for _, r := range strings.ToLower(s) {
		if plain, ok := accents[r]; ok {
			b.WriteString(plain)
		} else if !unicode.Is(unicode.Mn, r) && r != '\'' && r != '’' {
			b.WriteRune(r)
		}
	}
	return b.String()
}

var accents = map[rune]string{
	'à': "a", 'á': "a", 'â': "a", 'ã': "a", 'ä': "a", 'å': "a", 'ç': "c", 'è': "e", 'é': "e", 'ê': "e", 'ë': "e", 'ì': "i", 'í': "i", 'î': "i", 'ï': "i",
	'ñ': "n", 'ò': "o", 'ó': "o", 'ô': "o", 'õ': "o", 'ö': "o", 'ù': "u", 'ú': "u", 'û': "u", 'ü': "u", 'ý': "y", 'œ': "oe", 'æ': "ae", 'ß': "ss", 'ø': "o",
	'ą': "a", 'ć': "c", 'ę': "e", 'ł': "l", 'ń': "n", 'ś': "s", 'ź': "z", 'ż': "z",
}

// words are the folded words of a text.
func words(s string) []string {
	return strings.FieldsFunc(fold(s), func(r rune) bool { return !unicode.IsLetter(r) })
}

// stem takes the plural off a word.
func stem(w string) string {
	switch {
	case len(w) > 4 && strings.HasSuffix(w, "ies"):
		return w[:len(w)-3] + "y"
	case len(w) > 4 && (strings.HasSuffix(w, "oes") || strings.HasSuffix(w, "ches") || strings.HasSuffix(w, "shes")):
		return w[:len(w)-2]
	case len(w) > 3 && strings.HasSuffix(w, "s") && !strings.HasSuffix(w, "ss") && !strings.HasSuffix(w, "us"):
		return w[:len(w)-1]
	}
	return w
}

// spelled is another spelling of a word.
var spelled = map[string]string{"choc": "chocolate", "yoghurt": "yogurt", "yoghourt": "yogurt", "colour": "color", "colouring": "coloring", "pureed": "puree", "grate": "grated"}

// stop words carry no name.
var stop = set("of the a an and or with for in on to into from about approx some your my any each extra plus more x very good quality pure freshly finely coarsely roughly thinly " +
	"well just organic free range freerange medium large small big ripe fresh room temperature lukewarm warm cold cool chilled cooled hot melted softened beaten lightly separated " +
	"sifted sieved packed levelled leveled heaped level chopped sliced diced cubed peeled cored pitted hulled stoned deseeded drained rinsed washed squeezed toasted thawed shaken " +
	"unsifted spooned scooped crumbled runny fine boiling unbleached unsweetened optional taste needed serve serving dusting frying greasing pan topping garnish whole style de")

// weak words tell kinds of one food apart, and weigh little when a name lacks them: "grated
// carrot" and "carrot" are near, "frozen" is not dropped when it is there.
const weakWeight = 0.35

var weak = set("grated mashed frozen chopped sliced diced crumbled shredded cooked raw plain natural white dried dry ground powder powdered cheese fresh whole fine puree canned tinned " +
	"granulated squeezed flaked mini dark soft sweet unsalted cultured strained thick chip piece chunk pulp style brown browned skimmed light")

// Of names that fit alike the one that recipes use more counts: first those of names.csv in their
// order, then the table's.
const (
	byTeaching = -1
	byTable    = 50
	byLabel    = 60
)

// name is one way to call an ingredient.
type name struct {
	in    *food.Ingredient
	words []string
	order int
}

func (n name) id() string {
	if n.in == nil {
		return notInTable
	}
	return n.in.ID
}

// index finds ingredients by the words of their names.
type index struct {
	names  []name
	byWord map[string][]int
	weight map[string]float64
	all    []string
	exact  map[string]*food.Ingredient          // by the whole name as the table writes it
	vocab  map[*food.Ingredient]map[string]bool // every word of an ingredient's names
	called map[string]*food.Ingredient          // by the words of a name of names.csv in their order, a space before each; nil when the table has no such food
}

// latest is the index of the table that was read with last: a kitchen's table changes when its
// pantry does, and the old ones are let go.
var latest atomic.Pointer[struct {
	table  *food.Table
	taught []Taught
	index  *index
}]

// indexOf returns the index of a table.
func indexOf(t *food.Table, taught ...Taught) *index {
	if had := latest.Load(); had != nil && had.table == t && slices.Equal(had.taught, taught) {
		return had.index
	}
	x := newIndex(t, taught)
	latest.Store(&struct {
		table  *food.Table
		taught []Taught
		index  *index
	}{t, taught, x})
	return x
}

func newIndex(t *food.Table, taught []Taught) *index {
	x := &index{byWord: map[string][]int{}, weight: map[string]float64{}, exact: map[string]*food.Ingredient{}, vocab: map[*food.Ingredient]map[string]bool{}, called: map[string]*food.Ingredient{}}
	add := func(in *food.Ingredient, text string, order int) {
		var w []string
		if x.vocab[in] == nil {
			x.vocab[in] = map[string]bool{}
		}
		for _, one := range words(text) {
			one = stem(spell(one))
			x.vocab[in][one] = true
			if one != "" && !slices.Contains(w, one) && (!stop[one] || weak[one]) {
				w = append(w, one)
			}
		}
		if len(w) > 0 {
			x.names = append(x.names, name{in, w, order})
		}
	}
	for _, w := range taught { // what the kitchen calls it goes before every other name
		add(w.Ingredient, w.Word, byTeaching)
		x.called[calledKey(w.Word)] = w.Ingredient
	}
	for line := range strings.Lines(namesFile) {
		fields := strings.Split(strings.TrimSpace(line), ";")
		in := t.ByID(fields[0])
		if in == nil && fields[0] != notInTable {
			continue
		}
		for i, n := range fields[1:] {
			add(in, n, i)
			key := calledKey(n)
			if _, ok := x.called[key]; !ok {
				x.called[key] = in
			}
		}
	}
	for _, in := range t.All() {
		add(in, in.Name, byTable)
		x.exact[strings.Join(words(in.Name), " ")] = in
		add(in, in.Label(), byLabel)
		if in.Own != nil {
			add(in, in.Own.Name, 0)
		}
	}
	count := map[string]int{}
	for i, n := range x.names {
		for _, w := range n.words {
			x.byWord[w] = append(x.byWord[w], i)
			count[w]++
		}
	}
	for w, c := range count {
		x.weight[w] = 1 + math.Log(float64(len(x.names))/float64(c))/4
		if weak[w] {
			x.weight[w] *= weakWeight
		}
		x.all = append(x.all, w)
	}
	slices.Sort(x.all)
	return x
}

// calledKey is a name by its words, as the index has it.
func calledKey(name string) (key string) {
	for _, w := range words(name) {
		key += " " + stem(spell(w))
	}
	return key
}

func spell(w string) string {
	if s, ok := spelled[w]; ok {
		return s
	}
	return w
}

// notInTable heads the names of foods that the table does not have: without them "cream
// cheese" would be read as cream.
const notInTable = "-"

// hit is what a name was taken for.
type hit struct {
	in     *food.Ingredient
	score  float64
	beside []string        // words of the text that none of its names has
	names  map[string]bool // every word of its names
}

// How sure a match must be (fitted to testdata/lines.tsv).
const (
	certain  = 0.9
	sure     = 0.72
	maybe    = 0.42
	typo     = 0.85 // weight of a word with one slip of the keys
	typoFrom = 5    // letters
	unnamed  = 0.6  // weight of a word of the text that no name has
)

// match finds the ingredient that words mean: the share of a name's weight that the text has,
// times the share of the text that the name explains.
func (x *index) match(ws []string) hit {
	terms, total := x.terms(ws)
	if len(terms) == 0 {
		return hit{}
	}
	got := map[int]float64{}
	for _, t := range terms {
		for _, i := range x.byWord[t.w] {
			got[i] += t.share * x.weight[t.w]
		}
	}
	best, at := hit{}, name{order: 1 << 30}
	for i, g := range got {
		n := x.names[i]
		var all float64
		for _, w := range n.words {
			all += x.weight[w]
		}
		cover, explain := g/all, math.Min(1, g/total)
		score := cover * cover * (0.4 + 0.6*explain)
		if score > best.score+1e-9 || score > best.score-1e-9 && n.goesBefore(at) {
			best, at = hit{in: n.in, score: score}, n
		}
	}
	best.names = x.vocab[best.in]
	for _, t := range terms {
		if !best.names[t.w] {
			best.beside = append(best.beside, t.said)
		}
	}
	return best
}

// goesBefore tells which of two names that fit alike counts.
func (n name) goesBefore(o name) bool {
	return n.order < o.order || n.order == o.order && n.id() < o.id()
}

// term is a word of a text as the index knows it, and how surely.
type term struct {
	w, said string
	share   float64
}

// terms are the words that could name something, each once, and what they weigh together.
func (x *index) terms(ws []string) (terms []term, total float64) {
	for _, said := range ws {
		w := stem(spell(said))
		if stop[w] && !weak[w] {
			continue
		}
		share := 1.0
		if _, ok := x.byWord[w]; !ok {
			if near := x.near(w); near != "" {
				w, share = near, typo
			}
		}
		if slices.ContainsFunc(terms, func(t term) bool { return t.w == w }) {
			continue
		}
		terms = append(terms, term{w, said, share})
		total += cmp.Or(x.weight[w], unnamed)
	}
	return terms, total
}

// whole finds an ingredient by its whole name, as lists that this program wrote have it; a
// measure in brackets may follow.
func (x *index) whole(text string) hit {
	for range 2 {
		if in := x.exact[strings.Join(words(text), " ")]; in != nil {
			return hit{in: in, score: 1}
		}
		open := strings.LastIndex(text, "(")
		if open < 0 {
			break
		}
		text = text[:open]
	}
	return hit{}
}

// near is the known word one slip away from w, if there is just one such length of word.
func (x *index) near(w string) string {
	if len(w) < typoFrom || notFoods[w] || describing()[English][w] { // "batter" is no slip for butter, "while" none for white
		return ""
	}
	for _, k := range x.all {
		if len(k) >= typoFrom && math.Abs(float64(len(k)-len(w))) <= 1 && k[0] == w[0] && oneSlip(w, k) {
			return k
		}
	}
	return ""
}

// oneSlip tells whether two words differ by one letter changed, lost, added or swapped.
func oneSlip(a, b string) bool {
	if len(a) > len(b) {
		a, b = b, a
	}
	i := 0
	for i < len(a) && a[i] == b[i] {
		i++
	}
	if len(a) == len(b) {
		if i >= len(a) {
			return true
		}
		return a[i+1:] == b[i+1:] || i+1 < len(a) && a[i] == b[i+1] && a[i+1] == b[i] && a[i+2:] == b[i+2:]
	}
	return a[i:] == b[i+1:]
}
