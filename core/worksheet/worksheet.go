// Package worksheet is the one door to the rules: it turns a variation into everything that
// is shown of it. Whatever shows a number gets it here.
package worksheet

import (
	"math"
	"slices"
	"strings"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
)

// State of a ledger line.
type State string

// The states.
const (
	AsItIs State = "as_it_is"
	Less   State = "less"
	More   State = "more"
	Pinned State = "pinned"
	Stuck  State = "stuck"
)

// Where a ledger line comes from.
const (
	FromBase     = "base"
	FromAddition = "addition"
)

// Line is one row of the ledger; masses in g.
type Line struct {
	ID, Ingredient, Name, Label string
	Role                        food.Role
	From                        string
	Stage                       batter.Stage // of an addition
	Base                        *float64     // nil for an addition
	ActsLike                    *float64     // base plus what the additions bring of the same thing
	Offset                      *float64     // weigh-out less base; 0 when the line stays as it is
	Weigh                       float64      // what to weigh out
	RoundedFrom                 float64      // the same before rounding
	Step                        float64      // of the scale it is weighed on
	Measure                     string       // in cups and spoons; empty when not known
	State                       State
	Brings                      *Brings      // of an addition
	Dose                        *batter.Dose // of an addition
	Colour                      food.Colour
}

// Brings is what an addition gives to the batter between the pieces [g].
type Brings struct{ Water, Sugars float64 }

// GaugeState says where the weighed batter lies.
type GaugeState string

// The gauge states.
const (
	Level   GaugeState = "level"
	InBand  GaugeState = "in_band"
	Low     GaugeState = "low"
	High    GaugeState = "high"
	Unknown GaugeState = "unknown"
)

// Gauge compares the plain base, the batter without offsets and the batter as weighed.
type Gauge struct {
	Label, Unit       string
	Base, With, After float64
	Band              *batter.Band // nil when the form is not judged
	State             GaugeState
	Verdict           string // one word
	VerdictText       string // one clause
	LowText, HighText string // what the low and the high end mean
	Decimals          int    // that the figure is worth
}

// Batter describes the bowl as weighed.
type Batter struct {
	MassG, FoldInG, VolumeML, DensityGML float64
	FlourG                               float64 // of the base, which doses are counted against
	WaterG, SugarsG                      float64 // whole account of the bowl
	YieldStressPa                        *float64
	Class                                flow.Class // empty when not judged
}

// Portion is one portion and how many there are.
type Portion struct {
	Count                int
	VolumeML, MassG      float64
	DiameterMM, PouredMM *float64 // nil when the form has no free spread
	LeftOverML           float64  // beyond the whole portions and what sticks to the bowl
	Reason               string   // why there is no diameter
}

// Verdict is one clause of the line at the foot of the bench.
type Verdict struct{ Kind, Lead, Reason string }

// Note is something the cook should know: what gave way, what is not worked out yet.
type Note struct{ Code, Pointer, Text string }

// Caution is a warning that applies to this serving.
type Caution struct{ Code, Text string }

// Worksheet is the answer to a variation.
type Worksheet struct {
	Lines                 []Line
	Thickness, Sweetness  Gauge
	Batter                Batter
	Portion               Portion
	Allergens, MayContain []string
	Verdict               []Verdict
	Cautions              []Caution
	Notes                 []Note
}

// Level tolerances: a gauge is level when it is no further from the base than this.
const (
	levelThickness = 0.03 // ml/g, what the solver also calls met
	levelShare     = 0.02 // of the base (modelling choice)
)

// grated cakes are not judged on thickness: pieces above half the mass.
const gratedCakeShare = 0.5

// bowl is one state of the variation: masses of the lines with the additions in the bowl.
type bowl struct {
	parts   []food.Part
	account food.Total // batter account
	thick   flow.Thickness
}

func bowlOf(parts []food.Part) bowl {
	return bowl{parts, food.Batter(parts), flow.Of(parts)}
}

func (b bowl) sweetness() float64 {
	if b.account.Mass <= 0 {
		return 0
	}
	return 100 * b.account.Sweetness() / b.account.Mass
}

// pieceShare is the share of the bowl's mass that went in as pieces.
func (b bowl) pieceShare() float64 {
	var all, pieces float64
	for _, p := range b.parts {
		all += p.Grams
		if p.Ingredient.HasCells() {
			pieces += p.Grams
		}
	}
	if all <= 0 {
		return 0
	}
	return pieces / all
}

