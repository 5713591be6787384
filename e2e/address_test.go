package e2e_test

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// Every variation has an address: it opens again by it, going back leads to the one before, the window is called by what
// is open, and an address that leads nowhere says so and shows what there is.
func TestEveryVariationHasAnAddress(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.sees(`location.pathname.startsWith('/v/') && document.title === 'Beetroot & orange · Upbeat Ladle'`)
	first := c.asks("location.pathname")
	c.opens("Spinach crêpe")
	c.sees(`document.title === 'Spinach crêpe · Upbeat Ladle'`)
	second := c.asks("location.pathname")
	assert.NotEqual(t, first, second)
	c.sees("(history.back(), true)")
	c.sees(fmt.Sprintf("location.pathname === %q && document.querySelector('h1').innerText === 'Beetroot & orange'", first))

	other := sits(t, k, 390, 844)
	other.do(chromedp.Navigate(k.URL + second))
	other.sees(`document.querySelector('h1')?.innerText === 'Spinach crêpe'`)
	other.do(chromedp.Navigate(k.URL + "/pantry"))
	other.sees(`document.title === 'Pantry · Upbeat Ladle'`)
	other.click(".rail a")
	other.sees(fmt.Sprintf("location.pathname === %q", second))

	other.do(chromedp.Navigate(k.URL + "/v/nothing-like-it"))
	other.sees(`[...document.querySelectorAll('.el-message')].some(m => m.innerText.includes('not there'))`)
	other.sees(`location.pathname.startsWith('/v/0') && document.querySelector('h1').innerText`)
	got, err := stage.Ask[string](other.p, `document.querySelector('h1').innerText`)
	require.NoError(t, err)
	assert.NotEmpty(t, got)
	other.p.ForgetConsole() // the browser reports the 404 itself
}
