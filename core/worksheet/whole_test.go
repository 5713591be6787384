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
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

var everything = []batter.Hold{
	batter.HoldThickness, batter.HoldSweetness, batter.HoldLift, batter.HoldTang, batter.HoldSalt, batter.HoldFat,
}

// hatch is the demo's plain base with everything held; cultured its other one.
func hatch(additions ...batter.Addition) batter.Variation {
	v := worked(additions...)
	v.Offset.Hold = everything
	v.Base.School.RestMin = 15
	v.Base.Lines = append(v.Base.Lines, line("powder", "baking_powder", 10, measure.Gram), line("salt", "salt_fine", 2.5, measure.Gram))
	return v
}

func cultured(additions ...batter.Addition) batter.Variation {
	v := hatch(additions...)
	v.Base.Lines[1] = line("milk", "buttermilk_cultured", 430, measure.Gram)
	v.Base.Lines[5] = line("soda", "baking_soda", 3.0, measure.Gram)
	return v
}

func note(w worksheet.Worksheet, code string) string {
	for _, n := range w.Notes {
		if n.Code == code {
			return n.Text
		}
	}
	return ""
}

func TestSodaAndPowderAreMinded(t *testing.T) {
	v := hatch()
	v.Base.Lines[5] = line("soda", "baking_soda", 3, measure.Gram)
	w := work(t, v)
	assert.Contains(t, note(w, "soda_not_sour"), "baking powder", "soda in plain milk")

	v = cultured()
	v.Base.Lines[5].Amount = 8
	w = work(t, v)
	assert.Contains(t, note(w, "base_soapy"), "less")
	assert.Equal(t, worksheet.Low, mustGauge(t, w, "tang", worksheet.Level).stateAgainstBand)

	v = cultured()
	v.Base.Lines[5] = line("powder", "baking_powder", 10, measure.Gram)
	assert.Contains(t, note(work(t, v), "soda_offer"), "one is not the other")

	for _, n := range work(t, hatch()).Notes {
		assert.NotContains(t, n.Code, "soda")
	}
}

// against says where a gauge lies in its band, whatever the base is.
type against struct{ stateAgainstBand worksheet.GaugeState }

func mustGauge(t *testing.T, w worksheet.Worksheet, key string, _ worksheet.GaugeState) against {
	t.Helper()
	g := w.Gauge(key)
	band, ok := g.Band()
	require.True(t, ok)
	switch {
	case g.After() < band.Low:
		return against{worksheet.Low}
	case g.After() > band.High:
		return against{worksheet.High}
	}
	return against{worksheet.InBand}
}

// From a soda:acid ratio of 0.95 up anthocyanin fruit turns green-grey (modelling choice: lift.GreyAbove).
func TestBerriesTurnGreyWithSoda(t *testing.T) {
	v := cultured(add("blueberry_puree", 100, batter.StageBatter))
	v.Base.Lines[5].Amount = 4.2
	w := work(t, v)
	assert.GreaterOrEqual(t, *w.Batter.SodaToAcid, 0.95)
	assert.Contains(t, note(w, "grey"), "green-grey")
	assert.Contains(t, w.Batter.Colour.Reason, "grey-green")
	v.Base.Lines[5].Amount = 1.5
	assert.Empty(t, note(work(t, v), "grey"))
}

func TestAltitude(t *testing.T) {
	k := batter.DefaultKitchen()
	k.AltitudeM = 1500
	w, err := worksheet.Work(context.Background(), hatch(), k, shown)
	require.NoError(t, err)
	low := work(t, hatch())
	assert.InEpsilon(t, 101.325/84.56, w.Gauge("lift").After()/low.Gauge("lift").After(), 1e-4, "ICAO standard atmosphere at 1500 m")
	assert.Contains(t, note(w, "altitude"), "17 % less powder", "84.56/101.325")
	assert.Empty(t, note(low, "altitude"))
}

func TestWhippedWhitesMakeMoreAndLighterPortions(t *testing.T) {
	v := hatch()
	flat := work(t, v)
	v.Base.Style = batter.Whipped
	airy := cooked(t, v)
	assert.Greater(t, airy.Portion.Count, flat.Portion.Count)
	assert.Less(t, airy.Portion.MassG, flat.Portion.MassG)
	code := func(c string) int {
		return slices.IndexFunc(airy.Mixing, func(s mixing.Step) bool { return s.Code == c })
	}
	at := slices.IndexFunc(airy.Mixing, func(s mixing.Step) bool { return strings.Contains(s.Text, "fold in last of all") })
	assert.Greater(t, at, code(mixing.CodeHeat), "the plate is hot by then")
	assert.Equal(t, at+2, code(mixing.CodePour), "greased, and poured")
}

