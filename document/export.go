package document

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"math"
	"strconv"
	"strings"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/griddle"
	"upbeatladle/core/worksheet"
)

// Exports are the open formats that a base or variation goes out in, by the name that asks
// for it.
var Exports = map[string]struct{ Type, Ending string }{
	"json": {"application/json", "json"}, "jsonld": {"application/ld+json", "jsonld"}, "markdown": {"text/markdown; charset=utf-8", "md"},
	"csv": {"text/csv; charset=utf-8", "csv"}, "text": {"text/plain; charset=utf-8", "txt"},
}

// Export writes a variation in an open format. Own JSON carries the kitchen's items that it
// uses, so that it works anywhere; the others give what is weighed out.
func (v Variation) Export(ctx context.Context, as string, s Setting, items []PantryItem) ([]byte, error) {
	if as == "json" {
		v.Pantry = usedItems(v, items)
		return v.Encode()
	}
	s.Include.Cook, s.Include.Nutrition = true, true // a recipe that goes out goes on to the plate
	w, err := v.Worksheet(ctx, s)
	if err != nil {
		return nil, err
	}
	return export(as, v.Name, v.Form, w)
}

// Export writes a base in an open format.
func (b Base) Export(ctx context.Context, as string, s Setting) ([]byte, error) {
	if as == "json" {
		return b.Encode()
	}
	s.Include.Cook, s.Include.Nutrition = true, true
	w, err := b.Worksheet(ctx, s)
	if err != nil {
		return nil, err
	}
	return export(as, b.Name, b.Form, w)
}

// usedItems are the pantry's items behind the ingredients of a variation; what the variation
// carries itself stays.
func usedItems(v Variation, items []PantryItem) []PantryItem {
	out := append([]PantryItem(nil), v.Pantry...)
	had := map[string]bool{}
	key := func(p PantryItem) string {
		if p.StandsFor != "" {
			return p.StandsFor
		}
		return p.ID
	}
	for _, p := range out {
		had[key(p)] = true
	}
	for _, p := range items { // newest first
		if k := key(p); !had[k] && !p.onlyStocks() && v.Uses(k) {
			had[k] = true
			out = append(out, p)
		}
	}
	return out
}

// weighed is a line as it is told in a list of ingredients; the measure stands in brackets.
func weighed(l worksheet.Line) string {
	g := strconv.FormatFloat(l.Weigh, 'f', -1, 64)
	text := fmt.Sprintf("%s g %s", g, l.Name)
	if l.Measure != "" {
		text += " (" + l.Measure + ")"
	}
	return text
}

// placeWords say where something stands that is not in the batter.
var placeWords = map[batter.Place]string{batter.OnTop: "On top", batter.Middle: "Inside", batter.OnSide: "Beside", batter.InPan: "For the pan", batter.Serving: "To serve"}

func export(as, name, form string, w worksheet.Worksheet) ([]byte, error) {
	var lines []string
	for _, l := range w.Lines {
		if l.Weigh > 0 {
			lines = append(lines, weighed(l))
		}
	}
	beside := len(lines)
	for _, p := range w.Parts {
		lines = append(lines, placeWords[p.Kind]+": "+p.Text)
	}
	lines, extra := lines[:beside], lines[beside:]
	switch as {
	case "jsonld":
		return jsonLD(name, form, append(lines, extra...), w)
	case "markdown":
		return markdown(name, lines, extra, w), nil
	case "csv":
		return ledgerCSV(w)
	case "text":
		return plain(name, append(lines, extra...), w), nil
	}
	return nil, Refusal("/as", "unknown_choice", "“%s” is not a format. Use json, jsonld, markdown, csv or text.", clip(as))
}

type recipeLD struct {
	Context      string    `json:"@context"`
	Type         string    `json:"@type"`
	Name         string    `json:"name"`
	Category     string    `json:"recipeCategory"`
	Yield        string    `json:"recipeYield,omitzero"`
	Prep         string    `json:"prepTime,omitzero"`
	Cook         string    `json:"cookTime,omitzero"`
	Total        string    `json:"totalTime,omitzero"`
	Description  string    `json:"description"`
	Ingredients  []string  `json:"recipeIngredient"`
	Instructions []stepLD  `json:"recipeInstructions"`
	Nutrition    *nutrient `json:"nutrition,omitzero"`
}

