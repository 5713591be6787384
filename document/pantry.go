package document

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strings"
	"time"
	"unicode"

	"golang.org/x/text/unicode/norm"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/prep"
)

// PantryFormat is the document of one own ingredient, tub or measurement.
const PantryFormat = "upbeat-ladle/pantry-item"

// PantryItem is an own ingredient, a tub, or measured values of a row of the table. Columns
// are those of the reference table, per 100 g. With stands_for it takes the place of that row
// in every variation: what it leaves out stays as the row has it.
type PantryItem struct {
	ID             string   `json:"id"`
	Name           string   `json:"name"`
	StandsFor      string   `json:"stands_for,omitzero"`
	Group          string   `json:"group,omitzero"`
	Role           string   `json:"role,omitzero"`
	WaterG         *float64 `json:"water_g,omitzero"`
	ProteinG       *float64 `json:"protein_g,omitzero"`
	FatG           *float64 `json:"fat_g,omitzero"`
	CarbohydrateG  *float64 `json:"carbohydrate_g,omitzero"`
	SugarsG        *float64 `json:"sugars_g,omitzero"`
	SucroseG       *float64 `json:"sucrose_g,omitzero"`
	GlucoseG       *float64 `json:"glucose_g,omitzero"`
	FructoseG      *float64 `json:"fructose_g,omitzero"`
	LactoseG       *float64 `json:"lactose_g,omitzero"`
	MaltoseG       *float64 `json:"maltose_g,omitzero"`
	PolyolsG       *float64 `json:"polyols_g,omitzero"`
	StarchG        *float64 `json:"starch_g,omitzero"`
	FibreG         *float64 `json:"fibre_g,omitzero"`
	AshG           *float64 `json:"ash_g,omitzero"`
	AlcoholG       *float64 `json:"alcohol_g,omitzero"`
	SodiumMG       *float64 `json:"sodium_mg,omitzero"`
	EnergyKcal     *float64 `json:"energy_kcal,omitzero"`
	AcidMeq        *float64 `json:"acid_meq,omitzero"`
	CO2Pct         *float64 `json:"co2_pct,omitzero"`
	Density        *float64 `json:"density_g_per_ml,omitzero"`
	DensitySifted  *float64 `json:"density_sifted_g_per_ml,omitzero"`
	DensityScooped *float64 `json:"density_scooped_g_per_ml,omitzero"`
	UnitName       string   `json:"unit_name,omitzero"`
	UnitG          *float64 `json:"unit_g,omitzero"`
	PieceMassG     *float64 `json:"piece_mass_g,omitzero"`
	PieceLengthMM  *float64 `json:"piece_length_mm,omitzero"`
	PieceWidthMM   *float64 `json:"piece_width_mm,omitzero"`
	PieceHeightMM  *float64 `json:"piece_height_mm,omitzero"`
	PieceSizeMM    *float64 `json:"piece_size_mm,omitzero"` // an older word for the length
	PieceDensity   *float64 `json:"piece_density_g_per_ml,omitzero"`
	RefusePct      *float64 `json:"refuse_pct,omitzero"`
	Release        *float64 `json:"release_fraction,omitzero"`
	Uptake         *float64 `json:"uptake_g_per_g,omitzero"`
	Body           *float64 `json:"body,omitzero"`
	HydrationMin   *float64 `json:"hydration_min,omitzero"`
	ColourHex      string   `json:"colour_hex,omitzero"`
	ColourStrength *float64 `json:"colour_strength,omitzero"`
	TintSensitive  bool     `json:"tint_ph_sensitive,omitzero"`
	Allergens      []string `json:"allergens,omitzero"`
	MayContain     []string `json:"may_contain,omitzero"`
	Caution        string   `json:"caution,omitzero"`
	CautionCodes   []string `json:"caution_codes,omitzero"`
	TintHex        string   `json:"tint_hex,omitzero"`
	Traits         []string `json:"traits,omitzero"`
	PureeBecomes   string   `json:"puree_becomes,omitzero"`
	PureeCooked    string   `json:"puree_cooked,omitzero"`
	DoseLow        *float64 `json:"typical_dose_low,omitzero"`
	DoseHigh       *float64 `json:"typical_dose_high,omitzero"`
	Source         string   `json:"composition_source,omitzero"`
	Notes          string   `json:"notes,omitzero"`
	MadeOn         string   `json:"made_on,omitzero"`
	KeepsDays      *float64 `json:"keeps_days,omitzero"`
	StockG         *float64 `json:"stock_g,omitzero"`
	PricePerKg     *float64 `json:"price_per_kg,omitzero"`
	Measured       bool     `json:"measured,omitzero"`
	MeasuredWhat   []string `json:"measured_what,omitzero"`
	Estimated      []string `json:"estimated,omitzero"`
}