func TestABaseOfTheWrongThicknessIsSaid(t *testing.T) {
	v := hatch()
	assert.Empty(t, note(work(t, v), "base_out_of_band"))
	v.Form = batter.Crepe
	assert.Contains(t, note(work(t, v), "base_out_of_band"), "thicker than crêpes usually are")
	v.Form = batter.DropScone
	assert.Contains(t, note(work(t, v), "base_out_of_band"), "thinner than drop scones usually are")
}

func TestStrongFlavouringIsWarned(t *testing.T) {
	assert.Contains(t, note(work(t, hatch(add("clove", 0.8, batter.StageDry))), "strong"), "takes over")
	assert.Empty(t, note(work(t, hatch(add("clove", 0.2, batter.StageDry))), "strong"))
	assert.Empty(t, note(work(t, hatch(add("cinnamon", 9, batter.StageDry))), "strong"))
}

func TestMixingFollowsTheSchool(t *testing.T) {
	text := func(v batter.Variation) string {
		var s []string
		for _, m := range cooked(t, v).Mixing {
			s = append(s, m.Text)
		}
		return strings.Join(s, "\n")
	}
	v := hatch(add("beetroot_cooked", 200, batter.StageBatter), add("cocoa_natural", 20, batter.StageDry), add("walnuts_chopped", 60, batter.StageFoldIn),
		add("blueberry_frozen", 100, batter.StageOnPortion), add("courgette_grated", 50, batter.StageBatter))
	s := text(v)
	order := []string{"Sift cocoa powder", "Whisk together", "Keep 58 g of the whole milk back", "Melt butter 50 g", "Stop while it is lumpy", "Stir in courgette", "Spread test", "Switch on 8 min before you pour", "Rest 15 min", "Fold in walnuts", "Grease the pan thinly", "Pour 60 ml", "Put blueberries on at once", "First side", "Flip once", "74 °C by a probe"}
	at := -1
	for _, step := range order {
		i := strings.Index(s, step)
		assert.Greater(t, i, at, "%q in its place in:\n%s", step, s)
		at = i
	}
	v.Form = batter.Crepe
	assert.Contains(t, text(v), "until smooth")
	v.Form, v.Base.School.Lumps = batter.Pancake, "whisk smooth"
	assert.Contains(t, text(v), "until smooth")
	assert.Contains(t, text(hatch(add("tea_strong", 5, batter.StageInfused))), "top up with fresh")
}

func TestSteepingLeavesTheBatterAlone(t *testing.T) {
	plain, w := work(t, hatch()), work(t, hatch(add("matcha", 10, batter.StageInfused)))
	for _, g := range plain.Gauges.All() {
		assert.Equal(t, g.After(), w.Gauge(g.Key).After(), g.Key)
	}
}

// Pours now, after the rest, settled: whole cells let go with time, so a grated vegetable
// makes the settled batter thinner than the fresh one; flour alone makes it thicker.
func TestTime(t *testing.T) {
	p := work(t, hatch()).Batter.Pours
	require.Len(t, p, 3)
	assert.InEpsilon(t, 0.75, p[0].YieldStressPa/p[2].YieldStressPa, 1e-6, "fresh flour has three quarters of its stiffness (modelling choice)")
	assert.Greater(t, p[1].YieldStressPa, p[0].YieldStressPa)
	p = work(t, hatch(add("courgette_grated", 250, batter.StageBatter))).Batter.Pours
	assert.Greater(t, p[0].YieldStressPa, p[2].YieldStressPa)
}

func TestNutritionAddsUp(t *testing.T) {
	w := work(t, hatch(add("beetroot_cooked", 200, batter.StageBatter), add("walnuts_chopped", 60, batter.StageFoldIn)))
	n := w.NutritionPerPortion
	general := 4*n.Protein + 9*n.Fat + 4*n.Carbohydrate + 2*n.Fibre + 7*n.Alcohol
	assert.InEpsilon(t, general, n.EnergyKcal, 0.05, "general factors (EU 1169/2011, from memory)")
	assert.InEpsilon(t, 100*n.Sugars/w.Portion.MassG, w.NutritionPer100G.Sugars, 1e-6)
	more := work(t, hatch(add("beetroot_cooked", 200, batter.StageBatter), add("walnuts_chopped", 60, batter.StageFoldIn), add("jam_fruit", float64(w.Portion.Count)*10, batter.StageOnPortion)))
	assert.InDelta(t, n.Sugars+10*food.Reference().ByID("jam_fruit").Sugars/100, more.NutritionPerPortion.Sugars, 1e-6, "the topping counts")
}

