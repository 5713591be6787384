package recipe

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

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

// withoutStamps takes the times and numbers of subtitles out of its lines. A
// single time is left: a recipe may say when.
func withoutStamps(lines []string) (kept []string, stamped bool) {
	n := 0
	for _, l := range lines {
		if strings.Contains(l, ":") {
			n += len(stamp.FindAllString(l, 2))
		}
	}
	if n < 2 {
		return lines, false
	}
	for i, l := range lines {
		switch {
		case strings.EqualFold(l, "WEBVTT"), stampLine.MatchString(l) && strings.Trim(stamp.ReplaceAllString(l, ""), " ->–") == "":
			continue
		case allDigits.MatchString(l) && i+1 < len(lines) && stampLine.MatchString(lines[i+1]):
			continue
		}
		for _, part := range stamp.Split(l, -1) {
			if part = strings.TrimSpace(part); part != "" {
				kept = append(kept, part)
			}
		}
	}
	return kept, true
}

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
	return len(lines) <= 2 || n > talkFrom*len(lines)
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
func (r *reader) talk(lines []string, stamped bool) {
	if !stamped && len(lines) > 1 && len(quantities(r.tokens(lines[0]))) == 0 && len(strings.Fields(lines[0])) <= 8 {
		r.out.Title = strings.Trim(lines[0], "#*: ")
		lines = lines[1:]
	}
	r.inGrams = saysGrams.MatchString(strings.Join(lines, " "))
	if stamped { // a sentence goes on over its subtitles
		lines = []string{strings.Join(lines, " ")}
	}
	for _, l := range lines {
		for _, s := range sentences(l) {
			for len(s) > longestSentence {
				at := breathIn(s[:longestSentence])
				r.sentence(s[:at])
				s = strings.TrimLeft(s[at:], " ,")
			}
			r.sentence(s)
		}
	}
	r.kindOnce(strings.Join(lines, " "))
	r.once()
}

// saysGrams finds that somebody weighs in grams; leastGrams is how many of something uncounted are then meant so (modelling
// choice: "one of the", "two of them" are none).
var saysGrams = regexp.MustCompile(`(?i)\bgrams?\b`)

const leastGrams = 3

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
	return len(strings.ToValidUTF8(s, "")) // a word of so many letters
}

// sentence reads the amounts of a sentence with their names; a sentence in which something is done is
// a step as well.
func (r *reader) sentence(s string) {
	if len(r.out.Lines) >= MaxLines {
		r.out.Other = append(r.out.Other, s)
		return
	}
	toks := r.tokens(s)
	all := quantities(toks)
	found := slices.DeleteFunc(slices.Clone(all), func(q quantity) bool { return q.inside })
	found = saidTwice(toks, sized(toks, addUp(toks, dropAlternatives(toks, found))))
	before, had := 0, len(r.out.Lines)
	for i, q := range found {
		r.pot(toks[before:q.start])
		to := len(toks)
		if i+1 < len(found) {
			to = found[i+1].start
		}
		end := nameEnd(toks, q.end, to)
		from := q.start
		if name := nameWords(toks[q.end:end]); len(name) == 0 || r.names.match(name).score < sure {
			if at := r.nameBefore(toks, before, q.start); at >= 0 {
				from, end = at, q.end
			}
		}
		if n := len(r.out.Lines); n > had && from == q.start && (restates(toks[before:q.start]) || weighed(r.out.Lines[n-1], toks[before:q.start], q)) && !r.isNamed(toks[q.end:end]) {
			r.out.Lines[n-1].restate(q)
			before = end
			continue
		}
		if each, e := r.shared(s, toks, q, to); each != nil && len(r.out.Lines)+len(each) <= MaxLines {
			r.out.Lines, before = append(r.out.Lines, each...), e
			continue
		}
		taken := r.spokenLine(s, toks, q, all, before, from, end)
		back := slices.ContainsFunc(toks[before:q.start], func(t token) bool { return corrects[t.text] })
		before = end
		if len(taken) == 0 || len(r.out.Lines) >= MaxLines {
			continue
		}
		if n := len(r.out.Lines); back && n > had && len(taken) == 1 && r.out.Lines[n-1].Ingredient == taken[0].Ingredient {
			taken[0].Note = joined(taken[0].Note, "put right while speaking; before: "+r.out.Lines[n-1].Text)
			r.out.Lines[n-1] = taken[0]
			continue
		}
		for k := range taken {
			taken[k].more = slices.ContainsFunc(toks[max(0, from-1):end], func(t token) bool { return again[t.text] })
		}
		r.out.Lines = append(r.out.Lines, taken...)
	}
	r.pot(toks[before:])
	if len(found) == 0 && len(strings.Fields(s)) <= 8 && !doing(toks) && !compares(toks) && r.names.match(nameWords(toks)).score >= sure {
		r.out.Lines = append(r.out.Lines, r.entries(s, toks, nil)...)
	}
	switch { // what is in no line stays as it was said
	case doing(toks) || len(words(s)) > 6 && len(r.out.Lines) == had:
		r.out.Steps = append(r.out.Steps, s)
	case len(r.out.Lines) == had:
		r.out.Other = append(r.out.Other, s)
	case leavesWords(toks, r.out.Lines[had:]):
		r.out.Steps = append(r.out.Steps, s)
	}
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
		return t.kind == word && !stop[t.text] && !ends[t.text] && !said[fold(t.raw)]
	})
}

