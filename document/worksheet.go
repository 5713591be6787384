package document

import (
	"context"
	"math"

	"upbeatladle/core/portion"
	"upbeatladle/core/prep"
	"upbeatladle/core/worksheet"
)

type worksheetJSON struct {
	Format              string         `json:"format"`
	Version             int            `json:"version"`
	Lines               []lineJSON     `json:"lines"`
	Gauges              gaugesJSON     `json:"gauges"`
	Batter              batterJSON     `json:"batter"`
	Portion             portionJSON    `json:"portion"`
	Plate               *plateJSON     `json:"plate,omitzero"`
	NutritionPerPortion *nutritionJSON `json:"nutrition_per_portion,omitzero"`
	NutritionPer100G    *nutritionJSON `json:"nutrition_per_100g,omitzero"`
	Cost                *costJSON      `json:"cost,omitzero"`
	Allergens           []string       `json:"allergens"`
	AllergensEU         []string       `json:"allergens_eu"`
	AllergensUS         []string       `json:"allergens_us"`
	MayContain          []string       `json:"may_contain"`
	AllergenText        string         `json:"allergen_text"`
	Verdict             []verdictJSON  `json:"verdict"`
	Cautions            []cautionJSON  `json:"cautions"`
	Mixing              []mixingJSON   `json:"mixing"`
	Notes               []noteJSON     `json:"notes"`
	Held                []string       `json:"held"`
	Strategies          []strategyJSON `json:"strategies"`
	Working             []workingJSON  `json:"working"`
}

type nutritionJSON struct {
	EnergyKcal    num `json:"energy_kcal"`
	FatG          num `json:"fat_g"`
	CarbohydrateG num `json:"carbohydrate_g"`
	SugarsG       num `json:"sugars_g"`
	FibreG        num `json:"fibre_g"`
	ProteinG      num `json:"protein_g"`
	SaltG         num `json:"salt_g"`
	AlcoholG      num `json:"alcohol_g,omitzero"`
}

type mixingJSON struct {
	Step    int       `json:"step"`
	Text    string    `json:"text"`
	Code    string    `json:"code,omitzero"`
	Minutes *num      `json:"minutes,omitzero"`
	Skip    string    `json:"skip,omitzero"`
	Uses    []useJSON `json:"uses,omitzero"`
}

type useJSON struct {
	Line  string `json:"line"`
	Grams num    `json:"grams"`
}

type strategyJSON struct {
	Strategy  string        `json:"strategy"`
	Lead      string        `json:"lead"`
	Left      int           `json:"left"`
	Count     int           `json:"count"`
	Thickness num           `json:"thickness"`
	Sweetness num           `json:"sweetness"`
	Weigh     []weighedJSON `json:"weigh"`
}

type weighedJSON struct {
	ID     string `json:"id"`
	WeighG num    `json:"weigh_g"`
}

type workingJSON struct {
	For   string     `json:"for"`
	Text  string     `json:"text"`
	Terms []termJSON `json:"terms"`
}

type termJSON struct {
	Name   string `json:"name"`
	Value  num    `json:"value"`
	Unit   string `json:"unit"`
	Source string `json:"source"`
}

type colourJSON struct {
	Hex    string `json:"hex"`
	Reason string `json:"reason"`
}

type pourJSON struct {
	When          string `json:"when"`
	AtMin         *num   `json:"at_min,omitzero"`
	YieldStressPa num    `json:"yield_stress_pa"`
	Class         string `json:"class"`
}

