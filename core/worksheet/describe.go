package worksheet

import (
	"fmt"
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/portion"
	"upbeatladle/core/words"
)

// bowl looks at the bowl as weighed and at one portion of it.
func (w *described) bowl() {
	b := w.weighed
	pot := w.pot()
	out := Batter{
		MassG: b.whole.Mass, VolumeML: pot.VolumeML, DensityGML: pot.Density(), FlourG: w.doseReference(),
		WaterG: b.whole.Water, SugarsG: b.whole.Sugars, AcidMeq: b.lift.AcidMeq, SodaToAcid: finite(b.lift.SodaToAcid()),
		GasML: finite(b.lift.Per100()), Colour: w.tint(),
	}
	var weighed float64
	for i := range w.v.Base.Lines {
		out.BaseG += w.base[i]
		weighed += w.weigh[i]
	}
	// told on whole grams, so that they add up on the page
	whole := math.Round(out.MassG)
	out.BaseG, out.AddedG = math.Round(out.BaseG), math.Round(out.MassG-weighed)
	out.OffsetG = whole - out.BaseG - out.AddedG
	for i, a := range w.v.Additions {
		if a.Stage == batter.StageFoldIn {
			out.FoldInG += w.adds[i]
		}
	}
	p := w.portion(pot)
	if l := b.thick.L(); !math.IsNaN(l) && w.flour > 0 {
		tau := w.k.Calibration.YieldStress(l)
		out.YieldStressPa = &tau
		if w.out.Gauges.Thickness.State != Unknown {
			out.Pours = w.pours(tau)
			out.PoursNowPa, out.AfterRestPa = &out.Pours[0].YieldStressPa, &out.Pours[1].YieldStressPa
			out.Class = out.Pours[len(out.Pours)-1].Class
		}
	}
	if layer, ok := w.layer(b, p.VolumeML); ok {
		cooked := layer.ThicknessMM * w.rise(b)
		p.DiameterMM, p.PouredMM, p.CookedMM = &layer.DiameterMM, &layer.ThicknessMM, &cooked
		if !p.OneCake { // a pan makes it as wide as it is
			p.Spread = w.spread(layer)
		}
	}
	if p.DiameterMM == nil {
		p.Reason = words.Either(w.v.Form == batter.Waffle, words.Either(len(w.k.Irons) > 0, "A waffle takes the shape of its iron.", "A waffle takes the shape of its iron: tell the Kitchen which one you have."), "A flourless batter is not judged on how it spreads.")
	}
	w.out.Batter, w.out.Portion = out, p
}

// stiffer is how much stiffer pieces and the foam of whipped whites make a batter: small
// bubbles keep their shape and stand in its way like pieces (modelling choice).
func (w *solved) stiffer(b bowl) float64 {
	pot := w.potOf(b)
	stiff := portion.Stiffen(w.foldedFraction(b, pot))
	if w.v.Base.Whips() && pot.VolumeML > 0 {
		stiff *= portion.Stiffen(lift.Foam(b.parts) / pot.VolumeML)
	}
	return stiff
}

// proved is the gas that a yeast batter has when it is ready, as standard as any [ml per 100 g
// of flour-type body] (modelling choice).
const proved = 400

// gas is what a bowl lifts with, in ml per 100 g of flour-type body.
func (w *solved) gas(b bowl) float64 {
	if w.v.Base.Style == batter.Yeast {
		return proved
	}
	return b.lift.Per100()
}

// rise is how many times as thick as poured a portion of a bowl is once it is cooked, at this
// altitude.
func (w *solved) rise(b bowl) float64 {
	return portion.Rise(w.gas(b) * lift.Expansion(w.k.AltitudeM))
}

// pot is the bowl as weighed, with the air that is stirred or folded into it.
func (w *solved) pot() portion.Bowl { return w.potOf(w.weighed) }

func (w *solved) potOf(b bowl) portion.Bowl {
	pot := portion.BowlOf(b.parts, portion.Air(w.v.Form))
	if w.v.Base.Whips() {
		pot.VolumeML += lift.Foam(b.parts)
	}
	return pot
}

func (w *solved) portion(pot portion.Bowl) Portion {
	ml := w.v.Portion.VolumeML
	p := Portion{Count: pot.Count(ml), OneCake: w.v.Portion.OneCake, MayBeOne: w.v.Form.MayBeOne(), VolumeML: ml, MassG: ml * pot.Density()}
	p.LeftOverML = math.Max(0, pot.VolumeML*(1-portion.BowlLoss)-float64(p.Count)*ml)
	return p
}

