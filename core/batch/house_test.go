package batch_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batch"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/mixing"
)

// compote is a sauce of the house by hand: half plums, half sugar, nothing boils off.
func compote(tub float64) *batter.House {
	h := &batter.House{Name: "Plum compote", When: batter.MadeBefore, Serve: "Warm it.", Cautions: []string{"Hot sugar burns."},
		Product: &food.Ingredient{ID: "plum_compote", Name: "Plum compote", Role: food.RoleTopping, Density: 1.1}}
	h.Sized = func(g float64) ([]food.Part, []string) {
		return []food.Part{{Ingredient: in("plum_diced"), Grams: g / 2}, {Ingredient: in("granulated_sugar"), Grams: g / 2}},
			[]string{fmt.Sprintf("Put %.0f g into a pan.", g), "Boil it."}
	}
	if tub > 0 {
		h.Tub = &food.Ingredient{ID: "tub", Name: "Plum compote", Role: food.RoleTopping, Stock: tub, Own: &food.Own{Name: "Plum compote", KeepDays: 5, AgeDays: 1}}
	}
	return h
}

func served(h *batter.House) batter.Variation {
	v := beetroot()
	v.Beside = []batter.Beside{{Place: batter.OnTop, Text: "Plum compote, 20 g", EachG: 20, House: h, Uses: []*food.Ingredient{in("plum_diced"), in("granulated_sugar")}}}
	return v
}

// The sauce is made before anything is weighed, warmed at the last, and its steps follow no over-pour of the batter's.
func TestASauceLeadsTheSheet(t *testing.T) {
	l := &log{Making: begin(t, served(compote(0)))}
	tasks := l.Plan.Tasks
	require.Equal(t, mixing.CodeAsideFirst, tasks[0].Code)
	assert.Contains(t, tasks[0].Text, fmt.Sprintf("Plum compote, %d g for all: put", 20*l.Plan.Count))
	assert.Contains(t, tasks[0].Mind, "Hot sugar burns.")
	assert.Equal(t, mixing.CodeAsideFirst, tasks[1].Code)
	assert.Equal(t, batch.Weigh, tasks[2].Kind)
	last := ""
	for _, x := range tasks {
		if x.Code == mixing.CodeAsideLast {
			last = x.Text
		}
	}
	assert.Equal(t, "Plum compote: warm it.", last)

	s := l.all("weigh-milk_whole")
	milk := task(s, "weigh-milk_whole")
	l.weigh("milk_whole", milk.AsksG+24)
	s = l.do(batch.Event{Kind: batch.Chose, Task: "weigh-milk_whole", Choice: batch.Leave})
	for s.Now != "" && task(s, s.Now).Kind == batch.Weigh {
		s = l.weigh(task(s, s.Now).Line, task(s, s.Now).AsksG)
	}
	told := ""
	for _, x := range s.Tasks {
		told += x.Text + "\n"
		if strings.HasPrefix(string(x.Code), "aside") {
			assert.Equal(t, planned(l, x.ID), x.Text, "the sauce is as planned")
		}
	}
	assert.Contains(t, told, "Plum compote: boil it.")
}

func planned(l *log, id string) string {
	for _, x := range l.Plan.Tasks {
		if x.ID == id {
			return x.Text
		}
	}
	return ""
}

// A tub that holds enough stands in for the work, one that does not, or is too old, does not.
func TestATubStandsInForTheWork(t *testing.T) {
	need := 20 * float64(begin(t, served(compote(0))).Plan.Count)
	old := compote(need + 1)
	old.Tub.Own.AgeDays = 9
	for name, c := range map[string]struct {
		house *batter.House
		tub   bool
	}{"full": {compote(need + 1), true}, "low": {compote(need - 1), false}, "old": {old, false}} {
		m := begin(t, served(c.house))
		assert.Equal(t, c.tub, strings.Contains(m.Plan.Tasks[0].Text, "out of its tub"), name)
		pulled := map[string]float64{}
		for _, p := range batch.ToPull([]batch.Making{m}).Lines {
			pulled[p.Ingredient] = p.Grams
		}
		assert.Equal(t, c.tub, pulled["tub"] > 0, name)
		l := &log{Making: m}
		assert.InDelta(t, map[bool]float64{true: need, false: 0}[c.tub], l.all("").Used()["tub"], 1e-9, "%s: what comes off the stock", name)
		if !c.tub {
			assert.InDelta(t, need/2, pulled["plum_diced"], 1e-6, name)
		}
	}
}

// What is steeped keeps some of its milk, and the step tops it up with fresh: the pulling list has that milk too.
func TestWhatLeavesKeepIsPulled(t *testing.T) {
	v := beetroot()
	v.Additions = []batter.Addition{{Line: line("tea_leaves_black", 10), Stage: batter.StageInfused}}
	m := begin(t, v)
	milk := 0.0
	for _, x := range m.Plan.Tasks {
		if x.Line == "milk_whole" && x.Kind == batch.Weigh {
			milk = x.Grams
		}
	}
	require.Positive(t, milk)
	for _, p := range batch.ToPull([]batch.Making{m}).Lines {
		if p.Ingredient == "milk_whole" {
			assert.InDelta(t, milk+40, p.Grams, 1e-9, "leaves hold four times their mass")
			return
		}
	}
	t.Fatal("no milk is pulled")
}

// A base of yogurt alone is thinned with milk or water, and what was stirred in is kept count of.
func TestAYogurtBowlIsThinned(t *testing.T) {
	v := beetroot()
	v.Additions = nil
	v.Base.Lines = slices.DeleteFunc(v.Base.Lines, func(l batter.Line) bool { return l.ID == "milk_whole" })
	v.Base.Lines = append(v.Base.Lines, line("yogurt_plain", 900))
	l := &log{Making: begin(t, v)}
	l.all("")
	s := l.do(batch.Event{Kind: batch.Tested, Says: string(mixing.Mounds)})
	require.NotNil(t, s.Test)
	require.NotNil(t, s.Test.Advice)
	assert.Equal(t, "Milk or water", s.Test.Advice.Label)
	require.Positive(t, s.Test.Advice.Grams)
	g := s.Test.Advice.Grams
	assert.InDelta(t, g, l.do(batch.Event{Kind: batch.StirredIn, Grams: &g}).SplashG, 1e-9)
}
