package keep_test

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/keep"
)

// The limits of the food by the US Food Code (135 °F) and the UK regulations (63 °C).
func TestHotIsHotByBothCodes(t *testing.T) {
	assert.InDelta(t, (135-32)/1.8, keep.HotUSC, 0.5)
	assert.Equal(t, 63, keep.HotUKC)
	for c, says := range map[float64]string{50: "too cool", 60: "not in the UK", 66: "hot enough", math.NaN(): "Look with a probe"} {
		assert.Contains(t, keep.Rack{OvenOn: true, FoodC: c}.Said(), says)
	}
}

// Whatever waits, however long and however warm: over its limit there is a warning, it never gets better by waiting,
// and what stood warm for four hours is thrown away.
func TestNothingIsOverItsLimitWithoutAWord(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := rapid.SampledFrom(batter.Forms).Draw(t, "form")
		r := keep.Rack{OvenOn: rapid.Bool().Draw(t, "oven"), FoodC: rapid.OneOf(rapid.Just(math.NaN()), rapid.Float64Range(10, 95)).Draw(t, "c")}
		held := time.Duration(rapid.Int64Range(-60, 6*3600).Draw(t, "s")) * time.Second
		l := r.At(f, held)
		order := map[keep.Waiting]int{keep.Fine: 0, keep.Soon: 1, keep.Over: 2, keep.Unfit: 3}
		assert.Equal(t, l.State == keep.Fine, l.Text == "")
		if held.Minutes() >= keep.HoldOf(f).Minutes {
			assert.GreaterOrEqual(t, order[l.State], order[keep.Over])
		}
		if r.Cool() && held >= 4*time.Hour {
			assert.Equal(t, keep.Unfit, l.State)
		}
		assert.GreaterOrEqual(t, order[r.At(f, held+10*time.Minute).State], order[l.State])
		assert.GreaterOrEqual(t, l.HeldMin, 0.0, "a clock that was set back makes nothing younger than new")
		may, why := keep.MayFreeze(l)
		assert.Equal(t, may, why == "")
		assert.Equal(t, held < 2*time.Hour, may)
	})
}

func TestHowLongThingsKeep(t *testing.T) {
	assert.Equal(t, 10.0, keep.HoldOf(batter.Waffle).Minutes, "a waffle softens after about ten minutes")
	assert.Contains(t, keep.HoldOf(batter.Crepe).How, "damp cloth")
	made := time.Date(2026, 11, 26, 8, 0, 0, 0, time.UTC)
	assert.Equal(t, "2027-01-25", keep.UseBy(made).Format(time.DateOnly))
	for _, f := range batter.Forms {
		ways := keep.Reheat(f)
		assert.GreaterOrEqual(t, len(ways), 3)
		assert.Contains(t, ways[0], "74 °C")
		assert.Contains(t, ways[len(ways)-1], "Thawed in the fridge")
	}
}
