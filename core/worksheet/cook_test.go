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
	"upbeatladle/core/food"
	"upbeatladle/core/mixing"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
	"upbeatladle/internal/draws"
)

func cookedIn(t testing.TB, v batter.Variation, k batter.Kitchen) worksheet.Worksheet {
	t.Helper()
	w, err := worksheet.Work(context.Background(), v, k, worksheet.Include{Cook: true, Nutrition: true})
	require.NoError(t, err)
	require.NotNil(t, w.Cook)
	return w
}

func cooked(t testing.TB, v batter.Variation) worksheet.Worksheet {
	return cookedIn(t, v, batter.DefaultKitchen())
}

func steps(w worksheet.Worksheet) string { return mixing.Told(w.Mixing) }

func TestTheHeatIsToldAgainstTheBase(t *testing.T) {
	plain, beets := cooked(t, hatch()), cooked(t, hatch(add("beetroot_cooked", 200, batter.StageBatter)))
	assert.Nil(t, plain.Cook.Base, "the base is not compared with itself")
	require.NotNil(t, beets.Cook.Base)
	assert.Equal(t, plain.Cook.GriddleC, beets.Cook.Base.GriddleC)
	assert.Equal(t, plain.Cook.FirstSideS, beets.Cook.Base.FirstSideS)
	assert.LessOrEqual(t, *beets.Cook.SecondSideS, beets.Cook.FirstSideS, "nor does a wet batter take longer on the second side than on the first")
	assert.Contains(t, strings.Join(beets.Cook.Reasons, "\n"), "Beetroot hides the gold")
	assert.NotContains(t, beets.Cook.SignsFirst, "golden underneath")
	assert.Greater(t, *beets.Cook.CentreC, 74.0)
	for _, w := range []worksheet.Worksheet{plain, beets} {
		at := slices.IndexFunc(w.Verdict, func(v worksheet.Verdict) bool { return v.Kind == "heat" })
		require.GreaterOrEqual(t, at, 0)
		assert.Equal(t, w.Cook.Lead, w.Verdict[at].Lead)
		assert.Equal(t, "allergens", w.Verdict[len(w.Verdict)-1].Kind, "what it contains stays the last word")
		assert.Contains(t, steps(w), "about "+words.Seconds(w.Cook.FirstSideS), "the steps and the panel say the same")
	}
	assert.Nil(t, work(t, hatch()).Cook, "nobody asked")
}

func TestThePlateThatIsThere(t *testing.T) {
	v := hatch()
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{
		{ID: "long", Name: "The long plate", WidthMM: 900, DepthMM: 400, MinC: 120, MaxC: 230, Dial: batter.Numbers, Marks: []batter.Mark{{At: 0, C: 120}, {At: 4, C: 170}, {At: 8, C: 230}}, HeatUpMin: 12},
		{ID: "mild", Name: "The mild plate", WidthMM: 900, DepthMM: 400, MinC: 80, MaxC: 110},
	}
	w := cookedIn(t, v, k)
	assert.Equal(t, "The long plate", w.Cook.On)
	assert.Equal(t, 12.0, w.Cook.PreheatMin)
	assert.Equal(t, "just under 5", w.Cook.Dial, "168 °C on a dial of 12.5 K a mark")
	assert.Contains(t, steps(w), "just under 5, 168 °C (335 °F)")
	v.Cooking.HotStart = true
	hot := cookedIn(t, v, k)
	assert.Contains(t, steps(hot), fmt.Sprintf("pour at %.0f °C, and after 45 s turn it down to %.0f °C", hot.Cook.GriddleC+20, hot.Cook.GriddleC))
	k.Griddles[0].MaxC = hot.Cook.GriddleC + 5
	assert.Contains(t, steps(cookedIn(t, v, k)), fmt.Sprintf("pour at %.0f °C", k.Griddles[0].MaxC), "no hotter than the plate goes")
	k.Griddles[0].MaxC = 230
	v.Cooking.HotStart = false
	v.Cooking.On = "mild"
	w = cookedIn(t, v, k)
	assert.LessOrEqual(t, w.Cook.GriddleC, 110.0)
	assert.Contains(t, strings.Join(w.Cook.Warnings, "\n"), "stays pale")
	v.Cooking.PlateC = 190
	w = cookedIn(t, v, k)
	assert.True(t, w.Cook.Given)
	assert.Equal(t, 190.0, w.Cook.GriddleC)
	assert.Contains(t, strings.Join(w.Cook.Warnings, "\n"), "cannot stand at 190 °C")
	k.Measures.Name = "us"
	assert.Contains(t, cookedIn(t, v, k).Cook.Lead, "375 °F")
	k.Griddles[1].ShiftC = 10
	assert.Contains(t, cookedIn(t, v, k).Cook.Dial, "180 °C on its own scale", "it is hotter than it says")
}

