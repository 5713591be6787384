package document_test

import (
	"context"
	"encoding/json"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/document"
)

var setting = document.Setting{Table: food.Reference(), Kitchen: plainKitchen}

var plainKitchen = document.DefaultOwnKitchen()

// full uses every field that the grammar has, so that none is refused before its
// capability lands.
const full = `{"format":"upbeat-ladle/variation","version":2,"name":"Beetroot & orange","form":"pancake",
 "base":{"name":"Hatch plain","style":"milk","school":{"lumps":"stop while lumpy","rest_min":15,"dairy":"milk","eggs":"whole","pan_fat":"oil","crisp":"no"},
  "source_note":"ours","base_ref":{"id":"x","revision":2},"lines":[
   {"id":"f","ingredient":"plain_flour","amount":2,"unit":"cup","flour_method":"sifted"},
   {"ingredient":"milk_whole","amount":400,"unit":"ml","role":"liquid","locked":true},
   {"ingredient":"coconut_milk","amount":0.5,"unit":"can","size_ml":400},
   {"ingredient":"pumpkin_canned","amount":1,"unit":"can","size_g":425},
   {"ingredient":"egg_whole","amount":2,"unit":"each"},
   {"ingredient":"salt_fine","amount":2,"unit":"pinch"}]},
 "additions":[
   {"ingredient":"beetroot_cooked","amount":200,"unit":"g","stage":"batter","prep":"puree","measured":{"brix":9.5,"weight_before_g":300,"weight_after_g":200,"size_mm":3}},
   {"ingredient":"walnuts_chopped","amount":0,"unit":"g","stage":"fold_in","placed_per_portion":3,"share_of_bowl":0.5}],
 "offset":{"strategy":"shared","hold":["thickness","sweetness","lift","tang","salt","fat","structure","batch_size"],"sugar_by":"total_sugars","allow_low_liquid":true,
  "targets":{"thickness":0.9,"sweetness":1.1,"lift":1.2,"tang":-0.5,"salt":1.1,"fat":1.2}},
 "reference":{"kind":"as_written","additions":[{"ingredient":"beetroot_cooked","amount":180,"unit":"g","stage":"batter"}]},
 "portion":{"volume_ml":60,"count":12,"scoop_no":16,"ladle_id":"l"},
 "cook":{"on":"plate","colour":"deep","from":"fridge","fat":"both","when":"flip","hot_start":true,"lacy":true},
 "kitchen":{"measures":"us","altitude_m":300,"griddle_c":175,"egg_g":55,"scale_step_g":2,"leavener_step_g":0.5,"rest_min":20,"calibration":{"c":3.0,"b":2.2}},
 "pantry":[{"id":"tub1","name":"Tub","group":"puree","role":"puree","water_g":88,"protein_g":1,"fat_g":0,"carbohydrate_g":10,"sugars_g":8,"ash_g":1,"measured":true,"made_on":"2026-11-25"}]}`

func TestTheWholeGrammarIsAccepted(t *testing.T) {
	v, err := document.DecodeVariation([]byte(full))
	require.NoError(t, err)
	d, k, err := v.Domain(setting)
	require.NoError(t, err)
	assert.Equal(t, "us", k.Measures.Name)
	assert.Equal(t, 55.0, k.EggG)
	assert.Equal(t, batter.Cooking{PlateC: 175, On: "plate", Colour: batter.Deep, From: batter.FromFridge, Fat: batter.Both, When: batter.AtFlip, HotStart: true, Lacy: true}, d.Cooking)
	_, err = document.Work(context.Background(), []byte(full), setting)
	require.NoError(t, err)
}

func TestWhatIsWrittenReadsTheSame(t *testing.T) {
	v, err := document.DecodeVariation([]byte(full))
	require.NoError(t, err)
	out, err := v.Encode()
	require.NoError(t, err)
	assert.JSONEq(t, full, string(out))
	again, err := document.DecodeVariation(out)
	require.NoError(t, err)
	assert.Equal(t, v, again)
}

