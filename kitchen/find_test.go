package kitchen_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/kitchen"
)

// What is typed finds variations, bases, ingredients and tubs, the best of each first; what is put aside is found no more.
func TestFindAnywhere(t *testing.T) {
	s := open(t, true)
	ctx := t.Context()
	kinds := func(text string) map[string][]string {
		found, err := s.Find(ctx, text)
		require.NoError(t, err)
		out := map[string][]string{}
		for _, f := range found {
			out[f.Kind] = append(out[f.Kind], f.Name)
		}
		return out
	}
	assert.Contains(t, kinds("spinach")["variation"], "Spinach crêpe")
	assert.Contains(t, kinds("crepe hatch")["base"], "Hatch crêpe")
	assert.NotEmpty(t, kinds("plum")["tub"], "the demo's purée")
	assert.NotEmpty(t, kinds("plum")["ingredient"])
	everything := kinds("")
	assert.Len(t, everything["variation"], 7)
	assert.Len(t, everything["base"], 4)
	assert.Empty(t, everything["ingredient"], "a pantry is not listed before something is typed")
	assert.Empty(t, kinds("qqqq"))

	found, err := s.Find(ctx, "spinach")
	require.NoError(t, err)
	var gone kitchen.Found
	for _, f := range found {
		if f.Kind == "variation" {
			gone = f
		}
	}
	require.NoError(t, s.PutAside(ctx, "variation", gone.ID))
	assert.NotContains(t, kinds("spinach")["variation"], gone.Name)
}
