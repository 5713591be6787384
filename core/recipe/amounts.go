package recipe

import (
	"cmp"
	"math"
	"regexp"
	"strconv"
	"strings"
	"unicode"
	"unicode/utf8"

	"upbeatladle/core/measure"
)

type kind int

const (
	word kind = iota
	number
	sign
)

// token is a word, a number or a sign of a line; at and to are its bytes in it.
type token struct {
	kind   kind
	text   string // folded
	raw    string
	at, to int
	value  float64
	other  float64 // that a number may be as well: "1.250" is one and a quarter, or a thousand more
}

const fractions = "¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"

// tokens divides a line. A mixed number ("1 1/2", "1½") is one token; a number glued to its
// unit ("200g") is two.
func tokens(s string) []token {
	var out []token
	for i := 0; i < len(s); {
		r, size := utf8.DecodeRuneInString(s[i:])
		switch {
		case unicode.IsSpace(r):
			i += size
		case r >= '0' && r <= '9' || strings.ContainsRune(fractions, r):
			n, v, other := inThrees(s[i:])
			if n == 0 {
				n, v = scanNumber(s[i:])
			}
			out = append(out, token{number, s[i : i+n], s[i : i+n], i, i + n, v, other})
			i += n
		case unicode.IsLetter(r) || r == '°':
			j := i
			for j < len(s) {
				c, w := utf8.DecodeRuneInString(s[j:])
				if !unicode.IsLetter(c) && !unicode.Is(unicode.Mn, c) && c != '°' && c != '\'' && c != '’' {
					break
				}
				j += w
			}
			out = append(out, token{word, fold(s[i:j]), s[i:j], i, j, 0, 0})
			i = j
		default:
			text, of := string(r), sign
			switch {
			case strings.ContainsRune("–—‒−", r):
				text = "-"
			case r == '&':
				text, of = "and", word
			}
			out = append(out, token{of, text, s[i : i+size], i, i + size, 0, 0})
			i += size
		}
	}
	return out
}

// betweenThrees are the marks that stand between thousands; the first two may be a decimal's as well, after one group.
var betweenThrees = []string{".", ",", "'", "’", "\u00a0", "\u2009", "\u202f"}

// digitsAt is how many digits stand at a byte.
func digitsAt(s string, from int) int {
	to := from
	for to < len(s) && s[to] >= '0' && s[to] <= '9' {
		to++
	}
	return to - from
}

// inThrees reads a number whose digits stand in threes: "1.250", "1,250", "1'250" and "1.250,5". Where it may be a decimal as well
// v is that, and other the thousands. n is 0 for anything else.
func inThrees(s string) (n int, v, other float64) {
	n = digitsAt(s, 0)
	if n < 1 || n > 3 || s[0] == '0' {
		return 0, 0, 0
	}
	large, by, groups, n := groupsOf(s, n)
	if groups == 0 {
		return 0, 0, 0
	}
	decimals := ""
	if n < len(s) && (s[n] == '.' || s[n] == ',') && s[n:n+1] != by {
		if d := digitsAt(s, n+1); d > 0 {
			decimals = "." + s[n+1:n+1+d]
			n += 1 + d
		}
	}
	if n < len(s) && strings.ContainsRune("/⁄"+fractions, []rune(s[n:])[0]) || len(large) > 9 {
		return 0, 0, 0
	}
	v, _ = strconv.ParseFloat(large+decimals, 64) // digits
	if groups > 1 || decimals != "" || by != "." && by != "," {
		return n, v, 0
	}
	return n, v / 1000, v
}

// groupsOf reads the groups of three digits behind the first n, all with the same mark: their digits, the mark, how many, and where
// they end.
func groupsOf(s string, n int) (large, by string, groups, end int) {
	large = s[:n]
	for _, mark := range betweenThrees {
		for strings.HasPrefix(s[n:], mark) && digitsAt(s, n+len(mark)) == 3 {
			by, groups = mark, groups+1
			large += s[n+len(mark) : n+len(mark)+3]
			n += len(mark) + 3
		}
		if groups > 0 {
			break
		}
	}
	return large, by, groups, n
}

// scanNumber reads the longest number at the front of s: digits, a decimal, a fraction, or a
// whole number with one.
func scanNumber(s string) (n int, v float64) {
	best, value := 0, 0.0
	try := func(end int) {
		if got, err := measure.ParseAmount(s[:end]); err == nil && end > best {
			best, value = end, got
		}
	}
	// A number is at most "1000 15/16" long; beyond it nothing can be one.
	seen := 0
	for i, r := range s {
		if i > 16 || !(r >= '0' && r <= '9' || strings.ContainsRune(fractions+"/⁄., ", r)) {
			break
		}
		if r >= '0' && r <= '9' || strings.ContainsRune(fractions, r) {
			seen = i + utf8.RuneLen(r)
			try(seen)
		}
	}
	if best == 0 { // digits that ParseAmount refuses, as "1,000" or "1/0"
		best = 1
		for best < len(s) && s[best] >= '0' && s[best] <= '9' {
			best++
		}
		if got, err := measure.ParseAmount(s[:best]); err == nil {
			value = got
		}
	}
	return best, value
}

