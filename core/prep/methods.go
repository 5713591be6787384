package prep

import (
	"fmt"
	"math"
	"strings"

	"upbeatladle/core/food"
)

// Yields and losses of the trade (common practice, no source, unless it says otherwise). A
// weight afterwards outranks every one of them.
const (
	saltShare    = 0.015 // salt on a grated vegetable, of its mass
	saltedTakes  = 0.70  // of the water that can leave: salted, 20 min, wrung in a cloth
	plainTakes   = 0.45  // the same without salt
	dripShare    = 0.20  // of frozen fruit, thawed in a sieve in the fridge
	coatShare    = 0.03  // flour that sticks to fruit
	bathShare    = 1.0   // liquid to plump in, of the fruit's mass
	plumpMin     = 60.0  // min, time constant of drinking, as in the batter
	toastedWater = 1.5   // g in 100 g of a toasted nut (modelling choice)
	steamPerMin  = 0.004 // of milk kept warm with the lid off (modelling choice)
	leafShare    = 0.02  // tea or spice in milk, of the milk's mass
	heldDripped  = 4.0   // g of milk held by 1 g of dry leaves, dripped off
	heldPressed  = 2.0   // and pressed
	sieveShare   = 0.005 // lumps that stay in the sieve
	usualBoilOff = 0.25  // of the water, when no target is named
	usualSteep   = 10.0  // min
	usualPlump   = 30.0  // min
)

// cooked is what a way to cook leaves of the mass, and which share of what is dissolved goes
// into the water (retention of cooked vegetables, from memory of published yield tables).
var cooked = map[Cook]struct {
	yield, leach float64
	said         string
}{
	Boil:      {0.96, 0.20, "Boil the pieces until soft, drain well and let them steam dry for a minute."},
	BoilWhole: {0.98, 0.03, "Boil whole in the skin until soft, then peel."},
	Steam:     {0.95, 0.05, "Steam until soft."},
	Stew:      {0.93, 0, "Stew in its own juice over low heat with the lid on."},
	Roast:     {0.74, 0, "Roast in one layer until soft and browned at the edges."},
	Raw:       {1, 0, "Purée it as it is."},
}

// after is the mass that a job ends with: weighed if it was, else the usual one. Steam makes
// up the difference, so it can neither be negative nor take more than the water.
func (j Job) after(r *Result, in *food.Ingredient, from, usual float64) (float64, error) {
	if j.AfterG <= 0 {
		return usual, nil
	}
	r.Measured = append(r.Measured, "weight")
	if dry := from * (100 - in.Water) / 100; j.AfterG < dry {
		return 0, problem("after_g", "below_dry", "%.4g g is less than what is dry in it, about %.0f g. Weigh again, or weigh what was lost too.", j.AfterG, dry)
	}
	return j.AfterG, nil
}

// left notes a mass that leaves, if it is worth weighing.
func (r *Result) left(k Kind, name string, grams float64, in *food.Ingredient) {
	if grams > 1e-9 {
		r.Left = append(r.Left, Flow{k, name, grams, in})
	}
}

func (r *Result) added(name string, grams float64, in *food.Ingredient) {
	if grams > 0 {
		r.Added = append(r.Added, Flow{Added, name, grams, in})
	}
}

func (r *Result) say(format string, args ...any) {
	r.Steps = append(r.Steps, fmt.Sprintf(format, args...))
}

var water = &food.Ingredient{
	ID: "water", Name: "Water", Group: food.GroupLiquid, Role: food.RoleLiquid, Composition: food.Composition{Water: 100},
	ReleaseFraction: 1, Density: 0.998,
}

// peel takes refuse off what was bought: the same food, less of it.
func (j Job) peel(r *Result) float64 {
	refuse := j.From.Refuse
	if j.RefusePct != nil {
		refuse = *j.RefusePct
	}
	lost := j.HaveG * refuse / 100
	r.left(Peel, "peel and stones", lost, j.From)
	return j.HaveG - lost
}

