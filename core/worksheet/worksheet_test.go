package worksheet_test

import (
	"context"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/worksheet"
)

var in = food.Reference().ByID

func line(id, ingredient string, amount float64, unit measure.Unit) batter.Line {
	return batter.Line{ID: id, Ingredient: in(ingredient), Amount: amount, Unit: unit, Role: in(ingredient).Role}
}

// worked is the worked base of docs/maths.md section 6 with a pinch of what else a batter has.
func worked(additions ...batter.Addition) batter.Variation {
	return batter.Variation{
		Name: "Worked", Form: batter.Pancake,
		Base: batter.Base{Name: "Plain", Lines: []batter.Line{
			line("flour", "plain_flour", 250, measure.Gram), line("milk", "milk_whole", 400, measure.Gram),
			line("egg", "egg_whole", 2, measure.Each), line("butter", "butter_unsalted", 50, measure.Gram),
			line("sugar", "granulated_sugar", 30, measure.Gram),
		}},
		Additions: additions,
		Offset:    batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: batter.BySweetness, Hold: []batter.Hold{batter.HoldThickness, batter.HoldSweetness}},
		Portion:   batter.Portion{VolumeML: 60},
	}
}

func add(ingredient string, grams float64, stage batter.Stage) batter.Addition {
	return batter.Addition{Line: line("a-"+ingredient, ingredient, grams, measure.Gram), Stage: stage}
}

// shown is what most tests look at; the heat has tests of its own.
var shown = worksheet.Include{Working: true, Strategies: true, Choices: true, Drawing: true, Nutrition: true}

func work(t require.TestingT, v batter.Variation) worksheet.Worksheet {
	w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), shown)
	require.NoError(t, err)
	return w
}

func find(t require.TestingT, w worksheet.Worksheet, id string) worksheet.Line {
	i := slices.IndexFunc(w.Lines, func(l worksheet.Line) bool { return l.ID == id })
	require.GreaterOrEqual(t, i, 0, id)
	return w.Lines[i]
}

func codes(w worksheet.Worksheet) []string {
	var out []string
	for _, n := range w.Notes {
		out = append(out, n.Code)
	}
	return out
}

// The worked scale of docs/maths.md section 6, weighed out: 200 g beetroot purée holds back 113 g milk, 12 g sugar.
func TestBeetrootLedger(t *testing.T) {
	w := work(t, worked(add("beetroot_cooked", 200, batter.StageBatter)))
	milk, sugar, flour := find(t, w, "milk"), find(t, w, "sugar"), find(t, w, "flour")
	assert.InDelta(t, 287, milk.Weigh, 1)
	assert.Equal(t, worksheet.Less, milk.State)
	assert.InDelta(t, milk.Weigh, *milk.Base+*milk.Offset, 1e-9, "the row adds up")
	assert.InDelta(t, 18.5, sugar.Weigh, 1)
	assert.Equal(t, worksheet.AsItIs, flour.State)
	assert.Zero(t, *flour.Offset)
	// It acts like the purée's own liquid, body and sugar on top of the base.
	assert.InDelta(t, 400+200*(0.8706+0.62*0.0796+0.65*0.0018+0.74*0.0168)/0.953, *milk.ActsLike, 3)
	assert.InDelta(t, 250+200*0.18, *flour.ActsLike, 1e-9)
	assert.Greater(t, *sugar.ActsLike, 42.0)
	assert.Equal(t, worksheet.Level, w.Gauge("thickness").State)
	assert.InDelta(t, 1.99, w.Gauge("thickness").Base(), 0.005)
	assert.InDelta(t, 2.38, w.Gauge("thickness").With(), 0.005)
	assert.Equal(t, "Whole milk 287 g, white sugar 19 g", w.Verdict[0].Lead)
	assert.Equal(t, "as the base: plain wheat flour 250 g, hen egg 100 g, butter 50 g", w.Verdict[0].Reason)
	assert.Empty(t, w.Notes)
}

func TestAfterValuesAreThoseOfTheRoundedRecipe(t *testing.T) {
	v := worked(add("beetroot_cooked", 200, batter.StageBatter))
	k := batter.DefaultKitchen()
	k.ScaleStep = 50
	w, err := worksheet.Work(context.Background(), v, k, shown)
	require.NoError(t, err)
	assert.Equal(t, 300.0, find(t, w, "milk").Weigh)
	assert.Greater(t, w.Gauge("thickness").After(), 2.02, "the coarse scale leaves it thinner, and it shows")
}

