package worksheet_test

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/mixing"
	"upbeatladle/core/worksheet"
	"upbeatladle/internal/draws"
)

func spreadOf(t testing.TB, v batter.Variation) worksheet.Spread {
	t.Helper()
	w := cooked(t, v)
	require.NotNil(t, w.Portion.Spread)
	return *w.Portion.Spread
}

// Who is sent after a portion with the spoon: a thick pancake batter, and nobody else.
func TestWhoIsSpreadByHand(t *testing.T) {
	thick := thinned(hatch(), 320)
	s := spreadOf(t, thick)
	assert.Equal(t, batter.ByHand, s.By)
	assert.False(t, s.Chosen)
	assert.Greater(t, s.ToMM, s.ItselfMM+5)
	assert.Contains(t, s.Text, fmt.Sprintf("with the back of the spoon to %.0f mm, within 5 s", s.ToMM))
	assert.NotContains(t, s.Text, "pieces", "there are none")
	assert.Contains(t, spreadOf(t, thinned(hatch(add("walnuts_chopped", 60, batter.StageOnPortion)), 320)).Text, "before pieces go on")
	assert.Contains(t, steps(cooked(t, thick)), "Pour 60 ml. "+s.Text)
	assert.Equal(t, batter.ByItself, spreadOf(t, hatch()).By, "a standard one runs")
	for name, change := range map[string]func(*batter.Variation){
		"whipped whites": func(v *batter.Variation) { v.Base.Style = batter.Whipped },
		"yeast":          func(v *batter.Variation) { v.Base.Style = batter.Yeast },
		"pulled fluffier": func(v *batter.Variation) {
			v.Offset.Targets = batter.Targets{batter.HoldLift: 1.25}
		},
		"pulled thicker": func(v *batter.Variation) {
			v.Offset.Targets = batter.Targets{batter.HoldThickness: 0.95}
		},
	} {
		v := thinned(hatch(), 320)
		change(&v)
		assert.Equal(t, batter.ByItself, spreadOf(t, v).By, name)
		assert.NotContains(t, steps(cooked(t, v)), "Spread it", name)
	}
	for ml, mm := range map[float64]float64{20: 75, 40: 84} { // handbooks: 70 to 80 mm for 15 to 20 ml
		s := spreadOf(t, dropScone(ml))
		assert.Equal(t, batter.ByItself, s.By, "drop scones settle")
		assert.InDelta(t, mm, s.ToMM, 2, "%g ml", ml)
	}
	crepe := hatch()
	crepe.Form = batter.Crepe
	assert.Contains(t, spreadOf(t, crepe).Text, "Tilt the pan at once")
	cake := hatch(add("courgette_grated", 700, batter.StageFoldIn))
	s = spreadOf(t, cake)
	assert.Contains(t, s.Text, "Pat it flat")
	w := cooked(t, cake)
	assert.InDelta(t, 9, *w.Portion.PouredMM, 0.01, "a grated cake is patted to 8 to 10 mm")
	waffle := hatch()
	waffle.Form = batter.Waffle
	assert.Nil(t, cooked(t, waffle).Portion.Spread)
	waffle.Portion.Spread = batter.Spread{By: batter.ByHand, ToMM: 100}
	_, err := worksheet.Work(context.Background(), waffle, batter.DefaultKitchen(), worksheet.Include{})
	assert.ErrorContains(t, err, "shape of its iron")
	thick.Portion.Spread = batter.Spread{By: batter.ByHand, ToMM: 500}
	_, err = worksheet.Work(context.Background(), thick, batter.DefaultKitchen(), worksheet.Include{})
	assert.ErrorContains(t, err, "between 40 and 400 mm across")
	thick.Portion.Spread.ToMM = 300
	s = spreadOf(t, thick)
	assert.InDelta(t, 159.6, s.ToMM, 0.1, "a layer of 3 mm: 60 ml over a disc")
	assert.Contains(t, s.Text, "60 ml go no wider")
	thick.Portion.Spread.ToMM = 75
	s = spreadOf(t, thick)
	assert.Equal(t, batter.ByItself, s.By)
	assert.Contains(t, s.Text, "no hand makes it narrower")
}

