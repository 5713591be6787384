package mixing_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
)

// The list by bowls has every line of the ledger once, and every gram.
func TestTheListHasEveryLineOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines := plain()
		lines["granulated_sugar"] = rapid.SampledFrom([]float64{0, 25}).Draw(t, "sugar")
		shelf := food.Reference().All()
		var additions []batter.Addition
		for i := range rapid.IntRange(0, 4).Draw(t, "additions") {
			a := with(rapid.SampledFrom(shelf).Draw(t, "ingredient").ID, rapid.Float64Range(0, 200).Draw(t, "g"), rapid.SampledFrom(batter.Stages).Draw(t, "stage"))
			a.ID = fmt.Sprint("a", i)
			additions = append(additions, a)
		}
		w, err := worksheet.Work(context.Background(), variation(rapid.SampledFrom([]batter.Form{batter.Pancake, batter.Waffle, batter.Crepe}).Draw(t, "form"), lines, additions...), batter.DefaultKitchen(), worksheet.Include{})
		if err != nil {
			t.Skip("not a variation")
		}
		seen := map[string]int{}
		var grams, weighed float64
		for _, b := range w.WeighOut {
			assert.NotEmpty(t, b.Lines)
			for _, id := range b.Lines {
				seen[id]++
			}
			grams += b.Grams
		}
		for _, l := range w.Lines {
			assert.Equal(t, 1, seen[l.ID], l.ID)
			weighed += l.Weigh
		}
		assert.InDelta(t, weighed, grams, 1e-6)
		assert.Len(t, seen, len(w.Lines))
	})
}
