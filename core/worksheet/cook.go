package worksheet

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/core/portion"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

const (
	sliceCover  = 0.3  // of a portion's area from which slices lie between batter and plate (modelling choice: below, the batter runs round them)
	frozenC     = -18  // °C of a freezer
	worthS      = 15.0 // s that are worth a sentence (modelling choice)
	worthC      = 4.0  // K that are
	darkTint    = 0.12 // reflectance of the batter below which its own colour hides the browning (modelling choice)
	unknownIron = 7.5  // mm of batter in an iron that nobody has described (the cooking model's waffle)
	usualIronC  = 195.0
	usualLowC   = 120.0 // °C that plates go from
	usualHighC  = 230.0 // and to (common practice, no source)
	fahrenheit  = 5.0   // °F that a cook's °F are told to
	frozenMostG = 15.0  // g of frozen pieces laid on a portion above which they are thawed first (modelling choice)
	mountainM   = 1500  // m from which thin air is why it takes long (modelling choice)
)

// onPlate is a portion of a bowl as it lies on the plate.
type onPlate struct {
	portion heat.Portion
	area    float64 // mm²
	mm      float64 // of batter, as poured
	wide    float64 // mm across; 0 when it does not spread
	whole   bool    // one cake as wide as its pan
}

// from is where the batter comes from: as the cook says, else out of the fridge after a long rest
// with what spoils.
func (w *measured) from() batter.From {
	if f := w.v.Cooking.From; f != "" {
		return f
	}
	if safety.Spoils(w.inBatter()) && w.v.Base.Rest(w.v.Form, w.k) >= safety.FridgeFromMin {
		return batter.FromFridge
	}
	return batter.FromCounter
}

// lies says how a portion of a bowl lies on the plate, without what is in or under it.
func (w *described) lies(b bowl) onPlate {
	ml := w.out.Portion.VolumeML
	o := onPlate{mm: heat.UnjudgedMM}
	g, onGriddle := w.griddle()
	if w.v.Form == batter.Waffle {
		o.mm, onGriddle = unknownIron, false
		if i, ok := w.iron(); ok {
			o.mm = ml * 1000 / portion.MouldArea(i)
		}
	} else if l, ok := w.layer(b, ml); ok {
		o.mm, o.wide = l.ThicknessMM, l.DiameterMM
		o.whole = onGriddle && o.wide >= math.Min(g.WidthMM, g.DepthMM)
	}
	o.area = ml * 1000 / o.mm
	o.portion = heat.Portion{
		Patted:    b.grated() && w.v.Form != batter.Waffle,
		Layers:    []heat.Layer{{Matter: heat.MatterOf(b.account), ThickMM: o.mm, StartC: w.from().StartC(), Gas: heat.GasOnPlate, Rise: w.rise(b)}},
		AltitudeM: w.k.AltitudeM, Iron: w.v.Form == batter.Waffle, NoStarch: w.v.Form == batter.Flourless, Colour: w.v.Cooking.Colour,
	}
	if onGriddle {
		o.portion.Contact = g.Contact
	}
	return o
}

// withPieces puts slices under or on the batter, and frozen pieces into it.
func (w *described) withPieces(o onPlate) onPlate {
	layers := o.portion.Layers
	for _, x := range w.out.Portion.Inclusions {
		a := w.additionOf(x.LineID)
		if a == nil || x.Grams <= 0 {
			continue
		}
		in := a.Ingredient
		if in.Group == food.GroupFrozenPiece {
			radius := math.Cbrt(3 * 1000 * in.Piece.MassG / in.PieceDensity() / (4 * math.Pi)) // mm of a ball as heavy
			o.portion.Frozen = append(o.portion.Frozen, heat.Frozen{
				KgPerM2: x.Grams / x.Share / 1000 / (o.area / 1e6), Water: in.Water / 100, FromC: frozenC, PerM2: x.Mean / (o.area / 1e6), DiamMM: 2 * radius,
				OnTop: a.Stage == batter.StageOnPortion,
			})
		}
		if !in.IsSlice() || o.portion.Iron || a.Stage.InBowl() {
			continue
		}
		if cover := x.Mean * math.Pi * x.LengthMM * x.WidthMM / 4 / o.area; cover < sliceCover {
			continue
		}
		slice := heat.SliceOf(in, x.HeightMM, batter.FromCounter.StartC())
		if a.Stage == batter.StageUnderPortion {
			layers = append([]heat.Layer{slice}, layers...)
		} else {
			layers = append(layers, slice)
		}
	}
	o.portion.Layers = layers
	return o
}

