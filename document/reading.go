package document

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
	"upbeatladle/core/safety"
)

// readingWithPots is the version of a reading that has what came with pots.
const readingWithPots = 2

// ReadingFormat is the answer to a text that was read.
const ReadingFormat = "upbeat-ladle/reading"

// Fix is what the cook says of one line that was read.
type Fix struct {
	Line       int      `json:"line"` // counted from 0
	Ingredient string   `json:"ingredient,omitzero"`
	Amount     *float64 `json:"amount,omitzero"`
	Unit       string   `json:"unit,omitzero"`
	LeaveOut   bool     `json:"leave_out,omitzero"`
	Fill       string   `json:"fill,omitzero"`  // how full the spoon is
	Place      string   `json:"place,omitzero"` // bowl, a place beside it, or a pot: p1, p2 … one more is a pot of its own
	Both       bool     `json:"both,omitzero"`  // what is said again is more of it
}

// ReadingWish is a text to read, with what the cook has put right.
type ReadingWish struct {
	Text  string `json:"text"`
	Name  string `json:"name,omitzero"`
	Form  string `json:"form,omitzero"`
	Fixes []Fix  `json:"fixes,omitzero"`

	FlourMethod string `json:"flour_method,omitzero"` // how flour got into the cup, where the recipe does not say
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
	Or         *Fix     `json:"or,omitzero"`       // what may be taken instead, as the line says
	Suggests   *Fix     `json:"suggests,omitzero"` // what it may have meant
	Fill       string   `json:"fill,omitzero"`     // of a spoon that is not level
	Each       bool     `json:"each,omitzero"`     // so much for each piece, not for all of them
	Place      string   `json:"place,omitzero"`    // when it is beside: a place, or a pot by its id
	Called     string   `json:"called,omitzero"`   // by the words of the text, without the amount
	Spans      [][]int  `json:"spans,omitzero"`    // where the text says it, in UTF-16 units, the end excluded
	SaidAt     []string `json:"said_at,omitzero"`  // by the times of the text, one a span
	GoesTo     string   `json:"goes_to,omitzero"`  // base · addition · beside, for the pan or the table; left out when it goes nowhere
}

// ReadPot is what the text has beside its batter, as a sauce that can be kept.
type ReadPot struct {
	ID       string  `json:"id"`
	Name     string  `json:"name"`
	Kind     string  `json:"kind,omitzero"` // guessed by what goes in; empty when it cannot be worked out
	KindName string  `json:"kind_name,omitzero"`
	On       string  `json:"on"` // where it goes: a place
	Sauce    *Sauce  `json:"sauce,omitzero"`
	EndsG    float64 `json:"ends_g,omitzero"` // what it weighs when it is done
	Trouble  string  `json:"trouble,omitzero"`
	Span     []int   `json:"span,omitzero"`
}

// ReadQuestion is asked of several lines together.
type ReadQuestion struct {
	Code    string   `json:"code"` // both_or_instead
	Lines   []int    `json:"lines"`
	Amounts []string `json:"amounts"` // of the lines, as they are said
	Text    string   `json:"text"`
}

// Heard is a food that the text speaks of and that is not in it.
type Heard struct {
	Text string `json:"text"`
	Span []int  `json:"span"`
}

// ReadBowl is the bowl as it was read.
type ReadBowl struct {
	MassG    float64 `json:"mass_g"`
	Count    int     `json:"count,omitzero"`
	VolumeML float64 `json:"volume_ml,omitzero"` // of one
	Text     string  `json:"text"`
	Asks     string  `json:"asks,omitzero"` // when what the recipe says of itself is far off
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
	Language  string     `json:"language"`           // that it was read in, by name
	Variation *Variation `json:"variation,omitzero"` // the recipe as it is written, which moves nothing
	Whole     bool       `json:"whole,omitzero"`     // it is more than a base and the fat of its pan
	Said      *Said      `json:"said,omitzero"`

	Pots      []ReadPot      `json:"pots,omitzero"`
	NextPot   string         `json:"next_pot,omitzero"` // the id of one more; empty when there are as many as can be
	Questions []ReadQuestion `json:"questions,omitzero"`
	AlsoHeard []Heard        `json:"also_heard,omitzero"`
	Bowl      *ReadBowl      `json:"bowl,omitzero"`

	FlourMethod     string `json:"flour_method,omitzero"`      // taken for flour by the cup, when there is any
	AsksFlourMethod bool   `json:"asks_flour_method,omitzero"` // nobody has said so yet

	Allergens string `json:"allergen_text"` // of every line that is named, with an amount or not
}

