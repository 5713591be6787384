package batter_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

func TestWhatIsSaidOfLumps(t *testing.T) {
	for text, want := range map[string]batter.Lumps{
		"Whisk until no lumps remain.":                        batter.LumpsOut,
		"whisk until there are no more lumps, do not overmix": batter.LumpsOut,
		"beat until the lumps are gone":                       batter.LumpsOut,
		"a smooth, lump-free batter":                          batter.LumpsOut,
		"get rid of any lumps":                                batter.LumpsOut,
		"mix until smooth":                                    batter.LumpsOut,
		"some lumps are fine":                                 batter.LumpsStay,
		"it should be lumpy":                                  batter.LumpsStay,
		"leave small lumps":                                   batter.LumpsStay,
		"stir until just combined":                            batter.LumpsStay,
		"do not overmix":                                      batter.LumpsStay,
		"stir":                                                batter.LumpsUnsaid,
	} {
		assert.Equal(t, want, batter.ReadLumps(text), text)
	}
}

func TestRestsAndStirring(t *testing.T) {
	b := batter.Base{School: batter.School{RestMin: math.NaN()}}
	k := batter.DefaultKitchen()
	assert.Equal(t, 15.0, b.Rest(batter.Pancake, k))
	assert.Equal(t, 60.0, b.Rest(batter.Crepe, k))
	assert.Zero(t, b.Rest(batter.Flourless, k))
	b.School.RestMin = 120
	assert.Equal(t, 120.0, b.Rest(batter.Flourless, k), "what the base says")
	k.RestMin = 0
	assert.Zero(t, b.Rest(batter.Pancake, k), "skipped in one tap")
	for id, tough := range map[string]bool{"plain_flour": true, "rye_flour": true, "rice_flour": false, "buckwheat_flour": false} {
		in := food.Reference().ByID(id)
		b.Lines = []batter.Line{{Ingredient: in, Role: in.Role}}
		assert.Equal(t, tough, b.Toughens(), id)
	}
}
