// Write reads what `go test -json` says, tells what a reader of tests wants to know of it, and makes docs/evidence.md, its
// argument, of what the tests recorded. With -check the file has to be that already. It fails when a test did.
package main

import (
	"bufio"
	"cmp"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"math"
	"os"
	"slices"
	"strings"

	"upbeatladle/internal/evidence"
)

const head = `# Evidence

Every value from outside the program that its tests compare with: what it is, where it comes from, ours, the difference, and
what is tolerated. Written by ` + "`make evidence`" + ` out of the tests; a test fails when a difference is larger.

*published* names the work; *from memory* is a published value quoted without the book at hand; *common practice, no source*
is a fact of the trade; *closed form* is stoichiometry, geometry or a definition.

*independent*: ours was made without the outside value. *copied from there*: it was taken from the source, so that the
comparison finds a slip of the pen and nothing else. *own against own*: ours was moved until it came out so. What is tolerated
is what the source spreads over, of a closed form or a copy its own digits; with *, its source names no spread, and a tenth is.
Nothing is tolerated that is more than half the value. What lies further apart says why.
`

func main() {
	check := flag.Bool("check", false, "the file has to be current")
	flag.Parse()
	if err := run(os.Stdin, os.Stdout, flag.Arg(0), *check); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// said is a line of go test -json.
type said struct {
	Action, Package, Test, Output, Key, Value string
}

func run(in io.Reader, tell io.Writer, file string, check bool) error {
	claims, failed, err := listen(in, tell)
	switch {
	case err != nil:
		return err
	case failed:
		return fmt.Errorf("a test failed")
	}
	text := written(claims)
	if !check {
		return os.WriteFile(file, []byte(text), 0o644)
	}
	if was, err := os.ReadFile(file); err != nil || string(was) != text {
		return fmt.Errorf("%s is out of date: run make evidence, and read what moved", file)
	}
	return nil
}

// listen tells of every package how it went, and of what failed everything.
func listen(in io.Reader, tell io.Writer) (claims []evidence.Claim, failed bool, err error) {
	lines := bufio.NewScanner(in)
	lines.Buffer(nil, 64<<20)
	outputs := map[string][]string{}
	for lines.Scan() {
		var s said
		if json.Unmarshal(lines.Bytes(), &s) != nil { // the go command's own words
			fmt.Fprintln(tell, lines.Text())
			continue
		}
		of := s.Package + " " + s.Test
		switch s.Action {
		case "attr":
			if s.Key != evidence.Attribute {
				continue
			}
			var c evidence.Claim
			if err := json.Unmarshal([]byte(s.Value), &c); err != nil {
				return nil, false, fmt.Errorf("%s: %w", of, err)
			}
			claims = append(claims, c)
		case "output", "build-output":
			if s.Test == "" {
				if strings.HasPrefix(s.Output, "ok") || strings.HasPrefix(s.Output, "FAIL\t") || s.Action == "build-output" {
					fmt.Fprint(tell, s.Output)
				}
				continue
			}
			if !strings.HasPrefix(s.Output, "=== ") {
				outputs[of] = append(outputs[of], s.Output)
			}
		case "pass", "skip":
			delete(outputs, of)
		case "fail", "build-fail":
			failed = true
			fmt.Fprint(tell, strings.Join(outputs[of], ""))
		}
	}
	return claims, failed, lines.Err()
}

// written is the file.
func written(claims []evidence.Claim) string {
	bySource := map[string]map[string]evidence.Claim{}
	for _, c := range claims {
		at := c.Source + " (" + string(c.Kind) + ")"
		if bySource[at] == nil {
			bySource[at] = map[string]evidence.Claim{}
		}
		bySource[at][c.What+" "+c.Unit] = c
	}
	var out strings.Builder
	out.WriteString(head)
	ties := map[evidence.Tie]int{}
	total, apart := 0, 0
	for _, at := range sorted(bySource) {
		fmt.Fprintf(&out, "\n## %s\n\n| what | unit | outside | ours | difference | tolerated | |\n|---|---|---:|---:|---:|---:|---|\n", at)
		for _, key := range sorted(bySource[at]) {
			c := bySource[at][key]
			total++
			ties[c.Tie]++
			tolerated, tie := figure(c.Tolerated()), string(c.Tie)
			if c.Tolerance == 0 {
				tolerated += " *"
			}
			if c.Apart != "" {
				apart++
				tie += "; **apart:** " + c.Apart
			}
			fmt.Fprintf(&out, "| %s | %s | %s | %s | %s | %s | %s |\n", c.What, c.Unit, figure(c.Outside), figure(c.Ours), figure(c.Ours-c.Outside), tolerated, tie)
		}
	}
	fmt.Fprintf(&out, "\n%d values from %d sources: %d independent, %d copied from there, %d own against own; %d lie apart.\n",
		total, len(bySource), ties[evidence.Independent], ties[evidence.Copied], ties[evidence.Fitted], apart)
	return out.String()
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
