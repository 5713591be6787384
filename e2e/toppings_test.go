package e2e_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What goes on is put on by one tap: the serving's sugar, its energy and its allergens follow, and it stands in what has to be out.
func TestWhatGoesOnTop(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Beetroot & orange")
	c.more("What goes on top")
	c.sees(`document.querySelectorAll('[data-topping]').length > 15`)
	c.reachable("what goes on")
	c.keepsTheRules(1280, "what goes on")
	c.sees(`!document.querySelector('[data-served]').innerText.includes('walnut')`)
	c.click("[data-topping=maple_syrup] .el-button")
	c.sees(`document.querySelector('[data-served]').innerText.includes('of it from what goes on')`)
	c.click("[data-topping=walnuts_chopped] .el-button")
	c.sees(`document.querySelector('[data-served]').innerText.includes('walnut')`)
	c.taps("[data-topping=maple_syrup] [aria-label^=More]")
	c.sees(`document.querySelector('[data-topping=maple_syrup] .much').innerText === '25 g'`)
	c.press("\x1b")
	c.closed()
	c.saved()
	_, doc := c.stored()
	parts := doc["parts"].([]any)
	assert.Len(t, parts, 2)
	assert.Equal(t, "Maple syrup, a drizzle of 25 g", parts[0].(map[string]any)["text"])
	c.more("What has to be out")
	c.sees(`document.querySelector('.el-dialog:not([style*="none"])')?.innerText.includes('Maple syrup')`)
}
