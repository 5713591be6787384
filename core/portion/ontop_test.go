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

// What is drawn has the volume of what is put on, whatever shape it takes; pieces and dust lie all over.
func TestWhatGoesOnKeepsItsVolume(t *testing.T) {
	shelf := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		in := rapid.SampledFrom(shelf).Draw(t, "in")
		g := rapid.Float64Range(1, 80).Draw(t, "g")
		across, thick := rapid.Float64Range(50, 260).Draw(t, "across"), rapid.Float64Range(1, 20).Draw(t, "thick")
		n := rapid.IntRange(1, 4).Draw(t, "of")
		place := rapid.SampledFrom([]batter.Place{batter.OnTop, batter.Middle}).Draw(t, "place")
		density := in.PieceDensity()
		if in.Density > 0 && in.Piece.Density == 0 {
			density = in.Density
		}
		ml := g / density
		for i := range n {
			l := portion.Lies(in, g, place, across, thick, i, n)
			assert.LessOrEqual(t, l.WideMM, across+1e-9, "it stays on")
			assert.LessOrEqual(t, math.Hypot(l.X, l.Y)+l.WideMM/2, across/2+1e-6, "all of it")
			var mm3 float64
			switch l.Shape {
			case portion.Dust, portion.Pieces:
				assert.InDelta(t, across, l.WideMM, 1e-9)
				continue
			case portion.Pat:
				mm3 = l.WideMM * l.WideMM * l.HighMM
			case portion.Heap:
				mm3 = math.Pi / 6 * l.WideMM * l.WideMM * l.HighMM
			default:
				mm3 = math.Pi / 4 * l.WideMM * l.WideMM * l.HighMM
			}
			assert.InDelta(t, 1, mm3/1000/ml, 1e-6, "%s of %s", l.Shape, in.ID)
		}
	})
}

// What a cook would call each: by hand on a pancake of 100 mm.
func TestHowThingsLie(t *testing.T) {
	ref := food.Reference()
	for id, want := range map[string]portion.Shape{
		"butter_unsalted": portion.Pat, "maple_syrup": portion.Pool, "icing_sugar": portion.Dust, "whipped_cream": portion.Heap, "yogurt_strained": portion.Heap,
		"walnuts_chopped": portion.Pieces, "blueberry_fresh": portion.Pieces, "jam_fruit": portion.Pool,
	} {
		assert.Equal(t, want, portion.Lies(ref.ByID(id), 20, batter.OnTop, 100, 8, 0, 1).Shape, id)
	}
	syrup := portion.Lies(ref.ByID("maple_syrup"), 10, batter.OnTop, 200, 8, 0, 1)
	assert.InDelta(t, 1.5, syrup.HighMM, 1e-9)
	assert.Equal(t, portion.Inside, portion.Lies(ref.ByID("jam_fruit"), 10, batter.Middle, 100, 8, 0, 1).Shape)
	berries := portion.Lies(ref.ByID("blueberry_fresh"), 30, batter.OnTop, 100, 8, 0, 1)
	assert.InDelta(t, 30/ref.ByID("blueberry_fresh").Piece.MassG, float64(berries.Pieces), 0.5)
}