// work carries one calculation.
type work struct {
	v                    batter.Variation
	k                    batter.Kitchen
	base                 []float64 // g of the base lines
	weigh                []float64 // g, rounded
	adds                 []float64 // g of the additions
	flour                float64
	plain, with, weighed bowl
	solution             balance.Solution
	out                  Worksheet
}

// Work answers a variation made in a kitchen. The error is batter.Problems when the
// variation cannot be worked with; nothing else is returned then.
func Work(v batter.Variation, k batter.Kitchen) (Worksheet, error) {
	if err := v.Check(k).OrNil(); err != nil {
		return Worksheet{}, err
	}
	w := &work{v: v, k: k}
	w.measure()
	if err := w.balance(); err != nil {
		return Worksheet{}, err
	}
	w.lines()
	w.gauges()
	w.describe()
	w.safety()
	w.notes()
	w.verdict()
	return w.out, nil
}

// measure turns every line into grams. Check has made sure that it can.
func (w *work) measure() {
	for _, l := range w.v.Base.Lines {
		g, _ := w.k.Grams(l)
		w.base = append(w.base, g)
		if l.Role == food.RoleFlour {
			w.flour += g
		}
	}
	for _, a := range w.v.Additions {
		g, _ := w.k.Grams(a.Line)
		w.adds = append(w.adds, g)
	}
}

// parts lists base lines of the given masses with the additions that are in the bowl.
func (w *work) parts(masses []float64, additions bool) []food.Part {
	out := make([]food.Part, 0, len(masses)+len(w.adds))
	for i, g := range masses {
		out = append(out, food.Part{Ingredient: w.v.Base.Lines[i].Ingredient, Grams: g})
	}
	if additions {
		out = append(out, w.additions()...)
	}
	return out
}

func (w *work) additions() []food.Part {
	var out []food.Part
	for i, a := range w.v.Additions {
		if a.Stage.InBowl() {
			out = append(out, food.Part{Ingredient: a.Ingredient, Grams: w.adds[i]})
		}
	}
	return out
}

// balance solves the offsets, rounds them to the scale and looks at the three bowls.
func (w *work) balance() error {
	p := balance.Problem{
		Additions: w.additions(), Strategy: w.v.Offset.Strategy, Hold: w.v.Offset.Hold,
		SugarBy: w.v.Offset.SugarBy, AllowLowLiquid: w.v.Offset.AllowLowLiquid,
	}
	for i, l := range w.v.Base.Lines {
		p.Lines = append(p.Lines, balance.Line{Ingredient: l.Ingredient, Grams: w.base[i], Role: l.Role, Locked: l.Locked})
	}
	s, err := balance.Solve(p)
	if err != nil {
		return err
	}
	w.solution = s
	for i, l := range w.v.Base.Lines {
		w.weigh = append(w.weigh, measure.Round(s.Grams[i], w.k.Step(l)))
	}
	w.plain = bowlOf(w.parts(w.base, false))
	w.with = bowlOf(w.parts(w.base, true))
	return nil
}

// same is the property that base line i shares with the additions, per gram, for the
// "acts like" column; nil when the line's role has none.
func (w *work) same(l batter.Line) func(*food.Ingredient) float64 {
	switch l.Role {
	case food.RoleLiquid:
		return flow.LiquidPerGram
	case food.RoleFlour:
		return func(in *food.Ingredient) float64 { return in.Body }
	case food.RoleSugar:
		return func(in *food.Ingredient) float64 { return in.Release() * in.Sweetness() / 100 }
	}
	return nil
}

// actsLike returns base plus what the additions bring of the same thing. Lines of the same
// role share it by their base mass.
func (w *work) actsLike(i int) float64 {
	l := w.v.Base.Lines[i]
	per := w.same(l)
	if per == nil || per(l.Ingredient) <= 0 {
		return w.base[i]
	}
	var brought, all float64
	for _, p := range w.additions() {
		brought += p.Grams * per(p.Ingredient)
	}
	for j, o := range w.v.Base.Lines {
		if o.Role == l.Role {
			all += w.base[j]
		}
	}
	return w.base[i] + brought/per(l.Ingredient)*w.base[i]/all
}

