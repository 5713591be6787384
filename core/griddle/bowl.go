// Package griddle runs a board: what is poured, flipped, lifted and judged next on every plate and iron, what
// waits in the oven and for how long it may, what lies flat in the freezer. What happens is a row of events; the
// state at a moment is folded from them, so that any tablet sees the same. Rules and constants: docs/maths.md
// section 20.
package griddle

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/heat"
	"upbeatladle/core/keep"
	"upbeatladle/core/mixing"
	"upbeatladle/core/portion"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

// Verdict is how the first one of a bowl came out.
type Verdict string

// The verdicts.
const (
	Right Verdict = "right"
	Pale  Verdict = "pale"
	Dark  Verdict = "dark"
	Raw   Verdict = "raw"
	Torn  Verdict = "torn"
	Thick Verdict = "thick"
	Thin  Verdict = "thin"
)

// Verdicts lists them.
var Verdicts = []Verdict{Right, Pale, Dark, Raw, Torn, Thick, Thin}

var verdictLabels = map[Verdict]string{
	Right: "right", Pale: "pale", Dark: "dark", Raw: "raw inside", Torn: "torn", Thick: "too thick", Thin: "too thin",
}

// What a verdict moves where no model is asked (modelling choices) [s].
const (
	tornWaits   = 10.0 // before it is flipped
	ironMoves   = 20.0 // an iron is closed longer, or shorter
	crepeSecond = 15.0 // a crêpe that is raw inside
	rawLowerC   = 4.0  // K that the plate goes down when one is raw inside
)

// Adjust is what the verdicts have moved so far.
type Adjust struct {
	PlateC  float64 `json:"plate_c,omitzero"` // where it is to stand; 0 as advised
	ShiftC  float64 `json:"shift_c,omitzero"` // that the plate is hotter than its marks say, on top of what the kitchen knows
	Contact float64 `json:"contact,omitzero"` // times its contact; 0 is 1
	FirstS  float64 `json:"first_s,omitzero"`
	SecondS float64 `json:"second_s,omitzero"`
}

// OfPlate is what of it holds for the plate, whatever bowl comes next.
func (a Adjust) OfPlate() Adjust { return Adjust{ShiftC: a.ShiftC, Contact: a.Contact} }

// Effect is what a verdict would do to the rest.
type Effect struct {
	Verdict Verdict `json:"verdict"`
	Label   string  `json:"label"`
	Says    string  `json:"says"`
	Teaches bool    `json:"teaches,omitzero"` // something about the plate, that holds on other mornings too
	StirG   float64 `json:"stir_g,omitzero"`  // of the base's liquid, for what is left
	Stir    string  `json:"stir,omitzero"`    // what is stirred in, as a sentence
}

