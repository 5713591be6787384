// Package worksheet is the one door to the rules: it turns a variation into everything that
// is shown of it. Whatever shows a number gets it here.
package worksheet

import (
	"context"
	"math"
	"slices"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/measure"
	"upbeatladle/core/prep"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// grated cakes are not judged on thickness: pieces above half the mass.
const gratedCakeShare = 0.5

// bowl is one state of the variation: masses of the lines with the additions in the bowl.
type bowl struct {
	parts   []food.Part
	whole   food.Total
	account food.Total // batter account
	thick   flow.Thickness
	lift    lift.Lift
}

func bowlOf(parts []food.Part) bowl {
	return bowl{parts, food.Whole(parts), food.Batter(parts), flow.Of(parts), lift.Of(parts)}
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

// work carries one calculation.
type work struct {
	asked                         batter.Variation // as the cook wrote it
	v                             batter.Variation // the same with its additions prepared
	k                             batter.Kitchen
	base                          []float64   // g of the base lines
	weigh                         []float64   // g, rounded to the scale
	spooned                       []float64   // g, as cups and spoons give them
	adds                          []float64   // g of the additions as they go into the bowl
	raw                           []food.Part // the additions as they are weighed, before their preparation
	treated                       []*prep.Result
	made                          []food.Part // the additions in the bowl as they go in: dried, if so asked
	flour                         float64
	reference                     []food.Part // the bowl that targets are taken from; nil is the base as it is
	plain, with, weighed, bySpoon bowl        // plain is the reference
	solution                      balance.Solution
	preview                       bool // grams only: nobody reads the spoons
	allergens                     safety.Allergens
	out                           Worksheet
}

// Work answers a variation made in a kitchen, with what is included. The error is batter.Problems when the
// variation cannot be worked with, else the context's when that ended first; nothing else is
// returned then.
func Work(ctx context.Context, v batter.Variation, k batter.Kitchen, include Include) (Worksheet, error) {
	var said []string
	if v.Portion.Count > 0 {
		if err := v.Check(k).OrNil(); err != nil {
			return Worksheet{}, err
		}
		factor, err := factorForCount(ctx, v, k, v.Portion.Count)
		if err != nil {
			return Worksheet{}, err
		}
		v, said = v.Scaled(factor)
	}
	w, err := ledger(ctx, v, k)
	if err != nil {
		return Worksheet{}, err
	}
	for _, s := range said {
		w.note("eggs_whole", "/portion/count", "%s", s)
	}
	w.out.Held = held(v.Offset)
	w.look()
	w.choices()
	w.nutrition()
	w.cost()
	w.safety()
	if err := w.causes(ctx); err != nil {
		return Worksheet{}, err
	}
	w.verdict()
	w.mixing()
	if include.Strategies {
		if err := w.previews(ctx); err != nil {
			return Worksheet{}, err
		}
	}
	if include.Working {
		w.working()
	}
	return w.out, nil
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

// look judges the bowl as weighed and a portion of it, and says what there is to know.
func (w *work) look() {
	w.gauges()
	w.describe()
	w.inclusions()
	w.plate()
	w.notes()
}

// ledger measures, solves and rounds: the part that a preview of another strategy shares.
func ledger(ctx context.Context, v batter.Variation, k batter.Kitchen) (*work, error) {
	if err := v.Check(k).OrNil(); err != nil {
		return nil, err
	}
	w := &work{v: v, k: k}
	return w, w.ledger(ctx)
}

func (w *work) ledger(ctx context.Context) error {
	w.measure()
	if err := w.balance(ctx); err != nil {
		return err
	}
	w.lines()
	return nil
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
	w.asked, w.v.Additions = w.v, slices.Clone(w.v.Additions)
	for i := range w.v.Additions {
		a := &w.v.Additions[i]
		g, _ := w.k.Grams(a.Line)
		w.raw = append(w.raw, food.Part{Ingredient: a.Ingredient, Grams: g})
		product, left, done, _ := a.Prep.Treated(w.k.Shelf, a.Ingredient, g)
		a.Ingredient = product
		w.adds = append(w.adds, left)
		w.treated = append(w.treated, done)
	}
	if !w.v.Reference.AsWritten && w.v.Reference.Lines == nil {
		return
	}
	for _, l := range w.v.ReferenceLines() {
		g, _ := w.k.Grams(l)
		w.reference = append(w.reference, food.Part{Ingredient: l.Ingredient, Grams: g})
	}
	for _, a := range w.v.Reference.Additions {
		if g, _ := w.k.Grams(a.Line); w.v.Reference.AsWritten && a.Stage.InBowl() {
			product, left, _, _ := a.Prep.Treated(w.k.Shelf, a.Ingredient, g)
			w.reference = append(w.reference, food.Part{Ingredient: product, Grams: left})
		}
	}
}

// parts lists base lines of the given masses with the additions that are in the bowl.
func (w *work) parts(masses []float64, additions bool) []food.Part {
	out := make([]food.Part, 0, len(masses)+len(w.adds))
	for i, g := range masses {
		out = append(out, food.Part{Ingredient: w.v.Base.Lines[i].Ingredient, Grams: g})
	}
	if additions {
		out = append(out, w.made...)
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

// problem is the variation as the solver sees it.
func (w *work) problem() balance.Problem {
	p := balance.Problem{
		Additions: w.additions(), Reference: w.reference, Strategy: w.v.Offset.Strategy, Hold: w.v.Offset.Hold, Targets: w.v.Offset.Targets,
		SugarBy: w.v.Offset.SugarBy, AllowLow: w.v.Offset.AllowLow, EggG: w.k.EggG,
	}
	for i, l := range w.v.Base.Lines {
		p.Lines = append(p.Lines, balance.Line{Ingredient: l.Ingredient, Grams: w.base[i], Role: l.Role, Locked: l.Locked})
	}
	return p
}

// balance solves the offsets and rounds them to the scale.
func (w *work) balance(ctx context.Context) error {
	p := w.problem()
	s, err := balance.Solve(ctx, p)
	if err != nil {
		return err
	}
	w.solution = s
	for i, l := range w.v.Base.Lines {
		w.weigh = append(w.weigh, measure.Round(s.Grams[i], w.k.Step(l)))
	}
	w.made = p.Additions
	if w.plain = bowlOf(w.reference); w.reference == nil {
		w.plain = bowlOf(w.parts(w.base, false))
	}
	w.with = bowlOf(w.parts(w.base, true))
	if s.DryTo != nil {
		w.made = nil
		for i, a := range p.Additions {
			to := measure.Round(s.DryTo[i], w.k.ScaleStep)
			w.made = append(w.made, food.Part{Ingredient: prep.Evaporated(a.Ingredient, a.Grams, to), Grams: min(to, a.Grams)})
		}
	}
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
	case food.RoleFat:
		return func(in *food.Ingredient) float64 { return in.Release() * in.Fat / 100 }
	case food.RoleSalt:
		return balance.SaltPerGram
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
	if w.reference != nil { // what the recipe was written with is in it already
		for _, p := range w.reference[len(w.v.Base.Lines):] {
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
		text, given := w.spoons(l, w.weigh[i])
		w.spooned = append(w.spooned, given)
		w.out.Lines = append(w.out.Lines, Line{
			ID: l.ID, Ingredient: l.Ingredient.ID, Name: l.Ingredient.Name, Label: l.Ingredient.Label(), Role: l.Role,
			From: FromBase, Base: &base, ActsLike: &acts, Offset: &offset, Weigh: w.weigh[i],
			RoundedFrom: w.solution.Grams[i], Step: step, Decimals: words.Decimals(step), Measure: text, MeasureG: spooned(text, given), State: state,
			Colour: l.Ingredient.Colour.Hex, Own: ownOf(l.Ingredient), Allergens: l.Ingredient.Allergens, MayContain: l.Ingredient.MayContain,
		})
	}
	w.roundAdditions()
	w.weighed = bowlOf(w.parts(w.weigh, true))
	w.bySpoon = bowlOf(w.parts(w.spooned, true))
	reference := w.doseReference()
	inBowl := 0
	for i, a := range w.v.Additions {
		whole := a.Line
		whole.Ingredient = w.raw[i].Ingredient
		in, g, step := whole.Ingredient, w.raw[i].Grams, w.k.Step(whole)
		dose := batter.DoseOf(in, reference, g)
		weigh := measure.Round(g, step)
		text, given := w.spoons(whole, weigh)
		line := Line{
			ID: a.ID, Ingredient: in.ID, Name: in.Name, Label: in.Label(), Role: a.Role,
			From: FromAddition, Stage: a.Stage, Weigh: weigh, RoundedFrom: g, Step: step,
			Decimals: words.Decimals(step), Measure: text, MeasureG: spooned(text, given), State: AsItIs, Dose: &dose, Colour: in.Colour.Hex,
			Treatments: prep.For(in), Own: ownOf(in), Allergens: a.Ingredient.Allergens, MayContain: a.Ingredient.MayContain,
		}
		if r := w.treated[i]; r != nil {
			line.Prepared = &Prepared{Label: a.Prep.Label(), Grams: w.adds[i], Work: r}
			for _, f := range r.Left {
				if f.Kind == prep.Juice {
					line.Prepared.Kept += f.Grams
				}
			}
		}
		if a.Stage.InBowl() {
			released := food.Batter([]food.Part{{Ingredient: a.Ingredient, Grams: w.adds[i]}})
			line.Brings = &Brings{Water: released.Water, Sugars: released.Sugars}
			if to := w.made[inBowl].Grams; w.solution.DryTo != nil && to < w.adds[i] {
				line.DryTo = &to
			}
			inBowl++
		}
		w.out.Lines = append(w.out.Lines, line)
	}
}

// roundAdditions rounds what goes into the bowl to the scale, so that the bowl is the sum of what
// was weighed.
func (w *work) roundAdditions() {
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

func (w *work) doseReference() float64 {
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
func (w *work) spoons(l batter.Line, grams float64) (text string, given float64) {
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
	s := l.Ingredient.Subject()
	s.Method = l.Method
	density, err := w.k.Measures.ToGrams(1, measure.Ml, s)
	if err != nil {
		return "", grams
	}
	return w.k.Measures.Spoon(grams, density)
}