type lineJSON struct {
	ID           string        `json:"id"`
	Ingredient   string        `json:"ingredient"`
	Name         string        `json:"name"`
	Label        string        `json:"label"`
	Role         string        `json:"role"`
	From         string        `json:"from"`
	Stage        string        `json:"stage,omitzero"`
	BaseG        *num          `json:"base_g,omitzero"`
	ActsLikeG    *num          `json:"acts_like_g,omitzero"`
	OffsetG      *num          `json:"offset_g,omitzero"`
	WeighG       num           `json:"weigh_g"`
	RoundedFromG num           `json:"rounded_from_g"`
	StepG        num           `json:"step_g"`
	Measure      string        `json:"measure,omitzero"`
	MeasureG     *num          `json:"measure_g,omitzero"`
	DryToG       *num          `json:"dry_to_g,omitzero"`
	Prepared     *preparedJSON `json:"prepared,omitzero"`
	Treatments   []choiceOf    `json:"treatments,omitzero"`
	Own          *OwnFigures   `json:"own,omitzero"`
	State        string        `json:"state"`
	Brings       *bringsJSON   `json:"brings,omitzero"`
	Allergens    []string      `json:"allergens,omitzero"`
	MayContain   []string      `json:"may_contain,omitzero"`
	Dose         *doseJSON     `json:"dose,omitzero"`
	Colour       string        `json:"colour,omitzero"`
}

type preparedJSON struct {
	Label string `json:"label"`
	Grams num    `json:"grams"`
	KeptG num    `json:"kept_g"`
}

// choiceOf is one of a few things to choose from.
type choiceOf struct {
	ID    string `json:"id"`
	Label string `json:"label"`
}

type costJSON struct {
	Batch   num      `json:"batch"`
	Portion num      `json:"portion"`
	Missing []string `json:"missing"`
}

type bringsJSON struct {
	WaterG  num `json:"water_g"`
	SugarsG num `json:"sugars_g"`
}

type doseJSON struct {
	LightG num    `json:"light_g"`
	UsualG num    `json:"usual_g"`
	BoldG  num    `json:"bold_g"`
	MaxG   num    `json:"max_g"`
	StepG  num    `json:"step_g"`
	Word   string `json:"word"`
}

type gaugesJSON struct {
	Thickness gaugeJSON `json:"thickness"`
	Moisture  gaugeJSON `json:"moisture"`
	Sweetness gaugeJSON `json:"sweetness"`
	Lift      gaugeJSON `json:"lift"`
	Tang      gaugeJSON `json:"tang"`
	Structure gaugeJSON `json:"structure"`
}

type gaugeJSON struct {
	Label         string `json:"label"`
	Unit          string `json:"unit"`
	Base          *num   `json:"base,omitzero"`
	WithAdditions *num   `json:"with_additions,omitzero"`
	After         *num   `json:"after,omitzero"`
	ByMeasure     *num   `json:"by_measure,omitzero"`
	Low           *num   `json:"low,omitzero"`
	High          *num   `json:"high,omitzero"`
	State         string `json:"state"`
	Verdict       string `json:"verdict"`
	VerdictText   string `json:"verdict_text"`
	LowText       string `json:"low_text"`
	HighText      string `json:"high_text"`
	Decimals      int    `json:"decimals"`
}

type batterJSON struct {
	MassG         num         `json:"mass_g"`
	FoldInG       *num        `json:"fold_in_g,omitzero"`
	VolumeML      num         `json:"volume_ml"`
	DensityGML    num         `json:"density_g_ml"`
	FlourG        num         `json:"flour_g"`
	WaterG        num         `json:"water_g"`
	SugarsG       num         `json:"sugars_g"`
	YieldStressPa *num        `json:"yield_stress_pa,omitzero"`
	PoursNowPa    *num        `json:"pours_now_pa,omitzero"`
	AfterRestPa   *num        `json:"after_rest_pa,omitzero"`
	Class         string      `json:"class,omitzero"`
	AcidMeq       num         `json:"acid_meq"`
	SodaToAcid    *num        `json:"soda_to_acid,omitzero"`
	GasML         *num        `json:"gas_ml_per_100g,omitzero"`
	Pours         []pourJSON  `json:"pours,omitzero"`
	Colour        *colourJSON `json:"colour,omitzero"`
}

