package recipe

import (
	"slices"

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
	s.qs = counted(s.toks, saidTwice(s.toks, sized(s.toks, s.addUp(dropAlternatives(s.toks, found)))))
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
		switch {
		case it.bare:
			p.share(it, cues)
		case it.named && (p.namesKind(it, it.lines[0].Ingredient) || !p.wanted(it, cues) && !p.withNext(items[i:], cues)):
		default:
			p.take(it)
		}
	}
	for _, c := range cues {
		p.heed(c)
	}
	p.ends()
	s.leave(items, had, p.noTo > 0)
}

// leave keeps what a sentence tells the next ones of; had is how many lines there were before it.
func (s *speech) leave(items []item, had int, denied bool) {
	r := s.r
	if len(r.out.Lines) > had {
		r.hadLines = had
	}
	if s.tellsOfOne() {
		for i := had; i < len(r.out.Lines); i++ {
			r.out.Lines[i].perHead = true
		}
	}
	if len(items) > 0 || len(s.toks) > questionWords {
		r.pending = s.leaves(items, denied)
	}
	r.fried = r.fried || s.fries()
	r.done = r.done || r.fried && s.cooks()
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

func (s *speech) recaps(from, to int) bool { return s.hears(recapShapes, from, to) }

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
