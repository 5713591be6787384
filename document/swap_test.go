package document_test

import (
	"context"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
	"upbeatladle/document"
)

func plainBatter(t require.TestingT, lines string) document.Variation {
	v, err := document.DecodeVariation([]byte(`{"format":"upbeat-ladle/variation","version":1,"name":"Swap","form":"pancake","base":{"name":"Plain","lines":[` + lines + `]},
		"additions":[{"id":"a1","ingredient":"carrot_grated","amount":150,"unit":"g","stage":"batter"}]}`))
	require.NoError(t, err)
	return v
}

const swapLines = `{"id":"flour","ingredient":"plain_flour","amount":200,"unit":"g"},{"id":"oat","ingredient":"oat_flour","amount":50,"unit":"g"},{"id":"milk","ingredient":"milk_whole","amount":390,"unit":"g"},{"id":"egg","ingredient":"egg_whole","amount":2,"unit":"each"},{"id":"butter","ingredient":"butter_unsalted","amount":40,"unit":"g"},{"id":"powder","ingredient":"baking_powder","amount":10,"unit":"g"},{"id":"salt","ingredient":"salt_fine","amount":3,"unit":"g"}`

func swapTo(t require.TestingT, v document.Variation, line, label string) (document.Variation, document.Swap) {
	found, err := document.Swaps(document.SwapWish{Variation: &v, Line: line}, document.Setting{Table: food.Reference()})
	require.NoError(t, err)
	for _, s := range found {
		if s.Label == label {
			base := s.Base
			v.Base = &base
			return v, s
		}
	}
	require.Failf(t, "no such swap", "%s for %s in %v", label, line, found)
	return v, document.Swap{}
}

// A swap is judged by the base as it was: the gauges keep their base, the verdict names it, its price stands in the
// notes, and one step leads back to exactly the same document.
func TestASwapIsHeldToTheRealBase(t *testing.T) {
	at := document.Setting{Table: food.Reference()}
	v := plainBatter(t, swapLines)
	before, err := v.Worksheet(context.Background(), at)
	require.NoError(t, err)
	swapped, chosen := swapTo(t, v, "flour", "Buckwheat flour")
	assert.Contains(t, chosen.Says, "no wheat among the lines: check every pack")
	after, err := swapped.Worksheet(context.Background(), at)
	require.NoError(t, err)
	for i, g := range before.Gauges.All() {
		assert.InDelta(t, g.Base(), after.Gauges.All()[i].Base(), 1e-9, g.Label)
	}
	assert.Equal(t, worksheet.Level, after.Gauges.Thickness.State)
	var verdict string
	for _, c := range after.Verdict {
		if c.Kind == "swap" {
			verdict = c.Lead
		}
	}
	assert.Equal(t, "Buckwheat flour for plain wheat flour", verdict)
	assert.Contains(t, after.Verdict[0].Lead, "uckwheat flour", "what stands in is none of the base's")
	assert.NotContains(t, after.Verdict[0].Reason, "buckwheat")
	note := false
	for _, n := range after.Notes {
		note = note || n.Code == "swapped"
	}
	assert.True(t, note)

	again, back := swapTo(t, swapped, "milk", "Back to the base’s own lines")
	assert.True(t, back.Back)
	was, _ := json.Marshal(v)
	is, _ := json.Marshal(again)
	assert.JSONEq(t, string(was), string(is))
}

// The same flour twice is one line, with the weight of both.
func TestTheSameFlourTwiceBecomesOneLine(t *testing.T) {
	for _, line := range []string{"flour", "oat"} {
		label := map[string]string{"flour": "Oat flour", "oat": "Plain wheat flour"}[line]
		v, s := swapTo(t, plainBatter(t, swapLines), line, label)
		n, grams := 0, 0.0
		for _, l := range v.Base.Lines {
			if l.Ingredient == s.Lines[0].Ingredient {
				n, grams = n+1, *l.Amount
			}
		}
		assert.Equal(t, 1, n, label)
		assert.InDelta(t, *s.Lines[0].Amount+map[string]float64{"flour": 50, "oat": 200}[line], grams, 1e-6)
		assert.Len(t, v.Base.Lines, 6)
	}
}

// Whatever is swapped, and swapped again: ids stay different, the bowl can be worked out, the document survives its
// own encoding, and the way back is the base that it was.
func TestSwapsOverRandomBases(t *testing.T) {
	at := document.Setting{Table: food.Reference()}
	rapid.Check(t, func(rt *rapid.T) {
		v := plainBatter(rt, swapLines)
		own := v.Base.Lines
		for range rapid.IntRange(1, 3).Draw(rt, "swaps") {
			line := v.Base.Lines[rapid.IntRange(0, len(v.Base.Lines)-1).Draw(rt, "line")].ID
			found, err := document.Swaps(document.SwapWish{Variation: &v, Line: line}, at)
			require.NoError(rt, err)
			if len(found) == 0 {
				continue
			}
			base := found[rapid.IntRange(0, len(found)-1).Draw(rt, "choice")].Base
			v.Base = &base
			ids, of := map[string]bool{}, map[string]bool{}
			for _, l := range base.Lines {
				assert.False(rt, ids[l.ID], "the id %s twice", l.ID)
				assert.False(rt, of[l.Ingredient], "%s twice", l.Ingredient)
				ids[l.ID], of[l.Ingredient] = true, true
			}
			if len(base.OwnLines) > 0 {
				assert.Equal(rt, own, base.OwnLines)
			} else {
				assert.Equal(rt, own, base.Lines)
			}
			_, err = v.Worksheet(context.Background(), at)
			require.NoError(rt, err)
			data, err := v.Encode()
			require.NoError(rt, err)
			read, err := document.DecodeVariation(data)
			require.NoError(rt, err)
			assert.Equal(rt, v.Base, read.Base)
		}
	})
}
