package label_test

import (
	"bytes"
	"image"
	"image/png"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/document"
	"upbeatladle/label"
)

func pack(name, allergens string, carried ...string) document.Pack {
	return document.Pack{Name: name, Form: "waffle", Pieces: 6, MadeOn: "2026-11-26", UseBy: "2027-01-25", Allergens: allergens, Carried: carried, Reheat: []string{"Toaster, until the middle reads 74 °C."}}
}

// read is what the page of a label says, as whoever copies its text gets it.
func read(t require.TestingT, dir string, l label.Label) string {
	pdf, err := l.PDF()
	require.NoError(t, err)
	file := filepath.Join(dir, "label.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	out, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	return strings.Join(strings.Fields(string(out)), " ")
}

func TestALabelSaysAllOfIt(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil && os.Getenv("REQUIRE_BROWSER") == "" {
		t.Skip("no pdftotext")
	}
	long := strings.TrimSpace(strings.Repeat("Sweet potato, black sesame & brown butter ", 4))
	all := "Contains almond, celery, egg, fish, lupin, milk, mustard, sesame, soya, sulphites, walnut and wheat · Some makes may carry other nuts and peanut · not known: Aunt Vera's sprinkles · check every pack"
	for _, p := range []document.Pack{pack("Plum waffle", "Contains egg · Check every pack"), pack(long, all, "hazelnut"), pack(strings.Repeat("Möhrenpfannkuchenfüllung", 6), all)} {
		l, err := label.Of(p, "0123456789abcdef")
		require.NoError(t, err)
		text := read(t, t.TempDir(), l)
		squeezed := strings.ReplaceAll(text, " ", "")
		for _, part := range []string{p.Name, strings.ReplaceAll(p.Allergens, " · ", ""), "6 waffles", "Use by 25 Jan 2027", "Made 26 Nov 2026", "Follow your local code"} {
			if strings.HasPrefix(part, "Contains") {
				for _, word := range strings.Fields(strings.NewReplacer("·", " ", ",", " ").Replace(p.Allergens)) {
					assert.Contains(t, squeezed, strings.TrimSuffix(word, "."), p.Name)
				}
				continue
			}
			assert.Contains(t, squeezed, strings.ReplaceAll(part, " ", ""))
		}
		for _, c := range p.Carried {
			assert.Contains(t, text, c+" on it before")
		}
	}
}

// However long its words, nothing of a label is printed over its edges.
func TestNothingIsPrintedOverTheEdge(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		name := rapid.StringMatching(`[A-Za-zäöüéè&,]{1,60}( [A-Za-z]{1,40}){0,8}`).Draw(t, "name")
		l, err := label.Of(pack(name, "Contains "+rapid.StringMatching(`[a-z]{3,50}(, [a-z]{3,30}){0,12}`).Draw(t, "contains")+" · Check every pack"), "id")
		require.NoError(t, err)
		data, err := l.PNG()
		require.NoError(t, err)
		img, err := png.Decode(bytes.NewReader(data))
		require.NoError(t, err)
		b := img.Bounds()
		for y := b.Min.Y; y < b.Max.Y; y++ {
			for _, x := range []int{b.Min.X, b.Min.X + 8, b.Max.X - 9, b.Max.X - 1} {
				require.True(t, white(img, x, y), "%d, %d of %v", x, y, b)
			}
		}
		for x := b.Min.X; x < b.Max.X; x++ {
			require.True(t, white(img, x, b.Max.Y-1) && white(img, x, b.Min.Y))
		}
	})
}

func white(img image.Image, x, y int) bool {
	r, _, _, _ := img.At(x, y).RGBA()
	return r > 0xf000
}

func TestALabelThatIsPrintedAgainCountsWhatIsLeft(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil && os.Getenv("REQUIRE_BROWSER") == "" {
		t.Skip("no pdftotext")
	}
	for left, says := range map[int]string{0: "6 waffles", 6: "6 waffles", 2: "2 waffles", 1: "A waffle"} {
		p := pack("Plum", "Contains egg")
		p.Left = left
		l, err := label.Of(p, "abc")
		require.NoError(t, err)
		assert.Contains(t, read(t, t.TempDir(), l), "Plum "+says+" Contains egg.")
	}
}
