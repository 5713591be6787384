package mixing_test

import (
	"context"
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/worksheet"
)

var in = food.Reference().ByID

// variation of the base that the cases below are told on.
func variation(f batter.Form, lines map[string]float64, additions ...batter.Addition) batter.Variation {
	v := batter.Variation{
		Name: "M", Form: f, Base: batter.Base{Name: "M", School: batter.School{RestMin: math.NaN()}}, Additions: additions,
		Offset:  batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: batter.BySweetness, Hold: []batter.Hold{batter.HoldThickness, batter.HoldSweetness}},
		Portion: batter.Portion{VolumeML: 60},
	}
	for _, id := range []string{"plain_flour", "rice_flour", "milk_whole", "water", "egg_whole", "egg_white", "butter_unsalted", "vegetable_oil", "granulated_sugar", "baking_powder", "dried_yeast", "salt_fine"} {
		if g := lines[id]; g > 0 {
			v.Base.Lines = append(v.Base.Lines, batter.Line{ID: id, Ingredient: in(id), Amount: g, Unit: measure.Gram, Role: in(id).Role})
		}
	}
	return v
}

func with(id string, g float64, s batter.Stage) batter.Addition {
	return batter.Addition{Line: batter.Line{ID: "a-" + id, Ingredient: in(id), Amount: g, Unit: measure.Gram, Role: in(id).Role}, Stage: s}
}

func plain() map[string]float64 {
	return map[string]float64{"plain_flour": 250, "milk_whole": 390, "egg_whole": 100, "butter_unsalted": 40, "granulated_sugar": 25, "baking_powder": 10, "salt_fine": 2.5}
}

func work(t *testing.T, v batter.Variation) worksheet.Worksheet {
	t.Helper()
	w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
	require.NoError(t, err)
	return w
}

func step(w worksheet.Worksheet, code string) mixing.Step {
	for _, s := range w.Mixing {
		if s.Code == code {
			return s
		}
	}
	return mixing.Step{}
}

// The test before the rest and the test after it each have the figure that the batter's own
// pours have at that minute (courgette).
func TestTheSpreadTestIsForItsMinute(t *testing.T) {
	w := work(t, variation(batter.Pancake, plain(), with("courgette_grated", 200, batter.StageBatter)))
	text := step(w, mixing.CodeTest).Text
	for _, p := range w.Batter.Pours[:2] {
		d, _ := flow.Spread(60, p.YieldStressPa, w.Batter.DensityGML)
		assert.Contains(t, text, " "+whole(d)+" mm", p.When)
	}
	settled, _ := flow.Spread(60, *w.Batter.YieldStressPa, w.Batter.DensityGML)
	assert.NotContains(t, text, " "+whole(settled)+" mm", "that is what it runs to once all the water is out")
}

func whole(v float64) string { return fmt.Sprintf("%.0f", v) }

// A splash widens by what it promises: putting it into the bowl gives the diameter back
// (Roussel & Coussot 2005 turned round).
func TestASplashDoesWhatItSays(t *testing.T) {
	v := variation(batter.Pancake, plain())
	parts := func(milk float64) (out []food.Part) {
		for _, l := range v.Base.Lines {
			g := l.Amount
			if l.ID == "milk_whole" {
				g += milk
			}
			out = append(out, food.Part{Ingredient: l.Ingredient, Grams: g})
		}
		return out
	}
	recipe := func(milk float64) mixing.Recipe {
		return mixing.Recipe{Parts: parts(milk), Thickness: flow.Of(parts(milk)), Calibration: flow.Prior, PortionML: 60, TestML: 60, Density: 1.06, MassG: 815}
	}
	r := recipe(0)
	d := r.SpreadAt(15)
	g := r.Splash(d, d+3, flow.LiquidPerGram(in("milk_whole")))
	assert.InDelta(t, d+3, recipe(g).SpreadAt(15), 0.2)
	assert.InDelta(t, 0.05*815, r.Splash(d, d+60, 0.95), 1e-9, "never more than a bowl takes at once")
	assert.Zero(t, r.Splash(d, d-5, 0.95))
}

