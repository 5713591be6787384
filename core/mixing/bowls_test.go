package mixing_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/mixing"
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

// The base's choice of bowls moves no gram: what is in the steps is the list, and only the order of work changes.
func TestTheCooksBowls(t *testing.T) {
	grams := func(w worksheet.Worksheet) map[string]float64 {
		out := map[string]float64{}
		for _, s := range w.Mixing {
			for _, u := range s.Uses {
				out[u.ID] += u.G
			}
		}
		return out
	}
	var before map[string]float64
	for _, b := range batter.AllBowls {
		v := variation(batter.Pancake, plain(), with("beetroot_cooked", 200, batter.StageBatter), with("tea_leaves_black", 6, batter.StageInfused))
		v.Base.School.Bowls = b
		w := work(t, v)
		for _, l := range w.Lines {
			assert.InDelta(t, l.Weigh, grams(w)[l.ID], 1e-9, "%s: %s", b, l.ID)
		}
		if before != nil {
			assert.Equal(t, before, grams(w), b)
		}
		before = grams(w)
		told, one := mixing.Told(w.Mixing), b != batter.TwoBowls
		assert.Equal(t, one, w.WeighOut[0].Key == mixing.BowlOne, b)
		assert.Equal(t, !one, strings.Contains(told, "into a well in the dry"), b)
		flour, egg := strings.Index(told, "plain wheat flour"), strings.Index(told, "hen egg")
		assert.Equal(t, b == batter.OneWetFirst, egg < flour, b)
		assert.Contains(t, told, "in a thin stream", "warm liquid sets egg")
		assert.Contains(t, told, "just combined")
	}
}

// Two grams of dry get neither a bowl nor a well, in any order of bowls (job: never a well for 2 g of dry).
func TestNoWellForAPinch(t *testing.T) {
	for _, b := range batter.AllBowls {
		v := variation(batter.Flourless, map[string]float64{"egg_whole": 150, "salt_fine": 1, "baking_powder": 1}, with("banana_mashed", 240, batter.StageBatter))
		v.Base.School.Bowls = b
		told := mixing.Told(work(t, v).Mixing)
		assert.NotContains(t, told, "well", b)
		assert.Contains(t, strings.ToLower(told), "whisk", b)
	}
}

// A bowl with other amounts in it is the bowl that would have been worked out with them.
func TestWithOtherAmounts(t *testing.T) {
	v := variation(batter.Pancake, plain())
	_, r, err := worksheet.Recipe(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
	assert.NoError(t, err)
	same := r.With(map[string]float64{"milk_whole": 390})
	assert.InDelta(t, r.MassG, same.MassG, 1e-9)
	assert.InDelta(t, r.Thickness.L(), same.Thickness.L(), 1e-12)
	more := r.With(map[string]float64{"milk_whole": 414})
	assert.InDelta(t, r.MassG+24, more.MassG, 1e-9)
	assert.Greater(t, more.SpreadAt(0), r.SpreadAt(0), "more milk runs wider")
	v.Base.Lines[1].Amount = 414
	_, other, err := worksheet.Recipe(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
	assert.NoError(t, err)
	assert.InDelta(t, other.SpreadAt(15), more.SpreadAt(15), 1e-9)
}
