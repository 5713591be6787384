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
}

// listen takes a sentence apart.
func (r *reader) listen(text string, at int) *speech {
	s := &speech{r: r, said: text, at: at, toks: r.tokens(text), starts: map[int]int{}}
	all := quantities(s.toks)
	found := slices.DeleteFunc(slices.Clone(all), func(q quantity) bool { return q.inside })
	s.qs = counted(s.toks, saidTwice(s.toks, sized(s.toks, addUp(s.toks, dropAlternatives(s.toks, found)))))
	s.inside = all
	s.unnumbered()
	for i := range s.qs {
		s.starts[s.qs[i].start] = i + 1
		s.spoons(&s.qs[i])
	}
	return s
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
		u := units[t.text]
		in, n := s.r.names.exactly(s.toks[i+1:])
		spoon := u.word == "" && (u.unit == measure.Tsp || u.unit == measure.Tbsp || u.unit == measure.Cup) && len(t.text) > 2 && !strings.HasSuffix(t.text, "s") && n > 0
		one := (t.text == "a" || t.text == "an") && i > 0 && (s.text(i-1) == "," || s.text(i-1) == "and") && n > 0 && in != nil && in.UnitG > 0 && !within(i+1)
		switch {
		case spoon:
			s.qs = append(s.qs, quantity{start: i, end: i + 1, amount: u.per, unit: u.unit})
		case one:
			s.qs = append(s.qs, quantity{start: i, end: i + 1, amount: 1, unit: measure.Each})
		}
	}
	slices.SortFunc(s.qs, func(a, b quantity) int { return a.start - b.start })
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
	p := placing{speech: s, fresh: true}
	for i, it := range items {
		for len(cues) > 0 && (cues[0].start < it.start || cues[0].start == it.start && (cues[0].does >= notMeant || cues[0].does == ahead)) {
			p.heed(cues[0])
			cues = cues[1:]
		}
		if it.bare {
			p.share(it, cues)
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
}

// items are the foods of a sentence in their order.
func (s *speech) items() (out []item) {
	r, toks := s.r, s.toks
	first := s.nameFirst()
	before := 0
	for i, q := range s.qs {
		to := len(toks)
		if i+1 < len(s.qs) {
			to = s.qs[i+1].start
		}
		if from, to := s.halfAt(0); from >= 0 && q.start >= from && q.start < to || s.standsFor(q) {
			continue
		}
		end := s.nameEnd(q, to)
		from := q.start
		if name := nameWords(toks[q.end:end]); first[i] || len(name) == 0 || r.names.match(name).score < sure {
			if at := s.nameBefore(before, q.start); at >= 0 {
				from, end = at, q.end
			}
		}
		if n := s.peelBefore(q.start); n > 0 && from == q.start {
			from = q.start - n
		}
		if s.text(q.end) == "of" && itself[s.text(q.end+1)] && q.amount < 1 { // "half of it": a part of what was named
			from, end = q.start, q.end
		}
		named := r.isNamed(toks[q.end:end])
		if from < q.start && s.text(end) == "," && kindWord[s.text(end+1)] { // "butter, 50 grams, browned"
			end += 2
		}
		if n := len(out); n > 0 && from == q.start && !named && s.fills(out[n-1], q) {
			last := out[n-1].q
			last.size, last.sizeUnit = q.amount, q.unit
			out[n-1].lines, before = s.spokenLine(last, out[n-1].start, out[n-1].end), q.end
			continue
		}
		if n := len(out); n > 0 && from == q.start && !named && len(out[n-1].lines) > 0 && (restates(toks[before:q.start]) || weighed(out[n-1].lines[len(out[n-1].lines)-1], toks[before:q.start], q)) {
			out[n-1].lines[len(out[n-1].lines)-1].restate(q)
			before = end
			continue
		}
		if s.together(q, end, named) {
			before = end
			continue
		}
		if half, e := s.halves(q, before); half != nil {
			out, before = append(out, item{start: before, end: e, lines: half, q: q}), e
			continue
		}
		if each, e := r.shared(s.said, toks, q, to, ""); each != nil && len(out)+len(each) <= MaxLines {
			out, before = append(out, item{start: q.start, end: e, lines: each, q: q}), e
			continue
		}
		if n := len(out); n > 0 {
			q = s.sameSpoon(q, out[n-1].q, end)
		}
		lines := s.spokenLine(q, from, end)
		it := item{start: from, end: end, lines: lines, q: q}
		it.bare = from == q.start && !named && (len(lines) == 0 || lines[0].Ingredient == nil && !slices.ContainsFunc(kindWords(toks[q.end:end]), func(w string) bool { return !goes[w] }))
		it.instead = slices.ContainsFunc(toks[before:q.start], func(t token) bool { return corrects[t.text] })
		for k := range it.lines {
			it.lines[k].recap = s.recaps(before, q.start)
			it.lines[k].says = s.text(from-1) == "the" || s.text(q.start-1) == "the" || s.text(q.start-1) == "my"
			it.lines[k].more = slices.ContainsFunc(toks[max(0, from-1):end], func(t token) bool { return again[t.text] })
		}
		if it.bare {
			it.end = q.end
		}
		before = it.end
		if len(it.lines) > 0 || it.bare {
			out = append(out, it)
		}
	}
	return s.withNames(out)
}

// aOne is what stands for something that was named: "a drained one".
var aOne = shapeOf("?~ one END")

func (s *speech) standsFor(q quantity) bool {
	_, ok := s.matches(aOne, q.end)
	return ok && q.unit == measure.Each && s.text(q.start) == "a"
}

// fills tells whether an amount is what a container before it holds: "one tub of ricotta, two hundred and fifty grams".
func (s *speech) fills(last item, q quantity) bool {
	_, weight := grams(1, q.unit)
	return (last.q.word == "container" || last.q.word == "can") && last.q.size == 0 && (weight || q.unit == measure.Ml) && !slices.ContainsFunc(s.toks[last.end:q.start], func(t token) bool { return t.kind == word && !between[t.text] && !repeats[t.text] })
}

// sameSpoon gives "two teaspoons of powder and half of soda" the unit of what was told before it.
func (s *speech) sameSpoon(q, last quantity, end int) quantity {
	spoon := last.unit == measure.Tsp || last.unit == measure.Tbsp
	if q.unit != measure.Each || q.vague != "" || q.word != "" || s.text(q.end) != "of" || !spoon || q.amount >= leastGrams {
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
		if n := s.foodAt(only + 1); s.text(only) == "and" && n > 0 { // "salt and pepper"
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
		for at < end && (s.describes(at) || s.text(at) == "," && s.describes(at+1)) {
			at++
		}
		if s.partOfEgg(at) {
			return at
		}
		if at < end && (s.text(at) == "of" || s.text(at) == "-" || s.text(at) == "(" || s.text(at) == "/" || s.text(at) == "or" || s.foodAt(at) > 0 || allergenOf(s.text(at)) != nil) {
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
	if at := s.r.nameBefore(s.toks, from, last); at >= 0 && !s.compared(end-1) {
		return at
	}
	for at := to - 1; at >= max(from, to-lookFor); at-- {
		in, n := s.r.names.exactly(s.toks[at:])
		if n == 0 || s.compared(at) || in == nil || at+n > to || notMentions[stem(s.text(at+n-1))] || !s.plain(at+n, to) {
			continue
		}
		for at > from && s.foodAt(at-1) > n {
			at--
			n++
		}
		return at
	}
	return -1
}

// compared tells whether a food is only what another thing is like.
func (s *speech) compared(at int) bool {
	w := s.text(at - 1)
	return w != "no" && comparing[w] || w == "like" && !likers[s.text(at-2)]
}

// plain tells whether between a food and its amount nothing is done, and nothing begins anew.
func (s *speech) plain(from, to int) bool {
	for i := from; i < to; i++ {
		if t := s.text(i); verbs[t] && !notDoing[t] || t == "and" || leads[t] || pots[stem(t)] != "" || t == "is" && s.text(i+1) != "about" {
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
var notDoing = set("in to if first next finally once then now take using")

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
var sumShapes = []shape{shapeOf("?grams|cups altogether|total"), shapeOf("in all|total"), shapeOf("all together|told|in")}

// together tells whether an amount sums up those before it: "which makes two cups in all".
func (s *speech) together(q quantity, end int, named bool) bool {
	if named {
		end = q.end + s.foodAt(q.end)
	} else {
		end = q.end
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

// placing is a sentence while its foods are put where they go.
type placing struct {
	*speech
	here  batter.Place // of what follows
	fats  bool
	used  bool // something went there
	cue   int  // behind the cue of it
	last  item
	at    int // the line of the last item
	with  int // the first line that is named with it
	noTo  int // where the last food that is not meant ends
	not   int // what begins before this token is not meant
	asked int // what begins before this token is asked
	fresh bool
	rest  float64 // of an amount that was shared out
}

// reach is how many words behind a cue the first food may stand that it is said of (modelling choice).
const reach = 4

// heed does what a cue says.
func (p *placing) heed(c heardCue) {
	r := p.r
	switch c.does {
	case potBegins:
		p.here = ""
		name, place := p.potName(c), c.place
		if place == "" {
			place = pots[stem(name)]
		}
		if name == "" && r.pot > 0 { // another vessel for the same
			return
		}
		r.beginPot(name, place)
	case batterAgain:
		p.here, r.pot, r.since = "", 0, len(r.out.Lines)
	case sinceThen:
		r.allSince(c.place)
		p.here, r.pot, r.since = "", 0, len(r.out.Lines)
	case there, ahead:
		if c.does == there && p.right(c) {
			return
		}
		p.here, p.fats, p.used, p.cue = c.place, c.fats, false, c.end
	case before:
		if len(p.last.lines) > 0 && c.start-p.last.end <= 2*reach {
			p.move(c.place)
		}
	case intoBatter:
		if len(p.last.lines) > 0 && c.start-p.last.end <= 2*reach && p.at < len(r.out.Lines) && r.out.Lines[p.at].Place == batter.InPan {
			r.out.Lines[p.at].Place = ""
		}
	case notMeant:
		p.not = c.end
	case notNext:
		p.not = c.end + 2
	case backIn:
		p.backIn(c)
	case perhaps:
		if len(p.last.lines) > 0 && p.at < len(r.out.Lines) && c.start == p.last.end && p.text(c.start) == "if" {
			if l := &r.out.Lines[p.at]; l.Status == Read && l.Place == "" {
				l.doubt(saidWithIf, nil)
			}
			return
		}
		p.asked = c.end + reach
	case nothingOf:
		if len(p.last.lines) > 0 && p.onlyStops(p.last.end, c.start) && p.at < len(r.out.Lines) {
			p.deny(p.last)
			r.out.Lines = r.out.Lines[:p.at]
			p.last = item{}
		}
	}
}

const saidWithIf = "It is said with an “if”. Does it go in?"

// backIn takes the fat that a cue names out of the pan.
func (p *placing) backIn(c heardCue) {
	for i := c.start; i < c.end; i++ {
		in, _ := p.r.names.exactly(p.toks[i:])
		if in == nil || in.Group != food.GroupFat {
			continue
		}
		for k := range p.r.out.Lines {
			if l := &p.r.out.Lines[k]; l.Place == batter.InPan && l.Amount > 0 && isFat(*l) {
				l.Place = ""
			}
		}
		return
	}
}

// potName is the word of a cue that names a pot, empty when only its vessel is named.
func (p *placing) potName(c heardCue) string {
	for i := c.start; i < c.end; i++ {
		if potAt(p.speech, i) > 0 {
			return p.text(i)
		}
	}
	return ""
}

// right puts what stands right before a cue where it says; nothing stands there when it tells of what follows.
func (p *placing) right(c heardCue) bool {
	if len(p.last.lines) == 0 || p.at >= len(p.r.out.Lines) {
		return false
	}
	if c.start < p.last.start {
		return false
	}
	between := p.toks[min(p.last.end, c.start):c.start]
	for _, t := range between {
		if t.kind == sign && t.text != "," || t.kind == word && !beforeCue[t.text] {
			return false
		}
	}
	if slices.ContainsFunc(between, func(t token) bool { return t.text == "," }) && p.text(c.start) != "for" && c.place != batter.InPan {
		return false
	}
	if c.fats && !isFat(p.last.lines[0]) {
		return true
	}
	if c.fats && p.text(c.start) == "for" { // said of the plate, whatever pot is on the stove
		p.r.out.Lines[p.at].Pot = 0
	}
	p.move(c.place)
	if first := p.text(c.start + 1); c.fats && p.text(c.start) == "for" && (first == "each" || first == "every") {
		p.r.out.Lines[p.at].Each = true
	}
	return true
}

// beforeCue are words between a food and what says where it goes.
var beforeCue = set("of it a little some just only them all melted that is are go goes more bit each whole plus")

func isFat(l Line) bool { return l.Ingredient != nil && l.Ingredient.Group == food.GroupFat }

// move puts the last food where it goes, and those without an amount that are named with it.
func (p *placing) move(to batter.Place) {
	from := p.at
	if to != batter.InPan {
		from = p.with
	}
	for i := from; i < len(p.r.out.Lines); i++ {
		if l := &p.r.out.Lines[i]; l.Place == "" || l.Pot == 0 {
			l.Place, l.Pot = to, 0
			if l.Amount <= 0 {
				l.Asks, l.Status = "", Read
			}
		}
	}
}

// wanted tells whether a food without an amount belongs in the reading: it goes somewhere, or stands among those of the bowl.
func (p *placing) wanted(it item, cues []heardCue) bool {
	if p.notMeant(it) {
		p.deny(it)
		return false
	}
	in := it.lines[0].Ingredient
	if p.placeAt(it, in) != "" {
		return true
	}
	if len(cues) > 0 && cues[0].does == there && cues[0].start-it.end <= 1 && !(cues[0].place == batter.OnTop && neverOnTop(in)) && (!cues[0].fats || in.Group == food.GroupFat) && p.only(it.end, cues[0].start) {
		return true
	}
	if peels[p.text(it.start)] && it.end-it.start > 1 {
		return true
	}
	last := stem(p.text(it.end - 1))
	return p.fresh && !notMentions[last] && p.listed(it)
}

// neverOnTop are foods that a cook puts into the bowl on top of the others, and not on a plate.
func neverOnTop(in *food.Ingredient) bool {
	return inBatterOnly(in) || in.IsFlour() || in.Role == food.RoleSalt || in.Group == food.GroupLiquid
}

// onlyStops tells whether nothing of its own stands between two tokens.
func (p *placing) onlyStops(from, to int) bool {
	for i := from; i < to; i++ {
		if t := p.toks[i]; t.kind == word && !stop[t.text] && !between[t.text] {
			return false
		}
	}
	return from <= to && to-from <= soon
}

// notMeant tells whether a food is said not to be in it, or is named in one breath with one that is not.
func (p *placing) notMeant(it item) bool {
	also := p.noTo > 0 && it.start-p.noTo == 1 && (p.text(p.noTo) == "and" || p.text(p.noTo) == "or" || p.text(p.noTo) == "nor") && (it.named || it.q.unit == measure.Each)
	if it.start >= p.not && !also {
		return false
	}
	p.noTo = it.end
	return true
}

// deny keeps what is spoken of and not in it.
func (p *placing) deny(it item) {
	r := p.r
	r.out.Also = append(r.out.Also, p.span(it.start, it.end))
	if r.denied == nil {
		r.denied = map[string]bool{}
	}
	r.denied[fold(p.said[p.toks[it.start].at:p.toks[it.end-1].to])] = true
}

// listed tells whether a name stands in a row with foods that have amounts.
func (p *placing) listed(it item) bool {
	if p.last.end == 0 || len(p.last.lines) == 0 {
		return false
	}
	joins := false
	for i := p.last.end; i < it.start; i++ {
		t := p.text(i)
		joins = joins || t == "," || t == "and"
		if t != "," && t != "and" && !stop[t] {
			return false
		}
	}
	after := p.text(it.end)
	return joins && (p.starts[it.end] > 0 || after == "" || after == "," || after == "and" || after == ".")
}

// placeAt is where a food goes that stands behind a cue, or nowhere.
func (p *placing) placeAt(it item, in *food.Ingredient) batter.Place {
	switch {
	case p.here == batter.OnTop && in != nil && neverOnTop(in):
		return ""
	case p.here == "" || p.fats && (in == nil || in.Group != food.GroupFat):
		return ""
	case !p.used && it.start-p.cue > p.reach():
		return ""
	case p.used && !p.goesOn(p.last.end, it.start):
		return ""
	}
	return p.here
}

// panReach is how many words behind the pan its fat may be named: nothing else goes there (modelling choice).
const panReach = 12

func (p *placing) reach() int {
	if p.fats {
		return panReach
	}
	return reach + 1
}

// goesOn tells whether a row goes on between two tokens.
func (p *placing) goesOn(from, to int) bool {
	for i := from; i < to; i++ {
		if t := p.toks[i]; t.kind == sign && t.text != "," || t.kind == word && !stop[t.text] && t.text != "or" && t.text != "also" && t.text != "maybe" {
			return false
		}
	}
	return true
}

// take puts a food into the reading.
func (p *placing) take(it item) {
	r := p.r
	if p.notMeant(it) {
		p.not = 0
		p.deny(it)
		return
	}
	var in *food.Ingredient
	if len(it.lines) > 0 {
		in = it.lines[0].Ingredient
	}
	if r.pot > 0 && inBatterOnly(in) && !it.named && !doughy(r.out.Pots[r.pot-1].Name) && !p.thickens(it) {
		r.pot, r.since = 0, len(r.out.Lines)
	}
	place := p.placeAt(it, in)
	if place == "" {
		p.here = ""
	} else {
		p.used = true
	}
	if n := len(r.out.Lines); it.instead && n > p.at && p.last.end > 0 && len(it.lines) == 1 && r.out.Lines[n-1].Ingredient == in {
		it.lines[0].Note = joined(it.lines[0].Note, "put right while speaking; before: "+r.out.Lines[n-1].Text)
		it.lines[0].Place, it.lines[0].Pot = r.out.Lines[n-1].Place, r.out.Lines[n-1].Pot
		it.lines[0].At = []Span{p.span(it.start, it.end)}
		r.out.Lines[n-1] = it.lines[0]
		p.last = it
		return
	}
	with := p.at
	if !it.withLast(p.last, p.speech) {
		with = len(r.out.Lines)
	}
	p.last, p.at, p.rest = it, len(r.out.Lines), 0
	p.with = with
	for _, l := range it.lines {
		switch {
		case l.Place != "":
		case l.Ingredient != nil && l.Ingredient.ID == spray:
			l.Place = batter.InPan
		case place != "":
			l.Place = place
		case r.pot > 0:
			l.Place, l.Pot = r.out.Pots[r.pot-1].Place, r.pot
		}
		if it.named && l.Place == "" {
			l.AskHowMuch()
		}
		if it.start < p.asked && l.Status == Read && l.Place == "" {
			l.doubt(saidWithIf, nil)
		}
		if l.Place != "" && l.Amount <= 0 && l.Ingredient != nil && !l.Doubtful() {
			l.Asks, l.Status = "", Read
		}
		p.keep(l, it.start, it.end)
	}
}

// withLast tells whether a food is named in one breath with the one before it, which has no amount: "raspberries and a banana".
func (it item) withLast(last item, s *speech) bool {
	return last.named && it.start > last.end && it.start-last.end == 1 && s.text(last.end) == "and"
}

// withNext tells whether a food without an amount is named in one breath with the next, and that one goes somewhere.
func (p *placing) withNext(items []item, cues []heardCue) bool {
	if len(items) < 2 || !items[1].withLast(items[0], p.speech) || len(cues) == 0 {
		return false
	}
	end := items[1].end
	return cues[0].does == there && !cues[0].fats && cues[0].start >= end && cues[0].start-end <= 1
}

// spray is the fat that is for the plate only.
const spray = "cooking_spray"

// doughy are pots that flour goes into.
func doughy(name string) bool {
	n := stem(fold(name))
	return n == "crumble" || n == "streusel" || n == "custard"
}

// thickeningG is up to how much flour or starch only thickens what is in a pot [g] (modelling choice).
const thickeningG = 30

func (p *placing) thickens(it item) bool {
	l := it.lines[0]
	if l.Ingredient.Role != food.RoleFlour || l.Amount <= 0 {
		return false
	}
	g, err := p.r.kitchen.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit})
	return err == nil && g <= thickeningG
}

// share parts the last amount: "a hundred goes in the batter and fifty on top". cues are those still to come.
func (p *placing) share(it item, cues []heardCue) {
	if len(p.last.lines) == 0 || p.at >= len(p.r.out.Lines) {
		return
	}
	l := &p.r.out.Lines[p.at]
	q := it.q
	if q.unit != l.Unit && !(q.unit == measure.Each && p.r.inGrams && q.amount >= leastGrams) || q.amount <= 0 || q.amount > l.Amount+1e-9 && p.rest == 0 {
		return
	}
	if bowl, ok := p.shareGoes(it.end, cues); ok {
		all := l.Amount + p.rest
		switch {
		case bowl == "":
			l.Amount, p.rest = q.amount, all-q.amount
		case q.amount < all+1e-9:
			part := *l
			part.Amount, part.Place, part.Pot = q.amount, bowl, 0
			part.Text += " … " + p.said[p.toks[it.start].at:p.toks[it.end-1].to]
			part.At = append(slices.Clone(l.At), p.span(it.start, it.end))
			if p.rest > 0 {
				p.rest = max(0, p.rest-q.amount)
			} else {
				l.Amount -= q.amount
			}
			p.keep(part, it.start, it.end)
		}
	}
}

// inTheBowl says of a share that it goes into the batter.
var inTheBowl = []shape{shapeOf("?is|are|go|goes ?straight in|into|for|to the ?~ BATTER|bowl|mix|mixture"), shapeOf("is|are|go|goes in")}

// shareGoes is where a share goes that ends at a token: into the bowl, or beside it.
func (p *placing) shareGoes(end int, cues []heardCue) (place batter.Place, ok bool) {
	for _, sh := range inTheBowl {
		if _, ok := p.matches(sh, end); ok {
			return "", true
		}
	}
	for _, c := range cues {
		if c.does == there && c.start-end <= 2 && p.goesOnWords(end, c.start) {
			return c.place, true
		}
	}
	return "", false
}

func (p *placing) goesOnWords(from, to int) bool {
	for i := from; i < to; i++ {
		if !beforeCue[p.text(i)] {
			return false
		}
	}
	return true
}

// Words of a pot on the stove: with them a sentence of what no batter has is a pot of its own.
var onTheStove = set("boil boiled boiling simmer simmered simmering bubble bubbles bubbled caramelise caramelize macerate thickens syrupy")

// ends closes a sentence: what is only boiled in it is a pot.
func (p *placing) ends() {
	r := p.r
	if r.pot > 0 || len(p.said) > longestSentence/4 || !p.onTheStove() {
		return
	}
	from := len(r.out.Lines)
	for from > 0 && len(r.out.Lines[from-1].At) > 0 && r.out.Lines[from-1].At[0].From >= p.at0() {
		from--
	}
	mine := r.out.Lines[from:]
	sweet := false
	for _, l := range mine {
		if l.Place != "" || l.Ingredient == nil || inBatterOnly(l.Ingredient) && !p.thickens(item{lines: []Line{l}}) || l.Ingredient.Role == food.RoleSalt {
			return
		}
		sweet = sweet || l.Ingredient.Role == food.RoleSugar || l.Ingredient.Group == food.GroupSyrup || l.Ingredient.Role == food.RolePiece || l.Ingredient.Role == food.RolePuree
	}
	if len(mine) < 2 || !sweet {
		return
	}
	r.since = from
	r.allSince(batter.OnTop)
	r.since = len(r.out.Lines)
}

// until are what a pot is cooked or whipped to.
var until = []shape{
	shapeOf("until|till|til ?it|they|its|theyre|that ?is|are ?all|really soft|tender|jammy|syrupy|thick|amber|dissolved"), shapeOf("until|till|til it|they falls|fall|fell|collapse|burst"),
	shapeOf("until|till|til it|they coats|coat"), shapeOf("to soft|stiff|firm peaks"),
}

func (p *placing) onTheStove() bool {
	for i, t := range p.toks {
		if onTheStove[t.text] {
			return true
		}
		for _, sh := range until {
			if _, ok := p.matches(sh, i); ok {
				return true
			}
		}
	}
	return false
}

func (p *placing) at0() int { return p.speech.at }

// Pot is what is cooked or stirred beside the batter: a sauce, what goes on, a filling.
type Pot struct {
	Name  string // as the text calls it, or by what it is
	Place batter.Place
	Own   bool // the cook made it one
}

// beginPot begins a pot, or goes on with the one of the same name.
func (r *reader) beginPot(name string, place batter.Place) {
	if place == "" {
		place = batter.OnTop
	}
	r.since = len(r.out.Lines)
	if name != "" {
		if i := slices.IndexFunc(r.out.Pots, func(o Pot) bool { return stem(fold(o.Name)) == stem(fold(name)) }); i >= 0 {
			r.pot = i + 1
			return
		}
	}
	r.out.Pots = append(r.out.Pots, Pot{Name: name, Place: place})
	r.pot = len(r.out.Pots)
}

// allSince makes a pot of everything since the last began.
func (r *reader) allSince(place batter.Place) {
	if r.pot == 0 {
		r.out.Pots = append(r.out.Pots, Pot{Place: place})
		r.pot = len(r.out.Pots)
	}
	r.out.Pots[r.pot-1].Place = place
	for i := r.since; i < len(r.out.Lines); i++ {
		r.out.Lines[i].Place, r.out.Lines[i].Pot = place, r.pot
	}
	r.pot = 0
}

// keepPots drops the pots of fewer than two lines: what is one thing only goes on as it is.
func (r *reader) keepPots() {
	var kept []Pot
	for n := range r.out.Pots {
		var mine []int
		for i, l := range r.out.Lines {
			if l.Pot == n+1 {
				mine = append(mine, i)
			}
		}
		to := 0
		if r.out.Pots[n].Name == "" && !r.isPot(mine) { // only a vessel was named
			for _, i := range mine {
				r.out.Lines[i].Place = ""
				if r.out.Lines[i].Amount <= 0 {
					r.out.Lines[i].AskHowMuch()
				}
			}
		} else if len(mine) > 1 && slices.ContainsFunc(mine, func(i int) bool { return r.out.Lines[i].Amount > 0 }) {
			kept = append(kept, r.out.Pots[n])
			to = -len(kept) // not to be met again
		}
		for _, i := range mine {
			r.out.Lines[i].Pot = to
		}
	}
	for i := range r.out.Lines {
		r.out.Lines[i].Pot = -min(0, r.out.Lines[i].Pot)
	}
	r.out.Pots = kept
}

// isPot tells whether lines are what is cooked by itself: more than the butter that melts.
func (r *reader) isPot(lines []int) bool {
	return len(lines) > 1 && slices.ContainsFunc(lines, func(i int) bool {
		in := r.out.Lines[i].Ingredient
		return in != nil && in.Group != food.GroupFat && in.Role != food.RoleSalt && !inBatterOnly(in)
	})
}

// placed turns the places of lines in a talk into those of what was given.
func (r *reader) placed(w whole) {
	to := func(s Span) Span { return Span{w.where(s.From), w.where(s.To-1) + 1} }
	for i := range r.out.Lines {
		for k, s := range r.out.Lines[i].At {
			r.out.Lines[i].At[k] = to(s)
		}
	}
	for i, s := range r.out.Also {
		r.out.Also[i] = to(s)
	}
}
