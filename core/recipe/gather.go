package recipe

import (
	"slices"

	"upbeatladle/core/measure"
)

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
	if name := nameWords(g.toks[q.end:t.end]); first || len(name) == 0 || g.r.names.match(name).score < sure && !g.nameBehind(q.end) {
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
	g.before = t.end
	weight, ok := grams(t.q.amount, t.q.unit)
	pieces := ok && !last.named && last.q.unit == measure.Each && last.q.vague == "" && l.Unit != measure.Gram && l.Ingredient != nil
	switch {
	case pieces && !l.Ingredient.IsWholeEgg(): // "six potatoes, that's about a kilo, grated"
		note := joined(l.Note, short(last.q.amount)+" of them")
		name := g.asDone(slices.Clone(g.nameOf(last)), t.q.end, min(len(g.toks), t.q.end+reach))
		last.lines = g.linesOf(name, g.between(last.start, last.end), g.span(last.start, last.end), t.q)
		last.lines[0].Note = joined(last.lines[0].Note, note)
	case pieces && g.withoutShell(t.q.end):
		l.Note = joined(l.Note, short(l.Amount)+" of them")
		l.Amount, l.Unit = weight, measure.Gram
	default:
		l.restate(t.q)
	}
	return true
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

// ofOne is an amount of one food, or of what was named before.
func (g *gathering) ofOne(t told) bool {
	q := t.q
	if q.same {
		if !g.sameAsLast(&q) {
			return true
		}
	}
	if n := len(g.out); n > 0 {
		q = g.sameSpoon(q, g.out[n-1], t.end)
	}
	it := item{start: t.from, end: t.end, lines: g.spokenLine(q, t.from, t.end), q: q}
	it.bare = t.from == q.start && !t.named && g.saysNoName(it, q)
	it.instead = slices.ContainsFunc(g.toks[g.before:q.start], func(t token) bool { return corrects[t.text] })
	g.browns(&it, t.to)
	g.whips(&it)
	g.shelled(&it)
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
