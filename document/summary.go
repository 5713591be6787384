package document

import (
	"fmt"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
)

// Summary is a document that can be used, in its canonical encoding, with what a list
// shows of it.
type Summary struct {
	Name, Form, Verdict string
	Body                []byte
}

// SummariseVariation reads a variation document and works it out. The error is
// batter.Problems when it cannot be worked with.
func SummariseVariation(data []byte, table *food.Table) (Summary, error) {
	v, err := DecodeVariation(data)
	if err != nil {
		return Summary{}, err
	}
	w, err := v.Worksheet(table)
	if err != nil {
		return Summary{}, err
	}
	body, err := v.Encode()
	return Summary{v.Name, v.Form, lead(w), body}, err
}

// SummariseBase does the same for a base document, worked out plain.
func SummariseBase(data []byte, table *food.Table) (Summary, error) {
	b, err := DecodeBase(data)
	if err != nil {
		return Summary{}, err
	}
	w, err := b.Worksheet(table)
	if err != nil {
		return Summary{}, err
	}
	body, err := b.Encode()
	verdict := fmt.Sprintf("%.2f ml/g", w.Thickness.Base)
	if w.Batter.Class != "" {
		verdict = string(w.Batter.Class) + ", " + verdict
	}
	return Summary{b.Name, b.Form, verdict, body}, err
}

// lead is the first clause of the verdict line.
func lead(w worksheet.Worksheet) string {
	if len(w.Verdict) == 0 {
		return ""
	}
	return w.Verdict[0].Lead
}
