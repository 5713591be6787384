package sauce

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

func (w *pot) overrun() float64 {
	if w.Pot.Overrun > 0 {
		return w.Pot.Overrun
	}
	return usualOverrun
}

func (w *pot) cream(t food.Total) error {
	fat := 100 * t.Fat / t.Mass
	if fat < leastWhips {
		return problem("lines", "too_lean", "It has %.0f g of fat in 100 g and does not whip: take cream of 30 to 40 %%, and less of the rest.", fat)
	}
	w.Total = t
	w.step("Chill bowl, whisk and cream, below 6 °C.")
	w.step("Whisk %s to soft peaks, about twice the volume.", named(w.has(not(isSpirit))))
	if s := w.has(isSpirit); s != nil {
		w.step("Fold in %s at the end.", named(s))
	}
	w.Stops = []Stop{{By: ByEye, Text: "the whisk leaves a track that stays, and a peak bends over; grainy is one turn before butter"}}
	w.Texture = "soft peaks"
	if fat < wellWhips {
		w.Texture = "soft, it sinks within half an hour"
	}
	if sugar := 100 * t.Sugars / t.Mass; sugar > mostSweet {
		w.Texture += fmt.Sprintf("; with %.0f g of sugar in 100 g it weeps soon", sugar)
	}
	return nil
}

// hazel is the colour at which butter is stopped (modelling choice).
const hazel = "#A66A1F"

func (w *pot) butter(t food.Total) error {
	fats := w.has(func(in *food.Ingredient) bool { return in.Group == food.GroupFat })
	if t.Fat < butterIs*t.Mass || fats == nil {
		return problem("lines", "no_butter", "It has %.0f g of fat in 100 g: that is no butter. Take more butter.", 100*t.Fat/t.Mass)
	}
	rest := w.has(func(in *food.Ingredient) bool { return in.Group != food.GroupFat })
	if !w.Browned {
		w.Total = t
		w.step("Beat %s soft, not melted.", named(fats))
		if rest != nil {
			w.step("Work in %s, a little at a time. Roll it in paper and chill it.", named(rest))
		}
		w.Texture = "spreads"
		w.Stops = []Stop{{By: ByEye, Text: "even, with no wet streak"}}
		return nil
	}
	w.boiled = food.Whole(fats)
	w.WaterOff = w.boiled.Water
	w.stop = without(w.boiled, w.WaterOff)
	w.Total = without(t, w.WaterOff)
	w.step("Melt %s in a wide light pan and let it bubble: %.0f g of water go first.", named(fats), w.WaterOff)
	w.step("When it goes quiet and foams again, swirl until the solids are hazel brown, then pour it out of the pan at once, solids and all.")
	if rest != nil {
		w.step("Stir in %s once it is below 100 °C.", named(rest))
	}
	w.seen("hazel brown at the bottom, and it smells of nuts; black is burnt")
	w.colour = hazel
	w.Texture = "pours warm, sets cold"
	return nil
}

// Drawn is the share of its water that fruit gives up to so many g of sugar a g of it in so many minutes (modelling choice:
// it rises with both and ends at half).
func Drawn(sugarPerFruit, minutes float64) float64 {
	return drawnMost * (1 - math.Exp(-sugarPerFruit/drawnSugar)) * (1 - math.Exp(-minutes/drawnMin))
}

func (w *pot) macerate(t food.Total) error {
	fruit := w.has(isFruit)
	if fruit == nil {
		return problem("lines", "no_fruit", "There is no fruit that could draw juice.")
	}
	minutes := w.Minutes
	if minutes <= 0 {
		minutes = usualStands
	}
	in := food.Whole(fruit)
	rest := t
	rest.Add(in, -1)
	w.JuiceG = in.Water*Drawn(rest.Sugars/in.Mass, minutes) + rest.Mass
	w.Total = t
	if with := w.has(not(isFruit)); with != nil {
		w.step("Stir %s under %s, and let it stand for %s, turned once.", named(with), named(fruit), words.Minutes(minutes))
	} else {
		w.step("Crush %s a little, and let it stand for %s, turned once.", named(fruit), words.Minutes(minutes))
	}
	w.step("About %.0f g of juice are drawn, the sugar in it.", w.JuiceG)
	w.Stops = []Stop{{By: ByEye, Text: "the fruit lies in its own juice and no grain is left"}}
	w.Texture = "fruit in juice"
	return nil
}

// isMelting is what melts in the warm: chocolate, nut butter.
func isMelting(in *food.Ingredient) bool { return in.Fat > 20 && in.Water < 10 }

// runsFrom is the water in 100 g from which a filling runs without starch, or egg that has set (modelling choice).
const runsFrom = 60.0

// Loose tells whether it runs out of the middle of a portion.
func (r Result) Loose() bool {
	sets := func(p food.Part) bool { return isStarch(p.Ingredient) || isEgg(p.Ingredient) }
	return 100*r.Total.Water > runsFrom*r.Total.Mass && !slices.ContainsFunc(r.Parts, sets)
}

func (w *pot) stirred(t food.Total) error {
	w.Total = t
	melts := w.has(isMelting)
	switch {
	case w.row.kind == Nut && melts != nil:
		w.step("Warm %s gently over a water bath, no hotter than 45 °C.", named(melts))
		if thin := w.has(not(isMelting)); thin != nil {
			w.step("Stir in %s, all of it, hand-warm, until it shines: a little water makes it seize, enough makes it smooth.", named(thin))
		}
	case w.row.kind == Filling && w.has(isStarch) != nil:
		w.step("Stir %s smooth, and let it boil for a minute; cool it before it is filled.", named(w.Pot.Parts))
	default:
		w.step("Stir %s smooth.", named(w.Pot.Parts))
		if w.has(isEgg) != nil {
			w.step("Heat it over a water bath, stirring, until it coats the spoon: 74 °C by a probe. Then cool it at once.")
		}
	}
	switch water := 100 * t.Water / t.Mass; {
	case w.row.kind == Filling && w.Loose():
		w.Texture = "loose: it runs out early, so little of it, or thicken it"
	case w.row.kind == Filling:
		w.Texture = "stays inside"
	case water < 25:
		w.Texture = "thick, it pours warm"
	case water < 60:
		w.Texture = "pours slowly"
	default:
		w.Texture = "spoons and runs"
	}
	w.Stops = []Stop{{By: ByEye, Text: "smooth, without streaks"}}
	return nil
}
