package recipe_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

// written is what a cook would write down of what was said.
type written struct {
	id     string
	amount float64
	unit   string
}

// Amounts as they are spoken: each with what a cook would write down.
func TestSpokenAmounts(t *testing.T) {
	for text, want := range map[string]written{
		"three hundred grams of flour":                    {"plain_flour", 300, "g"},
		"two hundred and fifty grams of flour":            {"plain_flour", 250, "g"},
		"a hundred and eighty grams of spelt flour":       {"spelt_flour", 180, "g"},
		"a hundred and twelve grams of butter":            {"butter_unsalted", 112, "g"},
		"twenty-five grams of sugar":                      {"granulated_sugar", 25, "g"},
		"thirty five grams of honey":                      {"honey", 35, "g"},
		"a thousand grams of flour":                       {"plain_flour", 1000, "g"},
		"one thousand two hundred grams of flour":         {"plain_flour", 1200, "g"},
		"five hundred millilitres of milk":                {"milk_whole", 500, "ml"},
		"a cup and three quarters of flour":               {"plain_flour", 1.75, "cup"},
		"two cups and a half of flour":                    {"plain_flour", 2.5, "cup"},
		"three-quarter teaspoon of salt":                  {"salt_fine", 0.75, "tsp"},
		"three quarters of a cup of milk":                 {"milk_whole", 0.75, "cup"},
		"two thirds of cup of cornmeal":                   {"cornmeal_fine", 2. / 3, "cup"},
		"two bananas, about two hundred grams, and a cup": {"banana_mashed", 200, "g"},
	} {
		r := recipe.ReadText("so we take "+text+" and we stir it in well until it is even", food.Reference(), batter.DefaultKitchen())
		require.NotEmpty(t, r.Lines, text)
		l := r.Lines[0]
		require.NotNil(t, l.Ingredient, text)
		assert.Equal(t, want.id, l.Ingredient.ID, text)
		assert.InDelta(t, want.amount, l.Amount, 1e-6, text)
		assert.Equal(t, want.unit, string(l.Unit), text)
		assert.Len(t, l.At, 1+len(l.Again), "what is said once stands in one place: %s", text)
	}
}

func spoken(t *testing.T, text string) map[string]recipe.Line {
	t.Helper()
	out := map[string]recipe.Line{}
	for _, l := range recipe.ReadText(text, food.Reference(), batter.DefaultKitchen()).Lines {
		require.NotNil(t, l.Ingredient, l.Text)
		_, had := out[l.Ingredient.ID]
		require.False(t, had, "%s twice", l.Ingredient.ID)
		out[l.Ingredient.ID] = l
	}
	return out
}

// Said again is there once; another amount is asked; whites of the eggs are no more eggs.
func TestSaidAgain(t *testing.T) {
	r := spoken(t, "Two eggs, three hundred grams of flour, half a litre of milk. So first the flour, three hundred grams of flour, then the half a litre of milk, and whip the two whites.")
	assert.Len(t, r, 3)
	assert.Equal(t, 300.0, r["plain_flour"].Amount)
	two := recipe.ReadText("A quarter of a cup of sugar with two cups of flour, and then one cup of sugar, and two eggs as well.", food.Reference(), batter.DefaultKitchen()).Lines
	var sugars, asked int
	for _, l := range two {
		if l.Ingredient.ID == "granulated_sugar" {
			sugars++
			if l.Status != recipe.Read {
				asked++
				assert.Contains(t, l.Asks, "both, or instead?")
			}
		}
	}
	assert.Equal(t, []int{2, 2}, []int{sugars, asked}, "neither is taken for sure")
	more := recipe.ReadText("A teaspoon of salt in the flour, two cups of flour, and another teaspoon of salt in the water.", food.Reference(), batter.DefaultKitchen()).Lines
	salts := 0
	for _, l := range more {
		if l.Ingredient.ID == "salt_fine" {
			salts++
		}
	}
	assert.Equal(t, 2, salts, "another one is another one")
}

// A second pot, and what greases the pan, are not in the bowl; their allergens are.
func TestPotsAndPans(t *testing.T) {
	r := spoken(t, "For the caramel a hundred and fifty grams of sugar and a hundred grams of cream. And for the batter two hundred grams of flour and two eggs and three hundred grams of milk. A tablespoon of butter in the pan.")
	for id, place := range map[string]batter.Place{"granulated_sugar": batter.OnTop, "cream_heavy": batter.OnTop, "plain_flour": "", "egg_whole": "", "milk_whole": "", "butter_unsalted": batter.InPan} {
		assert.Equal(t, place, r[id].Place, id)
	}
}

