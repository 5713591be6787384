package document_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/document"
)

// Ounce and pound: the international pound of 1959, exactly 0.45359237 kg. Cups and spoons: US customary by NIST
// SP 811, Appendix B; half an imperial pint; the metric cup of 250 ml; the Australian spoon of 20 ml (AS 1325).
func TestAmountsAreReadInTheUnitOfTheirField(t *testing.T) {
	read := func(measures, text string, in measure.Unit, of string) (document.Amount, error) {
		k := document.DefaultOwnKitchen()
		k.Measures = measures
		return document.ReadAmount(document.AmountWish{Text: &text, In: in, Ingredient: of}, document.Setting{Table: food.Reference(), Kitchen: k})
	}
	for _, c := range []struct {
		measures, text string
		in             measure.Unit
		of             string
		want           float64
	}{
		{"metric", "200g", measure.Gram, "", 200},
		{"metric", "200", measure.Gram, "", 200},
		{"metric", "0,2 kg", measure.Gram, "", 200},
		{"metric", "1 lb", measure.Gram, "", 453.59237},
		{"metric", "4 oz", measure.Gram, "", 113.398},
		{"us", "1 1/2 cups", measure.Ml, "", 354.882},
		{"imperial", "1 cup", measure.Ml, "", 284.131},
		{"metric", "½ cup", measure.Ml, "", 125},
		{"au", "2 Tbsp", measure.Ml, "", 40},
		{"metric", "1 cup", measure.Gram, "water", 250},
		{"metric", "250 g", measure.Ml, "water", 250},
	} {
		got, err := read(c.measures, c.text, c.in, c.of)
		if assert.NoError(t, err, c.text) {
			assert.InDelta(t, c.want, got.Amount, 0.005*c.want, "%s in %s", c.text, c.in)
			assert.Equal(t, c.in, got.Unit)
		}
	}
	for _, text := range []string{"2 cups", "3 pieces", "a lot", "-1 g", ""} {
		_, err := read("metric", text, measure.Gram, "")
		require.Error(t, err, text)
	}
	free, err := read("metric", "2 Tbsp", "", "")
	require.NoError(t, err)
	assert.Equal(t, document.Amount{Amount: 2, Unit: measure.Tbsp}, free, "a field of its own unit takes any")
}
