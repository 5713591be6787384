package recipe

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// stamp is a time as subtitles have it: "00:12", "[0:03]", "(1:02:03.500)".
var (
	stamp     = regexp.MustCompile(`[\[(]?\b\d{1,2}:\d{2}(?::\d{2})?(?:[.,]\d{1,3})?\b[\])]?`)
	stampLine = regexp.MustCompile(`^[\[(]?\d{1,2}:\d{2}(?::\d{2})?(?:[.,]\d{1,3})?[\])]?\s*(?:-->|-|–|$)`)
	allDigits = regexp.MustCompile(`^\d+$`)
)

// talkFrom is how many words a line has in the middle from which a text is talk and not a list
// (modelling choice).
const talkFrom = 20

func isTalk(lines []string) bool {
	n := 0
	for _, l := range lines {
		if _, ok := headingMode(strings.Trim(l, "#*_ \t")); ok {
			return false
		}
		n += len(strings.Fields(l))
	}
	return len(lines) <= 2 || n > talkFrom*len(lines) || n > talkFrom/2*len(lines) && tellSeveral(lines)
}

// tellSeveral tells whether at least half of the lines have several amounts each, as no list has.
func tellSeveral(lines []string) bool {
	n := 0
	for _, l := range lines {
		if len(quantities(tokens(l))) > 1 {
			n++
		}
	}
	return 2*n >= len(lines)
}

// ends are words that no name goes over in talk.
var ends = set("then now goes go into in so until till it its which that i we you my your when because is are was were on at from with please ok okay if for but as this these " +
	"those until whatever right there here going gonna thats lol xx actually sorry")

// corrects are words that take back what was said before them.
var corrects = set("sorry actually rather correction mean scratch wait no")

// notFoods are what a cook measures that is no ingredient.
var notFoods = set("batter mixture mix dough pan bowl griddle ladle side one each time times people person")

// talk reads a text that is not in lines: an amount and the name that follows it, wherever they
// stand, sentence by sentence.
func (r *reader) talk(lines []piece, stamped bool) {
	if !stamped && len(lines) > 1 && len(quantities(r.tokens(lines[0].text))) == 0 && len(strings.Fields(lines[0].text)) <= 8 {
		r.out.Title = strings.Trim(lines[0].text, "#*: ")
		lines = lines[1:]
	}
	whole := join(lines, stamped)
	r.imperial, r.sponge = saysImperial.MatchString(whole.text), saysSponge.MatchString(whole.text)
	r.mixed = saysMix.MatchString(whole.text)
	r.inKilos = saysKilos.MatchString(whole.text)
	r.allGrams = saysAllGrams.MatchString(whole.text)
	r.inGrams = r.inKilos || r.allGrams || saysGrams.MatchString(whole.text)
	for _, sent := range whole.sentences() {
		text := whole.text[sent[0]:sent[1]]
		for at := sent[0]; text != ""; {
			cut := len(text)
			if cut > longestSentence {
				cut = breathIn(text[:longestSentence])
			}
			r.sentence(text[:cut], at)
			rest := strings.TrimLeft(text[cut:], " ,")
			at += len(text) - len(rest)
			text = rest
		}
	}
	r.kindOnce(whole.text)
	r.once()
	r.placed(whole)
}

// saysGrams finds that somebody weighs in grams; leastGrams is how many of something uncounted are then meant so (modelling
// choice: "one of the", "two of them" are none).
var saysGrams = regexp.MustCompile(`(?i)\bgrams?\b`)

const leastGrams = 3

// saysKilos finds that all is told in kilograms; from leastInKilos on a bare number is of grams all the same (modelling choice).
var saysKilos = regexp.MustCompile(`(?i)\b(?:all|everything)(?:['’]?s| is)? in (?:kilos|kilograms|kg)\b`)

const leastInKilos = 20

// What a talk says once of all of it: whose pints are meant, and that the dough begins the day before.
var (
	saysImperial = regexp.MustCompile(`(?i)\bimperial pints?\b|\bpints?,? (?:the )?imperial\b`)
	saysSponge   = regexp.MustCompile(`(?i)\b(?:for the|the) (?:sponge|poolish|pre-?ferment)\b`)
)

// saysAllGrams finds that everything is weighed in grams.
var saysAllGrams = regexp.MustCompile(`(?i)\b(?:all|everything|it all)(?:['’]?s| is| of it)?,? (?:in |by the )?grams?\b|\b(?:in )?grams,? (?:all|everything)\b`)

