// Command screenshots takes the pictures of docs/screenshots from the demo kitchen.
package main

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"time"

	"github.com/chromedp/chromedp"

	"upbeatladle/e2e/stage"
)

// shot is one picture: a window, what to do in it, and the file.
type shot struct {
	file          string
	width, height int64
	path          string   // when it is not the bench
	open          string   // name of the variation on the bench, when it is not the first
	click         string   // CSS of what is clicked then
	steps         []string // JavaScript, each waited for until true
}

const settled = `document.querySelector('[data-verdict=heat]') && document.querySelector('[data-save=saved]') && document.querySelectorAll('[data-line]').length > 5 && document.fonts.status === 'loaded'`

var shots = []shot{
	{file: "bench.png", width: 1280, height: 800, steps: []string{settled}},
	{file: "bench-820.png", width: 820, height: 1180, steps: []string{settled}},
	{file: "bench-early.png", width: 1280, height: 800, click: ".rail button:last-child", steps: []string{`document.documentElement.dataset.shift === 'early'`}},
	{file: "variations.png", width: 1280, height: 800, click: "[aria-label=Variations]", steps: []string{`document.querySelectorAll('[data-card]').length === 7`}},
	{file: "why.png", width: 1280, height: 800, click: "[data-line=milk_whole] .off button", steps: []string{`document.querySelector('.why')`}},
	{file: "portion.png", width: 1280, height: 800, open: "Carrot, cardamom & walnut", click: ".larger", steps: []string{`document.querySelector('.portion-view .kind')`}},
	{file: "heat.png", width: 1280, height: 800, click: ".heat .open", steps: []string{`document.querySelector('.heatzone .minutes') && document.querySelector('.reasons .bar') && !document.querySelector('.in.coming')`}},
	{file: "kitchen.png", width: 1280, height: 800, path: "/kitchen", steps: []string{`document.querySelectorAll('.kitchen li').length === 7 && document.fonts.status === 'loaded'`}},
	{file: "bases.png", width: 1280, height: 800, path: "/bases", steps: []string{
		`document.querySelectorAll('[data-base]').length === 4`,
		`[...document.querySelectorAll('.bases .bar button')].find(b => b.innerText.includes('Starter')).click() ?? true`,
		`document.querySelectorAll('[data-base]').length === 17 && document.fonts.status === 'loaded' && !document.querySelector('.el-message')`,
	}},
	{file: "reader.png", width: 1280, height: 800, path: "/bases", steps: []string{
		`document.querySelectorAll('[data-base]').length > 1`, `document.querySelector('.bases .bar .go').click() ?? true`, `document.querySelector('#paste')`,
		fmt.Sprintf(`(() => { const e = document.querySelector('#paste'); e.value = %q; e.dispatchEvent(new Event('input', { bubbles: true })); return true })()`, talk),
		`document.querySelectorAll('.reader section').length === 3 && document.querySelector('.reader .foot .said').innerText && document.querySelector('.reader .strip')`,
	}},
	{file: "prep.png", width: 1280, height: 800, path: "/prep", steps: []string{`document.querySelector('[data-product]') && document.querySelector('.scale')?.dataset.link === 'live' && document.fonts.status === 'loaded'`}},
	{file: "pantry.png", width: 1280, height: 800, path: "/pantry", steps: []string{`document.querySelectorAll('[data-row]').length > 150 && document.querySelector('[data-ingredient]') && document.fonts.status === 'loaded'`}},
	{file: "print.png", width: 1280, height: 800, open: "Carrot, cardamom & walnut", click: ".bar [aria-label=More]", steps: []string{
		`[...document.querySelectorAll('.bench-more li')].find(l => l.innerText.startsWith('Print'))?.click() ?? true`, `document.querySelector('.print-dialog .go:not(.is-disabled)')`,
	}},
	{file: "sauces.png", width: 1280, height: 800, path: "/sauces", steps: []string{
		`document.querySelectorAll('[data-sauce]').length === 3`, `document.querySelector('[data-sauce="Plum compote"]').click() ?? true`, `document.querySelector('[data-pot="Plum compote"] [data-lead]')`,
		`(window.__put ??= fetch('/api/v1/devices/scale/load', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ grams: 1050 }) }), document.querySelector('[data-devices]').innerText.includes('1050 g'))`,
		`(document.querySelector('[data-weigh]').click(), document.querySelector('[data-lead]').innerText.includes('still'))`, `document.fonts.status === 'loaded' && !document.querySelector('.el-message')`,
	}},
	{file: "phone.png", width: 390, height: 844, steps: []string{settled}},
	{file: "sheet.png", width: 1280, height: 800, open: "Beetroot & orange", steps: []string{begin, upTo("milk"), onScale(420, 989), `document.querySelector('[data-says]').innerText === 'steady' && document.fonts.status === 'loaded'`}},
	{file: "sheet-cups.png", width: 1280, height: 800, open: "Beetroot & orange", steps: []string{
		`document.querySelectorAll('.bar .pick input')[document.querySelectorAll('.bar .pick input').length - 1].click() ?? true`, begin, `document.querySelector('.cups-in .go')?.click() ?? !!document.querySelector('.cups-in')`,
		`document.querySelector('[data-fills]').dataset.fills === '1 of 8'`, `document.querySelector('.cups-in .go').click() ?? true`, `document.querySelector('[data-fills]').dataset.fills === '2 of 8' && document.fonts.status === 'loaded'`,
	}},
	{file: "griddle.png", width: 1280, height: 800, steps: append(board(
		later{0, `await put('Beetroot', 'plate'); await put('Carrot', 'plate'); await put('Spinach', 'pan'); await put('Plum', 'pier'); await tell({ kind: 'oven' }); for (const p of ['plate', 'pan', 'pier']) await tell({ kind: 'on', plate: p })`},
		later{12 * time.Minute, `for (const p of ['plate', 'pan', 'pier']) await tell({ kind: 'hot', plate: p }); for (const b of (await now()).bowls) await tell({ kind: 'judged', of: b.key }); for (const p of [1, 2, 3]) await tell({ kind: 'poured', plate: 'plate', place: p }); await tell({ kind: 'poured', plate: 'pier', place: 1 })`},
		later{190 * time.Second, `for (const x of (await now()).plates[0].places) if (x.portion) await tell({ kind: 'flipped', portion: x.portion }); for (const p of [4, 5, 6, 7]) await tell({ kind: 'poured', plate: 'plate', place: p })`},
		later{110 * time.Second, `for (const x of (await now()).plates[2].places) if (x.portion) await tell({ kind: 'lifted', portion: x.portion }); await tell({ kind: 'poured', plate: 'pier', place: 2 })`},
		later{55 * time.Second, `for (const x of (await now()).plates[0].places.slice(0, 2)) await tell({ kind: 'lifted', portion: x.portion }); await tell({ kind: 'poured', plate: 'pan', place: 1 })`},
		later{40 * time.Second, `await tell({ kind: 'probed', c: 66 })`},
	), `document.querySelector('[href="/griddle"]').click() ?? true`, `document.querySelectorAll('[data-tray]').length === 2 && document.querySelector('[data-now]') && document.fonts.status === 'loaded'`)},
	{file: "freezer.png", width: 1280, height: 800, path: "/freezer", steps: []string{`document.querySelectorAll('[data-pack]').length === 2`, `document.querySelector('[data-pack*=Plum] [data-label]').click() ?? true`,
		`document.querySelector('.open img')?.naturalWidth > 0 && document.fonts.status === 'loaded' && !document.getAnimations().some(a => a.playState === 'running')`}},
}

