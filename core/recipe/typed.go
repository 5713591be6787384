package recipe

import (
	"strings"

	"upbeatladle/core/measure"
)

// ReadAmount reads an amount as a cook types it into a field, with its unit when there is one: "200",
// "1½", "200g", "1 1/2 cups", "2 Tbsp". The unit is empty without one. The error is
// measure.ErrAmount for anything else.
func ReadAmount(text string) (float64, measure.Unit, error) {
	if v, err := measure.ParseAmount(text); err == nil {
		return v, "", nil
	}
	if len(text) > maxTyped {
		return 0, "", measure.ErrAmount
	}
	toks := tokens(strings.TrimSpace(text))
	found := quantities(toks)
	if len(found) != 1 {
		return 0, "", measure.ErrAmount
	}
	q := found[0]
	whole := q.start == 0 && q.end == len(toks) || q.end == len(toks)-1 && toks[q.end].text == "."
	if !whole || q.unit == "" || q.word != "" || q.vague != "" || q.high > 0 || q.guessed || q.size > 0 {
		return 0, "", measure.ErrAmount
	}
	return q.amount, q.unit, nil
}

const maxTyped = 40 // letters