// Read reads a recipe as it was pasted: free text, a saved page, or its structured data. The
// error is Problems.
func Read(ctx context.Context, w ReadingWish, s Setting) (Reading, error) {
	text, title, err := recipeText([]byte(w.Text))
	if err != nil {
		return Reading{}, err
	}
	k := s.Kitchen.Domain()
	r := recipe.ReadText(text, s.Table, k, s.Kitchen.taught(s.Table)...)
	if title != "" {
		r.Title = title
	}
	if len(r.Lines) == 0 {
		return Reading{}, Refusal("/text", "nothing_found", "No ingredient was recognised here. Paste the list of ingredients, one on a line, with amounts. English, German, French, Spanish, Italian, Dutch and Polish are read.")
	}
	method, asked, err := byTheCup(&r, w, s)
	if err != nil {
		return Reading{}, err
	}
	dropped, err := fix(&r, w, s.Table, k)
	if err != nil {
		return Reading{}, err
	}
	r.Slips(k, s.Table)
	out := reading(r, w, dropped, s)
	out.FlourMethod, out.AsksFlourMethod = method, asked
	out.marks(r, w.Text, text)
	out.Bowl = out.bowl(ctx, r.Said, s)
	if len(out.Pots) > 0 || len(out.AlsoHeard) > 0 || slices.ContainsFunc(out.Lines, func(l ReadLine) bool { return l.Fill != "" }) {
		out.Version = readingWithPots
	}
	return out, nil
}

// byTheCup fills in how flour got into its cups where the recipe does not say: as the cook says now, as
// the kitchen does, else spooned, and then it is asked. The method is empty when there is no such flour.
func byTheCup(r *recipe.Reading, w ReadingWish, s Setting) (method string, asked bool, err error) {
	chosen := w.FlourMethod
	if chosen == "" {
		chosen = s.Kitchen.FlourMethod
	}
	if chosen != "" && !slices.Contains(measure.FlourMethods, measure.FlourMethod(chosen)) {
		return "", false, Refusal("/flour_method", "unknown_choice", "“%s” is not a way to measure flour. Use one of %s.", clip(chosen), words(measure.FlourMethods))
	}
	for i := range r.Lines {
		l := &r.Lines[i]
		if l.Ingredient == nil || !l.Ingredient.IsFlour() || l.Unit != "cup" || l.Method != "" || l.Amount <= 0 {
			continue
		}
		method, asked = chosen, chosen == ""
		if asked {
			method = string(measure.FlourMethods[0])
		}
		l.Method = measure.FlourMethod(method)
	}
	return method, asked, nil
}

// inBowl is the place of what is in the batter.
const inBowl = "bowl"

// fixing is a reading while the cook's fixes are put in.
type fixing struct {
	r     *recipe.Reading
	table *food.Table
	k     batter.Kitchen
	p     Problems
}

// fix puts right what the cook says.
func fix(r *recipe.Reading, w ReadingWish, table *food.Table, k batter.Kitchen) (dropped map[int]bool, err error) {
	x := &fixing{r: r, table: table, k: k}
	dropped = map[int]bool{}
	for i, f := range w.Fixes {
		at := fmt.Sprintf("/fixes/%d", i)
		switch {
		case f.Line < 0 || f.Line >= len(r.Lines):
			x.p.Add(at+"/line", "out_of_range", "There is no line %d in what was read.", f.Line)
		case f.LeaveOut:
			dropped[f.Line] = true
			if rival := r.Lines[f.Line].Rival; rival > 0 { // the other one is left
				r.Lines[rival-1].Rival = 0
			}
		default:
			l := &r.Lines[f.Line]
			if x.place(at, l, f) && x.what(at, l, f) && x.much(at, l, f) {
				x.settle(at, l)
			}
		}
	}
	return dropped, x.p.OrNil()
}