// Bowl is what one bowl asks of one plate or iron, as it was worked out when it was put on it. Times in s,
// lengths in mm.
type Bowl struct {
	Batch      string       `json:"batch"`
	Name       string       `json:"name"`
	Form       batter.Form  `json:"form"`
	Plate      string       `json:"plate"` // id of the plate or iron
	Count      int          `json:"count"` // portions
	PortionML  float64      `json:"portion_ml"`
	DiameterMM float64      `json:"diameter_mm,omitzero"` // that one takes on the plate; 0 in an iron
	PouredMM   float64      `json:"poured_mm,omitzero"`   // that it stands, as poured
	Places     []portion.At `json:"places"`
	HeatText   string       `json:"heat_text"`          // "156 °C"
	Dial       string       `json:"dial,omitzero"`      // "just under 4"
	Window     string       `json:"window,omitzero"`    // "148 to 168 °C"
	GriddleC   float64      `json:"griddle_c"`          //
	WindowC    []float64    `json:"window_c,omitempty"` //
	HotStart   string       `json:"hot_start,omitzero"` // how it is poured hotter first
	HotSigns   string       `json:"hot_signs,omitzero"` // that it is hot, for whoever has no thermometer
	Own        bool         `json:"own,omitzero"`       // by the cook's own minutes
	Turns      []HeatTurn   `json:"turns,omitempty"`    // the heat in steps, in their order
	PreheatMin float64      `json:"preheat_min"`
	FirstS     float64      `json:"first_s"`           // closed, in an iron
	SecondS    float64      `json:"second_s,omitzero"` // none in an iron
	GreaseOnce string       `json:"grease_once,omitzero"`
	Pour       []string     `json:"pour"`            // what is done in one go, the pour last
	Place      []string     `json:"place,omitempty"` // at once after the pour
	First      string       `json:"first"`           // what to wait for on the first side, or closed
	Flip       []string     `json:"flip,omitempty"`
	Done       string       `json:"done"`
	Serve      string       `json:"serve,omitzero"`
	Contains   []string     `json:"contains"`
	May        []string     `json:"may_contain"`
	NotKnown   []string     `json:"not_known,omitempty"`  // what nobody could look up, by its name
	Suspects   []string     `json:"suspects"`             // contained, in some makes, or not known: what a plate may carry over
	Allergens  string       `json:"allergen_text"`        // of what is cooked,
	Served     string       `json:"served_text,omitzero"` // and with what goes on at the table, where that is more
	Warnings   []string     `json:"warnings,omitempty"`
	Cautions   []string     `json:"cautions,omitempty"`
	Colour     string       `json:"colour,omitzero"` // of the batter, roughly
	Hold       keep.Hold    `json:"hold"`
	Effects    []Effect     `json:"effects"`
	Adjust     Adjust       `json:"adjust,omitzero"`
	Trouble    string       `json:"trouble,omitzero"` // why it cannot be cooked here
}

// HeatTurn is a step of the heat.
type HeatTurn = worksheet.HeatAsked

// TurnedTo is the step that an event turns the plate to, if it is one of this bowl's.
func (b Bowl) TurnedTo(e Event) (HeatTurn, bool) {
	i := slices.IndexFunc(b.Turns, func(t HeatTurn) bool { return e.Mark != "" && t.Mark == e.Mark || e.C != nil && t.C == *e.C })
	if e.Kind != Turned || i < 0 {
		return HeatTurn{}, false
	}
	return b.Turns[i], true
}

// OnAt is where the plate stands when it is switched on [°C].
func (b Bowl) OnAt() float64 {
	if len(b.Turns) > 0 && b.Turns[0].C > 0 {
		return b.Turns[0].C
	}
	return b.GriddleC
}

// Iron tells whether it is cooked closed.
func (b Bowl) Iron() bool { return b.Form == batter.Waffle }

// leastPlace is the least that one takes on a plate, so that a finger finds it [mm] (modelling choice).
const leastPlace = 40

// boardCautions are the cautions that bite at the plate.
var boardCautions = []string{"hot_fat", "iron", "cook_through", "local_code"}

