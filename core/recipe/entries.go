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
		return r.bothOf(text, of)
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
		part := withoutJoin(toks[from:to])
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

// bothOf are the zest and the juice of one fruit.
func (r *reader) bothOf(text, of string) (out []Line) {
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

// withoutJoin takes off what joins a part with the next one.
func withoutJoin(part []token) []token {
	for len(part) > 0 && (joining[part[len(part)-1].text] || part[len(part)-1].text == "," || part[len(part)-1].text == ";") {
		part = part[:len(part)-1]
	}
	return part
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

// joining are the words between two amounts of one thing.
var joining = set("plus + and &")

// addUp joins an amount with the one before when that has no name of its own: "½ cup plus 1
// tbsp milk" is one amount, in the first unit.
func addUp(toks []token, qs []quantity) []quantity {
	var out []quantity
	for _, q := range qs {
		if n := len(out); n > 0 && out[n-1].joins(toks, q) {
			continue
		}
		out = append(out, q)
	}
	return out
}

// joins takes an amount that is added to it.
func (q *quantity) joins(toks []token, next quantity) bool {
	between := toks[q.end:next.start]
	if len(between) == 0 || len(nameWords(between)) > 0 || !joining[between[0].text] {
		return false
	}
	if q.takes(next) {
		return true
	}
	if q.word != "" || next.word != "" || q.vague != "" || next.vague != "" {
		return false
	}
	a, b := spoons[q.unit], spoons[next.unit]
	switch {
	case between[0].text == "and" && a == 0: // "250 grams and 40 grams of nuts" are two things
		return false
	case q.unit == next.unit && next.unit != measure.Each:
		if all := q.most() + next.most(); all > q.amount+next.amount {
			q.other = all
		}
		q.amount, q.end = q.amount+next.amount, next.end
		return true
	case a > 0 && b > 0:
		q.amount, q.end = q.amount+next.amount*b/a, next.end
		return true
	}
	return false
}

// named reads the name and the note of one part of a line, with its amount if it has one.
func (r *reader) named(text string, toks []token, q *quantity, brackets []quantity) []Line {
	l := Line{Text: strings.TrimSpace(text)}
	toks, q = r.fromAmount(toks, q)
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
			out = append(out, l.settle(h, r.kitchen, r.out.Language))
		}
		return out
	}
	h := r.names.match(core)
	if q != nil {
		h = r.asPieces(&l, h, core, note, *q)
	}
	one := l.settle(h, r.kitchen, r.out.Language)
	one.Or = r.alternative(one)
	one.doubts(low, toks, r.kitchen.Measures)
	return []Line{one}
}

// asPieces takes what is counted for the food that comes in such pieces: "a stick of cinnamon", "four cloves".
func (r *reader) asPieces(l *Line, h hit, core []string, note string, q quantity) hit {
	piece := func(words ...string) (hit, bool) {
		p := r.names.match(words)
		return p, p.in != nil && p.in.UnitG > 0
	}
	switch {
	case h.in == nil:
	case q.word == "stick" && h.in.Group != food.GroupFat: // of butter it is a weight
		p, ok := piece(append(slices.Clone(core), "stick")...)
		if !ok || p.score < sure {
			l.Amount, l.Unit = 0, ""
			break
		}
		l.Amount, l.Unit, l.Note = q.amount/stickG, measure.Each, note
		return p
	case l.Unit == measure.Each && l.Amount > 1 && h.in.UnitG == 0:
		if p, ok := piece(append([]string{"whole"}, core...)...); ok && p.score >= certain {
			return p
		}
	}
	return h
}

// fromAmount leaves out what is said before an amount and is no name: "I use about 250 g of flour".
func (r *reader) fromAmount(toks []token, q *quantity) ([]token, *quantity) {
	if q == nil || q.start == 0 || toks[q.start-1].text == "of" {
		return toks, q
	}
	if after := toks[q.end:]; len(nameWords(after)) == 0 || r.names.match(tokenWords(after)).score < maybe {
		return toks, q
	}
	cut := *q
	cut.start, cut.end = 0, q.end-q.start
	return toks[q.start:], &cut
}

