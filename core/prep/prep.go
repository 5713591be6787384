// Package prep says what a preparation does to an ingredient: what leaves, what is added,
// what is left in the tub. Every preparation is a mass balance, and nothing is made or lost
// except where it says so. Formulas: docs/maths.md section 15.
package prep

import (
	"fmt"
	"slices"

	"upbeatladle/core/food"
)

// Method is one preparation.
type Method string

// The preparations, in the order of work.
const (
	Trim    Method = "trim"    // peel, core, stone
	Puree   Method = "puree"   // boil, steam, roast or leave raw, then purée
	Mash    Method = "mash"    // by ripeness
	Reduce  Method = "reduce"  // boil water off
	Squeeze Method = "squeeze" // grate, salt if wished, squeeze
	Thaw    Method = "thaw"    // thaw and drain
	Toss    Method = "toss"    // in flour
	Plump   Method = "plump"   // let dry fruit drink
	Toast   Method = "toast"   // in a dry pan or the oven
	Steep   Method = "steep"   // in warm milk, strain, press
	Zest    Method = "zest"
	Sift    Method = "sift"
)

// Methods lists the preparations in the order in which the screen offers them.
var Methods = []Method{Trim, Puree, Mash, Reduce, Squeeze, Thaw, Toss, Plump, Toast, Steep, Zest, Sift}

// Cook is how something is cooked before it is puréed.
type Cook string

// The ways to cook.
const (
	Boil      Cook = "boil"       // peeled, in pieces, drained
	BoilWhole Cook = "boil_whole" // in the skin
	Steam     Cook = "steam"
	Stew      Cook = "stew" // in its own juice, lid on
	Roast     Cook = "roast"
	Raw       Cook = "raw"
)

// Cooks lists them.
var Cooks = []Cook{Boil, BoilWhole, Steam, Stew, Roast, Raw}

// Ripeness of a fruit that is mashed.
type Ripeness string

// The degrees, as a banana's skin shows them.
const (
	Firm     Ripeness = "firm"      // green tips
	Ripe     Ripeness = "ripe"      // yellow
	VeryRipe Ripeness = "very_ripe" // brown spots or brown
)

// Ripenesses lists them.
var Ripenesses = []Ripeness{Firm, Ripe, VeryRipe}

// Job is one preparation that a cook wants worked out. Masses in g; what is zero was not
// said, and the usual figure of the trade stands in.
type Job struct {
	Method Method
	From   *food.Ingredient
	Shelf  *food.Table // where salt, flour and the row of a purée are found; nil is the table as shipped

	HaveG float64 // what the cook has, on the way forward
	WantG float64 // what the cook needs, on the way back; one of the two is given
	Count float64 // fruits to zest, instead of HaveG

	AsBought  bool     // the weight includes peel, stones and core
	RefusePct *float64 // the cook's own figure for these; nil takes the table's

	Cook     Cook
	Ripeness Ripeness
	Minutes  float64 // in the liquid

	Salt       bool             // the squeezed vegetable is salted
	SaltG      float64          // how much, when it was weighed
	With       *food.Ingredient // the flour to toss in, the liquid to plump in
	WithG      float64
	LeavesG    float64 // tea or spice that is steeped
	Pressed    bool    // and pressed out
	TopUp      bool    // and the milk made up to its weight
	TargetG    float64 // reduce to this weight,
	TargetML   float64 // or to this volume,
	TargetBrix float64 // or to this reading

	AfterG float64 // weighed afterwards
	Brix   float64 // read afterwards, at 20 °C
}

func (j Job) shelf() *food.Table {
	if j.Shelf != nil {
		return j.Shelf
	}
	return food.Reference()
}

// Kind says what became of a mass.
type Kind string

// The kinds.
const (
	Peel  Kind = "peel"
	Vapor Kind = "steam"
	Juice Kind = "juice" // poured off, kept
	Held  Kind = "held"  // stays in the leaves, the sieve or the pot
	Water Kind = "water" // cooking water, with what it leached
	Added Kind = "added"
)

