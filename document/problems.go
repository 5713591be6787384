package document

import (
	"errors"
	"fmt"
	"strings"

	"upbeatladle/core/batter"
)

// Problem is one thing in a document that cannot be worked with.
type Problem struct {
	Pointer string // JSON Pointer to the field
	Code    string
	Message string // a sentence a cook understands
}

// Problems is the error of everything that reads a document.
type Problems []Problem

// Error joins the sentences.
func (p Problems) Error() string {
	s := make([]string, len(p))
	for i, q := range p {
		s[i] = q.Message
		if q.Pointer != "" {
			s[i] = q.Pointer + ": " + q.Message
		}
	}
	return strings.Join(s, "\n")
}

// OrNil returns the problems as an error, or nil when there are none.
func (p Problems) OrNil() error {
	if len(p) == 0 {
		return nil
	}
	return p
}

// Add notes a problem.
func (p *Problems) Add(pointer, code, format string, args ...any) {
	*p = append(*p, Problem{pointer, code, fmt.Sprintf(format, args...)})
}

// pointed turns what the core says of a variation into where it stands in a document; in is where
// the variation itself stands there, in a wish. Other errors stay what they are.
func pointed(err error, in string) error {
	var core batter.Problems
	if !errors.As(err, &core) {
		return err
	}
	out := make(Problems, len(core))
	for i, p := range core {
		at := in + pointerTo(p.Field)
		if p.Field.Part == batter.OfWish { // beside the variation
			at = pointerTo(p.Field)
		}
		out[i] = Problem{at, p.Code, p.Message}
	}
	return out
}

// prepared is what a document calls the fields of a preparation.
var prepared = map[string]string{
	"prep.after_g": "measured/weight_after_g", "prep.weight_before_g": "measured/weight_before_g", "prep.have_g": "measured/weight_before_g", "prep.brix": "measured/brix",
}

// pointerTo is where a document has a field of a variation.
func pointerTo(f batter.Field) string {
	name := f.Name
	if field, ok := prepared[name]; ok {
		name = field
	} else if strings.HasPrefix(name, "prep.") {
		name = "prep"
	}
	at := ""
	switch f.Part {
	case batter.OfBase:
		at = "/base"
	case batter.OfLine:
		at = fmt.Sprintf("/base/lines/%d", f.Index)
	case batter.OfAddition:
		at = fmt.Sprintf("/additions/%d", f.Index)
	case batter.OfOwnLine:
		at = fmt.Sprintf("/base/own_lines/%d", f.Index)
	case batter.OfReference:
		at = fmt.Sprintf("/reference/additions/%d", f.Index)
	case batter.OfTargets:
		at = "/offset/targets"
	case batter.OfPortion:
		at, name = "/portion", map[string]string{"volume": "volume_ml", "spread": "spread/to_mm", "one_cake": "one_cake"}[name]
	}
	if name == "" {
		return at
	}
	return at + "/" + name
}