var numberWords = map[string]float64{
	"one": 1, "two": 2, "three": 3, "four": 4, "five": 5, "six": 6, "seven": 7, "eight": 8, "nine": 9, "ten": 10, "eleven": 11, "twelve": 12,
	"thirteen": 13, "fourteen": 14, "fifteen": 15, "sixteen": 16, "seventeen": 17, "eighteen": 18, "nineteen": 19,
	"twenty": 20, "thirty": 30, "forty": 40, "fifty": 50, "sixty": 60, "seventy": 70, "eighty": 80, "ninety": 90, "hundred": 100, "thousand": 1000,
	"half": 0.5, "quarter": 0.25, "fourth": 0.25, "third": 1. / 3, "eighth": 0.125, "couple": 2, "dozen": 12,
}

// below is a number word that stands before a larger one, or behind it: one to nineteen, the tens, or one to nine.
func below(toks []token, i int, low, high float64) (float64, bool) {
	if i >= len(toks) || toks[i].kind != word {
		return 0, false
	}
	v := numberWords[toks[i].text]
	return v, v >= low && v <= high && v == math.Trunc(v) && toks[i].text != "couple" && toks[i].text != "dozen"
}

// underHundred reads "twelve", "fifty", "twenty five", "twenty-five".
func underHundred(toks []token, i int) (v float64, end int, ok bool) {
	if v, ok = below(toks, i, 1, 19); ok {
		return v, i + 1, true
	}
	if v, ok = below(toks, i, 20, 90); !ok {
		return 0, i, false
	}
	end = i + 1
	next := end
	if next < len(toks) && toks[next].text == "-" {
		next++
	}
	if one, ok := below(toks, next, 1, 9); ok && (next > end || next+1 < len(toks) && units[toks[next+1].text].unit != "") {
		v, end = v+one, next+1
	}
	return v, end, true
}

// cardinal reads a number of several words: "three hundred", "two hundred and fifty", "a thousand two hundred", "three fifty". What
// follows "hundred and" and is small belongs to it only before a unit: "two hundred and two eggs" are two amounts.
func cardinal(toks []token, i int) (v float64, end int, ok bool) {
	if v, ok := below(toks, i, 1, 12); ok && textAt(toks, i+1) == "dozen" {
		return v * numberWords["dozen"], i + 2, true
	}
	if v, end, ok := pointed(toks, i); ok {
		return v, end, true
	}
	if v, end, ok := spokenHundreds(toks, i); ok {
		return v, end, true
	}
	end = i
	if u, e, ok := underHundred(toks, i); ok {
		v, end = u, e
	}
	for _, large := range []string{"thousand", "hundred"} {
		if textAt(toks, end) == large {
			return withLarge(toks, v, numberWords[large], end+1)
		}
	}
	return v, end, end > i
}

// pointed reads "four point five", "point six".
func pointed(toks []token, i int) (v float64, end int, ok bool) {
	v, end, ok = underHundred(toks, i)
	if !ok {
		end = i
	}
	if textAt(toks, end) != "point" {
		return 0, i, false
	}
	end++
	tenth, any := 0.1, false
	for d, ok := below(toks, end, 1, 9); ok; d, ok = below(toks, end, 1, 9) {
		v, tenth, end, any = v+d*tenth, tenth/10, end+1, true
	}
	return v, end, any
}

// spokenHundreds reads "three fifty" as three hundred and fifty.
func spokenHundreds(toks []token, i int) (v float64, end int, ok bool) {
	ones, ok := below(toks, i, 1, 9)
	if !ok {
		return 0, i, false
	}
	tens, e, ok := underHundred(toks, i+1)
	closes := e >= len(toks) || toks[e].kind == sign
	if !ok || e == i+1 || tens < 10 || tens < 20 && !closes {
		return 0, i, false
	}
	return 100*ones + tens, e, true
}

// withLarge reads what follows so many hundreds or thousands, of which size is one.
func withLarge(toks []token, v, size float64, end int) (float64, int, bool) {
	v = cmp.Or(v, 1) * size
	next := end
	if textAt(toks, next) == "and" {
		next++
	}
	rest, e, more := underHundred(toks, next)
	if size == 1000 && (more && textAt(toks, e) == "hundred" || textAt(toks, next) == "hundred") {
		h, he, _ := cardinal(toks, next)
		return v + h, he, true
	}
	closes := e >= len(toks) || toks[e].kind == sign
	if more && (rest >= 20 || measures(toks, e) || rest >= 10 && closes) {
		v, end = v+rest, e
	}
	return v, end, true
}