// Lay works out what a bowl of a variation asks of a plate or an iron; count is how many portions the bowl really
// gives, 0 for the plan's, poured how many of them are gone, kept how much of its liquid waits in a jug [g]. The error is batter.Problems, for the field "plate" when the form
// does not go on it, or the context's.
func Lay(ctx context.Context, v batter.Variation, k batter.Kitchen, on string, count, poured int, kept float64, a Adjust) (Bowl, error) {
	b := Bowl{Name: v.Name, Form: v.Form, Plate: on, Adjust: a}
	iron := slices.IndexFunc(k.Irons, func(i batter.Iron) bool { return i.ID == on })
	plate := slices.IndexFunc(k.Griddles, func(g batter.Griddle) bool { return g.ID == on })
	if b.Iron() && iron < 0 || !b.Iron() && plate < 0 {
		var p batter.Problems
		p.Add(batter.Field{Part: batter.OfWish, Name: "plate"}, "wrong_plate", "%s",
			words.Either(b.Iron(), "A waffle batter goes into an iron. Choose one, or add yours in the Kitchen.", "This batter goes on a plate or into a pan. Choose one, or add yours in the Kitchen."))
		return b, p
	}
	v.Cooking.On = on
	if a.PlateC > 0 {
		v.Cooking = v.Cooking.Standing(a.PlateC)
	}
	if plate >= 0 {
		k.Griddles = slices.Clone(k.Griddles)
		g := &k.Griddles[plate]
		g.ShiftC += a.ShiftC
		if a.Contact > 0 {
			if g.Contact <= 0 {
				g.Contact = 1
			}
			g.Contact *= a.Contact
		}
	}
	sheet, lies, err := worksheet.AtPlate(ctx, v, k)
	if err != nil {
		return b, err
	}
	b.take(sheet, lies)
	if count > 0 {
		b.Count = count
	}
	if b.Iron() {
		b.moulds(k.Irons[iron])
	} else {
		b.lie(k.Griddles[plate], lies)
	}
	b.times(sheet.Cook, lies, a)
	b.told(sheet)
	if b.Trouble == "" {
		err = b.judge(ctx, v, k, poured, kept)
	}
	return b, err
}

// take takes the worksheet over.
func (b *Bowl) take(sheet worksheet.Worksheet, lies worksheet.Lies) {
	c := sheet.Cook
	b.Count, b.PortionML, b.PouredMM = sheet.Portion.Count, sheet.Portion.VolumeML, lies.ThickMM
	b.HeatText, b.Dial, b.Window, b.GriddleC, b.WindowC, b.PreheatMin, b.HotStart = c.GriddleText, c.Dial, c.WindowText, c.GriddleC, c.WindowC, c.PreheatMin, c.HotStart
	b.HotSigns = strings.Join(c.SignsHot, "; ")
	b.Turns, b.Own = c.Heat, c.Own != nil && c.Own.State == worksheet.OwnUsed
	a := sheet.Cooked
	b.Contains, b.May, b.NotKnown, b.Suspects, b.Allergens = append([]string{}, a.Contains...), append([]string{}, a.May...), a.NotKnown, a.Suspects(), a.Text()
	if sheet.AllergenText != b.Allergens {
		b.Served = sheet.AllergenText
	}
	b.Warnings = c.Warnings
	if t := sheet.Batter.Colour; t != nil {
		b.Colour = t.Hex
	}
	b.Hold = keep.HoldOf(b.Form)
	for _, caution := range sheet.Cautions {
		if slices.Contains(boardCautions, caution.Code) {
			b.Cautions = append(b.Cautions, caution.Text)
		}
	}
	switch {
	case c.FirstSideS <= 0:
		b.Trouble = "No heat sets it through: look at the heat on the bench before it is poured."
		if len(c.Warnings) > 0 {
			b.Trouble = c.Warnings[0]
		}
	case b.Count <= 0:
		b.Trouble = "The bowl fills no portion."
	}
}

// grid is how the moulds of an iron lie: so many side by side, in so many rows.
func grid(i batter.Iron) (across, rows int) {
	n := max(1, i.Moulds)
	across = int(math.Ceil(math.Sqrt(float64(n))))
	return across, (n + across - 1) / across
}

// moulds are the places of an iron, side by side.
func (b *Bowl) moulds(i batter.Iron) {
	across, _ := grid(i)
	for n := range max(1, i.Moulds) {
		b.Places = append(b.Places, portion.At{X: (float64(n%across) + 0.5) * i.WidthMM, Y: (float64(n/across) + 0.5) * i.LengthMM})
	}
}

