package griddle_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/griddle"
)

// A cook's habit: the knob at 6 while mixing, down to 5 when the first is poured, to 4 when it is flipped, and up again
// for the next load.
func TestThePlateIsTurnedInSteps(t *testing.T) {
	v := variation("In steps", batter.Pancake, 60)
	v.Cooking.Heat = []batter.HeatStep{{At: batter.AtMixing, Mark: "6"}, {At: batter.AtPour, Mark: "5"}, {At: batter.AtTurn, Mark: "4"}}
	b := open(t)
	bowl := lay(t, v, "long", griddle.Adjust{})
	require.Len(t, bowl.Turns, 3)
	assert.Equal(t, []string{"At 6", "Down to 5", "Down to 4"}, []string{bowl.Turns[0].Text, bowl.Turns[1].Text, bowl.Turns[2].Text})
	b.puts(bowl)

	require.Equal(t, griddle.DoOn, b.does())
	b.pass(15 * time.Minute)
	require.Equal(t, griddle.DoHot, b.does())
	turn := func(title string) {
		t.Helper()
		require.Equal(t, griddle.DoTurn, b.s.Todo[0].Act)
		require.Equal(t, title, b.s.Todo[0].Title)
		b.does()
		assert.NotContains(t, acts(b.s), griddle.DoTurn, "once")
	}
	turn("Down to 5")
	require.Equal(t, griddle.DoPour, b.does())
	b.pass(time.Duration(bowl.FirstS) * time.Second)
	require.Equal(t, griddle.DoFlip, b.does())
	turn("Down to 4")
	assert.NotContains(t, acts(b.s), griddle.DoPour, "not on a plate that is turned down")
	b.pass(time.Duration(bowl.SecondS) * time.Second)
	require.Equal(t, griddle.DoLift, b.does())
	for _, x := range b.s.Todo {
		if x.Act == griddle.DoJudge {
			b.does1(x)
			break
		}
	}
	turn("Up to 5")
	assert.Contains(t, acts(b.s), griddle.DoPour)

	c := 190.0
	b.tell(griddle.Event{Kind: griddle.Turned, Plate: "long", C: &c})
	assert.NotContains(t, acts(b.s), griddle.DoTurn, "a heat that the bowl does not know changes nothing")
}

func TestOwnMinutesOutrankTheSafeOnesOnTheBoardAndSayIt(t *testing.T) {
	v := variation("Own", batter.Pancake, 60)
	ours := lay(t, v, "long", griddle.Adjust{})
	v.Cooking.Own = []batter.OwnMinutes{{On: "long", FirstS: 60, SecondS: 30, C: ours.GriddleC, PouredMM: ours.PouredMM, From: batter.OwnTyped}}
	own := lay(t, v, "long", griddle.Adjust{})
	assert.True(t, own.Own)
	assert.Equal(t, 30.0, own.SecondS)
	require.NotEmpty(t, own.Warnings)
	assert.Contains(t, own.Warnings[0], "Probe: 74 °C in the middle.")
	v.Cooking.Own[0].On = "pan"
	assert.Equal(t, ours.SecondS, lay(t, v, "long", griddle.Adjust{}).SecondS, "they are for the other plate")
}

// What the first one took is offered as the cook's own minutes when it came out right and the clock said otherwise.
func TestTheBoardSawTheirMinutes(t *testing.T) {
	for name, x := range map[string]struct {
		longer  time.Duration
		verdict griddle.Verdict
		saw     bool
	}{"longer and right": {25 * time.Second, griddle.Right, true}, "as planned": {0, griddle.Right, false}, "dark": {25 * time.Second, griddle.Dark, false}} {
		b := open(t)
		bowl := lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{})
		key := b.puts(bowl)
		b.does()
		b.pass(15 * time.Minute)
		b.does()
		id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
		b.pass(time.Duration(bowl.FirstS)*time.Second + x.longer)
		b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
		b.pass(time.Duration(bowl.SecondS) * time.Second)
		b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
		require.True(t, b.bowl(key).Judge, name)
		b.tell(griddle.Event{Kind: griddle.Judged, Of: key, Verdict: x.verdict})
		saw := b.bowl(key).Saw
		require.Equal(t, x.saw, saw != nil, name)
		if saw != nil {
			assert.Equal(t, bowl.FirstS+25, saw.FirstS)
			assert.Equal(t, bowl.SecondS, saw.SecondS)
		}
	}
}

// The whole bowl as one cake lies in its pan from rim to rim, is no test of others, and is turned over a plate.
func TestOneCakeOnTheBoard(t *testing.T) {
	v := variation("One cake", batter.Pancake, 60)
	for i := range v.Base.Lines {
		v.Base.Lines[i].Amount /= 4
	}
	v.Portion.OneCake = true
	bowl := lay(t, v, "pan", griddle.Adjust{})
	require.Empty(t, bowl.Trouble)
	assert.Equal(t, 1, bowl.Count)
	assert.Equal(t, 260.0, bowl.DiameterMM)
	require.Len(t, bowl.Places, 1)
	assert.Contains(t, bowl.Pour[len(bowl.Pour)-1], "the whole bowl")
	b := open(t)
	key := b.puts(bowl)
	id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "pan", Place: 1, Of: key})
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
	b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
	assert.Equal(t, 1, b.bowl(key).Lifted)
	assert.NotContains(t, acts(b.s), griddle.DoJudge)
	assert.NotContains(t, acts(b.s), griddle.DoPour)
}