func (j Job) trim() (Result, error) {
	r := Result{BeforeG: j.HaveG, StandIn: j.From.ID}
	left := j.peel(&r)
	if j.AfterG > 0 {
		r.Left = nil
		left = j.AfterG
		r.left(Peel, "peel and stones", j.HaveG-left, j.From)
		r.Measured = append(r.Measured, "weight")
	}
	p := *j.From
	p.Refuse = 0
	r.Product, r.ProductG = &p, left
	r.say("Wash it, peel or core it, and weigh what is left.")
	return r, nil
}

// rawOf tells whether an ingredient can be cooked and puréed: fruit and vegetables that still
// have their cells and their water, a cook's own as well.
func rawOf(in *food.Ingredient) bool {
	return (in.Group == food.GroupGrated || in.Group == food.GroupFreshPiece || in.Group == food.GroupFrozenPiece) && in.Water > pureesAbove
}

const pureesAbove = 60 // g of water in 100 g (modelling choice)

func (j Job) puree() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	how := j.Cook
	if how == "" {
		how = UsualCook(j.From)
	}
	c, ok := cooked[how]
	if !ok {
		return Result{}, problem("cook", "unknown_choice", "“%s” is not a way to cook before puréeing.", how)
	}
	clean := j.HaveG
	if j.AsBought {
		clean = j.peel(&r)
	}
	in := j.From
	// What is dissolved leaches out with as much of it as the way to cook allows.
	d := dissolved(&in.Composition)
	d.Water, d.Alcohol, d.Fibre, d.Carbohydrate = 0, 0, 0, d.Carbohydrate-d.Fibre
	d.Energy = d.EnergyFromParts(food.GroupLiquid)
	leached := c.leach * clean / 100 * solids(&d)
	t := food.Whole([]food.Part{{Ingredient: in, Grams: clean}})
	gone := &food.Ingredient{Name: "what the water leached", Group: food.GroupLiquid, Composition: food.Total{Mass: solids(&d), Composition: d}.Per100()}
	if leached > 0 {
		t.Add(food.Whole([]food.Part{{Ingredient: gone, Grams: leached}}), -1)
	}
	soft := *in
	soft.Composition = t.Per100()
	end, err := j.after(&r, &soft, t.Mass, clean*c.yield)
	if err != nil {
		return Result{}, err
	}
	switch lost := t.Mass - end; {
	case lost >= 0 && how == Boil:
		r.left(Water, "into the water, and as steam", lost+leached, blend(food.Part{Ingredient: water, Grams: max(lost, 1e-9)}, food.Part{Ingredient: gone, Grams: leached}))
	case lost >= 0:
		r.left(Vapor, "steam", lost, water)
		r.left(Water, "into the water", leached, gone)
	default: // drank some of its cooking water
		r.left(Water, "into the water", leached, gone)
		r.added("cooking water taken up", -lost, water)
	}
	p := evaporated(&soft, t.Mass, end)
	p.Composition.Energy = p.EnergyFromParts(p.Group)
	r.ProductG = end
	r.Product, r.StandIn = asPuree(j.shelf(), p, how != Raw, clean/end*cooked[UsualCook(in)].yield)
	if how != Raw && in.Group != food.GroupFreshPiece {
		r.say("Wash it, and scrub off the earth.")
	} else {
		r.say("Wash it.")
	}
	r.say("%s", c.said)
	r.say("Purée until smooth. Weigh it once it is cooler than 30 °C: hot purée is thinner and still loses steam.")
	return r, nil
}

// UsualCook is how an ingredient is usually cooked before it is puréed: as its row says, else
// what is grated is boiled and fruit is left raw.
func UsualCook(in *food.Ingredient) Cook {
	switch {
	case in.Puree.Cooked != "":
		return Cook(in.Puree.Cooked)
	case in.Group == food.GroupGrated:
		return Boil
	}
	return Raw
}

