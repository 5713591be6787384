package worksheet_test

import (
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/portion"
	"upbeatladle/core/worksheet"
)

func inPan(mm float64) batter.Kitchen {
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{{ID: "pan", Name: "The pan", Round: true, WidthMM: mm, DepthMM: mm}}
	return k
}

// One cake of the whole bowl is as thick as the pan's area makes it; everything that is said of it says so.
func TestOneCake(t *testing.T) {
	v := hatch()
	v.Portion = batter.Portion{VolumeML: 60, OneCake: true}
	w := cookedIn(t, v, inPan(280))
	p := w.Portion
	require.True(t, p.OneCake)
	assert.Equal(t, 1, p.Count)
	assert.InDelta(t, w.Batter.VolumeML*(1-portion.BowlLoss), p.VolumeML, 0.01)
	assert.Equal(t, 280.0, *p.DiameterMM)
	assert.InDelta(t, p.VolumeML*1000/(math.Pi*140*140), *p.PouredMM, 1e-6, "from the pan's area")
	assert.Nil(t, p.Spread, "nobody makes it wider than its pan")
	assert.InDelta(t, 0, p.LeftOverML, 1e-6)
	told := steps(w)
	assert.Contains(t, told, "Pour the whole bowl, and let it run to the rim.")
	assert.Contains(t, told, "60 ml on a flat cold plate", "nobody tests with the whole bowl")
	assert.NotContains(t, told, "on the hot plate it lies")
	assert.Contains(t, w.Cook.Turn.Text, "free the rim, slide it on a plate")
	assert.Equal(t, "One cake", w.Verdict[1].Lead)

	narrow := cookedIn(t, v, inPan(190))
	assert.Greater(t, *narrow.Portion.PouredMM, 16.0)
	assert.Contains(t, strings.Join(narrow.Cook.Warnings, " "), "make two of it, or put a lid on")

	half, said := v.Scaled(0.5)
	assert.Empty(t, said)
	thin := cookedIn(t, half, inPan(280))
	assert.InDelta(t, *p.PouredMM/2, *thin.Portion.PouredMM, 0.3)
	assert.Less(t, thin.Cook.FirstSideS, w.Cook.FirstSideS)

	_, err := worksheet.FactorFor(t.Context(), v, inPan(280), 4, 0, "", 0)
	require.ErrorContains(t, err, "One cake stays one")
	for _, f := range []batter.Form{batter.Waffle, batter.Crepe} {
		v.Form = f
		assert.Equal(t, "not_this_form", v.Check(inPan(280))[0].Code)
	}
}