// parts of a whole in words, one and several.
var (
	parts        = set("half quarter fourth third eighth")
	severalParts = map[string]float64{"quarters": 0.25, "fourths": 0.25, "thirds": 1. / 3, "eighths": 0.125}
)

// lostStroke are fractions whose stroke may have been lost on the way: "1 4 cup".
var lostStroke = map[[2]float64]bool{{1, 2}: true, {1, 3}: true, {2, 3}: true, {1, 4}: true, {3, 4}: true, {1, 8}: true}

// withoutStroke reads a fraction that lost its stroke, before a cup or a spoon: "3 4 cup", "1 1 2 cups".
func withoutStroke(toks []token, i int) (v float64, end int, ok bool) {
	whole := func(j int) bool {
		return j < len(toks) && toks[j].kind == number && toks[j].value == math.Trunc(toks[j].value) && toks[j].value < 10 && len(toks[j].text) == 1
	}
	spoonAt := func(j int) bool {
		return j < len(toks) && spoons[units[toks[j].text].unit] > 0 && units[toks[j].text].word == ""
	}
	switch {
	case whole(i) && whole(i+1) && spoonAt(i+2) && lostStroke[[2]float64{toks[i].value, toks[i+1].value}]:
		return toks[i].value / toks[i+1].value, i + 2, true
	case whole(i) && whole(i+1) && whole(i+2) && spoonAt(i+3) && lostStroke[[2]float64{toks[i+1].value, toks[i+2].value}]:
		return toks[i].value + toks[i+1].value/toks[i+2].value, i + 3, true
	}
	return 0, i, false
}

// unit is what a unit's word stands for: a unit of the documents, and how many of it.
type unit struct {
	unit measure.Unit
	per  float64
	word string // when it is a container or a rule of thumb
}

// Rules for what is no unit of the documents (common practice, no source; a stick of butter
// and the pint in cups by definition).
const (
	stickG, knobG = 113, 10
	dashTsp       = 0.125
	dessertTsp    = 2
	pintCups      = 2
	quartCups     = 4
	decilitreML   = 100
	centilitreML  = 10
)

var units = map[string]unit{
	"g": {measure.Gram, 1, ""}, "gr": {measure.Gram, 1, ""}, "gm": {measure.Gram, 1, ""}, "gms": {measure.Gram, 1, ""}, "gram": {measure.Gram, 1, ""}, "grams": {measure.Gram, 1, ""}, "gramme": {measure.Gram, 1, ""}, "grammes": {measure.Gram, 1, ""},
	"kg": {"kg", 1, ""}, "kilo": {"kg", 1, ""}, "kilos": {"kg", 1, ""}, "kilogram": {"kg", 1, ""}, "kilograms": {"kg", 1, ""},
	"ml": {measure.Ml, 1, ""}, "mil": {measure.Ml, 1, ""}, "mils": {measure.Ml, 1, ""}, "mls": {measure.Ml, 1, ""}, "cc": {measure.Ml, 1, ""}, "millilitre": {measure.Ml, 1, ""}, "millilitres": {measure.Ml, 1, ""}, "milliliter": {measure.Ml, 1, ""}, "milliliters": {measure.Ml, 1, ""},
	"cl": {measure.Ml, centilitreML, ""}, "centilitre": {measure.Ml, centilitreML, ""}, "centilitres": {measure.Ml, centilitreML, ""}, "centiliter": {measure.Ml, centilitreML, ""}, "centiliters": {measure.Ml, centilitreML, ""}, "dl": {measure.Ml, decilitreML, ""}, "decilitre": {measure.Ml, decilitreML, ""}, "decilitres": {measure.Ml, decilitreML, ""}, "deciliter": {measure.Ml, decilitreML, ""}, "deciliters": {measure.Ml, decilitreML, ""},
	"l": {"l", 1, ""}, "litre": {"l", 1, ""}, "litres": {"l", 1, ""}, "liter": {"l", 1, ""}, "liters": {"l", 1, ""},
	"tsp": {"tsp", 1, ""}, "tsps": {"tsp", 1, ""}, "teaspoon": {"tsp", 1, ""}, "teaspoons": {"tsp", 1, ""}, "teaspoonful": {"tsp", 1, ""},
	"tbsp": {"tbsp", 1, ""}, "tbsps": {"tbsp", 1, ""}, "tbs": {"tbsp", 1, ""}, "tblsp": {"tbsp", 1, ""}, "tablespoon": {"tbsp", 1, ""}, "tablespoons": {"tbsp", 1, ""}, "tablespoonful": {"tbsp", 1, ""},
	"dsp": {"tsp", dessertTsp, ""}, "dessertspoon": {"tsp", dessertTsp, ""}, "dessertspoons": {"tsp", dessertTsp, ""},
	"cup": {"cup", 1, ""}, "cups": {"cup", 1, ""}, "c": {"cup", 1, ""}, "cupful": {"cup", 1, ""}, "cupfuls": {"cup", 1, ""},
	"oz": {"oz", 1, ""}, "ounce": {"oz", 1, ""}, "ounces": {"oz", 1, ""}, "lb": {"lb", 1, ""}, "lbs": {"lb", 1, ""}, "pound": {"lb", 1, ""}, "pounds": {"lb", 1, ""},
	"pint": {"cup", pintCups, ""}, "pints": {"cup", pintCups, ""}, "pt": {"cup", pintCups, ""}, "quart": {"cup", quartCups, ""}, "quarts": {"cup", quartCups, ""},
	"pinch": {"pinch", 1, ""}, "pinches": {"pinch", 1, ""}, "dash": {"tsp", dashTsp, "dash"}, "dashes": {"tsp", dashTsp, "dash"},
	"stick": {measure.Gram, stickG, "stick"}, "sticks": {measure.Gram, stickG, "stick"}, "knob": {measure.Gram, knobG, "knob"}, "knobs": {measure.Gram, knobG, "knob"},
	"mug": {measure.Mug, 1, ""}, "mugs": {measure.Mug, 1, ""}, "mugful": {measure.Mug, 1, ""}, "mugfuls": {measure.Mug, 1, ""}, "glass": {measure.Glass, 1, ""}, "glasses": {measure.Glass, 1, ""}, "glassful": {measure.Glass, 1, ""},
	"handful": {measure.Handful, 1, ""}, "handfuls": {measure.Handful, 1, ""},
	"can": {"can", 1, "can"}, "cans": {"can", 1, "can"}, "tin": {"can", 1, "can"}, "tins": {"can", 1, "can"},
}