// asPuree gives a puréed ingredient the shelf, tint and thickening power of the row of the
// table that it becomes. It is so many times as concentrated as usual, and keeps its m·body.
func asPuree(shelf *food.Table, in *food.Ingredient, hot bool, concentrated float64) (product *food.Ingredient, standIn string) {
	out := *in
	out.Body = in.PureeBody(hot)
	if row := shelf.ByID(in.Puree.Becomes); row != nil {
		out.Body = row.Body * concentrated
		out.Colour, out.Dose, out.Caution, out.Codes, out.Density = row.Colour, row.Dose, row.Caution, row.Codes, row.Density
		out.Name = row.Name
		standIn = row.ID
	} else {
		out.Density = food.Total{Composition: out.Composition}.Density()
		out.Name = in.Label() + " purée"
	}
	out.Group, out.Role = food.GroupPuree, food.RolePuree
	out.ReleaseFraction, out.Uptake, out.Refuse = 1, 0, 0
	out.Piece, out.UnitG, out.UnitName = food.Piece{}, 0, ""
	return &out, standIn
}

// Sugars and starch of a banana change into each other as it ripens; their sum stays. Share
// of starch in it, by the skin (published ripening curves, from memory); the table's row is
// yellow.
var starchShare = map[Ripeness]float64{Firm: 0.65, VeryRipe: 0.08}

func (j Job) mash() (Result, error) {
	r := Result{BeforeG: j.HaveG, StandIn: j.From.ID}
	clean := j.HaveG
	if j.AsBought {
		clean = j.peel(&r)
	}
	p := *j.From
	if share, ok := starchShare[j.Ripeness]; ok {
		both := p.Sugars + p.Starch
		k := both * (1 - share) / p.Sugars
		p.Starch = both * share
		p.Sugars *= k
		p.Sucrose *= k
		p.Glucose *= k
		p.Fructose *= k
		r.Measured = append(r.Measured, "ripeness")
	} else if j.Ripeness != "" && j.Ripeness != Ripe {
		return Result{}, problem("ripeness", "unknown_choice", "“%s” is not a ripeness. Use firm, ripe or very_ripe.", j.Ripeness)
	}
	p.Refuse = 0
	r.Product, r.ProductG = &p, clean
	if j.AfterG > 0 {
		r.left(Held, "sticks to fork and bowl", clean-j.AfterG, &p)
		r.ProductG = j.AfterG
		r.Measured = append(r.Measured, "weight")
	}
	r.say("Peel and mash with a fork: smooth for thin batters, with small lumps for thick ones.")
	return r, nil
}

func (j Job) reduce() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	in := j.From
	if in.Group == food.GroupPuree { // boiled-down milk is no milk any more
		r.StandIn = in.ID
	}
	d := dissolved(&in.Composition)
	usual := j.HaveG * (1 - usualBoilOff*in.Water/100)
	switch {
	case j.TargetG > 0:
		if j.TargetG >= j.HaveG {
			return Result{}, problem("target_g", "not_less", "%.4g g is not less than what you have. Boiling only takes away.", j.TargetG)
		}
		usual = j.TargetG
	case j.TargetBrix > 0:
		have := SolubleSolids(in)
		if j.TargetBrix <= have {
			return Result{}, problem("target_brix", "not_more", "It stands at about %.0f °Brix already. Boiling only raises that; to go down, stir in water.", have)
		}
		gone := d.Water + d.Alcohol - solids(&d)*(100/j.TargetBrix-1) // per 100 g
		usual = j.HaveG * (1 - gone/100)
	case j.TargetML > 0:
		have := j.HaveG / food.Total{Composition: in.Composition}.Density()
		if j.TargetML >= have {
			return Result{}, problem("target_ml", "not_less", "You have about %.0f ml. Boiling only takes away.", have)
		}
		usual = j.HaveG - (have-j.TargetML)*waterDensity
	}
	if usual < j.HaveG*(100-in.Water*0.98)/100 {
		return Result{}, problem("target_g", "too_dry", "That is less than what is dry in it. It would burn before that.")
	}
	end, err := j.after(&r, in, j.HaveG, usual)
	if err != nil {
		return Result{}, err
	}
	if j.AfterG <= 0 && (j.TargetG > 0 || j.TargetBrix > 0 || j.TargetML > 0) {
		r.say("Simmer in a wide pan, stirring, until %.0f g are left.", end)
	} else {
		r.say("Simmer in a wide pan, stirring, and weigh the pan from time to time.")
	}
	r.say("It spits and burns deeper than water: long spoon, never taste it hot.")
	r.left(Vapor, "steam", j.HaveG-end, water)
	r.Product, r.ProductG = evaporated(in, j.HaveG, end), end
	r.Product.Composition.Energy = r.Product.EnergyFromParts(in.Group)
	if in.Group == food.GroupPuree || in.Group == food.GroupLiquid {
		p := *r.Product
		p.Density = food.Total{Composition: p.Composition}.Density()
		r.Product = &p
	}
	return r, nil
}

