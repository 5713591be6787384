package worksheet_test

import (
	"context"
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/worksheet"
)

// anyVariation draws a base of ours with some additions in the bowl.
func anyVariation(t *rapid.T) batter.Variation {
	v := rapid.SampledFrom([]func(...batter.Addition) batter.Variation{hatch, cultured}).Draw(t, "base")()
	v.Form = rapid.SampledFrom([]batter.Form{batter.Pancake, batter.Waffle, batter.Crepe, batter.DropScone}).Draw(t, "form")
	v.Offset.Strategy = rapid.SampledFrom([]batter.Strategy{batter.HoldBackLiquid, batter.BuildUpFlour, batter.Shared}).Draw(t, "strategy")
	for i := range rapid.IntRange(1, 4).Draw(t, "additions") {
		in := rapid.SampledFrom(food.Reference().All()).Draw(t, "in")
		a := add(in.ID, math.Max(1, measure.Round(math.Max(1, in.Dose.High)*rapid.Float64Range(0.1, 3).Draw(t, "dose"), 0.1)), batter.UsualStage(in))
		a.ID = fmt.Sprint("a", i)
		v.Additions = append(v.Additions, a)
	}
	return v
}

func asWritten(v batter.Variation) batter.Variation {
	v.Reference = batter.Reference{AsWritten: true, Additions: slices.Clone(v.Additions)}
	return v
}

func sheet(t require.TestingT, v batter.Variation) worksheet.Worksheet {
	w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
	require.NoError(t, err)
	return w
}

func told(t require.TestingT, w worksheet.Worksheet) string {
	text, err := json.Marshal(w)
	require.NoError(t, err)
	return string(text)
}

// A recipe as written moves nothing, is level on every gauge, and is described, not faulted.
func TestAsWrittenMovesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		w := sheet(t, asWritten(anyVariation(t)))
		for _, l := range w.Lines {
			if l.From == worksheet.FromBase {
				assert.Zero(t, *l.Offset, "%s: %g from %g", l.Label, l.Weigh, *l.Base)
				assert.NotEqual(t, worksheet.Stuck, l.State, l.Label)
			}
		}
		for _, g := range w.Gauges.All() {
			assert.NotContains(t, []worksheet.GaugeState{worksheet.Low, worksheet.High}, g.State, "%s %g of %g", g.Key, g.After(), g.Base())
		}
		for _, s := range w.Mixing {
			assert.NotContains(t, s.Text, "back for the test", "it pours whole")
		}
		for _, n := range w.Notes {
			assert.True(t, n.Kind != worksheet.Warning || slices.Contains([]string{"strong", "overfull", "no_portion", "rest_long"}, n.Code), "%s: %s", n.Code, n.Text)
			assert.NotContains(t, n.Text, "the base", n.Code)
		}
	})
}

// Another fruit in its place keeps the batter; put back, it is the recipe again.
func TestInsteadOfThisKeepsTheBatter(t *testing.T) {
	written := asWritten(hatch(add("carrot_cooked", 150, batter.StageBatter)))
	first := sheet(t, written)
	swapped := written
	swapped.Additions = []batter.Addition{add("beetroot_cooked", 150, batter.StageBatter)}
	w := sheet(t, swapped)
	assert.NotZero(t, *find(t, w, "milk").Offset, "beetroot is wetter than carrot")
	assert.InDelta(t, first.Gauges.Thickness.After(), w.Gauges.Thickness.After(), 0.03)
	assert.InDelta(t, first.Gauges.Sweetness.After(), w.Gauges.Sweetness.After(), 0.15)
	assert.Contains(t, w.Gauges.Thickness.VerdictText, "the recipe")
	out := written
	out.Additions = nil
	assert.InDelta(t, first.Gauges.Thickness.After(), sheet(t, out).Gauges.Thickness.After(), 0.03, "what is taken out stays in the reference")
	swapped.Additions = written.Additions
	assert.Equal(t, told(t, first), told(t, sheet(t, swapped)))
}

