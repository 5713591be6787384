package recipe_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

// What a cook claims while speaking, and what is no claim.
func TestClaims(t *testing.T) {
	for text, want := range map[string][3]float64{ // count, portion in its unit, minutes
		"ten to twelve come out":                                    {11, 0, 0},
		"about twelve come out of it":                               {12, 0, 0},
		"eight or nine come out":                                    {8.5, 0, 0},
		"it makes about fifteen with a third of a cup each":         {15, 1. / 3, 0},
		"we get about fifty of them":                                {50, 0, 0},
		"mine makes ten":                                            {10, 0, 0},
		"Twelve of them, a scoop sixteen":                           {12, 0.25, 0},
		"a quarter cup of batter for each one":                      {0, 0.25, 0},
		"60 ml of batter at a time":                                 {0, 60, 0},
		"they take about two minutes a side":                        {0, 0, 2},
		"two minutes on the first side and then one":                {0, 0, 2},
		"I turn it after three minutes or so, then two more":        {0, 0, 3},
		"it takes less than a minute per face":                      {0, 0, 1},
		"it makes the best breakfast":                               {0, 0, 0},
		"it makes 3 cups of batter and then you rest it a while":    {0, 0, 0},
		"it makes ten minutes of work and no more than that at all": {0, 0, 0},
	} {
		s := recipe.ReadText("So two hundred grams of flour, two eggs, three hundred millilitres of milk. "+text+". And that is that, you see.", food.Reference(), batter.DefaultKitchen()).Said
		assert.InDeltaSlice(t, want[:], []float64{s.Count, s.Portion, s.Minutes}, 1e-9, text)
	}
}

// A measure of an ingredient is no portion, and a long sentence is told by what stands around the claim.
func TestAClaimInALongSentence(t *testing.T) {
	s := recipe.ReadText("so you take a quarter cup of oil and two cups of flour and three teaspoons of baking powder and a pinch of salt and two eggs and a cup and a half of milk and you whisk it until it is smooth and let it stand for a while and then it makes about eight of these and everybody is happy and goes home again", food.Reference(), batter.DefaultKitchen()).Said
	assert.Equal(t, 8.0, s.Count)
	assert.Zero(t, s.Portion)
	assert.Contains(t, s.Text, "makes about eight")
	assert.Less(t, len(s.Text), 160)
}

// Whether lumps stay is turned round by what is said with them.
func TestLumps(t *testing.T) {
	for text, want := range map[string]string{
		"no lumps should be left": "whisk smooth", "whisk every lump away": "whisk smooth", "beat it until smooth": "whisk smooth", "till there are no more lumps": "whisk smooth",
		"some lumps may stay": "stop while lumpy", "leave it lumpy": "stop while lumpy", "a few lumps are fine": "stop while lumpy", "don't worry about the lumps": "stop while lumpy",
		"you want lumps": "stop while lumpy", "don't whisk it smooth": "stop while lumpy", "stop while it is lumpy": "stop while lumpy",
	} {
		r := recipe.ReadText("So two hundred grams of flour, two eggs, three hundred millilitres of milk, and mix. "+text+" and go on.", food.Reference(), batter.DefaultKitchen())
		assert.Equal(t, want, r.Compose(batter.DefaultKitchen()).Base.School.Lumps, text)
	}
}