const small = `{"format":"upbeat-ladle/variation","version":1,"name":"x","form":"pancake","base":{"name":"b","lines":[` +
	`{"ingredient":"plain_flour","amount":250,"unit":"g"},{"ingredient":"milk_whole","amount":400,"unit":"g"}]},"additions":[` +
	`{"ingredient":"beetroot_cooked","amount":200,"unit":"g"}]}`

// Each case changes the small document in one place; the answer names that place.
func TestBadDocuments(t *testing.T) {
	for name, c := range map[string]struct{ from, to, pointer, code string }{
		"unknown ingredient":  {"beetroot_cooked", "beetrot", "/additions/0/ingredient", "unknown_ingredient"},
		"unit does not fit":   {`200,"unit":"g"`, `200,"unit":"each"`, "/additions/0/unit", "not_counted"},
		"unknown unit":        {`200,"unit":"g"`, `200,"unit":"smidgen"`, "/additions/0/unit", "unknown_choice"},
		"negative":            {`200,`, `-200,`, "/additions/0/amount", "negative"},
		"a string for amount": {`200,`, `"200",`, "/additions/0/amount", "wrong_kind"},
		"null":                {`200,`, `null,`, "/additions/0/amount", "null"},
		"missing amount":      {`"amount":200,`, ``, "/additions/0/amount", "missing"},
		"too large a number":  {`200,`, `1e999,`, "/additions/0/amount", "wrong_kind"},
		"unknown field":       {`"unit":"g"}]}`, `"unit":"g","colour":"red"}]}`, "/additions/0/colour", "unknown_field"},
		"unknown top field":   {`"form"`, `"shape":1,"form"`, "/shape", "unknown_field"},
		"case matters":        {`"form"`, `"Form"`, "/Form", "unknown_field"},
		"unknown form":        {`"pancake"`, `"pie"`, "/form", "unknown_choice"},
		"no form":             {`"form":"pancake",`, ``, "/form", "missing"},
		"other format":        {`ladle/variation`, `ladle/base`, "/format", "wrong_format"},
		"other version":       {`"version":1`, `"version":4`, "/version", "wrong_version"},
		"no flour":            {`plain_flour`, `water`, "/base/lines", "no_flour"},
		"second field":        {`"form"`, `"name":"y","form"`, "/name", "duplicate"},
		"base of zero":        {`250,`, `0,`, "/base/lines/0/amount", "not_positive"},
		"a name of spaces":    {`"name":"x"`, `"name":"  "`, "/name", "missing"},
		"trailing":            {`"unit":"g"}]}`, `"unit":"g"}]} {}`, "", "trailing"},
		"breaks off":          {`"unit":"g"}]}`, `"unit":"g"}]`, "", "broken_json"},
		"a list":              {small, `[` + small + `]`, "", "wrong_kind"},
		"only null":           {small, `null`, "", "null"},
		"nothing":             {small, ` `, "", "empty"},
	} {
		require.Contains(t, small, c.from, name)
		i := strings.LastIndex(small, c.from)
		data := small[:i] + c.to + small[i+len(c.from):]
		_, err := document.Work(context.Background(), []byte(data), setting)
		var p document.Problems
		if assert.ErrorAs(t, err, &p, name) {
			assert.Equal(t, c.pointer, p[0].Pointer, "%s: %v", name, p)
			assert.Equal(t, c.code, p[0].Code, "%s: %v", name, p)
			assert.True(t, strings.HasSuffix(p[0].Message, "."), "a sentence: %s", p[0].Message)
		}
	}
}

