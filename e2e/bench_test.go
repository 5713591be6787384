package e2e_test

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"os"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// cook is one person at one tablet.
type cook struct {
	*testing.T
	k *stage.Kitchen
	p *stage.Page
}

var browser *stage.Browser

func TestMain(m *testing.M) { os.Exit(runAll(m)) }

func runAll(m *testing.M) int {
	dir, err := os.MkdirTemp("", "e2e")
	if err != nil {
		panic(err)
	}
	defer os.RemoveAll(dir)
	if browser, err = stage.OpenBrowser(context.Background(), dir); err != nil {
		if os.Getenv("REQUIRE_BROWSER") != "" {
			fmt.Fprintln(os.Stderr, err)
			return 1
		}
		fmt.Fprintln(os.Stderr, "browser tests skipped:", err)
		return 0
	}
	defer browser.Close()
	return m.Run()
}

// often is how many times something is done whose time is printed: many times in `make bench`, where the figures are of use,
// and otherwise as few as show that it works.
func often(many, few int) int {
	if os.Getenv("TIMINGS") != "" {
		return many
	}
	return few
}

func kitchen(t *testing.T) *stage.Kitchen {
	t.Helper()
	t.Parallel()
	k, err := stage.Open(context.Background(), t.TempDir(), time.Now)
	if errors.Is(err, stage.ErrNotBuilt) && os.Getenv("REQUIRE_BROWSER") == "" {
		t.Skip(err)
	}
	require.NoError(t, err)
	t.Cleanup(func() { k.Close() })
	return k
}

// sits opens the bench on a tablet of a size; at the end its console has to be clean.
func sits(t *testing.T, k *stage.Kitchen, width, height int64) cook {
	t.Helper()
	p, err := browser.Page(width, height)
	require.NoError(t, err)
	t.Cleanup(func() {
		assert.Empty(t, p.Console(), "the console is free of errors and warnings")
		p.Close()
	})
	c := cook{t, k, p}
	c.do(chromedp.Navigate(k.URL))
	c.sees(`document.querySelectorAll('[data-line]').length > 5`)
	return c
}

func (c cook) do(steps ...chromedp.Action[chromedp.Void]) {
	c.Helper()
	require.NoError(c, c.p.Do(steps...))
}

func (c cook) sees(expression string) {
	c.Helper()
	require.NoError(c, c.p.Wait(expression))
}

func (c cook) saved() {
	c.Helper()
	c.sees(`document.querySelector('[data-save=saved]')`)
}

func (c cook) press(keys string) { c.Helper(); c.do(chromedp.KeyEvent(keys)) }

func (c cook) click(css string) {
	c.Helper()
	require.NoError(c, c.p.Click(css))
}

// taps is a click without time between press and release, for what steps on while it is held: on a
// busy machine a click of the mouse can last that long.
func (c cook) taps(css string) {
	c.Helper()
	c.sees(fmt.Sprintf(`(() => { const e = document.querySelector(%q); e?.click(); return !!e })()`, css))
}

// more opens the menu of the bench and chooses from it.
func (c cook) more(what string) {
	c.Helper()
	c.click(".bar [aria-label=More]")
	c.sees(fmt.Sprintf(`(() => { const i = [...document.querySelectorAll('.bench-more li')].find(l => l.offsetParent && l.innerText.startsWith(%q)); i?.click(); return !!i })()`, what))
}

// notes opens what there is to say of the bowl, waits for it, and closes it again.
func (c cook) notes(expression string) {
	c.Helper()
	c.click("[aria-label=Notes] .el-button")
	c.sees(expression)
	c.press(kb.Escape)
	c.sees(`!document.querySelector('[aria-label="Notes on this bowl"]')`)
}

// zone turns a phone to a part of the bench.
func (c cook) zone(name string) {
	c.Helper()
	c.sees(fmt.Sprintf(`(() => { const b = [...document.querySelectorAll('.zones label')].find(l => l.innerText.startsWith(%q)); b?.click(); return !!b?.classList.contains('is-active') })()`, name))
}

// stored is the variation on top of the list, as the API has it.
func (c cook) stored() (id string, doc map[string]any) {
	c.Helper()
	var list struct{ Items []struct{ ID string } }
	c.get("/api/v1/variations", &list)
	require.NotEmpty(c, list.Items)
	var d struct{ Document map[string]any }
	c.get("/api/v1/variations/"+list.Items[0].ID, &d)
	return list.Items[0].ID, d.Document
}

// named is a variation's document by its name.
func (c cook) named(name string) map[string]any {
	c.Helper()
	var list struct{ Items []struct{ ID, Name string } }
	c.get("/api/v1/variations", &list)
	for _, i := range list.Items {
		if i.Name == name {
			var d struct{ Document map[string]any }
			c.get("/api/v1/variations/"+i.ID, &d)
			return d.Document
		}
	}
	c.Fatalf("no variation is called %s", name)
	return nil
}

