package document_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
	"upbeatladle/document"
	"upbeatladle/starter"
)

// example is a worked example by the beginning of its name.
func example(t testing.TB, name string) document.Sauce {
	t.Helper()
	all, err := starter.Sauces()
	require.NoError(t, err)
	for _, data := range all {
		a, err := document.DecodeSauce(data)
		require.NoError(t, err)
		if strings.HasPrefix(a.Name, name) {
			return a
		}
	}
	t.Fatalf("there is no example %q", name)
	return document.Sauce{}
}

func grams(g float64) *float64 { return &g }

// with is a plain variation with sauces on it, so many g of each.
func with(each float64, kind string, sauces ...document.Sauce) document.Variation {
	line := func(id string, g float64) document.Line {
		return document.Line{Ingredient: id, Amount: &g, Unit: "g"}
	}
	v := document.Variation{Format: document.VariationFormat, Version: 2, Name: "Plain", Form: "pancake", Base: &document.BasePart{Name: "Plain",
		Lines: []document.Line{line("plain_flour", 500), line("milk_whole", 780), line("egg_whole", 200), line("granulated_sugar", 60), line("baking_powder", 20), line("salt_fine", 5), line("butter_unsalted", 80)}}}
	for _, a := range sauces {
		v.Parts = append(v.Parts, document.Part{Kind: kind, Text: a.Name, EachG: grams(each), Sauce: &a})
	}
	return v
}

func worked(t testing.TB, v document.Variation, s document.Setting) worksheet.Worksheet {
	t.Helper()
	s.Include.Cook = true
	w, err := v.Worksheet(context.Background(), s)
	require.NoError(t, err)
	return w
}

func inKitchen() document.Setting {
	return document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen(), Today: time.Date(2026, 11, 27, 7, 0, 0, 0, time.UTC), Include: worksheet.Include{Nutrition: true}}
}

// Eight worked examples of our own, of eight kinds; each can be made and says how it is kept and what is in it.
func TestEveryExampleCanBeMade(t *testing.T) {
	all, err := starter.Sauces()
	require.NoError(t, err)
	kinds := map[string]bool{}
	for _, data := range all {
		s, err := document.SummariseSauce(data, inKitchen())
		require.NoError(t, err, string(data))
		kinds[s.Form] = true
		a, _ := document.DecodeSauce(data)
		got, err := document.WorkSauce(document.SauceWish{Sauce: &a}, inKitchen())
		require.NoError(t, err)
		assert.Contains(t, strings.ToLower(got.Text), "check every pack")
		assert.NotEmpty(t, a.Note)
		for _, as := range []string{"text", "markdown"} {
			text, err := a.Export(as, inKitchen())
			require.NoError(t, err)
			assert.Contains(t, string(text), got.Text, "never silent")
			assert.Contains(t, string(text), got.Cautions[0])
			for _, l := range got.Lines {
				assert.Contains(t, string(text), l.Label)
			}
		}
	}
	assert.Len(t, all, 8)
	assert.Len(t, kinds, 8)
}

// By hand: 25 g of compote on each portion weigh so in the label; its parts stand where they belong, and the portion's
// allergens are those of both.
func TestASauceOnAVariation(t *testing.T) {
	compote, cream := example(t, "Plum compote"), example(t, "Ginger cream")
	v := with(25, "top", compote, cream)
	bare, w := worked(t, with(25, "top"), inKitchen()), worked(t, v, inKitchen())
	a, err := document.WorkSauce(document.SauceWish{Sauce: &compote}, inKitchen())
	require.NoError(t, err)
	c, err := document.WorkSauce(document.SauceWish{Sauce: &cream}, inKitchen())
	require.NoError(t, err)
	assert.InDelta(t, bare.NutritionPerPortion.Sugars+0.25*(a.Nutrition.Sugars+c.Nutrition.Sugars), w.NutritionPerPortion.Sugars, 1e-4)
	assert.InDelta(t, bare.NutritionPerPortion.EnergyKcal+0.25*(a.Nutrition.EnergyKcal+c.Nutrition.EnergyKcal), w.NutritionPerPortion.EnergyKcal, 1e-2)
	assert.Equal(t, bare.Gauges, w.Gauges, "the batter knows nothing of it")
	assert.Contains(t, w.MayContain, "sulphites", "of the lemon juice in the compote")
	codes := []string{}
	for _, s := range w.Mixing {
		if s.Code != "" && (len(codes) == 0 || codes[len(codes)-1] != s.Code) {
			codes = append(codes, s.Code)
		}
	}
	order := strings.Join(codes, " ")
	assert.Regexp(t, `^aside_first .*rest aside .*done aside_last serve$`, order, "before, during the rest, during the last pan")
	require.Len(t, w.Served.Drawn, 2)
	assert.Equal(t, "#8F3147", w.Served.Drawn[0].Colour)
	assert.Equal(t, "heap", string(w.Served.Drawn[1].Shape), "cream stands")
	said := ""
	for _, c := range w.Cautions {
		said += c.Text + "\n"
	}
	assert.Contains(t, said, "burn deeper than water")
	assert.Contains(t, said, "Ginger cream keeps about 1 day")
}

