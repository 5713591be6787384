package batter_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

func TestDoseTrackScalesWithTheFlour(t *testing.T) {
	beet := food.Reference().ByID("beetroot_cooked") // 30-90 g per 100 g flour in the table
	d := batter.DoseOf(beet, 250, 200)
	assert.Equal(t, 75.0, d.Light)
	assert.Equal(t, 225.0, d.Bold)
	assert.Equal(t, "bold", d.Word)
	for g, word := range map[float64]string{0: "none", 80: "light", 150: "usual", 300: "past bold"} {
		assert.Equal(t, word, batter.DoseOf(beet, 250, g).Word, "%g", g)
	}
	clove := batter.DoseOf(food.Reference().ByID("clove"), 250, 0.3)
	assert.Equal(t, 0.1, clove.Step, "strong spice moves by tenths of a gram")
	assert.Positive(t, batter.DoseOf(food.Reference().ByID("jam_fruit"), 250, 0).Max, "a row without a range still has a track")
}

func TestDoseReferenceOfAFlourlessBase(t *testing.T) {
	assert.Equal(t, 250.0, batter.DoseReference(250, 830))
	assert.InDelta(t, 200, batter.DoseReference(0, 500), 1e-9)
}

func TestScaleSteps(t *testing.T) {
	k := batter.DefaultKitchen()
	step := func(id string) float64 {
		in := food.Reference().ByID(id)
		return k.Step(batter.Line{Ingredient: in, Role: in.Role})
	}
	for _, id := range []string{"baking_powder", "baking_soda", "salt_fine", "cream_of_tartar", "cinnamon", "vanilla_extract", "citric_acid"} {
		assert.Equal(t, 0.1, step(id), id)
	}
	for _, id := range []string{"plain_flour", "milk_whole", "lemon_juice", "walnuts_chopped", "cocoa_natural"} {
		assert.Equal(t, 1.0, step(id), id)
	}
}

func TestWhereAnAdditionGoes(t *testing.T) {
	for id, want := range map[string]batter.Stage{
		"beetroot_cooked": batter.StageBatter, "walnuts_chopped": batter.StageFoldIn, "blueberry_frozen": batter.StageOnPortion,
		"cardamom": batter.StageDry, "courgette_grated": batter.StageBatter,
	} {
		assert.Equal(t, want, batter.UsualStage(food.Reference().ByID(id)), id)
	}
}

func TestBandsStandInTheRightOrder(t *testing.T) {
	scone, _ := batter.ThicknessBand(batter.DropScone)
	pancake, _ := batter.ThicknessBand(batter.Pancake)
	crepe, _ := batter.ThicknessBand(batter.Crepe)
	assert.Less(t, scone.Low, pancake.Low)
	assert.Less(t, pancake.High, crepe.High)
	_, judged := batter.ThicknessBand(batter.Flourless)
	assert.False(t, judged)
	assert.Positive(t, batter.SweetnessBand(0).High, "an unsweetened base has a band too")
}

func TestGramsOfEggParts(t *testing.T) {
	k := batter.DefaultKitchen()
	k.EggG = 60
	g, err := k.Grams(batter.Line{Ingredient: food.Reference().ByID("egg_yolk"), Amount: 2, Unit: measure.Each})
	require.NoError(t, err)
	assert.InDelta(t, 2*18.6*1.2, g, 1e-9, "a yolk keeps its share of the egg")
}

func TestProblemsReadAsSentences(t *testing.T) {
	var p batter.Problems
	require.NoError(t, p.OrNil())
	p.Add(batter.Field{Name: "name"}, "missing", "Give it a name.")
	assert.EqualError(t, p.OrNil(), "Give it a name.")
}
