// Write makes docs/evidence.md of what tests recorded: the first argument is their folder, the
// second the file.
package main

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"math"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"upbeatladle/internal/evidence"
)

const head = `# Evidence

Every value from outside the program that its tests compare with: what it is, where it comes from, ours, the difference, and
what is tolerated. Written by ` + "`make evidence`" + ` out of the tests; a test fails when a difference is larger.

*published* names the work; *from memory* is a published value quoted without the book at hand; *common practice, no source*
is a fact of the trade; *closed form* is stoichiometry, geometry or a definition.
`

func main() {
	if err := run(os.Args[1], os.Args[2]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(dir, to string) error {
	files, err := filepath.Glob(filepath.Join(dir, "*.jsonl"))
	if err != nil {
		return err
	}
	bySource := map[string]map[string]evidence.Claim{}
	for _, name := range files {
		data, err := os.ReadFile(name)
		if err != nil {
			return err
		}
		for line := range bytes.Lines(data) {
			var c evidence.Claim
			if err := json.Unmarshal(line, &c); err != nil {
				return fmt.Errorf("%s: %w", name, err)
			}
			at := c.Source + " (" + string(c.Kind) + ")"
			if bySource[at] == nil {
				bySource[at] = map[string]evidence.Claim{}
			}
			bySource[at][c.What+" "+c.Unit] = c
		}
	}
	var out strings.Builder
	out.WriteString(head)
	total := 0
	for _, at := range sorted(bySource) {
		fmt.Fprintf(&out, "\n## %s\n\n| what | unit | outside | ours | difference | tolerated |\n|---|---|---:|---:|---:|---:|\n", at)
		for _, key := range sorted(bySource[at]) {
			c := bySource[at][key]
			total++
			fmt.Fprintf(&out, "| %s | %s | %s | %s | %s | %s |\n", c.What, c.Unit, figure(c.Outside), figure(c.Ours), figure(c.Ours-c.Outside), figure(c.Tolerance))
		}
	}
	fmt.Fprintf(&out, "\n%d values from %d sources.\n", total, len(bySource))
	return os.WriteFile(to, []byte(out.String()), 0o644)
}

func sorted[V any](m map[string]V) []string {
	keys := make([]string, 0, len(m))
	for k := range m {
		keys = append(keys, k)
	}
	slices.SortFunc(keys, cmp.Compare)
	return keys
}

// figure is a number to four digits; what is smaller than the last of them is nothing.
func figure(v float64) string {
	if math.Abs(v) < 1e-9 {
		return "0"
	}
	return fmt.Sprintf("%.4g", v)
}