// saysMix finds that a talk is of a mix from a bag.
var saysMix = regexp.MustCompile(`(?i)\b(?:bag|box|packet) (?:says|wants|mix)\b|\bof the (?:bag|box|packet)\b|\bpancake mix\b`)

// longestSentence is how many bytes are read as one: talk that is written down by a machine has no
// stops (modelling choice).
const longestSentence = 1000

// breathIn is where a long sentence can be cut: at its last comma, else at its last space.
func breathIn(s string) int {
	for _, at := range []string{", ", " and ", " "} {
		if i := strings.LastIndex(s, at); i > len(s)/2 {
			return i
		}
	}
	for k := 1; k <= utf8.UTFMax; k++ { // a word of so many letters: not within one of them
		if utf8.RuneStart(s[len(s)-k]) {
			if !utf8.FullRuneInString(s[len(s)-k:]) {
				return len(s) - k
			}
			break
		}
	}
	return len(s)
}

// sentence reads the foods of a sentence with their amounts, and where they go; a sentence in which something is done is a step as
// well. at is where it begins in what was given.
func (r *reader) sentence(text string, at int) {
	if len(r.out.Lines) >= MaxLines {
		r.out.Other = append(r.out.Other, text)
		return
	}
	h := r.listen(text, at)
	had := len(r.out.Lines)
	h.hear()
	toks, lines := h.toks, r.out.Lines[min(had, len(r.out.Lines)):]
	if len(h.qs) == 0 && len(lines) == 0 && len(strings.Fields(text)) <= 8 && !strings.HasSuffix(text, "?") && !asks(toks) && !doing(toks) && !compares(toks) && r.names.match(nameWords(toks)).score >= sure {
		for _, l := range r.entries(text, toks, nil) {
			h.keep(l, 0, len(toks))
		}
		lines = r.out.Lines[had:]
	}
	switch { // what is in no line stays as it was said
	case doing(toks) || len(words(text)) > 6 && len(lines) == 0:
		r.out.Steps = append(r.out.Steps, text)
	case len(lines) == 0:
		r.out.Other = append(r.out.Other, text)
	case leavesWords(toks, lines):
		r.out.Steps = append(r.out.Steps, text)
	}
}

// asks tells whether words ask how much it is.
func asks(toks []token) bool {
	return slices.ContainsFunc(toks, func(t token) bool { return t.text == "how" })
}

func doing(toks []token) bool {
	return slices.ContainsFunc(toks, func(t token) bool { return t.kind == word && verbs[t.text] })
}

// leavesWords tells whether a sentence has words that could be a name and stand in none of its lines.
func leavesWords(toks []token, lines []Line) bool {
	said := map[string]bool{}
	for _, l := range lines {
		for _, w := range words(l.Text) {
			said[w] = true
		}
	}
	return slices.ContainsFunc(toks, func(t token) bool {
		return t.kind == word && !stop[t.text] && !said[fold(t.raw)]
	})
}

// repeats are the words that say an amount again: "two cups, that's like 250 grams".
var repeats = set("so that thats is its it like about or around roughly maybe say id lets came come comes weigh weighs weighed were was to")

// restates tells whether what stands before an amount announces that it says the one before again.
func restates(between []token) bool {
	said := false
	for i := len(between) - 1; i >= 0 && (between[i].kind == sign || repeats[between[i].text]); i-- {
		said = said || between[i].text == "that" || between[i].text == "thats"
	}
	return said
}

// weighed tells whether an amount says what the pieces before it weigh: "two bananas, about 200 grams".
func weighed(l Line, between []token, q quantity) bool {
	_, ok := grams(q.amount, q.unit)
	return ok && l.Unit == measure.Each && len(between) <= soon+1 && !slices.ContainsFunc(between, func(t token) bool {
		return t.kind == word && !repeats[t.text] && !ofItself[t.text] && !stop[t.text] && !kindWord[t.text]
	})
}

// saidTwice joins an amount that says the one before again before either has a name: "a quarter cup, so
// that's like 60 ml, of oil".
func saidTwice(toks []token, qs []quantity) []quantity {
	var out []quantity
	for _, q := range qs {
		if n := len(out); n > 0 && restates(toks[out[n-1].end:q.start]) && !slices.ContainsFunc(toks[out[n-1].end:q.start], func(t token) bool { return t.kind == word && !repeats[t.text] }) {
			if last := &out[n-1]; last.word == "container" && last.size == 0 && q.vague == "" { // "half a tub, that's 125 grams"
				q.start = last.start
				*last = q
				continue
			}
			out[n-1].end = q.end
			continue
		}
		out = append(out, q)
	}
	return out
}

