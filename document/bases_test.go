package document_test

import (
	"context"
	"fmt"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
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
	r, err := document.Read(t.Context(), document.ReadingWish{Text: "Pancakes\n\nIngredients\n250 g plain flour\n300 ml water\na handful of walnuts\npeanut powder\n1 flurb of zonk"}, here())
	require.NoError(t, err)
	assert.Contains(t, r.Allergens, "Contains peanut, walnut and wheat")
	assert.Contains(t, r.Allergens, "not known: “1 flurb of zonk”")
	r, err = document.Read(t.Context(), document.ReadingWish{Text: "Pancakes\n\nIngredients\n250 g plain flour\n300 ml water\na handful of walnuts", Fixes: []document.Fix{{Line: 2, LeaveOut: true}}}, here())
	require.NoError(t, err)
	assert.NotContains(t, r.Allergens, "walnut", "what is left out is out")
}

const finished = `Banana pancakes

Makes 8 to 10 pancakes

200 g flour
10 g baking powder
250 ml milk
1 egg
150 g mashed banana
some sugar
oil for frying

For the topping:
40 g hazelnuts
1 flurb of zonk

Method
1. Ladle 60 ml of batter for each pancake.
2. Cook 2 to 3 minutes a side.`

// A finished recipe is a variation held to itself: it moves nothing. What is beside the batter stays
// with it in every export, allergens too.
func TestAFinishedRecipeIsKeptAsItIs(t *testing.T) {
	ctx := context.Background()
	r, err := document.Read(t.Context(), document.ReadingWish{Text: finished}, here())
	require.NoError(t, err)
	require.NotNil(t, r.Variation)
	assert.Equal(t, 2, r.Variation.Version)
	assert.Equal(t, 9.0, *r.Said.Count)
	assert.Equal(t, 60.0, *r.Said.VolumeML)
	assert.Equal(t, 2.5, *r.Said.Minutes)
	data, err := document.Answer(r.Variation)
	require.NoError(t, err)
	v, err := document.DecodeVariation(data)
	require.NoError(t, err)
	w, err := v.Worksheet(ctx, here())
	require.NoError(t, err)
	for _, l := range w.Lines {
		if l.Offset != nil {
			assert.Zero(t, *l.Offset, l.Name)
		}
	}
	require.Len(t, w.Parts, 3)
	assert.Equal(t, []batter.Place{batter.InPan, batter.OnTop, batter.OnTop}, []batter.Place{w.Parts[0].Kind, w.Parts[1].Kind, w.Parts[2].Kind})
	assert.Contains(t, w.AllergenText, "hazelnut")
	assert.Contains(t, w.AllergenText, "not known: “1 flurb of zonk”")
	for _, as := range []string{"jsonld", "markdown", "csv", "text", "json"} {
		out, err := v.Export(ctx, as, here(), nil)
		require.NoError(t, err)
		assert.Contains(t, string(out), "hazelnut", as)
		assert.Contains(t, string(out), "flurb of zonk", as)
	}
	assert.Len(t, r.Base.Parts, 3)
	assert.Contains(t, r.Base.AllergenText(here()), "hazelnut", "its base alone tells them too")
	assert.Contains(t, r.Base.AllergenText(here()), "not known: “1 flurb of zonk”")
	body, err := r.Base.Encode()
	require.NoError(t, err)
	kept, err := document.DecodeBase(body)
	require.NoError(t, err)
	assert.Equal(t, 2, kept.Version)
	assert.Len(t, kept.Variation().Parts, 3, "what begins with it has them")
	assert.True(t, kept.Uses("vegetable_oil"))
	assert.Contains(t, r.Base.SourceNote, "Not taken: some sugar")
	assert.True(t, v.Uses("hazelnuts_chopped") || v.Uses("hazelnuts"), "a tub of them is not put aside unseen")

	bowl := document.ReadingWish{Text: finished, Fixes: []document.Fix{{Line: 7, Place: "bowl"}, {Line: 6, Place: "bowl"}, {Line: 0, Place: "nowhere"}}}
	_, err = document.Read(t.Context(), bowl, here())
	assert.ErrorContains(t, err, "/fixes/2/place")
	bowl.Fixes = bowl.Fixes[:2]
	r, err = document.Read(t.Context(), bowl, here())
	require.NoError(t, err)
	assert.Equal(t, "addition", r.Lines[7].GoesTo, "hazelnuts belong into the bowl after all")
	assert.Equal(t, "How much vegetable oil?", r.Lines[6].Asks)
}

// Flour that has no amount yet is still flour: no recipe becomes flourless by a gap.
func TestFlourWithoutAnAmountIsStillFlour(t *testing.T) {
	r, err := document.Read(t.Context(), document.ReadingWish{Text: "Pancakes\n\nIngredients\nplain flour\n300 ml milk\n2 eggs\nMethod\nMix it."}, here())
	require.NoError(t, err)
	assert.Equal(t, "pancake", r.Form)
	assert.Equal(t, "How much plain wheat flour?", r.Lines[0].Asks)
}

