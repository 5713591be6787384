// Package evidence checks the program's figures against values from outside of it, and keeps a
// record of what was compared: `make evidence` writes docs/evidence.md out of the tests.
package evidence

import (
	"encoding/json"
	"math"
	"testing"
)

// Kind says how far a source can be trusted.
type Kind string

// The kinds.
const (
	Published Kind = "published"                  // the work is named
	Memory    Kind = "from memory"                // published, quoted without the book at hand
	Practice  Kind = "common practice, no source" // a fact of the trade
	Law       Kind = "closed form"                // stoichiometry, geometry, a definition
)

// Tie says how ours and the outside value hang together.
type Tie string

// The ties.
const (
	Independent Tie = "independent"       // ours was made without it
	Copied      Tie = "copied from there" // a slip of the pen is all that this finds
	Fitted      Tie = "own against own"   // ours was moved until it came out so
)

// Claim is a value from outside, and ours.
type Claim struct {
	What    string // is compared
	Unit    string
	Kind    Kind
	Source  string
	Tie     Tie // independent when nothing is said
	Outside float64
	Ours    float64

	// What is tolerated, in the unit: of a law and of what was copied its own digits, else what the source spreads over.
	// Without it NoSpread of the outside value is.
	Tolerance float64

	// Apart is why ours lies further off than that, where it does: then it has to.
	Apart string
}

// NoSpread is the share of an outside value that is tolerated where its source names no spread.
const NoSpread = 0.10

// Attribute names the record of a comparison in the output of a test.
const Attribute = "evidence"

// Tolerated is how far ours may lie from the outside value.
func (c Claim) Tolerated() float64 {
	if c.Tolerance == 0 {
		return NoSpread * math.Abs(c.Outside)
	}
	return c.Tolerance
}

// Check fails the test when ours lies further from the outside value than tolerated, and records the comparison. A
// tolerance of more than half the value would let anything pass.
func Check(t testing.TB, c Claim) {
	t.Helper()
	if c.Tie == "" {
		c.Tie = Independent
	}
	if c.Tolerated() > math.Abs(c.Outside)/2 {
		t.Errorf("%s: %.3g is tolerated of %.6g %s, which is more than half", c.What, c.Tolerated(), c.Outside, c.Unit)
	}
	switch near := math.Abs(c.Ours-c.Outside) <= c.Tolerated(); {
	case !near && c.Apart == "":
		t.Errorf("%s: ours is %.6g %s, outside it is %.6g (%s, %s), and %.3g is tolerated", c.What, c.Ours, c.Unit, c.Outside, c.Source, c.Kind, c.Tolerated())
	case near && c.Apart != "":
		t.Errorf("%s: ours is %.6g %s and outside it is %.6g: it is not apart any more (%s)", c.What, c.Ours, c.Unit, c.Outside, c.Apart)
	}
	line, err := json.Marshal(c)
	if err != nil {
		t.Fatal(err)
	}
	t.Attr(Attribute, string(line))
}
