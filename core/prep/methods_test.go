package prep_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/prep"
)

func left(r prep.Result, k prep.Kind) float64 {
	var g float64
	for _, f := range r.Left {
		if f.Kind == k {
			g += f.Grams
		}
	}
	return g
}

func TestPeelingFollowsTheTablesRefuseOrTheCooksOwn(t *testing.T) {
	carrot := row(t, "carrot_grated")
	r := work(t, prep.Job{Method: prep.Trim, From: carrot, HaveG: 1000})
	assert.InDelta(t, 1000*(1-carrot.Refuse/100), r.ProductG, 1e-9)
	assert.Zero(t, r.Product.Refuse, "it is peeled now")
	own := 20.0
	r = work(t, prep.Job{Method: prep.Trim, From: carrot, HaveG: 1000, RefusePct: &own})
	assert.InDelta(t, 200, left(r, prep.Peel), 1e-9)
	weighed := work(t, prep.Job{Method: prep.Trim, From: carrot, HaveG: 1000, AfterG: 870})
	assert.InDelta(t, 130, left(weighed, prep.Peel), 1e-9)
	bad := 99.0
	refused(t, "refuse_pct", "out_of_range", prep.Job{Method: prep.Trim, From: carrot, HaveG: 1000, RefusePct: &bad})
}

// Boiling takes sugars and minerals into the water, roasting takes water only: retention of
// cooked vegetables, common practice.
func TestWaysToCook(t *testing.T) {
	carrot := row(t, "carrot_grated")
	boiled := work(t, prep.Job{Method: prep.Puree, From: carrot, HaveG: 1000, Cook: prep.Boil})
	roasted := work(t, prep.Job{Method: prep.Puree, From: carrot, HaveG: 1000, Cook: prep.Roast})
	raw := work(t, prep.Job{Method: prep.Puree, From: carrot, HaveG: 1000, Cook: prep.Raw})
	sugars := func(r prep.Result) float64 { return r.ProductG * r.Product.Sugars / 100 }
	assert.Less(t, sugars(boiled), 0.9*sugars(raw))
	assert.InDelta(t, sugars(raw), sugars(roasted), 1e-6)
	assert.Less(t, roasted.ProductG, boiled.ProductG)
	assert.Greater(t, roasted.Product.Body, boiled.Product.Body, "what is drier thickens more, gram for gram")
	assert.InDelta(t, 1000, raw.ProductG, 1e-9)
	refused(t, "cook", "unknown_choice", prep.Job{Method: prep.Puree, From: carrot, HaveG: 1000, Cook: "fry"})
}

// A purée that no row describes is estimated by the rule: 9 per g of fibre, 2.5 per g of cooked
// starch, at most 0.6.
func TestAPureeWithoutARow(t *testing.T) {
	corn := row(t, "sweetcorn_kernels")
	r := work(t, prep.Job{Method: prep.Puree, From: corn, HaveG: 500})
	assert.Empty(t, r.StandIn)
	assert.Equal(t, food.GroupPuree, r.Product.Group)
	assert.InDelta(t, math.Min(0.6, (9*r.Product.Fibre+0*r.Product.Starch)/100), work(t, prep.Job{Method: prep.Puree, From: corn, HaveG: 500, Cook: prep.Raw}).Product.Body, 0.02, "raw starch does not bind")
	assert.InDelta(t, math.Min(0.6, (9*r.Product.Fibre+2.5*r.Product.Starch)/100), work(t, prep.Job{Method: prep.Puree, From: corn, HaveG: 500, Cook: prep.Steam}).Product.Body, 0.05)
	assert.InDelta(t, 1.05, r.Product.Density, 0.08, "a purée is a little heavier than water")
}

// The flour that sticks thickens the batter as that flour does.
func TestTossedFruitBringsItsFlour(t *testing.T) {
	berries := row(t, "blueberry_fresh")
	plain := []food.Part{{Ingredient: berries, Grams: 200}, {Ingredient: row(t, "plain_flour"), Grams: 6}}
	r := work(t, prep.Job{Method: prep.Toss, From: berries, HaveG: 200, WithG: 6})
	tossed := []food.Part{{Ingredient: r.Product, Grams: r.ProductG}}
	assert.InDelta(t, flow.Of(plain).Body, flow.Of(tossed).Body, 1e-9)
	assert.InDelta(t, flow.Of(plain).Liquid, flow.Of(tossed).Liquid, 0.6)
	assert.Contains(t, r.Product.Allergens, "wheat", "the flour's allergen comes along")
	rice := work(t, prep.Job{Method: prep.Toss, From: berries, HaveG: 200, With: row(t, "rice_flour")})
	assert.NotContains(t, rice.Product.Allergens, "wheat")
	assert.InDelta(t, 6, rice.Added[0].Grams, 1e-9, "3 % sticks, usually")
}