// What a document may say of its parts and of what its recipe claimed.
func TestPartsAndClaimsThatCannotBe(t *testing.T) {
	for bad, at := range map[string]string{
		`"parts":[{"kind":"hat","text":"x"}]`:                                                               "/parts/0/kind",
		`"parts":[{"kind":"top","text":" "}]`:                                                               "/parts/0/text",
		`"parts":[{"kind":"top","text":"` + strings.Repeat("x", 400) + `"}]`:                                "/parts/0/text",
		`"parts":[{"kind":"top","text":"x","lines":[{"ingredient":"zonk"}]}]`:                               "/parts/0/lines/0/ingredient",
		`"parts":[{"kind":"top","text":"x","lines":[{"ingredient":"honey","amount":-1,"unit":"furlong"}]}]`: "/parts/0/lines/0/unit",
		`"said":{"count":0}`: "/said/count",
		`"said":{"text":"` + strings.Repeat("x", 3000) + `"}`: "/said/text",
	} {
		v, err := document.DecodeVariation([]byte(strings.Replace(small, `"additions"`, bad+`,"additions"`, 1)))
		require.NoError(t, err, bad)
		_, _, err = v.Domain(here())
		assert.ErrorContains(t, err, at, bad)
	}
}

// What no flour takes is asked about with what may have been meant; a cook who says that it is right is
// not asked again.
func TestSlipsAreCaught(t *testing.T) {
	read := func(text string, fixes ...document.Fix) document.Reading {
		r, err := document.Read(t.Context(), document.ReadingWish{Text: "Ingredients\n" + text + "\nMethod\nMix it.", Fixes: fixes}, here())
		require.NoError(t, err)
		return r
	}
	amount := 5.0
	for text, want := range map[string]struct {
		line             int
		asks, ingredient string
		unit             string
	}{
		"250 g flour\n300 ml milk\n5 tbsp baking powder\n2 eggs":        {2, "lot of baking powder for 250 g of flour. Was it 5 tsp?", "baking_powder", "tsp"},
		"250 g flour\n300 ml milk\n2 tbsp salt\n2 eggs":                 {2, "lot of salt", "salt_fine", "tsp"},
		"250 g flour\n300 ml milk\n10 g baking soda\n2 eggs":            {2, "Was it baking powder?", "baking_powder", "g"},
		"250 g flour\n60 g buttermilk powder\n5 g soda\n2 eggs":         {1, "Was it buttermilk?", "buttermilk_cultured", "g"},
		"250 g flour\n300 kg milk\n5 g baking powder\n2 eggs":           {1, "lot of whole milk", "milk_whole", "g"},
		"250 g flour\n300 ml milk\n10 g baking powder\n3 tbsp cinnamon": {3, "lot of cinnamon", "cinnamon", "tsp"},
	} {
		r := read(text)
		l := r.Lines[want.line]
		assert.Equal(t, "unsure", l.Status, text)
		assert.Contains(t, l.Asks, want.asks, text)
		require.NotNil(t, l.Suggests, text)
		assert.Equal(t, [2]string{want.ingredient, want.unit}, [2]string{l.Suggests.Ingredient, l.Suggests.Unit}, text)
		for i, other := range r.Lines {
			if i != want.line {
				assert.Empty(t, other.Asks, text)
			}
		}
	}
	right := document.Fix{Line: 2, Ingredient: "baking_powder", Amount: &amount, Unit: "tbsp"}
	assert.Empty(t, read("250 g flour\n300 ml milk\n5 tbsp baking powder\n2 eggs", right).Lines[2].Asks)
	for _, sound := range []string{
		"250 g flour\n300 ml buttermilk\n5 g baking soda\n2 eggs", "250 g flour\n300 ml milk\n15 g baking powder\n2 eggs\n100 g sugar\n5 g salt",
		"100 g flour\n250 g ricotta\n3 eggs\n1 tsp baking powder\n125 ml milk", "150 g flour\n350 ml milk\n3 eggs\n30 g butter",
	} {
		for _, l := range read(sound).Lines {
			assert.Empty(t, l.Asks, sound)
		}
	}
}

// How flour got into the cup is asked once: for the recipe, then for the kitchen.
func TestHowFlourGotIntoTheCup(t *testing.T) {
	in := here()
	wish := document.ReadingWish{Text: "Ingredients\n2 cups flour\n1 cup rye flour, scooped\n500 ml milk\n2 eggs\nMethod\nMix it."}
	r, err := document.Read(t.Context(), wish, in)
	require.NoError(t, err)
	assert.True(t, r.AsksFlourMethod)
	assert.Equal(t, "spooned", r.FlourMethod)
	wish.FlourMethod = "sifted"
	r, err = document.Read(t.Context(), wish, in)
	require.NoError(t, err)
	assert.False(t, r.AsksFlourMethod)
	assert.Equal(t, []string{"sifted", "scooped"}, []string{r.Base.Lines[0].FlourMethod, r.Base.Lines[1].FlourMethod}, "what the recipe says stays")
	wish.FlourMethod, in.Kitchen = "", document.OwnKitchen{FlourMethod: "scooped"}
	r, err = document.Read(t.Context(), wish, in)
	require.NoError(t, err)
	assert.Equal(t, "scooped", r.Base.Lines[0].FlourMethod)
	assert.False(t, r.AsksFlourMethod)
	wish.FlourMethod = "thrown"
	_, err = document.Read(t.Context(), wish, in)
	assert.ErrorContains(t, err, "/flour_method")
	r, err = document.Read(t.Context(), document.ReadingWish{Text: "200 g flour\n300 ml milk\n2 eggs"}, in)
	require.NoError(t, err)
	assert.Empty(t, r.FlourMethod, "nothing is by the cup")
}

