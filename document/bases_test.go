package document_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
	"upbeatladle/starter"
)

// Every starter base sits inside the bands of its form and style.
func TestTheStarterShelfSitsInsideTheBands(t *testing.T) {
	all, err := starter.Bases()
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(all), 10)
	styles := map[string]bool{}
	for _, data := range all {
		b, err := document.DecodeBase(data)
		require.NoError(t, err)
		styles[b.Style] = true
		f, err := b.Fingerprint(context.Background(), here())
		require.NoError(t, err, b.Name)
		for _, r := range f.Ratios {
			assert.NotContains(t, []string{"low", "high"}, r.State, fmt.Sprint(b.Name, ": ", r.Name, " ", r.Value, f.Sentences))
		}
	}
	for _, s := range []string{"milk", "cultured", "yogurt", "curd", "self_raising", "whipped", "crisp", "chewy", "crepe", "buckwheat", "flourless"} {
		assert.True(t, styles[s], s)
	}
}

func TestAFingerprintSaysWhatIsUnusual(t *testing.T) {
	all, err := starter.Bases()
	require.NoError(t, err)
	b, err := document.DecodeBase(all[0])
	require.NoError(t, err)
	for i, l := range b.Lines {
		if l.Ingredient == "baking_powder" {
			b.Lines[i].Amount = g(45)
		}
	}
	f, err := b.Fingerprint(context.Background(), here())
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(f.Sentences), "Powder is high for this flour")
	assert.Contains(t, fmt.Sprint(f.Sentences), "times the usual")
}

// A line without an amount counts when its name is known; one that is not understood is named.
func TestTheReaderTellsAllergensOfEveryLine(t *testing.T) {
	r, err := document.Read(document.ReadingWish{Text: "Pancakes\n\nIngredients\n250 g plain flour\n300 ml water\na handful of walnuts\npeanut powder\n1 flurb of zonk"}, here())
	require.NoError(t, err)
	assert.Contains(t, r.Allergens, "Contains peanut, walnut and wheat")
	assert.Contains(t, r.Allergens, "not known: “1 flurb of zonk”")
	r, err = document.Read(document.ReadingWish{Text: "Pancakes\n\nIngredients\n250 g plain flour\n300 ml water\na handful of walnuts", Fixes: []document.Fix{{Line: 2, LeaveOut: true}}}, here())
	require.NoError(t, err)
	assert.NotContains(t, r.Allergens, "walnut", "what is left out is out")
}
