package recipe_test

import (
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

func ids(r recipe.Reading) []string {
	var out []string
	for _, l := range r.Lines {
		if l.Ingredient == nil {
			out = append(out, "?")
			continue
		}
		out = append(out, l.Ingredient.ID)
	}
	return out
}

const notebook = `Carrot pancakes from the quay

Serves 4

For the batter
- 1 1/2 cups plain flour, sifted
- 2 tsp baking powder
- a pinch of salt
- 2 large eggs, separated
- 300 ml buttermilk (or milk)
- 50 g butter, melted and cooled

To fold in:
1 cup grated carrot
a handful of walnuts
1 tsp ground cinnamon
1 flurb of zonk

Method
1. Whisk the dry things together.
2. Beat the whites to soft peaks.
3. Mix until just combined; stop while it is lumpy. Let it rest for 20 minutes.
4. Fry in butter over medium heat, 2 minutes a side.
`

func TestANotebookPage(t *testing.T) {
	r := recipe.ReadText(notebook, food.Reference(), batter.DefaultKitchen())
	assert.Equal(t, "Carrot pancakes from the quay", r.Title)
	assert.Equal(t, []string{
		"plain_flour", "baking_powder", "salt_fine", "egg_whole", "buttermilk_cultured", "butter_unsalted", "carrot_grated", "walnuts_chopped", "cinnamon", "?",
	}, ids(r))
	assert.Len(t, r.Steps, 4)
	assert.Equal(t, recipe.NotUnderstood, r.Lines[9].Status)
	assert.Equal(t, recipe.Unsure, r.Lines[7].Status, "a handful is asked for")
	assert.NotEmpty(t, r.Lines[7].Asks)
	assert.Equal(t, "sifted", r.Lines[0].Note)
	assert.Contains(t, r.Lines[4].Note, "or milk")
	assert.InDelta(t, 0.98, r.Lines[0].Confidence, 0.03)
	c := r.Compose(batter.DefaultKitchen())
	assert.Equal(t, batter.Pancake, c.Form)
	assert.Equal(t, batter.Whipped, c.Base.Style)
	assert.InDelta(t, 20, c.Base.School.RestMin, 0)
	assert.Equal(t, "stop while lumpy", c.Base.School.Lumps)
	assert.Len(t, c.Base.Lines, 6)
	require.Len(t, c.Additions, 2, "the walnuts have no amount yet")
	assert.Equal(t, "carrot_grated", c.Additions[0].Ingredient.ID)
	everything := strings.Join(append(append(r.Steps, r.Other...), r.Title), "\n")
	for _, l := range r.Lines {
		everything += "\n" + l.Text
	}
	for line := range strings.Lines(notebook) {
		bare := strings.TrimSpace(strings.TrimLeft(strings.TrimSpace(line), "-0123456789. "))
		assert.Contains(t, everything, strings.TrimSuffix(bare, ":"), "nothing is dropped")
	}
}

func TestAHeadedListHasATitleBeforeIt(t *testing.T) {
	r := recipe.ReadText("Yogurt\n\nIngredients\n5.6 g baking soda (sodium hydrogen carbonate) (1 tsp + 1 pinch)\n2 eggs\nMethod\n1. Mix.", food.Reference(), batter.DefaultKitchen())
	assert.Equal(t, "Yogurt", r.Title)
	assert.Equal(t, []string{"baking_soda", "egg_whole"}, ids(r))
	assert.Equal(t, 5.6, r.Lines[0].Amount)
}

func TestSpokenText(t *testing.T) {
	r := recipe.ReadText("So take two cups of flour, a cup and a half of milk, two eggs, three tablespoons of melted butter and a pinch of salt, then mix it all and let it rest for half an hour.", food.Reference(), batter.DefaultKitchen())
	assert.Equal(t, []string{"plain_flour", "milk_whole", "egg_whole", "butter_unsalted", "salt_fine"}, ids(r))
	assert.Equal(t, 1.5, r.Lines[1].Amount)
	assert.NotEmpty(t, r.Steps)
	assert.InDelta(t, 30, r.Compose(batter.DefaultKitchen()).Base.School.RestMin, 0)
	r = recipe.ReadText("250g flour 500ml milk 3 eggs 30g butter", food.Reference(), batter.DefaultKitchen())
	assert.Equal(t, []string{"plain_flour", "milk_whole", "egg_whole", "butter_unsalted"}, ids(r))
	assert.Equal(t, batter.Crepe, r.Compose(batter.DefaultKitchen()).Form, "thin, and nothing lifts it")
}

func TestFormsAndStyles(t *testing.T) {
	for text, want := range map[string][2]string{
		"Crisp waffles\n\n200 g flour\n50 g semolina\n300 ml milk\n2 eggs\n1 tsp baking powder":         {"waffle", "crisp"},
		"Drop scones\n\n200 g self-raising flour\n200 ml milk\n1 egg":                                   {"drop_scone", "self_raising"},
		"Ricotta pancakes\n\n250 g ricotta\n100 g flour\n120 ml milk\n2 eggs\n1 tsp baking powder":      {"pancake", "curd"},
		"Banana pancakes\n\n2 bananas, mashed\n2 eggs\n1 pinch cinnamon":                                {"flourless", "flourless"},
		"Galettes\n\n250 g buckwheat flour\n600 ml water\n1 egg\n1 tsp salt":                            {"crepe", "buckwheat"},
		"Mochi waffles\n\n200 g mochiko\n240 ml milk\n1 egg\n30 g butter\n1 tsp baking powder":          {"waffle", "chewy"},
		"Yeast waffles\n\n250 g flour\n400 ml milk\n5 g dried yeast\n80 g butter\n2 eggs\na pinch salt": {"waffle", "yeast"},
	} {
		c := recipe.ReadText(text, food.Reference(), batter.DefaultKitchen()).Compose(batter.DefaultKitchen())
		assert.Equal(t, want, [2]string{string(c.Form), string(c.Base.Style)}, text)
	}
}

func TestOtherTexts(t *testing.T) {
	for name, text := range map[string]string{
		"nothing": "", "spaces": " \n\t ", "prose": strings.Repeat("It was a grey morning on the pier and nobody wanted breakfast yet. ", 400),
		"another script": "小麦粉 200g\n牛乳 300ml\n卵 2個", "only signs": "---\n***\n1/0 cups\n)))(((", "long number": strings.Repeat("9", 400) + " g flour",
	} {
		r := recipe.ReadText(text, food.Reference(), batter.DefaultKitchen())
		for _, l := range r.Lines {
			assert.GreaterOrEqual(t, l.Amount, 0.0, name)
		}
	}
}

// Bytes that are no letters, as many as never end a sentence, are read through once.
func TestBytesThatAreNoLetters(t *testing.T) {
	for _, text := range []string{strings.Repeat("\x9b", 3000), strings.Repeat("ß", 3000), strings.Repeat("x", 999) + strings.Repeat("\u20ac", 700)} {
		recipe.ReadText("3 eggs and "+text, food.Reference(), batter.DefaultKitchen())
	}
}

// FuzzRead: no panic, no amount below zero, nothing that is not a number.
func FuzzRead(f *testing.F) {
	f.Add(notebook)
	f.Add("2 x 400 g cans (14 oz) ½–¾ cup, a a a half and a half of 1/0")
	for _, file := range []string{"testdata/lines.tsv", "testdata/held_out.tsv"} {
		data, err := os.ReadFile(file)
		require.NoError(f, err)
		for line := range strings.Lines(string(data)) {
			text, _, _ := strings.Cut(line, "\t")
			f.Add(text)
		}
	}
	f.Add("A: Sugar? B: Two dozen eggs, the same of water, half a tub, that's 125 g of ricotta. On it, over the lot, mine: a pinch salt each.")
	table := food.Reference()
	f.Fuzz(func(t *testing.T, text string) {
		r := recipe.ReadText(text, table, batter.DefaultKitchen())
		for _, l := range r.Lines {
			if !(l.Amount >= 0 && l.Amount < 1e300) || !(l.Confidence >= 0 && l.Confidence <= 1) {
				t.Errorf("%q: %g, %g", l.Text, l.Amount, l.Confidence)
			}
			if l.Status != recipe.NotUnderstood && l.Ingredient == nil {
				t.Errorf("%q is %s without an ingredient", l.Text, l.Status)
			}
		}
		r.Compose(batter.DefaultKitchen())
	})
}

func BenchmarkSixtyLines(b *testing.B) {
	text := strings.Repeat(notebook, 3)
	recipe.ReadText(text, food.Reference(), batter.DefaultKitchen()) // the index is built once
	b.ResetTimer()
	for range b.N {
		recipe.ReadText(text, food.Reference(), batter.DefaultKitchen())
	}
}

// 256 kB of talk, the longest text that is read.
func BenchmarkTalk(b *testing.B) {
	text := strings.Repeat("so now we take two cups of flour and a teaspoon of baking powder, and then I pour in the milk and whisk it until it looks like thick cream, you know, ", 1+recipe.MaxBytes/150)[:recipe.MaxBytes]
	for range b.N {
		recipe.ReadText(text, food.Reference(), batter.DefaultKitchen())
	}
}