// “(or milk)” is a choice, and butter “for the batter and the pan” has two uses.
func TestChoicesAndTwoUses(t *testing.T) {
	r, err := document.Read(t.Context(), document.ReadingWish{Text: "Ingredients\n200 g flour\n300 ml buttermilk (or milk)\n3 tbsp melted butter, for the batter and the pan\nMethod\nMix it."}, here())
	require.NoError(t, err)
	require.NotNil(t, r.Lines[1].Or)
	assert.Equal(t, "milk_whole", r.Lines[1].Or.Ingredient)
	assert.Equal(t, "read", r.Lines[1].Status)
	assert.Contains(t, r.Lines[2].Asks, "How much of it goes into the batter?")
	assert.Equal(t, "base", r.Lines[2].GoesTo)
	r, err = document.Read(t.Context(), document.ReadingWish{Text: "Ingredients\n200 g flour\n300 ml buttermilk (or milk)\nMethod\nMix it.", Fixes: []document.Fix{*r.Lines[1].Or}}, here())
	require.NoError(t, err)
	assert.Equal(t, "milk_whole", r.Base.Lines[1].Ingredient)
}

// Every recipe of the reader's corpora is kept as it is: it can be worked with, nothing moves and nothing
// is faulted, and what stands beside the batter is in every export with its allergens.
func TestEveryRecipeIsKeptAsItIs(t *testing.T) {
	ctx, kept := context.Background(), 0
	for _, file := range []string{"whole.txt", "talk.txt"} {
		data, err := os.ReadFile("../core/recipe/testdata/" + file)
		require.NoError(t, err)
		for _, part := range strings.Split(string(data), "\n== ")[1:] {
			name, rest, _ := strings.Cut(part, "\n")
			text, _, _ := strings.Cut(rest, "\n--\n")
			r, err := document.Read(t.Context(), document.ReadingWish{Text: text}, here())
			require.NoError(t, err, name)
			if r.Variation == nil || !slices.ContainsFunc(r.Base.Lines, func(l document.Line) bool { return strings.Contains(l.Ingredient, "flour") }) {
				continue // it still asks for its flour, or has none
			}
			body, err := r.Variation.Encode()
			require.NoError(t, err, name)
			v, err := document.DecodeVariation(body)
			require.NoError(t, err, name)
			w, err := v.Worksheet(ctx, here())
			require.NoError(t, err, name)
			kept++
			for _, l := range w.Lines {
				if l.Offset != nil && r.Whole && len(r.Additions) > 0 {
					assert.Zero(t, *l.Offset, "%s: %s", name, l.Name)
				}
				for _, a := range l.Allergens {
					assert.Contains(t, w.AllergenText, a, name)
				}
			}
			for _, as := range []string{"json", "jsonld", "markdown", "csv", "text"} {
				out, err := v.Export(ctx, as, here(), nil)
				require.NoError(t, err, name)
				for _, p := range w.Parts {
					assert.Contains(t, string(out), p.Text, "%s as %s", name, as)
					for _, a := range p.Allergens {
						assert.Contains(t, w.AllergenText, a, name)
					}
				}
			}
		}
	}
	assert.Greater(t, kept, 40)
}

// What is beside the batter needs no amount, and a name that a cook gives it is taken.
func TestWhatIsBesideNeedsNoAmount(t *testing.T) {
	wish := document.ReadingWish{Text: "Ingredients\n200 g flour\n300 ml milk\n2 eggs\nTo serve:\nzonk dust\n3 flurbs\nMethod\nMix it."}
	r, err := document.Read(t.Context(), wish, here())
	require.NoError(t, err)
	assert.Contains(t, r.Allergens, "Not known: “3 flurbs” and “zonk dust”")
	wish.Fixes = []document.Fix{{Line: 3, Ingredient: "walnuts_chopped"}, {Line: 4, Ingredient: "honey", Unit: "each"}}
	r, err = document.Read(t.Context(), wish, here())
	require.NoError(t, err)
	assert.Equal(t, []string{"read", "read"}, []string{r.Lines[3].Status, r.Lines[4].Status})
	assert.NotContains(t, r.Allergens, "not known")
	assert.Equal(t, "walnuts_chopped", r.Variation.Parts[0].Lines[0].Ingredient)
	// In the bowl another name asks its own question.
	r, err = document.Read(t.Context(), document.ReadingWish{Text: "Ingredients\n200 g flour\na splash of milk\nMethod\nMix it.", Fixes: []document.Fix{{Line: 1, Ingredient: "oat_drink"}}}, here())
	require.NoError(t, err)
	assert.Equal(t, "How much oat drink?", r.Lines[1].Asks)
}