func TestHowMuchIsKeptBack(t *testing.T) {
	assert.NotContains(t, mixing.Told(work(t, variation(batter.Pancake, plain())).Mixing), "back for the test", "a plain bowl is poured whole")
	left := variation(batter.Pancake, plain(), with("beetroot_cooked", 200, batter.StageBatter))
	left.Offset.Strategy = batter.Leave
	assert.NotContains(t, mixing.Told(work(t, left).Mixing), "back for the test")
	for _, f := range []batter.Form{batter.Pancake, batter.Waffle, batter.Crepe, batter.DropScone} {
		w := work(t, variation(f, plain(), with("beetroot_cooked", 200, batter.StageBatter)))
		kept := step(w, mixing.CodeTest).Uses
		require.Len(t, kept, 1, f)
		assert.LessOrEqual(t, kept[0].G, 0.2*w.Lines[1].Weigh)
		assert.GreaterOrEqual(t, kept[0].G, 0.15*w.Lines[1].Weigh)
	}
	assert.NotContains(t, mixing.Told(work(t, variation(batter.Pancake, plain(), with("walnuts_chopped", 60, batter.StageFoldIn))).Mixing), "back for the test", "nuts leave no doubt")
}

func TestLongRests(t *testing.T) {
	v := variation(batter.Pancake, plain())
	v.Base.School.RestMin = 30
	assert.Contains(t, step(work(t, v), mixing.CodeRest).Text, "in the fridge")
	v.Base.School.RestMin = 180
	told := mixing.Told(work(t, v).Mixing)
	assert.Contains(t, told, "Rest 3 h, covered, in the fridge. The powder waits")
	assert.Contains(t, told, "Just before you cook, whisk in baking powder 10 g")
	v.Base.School.RestMin = 30 * 60
	w := work(t, v)
	assert.Contains(t, step(w, mixing.CodeRest).Text, "discard")
	assert.Equal(t, "rest_long", w.Notes[len(w.Notes)-1].Code)
	assert.Equal(t, worksheet.Warning, w.Notes[len(w.Notes)-1].Kind)

	v.Base.School.RestMin = 60
	v.Base.Lines = variation(batter.Pancake, map[string]float64{"plain_flour": 250, "water": 400, "baking_powder": 10}).Base.Lines
	assert.NotContains(t, step(work(t, v), mixing.CodeRest).Text, "fridge", "nothing in it spoils")
	yeast := variation(batter.Pancake, map[string]float64{"plain_flour": 250, "milk_whole": 400, "dried_yeast": 3})
	yeast.Base.School.RestMin = 8 * 60
	assert.NotContains(t, mixing.Told(work(t, yeast).Mixing), "Just before you cook", "yeast does not wait")
	assert.Zero(t, step(work(t, variation(batter.Flourless, map[string]float64{"egg_whole": 150})), mixing.CodeRest).Minutes)
	assert.NotEmpty(t, step(work(t, variation(batter.Pancake, plain())), mixing.CodeRest).Skip)
}

func TestWordsFitTheBowl(t *testing.T) {
	oil := plain()
	delete(oil, "butter_unsalted")
	oil["vegetable_oil"] = 40
	told := mixing.Told(work(t, variation(batter.Pancake, oil)).Mixing)
	assert.NotContains(t, told, "Melt")
	assert.Contains(t, told, "vegetable oil 40 g")

	rice := plain()
	delete(rice, "plain_flour")
	rice["rice_flour"] = 250
	v := variation(batter.Pancake, rice)
	assert.NotContains(t, mixing.Told(work(t, v).Mixing), "tough")
	v.Base.School.Lumps = "a few lumps are fine"
	assert.NotContains(t, mixing.Told(work(t, v).Mixing), "tough")

	v = variation(batter.Pancake, plain())
	v.Base.Style = batter.Whipped
	v.Base.Lines = append(v.Base.Lines, variation(batter.Pancake, map[string]float64{"egg_white": 30}).Base.Lines...)
	told = mixing.Told(work(t, v).Mixing)
	assert.Contains(t, told, "the yolks, about 40 g")
	assert.NotContains(t, told, "hen egg 100 g", "the whites stay out of the jug")
	assert.Contains(t, told, "egg whites, about 90 g")
	for _, f := range []batter.Form{batter.Waffle, batter.Crepe} {
		assert.NotContains(t, step(work(t, variation(f, plain())), mixing.CodeTest).Text, " mm", "an iron and a tilted pan have no ruler")
	}
}
