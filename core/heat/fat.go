package heat

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// Fat for each cm² of plate under a portion [g] (common practice, no source: a film on a 28 cm pan
// is about half a teaspoon wiped, a knob of butter a teaspoon).
const (
	filmG   = 0.0035
	spreadG = 0.008
	lacyG   = 0.020 // for an edge that fries crisp
	ironG   = 0.006 // both plates of an iron
	crepeG  = 0.003 // a crêpe's pan is wiped with it
)

// ButterBurnsC is the plate's temperature in °C above which butter alone darkens while a side
// cooks (its solids brown from about 150 °C on; common practice, no source).
const ButterBurnsC = 175.0

// Grease is the fat in g that a portion on so many cm² of plate takes, with loads of portions on
// the plate at once for the count of the batch.
func Grease(f batter.Fat, when batter.When, form batter.Form, areaCM2 float64, lacy bool, load, count int) float64 {
	per := spreadG
	switch {
	case f == batter.NoFat || !(areaCM2 > 0):
		return 0
	case f == batter.Film && form == batter.Crepe:
		per = crepeG / 2 // wiped out again
	case f == batter.Film:
		per = filmG
	case form == batter.Waffle:
		per = ironG
	case form == batter.Crepe && !lacy:
		per = crepeG
	case lacy:
		per = lacyG
	}
	g := per * areaCM2
	switch {
	case when == batter.FirstOnly && count > 0 && load > 0:
		return g * math.Min(1, float64(load)/float64(count)) // shared out over all of them
	case when == batter.AtFlip:
		return 2 * g
	}
	return g
}

// FatFrom are the fats of a shelf that a choice takes: the first butter, the first plain oil.
func FatFrom(f batter.Fat, shelf *food.Table) []*food.Ingredient {
	if shelf == nil {
		shelf = food.Reference()
	}
	fats := shelf.Shelf(food.GroupFat)
	first := func(is func(*food.Ingredient) bool) []*food.Ingredient {
		if i := slices.IndexFunc(fats, is); i >= 0 {
			return fats[i : i+1 : i+1]
		}
		return nil
	}
	oil := func(in *food.Ingredient) bool { return !in.Minds(food.CodeMelt) && len(in.Allergens) == 0 }
	switch f {
	case batter.Film, batter.Oil:
		return first(oil)
	case batter.Butter:
		return first(isButter)
	case batter.Both:
		return append(first(oil), first(isButter)...)
	}
	return nil
}

// isButter tells butter from ghee and oil: it is of milk, and has water in it.
func isButter(in *food.Ingredient) bool {
	return in.Group == food.GroupFat && slices.Contains(in.Allergens, "milk") && in.Water > 5
}

// FatOf names what fats are used as.
func FatOf(used []*food.Ingredient) (batter.Fat, bool) {
	var oil, butter bool
	for _, in := range used {
		switch {
		case isButter(in):
			butter = true
		case in.Group == food.GroupFat:
			oil = true
		}
	}
	switch {
	case oil && butter:
		return batter.Both, true
	case butter:
		return batter.Butter, true
	case oil:
		return batter.Oil, true
	}
	return "", false
}

var (
	saysFilm   = regexp.MustCompile(`\b(?:film|spray\w*|wip\w+|brush\w*)\b`)
	saysNone   = regexp.MustCompile(`^(?:none|no|no fat|nothing|dry|dry pan|non-?stick|without)$`)
	saysButter = regexp.MustCompile(`\bbutter\b`)
	saysOil    = regexp.MustCompile(`\boil\b`)
	notThese   = regexp.MustCompile(`\b(?:nut|peanut|almond|sesame|hazelnut|walnut|soya?|cocoa|shea|apple|ghee|clarified|vegan)\b`) // other butters and oils
)

// ReadFat understands what a base says of the fat for its pan; false when that is not plain: then
// nobody knows what is in it.
func ReadFat(text string) (batter.Fat, bool) {
	text = strings.ToLower(strings.TrimSpace(text))
	switch {
	case notThese.MatchString(text):
		return "", false
	case saysNone.MatchString(text):
		return batter.NoFat, true
	case saysButter.MatchString(text) && saysOil.MatchString(text):
		return batter.Both, true
	case saysButter.MatchString(text):
		return batter.Butter, true
	case saysOil.MatchString(text) && saysFilm.MatchString(text):
		return batter.Film, true
	case saysOil.MatchString(text):
		return batter.Oil, true
	}
	return "", false
}
