package document_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/document"
)

func exported(t *testing.T, as string, items ...document.PantryItem) []byte {
	t.Helper()
	v, err := document.DecodeVariation([]byte(small))
	require.NoError(t, err)
	v.Name = "Beetroot <b>*bold*</b> & co"
	out, err := v.Export(context.Background(), as, here(), items)
	require.NoError(t, err)
	return out
}

// The required members of a Recipe in the public schema.org vocabulary, as its examples have them.
func TestStructuredDataIsARecipe(t *testing.T) {
	var r struct {
		Context      string `json:"@context"`
		Type         string `json:"@type"`
		Name         string
		Yield        string   `json:"recipeYield"`
		Ingredients  []string `json:"recipeIngredient"`
		Instructions []struct {
			Type string `json:"@type"`
			Text string
		} `json:"recipeInstructions"`
		Nutrition struct {
			Calories, FatContent, ProteinContent, SodiumContent string
		}
		PrepTime, CookTime, TotalTime string
	}
	require.NoError(t, json.Unmarshal(exported(t, "jsonld"), &r))
	assert.Equal(t, "https://schema.org", r.Context)
	assert.Equal(t, "Recipe", r.Type)
	assert.Len(t, r.Ingredients, 3)
	assert.Contains(t, r.Ingredients[2], "200 g Beetroot")
	assert.Equal(t, "HowToStep", r.Instructions[0].Type)
	assert.Contains(t, r.Yield, "portions")
	// Energy, Mass and Duration as schema.org has them: a figure with its unit, ISO 8601.
	assert.Regexp(t, `^\d+ kcal$`, r.Nutrition.Calories)
	for _, mass := range []string{r.Nutrition.FatContent, r.Nutrition.ProteinContent} {
		assert.Regexp(t, `^\d+\.\d g$`, mass)
	}
	assert.Regexp(t, `^\d+ mg$`, r.Nutrition.SodiumContent)
	assert.Equal(t, "PT18M", r.PrepTime, "three lines of 25 s, 90 s to mix, 15 min of rest")
	assert.Empty(t, r.CookTime+r.TotalTime, "nobody knows the plate")
}

// By hand: in rounds of what a cook keeps up with, each the two sides and the hands of one portion; all of it is both together.
func TestTimesOfARecipe(t *testing.T) {
	v, err := document.DecodeVariation([]byte(small))
	require.NoError(t, err)
	s := here()
	s.Kitchen.Griddles = []document.Griddle{{ID: "pan", Name: "Pan", WidthCM: g(34), Round: true}}
	s.Include.Cook = true
	w, err := v.Worksheet(context.Background(), s)
	require.NoError(t, err)
	text, err := v.Export(context.Background(), "jsonld", s, nil)
	require.NoError(t, err)
	var r struct{ PrepTime, CookTime, TotalTime string }
	require.NoError(t, json.Unmarshal(text, &r))
	lies := w.Cook.FirstSideS + *w.Cook.SecondSideS
	places := min(w.Plate.Fit, int(lies/40)) // 40 s of hands a portion
	rounds := math.Ceil(float64(w.Portion.Count) / float64(places))
	minutes := rounds * (lies + 40) / 60
	said := func(m float64) string {
		if whole := int(math.Ceil(m)); whole >= 60 {
			return strings.TrimSuffix(fmt.Sprintf("PT%dH%dM", whole/60, whole%60), "0M")
		}
		return fmt.Sprintf("PT%.0fM", math.Ceil(m))
	}
	assert.Equal(t, said(minutes), r.CookTime)
	assert.Equal(t, said(minutes+17.75), r.TotalTime)
}

func TestTheCardRunsNothing(t *testing.T) {
	card := string(exported(t, "markdown"))
	assert.NotContains(t, card, "<b>")
	assert.Contains(t, card, `\*bold\*`)
	assert.Contains(t, card, "## Ingredients")
	assert.Contains(t, card, "follow your local code")
	assert.Contains(t, card, "Contains milk and wheat · Check every pack")
}

