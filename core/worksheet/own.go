package worksheet

import (
	"context"
	"fmt"
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/heat"
	"upbeatladle/core/words"
)

// wantedC is where the cook wants the plate when it is poured on: what was told, else where their own minutes stood, while the batter is as thick as theirs was; 0 to be advised.
func (w *described) wantedC(c *Cook, o onPlate) float64 {
	if at := w.toldC(); at > 0 {
		return at
	}
	if own, ok := w.v.Cooking.OwnOn(c.PlateID); ok && own.Thick(o.mm) {
		return w.ownC(own)
	}
	return 0
}

// toldC is where the cook said that the plate stands when it is poured on; 0 when nobody did.
func (w *described) toldC() float64 {
	if s, ok := w.v.Cooking.HeatFrom(batter.AtPour); ok {
		if at, ok := w.stepC(s); ok {
			return at
		}
	}
	return w.v.Cooking.PlateC
}

// ownC is where the plate stood for a cook's own minutes; 0 where nobody can say.
func (w *described) ownC(own batter.OwnMinutes) float64 {
	c, _ := w.stepC(batter.HeatStep{C: own.C, Mark: own.Mark})
	return c
}

// stepC is a step of the heat in °C; false for a mark that this plate's dial does not have.
func (w *described) stepC(s batter.HeatStep) (float64, bool) {
	if s.C > 0 {
		return s.C, true
	}
	g, ok := w.griddle()
	if !ok || w.v.Form == batter.Waffle || s.Mark == "" {
		return 0, false
	}
	return heat.DialOf(g).Of(s.Mark)
}

// ownMinutes puts the cook's times in the place of ours, where they hold, and says what ours are. The error is the
// context's.
func (w *described) ownMinutes(ctx context.Context, c *Cook, o onPlate, ask heat.Ask, ours heat.Advice) (heat.Advice, error) {
	own, ok := w.v.Cooking.OwnOn(c.PlateID)
	if !ok {
		return ours, nil
	}
	if out := w.outside(c, o, own, ours.PlateC); out != "" {
		w.notOwn(c, o, own, ours.PlateC, out)
		return ours, nil
	}
	ask.Own = heat.Times{FirstS: own.FirstS, SecondS: own.SecondS}
	theirs, err := heat.AdviseAt(ctx, ask, ours.PlateC)
	if err != nil {
		return ours, err
	}
	c.Own = &OwnCook{State: OwnUsed, FirstSideS: own.FirstS, SecondSideS: second(own), PouredMM: o.mm, GriddleC: ours.PlateC, Text: "By the model no time sets it through at this heat."}
	if ours.Trouble != heat.NeverSets {
		c.Own.OursFirstS = ours.FirstS
		if !o.portion.Iron {
			c.Own.OursSecondS = &ours.SecondS
		}
		c.Own.Text = fmt.Sprintf("Ours would be %s.", sides(ours.FirstS, c.Own.OursSecondS))
	}
	last, safe := own.SecondS, theirs.SafeS
	if o.portion.Iron {
		last = own.FirstS
	}
	if short := safe - last; short > 0 || math.IsNaN(safe) {
		if !math.IsNaN(safe) {
			c.Own.ShortOfSafeS = 5 * math.Ceil(short/5)
		}
		c.Warnings = append(c.Warnings, shortOfSafe(c.Own.ShortOfSafeS, o.portion.Iron))
	}
	theirs.Low, theirs.High = ours.Low, ours.High
	if theirs.Trouble != heat.StaysFrozen { // colour is theirs to judge
		theirs.Trouble = heat.NoTrouble
	}
	return theirs, nil
}

// shortOfSafe says that a cook's own time is shorter than what sets egg in a bad contact too.
func shortOfSafe(s float64, iron bool) string {
	side := words.Either(iron, "Your time closed", "Your second side")
	if s <= 0 {
		return side + " is not enough by the model: a probe must read 74 °C in the middle."
	}
	return fmt.Sprintf("%s is %s shorter than what sets the middle on a poor contact too. Probe: 74 °C in the middle.", side, words.Seconds(s))
}

// crepeOwn is the same where practice gives the times.
func (w *described) crepeOwn(c *Cook, o onPlate) {
	own, ok := w.v.Cooking.OwnOn(c.PlateID)
	if !ok {
		w.offerOwn(c, o)
		return
	}
	if out := w.outside(c, o, own, c.GriddleC); out != "" {
		w.notOwn(c, o, own, c.GriddleC, out)
		return
	}
	ours := *c.SecondSideS
	c.Own = &OwnCook{State: OwnUsed, FirstSideS: own.FirstS, SecondSideS: second(own), OursFirstS: c.FirstSideS, OursSecondS: &ours, PouredMM: o.mm, GriddleC: c.GriddleC}
	c.Own.Text = fmt.Sprintf("Practice says %s.", sides(c.FirstSideS, &ours))
	c.FirstSideS, c.SecondSideS = own.FirstS, second(own)
}