// The plain base behind a recipe is as thick, sweet and light as the recipe.
func TestThePlainBaseBehindARecipe(t *testing.T) {
	for _, a := range []batter.Addition{
		add("beetroot_cooked", 150, batter.StageBatter), add("banana_mashed", 120, batter.StageBatter), add("courgette_grated", 200, batter.StageBatter),
		add("cocoa_natural", 25, batter.StageDry), add("orange_juice", 60, batter.StageBatter),
	} {
		v := asWritten(hatch(a))
		grams, err := worksheet.PlainBase(context.Background(), v, batter.DefaultKitchen())
		require.NoError(t, err)
		plain := hatch()
		for i := range plain.Base.Lines {
			plain.Base.Lines[i].Amount, plain.Base.Lines[i].Unit = grams[i], measure.Gram
		}
		recipe, base := sheet(t, v), sheet(t, plain)
		assert.InDelta(t, recipe.Gauges.Thickness.After(), base.Gauges.Thickness.After(), 0.04, a.Ingredient.ID)
		assert.InDelta(t, recipe.Gauges.Sweetness.After(), base.Gauges.Sweetness.After(), 0.3, a.Ingredient.ID)
		assert.InEpsilon(t, recipe.Gauges.Lift.After(), base.Gauges.Lift.After(), 0.05, a.Ingredient.ID)
		back := sheet(t, func() batter.Variation { p := plain; p.Additions = v.Additions; return p }())
		for i, l := range v.Base.Lines {
			g, _ := batter.DefaultKitchen().Grams(l)
			assert.InDelta(t, g, back.Lines[i].Weigh, math.Max(2, 0.03*g), "%s: with the addition again it is the recipe, %s", a.Ingredient.ID, l.ID)
		}
	}
}

// Where a gauge is pulled, it comes, or what gave way is said.
func TestPulledTargetsAreMetOrTold(t *testing.T) {
	told := map[batter.Hold]string{
		batter.HoldThickness: "thickness_left", batter.HoldSweetness: "sweetness_left sugar_floor", batter.HoldLift: "lift_left",
		batter.HoldTang: "tang_left", batter.HoldSalt: "salt_left",
	}
	level := map[batter.Hold]float64{batter.HoldThickness: 0.05, batter.HoldSweetness: 0.3, batter.HoldLift: 30, batter.HoldTang: 0.4, batter.HoldSalt: 0.05}
	rapid.Check(t, func(t *rapid.T) {
		v := anyVariation(t)
		h := rapid.SampledFrom([]batter.Hold{batter.HoldThickness, batter.HoldSweetness, batter.HoldLift, batter.HoldTang, batter.HoldSalt}).Draw(t, "pulled")
		pull := rapid.Float64Range(0.8, 1.3).Draw(t, "to")
		if h == batter.HoldTang {
			pull = rapid.Float64Range(-0.8, 1.5).Draw(t, "by")
		}
		v.Offset.Targets = batter.Targets{h: pull}
		if rapid.Bool().Draw(t, "alone") {
			v.Offset.Hold = nil
		}
		w := sheet(t, v)
		assert.Contains(t, w.Held, h, "what is pulled is held")
		g := w.Gauge(string(h))
		require.NotNil(t, g.Target)
		if g.State == worksheet.Unknown || math.Abs(g.After()-g.Goal()) <= math.Max(level[h], 0.03*math.Abs(g.Goal())) {
			return
		}
		for _, n := range w.Notes {
			if n.Code == "no_liquid" || strings.Contains(told[h], n.Code) {
				return
			}
		}
		t.Fatalf("%s is at %g, wished for %g, and nobody says so", h, g.After(), g.Goal())
	})
}

// A batch for any number of portions is the trusted batter: eggs are whole, and the milk makes
// up for it.
func TestACountHoldsTheTrustedBatter(t *testing.T) {
	for _, v := range []batter.Variation{hatch(), hatch(add("beetroot_cooked", 100, batter.StageBatter)), cultured(add("raspberry_puree", 80, batter.StageBatter))} {
		natural := sheet(t, v)
		for _, count := range []int{1, 2, 3, 5, 8, 13, 21, 40, 120} {
			v.Portion.Count = count
			w := sheet(t, v)
			assert.GreaterOrEqual(t, w.Portion.Count, count)
			assert.InDelta(t, natural.Gauges.Thickness.Base(), w.Gauges.Thickness.Base(), 1e-3, "the reference is the trusted base at %d", count)
			if note(w, "thickness_left") == "" { // one egg is too much for a spoonful of batter
				assert.InDelta(t, w.Gauges.Thickness.Base(), w.Gauges.Thickness.After(), 0.08, "%d portions, to a gram of milk on one of them", count)
			} else {
				assert.Less(t, count, 4)
			}
		}
	}
}

