// Package balance finds what the base gives up so that the batter with its additions
// behaves as the base did. Each target moves the lines of its own kind; every stage is a
// bounded-variable least-squares problem, and the stages are repeated until nothing moves.
// Formulas: docs/maths.md section 6.
package balance

import (
	"fmt"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
)

// Weights of the stages (modelling choice): a target counts 1, a line that gives way 1e-3.
// A larger weight on the lines gives a fraction of the right answer.
const (
	targetWeight = 1.0
	lineWeight   = 1e-3
	culturedMore = 10 // a cultured liquid beside milk or water gives way last
)

const (
	liquidFloor    = 0.35 // share of a base liquid that stays unless the cook allows less (common practice, no source)
	loosens        = 0.4  // ml/g that a line must loosen by to count as a liquid (modelling choice)
	lineScaleShare = 0.05 // of the flour: least scale of a line's change (modelling choice)
	leavenShare    = 0.01 // of the flour: the same for leaveners (modelling choice)
	maxRounds      = 60
	settled        = 1e-7 // relative to the bowl's mass: nothing moves any more
)

// sweetScaleFloor keeps the scale of the sweetness target above zero for a base without
// sugar: g per g of batter (modelling choice).
const sweetScaleFloor = 0.005

// Line is a line of the base as the solver sees it.
type Line struct {
	Ingredient *food.Ingredient
	Grams      float64 // in the base
	Role       food.Role
	Locked     bool
}

// Problem is a base, what goes into its bowl, and what should hold.
type Problem struct {
	Lines          []Line
	Additions      []food.Part // only what is in the bowl
	Strategy       batter.Strategy
	Hold           []batter.Hold
	SugarBy        batter.SugarBy
	AllowLowLiquid bool
	EggG           float64 // of one egg, for whole eggs added under the structure hold
}

// Reason says why a target could not be met.
type Reason string

// The reasons.
const (
	AtBound   Reason = "at_bound"   // every line that could move stands at its bound
	NothingTo Reason = "nothing_to" // the base has no line of that kind, or all are pinned
	NoLiquid  Reason = "no_liquid"  // nothing loosens in this base, so flour moves instead
)

// Report is one target that did not come out, or came out another way than asked.
type Report struct {
	Target batter.Hold
	Reason Reason
	Left   float64 // what is left of the drift: L* [ml/g], or g per g of batter or bowl
}

// Solution is the answer: grams of each line before rounding, in the order of the problem.
type Solution struct {
	Grams   []float64
	Stuck   []bool // stands at a bound while its target is not met
	Reports []Report
	Eggs    int       // whole eggs added to hold the structure
	DryTo   []float64 // under the strategy DryAddition: what each addition is dried to
}

// Left that is worth saying: L* in ml/g as the design has it; for sugars and batch size a
// relative figure of the same weight (modelling choice).
const (
	thicknessLeft = 0.03
	relativeLeft  = 0.02
	tangLeft      = 0.3 // meq per 100 g batter: less cannot be tasted (modelling choice)
)

// term is one linear target: Σ c_j·x_j + rest → 0, with its scale.
type term struct {
	coeff []float64 // per line
	rest  float64   // of the additions
	scale float64
}

func (t term) value(x []float64) float64 {
	v := t.rest
	for j, c := range t.coeff {
		v += c * x[j]
	}
	return v
}

type stage struct {
	terms  []term
	holds  []batter.Hold
	lines  []int
	before func(x []float64) // brings a term up to date that is not linear
}

type solver struct {
	p       Problem
	base    []float64
	flour   float64 // g of flour lines in the base
	lStar   float64 // base value
	terms   map[batter.Hold]term
	ratio   float64 // soda:acid of the base; NaN without
	gas     float64 // ml of gas per g of flour-type body in the base
	reports []Report
}

// property of an ingredient per gram that a target adds up over the bowl.
type property func(*food.Ingredient) float64

