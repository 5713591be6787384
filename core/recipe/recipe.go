// Package recipe reads recipes as cooks have them: amounts, units and names out of free text,
// line by line, with how sure each is. What is understood and what is not stands in
// docs/reading.md.
package recipe

import (
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// Status says how far a line was understood.
type Status string

// The states of a line.
const (
	Read          Status = "read"
	Unsure        Status = "unsure"
	NotUnderstood Status = "not_understood"
)

// Line is one ingredient of the text; a line that names two gives two.
type Line struct {
	Text       string           // as it stood
	Ingredient *food.Ingredient // nil when not understood
	Guessed    bool             // only nearly what its name says
	Allergen   string           // a word of it that names one which the ingredient is not known to have
	Amount     float64          // 0 when there is none
	Unit       measure.Unit
	SizeG      float64 // of a can
	SizeML     float64
	Method     measure.FlourMethod
	Note       string // what else the line says
	Confidence float64
	Status     Status
	Asks       string           // what the cook should be asked, empty when nothing
	Or         *Suggestion      // what may be taken instead, as the line says
	Suggests   *Suggestion      // what it may have meant, when that can be said
	pieces     float64          // counted, where a weight was told too
	other      float64          // that the amount may be as well: the thousands
	Place      batter.Place     // where it stands when it is not part of the batter
	Rival      int              // the line, from 1, that has another amount of the same: both, or instead? 0 none
	stroke     float64          // that "3 1/4" may have been: three quarters
	later      bool             // of two rivals
	perHead    bool             // it is told for one person, or for one egg
	recap      bool             // what is said again is told
	says       bool             // "the" stands before it or its amount: it was named before
	more       bool             // said to come to what was said before: "another teaspoon"
	Fill       measure.Fullness // of a spoon that is not level
	At         []Span           // where the text says it; more than one where it says it again
	Called     string           // by its words, without the amount
	Again      []Line           // the other times that it is said
	Each       bool             // so much for each piece, not for all
	Pot        int              // that it belongs to, from 1; 0 none
}

// TakeAgain takes what is said again as more of it.
func (l *Line) TakeAgain(k batter.Kitchen) {
	if l.Ingredient == nil {
		return
	}
	weigh := func(l Line) float64 {
		g, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML, Fill: l.Fill})
		if err != nil {
			return 0
		}
		return g
	}
	for _, o := range l.Again {
		switch own, more := weigh(*l), weigh(o); {
		case o.Unit == l.Unit && o.Fill == l.Fill:
			l.Amount += o.Amount
		case own > 0 && more > 0:
			l.Amount *= 1 + more/own
		}
	}
	l.Again = nil
}

// Says is the amount of a line in words: "2 tbsp heaped".
func (l Line) Says() string {
	return strings.TrimSpace(short(l.Amount) + " " + string(l.Unit) + " " + string(l.Fill))
}

// Doubtful tells whether a line is only taken for its ingredient, so that nobody knows its allergens: a guess, or words that
// name an allergen which the ingredient is not known to have.
func (l Line) Doubtful() bool { return l.Guessed || l.Allergen != "" }

// Reading is a recipe that was read. Nothing of the text is dropped: what is neither an
// ingredient nor a step stands in Other.
type Reading struct {
	Title string
	Lines []Line
	Steps []string
	Other []string
	Said  Said

	Pots []Pot  // beside the batter
	Also []Span // foods that the text speaks of and that are not in it: denied, compared, what others use

	Language Language // that it was read in
}

// Limits of a text.
const (
	MaxBytes = 256 << 10
	MaxLines = 400 // entries
)

// mode is the part of the recipe that the reader is in.
type mode int

const (
	unknown mode = iota
	ingredients
	steps
)

// Taught is a word that a kitchen has for an ingredient.
type Taught struct {
	Word       string
	Ingredient *food.Ingredient
}

