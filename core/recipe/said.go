package recipe

import (
	"cmp"
	"regexp"
	"slices"
	"strings"

	"upbeatladle/core/measure"
)

// Said is what a recipe claims of itself. It stands beside what is worked out and is never worked
// with; zero is nothing said.
type Said struct {
	Count   float64 // pieces
	Portion float64 // batter of one piece, in Unit
	Unit    measure.Unit
	Minutes float64 // a side
	Text    string  // as it stood
}

// numeral is a number in digits or in a word.
var numeral = func() string {
	words := []string{"a dozen", "half a dozen", "half a", `\d+(?:\.\d+)?`}
	for w, v := range numberWords {
		if v >= 0.5 && v <= 90 && w != "couple" && w != "third" {
			words = append(words, w)
		}
	}
	slices.SortFunc(words, func(a, b string) int { return cmp.Or(len(b)-len(a), strings.Compare(a, b)) })
	return strings.Join(words, "|")
}()

// upTo is the second number of a range.
var upTo = `(?:\s*(?:-|–|to|or)\s*(` + numeral + `))?`

var (
	pieces  = `(?:pancakes?|waffles?|crepes?|galettes?|drop scones?|scotch pancakes?|pikelets?|pieces?|hotcakes?|flapjacks?)`
	makes   = regexp.MustCompile(`\b(?:makes|make|yields?|yield:|gives|enough for|(?:you|we|i|ill|youll|well) get)\W+(?:(?:about|around|roughly|approximately|approx\.?|me|us|you)\s+)*(` + numeral + `)` + upTo + `(?:\s+(\w+))?`)
	countOf = regexp.MustCompile(`^(` + numeral + `)` + upTo + `\s+(?:\w+\s+){0,2}` + pieces + `$`)
	comeOut = regexp.MustCompile(`\b(` + numeral + `)` + upTo + `(?:\s+(?:of them|` + pieces + `))?\s+(?:will\s+)?comes? out\b`)
	ofThem  = regexp.MustCompile(`^(?:about\s+|around\s+)?(` + numeral + `)` + upTo + `\s+of them\b`)
	sides   = []*regexp.Regexp{
		regexp.MustCompile(`\b(` + numeral + `)` + upTo + `\s*(?:minutes?|mins?)(?:\s+or\s+so)?,?\s+(?:a|per|each|on each|on either|for each|on the first|on one|on the one)\s+(?:side|face)`),
		regexp.MustCompile(`\b(?:turn|flip)\s+(?:it|them)?\s*(?:over\s+)?(?:after|at)\s+(?:about\s+|around\s+)?(` + numeral + `)` + upTo + `(?:\s+and a half)?\s*(?:minutes?|mins?)`),
		regexp.MustCompile(`less than (a)()\s*(?:minute|min)\s+(?:a|per|each|on each)\s+(?:side|face)`),
	}
	apiece = regexp.MustCompile(`\b(?:per|each|for every|for each|a|one|every)\s+` + pieces + `\b|\bof (?:the )?batter\b|\bbatter at a time\b|\bbatter (?:each|per)\b|\bportions of \d|\b(?:cups?|ml|ladle|tbsp|tablespoons?) (?:each|apiece)\b`)
	disher = regexp.MustCompile(`\b(?:scoop|disher)\s+(?:number\s+|no\.?\s*)?(` + numeral + `)\b|\b(?:number|no\.?)\s+(` + numeral + `)\s+(?:scoop|disher)\b`)
)

// dishersInQuart is how many scoops of a number make a US quart, by which they are numbered (common practice in the trade).
const dishersInQuart = 1

// people eat portions; how many pieces that is the recipe does not say.
var people = set("people persons servings serving portions portion adults children guests")

const longestClaim = 160 // characters

func said(r Reading) Said {
	var s Said
	tell := func(text string) {
		if r := []rune(text); len(r) > longestClaim {
			text = string(r[:longestClaim]) + "…"
		}
		if text = strings.TrimSpace(text); !strings.Contains(s.Text, text) {
			s.Text = joined(s.Text, text)
		}
	}
	for _, line := range append(append([]string{r.Title}, r.Other...), r.Steps...) {
		if s.Count > 0 && s.Minutes > 0 && s.Portion > 0 {
			break
		}
		low := strings.Trim(fold(line), " .*#_")
		excerpt := func(at []int) string { return around(line, low, at) }
		if strings.HasPrefix(low, "serves") { // how many pieces that is nobody says
			tell(line)
		}
		if s.Count == 0 {
			if n, at := countIn(low); n > 0 {
				s.Count = n
				tell(excerpt(at))
			}
		}
		if s.Minutes == 0 {
			if n, at := minutesIn(low); n > 0 {
				s.Minutes = n
				tell(excerpt(at))
			}
		}
		if s.Portion == 0 {
			if v, u, at := portionIn(low); v > 0 {
				s.Portion, s.Unit = v, u
				tell(excerpt(at))
			}
		}
	}
	return s
}