// The list of what has to be out has what goes into the pot, or the tub when there is enough in it.
func TestASauceIsPulled(t *testing.T) {
	compote := example(t, "Plum compote")
	v := with(20, "top", compote)
	list, err := document.Pull(context.Background(), document.PullingWish{Variations: []document.Variation{v}}, inKitchen())
	require.NoError(t, err)
	w := worked(t, v, inKitchen())
	got := map[string]float64{}
	for _, l := range list.Lines {
		got[l.Ingredient] = l.Grams
	}
	made := 20 * float64(w.Portion.Count)
	a, _ := document.WorkSauce(document.SauceWish{Sauce: &compote}, inKitchen())
	assert.InDelta(t, 900*made/a.End.MassG, got["plum_diced"], 0.01, "as much fruit as the sauce for all takes")
	assert.Contains(t, list.Tools, "a pot or bowl for plum compote")

	tub := a.Tub
	for stock, out := range map[float64]bool{made + 1: true, made - 1: false} {
		tub.StockG = &stock
		shelf, err := document.Shelf(food.Reference(), []document.PantryItem{tub}, inKitchen().Today)
		require.NoError(t, err)
		s := inKitchen()
		s.Table = shelf
		list, err := document.Pull(context.Background(), document.PullingWish{Variations: []document.Variation{v}}, s)
		require.NoError(t, err)
		has := map[string]bool{}
		for _, l := range list.Lines {
			has[l.Ingredient] = true
		}
		assert.Equal(t, out, has[tub.ID], "a tub of %.0f g for %.0f", stock, made)
		assert.Equal(t, !out, has["plum_diced"])
		told := worked(t, v, s).Mixing[0].Text
		assert.Equal(t, out, strings.Contains(told, "out of its tub"), told)
	}
}

// A filling runs out of the middle when it is too much, sooner when it is loose; on top nobody minds.
func TestAFillingRunsOut(t *testing.T) {
	curd := example(t, "Curd filling")
	loose := curd
	loose.Lines = []document.Line{{Ingredient: "yogurt_plain", Amount: grams(400), Unit: "g"}, {Ingredient: "granulated_sugar", Amount: grams(40), Unit: "g"}}
	leaks := func(g float64, kind string, a document.Sauce) bool {
		for _, n := range worked(t, with(g, kind, a), inKitchen()).Notes {
			if n.Code == "leaks" {
				return true
			}
		}
		return false
	}
	assert.False(t, leaks(10, "middle", curd))
	assert.False(t, leaks(12, "middle", curd), "a fifth of 60 ml")
	assert.True(t, leaks(20, "middle", curd))
	assert.True(t, leaks(10, "middle", loose))
	assert.False(t, leaks(40, "top", loose))
}

// What is wrong with a sauce on a variation is said at its field.
func TestABadSauceOnAVariation(t *testing.T) {
	for pointer, spoil := range map[string]func(*document.Part){
		"/parts/0/sauce/lines/0/amount":     func(p *document.Part) { p.Sauce.Lines[0].Amount = grams(-1) },
		"/parts/0/sauce/lines/0/ingredient": func(p *document.Part) { p.Sauce.Lines[0].Ingredient = "moon_dust" },
		"/parts/0/sauce/name":               func(p *document.Part) { p.Sauce.Name = " " },
		"/parts/0/sauce/target/brix":        func(p *document.Part) { p.Sauce.Target = &document.SauceTarget{Brix: grams(101)} },
		"/parts/0/lines":                    func(p *document.Part) { p.Lines = []document.PartLine{{Ingredient: "honey"}} },
	} {
		v := with(20, "top", example(t, "Plum compote"))
		spoil(&v.Parts[0])
		_, err := v.Worksheet(context.Background(), inKitchen())
		var p document.Problems
		require.ErrorAs(t, err, &p, pointer)
		assert.Equal(t, pointer, p[0].Pointer)
	}
}

// How a pot stands is asked with what a device shows.
func TestAPotIsReadInTheMiddle(t *testing.T) {
	a := example(t, "Plum compote")
	a.PotG = grams(1080)
	got, err := document.WorkSauce(document.SauceWish{Sauce: &a, Now: &document.SauceReading{ScaleG: grams(2080)}}, inKitchen())
	require.NoError(t, err)
	assert.InDelta(t, 1000-869.2, got.Now.ToGoG, 0.5)
	assert.InDelta(t, 1080+869.2, got.Pot.StopWith, 0.5)
	assert.InDelta(t, 1000, *got.Stops[0].Now, 1e-6)
	assert.InDelta(t, *got.Stops[0].Share, got.Now.Share, 1e-6)
	for pointer, now := range map[string]document.SauceReading{"/now/scale_g": {ScaleG: grams(4000)}, "/now": {}, "/now/brix": {Brix: grams(-3)}} {
		_, err := document.WorkSauce(document.SauceWish{Sauce: &a, Now: &now}, inKitchen())
		var p document.Problems
		require.ErrorAs(t, err, &p, pointer)
		assert.Equal(t, pointer, p[0].Pointer)
	}
}

// Butter that is browned loses its water, which comes back as milk: by hand from the table's row.
func TestBrownedButterStandsInForButter(t *testing.T) {
	v := with(0, "top")
	v.Base.Lines[6].ID = "butter"
	found, err := document.Swaps(document.SwapWish{Variation: &v, Line: "butter"}, inKitchen())
	require.NoError(t, err)
	require.Len(t, found, 1)
	assert.Contains(t, found[0].Says, "brown 80 g of it: 14 g of water go")
	got := map[string]float64{}
	for _, l := range found[0].Lines {
		got[l.Ingredient] = *l.Amount
	}
	assert.InDelta(t, 80*0.8206, got["butter_browned"], 0.5)
	assert.InDelta(t, 80*0.1794/0.8813, got["milk_whole"], 0.5)
	v.Base = &found[0].Base
	w := worked(t, v, inKitchen())
	said := ""
	for _, c := range w.Cautions {
		said += c.Text
	}
	assert.Contains(t, said, "Brown it beforehand")
}
