package recipe_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"upbeatladle/core/recipe"
)

// spokenAs is a sentence that a shape is written for: the first of each choice, with what may be missing or without.
func spokenAs(shape string, whole bool) string {
	kinds := map[string]string{"~": "nice", "POT": "caramel", "BATTER": "batter", "FOOD": "walnuts", "RELATIVE": "sister", "SOON": "two eggs", "FAT": "oil",
		"START": "", "END": "", "NOTOF": "", "NOFOOD": "", "COMPARED": "", "CLOSE": "", "FRUIT": "cherries", "COMMA": ","}
	var out []string
	for _, part := range strings.Fields(shape) {
		part, optional := strings.CutPrefix(part, "?")
		first, _, _ := strings.Cut(part, "|")
		if optional && !whole {
			continue
		}
		if said, ok := kinds[first]; ok {
			first = said
		}
		out = append(out, first)
	}
	return strings.Join(strings.Fields(strings.Join(out, " ")), " ")
}

// Every row of the cues is heard in the sentence that it is written for, and no other row is heard before it.
func TestEveryCueIsHeard(t *testing.T) {
	for _, shape := range recipe.CueRows() {
		t.Run(shape, func(t *testing.T) {
			assert.Contains(t, append(recipe.CuesIn(spokenAs(shape, false)), recipe.CuesIn(spokenAs(shape, true))...), shape, "%q; %q", spokenAs(shape, false), spokenAs(shape, true))
		})
	}
}