// ofItself are words of a piece between its number and its weight: "skin and all", "with the peel on".
var ofItself = set("skin skins peel all and with on off out")

func (r *reader) isNamed(toks []token) bool {
	name := nameWords(toks)
	return len(name) > 0 && r.names.match(name).score >= sure
}

// restate takes a weight that a line is told again in; another measure says nothing new.
func (l *Line) restate(q quantity) {
	if q.unit == l.Unit && q.amount > l.Amount && q.unit != measure.Gram { // "two for each egg, that's eight"
		l.Note = joined(l.Note, short(l.Amount)+" "+string(l.Unit))
		l.Amount = q.amount
		return
	}
	g, ok := grams(q.amount, q.unit)
	if l.Unit == measure.Each && q.unit != measure.Each && q.vague == "" && !ok && l.Ingredient != nil && !l.Ingredient.IsWholeEgg() {
		l.Note = joined(l.Note, short(l.Amount)+" "+string(l.Unit))
		l.Amount, l.Unit, l.Asks, l.Status = q.amount, q.unit, "", Read
		return
	}
	if !ok || l.Ingredient == nil || l.Ingredient.IsWholeEgg() || l.Unit == measure.Gram {
		return
	}
	l.Note = joined(l.Note, short(l.Amount)+" "+string(l.Unit))
	l.Amount, l.Unit = g, measure.Gram
}

// nameEnd is where a name that begins at from ends, at the latest before to. A comma ends it unless
// what follows describes it: "butter, melted".
func nameEnd(toks []token, from, to int) int {
	had := false
	for i := from; i < to; i++ {
		if !goesOver(toks, i, to, had) && (endsByWord(toks, i, to, had) || endsBySign(toks[i], had)) {
			return i
		}
		had = had || toks[i].kind == word && !stop[toks[i].text]
	}
	for to > from && (toks[to-1].text == "and" || toks[to-1].text == "plus" || toks[to-1].text == "a") {
		to--
	}
	return to
}

// goesOver tells whether a name goes on over a comma: before "of", or before what describes it.
func goesOver(toks []token, i, to int, had bool) bool {
	if toks[i].text != "," || i+1 >= to {
		return false
	}
	next := toks[i+1]
	return !had && next.text == "of" || next.kind == word && (kindWord[next.text] || stop[next.text] && len(next.text) > 4)
}

// endsByWord tells whether a word ends a name: what is done, and what goes over to something else.
func endsByWord(toks []token, i, to int, had bool) bool {
	t := toks[i]
	if t.kind != word {
		return false
	}
	over := had && t.text == "and" && i+1 < to && (verbs[toks[i+1].text] || ends[toks[i+1].text])
	return over || had && (t.text == "the" || t.text == "grams") || ends[t.text] || verbs[t.text] && (had || !stop[t.text]) // "warm milk"
}

// inName are the signs that a name may have in it.
var inName = set("- % ( ) /")

func endsBySign(t token, had bool) bool {
	return t.kind == sign && !inName[t.text] && (had || t.text != ".")
}

// between stand between a name and its amount: "the sugar, I use two tablespoons".
var between = set("i we you use used take need put in about just of have is are it its thats like")

// nameBefore finds the name that stands before its amount: "now the milk, 400 ml". It is the first
// token of it, or -1.
func (r *reader) nameBefore(toks []token, from, to int) int {
	last := to
	for last > from && (toks[last-1].kind == sign || between[toks[last-1].text]) {
		last--
	}
	at := last
	for at > from && toks[at-1].kind == word && !ends[toks[at-1].text] && !verbs[toks[at-1].text] && last-at < 4 {
		at--
	}
	for ; at < last; at++ {
		if r.names.match(tokenWords(toks[at:last])).score >= sure {
			return at
		}
	}
	return -1
}

