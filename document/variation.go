package document

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
)

// Names and versions of the documents.
const (
	VariationFormat = "upbeat-ladle/variation"
	BaseFormat      = "upbeat-ladle/base"
	WorksheetFormat = "upbeat-ladle/worksheet"
	Version         = 1
)

// Line is a line of a base as written.
type Line struct {
	ID          string   `json:"id,omitzero"`
	Ingredient  string   `json:"ingredient"`
	Amount      *float64 `json:"amount,omitzero"`
	Unit        string   `json:"unit"`
	Role        string   `json:"role,omitzero"`
	Locked      bool     `json:"locked,omitzero"`
	FlourMethod string   `json:"flour_method,omitzero"`
	Fill        string   `json:"fill,omitzero"` // heaped · rounded · level · scant, of a spoon or cup
	SizeG       *float64 `json:"size_g,omitzero"`
	SizeML      *float64 `json:"size_ml,omitzero"`
	AsRead      string   `json:"as_read,omitzero"` // the words of a recipe that were only taken for the ingredient
}

// Measured is what a cook measured of an addition.
type Measured struct {
	Brix          *float64 `json:"brix,omitzero"`
	WeightBeforeG *float64 `json:"weight_before_g,omitzero"`
	WeightAfterG  *float64 `json:"weight_after_g,omitzero"`
	SizeMM        *float64 `json:"size_mm,omitzero"`
}

// Addition is an addition as written.
type Addition struct {
	Line
	Stage            string    `json:"stage,omitzero"`
	Prep             string    `json:"prep,omitzero"`
	Measured         *Measured `json:"measured,omitzero"`
	PlacedPerPortion *float64  `json:"placed_per_portion,omitzero"`
	ShareOfBowl      *float64  `json:"share_of_bowl,omitzero"`
}

// School is how a base is mixed.
type School struct {
	Lumps   string   `json:"lumps,omitzero"`
	RestMin *float64 `json:"rest_min,omitzero"`
	Dairy   string   `json:"dairy,omitzero"`
	Eggs    string   `json:"eggs,omitzero"`
	Bowls   string   `json:"bowls,omitzero"` // two · one_wet_first · one_dry_first
	PanFat  string   `json:"pan_fat,omitzero"`
	Crisp   string   `json:"crisp,omitzero"`
}

// BaseRef says which saved base a snapshot was taken from.
type BaseRef struct {
	ID       string `json:"id"`
	Revision int64  `json:"revision"`
}

// BasePart is the base inside a variation.
type BasePart struct {
	Name       string   `json:"name"`
	Style      string   `json:"style,omitzero"`
	School     *School  `json:"school,omitzero"`
	Lines      []Line   `json:"lines"`
	OwnLines   []Line   `json:"own_lines,omitzero"` // the base's own, where others stand in for some: what targets are held to
	SourceNote string   `json:"source_note,omitzero"`
	SourceText string   `json:"source_text,omitzero"` // id of the text that it was read from
	BaseRef    *BaseRef `json:"base_ref,omitzero"`
}

// Offset is the wish for offsets as written.
type Offset struct {
	Strategy       string   `json:"strategy,omitzero"`
	Hold           []string `json:"hold,omitzero"`
	SugarBy        string   `json:"sugar_by,omitzero"`
	AllowLow       []string `json:"allow_low,omitzero"`
	AllowLowLiquid bool     `json:"allow_low_liquid,omitzero"` // an older way to say liquid
	Targets        *Targets `json:"targets,omitzero"`
}

// Targets are where gauges were pulled to: times the reference, or for the tang a difference in
// meq per 100 g of batter.
type Targets struct {
	Thickness *float64 `json:"thickness,omitzero"`
	Sweetness *float64 `json:"sweetness,omitzero"`
	Lift      *float64 `json:"lift,omitzero"`
	Tang      *float64 `json:"tang,omitzero"`
	Salt      *float64 `json:"salt,omitzero"`
	Fat       *float64 `json:"fat,omitzero"`
}

func (t *Targets) of(h batter.Hold) *float64 {
	return map[batter.Hold]*float64{
		batter.HoldThickness: t.Thickness, batter.HoldSweetness: t.Sweetness, batter.HoldLift: t.Lift,
		batter.HoldTang: t.Tang, batter.HoldSalt: t.Salt, batter.HoldFat: t.Fat,
	}[h]
}

// Reference is the bowl that targets and base figures are taken from.
type Reference struct {
	Kind      ReferenceKind `json:"kind"`
	Additions []Addition    `json:"additions,omitzero"` // in full, as the recipe had them
}

// ReferenceKind says which bowl that is.
type ReferenceKind string

// The kinds: the plain base, which is meant when nothing is said, or the whole bowl as written.
const (
	PlainReference     ReferenceKind = "plain"
	AsWrittenReference ReferenceKind = "as_written"
)

// Part is something of a serving that is not in the batter, in the cook's words, with what it is
// made of as far as that is known.
type Part struct {
	Kind  string     `json:"kind"` // top · middle · beside · pan · serving
	Text  string     `json:"text"`
	Lines []PartLine `json:"lines,omitzero"`
	EachG *float64   `json:"each_g,omitzero"` // on a portion: then it counts

	Sauce    *Sauce   `json:"sauce,omitzero"`     // of the house, as it was when it was put on
	SauceRef *BaseRef `json:"sauce_ref,omitzero"` // the saved one that it was taken from
}

