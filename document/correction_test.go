package document_test

import (
	"context"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

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

var (
	toldMM   = regexp.MustCompile(`run to about (\d+) mm`)
	toldRest = regexp.MustCompile(`or to (\d+) mm if you test after the rest`)
	toldG    = regexp.MustCompile(`stir in about ([\d.]+) g`)
)

// The step of the test and the answer to the test say the same: what the step calls right is right, just
// mixed and after the rest, and what it stirs in for 5 mm is what the answer stirs in, over random variations.
func TestTheStepAndTheAnswerOfATestAgree(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		grams, ladle := rapid.Float64Range(20, 250).Draw(t, "g"), rapid.SampledFrom([]float64{40, 60, 90}).Draw(t, "ml")
		of := rapid.SampledFrom([]string{"beetroot_cooked", "courgette_grated", "carrot_grated", "banana_ripe", "spinach_puree"}).Draw(t, "addition")
		doc := strings.NewReplacer(`"beetroot_cooked","amount":150`, fmt.Sprintf(`%q,"amount":%g`, of, grams), `"volume_ml":60`, fmt.Sprintf(`"volume_ml":%g`, ladle)).Replace(beetrootBowl)
		v, err := document.DecodeVariation([]byte(doc))
		if err != nil {
			t.Fatal(err)
		}
		w, err := v.Worksheet(context.Background(), setting)
		if err != nil {
			t.Skip(err)
		}
		text := ""
		for _, s := range w.Mixing {
			if s.Code == "test" && s.Ruler {
				text = s.Text
			}
		}
		now, rest, g := figure(toldMM, text), figure(toldRest, text), figure(toldG, text)
		if now == 0 || g == 0 {
			t.Skip("no ruler")
		}
		answer := func(mm float64, rested bool) []float64 {
			c, err := document.Correct(context.Background(), document.CorrectionWish{Variation: &v, Rested: rested, Test: document.PourTest{VolumeML: &ladle, DiameterMM: &mm}}, setting)
			if err != nil {
				t.Fatal(err)
			}
			var out []float64
			for _, a := range c.Add {
				out = append(out, a.Grams)
			}
			return out
		}
		if got := answer(now, false); len(got) > 0 {
			t.Fatalf("%s: %v g at what is right", text, got)
		}
		if got := answer(rest, true); rest > 0 && len(got) > 0 {
			t.Fatalf("%s: %v g at what is right after the rest", text, got)
		}
		got := answer(now-5, false)
		// The step's figure is of the diameter before it was rounded to a millimetre.
		if len(got) != 1 || got[0] < g*0.85-1 || got[0] > g*1.15+1 {
			t.Fatalf("%s: %v g", text, got)
		}
	})
}

func figure(of *regexp.Regexp, text string) float64 {
	m := of.FindStringSubmatch(text)
	if m == nil {
		return 0
	}
	v, _ := strconv.ParseFloat(m[1], 64)
	return v
}