func TestAllergenLists(t *testing.T) {
	w := work(t, hatch(add("walnuts_chopped", 60, batter.StageFoldIn), add("apricot_dried_diced", 40, batter.StageFoldIn)))
	assert.Equal(t, []string{"cereals containing gluten (wheat)", "eggs", "milk", "nuts (walnut)", "sulphur dioxide and sulphites"}, w.AllergensEU)
	assert.Equal(t, []string{"eggs", "milk", "tree nuts (walnut)", "wheat"}, w.AllergensUS)
}

// Every allergen of the table has its words in the EU list.
func TestEveryAllergenOfTheTableHasItsWords(t *testing.T) {
	for _, in := range food.Reference().All() {
		if len(in.Allergens) == 0 {
			continue
		}
		w := work(t, hatch(add(in.ID, 1, batter.StageOnPortion)))
		assert.GreaterOrEqual(t, len(w.AllergensEU), len(w.Allergens), in.ID)
	}
}

func TestPreviewsAreWhatTheStrategyGives(t *testing.T) {
	v := hatch(add("beetroot_cooked", 200, batter.StageBatter))
	w := work(t, v)
	require.Len(t, w.Strategies, len(batter.Strategies))
	for _, p := range w.Strategies {
		v.Offset.Strategy = p.Strategy
		chosen := work(t, v)
		for i, l := range chosen.Lines {
			if l.Offset != nil && *l.Offset != 0 {
				assert.Contains(t, strings.ToLower(p.Lead), strings.ToLower(l.Label), "%s names every line that moves", p.Strategy)
			} else if i < len(p.Weigh) {
				assert.NotContains(t, strings.ToLower(p.Lead), strings.ToLower(l.Label))
			}
		}
		if changes := strings.Count(p.Lead, ",") + 1; changes > 3 {
			assert.Contains(t, chosen.Verdict[0].Lead, "more", "the verdict is brief")
		}
		assert.Equal(t, chosen.Portion.Count, p.Count)
		for i, g := range p.Weigh {
			assert.Equal(t, worksheet.Weighed{ID: chosen.Lines[i].ID, G: chosen.Lines[i].Weigh}, g)
		}
	}
}

func TestDryingIsShownOnTheAddition(t *testing.T) {
	v := hatch(add("carrot_cooked", 200, batter.StageBatter))
	v.Offset.Strategy = batter.DryAddition
	w := work(t, v)
	l := find(t, w, "a-carrot_cooked")
	require.NotNil(t, l.DryTo)
	assert.Less(t, *l.DryTo, 180.0)
	assert.Equal(t, worksheet.Level, w.Gauge("thickness").State)
	assert.Contains(t, w.Verdict[0].Lead, "dried to")
	assert.Equal(t, "the whole base as it is", w.Verdict[0].Reason)

	v.Additions = []batter.Addition{add("courgette_grated", 300, batter.StageBatter)}
	w = work(t, v)
	assert.Contains(t, w.Mixing[0].Text, "squeeze")
	assert.Contains(t, note(w, "thickness_left"), "Even squeezed", "no press takes it all: 200 g squeezed to 120 g still asks for 41 g of milk")
}