func (w *described) additionOf(id string) *batter.Addition {
	for i := range w.v.Additions {
		if w.v.Additions[i].ID == id {
			return &w.v.Additions[i]
		}
	}
	return nil
}

// cook works out the heat. The error is the context's.
func (w *described) cook(ctx context.Context, include Include) error {
	c := &Cook{StartC: w.from().StartC(), From: w.from(), PreheatMin: w.preheat(), TrackC: []float64{usualLowC, usualHighC}}
	w.out.Cook = c
	o := w.withPieces(w.lies(w.weighed))
	w.onPlate = o
	w.plateOf(c)
	c.Fat = w.fatOf()
	c.Choices = choicesFor(w.v.Form, w.pan.kind)
	look := w.look(o)
	for _, s := range look.FirstSigns() {
		c.SignsFirst, c.ShownFirst = append(c.SignsFirst, s.Text), append(c.ShownFirst, s.Shown)
	}
	for _, s := range look.SecondSigns() {
		c.SignsSecond, c.ShownSecond = append(c.SignsSecond, s.Text), append(c.ShownSecond, s.Shown)
	}
	w.turn(c, o)
	c.FirstPiece = firstPiece(w.v.Form)
	var err error
	switch {
	case !o.portion.Layers[0].Matter.Known() || w.out.Portion.VolumeML <= 0:
		c.Warnings = append(c.Warnings, "There is nothing to cook yet: the bowl is empty.")
	case w.v.Form == batter.Crepe:
		w.crepe(c, o)
	default:
		err = w.solveHeat(ctx, c, o, include)
	}
	if err != nil {
		return err
	}
	if hidden := w.hides(); hidden != "" && w.v.Form != batter.Crepe {
		c.Reasons = append(c.Reasons, hidden+" hides the gold: go by rim, feel and clock.")
	}
	w.sayHeat(c)
	if c.GriddleC > 0 && (c.DialFace == nil || !c.DialFace.Known) {
		c.SignsHot = look.HotSigns(c.GriddleC, c.Fat.Kind)
	}
	return nil
}

// plateOf fills in the plate or iron: what it can do, and its dial.
func (w *described) plateOf(c *Cook) {
	if w.v.Form == batter.Waffle {
		if i, ok := w.iron(); ok {
			c.On, c.PlateID, c.Light, c.ClosedS = i.Name, i.ID, i.Light, i.ClosedS
		}
		return
	}
	g, ok := w.griddle()
	if !ok {
		return
	}
	c.On, c.PlateID = g.Name, g.ID
	if g.MinC > 0 && g.MaxC > 0 {
		c.RangeC = []float64{g.MinC, g.MaxC}
		c.TrackC = c.RangeC
	}
}

func (w *described) preheat() float64 {
	if w.v.Form == batter.Waffle {
		if i, ok := w.iron(); ok && i.HeatUpMin > 0 {
			return i.HeatUpMin
		}
		return heat.IronUpMin
	}
	if g, ok := w.griddle(); ok && g.HeatUpMin > 0 {
		return g.HeatUpMin
	}
	return heat.PlateUpMin
}

// look is the bowl to whoever stands at the plate.
func (w *described) look(o onPlate) heat.Look {
	l := heat.Look{Form: w.v.Form, GasML: w.gas(w.weighed), Whips: w.v.Base.Whips(), Hidden: w.hides() != "", Whole: o.whole}
	if i, ok := w.iron(); ok {
		l.Light = i.Light
	}
	return l
}

