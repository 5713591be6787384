package heat

import "math"

// Times of practice, where the model is not asked (common practice, no source).

// An iron is closed for so long [s]: by its make, its thickness and its power.
const (
	ironLeastS = 120.0
	ironMostS  = 300.0
)

// Span is a range of practice.
type Span struct{ Low, High float64 }

// Middle is its middle, to a cook's clock.
func (s Span) Middle() float64 { return timeStep * math.Round((s.Low+s.High)/2/timeStep) }

// Minutes until a plate and an iron are hot.
const (
	PlateUpMin = 8.0
	IronUpMin  = 10.0
)

// A crêpe's two heats: quick at CrepeC, slower on a medium flame [°C].
const (
	CrepeC       = 195.0
	CrepeLowC    = 185.0
	CrepeHighC   = 205.0
	crepeMediumC = 170.0
)

var (
	crepeQuick  = [2]Span{{45, 75}, {20, 40}}
	crepeMedium = [2]Span{{60, 120}, {30, 120}}
)

// CrepeTimes are the ranges of both sides of a crêpe on a plate of so many °C.
func CrepeTimes(plateC float64) (first, second Span) {
	f := math.Min(1, math.Max(0, (CrepeLowC-plateC)/(CrepeLowC-crepeMediumC)))
	mix := func(a, b Span) Span {
		r := func(x, y float64) float64 { return timeStep * math.Round((x+f*(y-x))/timeStep) }
		return Span{r(a.Low, b.Low), r(a.High, b.High)}
	}
	return mix(crepeQuick[0], crepeMedium[0]), mix(crepeQuick[1], crepeMedium[1])
}

// deepIronMM is the height of a waffle from which its iron takes the longer half of the times.
const deepIronMM = 24.0

// IronTimes are what irons of a make take [s]: shallow ones 2 to 4 min, deep ones 3 to 5.
func IronTimes(depthMM float64) Span {
	if depthMM >= deepIronMM {
		return Span{180, ironMostS}
	}
	return Span{ironLeastS, 240}
}

// Poured thickness where the spread is not judged: a flourless pancake of a small portion, kept
// small so that it can be turned [mm] (modelling choice).
const UnjudgedMM = 6.0

// ThickestMM is poured no thicker on an open plate: it stays raw inside (the model's limit; a lid
// and an oven are other work).
const ThickestMM = 16.0

// Turning: the widest pancake that one turner carries, and two, for a batter that holds together
// as usual [mm] (common practice, no source: a turner 75 mm wide carries about twice its width).
const (
	oneTurnerMM = 150.0
	twoTurnerMM = 230.0
	weakHolds   = 0.6 // of that for a batter that tears
)

// Turn is how wide a pancake can be turned [mm].
type Turn struct{ One, Two float64 }

// TurnOf is that for a batter, weak when it has little that sets.
func TurnOf(weak bool) Turn {
	if weak {
		return Turn{oneTurnerMM * weakHolds, twoTurnerMM * weakHolds}
	}
	return Turn{oneTurnerMM, twoTurnerMM}
}

// How a pancake is turned.
type How string

// The ways.
const (
	OneTurner  How = "one_turner"
	TwoTurners How = "two_turners"
	OnAPlate   How = "on_a_plate" // slid out, covered with the pan, turned over
)

// For is the way for a diameter in mm.
func (t Turn) For(diameterMM float64) How {
	switch {
	case diameterMM <= t.One:
		return OneTurner
	case diameterMM <= t.Two:
		return TwoTurners
	}
	return OnAPlate
}
