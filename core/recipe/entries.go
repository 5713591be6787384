package recipe

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// entries takes a line apart into its ingredients.
func (r *reader) entries(text string, toks []token, found []quantity) []Line {
	if of, ok := zestAndJuice(text); ok { // one lemon gives both
		var out []Line
		for _, what := range []string{"zest of ", "juice of "} {
			whole := what + of
			t := r.tokens(whole)
			for _, l := range r.entries(whole, t, quantities(t)) {
				l.Text = strings.TrimSpace(text)
				out = append(out, l)
			}
		}
		return out
	}
	main := slices.DeleteFunc(slices.Clone(found), func(q quantity) bool { return q.inside })
	main = sized(toks, addUp(toks, dropAlternatives(toks, main)))
	if len(main) == 0 {
		return r.named(text, toks, nil, found)
	}
	var out []Line
	for i, q := range main {
		from, to := q.start, len(toks)
		if i == 0 {
			from = 0
		}
		if i+1 < len(main) {
			to = main[i+1].start
		}
		if i > 0 && len(out) > 0 && len(nameWords(toks[q.end:to])) == 0 {
			break // "…, plus 2 tbsp": belongs to the one before
		}
		part := toks[from:to]
		for len(part) > 0 && (part[len(part)-1].text == "and" || part[len(part)-1].text == "plus" || part[len(part)-1].text == "," || part[len(part)-1].text == "+" || part[len(part)-1].text == "&" || part[len(part)-1].text == ";") {
			part = part[:len(part)-1]
		}
		if len(part) == 0 {
			continue
		}
		own := text[part[0].at:part[len(part)-1].to]
		if i == 0 && len(main) == 1 {
			own = text
		}
		shifted := q
		shifted.start -= from
		shifted.end -= from
		out = append(out, r.named(own, part, &shifted, inside(found, from, to))...)
	}
	return out
}

// zestAndJuice tells what both are taken of.
func zestAndJuice(text string) (of string, ok bool) {
	for _, both := range []string{"zest and juice of ", "juice and zest of ", "zest & juice of ", "juice & zest of "} {
		if low := strings.ToLower(text); strings.HasPrefix(low, both) && len(low) == len(text) {
			return text[len(both):], true
		}
	}
	return "", false
}

// sized gives a container without its size the amount that stands behind the name: "a tub of
// ricotta, 250 g".
func sized(toks []token, qs []quantity) []quantity {
	var out []quantity
	for _, q := range qs {
		if n := len(out); n > 0 && (out[n-1].word == "container" || out[n-1].word == "can") && out[n-1].size == 0 && q.unit != measure.Each && q.word == "" && len(nameWords(toks[q.end:])) == 0 {
			out[n-1].size, out[n-1].sizeUnit = q.amount, q.unit
			continue
		}
		out = append(out, q)
	}
	return out
}

func inside(found []quantity, from, to int) []quantity {
	var out []quantity
	for _, q := range found {
		if q.inside && q.start >= from && q.end <= to {
			q.start -= from
			q.end -= from
			out = append(out, q)
		}
	}
	return out
}

// dropAlternatives leaves out an amount that says the one before in another unit
// ("300ml/10 fl oz"), and one that belongs to an extra ("plus 2 tbsp for the pan").
func dropAlternatives(toks []token, qs []quantity) []quantity {
	var out []quantity
	for _, q := range qs {
		if len(out) > 0 && q.start > 0 {
			last := out[len(out)-1]
			before := toks[q.start-1].text
			if (before == "/" || before == "or" || before == "=") && len(nameWords(toks[last.end:q.start-1])) == 0 {
				continue
			}
			if before == "plus" && len(nameWords(toks[q.end:])) == 0 {
				continue
			}
		}
		out = append(out, q)
	}
	return out
}

// nameWords are the words of tokens that could be a name.
func nameWords(toks []token) []string {
	var out []string
	for _, t := range toks {
		if t.kind == word && !(stop[t.text] && !weak[t.text]) {
			out = append(out, t.text)
		}
	}
	return out
}

// spelledOut are the tokens of a line in a row, as they are understood.
func spelledOut(toks []token) string {
	texts := make([]string, len(toks))
	for i, t := range toks {
		texts[i] = t.text
	}
	return strings.Join(texts, " ")
}

func tokenWords(toks []token) []string {
	var out []string
	for _, t := range toks {
		if t.text == "," || t.text == "(" {
			break
		}
		if t.kind == word {
			out = append(out, t.text)
		}
	}
	return out
}