// spokenLine makes the lines of one amount and its name, which stand in the tokens from from to end. There are none when it is no
// food.
func (h *speech) spokenLine(q quantity, from, end int) []Line {
	r, toks := h.r, h.toks
	if end <= from {
		return nil
	}
	name := nameWords(toks[q.end:max(q.end, end)])
	if len(name) > 0 && notFoods[name[0]] {
		return nil
	}
	cut := h.behindName(from, q.start)
	part := append(slices.Clone(toks[from:cut]), toks[q.start:end]...)
	shifted := q
	shifted.start, shifted.end = cut-from, cut-from+q.end-q.start
	if r.bareGrams(toks, q, from) {
		shifted.unit = measure.Gram
		if r.inKilos && q.amount < leastInKilos {
			shifted.unit = measure.Kilogram
		}
		if h := r.names.match(nameWords(part)); h.in != nil && h.in.UnitG > 0 { // "four of the eggs"
			shifted.unit = q.unit
		}
	}
	if w := nameWords(part); q.vague == "squeeze" && len(w) > 0 && juicy[stem(w[len(w)-1])] {
		last := part[len(part)-1]
		part = append(slices.Clone(part), token{kind: word, text: "juice", raw: "juice", at: last.at, to: last.to})
	}
	lines := r.named(h.said[part[0].at:part[len(part)-1].to], part, &shifted, inside(h.inside, from, end))
	if q.unit == measure.Each || q.unit == "" || q.vague != "" { // a number may count anything
		lines = slices.DeleteFunc(lines, func(l Line) bool { return l.Status == NotUnderstood })
	}
	return lines
}

// behindName is where a name ends that stands before its amount, with what describes it: what is said between them is no part of it.
func (h *speech) behindName(from, to int) int {
	for i := from; i < to; i++ {
		n := h.foodAt(i)
		if n == 0 || i+n > to {
			continue
		}
		for i += n; i < to && (h.text(i) == "," || h.describes(i)); i++ {
		}
		return i
	}
	return to
}

// juicy are the fruits of which a squeeze is juice.
var juicy = set("lemon lime orange")

// again are the words of a line that add to what was said before.
var again = set("another more second extra additional plus other")

// bareGrams tells whether a number without a unit is grams: "fifteen of baking powder", "flour four hundred".
func (r *reader) bareGrams(toks []token, q quantity, from int) bool {
	if slices.ContainsFunc(toks[q.start:q.end], func(t token) bool { return unlevel[t.text] != "" }) || counts[textAt(toks, q.end)] {
		return false // "four heaped ones" are spoons, "ten leaves" are leaves
	}
	bare := q.unit == measure.Each && q.word == "" && q.vague == "" && q.size == 0 && q.high == 0 && (q.amount >= leastGrams || r.inKilos || r.allGrams && q.amount > 1)
	return r.inGrams && bare && (from < q.start || q.end < len(toks) && toks[q.end].text == "of" || q.amount >= certainlyGrams || r.allGrams)
}

// counts are what is counted of a food.
var counts = set("leaf leaves slice slices piece pieces stalk stalks stem stems sprig sprigs strip strips wedge wedges each")

// certainlyGrams is from how many of something uncounted is meant in grams, where somebody weighs: "a hundred and twenty milk"
// (modelling choice).
const certainlyGrams = 15

// shared are the lines of an amount that is said of several: "a teaspoon each of cinnamon, ginger and salt". There are none
// where it is said of one.
func (r *reader) shared(s string, toks []token, q quantity, to int, place batter.Place) (out []Line, end int) {
	at := q.end
	if at >= to || toks[at].text != "each" {
		return nil, at
	}
	if at++; at < to && toks[at].text == "of" {
		at++
	}
	for from := at; from < to; {
		cut := from
		for cut < to && toks[cut].text != "," && toks[cut].text != "and" {
			cut++
		}
		h := r.names.match(nameWords(toks[from:cut]))
		if cut == from || h.score < sure {
			break
		}
		l := Line{Text: s[toks[q.start].at:toks[cut-1].to], Amount: q.amount, Unit: q.unit, Place: place}
		out, end = append(out, l.settle(h, r.kitchen, r.out.Language)), cut
		from = cut + 1
		if from < to && toks[from].text == "and" {
			from++
		}
	}
	if len(out) < 2 {
		return nil, q.end
	}
	return out, end
}

// meansKind finds that a cook says once which milk or flour is theirs.
var meansKind = regexp.MustCompile(`(?i)\b(?:mine is(?: with| made with)?|my (?:milk|flour) is|(?:when )?(?:i|we) say (?:milk|flour),? (?:(?:i|we) mean|it'?s|it is)|(?:and|by (?:milk|flour)) (?:i|we) mean)\s+(?:always\s+)?(?:the\s+)?((?:\p{L}+[ -]?){1,4})`)

