// Package food knows what an ingredient is: its composition, its role in a batter, the
// reference table, and what a mixture of ingredients contains by mass balance.
package food

import (
	"math"
	"slices"
	"strings"

	"upbeatladle/core/measure"
)

// Composition is what 100 g of the edible part contain: g, but sodium in mg, energy in
// kcal, acid in meq (titratable to about pH 8.1; negative for a base) and CO2 in g.
// Carbohydrate includes fibre.
type Composition struct {
	Water, Protein, Fat, Carbohydrate, Ash, Alcohol float64
	Sugars                                          float64 // all of them, galactose included
	Sucrose, Glucose, Fructose, Lactose, Maltose    float64
	Starch, Fibre                                   float64
	Polyols                                         float64 // sweet, and no sugar: erythritol
	Sodium, Energy, Acid, CO2                       float64
}

// Group is the shelf on which an ingredient stands in the reference table.
type Group string

// The groups of the reference table.
const (
	GroupFlour         Group = "flour"
	GroupStarch        Group = "starch"
	GroupSugar         Group = "sugar"
	GroupSyrup         Group = "syrup"
	GroupFat           Group = "fat"
	GroupEgg           Group = "egg"
	GroupLiquid        Group = "liquid"
	GroupCulturedDairy Group = "cultured_dairy"
	GroupInfusion      Group = "infusion"
	GroupLeavener      Group = "leavener"
	GroupAcid          Group = "acid"
	GroupPuree         Group = "puree"
	GroupGrated        Group = "grated"
	GroupFreshPiece    Group = "fresh_piece"
	GroupFrozenPiece   Group = "frozen_piece"
	GroupDryPiece      Group = "dry_piece"
	GroupPowder        Group = "powder"
	GroupSpice         Group = "spice"
	GroupExtract       Group = "extract"
	GroupZest          Group = "zest"
	GroupHerb          Group = "herb"
	GroupSalt          Group = "salt"
	GroupTopping       Group = "topping"
)

// Allergens lists the names that allergens have here: the cereal, the nut, the food. The lists
// of the EU and the US are views of these.
var Allergens = []string{
	"wheat", "rye", "barley", "oats", "milk", "egg", "almond", "walnut", "hazelnut", "pecan", "pistachio", "cashew",
	"brazil nut", "macadamia", "peanut", "soya", "sesame", "sulphites", "celery", "mustard", "lupin", "fish", "crustaceans", "molluscs",
}

// treeNuts are the allergens among them that are nuts, the peanut with them.
var treeNuts = []string{"almond", "walnut", "hazelnut", "pecan", "pistachio", "cashew", "brazil nut", "macadamia", "peanut"}

// Nutty tells whether an ingredient has nuts in it.
func Nutty(in *Ingredient) bool {
	return slices.ContainsFunc(in.Allergens, func(a string) bool { return slices.Contains(treeNuts, a) })
}

// Nuts is what a may-contain says that names no single nut.
const Nuts = "nuts"

// CautionCode says what is to be minded with an ingredient, for rules that must not read its
// sentence.
type CautionCode string

// The codes.
const (
	CodeTasting    CautionCode = "tasting"     // its caution tells not to taste it raw
	CodeWash       CautionCode = "wash"        // its caution tells to wash it
	CodeMelt       CautionCode = "melt"        // a fat that is solid in the kitchen and melted before it goes in
	CodeKnife      CautionCode = "knife"       // it is cut by hand
	CodeKnifeRound CautionCode = "knife_round" // and rolls while it is cut
)

// CautionCodes lists every code.
var CautionCodes = []CautionCode{CodeTasting, CodeWash, CodeMelt, CodeKnife, CodeKnifeRound}

// Minds tells whether a caution code applies to the ingredient.
func (in *Ingredient) Minds(c CautionCode) bool { return slices.Contains(in.Codes, c) }

// Groups lists every group in the order in which the shelf shows them.
var Groups = []Group{
	GroupPuree, GroupGrated, GroupFreshPiece, GroupFrozenPiece, GroupDryPiece, GroupPowder, GroupSpice,
	GroupExtract, GroupZest, GroupHerb, GroupInfusion, GroupTopping, GroupSyrup, GroupSugar, GroupFlour,
	GroupStarch, GroupLiquid, GroupCulturedDairy, GroupEgg, GroupFat, GroupLeavener, GroupAcid, GroupSalt,
}

// Role is what an ingredient does in a batter, and so which target may move it.
type Role string

// The roles. A liquid may give way to an addition; dairy never does.
const (
	RoleFlour    Role = "flour"
	RoleSugar    Role = "sugar"
	RoleFat      Role = "fat"
	RoleEgg      Role = "egg"
	RoleLiquid   Role = "liquid"
	RoleDairy    Role = "dairy"
	RoleLeavener Role = "leavener"
	RoleSoda     Role = "soda"
	RoleAcid     Role = "acid"
	RoleSalt     Role = "salt"
	RoleFlavour  Role = "flavour"
	RolePuree    Role = "puree"
	RolePiece    Role = "piece"
	RoleTopping  Role = "topping"
)