// spoons are measures that add up with one another, in teaspoons (US; the metric ones are
// within 4 %).
var spoons = map[measure.Unit]float64{"tsp": 1, "tbsp": 3, "cup": 48, "fl_oz": 6}

// addUp joins an amount with the one before when that has no name of its own: "½ cup plus 1
// tbsp milk" is one amount, in the first unit.
func addUp(toks []token, qs []quantity) []quantity {
	var out []quantity
	for _, q := range qs {
		if n := len(out); n > 0 {
			last := &out[n-1]
			between := toks[last.end:q.start]
			joins := len(between) > 0 && len(nameWords(between)) == 0 && (between[0].text == "plus" || between[0].text == "+" || between[0].text == "and" || between[0].text == "&")
			a, b := spoons[last.unit], spoons[q.unit]
			switch {
			case joins && last.takes(q):
				continue
			case !joins || last.word != "" || q.word != "" || last.vague != "" || q.vague != "":
			case between[0].text == "and" && a == 0: // "250 grams and 40 grams of nuts" are two things
			case last.unit == q.unit && q.unit != measure.Each:
				if all := last.most() + q.most(); all > last.amount+q.amount {
					last.other = all
				}
				last.amount, last.end = last.amount+q.amount, q.end
				continue
			case a > 0 && b > 0:
				last.amount, last.end = last.amount+q.amount*b/a, q.end
				continue
			}
		}
		out = append(out, q)
	}
	return out
}

// named reads the name and the note of one part of a line, with its amount if it has one.
func (r *reader) named(text string, toks []token, q *quantity, brackets []quantity) []Line {
	l := Line{Text: strings.TrimSpace(text)}
	if q != nil { // "I use about 250 g of flour": what is said before the amount is no name
		if after := toks[q.end:]; q.start > 0 && len(nameWords(after)) > 0 && toks[q.start-1].text != "of" && r.names.match(tokenWords(after)).score >= maybe {
			cut := *q
			cut.start, cut.end = 0, q.end-q.start
			toks, q = toks[q.start:], &cut
		}
	}
	core, note := r.divide(toks, q)
	l.Note, l.Called = note, strings.Join(slices.DeleteFunc(slices.Clone(core), func(w string) bool { return stop[w] && !weak[w] }), " ")
	if q != nil {
		l.Amount, l.Unit, l.other, l.stroke = q.amount, q.unit, q.other, q.stroke
		l.fit(q, brackets, r.kitchen.Measures)
	}
	low := fold(text)
	if r.out.Language != English {
		low = spelledOut(toks)
	}
	if l.Place = r.place; l.Place == "" && !hasExtra(low) {
		l.Place = placeSaid(low)
	}
	if strings.Contains(low, "to taste") || strings.Contains(low, "as needed") {
		l.Amount = 0
	}
	if q != nil && q.start == 0 && q.end < len(toks) {
		if h := r.names.whole(text[toks[q.end].at-toks[0].at:]); h.in != nil {
			return []Line{l.settle(h, r.kitchen, r.out.Language)}
		}
	}
	// "salt and pepper", "1 tsp each cinnamon and ginger"
	if both := r.both(core, q, toks); both != nil {
		var out []Line
		for _, h := range both {
			one := l
			out = append(out, one.settle(h, r.kitchen, r.out.Language))
		}
		return out
	}
	one := l.settle(r.names.match(core), r.kitchen, r.out.Language)
	one.Or = r.alternative(one)
	if one.other > 0 && one.Ingredient != nil {
		one.thousands()
	}
	one.eighths()
	one.notLevel(strings.Fields(spelledOut(toks)))
	if one.Status == Read && one.Place == "" && twoUses(low) {
		one.doubt("It is for the batter and for the pan. How much of it goes into the batter?", nil)
	}
	return []Line{one}
}

// thousands asks whether "1.250 g" are a thousand and more, as is likely of what is not weighed on the fine scale.
func (l *Line) thousands() {
	likely, rarer := l.other, l.Amount
	if in := l.Ingredient; in.Role == food.RoleLeavener || in.Role == food.RoleSoda || in.Group == food.GroupSalt || in.Group == food.GroupSpice || in.Is(food.Yeasts) {
		likely, rarer = rarer, likely
	}
	l.Amount = likely
	l.doubt(fmt.Sprintf("Is it %g %s, or %g %s?", likely, l.Unit, rarer, l.Unit), &Suggestion{Ingredient: l.Ingredient, Amount: rarer, Unit: l.Unit})
}