// beside is how much of a long sentence is kept around what it claims [characters] (modelling choice).
const beside = 40

// around is what of a line stands around a claim; all of a short one.
func around(line, low string, at []int) string {
	if len(line) <= longestClaim {
		return line
	}
	if len(line) != len(low) { // it has letters that fold to fewer bytes
		line = low
	}
	from, to := max(0, at[0]-beside), min(len(line), at[1]+beside)
	for from > 0 && line[from-1] != ' ' {
		from--
	}
	for to < len(line) && line[to] != ' ' {
		to++
	}
	return strings.TrimSpace(line[from:to])
}

// minutesIn are the minutes a side that a line tells, and where.
func minutesIn(low string) (float64, []int) {
	for _, re := range sides {
		if m := re.FindStringSubmatch(low); m != nil {
			if m[1] == "a" {
				m[1] = "1"
			}
			if n := middle(m); n > 0 && n < longestSide {
				return n, re.FindStringIndex(low)
			}
		}
	}
	return 0, nil
}

// longestSide is how many minutes a side takes at the most; more is of something else (modelling choice).
const longestSide = 30

// portionIn is the batter of one piece that a line tells, and where. What is measured of an ingredient is none.
func portionIn(low string) (float64, measure.Unit, []int) {
	if m := disher.FindStringSubmatch(low); m != nil {
		if n := middle([]string{"", cmp.Or(m[1], m[2]), ""}); n >= 4 {
			return 4 * dishersInQuart / n, "cup", disher.FindStringIndex(low)
		}
	}
	at := apiece.FindStringIndex(low)
	if at == nil {
		return 0, "", nil
	}
	toks := tokens(low)
	for _, q := range quantities(toks) {
		from, to := toks[q.start].at, toks[q.end-1].to
		near := from <= at[1]+beside && to >= at[0]-beside
		named := q.end < len(toks) && toks[q.end].text == "of" && q.end+1 < len(toks) && toks[q.end+1].text != "batter" && toks[q.end+1].text != "the"
		whole := strings.HasSuffix(strings.TrimRight(low[:from], " "), "makes") || strings.HasSuffix(strings.TrimRight(low[:from], " "), "gives") // all of it
		if volumes[q.unit] && q.amount > 0 && near && !named && !whole {
			return q.amount, q.unit, []int{min(from, at[0]), max(to, at[1])}
		}
	}
	return 0, "", nil
}

// countIn is how many pieces a line says that there are, and where; 0 for none.
func countIn(low string) (float64, []int) {
	if len(low) < 60 {
		if n := middle(countOf.FindStringSubmatch(low)); n > 0 {
			return n, []int{0, len(low)}
		}
	}
	if m := comeOut.FindStringSubmatch(low); m != nil {
		return middle(m), comeOut.FindStringIndex(low)
	}
	for _, m := range makes.FindAllStringSubmatchIndex(low, -1) {
		sub := submatches(low, m)
		if !people[sub[3]] && units[sub[3]].unit == "" && !notFood[sub[3]] {
			return middle(sub), m[:2]
		}
	}
	if m := ofThem.FindStringSubmatch(low); m != nil {
		return middle(m), ofThem.FindStringIndex(low)
	}
	return 0, nil
}

func submatches(s string, at []int) []string {
	out := make([]string, len(at)/2)
	for i := range out {
		if at[2*i] >= 0 {
			out[i] = s[at[2*i]:at[2*i+1]]
		}
	}
	return out
}

// volumes measure a ladle of batter.
var volumes = map[measure.Unit]bool{measure.Ml: true, "cup": true, "tbsp": true, "fl_oz": true}

// middle is the number of a match, or the middle of its range.
func middle(m []string) float64 {
	if m == nil {
		return 0
	}
	of := func(w string) float64 {
		if v, _, ok := numberAt(tokens(w), 0); ok && v <= 1e4 {
			return v
		}
		return 0
	}
	low := of(m[1])
	if high := of(m[2]); high > low {
		return (low + high) / 2
	}
	return low
}