// place puts a line where it goes: the bowl, a place, a pot, or a pot of its own.
func (x *fixing) place(at string, l *recipe.Line, f Fix) bool {
	pot := potOf(f.Place)
	switch {
	case f.Place == "":
	case f.Place == inBowl:
		l.Place, l.Pot = "", 0
	case slices.Contains(batter.Places, batter.Place(f.Place)):
		l.Place, l.Pot = batter.Place(f.Place), 0
	case pot > 0 && pot <= len(x.r.Pots)+1 && pot <= maxPots:
		if pot > len(x.r.Pots) {
			x.r.Pots = append(x.r.Pots, recipe.Pot{Place: batter.OnTop, Own: true})
		}
		l.Place, l.Pot = x.r.Pots[pot-1].Place, pot
	default:
		x.p.Add(at+"/place", "unknown_choice", "“%s” is not a place. Use one of bowl, %s.", clip(f.Place), words(batter.Places))
		return false
	}
	return true
}

// what takes a line for an ingredient; whatever was asked was asked of another.
func (x *fixing) what(at string, l *recipe.Line, f Fix) bool {
	if f.Ingredient == "" {
		return true
	}
	in := x.table.ByID(f.Ingredient)
	if in == nil {
		x.p.Add(at+"/ingredient", "unknown_ingredient", "There is no ingredient “%s” in the pantry.", clip(f.Ingredient))
		return false
	}
	if in != l.Ingredient { // whatever its words name, it is something else now
		l.Allergen = ""
	}
	l.Ingredient, l.Guessed, l.Asks, l.Confidence = in, false, "", 1
	return true
}

// much gives a line its amount, its unit and how full it is.
func (x *fixing) much(at string, l *recipe.Line, f Fix) bool {
	if f.Amount != nil {
		if !(*f.Amount > 0 && *f.Amount <= batter.MaxLineG) {
			x.p.Add(at+"/amount", "not_positive", "The amount must be above zero.")
			return false
		}
		l.Amount, l.Unit = *f.Amount, cmp.Or(l.Unit, measure.Gram)
	}
	l.Unit = cmp.Or(measure.Unit(f.Unit), l.Unit)
	if f.Fill != "" {
		if !slices.Contains(measure.Fullnesses, measure.Fullness(f.Fill)) {
			x.p.Add(at+"/fill", "unknown_choice", "“%s” is not a way to fill a spoon. Use one of %s.", clip(f.Fill), words(measure.Fullnesses))
			return false
		}
		l.Fill = measure.Fullness(f.Fill)
	}
	if f.Both && f.Amount == nil { // an amount that was typed is all of it
		l.TakeAgain(x.k)
	}
	return true
}

// settle calls a line read, once it can be weighed; beside the batter how much there is of it need not be known.
func (x *fixing) settle(at string, l *recipe.Line) {
	switch {
	case l.Ingredient == nil:
		return
	case l.Place != "":
	case l.Amount <= 0:
		l.AskHowMuch()
		return
	default:
		if _, err := x.k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML, Fill: l.Fill}); err != nil {
			x.p.Add(at+"/unit", "no_density", "%s cannot be measured so. Give grams.", l.Ingredient.Label())
			return
		}
	}
	l.Status, l.Guessed, l.Confidence, l.Asks = recipe.Read, false, 1, ""
}

func reading(r recipe.Reading, w ReadingWish, dropped map[int]bool, s Setting) Reading {
	k := s.Kitchen.Domain()
	out := Reading{Format: ReadingFormat, Version: Version, Title: r.Title, Language: recipe.LanguageNames[r.Language], Lines: []ReadLine{}, Steps: r.Steps, Other: r.Other, Additions: []Addition{}}
	if w.Name != "" {
		r.Title = w.Name
	}
	kept, from, doubts := keptOf(r, dropped)
	c := kept.Compose(k)
	if w.Form != "" {
		c.Form = batter.Form(w.Form)
	}
	out.Form = string(c.Form)
	goes := map[int]string{}
	for i, at := range c.LineOf {
		goes[from[at]] = map[bool]string{true: "base", false: "addition"}[i < len(c.Base.Lines)]
	}
	for i, l := range r.Lines {
		if l.Place != "" && !dropped[i] && goes[i] == "" {
			goes[i] = "beside"
		}
		out.Lines = append(out.Lines, readLine(i, l, goes[i]))
		if l.Rival > i+1 && !dropped[i] && !dropped[l.Rival-1] && l.Confidence < 1 {
			out.Questions = append(out.Questions, ReadQuestion{Code: "both_or_instead", Lines: []int{i, l.Rival - 1}, Amounts: []string{l.Says(), r.Lines[l.Rival-1].Says()}, Text: l.Asks})
		}
	}
	out.Pots = potsOf(r, dropped, s)
	if n := len(r.Pots) + 1; n <= maxPots {
		out.NextPot = potID(n)
	}
	out.Said = saidOf(r.Said, k)
	out.Allergens = readAllergens(kept.Lines).Text()
	for i, a := range c.Additions {
		l := writtenLine(a.Line)
		l.ID, l.AsRead = fmt.Sprintf("a%d", i+1), doubts[c.LineOf[len(c.Base.Lines)+i]]
		out.Additions = append(out.Additions, Addition{Line: l, Stage: string(a.Stage)})
	}
	if len(c.Base.Lines) > 0 {
		out.compose(c, r, dropped, doubts, k)
	}
	return out
}

