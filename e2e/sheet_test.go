package e2e_test

import (
	"fmt"
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/device"
	"upbeatladle/e2e/stage"
)

// asked is a task of a batch as the API has it.
type asked struct {
	ID, Kind, Line, Label, At, Bowl, Measure string
	AsksG                                    float64 `json:"asks_g"`
	InG                                      float64 `json:"in_g"`
}

type made struct {
	ID    string
	State struct {
		Now          string
		Tasks        []asked
		Made         bool
		Events       int
		KeptG        float64 `json:"kept_g"`
		SplashG      float64 `json:"splash_g"`
		Factor       float64
		Ask          *struct{ Kind string }
		RestUntil    time.Time `json:"rest_until"`
		Weighed, All int
	}
}

func (m made) now() asked {
	for _, t := range m.State.Tasks {
		if t.ID == m.State.Now {
			return t
		}
	}
	return asked{}
}

func (m made) task(line string) asked {
	for _, t := range m.State.Tasks {
		if t.Line == line {
			return t
		}
	}
	return asked{}
}

// batch is the last one begun, as the API has it.
func (c cook) batch() (m made) {
	c.Helper()
	var list struct{ Items []struct{ ID string } }
	c.get("/api/v1/batches", &list)
	require.NotEmpty(c, list.Items)
	c.get("/api/v1/batches/"+list.Items[0].ID, &m)
	return m
}

// makesThis begins a batch of what is on the bench.
func (c cook) makesThis() {
	c.Helper()
	c.saved()
	door := ".doors .go"
	if must(stage.Ask[float64](c.p, `innerWidth`)) <= 700 { // on a phone it stands below the list
		door = ".ledger .sum .go"
	}
	c.click(door)
	c.sees(`document.querySelector('.work-card h2')`)
}

// tells sends events until a task is in hand, as another tablet would.
func (c cook) tells(until func(asked) bool) {
	c.Helper()
	for i := 0; ; i++ {
		m := c.batch()
		t := m.now()
		if t.ID == "" || until(t) {
			c.sees(fmt.Sprintf(`!%t || document.querySelector('[aria-current=step]')`, t.ID != ""))
			return
		}
		event := map[string]any{"id": fmt.Sprint("other tablet ", m.State.Events), "kind": "done", "task": t.ID, "knew": m.State.Events}
		if t.Kind == "weigh" {
			event["kind"], event["grams"] = "weighed", t.AsksG
		}
		var out any
		c.post("/api/v1/batches/"+m.ID+"/events", event, &out)
	}
}

func (c cook) inHand(label string) {
	c.Helper()
	c.sees(fmt.Sprintf(`document.querySelector('.work-card h2')?.innerText.startsWith(%q)`, label))
}

