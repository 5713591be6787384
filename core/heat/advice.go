package heat

import (
	"context"
	"math"

	"upbeatladle/core/batter"
)

// The plate temperatures that are tried [°C] (the model's range).
const (
	coolestPlate = 135.0
	hottestPlate = 205.0
	plateStep    = 5.0
)

// Shares of the wished dose that the first and the second side may end with inside the window.
const (
	firstLeast, firstMost   = 0.81, 1.5
	secondLeast, secondMost = 0.45, 2.0
)

// timeStep is what a cook's clock is read to [s].
const timeStep = 5.0

// The grid and the step [s] with which the window is looked for.
const (
	scanCells = 16
	scanStepS = 2.0
)

// Plate is what a plate can do [°C]; zero where nobody said.
type Plate struct{ LowC, HighC float64 }

func (p Plate) clamp(c float64) float64 {
	if p.LowC > 0 {
		c = math.Max(c, p.LowC)
	}
	if p.HighC > 0 {
		c = math.Min(c, p.HighC)
	}
	return c
}

// tries lists the temperatures that a plate can be set to among those that are tried; the nearest
// one when there are none.
func (p Plate) tries() []float64 {
	var out []float64
	for c := coolestPlate; c <= hottestPlate; c += plateStep {
		if p.clamp(c) == c {
			out = append(out, c)
		}
	}
	if len(out) == 0 {
		return []float64{p.clamp((coolestPlate + hottestPlate) / 2)}
	}
	return out
}

// Trouble is why no heat does all that is wanted.
type Trouble string

// The troubles.
const (
	NoTrouble   Trouble = ""
	TooPale     Trouble = "too_pale"     // at any heat the plate has, once it is cooked
	BrownsFirst Trouble = "browns_first" // before it is cooked
	NeverSets   Trouble = "never_sets"   // within a quarter of an hour a side
	StaysFrozen Trouble = "stays_frozen" // pieces are still frozen in the middle
)

// Advice is how to cook a portion.
type Advice struct {
	PlateC    float64
	Low, High float64 // °C: the window; NaN when no heat does all that is wanted
	FirstS    float64 // to 5 s
	SecondS   float64 // to 5 s; 0 in an iron
	SafeS     float64 // the second side (in an iron the time closed) is never shorter, so that eggs set in a bad contact too; NaN when not even so
	// MiddleDecides: the second side waits for the middle by the cautious figures, longer than its colour asks.
	MiddleDecides bool
	Result        Cooked // with these times
	Trouble       Trouble
	ColourFirst   batter.Colour
	ColourAfter   batter.Colour // of the second side
	Reaches       batter.Colour // of the first side, without the slice it lies on: whether the wished colour is there
}

// A slice between plate and batter does not set: its portion takes so many times the first side of one without it, on
// both sides, at the same heat; cooler by so much where the batter's own face would come out darker than deep
// (fitted: about 3 + 3 min on a medium plate, 3 to 6 mm soften and 9 mm stay hard).
const (
	sliceTimes = 1.5
	sliceLessK = 10.0 // K
)

// Firmness of a slice, 1 raw to 0 soft, up to which it is soft and from which it is hard (modelling choices).
const (
	SoftTo   = 0.30
	HardFrom = 0.45
)

// bare is a portion without the slices it lies on, and whether there are any.
func (p Portion) bare() (Portion, bool) {
	n := 0
	for n < len(p.Layers) && p.Layers[n].Fruit {
		n++
	}
	p.Layers = p.Layers[n:]
	return p, n > 0
}

// Ask is a portion to be cooked on a plate. GivenC is where the plate stands, 0 when it is to be
// advised.
type Ask struct {
	Portion  Portion
	Plate    Plate
	GivenC   float64
	HotStart bool
	LightS   float64 // s until the iron's own light comes; 0 without one
	Own      Times   // the cook's, used as they are; zero to be advised
}

// A hot start sets the round edge: the plate stands so much hotter [K] until so many seconds after
// pouring (modelling choices), as far as it goes.
const (
	hotStartK = 20.0
	HotStartS = 45.0
)