// Item is the document of one pantry item.
type Item struct {
	Format  string `json:"format"`
	Version int    `json:"version"`
	PantryItem
}

// NewItem wraps a pantry item as a document.
func NewItem(p PantryItem) Item { return Item{PantryFormat, Version, p} }

// Encode writes the document.
func (i Item) Encode() ([]byte, error) { return encode(i) }

// Bounds of a pantry item; beyond them a figure is a slip of the keys (modelling choice).
const (
	maxNote  = 1000 // characters
	maxKeeps = 3650 // days
	maxPrice = 100_000
	maxList  = 40
)

// DecodeItem reads and checks a pantry item against the table of the setting, which holds no
// own ingredients. An id that is missing is made from the name. The error is Problems.
func DecodeItem(data []byte, s Setting) (Item, error) {
	var i Item
	if err := Strict(data, &i); err != nil {
		return Item{}, err
	}
	if err := header(i.Format, i.Version, PantryFormat); err != nil {
		return Item{}, err
	}
	if i.ID == "" {
		i.ID = Slug(i.Name)
	}
	_, err := i.PantryItem.Ingredient(s)
	return i, err
}

// Slug is an id made of a name: small letters, digits and _.
func Slug(name string) string {
	var b strings.Builder
	for _, r := range strings.ToLower(norm.NFKD.String(name)) {
		switch {
		case r < unicode.MaxASCII && (unicode.IsLetter(r) || unicode.IsDigit(r)):
			b.WriteRune(r)
		case unicode.Is(unicode.Mn, r): // the accent of the letter before
		case b.Len() > 0 && !strings.HasSuffix(b.String(), "_"):
			b.WriteByte('_')
		}
		if b.Len() >= 56 {
			break
		}
	}
	if s := strings.Trim(b.String(), "_"); s != "" {
		return s
	}
	return "own"
}

// number is one figure of an item and where it stands in an ingredient.
type number struct {
	from *float64
	to   *float64
}

func (p *PantryItem) composition(in *food.Ingredient) []number {
	c := &in.Composition
	return []number{
		{p.WaterG, &c.Water}, {p.ProteinG, &c.Protein}, {p.FatG, &c.Fat}, {p.CarbohydrateG, &c.Carbohydrate}, {p.SugarsG, &c.Sugars},
		{p.SucroseG, &c.Sucrose}, {p.GlucoseG, &c.Glucose}, {p.FructoseG, &c.Fructose}, {p.LactoseG, &c.Lactose}, {p.MaltoseG, &c.Maltose}, {p.PolyolsG, &c.Polyols},
		{p.StarchG, &c.Starch}, {p.FibreG, &c.Fibre}, {p.AshG, &c.Ash}, {p.AlcoholG, &c.Alcohol}, {p.SodiumMG, &c.Sodium}, {p.EnergyKcal, &c.Energy},
		{p.AcidMeq, &c.Acid}, {p.CO2Pct, &c.CO2},
	}
}

func (p *PantryItem) others(in *food.Ingredient) []number {
	return []number{
		{p.Density, &in.Density}, {p.DensitySifted, &in.DensitySifted}, {p.DensityScooped, &in.DensityScooped}, {p.UnitG, &in.UnitG},
		{p.PieceMassG, &in.Piece.MassG}, {p.PieceLengthMM, &in.Piece.LengthMM}, {p.PieceWidthMM, &in.Piece.WidthMM}, {p.PieceHeightMM, &in.Piece.HeightMM}, {p.PieceDensity, &in.Piece.Density}, {p.RefusePct, &in.Refuse},
		{p.Release, &in.ReleaseFraction}, {p.Uptake, &in.Uptake}, {p.Body, &in.Body}, {p.HydrationMin, &in.HydrationMin},
		{p.ColourStrength, &in.Colour.Strength}, {p.DoseLow, &in.Dose.Low}, {p.DoseHigh, &in.Dose.High},
		{p.PricePerKg, &in.Price}, {p.StockG, &in.Stock},
	}
}