// A whole weigh-in with a cook who plays on the simulated scale: the bowl on, zero by itself, a pour, too much of the
// milk, spooned out again; a hand on the pan and a bowl that is lifted are said. What is kept is what was weighed.
func TestAWeighInAtTheScale(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.opens("Beetroot & orange")
	c.makesThis()
	c.inHand("Plain wheat flour")
	c.sees(`document.querySelector('[data-says]').innerText.includes('Put the dry bowl on the scale')`)
	c.sees(`document.querySelector('.tools')?.innerText.includes('ladle of 60 ml')`)
	c.sees(`document.querySelector('.minds').innerText.includes('Check every pack')`)
	k.Scale.Put(420)
	c.sees(`document.querySelector('.weigh-in').dataset.phase === 'pour'`)
	c.sees(`document.querySelector('[data-grams]')?.dataset.grams < 3`)
	c.click("[data-pour]")
	c.sees(`document.querySelector('.weigh-in').dataset.where === 'right' && !document.querySelector('.next').disabled || document.querySelector('.next.over:not(.is-disabled)')`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('[data-ask]') || document.querySelector('.work-card h2').innerText.startsWith('White sugar')`)
	if c.batch().State.Ask != nil { // it overshot
		c.click("[data-way=leave]")
	}
	c.inHand("White sugar")
	flour := c.batch().task("flour")
	assert.InDelta(t, 500, flour.InG, 6)
	load := 420 + flour.InG
	c.sees(`Math.abs(document.querySelector('[data-grams]')?.dataset.grams ?? 9) <= 1`) // zeroed by itself

	k.Scale.Play(device.PlayHand, 0)
	c.sees(`document.querySelector('[data-grams]').dataset.grams > 100`)
	c.sees(`Math.abs(document.querySelector('[data-grams]').dataset.grams) <= 1`)
	k.Scale.Play(device.PlayLift, 0)
	c.sees(`document.querySelector('[data-says]').innerText.includes('bowl is off the scale')`)
	assert.False(t, must(stage.Ask[bool](c.p, `!!document.querySelector('.next.go')`)), "nothing goes on without the bowl")
	k.Scale.Play(device.PlayBack, 0)
	c.sees(`!document.querySelector('[data-says]').innerText.includes('bowl is off')`)

	pour := func(grams float64) {
		load += grams
		k.Scale.Put(load)
		c.sees(fmt.Sprintf(`document.querySelector('[data-says]')?.innerText === 'steady' && Math.abs(document.querySelector('[data-grams]').dataset.grams - %g) <= 1.2`, grams))
	}
	pour(c.batch().task("sugar").AsksG)
	c.press(kb.Enter)
	c.inHand("Baking powder")
	c.tells(func(t asked) bool { return t.Line == "milk" })
	c.inHand("Whole milk")
	milk := c.batch().task("milk").AsksG
	c.sees(`document.querySelector('[data-says]').innerText.includes('Put the jug on the scale')`)
	k.Scale.Put(0)
	c.sees(`document.querySelector('.weigh-in').dataset.phase === 'bowl'`)
	load = 300
	k.Scale.Put(load)
	c.sees(`document.querySelector('.weigh-in').dataset.phase === 'pour'`)
	pour(milk + 24)
	c.sees(`document.querySelector('.next.over').innerText.includes('g over')`)
	c.press(kb.Enter)
	c.sees(`document.querySelectorAll('[data-ask] [data-way]').length === 4`)
	c.sees(`document.querySelector('[data-way=scale_up]').innerText.includes('27 pancakes')`)
	c.reachable("over-pour")
	c.keepsTheRules(1280, "over-pour")
	c.press(kb.Enter) // spoon it out, the best one
	c.inHand("Whole milk")
	k.Scale.Put(load - 24)
	c.sees(fmt.Sprintf(`document.querySelector('[data-says]')?.innerText === 'steady' && Math.abs(document.querySelector('[data-grams]').dataset.grams - %g) <= 1.5`, milk))
	c.sees(`document.querySelector('.next.go')`)
	c.press(kb.Enter)
	c.inHand("Butter")
	m := c.batch()
	assert.InDelta(t, milk, m.task("milk").InG, 1.5)
	assert.Equal(t, 1.0, m.State.Factor)
	c.press("t")
	c.sees(`document.activeElement?.matches('.el-dialog input')`)
	c.press("80" + kb.Enter)
	c.sees(`document.querySelector('.step-card')`)
	c.closed()
	assert.Equal(t, 80.0, c.batch().task("butter").InG)
	c.sees(`document.querySelector('[data-weighed]').innerText.startsWith('9 of 9')`)
	c.click(".step-card .acts .el-button") // take back
	c.inHand("Butter")

	k.Unplug() // the scale goes dead in the middle of it
	c.sees(`document.querySelector('[data-says]').innerText.startsWith('No reading for') || document.querySelector('[data-says]').innerText.startsWith('Looking')`)
	c.press("t")
	c.sees(`document.activeElement?.matches('.el-dialog input')`)
	c.press("999999" + kb.Enter) // a slip of the keys is said at its field, and what was typed stays
	c.sees(`document.querySelector('.el-dialog .fault')?.innerText.includes('between 0 and 100000') && document.querySelector('.el-dialog input').value === '999999'`)
	c.p.ForgetConsole() // the browser itself reports the 400
	c.sees(`(() => { const i = document.querySelector('.el-dialog input'); i.focus(); i.select(); return document.activeElement === i })()`)
	c.press("81" + kb.Enter)
	c.sees(`document.querySelector('.step-card')`)
	assert.Equal(t, 81.0, c.batch().task("butter").InG)
}

func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

// Without a scale: cups and spoons one by one, one too many and out again; what is forgotten shows before its step;
// the test in words; the rest skipped; made, and what it taught goes into the variation.
func TestTheSheetWithCupsAndSpoonsOnly(t *testing.T) {
	k := kitchen(t)
	k.Unplug()
	c := sits(t, k, 1280, 800)
	c.opens("Beetroot & orange")
	c.press("g")
	c.makesThis()
	c.sees(`document.querySelector('[data-fills]')?.dataset.fills === '0 of 8'`)
	c.reachable("cups and spoons")
	c.keepsTheRules(1280, "cups and spoons")
	for n := 1; n <= 7; n++ {
		c.press(kb.Enter)
		c.sees(fmt.Sprintf(`document.querySelector('[data-fills]').dataset.fills === '%d of 8'`, n))
	}
	c.sees(`document.querySelector('.cups-in .go').innerText.startsWith('Third tbsp is in')`)
	c.click(".cups-in .acts .el-button:nth-child(2)") // one too many
	c.sees(`document.querySelector('[data-ask]')?.innerText.includes('over')`)
	c.click("[data-way=spoon_out] .el-button")
	c.sees(`document.querySelector('[data-fills]')?.dataset.fills === '7 of 8'`)
	c.sees(`(() => { const b = [...document.querySelectorAll('.acts button')].find(b => b.innerText === 'It was heaped'); b?.click(); return !!b })()`)
	c.sees(`document.querySelector('[data-way=spoon_out]')?.innerText.includes('Level it off')`)
	c.click("[data-way=spoon_out] .el-button")
	c.sees(`document.querySelector('[data-fills]')?.dataset.fills === '7 of 8'`)
	c.press(kb.Enter)
	c.inHand("White sugar")
	flour := c.batch().task("flour")
	assert.InDelta(t, 500, flour.InG, 10, "3¾ cups and 3 tbsp")

	c.click("[data-task=weigh-salt]") // another row first
	c.inHand("Salt")
	c.tells(func(t asked) bool { return t.Line == "butter" })
	c.click("[data-task=step-1]") // the butter is forgotten
	c.sees(`document.querySelector('.step-card .text').innerText.includes('3¾ cups')`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('.work-card h2').innerText.startsWith('Butter')`)
	c.click("[data-task=step-2]")
	c.press(kb.Enter)
	c.inHand("Butter")
	c.click("[data-task=step-3]")
	c.sees(`document.querySelector('.missing')?.innerText.includes('Butter')`)
	c.press(kb.Enter) // weigh it
	c.inHand("Butter")
	c.press(kb.Enter)
	c.sees(`document.querySelector('.step-card .text')?.innerText.startsWith('Melt butter')`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('.step-card .text')?.innerText.startsWith('Pour into a well')`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('.spread-card')`)
	before := c.batch().State.Events
	c.press(kb.Enter) // nobody has measured yet: where it should run to is no reading
	c.reachable("spread test")
	c.keepsTheRules(1280, "spread test")
	c.click(".spread-card .pick label:nth-child(2)")
	c.click("[data-says=mounds]")
	c.sees(`document.querySelector('[data-add]')`)
	assert.Equal(t, before+1, c.batch().State.Events, "what was said is the first test")
	adds := must(stage.Ask[float64](c.p, `parseFloat(document.querySelector('[data-add]').innerText)`))
	c.press(kb.Enter)
	c.sees(`document.querySelector('.answer').innerText.includes('Stirred in so far')`)
	assert.InDelta(t, adds, c.batch().State.SplashG, 0.1)
	c.click("[data-splash]") // one tap
	c.sees(fmt.Sprintf(`parseFloat(document.querySelector('.answer').innerText.match(/so far: ([\d.]+) g/)[1]) > %g`, adds+1))
	c.click("[data-says=just_spreads]")
	c.sees(`document.querySelector('.answer').innerText.includes('It is right')`)
	c.press(kb.Enter)
	c.tells(func(t asked) bool { return t.Kind == "rest" })
	c.sees(`document.querySelector('[data-rest]')?.innerText.startsWith('14:')`)
	until := c.batch().State.RestUntil
	c.do(chromedp.Reload())
	c.sees(`document.querySelector('[data-rest]')?.innerText.startsWith('14:')`)
	assert.Equal(t, until, c.batch().State.RestUntil, "the countdown outlives the page")
	c.click(".step-card .next")
	c.tells(func(asked) bool { return false })
	c.sees(`document.querySelector('.made-card')`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('.made-card h2').innerText === 'Made' && document.querySelector('.offer')`)
	c.keepsTheRules(1280, "made")
	c.click(".offer .go")
	c.sees(`document.querySelector('[data-gauge=Thickness]')`)
	c.saved()
	assert.Contains(t, fmt.Sprint(c.named("Beetroot & orange")["offset"]), "thickness")
}

// Two tablets at one bowl, one of them away for a while: a tick shows on the other, what is ticked while the program is
// away waits and lands once; the scale is with one bowl at a time.
func TestTheSheetOnTwoTabletsAndWhileAway(t *testing.T) {
	k := kitchen(t)
	one := sits(t, k, 1280, 800)
	one.keptShell()
	one.makesThis()
	at := must(stage.Ask[string](one.p, `location.pathname`))
	two := sits(t, k, 820, 1180)
	two.sees(`document.querySelector('.under-way')`)
	two.keepsTheRules(820, "a bowl is under way")
	two.click(".under-way")
	two.inHand("Plain wheat flour")
	two.reachable("sheet at 820")
	two.keepsTheRules(820, "sheet")
	assert.Equal(t, at, must(stage.Ask[string](two.p, `location.pathname`)), "the same bowl")
	one.press("t")
	one.sees(`document.activeElement?.matches('.el-dialog input')`)
	one.press("500" + kb.Enter)
	two.inHand("White sugar")
	one.closed()

	require.NoError(t, k.Stop())
	one.sees(`document.querySelector('[data-away]')`)
	one.press("t")
	one.sees(`document.activeElement?.matches('.el-dialog input')`)
	one.press("41" + kb.Enter)
	one.inHand("Baking powder") // it goes on
	one.sees(`document.querySelector('.bowl-clock').innerText.includes('counts again when the program is back') && !document.querySelector('.bowl-clock').innerText.includes('0:00')`)
	one.sees(`document.querySelector('[data-away]').innerText.includes('1 so far') && document.querySelector('[data-task=weigh-sugar]').innerText.includes('waits')`)
	one.closed()
	one.do(chromedp.Reload())
	one.inHand("Baking powder") // also after a reload
	one.press("t")
	one.sees(`document.activeElement?.matches('.el-dialog input')`)
	one.press("19" + kb.Enter)
	one.inHand("Salt")
	one.closed()
	one.click(".acts .el-button") // what waits is taken back as well
	one.inHand("Baking powder")
	require.NoError(t, k.Start())
	one.sees(`!document.querySelector('[data-away]')`)
	one.sees(`document.querySelector('[data-task=weigh-sugar]').innerText.includes('41 g')`)
	one.sees(`!document.querySelector('.rail .told')`) // all has landed
	two.inHand("Baking powder")
	assert.Equal(t, 4, one.batch().State.Events, "each landed once")
	assert.Equal(t, "to_come", one.batch().task("powder").At, "taken back")
	one.p.ForgetConsole()
	two.p.ForgetConsole() // the browsers themselves report what failed

	// Another bowl: the scale stays with the first until it is taken.
	two.press(kb.Escape)
	two.sees(`document.querySelector('.under-way')`)
	two.opens("Spinach crêpe")
	two.click(".doors .go")
	two.sees(`document.querySelector('[data-says]')?.innerText.includes('The scale is with')`)
	two.sees(`(() => { const b = [...document.querySelectorAll('.acts button')].find(b => b.innerText.includes('Take the scale')); b?.click(); return !!b })()`)
	two.sees(`document.querySelector('[data-says]').innerText.includes('Put the')`)
	one.sees(`document.querySelector('[data-says]').innerText.includes('The scale is with Spinach')`)
	two.press(kb.Escape)
	two.sees(`document.querySelector('.under-way')`)
	var list struct{ Items []any }
	two.get("/api/v1/batches", &list)
	assert.Len(t, list.Items, 1, "a sheet on which nothing happened leaves nothing behind")
}

// On a phone, by touch, with a long name: everything has its place, and the list of bowls is behind a tap.
func TestTheSheetOnAPhone(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 390, 844)
	require.NoError(t, c.p.Touch())
	_, doc := c.stored()
	doc["name"] = "Beetroot and orange with " + strings.Repeat("a very long Morgenbrötchenname ", 4)
	var b made
	c.post("/api/v1/batches", map[string]any{"variation": doc}, &b)
	c.do(chromedp.Navigate(k.URL + "/sheet/" + b.ID))
	c.inHand("Plain wheat flour")
	c.keepsTheRules(390, "sheet")
	c.reachable("sheet at 390")
	c.click(".bowls-door")
	c.sees(`document.querySelector('.el-drawer [data-task=weigh-salt]')`)
	c.click(".el-drawer [data-task=weigh-salt]")
	c.inHand("Salt")
	c.tells(func(t asked) bool { return t.Kind == "test" })
	c.sees(`document.querySelector('.spread-card')`)
	c.keepsTheRules(390, "spread test")
	c.tells(func(t asked) bool { return false })
	c.sees(`document.querySelector('.made-card')`)
	c.keepsTheRules(390, "made")
	// Somebody else puts it aside while it is open.
	req, err := http.NewRequest(http.MethodDelete, k.URL+"/api/v1/batches/"+b.ID, nil)
	require.NoError(t, err)
	resp, err := http.DefaultClient.Do(req)
	require.NoError(t, err)
	resp.Body.Close()
	c.sees(`document.querySelector('.empty')?.innerText.includes('not there any more')`)
	c.do(chromedp.Navigate(k.URL + "/sheet/nothing"))
	c.sees(`document.querySelector('.empty')?.innerText.includes('not there any more')`)
	c.p.ForgetConsole() // the browser itself reports the 404
}

// Two bowls of one base: what has to be out for both, the common batter weighed once and split, its clock going on in
// the bowls; a spice dosed to taste out of its jar.
func TestTwoBowlsFromOneBatter(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.opens("Beetroot & orange")
	c.more("What has to be out")
	c.sees(`document.querySelector('.pulling [data-pull=plain_flour]')?.innerText.includes('500 g')`)
	c.click(".pulling .el-select")
	c.sees(`(() => { const i = [...document.querySelectorAll('.el-select-dropdown__item')].find(l => l.offsetParent && l.innerText.startsWith('Sweet potato')); i?.click(); return !!i })()`)
	c.sees(`document.querySelectorAll('.pulling .bowl').length === 2 && document.querySelector('[data-pull=sesame_seeds]')?.innerText.includes('for Sweet potato')`)
	c.sees(`[...document.querySelectorAll('.pulling .bowl')].every(b => /check every pack/i.test(b.innerText))`)
	c.press(kb.Escape)
	c.sees(`document.querySelector('.pulling [data-pull]')`)
	c.reachable("what has to be out")
	c.keepsTheRules(1280, "what has to be out")
	c.click("[data-split]")
	c.inHand("Plain wheat flour")
	c.sees(`document.querySelector('h1').innerText === 'Hatch plain, for two bowls'`)
	var list struct {
		Items []struct{ ID, Name string }
	}
	c.get("/api/v1/batches", &list)
	require.Len(t, list.Items, 3)
	for _, b := range list.Items {
		if !strings.HasPrefix(b.Name, "Hatch plain") {
			continue
		}
		var m made
		c.get("/api/v1/batches/"+b.ID, &m)
		for m.State.Now != "" && m.State.Now != "split" {
			event := map[string]any{"id": fmt.Sprint("n", m.State.Events), "kind": "done", "task": m.State.Now, "knew": m.State.Events}
			if one := m.now(); one.Kind == "weigh" {
				event["kind"], event["grams"] = "weighed", one.AsksG
			}
			c.post("/api/v1/batches/"+b.ID+"/events", event, &m)
		}
	}
	c.sees(`document.querySelector('.step-card .text')?.innerText.includes('g for Sweet potato')`)
	c.press(kb.Enter)
	c.sees(`document.querySelectorAll('.made-card .bowls a').length === 2`)
	c.sees(`(() => { const b = [...document.querySelectorAll('.made-card .bowls a')].find(a => a.innerText.includes('Beetroot')); b?.click(); return !!b })()`)
	c.inHand("Hatch plain, mixed")
	c.press("t")
	c.sees(`document.activeElement?.matches('.el-dialog input')`)
	c.press("1441" + kb.Enter)
	c.closed()
	c.sees(`document.querySelector('[data-clock=fine]')`)

	c.click("[data-task=weigh-zest]")
	c.inHand("Orange zest")
	c.sees(`(() => { const b = [...document.querySelectorAll('.acts button')].find(b => b.innerText.includes('from the jar')); b?.click(); return !!b })()`)
	c.sees(`document.querySelector('[data-says]').innerText.includes('Put its jar on the scale')`)
	k.Scale.Put(0)
	c.sees(`document.querySelector('.weigh-in').dataset.phase === 'bowl'`)
	k.Scale.Put(180)
	c.sees(`document.querySelector('.weigh-in').dataset.phase === 'pour'`)
	k.Scale.Put(168)
	c.sees(`/^1[123] g went in/.test(document.querySelector('.next.go:not(.is-disabled)')?.innerText ?? '')`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('[data-task=weigh-zest]').innerText.includes('1') && document.querySelector('.done [data-task=weigh-zest]')`)
	c.sees(`!document.querySelector('[data-ask]')`) // to taste is never too much

	// What is gone of a bowl is told, and weighed in again or gone on without.
	c.click(".bowl .pot:not([disabled])")
	c.sees(`document.activeElement?.matches('.el-dialog input')`)
	c.press("200" + kb.Enter)
	c.sees(`document.querySelector('[data-ask]')?.innerText.includes('200 g gone')`)
	c.click("[data-way=leave]")
	c.sees(`!document.querySelector('[data-ask]')`)
}

