package food_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
)

// A row told as its own pack comes back as that row, as far as packs tell.
func TestARowToldAsItsPackComesBack(t *testing.T) {
	for _, id := range []string{"plain_flour", "milk_whole", "yogurt_strained", "walnuts_chopped", "plum_puree", "ricotta", "oat_drink"} {
		row := food.Reference().ByID(id)
		in, err := food.FromLabel("Pack", food.Label{
			Energy: row.Energy, Fat: row.Fat, Carbohydrate: row.Carbohydrate - row.Fibre, Sugars: row.Sugars, Fibre: row.Fibre, Protein: row.Protein, Salt: row.Sodium * food.SaltOnLabel,
		}, row)
		require.NoError(t, err, id)
		in.ID = "pack"
		require.NoError(t, in.Check(), id)
		assert.InDelta(t, row.Water, in.Water, 1.5, "%s: water is what is left", id)
		assert.InDelta(t, row.Body, in.Body, 0.02, id)
		assert.InDelta(t, row.Sodium, in.Sodium, 0.5, id)
		assert.InDelta(t, row.Fructose, in.Fructose, 1e-9, id)
		assert.Contains(t, in.Own.Estimated, "density")
	}
}

// Whatever a pack says that can be true makes an ingredient that holds together.
func TestLabelsThatCanBeTrueHoldTogether(t *testing.T) {
	all := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		like := rapid.SampledFrom(all).Draw(t, "like")
		l := food.Label{
			Energy: math.NaN(), Fat: rapid.Float64Range(0, 40).Draw(t, "fat"), Carbohydrate: rapid.Float64Range(0, 30).Draw(t, "carbohydrate"),
			Fibre: rapid.Float64Range(0, 8).Draw(t, "fibre"), Protein: rapid.Float64Range(0, 12).Draw(t, "protein"), Salt: rapid.Float64Range(0, 2).Draw(t, "salt"),
		}
		l.Sugars = rapid.Float64Range(0, 1).Draw(t, "share") * l.Carbohydrate
		in, err := food.FromLabel("Pack", l, like)
		if err != nil { // an extract's alcohol may leave no room
			return
		}
		in.ID = "pack"
		assert.NoError(t, in.Check())
		assert.InDelta(t, l.Fat, in.Fat, 1e-9)
		assert.InDelta(t, l.Carbohydrate+l.Fibre, in.Carbohydrate, 1e-9)
	})
}

func TestLabelsThatCannotBeTrue(t *testing.T) {
	like := food.Reference().ByID("milk_whole")
	good := food.Label{Energy: 64, Fat: 3.5, Carbohydrate: 4.8, Sugars: 4.8, Fibre: math.NaN(), Protein: 3.4, Salt: 0.1}
	_, err := food.FromLabel("Pack", good, like)
	require.NoError(t, err)
	for says, change := range map[string]func(*food.Label){
		"it is kJ": func(l *food.Label) { l.Energy = 268 }, "more than 100 g": func(l *food.Label) { l.Fat, l.Carbohydrate, l.Energy = 60, 60, math.NaN() },
		"which cannot be": func(l *food.Label) { l.Salt = 300 }, "fat is missing": func(l *food.Label) { l.Fat = math.NaN() },
		"which they are part of": func(l *food.Label) { l.Sugars = 9 },
	} {
		l := good
		change(&l)
		_, err := food.FromLabel("Pack", l, like)
		assert.ErrorContains(t, err, says)
	}
	_, err = food.FromLabel("Pack", good, nil)
	assert.ErrorContains(t, err, "most like it")
}

// Own ingredients lie over the table; the table itself never changes.
func TestOwnIngredientsLieOverTheTable(t *testing.T) {
	base := food.Reference()
	tub := *base.ByID("plum_puree")
	tub.Water = 80
	own := *base.ByID("plum_puree")
	own.ID, own.Name = "quay_plums", "Quay plums"
	with := base.With([]*food.Ingredient{&tub, &own})
	assert.Equal(t, 80.0, with.ByID("plum_puree").Water)
	assert.NotEqual(t, 80.0, base.ByID("plum_puree").Water)
	assert.Nil(t, base.ByID("quay_plums"))
	assert.Len(t, with.All(), len(base.All())+1)
	assert.Same(t, &own, with.ByID("quay_plums"))
	assert.Same(t, base, base.With(nil))
	var nobody *food.Own
	assert.False(t, nobody.Stale())
	assert.False(t, (&food.Own{AgeDays: 3, KeepDays: 3}).Stale())
	assert.True(t, (&food.Own{AgeDays: 4, KeepDays: 3}).Stale())
	assert.False(t, (&food.Own{AgeDays: 400}).Stale(), "what does not spoil is never stale")
}
