package griddle

import (
	"cmp"
	"math"
	"slices"
	"time"
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
func (b Bowl) KeepsUp() int {
	return max(1, min(len(b.Places), b.Count, int(b.cooksS()/pieceS)))
}

// cooksS is how long a portion lies on the plate, or in the iron [s].
func (b Bowl) cooksS() float64 { return b.FirstS + b.SecondS }

// Takes is how long so many portions take in rounds of so many places.
func (b Bowl) Takes(portions, places int) time.Duration {
	rounds := math.Ceil(float64(portions) / float64(max(1, places)))
	return time.Duration(rounds * (b.cooksS() + pieceS) * float64(time.Second))
}

// MixingTakes is how long the hands need to weigh so many lines and to mix them.
func MixingTakes(lines int) time.Duration {
	return time.Duration((WeighS*float64(lines) + MixS) * float64(time.Second))
}

// ByAllergens puts bowls in the order of what they may carry over, the fewest first, so that nothing is carried that need
// not be; what is equal stays as it is.
func ByAllergens[T any](bowls []T, of func(T) Bowl) {
	slices.SortStableFunc(bowls, func(a, b T) int { return cmp.Compare(len(of(a).Suspects), len(of(b).Suspects)) })
}
