package document_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
)

// A test is asked for in numbers or in words; what is odd gets a sentence at its field.
func TestATestOfTheBowlIsAnswered(t *testing.T) {
	ask := func(rest string) (map[string]any, error) {
		var w document.CorrectionWish
		require.NoError(t, document.Strict([]byte(`{"variation":`+beetrootBowl+`,`+rest+`}`), &w))
		c, err := document.Correct(t.Context(), w, setting)
		return map[string]any{"add": c.Add, "text": c.Text, "target": c.TargetDiameterMM, "now": c.ClassNow, "after": c.ClassAfter}, err
	}
	narrow, err := ask(`"minutes":15,"rested":false,"test":{"volume_ml":60,"diameter_mm":80}`)
	require.NoError(t, err)
	assert.Len(t, narrow["add"], 1)
	assert.Contains(t, narrow["text"], "Stir in")
	words, err := ask(`"rested":true,"test":{"says":"just_spreads"}`)
	require.NoError(t, err)
	assert.Empty(t, words["add"])
	assert.Nil(t, words["target"].(*float64))
	for rest, where := range map[string]string{
		`"test":{}`:               "/test",
		`"test":{"volume_ml":60}`: "/test/diameter_mm",
		`"test":{"volume_ml":60,"diameter_mm":5000}`: "/test/diameter_mm",
		`"test":{"volume_ml":60,"diameter_mm":300}`:  "/test",
		`"test":{"says":"flops"}`:                    "/test/says",
		`"test":{"says":"runs","volume_ml":60}`:      "/test",
		`"minutes":-1,"test":{"says":"runs"}`:        "/minutes",
	} {
		_, err := ask(rest)
		var p document.Problems
		if assert.ErrorAs(t, err, &p, rest) {
			assert.Equal(t, where, p[0].Pointer, rest)
		}
	}
}

const beetrootBowl = `{"format":"upbeat-ladle/variation","version":1,"name":"Beetroot","form":"pancake","base":{"name":"Plain","lines":[
	{"id":"b1","ingredient":"plain_flour","amount":250,"unit":"g"},{"id":"b2","ingredient":"milk_whole","amount":390,"unit":"g"},
	{"id":"b3","ingredient":"egg_whole","amount":2,"unit":"each"},{"id":"b4","ingredient":"baking_powder","amount":10,"unit":"g"}]},
	"additions":[{"id":"a1","ingredient":"beetroot_cooked","amount":150,"unit":"g","stage":"batter"}],"portion":{"volume_ml":60}}`