// hides names what colours the batter so dark that its browning cannot be seen; empty when it can.
func (w *described) hides() string {
	t := w.out.Batter.Colour
	if t == nil {
		return ""
	}
	c, ok := food.ParseHex(t.Hex)
	if !ok || 0.2126*c[0]+0.7152*c[1]+0.0722*c[2] > darkTint {
		return ""
	}
	if t.of != nil {
		return t.of.Label()
	}
	return "The batter's own colour"
}

// turn says how one is turned.
func (w *described) turn(c *Cook, o onPlate) {
	if w.v.Form == batter.Waffle {
		return
	}
	weak := w.fails(w.out.Gauges.Structure) || w.v.Form == batter.Flourless
	t := heat.TurnOf(weak)
	if o.wide <= 0 { // nobody knows how wide it runs
		c.Reasons = append(c.Reasons, fmt.Sprintf("One turner carries up to %.0f mm of this batter, two up to %.0f mm; a wider one is slid on a plate to turn.", t.One, t.Two))
		return
	}
	if w.v.Form == batter.Crepe { // thin, and turned over a long turner or tossed
		t = heat.Turn{One: 400, Two: 400}
	}
	c.Turn = &Turning{How: t.For(o.wide), OneMM: t.One, TwoMM: t.Two}
	switch c.Turn.How {
	case heat.OneTurner:
		c.Turn.Text = "One turner."
	case heat.TwoTurners:
		c.Turn.Text = fmt.Sprintf("Two turners: %.0f mm across, and one carries up to %.0f mm of this batter.", o.wide, t.One)
	default:
		c.Turn.Text = fmt.Sprintf("Too wide to turn with turners (up to %.0f mm with two): free the rim, slide it on a plate, pan over it, and turn both together, with dry cloths.", t.Two)
	}
}

func firstPiece(f batter.Form) string {
	if f == batter.Waffle {
		return "The first one is a test. Pale: longer. Dark: turn it down or shorter. Raw inside: lower, and longer."
	}
	return "The first one is a test. Pale: turn up a little. Dark: turn down. Raw inside: turn down and give it longer."
}

// crepe goes by the times of practice: the signs decide.
func (w *described) crepe(c *Cook, o onPlate) {
	at := w.wantedC(c, o)
	if at == 0 {
		at = heat.CrepeC
		if c.RangeC != nil {
			at = math.Min(c.RangeC[1], math.Max(c.RangeC[0], at))
		}
	}
	c.Given = w.toldC() > 0
	first, second := heat.CrepeTimes(at)
	c.GriddleC, c.WindowC = at, []float64{heat.CrepeLowC, heat.CrepeHighC}
	c.FirstSideS = first.Middle()
	s := second.Middle()
	c.SecondSideS = &s
	c.RangeS, c.SecondRangeS = []float64{first.Low, first.High}, []float64{second.Low, second.High}
	c.Reasons = append(c.Reasons, "Times of practice for thin ones: the signs decide, not the clock.")
	if at < heat.CrepeLowC {
		c.Reasons = append(c.Reasons, "On so mild a heat they take longer and dry out more: hotter is quicker and softer.")
	}
	w.crepeOwn(c, o)
}

// askOf is the portion as the plate gets it.
func (w *described) askOf(o onPlate) heat.Ask {
	a := heat.Ask{Portion: o.portion, GivenC: w.wantedC(w.out.Cook, o)}
	if g, ok := w.griddle(); ok && w.v.Form != batter.Waffle {
		a.Plate = heat.Plate{LowC: g.MinC, HighC: g.MaxC}
	}
	if w.v.Form == batter.Waffle {
		if i, ok := w.iron(); ok {
			a.LightS = i.ClosedS
		}
		return a
	}
	a.HotStart = w.v.Cooking.HotStart
	if s, ok := w.v.Cooking.HeatFrom(batter.AtTurn); ok {
		a.Portion.FlipC, _ = w.stepC(s)
	}
	return a
}