func TestToastingDrivesWaterOff(t *testing.T) {
	nuts := row(t, "walnuts_chopped")
	r := work(t, prep.Job{Method: prep.Toast, From: nuts, HaveG: 200})
	assert.InDelta(t, 1.5, r.Product.Water, 1e-9)
	assert.InDelta(t, 200*nuts.Fat, r.ProductG*r.Product.Fat, 1e-6)
	assert.InDelta(t, 200-r.ProductG, left(r, prep.Vapor), 1e-9)
	assert.NoError(t, named(r.Product).Check())
	assert.Zero(t, r.KeepDays, "as long as the pack")
}

// Milk that was steeped and topped up weighs what it did, and is milk again but for what went
// up in steam.
func TestSteepedMilkIsToppedUp(t *testing.T) {
	milk := row(t, "milk_whole")
	r := work(t, prep.Job{Method: prep.Steep, From: milk, HaveG: 500, LeavesG: 10, Minutes: 10, TopUp: true})
	assert.InDelta(t, 500, r.ProductG, 1e-9)
	assert.InDelta(t, milk.Water, r.Product.Water, 0.6)
	assert.Greater(t, r.Product.Protein, milk.Protein)
	dripped := work(t, prep.Job{Method: prep.Steep, From: milk, HaveG: 500, LeavesG: 10, Minutes: 10})
	pressed := work(t, prep.Job{Method: prep.Steep, From: milk, HaveG: 500, LeavesG: 10, Minutes: 10, Pressed: true})
	assert.InDelta(t, 20, pressed.ProductG-dripped.ProductG, 1e-9, "10 g of leaves give 20 g back")
	weighed := work(t, prep.Job{Method: prep.Steep, From: milk, HaveG: 500, LeavesG: 10, AfterG: 440})
	assert.InDelta(t, 440, weighed.ProductG, 1e-9)
	refused(t, "minutes", "too_long", prep.Job{Method: prep.Steep, From: milk, HaveG: 500, Minutes: 600})
}

func TestZestAndItsJuice(t *testing.T) {
	r := work(t, prep.Job{Method: prep.Zest, From: row(t, "lemon_zest"), Count: 3})
	assert.InDelta(t, 18, r.ProductG, 1e-9)
	assert.InDelta(t, 141, left(r, prep.Juice), 1e-9, "47 g a lemon: the table's unit")
	assert.Equal(t, "lemon_juice", r.Left[0].Ingredient.ID)
	back := work(t, prep.Job{Method: prep.Zest, From: row(t, "lemon_zest"), WantG: 18})
	assert.InDelta(t, 18, back.ProductG, 1e-6)
	assert.InDelta(t, 141, left(back, prep.Juice), 1e-3)
}

func TestSiftedFlourFillsTheCupLess(t *testing.T) {
	flour := row(t, "plain_flour")
	r := work(t, prep.Job{Method: prep.Sift, From: flour, HaveG: 500, AfterG: 497})
	assert.InDelta(t, 3, left(r, prep.Held), 1e-9)
	assert.InDelta(t, flour.DensitySifted, r.Product.Density, 1e-9)
	assert.Less(t, r.Product.Density, flour.Density)
}

// A tub keeps so long in the fridge; what is dry keeps as its pack says (common practice).
func TestHowLongATubKeeps(t *testing.T) {
	assert.Equal(t, 3, work(t, prep.Job{Method: prep.Puree, From: row(t, "plum_diced"), HaveG: 500}).KeepDays)
	assert.Equal(t, 2, work(t, prep.Job{Method: prep.Steep, From: row(t, "milk_whole"), HaveG: 500}).KeepDays, "warmed milk")
	assert.Equal(t, 7, work(t, prep.Job{Method: prep.Reduce, From: row(t, "date_paste"), HaveG: 500, TargetG: 480}).KeepDays, "much sugar")
	assert.Zero(t, work(t, prep.Job{Method: prep.Sift, From: row(t, "cocoa_natural"), HaveG: 500}).KeepDays)
}

