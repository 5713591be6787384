package e2e_test

import (
	"errors"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
	"upbeatladle/store"
)

// house is a kitchen that tablets come into over TLS, and a browser that trusts it.
func house(t *testing.T) (*stage.Kitchen, *stage.Browser) {
	t.Helper()
	t.Parallel()
	k, err := stage.OpenHouse(t.Context(), t.TempDir(), time.Now)
	if errors.Is(err, stage.ErrNotBuilt) && os.Getenv("REQUIRE_BROWSER") == "" {
		t.Skip(err)
	}
	require.NoError(t, err)
	t.Cleanup(func() { k.Close() })
	b, err := stage.OpenBrowser(t.Context(), t.TempDir(), stage.Trusts(k.Own.Root()))
	require.NoError(t, err)
	t.Cleanup(b.Close)
	return k, b
}

// calls opens a page on a tablet of its own; what it is refused before it is in is no fault.
func calls(t *testing.T, k *stage.Kitchen, b *stage.Browser, width, height int64, url string) cook {
	t.Helper()
	p, err := b.Page(width, height)
	require.NoError(t, err)
	t.Cleanup(func() {
		for _, said := range p.Console() {
			assert.Contains(t, said, "status of 401", "the console is free of errors and warnings")
		}
		p.Close()
	})
	c := cook{t, k, p}
	c.do(chromedp.Navigate(url))
	return c
}

const asking = `document.querySelector('.sign-in input[name=passcode]')?.checkVisibility()`

func (c cook) comesIn(passcode string) {
	c.Helper()
	c.sees(asking)
	c.sees(`document.activeElement?.name === 'passcode'`)
	c.do(chromedp.KeyEvent(passcode + kb.Enter))
}

const inside = `!document.querySelector('.sign-in')?.checkVisibility() && document.querySelectorAll('[data-line]').length > 5`

// Two tablets come in by the passcode, work on one variation, and one that was lost is signed out.
func TestTwoTabletsInOneHouse(t *testing.T) {
	k, b := house(t)
	bowl := calls(t, k, b, 1280, 800, k.URL)
	bowl.sees(asking)
	bowl.reachable("the passcode is asked for")
	bowl.comesIn("plum")
	bowl.sees(`document.querySelector('.sign-in [role=alert], .sign-in .el-form-item__error')?.innerText.includes('not the passcode')`)
	bowl.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(2)))
	bowl.comesIn(k.Passcode)
	bowl.sees(inside)

	plate := calls(t, k, b, 820, 1180, k.URL+"/kitchen")
	plate.comesIn(k.Passcode)
	plate.sees(`document.querySelectorAll('.other-tablets li').length === 2`)
	address, err := stage.Ask[string](bowl.p, "location.pathname")
	require.NoError(t, err)
	plate.do(chromedp.Navigate(k.URL + address))
	plate.sees(inside)

	// Both change it; who comes second is asked, and nothing is lost.
	renamed := func(c cook, name string) {
		c.click(".bar [aria-label='Name of the variation']")
		c.sees(`document.activeElement?.tagName === 'INPUT'`)
		c.do(chromedp.KeyEvent("a", chromedp.KeyModifiers(2)))
		c.do(chromedp.KeyEvent(name + kb.Enter))
	}
	renamed(bowl, "From the bowl")
	bowl.saved()
	renamed(plate, "From the plate")
	plate.sees(`document.querySelector('[data-save=conflict]')`)
	plate.p.ForgetConsole()
	plate.sees(`(() => { const b = [...document.querySelectorAll('.el-dialog .el-button')].find(b => b.checkVisibility() && b.innerText.includes("Keep this tablet's")); b?.click(); return !!b })()`)
	plate.saved()

	// The tablet at the plate was lost: the bowl signs it out. What is typed there waits.
	bowl.do(chromedp.Navigate(k.URL + "/kitchen"))
	bowl.sees(`document.querySelectorAll('.other-tablets li').length === 2`)
	bowl.reachable("the kitchen with other tablets")
	bowl.click(".other-tablets li:not(.here) .el-button")
	bowl.sees(`document.querySelectorAll('.other-tablets li').length === 1`)
	renamed(plate, "From the plate, found again")
	plate.sees(asking)
	plate.comesIn(k.Passcode)
	plate.sees(inside)
	plate.saved()
	name := strings.TrimPrefix(address, "/v/")
	d, err := k.Store.Get(t.Context(), store.Variation, name)
	require.NoError(t, err)
	assert.Equal(t, "From the plate, found again", d.Name)

	// Signing out closes this one as well.
	bowl.click(".other-tablets li.here .el-button")
	bowl.sees(asking)
}

// A link shows one card, with its allergens, to whoever has it; on a tablet and on a phone.
func TestAGuestIsShownOneCard(t *testing.T) {
	k, b := house(t)
	c := calls(t, k, b, 1280, 800, k.URL)
	c.comesIn(k.Passcode)
	c.sees(inside)
	c.more("A link for a guest")
	c.sees(`document.querySelector('.guest-link .go')?.checkVisibility()`)
	c.reachable("a link for a guest")
	c.click(".guest-link .go")
	c.sees(`document.querySelector('.guest-link .made svg')`)
	link, err := stage.Ask[string](c.p, `document.querySelector('.guest-link .made input').value`)
	require.NoError(t, err)
	contains, err := stage.Ask[string](c.p, `document.querySelector('[data-verdict=allergens] b').innerText.replace(/\s/g, ' ')`)
	require.NoError(t, err)
	for _, size := range [][2]int64{{1280, 800}, {390, 844}} {
		guest := calls(t, k, b, size[0], size[1], link)
		guest.sees(`document.querySelector('.paper .contains')?.innerText.includes('` + contains + `')`)
		guest.sees(`!document.querySelector('.rail')`)
		guest.keepsTheRules(size[0], "the card of a guest")
		guest.do(chromedp.Navigate(k.URL))
		guest.sees(asking)
	}
	c.do(chromedp.Navigate(k.URL + "/kitchen"))
	c.sees(`document.querySelector('.other-tablets [aria-label^="Take back"]')`)
	c.click(`.other-tablets [aria-label^="Take back"]`)
	c.sees(`!document.querySelector('.other-tablets [aria-label^="Take back"]')`)
	gone := calls(t, k, b, 820, 1180, link)
	gone.sees(`document.querySelector('.guest [role=alert]')?.innerText.includes('opens nothing any more')`)
	gone.p.ForgetConsole()
}

// Who types the address without https learns what to do, step by step.
func TestATabletLearnsToTrust(t *testing.T) {
	k, b := house(t)
	for _, width := range []int64{1280, 390} {
		c := calls(t, k, b, width, 844, strings.Replace(k.URL, "https", "http", 1)+"/pantry")
		c.sees(`document.querySelector('h1')?.innerText === 'Trust this kitchen, once'`)
		c.sees(`document.body.innerText.includes('` + k.Own.Fingerprint() + `')`)
		c.sees(`document.querySelector('a[href="` + k.URL + `/pantry"]')`)
		c.reachable("how to trust")
		c.keepsTheRules(width, "how to trust")
	}
}