type portionJSON struct {
	Count      int             `json:"count"`
	VolumeML   num             `json:"volume_ml"`
	MassG      num             `json:"mass_g"`
	DiameterMM *num            `json:"diameter_mm,omitzero"`
	PouredMM   *num            `json:"poured_mm,omitzero"`
	CookedMM   *num            `json:"cooked_mm,omitzero"`
	LeftOverML num             `json:"left_over_ml"`
	Reason     string          `json:"reason,omitzero"`
	Inclusions []inclusionJSON `json:"inclusions,omitzero"`
	Load       *loadJSON       `json:"load,omitzero"`
	Drawing    *drawingJSON    `json:"drawing,omitzero"`
	Choices    []choiceJSON    `json:"choices"`
}

type choiceJSON struct {
	LadleID    string `json:"ladle_id,omitzero"`
	ScoopNo    *num   `json:"scoop_no,omitzero"`
	Name       string `json:"name"`
	VolumeML   num    `json:"volume_ml"`
	Count      int    `json:"count"`
	DiameterMM *num   `json:"diameter_mm,omitzero"`
}

type inclusionJSON struct {
	Line        string `json:"line"`
	Ingredient  string `json:"ingredient"`
	Label       string `json:"label"`
	Placing     string `json:"placing"`
	Grams       num    `json:"grams"`
	PiecesMean  num    `json:"pieces_mean"`
	PiecesP10   int    `json:"pieces_p10"`
	PiecesP90   int    `json:"pieces_p90"`
	ChanceNone  num    `json:"chance_none"`
	FewerThan   int    `json:"fewer_than,omitzero"`
	ChanceFewer *num   `json:"chance_fewer,omitzero"`
	BiteShare   num    `json:"bite_share"`
	Sinks       bool   `json:"sinks"`
	Floats      bool   `json:"floats,omitzero"`
	SizeMM      num    `json:"size_mm"`
	ShareOfBowl num    `json:"share_of_bowl"`
	Cover       *num   `json:"cover,omitzero"`
	FirstToLast []num  `json:"first_to_last"`
	Histogram   []num  `json:"histogram"`
	HistFrom    int    `json:"histogram_from"`
	HistStep    int    `json:"histogram_step"`
	Colour      string `json:"colour,omitzero"`
}

type loadJSON struct {
	VolumeFraction num    `json:"volume_fraction"`
	Ceiling        num    `json:"ceiling"`
	Verdict        string `json:"verdict"`
	Text           string `json:"text"`
	OverG          *num   `json:"over_g,omitzero"`
}

type drawingJSON struct {
	Seed       uint64     `json:"seed"`
	WidthMM    num        `json:"width_mm"`
	LengthMM   *num       `json:"length_mm,omitzero"`
	BiteMM     num        `json:"bite_mm"`
	DrawnShare num        `json:"drawn_share"`
	Pieces     []spotJSON `json:"pieces"`
}

type spotJSON struct {
	XMM    num    `json:"x_mm"`
	YMM    num    `json:"y_mm"`
	ZMM    num    `json:"z_mm"`
	SizeMM num    `json:"size_mm"`
	Colour string `json:"colour"`
}

type plateJSON struct {
	Name      string `json:"name"`
	Fit       int    `json:"fit"`
	Rounds    int    `json:"rounds"`
	Fill      *num   `json:"fill,omitzero"`
	AdvisedML *num   `json:"advised_ml,omitzero"`
	WidthMM   num    `json:"width_mm"`
	DepthMM   num    `json:"depth_mm"`
	Round     bool   `json:"round,omitzero"`
}

type verdictJSON struct {
	Kind   string `json:"kind"`
	Lead   string `json:"lead"`
	Reason string `json:"reason"`
}

type cautionJSON struct {
	Code string `json:"code"`
	Text string `json:"text"`
}

type noteJSON struct {
	Code    string `json:"code"`
	Kind    string `json:"kind"`
	Pointer string `json:"pointer,omitzero"`
	Text    string `json:"text"`
}

