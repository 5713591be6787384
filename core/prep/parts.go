package prep

import (
	"math"
	"slices"
	"unicode"

	"upbeatladle/core/food"
)

// Grams of acid in a meq: citric acid, 192.12/3 mg (molar mass; malic acid has 67, so the
// choice hardly matters).
const acidGPerMeq = 0.064

// What a refractometer sees besides sugars and acids, as shares (modelling choices; with them
// the fruits of the table read as published for single-strength juice, within a third).
const (
	solubleAsh     = 0.9
	solubleProtein = 0.3
	solubleFibre   = 0.2 // pectin
)

// otherCarbohydrate is what is neither sugar, starch nor fibre: by difference it holds the
// acids, sorbitol and dextrins.
func otherCarbohydrate(c *food.Composition) float64 {
	return math.Max(0, c.Carbohydrate-c.Sugars-c.Starch-c.Fibre)
}

// dissolved is the part of a composition that is dissolved in its water: what a juice takes
// along, and what a refractometer reads.
func dissolved(c *food.Composition) food.Composition {
	other := math.Max(otherCarbohydrate(c), math.Min(acidGPerMeq*math.Max(0, c.Acid), c.Carbohydrate-c.Sugars-c.Fibre))
	d := food.Composition{
		Water: c.Water, Sugars: c.Sugars, Sucrose: c.Sucrose, Glucose: c.Glucose, Fructose: c.Fructose,
		Lactose: c.Lactose, Maltose: c.Maltose, Acid: c.Acid, Alcohol: c.Alcohol,
		Ash: solubleAsh * c.Ash, Sodium: c.Sodium, Protein: solubleProtein * c.Protein, Fibre: solubleFibre * c.Fibre,
	}
	d.Carbohydrate = d.Sugars + math.Max(0, other) + d.Fibre
	d.Energy = d.EnergyFromParts(food.GroupLiquid)
	return d
}

func solids(c *food.Composition) float64 { return c.Ash + c.Protein + c.Carbohydrate }

// SolubleSolids is what a refractometer reads of an ingredient at 20 °C: g of dissolved
// solids in 100 g of its liquid part and what is dissolved in it (docs/maths.md section 15).
func SolubleSolids(in *food.Ingredient) float64 {
	d := dissolved(&in.Composition)
	if d.Water <= 0 {
		return 0
	}
	return 100 * solids(&d) / (solids(&d) + d.Water + d.Alcohol)
}

// A reading outside these shares of the usual one is a slip of the prism, not a riper fruit
// (modelling choice: the published ranges of a fruit's °Brix stay within them).
const (
	brixLow  = 0.45
	brixHigh = 3.5
)

// WithBrix is an ingredient whose reading at 20 °C was taken: its dissolved solids grow or
// shrink to fit, each sugar by the same share, water gives way, and what is not dissolved
// stays. Sugars that are stated, as on a label, are a floor. The error is a *Problem.
func WithBrix(in *food.Ingredient, brix float64) (*food.Ingredient, error) {
	usual := SolubleSolids(in)
	switch {
	case !(brix > 0 && brix <= MaxBrix):
		return nil, problem("brix", "out_of_range", "A reading of %.4g °Brix is outside the scale, which ends at %d. Wipe the glass and read again.", brix, MaxBrix)
	case usual <= 0 || in.Water < 5:
		return nil, problem("brix", "no_liquid", "%s has nothing dissolved to read.", in.Name)
	case brix < brixLow*usual:
		return nil, problem("brix", "below_sugars", "%.4g °Brix is less than its sugars allow: %s usually reads about %.0f. Stir, wipe the glass and read again.", brix, in.Label(), usual)
	case brix > brixHigh*usual && brix > usual+30:
		return nil, problem("brix", "above_sugars", "%.4g °Brix is far above %s, which usually reads about %.0f. Was sugar added? Then add it as a line of its own.", brix, in.Label(), usual)
	}
	// Sugars, acids and the like move; ash, protein and pectin stay. The liquid keeps its mass.
	d := dissolved(&in.Composition)
	move := food.Composition{
		Sugars: d.Sugars, Sucrose: d.Sucrose, Glucose: d.Glucose, Fructose: d.Fructose, Lactose: d.Lactose, Maltose: d.Maltose,
		Carbohydrate: d.Carbohydrate - d.Fibre, Acid: d.Acid,
	}
	if move.Carbohydrate <= 0 {
		return nil, problem("brix", "no_liquid", "%s has no sugar that a reading could tell of.", in.Name)
	}
	stay := solids(&d) - move.Carbohydrate
	k := (brix/100*(solids(&d)+d.Water+d.Alcohol) - stay) / move.Carbohydrate
	if !(k > 0) {
		return nil, problem("brix", "below_sugars", "%.4g °Brix is less than the salts of %s alone would read. Stir, wipe the glass and read again.", brix, in.Label())
	}
	more := move.Times(k - 1)
	more.Water = -more.Carbohydrate
	out := *in
	out.Composition = in.Composition.Plus(&more)
	out.Energy = out.EnergyFromParts(in.Group)
	return &out, nil
}

