package worksheet

import "math"

// Change says what happened to a line between two variations.
type Change string

// The changes.
const (
	Same    Change = "same"
	MoreOf  Change = "more"
	LessOf  Change = "less"
	NewLine Change = "new"
	Gone    Change = "gone"
)

// Compared is one line of two worksheets side by side; a missing side is nil.
type Compared struct {
	Label         string
	From          string
	Before, After *float64 // g to weigh out
	Step          float64
	Change        Change
}

// Compare sets two worksheets side by side: the lines of the first in their order, then what
// is new. Lines belong together by id and ingredient.
func Compare(before, after Worksheet) []Compared {
	type key struct{ id, ingredient string }
	later := map[key]Line{}
	for _, l := range after.Lines {
		later[key{l.ID, l.Ingredient}] = l
	}
	seen := map[key]bool{}
	var out []Compared
	for _, a := range before.Lines {
		k := key{a.ID, a.Ingredient}
		seen[k] = true
		row := Compared{Label: a.Label, From: a.From, Before: &a.Weigh, Step: a.Step, Change: Gone}
		if b, ok := later[k]; ok {
			row.After = &b.Weigh
			switch d := b.Weigh - a.Weigh; {
			case math.Abs(d) < a.Step/2:
				row.Change = Same
			case d > 0:
				row.Change = MoreOf
			default:
				row.Change = LessOf
			}
		}
		out = append(out, row)
	}
	for _, b := range after.Lines {
		if !seen[key{b.ID, b.Ingredient}] {
			out = append(out, Compared{Label: b.Label, From: b.From, After: &b.Weigh, Step: b.Step, Change: NewLine})
		}
	}
	return out
}
