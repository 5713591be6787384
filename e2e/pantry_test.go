package e2e_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/device"
	"upbeatladle/e2e/stage"
)

// types puts a figure into a field.
func (c cook) types(css, text string) {
	c.Helper()
	c.click(css)
	c.sees(`(document.activeElement.select(), true)`)
	c.do(chromedp.KeyEvent(text), chromedp.KeyEvent(kb.Tab))
}

// figure reads the first number in what a selector shows.
func (c cook) figure(css string) float64 {
	c.Helper()
	v, err := stage.Ask[float64](c.p, fmt.Sprintf("parseFloat(document.querySelector(%q).innerText)", css))
	require.NoError(c, err)
	return v
}

const milkWeigh = "[data-line=milk_whole] .out"

// A kilo of beetroot, weighed live before and after, becomes today's purée; the saved
// variation that uses beetroot is worked out with it, on the bench and on its card, and says
// since when. With the tub empty the table is back.
func TestAPureeFromALiveWeightMovesASavedVariation(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.opens("Beetroot & orange")
	before := c.figure(milkWeigh)
	c.click("a[href='/prep']")
	c.sees(`document.querySelector('.scale')?.dataset.link === 'live'`)
	weigh := func(grams float64, field string) {
		k.Scale.Put(grams)
		c.sees(fmt.Sprintf(`document.querySelector('.scale').dataset.steady === 'true' && Math.abs(parseFloat(document.querySelector('.scale output').innerText) - %g) <= 1`, grams))
		c.click("[data-field=" + field + "] button")
		c.sees(fmt.Sprintf(`Math.abs(Number(document.querySelector('[data-field=%s] input').value) - %g) <= 1`, field, grams))
	}
	weigh(1240, "have_g")
	weigh(1060, "after_g")
	c.sees(`Math.abs(parseFloat(document.querySelector('[data-product] .sum').textContent) - 1060) <= 1`)
	c.click(".keep .go")
	c.sees(`document.querySelector('.keep [role=status]')?.innerText.includes('is saved')`)
	c.click(".rail a")
	c.sees(fmt.Sprintf(`document.querySelector(%q) && parseFloat(document.querySelector(%[1]q).innerText) < %g`, milkWeigh, before-3))
	c.sees(`document.querySelector('[data-addition=beetroot_cooked] .chip[title*="Beetroot"]')?.innerText.includes('measured')`)

	c.click("a[href='/pantry']")
	c.sees(`document.querySelectorAll('[data-row]').length > 150`)
	c.click("[data-row=beetroot_cooked]")
	c.sees(`document.querySelector('[data-ingredient=beetroot_cooked] .used')?.innerText.includes('Beetroot & orange')`)
	c.sees(`document.querySelector('[data-ingredient=beetroot_cooked] [data-slice=water] .was')`)
	c.click(".mine li:has(.chip) .ghost")
	c.sees(`document.querySelectorAll('[data-ingredient=beetroot_cooked] .mine li .chip').length === 0`)
	c.bringsBack()
	c.sees(`document.querySelector('[data-ingredient=beetroot_cooked] .mine li .chip')`)
	c.click(".mine li:has(.chip) .ghost")
	c.sees(`document.querySelectorAll('[data-ingredient=beetroot_cooked] .mine li .chip').length === 0`)
	c.click(".used .el-button")
	c.sees(fmt.Sprintf(`document.querySelector(%q) && Math.abs(parseFloat(document.querySelector(%[1]q).innerText) - %g) < 0.5`, milkWeigh, before))
}