// PartLine is an ingredient of a part; how much of it need not be known.
type PartLine struct {
	Ingredient string   `json:"ingredient"`
	Amount     *float64 `json:"amount,omitzero"`
	Unit       string   `json:"unit,omitzero"`
}

// Bounds of a part: characters of its text, and g of it on a portion.
const (
	maxPartText = 300
	MaxEachG    = 1000
)

// Said is what the recipe that a variation was read from claims of itself. It is shown beside what
// is worked out, and never worked with.
type Said struct {
	Count    *float64 `json:"count,omitzero"`     // pieces
	VolumeML *float64 `json:"volume_ml,omitzero"` // batter of one
	Minutes  *float64 `json:"minutes,omitzero"`   // a side
	Text     string   `json:"text,omitzero"`      // as it stood
}

const maxSaid = 2000 // characters

// Cooking is what a cook wants of the plate; where it stands is the kitchen's griddle_c.
type Cooking struct {
	On       string `json:"on,omitzero"` // id of the plate or iron
	Colour   string `json:"colour,omitzero"`
	From     string `json:"from,omitzero"` // where the batter comes from
	Fat      string `json:"fat,omitzero"`
	When     string `json:"when,omitzero"` // the plate is greased
	HotStart bool   `json:"hot_start,omitzero"`
	Lacy     bool   `json:"lacy,omitzero"`

	Heat []HeatStep   `json:"heat,omitzero"`
	Own  []OwnMinutes `json:"own,omitzero"`
}

// HeatStep is where the cook wants the plate from a moment on: in °C or by a mark of its dial.
type HeatStep struct {
	At   string   `json:"at"` // mixing · pour · flip
	C    *float64 `json:"c,omitzero"`
	Mark string   `json:"mark,omitzero"`
}

// OwnMinutes are the times that a cook has always used, on one plate or iron.
type OwnMinutes struct {
	On       string   `json:"on"`                // id of the plate or iron; empty in a kitchen that names none
	FirstS   *float64 `json:"first_s"`           // s; closed, in an iron
	SecondS  *float64 `json:"second_s,omitzero"` // s; none in an iron
	C        *float64 `json:"c,omitzero"`        // °C that it stood at, or
	Mark     string   `json:"mark,omitzero"`     // the mark of its dial
	PouredMM *float64 `json:"poured_mm,omitzero"`
	From     string   `json:"from"` // said · typed · board
	Day      string   `json:"day,omitzero"`
}

// Bounds of own minutes (modelling choices: what no kitchen does is a slip of the keys).
const (
	maxPouredMM = 60.0
	maxOwn      = 20
)

// Portion is the portion as written.
type Portion struct {
	VolumeML *float64 `json:"volume_ml,omitzero"`
	Count    *float64 `json:"count,omitzero"`
	ScoopNo  *float64 `json:"scoop_no,omitzero"`
	LadleID  string   `json:"ladle_id,omitzero"`
	Spread   *Spread  `json:"spread,omitzero"`
	OneCake  bool     `json:"one_cake,omitzero"` // the whole bowl as one; alone
}

// Spread is how wide a portion is wanted on the plate; without one it is what form and thickness ask for.
type Spread struct {
	By   string   `json:"by"`             // itself or hand
	ToMM *float64 `json:"to_mm,omitzero"` // across, by hand only
}

// Calibration is a kitchen's own thickness line.
type Calibration struct {
	C *float64 `json:"c"`
	B *float64 `json:"b"`
}

// Kitchen is the kitchen as written.
type Kitchen struct {
	Measures       string       `json:"measures,omitzero"`
	AltitudeM      *float64     `json:"altitude_m,omitzero"`
	GriddleC       *float64     `json:"griddle_c,omitzero"`
	EggG           *float64     `json:"egg_g,omitzero"`
	ScaleStepG     *float64     `json:"scale_step_g,omitzero"`
	LeavenerStepG  *float64     `json:"leavener_step_g,omitzero"`
	RestMin        *float64     `json:"rest_min,omitzero"`
	CalibrationOwn *Calibration `json:"calibration,omitzero"`

	owned *OwnKitchen // of the kitchen that is cooked in, not of the document
}

// Variation is the variation document.
type Variation struct {
	Format    string       `json:"format"`
	Version   int          `json:"version"`
	Name      string       `json:"name"`
	Form      string       `json:"form"`
	Base      *BasePart    `json:"base"`
	Additions []Addition   `json:"additions,omitzero"`
	Reference *Reference   `json:"reference,omitzero"`
	Offset    *Offset      `json:"offset,omitzero"`
	Portion   *Portion     `json:"portion,omitzero"`
	Parts     []Part       `json:"parts,omitzero"`
	Said      *Said        `json:"said,omitzero"`
	Cook      *Cooking     `json:"cook,omitzero"`
	Kitchen   *Kitchen     `json:"kitchen,omitzero"`
	Pantry    []PantryItem `json:"pantry,omitzero"`
}

