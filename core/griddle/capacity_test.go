package griddle_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/griddle"
	"upbeatladle/core/portion"
)

// What a cook's hands take, one by one: the board rests on these.
func TestSecondsOfHands(t *testing.T) {
	for _, row := range []struct {
		what string
		is   float64
		says float64
	}{
		{"weigh a line", griddle.WeighS, 25}, {"mix a bowl", griddle.MixS, 90}, {"pour", griddle.PourS, 8}, {"flip", griddle.FlipS, 5}, {"lift", griddle.LiftS, 7},
		{"walk and look, a piece", griddle.WalkS, 20}, {"wipe a plate", griddle.WipeS, 120}, {"a tray in the oven", griddle.OvenS, 5}, {"send a plate", griddle.SendS, 7},
	} {
		assert.Equal(t, row.says, row.is, row.what)
	}
}

func TestWhatAPlateTakes(t *testing.T) {
	b := griddle.Bowl{FirstS: 140, SecondS: 100, Count: 30, Places: make([]portion.At, 9)}
	for _, row := range []struct {
		what   string
		change func(*griddle.Bowl)
		places int
	}{
		{"four minutes on the plate, 40 s of hands for each: six", func(*griddle.Bowl) {}, 6},
		{"no more than fit", func(b *griddle.Bowl) { b.Places = b.Places[:4] }, 4},
		{"no more than there is batter for", func(b *griddle.Bowl) { b.Count = 2 }, 2},
		{"one at least, however quick it is", func(b *griddle.Bowl) { b.FirstS, b.SecondS = 20, 10 }, 1},
	} {
		c := b
		row.change(&c)
		assert.Equal(t, row.places, c.KeepsUp(), row.what)
	}
	assert.Equal(t, 5*280*time.Second, b.Takes(30, 6), "five rounds of 240 s and 40 s of hands")
	assert.Equal(t, 6*280*time.Second, b.Takes(31, 6), "the last one is a round of its own")
	assert.Zero(t, b.Takes(0, 6))
	line := []griddle.Bowl{{Name: "nuts", Suspects: []string{"egg", "milk", "nuts"}}, {Name: "one", Suspects: []string{"egg"}}, {Name: "two", Suspects: []string{"milk"}}}
	griddle.ByAllergens(line, func(b griddle.Bowl) griddle.Bowl { return b })
	assert.Equal(t, []string{"one", "two", "nuts"}, []string{line[0].Name, line[1].Name, line[2].Name})
}