// ReadText reads a whole text against a table, with the measures of a kitchen and the words that it has of its own.
func ReadText(text string, table *food.Table, k batter.Kitchen, taught ...Taught) Reading {
	r := reader{names: indexOf(table, taught...), kitchen: k, theirs: -1}
	raw := piecesOf(text)
	full, stamped := withoutStamps(raw)
	if stamped && len(full) > 1 && raw[0] == full[0] && len(strings.Fields(raw[0].text)) <= 8 && len(quantities(tokens(raw[0].text))) == 0 { // what stands before the first time
		r.out.Title, full = strings.Trim(raw[0].text, "#*: "), full[1:]
	}
	lines := texts(full)
	r.out.Language = r.names.languageOf(lines)
	if stamped || isTalk(lines) {
		r.talked = true
		r.talk(full, stamped)
	} else {
		headed := listBegins(lines)
		for i, l := range full {
			if i < headed && len(quantities(r.tokens(l.text))) == 0 && !isMeta(l.text) {
				if r.out.Title == "" {
					r.out.Title = strings.Trim(l.text, "#*: ")
				} else {
					r.out.Other = append(r.out.Other, l.text)
				}
				continue
			}
			had := len(r.out.Lines)
			r.line(l.text, i == 0)
			for n := had; n < len(r.out.Lines); n++ {
				r.out.Lines[n].At = []Span{{l.at, l.at + len(l.text)}}
				if r.pot > 0 && r.out.Lines[n].Place == r.out.Pots[r.pot-1].Place {
					r.out.Lines[n].Pot = r.pot
				}
			}
		}
	}
	r.keepPots()
	r.mentions()
	r.out.Said = said(r.out)
	return r.out
}

// listBegins is where the list of ingredients is announced; -1 when nothing does, or when the list
// has begun without it.
func listBegins(lines []string) int {
	amounts := 0
	for i, l := range lines {
		bare := strings.Trim(l, "#*_ \t")
		if m, ok := headingMode(bare); ok && m == ingredients && placeOf(bare) == "" {
			return i
		}
		if len(quantities(tokens(l))) > 0 && !isMeta(l) && !isStep(l) {
			if amounts++; amounts > 1 {
				break
			}
		}
	}
	return -1
}

type reader struct {
	names    *index
	kitchen  batter.Kitchen
	out      Reading
	mode     mode
	place    batter.Place   // of the lines under the heading that was read last
	pot      int            // that is read or talked of, from 1; 0 the batter
	since    int            // the first line since it was begun
	denied   map[string]int // how often the talk says of a food that it is not in it
	talked   bool           // the text is talk, not a list
	pending  *pending       // what the sentence before only named
	hadLines int            // lines before the last sentence that had one
	theirs   int            // the first line of what somebody else takes; -1 where nobody does
	fried    bool           // the talk has come to the pan or the iron
	done     bool           // the batter is all told, and has come to the pan
	mixed    bool           // the talk is of a mix from a bag
	imperial bool           // its pints are imperial
	sponge   bool           // a part of the flour and the milk is told as the sponge before it
	allGrams bool           // everything is weighed in grams, be it a few of it
	inKilos  bool           // a small bare number is kilograms
	inGrams  bool           // it is talk that weighs in grams: a bare number of something is grams
}

// line takes one line of the text to where it belongs.
func (r *reader) line(text string, first bool) {
	bare := strings.TrimSpace(strings.Trim(text, "#*_ \t"))
	if bare == "" || strings.Trim(bare, "-=_*") == "" {
		return // a rule between parts says nothing
	}
	if m, ok := headingMode(bare); ok {
		r.mode, r.place, r.pot = m, placeOf(bare), 0
		if r.place != "" && r.place != batter.InPan && r.place != batter.Serving {
			r.beginPot(strings.Trim(bare, ":# "), r.place)
		}
		r.out.Other = append(r.out.Other, bare)
		return
	}
	toks := r.tokens(unbullet(text))
	found := quantities(toks)
	switch {
	case len(r.out.Lines) >= MaxLines, isMeta(bare), r.headsNone(text, bare, found) && !r.isTitle(text, toks, found, first):
		r.out.Other = append(r.out.Other, bare)
	case r.isTitle(text, toks, found, first):
		r.out.Title = strings.Trim(bare, "#*: ")
	case r.mode == steps, isStep(text):
		r.out.Steps = append(r.out.Steps, unnumber(bare))
	case len(found) > 0, r.mode == ingredients, len(strings.Fields(bare)) <= 8 && r.names.match(nameWords(toks)).score >= sure:
		r.out.Lines = append(r.out.Lines, r.entries(unbullet(text), toks, found)...)
	case len(strings.Fields(bare)) > 6:
		r.out.Steps = append(r.out.Steps, bare)
	default:
		r.out.Other = append(r.out.Other, bare)
	}
}

// isTitle tells whether the first line names the recipe: it has no amount and is neither a step nor a food.
func (r *reader) isTitle(text string, toks []token, found []quantity, first bool) bool {
	return first && r.out.Title == "" && r.mode == unknown && len(found) == 0 && !isStep(text) && r.names.match(nameWords(toks)).score < certain
}

// headsNone tells whether a line is a heading of some sort.
func (r *reader) headsNone(text, bare string, found []quantity) bool {
	return r.mode != steps && len(found) == 0 && (strings.HasSuffix(bare, ":") || strings.HasPrefix(text, "#"))
}

