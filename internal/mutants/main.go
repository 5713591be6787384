// Command mutants changes one figure of the core at a time and tells whether the tests of its package notice: their rules first
// (testdata/rules.tsv), then all of them. The changes stand in internal/mutants/list.tsv: file, what stands there, what is put in its
// place, and who notices: rules, tests, or “nobody: why not”.
//
//	go run ./internal/mutants            tries all of them, and fails where it is not as the list says
//	go run ./internal/mutants -write     writes the list anew with what was found
//	go run ./internal/mutants -draw 10   tries ten of those that a row notices, drawn by the commit
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync"
)

const list = "internal/mutants/list.tsv"

// Who notices.
const (
	byRules  = "rules"
	byTests  = "tests"
	byNobody = "nobody"
)

// mutant is one change.
// wantsRow ends what the list says of a change that nobody notices yet.
const wantsRow = "wants its row"

type mutant struct{ file, from, to, noticed string }

func main() {
	write := flag.Bool("write", false, "write the list anew with what was found")
	draw := flag.Int("draw", 0, "try so many of those that a row notices, drawn by the commit")
	only := flag.String("only", "", "files that begin with this")
	wanted := flag.Bool("wanted", false, "only those that want a row")
	flag.Parse()
	if err := run(*write, *wanted, *draw, *only); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(write, wanted bool, draw int, only string) error {
	head, all, err := read()
	if err != nil {
		return err
	}
	try := all
	if draw > 0 {
		if try, err = drawn(all, draw); err != nil {
			return err
		}
	}
	try = slices.DeleteFunc(slices.Clone(try), func(m *mutant) bool {
		return !strings.HasPrefix(m.file, only) || wanted && !strings.HasSuffix(m.noticed, wantsRow)
	})
	found, faults := make([]string, len(try)), make([]error, len(try))
	var workers sync.WaitGroup
	next := make(chan int)
	for range runtime.NumCPU() {
		workers.Go(func() {
			for i := range next {
				found[i], faults[i] = try[i].try()
				fmt.Printf("%-7s %s: %s\n", found[i], try[i].file, try[i].to)
			}
		})
	}
	for i := range try {
		next <- i
	}
	close(next)
	workers.Wait()
	if err := forget(); err != nil {
		return err
	}
	wrong := 0
	for i, m := range try {
		if faults[i] != nil {
			return fmt.Errorf("%s, %q: %w", m.file, m.from, faults[i])
		}
		said, _, _ := strings.Cut(m.noticed, ":")
		if found[i] != said {
			if !(found[i] == byRules && said == byTests) {
				wrong++
				fmt.Printf("%s: %s is noticed by %s, the list says %s\n", m.file, m.to, found[i], m.noticed)
			}
			m.noticed = found[i]
		}
	}
	if write {
		return save(head, all)
	}
	if wrong > 0 {
		return fmt.Errorf("%d of %d are not noticed as %s says", wrong, len(try), list)
	}
	return nil
}

// forget takes away what the property tests wrote down of the changed figures: nothing of it is true of the real ones.
func forget() error {
	left, err := filepath.Glob("core/*/testdata/rapid")
	for _, dir := range left {
		err = errors.Join(err, os.RemoveAll(dir))
	}
	return err
}

// drawn are so many of those that a row notices, the same ones for a commit.
func drawn(all []*mutant, n int) ([]*mutant, error) {
	commit, err := exec.Command("git", "rev-parse", "HEAD").Output()
	if err != nil {
		return nil, fmt.Errorf("asking for the commit: %w", err)
	}
	h := fnv.New64a()
	_, _ = h.Write(commit) // never fails
	var noticed []*mutant
	for _, m := range all {
		if m.noticed == byRules { // what a property notices it may miss by chance
			noticed = append(noticed, m)
		}
	}
	r := rand.New(rand.NewPCG(h.Sum64(), 0))
	r.Shuffle(len(noticed), func(i, j int) { noticed[i], noticed[j] = noticed[j], noticed[i] })
	return noticed[:min(n, len(noticed))], nil
}

// try tells who notices the change.
func (m *mutant) try() (string, error) {
	text, err := os.ReadFile(m.file)
	if err != nil {
		return "", err
	}
	if n := strings.Count(string(text), m.from); n != 1 {
		return "", fmt.Errorf("it stands there %d times, once is wanted", n)
	}
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(dir)
	changed, overlay := filepath.Join(dir, "changed.go"), filepath.Join(dir, "overlay.json")
	if err := os.WriteFile(changed, []byte(strings.Replace(string(text), m.from, m.to, 1)), 0o600); err != nil {
		return "", err
	}
	at, err := filepath.Abs(m.file)
	if err != nil {
		return "", err
	}
	replaced, err := json.Marshal(map[string]map[string]string{"Replace": {at: changed}})
	if err != nil {
		return "", err
	}
	if err := os.WriteFile(overlay, replaced, 0o600); err != nil {
		return "", err
	}
	pkg := "./" + filepath.Dir(m.file)
	if out, err := exec.Command("go", "build", "-overlay", overlay, pkg).CombinedOutput(); err != nil {
		return "", fmt.Errorf("it does not compile: %s", out)
	}
	if red(overlay, pkg, "-run", "^TestRules$") {
		return byRules, nil
	}
	if red(overlay, pkg, "-failfast") {
		return byTests, nil
	}
	return byNobody, nil
}

// red tells whether the tests of a package fail.
func red(overlay, pkg string, more ...string) bool {
	return exec.Command("go", append(append([]string{"test", "-overlay", overlay}, more...), pkg)...).Run() != nil
}

// read reads the list, its comments apart.
func read() (head []string, all []*mutant, err error) {
	text, err := os.ReadFile(list)
	if err != nil {
		return nil, nil, err
	}
	for line := range strings.Lines(string(text)) {
		line = strings.TrimRight(line, "\n")
		f := strings.Split(line, "\t")
		switch {
		case strings.HasPrefix(line, "#"):
			head = append(head, line)
		case len(f) != 4:
			return nil, nil, fmt.Errorf("%s: file, from, to, who notices: %q", list, line)
		default:
			all = append(all, &mutant{f[0], f[1], f[2], f[3]})
		}
	}
	return head, all, nil
}

func save(head []string, all []*mutant) error {
	lines := head
	for _, m := range all {
		lines = append(lines, strings.Join([]string{m.file, m.from, m.to, m.noticed}, "\t"))
	}
	return os.WriteFile(list, []byte(strings.Join(lines, "\n")+"\n"), 0o644)
}