// containers hold what a size beside them says.
var containers = set("packet packets pack packs sachet sachets tub tubs pot pots jar jars carton cartons box boxes bag bags bottle bottles container envelope")

// vague words name no amount: the cook is asked.
var vague = set("spoons splash splashes drizzle glug glugs sprinkle sprinkling bit some few little dollop squeeze shake shakes sprig sprigs bunch drop drops lots plenty shot whisper hint touch smidge smidgen spoonful spoonfuls spoon scoop scoops teacup teacups")

// nothingSaid are those that say nothing of an amount at all.
var nothingSaid = set("bit some few little")

// notFood are units of time, heat and length: such a number is no amount of food.
var notFood = set("minute minutes min mins hour hours hr hrs second seconds sec degree degrees °c °f c° celsius fahrenheit centimetre centimetres centimeter centimeters cm mm inch inches in day days time times overnight percent part parts")

// sizes beside a unit or an egg do not change the amount that is read.
var sizeWords = set("heaped heaping level levelled leveled rounded scant generous big small large medium good about approx approximately around roughly full extra xl flat wee tiny nice whole")

// quantity is an amount with its unit, and where it stands among the tokens.
type quantity struct {
	start, end int // tokens
	amount     float64
	low, high  float64 // of a range; both 0 without one
	unit       measure.Unit
	word       string  // container, or rule of thumb
	size       float64 // of a container
	sizeUnit   measure.Unit
	vague      string
	counted    float64 // of what is vague: two spoons
	counting   bool    // one, two, three
	same       bool    // as much as of the food before
	stroke     float64 // that "3 1/4" may have been: three quarters
	inside     bool    // in brackets
	apiece     bool    // "60 g each"
	guessed    bool    // a fraction that lost its stroke
	other      float64 // grams or ml that it may be as well: the thousands; 0 where there is no doubt
}

// quantities finds the amounts of a line, in their order.
func quantities(toks []token) []quantity {
	var out []quantity
	depth := 0
	for i := 0; i < len(toks); {
		switch toks[i].text {
		case "(", "[":
			depth++
		case ")", "]":
			depth = max(0, depth-1)
		}
		q, ok := quantityAt(toks, i)
		if !ok {
			i++
			continue
		}
		q.inside = depth > 0
		i = q.end
		if n := len(out); n > 0 && out[n-1].end == q.start && out[n-1].inside == q.inside && out[n-1].takes(q) {
			continue
		}
		out = append(out, q)
	}
	return out
}

