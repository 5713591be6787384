package food

import (
	"bytes"
	_ "embed"
	"encoding/csv"
	"errors"
	"fmt"
	"hash/fnv"
	"io"
	"maps"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
)

//go:embed ingredients.csv
var referenceCSV []byte

// Table is a set of ingredients by id, in the order of its source. It and its ingredients are never changed once it was
// made: it is safe for concurrent use, and With makes another.
type Table struct {
	rows []*Ingredient
	byID map[string]*Ingredient
}

// Reference returns the reference table that ships with the program. The table is read
// once; its ingredients are shared and must not be changed.
var Reference = sync.OnceValue(func() *Table {
	t, err := LoadTable(bytes.NewReader(referenceCSV))
	if err != nil {
		panic("the embedded ingredient table is broken: " + err.Error())
	}
	return t
})

// ReferenceStamp tells one edition of the reference table from another.
var ReferenceStamp = sync.OnceValue(func() string {
	sum := fnv.New64a()
	_, _ = sum.Write(referenceCSV) // never fails
	return fmt.Sprintf("%016x", sum.Sum64())
})

// ByID returns the ingredient of that id, or nil.
func (t *Table) ByID(id string) *Ingredient { return t.byID[id] }

// All returns the ingredients in the order of the source; do not change the slice.
func (t *Table) All() []*Ingredient { return t.rows }

// With returns the table with own ingredients laid over it: one with the id of a row takes
// its place, the others stand at the end. The table itself stays as it is.
func (t *Table) With(own []*Ingredient) *Table {
	if len(own) == 0 {
		return t
	}
	out := &Table{rows: slices.Clone(t.rows), byID: maps.Clone(t.byID)}
	for _, in := range own {
		if was := out.byID[in.ID]; was != nil {
			out.rows[slices.Index(out.rows, was)] = in
		} else {
			out.rows = append(out.rows, in)
		}
		out.byID[in.ID] = in
	}
	return out
}

// columns that a table must have, in the order of the reference file.
var columns = []string{
	"id", "name", "group", "role", "water_g", "protein_g", "fat_g", "carbohydrate_g", "sugars_g", "sucrose_g",
	"glucose_g", "fructose_g", "lactose_g", "maltose_g", "starch_g", "fibre_g", "ash_g", "alcohol_g", "sodium_mg",
	"energy_kcal", "acid_meq", "acid_source", "co2_pct", "density_g_per_ml", "density_sifted_g_per_ml",
	"density_scooped_g_per_ml", "density_source", "unit_name", "unit_g", "piece_mass_g", "piece_length_mm", "piece_width_mm", "piece_height_mm",
	"piece_density_g_per_ml", "refuse_pct", "release_fraction", "uptake_g_per_g", "body", "hydration_min",
	"melts_or_burns", "colour_hex", "colour_strength", "tint_ph_sensitive", "allergens", "may_contain", "caution", "caution_codes",
	"typical_dose_low", "typical_dose_high", "composition_source", "notes", "tint_hex", "traits", "puree_becomes", "puree_cooked", "polyols_g",
}

// LoadTable reads a table in the columns of the reference file. Every row is checked; the
// error joins one sentence for each row that does not hold together.
func LoadTable(r io.Reader) (*Table, error) {
	cr := csv.NewReader(r)
	head, err := cr.Read()
	if err != nil {
		return nil, fmt.Errorf("reading the heading: %w", err)
	}
	at := make(map[string]int, len(head))
	for i, h := range head {
		at[h] = i
	}
	for _, c := range columns {
		if _, ok := at[c]; !ok {
			return nil, fmt.Errorf("the column %q is missing", c)
		}
	}
	t := &Table{byID: make(map[string]*Ingredient)}
	var bad []error
	for {
		rec, err := cr.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, fmt.Errorf("reading a row: %w", err)
		}
		line, _ := cr.FieldPos(0)
		in, err := parseRow(rec, at)
		if err == nil {
			err = in.Check()
		}
		if err == nil && t.byID[in.ID] != nil {
			err = errors.New("the id stands twice")
		}
		if err != nil {
			bad = append(bad, fmt.Errorf("line %d, %s: %w", line, rec[at["id"]], err))
			continue
		}
		t.rows = append(t.rows, in)
		t.byID[in.ID] = in
	}
	if len(bad) > 0 {
		return nil, errors.Join(bad...)
	}
	return t, nil
}

