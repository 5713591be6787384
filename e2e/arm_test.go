package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

const beetroot = `parseFloat(document.querySelector('[data-addition=beetroot_cooked] .amount').innerText)`

// A stepper that is held goes on, and all of it is one step back; on a slow tablet too.
func TestAHeldStepperGoesOn(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	require.NoError(t, c.p.SlowDown(4))
	c.saved()
	require.NoError(t, c.p.Hold(`[aria-label="More Beetroot"]`, beetroot+" >= 360"))
	c.saved()
	let := c.figure(`[data-addition=beetroot_cooked] .amount`)
	assert.GreaterOrEqual(t, let, 360.0)
	c.sees(`(window.was = ` + beetroot + `, true)`)
	c.click(`[aria-label="More Beetroot"]`)
	c.sees(beetroot + ` === window.was + 10`)
	c.sees(`(() => { if (` + beetroot + ` === 320) return true; document.querySelector('[aria-label=Undo]').click(); return false })()`)
}

// Every amount takes what a cook types: other units, fractions, and says what it cannot read.
func TestAmountsAreTypedWithTheirUnits(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.click(`[aria-label="Portion in ml"]`)
	assert.Equal(t, "60", c.asks(`getSelection().toString() || document.activeElement.value.slice(document.activeElement.selectionStart, document.activeElement.selectionEnd)`), "a click takes it in hand")
	c.press("¼ cup" + kb.Enter)
	c.sees(`document.querySelector('[aria-label="Portion in ml"]').value === '62.5'`) // a metric cup
	c.click(`[aria-label="Portion in ml"]`)
	c.sees(`document.activeElement.selectionEnd - document.activeElement.selectionStart === 4`)
	c.press("5000" + kb.Enter)
	c.sees(`document.querySelector('.ladle [role=alert]')?.innerText === 'It goes from 5 to 1000 ml.'`)
	c.click(`[aria-label="Portion in ml"]`)
	c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.press("1,000" + kb.Enter) // a thousand, or one? it is asked for again
	c.sees(`document.querySelector('.ladle [role=alert]')?.innerText.startsWith('Is that 1000 ml or 1 ml?')`)
	c.click(`[aria-label="Portion in ml"]`)
	c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.press("70" + kb.Enter)
	c.sees(`!document.querySelector('.ladle [role=alert]')`)
	c.click(`[aria-label="Portion in ml"]`)
	c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.press("a lot" + kb.Enter)
	c.sees(`document.querySelector('.ladle [role=alert]')?.innerText.includes('1 1/2 cups')`)
	c.p.ForgetConsole() // the browser reports the refusal itself
	c.click("[aria-label='Amount of Beetroot']")
	c.press("1½ cups" + kb.Enter)
	c.sees(`document.querySelector('[aria-label="Amount of Beetroot"]').value === '1.5'`)
	c.saved()
	_, doc := c.stored()
	a := doc["additions"].([]any)[0].(map[string]any)
	assert.Equal(t, []any{1.5, "cup"}, []any{a["amount"], a["unit"]})
}

// The tour walks over the bench, by keyboard and on a telephone, and changes nothing.
func TestTheTour(t *testing.T) {
	k := kitchen(t)
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		c := sits(t, k, size[0], size[1])
		_, before := c.stored()
		c.press("?")
		c.click(".help .go")
		for i, says := range []string{"Read across", "Tap it", "Find one", "Pull a ring", "Choose your ladle", "Check every pack"} {
			c.sees(`[...document.querySelectorAll('.el-tour__content')].some(e => e.offsetParent !== null && e.innerText.includes('` + says + `'))`)
			c.sees(`(() => { const e = document.querySelector('.el-tour__content'), r = e.getBoundingClientRect(); return r.x >= 0 && r.y >= 0 && r.right <= innerWidth && r.bottom <= innerHeight })()`)
			if i < 5 {
				c.sees(`(document.querySelector('.el-tour__content .el-button--primary').focus(), true)`)
				c.press(kb.Enter)
			}
		}
		c.press(kb.Escape)
		c.sees(`![...document.querySelectorAll('.el-tour__content')].some(e => e.offsetParent)`)
		_, after := c.stored()
		assert.Equal(t, before, after)
	}
}

// Twice as large: a window of 1280 by 800 at 200 % has 640 by 400; the list can be scrolled to and nothing is cut.
func TestTheBenchAtTwiceTheSize(t *testing.T) {
	c := sits(t, kitchen(t), 640, 400)
	c.saved()
	c.keepsTheRules(640, "twice as large")
	for _, css := range []string{"[data-line=butter] .out, [data-added=orange_zest] .out", ".sum .go", ".dock .open"} {
		c.sees(`(() => { const e = document.querySelector('` + css + `'); e.scrollIntoView({ block: 'center' }); const r = e.getBoundingClientRect(); return r.y >= 0 && r.bottom <= innerHeight && e.contains(document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2)) })()`)
	}
	c.zone("Portion")
	c.sees(`document.querySelector('[aria-label=Portion]')`)
}