// hasComposition tells whether the item states what is in it.
func (p *PantryItem) hasComposition() bool {
	var in food.Ingredient
	return slices.ContainsFunc(p.composition(&in), func(n number) bool { return n.from != nil })
}

// onlyStocks tells whether the item says no more of a row than its price and what is there, so
// that the figures stay the table's.
func (p PantryItem) onlyStocks() bool {
	if p.StandsFor == "" {
		return false
	}
	return reflect.DeepEqual(PantryItem{ID: p.ID, Name: p.Name, StandsFor: p.StandsFor, PricePerKg: p.PricePerKg, StockG: p.StockG}, p)
}

// Ingredient turns the item into what the core works with. The error is Problems.
func (p PantryItem) Ingredient(s Setting) (*food.Ingredient, error) {
	r := &reader{table: s.Table}
	in := r.item("", p, s.Table.ByID(p.StandsFor), s.Today)
	return in, r.p.OrNil()
}

// item reads one item over the row that it stands for, or over nothing.
func (r *reader) item(at string, p PantryItem, row *food.Ingredient, today time.Time) *food.Ingredient {
	r.named(at, strings.TrimSpace(p.Name))
	out, own := r.ground(at, p, row, today)
	if out == nil {
		return nil
	}
	if !p.onlyStocks() {
		out.Own = own
	}
	if p.Group != "" || p.StandsFor == "" {
		out.Group = choice(r, at+"/group", p.Group, food.Groups, "", "group")
	}
	if p.Role != "" || p.StandsFor == "" {
		out.Role = choice(r, at+"/role", p.Role, food.Roles, "", "role")
	}
	if !r.figures(at, p, out, own) {
		return nil
	}
	r.said(at, p, out)
	if len(r.p) > 0 {
		return nil
	}
	if err := out.Check(); err != nil {
		r.p.Add(at, "impossible", "%s cannot be right: %s.", clip(p.Name), strings.Join(strings.Split(err.Error(), "\n"), "; "))
		return nil
	}
	return out
}

// ground is what an item is read over: the row that it stands for, with what was measured of it
// before, or an ingredient of its own. Nil when there is no such row.
func (r *reader) ground(at string, p PantryItem, row *food.Ingredient, today time.Time) (*food.Ingredient, *food.Own) {
	out := &food.Ingredient{ReleaseFraction: 1, Name: p.Name}
	own := &food.Own{Name: p.Name, MadeOn: p.MadeOn, AgeDays: age(p.MadeOn, today), Measured: p.MeasuredWhat, Estimated: p.Estimated}
	switch {
	case p.StandsFor != "" && row == nil:
		r.p.Add(at+"/stands_for", "unknown_ingredient", "There is no ingredient “%s” in the pantry to stand for.", clip(p.StandsFor))
		return nil, nil
	case p.StandsFor != "" && row.Own != nil && row.Own.Table == nil:
		r.p.Add(at+"/stands_for", "own", "“%s” is an ingredient of your own: change its figures instead.", clip(p.StandsFor))
		return nil, nil
	case p.StandsFor != "":
		*out = *row
		own.Table = row
		if had := row.Own; had != nil { // laid over another measurement of the same row
			own.Table = had.Table
			own.Measured = append(slices.Clone(had.Measured), own.Measured...)
			if p.MadeOn == "" {
				own.Name, own.MadeOn, own.AgeDays = had.Name, had.MadeOn, had.AgeDays
			}
			own.KeepDays = had.KeepDays
		}
	default:
		out.ID = p.ID
		if r.table.ByID(p.ID) != nil && r.table.ByID(p.ID).Own == nil {
			r.p.Add(at+"/id", "taken", "“%s” is an ingredient of the table. Say stands_for to replace it, or choose another name.", clip(p.ID))
		}
	}
	return out, own
}

