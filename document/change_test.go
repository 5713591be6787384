package document_test

import (
	"context"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/document"
)

// demoVariations are those of the demo kitchen, as files.
func demoVariations(t require.TestingT) (out []document.Variation) {
	bases := map[string]document.Base{}
	files, err := filepath.Glob("../demo/bases/*.json")
	require.NoError(t, err)
	for _, f := range files {
		text, err := os.ReadFile(f)
		require.NoError(t, err)
		b, err := document.DecodeBase(text)
		require.NoError(t, err)
		bases[b.Name] = b
	}
	files, err = filepath.Glob("../demo/variations/*.json")
	require.NoError(t, err)
	require.NotEmpty(t, files)
	for _, f := range files {
		text, err := os.ReadFile(f)
		require.NoError(t, err)
		v, err := document.DecodeVariation(text)
		require.NoError(t, err)
		require.Contains(t, bases, v.Base.Name)
		v.Base.Lines, v.Base.School, v.Portion = bases[v.Base.Name].Lines, bases[v.Base.Name].School, nil
		out = append(out, v)
	}
	return out
}

func encodedVariation(t require.TestingT, v document.Variation) string {
	text, err := v.Encode()
	require.NoError(t, err)
	return string(text)
}

// Steps to other numbers of portions and back are the same document, whichever they are; written
// out, the batch pours like the trusted base.
func TestThereAndBackIsTheSameDocument(t *testing.T) {
	in := document.Setting{Table: food.Reference(), Kitchen: plainKitchen}
	ctx, all := context.Background(), demoVariations(t)
	rapid.Check(t, func(t *rapid.T) {
		first := rapid.SampledFrom(all).Draw(t, "variation")
		v := first
		sheet, err := v.Worksheet(ctx, in)
		require.NoError(t, err)
		natural := sheet.Portion.Count
		for range rapid.IntRange(1, 4).Draw(t, "steps") {
			count := rapid.IntRange(4, 60).Draw(t, "count")
			scaled, err := document.Scale(ctx, document.ScaleWish{Variation: &v, Count: &count}, in)
			require.NoError(t, err)
			v = scaled.Variation
		}
		out, err := document.Scale(ctx, document.ScaleWish{Variation: &v, Settle: true}, in)
		require.NoError(t, err)
		bare := out.Variation
		bare.Additions, bare.Reference = nil, nil
		base, err := bare.Worksheet(ctx, in)
		require.NoError(t, err)
		assert.InDelta(t, sheet.Gauges.Thickness.Base(), base.Gauges.Thickness.Base(), 0.05*math.Max(1, sheet.Gauges.Thickness.Base()), "written out it is the trusted batter")
		back, err := document.Scale(ctx, document.ScaleWish{Variation: &v, Count: &natural}, in)
		require.NoError(t, err)
		assert.Equal(t, encodedVariation(t, first), encodedVariation(t, back.Variation))
	})
}

// Only what uses it is written as version 2, so that an older program reads all else.
func TestReferencesAreVersionTwo(t *testing.T) {
	v := demoVariations(t)[0]
	assert.Contains(t, encodedVariation(t, v), `"version":1`)
	v.Reference = &document.Reference{Kind: document.AsWrittenReference, Additions: v.Additions}
	text := encodedVariation(t, v)
	assert.Contains(t, text, `"version":2`)
	read, err := document.DecodeVariation([]byte(text))
	require.NoError(t, err)
	assert.Equal(t, text, encodedVariation(t, read))

	in := document.Setting{Table: food.Reference(), Kitchen: plainKitchen}
	base, err := document.PlainBase(context.Background(), document.PlainBaseWish{Variation: &v}, in)
	require.NoError(t, err)
	assert.Equal(t, v.Name+", plain", base.Name)
	_, _, err = base.Domain(in)
	require.NoError(t, err)
	v.Reference = nil
	_, err = document.PlainBase(context.Background(), document.PlainBaseWish{Variation: &v}, in)
	refusalCode(t, err, "plain")
	for bad, at := range map[string]string{
		`"reference":{"kind":"as_written","additions":[{"ingredient":"moon_dust","amount":1,"unit":"g"}]}`: "/reference/additions/0/ingredient",
		`"reference":{"kind":"as_it_was"}`:     "/reference/kind",
		`"offset":{"targets":{"thickness":3}}`: "/offset/targets/thickness",
		`"offset":{"targets":{"tang":9}}`:      "/offset/targets/tang",
		`"offset":{"targets":{"structure":1}}`: "/offset/targets/structure",
	} {
		_, err := document.Work(context.Background(), []byte(strings.Replace(small, `"additions"`, bad+`,"additions"`, 1)), in)
		require.Error(t, err, bad)
		assert.ErrorContains(t, err, at, bad)
	}
}