// Roles lists every role.
var Roles = []Role{
	RoleFlour, RoleSugar, RoleFat, RoleEgg, RoleLiquid, RoleDairy, RoleLeavener, RoleSoda, RoleAcid,
	RoleSalt, RoleFlavour, RolePuree, RolePiece, RoleTopping,
}

// Piece describes one piece of an ingredient that stays whole in the batter, as it lies: flakes
// and slices lie flat. Zero means that it has no pieces or that the figure is not known.
type Piece struct {
	MassG                       float64 // g
	LengthMM, WidthMM, HeightMM float64 // mm; the length is the longest of them
	Density                     float64 // g/ml of the piece itself, never bulk
}

// Known tells whether a piece has a mass and a size.
func (p Piece) Known() bool { return p.MassG > 0 && p.LengthMM > 0 }

// Scaled is a piece of the same shape, so many times as long.
func (p Piece) Scaled(k float64) Piece {
	p.LengthMM, p.WidthMM, p.HeightMM = k*p.LengthMM, k*p.WidthMM, k*p.HeightMM
	return p
}

// Trait is something about an ingredient that a rule goes by.
type Trait string

// The traits.
const (
	HoldsGas Trait = "holds_gas" // thickens and holds bubbles as flour does, without being one: cocoa
	Bitter   Trait = "bitter"    // asks for sugar of its own
	Strong   Trait = "strong"    // takes over when it is dosed boldly
	Reddens  Trait = "reddens"   // turns red, not grey-green, with soda
	Yeasts   Trait = "yeast"     // makes its gas while it proves
	Steeps   Trait = "steeps"    // is steeped in warm liquid and strained out again
	Drink    Trait = "drink"     // is poured, not dropped: fruit is plumped in it
	Digests  Trait = "digests"   // raw, its enzymes make milk bitter and egg weep
)

// Traits lists every trait.
var Traits = []Trait{HoldsGas, Bitter, Strong, Reddens, Yeasts, Steeps, Drink, Digests}

// Is tells whether an ingredient has a trait.
func (in *Ingredient) Is(t Trait) bool { return slices.Contains(in.Traits, t) }

// Puree says what a raw fruit or vegetable becomes when it is puréed.
type Puree struct {
	Becomes string // id of the row; empty when it has none and is estimated
	Cooked  string // how it is usually cooked before; empty for the usual way of its group
}

// Dose is the usual range of an ingredient in g per 100 g of flour; zero when unknown.
type Dose struct{ Low, High float64 }

// Colour is the tint that an ingredient lends.
type Colour struct {
	Hex         string // of the thing itself
	Tint        string // that it lends, when its juice has another colour; else empty
	Strength    float64
	PHSensitive bool
}

// Ingredient is one row of the reference table, or a cook's own.
type Ingredient struct {
	ID, Name string
	Group    Group
	Role     Role
	Composition

	Density, DensitySifted, DensityScooped float64 // g/ml as measured by cup or spoon
	UnitName                               string
	UnitG                                  float64 // edible grams of one unit
	Piece                                  Piece
	Refuse                                 float64 // % thrown away when bought whole
	ReleaseFraction                        float64 // share of water and solutes that the batter gets
	Uptake                                 float64 // g of water drunk per g, for dry pieces
	Body                                   float64 // thickening power per g, plain flour = 1
	HydrationMin                           float64 // min, time constant of drinking
	Colour                                 Colour
	Allergens, MayContain                  []string
	Caution                                string        // a sentence for whoever works with it
	Codes                                  []CautionCode // what that sentence, or the work itself, is about
	Traits                                 []Trait
	Puree                                  Puree
	Dose                                   Dose

	// Where the figures come from.
	CompositionSource, AcidSource, DensitySource, Notes string

	Price float64 // for 1 kg, in the kitchen's currency; 0 when not known
	Stock float64 // g that are there; 0 when nobody said
	Own   *Own    // nil for a row of the reference table

	Doubt string // what a recipe calls it, where it is only taken for this: its allergens are not known
}

// Own says that figures of an ingredient are the cook's: a tub, an own ingredient, or
// measured values of a row of the table.
type Own struct {
	Name      string      // of the tub or the measurement
	MadeOn    string      // day, YYYY-MM-DD; empty when not said
	AgeDays   int         // since then
	KeepDays  int         // it keeps so long; 0 when it does not spoil or nobody said
	Table     *Ingredient // the row that it stands for; nil when it is an ingredient of its own
	Measured  []string    // properties that were measured
	Estimated []string    // properties that were estimated, not stated
}

// Stale tells whether a tub is older than it keeps.
func (o *Own) Stale() bool { return o != nil && o.KeepDays > 0 && o.AgeDays > o.KeepDays }

