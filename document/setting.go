package document

import (
	"strings"
	"time"

	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
)

// Setting is where a document is worked out: the shelf, the kitchen, and the day, which the
// age of a tub is counted from.
type Setting struct {
	Table   *food.Table
	Kitchen OwnKitchen
	Today   time.Time // zero: no tub is ever too old
	Include worksheet.Include
}

const dayLayout = "2006-01-02"

// Day is the setting's day as documents write it.
func (s Setting) Day() string {
	if s.Today.IsZero() {
		return ""
	}
	return s.Today.Format(dayLayout)
}

// age is the number of days from a day to today; 0 when either is not known.
func age(madeOn string, today time.Time) int {
	made, err := time.Parse(dayLayout, madeOn)
	if err != nil || today.IsZero() {
		return 0
	}
	now, _ := time.Parse(dayLayout, today.Format(dayLayout))
	return max(0, int(now.Sub(made).Hours()/24))
}

// ReadInclude reads what is to be included, divided by commas: "working,cook". The error
// is Problems.
func ReadInclude(list string) (worksheet.Include, error) {
	var out worksheet.Include
	for name := range strings.SplitSeq(list, ",") {
		switch strings.TrimSpace(name) {
		case "":
		case "working":
			out.Working = true
		case "strategies":
			out.Strategies = true
		case "cook":
			out.Cook = true
		case "cups":
			out.Cups = true
		case "choices":
			out.Choices = true
		case "drawing":
			out.Drawing = true
		case "nutrition":
			out.Nutrition = true
		case "heat_line":
			out.HeatLine = true
		case "curves":
			out.Cook, out.Curves = true, true
		default:
			return out, Refusal("/include", "unknown_choice", "“%s” cannot be included. Use working, strategies, cook, curves, heat_line, cups, choices, drawing or nutrition, divided by commas.", clip(name))
		}
	}
	return out, nil
}
