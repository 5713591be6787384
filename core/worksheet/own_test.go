package worksheet_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/worksheet"
	"upbeatladle/internal/draws"
)

func numbered() batter.Kitchen {
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{{ID: "plate", Name: "The plate", WidthMM: 700, DepthMM: 400, MinC: 120, MaxC: 230, Dial: batter.Numbers,
		Marks: []batter.Mark{{At: 0, C: 120}, {At: 8, C: 220}}}}
	return k
}

// TestTheCooksMinutes: what they have always used outranks ours on that plate, within 10 % of the poured thickness and 8 K.
func TestTheCooksMinutes(t *testing.T) {
	k := numbered()
	v := hatch()
	ours := cookedIn(t, v, k)
	require.Equal(t, worksheet.OwnOffered, ours.Cook.Own.State)
	assert.Equal(t, batter.OwnTyped, ours.Cook.Own.From)
	mm := ours.Cook.Own.PouredMM
	own := batter.OwnMinutes{On: "plate", FirstS: 200, SecondS: 170, C: ours.Cook.GriddleC, PouredMM: mm, From: batter.OwnTyped}
	with := func(change func(*batter.OwnMinutes)) *worksheet.Cook {
		o := own
		change(&o)
		v.Cooking.Own = []batter.OwnMinutes{o}
		return cookedIn(t, v, k).Cook
	}

	c := with(func(*batter.OwnMinutes) {})
	require.Equal(t, worksheet.OwnUsed, c.Own.State)
	assert.Equal(t, []float64{200, 170}, []float64{c.FirstSideS, *c.SecondSideS})
	assert.Equal(t, []float64{ours.Cook.FirstSideS, *ours.Cook.SecondSideS}, []float64{c.Own.OursFirstS, *c.Own.OursSecondS})
	assert.Zero(t, c.Own.ShortOfSafeS)
	assert.Empty(t, c.Warnings, "longer than ours: nobody is corrected")
	assert.Contains(t, steps(cookedIn(t, v, k)), "First side, about 3 min 20 s")

	for name, x := range map[string]struct {
		change func(*batter.OwnMinutes)
		state  worksheet.OwnState
	}{
		"9 % thicker":      {func(o *batter.OwnMinutes) { o.PouredMM = mm / 1.09 }, worksheet.OwnUsed},
		"12 % thicker":     {func(o *batter.OwnMinutes) { o.PouredMM = mm / 1.12 }, worksheet.OwnOutside},
		"any thickness":    {func(o *batter.OwnMinutes) { o.PouredMM = 0 }, worksheet.OwnUsed},
		"for an iron":      {func(o *batter.OwnMinutes) { o.SecondS = 0 }, worksheet.OwnOutside},
		"for another":      {func(o *batter.OwnMinutes) { o.On = "pan" }, worksheet.OwnOffered},
		"by the dial":      {func(o *batter.OwnMinutes) { o.C, o.Mark = 0, "5" }, worksheet.OwnUsed},
		"a mark not there": {func(o *batter.OwnMinutes) { o.C, o.Mark = 0, "medium" }, worksheet.OwnUsed},
	} {
		assert.Equal(t, x.state, with(x.change).Own.State, name)
	}
	assert.Equal(t, 170.0, with(func(o *batter.OwnMinutes) { o.C, o.Mark = 0, "5" }).GriddleC, "mark 5 of a dial mapped from 120 to 220 °C")

	v.Cooking.PlateC = own.C + 8
	assert.Equal(t, worksheet.OwnUsed, with(func(*batter.OwnMinutes) {}).Own.State, "8 K are the same heat")
	v.Cooking.PlateC = own.C + 9
	out := with(func(*batter.OwnMinutes) {})
	assert.Equal(t, worksheet.OwnOutside, out.Own.State)
	assert.Contains(t, out.Own.Text, "The plate stands at")
	v.Cooking.PlateC = 0

	short := with(func(o *batter.OwnMinutes) { o.FirstS, o.SecondS = 60, 30 })
	assert.Equal(t, 30.0, *short.SecondSideS, "theirs, as it is")
	assert.Positive(t, short.Own.ShortOfSafeS)
	assert.Contains(t, strings.Join(short.Warnings, " "), "Probe: 74 °C in the middle.")
	assert.Contains(t, steps(cookedIn(t, v, k)), "Probe: 74 °C in the middle.", "the card says it too")
}

// Where nothing sets it through by the model, no minutes of ours are made up beside theirs.
func TestOwnMinutesWhereNothingSets(t *testing.T) {
	v := hatch()
	v.Portion = batter.Portion{VolumeML: 60, OneCake: true}
	v.Cooking.Own = []batter.OwnMinutes{{On: "pan", FirstS: 300, SecondS: 300, From: batter.OwnTyped}}
	c := cookedIn(t, v, inPan(130)).Cook
	require.Equal(t, worksheet.OwnUsed, c.Own.State)
	assert.Zero(t, c.Own.OursFirstS)
	assert.Nil(t, c.Own.OursSecondS)
	assert.Contains(t, c.Own.Text, "no time sets it through")
	assert.Contains(t, strings.Join(c.Warnings, " "), "74 °C in the middle")
}

