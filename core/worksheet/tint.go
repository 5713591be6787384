package worksheet

import (
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/words"
)

const (
	greyGreen  = "#7C8A6E" // what anthocyanin turns to beyond neutral (modelling choice)
	redStain   = "#A8401C" // what turmeric turns to (modelling choice)
	greyShare  = 0.5       // of the mixture when it does (modelling choice)
	tintsShare = 0.15      // least share of what darkens it that is worth naming (modelling choice)
)

// tint mixes the colours of the bowl by mass, strength and release (docs/maths.md section 11).
func (w *solved) tint() *Tint {
	var mix food.Pigments
	darkens := map[*food.Ingredient]float64{}
	for _, p := range w.weighed.parts {
		darkens[p.Ingredient] += mix.Add(p.Ingredient, p.Grams*p.Ingredient.Release())
	}
	colour, ok := mix.Colour()
	if !ok {
		return nil
	}
	out := &Tint{Reason: "the colour of the base"}
	for _, a := range w.v.Additions {
		if a.Stage.InBowl() && darkens[a.Ingredient] > tintsShare*mix.Dark && (out.of == nil || darkens[a.Ingredient] > darkens[out.of]) {
			out.of = a.Ingredient
		}
	}
	if strongest := out.of; strongest != nil {
		out.Reason = words.Lower(strongest.Label()) + " tints it"
		if strongest.Colour.PHSensitive && w.weighed.lift.SodaToAcid() >= lift.GreyAbove {
			turned, name := greyGreen, "grey-green"
			if strongest.Is(food.Reddens) {
				turned, name = redStain, "red"
			}
			grey, _ := food.ParseHex(turned)
			for i := range colour {
				colour[i] = (1-greyShare)*colour[i] + greyShare*grey[i]
			}
			out.Reason = "soda turns " + words.Lower(strongest.Label()) + " " + name
		}
	}
	out.Hex = colour.Hex()
	return out
}
