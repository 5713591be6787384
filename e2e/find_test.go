package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// One search goes anywhere, from anywhere: by the keyboard with a slip of the keys, and by a tap on a telephone.
func TestGoAnywhere(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	goTo := func() {
		c.do(chromedp.KeyEvent("k", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
		c.sees(`document.activeElement?.matches('.go-anywhere input') && document.querySelectorAll('[data-found]').length > 10`)
	}
	goTo()
	c.keepsTheRules(1280, "go anywhere")
	c.reachable("go anywhere")
	c.press("spinich" + kb.Enter)
	c.sees(`document.querySelector('h1')?.innerText === 'Spinach crêpe'`)
	c.closed()
	goTo()
	c.press("hatch cult" + kb.Enter)
	c.sees(`location.pathname === '/bases' && document.querySelector('.card.asked')?.dataset.base === 'Hatch cultured'`)
	goTo()
	c.press("rhubarb")
	c.sees(`[...document.querySelectorAll('[data-found]')].some(r => r.innerText.includes('in the pantry'))`)
	c.sees(`document.querySelector('[data-found="Rhubarb & ginger"]')`)
	c.press("zzz")
	c.sees(`document.querySelector('.go-anywhere').innerText.includes('Nothing is called that')`)
	c.press(kb.Escape)
	c.closed()

	p := sits(t, k, 390, 844)
	p.click(".rail button")
	p.sees(`document.querySelectorAll('[data-found]').length > 10`)
	p.keepsTheRules(390, "go anywhere on a telephone")
	p.click(`[data-found="Pantry"]`)
	p.sees(`location.pathname === '/pantry'`)
}

// The list of variations leaves out what may hold an allergen, says that this is no promise, and filters by form.
func TestTheListLeavesOut(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.click("[aria-label=Variations]")
	c.sees(`document.querySelectorAll('[data-card]').length === 7`)
	option := func(name string) {
		c.sees(`(() => { const i = [...document.querySelectorAll('.el-select-dropdown__item')].find(l => l.offsetParent && l.innerText === '` + name + `'); i?.click(); return !!i })()`)
	}
	pick := func(label, name string) {
		c.click(`.filters .el-select:has([aria-label="` + label + `"]) .el-select__wrapper`)
		option(name)
	}
	pick("Leave out what may hold", "without walnut")
	c.sees(`!document.querySelector('[data-card="Carrot, cardamom & walnut"]') && document.querySelector('.caution')?.innerText.includes('Check every pack')`)
	option("without sesame") // the list of allergens stays open: another one beside it
	c.sees(`document.querySelector('.caution')?.innerText.includes('what contains walnut or sesame,')`)
	c.sees(`!document.querySelector('[data-card^="Sweet potato"]') && document.querySelectorAll('[data-card]').length > 1`)
	c.press(kb.Escape)
	c.sees(`document.querySelector('.el-drawer .filters') && ![...document.querySelectorAll('.el-select__popper')].some(p => p.checkVisibility())`)
	c.keepsTheRules(1280, "the list with something left out")
	c.reachable("the list with something left out")
	pick("Leave out what may hold", "without wheat")
	c.sees(`document.querySelector('.variations').innerText.includes('None of your variations is left')`)
	c.press("peanut" + kb.Enter) // and by the keyboard: what is typed is found and taken
	c.sees(`document.querySelector('.caution')?.innerText.includes('peanut')`)
	for _, one := range []string{"without peanut", "without wheat", "without sesame", "without walnut"} {
		option(one)
	}
	c.sees(`!document.querySelector('.caution')`)
	c.press(kb.Escape)
	c.sees(`document.querySelector('.el-drawer .filters')`)
	pick("Which form", "waffles")
	c.sees(`document.querySelectorAll('[data-card]').length === 1`)
	pick("Which form", "every form")
	pick("On which base", "on Hatch plain")
	c.sees(`(() => { const n = document.querySelectorAll('[data-card]').length; return n > 0 && n < 7 })()`)
	pick("On which base", "every base")
	pick("In which order", "by name")
	c.sees(`(() => { const n = [...document.querySelectorAll('[data-card]')].map(e => e.dataset.card); return n.length === 7 && n.join() === [...n].sort((a, b) => a.localeCompare(b)).join() })()`)
	c.click(".filters .go")
	c.sees(`document.activeElement?.innerText.startsWith('Hatch')`)
	c.reachable("a new variation")
	c.keepsTheRules(1280, "a new variation")
	c.click(".new .acts button") // a recipe that is there is read instead
	c.sees(`location.pathname === '/bases' && document.querySelector('#paste')`)
}
