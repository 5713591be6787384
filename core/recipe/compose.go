package recipe

import (
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
)

// Composed is a reading as the bench can use it: what is the base, what was put into it.
type Composed struct {
	Name      string
	Form      batter.Form
	Base      batter.Base
	Additions []batter.Addition
	LineOf    []int // the reading's line behind each base line, then behind each addition
}

// forms by the words that name them; the first that stands in the text counts.
var formWords = []struct {
	word string
	form batter.Form
}{
	{"waffle", batter.Waffle}, {"gaufre", batter.Waffle}, {"waffel", batter.Waffle}, {"gofre", batter.Waffle}, {"cialde", batter.Waffle}, {"wafel", batter.Waffle}, {"gofry", batter.Waffle}, {"crepe", batter.Crepe}, {"crespelle", batter.Crepe}, {"flensje", batter.Crepe}, {"nalesniki", batter.Crepe}, {"galette", batter.Crepe}, {"drop scone", batter.DropScone},
	{"scotch pancake", batter.DropScone}, {"pikelet", batter.DropScone}, {"pancake", batter.Pancake}, {"griddle cake", batter.Pancake}, {"hotcake", batter.Pancake}, {"flapjack", batter.Pancake},
}

// Compose guesses form, style, school and which lines were added to a base. Lines that are not
// understood or have no amount stay out; the reading says which.
func (r Reading) Compose(k batter.Kitchen) Composed {
	c := Composed{Name: r.Title}
	everything := fold(r.Title + " " + strings.Join(r.Steps, " ") + " " + strings.Join(r.Other, " "))
	has := func(id string) bool { return r.has(func(in *food.Ingredient) bool { return in.ID == id }) }
	flour := slices.ContainsFunc(r.Lines, func(l Line) bool {
		return l.Ingredient != nil && l.Place == "" && l.Ingredient.Role == food.RoleFlour // with an amount or still without
	})
	var ofBase, ofAdditions []int
	for i, l := range r.Lines {
		line, ok := l.inBatter(k)
		if !ok {
			continue
		}
		if l.ofBase(flour) {
			c.Base.Lines = append(c.Base.Lines, line)
			ofBase = append(ofBase, i)
		} else {
			c.Additions = append(c.Additions, batter.Addition{Line: line, Stage: batter.UsualStage(l.Ingredient), ShareOfBowl: 1})
			ofAdditions = append(ofAdditions, i)
		}
	}
	c.LineOf = append(ofBase, ofAdditions...)
	c.Form = r.form(everything, flour, c.Base.Lines, k)
	c.Base.Style = style(c.Form, everything, has)
	c.Base.School = school(everything, c.Base.Style)
	c.Base.Name = strings.TrimSpace(r.Title)
	if c.Base.Name == "" {
		c.Base.Name = "Base from a recipe"
		c.Name = c.Base.Name
	}
	return c
}

// has tells whether a line is of an ingredient.
func (r Reading) has(is func(*food.Ingredient) bool) bool {
	return slices.ContainsFunc(r.Lines, func(l Line) bool { return l.Ingredient != nil && is(l.Ingredient) })
}

// inBatter is a line as it goes into the batter; false for what is not understood, has no amount or goes elsewhere. Of two amounts of
// the same the first counts until somebody says otherwise.
func (l Line) inBatter(k batter.Kitchen) (batter.Line, bool) {
	rival := l.later && l.Rival > 0 && l.Status != Read
	if l.Ingredient == nil || l.Amount <= 0 || l.Place != "" || l.Status == NotUnderstood || rival {
		return batter.Line{}, false
	}
	line := batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, Role: l.Ingredient.Role, CanG: l.SizeG, CanML: l.SizeML, Method: l.Method, Fill: l.Fill}
	_, err := k.Grams(line)
	return line, err == nil
}

