package batch

import (
	"context"
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

// SharedLine is the line of a bowl that is taken from the common batter.
const SharedLine = "shared"

// splitSlack is how much of an egg may be missing before all bowls grow to the next whole one (modelling choice).
const splitSlack = 0.02

// Share is what a bowl takes of a common batter: of each line of the base so many grams.
type Share struct {
	Of    string             `json:"of"` // the base
	Grams map[string]float64 `json:"grams"`
}

// mass is all of it.
func (s Share) mass() (g float64) {
	for _, v := range s.Grams {
		g += v
	}
	return g
}

// Splitting is several bowls from one base: its batter is weighed and mixed once, as dry as the driest bowl
// needs it, and split; each bowl gets back what it lacks.
type Splitting struct {
	Common  Making           // the batter that is split
	Base    batter.Variation // what it is made of
	Bowls   []Making
	Shares  []Share
	Factors []float64 // that the variations were scaled by, exactly: eggs are whole in the common batter only
	Said    []string
}

// Split plans several bowls from one base. The error is batter.Problems, for the wish's field "bowls" when they are
// not from one base. Formulas: docs/maths.md section 19.
func Split(ctx context.Context, all []batter.Variation, k batter.Kitchen) (Splitting, error) {
	var s Splitting
	first := all[0]
	units := make([]float64, len(all)) // of the first one's base
	for i, v := range all {
		ratio, ok := sameBase(first, v)
		if !ok {
			var p batter.Problems
			p.Add(batter.Field{Part: batter.OfWish, Name: "bowls"}, "other_base", "“%s” is on another base than “%s”: only bowls of one base can be split from one batter.", v.Name, first.Name)
			return s, p
		}
		f, err := factorOf(ctx, v, k)
		if err != nil {
			return s, err
		}
		s.Factors = append(s.Factors, f)
		units[i] = ratio * f
	}
	s.wholeEggs(first, units)
	var bowls []bowlOf
	for i, v := range all {
		v = v.ScaledExactly(s.Factors[i])
		v.Portion.Count = 0
		sheet, recipe, err := worksheet.Recipe(ctx, v, k, worksheet.Include{Cook: true})
		if err != nil {
			return s, err
		}
		bowls = append(bowls, bowlOf{v, sheet, recipe, units[i]})
	}
	common := s.common(first, bowls)
	for _, b := range bowls {
		share := Share{first.Base.Name, b.share(common)}
		s.Bowls, s.Shares = append(s.Bowls, b.making(share)), append(s.Shares, share)
	}
	return s, s.mix(ctx, first, bowls, common, k)
}

// bowlOf is one bowl of a split, as it would be on its own.
type bowlOf struct {
	v      batter.Variation
	sheet  worksheet.Worksheet
	recipe mixing.Recipe
	units  float64
}

// sameBase tells whether two variations have one base, and how many times the first one's the second's is.
func sameBase(a, b batter.Variation) (ratio float64, ok bool) {
	if len(a.Base.Lines) != len(b.Base.Lines) || len(a.Base.Lines) == 0 {
		return 0, false
	}
	ratio = b.Base.Lines[0].Amount / a.Base.Lines[0].Amount
	for i, l := range a.Base.Lines {
		m := b.Base.Lines[i]
		if l.Ingredient.ID != m.Ingredient.ID || l.Unit != m.Unit || math.Abs(m.Amount-ratio*l.Amount) > 1e-3*math.Max(m.Amount, 1e-9) {
			return 0, false
		}
	}
	return ratio, true
}

// factorOf is what a variation is scaled by to give its portions, its eggs not rounded.
func factorOf(ctx context.Context, v batter.Variation, k batter.Kitchen) (float64, error) {
	if v.Portion.Count <= 0 {
		return 1, nil
	}
	count := v.Portion.Count
	v.Portion.Count = 0
	now, err := worksheet.Portions(ctx, v, k)
	if err != nil || now <= 0 {
		return 1, err
	}
	return float64(count) / now, nil
}

// wholeEggs makes all bowls a little larger, so that the common batter takes whole eggs.
func (s *Splitting) wholeEggs(first batter.Variation, units []float64) {
	if first.Base.Whips() {
		return
	}
	var all float64
	for _, u := range units {
		all += u
	}
	up := 1.0
	for _, l := range first.Base.Lines {
		if l.Ingredient.IsWholeEgg() && l.Unit == measure.Each {
			eggs := l.Amount * all
			up = math.Max(up, math.Max(1, math.Ceil(eggs-splitSlack))/eggs)
		}
	}
	if up > 1.001 {
		s.Said = append(s.Said, fmt.Sprintf("All bowls are %.0f %% larger, so that the eggs of the common batter are whole.", 100*(up-1)))
	}
	for i := range units {
		units[i] *= up
		s.Factors[i] *= up
	}
}

// common is how much of each line of the base goes into the common batter, for each unit of it [g]: the least that
// any bowl needs.
func (s *Splitting) common(first batter.Variation, bowls []bowlOf) map[string]float64 {
	out := map[string]float64{}
	var kept []string
	for n, l := range first.Base.Lines {
		least := math.Inf(1)
		for _, b := range bowls {
			need := b.sheet.Lines[n].RoundedFrom
			if l.Unit != measure.Each { // a part of an egg is exact in the common batter
				need = math.Min(need, b.sheet.Lines[n].Weigh)
			}
			least = math.Min(least, need/b.units)
		}
		if first.Base.Whips() && l.Ingredient.White() > 0 || s.waits(bowls, l) {
			kept = append(kept, words.Lower(l.Ingredient.Label()))
			continue
		}
		out[l.ID] = least
	}
	if len(kept) > 0 {
		s.Said = append(s.Said, words.Upper(words.List(kept))+" cannot be shared: each bowl gets its own.")
	}
	for n, l := range first.Base.Lines { // what some bowl needs more of than the driest, and is not poured back
		if l.Role != food.RoleSoda && l.Role != food.RoleLeavener || out[l.ID] == 0 {
			continue
		}
		for _, b := range bowls {
			if b.sheet.Lines[n].Weigh-out[l.ID]*b.units >= b.sheet.Lines[n].Step {
				s.Said = append(s.Said, fmt.Sprintf("%s takes more %s than the common batter has: it is stirred smooth with a spoon of the batter.", b.v.Name, words.Lower(l.Ingredient.Label())))
			}
		}
	}
	return out
}

// waits tells whether a line goes in only after a long rest of some bowl.
func (s *Splitting) waits(bowls []bowlOf, l batter.Line) bool {
	if l.Ingredient.CO2 <= 0 || l.Ingredient.IsFlour() {
		return false
	}
	return slices.ContainsFunc(bowls, func(b bowlOf) bool { return b.recipe.RestMin > safety.LeavenWaitsMin })
}

// share is what the bowl takes of the common batter.
func (b bowlOf) share(common map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for _, l := range b.v.Base.Lines {
		if g := common[l.ID] * b.units; g > 0 {
			out[l.ID] = g
		}
	}
	return out
}

// making plans a bowl: its share of the common batter, what it lacks of the base's lines, its additions.
func (b bowlOf) making(share Share) Making {
	m := Making{bowl: withShare(b.recipe, share), beside: b.sheet.Parts, target: b.v.Offset.Targets.Of(batter.HoldThickness, 1)}
	m.plan(b.v.Name, b.v.Form, b.sheet)
	return m
}

// withShare is a recipe that begins with its share of a common batter.
func withShare(r mixing.Recipe, share Share) mixing.Recipe {
	var kept float64
	for _, s := range mixing.Order(r) {
		if s.Code == mixing.CodeTest {
			for _, u := range s.Uses {
				kept += u.G
			}
		}
	}
	shared := mixing.Item{ID: SharedLine, Label: words.Upper(share.Of) + ", mixed", Step: batter.DefaultScaleStep, Ingredient: asIngredient(r, share), Carries: share.Grams}
	shared.WeighG = math.Round(share.mass())
	shared.IntoG = shared.WeighG
	items := []mixing.Item{shared}
	var back float64 // of the liquid that waits
	liquid, _ := r.Liquid()
	for _, i := range r.Items {
		if !i.Addition {
			i.WeighG = math.Max(0, math.Round((i.WeighG-share.Grams[i.ID])/i.Step)*i.Step)
			i.IntoG = i.WeighG
			if i.ID == liquid.ID {
				back = i.WeighG
			}
		}
		items = append(items, i)
	}
	r.Items, r.Mixed = items, true
	r.Base.School.Bowls = batter.OneWetFirst
	r.KeptG = math.Min(kept, back)
	r.Offset = r.KeptG > 0
	return r
}

// asIngredient is the common batter as one thing: what is in it, and that it spoils.
func asIngredient(r mixing.Recipe, share Share) *food.Ingredient {
	in := &food.Ingredient{ID: SharedLine, Name: share.Of, Group: food.GroupPuree, Role: food.RoleDairy}
	var used []*food.Ingredient
	for _, i := range r.Items {
		if share.Grams[i.ID] > 0 {
			used = append(used, i.Ingredient)
		}
	}
	a := safety.AllergensOf(used)
	in.Allergens, in.MayContain, in.Water = a.Contains, a.May, 60
	return in
}

// FollowShare is Follow for a bowl that took its share of a common batter.
func FollowShare(ctx context.Context, p Plan, v batter.Variation, k batter.Kitchen, share Share) (Making, error) {
	sheet, recipe, err := worksheet.Recipe(ctx, v, k, worksheet.Include{Cook: true})
	if err != nil {
		return Making{}, err
	}
	m := bowlOf{v, sheet, recipe, 1}.making(share)
	m.Plan = p
	return m, nil
}

// mix plans the common batter: its lines, mixed without a test or a rest, and split by weight.
func (s *Splitting) mix(ctx context.Context, first batter.Variation, bowls []bowlOf, common map[string]float64, k batter.Kitchen) error {
	v := first
	v.Additions, v.Beside, v.Reference, v.Portion.Count = nil, nil, batter.Reference{}, 0
	v.Offset = batter.Offset{Strategy: batter.Leave, SugarBy: v.Offset.SugarBy}
	v.Name = fmt.Sprintf("%s, for %s bowls", first.Base.Name, words.Number(len(bowls)))
	v.Base.Lines = nil
	var units float64
	for _, b := range bowls {
		units += b.units
	}
	for _, l := range first.Base.Lines {
		each, err := k.Grams(batter.Line{Ingredient: l.Ingredient, Amount: 1, Unit: l.Unit, Method: l.Method, CanG: l.CanG, CanML: l.CanML})
		if err != nil {
			return err
		}
		if l.Amount = common[l.ID] * units / each; l.Amount > 0 {
			v.Base.Lines = append(v.Base.Lines, l)
		}
	}
	sheet, recipe, err := worksheet.Recipe(ctx, v, k, worksheet.Include{})
	if err != nil {
		return err
	}
	recipe.Cooking, recipe.Judged, recipe.Spreads, recipe.RestMin = nil, false, false, 0
	m := Making{bowl: recipe}
	m.plan(v.Name, v.Form, sheet)
	var into []string
	for i, b := range bowls {
		into = append(into, fmt.Sprintf("%s for %s", words.Grams(math.Round(s.Shares[i].mass()), 1), b.v.Name))
	}
	m.Plan.Count, m.Plan.Common, m.Plan.Said = 0, true, s.Said
	m.Plan.Tasks = append(m.Plan.Tasks, Task{ID: "split", Kind: Do, Code: "split", Text: "Split it by weight, each into its own bowl: " + words.List(into) + ". A bowl for an allergy has a bowl, a ladle and a turner of its own."})
	s.Common, s.Base = m, v
	return nil
}
