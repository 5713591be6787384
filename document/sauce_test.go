package document_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/document"
)

func workSauce(t *testing.T, text string) (document.SauceAnswer, error) {
	t.Helper()
	var w document.SauceWish
	if err := document.Strict([]byte(text), &w); err != nil {
		return document.SauceAnswer{}, err
	}
	return document.WorkSauce(w, document.Setting{Table: food.Reference()})
}

const orangeSyrup = `{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"Orange syrup","kind":"syrup","lines":[{"ingredient":"granulated_sugar","amount":300,"unit":"g"},{"ingredient":"water","amount":0.2,"unit":"l"}],"target":{"brix":70}}}`

// A pot is answered whole: what goes in, where it starts and ends, and what is in it, never silent.
func TestASauceIsAnsweredWhole(t *testing.T) {
	a, err := workSauce(t, orangeSyrup)
	require.NoError(t, err)
	assert.InDelta(t, 70, *a.End.Brix, 0.01)
	assert.InDelta(t, 104.99, *a.End.BoilsC, 0.3, "as published")
	assert.Contains(t, a.Text, "heck every pack")
	assert.NotNil(t, a.Allergens)
	assert.InDelta(t, 70, a.Nutrition.Sugars, 0.2)
	caramel, err := workSauce(t, `{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"Caramel","kind":"caramel","lines":[{"ingredient":"granulated_sugar","amount":200,"unit":"g"},{"ingredient":"cream_heavy","amount":200,"unit":"g"}],"target":{"servings":40,"serving_g":25}}}`)
	require.NoError(t, err)
	assert.Equal(t, []string{"milk"}, caramel.Allergens)
	assert.InDelta(t, 1000, caramel.End.MassG, 1e-6)
	assert.Equal(t, 40, caramel.Servings)
	fruit, err := workSauce(t, `{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"Berry","kind":"syrup","lines":[{"ingredient":"blueberry_fresh","amount":500,"unit":"g"},{"ingredient":"granulated_sugar","amount":200,"unit":"g"}]}}`)
	require.NoError(t, err)
	assert.Positive(t, fruit.Sieved, "a syrup with fruit in it is strained")
}

func TestABadSauceGetsASentenceAtItsField(t *testing.T) {
	for text, pointer := range map[string]string{
		`{}`: "/sauce",
		`{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"x","kind":"syrup","lines":[{"ingredient":"granulated_sugar","amount":300,"unit":"g"}],"target":{"brix":101}}}`: "/sauce/target/brix",
		`{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"x","kind":"gravy","lines":[]}}`:                                                                                "/sauce/kind",
		`{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"x","kind":"cream","lines":[{"ingredient":"milk_whole","amount":300,"unit":"g"}]}}`:                             "/sauce/lines",
		`{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"x","kind":"compote","lines":[{"ingredient":"moon_dust","amount":300,"unit":"g"}]}}`:                            "/sauce/lines/0/ingredient",
		`{"sauce":{"format":"upbeat-ladle/sauce","version":1,"name":"x","kind":"compote","lines":[{"ingredient":"water","amount":-3,"unit":"g"}]}}`:                                 "/sauce/lines/0/amount",
		`{"sauce":{"format":"upbeat-ladle/pot","version":1,"name":"x","kind":"compote","lines":[]}}`:                                                                                "/sauce/format",
	} {
		_, err := workSauce(t, text)
		var p document.Problems
		require.ErrorAs(t, err, &p, text)
		assert.Equal(t, pointer, p[0].Pointer, text)
	}
}

// Whatever is asked of a pot is answered, with figures that are numbers, or refused.
func FuzzSauce(f *testing.F) {
	f.Add([]byte(orangeSyrup))
	f.Fuzz(func(t *testing.T, data []byte) {
		var w document.SauceWish
		if document.Strict(data, &w) != nil {
			return
		}
		a, err := document.WorkSauce(w, document.Setting{Table: food.Reference()})
		if err != nil {
			assert.NotEmpty(t, document.Sentence(err))
			return
		}
		_, err = json.Marshal(a)
		require.NoError(t, err)
	})
}