// ofBase tells whether a line is of the base and was not added to it; without flour fruit and egg alone make the batter.
func (l Line) ofBase(flour bool) bool {
	in := l.Ingredient
	milk := in.Group == food.GroupPowder && strings.Contains(in.ID, "milk")
	return baseGroups[in.Group] || in.Role == food.RoleFlour || in.Role == food.RoleSalt || milk || !flour && in.Group == food.GroupPuree
}

// form is what a recipe is for: by its words, else by what is in it.
func (r Reading) form(everything string, flour bool, base []batter.Line, k batter.Kitchen) batter.Form {
	if !flour && len(base) > 0 {
		return batter.Flourless
	}
	named := everything
	for _, l := range r.Lines {
		named += " " + fold(l.Text)
	}
	for _, f := range formWords {
		if strings.Contains(named, f.word) {
			return f.form
		}
	}
	var parts []food.Part
	for _, l := range base {
		if g, err := k.Grams(l); err == nil {
			parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: g})
		}
	}
	lifts := r.has(func(in *food.Ingredient) bool { return in.Group == food.GroupLeavener || in.ID == "self_raising_flour" })
	if l := flow.Of(parts).L(); !lifts && !math.IsNaN(l) && l > thinFrom {
		return batter.Crepe
	}
	return batter.Pancake
}

// thinFrom is the L* [ml/g] from which a batter without any lift is taken for crêpes (the
// upper edge of the pancake's band).
const thinFrom = 2.35

func style(f batter.Form, text string, has func(string) bool) batter.Style {
	switch {
	case f == batter.Flourless:
		return "flourless"
	case has("dried_yeast"):
		return "yeast"
	case has("buckwheat_flour"):
		return "buckwheat"
	case f == batter.Crepe:
		return "crepe"
	case has("glutinous_rice_flour"):
		return "chewy"
	case f == batter.Waffle && (has("semolina_fine") || has("rice_flour") || has("cornmeal_fine")):
		return "crisp"
	case whips(text):
		return batter.Whipped
	case has("ricotta"), has("cottage_cheese"):
		return "curd"
	case has("yogurt_plain"), has("yogurt_strained"), has("sour_cream"):
		return "yogurt"
	case has("buttermilk_cultured"), has("kefir_plain"):
		return "cultured"
	case has("self_raising_flour"):
		return "self_raising"
	}
	return "milk"
}

// whips tells whether the steps whip the whites.
func whips(text string) bool {
	return strings.Contains(text, "whites") && (strings.Contains(text, "peaks") || strings.Contains(text, "whip") || strings.Contains(text, "stiff"))
}

var restFor = regexp.MustCompile(`(?:rest|stand|chill|refrigerate|sit|leave|fridge)[^.]{0,40}?(\d+|half an|an|one|two)(?:\s*(?:-|to)\s*(\d+))?\s*(minute|min|hour|hr)`)

// school reads how the batter is mixed out of its steps.
func school(text string, s batter.Style) batter.School {
	out := batter.School{RestMin: math.NaN()}
	switch batter.ReadLumps(text) {
	case batter.LumpsStay:
		out.Lumps = "stop while lumpy"
	case batter.LumpsOut:
		out.Lumps = "whisk smooth"
	}
	if s == batter.Whipped || whips(text) {
		out.Eggs = "whites whipped, folded in last"
	}
	if m := restFor.FindStringSubmatch(text); m != nil {
		v, err := strconv.ParseFloat(m[1], 64)
		if err != nil {
			v = map[string]float64{"half an": 0.5, "an": 1, "one": 1, "two": 2}[m[1]]
		}
		if high, err := strconv.ParseFloat(m[2], 64); err == nil {
			v = (v + high) / 2
		}
		if strings.HasPrefix(m[3], "h") || m[1] == "half an" {
			v *= 60
		}
		out.RestMin = math.Min(v, 48*60)
	} else if strings.Contains(text, "overnight") {
		out.RestMin = 8 * 60
	}
	return out
}