// Correction of a refractometer to 20 °C in °Brix per °C, for a thin and a thick syrup (ICUMSA
// correction table, from memory: +0.74 at 10 °Brix and +0.81 at 60 °Brix for 30 °C).
const (
	correctionThin  = 0.0725
	correctionThick = 0.0815
	correctionAt    = 60.0
	minSampleC      = 10.0
	maxSampleC      = 40.0
)

// AtTwenty is a reading [°Brix] taken of a sample at a temperature [°C], as it would be at
// 20 °C. Outside 10-40 °C the table ends: let the sample come to the temperature of the room.
func AtTwenty(brix, sampleC float64) (float64, error) {
	if !(sampleC >= minSampleC && sampleC <= maxSampleC) {
		return 0, problem("sample_c", "out_of_range", "The sample is at %.0f °C. Let it come to between %.0f and %.0f °C and read again.", sampleC, minSampleC, maxSampleC)
	}
	perC := correctionThin + (correctionThick-correctionThin)*math.Min(1, math.Max(0, brix)/correctionAt)
	return math.Max(0, brix+perC*(sampleC-20)), nil
}

// evaporated is an ingredient after pure water left it, from one mass to a smaller one: what
// it had is in less mass, its body stays, and what keeps its cells releases only what is left
// to release (docs/maths.md section 3). With a larger mass it has taken water up.
func evaporated(in *food.Ingredient, from, to float64) *food.Ingredient {
	if from <= 0 || to <= 0 || to == from {
		return in
	}
	out := *in
	k := from / to
	out.Composition = in.Composition.Times(k)
	out.Water = in.Water*k - 100*(k-1)
	out.Body *= k
	releaseLeft(&out, in.ReleaseFraction, in.Water*k, 100*(k-1))
	return &out
}

// releaseLeft sets what an ingredient that keeps its cells can still release once a part of
// the water that it would have released is gone: r' = max(0, r·water − removed) / water left.
func releaseLeft(out *food.Ingredient, r, water, removed float64) {
	if out.HasCells() && water > removed {
		out.ReleaseFraction = math.Min(1, math.Max(0, r*water-removed)/(water-removed))
	}
}

// Evaporated is an ingredient boiled or dried down from one mass to another.
func Evaporated(in *food.Ingredient, from, to float64) *food.Ingredient {
	if to >= from {
		return in
	}
	return evaporated(in, from, to)
}

