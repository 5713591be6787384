package food_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
)

func coloured(hex string, strength float64) *food.Ingredient {
	return &food.Ingredient{Colour: food.Colour{Hex: hex, Strength: strength}}
}

// A colour alone is itself, more of what is dark is darker, and the order of what goes in says nothing.
func TestPigments(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pale, dark := coloured("#F6E3A1", 1), coloured("#3B2016", 1)
		var one food.Pigments
		one.Add(pale, rapid.Float64Range(1, 500).Draw(t, "alone"))
		c, ok := one.Colour()
		assert.True(t, ok)
		assert.Equal(t, "#F6E3A1", c.Hex())
		a, b := rapid.Float64Range(1, 500).Draw(t, "pale"), rapid.Float64Range(1, 500).Draw(t, "dark")
		mix := func(more float64) food.RGB {
			var p food.Pigments
			p.Add(pale, a)
			p.Add(dark, b+more)
			c, _ := p.Colour()
			return c
		}
		less, more := mix(0), mix(50)
		for i := range less {
			assert.LessOrEqual(t, more[i], less[i]+1e-12)
		}
		var turned food.Pigments
		turned.Add(dark, b)
		turned.Add(pale, a)
		other, _ := turned.Colour()
		assert.Equal(t, less.Hex(), other.Hex())
	})
	var none food.Pigments
	assert.Zero(t, none.Add(coloured("", 1), 100))
	_, ok := none.Colour()
	assert.False(t, ok, "nothing in it has a colour")
	_, ok = food.ParseHex("#12")
	assert.False(t, ok)
}
