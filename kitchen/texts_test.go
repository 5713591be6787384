package kitchen_test

import (
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
	"upbeatladle/store"
)

const pastedRecipe = "Quay pancakes\n\n200 g flour\n300 ml milk\n2 eggs"

// A text is kept once, however often and by how many it is kept; it goes along with what was read from
// it, and only with that.
func TestATextIsKeptOnceAndGoesAlong(t *testing.T) {
	s := open(t, false)
	ids := make([]string, 8)
	var all sync.WaitGroup
	for i := range ids {
		all.Go(func() { ids[i], _ = s.KeepText(t.Context(), pastedRecipe) })
	}
	all.Wait()
	for _, id := range ids {
		assert.Equal(t, ids[0], id)
	}
	kept, err := s.Text(t.Context(), ids[0])
	require.NoError(t, err)
	assert.Equal(t, pastedRecipe, kept.Text)
	other, err := s.KeepText(t.Context(), "nobody's\n\n100 g flour")
	require.NoError(t, err)

	body := `{"format":"upbeat-ladle/base","version":2,"name":"Quay pancakes","form":"pancake","source_text":"` + ids[0] +
		`","lines":[{"ingredient":"plain_flour","amount":200,"unit":"g"},{"ingredient":"milk_whole","amount":300,"unit":"g"}]}`
	d := s.create(t, store.Base, []byte(body))
	again, err := document.DecodeBase(d.Body)
	require.NoError(t, err)
	assert.Equal(t, 2, again.Version, "an older program is told that this is new")

	a := archiveOf(t, s)
	require.Len(t, a.Texts, 1)
	fresh := open(t, false)
	assert.Equal(t, map[string]int{"added": 2}, fresh.imports(t, a))
	there, err := fresh.Text(t.Context(), ids[0])
	require.NoError(t, err)
	assert.Equal(t, kept, there)
	_, err = fresh.Text(t.Context(), other)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.Equal(t, map[string]int{"same": 2}, fresh.imports(t, a))
	assert.Equal(t, a, archiveOf(t, fresh))

	for _, bad := range []string{"", " \n ", "PK\x03\x04\x14", strings.Repeat("a", 400_000)} {
		_, err := s.KeepText(t.Context(), bad)
		var p document.Problems
		assert.ErrorAs(t, err, &p)
	}
}
