// Package batter holds what a cook works with: a base, the additions to it, the variation
// they make, the kitchen it is made in, and the bands that a form of batter keeps to.
package batter

import (
	"math"
	"slices"

	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/prep"
)

// Form is what the batter is cooked as.
type Form string

// The five forms.
const (
	Pancake   Form = "pancake"
	DropScone Form = "drop_scone"
	Waffle    Form = "waffle"
	Crepe     Form = "crepe"
	Flourless Form = "flourless"
)

// Forms lists them; the three common ones first.
var Forms = []Form{Pancake, Waffle, Crepe, DropScone, Flourless}

// formNames in the singular with article, and in the plural.
var formNames = map[Form][2]string{
	Pancake:   {"a pancake", "pancakes"},
	DropScone: {"a drop scone", "drop scones"},
	Waffle:    {"a waffle", "waffles"},
	Crepe:     {"a crêpe", "crêpes"},
	Flourless: {"a flourless pancake", "flourless pancakes"},
}

// Said is "a pancake" for one and "pancakes" for any other number.
func (f Form) Said(n int) string {
	if n == 1 {
		return formNames[f][0]
	}
	return formNames[f][1]
}

// Stage is when an addition meets the batter.
type Stage string

// The stages.
const (
	StageBatter       Stage = "batter"
	StageDry          Stage = "dry"
	StageInfused      Stage = "infused"
	StageFoldIn       Stage = "fold_in"
	StageOnPortion    Stage = "on_portion"
	StageUnderPortion Stage = "under_portion"
)

// Stages lists them in the order of work.
var Stages = []Stage{StageDry, StageInfused, StageBatter, StageFoldIn, StageOnPortion, StageUnderPortion}

// InBowl tells whether an addition of the stage is in the bowl when the batter is poured.
// What is steeped is strained out again.
func (s Stage) InBowl() bool {
	return s != StageOnPortion && s != StageUnderPortion && s != StageInfused
}

// Style is the school of a base.
type Style string

// Whipped is the style whose egg whites are whipped and folded in last.
const Whipped Style = "whipped"

// Yeast is the style that makes its own gas while it proves.
const Yeast Style = "yeast"

// Styles lists every style that a base may have; none is fine too.
var Styles = []Style{
	"milk", "cultured", "yogurt", "curd", "self_raising", Whipped, "crisp", "chewy", Yeast, "crepe", "buckwheat", "flourless",
}

// Strategy is how the base gives way to what the additions bring.
type Strategy string

// The strategies.
const (
	HoldBackLiquid Strategy = "hold_back_liquid"
	BuildUpFlour   Strategy = "build_up_flour"
	DryAddition    Strategy = "dry_addition"
	Shared         Strategy = "shared"
	Leave          Strategy = "leave"
)

// Strategies lists every strategy in the order of their keys.
var Strategies = []Strategy{HoldBackLiquid, BuildUpFlour, DryAddition, Shared, Leave}

// Hold is a property that the offsets keep where the base had it.
type Hold string

// The holds.
const (
	HoldThickness Hold = "thickness"
	HoldSweetness Hold = "sweetness"
	HoldLift      Hold = "lift"
	HoldTang      Hold = "tang"
	HoldSalt      Hold = "salt"
	HoldFat       Hold = "fat"
	HoldStructure Hold = "structure"
	HoldBatchSize Hold = "batch_size"
)

// Holds lists every hold that a document may name.
var Holds = []Hold{HoldThickness, HoldSweetness, HoldLift, HoldTang, HoldSalt, HoldFat, HoldStructure, HoldBatchSize}

// DefaultHold is what is held when nobody says: all that a base is recognised by.
var DefaultHold = []Hold{HoldThickness, HoldSweetness, HoldLift, HoldTang, HoldSalt, HoldFat}

// SugarBy says what the sweetness hold keeps.
type SugarBy string

// Relative sweetness is what is tasted; total sugars is what browns.
const (
	BySweetness   SugarBy = "sweetness"
	ByTotalSugars SugarBy = "total_sugars"
)