// lie lays discs on a plate.
func (b *Bowl) lie(g batter.Griddle, lies worksheet.Lies) {
	b.DiameterMM = lies.WideMM
	if b.DiameterMM <= 0 && lies.ThickMM > 0 { // it does not spread: a disc of that thickness
		b.DiameterMM = math.Sqrt(4 * b.PortionML * 1000 / lies.ThickMM / math.Pi)
	}
	b.DiameterMM = math.Min(math.Max(b.DiameterMM, leastPlace), math.Min(g.WidthMM, g.DepthMM))
	b.Places = portion.PlacesOn(g, b.DiameterMM)
	if len(b.Places) == 0 {
		b.Places = []portion.At{{X: g.WidthMM / 2, Y: g.DepthMM / 2}}
	}
}

// times are the advised ones as the verdicts have moved them. A second side, and an iron, is never shorter than what
// sets egg in a bad contact.
func (b *Bowl) times(c *worksheet.Cook, lies worksheet.Lies, a Adjust) {
	b.FirstS = c.FirstSideS
	if c.SecondSideS != nil {
		b.SecondS = *c.SecondSideS
	}
	if b.FirstS <= 0 {
		return
	}
	b.FirstS = math.Max(shortest, b.FirstS+a.FirstS)
	if b.Iron() {
		b.FirstS = math.Max(b.FirstS, lies.SafeS)
		return
	}
	b.SecondS = math.Max(math.Max(shortest, lies.SafeS), b.SecondS+a.SecondS)
}

// shortest is no side [s] (modelling choice).
const shortest = 10

// told are the sentences of the steps at the plate.
func (b *Bowl) told(sheet worksheet.Worksheet) {
	when := sheet.Cook.Fat.When
	for _, s := range sheet.Mixing {
		switch s.Code {
		case mixing.CodeGrease:
			if when == batter.FirstOnly {
				b.GreaseOnce = s.Text
			} else if when != batter.OnCooked {
				b.Pour = append(b.Pour, s.Text)
			}
			if when == batter.AtFlip {
				b.Flip = append(b.Flip, s.Text)
			}
			if when == batter.OnCooked {
				b.Serve = s.Text
			}
		case mixing.CodeUnder, mixing.CodePour:
			b.Pour = append(b.Pour, s.Text)
		case mixing.CodePlace:
			b.Place = append(b.Place, s.Text)
		case mixing.CodeAsideLast, mixing.CodeServe:
			b.Serve = words.Either(b.Serve == "", s.Text, b.Serve+" "+s.Text)
		}
	}
	c := sheet.Cook
	b.First = strings.Join(c.SignsFirst, "; ")
	if !b.Iron() {
		if c.Turn != nil && c.Turn.How != heat.OneTurner {
			b.Flip = append(b.Flip, c.Turn.Text)
		}
		b.Done = strings.Join(c.SignsSecond, "; ")
	} else {
		b.Done = b.First
	}
	if slices.Contains(b.Contains, "egg") {
		b.Done += fmt.Sprintf("; middle %d °C by a probe", keep.ReheatC)
	}
}

// judge works out what each verdict would do to the rest of the bowl.
func (b *Bowl) judge(ctx context.Context, v batter.Variation, k batter.Kitchen, poured int, kept float64) error {
	left := 1.0
	if b.Count > 0 {
		left = math.Max(0, float64(b.Count-max(1, poured))) / float64(b.Count)
	}
	for _, verdict := range Verdicts {
		e := Effect{Verdict: verdict, Label: verdictLabels[verdict]}
		next := b.After(verdict)
		e.Teaches = !b.Iron() && next != b.Adjust && (verdict == Pale || verdict == Dark || verdict == Raw)
		switch verdict {
		case Right:
			e.Says = "go on"
		case Pale, Dark, Raw:
			e.Says = b.moved(verdict, k, next)
		case Torn:
			e.Says = fmt.Sprintf("%.0f s longer, and grease again", next.FirstS-b.Adjust.FirstS)
		case Thick, Thin:
			if err := b.stirs(ctx, &e, v, k, left, kept); err != nil {
				return err
			}
		}
		b.Effects = append(b.Effects, e)
	}
	return nil
}

