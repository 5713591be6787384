package document

import (
	"errors"
	"fmt"
	"math"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/prep"
)

// PreparationWish asks what a preparation does. What is left out takes the usual figure.
type PreparationWish struct {
	Method     string   `json:"method"`
	From       string   `json:"from"`
	HaveG      *float64 `json:"have_g,omitzero"`
	WantG      *float64 `json:"want_g,omitzero"`
	Count      *float64 `json:"count,omitzero"`
	AsBought   bool     `json:"as_bought,omitzero"`
	RefusePct  *float64 `json:"refuse_pct,omitzero"`
	Cook       string   `json:"cook,omitzero"`
	Ripeness   string   `json:"ripeness,omitzero"`
	Minutes    *float64 `json:"minutes,omitzero"`
	Salt       bool     `json:"salt,omitzero"`
	SaltG      *float64 `json:"salt_g,omitzero"`
	With       string   `json:"with,omitzero"`
	WithG      *float64 `json:"with_g,omitzero"`
	LeavesG    *float64 `json:"leaves_g,omitzero"`
	Pressed    bool     `json:"pressed,omitzero"`
	TopUp      bool     `json:"top_up,omitzero"`
	TargetG    *float64 `json:"target_g,omitzero"`
	TargetML   *float64 `json:"target_ml,omitzero"`
	TargetBrix *float64 `json:"target_brix,omitzero"`
	AfterG     *float64 `json:"after_g,omitzero"`
	Brix       *float64 `json:"brix,omitzero"`
	SampleC    *float64 `json:"sample_c,omitzero"`
}

// Preparation is the answer: what went in, what left and joined, and the tub.
type Preparation struct {
	BeforeG  float64            `json:"before_g"`
	ProductG float64            `json:"product_g"`
	UsualG   float64            `json:"usual_g"`
	HaveG    float64            `json:"have_g"` // both on the kitchen's scale, to ask the other way round
	WantG    float64            `json:"want_g"`
	Before   Portions           `json:"before"`
	Product  Portions           `json:"product"`
	Added    []FlowJSON         `json:"added"`
	Left     []FlowJSON         `json:"left"`
	Brix     *float64           `json:"brix,omitzero"`
	Measured []string           `json:"measured"`
	KeepDays int                `json:"keeps_days"`
	Steps    []string           `json:"steps"`
	StandIn  *StandIn           `json:"stand_in,omitzero"`
	Shows    []food.ShownFigure `json:"shows"`
	Item     PantryItem         `json:"item"`
}

// StandIn is the row of the table that a tub can stand for.
type StandIn struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Portions divides a mass for a drawing [g].
type Portions struct {
	WaterG  float64 `json:"water_g"`
	SugarsG float64 `json:"sugars_g"`
	FatG    float64 `json:"fat_g"`
	SaltG   float64 `json:"salt_g"`
	OtherG  float64 `json:"other_g"`
}

// FlowJSON is a mass that left or joined. Item is there when it may be kept and used.
type FlowJSON struct {
	Kind  string      `json:"kind"`
	Name  string      `json:"name"`
	Grams float64     `json:"grams"`
	Parts Portions    `json:"parts"`
	Item  *PantryItem `json:"item,omitzero"`
}

func portionsOf(t food.Total) Portions {
	salt := t.Sodium * food.SaltTasted
	if salt < 0.005*t.Mass { // what is in the food itself is not worth a colour
		salt = 0
	}
	other := t.Mass - t.Water - t.Sugars - t.Fat - salt
	return Portions{(t.Water), (t.Sugars), (t.Fat), (salt), (math.Max(0, other))}
}