// eighths asks about "5 1/8 of a spoon": five eighths are as likely, and nobody measures the other.
func (l *Line) eighths() {
	if l.Ingredient != nil && l.stroke > 0 && math.Abs(math.Mod(8*l.Amount, 2)-1) < 1e-9 && spoons[l.Unit] > 0 {
		l.doubt(fmt.Sprintf("Is it %.0f/8 %s, or %.0f 1/8? Written down by ear, both look alike.", 8*l.stroke, l.Unit, math.Floor(l.Amount)), &Suggestion{Ingredient: l.Ingredient, Amount: l.stroke, Unit: l.Unit})
	}
}

// hasExtra tells whether a line names a second amount for another place: "50 g butter, plus extra for the
// pan". Extra virgin oil is none.
func hasExtra(low string) bool {
	return strings.Contains(low, "plus ") || strings.Contains(low, "extra for") || strings.Contains(low, "more for")
}

// alternative is what a line says may be taken instead: "buttermilk (or milk)".
func (r *reader) alternative(l Line) *Suggestion {
	if l.Ingredient == nil {
		return nil
	}
	for part := range strings.SplitSeq(fold(l.Note), "; ") {
		name, ok := strings.CutPrefix(part, "or ")
		if !ok {
			continue
		}
		if h := r.names.match(words(name)); h.in != nil && h.score >= sure && h.in != l.Ingredient {
			return &Suggestion{Ingredient: h.in, Amount: l.Amount, Unit: l.Unit}
		}
	}
	return nil
}

// twoUses tells whether one amount is meant for the batter and for the pan.
func twoUses(low string) bool {
	for _, pan := range []string{"the pan", "pan", "frying", "the griddle", "the iron", "cooking"} {
		if strings.Contains(low, "batter and "+pan) || strings.Contains(low, "batter and for "+pan) {
			return true
		}
	}
	return false
}

// grams is an amount that is a weight [g].
func grams(v float64, u measure.Unit) (float64, bool) {
	g, err := measure.Standard{}.ToGrams(v, u, measure.Subject{}) // a weight is the same in every kitchen
	return g, err == nil
}

// apart tells whether two amounts that should be the same are not, beyond their rounding (modelling choice).
func apart(own, told float64) bool { return math.Abs(own-told) > 0.1*own }

// fit turns containers, cans and weights in brackets into an amount.
func (l *Line) fit(q *quantity, brackets []quantity, known measure.Standard) {
	note := func(format string, args ...any) { l.Note = joined(l.Note, fmt.Sprintf(format, args...)) }
	switch {
	case q.vague != "":
		l.Amount, l.Unit = 0, ""
		if !nothingSaid[q.vague] {
			l.Asks = fmt.Sprintf("How much is a %s?", strings.TrimSuffix(q.vague, "s"))
		}
	case q.word == "can":
		l.Unit = "can"
		if g, ok := grams(q.size, q.sizeUnit); ok {
			l.SizeG = round(g)
		} else if v := q.size * known.Volume(q.sizeUnit); v > 0 {
			l.SizeML = round(v)
		} else if g, ok := bracketed(brackets); ok {
			note("%s × %s g", short(q.amount), short(g))
			l.Amount, l.Unit = q.amount*g, measure.Gram
		} else {
			l.Asks = "How much is in the can?"
		}
	case q.word == "container":
		size, unit := q.size, q.sizeUnit
		for _, b := range brackets {
			if size == 0 {
				size, unit = b.most(), b.unit
			}
		}
		if size > 0 {
			note("%s × %s %s", short(q.amount), short(size), unit)
			l.Amount, l.Unit = q.amount*size, unit
		} else {
			l.Amount, l.Unit = 0, ""
			l.Asks = "How much is in it?"
		}
		return
	case q.word != "":
		note("%s %s", short(q.amount/units[q.word].per), q.word)
	}
	if q.high > 0 {
		note("%s to %s", short(q.low), short(q.high))
	}
	// A weight in brackets is surer than the cup before it.
	for _, b := range brackets {
		if g, ok := grams(b.amount, b.unit); ok && q.word != "can" && b.vague == "" && b.word == "" {
			if own, same := grams(l.Amount, l.Unit); same {
				if l.other > 0 && apart(l.other, g) != apart(own, g) { // what it says twice tells which it is
					if !apart(l.other, g) {
						own = l.other
					}
					l.Amount, l.other = own, 0
				}
				if apart(own, g) {
					l.Asks = fmt.Sprintf("%s g and %s g do not agree. Which is it?", short(own), short(g))
				}
				continue
			}
			l.Note = withoutWeight(l.Note)
			note("%s %s", short(l.Amount), l.Unit)
			if l.Unit == measure.Each {
				l.pieces = l.Amount
				if b.apiece {
					g *= l.Amount
				}
			}
			l.Amount, l.Unit, l.other = g, measure.Gram, b.other
		}
	}
	if q.guessed {
		l.Asks = fmt.Sprintf("Is that %s %s? The stroke of the fraction may be lost.", short(l.Amount), l.Unit)
	}
	if slices.Contains(measure.Own, l.Unit) && known.Volume(l.Unit) <= 0 {
		l.Asks = fmt.Sprintf("How much is your %s? Weigh it once in the Kitchen, or give grams.", l.Unit)
	}
}