// within are the units that stand behind a larger one, and how many of them make one of it (by definition).
var within = map[measure.Unit]unit{measure.Lb: {measure.Oz, 16, ""}, measure.Kilogram: {measure.Gram, 1000, ""}, "l": {measure.Ml, 1000, ""}}

// takes adds what stands behind an amount in the smaller unit to it: "1 lb 2 oz".
func (q *quantity) takes(next quantity) bool {
	of, ok := within[q.unit]
	if !ok || next.unit != of.unit || q.word != "" || next.word != "" || q.high > 0 || next.high > 0 || !(next.amount > 0 && next.amount < of.per) {
		return false
	}
	q.amount, q.unit, q.end = q.amount*of.per+next.amount, of.unit, next.end
	return true
}

// partOf reads some parts of a whole in words: "three quarters", "three-quarter", "two thirds".
func partOf(toks []token, i int) (v float64, end int, ok bool) {
	n, ok := below(toks, i, 1, 9)
	if !ok {
		return 0, i, false
	}
	end = i + 1
	if end < len(toks) && toks[end].text == "-" {
		end++
	}
	if end >= len(toks) {
		return 0, i, false
	}
	if share := severalParts[toks[end].text]; share > 0 {
		return n * share, end + 1, true
	}
	if share := numberWords[toks[end].text]; n > 1 && parts[toks[end].text] && share > 0 && toks[end].text != "half" {
		return n * share, end + 1, true
	}
	return 0, i, false
}

// numberAt reads a number, in digits or words, with a half after it.
func numberAt(toks []token, i int) (v float64, end int, ok bool) {
	if i >= len(toks) {
		return 0, i, false
	}
	switch t := toks[i]; {
	case t.kind == number:
		v, end = inDigits(toks, i)
	case t.kind == word && numberWords[t.text] > 0:
		v, end = inWords(toks, i)
	case t.kind == word && t.text == "point":
		if v, end, ok = pointed(toks, i); !ok {
			return 0, i, false
		}
	case t.kind == word && (t.text == "a" || t.text == "an" || t.text == "another"):
		v, end = 1, i+1
		if n, e, ok := numberAt(toks, end); ok && toks[end].kind == word && toks[end].text != "a" { // "a half", "a dozen", "a quarter"
			v, end = n, e
		}
	default:
		return 0, i, false
	}
	if share, e, ok := andPart(toks, end); ok {
		v, end = v+share, e
	}
	return v, end, v > 0 && !math.IsInf(v, 0)
}

// measures tells whether a unit stands at a token.
func measures(toks []token, i int) bool { return i < len(toks) && units[toks[i].text].unit != "" }

// textAt is the text of a token, empty behind the last.
func textAt(toks []token, i int) string {
	if i < len(toks) {
		return toks[i].text
	}
	return ""
}

// inDigits reads a number in digits, and "1/3 of a" before a unit.
func inDigits(toks []token, i int) (v float64, end int) {
	v, end = toks[i].value, i+1
	if v < 1 && textAt(toks, end) == "of" && textAt(toks, end+1) == "a" && measures(toks, end+2) {
		end += 2
	}
	return v, end
}

// inWords reads a number that begins with a word of one: "twelve", "three hundred", "three quarters of a", "half a".
func inWords(toks []token, i int) (v float64, end int) {
	t := toks[i]
	if n, e, ok := partOf(toks, i); ok && (toks[i+1].text == "-" || severalParts[toks[e-1].text] == 0) {
		return n, e
	}
	if t.text == "one" && parts[textAt(toks, i+1)] && textAt(toks, i+1) != "half" { // "one third of a cup"
		return numberWords[textAt(toks, i+1)], behindPart(toks, toks[i+1], i+2)
	}
	if n, e, ok := cardinal(toks, i); ok && e > i+1 {
		return n, e
	}
	v, end = numberWords[t.text], i+1
	if parts[t.text] || t.text == "couple" || t.text == "dozen" {
		return v, behindPart(toks, t, end)
	}
	if share := severalParts[textAt(toks, end)]; share > 0 {
		v *= share
		end++
		if textAt(toks, end) == "of" && textAt(toks, end+1) == "a" {
			end += 2
		} else if textAt(toks, end) == "of" && measures(toks, end+1) { // "two thirds of cup"
			end++
		}
	}
	return v, end
}

// behindPart is where "a third of a cup", "half a", "a couple of" end before what they are of.
func behindPart(toks []token, t token, end int) int {
	of := textAt(toks, end) == "of"
	switch {
	case parts[t.text] && of && textAt(toks, end+1) == "a" && measures(toks, end+2):
		return end + 2
	case parts[t.text] && of && measures(toks, end+1): // "a third of cup"
		end++
	}
	for textAt(toks, end) == "a" || textAt(toks, end) == "an" || textAt(toks, end) == "of" && t.text == "couple" {
		end++
	}
	return end
}