// solveHeat asks the model, for this bowl and for its reference.
func (w *described) solveHeat(ctx context.Context, c *Cook, o onPlate, include Include) error {
	ask := w.askOf(o)
	ask.Portion.Record = include.Curves
	if ask.Portion.Iron && ask.GivenC == 0 {
		ask.GivenC = usualIronC
	} else {
		c.Given = w.toldC() > 0
	}
	a, err := heat.Advise(ctx, ask)
	if err != nil {
		return err
	}
	if w.v.Portion.OneCake && o.mm > heat.ThickestMM { // its rim and face burn on the way
		a.Trouble = heat.NeverSets
	}
	ours := a
	if a, err = w.ownMinutes(ctx, c, o, ask, ours); err != nil {
		return err
	}
	w.fill(c, a, o, ask)
	if c.Own != nil && c.Own.State == OwnUsed {
		c.Reasons = append(c.Reasons, "Your own minutes, used as they are. "+c.Own.Text)
		return nil
	}
	w.offerOwn(c, o)
	if a.Trouble == heat.NeverSets || !include.Cook {
		return nil
	}
	if err := w.compareHeat(ctx, c, o, ask, a, include.Curves); err != nil {
		return err
	}
	return w.shades(ctx, c, ask, a)
}

// fill takes the advice over.
func (w *described) fill(c *Cook, a heat.Advice, o onPlate, ask heat.Ask) {
	c.GriddleC, c.FirstSideS = a.PlateC, a.FirstS
	if !math.IsNaN(a.SafeS) {
		w.safeS = a.SafeS
	}
	if !math.IsNaN(a.Low) {
		c.WindowC = []float64{a.Low, a.High}
	}
	if a.Trouble == heat.NeverSets {
		c.FirstSideS = 0
		w.sayTrouble(c, a, o)
		return
	}
	c.CentreC = finite(a.Result.CentreC)
	c.ColourFirst, c.ShadeFirst = a.ColourFirst, finite(heat.Shade(a.Result.DoseFirst))
	if o.portion.Iron {
		i, _ := w.iron()
		practice := heat.IronTimes(i.DepthMM)
		c.RangeS = []float64{practice.Low, practice.High}
		if ask.LightS > 0 && a.FirstS >= ask.LightS+1 {
			c.Warnings = append(c.Warnings, fmt.Sprintf("Its own light comes after %s, before the middle is surely set: leave it closed for %s.", words.Seconds(ask.LightS), words.Seconds(a.FirstS)))
		}
	} else {
		second := a.SecondS
		c.SecondSideS = &second
		c.ColourSecond, c.ShadeSecond = a.ColourAfter, finite(heat.Shade(a.Result.DoseSecond))
	}
	if f := a.Result.Firm; !math.IsNaN(f) {
		word := "tender, with a bite"
		switch {
		case f < heat.SoftTo:
			word = "soft"
		case f >= heat.HardFrom:
			word = "still hard: cut them thinner, or cook them first"
		}
		c.Reasons = append(c.Reasons, "The slices come out "+word+".")
	}
	if a.MiddleDecides {
		c.Reasons = append(c.Reasons, "The middle decides the second side, not its colour: thinner is quicker.")
	}
	if a.Result.Gummy && !o.portion.Iron {
		c.Reasons = append(c.Reasons, "It keeps much of its water and eats moist: let it steam off for a minute on a rack before it is stacked.")
	}
	c.Curve = a.Result.Curve
	w.sayTrouble(c, a, o)
}