type stepLD struct {
	Type string `json:"@type"`
	Text string `json:"text"`
}

type nutrient struct {
	Type         string `json:"@type"`
	Serving      string `json:"servingSize"`
	Calories     string `json:"calories"`
	Fat          string `json:"fatContent"`
	Carbohydrate string `json:"carbohydrateContent"`
	Sugar        string `json:"sugarContent"`
	Fibre        string `json:"fiberContent"`
	Protein      string `json:"proteinContent"`
	Sodium       string `json:"sodiumContent"`
}

// nutrientOf is a portion's label with the properties of the public vocabulary.
func nutrientOf(n *worksheet.Nutrients) *nutrient {
	g := func(v float64) string { return fmt.Sprintf("%.1f g", v) }
	return &nutrient{"NutritionInformation", "1 portion", fmt.Sprintf("%.0f kcal", n.EnergyKcal), g(n.Fat), g(n.Carbohydrate), g(n.Sugars), g(n.Fibre), g(n.Protein), fmt.Sprintf("%.0f mg", n.Salt/food.SaltOnLabel)}
}

// duration is a time in whole minutes as ISO 8601 has it; empty for none.
func duration(d time.Duration) string {
	m := int(math.Ceil(d.Minutes()))
	switch {
	case m <= 0:
		return ""
	case m < 60:
		return fmt.Sprintf("PT%dM", m)
	case m%60 == 0:
		return fmt.Sprintf("PT%dH", m/60)
	}
	return fmt.Sprintf("PT%dH%dM", m/60, m%60)
}

func jsonLD(name, form string, lines []string, w worksheet.Worksheet) ([]byte, error) {
	out := recipeLD{Context: "https://schema.org", Type: "Recipe", Name: name, Category: form, Ingredients: lines, Description: w.AllergenText + "."}
	if w.Portion.Count > 0 {
		out.Yield = yieldOf(w.Portion)
	}
	for _, s := range w.Mixing {
		out.Instructions = append(out.Instructions, stepLD{"HowToStep", strings.Join(append([]string{s.Text}, s.Mind...), " ")})
	}
	if n := w.NutritionPerPortion; n != nil {
		out.Nutrition = nutrientOf(n)
	}
	prep, cook := griddle.RecipeTakes(w)
	out.Prep, out.Cook = duration(prep), duration(cook)
	if out.Cook != "" {
		out.Total = duration(prep + cook)
	}
	return encode(out)
}

func markdown(name string, lines, extra []string, w worksheet.Worksheet) []byte {
	var b bytes.Buffer
	fmt.Fprintf(&b, "# %s\n\n", escapeMarkdown(name))
	if w.Portion.Count > 0 {
		fmt.Fprintf(&b, "%s\n\n", yieldOf(w.Portion))
	}
	b.WriteString("## Ingredients\n\n")
	for _, l := range lines {
		fmt.Fprintf(&b, "- %s\n", escapeMarkdown(l))
	}
	if len(extra) > 0 {
		b.WriteString("\n## Beside the batter\n\n")
		for _, l := range extra {
			fmt.Fprintf(&b, "- %s\n", escapeMarkdown(l))
		}
	}
	b.WriteString("\n## Method\n\n")
	for i, s := range w.Mixing {
		fmt.Fprintf(&b, "%d. %s\n", i+1, escapeMarkdown(s.Text))
	}
	fmt.Fprintf(&b, "\n## Allergens\n\n%s.\n", escapeMarkdown(w.AllergenText))
	if len(w.Cautions) > 0 {
		b.WriteString("\n## Cautions\n\n")
		for _, c := range w.Cautions {
			fmt.Fprintf(&b, "- %s\n", escapeMarkdown(c.Text))
		}
	}
	return b.Bytes()
}