// stirs says what a bowl that came out too thick or too thin gets.
func (b *Bowl) stirs(ctx context.Context, e *Effect, v batter.Variation, k batter.Kitchen, left, kept float64) error {
	if e.Verdict == Thin {
		e.Says, e.Stir = "a spoonful of flour", "Whisk a spoonful of flour smooth with some of the batter, and stir that in."
		return nil
	}
	c, err := worksheet.Correct(ctx, v, k, mixing.Test{Minutes: -1, Says: mixing.Mounds})
	var notJudged batter.Problems
	if err != nil && !errors.As(err, &notJudged) {
		return err
	}
	e.Says = "a splash of liquid"
	if len(c.Add) == 0 || c.Add[0].Grams*left < 1 {
		e.Stir = "Stir in a splash of what is in it already, with a few turns only."
		return nil
	}
	e.StirG = math.Round(c.Add[0].Grams * left)
	e.Says = fmt.Sprintf("+ %.0f g %s", e.StirG, words.Lower(c.Add[0].Label))
	e.Stir = fmt.Sprintf("Stir into what is left, with a few turns only: %s.", mixing.FromJug(e.StirG, math.Floor(kept), 1, words.Lower(c.Add[0].Label)))
	return nil
}

// moved says what a verdict moves at the plate.
func (b *Bowl) moved(v Verdict, k batter.Kitchen, next Adjust) string {
	if b.Iron() {
		d := next.FirstS - b.Adjust.FirstS
		return fmt.Sprintf("%.0f s %s", math.Abs(d), words.Either(d > 0, "longer", "shorter"))
	}
	if b.Form == batter.Crepe && v == Raw {
		return fmt.Sprintf("%.0f s longer on the second side", next.SecondS-b.Adjust.SecondS)
	}
	at := slices.IndexFunc(k.Griddles, func(g batter.Griddle) bool { return g.ID == b.Plate })
	g, c, longer := k.Griddles[at], b.GriddleC, ""
	g.ShiftC += next.ShiftC - b.Adjust.ShiftC
	if v == Raw {
		c, longer = next.PlateC, ", and longer"
	}
	if d := heat.DialOf(g).Say(c); d != "" && d != b.Dial {
		return "dial to " + d + longer
	}
	if v == Raw {
		return "a little lower" + longer
	}
	return words.Either(v == Pale, "a little hotter", "a little cooler")
}

// After is what a verdict moves, on top of those before it.
func (b Bowl) After(v Verdict) Adjust {
	a := b.Adjust
	switch {
	case v == Torn:
		a.FirstS += tornWaits
		if b.Iron() {
			a.FirstS += ironMoves - tornWaits
		}
	case b.Iron() && (v == Pale || v == Raw):
		a.FirstS += ironMoves
	case b.Iron() && v == Dark:
		a.FirstS -= ironMoves
	case b.Form == batter.Crepe && v == Raw:
		a.SecondS += crepeSecond
	case v == Raw: // the contact was poorer than thought: longer, and cooler so that it does not darken meanwhile
		_, a.Contact = heat.Learn(heat.CameRaw, 0, a.Contact)
		a.PlateC = b.GriddleC - rawLowerC
	case v == Pale:
		a.ShiftC, _ = heat.Learn(heat.CamePale, a.ShiftC, 0)
	case v == Dark:
		a.ShiftC, _ = heat.Learn(heat.CameDark, a.ShiftC, 0)
	}
	return a
}

// DropK is by how much the surface cools when one is poured, as a thermometer in its middle sees it [K]. On a plate of
// many places it sees a part of that (modelling choice: one over the root of them).
func (b Bowl) DropK() float64 {
	if b.Iron() {
		return heat.IronDropPerMM * b.PouredMM
	}
	return heat.DropPerMM * b.PouredMM / math.Sqrt(float64(max(1, len(b.Places))))
}