// figures lays the item's figures over the ground, and estimates what nobody stated of an
// ingredient of one's own. False when one is no number.
func (r *reader) figures(at string, p PantryItem, out *food.Ingredient, own *food.Own) bool {
	if p.hasComposition() {
		out.Composition = food.Composition{}
	}
	if p.PieceLengthMM == nil {
		p.PieceLengthMM = p.PieceSizeMM
	}
	if l := p.PieceLengthMM; l != nil && p.PieceWidthMM == nil && p.PieceHeightMM == nil && out.Piece.LengthMM > 0 { // of the same shape
		out.Piece = out.Piece.Scaled(*l / out.Piece.LengthMM)
	}
	for _, n := range slices.Concat(p.composition(out), p.others(out)) {
		if n.from == nil {
			continue
		}
		if math.IsNaN(*n.from) || math.IsInf(*n.from, 0) {
			r.p.Add(at, "not_a_number", "One of the figures of %s is not a number.", clip(p.Name))
			return false
		}
		*n.to = *n.from
	}
	if p.StandsFor == "" {
		for _, what := range r.table.Estimate(out, food.Stated{Body: p.Body != nil, Release: p.Release != nil, Density: p.Density != nil, Acid: p.AcidMeq != nil}) {
			if !slices.Contains(own.Estimated, what) {
				own.Estimated = append(slices.Clone(own.Estimated), what)
			}
		}
	}
	if p.EnergyKcal == nil && p.hasComposition() {
		out.Energy = out.EnergyFromParts(out.Group)
	}
	own.KeepDays = int(r.within(at+"/keeps_days", p.KeepsDays, 0, maxKeeps, float64(own.KeepDays), "The days it keeps"))
	r.within(at+"/price_per_kg", p.PricePerKg, 0, maxPrice, 0, "The price of a kilo")
	r.within(at+"/stock_g", p.StockG, 0, 10*batter.MaxLineG, 0, "What is there in g")
	return true
}

// said lays over the ground what is not a figure.
func (r *reader) said(at string, p PantryItem, out *food.Ingredient) {
	if p.MadeOn != "" {
		if _, err := time.Parse(dayLayout, p.MadeOn); err != nil {
			r.p.Add(at+"/made_on", "not_a_day", "Write the day as year-month-day, like 2026-03-01.")
		}
	}
	for field, text := range map[string]string{"notes": p.Notes, "caution": p.Caution, "composition_source": p.Source, "unit_name": p.UnitName} {
		if len([]rune(text)) > maxNote {
			r.p.Add(at+"/"+field, "too_long", "The text is longer than %d characters.", maxNote)
		}
	}
	setText(&out.UnitName, p.UnitName)
	setText(&out.Colour.Hex, p.ColourHex)
	setText(&out.Colour.Tint, p.TintHex)
	setText(&out.Puree.Becomes, p.PureeBecomes)
	setText(&out.Puree.Cooked, p.PureeCooked)
	if p.Caution != "" { // another sentence does not say what the row's said
		out.Caution, out.Codes = p.Caution, slices.DeleteFunc(slices.Clone(out.Codes), func(c food.CautionCode) bool { return c == food.CodeTasting || c == food.CodeWash })
	}
	if p.CautionCodes != nil {
		out.Codes = nil
		for i, c := range p.CautionCodes {
			out.Codes = append(out.Codes, choice(r, fmt.Sprintf("%s/caution_codes/%d", at, i), c, food.CautionCodes, "", "caution code"))
		}
	}
	if p.Traits != nil {
		out.Traits = nil
		for i, t := range p.Traits {
			out.Traits = append(out.Traits, choice(r, fmt.Sprintf("%s/traits/%d", at, i), t, food.Traits, "", "trait"))
		}
	}
	if p.PureeCooked != "" {
		choice(r, at+"/puree_cooked", p.PureeCooked, prep.Cooks, "", "way to cook")
	}
	setText(&out.Notes, p.Notes)
	setText(&out.CompositionSource, p.Source)
	out.Colour.PHSensitive = out.Colour.PHSensitive || p.TintSensitive
	out.Allergens = r.allergens(at+"/allergens", p.Allergens, out.Allergens)
	if p.MayContain != nil {
		out.MayContain = p.MayContain
	}
	if len(p.MayContain) > maxList {
		r.p.Add(at+"/may_contain", "too_many", "More than %d are too many.", maxList)
	}
}

func setText(to *string, from string) {
	if from != "" {
		*to = from
	}
}