// Base is the base document.
type Base struct {
	Format     string  `json:"format"`
	Version    int     `json:"version"`
	Name       string  `json:"name"`
	Form       string  `json:"form"`
	Style      string  `json:"style,omitzero"`
	School     *School `json:"school,omitzero"`
	Lines      []Line  `json:"lines"`
	SourceNote string  `json:"source_note,omitzero"`
	SourceText string  `json:"source_text,omitzero"`
	Parts      []Part  `json:"parts,omitzero"` // that every variation of it begins with
}

// DecodeVariation reads a variation document. The error is Problems.
func DecodeVariation(data []byte) (Variation, error) {
	var v Variation
	if err := Strict(data, &v); err != nil {
		return Variation{}, err
	}
	return v, v.header()
}

func (v Variation) header() error {
	return headerUpTo(withDoubts, v.Format, v.Version, VariationFormat)
}

// Versions of a variation and a base. In the second references, targets, parts, a text, what a recipe said and
// the wishes for the plate are new; in the third a line that is only taken for its ingredient, how wide a portion is
// spread, one cake, the heat in steps and the cook's own minutes.
const (
	withReferences = 2
	withDoubts     = 3
)

// doubtful tells whether any of the lines is only taken for its ingredient.
// third tells whether lines have what came with the third version.
func third(lines []Line) bool {
	return slices.ContainsFunc(lines, func(l Line) bool { return l.AsRead != "" || l.Fill != "" })
}

func thirdAdditions(additions []Addition) bool {
	return slices.ContainsFunc(additions, func(a Addition) bool { return a.AsRead != "" || a.Fill != "" })
}

// DecodeBase reads a base document. The error is Problems.
func DecodeBase(data []byte) (Base, error) {
	var b Base
	if err := Strict(data, &b); err != nil {
		return Base{}, err
	}
	return b, headerUpTo(withDoubts, b.Format, b.Version, BaseFormat)
}

func header(format string, version int, want string) error {
	return headerUpTo(Version, format, version, want)
}

// headerUpTo accepts every version up to the newest.
func headerUpTo(newest int, format string, version int, want string) error {
	switch {
	case format == "":
		return Refusal("/format", "missing", "Say what this is: \"format\":%q.", want)
	case format != want:
		return Refusal("/format", "wrong_format", "This is %q; %q is wanted here.", format, want)
	case version < Version || version > newest:
		return Refusal("/version", "wrong_version", "Version %d is not known here; %d is.", version, newest)
	}
	return nil
}

// Encode writes the document; as a later version only when it uses what is new there, so that an older
// program reads whatever it can.
func (v Variation) Encode() ([]byte, error) {
	v.Version = v.needs()
	return encode(v)
}

// needs is the version that the document takes.
func (v Variation) needs() int {
	switch {
	case v.needsThird():
		return withDoubts
	case v.needsSecond():
		return withReferences
	}
	return Version
}

// needsThird tells whether a variation has what came with the third version: a spread, one cake, minutes of its own, what is doubtful.
func (v Variation) needsThird() bool {
	return v.Cook != nil && (len(v.Cook.Heat) > 0 || len(v.Cook.Own) > 0) ||
		v.Portion != nil && (v.Portion.Spread != nil || v.Portion.OneCake) ||
		v.Base != nil && (third(v.Base.Lines) || third(v.Base.OwnLines)) ||
		thirdAdditions(v.Additions) || v.Reference != nil && thirdAdditions(v.Reference.Additions)
}

// needsSecond tells whether it has what came with the second: where it was read, what it is held to, the cooking, parts, targets.
func (v Variation) needsSecond() bool {
	return v.Base != nil && (v.Base.SourceText != "" || len(v.Base.OwnLines) > 0) ||
		v.Reference != nil || v.Said != nil || v.Cook != nil || len(v.Parts) > 0 || v.Offset != nil && v.Offset.Targets != nil
}

// Encode writes the document; as a later version only when it uses what is new there.
func (b Base) Encode() ([]byte, error) {
	b.Version = b.needs()
	return encode(b)
}

// needs is the version that the document takes.
func (b Base) needs() int {
	if third(b.Lines) {
		return withDoubts
	}
	if b.SourceText != "" || len(b.Parts) > 0 {
		return withReferences
	}
	return Version
}

// Variation makes the plain variation of a base: no additions, the form's usual portion.
func (b Base) Variation() Variation {
	return Variation{
		Format: VariationFormat, Version: Version, Name: b.Name, Form: b.Form, Parts: b.Parts,
		Base: &BasePart{Name: b.Name, Style: b.Style, School: b.School, Lines: b.Lines, SourceNote: b.SourceNote, SourceText: b.SourceText},
	}
}

// reader gathers what is wrong while a document is turned into the domain.
type reader struct {
	p     Problems
	table *food.Table
	ids   map[string]bool
	taken map[[2]string]*food.Ingredient // by id and words: what something was only taken for
}

