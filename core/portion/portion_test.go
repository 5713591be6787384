package portion_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/portion"
)

func part(id string, g float64) food.Part {
	return food.Part{Ingredient: food.Reference().ByID(id), Grams: g}
}

var plain = []food.Part{part("plain_flour", 250), part("milk_whole", 400), part("egg_whole", 100), part("butter_unsalted", 50), part("granulated_sugar", 30)}

// About 1.06 g/ml with stirred-in air (modelling choice: a usual batter).
func TestDensityOfAUsualBatter(t *testing.T) {
	b := portion.BowlOf(plain, portion.Air(batter.Pancake))
	assert.InDelta(t, 1.06, b.Density(), 0.03)
	assert.InDelta(t, 830, b.MassG, 1e-9)
	assert.Greater(t, portion.BowlOf(plain, portion.Air(batter.Crepe)).Density(), b.Density(), "a crêpe batter carries less air")
}

func TestPiecesTakeTheirOwnVolume(t *testing.T) {
	without := portion.BowlOf(plain, 0.08)
	with := portion.BowlOf(append(plain[:len(plain):len(plain)], part("chocolate_chips", 128)), 0.08)
	assert.InDelta(t, 100, with.VolumeML-without.VolumeML, 0.01, "128 g at 1.28 g/ml, never by bulk density")
	assert.InDelta(t, 128, with.MassG-without.MassG, 1e-9)
}

func TestCount(t *testing.T) {
	b := portion.Bowl{MassG: 1060, VolumeML: 1000}
	assert.Equal(t, 16, b.Count(60), "975 ml after what stays in the bowl")
	assert.Equal(t, 0, b.Count(0))
	assert.Equal(t, 0, b.Count(980))
	assert.Zero(t, portion.Bowl{}.Density())
}

func TestMassOfTheBowlIsConserved(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		parts := append([]food.Part(nil), plain...)
		mass := 830.0
		for range rapid.IntRange(0, 5).Draw(t, "n") {
			p := food.Part{Ingredient: rapid.SampledFrom(food.Reference().All()).Draw(t, "in"), Grams: rapid.Float64Range(0, 300).Draw(t, "g")}
			parts = append(parts, p)
			mass += p.Grams
		}
		b := portion.BowlOf(parts, 0.08)
		assert.InDelta(t, mass, b.MassG, 1e-6)
		assert.Positive(t, b.VolumeML)
	})
}

func TestLayers(t *testing.T) {
	l, ok := portion.LayerOf(batter.Pancake, 60, 18, 1.05)
	assert.True(t, ok)
	assert.InDelta(t, 103.3, l.DiameterMM, 0.05, "Roussel & Coussot 2005")
	c, ok := portion.LayerOf(batter.Crepe, 60, 4, 1.08)
	assert.True(t, ok)
	assert.InEpsilon(t, 60_000, c.ThicknessMM*math.Pi*c.DiameterMM*c.DiameterMM/4, 1e-9)
	assert.InDelta(t, 252, c.DiameterMM, 1, "kept value: a crêpe's thickness was set so that 60 ml fill a pan of 25 cm")
	for _, f := range []batter.Form{batter.Waffle, batter.Flourless} {
		_, ok := portion.LayerOf(f, 60, 18, 1.05)
		assert.False(t, ok, f)
	}
}