// andPart reads a part of a whole behind one: "and a half", "and 1/2", "and two thirds".
func andPart(toks []token, i int) (share float64, end int, ok bool) {
	if i+1 >= len(toks) || toks[i].text != "and" {
		return 0, i, false
	}
	j := i + 1
	if n, e, ok := partOf(toks, j); ok {
		return n, e, true
	}
	if toks[j].text == "a" || toks[j].text == "one" {
		j++
	}
	switch {
	case j >= len(toks):
	case toks[j].kind == number && toks[j].value < 1 && strings.ContainsAny(toks[j].text, "/"+fractions):
		return toks[j].value, j + 1, true
	case parts[toks[j].text] && !(j+2 < len(toks) && toks[j+1].text == "of" && (toks[j+2].text == "a" || units[toks[j+2].text].unit != "")): // "an egg and a third of a cup" is two things
		return numberWords[toks[j].text], j + 1, true
	}
	return 0, i, false
}

// noEgg are the words before "an egg" that count none.
var noEgg = set("like as of for than without not no is was from with")

// quantityAt reads an amount that begins at a token.
func quantityAt(toks []token, i int) (quantity, bool) {
	t := toks[i]
	if v, end, ok := withoutStroke(toks, i); ok {
		q, ok := finish(toks, quantity{start: i, end: end, amount: v, unit: measure.Each})
		q.guessed = true
		return q, ok
	}
	if i == 0 && alone(toks) {
		return finish(toks, quantity{amount: 1, unit: measure.Each})
	}
	if withoutNumber(toks, i) {
		return finish(toks, quantity{start: i, end: i, amount: 1, unit: measure.Each})
	}
	if isArticle(t) && i+1 < len(toks) && toks[i+1].kind == number { // "a 15 oz can"
		q, ok := quantityAt(toks, i+1)
		q.start = i
		return q, ok
	}
	v, end, ok := numberAt(toks, i)
	if !ok {
		return quantity{}, false
	}
	q := quantity{start: i, end: end, amount: v, unit: measure.Each, stroke: stuck(t)}
	if end == i+1 {
		q.other = t.other
	}
	lows, highs := q.ranges(toks)
	if q, ok = finish(toks, q); !inThousands(q.unit) || q.word != "" {
		q.other = 0 // of a kilogram, a litre or a cup it is a decimal
	} else if q.other > 0 && q.high > 0 {
		q.low, q.high = lows, highs
	}
	if (isArticle(t) || t.text == "another") && q.end == i+1 && q.vague == "" && q.unit == measure.Each {
		return q, countsOne(toks, i)
	}
	return q, ok
}

func isArticle(t token) bool { return t.kind == word && (t.text == "a" || t.text == "an") }

// withoutNumber tells whether a pinch, a knob or a splash begins at a token, with no number before it.
func withoutNumber(toks []token, i int) bool {
	t := toks[i]
	if t.kind != word || !vague[t.text] && units[t.text].unit != "pinch" && t.text != "knob" && t.text != "dash" {
		return false
	}
	return i == 0 || !isName(toks[i-1]) || (textAt(toks, i+1) == "of" || textAt(toks, i+1) == "salt") && (units[t.text].unit == "pinch" || littles[t.text])
}

// littles are vague words that need no number, and no stop before them.
var littles = set("squeeze splash drizzle shake dash knob dollop glug")

// ranges takes the upper end of a range into an amount: "2-3", "one to two". It returns both ends as thousands.
func (q *quantity) ranges(toks []token) (lows, highs float64) {
	v, end := q.amount, q.end
	if t := textAt(toks, end); t != "-" && t != "to" && t != "or" {
		return 0, 0
	}
	w, e, ok := numberAt(toks, end+1)
	if !ok || toks[end+1].text == "a" {
		return 0, 0
	}
	other := 0.0
	if e == end+2 {
		other = toks[end+1].other
	}
	if w <= v && other > v { // "900-1.100"
		w, other = other, 0
	}
	if w <= v {
		return 0, 0
	}
	q.low, q.high, q.amount, q.end = v, w, (v+w)/2, e
	if q.other > 0 {
		lows, highs = q.other, cmp.Or(other, w)
		q.other = (lows + highs) / 2
	}
	return lows, highs
}

// countsOne tells whether an article is an amount: at the front, before an egg, and in a row before what is counted.
func countsOne(toks []token, i int) bool {
	if i == 0 {
		return true
	}
	next := stem(textAt(toks, i+1))
	if next == "egg" && !noEgg[toks[i-1].text] || i > 1 && oneOf[next] && toks[i-1].text == "of" && peels[toks[i-2].text] {
		return true
	}
	return (toks[i-1].text == "," || toks[i-1].text == "and") && oneOf[next]
}