// choice reads one of a few words; empty takes the default.
func choice[T ~string](r *reader, at, text string, all []T, def T, what string) T {
	if text == "" && def != "" {
		return def
	}
	v := T(text)
	if text == "" {
		r.p.Add(at, "missing", "Say which %s: %s.", what, words(all))
	} else if !slices.Contains(all, v) {
		r.p.Add(at, "unknown_choice", "“%s” is not a %s. Use one of %s.", text, what, words(all))
	}
	return v
}

func words[T ~string](all []T) string {
	s := make([]string, len(all))
	for i, w := range all {
		s[i] = string(w)
	}
	return strings.Join(s, ", ")
}

// within reads an optional number inside bounds.
func (r *reader) within(at string, v *float64, low, high, def float64, what string) float64 {
	if v == nil {
		return def
	}
	if !(*v >= low && *v <= high) {
		r.p.Add(at, "out_of_range", "%s must lie between %g and %g.", what, low, high)
	}
	return *v
}

// above reads an optional number that must be above zero.
func (r *reader) above(at string, v *float64, what string) float64 {
	if v == nil {
		return 0
	}
	if !(*v > 0) {
		r.p.Add(at, "not_positive", "%s must be above zero.", what)
	}
	return *v
}

func (r *reader) line(at string, l Line, id string) (batter.Line, bool) {
	if l.ID != "" {
		id = l.ID
	}
	if len(id) > 64 {
		r.p.Add(at+"/id", "too_long", "The id is longer than 64 characters.")
	}
	if r.ids[id] {
		r.p.Add(at+"/id", "duplicate", "The id “%s” stands on two lines.", id)
	}
	r.ids[id] = true
	in := r.table.ByID(l.Ingredient)
	switch {
	case l.Ingredient == "":
		r.p.Add(at+"/ingredient", "missing", "Say which ingredient this line is.")
		return batter.Line{}, false
	case in == nil:
		r.p.Add(at+"/ingredient", "unknown_ingredient", "There is no ingredient “%s” in the pantry. Search for it by name and use the id that is shown.", clip(l.Ingredient))
		return batter.Line{}, false
	case l.Amount == nil:
		r.p.Add(at+"/amount", "missing", "Say how much %s.", in.Name)
		return batter.Line{}, false
	}
	if l.AsRead != "" {
		in = r.doubted(at, in, l.AsRead)
	}
	return batter.Line{
		ID: id, Ingredient: in, Amount: *l.Amount, Locked: l.Locked,
		Unit:   choice(r, at+"/unit", l.Unit, measure.Units, "", "unit"),
		Role:   choice(r, at+"/role", l.Role, food.Roles, in.Role, "role"),
		Method: choice(r, at+"/flour_method", l.FlourMethod, measure.FlourMethods, measure.FlourMethods[0], "way to measure flour"),
		Fill:   choice(r, at+"/fill", l.Fill, measure.Fullnesses, measure.Level, "way to fill a spoon"),
		CanG:   r.above(at+"/size_g", l.SizeG, "The size of the can"),
		CanML:  r.above(at+"/size_ml", l.SizeML, "The size of the can"),
	}, true
}

// doubted is an ingredient that a recipe's words were only taken for; the same words give the same one.
func (r *reader) doubted(at string, in *food.Ingredient, words string) *food.Ingredient {
	if len(words) > maxPartText {
		r.p.Add(at+"/as_read", "too_long", "What the recipe called it is told in at most %d characters.", maxPartText)
		return in
	}
	key := [2]string{in.ID, words}
	if r.taken == nil {
		r.taken = map[[2]string]*food.Ingredient{}
	}
	if r.taken[key] == nil {
		one := *in
		one.Doubt = words
		r.taken[key] = &one
	}
	return r.taken[key]
}

func clip(s string) string {
	if r := []rune(s); len(r) > 60 {
		return string(r[:60]) + "…"
	}
	return s
}

func (r *reader) lines(at string, lines []Line) []batter.Line {
	var out []batter.Line
	for i, l := range lines {
		if b, ok := r.line(fmt.Sprintf("%s/%d", at, i), l, fmt.Sprintf("b%d", i+1)); ok {
			out = append(out, b)
		}
	}
	return out
}

func (r *reader) school(at string, s *School) batter.School {
	out := batter.School{RestMin: math.NaN()}
	if s == nil {
		return out
	}
	out.Lumps, out.Dairy, out.Eggs, out.PanFat, out.Crisp = s.Lumps, s.Dairy, s.Eggs, s.PanFat, s.Crisp
	if s.Bowls != "" {
		out.Bowls = choice(r, at+"/bowls", s.Bowls, batter.AllBowls, "", "way to use the bowls")
	}
	out.RestMin = r.within(at+"/rest_min", s.RestMin, 0, maxRestMin, out.RestMin, "The rest in minutes")
	return out
}