// Flow is a mass that leaves or joins. Ingredient is what it is made of; juice may be used as
// a liquid.
type Flow struct {
	Kind       Kind
	Name       string
	Grams      float64
	Ingredient *food.Ingredient
}

// Total is what the flow holds.
func (f Flow) Total() food.Total {
	return food.Whole([]food.Part{{Ingredient: f.Ingredient, Grams: f.Grams}})
}

// Result is a preparation worked out: before and added are what left and the product.
type Result struct {
	BeforeG  float64 // what is weighed first
	Added    []Flow
	Left     []Flow
	Product  *food.Ingredient
	ProductG float64
	StandIn  string   // id of the row of the table that the product can stand for
	Measured []string // what of the product was measured rather than taken as usual
	Brix     float64  // what the product should read, g soluble solids in 100 g
	KeepDays int      // in the fridge, covered; 0 when it does not spoil
	Steps    []string // what the cook does
}

// Yield is the share of what was weighed first, and of what was added, that is left.
func (r Result) Yield() float64 { return r.ProductG / r.BeforeG }

// Problem is a figure that cannot be true; Field is its name in the document.
type Problem struct{ Field, Code, Message string }

// Error is the sentence.
func (p *Problem) Error() string { return p.Message }

func problem(field, code, format string, args ...any) error {
	return &Problem{field, code, fmt.Sprintf(format, args...)}
}

// Limits of a job.
const (
	MaxG    = 100_000 // g, as a line of a recipe
	MaxBrix = 85      // a refractometer's scale ends here, and fruit crystallises beyond it (common practice, no source)
)

// Work answers a job. The error is a *Problem.
func Work(j Job) (Result, error) {
	if err := j.check(); err != nil {
		return Result{}, err
	}
	if j.WantG > 0 {
		have, err := j.back()
		if err != nil {
			return Result{}, err
		}
		j.HaveG, j.WantG, j.Count = have, 0, 0
	}
	return j.forward()
}

// back finds what the cook needs to have in order to end with what they want. The mass of a
// product rises with what goes in, so halving finds it.
func (j Job) back() (float64, error) {
	if j.AfterG > 0 {
		return 0, problem("after_g", "not_both", "A weight afterwards belongs to what you have. Say what you have, or what you want, not both.")
	}
	low, high := 0.0, float64(MaxG)
	for range 60 { // 100 kg halved sixty times is far below a gram
		mid := (low + high) / 2
		t := j
		t.HaveG, t.WantG, t.Count = mid, 0, 0
		r, err := t.forward()
		if err == nil && r.ProductG >= j.WantG {
			high = mid
		} else {
			low = mid
		}
	}
	if high >= MaxG*0.999 {
		return 0, problem("want_g", "too_much", "That takes more than %d kg. Ask for less.", MaxG/1000)
	}
	return high, nil
}

func (j Job) forward() (Result, error) {
	var r Result
	var err error
	switch j.Method {
	case Trim:
		r, err = j.trim()
	case Puree:
		r, err = j.puree()
	case Mash:
		r, err = j.mash()
	case Reduce:
		r, err = j.reduce()
	case Squeeze:
		r, err = j.squeeze()
	case Thaw:
		r, err = j.thaw()
	case Toss:
		r, err = j.toss()
	case Plump:
		r, err = j.plump()
	case Toast:
		r, err = j.toast()
	case Steep:
		r, err = j.steep()
	case Zest:
		r, err = j.zest()
	case Sift:
		r, err = j.sift()
	}
	if err != nil {
		return Result{}, err
	}
	if j.Brix > 0 {
		p, err := WithBrix(r.Product, j.Brix)
		if err != nil {
			return Result{}, err
		}
		r.Product = p
		r.Measured = append(r.Measured, "brix")
	}
	r.Brix = SolubleSolids(r.Product)
	r.KeepDays = keepDays(r.Product)
	if j.Method == Plump { // no longer dry
		r.KeepDays = wetKeeps
	}
	return r, nil
}

