package recipe_test

import (
	"math"
	"os"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"
	"unicode"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

type passage struct {
	name, text string
	want       []entry
	heldOut    bool // only ever scored
}

// passages reads a file of whole texts: "== name", the text, "--", and an entry a line.
func passages(t *testing.T, file string) []passage {
	t.Helper()
	data, err := os.ReadFile("testdata/" + file)
	require.NoError(t, err)
	var out []passage
	for i, part := range strings.Split(string(data), "\n== ")[1:] {
		name, rest, _ := strings.Cut(part, "\n")
		text, truth, ok := strings.Cut(rest, "\n--\n")
		require.True(t, ok, name)
		p := passage{name: name, text: text, heldOut: i%3 == 2}
		for line := range strings.Lines(truth) {
			f := strings.Fields(line)
			require.Len(t, f, 3, name)
			v, err := strconv.ParseFloat(f[1], 64)
			require.NoError(t, err)
			p.want = append(p.want, entry{f[0], v, f[2]})
		}
		out = append(out, p)
	}
	return out
}

// tally counts how a corpus was read: of what a cook would write down, how much was found and how
// much of it with the right amount; what was read that is not there; what was lost.
type tally struct{ want, found, right, false, dropped int }

func (s *tally) add(r recipe.Reading, want []entry) (wrong []string) {
	taken := make([]bool, len(r.Lines))
	for _, w := range want {
		s.want++
		at, whole := -1, false
		for i, l := range r.Lines {
			if taken[i] || l.Ingredient == nil && w.id != "?" || l.Ingredient != nil && l.Ingredient.ID != w.id {
				continue
			}
			unit := string(l.Unit)
			if unit == "" {
				unit = "-"
			}
			same := math.Abs(l.Amount-w.amount) <= 1e-4*math.Max(1, w.amount) && (w.id == "?" || unit == w.unit)
			if at < 0 || same && !whole {
				at, whole = i, same
			}
		}
		switch {
		case at < 0:
			s.dropped++
			wrong = append(wrong, "lost "+w.id)
		case whole:
			s.found, s.right = s.found+1, s.right+1
			taken[at] = true
		default:
			s.found++
			taken[at] = true
			wrong = append(wrong, "amount of "+w.id)
		}
	}
	for i, l := range r.Lines {
		if !taken[i] && l.Status == recipe.Read {
			s.false++
			wrong = append(wrong, "false "+l.Text)
		}
	}
	return wrong
}

func scored(t *testing.T, file string) (tuned, held tally) {
	for _, p := range passages(t, file) {
		s := &tuned
		if p.heldOut {
			s = &held
		}
		if wrong := s.add(recipe.ReadText(p.text, food.Reference(), batter.DefaultKitchen()), p.want); len(wrong) > 0 {
			t.Logf("%s: %s", p.name, strings.Join(wrong, ", "))
		}
	}
	for name, s := range map[string]tally{"made with": tuned, "held out": held} {
		t.Logf("%s, %s: of %d, %d found, %d right, %d dropped; %d false", file, name, s.want, s.found, s.right, s.dropped, s.false)
	}
	return tuned, held
}

func (s tally) share() float64 { return float64(s.right) / float64(s.want) }

// Talk, messages and subtitles.
func TestTheCorpusOfTalk(t *testing.T) {
	tuned, held := scored(t, "talk.txt")
	assert.GreaterOrEqual(t, tuned.share(), 0.95)
	assert.GreaterOrEqual(t, held.share(), 0.7)
}

// Short whole recipes, in seven languages.
func TestTheCorpusOfWholeRecipes(t *testing.T) {
	tuned, held := scored(t, "whole.txt")
	assert.GreaterOrEqual(t, tuned.share(), 0.95)
	assert.GreaterOrEqual(t, held.share(), 0.8)
}

// What the reader is sure of is right: of the entries with a confidence of 0.95 or more, at least 97 %
// over all corpora.
func TestConfidenceMeansSomething(t *testing.T) {
	sure, wrong := 0, 0
	count := func(text string, r recipe.Reading, want []entry) {
		for _, l := range r.Lines {
			if l.Confidence < 0.95 {
				continue
			}
			sure++
			unit := string(l.Unit)
			if unit == "" {
				unit = "-"
			}
			if !slices.ContainsFunc(want, func(w entry) bool {
				return l.Ingredient != nil && w.id == l.Ingredient.ID && w.unit == unit && math.Abs(w.amount-l.Amount) <= 1e-4*math.Max(1, w.amount)
			}) {
				wrong++
				t.Logf("sure and wrong: %q in %q", l.Text, text)
			}
		}
	}
	for _, file := range []string{"lines.tsv", "held_out.tsv", "messy.tsv"} {
		for text, want := range corpus(t, file) {
			count(text, recipe.ReadText("Ingredients\n"+text+"\nMethod\nMix.", food.Reference(), batter.DefaultKitchen()), want)
		}
	}
	for _, file := range []string{"talk.txt", "whole.txt"} {
		for _, p := range passages(t, file) {
			count(p.name, recipe.ReadText(p.text, food.Reference(), batter.DefaultKitchen()), p.want)
		}
	}
	t.Logf("of %d entries with a confidence of 0.95 or more, %d are right (%.1f %%)", sure, sure-wrong, 100*float64(sure-wrong)/float64(sure))
	assert.GreaterOrEqual(t, float64(sure-wrong)/float64(sure), 0.97)
}

// The language is guessed, and what a recipe is called tells its form.
func TestLanguagesAndForms(t *testing.T) {
	forms := map[string]batter.Form{"fr": batter.Crepe, "pl": batter.Crepe, "de fruit": batter.Waffle, "it zucca": batter.Pancake}
	for _, p := range passages(t, "whole.txt") {
		r := recipe.ReadText(p.text, food.Reference(), batter.DefaultKitchen())
		want := recipe.English
		if lang, _, _ := strings.Cut(p.name, " "); len(lang) == 2 && recipe.LanguageNames[recipe.Language(lang)] != "" {
			want = recipe.Language(lang)
		}
		assert.Equal(t, want, r.Language, p.name)
		if form, ok := forms[p.name]; ok {
			assert.Equal(t, form, r.Compose(batter.DefaultKitchen()).Form, p.name)
		}
	}
}

// Nothing of a text is dropped: every word that could name a thing stands in a line, a step, the title or
// among the rest.
func TestNoWordIsDropped(t *testing.T) {
	texts := map[string]string{
		"what is left over": "two cups of flour and also some lovely hazels from the market, a pint of milk",
		"brackets in talk":  "we take two cups (240 g) of flour, 300 ml of milk and two eggs",
	}
	for _, file := range []string{"talk.txt", "whole.txt"} {
		for _, p := range passages(t, file) {
			texts[p.name] = p.text
		}
	}
	stamps := regexp.MustCompile(`(?i)webvtt|[\d:.,]+`)
	for name, text := range texts {
		r := recipe.ReadText(text, food.Reference(), batter.DefaultKitchen())
		kept := strings.Join(append(append([]string{r.Title}, r.Steps...), r.Other...), " ")
		for _, l := range r.Lines {
			kept += " " + l.Text + " " + l.Note
		}
		for _, w := range strings.FieldsFunc(stamps.ReplaceAllString(text, " "), func(c rune) bool { return !unicode.IsLetter(c) }) {
			if len([]rune(w)) > 3 && w != "about" {
				assert.Contains(t, strings.ToLower(kept), strings.ToLower(w), name)
			}
		}
	}
}

// Where something goes is told by the doing before it, not by letters that look like it.
func TestWhereAThingGoes(t *testing.T) {
	place := func(step, id string) batter.Place {
		r := recipe.ReadText("Pancakes\n\nIngredients\n200 g flour\n300 ml milk\nMethod\n"+step, food.Reference(), batter.DefaultKitchen())
		for _, l := range r.Lines {
			if l.Ingredient != nil && l.Ingredient.ID == id {
				return l.Place
			}
		}
		t.Errorf("%s is not read in %q", id, step)
		return ""
	}
	for step, want := range map[string]batter.Place{
		"Serve with honey.": batter.Serving, "Top with honey.": batter.OnTop, "Drizzle honey over them.": batter.OnTop, "They are good with honey.": batter.Serving,
		"Stop whisking when the honey is in.": "", "Reserve the honey.": "", "Drizzle in the honey while you whisk.": "", "Observe how honey browns.": "",
	} {
		assert.Equal(t, want, place(step, "honey"), step)
	}
	r := recipe.ReadText("we take 200 g of flour, reserve two tablespoons of sugar, serve it with a splash of cream", food.Reference(), batter.DefaultKitchen())
	assert.Empty(t, r.Lines[1].Place)
	assert.Equal(t, batter.Serving, r.Lines[2].Place)
	assert.Empty(t, r.Lines[2].Asks, "how much of it need not be known")
	l := only(t, "extra virgin olive oil for frying")
	assert.Equal(t, batter.InPan, l.Place)
	assert.Empty(t, only(t, "50 g butter, plus extra for the pan").Place)
}

// What a step makes of what goes on is no addition to the batter, and is not dropped: it may carry an allergen.
func TestAStepMakesWhatGoesOn(t *testing.T) {
	r := recipe.ReadText("500 g plain flour\n750 ml milk\n4 eggs\nOn top: Walnut cream, 20 g\n\nMethod\nWhisk the flour into the milk and the eggs.\nWalnut cream: beat 80 g butter with 40 g chopped walnuts.\n", food.Reference(), batter.DefaultKitchen())
	places := map[string]batter.Place{}
	for _, l := range r.Lines {
		if l.Ingredient != nil {
			places[l.Ingredient.ID] = l.Place
		}
	}
	assert.Equal(t, batter.Place(""), places["plain_flour"])
	assert.Equal(t, batter.OnTop, places["butter_unsalted"])
}