// stuckBefore is a whole number with a fraction of one behind it: written down by ear, "three quarters" becomes "3 1/4".
var stuckBefore = regexp.MustCompile(`^([2-7]) ?1/([348])$`)

// stuck is the share that a number with a fraction behind it may have been, 0 where it cannot.
func stuck(t token) float64 {
	m := stuckBefore.FindStringSubmatch(t.raw)
	if m == nil {
		return 0
	}
	n, _ := strconv.ParseFloat(m[1], 64) // a digit
	of, _ := strconv.ParseFloat(m[2], 64)
	if n >= of {
		return 0
	}
	return n / of
}

// inThousands tells whether so many of a unit are often more than a thousand, and hardly ever told by their thousandths.
func inThousands(u measure.Unit) bool { return u == measure.Gram || u == measure.Ml }

// most is the amount, as thousands where it may be.
func (q quantity) most() float64 { return cmp.Or(q.other, q.amount) }

// sizeAt reads the size of a pack, in the unit of the documents: no pack is told by its thousandths.
func sizeAt(toks []token, i int) (v float64, u measure.Unit, end int, ok bool) {
	if i >= len(toks) || toks[i].kind != number {
		return 0, "", i, false
	}
	v, end, ok = numberAt(toks, i)
	if !ok || end >= len(toks) {
		return 0, "", i, false
	}
	known, ok := units[toks[end].text]
	if !ok || known.word != "" {
		return 0, "", i, false
	}
	if end == i+1 && toks[i].other > 0 && inThousands(known.unit) {
		v = toks[i].other
	}
	return v * known.per, known.unit, end + 1, true
}

// oneOf are foods of which a cook says "an egg" in the middle of a sentence.
var oneOf = set("egg yolk banana apple pear carrot courgette zucchini beetroot orange lemon lime potato onion")

// alone tells whether a line begins with its unit, or what describes it: "level teaspoon of".
func alone(toks []token) bool {
	i := 0
	for i < len(toks) && toks[i].kind == word && sizeWords[toks[i].text] {
		i++
	}
	if i < len(toks) && len(toks[i].text) > 4 && strings.HasSuffix(toks[i].text, "s") && units[toks[i].text].word == "" && toks[i].text != "glass" {
		return false // nobody says how many
	}
	return i < len(toks) && toks[i].kind == word && (len(toks[i].text) > 3 || i > 0) && (units[toks[i].text].unit != "" && units[toks[i].text].word != "can" || i > 0 && vague[toks[i].text])
}

func isName(t token) bool {
	return t.kind == word && t.text != "a" && t.text != "and" && t.text != "plus" && t.text != "with"
}

// finishing is what follows a number while it is read.
type finishing struct {
	toks []token
	q    quantity
	i    int // the token that is read next
}

func (f *finishing) at(i int) string {
	if i >= 0 && i < len(f.toks) {
		return f.toks[i].text
	}
	return ""
}

// endings are what can follow a number, in the order in which they are tried; each tells whether it is there.
var endings = []func(*finishing) bool{(*finishing).capital, (*finishing).fluidOunce, (*finishing).vagueWord, (*finishing).holder, (*finishing).unitWord, (*finishing).sizeOnly}

// finish reads what follows a number: a unit, a container with its size, or a vague word.
func finish(toks []token, q quantity) (quantity, bool) {
	f := &finishing{toks, q, q.end}
	if f.countsNoFood() {
		return quantity{}, false
	}
	f.size()
	for sizeWords[f.at(f.i)] && (units[f.at(f.i+1)].unit != "" || containers[f.at(f.i+1)] || sizeWords[f.at(f.i+1)] || vague[f.at(f.i+1)]) {
		f.i++
	}
	for _, ending := range endings {
		if ending(f) {
			return f.q, true
		}
	}
	for sizeWords[f.at(f.i)] {
		f.i++
	}
	f.q.end = f.i
	return f.q, true
}

// countsNoFood tells whether a number is of time, heat, length, a share, or of "3-ingredient pancakes".
func (f *finishing) countsNoFood() bool {
	next := f.at(f.i)
	if next == "%" || notFood[next] || next == "°" {
		return true
	}
	if next != "-" || f.i+1 >= len(f.toks) || f.i == 0 {
		return false
	}
	one, dash, word2 := f.toks[f.i-1], f.toks[f.i], f.toks[f.i+1]
	glued := one.kind == number && one.to == dash.at && dash.to == word2.at
	return glued && word2.kind == word && units[word2.text].unit == "" && !containers[word2.text]
}