func parseRow(rec []string, at map[string]int) (*Ingredient, error) {
	var bad []error
	text := func(col string) string { return strings.TrimSpace(rec[at[col]]) }
	num := func(col string) float64 {
		s := text(col)
		if s == "" {
			return 0
		}
		v, err := strconv.ParseFloat(s, 64)
		if err != nil || math.IsNaN(v) || math.IsInf(v, 0) {
			bad = append(bad, fmt.Errorf("%s is %q, not a number", col, s))
		}
		return v
	}
	list := func(col string) []string {
		var out []string
		for part := range strings.SplitSeq(text(col), ";") {
			if part = strings.TrimSpace(part); part != "" {
				out = append(out, part)
			}
		}
		return out
	}
	in := &Ingredient{
		ID: text("id"), Name: text("name"), Group: Group(text("group")), Role: Role(text("role")),
		Composition: Composition{
			Water: num("water_g"), Protein: num("protein_g"), Fat: num("fat_g"), Carbohydrate: num("carbohydrate_g"),
			Ash: num("ash_g"), Alcohol: num("alcohol_g"), Sugars: num("sugars_g"), Sucrose: num("sucrose_g"),
			Glucose: num("glucose_g"), Fructose: num("fructose_g"), Lactose: num("lactose_g"), Maltose: num("maltose_g"), Polyols: num("polyols_g"),
			Starch: num("starch_g"), Fibre: num("fibre_g"), Sodium: num("sodium_mg"), Energy: num("energy_kcal"),
			Acid: num("acid_meq"), CO2: num("co2_pct"),
		},
		Density: num("density_g_per_ml"), DensitySifted: num("density_sifted_g_per_ml"),
		DensityScooped: num("density_scooped_g_per_ml"), UnitName: text("unit_name"), UnitG: num("unit_g"),
		Piece:  Piece{MassG: num("piece_mass_g"), LengthMM: num("piece_length_mm"), WidthMM: num("piece_width_mm"), HeightMM: num("piece_height_mm"), Density: num("piece_density_g_per_ml")},
		Refuse: num("refuse_pct"), ReleaseFraction: num("release_fraction"), Uptake: num("uptake_g_per_g"),
		Body: num("body"), HydrationMin: num("hydration_min"),
		Colour:    Colour{Hex: text("colour_hex"), Tint: text("tint_hex"), Strength: num("colour_strength"), PHSensitive: text("tint_ph_sensitive") == "yes"},
		Allergens: list("allergens"), MayContain: list("may_contain"), Caution: text("caution"),
		Codes: words[CautionCode](list("caution_codes")), Traits: words[Trait](list("traits")),
		Puree:             Puree{Becomes: text("puree_becomes"), Cooked: text("puree_cooked")},
		Dose:              Dose{Low: num("typical_dose_low"), High: num("typical_dose_high")},
		CompositionSource: text("composition_source"), AcidSource: text("acid_source"),
		DensitySource: text("density_source"), Notes: text("notes"),
	}
	return in, errors.Join(bad...)
}

// words reads a list of words of a kind.
func words[T ~string](list []string) []T {
	var out []T
	for _, w := range list {
		out = append(out, T(w))
	}
	return out
}

// Tolerances of Check.
const (
	closureLow, closureHigh = 98.0, 102.0 // g of constituents in 100 g (the table's own check)
	partSlack               = 0.6         // g, rounding of the printed parts
	energyShare             = 0.08        // of the computed energy (the table's own check)
	energyFloor             = 2.0         // kcal
	mostBody                = 40          // g of flour that one gram of a gum thickens like
	mostUptake              = 12          // g of water that one gram of a seed drinks
)

var (
	idPattern  = regexp.MustCompile(`^[a-z0-9_]{1,64}$`)
	hexPattern = regexp.MustCompile(`^#[0-9A-Fa-f]{6}$`)
)

// Check returns an error when the parts of an ingredient cannot be true together: they do
// not add up to about 100 g, a part is larger than its whole, the energy does not follow
// from them, or a figure lies outside what is physical.
func (in *Ingredient) Check() error {
	bad := append(in.checkWords(), in.Composition.check(in.Group)...)
	return errors.Join(append(bad, in.checkFigures()...)...)
}

