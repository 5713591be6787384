package worksheet

import (
	"fmt"
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/core/words"
)

// panFat is the fat of the plate: what the cook chose, else what the variation's own part or its
// base says of it.
type panFat struct {
	kind    batter.Fat
	when    batter.When
	used    []*food.Ingredient // what it is made of, in equal parts
	each    float64            // g a portion
	own     float64            // g a portion, as the cook has it; 0 for the usual
	said    bool               // somebody chose it or said so: then it counts
	unknown string             // what was said, when nobody can tell what is in it
	beside  bool               // it is a part of the variation, which is told there
}

// fat decides on it. What counts is in the nutrition, the cost and the allergens, once.
func (w *measured) fat() panFat {
	f := panFat{when: w.v.Cooking.When}
	if f.when == "" {
		f.when = batter.EachLoad
	}
	for _, b := range w.v.Beside {
		if b.Place == batter.InPan {
			f.own += b.EachG
		}
	}
	if c := w.v.Cooking.Fat; c != "" && f.own <= 0 { // so much of a fat for each piece is the cook's last word
		f.kind, f.said, f.used = c, true, heat.FatFrom(c, w.k.Shelf)
		return f
	}
	for _, b := range w.v.Beside { // a part that is there speaks for itself, allergens too
		if b.Place != batter.InPan {
			continue
		}
		f.said, f.beside = true, true
		for _, in := range b.Uses {
			if in.Group == food.GroupFat {
				f.used = append(f.used, in)
			}
		}
		if kind, ok := heat.FatOf(f.used); ok {
			f.kind = kind
			if read, known := heat.ReadFat(b.Text); known && read == batter.Film && kind == batter.Oil {
				f.kind = batter.Film
			}
		}
	}
	if f.said {
		return f
	}
	if text := w.v.Base.School.PanFat; text != "" {
		f.said = true
		kind, ok := heat.ReadFat(text)
		if !ok {
			f.unknown = text
			return f
		}
		f.kind, f.used = kind, heat.FatFrom(kind, w.k.Shelf)
		return f
	}
	f.kind, f.used = batter.Film, heat.FatFrom(batter.Film, w.k.Shelf) // advised, not counted
	return f
}

// greased works out the grams a portion.
func (w *described) greased() {
	f := &w.pan
	area, _, _ := w.place()
	if area <= 0 {
		area = w.out.Portion.VolumeML * 1000 / heat.UnjudgedMM
	}
	count, load := w.out.Portion.Count, 1
	if w.out.Plate != nil {
		load = w.out.Plate.Fit
	}
	f.each = heat.Grease(f.kind, f.when, w.v.Form, area/100, w.v.Cooking.Lacy, load, count)
	if w.v.Cooking.Fat == "" && count > 0 { // an amount that somebody wrote down is the amount
		var all float64
		for _, b := range w.v.Beside {
			for i, in := range b.Uses {
				if b.Place == batter.InPan && in.Group == food.GroupFat && i < len(b.Grams) && !math.IsNaN(b.Grams[i]) {
					all += b.Grams[i]
				}
			}
		}
		if all > 0 {
			f.each = all / float64(count)
		}
	}
	if f.own > 0 {
		f.each = f.own
	}
	if len(f.used) == 0 {
		f.each = 0
	}
}

// parts are the fats with their grams in a portion; none unless somebody said so.
func (f panFat) parts() []food.Part {
	if !f.said || f.each <= 0 {
		return nil
	}
	var out []food.Part
	for _, in := range f.used {
		out = append(out, food.Part{Ingredient: in, Grams: f.each / float64(len(f.used))})
	}
	return out
}

// names are what the fats are called.
func (f panFat) names() string {
	var out []string
	for _, in := range f.used {
		out = append(out, words.Lower(in.Label()))
	}
	return words.List(out)
}

// say tells what goes on the plate, how much and when.
func (w *described) sayFat(f panFat) string {
	one := w.v.Form.Said(1)
	if f.unknown != "" {
		return fmt.Sprintf("For the pan, in the base's words: %s. Nobody knows what is in it: choose a fat and it is counted.", f.unknown)
	}
	if f.kind == batter.NoFat {
		return "No fat: a plate that lets go by itself."
	}
	if len(f.used) == 0 {
		return "For the pan as the recipe says. Nobody knows how much: choose a fat and it is counted."
	}
	how := map[batter.Fat]string{
		batter.Film: "A film of " + f.names() + ", wiped or sprayed, for an even colour", batter.Butter: words.Upper(f.names()), batter.Oil: words.Upper(f.names()),
		batter.Both: words.Upper(f.names()) + ", half and half, so that the butter darkens later",
	}[f.kind]
	when := map[batter.When]string{batter.EachLoad: "for each load", batter.FirstOnly: "before the first load only", batter.AtFlip: "for each load, and again at the flip", batter.OnCooked: "brushed on top once it is cooked"}[f.when]
	text := fmt.Sprintf("%s, %s: %s%s for %s", how, when, words.Either(f.own > 0, "", "about "), words.Grams(math.Max(0.1, f.each), 0.1), one)
	if w.out.Plate != nil && w.out.Plate.Fit > 1 && f.when != batter.OnCooked && f.when != batter.FirstOnly {
		if spoon := w.k.Measures.SpoonText(f.each*float64(w.out.Plate.Fit), f.used[0].Density); spoon != "" {
			text += ", " + spoon + " a load"
		}
	}
	text += "."
	if w.v.Cooking.Lacy && f.kind != batter.Film {
		text += " So much fries the edge crisp."
	}
	if !f.said {
		text += " Nobody has said what goes on the plate: choose it and it is counted in the nutrition."
	}
	return text
}