// Domain turns a document into the domain, with the kitchen that it names. Ingredients are
// looked up in the table. The error is Problems and names every field that is wrong.
func (v Variation) Domain(s Setting) (batter.Variation, batter.Kitchen, error) {
	r := &reader{table: s.Table, ids: map[string]bool{}}
	r.pantry(v.Pantry, s.Today)
	v = v.in(s.Kitchen)
	out := batter.Variation{Name: v.Name, Form: choice(r, "/form", v.Form, batter.Forms, "", "form")}
	if v.Base == nil {
		r.p.Add("/base", "missing", "Give the base that the additions go into.")
		return batter.Variation{}, batter.Kitchen{}, r.p
	}
	if n := len(v.Base.Lines) + len(v.Additions); n > batter.MaxLines {
		r.p.Add("/additions", "too_many", "%d lines and additions are too many; %d is the most.", n, batter.MaxLines)
		return batter.Variation{}, batter.Kitchen{}, r.p
	}
	out.Base = batter.Base{Name: v.Base.Name, Lines: r.lines("/base/lines", v.Base.Lines)}
	if v.Base.Style != "" {
		out.Base.Style = choice(r, "/base/style", v.Base.Style, batter.Styles, "", "style")
	}
	out.Base.School = r.school("/base/school", v.Base.School)
	if len(v.Base.SourceText) > 64 {
		r.p.Add("/base/source_text", "too_long", "The id is longer than 64 characters.")
	}
	out.Additions = r.additions("/additions", v.Additions)
	out.Reference = r.reference(v.Reference)
	out.Reference.Lines = r.ownLines(v.Base.OwnLines)
	out.Offset = r.offset(v.Offset)
	k := r.kitchen(v.Kitchen)
	on := ""
	if v.Cook != nil {
		on = v.Cook.On
	}
	out.Portion = r.portion(v.Portion, out.Form, k, on)
	out.Beside = r.parts(v.Parts, k)
	out.Cooking = r.cooking(v.Cook, v.Kitchen)
	r.claims(v.Said)
	if v.Said != nil && v.Said.Minutes != nil {
		out.Cooking.SaidMinutes = *v.Said.Minutes
	}
	if len(r.p) > 0 {
		return batter.Variation{}, batter.Kitchen{}, r.p
	}
	return out, k, pointed(out.Check(k).OrNil(), "")
}

// parts reads what stands beside the batter.
func (r *reader) parts(parts []Part, k batter.Kitchen) []batter.Beside {
	if len(parts) > batter.MaxLines {
		r.p.Add("/parts", "too_many", "%d parts beside the batter are too many; %d is the most.", len(parts), batter.MaxLines)
		return nil
	}
	var out []batter.Beside
	for i, p := range parts {
		at := fmt.Sprintf("/parts/%d", i)
		b := batter.Beside{Place: choice(r, at+"/kind", p.Kind, batter.Places, "", "place"), Text: strings.TrimSpace(p.Text)}
		if b.EachG = r.above(at+"/each_g", p.EachG, "What is on a portion, in g,"); b.EachG > MaxEachG {
			r.p.Add(at+"/each_g", "out_of_range", "More than %d g on a portion is a slip of the keys.", MaxEachG)
		}
		switch {
		case b.Text == "":
			r.p.Add(at+"/text", "missing", "Say what it is.")
		case len(b.Text) > maxPartText:
			r.p.Add(at+"/text", "too_long", "What stands beside the batter is told in at most %d characters.", maxPartText)
		}
		if len(p.Lines) > batter.MaxLines {
			r.p.Add(at+"/lines", "too_many", "%d lines are too many; %d is the most.", len(p.Lines), batter.MaxLines)
			continue
		}
		for j, l := range p.Lines {
			in := r.table.ByID(l.Ingredient)
			if in == nil {
				r.p.Add(fmt.Sprintf("%s/lines/%d/ingredient", at, j), "unknown_ingredient", "There is no ingredient “%s” in the pantry. Search for it by name and use the id that is shown.", clip(l.Ingredient))
				continue
			}
			r.above(fmt.Sprintf("%s/lines/%d/amount", at, j), l.Amount, "The amount")
			if l.Unit != "" {
				choice(r, fmt.Sprintf("%s/lines/%d/unit", at, j), l.Unit, measure.Units, "", "unit")
			}
			grams := math.NaN()
			if l.Amount != nil && l.Unit != "" {
				if g, err := k.Grams(batter.Line{Ingredient: in, Amount: *l.Amount, Unit: measure.Unit(l.Unit)}); err == nil {
					grams = g
				}
			}
			b.Uses, b.Grams = append(b.Uses, in), append(b.Grams, grams)
		}
		if p.Sauce != nil {
			r.sauce(at, p, &b, k)
		}
		out = append(out, b)
	}
	return out
}

// sauce reads a part that is of the house.
func (r *reader) sauce(at string, p Part, b *batter.Beside, k batter.Kitchen) {
	if len(p.Lines) > 0 {
		r.p.Add(at+"/lines", "two_sources", "A sauce of the house brings its own lines: leave these out.")
	}
	if strings.TrimSpace(p.Sauce.Name) == "" {
		r.p.Add(at+"/sauce/name", "missing", "Name the sauce.")
	}
	worked, err := p.Sauce.work(at+"/sauce", r.table, k)
	var wrong Problems
	if errors.As(err, &wrong) {
		r.p = append(r.p, wrong...)
		return
	}
	b.Uses, b.Grams, b.House = worked.Used(), nil, p.Sauce.house(worked, r.table)
}

