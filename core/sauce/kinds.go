package sauce

import (
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// Kind is what is made.
type Kind string

// The kinds.
const (
	Compote    Kind = "compote"
	FruitSyrup Kind = "fruit_syrup" // strained, then boiled down
	SugarSyrup Kind = "sugar_syrup"
	Caramel    Kind = "caramel"
	Cream      Kind = "cream"
	Butter     Kind = "butter" // flavoured, or browned
	Macerated  Kind = "macerated"
	Nut        Kind = "nut" // nut butter or chocolate, thinned
	Dairy      Kind = "dairy"
	Filling    Kind = "filling"
)

// Syrup leaves it to what goes in which of the two syrups it is: SyrupOf.
const Syrup Kind = "syrup"

// Ask is something that is asked of some kinds only.
type Ask string

// What is asked.
const (
	AskBrowned Ask = "browned"     // whether it is heated until its solids are brown
	AskMinutes Ask = "minutes"     // how long it stands
	AskOverrun Ask = "overrun_pct" // how much more volume it has when it is whipped
)

// row is a kind: its name, what is usual of it (common practice, no source), and how it is worked out.
type row struct {
	kind       Kind
	name, says string // in a cook's words
	brix       float64
	servingG   float64
	keepDays   int
	when       batter.MadeWhen
	served     Served
	place      batter.Place // on top where nothing else is said
	boiled     bool         // down to something: brix, where that is usual
	asks       []Ask
	work       func(*pot, food.Total) error
}

var rows = []row{
	{Compote, "Compote", "fruit, simmered", 0, 40, 5, batter.MadeBefore, Warm, batter.OnTop, true, nil, (*pot).compote},
	{FruitSyrup, "Fruit syrup", "juice or strained fruit, boiled down", 65, 20, 30, batter.MadeBefore, Cold, batter.OnTop, true, nil, (*pot).fruitSyrup},
	{SugarSyrup, "Sugar syrup", "sugar and water, boiled down", 66, 20, 30, batter.MadeBefore, Cold, batter.OnTop, true, nil, (*pot).syrup},
	{Caramel, "Caramel", "sugar to amber, then cream and butter", 0, 20, 14, batter.MadeBefore, Warm, batter.OnTop, true, nil, (*pot).caramel},
	{Cream, "Whipped cream", "with sugar and a flavour", 0, 25, 1, batter.MadeResting, Cold, batter.OnTop, false, []Ask{AskOverrun}, (*pot).cream},
	{Butter, "Butter", "flavoured, or browned", 0, 10, 14, batter.MadeBefore, Cold, batter.OnTop, false, []Ask{AskBrowned}, (*pot).butter},
	{Macerated, "Fruit in sugar", "raw, it draws its juice", 0, 40, 2, batter.MadeBefore, Cold, batter.OnTop, false, []Ask{AskMinutes}, (*pot).macerate},
	{Nut, "Chocolate or nut sauce", "melted and thinned", 0, 20, 14, batter.MadeResting, Warm, batter.OnTop, false, nil, (*pot).stirred},
	{Dairy, "Yogurt or curd", "stirred, cold", 0, 40, 2, batter.MadeResting, Cold, batter.OnTop, false, nil, (*pot).stirred},
	{Filling, "Filling", "for the middle", 0, 30, 2, batter.MadeBefore, Cold, batter.Middle, false, nil, (*pot).stirred},
}

// rowOf is the row of a kind; nil where there is none.
func rowOf(k Kind) *row {
	if i := slices.IndexFunc(rows, func(r row) bool { return r.kind == k }); i >= 0 {
		return &rows[i]
	}
	return nil
}

// Kinds lists them, in the order in which they are offered.
func Kinds() []Kind {
	out := make([]Kind, len(rows))
	for i, r := range rows {
		out[i] = r.kind
	}
	return out
}

// Shares of a pot's mass from which it is guessed to be a kind (modelling choices).
const (
	mostlyFruit  = 0.4
	mostlyDairy  = 0.4
	mostlyFat    = 0.5
	mostlyCream  = 0.6
	caramelSugar = 0.25
)

// Guess tells which kind a pot is by what goes in, and where it goes: what a recipe has beside its batter says so nowhere.
func Guess(parts []food.Part, place batter.Place) Kind {
	if place == batter.Middle {
		return Filling
	}
	w := weighKinds(parts)
	is := func(part, share float64) bool { return w.all > 0 && part >= share*w.all }
	switch {
	case w.nut > 0 && is(w.nut+w.cream, mostlyFat):
		return Nut
	case is(w.fruit, mostlyFruit):
		return Compote
	case is(w.sugar, caramelSugar) && w.cream+w.fat > 0:
		return Caramel
	case is(w.cream, mostlyCream):
		return Cream
	case is(w.dairy, mostlyDairy):
		return Dairy
	case is(w.fat, mostlyFat):
		return Butter
	case w.sugar > 0:
		return Syrup
	}
	return Filling
}

// kindsWeighed is what a pot has of each kind of food that makes it a sauce of one kind [g].
type kindsWeighed struct{ all, fruit, sugar, fat, cream, dairy, nut float64 }

func weighKinds(parts []food.Part) (w kindsWeighed) {
	for _, p := range parts {
		in := p.Ingredient
		w.all += p.Grams
		switch {
		case in.Group == food.GroupSugar || in.Group == food.GroupSyrup:
			w.sugar += p.Grams
		case in.Group == food.GroupFat:
			w.fat += p.Grams
		case in.Group == food.GroupLiquid && in.Fat >= leastWhips:
			w.cream += p.Grams
		case in.Group == food.GroupCulturedDairy:
			w.dairy += p.Grams
		case in.Fat >= leastWhips && in.Water < dryBelow:
			w.nut += p.Grams
		case in.Role == food.RolePuree || in.Role == food.RolePiece && in.Sugars >= fruitSugars:
			w.fruit += p.Grams
		}
	}
	return w
}

// dryBelow is the water below which what is fat melts or is ground, and fruitSugars the sugars from which a piece is fruit
// [g/100 g] (modelling choices).
const (
	dryBelow    = 10
	fruitSugars = 4
)

// Choice is a kind as it is offered to whoever writes a pot.
type Choice struct {
	Kind       Kind   `json:"kind"`
	Name       string `json:"name"`
	Says       string `json:"says"`
	BoiledDown bool   `json:"boiled_down"` // to a °Brix, a weight or a temperature
	Asks       []Ask  `json:"asks"`        // beside what every pot is asked
	Rare       bool   `json:"rare"`        // there is another choice that comes to it by itself
}

// Choices lists what is offered: the kinds, and the syrup that finds out which one it is.
func Choices() []Choice {
	var out []Choice
	for _, r := range rows {
		if r.kind == FruitSyrup {
			out = append(out, Choice{Syrup, "Syrup", "of sugar, juice or strained fruit", true, []Ask{}, false})
		}
		out = append(out, Choice{r.kind, r.name, r.says, r.boiled, append([]Ask{}, r.asks...), r.kind == FruitSyrup || r.kind == SugarSyrup})
	}
	return out
}

// Name is what a kind is called; it itself where it is none.
func (k Kind) Name() string {
	if r := rowOf(k); r != nil {
		return r.name
	}
	return string(k)
}