// waterDensity is that of what boils away, as liquid at 20 °C [g/ml] (handbook value).
const waterDensity = 0.998

func (j Job) saltG(mass float64) float64 {
	switch {
	case j.SaltG > 0:
		return j.SaltG
	case j.Salt:
		return saltShare * mass
	}
	return 0
}

func (j Job) squeeze() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	clean := j.HaveG
	if j.AsBought {
		clean = j.peel(&r)
	}
	salt := j.saltG(clean)
	in, mass := j.From, clean
	if salt > 0 {
		s := j.shelf().ByID("salt_fine")
		r.added("salt", salt, s)
		salted := blend(food.Part{Ingredient: in, Grams: clean}, food.Part{Ingredient: s, Grams: salt})
		salted.ReleaseFraction = in.ReleaseFraction
		in, mass = salted, clean+salt
	}
	takes := plainTakes
	if salt > 0 {
		takes = saltedTakes
	}
	juice := takes * j.From.ReleaseFraction * in.Water / 100 * mass
	if j.AfterG > 0 {
		juice = mass - j.AfterG
		r.Measured = append(r.Measured, "weight")
		if most := mostJuice(in, mass); juice > most {
			return Result{}, problem("after_g", "below_dry", "%.4g g is less than anyone can wring out of it: about %.0f g would be left. Weigh again.", j.AfterG, mass-most)
		}
	}
	p, sap := pressed(in, mass, math.Max(0, juice))
	r.left(Juice, "juice, kept", juice, sap)
	r.Product, r.ProductG = p, mass-math.Max(0, juice)
	if id := strings.TrimSuffix(j.From.ID, "_grated") + "_squeezed"; j.shelf().ByID(id) != nil {
		r.StandIn = id
	}
	if salt > 0 {
		r.say("Grate it, toss it with %s g salt and wait 20 minutes. The salt that stays comes off the recipe.", strings.TrimSuffix(fmt.Sprintf("%.1f", salt), ".0"))
	} else {
		r.say("Grate it.")
	}
	r.say("Wring it out in a clean cloth over a bowl. Keep the juice: it can stand in for milk or water.")
	return r, nil
}

func (j Job) thaw() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	juice := min(dripShare, j.From.ReleaseFraction*j.From.Water/100) * j.HaveG
	if j.AfterG > 0 {
		juice = j.HaveG - j.AfterG
		r.Measured = append(r.Measured, "weight")
		if most := mostJuice(j.From, j.HaveG); juice > most {
			return Result{}, problem("after_g", "below_dry", "%.4g g is less than anyone can drain off: about %.0f g would be left. Weigh again.", j.AfterG, j.HaveG-most)
		}
	}
	p, sap := pressed(j.From, j.HaveG, math.Max(0, juice))
	r.left(Juice, "juice, kept", juice, sap)
	q := *p
	q.Group = food.GroupFreshPiece // no ice to melt any more
	q.Name = j.From.Label() + ", thawed and drained"
	r.Product, r.ProductG = &q, j.HaveG-math.Max(0, juice)
	r.say("Thaw in a sieve over a bowl in the fridge, never in the warm. Do not press.")
	r.say("Pour the juice into the milk: it counts as liquid.")
	return r, nil
}