// linear makes a target from a property: Σ m·property → level over lines and additions.
func (s *solver) linear(per property, level, scale float64) term {
	t := term{coeff: make([]float64, len(s.p.Lines)), rest: -level, scale: scale}
	for j, l := range s.p.Lines {
		t.coeff[j] = per(l.Ingredient)
	}
	for _, a := range s.p.Additions {
		t.rest += a.Grams * per(a.Ingredient)
	}
	return t
}

// newSolver takes the values that the targets hold from the plain base.
func newSolver(p Problem) *solver {
	s := &solver{p: p, base: make([]float64, len(p.Lines)), terms: map[batter.Hold]term{}}
	parts := make([]food.Part, len(p.Lines))
	var mass float64
	for j, l := range p.Lines {
		s.base[j] = l.Grams
		mass += l.Grams
		parts[j] = food.Part{Ingredient: l.Ingredient, Grams: l.Grams}
		if l.Role == food.RoleFlour {
			s.flour += l.Grams
		}
	}
	if s.flour <= 0 { // a flourless base scales its lines by its mass instead
		s.flour = mass / 3
	}
	th, account, gas := flow.Of(parts), food.Batter(parts), lift.Of(parts)
	s.lStar, s.ratio, s.gas = th.L(), gas.SodaToAcid(), gas.GasML()/gas.FlourBody

	s.terms[batter.HoldThickness] = s.linear(func(in *food.Ingredient) float64 {
		return flow.LiquidPerGram(in) - s.lStar*in.Body
	}, 0, math.Abs(th.Liquid))
	s.terms[batter.HoldBatchSize] = s.linear(func(*food.Ingredient) float64 { return 1 }, mass, mass)

	sugar := sugarOf(p.SugarBy)
	sweet := sugar(&account.Composition) / account.Mass
	s.terms[batter.HoldSweetness] = s.linear(func(in *food.Ingredient) float64 {
		return in.Release()*sugar(&in.Composition)/100 - sweet*in.BatterMass()
	}, 0, math.Max(sweet, sweetScaleFloor)*account.Mass)

	// What gives way is not asked for its salt: only what is put in for taste counts.
	salt := 0.0
	for _, l := range parts {
		salt += l.Grams * SaltPerGram(l.Ingredient)
	}
	s.terms[batter.HoldSalt] = s.linear(func(in *food.Ingredient) float64 {
		return SaltPerGram(in) - salt/account.Mass*in.BatterMass()
	}, 0, math.Max(salt, saltScaleFloor*account.Mass))

	s.terms[batter.HoldFat] = s.fat()
	if !math.IsNaN(s.ratio) {
		s.terms[batter.HoldTang] = s.linear(func(in *food.Ingredient) float64 {
			if lift.IsSoda(in) {
				return lift.MeqPerGram
			}
			return -s.ratio * lift.AcidPerGram(in)
		}, 0, math.Max(gas.AcidMeq*s.ratio, 1))
	} else {
		tang := gas.AcidMeq / account.Mass
		s.terms[batter.HoldTang] = s.linear(func(in *food.Ingredient) float64 {
			return lift.AcidPerGram(in) - tang*in.BatterMass()
		}, 0, math.Max(gas.AcidMeq, 1))
	}
	s.terms[batter.HoldLift] = s.linear(func(in *food.Ingredient) float64 {
		return lift.GasPerGram(in) - s.gas*lift.FlourBody(in)
	}, 0, math.Max(s.gas*gas.FlourBody, 1))
	return s
}

// fat holds the fat that is put in as fat, and what the additions bring, against the flour.
// The milk that gives way is not asked for its fat: the scale would chase a few grams of
// butter (modelling choice).
func (s *solver) fat() term {
	var fat, flour float64
	for _, l := range s.p.Lines {
		flour += l.Grams * lift.FlourBody(l.Ingredient)
		if l.Role == food.RoleFat {
			fat += l.Grams * fatPerGram(l.Ingredient)
		}
	}
	t := s.linear(func(in *food.Ingredient) float64 { return fatPerGram(in) - fat/flour*lift.FlourBody(in) }, 0, math.Max(fat, 1))
	for j, l := range s.p.Lines {
		if l.Role != food.RoleFat {
			t.coeff[j] = -fat / flour * lift.FlourBody(l.Ingredient)
		}
	}
	return t
}

