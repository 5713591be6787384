package e2e_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// way chooses one of the ways of the heat panel by its words.
func (c cook) way(words string) {
	c.Helper()
	label := fmt.Sprintf(`[...document.querySelectorAll('.ways label')].find(l => l.innerText.trim() === %q)`, words)
	c.sees(`(() => { const b = ` + label + `; b?.click(); return !!b })()`)
	c.sees(label + `.classList.contains('is-active')`)
}

// A cook's own minutes are used as they are, a heat in steps is told where it is turned, fat is so many grams a piece: all
// kept over a reload, and taken back in a tap.
func TestTheCooksOwnMinutesAndSteps(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	c.press("h")
	ours := c.minutes()
	c.way("my own")
	c.sees(`document.querySelector('.own')?.innerText.includes('Ours would be')`)
	c.taps(`.own [aria-label="5 s more, first side"]`)
	c.sees(`document.querySelector('.own output').innerText !== '` + ours[:4] + `'`)
	own := c.minutes()
	assert.NotEqual(t, ours, own)

	c.way("in steps")
	c.click(`.steps label:nth-of-type(3) .el-select`)
	c.chooses("4")
	c.sees(`document.querySelector('.steps').innerText.includes('Down to 4')`)
	assert.Equal(t, own[:4], c.minutes()[:4], "theirs, whatever is turned")
	c.taps(`.each [aria-label="0.5 g more for each piece"]`)
	c.sees(`document.querySelector('.each').innerText.includes('the usual')`)
	c.keepsTheRules(1280, "own minutes and steps")
	c.saved()
	_, doc := c.stored()
	cook := doc["cook"].(map[string]any)
	assert.Equal(t, "typed", cook["own"].([]any)[0].(map[string]any)["from"])
	assert.Equal(t, map[string]any{"at": "flip", "mark": "4"}, cook["heat"].([]any)[0])
	assert.Equal(t, "pan", doc["parts"].([]any)[len(doc["parts"].([]any))-1].(map[string]any)["kind"])
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	c.press("h")
	assert.Equal(t, own, c.minutes(), "after a reload")
	c.way("worked out")
	c.sees(`!document.querySelector('.own')`)
	c.way("one heat")
	c.sees(`!document.querySelector('.steps')`)
	assert.Equal(t, ours, c.minutes())
}

// The whole bowl as one cake: its own figures, no width to pull, and a ladle again in a tap.
func TestOneCakeOfTheWholeBowl(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.sees(rim)
	c.click(`.ladle .el-select`)
	c.sees(`(() => { const o = [...document.querySelectorAll('.el-select-dropdown__item')].find(e => e.innerText.startsWith('One cake') && e.offsetParent); o?.click(); return !!o })()`)
	c.sees(`document.querySelector('[data-verdict=portion]').innerText.includes('One cake')`)
	c.sees(`document.querySelector('.count').innerText.includes('cake of all') && !document.querySelector('.spread-row')`)
	c.keepsTheRules(1280, "one cake")
	c.saved()
	_, doc := c.stored()
	assert.Equal(t, map[string]any{"one_cake": true}, doc["portion"])
	c.sees(`(() => { const b = [...document.querySelectorAll('.forms label')].find(l => l.innerText.includes('Crêpe')); b?.click(); return !!b })()`)
	c.sees(`document.querySelector('[data-verdict=portion]').innerText.includes('crêpes')`)
	c.saved()
	_, doc = c.stored()
	assert.Nil(t, doc["portion"], "a crêpe is poured by the ladle")
}