func (c cook) get(path string, out any) {
	c.Helper()
	resp, err := http.Get(c.k.URL + path)
	require.NoError(c, err)
	defer resp.Body.Close()
	require.NoError(c, json.NewDecoder(resp.Body).Decode(out))
}

// post asks the API a question.
func (c cook) post(path string, body, out any) {
	c.Helper()
	data, err := json.Marshal(body)
	require.NoError(c, err)
	resp, err := http.Post(c.k.URL+path, "application/json", bytes.NewReader(data))
	require.NoError(c, err)
	defer resp.Body.Close()
	require.NoError(c, json.NewDecoder(resp.Body).Decode(out))
}

// worked is what the API says of a document: weigh-out by ingredient.
func (c cook) worked(doc any) map[string]float64 {
	c.Helper()
	var w struct {
		Lines []struct {
			Ingredient string
			WeighG     float64 `json:"weigh_g"`
		}
	}
	c.post("/api/v1/worksheets", doc, &w)
	out := map[string]float64{}
	for _, l := range w.Lines {
		out[l.Ingredient] = l.WeighG
	}
	return out
}

// The ledger shows what the API says of the stored document.
func (c cook) agrees(ingredient string) float64 {
	c.Helper()
	c.saved()
	_, doc := c.stored()
	want := c.worked(doc)[ingredient]
	c.sees(fmt.Sprintf("document.querySelector('[data-line=%s] .out')?.innerText.replace(/\\s+/g,' ').trim() === '%.0f g'", ingredient, want))
	return want
}

func TestAddAnAdditionFromTheShelf(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	before := c.agrees("milk_whole")

	c.press("/")
	c.sees(`document.activeElement?.closest('.el-autocomplete')`)
	c.press("courgette, raw" + kb.Enter) // before the list can be there: what is typed counts, not what is listed
	c.sees(`document.querySelector('[data-addition=courgette_grated].active')`)
	added := c.agrees("milk_whole")
	assert.Less(t, added, before, "the courgette's water holds milk back")

	// Step it, then drag its slider to the end of the track.
	c.press("+")
	stepped := c.agrees("milk_whole")
	assert.Less(t, stepped, added)
	track, err := stage.Ask[[]float64](c.p, `(() => {
		const b = document.querySelector('[data-addition=courgette_grated] .el-slider__button').getBoundingClientRect()
		const r = document.querySelector('[data-addition=courgette_grated] .el-slider__runway').getBoundingClientRect()
		return [b.x + b.width / 2, b.y + b.height / 2, r.x + r.width * 0.2]
	})()`)
	require.NoError(t, err)
	c.do(chromedp.DragAndDropXY(track[0], track[1], track[2], track[1], 8))
	c.sees(fmt.Sprintf("document.querySelector('[data-line=milk_whole] .out').innerText.replace(/\\s+/g,' ').trim() !== '%.0f g'", stepped))
	dragged := c.agrees("milk_whole")
	assert.Greater(t, dragged, stepped, "less courgette, more milk")

	c.do(chromedp.Reload())
	c.sees(`document.querySelector('[data-addition=courgette_grated]')`)
	c.sees(fmt.Sprintf("document.querySelector('[data-line=milk_whole] .out')?.innerText.replace(/\\s+/g,' ').trim() === '%.0f g'", dragged))
}

func TestTypeAmountsPinRowsAndChooseHowToOffset(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	field := `document.querySelector('[data-addition=beetroot_cooked] .typed input')`
	typeIn := func(s string) {
		c.sees(field)
		c.click("[data-addition=beetroot_cooked] .typed input")
		c.sees(field + ` === document.activeElement && (document.activeElement.select(), true)`)
		c.do(chromedp.KeyEvent(s), chromedp.KeyEvent(kb.Enter))
	}
	typeIn("lots")
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] [role=alert]')?.innerText.includes('1 1/2')`)
	c.saved()
	_, doc := c.stored()
	assert.Contains(t, fmt.Sprint(doc["additions"]), "320", "what cannot be read changes nothing")
	c.p.ForgetConsole() // the browser itself reports the 400
	typeIn("250 1/2")
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .amount').innerText.startsWith('251') || document.querySelector('[data-addition=beetroot_cooked] .amount').innerText.startsWith('250')`)
	c.agrees("milk_whole")

	// Letters are keys again outside the field: pin the milk, then build up flour.
	c.click("[data-line=milk_whole] th")
	c.press("p")
	c.sees(`document.querySelector('[data-line=milk_whole] .off').innerText.includes('pinned')`)
	c.notes(`document.querySelector('[data-note=thickness_left]')`)
	c.press("2")
	c.sees(`document.querySelector('[data-line=plain_flour] .off').innerText.includes('add')`)
	c.sees(`!document.querySelector('[aria-label=Notes].warning')`)
	c.press("p")
	c.press("1")
	c.sees(`document.querySelector('[data-line=milk_whole] .off').innerText.includes('hold back')`)
	c.press("g")
	c.sees(`document.querySelector('[data-line=milk_whole] .out').innerText.includes('cup')`)
	c.press("g")
	c.sees(`document.querySelector('[data-line=milk_whole] .out').innerText.includes(' g')`)
	milk := c.agrees("milk_whole")
	c.press("5")
	c.sees(`document.querySelector('[data-line=milk_whole] .off').innerText.includes('as it is')`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(fmt.Sprintf("document.querySelector('[data-line=milk_whole] .out').innerText.startsWith('%.0f')", milk))
	c.press("f")
	c.sees(`document.querySelector('[aria-label=Portion]').innerText.includes('of the mould')`)
	c.press("?")
	c.sees(`document.querySelector('.el-dialog')?.innerText.includes('the plain batter that you trust')`)
	c.click(".el-dialog .pick label:nth-child(2)")
	c.sees(`document.querySelector('.el-dialog')?.innerText.includes('pin the row in hand')`)
	c.press(kb.Escape)
}

