package e2e_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// minutes are the big figures of the heat, with what is under the hand come to rest.
func (c cook) minutes() string {
	c.Helper()
	c.sees(`document.querySelector('.heat .minutes b') && !document.querySelector('.in.coming')`)
	text, err := stage.Ask[string](c.p, `[...document.querySelectorAll('.heat .minutes b')].map(b => b.innerText).join(' ')`)
	require.NoError(c, err)
	return text
}

func (c cook) asks(expression string) string {
	c.Helper()
	text, err := stage.Ask[string](c.p, expression)
	require.NoError(c, err)
	return text
}

const degrees = `document.querySelector('.degrees b').innerText`

// How hot and how long, by the keyboard alone: opened, turned, put back, and kept over a reload.
func TestTheHeatByKeyboardAlone(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	c.press("h")
	c.sees(`document.querySelector('.heat .back')?.matches(':focus')`)
	advised, at := c.minutes(), c.asks(degrees)
	assert.Equal(t, c.asks(`document.querySelector('.chip.rim').innerText`), "switch on 12 min before")
	c.sees(`document.querySelector('.dialcard .said').innerText.includes('5')`)
	c.keepsTheRules(1280, "the heat")

	c.tabsTo(`[aria-label="5 °C less"]`)
	c.press(kb.Enter)
	c.press(kb.Enter)
	c.press(kb.Enter)
	c.sees(fmt.Sprintf(`%s === '%d'`, degrees, number(c, at)-15))
	longer := c.minutes()
	assert.NotEqual(t, advised, longer)
	assert.Greater(t, longer[:4], advised[:4], "a milder plate takes longer")
	c.sees(`document.querySelector('[data-verdict=heat]').innerText.includes('` + longer[:4] + `')`)
	c.saved()
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	c.press("h")
	assert.Equal(t, longer, c.minutes(), "after a reload")
	c.tabsTo(".advised")
	c.press(kb.Enter)
	c.sees(degrees + ` === '` + at + `'`)
	assert.Equal(t, advised, c.minutes())

	c.press(kb.Escape)
	c.sees(`document.querySelector('[data-line=milk_whole]') && !document.querySelector('.heatzone')`)
	c.press("h")
	c.sees(`document.querySelector('.heatzone')`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(degrees + ` !== '` + at + `'`)
}

func number(t require.TestingT, text string) (n int) {
	_, err := fmt.Sscan(text, &n)
	require.NoError(t, err)
	return n
}

// The first one puts the plate right, the fat is counted with its allergens, an iron's light is kept.
func TestThePlateLearnsAndTheFatCounts(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	c.click(".heat .open")
	c.minutes()
	before := c.asks(`document.querySelector('.dialcard .said').innerText`)
	c.sees(`[...document.querySelectorAll('.verdicts .el-button')].find(b => b.innerText === 'pale').click() ?? true`)
	c.sees(`document.querySelector('.el-message')?.innerText.includes('turned up')`)
	c.sees(`document.querySelector('.dialcard .said').innerText !== '` + before + `'`)
	c.click(".el-message .undo-line .el-button")
	c.sees(`document.querySelector('.dialcard .said').innerText === '` + before + `'`)

	c.sees(`[...document.querySelectorAll('.fat .el-radio-button')].find(b => b.innerText === 'butter').querySelector('input').click() ?? true`)
	c.sees(`document.querySelector('.fat p').innerText.startsWith('Butter, unsalted') || document.querySelector('.fat p').innerText.startsWith('Butter,')`)
	c.minutes()
	c.saved()
	_, doc := c.stored()
	assert.Equal(t, map[string]any{"fat": "butter"}, doc["cook"])
	c.click(".doors .nutrition")
	c.sees(`document.querySelector('.el-dialog')?.innerText.includes('of fat from the pan')`)
	c.press(kb.Escape)
	c.closed()

	// What the plate cannot do gets a sentence, and nothing is lost while the program is away.
	c.sees(`(() => { window.away = window.fetch; window.fetch = () => Promise.reject(new TypeError('gone')); return true })()`)
	c.click(`[aria-label="5 °C more"]`)
	c.sees(`document.querySelector('.heatzone [role=alert]')?.innerText.includes('does not answer')`)
	c.sees(`(() => { window.fetch = window.away; return true })()`)
	c.click(`.heatzone [role=alert] .el-button`)
	c.sees(`!document.querySelector('.heatzone > [role=alert]')`)
	c.p.ForgetConsole()

	c.sees(`[...document.querySelectorAll('.forms .el-radio-button')].find(b => b.innerText.includes('Waffle')).querySelector('input').click() ?? true`)
	c.sees(`document.querySelector('.side h3')?.innerText === 'Closed' && document.querySelectorAll('.side').length === 1`)
	c.minutes()
	c.click(".light .el-button")
	c.sees(`document.querySelector('.light .go')?.disabled`)
	c.click(".light .el-button:not(.go)")
	c.keepsTheRules(1280, "an iron")
	c.sees(`document.querySelector('.maths').click() ?? true`)
	c.sees(`document.querySelector('.curves svg path')`)
}

// Every card of the drawer tells its heat, a moment later.
func TestCardsTellTheirHeat(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	lead := c.asks(`document.querySelector('[data-verdict=heat] b').innerText`)
	c.click("[aria-label=Variations]")
	c.sees(`[...document.querySelectorAll('[data-card]')].length === 7 && [...document.querySelectorAll('[data-card]')].every(e => /\s°C, /.test(e.innerText))`)
	assert.Contains(t, c.asks(`document.querySelector('[data-card="Beetroot & orange"]').innerText`), lead)
}

// A dial is mapped once, in the Kitchen: the bench speaks its marks.
func TestADialIsMapped(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL + "/kitchen"))
	c.types(`input[aria-label="The long plate at 5 in °C"]`, "110")
	c.sees(`document.querySelector('.fault')?.innerText.includes('has to be hotter')`)
	c.p.ForgetConsole()
	c.types(`input[aria-label="The long plate at 5 in °C"]`, "200")
	c.sees(`document.querySelector('.kitchen [data-save=saved]')`)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[data-verdict=heat]')?.innerText.includes('3')`)
}