// cooking reads the wishes for the plate.
func (r *reader) cooking(c *Cooking, k *Kitchen) batter.Cooking {
	var out batter.Cooking
	if k != nil && k.GriddleC != nil {
		out.PlateC = *k.GriddleC
	}
	if c == nil {
		return out
	}
	if len(c.On) > maxID {
		r.p.Add("/cook/on", "too_long", "The id is longer than %d characters.", maxID)
	}
	out.On, out.HotStart, out.Lacy = c.On, c.HotStart, c.Lacy
	if c.Colour != "" {
		out.Colour = choice(r, "/cook/colour", c.Colour, batter.Colours, "", "colour")
	}
	if c.From != "" {
		out.From = choice(r, "/cook/from", c.From, batter.Froms, "", "place that the batter comes from")
	}
	if c.Fat != "" {
		out.Fat = choice(r, "/cook/fat", c.Fat, batter.Fats, "", "fat for the pan")
	}
	if c.When != "" {
		out.When = choice(r, "/cook/when", c.When, batter.Whens, "", "time to grease the plate")
	}
	out.Heat, out.Own = r.heatSteps(c), r.own(c.Own)
	return out
}

// heatSteps reads the heat in steps: each moment once, in their order, in °C or by a mark.
func (r *reader) heatSteps(c *Cooking) (out []batter.HeatStep) {
	if len(c.Heat) > 0 && c.HotStart {
		r.p.Add("/cook/hot_start", "two_ways", "The heat in steps says where the plate stands: leave the hot start out.")
	}
	last := -1
	for i, h := range c.Heat {
		at := fmt.Sprintf("/cook/heat/%d", i)
		step := batter.HeatStep{At: choice(r, at+"/at", h.At, batter.HeatAts, "", "moment"), C: r.within(at+"/c", h.C, batter.HeatReach.Low, batter.HeatReach.High, 0, "The heat, in °C,"), Mark: r.mark(at, h.C, h.Mark)}
		if h.C == nil && step.Mark == "" {
			r.p.Add(at+"/c", "missing", "Say the heat in °C, or the mark on the dial.")
		}
		if now := slices.Index(batter.HeatAts, step.At); now >= 0 && now <= last {
			r.p.Add(at+"/at", "order", "Each moment once, in this order: mixing, pour, flip.")
		} else {
			last = now
		}
		out = append(out, step)
	}
	return out
}

// mark reads a mark of a dial, which stands instead of °C.
func (r *reader) mark(at string, c *float64, mark string) string {
	mark = strings.TrimSpace(mark)
	switch {
	case mark != "" && c != nil:
		r.p.Add(at+"/mark", "two_ways", "Say the heat in °C or by a mark, not both.")
	case len(mark) > maxID:
		r.p.Add(at+"/mark", "too_long", "A mark is longer than %d characters.", maxID)
	}
	return mark
}

// own reads the cook's own minutes, once a plate or iron.
func (r *reader) own(own []OwnMinutes) (out []batter.OwnMinutes) {
	if len(own) > maxOwn {
		r.p.Add("/cook/own", "too_many", "Own minutes for %d plates are too many; %d is the most.", len(own), maxOwn)
		return nil
	}
	for i, o := range own {
		at := fmt.Sprintf("/cook/own/%d", i)
		if len(o.On) > maxID {
			r.p.Add(at+"/on", "too_long", "The id is longer than %d characters.", maxID)
		}
		if slices.ContainsFunc(out, func(x batter.OwnMinutes) bool { return x.On == o.On }) {
			r.p.Add(at+"/on", "twice", "There are own minutes for this plate already.")
		}
		if o.FirstS == nil {
			r.p.Add(at+"/first_s", "missing", "Say the time of the first side, in seconds.")
		}
		if o.Day != "" {
			if _, err := time.Parse(time.DateOnly, o.Day); err != nil {
				r.p.Add(at+"/day", "wrong_date", "Give the day as 2026-11-29.")
			}
		}
		out = append(out, batter.OwnMinutes{
			On: o.On, FirstS: r.within(at+"/first_s", o.FirstS, batter.SideReach.Low, batter.SideReach.High, 0, "The first side, in seconds,"),
			SecondS: r.within(at+"/second_s", o.SecondS, batter.SideReach.Low, batter.SideReach.High, 0, "The second side, in seconds,"),
			C:       r.within(at+"/c", o.C, batter.HeatReach.Low, batter.HeatReach.High, 0, "The heat, in °C,"), Mark: r.mark(at, o.C, o.Mark),
			PouredMM: r.within(at+"/poured_mm", o.PouredMM, 0.1, maxPouredMM, 0, "How thick it was poured, in mm,"),
			From:     choice(r, at+"/from", o.From, batter.OwnFroms, "", "source"), Day: o.Day,
		})
	}
	return out
}

const maxID = 64 // characters

func (r *reader) claims(s *Said) {
	if s == nil {
		return
	}
	r.above("/said/count", s.Count, "The number that the recipe makes")
	r.above("/said/volume_ml", s.VolumeML, "The portion that the recipe names")
	r.above("/said/minutes", s.Minutes, "The minutes a side that the recipe names")
	if len(s.Text) > maxSaid {
		r.p.Add("/said/text", "too_long", "What the recipe said is longer than %d characters.", maxSaid)
	}
}