// 10 kg of purée in a small base is not an error: it is answered with what gives way.
func TestTooMuchPureeIsAnswered(t *testing.T) {
	w := work(t, worked(add("beetroot_cooked", 10_000, batter.StageBatter)))
	assert.Subset(t, codes(w), []string{"thickness_left", "sugar_floor", "out_of_range"})
	assert.Equal(t, worksheet.Stuck, find(t, w, "milk").State)
	assert.Equal(t, 140.0, find(t, w, "milk").Weigh)
	for _, n := range w.Notes {
		assert.NotContains(t, n.Text, "NaN")
	}
}

func TestRoundingAndMeasures(t *testing.T) {
	v := worked(add("beetroot_cooked", 200, batter.StageBatter), add("cardamom", 1.23, batter.StageDry))
	v.Base.Lines = append(v.Base.Lines, line("powder", "baking_powder", 2, measure.Tsp))
	w := work(t, v)
	assert.Equal(t, 9.3, find(t, w, "powder").Weigh, "leaveners to 0.1 g: 2 metric spoons of 4.665 g")
	assert.Equal(t, "2 tsp", find(t, w, "powder").Measure)
	assert.Equal(t, 1.2, find(t, w, "a-cardamom").Weigh)
	assert.Equal(t, "2 eggs", find(t, w, "egg").Measure)
}

// What a recipe has by the spoon is told by that spoon: the gram of the scale's step does not make 2⅞ tsp of a tablespoon.
func TestSpoonsAreThoseOfTheRecipe(t *testing.T) {
	for _, id := range []string{"granulated_sugar", "honey", "cocoa_powder", "oil_vegetable", "baking_powder", "milk_powder"} {
		if food.Reference().ByID(id) == nil {
			continue
		}
		for unit, said := range map[measure.Unit]string{measure.Tbsp: "1 tbsp", measure.Tsp: "1 tsp", measure.Cup: "1 cup"} {
			v := worked()
			v.Base.Lines = append(v.Base.Lines, line("x", id, 1, unit))
			v.Offset.Strategy = batter.Leave
			w, bowl, err := worksheet.Recipe(t.Context(), v, batter.DefaultKitchen(), worksheet.Include{})
			require.NoError(t, err)
			l := find(t, w, "x")
			assert.Equal(t, said, l.Measure, id)
			for _, item := range bowl.Items {
				if item.ID == "x" {
					_, text := item.Fills(l.Weigh)
					assert.Equal(t, said, text, "%s, on the sheet", id)
				}
			}
		}
	}
}

func TestUnitChoiceNeverChangesGramsBeyondRounding(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		unit := rapid.SampledFrom(measure.Units).Draw(t, "unit")
		std := measure.Standards[rapid.SampledFrom([]string{"us", "metric", "imperial", "au"}).Draw(t, "measures")]
		k := batter.DefaultKitchen()
		k.Measures = std
		inGrams := worked(add("carrot_grated", 180, batter.StageBatter))
		a, err := worksheet.Work(context.Background(), inGrams, k, shown)
		require.NoError(t, err)
		other := worked(add("carrot_grated", 180, batter.StageBatter))
		amount, err := std.FromGrams(180, unit, in("carrot_grated").Subject())
		if err != nil {
			return
		}
		other.Additions[0].Amount, other.Additions[0].Unit = amount, unit
		b, err := worksheet.Work(context.Background(), other, k, shown)
		require.NoError(t, err)
		for i := range a.Lines {
			assert.InDelta(t, a.Lines[i].Weigh, b.Lines[i].Weigh, 1e-6)
		}
	})
}

func TestMassIsConservedOnTheSheet(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var adds []batter.Addition
		bowl := 0.0
		for range rapid.IntRange(0, 4).Draw(t, "n") {
			stage := rapid.SampledFrom(batter.Stages).Draw(t, "stage")
			g := measure.Round(rapid.Float64Range(0, 400).Draw(t, "g"), 0.001)
			adds = append(adds, add(rapid.SampledFrom(food.Reference().All()).Draw(t, "in").ID, g, stage))
		}
		v := worked(adds...)
		v.Offset.Strategy = rapid.SampledFrom([]batter.Strategy{batter.HoldBackLiquid, batter.BuildUpFlour, batter.Shared, batter.Leave}).Draw(t, "strategy")
		v.Form = rapid.SampledFrom(batter.Forms).Draw(t, "form")
		w := work(t, v)
		for _, l := range w.Lines {
			if l.From == worksheet.FromBase || l.Stage.InBowl() {
				bowl += l.Weigh
			}
			assert.False(t, math.IsNaN(l.Weigh) || l.Weigh < 0)
		}
		assert.InDelta(t, bowl, w.Batter.MassG, 1e-6, "the bowl is the sum of what is weighed")
		assert.GreaterOrEqual(t, w.Portion.Count, 0)
		assert.InDelta(t, w.Batter.VolumeML*0.975, float64(w.Portion.Count)*60+w.Portion.LeftOverML, 1e-6)
		if w.Portion.DiameterMM != nil {
			assert.InEpsilon(t, 60_000, *w.Portion.PouredMM*math.Pi*math.Pow(*w.Portion.DiameterMM, 2)/4, 1e-6)
		}
	})
}

