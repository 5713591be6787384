package recipe

import (
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// item is a food of a sentence: with its amount, or only named; or an amount of what was named before it.
type item struct {
	start, end int // tokens
	lines      []Line
	q          quantity
	named      bool // without an amount
	bare       bool // an amount alone
	instead    bool // it takes back the one before
	retold     bool // its amount was put right
}

// listen takes a sentence apart.
func (r *reader) listen(text string, at int) *speech {
	s := &speech{r: r, said: text, at: at, toks: r.tokens(text), starts: map[int]int{}}
	if len(s.toks) > 1 && s.toks[1].text == ":" && len(s.toks[0].raw) == 1 {
		s.toks = s.toks[2:] // who says it
	}
	s.spoonsOfTwoWords()
	s.onlyPowder()
	s.ofTheMix()
	s.appositions()
	all := quantities(s.toks)
	found := slices.DeleteFunc(slices.Clone(all), func(q quantity) bool { return q.inside })
	s.imperialPints(found)
	s.qs = counted(s.toks, saidTwice(s.toks, sized(s.toks, addUp(s.toks, dropAlternatives(s.toks, found)))))
	s.inside = all
	s.unnumbered()
	s.asMuch()
	for i := range s.qs {
		s.starts[s.qs[i].start] = i + 1
	}
	for i := range s.qs {
		s.spoons(&s.qs[i])
	}
	return s
}

// twoWords are spoons that are told in two words, and the one word that they are; one for coffee names no amount.
var twoWords = map[string]string{"table": "tablespoon", "soup": "tablespoon", "tea": "teaspoon", "dessert": "dessertspoon", "coffee": "spoon"}

// spoonsOfTwoWords makes "table spoon" one word.
func (s *speech) spoonsOfTwoWords() {
	for i := 0; i+1 < len(s.toks); i++ {
		is, next := twoWords[s.text(i)], s.text(i+1)
		if is == "" || next != "spoon" && next != "spoons" {
			continue
		}
		s.toks[i].text, s.toks[i].to = is+strings.TrimPrefix(next, "spoon"), s.toks[i+1].to
		s.toks[i].raw = s.said[s.toks[i].at:s.toks[i].to]
		s.toks = slices.Delete(s.toks, i+1, i+2)
	}
}

// onlyPowder takes a powder that no word says more of for the baking powder.
func (s *speech) onlyPowder() {
	for i := range s.toks {
		if t := &s.toks[i]; t.text == "powder" && (i == 0 || beforePowder[s.text(i-1)] || units[s.text(i-1)].is() || s.toks[i-1].kind != word || numberWords[s.text(i-1)] > 0) {
			t.text = "bakingpowder"
		}
	}
}

var beforePowder = set("of the and my a plus hundred")

// appositions join what says behind a food which one it is: "vanilla, the paste".
func (s *speech) appositions() {
	for i := 0; i+3 < len(s.toks); i++ {
		if s.text(i+1) != "," || s.text(i+2) != "the" || s.foodAt(i) != 1 {
			continue
		}
		if _, n := s.r.names.exactly([]token{s.toks[i], s.toks[i+3]}); n == 2 {
			s.toks = slices.Delete(s.toks, i+1, i+3)
		}
	}
}

// ofTheMix takes the mix for that of the bag that the talk is about: "two cups of the mix".
func (s *speech) ofTheMix() {
	for i := 2; s.r.mixed && i < len(s.toks); i++ {
		if t := &s.toks[i]; t.text == "mix" && (s.text(i-1) == "the" || s.text(i-1) == "this") && s.text(i-2) == "of" {
			t.text = "pancakemix"
		}
	}
}

// imperialPintML is what an imperial pint holds [ml] (by definition).
const imperialPintML = 568.26125

// imperialPints measures pints as a talk says that they are.
func (s *speech) imperialPints(qs []quantity) {
	for i := range qs {
		if q := &qs[i]; s.r.imperial && q.unit == measure.Cup && strings.HasPrefix(s.text(q.end-1), "pint") {
			q.amount, q.unit = q.amount/pintCups*imperialPintML, measure.Ml
		}
	}
}

// asMuchAs are the words of an amount that is the one before: "the same of water", "the same amount of milk".
var asMuchAs = shapeOf("the same ?again ?amount|weight|quantity")

// asMuch finds amounts that are the one before again.
func (s *speech) asMuch() {
	for i := range s.toks {
		end, ok := s.matches(asMuchAs, i)
		if t := s.text(end); !ok || t != "of" && t != "in" || s.foodAt(end+1) == 0 || slices.ContainsFunc(s.qs, func(q quantity) bool { return q.start < end && q.end > i }) || s.amountSoon(end+1+s.foodAt(end+1)) {
			continue
		}
		s.qs = append(s.qs, quantity{start: i, end: end, same: true})
	}
	slices.SortFunc(s.qs, func(a, b quantity) int { return a.start - b.start })
}

// amountSoon tells whether an amount follows that has no food of its own.
func (s *speech) amountSoon(from int) bool {
	return slices.ContainsFunc(s.qs, func(q quantity) bool {
		return q.start >= from && q.start < from+soon && s.foodAt(q.end) == 0 && (s.text(q.end) != "of" || s.foodAt(q.end+1) == 0)
	})
}

// unnumbered finds what is one without a number: "teaspoon salt", "and a vanilla pod".
func (s *speech) unnumbered() {
	within := func(i int) bool {
		return slices.ContainsFunc(s.qs, func(q quantity) bool { return i >= q.start && i < q.end })
	}
	for i, t := range s.toks {
		if t.kind != word || within(i) {
			continue
		}
		in, n := s.r.names.exactly(s.toks[i+1:])
		switch {
		case isSpoon(t) && s.text(i+1) == "of" && s.foodAt(i+2) > 0:
			s.qs = append(s.qs, quantity{start: i, end: i + 1, amount: units[t.text].per, unit: units[t.text].unit})
		case n == 0:
		case isSpoon(t):
			u := units[t.text]
			s.qs = append(s.qs, quantity{start: i, end: i + 1, amount: u.per, unit: u.unit})
		case isArticle(t) && (s.text(i-1) == "," || s.text(i-1) == "and") && in != nil && in.UnitG > 0 && !within(i+1):
			s.qs = append(s.qs, quantity{start: i, end: i + 1, amount: 1, unit: measure.Each})
		}
	}
	slices.SortFunc(s.qs, func(a, b quantity) int { return a.start - b.start })
}

// isSpoon tells whether a word is one spoon or one cup, written out.
func isSpoon(t token) bool {
	u := units[t.text]
	return u.word == "" && (u.unit == measure.Tsp || u.unit == measure.Tbsp || u.unit == measure.Cup) && len(t.text) > 2 && !strings.HasSuffix(t.text, "s")
}

// counted joins what is counted out into one amount, "one, two, three tablespoons", and what is said a little more than: "two litres
// and a bit of milk".
func counted(toks []token, qs []quantity) (out []quantity) {
	for _, q := range qs {
		n := len(out)
		if n == 0 {
			out = append(out, q)
			continue
		}
		last := &out[n-1]
		gap := toks[last.end:q.start]
		alone := !slices.ContainsFunc(gap, func(t token) bool { return t.text != "," && t.text != "and" })
		switch {
		case alone && q.amount == last.amount+1 && last.vague == "" && (last.unit == measure.Each || last.unit == q.unit) && last.word == "" && (last.amount == 1 || last.counting):
			q.start, q.counting = last.start, true
			*last = q
		case alone && len(gap) == 1 && (q.vague == "bit" || q.vague == "little") && last.unit != measure.Each && last.vague == "":
			last.end = q.end
		default:
			out = append(out, q)
		}
	}
	return out
}

// spoons gives "three spoons of oil, tablespoons" its unit.
func (s *speech) spoons(q *quantity) {
	if q.vague != "spoon" && q.vague != "spoons" || q.vague == "spoons" && q.counted < 2 {
		return
	}
	for i := q.end; i < min(q.end+2*soon, len(s.toks)); i++ {
		name := s.text(i)
		if name == "table" || name == "tea" {
			name += s.text(i + 1)
		}
		if u := units[name].unit; s.starts[i] == 0 && (u == measure.Tbsp || u == measure.Tsp) {
			q.vague, q.amount, q.unit = "", q.counted, u
			return
		}
		if s.starts[i] > 0 {
			return
		}
	}
}

// hear puts the foods of a sentence into the reading.
func (s *speech) hear() {
	items := s.items()
	cues := s.cues()
	had := len(s.r.out.Lines)
	p := placing{speech: s}
	if s.tellsOfOthers() {
		s.r.theirs = had
	}
	if s.finishes() {
		p.here = batter.Serving
	}
	for i, it := range items {
		for len(cues) > 0 && (cues[0].start < it.start || cues[0].start == it.start && (cues[0].does >= notMeant || cues[0].does == ahead)) {
			p.heed(cues[0])
			cues = cues[1:]
		}
		if it.bare {
			p.share(it, cues)
			continue
		}
		if it.named && len(it.lines) > 0 && p.namesKind(it, it.lines[0].Ingredient) {
			continue
		}
		if it.named && !p.wanted(it, cues) && !p.withNext(items[i:], cues) {
			continue
		}
		p.take(it)
	}
	for _, c := range cues {
		p.heed(c)
	}
	p.ends()
	if len(s.r.out.Lines) > had {
		s.r.hadLines = had
	}
	if s.tellsOfOne() {
		for i := had; i < len(s.r.out.Lines); i++ {
			s.r.out.Lines[i].perHead = true
		}
	}
	if len(items) > 0 || len(s.toks) > pendingWords {
		s.r.pending = s.leaves(items, p.noTo > 0)
	}
	s.r.fried = s.r.fried || s.fries()
	s.r.done = s.r.done || s.r.fried && s.cooks()
}

// forOne says that amounts are those of one person.
var forOne = []shape{shapeOf("thats|is|makes|feeds|for ?for one|a person|head|portion|guest"), shapeOf("per|each person|head|guest|portion")}

func (s *speech) tellsOfOne() bool {
	for i := range s.toks {
		for _, sh := range forOne {
			if _, ok := s.matches(sh, i); ok {
				return true
			}
		}
	}
	return false
}

// fries tells whether a sentence has come to the pan, with a batter that is told.
func (s *speech) fries() bool {
	return slices.ContainsFunc(s.toks, func(t token) bool { return frying[t.text] }) &&
		slices.ContainsFunc(s.r.out.Lines, func(l Line) bool { return l.Ingredient != nil && l.Ingredient.IsFlour() && l.Place == "" })
}

// cooks tells whether a sentence without an amount of food says how the batter is cooked or left.
func (s *speech) cooks() bool {
	return !slices.ContainsFunc(s.qs, func(q quantity) bool { return q.amount > 0 && s.foodAt(q.end) > 0 }) &&
		slices.ContainsFunc(s.toks, func(t token) bool { return cooking[t.text] }) && s.r.isWhole()
}

// isWhole tells whether a batter is told: flour, and what makes it wet.
func (r *reader) isWhole() bool {
	flour, wet := false, false
	for _, l := range r.out.Lines {
		if l.Ingredient != nil && l.Place == "" && l.Amount > 0 {
			flour = flour || l.Ingredient.IsFlour()
			wet = wet || l.Ingredient.IsWholeEgg() || l.Ingredient.Group == food.GroupLiquid || l.Ingredient.Role == food.RoleDairy
		}
	}
	return flour && wet
}

var cooking = set("flip turn turned bake baked fry fried rest cook overnight side sides")

// frying are words of what is done with a batter that is ready.
var frying = set("flip turn turned side sides pan iron griddle skillet fry fried bake baked bubbles makes pancake pancakes waffle waffles hot rest ladle scoop")

// finishes tells whether a sentence only names what goes on when all is done: "Maple syrup and berries."
func (s *speech) finishes() bool {
	if !s.r.fried || slices.ContainsFunc(s.qs, func(q quantity) bool { return q.unit != measure.Each || q.amount > 2 || q.vague != "" }) {
		return false
	}
	i := 0
	for i < len(s.toks) && (leads[s.text(i)] || s.text(i) == "with" || stop[s.text(i)] && s.foodAt(i) == 0) {
		i++
	}
	in, n := s.r.names.exactly(s.toks[i:])
	if n == 0 || len(s.toks) > longestFinish {
		return false
	}
	return len(s.toks)-i-n > 2 || !slices.ContainsFunc(s.r.out.Lines, func(l Line) bool { return l.Ingredient == in && l.Place == "" }) // "Butter last."
}

// longestFinish is up to how many words a sentence may have that only tells what goes on (modelling choice).
const longestFinish = 16

// told is an amount of a sentence with the name that may be its own.
type told struct {
	q         quantity
	from, end int  // tokens of both
	to        int  // where the next amount begins
	named     bool // a food stands behind it
}

// gathering is a sentence while its foods are taken out of it, in their order.
type gathering struct {
	*speech
	out    []item
	before int // behind the last one
}

// ways are what an amount can be, in the order in which they are tried; the first that takes it counts.
var ways = []func(*gathering, told) bool{(*gathering).isNone, (*gathering).recapsAmount, (*gathering).fillsLast, (*gathering).saysHowMuch, (*gathering).yields, (*gathering).insteadOfLast, (*gathering).restatesLast, (*gathering).sumsUp, (*gathering).ofBoth, (*gathering).ofEach, (*gathering).eachOfThose, (*gathering).ofOne}

// items are the foods of a sentence in their order.
func (s *speech) items() []item {
	g := &gathering{speech: s}
	first := s.nameFirst()
	for i, q := range s.qs {
		t := g.name(i, q, first[i])
		for _, way := range ways {
			if way(g, t) {
				break
			}
		}
	}
	return s.withNames(g.out)
}

// name finds the name of an amount: behind it, else before it.
func (g *gathering) name(i int, q quantity, first bool) told {
	t := told{q: q, from: q.start, to: len(g.toks)}
	if i+1 < len(g.qs) {
		t.to = g.qs[i+1].start
	}
	t.end = g.nameEnd(q, t.to)
	if g.ofIt(q) && q.amount < 1 && q.unit == measure.Each { // "half of it": a part of what was named
		t.end = q.end
		return t
	}
	if g.ofIt(q) { // "two cups of it": its name stands before
		if at := g.nameBefore(g.before, q.start); at >= 0 {
			t.from = at
		}
		t.end = q.end
		return t
	}
	if name := nameWords(g.toks[q.end:t.end]); first || len(name) == 0 || g.r.names.match(name).score < sure && !g.nameFollows(q.end, t.end) {
		if at := g.nameBefore(g.before, q.start); at >= 0 {
			t.from, t.end = at, q.end
		}
	}
	if n := g.peelBefore(q.start); n > 0 && t.from == q.start {
		t.from = q.start - n
	}
	t.named = g.r.isNamed(g.toks[q.end:t.end])
	if t.from < q.start && g.text(t.end) == "," && kindWord[g.text(t.end+1)] { // "butter, 50 grams, browned"
		t.end += 2
	}
	return t
}

// nameFollows tells whether right behind an amount a food is named, with what describes it.
func (g *gathering) nameFollows(i, end int) bool {
	for i < end && g.foodAt(i) == 0 && (g.text(i) == "of" || g.text(i) == "the" || g.describes(i)) {
		i++
	}
	return i < end && g.foodAt(i) > 0
}

// ofIt tells whether an amount is of what was named before: "of it", "of them".
func (g *gathering) ofIt(q quantity) bool {
	return g.text(q.end) == "of" && itself[g.text(q.end+1)] && g.foodAt(q.end+2) == 0
}

// last is the last food that was taken, with at least one line; nil where there is none.
func (g *gathering) last() *item {
	if n := len(g.out); n > 0 && len(g.out[n-1].lines) > 0 {
		return &g.out[n-1]
	}
	return nil
}

// isNone passes over what counts no food of its own: half of what follows, "a drained one".
func (g *gathering) isNone(t told) bool {
	from, to := g.halfAt(0)
	return from >= 0 && t.q.start >= from && t.q.start < to || g.standsFor(t.q) || g.onlyRatio(t) || g.isTaken(t.q) || g.text(t.q.start-1) == "by" && !t.named // "pull it back by thirty"
}

// takenAway is how an amount is told that is left out of what was told.
var takenAway = []shape{shapeOf("of ?the FOOD ?is|goes away|off|back|out"), shapeOf("less|away|back")}

func (g *gathering) isTaken(q quantity) bool {
	for _, sh := range takenAway {
		if _, ok := g.matches(sh, q.end); ok {
			return true
		}
	}
	return false
}

// onlyRatio tells whether an amount is a share of another food, and its own amount follows.
func (g *gathering) onlyRatio(t told) bool {
	if t.q.amount >= 1 || t.q.unit != measure.Each || g.text(t.q.end) != "of" || !itself[g.text(t.q.end+1)] {
		return false
	}
	i := t.q.end + 2
	for g.text(i) == "," || repeats[g.text(i)] {
		i++
	}
	return g.starts[i] > 0 && g.nameBefore(g.before, t.q.start) >= 0
}

// recapReach is how many words before an amount its food may stand that was told with it before (modelling choice).
const recapReach = 25

// recapsAmount passes over an amount without a name that was told before of a food that is named again: "oats into the hot milk,
// that's our hundred grams".
func (g *gathering) recapsAmount(t told) bool {
	q := t.q
	if g.hasOwnName(t) || q.unit == measure.Each || q.vague != "" || q.amount <= 0 {
		return false
	}
	for i := q.start - 1; i >= max(g.before, q.start-recapReach); i-- {
		in, n := g.r.names.exactly(g.toks[i:])
		if n == 0 || in == nil || i+n > q.start {
			continue
		}
		for _, l := range g.r.out.Lines {
			if l.Ingredient == in && l.Unit == q.unit && l.Amount == q.amount {
				g.before = q.end
				return true
			}
		}
		for _, it := range g.out {
			if !it.named && len(it.lines) > 0 && it.lines[0].Ingredient == in && it.lines[0].Unit == q.unit && it.lines[0].Amount == q.amount && it.end <= i {
				g.before = q.end
				return true
			}
		}
	}
	return false
}

// fillsLast gives a container what it holds.
func (g *gathering) fillsLast(t told) bool {
	last := g.last()
	if last == nil || t.from != t.q.start || t.named {
		return false
	}
	q := last.q
	switch its := restates(g.toks[g.before:t.q.start]) || g.text(t.q.start-1) == "its"; {
	case its && q.word == "can" && q.size == 0 && t.q.size > 0: // "one can of corn, it's a 15 ounce can"
		q.size, q.sizeUnit = t.q.size, t.q.sizeUnit
	case g.fills(*last, t.q) && q.amount < 1: // "half a packet, so eight grams"
		g.retell(last, t.q)
		return true
	case g.fills(*last, t.q):
		q.size, q.sizeUnit = t.q.amount, t.q.unit
	default:
		return false
	}
	last.lines, g.before = g.spokenLine(q, last.start, last.end), t.q.end
	return true
}

// restatesLast says the amount before again, in another measure.
func (g *gathering) restatesLast(t told) bool {
	last := g.last()
	if last == nil || t.from != t.q.start {
		return false
	}
	l, gap := &last.lines[len(last.lines)-1], g.toks[g.before:t.q.start]
	switch {
	case t.named && (l.Unit != measure.Each || !restates(gap) || g.r.names.match(nameWords(g.toks[t.q.end:t.end])).in != l.Ingredient):
		return false // "one big carrot, so that's a cup of carrot"
	case !restates(gap) && !weighed(*l, gap, t.q):
		return false
	}
	if _, weight := grams(t.q.amount, t.q.unit); weight && !last.named && last.q.unit == measure.Each && last.q.vague == "" && l.Unit != measure.Gram && l.Ingredient != nil && !l.Ingredient.IsWholeEgg() { // "six potatoes, that's about a kilo, grated"
		note := joined(l.Note, short(last.q.amount)+" of them")
		name := g.asDone(slices.Clone(g.nameOf(last)), t.q.end, min(len(g.toks), t.q.end+reach))
		last.lines = g.linesOf(name, g.between(last.start, last.end), g.span(last.start, last.end), t.q)
		last.lines[0].Note = joined(last.lines[0].Note, note)
		g.before = t.end
		return true
	}
	l.restate(t.q)
	if g.withoutShell(t.end) && l.Ingredient != nil && l.Ingredient.IsWholeEgg() && l.Unit == measure.Each {
		if w, ok := grams(t.q.amount, t.q.unit); ok {
			l.Note = joined(l.Note, short(l.Amount)+" of them")
			l.Amount, l.Unit = w, measure.Gram
		}
	}
	g.before = t.end
	return true
}

var noShell = []shape{shapeOf("out of|without ?the|their shell|shells"), shapeOf("cracked|shelled")}

// withoutShell tells whether eggs were weighed without their shells.
func (g *gathering) withoutShell(from int) bool {
	for i := from; i < min(from+soon, len(g.toks)); i++ {
		for _, sh := range noShell {
			if _, ok := g.matches(sh, i); ok {
				return true
			}
		}
	}
	return false
}

// saysHowMuch gives what was named with a vague word its amount: "some walnuts, a quarter cup".
func (g *gathering) saysHowMuch(t told) bool {
	last := g.last()
	if _, weight := grams(1, t.q.unit); last == nil || !nothingSaid[last.q.vague] && !(last.q.vague != "" && weight) || last.named || last.lines[0].Amount > 0 || g.hasOwnName(t) || !g.sayNothing(g.before, t.q.start) {
		return false
	}
	g.retell(last, t.q)
	return true
}

// leftOver are the words by which what is left of something is measured: "squeeze them, and I end up with a cup and a half".
var leftOver = []shape{shapeOf("end|ended|ends up with"), shapeOf("left with"), shapeOf("gives|gave|leaves|left ?me|us|you"), shapeOf("came|comes|come ?out|down to|at|as")}

// yields takes what is left of the last food that was named for its amount.
func (g *gathering) yields(t told) bool {
	_, weight := grams(1, t.q.unit)
	if g.hasOwnName(t) || !weight && t.q.unit != measure.Cup && t.q.unit != measure.Ml || t.q.vague != "" {
		return false
	}
	says := g.text(t.q.end) == "left" || g.text(t.q.end) == "after"
	for i := max(g.before, t.q.start-soon); i < t.q.start; i++ {
		for _, sh := range leftOver {
			_, ok := g.matches(sh, i)
			says = says || ok
		}
	}
	if !says {
		return false
	}
	if last := g.last(); last != nil && !last.named && last.lines[0].Ingredient != nil {
		if l := &last.lines[len(last.lines)-1]; l.Unit != measure.Each && !(l.Unit == t.q.unit && t.q.amount < l.Amount) {
			return false
		}
		name := g.asDone(slices.Clone(g.nameOf(last)), last.end, t.q.start)
		last.lines = g.linesOf(name, g.between(last.start, last.end), g.span(last.start, last.end), t.q)
		last.q, last.retold, g.before = t.q, true, t.q.end
		return true
	}
	return g.ofNamed(t.q)
}

// ofNamed gives the last food that the sentence named before an amount, and that has none, what is left of it.
func (g *gathering) ofNamed(q quantity) bool {
	for at := q.start - 1; at >= 0; at-- {
		in, n := g.r.names.exactly(g.toks[at:])
		if n == 0 || in == nil || at+n > q.start || g.compared(at) || in.Role == food.RoleSalt || in.ID == "water" {
			continue
		}
		if slices.ContainsFunc(g.out, func(it item) bool { return at >= it.start && at < it.end }) {
			return false
		}
		part := g.asDone(slices.Clone(g.toks[at:at+n]), at+n, q.start)
		lines := g.linesOf(part, g.between(at, at+n), g.span(at, at+n), q)
		g.out, g.before = append(g.out, item{start: q.start, end: q.end, lines: lines, q: q}), q.end
		return true
	}
	return false
}

// asDone adds to a name what was last done with it.
func (g *gathering) asDone(name []token, from, to int) []token {
	done := -1
	for i := from; i < to; i++ {
		if doneTo[g.text(i)] != "" {
			done = i
		}
	}
	if done < 0 {
		return name
	}
	name = slices.DeleteFunc(name, func(t token) bool { return doneTo[t.text] != "" || t.text == "," })
	t := g.toks[done]
	t.text = doneTo[t.text]
	return append(name, t)
}

// doneTo are what a food is when it is done so.
var doneTo = map[string]string{"grate": "grated", "squeeze": "squeezed", "mash": "mashed", "wring": "squeezed", "puree": "puree", "grated": "grated", "squeezed": "squeezed", "mashed": "mashed"}

// Words by which somebody else's amount is told, or one that is not taken; and those by which a cook tells what is.
var (
	theirs = set("recipe book packet box bag card label says say asks calls wants original originally supposed")
	tooBy  = shapeOf("is|are|was|were|would|thats|thats|its ?be ?way|far|a ?bit|little too much|little|strong|sweet|salty")
	iTake  = shapeOf("?so|but|and|instead ?i|we use|put|take|took|do|did|make|made|used|add|prefer|like|stay|go ?in|it|with|at|only|just")
)

// insteadOfLast is what the cook takes of the food before it, where another amount was only told: "the recipe says a cup, I put half
// a cup"; "a teaspoon is too much, I use three grams".
func (g *gathering) insteadOfLast(t told) bool {
	last := g.last()
	if last == nil || last.named || g.hasOwnName(t) || t.q.start-g.before > 2*soon {
		return false
	}
	takes := false
	for i := g.before; i < t.q.start; i++ {
		end, ok := g.matches(iTake, i)
		takes = takes || ok && end == t.q.start
	}
	tooMuch := false
	for i := last.end; i < t.q.start; i++ {
		_, ok := g.matches(tooBy, i)
		tooMuch = tooMuch || ok
	}
	told := slices.ContainsFunc(g.toks[max(0, last.start-2*soon):last.start], func(t token) bool { return theirs[t.text] })
	if !takes || !tooMuch && !told {
		return false
	}
	g.retell(last, t.q)
	return true
}

// hasOwnName tells whether a food stands behind an amount before anything else is begun.
func (g *gathering) hasOwnName(t told) bool {
	for i := t.q.end; i < t.end; i++ {
		if g.text(i) == "and" {
			return false
		}
		if g.foodAt(i) > 0 {
			return true
		}
	}
	return t.named
}

// sayNothing tells whether tokens are only commas, what describes a food, and words around an amount.
func (g *gathering) sayNothing(from, to int) bool {
	for i := from; i < to; i++ {
		if t := g.text(i); t != "," && (g.toks[i].kind == sign || !between[t] && !repeats[t] && !g.describes(i)) {
			return false
		}
	}
	return true
}

// nameOf are the tokens of a food's name, without its amount.
func (g *gathering) nameOf(it *item) []token {
	if it.start < it.q.start {
		return g.toks[it.start:it.q.start]
	}
	return g.toks[it.q.end:it.end]
}

// retell gives the last food another amount.
func (g *gathering) retell(last *item, q quantity) {
	lines := g.linesOf(g.nameOf(last), g.between(last.start, last.end), g.span(last.start, last.end), q)
	last.lines, last.q, last.retold, g.before = lines, q, true, q.end
}

// sumsUp passes over the sum of what was told.
func (g *gathering) sumsUp(t told) bool {
	if !g.together(t.q, t.named) {
		return false
	}
	g.before = t.end
	return true
}

// ofBoth shares an amount between two foods that are half of it each.
func (g *gathering) ofBoth(t told) bool {
	lines, end := g.halves(t.q, g.before)
	if lines == nil {
		return false
	}
	g.out, g.before = append(g.out, item{start: g.before, end: end, lines: lines, q: t.q}), end
	return true
}

// ofEach gives several foods the same amount.
func (g *gathering) ofEach(t told) bool {
	lines, end := g.r.shared(g.said, g.toks, t.q, t.to, "")
	if lines == nil || len(g.out)+len(lines) > MaxLines {
		return false
	}
	g.out, g.before = append(g.out, item{start: t.q.start, end: end, lines: lines, q: t.q}), end
	return true
}

// eachOfThose gives two foods that were named together the amount that is told of each: "butter and honey, a hundred grams each".
func (g *gathering) eachOfThose(t told) bool {
	if g.text(t.q.end) != "each" || g.hasOwnName(t) {
		return false
	}
	var at, n []int
	for i := t.q.start - 1; i >= max(g.before, t.q.start-lookFor) && len(at) < 2; i-- {
		if in, k := g.r.names.exactly(g.toks[i:]); k > 0 && in != nil && (len(at) == 0 || i+k <= at[0]) {
			at, n = append([]int{i}, at...), append([]int{k}, n...)
		}
	}
	if len(at) < 2 || g.text(at[0]+n[0]) != "and" && g.text(at[0]+n[0]) != "," {
		return false
	}
	for k, from := range at {
		lines := g.linesOf(g.toks[from:from+n[k]], g.between(from, from+n[k]), g.span(from, from+n[k]), t.q)
		g.out = append(g.out, item{start: from, end: from + n[k], lines: lines, q: t.q})
	}
	g.before = t.q.end
	return true
}

// ofOne is an amount of one food, or of what was named before.
func (g *gathering) ofOne(t told) bool {
	q := t.q
	if q.same {
		last := g.last()
		if last == nil || last.named {
			return true
		}
		q.amount, q.unit, q.word, q.size, q.sizeUnit = last.lines[0].Amount, last.lines[0].Unit, last.q.word, last.q.size, last.q.sizeUnit
	}
	if n := len(g.out); n > 0 {
		q = g.sameSpoon(q, g.out[n-1], t.end)
	}
	it := item{start: t.from, end: t.end, lines: g.spokenLine(q, t.from, t.end), q: q}
	it.bare = t.from == q.start && !t.named && g.saysNoName(it, q)
	it.instead = slices.ContainsFunc(g.toks[g.before:q.start], func(t token) bool { return corrects[t.text] })
	g.browns(&it, t.to)
	g.whips(&it)
	said := func(i int) bool { return g.text(i-1) == "the" }
	for k := range it.lines {
		it.lines[k].recap = g.recaps(g.before, q.start)
		it.lines[k].says = said(t.from) || said(q.start) || g.text(q.start-1) == "my"
		it.lines[k].more = slices.ContainsFunc(g.toks[max(0, t.from-1):min(t.end+1, len(g.toks))], func(t token) bool { return again[t.text] })
	}
	if it.bare {
		it.end = q.end
		if lines := g.ofPending(q); lines != nil {
			it.lines, it.bare = lines, false
		} else if last := g.last(); last != nil && !last.named && g.text(q.start) == "another" { // "and another twenty for the whites"
			it.lines, it.bare = g.linesOf(g.nameOf(last), g.between(last.start, last.end), g.span(last.start, last.end), q), false
			for k := range it.lines {
				it.lines[k].more = true
			}
		}
	}
	g.before = it.end
	if len(it.lines) > 0 || it.bare {
		g.out = append(g.out, it)
	}
	return true
}

// browning is what is done to a butter that is browned.
var browning = shapeOf("its|it|that|till|until|go|goes|get|gets|turn|turns|turned|is|slightly|golden brown|browned|nutty|hazelnut")

// whipped are words of a cream that goes on: no batter takes it whipped.
var whipped = shapeOf("?of ?it ?~ ?and whipped|whip|whips|beaten")

// whips puts a cream that is told to be whipped on top.
func (g *gathering) whips(it *item) {
	if _, ok := g.matches(whipped, it.end); !ok || len(it.lines) != 1 || it.lines[0].Ingredient == nil || it.lines[0].Ingredient.ID != heavyCream {
		return
	}
	it.lines[0].Place = batter.OnTop
}

// heavyCream is the cream that is whipped.
const heavyCream = "cream_heavy"

// brownButter is a butter that was browned.
const brownButter = "butter_browned"

// plainButter is what a cook means who says butter.
const plainButter = "butter_unsalted"

// browns makes a butter that is told to be browned a little later a browned one: "eighty grams of butter, and I let it go brown".
func (g *gathering) browns(it *item, to int) {
	if len(it.lines) != 1 || it.lines[0].Ingredient == nil || it.lines[0].Ingredient.ID != plainButter {
		return
	}
	for i := it.end; i < min(to, it.end+2*soon); i++ {
		if _, ok := g.matches(browning, i); ok {
			if h := g.r.names.match([]string{"browned", "butter"}); h.in != nil && h.score >= certain {
				it.lines[0].Ingredient = h.in
			}
			return
		}
	}
}

// pending is what a sentence ended with and has no amount yet: "Potatoes!", "A: Sugar?".
type pending struct {
	text string
	toks []token
	at   Span
}

// pendingWords is up to how many words a sentence may have that only names a food (modelling choice).
const pendingWords = 6

// ofPending are the lines of an amount that begins a sentence, of what the one before only named; none where it named nothing.
func (g *gathering) ofPending(q quantity) []Line {
	was := g.r.pending
	if was == nil || len(g.out) > 0 || q.vague != "" && q.counted == 0 || g.text(q.end) == "of" && !g.ofIt(q) {
		return nil
	}
	for i := 0; i < q.start; i++ {
		if g.foodAt(i) > 0 || verbs[g.text(i)] && !notDoing[g.text(i)] {
			return nil
		}
	}
	if q.unit == measure.Each && !g.ofIt(q) && (q.start > 1 || !g.r.inGrams && g.text(q.end) != "" && g.text(q.end) != ",") {
		return nil
	}
	name := slices.Clone(was.toks)
	for i := q.end; i < len(g.toks) && (g.describes(i) || g.text(i) == "," || stop[g.text(i)] || itself[g.text(i)] || g.text(i) == "ones"); i++ {
		if kindWord[g.text(i)] {
			name = append(name, g.toks[i])
		}
	}
	for i := 0; i < q.start; i++ {
		if kindWord[g.text(i)] {
			name = append(name, g.toks[i])
		}
	}
	if kind := g.kindBehind(q.end); len(kind) > 0 {
		if _, n := g.r.names.exactly(append(kind, was.toks...)); n == len(kind)+len(was.toks) { // "flour? … 175 grams, self-raising"
			name = append(kind, was.toks...)
		}
	}
	return g.linesOf(name, was.text, was.at, q)
}

// kindBehind are the words between two commas behind a token, without their hyphens.
func (s *speech) kindBehind(i int) (out []token) {
	if s.text(i) != "," {
		return nil
	}
	for i++; i < len(s.toks) && (s.toks[i].kind == word || s.text(i) == "-") && len(out) < longestName; i++ {
		if s.toks[i].kind == word {
			out = append(out, s.toks[i])
		}
	}
	return out
}

// between is what was said from one token to another.
func (s *speech) between(from, to int) string { return s.said[s.toks[from].at:s.toks[to-1].to] }

// linesOf are the lines of an amount and a name that stands elsewhere.
func (s *speech) linesOf(name []token, called string, at Span, q quantity) []Line {
	part := append(slices.Clone(name), s.toks[q.start:q.end]...)
	shifted := q
	shifted.start, shifted.end = len(name), len(part)
	if s.r.bareGrams(part, shifted, 0) {
		if h := s.r.names.match(nameWords(name)); h.in == nil || !(h.in.UnitG > 0) {
			shifted.unit = measure.Gram
		}
	}
	lines := s.r.named(called+" … "+s.between(q.start, q.end), part, &shifted, nil)
	for i := range lines {
		lines[i].At = []Span{at, s.span(q.start, q.end)}
	}
	return lines
}

// leaves is the last food of a sentence that has no amount, for the next one; nil where there is none.
func (s *speech) leaves(items []item, denied bool) *pending {
	if len(items) == 0 || denied {
		return nil
	}
	last := items[len(items)-1]
	if !last.named || last.end < len(s.toks) && len(s.toks) > pendingWords || len(s.qs) > 0 && last.end < len(s.toks) {
		return nil
	}
	return &pending{s.said[s.toks[last.start].at:s.toks[last.end-1].to], s.toks[last.start:last.end], s.span(last.start, last.end)}
}

// saysNoName tells whether nothing behind an amount could be a name.
func (g *gathering) saysNoName(it item, q quantity) bool {
	return len(it.lines) == 0 || it.lines[0].Ingredient == nil && !slices.ContainsFunc(kindWords(g.toks[q.end:it.end]), func(w string) bool { return !goes[w] })
}

// aOne is what stands for something that was named: "a drained one".
var aOne = shapeOf("?~ one END")

// ordinals count out what was named: "the first egg and the second one".
var ordinals = set("first second third fourth last other next same")

func (s *speech) standsFor(q quantity) bool {
	_, ok := s.matches(aOne, q.end)
	return q.unit == measure.Each && (ok && s.text(q.start) == "a" || s.text(q.start) == "one" && ordinals[s.text(q.start-1)])
}

// fills tells whether an amount is what a container before it holds: "one tub of ricotta, two hundred and fifty grams".
func (s *speech) fills(last item, q quantity) bool {
	_, weight := grams(1, q.unit)
	return (last.q.word == "container" || last.q.word == "can") && last.q.size == 0 && (weight || q.unit == measure.Ml) && !slices.ContainsFunc(s.toks[last.end:q.start], func(t token) bool { return t.kind == word && !between[t.text] && !repeats[t.text] })
}

// sameSpoon gives "two teaspoons of powder and half of soda" the unit of what was told before it.
func (s *speech) sameSpoon(q quantity, before item, end int) quantity {
	last := before.q
	if len(before.lines) > 0 {
		last.unit = before.lines[len(before.lines)-1].Unit
	}
	spoon := last.unit == measure.Tsp || last.unit == measure.Tbsp
	if q.unit != measure.Each || q.vague != "" || q.word != "" {
		return q
	}
	if weighed := last.unit == measure.Gram && (q.amount >= leastGrams && s.foodAt(q.end) > 0 || q.amount > 1 && s.text(q.end) == "of"); !weighed && (s.text(q.end) != "of" || !spoon || q.amount >= leastGrams) {
		return q
	}
	if in := s.r.names.match(nameWords(s.toks[q.end:end])).in; in != nil && !(in.UnitG > 0) {
		q.unit = last.unit
	}
	return q
}

// peels are what is taken of a fruit.
var peels = set("zest peel rind juice")

// peelBefore is how many tokens before one say what is taken of the fruit: "the zest of a lemon"; 0 when none do.
func (s *speech) peelBefore(at int) int {
	if s.text(at-1) == "of" && peels[s.text(at-2)] {
		return 2
	}
	return 0
}

// peelOf is the food of "the zest of the orange" at a token, and how many tokens it has.
func (s *speech) peelOf(i, to int) (*food.Ingredient, int) {
	if !peels[s.text(i)] || s.text(i+1) != "of" {
		return nil, 0
	}
	at := i + 2
	for at < to && (stop[s.text(at)] || s.text(at) == "that" || s.text(at) == "one" || s.text(at) == "half") {
		at++
	}
	what := s.text(i)
	if what != "juice" {
		what = "zest"
	}
	if at >= to {
		return nil, 0
	}
	if h := s.r.names.match([]string{s.text(at), what}); h.in != nil && h.score >= certain {
		return h.in, at + 1 - i
	}
	return nil, 0
}

// nameEnd is where the name behind an amount ends: before an "and" with another food, unless the amount is one for both.
func (s *speech) nameEnd(q quantity, to int) int {
	if s.text(q.end) == "and" {
		return q.end
	}
	end := nameEnd(s.toks, q.end, to)
	for i := q.end; i < end; i++ {
		end = max(end, i+s.foodAt(i)) // "pancake mix", though to mix is done
	}
	if s.text(q.end) == "each" {
		return end
	}
	if q.vague != "" || q.unit == "pinch" {
		only := s.onlyTheName(q.end, end)
		if in, n := s.r.names.exactly(s.toks[min(only+1, len(s.toks)):]); s.text(only) == "and" && n > 0 && in != nil && in.IsPowder() { // "salt and pepper"
			return only + 1 + n
		}
		return only
	}
	for i := q.end + 1; i < end; i++ {
		if s.text(i) == "and" && s.foodAt(i+1) > 0 && s.r.isNamed(s.toks[q.end:i]) {
			return i
		}
	}
	return s.onlyTheName(q.end, end)
}

// onlyTheName cuts off what is said behind a food's name and does not describe it: "sugar all in grams", "butter melted and".
func (s *speech) onlyTheName(from, end int) int {
	if s.r.out.Language != English { // its words describe in their own way
		return end
	}
	for i := from; i < end; i++ {
		n := s.foodAt(i)
		if n == 0 {
			continue
		}
		at := i + n
		for at < end && (s.describes(at) || (s.text(at) == "," || s.text(at) == "and" && s.describes(at-1)) && s.describes(at+1)) && s.text(at+1) != "fat" {
			at++
		}
		if s.partOfEgg(at) {
			return at
		}
		if at < end && (s.text(at) == "of" || s.text(at) == "-" || s.text(at) == "(" || s.text(at) == "/" || s.text(at) == "or" || allergenOf(s.text(at)) != nil) {
			return end
		}
		return min(at, end)
	}
	return end
}

// partOfEgg tells whether yolks or whites are named behind the eggs that they are of.
func (s *speech) partOfEgg(i int) bool {
	w := stem(s.text(i))
	return w == "yolk" || w == "white" && s.foodAt(i) == 1
}

// notOfIt are words behind a name that say nothing of it, though they may before it.
var notOfIt = set("and about some just all they it we you so then now like with from into your each more plus")

// describes tells whether a word says of a food how it is.
func (s *speech) describes(i int) bool {
	w := s.text(i)
	if i >= len(s.toks) || s.toks[i].kind != word || notOfIt[w] {
		return false
	}
	return kindWord[w] || weak[w] || stop[w] && len(w) > 3 || describing()[English][w]
}

// lookFor is how many words before an amount its food may be named, when it is named nowhere nearer (modelling choice).
const lookFor = 10

// nameBefore finds the name that stands before its amount: "now the milk, 400 ml", else the last food that was named and has no
// amount yet. It is the first token of it, or -1.
func (s *speech) nameBefore(from, to int) int {
	last := to
	for last-from > 2 && s.text(last-1) == "," && s.text(last-3) == "," && (kindWord[s.text(last-2)] || stop[s.text(last-2)]) { // "sweet potato, mashed, a cup"
		last -= 2
	}
	end := last
	for end > from && (s.toks[end-1].kind == sign || between[s.text(end-1)]) {
		end--
	}
	if at := s.foodEndingAt(from, end); at >= 0 {
		return at
	}
	if at := s.r.nameBefore(s.toks, from, last); at >= 0 && !s.compared(end-1) {
		return at
	}
	return s.farther(from, to)
}

// foodEndingAt is where a food's whole name begins that ends at a token, with what describes it; -1 where none does.
func (s *speech) foodEndingAt(from, end int) int {
	for n := longestName; n > 0; n-- {
		at := end - n
		if at < from || s.foodAt(at) != n || s.compared(at) {
			continue
		}
		for at > from && s.describes(at-1) && !between[s.text(at-1)] {
			at--
		}
		return at
	}
	return -1
}

// farther is where the last food begins that was named before a token and has no amount yet; -1 where there is none.
func (s *speech) farther(from, to int) int {
	for at := to - 1; at >= max(from, to-lookFor); at-- {
		in, n := s.r.names.exactly(s.toks[at:])
		if n == 0 || s.compared(at) || in == nil || at+n > to || notMentions[stem(s.text(at+n-1))] || !s.plain(at+n, to) {
			continue
		}
		return s.wholeName(from, at, n)
	}
	return -1
}

// wholeName is where the longest name begins that has the n tokens of a food at its end: "self raising flour", not "flour".
func (s *speech) wholeName(from, at, n int) int {
	for back := longestName - n; back > 0; back-- {
		if at-back >= from && s.foodAt(at-back) == n+back {
			return at - back
		}
	}
	return at
}

// compared tells whether a food is only what another thing is like.
func (s *speech) compared(at int) bool {
	w := s.text(at - 1)
	return w != "no" && comparing[w] || w == "like" && !likers[s.text(at-2)]
}

// plain tells whether between a food and its amount nothing is done, and nothing begins anew.
func (s *speech) plain(from, to int) bool {
	for i := from; i < to; i++ {
		if i == from && leads[s.text(i)] {
			continue // "ricotta next, two hundred"
		}
		if t := s.text(i); verbs[t] && !notDoing[t] || t == "and" || leads[t] && i < to-1 || pots[stem(t)] != "" || t == "is" && s.text(i+1) != "about" {
			return false
		}
	}
	return true
}

// recapShapes say that something is told again.
var recapShapes = []shape{shapeOf("i ?just said"), shapeOf("as i said"), shapeOf("so|once again"), shapeOf("remember")}

func (s *speech) recaps(from, to int) bool {
	for i := from; i < to; i++ {
		for _, sh := range recapShapes {
			if _, ok := s.matches(sh, i); ok {
				return true
			}
		}
	}
	return false
}

// notDoing are the words of verbs that a name and its amount may have between them.
var notDoing = set("check put add in to if first next finally once then now take using")

// goes are words behind an amount of what was named before.
var goes = set("go goes stay stays remain remains come comes left over spare")

// kindWords are the words of tokens that could name something.
func kindWords(toks []token) []string {
	return slices.DeleteFunc(nameWords(toks), func(w string) bool { return ends[w] || verbs[w] || notFoods[w] })
}

// withNames puts the foods that are named without an amount between the others.
func (s *speech) withNames(items []item) (out []item) {
	i := 0
	names := func(to int) {
		for ; i < to; i++ {
			in, n := s.r.names.exactly(s.toks[i:])
			if of, m := s.peelOf(i, to); m > 0 {
				in, n = of, m
			}
			if n == 0 || i+n > to || in == nil {
				i += max(0, n-1)
				continue
			}
			raw := s.said[s.toks[i].at:s.toks[i+n-1].to]
			l := Line{Text: raw, Ingredient: in, Status: Read, Confidence: namedWorth}
			out = append(out, item{start: i, end: i + n, lines: []Line{l}, named: true})
			i += n - 1
		}
	}
	for _, it := range items {
		names(it.start)
		out = append(out, it)
		i = max(i, it.end)
	}
	names(len(s.toks))
	return out
}

// namedWorth is how sure a food without an amount is (modelling choice).
const namedWorth = 0.8

// nameFirst tells of each amount whether its name stands before it where one stands on both sides: "flour two hundred grams sugar
// fifty" begins with a name and ends with an amount.
func (s *speech) nameFirst() []bool {
	out := make([]bool, len(s.qs))
	next := func(i int) int { // the food right behind an amount
		at := s.qs[i].end
		if s.text(at) == "and" {
			at++
		}
		return at
	}
	after := func(i int) bool { return s.foodAt(next(i)) > 0 }
	ofIt := func(i int) bool { return s.text(s.qs[i].end) == "of" && !itself[s.text(s.qs[i].end+1)] }
	for i := 0; i < len(s.qs); {
		n := i
		for n+1 < len(s.qs) && after(n) && s.only(next(n)+s.foodAt(next(n)), s.qs[n+1].start) {
			n++
		}
		if s.foodEnds(s.qs[i].start) && !after(n) && !ofIt(n) {
			for k := i; k <= n; k++ {
				out[k] = true
			}
		}
		i = n + 1
	}
	return out
}

// itself are the words that stand for what was named.
var itself = set("it them these those that this which each")

// only tells whether nothing stands between two tokens but words that say nothing.
func (s *speech) only(from, to int) bool {
	for i := from; i < to; i++ {
		if t := s.toks[i]; t.kind != word || !between[t.text] && !leads[t.text] {
			return false
		}
	}
	return from <= to
}

// foodEnds tells whether a food's name stands right before a token.
func (s *speech) foodEnds(at int) bool {
	for at > 0 && between[s.text(at-1)] {
		at--
	}
	for n := 1; n <= longestName && at-n >= 0; n++ {
		if s.foodAt(at-n) == n {
			return true
		}
	}
	return false
}

// Words behind a sum of what was told before it.
var sumShapes = []shape{shapeOf("?grams|cups altogether|total"), shapeOf("in all|total"), shapeOf("all together|told"), shapeOf("all in END")}

// together tells whether an amount sums up those before it: "which makes two cups in all".
func (s *speech) together(q quantity, named bool) bool {
	end := q.end
	if named {
		end += s.foodAt(q.end)
	}
	for _, sh := range sumShapes {
		if _, ok := s.matches(sh, end); ok {
			from, _ := s.halfAt(0)
			return from < 0 && !s.counts(q.start)
		}
	}
	return slices.ContainsFunc(s.toks[max(0, q.start-3):q.start], func(t token) bool { return t.text == "makes" }) && !named
}

// counts tells whether what stands before an amount says that it is for the pan or the table, so that it is no sum.
func (s *speech) counts(at int) bool {
	return slices.ContainsFunc(s.toks[max(0, at-soon):at], func(t token) bool { return t.text == "for" || t.text == "pan" })
}

var halfShape = []shape{shapeOf("half and half ?of FOOD and FOOD"), shapeOf("half FOOD ?and half FOOD")}

// halfAt are the tokens in which two foods are said to be half each of what follows; -1 where none are.
func (s *speech) halfAt(from int) (start, end int) {
	for i := from; i < len(s.toks); i++ {
		for _, sh := range halfShape {
			if end, ok := s.matches(sh, i); ok {
				return i, end
			}
		}
	}
	return -1, -1
}

// halves are the two lines of "half and half of A and B, so much in all"; none for anything else.
func (s *speech) halves(q quantity, before int) (out []Line, end int) {
	at, _ := s.halfAt(before)
	if at < 0 || at > q.start || q.start-at > 3*soon || q.unit == measure.Each && !s.r.inGrams {
		return nil, 0
	}
	for i := at; i < q.start; i++ {
		in, n := s.r.names.exactly(s.toks[i:])
		if n == 0 || in == nil {
			continue
		}
		l := Line{Text: s.said[s.toks[i].at:s.toks[i+n-1].to] + " … " + s.said[s.toks[q.start].at:s.toks[q.end-1].to], Amount: q.amount / 2, Unit: q.unit, Note: "half of " + short(q.amount) + " " + string(q.unit)}
		out = append(out, l.settle(hit{in: in, score: 1}, s.r.kitchen, s.r.out.Language))
		i += n - 1
	}
	if len(out) != 2 {
		return nil, 0
	}
	return out, q.end
}

// span is where tokens stand in the text of the reading.
func (s *speech) span(from, to int) Span {
	return Span{s.at + s.toks[from].at, s.at + s.toks[max(from, to-1)].to}
}

// keep puts a line into the reading.
func (s *speech) keep(l Line, from, to int) {
	if len(s.r.out.Lines) >= MaxLines {
		return
	}
	if len(l.At) == 0 && to > from {
		l.At = []Span{s.span(from, to)}
	}
	s.r.out.Lines = append(s.r.out.Lines, l)
}