func (j Job) coatG(mass float64) float64 {
	if j.WithG > 0 {
		return j.WithG
	}
	return coatShare * mass
}

func (j Job) toss() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	flour := j.With
	if flour == nil {
		flour = j.shelf().ByID("plain_flour")
	}
	if !With(Toss, flour) {
		return Result{}, problem("with", "does_not_suit", "%s is not a flour or starch to toss in.", flour.Name)
	}
	coat := j.coatG(j.HaveG)
	if j.AfterG > 0 {
		coat = math.Max(0, j.AfterG-j.HaveG)
		r.Measured = append(r.Measured, "weight")
	}
	r.added(lowerFirst(flour.Label()), coat, flour)
	p := *blend(food.Part{Ingredient: j.From, Grams: j.HaveG}, food.Part{Ingredient: flour, Grams: coat})
	p.ReleaseFraction = j.From.ReleaseFraction
	p.Name = j.From.Label() + ", tossed in flour"
	r.Product, r.ProductG = &p, j.HaveG+coat
	r.say("Dab it dry, toss it in the flour just before it goes in, and shake the rest off.")
	r.say("The flour that sticks counts in the batter.")
	return r, nil
}

func (j Job) bathG(mass float64) float64 {
	if j.WithG > 0 {
		return j.WithG
	}
	return bathShare * mass
}

func (j Job) plump() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	bath, minutes := j.bathG(j.HaveG), j.Minutes
	if minutes <= 0 {
		minutes = usualPlump
	}
	in := j.With
	if in == nil {
		in = water
	}
	if in != water && !With(Plump, in) {
		return Result{}, problem("with", "does_not_suit", "%s is not a liquid to plump in.", in.Name)
	}
	could := j.HaveG * j.From.Uptake
	drunk := math.Min(bath, could*(1-math.Exp(-minutes/plumpMin)))
	if j.AfterG > 0 {
		drunk = math.Min(bath, math.Max(0, j.AfterG-j.HaveG))
		r.Measured = append(r.Measured, "weight")
	}
	r.added(lowerFirst(in.Label()), bath, in)
	r.left(Juice, "liquid left, kept", bath-drunk, in)
	p := *blend(food.Part{Ingredient: j.From, Grams: j.HaveG}, food.Part{Ingredient: in, Grams: drunk})
	p.ReleaseFraction = j.From.ReleaseFraction
	r.ProductG = j.HaveG + drunk
	p.Uptake = math.Max(0, could-drunk) / r.ProductG
	shrink(&p, r.ProductG/j.HaveG)
	p.Name = j.From.Label() + ", plumped"
	r.Product = &p
	r.say("Cover with the warm liquid for %.0f minutes, then drain in a sieve.", minutes)
	r.say("What is left of the liquid can go into the batter as liquid.")
	return r, nil
}

func (j Job) toast() (Result, error) {
	r := Result{BeforeG: j.HaveG, StandIn: j.From.ID}
	in := j.From
	usual := j.HaveG * (100 - in.Water) / (100 - toastedWater)
	end, err := j.after(&r, in, j.HaveG, usual)
	if err != nil {
		return Result{}, err
	}
	r.left(Vapor, "steam", j.HaveG-end, water)
	p := *evaporated(in, j.HaveG, end)
	p.ReleaseFraction = in.ReleaseFraction
	p.Composition.Energy = p.EnergyFromParts(in.Group)
	shrink(&p, end/j.HaveG)
	r.Product, r.ProductG = &p, end
	r.say("Toast in a dry pan over medium heat, moving all the time, until it smells nutty. Tip it out at once: it goes on in the hot pan.")
	return r, nil
}

