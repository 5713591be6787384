package e2e_test

import (
	"bytes"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// keptShell waits until the front end is on the tablet, and what is on the bench with it.
func (c cook) keptShell() {
	c.Helper()
	c.sees(`JSON.parse(localStorage.getItem('ladle.last') ?? 'null')?.sheet`)
	c.sees(`(navigator.serviceWorker.ready.then(r => window.__kept = !!r.active && !!navigator.serviceWorker.controller), window.__kept)`)
}

// The front end opens from the tablet while the program is away, with the figures of the last time;
// the API is never answered from there.
func TestTheBenchOpensWhileTheProgramIsAway(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.keptShell()
	milk := c.agrees("milk_whole")
	c.saved()
	require.NoError(t, k.Stop())
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('.trouble')?.innerText.includes('does not answer')`)
	c.sees(`document.querySelectorAll('[data-line]').length > 5`)
	c.sees(`document.querySelector('.trouble').innerText.includes('the last good ones')`)
	c.do(chromedp.Navigate(k.URL + "/pantry"))
	c.sees(`document.querySelector('.rail') && document.body.innerText.includes('does not answer')`)
	held, err := stage.Ask[bool](c.p, `(window.__held = undefined, caches.keys().then(async names => {
		const all = []
		for (const n of names) for (const r of await (await caches.open(n)).keys()) all.push(new URL(r.url).pathname)
		window.__held = all
	}), true)`)
	require.NoError(t, err)
	require.True(t, held)
	c.sees(`window.__held?.includes('/') && window.__held.length > 20 && !window.__held.some(p => p.startsWith('/api') || p === '/healthz' || p.includes('trust'))`)
	c.do(chromedp.Navigate(k.URL))
	require.NoError(t, k.Start())
	c.sees(`!document.querySelector('.trouble')`)
	assert.Equal(t, milk, c.agrees("milk_whole"))
	c.p.ForgetConsole() // the browser itself reports every request that failed
}

// What is done in every area while the program is away waits, is counted, outlives the tab, and
// lands once and in order.
func TestWorkDoneWhileAwayLandsOnce(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.keptShell()
	var before, after struct {
		Revision int
		Document struct{ Name string }
	}
	type listed struct{ Items []struct{ ID, Name string } }
	var variations, bases, pantry listed
	c.get("/api/v1/kitchen", &before)
	c.get("/api/v1/variations", &variations)
	c.get("/api/v1/bases", &bases)
	c.get("/api/v1/pantry", &pantry)
	go_ := func(area, shows string) {
		c.Helper()
		c.click(".rail a[href='" + area + "']")
		c.sees(shows)
	}
	go_("/kitchen", `document.querySelector('.kitchen .fields .wide input')?.value`)
	go_("/pantry", `document.querySelector('.pantry [data-id], .pantry li, .pantry tr')`)
	go_("/bases", `document.querySelectorAll('.cards .card').length > 2`)
	require.NoError(t, k.Stop())

	// A base is put aside, another is begun on the bench.
	cards, err := stage.Ask[int](c.p, `document.querySelectorAll('.cards .card').length`)
	require.NoError(t, err)
	c.click(".cards .card:last-child .bin")
	c.sees(`document.querySelector('.rail').innerText.includes('1 waits')`)
	gone, err := stage.Ask[int](c.p, `document.querySelectorAll('.cards .card').length`)
	require.NoError(t, err)
	assert.Equal(t, cards-1, gone)
	c.click(".cards .card:first-child .acts .el-button:first-child")
	c.sees(`document.querySelector('[aria-label="Name of the variation"]')?.value.startsWith('Hatch')`)
	c.sees(`document.querySelector('.rail').innerText.includes('2 wait')`)
	c.click(`[aria-label="Name of the variation"]`)
	c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(2)), chromedp.KeyEvent("Begun in the cellar"+kb.Enter))
	c.sees(`document.querySelector('[data-save=offline]')`)

	// The kitchen is renamed, twice; its last name counts.
	go_("/kitchen", `document.querySelector('.kitchen .fields .wide input')?.value`)
	for _, letter := range []string{" by", " night"} {
		c.click(".kitchen .fields .wide input")
		c.do(chromedp.KeyEvent(kb.End), chromedp.KeyEvent(letter))
		c.sees(`document.querySelector('.kitchen .fields .wide input').value.endsWith('` + letter + `') && document.querySelector('.kitchen [data-save=offline]')`)
	}
	c.sees(`document.querySelector('.rail').innerText.includes('3 wait')`)
	c.click(".rail .told")
	c.sees(`document.querySelectorAll('.waiting li').length === 3`)
	c.reachable("what waits")

	// The tab is gone, and opens again from the tablet.
	c.do(chromedp.Navigate(k.URL))
	c.sees(`document.querySelector('.rail').innerText.includes('3 wait')`)
	c.sees(`document.querySelector('[aria-label="Name of the variation"]')?.value === 'Begun in the cellar'`)
	require.NoError(t, k.Start())
	c.sees(`!document.querySelector('.rail .told')`)
	c.saved()
	c.sees(`document.querySelectorAll('[data-line]').length > 3`)
	c.p.ForgetConsole() // the browser itself reports every request that failed

	c.get("/api/v1/kitchen", &after)
	assert.Equal(t, before.Document.Name+" by night", after.Document.Name)
	assert.LessOrEqual(t, after.Revision, before.Revision+2)
	was := len(variations.Items)
	c.get("/api/v1/variations", &variations)
	assert.Len(t, variations.Items, was+1)
	assert.Equal(t, "Begun in the cellar", variations.Items[0].Name)
	was = len(bases.Items)
	c.get("/api/v1/bases", &bases)
	assert.Len(t, bases.Items, was-1)
}

// A newer program is offered, and taken when the cook says so; nothing reloads by itself.
func TestANewerProgramIsOffered(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 820, 1180)
	c.keptShell()
	require.NoError(t, k.Stop())
	require.NoError(t, k.Newer(func(name string, data []byte) []byte {
		switch name {
		case "index.html":
			return bytes.Replace(data, []byte("<body>"), []byte(`<body data-build="newer">`), 1)
		case "sw.js":
			return bytes.Replace(data, []byte(`const version = "`), []byte(`const version = "newer-`), 1)
		}
		return data
	}))
	require.NoError(t, k.Start())
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('.rail .told')?.innerText.includes('Update')`)
	c.sees(`document.body?.dataset.build === undefined`)
	c.click(".rail .told")
	c.sees(`document.body?.dataset.build === 'newer' && document.querySelectorAll('[data-line]').length > 5`)
	c.sees(`!document.querySelector('.rail .told')`)
	c.p.ForgetConsole() // requests that met the stopped program
}

// A door that was never open before needs the program: while that is away it says so, and opens when it is back.
func TestADoorWaitsForTheProgram(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.saved()
	require.NoError(t, c.p.FirstVisit())
	require.NoError(t, k.Stop())
	c.click("[aria-label=Variations]")
	c.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('opens as soon as it does'))`)
	require.NoError(t, k.Start())
	c.sees(`document.querySelectorAll('.el-drawer [data-card]').length === 7 && document.activeElement.closest('.el-drawer')`)
	c.p.ForgetConsole() // the browser itself reports every request that failed
}