func fatPerGram(in *food.Ingredient) float64 { return in.Release() * in.Fat / 100 }

const (
	saltPerSodium  = 2.54  // g of salt per g of sodium: 58.44/22.99 (molar masses)
	saltySodium    = 250   // mg/100 g from which an ingredient is salted for taste (modelling choice)
	saltScaleFloor = 0.001 // g per g of batter, scale of the target for a base without salt (modelling choice)
)

// SaltPerGram is the salt in g that one gram brings to the taste of the batter: salt rows,
// salted butter, what cheese and bacon release. The sodium of leaveners, self-raising flour
// and plain milk is nutrition, not taste.
func SaltPerGram(in *food.Ingredient) float64 {
	switch in.Role {
	case food.RoleLeavener, food.RoleSoda, food.RoleAcid, food.RoleFlour:
		return 0
	}
	if in.Sodium < saltySodium {
		return 0
	}
	return in.Release() * in.Sodium / 1000 * saltPerSodium / 100
}

// sugarOf returns the measure of sweetness that a sugar target holds.
func sugarOf(by batter.SugarBy) func(*food.Composition) float64 {
	if by == batter.ByTotalSugars {
		return func(c *food.Composition) float64 { return c.Sugars }
	}
	return (*food.Composition).Sweetness
}

// Solve returns the offsets. The strategy Leave, or a hold list without a target that this
// package knows, leaves the base as it is; drift is then the caller's to describe. An error
// means that the problem is not one: a strategy that is unknown, or figures that are not
// numbers.
func Solve(p Problem) (Solution, error) {
	s, err := solve(p)
	if err != nil || !slices.Contains(p.Hold, batter.HoldStructure) || p.Strategy == batter.Leave || p.Strategy == batter.DryAddition {
		return s, err
	}
	return holdStructure(p, s)
}

func solve(p Problem) (Solution, error) {
	s := newSolver(p)
	x := slices.Clone(s.base)
	out := Solution{Grams: x, Stuck: make([]bool, len(x))}
	switch p.Strategy {
	case batter.Leave:
		return out, nil
	case batter.DryAddition:
		s.dry(&out)
		return out, nil
	case batter.HoldBackLiquid, batter.BuildUpFlour, batter.Shared:
	default:
		return Solution{}, fmt.Errorf("the strategy %q is not known to the solver", p.Strategy)
	}
	stages := s.stages()
	var mass float64
	for _, g := range s.base {
		mass += g
	}
	for range maxRounds {
		var moved float64
		for i := range stages {
			if stages[i].before != nil {
				stages[i].before(x)
			}
			d, err := s.run(stages[i], x)
			if err != nil {
				return Solution{}, err
			}
			moved = math.Max(moved, d)
		}
		if moved <= settled*mass || len(stages) == 1 {
			break
		}
	}
	out.Reports = s.reports
	for _, st := range stages {
		s.report(st, x, &out)
	}
	return out, nil
}

// stages lists the targets that are held with the lines that each may move.
func (s *solver) stages() []stage {
	var out []stage
	var first stage
	judged := !math.IsNaN(s.lStar) && s.hasRole(food.RoleFlour) // a flourless batter is not judged on thickness
	for _, h := range []batter.Hold{batter.HoldThickness, batter.HoldBatchSize} {
		if s.holds(h) && (judged || h == batter.HoldBatchSize) {
			first.terms, first.holds = append(first.terms, s.terms[h]), append(first.holds, h)
		}
	}
	if len(first.terms) > 0 {
		first.lines = s.thicknessLines()
		out = append(out, first)
	}
	add := func(h batter.Hold, lines []int) {
		if s.holds(h) {
			out = append(out, stage{terms: []term{s.terms[h]}, holds: []batter.Hold{h}, lines: lines})
		}
	}
	add(batter.HoldSweetness, s.movers(batter.HoldSweetness, food.RoleSugar))
	if s.hasRole(food.RoleFlour) {
		add(batter.HoldFat, s.movers(batter.HoldFat, food.RoleFat))
	}
	if !math.IsNaN(s.ratio) {
		add(batter.HoldTang, s.movers(batter.HoldTang, food.RoleSoda))
	} else if acids := s.movers(batter.HoldTang, food.RoleAcid); len(acids) > 0 {
		add(batter.HoldTang, acids)
	}
	// A base that makes no gas has none to hold. Soda is not linear: its gas enters as it stands.
	if s.gas > 0 && s.holds(batter.HoldLift) {
		lifting := []term{s.terms[batter.HoldLift]}
		own := lifting[0].rest
		update := func(x []float64) { lifting[0].rest = own + s.sodaGas(x) }
		update(s.base)
		out = append(out, stage{terms: lifting, holds: []batter.Hold{batter.HoldLift}, lines: s.movers(batter.HoldLift, food.RoleLeavener), before: update})
	}
	add(batter.HoldSalt, s.movers(batter.HoldSalt, food.RoleSalt))
	return out
}

