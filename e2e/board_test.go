package e2e_test

import (
	"context"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// morning is a kitchen whose clock the test moves on.
type morning struct {
	*stage.Kitchen
	mu  sync.Mutex
	by  time.Duration
	dir string
}

func (m *morning) now() time.Time {
	m.mu.Lock()
	defer m.mu.Unlock()
	return time.Now().Add(m.by)
}

func (m *morning) pass(d time.Duration) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.by += d
}

func atMorning(t *testing.T) *morning {
	t.Helper()
	kitchen(t) // says what is missing
	m := &morning{dir: t.TempDir()}
	k, err := stage.Open(context.Background(), m.dir, m.now)
	require.NoError(t, err)
	t.Cleanup(func() { k.Close() })
	m.Kitchen = k
	return m
}

// does waits until something stands at the head of what is to be done, and presses the space bar.
func (c cook) does(title string) {
	c.Helper()
	c.sees(`document.querySelector('button[data-now]')?.innerText.includes(` + quoted(title) + `)`)
	c.sees(`document.activeElement === document.body || !document.activeElement.closest('.el-dialog')`)
	c.press(" ")
	c.sees(`!document.querySelector('button[data-now]')?.innerText.includes(` + quoted(title) + `)`)
}

func quoted(s string) string { return "`" + s + "`" }