func TestStartPutAsideAndBringBackAVariation(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.click("[aria-label=Variations]")
	c.click(".filters .go")
	c.sees(`document.querySelectorAll('.el-drawer .bases button').length === 4 && document.activeElement.innerText.includes('Hatch')`)
	c.press(kb.Enter) // the first of them: it opens at once
	c.sees(`document.querySelector('[aria-label=Additions]').innerText.includes('Nothing added yet')`)
	c.sees(`!document.querySelector('.el-overlay:not([style*=none])')`)
	// It is called by what goes into it, and goes back with it, until the cook names it.
	base := must(stage.Ask[string](c.p, `document.querySelector('h1').innerText`))
	c.press("/")
	c.sees(`document.activeElement?.ariaLabel === 'Find an addition'`)
	c.press("carrot")
	c.press(kb.Enter)
	c.sees(`document.querySelector('h1').innerText.startsWith('Carrot') && document.querySelector('[data-save=saved]')`)
	c.click("[aria-label=Undo]")
	c.sees(`document.querySelector('h1').innerText === ` + fmt.Sprintf("%q", base))
	c.click("[aria-label='Name of the variation']")
	c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.press("Plain morning" + kb.Enter)
	c.sees(`document.querySelector('h1').innerText === 'Plain morning'`)

	c.click("[aria-label=Variations]")
	c.click("[aria-label='Put aside Plain morning']")
	c.sees(`[...document.querySelectorAll('.el-message button')].some(b => b.innerText.includes('Bring it back'))`)
	c.sees(`![...document.querySelectorAll('.el-drawer .list b')].some(b => b.innerText === 'Plain morning')`)
	c.click(".el-message button")
	c.sees(`[...document.querySelectorAll('.el-drawer .list b')].some(b => b.innerText === 'Plain morning')`)
	c.sees(`document.querySelector('h1').innerText === 'Plain morning' && !document.querySelector('.el-message')`)
	c.click("[aria-label='Put aside Plain morning']") // and the keys of undoing bring it back as well
	c.sees(`document.querySelector('.el-message') && document.querySelector('h1').innerText !== 'Plain morning'`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(`document.querySelector('h1').innerText === 'Plain morning'`)
}

func TestALostConnectionKeepsTheWork(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.saved()
	require.NoError(t, k.Stop())
	c.press("+")
	c.sees(`document.querySelector('[data-save=offline]')`)
	c.sees(`document.querySelector('.body > [role=alert]')?.innerText.includes('last good ones')`)
	require.NoError(t, k.Start())
	c.saved()
	c.sees(`!document.querySelector('.body > [role=alert]')`) // it has caught up by itself
	c.agrees("milk_whole")
	_, doc := c.stored()
	assert.Contains(t, fmt.Sprint(doc["additions"]), "330", "the step that was made while it was away")
	c.p.ForgetConsole() // the browser itself reports requests that found nobody
}

func TestTwoTabletsNeverOverwriteEachOther(t *testing.T) {
	k := kitchen(t)
	one, two := sits(t, k, 1280, 800), sits(t, k, 1280, 800)
	one.press("+")
	one.agrees("milk_whole")
	two.press("-")
	two.sees(`document.querySelector('[data-save=conflict]')`)
	two.sees(`[...document.querySelectorAll('.el-dialog')].some(d => d.innerText.includes('Nothing was overwritten'))`)
	_, doc := one.stored()
	assert.Contains(t, fmt.Sprint(doc["additions"]), "330", "the first save stands")
	two.click(".el-dialog__footer .go")
	two.saved()
	_, doc = two.stored()
	assert.Contains(t, fmt.Sprint(doc["additions"]), "310", "kept by choice")
	two.p.ForgetConsole() // the browser reports the 409 itself
}

// At every width: nothing runs out of the window, no text under 13 px, no target under
// 44 px, every control has a name.
func TestEveryWidthKeepsTheHouseRules(t *testing.T) {
	k := kitchen(t)
	for _, size := range [][2]int64{{1280, 800}, {820, 1180}, {390, 844}} {
		c := sits(t, k, size[0], size[1])
		c.saved()
		c.keepsTheRules(size[0], "bench")
		c.opens("Carrot, cardamom & walnut")
		if size[0] < 700 {
			c.zone("Balance")
			c.keepsTheRules(size[0], "balance")
			c.zone("Portion")
			c.keepsTheRules(size[0], "portion")
		}
		c.click(".larger")
		c.sees(`document.querySelector('.portion-view .kind')`)
		c.keepsTheRules(size[0], "portion view")
		c.do(chromedp.Navigate(k.URL + "/kitchen"))
		c.sees(`document.querySelectorAll('.kitchen li').length === 7`)
		c.keepsTheRules(size[0], "kitchen")
		c.do(chromedp.Navigate(k.URL + "/prep"))
		c.sees(`document.querySelector('[data-product]') && document.querySelector('.scale')?.dataset.link === 'live'`)
		c.keepsTheRules(size[0], "prep")
		c.do(chromedp.Navigate(k.URL + "/bases"))
		c.sees(`document.querySelectorAll('[data-base] [data-ratio]').length > 10`)
		c.keepsTheRules(size[0], "bases")
		c.click(".bases .bar .go")
		c.pastes("Plain\n\n200 g flour\n300 ml milk\na handful of zonk\n2 eggs")
		c.sees(`document.querySelectorAll('.reader [data-status]').length === 4`)
		c.keepsTheRules(size[0], "reader")
		c.press(kb.Escape)
		c.closed()
		c.p.ForgetConsole()
		c.do(chromedp.Navigate(k.URL + "/pantry"))
		c.sees(`document.querySelectorAll('[data-row]').length > 150 && document.querySelector('[data-ingredient]')`)
		c.keepsTheRules(size[0], "pantry")
	}
}

// keepsTheRules looks at everything on the screen.
func (c cook) keepsTheRules(width int64, where string) {
	c.Helper()
	found, err := stage.Ask[[]string](c.p, `(() => {
			const bad = []
			for (const e of [document.documentElement, ...document.querySelectorAll('.work, .scroll, .panel, .kitchen, .prep, .pantry, .bases, .el-dialog')]) {
				if (e.scrollWidth > e.clientWidth + 1) bad.push('runs out of its width: ' + (e.getAttribute('aria-label') ?? e.className) + ' ' + e.scrollWidth + ' in ' + e.clientWidth)
			}
			for (const e of document.querySelectorAll('main > header')) {
				if (e.scrollHeight > e.clientHeight + 1) bad.push('the bar covers what is below it: ' + e.scrollHeight + ' in ' + e.clientHeight)
			}
			const title = document.querySelector('[aria-label="Name of the variation"]')?.closest('.bar > .title')
			const share = title && title.offsetWidth / title.parentElement.offsetWidth
			if (title && innerWidth > 700 && innerWidth <= 900 && share < 0.6) bad.push('the name has only ' + share + ' of its row')
			const foot = document.querySelector('[aria-label=Verdict]')
			if (foot && foot.scrollHeight > foot.clientHeight + 1) bad.push('the verdict is clipped')
			for (const e of document.querySelectorAll('button, input, [role=slider]')) {
				const r = e.getBoundingClientRect()
				if (r.width === 0 || e.closest('.vh') || e.type === 'radio') continue
				const name = e.getAttribute('aria-label') || e.innerText || e.labels?.[0]?.innerText || e.getAttribute('aria-labelledby') || e.closest('[aria-label]')?.getAttribute('aria-label')
				if (!name) bad.push('no name: ' + e.outerHTML.slice(0, 120))
				const box = (e.closest('.el-input, .el-select') ?? e).getBoundingClientRect()
				if (box.height < 43.5 && e.tagName !== 'INPUT') bad.push('small target ' + box.height + ': ' + (e.getAttribute('aria-label') || e.innerText))
			}
			const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT)
			while (walk.nextNode()) {
				const p = walk.currentNode.parentElement
				if (walk.currentNode.data.trim() && p.getClientRects().length && parseFloat(getComputedStyle(p).fontSize) * p.currentCSSZoom < 13 && !p.closest('svg')) bad.push('small text: ' + walk.currentNode.data)
			}
			return bad
		})()`)
	require.NoError(c, err)
	assert.Empty(c, found, "%s at %d px", where, width)
}
