package document_test

import (
	"bytes"
	"errors"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/document"
)

// What was done between two states is told as a cook would say it.
func TestWhatChangedBetweenTwoStates(t *testing.T) {
	was := `{"name":"Morning","form":"pancake","base":{"name":"Plain","lines":[{"id":"b1","ingredient":"plain_flour","amount":500,"unit":"g"},{"id":"b2","ingredient":"milk_whole","amount":780,"unit":"g"}]},
		"additions":[{"id":"a1","ingredient":"walnuts_chopped","amount":140,"unit":"g","stage":"fold_in"}]}`
	for _, c := range []struct{ change, to, says string }{
		{`"amount":780`, `"amount":595`, "whole milk 780 g → 595 g"},
		{`"additions":[{"id":"a1","ingredient":"walnuts_chopped","amount":140,"unit":"g","stage":"fold_in"}]`, `"additions":[]`, "walnuts out"},
		{`"additions":[`, `"additions":[{"id":"a2","ingredient":"cardamom","amount":1,"unit":"tsp","fill":"heaped"},`, "cardamom in 1 heaped tsp"},
		{`"ingredient":"milk_whole"`, `"ingredient":"oat_drink"`, "oat drink 780 g for whole milk"},
		{`"amount":780,"unit":"g"`, `"amount":780,"unit":"g","locked":true`, "whole milk pinned"},
		{`"stage":"fold_in"`, `"stage":"on_portion"`, "walnuts otherwise"},
		{`"name":"Morning"`, `"name":"Evening"`, "called “Evening”"},
		{`"form":"pancake"`, `"form":"waffle"`, "now waffles"},
		{`"form":"pancake"`, `"form":"pancake","portion":{"volume_ml":80}`, "another portion"},
		{`"form":"pancake"`, `"form":"pancake","offset":{"strategy":"dry_addition"}`, "offset otherwise"},
		{`"form":"pancake"`, `"form":"pancake","cook":{"colour":"pale"}`, "cooked otherwise"},
		{`"name":"Plain"`, `"name":"Plain","school":{"lumps":"smooth"}`, "mixed otherwise"},
		{`"form":"pancake"`, `"form":"pancake","reference":{"kind":"plain"}`, "held to another bowl"},
		{`"form":"pancake"`, `"form":"pancake","parts":[{"kind":"on","text":"syrup"}]`, "something else in the pan or at the table"},
		{`"form"`, ` "form"`, "a note, or nothing"},
	} {
		is := bytes.Replace([]byte(was), []byte(c.change), []byte(c.to), 1)
		require.NotEqual(t, was, string(is), c.says)
		assert.Equal(t, []string{c.says}, document.Changed([]byte(was), is, here().Table))
	}
	assert.Equal(t, []string{"written by another program"}, document.Changed([]byte(was), []byte("nothing"), here().Table))
}

// Nothing is told of what is the same, something of whatever is written otherwise, whatever the document.
func TestWhatChangedOverRandomDocuments(t *testing.T) {
	rnd := rand.New(rand.NewPCG(24, 6))
	table := here().Table
	for range 300 {
		a, errA := randomVariation(rnd).Encode()
		b, errB := randomVariation(rnd).Encode()
		require.NoError(t, errors.Join(errA, errB))
		assert.Equal(t, []string{"a note, or nothing"}, document.Changed(a, a, table), string(a))
		for _, says := range document.Changed(a, b, table) {
			assert.NotEmpty(t, says)
			assert.NotContains(t, says, "%!")
		}
	}
}
