package batter_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// A variation is called by what goes into it until somebody names it.
func TestAVariationNamesItself(t *testing.T) {
	table := food.Reference()
	named := func(ids ...string) string {
		v := batter.Variation{Base: batter.Base{Name: "Harbour pancake"}}
		for _, id := range ids {
			in := table.ByID(id)
			require.NotNil(t, in, id)
			v.Additions = append(v.Additions, batter.Addition{Line: batter.Line{Ingredient: in}})
		}
		return v.ProposedName()
	}
	for want, ids := range map[string][]string{
		"Harbour pancake":                    nil,
		"Carrot":                             {"carrot_grated"},
		"Carrot & walnuts":                   {"carrot_grated", "walnuts_chopped"},
		"Carrot, cardamom & walnuts":         {"carrot_grated", "cardamom", "walnuts_chopped", "carrot_grated"},
		"Carrot, cardamom, walnuts & 1 more": {"carrot_grated", "cardamom", "walnuts_chopped", "raisins"},
	} {
		assert.Equal(t, want, named(ids...))
	}
}