func TestSharedBareAndUnlevel(t *testing.T) {
	r := spoken(t, "Two hundred grams of flour, half a teaspoon each of cinnamon, ginger and salt, twelve of baking powder, three hundred of milk and four of the eggs.")
	for _, id := range []string{"cinnamon", "ginger_ground", "salt_fine"} {
		assert.Equal(t, []any{0.5, "tsp"}, []any{r[id].Amount, string(r[id].Unit)}, id)
	}
	assert.Equal(t, []any{12.0, "g"}, []any{r["baking_powder"].Amount, string(r["baking_powder"].Unit)})
	assert.Equal(t, []any{300.0, "g"}, []any{r["milk_whole"].Amount, string(r["milk_whole"].Unit)})
	assert.Equal(t, []any{4.0, "each"}, []any{r["egg_whole"].Amount, string(r["egg_whole"].Unit)})
	heaped := spoken(t, "so a heaped teaspoon of baking powder and two cups of flour and one egg, whisk it")["baking_powder"]
	assert.NotEqual(t, recipe.Read, heaped.Status)
	require.NotNil(t, heaped.Suggests)
	assert.Equal(t, 2.0, heaped.Suggests.Amount)
	mine := spoken(t, "Mine is the oat drink, you know. So two hundred and forty millilitres of milk, a cup and a half of flour and an egg, whisk it well.")
	assert.Contains(t, mine, "oat_drink")
	assert.NotContains(t, mine, "milk_whole")
	both := spoken(t, "Mine is the oat drink, his no: my milk is the almond drink he says. So two hundred and forty millilitres of milk, a cup and a half of flour and an egg, whisk it well.")
	assert.NotEqual(t, recipe.Read, both["milk_whole"].Status, "two are named: it is asked, and milk is told")
	assert.Contains(t, both["milk_whole"].Asks, "Which one is it")
}

// Amounts that stand apart from their food, or are told in another way than lists have them.
func TestAmountsApartFromTheirFood(t *testing.T) {
	for text, want := range map[string]written{
		"Two cups of flour and an egg. A: Sugar? B: Two tablespoons. And whisk it all for a while.":                                 {"granulated_sugar", 2, "tbsp"},
		"two cups of flour one egg some walnuts a quarter cup chopped up small and raisins if you like and whisk it":                {"walnuts_chopped", 0.25, "cup"},
		"Six medium potatoes, so that's about a kilo, grated. Two eggs, four tablespoons of flour, and fry them.":                   {"potato_grated", 1, "kg"},
		"the recipe says a cup of sugar I put half a cup then two cups of flour and two eggs and stir it well":                      {"granulated_sugar", 0.5, "cup"},
		"Two hundred grams of flour. A level teaspoon of salt is too much, I use three grams. Two eggs, whisk.":                     {"salt_fine", 3, "g"},
		"Sugar, two hundred grams, the same of water, boil it. Then two hundred grams of flour and an egg, whisk.":                  {"water", 200, "g"},
		"Two hundred grams of flour, a hundred and eighty grams of eggs in their shells, two hundred of milk, whisk it.":            {"egg_whole", 158, "g"},
		"Four eggs came to two hundred and ten grams for me, out of the shell. Then two hundred and ten grams of flour, whisk it.":  {"egg_whole", 210, "g"},
		"Everything is in kilos today. Flour four point five. Buttermilk six litres, whisk it well and leave it standing.":          {"plain_flour", 4.5, "kg"},
		"Half a pound of flour, three eggs, a pint of milk, that's the imperial pint, a quarter teaspoon of salt, whisk it.":        {"milk_whole", 568.26125, "ml"},
		"One egg, fifty grams of flour: that's one person. We're six, so six eggs, three hundred grams of flour, whisk it all.":     {"plain_flour", 300, "g"},
		"so two cups of the mix it's from the bag and the bag says water use milk so a cup of milk and an egg and whisk":            {"pancake_mix_dry", 2, "cup"},
		"Flour one and a quarter cups and a tablespoon of baking powder, one egg, a cup of milk, and whisk it for a minute.":        {"baking_powder", 1, "tbsp"},
		"B: Right, flour? A: How much? B: Two hundred and fifty grams. Two eggs and three hundred grams of milk, and whisk it.":     {"plain_flour", 250, "g"},
		"Six eggs, that's three hundred and ten grams out of the shell. Two hundred grams of flour, and whisk it till it's smooth.": {"egg_whole", 310, "g"},
		"A cup of flour, two eggs, a cup of milk, and fifty grams of butter and fry them until they are golden brown, one by one.":  {"butter_unsalted", 50, "g"},
		"Two dozen eggs, three kilos of flour, four litres of milk, and whisk it in the big bucket till it is smooth.":              {"egg_whole", 24, "each"},
		"Flour, three cups. Sugar, one third of a cup. Eggs, three. Milk, two and three quarter cups. Whisk it well.":               {"granulated_sugar", 1. / 3, "cup"},
	} {
		l := spoken(t, text)[want.id]
		assert.InDelta(t, want.amount, l.Amount, 1e-9, text)
		assert.Equal(t, want.unit, string(l.Unit), text)
	}
}

