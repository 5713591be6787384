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
	Label  string   `json:"label"`
	From   string   `json:"from"`
	Before *float64 `json:"before_g,omitzero"` // to weigh out
	After  *float64 `json:"after_g,omitzero"`
	Step   float64  `json:"step_g"`
	Change Change   `json:"change"`
	Digits int      `json:"decimals"` // that its grams are told with
}

// Compare sets two worksheets side by side: the lines of the first in their order, then what
// is new. Lines belong together by id and ingredient, else by ingredient, in their order.
func Compare(before, after Worksheet) []Compared {
	pair := pairs(before.Lines, after.Lines)
	taken := make([]bool, len(after.Lines))
	var out []Compared
	for i, a := range before.Lines {
		row := Compared{Label: a.Label, From: a.From, Before: &a.Weigh, Step: a.Step, Digits: a.Decimals, Change: Gone}
		if j := pair[i]; j >= 0 {
			taken[j] = true
			b := after.Lines[j]
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
	for j, b := range after.Lines {
		if !taken[j] {
			out = append(out, Compared{Label: b.Label, From: b.From, After: &b.Weigh, Step: b.Step, Digits: b.Decimals, Change: NewLine})
		}
	}
	return out
}

// pairs finds for each line of the first the line of the second that is the same, or -1.
func pairs(before, after []Line) []int {
	out := make([]int, len(before))
	taken := make([]bool, len(after))
	find := func(i int, same func(a, b Line) bool) {
		for j, b := range after {
			if out[i] < 0 && !taken[j] && same(before[i], b) {
				out[i], taken[j] = j, true
			}
		}
	}
	for i := range before {
		out[i] = -1
		find(i, func(a, b Line) bool { return a.ID == b.ID && a.Ingredient == b.Ingredient })
	}
	for i := range before {
		find(i, func(a, b Line) bool { return a.From == b.From && a.Ingredient == b.Ingredient })
	}
	return out
}
