package worksheet_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/measure"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

func TestAGaugeSaysHowFarItCanBePulled(t *testing.T) {
	v := hatch(add("beetroot_cooked", 200, batter.StageBatter))
	w := work(t, v)
	p := w.Gauges.Sweetness.Pull
	require.NotNil(t, p)
	assert.Equal(t, "as the base", p.Text)
	assert.InDelta(t, 0.05*w.Gauges.Sweetness.Base(), p.Figure, 1e-9)
	v.Offset.Targets = batter.Targets{batter.HoldSweetness: 1.1, batter.HoldTang: -0.5}
	w = work(t, v)
	assert.Equal(t, "10 % sweeter than the base", w.Gauges.Sweetness.Pull.Text)
	assert.Equal(t, "a touch milder than the base", w.Gauges.Tang.Pull.Text)
	assert.Nil(t, w.Gauges.Moisture.Pull, "what follows from the others is not pulled")
	assert.Nil(t, w.Gauges.Structure.Pull)
	v.Offset.Strategy = batter.Leave
	assert.Nil(t, work(t, v).Gauges.Sweetness.Pull, "nothing would follow")
}

// Every step that a gauge offers is a step that the document takes, and the gauge goes that way or
// says why it cannot.
func TestEveryStepOfAPullIsTaken(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := anyVariation(t)
		w := sheet(t, v)
		for _, g := range w.Gauges.All() {
			if g.Pull == nil {
				continue
			}
			to := g.Pull.Rest + float64(rapid.IntRange(-4, 4).Draw(t, "steps"))*g.Pull.Step
			to = math.Min(g.Pull.High, math.Max(g.Pull.Low, to))
			v.Offset.Targets = batter.Targets{g.Pull.Hold: to}
			pulled := sheet(t, v)
			now := pulled.Gauge(g.Key)
			require.NotNil(t, now.Target)
			steps := (to - g.Pull.Rest) / g.Pull.Step
			if want := g.Base() + steps*g.Pull.Figure; math.Abs(*now.Target-want) > 1e-6*math.Max(1, math.Abs(want)) {
				t.Fatalf("%s: %g, %g steps are %g", g.Key, *now.Target, steps, want)
			}
		}
	})
}

// The sum behind a line adds up on the page: what is printed of every part is what is printed to
// weigh out.
func TestTheSumOfALineAddsUp(t *testing.T) {
	var said int
	rapid.Check(t, func(t *rapid.T) {
		v := anyVariation(t)
		w := work(t, v)
		for _, l := range w.Lines {
			for _, k := range w.Working {
				if k.Line != l.ID || k.Sum == nil {
					continue
				}
				said++
				var sum float64
				for _, part := range k.Sum {
					sum += measure.Round(part.Value, l.Step)
					require.NotEmpty(t, part.Label)
				}
				if math.Abs(sum-l.Weigh) > l.Step/100 {
					t.Fatalf("%s: %v is %g, to weigh out %g", l.Label, k.Sum, sum, l.Weigh)
				}
				require.Contains(t, k.Text, words.Grams(l.Weigh, l.Step))
			}
		}
	})
	require.Positive(t, said)
}

// The lift is also pulled by words: one is always chosen, and what a word says comes out.
func TestTheLiftIsPulledByWords(t *testing.T) {
	for i, want := range []string{"fluffier", "as it is", "flatter and softer"} {
		v := hatch()
		w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
		require.NoError(t, err)
		require.Len(t, w.Gauges.Lift.Pull.Choices, 3)
		if at := w.Gauges.Lift.Pull.Choices[i].At; at != 1 {
			v.Offset.Targets = batter.Targets{batter.HoldLift: at}
		}
		pulled, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
		require.NoError(t, err)
		for _, c := range pulled.Gauges.Lift.Pull.Choices {
			assert.Equal(t, c.Text == want, c.Chosen, c.Text)
		}
		switch want {
		case "fluffier":
			assert.Greater(t, pulled.Gauges.Lift.After(), w.Gauges.Lift.After()+20)
		case "flatter and softer":
			assert.Less(t, pulled.Gauges.Lift.After(), w.Gauges.Lift.After()-20)
		}
	}
}