// unbullet takes the sign off the front of a list's line, and a box to tick.
func unbullet(s string) string {
	s = strings.TrimLeft(s, "-*•·‣–—>+ \t")
	for _, box := range []string{"[ ]", "[x]", "[X]", "☐", "☑", "▢", "□"} {
		s = strings.TrimPrefix(s, box)
	}
	s = strings.TrimSpace(s)
	if strings.HasPrefix(s, "(") && strings.HasSuffix(s, ")") && strings.Count(s, "(") == 1 { // all of it in brackets
		s = strings.TrimSpace(s[1 : len(s)-1])
	}
	return s
}

// unnumber takes the number off the front of a step.
func unnumber(s string) string {
	t := strings.TrimLeft(s, "0123456789")
	if len(t) < len(s) && (strings.HasPrefix(t, ". ") || strings.HasPrefix(t, ") ")) { // not "5.6 g"
		return strings.TrimSpace(t[1:])
	}
	return s
}

var headings = map[string]mode{
	"ingredients": ingredients, "you need": ingredients, "you will need": ingredients, "what you need": ingredients, "for the batter": ingredients, "beside the batter": ingredients,
	"for the pancakes": ingredients, "for the waffles": ingredients, "for the crepes": ingredients, "batter": ingredients, "dry": ingredients, "wet": ingredients,
	"dry ingredients": ingredients, "wet ingredients": ingredients, "shopping list": ingredients,
	"method": steps, "directions": steps, "instructions": steps, "steps": steps, "preparation": steps, "how to": steps, "how to make": steps,
	"zutaten": ingredients, "teig": ingredients, "fur den teig": ingredients, "ingredientes": ingredients, "masa": ingredients, "para la masa": ingredients,
	"ingredienti": ingredients, "impasto": ingredients, "per limpasto": ingredients, "ingredienten": ingredients, "beslag": ingredients, "voor het beslag": ingredients,
	"skladniki": ingredients, "ciasto": ingredients, "pate": ingredients, "pour la pate": ingredients,
	"zubereitung": steps, "anleitung": steps, "preparacion": steps, "elaboracion": steps, "preparazione": steps, "procedimento": steps, "bereiding": steps,
	"bereidingswijze": steps, "przygotowanie": steps, "sposob przygotowania": steps,
	"how to make it": steps, "procedure": steps, "to make": steps, "to cook": steps, "notes": steps, "tips": steps,
}

func headingMode(s string) (mode, bool) {
	key := strings.TrimSpace(strings.Trim(fold(s), ":.-# "))
	m, ok := headings[key]
	if !ok && headedPlaces[strings.TrimPrefix(strings.TrimPrefix(key, "for the "), "for ")] != "" {
		return ingredients, true
	}
	if !ok && strings.HasSuffix(s, ":") && strings.HasPrefix(key, "for the ") && len(quantities(tokens(s))) == 0 {
		return ingredients, true
	}
	return m, ok
}

var metaStarts = []string{"serves", "makes", "yield", "prep time", "preparation time", "cook time", "cooking time", "prep:", "cook:", "time:", "rest time", "ready in", "total time", "servings", "difficulty", "source", "from:", "http"}

// yields are what a recipe makes: "12 portions of 60 ml".
var yields = set("portion portions serving servings pancakes waffles crepes people persons")

func isMeta(s string) bool {
	key := fold(s)
	if toks := tokens(s); len(toks) > 1 && toks[0].kind == number && yields[toks[1].text] {
		return true
	}
	for _, m := range metaStarts {
		if strings.HasPrefix(key, m) {
			return true
		}
	}
	return false
}

// verbs that begin a step.
var verbs = set("mix whisk stir beat fold add combine pour heat cook flip serve sift melt rest let leave preheat place put make set meanwhile gently when " +
	"cover spread ladle drop turn divide transfer blend whip separate drain mash peel dice sprinkle spoon brush grease remove keep bring using once then now " +
	"warm allow bake fry repeat wait check start in to if first next finally roll cut slice chill refrigerate toss crack dissolve knead prepare grate take")

func isStep(s string) bool {
	rest := unnumber(strings.TrimSpace(s))
	numbered := rest != strings.TrimSpace(s)
	w := words(rest)
	if len(w) == 0 || !numbered && tokens(rest)[0].kind == number {
		return false
	}
	if verbs[w[0]] && !(w[0] == "take" && len(quantities(tokens(rest))) > 0) {
		return len(w) > 2 || numbered
	}
	return numbered && len(w) > 6
}

func set(s string) map[string]bool {
	out := map[string]bool{}
	for _, w := range strings.Fields(s) {
		out[w] = true
	}
	return out
}
