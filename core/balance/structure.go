package balance

import (
	"context"
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

const (
	maxEggs = 2 // whole eggs that are tried (modelling choice)

	// StructureWord is the share of the reference's structure below which a word is due, and
	// which the structure hold keeps; StructureWarn the share, and StructureLeast the figure in
	// g per 100 g, below which the batter is likely to fail (modelling choices, fitted to common
	// practice: purée batters that are flipped every day lie at 0.71 to 0.73).
	StructureWord  = 0.75
	StructureWarn  = 0.60
	StructureLeast = 4.0
)

// What a gram of each counts as setting protein (modelling choices, fitted to common practice):
// egg protein and gluten knit, other flours and oats a little, nut meals hardly; starch that
// swells in the heat counts a share, less when it has swollen already.
const (
	knitsFully    = 1.0
	knitsAsFlour  = 0.3
	knitsAsNuts   = 0.1
	starchSwells  = 0.12
	starchSwollen = 0.06
)

// SettingProtein is what sets in one gram of an ingredient, in g of protein that knits.
func SettingProtein(in *food.Ingredient) float64 {
	flour := in.IsFlour() || in.Role == food.RoleFlour
	var protein, starch float64
	switch {
	case in.Group == food.GroupEgg, flour && slices.Contains(in.Allergens, "wheat"):
		protein = knitsFully
	case flour && food.Nutty(in):
		protein = knitsAsNuts
	case flour:
		protein = knitsAsFlour
	}
	switch {
	case in.Group == food.GroupPuree:
		starch = starchSwollen
	case flour || !in.HasCells(): // what keeps its cells keeps its starch
		starch = starchSwells
	}
	return (protein*in.Protein + starch*in.Starch) / 100
}

// Structure is what sets, in g per 100 g of all that is in the bowl.
func Structure(parts []food.Part) float64 {
	var sets, mass float64
	for _, p := range parts {
		sets += p.Grams * SettingProtein(p.Ingredient)
		mass += p.Grams
	}
	if mass <= 0 {
		return 0
	}
	return 100 * sets / mass
}

func (p Problem) structure(x []float64) float64 {
	parts := slices.Clone(p.Additions)
	for j, l := range p.Lines {
		parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: x[j]})
	}
	return Structure(parts)
}

// holdStructure tries 0, 1 and 2 more whole eggs and keeps the fewest that hold the base's
// structure, solving the other targets anew each time.
func holdStructure(ctx context.Context, p Problem, plain Solution) (Solution, error) {
	egg := -1
	for j, l := range p.Lines {
		if l.Ingredient.IsWholeEgg() && !l.Locked {
			egg = j
		}
	}
	reference := p.Reference
	if reference == nil {
		for _, l := range p.Lines {
			reference = append(reference, food.Part{Ingredient: l.Ingredient, Grams: l.Grams})
		}
	}
	want := Structure(reference)
	best := plain
	for n := 0; ; n++ {
		got := p.structure(best.Grams)
		if got >= StructureWord*want-1e-12 {
			return best, nil
		}
		if egg < 0 || n == maxEggs {
			reason := AtBound
			if egg < 0 {
				reason = NothingTo
			}
			best.Reports = append(best.Reports, Report{Target: batter.HoldStructure, Reason: reason, Left: got/want - 1})
			return best, nil
		}
		s, err := withEggs(ctx, p, egg, n+1)
		if err != nil {
			return Solution{}, err
		}
		best = s
	}
}

// withEggs solves with n more whole eggs in the bowl; they count as an addition to the
// solver, and to the egg line in the answer.
func withEggs(ctx context.Context, p Problem, egg, n int) (Solution, error) {
	g := float64(n) * p.EggG
	q := p
	q.Additions = append(slices.Clone(p.Additions), food.Part{Ingredient: p.Lines[egg].Ingredient, Grams: g})
	s, err := solve(ctx, q)
	if err != nil {
		return Solution{}, err
	}
	s.Grams[egg] += g
	s.Eggs = n
	return s, nil
}

// dry finds how far the additions must be dried so that the base need not move: the liquid
// that is too much is taken from them in proportion to the water that they release.
func (s *solver) dry(out *Solution) {
	out.DryTo = make([]float64, len(s.p.Additions))
	var loose float64 // g of water that can leave
	for i, a := range s.p.Additions {
		out.DryTo[i] = a.Grams
		loose += a.Grams * looseWater(a.Ingredient)
	}
	if !s.holds(batter.HoldThickness) || math.IsNaN(s.lStar) || !s.hasRole(food.RoleFlour) {
		return
	}
	surplus := s.terms[batter.HoldThickness].value(s.base) // ml, and a ml of water is a gram
	body := s.total(s.base, func(in *food.Ingredient) float64 { return in.Body })
	if surplus <= 0 || loose <= 0 {
		if l := surplus / body; math.Abs(l) > thicknessLeft {
			out.Reports = append(out.Reports, Report{Target: batter.HoldThickness, Reason: NothingTo, Left: l})
		}
		return
	}
	share := math.Min(1, surplus/loose)
	for i, a := range s.p.Additions {
		out.DryTo[i] -= share * a.Grams * looseWater(a.Ingredient)
	}
	if l := (surplus - share*loose) / body; l > thicknessLeft {
		out.Reports = append(out.Reports, Report{Target: batter.HoldThickness, Reason: AtBound, Left: l})
	}
}

// dryKeeps is the share of the released water that no cook presses or boils out (modelling
// choice).
const dryKeeps = 0.15

// looseWater is the water in g that can be dried out of one gram: of purées and of what is
// grated; pieces, juices and powders are taken as they are.
func looseWater(in *food.Ingredient) float64 {
	if in.Group != food.GroupPuree && in.Group != food.GroupGrated {
		return 0
	}
	return in.Release() * in.Water / 100 * (1 - dryKeeps)
}
