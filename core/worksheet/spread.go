package worksheet

import (
	"fmt"
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/portion"
	"upbeatladle/core/words"
)

// byHandMM is how much wider than by itself a portion has to lie for a cook to be sent after it with a spoon [mm]
// (modelling choice).
const byHandMM = 5.0

// spreadS is within how many seconds a pancake is spread: then its rim has set (common practice, no source).
const spreadS = 5

// lie is how a portion lies on its plate, and who makes it so.
type lie struct {
	portion.Layer
	by     batter.SpreadBy
	itself float64 // mm across when it is left alone
	how    string  // what a hand does to it: spread, pat, tilt
}

// What a hand does.
const (
	spoons = "spoon"
	pats   = "pat"
	tilts  = "tilt"
)

// layer is how a portion of ml of a bowl lies on its plate; false when it takes the shape of an iron, or when it is not
// judged on how it spreads and nobody said how wide it is made.
func (w *solved) layer(b bowl, ml float64) (lie, bool) {
	l := b.thick.L()
	wish := w.v.Portion.Spread
	if ml != w.v.Portion.VolumeML {
		wish = batter.Spread{}
	}
	known := !math.IsNaN(l) && w.flour > 0 && w.v.Form != batter.Flourless
	if across, ok := w.oneCake(ml); ok && !known { // what is not judged on how it spreads fills the pan all the same
		return lie{portion.Layer{DiameterMM: across, ThicknessMM: ml * 1000 / (math.Pi * across * across / 4)}, batter.ByItself, across, spoons}, true
	}
	if w.v.Form == batter.Waffle || !known && wish.By != batter.ByHand {
		return lie{}, false
	}
	out := lie{by: batter.ByItself, how: spoons}
	if known {
		out = w.unasked(b, ml)
	}
	low, high := batter.SpreadRange(w.v.Form, ml)
	to := math.Max(low, math.Min(high, wish.ToMM)) // another ladle since it was wished takes it as far as it goes
	switch {
	case wish.By == batter.ByHand && to > out.itself:
		out.by, out.DiameterMM = batter.ByHand, to
	case wish.By != "": // no hand makes it narrower than it runs
		out.by, out.DiameterMM = batter.ByItself, out.itself
	}
	if g, there := w.griddle(); there { // it stays on its plate: thicker instead of wider
		most := math.Min(g.WidthMM, g.DepthMM)
		out.DiameterMM, out.itself = math.Min(out.DiameterMM, most), math.Min(out.itself, most)
	}
	if across, ok := w.oneCake(ml); ok {
		out.DiameterMM, out.itself, out.by = across, across, batter.ByItself
	}
	out.ThicknessMM = ml * 1000 / (math.Pi * out.DiameterMM * out.DiameterMM / 4)
	return out, out.DiameterMM > 0
}

// oneCake is how wide the whole bowl lies as one [mm]: from rim to rim of a round pan, however thin or thick that makes it.
func (w *solved) oneCake(ml float64) (float64, bool) {
	g, there := w.griddle()
	return g.WidthMM, there && g.Round && w.v.Portion.OneCake && ml == w.v.Portion.VolumeML
}

// unasked is how a portion lies when nobody said how wide: a grated cake is patted, a crêpe tilted, a thick pancake
// spread with the spoon to where a hot plate would let it run, all others run by themselves.
func (w *solved) unasked(b bowl, ml float64) lie {
	stiff, rho := w.stiffer(b), w.potOf(b).Density()
	settled := w.k.Calibration.YieldStress(b.thick.L())
	cold, _ := flow.Spread(ml, settled*stiff, rho)
	hot, _ := portion.LayerOf(w.v.Form, ml, w.stands(b, ml)*stiff, rho)
	switch {
	case w.v.Form == batter.Crepe:
		return lie{hot, batter.ByHand, math.Min(cold, hot.DiameterMM), tilts}
	case b.grated():
		flat := portion.Patted(ml)
		return lie{flat, batter.ByHand, math.Min(cold, flat.DiameterMM), pats}
	case w.handed(b) && hot.DiameterMM >= cold+byHandMM:
		return lie{hot, batter.ByHand, cold, spoons}
	}
	return lie{hot, batter.ByItself, hot.DiameterMM, spoons}
}

// handed tells whether a bowl is one that a cook spreads with the spoon: a thick pancake batter, not one whose air would
// be lost, nor one that was wished thicker or fluffier.
func (w *solved) handed(b bowl) bool {
	return w.v.Form == batter.Pancake && w.mounds(b) && !w.v.Base.Whips() && w.v.Base.Style != batter.Yeast &&
		b.pulled >= 1 && w.v.Offset.Targets.Of(batter.HoldLift, 1) <= 1
}

// mounds tells whether a batter stands where it is poured.
func (w *solved) mounds(b bowl) bool {
	class := flow.ClassOf(b.thick.L())
	return class == flow.Thick || class == flow.Stiff
}

// stands is the yield stress in Pa with which ml of a bowl lie on the hot plate, before pieces and foam stiffen it. What
// was pulled thicker or thinner is that much so on the plate too.
func (w *solved) stands(b bowl, ml float64) float64 {
	l := b.thick.L()
	before := w.k.Calibration.YieldStress(l / b.pulled)
	return portion.HotStress(w.v.Form, ml, before) * w.k.Calibration.YieldStress(l) / before
}

// spread tells it, with what a hand can make of it.
func (w *described) spread(l lie) *Spread {
	wish := w.v.Portion.Spread
	low, high := batter.SpreadRange(w.v.Form, w.v.Portion.VolumeML)
	if g, there := w.griddle(); there {
		high = math.Min(high, math.Min(g.WidthMM, g.DepthMM))
	}
	out := &Spread{By: l.by, ToMM: l.DiameterMM, ItselfMM: l.itself, Chosen: wish.By != "", LowMM: math.Floor(math.Max(low, l.itself)), HighMM: math.Floor(high)}
	out.HighMM = math.Max(out.LowMM, out.HighMM)
	to := fmt.Sprintf("%.0f mm", l.DiameterMM)
	short := ""
	if wish.By == batter.ByHand && wish.ToMM > l.DiameterMM+1 {
		short = fmt.Sprintf(" %.0f ml go no wider.", w.v.Portion.VolumeML)
	}
	switch {
	case wish.By != "" && l.by == batter.ByItself:
		out.Text = fmt.Sprintf("Left alone, it runs to %s: no hand makes it narrower.", to)
	case l.by == batter.ByItself:
	case l.how == tilts:
		out.Text = fmt.Sprintf("Tilt the pan at once, until it is %s across.", to)
	case l.how == pats:
		out.Text = fmt.Sprintf("Pat it flat, to %s across.", to)
	default:
		out.Text = fmt.Sprintf("Spread it with the back of the spoon to %s, within %d s%s.", to, spreadS, words.Either(w.topped(), ", before pieces go on", ""))
	}
	out.Text += short
	return out
}

// topped tells whether anything is laid on a portion while it cooks.
func (w *described) topped() bool {
	for _, a := range w.v.Additions {
		if a.Stage == batter.StageOnPortion {
			return true
		}
	}
	return false
}
