package recipe

import (
	"slices"
	"strings"

	"upbeatladle/core/measure"
)

// addUp joins what makes one amount, unless the food of the first stands before it: "flour one cup and a teaspoon of salt".
func (s *speech) addUp(qs []quantity) (out []quantity) {
	from := 0
	for i := 1; i < len(qs); i++ {
		if s.text(qs[i].start-1) == "and" && s.foodEnds(qs[i-1].start) && s.nameBehind(qs[i].end) {
			out = append(out, addUp(s.toks, qs[from:i])...)
			from = i
		}
	}
	return append(out, addUp(s.toks, qs[from:])...)
}

// nameBehind tells whether a food stands right behind a token, with what describes it.
func (s *speech) nameBehind(i int) bool {
	for s.foodAt(i) == 0 && (s.text(i) == "of" || s.text(i) == "the" || s.describes(i)) {
		i++
	}
	return s.foodAt(i) > 0
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