// inMarkdown are the letters that Markdown would read as its own: emphasis, pages, links.
var inMarkdown = strings.NewReplacer("\\", "\\\\", "*", "\\*", "_", "\\_", "<", "&lt;", ">", "&gt;", "`", "\\`", "[", "\\[", "]", "\\]", "#", "\\#", "|", "\\|", "://", "&#58;//", "www.", "www&#46;", "@", "&#64;")

// escapeMarkdown lets a cook's words stand for themselves on one line.
func escapeMarkdown(text string) string {
	text = inMarkdown.Replace(oneLine(text))
	if strings.HasPrefix(text, "-") || strings.HasPrefix(text, "+") { // else a list in the list
		text = "\\" + text
	}
	return text
}

// oneLine takes every kind of line end out of a text.
func oneLine(text string) string {
	return strings.Map(func(r rune) rune {
		switch r {
		case '\n', '\r', '\v', '\f', '\u0085', '\u2028', '\u2029':
			return ' '
		}
		return r
	}, text)
}

func plain(name string, lines []string, w worksheet.Worksheet) []byte {
	var b bytes.Buffer
	fmt.Fprintf(&b, "%s\n\nIngredients\n", oneLine(name))
	for _, l := range lines {
		fmt.Fprintln(&b, oneLine(l))
	}
	b.WriteString("\nMethod\n")
	for i, s := range w.Mixing {
		fmt.Fprintf(&b, "%d. %s\n", i+1, oneLine(s.Text))
	}
	fmt.Fprintf(&b, "\nAllergens: %s.\n", oneLine(w.AllergenText))
	for _, c := range w.Cautions {
		fmt.Fprintf(&b, "Mind: %s\n", oneLine(c.Text))
	}
	return b.Bytes()
}

// ledgerCSV is the ledger as a table; texts that a spreadsheet would run begin with an
// apostrophe.
func ledgerCSV(w worksheet.Worksheet) ([]byte, error) {
	var b bytes.Buffer
	b.WriteString(byteOrderMark)
	c := csv.NewWriter(&b)
	if err := c.Write([]string{"ingredient", "name", "from", "base_g", "acts_like_g", "offset_g", "weigh_g", "measure", "contains", "may_contain", "not_known"}); err != nil {
		return nil, err
	}
	figure := func(v *float64) string {
		if v == nil {
			return ""
		}
		return strconv.FormatFloat(significant(*v), 'f', -1, 64)
	}
	for _, l := range w.Lines {
		rec := []string{guarded(l.Ingredient), guarded(l.Name), l.From, figure(l.Base), figure(l.ActsLike), figure(l.Offset), figure(&l.Weigh), guarded(l.Measure), guarded(strings.Join(l.Allergens, ";")), guarded(strings.Join(l.MayContain, ";")), guarded(l.AsRead)}
		if err := c.Write(rec); err != nil {
			return nil, err
		}
	}
	for _, p := range w.Parts {
		unknown := ""
		if p.Unknown {
			unknown = p.Text
		}
		of, name, weigh := "", p.Text, ""
		switch {
		case p.Pan != nil:
			of, name = p.Pan.Ingredient.ID, p.Pan.Ingredient.Name
			if p.Pan.Grams >= 1 {
				weigh = figure(&p.Pan.Grams)
			}
		case len(p.Each) > 0:
			all := 0.0
			for _, e := range p.Each {
				all += e.Grams * float64(w.Portion.Count)
			}
			weigh = figure(&all)
		}
		rec := []string{guarded(of), guarded(name), string(p.Kind), "", "", "", weigh, "", guarded(strings.Join(p.Allergens, ";")), guarded(strings.Join(p.MayContain, ";")), guarded(unknown)}
		if err := c.Write(rec); err != nil {
			return nil, err
		}
	}
	c.Flush()
	return b.Bytes(), c.Error()
}

// yieldOf says what a bowl gives.
func yieldOf(p worksheet.Portion) string {
	if p.OneCake {
		return fmt.Sprintf("One cake of the whole bowl, %.0f ml", p.VolumeML)
	}
	return fmt.Sprintf("%d portions of %.0f ml", p.Count, p.VolumeML)
}
