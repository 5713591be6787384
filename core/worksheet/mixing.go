package worksheet

import (
	"fmt"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/portion"
	"upbeatladle/core/prep"
	"upbeatladle/core/words"
)

// mixing writes the order of work for this recipe.
func (w *described) mixing() {
	r := w.recipe()
	w.out.Mixing, w.out.WeighOut = mixing.Order(r), mixing.Bowls(r)
	if r.Judged {
		w.out.Batter.Should = r.Should()
	}
}

// recipe is the bowl as it is mixed, up to the moment when pieces are folded in.
func (w *described) recipe() mixing.Recipe {
	var parts []food.Part
	var partLines []string
	for i, l := range w.v.Base.Lines {
		parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: w.weigh[i]})
		partLines = append(partLines, w.out.Lines[i].ID)
	}
	items := make([]mixing.Item, 0, len(w.out.Lines))
	inBowl := 0
	for i, l := range w.out.Lines {
		item := mixing.Item{ID: l.ID, Label: l.Label, Role: l.Role, WeighG: l.Weigh, IntoG: l.Weigh, Step: l.Step, InCups: w.include.Cups}
		var of batter.Line
		if l.From == FromBase {
			of = w.v.Base.Lines[i]
		} else {
			of = w.v.Additions[i-len(w.v.Base.Lines)].Line
		}
		item.Fills = func(grams float64) ([]measure.Fill, string) {
			if grams == l.Weigh { // what the list asks for, in the list's spoons
				grams = l.spoonedFrom
			}
			text, _ := w.spoons(of, grams)
			return w.fills(of, grams), text
		}
		if l.From == FromBase {
			item.Ingredient = w.v.Base.Lines[i].Ingredient
			items = append(items, item)
			continue
		}
		a := w.v.Additions[i-len(w.v.Base.Lines)]
		item.Ingredient, item.Addition, item.Stage = a.Ingredient, true, a.Stage
		if p := l.Prepared; p != nil && p.Work != nil {
			item.Prepare = prepared(p.Work)
			item.IntoG = measure.Round(p.Grams, w.k.ScaleStep)
		}
		if l.DryTo != nil {
			item.Reduced, item.IntoG = true, *l.DryTo
		}
		if a.Stage.InBowl() {
			if a.Stage != batter.StageFoldIn {
				parts, partLines = append(parts, w.made[inBowl]), append(partLines, l.ID)
			}
			inBowl++
		}
		items = append(items, item)
	}
	bowl := portion.BowlOf(parts, portion.Air(w.v.Form))
	hot := 0.0
	if d := w.out.Portion.DiameterMM; d != nil && w.v.Form != batter.Crepe && !w.v.Portion.OneCake {
		hot = *d
	}
	return mixing.Recipe{
		Form: w.v.Form, Base: w.v.Base, Items: items, RestMin: w.v.Base.Rest(w.v.Form, w.k),
		Offset: w.v.Offset.Strategy != batter.Leave && len(w.v.Additions) > 0 && !w.asWritten(),
		Judged: w.out.Gauges.Thickness.State != Unknown, MassG: bowl.MassG, Density: bowl.Density(), Parts: parts, PartLines: partLines,
		Thickness: flow.Of(parts), Calibration: w.k.Calibration, PortionML: w.v.Portion.VolumeML, TestML: w.testML(), Count: w.out.Portion.Count,
		Spreads: w.out.Portion.DiameterMM != nil, HotMM: hot, Cooking: w.atPlate(), Asides: w.asides(),
	}
}

// testML is what is poured for the spread test: a portion, or the form's usual ladle of a bowl that is one cake.
func (w *described) testML() float64 {
	if w.v.Portion.OneCake {
		return batter.DefaultPortionML(w.v.Form)
	}
	return w.v.Portion.VolumeML
}

// asides are the sauces of the house, each for all portions.
func (w *described) asides() (out []mixing.Aside) {
	for _, b := range w.v.Beside {
		if b.House == nil || b.EachG <= 0 || w.out.Portion.Count == 0 {
			continue
		}
		h := b.House
		a := mixing.Aside{Name: h.Name, Grams: b.EachG * float64(w.out.Portion.Count), When: h.When, Serve: h.Serve}
		if h.OutOfTub(a.Grams) {
			a.Tub = h.Tub
		} else {
			_, a.Steps = h.Sized(a.Grams)
			a.Mind = h.Cautions
		}
		out = append(out, a)
	}
	return out
}

