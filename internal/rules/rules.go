// Package rules reads the tables of rules that stand beside the packages of the core, in testdata/rules.tsv: a row names a value of
// practice or of safety, what is done, what comes out of it, and where that is from. A law holds for any constant; a row holds for one.
package rules

import (
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// File is the table of a package, from its directory.
const File = "testdata/rules.tsv"

// Given are the words that a row gives, divided by semicolons.
type Given []string

// At is the word at a place; "" where there is none.
func (g Given) At(i int) string {
	if i < len(g) {
		return g[i]
	}
	return ""
}

// F is the figure at a place; it ends the test where that is none.
func (g Given) F(t testing.TB, i int) float64 {
	t.Helper()
	v, err := strconv.ParseFloat(g.At(i), 64)
	require.NoError(t, err, "%q is no figure", g.At(i))
	return v
}

// Do is what is done with what a row gives; it returns what comes out, as the row writes it.
type Do func(t testing.TB, g Given) string

// Figure tells a value of practice by its name; a name that nobody knows ends the test.
func Figure(figures map[string]float64) Do {
	return func(t testing.TB, g Given) string {
		t.Helper()
		v, ok := figures[g.At(0)]
		require.True(t, ok, "no figure %q", g.At(0))
		return N(v)
	}
}

// N writes a figure with four significant digits.
func N(v float64) string {
	r, _ := strconv.ParseFloat(strconv.FormatFloat(v, 'g', 4, 64), 64) // what was just written is read
	return strconv.FormatFloat(r, 'f', -1, 64)
}

// YesNo writes an answer.
func YesNo(yes bool) string {
	if yes {
		return "yes"
	}
	return "no"
}

// Check tries every row of the package's table, by its name. A row without a source, of a name that stands already, or with something to
// do that nobody knows is a fault of the table; so is something to do that no row has.
func Check(t *testing.T, do map[string]Do) {
	t.Helper()
	data, err := os.ReadFile(File)
	require.NoError(t, err)
	named, done := map[string]bool{}, map[string]bool{}
	for line := range strings.Lines(string(data)) {
		if line = strings.TrimRight(line, "\n"); line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		f := strings.Split(line, "\t")
		require.Len(t, f, 5, "%s: rule, what is done, given, what comes, source: %q", File, line)
		name, what, given, comes, source := f[0], f[1], f[2], f[3], f[4]
		assert.NotEmpty(t, source, "%s: %s has no source", File, name)
		assert.False(t, named[name], "%s: %s stands twice", File, name)
		named[name], done[what] = true, true
		t.Run(name, func(t *testing.T) {
			act, ok := do[what]
			require.True(t, ok, "nobody knows how to do %q", what)
			var g Given
			for w := range strings.SplitSeq(given, ";") {
				g = append(g, strings.TrimSpace(w))
			}
			assert.Equal(t, comes, act(t, g), "%s of %s (%s)", what, given, source)
		})
	}
	for what := range do {
		assert.True(t, done[what], "%s: no row does %q", File, what)
	}
}