func (r *reader) additions(where string, additions []Addition) []batter.Addition {
	var out []batter.Addition
	for i, a := range additions {
		at := fmt.Sprintf("%s/%d", where, i)
		l, ok := r.line(at, a.Line, fmt.Sprintf("a%d", i+1))
		if !ok {
			continue
		}
		out = append(out, batter.Addition{
			Line:        l,
			PlacedEach:  r.within(at+"/placed_per_portion", a.PlacedPerPortion, 0, maxPlaced, 0, "Pieces on each portion"),
			ShareOfBowl: r.within(at+"/share_of_bowl", a.ShareOfBowl, minShare, 1, 1, "The share of the bowl"),
			Prep:        r.treatment(at, a),
			Stage:       choice(r, at+"/stage", a.Stage, batter.Stages, batter.UsualStage(l.Ingredient), "stage"),
		})
	}
	return out
}

// ownLines reads the base as it was before something stood in for a line; ids may be the same as the lines'.
func (r *reader) ownLines(lines []Line) []batter.Line {
	if len(lines) > batter.MaxLines {
		r.p.Add("/base/own_lines", "too_many", "%d lines are too many; %d is the most.", len(lines), batter.MaxLines)
		return nil
	}
	if len(lines) == 0 {
		return nil
	}
	own := r.ids
	r.ids = map[string]bool{}
	defer func() { r.ids = own }()
	return r.lines("/base/own_lines", lines)
}

// reference reads the bowl that targets are taken from. Its lines are others than those that are
// weighed, so their ids may be the same.
func (r *reader) reference(from *Reference) batter.Reference {
	if from == nil {
		return batter.Reference{}
	}
	kind := choice(r, "/reference/kind", string(from.Kind), []ReferenceKind{PlainReference, AsWrittenReference}, "", "reference")
	if len(from.Additions) > batter.MaxLines {
		r.p.Add("/reference/additions", "too_many", "%d additions are too many; %d is the most.", len(from.Additions), batter.MaxLines)
		return batter.Reference{}
	}
	if kind != AsWrittenReference {
		return batter.Reference{}
	}
	own := r.ids
	r.ids = map[string]bool{}
	defer func() { r.ids = own }()
	return batter.Reference{AsWritten: true, Additions: r.additions("/reference/additions", from.Additions)}
}

// mayRunLow are the roles that a cook may allow below their floor.
var mayRunLow = []food.Role{food.RoleLiquid, food.RoleFlour, food.RoleFat}

func (r *reader) offset(o *Offset) batter.Offset {
	out := batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: batter.BySweetness, Hold: batter.DefaultHold}
	if o == nil {
		return out
	}
	out.Strategy = choice(r, "/offset/strategy", o.Strategy, batter.Strategies, batter.HoldBackLiquid, "way to offset")
	out.SugarBy = choice(r, "/offset/sugar_by", o.SugarBy, []batter.SugarBy{batter.BySweetness, batter.ByTotalSugars}, batter.BySweetness, "way to count sugar")
	if o.AllowLowLiquid {
		out.AllowLow = append(out.AllowLow, food.RoleLiquid)
	}
	if o.Targets != nil {
		for _, h := range batter.Pulled {
			if v := o.Targets.of(h); v != nil {
				if out.Targets == nil {
					out.Targets = batter.Targets{}
				}
				out.Targets[h] = *v
			}
		}
	}
	for i, role := range o.AllowLow {
		out.AllowLow = append(out.AllowLow, choice(r, fmt.Sprintf("/offset/allow_low/%d", i), role, mayRunLow, "", "thing that may run low"))
	}
	if o.Hold == nil {
		return out
	}
	out.Hold = nil
	for i, h := range o.Hold {
		at := fmt.Sprintf("/offset/hold/%d", i)
		hold := choice(r, at, h, batter.Holds, "", "property to hold")
		if slices.Contains(out.Hold, hold) {
			r.p.Add(at, "duplicate", "“%s” is named twice.", h)
		}
		out.Hold = append(out.Hold, hold)
	}
	return out
}

// usualML is the portion in ml where nobody names one: what the iron takes, else the form's usual one.
func usualML(f batter.Form, k batter.Kitchen, on string) float64 {
	if i, ok := k.Iron(on); ok && f == batter.Waffle {
		return math.Min(batter.MaxPortionML, math.Max(batter.MinPortionML, portion.UsualFill(i)))
	}
	return batter.DefaultPortionML(f)
}