// EncodeWorksheet writes the worksheet document.
func EncodeWorksheet(w worksheet.Worksheet) ([]byte, error) {
	out := worksheetJSON{
		Format: WorksheetFormat, Version: Version,
		Gauges: gaugesJSON{
			gauge(w.Gauge(worksheet.Thickness)), gauge(w.Gauge(worksheet.Moisture)), gauge(w.Gauge(worksheet.Sweetness)),
			gauge(w.Gauge(worksheet.Lifting)), gauge(w.Gauge(worksheet.Tang)), gauge(w.Gauge(worksheet.Structure)),
		},
		Batter:  batterOf(w.Batter),
		Portion: portionOf(w), Plate: plateOf(w.Plate),
		Allergens: some(w.Allergens.Contains), AllergensEU: some(w.Allergens.EU()), AllergensUS: some(w.Allergens.US()),
		MayContain: some(w.Allergens.May), AllergenText: w.Allergens.Text(),
		Verdict: []verdictJSON{}, Cautions: []cautionJSON{}, Mixing: []mixingJSON{}, Notes: []noteJSON{},
	}
	if c := w.Cost; c != nil {
		out.Cost = &costJSON{num(c.Batch), num(c.Portion), some(c.Missing)}
	}
	if n := w.Nutrition; n != nil {
		out.NutritionPerPortion, out.NutritionPer100G = nutritionOf(n.Portion), nutritionOf(n.Per100G)
	}
	for _, l := range w.Lines {
		out.Lines = append(out.Lines, lineOf(l))
	}
	for _, v := range w.Verdict {
		out.Verdict = append(out.Verdict, verdictJSON(v))
	}
	for _, c := range w.Cautions {
		out.Cautions = append(out.Cautions, cautionJSON(c))
	}
	for i, m := range w.Mixing {
		j := mixingJSON{Step: i + 1, Text: m.Text, Code: m.Code, Skip: m.Skip}
		if m.Minutes > 0 {
			j.Minutes = ptr(&m.Minutes)
		}
		for _, u := range m.Uses {
			j.Uses = append(j.Uses, useJSON{u.ID, num(u.G)})
		}
		out.Mixing = append(out.Mixing, j)
	}
	for _, n := range w.Notes {
		out.Notes = append(out.Notes, noteJSON{n.Code, string(n.Kind), n.Pointer, n.Text})
	}
	out.Held = []string{}
	for _, h := range w.Held {
		out.Held = append(out.Held, string(h))
	}
	for _, p := range w.Strategies {
		j := strategyJSON{Strategy: string(p.Strategy), Lead: p.Lead, Left: p.Reports, Count: p.Count, Thickness: num(p.Thickness), Sweetness: num(p.Sweet)}
		for i, g := range p.Weigh {
			j.Weigh = append(j.Weigh, weighedJSON{w.Lines[i].ID, num(g)})
		}
		out.Strategies = append(out.Strategies, j)
	}
	for _, k := range w.Working {
		j := workingJSON{For: k.For, Text: k.Text, Terms: []termJSON{}}
		for _, t := range k.Terms {
			j.Terms = append(j.Terms, termJSON{t.Name, num(t.Value), t.Unit, t.Source})
		}
		out.Working = append(out.Working, j)
	}
	return encode(out)
}

