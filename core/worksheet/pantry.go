package worksheet

import (
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// pantryNotes says what the cook should know of their own tubs: too old, or too little left.
func (w *described) pantryNotes() {
	said := func(at string, in *food.Ingredient, need float64) {
		if in.Own.Stale() {
			w.note("tub_stale", at, "“%s” is %d days old and keeps %d. Make a fresh one; when in doubt, throw it out.", in.Own.Name, in.Own.AgeDays, in.Own.KeepDays)
		}
		if in.Stock > 0 && need > in.Stock+w.k.ScaleStep/2 {
			w.note("stock_short", at, "There are %s of %s, and this takes %s.", words.Grams(in.Stock, w.k.ScaleStep), words.Lower(in.Label()), words.Grams(need, w.k.ScaleStep))
		}
	}
	for i, l := range w.v.Base.Lines {
		said(l.ID, l.Ingredient, w.weigh[i])
	}
	for i, p := range w.raw {
		said(w.v.Additions[i].ID, p.Ingredient, p.Grams)
	}
}
