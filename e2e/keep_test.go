package e2e_test

import (
	"net/http"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every saved state is listed, compared line by line and brought back, with a step back; what was put aside can
// be taken away for good, after a question.
func TestEverySavedStateComesBack(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	before := c.agrees("milk_whole")
	c.press("++++")
	c.sees(`document.querySelector('[data-save=changed]')`)
	c.saved()
	now := c.agrees("milk_whole")
	require.NotEqual(t, before, now)
	c.more("Versions")
	c.click(`.el-dialog [aria-label="Which states"] label:nth-child(2)`)
	c.sees(`document.querySelectorAll('.el-dialog .rows li').length > 1 && document.querySelector('.el-dialog .rows li').innerText.includes('as it is now')`)
	c.reachable("every saved state")
	c.click(".el-dialog .rows li:last-child .el-button")
	c.sees(`document.querySelector('.el-dialog tr[data-change=more], .el-dialog tr[data-change=less]')`)
	c.sees(`(() => { const b = [...document.querySelectorAll('.el-dialog .el-button')].find(b => b.innerText.startsWith('Go back to')); b?.click(); return !!b })()`)
	c.sees(`!document.querySelector('.el-dialog .rows')?.checkVisibility()`)
	c.sees(`document.querySelector('[data-save=changed]')`)
	assert.Equal(t, before, c.agrees("milk_whole"))
	c.press(kb.Escape)
	c.click("[aria-label=Undo]")
	assert.Equal(t, now, c.agrees("milk_whole"))

	c.click("[aria-label=Variations]")
	c.click(`[aria-label="Put aside Spinach crêpe"]`)
	c.sees(`!document.querySelector('[data-card="Spinach crêpe"]')`)
	c.do(chromedp.Navigate(c.k.URL + "/kitchen"))
	c.click(`[aria-label="Take Spinach crêpe away for good"]`)
	c.sees(`document.querySelector('.el-message-box')?.checkVisibility()`)
	c.reachable("taking away for good")
	c.click(".el-message-box .go")
	c.sees(`document.querySelector('.put-aside').innerText.includes('Nothing is put aside')`)
}

// A base has a past as well: it is compared line by line, put into the editor, and kept like any change.
func TestABaseAsItWas(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	var list struct{ Items []struct{ ID, Name string } }
	c.get("/api/v1/bases", &list)
	c.do(chromedp.Navigate(c.k.URL + "/bases"))
	change := `[data-base="` + list.Items[0].Name + `"] .acts .el-button:nth-child(2)`
	milk := `.editor [aria-label^="Amount"]`
	was := ""
	for _, to := range []string{"", "371"} {
		c.click(change)
		c.sees(`document.querySelector('` + milk + `')`)
		if to == "" {
			c.sees(`[...document.querySelectorAll('.editor .el-button')].some(b => b.innerText === 'As it was')`)
			was = c.asks(`document.querySelectorAll('` + milk + `')[1].value`)
			c.press(kb.Escape)
			c.sees(`!document.querySelector('.editor')`)
			continue
		}
		c.sees(`(() => { const e = document.querySelectorAll('` + milk + `')[1]; e.focus(); e.select(); return document.activeElement === e })()`)
		c.do(chromedp.KeyEvent(to + kb.Tab))
		c.click(".editor .go")
		c.sees(`!document.querySelector('.editor')`)
	}
	c.click(change)
	c.sees(`(() => { const b = [...document.querySelectorAll('.editor .el-button')].find(b => b.innerText === 'As it was'); b?.click(); return !!b })()`)
	c.sees(`document.querySelectorAll('.base-history li').length === 2`)
	c.click(".base-history li:last-child .el-button")
	c.sees(`document.querySelector('.base-history tr[data-change=more], .base-history tr[data-change=less]')`)
	c.reachable("a base as it was")
	c.click(".base-history .choose")
	c.sees(`document.querySelectorAll('` + milk + `')[1]?.value === '` + was + `'`)
	c.click(".editor .go")
	c.sees(`!document.querySelector('.editor')`)
}

// A version gets another name, by keyboard, loses it and has it back; what was put aside comes
// back from the Kitchen.
func TestNothingThatWasKeptIsLost(t *testing.T) {
	c := sits(t, kitchen(t), 820, 1180)
	c.more("Versions")
	c.sees(`document.querySelector('.el-dialog [aria-label="Name of this version"]')`)
	c.click(`.el-dialog [aria-label="Name of this version"]`)
	c.do(chromedp.KeyEvent("For the frist ferry" + kb.Enter))
	c.sees(`document.querySelector('.el-dialog li b')?.innerText === 'For the frist ferry'`)
	c.click(`[aria-label="Rename “For the frist ferry”"]`)
	c.sees(`document.activeElement?.ariaLabel?.startsWith('Name of “')`)
	c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(2)))
	c.do(chromedp.KeyEvent("For the first ferry" + kb.Enter))
	c.sees(`document.querySelector('.el-dialog li b')?.innerText === 'For the first ferry'`)
	c.click(`[aria-label="Take “For the first ferry” off the list"]`)
	c.sees(`!document.querySelector('.el-dialog li')`)
	c.click(".undo-line .el-button")
	c.sees(`document.querySelector('.el-dialog li b')?.innerText === 'For the first ferry'`)

	id, doc := c.stored()
	req, err := http.NewRequest("DELETE", c.k.URL+"/api/v1/variations/"+id, nil)
	require.NoError(t, err)
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	resp.Body.Close()
	c.do(chromedp.Navigate(c.k.URL + "/kitchen"))
	c.sees(`document.querySelectorAll('.put-aside li').length === 1`)
	c.click(".put-aside li .el-button")
	c.sees(`document.querySelector('.looked-aside pre')?.innerText.includes('Contains')`)
	c.reachable("what was put aside")
	c.press(kb.Escape)
	c.sees(`!document.querySelector('.looked-aside pre')?.checkVisibility()`)
	c.click(".put-aside li .back")
	c.sees(`document.querySelector('.put-aside').innerText.includes('Nothing is put aside')`)
	back, again := c.stored()
	assert.Equal(t, id, back)
	assert.Equal(t, doc, again)

	const name = `.kitchen .fields .wide input`
	c.click(name)
	c.do(chromedp.KeyEvent(" by night"))
	c.sees(`document.querySelector('.kitchen [data-save=changed]')`)
	c.sees(`document.querySelector('.kitchen [data-save=saved]')`)
	c.click(".kitchen .bar .el-button")
	c.sees(`document.querySelectorAll('.el-dialog li').length === 1`)
	c.click(".el-dialog li .el-button")
	c.sees(`document.querySelector('` + name + `').value === 'Halyard Hatch' && document.querySelector('.kitchen [data-save=saved]')`)
	var own struct{ Document struct{ Name string } }
	c.get("/api/v1/kitchen", &own)
	assert.Equal(t, "Halyard Hatch", own.Document.Name)
}