func (w *described) sayTrouble(c *Cook, a heat.Advice, o onPlate) {
	warn := func(format string, args ...any) { c.Warnings = append(c.Warnings, fmt.Sprintf(format, args...)) }
	heatAt := w.degrees(a.PlateC)
	switch a.Trouble {
	case heat.NeverSets:
		if len(o.portion.Layers) > 1 {
			warn("With slices so thick the batter stays raw between, at any heat: cut them thinner, or cook them first.")
		} else if o.mm > heat.ThickestMM && w.v.Portion.OneCake {
			warn("As one cake it stands %.0f mm thick in %s, and stays raw inside on an open plate: make two of it, or put a lid on and cook it low until a probe reads 74 °C in the middle.", o.mm, words.Either(c.On == "", "the pan", c.On))
		} else if o.mm > heat.ThickestMM {
			warn("Poured %.0f mm thick it stays raw inside on an open plate, at any heat. Pour less or thinner, or cook it covered or in the oven until a probe reads 74 °C in the middle.", o.mm)
		} else {
			warn("At %s it does not set through%s. Pour thinner%s.", heatAt, w.thinAir(), words.Either(c.Given, ", or turn it up", ""))
		}
	case heat.StaysFrozen:
		warn("The frozen pieces may still be ice in the middle when the batter is done. Thaw them first, or take smaller ones.")
	case heat.BrownsFirst:
		warn("At %s it turns %s before it is cooked through: %s.", heatAt, darker(a), words.Either(c.Given, "turn it down, or pour thinner", "pour thinner, or take another plate, for no heat of this one does both"))
	case heat.TooPale:
		warn("At %s it stays pale. It is cooked all the same; %s.", heatAt, words.Either(c.Given, "for more colour turn it up, if the plate can", "this plate gives no more colour"))
	}
	if g := o.frozenOn(); g > frozenMostG {
		warn("%s of frozen pieces on each one is more than the heat of its batter thaws: thaw them first and drain them, or lay on fewer.", words.Grams(g, 1))
	}
}

// thinAir says that water boils cooler up here, where that is so.
func (w *described) thinAir() string {
	if w.k.AltitudeM < mountainM {
		return ""
	}
	return fmt.Sprintf(" (water boils at %s here)", w.degree(heat.BoilsAt(w.k.AltitudeM)))
}

// frozenOn is the frozen pieces that are laid on a portion [g].
func (o onPlate) frozenOn() float64 {
	var kg float64
	for _, f := range o.portion.Frozen {
		if f.OnTop {
			kg += f.KgPerM2 * o.area / 1e6
		}
	}
	return 1000 * kg
}

func darker(a heat.Advice) string {
	if a.Result.DoseSecond > a.Result.DoseFirst {
		return string(a.ColourAfter)
	}
	return string(a.ColourFirst)
}

// compareHeat cooks the reference's portion too, and says what differs and why.
func (w *described) compareHeat(ctx context.Context, c *Cook, o onPlate, ask heat.Ask, mine heat.Advice, curves bool) error {
	base := w.lies(w.plain)
	other := w.askOf(base)
	other.GivenC = ask.GivenC
	other.Portion.Record = curves
	say := func(format string, args ...any) { c.Reasons = append(c.Reasons, w.named(fmt.Sprintf(format, args...))) }
	if base.portion.Layers[0].Matter.Known() && len(w.v.Additions) > 0 {
		theirs, err := heat.Advise(ctx, other)
		if err != nil {
			return err
		}
		if theirs.Trouble != heat.NeverSets {
			c.Base = &BaseCook{GriddleC: theirs.PlateC, GriddleF: inF(theirs.PlateC), GriddleText: w.degree(theirs.PlateC), FirstSideS: theirs.FirstS, Curve: theirs.Result.Curve}
			if !o.portion.Iron {
				c.Base.SecondSideS = &theirs.SecondS
			}
			w.why(say, o, base, mine, theirs)
		}
	}
	if o.portion.Iron {
		return nil
	}
	cooler, err := heat.AdviseAt(ctx, ask, mine.PlateC-10)
	if err != nil {
		return err
	}
	if cooler.Trouble != heat.NeverSets && (c.RangeC == nil || mine.PlateC-10 >= c.RangeC[0]) {
		say("%s less: %s.", w.kelvins(10), longer(cooler.FirstS-mine.FirstS, cooler.SecondS-mine.SecondS))
	}
	thicker := ask
	thicker.Portion.Layers = append([]heat.Layer(nil), ask.Portion.Layers...)
	for i := range thicker.Portion.Layers {
		if !thicker.Portion.Layers[i].Fruit {
			thicker.Portion.Layers[i].ThickMM++
		}
	}
	thick, err := heat.AdviseAt(ctx, thicker, mine.PlateC)
	if err != nil {
		return err
	}
	if thick.Trouble != heat.NeverSets {
		say("1 mm thicker: %s.", longer(thick.FirstS-mine.FirstS, thick.SecondS-mine.SecondS))
	}
	return nil
}