// IsFlour tells whether the ingredient is flour or starch, which body alone describes.
func (in *Ingredient) IsFlour() bool { return in.Group == GroupFlour || in.Group == GroupStarch }

// IsWholeEgg tells a whole egg from its yolk and its white: only it has both their fat and their
// water (modelling choice: between 5 and 20 % fat; a white has none, a yolk 25 % and more).
func (in *Ingredient) IsWholeEgg() bool {
	return in.Group == GroupEgg && in.Fat > 5 && in.Fat < 20 && in.Water > 50
}

// IsEggWhite is what can be whipped by itself.
func (in *Ingredient) IsEggWhite() bool {
	return in.Group == GroupEgg && in.Fat < 1 && in.Water > 50
}

// whiteShare is the white in a whole egg (GNU units, after Beranbaum: 30 g of 50 g).
const whiteShare = 0.6

// White is the share of an ingredient that is egg white, to be whipped.
func (in *Ingredient) White() float64 {
	switch {
	case in.IsWholeEgg():
		return whiteShare
	case in.IsEggWhite():
		return 1
	}
	return 0
}

// IsWater tells water from all else.
func (in *Ingredient) IsWater() bool { return in.Group == GroupLiquid && in.Water > 99.5 }

// HasCells tells whether the ingredient stays in pieces, so that the batter gets only a
// part of it (job rule: two accounts, docs/maths.md section 2).
func (in *Ingredient) HasCells() bool {
	switch in.Group {
	case GroupGrated, GroupFreshPiece, GroupFrozenPiece, GroupDryPiece, GroupZest:
		return true
	}
	return false
}

// Release is the share r of the ingredient that takes part in the batter account: the
// table's release fraction for what keeps its cells, 1 for everything else.
func (in *Ingredient) Release() float64 {
	if in.HasCells() {
		return in.ReleaseFraction
	}
	return 1
}

// Drinks is the water in g that one gram of the ingredient draws out of the batter in the
// end; only dry pieces do.
func (in *Ingredient) Drinks() float64 {
	if in.Group == GroupDryPiece {
		return in.Uptake
	}
	return 0
}

// BatterMass is what one gram of the ingredient adds to the mass of the batter account: its
// released share less the water that it drinks.
func (in *Ingredient) BatterMass() float64 { return in.Release() - in.Drinks() }

// PieceSize is a piece as it lies, in mm. What is not known is estimated: as wide as it is
// long, and as high as its mass leaves it, as an ellipsoid on a round of its size (modelling
// choice). Nothing without pieces.
func (in *Ingredient) PieceSize() (length, width, height float64) {
	p := in.Piece
	if !p.Known() {
		return 0, 0, 0
	}
	if p.WidthMM <= 0 {
		p.WidthMM = p.LengthMM
	}
	if p.HeightMM <= 0 {
		volume := 1000 * p.MassG / in.PieceDensity() // mm³
		p.HeightMM = math.Min(p.LengthMM, 6*volume/(math.Pi*p.LengthMM*p.WidthMM))
	}
	return p.LengthMM, p.WidthMM, p.HeightMM
}

// IsSlice tells a slice from a chunk: wide enough to carry batter, and flat.
func (in *Ingredient) IsSlice() bool {
	_, width, height := in.PieceSize()
	return (in.Group == GroupFreshPiece || in.Group == GroupFrozenPiece) && width >= sliceWidth && height <= sliceFlat*width
}

// What is called a slice (modelling choices): mm across, and height for its width.
const (
	sliceWidth = 25
	sliceFlat  = 0.34
)

// Subject is what core/measure needs to know to weigh the ingredient.
func (in *Ingredient) Subject() measure.Subject {
	return measure.Subject{
		Density: in.Density, DensitySifted: in.DensitySifted, DensityScooped: in.DensityScooped,
		EachG: in.UnitG, IsFlour: in.IsFlour(), IsPowder: in.IsPowder(),
	}
}

// IsPowder tells whether it heaps on a spoon: a liquid, a fat or a piece does not (modelling choice, by group).
func (in *Ingredient) IsPowder() bool {
	switch in.Group {
	case GroupFlour, GroupStarch, GroupSugar, GroupLeavener, GroupPowder, GroupSpice, GroupSalt:
		return true
	}
	return false
}

// Label is the name without its particulars, for a narrow column: "Beetroot" for
// "Beetroot, boiled and puréed".
func (in *Ingredient) Label() string {
	s, _, _ := strings.Cut(in.Name, ",")
	if !strings.Contains(s, "(") && !strings.Contains(s, "  ") { // as nearly all are
		return strings.TrimSpace(s)
	}
	for {
		open := strings.Index(s, "(")
		if open < 0 {
			break
		}
		end := strings.Index(s[open:], ")")
		if end < 0 {
			break
		}
		s = s[:open] + s[open+end+1:]
	}
	return strings.Join(strings.Fields(s), " ")
}