// bracketed is the first amount in brackets that is a weight.
func bracketed(brackets []quantity) (float64, bool) {
	for _, b := range brackets {
		if g, ok := grams(b.most(), b.unit); ok && b.vague == "" && b.word == "" {
			return g, true
		}
	}
	return 0, false
}

// withoutWeight takes a weight in brackets out of the note once it is the amount.
func withoutWeight(note string) string {
	var kept []string
	for part := range strings.SplitSeq(note, "; ") {
		if f := strings.Fields(part); len(f) == 2 && units[fold(f[1])].unit != "" && f[0][0] >= '0' && f[0][0] <= '9' {
			continue
		}
		kept = append(kept, part)
	}
	return strings.Join(kept, "; ")
}

func round(v float64) float64 { return math.Round(v*10) / 10 }

func short(v float64) string {
	return strings.TrimRight(strings.TrimRight(fmt.Sprintf("%.2f", v), "0"), ".")
}

func joined(a, b string) string {
	switch {
	case a == "":
		return b
	case b == "":
		return a
	}
	return a + "; " + b
}

// divide separates the words that name the thing from those that describe it: what follows a
// comma, a bracket, "or", "plus" describes.
func (r *reader) divide(toks []token, q *quantity) (core []string, note string) {
	var notes []string
	var cur []string
	depth, inNote := 0, false
	flush := func() {
		if len(cur) > 0 {
			notes = append(notes, strings.Join(cur, " "))
		}
		cur = nil
	}
	skip := func(i int) bool { return q != nil && i >= q.start && i < q.end }
	had := false // a word of the name
	for i, t := range toks {
		if skip(i) {
			if !had {
				continue
			}
			if len(nameWords(toks[q.end:])) == 0 { // the amount stands last
				continue
			}
			continue
		}
		switch {
		case t.text == "(" || t.text == "[":
			depth++
			flush()
			continue
		case t.text == ")" || t.text == "]":
			depth = max(0, depth-1)
			flush()
			continue
		}
		if depth > 0 {
			if t.kind == word || t.kind == number {
				cur = append(cur, t.raw)
			}
			continue
		}
		switch {
		case (t.text == "," || t.text == ";" || t.text == "+" || t.text == "plus" || t.text == "or" || t.text == "for" || saysWithout[t.text]) && had:
			flush()
			inNote = true
			if t.kind == word {
				cur = append(cur, t.raw)
			}
		case t.text == ":" || t.text == "-" && had && q != nil && i+1 == q.start:
			// "Flour: 300 g", "Eggs - 2"
		case inNote:
			if t.kind != sign || t.text == "%" {
				cur = append(cur, t.raw)
			}
		case t.kind == word:
			core = append(core, t.text)
			had = had || !(stop[t.text] && !weak[t.text])
		case t.text == "/" && had:
			// "plain/all-purpose flour": both say it
		}
	}
	flush()
	var kept []string
	for _, n := range notes {
		if n = strings.TrimSpace(n); n != "" {
			kept = append(kept, n)
		}
	}
	// what the name's own words say of its state
	var state []string
	for _, w := range core {
		if stop[w] && len(w) > 4 && !weak[w] && w != "about" {
			state = append(state, w)
		}
	}
	if len(state) > 0 {
		kept = append([]string{strings.Join(state, " ")}, kept...)
	}
	note = strings.Join(kept, "; ")
	// A description may tell the kind apart: "carrot, grated", "bananas, mashed".
	for _, w := range words(note) {
		if weak[w] && !slices.Contains(core, w) && kindWord[w] {
			core = append(core, w)
		}
	}
	return core, note
}

// kindWord are states that make another ingredient of the table.
var kindWord = set("grated mashed frozen puree cooked raw diced sliced shredded crumbled browned")