// The kitchen's own mug is weighed once, and then measures and reads like any cup.
func TestTheKitchensOwnMeasures(t *testing.T) {
	ctx := context.Background()
	in := document.Setting{Table: food.Reference(), Kitchen: plainKitchen}
	mug := strings.Replace(small, `"amount":400,"unit":"g"`, `"amount":1,"unit":"mug"`, 1)
	v, err := document.DecodeVariation([]byte(mug))
	require.NoError(t, err)
	_, err = v.Worksheet(ctx, in)
	refusalCode(t, err, "not_weighed")
	wish := document.ReadingWish{Text: "Ingredients\n1 mug of milk\n2 handfuls of raisins\n250 g flour\nMethod\nMix it."}
	r, err := document.Read(t.Context(), wish, in)
	require.NoError(t, err)
	assert.Equal(t, "unsure", r.Lines[0].Status)
	ml := 320.0
	in.Kitchen.MugML = &ml
	w, err := v.Worksheet(ctx, in)
	require.NoError(t, err)
	assert.InDelta(t, 320*food.Reference().ByID("milk_whole").Density, *w.Lines[1].Base, 1e-6)
	r, err = document.Read(t.Context(), wish, in)
	require.NoError(t, err)
	assert.Equal(t, "read", r.Lines[0].Status)
	assert.Equal(t, "unsure", r.Lines[1].Status, "nobody has measured a handful yet")
	assert.Equal(t, "base", r.Lines[0].GoesTo, "it goes into the bowl")
	assert.Empty(t, r.Lines[1].GoesTo)
	v.Kitchen = &document.Kitchen{Measures: "us"}
	w, err = v.Worksheet(ctx, in)
	require.NoError(t, err)
	assert.InDelta(t, 320*food.Reference().ByID("milk_whole").Density, *w.Lines[1].Base, 1e-6, "a mug is the kitchen's, whatever its cups are")

	heaped := 20.0 // 2.6 level ones of flour
	in.Kitchen.HeapedG = &heaped
	data, err := in.Kitchen.Encode()
	require.NoError(t, err)
	assert.Contains(t, string(data), `"version":2`)
	spoons, err := document.DecodeVariation([]byte(strings.NewReplacer(`"version":1`, `"version":3`, `"amount":250,"unit":"g"`, `"amount":6,"unit":"tbsp","fill":"heaped"`).Replace(small)))
	require.NoError(t, err)
	for _, measures := range []string{"", "metric", "au"} {
		spoons.Kitchen = nil
		if measures != "" {
			spoons.Kitchen = &document.Kitchen{Measures: measures}
		}
		w, err = spoons.Worksheet(ctx, in)
		require.NoError(t, err)
		tbsp := map[string]float64{"": 1, "metric": 1, "au": 4. / 3}[measures]
		assert.InDelta(t, 6*20*tbsp, *w.Lines[0].Base, 1e-6, "as it was weighed, in the spoons of the recipe: %s", measures)
	}
	r, err = document.Read(ctx, document.ReadingWish{Text: "Ingredients\n1 heaped tsp baking powder\n250 g flour\n250 g milk\nMethod\nMix it."}, in)
	require.NoError(t, err)
	assert.Contains(t, r.Lines[0].Asks, "holds about 2.6", "of leavener it is asked, with what this kitchen's spoon holds")
	low := 3.0
	in.Kitchen.HeapedG = &low
	data, err = in.Kitchen.Encode()
	require.NoError(t, err)
	_, err = document.DecodeKitchen(data)
	refusalCode(t, err, "out_of_range")

	shell := 62.5
	egg, err := document.InShell(document.EggWish{ShellG: &shell})
	require.NoError(t, err)
	assert.Equal(t, 55.0, egg.EggG, "12 % is shell (common practice)")
	_, err = document.InShell(document.EggWish{})
	refusalCode(t, err, "missing")
}
