package batter

import (
	"math"
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
	}
	return defaultRestMin
}

// Whips tells whether the whites are whipped and folded in last.
func (b Base) Whips() bool {
	return b.Style == Whipped || strings.Contains(strings.ToLower(b.School.Eggs), "whip")
}

// Smooth tells whether the batter is whisked smooth: thin batters and those without gluten.
// A wheat batter for pancakes and waffles stays lumpy, since stirring makes it tough.
func (b Base) Smooth(f Form) bool {
	lumps := strings.ToLower(b.School.Lumps)
	switch {
	case strings.Contains(lumps, "smooth"):
		return true
	case strings.Contains(lumps, "lump"):
		return false
	case f == Crepe:
		return true
	}
	for _, l := range b.Lines {
		if l.Role == food.RoleFlour && glutinous(l.Ingredient) {
			return false
		}
	}
	return true
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
