package words_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/words"
)

func TestHowACookReadsIt(t *testing.T) {
	assert.Equal(t, "milk, sugar and salt", words.List([]string{"milk", "sugar", "salt"}))
	assert.Equal(t, "milk and sugar", words.List([]string{"milk", "sugar"}))
	assert.Empty(t, words.List(nil))
	assert.Equal(t, "whole milk", words.Lower("Whole milk"))
	assert.Equal(t, "UHT milk", words.Lower("UHT milk"))
	assert.Equal(t, "échalote", words.Lower("Échalote"), "letters beyond ASCII stay letters")
	assert.Equal(t, "Écrin", words.Upper("écrin"))
	assert.Equal(t, "7.5 g", words.Grams(7.5, 0.1))
	assert.Equal(t, "8 g", words.Grams(7.96, 0.1))
	assert.Equal(t, "296 g", words.Grams(296.3, 1))
	assert.Equal(t, "0.25 g", words.Grams(0.25, 0.01), "a pinch of clove on a fine scale")
	assert.Equal(t, []int{0, 0, 1, 1, 2, 2, 2}, []int{words.Decimals(5), words.Decimals(1), words.Decimals(0.5), words.Decimals(0.1), words.Decimals(0.25), words.Decimals(0.05), words.Decimals(0.01)})
	assert.Equal(t, "1.5 h", words.Minutes(90))
	assert.Equal(t, "75 min", words.Minutes(75))
	assert.Equal(t, []string{"no", "three", "11"}, []string{words.Number(0), words.Number(3), words.Number(11)})
}
