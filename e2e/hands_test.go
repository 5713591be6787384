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

const longRecipe = `Beetroot, orange and roasted hazelnut breakfast pancakes with a very long name from the far end of the quay

Makes about 14 pancakes

2 cups flour
2 tsp baking powder
1 pinch salt
2 eggs
300 ml milk
40 g butter
some sugar
150 g cooked beetroot
1 tsp orange zest
50 g hazelnuts

To serve:
crème fraîche
1 flurb of extraordinarily-long-unbroken-zonkberry-preserve-from-somewhere`

// tabsTo presses Tab until the focus is on something.
func (c cook) tabsTo(what string) {
	c.Helper()
	for range 120 {
		on, err := stage.Ask[bool](c.p, `!!document.activeElement?.matches('`+what+`')`)
		require.NoError(c, err)
		if on {
			return
		}
		c.press(kb.Tab)
	}
	c.Errorf("Tab never came to %s", what)
	c.FailNow()
}

// A recipe is pasted, asked about and kept without a mouse; Escape gives up only what lies on top.
func TestTheReaderByKeyboardAlone(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL + "/bases"))
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.tabsTo(".bases .bar .go")
	c.press(kb.Enter)
	c.sees(`document.querySelector('.reader')?.offsetParent`)
	c.tabsTo("#paste")
	c.pastes(longRecipe)
	c.sees(`document.querySelectorAll('.reader [data-status]').length === 12`)
	c.tabsTo(".reader .foot .go")
	c.press(kb.Enter)
	c.sees(`document.querySelectorAll('.still-open li').length === 2 && document.querySelector('.still-open').contains(document.activeElement)`)
	c.press(kb.Escape)
	c.sees(`!document.querySelector('.still-open')?.offsetParent && document.querySelector('.reader')?.offsetParent`)
	c.tabsTo(`[aria-label="Amount of “some sugar”"]`)
	c.press("30" + kb.Tab)
	c.sees(`document.querySelector('[data-read=granulated_sugar][data-status=read]')`)
	c.tabsTo(".reader .foot .go")
	c.press(kb.Enter)
	c.sees(`document.querySelectorAll('.still-open li').length === 1 && document.querySelector('.still-open').innerText.includes('allergens not known')`)
	// What cannot be kept stays where it is and says so.
	c.sees(`(() => { window.away = window.fetch; window.fetch = () => Promise.reject(new TypeError('gone')); return true })()`)
	c.tabsTo(".still-open footer .el-button:not(.go)")
	c.press(kb.Enter)
	c.sees(`document.querySelector('.foot [role=alert]')?.innerText.includes('Not saved')`)
	c.sees(`(() => { window.fetch = window.away; return document.querySelectorAll('.reader [data-status]').length === 12 })()`)
	c.tabsTo(".reader .foot .go")
	c.press(kb.Enter)
	c.sees(`document.querySelector('.still-open')?.offsetParent`)
	c.tabsTo(".still-open footer .el-button:not(.go)")
	c.press(kb.Enter)
	c.sees(`document.querySelector('h1')?.innerText.startsWith('Beetroot, orange and roasted')`)
	c.keepsTheRules(1280, "a recipe with a long name")
	c.sees(`document.querySelector('.beside')?.innerText.includes('crème fraîche')`)

	// The text it was read from lies over what the batter is held to; each Escape takes one away.
	c.tabsTo(".tool")
	c.press(kb.Enter)
	c.tabsTo(".el-dialog .source")
	c.press(kb.Enter)
	c.sees(`document.querySelector('.source-text')?.innerText.includes('zonkberry')`)
	c.press(kb.Escape)
	c.sees(`!document.querySelector('.source-text')?.offsetParent && document.querySelector('.el-dialog .holds')?.offsetParent`)
	c.press(kb.Escape)
	c.closed()

	// Taken off and brought back, and there after a reload.
	c.tabsTo(`[aria-label="Take off crème fraîche"]`)
	c.press(kb.Enter)
	c.sees(`!document.querySelector('.beside').innerText.includes('crème fraîche')`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(`document.querySelector('.beside').innerText.includes('crème fraîche')`)
	c.saved()
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('.beside')?.innerText.includes('crème fraîche')`)
	c.sees(`document.querySelector('[aria-label=Verdict]')?.innerText.includes('not known')`)
}

// A finger that scrolls over the lines opens nothing and changes nothing, on a telephone and on a tablet.
func TestTheReaderByFinger(t *testing.T) {
	k := kitchen(t)
	for _, size := range [][2]int64{{390, 844}, {820, 1180}} {
		c := sits(t, k, size[0], size[1])
		require.NoError(t, c.p.Touch())
		c.do(chromedp.Navigate(k.URL + "/bases"))
		c.click(".bases .bar .go")
		c.pastes(longRecipe)
		c.sees(`document.querySelectorAll('.reader [data-status]').length === 12`)
		c.sees(`(() => { document.querySelector('[data-read=egg_whole]').scrollIntoView({ block: 'center' }); return true })()`)
		before, err := stage.Ask[float64](c.p, `document.querySelector('[data-read=egg_whole]').getBoundingClientRect().y`)
		require.NoError(t, err)
		require.NoError(t, c.p.Swipe("[data-read=egg_whole] .what", -160))
		c.sees(fmt.Sprintf(`document.querySelector('[data-read=egg_whole]').getBoundingClientRect().y < %g`, before-40))
		lists, err := stage.Ask[float64](c.p, `[...document.querySelectorAll('.el-select-dropdown')].filter(e => e.offsetParent).length`)
		require.NoError(t, err)
		assert.Zero(t, lists, "no list opened")
		c.keepsTheRules(size[0], "the reader by finger")
		c.click(".reader .foot .go")
		c.sees(`document.querySelectorAll('.still-open li').length === 2`)
		c.keepsTheRules(size[0], "what is still open by finger")
		c.click(".still-open footer .el-button:not(.go)")
		c.sees(`document.querySelector('h1')?.innerText.startsWith('Beetroot, orange and roasted')`)
		c.keepsTheRules(size[0], "the bench with a long name")
	}
}

// A line that is only taken for its ingredient is called so on the bench until a cook says that it is that; another thing is typed into
// the field that opens, and no letter of its name does anything else.
func TestWhatIsNotKnownIsCalledSo(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL + "/bases"))
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .go")
	c.sees(`document.querySelector('.reader')?.offsetParent`)
	c.pastes("Ingredients\n200 g rice flour\n40 g mustard flour\n2 eggs\n200 ml water\n60 g walnuts\nMethod\nMix.")
	c.sees(`document.querySelectorAll('.reader [data-status]').length === 5 && document.querySelector('.reader [data-read=plain_flour]').dataset.status === 'unsure'`)
	c.sees(`document.querySelector('.reader .allergens').innerText.includes('not known: “40 g mustard flour”')`)
	c.click(".reader .foot .go")
	c.sees(`document.querySelector('.still-open')?.offsetParent`)
	c.click(".still-open footer .el-button:not(.go)") // save it so
	c.sees(`document.querySelector('[data-line=plain_flour] .doubt')?.innerText.includes('mustard')`)
	c.sees(`document.querySelector('.verdict').innerText.includes('mustard flour”')`)
	c.click("[data-line=plain_flour] .pin .el-button")
	c.sees(`(() => { const e = [...document.querySelectorAll('.row-menu li')].find(l => l.offsetParent && l.innerText.includes('It is plain')); e?.click(); return !!e })()`)
	c.sees(`!document.querySelector('.ledger .doubt') && !document.querySelector('.verdict').innerText.includes('mustard')`)
	at := must(stage.Ask[string](c.p, `location.pathname`))
	c.click("[data-addition=walnuts_chopped] h3")
	c.click("[data-addition=walnuts_chopped] [title='Instead of this']")
	c.sees(`document.activeElement?.closest('.instead')`)
	c.press("pumpkin")
	c.sees(`document.activeElement.value === 'pumpkin' && location.pathname === '` + at + `'`)
	c.sees(`[...document.querySelectorAll('.finds li')].some(l => l.offsetParent && l.innerText.includes('Pumpkin'))`)
}

// On a phone the additions are a drawer in which a dose can be typed.
func TestADoseIsTypedOnAPhone(t *testing.T) {
	phone := sits(t, kitchen(t), 390, 844)
	phone.saved()
	phone.click(".dock .open")
	phone.sees(`document.querySelector('.shelf-drawer .shelf').getBoundingClientRect().width > 280 && document.querySelector('.shelf-drawer .card.active .typed').getBoundingClientRect().width > 60`)
	phone.click(".shelf-drawer .card.active .typed input")
	phone.press("123" + kb.Enter)
	phone.sees(`document.querySelector('.shelf-drawer .card.active .amount').innerText.startsWith('123')`)
}
