package recipe_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
)

// listed reads lines as a list of ingredients.
func listed(lines ...string) recipe.Reading {
	return recipe.ReadText("Ingredients\n"+strings.Join(lines, "\n")+"\nMethod\nMix it all together in a bowl.", food.Reference(), batter.DefaultKitchen())
}

func only(t require.TestingT, line string) recipe.Line {
	r := listed(line)
	require.Len(t, r.Lines, 1, line)
	return r.Lines[0]
}

// Every ingredient of the table is read back by its own name.
func TestEveryIngredientIsReadByItsName(t *testing.T) {
	wrong := 0
	for _, in := range food.Reference().All() {
		r := listed(fmt.Sprintf("120 g %s", in.Name))
		if len(r.Lines) != 1 || r.Lines[0].Ingredient != in || r.Lines[0].Amount != 120 {
			wrong++
			t.Logf("%s: %v", in.Name, ids(r))
		}
	}
	assert.Zero(t, wrong)
}

// Numbers are read the same however they are written.
func TestWaysToWriteANumber(t *testing.T) {
	for want, ways := range map[float64][]string{
		1.5:  {"1.5", "1,5", "1 1/2", "1½", "1 ½", "one and a half", "1 and 1/2"},
		0.5:  {"1/2", "½", "0.5", "half", "half a", "a half"},
		0.75: {"3/4", "¾", "three quarters", "three quarters of a"},
		2:    {"2", "two", "a couple of"},
		12:   {"12", "twelve", "a dozen"},
		2.5:  {"2-3", "2 – 3", "2 to 3", "two to three", "2½"},
	} {
		for _, way := range ways {
			l := only(t, way+" cup plain flour")
			assert.InDelta(t, want, l.Amount, 1e-9, way)
			assert.Equal(t, measure.Unit("cup"), l.Unit, way)
		}
	}
}

// Written out and read again, an amount is the same amount.
func TestAmountsComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := math.Round(rapid.Float64Range(0.1, 5000).Draw(t, "amount")*10) / 10
		unit := rapid.SampledFrom([]string{"g", "kg", "ml", "l", "tsp", "tbsp", "cup", "oz", "lb"}).Draw(t, "unit")
		gap := rapid.SampledFrom([]string{"", " "}).Draw(t, "gap")
		l := only(t, fmt.Sprintf("%g%s%s plain flour", v, gap, unit))
		assert.InDelta(t, v, l.Amount, 1e-9)
		assert.Equal(t, measure.Unit(unit), l.Unit)
		assert.Equal(t, "plain_flour", l.Ingredient.ID)
	})
}

func TestRangesAreTheirMiddleWithTheRangeInTheNote(t *testing.T) {
	l := only(t, "200-250 ml milk")
	assert.Equal(t, 225.0, l.Amount)
	assert.Contains(t, l.Note, "200 to 250")
	assert.Equal(t, recipe.Read, l.Status)
}

func TestCansAndPackets(t *testing.T) {
	l := only(t, "a 15 oz can of pumpkin")
	assert.Equal(t, 1.0, l.Amount)
	assert.Equal(t, measure.Unit("can"), l.Unit)
	assert.InDelta(t, 425.2, l.SizeG, 0.1, "15 oz avoirdupois: NIST SP 811")
	l = only(t, "2 x 400 ml tins coconut milk")
	assert.Equal(t, 2.0, l.Amount)
	assert.Equal(t, 400.0, l.SizeML)
	l = only(t, "1 can coconut milk")
	assert.Equal(t, recipe.Unsure, l.Status)
	assert.Contains(t, l.Asks, "How much is in the can")
	l = only(t, "2 sachets (7 g each) dried yeast")
	assert.InDelta(t, 14, l.Amount, 1e-9)
	l = only(t, "2 x 250 g ricotta")
	assert.InDelta(t, 500, l.Amount, 1e-9)
	l = only(t, "1 tub natural yogurt")
	assert.Equal(t, recipe.Unsure, l.Status)
}

func TestWhatDoesNotAgreeIsAsked(t *testing.T) {
	l := only(t, "200 g (1 lb) plain flour")
	assert.Equal(t, recipe.Unsure, l.Status)
	assert.Contains(t, l.Asks, "do not agree")
	l = only(t, "200 g (7 oz) plain flour")
	assert.Equal(t, recipe.Read, l.Status, "the same, rounded")
	l = only(t, "2 cups (240 g) plain flour")
	assert.Equal(t, 240.0, l.Amount)
	assert.Contains(t, l.Note, "2 cup")
	l = only(t, "3 slices of plain flour")
	assert.Equal(t, recipe.Unsure, l.Status, "flour does not come in pieces")
	assert.NotEmpty(t, l.Asks)
}

func TestVagueAmountsAreAskedAndRulesAreStated(t *testing.T) {
	for _, line := range []string{"a splash of milk", "some sugar", "a drizzle of honey", "salt to taste", "milk as needed"} {
		l := only(t, line)
		assert.Equal(t, recipe.Unsure, l.Status, line)
		assert.Zero(t, l.Amount, line)
		assert.NotEmpty(t, l.Asks, line)
	}
	for _, line := range []string{"a handful of raisins", "2 mugs plain flour", "1 glass of milk"} {
		l := only(t, line)
		assert.Equal(t, recipe.Unsure, l.Status, line)
		assert.Contains(t, l.Asks, "Weigh it once in the Kitchen", line)
	}
	assert.Equal(t, 30.0, only(t, "a handful (30 g) of raisins").Amount)
	l := only(t, "a stick of butter")
	assert.Equal(t, 113.0, l.Amount)
	assert.Contains(t, l.Note, "1 stick")
	l = only(t, "2 knobs of butter")
	assert.Equal(t, 20.0, l.Amount)
	l = only(t, "a dash of cinnamon")
	assert.Equal(t, 0.125, l.Amount)
	assert.Equal(t, measure.Unit("tsp"), l.Unit)
}