// portion reads the measure of a portion: ml, a scoop by its number, or one of the kitchen's
// own ladles. The first that is given counts.
func (r *reader) portion(p *Portion, f batter.Form, k batter.Kitchen, on string) batter.Portion {
	out := batter.Portion{VolumeML: usualML(f, k, on)}
	if p == nil {
		return out
	}
	if out.OneCake = p.OneCake; p.OneCake {
		alone := *p
		if alone.OneCake = false; alone != (Portion{}) {
			r.p.Add("/portion/one_cake", "two_ways", "One cake is the whole bowl: leave volume, count, ladle and width out.")
		}
	}
	if p.Count != nil {
		out.Count = int(r.within("/portion/count", p.Count, 1, portion.MaxPortions, 1, "The number of portions"))
		if float64(out.Count) != *p.Count {
			r.p.Add("/portion/count", "not_whole", "The number of portions must be whole.")
		}
	}
	switch {
	case p.VolumeML != nil:
		out.VolumeML = r.within("/portion/volume_ml", p.VolumeML, batter.MinPortionML, batter.MaxPortionML, out.VolumeML, "A portion in ml")
	case p.ScoopNo != nil:
		if n := r.within("/portion/scoop_no", p.ScoopNo, 1, 100, 0, "The number of the scoop"); n >= 1 {
			out.VolumeML = portion.ScoopML(n)
		}
	case p.LadleID != "":
		i := slices.IndexFunc(k.Ladles, func(l batter.Ladle) bool { return l.ID == p.LadleID })
		if i < 0 {
			r.p.Add("/portion/ladle_id", "unknown_ladle", "There is no ladle “%s” in this kitchen. Choose another, or give the portion in ml.", clip(p.LadleID))
		} else {
			out.VolumeML = k.Ladles[i].VolumeML
		}
	}
	if s := p.Spread; s != nil {
		out.Spread.By = choice(r, "/portion/spread/by", s.By, batter.SpreadBys, batter.ByItself, "way to spread")
		switch {
		case out.Spread.By == batter.ByHand:
			out.Spread.ToMM = or(s.ToMM)
			r.need("/portion/spread/to_mm", s.ToMM, batter.LeastSpreadMM, batter.MostSpreadMM, "How wide it is spread, in mm,")
		case s.ToMM != nil:
			r.p.Add("/portion/spread/to_mm", "not_by_hand", "How wide is asked only where it is spread by hand.")
		}
	}
	return out
}

// Bounds of a kitchen; beyond them a figure is a slip of the keys (modelling choice).
const (
	minEggG, maxEggG     = 20, 150  // g
	minStepG, maxStepG   = 0.01, 50 // g
	minAltM, maxAltM     = -400, 5000
	minPlateC, maxPlateC = 80, 300
	maxRestMin           = 48 * 60 // min
	maxCount             = 5000
	maxPlaced            = 500  // pieces on one portion
	minShare             = 0.01 // of the bowl
)

func (r *reader) kitchen(k *Kitchen) batter.Kitchen {
	out := batter.DefaultKitchen()
	out.Shelf = r.table
	if k == nil {
		return out
	}
	if k.owned != nil {
		k.owned.into(&out)
	}
	if k.Measures != "" {
		st, ok := measure.Standards[k.Measures]
		if !ok {
			r.p.Add("/kitchen/measures", "unknown_choice", "“%s” is not a set of measures. Use one of metric, us, imperial, au.", clip(k.Measures))
		} else {
			st.Mug, st.Glass, st.Handful, st.Heaped = out.Measures.Mug, out.Measures.Glass, out.Measures.Handful, out.Measures.Heaped
			out.Measures = st
		}
	}
	out.EggG = r.within("/kitchen/egg_g", k.EggG, minEggG, maxEggG, out.EggG, "An egg without its shell in g")
	out.ScaleStep = r.within("/kitchen/scale_step_g", k.ScaleStepG, minStepG, maxStepG, out.ScaleStep, "The scale's step in g")
	out.LeavenStep = r.within("/kitchen/leavener_step_g", k.LeavenerStepG, minStepG, maxStepG, out.LeavenStep, "The fine scale's step in g")
	out.AltitudeM = r.within("/kitchen/altitude_m", k.AltitudeM, minAltM, maxAltM, 0, "The altitude in m")
	r.within("/kitchen/griddle_c", k.GriddleC, minPlateC, maxPlateC, 0, "The plate in °C")
	out.RestMin = r.within("/kitchen/rest_min", k.RestMin, 0, maxRestMin, out.RestMin, "The rest in minutes")
	if c := k.CalibrationOwn; c != nil {
		if c.C == nil || c.B == nil {
			r.p.Add("/kitchen/calibration", "missing", "A calibration needs both c and b.")
			return out
		}
		out.Calibration = flow.Calibration{
			C: r.within("/kitchen/calibration/c", c.C, 0, 8, 0, "c of the calibration"),
			B: r.within("/kitchen/calibration/b", c.B, 0.1, 8, 0, "b of the calibration"),
		}
	}
	return out
}

// Domain turns a base document into the plain variation of it, in a kitchen.
// The pointers in the error are those of the base document.
func (b Base) Domain(s Setting) (batter.Variation, batter.Kitchen, error) {
	v, k, err := b.Variation().Domain(s)
	var p Problems
	if e, ok := err.(Problems); ok {
		for _, q := range e {
			if q.Pointer == "/base/name" { // the same as /name
				continue
			}
			q.Pointer = strings.TrimPrefix(q.Pointer, "/base")
			p = append(p, q)
		}
	}
	return v, k, p.OrNil()
}
