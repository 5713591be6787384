package mixing

import (
	"fmt"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// Cooking is what the steps at the plate need to know, in words where it is only said.
type Cooking struct {
	On            string   // the plate or iron; empty when nobody named it
	At            string   // how hot; empty when no heat will do
	PreheatMin    float64  //
	Fat           string   // a sentence
	AnyFat        bool     // the recipe does not say which
	First, Second string   // minutes of a side; the second is empty for an iron
	SignsHot      []string // that the plate is hot, for whoever has no thermometer
	SignsFirst    []string //
	SignsSecond   []string //
	Turn          string   // a sentence, when one turner will not do
	TurnPour      string   // what the plate is turned to before it is poured on: "Down to 4"; empty when it stays
	TurnFlip      string   // and at the flip
	Spread        string   // a sentence, when a hand makes it as wide as it lies
	Mounds        bool     // it stands where it is poured into an iron
	Whole         bool     // one cake, as wide as its pan
	OneCake       bool     // of the whole bowl
	Probe         bool     // there is egg in it
	Warnings      []string //
	Hands         string   // how warm the batter is poured, when it matters
	FirstPiece    string
	Middle        []string // fillings
	Serve         []string // what stands on it and beside it
	Syrup         bool     // and one of that is a syrup
}

// atPlate tells what is done at the plate: what lies under the batter first, the batter, what lies on it
// as soon as it is poured, the two sides, the last look.
func (o *order) atPlate(under, onTop []Item) {
	c := o.Cooking
	if c == nil {
		for _, i := range under {
			o.step([]Item{i}, "Lay %s in the pan, %s, and pour the batter over.", i.Lower(), o.perPortion(i)).Code = CodeUnder
		}
		for _, i := range onTop {
			o.step([]Item{i}, "Put %s on each portion as soon as it is poured: %s.", i.Lower(), o.perPortion(i)).Code = CodePlace
		}
		return
	}
	iron := o.Form == batter.Waffle
	if c.Fat != "" {
		text := c.Fat
		if o.melted && o.Form != batter.Waffle && (c.AnyFat || strings.Contains(strings.ToLower(text), "butter")) {
			text += " What stays in the pan of the melted butter does for the first load."
		}
		o.step(nil, "%s", text).Code = CodeGrease
	}
	for _, w := range c.Warnings {
		o.step(nil, "%s", w)
	}
	for _, i := range under {
		o.step([]Item{i}, "Lay %s down first, %s.", i.Lower(), o.perPortion(i)).Code = CodeUnder
	}
	o.pour(c, len(under) > 0, len(onTop) > 0 || len(c.Middle) > 0)
	for _, i := range onTop {
		o.step([]Item{i}, "%s", o.laid(i, iron)).Code = CodePlace
	}
	if len(c.Middle) > 0 {
		o.step(nil, "%s %s.", words.Either(iron, "Between the two pours:", "Into the middle:"), words.List(c.Middle)).Code = CodePlace
	}
	o.sides(c, iron)
}

// soonRest is the longest rest that the plate may be thought of before [min] (modelling choice).
const soonRest = 45

// heat tells when the plate is switched on: before the last work when nothing rests, before a
// short rest, after a long one.
func (o *order) heat(now bool) {
	c := o.Cooking
	if c == nil || c.At == "" || !now {
		return
	}
	what := words.Either(o.Form == batter.Waffle, "the iron", words.Either(o.Form == batter.Crepe, "the pan", "the plate"))
	if c.On != "" {
		what = c.On
	}
	hot := ""
	if len(c.SignsHot) > 0 {
		hot = " Hot enough: " + strings.Join(c.SignsHot, "; ") + "."
	}
	was := o.helper
	o.helper = AdultOnly
	defer func() { o.helper = was }()
	o.step(nil, "Switch on %s before you pour: %s, %s.%s%s", words.Minutes(c.PreheatMin), what, c.At, hot, c.Hands).Code = CodeHeat
}

func (o *order) pour(c *Cooking, over, between bool) {
	how := ""
	switch {
	case o.Form == batter.Waffle && between:
		how = ": half of it first, the rest over what you lay in; or all of it, and what you lay in sprinkled on before the lid closes"
	case o.Form == batter.Waffle && c.Mounds:
		how = " in the middle, push it out to 10 to 15 mm from the rim, and leave the rest to the lid"
	case o.Form == batter.Waffle:
		how = " in the middle, and leave the rim to the lid"
	case c.Whole && o.Form == batter.Crepe:
		how = " and tilt the pan at once until it is covered"
	case c.Whole:
		how = ", and let it run to the rim"
	case over:
		how = " over it"
	}
	text := fmt.Sprintf("Pour %s%s.", words.Either(c.OneCake, "the whole bowl", fmt.Sprintf("%.0f ml", o.PortionML)), how)
	if c.TurnPour != "" {
		text = c.TurnPour + " first. " + text
	}
	if c.Spread != "" && !c.Whole {
		text += " " + c.Spread
	}
	o.step(nil, "%s", text).Code = CodePour
}

// laid says how a piece is laid on what was just poured: what scorches stays off the plate.
func (o *order) laid(i Item, iron bool) string {
	scorches := i.Ingredient.Group == food.GroupDryPiece && i.Ingredient.Sugars > batter.ScorchSugar
	switch {
	case iron:
		return fmt.Sprintf("Lay %s on it at once, %s, away from the rim, and pour the rest of the batter over; or sprinkle them on all of it before the lid closes.", i.Lower(), o.perPortion(i))
	case scorches:
		return fmt.Sprintf("Put %s on at once, %s, and a little batter over them: they scorch where they touch the plate.", i.Lower(), o.perPortion(i))
	}
	return fmt.Sprintf("Put %s on at once, while the top is wet: %s.", i.Lower(), o.perPortion(i))
}

func (o *order) sides(c *Cooking, iron bool) {
	if c.First == "" {
		return
	}
	signs := func(s []string) string { return strings.Join(s, "; ") }
	if iron {
		o.step(nil, "Close, about %s: %s. Keep hands off the steam when you lift the lid.", c.First, signs(c.SignsFirst)).Code = CodeFlip
	} else {
		o.step(nil, "First side, about %s: %s. Do not press.", c.First, signs(c.SignsFirst)).Code = CodeFirst
		turn := words.Either(c.Turn == "", "", " "+c.Turn)
		if c.TurnFlip != "" {
			turn += " " + c.TurnFlip + "."
		}
		o.step(nil, "Flip once.%s Second side, about %s: %s.", turn, c.Second, signs(c.SignsSecond)).Code = CodeFlip
	}
	check := c.FirstPiece
	if c.Probe {
		check = "Last check: no wet batter in the middle; with egg in it 74 °C by a probe, which outranks the clock. " + check
	}
	if o.Form != batter.Waffle {
		check += " Warm plates keep them: out of the oven, or rinsed with hot water and dried."
	}
	o.step(nil, "%s", check).Code = CodeDone
	o.asides(batter.MadeAtLast)
	if len(c.Serve) > 0 {
		text := fmt.Sprintf("Serve: %s.", strings.Join(c.Serve, "; "))
		if c.Syrup {
			text += " Warm the syrup to 50 to 60 °C: it runs, and does not cool them."
		}
		o.step(nil, "%s", text).Code = CodeServe
	}
}
