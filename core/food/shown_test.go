package food_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/food"
)

// Water, sugars and the rest are the whole of every row.
func TestTheRestMakesTheWhole(t *testing.T) {
	for _, in := range food.Reference().All() {
		assert.GreaterOrEqual(t, in.Rest(), 0.0, in.ID)
		assert.InDelta(t, 100, in.Water+in.Sugars+in.Rest(), 1.5, "%s: a printed row may be rounded by so much", in.ID)
	}
}