// What sets: about 7.3 g per 100 g in a standard milk batter; purées soften it long before it
// tears, ground almonds weaken it and starch does not (common practice, the job's section 6).
func TestStructure(t *testing.T) {
	plain := work(t, hatch())
	assert.InDelta(t, 7.3, plain.Gauge("structure").Base(), 0.3)
	of := func(grams float64) (worksheet.Worksheet, float64) {
		w := work(t, hatch(add("beetroot_cooked", grams, batter.StageBatter)))
		return w, w.Gauge("structure").After() / plain.Gauge("structure").Base()
	}
	w, share := of(450)
	assert.Greater(t, share, 0.75)
	assert.Empty(t, note(w, "structure")+note(w, "structure_softer"), "a purée batter that is flipped every day")
	w, share = of(800)
	assert.InDelta(t, 0.68, share, 0.06)
	assert.Contains(t, note(w, "structure_softer"), "weaker than the base: softer, so let it set well before you turn it")
	w, share = of(1500)
	assert.Less(t, share, 0.60)
	assert.Contains(t, note(w, "structure"), "may tear when it is turned: give it one more egg")

	swapped := func(id string) float64 {
		v := hatch()
		v.Base.Lines[0].Amount -= 100
		v.Base.Lines = append(v.Base.Lines, line("other", id, 100, measure.Gram))
		w := work(t, v)
		return w.Gauge("structure").Base() / plain.Gauge("structure").Base()
	}
	assert.Less(t, swapped("almond_meal"), 0.9)
	assert.Greater(t, swapped("tapioca_starch"), swapped("almond_meal"))

	v := hatch(add("beetroot_cooked", 1500, batter.StageBatter))
	v.Offset.Hold = append(slices.Clone(everything), batter.HoldStructure)
	w = work(t, v)
	assert.NotEmpty(t, note(w, "eggs")+note(w, "structure_left"))
	assert.Greater(t, find(t, w, "egg").Weigh, 100.0)
	v = hatch(add("beetroot_cooked", 1500, batter.StageBatter))
	v.Form = batter.Waffle
	assert.Contains(t, note(work(t, v), "structure"), "break as the iron opens")
}

// Swatches by eye (from memory): what such a batter looks like in the bowl. Told by the hue and
// the lightness of CIELAB, which none of the mixing uses.
func TestTheBatterHasItsColour(t *testing.T) {
	cocoa := hatch(add("cocoa_natural", 40, batter.StageDry))
	cocoa.Base.Lines[0].Amount = 180
	for _, c := range []struct {
		name                string
		v                   batter.Variation
		lightLow, lightHigh float64
		hueLow, hueHigh     float64 // degrees: 0 red, 90 yellow, 270 blue, 320 mauve
		chromaLeast         float64
		reason              string
	}{
		{"plain", hatch(), 80, 97, 70, 110, 2, "the base"},
		{"cocoa is brown", cocoa, 30, 58, 35, 75, 15, "tints it"},
		{"bilberries folded in are mauve", hatch(add("bilberry_frozen", 80, batter.StageFoldIn)), 45, 78, 290, 345, 6, "tints it"},
		{"beetroot is pink", hatch(add("beetroot_cooked", 100, batter.StageBatter)), 40, 75, 340, 375, 15, "tints it"},
		{"spinach is green", hatch(add("spinach_puree", 120, batter.StageBatter)), 35, 75, 95, 140, 12, "tints it"},
		{"carrot is orange", hatch(add("carrot_cooked", 150, batter.StageBatter)), 65, 90, 55, 85, 15, "tints it"},
	} {
		w := work(t, c.v)
		light, chroma, hue := lab(t, w.Batter.Colour.Hex)
		if hue < c.hueLow-180 {
			hue += 360
		}
		said := fmt.Sprintf("%s: %s, L %.0f C %.0f h %.0f", c.name, w.Batter.Colour.Hex, light, chroma, hue)
		assert.GreaterOrEqual(t, light, c.lightLow, said)
		assert.LessOrEqual(t, light, c.lightHigh, said)
		assert.GreaterOrEqual(t, hue, c.hueLow, said)
		assert.LessOrEqual(t, hue, c.hueHigh, said)
		assert.GreaterOrEqual(t, chroma, c.chromaLeast, said)
		assert.Contains(t, w.Batter.Colour.Reason, c.reason, said)
	}
}

// lab is CIELAB 1976 of an sRGB colour (D65).
func lab(t *testing.T, hex string) (light, chroma, hue float64) {
	t.Helper()
	var r, g, b int
	_, err := fmt.Sscanf(hex, "#%02X%02X%02X", &r, &g, &b)
	require.NoError(t, err)
	lin := func(v int) float64 {
		if c := float64(v) / 255; c > 0.04045 {
			return math.Pow((c+0.055)/1.055, 2.4)
		}
		return float64(v) / 255 / 12.92
	}
	f := func(v float64) float64 {
		if v > 216.0/24389 {
			return math.Cbrt(v)
		}
		return (24389.0/27*v + 16) / 116
	}
	x := f((0.4124*lin(r) + 0.3576*lin(g) + 0.1805*lin(b)) / 0.9505)
	y := f(0.2126*lin(r) + 0.7152*lin(g) + 0.0722*lin(b))
	z := f((0.0193*lin(r) + 0.1192*lin(g) + 0.9505*lin(b)) / 1.089)
	a, bb := 500*(x-y), 200*(y-z)
	hue = math.Atan2(bb, a) * 180 / math.Pi
	if hue < 0 {
		hue += 360
	}
	return 116*y - 16, math.Hypot(a, bb), hue
}