// Prepare works a preparation out. The error is Problems.
func Prepare(w PreparationWish, s Setting) (Preparation, error) {
	r := &reader{table: s.Table}
	j := prep.Job{
		Shelf: s.Table, Method: prep.Method(w.Method), From: r.ingredient("/from", w.From), HaveG: or(w.HaveG), WantG: or(w.WantG), Count: or(w.Count),
		AsBought: w.AsBought, RefusePct: w.RefusePct, Cook: prep.Cook(w.Cook), Ripeness: prep.Ripeness(w.Ripeness),
		Minutes: or(w.Minutes), Salt: w.Salt, SaltG: or(w.SaltG), WithG: or(w.WithG), LeavesG: or(w.LeavesG), Pressed: w.Pressed,
		TopUp: w.TopUp, TargetG: or(w.TargetG), TargetML: or(w.TargetML), TargetBrix: or(w.TargetBrix), AfterG: or(w.AfterG),
	}
	if w.With != "" {
		j.With = r.ingredient("/with", w.With)
	}
	j.Brix = r.atTwenty("/brix", w.Brix, w.SampleC)
	for at, v := range map[string]*float64{"/have_g": w.HaveG, "/want_g": w.WantG, "/after_g": w.AfterG, "/brix": w.Brix, "/count": w.Count} {
		if v != nil && !(*v > 0) {
			r.p.Add(at, "not_positive", "This must be above zero; leave it out when it was not measured.")
		}
	}
	if len(r.p) > 0 {
		return Preparation{}, r.p
	}
	done, err := prep.Work(j)
	if err != nil {
		return Preparation{}, refusalOf(err)
	}
	usual := done
	if j.AfterG > 0 {
		j.AfterG, j.Brix = 0, 0
		if usual, err = prep.Work(j); err != nil {
			return Preparation{}, refusalOf(err)
		}
	}
	return preparation(j, done, usual.ProductG, s), nil
}

// refusalOf turns a *prep.Problem into the error of a document.
func refusalOf(err error) error {
	var p *prep.Problem
	if errors.As(err, &p) {
		return Refusal("/"+p.Field, p.Code, "%s", p.Message)
	}
	return err
}

func (r *reader) ingredient(at, id string) *food.Ingredient {
	in := r.table.ByID(id)
	switch {
	case id == "":
		r.p.Add(at, "missing", "Say which ingredient.")
	case in == nil:
		r.p.Add(at, "unknown_ingredient", "There is no ingredient “%s” in the pantry.", clip(id))
	}
	return in
}

// atTwenty is a reading as it would be at 20 °C; without a temperature it was taken there.
func (r *reader) atTwenty(at string, brix, sampleC *float64) float64 {
	if brix == nil || sampleC == nil {
		return or(brix)
	}
	v, err := prep.AtTwenty(*brix, *sampleC)
	if err != nil {
		r.p.Add("/sample_c", "out_of_range", "%s", err)
	}
	return v
}

func preparation(j prep.Job, done prep.Result, usual float64, s Setting) Preparation {
	before := food.Whole([]food.Part{{Ingredient: j.From, Grams: done.BeforeG}})
	product := food.Whole([]food.Part{{Ingredient: done.Product, Grams: done.ProductG}})
	out := Preparation{
		BeforeG: (done.BeforeG), ProductG: (done.ProductG), UsualG: (usual), Before: portionsOf(before), Product: portionsOf(product),
		Added: []FlowJSON{}, Left: []FlowJSON{}, Measured: done.Measured, KeepDays: done.KeepDays, Steps: done.Steps,
	}
	step := batter.DefaultScaleStep * 1.0
	if s.Kitchen.ScaleStepG != nil {
		step = *s.Kitchen.ScaleStepG
	}
	out.HaveG, out.WantG = (measure.Round(done.BeforeG, step)), (measure.Round(done.ProductG, step))
	if j.Method == prep.Zest { // whole fruits: their juice is not in the table's zest
		out.Before = Portions{OtherG: (done.BeforeG)}
	}
	if done.Brix > 0 && done.Product.Water > 40 {
		out.Brix = &done.Brix
	}
	for _, f := range done.Added {
		out.Added = append(out.Added, flowJSON(f))
	}
	for _, f := range done.Left {
		g := flowJSON(f)
		if f.Kind == prep.Juice && f.Ingredient.ID != "water" && s.Table.ByID(f.Ingredient.ID) == nil {
			item := tub(f.Ingredient, "", f.Grams, done.KeepDays, done.Measured, s)
			g.Item = &item
		}
		out.Left = append(out.Left, g)
	}
	row := s.Table.ByID(done.StandIn)
	if row != nil && row.Own != nil && row.Own.Table != nil {
		row = row.Own.Table
	}
	if row != nil {
		out.StandIn = &StandIn{row.ID, row.Name}
	}
	out.Shows = food.Figures(done.Product, row)
	out.Item = tub(done.Product, j.Method.Done(), done.ProductG, done.KeepDays, done.Measured, s)
	return out
}

func flowJSON(f prep.Flow) FlowJSON {
	return FlowJSON{Kind: string(f.Kind), Name: f.Name, Grams: (f.Grams), Parts: portionsOf(f.Total())}
}