func (w *work) lines() {
	for i, l := range w.v.Base.Lines {
		step := w.k.Step(l)
		base, acts, offset := w.base[i], w.actsLike(i), 0.0
		state := AsItIs
		change := w.solution.Grams[i] - base
		switch {
		case l.Locked:
			state = Pinned
		case math.Abs(change) < step/2:
			w.weigh[i] = measure.Round(base, step) // a change too small for the scale is none
		case change < 0:
			state, offset = Less, w.weigh[i]-base
		default:
			state, offset = More, w.weigh[i]-base
		}
		if w.solution.Stuck[i] {
			state = Stuck
		}
		w.out.Lines = append(w.out.Lines, Line{
			ID: l.ID, Ingredient: l.Ingredient.ID, Name: l.Ingredient.Name, Label: l.Ingredient.Label(), Role: l.Role,
			From: FromBase, Base: &base, ActsLike: &acts, Offset: &offset, Weigh: w.weigh[i],
			RoundedFrom: w.solution.Grams[i], Step: step, Measure: w.spoons(l, w.weigh[i]), State: state,
			Colour: l.Ingredient.Colour,
		})
	}
	w.weighed = bowlOf(w.parts(w.weigh, true))
	reference := w.doseReference()
	for i, a := range w.v.Additions {
		g, step := w.adds[i], w.k.Step(a.Line)
		dose := batter.DoseOf(a.Ingredient, reference, g)
		weigh := measure.Round(g, step)
		line := Line{
			ID: a.ID, Ingredient: a.Ingredient.ID, Name: a.Ingredient.Name, Label: a.Ingredient.Label(), Role: a.Role,
			From: FromAddition, Stage: a.Stage, Weigh: weigh, RoundedFrom: g, Step: step,
			Measure: w.spoons(a.Line, weigh), State: AsItIs, Dose: &dose, Colour: a.Ingredient.Colour,
		}
		if a.Stage.InBowl() {
			released := food.Batter([]food.Part{{Ingredient: a.Ingredient, Grams: g}})
			line.Brings = &Brings{Water: released.Water, Sugars: released.Sugars}
		}
		w.out.Lines = append(w.out.Lines, line)
	}
}

func (w *work) doseReference() float64 {
	var mass float64
	for _, g := range w.base {
		mass += g
	}
	return batter.DoseReference(w.flour, mass)
}

// spoons says grams of a line in the kitchen's cups and spoons, eggs by number.
func (w *work) spoons(l batter.Line, grams float64) string {
	if grams <= 0 {
		return ""
	}
	if l.Ingredient.Group == food.GroupEgg && l.Ingredient.UnitG > 0 {
		one := l
		one.Amount, one.Unit = 1, measure.Each
		if g, err := w.k.Grams(one); err == nil {
			return countText(grams/g, l.Ingredient)
		}
	}
	s := l.Ingredient.Subject()
	s.Method = l.Method
	one, err := w.k.Measures.ToGrams(1, measure.Ml, s)
	if err != nil {
		return ""
	}
	return w.k.Measures.SpoonText(grams, one)
}

func (w *work) gauges() {
	w.out.Thickness = w.thicknessGauge()
	w.out.Sweetness = w.sweetnessGauge()
}

func (w *work) thicknessGauge() Gauge {
	g := Gauge{
		Label: "Thickness", Unit: "ml/g", Base: w.plain.thick.L(), With: w.with.thick.L(), After: w.weighed.thick.L(),
		LowText: "thicker", HighText: "thinner", Decimals: 2,
	}
	band, ok := batter.ThicknessBand(w.v.Form)
	switch {
	case !ok || math.IsNaN(g.Base) || w.flour <= 0:
		g.State, g.Verdict, g.VerdictText = Unknown, "not judged", "A flourless batter is not judged on thickness"
		return g
	case w.weighed.pieceShare() > gratedCakeShare:
		g.Band = &band
		g.State, g.Verdict, g.VerdictText = Unknown, "not judged", "More pieces than batter: a cake, not judged on thickness"
		return g
	}
	g.Band = &band
	g.Verdict = string(flow.ClassOf(g.After))
	d := g.After - g.Base
	switch {
	case math.Abs(d) <= levelThickness:
		g.State, g.VerdictText = Level, "Pours like the base"
	case band.Contains(g.After):
		g.State, g.VerdictText = InBand, "A touch "+either(d > 0, "thinner", "thicker")+" than the base"
	case g.After > band.High:
		g.State, g.VerdictText = High, "Too thin for "+formName(w.v.Form, 1)
	default:
		g.State, g.VerdictText = Low, "Too thick for "+formName(w.v.Form, 1)
	}
	return g
}