// Every figure of the bench opens its working, and the working ends in the figure.
func TestWorkingOfEveryFigure(t *testing.T) {
	w := work(t, cultured(add("plum_puree", 120, batter.StageBatter), add("walnuts_chopped", 60, batter.StageFoldIn)))
	by := map[string]worksheet.Working{}
	for _, k := range w.Working {
		by[k.Line+" "+k.Figure] = k
		assert.NotEmpty(t, k.Text)
		for _, term := range k.Terms {
			assert.NotEmpty(t, term.Source, "%s: %s", k.Figure, term.Name)
			assert.False(t, math.IsNaN(term.Value) || math.IsInf(term.Value, 0))
		}
	}
	for _, g := range w.Gauges.All() {
		said := map[string]float64{}
		for _, term := range by[" "+g.Key].Terms {
			said[term.Name] = term.Value
		}
		assert.Equal(t, g.After(), said["as weighed"], g.Key)
		assert.Equal(t, g.Base(), said["the base"], g.Key)
	}
	for _, at := range []string{"count", "diameter", "energy"} {
		assert.Contains(t, by, " "+at)
	}
	for _, l := range w.Lines {
		if l.From == worksheet.FromBase {
			terms := by[l.ID+" "].Terms
			require.NotEmpty(t, terms, l.Label)
			assert.Equal(t, l.Weigh, terms[len(terms)-1].Value, l.Label)
		}
	}
}

func TestSpoonsAreEvaluatedToo(t *testing.T) {
	w := work(t, hatch(add("beetroot_cooked", 200, batter.StageBatter)))
	milk := find(t, w, "milk")
	assert.NotEmpty(t, milk.Measure)
	assert.InEpsilon(t, milk.Weigh, *milk.MeasureG, 0.04)
	assert.NotZero(t, w.Gauge("thickness").ByMeasure())
}

func TestCompare(t *testing.T) {
	before := work(t, hatch(add("beetroot_cooked", 200, batter.StageBatter), add("walnuts_chopped", 60, batter.StageFoldIn)))
	after := work(t, hatch(add("beetroot_cooked", 250, batter.StageBatter), add("orange_zest", 5, batter.StageBatter)))
	got := map[string]worksheet.Change{}
	for _, r := range worksheet.Compare(before, after) {
		got[r.Label] = r.Change
	}
	assert.Equal(t, worksheet.MoreOf, got["Beetroot"])
	assert.Equal(t, worksheet.Gone, got["Walnuts"])
	assert.Equal(t, worksheet.NewLine, got["Orange zest"])
	assert.Equal(t, worksheet.LessOf, got["Whole milk"])
	assert.Equal(t, worksheet.Same, got["Hen egg"])
}

func TestFactors(t *testing.T) {
	v, k := hatch(add("beetroot_cooked", 200, batter.StageBatter)), batter.DefaultKitchen()
	for _, c := range []struct {
		count  int
		flour  float64
		line   string
		amount float64
		want   float64
	}{{0, 500, "", 0, 2}, {0, 0, "a-beetroot_cooked", 310, 1.55}, {0, 0, "milk", 200, 0.5}} {
		f, err := worksheet.FactorFor(context.Background(), v, k, c.count, c.flour, c.line, c.amount)
		require.NoError(t, err)
		assert.InDelta(t, c.want, f, 1e-9)
	}
	f, err := worksheet.FactorFor(context.Background(), v, k, 30, 0, "", 0)
	require.NoError(t, err)
	assert.InDelta(t, 2, f, 0.2, "the bowl gives about 15")
	for _, bad := range []func() (float64, error){
		func() (float64, error) { return worksheet.FactorFor(context.Background(), v, k, 0, 0, "", 0) },
		func() (float64, error) { return worksheet.FactorFor(context.Background(), v, k, 0, 0, "nobody", 10) },
		func() (float64, error) { return worksheet.FactorFor(context.Background(), v, k, 0, 0, "milk", 0) },
		func() (float64, error) { return worksheet.FactorFor(context.Background(), v, k, 0, 1e6, "", 0) },
	} {
		_, err := bad()
		var p batter.Problems
		assert.ErrorAs(t, err, &p)
	}
}

