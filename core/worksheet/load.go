package worksheet

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
)

const (
	maxBite     = 0.99 // share of bites that can be asked for
	maxFraction = 0.5  // of a portion's volume
	loadTries   = 60   // halvings
	loadStep    = 0.1  // g, to which the answer is rounded
	maxBowls    = 5000
)

// LoadFor is the inverse of the load: grams of one addition that give a share of bites, or so
// many pieces in each portion, or a volume fraction. The batter moves with the load, so the
// answer is found between nothing and half the portion's volume by halving; each step works
// the bowl out. Exactly one of the three must be above zero.
func LoadFor(ctx context.Context, v batter.Variation, k batter.Kitchen, lineID string, bite, pieces, fraction float64) (float64, error) {
	var p batter.Problems
	at := -1
	for i, a := range v.Additions {
		if a.ID == lineID {
			at = i
		}
	}
	if at < 0 {
		p.Add(batter.Field{Part: batter.OfWish, Name: "line"}, "unknown_line", "There is no addition “%s” in this variation.", lineID)
		return 0, p
	}
	mass, ok := piecesOf(v.Additions[at].Ingredient)
	if !ok {
		p.Add(batter.Field{Part: batter.OfWish, Name: "line"}, "no_pieces", "%s has no pieces to count.", v.Additions[at].Ingredient.Label())
		return 0, p
	}
	switch {
	case bite > 0 && bite <= maxBite, pieces > 0 && pieces <= 500, fraction > 0 && fraction <= maxFraction:
	default:
		p.Add(batter.Field{Part: batter.OfWish}, "out_of_range", "Ask for a share of bites up to 99 in a hundred, for up to 500 pieces in each, or for up to half of the portion.")
		return 0, p
	}
	if err := v.Check(k).OrNil(); err != nil {
		return 0, err
	}
	v.Additions = append([]batter.Addition(nil), v.Additions...)
	a := &v.Additions[at]
	a.Unit, a.PlacedEach = "g", 0
	g, err := least(mass, func(g float64) (bool, error) {
		a.Amount = g
		s, err := inGrams(v, k).solve(ctx, true)
		if err != nil {
			return false, err
		}
		portion := describe(s, nil).out.Portion
		for _, x := range portion.Inclusions {
			switch {
			case x.LineID != lineID:
			case bite > 0:
				return x.BiteShare >= bite, nil
			case pieces > 0:
				return x.Mean >= pieces, nil
			default:
				return portion.Load != nil && portion.Load.Fraction >= fraction, nil
			}
		}
		return false, nil
	})
	return measure.Round(g, loadStep), err
}

// FittingOnTop is how much of an addition that is laid on each portion, or under it, goes evenly: as many whole pieces
// on each as there were about, one slice under each, and no more than the portion carries. The grams.
func FittingOnTop(ctx context.Context, v batter.Variation, k batter.Kitchen, lineID string) (float64, error) {
	w, err := Work(ctx, v, k, Include{})
	if err != nil {
		return 0, err
	}
	at := slices.IndexFunc(v.Additions, func(a batter.Addition) bool { return a.ID == lineID })
	each := 1.0
	for _, x := range w.Portion.Inclusions {
		if x.LineID == lineID && v.Additions[at].Stage != batter.StageUnderPortion {
			each = math.Max(1, math.Round(x.Mean))
		}
	}
	if each > 1 { // no further down than the ceiling is worth looking
		most, err := LoadFor(ctx, v, k, lineID, 0, 0, batter.LoadCeiling(v.Form))
		if err != nil {
			return 0, err
		}
		g, err := LoadFor(ctx, v, k, lineID, 0, each, 0)
		if err != nil {
			return 0, err
		}
		each = math.Max(1, math.Floor(each*math.Min(1, most/g)))
	}
	for ; ; each-- {
		g, err := LoadFor(ctx, v, k, lineID, 0, each, 0)
		if err != nil || each <= 1 {
			return g, err
		}
		v.Additions = slices.Clone(v.Additions)
		v.Additions[at].Amount, v.Additions[at].Unit, v.Additions[at].PlacedEach = g, measure.Gram, 0
		if w, err := Work(ctx, v, k, Include{}); err != nil || w.Portion.Load == nil || w.Portion.Load.Verdict != "over" {
			return g, err
		}
	}
}

// least is the fewest grams that are enough, from a first guess: doubled until they are, then
// halved down.
func least(guess float64, enough func(g float64) (bool, error)) (float64, error) {
	low, high := 0.0, guess
	for {
		ok, err := enough(high)
		if err != nil {
			return 0, err
		}
		if ok {
			break
		}
		low, high = high, 2*high
		if high > batter.MaxLineG {
			var p batter.Problems
			p.Add(batter.Field{Part: batter.OfWish}, "never", "No amount of it gets there: the batter grows as fast as the pieces.")
			return 0, p
		}
	}
	for range loadTries {
		mid := (low + high) / 2
		ok, err := enough(mid)
		if err != nil {
			return 0, err
		}
		if ok {
			high = mid
		} else {
			low = mid
		}
		if high-low < 1e-3*math.Max(1, high) {
			break
		}
	}
	return high, nil
}

// Simulate ladles simulated bowls of a variation, from the caller's seed.
func Simulate(ctx context.Context, v batter.Variation, k batter.Kitchen, bowls int, seed uint64) (portion.Simulation, error) {
	if bowls < 1 || bowls > maxBowls {
		var p batter.Problems
		p.Add(batter.Field{Part: batter.OfWish, Name: "bowls"}, "out_of_range", "Between 1 and %d bowls can be simulated at once.", maxBowls)
		return portion.Simulation{}, p
	}
	w, err := ledger(ctx, v, k)
	if err != nil {
		return portion.Simulation{}, err
	}
	pot := w.pot()
	var kinds []portion.Kind
	for i, a := range w.v.Additions {
		if mass, ok := piecesOf(a.Ingredient); ok && a.Stage.InBowl() {
			kinds = append(kinds, portion.Kind{Pieces: w.adds[i] / mass, Among: a.ShareOfBowl})
		}
	}
	ml := v.Portion.VolumeML
	n := pot.Count(ml)
	if most := math.Floor(portion.MaxThrows / portion.Throws(n, kinds)); n > portion.MaxPortions || float64(bowls) > most {
		var p batter.Problems
		if n > portion.MaxPortions || most < 1 {
			p.Add(batter.Field{Part: batter.OfWish, Name: "variation"}, "too_many", "This bowl has too many portions or pieces to ladle out one by one. Take a larger ladle or a smaller batch.")
		} else {
			p.Add(batter.Field{Part: batter.OfWish, Name: "bowls"}, "too_many", "With so many pieces at most %.0f bowls are simulated at once.", most)
		}
		return portion.Simulation{}, p
	}
	return portion.Simulate(ctx, rand.New(rand.NewPCG(seed, seed)), bowls, n, ml/pot.VolumeML, kinds)
}
