package balance

import (
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
)

// sodaBelow is the soda:acid ratio that no advice goes beyond by itself: from 0.95 berries turn
// grey, and titration overstates what soda takes from weak acids (modelling choice).
const sodaBelow = 0.9

// soapEdge keeps the advice that far from the soapy end of the tang [meq per 100 g] (modelling
// choice), and half a step of the fine scale further, so that rounding does not cross it.
const soapEdge = 0.1

// TastesSour tells whether an addition is put in for its sourness: juice, vinegar, zest. No
// soda answers that (job rule; the acid of a purée or of berries is answered).
func TastesSour(in *food.Ingredient) bool {
	switch in.Group {
	case food.GroupAcid, food.GroupZest:
		return true
	case food.GroupLiquid:
		return in.Acid >= lift.SourMeq
	}
	return false
}

// answered is the account of gas and acid that soda and powder answer, with the base's lines at
// x. Acid that is put in for its taste only makes up for what was held back with the milk.
func (s *solver) answered(x []float64) lift.Lift {
	parts := make([]food.Part, 0, len(x)+len(s.p.Additions))
	for j, l := range s.p.Lines {
		parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: x[j]})
	}
	var taste float64
	for _, a := range s.p.Additions {
		parts = append(parts, a)
		if TastesSour(a.Ingredient) && !s.pulled(batter.HoldTang) && !s.pulled(batter.HoldLift) { // what is wished for counts all of it
			taste += a.Grams * lift.AcidPerGram(a.Ingredient)
		}
	}
	l := lift.Of(parts)
	l.AcidMeq = math.Max(l.AcidMeq-taste, math.Min(l.AcidMeq, s.acid))
	return l
}

// sodaGas is the gas in ml that the soda of the bowl gives with the lines at x.
func (s *solver) sodaGas(x []float64) float64 {
	l := s.answered(x)
	return l.GasML() - l.OwnGasML
}

// tang is the acid in meq per 100 g of batter that soda answers and leaves.
func (s *solver) tang(x []float64) float64 {
	l := s.answered(x)
	return 100 * (l.AcidMeq - lift.MeqPerGram*l.SodaG) / s.batterMass(x)
}

// sodaStage moves the soda with the acid that has none yet. The acid of an addition first uses
// up the surplus of the base; beyond that it takes soda at the base's own ratio, never above
// sodaBelow. Soda falls only with the acid of a liquid that is held back, when what is left
// would be too little for it; that it does even when the cook has let the tang go.
func (s *solver) sodaStage(held bool) stage {
	var st stage
	if held {
		st = stage{holds: []batter.Hold{batter.HoldTang}, terms: []term{s.terms[batter.HoldTang]}}
	}
	st.lines = s.linesWhere(func(_ int, l Line) bool { return lift.IsSoda(l.Ingredient) })
	var free float64 // g of soda in lines that may move
	for _, j := range st.lines {
		free += s.base[j]
	}
	plainTang := s.tangAt - s.p.Targets[batter.HoldTang]
	ratio := math.Inf(1)
	if s.acid > 0 {
		ratio = s.soda * lift.MeqPerGram / s.acid
	}
	st.direct = func(x []float64) float64 {
		if free <= 0 {
			return 0
		}
		takes := s.answered(x).AcidMeq / lift.MeqPerGram // g of soda
		want := s.soda
		switch {
		case s.pulled(batter.HoldTang):
			want = math.Min(takes-s.tangAt*s.batterMass(x)/100/lift.MeqPerGram, math.Max(ratio, sodaBelow)*takes)
		case held:
			want = math.Max(want, math.Min(ratio, sodaBelow)*takes)
		}
		if s.acid > 0 { // soda that never had any acid stays as it is
			want = math.Min(want, math.Max(ratio, sodaBelow)*takes)
		}
		if ratio < lift.GreyAbove { // rounding must not turn fruit grey that the base would not
			want = math.Min(want, lift.GreyAbove*takes-s.p.FineStep/2)
		}
		if soapy := batter.TangBand().Low; plainTang > soapy { // a smaller bowl must not come out soapy
			keep := math.Min(plainTang, soapy+soapEdge+100*lift.MeqPerGram*s.p.FineStep/2/s.batterMass(x))
			want = math.Min(want, takes-keep*s.batterMass(x)/100/lift.MeqPerGram)
		}
		grow := math.Max(0, (want-(s.soda-free))/free) // what else there is of soda was put in on purpose
		var moved float64
		for _, j := range st.lines {
			v := math.Min(grow*s.base[j], s.ceiling(j))
			moved = math.Max(moved, math.Abs(v-x[j]))
			x[j] = v
		}
		return moved
	}
	return st
}
