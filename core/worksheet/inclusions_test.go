package worksheet_test

import (
	"context"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/portion"
	"upbeatladle/core/worksheet"
)

// with gives an addition its whole share of the bowl.
func with(ingredient string, grams float64, stage batter.Stage) batter.Addition {
	a := add(ingredient, grams, stage)
	a.ShareOfBowl = 1
	return a
}

func equipped() batter.Kitchen {
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{{ID: "p", Name: "Plate", WidthMM: 700, DepthMM: 400}, {ID: "c", Name: "Pan", Round: true, WidthMM: 240, DepthMM: 240}}
	k.Irons = []batter.Iron{{ID: "i", Name: "Iron", Round: true, WidthMM: 180, LengthMM: 180, DepthMM: 26, GapMM: 9, Moulds: 2}}
	return k
}

func workIn(t require.TestingT, v batter.Variation) worksheet.Worksheet {
	w, err := worksheet.Work(context.Background(), v, equipped(), shown)
	require.NoError(t, err)
	return w
}

func TestPiecesOverAllPortionsSumToWhatWentIn(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		stage := rapid.SampledFrom([]batter.Stage{batter.StageFoldIn, batter.StageOnPortion}).Draw(t, "stage")
		id := rapid.SampledFrom([]string{"walnuts_chopped", "chocolate_chips", "blueberry_fresh", "raisins", "feta_crumbled"}).Draw(t, "id")
		g := rapid.Float64Range(5, 200).Draw(t, "g")
		w := workIn(t, hatch(with(id, g, stage)))
		require.Len(t, w.Portion.Inclusions, 1)
		x := w.Portion.Inclusions[0]
		var sum float64
		for _, n := range x.FirstToLast {
			sum += n
		}
		pieces := g / in(id).Piece.MassG
		if x.Placing == portion.Placed {
			assert.InDelta(t, math.Floor(pieces+1e-9), sum, 1e-6, "whole pieces, shared out")
			return
		}
		left := (w.Batter.VolumeML - float64(w.Portion.Count)*60) / w.Batter.VolumeML
		if !(x.Sinks || x.Floats) {
			assert.InDelta(t, pieces*(1-left), sum, 1e-6, "the rest lies in the bowl with its batter")
		}
		assert.LessOrEqual(t, sum, pieces+1e-6)
	})
}

func TestTheDrawingShowsTheCount(t *testing.T) {
	w := workIn(t, hatch(with("walnuts_chopped", 60, batter.StageFoldIn), with("blueberry_fresh", 100, batter.StageFoldIn)))
	require.NotNil(t, w.Portion.Drawing)
	want := 0
	for _, x := range w.Portion.Inclusions {
		want += int(math.Round(x.Mean))
	}
	assert.Len(t, w.Portion.Drawing.Pieces, want)
	again := workIn(t, hatch(with("walnuts_chopped", 60, batter.StageFoldIn), with("blueberry_fresh", 100, batter.StageFoldIn)))
	assert.Equal(t, w.Portion.Drawing.Pieces, again.Portion.Drawing.Pieces, "it does not dance")
}

func TestLoadMeter(t *testing.T) {
	w := workIn(t, hatch(with("walnuts_chopped", 60, batter.StageFoldIn)))
	assert.Equal(t, "within", w.Portion.Load.Verdict)
	assert.InDelta(t, 60/0.95/w.Batter.VolumeML, w.Portion.Load.Fraction, 1e-9, "by piece density, never bulk")
	w = workIn(t, hatch(with("walnuts_chopped", 500, batter.StageFoldIn)))
	assert.Equal(t, "over", w.Portion.Load.Verdict)
	assert.Contains(t, note(w, "load"), "25 %")
	each := w.Portion.Inclusions[0].Grams
	assert.InDelta(t, each*(1-0.25/w.Portion.Load.Fraction), w.Portion.Load.OverG, 1e-6)
}

func TestPiecesStiffenTheSpread(t *testing.T) {
	plain, full := workIn(t, hatch()), workIn(t, hatch(with("chocolate_chips", 200, batter.StageFoldIn)))
	assert.Less(t, *full.Portion.DiameterMM, *plain.Portion.DiameterMM)
	assert.Greater(t, *full.Portion.CookedMM, *full.Portion.PouredMM)
}

