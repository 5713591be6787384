package prep_test

import (
	"testing"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	// One kilogram of nine parts water and one of sugar, half of whose water can leave; frozen as well.
	fruit := func(group food.Group) *food.Ingredient {
		return &food.Ingredient{ID: "x", Name: "Ours", Group: group, Density: 1, ReleaseFraction: 0.5, Composition: food.Composition{Water: 90, Carbohydrate: 10, Sugars: 10, Sucrose: 10}}
	}
	nut := *row(t, "walnuts_chopped")
	nut.Water = 5
	dried := *row(t, "raisins")
	dried.Uptake = 0.5
	jobs := map[string]prep.Job{
		"squeeze": {Method: prep.Squeeze, From: fruit(food.GroupGrated)}, "salted": {Method: prep.Squeeze, From: fruit(food.GroupGrated), Salt: true},
		"reduce": {Method: prep.Reduce, From: fruit(food.GroupPuree)}, "thaw": {Method: prep.Thaw, From: fruit(food.GroupFrozenPiece)}, "toss": {Method: prep.Toss, From: fruit(food.GroupFreshPiece)},
		"steep": {Method: prep.Steep, From: row(t, "milk_whole")}, "pressed": {Method: prep.Steep, From: row(t, "milk_whole"), Pressed: true}, "plump": {Method: prep.Plump, From: &dried},
		"toast": {Method: prep.Toast, From: &nut},
	}
	of := func(t testing.TB, name string) prep.Result {
		j := jobs[name]
		j.HaveG = 1000
		return work(t, j)
	}
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(prep.Figures),
		"cooks": func(t testing.TB, g rules.Given) string {
			return rules.N(work(t, prep.Job{Method: prep.Puree, From: fruit(food.GroupGrated), HaveG: 1000, Cook: prep.Cook(g.At(0))}).ProductG / 1000)
		},
		"leaves": func(t testing.TB, g rules.Given) string { return rules.N(of(t, g.At(0)).ProductG) },
		"takes": func(t testing.TB, g rules.Given) string {
			all := 0.0
			for _, f := range of(t, g.At(0)).Added {
				all += f.Grams
			}
			return rules.N(all)
		},
		"starch": func(t testing.TB, g rules.Given) string {
			p := work(t, prep.Job{Method: prep.Mash, From: row(t, "banana_mashed"), HaveG: 1000, Ripeness: prep.Ripeness(g.At(0))}).Product
			return rules.N(p.Starch / (p.Starch + p.Sugars))
		},
	})
}
