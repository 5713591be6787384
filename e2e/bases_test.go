package e2e_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/e2e/stage"
)

// pastes puts a recipe into the reader.
func (c cook) pastes(text string) {
	c.Helper()
	c.sees(`document.querySelector('#paste')`)
	c.sees(fmt.Sprintf(`(() => { const e = document.querySelector('#paste'); e.value = %q; e.dispatchEvent(new Event('input', { bubbles: true })); return true })()`, text))
}

// chooses takes an option of the list that is open.
func (c cook) chooses(label string) {
	c.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('.el-select-dropdown__item')].find(e => e.innerText.trim() === %q && e.offsetParent)`, label)
	c.sees(find)
	_, err := stage.Ask[bool](c.p, find+`.click() ?? true`)
	require.NoError(c, err)
}

const notebook = `Carrot pancakes from the quay

- 250 g plain flour, sifted
- 2 tsp baking powder
- a pinch of salt
- 2 large eggs
- 400 ml milk
- 50 g butter, melted and cooled
- 2 tbsp sugar
- 1 cup grated carrot
- 40 g zonk nuts

1. Whisk the dry things together.
2. Mix until just combined.`

// A page of a notebook is pasted; the line that was not understood is put right, the recipe is kept
// as it is and moves nothing; with other fruit in it the milk moves. Its base alone is the other
// choice.
func TestPasteFixKeepAndSeeItOnTheBench(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/bases']")
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .go")
	c.pastes(notebook)
	c.sees(`document.querySelectorAll('.reader [data-status]').length === 9 && document.querySelectorAll('.reader [data-status=not_understood]').length === 1`)
	c.sees(`document.querySelector('.reader .sum').innerText.includes('1 to look at')`)
	c.click(".reader .sum button")
	c.click(".reader [data-status=not_understood] .what")
	c.do(chromedp.KeyEvent("walnuts"))
	c.chooses("Walnuts, chopped")
	c.sees(`document.querySelectorAll('.reader [data-status=read]').length === 9`)
	c.click(".reader .foot .go")
	c.sees(`document.querySelector('h1').innerText === 'Carrot pancakes from the quay'`)
	c.sees(`document.querySelector('[data-addition=carrot_grated]') && document.querySelector('[data-addition=walnuts_chopped] .amount').innerText.startsWith('40')`)
	c.sees(`document.querySelectorAll('[data-line]').length === 7 && [...document.querySelectorAll('.glass')].every(g => g.dataset.state === 'level')`)
	milk := c.figure(milkWeigh)
	assert.InDelta(t, 400*1.03, milk, 4, "milk is about 1.03 g a ml, and none of it moved")
	c.click(".tool")
	c.click(".el-dialog .source")
	c.sees(`document.querySelector('.source-text')?.innerText.includes('40 g zonk nuts')`)
	c.press(kb.Escape)
	c.sees(`!document.querySelector('.source-text')?.offsetParent`)
	c.press(kb.Escape)
	c.closed()
	c.click("[aria-label='Something else instead of Carrot']")
	c.click(".instead input")
	c.press("zucchini")
	c.sees(`[...document.querySelectorAll('.el-autocomplete-suggestion li')].some(li => li.innerText.startsWith('Courgette') && li.offsetParent)`)
	c.press(kb.Enter)
	c.sees(fmt.Sprintf(`parseFloat(document.querySelector('[data-line=milk_whole] .out').innerText) < %g`, milk)) // courgette is wetter than carrot
	c.saved()
	c.click("a[href='/bases']")
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .go")
	c.pastes(notebook)
	c.sees(`document.querySelectorAll('.reader [data-status]').length === 9`)
	c.click(".reader [data-status=not_understood] .ghost")
	c.sees(`document.querySelectorAll('.reader li.out').length === 1`)
	c.click(".reader .foot .el-button:not(.go)")
	c.sees(`document.querySelector('[data-base="Carrot pancakes from the quay"] [data-ratio=thickness]')`)
	c.closed()
	// What cannot be read says so, and nothing is kept.
	c.click(".bases .bar .go")
	c.pastes("It rained on the pier all morning, and nobody came.")
	c.sees(`document.querySelector('.reader [role=alert]')?.innerText.includes('No ingredient was recognised')`)
	c.p.ForgetConsole()
	c.press(kb.Escape)
	c.closed()
	c.sees(`document.querySelectorAll('[data-base]').length === 5`)
}

// On a telephone: keeping with open lines lists them first and keeps nothing until it is agreed; what
// is on the table stays with the recipe, and so do its allergens.
func TestNothingOfARecipeIsDropped(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 390, 844)
	c.do(chromedp.Navigate(k.URL + "/bases"))
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .go")
	c.pastes("Banana pancakes\n\nMakes 8\n\n2 cups flour\n5 tbsp baking powder\n250 ml milk\n1 egg\n150 g mashed banana\nsome sugar\n\nFor the topping:\n40 g hazelnuts\n1 flurb of zonk")
	c.sees(`document.querySelectorAll('.reader [data-status]').length === 8`)
	c.sees(`document.querySelector('.understood').innerText.includes('How much white sugar?') && document.querySelector('.understood').innerText.includes('Makes 8')`)
	c.keepsTheRules(390, "reader with everything")
	c.sees(`document.querySelector('.reader .cups')?.innerText.includes('How does the flour get into the cup?')`)
	c.click(".reader .cups .el-radio-button:nth-child(2)")
	c.sees(`document.querySelector('.reader .cups').innerText.includes('Flour gets into the cup')`)
	c.sees(`document.querySelector('[data-read=baking_powder][data-status=unsure] .asks').innerText.includes('That is a lot of baking powder')`)
	c.click("[data-read=baking_powder] .asks .el-button")
	c.sees(`document.querySelector('[data-read=baking_powder][data-status=read]')`)
	var own struct {
		Document struct {
			FlourMethod string `json:"flour_method"`
		}
	}
	c.get("/api/v1/kitchen", &own)
	assert.Equal(t, "scooped", own.Document.FlourMethod, "said once, the kitchen remembers it")
	c.click(".reader .foot .go")
	c.sees(`document.querySelector('.still-open li')?.innerText.includes('How much white sugar?')`)
	c.keepsTheRules(390, "what is still open")
	c.click(".still-open .go")
	c.sees(`!document.querySelector('.still-open')?.offsetParent && document.querySelector('.reader .foot .go')`)
	var all struct{ Items []json.RawMessage }
	c.get("/api/v1/variations", &all)
	had := len(all.Items)
	c.click(".reader .foot .go")
	c.click(".still-open footer .el-button:not(.go)")
	c.sees(`document.querySelector('h1')?.innerText === 'Banana pancakes'`)
	c.get("/api/v1/variations", &all)
	assert.Len(t, all.Items, had+1)
	c.click(".dock .open")
	c.sees(`document.querySelector('.beside')?.innerText.includes('40 g hazelnuts')`)
	_, doc := c.stored()
	assert.Len(t, doc["parts"], 2)
	c.sees(`document.body.innerText.includes('hazelnut') && document.body.innerText.includes('not known: “1 flurb of zonk”')`)
}

// The starter shelf, two of it side by side, one changed by a swap, one put aside and back.
func TestTheShelfOfBases(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/bases']")
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .el-button")
	c.sees(`document.querySelectorAll('[data-base]').length === 17`)
	c.click("[data-base='Plain milk'] .el-checkbox")
	c.click("[data-base='Crêpe'] .el-checkbox")
	c.click(".bases .bar .el-button") // compare stands first now
	c.sees(`[...document.querySelectorAll('.two tr')].some(r => r.innerText.includes('thickness') && r.querySelectorAll('.sign').length === 2)`)
	c.sees(`[...document.querySelectorAll('.two tr.line')].some(r => r.innerText.includes('Whole milk') && r.innerText.includes('390 g') && r.innerText.includes('560 g'))`)
	c.press(kb.Escape)
	c.closed()

	c.click("[data-base='Plain milk'] .acts .el-button:nth-child(2)")
	c.sees(`document.querySelector('.editor [data-ratio=thickness]')`)
	structure := `parseFloat(document.querySelector('.editor [data-ratio=structure] b').innerText)`
	before, err := stage.Ask[float64](c.p, structure)
	require.NoError(t, err)
	c.click("[data-base-line=egg_whole] .el-dropdown .el-button")
	c.sees(`[...document.querySelectorAll('.swaps li')].some(e => e.offsetParent && e.innerText.includes('no egg') && e.innerText.includes('structure falls'))`)
	_, err = stage.Ask[bool](c.p, `[...document.querySelectorAll('.swaps li')].find(e => e.offsetParent && e.innerText.includes('Apple sauce')).click() ?? true`)
	require.NoError(t, err)
	c.sees(fmt.Sprintf(`document.querySelector('[data-base-line=apple_sauce]') && %s < %g`, structure, before-0.5))
	c.types("#base-name", "Plain milk, no egg")
	c.click(".editor .go")
	c.closed()
	c.sees(`document.querySelector('[data-base="Plain milk, no egg"]')`)
	c.click("[data-base='Plain milk, no egg'] .bin")
	c.sees(`!document.querySelector('[data-base="Plain milk, no egg"]')`)
	c.bringsBack()
	c.sees(`document.querySelector('[data-base="Plain milk, no egg"]')`)
}

// Many documents are kept with a bar that says how far it is.
func TestManyDocumentsShowTheirProgress(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/bases']")
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click(".bases .bar .el-button:nth-of-type(2)")
	c.sees(`document.querySelector('.archive input[type=file]')`)
	c.sees(`(() => {
		window.__bar = []
		new MutationObserver(() => { const p = document.querySelector('.archive [role=progressbar]'); if (p) window.__bar.push(Number(p.getAttribute('aria-valuenow'))) }).observe(document.body, { subtree: true, childList: true, attributes: true })
		const variations = Array.from({ length: 600 }, (_, i) => ({ document: { format: 'upbeat-ladle/variation', version: 1, name: 'No. ' + i, form: 'pancake', base: { name: 'b', lines: [
			{ ingredient: 'plain_flour', amount: 250, unit: 'g' }, { ingredient: 'milk_whole', amount: 400, unit: 'g' }] } } }))
		const i = document.querySelector('.archive input[type=file]'), d = new DataTransfer()
		d.items.add(new File([JSON.stringify({ format: 'upbeat-ladle/archive', version: 1, variations })], 'kitchen.json'))
		i.files = d.files
		i.dispatchEvent(new Event('change'))
		return true
	})()`)
	c.sees(`document.querySelector('.archive .go')?.innerText.includes('600')`)
	c.click(".archive .go")
	c.closed()
	c.sees(`window.__bar.some(v => v > 0 && v < 100)`)
}

// A whole kitchen from a file: first what would become of it, then kept.
func TestReadAKitchenFromAFile(t *testing.T) {
	k := kitchen(t)
	c := sits(t, k, 1280, 800)
	c.click("a[href='/bases']")
	c.sees(`document.querySelectorAll('[data-base]').length === 4`)
	c.click("[data-base='Hatch plain'] .acts .take")
	c.sees(`[...document.querySelectorAll('[data-as]')].filter(e => e.offsetParent).length === 5`)
	c.press(kb.Escape)
	base := `{"format":"upbeat-ladle/base","version":1,"name":%q,"form":"pancake","lines":[{"ingredient":"plain_flour","amount":%d,"unit":"g"},{"ingredient":"milk_whole","amount":300,"unit":"g"}]}`
	var bases struct{ Items []struct{ ID, Name string } }
	c.get("/api/v1/bases", &bases)
	plain := bases.Items[slices.IndexFunc(bases.Items, func(b struct{ ID, Name string }) bool { return b.Name == "Hatch plain" })].ID
	file, err := json.Marshal(map[string]any{"format": "upbeat-ladle/archive", "version": 1, "bases": []map[string]any{
		{"document": json.RawMessage(fmt.Sprintf(base, "Quay plain", 200))}, {"id": plain, "document": json.RawMessage(fmt.Sprintf(base, "Hatch plain", 222))},
		{"document": json.RawMessage(`{"format":"upbeat-ladle/base","version":1,"name":"Broken","form":"pancake","lines":[{"ingredient":"moon_dust","amount":1,"unit":"g"}]}`)},
	}})
	require.NoError(t, err)
	c.click(".bases .bar .el-button:nth-of-type(2)")
	c.sees(`document.querySelector('.archive input[type=file]')`)
	c.sees(fmt.Sprintf(`(() => {
		const i = document.querySelector('.archive input[type=file]'), d = new DataTransfer()
		d.items.add(new File([%q], 'kitchen.json'))
		i.files = d.files
		i.dispatchEvent(new Event('change'))
		return true
	})()`, string(file)))
	c.sees(`['added', 'changed', 'refused'].every(a => document.querySelectorAll('.archive [data-action=' + a + ']').length === 1)`)
	c.sees(`document.querySelector('.archive').innerText.includes('Plain wheat flour: 500 g → 222 g')`)
	n, err := stage.Ask[int](c.p, `document.querySelectorAll('[data-base]').length`)
	require.NoError(t, err)
	assert.Equal(t, 4, n, "a preview keeps nothing")
	c.click(".archive .go")
	c.sees(`document.querySelectorAll('[data-base]').length === 5 && document.querySelector('[data-base="Quay plain"]')`)
}