// pours says how the batter runs now, after its rest, and once everything has settled.
func (w *solved) pours(settled float64) []Pour {
	hydration := flow.HydrationMin(w.weighed.parts)
	at := func(when string, minutes float64) Pour {
		tau := w.k.Calibration.YieldStress(flow.At(w.weighed.parts, minutes).L()) * flow.RestShare(minutes, hydration)
		return Pour{when, &minutes, tau, flow.ClassOf(w.k.Calibration.LOf(tau))}
	}
	rest := w.v.Base.Rest(w.v.Form, w.k)
	return []Pour{at("now", 0), at("after the rest", rest), {"settled", nil, settled, flow.ClassOf(w.weighed.thick.L())}}
}

// NutrientsOf tells a mixture as labels do, times a share.
func NutrientsOf(t food.Total, share float64) *Nutrients {
	return &Nutrients{
		EnergyKcal: share * t.Energy, Fat: share * t.Fat, Carbohydrate: share * (t.Carbohydrate - t.Fibre), Sugars: share * t.Sugars,
		Fibre: share * t.Fibre, Protein: share * t.Protein, Salt: share * t.Sodium * food.SaltOnLabel, Alcohol: share * t.Alcohol,
	}
}

// How what goes on is set against the sugar of the batter (modelling choices: what lies on top is tasted first, so a quarter of
// its sweetness is not missed inside; half of the bowl's sugar stays, for colour; less than 5 g a serving is not worth a word).
const (
	notMissed   = 0.25
	staysSweet  = 0.5
	sweetOnTopG = 5
)

// served judges batter and topping together.
func (w *described) served(top food.Total, batterG float64) *Served {
	s := &Served{ToppingsG: top.Mass, SugarsG: batterG + top.Sugars, OnTopG: top.Sugars}
	sugar := 0.0
	for i, l := range w.v.Base.Lines {
		if l.Role == food.RoleSugar {
			sugar += w.weigh[i] * l.Ingredient.Sugars / 100
		}
	}
	if top.Sugars >= sweetOnTopG {
		s.HoldBackG = math.Floor(math.Min(notMissed*top.Sweetness()*float64(w.out.Portion.Count), staysSweet*sugar))
	}
	s.Text = fmt.Sprintf("%.0f g of sugar a serving, %.0f of it from what goes on.", s.SugarsG, s.OnTopG)
	if s.HoldBackG >= 1 {
		s.Text += fmt.Sprintf(" If that is too sweet, hold up to %.0f g of sugar back from the bowl.", s.HoldBackG)
	}
	return s
}

// noColour is what is drawn of what has none (modelling choice).
const noColour = "#E9D8A6"

// drawn lays what goes on one portion out, to scale: nothing where nobody knows how wide that is.
func (w *described) drawn() (out []OnPortion) {
	_, across, long := w.place()
	if long > 0 {
		across = math.Min(across, long)
	}
	thick := 0.0
	if w.out.Portion.PouredMM != nil {
		thick = *w.out.Portion.PouredMM
	}
	if across <= 0 {
		return nil
	}
	type one struct {
		b batter.Beside
		p food.Part
	}
	var all []one
	for _, b := range w.v.Beside {
		for _, p := range b.OnEach() {
			if b.Place == batter.OnTop || b.Place == batter.Middle {
				all = append(all, one{b, p})
			}
		}
	}
	for n, x := range all {
		l := portion.Lies(x.p.Ingredient, x.p.Grams, x.b.Place, across, thick, n, len(all))
		colour := x.p.Ingredient.Colour.Hex
		if colour == "" {
			colour = noColour
		}
		out = append(out, OnPortion{x.b.Text, x.b.Place, l.Shape, colour, l.WideMM, l.HighMM, l.X, l.Y, l.Pieces})
	}
	return out
}

// nutrition shares the bowl out by volume and what goes on the portions by number.
func (w *described) nutrition() {
	p := w.out.Portion
	if p.Count == 0 {
		return
	}
	share := p.VolumeML / w.out.Batter.VolumeML
	each := food.Total{}
	each.Add(w.weighed.whole, share)
	for i, a := range w.v.Additions {
		if a.Stage == batter.StageOnPortion || a.Stage == batter.StageUnderPortion {
			each.Add(food.Whole([]food.Part{{Ingredient: a.Ingredient, Grams: w.adds[i]}}), 1/float64(p.Count))
		}
	}
	batterG := each.Sugars
	top := food.Total{}
	for _, b := range w.v.Beside {
		top.Add(food.Whole(b.Eaten()), 1)
	}
	if top.Mass > 0 {
		each.Add(top, 1)
		w.out.Served = w.served(top, batterG)
		w.out.Served.Drawn = w.drawn()
	}
	if parts := w.pan.parts(); parts != nil {
		each.Add(food.Whole(parts), 1)
		w.out.PanFatG = w.pan.each
	}
	w.each = NutrientsOf(each, 1)
	if w.include.Nutrition {
		w.out.NutritionPerPortion, w.out.NutritionPer100G = w.each, NutrientsOf(each, 100/each.Mass)
	}
}