func portionOf(w worksheet.Worksheet) portionJSON {
	p := w.Portion
	out := portionJSON{
		Count: p.Count, VolumeML: num(p.VolumeML), MassG: num(p.MassG), DiameterMM: ptr(p.DiameterMM), PouredMM: ptr(p.PouredMM),
		CookedMM: ptr(p.CookedMM), LeftOverML: num(p.LeftOverML), Reason: p.Reason,
	}
	for _, c := range w.Choices {
		j := choiceJSON{LadleID: c.ID, Name: c.Name, VolumeML: num(c.VolumeML), Count: c.Count, DiameterMM: ptr(c.DiameterMM)}
		if c.ScoopNo > 0 {
			j.ScoopNo = ptr(&c.ScoopNo)
		}
		out.Choices = append(out.Choices, j)
	}
	for _, x := range w.Inclusions {
		j := inclusionJSON{
			Line: x.LineID, Ingredient: x.Ingredient, Label: x.Label, Placing: string(x.Placing), Grams: num(x.Grams),
			PiecesMean: num(x.Mean), PiecesP10: x.P10, PiecesP90: x.P90, ChanceNone: num(x.None), BiteShare: num(x.BiteShare),
			Sinks: x.Sinking.Moves && x.Sinking.Down, Floats: x.Sinking.Moves && !x.Sinking.Down, SizeMM: num(x.SizeMM),
			ShareOfBowl: num(x.Share), FirstToLast: nums(x.FirstToLast), Histogram: nums(x.Histogram), HistFrom: x.From, HistStep: x.Step, Colour: x.Colour,
		}
		if x.FewerK > 0 {
			j.FewerThan, j.ChanceFewer = x.FewerK, ptr(&x.Fewer)
		}
		if x.Cover > 0 {
			j.Cover = ptr(&x.Cover)
		}
		out.Inclusions = append(out.Inclusions, j)
	}
	if l := w.Load; l != nil {
		out.Load = &loadJSON{VolumeFraction: num(l.Fraction), Ceiling: num(l.Ceiling), Verdict: l.Verdict, Text: l.Text}
		if l.OverG > 0 {
			out.Load.OverG = ptr(&l.OverG)
		}
	}
	if d := w.Drawing; d != nil {
		out.Drawing = &drawingJSON{Seed: d.Seed, WidthMM: num(d.WidthMM), BiteMM: num(portion.BiteMM), DrawnShare: num(d.Drawn), Pieces: []spotJSON{}}
		if d.LengthMM > 0 {
			out.Drawing.LengthMM = ptr(&d.LengthMM)
		}
		for _, s := range d.Spots {
			out.Drawing.Pieces = append(out.Drawing.Pieces, spotJSON{tenth(s.X), tenth(s.Y), tenth(s.Z), num(s.SizeMM), d.Colours[s.Kind]})
		}
	}
	return out
}

// tenth rounds a place in a drawing to a tenth of a millimetre.
func tenth(v float64) num { return num(math.Round(10*v) / 10) }

func nums(v []float64) []num {
	out := make([]num, len(v))
	for i, x := range v {
		out[i] = num(x)
	}
	return out
}

func plateOf(p *worksheet.Plate) *plateJSON {
	if p == nil {
		return nil
	}
	out := &plateJSON{Name: p.Name, Fit: p.Fit, Rounds: p.Rounds, WidthMM: num(p.WidthMM), DepthMM: num(p.DepthMM), Round: p.Round}
	if p.Fill > 0 {
		out.Fill, out.AdvisedML = ptr(&p.Fill), ptr(&p.AdvisedML)
	}
	return out
}

func batterOf(b worksheet.Batter) batterJSON {
	out := batterJSON{
		MassG: num(b.MassG), VolumeML: num(b.VolumeML), DensityGML: num(b.DensityGML), FlourG: num(b.FlourG),
		WaterG: num(b.WaterG), SugarsG: num(b.SugarsG), YieldStressPa: ptr(b.YieldStressPa), Class: string(b.Class),
		AcidMeq: num(b.AcidMeq), SodaToAcid: finite(b.SodaToAcid), GasML: finite(b.GasML),
	}
	if b.FoldInG > 0 {
		out.FoldInG = ptr(&b.FoldInG)
	}
	for i, p := range b.Pours {
		out.Pours = append(out.Pours, pourJSON{p.When, finite(p.Minutes), num(p.YieldStressPa), string(p.Class)})
		switch i {
		case 0:
			out.PoursNowPa = ptr(&p.YieldStressPa)
		case 1:
			out.AfterRestPa = ptr(&p.YieldStressPa)
		}
	}
	if b.Colour.Hex != "" {
		out.Colour = &colourJSON{b.Colour.Hex, b.Colour.Reason}
	}
	return out
}