func TestWhatIsPutOnThePortionLeavesTheBowlAlone(t *testing.T) {
	plain := work(t, worked())
	w := work(t, worked(add("blueberry_frozen", 150, batter.StageOnPortion)))
	assert.Equal(t, plain.Gauge("thickness").After(), w.Gauge("thickness").After())
	assert.Equal(t, plain.Batter.MassG, w.Batter.MassG)
	assert.Nil(t, find(t, w, "a-blueberry_frozen").Brings)
}

func TestForms(t *testing.T) {
	v := worked()
	v.Form = batter.Waffle
	w := work(t, v)
	assert.Nil(t, w.Portion.DiameterMM)
	assert.NotEmpty(t, w.Portion.Reason)
	v.Form = batter.Crepe
	w = work(t, v)
	assert.InDelta(t, 252, *w.Portion.DiameterMM, 1)
	assert.Equal(t, worksheet.Level, w.Gauge("thickness").State)
	v.Form = batter.Flourless
	v.Base.Lines = []batter.Line{line("banana", "banana_mashed", 2, measure.Each), line("egg", "egg_whole", 3, measure.Each)}
	w = work(t, v)
	assert.Equal(t, worksheet.Unknown, w.Gauge("thickness").State)
	assert.Empty(t, w.Batter.Class)
	assert.Contains(t, codes(w), "flourless")
}

func TestGratedCakeIsDescribedNotJudged(t *testing.T) {
	w := work(t, worked(add("cabbage_white_grated", 2500, batter.StageBatter)))
	assert.Equal(t, worksheet.Unknown, w.Gauge("thickness").State)
	assert.Contains(t, codes(w), "grated_cake")
}

func TestVerdictWithoutOffsets(t *testing.T) {
	assert.Equal(t, "nothing is added yet", work(t, worked()).Verdict[0].Reason)
	assert.Equal(t, "nothing has to give way", work(t, worked(add("chocolate_chips", 80, batter.StageFoldIn))).Verdict[0].Reason)
	v := worked(add("beetroot_cooked", 200, batter.StageBatter))
	v.Offset.Strategy = batter.Leave
	w := work(t, v)
	assert.Equal(t, "no offsets, as you asked", w.Verdict[0].Reason)
	assert.Equal(t, worksheet.High, w.Gauge("thickness").State, "2.38 is above a pancake's 2.35")
	assert.True(t, slices.ContainsFunc(w.Verdict, func(v worksheet.Verdict) bool { return v.Kind == "drift" }))
}

func TestAllergensAndCautionsComeFromEveryIngredientOnce(t *testing.T) {
	w := work(t, worked(add("walnuts_chopped", 60, batter.StageFoldIn), add("chocolate_chips", 40, batter.StageOnPortion)))
	assert.Equal(t, []string{"egg", "milk", "soya", "walnut", "wheat"}, w.Allergens)
	assert.Equal(t, []string{"other nuts"}, w.MayContain, "milk is in it already")
	seen := map[string]bool{}
	for _, c := range w.Cautions {
		assert.False(t, seen[c.Text], c.Text)
		seen[c.Text] = true
		assert.NotContains(t, c.Text, "free from")
		assert.NotContains(t, c.Text, "safe for")
	}
	w = work(t, worked(add("walnuts_chopped", 0, batter.StageFoldIn)))
	assert.NotContains(t, w.Allergens, "walnut", "nothing of it is in the serving")
}

func TestPinnedLine(t *testing.T) {
	v := worked(add("beetroot_cooked", 200, batter.StageBatter))
	v.Base.Lines[1].Locked = true
	w := work(t, v)
	assert.Equal(t, worksheet.Pinned, find(t, w, "milk").State)
	assert.Equal(t, 400.0, find(t, w, "milk").Weigh)
	assert.Contains(t, codes(w), "thickness_left")
}