// On a telephone and a tablet: a finger that scrolls over the heat changes nothing, one that drags does.
func TestTheHeatByFinger(t *testing.T) {
	k := kitchen(t)
	for _, size := range [][2]int64{{390, 844}, {820, 700}} {
		c := sits(t, k, size[0], size[1])
		require.NoError(t, c.p.Touch())
		c.do(chromedp.Navigate(k.URL))
		c.sees(`document.querySelector('[data-verdict=heat]')`)
		if size[0] < 700 {
			c.zone("Portion")
		}
		c.click(".heat .open")
		c.minutes()
		c.keepsTheRules(size[0], "the heat by finger")
		at := c.asks(degrees)
		c.sees(`(() => { document.querySelector('.heat-track').scrollIntoView({ block: 'center' }); return true })()`)
		y, err := stage.Ask[float64](c.p, `document.querySelector('.heat-track').getBoundingClientRect().y`)
		require.NoError(t, err)
		require.NoError(t, c.p.Swipe(".heat-track", -120))
		c.sees(fmt.Sprintf(`document.querySelector('.heat-track').getBoundingClientRect().y < %g`, y-30))
		c.sees(`(() => { const y = document.querySelector('.heat-track').getBoundingClientRect().y, rests = window.lastY === y; window.lastY = y; window.rested = rests ? (window.rested ?? 0) + 1 : 0; return window.rested > 12 })()`)
		assert.Equal(t, at, c.asks(degrees), "scrolled, not turned")
		require.NoError(t, c.p.Drag(".heat-track", 60))
		c.sees(degrees + ` !== '` + at + `'`)
		c.click(".heat .back")
		c.sees(`!document.querySelector('.heatzone')`)
		c.sees(`(() => { const says = document.querySelector('.heat small')?.innerText; if (says?.startsWith('` + at + `')) return true; if (says !== 'coming') document.querySelector('[aria-label=Undo]').click(); return false })()`)
		c.saved()
	}
}