func TestSignsAreTrueToTheBowl(t *testing.T) {
	assert.Contains(t, cooked(t, hatch()).Cook.SignsFirst, "bubbles stay open")
	flat := hatch()
	flat.Base.Lines = slices.DeleteFunc(flat.Base.Lines, func(l batter.Line) bool { return l.Ingredient.CO2 > 0 })
	assert.NotContains(t, strings.Join(cooked(t, flat).Cook.SignsFirst, ";"), "bubbles", "with little gas never wait for bubbles")
	crepe := hatch()
	crepe.Form = batter.Crepe
	c := cooked(t, crepe).Cook
	assert.Equal(t, []float64{45, 75}, c.RangeS)
	assert.Contains(t, c.Reasons[0], "the signs decide")
	iron := hatch()
	iron.Form, iron.Portion.VolumeML = batter.Waffle, 120
	w := cooked(t, iron)
	assert.Nil(t, w.Cook.SecondSideS)
	assert.True(t, w.Cook.FirstSideS >= 120 && w.Cook.FirstSideS <= 300, "irons take 2 to 5 min")
	assert.Empty(t, w.Cook.SignsSecond)
	assert.Contains(t, strings.Join(w.Cook.SignsFirst, ";"), "steam")
	assert.NotContains(t, steps(w), "Flip")
	k := batter.DefaultKitchen()
	k.Irons = []batter.Iron{{ID: "i", Name: "Iron", Round: true, WidthMM: 180, LengthMM: 180, DepthMM: 26, GapMM: 9, Moulds: 1, Light: true, ClosedS: 215}}
	w = cookedIn(t, iron, k)
	assert.Equal(t, 215.0, w.Cook.FirstSideS, "its own light's time")
	assert.Contains(t, w.Cook.SignsFirst, "its own light or tone")
	k.Irons[0].ClosedS = 30
	w = cookedIn(t, iron, k)
	assert.Greater(t, w.Cook.FirstSideS, 30.0, "a light that comes too early does not make it safe")
	assert.Contains(t, strings.Join(w.Cook.Warnings, ";"), "before the middle is surely set")
	assert.Contains(t, steps(w), "leave it closed for "+words.Seconds(w.Cook.FirstSideS))
}

// The heat cooks the portion that is shown, of the bowl and of its base, in a pan too small for it as well.
func TestTheHeatAndThePortionAreOfOnePiece(t *testing.T) {
	draws.Few(t)
	rapid.Check(t, func(t *rapid.T) {
		v := anyVariation(t)
		v.Base.Style = rapid.SampledFrom([]batter.Style{"", batter.Whipped, batter.Yeast}).Draw(t, "style")
		v.Portion.VolumeML = rapid.Float64Range(20, 500).Draw(t, "ml")
		if v.Form == batter.Waffle || v.Form == batter.Crepe {
			v.Form = batter.Pancake
		}
		k := batter.DefaultKitchen()
		k.Griddles = []batter.Griddle{{ID: "pan", Name: "Pan", Round: true, WidthMM: 220, DepthMM: 220}}
		w, err := worksheet.Work(context.Background(), v, k, worksheet.Include{Cook: true})
		require.NoError(t, err)
		plain := v
		plain.Additions = nil
		alone, err := worksheet.Work(context.Background(), plain, k, worksheet.Include{Cook: true})
		require.NoError(t, err)
		if w.Portion.DiameterMM != nil && *w.Portion.DiameterMM > 220+1e-9 {
			t.Fatalf("%g mm in a pan of 220", *w.Portion.DiameterMM)
		}
		if b := w.Cook.Base; b != nil && (b.GriddleC != alone.Cook.GriddleC || b.FirstSideS != alone.Cook.FirstSideS || *b.SecondSideS != *alone.Cook.SecondSideS) {
			t.Fatalf("the base is %+v, alone it is %s", *b, alone.Cook.Lead)
		}
	})
}

