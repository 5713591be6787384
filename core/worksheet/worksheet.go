// Package worksheet is the one door to the rules: it turns a variation into everything that
// is shown of it. Whatever shows a number gets it here.
package worksheet

import (
	"context"
	"fmt"
	"maps"
	"math"
	"slices"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/portion"
	"upbeatladle/core/prep"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// grated cakes are not judged on thickness: pieces above half the mass.
const gratedCakeShare = 0.5

// bowl is one state of the variation: masses of the lines with the additions in the bowl.
type bowl struct {
	parts   []food.Part
	lines   int // of them that are the base's, before the additions
	whole   food.Total
	account food.Total // batter account
	thick   flow.Thickness
	lift    lift.Lift
	pulled  float64 // times the reference's L* that it was pulled to
}

func bowlOf(parts []food.Part, lines int) bowl {
	return bowl{parts, lines, food.Whole(parts), food.Batter(parts), flow.Of(parts), lift.Of(parts), 1}
}

func (b bowl) sweetness() float64 {
	if b.account.Mass <= 0 {
		return 0
	}
	return 100 * b.account.Sweetness() / b.account.Mass
}

// moisture is the water in g per 100 g of dry matter of the batter between the pieces: what the
// heat has to deal with. Nuts make no batter drier, and spirit is not dry matter.
func (b bowl) moisture() float64 {
	if dry := b.dry(); dry > 0 {
		return 100 * b.account.Water / dry
	}
	return 0
}

func (b bowl) dry() float64 { return b.account.Mass - b.account.Water - b.account.Alcohol }

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

// grated tells a cake of grated things, which is patted flat, from a batter.
func (b bowl) grated() bool { return b.pieceShare() > gratedCakeShare }

// A worksheet is worked out in three steps, each a value that the next one is made of: what is
// measured, what is solved, what is described.

// measured is a variation in grams.
type measured struct {
	asked     batter.Variation // as the cook wrote it
	v         batter.Variation // the same with its additions prepared
	k         batter.Kitchen
	base      []float64   // g of the base lines
	adds      []float64   // g of the additions as they go into the bowl
	raw       []food.Part // the additions as they are weighed, before their preparation
	treated   []*prep.Result
	flour     float64
	include   Include
	reference []food.Part // the bowl that targets are taken from; nil is the base as it is
	pan       panFat
}

// solved is a measured variation with its offsets, rounded to what can be weighed.
type solved struct {
	measured
	solution                      balance.Solution
	weigh                         []float64   // g of the base lines, rounded to the scale
	spooned                       []float64   // g, as cups and spoons give them
	made                          []food.Part // the additions in the bowl as they go in: dried, if so asked
	plain, with, weighed, bySpoon bowl        // plain is the reference
	lines                         []Line
	preview                       bool // grams only: nobody reads the spoons
}

// described is a solved variation with everything that is said of it.
type described struct {
	solved
	allergens safety.Allergens
	onPlate   onPlate
	safeS     float64    // the second side, or the time closed, is never shorter
	each      *Nutrients // of a portion; nil when the bowl fills none
	out       Worksheet
}

// Work answers a variation made in a kitchen, with what is included. The error is batter.Problems when the
// variation cannot be worked with, else the context's when that ended first; nothing else is
// returned then.
func Work(ctx context.Context, v batter.Variation, k batter.Kitchen, include Include) (Worksheet, error) {
	w, err := work(ctx, v, k, include)
	if err != nil {
		return Worksheet{}, err
	}
	return w.out, nil
}

// Recipe is Work together with what is mixed, for whoever goes on from there.
func Recipe(ctx context.Context, v batter.Variation, k batter.Kitchen, include Include) (Worksheet, mixing.Recipe, error) {
	w, err := work(ctx, v, k, include)
	if err != nil {
		return Worksheet{}, mixing.Recipe{}, err
	}
	return w.out, w.recipe(), nil
}

func work(ctx context.Context, v batter.Variation, k batter.Kitchen, include Include) (*described, error) {
	v, said, err := counted(ctx, v, k)
	if err != nil {
		return nil, err
	}
	m := inGrams(v, k)
	m.include = include
	s, err := m.solve(ctx, false)
	if err != nil {
		return nil, err
	}
	w := describe(s, said)
	if include.Choices {
		w.choices()
	}
	if include.Name {
		w.out.ProposedName = v.ProposedName()
	}
	w.greased()
	w.nutrition()
	w.cost()
	w.safety()
	if err := w.causes(ctx); err != nil {
		return nil, err
	}
	w.verdict()
	if include.Cook || include.HeatLine {
		if err := w.cook(ctx, include); err != nil {
			return nil, err
		}
	}
	w.mixing()
	if include.Strategies {
		if err := w.previews(ctx); err != nil {
			return nil, err
		}
	}
	if include.Working {
		w.working()
	}
	return w, nil
}

// counted checks a variation and scales it to the portions that are asked for, with what was
// rounded on the way.
func counted(ctx context.Context, v batter.Variation, k batter.Kitchen) (_ batter.Variation, said []string, err error) {
	if err := v.Check(k).OrNil(); err != nil {
		return v, nil, err
	}
	if v.Portion.Count > 0 {
		factor, err := factorForCount(ctx, v, k, v.Portion.Count)
		if err != nil {
			return v, nil, err
		}
		eggs := wholeEggs(v, factor)
		v, said = v.Scaled(factor)
		if len(said) > 0 && eggs > v.Portion.Count {
			said = append(said, fmt.Sprintf("Make %d instead of %d, and the eggs are whole.", eggs, v.Portion.Count))
		}
		if err := v.Check(k).OrNil(); err != nil { // so many may be too much
			return v, nil, err
		}
	}
	return v, said, nil
}

// wholeEggs is how many portions would take the next whole number of eggs; 0 without eggs that are counted.
func wholeEggs(v batter.Variation, factor float64) int {
	for _, l := range v.Base.Lines {
		if !batter.IsEggs(l) {
			continue
		}
		exact := l.Amount * factor
		next := math.Max(1, math.Ceil(exact-0.05))
		return int(math.Floor(float64(v.Portion.Count)*next/exact + 1e-9))
	}
	return 0
}

// beatenEgg is the density of an egg that was beaten with a fork [g/ml] (modelling choice: 1.03 less a little froth).
const beatenEgg = 1.0

// halfEggs says how half of an egg is measured.
func (w *described) halfEggs() {
	for _, l := range w.v.Base.Lines {
		if half := l; batter.IsEggs(l) && l.Amount != math.Floor(l.Amount) {
			half.Amount -= math.Floor(l.Amount)
			g, err := w.k.Grams(half)
			if err != nil {
				continue
			}
			spoons, _ := w.k.Measures.Spoon(g, beatenEgg)
			w.note("half_egg", l.ID, "For the part of an egg beat a whole one with a fork, and take so much of it: %s, %s.", words.Grams(g, 1), spoons)
		}
	}
}

// describe judges the bowl as weighed and a portion of it, and says what there is to know, what
// was said on the way first.
func describe(s *solved, said []string) *described {
	w := &described{solved: *s}
	w.out.Lines, w.out.Held = s.lines, held(s.v.Offset)
	for _, text := range said {
		w.note("eggs_whole", "", "%s", text)
	}
	w.halfEggs()
	w.gauges()
	w.bowl()
	w.inclusions()
	w.plate()
	w.notes()
	return w
}

// held lists what the offsets hold: what was asked for, and what was pulled.
func held(o batter.Offset) []batter.Hold {
	out := slices.Clone(o.Hold)
	for _, h := range batter.Pulled {
		if o.Holds(h) && !slices.Contains(out, h) {
			out = append(out, h)
		}
	}
	return out
}

// ledger checks, measures and solves a variation.
func ledger(ctx context.Context, v batter.Variation, k batter.Kitchen) (*solved, error) {
	if err := v.Check(k).OrNil(); err != nil {
		return nil, err
	}
	return inGrams(v, k).solve(ctx, false)
}

// inGrams turns every line into grams, and prepares the additions. The variation has been
// checked, so that it can.
func inGrams(v batter.Variation, k batter.Kitchen) *measured {
	w := &measured{asked: v, v: v, k: k}
	for _, l := range v.Base.Lines {
		g, _ := k.Grams(l)
		w.base = append(w.base, g)
		if l.Role == food.RoleFlour {
			w.flour += g
		}
	}
	w.v.Additions = slices.Clone(v.Additions)
	for i := range w.v.Additions {
		a := &w.v.Additions[i]
		g, _ := k.Grams(a.Line)
		w.raw = append(w.raw, food.Part{Ingredient: a.Ingredient, Grams: g})
		product, left, done, _ := a.Prep.Treated(k.Shelf, a.Ingredient, g)
		a.Ingredient = product
		w.adds = append(w.adds, left)
		w.treated = append(w.treated, done)
	}
	w.reference = referenceOf(v, k)
	w.pan = w.fat()
	return w
}

// referenceOf is the bowl that targets are taken from, the base's lines first; nil when it is the
// base as it is.
func referenceOf(v batter.Variation, k batter.Kitchen) []food.Part {
	if !v.Reference.AsWritten && v.Reference.Lines == nil {
		return nil
	}
	var out []food.Part
	for _, l := range v.ReferenceLines() {
		g, _ := k.Grams(l)
		out = append(out, food.Part{Ingredient: l.Ingredient, Grams: g})
	}
	for _, a := range v.Reference.Additions {
		if g, _ := k.Grams(a.Line); v.Reference.AsWritten && a.Stage.InBowl() {
			product, left, _, _ := a.Prep.Treated(k.Shelf, a.Ingredient, g)
			out = append(out, food.Part{Ingredient: product, Grams: left})
		}
	}
	return out
}

// baseParts lists base lines of the given masses.
func (w *measured) baseParts(masses []float64) []food.Part {
	out := make([]food.Part, 0, len(masses)+len(w.adds))
	for i, g := range masses {
		out = append(out, food.Part{Ingredient: w.v.Base.Lines[i].Ingredient, Grams: g})
	}
	return out
}

// additions lists those that are in the bowl.
func (w *measured) additions() []food.Part {
	var out []food.Part
	for i, a := range w.v.Additions {
		if a.Stage.InBowl() {
			out = append(out, food.Part{Ingredient: a.Ingredient, Grams: w.adds[i]})
		}
	}
	return out
}

// problem is the variation as the solver sees it.
func (w *measured) problem() balance.Problem {
	p := balance.Problem{
		Additions: w.additions(), Reference: w.reference, ReferenceLines: len(w.v.ReferenceLines()), Strategy: w.v.Offset.Strategy, Hold: w.v.Offset.Hold, Targets: w.v.Offset.Targets,
		SugarBy: w.v.Offset.SugarBy, AllowLow: w.v.Offset.AllowLow, EggG: w.k.EggG, FineStep: w.k.LeavenStep,
	}
	if _, judged := batter.ThicknessBand(w.v.Form); !judged { // it is not moved by what it is not judged on
		p.Hold = slices.DeleteFunc(slices.Clone(p.Hold), func(h batter.Hold) bool { return h == batter.HoldThickness })
		p.Targets = maps.Clone(p.Targets)
		delete(p.Targets, batter.HoldThickness)
	}
	for i, l := range w.v.Base.Lines {
		p.Lines = append(p.Lines, balance.Line{Ingredient: l.Ingredient, Grams: w.base[i], Role: l.Role, Locked: l.Locked})
	}
	return p
}

// solve finds the offsets, rounds them to the scale and evaluates the bowl as it is weighed.
// A preview does without spoons.
func (w *measured) solve(ctx context.Context, preview bool) (*solved, error) {
	p := w.problem()
	answer, err := balance.Solve(ctx, p)
	if err != nil {
		return nil, err
	}
	s := &solved{measured: *w, solution: answer, made: p.Additions, preview: preview}
	if s.plain = bowlOf(w.reference, len(w.v.ReferenceLines())); w.reference == nil {
		s.plain = bowlOf(w.baseParts(w.base), len(w.base))
	}
	s.with = bowlOf(s.parts(w.base), len(w.base))
	if answer.DryTo != nil {
		s.made = nil
		for i, a := range p.Additions {
			to := measure.Round(answer.DryTo[i], w.k.ScaleStep)
			s.made = append(s.made, food.Part{Ingredient: prep.Evaporated(a.Ingredient, a.Grams, to), Grams: min(to, a.Grams)})
		}
	}
	s.roundAdditions()
	s.roundBase()
	if s.crosses() { // one step of soda less keeps clear
		exact := s.solution.Grams
		s.solution.Grams = slices.Clone(exact)
		for i, l := range w.v.Base.Lines {
			if lift.IsSoda(l.Ingredient) && !l.Locked {
				s.solution.Grams[i] = math.Max(0, s.weigh[i]-w.k.Step(l))
			}
		}
		s.roundBase()
		for i := range exact { // what was asked for before rounding stays what it was
			s.lines[i].RoundedFrom = exact[i]
		}
	}
	s.bySpoon = bowlOf(s.parts(s.spooned), len(w.base))
	if s.v.Portion.OneCake {
		s.v.Portion.VolumeML = s.pot().VolumeML * (1 - portion.BowlLoss)
	}
	inBowl := 0
	for i, a := range w.v.Additions {
		var made *food.Part
		if a.Stage.InBowl() {
			made = &s.made[inBowl]
			inBowl++
		}
		s.lines = append(s.lines, s.additionLine(i, a, made))
	}
	return s, nil
}

// roundBase makes the ledger of the base's lines and the bowl as it is weighed.
func (w *solved) roundBase() {
	n := len(w.v.Base.Lines)
	w.weigh, w.spooned, w.lines = make([]float64, 0, n), make([]float64, 0, n), make([]Line, 0, n+len(w.v.Additions))
	for i, l := range w.v.Base.Lines {
		w.lines = append(w.lines, w.baseLine(i, l))
	}
	w.weighed = bowlOf(w.parts(w.weigh), len(w.weigh))
	w.weighed.pulled = w.problem().Targets.Of(batter.HoldThickness, 1)
}

// crosses tells whether rounding has taken the bowl over the edge of grey fruit or of soap, which
// neither the reference nor the bowl without offsets crosses.
func (w *solved) crosses() bool {
	if w.weighed.lift.SodaG <= 0 || w.v.Offset.Strategy == batter.Leave {
		return false
	}
	grey := func(b bowl) bool { return b.lift.SodaToAcid() >= lift.GreyAbove }
	soapy := func(b bowl) bool { return b.lift.Tang(b.account.Mass) < batter.TangBand().Low }
	return grey(w.weighed) && !grey(w.with) && !grey(w.plain) || soapy(w.weighed) && !soapy(w.with) && !soapy(w.plain)
}

// parts lists base lines of the given masses with the additions that are in the bowl.
func (w *solved) parts(masses []float64) []food.Part {
	return append(w.baseParts(masses), w.made...)
}

// same is the property that base line i shares with the additions, per gram, for the
// "acts like" column; nil when the line's role has none.
func (w *measured) same(l batter.Line) func(*food.Ingredient) float64 {
	switch l.Role {
	case food.RoleLiquid:
		return flow.LiquidPerGram
	case food.RoleFlour:
		return func(in *food.Ingredient) float64 { return in.Body }
	case food.RoleSugar:
		return func(in *food.Ingredient) float64 { return in.Release() * in.Sweetness() / 100 }
	case food.RoleFat:
		return func(in *food.Ingredient) float64 { return in.Release() * in.Fat / 100 }
	case food.RoleSalt:
		return balance.SaltPerGram
	}
	return nil
}

// actsLike returns base plus what the additions bring of the same thing. Lines of the same
// role share it by their base mass.
func (w *measured) actsLike(i int) float64 {
	l := w.v.Base.Lines[i]
	per := w.same(l)
	if per == nil || per(l.Ingredient) <= 0 {
		return w.base[i]
	}
	var brought, all float64
	for _, p := range w.additions() {
		brought += p.Grams * per(p.Ingredient)
	}
	if w.reference != nil { // what the recipe was written with is in it already
		for _, p := range w.reference[len(w.v.ReferenceLines()):] {
			brought -= p.Grams * per(p.Ingredient)
		}
	}
	for j, o := range w.v.Base.Lines {
		if o.Role == l.Role {
			all += w.base[j]
		}
	}
	return w.base[i] + brought/per(l.Ingredient)*w.base[i]/all
}

// baseLine rounds a line of the base to its scale and tells what became of it.
func (w *solved) baseLine(i int, l batter.Line) Line {
	step := w.k.Step(l)
	base, acts, offset, state := w.base[i], w.actsLike(i), 0.0, AsItIs
	weigh := measure.Round(w.solution.Grams[i], step)
	change := w.solution.Grams[i] - base
	switch {
	case l.Locked:
		state = Pinned
	case math.Abs(change) < step/2:
		weigh = measure.Round(base, step) // a change too small for the scale is none
	case change < 0:
		state, offset = Less, weigh-base
	default:
		state, offset = More, weigh-base
	}
	if w.solution.Stuck[i] {
		state = Stuck
	}
	spoonedFrom := weigh
	if state == AsItIs { // a spoon as the recipe has it, whatever the scale's step makes of it
		spoonedFrom = base
	}
	text, given := w.spoons(l, spoonedFrom)
	w.weigh, w.spooned = append(w.weigh, weigh), append(w.spooned, given)
	return Line{
		ID: l.ID, Ingredient: l.Ingredient.ID, Name: l.Ingredient.Name, Label: l.Ingredient.Label(), Role: l.Role,
		From: FromBase, Base: &base, ActsLike: &acts, Offset: &offset, Weigh: weigh,
		RoundedFrom: w.solution.Grams[i], spoonedFrom: spoonedFrom, Step: step, Decimals: words.Decimals(step), Measure: text, MeasureG: spooned(text, given), State: state,
		Colour: l.Ingredient.Colour.Hex, Own: ownOf(l.Ingredient), AsRead: l.Ingredient.Doubt, Allergens: l.Ingredient.Allergens, MayContain: l.Ingredient.MayContain,
	}
}

// additionLine tells of an addition; made is what goes into the bowl of it, nil when nothing does.
func (w *solved) additionLine(i int, a batter.Addition, made *food.Part) Line {
	whole := a.Line
	whole.Ingredient = w.raw[i].Ingredient
	in, g, step := whole.Ingredient, w.raw[i].Grams, w.k.Step(whole)
	dose := batter.DoseOf(in, w.doseReference(), g)
	weigh := measure.Round(g, step)
	text, given := w.spoons(whole, g)
	line := Line{
		ID: a.ID, Ingredient: in.ID, Name: in.Name, Label: in.Label(), Role: a.Role,
		From: FromAddition, Stage: a.Stage, Weigh: weigh, RoundedFrom: g, spoonedFrom: g, Step: step,
		Decimals: words.Decimals(step), Measure: text, MeasureG: spooned(text, given), State: AsItIs, Dose: &dose, Colour: in.Colour.Hex,
		Treatments: prep.For(in), Own: ownOf(in), AsRead: a.Ingredient.Doubt, Allergens: a.Ingredient.Allergens, MayContain: a.Ingredient.MayContain,
	}
	if r := w.treated[i]; r != nil {
		line.Prepared = &Prepared{Label: a.Prep.Label(), Grams: w.adds[i], Work: r}
		for _, f := range r.Left {
			if f.Kind == prep.Juice {
				line.Prepared.Kept += f.Grams
			}
		}
	}
	if made == nil {
		return line
	}
	released := food.Batter([]food.Part{{Ingredient: a.Ingredient, Grams: w.adds[i]}})
	line.Brings = &Brings{Water: released.Water, Sugars: released.Sugars}
	if to := made.Grams; w.solution.DryTo != nil && to < w.adds[i] {
		line.DryTo = &to
	}
	return line
}

// roundAdditions rounds what goes into the bowl to the scale, so that the bowl is the sum of what
// was weighed.
func (w *solved) roundAdditions() {
	w.made = slices.Clone(w.made)
	at := 0
	for i, a := range w.v.Additions {
		if !a.Stage.InBowl() {
			continue
		}
		line := a.Line
		line.Ingredient = w.raw[i].Ingredient
		step := w.k.Step(line)
		if w.treated[i] != nil {
			step = w.k.ScaleStep
		}
		w.made[at].Grams = measure.Round(w.made[at].Grams, step)
		at++
	}
}

func (w *measured) doseReference() float64 {
	var mass float64
	for _, g := range w.base {
		mass += g
	}
	return batter.DoseReference(w.flour, mass)
}

// spooned is what cups and spoons give, when they can be said.
func spooned(text string, given float64) *float64 {
	if text == "" {
		return nil
	}
	return &given
}

// ownOf is what a line says of the cook's own figures.
func ownOf(in *food.Ingredient) *food.OwnFigures {
	if in.Own == nil {
		return nil
	}
	own := food.OwnFiguresOf(in.ID, in.Own)
	return &own
}

// spoons says grams of a line in the kitchen's cups and spoons, eggs by number, with the
// grams that this really gives. Without a density the scale has to serve.
func (w *solved) spoons(l batter.Line, grams float64) (text string, given float64) {
	if grams <= 0 || w.preview {
		return "", grams
	}
	if l.Ingredient.Group == food.GroupEgg && l.Ingredient.UnitG > 0 {
		one := l
		one.Amount, one.Unit = 1, measure.Each
		if g, err := w.k.Grams(one); err == nil {
			return countText(grams/g, l.Ingredient), grams
		}
	}
	density, ok := w.density(l)
	if !ok {
		return "", grams
	}
	return w.k.Measures.Spoon(grams, density)
}

// density is what a millilitre of a line weighs as this cook measures it.
func (w *solved) density(l batter.Line) (float64, bool) {
	s := l.Ingredient.Subject()
	s.Method = l.Method
	density, err := w.k.Measures.ToGrams(1, measure.Ml, s)
	return density, err == nil
}

// nearEgg is how far from halves an egg is still counted (as countText does; modelling choice).
const nearEgg = 0.08

// fills are the cups and spoons for so many grams of a line, or its eggs; none when the scale has to serve.
func (w *solved) fills(l batter.Line, grams float64) []measure.Fill {
	if l.Ingredient.Group == food.GroupEgg && l.Ingredient.UnitG > 0 {
		one := l
		one.Amount, one.Unit = 1, measure.Each
		g, err := w.k.Grams(one)
		if n := math.Floor(2*grams/g+0.5) / 2; err == nil && n >= 0.5 && math.Abs(grams-n*g) <= nearEgg*g {
			var out []measure.Fill
			if whole := math.Floor(n); whole > 0 {
				out = append(out, measure.Fill{Vessel: "each", Size: "1", Times: int(whole), Grams: grams / n})
			}
			if n > math.Floor(n) {
				out = append(out, measure.Fill{Vessel: "each", Size: "½", Times: 1, Grams: grams / n / 2})
			}
			return out
		}
		return nil
	}
	if density, ok := w.density(l); ok {
		return w.k.Measures.Fills(grams, density)
	}
	return nil
}