// A device that is unplugged is said to be; the page goes on and figures can be typed.
func TestTheScaleGoesSilentAndTypingGoesOn(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/prep']")
	c.sees(`document.querySelector('.scale')?.dataset.link === 'live'`)
	c.click(".methods button:nth-child(5)") // grate, salt, squeeze
	c.sees(`document.querySelector('[data-method=squeeze] [data-product]')`)
	k.Unplug()
	c.sees(`document.querySelector('.scale').dataset.link !== 'live' && document.querySelector('.scale .hollow') && document.querySelector('.scale .says').innerText.includes('type the figure in')`)
	c.types("[data-field=have_g] input", "400")
	c.types("[data-field=after_g] input", "450")
	c.sees(`document.querySelector('[data-field=after_g] .fault')?.innerText.includes('no liquid was added')`)
	c.p.ForgetConsole() // the browser itself reports the 400
	c.types("[data-field=after_g] input", "300")
	c.sees(`!document.querySelector('[data-field=after_g] .fault') && parseFloat(document.querySelector('[data-product] .sum').textContent) === 300`)
	c.sees(`[...document.querySelectorAll('[data-left=juice] text')].some(e => parseFloat(e.textContent.replace('−', '')) > 90)`)
	c.click(".keep .el-button:not(.go)") // the juice too
	c.sees(`document.querySelector('.keep [role=status]')?.innerText.includes('Juice of')`)
	// The other way round: so much is needed.
	c.click(".area-bar .pick label:nth-child(2)")
	c.sees(`document.querySelector('[data-field=want_g] input') && !document.querySelector('[data-field=after_g]')`)
	c.types("[data-field=want_g] input", "500")
	c.sees(`Math.abs(parseFloat(document.querySelector('[data-product] .sum').textContent) - 500) < 1 && parseFloat(document.querySelector('.mass .sum').textContent) > 600`)
}

// A drop on the refractometer and ten berries on the scale: both count, the table stays beside.
func TestMeasureInThePantry(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/pantry']")
	c.sees(`document.querySelectorAll('[data-row]').length > 150`)
	c.types("[aria-label='Find an ingredient']", "blueberries, frozen")
	c.sees(`document.querySelectorAll('[data-row]').length <= 2 && document.querySelector('[data-row]')?.dataset.row === 'blueberry_frozen'`) // bilberries are wild ones
	c.click("[data-row=blueberry_frozen]")
	c.sees(`document.querySelector('[data-ingredient=blueberry_frozen]')`)
	c.click(".acts .el-button")
	c.sees(`document.querySelector('.el-dialog [data-field=pieces]')`)
	k.Glass.Put(device.Reading{Brix: 13.5, SampleC: 30})
	c.click(".el-dialog .glass .shown button")
	c.sees(`Math.abs(Number(document.querySelector('.el-dialog [data-field=brix] input').value) - 13.5) < 0.4`)
	c.types(".el-dialog [data-field=pieces] input", "10")
	c.types(".el-dialog [data-field=pieces_g] input", "18")
	c.click(".el-dialog .go")
	c.closed()
	c.sees(`document.querySelector('[data-ingredient] .chip')?.innerText.includes('measured')`)
	c.sees(`[...document.querySelectorAll('[data-ingredient] .figures tr')].some(r => r.innerText.startsWith('a piece') && r.innerText.includes('1.80') && r.innerText.includes('1.40'))`)
	c.sees(`[...document.querySelectorAll('[data-ingredient] .figures tr')].some(r => r.innerText.startsWith('reads') && Math.abs(parseFloat(r.querySelector('td').innerText) - 13.5) < 0.4)`)
}

