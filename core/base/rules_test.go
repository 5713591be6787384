package base_test

import (
	"testing"

	"upbeatladle/core/base"
	"upbeatladle/internal/rules"
)

// Values of practice, one row each.
func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(base.Figures),
	})
}