// doubts asks about an amount that may be another one.
func (l *Line) doubts(low string, toks []token, measures measure.Standard) {
	if l.other > 0 && l.Ingredient != nil {
		l.thousands()
	}
	l.eighths()
	l.notLevel(strings.Fields(spelledOut(toks)), measures)
	if l.Status == Read && l.Place == "" && twoUses(low) {
		l.doubt("It is for the batter and for the pan. How much of it goes into the batter?", nil)
	}
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

// note adds to what else a line says.
func (l *Line) note(format string, args ...any) {
	l.Note = joined(l.Note, fmt.Sprintf(format, args...))
}

// fit turns containers, cans and weights in brackets into an amount.
func (l *Line) fit(q *quantity, brackets []quantity, known measure.Standard) {
	switch {
	case q.vague != "":
		l.Amount, l.Unit = 0, ""
		if !nothingSaid[q.vague] {
			l.Asks = fmt.Sprintf("How much is a %s?", strings.TrimSuffix(q.vague, "s"))
		}
	case q.word == "can":
		l.can(q, brackets, known)
	case q.word == "container":
		l.container(q, brackets)
		return
	case q.word != "":
		l.note("%s %s", short(q.amount/units[q.word].per), q.word)
	}
	if q.high > 0 {
		l.note("%s to %s", short(q.low), short(q.high))
	}
	for _, b := range brackets {
		l.weight(q, b)
	}
	if q.guessed {
		l.Asks = fmt.Sprintf("Is that %s %s? The stroke of the fraction may be lost.", short(l.Amount), l.Unit)
	}
	if slices.Contains(measure.Own, l.Unit) && known.Volume(l.Unit) <= 0 {
		l.Asks = fmt.Sprintf("How much is your %s? Weigh it once in the Kitchen, or give grams.", l.Unit)
	}
}

// can keeps what a can holds.
func (l *Line) can(q *quantity, brackets []quantity, known measure.Standard) {
	l.Unit = "can"
	if g, ok := grams(q.size, q.sizeUnit); ok {
		l.SizeG = round(g)
	} else if v := q.size * known.Volume(q.sizeUnit); v > 0 {
		l.SizeML = round(v)
	} else if g, ok := bracketed(brackets); ok {
		l.note("%s × %s g", short(q.amount), short(g))
		l.Amount, l.Unit = q.amount*g, measure.Gram
	} else {
		l.Asks = "How much is in the can?"
	}
}

// container is what it holds, as many times as there are.
func (l *Line) container(q *quantity, brackets []quantity) {
	size, unit := q.size, q.sizeUnit
	for _, b := range brackets {
		if size == 0 {
			size, unit = b.most(), b.unit
		}
	}
	if size <= 0 {
		l.Amount, l.Unit = 0, ""
		l.Asks = "How much is in it?"
		return
	}
	l.note("%s × %s %s", short(q.amount), short(size), unit)
	l.Amount, l.Unit = q.amount*size, unit
}

// weight takes a weight in brackets, which is surer than the cup before it.
func (l *Line) weight(q *quantity, b quantity) {
	g, ok := grams(b.amount, b.unit)
	if !ok || q.word == "can" || b.vague != "" || b.word != "" {
		return
	}
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
		return
	}
	l.Note = withoutWeight(l.Note)
	l.note("%s %s", short(l.Amount), l.Unit)
	if l.Unit == measure.Each {
		l.pieces = l.Amount
		if b.apiece {
			g *= l.Amount
		}
	}
	l.Amount, l.Unit, l.other = g, measure.Gram, b.other
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

// dividing is a line while its words are told apart: those that name the thing, and those that describe it.
type dividing struct {
	toks   []token
	q      *quantity
	core   []string
	notes  []string
	cur    []string // of the note that is read
	depth  int      // in brackets
	inNote bool
	had    bool // a word of the name
}

// divide separates the words that name the thing from those that describe it: what follows a
// comma, a bracket, "or", "plus" describes.
func (r *reader) divide(toks []token, q *quantity) (core []string, note string) {
	d := &dividing{toks: toks, q: q}
	for i, t := range toks {
		if q != nil && i >= q.start && i < q.end || d.bracket(t) {
			continue
		}
		d.take(i, t)
	}
	d.flush()
	note = strings.Join(append(d.state(), d.notes...), "; ")
	// A description may tell the kind apart: "carrot, grated", "bananas, mashed".
	for _, w := range words(note) {
		if weak[w] && !slices.Contains(d.core, w) && kindWord[w] {
			d.core = append(d.core, w)
		}
	}
	return d.core, note
}

// flush ends a note.
func (d *dividing) flush() {
	if n := strings.TrimSpace(strings.Join(d.cur, " ")); n != "" {
		d.notes = append(d.notes, n)
	}
	d.cur = nil
}

// bracket takes what is in brackets, which describes.
func (d *dividing) bracket(t token) bool {
	switch t.text {
	case "(", "[":
		d.depth++
		d.flush()
		return true
	case ")", "]":
		d.depth = max(0, d.depth-1)
		d.flush()
		return true
	}
	if d.depth == 0 {
		return false
	}
	if t.kind != sign {
		d.cur = append(d.cur, t.raw)
	}
	return true
}

// begins are the words with which a description begins.
var begins = set(", ; + plus or for")

// take puts a token where it belongs.
func (d *dividing) take(i int, t token) {
	switch {
	case d.had && (begins[t.text] || saysWithout[t.text]):
		d.flush()
		d.inNote = true
		if t.kind == word {
			d.cur = append(d.cur, t.raw)
		}
	case t.text == ":" || t.text == "-" && d.had && d.q != nil && i+1 == d.q.start:
		// "Flour: 300 g", "Eggs - 2"
	case d.inNote:
		if t.kind != sign || t.text == "%" {
			d.cur = append(d.cur, t.raw)
		}
	case t.kind == word:
		d.core = append(d.core, t.text)
		d.had = d.had || !(stop[t.text] && !weak[t.text])
	}
}

// state is what the name's own words say of its state.
func (d *dividing) state() []string {
	var state []string
	for _, w := range d.core {
		if stop[w] && len(w) > 4 && !weak[w] && w != "about" {
			state = append(state, w)
		}
	}
	if len(state) == 0 {
		return nil
	}
	return []string{strings.Join(state, " ")}
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
	l.asksWhat(h, lang)
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
	l.weighs(k)
	if l.Asks != "" && l.Status == Read {
		l.Status = Unsure
		l.Confidence *= askedWorth
	}
	return l
}

// asksWhat asks what a line is, when its name is not met or its words make another kind of it, or name an allergen that it is not
// known to have.
func (l *Line) asksWhat(h hit, lang Language) {
	asks := ""
	if h.score < sure {
		asks = "Is it " + lowerFirst(h.in.Name) + "?"
	}
	said := slices.DeleteFunc(append(slices.Clone(h.beside), saidOfIt(l.Note)...), func(w string) bool { return h.names[stem(spell(w))] })
	if w := unmetAllergen(said, h.in); w != "" {
		l.Allergen = w
		asks = fmt.Sprintf("“%s” is an allergen that %s is not known to have. What is it?", w, lowerFirst(h.in.Label()))
	} else if kind := kindOf(h, l.Note, lang); len(kind) > 0 {
		asks = fmt.Sprintf("Is it %s? It also says “%s”.", lowerFirst(h.in.Label()), strings.Join(kind, " "))
	}
	if asks != "" {
		l.Status, l.Guessed, l.Asks = Unsure, true, joined(l.Asks, asks)
		l.Confidence = math.Min(l.Confidence*askedWorth, sure)
	}
}

// weighs asks for the amount of a line that cannot be weighed, or has none.
func (l *Line) weighs(k batter.Kitchen) {
	if l.Amount <= 0 {
		l.Unit, l.Amount = "", 0
		l.AskHowMuch()
		return
	}
	if l.Place != "" {
		return
	}
	_, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML})
	switch {
	case err == nil || l.Asks != "":
	case l.Unit == measure.Each: // half a lemon is no amount of juice
		l.Unit, l.Amount = "", 0
		l.AskHowMuch()
	default:
		l.Asks = "How many grams are that?"
	}
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
