package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

const (
	rim       = `document.querySelector('g.rim')`
	rimAt     = `Number(` + rim + `.getAttribute('aria-valuenow'))`
	firstSide = `document.querySelector('[aria-label=Portion]').innerText.match(/\d+:\d\d/)?.[0]`
	asSpread  = `document.querySelector('[data-spread]')?.innerText`
)

// The rim of the portion is pulled by the mouse and by the keys: portion, heat and steps follow, it is kept, and goes
// back in a tap.
func TestTheRimIsPulled(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.sees(rim)
	before := c.asks(`String(` + rimAt + `)`)
	c.sees(firstSide)
	minutes := c.asks(firstSide)
	at, err := stage.Ask[[]float64](c.p, `(() => { const r = document.querySelector('g.rim .knob').getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`)
	require.NoError(t, err)
	require.NoError(t, c.p.MouseDrag(at[0], at[1], at[0]+6, at[1]))
	c.sees(asSpread + `?.includes('Spread it with the back of the spoon to ' + ` + rimAt + ` + ' mm')`)
	c.sees(rimAt + ` > ` + before)
	c.sees(firstSide + ` !== '` + minutes + `'`)
	c.sees(`(document.querySelector('g.rim').focus(), true)`)
	c.press(kb.Home)
	c.sees(asSpread + `?.includes('Left alone')`)
	c.press(kb.PageUp)
	c.sees(asSpread + `?.includes('Spread it with the back of the spoon')`)
	c.keepsTheRules(1280, "a pulled rim")
	c.saved()
	_, doc := c.stored()
	assert.Equal(t, "hand", doc["portion"].(map[string]any)["spread"].(map[string]any)["by"])
	assert.Equal(t, 3.0, doc["version"])
	c.do(chromedp.Reload())
	c.sees(asSpread + `?.includes('Spread it')`)
	c.click("[data-spread] .el-button")
	c.sees(`!` + asSpread)
	c.sees(rimAt + ` === ` + before)

	// Another form takes no width over from it.
	c.sees(`(document.querySelector('g.rim').focus(), true)`)
	c.press(kb.PageUp)
	c.sees(asSpread + `?.includes('Spread it')`)
	c.sees(`(() => { const b = [...document.querySelectorAll('.forms label')].find(l => l.innerText.includes('Waffle')); b?.click(); return !!b })()`)
	c.sees(`document.querySelector('h1') && !document.querySelector('g.rim') && document.querySelector('[data-verdict=heat]')?.innerText.includes('closed')`)
	c.sees(`document.querySelector('[data-verdict=portion]').innerText.replace(/\s/g, ' ').includes('220 ml each')`) // what the pier iron takes
	c.saved()
	_, doc = c.stored()
	assert.Nil(t, doc["portion"])
	c.sees(`(() => { const b = [...document.querySelectorAll('.forms label')].find(l => l.innerText.includes('Pancake')); b?.click(); return !!b })()`)
	c.sees(`document.querySelector('[data-verdict=portion]').innerText.replace(/\s/g, ' ').includes('60 ml each') && ` + asSpread + `?.includes('Spread it')`)
}

// A finger that scrolls over the rim changes nothing, one that goes along it does.
func TestTheRimUnderAFinger(t *testing.T) {
	c := sits(t, kitchen(t), 390, 844)
	require.NoError(t, c.p.Touch())
	c.opens("Carrot, cardamom & walnut")
	c.zone("Portion")
	c.sees(rim)
	before := c.asks(`String(` + rimAt + `)`)
	require.NoError(t, c.p.Swipe("g.rim", -60))
	assert.Equal(t, before, c.asks(`String(`+rimAt+`)`))
	require.NoError(t, c.p.Drag("g.rim", 14))
	c.sees(rimAt + ` > ` + before + ` && ` + rimAt + ` < 130`)
	c.sees(asSpread + `?.includes('Spread it')`)
	c.keepsTheRules(390, "a pulled rim on a telephone")
}
