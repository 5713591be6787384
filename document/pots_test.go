package document_test

import (
	"context"
	"regexp"
	"strings"
	"testing"
	"unicode/utf16"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
)

const caramelTalk = `Crêpes of the pier
0:03 so it is two hundred and fifty grams of flour
0:08 four hundred of milk grams as well and two eggs
0:12 and ten grams of baking powder and that rests while we do the caramel
0:18 so in a saucepan a hundred and fifty grams of sugar until it is amber
0:22 and then a hundred and twenty grams of cream and thirty grams of butter okay and back to the batter
0:30 so again the flour two hundred and fifty grams and there is no vanilla in it
0:37 and half a teaspoon of oil for each one in the pan it makes about four`

func read(t *testing.T, w document.ReadingWish) document.Reading {
	t.Helper()
	r, err := document.Read(context.Background(), w, here())
	require.NoError(t, err)
	return r
}

func lineOf(t *testing.T, r document.Reading, id string) (int, document.ReadLine) {
	t.Helper()
	for i, l := range r.Lines {
		if l.Ingredient == id {
			return i, l
		}
	}
	require.Fail(t, "no line of "+id)
	return 0, document.ReadLine{}
}

// A pot of a talk is a sauce that can be kept, none of it is in the bowl, and the allergens are those of both; what is said twice is
// there once, with both its places; what is denied is told apart.
func TestAPotIsASauce(t *testing.T) {
	r := read(t, document.ReadingWish{Text: caramelTalk})
	assert.Equal(t, 2, r.Version)
	require.Len(t, r.Pots, 1)
	pot := r.Pots[0]
	assert.Equal(t, []any{"p1", "Caramel", "caramel", "top"}, []any{pot.ID, pot.Name, pot.Kind, pot.On})
	require.NotNil(t, pot.Sauce)
	assert.Len(t, pot.Sauce.Lines, 3)
	assert.Less(t, pot.EndsG, 300.0, "some of its water boils off")
	for _, l := range r.Base.Lines {
		assert.NotContains(t, []string{"granulated_sugar", "cream_heavy", "butter_unsalted"}, l.Ingredient, "not in the bowl")
	}
	require.NotNil(t, r.Bowl)
	assert.InDelta(t, 760, r.Bowl.MassG, 1, "250 + 400 + 100 + 10 g")
	assert.Contains(t, r.Bowl.Text, "it says 4")
	assert.NotEmpty(t, r.Bowl.Asks, "eleven come of it")
	for _, a := range []string{"egg", "milk", "wheat"} {
		assert.Contains(t, r.Allergens, a)
	}
	var kinds []string
	for _, p := range r.Variation.Parts {
		kinds = append(kinds, p.Kind)
		assert.Equal(t, p.Kind == "top", p.Sauce != nil)
	}
	assert.Equal(t, []string{"top", "pan"}, kinds)
	assert.InDelta(t, 2.3, *r.Variation.Parts[1].EachG, 0.1, "half a teaspoon for each one")
	assert.Nil(t, r.Base.Parts[0].Sauce, "a base keeps the words")

	units := utf16.Encode([]rune(caramelTalk))
	_, flour := lineOf(t, r, "plain_flour")
	require.Len(t, flour.Spans, 2)
	assert.Equal(t, []string{"0:03", "0:30"}, flour.SaidAt)
	for _, s := range flour.Spans {
		assert.Contains(t, string(utf16.Decode(units[s[0]:s[1]])), "two hundred and fifty grams")
	}
	require.Len(t, r.AlsoHeard, 1)
	assert.Equal(t, "vanilla", r.AlsoHeard[0].Text)
	assert.Equal(t, "vanilla", string(utf16.Decode(units[r.AlsoHeard[0].Span[0]:r.AlsoHeard[0].Span[1]])))
}

