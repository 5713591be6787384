// Package draws says how often laws are tried where one trial is dear.
package draws

import (
	"flag"
	"strconv"
	"testing"
)

// Dear is how often a law is tried where each trial works a whole kitchen out, with its cooking (a modelling choice: what it has found
// so far was found within a dozen).
const Dear = 25

const checks = "rapid.checks"

// asked tells whether somebody said on the command line how often.
func asked() (said bool) {
	flag.Visit(func(f *flag.Flag) { said = said || f.Name == checks })
	return said
}

// Few tries the laws of a test as often as Dear says, unless somebody asks for more. The test must not run beside another one that draws.
func Few(t testing.TB) {
	t.Helper()
	f := flag.Lookup(checks)
	if f == nil || ours[f.Name] == "" && asked() {
		return
	}
	was := f.Value.String()
	set(f, strconv.Itoa(Dear))
	t.Cleanup(func() { set(f, was) })
}

// ours are the flags that were set here, so that they do not count as asked for.
var ours = map[string]string{}

func set(f *flag.Flag, v string) {
	ours[f.Name] = v
	if err := flag.Set(f.Name, v); err != nil {
		panic(err)
	}
}

// Main tries all laws of a package as often as Dear says, unless somebody asks for more, and runs its tests.
func Main(m *testing.M) int {
	flag.Parse()
	if f := flag.Lookup(checks); f != nil && !asked() {
		set(f, strconv.Itoa(Dear))
	}
	return m.Run()
}