func TestCountedAndSizedPieces(t *testing.T) {
	berries := row(t, "blueberry_fresh")
	counted := prep.Counted(berries, 10, 28)
	assert.InDelta(t, 2.8, counted.Piece.MassG, 1e-9)
	assert.InDelta(t, 14*math.Cbrt(2), counted.Piece.LengthMM, 1e-9, "twice the mass is a quarter wider")
	sized := prep.Sized(berries, 28)
	assert.InDelta(t, 8*1.4, sized.Piece.MassG, 1e-9, "twice as wide is eight times as heavy")
	assert.Equal(t, berries.Piece, prep.Sized(berries, 0).Piece)
	drained := work(t, prep.Job{Method: prep.Thaw, From: row(t, "blueberry_frozen"), HaveG: 100}).Product
	assert.InDelta(t, 0.8*row(t, "blueberry_frozen").Piece.MassG, drained.Piece.MassG, 1e-9)
}

// The treatments of a card are the benches' methods: one amount, whatever it was weighed from.
func TestTreatmentsScaleWithTheAmount(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.SampledFrom(prep.Treatments).Draw(t, "treatment")
		var fit []*food.Ingredient
		for _, in := range food.Reference().All() {
			if prep.Suits(n.Method, in) {
				fit = append(fit, in)
			}
		}
		in := rapid.SampledFrom(fit).Draw(t, "in")
		g := rapid.Float64Range(1, 3000).Draw(t, "g")
		tr := prep.Treatment{Method: n.Method, Salt: n.Salt}
		one, per, _, err := tr.Treated(nil, in, 1)
		require.NoError(t, err)
		product, got, done, err := tr.Treated(nil, in, g)
		require.NoError(t, err)
		assert.InEpsilon(t, per*g, got, 1e-9)
		assert.InDelta(t, one.Water, product.Water, 1e-9)
		assert.Equal(t, n.Label, tr.Label())
		assert.NotNil(t, done)
		_, none, _, err := tr.Treated(nil, in, 0)
		require.NoError(t, err)
		assert.Zero(t, none)
	})
}

func TestWeightsWithoutAPreparationAreALoss(t *testing.T) {
	product, got, _, err := prep.Treatment{BeforeG: 300, AfterG: 200}.Treated(nil, row(t, "courgette_grated"), 150)
	require.NoError(t, err)
	assert.InDelta(t, 100, got, 1e-9, "in proportion to what was weighed")
	assert.Less(t, product.Release(), row(t, "courgette_grated").Release())
	product, got, _, err = prep.Treatment{BeforeG: 1000, AfterG: 800}.Treated(nil, row(t, "plum_puree"), 100)
	require.NoError(t, err)
	assert.InDelta(t, 80, got, 1e-9)
	assert.InDelta(t, row(t, "plum_puree").Body/0.8, product.Body, 1e-9)
	acid := lift.AcidPerGram(product)*got - lift.AcidPerGram(row(t, "plum_puree"))*100
	assert.InDelta(t, 0, acid, 1e-9, "boiling leaves the acid")
}

// Every method has a bench that describes it, and asks nothing that a job does not know.
func TestEveryMethodHasItsBench(t *testing.T) {
	require.Len(t, prep.Benches, len(prep.Methods))
	for i, b := range prep.Benches {
		assert.Equal(t, prep.Methods[i], b.Method)
		assert.NotEmpty(t, b.Title)
		assert.NotEmpty(t, b.Says)
		assert.Contains(t, b.Asks, prep.AskAfter)
		assert.NotEmpty(t, b.Method.Verb())
		if b.Method != prep.Zest {
			assert.NotEmpty(t, b.Method.Done(), b.Method)
		}
	}
	assert.True(t, prep.With(prep.Toss, row(t, "rice_flour")))
	assert.False(t, prep.With(prep.Toss, row(t, "milk_whole")))
	assert.True(t, prep.With(prep.Plump, row(t, "orange_juice")))
	assert.False(t, prep.With(prep.Toast, row(t, "orange_juice")))
}