func TestSharedBowl(t *testing.T) {
	a := with("walnuts_chopped", 60, batter.StageFoldIn)
	whole := workIn(t, hatch(a)).Portion.Inclusions[0]
	a.ShareOfBowl = 0.5
	half := workIn(t, hatch(a)).Portion.Inclusions[0]
	assert.InEpsilon(t, 2*whole.Mean, half.Mean, 1e-9, "the same nuts in half the portions")
	assert.Less(t, len(half.FirstToLast), len(whole.FirstToLast))
}

func TestPlacedPerPortion(t *testing.T) {
	a := with("blueberry_fresh", 100, batter.StageOnPortion)
	a.PlacedEach = 5
	x := workIn(t, hatch(a)).Portion.Inclusions[0]
	assert.Equal(t, []int{5, 5}, []int{x.P10, x.P90})
	assert.Zero(t, x.None)
}

func TestNotesOnPieces(t *testing.T) {
	assert.Contains(t, note(workIn(t, hatch(with("blueberry_frozen", 100, batter.StageFoldIn))), "bleed"), "on each portion")
	v := hatch(with("chocolate_chips", 60, batter.StageFoldIn))
	v.Form = batter.Waffle
	w := workIn(t, v)
	assert.Contains(t, note(w, "scorch"), "iron")
	assert.Empty(t, note(w, "tall"), "a chip lies on its base: 7 mm in a 9 mm gap")
	v.Additions[0] = with("mochi_pieces", 60, batter.StageFoldIn)
	assert.Contains(t, note(workIn(t, v), "tall"), "gap of the iron", "12 mm pieces in a 9 mm gap")
	v = hatch(with("chocolate_chips", 60, batter.StageFoldIn))
	v.Form, v.Base.Lines[1].Amount = batter.Crepe, 620
	w = workIn(t, v)
	assert.Contains(t, note(w, "sinks"), "last portions")
	s := w.Portion.Inclusions[0].FirstToLast
	assert.Greater(t, s[len(s)-1], s[0])
}

func TestPlatesAndIrons(t *testing.T) {
	w := workIn(t, hatch())
	require.NotNil(t, w.Plate)
	assert.Equal(t, portion.Fit(*w.Portion.DiameterMM, 700, 400), w.Plate.Fit)
	assert.Equal(t, int(math.Ceil(float64(w.Portion.Count)/float64(w.Plate.Fit))), w.Plate.Rounds)
	v := hatch()
	v.Form, v.Portion.VolumeML = batter.Waffle, 400
	w = workIn(t, v)
	assert.Contains(t, note(w, "overfull"), "leaks")
	v.Portion.VolumeML = w.Plate.AdvisedML
	assert.Empty(t, note(workIn(t, v), "overfull"))
	v.Form, v.Portion.VolumeML = batter.Crepe, 90
	w = workIn(t, v)
	assert.InDelta(t, 240, *w.Portion.DiameterMM, 1e-9, "a crêpe stays in its pan")
	assert.InEpsilon(t, 90_000, *w.Portion.PouredMM*math.Pi*240*240/4, 1e-9)
}

func TestBatchScalesToACount(t *testing.T) {
	v := hatch(with("walnuts_chopped", 60, batter.StageFoldIn))
	for _, count := range []int{5, 24, 60} {
		v.Portion.Count = count
		w := workIn(t, v)
		assert.GreaterOrEqual(t, w.Portion.Count, count)
		assert.LessOrEqual(t, w.Portion.Count, count+3)
		assert.Equal(t, 0.0, math.Mod(find(t, w, "egg").Weigh, 25), "whole eggs, or half of one")
	}
}

