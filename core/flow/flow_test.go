package flow_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/internal/evidence"
)

// Roussel & Coussot 2005, spreading regime: 60 ml at 18 Pa and 1050 kg/m³ gives 103.3 mm,
// 80 ml gives 115.9 mm.
func TestSpreadAgainstRousselAndCoussot(t *testing.T) {
	for ml, want := range map[float64]float64{60: 103.3, 80: 115.9} {
		d, h := flow.Spread(ml, 18, 1.05)
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("spread of %g ml at 18 Pa and 1050 kg/m³", ml), Unit: "mm", Kind: evidence.Published, Source: "Roussel & Coussot 2005", Tie: evidence.Copied, Outside: want, Ours: d, Tolerance: 0.05})
		assert.InEpsilon(t, ml*1000, h*math.Pi*d*d/4, 1e-9, "the disc holds the volume")
	}
}

// A quarter of a US cup of a standard batter is about 10 cm across (common practice, no source).
func TestQuarterCupOfStandardBatter(t *testing.T) {
	d, _ := flow.Spread(59.1, flow.Prior.YieldStress(2.05), 1.06)
	evidence.Check(t, evidence.Claim{What: "a quarter of a US cup of a standard batter, across", Unit: "mm", Kind: evidence.Practice, Source: "griddle cooks", Tie: evidence.Fitted, Outside: 100, Ours: d, Tolerance: 7})
}

func TestALayerLeftToItselfIsNeverThinnerThanThreeMillimetres(t *testing.T) {
	d, h := flow.Spread(60, 0.05, 1.05)
	assert.Equal(t, flow.MinLayerMM, h)
	assert.InEpsilon(t, 60_000, h*math.Pi*d*d/4, 1e-9)
	d, h = flow.Spread(0, 18, 1)
	assert.Zero(t, d+h)
}

func part(id string, g float64) food.Part {
	return food.Part{Ingredient: food.Reference().ByID(id), Grams: g}
}

// The worked scale of docs/maths.md section 6: 250 g flour, 400 g milk, 2 eggs, 50 g butter, 30 g sugar has
// L* 1.99; 200 g of smooth beetroot purée moves it to 2.38.
func TestWorkedScaleOfThickness(t *testing.T) {
	base := []food.Part{part("plain_flour", 250), part("milk_whole", 400), part("egg_whole", 100), part("butter_unsalted", 50), part("granulated_sugar", 30)}
	assert.InDelta(t, 1.99, flow.Of(base).L(), 0.005)
	assert.InDelta(t, 2.38, flow.Of(append(base, part("beetroot_cooked", 200))).L(), 0.005)
}

// Food-science textbooks, from memory: a pour batter is liquid : flour 1:1 by volume, a drop
// batter 1:2. With milk and spooned plain flour these must come out runny-to-thin and stiff.
func TestHandbookBatterClasses(t *testing.T) {
	flour := 0.509 // g/ml, spooned
	pour := flow.Of([]food.Part{part("milk_whole", 1.023*250), part("plain_flour", flour*250)})
	drop := flow.Of([]food.Part{part("milk_whole", 1.023*250), part("plain_flour", flour*500)})
	assert.Contains(t, []flow.Class{flow.Thin, flow.Standard, flow.Thick}, flow.ClassOf(pour.L()))
	assert.Equal(t, flow.Stiff, flow.ClassOf(drop.L()))
	assert.Greater(t, pour.L(), drop.L())
}

func TestClasses(t *testing.T) {
	for l, want := range map[float64]flow.Class{
		2.46: flow.Runny, 2.45: flow.Thin, 2.3: flow.Thin, 2.0: flow.Standard, 1.7: flow.Thick, 1.56: flow.Thick, 1.5: flow.Stiff,
	} {
		assert.Equal(t, want, flow.ClassOf(l), "%.2f", l)
	}
}

func TestYieldStressIsCentredAtTwo(t *testing.T) {
	assert.InEpsilon(t, math.Exp(3.10), flow.Prior.YieldStress(2), 1e-12)
	assert.InEpsilon(t, math.Exp(2.15), flow.Prior.YieldStress(1.5)/flow.Prior.YieldStress(2.5), 1e-9)
}

func TestWhatThickensAndWhatDoesNot(t *testing.T) {
	in := food.Reference().ByID
	assert.Zero(t, flow.LiquidPerGram(in("plain_flour")))
	assert.Zero(t, flow.LiquidPerGram(in("chocolate_chips")), "a chip neither thins nor thickens")
	assert.Negative(t, flow.LiquidPerGram(in("raisins")), "a raisin drinks")
	assert.True(t, math.IsNaN(flow.Thickness{Liquid: 10}.L()), "nothing thickens water")
	assert.InDelta(t, 1, flow.LiquidPerGram(in("water")), 1e-3)
}

func TestMoreLiquidIsNeverThicker(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		flour := rapid.Float64Range(100, 500).Draw(t, "flour")
		milk := rapid.Float64Range(100, 900).Draw(t, "milk")
		more := rapid.Float64Range(1, 300).Draw(t, "more")
		a := flow.Of([]food.Part{part("plain_flour", flour), part("milk_whole", milk)})
		b := flow.Of([]food.Part{part("plain_flour", flour), part("milk_whole", milk+more)})
		assert.Greater(t, b.L(), a.L())
		da, _ := flow.Spread(60, flow.Prior.YieldStress(a.L()), 1.05)
		db, _ := flow.Spread(60, flow.Prior.YieldStress(b.L()), 1.05)
		assert.GreaterOrEqual(t, db, da, "and spreads no less")
	})
}