// both finds two ingredients in one name: "salt and pepper", "each cinnamon and ginger".
func (r *reader) both(core []string, q *quantity, toks []token) []hit {
	each := slices.ContainsFunc(toks, func(t token) bool { return t.text == "each" })
	at := slices.Index(core, "and")
	if at <= 0 || at == len(core)-1 {
		return nil
	}
	a, b := r.names.match(core[:at]), r.names.match(core[at+1:])
	whole := r.names.match(core)
	if a.in == nil || b.in == nil || a.in == b.in || a.score < sure || b.score < sure {
		return nil
	}
	if !each && q != nil && q.vague == "" && q.unit != "" && q.amount > 0 && q.unit != "pinch" && whole.score >= sure {
		return nil
	}
	return []hit{a, b}
}

// settle gives a line its ingredient, and says how sure it is.
func (l Line) settle(h hit, k batter.Kitchen, lang Language) Line {
	l.Confidence = math.Min(0.99, h.score)
	if h.in == nil || h.score < maybe {
		l.Status, l.Confidence = NotUnderstood, math.Min(l.Confidence, maybe)
		if l.Allergen = unmetAllergen(words(l.Text)); l.Allergen != "" {
			l.Asks = fmt.Sprintf("“%s” is an allergen. What is it?", l.Allergen)
		}
		return l
	}
	l.Ingredient = h.in
	l.Status = Read
	if l.Place != "" { // how much there is of it need not be known
		l.Asks = ""
	}
	asksWhat := ""
	if h.score < sure {
		asksWhat = "Is it " + lowerFirst(h.in.Name) + "?"
	}
	said := slices.DeleteFunc(append(slices.Clone(h.beside), saidOfIt(l.Note)...), func(w string) bool { return h.names[stem(spell(w))] })
	if w := unmetAllergen(said, h.in); w != "" {
		l.Allergen = w
		asksWhat = fmt.Sprintf("“%s” is an allergen that %s is not known to have. What is it?", w, lowerFirst(h.in.Label()))
	} else if kind := kindOf(h, l.Note, lang); len(kind) > 0 {
		asksWhat = fmt.Sprintf("Is it %s? It also says “%s”.", lowerFirst(h.in.Label()), strings.Join(kind, " "))
	}
	if asksWhat != "" {
		l.Status, l.Guessed, l.Asks = Unsure, true, joined(l.Asks, asksWhat)
		l.Confidence = math.Min(l.Confidence*askedWorth, sure)
	}
	if h.in.IsWholeEgg() && l.pieces > 0 { // what is told of an egg's weight counts its shell
		l.Amount, l.Unit = l.pieces, measure.Each
	}
	low := fold(l.Text)
	if h.in.IsFlour() && l.Unit == "cup" {
		switch {
		case strings.Contains(low, "scoop"):
			l.Method = measure.Scooped
		case strings.Contains(low, "sifted flour"):
			l.Method = measure.Sifted
		}
	}
	if l.Amount > 0 && l.Place == "" {
		_, err := k.Grams(batter.Line{Ingredient: h.in, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML})
		switch {
		case err != nil && l.Asks == "" && l.Unit == measure.Each: // half a lemon is no amount of juice
			l.Unit, l.Amount = "", 0
			l.AskHowMuch()
		case err != nil && l.Asks == "":
			l.Asks = "How many grams are that?"
		}
	} else if l.Amount <= 0 {
		l.Unit, l.Amount = "", 0
		l.AskHowMuch()
	}
	if l.Asks != "" && l.Status == Read {
		l.Status = Unsure
		l.Confidence *= askedWorth
	}
	return l
}

// askedWorth is what is left of the confidence in a line that has to ask.
const askedWorth = 0.7

// AskHowMuch asks for the amount of a line that has none, unless it asks something already or stands
// beside the batter, where it needs none.
func (l *Line) AskHowMuch() {
	if l.Asks != "" || l.Place != "" {
		return
	}
	l.Status, l.Asks = Unsure, "How much "+lowerFirst(l.Ingredient.Label())+"?"
	if l.Ingredient.Group == food.GroupEgg {
		l.Asks = "How many?"
	}
	l.Confidence *= askedWorth
}

func lowerFirst(s string) string {
	if s == "" {
		return s
	}
	return strings.ToLower(s[:1]) + s[1:]
}

// food groups that a base is made of; the rest are additions.
var baseGroups = map[food.Group]bool{
	food.GroupFlour: true, food.GroupStarch: true, food.GroupSugar: true, food.GroupSyrup: true, food.GroupFat: true, food.GroupEgg: true, food.GroupLiquid: true,
	food.GroupCulturedDairy: true, food.GroupLeavener: true, food.GroupAcid: true, food.GroupSalt: true,
}