// One width in every place: the portion, its area, its thickness and heat, the ladle's choice, the step, the working.
func TestOneWidthInEveryPlace(t *testing.T) {
	draws.Few(t)
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{{ID: "long", Name: "The long plate", WidthMM: 700, DepthMM: 400}}
	k.Ladles = []batter.Ladle{{ID: "l", Name: "Ladle", VolumeML: 60}}
	rapid.Check(t, func(t *rapid.T) {
		v := thinned(hatch(add("blueberry_fresh", 120, batter.StageOnPortion)), rapid.Float64Range(300, 560).Draw(t, "milk"))
		v.Base.Style = rapid.SampledFrom([]batter.Style{"", batter.Whipped}).Draw(t, "style")
		switch rapid.IntRange(0, 2).Draw(t, "wish") {
		case 1:
			v.Portion.Spread.By = batter.ByItself
		case 2:
			v.Portion.Spread = batter.Spread{By: batter.ByHand, ToMM: math.Round(rapid.Float64Range(40, 400).Draw(t, "to"))}
		}
		w, lies, err := worksheet.AtPlate(context.Background(), v, k)
		require.NoError(t, err)
		full, err := worksheet.Work(context.Background(), v, k, worksheet.Include{Cook: true, Choices: true, Drawing: true, Working: true})
		require.NoError(t, err)
		s, d := full.Portion.Spread, *full.Portion.DiameterMM
		same := func(what string, mm float64) {
			if math.Abs(mm-d) > 1e-9 {
				t.Fatalf("%s is %g mm, the portion %g", what, mm, d)
			}
		}
		same("the board's", lies.WideMM)
		same("the board's portion", *w.Portion.DiameterMM)
		same("the spread's", s.ToMM)
		same("the ladle's", *full.Portion.Choices[0].DiameterMM)
		same("the drawing's", full.Portion.Drawing.WidthMM)
		area := math.Pi * d * d / 4
		if math.Abs(*full.Portion.PouredMM*area-60000) > 1e-6 || math.Abs(lies.ThickMM-*full.Portion.PouredMM) > 1e-9 {
			t.Fatalf("%g mm thick on %g mm² are not 60 ml", *full.Portion.PouredMM, area)
		}
		for _, x := range full.Working {
			if x.Figure == "diameter" {
				same("the working's", x.Terms[len(x.Terms)-1].Value)
			}
		}
		if s.By == batter.ByHand && s.ToMM < s.ItselfMM || s.LowMM > s.HighMM {
			t.Fatalf("narrower than it runs: %+v", s)
		}
		if told := fmt.Sprintf("to %.0f mm, within 5 s", d); (s.By == batter.ByHand) != contains(full, told) {
			t.Fatalf("the steps do not tell %q as the portion does: %+v", told, s)
		}
	})
}

func contains(w worksheet.Worksheet, text string) bool {
	return slices.ContainsFunc(w.Mixing, func(s mixing.Step) bool { return s.Code == mixing.CodePour && strings.Contains(s.Text, text) })
}

// A pull of thickness moves the width without a step where it is not pulled at all, and a thicker one lies narrower.
func TestAPullOfThicknessHasNoStep(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		milk := rapid.Float64Range(330, 520).Draw(t, "milk")
		width := func(pull float64) float64 {
			v := thinned(hatch(), milk)
			v.Offset.Targets = batter.Targets{batter.HoldThickness: pull}
			k := batter.DefaultKitchen()
			k.ScaleStep = 0.01
			w, err := worksheet.Work(context.Background(), v, k, worksheet.Include{})
			require.NoError(t, err)
			return *w.Portion.DiameterMM
		}
		v := thinned(hatch(), milk)
		w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
		require.NoError(t, err)
		if at, none := width(1), *w.Portion.DiameterMM; math.Abs(at-none) > 0.3 {
			t.Fatalf("pulled to 1.00 it lies %g mm, not pulled %g", at, none)
		}
		if a, b, c := width(0.9), width(1), width(1.1); a >= b || b >= c {
			t.Fatalf("thicker is narrower: %g, %g, %g", a, b, c)
		}
	})
}

// What is advised of frozen pieces is not warned of once it is followed: laid on straight from the freezer only as many
// as the heat of the batter thaws.
func TestFrozenAdviceTripsNoWarning(t *testing.T) {
	for _, grams := range []float64{100, 250, 700} {
		folded := cooked(t, cultured(add("blueberry_frozen", grams, batter.StageFoldIn)))
		laid := strings.Join(cooked(t, cultured(add("blueberry_frozen", grams, batter.StageOnPortion))).Cook.Warnings, " ")
		said := note(folded, "bleed")
		require.NotEmpty(t, said)
		assert.Equal(t, strings.Contains(said, "straight from the freezer"), !strings.Contains(laid, "thaw them first"), "%g g: %s / %s", grams, said, laid)
	}
}
