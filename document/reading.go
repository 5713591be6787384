package document

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"unicode/utf8"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
	"upbeatladle/core/safety"
)

// ReadingFormat is the answer to a text that was read.
const ReadingFormat = "upbeat-ladle/reading"

// Fix is what the cook says of one line that was read.
type Fix struct {
	Line       int      `json:"line"` // counted from 0
	Ingredient string   `json:"ingredient,omitzero"`
	Amount     *float64 `json:"amount,omitzero"`
	Unit       string   `json:"unit,omitzero"`
	LeaveOut   bool     `json:"leave_out,omitzero"`
}

// ReadingWish is a text to read, with what the cook has put right.
type ReadingWish struct {
	Text  string `json:"text"`
	Name  string `json:"name,omitzero"`
	Form  string `json:"form,omitzero"`
	Fixes []Fix  `json:"fixes,omitzero"`
}

// ReadLine is one ingredient of the text.
type ReadLine struct {
	Text       string   `json:"text"`
	Ingredient string   `json:"ingredient,omitzero"`
	Name       string   `json:"name,omitzero"`
	Amount     *float64 `json:"amount,omitzero"`
	Unit       string   `json:"unit,omitzero"`
	SizeG      *float64 `json:"size_g,omitzero"`
	SizeML     *float64 `json:"size_ml,omitzero"`
	Note       string   `json:"note,omitzero"`
	Confidence float64  `json:"confidence"`
	Status     string   `json:"status"`
	Asks       string   `json:"asks,omitzero"`
	GoesTo     string   `json:"goes_to,omitzero"` // base · addition; left out when it goes nowhere
}

// Reading is the answer.
type Reading struct {
	Format    string     `json:"format"`
	Version   int        `json:"version"`
	Title     string     `json:"title,omitzero"`
	Lines     []ReadLine `json:"lines"`
	Steps     []string   `json:"steps"`
	Other     []string   `json:"other,omitzero"`
	Form      string     `json:"form"`
	Base      *Base      `json:"base,omitzero"`
	Additions []Addition `json:"additions"`
	Allergens string     `json:"allergen_text"` // of every line that is named, with an amount or not
}

// Read reads a recipe as it was pasted: free text, a saved page, or its structured data. The
// error is Problems.
func Read(w ReadingWish, s Setting) (Reading, error) {
	text, title, err := recipeText([]byte(w.Text))
	if err != nil {
		return Reading{}, err
	}
	r := recipe.ReadText(text, s.Table)
	if title != "" {
		r.Title = title
	}
	if len(r.Lines) == 0 {
		return Reading{}, Refusal("/text", "nothing_found", "No ingredient was recognised here. Paste the list of ingredients in English, one on a line, with amounts.")
	}
	k := s.Kitchen.Domain()
	for i := range r.Lines { // the kitchen may know its own measures
		l := &r.Lines[i]
		if slices.Contains(measure.Own, l.Unit) && k.Measures.Volume(l.Unit) > 0 && l.Ingredient != nil {
			l.Status, l.Asks = recipe.Read, ""
		}
	}
	dropped, err := fix(&r, w, s.Table, k)
	if err != nil {
		return Reading{}, err
	}
	return reading(r, w, dropped), nil
}

// fix puts right what the cook says.
func fix(r *recipe.Reading, w ReadingWish, table *food.Table, k batter.Kitchen) (dropped map[int]bool, err error) {
	var p Problems
	dropped = map[int]bool{}
	for i, f := range w.Fixes {
		at := fmt.Sprintf("/fixes/%d", i)
		if f.Line < 0 || f.Line >= len(r.Lines) {
			p.Add(at+"/line", "out_of_range", "There is no line %d in what was read.", f.Line)
			continue
		}
		l := &r.Lines[f.Line]
		if f.LeaveOut {
			dropped[f.Line] = true
			continue
		}
		if f.Ingredient != "" {
			in := table.ByID(f.Ingredient)
			if in == nil {
				p.Add(at+"/ingredient", "unknown_ingredient", "There is no ingredient “%s” on the shelf.", clip(f.Ingredient))
				continue
			}
			l.Ingredient = in
		}
		if f.Amount != nil {
			if !(*f.Amount > 0 && *f.Amount <= batter.MaxLineG) {
				p.Add(at+"/amount", "not_positive", "The amount must be above zero.")
				continue
			}
			l.Amount = *f.Amount
			if l.Unit == "" {
				l.Unit = measure.Gram
			}
		}
		if f.Unit != "" {
			l.Unit = measure.Unit(f.Unit)
		}
		if l.Ingredient == nil || l.Amount <= 0 {
			continue
		}
		if _, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML}); err != nil {
			p.Add(at+"/unit", "no_density", "%s cannot be measured so. Give grams.", l.Ingredient.Label())
			continue
		}
		l.Status, l.Confidence, l.Asks, l.Outside = recipe.Read, 1, "", false
	}
	return dropped, p.OrNil()
}