// checkWords checks what an ingredient is called, and the words of it that are one of several.
func (in *Ingredient) checkWords() (bad []error) {
	say := func(format string, args ...any) { bad = append(bad, fmt.Errorf(format, args...)) }
	if !idPattern.MatchString(in.ID) {
		say("the id %q must be small letters, digits and _", in.ID)
	}
	if in.Name == "" {
		say("the name is missing")
	}
	if !slices.Contains(Groups, in.Group) {
		say("the group %q is unknown", in.Group)
	}
	if !slices.Contains(Roles, in.Role) {
		say("the role %q is unknown", in.Role)
	}
	for _, c := range in.Codes {
		if !slices.Contains(CautionCodes, c) {
			say("the caution code %q is unknown", c)
		}
	}
	for _, t := range in.Traits {
		if !slices.Contains(Traits, t) {
			say("the trait %q is unknown", t)
		}
	}
	for _, hex := range []string{in.Colour.Hex, in.Colour.Tint} {
		if hex != "" && !hexPattern.MatchString(hex) {
			say("the colour %q is not #RRGGBB", hex)
		}
	}
	return bad
}

// checkFigures checks its figures beside its composition.
func (in *Ingredient) checkFigures() (bad []error) {
	say := func(format string, args ...any) { bad = append(bad, fmt.Errorf(format, args...)) }
	outside := func(v, low, high float64) bool { return v < low || v > high }
	if outside(in.Density, 0, 3) || outside(in.Piece.Density, 0, 3) {
		say("a density is outside 0-3 g/ml")
	}
	if outside(in.ReleaseFraction, 0, 1) {
		say("the release fraction is %g, outside 0-1", in.ReleaseFraction)
	}
	if outside(in.Body, 0, mostBody) || outside(in.Uptake, 0, mostUptake) {
		say("body or uptake is out of range")
	}
	if p := in.Piece; outside(p.LengthMM, 0, 1000) || outside(p.WidthMM, 0, p.LengthMM) || outside(p.HeightMM, 0, p.LengthMM) {
		say("a piece of %g × %g × %g mm cannot be: its length is the longest", p.LengthMM, p.WidthMM, p.HeightMM)
	}
	if in.Refuse < 0 || in.Refuse >= 100 {
		say("the refuse is %g %%", in.Refuse)
	}
	if in.Dose.Low < 0 || in.Dose.High < in.Dose.Low {
		say("the dose range runs backwards")
	}
	return bad
}

// check tells which parts cannot be true together.
func (c *Composition) check(group Group) (bad []error) {
	say := func(format string, args ...any) { bad = append(bad, fmt.Errorf(format, args...)) }
	for name, v := range map[string]float64{
		"water": c.Water, "protein": c.Protein, "fat": c.Fat, "carbohydrate": c.Carbohydrate, "ash": c.Ash,
		"alcohol": c.Alcohol, "sugars": c.Sugars, "sucrose": c.Sucrose, "glucose": c.Glucose, "fructose": c.Fructose,
		"lactose": c.Lactose, "maltose": c.Maltose, "starch": c.Starch, "fibre": c.Fibre, "polyols": c.Polyols, "CO2": c.CO2,
	} {
		if v < 0 || v > 100 {
			say("%s is %g g, outside 0-100", name, v)
		}
	}
	if sum := c.Water + c.Protein + c.Fat + c.Carbohydrate + c.Ash + c.Alcohol; sum < closureLow || sum > closureHigh {
		say("the parts add up to %.1f g, not to 100", sum)
	}
	if split := c.Sucrose + c.Glucose + c.Fructose + c.Lactose + c.Maltose; split > c.Sugars+partSlack {
		say("the single sugars add up to %.1f g, more than all sugars (%.1f g)", split, c.Sugars)
	}
	if sum := c.Sugars + c.Starch + c.Fibre + c.Polyols; sum > c.Carbohydrate+partSlack {
		say("sugars, starch, fibre and polyols add up to %.1f g, more than the carbohydrate (%.1f g)", sum, c.Carbohydrate)
	}
	if e := c.EnergyFromParts(group); math.Abs(e-c.Energy) > math.Max(energyFloor, energyShare*e) {
		say("the energy is %.0f kcal, the parts give %.0f", c.Energy, e)
	}
	if c.Sodium < 0 || c.Sodium > 1000*(c.Ash+c.Carbohydrate+partSlack) {
		say("sodium of %.0f mg does not fit the ash", c.Sodium)
	}
	return bad
}

// EnergyFromParts is the energy in kcal per 100 g by the general factors: protein 4, fat
// 9, carbohydrate 4, fibre 2, ethanol 7 (Atwater; EU labelling adds the last two), erythritol none. In the
// group acid the carbohydrate is organic acid, 3 kcal/g.
func (c *Composition) EnergyFromParts(group Group) float64 {
	available := 4.0
	if group == GroupAcid {
		available = 3
	}
	return 4*c.Protein + 9*c.Fat + available*(c.Carbohydrate-c.Fibre-c.Polyols) + 2*c.Fibre + 7*c.Alcohol
}