// repeats are the words that say an amount again: "two cups, that's like 250 grams".
var repeats = set("so that thats is its it like about or around roughly maybe say")

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
	return ok && l.Unit == measure.Each && !slices.ContainsFunc(between, func(t token) bool { return t.kind == word && !repeats[t.text] })
}

// saidTwice joins an amount that says the one before again before either has a name: "a quarter cup, so
// that's like 60 ml, of oil".
func saidTwice(toks []token, qs []quantity) []quantity {
	var out []quantity
	for _, q := range qs {
		if n := len(out); n > 0 && restates(toks[out[n-1].end:q.start]) && !slices.ContainsFunc(toks[out[n-1].end:q.start], func(t token) bool { return t.kind == word && !repeats[t.text] }) {
			out[n-1].end = q.end
			continue
		}
		out = append(out, q)
	}
	return out
}

func (r *reader) isNamed(toks []token) bool {
	name := nameWords(toks)
	return len(name) > 0 && r.names.match(name).score >= sure
}

// restate takes a weight that a line is told again in; another measure says nothing new.
func (l *Line) restate(q quantity) {
	g, ok := grams(q.amount, q.unit)
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
		t := toks[i]
		switch {
		case t.text == "," && !had && i+1 < to && toks[i+1].text == "of":
		case t.kind == word && (had && (t.text == "the" || t.text == "grams") || ends[t.text] || verbs[t.text] || had && t.text == "and" && i+1 < to && (verbs[toks[i+1].text] || ends[toks[i+1].text])):
			return i
		case t.text == "," && i+1 < to && toks[i+1].kind == word && (kindWord[toks[i+1].text] || stop[toks[i+1].text] && len(toks[i+1].text) > 4):
		case t.kind == sign && t.text != "-" && t.text != "%" && t.text != "(" && t.text != ")" && t.text != "/" && (had || t.text != "."):
			return i
		}
		had = had || t.kind == word && !stop[t.text]
	}
	for to > from && (toks[to-1].text == "and" || toks[to-1].text == "plus" || toks[to-1].text == "a") {
		to--
	}
	return to
}

// between stand between a name and its amount: "the sugar, I use two tablespoons".
var between = set("i we you use used take need put in about just of have is are its thats like")

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

// justBefore is how many tokens before a name say where it goes: "serve it with".
const justBefore = 5