func TestTheLedgerAsATable(t *testing.T) {
	data := exported(t, "csv")
	rows, err := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(data, []byte("\ufeff")))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 4)
	assert.Equal(t, "weigh_g", rows[0][6])
	assert.Equal(t, "milk_whole", rows[2][0])
	assert.True(t, strings.HasPrefix(rows[2][5], "-"), "held back, as a number")
	assert.Empty(t, rows[3][3], "an addition has no base")
}

// The fat of the pan has its grams in their column, and its name in its own.
func TestThePanIsARowOfTheLedger(t *testing.T) {
	v, err := document.DecodeVariation([]byte(strings.Replace(small, `"version":1`, `"version":2,"cook":{"fat":"butter"}`, 1)))
	require.NoError(t, err)
	data, err := v.Export(context.Background(), "csv", here(), nil)
	require.NoError(t, err)
	rows, err := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(data, []byte("\ufeff")))).ReadAll()
	require.NoError(t, err)
	last := rows[len(rows)-1]
	assert.Equal(t, []string{"butter_unsalted", "pan"}, []string{last[0], last[2]})
	assert.NotContains(t, last[1], " g ")
	grams, err := strconv.ParseFloat(last[6], 64)
	require.NoError(t, err)
	s := here()
	s.Include.Cook = true
	w, err := v.Worksheet(context.Background(), s)
	require.NoError(t, err)
	assert.InDelta(t, w.Cook.Fat.GramsPerPortion*float64(w.Portion.Count), grams, 0.5)
	assert.Equal(t, "milk", last[8])
}

// Own JSON carries the tub that it was made with, so that it works in a kitchen without it.
func TestOwnJSONWorksAnywhere(t *testing.T) {
	tub := prepared(t, document.PreparationWish{Method: "reduce", From: "beetroot_cooked", HaveG: g(1000), TargetG: g(700)}).Item
	tub.StandsFor = "beetroot_cooked"
	other := document.PantryItem{ID: "x", Name: "Plum tub", StandsFor: "plum_puree", WaterG: g(80), CarbohydrateG: g(19), SugarsG: g(16), AshG: g(1)}
	price := document.PantryItem{ID: "p", Name: "Milk", StandsFor: "milk_whole", PricePerKg: g(1)}
	shelf, err := document.Shelf(food.Reference(), []document.PantryItem{tub, other, price}, today)
	require.NoError(t, err)
	v, err := document.DecodeVariation([]byte(small))
	require.NoError(t, err)
	at := here()
	at.Table = shelf
	mine, err := v.Worksheet(context.Background(), at)
	require.NoError(t, err)
	text, err := v.Export(context.Background(), "json", at, []document.PantryItem{tub, other, price})
	require.NoError(t, err)
	sent, err := document.DecodeVariation(text)
	require.NoError(t, err)
	require.Len(t, sent.Pantry, 1, "what it uses, and no prices")
	theirs, err := sent.Worksheet(context.Background(), here())
	require.NoError(t, err)
	for i := range mine.Lines {
		assert.Equal(t, mine.Lines[i].Weigh, theirs.Lines[i].Weigh, mine.Lines[i].Name)
	}
	_, err = v.Export(context.Background(), "pdf", here(), nil)
	refusal(t, err, "/as", "unknown_choice")
}