// What the table does not have is not taken for something near it.
func TestFoodsThatTheTableDoesNotHave(t *testing.T) {
	for _, text := range []string{"4 oz blue cheese, softened", "2 tbsp carob powder", "1 tbsp tamarind paste", "1 cup amaranth flour", "50 g sheep cheese"} {
		assert.Equal(t, recipe.NotUnderstood, only(t, text).Status, text)
	}
}

func TestAmountsThatAddUp(t *testing.T) {
	l := only(t, "1/2 cup plus 1 tbsp milk")
	assert.InDelta(t, 0.5625, l.Amount, 1e-9, "16 tablespoons to a cup: NIST SP 811")
	assert.Equal(t, "milk_whole", l.Ingredient.ID)
	assert.Equal(t, 250.0, only(t, "200 g + 50 g flour").Amount)
	r := listed("2 eggs plus 1 egg yolk")
	assert.Equal(t, []string{"egg_whole", "egg_yolk"}, ids(r))
}

func TestTalkBeforeTheAmount(t *testing.T) {
	r := recipe.ReadText("ok so for the crepes i use about 250 grams of flour, half a litre of milk, 3 eggs and a pinch of salt. whisk it smooth and leave it in the fridge for an hour", food.Reference(), batter.DefaultKitchen())
	assert.Equal(t, []string{"plain_flour", "milk_whole", "egg_whole", "salt_fine"}, ids(r))
	c := r.Compose(batter.DefaultKitchen())
	assert.Equal(t, batter.Crepe, c.Form)
	assert.Equal(t, 60.0, c.Base.School.RestMin)
	assert.Equal(t, "whisk smooth", c.Base.School.Lumps)
}

func TestSlipsOfTheKeys(t *testing.T) {
	for text, want := range map[string]string{
		"2 tsp bakng powder": "baking_powder", "1 cup buttermlik": "buttermilk_cultured", "50 g buter": "butter_unsalted", "1 tsp cinamon": "cinnamon", "100 g blueberrys": "blueberry_fresh",
	} {
		l := only(t, text)
		require.NotNil(t, l.Ingredient, text)
		assert.Equal(t, want, l.Ingredient.ID, text)
	}
}

func TestThePanAndTheTableAreNotTheBatter(t *testing.T) {
	r := listed("200 g flour", "300 ml milk", "2 eggs", "oil for frying", "maple syrup, to serve", "50 g butter, plus extra for the pan")
	c := r.Compose(batter.DefaultKitchen())
	var base []string
	for _, l := range c.Base.Lines {
		base = append(base, l.Ingredient.ID)
	}
	assert.Equal(t, []string{"plain_flour", "milk_whole", "egg_whole", "butter_unsalted"}, base)
	assert.Equal(t, batter.InPan, r.Lines[3].Place)
	assert.Equal(t, batter.Serving, r.Lines[4].Place)
	assert.Empty(t, c.Additions)
	assert.Equal(t, []int{0, 1, 2, 5}, c.LineOf)
}

func TestHowFlourWasMeasured(t *testing.T) {
	assert.Equal(t, measure.Scooped, only(t, "2 cups flour, scooped and levelled").Method)
	assert.Equal(t, measure.Sifted, only(t, "2 cups sifted flour").Method)
	assert.Empty(t, only(t, "2 cups flour, sifted").Method, "measured first, sifted then")
}

func TestStepsAndSchool(t *testing.T) {
	for steps, want := range map[string]batter.School{
		"Whisk until smooth. Rest for 1 hour.":                                  {Lumps: "whisk smooth", RestMin: 60},
		"Stir until just combined and let it stand 15-20 minutes.":              {Lumps: "stop while lumpy", RestMin: 17.5},
		"Chill overnight, then beat the whites to stiff peaks and fold them in": {Eggs: "whites whipped, folded in last", RestMin: 480},
	} {
		r := recipe.ReadText("Plain pancakes\n\n200 g flour\n300 ml milk\n2 eggs\n\nMethod\n"+steps, food.Reference(), batter.DefaultKitchen())
		assert.Equal(t, want, r.Compose(batter.DefaultKitchen()).Base.School, steps)
		assert.NotEmpty(t, r.Steps)
	}
	r := recipe.ReadText("200 g flour\n300 ml milk\n2 eggs", food.Reference(), batter.DefaultKitchen())
	assert.True(t, math.IsNaN(r.Compose(batter.DefaultKitchen()).Base.School.RestMin), "nothing said, nothing guessed")
}

// A table with a tub in it is read with the tub's name too.
func TestOwnIngredientsAreReadByTheirNames(t *testing.T) {
	own := *food.Reference().ByID("jam_fruit")
	own.ID, own.Name, own.Own = "quay_jam", "Quayside bramble jelly", &food.Own{Name: "Quayside bramble jelly"}
	table := food.Reference().With([]*food.Ingredient{&own})
	r := recipe.ReadText("Ingredients\n2 tbsp bramble jelly\n100 g flour\nMethod\nMix.", table, batter.DefaultKitchen())
	assert.Equal(t, "quay_jam", r.Lines[0].Ingredient.ID)
}