// The order of the additions does not matter, and twice of everything is twice to weigh.
func TestOrderAndDoubling(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := anyVariation(t)
		other := v
		other.Additions = slices.Clone(v.Additions)
		slices.Reverse(other.Additions)
		a, b := sheet(t, v), sheet(t, other)
		twice, _ := v.Scaled(2)
		twice.Reference = batter.Reference{}
		c := sheet(t, twice)
		for i, l := range a.Lines {
			if l.From != worksheet.FromBase {
				continue
			}
			assert.InDelta(t, l.Weigh, b.Lines[i].Weigh, l.Step*1.01, "%s, the other way round", l.ID)
			assert.InDelta(t, 2*l.RoundedFrom, c.Lines[i].RoundedFrom, 1e-3*math.Max(10, l.RoundedFrom), "%s, twice", l.ID)
		}
	})
}

// More of a purée never asks for more milk.
func TestMorePureeNeverAsksForMoreMilk(t *testing.T) {
	for _, id := range []string{"beetroot_cooked", "carrot_cooked", "apple_sauce", "raspberry_puree", "courgette_grated"} {
		milk := math.Inf(1)
		for g := 0.0; g <= 400; g += 25 {
			w := sheet(t, hatch(add(id, g, batter.StageBatter)))
			now := find(t, w, "milk").Weigh
			assert.LessOrEqual(t, now, milk+1, "%g g of %s", g, id)
			milk = now
		}
	}
}

// Savoury pieces bring their salt whole: it is tasted in the bite (job, section 7).
func TestSavouryPiecesTakeSaltOffTheRecipe(t *testing.T) {
	w := sheet(t, hatch(add("bacon_crumbled", 75, batter.StageFoldIn), add("cheddar_grated", 75, batter.StageFoldIn)))
	assert.Less(t, find(t, w, "salt").Weigh, 2.5)
	assert.Equal(t, worksheet.High, w.Gauges.Salt.State)
	assert.Contains(t, note(w, "salt_left"), "more than the base")
}

// No note speaks of additions where there are none, nor of nothing in grams; a bowl as written and a plain one read no
// warning but what may hurt or does not fit this kitchen.
func TestNotesSpeakOfWhatIsThere(t *testing.T) {
	may := []string{"rest_long", "tub_stale", "stock_short", "overfull", "underfull", "no_portion", "too_many_portions", "strong"}
	rapid.Check(t, func(t *rapid.T) {
		v := anyVariation(t)
		switch rapid.SampledFrom([]string{"plain", "written", "scaled plain", "pulled"}).Draw(t, "as") {
		case "plain":
			v.Additions = nil
		case "written":
			v = asWritten(v)
		case "scaled plain":
			v.Additions, v.Portion.Count = nil, rapid.IntRange(1, 40).Draw(t, "count")
		default:
			v.Additions = nil
			v.Offset.Targets = batter.Targets{batter.HoldThickness: rapid.Float64Range(0.6, 1.6).Draw(t, "thickness"), batter.HoldSweetness: rapid.Float64Range(0.5, 1.5).Draw(t, "sweetness")}
		}
		w := sheet(t, v)
		for _, n := range w.Notes {
			require.NotRegexp(t, `(?:^|[^\d.,])0(?:\.0+)? g\b`, n.Text, n.Code)
			if len(v.Additions) == 0 {
				require.NotContains(t, strings.ToLower(n.Text), "addition", n.Code)
			}
			if len(v.Offset.Targets) == 0 && n.Kind == worksheet.Warning {
				require.Contains(t, may, n.Code, n.Text)
			}
		}
	})
}
