// Package evidence checks the program's figures against values from outside of it, and keeps a
// record of what was compared: `make evidence` writes docs/evidence.md out of the tests.
package evidence

import (
	"encoding/json"
	"math"
	"os"
	"path/filepath"
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

// Claim is a value from outside, and ours.
type Claim struct {
	What      string // is compared
	Unit      string
	Kind      Kind
	Source    string
	Outside   float64
	Ours      float64
	Tolerance float64 // in the unit; the difference must not be larger
	Share     float64 // or as a share of the outside value
}

// Record is where the claims of a run go: a folder named by this variable.
const Record = "EVIDENCE"

// Check fails the test when ours lies further from the outside value than tolerated, and records
// the comparison when somebody asked for it.
func Check(t testing.TB, c Claim) {
	t.Helper()
	if c.Tolerance == 0 {
		c.Tolerance = math.Abs(c.Share * c.Outside)
	}
	if !(math.Abs(c.Ours-c.Outside) <= c.Tolerance) {
		t.Errorf("%s: ours is %.6g %s, outside it is %.6g (%s, %s), and %.3g is tolerated", c.What, c.Ours, c.Unit, c.Outside, c.Source, c.Kind, c.Tolerance)
	}
	dir := os.Getenv(Record)
	if dir == "" {
		return
	}
	line, err := json.Marshal(c)
	if err != nil {
		t.Fatal(err)
	}
	f, err := os.OpenFile(filepath.Join(dir, filepath.Base(os.Args[0])+".jsonl"), os.O_APPEND|os.O_CREATE|os.O_WRONLY, 0o644)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	if _, err := f.Write(append(line, '\n')); err != nil {
		t.Fatal(err)
	}
}
