package recipe

import (
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// takenAway is how an amount is told that is left out of what was told.
var takenAway = []shape{shapeOf("of ?the FOOD ?is|goes away|off|back|out"), shapeOf("less|away|back")}

func (g *gathering) isTaken(q quantity) bool { return g.hears(takenAway, q.end, q.end+1) }

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

// recapsAmount tells an amount without a name again that was told before of a food that is named again: "oats into the hot milk,
// that's our hundred grams".
func (g *gathering) recapsAmount(t told) bool {
	q := t.q
	if g.hasOwnName(t) || q.unit == measure.Each || q.vague != "" || q.amount <= 0 {
		return false
	}
	for i := q.start - 1; i >= max(g.before, q.start-recapReach); i-- {
		in, n := g.r.names.exactly(g.toks[i:])
		if n > 0 && in != nil && i+n <= q.start && g.hasTold(in, q, i) {
			lines := g.linesOf(g.toks[i:i+n], g.between(i, i+n), g.span(i, i+n), q)
			for k := range lines {
				lines[k].recap = true
			}
			g.out, g.before = append(g.out, item{start: q.start, end: q.end, lines: lines, q: q}), q.end
			return true
		}
	}
	return false
}

// hasTold tells whether just this amount of a food was told before a token.
func (g *gathering) hasTold(in *food.Ingredient, q quantity, at int) bool {
	is := func(l Line) bool { return l.Ingredient == in && l.Unit == q.unit && l.Amount == q.amount }
	return slices.ContainsFunc(g.r.out.Lines, is) || slices.ContainsFunc(g.out, func(it item) bool {
		return !it.named && it.end <= at && slices.ContainsFunc(it.lines, is)
	})
}

var noShell = []shape{shapeOf("out of|without ?the|their shell|shells"), shapeOf("cracked|shelled")}

// sameAsLast gives an amount that is said to be the same as another one what that is.
func (g *gathering) sameAsLast(q *quantity) bool {
	if last := g.last(); last != nil && !last.named {
		l := last.lines[0]
		q.amount, q.unit, q.word, q.size, q.sizeUnit = l.Amount, l.Unit, last.q.word, last.q.size, last.q.sizeUnit
		return true
	}
	n := len(g.r.out.Lines)
	if len(g.out) > 0 || n == 0 || g.r.out.Lines[n-1].Amount <= 0 {
		return false
	}
	q.amount, q.unit = g.r.out.Lines[n-1].Amount, g.r.out.Lines[n-1].Unit
	return true
}

// inShell tells that eggs were weighed as they are.
var inShell = shapeOf("in|with ?the|their shell|shells")

// shelled takes the shell off a weight of eggs that is told with it.
func (g *gathering) shelled(it *item) {
	if len(it.lines) != 1 || it.lines[0].Ingredient == nil || !it.lines[0].Ingredient.IsWholeEgg() {
		return
	}
	l := &it.lines[0]
	g0, ok := grams(l.Amount, l.Unit)
	for i := it.start; ok && i < min(it.end+soon, len(g.toks)); i++ {
		if _, found := g.matches(inShell, i); found {
			l.Note = joined(l.Note, short(g0)+" g in the shell")
			l.Amount, l.Unit = math.Round((1-batter.ShellShare)*g0), measure.Gram
			return
		}
	}
}

// withoutShell tells whether eggs were weighed without their shells.
func (g *gathering) withoutShell(from int) bool {
	return g.hears(noShell, from, min(from+soon, len(g.toks)))
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
	if !says && !g.hears(leftOver, max(g.before, t.q.start-soon), t.q.start) {
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
		counted := func(l Line) bool { return l.Ingredient == in && l.Amount > 0 } // "with the milk it comes to 900 g" is the bowl
		if slices.ContainsFunc(g.out, func(it item) bool { return at >= it.start && at < it.end }) || slices.ContainsFunc(g.r.out.Lines, counted) {
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
	tooBy  = shapeOf("is|are|was|were|would|thats|its ?be ?way|far|a ?bit|little too much|little|strong|sweet|salty")
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

// browning is what is done to a butter that is browned.
var browning = shapeOf("its|it|that|go|goes|get|gets|turn|turns|turned|is brown|browned|nutty|hazelnut")

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

// questionWords is up to how many words a sentence between a food and its amount may have: "How much?" (modelling choice).
const questionWords = 4

// ofPending are the lines of an amount that begins a sentence, of what the one before only named; none where it named nothing.
func (g *gathering) ofPending(q quantity) []Line {
	was := g.r.pending
	if was == nil || len(g.out) > 0 || !g.answers(q) {
		return nil
	}
	for i := 0; i < q.start; i++ {
		if g.foodAt(i) > 0 || verbs[g.text(i)] && !notDoing[g.text(i)] {
			return nil
		}
	}
	name := g.described(was.toks, 0, q.start)
	end := q.end
	for end < len(g.toks) && (g.describes(end) || g.text(end) == "," || stop[g.text(end)] || itself[g.text(end)] || g.text(end) == "ones") {
		end++
	}
	name = g.described(name, q.end, end)
	if kind := g.kindBehind(q.end); len(kind) > 0 {
		if _, n := g.r.names.exactly(append(kind, was.toks...)); n == len(kind)+len(was.toks) { // "flour? … 175 grams, self-raising"
			name = append(kind, was.toks...)
		}
	}
	if n := len(g.r.out.Lines); n > 0 && g.r.out.Lines[n-1].asksOnly(was.at) { // the question itself
		g.r.out.Lines = g.r.out.Lines[:n-1]
	}
	return g.linesOf(name, was.text, was.at, q)
}

// asksOnly tells whether a line has no amount and is all of what was said around a place.
func (l Line) asksOnly(at Span) bool {
	return l.Amount <= 0 && l.Place == "" && len(l.At) == 1 && l.At[0].From <= at.From && l.At[0].To >= at.To
}

// answers tells whether an amount may be of what the sentence before only named.
func (g *gathering) answers(q quantity) bool {
	switch next := g.text(q.end); {
	case next == "each", q.vague != "" && q.counted == 0, next == "of" && !g.ofIt(q):
		return false
	case q.unit != measure.Each || g.ofIt(q):
		return true
	default:
		return q.start <= 1 && (g.r.inGrams || next == "" || next == ",")
	}
}

// described is a name with the words between two tokens that tell its kind.
func (g *gathering) described(name []token, from, to int) []token {
	name = slices.Clone(name)
	for i := from; i < to; i++ {
		if kindWord[g.text(i)] {
			name = append(name, g.toks[i])
		}
	}
	return name
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
	amount := s.span(q.start, q.end)
	for i := range lines { // one place of the text, however far the two stand apart: it is said once
		lines[i].At = []Span{{min(at.From, amount.From), max(at.To, amount.To)}}
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
