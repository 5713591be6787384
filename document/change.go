package document

import (
	"context"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/safety"
	say "upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

// ScaleWish asks for a batch of another size: by portions, by flour, or by what is left of
// one line.
type ScaleWish struct {
	Variation *Variation `json:"variation"`
	Count     *int       `json:"count,omitzero"`
	FlourG    *float64   `json:"flour_g,omitzero"`
	Line      string     `json:"line,omitzero"`
	AmountG   *float64   `json:"amount_g,omitzero"`
	Settle    bool       `json:"settle,omitzero"` // writes the amounts of the number of portions that is asked for anew
}

// Scaled is the answer to a ScaleWish.
type Scaled struct {
	Variation Variation `json:"variation"`
	Factor    float64   `json:"factor"`
	Said      []string  `json:"said"`
}

func or[T any](p *T) T {
	var zero T
	if p == nil {
		return zero
	}
	return *p
}

// inner checks a variation inside a request; the pointers of what is wrong name the field.
func inner(v *Variation, at string, s Setting) (batter.Variation, batter.Kitchen, error) {
	if v == nil {
		return batter.Variation{}, batter.Kitchen{}, Refusal(at, "missing", "Give the variation.")
	}
	err := v.header()
	var d batter.Variation
	var k batter.Kitchen
	if err == nil {
		d, k, err = v.Domain(s)
	}
	if p, ok := err.(Problems); ok {
		for i := range p {
			p[i].Pointer = at + p[i].Pointer
		}
	}
	return d, k, err
}

// Scale makes a batch larger or smaller. For a number of portions the lines stay as they are and
// the worksheet scales, so that there and back again is the same document; settled, or by flour
// or by what is left of a line, the amounts are written anew. Eggs stay whole; what that moved is
// said, and the other lines make up for it.
func Scale(ctx context.Context, w ScaleWish, s Setting) (Scaled, error) {
	d, k, err := inner(w.Variation, "/variation", s)
	if err != nil {
		return Scaled{}, err
	}
	count := or(w.Count)
	if w.Settle {
		count = d.Portion.Count
	}
	d.Portion.Count = 0
	if count == 0 && w.Settle {
		return Scaled{Variation: *w.Variation, Factor: 1}, nil
	}
	factor, err := worksheet.FactorFor(ctx, d, k, count, or(w.FlourG), w.Line, or(w.AmountG))
	if err != nil {
		return Scaled{}, pointed(err, "/variation")
	}
	if count > 0 && !w.Settle {
		return w.Variation.counted(ctx, d, k, count, factor)
	}
	return w.Variation.scaled(ctx, d, k, factor)
}

// counted asks for a number of portions; none when it is what the batch gives anyway.
func (v Variation) counted(ctx context.Context, d batter.Variation, k batter.Kitchen, count int, factor float64) (Scaled, error) {
	natural, err := worksheet.NaturalCount(ctx, d, k)
	if err != nil {
		return Scaled{}, pointed(err, "/variation")
	}
	_, said := d.Scaled(factor)
	p := Portion{}
	if v.Portion != nil {
		p = *v.Portion
	}
	n := float64(count)
	p.Count = &n
	if count == natural {
		p.Count, factor, said = nil, 1, nil
	}
	if v.Portion = &p; p == (Portion{}) {
		v.Portion = nil
	}
	return Scaled{Variation: v, Factor: factor, Said: said}, nil
}

// scaled writes the amounts of the scaled domain back into the document.
func (v Variation) scaled(ctx context.Context, d batter.Variation, k batter.Kitchen, factor float64) (Scaled, error) {
	big, said := d.Scaled(factor)
	out := Scaled{Variation: v, Factor: factor, Said: said}
	base := *v.Base
	base.Lines = append([]Line(nil), v.Base.Lines...)
	for i := range base.Lines {
		base.Lines[i].Amount = &big.Base.Lines[i].Amount
	}
	if len(said) > 0 {
		rounded := d
		rounded.Reference.Lines = nil // against this batch, whatever stands in for its lines
		rounded, _ = rounded.Scaled(factor)
		trusted, err := worksheet.Trusted(ctx, rounded, k)
		if err != nil {
			return Scaled{}, pointed(err, "/variation")
		}
		for i, l := range big.Base.Lines {
			if was, _ := k.Grams(l); math.Abs(trusted[i]-was) >= k.Step(l)/2 {
				g, _ := batter.ScaleAmount(batter.Line{Ingredient: l.Ingredient, Amount: trusted[i], Unit: measure.Gram}, 1)
				base.Lines[i].Amount, base.Lines[i].Unit, base.Lines[i].Fill = &g, string(measure.Gram), ""
			}
		}
	}
	if len(base.OwnLines) > 0 {
		base.OwnLines = slices.Clone(base.OwnLines)
		for i := range base.OwnLines {
			base.OwnLines[i].Amount = &big.Reference.Lines[i].Amount
		}
	}
	none := func(l Line) bool { return or(l.Amount) <= 0 } // less than a quarter of an egg
	base.Lines, base.OwnLines = slices.DeleteFunc(base.Lines, none), slices.DeleteFunc(base.OwnLines, none)
	out.Variation.Base = &base
	larger := func(all []Addition, by []batter.Addition) []Addition {
		all = append([]Addition(nil), all...)
		for i := range all {
			g := by[i].Amount
			if step := k.Step(by[i].Line); by[i].Unit == measure.Gram && g > step { // on the scale that weighs it
				g = measure.Round(g, step)
			}
			all[i].Amount = &g
		}
		return all
	}
	out.Variation.Additions = larger(v.Additions, big.Additions)
	if r := v.Reference; r != nil && big.Reference.AsWritten {
		whole := *r
		whole.Additions = larger(r.Additions, big.Reference.Additions)
		out.Variation.Reference = &whole
	}
	if p := v.Portion; p != nil && p.Count != nil {
		rest := *p
		rest.Count = nil
		if out.Variation.Portion = &rest; rest == (Portion{}) {
			out.Variation.Portion = nil
		}
	}
	return out, nil
}

// PlainBaseWish asks for the base behind a recipe that was written with its additions in it.
type PlainBaseWish struct {
	Variation *Variation `json:"variation"`
}

// PlainBase is that base, and what it was made of.
func PlainBase(ctx context.Context, w PlainBaseWish, s Setting) (Base, error) {
	d, k, err := inner(w.Variation, "/variation", s)
	if err != nil {
		return Base{}, err
	}
	if !d.Reference.AsWritten {
		return Base{}, Refusal("/variation/reference", "plain", "This variation has its plain base already.")
	}
	grams, err := worksheet.PlainBase(ctx, d, k)
	if err != nil {
		return Base{}, pointed(err, "/variation")
	}
	from := w.Variation.Base
	b := Base{Format: BaseFormat, Version: Version, Name: strings.TrimSpace(w.Variation.Name) + ", plain", Form: w.Variation.Form, Style: from.Style, School: from.School, SourceNote: from.SourceNote, SourceText: from.SourceText, Parts: w.Variation.Parts}
	for i, l := range from.Lines {
		was, _ := k.Grams(d.Base.Lines[i])
		if step := k.Step(d.Base.Lines[i]); math.Abs(grams[i]-was) >= step {
			g, _ := batter.ScaleAmount(batter.Line{Ingredient: d.Base.Lines[i].Ingredient, Amount: grams[i], Unit: measure.Gram}, 1)
			l.Amount, l.Unit, l.SizeG, l.SizeML = &g, string(measure.Gram), nil, nil
		}
		if *l.Amount > 0 {
			b.Lines = append(b.Lines, l)
		}
	}
	if r := []rune(b.Name); len(r) > batter.MaxName {
		b.Name = string(r[:batter.MaxName])
	}
	return b, nil
}

// SwapWish asks what can stand in for a line of the base.
type SwapWish struct {
	Variation *Variation `json:"variation"`
	Line      string     `json:"line"`
}

// Swap is one choice: the lines to put in the place of the one that goes, and the base with them in it.
type Swap struct {
	Label string   `json:"label"`
	Says  string   `json:"says"`
	Lines []Line   `json:"lines"`
	Base  BasePart `json:"base"`
	Back  bool     `json:"back,omitzero"` // to the base's own lines
}

// Swaps answers a SwapWish: the way back first, where something stands in already. Lines come in grams; the first
// keeps the id of the line that goes. The same ingredient twice becomes one line.
func Swaps(w SwapWish, s Setting) ([]Swap, error) {
	d, k, err := inner(w.Variation, "/variation", s)
	if err != nil {
		return nil, err
	}
	found, err := worksheet.SwapsFor(d, k, w.Line, s.Table)
	if err != nil {
		return nil, pointed(err, "/variation")
	}
	out := []Swap{}
	from := *w.Variation.Base
	if len(from.OwnLines) > 0 {
		back := from
		back.Lines, back.OwnLines = from.OwnLines, nil
		out = append(out, Swap{Label: "Back to the base’s own lines", Says: "everything as it was", Lines: back.Lines, Base: back, Back: true})
	}
	was := ownAllergens(d.Base.Lines)
	for _, s := range found {
		j := Swap{Label: s.Label, Says: s.Says}
		for i, p := range s.Parts {
			g, _ := batter.ScaleAmount(batter.Line{Ingredient: p.Ingredient, Amount: p.Grams, Unit: "g"}, 1)
			id := w.Line
			if i > 0 {
				id = fmt.Sprintf("%s-%d", w.Line, i+1)
			}
			j.Lines = append(j.Lines, Line{ID: id, Ingredient: p.Ingredient.ID, Amount: &g, Unit: "g"})
		}
		if len(j.Lines) == 1 && slices.ContainsFunc(from.Lines, func(l Line) bool { return l.ID == w.Line && l.Ingredient == j.Lines[0].Ingredient }) {
			continue // it stands there already
		}
		var kept []batter.Line
		j.Base, kept = from.with(w.Line, j.Lines, d.Base.Lines, k)
		for _, p := range s.Parts {
			kept = append(kept, batter.Line{Ingredient: p.Ingredient})
		}
		j.Says += allergenChange(was, ownAllergens(kept))
		out = append(out, j)
	}
	return out, nil
}

// with is the base with other lines in the place of one, its own lines remembered, and the lines that stay. What
// stands in already for the same line goes, and the same ingredient becomes one line.
func (b BasePart) with(id string, lines []Line, domain []batter.Line, k batter.Kitchen) (BasePart, []batter.Line) {
	if len(b.OwnLines) == 0 {
		b.OwnLines = b.Lines
	}
	var out []Line
	var stay []batter.Line
	for i, l := range b.Lines {
		switch {
		case l.ID == id:
			out = append(out, lines...)
		case strings.HasPrefix(l.ID, id+"-") && !slices.ContainsFunc(b.OwnLines, func(o Line) bool { return o.ID == l.ID }):
		default:
			if at := slices.IndexFunc(lines, func(n Line) bool { return n.Ingredient == l.Ingredient }); at >= 0 {
				g, _ := k.Grams(domain[i])
				g += *lines[at].Amount
				g, _ = batter.ScaleAmount(batter.Line{Ingredient: domain[i].Ingredient, Amount: g, Unit: "g"}, 1)
				l.Amount, l.Unit, l.Fill = &g, "g", ""
				lines = slices.Delete(slices.Clone(lines), at, at+1)
				out = slices.DeleteFunc(out, func(o Line) bool {
					return (o.ID == id || strings.HasPrefix(o.ID, id+"-")) && o.Ingredient == l.Ingredient
				})
			}
			out, stay = append(out, l), append(stay, domain[i])
		}
	}
	b.Lines = out
	return b, stay
}

// ownAllergens are the allergens that lines have by themselves.
func ownAllergens(lines []batter.Line) []string {
	used := make([]*food.Ingredient, len(lines))
	for i, l := range lines {
		used[i] = l.Ingredient
	}
	return safety.AllergensOf(used).Contains
}

// allergenChange says what a swap brings and what is named no more; the pack decides.
func allergenChange(was, is []string) string {
	less := func(a, b []string) []string {
		return slices.DeleteFunc(slices.Clone(a), func(x string) bool { return slices.Contains(b, x) })
	}
	text := ""
	if brings := less(is, was); len(brings) > 0 {
		text += "; brings " + say.List(brings)
	}
	if gone := less(was, is); len(gone) > 0 {
		text += "; no " + say.List(gone) + " among the lines: check every pack"
	}
	return text
}

// ComparisonWish asks for two variations side by side.
type ComparisonWish struct {
	Before *Variation `json:"before"`
	After  *Variation `json:"after"`
}

// Comparison is two variations side by side.
type Comparison struct {
	Lines  []worksheet.Compared `json:"lines"`
	Gauges []ComparedGauge      `json:"gauges"`
}

// ComparedGauge is one gauge of both.
type ComparedGauge struct {
	Label    string   `json:"label"`
	Unit     string   `json:"unit"`
	Decimals int      `json:"decimals"`
	Before   *float64 `json:"before,omitzero"`
	After    *float64 `json:"after,omitzero"`
}

// Compare sets two variations side by side, line by line and gauge by gauge.
func Compare(ctx context.Context, w ComparisonWish, s Setting) (Comparison, error) {
	var sheets [2]worksheet.Worksheet
	for i, v := range []*Variation{w.Before, w.After} {
		at := []string{"/before", "/after"}[i]
		d, k, err := inner(v, at, s)
		if err != nil {
			return Comparison{}, err
		}
		if sheets[i], err = worksheet.Work(ctx, d, k, worksheet.Include{}); err != nil {
			return Comparison{}, pointed(err, at)
		}
	}
	out := Comparison{Lines: worksheet.Compare(sheets[0], sheets[1])}
	after := sheets[1].Gauges.All()
	for i, g := range sheets[0].Gauges.All() {
		out.Gauges = append(out.Gauges, ComparedGauge{g.Label, g.Unit, g.Decimals, g.OfWeighed, after[i].OfWeighed})
	}
	return out, nil
}

// LoadWish asks the other way round: how much of an addition gives so many bites a piece, so
// many pieces in each portion, or such a share of the portion's volume; or how much fits on each. One of the four.
type LoadWish struct {
	Variation      *Variation `json:"variation"`
	Line           string     `json:"line"`
	BiteShare      *float64   `json:"bite_share,omitzero"`
	PiecesEach     *float64   `json:"pieces_each,omitzero"`
	VolumeFraction *float64   `json:"volume_fraction,omitzero"`
	Fitting        bool       `json:"fitting,omitzero"` // what goes evenly on each portion, or under it
}

// LoadFor answers a LoadWish with the grams of the addition.
func LoadFor(ctx context.Context, w LoadWish, s Setting) (float64, error) {
	d, k, err := inner(w.Variation, "/variation", s)
	if err != nil {
		return 0, err
	}
	if w.Fitting {
		g, err := worksheet.FittingOnTop(ctx, d, k, w.Line)
		return g, pointed(err, "/variation")
	}
	g, err := worksheet.LoadFor(ctx, d, k, w.Line, or(w.BiteShare), or(w.PiecesEach), or(w.VolumeFraction))
	return g, pointed(err, "/variation")
}

// SimulationWish asks for simulated bowls.
type SimulationWish struct {
	Variation *Variation `json:"variation"`
	Bowls     int        `json:"bowls"`
	Seed      uint64     `json:"seed"`
}

// Simulation is what they gave, over all kinds of pieces together.
type Simulation struct {
	Bowls     int       `json:"bowls"`
	AnyNone   float64   `json:"any_none"`
	Histogram []float64 `json:"histogram"`
}

// Simulate answers a SimulationWish.
func Simulate(ctx context.Context, w SimulationWish, s Setting) (Simulation, error) {
	d, k, err := inner(w.Variation, "/variation", s)
	if err != nil {
		return Simulation{}, err
	}
	sim, err := worksheet.Simulate(ctx, d, k, w.Bowls, w.Seed)
	if err != nil {
		return Simulation{}, pointed(err, "/variation")
	}
	return Simulation{w.Bowls, sim.AnyNone, sim.Histogram}, nil
}
