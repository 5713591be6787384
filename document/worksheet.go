package document

import (
	"upbeatladle/core/food"
	"upbeatladle/core/worksheet"
)

type worksheetJSON struct {
	Format     string        `json:"format"`
	Version    int           `json:"version"`
	Lines      []lineJSON    `json:"lines"`
	Gauges     gaugesJSON    `json:"gauges"`
	Batter     batterJSON    `json:"batter"`
	Portion    portionJSON   `json:"portion"`
	Allergens  []string      `json:"allergens"`
	MayContain []string      `json:"may_contain"`
	Verdict    []verdictJSON `json:"verdict"`
	Cautions   []cautionJSON `json:"cautions"`
	Notes      []noteJSON    `json:"notes"`
}

type lineJSON struct {
	ID           string      `json:"id"`
	Ingredient   string      `json:"ingredient"`
	Name         string      `json:"name"`
	Label        string      `json:"label"`
	Role         string      `json:"role"`
	From         string      `json:"from"`
	Stage        string      `json:"stage,omitzero"`
	BaseG        *num        `json:"base_g,omitzero"`
	ActsLikeG    *num        `json:"acts_like_g,omitzero"`
	OffsetG      *num        `json:"offset_g,omitzero"`
	WeighG       num         `json:"weigh_g"`
	RoundedFromG num         `json:"rounded_from_g"`
	StepG        num         `json:"step_g"`
	Measure      string      `json:"measure,omitzero"`
	State        string      `json:"state"`
	Brings       *bringsJSON `json:"brings,omitzero"`
	Dose         *doseJSON   `json:"dose,omitzero"`
	Colour       string      `json:"colour,omitzero"`
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
	Sweetness gaugeJSON `json:"sweetness"`
}

type gaugeJSON struct {
	Label         string `json:"label"`
	Unit          string `json:"unit"`
	Base          *num   `json:"base,omitzero"`
	WithAdditions *num   `json:"with_additions,omitzero"`
	After         *num   `json:"after,omitzero"`
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
	MassG         num    `json:"mass_g"`
	FoldInG       *num   `json:"fold_in_g,omitzero"`
	VolumeML      num    `json:"volume_ml"`
	DensityGML    num    `json:"density_g_ml"`
	FlourG        num    `json:"flour_g"`
	WaterG        num    `json:"water_g"`
	SugarsG       num    `json:"sugars_g"`
	YieldStressPa *num   `json:"yield_stress_pa,omitzero"`
	Class         string `json:"class,omitzero"`
}

type portionJSON struct {
	Count      int    `json:"count"`
	VolumeML   num    `json:"volume_ml"`
	MassG      num    `json:"mass_g"`
	DiameterMM *num   `json:"diameter_mm,omitzero"`
	PouredMM   *num   `json:"poured_mm,omitzero"`
	LeftOverML num    `json:"left_over_ml"`
	Reason     string `json:"reason,omitzero"`
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
	Pointer string `json:"pointer,omitzero"`
	Text    string `json:"text"`
}

// EncodeWorksheet writes the worksheet document.
func EncodeWorksheet(w worksheet.Worksheet) ([]byte, error) {
	out := worksheetJSON{
		Format: WorksheetFormat, Version: Version,
		Gauges:    gaugesJSON{gauge(w.Thickness), gauge(w.Sweetness)},
		Allergens: some(w.Allergens), MayContain: some(w.MayContain),
		Batter: batterJSON{
			MassG: num(w.Batter.MassG), VolumeML: num(w.Batter.VolumeML), DensityGML: num(w.Batter.DensityGML),
			FlourG: num(w.Batter.FlourG), WaterG: num(w.Batter.WaterG), SugarsG: num(w.Batter.SugarsG),
			YieldStressPa: ptr(w.Batter.YieldStressPa), Class: string(w.Batter.Class),
		},
		Portion: portionJSON{
			Count: w.Portion.Count, VolumeML: num(w.Portion.VolumeML), MassG: num(w.Portion.MassG),
			DiameterMM: ptr(w.Portion.DiameterMM), PouredMM: ptr(w.Portion.PouredMM),
			LeftOverML: num(w.Portion.LeftOverML), Reason: w.Portion.Reason,
		},
		Verdict: []verdictJSON{}, Cautions: []cautionJSON{}, Notes: []noteJSON{},
	}
	if w.Batter.FoldInG > 0 {
		out.Batter.FoldInG = ptr(&w.Batter.FoldInG)
	}
	for _, l := range w.Lines {
		j := lineJSON{
			ID: l.ID, Ingredient: l.Ingredient, Name: l.Name, Label: l.Label, Role: string(l.Role), From: l.From,
			Stage: string(l.Stage), BaseG: ptr(l.Base), ActsLikeG: ptr(l.ActsLike), OffsetG: ptr(l.Offset),
			WeighG: num(l.Weigh), RoundedFromG: num(l.RoundedFrom), StepG: num(l.Step), Measure: l.Measure,
			State: string(l.State), Colour: l.Colour.Hex,
		}
		if l.Brings != nil {
			j.Brings = &bringsJSON{num(l.Brings.Water), num(l.Brings.Sugars)}
		}
		if d := l.Dose; d != nil {
			j.Dose = &doseJSON{num(d.Light), num(d.Usual), num(d.Bold), num(d.Max), num(d.Step), d.Word}
		}
		out.Lines = append(out.Lines, j)
	}
	for _, v := range w.Verdict {
		out.Verdict = append(out.Verdict, verdictJSON(v))
	}
	for _, c := range w.Cautions {
		out.Cautions = append(out.Cautions, cautionJSON(c))
	}
	for _, n := range w.Notes {
		out.Notes = append(out.Notes, noteJSON(n))
	}
	return encode(out)
}

func gauge(g worksheet.Gauge) gaugeJSON {
	out := gaugeJSON{
		Label: g.Label, Unit: g.Unit, State: string(g.State), Verdict: g.Verdict, VerdictText: g.VerdictText,
		LowText: g.LowText, HighText: g.HighText, Decimals: g.Decimals,
		Base: finite(g.Base), WithAdditions: finite(g.With), After: finite(g.After),
	}
	if g.Band != nil {
		out.Low, out.High = ptr(&g.Band.Low), ptr(&g.Band.High)
	}
	return out
}

// finite leaves out a figure that does not exist.
func finite(v float64) *num {
	if v != v {
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
func Work(data []byte, table *food.Table) ([]byte, error) {
	v, err := DecodeVariation(data)
	if err != nil {
		return nil, err
	}
	sheet, err := v.Worksheet(table)
	if err != nil {
		return nil, err
	}
	return EncodeWorksheet(sheet)
}

// Worksheet works a variation document out.
func (v Variation) Worksheet(table *food.Table) (worksheet.Worksheet, error) {
	d, k, err := v.Domain(table)
	if err != nil {
		return worksheet.Worksheet{}, err
	}
	return worksheet.Work(d, k)
}

// Worksheet works the plain base out.
func (b Base) Worksheet(table *food.Table) (worksheet.Worksheet, error) {
	d, k, err := b.Domain(table)
	if err != nil {
		return worksheet.Worksheet{}, err
	}
	return worksheet.Work(d, k)
}