// HotC is where the plate stands for a hot start.
func (p Plate) HotC(c float64) float64 { return math.Max(c, p.clamp(c+hotStartK)) }

// on is the portion at a setting, with the heat in steps around it.
func (a *Ask) on(c float64) Portion {
	p := a.Portion
	p.PlateC = c
	p.Changes = nil
	if p.FlipC == c {
		p.FlipC = 0
	}
	if a.HotStart {
		p.PlateC, p.Changes = a.Plate.HotC(c), []Change{{HotStartS, c}}
	}
	return p
}

// roughly is the portion on a coarser grid: good enough to look for a window of 5 K.
func (a *Ask) roughly(c float64) Portion {
	p := a.on(c)
	p.Cells, p.longStep, p.Record = scanCells, scanStepS, false
	return p
}

// Advise finds the plate's temperature and the times a side. The error is the context's.
func Advise(ctx context.Context, a Ask) (Advice, error) {
	a = a.rounded()
	window, err := a.remembered(ctx, 0, func() (Advice, error) { return a.window(ctx) })
	if err != nil {
		return Advice{}, err
	}
	at := window.PlateC
	if a.GivenC > 0 {
		at = a.GivenC
	}
	out, err := a.at(ctx, at)
	out.Low, out.High = window.Low, window.High
	return out, err
}

// AdviseAt is the advice for a plate that stands at a temperature; its window is not looked for.
func AdviseAt(ctx context.Context, a Ask, c float64) (Advice, error) {
	a = a.rounded()
	return a.at(ctx, c)
}

// window looks for the temperatures at which all comes out that is wanted, and advises the middle of them, or the
// nearest to it when there are none.
func (a *Ask) window(ctx context.Context) (Advice, error) {
	a.Portion.air = airAt(a.Portion.AltitudeM)
	if bare, on := a.Portion.bare(); on {
		without := *a
		without.Portion = bare
		w, err := without.window(ctx)
		if err != nil {
			return w, err
		}
		own, err := a.timed(ctx, w.PlateC)
		if err == nil && own.Result.DoseSecond >= burntFrom {
			for _, c := range []*float64{&w.PlateC, &w.Low, &w.High} {
				*c = a.Plate.clamp(*c - sliceLessK)
			}
		}
		return w, err
	}
	target := a.Portion.target()
	low, high := math.NaN(), math.NaN()
	best, bestScore := a.Plate.clamp((coolestPlate+hottestPlate)/2), math.Inf(1)
	tries := a.Plate.tries()
	hottest := tries[len(tries)-1]
	if r := Cook(a.roughly(hottest), Times{}); math.IsNaN(r.CueS) { // what is too thick for the hottest plate is so for all
		tries, best = nil, hottest
	}
	for _, c := range tries {
		if err := ctx.Err(); err != nil {
			return Advice{}, err
		}
		r := Cook(a.roughly(c), Times{})
		if fits(r, target, a.Portion.Iron) {
			if math.IsNaN(low) {
				low = c
			}
			high = c
		} else if !math.IsNaN(low) {
			break // the window is one piece
		}
		if s := misses(r, target, a.Portion.Iron); s < bestScore {
			best, bestScore = c, s
		}
	}
	at := best
	if !math.IsNaN(low) {
		at = a.Plate.clamp(math.Round((low + high) / 2))
	}
	return Advice{PlateC: at, Low: low, High: high}, nil
}

// at is the advice for one temperature, with its curve when that is asked for.
func (a *Ask) at(ctx context.Context, c float64) (Advice, error) {
	out, err := a.remembered(ctx, c, func() (Advice, error) { return a.timed(ctx, c) })
	if err == nil && a.Portion.Record {
		out.Result.Curve = Cook(a.on(c), Times{out.FirstS, out.SecondS}).Curve
	}
	return out, err
}