// A swap brings the acid and the water of the line that goes.
func TestSwapsKeepAcidAndWater(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := food.Reference().ByID(rapid.SampledFrom([]string{"buttermilk_cultured", "yogurt_plain", "kefir_plain", "milk_whole", "sour_cream"}).Draw(t, "from"))
		g := rapid.Float64Range(50, 800).Draw(t, "g")
		for _, s := range batter.Swaps(from, g, food.Reference()) {
			got := food.Whole(s.Parts)
			assert.InDelta(t, g*from.Acid/100, got.Acid, 0.6, s.Label)
			assert.InDelta(t, g*from.Water/100, got.Water, 1, s.Label)
		}
	})
	labels := []string{}
	for _, s := range batter.Swaps(in("buttermilk_cultured"), 400, food.Reference()) {
		labels = append(labels, s.Label)
	}
	assert.Contains(t, labels, "Whole milk and lemon juice")
	assert.Contains(t, labels, "Plain yogurt and water")
	assert.Contains(t, labels, "Buttermilk powder and water")
	assert.Empty(t, batter.Swaps(in("plain_flour"), 400, food.Reference()))
	assert.Empty(t, batter.Swaps(in("water"), 400, food.Reference()))
}

// Taking the egg out costs structure, and the choice says how much.
func TestSwapsTellWhatTheyCost(t *testing.T) {
	table := food.Reference()
	swaps, err := worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "egg", table)
	require.NoError(t, err)
	require.NotEmpty(t, swaps)
	for _, s := range swaps {
		assert.Contains(t, s.Says, "structure falls from", s.Label)
	}
	swaps, err = worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "butter", table)
	require.NoError(t, err)
	for _, s := range swaps {
		assert.NotContains(t, s.Says, "structure", "a fat holds nothing together")
	}
	swaps, err = worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "flour", table)
	require.NoError(t, err)
	said := fmt.Sprint(swaps)
	assert.Contains(t, said, "no gluten")
	assert.Contains(t, said, "thickens like the 250 g there were")
	milk, err := worksheet.SwapsFor(worked(), batter.DefaultKitchen(), "milk", table)
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(milk), "meq of acid", "milk keeps its own swaps")
}

// Two bases whose lines have other ids are still set side by side by what they are.
func TestCompareByIngredientWhenIdsDiffer(t *testing.T) {
	a, b := worked(), worked()
	for i := range b.Base.Lines {
		b.Base.Lines[i].ID = fmt.Sprintf("other%d", i)
	}
	b.Base.Lines[1].Amount = 420
	b.Base.Lines = append(b.Base.Lines, line("more", "plain_flour", 20, "g"))
	rows := worksheet.Compare(work(t, a), work(t, b))
	require.Len(t, rows, 6)
	assert.Equal(t, worksheet.Same, rows[0].Change)
	assert.Equal(t, worksheet.MoreOf, rows[1].Change)
	assert.Equal(t, worksheet.NewLine, rows[5].Change, "a second line of flour is a line of its own")
}

// In cups everything that tells an amount tells it in cups: the steps and the verdict say what the list says, and the
// gauges stand where the spoons really put them.
func TestCupsAreHeldEverywhere(t *testing.T) {
	grams, err := worksheet.Work(context.Background(), hatch(add("beetroot_cooked", 160, batter.StageBatter)), batter.DefaultKitchen(), worksheet.Include{})
	require.NoError(t, err)
	cups, err := worksheet.Work(context.Background(), hatch(add("beetroot_cooked", 160, batter.StageBatter)), batter.DefaultKitchen(), worksheet.Include{Cups: true})
	require.NoError(t, err)
	assert.Equal(t, grams.Lines, cups.Lines, "the recipe is the same")
	told := mixing.Told(cups.Mixing)
	for _, l := range cups.Lines {
		if l.Measure == "" || l.Role == food.RoleLiquid { // of which some is kept back for the test
			continue
		}
		assert.Contains(t, told, strings.ToLower(l.Label)+" "+l.Measure)
		assert.NotContains(t, told, strings.ToLower(l.Label)+" "+words.Grams(l.Weigh, l.Step))
	}
	assert.Contains(t, cups.Verdict[0].Lead, "cup")
	for i, g := range cups.Gauges.All() {
		assert.InDelta(t, grams.Gauges.All()[i].ByMeasure(), g.After(), 1e-12, g.Label)
	}
}