// why says what moves the heat and the times away from the reference's.
func (w *described) why(say func(string, ...any), o, base onPlate, mine, theirs heat.Advice) {
	gauges := &w.out.Gauges
	thicker, sweeter := o.mm-base.mm, gauges.Sweetness.After()-gauges.Sweetness.Base()
	switch d := mine.PlateC - theirs.PlateC; {
	case o.portion.Iron:
		if more := mine.FirstS - theirs.FirstS; math.Abs(more) >= worthS {
			say("%s %s closed than the base.", words.Seconds(math.Abs(more)), words.Either(more > 0, "longer", "shorter"))
		}
	case math.Abs(d) < worthC:
		say("The same heat as the base: %.1f mm thick against %.1f.", o.mm, base.mm)
	case d < 0:
		cause := "it browns sooner"
		switch {
		case thicker > 0.2:
			cause = fmt.Sprintf("%.1f mm thicker", thicker)
		case len(o.portion.Frozen) > 0:
			cause = "the frozen pieces want it slower"
		case sweeter > 0.2:
			cause = "more sugar to brown"
		}
		say("%s cooler than the base: %s.", w.kelvins(-d), cause)
	default:
		cause := words.Either(thicker < -0.2, fmt.Sprintf("%.1f mm thinner", -thicker), "less sugar to brown")
		say("%s hotter than the base: %s.", w.kelvins(d), cause)
	}
	if !o.portion.Iron {
		whyFirst(say, o, mine, theirs)
		w.whySecond(say, o, mine, theirs)
	}
	if o.portion.Layers[0].StartC < batter.FromCounter.StartC()-5 {
		say("Cold from the fridge: that is in the minutes.")
	}
}

// whyFirst says what moves the first side's time away from the reference's.
func whyFirst(say func(string, ...any), o onPlate, mine, theirs heat.Advice) {
	switch d := mine.FirstS - theirs.FirstS; {
	case d >= worthS && o.portion.Layers[0].Fruit:
		say("%s more on the first side: the slice lies between the plate and the batter.", words.Seconds(d))
	case d >= worthS && len(o.portion.Frozen) > 0 && mine.PlateC <= theirs.PlateC-worthC:
		say("%s more on the first side, at the lower heat.", words.Seconds(d))
	case d >= worthS && len(o.portion.Frozen) > 0:
		say("%s more on the first side: the frozen pieces take heat to thaw.", words.Seconds(d))
	case d >= worthS:
		say("%s more on the first side.", words.Seconds(d))
	case d <= -worthS:
		say("%s less on the first side.", words.Seconds(-d))
	}
}

// whySecond says what moves the second side's.
func (w *described) whySecond(say func(string, ...any), o onPlate, mine, theirs heat.Advice) {
	water, was := w.out.Gauges.Moisture.After(), w.out.Gauges.Moisture.Base()
	switch d := mine.SecondS - theirs.SecondS; {
	case d >= worthS && o.portion.Layers[0].Fruit:
		say("%s more on the second: the batter's own face has only that.", words.Seconds(d))
	case d >= worthS && o.frozenOn() > 0:
		say("%s more on the second side: the frozen pieces lie under it.", words.Seconds(d))
	case d >= worthS && water > was+1:
		say("Moister, %.0f g of water to 100 g dry against %.0f: %s more on the second side.", water, was, words.Seconds(d))
	case d >= worthS:
		say("%s more on the second side.", words.Seconds(d))
	case d <= -worthS:
		say("%s less on the second side.", words.Seconds(-d))
	}
}

