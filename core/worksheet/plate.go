package worksheet

import (
	"context"
	"math"

	"upbeatladle/core/batter"
)

// Lies is how a portion lies on its plate or in its iron.
type Lies struct {
	WideMM  float64 // across; 0 in an iron, and where nobody can say
	ThickMM float64 // as poured
	SafeS   float64 // the second side (in an iron the time closed) is never shorter, unless the cook's own minutes are; 0 where only practice knows
}

// AtPlate is a worksheet with the heat and without its reasons, and how a portion lies on the plate. Its window lies
// around a heat that was asked for. The error is batter.Problems, or the context's.
func AtPlate(ctx context.Context, v batter.Variation, k batter.Kitchen) (Worksheet, Lies, error) {
	w, err := work(ctx, v, k, Include{HeatLine: true})
	if err != nil {
		return Worksheet{}, Lies{}, err
	}
	o := w.onPlate
	c := w.out.Cook
	w.around(c)
	safe := w.safeS
	if c != nil && c.Own != nil && c.Own.State == OwnUsed { // the cook's own outrank it, and say so
		last := c.FirstSideS
		if c.SecondSideS != nil {
			last = *c.SecondSideS
		}
		safe = math.Min(safe, last)
	}
	return w.out, Lies{WideMM: o.wide, ThickMM: o.mm, SafeS: safe}, nil
}

// around moves the window to a heat that was asked for outside it: a plate that stands where the cook wants it is right.
func (w *described) around(c *Cook) {
	if c == nil || c.WindowC == nil || c.GriddleC >= c.WindowC[0] && c.GriddleC <= c.WindowC[1] {
		return
	}
	half := (c.WindowC[1] - c.WindowC[0]) / 2
	c.WindowC = []float64{c.GriddleC - half, c.GriddleC + half}
	w.sayWindow(c)
}
