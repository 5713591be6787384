package batter

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"upbeatladle/core/food"
)

// School is how a base is mixed. Its words are the cook's own; what is not said follows from
// the form and the flour (docs/schools.md).
type School struct {
	Lumps   string  // "lumpy" or "smooth"
	RestMin float64 // min; NaN when not said
	Dairy   string
	Eggs    string // "whipped" when the whites are whipped and folded in last
	PanFat  string
	Crisp   string
	Bowls   Bowls // empty when not said
}

// Bowls is in how many bowls a batter is mixed, and what comes first.
type Bowls string

// The cook's bowls.
const (
	TwoBowls    Bowls = "two" // dry and wet apart
	OneWetFirst Bowls = "one_wet_first"
	OneDryFirst Bowls = "one_dry_first"
)

// AllBowls lists them.
var AllBowls = []Bowls{TwoBowls, OneWetFirst, OneDryFirst}

// Bowls is how a base is mixed: as it says, else in two bowls; without flour in one, the wet first
// (common practice, no source).
func (b Base) Bowls(f Form) Bowls {
	switch {
	case b.School.Bowls != "":
		return b.School.Bowls
	case f == Flourless:
		return OneWetFirst
	}
	return TwoBowls
}

// Rest in minutes when nothing is said (common practice, no source).
const (
	defaultRestMin = 15
	crepeRestMin   = 60
)

// Rest is how long the batter of a base stands before it is cooked, in minutes: what the
// kitchen says, else the base, else the custom of the form.
func (b Base) Rest(f Form, k Kitchen) float64 {
	switch {
	case !math.IsNaN(k.RestMin):
		return k.RestMin
	case !math.IsNaN(b.School.RestMin):
		return b.School.RestMin
	case f == Crepe:
		return crepeRestMin
	case f == Flourless: // nothing in it that would drink
		return 0
	}
	return defaultRestMin
}

// Whips tells whether the whites are whipped and folded in last.
func (b Base) Whips() bool {
	return b.Style == Whipped || strings.Contains(strings.ToLower(b.School.Eggs), "whip")
}

// Lumps is what words say of the lumps in a batter.
type Lumps int

// What can be said.
const (
	LumpsUnsaid Lumps = iota
	LumpsStay
	LumpsOut
)

var (
	lumpsFine = regexp.MustCompile(`lumpy|(?:some|few|small|little|leave|with)\s+(?:small\s+|the\s+|little\s+)?lumps|lumps\s+(?:are|is)\s+(?:fine|ok|good|welcome)|want\s+(?:the\s+)?lumps|(?:do not|don.?t|not|never)\s+(?:\w+\s+){0,3}smooth`)
	lumpsGone = regexp.MustCompile(`lump[- ]?free|lumps?\s+(?:\w+\s+)?(?:gone|left|remain|disappear|out|away)|every\s+(?:last\s+)?lump|(?:no|without|get rid of|(?:whisk|beat|work|press)\s+out|break up)\s+(?:more\s+|visible\s+|any\s+|all\s+|the\s+)*lumps?`)
)

// ReadLumps understands what a recipe or a cook says of lumps: "no lumps" wants it smooth,
// "a few lumps are fine" does not, and where lumps are not named "do not overmix" leaves them.
func ReadLumps(text string) Lumps {
	text = strings.ToLower(text)
	has := func(s string) bool { return strings.Contains(text, s) }
	switch {
	case lumpsFine.MatchString(text):
		return LumpsStay
	case lumpsGone.MatchString(text):
		return LumpsOut
	case has("overmix"), has("over-mix"), has("just combined"):
		return LumpsStay
	case has("smooth"):
		return LumpsOut
	case has("lump"):
		return LumpsStay
	}
	return LumpsUnsaid
}

// Smooth tells whether the batter is whisked smooth: thin batters and those without gluten.
// A wheat batter for pancakes and waffles stays lumpy, since stirring makes it tough.
func (b Base) Smooth(f Form) bool {
	switch ReadLumps(b.School.Lumps) {
	case LumpsOut:
		return true
	case LumpsStay:
		return false
	}
	return f == Crepe || !b.Toughens()
}

// Toughens tells whether stirring makes the batter tough: there is a flour with gluten in it.
func (b Base) Toughens() bool {
	return slices.ContainsFunc(b.Lines, func(l Line) bool { return l.Role == food.RoleFlour && glutinous(l.Ingredient) })
}

// glutinous flours toughen when they are stirred.
func glutinous(in *food.Ingredient) bool {
	for _, a := range in.Allergens {
		if a == "wheat" || a == "rye" || a == "barley" {
			return true
		}
	}
	return false
}
