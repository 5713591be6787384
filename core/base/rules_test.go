package base_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"upbeatladle/core/base"
	"upbeatladle/internal/rules"
)

// Values of practice, one row each.
func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"figure": func(t testing.TB, g rules.Given) string {
			v, ok := base.Figures[g.At(0)]
			require.True(t, ok, "no figure %q", g.At(0))
			return rules.N(v)
		},
	})
}