// From the sheet to the plate, the rack, the freezer and the label: by the space bar, and by a tap where a choice is made.
func TestAMorningAtTheBoard(t *testing.T) {
	m := atMorning(t)
	c := sits(t, m.Kitchen, 1280, 800)
	c.opens("Carrot, cardamom & walnut")
	c.makesThis()
	c.tells(func(a asked) bool { return a.Kind == "do" && c.codeOf(a.ID) == "heat" })
	c.click("[data-to-board]")
	c.sees(`document.querySelector('.el-dialog [data-bowl]')?.querySelector('.is-checked, input:checked') || document.querySelector('.el-dialog .is-checked[data-bowl]')`)
	c.reachable("which bowl on which plate")
	c.click(".el-dialog form .go")
	c.closed()
	c.sees(`document.querySelector('[data-plate=plate]')?.innerText.includes('Contains egg, milk, walnut and wheat')`)
	c.sees(`location.pathname === '/griddle' && !location.search`)
	assert.True(t, c.batch().State.Made, "everything is in it: it is made")

	c.does("Switch on the long plate")
	c.sees(`document.querySelector('[data-now]')?.innerText.includes('Nothing to do')`)
	m.pass(12 * time.Minute)
	c.does("The long plate hot?")
	c.does("Pour 1")
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'first'`)
	c.sees(`document.querySelector('[data-plate=plate]').innerText.includes('The first one is a test')`)
	c.keepsTheRules(1280, "the board")
	c.reachable("the board")
	c.does("Oven to 85")
	m.pass(5 * time.Minute)
	c.sees(`document.querySelector('[data-now] .by')?.innerText.includes('late')`)
	c.does("Flip 1")
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'second'`)
	c.press("z")
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'first'`)
	c.does("Flip 1")
	m.pass(5 * time.Minute)
	c.does("Lift 1")
	c.sees(`document.querySelector('[data-tray=fine]')?.innerText.includes('1 × Carrot')`)

	// The verdict: what the button says is what the plate says afterwards.
	says := c.asks(`document.querySelector('[data-verdict=pale] small').innerText`)
	c.reachable("the verdict")
	c.keepsTheRules(1280, "the verdict")
	c.press(" ") // takes the focus to the strip
	c.sees(`document.activeElement?.dataset.verdict === 'right'`)
	c.taps("[data-verdict=pale]")
	c.sees(`!document.querySelector('[data-judge]') && document.querySelector('[data-plate=plate] .who small').innerText.includes(` + quoted(says[len("dial to "):]) + `)`)

	// A reload, and another tablet, see the same.
	c.press("1")
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'first'`)
	other := sits(t, m.Kitchen, 820, 1180)
	other.click("[href='/griddle']")
	other.sees(`document.querySelector('[data-place="1"]')?.dataset.phase === 'first'`)
	other.keepsTheRules(820, "the board")
	m.pass(4 * time.Minute)
	other.sees(`document.querySelector('button[data-now]')?.innerText.includes('Flip 1')`)
	other.click("[data-now]")
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'second'`)
	m.pass(4 * time.Minute)
	c.does("Lift 1")
	c.sees(`document.querySelector('[data-judge]')`)
	c.taps("[data-verdict=right]")
	c.sees(`document.querySelectorAll('[data-phase=free]').length > 5`)

	// Into the freezer: cooled, an hour flat, bagged, with a label that tells what is in it.
	c.sees(`[...document.querySelectorAll('[data-tray]')].length === 2`)
	c.click("[data-tray] [aria-label^='More for']")
	c.sees(`(() => { const i = [...document.querySelectorAll('.el-dropdown-menu li')].find(l => l.offsetParent && l.innerText.startsWith('Freeze')); i?.click(); return !!i })()`)
	c.sees(`document.querySelector('[data-flat]')`)
	m.pass(80 * time.Minute)
	c.sees(`document.querySelector('[data-flat] .time').innerText.startsWith('bag')`)
	c.click("[data-bag]")
	c.sees(`document.querySelector('.el-dialog .contains')?.innerText.includes('walnut')`)
	c.click(".el-overlay:not([style*=none]) form .go")
	c.closed()
	c.click("[aria-label=More]")
	c.sees(`(() => { const i = [...document.querySelectorAll('.board-more li')].find(l => l.offsetParent && l.innerText.includes('freezer')); i?.click(); return !!i })()`)
	c.sees(`document.querySelector('[data-pack^=Carrot]')?.innerText.includes('Contains egg, milk, walnut and wheat')`)
	c.keepsTheRules(1280, "the freezer")
	c.click("[data-pack^=Carrot] [data-label]")
	c.sees(`document.querySelector('.open img')?.complete && document.querySelector('.open img').naturalWidth === 732`)
	c.reachable("a label")
	c.click("[data-print]")
	c.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('printed'))`)
	files, err := filepath.Glob(filepath.Join(m.dir, "labels", "*.pdf"))
	require.NoError(t, err)
	require.Len(t, files, 1)
	text, err := exec.CommandContext(t.Context(), "pdftotext", files[0], "-").Output()
	require.NoError(t, err)
	for _, part := range []string{"Carrot, cardamom & walnut", "Contains egg, milk, walnut and wheat", "other nuts", "Use by", "74 °C"} {
		assert.Contains(t, strings.Join(strings.Fields(string(text)), " "), part)
	}
	_, err = os.Stat(files[0][:len(files[0])-4] + ".png")
	require.NoError(t, err)
	c.press("\x1b")
	c.closed()
	c.click("[data-pack^=Carrot] [data-use]")
	c.sees(`document.querySelector('[data-pack^=Carrot]') === null && document.querySelector('.shelf').innerText.includes('Used up')`)
}

// codeOf is what a step of the last batch is, by its code.
func (c cook) codeOf(id string) string {
	c.Helper()
	var b struct {
		State struct{ Tasks []struct{ ID, Code string } }
	}
	c.get("/api/v1/batches/"+c.batch().ID, &b)
	for _, t := range b.State.Tasks {
		if t.ID == id {
			return t.Code
		}
	}
	return ""
}

