package griddle

import (
	"cmp"
	"math"
	"slices"
	"time"

	"upbeatladle/core/worksheet"
)

// Seconds of a cook's hands (modelling choices: a steady hand that does one thing at a time, not a race).
const (
	WeighS = 25.0  // for each line that is weighed
	MixS   = 90.0  // for a bowl
	PourS  = 8.0   // for a portion,
	FlipS  = 5.0   //
	LiftS  = 7.0   //
	WalkS  = 20.0  // and to walk and look, all told
	WipeS  = 120.0 // for a plate between two bowls
	OvenS  = 5.0   // for a tray
	SendS  = 7.0   // for a plate that goes out

	pieceS = PourS + FlipS + LiftS + WalkS // a portion's
)

// KeepsUp is how many places of a plate a cook keeps up with, of those that fit: while one portion cooks, the hands are
// needed for each of the others.
func (b Bowl) KeepsUp() int { return keepsUp(len(b.Places), b.Count, b.cooksS()) }

func keepsUp(fit, count int, cooksS float64) int { return max(1, min(fit, count, int(cooksS/pieceS))) }

// cooksS is how long a portion lies on the plate, or in the iron [s].
func (b Bowl) cooksS() float64 { return b.FirstS + b.SecondS }

// Takes is how long so many portions take in rounds of so many places.
func (b Bowl) Takes(portions, places int) time.Duration { return takes(portions, places, b.cooksS()) }

func takes(portions, places int, cooksS float64) time.Duration {
	rounds := math.Ceil(float64(portions) / float64(max(1, places)))
	return time.Duration(rounds * (cooksS + pieceS) * float64(time.Second))
}

// RecipeTakes is how long a worksheet keeps a cook: the hands and the rests until the batter is ready, and the plate for all portions
// in rounds of what one cook keeps up with; 0 where nobody knows the plate, or was asked for the heat.
func RecipeTakes(w worksheet.Worksheet) (prep, cook time.Duration) {
	prep = time.Duration((WeighS*float64(len(w.Lines)) + MixS) * float64(time.Second))
	for _, s := range w.Mixing {
		prep += time.Duration(s.Minutes * float64(time.Minute))
	}
	if w.Cook == nil || w.Plate == nil || w.Plate.Fit <= 0 || w.Cook.FirstSideS <= 0 || w.Portion.Count <= 0 {
		return prep, 0
	}
	lies := w.Cook.FirstSideS
	if second := w.Cook.SecondSideS; second != nil {
		lies += *second
	}
	return prep, takes(w.Portion.Count, keepsUp(w.Plate.Fit, w.Portion.Count, lies), lies)
}

// ByAllergens puts bowls in the order of what they may carry over, the fewest first, so that nothing is carried that need
// not be; what is equal stays as it is.
func ByAllergens[T any](bowls []T, of func(T) Bowl) {
	slices.SortStableFunc(bowls, func(a, b T) int { return cmp.Compare(len(of(a).Suspects), len(of(b).Suspects)) })
}