// What becomes of a document that is read in: by its id, without one by its bytes, and what
// differs. Two things of one name are two things.
func TestWhatBecomesOfADocument(t *testing.T) {
	base := []byte(`{"format":"upbeat-ladle/base","version":1,"name":"Quay plain","form":"pancake","lines":[{"ingredient":"plain_flour","amount":250,"unit":"g"},{"ingredient":"milk_whole","amount":400,"unit":"g"}]}`)
	sum, err := document.SummariseBase(context.Background(), base, here())
	require.NoError(t, err)
	there := []document.There{{Kind: "base", ID: "a", Body: sum.Body}, {Kind: "variation", ID: "v"}, {Kind: "base", ID: "gone", Body: sum.Body, PutAside: true}}
	judge := func(k document.Kept, there []document.There) document.Fate {
		return document.Judge(context.Background(), "base", k, document.NewHere(there), here())
	}

	f := judge(document.Kept{Document: base}, nil)
	assert.Equal(t, "added", f.Action)
	f = judge(document.Kept{ID: "zz", Document: base}, there)
	assert.Equal(t, "added", f.Action)
	assert.Equal(t, "zz", f.ID, "it keeps its id")
	f = judge(document.Kept{Document: base}, there)
	assert.Equal(t, "same", f.Action)
	assert.Equal(t, "a", f.ID)
	more := bytes.Replace(base, []byte("400"), []byte("420"), 1)
	assert.Equal(t, "added", judge(document.Kept{Document: more}, there).Action, "of the same name, but not the same")
	f = judge(document.Kept{ID: "a", Document: more}, there)
	assert.Equal(t, "changed", f.Action, "the id tells that it is the same base")
	assert.Equal(t, []string{"Whole milk: 400 g → 420 g"}, f.Changes)
	f = judge(document.Kept{ID: "gone", Document: base}, there)
	assert.Equal(t, "changed", f.Action)
	assert.Equal(t, []string{"it was put aside here, and comes back"}, f.Changes)
	assert.Equal(t, "same", judge(document.Kept{ID: "a", PutAside: true, Document: more}, there).Action, "what is on the shelf stays there")
	f = judge(document.Kept{ID: "v", Document: base}, there)
	assert.Equal(t, "refused", f.Action)
	assert.Contains(t, f.Message, "belongs to a variation")
	broken := bytes.Replace(base, []byte("plain_flour"), []byte("moon_dust"), 1)
	f = judge(document.Kept{Document: broken}, there)
	assert.Equal(t, "refused", f.Action)
	assert.Equal(t, "Quay plain", f.Name)
	assert.Contains(t, f.Message, "moon_dust")
}

func inArchive(t *testing.T, a *document.ArchiveFile, kind string) (out []document.Kept) {
	t.Helper()
	require.NoError(t, a.Each(kind, func(k document.Kept) error { out = append(out, k); return nil }))
	return out
}

func TestOneDocumentIsAnArchiveOfOne(t *testing.T) {
	a, err := document.OpenArchive(strings.NewReader("\ufeff" + small))
	require.NoError(t, err)
	assert.Equal(t, 1, a.Total())
	assert.Len(t, inArchive(t, a, "variation"), 1)
	assert.Empty(t, inArchive(t, a, "base"))
	kitchen, err := plainKitchen.Encode()
	require.NoError(t, err)
	a, err = document.OpenArchive(bytes.NewReader(kitchen))
	require.NoError(t, err)
	own, err := a.Kitchen()
	require.NoError(t, err)
	assert.NotEmpty(t, own.Document)
	for text, code := range map[string]string{
		"PK\x03\x04": "packed", "\x1f\x8b\x08": "packed", "hello": "not_json", "[]": "not_json", small + "{}": "not_json",
		`{"format":"other"}`: "wrong_format", `{"format":7}`: "wrong_format", `{}`: "wrong_format",
		`{"format":"upbeat-ladle/archive","version":3}`: "wrong_version", `{"format":"upbeat-ladle/archive","version":1,"extra":1}`: "unknown_field",
		`{"format":"upbeat-ladle/archive","version":1,"bases":{}}`:                        "wrong_kind",
		`{"format":"upbeat-ladle/archive","version":1,"bases":[`:                          "not_json",
		`{"format":"upbeat-ladle/variation","note":"` + strings.Repeat("n", 2<<20) + `"}`: "too_large",
	} {
		_, err := document.OpenArchive(strings.NewReader(text))
		require.Error(t, err, clipped(text))
		refusalCode(t, err, code)
	}
	_, err = document.OpenArchive(strings.NewReader(`{"format":"upbeat-ladle/archive","version":3,"trials":[{"document":{}}]}`))
	assert.ErrorContains(t, err, "A newer program wrote this archive: it is of version 3")
}

func clipped(s string) string { return s[:min(len(s), 60)] }