// begin makes what is on the bench.
const begin = `(() => { if (document.querySelector('.work-card h2')) return true; [...document.querySelectorAll('.el-dialog button')].find(b => b.innerText === 'Begin another')?.click(); if (!window.__made && document.querySelector('[data-save=saved]')) { window.__made = true; document.querySelector('.doors .go').click() } })()`

// later is what happens at a board when so much time has gone by.
type later struct {
	by time.Duration
	js string
}

// passes begins a step that lets time go by; how much follows, and what happens then.
const passes = "passes "

// board begins a board and lets a morning go by on it.
func board(all ...later) (steps []string) {
	const hands = `const post = (path, body) => fetch('/api/v1' + path, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body ?? {}) }).then(r => r.json())
		window.__board ??= (await post('/boards')).id
		const now = async () => (await (await fetch('/api/v1/boards/' + window.__board)).json()).state
		const tell = e => post('/boards/' + window.__board + '/events', { id: 'e' + (window.__n = (window.__n ?? 0) + 1), ...e })
		const put = async (name, plate) => {
			const found = (await (await fetch('/api/v1/variations')).json()).items.find(v => v.name.startsWith(name))
			const variation = (await (await fetch('/api/v1/variations/' + found.id)).json()).document
			await tell({ kind: 'put_on', plate, batch: (await post('/batches', { variation })).id }) }
		`
	steps = []string{settled}
	for n, l := range all {
		steps = append(steps, passes+l.by.String(), fmt.Sprintf(`(() => { window.__at ??= {}; if (!window.__at[%[1]d]) { window.__at[%[1]d] = 'on its way'; (async () => { %[2]s; %[3]s; window.__at[%[1]d] = 'done' })() } return window.__at[%[1]d] === 'done' })()`, n, hands, l.js))
	}
	return steps
}