// size reads the size of what is counted: "one 14 ounce can", "2 x 400 g", "1 (14 oz) can".
func (f *finishing) size() {
	holds := func(i int) bool { return units[f.at(i)].word == "can" || containers[f.at(i)] }
	if v, u, e, ok := sizeAt(f.toks, f.i); ok && holds(e) {
		f.q.size, f.q.sizeUnit, f.i = v, u, e
	}
	if f.at(f.i) == "x" || f.at(f.i) == "×" {
		if v, u, e, ok := sizeAt(f.toks, f.i+1); ok {
			f.q.size, f.q.sizeUnit, f.i = v, u, e
		} else if _, _, counted := numberAt(f.toks, f.i+1); !counted && f.i+1 < len(f.toks) {
			f.i++
		}
	}
	if f.at(f.i) == "(" {
		if v, u, e, ok := sizeAt(f.toks, f.i+1); ok && f.at(e) == ")" && holds(e+1) {
			f.q.size, f.q.sizeUnit, f.i = v, u, e+1
		}
	}
}

// take ends a quantity at a token.
func (f *finishing) take(end int) bool {
	f.q.end = end
	f.q = f.q.closed(f.toks)
	return true
}

// capital is "t" and "T": the one place where capitals tell.
func (f *finishing) capital() bool {
	if f.at(f.i) != "t" {
		return false
	}
	f.q.unit = "tsp"
	if f.toks[f.i].raw == "T" {
		f.q.unit = "tbsp"
	}
	return f.take(f.i + 1)
}

func (f *finishing) fluidOunce() bool {
	if t := f.at(f.i); t != "fl" && t != "fluid" {
		return false
	}
	i := f.i
	if f.at(i+1) == "." {
		i++
	}
	if units[f.at(i+1)].unit != "oz" {
		return false
	}
	f.q.unit = "fl_oz"
	return f.take(i + 2)
}

func (f *finishing) vagueWord() bool {
	t := f.at(f.i)
	if !vague[t] {
		return false
	}
	f.q.vague, f.q.counted, f.q.amount = t, f.q.amount, 0
	return f.take(f.i + 1)
}

// holder is a container or a can; its size may stand behind it: "a tin (400 ml) of".
func (f *finishing) holder() bool {
	u, isUnit := units[f.at(f.i)]
	if !containers[f.at(f.i)] && u.word != "can" {
		return false
	}
	f.q.word, f.q.end = "container", f.i+1
	if isUnit {
		f.q.word = "can"
	}
	if f.q.size == 0 && f.at(f.q.end) == "(" {
		if v, u, e, ok := sizeAt(f.toks, f.q.end+1); ok {
			f.q.size, f.q.sizeUnit, f.q.end = v, u, e
			if f.at(f.q.end) == ")" {
				f.q.end++
			}
		}
	}
	return f.take(f.q.end)
}

// unitWord is a unit, with a part of it behind: "a cup and a half"; or the size of a can: "a 15 oz can".
func (f *finishing) unitWord() bool {
	u, ok := units[f.at(f.i)]
	if !ok {
		return false
	}
	f.q.end = f.i + 1
	if f.ofCan(u) {
		return true
	}
	f.q.amount *= u.per
	f.q.low *= u.per
	f.q.high *= u.per
	f.q.unit, f.q.word = u.unit, u.word
	// not "a pinch of salt and half a cup", "a gram and a quarter cup"
	if share, e, ok := andPart(f.toks, f.q.end); ok && f.q.unit != measure.Each && units[f.at(e)].unit == "" && !(f.at(e) == "a" && units[f.at(e+1)].unit != "") {
		f.q.amount += share * u.per
		f.q.end = e
	}
	return f.take(f.q.end)
}

// ofCan takes a unit for the size of the can behind it.
func (f *finishing) ofCan(u unit) bool {
	j := f.q.end
	if u.word != "" || units[f.at(j)].word != "can" && !(f.at(j) == "-" && units[f.at(j+1)].word == "can") {
		return false
	}
	if f.at(j) == "-" {
		j++
	}
	if f.q.other > 0 && inThousands(u.unit) {
		f.q.amount = f.q.other
	}
	f.q.size, f.q.sizeUnit, f.q.word, f.q.amount = f.q.amount*u.per, u.unit, "can", 1
	return f.take(j + 1)
}

// sizeOnly is what is counted by its size alone: "2 x 200 g ricotta".
func (f *finishing) sizeOnly() bool {
	if f.q.size <= 0 {
		return false
	}
	f.q.word, f.q.end = "container", f.i
	return true
}

// closed takes a full stop after a unit into the quantity: "3 Tbs. sugar".
func (q quantity) closed(toks []token) quantity {
	if q.end < len(toks) && toks[q.end].text == "." {
		q.end++
	}
	q.apiece = q.end < len(toks) && toks[q.end].text == "each"
	return q
}