// tub is a prepared ingredient as a pantry item of today.
func tub(in *food.Ingredient, how string, grams float64, keepDays int, measured []string, s Setting) PantryItem {
	own := *in
	own.Own = nil
	p := ItemOf(&own)
	name := []string{in.Label()}
	if how != "" && !strings.HasSuffix(in.Label(), how) {
		name = append(name, how)
	}
	if !s.Today.IsZero() {
		name = append(name, s.Today.Format("2 Jan"))
	}
	p.Name = strings.Join(name, ", ")
	p.ID = Slug(strings.TrimSpace(p.Name + " " + s.Day()))
	p.MadeOn, p.MeasuredWhat, p.Measured, p.StandsFor = s.Day(), measured, len(measured) > 0, ""
	keep, stock := float64(keepDays), significant(grams)
	if keepDays > 0 {
		p.KeepsDays = &keep
	}
	p.StockG, p.PricePerKg = &stock, nil
	p.Source = "worked out from a preparation" + map[bool]string{true: "; measured: " + strings.Join(measured, ", "), false: " with usual yields"}[len(measured) > 0]
	return p
}

// MeasurementWish is what a cook measured of an ingredient: a reading, a cup weighed, pieces
// counted.
type MeasurementWish struct {
	Ingredient string   `json:"ingredient"`
	Brix       *float64 `json:"brix,omitzero"`
	SampleC    *float64 `json:"sample_c,omitzero"`
	CupML      *float64 `json:"cup_ml,omitzero"`
	CupG       *float64 `json:"cup_g,omitzero"`
	Pieces     *float64 `json:"pieces,omitzero"`
	PiecesG    *float64 `json:"pieces_g,omitzero"`
}

// Measure makes a pantry item of a measurement that stands for the ingredient. The error is
// Problems.
func Measure(w MeasurementWish, s Setting) (PantryItem, error) {
	r := &reader{table: s.Table}
	in := r.ingredient("/ingredient", w.Ingredient)
	if in == nil {
		return PantryItem{}, r.p
	}
	m := measuring{reader: r, in: in, item: PantryItem{MadeOn: s.Day(), Measured: true}}
	if w.Brix != nil {
		if err := m.brix(w, s); err != nil {
			return PantryItem{}, err
		}
	}
	if w.CupML != nil || w.CupG != nil {
		m.cup(w)
	}
	if w.Pieces != nil || w.PiecesG != nil {
		m.pieces(w)
	}
	p := m.item
	if len(p.MeasuredWhat) == 0 && len(r.p) == 0 {
		r.p.Add("", "missing", "Measure something: a reading, a cup, or ten pieces.")
	}
	p.Name = in.Label() + ", measured"
	p.StandsFor = in.ID
	if in.Own != nil && in.Own.Table == nil { // an own ingredient is changed itself, not stood for
		r.p.Add("/ingredient", "own", "%s is your own ingredient: change its figures.", in.Label())
	}
	p.ID = Slug(in.ID + " " + strings.Join(p.MeasuredWhat, " ") + " " + s.Day())
	if len(r.p) == 0 {
		_, err := p.Ingredient(s)
		return p, err
	}
	return PantryItem{}, r.p
}

// measuring is an ingredient while what a cook measured of it becomes an item.
type measuring struct {
	*reader
	in   *food.Ingredient
	item PantryItem
}

// has puts a figure into the item, to the figures that it was measured with.
func (m *measuring) has(to **float64, v float64) {
	v = significant(v)
	*to = &v
}

// brix makes the item what a reading of it says.
func (m *measuring) brix(w MeasurementWish, s Setting) error {
	brix := m.atTwenty("/brix", w.Brix, w.SampleC)
	if len(m.p) > 0 {
		return m.p
	}
	read, err := prep.WithBrix(m.in, brix)
	if err != nil {
		return refusalOf(err)
	}
	own := *read
	own.Own = nil
	m.item = ItemOf(&own)
	p := &m.item
	p.Group, p.Role, p.MadeOn, p.Measured, p.PricePerKg, p.StockG = "", "", s.Day(), true, nil, nil
	p.Source = fmt.Sprintf("measured: %.4g °Brix at 20 °C", brix)
	p.MeasuredWhat = append(p.MeasuredWhat, "brix")
	return nil
}

