package document

import (
	"cmp"
	"errors"
	"strconv"
	"strings"

	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
)

// AmountWish is an amount as a cook types it into a field, and what the field counts in.
type AmountWish struct {
	Text       *string      `json:"text"`
	In         measure.Unit `json:"in,omitzero"`         // of the field; empty takes any unit
	Ingredient string       `json:"ingredient,omitzero"` // what is measured, so that cups of it can be weighed
}

// Amount is what was understood.
type Amount struct {
	Amount float64      `json:"amount"`
	Unit   measure.Unit `json:"unit,omitzero"` // when one was typed, or the field has one
}

// ReadAmount reads an amount; one typed in another unit than the field's is turned into it with the kitchen's
// cups and spoons. The error is Problems.
func ReadAmount(w AmountWish, in Setting) (Amount, error) {
	var p Problems
	if w.Text == nil {
		p.Add("/text", "missing", "Say the amount as text.")
		return Amount{}, p
	}
	v, unit, err := recipe.ReadAmount(*w.Text)
	var two *recipe.TwoReadings
	if errors.As(err, &two) {
		u := cmp.Or(two.Unit, w.In)
		if u == "" || u == measure.Gram || u == measure.Ml { // of a kilogram, a litre or a cup it is a decimal
			p.Add("/text", "two_readings", "Is that %s or %s? Type the one that you mean, without a mark between thousands.", spokenAs(two.Large, u), spokenAs(two.Small, u))
			return Amount{}, p
		}
		v, unit, err = two.Small, two.Unit, nil
	}
	if err != nil {
		p.Add("/text", "not_an_amount", "That is not an amount. Type it like 200, 1.5, 1½, 200 g or 1 1/2 cups.")
		return Amount{}, p
	}
	if w.In == "" || unit == "" || unit == w.In {
		if unit == "" {
			unit = w.In
		}
		return Amount{v, unit}, nil
	}
	st := in.Kitchen.Domain().Measures
	if from, to := st.Volume(unit), st.Volume(w.In); from > 0 && to > 0 {
		return Amount{v * from / to, w.In}, nil
	}
	var of measure.Subject
	if known := in.Table.ByID(w.Ingredient); known != nil {
		of = known.Subject()
		of.Method = measure.FlourMethod(in.Kitchen.FlourMethod)
	}
	g, err := st.ToGrams(v, unit, of)
	if err == nil {
		v, err = st.FromGrams(g, w.In, of)
	}
	if err != nil {
		p.Add("/text", "unit", "This field counts in %s, and how much that is in %s is not known here. Give it in %s.", w.In, unitSaid(unit), w.In)
		return Amount{}, p
	}
	return Amount{v, w.In}, nil
}

// spokenAs is a figure with its unit, where there is one.
func spokenAs(v float64, u measure.Unit) string {
	return strings.TrimSpace(strconv.FormatFloat(v, 'f', -1, 64) + " " + string(u))
}

// unitSaid is a unit in the middle of a sentence.
func unitSaid(u measure.Unit) string {
	switch u {
	case measure.Each:
		return "pieces"
	case measure.Cup, measure.Pinch, measure.Can, measure.Mug, measure.Glass, measure.Handful:
		return string(u) + "s"
	}
	return string(u)
}
