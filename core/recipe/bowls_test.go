package recipe_test

import (
	"crypto/sha256"
	"fmt"
	"math"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
)

// lockedSum is the locked talks as they were written, before the reader was touched for them. What is asserted of them is what they
// were at first look; nobody has looked at what is wrong with them yet.
const lockedSum = "120fc41d8a319a38f5445b518f19c6b7de733b7b9130d9a330b7673fea6de595"

// heard is what a cook who listened would have: in the bowl, or elsewhere; grams are NaN where it has to be asked.
type heard struct {
	id    string
	grams float64
	bowl  bool
}

// fullness are what a spoon that is not level holds of a powder (common practice).
var fullness = map[string]float64{"": 1, "heaped": 2, "rounded": 1.5, "scant": 0.9}

// talk is a talk with its truth.
type talk struct {
	name, text string
	want       []heard
}

func talks(t *testing.T, file string) (out []talk) {
	t.Helper()
	data, err := os.ReadFile("testdata/" + file)
	require.NoError(t, err)
	k := batter.DefaultKitchen()
	grams := func(f []string) float64 {
		in := food.Reference().ByID(f[0])
		require.NotNil(t, in, f[0])
		amount, err := strconv.ParseFloat(f[1], 64)
		require.NoError(t, err)
		fill := ""
		if len(f) > 3 {
			fill = f[3]
		}
		g, err := k.Grams(batter.Line{Ingredient: in, Amount: amount, Unit: measure.Unit(f[2])})
		if err != nil || g == 0 { // counted where it has no piece of its own, or named without an amount
			return math.NaN()
		}
		return g * fullness[fill]
	}
	for _, part := range strings.Split(string(data), "\n== ")[1:] {
		name, rest, _ := strings.Cut(part, "\n")
		text, truth, ok := strings.Cut(rest, "\n--\n")
		require.True(t, ok, name)
		x := talk{name: name, text: text}
		for line := range strings.Lines(truth) {
			f := strings.Fields(line)
			switch f[0] {
			case "bowl":
				x.want = append(x.want, heard{f[1], grams(f[1:]), true})
			case "ask":
				x.want = append(x.want, heard{f[1], math.NaN(), true})
			case "pot":
				_, parts, _ := strings.Cut(line, ": ")
				for p := range strings.SplitSeq(strings.TrimSpace(parts), "; ") {
					x.want = append(x.want, heard{strings.Fields(p)[0], grams(strings.Fields(p)), false})
				}
			default: // pan, top, beside, inside
				require.Contains(t, []string{"pan", "top", "beside", "inside"}, f[0], name)
				h := heard{f[1], math.NaN(), false}
				if len(f) > 3 && f[2] != "each" {
					h.grams = grams(f[1:])
				}
				x.want = append(x.want, h)
			}
		}
		out = append(out, x)
	}
	return out
}

// listened counts how talks were read: bowls that are right untouched, and of the lines how many were found, are right, are
// false among those that are called read, and were invented in the bowl.
type listened struct{ bowls, talks, want, found, right, read, false, invented int }

func (s listened) String() string {
	part := func(n, of int) string {
		return fmt.Sprintf("%d of %d (%.0f %%)", n, of, 100*float64(n)/math.Max(1, float64(of)))
	}
	return fmt.Sprintf("bowls right untouched %s; lines found %s, right %s; false among read %s; invented in the bowl %d",
		part(s.bowls, s.talks), part(s.found, s.want), part(s.right, s.want), part(s.false, s.read), s.invented)
}

func near(a, b, share float64) bool { return math.Abs(a-b) <= share*math.Max(math.Abs(b), 1e-9) }

