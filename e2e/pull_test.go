package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

const sugarOut = `document.querySelector('[data-line=granulated_sugar] .out').innerText`

// A gauge is pulled by the keys: the ledger follows, the strip says so, it stays over a reload and goes back in a tap.
func TestAGaugeIsPulledByTheKeys(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[aria-label="Sweetness: pull it"]')`)
	before := c.asks(sugarOut)
	c.sees(`(document.querySelector('[aria-label="Sweetness: pull it"]').focus(), true)`)
	c.press(kb.ArrowUp)
	c.press(kb.ArrowUp)
	c.sees(`document.querySelector('[aria-label="Sweetness: pull it"]').getAttribute('aria-valuetext') === '10 % sweeter than the base'`)
	c.sees(sugarOut + ` !== '` + before + `'`)
	c.sees(`document.querySelector('[data-gauge=Sweetness]').innerText.includes('your mark')`)
	c.keepsTheRules(1280, "a pulled gauge")
	c.saved()
	_, doc := c.stored()
	assert.Equal(t, map[string]any{"sweetness": 1.1}, doc["offset"].(map[string]any)["targets"])
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('[aria-label=Balance] .back')?.innerText.includes('10 % sweeter')`)
	c.click("[aria-label=Balance] .back")
	c.sees(sugarOut + ` === '` + before + `'`)
	c.sees(`!document.querySelector('[aria-label=Balance] .back')`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(`document.querySelector('[aria-label=Balance] .back')`)
}

// By the mouse the ring follows the hand; a press without a way asks why.
func TestAGaugeIsPulledByTheMouse(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[aria-label="Lift: pull it"]')`)
	at, err := stage.Ask[[]float64](c.p, `(() => { const r = document.querySelector('[aria-label="Lift: pull it"]').getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`)
	require.NoError(t, err)
	require.NoError(t, c.p.MouseDrag(at[0], at[1], at[0], at[1]-30))
	c.sees(`document.querySelector('[aria-label="Lift: pull it"]').getAttribute('aria-valuetext').includes('fluffier than the base')`)
	c.closed()
	c.click(`[aria-label="Thickness: pull it"]`)
	c.sees(`document.querySelector('.why .pull')?.innerText.includes('as the base')`)
	c.click(`.why .pull .el-button`)
	c.sees(`document.querySelector('.why .pull b').innerText === '5 % thicker than the base'`)
	c.click(`.why .pull .home`)
	c.sees(`document.querySelector('.why .pull b').innerText === 'as the base'`)
}

// On a telephone: one zone at a time; a finger that scrolls over gauges and sliders changes nothing, one that goes
// along them does, and the steps are behind the gauge.
func TestGaugesAndSlidersByFinger(t *testing.T) {
	c := sits(t, kitchen(t), 390, 700)
	require.NoError(t, c.p.Touch())
	require.NoError(t, c.p.SlowDown(4))
	c.do(chromedp.Navigate(c.k.URL))
	c.zone("Balance")
	const ring = `[aria-label="Sweetness: pull it"]`
	const stands = `document.querySelector('` + ring + `').getAttribute('aria-valuetext')`
	c.sees(`document.querySelector('` + ring + `')`)
	require.NoError(t, c.p.Swipe(ring, -120))
	c.sees(`document.querySelector('.gauges').scrollTop > 20`)
	assert.Equal(t, "as the base", c.asks(stands))
	require.NoError(t, c.p.Drag(ring, 40))
	c.sees(stands + `.includes('sweeter than the base')`)
	c.click("[aria-label=Balance] .back")
	c.sees(stands + ` === 'as the base'`)
	c.click(`[data-gauge=Sweetness] .name`)
	c.sees(`document.querySelector('.why .pull')`)
	c.keepsTheRules(390, "why, with its steps")
	c.click(`.why .pull .el-button:nth-child(3)`)
	c.sees(`document.querySelector('.why .pull b').innerText === '5 % sweeter than the base'`)
	c.click(`.why .head .el-button`)
	c.sees(`document.querySelector('[aria-label=Balance] .back')?.innerText.includes('5 % sweeter')`)
	c.click(".dock .open")
	c.sees(`document.querySelector('.el-drawer .track-slider')`)
	c.sees(`document.querySelector('.el-drawer').getBoundingClientRect().x >= 0`)
	grams := c.asks(`document.querySelector('.el-drawer input').value + document.querySelector('.el-drawer [role=slider]').getAttribute('aria-valuenow')`)
	require.NoError(t, c.p.Swipe(".el-drawer .track-slider", -80))
	c.sees(`(() => { const y = document.querySelector('.el-drawer .track-slider').getBoundingClientRect().y, rests = window.lastY === y; window.lastY = y; return rests })()`)
	assert.Equal(t, grams, c.asks(`document.querySelector('.el-drawer input').value + document.querySelector('.el-drawer [role=slider]').getAttribute('aria-valuenow')`))
	require.NoError(t, c.p.Drag(".el-drawer .track-slider", 40))
	c.sees(`document.querySelector('.el-drawer input').value + document.querySelector('.el-drawer [role=slider]').getAttribute('aria-valuenow') !== '` + grams + `'`)
}