// The order of the lists in a file does not matter, a list of another kind is read over, and
// what is wrong with one document is told with where it stands.
func TestAnArchiveIsReadPieceByPiece(t *testing.T) {
	text := `{"variations":[{"id":"v","document":` + small + `}],"bases":[{"document":{}},{"document":{},"colour":1}],"version":2,"kitchen_history":{"revision":3},"format":"upbeat-ladle/archive"}`
	a, err := document.OpenArchive(strings.NewReader(text))
	require.NoError(t, err)
	assert.Equal(t, 3, a.Total())
	assert.Equal(t, "v", inArchive(t, a, "variation")[0].ID)
	err = a.Each("base", func(document.Kept) error { return nil })
	refusalCode(t, err, "unknown_field")
	assert.ErrorContains(t, err, "/bases/1/colour")
	own, err := a.Kitchen()
	require.NoError(t, err)
	assert.EqualValues(t, 3, own.Revision)
	assert.Empty(t, own.Document)
}

// A file of which one piece, or the number of pieces, has no end is given up before it fills
// the memory.
func TestAnArchiveWithoutAnEnd(t *testing.T) {
	head := `{"format":"upbeat-ladle/archive","version":2,"variations":[`
	_, err := document.OpenArchive(strings.NewReader(head + strings.Repeat("{},", document.MaxPieces) + "{}]}"))
	refusalCode(t, err, "too_large")
	piece := `{"document":{"note":"` + strings.Repeat("n", 40<<20) + `"}}`
	a, err := document.OpenArchive(strings.NewReader(head + piece + "," + piece + "]}"))
	require.NoError(t, err, "each of them is small enough")
	assert.Equal(t, 2, a.Total())
	_, err = document.OpenArchive(strings.NewReader(head + `{"document":{"note":"` + strings.Repeat("n", document.MaxPieceBytes) + `"}}]}`))
	refusalCode(t, err, "too_large")
}

func FuzzOpenArchive(f *testing.F) {
	f.Add([]byte(small))
	f.Add([]byte(`{"format":"upbeat-ladle/archive","version":1,"bases":[{"document":{}}]}`))
	f.Fuzz(func(t *testing.T, data []byte) {
		a, err := document.OpenArchive(bytes.NewReader(data))
		if err != nil {
			return
		}
		_, _ = a.Kitchen()
		for _, kind := range []string{"pantry", "base", "variation"} {
			_ = a.Each(kind, func(k document.Kept) error {
				document.Judge(context.Background(), kind, k, document.NewHere(nil), here())
				return nil
			})
		}
	})
}

func FuzzReadPages(f *testing.F) {
	f.Add(`<html><script type="application/ld+json">{"@type":"Recipe","recipeIngredient":["2 eggs"]}</script>`)
	f.Add(`[{"@graph":[{"@type":["Recipe"],"recipeInstructions":[{"itemListElement":{"text":"x"}}]}]}]`)
	f.Add("<ul><li>2 eggs<li>200 g flour")
	f.Fuzz(func(t *testing.T, text string) {
		r, err := document.Read(t.Context(), document.ReadingWish{Text: text}, here())
		if err == nil && len(r.Lines) == 0 {
			t.Error("neither lines nor a reason")
		}
	})
}

// A line that is only taken for its ingredient is called so wherever it goes, until somebody says that it is that.
func TestWhatIsOnlyTakenForSomethingIsNotKnown(t *testing.T) {
	r, err := document.Read(t.Context(), document.ReadingWish{Text: "Ingredients\n200 g rice flour\n40 g mustard flour\n60 g chestnut puree\n2 eggs\n200 ml water\n30 g vegan butter for the pan\nMethod\nMix."}, here())
	require.NoError(t, err)
	assert.Contains(t, r.Allergens, "“40 g mustard flour”")
	require.NotNil(t, r.Variation)
	data, err := r.Variation.Encode()
	require.NoError(t, err)
	v, err := document.DecodeVariation(data)
	require.NoError(t, err)
	assert.Equal(t, 3, v.Version)
	for as := range document.Exports {
		out, err := v.Export(context.Background(), as, here(), nil)
		require.NoError(t, err)
		for _, says := range []string{"mustard flour", "vegan butter"} {
			assert.Contains(t, string(out), says, as)
		}
	}
	for as := range document.Exports {
		out, err := r.Base.Export(context.Background(), as, here())
		require.NoError(t, err)
		assert.Contains(t, string(out), "mustard flour", as)
	}
	w, err := v.Worksheet(context.Background(), here())
	require.NoError(t, err)
	assert.Contains(t, w.Suspects, "mustard", "whoever leaves something out for a guest leaves it out by what may be there")
	assert.Contains(t, r.Base.AllergenText(here()), "“40 g mustard flour”")
	// It is right: only what a word of the recipe names stays.
	line := func(says string) int {
		for i, l := range r.Lines {
			if strings.Contains(l.Text, says) {
				return i
			}
		}
		return -1
	}
	fixes := []document.Fix{{Line: line("mustard"), Ingredient: r.Lines[line("mustard")].Ingredient}, {Line: line("mustard"), Ingredient: "chickpea_flour"}}
	for i, known := range []bool{false, true} {
		again, err := document.Read(t.Context(), document.ReadingWish{Text: "200 g rice flour\n40 g mustard flour\n60 g chestnut puree\n2 eggs\n200 ml water", Fixes: fixes[i : i+1]}, here())
		require.NoError(t, err)
		assert.Equal(t, !known, strings.Contains(again.Allergens, "mustard"), again.Allergens)
	}
}