func TestBadVariations(t *testing.T) {
	for name, c := range map[string]struct {
		change func(*batter.Variation)
		field  batter.Field
		code   string
	}{
		"no density": {func(v *batter.Variation) {
			x := *in("carrot_grated")
			x.Density = 0
			v.Additions[0].Ingredient = &x
			v.Additions[0].Unit = measure.Cup
		}, batter.Field{Part: batter.OfAddition, Name: "unit"}, "no_density"},
		"uncounted":    {func(v *batter.Variation) { v.Additions[0].Unit = measure.Each }, batter.Field{Part: batter.OfAddition, Name: "unit"}, "not_counted"},
		"can":          {func(v *batter.Variation) { v.Additions[0].Unit = measure.Can }, batter.Field{Part: batter.OfAddition, Name: "unit"}, "can_size"},
		"unknown unit": {func(v *batter.Variation) { v.Additions[0].Unit = "gill" }, batter.Field{Part: batter.OfAddition, Name: "unit"}, "unknown_unit"},
		"negative":     {func(v *batter.Variation) { v.Additions[0].Amount = -1 }, batter.Field{Part: batter.OfAddition, Name: "amount"}, "negative"},
		"NaN":          {func(v *batter.Variation) { v.Additions[0].Amount = math.NaN() }, batter.Field{Part: batter.OfAddition, Name: "amount"}, "not_a_number"},
		"a tonne":      {func(v *batter.Variation) { v.Additions[0].Amount = 1e6 }, batter.Field{Part: batter.OfAddition, Name: "amount"}, "too_much"},
		"base of zero": {func(v *batter.Variation) { v.Base.Lines[1].Amount = 0 }, batter.Field{Part: batter.OfLine, Index: 1, Name: "amount"}, "not_positive"},
		"no flour":     {func(v *batter.Variation) { v.Base.Lines = v.Base.Lines[1:] }, batter.Field{Part: batter.OfBase, Name: "lines"}, "no_flour"},
		"empty base":   {func(v *batter.Variation) { v.Base.Lines = nil }, batter.Field{Part: batter.OfBase, Name: "lines"}, "empty"},
		"no name":      {func(v *batter.Variation) { v.Name = " " }, batter.Field{Name: "name"}, "missing"},
		"tiny portion": {func(v *batter.Variation) { v.Portion.VolumeML = 1 }, batter.Field{Part: batter.OfPortion, Name: "volume"}, "out_of_range"},
	} {
		v := worked(add("beetroot_cooked", 200, batter.StageBatter))
		c.change(&v)
		_, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), shown)
		var p batter.Problems
		if assert.ErrorAs(t, err, &p, name) {
			assert.Equal(t, c.field, p[0].Field, name)
			assert.Equal(t, c.code, p[0].Code, name)
			assert.NotEmpty(t, p[0].Message)
		}
	}
}

func TestEggsWeighWhatTheKitchenSays(t *testing.T) {
	k := batter.DefaultKitchen()
	k.EggG = 60
	w, err := worksheet.Work(context.Background(), worked(), k, shown)
	require.NoError(t, err)
	assert.Equal(t, 120.0, find(t, w, "egg").Weigh)
	assert.Equal(t, "2 eggs", find(t, w, "egg").Measure)
}

// Repeated calls cost the same: nothing is kept from one to the next.
func TestRepeatedCallsDoNotGrow(t *testing.T) {
	v, k := worked(add("beetroot_cooked", 200, batter.StageBatter)), batter.DefaultKitchen()
	run := func() { _, _ = worksheet.Work(context.Background(), v, k, shown) }
	first := testing.AllocsPerRun(20, run)
	for range 500 {
		run()
	}
	assert.InEpsilon(t, first, testing.AllocsPerRun(20, run), 0.02)
}

func BenchmarkWork(b *testing.B) {
	v := hatch(with("beetroot_cooked", 200, batter.StageBatter), with("orange_zest", 5, batter.StageBatter),
		with("walnuts_chopped", 60, batter.StageFoldIn), with("blueberry_frozen", 80, batter.StageOnPortion))
	k := equipped()
	b.ReportAllocs()
	for b.Loop() {
		if _, err := worksheet.Work(context.Background(), v, k, shown); err != nil {
			b.Fatal(err)
		}
	}
}

// What nobody asked for costs nothing: neither ladles, nor the drawing, nor the label. What is told beside them is the same.
func TestOnlyWhatIsAskedForIsTold(t *testing.T) {
	v := hatch(with("walnuts_chopped", 60, batter.StageFoldIn))
	bare, err := worksheet.Work(context.Background(), v, equipped(), worksheet.Include{})
	require.NoError(t, err)
	all, err := worksheet.Work(context.Background(), v, equipped(), worksheet.Include{Choices: true, Drawing: true, Nutrition: true})
	require.NoError(t, err)
	assert.NotEmpty(t, all.Portion.Choices)
	assert.NotNil(t, all.Portion.Drawing)
	assert.NotNil(t, all.NutritionPerPortion)
	assert.NotNil(t, all.NutritionPer100G)
	all.Portion.Choices, all.Portion.Drawing, all.NutritionPerPortion, all.NutritionPer100G = nil, nil, nil, nil
	for i := range all.Portion.Inclusions {
		x := &all.Portion.Inclusions[i]
		assert.NotEmpty(t, x.Histogram)
		assert.NotEmpty(t, x.FirstToLast)
		x.Histogram, x.FirstToLast, x.From, x.Step = nil, nil, 0, 0
	}
	assert.Equal(t, bare, all)
}
