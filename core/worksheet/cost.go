package worksheet

import "upbeatladle/core/food"

// cost adds up what is weighed out, and the fat of the plate. Water costs nothing.
func (w *described) cost() {
	if w.out.Portion.Count == 0 {
		return
	}
	var c Cost
	priced := false
	count := func(in *food.Ingredient, grams float64) {
		switch {
		case grams <= 0 || in.IsWater():
		case in.Price > 0:
			priced = true
			c.Batch += grams / 1000 * in.Price
		default:
			c.Missing = append(c.Missing, in.Label())
		}
	}
	for i, l := range w.v.Base.Lines {
		count(l.Ingredient, w.weigh[i])
	}
	for _, p := range w.raw {
		count(p.Ingredient, p.Grams)
	}
	for _, p := range w.pan.parts() {
		count(p.Ingredient, p.Grams*float64(w.out.Portion.Count))
	}
	for _, b := range w.v.Beside {
		for _, p := range b.Eaten() {
			count(p.Ingredient, p.Grams*float64(w.out.Portion.Count))
		}
	}
	if priced {
		c.Portion = c.Batch / float64(w.out.Portion.Count)
		w.out.Cost = &c
	}
}