func (j Job) check() error {
	if !slices.Contains(Methods, j.Method) {
		return problem("method", "unknown_choice", "“%s” is not a preparation that is known here.", j.Method)
	}
	if j.From == nil {
		return problem("from", "missing", "Say what you are preparing.")
	}
	if err := j.figures(); err != nil {
		return err
	}
	if err := j.amounts(); err != nil {
		return err
	}
	if !Suits(j.Method, j.From) {
		return problem("from", "does_not_suit", "%s is not something to %s. Choose another ingredient or another preparation.", j.From.Name, j.Method.Verb())
	}
	return nil
}

// figures tells of the first figure that lies outside of what can be worked with.
func (j Job) figures() error {
	for _, v := range []struct {
		field, what string
		g           float64
	}{
		{"have_g", "What you have", j.HaveG}, {"want_g", "What you want", j.WantG}, {"after_g", "The weight afterwards", j.AfterG},
		{"salt_g", "The salt", j.SaltG}, {"with_g", "What is added", j.WithG}, {"leaves_g", "The leaves", j.LeavesG},
		{"target_g", "The target", j.TargetG}, {"target_ml", "The target", j.TargetML},
	} {
		if !(v.g >= 0 && v.g <= MaxG) {
			return problem(v.field, "out_of_range", "%s must lie between 0 and %d kg.", v.what, MaxG/1000)
		}
	}
	for field, v := range map[string]float64{"brix": j.Brix, "target_brix": j.TargetBrix} {
		if !(v >= 0 && v <= MaxBrix) {
			return problem(field, "out_of_range", "A reading of %.4g °Brix is outside the scale, which ends at %d. Wipe the glass and read again.", v, MaxBrix)
		}
	}
	if !(j.Count >= 0 && j.Count <= 2000) {
		return problem("count", "out_of_range", "Count between 1 and 2000 fruits.")
	}
	if !(j.Minutes >= 0 && j.Minutes <= 48*60) {
		return problem("minutes", "out_of_range", "The time must lie between 0 minutes and two days.")
	}
	if p := j.RefusePct; p != nil && !(*p >= 0 && *p < 95) {
		return problem("refuse_pct", "out_of_range", "Peel and stones must lie between 0 and 95 %%.")
	}
	return nil
}

// amounts tells what is wrong with how much there is, or is to be, beside one another.
func (j Job) amounts() error {
	if j.Count > 0 && j.Method != Zest {
		return problem("count", "does_not_suit", "Only fruit to zest is counted here. Weigh what you have, and give grams.")
	}
	if j.HaveG <= 0 && j.WantG <= 0 && j.Count <= 0 {
		return problem("have_g", "missing", "Say how much you have, or how much you want.")
	}
	for field, g := range map[string]float64{"have_g": j.HaveG, "want_g": j.WantG} {
		if g > 0 && g < leastG {
			return problem(field, "too_little", "That is less than any scale shows. Give more of it.")
		}
	}
	if j.HaveG > 0 && j.WantG > 0 {
		return problem("want_g", "not_both", "Say what you have, or what you want, not both.")
	}
	if j.AfterG > 0 && j.HaveG > 0 {
		if most := j.HaveG + j.mayAdd(); j.AfterG > most+massSlack {
			return problem("after_g", "more_than_before", "%.4g g afterwards is more than the %.4g g that went in, and no liquid was added. Weigh both again, without the bowl.", j.AfterG, most)
		}
	}
	return nil
}

// massSlack is the rounding of two weighings [g].
const massSlack = 0.5

// mayAdd is what a job may add to the weight.
func (j Job) mayAdd() float64 {
	switch j.Method {
	case Squeeze:
		return j.saltG(j.HaveG)
	case Toss:
		return j.coatG(j.HaveG)
	case Plump:
		return j.bathG(j.HaveG)
	case Steep:
		if j.TopUp {
			return j.HaveG
		}
		return j.LeavesG
	}
	return 0
}

// Verb is what the cook does, after "to".
func (m Method) Verb() string {
	switch m {
	case Trim:
		return "peel or core"
	case Puree:
		return "purée"
	case Mash:
		return "mash by its ripeness"
	case Reduce:
		return "boil down"
	case Squeeze:
		return "squeeze"
	case Thaw:
		return "thaw and drain"
	case Toss:
		return "toss in flour"
	case Plump:
		return "plump"
	case Toast:
		return "toast"
	case Steep:
		return "steep tea or spice in"
	case Zest:
		return "take the zest of"
	}
	return string(m)
}