// Whatever a cook calls things, a card in Markdown has no link but to the web, to a place beside it, or none: not to a script, a mail, a file.
func TestNoLinkOfACardDoesAnything(t *testing.T) {
	link := regexp.MustCompile(`(?i)(?:^|[^\\\\])\[[^\]]*\]\(\s*<?([a-z][a-z0-9+.-]*):|<([a-z][a-z0-9+.-]*):|(?:^|[^&])\b(mailto|javascript|data|file|ftp|xmpp)(?::[^ ]*@|:\/\/)|[a-z0-9.]@[a-z0-9]`)
	v, err := document.DecodeVariation([]byte(small))
	require.NoError(t, err)
	grams := 300.0
	pot := document.Sauce{Format: document.SauceFormat, Version: document.Version, Kind: "syrup", Lines: []document.Line{{Ingredient: "granulated_sugar", Amount: &grams, Unit: "g"}, {Ingredient: "water", Amount: &grams, Unit: "g"}}}
	for _, name := range []string{"[free](javascript:alert(1))", "![x](data:text/html,x)", "<javascript:alert(1)>", "[a]: file:///etc/passwd", "cook@pier.example", "mailto:cook@pier.example", "ftp://pier.example/x", "[b](http://pier.example) and [c](other.md)", "a\n\n[d](vbscript:x)"} {
		v.Name = name
		v.Parts = []document.Part{{Kind: "top", Text: name}}
		card, err := v.Export(context.Background(), "markdown", here(), nil)
		require.NoError(t, err)
		pot.Name = name
		recipe, err := pot.Export("markdown", here())
		require.NoError(t, err)
		for _, text := range []string{string(card), string(recipe)} {
			for _, found := range link.FindAllStringSubmatch(text, -1) {
				assert.Contains(t, []string{"http", "https"}, strings.ToLower(found[1]+found[2]+found[3]), "%q in %s", found[0], name)
			}
			assert.NotContains(t, text, "\n\n[d]", "a name is one line")
		}
	}
}

// What is written is a copy: whoever shares a list, a pointer or a map with an answer reads what was there.
func TestWritingAnAnswerChangesNothing(t *testing.T) {
	third := 1. / 3
	shared := []float64{third}
	type inner struct {
		V []float64 `json:"v"`
	}
	type answer struct {
		F float64            `json:"f"`
		P *float64           `json:"p"`
		L []inner            `json:"l"`
		I any                `json:"i"`
		M map[string]float64 `json:"m"`
		N []string           `json:"n"`
	}
	for range 2 {
		a := answer{third, &third, []inner{{shared}}, &inner{shared}, map[string]float64{"x": third}, nil}
		for _, v := range []any{a, &a} {
			text, err := document.Answer(v)
			require.NoError(t, err)
			assert.Equal(t, `{"f":0.333333,"p":0.333333,"l":[{"v":[0.333333]}],"i":{"v":[0.333333]},"m":{"x":0.333333},"n":[]}`+"\n", string(text))
			assert.Equal(t, answer{1. / 3, &third, []inner{{shared}}, &inner{shared}, map[string]float64{"x": 1. / 3}, nil}, a)
			assert.Equal(t, []float64{1. / 3}, shared)
		}
	}
}
