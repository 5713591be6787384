package food_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/food"
)

// Every row of the table, taken for an ingredient of one's own with only its composition stated,
// is estimated to be something like what it is.
func TestOwnIngredientsAreEstimated(t *testing.T) {
	table := food.Reference()
	var off []float64
	for _, row := range table.All() {
		own := *row
		own.Body, own.ReleaseFraction, own.Density, own.Acid = 0, 1, 0, 0
		got := table.Estimate(&own, food.Stated{})
		if row.HasCells() {
			assert.Contains(t, got, "release", row.ID)
			assert.InDelta(t, row.ReleaseFraction, own.ReleaseFraction, 0.5, row.ID)
		}
		if row.Density > 0 && own.Density > 0 {
			off = append(off, math.Abs(math.Log(own.Density/row.Density)))
		}
		if row.Group == food.GroupPuree && row.Body > 0.1 {
			assert.Positive(t, own.Body, row.ID)
		}
	}
	slices.Sort(off)
	assert.Less(t, off[len(off)/2], 0.15, "half of the densities within 15 %")
	stated := *table.ByID("beetroot_cooked")
	assert.Equal(t, []string{"acid"}, table.Estimate(&stated, food.Stated{Body: true, Release: true, Density: true}))
}
