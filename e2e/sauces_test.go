package e2e_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/device"
)

// pot waits until a pot is worked out on the screen.
func (c cook) pot(name string) {
	c.Helper()
	c.sees(fmt.Sprintf(`document.querySelector('[data-pot=%q] [data-lead]') && !document.querySelector('.el-overlay')?.checkVisibility()`, name))
}

// A compote is begun with an example, walnuts are added, it is watched on the scale, put on a variation, and kept as a tub:
// the portion, its allergens and what has to be out follow.
func TestACompoteOnAVariation(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click(`.rail a[href="/sauces"]`)
	c.pot("Ginger cream")
	c.click("[data-new-pot]")
	c.sees(`document.querySelectorAll('[data-example]').length === 8`)
	c.reachable("a new pot")
	c.click(`[data-example="Plum compote"] .el-button`)
	c.pot("Plum compote 2")
	c.reachable("the pot")
	c.keepsTheRules(1280, "the pot")

	// A line more, by its name; a bad amount is refused at its line and nothing is kept of it.
	c.click("[data-edit]")
	c.sees(`document.querySelectorAll('[data-sauce-editor] [data-base-line]').length === 4`)
	c.click("[data-sauce-editor] .dashed")
	c.click("[data-sauce-editor] .lines li:nth-child(5) .what")
	c.press("walnut")
	c.sees(`(() => { const i = [...document.querySelectorAll('.el-select-dropdown__item')].find(l => l.offsetParent && l.innerText.startsWith('Walnut')); i?.click(); return !!i })()`)
	c.types(`[aria-label="Amount of line 5"]`, "-3")
	c.sees(`document.querySelector('[data-sauce-editor] [role=alert]')`)
	c.p.ForgetConsole() // the refusal
	c.types(`[aria-label="Amount of line 5"]`, "60")
	c.reachable("what goes into a pot")
	c.click("[data-sauce-editor] .go")
	c.pot("Plum compote 2")
	c.sees(`document.querySelector('.makes').innerText.includes('walnut')`)

	// The scale shows 1,000 g: the level falls, and what is still to boil off is said.
	level := `Number(document.querySelector('svg.pot').dataset.level)`
	c.sees(level + ` > 30`)
	c.k.Scale.Put(1050)
	c.sees(`(document.querySelector('[data-weigh]').click(), document.querySelector('[data-lead]').innerText.includes('still to boil off'))`)
	c.sees(level + ` < 33`)
	c.click(".clock .el-button[data-boils]")
	c.sees(`document.querySelector('.clock').dataset.boils === 'true'`)
	c.do(chromedp.Reload())
	c.pot("Plum compote 2")
	c.sees(`document.querySelector('[data-lead]').innerText.includes('still to boil off') && document.querySelector('.clock').dataset.boils === 'true'`)
	c.click("[data-off]")
	c.sees(`document.querySelector('.clock').innerText.includes('off the heat')`)

	// So many servings scale what goes in.
	plums := `parseFloat(document.querySelector('[data-lines] .line b').innerText)`
	c.sees(plums + ` === 900`)
	c.click(`.makes [aria-label$="servings"]:last-child`)
	c.sees(plums + ` > 900 && ` + plums + ` < 960`)

	// On a variation, and seen there.
	c.click("[data-put-on]")
	c.click(`[data-variation="Beetroot & orange"] .el-button`)
	c.sees(`document.querySelector('[data-use="Beetroot & orange"]')?.innerText.includes('walnut')`)
	c.click(`[data-use="Beetroot & orange"] a`)
	c.sees(`document.querySelector('h1')?.innerText === 'Beetroot & orange' && document.querySelector('[data-on=pool]')`)
	c.sees(`document.querySelector('[aria-label=Verdict]').innerText.includes('walnut')`)
	var batch struct{ Items []any }
	c.get("/api/v1/sauces", &batch)
	assert.Len(t, batch.Items, 4)
	c.more("What has to be out")
	c.sees(`document.querySelector('.el-dialog:not([style*="none"])')?.innerText.includes('Plum') && document.querySelector('[data-pull=walnuts_chopped]')`)
	c.press(kb.Escape)
	c.closed()

	// The tub is kept, and then stands in what has to be out.
	c.click(`.rail a[href="/sauces"]`)
	c.pot("Plum compote 2")
	c.click("[data-tub]")
	c.sees(`document.querySelector('[data-tub]').innerText.includes('is kept')`)
	c.click(`.rail a[href^="/v/"], .rail a[href="/"]`)
	c.sees(`document.querySelector('h1')?.innerText === 'Beetroot & orange'`)
	c.more("What has to be out")
	c.sees(`document.querySelector('[data-pull^=plum_compote_2]')`)
}

// The same by the keyboard alone on a tablet, and by a finger on a phone.
func TestSaucesByKeyboardAndFinger(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 820, 1180)
	c.do(chromedp.Navigate(k.URL + "/sauces"))
	c.pot("Ginger cream")
	c.tabsTo(`[data-sauce="Orange syrup"]`)
	c.press(kb.Enter)
	c.pot("Orange syrup")
	c.tabsTo(`[data-read=refractometer]`)
	c.k.Glass.Put(device.Reading{Brix: 61, SampleC: 20})
	c.press(kb.Enter)
	c.sees(`document.querySelector('[data-stop=refractometer]').innerText.includes('now 61')`)
	c.tabsTo(`[data-maths]`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('.curve path')`)
	c.keepsTheRules(820, "a syrup with its maths")
	c.tabsTo(`[aria-label="Put Orange syrup aside"]`)
	c.press(kb.Enter)
	c.sees(`!document.querySelector('[data-sauce="Orange syrup"]')`)
	c.bringsBack()
	c.pot("Orange syrup")

	f := sits(t, k, 390, 844)
	require.NoError(t, f.p.Touch())
	f.do(chromedp.Navigate(k.URL + "/sauces?sauce="))
	f.pot("Ginger cream")
	require.NoError(t, f.p.Swipe(".lead", -200))
	f.sees(`document.querySelector('.lead').getBoundingClientRect().y < 300`)
	f.keepsTheRules(390, "a pot on a phone")
	f.reachable("a pot on a phone")
}