// allergens reads a list, which replaces the one that was there. Only names of the table can be
// shown under the lists of the EU and the US, so others are refused.
func (r *reader) allergens(at string, list, was []string) []string {
	if list == nil {
		return was
	}
	if len(list) > maxList {
		r.p.Add(at, "too_many", "More than %d are too many.", maxList)
		return was
	}
	for i, a := range list {
		if !slices.Contains(food.Allergens, a) {
			r.p.Add(fmt.Sprintf("%s/%d", at, i), "unknown_choice", "“%s” is not an allergen that is known here. Use one of %s.", clip(a), strings.Join(food.Allergens, ", "))
		}
	}
	return list
}

// Shelf is the table with a kitchen's own items laid over it. Measurements that leave the
// composition alone come first, so that a tub keeps its price; of two tubs for the same row
// the later one counts. An item that does not hold together any more is left out and named.
func Shelf(table *food.Table, items []PantryItem, today time.Time) (*food.Table, error) {
	r := &reader{table: table}
	sorted := slices.Clone(items)
	slices.SortStableFunc(sorted, func(a, b PantryItem) int {
		if x, y := a.hasComposition(), b.hasComposition(); x != y {
			if x {
				return 1
			}
			return -1
		}
		return cmp.Compare(a.MadeOn, b.MadeOn)
	})
	own := map[string]*food.Ingredient{}
	var order []string
	var bad []error
	for _, p := range sorted {
		r.p = nil
		row := table.ByID(p.StandsFor)
		if had := own[p.StandsFor]; had != nil && p.StandsFor != "" {
			row = had
		}
		in := r.item("", p, row, today)
		if in == nil || len(r.p) > 0 {
			bad = append(bad, fmt.Errorf("%s: %w", p.Name, r.p))
			continue
		}
		if own[in.ID] == nil {
			order = append(order, in.ID)
		}
		own[in.ID] = in
	}
	list := make([]*food.Ingredient, len(order))
	for i, id := range order {
		list[i] = own[id]
	}
	return table.With(list), errors.Join(bad...)
}

// pantry lays the items that a document carries over the shelf.
func (r *reader) pantry(items []PantryItem, today time.Time) {
	if len(items) == 0 {
		return
	}
	if len(items) > batter.MaxLines {
		r.p.Add("/pantry", "too_many", "%d own ingredients are too many for one document; %d is the most.", len(items), batter.MaxLines)
		return
	}
	var list []*food.Ingredient
	seen := map[string]bool{}
	for i, p := range items {
		at := fmt.Sprintf("/pantry/%d", i)
		row := r.table.ByID(p.StandsFor)
		if row != nil && row.Own != nil && row.Own.Table != nil {
			row = row.Own.Table // the document outranks the kitchen
		}
		if in := r.item(at, p, row, today); in != nil {
			if seen[in.ID] {
				r.p.Add(at+"/id", "duplicate", "“%s” is given twice.", clip(in.ID))
				continue
			}
			seen[in.ID] = true
			list = append(list, in)
		}
	}
	r.table = r.table.With(list)
}

func wordsOf[T ~string](all []T) []string {
	var out []string
	for _, v := range all {
		out = append(out, string(v))
	}
	return out
}