// spokenLine makes the lines of one amount and its name, which stand in the tokens from from to end;
// what was said since before tells where it goes. There are none when it is no food.
func (r *reader) spokenLine(s string, toks []token, q quantity, brackets []quantity, before, from, end int) []Line {
	part := toks[from:end]
	if len(part) == 0 {
		return nil
	}
	name := nameWords(toks[q.end:max(q.end, end)])
	if len(name) > 0 && notFoods[name[0]] {
		return nil
	}
	shifted := q
	shifted.start, shifted.end = q.start-from, q.end-from
	if r.bareGrams(toks, q, from) {
		shifted.unit = measure.Gram
		if h := r.names.match(nameWords(part)); h.in != nil && h.in.UnitG > 0 { // "four of the eggs"
			shifted.unit = q.unit
		}
	}
	if r.place == "" {
		r.place = servedIn(toks[max(min(before, from), from-justBefore):from])
		defer func() { r.place = "" }()
	}
	lines := r.named(s[part[0].at:part[len(part)-1].to], part, &shifted, inside(brackets, from, end))
	for i := range lines {
		l := &lines[i]
		if l.Place == "" && l.Ingredient != nil && l.Ingredient.Group == food.GroupFat && forThePan(toks[end:]) {
			l.Place = batter.InPan
		}
		if l.Place == "" && onTheSide(toks[end:]) {
			l.Place = batter.OnSide
		}
		l.notLevel(part)
	}
	if q.unit == measure.Each || q.unit == "" || q.vague != "" { // a number may count anything
		lines = slices.DeleteFunc(lines, func(l Line) bool { return l.Status == NotUnderstood })
	}
	return lines
}

// again are the words of a line that add to what was said before.
var again = set("another more second extra additional")

// bareGrams tells whether a number without a unit is grams: "fifteen of baking powder", "flour four hundred".
func (r *reader) bareGrams(toks []token, q quantity, from int) bool {
	bare := q.unit == measure.Each && q.word == "" && q.vague == "" && q.size == 0 && q.high == 0 && q.amount >= leastGrams
	return r.inGrams && bare && (from < q.start || q.end < len(toks) && toks[q.end].text == "of")
}