func TestTheFatOfThePlateIsCountedOnce(t *testing.T) {
	v := hatch()
	none := cooked(t, v)
	assert.False(t, none.Cook.Fat.Counted, "nobody has said")
	assert.Contains(t, none.Cook.Fat.Text, "Nobody has said")
	v.Cooking.Fat = batter.Butter
	w := cooked(t, v)
	g := w.Cook.Fat.GramsPerPortion
	assert.InDelta(t, g*0.8111, w.NutritionPerPortion.Fat-none.NutritionPerPortion.Fat, 1e-6, "butter is 81 % fat by its row")
	assert.True(t, w.Cook.Fat.Counted)
	assert.Equal(t, *w.NutritionPerPortion, *work(t, v).NutritionPerPortion, "whether the heat was asked for or not")
	v.Cooking.When = batter.AtFlip
	assert.InDelta(t, 2*g, cooked(t, v).Cook.Fat.GramsPerPortion, 1e-9)
	v.Cooking.Fat = batter.NoFat
	assert.Zero(t, cooked(t, v).Cook.Fat.GramsPerPortion)

	v = hatch()
	v.Beside = []batter.Beside{{Place: batter.InPan, Text: "Ghee for the pan", Uses: []*food.Ingredient{food.Reference().ByID("ghee")}, Grams: []float64{27}}}
	w = cooked(t, v)
	assert.InDelta(t, 27/float64(w.Portion.Count), w.Cook.Fat.GramsPerPortion, 1e-9, "what the recipe names is the amount")
	assert.Contains(t, w.Allergens, "milk")

	v.Beside[0].EachG = 5.5
	v.Cooking.Fat = batter.Oil
	none = cooked(t, hatch())
	w = cooked(t, v)
	assert.Equal(t, 5.5, w.Cook.Fat.GramsPerPortion, "so much for each piece is the last word, and the one place")
	assert.InDelta(t, 5.5*food.Reference().ByID("ghee").Fat/100, w.NutritionPerPortion.Fat-none.NutritionPerPortion.Fat, 1e-6, "once")
	assert.Contains(t, steps(w), "5.5 g for a pancake")
	assert.NotContains(t, w.Cook.Fat.Text, "about")
	assert.Equal(t, []string{"ghee"}, w.Cook.Fat.Ingredients, "the usual oil is not added beside it")
}

// Milk in the butter for the pan is told even where the batter has none.
func TestThePansAllergensAreTold(t *testing.T) {
	oat := func() batter.Variation {
		v := hatch()
		v.Base.Lines = []batter.Line{line("f", "plain_flour", 250, "g"), line("w", "water", 330, "g"), line("p", "baking_powder", 10, "g")}
		return v
	}
	assert.NotContains(t, work(t, oat()).Allergens, "milk")
	v := oat()
	v.Cooking.Fat = batter.Butter
	assert.Contains(t, work(t, v).Allergens, "milk")
	v = oat()
	v.Base.School.PanFat = "butter and oil"
	assert.Contains(t, work(t, v).Allergens, "milk")
	v.Base.School.PanFat = "the usual blend"
	assert.Contains(t, work(t, v).AllergenText, "Not known: “the usual blend” for the pan")
	v.Base.School.PanFat = "peanut butter"
	assert.Contains(t, work(t, v).AllergenText, "Not known", "other butters are not butter")
}