// upTo weighs all as it is asked, up to a line.
func upTo(line string) string {
	return fmt.Sprintf(`(() => { if (!window.__up) { window.__up = 'on its way'
		const at = '/api/v1/batches/' + location.pathname.split('/').pop()
		;(async () => { for (;;) { const b = await (await fetch(at)).json(), t = b.state.tasks.find(t => t.id === b.state.now)
			if (!t || t.line === %q) break
			await fetch(at + '/events', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ id: 'up' + b.state.events, knew: b.state.events, kind: t.kind === 'weigh' ? 'weighed' : 'done', task: t.id, ...(t.kind === 'weigh' ? { grams: t.asks_g } : {}) }) }) }
			window.__up = 'there' })() }
		return window.__up === 'there' })()`, line)
}

// onScale puts a bowl on the simulated scale, and then so much in all.
func onScale(bowl, all float64) string {
	put := func(g float64) string {
		return fmt.Sprintf(`fetch('/api/v1/devices/scale/load', { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ grams: %g }) })`, g)
	}
	return fmt.Sprintf(`(() => { const w = document.querySelector('.weigh-in')
		if (!window.__bowl) { window.__bowl = true; %s }
		if (w?.dataset.phase === 'pour' && !window.__all) { window.__all = true; %s }
		return window.__all && document.querySelector('[data-grams]')?.dataset.grams > 500 })()`, put(bowl), put(all))
}

// talk is what is pasted into the reader.
const talk = `Waffles of the quay
0:03 so it is two cups of flour and a heaped tablespoon of sugar
0:07 three teaspoons of baking powder half a teaspoon of salt
0:11 then two eggs and a cup and a half of buttermilk some take kefir
0:16 and that stands while we do the caramel so in a saucepan
0:20 a hundred and fifty grams of sugar until it is amber then a
0:24 hundred and twenty grams of cream thirty of butter careful it spits
0:29 now back to the batter so again two cups of flour two eggs
0:34 and a flurb of zonk there is no vanilla in it and oil for the iron
0:39 it makes about six`

func main() {
	if err := run(context.Background(), "docs/screenshots"); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(ctx context.Context, out string) error {
	dir, err := os.MkdirTemp("", "screenshots")
	if err != nil {
		return err
	}
	defer os.RemoveAll(dir)
	var gone time.Duration
	k, err := stage.Open(ctx, dir, func() time.Time { return time.Now().Add(gone) })
	if err != nil {
		return err
	}
	defer k.Close()
	b, err := stage.OpenBrowser(ctx, dir)
	if err != nil {
		return err
	}
	defer b.Close()
	for _, s := range shots {
		if err := take(b, k.URL, s, filepath.Join(out, s.file), &gone); err != nil {
			return fmt.Errorf("%s: %w", s.file, err)
		}
		fmt.Println(filepath.Join(out, s.file))
	}
	return nil
}

// openVariation takes a variation from its card.
func openVariation(p *stage.Page, name string) error {
	if err := p.Wait(settled); err != nil {
		return err
	}
	if err := p.Click("[aria-label=Variations]"); err != nil {
		return err
	}
	if err := p.Click(fmt.Sprintf("[data-card=%q]", name)); err != nil {
		return err
	}
	return p.Wait(fmt.Sprintf("document.querySelector('h1').innerText === %q && !document.querySelector('.el-drawer.open')", name))
}

func take(b *stage.Browser, url string, s shot, file string, gone *time.Duration) error {
	p, err := b.Page(s.width, s.height)
	if err != nil {
		return err
	}
	defer p.Close()
	if err := p.Do(chromedp.Navigate(url + s.path)); err != nil {
		return err
	}
	if s.open != "" {
		if err := openVariation(p, s.open); err != nil {
			return err
		}
	}
	if s.click != "" {
		if err := p.Wait(settled); err != nil {
			return err
		}
	}
	if s.click != "" {
		if err := p.Click(s.click); err != nil {
			return err
		}
	}
	for _, step := range s.steps {
		if by, ok := strings.CutPrefix(step, passes); ok {
			d, err := time.ParseDuration(by)
			if err != nil {
				return err
			}
			*gone += d
			continue
		}
		if err := p.Wait(step); err != nil {
			return err
		}
	}
	if err := p.Shot(file); err != nil {
		return err
	}
	if c := p.Console(); len(c) > 0 {
		return fmt.Errorf("the console is not clean: %v", c)
	}
	return nil
}