// outside says why a cook's minutes do not hold here; empty where they do.
func (w *described) outside(c *Cook, o onPlate, own batter.OwnMinutes, plateC float64) string {
	switch at := w.ownC(own); {
	case (own.SecondS > 0) == o.portion.Iron:
		return words.Either(o.portion.Iron, "they were for two sides", "they were for an iron")
	case !own.Thick(o.mm):
		return fmt.Sprintf("they were for %.1f mm of batter, and this is poured %.1f mm", own.PouredMM, o.mm)
	case at > 0 && math.Abs(plateC-at) > batter.OwnWithinK:
		return fmt.Sprintf("they were for %s, and %s stands at %s", w.degree(at), words.Either(c.On == "", "the plate", c.On), w.degree(plateC))
	}
	return ""
}

func (w *described) notOwn(c *Cook, o onPlate, own batter.OwnMinutes, plateC float64, why string) {
	c.Own = &OwnCook{State: OwnOutside, From: own.From, PouredMM: o.mm, GriddleC: plateC, FirstSideS: own.FirstS, SecondSideS: second(own), Text: "Your own minutes are not used: " + why + "."}
}

// offerOwn offers what the recipe claims of itself, or ours to begin with: as they would stand in the document.
func (w *described) offerOwn(c *Cook, o onPlate) {
	if c.Own != nil || c.FirstSideS <= 0 {
		return
	}
	c.Own = &OwnCook{State: OwnOffered, From: batter.OwnTyped, FirstSideS: c.FirstSideS, SecondSideS: c.SecondSideS, PouredMM: o.mm, GriddleC: c.GriddleC}
	if s := 60 * w.v.Cooking.SaidMinutes; s > 0 {
		c.Own.From, c.Own.FirstSideS = batter.OwnSaid, s
		if !o.portion.Iron {
			c.Own.SecondSideS = &s
		}
		c.Own.Text = fmt.Sprintf("The recipe says %s.", words.Either(o.portion.Iron, words.Seconds(s)+" closed", words.Seconds(s)+" a side"))
	}
}

func second(own batter.OwnMinutes) *float64 {
	if own.SecondS <= 0 {
		return nil
	}
	return &own.SecondS
}

func sides(first float64, second *float64) string {
	if second == nil {
		return words.Clock(first) + " closed"
	}
	return words.Clock(first) + " and " + words.Clock(*second)
}

// heatSteps puts the heat in steps into words.
func (w *described) heatSteps(c *Cook) {
	wish := w.v.Cooking
	at := 0.0 // where it stood before
	for _, moment := range batter.HeatAts {
		s, ok := wish.HeatFrom(moment)
		if !ok && (moment != batter.AtPour || len(wish.Heat) == 0) {
			continue
		}
		to, known := c.GriddleC, c.GriddleC > 0
		if ok {
			if to, known = w.stepC(s); !known {
				c.Reasons = append(c.Reasons, fmt.Sprintf("“%s” is no mark on the dial of %s: turn it as you always do.", s.Mark, words.Either(c.On == "", "this plate", c.On)))
			}
		}
		out := HeatAsked{At: moment, C: to, Mark: s.Mark, To: w.turnedTo(to, s)}
		out.Text = out.From(at)
		if known {
			at = to
		}
		c.Heat = append(c.Heat, out)
	}
}

// From says what is done with a plate that stands at another heat [°C]; 0 where nobody knows.
func (h HeatAsked) From(c float64) string {
	switch {
	case c == 0 || h.C == 0:
		return "At " + h.To
	case h.C < c:
		return "Down to " + h.To
	case h.C > c:
		return "Up to " + h.To
	}
	return "Stays at " + h.To
}

// turnedTo is a heat as it is turned to: the mark that was asked for, the plate's own dial, or degrees.
func (w *described) turnedTo(c float64, s batter.HeatStep) string {
	if s.Mark != "" {
		return s.Mark
	}
	if g, ok := w.griddle(); ok && w.v.Form != batter.Waffle && g.Dial != "" {
		return heat.DialOf(g).Say(c)
	}
	return w.degree(c)
}