// shared are the lines of an amount that is said of several: "a teaspoon each of cinnamon, ginger and salt". There are none
// where it is said of one.
func (r *reader) shared(s string, toks []token, q quantity, to int) (out []Line, end int) {
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
		l := Line{Text: s[toks[q.start].at:toks[cut-1].to], Amount: q.amount, Unit: q.unit, Place: r.place}
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
var meansKind = regexp.MustCompile(`(?i)\b(?:mine is|my (?:milk|flour) is|when i say (?:milk|flour) i mean)\s+(?:always\s+)?(?:the\s+)?((?:\p{L}+[ -]?){1,4})`)

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

// once drops what was announced and measured later, what was named twice without an amount, and what was told again with
// the same amount. Another amount of the same is asked: both, or instead?
func (r *reader) once() {
	measured := map[string]bool{}
	for _, l := range r.out.Lines {
		if l.Ingredient != nil && l.Amount > 0 {
			measured[l.Ingredient.ID] = true
		}
	}
	var kept []Line
	for _, l := range r.out.Lines {
		switch {
		case l.Ingredient == nil:
		case l.Amount <= 0:
			had := measured[l.Ingredient.ID]
			measured[l.Ingredient.ID] = true
			if had {
				continue
			}
		case l.Unit == measure.Each && (l.Ingredient.IsEggWhite() || l.Ingredient.ID == "egg_yolk") && slices.ContainsFunc(kept, func(o Line) bool {
			return o.Ingredient != nil && o.Ingredient.IsWholeEgg() && o.Unit == measure.Each && o.Amount >= l.Amount
		}) && !l.more:
			continue // of the eggs that are there
		case !l.more:
			at := slices.IndexFunc(kept, func(o Line) bool { return o.Ingredient == l.Ingredient && o.Place == l.Place && o.Amount > 0 })
			if at < 0 {
				break
			}
			o := &kept[at]
			if o.Amount == l.Amount && o.Unit == l.Unit {
				o.Note = joined(o.Note, "said again: "+l.Text)
				continue
			}
			if o.Status == Read && l.Status == Read {
				l.doubt(fmt.Sprintf("%s %s of it was said before: both, or instead?", short(o.Amount), o.Unit), nil)
			}
		}
		kept = append(kept, l)
	}
	r.out.Lines = kept
}

// A second pot begins and ends at these words: what is cooked or stirred for the top or the middle is not in the batter.
var (
	pots = map[string]batter.Place{
		"syrup": batter.OnTop, "caramel": batter.OnTop, "compote": batter.OnTop, "sauce": batter.OnTop, "topping": batter.OnTop, "saucepan": batter.OnTop, "filling": batter.Middle,
	}
	batters = set("batter pancake pancakes crepe crepes waffle waffles fritters")
)

// pot tells from what is said between two amounts whether another pot is talked of now, or the batter again.
func (r *reader) pot(between []token) {
	at := func(i int) string {
		if i >= 0 && i < len(between) {
			return between[i].text
		}
		return ""
	}
	for i, t := range between {
		place, is := pots[stem(t.text)]
		begins := at(i-1) == "the" && (at(i-2) == "for" || at(i-2) == "do" || at(i-2) == "make" || at(i+1) == "is" || at(i+1) == "takes" || at(i+1) == "needs" || at(i-2) == "") || t.text == "saucepan"
		switch {
		case is && begins:
			r.place = place
		case batters[t.text] && (at(i-1) == "the" || at(i-1) == "to") && at(i-2) != "with" && at(i-2) != "over" && at(i-2) != "on", t.text == "bowl" && (at(i-1) == "a" || at(i-1) == "the" || at(i-1) == "big"):
			r.place = ""
		}
	}
}

// forThePan tells whether what follows a fat says that it greases the plate.
func forThePan(after []token) bool {
	at := func(i int) string {
		if i < len(after) {
			return after[i].text
		}
		return ""
	}
	if at(0) == "for" && at(1) == "each" {
		return true
	}
	if at(2) == "whole" {
		after = append(after[:2:2], after[3:]...)
	}
	return (at(0) == "in" || at(0) == "for") && at(1) == "the" && (at(2) == "pan" || at(2) == "skillet" || at(2) == "griddle" || at(2) == "iron")
}

// onTheSide tells whether what follows a name says that it stands beside.
func onTheSide(after []token) bool {
	return len(after) > 0 && after[0].text == "beside" || len(after) > 2 && after[0].text == "on" && after[1].text == "the" && after[2].text == "side"
}

// unlevel are the words of a spoon that is not level, times a level one (common practice).
var unlevel = map[string]float64{"heaped": 2, "heaping": 2, "rounded": 1.5, "scant": 0.9}

// notLevel asks for a spoon that is not level: of a powder it holds so much more or less.
func (l *Line) notLevel(part []token) {
	if l.Ingredient == nil || l.Amount <= 0 || l.Unit != measure.Tbsp && l.Unit != measure.Tsp && l.Unit != measure.Cup {
		return
	}
	for _, t := range part {
		if times := unlevel[t.text]; times > 0 && l.Status == Read {
			l.doubt(fmt.Sprintf("A spoon that is %s holds about %g level ones of a powder: is it %s %s, level?", t.text, times, short(l.Amount*times), l.Unit),
				&Suggestion{l.Ingredient, l.Amount * times, l.Unit})
		}
	}
}

// servedIn is the place that the words before a name put it in: served with it, on top of it.
func servedIn(before []token) batter.Place {
	at := func(i int) string {
		if i < len(before) {
			return before[i].text
		}
		return ""
	}
	for i, t := range before {
		next := at(i + 1)
		switch t.text {
		case "serve", "serves", "served", "serving":
			return batter.Serving
		case "great", "good", "lovely", "goes", "well":
			if next == "with" {
				return batter.Serving
			}
		case "inside":
			return batter.Middle
		case "top":
			if i > 0 && before[i-1].text == "on" && next != "of" && next != "with" && next != "w" {
				return batter.OnTop
			}
			if next == "with" || next == "w" {
				return batter.OnTop
			}
		case "drizzle", "scatter":
			if next != "in" && next != "into" {
				return batter.OnTop
			}
		case "topped", "dust", "dusted", "sprinkle", "finish", "w":
			if next == "with" || next == "w" {
				return batter.OnTop
			}
		case "fill", "filled", "spread":
			if next == "with" {
				return batter.Middle
			}
		}
	}
	return ""
}
