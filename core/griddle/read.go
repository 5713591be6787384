package griddle

import (
	"fmt"
	"math"
)

// Stands says how a surface stands to what a bowl wants.
type Stands string

// The ways; unknown where nothing is poured on it, or only practice knows.
const (
	StandsWell Stands = "level"
	TooCool    Stands = "low"
	TooHot     Stands = "high"
	Unjudged   Stands = "unknown"
)

// Reading is what a surface thermometer says of a plate, in the kitchen's own degrees.
type Reading struct {
	C      float64 `json:"c"`
	Text   string  `json:"text"`
	Stands Stands  `json:"stands"`
}

// readSlackC is what a thermometer may be off before a plate is called too cool or too hot [K] (modelling choice).
const readSlackC = 1.0

// Read judges a reading of a plate.
func (s State) Read(plate string, c float64, fahrenheit bool) Reading {
	r := Reading{C: c, Text: fmt.Sprintf("%.0f °C", c), Stands: Unjudged}
	if fahrenheit {
		r.Text = fmt.Sprintf("%.0f °F", math.Round(c*9/5+32))
	}
	for _, p := range s.Plates {
		for _, b := range s.Bowls {
			if p.ID != plate || b.Key != p.Bowl || len(b.WindowC) != 2 {
				continue
			}
			switch {
			case c < b.WindowC[0]-readSlackC:
				r.Stands = TooCool
			case c > b.WindowC[1]+readSlackC:
				r.Stands = TooHot
			default:
				r.Stands = StandsWell
			}
		}
	}
	return r
}
