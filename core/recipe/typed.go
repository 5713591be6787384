package recipe

import (
	"errors"
	"fmt"
	"strings"

	"upbeatladle/core/measure"
)

// TwoReadings is the error of an amount that can be read in two ways: "1.250 g".
type TwoReadings struct {
	Small, Large float64
	Unit         measure.Unit // "" without one
}

func (e *TwoReadings) Error() string {
	return fmt.Sprintf("%g or %g", e.Large, e.Small)
}

// ReadAmount reads an amount as a cook types it into a field, with its unit when there is one: "200",
// "1½", "200g", "1 1/2 cups", "2 Tbsp", "1 lb 2 oz", "2 c. à s.". The unit is empty without one. The error is
// *TwoReadings for what may be thousands, measure.ErrAmount for anything else.
func ReadAmount(text string) (float64, measure.Unit, error) {
	text = strings.TrimSpace(text)
	if len(text) > maxTyped {
		return 0, "", measure.ErrAmount
	}
	if n, small, large := inThrees(text); n > 0 && n == len(text) {
		if large > 0 {
			return 0, "", &TwoReadings{Small: small, Large: large}
		}
		return small, "", nil
	}
	if v, err := measure.ParseAmount(text); err == nil {
		return v, "", nil
	}
	v, unit, err := oneAmount(tokens(text))
	for _, l := range languages {
		if !errors.Is(err, measure.ErrAmount) {
			break
		}
		r := reader{out: Reading{Language: l}}
		v, unit, err = oneAmount(r.tokens(text))
	}
	return v, unit, err
}

// oneAmount reads the tokens of one amount and nothing else.
func oneAmount(toks []token) (float64, measure.Unit, error) {
	found := addUp(toks, quantities(toks))
	if len(found) != 1 {
		return 0, "", measure.ErrAmount
	}
	q := found[0]
	whole := q.start == 0 && q.end == len(toks) || q.end == len(toks)-1 && toks[q.end].text == "."
	container := q.word == "can" || q.word == "container"
	switch {
	case !whole || q.unit == "" || container || q.vague != "" || q.high > 0 || q.guessed || q.size > 0:
		return 0, "", measure.ErrAmount
	case q.other > 0:
		return 0, "", &TwoReadings{q.amount, q.other, q.unit}
	}
	return q.amount, q.unit, nil
}

const maxTyped = 40 // letters
