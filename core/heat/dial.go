package heat

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
)

// Marks are what a dial shows, from cool to hot; none without one.
func Marks(d batter.Dial) []string { return dialMarks[d] }

var dialMarks = map[batter.Dial][]string{
	batter.Words:   {"low", "medium low", "medium", "medium high", "high"},
	batter.Numbers: {"1", "2", "3", "4", "5", "6", "7", "8", "9"},
	batter.Gas:     {"smallest flame", "small flame", "medium flame", "large flame", "full flame"},
}

// usualMarks of a dial that nobody has mapped (common practice, no source: low 135, medium 175,
// high 215 °C; wide, and so only until the first one is cooked).
func usualMarks(d batter.Dial) []batter.Mark {
	last := float64(len(Marks(d)) - 1)
	return []batter.Mark{{At: 0, C: 135}, {At: last / 2, C: 175}, {At: last, C: 215}}
}

// DialMap turns a plate's temperature into its dial's words. ShiftC is what the first one cooked
// showed: how much hotter the plate is than the map says.
type DialMap struct {
	Dial   batter.Dial
	Marks  []batter.Mark // from cool to hot; fewer than two: the usual ones
	ShiftC float64
}

// DialOf is the map of a plate.
func DialOf(g batter.Griddle) DialMap { return DialMap{g.Dial, g.Marks, g.ShiftC} }

// Known tells whether the cook has mapped it.
func (m DialMap) Known() bool { return len(m.Marks) >= 2 }

func (m DialMap) mapped() []batter.Mark {
	if m.Known() {
		p := slices.Clone(m.Marks)
		slices.SortFunc(p, func(a, b batter.Mark) int { return cmp.Compare(a.At, b.At) })
		return p
	}
	return usualMarks(m.Dial)
}

// At is the place on the dial for a temperature, between 0 and the last mark.
func (m DialMap) At(c float64) float64 {
	p := m.mapped()
	last := float64(len(Marks(m.Dial)) - 1)
	c -= m.ShiftC
	i := 1
	for i < len(p)-1 && c > p[i].C {
		i++
	}
	a, b := p[i-1], p[i]
	at := a.At
	if b.C != a.C {
		at = a.At + (c-a.C)*(b.At-a.At)/(b.C-a.C)
	}
	return math.Min(last, math.Max(0, at))
}

// Of is the temperature at a mark of the dial, by its name; false when the dial has no such mark.
func (m DialMap) Of(mark string) (c float64, ok bool) {
	at := slices.IndexFunc(Marks(m.Dial), func(s string) bool { return strings.EqualFold(s, strings.TrimSpace(mark)) })
	if at < 0 {
		return 0, false
	}
	p := m.mapped()
	i := 1
	for i < len(p)-1 && float64(at) > p[i].At {
		i++
	}
	a, b := p[i-1], p[i]
	if a.At == b.At {
		return a.C + m.ShiftC, true
	}
	return a.C + (float64(at)-a.At)*(b.C-a.C)/(b.At-a.At) + m.ShiftC, true
}

// Say is the place in the plate's own words: "4", "just under 4", "between 4 and 5". Empty without
// a dial.
func (m DialMap) Say(c float64) string {
	marks := Marks(m.Dial)
	if len(marks) == 0 {
		return ""
	}
	at := m.At(c)
	near := math.Round(at)
	switch off := at - near; {
	case math.Abs(off) < 0.15:
		return marks[int(near)]
	case off < 0 && off > -0.35:
		return "just under " + marks[int(near)]
	case off > 0 && off < 0.35:
		return "just over " + marks[int(near)]
	}
	low := int(math.Floor(at))
	return fmt.Sprintf("between %s and %s", marks[low], marks[low+1])
}

// Verdict is what the first one cooked was like.
type Verdict string

// The verdicts.
const (
	CamePale Verdict = "pale"
	CameDark Verdict = "dark"
	CameRaw  Verdict = "raw" // inside, with a good colour outside
	CameGood Verdict = "good"
)

// Verdicts lists them.
var Verdicts = []Verdict{CameGood, CamePale, CameDark, CameRaw}

// How far a verdict moves the plate's map [K] and its contact (modelling choices: about half the
// usual window, so that two verdicts cross it).
const (
	verdictK     = 8.0
	rawContact   = 0.9
	mostShiftC   = 60.0
	leastContact = 0.6
)

// Learn is the plate after a verdict: hotter or cooler than it was thought, or with a poorer
// contact, so that the second side takes longer and the plate is turned down.
func Learn(v Verdict, shiftC, contact float64) (newShiftC, newContact float64) {
	if contact <= 0 {
		contact = 1
	}
	switch v {
	case CamePale:
		shiftC -= verdictK
	case CameDark:
		shiftC += verdictK
	case CameRaw:
		shiftC += verdictK / 2
		contact *= rawContact
	}
	return math.Min(mostShiftC, math.Max(-mostShiftC, shiftC)), math.Max(leastContact, contact)
}