// cup takes the density of a cup that was weighed.
func (m *measuring) cup(w MeasurementWish) {
	ml, g := m.above("/cup_ml", w.CupML, "The cup in ml"), m.above("/cup_g", w.CupG, "What it weighs in g")
	switch density := g / ml; {
	case w.CupML == nil || w.CupG == nil:
		m.p.Add("/cup_g", "missing", "A cup weighed takes two figures: its ml, and the g in it.")
	case !(density >= 0.05 && density <= 3):
		m.p.Add("/cup_g", "out_of_range", "%.4g g in %.4g ml cannot be: was the cup weighed with it?", g, ml)
	default:
		m.has(&m.item.Density, density)
		m.item.MeasuredWhat = append(m.item.MeasuredWhat, "cup")
	}
}

// pieces takes the size of pieces that were counted and weighed.
func (m *measuring) pieces(w MeasurementWish) {
	n, g := m.above("/pieces", w.Pieces, "The number of pieces"), m.above("/pieces_g", w.PiecesG, "Their weight in g")
	switch {
	case w.Pieces == nil || w.PiecesG == nil:
		m.p.Add("/pieces_g", "missing", "Counting takes two figures: how many pieces, and what they weigh together.")
	case m.in.Piece.MassG <= 0:
		m.p.Add("/pieces", "no_pieces", "%s has no pieces to count.", m.in.Label())
	case n > 0 && (g/n < 0.001 || g/n > 200):
		m.p.Add("/pieces_g", "out_of_range", "A piece of %.3g g cannot be. Weigh ten together.", g/n)
	default:
		counted := prep.Counted(m.in, n, g)
		m.has(&m.item.PieceMassG, counted.Piece.MassG)
		m.has(&m.item.PieceLengthMM, counted.Piece.LengthMM)
		if counted.Piece.WidthMM > 0 {
			m.has(&m.item.PieceWidthMM, counted.Piece.WidthMM)
			m.has(&m.item.PieceHeightMM, counted.Piece.HeightMM)
		}
		m.item.MeasuredWhat = append(m.item.MeasuredWhat, "pieces")
	}
}

// LabelWish is what a pack states per 100 g, and what is most like it.
type LabelWish struct {
	Name          string   `json:"name"`
	Like          string   `json:"like"`
	EnergyKcal    *float64 `json:"energy_kcal,omitzero"`
	FatG          *float64 `json:"fat_g,omitzero"`
	CarbohydrateG *float64 `json:"carbohydrate_g,omitzero"`
	SugarsG       *float64 `json:"sugars_g,omitzero"`
	FibreG        *float64 `json:"fibre_g,omitzero"`
	ProteinG      *float64 `json:"protein_g,omitzero"`
	SaltG         *float64 `json:"salt_g,omitzero"`
	Allergens     []string `json:"allergens,omitzero"`
}

// FromLabel makes a pantry item of a pack's figures. The error is Problems.
func FromLabel(w LabelWish, s Setting) (PantryItem, error) {
	r := &reader{table: s.Table}
	r.named("", strings.TrimSpace(w.Name))
	like := r.ingredient("/like", w.Like)
	if len(r.p) > 0 {
		return PantryItem{}, r.p
	}
	stated := func(v *float64) float64 {
		if v == nil {
			return math.NaN()
		}
		return *v
	}
	in, err := food.FromLabel(strings.TrimSpace(w.Name), food.Label{
		Energy: stated(w.EnergyKcal), Fat: stated(w.FatG), Carbohydrate: stated(w.CarbohydrateG), Sugars: stated(w.SugarsG),
		Fibre: stated(w.FibreG), Protein: stated(w.ProteinG), Salt: stated(w.SaltG),
	}, like)
	if err != nil {
		text := strings.Join(strings.Split(err.Error(), "\n"), "; ")
		return PantryItem{}, Refusal("", "impossible", "%s.", strings.ToUpper(text[:1])+text[1:])
	}
	own := *in
	own.Own = nil
	p := ItemOf(&own)
	p.ID, p.Name, p.Estimated, p.Allergens, p.MadeOn = Slug(w.Name), strings.TrimSpace(w.Name), in.Own.Estimated, w.Allergens, ""
	p.PricePerKg, p.StockG = nil, nil
	if w.Allergens == nil {
		p.Allergens = like.Allergens
		p.Estimated = append(p.Estimated, "allergens")
	}
	_, err = p.Ingredient(s)
	return p, err
}