func TestPlacingIsToldInOrder(t *testing.T) {
	in := func(w worksheet.Worksheet, want ...string) {
		t.Helper()
		text, at := steps(w), -1
		for _, s := range want {
			i := strings.Index(text, s)
			assert.Greater(t, i, at, "%q in its place in:\n%s", s, text)
			at = i
		}
	}
	v := hatch(add("apple_slice", 200, batter.StageUnderPortion), add("chocolate_chips", 60, batter.StageOnPortion))
	v.Beside = []batter.Beside{{Place: batter.OnTop, Text: "a pat of butter"}}
	in(cooked(t, v), "Spread test", "Switch on", "down first", "Pour 60 ml over it", "a little batter over them: they scorch", "First side", "Flip once", "74 °C by a probe", "Serve: a pat of butter")
	v = hatch()
	v.Form, v.Portion.VolumeML = batter.Waffle, 120
	v.Beside = []batter.Beside{{Place: batter.Middle, Text: "slices of cheese"}}
	in(cooked(t, v), "half of it first", "Between the two pours: slices of cheese", "Close, about")
	v = hatch()
	v.Portion.VolumeML = 700
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{{ID: "pan", Name: "Pan", Round: true, WidthMM: 260, DepthMM: 260}}
	w := cookedIn(t, v, k)
	in(w, "let it run to the rim", "let the wet top run under", "Too wide to turn with turners")
	assert.LessOrEqual(t, w.Cook.FirstSideS, 900.0)
}

func TestBowlsThatNoHeatCooks(t *testing.T) {
	thick := hatch()
	thick.Portion.VolumeML = 1000
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{{ID: "pan", Name: "Small pan", Round: true, WidthMM: 170, DepthMM: 170}}
	w := cookedIn(t, thick, k)
	assert.Zero(t, w.Cook.FirstSideS)
	assert.Contains(t, strings.Join(w.Cook.Warnings, "\n"), "stays raw inside")
	assert.NotContains(t, steps(w), "Flip once")
	frozen := hatch(add("blueberry_frozen", 250, batter.StageOnPortion))
	fresh := hatch(add("blueberry_fresh", 250, batter.StageOnPortion))
	assert.GreaterOrEqual(t, cooked(t, frozen).Cook.FirstSideS, cooked(t, fresh).Cook.FirstSideS, "ice takes heat")
	cold := hatch()
	cold.Cooking.From = batter.FromFridge
	assert.Greater(t, cooked(t, cold).Cook.FirstSideS+*cooked(t, cold).Cook.SecondSideS, cooked(t, hatch()).Cook.FirstSideS)
}