// Line is one line of a base.
type Line struct {
	ID         string
	Ingredient *food.Ingredient
	Amount     float64
	Unit       measure.Unit
	Role       food.Role // the ingredient's own, unless the cook says otherwise
	Locked     bool      // pinned: offsets go elsewhere
	Method     measure.FlourMethod
	Fill       measure.Fullness // of its spoon or cup; empty is level
	CanG       float64
	CanML      float64
	LeftOut    bool // by scaling: less than a quarter of an egg
}

// Addition is one thing put into the base.
type Addition struct {
	Line
	Stage       Stage
	Prep        prep.Treatment
	PlacedEach  float64 // pieces that the cook lays on each portion; 0 when the amount decides
	ShareOfBowl float64 // share of the bowl that gets the addition; 1 is all of it
}

// Base is a batter that the cook trusts.
type Base struct {
	Name   string
	Style  Style
	School School
	Lines  []Line
}

// Offset says what to hold and how.
type Offset struct {
	Strategy Strategy
	Hold     []Hold
	SugarBy  SugarBy
	AllowLow []food.Role // lines of these roles may give way entirely: liquid, flour, fat
	Targets  Targets
}

// Targets are what the cook pulled a property to: times the reference's, or for the tang so many
// meq per 100 g of batter above it. What is named is held.
type Targets map[Hold]float64

// Pulled lists what can be pulled, and MinPull and MaxPull how far; MaxTangPull is the same for
// the tang [meq per 100 g] (modelling choices: beyond, it is another batter).
var Pulled = []Hold{HoldThickness, HoldSweetness, HoldLift, HoldTang, HoldSalt, HoldFat}

// Bounds of a target.
const (
	MinPull     = 0.5
	MaxPull     = 2.0
	MaxTangPull = 4.0
)

// Of is where a reference's figure is to go.
func (t Targets) Of(h Hold, reference float64) float64 {
	v, ok := t[h]
	switch {
	case !ok:
		return reference
	case h == HoldTang:
		return reference + v
	}
	return reference * v
}

// Holds tells whether a property is held: it is asked for, or was pulled somewhere.
func (o Offset) Holds(h Hold) bool {
	_, pulled := o.Targets[h]
	return pulled || slices.Contains(o.Hold, h)
}

// Reference is the bowl that every target and every base figure is taken from: the plain base;
// or, for a recipe that was written with its additions in it, the whole bowl as written.
type Reference struct {
	AsWritten bool
	Additions []Addition // as the recipe had them
	Lines     []Line     // the base's, where they are others than those that are weighed: a scaled batch before its eggs were made whole
}

// Portion is the measure that every portion is poured with.
type Portion struct {
	VolumeML float64
	Count    int // the batch scales to so many portions; 0 when the count follows the batch
	Spread   Spread
	OneCake  bool // the whole bowl as one, as wide as its round pan; volume and count are then what the bowl gives
}

// Place is where something stands that a portion is cooked or eaten with and that is not in the
// batter.
type Place string

// The places.
const (
	OnTop   Place = "top"
	Middle  Place = "middle" // a filling
	OnSide  Place = "beside"
	InPan   Place = "pan"
	Serving Place = "serving"
)

// Places are all of them.
var Places = []Place{OnTop, Middle, OnSide, InPan, Serving}

// Variation is a base with additions, and what the cook wants of them.
type Variation struct {
	Name      string
	Form      Form
	Base      Base
	Additions []Addition
	Reference Reference
	Offset    Offset
	Portion   Portion
	Beside    []Beside
	Cooking   Cooking
}

// Kitchen is what the batter is measured and made with.
type Kitchen struct {
	Shelf       *food.Table // what preparations find their salt and flour on; nil is the table as shipped
	AltitudeM   float64     // m
	RestMin     float64     // min, when the kitchen rests its batter otherwise than the base says; NaN when it does not
	Measures    measure.Standard
	EggG        float64 // g of one egg without shell
	ScaleStep   float64 // g
	LeavenStep  float64 // g, for powder, soda, salt and spice
	Calibration flow.Calibration
	Ladles      []Ladle
	Griddles    []Griddle
	Irons       []Iron
}

// Ladle is a ladle, cup or scoop with its own measured volume.
type Ladle struct {
	ID, Name string
	VolumeML float64
}