// keptOf is a reading without the lines that are left out, where each of its lines stood before, and the words of those that are
// doubtful, by their new places.
func keptOf(r recipe.Reading, dropped map[int]bool) (kept recipe.Reading, from []int, doubts map[int]string) {
	kept, doubts = r, map[int]string{}
	kept.Lines = nil
	for i, l := range r.Lines {
		if dropped[i] {
			continue
		}
		if l.Ingredient != nil && l.Doubtful() {
			doubts[len(kept.Lines)] = clip(l.Text)
		}
		kept.Lines = append(kept.Lines, l)
		from = append(from, i)
	}
	return kept, from, doubts
}

// compose writes the base and the variation of what was read; its lines and pots are there.
func (out *Reading) compose(c recipe.Composed, r recipe.Reading, dropped map[int]bool, doubts map[int]string, k batter.Kitchen) {
	b := Base{Format: BaseFormat, Version: Version, Name: clip(c.Base.Name), Form: string(c.Form), Style: string(c.Base.Style), SourceNote: sourceNote(out.Lines, dropped)}
	school := School{Lumps: c.Base.School.Lumps, Eggs: c.Base.School.Eggs}
	if !math.IsNaN(c.Base.School.RestMin) {
		rest := c.Base.School.RestMin
		school.RestMin = &rest
	}
	if school != (School{}) {
		b.School = &school
	}
	for i, l := range c.Base.Lines {
		one := writtenLine(l)
		one.ID, one.AsRead = fmt.Sprintf("b%d", i+1), doubts[c.LineOf[i]]
		b.Lines = append(b.Lines, one)
	}
	b.Parts = partsOf(r, dropped, nil, k)
	b.Version = b.needs()
	out.Base = &b
	v := b.Variation()
	v.Additions, v.Said = out.Additions, out.Said
	v.Parts = partsOf(r, dropped, out.Pots, k)
	if len(v.Additions) > 0 {
		v.Reference = &Reference{Kind: AsWrittenReference, Additions: slices.Clone(v.Additions)}
	}
	if r.Title == "" {
		var of []*food.Ingredient
		for _, a := range c.Additions {
			of = append(of, a.Ingredient)
		}
		v.Name = cmp.Or(batter.NamedBy(of), v.Name)
	}
	v.Version = v.needs()
	out.Variation = &v
	out.Whole = len(v.Additions) > 0 || slices.ContainsFunc(v.Parts, func(p Part) bool { return p.Kind != string(batter.InPan) })
}

// readLine writes the line at a place of the reading, which goes somewhere.
func readLine(at int, l recipe.Line, goes string) ReadLine {
	j := ReadLine{Text: l.Text, Unit: string(l.Unit), Note: l.Note, Confidence: math.Round(100*l.Confidence) / 100, Status: string(l.Status), Asks: l.Asks,
		Place: string(l.Place), GoesTo: goes, Fill: string(l.Fill), Each: l.Each && l.Place != "", Called: l.Called}
	if l.Pot > 0 {
		j.Place = potID(l.Pot)
	}
	if l.Ingredient != nil {
		j.Ingredient, j.Name = l.Ingredient.ID, l.Ingredient.Name
	}
	if l.Asks != "" {
		j.Suggests = asFix(at, l.Suggests)
	}
	if l.Or != nil && l.Or.Ingredient != l.Ingredient {
		j.Or = asFix(at, l.Or)
	}
	for to, v := range map[**float64]float64{&j.Amount: l.Amount, &j.SizeG: l.SizeG, &j.SizeML: l.SizeML} {
		if v > 0 {
			*to = &v
		}
	}
	return j
}