func (w *work) sweetnessGauge() Gauge {
	g := Gauge{
		Label: "Sweetness", Unit: "g/100 g", Base: w.plain.sweetness(), With: w.with.sweetness(), After: w.weighed.sweetness(),
		LowText: "less sweet", HighText: "sweeter", Decimals: 1,
	}
	band := batter.SweetnessBand(g.Base)
	g.Band = &band
	d := g.After - g.Base
	more := either(d > 0, "sweeter", "less sweet")
	switch {
	case math.Abs(d) <= math.Max(levelShare*g.Base, 0.05):
		g.State, g.Verdict, g.VerdictText = Level, "level", "As sweet as the base"
	case band.Contains(g.After):
		g.State, g.Verdict, g.VerdictText = InBand, more, "A touch "+more+" than the base"
	case d > 0:
		g.State, g.Verdict, g.VerdictText = High, more, "Sweeter than the base"
	default:
		g.State, g.Verdict, g.VerdictText = Low, more, "Less sweet than the base"
	}
	return g
}

// describe looks at the bowl as weighed and at one portion of it.
func (w *work) describe() {
	whole := food.Whole(w.weighed.parts)
	pot := portion.BowlOf(w.weighed.parts, portion.Air(w.v.Form))
	b := Batter{
		MassG: whole.Mass, VolumeML: pot.VolumeML, DensityGML: pot.Density(), FlourG: w.doseReference(),
		WaterG: whole.Water, SugarsG: whole.Sugars,
	}
	for i, a := range w.v.Additions {
		if a.Stage == batter.StageFoldIn {
			b.FoldInG += w.adds[i]
		}
	}
	ml := w.v.Portion.VolumeML
	p := Portion{Count: pot.Count(ml), VolumeML: ml, MassG: ml * pot.Density()}
	p.LeftOverML = math.Max(0, pot.VolumeML*(1-portion.BowlLoss)-float64(p.Count)*ml)
	if w.out.Thickness.State != Unknown {
		b.Class = flow.ClassOf(w.out.Thickness.After)
	}
	if l := w.weighed.thick.L(); !math.IsNaN(l) && w.flour > 0 {
		tau := w.k.Calibration.YieldStress(l)
		b.YieldStressPa = &tau
		if layer, ok := portion.LayerOf(w.v.Form, ml, tau, pot.Density()); ok {
			p.DiameterMM, p.PouredMM = &layer.DiameterMM, &layer.ThicknessMM
		}
	}
	if p.DiameterMM == nil {
		p.Reason = either(w.v.Form == batter.Waffle, "A waffle takes the shape of its iron.", "A flourless batter is not judged on how it spreads.")
	}
	w.out.Batter, w.out.Portion = b, p
}

// safety gathers allergens and cautions of everything in the serving, once each.
func (w *work) safety() {
	var contains, may []string
	add := func(in *food.Ingredient) {
		contains = append(contains, in.Allergens...)
		may = append(may, in.MayContain...)
	}
	type said struct{ text, who string }
	var rows []said
	var eggOrFlour, told bool
	caution := func(in *food.Ingredient) {
		if in.Caution != "" {
			rows = append(rows, said{in.Caution, lower(in.Label())})
			told = told || strings.Contains(in.Caution, "do not taste")
		}
	}
	for _, l := range w.v.Base.Lines {
		add(l.Ingredient)
		caution(l.Ingredient)
		eggOrFlour = eggOrFlour || l.Ingredient.Group == food.GroupEgg || l.Ingredient.IsFlour()
	}
	for i, a := range w.v.Additions {
		if w.adds[i] > 0 {
			add(a.Ingredient)
			caution(a.Ingredient)
		}
	}
	w.out.Allergens, w.out.MayContain = unique(contains), unique(may)
	w.out.MayContain = slices.DeleteFunc(w.out.MayContain, func(m string) bool { return slices.Contains(w.out.Allergens, m) })
	if eggOrFlour && !told {
		w.out.Cautions = append(w.out.Cautions, Caution{"raw_batter", "Do not taste raw batter: flour and egg are raw until cooked through."})
	}
	if len(w.out.Allergens) > 0 {
		w.out.Cautions = append(w.out.Cautions, Caution{"allergens", "Allergens follow the usual makes; the pack decides. A shared griddle or iron carries them over."})
	}
	for len(rows) > 0 {
		text, who := rows[0].text, []string{}
		rows = slices.DeleteFunc(rows, func(s said) bool {
			if s.text == text && !slices.Contains(who, s.who) {
				who = append(who, s.who)
			}
			return s.text == text
		})
		w.out.Cautions = append(w.out.Cautions, Caution{"ingredient", upper(text) + " (" + list(who) + ")."})
	}
	w.out.Cautions = append(w.out.Cautions, Caution{"local_code", "This is kitchen help, not a food-safety plan: follow your local code."})
}

func unique(s []string) []string {
	s = slices.Clone(s)
	slices.Sort(s)
	return slices.Compact(s)
}