// sodaGas is the gas in ml that the soda of the bowl gives with the lines at x.
func (s *solver) sodaGas(x []float64) float64 {
	parts := slices.Clone(s.p.Additions)
	for j, l := range s.p.Lines {
		parts = append(parts, food.Part{Ingredient: l.Ingredient, Grams: x[j]})
	}
	l := lift.Of(parts)
	return l.GasML() - l.OwnGasML
}

func (s *solver) holds(h batter.Hold) bool { return slices.Contains(s.p.Hold, h) }

func (s *solver) hasRole(r food.Role) bool {
	return slices.ContainsFunc(s.p.Lines, func(l Line) bool { return l.Role == r })
}

// linesWhere returns the movable lines that satisfy a condition.
func (s *solver) linesWhere(ok func(j int, l Line) bool) []int {
	var out []int
	for j, l := range s.p.Lines {
		if !l.Locked && l.Grams > 0 && ok(j, l) {
			out = append(out, j)
		}
	}
	return out
}

// loosening tells whether line j counts as a liquid: it is one by role and it loosens.
func (s *solver) loosening(j int, l Line) bool {
	return l.Role == food.RoleLiquid && s.terms[batter.HoldThickness].coeff[j] >= loosens
}

func (s *solver) thicknessLines() []int {
	liquids := s.linesWhere(s.loosening)
	flours := s.linesWhere(func(_ int, l Line) bool { return l.Role == food.RoleFlour })
	switch s.p.Strategy {
	case batter.BuildUpFlour:
		return flours
	case batter.Shared:
		return append(liquids, flours...)
	}
	// Only a base that has nothing liquid at all falls back on its flour; when the cook has
	// pinned the milk, it is pinned.
	if len(liquids) == 0 && len(flours) > 0 && !s.hasLiquid() {
		s.reports = append(s.reports, Report{Target: batter.HoldThickness, Reason: NoLiquid})
		return flours
	}
	return liquids
}

func (s *solver) hasLiquid() bool {
	for j, l := range s.p.Lines {
		if s.loosening(j, l) {
			return true
		}
	}
	return false
}

// movers returns the movable lines of a role that a target really moves with.
func (s *solver) movers(h batter.Hold, role food.Role) []int {
	c := s.terms[h].coeff
	return s.linesWhere(func(j int, l Line) bool { return l.Role == role && c[j] > 0 })
}

// floor is the least grams of line j.
func (s *solver) floor(j int) float64 {
	if s.p.Lines[j].Role == food.RoleLiquid && !s.p.AllowLowLiquid {
		return liquidFloor * s.base[j]
	}
	return 0
}

// lineScale is the size against which a change of line j counts.
func (s *solver) lineScale(j int) float64 {
	share := lineScaleShare
	switch s.p.Lines[j].Role {
	case food.RoleLeavener, food.RoleSoda, food.RoleAcid, food.RoleSalt:
		share = leavenShare
	}
	return math.Max(s.base[j], share*s.flour)
}

