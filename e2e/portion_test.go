package e2e_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// opens takes a variation from its card.
func (c cook) opens(name string) {
	c.Helper()
	c.click("[aria-label=Variations]")
	c.click(fmt.Sprintf("[data-card=%q]", name))
	c.sees(fmt.Sprintf("document.querySelector('h1').innerText === %q", name))
	c.closed()
}

func TestDragTheLoadAndAskTheOtherWayRound(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.sees(`document.querySelector('[data-inclusion=walnuts_chopped]')`)
	// What is drawn is what is said.
	same := `Math.round(parseFloat(document.querySelector('[data-inclusion=walnuts_chopped] b').innerText)) === Number(document.querySelector('[data-pieces]').dataset.pieces)`
	c.sees(same)
	before, err := stage.Ask[string](c.p, `document.querySelector('[data-addition=walnuts_chopped] .amount').innerText`)
	require.NoError(t, err)
	at, err := stage.Ask[[]float64](c.p, `(() => {
		document.querySelector('.meter').scrollIntoView({ block: 'end' })
		const b = document.querySelector('.meter .el-slider__button').getBoundingClientRect()
		const r = document.querySelector('.meter .el-slider__runway').getBoundingClientRect()
		return [b.x + b.width / 2, b.y + b.height / 2, r.x + r.width * 0.8]
	})()`)
	require.NoError(t, err)
	c.do(chromedp.DragAndDropXY(at[0], at[1], at[2], at[1], 6))
	c.sees(`document.querySelector('.meter').dataset.load === 'over'`)
	c.sees(fmt.Sprintf("document.querySelector('[data-addition=walnuts_chopped] .amount').innerText !== %q", before))
	c.sees(same)
	c.notes(`document.querySelector('[data-note=load]')`)
	c.saved()

	c.click(".larger")
	c.sees(`document.querySelector('.portion-view [data-kind=walnuts_chopped]')`)
	c.click(".portion-view .asks span:nth-child(2) input")
	c.sees(`(document.activeElement.select(), true)`)
	c.do(chromedp.KeyEvent("9"), chromedp.KeyEvent(kb.Tab))
	c.click(".portion-view .asks span:nth-child(2) button")
	c.sees(`Math.abs(parseFloat(document.querySelector('.portion-view [data-kind=walnuts_chopped] .sum b').innerText) - 9) < 0.1`)
	c.press(kb.Escape)
	c.closed()
	c.sees(`document.querySelector('.meter').dataset.load === 'within'`)
	c.sees(same)
}

func TestHalfTheBowlAndManyKinds(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	// The bench opens with what was on it last; a drawer that has just closed may still take the focus.
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('h1')?.innerText === 'Carrot, cardamom & walnut' && document.querySelector('[data-inclusion=walnuts_chopped]')`)
	c.press("/")
	c.sees(`document.activeElement?.closest('.el-autocomplete')`)
	c.press("raisins")
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(li => li.innerText.includes('Raisins'))`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('[data-inclusion=raisins]')`)
	c.click(".larger")
	c.sees(`document.querySelectorAll('.portion-view .kind').length === 2`)
	c.click(".portion-view .many button")
	c.sees(`document.querySelector('.portion-view .many > span')?.innerText.includes('none of any kind')`)
	c.click(".portion-view [data-kind=raisins] .share")
	c.sees(`[...document.querySelectorAll('.el-select-dropdown__item')].some(e => e.innerText.trim() === 'half of them' && e.offsetParent)`)
	_, err := stage.Ask[bool](c.p, `[...document.querySelectorAll('.el-select-dropdown__item')].find(e => e.innerText.trim() === 'half of them' && e.offsetParent).click() ?? true`)
	require.NoError(t, err)
	c.sees(`document.querySelector('.portion-view [data-kind=raisins] .sum').innerText.includes('of the portions that get it')`)
	c.sees(`!document.querySelector('.portion-view .many > span')`)
	c.click(".portion-view .el-dialog__headerbtn")
	c.closed()
	c.saved()
	_, doc := c.stored()
	if got := fmt.Sprint(doc["additions"]); !strings.Contains(got, "share_of_bowl:0.5") {
		t.Errorf("the share is not kept: %s", got)
	}
}

func TestTheKitchenIsUsedOnTheBench(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.press("f")
	c.sees(`document.querySelector('.facts').innerText.includes('of the mould')`)
	c.saved()
	const fill = `parseFloat(document.querySelector('.facts div:nth-child(3) dd').innerText)`
	before, err := stage.Ask[float64](c.p, fill)
	require.NoError(t, err)
	c.click("a[href='/kitchen']")
	c.sees(`document.querySelectorAll('.kitchen li').length === 7`)
	c.click(".iron .sizes label:nth-child(2) input")
	c.sees(`(document.activeElement.select(), true)`)
	c.do(chromedp.KeyEvent("200"), chromedp.KeyEvent(kb.Tab))
	c.sees(`[...document.querySelectorAll('.kitchen [role=alert]')].some(e => e.innerText.includes('between 3 and 80'))`)
	c.p.ForgetConsole() // the browser itself reports the 400
	c.click(".iron .sizes label:nth-child(2) input")
	c.sees(`(document.activeElement.select(), true)`)
	c.do(chromedp.KeyEvent("13"), chromedp.KeyEvent(kb.Tab))
	c.sees(`document.querySelector('.kitchen [data-save=saved]')`)
	c.click("[aria-label='Take Small ladle off the list']")
	c.sees(`document.querySelectorAll('.kitchen li').length === 6`)
	c.click(".kitchen .bar .el-button")
	c.sees(`document.querySelectorAll('.kitchen li').length === 7`)

	c.click(".rail a")
	c.sees(`document.querySelector('.facts')?.innerText.includes('of the mould')`)
	// Half the height of the mould is filled twice as full.
	c.sees(fmt.Sprintf("Math.abs(%s - %g) <= 2", fill, 2*before))

	// A scoop by its number gives what a scoop of that number holds.
	c.click(".ladle .el-select")
	c.sees(`[...document.querySelectorAll('.el-select-dropdown__item')].some(e => e.innerText.trim().startsWith('Scoop 12') && e.innerText.includes('79 ml') && e.innerText.includes('portions'))`)
	_, err = stage.Ask[bool](c.p, `[...document.querySelectorAll('.el-select-dropdown__item')].find(e => e.innerText.trim().startsWith('Scoop 12')).click() ?? true`)
	require.NoError(t, err)
	c.sees(`document.querySelector("[aria-label='Portion in ml']").value === '78.9' || document.querySelector("[aria-label='Portion in ml'] input")?.value === '78.9'`)
	c.saved()
}