// fits tells whether a cook did all that is wanted.
func fits(r Cooked, target float64, iron bool) bool {
	if !r.Sets {
		return false
	}
	if iron {
		return r.DoseFirst >= ironDose*target && r.DoseFirst <= firstMost*target && r.FirstS >= ironLeastS && r.FirstS <= ironMostS
	}
	return r.DoseFirst >= firstLeast*target && r.DoseFirst <= firstMost*target && r.DoseSecond >= secondLeast*target && r.DoseSecond <= secondMost*target
}

// misses is how far a cook is from what is wanted, for the best of what cannot be had.
func misses(r Cooked, target float64, iron bool) float64 {
	off := func(dose, want float64) float64 { return math.Abs(math.Log(math.Max(dose, 1e-3) / want)) }
	s := off(r.DoseFirst, target)
	if !iron {
		s += 0.5 * off(r.DoseSecond, (secondDose+0.2)*target)
	}
	if !r.Sets {
		s += 100
	}
	return s
}

func roundUp(s float64) float64 { return timeStep * math.Ceil(s/timeStep-1e-9) }

// timed is the advice for one temperature: the cook's own times, the second side never shorter
// than what the cautious figures ask for, all on a cook's clock; cooked once more with those.
func (a *Ask) timed(ctx context.Context, c float64) (Advice, error) {
	if err := ctx.Err(); err != nil {
		return Advice{}, err
	}
	if a.Portion.air == nil {
		a.Portion.air = airAt(a.Portion.AltitudeM)
	}
	p := a.on(c)
	p.Record = false
	bare, onSlice := p.bare()
	r := Cook(bare, Times{})
	out := Advice{PlateC: c, Low: math.NaN(), High: math.NaN(), FirstS: roundUp(r.FirstS)}
	if onSlice {
		out.FirstS = roundUp(sliceTimes * r.FirstS)
		r.SecondS = out.FirstS
	}
	careful := p
	careful.Cautious, careful.untilSet = true, true
	if p.Iron {
		safe := Cook(careful, Times{})
		out.SafeS = safe.SetAfterS
		if a.LightS > 0 {
			out.FirstS = a.LightS // its own light comes first
		}
		out.FirstS = roundUp(math.Max(out.FirstS, orZero(out.SafeS)))
		if a.Own.FirstS > 0 {
			out.FirstS = a.Own.FirstS
		}
	} else {
		if a.Own.FirstS > 0 {
			out.FirstS = a.Own.FirstS
		}
		safe := Cook(careful, Times{FirstS: out.FirstS})
		out.SafeS = safe.SetAfterS
		out.SecondS = roundUp(math.Max(r.SecondS, orZero(out.SafeS)))
		out.MiddleDecides = r.setLast || out.SecondS > roundUp(r.SecondS)
		if a.Own.SecondS > 0 {
			out.SecondS, out.MiddleDecides = a.Own.SecondS, false
		}
	}
	out.Result = Cook(p, Times{out.FirstS, out.SecondS})
	out.Result.CueS, out.Result.slab = r.CueS, nil
	out.ColourFirst, out.ColourAfter = ColourOf(out.Result.DoseFirst), ColourOf(out.Result.DoseSecond)
	out.Reaches = out.ColourFirst
	if onSlice {
		out.Reaches = ColourOf(r.DoseFirst)
	}
	out.Trouble = out.trouble(p)
	return out, nil
}

func (a *Advice) trouble(p Portion) Trouble {
	r, target := a.Result, p.target()
	switch {
	case !r.Sets || math.IsNaN(a.SafeS):
		return NeverSets
	case !r.Thawed:
		return StaysFrozen
	case r.DoseFirst > 2*firstMost*target || r.DoseSecond > 2*secondMost*target || math.Max(r.DoseFirst, r.DoseSecond) >= burntFrom:
		return BrownsFirst
	case r.DoseFirst < firstLeast*target/2 && !p.Layers[0].Fruit:
		return TooPale
	}
	return NoTrouble
}

func orZero(v float64) float64 {
	if math.IsNaN(v) {
		return 0
	}
	return v
}
