package recipe

import (
	"fmt"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// Suggestion is what a line may have meant.
type Suggestion struct {
	Ingredient *food.Ingredient
	Amount     float64
	Unit       measure.Unit
	Fill       measure.Fullness // that it had in mind; empty as it is
}

// What flour takes at the most, g per 100 g of flour and starch, before an amount is asked about. All
// are far above what anyone bakes (common practice, no source): powder is used at 3 to 8, soda at 0.5
// to 1.5, salt at 0.5 to 2, dried yeast at 1 to 3, spice at 0.5 to 2, sugar at 0 to 40.
var tooMuch = []struct {
	is   func(*food.Ingredient) bool
	most float64
}{
	{isPowder, 12},
	{isSoda, 2.5},
	{func(in *food.Ingredient) bool { return in.Is(food.Yeasts) }, 6},
	{func(in *food.Ingredient) bool { return in.Group == food.GroupSalt }, 5},
	{func(in *food.Ingredient) bool { return in.Group == food.GroupSpice }, 8},
	{func(in *food.Ingredient) bool { return in.Role == food.RoleSugar }, 120},
	{func(in *food.Ingredient) bool { return in.Role == food.RoleFat }, 120},
	{func(in *food.Ingredient) bool { return in.Role == food.RoleLiquid }, 600},
}

func isSoda(in *food.Ingredient) bool   { return in.Role == food.RoleSoda }
func isPowder(in *food.Ingredient) bool { return in.Role == food.RoleLeavener && in.CO2 > 0 }

// What is often written for another thing, and that other thing.
const (
	dryButtermilk = "buttermilk_powder"
	buttermilk    = "buttermilk_cultured"
	bakingPowder  = "baking_powder"
)

// lifting is the soda [g per 100 g flour] from which it is there to lift and not to brown (common
// practice). sourShare is the share of the soda that what is sour must be able to take up, or powder may
// have been meant: milk and flour take up about a quarter, buttermilk most of it (modelling choice).
const (
	lifting   = 1.0
	sourShare = 0.5
)

// smallerUnit is the unit that was meant when one is far too large.
var smallerUnit = map[measure.Unit]measure.Unit{"tbsp": "tsp", "cup": "tbsp", "kg": measure.Gram, "l": measure.Ml, "lb": "oz"}

// Slips asks about amounts that no flour takes and about one thing written for another. Lines that a
// cook has put right, with a confidence of 1, stay as they are.
func (r *Reading) Slips(k batter.Kitchen, table *food.Table) {
	b := r.weighed(k)
	for i := range r.Lines {
		l := &r.Lines[i]
		if b.grams[i] == 0 || l.Confidence == 1 || l.Asks != "" {
			continue
		}
		switch {
		case l.Ingredient.ID == dryButtermilk && !b.wet:
			l.doubt("Buttermilk powder needs water, and none is named. Was it buttermilk?", &Suggestion{Ingredient: table.ByID(buttermilk), Amount: l.Amount, Unit: l.Unit})
		case b.flour <= 0:
		case isSoda(l.Ingredient) && 100*b.grams[i]/b.flour >= lifting && !b.lifts && b.acid < sourShare*-l.Ingredient.Acid*b.grams[i]/100:
			l.doubt("Soda lifts only with something sour, and there is little that is sour here. Was it baking powder?", &Suggestion{Ingredient: table.ByID(bakingPowder), Amount: l.Amount, Unit: l.Unit})
		default:
			l.tooMuch(100*b.grams[i]/b.flour, b.flour)
		}
	}
}

// weighedBowl is what a slip is told by: the grams of each line in the bowl, its flour [g] and acid [meq], whether something else
// than soda lifts it, and whether anything is wet.
type weighedBowl struct {
	grams       []float64
	flour, acid float64
	lifts, wet  bool
}

func (r *Reading) weighed(k batter.Kitchen) weighedBowl {
	b := weighedBowl{grams: make([]float64, len(r.Lines))}
	for i, l := range r.Lines {
		if l.Ingredient == nil || l.Amount <= 0 || l.Place != "" || l.Status == NotUnderstood {
			continue
		}
		g, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML, Method: l.Method, Fill: l.Fill})
		if err != nil {
			continue
		}
		b.grams[i] = g
		if l.Ingredient.Role == food.RoleFlour {
			b.flour += g
		}
		b.acid += g / 100 * max(0, l.Ingredient.Acid)
		b.lifts = b.lifts || l.Ingredient.CO2 > 0 && !isSoda(l.Ingredient) || l.Ingredient.Is(food.Yeasts)
		b.wet = b.wet || l.Ingredient.Role == food.RoleLiquid && l.Ingredient.ID != dryButtermilk
	}
	return b
}

// oddDose is how many times the upper end of what is usual of a flavour or a piece is asked about (modelling choice).
const oddDose = 2.5

// tooMuch asks about an amount of p g per 100 g of flour when that is more than anyone bakes.
func (l *Line) tooMuch(p, flour float64) {
	if high := l.Ingredient.Dose.High; high > 0 && p > oddDose*high && (l.Ingredient.Role == food.RoleFlavour || l.Ingredient.Role == food.RolePiece) {
		l.ask(flour)
		return
	}
	for _, t := range tooMuch {
		if !t.is(l.Ingredient) || p <= t.most {
			continue
		}
		l.ask(flour)
		return
	}
}

// ask asks about an amount that is much for so much flour, with what it may have been.
func (l *Line) ask(flour float64) {
	asks := fmt.Sprintf("That is a lot of %s for %.0f g of flour.", lowerFirst(l.Ingredient.Label()), flour)
	if l.stroke > 0 {
		l.doubt(fmt.Sprintf("%s Was it %s %s? The stroke of the fraction may stand for more.", asks, short(l.stroke), l.Unit), &Suggestion{Ingredient: l.Ingredient, Amount: l.stroke, Unit: l.Unit})
	} else if unit, ok := smallerUnit[l.Unit]; ok {
		l.doubt(fmt.Sprintf("%s Was it %s %s?", asks, short(l.Amount), unit), &Suggestion{Ingredient: l.Ingredient, Amount: l.Amount, Unit: unit})
	} else {
		l.doubt(asks+" Is it right?", nil)
	}
}

func (l *Line) doubt(asks string, s *Suggestion) {
	l.Status, l.Asks, l.Suggests = Unsure, asks, s
	l.Confidence *= askedWorth
}