// Sap is the juice of an ingredient: its water with what is dissolved in it, 100 g of it. It
// is an ingredient of its own, usable as a liquid.
func Sap(in *food.Ingredient) *food.Ingredient {
	d := dissolved(&in.Composition)
	t := food.Total{Mass: d.Water + d.Alcohol + solids(&d), Composition: d}
	out := &food.Ingredient{
		ID: "juice_of_" + in.ID, Name: "Juice of " + lowerFirst(in.Label()), Group: food.GroupLiquid, Role: food.RoleLiquid,
		Composition: t.Per100(), ReleaseFraction: 1, Colour: in.Colour, Allergens: in.Allergens, MayContain: in.MayContain,
		Caution: in.Caution, Codes: in.Codes, CompositionSource: "worked out: what is dissolved in the water of " + in.Name,
	}
	out.Density = food.Total{Composition: out.Composition}.Density()
	return out
}

// pressed is an ingredient after juice [g] ran or was pressed out of a mass of it.
func pressed(in *food.Ingredient, from, juice float64) (*food.Ingredient, *food.Ingredient) {
	sap := Sap(in)
	if juice <= 0 {
		return in, sap
	}
	out := *in
	t := food.Whole([]food.Part{{Ingredient: in, Grams: from}, {Ingredient: sap, Grams: -juice}})
	out.Composition = t.Per100()
	water := in.Water * from / 100
	releaseLeft(&out, in.ReleaseFraction, water, sap.Water*juice/100)
	k := from / (from - juice)
	out.Body *= k
	shrink(&out, 1/k)
	return &out, sap
}

// pressable is the share of the juice that a cloth can wring out (modelling choice).
const pressable = 0.9

// mostJuice is the juice in g that can be wrung out of a mass: of its water and what is
// dissolved in it.
func mostJuice(in *food.Ingredient, from float64) float64 {
	d := dissolved(&in.Composition)
	return pressable * from / 100 * (d.Water + d.Alcohol + solids(&d))
}

// shrink makes the pieces and the unit of an ingredient smaller by a share of mass.
func shrink(out *food.Ingredient, share float64) {
	out.UnitG *= share
	out.Piece = out.Piece.Scaled(math.Cbrt(share))
	out.Piece.MassG *= share
}

// Sized is an ingredient whose own pieces measure so many mm: their mass goes with the cube.
func Sized(in *food.Ingredient, mm float64) *food.Ingredient {
	out := *in
	if in.Piece.LengthMM > 0 && mm > 0 {
		k := mm / in.Piece.LengthMM
		out.Piece = in.Piece.Scaled(k)
		out.Piece.MassG *= math.Pow(k, 3)
	}
	return &out
}

// Counted is an ingredient of which so many pieces weighed so much: its measures follow as
// the cube root of the mass.
func Counted(in *food.Ingredient, pieces, grams float64) *food.Ingredient {
	out := *in
	if pieces > 0 && grams > 0 {
		if in.Piece.MassG > 0 {
			out.Piece = in.Piece.Scaled(math.Cbrt(grams / pieces / in.Piece.MassG))
		}
		out.Piece.MassG = grams / pieces
	}
	return &out
}

// blend is a mixture as one ingredient that keeps the name and shelf of the first part. What
// keeps its cells releases as before, by the water that each part brings.
func blend(parts ...food.Part) *food.Ingredient {
	out := *parts[0].Ingredient
	t := food.Whole(parts)
	out.Composition = t.Per100()
	var body, water, released float64
	for _, p := range parts {
		body += p.Grams * p.Ingredient.Body
		water += p.Grams * p.Ingredient.Water
		released += p.Grams * p.Ingredient.Water * p.Ingredient.Release()
		out.Allergens = union(out.Allergens, p.Ingredient.Allergens)
		out.MayContain = union(out.MayContain, p.Ingredient.MayContain)
	}
	out.Body = body / t.Mass
	if out.HasCells() && water > 0 {
		out.ReleaseFraction = released / water
	}
	return &out
}

func union(a, b []string) []string {
	out := slices.Clone(a)
	for _, s := range b {
		if !slices.Contains(out, s) {
			out = append(out, s)
		}
	}
	return out
}

func lowerFirst(s string) string {
	r := []rune(s)
	if len(r) > 1 && unicode.IsLower(r[1]) {
		r[0] = unicode.ToLower(r[0])
	}
	return string(r)
}