// A line goes where the cook says, and takes its amount along: into the bowl, to a place, into a pot or a sauce of its own.
func TestALineGoesWhereTheCookSays(t *testing.T) {
	first := read(t, document.ReadingWish{Text: caramelTalk})
	butter, _ := lineOf(t, first, "butter_unsalted")
	cream, _ := lineOf(t, first, "cream_heavy")
	oil, _ := lineOf(t, first, "vegetable_oil")
	for place, check := range map[string]func(document.Reading){
		"bowl": func(r document.Reading) {
			assert.InDelta(t, 790, r.Bowl.MassG, 1)
			assert.Len(t, r.Pots[0].Sauce.Lines, 2)
		},
		"pan": func(r document.Reading) { assert.Len(t, r.Pots[0].Sauce.Lines, 2) },
		"p2": func(r document.Reading) {
			require.Len(t, r.Pots, 2)
			assert.Equal(t, "Butter", r.Pots[1].Name)
		},
	} {
		r := read(t, document.ReadingWish{Text: caramelTalk, Fixes: []document.Fix{{Line: butter, Place: place}}})
		assert.Equal(t, map[bool]string{true: "", false: place}[place == "bowl"], r.Lines[butter].Place)
		assert.Equal(t, 30.0, *r.Lines[butter].Amount)
		check(r)
	}
	r := read(t, document.ReadingWish{Text: caramelTalk, Fixes: []document.Fix{{Line: oil, Place: "p1"}}})
	assert.Len(t, r.Pots[0].Sauce.Lines, 4)
	r = read(t, document.ReadingWish{Text: caramelTalk, Fixes: []document.Fix{{Line: butter, LeaveOut: true}, {Line: cream, LeaveOut: true}}})
	assert.Nil(t, r.Pots[0].Sauce, "sugar alone is no sauce")
	assert.Contains(t, r.Allergens, "Contains egg, milk and wheat", "the milk is still in the bowl")
	for _, bad := range []string{"p4", "p0", "p", "px", "moon"} {
		_, err := document.Read(context.Background(), document.ReadingWish{Text: caramelTalk, Fixes: []document.Fix{{Line: butter, Place: bad}}}, here())
		assert.ErrorContains(t, err, "is not a place", bad)
	}
}

// What is said again can be meant again; another amount is one question for two lines.
func TestBothOrInstead(t *testing.T) {
	first := read(t, document.ReadingWish{Text: caramelTalk})
	flour, _ := lineOf(t, first, "plain_flour")
	r := read(t, document.ReadingWish{Text: caramelTalk, Fixes: []document.Fix{{Line: flour, Both: true}}})
	assert.Equal(t, 500.0, *r.Lines[flour].Amount)
	assert.InDelta(t, 1010, r.Bowl.MassG, 1)
	typed := 300.0
	r = read(t, document.ReadingWish{Text: caramelTalk, Fixes: []document.Fix{{Line: flour, Both: true, Amount: &typed}}})
	assert.Equal(t, 300.0, *r.Lines[flour].Amount, "what is typed is all of it")

	const two = "A quarter of a cup of sugar with two cups of flour and two eggs, and a cup of milk. And at the end one cup of sugar."
	r = read(t, document.ReadingWish{Text: two})
	require.Len(t, r.Questions, 1)
	q := r.Questions[0]
	assert.Equal(t, "both_or_instead", q.Code)
	assert.Equal(t, []string{"0.25 cup", "1 cup"}, q.Amounts)
	a, b := q.Lines[0], q.Lines[1]
	for _, i := range q.Lines {
		assert.Equal(t, "granulated_sugar", r.Lines[i].Ingredient)
		assert.Equal(t, "unsure", r.Lines[i].Status)
	}
	one := read(t, document.ReadingWish{Text: two, Fixes: []document.Fix{{Line: a, Ingredient: "granulated_sugar", Amount: r.Lines[a].Amount, Unit: "cup"}, {Line: b, LeaveOut: true}}})
	assert.Empty(t, one.Questions)
	assert.Equal(t, "read", one.Lines[a].Status)
}

// A spoon stays as it is spoken and holds what it holds: in grams, in the base, and when the base is read again.
func TestAHeapedSpoonStaysOne(t *testing.T) {
	r := read(t, document.ReadingWish{Text: "Pancakes\n\n10 heaped tablespoons flour\n10 tbsp sugar\n2 eggs\n300 ml milk\n1 heaped tsp baking powder\n2 heaped tablespoons oil"})
	_, flour := lineOf(t, r, "plain_flour")
	assert.Equal(t, []any{"heaped", 10.0, "tbsp", "read"}, []any{flour.Fill, *flour.Amount, flour.Unit, flour.Status})
	_, powder := lineOf(t, r, "baking_powder")
	assert.Equal(t, "unsure", powder.Status, "of leavener it is asked")
	require.NotNil(t, powder.Suggests)
	assert.Equal(t, []any{2.0, "level"}, []any{*powder.Suggests.Amount, powder.Suggests.Fill})
	_, oil := lineOf(t, r, "vegetable_oil")
	assert.Empty(t, oil.Fill, "oil does not heap")

	data, err := r.Base.Encode()
	require.NoError(t, err)
	again, err := document.DecodeBase(data)
	require.NoError(t, err)
	assert.Equal(t, 3, again.Version)
	assert.Equal(t, "heaped", again.Lines[0].Fill)
	w, err := again.Worksheet(context.Background(), here())
	require.NoError(t, err)
	level := regexp.MustCompile(`,\s*"fill": ?"heaped"`).ReplaceAllString(string(data), "")
	plain, err := document.DecodeBase([]byte(level))
	require.NoError(t, err)
	p, err := plain.Worksheet(context.Background(), here())
	require.NoError(t, err)
	assert.InDelta(t, 10*14.79*0.509+4.93*0.96, w.Batter.MassG-p.Batter.MassG, 8, "ten tablespoons of flour more, and a teaspoon of powder")
}