// Done is what a thing is called after the preparation: "courgette, squeezed".
func (m Method) Done() string {
	switch m {
	case Trim:
		return "peeled"
	case Puree:
		return "purée"
	case Mash:
		return "mashed"
	case Reduce:
		return "boiled down"
	case Squeeze:
		return "squeezed"
	case Thaw:
		return "thawed"
	case Toss:
		return "in flour"
	case Plump:
		return "plumped"
	case Toast:
		return "toasted"
	case Steep:
		return "infused"
	case Sift:
		return "sifted"
	}
	return ""
}

// Suits tells whether a preparation makes sense for an ingredient.
func Suits(m Method, in *food.Ingredient) bool {
	takes, known := suits[m]
	return known && takes(in)
}

// suits tells what each preparation takes.
var suits = map[Method]func(*food.Ingredient) bool{
	Trim: func(in *food.Ingredient) bool {
		return in.Refuse > 0 && (in.HasCells() || in.Piece.MassG > 0 || in.UnitG > 0 && in.Group == food.GroupPuree)
	},
	Puree: rawOf,
	Mash: func(in *food.Ingredient) bool {
		return in.Group == food.GroupPuree && in.UnitG > 0 && in.Starch > ripens
	},
	Reduce: func(in *food.Ingredient) bool {
		return in.Water > reducible && in.Water < pureWater && among(in, food.GroupPuree, food.GroupLiquid, food.GroupInfusion)
	},
	Squeeze: func(in *food.Ingredient) bool {
		return (in.Group == food.GroupGrated || in.Group == food.GroupFreshPiece && in.Water > leafy) && in.Water > squeezable
	},
	Thaw: func(in *food.Ingredient) bool { return in.Group == food.GroupFrozenPiece },
	Toss: func(in *food.Ingredient) bool {
		return among(in, food.GroupFrozenPiece, food.GroupFreshPiece) || in.Group == food.GroupDryPiece && in.Piece.MassG > 0
	},
	Plump: func(in *food.Ingredient) bool { return in.Group == food.GroupDryPiece && in.Uptake > 0 },
	Toast: func(in *food.Ingredient) bool {
		return in.Group == food.GroupDryPiece && (in.Fat > nutFat && in.Fibre > nutFibre || in.Role == food.RoleFlour) && in.Water > toastedWater
	},
	Steep: func(in *food.Ingredient) bool { return in.Group == food.GroupLiquid && in.Water > steeps },
	Zest:  func(in *food.Ingredient) bool { return in.Group == food.GroupZest },
	Sift: func(in *food.Ingredient) bool {
		return among(in, food.GroupFlour, food.GroupStarch, food.GroupPowder) || in.Group == food.GroupSugar && in.Density > 0 && in.Density < powdered
	},
}

func among(in *food.Ingredient, groups ...food.Group) bool { return slices.Contains(groups, in.Group) }

// Marks by which a preparation knows its own (modelling choices), g in 100 g: a mashed fruit
// whose starch still turns to sugar, what has water to boil off, to wring out or to steep in,
// leaves that can be wrung out, nothing but water, and nuts and seeds by their fat and fibre.
const (
	ripens     = 2
	reducible  = 40
	squeezable = 60
	steeps     = 50
	leafy      = 90
	pureWater  = 99.5
	nutFat     = 15
	nutFibre   = 1
	powdered   = 0.6 // g/ml: sugar that is lighter is a powder
)

// keepDays is how long a tub keeps covered in the fridge at 5 °C or less (common practice,
// no source; the local code decides): cut and cooked fruit and vegetables three days, what
// holds much sugar a week, milk that was warmed two days, dry things as long as their pack.
func keepDays(in *food.Ingredient) int {
	switch {
	case in.Water < 30:
		return 0
	case len(in.Allergens) > 0 && in.Group == food.GroupLiquid:
		return 2
	case in.Sugars > 40:
		return 7
	}
	return wetKeeps
}

// wetKeeps is how many days a moist tub keeps (common practice, no source).
const wetKeeps = 3