// ItemOf writes an ingredient as a pantry item, every column filled in.
func ItemOf(in *food.Ingredient) PantryItem {
	p := PantryItem{
		ID: in.ID, Name: in.Name, Group: string(in.Group), Role: string(in.Role), UnitName: in.UnitName, ColourHex: in.Colour.Hex,
		TintSensitive: in.Colour.PHSensitive, Allergens: in.Allergens, MayContain: in.MayContain, Caution: in.Caution, CautionCodes: wordsOf(in.Codes),
		TintHex: in.Colour.Tint, Traits: wordsOf(in.Traits), PureeBecomes: in.Puree.Becomes, PureeCooked: in.Puree.Cooked,
		Source: in.CompositionSource, Notes: in.Notes,
	}
	c := &in.Composition
	keep := func(to **float64, v float64) {
		if v != 0 {
			rounded := significant(v)
			*to = &rounded
		}
	}
	for to, v := range map[**float64]float64{
		&p.WaterG: c.Water, &p.ProteinG: c.Protein, &p.FatG: c.Fat, &p.CarbohydrateG: c.Carbohydrate, &p.SugarsG: c.Sugars,
		&p.SucroseG: c.Sucrose, &p.GlucoseG: c.Glucose, &p.FructoseG: c.Fructose, &p.LactoseG: c.Lactose, &p.MaltoseG: c.Maltose, &p.PolyolsG: c.Polyols,
		&p.StarchG: c.Starch, &p.FibreG: c.Fibre, &p.AshG: c.Ash, &p.AlcoholG: c.Alcohol, &p.SodiumMG: c.Sodium, &p.EnergyKcal: c.Energy,
		&p.AcidMeq: c.Acid, &p.CO2Pct: c.CO2, &p.Density: in.Density, &p.DensitySifted: in.DensitySifted, &p.DensityScooped: in.DensityScooped,
		&p.UnitG: in.UnitG, &p.PieceMassG: in.Piece.MassG, &p.PieceLengthMM: in.Piece.LengthMM, &p.PieceWidthMM: in.Piece.WidthMM, &p.PieceHeightMM: in.Piece.HeightMM, &p.PieceDensity: in.Piece.Density,
		&p.RefusePct: in.Refuse, &p.Uptake: in.Uptake, &p.Body: in.Body, &p.HydrationMin: in.HydrationMin,
		&p.ColourStrength: in.Colour.Strength, &p.DoseLow: in.Dose.Low, &p.DoseHigh: in.Dose.High, &p.PricePerKg: in.Price, &p.StockG: in.Stock,
	} {
		keep(to, v)
	}
	zero := 0.0
	if p.WaterG == nil { // states a composition even when it is dry
		p.WaterG = &zero
	}
	release := in.ReleaseFraction // zero says something here
	p.Release = &release
	if own := in.Own; own != nil {
		p.Name, p.MadeOn, p.MeasuredWhat, p.Estimated, p.Measured = own.Name, own.MadeOn, own.Measured, own.Estimated, len(own.Measured) > 0
		keep(&p.KeepsDays, float64(own.KeepDays))
		if own.Table != nil {
			p.StandsFor = own.Table.ID
		}
	}
	return p
}

// treatment reads how an addition is prepared and what was measured of it.
func (r *reader) treatment(at string, a Addition) prep.Treatment {
	var t prep.Treatment
	if a.Prep != "" {
		i := slices.IndexFunc(prep.Treatments, func(n prep.Named) bool { return n.ID == a.Prep })
		switch {
		case i >= 0:
			t.Method, t.Salt = prep.Treatments[i].Method, prep.Treatments[i].Salt
		case slices.Contains(prep.Methods, prep.Method(a.Prep)):
			// It was done before, as for a purée: the row is what came of it, and only what was
			// measured changes that.
		default:
			ids := make([]string, len(prep.Treatments))
			for j, n := range prep.Treatments {
				ids[j] = n.ID
			}
			r.p.Add(at+"/prep", "unknown_choice", "“%s” is not a preparation. Use one of %s.", clip(a.Prep), strings.Join(ids, ", "))
		}
	}
	if m := a.Measured; m != nil {
		t.Brix = r.above(at+"/measured/brix", m.Brix, "A reading in °Brix")
		t.BeforeG = r.within(at+"/measured/weight_before_g", m.WeightBeforeG, 0, prep.MaxG, 0, "The weight before in g")
		t.AfterG = r.within(at+"/measured/weight_after_g", m.WeightAfterG, 0, prep.MaxG, 0, "The weight afterwards in g")
		t.SizeMM = r.within(at+"/measured/size_mm", m.SizeMM, 1, 200, 0, "The size of a piece in mm")
	}
	return t
}

// Own describes the cook's figures of an ingredient beside the table's; nil when they are the
// table's own.
func Own(in *food.Ingredient) *food.OwnFigures {
	if in == nil || in.Own == nil {
		return nil
	}
	out := food.OwnFiguresOf(in.ID, in.Own)
	out.Shows = food.Figures(in, in.Own.Table)
	return &out
}

// Listed describes a pantry item for a list.
func Listed(p PantryItem, in *food.Ingredient, today time.Time) food.OwnFigures {
	if o := Own(in); o != nil {
		return *o
	}
	out := food.OwnFiguresOf(in.ID, &food.Own{Name: p.Name, MadeOn: p.MadeOn, AgeDays: age(p.MadeOn, today)})
	out.StandsFor, out.StandsForName = in.ID, in.Name
	return out
}