// asFix writes what a line may have meant as the fix that makes it so.
func asFix(line int, s *recipe.Suggestion) *Fix {
	if s == nil || s.Ingredient == nil {
		return nil
	}
	f := Fix{Line: line, Ingredient: s.Ingredient.ID, Unit: string(s.Unit), Fill: string(s.Fill)}
	if s.Amount > 0 {
		amount := significant(s.Amount)
		f.Amount = &amount
	}
	return &f
}

// sourceNote keeps with the base what of the text could not be taken.
func sourceNote(lines []ReadLine, dropped map[int]bool) string {
	var out []string
	for i, l := range lines {
		if l.GoesTo == "" && !dropped[i] {
			out = append(out, l.Text)
		}
	}
	note := "Read from a recipe."
	if len(out) > 0 {
		note += " Not taken: " + strings.Join(out, "; ") + "."
	}
	return note
}

// partsOf writes what the recipe has beside its batter.
func partsOf(r recipe.Reading, dropped map[int]bool, pots []ReadPot, k batter.Kitchen) []Part {
	var out []Part
	done := map[int]bool{} // pots that go along as a sauce
	for i, l := range r.Lines {
		if l.Place == "" || dropped[i] || len(out) == batter.MaxLines {
			continue
		}
		if inPot(l) && l.Pot <= len(pots) && pots[l.Pot-1].Sauce != nil {
			if pot := pots[l.Pot-1]; !done[l.Pot] {
				done[l.Pot] = true
				out = append(out, Part{Kind: pot.On, Text: pot.Name, Sauce: pot.Sauce})
			}
			continue
		}
		p := Part{Kind: string(l.Place), Text: clip(l.Text)}
		if l.Ingredient != nil && l.Status != recipe.NotUnderstood && !l.Doubtful() { // a guess is in the cook's words only
			one := PartLine{Ingredient: l.Ingredient.ID}
			if l.Amount > 0 {
				amount := significant(l.Amount)
				one.Amount, one.Unit = &amount, string(l.Unit)
			}
			p.Lines = []PartLine{one}
			if g, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, Fill: l.Fill}); l.Each && err == nil && g > 0 && g <= MaxEachG {
				each := significant(g)
				p.EachG = &each
			}
		}
		out = append(out, p)
	}
	return out
}

// saidOf writes what a recipe claims, its portion by the kitchen's measures.
func saidOf(s recipe.Said, k batter.Kitchen) *Said {
	if s == (recipe.Said{}) {
		return nil
	}
	out := Said{Text: s.Text}
	if r := []rune(out.Text); len(r) > maxSaid/4 {
		out.Text = string(r[:maxSaid/4])
	}
	for to, v := range map[**float64]float64{&out.Count: s.Count, &out.Minutes: s.Minutes, &out.VolumeML: s.Portion * k.Measures.Volume(s.Unit)} {
		if v > 0 && !math.IsInf(v, 0) {
			*to = &v
		}
	}
	return &out
}

// readAllergens are those of every line whose name is known, for the pan and the table too, with
// an amount or without; a line that was not understood, or whose name is a guess, is named as not known.
func readAllergens(lines []recipe.Line) safety.Allergens {
	var used []*food.Ingredient
	var notKnown []string
	for _, l := range lines {
		known := l.Ingredient != nil && l.Status != recipe.NotUnderstood
		if known {
			used = append(used, l.Ingredient)
		}
		if !known || l.Doubtful() {
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
	if l.Fill != measure.Level {
		out.Fill = string(l.Fill)
	}
	return out
}

// looksLikeJSON is the beginning of structured data; "[0:03] so today" is talk.
var looksLikeJSON = regexp.MustCompile(`^(\{\s*["}]|\[\s*[\[{"\]])`)

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
	case looksLikeJSON.MatchString(trimmed):
		return structured([]byte(trimmed))
	case looksLikePage(trimmed):
		return page(trimmed)
	}
	return trimmed, "", nil
}