// Whatever goes in: times and temperatures that a cook can set, a second side that is safe, the
// same in the panel, the verdict and the steps, and milk in the pan always named.
func TestAnyVariationIsCookedSanely(t *testing.T) {
	draws.Few(t)
	shelf := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		v := hatch()
		for i := range rapid.IntRange(0, 3).Draw(t, "additions") {
			in := rapid.SampledFrom(shelf).Draw(t, "ingredient")
			a := add(in.ID, rapid.Float64Range(0, 300).Draw(t, "g"), rapid.SampledFrom(batter.Stages).Draw(t, "stage"))
			a.ID = fmt.Sprint("a", i)
			v.Additions = append(v.Additions, a)
		}
		v.Form = rapid.SampledFrom(batter.Forms).Draw(t, "form")
		v.Portion.VolumeML = rapid.Float64Range(5, 400).Draw(t, "ml")
		v.Cooking = batter.Cooking{
			PlateC: rapid.SampledFrom([]float64{0, 0, 0, 90, 165, 280}).Draw(t, "plate"), Colour: rapid.SampledFrom([]batter.Colour{"", batter.Pale, batter.Deep}).Draw(t, "colour"),
			From: rapid.SampledFrom([]batter.From{"", batter.FromFridge}).Draw(t, "from"), Fat: rapid.SampledFrom(append([]batter.Fat{""}, batter.Fats...)).Draw(t, "fat"),
			HotStart: rapid.Bool().Draw(t, "hot"), Lacy: rapid.Bool().Draw(t, "lacy"),
		}
		w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{Cook: true})
		if err != nil {
			t.Skip("not a variation")
		}
		c := w.Cook
		for _, f := range []*float64{&c.GriddleC, &c.FirstSideS, c.SecondSideS, c.CentreC, &c.Fat.GramsPerPortion} {
			if f != nil && (math.IsNaN(*f) || math.IsInf(*f, 0) || *f < 0) {
				t.Fatalf("%g in %+v", *f, c)
			}
		}
		if v.Cooking.PlateC == 0 { // no advice trips over the advice
			for _, warning := range c.Warnings {
				for _, against := range []string{"turn it down,", "turn it up", "ower and longer", "cannot stand"} {
					if strings.Contains(warning, against) {
						t.Fatalf("%s: %s", c.Lead, warning)
					}
				}
			}
		}
		if c.FirstSideS == 0 && len(c.Warnings) == 0 {
			t.Fatal("no time and no word why")
		}
		if c.FirstSideS > 0 && !strings.Contains(steps(w), words.Seconds(c.FirstSideS)) {
			t.Fatal("the steps do not say the minutes")
		}
		if (v.Cooking.Fat == batter.Butter || v.Cooking.Fat == batter.Both) && !slices.Contains(w.Allergens, "milk") {
			t.Fatal("butter without milk")
		}
		var grams float64
		for _, s := range w.Mixing {
			for _, u := range s.Uses {
				grams += u.G
			}
		}
		var weighed float64
		for _, l := range w.Lines {
			weighed += l.Weigh
		}
		if math.Abs(grams-weighed) > 0.01*weighed+1e-6 {
			t.Fatalf("the steps use %g of %g g", grams, weighed)
		}
	})
}

func BenchmarkWithHeat(b *testing.B) {
	v := hatch(add("beetroot_cooked", 200, batter.StageBatter))
	for b.Loop() {
		if _, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{Cook: true}); err != nil {
			b.Fatal(err)
		}
	}
}

// A card's line is the panel's line.
func TestTheLineOfACardIsThePanels(t *testing.T) {
	for _, v := range []batter.Variation{hatch(add("beetroot_cooked", 200, batter.StageBatter)), hatch()} {
		w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{HeatLine: true})
		require.NoError(t, err)
		assert.Equal(t, cooked(t, v).Cook.Lead, w.Cook.Lead)
		assert.Nil(t, w.Cook.Base, "nothing of why")
	}
}

// However many lines stand in for one of the base, the base's own portion on the plate is the base's.
func TestTheHeatOfABaseWithAStandIn(t *testing.T) {
	plain := cooked(t, hatch())
	for _, ids := range [][]string{{"water"}, {"whole_milk_powder", "water"}, {"whole_milk_powder", "water", "milk_whole"}, nil} {
		v := hatch(add("blueberry_fresh", 80, batter.StageFoldIn))
		own := slices.Clone(v.Base.Lines)
		v.Reference.Lines = own
		at := slices.IndexFunc(own, func(l batter.Line) bool { return l.Ingredient.ID == "milk_whole" })
		require.GreaterOrEqual(t, at, 0)
		lines := slices.Delete(slices.Clone(own), at, at+1)
		for _, id := range ids {
			l := own[at]
			amount := l.Amount / float64(len(ids))
			l.Ingredient, l.Amount, l.ID = food.Reference().ByID(id), amount, id
			lines = append(lines, l)
		}
		v.Base.Lines = lines
		w := cooked(t, v)
		if w.Cook.FirstSideS > 0 {
			require.NotNil(t, w.Cook.Base, ids)
			assert.Equal(t, plain.Cook.GriddleC, w.Cook.Base.GriddleC, ids)
		}
	}
}