// kindOnce makes the plain milk or flour of a talk the one that the cook said is theirs; where several are named it is asked.
func (r *reader) kindOnce(text string) {
	for plain, group := range map[string]food.Group{"milk_whole": food.GroupLiquid, "plain_flour": food.GroupFlour} {
		named := r.kindsSaid(text, group)
		if len(named) == 0 {
			continue
		}
		for i := range r.out.Lines {
			l := &r.out.Lines[i]
			if l.Ingredient == nil || l.Ingredient.ID != plain || slices.Contains(named, l.Ingredient) {
				continue
			}
			if len(named) > 1 {
				l.doubt(fmt.Sprintf("Which one is it: %s, or %s?", named[0].Label(), named[1].Label()), nil)
				continue
			}
			l.Note = joined(l.Note, "it was said once which one: "+named[0].Label())
			l.Ingredient = named[0]
		}
		r.out.Lines = slices.DeleteFunc(r.out.Lines, func(l Line) bool { return l.Amount <= 0 && slices.Contains(named, l.Ingredient) })
	}
}

// kindsSaid are the ingredients of a group that a cook says are theirs, each once.
func (r *reader) kindsSaid(text string, group food.Group) (out []*food.Ingredient) {
	for _, m := range meansKind.FindAllStringSubmatch(text, -1) {
		said := strings.Fields(m[1])
		for n := len(said); n > 0; n-- {
			h := r.names.match(words(strings.Join(said[:n], " ")))
			if h.in == nil || h.score < sure {
				continue
			}
			if h.in.Group == group && !slices.Contains(out, h.in) {
				out = append(out, h.in)
			}
			break
		}
	}
	return out
}

// unlevel are the words of a spoon or a cup that is not level.
var unlevel = map[string]measure.Fullness{"heaped": measure.Heaped, "heaping": measure.Heaped, "rounded": measure.Rounded, "scant": measure.Scant}

// notLevel keeps how full the spoon of a powder is: the amount stays as it is spoken. Of leavener and salt it is asked.
func (l *Line) notLevel(words []string, measures measure.Standard) {
	if l.Ingredient == nil || l.Amount <= 0 || !l.Ingredient.IsPowder() || l.Unit != measure.Tbsp && l.Unit != measure.Tsp && l.Unit != measure.Cup {
		return
	}
	for _, w := range words {
		fill := unlevel[w]
		if fill == "" {
			continue
		}
		l.Fill = fill
		if r := l.Ingredient.Role; l.Status == Read && (r == food.RoleLeavener || r == food.RoleSoda || r == food.RoleSalt || l.Ingredient.Is(food.Yeasts)) {
			level := l.Amount * measures.Holds(fill)
			l.doubt(fmt.Sprintf("A %s spoon holds about %s level ones of a powder, and of this a little is much. Is it %s %s, level?", w, short(measures.Holds(fill)), short(level), l.Unit),
				&Suggestion{Ingredient: l.Ingredient, Amount: level, Unit: l.Unit, Fill: measure.Level})
		}
		return
	}
}

// servedIn is the place that the words before a name put it in: served with it, on top of it.
func servedIn(before []token) batter.Place {
	for i := range before {
		for _, s := range servedShapes {
			if s.at(before, i) {
				return s.place
			}
		}
	}
	return ""
}

// served are words before a name that say where it goes, and the words that have to follow, or must not; none for any.
type served struct {
	words     map[string]bool
	next, not map[string]bool
	after     string // that has to stand before it
	place     batter.Place
}

var with = set("with w")

var servedShapes = []served{
	{words: set("serve serves served serving"), place: batter.Serving},
	{words: set("great good lovely goes well"), next: set("with"), place: batter.Serving},
	{words: set("inside"), place: batter.Middle},
	{words: set("top"), after: "on", not: set("of with w"), place: batter.OnTop},
	{words: set("top topped dust dusted sprinkle finish w"), next: with, place: batter.OnTop},
	{words: set("drizzle scatter"), not: set("in into"), place: batter.OnTop},
	{words: set("fill filled spread"), next: set("with"), place: batter.Middle},
}

func (s served) at(toks []token, i int) bool {
	next := textAt(toks, i+1)
	if !s.words[toks[i].text] || s.next != nil && !s.next[next] || s.not[next] {
		return false
	}
	return s.after == "" || i > 0 && toks[i-1].text == s.after
}
