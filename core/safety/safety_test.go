package safety_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
)

func of(ids ...string) []*food.Ingredient {
	var out []*food.Ingredient
	for _, id := range ids {
		out = append(out, food.Reference().ByID(id))
	}
	return out
}

func code(cautions []safety.Caution, code string) bool {
	return slices.ContainsFunc(cautions, func(c safety.Caution) bool { return c.Code == code })
}

func TestContainsAndMayContainStandTogether(t *testing.T) {
	a := safety.AllergensOf(of("rice_flour", "walnuts_chopped", "baking_powder"))
	assert.Equal(t, "Contains walnut · Some makes may carry other nuts and wheat · check every pack", a.Text())
	assert.Equal(t, []string{"tree nuts (walnut)"}, a.US())
	a = safety.AllergensOf(of("water"), "“a flurb of zonk”")
	assert.Equal(t, "No allergen of the lists is named for it · Not known: “a flurb of zonk” · check every pack", a.Text())
	assert.Equal(t, []string{"wheat"}, safety.AllergensOf(of("plain_flour", "baking_powder")).Contains)
	assert.Empty(t, safety.AllergensOf(of("plain_flour", "baking_powder")).May, "wheat is in it already")
}

// The rows that practice is careful with carry what some makes may hold (common practice, no
// source: precautionary labels of the usual makes).
func TestTheTableKnowsWhatSomeMakesCarry(t *testing.T) {
	for id, may := range map[string]string{
		"baking_powder": "wheat", "oat_drink": "wheat", "rice_flour": "wheat", "cornmeal_fine": "wheat", "walnuts_chopped": "nuts", "hazelnuts_chopped": "nuts",
		"almond_meal": "nuts", "peanut_powder": "nuts", "sesame_paste": "nuts", "lemon_juice": "sulphites",
		"chocolate_chips": "nuts", "chocolate_chips_milk": "nuts", "chocolate_chips_white": "nuts", "chocolate_chips_mini": "nuts",
	} {
		assert.Contains(t, food.Reference().ByID(id).MayContain, may, id)
	}
	for _, in := range food.Reference().All() {
		for _, m := range in.MayContain {
			assert.True(t, m == food.Nuts || slices.Contains(food.Allergens, m), "%s: %q is no name of the table", in.ID, m)
		}
		if strings.HasPrefix(in.ID, "chocolate") {
			all := slices.Concat(in.Allergens, in.MayContain)
			assert.Subset(t, all, []string{"milk", "soya", food.Nuts}, in.ID)
		}
	}
}

// Nothing is decided by reading a sentence: an own nut that says to wash hands does not
// silence the washing of produce.
func TestCautionsFollowCodesNotSentences(t *testing.T) {
	own := *food.Reference().ByID("walnuts_chopped")
	own.Caution = "wash your hands; do not taste"
	used := append(of("plain_flour", "egg_whole", "courgette_grated"), &own)
	got := safety.CautionsFor(batter.Pancake, used)
	assert.True(t, code(got, "wash"))
	assert.True(t, code(safety.CautionsFor(batter.Pancake, []*food.Ingredient{&own, {Group: food.GroupEgg}}), "raw_batter"))
	assert.False(t, code(safety.CautionsFor(batter.Pancake, of("dill_fresh")), "wash"), "dill's own sentence says it")
	for id, says := range map[string]string{"apple_slice": "flat side", "rhubarb_diced": "Claw grip", "spinach_chopped": "claw grip"} {
		all := safety.CautionsFor(batter.Pancake, of(id))
		i := slices.IndexFunc(all, func(c safety.Caution) bool { return c.Code == "knife" })
		if assert.GreaterOrEqual(t, i, 0, id) {
			assert.Contains(t, strings.ToLower(all[i].Text), strings.ToLower(says))
		}
	}
	assert.False(t, code(safety.CautionsFor(batter.Pancake, of("vegetable_oil")), "melted_butter"))
	assert.True(t, code(safety.CautionsFor(batter.Pancake, of("ghee")), "melted_butter"))
}

// Whatever is used, its allergens are in the one line, and nothing is promised away.
func TestAllergensAreNeverSilent(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		used := rapid.SliceOfN(rapid.SampledFrom(food.Reference().All()), 0, 12).Draw(t, "used")
		a := safety.AllergensOf(used)
		text := a.Text()
		for _, in := range used {
			for _, al := range slices.Concat(in.Allergens, in.MayContain) {
				assert.Contains(t, text, al)
			}
		}
		assert.True(t, strings.HasSuffix(strings.ToLower(text), "check every pack"))
		assert.NotContains(t, text, "free from")
		assert.GreaterOrEqual(t, len(a.EU()), len(a.US()))
	})
}

func TestWhatSpoils(t *testing.T) {
	assert.True(t, safety.Spoils(of("milk_whole")))
	assert.True(t, safety.Spoils(of("egg_whole")))
	assert.True(t, safety.Spoils(of("soya_drink")))
	assert.False(t, safety.Spoils(of("plain_flour", "water", "skim_milk_powder", "butter_unsalted", "chocolate_chips")))
}

// Whoever leaves something out for a guest leaves out whatever is told of it: contained, in some makes, nuts by any of their
// names; and everything once something is not known.
func TestSuspectsLeaveNothingOut(t *testing.T) {
	all := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		used := rapid.SliceOfN(rapid.SampledFrom(all), 1, 8).Draw(t, "used")
		a := safety.AllergensOf(used)
		suspects := a.Suspects()
		for _, in := range used {
			for _, x := range in.Allergens {
				assert.Contains(t, suspects, x)
			}
			for _, x := range in.MayContain {
				if x == food.Nuts {
					assert.Subset(t, suspects, []string{"almond", "walnut", "hazelnut", "peanut"})
				} else {
					assert.Contains(t, suspects, x)
				}
			}
		}
		assert.ElementsMatch(t, food.Allergens, safety.AllergensOf(used, "a flurb of zonk").Suspects())
	})
}