// listen scores one talk, and says what was wrong with it.
func (s *listened) listen(x talk) (wrong []string) {
	k := batter.DefaultKitchen()
	r := recipe.ReadText(x.text, food.Reference(), k)
	grams := func(l recipe.Line) float64 {
		if l.Amount <= 0 || l.Ingredient == nil {
			return math.NaN()
		}
		g, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML, Fill: l.Fill})
		if err != nil {
			return math.NaN()
		}
		return g
	}
	is := func(l recipe.Line, h heard) bool { return l.Ingredient != nil && l.Ingredient.ID == h.id }
	right := func(l recipe.Line, h heard) bool {
		switch {
		case !is(l, h) || (l.Place == "") != h.bowl:
			return false
		case math.IsNaN(h.grams):
			return l.Status != recipe.Read || !h.bowl
		}
		return near(grams(l), h.grams, 0.01)
	}
	s.talks++
	var mass, truth float64
	foreign := false
	taken := make([]bool, len(r.Lines))
	for _, h := range x.want {
		s.want++
		if !math.IsNaN(h.grams) && h.bowl {
			truth += h.grams
		}
		at := -1
		for i, l := range r.Lines {
			if at < 0 && !taken[i] && right(l, h) {
				at = i
			}
		}
		switch {
		case at >= 0:
			taken[at] = true
			s.found++
			s.right++
		case slices.ContainsFunc(r.Lines, func(l recipe.Line) bool { return is(l, h) }):
			s.found++
			wrong = append(wrong, h.id+" is otherwise")
		default:
			wrong = append(wrong, h.id+" is not found")
		}
	}
	for i, l := range r.Lines {
		if l.Status != recipe.Read || l.Ingredient == nil {
			continue
		}
		s.read++
		if !taken[i] {
			s.false++
			wrong = append(wrong, fmt.Sprintf("%q read as %s %g %s %s", l.Text, l.Ingredient.ID, l.Amount, l.Unit, l.Place))
		}
		if l.Place == "" {
			mass += grams(l)
			if !slices.ContainsFunc(x.want, func(h heard) bool { return h.bowl && h.id == l.Ingredient.ID }) {
				foreign = true
				if !slices.ContainsFunc(x.want, func(h heard) bool { return h.id == l.Ingredient.ID }) {
					s.invented++
				}
			}
		}
	}
	for _, h := range x.want { // every allergen of what was said is there
		for _, a := range food.Reference().ByID(h.id).Allergens {
			if !slices.ContainsFunc(r.Lines, func(l recipe.Line) bool {
				return l.Ingredient != nil && slices.Contains(l.Ingredient.Allergens, a) || l.Allergen != ""
			}) {
				foreign = true
				wrong = append(wrong, a+" is silent")
			}
		}
	}
	if near(mass, truth, 0.03) && !foreign {
		s.bowls++
	} else {
		wrong = append(wrong, fmt.Sprintf("the bowl weighs %.0f g of %.0f", mass, truth))
	}
	return wrong
}

// What counts of a talk is the bowl: what is in it, what it weighs, and whose allergens it has. The open talks are worked on;
// the locked ones are only scored.
func TestTheBowlOutOfATalk(t *testing.T) {
	data, err := os.ReadFile("testdata/bowls_locked.txt")
	require.NoError(t, err)
	require.Equal(t, lockedSum, fmt.Sprintf("%x", sha256.Sum256(data)), "the locked talks stay as they were written")
	var open, locked listened
	for _, x := range talks(t, "bowls_open.txt") {
		if wrong := open.listen(x); len(wrong) > 0 {
			t.Logf("%s:\n\t%s", x.name, strings.Join(wrong, "\n\t"))
		}
	}
	for _, x := range talks(t, "bowls_locked.txt") {
		locked.listen(x)
	}
	t.Logf("open:   %s", open)
	t.Logf("locked: %s", locked)
	assert.Equal(t, 20, locked.talks)
	assert.GreaterOrEqual(t, open.bowls, 255)
	assert.GreaterOrEqual(t, open.right, 2318)
	assert.LessOrEqual(t, open.false, 42)
	assert.LessOrEqual(t, open.invented, 7, "in the bowl")
	assert.GreaterOrEqual(t, locked.bowls, 13)
	assert.GreaterOrEqual(t, locked.right, 156)
	assert.LessOrEqual(t, locked.false, 11)
	assert.LessOrEqual(t, locked.invented, 4, "in the bowl")
}