// atPlate is what the steps at the plate need to know; nil when the heat was not asked for.
func (w *described) atPlate() *mixing.Cooking {
	c := w.out.Cook
	if c == nil {
		return nil
	}
	out := &mixing.Cooking{
		On: c.On, PreheatMin: c.PreheatMin, Fat: w.greaseStep(c.Fat.Text), AnyFat: !w.pan.said, SignsHot: c.SignsHot, SignsFirst: c.SignsFirst, SignsSecond: c.SignsSecond, Whole: w.onPlate.whole, OneCake: w.v.Portion.OneCake,
		Warnings: c.Warnings, FirstPiece: c.FirstPiece, Probe: slices.Contains(w.out.Allergens, "egg"),
	}
	if s := w.out.Portion.Spread; s != nil && s.By == batter.ByHand {
		out.Spread = s.Text
	} else if w.v.Form == batter.Waffle && w.mounds(w.weighed) {
		out.Mounds = true
	}
	w.heatAtPlate(c, out)
	if c.HotStart != "" {
		out.Hands = " Hot start: " + c.HotStart + "."
	}
	if c.From == batter.FromFridge {
		out.Hands += " The batter comes from the fridge: that is in the minutes."
	}
	if c.FirstSideS > 0 {
		out.First = words.Seconds(c.FirstSideS)
		if c.SecondSideS != nil {
			out.Second = words.Seconds(*c.SecondSideS)
		}
	}
	if c.Turn != nil && c.Turn.How != heat.OneTurner {
		out.Turn = c.Turn.Text
	}
	w.besideAtPlate(out)
	return out
}

// heatAtPlate is where the plate stands and where it is turned.
func (w *described) heatAtPlate(c *Cook, out *mixing.Cooking) {
	if c.GriddleC > 0 {
		out.At = w.degrees(c.GriddleC)
		if c.Dial != "" {
			out.At = c.Dial + ", " + out.At
		}
	}
	for _, h := range c.Heat {
		switch h.At {
		case batter.AtMixing:
			out.At = words.Lower(strings.TrimPrefix(h.Text, "At "))
			if h.C > 0 && h.Mark != "" {
				out.At += ", " + w.degrees(h.C)
			}
		case batter.AtPour:
			out.TurnPour = turning(h)
		case batter.AtTurn:
			out.TurnFlip = turning(h)
		}
	}
}

// besideAtPlate is what goes inside, on top and beside.
func (w *described) besideAtPlate(out *mixing.Cooking) {
	for _, b := range w.v.Beside {
		switch b.Place {
		case batter.Middle:
			out.Middle = append(out.Middle, b.Text)
		case batter.OnTop, batter.OnSide, batter.Serving:
			out.Serve = append(out.Serve, b.Text)
			out.Syrup = out.Syrup || len(b.Uses) == 1 && b.Uses[0].Group == food.GroupSyrup
		}
	}
}

// turning is a step of the heat at which the plate is really turned; empty where it stays.
func turning(h HeatAsked) string {
	return words.Either(strings.HasPrefix(h.Text, "At ") || strings.HasPrefix(h.Text, "Stays "), "", h.Text)
}

// greaseStep is the fat of the plate as a step; what nobody has said is not named, or whoever reads
// the recipe back would take it for said.
func (w *described) greaseStep(text string) string {
	at := words.Either(w.v.Form == batter.Waffle, "iron", "pan")
	switch {
	case !w.pan.said:
		return "Grease the " + at + " thinly with what you use: the recipe does not say what that is."
	case len(w.pan.used) > 0:
		return "For the " + at + ": " + words.Lower(text)
	}
	return text
}

// prepared says how an addition is prepared.
func prepared(r *prep.Result) string {
	text := strings.Join(r.Steps, " ")
	for _, f := range r.Left {
		if f.Kind == prep.Juice {
			text += fmt.Sprintf(" About %.0f g of it.", f.Grams)
		}
	}
	return text
}
