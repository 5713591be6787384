package e2e_test

import (
	"fmt"
	"hash/crc32"
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// reachable lets axe-core look over what is on the screen: nothing critical, serious or moderate. Half of the states are seen
// by day, the others in the early shift; with EVERY_THEME each is seen in both.
func (c cook) reachable(where string) {
	c.Helper()
	axe, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
	require.NoError(c, err)
	shifts := []string{"day", "early"}
	if os.Getenv("EVERY_THEME") == "" {
		half := crc32.ChecksumIEEE([]byte(where)) % 2
		shifts = shifts[half : half+1]
	}
	for _, shift := range shifts {
		c.sees(fmt.Sprintf(`(() => { const d = document.documentElement.dataset; if (%q === 'early') d.shift = 'early'; else delete d.shift; return true })()`, shift))
		c.sees(`!document.querySelector('.coming') && !document.getAnimations().some(a => a.playState === 'running')`)
		_, err = stage.Ask[bool](c.p, `(() => { if (!window.axe) {`+string(axe)+`}
			window.__axe = undefined
			axe.run(document, { resultTypes: ['violations'] }).then(r => window.__axe = r.violations.filter(v => v.impact !== 'minor').map(v => v.impact + ' ' + v.id + ': ' + v.help + ' — ' + v.nodes.slice(0, 4).map(n => n.target.join(' ') + ' ' + n.html.slice(0, 140) + ' ' + (n.any[0]?.message ?? n.all[0]?.message ?? '')).join(' | ')), e => window.__axe = ['axe: ' + e])
			return true })()`)
		require.NoError(c, err)
		c.sees("window.__axe")
		found, err := stage.Ask[[]string](c.p, "window.__axe")
		require.NoError(c, err)
		assert.Empty(c, found, "%s, %s", where, shift)
	}
}

// Every view, dialog and menu of the bench, on a wide screen.
func TestTheBenchIsReachable(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.sees(`document.querySelector('[data-verdict=heat]')`)
	c.reachable("bench")
	for _, door := range []struct{ open, shows string }{
		{".off .why-chip", `document.querySelector('.why .sum')`},
		{"[data-gauge=Thickness] .name", `document.querySelector('.why .pull')`},
		{"[aria-label=Notes] .el-button", `document.querySelector('[data-note]')`},
		{"[aria-label=Variations]", `document.querySelector('.el-drawer .list b')`},
		{".sum .tool", `document.querySelectorAll('.holds input').length === 8`},
		{".sum .tool:last-child", `document.querySelectorAll('[data-way] dl').length === 5`},
		{".doors .nutrition", `document.querySelector('.el-dialog table')`},
		{".doors .care", `document.querySelector('.el-dialog li')`},
		{".larger", `document.querySelector('.portion-view .kind')`},
		{"[aria-label='Scale the batch']", `document.querySelector('.el-dialog input')`},
		{".bar [aria-label=More]", `[...document.querySelectorAll('.bench-more li')].some(l => l.offsetParent)`},
		{"[aria-label='More on Butter']", `[...document.querySelectorAll('.row-menu li')].some(l => l.offsetParent)`},
		{"[aria-label='More forms']", `[...document.querySelectorAll('.el-dropdown-menu li')].some(l => l.offsetParent)`},
	} {
		c.click(door.open)
		c.sees(door.shows)
		c.reachable(door.open)
		c.press(kb.Escape)
		c.closed()
		c.sees(`!document.querySelector('.side') && ![...document.querySelectorAll('.el-dropdown-menu')].some(l => l.offsetParent)`)
	}
	c.press("?")
	c.sees(`document.querySelector('.help dl')`)
	c.reachable("help, words")
	c.click(".help .pick label:nth-child(2)")
	c.reachable("help, keys")
	c.click(".help .pick label:nth-child(3)")
	c.sees(`document.querySelector('.about')?.innerText.includes('Atkinson') || document.querySelector('.about')?.innerText.includes('atkinson')`)
	c.keepsTheRules(1280, "about")
	c.reachable("help, about")
	c.press(kb.Escape)
	c.closed()
	c.more("Versions")
	c.sees(`document.querySelector('.el-dialog .empty')`)
	c.reachable("versions")
	c.press(kb.Escape)
	c.closed()
	c.press("/")
	c.press("be")
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(l => l.offsetParent)`)
	c.reachable("search")
	c.press(kb.Escape)
	c.press("h")
	c.minutes()
	c.click(".maths")
	c.sees(`document.querySelectorAll('.heatzone .in svg path').length > 40`)
	c.reachable("heat")
}

// The other areas, wide, and everything that a phone turns to.
func TestEveryAreaIsReachable(t *testing.T) {
	k := kitchen(t)
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		c := sits(t, k, size[0], size[1])
		if size[0] < 700 {
			for _, zone := range []string{"List", "Balance", "Portion"} {
				c.zone(zone)
				c.reachable("phone, " + zone)
			}
			c.click(".dock .open")
			c.sees(`document.querySelector('.el-drawer .card')`)
			c.reachable("phone, additions")
			c.press(kb.Escape)
			c.closed()
		}
		for _, area := range []struct{ path, shows string }{
			{"/bases", `document.querySelectorAll('[data-base] [data-ratio]').length > 10`},
			{"/pantry", `document.querySelectorAll('[data-row]').length > 150 && document.querySelector('[data-ingredient]')`},
			{"/prep", `document.querySelector('[data-product]') && document.querySelector('.scale')?.dataset.link === 'live'`},
			{"/kitchen", `document.querySelectorAll('.kitchen li').length === 7`},
		} {
			c.do(chromedp.Navigate(k.URL + area.path))
			c.sees(area.shows)
			c.reachable(fmt.Sprintf("%s at %d", area.path, size[0]))
		}
		if size[0] < 700 {
			continue
		}
		c.do(chromedp.Navigate(k.URL + "/bases"))
		c.click(".bases .bar .go")
		c.pastes("Plain\n\n200 g flour\n300 ml milk\na handful of zonk\n2 eggs")
		c.sees(`document.querySelectorAll('.reader [data-status]').length === 4`)
		c.reachable("reader")
		for _, door := range []struct{ path, open, shows string }{
			{"/bases", ".bases .bar .el-button:nth-of-type(2)", `document.querySelector('.el-dialog')?.innerText.includes('as “Export” writes them')`},
			{"/bases", ".bases .bar .el-button:nth-last-child(2)", `document.querySelector('.el-dialog .editor')`},
			{"/pantry", ".pantry .bar .el-button:nth-of-type(2)", `document.querySelector('.el-dialog')?.innerText.includes('CSV in UTF-8')`},
			{"/kitchen", ".kitchen .bar .el-button", `document.querySelector('.el-dialog')?.innerText.includes('never different')`},
		} {
			c.do(chromedp.Navigate(k.URL + door.path))
			c.click(door.open)
			c.sees(door.shows)
			c.reachable(door.path + " " + door.open)
		}
		c.do(chromedp.Navigate(k.URL + "/pantry?own=Plum+jam"))
		c.sees(`[...document.querySelectorAll('.el-dialog input')].some(i => i.value === 'Plum jam')`)
		c.reachable("an ingredient of your own")
	}
}