// A word of the kitchen's own is read as what it is taught to be, with its allergens; forgotten, it is asked again.
func TestAWordIsTaught(t *testing.T) {
	const text = "Pancakes\n\n200 g flour\n2 eggs\n300 ml milk\n40 g zonks"
	s := here()
	r, err := document.Read(context.Background(), document.ReadingWish{Text: text}, s)
	require.NoError(t, err)
	last := r.Lines[len(r.Lines)-1]
	assert.Equal(t, "not_understood", last.Status)
	assert.Equal(t, "zonks", last.Called)
	s.Kitchen.Words = []document.OwnWord{{Word: "zonks", Ingredient: "hazelnuts_chopped"}, {Word: "the grey stuff", Ingredient: "gone_from_the_pantry"}}
	r, err = document.Read(context.Background(), document.ReadingWish{Text: text}, s)
	require.NoError(t, err)
	last = r.Lines[len(r.Lines)-1]
	assert.Equal(t, []any{"hazelnuts_chopped", "read", 40.0}, []any{last.Ingredient, last.Status, *last.Amount})
	assert.Contains(t, r.Allergens, "hazelnut")
	talk, err := document.Read(context.Background(), document.ReadingWish{Text: "so two hundred grams of flour and two eggs and three hundred grams of milk and forty grams of zonks in it and a pinch of salt and whisk it well"}, s)
	require.NoError(t, err)
	assert.Contains(t, talk.Allergens, "hazelnut")

	data, err := s.Kitchen.Encode()
	require.NoError(t, err)
	assert.Contains(t, string(data), `"version":2`)
	k, err := document.DecodeKitchen(data)
	require.NoError(t, err)
	assert.Equal(t, s.Kitchen.Words, k.Words)
	k.Words = nil
	data, err = k.Encode()
	require.NoError(t, err)
	assert.Contains(t, string(data), `"version":1`, "an older program reads it then")
	for _, bad := range []string{`[{"word":" ","ingredient":"water"}]`, `[{"word":"zonk"}]`, `[{"word":"zonk","ingredient":"water"},{"word":"Zonk ","ingredient":"water"}]`, `[{"word":"` + strings.Repeat("z", 61) + `","ingredient":"water"}]`} {
		_, err := document.DecodeKitchen([]byte(`{"format":"upbeat-ladle/kitchen","version":2,"name":"K","words":` + bad + `}`))
		assert.Error(t, err, bad)
	}
}

// Every place has its time, or an empty one where none stands before it; the longest text with times is read in time to wait for.
func TestEveryPlaceHasItsTime(t *testing.T) {
	r := read(t, document.ReadingWish{Text: "two hundred grams of flour\n0:05 two eggs and again two hundred grams of flour\n0:09 and three hundred grams of milk"})
	_, flour := lineOf(t, r, "plain_flour")
	assert.Len(t, flour.Spans, 2)
	assert.Equal(t, []string{"", "0:05"}, flour.SaidAt)
}

func BenchmarkALongTalk(b *testing.B) {
	text := strings.Repeat("0:05 so now two cups of flour and an egg, 0:09 and a cup of milk and I whisk it until it looks like cream, you know\n", 2200)
	for range b.N {
		_, _ = document.Read(context.Background(), document.ReadingWish{Text: text}, here())
	}
}

// A heaped spoon holds the same when the recipe is made larger, and no export tells more or less than the bench weighs.
func TestAHeapedSpoonInEveryView(t *testing.T) {
	r := read(t, document.ReadingWish{Text: "Pancakes\n\n10 heaped tablespoons flour\n2 rounded tbsp sugar\n2 eggs\n300 ml milk\n30 g butter\n1 heaped tsp cinnamon"})
	w, err := r.Variation.Worksheet(context.Background(), here())
	require.NoError(t, err)
	flour := 2 * w.Batter.FlourG
	more, err := document.Scale(context.Background(), document.ScaleWish{Variation: r.Variation, FlourG: &flour}, here())
	require.NoError(t, err)
	twice, err := more.Variation.Worksheet(context.Background(), here())
	require.NoError(t, err)
	assert.InDelta(t, 2*w.Batter.MassG, twice.Batter.MassG, 4)
	level := regexp.MustCompile(`\b10 (tbsp|tablespoons?)\b`)
	for _, as := range []string{"text", "markdown", "csv", "jsonld", "json"} {
		out, err := r.Variation.Export(context.Background(), as, here(), nil)
		require.NoError(t, err, as)
		if as == "json" {
			assert.Contains(t, string(out), "heaped")
			continue
		}
		assert.Contains(t, string(out), "153", as)
		assert.NotRegexp(t, level, string(out), as)
	}
	out, err := r.Base.Export(context.Background(), "text", here())
	require.NoError(t, err)
	assert.NotRegexp(t, level, string(out))
}