func TestTheHeatInStepsAndOwnMinutesAreChecked(t *testing.T) {
	for _, c := range []struct{ cook, pointer, code string }{
		{`"heat":[{"at":"pour","c":165},{"at":"flip","mark":"4"}]`, "", ""},
		{`"heat":[{"at":"pour"}]`, "/cook/heat/0/c", "missing"},
		{`"heat":[{"at":"later","c":165}]`, "/cook/heat/0/at", "unknown_choice"},
		{`"heat":[{"at":"flip","c":165},{"at":"pour","c":170}]`, "/cook/heat/1/at", "order"},
		{`"heat":[{"at":"pour","c":165},{"at":"pour","c":170}]`, "/cook/heat/1/at", "order"},
		{`"heat":[{"at":"pour","c":165,"mark":"4"}]`, "/cook/heat/0/mark", "two_ways"},
		{`"heat":[{"at":"pour","c":900}]`, "/cook/heat/0/c", "out_of_range"},
		{`"hot_start":true,"heat":[{"at":"pour","c":165}]`, "/cook/hot_start", "two_ways"},
		{`"own":[{"on":"plate","first_s":180,"second_s":160,"c":163,"poured_mm":7.4,"from":"said","day":"2026-11-29"}]`, "", ""},
		{`"own":[{"on":"plate","from":"typed"}]`, "/cook/own/0/first_s", "missing"},
		{`"own":[{"on":"plate","first_s":1,"from":"typed"}]`, "/cook/own/0/first_s", "out_of_range"},
		{`"own":[{"on":"plate","first_s":180,"from":"guess"}]`, "/cook/own/0/from", "unknown_choice"},
		{`"own":[{"on":"plate","first_s":180,"from":"typed","day":"today"}]`, "/cook/own/0/day", "wrong_date"},
		{`"own":[{"on":"a","first_s":180,"from":"typed"},{"on":"a","first_s":90,"from":"typed"}]`, "/cook/own/1/on", "twice"},
	} {
		data := strings.Replace(small, `"form"`, `"cook":{`+c.cook+`},"form"`, 1)
		v, err := document.DecodeVariation([]byte(data))
		require.NoError(t, err)
		_, _, err = v.Domain(setting)
		if c.code == "" {
			require.NoError(t, err, c.cook)
			out, err := v.Encode()
			require.NoError(t, err)
			assert.Contains(t, string(out), `"version":3`, "an older program does not know it")
			continue
		}
		var p document.Problems
		if assert.ErrorAs(t, err, &p, c.cook) {
			assert.Equal(t, []string{c.pointer, c.code}, []string{p[0].Pointer, p[0].Code}, c.cook)
		}
	}
}

func TestOffsetKitchenAndPortionAreChecked(t *testing.T) {
	for _, c := range []struct{ field, pointer, code string }{
		{`"offset":{"strategy":"pray"}`, "/offset/strategy", "unknown_choice"},
		{`"offset":{"hold":["thickness","thickness"]}`, "/offset/hold/1", "duplicate"},
		{`"offset":{"hold":["colour"]}`, "/offset/hold/0", "unknown_choice"},
		{`"offset":{"sugar_by":"taste"}`, "/offset/sugar_by", "unknown_choice"},
		{`"kitchen":{"measures":"french"}`, "/kitchen/measures", "unknown_choice"},
		{`"kitchen":{"altitude_m":9000}`, "/kitchen/altitude_m", "out_of_range"},
		{`"kitchen":{"griddle_c":20}`, "/kitchen/griddle_c", "out_of_range"},
		{`"kitchen":{"egg_g":5}`, "/kitchen/egg_g", "out_of_range"},
		{`"kitchen":{"calibration":{"c":3}}`, "/kitchen/calibration", "missing"},
		{`"portion":{"volume_ml":2000}`, "/portion/volume_ml", "out_of_range"},
		{`"portion":{"count":0}`, "/portion/count", "out_of_range"},
		{`"portion":{"spread":{"by":"wand"}}`, "/portion/spread/by", "unknown_choice"},
		{`"portion":{"spread":{"by":"hand"}}`, "/portion/spread/to_mm", "missing"},
		{`"portion":{"spread":{"by":"itself","to_mm":90}}`, "/portion/spread/to_mm", "not_by_hand"},
		{`"portion":{"spread":{"by":"hand","to_mm":500}}`, "/portion/spread/to_mm", "out_of_range"},
	} {
		data := strings.TrimSuffix(small, "}") + "," + c.field + "}"
		_, err := document.Work(context.Background(), []byte(data), setting)
		var p document.Problems
		if assert.ErrorAs(t, err, &p, c.field) {
			assert.Equal(t, []string{c.pointer, c.code}, []string{p[0].Pointer, p[0].Code}, c.field)
		}
	}
}