// A third of a batch of two eggs takes half of one, says how it is measured, and what would take whole ones.
func TestHalfAnEgg(t *testing.T) {
	v := hatch()
	v.Portion.Count = 4
	w := workIn(t, v)
	require.Equal(t, 25.0, find(t, w, "egg").Weigh)
	assert.Equal(t, "½ egg", find(t, w, "egg").Measure)
	var told []string
	for _, n := range w.Notes {
		if n.Code == "eggs_whole" || n.Code == "half_egg" {
			told = append(told, n.Text)
			assert.NotEqual(t, worksheet.Warning, n.Kind)
		}
	}
	all := strings.Join(told, " ")
	assert.Contains(t, all, "became half of one.")
	assert.Regexp(t, `Make \d+ instead of 4, and the eggs are whole\.`, all)
	assert.Contains(t, all, "beat a whole one with a fork, and take so much of it: 25 g, 1½ tbsp + ½ tsp.")
	v.Portion.Count = 1
	w = workIn(t, v)
	assert.Zero(t, find(t, w, "egg").Weigh, "less than a quarter of one")
	assert.Contains(t, note(w, "eggs_whole"), "is left out: the liquid takes up its water.")
	assert.Contains(t, w.Allergens, "egg", "it stands in the recipe, and is told")
	assert.InDelta(t, w.Gauges.Thickness.Base(), w.Gauges.Thickness.After(), 0.08, "and it pours as it should, to a gram on a spoonful")
	v.Portion.Count = 12
	for _, n := range workIn(t, v).Notes {
		assert.NotEqual(t, "half_egg", n.Code, "that takes whole ones: %s", n.Text)
	}
}

func TestHistogramHoldsAllPortions(t *testing.T) {
	for _, id := range []string{"walnuts_chopped", "poppy_seeds", "blueberry_fresh"} {
		for _, stage := range []batter.Stage{batter.StageFoldIn, batter.StageOnPortion} {
			x := workIn(t, hatch(with(id, 20, stage))).Portion.Inclusions[0]
			var sum float64
			for _, p := range x.Histogram {
				sum += p
			}
			assert.InDelta(t, 1, sum, 0.003, "%s %s", id, stage)
			assert.LessOrEqual(t, len(x.Histogram), 41)
			last := x.From + len(x.Histogram)*x.Step - 1
			assert.True(t, float64(x.From) <= x.Mean && x.Mean <= float64(last))
		}
	}
}

func TestASliceUnderTheBatterIsNoLoad(t *testing.T) {
	w := workIn(t, hatch(with("apple_slice", 400, batter.StageUnderPortion)))
	assert.Nil(t, w.Portion.Load)
	assert.Positive(t, w.Portion.Inclusions[0].Cover)
	assert.Empty(t, note(w, "load"))
}

func TestEveryLadleSaysWhatItWouldGive(t *testing.T) {
	k := equipped()
	k.Ladles = []batter.Ladle{{ID: "l", Name: "Own", VolumeML: 80}}
	v := hatch(with("walnuts_chopped", 60, batter.StageFoldIn))
	w, err := worksheet.Work(context.Background(), v, k, shown)
	require.NoError(t, err)
	for _, c := range w.Portion.Choices {
		v.Portion.VolumeML = c.VolumeML
		chosen, err := worksheet.Work(context.Background(), v, k, shown)
		require.NoError(t, err)
		assert.Equal(t, chosen.Portion.Count, c.Count, c.Name)
		assert.InDelta(t, *chosen.Portion.DiameterMM, *c.DiameterMM, 1e-9)
	}
}

// Laid on each portion: whole pieces on every one, and never more than a portion carries.
func TestWhatFitsOnTopGoesEvenly(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		v := worked()
		in := rapid.SampledFrom([]string{"walnuts_chopped", "chocolate_chips", "blueberry_fresh", "ginger_crystallised"}).Draw(rt, "of")
		a := with(in, rapid.Float64Range(1, 400).Draw(rt, "g"), batter.StageOnPortion)
		a.ID = "a1"
		v.Additions = []batter.Addition{a}
		g, err := worksheet.FittingOnTop(context.Background(), v, batter.DefaultKitchen(), "a1")
		require.NoError(rt, err)
		v.Additions[0].Amount = g
		w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
		require.NoError(rt, err)
		x := w.Portion.Inclusions[0]
		assert.InDelta(rt, math.Round(x.Mean), x.Mean, 0.06, "whole pieces on each")
		assert.GreaterOrEqual(rt, x.Mean, 0.95)
		if x.Mean > 1.5 {
			assert.NotEqual(rt, "over", w.Portion.Load.Verdict)
		}
	})
}
