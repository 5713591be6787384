package e2e_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A recipe that was written with its beetroot in it moves nothing; carrot in the beetroot's place
// keeps its batter; the base behind it is worked out and kept; six portions fewer and six more
// are the same document.
func TestARecipeAsWritten(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	milk := func() float64 { return c.figure(milkWeigh) }
	assert.InDelta(t, 595, milk(), 1)
	c.click(".tool")
	c.sees(`document.querySelector('.el-dialog .holds')`)
	c.click(".el-dialog .el-radio-button:nth-child(2)")
	c.sees(`document.querySelector('[data-line=milk_whole] .out').innerText.startsWith('780')`)
	c.sees(`[...document.querySelectorAll('.glass')].every(g => g.dataset.state === 'level')`)
	c.click(".el-dialog .row .el-button:last-child")
	c.sees(`document.querySelector('.behind')?.innerText.includes('Whole milk 9')`)
	c.click(".behind .go")
	c.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('among your bases'))`)
	c.press(kb.Escape)
	c.closed()

	c.click("[aria-label='Something else instead of Beetroot']")
	c.click(".instead input")
	c.press("boiled carrot")
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(li => li.innerText.startsWith('Carrot, boiled') && li.offsetParent)`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('[data-addition=carrot_cooked]')`)
	c.sees(`parseFloat(document.querySelector('[data-line=milk_whole] .out').innerText) > 780`) // carrot is drier than beetroot
	c.sees(`document.querySelector('[data-gauge=Thickness]').title.includes('like the recipe')`)
	c.saved()
	_, doc := c.stored()
	assert.EqualValues(t, 2, doc["version"])
	require.NotNil(t, doc["reference"])

	for range 6 {
		n := c.figure(".count b")
		c.taps(".count .el-button:first-child")
		c.sees(`Number(document.querySelector('.count b').innerText) === ` + fmt.Sprint(n-1))
	}
	c.sees(`document.querySelector('.count').innerText.includes('asked for')`)
	for range 6 {
		n := c.figure(".count b")
		c.taps(".count .figure + .el-button")
		c.sees(`Number(document.querySelector('.count b').innerText) === ` + fmt.Sprint(n+1))
	}
	c.saved()
	_, after := c.stored()
	assert.Equal(t, doc, after)

	c.click(".count .el-button:first-child")
	c.sees(`document.querySelector('.count').innerText.includes('asked for')`)
	c.click("[aria-label='More Carrot']")
	c.sees(`!document.querySelector('.count').innerText.includes('asked for')`)
	c.saved()
	_, written := c.stored()
	assert.Nil(t, written["portion"].(map[string]any)["count"], "the amounts are written out before one of them changes")
	assert.NotEqual(t, doc["base"], written["base"])
}

// What is not on the shelf is said, and becomes an ingredient of one's own in a tap; words that
// other kitchens use find what is there.
func TestNothingOfThatName(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.press("/")
	c.sees(`document.activeElement?.closest('.el-autocomplete')`)
	c.press("200 g zuchini" + kb.Enter)
	c.sees(`document.querySelector('[data-addition=courgette_grated]') && !document.activeElement?.closest('.el-autocomplete')`)
	c.press("/")
	c.sees(`document.activeElement?.closest('.el-autocomplete')`)
	c.press("/sea buckthorn") // the key once more is no letter of a name
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(li => li.offsetParent && li.innerText.includes('an ingredient of your own'))`)
	c.press(kb.Enter)
	c.sees(`location.pathname === '/pantry' && new URLSearchParams(location.search).get('own') === 'sea buckthorn'`)
	c.sees(`[...document.querySelectorAll('.el-dialog input')].some(i => i.value === 'sea buckthorn')`)
}
