package recipe_test

import (
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

// inList reads one line as a list has it; the language is that of the words around it.
func inList(table *food.Table, line string) []recipe.Line {
	return recipe.ReadText("Ingredients\n100 g sugar\n"+line+"\nMethod\nMix.", table, batter.DefaultKitchen()).Lines[1:]
}

// A word beside a name that no list has makes another kind of it: it is asked, and its allergens are not known. An ingredient
// of that name settles it, so the table is asked, not a list.
func TestAnUnknownKindIsAsked(t *testing.T) {
	data, err := os.ReadFile("testdata/kinds.tsv")
	require.NoError(t, err)
	for line := range strings.Lines(string(data)) {
		text, want, ok := strings.Cut(strings.TrimSpace(line), "\t")
		if strings.HasPrefix(line, "#") || !ok {
			continue
		}
		r := recipe.ReadText(strings.ReplaceAll(text, " / ", "\n"), food.Reference(), batter.DefaultKitchen())
		l := r.Lines[len(r.Lines)-1]
		if want == "read" {
			assert.Equal(t, recipe.Read, l.Status, "%s: %s", text, l.Asks)
			continue
		}
		assert.NotEqual(t, recipe.Read, l.Status, text)
		assert.True(t, l.Guessed || l.Status == recipe.NotUnderstood, text)
		if want != "asked" {
			assert.Contains(t, l.Allergen, want, text)
		}
	}
}

// Of the lines of the corpora under one in twenty is asked for such a word: what describes a food is known.
func TestWhatDescribesAFoodIsKnown(t *testing.T) {
	asked, all := 0, 0
	count := func(lines []recipe.Line) {
		for _, l := range lines {
			all++
			if l.Ingredient != nil && (strings.Contains(l.Asks, "It also says") || l.Allergen != "") {
				asked++
				t.Logf("%q: %s", l.Text, l.Asks)
			}
		}
	}
	for _, file := range []string{"lines.tsv", "held_out.tsv", "messy.tsv"} {
		for text := range corpus(t, file) {
			count(inList(food.Reference(), text))
		}
	}
	for _, file := range []string{"talk.txt", "whole.txt"} {
		for _, p := range passages(t, file) {
			count(recipe.ReadText(p.text, food.Reference(), batter.DefaultKitchen()).Lines)
		}
	}
	t.Logf("%d of %d lines are asked for a word that makes another kind", asked, all)
	assert.Less(t, float64(asked), 0.05*float64(all))
}

// Whatever stands before or after any name of the table and is in no list, the line is not taken for the plain food.
func TestAnyUnknownWordIsAsked(t *testing.T) {
	table := food.Reference()
	named := slices.DeleteFunc(slices.Clone(table.All()), func(in *food.Ingredient) bool {
		return strings.ContainsAny(in.Label(), "(,") || strings.Contains(in.Label(), " or ") || inList(table, "50 g "+in.Label())[0].Status != recipe.Read
	})
	require.Greater(t, len(named), 120)
	rapid.Check(t, func(t *rapid.T) {
		in := rapid.SampledFrom(named).Draw(t, "ingredient")
		w := rapid.StringMatching(`[b-df-hj-np-tv-z][aou][b-df-hj-np-tv-z]{2}[aou][b-df-hj-np-tv-z][aou]`).Draw(t, "word")
		name := strings.ToLower(in.Label())
		text := rapid.SampledFrom([]string{"50 g " + w + " " + name, "50 g " + name + " of " + w, "50 g " + name + " (" + w + ")", "50 g " + name + ", " + w, w + " " + name + " 50 g"}).Draw(t, "text")
		for _, l := range inList(table, text) {
			assert.NotEqual(t, recipe.Read, l.Status, "%q was read as %s", text, l.Note)
		}
		// An ingredient of that name is known, and read.
		own := *in
		own.ID, own.Name, own.Own = "own_one", w+" "+name, &food.Own{Name: w + " " + name}
		l := inList(table.With([]*food.Ingredient{&own}), "50 g "+w+" "+name)[0]
		assert.Equal(t, recipe.Read, l.Status, l.Asks)
		assert.Equal(t, "own_one", l.Ingredient.ID)
	})
}

// A name of a food that has an allergen's word in it is one that the table answers for.
func TestNamesDoNotHideAllergens(t *testing.T) {
	meansNone := map[string]bool{"buckwheat": true, "noisette": true} // pine nuts are none of the 14 and say what they may carry; and the milk of coconut, oats, almonds and soya is none
	data, err := os.ReadFile("names.csv")
	require.NoError(t, err)
	for line := range strings.Lines(string(data)) {
		f := strings.Split(strings.TrimSpace(line), ";")
		in := food.Reference().ByID(f[0])
		if in == nil {
			continue
		}
		for _, name := range f[1:] {
			for _, w := range strings.Fields(name) {
				of := recipe.AllergensNamed(w)
				if of == nil || meansNone[w] || strings.Contains(name, "free") || name == "pine nut" || w == "milk" && strings.Contains("coconut oat almond soy soya", strings.Fields(name)[0]) {
					continue
				}
				assert.True(t, slices.ContainsFunc(in.Allergens, func(a string) bool { return slices.Contains(of, a) }), "%s is called “%s”", f[0], name)
			}
		}
	}
}

// What a cook only speaks of is in no bowl: it is compared with, left out, or at somebody else's table. What is named once as a
// kind with an allergen of its own is.
func TestWhatIsOnlySpokenOf(t *testing.T) {
	const bowl = " We take 200 g of flour, 300 ml of milk and two eggs, and whisk it all until it is smooth and let it stand for a good while."
	for text, want := range map[string]string{
		"You want it quite thick, like a beer batter.":                "not beer",
		"It should run off the spoon like yogurt does.":               "not yogurt_plain",
		"My kids have their oats at the table while I stand here.":    "not oats_rolled",
		"My neighbour always makes hers with walnuts in it.":          "not walnuts_chopped",
		"I have never put walnuts in it.":                             "not walnuts_chopped",
		"There are no hazelnuts in this one.":                         "not hazelnuts_chopped",
		"Instead of butter there is nothing at all in the pan.":       "not butter_unsalted",
		"It gets about as thick as peanut butter.":                    "not peanut_butter",
		"It smells of almonds, I do not know why.":                    "not almonds_flaked",
		"We like walnuts so I fold in some walnuts.":                  "walnuts_chopped",
		"The milk that I use is almond milk, that is all we have.":    "almond_drink",
		"Then fold in chopped pecans.":                                "pecans_chopped",
		"Serve them with some honey.":                                 "honey",
		"I like to sprinkle sesame over them.":                        "sesame_seeds",
		"Then I pour in a little beer, it makes them light.":          "beer",
		"We fry them in peanut oil.":                                  "?peanut",
		"You can stir a spoon of lupin into the bowl if you have it.": "?lupin",
		"And then I scatter nuts all over them.":                      "?nuts",
	} {
		r := recipe.ReadText(text+bowl, food.Reference(), batter.DefaultKitchen())
		got := ids(r)
		not, isNot := strings.CutPrefix(want, "not ")
		word, isWord := strings.CutPrefix(want, "?")
		switch {
		case isNot:
			assert.NotContains(t, got, not, text)
		case isWord:
			assert.True(t, slices.ContainsFunc(r.Lines, func(l recipe.Line) bool { return l.Allergen == word }), "%s: %v", text, got)
		default:
			assert.Contains(t, got, want, text)
		}
		assert.Subset(t, got, []string{"plain_flour", "milk_whole", "egg_whole"}, text)
	}
}

// An allergen that only the steps of a recipe name is told, whatever the table has.
func TestAnAllergenInTheSteps(t *testing.T) {
	for step, word := range map[string]string{
		"Stir in the chopped lupin seeds.": "lupin", "Brush the iron with mustard oil.": "mustard", "Scatter celery leaves over them.": "celery", "Serve with squid.": "squid",
		"Pour in the milk, whisk.": "", "Whisk the egg in.": "", "Use a dairy-free spread if you like.": "", "Do not add walnuts.": "", "Fold the almonds in, then the rest of the nuts.": "",
	} {
		r := recipe.ReadText("Pancakes\n\nIngredients\n200 g flour\n300 ml milk\n1 egg\n40 g flaked almonds\nMethod\n"+step, food.Reference(), batter.DefaultKitchen())
		at := slices.IndexFunc(r.Lines, func(l recipe.Line) bool { return l.Allergen != "" })
		if word == "" {
			assert.Equal(t, -1, at, "%s: %v", step, ids(r))
		} else if assert.GreaterOrEqual(t, at, 0, step) {
			assert.Equal(t, word, r.Lines[at].Allergen, step)
		}
	}
	r := recipe.ReadText("Pancakes\n\nIngredients\n200 g flour\n300 ml oat milk\nMethod\nPour in the milk, whisk, let it rest.", food.Reference(), batter.DefaultKitchen())
	assert.Equal(t, []string{"plain_flour", "oat_drink"}, ids(r), "the milk is what was listed")
}