// An allergen that stands in a row at the end of a talk is never silent.
func TestNoAllergenIsSilentAtTheEndOfATalk(t *testing.T) {
	for text, id := range map[string]string{
		"Two hundred grams of flour, half a liter of milk, two eggs, whisk it. The filling is banana, one for two crêpes, and hazelnut spread.": "hazelnut_spread",
		"one cup flour one cup milk and an egg whisk it then in the pan with oil and we eat them with yogurt, walnuts, and honey":               "yogurt_plain",
		"Spinach crêpes. You take three hundred milliliters of milk and two eggs, all in the mixer. Then a hundred and fifty grams of flour.":   "egg_whole",
	} {
		assert.Contains(t, spoken(t, text), id, text)
	}
}

// What cooks type is found first.
func TestTheShelfKnowsWhatCooksType(t *testing.T) {
	for typed, id := range map[string]string{
		"earl grey": "tea_leaves_earl_grey", "red food colour": "food_colour", "orange slices": "orange_slices", "whites": "egg_white", "lemon slice": "lemon_slices",
		"gluten free flour": "flour_blend_gluten_free", "passionfruit": "passion_fruit_pulp", "shrimp": "prawns_cooked", "cooking spray": "cooking_spray", "muscovado": "muscovado",
		"light cream": "cream_single", "tofu": "silken_tofu", "goat cheese": "goat_cheese_soft", "garlic clove": "garlic_grated", "instant yeast": "instant_yeast",
		"sourdough": "sourdough_starter", "kaki": "persimmon_diced", "cacao nibs": "cacao_nibs", "erythritol": "erythritol", "clementine": "mandarin_segments",
	} {
		found := recipe.Search(food.Reference(), typed, "")
		if assert.NotEmpty(t, found, typed) {
			assert.Equal(t, id, found[0].ID, typed)
		}
	}
}

// What was read falsely once: a stick that is no butter, heaped ones without a spoon, a kind that stands before its flour, and a row
// that begins "flour it is".
func TestNotTakenForSomethingElse(t *testing.T) {
	r := spoken(t, "So three hundred grams of flour, two eggs, four hundred of milk, all in grams. With it goes a stick of cinnamon, and a stick of butter in the batter.")
	assert.Equal(t, []any{1.0, "each"}, []any{r["cinnamon_stick"].Amount, string(r["cinnamon_stick"].Unit)})
	assert.Equal(t, []any{113.0, "g"}, []any{r["butter_unsalted"].Amount, string(r["butter_unsalted"].Unit)})

	heaped := spoken(t, "So the curd is four hundred grams, two eggs, and flour, four heaped ones, and a pinch of salt into it.")["plain_flour"]
	assert.NotEqual(t, recipe.Read, heaped.Status, "of what, nobody says")
	assert.NotEqual(t, 4.0, heaped.Amount)

	kind := spoken(t, "I take self raising flour for these, two hundred and fifty grams. Three hundred grams of milk, two eggs and that is all.")
	assert.Equal(t, 250.0, kind["self_raising_flour"].Amount)
	assert.NotContains(t, kind, "plain_flour")

	row := spoken(t, "so flour it is two hundred grams water three hundred and fifty grams salt four grams and one egg and you whisk it for a while")
	for id, g := range map[string]float64{"plain_flour": 200, "water": 350, "salt_fine": 4} {
		assert.Equal(t, g, row[id].Amount, id)
	}
}
