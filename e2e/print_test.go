package e2e_test

import (
	"context"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// paper prints the page as the browser does, on the size that the page asks for: how large, how many, and all its
// text without spaces.
func (c cook) paper() (size string, pages int, text string) {
	c.Helper()
	file := filepath.Join(c.TempDir(), "card.pdf")
	c.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		out, err := cdp.Call(ctx, t, page.PrintToPDF, page.PrintToPDFParams{PreferCSSPageSize: new(true), PrintBackground: new(true)})
		if err != nil {
			return err
		}
		return os.WriteFile(file, out.Data, 0o600)
	}))
	info, err := exec.Command("pdfinfo", file).Output()
	require.NoError(c, err)
	for line := range strings.Lines(string(info)) {
		if name, value, _ := strings.Cut(line, ":"); name == "Page size" {
			size = strings.TrimSpace(value)
		} else if name == "Pages" {
			pages, _ = strconv.Atoi(strings.TrimSpace(value))
		}
	}
	out, err := exec.Command("pdftotext", "-raw", file, "-").Output()
	require.NoError(c, err)
	return size, pages, squeezed(string(out))
}

func squeezed(s string) string {
	return strings.Join(strings.Fields(strings.ReplaceAll(s, "\u00a0", " ")), "")
}

// The cards say what the worksheet says: every line with its weight, every step, every allergen and caution, on
// paper of A5 and A6 (ISO 216: 148 by 210 and 105 by 148 mm, at 72 points an inch).
func TestPrintACard(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil && os.Getenv("REQUIRE_BROWSER") == "" {
		t.Skip(err)
	}
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.more("Print a card")
	c.sees(`document.querySelector('.print-dialog .go:not(.is-disabled)')`)
	c.reachable("print")
	c.sees(`(document.documentElement.dataset.shift = 'early', true)`) // paper is white in the early shift too
	doc := c.named("Carrot, cardamom & walnut")
	weights := c.worked(doc)
	var sheet struct {
		Lines []struct {
			Label  string
			WeighG float64 `json:"weigh_g"`
		}
		Cautions     []struct{ Text string }
		AllergenText string `json:"allergen_text"`
		Mixing       []struct{ Text string }
	}
	c.post("/api/v1/worksheets?include=cook", doc, &sheet)
	require.Len(t, sheet.Lines, len(weights))
	for kind, size := range map[string]string{"A5": "(A5)", "A6": "298.08 x 420"} {
		c.sees(fmt.Sprintf(`(() => { const b = [...document.querySelectorAll('.print-dialog .pick label')].find(l => l.innerText.includes(%q)); b.click(); return b.classList.contains('is-active') })()`, kind))
		on, pages, text := c.paper()
		assert.Contains(t, on, size, kind)
		assert.LessOrEqual(t, pages, 3, kind)
		for _, l := range sheet.Lines {
			assert.Contains(t, text, squeezed(l.Label), kind)
			assert.Contains(t, text, fmt.Sprintf("%g", l.WeighG), "%s of %s", l.Label, kind)
		}
		for _, s := range sheet.Mixing {
			assert.Contains(t, text, squeezed(s.Text), kind)
		}
		for _, s := range sheet.Cautions {
			assert.Contains(t, text, squeezed(s.Text), kind)
		}
		assert.Contains(t, text, squeezed(sheet.AllergenText), kind)
		assert.Contains(t, text, "HalyardHatch")
		assert.NotContains(t, text, "Findanaddition", "the screen is not on the paper")
	}
	c.press(kb.Escape)
	c.closed()
	c.sees(`!document.documentElement.classList.contains('printing')`)
}