func (j Job) steep() (Result, error) {
	r := Result{BeforeG: j.HaveG}
	minutes, leaves := j.Minutes, j.LeavesG
	if minutes <= 0 {
		minutes = usualSteep
	}
	if leaves <= 0 {
		leaves = leafShare * j.HaveG
	}
	holds := heldDripped
	if j.Pressed {
		holds = heldPressed
	}
	steam := j.HaveG * steamPerMin * minutes
	if most := j.HaveG * j.From.Water / 100 * 0.5; steam > most {
		return Result{}, problem("minutes", "too_long", "After so long half of it has gone up in steam. Steep for less, or with the lid on.")
	}
	hot := Evaporated(j.From, j.HaveG, j.HaveG-steam)
	held := math.Min(holds*leaves, (j.HaveG-steam)*0.9)
	out := j.HaveG - steam - held
	if j.AfterG > 0 && !j.TopUp {
		held = j.HaveG - steam - j.AfterG
		if held < 0 { // less steam than usual
			steam, held = j.HaveG-j.AfterG, 0
			hot = Evaporated(j.From, j.HaveG, j.AfterG)
		}
		out = j.AfterG
		r.Measured = append(r.Measured, "weight")
	}
	r.left(Vapor, "steam", steam, water)
	r.left(Held, "stays in the leaves", held, hot)
	p := *hot
	if j.TopUp {
		top := j.HaveG - out
		if j.AfterG > 0 {
			top = j.AfterG - out
			r.Measured = append(r.Measured, "weight")
			if top < 0 {
				return Result{}, problem("after_g", "below_topped", "Topped up it would weigh more than %.0f g. Weigh again, or leave out the topping up.", out)
			}
		}
		r.added("topped up with "+lowerFirst(j.From.Label()), top, j.From)
		p = *blend(food.Part{Ingredient: hot, Grams: out}, food.Part{Ingredient: j.From, Grams: top})
		out += top
	}
	p.Composition.Energy = p.EnergyFromParts(p.Group)
	p.Name = j.From.Label() + ", infused"
	r.Product, r.ProductG = &p, out
	r.say("Warm the %s with %.0f g leaves or spice to just below the boil, cover, and steep %.0f minutes.", lowerFirst(j.From.Label()), leaves, minutes)
	if j.Pressed {
		r.say("Strain, and press the leaves.")
	} else {
		r.say("Strain and let it drip.")
	}
	if j.TopUp {
		r.say("Top up to %.0f g with fresh %s. Let it cool before it meets the eggs.", out, lowerFirst(j.From.Label()))
	}
	return r, nil
}

// citrus is what one fruit gives [g] of zest and of juice (common practice, no source).
var citrus = map[string]struct {
	zest, juice float64
	with        string
}{"lemon_zest": {6, 47, "lemon_juice"}, "lime_zest": {4, 30, "lemon_juice"}, "orange_zest": {10, 85, "orange_juice"}}

func (j Job) zest() (Result, error) {
	c, ok := citrus[j.From.ID]
	if !ok {
		c = citrus["orange_zest"]
	}
	fruits := j.Count
	if fruits <= 0 { // the weight is that of the zest
		fruits = j.HaveG / c.zest
	}
	r := Result{StandIn: ""}
	zest := fruits * c.zest
	if j.AfterG > 0 && j.Count > 0 {
		zest = j.AfterG
		r.Measured = append(r.Measured, "weight")
	}
	juice := j.shelf().ByID(c.with)
	r.left(Juice, "juice, kept", fruits*c.juice, juice)
	r.BeforeG = zest + fruits*c.juice
	p := *j.From
	r.Product, r.ProductG = &p, zest
	r.say("Wash %.3g fruits hot and dry them. Take the coloured skin only; the white is bitter.", fruits)
	r.say("Press the fruits afterwards and keep the juice.")
	return r, nil
}

func (j Job) sift() (Result, error) {
	r := Result{BeforeG: j.HaveG, StandIn: j.From.ID, ProductG: j.HaveG * (1 - sieveShare)}
	if j.AfterG > 0 {
		r.ProductG = j.AfterG
		r.Measured = append(r.Measured, "weight")
	}
	p := *j.From
	if p.DensitySifted > 0 {
		p.Density = p.DensitySifted
	}
	r.left(Held, "lumps in the sieve", j.HaveG-r.ProductG, &p)
	r.Product = &p
	r.say("Sift it, rub the lumps through, and weigh afterwards. A cup of it weighs less now.")
	return r, nil
}
