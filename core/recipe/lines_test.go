package recipe_test

import (
	"bufio"
	"fmt"
	"math"
	"os"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
)

type entry struct {
	id     string
	amount float64
	unit   string
}

func corpus(t *testing.T, file string) map[string][]entry {
	t.Helper()
	f, err := os.Open("testdata/" + file)
	require.NoError(t, err)
	defer f.Close()
	out := map[string][]entry{}
	for sc := bufio.NewScanner(f); sc.Scan(); {
		text, want, ok := strings.Cut(sc.Text(), "\t")
		if strings.HasPrefix(text, "#") || !ok {
			continue
		}
		for _, e := range strings.Split(want, " ;; ") {
			p := strings.Fields(e)
			require.Len(t, p, 3, e)
			v, _ := strconv.ParseFloat(p[1], 64)
			out[text] = append(out[text], entry{p[0], v, p[2]})
		}
	}
	return out
}

// right compares what was read with what a cook would.
func right(text string, want []entry) string {
	// A list of one line would be taken for spoken text; two more lines make it a list.
	r := recipe.ReadText("Ingredients\n"+text+"\nMethod\nMix.", food.Reference(), batter.DefaultKitchen())
	if len(r.Lines) != len(want) {
		return fmt.Sprintf("%d entries, not %d", len(r.Lines), len(want))
	}
	for i, w := range want {
		l := r.Lines[i]
		id := "?"
		if l.Ingredient != nil {
			id = l.Ingredient.ID
		}
		unit := string(l.Unit)
		if unit == "" {
			unit = "-"
		}
		if id != w.id || math.Abs(l.Amount-w.amount) > 1e-4*math.Max(1, w.amount) || id != "?" && unit != w.unit {
			return fmt.Sprintf("read %s %g %s", id, l.Amount, unit)
		}
	}
	return ""
}

func accuracy(t *testing.T, file string) float64 {
	lines := corpus(t, file)
	good := 0
	for text, want := range lines {
		if wrong := right(text, want); wrong != "" {
			t.Logf("%q: %s, want %v", text, wrong, want)
		} else {
			good++
		}
	}
	share := float64(good) / float64(len(lines))
	t.Logf("%s: %d of %d lines as a cook reads them (%.0f %%)", file, good, len(lines), 100*share)
	return share
}

// The corpus that the reader was made with.
func TestTheCorpus(t *testing.T) { assert.GreaterOrEqual(t, accuracy(t, "lines.tsv"), 0.97) }

// Lines that were written first and not tuned on: how it does on what it never saw.
func TestLinesHeldOut(t *testing.T) { assert.GreaterOrEqual(t, accuracy(t, "held_out.tsv"), 0.7) }

// Lines of messages, cards and talk; every third is only scored.
func TestMessyLines(t *testing.T) {
	data, err := os.ReadFile("testdata/messy.tsv")
	require.NoError(t, err)
	all := corpus(t, "messy.tsv")
	var good, of [2]int
	n := 0
	for line := range strings.Lines(string(data)) {
		text, _, ok := strings.Cut(line, "\t")
		if strings.HasPrefix(line, "#") || !ok {
			continue
		}
		held := 0
		if n%3 == 2 {
			held = 1
		}
		n++
		of[held]++
		if wrong := right(text, all[text]); wrong != "" {
			t.Logf("%q: %s, want %v", text, wrong, all[text])
		} else {
			good[held]++
		}
	}
	t.Logf("messy.tsv: %d of %d lines it was made with, %d of %d held out", good[0], of[0], good[1], of[1])
	assert.GreaterOrEqual(t, float64(good[0])/float64(of[0]), 0.95)
	assert.GreaterOrEqual(t, float64(good[1])/float64(of[1]), 0.8)
}