func reading(r recipe.Reading, w ReadingWish, dropped map[int]bool) Reading {
	out := Reading{Format: ReadingFormat, Version: Version, Title: r.Title, Lines: []ReadLine{}, Steps: r.Steps, Other: r.Other, Additions: []Addition{}}
	if w.Name != "" {
		r.Title = w.Name
	}
	kept := r
	kept.Lines = nil
	var from []int
	for i, l := range r.Lines {
		if !dropped[i] {
			kept.Lines = append(kept.Lines, l)
			from = append(from, i)
		}
	}
	c := kept.Compose()
	if w.Form != "" {
		c.Form = batter.Form(w.Form)
	}
	out.Form = string(c.Form)
	goes := map[int]string{}
	for i, at := range c.LineOf {
		goes[from[at]] = map[bool]string{true: "base", false: "addition"}[i < len(c.Base.Lines)]
	}
	for i, l := range r.Lines {
		j := ReadLine{Text: l.Text, Unit: string(l.Unit), Note: l.Note, Confidence: math.Round(100*l.Confidence) / 100, Status: string(l.Status), Asks: l.Asks, GoesTo: goes[i]}
		if l.Ingredient != nil {
			j.Ingredient, j.Name = l.Ingredient.ID, l.Ingredient.Name
		}
		for to, v := range map[**float64]float64{&j.Amount: l.Amount, &j.SizeG: l.SizeG, &j.SizeML: l.SizeML} {
			if v > 0 {
				*to = &v
			}
		}
		out.Lines = append(out.Lines, j)
	}
	if len(c.Base.Lines) > 0 {
		b := Base{Format: BaseFormat, Version: Version, Name: clip(c.Base.Name), Form: string(c.Form), Style: string(c.Base.Style)}
		school := School{Lumps: c.Base.School.Lumps, Eggs: c.Base.School.Eggs}
		if !math.IsNaN(c.Base.School.RestMin) {
			rest := c.Base.School.RestMin
			school.RestMin = &rest
		}
		if school != (School{}) {
			b.School = &school
		}
		for _, l := range c.Base.Lines {
			b.Lines = append(b.Lines, writtenLine(l))
		}
		out.Base = &b
	}
	out.Allergens = readAllergens(kept.Lines).Text()
	for _, a := range c.Additions {
		out.Additions = append(out.Additions, Addition{Line: writtenLine(a.Line), Stage: string(a.Stage)})
	}
	return out
}

// readAllergens are those of every line whose name is known, for the pan and the table too, with
// an amount or without; a line that was not understood is named as not known.
func readAllergens(lines []recipe.Line) safety.Allergens {
	var used []*food.Ingredient
	var notKnown []string
	for _, l := range lines {
		if l.Ingredient != nil && l.Status != recipe.NotUnderstood {
			used = append(used, l.Ingredient)
		} else {
			notKnown = append(notKnown, "“"+clip(l.Text)+"”")
		}
	}
	return safety.AllergensOf(used, notKnown...)
}

// writtenLine writes a line of the domain as a document's.
func writtenLine(l batter.Line) Line {
	amount := significant(l.Amount)
	out := Line{Ingredient: l.Ingredient.ID, Amount: &amount, Unit: string(l.Unit)}
	if l.CanG > 0 {
		out.SizeG = &l.CanG
	}
	if l.CanML > 0 {
		out.SizeML = &l.CanML
	}
	if l.Method != "" {
		out.FlourMethod = string(l.Method)
	}
	return out
}

// recipeText turns what was pasted into plain text: a page's structured data, a page's own
// text, or the text as it is. Pages are never run: they are taken apart as text.
func recipeText(data []byte) (text, title string, err error) {
	trimmed := strings.TrimSpace(string(data))
	switch {
	case trimmed == "":
		return "", "", Refusal("/text", "empty", "There is nothing to read. Paste a recipe.")
	case len(data) > recipe.MaxBytes && !looksLikePage(trimmed):
		return "", "", Refusal("/text", "too_large", "That is more than %d kB, and no recipe is so long. Paste the one recipe.", recipe.MaxBytes>>10)
	case strings.HasPrefix(trimmed, "PK\x03\x04"), strings.HasPrefix(trimmed, "\x1f\x8b"), strings.ContainsRune(trimmed, 0), !utf8.ValidString(trimmed):
		return "", "", Refusal("/text", "not_text", "This is a packed or binary file, not text. Open it and paste the recipe's text.")
	case strings.HasPrefix(trimmed, "{"), strings.HasPrefix(trimmed, "["):
		return structured([]byte(trimmed))
	case looksLikePage(trimmed):
		return page(trimmed)
	}
	return trimmed, "", nil
}