func TestWhatTheRecipeSaysIsOfferedAndNeverWorkedWith(t *testing.T) {
	k := numbered()
	v := hatch()
	ours := cookedIn(t, v, k).Cook
	v.Cooking.SaidMinutes = 3
	c := cookedIn(t, v, k).Cook
	assert.Equal(t, []float64{ours.FirstSideS, *ours.SecondSideS}, []float64{c.FirstSideS, *c.SecondSideS})
	assert.Equal(t, batter.OwnSaid, c.Own.From)
	assert.Equal(t, []float64{180, 180}, []float64{c.Own.FirstSideS, *c.Own.SecondSideS})
	assert.Equal(t, "The recipe says 3 min a side.", c.Own.Text)
	assert.Equal(t, worksheet.OwnOffered, c.Own.State)
}

func TestHeatInSteps(t *testing.T) {
	k := numbered()
	v := hatch()
	v.Cooking.Heat = []batter.HeatStep{{At: batter.AtMixing, Mark: "6"}, {At: batter.AtPour, C: 170}, {At: batter.AtTurn, Mark: "4"}}
	w := cookedIn(t, v, k)
	require.Len(t, w.Cook.Heat, 3)
	assert.Equal(t, []string{"At 6", "Down to 5", "Down to 4"}, []string{w.Cook.Heat[0].Text, w.Cook.Heat[1].Text, w.Cook.Heat[2].Text})
	assert.Equal(t, 170.0, w.Cook.GriddleC)
	told := steps(w)
	assert.Contains(t, told, "Down to 5 first. Pour")
	assert.Contains(t, told, "Flip once. Down to 4.")
	assert.Contains(t, told, "The plate, 6, 182 °C (360 °F)")

	same := v
	same.Cooking.Heat = []batter.HeatStep{{At: batter.AtPour, C: 170}}
	steady := cookedIn(t, same, k).Cook
	same.Cooking.Heat = append(same.Cooking.Heat, batter.HeatStep{At: batter.AtTurn, C: 145})
	down := cookedIn(t, same, k).Cook
	assert.Equal(t, steady.FirstSideS, down.FirstSideS, "what is turned at the flip leaves the first side alone")
	assert.Greater(t, *down.SecondSideS, *steady.SecondSideS, "a cooler plate takes longer")

	v.Cooking.Heat = []batter.HeatStep{{At: batter.AtMixing, Mark: "5"}, {At: batter.AtPour, Mark: "5"}, {At: batter.AtTurn, Mark: "5"}}
	assert.NotContains(t, steps(cookedIn(t, v, k)), "Stays", "nobody turns what stays")

	v.Cooking.Heat = []batter.HeatStep{{At: batter.AtPour, Mark: "medium"}}
	strange := cookedIn(t, v, k).Cook
	assert.Contains(t, strings.Join(strange.Reasons, "\n"), "“medium” is no mark on the dial of The plate")
	assert.Positive(t, strange.GriddleC, "advised, as nobody can say")
}

// However they cook: own minutes are used as they stand, or not at all, and where they lack something it is told.
func TestAnyOwnMinutes(t *testing.T) {
	draws.Few(t)
	k := numbered()
	rapid.Check(t, func(r *rapid.T) {
		v := hatch()
		if in := rapid.SampledFrom([]string{"", "beetroot_cooked", "pumpkin_canned"}).Draw(r, "added"); in != "" {
			v = hatch(add(in, rapid.Float64Range(20, 200).Draw(r, "g"), batter.StageBatter))
		}
		v.Portion.VolumeML = rapid.Float64Range(40, 120).Draw(r, "ml")
		own := batter.OwnMinutes{On: "plate", FirstS: rapid.Float64Range(20, 600).Draw(r, "first"), SecondS: rapid.Float64Range(20, 600).Draw(r, "second"),
			C: rapid.Float64Range(130, 210).Draw(r, "c"), PouredMM: rapid.Float64Range(4, 10).Draw(r, "mm"), From: batter.OwnTyped}
		v.Cooking.Own = []batter.OwnMinutes{own}
		w, lies, err := worksheet.AtPlate(t.Context(), v, k)
		require.NoError(r, err)
		c := w.Cook
		if c.Own.State != worksheet.OwnUsed {
			require.NotEqual(r, []float64{own.FirstS, own.SecondS}, []float64{c.FirstSideS, *c.SecondSideS})
			require.NotEmpty(r, c.Own.Text)
			return
		}
		require.Equal(r, []float64{own.FirstS, own.SecondS}, []float64{c.FirstSideS, *c.SecondSideS})
		require.Equal(r, own.C, c.GriddleC)
		require.Equal(r, c.Own.ShortOfSafeS > 0, strings.Contains(strings.Join(c.Warnings, " "), "shorter than what sets"))
		if c.Own.OursSecondS != nil && own.FirstS >= c.Own.OursFirstS && own.SecondS >= *c.Own.OursSecondS {
			require.Zero(r, c.Own.ShortOfSafeS, "who gives both sides longer lacks nothing")
		}
		require.LessOrEqual(r, lies.SafeS, own.SecondS, "the board does not lengthen them")
	})
}
