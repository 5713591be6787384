package batter

import (
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/words"
)

// Dose is the track on which an addition is turned up and down, in g for this batch.
type Dose struct {
	Light  float64 `json:"light_g"` // Light to Bold is the usual range
	Usual  float64 `json:"usual_g"`
	Bold   float64 `json:"bold_g"`
	Max    float64 `json:"max_g"`    // end of the track
	Step   float64 `json:"step_g"`   // one natural step of the hand
	Digits int     `json:"decimals"` // that its grams are told with
	Word   string  `json:"word"`     // where the amount lies now: none, light, usual, bold, past bold
}

const (
	trackPastBold = 1.5  // the track ends this far past bold (modelling choice)
	usualEdge     = 0.25 // the outer quarters of the range are called light and bold (modelling choice)
)

// flourlessShare is the share of a batter that flour usually has (modelling choice).
const flourlessShare = 0.4

// DoseReference is the flour in g that doses are counted against: the base's flours, or
// for a flourless base the share of its mass that flour would have had.
func DoseReference(flourG, baseG float64) float64 {
	if flourG > 0 {
		return flourG
	}
	return flourlessShare * baseG
}

// DoseOf returns the track of an ingredient for a batch with flourG g of flour, with the
// word for grams. An ingredient without a range gets a track from 0 to 120 % of the flour.
func DoseOf(in *food.Ingredient, flourG, grams float64) Dose {
	per := flourG / 100
	d := Dose{Light: in.Dose.Low * per, Bold: in.Dose.High * per}
	if in.Dose.High <= 0 {
		d.Light, d.Bold = 0, 0.8*flourG
	}
	d.Usual = (d.Light + d.Bold) / 2
	d.Max = d.Bold * trackPastBold
	d.Step = naturalStep(d.Bold)
	d.Digits = words.Decimals(d.Step)
	for _, v := range []*float64{&d.Light, &d.Usual, &d.Bold, &d.Max} {
		*v = measure.Round(*v, d.Step)
	}
	span := d.Bold - d.Light
	switch {
	case grams <= 0:
		d.Word = "none"
	case grams > d.Bold:
		d.Word = "past bold"
	case grams < d.Light+usualEdge*span:
		d.Word = "light"
	case grams > d.Bold-usualEdge*span:
		d.Word = "bold"
	default:
		d.Word = "usual"
	}
	return d
}

// naturalStep is a round step of about a fiftieth of the bold dose, from 0.1 to 10 g.
func naturalStep(bold float64) float64 {
	for _, s := range []float64{0.1, 0.2, 0.5, 1, 2, 5} {
		if bold/s <= 60 {
			return s
		}
	}
	return 10
}

// UsualStage is the stage at which an ingredient of the group normally goes in: frozen
// fruit bleeds and goes on the portion, slices lie under it, what is steeped is steeped, pieces are folded in, powders go with the flour.
func UsualStage(in *food.Ingredient) Stage {
	switch {
	case in.IsSlice():
		return StageUnderPortion
	case in.Is(food.Steeps):
		return StageInfused
	}
	switch in.Group {
	case food.GroupFrozenPiece, food.GroupTopping:
		return StageOnPortion
	case food.GroupFreshPiece, food.GroupDryPiece:
		return StageFoldIn
	case food.GroupPowder, food.GroupSpice, food.GroupSalt, food.GroupFlour, food.GroupStarch, food.GroupLeavener:
		return StageDry
	}
	return StageBatter
}