// longer is a change of the two sides in words.
func longer(first, second float64) string {
	side := func(s float64, which string) string {
		switch {
		case s > 0:
			return words.Seconds(s) + " longer on the " + which
		case s < 0:
			return words.Seconds(-s) + " shorter on the " + which
		}
		return "the " + which + " as it is"
	}
	return side(first, "first side") + ", " + side(second, "second")
}

// shades are the minutes for every colour on this plate.
func (w *described) shades(ctx context.Context, c *Cook, ask heat.Ask, mine heat.Advice) error {
	if ask.Portion.Iron {
		return nil
	}
	wish := ask.Portion.Colour
	if wish == "" {
		wish = batter.Golden
	}
	for _, colour := range batter.Colours {
		a := mine
		if colour != wish {
			ask.Portion.Colour, ask.Portion.Record = colour, false
			var err error
			if a, err = heat.AdviseAt(ctx, ask, mine.PlateC); err != nil {
				return err
			}
		}
		s := Shade{Colour: colour, FirstSideS: a.FirstS, SecondSideS: a.SecondS, Reached: a.Reaches == colour}
		c.Shades = append(c.Shades, s)
	}
	return nil
}

func inF(c float64) float64 { return fahrenheit * math.Round((c*9/5+32)/fahrenheit) }

// degrees is a heat in both, the kitchen's first.
func (w *measured) degrees(c float64) string {
	if w.k.Fahrenheit() {
		return fmt.Sprintf("%.0f °F (%.0f °C)", inF(c), c)
	}
	return fmt.Sprintf("%.0f °C (%.0f °F)", c, inF(c))
}

// kelvins is a difference of heat in the kitchen's own degrees.
func (w *measured) kelvins(k float64) string {
	if w.k.Fahrenheit() {
		return fmt.Sprintf("%.0f °F", k*9/5)
	}
	return fmt.Sprintf("%.0f °C", k)
}

// degree is a heat in the kitchen's own.
func (w *measured) degree(c float64) string {
	if w.k.Fahrenheit() {
		return fmt.Sprintf("%.0f °F", inF(c))
	}
	return fmt.Sprintf("%.0f °C", c)
}

// sayWindow puts the heats at which it comes out well into words.
func (w *described) sayWindow(c *Cook) {
	c.WindowF, c.WindowText = nil, ""
	if c.WindowC == nil {
		return
	}
	for _, v := range c.WindowC {
		c.WindowF = append(c.WindowF, inF(v))
	}
	low, _, _ := strings.Cut(w.degree(c.WindowC[0]), " ")
	c.WindowText = low + " to " + w.degree(c.WindowC[1])
}

// sayHeat puts it into the words that stand in the verdict and on the dial.
func (w *described) sayHeat(c *Cook) {
	if c.GriddleC <= 0 {
		return
	}
	c.GriddleF, c.GriddleText = inF(c.GriddleC), w.degree(c.GriddleC)
	w.sayWindow(c)
	if g, ok := w.griddle(); ok && w.v.Form != batter.Waffle {
		w.sayDial(c, g)
	}
	w.heatSteps(c)
	if w.v.Cooking.HotStart && c.SecondSideS != nil && w.v.Form != batter.Crepe {
		w.sayHotStart(c, w.askOf(w.onPlate).Plate.HotC(c.GriddleC))
	}
	w.sayButter(c)
	c.Lead, c.Safe = w.lead(c), w.middle(c)
	if slices.Contains(w.out.Allergens, "egg") {
		c.Probe = "A probe in the middle outranks it: egg is set at 74 °C."
	}
	v := w.out.Verdict // what it contains stays the last word
	at := len(v)
	if at > 0 && v[at-1].Kind == "allergens" {
		at--
	}
	w.out.Verdict = slices.Insert(v, at, Verdict{"heat", c.Lead, words.Either(c.Dial == "", c.Safe, "the dial: "+c.Dial)})
}

