package e2e_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

const pierTalk = `Crêpes of the pier
0:03 so it is two hundred and fifty grams of flour
0:08 five hundred of milk grams as well and three eggs
0:12 and a heaped teaspoon of cinnamon and that rests while we do the caramel
0:18 so in a saucepan a hundred and fifty grams of sugar until it is amber
0:22 and then a hundred and twenty grams of cream and thirty grams of butter okay and back to the batter
0:30 so again the flour two hundred and fifty grams and forty grams of zonks and there is no vanilla in it
0:37 and half a teaspoon of oil for each one in the pan it makes about two`

// reader opens the reader and pastes a text.
func (c cook) reader(text string) {
	c.Helper()
	c.click("a[href='/bases']")
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .go")
	c.pastes(text)
}

// inGroup counts the lines of a group of the reader by its heading.
func inGroup(name string, n int) string {
	return fmt.Sprintf(`document.querySelectorAll('.reader section[aria-label=%q] li').length === %d`, name, n)
}

// A talk is heard as a bowl and its pot: what is told twice is there once, the caramel is kept among the sauces with the recipe and
// goes with it when it is undone, the allergens are those of both.
func TestATalkIsABowlAndItsPot(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.reader(pierTalk)
	c.sees(inGroup("In the bowl", 5) + ` && ` + inGroup("Caramel", 3) + ` && ` + inGroup("For the pan and the table", 1))
	c.sees(`document.querySelector('.reader .strip').innerText.includes('it says 2') && document.querySelector('.reader .strip').innerText.includes('far apart')`)
	c.sees(`document.querySelector('[data-read=plain_flour]').innerText.includes('0:03') && document.querySelector('[data-read=plain_flour]').innerText.includes('0:30')`)
	c.click("[data-read=plain_flour] .again .el-button")
	c.sees(`(() => { const e = document.querySelector('#paste'); return e.value.slice(e.selectionStart, e.selectionEnd) === 'two hundred and fifty grams of flour' })()`)
	c.click(".heard summary")
	c.sees(`document.querySelector('.heard').innerText.includes('vanilla')`)
	c.sees(`document.querySelector('[data-read=cinnamon] [aria-label^="How full"]')`)
	c.keepsTheRules(1280, "a talk in the reader")

	// A word of the house is taught, and forgotten by a tap.
	c.click(".reader [data-status=not_understood] .what")
	c.do(chromedp.KeyEvent("hazelnuts"))
	c.chooses("Hazelnuts, chopped")
	c.sees(`document.querySelector('.reader [data-read=hazelnuts_chopped]')?.innerText.includes('Always take “zonks” for hazelnuts')`)
	c.click("[data-read=hazelnuts_chopped] .asks .el-button")
	c.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('“zonks” is remembered'))`)
	c.sees(`document.querySelector('.reader .allergens').innerText.includes('hazelnut')`)

	// From line to line by the keys.
	c.sees(`(() => { document.querySelector('[data-read=plain_flour] .much input').focus(); return true })()`)
	c.do(chromedp.KeyEvent(kb.ArrowDown))
	c.sees(`document.activeElement.closest('li')?.dataset.read === 'milk_whole'`)

	// Both are counted, and once again.
	c.sees(`(() => { [...document.querySelectorAll('[data-read=plain_flour] .again .el-button')].at(-1).click(); return true })()`)
	c.sees(`document.querySelector('[data-read=plain_flour] .much input').value === '500'`)
	c.sees(`(() => { [...document.querySelectorAll('[data-read=plain_flour] .again .el-button')].at(-1).click(); return true })()`)
	c.sees(`document.querySelector('[data-read=plain_flour] .much input').value === '250'`)

	c.click(".reader .foot .go")
	c.sees(`document.querySelector('h1').innerText === 'Crêpes of the pier'`)
	c.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('with “Caramel” among the sauces'))`)
	_, doc := c.stored()
	parts := doc["parts"].([]any)
	assert.Equal(t, "Caramel", parts[0].(map[string]any)["sauce"].(map[string]any)["name"])
	assert.NotNil(t, parts[0].(map[string]any)["sauce_ref"])
	c.sees(`document.querySelector('[data-verdict=allergens]').innerText.includes('hazelnut')`)
	c.sees(`fetch('/api/v1/sauces').then(r => r.json()).then(l => { window.there = l.items.some(s => s.document.name === 'Caramel') }) && window.there`)
	c.sees(`(() => { const m = [...document.querySelectorAll('.el-message')].find(m => m.innerText.includes('among the sauces')); m?.querySelector('button').click(); return !!m })()`)
	c.sees(`document.querySelector('h1').innerText !== 'Crêpes of the pier'`)
	c.sees(`fetch('/api/v1/sauces').then(r => r.json()).then(l => { window.gone = !l.items.some(s => s.document.name === 'Caramel') }) && window.gone`)

	// The kitchen lists its words, and forgets them.
	c.click("a[href='/kitchen']")
	c.click(`[aria-label="Forget “zonks”"]`)
	c.sees(`!document.querySelector('.own-word')`)
}

// Another amount of the same is one question; a line goes where it is sent, into a sauce of its own too; on a phone and on a tablet.
func TestBothOrOnlyOneAndWhereItGoes(t *testing.T) {
	c := sits(t, kitchen(t), 820, 1180)
	c.reader("Buns of the pier\nA quarter of a cup of sugar with two cups of flour and two eggs, and a cup and a half of milk. And at the end one cup of sugar. Then two hundred grams of blueberries.")
	c.sees(`document.querySelectorAll('.reader [data-status=unsure]').length === 2`)
	c.sees(`document.querySelector('[data-read=granulated_sugar] .asks').innerText.includes('both, or only one?')`)
	c.keepsTheRules(820, "both or only one")
	c.sees(`(() => { [...document.querySelectorAll('.reader .asks .el-button')].find(b => b.innerText === 'Only 0.25 cup')?.click(); return true })()`)
	c.sees(`document.querySelectorAll('.reader li.out').length === 1 && document.querySelectorAll('.reader [data-status=unsure]:not(.out)').length === 0`)
	c.click("[data-read=blueberry_fresh] .place")
	c.chooses("a sauce of its own")
	c.sees(inGroup("Compote", 1))
	c.click("[data-read=blueberry_fresh] .place")
	c.chooses("on top")
	c.sees(inGroup("For the pan and the table", 1))
	c.do(chromedp.EmulateViewport(390, 844))
	c.keepsTheRules(390, "where a line goes")
}
