package recipe_test

import (
	"slices"
	"strings"
	"testing"
	"unicode"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

// What a cook types, and what comes first.
// A name that somebody gave is met by whole words, beginnings, inside and with a slip, every word of what is typed.
func TestANameIsMet(t *testing.T) {
	name := "Carrot, cardamom & walnut crêpes"
	for text, want := range map[string]bool{
		"": true, "carrot": true, "crepe": true, "CRÊPES": true, "walnuts carrot": true, "card": true, "wallnut": true, "arrot": true,
		"carrot beetroot": false, "zz": false, "with carrot": true,
	} {
		_, ok := recipe.Meets(name, text)
		assert.Equal(t, want, ok, text)
	}
	whole, _ := recipe.Meets(name, "carrot")
	start, _ := recipe.Meets(name, "carr")
	slip, _ := recipe.Meets(name, "carot")
	assert.Less(t, whole, start)
	assert.Less(t, start, slip)
}

func TestSearch(t *testing.T) {
	table := food.Reference()
	for typed, want := range map[string]string{
		"beet": "beetroot_cooked", "courgette": "courgette_grated", "squeezed cour": "courgette_squeezed", "water": "water", "WHOLE milk": "milk_whole",
		"zucchini": "courgette_grated", "zuchini": "courgette_grated", "all purpose flour": "plain_flour", "AP flour": "plain_flour", "confectioners sugar": "icing_sugar", "cornstarch": "corn_starch",
		"bicarb": "baking_soda", "blueberries": "blueberry_fresh", "frozen blueberries": "blueberry_frozen", "strawberies": "strawberry_diced", "banana": "banana_mashed",
		"200 g beetroot": "beetroot_cooked", "1 1/2 cups of milk": "milk_whole", "2 eggs": "egg_whole", "½ tsp cinnamon": "cinnamon", "3 tbsp peanut butter": "peanut_butter",
		"crème fraîche": "creme_fraiche", "creme fraiche": "creme_fraiche", "skyr": "quark", "dulce de leche": "caramel_spread", "tahini": "sesame_paste", "sultanas": "raisins",
		"choc": "chocolate_chips", "cinamon": "cinnamon", "vanila": "vanilla_extract", "parmesean": "parmesan_grated", "moz": "mozzarella_grated", "yoghurt": "yogurt_plain",
		"pineapple": "pineapple_diced", "scallions": "spring_onion", "large eggs": "egg_whole", "fresh blueberries": "blueberry_fresh", "rasberry puree": "raspberry_puree",
	} {
		hits := recipe.Search(table, typed, "")
		if assert.NotEmpty(t, hits, typed) {
			assert.Equal(t, want, hits[0].ID, typed)
		}
	}
	for _, typed := range []string{"xyzzy", "goat cheese moon", "200 g"} {
		if hits := recipe.Search(table, typed, ""); len(hits) != len(table.All()) {
			assert.Empty(t, hits, typed)
		}
	}
	assert.Len(t, recipe.Search(table, "", ""), len(table.All()))
	for _, in := range recipe.Search(table, "berr", food.GroupFrozenPiece) {
		assert.Equal(t, food.GroupFrozenPiece, in.Group)
	}
}

// A tub is found by its own name, and by what it stands for.
func TestTubsAreFoundByTheirName(t *testing.T) {
	tub := *food.Reference().ByID("plum_puree")
	tub.Own = &food.Own{Name: "Harbour plums, Monday", Table: food.Reference().ByID("plum_puree")}
	table := food.Reference().With([]*food.Ingredient{&tub})
	for _, typed := range []string{"harbour", "monday plums", "plum puree"} {
		hits := recipe.Search(table, typed, "")
		require.NotEmpty(t, hits, typed)
		assert.Same(t, &tub, hits[0], typed)
	}
}

// A letter lost in the middle of a long word still finds what has it.
func TestSlipsAreForgiven(t *testing.T) {
	table := food.Reference()
	rapid.Check(t, func(t *rapid.T) {
		in := rapid.SampledFrom(table.All()).Draw(t, "in")
		words := strings.FieldsFunc(in.Label(), func(r rune) bool { return !unicode.IsLetter(r) })
		word := []rune(rapid.SampledFrom(words).Draw(t, "word"))
		if len(word) < 6 || string(word) == "colour" { // is spelled in two ways
			return
		}
		at := rapid.IntRange(2, len(word)-3).Draw(t, "at")
		typed := string(word[:at]) + string(word[at+1:])
		hits := recipe.Search(table, typed, "")
		assert.True(t, slices.ContainsFunc(hits, func(h *food.Ingredient) bool { return h.Label() == in.Label() }), "%q for %q", typed, in.Label())
	})
}
