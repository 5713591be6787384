package worksheet

import (
	"fmt"
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// Bounds of a scaled batch: beyond them it is a slip of the keys (modelling choice).
const minFactor, maxFactor = 0.05, 100

// FactorFor is the factor that brings a variation to a number of portions, to so much flour
// in the base, or to so much of one line. Exactly one of them must be above zero.
func FactorFor(v batter.Variation, k batter.Kitchen, count int, flourG float64, lineID string, amountG float64) (float64, error) {
	var p batter.Problems
	w, err := ledger(v, k)
	if err != nil {
		return 0, err
	}
	var now, want float64
	var at, what string
	switch {
	case count > 0:
		exact, err := factorForCount(v, k, count)
		if err != nil {
			return 0, err
		}
		now, want, at, what = 1, exact, "/count", "portions"
	case flourG > 0:
		now, want, at, what = w.flour, flourG, "/flour_g", "flour in the base"
	case lineID != "":
		at, what, want = "/line", "that line", amountG
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
		p.Add("", "missing", "Say what to scale to: a number of portions, grams of flour, or how much of one line is left.")
		return 0, p
	}
	if now <= 0 {
		p.Add(at, "nothing", "There is no %s to scale by.", what)
		return 0, p
	}
	f := want / now
	if !(f >= minFactor && f <= maxFactor) {
		p.Add(at, "out_of_range", "That is %.3g times the batch; between %g and %d times can be scaled at once.", f, minFactor, int(maxFactor))
		return 0, p
	}
	return f, nil
}

const (
	stepUp   = 1.01 // how much larger a batch is tried when whole eggs left it short
	countTry = 40
)

// factorForCount is the factor that really gives so many portions once eggs are whole.
func factorForCount(v batter.Variation, k batter.Kitchen, count int) (float64, error) {
	w, err := ledger(v, k)
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
		if w, err = ledger(big, k); err != nil {
			return 0, err
		}
		n := w.pot().Count(v.Portion.VolumeML)
		if n >= count {
			break
		}
		factor *= math.Max(1.0005, math.Min(stepUp, float64(count)/float64(max(n, 1))))
	}
	return factor, nil
}

// SwapsFor lists what can stand in for a line of the base, with its grams in the base.
func SwapsFor(v batter.Variation, k batter.Kitchen, lineID string, table *food.Table) ([]batter.Swap, error) {
	for _, l := range v.Base.Lines {
		if l.ID == lineID {
			g, err := k.Grams(l)
			if err != nil {
				return nil, err
			}
			return batter.Swaps(l.Ingredient, g, table), nil
		}
	}
	var p batter.Problems
	p.Add("/line", "unknown_line", "There is no line “%s” in the base.", lineID)
	return nil, fmt.Errorf("looking for swaps: %w", p)
}
