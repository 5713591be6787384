package recipe_test

import (
	"testing"

	"upbeatladle/core/recipe"
	"upbeatladle/internal/rules"
)

// Values of practice, one row each.
func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(recipe.Figures),
	})
}