// The focus stays by the hand that moved something.
func TestTheFocusStaysNearby(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.saved()
	c.do(chromedp.KeyEvent(kb.Tab))
	c.sees(`document.activeElement.className === 'skip'`)
	c.press(kb.Enter)
	c.sees(`document.activeElement.id === 'work'`)
	require.NoError(t, c.p.ForcedColours(true))
	c.do(chromedp.KeyEvent(kb.Tab))
	c.sees(`(() => { const s = getComputedStyle(document.activeElement); return document.activeElement.matches('.bar button') && s.outlineStyle === 'solid' && parseFloat(s.outlineWidth) >= 3 })()`)
	require.NoError(t, c.p.ForcedColours(false))
	c.press("/")
	c.sees(`document.activeElement?.closest('.el-autocomplete')`)
	c.press("walnut")
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(li => li.offsetParent && li.innerText.includes('Walnut'))`)
	c.sees(`/^\d+ found/.test(document.querySelector('.find [role=status]').innerText)`)
	c.press(kb.Enter)
	c.sees(`document.activeElement?.dataset.addition === 'walnuts_chopped'`)
	c.press("+")
	c.saved()
	c.click(`[aria-label="Take out Walnuts"]`)
	c.sees(`document.activeElement?.classList.contains('card')`)
	c.click("[aria-label=Variations]")
	c.click("[aria-label='Put aside Spinach crêpe']")
	c.sees(`document.activeElement?.closest('.variations li')`)
}

// An empty kitchen leads somewhere: the yellow button brings bases, and a variation on one of them.
func TestAnEmptyKitchenLeadsSomewhere(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	_, err := stage.Ask[bool](c.p, `(async () => {
		for (const kind of ['variations', 'bases']) for (const i of (await (await fetch('/api/v1/' + kind)).json()).items) await fetch('/api/v1/' + kind + '/' + i.id, { method: 'DELETE' })
		window.emptied = true
	})().then(() => true) && true`)
	require.NoError(t, err)
	c.sees("window.emptied")
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('.empty .go')?.innerText.includes('starter bases')`)
	c.reachable("an empty bench")
	c.click(".empty .go")
	c.sees(`document.querySelectorAll('.el-drawer .bases button').length > 10`)
	c.click(".el-drawer .bases button")
	c.sees(`document.querySelector('h1')?.innerText && document.querySelectorAll('[data-line]').length > 3`)
}

// Cups are remembered, and held by the list, the strip, the steps, the additions and the verdict.
func TestCupsEverywhere(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.press("g")
	c.sees(`document.querySelector('[data-verdict=weigh]').innerText.includes('cup')`)
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('[data-line=milk_whole] .out')?.innerText.includes('cup')`)
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .amount').innerText.includes('cup')`)
	c.sees(`document.querySelector('[aria-label=Balance]').innerText.includes('as measured')`)
	c.keepsTheRules(1280, "cups")
	c.more("Read the steps")
	c.sees(`[...document.querySelectorAll('.el-dialog li')].some(li => /plain wheat flour 3¾ cups/i.test(li.innerText))`)
	c.press(kb.Escape)
	c.closed()
	c.saved()
}

// A flour that stands in is named in the verdict, told with its price, and taken back in a tap.
func TestASwapIsNamedAndTakenBack(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	base := c.asks(`document.querySelector('[data-gauge=Thickness] small').innerText`)
	c.click("[aria-label='More on Plain wheat flour']")
	c.sees(`(() => { const i = [...document.querySelectorAll('.row-menu li')].find(l => l.offsetParent && l.innerText.includes('instead')); i?.click(); return !!i })()`)
	c.sees(`document.querySelector('[data-swap="Buckwheat flour"]')?.innerText.includes('no wheat among the lines')`)
	c.keepsTheRules(1280, "what can stand in")
	c.reachable("what can stand in")
	c.click(`[data-swap="Buckwheat flour"] .el-button`)
	c.sees(`document.querySelector('[data-verdict=swap]')?.innerText.includes('Buckwheat flour for plain wheat flour')`)
	c.sees(`document.querySelector('[data-line=buckwheat_flour]')`)
	assert.Equal(t, base, c.asks(`document.querySelector('[data-gauge=Thickness] small').innerText`), "the base is still the base")
	c.keepsTheRules(1280, "a swap")
	c.notes(`document.querySelector('[data-note=swapped]')?.innerText.includes('structure falls')`)
	c.click("[data-verdict=swap] .el-button")
	c.sees(`document.querySelector('[data-line=plain_flour]') && !document.querySelector('[data-verdict=swap]')`)
	c.saved()
	_, doc := c.stored()
	assert.NotContains(t, doc["base"], "own_lines")
}

// Laid on the portions instead of folded in: as many whole pieces as go evenly.
func TestLaidOnTopFitsEvenly(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.click("[data-addition=walnuts_chopped] h3")
	c.click("[data-addition=walnuts_chopped] .stage .el-select__wrapper")
	c.sees(`(() => { const i = [...document.querySelectorAll('.el-select-dropdown__item')].find(l => l.offsetParent && l.innerText === 'on each portion'); i?.click(); return !!i })()`)
	c.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('go evenly on the portions'))`)
	c.sees(`/^[0-9]+ walnuts/.test(document.querySelector('[data-inclusion=walnuts_chopped] b')?.innerText)`)
	c.saved()
}
