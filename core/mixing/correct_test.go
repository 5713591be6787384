package mixing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/mixing"
)

// By hand: 60 ml at 18 Pa and 1050 kg/m³ run to 103.3 mm (Roussel & Coussot 2005).
func TestARulerTellsTheYieldStress(t *testing.T) {
	tau, ok := flow.StressOf(60, 103.3, 1.05)
	assert.True(t, ok)
	assert.InDelta(t, 18, tau, 0.05, "103.3 is rounded")
	rapid.Check(t, func(t *rapid.T) {
		ml, tau, rho := rapid.Float64Range(5, 500).Draw(t, "ml"), rapid.Float64Range(3, 200).Draw(t, "Pa"), rapid.Float64Range(0.6, 1.2).Draw(t, "g/ml")
		d, layer := flow.Spread(ml, tau, rho)
		back, ok := flow.StressOf(ml, d, rho)
		if ok != (layer > flow.MinLayerMM) {
			t.Fatalf("ok %v at a layer of %g mm", ok, layer)
		}
		if ok && (back < tau*(1-1e-9) || back > tau*(1+1e-9)) {
			t.Fatalf("%g Pa became %g", tau, back)
		}
	})
}

// bowl is a recipe with so much milk less than it should have, and grated courgette whose water is
// still to come.
func bowl(courgette, short float64) mixing.Recipe {
	v := variation(batter.Pancake, plain())
	var parts []food.Part
	var items []mixing.Item
	mass := 0.0
	for _, l := range v.Base.Lines {
		g := l.Amount
		items = append(items, mixing.Item{ID: l.ID, Ingredient: l.Ingredient, Label: l.Ingredient.Label(), Role: l.Role, IntoG: g, Step: 1})
		if l.ID == "milk_whole" {
			g -= short
		}
		parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: g})
		mass += g
	}
	parts = append(parts, food.Part{Ingredient: in("courgette_grated"), Grams: courgette})
	return mixing.Recipe{
		Form: batter.Pancake, Base: v.Base, Items: items, RestMin: 15, Offset: true, Judged: true, Spreads: true,
		Parts: parts, Thickness: flow.Of(parts), Calibration: flow.Prior, PortionML: 60, TestML: 60, Density: 1.06, MassG: mass + courgette,
	}
}

// A bowl that got too little milk is tested at any minute, with any ladle: what is to be stirred in is
// what was left out, water that is still to come out of the courgette included.
func TestATestFindsWhatIsMissing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		courgette := rapid.Float64Range(0, 200).Draw(t, "courgette")
		short := rapid.Float64Range(0, 35).Draw(t, "short")
		minutes := rapid.Float64Range(0, 120).Draw(t, "minutes")
		ml := rapid.Float64Range(30, 120).Draw(t, "ml")
		planned, real := bowl(courgette, 0), bowl(courgette, short)
		real.PortionML, real.TestML = ml, ml
		c, err := planned.Correct(mixing.Test{Minutes: minutes, VolumeML: ml, DiameterMM: real.SpreadAt(minutes)}, 0)
		if err != nil {
			t.Skip(err) // it ran out thin
		}
		narrower := c.TargetMM - real.SpreadAt(minutes)
		switch {
		case c.Grams == 0 && narrower <= 1: // a ruler does not tell it
		case c.Grams < short-1 || c.Grams > short+1:
			t.Fatalf("%.1f g are missing, %.0f g are asked for", short, c.Grams)
		}
		if c.Grams > 0.05*planned.MassG+1 {
			t.Fatalf("%.0f g at once", c.Grams)
		}
		if c.Grams > 0 && c.After == flow.Runny {
			t.Fatal("it is runny after it")
		}
	})
}

// What runs as it should at that minute is let be, whatever it will run to once all the water is out.
func TestRightAtThatMinuteIsRight(t *testing.T) {
	r := bowl(200, 0)
	for _, minutes := range []float64{0, 5, 15, 30, 60} {
		c, err := r.Correct(mixing.Test{Minutes: minutes, VolumeML: 60, DiameterMM: r.SpreadAt(minutes)}, 100)
		require.NoError(t, err)
		assert.Zero(t, c.Grams, "%g min", minutes)
		assert.Contains(t, c.Text, "It is right")
	}
	assert.Greater(t, r.SpreadAt(60), r.SpreadAt(0)+5, "the courgette lets go")
	wide, err := r.Correct(mixing.Test{VolumeML: 60, DiameterMM: r.SpreadAt(0) + 8}, 0)
	require.NoError(t, err)
	assert.Zero(t, wide.Grams)
	assert.Contains(t, wide.Text, "wait until 10 min after mixing")
}

func TestATestInWords(t *testing.T) {
	r := bowl(0, 0)
	stiff, err := r.Correct(mixing.Test{Minutes: 15, Says: mixing.Mounds}, 100)
	require.NoError(t, err)
	assert.Equal(t, flow.Thick, stiff.Now)
	assert.True(t, stiff.Most, "a mound wants more than a bowl takes at once")
	assert.InDelta(t, 0.05*r.MassG, stiff.Grams, 0.5)
	assert.Contains(t, stiff.Text, "as much as the bowl takes at once")
	assert.Contains(t, stiff.Text, "from the jug")
	right, err := r.Correct(mixing.Test{Says: mixing.JustSpreads}, 0)
	require.NoError(t, err)
	runs, err := r.Correct(mixing.Test{Says: mixing.Runs}, 0)
	require.NoError(t, err)
	assert.Zero(t, right.Grams+runs.Grams)
	assert.Greater(t, stiff.YieldStress, right.YieldStress*0.9)
	assert.Greater(t, right.YieldStress, runs.YieldStress)
}

func TestATestThatSaysNothing(t *testing.T) {
	r := bowl(0, 0)
	_, err := r.Correct(mixing.Test{VolumeML: 60, DiameterMM: 400}, 0)
	assert.ErrorIs(t, err, mixing.ErrTooThin)
	r.Judged = false
	_, err = r.Correct(mixing.Test{Says: mixing.Mounds}, 0)
	assert.ErrorIs(t, err, mixing.ErrNotJudged)
	r.Judged, r.Items = true, nil
	c, err := r.Correct(mixing.Test{Says: mixing.Mounds}, 0)
	require.NoError(t, err)
	assert.Positive(t, c.Grams)
	assert.Contains(t, c.Text, "milk or water", "a base of yogurt or curd alone has no liquid of its own to thin it with")
}