// sayDial puts the heat where the plate's own dial has it, and says when it cannot stand there.
func (w *described) sayDial(c *Cook, g batter.Griddle) {
	if c.RangeC != nil && (c.GriddleC < c.RangeC[0] || c.GriddleC > c.RangeC[1]) {
		c.Warnings = append(c.Warnings, fmt.Sprintf("%s goes from %s to %s: it cannot stand at %s.", g.Name, w.degrees(c.RangeC[0]), w.degrees(c.RangeC[1]), w.degrees(c.GriddleC)))
	}
	if g.Dial == "" && g.ShiftC != 0 {
		c.Dial = fmt.Sprintf("%.0f °C on its own scale", c.GriddleC-g.ShiftC)
	}
	if g.Dial != "" {
		m := heat.DialOf(g)
		c.Dial = m.Say(c.GriddleC)
		c.DialFace = &DialFace{Marks: heat.Marks(g.Dial), At: m.At(c.GriddleC), Known: m.Known()}
		if c.WindowC != nil {
			c.DialFace.Window = []float64{m.At(c.WindowC[0]), m.At(c.WindowC[1])}
		}
		if !m.Known() {
			c.Reasons = append(c.Reasons, "The dial's marks are the usual guess: map the plate once in the Kitchen, or say how the first one came out.")
		}
	}
}

// sayButter says when butter alone burns at this heat.
func (w *described) sayButter(c *Cook) {
	switch {
	case c.Fat.Kind != batter.Butter || c.GriddleC <= heat.ButterBurnsC:
	case w.v.Form == batter.Crepe: // it is gone in a minute
		c.Reasons = append(c.Reasons, "Butter browns fast at this heat: wipe the pan before the next, or take oil with it.")
	default:
		c.Warnings = append(c.Warnings, fmt.Sprintf("Butter alone darkens at %s: take oil with it, or turn it down.", w.degrees(c.GriddleC)))
	}
}

// lead is the heat and the minutes in one line.
func (w *described) lead(c *Cook) string {
	heatAt := w.degree(c.GriddleC)
	switch {
	case c.FirstSideS <= 0:
		return "No heat sets it through"
	case c.SecondSideS != nil:
		return fmt.Sprintf("%s, %s then %s", heatAt, words.Clock(c.FirstSideS), words.Clock(*c.SecondSideS))
	}
	return fmt.Sprintf("%s, closed %s", heatAt, words.Clock(c.FirstSideS))
}

// middle is what is known of the middle at the end of it.
func (w *described) middle(c *Cook) string {
	switch {
	case c.FirstSideS <= 0:
		return "raw inside"
	case w.v.Form == batter.Waffle:
		return "the steam decides"
	case c.CentreC != nil:
		return fmt.Sprintf("middle %.0f °C by the model", *c.CentreC)
	}
	return "by practice: the signs decide"
}

func (w *described) sayHotStart(c *Cook, hot float64) {
	if hot < c.GriddleC+1 {
		c.Reasons = append(c.Reasons, "No hot start: the plate goes no hotter.")
		return
	}
	c.HotStart = fmt.Sprintf("pour at %s, and after %s turn it down to %s", w.degree(hot), words.Seconds(heat.HotStartS), w.degree(c.GriddleC))
	c.Reasons = append(c.Reasons, "Hot start: "+c.HotStart+". It sets the round edge.")
}

func (w *described) fatOf() CookFat {
	f := w.pan
	out := CookFat{Kind: f.kind, When: f.when, GramsPerPortion: f.each, Own: f.own > 0, Counted: f.said && f.each > 0, Text: w.sayFat(f)}
	for _, in := range f.used {
		out.Ingredients = append(out.Ingredients, in.ID)
	}
	if len(f.used) > 0 {
		out.Ingredient = f.used[0].ID
	}
	return out
}
