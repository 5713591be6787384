package worksheet

import (
	"fmt"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/portion"
	"upbeatladle/core/prep"
)

// mixing writes the order of work for this recipe.
func (w *described) mixing() {
	w.out.Mixing = mixing.Order(w.recipe())
}

// recipe is the bowl as it is mixed, up to the moment when pieces are folded in.
func (w *described) recipe() mixing.Recipe {
	var parts []food.Part
	for i, l := range w.v.Base.Lines {
		parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: w.weigh[i]})
	}
	items := make([]mixing.Item, 0, len(w.out.Lines))
	inBowl := 0
	for i, l := range w.out.Lines {
		item := mixing.Item{ID: l.ID, Label: l.Label, Role: l.Role, WeighG: l.Weigh, IntoG: l.Weigh, Step: l.Step}
		if l.From == FromBase {
			item.Ingredient = w.v.Base.Lines[i].Ingredient
			items = append(items, item)
			continue
		}
		a := w.v.Additions[i-len(w.v.Base.Lines)]
		item.Ingredient, item.Addition, item.Stage = a.Ingredient, true, a.Stage
		if p := l.Prepared; p != nil && p.Work != nil {
			item.Prepare = prepared(p.Work)
			item.IntoG = measure.Round(p.Grams, w.k.ScaleStep)
		}
		if l.DryTo != nil {
			item.Reduced, item.IntoG = true, *l.DryTo
		}
		if a.Stage.InBowl() {
			if a.Stage != batter.StageFoldIn {
				parts = append(parts, w.made[inBowl])
			}
			inBowl++
		}
		items = append(items, item)
	}
	bowl := portion.BowlOf(parts, portion.Air(w.v.Form))
	return mixing.Recipe{
		Form: w.v.Form, Base: w.v.Base, Items: items, RestMin: w.v.Base.Rest(w.v.Form, w.k),
		Offset: w.v.Offset.Strategy != batter.Leave && len(w.v.Additions) > 0,
		Judged: w.out.Gauges.Thickness.State != Unknown, MassG: bowl.MassG, Density: bowl.Density(), Parts: parts,
		Thickness: flow.Of(parts), Calibration: w.k.Calibration, PortionML: w.v.Portion.VolumeML, Count: w.out.Portion.Count,
		Spreads: w.out.Portion.DiameterMM != nil,
	}
}

// prepared says how an addition is prepared.
func prepared(r *prep.Result) string {
	text := strings.Join(r.Steps, " ")
	for _, f := range r.Left {
		if f.Kind == prep.Juice {
			text += fmt.Sprintf(" About %.0f g of it.", f.Grams)
		}
	}
	return text
}