func TestEveryFaultIsNamedAtOnce(t *testing.T) {
	data := strings.NewReplacer("beetroot_cooked", "beetrot", `400,"unit":"g"`, `-400,"unit":"g"`, `"pancake"`, `"pie"`).Replace(small)
	_, err := document.Work(context.Background(), []byte(data), setting)
	var p document.Problems
	require.ErrorAs(t, err, &p)
	assert.Len(t, p, 2, "the form and the ingredient; amounts are weighed once the lines are known: %v", p)
}

func TestBaseDocument(t *testing.T) {
	data := []byte(`{"format":"upbeat-ladle/base","version":1,"name":"b","form":"pancake","lines":[{"ingredient":"plain_flour","amount":250,"unit":"g"},{"ingredient":"milk_whole","amount":-1,"unit":"g"}]}`)
	_, err := document.SummariseBase(context.Background(), data, setting)
	var p document.Problems
	require.ErrorAs(t, err, &p)
	assert.Equal(t, "/lines/1/amount", p[0].Pointer, "pointers are those of the base document")
	good := []byte(strings.Replace(string(data), "-1", "400", 1))
	s, err := document.SummariseBase(context.Background(), good, setting)
	require.NoError(t, err)
	assert.Equal(t, "b", s.Name)
	assert.Equal(t, "stiff batter for pancakes", s.Verdict)
}

func TestNumbersHaveSixSignificantDigits(t *testing.T) {
	out, err := document.Work(context.Background(), []byte(small), setting)
	require.NoError(t, err)
	var w struct{ Lines []map[string]any }
	require.NoError(t, json.Unmarshal(out, &w))
	d := json.NewDecoder(strings.NewReader(string(out)))
	d.UseNumber()
	for {
		tok, err := d.Token()
		if err != nil {
			break
		}
		if n, ok := tok.(json.Number); ok {
			digits := strings.Trim(strings.ReplaceAll(strings.TrimPrefix(n.String(), "-"), ".", ""), "0")
			assert.LessOrEqual(t, len(digits), 6, n)
			assert.NotContains(t, n.String(), "e")
		}
	}
}

// Fields of capabilities that have not landed are absent, not zero.
func TestNothingIsMadeUp(t *testing.T) {
	out, err := document.Work(context.Background(), []byte(small), setting)
	require.NoError(t, err)
	for _, field := range []string{"cook", "inclusions", "load", "drawing", "plate"} {
		assert.NotContains(t, string(out), `"`+field+`":`)
	}
}

func FuzzVariation(f *testing.F) {
	f.Add([]byte(full))
	f.Add([]byte(small))
	f.Add([]byte(`{"format":"upbeat-ladle/variation","version":1}`))
	f.Add([]byte("\xef\xbb\xbf" + small))
	f.Fuzz(func(t *testing.T, data []byte) {
		out, err := document.Work(context.Background(), data, setting)
		if err != nil {
			var p document.Problems
			if !assert.ErrorAs(t, err, &p) {
				return
			}
			for _, q := range p {
				assert.NotEmpty(t, q.Message)
			}
			return
		}
		assert.True(t, json.Valid(out))
	})
}

// The JSON Schemas in docs/formats are for other programs; every property they name must
// exist in what this program reads, and the other way round.
func TestSchemasNameTheSameFields(t *testing.T) {
	for name, sample := range map[string]string{"variation": full} {
		data, err := os.ReadFile("../docs/formats/" + name + ".schema.json")
		require.NoError(t, err)
		var schema struct {
			Properties map[string]any
			Defs       map[string]struct{ Properties map[string]any } `json:"$defs"`
		}
		require.NoError(t, json.Unmarshal(data, &schema))
		known := map[string]bool{}
		for p := range schema.Properties {
			known[p] = true
		}
		for _, d := range schema.Defs {
			for p := range d.Properties {
				known[p] = true
			}
		}
		var walk func(v any)
		walk = func(v any) {
			switch x := v.(type) {
			case map[string]any:
				for k, e := range x {
					assert.True(t, known[k], "%s has no %q", name, k)
					walk(e)
				}
			case []any:
				for _, e := range x {
					walk(e)
				}
			}
		}
		var v any
		require.NoError(t, json.Unmarshal([]byte(sample), &v))
		walk(v)
	}
}

