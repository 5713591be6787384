package worksheet

import (
	"context"
	"fmt"
	"math"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// Bounds of a scaled batch: beyond them it is a slip of the keys (modelling choice).
const minFactor, maxFactor = 0.05, 100

// FactorFor is the factor that brings a variation to a number of portions, to so much flour
// in the base, or to so much of one line. Exactly one of them must be above zero.
func FactorFor(ctx context.Context, v batter.Variation, k batter.Kitchen, count int, flourG float64, lineID string, amountG float64) (float64, error) {
	var p batter.Problems
	w, err := ledger(ctx, v, k)
	if err != nil {
		return 0, err
	}
	var now, want float64
	var at, what string
	switch {
	case count > 0 && v.Portion.OneCake:
		p.Add(batter.Field{Part: batter.OfWish, Name: "count"}, "one_cake", "One cake stays one: make the bowl larger by its flour or by a line, or choose a ladle again.")
		return 0, p
	case count > 0:
		exact, err := factorForCount(ctx, v, k, count)
		if err != nil {
			return 0, err
		}
		now, want, at, what = 1, exact, "count", "portions"
	case flourG > 0:
		now, want, at, what = w.flour, flourG, "flour_g", "flour in the base"
	case lineID != "":
		at, what, want = "line", "that line", amountG
		for i, l := range v.Base.Lines {
			if l.ID == lineID {
				now = w.base[i]
			}
		}
		for i, a := range v.Additions {
			if a.ID == lineID {
				now = w.adds[i]
			}
		}
	default:
		p.Add(batter.Field{Part: batter.OfWish}, "missing", "Say what to scale to: a number of portions, grams of flour, or how much of one line is left.")
		return 0, p
	}
	if now <= 0 {
		p.Add(batter.Field{Part: batter.OfWish, Name: at}, "nothing", "There is no %s to scale by.", what)
		return 0, p
	}
	f := want / now
	if !(f >= minFactor && f <= maxFactor) {
		p.Add(batter.Field{Part: batter.OfWish, Name: at}, "out_of_range", "That is %.3g times the batch; between %g and %d times can be scaled at once.", f, minFactor, int(maxFactor))
		return 0, p
	}
	return f, nil
}

const (
	stepUp    = 1.01 // how much larger a batch is tried when whole eggs left it short
	leastStep = 1.0005
	countTry  = 40
)

// factorForCount is the factor that really gives so many portions once eggs are whole, or halves.
func factorForCount(ctx context.Context, v batter.Variation, k batter.Kitchen, count int) (float64, error) {
	w, err := ledger(ctx, v, k)
	if err != nil {
		return 0, err
	}
	now := w.pot().Portions(v.Portion.VolumeML)
	if now <= 0 {
		return 1, nil
	}
	factor := float64(count) / now
	for range countTry {
		big, _ := v.Scaled(factor)
		if w, err = ledger(ctx, big, k); err != nil {
			return 0, err
		}
		pot := w.pot()
		if pot.Count(v.Portion.VolumeML) >= count {
			break
		}
		least := math.Max(leastStep, 1+k.ScaleStep/2/math.Max(pot.MassG, 1)) // a small bowl moves by whole steps of the scale
		factor *= math.Max(least, math.Min(stepUp, float64(count)/math.Max(pot.Portions(v.Portion.VolumeML), 1e-3)))
	}
	return factor, nil
}

// Trusted is the batch of a variation whose eggs were made whole, with its other lines put right
// so that the batter is the one of its reference: the grams of each base line. Without eggs that
// moved they are what they are.
func Trusted(ctx context.Context, v batter.Variation, k batter.Kitchen) ([]float64, error) {
	v.Additions = nil
	if v.Reference.AsWritten {
		v.Additions = v.Reference.Additions
	}
	v.Offset = batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: v.Offset.SugarBy, Hold: batter.DefaultHold}
	w, err := ledger(ctx, v, k)
	if err != nil {
		return nil, err
	}
	return w.solution.Grams, nil
}

// PlainBase is the base behind a recipe that was written with its additions in it: the lines
// that are weighed without any, so that the batter is as thick, sweet and light as the recipe's.
// The grams are on the kitchen's scale, in the order of the base's lines.
func PlainBase(ctx context.Context, v batter.Variation, k batter.Kitchen) ([]float64, error) {
	v.Additions, v.Portion.Count = nil, 0
	v.Offset.Targets, v.Offset.Hold = nil, batter.DefaultHold
	if v.Offset.Strategy == batter.Leave || v.Offset.Strategy == batter.DryAddition { // these move no line
		v.Offset.Strategy = batter.HoldBackLiquid
	}
	w, err := ledger(ctx, v, k)
	if err != nil {
		return nil, err
	}
	return w.weigh, nil
}

// Portions is how many portions the batch gives as it is written, with the part of one that is left.
func Portions(ctx context.Context, v batter.Variation, k batter.Kitchen) (float64, error) {
	w, err := ledger(ctx, v, k)
	if err != nil {
		return 0, err
	}
	return w.pot().Portions(w.v.Portion.VolumeML), nil
}

// NaturalCount is how many portions the batch gives as it is written.
func NaturalCount(ctx context.Context, v batter.Variation, k batter.Kitchen) (int, error) {
	w, err := ledger(ctx, v, k)
	if err != nil {
		return 0, err
	}
	return w.pot().Count(w.v.Portion.VolumeML), nil
}

// SwapsFor lists what can stand in for a line of the base, with its grams in the base.
func SwapsFor(v batter.Variation, k batter.Kitchen, lineID string, table *food.Table) ([]batter.Swap, error) {
	for _, l := range v.Base.Lines {
		if l.ID == lineID {
			for _, own := range v.Reference.Lines { // what stood there before something stood in for it
				if own.ID == lineID {
					l = own
				}
			}
			g, err := k.Grams(l)
			if err != nil {
				return nil, err
			}
			if found := batter.Swaps(l.Ingredient, g, table); len(found) > 0 {
				return found, nil
			}
			return costed(v, k, lineID, batter.DrySwaps(l.Ingredient, g, table))
		}
	}
	var p batter.Problems
	p.Add(batter.Field{Part: batter.OfWish, Name: "line"}, "unknown_line", "There is no line “%s” in the base.", lineID)
	return nil, fmt.Errorf("looking for swaps: %w", p)
}

// worthSaying is the change of structure that a swap's cost is told from [share of the base].
const worthSaying = 0.03

// costed adds to each swap what it does to the structure of the plain base.
func costed(v batter.Variation, k batter.Kitchen, lineID string, swaps []batter.Swap) ([]batter.Swap, error) {
	v.Additions = nil
	structure := func(lines []batter.Line) float64 {
		t := v
		t.Base.Lines = lines
		w := inGrams(t, k)
		return balance.Structure(w.baseParts(w.base))
	}
	was := structure(v.ReferenceLines())
	if was <= 0 {
		return swaps, nil
	}
	for i, s := range swaps {
		var lines []batter.Line
		for _, l := range v.Base.Lines {
			if l.ID != lineID {
				lines = append(lines, l)
				continue
			}
			for _, p := range s.Parts {
				lines = append(lines, batter.Line{Ingredient: p.Ingredient, Amount: p.Grams, Unit: measure.Gram, Role: p.Ingredient.Role})
			}
		}
		if said := structureChange(was, structure(lines), v.Form); said != "" {
			swaps[i].Says += "; " + said
		}
	}
	return swaps, nil
}