func nutritionOf(n worksheet.Nutrients) *nutritionJSON {
	return &nutritionJSON{
		num(n.EnergyKcal), num(n.Fat), num(n.Carbohydrate), num(n.Sugars), num(n.Fibre), num(n.Protein), num(n.Salt), num(n.Alcohol),
	}
}

func lineOf(l worksheet.Line) lineJSON {
	j := lineJSON{
		ID: l.ID, Ingredient: l.Ingredient, Name: l.Name, Label: l.Label, Role: string(l.Role), From: l.From,
		Stage: string(l.Stage), BaseG: ptr(l.Base), ActsLikeG: ptr(l.ActsLike), OffsetG: ptr(l.Offset),
		WeighG: num(l.Weigh), RoundedFromG: num(l.RoundedFrom), StepG: num(l.Step), Measure: l.Measure,
		DryToG: ptr(l.DryTo), State: string(l.State), Colour: l.Colour.Hex, Allergens: l.Allergens, MayContain: l.MayContain,
	}
	if p := l.Prepared; p != nil {
		j.Prepared = &preparedJSON{Label: p.Label, Grams: num(p.Grams)}
		for _, f := range p.Work.Left {
			if f.Kind == prep.Juice {
				j.Prepared.KeptG += num(f.Grams)
			}
		}
	}
	for _, t := range l.Treatments {
		j.Treatments = append(j.Treatments, choiceOf{t.ID, t.Label})
	}
	if l.Own != nil {
		own := ownFigures(l.Ingredient, l.Own)
		j.Own = &own
	}
	if l.Measure != "" {
		j.MeasureG = ptr(&l.MeasureG)
	}
	if l.Brings != nil {
		j.Brings = &bringsJSON{num(l.Brings.Water), num(l.Brings.Sugars)}
	}
	if d := l.Dose; d != nil {
		j.Dose = &doseJSON{num(d.Light), num(d.Usual), num(d.Bold), num(d.Max), num(d.Step), d.Word}
	}
	return j
}

func gauge(g worksheet.Gauge) gaugeJSON {
	out := gaugeJSON{
		Label: g.Label, Unit: g.Unit, State: string(g.State), Verdict: g.Verdict, VerdictText: g.VerdictText,
		LowText: g.LowText, HighText: g.HighText, Decimals: g.Decimals,
		Base: finite(g.Base), WithAdditions: finite(g.With), After: finite(g.After), ByMeasure: finite(g.ByMeasure),
	}
	if g.Band != nil {
		out.Low, out.High = ptr(&g.Band.Low), ptr(&g.Band.High)
	}
	return out
}

// finite leaves out a figure that does not exist.
func finite(v float64) *num {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return nil
	}
	return ptr(&v)
}

func some(s []string) []string {
	if s == nil {
		return []string{}
	}
	return s
}

// Work answers a variation document with a worksheet document: the one path that the
// command line and the API share. The error is batter.Problems for a document that cannot
// be worked with.
func Work(ctx context.Context, data []byte, s Setting) ([]byte, error) {
	v, err := DecodeVariation(data)
	if err != nil {
		return nil, err
	}
	sheet, err := v.Worksheet(ctx, s)
	if err != nil {
		return nil, err
	}
	return EncodeWorksheet(sheet)
}

// Worksheet works a variation document out in a kitchen.
func (v Variation) Worksheet(ctx context.Context, s Setting) (worksheet.Worksheet, error) {
	d, k, err := v.Domain(s)
	if err != nil {
		return worksheet.Worksheet{}, err
	}
	return worksheet.Work(ctx, d, k)
}

// Worksheet works the plain base out in a kitchen.
func (b Base) Worksheet(ctx context.Context, s Setting) (worksheet.Worksheet, error) {
	d, k, err := b.Domain(s)
	if err != nil {
		return worksheet.Worksheet{}, err
	}
	return worksheet.Work(ctx, d, k)
}