func TestAnIngredientFromAPackAndAFile(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/pantry']")
	c.sees(`document.querySelectorAll('[data-row]').length > 150`)
	c.click(".pantry .bar .el-button")
	c.sees(`document.querySelector('#own-name')`)
	c.types("#own-name", "Quayside curd")
	c.click(".el-dialog .el-select:has(#own-like)")
	c.do(chromedp.KeyEvent("ricotta"))
	c.sees(`[...document.querySelectorAll('.el-select-dropdown__item')].filter(e => e.offsetParent).length === 1`)
	c.do(chromedp.KeyEvent(kb.ArrowDown), chromedp.KeyEvent(kb.Enter))
	for field, v := range map[string]string{"energy_kcal": "600", "fat_g": "10", "carbohydrate_g": "3.5", "sugars_g": "3.5", "protein_g": "9", "salt_g": "0.2"} {
		c.types(fmt.Sprintf("[data-field=pack-%s] input", field), v)
	}
	c.click(".el-dialog .go")
	c.sees(`document.querySelector('.el-dialog [role=alert]')?.innerText.includes('kJ')`)
	c.p.ForgetConsole()
	c.types("[data-field=pack-energy_kcal] input", "140")
	c.click(".el-dialog .go")
	c.closed()
	c.sees(`document.querySelector('[data-ingredient=quayside_curd] .chip')?.innerText.includes('partly estimated')`)
	c.click(".acts .el-button") // change its figures
	c.sees(`document.querySelector('[data-field=own-fat_g] input')`)
	c.types("[data-field=own-fat_g] input", "60")
	c.click(".el-dialog .go")
	c.sees(`[...document.querySelectorAll('.el-dialog [role=alert]')].some(e => e.innerText.includes('add up to'))`)
	c.p.ForgetConsole()
	c.types("[data-field=own-fat_g] input", "11")
	c.click(".el-dialog .go")
	c.closed()
	c.sees(`document.querySelector('[data-ingredient=quayside_curd] [data-slice=fat] b').innerText === '11.0'`)
	c.click(".rail a")
	c.sees(`document.querySelectorAll('[data-line]').length > 5`)
	c.press("/")
	c.sees(`document.activeElement?.closest('.el-autocomplete')`)
	c.press("quayside")
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(li => li.innerText.includes('Quayside curd'))`)
	c.press(kb.Enter)
	c.sees(`document.querySelector('[data-addition=quayside_curd] .chip.leaf')`)
	c.saved()

	c.click("a[href='/pantry']")
	c.sees(`document.querySelectorAll('[data-row]').length > 150`)
	c.click(".pantry .bar .el-button:nth-of-type(2)")
	c.sees(`document.querySelector('.import input[type=file]')`)
	file := "id,name,group,role,water_g,carbohydrate_g,sugars_g,ash_g\nhatch_jam,Hatch jam,topping,topping,30,69,66,1\nwet,Too wet,topping,topping,90,69,66,1\n"
	give := fmt.Sprintf(`(() => {
		const i = document.querySelector('.import input[type=file]'), d = new DataTransfer()
		d.items.add(new File([%q], 'pantry.csv'))
		i.files = d.files
		i.dispatchEvent(new Event('change'))
		return true
	})()`, file)
	c.sees(give)
	c.sees(`document.querySelector('[data-action=added]') && document.querySelector('[data-action=refused]') && document.querySelector('.import .rows').innerText.includes('add up to')`)
	assert.Empty(t, rowsOf(c, "hatch_jam"), "nothing is kept before it was seen")
	c.click(".import .go")
	c.closed()
	c.types("[aria-label='Find an ingredient']", "hatch jam")
	c.sees(`document.querySelector('[data-row=hatch_jam]') && !document.querySelector('[data-row=wet]')`)
}

func rowsOf(c cook, id string) []string {
	c.Helper()
	found, err := stage.Ask[[]string](c.p, fmt.Sprintf(`[...document.querySelectorAll('[data-row=%s]')].map(e => e.innerText)`, id))
	require.NoError(c, err)
	return found
}

// On the card: raw, then salted and squeezed. The milk that is held back becomes less at once,
// the salt comes off the recipe, and the document says how it was prepared.
func TestPreparedOnTheCard(t *testing.T) {
	c := sits(t, kitchen(t), 1280, 800)
	c.opens("Courgette, dill & feta")
	raw := c.figure(milkWeigh)
	c.click("[data-addition=courgette_grated]")
	c.click(".preps .el-select")
	c.sees(`[...document.querySelectorAll('.el-select-dropdown__item')].some(e => e.innerText.trim() === 'salted and squeezed' && e.offsetParent)`)
	_, err := stage.Ask[bool](c.p, `[...document.querySelectorAll('.el-select-dropdown__item')].find(e => e.innerText.trim() === 'salted and squeezed' && e.offsetParent).click() ?? true`)
	require.NoError(t, err)
	c.sees(fmt.Sprintf(`parseFloat(document.querySelector(%q).innerText) > %g`, milkWeigh, raw+30))
	c.sees(`document.querySelector('[data-line=salt_fine] .off').innerText.includes('hold back')`)
	squeezed := c.figure(milkWeigh)
	c.types(".preps [data-field=after] input", "300")
	c.sees(fmt.Sprintf(`parseFloat(document.querySelector(%q).innerText) < %g && document.querySelector('[data-addition=courgette_grated]').innerText.includes('300 g go in')`, milkWeigh, squeezed))
	c.saved()
	_, doc := c.stored()
	got := fmt.Sprint(doc["additions"])
	assert.True(t, strings.Contains(got, "prep:salt_squeeze") && strings.Contains(got, "weight_after_g:300"), got)
}