// lineWeightOf is the weight v_j that keeps line j near its base.
func (s *solver) lineWeightOf(j int, lines []int) float64 {
	if s.p.Lines[j].Ingredient.Group != food.GroupCulturedDairy {
		return lineWeight
	}
	for _, k := range lines {
		if s.p.Lines[k].Role == food.RoleLiquid && s.p.Lines[k].Ingredient.Group != food.GroupCulturedDairy {
			return lineWeight * culturedMore
		}
	}
	return lineWeight
}

// run solves one stage in place and returns how far, in g, any line moved. The unknowns
// are relative changes z_j = (x_j − base_j)/scale_j.
func (s *solver) run(st stage, x []float64) (float64, error) {
	n := len(st.lines)
	if n == 0 {
		return 0, nil
	}
	rows := len(st.terms) + n
	a, b := mat.NewDense(rows, n, nil), make([]float64, rows)
	lo, hi := make([]float64, n), make([]float64, n)
	at := slices.Clone(x) // the stage's lines at their base, the others where they stand
	for _, j := range st.lines {
		at[j] = s.base[j]
	}
	for k, j := range st.lines {
		scale := s.lineScale(j)
		for i, t := range st.terms {
			a.Set(i, k, math.Sqrt(targetWeight)*t.coeff[j]*scale/t.scale)
		}
		a.Set(len(st.terms)+k, k, math.Sqrt(s.lineWeightOf(j, st.lines)))
		lo[k] = (s.floor(j) - s.base[j]) / scale
		hi[k] = math.Inf(1)
	}
	for i, t := range st.terms {
		r := t.value(at) / t.scale
		if st.holds[i] == batter.HoldFat && math.Abs(r) <= relativeLeft {
			r = 0 // a gram of butter is not chased (modelling choice)
		}
		b[i] = -math.Sqrt(targetWeight) * r
	}
	z, err := BVLS(a, b, lo, hi)
	if err != nil {
		return 0, err
	}
	var moved float64
	for k, j := range st.lines {
		v := math.Max(s.floor(j), s.base[j]+z[k]*s.lineScale(j)) // the last digit must not fall below
		moved = math.Max(moved, math.Abs(v-x[j]))
		x[j] = v
	}
	return moved, nil
}

// report says what is left of each target of a stage and which lines are stuck.
func (s *solver) report(st stage, x []float64, out *Solution) {
	atBound := true
	for _, j := range st.lines {
		if x[j] > s.floor(j)+settled*s.lineScale(j) {
			atBound = false
		}
	}
	for i, h := range st.holds {
		left, worth := s.left(h, st.terms[i], x)
		if !worth {
			continue
		}
		reason := AtBound
		if len(st.lines) == 0 {
			reason = NothingTo
		}
		out.Reports = append(out.Reports, Report{Target: h, Reason: reason, Left: left})
		if atBound {
			for _, j := range st.lines {
				out.Stuck[j] = true
			}
		}
	}
}

// left is the drift that remains of a target, and whether it is worth a sentence. A base
// that has none of a thing (no salt, no soda) is not told that it cannot hold it, unless an
// addition brings enough of it to be noticed.
func (s *solver) left(h batter.Hold, t term, x []float64) (float64, bool) {
	v := t.value(x)
	switch h {
	case batter.HoldThickness:
		l := v / s.total(x, func(in *food.Ingredient) float64 { return in.Body })
		return l, math.Abs(l) > thicknessLeft
	case batter.HoldTang:
		tang := -v // more soda than the ratio wants is less tang
		if math.IsNaN(s.ratio) {
			tang = v
		}
		per := 100 * tang / s.total(x, (*food.Ingredient).BatterMass)
		return per, math.Abs(per) > tangLeft
	case batter.HoldSweetness, batter.HoldSalt:
		return v / s.total(x, (*food.Ingredient).BatterMass), math.Abs(v/t.scale) > relativeLeft
	}
	return v / t.scale, math.Abs(v/t.scale) > relativeLeft
}

// total sums a per-gram property over the bowl.
func (s *solver) total(x []float64, per property) float64 {
	var sum float64
	for j, l := range s.p.Lines {
		sum += x[j] * per(l.Ingredient)
	}
	for _, a := range s.p.Additions {
		sum += a.Grams * per(a.Ingredient)
	}
	return sum
}