// How long a weight on the pan takes to the picture: from the load of the simulated scale to the figure on the screen,
// over the device's line, the stream and the page. Printed, never asserted.
func TestHowSoonAWeightIsSeen(t *testing.T) {
	loads := often(15, 4)
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.makesThis()
	k.Scale.Put(420)
	c.sees(`document.querySelector('.weigh-in').dataset.phase === 'pour'`)
	begun := must(stage.Ask[bool](c.p, fmt.Sprintf(`(() => {
		window.__ms = []
		const one = async i => {
			const before = document.querySelector('[data-grams]').dataset.grams
			const start = performance.now()
			const seen = new Promise(r => { const o = new MutationObserver(() => { if (document.querySelector('[data-grams]').dataset.grams !== before) { o.disconnect(); r(performance.now() - start) } }); o.observe(document.querySelector('.weigh-in'), { subtree: true, attributes: true, childList: true, characterData: true }) })
			await fetch('/api/v1/devices/scale/load', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ grams: 440 + 37 * i }) })
			window.__ms.push(await seen)
			await new Promise(r => setTimeout(r, 300 + 17 * i))
		}
		;(async () => { for (let i = 0; i < %d; i++) await one(i) })()
		return true
	})()`, loads)))
	require.True(t, begun)
	c.sees(fmt.Sprintf(`window.__ms.length === %d`, loads))
	fmt.Printf("weight on the pan to the figure: %s\n", must(stage.Ask[string](c.p, `(() => { const s = [...window.__ms].sort((a, b) => a - b); return 'median ' + s[s.length >> 1].toFixed(0) + ' ms, slowest of ' + s.length + ' ' + s.at(-1).toFixed(0) + ' ms' })()`)))
}