// Griddle is a plate or pan; a round one has one diameter. The first is the one in use.
type Griddle struct {
	ID, Name         string
	Round            bool
	WidthMM, DepthMM float64 // or the diameter twice
	MinC, MaxC       float64 // °C that it can be set to; 0 when nobody said
	Dial             Dial
	Marks            []Mark  // what the dial gives, as far as it was mapped
	ShiftC           float64 // K that it is hotter than its map says: what the first one cooked showed
	Contact          float64 // times the usual contact, likewise; 0 is 1
	HeatUpMin        float64 // min until it is hot; 0 for the usual
}

// Iron is a waffle iron: its mould, and how many at once. The first is the one in use.
type Iron struct {
	ID, Name          string
	Round             bool
	WidthMM, LengthMM float64 // of one waffle; the diameter twice when it is round
	DepthMM           float64 // overall height of a waffle
	GapMM             float64 // between the plates where they are closest
	Moulds            int     // waffles at once
	TakesG            float64 // g of batter of one that came out well, weighed; 0 when nobody did
	Light             bool    // it has a light or a tone of its own
	ClosedS           float64 // s until that came; 0 when not known
	HeatUpMin         float64 // min until it is hot; 0 for the usual
}

// Defaults of a kitchen that says nothing.
const (
	DefaultEggG       = 50  // g, large egg without shell; GNU units, after Beranbaum
	DefaultScaleStep  = 1   // g, an ordinary kitchen scale (common practice, no source)
	DefaultLeavenStep = 0.1 // g, a spice scale (common practice, no source)
)

// DefaultKitchen weighs in grams and measures with metric cups.
func DefaultKitchen() Kitchen {
	return Kitchen{
		Measures: measure.Metric, EggG: DefaultEggG, ScaleStep: DefaultScaleStep,
		LeavenStep: DefaultLeavenStep, Calibration: flow.Prior, RestMin: math.NaN(),
	}
}

// Fahrenheit tells whether its plates are spoken of in °F.
func (k Kitchen) Fahrenheit() bool { return k.Measures.Name == measure.US.Name }

// Grams turns a line into grams with the kitchen's measures and eggs. Errors are those of
// measure.ToGrams.
func (k Kitchen) Grams(l Line) (float64, error) {
	s := l.Ingredient.Subject()
	s.Method, s.Fill, s.CanG, s.CanML = l.Method, l.Fill, l.CanG, l.CanML
	if l.Ingredient.Group == food.GroupEgg && k.EggG > 0 {
		s.EachG *= k.EggG / DefaultEggG // whites and yolks keep their share of the egg
	}
	return k.Measures.ToGrams(l.Amount, l.Unit, s)
}

// fineBody is the thickening power from which half a gram on an ordinary scale can be tasted: a gum
// thickens like many times its mass of flour (modelling choice).
const fineBody = 5 // g of plain flour a g

// Step is the smallest step in g to which a line is weighed out: what is dosed by the
// pinch, and a gum, goes on the fine scale.
func (k Kitchen) Step(l Line) float64 {
	switch l.Role {
	case food.RoleLeavener, food.RoleSoda, food.RoleAcid, food.RoleSalt:
		if l.Ingredient.Group != food.GroupAcid || l.Ingredient.Water < 50 {
			return k.LeavenStep
		}
	}
	switch l.Ingredient.Group {
	case food.GroupSpice, food.GroupExtract, food.GroupZest:
		return k.LeavenStep
	}
	if l.Ingredient.Body >= fineBody {
		return k.LeavenStep
	}
	return k.ScaleStep
}

// Iron is the one of an id, else the first there is; false in a kitchen without any.
func (k Kitchen) Iron(id string) (Iron, bool) {
	if i := slices.IndexFunc(k.Irons, func(i Iron) bool { return i.ID == id }); i >= 0 {
		return k.Irons[i], true
	}
	if len(k.Irons) == 0 {
		return Iron{}, false
	}
	return k.Irons[0], true
}

// DefaultPortionML is the portion in ml of a form when the cook names none (common
// practice, no source: ¼ cup for a pancake).
func DefaultPortionML(f Form) float64 {
	switch f {
	case DropScone:
		return 40
	case Waffle:
		return 120
	case Flourless:
		return 30
	}
	return 60
}