// Slice is one constituent of 100 g, beside the table's value when the figures are the cook's.
type Slice struct {
	Name  string   `json:"name"`
	Kind  string   `json:"kind"`
	Grams float64  `json:"grams"`
	Table *float64 `json:"table,omitzero"`
}

// Slices divides 100 g of an ingredient for a drawing.
func Slices(in *food.Ingredient) []Slice {
	var out []Slice
	for _, p := range []struct {
		name, kind string
		of         func(*food.Composition) float64
	}{
		{"water", "water", func(c *food.Composition) float64 { return c.Water }},
		{"sugars", "sugars", func(c *food.Composition) float64 { return c.Sugars }},
		{"starch", "starch", func(c *food.Composition) float64 { return c.Starch }},
		{"fibre", "fibre", func(c *food.Composition) float64 { return c.Fibre }},
		{"other carbohydrate", "carbohydrate", func(c *food.Composition) float64 {
			return math.Max(0, c.Carbohydrate-c.Sugars-c.Starch-c.Fibre)
		}},
		{"protein", "protein", func(c *food.Composition) float64 { return c.Protein }},
		{"fat", "fat", func(c *food.Composition) float64 { return c.Fat }},
		{"minerals", "ash", func(c *food.Composition) float64 { return c.Ash }},
		{"alcohol", "alcohol", func(c *food.Composition) float64 { return c.Alcohol }},
	} {
		s := Slice{Name: p.name, Kind: p.kind, Grams: (p.of(&in.Composition))}
		if o := in.Own; o != nil && o.Table != nil {
			t := (p.of(&o.Table.Composition))
			s.Table = &t
		}
		if s.Grams >= 0.05 || s.Table != nil && *s.Table >= 0.05 {
			out = append(out, s)
		}
	}
	return out
}

// Facts lists what matters of an ingredient in a batter, beside the table's values.
func Facts(in *food.Ingredient) []food.ShownFigure {
	row := in
	if in.Own != nil {
		row = in.Own.Table
	}
	out := slices.DeleteFunc(food.Figures(in, row), func(f food.ShownFigure) bool { return f.Name == "water" || f.Name == "sugars" }) // slices show them
	for i := range out {
		if in.Own == nil {
			out[i].Table = nil
		}
	}
	for _, f := range []struct {
		name, unit string
		v          float64
		decimals   int
	}{
		{"acid", "meq in 100 g", in.Acid, 1}, {"energy", "kcal in 100 g", in.Energy, 0}, {"a ml weighs", "g", in.Density, 2},
		{"reads", "°Brix", readable(in), 1}, {"price", "a kg", in.Price, 2}, {"there are", "g", in.Stock, 0}, {"thrown away when bought whole", "%", in.Refuse, 0},
	} {
		if f.v != 0 {
			out = append(out, food.ShownFigure{Name: f.name, Unit: f.unit, Value: (f.v), Decimals: f.decimals})
		}
	}
	return out
}

// readable is what a refractometer would show; 0 for what has too little juice to read.
func readable(in *food.Ingredient) float64 {
	if in.Water < 40 || in.Fat > 10 || in.IsFlour() {
		return 0
	}
	return prep.SolubleSolids(in)
}

// Uses tells whether a base names an ingredient.
func (b Base) Uses(id string) bool { return names(b.Lines, id) || served(b.Parts, id) }

// Uses tells whether a variation names an ingredient: in its bowl, in the bowl that it is held to,
// or beside it.
func (v Variation) Uses(id string) bool {
	adds := func(all []Addition) bool {
		return slices.ContainsFunc(all, func(a Addition) bool { return a.Ingredient == id })
	}
	return v.Base != nil && (names(v.Base.Lines, id) || names(v.Base.OwnLines, id)) || adds(v.Additions) || v.Reference != nil && adds(v.Reference.Additions) ||
		served(v.Parts, id)
}

func served(parts []Part, id string) bool {
	return slices.ContainsFunc(parts, func(p Part) bool {
		return p.Sauce.Uses(id) || slices.ContainsFunc(p.Lines, func(l PartLine) bool { return l.Ingredient == id })
	})
}

func names(lines []Line, id string) bool {
	return slices.ContainsFunc(lines, func(l Line) bool { return l.Ingredient == id })
}
