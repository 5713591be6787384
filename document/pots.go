package document

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode/utf16"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/recipe"
	"upbeatladle/core/sauce"
	"upbeatladle/core/worksheet"
)

// maxPots is how many pots a text may have (modelling choice: a stove and a half).
const maxPots = 9

func potID(n int) string { return fmt.Sprintf("p%d", n) }

// potOf is the number of a pot by its id; 0 for anything else.
func potOf(id string) int {
	number, ok := strings.CutPrefix(id, "p")
	n, err := strconv.Atoi(number)
	if !ok || err != nil || n < 1 {
		return 0
	}
	return n
}

// inPot tells whether a line can go into a sauce: what it is and how much is known.
func inPot(l recipe.Line) bool {
	return l.Pot > 0 && l.Ingredient != nil && l.Amount > 0 && l.Status != recipe.NotUnderstood && !l.Doubtful()
}

// potsOf writes the pots of a text as sauces; one that cannot be worked out is told, and its lines stay as they are.
func potsOf(r recipe.Reading, dropped map[int]bool, s Setting) (out []ReadPot) {
	k := s.Kitchen.Domain()
	for n, pot := range r.Pots {
		p := ReadPot{ID: potID(n + 1), On: string(pot.Place)}
		doc := Sauce{Format: SauceFormat, Version: Version}
		var parts []food.Part
		var beside []string
		for i, l := range r.Lines {
			if l.Pot != n+1 || dropped[i] {
				continue
			}
			line := batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML, Fill: l.Fill}
			if !inPot(l) {
				beside = append(beside, l.Text)
				continue
			}
			g, err := k.Grams(line)
			if err != nil {
				beside = append(beside, l.Text)
				continue
			}
			one := writtenLine(line)
			one.ID = fmt.Sprintf("l%d", len(doc.Lines)+1)
			doc.Lines, parts = append(doc.Lines, one), append(parts, food.Part{Ingredient: l.Ingredient, Grams: g})
		}
		p.Name = potName(pot.Name)
		if len(doc.Lines) > 1 || len(doc.Lines) == 1 && pot.Own { // one thing is no sauce, unless the cook says so
			p.work(doc, parts, beside, s)
		}
		if p.Name == "" {
			p.Name = "What goes with it"
		}
		out = append(out, p)
	}
	return out
}

// potName is what a text calls a pot, as a title: "for the caramel" is Caramel.
func potName(said string) string {
	said = strings.TrimSpace(strings.TrimPrefix(strings.TrimPrefix(strings.ToLower(said), "for the "), "for "))
	if r := []rune(said); len(r) > 0 {
		return strings.ToUpper(string(r[:1])) + string(r[1:])
	}
	return ""
}

// anyPot are names that say nothing of what is in a pot.
var anyPot = map[string]bool{"Sauce": true, "Topping": true, "Pot": true}

// work guesses what a pot is and works it out; what only stirs together is the last guess.
func (p *ReadPot) work(doc Sauce, parts []food.Part, beside []string, s Setting) {
	if len(beside) > 0 {
		doc.Note = clip("Also said: " + strings.Join(beside, "; "))
	}
	for _, kind := range []sauce.Kind{sauce.Guess(parts, batter.Place(p.On)), sauce.Filling} {
		doc.Kind = string(kind)
		doc.Name = p.Name
		if doc.Name == "" || anyPot[doc.Name] {
			doc.Name = kind.Name()
		}
		worked, err := doc.work("", s.Table, s.Kitchen.Domain())
		if err != nil {
			p.Trouble = Sentence(err)
			continue
		}
		p.Kind, p.KindName, p.Sauce, p.EndsG, p.Trouble = string(kind), worked.KindName, &doc, worked.End.MassG, ""
		p.Name = doc.Name
		return
	}
}

// marks says where the text has what was read, in the units of a text field. A page or data that was taken apart has no places.
func (out *Reading) marks(r recipe.Reading, sent, read string) {
	at := strings.Index(sent, read)
	if at < 0 {
		return
	}
	units := make([]int, len(read)+1) // of each byte
	n := len(utf16.Encode([]rune(sent[:at])))
	for i, c := range read {
		for k := i; k < i+len(string(c)); k++ {
			units[k] = n
		}
		n += utf16.RuneLen(c)
	}
	units[len(read)] = n
	to := func(s recipe.Span) []int {
		return []int{units[min(max(s.From, 0), len(read))], units[min(max(s.To, 0), len(read))]}
	}
	pots, times := map[int][]int{}, recipe.TimesOf(read)
	for i, l := range r.Lines {
		for _, s := range l.At {
			span := to(s)
			out.Lines[i].Spans = append(out.Lines[i].Spans, span)
			if len(times) > 0 {
				out.Lines[i].SaidAt = append(out.Lines[i].SaidAt, times.Before(s.From))
			}
			if l.Pot > 0 {
				if p := pots[l.Pot]; p == nil {
					pots[l.Pot] = slices.Clone(span)
				} else {
					p[0], p[1] = min(p[0], span[0]), max(p[1], span[1])
				}
			}
		}
	}
	for n := range out.Pots {
		out.Pots[n].Span = pots[n+1]
	}
	for _, s := range r.Also {
		if s.From >= 0 && s.To <= len(read) && s.From < s.To {
			out.AlsoHeard = append(out.AlsoHeard, Heard{clip(read[s.From:s.To]), to(s)})
		}
	}
}

// farOff is from how many times more or less on what a recipe says of itself is asked (modelling choice).
const farOff = 2

// bowl weighs the bowl as it was read, and holds what the recipe says of itself beside what comes out of it. There is none where
// nothing can be worked out.
func (out *Reading) bowl(ctx context.Context, said recipe.Said, s Setting) *ReadBowl {
	if out.Variation == nil {
		return nil
	}
	s.Include = worksheet.Include{}
	sheet, err := out.Variation.Worksheet(ctx, s)
	if err != nil || sheet.Batter.MassG <= 0 {
		return nil
	}
	b := &ReadBowl{MassG: sheet.Batter.MassG, Text: fmt.Sprintf("%.0f g in the bowl", sheet.Batter.MassG)}
	if sheet.Portion.VolumeML <= 0 {
		return b
	}
	b.VolumeML, b.Count = sheet.Portion.VolumeML, sheet.Portion.Count
	portion := said.Portion * s.Kitchen.Domain().Measures.Volume(said.Unit)
	if portion > 0 {
		b.VolumeML = portion
		b.Count = int(math.Max(1, math.Round(sheet.Batter.VolumeML/portion)))
	}
	b.Text += fmt.Sprintf(", %d of %.0f ml", b.Count, b.VolumeML)
	if said.Count <= 0 {
		return b
	}
	b.Text += fmt.Sprintf("; it says %g", said.Count)
	if times := float64(b.Count) / said.Count; times >= farOff || times <= 1./farOff {
		b.Asks = "Those are far apart. Is something there twice, or missing, or are they of another size?"
	}
	return b
}
