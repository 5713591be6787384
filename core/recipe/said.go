package recipe

import (
	"regexp"
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

const numeral = `\d+(?:\.\d+)?|one|two|three|four|five|six|eight|ten|twelve|a dozen|half a|half`

var (
	pieces   = `(?:pancakes?|waffles?|crepes?|galettes?|drop scones?|scotch pancakes?|pikelets?|pieces?|hotcakes?|flapjacks?)`
	makes    = regexp.MustCompile(`\b(?:makes|yields?|yield:|gives|enough for)\W+(?:(?:about|around|roughly|approximately|approx\.?)\s+)?(` + numeral + `)(?:\s*(?:-|–|to)\s*(` + numeral + `))?(?:\s+(\w+))?`)
	countOf  = regexp.MustCompile(`^(` + numeral + `)(?:\s*(?:-|–|to)\s*(` + numeral + `))?\s+(?:\w+\s+){0,2}` + pieces + `$`)
	sideTime = regexp.MustCompile(`(` + numeral + `)(?:\s*(?:-|–|to)\s*(` + numeral + `))?\s*(?:minutes?|mins?)(?:\s+or\s+so)?,?\s+(?:a|per|each|on each|on either|for each)\s+side`)
	apiece   = regexp.MustCompile(`\b(?:per|each|for every|for each|a|one|every)\s+` + pieces + `\b|\bof (?:the )?batter\b|\bbatter at a time\b|\bportions of \d`)
)

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
		if strings.HasPrefix(low, "serves") { // how many pieces that is nobody says
			tell(line)
		}
		if s.Count == 0 {
			if s.Count = countIn(low); s.Count > 0 {
				tell(line)
			}
		}
		if s.Minutes == 0 && strings.Contains(low, "side") {
			if s.Minutes = middle(sideTime.FindStringSubmatch(low)); s.Minutes > 0 {
				tell(line)
			}
		}
		if s.Portion == 0 && (strings.Contains(low, "batter") || strings.Contains(low, "per ") || strings.Contains(low, "each") || strings.Contains(low, "portions of")) && apiece.MatchString(low) {
			for _, q := range quantities(tokens(line)) {
				if volumes[q.unit] && q.amount > 0 {
					s.Portion, s.Unit = q.amount, q.unit
					tell(line)
					break
				}
			}
		}
	}
	return s
}

// countIn is how many pieces a line says that there are, or 0.
func countIn(low string) float64 {
	if len(low) < 60 {
		if n := middle(countOf.FindStringSubmatch(low)); n > 0 {
			return n
		}
	}
	for _, w := range []string{"make", "yield", "gives", "enough"} {
		if !strings.Contains(low, w) {
			continue
		}
		if m := makes.FindStringSubmatch(low); m != nil && !people[m[3]] && units[m[3]].unit == "" {
			return middle(m)
		}
	}
	return 0
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