// On a phone, by a finger; and while the program is away the clocks go on, and what is pressed waits.
func TestTheBoardOnAPhone(t *testing.T) {
	m := atMorning(t)
	c := sits(t, m.Kitchen, 390, 844)
	c.makesThis()
	c.tells(func(asked) bool { return false })
	require.NoError(t, c.p.Touch())
	c.click("[href='/griddle']")
	c.click("[data-begin]")
	c.click("[data-plate=plate] .empty button")
	c.sees(`document.querySelector('.el-dialog [data-bowl]')`)
	c.keepsTheRules(390, "which bowl on which plate")
	c.click(".el-dialog form .go")
	c.closed()
	c.click(`[data-place="1"]`) // a touch on the place says that the plate is on and hot
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'first'`)
	c.keepsTheRules(390, "the board")
	m.pass(4 * time.Minute)
	c.sees(`document.querySelector('button[data-now]')?.innerText.includes('Flip 1')`)
	require.NoError(t, m.Stop())
	c.sees(`document.querySelector('[data-away]')`)
	c.click("[data-now]")
	c.sees(`document.querySelector('[data-away]').innerText.includes('1 so far')`)
	c.p.ForgetConsole()
	require.NoError(t, m.Start())
	c.sees(`document.querySelector('[data-place="1"]')?.dataset.phase === 'second'`)
	c.sees(`!document.querySelector('[data-away]')`)
	c.p.ForgetConsole() // what failed while nobody answered
}

// A bowl that was mixed without the sheet goes on by its recipe, and says what nobody knows of it; one of which nothing is
// weighed is told. Of a tray as many are frozen as the cook says.
func TestABowlThatNoSheetLed(t *testing.T) {
	m := atMorning(t)
	c := sits(t, m.Kitchen, 1280, 800)
	c.makesThis() // and nothing of it is weighed
	c.click("[href='/griddle']")
	c.click("[data-begin]")
	c.click("[data-plate=plate] .empty button")
	c.sees(`document.querySelector('.el-dialog [data-bowl="Beetroot & orange"]')?.innerText.includes('nothing of it is weighed yet')`)
	c.sees(`document.querySelector('.el-dialog .note')?.innerText.includes('Weigh it first')`)
	c.click(`.el-dialog [data-without="Carrot, cardamom & walnut"]`)
	c.sees(`document.querySelector('.el-dialog .note')?.innerText.includes('is not known')`)
	c.sees(`document.querySelector(".el-dialog .contains")?.innerText.includes("walnut")`)
	c.reachable("a bowl without the sheet")
	c.keepsTheRules(1280, "a bowl without the sheet")
	c.click(".el-dialog form .go")
	c.closed()
	c.sees(`document.querySelector('[data-plate=plate]')?.innerText.includes('Contains egg, milk, walnut and wheat')`)

	c.click(`[data-place="1"]`)
	c.sees(`document.querySelector('[data-place="1"]').dataset.phase === 'first'`)
	m.pass(4 * time.Minute)
	c.does("Flip 1")
	m.pass(4 * time.Minute)
	c.does("Lift 1")
	c.taps("[data-verdict=right]")
	for _, place := range []string{"1", "2"} {
		c.click(`[data-place="` + place + `"]`)
		c.sees(`document.querySelector('[data-place="` + place + `"]').dataset.phase === 'first'`)
	}
	m.pass(4 * time.Minute)
	c.does("Flip 1")
	c.does("Flip 2")
	m.pass(4 * time.Minute)
	c.does("Lift 1")
	c.does("Lift 2")
	c.sees(`[...document.querySelectorAll('[data-tray]')].some(e => e.innerText.includes('2 × Carrot'))`)
	c.sees(`(() => { const e = [...document.querySelectorAll('[data-tray]')].find(e => e.innerText.includes('2 × Carrot')); e.querySelector("[aria-label^='More for']").click(); return true })()`)
	c.sees(`(() => { const i = [...document.querySelectorAll('.el-dropdown-menu li')].find(l => l.offsetParent && l.innerText.startsWith('Freeze some')); i?.click(); return !!i })()`)
	c.sees(`document.querySelector('.el-dialog form .go')?.checkVisibility() && document.activeElement.closest('.el-dialog')`)
	c.reachable("how many are frozen")
	c.click(".el-dialog form [aria-label^='Less:']")
	c.sees(`document.querySelector('.el-dialog form .go').innerText === 'Freeze 1'`)
	c.click(".el-dialog form .go")
	c.sees(`document.querySelector('[data-flat]')?.innerText.includes('1 × Carrot')`)
	c.sees(`[...document.querySelectorAll('[data-tray]')].every(e => !e.innerText.includes('2 × Carrot'))`)
}
