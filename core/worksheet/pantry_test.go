package worksheet_test

import (
	"context"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/core/worksheet"
)

// The job's worked scale: 200 g of raw grated courgette hold back about 120 g milk, salted
// and squeezed to 150 g about 72 g, to 120 g about 41 g.
func TestSqueezedCourgetteHoldsBackLessMilk(t *testing.T) {
	courgette := add("courgette_grated", 200, batter.StageBatter)
	for after, milk := range map[float64]float64{0: 120, 150: 72, 120: 41} {
		a := courgette
		if after > 0 {
			a.Prep = prep.Treatment{Method: prep.Squeeze, BeforeG: 200, AfterG: after}
		}
		w := work(t, worked(a))
		assert.InDelta(t, -milk, *find(t, w, "milk").Offset, 6, "squeezed to %g g", after)
		if l := find(t, w, "a-courgette_grated"); after > 0 {
			require.NotNil(t, l.Prepared)
			assert.InDelta(t, after, l.Prepared.Grams, 1e-9)
			assert.InDelta(t, 200, l.Weigh, 1e-9, "weighed before it is squeezed")
		}
	}
}

func TestPreparationIsToldAndItsSaltComesOffTheRecipe(t *testing.T) {
	a := add("courgette_grated", 200, batter.StageBatter)
	a.Prep = prep.Treatment{Method: prep.Squeeze, Salt: true}
	v := worked(a)
	v.Base.Lines = append(v.Base.Lines, line("salt", "salt_fine", 4, "g"))
	v.Offset.Hold = []batter.Hold{batter.HoldThickness, batter.HoldSalt}
	w := work(t, v)
	assert.Equal(t, worksheet.Less, find(t, w, "salt").State)
	var steps []string
	for _, s := range w.Mixing {
		steps = append(steps, s.Text)
	}
	all := strings.Join(steps, " ")
	assert.Contains(t, all, "3 g salt")
	assert.Contains(t, all, "Wring it out")
	assert.Contains(t, all, "come to 12")
	for _, p := range w.Strategies {
		if p.Strategy == v.Offset.Strategy {
			continue
		}
		alone := v
		alone.Offset.Strategy = p.Strategy
		other := work(t, alone)
		assert.InDelta(t, other.Gauge(worksheet.Thickness).After(), p.Thickness, 1e-9, "a preview prepares once")
	}
}

func TestImpossiblePreparationsAreNamedAtTheField(t *testing.T) {
	for field, p := range map[string]prep.Treatment{
		"prep.after_g":         {Method: prep.Squeeze, BeforeG: 100, AfterG: 120},
		"prep.weight_before_g": {Method: prep.Squeeze, AfterG: 120},
		"prep.brix":            {Brix: 90},
		"prep.from":            {Method: prep.Thaw},
	} {
		a := add("courgette_grated", 200, batter.StageBatter)
		a.Prep = p
		_, err := worksheet.Work(context.Background(), worked(a), batter.DefaultKitchen(), shown)
		var wrong batter.Problems
		require.ErrorAs(t, err, &wrong)
		assert.Equal(t, batter.Field{Part: batter.OfAddition, Name: field}, wrong[0].Field, wrong[0].Message)
	}
}

func TestTubsPricesAndStock(t *testing.T) {
	v := worked(add("beetroot_cooked", 200, batter.StageBatter))
	assert.Nil(t, work(t, v).Cost, "nothing has a price")
	tub := *v.Additions[0].Ingredient
	tub.Price, tub.Stock = 5, 150
	tub.Own = &food.Own{Name: "Monday's beetroot", MadeOn: "2026-11-20", AgeDays: 5, KeepDays: 3, Table: v.Additions[0].Ingredient}
	v.Additions[0].Ingredient = &tub
	w := work(t, v)
	require.NotNil(t, w.Cost)
	assert.InDelta(t, 1.0, w.Cost.Batch, 1e-9)
	assert.InDelta(t, 1.0/float64(w.Portion.Count), w.Cost.Portion, 1e-9)
	assert.Contains(t, w.Cost.Missing, "Plain wheat flour")
	assert.Subset(t, codes(w), []string{"tub_stale", "stock_short"})
	tub.Own.AgeDays = 2
	assert.NotContains(t, codes(work(t, v)), "tub_stale")
}
