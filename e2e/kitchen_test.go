package e2e_test

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// Eggs by what the box says or weighed in the shell, a mug weighed once: the bench uses both.
func TestEggsByTheirSizeAndAMug(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.do(chromedp.Navigate(c.k.URL + "/kitchen"))
	c.sees(`document.querySelector('[aria-label="The size of your eggs"]')`)
	c.click(".el-select:has([aria-label='The size of your eggs'])")
	c.sees(`[...document.querySelectorAll('.el-select-dropdown__item')].some(e => e.offsetParent && e.innerText.startsWith('Europe, UK, large: 68 g'))`)
	_, err := stage.Ask[bool](c.p, `[...document.querySelectorAll('.el-select-dropdown__item')].find(e => e.innerText.startsWith('Europe, UK, large')).click() ?? true`)
	require.NoError(t, err)
	egg := `document.querySelector('[aria-label="One egg in grams"] input, input[aria-label="One egg in grams"]').value`
	c.sees(egg + ` === '60'`)
	c.types("input[aria-label='One egg weighed in its shell']", "62.5")
	c.sees(egg + ` === '55'`)
	c.types("input[aria-label='Your mug: water in it (g)']", "320")
	c.types("input[aria-label='Step of the scale in grams']", "0,5") // half of a gram, never five
	c.sees(`document.querySelector("input[aria-label='Step of the scale in grams']").value === '0.5'`)
	c.click("[aria-label='More: Altitude in metres']")
	c.sees(`document.querySelector("input[aria-label='Altitude in metres']").value === '54'`)
	c.sees(`document.querySelector('.kitchen [data-save=saved]')`)
	var own struct {
		Document struct {
			EggG  float64 `json:"egg_g"`
			MugML float64 `json:"mug_ml"`
			Step  float64 `json:"scale_step_g"`
		}
	}
	c.get("/api/v1/kitchen", &own)
	assert.Equal(t, 55.0, own.Document.EggG)
	assert.Equal(t, 320.0, own.Document.MugML)
	assert.Equal(t, 0.5, own.Document.Step)
	c.do(chromedp.Navigate(c.k.URL))
	c.sees(`document.querySelector('[data-line=egg_whole] .out')?.innerText.startsWith('220')`)
}
