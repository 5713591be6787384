package e2e_test

import (
	"fmt"
	"slices"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// closed waits until no dialog and no drawer lies over the bench.
func (c cook) closed() {
	c.Helper()
	c.sees(`[...document.querySelectorAll('.el-overlay')].every(o => o.style.display === 'none' || !o.isConnected)`)
	c.sees(`!document.body.classList.contains('el-popup-parent--hidden')`) // it has let go of the focus too
}

// bringsBack takes what was put aside back, once no other message can move the button.
func (c cook) bringsBack() {
	c.Helper()
	c.sees(`document.querySelectorAll('.el-message').length === 1`)
	c.click(".undo-line button")
}

func TestWhyIsAnsweredAtTheFigure(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.sees(`document.querySelectorAll('[data-gauge]').length === 7`)
	// By keyboard: the gauge is a button.
	c.sees(`(document.querySelector('[data-gauge=Thickness]').focus(), true)`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('.why summary') && !document.querySelector('.why').innerText.includes('L* = V / F')`)
	c.click(".why summary")
	c.sees(`document.querySelector('.why').innerText.includes('L* = V / F')`)
	c.press(kb.Escape)
	c.sees(`!document.querySelector('.why') && document.activeElement.dataset.gauge === 'Thickness'`)
	c.click("[data-line=milk_whole] .off button")
	c.sees(`document.querySelector('.why .sum')?.innerText.includes('= 595 g')`)
	c.click(".why summary")
	c.sees(`document.querySelector('.why')?.innerText.includes('a gram of this line loosens')`)
	c.press(kb.Escape)
	c.sees(`!document.querySelector('.why')`)
	c.more("Read the steps")
	c.sees(`[...document.querySelectorAll('.el-dialog li')].some(li => li.innerText.includes('of the whole milk back for the test'))`)
	c.press(kb.Escape)
	c.closed()
	c.click(".doors .nutrition")
	c.sees(`[...document.querySelectorAll('.el-dialog')].some(d => d.innerText.includes('cereals containing gluten (wheat)') && d.innerText.includes('kcal'))`)
	c.press(kb.Escape)
	c.closed()
}

func TestCompareWaysAndChooseWhatHolds(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.click(".sum .tool:last-child")
	c.sees(`document.querySelectorAll('[data-way] dl').length === 5`)
	lead, err := stage.Ask[string](c.p, `document.querySelector('[data-way=dry_addition] .lead').innerText`)
	require.NoError(t, err)
	assert.Contains(t, lead, "dried to")
	c.click("[data-way=dry_addition] button")
	c.closed()
	c.sees(fmt.Sprintf("document.querySelector('[data-verdict=weigh] b').innerText.replaceAll('\u00a0', ' ') === %q", lead))
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .dry').innerText.includes('squeeze or reduce')`)
	c.press("3") // the same way by its key changes nothing
	c.press("1")
	c.sees(`document.querySelector('[data-line=salt_fine] .off').innerText.includes('add')`)
	c.click(".sum .tool")
	c.sees(`document.querySelectorAll('.holds input').length === 8`)
	c.click(".holds label:nth-child(5)")
	c.sees(`document.querySelector('[data-line=salt_fine] .off').innerText.includes('as it is')`)
	c.press(kb.Escape)
	c.closed()
	c.saved()
	_, doc := c.stored()
	assert.NotContains(t, fmt.Sprint(doc["offset"]), "salt")
}

func TestScaleSwapAndUndo(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.click("[aria-label='28 portions']")
	c.sees(`Number(document.querySelector('.count .figure b').innerText) >= 28`)
	c.sees(`!document.querySelector('[data-line=milk_whole] .out').innerText.startsWith('595')`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(`document.querySelector('[data-line=milk_whole] .out').innerText.startsWith('595')`)

	c.click("[data-line=milk_whole] .pin button")
	c.sees(`(() => { const i = [...document.querySelectorAll('.row-menu li')].find(l => l.offsetParent && l.innerText.includes('instead')); i?.click(); return !!i })()`)
	c.click(`[data-swap="Whole milk powder and water"] .el-button`)
	c.sees(`document.querySelector('[data-line=whole_milk_powder]') && document.querySelector('[data-line=water]')`)
	c.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
	c.sees(`document.querySelector('[data-line=milk_whole]')`)
	c.press("b")
	c.sees(`document.querySelector('.plain')`)
	c.sees(`document.querySelector('[data-line=milk_whole] .off').innerText.includes('as it is')`)
	c.press("b")
	c.sees(`document.querySelector('[data-line=milk_whole] .off').innerText.includes('hold back')`)
}

// "I have 310 g of purée": a number between the steps of the field has to be taken.
func TestScaleByWhatIsLeft(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.click("[aria-label='Scale the batch']")
	c.sees(`[...document.querySelectorAll('.el-dialog')].some(d => d.innerText.includes('what is left'))`)
	_, err := stage.Ask[bool](c.p, `[...document.querySelectorAll('.el-dialog label')].find(l => l.innerText.trim() === 'what is left').click() ?? true`)
	require.NoError(t, err)
	c.click(".el-dialog .row .much input")
	c.sees(`(document.activeElement.select(), true)`)
	c.do(chromedp.KeyEvent("310"), chromedp.KeyEvent(kb.Tab))
	c.click(".el-dialog form .go")
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .amount').innerText.startsWith('310')`)
	c.closed()
	c.agrees("milk_whole")
}

func TestNameAVersionChangeAndGoBack(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.saved()
	c.more("Versions")
	c.sees(`document.querySelector('.el-dialog .empty')?.innerText.includes('No version has a name yet')`)
	c.click(".el-dialog form input")
	c.do(chromedp.KeyEvent("Two boats"), chromedp.KeyEvent(kb.Enter))
	c.sees(`[...document.querySelectorAll('.el-dialog li b')].some(b => b.innerText === 'Two boats')`)
	c.press(kb.Escape)
	c.closed()
	c.click("[data-addition=beetroot_cooked] h3")
	c.press("+")
	c.press("+")
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .amount').innerText.startsWith('340')`)
	c.saved()
	c.more("Versions")
	c.click(".el-dialog li button")
	c.sees(`[...document.querySelectorAll('tr[data-change=more]')].some(r => r.innerText.includes('Beetroot') && r.innerText.includes('320 g') && r.innerText.includes('340 g'))`)
	c.click(".el-dialog__body > .el-button")
	c.closed()
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .amount').innerText.startsWith('320')`)
	c.saved()

	c.click("[aria-label=Variations]")
	c.click("[aria-label='Duplicate Beetroot & orange']")
	c.sees(`document.querySelector('h1').innerText === 'Beetroot & orange, copy'`)
}

// Dragging a slider repaints the ledger soon after each move. The page drives itself with
// events of its own. The time is printed, not asserted: it belongs to the machine.
func TestDragTime(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.saved()
	moves := often(80, 12)
	_, err := stage.Ask[bool](c.p, fmt.Sprintf(`(() => {
		const knob = document.querySelector('[data-addition=beetroot_cooked] .el-slider__button-wrapper')
		const r = knob.getBoundingClientRect()
		const [x, y] = [r.x + r.width / 2, r.y + r.height / 2]
		const times = (window.__times = [])
		let from = 0
		let n = 0
		const move = () => {
			if (n++ === %d) {
				window.dispatchEvent(new MouseEvent('mouseup', { clientX: x, clientY: y }))
				window.__dragged = true
				return
			}
			from = performance.now()
			window.dispatchEvent(new MouseEvent('mousemove', { clientX: x - 60 + ((n * 37) %% 110), clientY: y }))
		}
		new MutationObserver(() => {
			if (!from) return
			const start = from
			from = 0
			// A task after the next frame's callbacks: the frame with the new figures is painted.
			requestAnimationFrame(() => setTimeout(() => {
				times.push(performance.now() - start)
				setTimeout(move, 25)
			}))
		}).observe(document.querySelector('[data-line=milk_whole] .out'), { subtree: true, characterData: true, childList: true })
		knob.dispatchEvent(new MouseEvent('mousedown', { bubbles: true, clientX: x, clientY: y }))
		move()
		return true
	})()`, moves))
	require.NoError(t, err)
	c.sees("window.__dragged")
	times, err := stage.Ask[[]float64](c.p, "window.__times")
	require.NoError(t, err)
	require.Len(t, times, moves, "the ledger follows every move")
	c.saved()
	slices.Sort(times)
	ms := func(share float64) time.Duration {
		return time.Duration(times[int(share*float64(len(times)-1))] * float64(time.Millisecond)).Round(time.Millisecond)
	}
	fmt.Printf("drag: %d moves, median %v, 95th percentile %v from move to painted ledger\n", len(times), ms(0.5), ms(0.95))
}

// The same with real mouse moves sent to the browser: the way of an input event and the
// test's own traffic are in these figures, and they are higher.
func TestDragTimeWithRealMoves(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.saved()
	at, err := stage.Ask[[]float64](c.p, `(() => {
		const b = document.querySelector('[data-addition=beetroot_cooked] .el-slider__button').getBoundingClientRect()
		window.__times = []
		let moved = 0
		addEventListener('mousemove', () => { moved ||= performance.now() }, true)
		new MutationObserver(() => {
			if (!moved) return
			const from = moved
			moved = 0
			requestAnimationFrame(() => setTimeout(() => window.__times.push(performance.now() - from)))
		}).observe(document.querySelector('[aria-label="Weigh-out list"]'), { subtree: true, characterData: true, childList: true })
		return [b.x + b.width / 2, b.y + b.height / 2]
	})()`)
	require.NoError(t, err)
	c.do(chromedp.MouseEvent("mousePressed", at[0], at[1], chromedp.ButtonLeft, chromedp.ClickCount(1)))
	for i := range often(60, 12) {
		c.do(chromedp.MouseEvent("mouseMoved", at[0]-70+float64((i*37)%120), at[1], chromedp.ButtonLeft))
		c.sees(fmt.Sprintf("window.__times.length >= %d || document.querySelector('[data-save=saved]')", i*4/5))
	}
	c.do(chromedp.MouseEvent("mouseReleased", at[0], at[1], chromedp.ButtonLeft, chromedp.ClickCount(1)))
	c.saved()
	times, err := stage.Ask[[]float64](c.p, "window.__times")
	require.NoError(t, err)
	require.NotEmpty(t, times)
	slices.Sort(times)
	ms := func(share float64) int { return int(times[int(share*float64(len(times)-1))]) }
	fmt.Printf("drag with real moves: %d repaints, median %d ms, 95th percentile %d ms\n", len(times), ms(0.5), ms(0.95))
}

// A ladle of it is tested on a cold plate: what the program asks for is what the question answers, and a bowl that
// is right asks for nothing. In words as well, where there is no ruler.
func TestTheBowlIsTestedAndPutRight(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.more("Read the steps")
	c.sees(`document.querySelector('.spread-test')`)
	_, doc := c.stored()
	var answer struct {
		Target float64 `json:"target_diameter_mm"`
		Add    []struct{ Grams float64 }
	}
	c.post("/api/v1/correction", map[string]any{"variation": doc, "test": map[string]any{"volume_ml": 60, "diameter_mm": 92}}, &answer)
	require.Len(t, answer.Add, 1)
	c.types(".spread-test input[aria-label]", "92")
	c.sees(fmt.Sprintf(`document.querySelector('.spread-test .grams')?.innerText.startsWith('+ %.0f g')`, answer.Add[0].Grams))
	c.sees(fmt.Sprintf(`document.querySelector('.spread-test .answer').innerText.includes('run to %.0f mm')`, answer.Target))
	c.reachable("a test of the bowl")
	c.keepsTheRules(1280, "a test of the bowl")
	c.click(".spread-test .answer .go")
	c.sees(fmt.Sprintf(`document.querySelector('.spread-test .so-far')?.innerText.includes('so far: %.0f g')`, answer.Add[0].Grams))
	c.types(".spread-test input[aria-label]", fmt.Sprintf("%.0f", answer.Target))
	c.sees(`document.querySelector('.spread-test .answer')?.innerText.includes('It is right') && !document.querySelector('.spread-test .grams')`)
	c.click(".spread-test .looks .el-button:first-child")
	c.sees(`document.querySelector('.spread-test .answer')?.innerText.includes('as much as the bowl takes at once')`)
	c.click(".spread-test .looks .el-button:last-child")
	c.sees(`document.querySelector('.spread-test .answer')?.innerText.includes('runs more than it should')`)
	c.types(".spread-test input[aria-label]", "9000")
	c.sees(`document.querySelector('.spread-test [role=alert]')?.innerText.includes('between 20 and 500')`)
	c.p.ForgetConsole() // the browser itself reports the 400
}