func TestKitchenDocument(t *testing.T) {
	const good = `{"format":"upbeat-ladle/kitchen","version":1,"name":"K","measures":"us","egg_g":55,"altitude_m":1500,` +
		`"ladles":[{"id":"l","name":"Ladle","volume_ml":70}],"griddles":[{"id":"g","name":"Plate","width_cm":60,"depth_cm":40}],` +
		`"irons":[{"id":"i","name":"Iron","round":true,"width_mm":180,"depth_mm":26,"gap_mm":9,"moulds":2}],"letter_keys":false,"units":"cups"}`
	k, err := document.DecodeKitchen([]byte(good))
	require.NoError(t, err)
	out, err := k.Encode()
	require.NoError(t, err)
	assert.JSONEq(t, good, string(out))
	for _, c := range []struct{ from, to, pointer, code string }{
		{`"name":"K"`, `"name":""`, "/name", "missing"},
		{`"us"`, `"french"`, "/measures", "unknown_choice"},
		{`"egg_g":55`, `"egg_g":5`, "/egg_g", "out_of_range"},
		{`"volume_ml":70`, `"volume_ml":7000`, "/ladles/0/volume_ml", "out_of_range"},
		{`,"depth_cm":40`, ``, "/griddles/0/depth_cm", "missing"},
		{`"id":"g"`, `"id":"l"`, "/griddles/0/id", "duplicate"},
		{`"gap_mm":9`, `"gap_mm":0`, "/irons/0/gap_mm", "out_of_range"},
		{`"cups"`, `"handfuls"`, "/units", "unknown_choice"},
		{`upbeat-ladle/kitchen`, `upbeat-ladle/base`, "/format", "wrong_format"},
	} {
		_, err := document.DecodeKitchen([]byte(strings.Replace(good, c.from, c.to, 1)))
		var p document.Problems
		if assert.ErrorAs(t, err, &p, c.to) {
			assert.Equal(t, []string{c.pointer, c.code}, []string{p[0].Pointer, p[0].Code}, c.to)
		}
	}

	// The kitchen serves where the document is silent, and the document outranks it.
	ladled := strings.TrimSuffix(small, "}") + `,"portion":{"ladle_id":"l"}}`
	w, err := document.Work(context.Background(), []byte(ladled), document.Setting{Table: food.Reference(), Kitchen: k})
	require.NoError(t, err)
	assert.Contains(t, string(w), `"volume_ml":70`)
	_, err = document.Work(context.Background(), []byte(ladled), setting)
	var p document.Problems
	require.ErrorAs(t, err, &p)
	assert.Equal(t, "/portion/ladle_id", p[0].Pointer)
	cup := strings.Replace(small, `200,"unit":"g"`, `1,"unit":"cup"`, 1)
	own, err := document.Work(context.Background(), []byte(cup), document.Setting{Table: food.Reference(), Kitchen: k})
	require.NoError(t, err)
	outranked, err := document.Work(context.Background(), []byte(strings.TrimSuffix(cup, "}")+`,"kitchen":{"measures":"metric"}}`), document.Setting{Table: food.Reference(), Kitchen: k})
	require.NoError(t, err)
	assert.NotEqual(t, own, outranked)
}

// A figure that may be a thousand is asked, in a field of grams and in one without a unit: an altitude of 1.250 m is no step of a stair.
func TestAFieldAsksForThousands(t *testing.T) {
	for _, c := range []struct {
		text, in string
		want     float64 // 0: it is asked
	}{
		{"1.250", "", 0}, {"1,250", "", 0}, {"1.250", "g", 0}, {"1.250 g", "", 0}, {"1.250", "ml", 0}, {"1.250", "kg", 1.25}, {"1,250 kg", "", 1.25}, {"1.250 kg", "g", 1250}, {"1'250", "", 1250}, {"0.125", "", 0.125}, {"1.25", "", 1.25},
	} {
		got, err := document.ReadAmount(document.AmountWish{Text: &c.text, In: measure.Unit(c.in)}, document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen()})
		if c.want == 0 {
			refusal(t, err, "/text", "two_readings")
			continue
		}
		require.NoError(t, err, c.text)
		assert.InDelta(t, c.want, got.Amount, 1e-9, "%s in %s", c.text, c.in)
	}
}
