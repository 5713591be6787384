// Package balance finds what the base gives up so that the batter with its additions
// behaves as the base did. Each target moves the lines of its own kind; every stage is a
// bounded-variable least-squares problem, and the stages are repeated until nothing moves.
// Formulas: docs/maths.md section 6.
package balance

import (
	"context"
	"fmt"
	"math"
	"slices"

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
	bulkFloor      = 0.35 // share of a base liquid or flour that stays unless the cook allows less (common practice, no source)
	fatFloor       = 0.50 // the same for fat: it browns and keeps the crumb tender (common practice, no source)
	powderFloor    = 0.50 // share of the powder that stays beside the gas of soda: its second half comes in the heat (common practice, no source)
	tangPulled     = 0.1  // of the batter's pull for a meq of tang (modelling choice)
	growsBy        = 10   // a line grows at most as a base would that is larger by so many times the additions (modelling choice: more is no advice)
	loosens        = 0.4  // ml/g that a line must loosen by to count as a liquid (modelling choice)
	lineScaleShare = 0.05 // of the flour: least scale of a line's change (modelling choice)
	leavenShare    = 0.01 // of the flour: the same for leaveners (modelling choice)
	maxRounds      = 60
	settled        = 1e-7 // relative to the bowl's mass: nothing moves any more
)

// sweetScaleFloor keeps the scale of the sweetness target above zero for a base without
// sugar: g per g of batter (modelling choice).
const sweetScaleFloor = 0.005

// liquidScaleFloor does the same for the thickness of a base without liquid: ml per g of base;
// leastBatter for one that is all pieces: g of batter per g of base (modelling choices).
const (
	liquidScaleFloor = 0.01
	leastBatter      = 0.001
)

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
	Reference      []food.Part // the bowl that targets are taken from, the base's own lines first; nil is the plain base
	ReferenceLines int         // how many of the reference are lines of the base; 0 is as many as there are lines
	Targets        batter.Targets
	Strategy       batter.Strategy
	Hold           []batter.Hold
	SugarBy        batter.SugarBy
	AllowLow       []food.Role // lines of these roles may give way entirely
	FineStep       float64     // g that soda is rounded to afterwards
	EggG           float64     // of one egg, for whole eggs added under the structure hold
}

// Reason says why a target could not be met.
type Reason string

// The reasons.
const (
	AtBound   Reason = "at_bound"   // every line that could move stands at its bound
	Apart     Reason = "apart"      // soda stops where it would taste of soap or turn fruit grey
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

// Left that is worth saying: L* in ml/g; for sugars and batch size a relative figure of the same weight (modelling choices).
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

// stage is one or two targets with the lines that they move.
type stage struct {
	holds  []batter.Hold
	terms  []term
	lines  []int
	before func(x []float64)         // brings a term up to date that is not linear
	direct func(x []float64) float64 // in place of least squares: sets the lines, returns the largest move

	a         [][]float64 // scaled coefficients of each term
	v, lo, hi []float64   // weights and bounds of the lines' relative changes
	b, rho    []float64   // right-hand side, and the residuals where the last round ended
}

type solver struct {
	p       Problem
	base    []float64
	flour   float64 // g of flour lines in the base
	mass    float64 // g of the base
	account float64 // g of the reference's batter account
	added   float64 // g of the additions, and of what else is not as in the reference
	lStar   float64 // to hold
	terms   map[batter.Hold]term
	soda    float64 // g of soda in the reference
	acid    float64 // meq of acid in the reference
	gas     float64 // ml of gas per g of flour-type body, to hold
	tangAt  float64 // meq per 100 g of batter, to hold
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

// newSolver takes the values that the targets hold from the reference.
func newSolver(p Problem) *solver {
	s := &solver{p: p, base: make([]float64, len(p.Lines)), terms: map[batter.Hold]term{}}
	parts := make([]food.Part, len(p.Lines))
	for j, l := range p.Lines {
		s.base[j] = l.Grams
		s.mass += l.Grams
		parts[j] = food.Part{Ingredient: l.Ingredient, Grams: l.Grams}
		if l.Role == food.RoleFlour {
			s.flour += l.Grams
		}
	}
	if s.flour <= 0 { // a flourless base scales its lines by its mass instead
		s.flour = s.mass / 3
	}
	for _, a := range p.Additions {
		s.added += a.Grams
	}
	whole := s.mass // g of the reference
	if p.Reference == nil {
		p.Reference = parts
	} else {
		whole = 0
		for _, r := range p.Reference {
			whole += r.Grams
		}
		s.added += apart(p.Reference, parts) // what stands in, and additions that may be taken out
	}
	s.p.Reference = p.Reference
	if s.p.ReferenceLines == 0 {
		s.p.ReferenceLines = len(p.Lines)
	}
	th, account, gas := flow.Of(p.Reference), food.Batter(p.Reference), lift.Of(p.Reference)
	account.Mass = math.Max(account.Mass, leastBatter*whole) // pieces and nothing between them
	s.account = account.Mass
	to := p.Targets.Of
	s.lStar, s.soda, s.acid, s.gas = to(batter.HoldThickness, th.L()), gas.SodaG, gas.AcidMeq, to(batter.HoldLift, gas.GasML()/gas.FlourBody)
	if gas.FlourBody <= 0 {
		s.gas = 0
	}
	s.tangAt = to(batter.HoldTang, gas.Tang(account.Mass))

	s.terms[batter.HoldThickness] = s.linear(func(in *food.Ingredient) float64 {
		return flow.LiquidPerGram(in) - s.lStar*in.Body
	}, 0, math.Max(math.Abs(th.Liquid), liquidScaleFloor*whole))
	s.terms[batter.HoldBatchSize] = s.linear(func(*food.Ingredient) float64 { return 1 }, whole, whole)

	sugar := sugarOf(p.SugarBy)
	sweet := to(batter.HoldSweetness, sugar(&account.Composition)/account.Mass)
	s.terms[batter.HoldSweetness] = s.linear(func(in *food.Ingredient) float64 {
		return in.Release()*sugar(&in.Composition)/100 - sweet*in.BatterMass()
	}, 0, math.Max(sweet, sweetScaleFloor)*account.Mass)

	// What gives way is not asked for its salt: only what is put in for taste counts.
	salt := to(batter.HoldSalt, SaltPer100(p.Reference)/100)
	s.terms[batter.HoldSalt] = s.linear(func(in *food.Ingredient) float64 {
		return SaltPerGram(in) - salt*in.BatterMass()
	}, 0, math.Max(salt, saltScaleFloor)*account.Mass)

	s.terms[batter.HoldFat] = s.fat()
	tang := math.Max(0, gas.AcidMeq/account.Mass+p.Targets[batter.HoldTang]/100)
	s.terms[batter.HoldTang] = s.linear(func(in *food.Ingredient) float64 {
		return lift.AcidPerGram(in) - tang*in.BatterMass()
	}, 0, math.Max(gas.AcidMeq, 1))
	s.terms[batter.HoldLift] = s.linear(func(in *food.Ingredient) float64 {
		return lift.GasPerGram(in) - s.gas*lift.FlourBody(in)
	}, 0, math.Max(s.gas*gas.FlourBody, 1))
	return s
}

// apart is the grams by which two lists of parts differ, ingredient by ingredient.
func apart(a, b []food.Part) float64 {
	var order []*food.Ingredient
	by := map[*food.Ingredient]float64{}
	count := func(parts []food.Part, sign float64) {
		for _, p := range parts {
			if _, known := by[p.Ingredient]; !known {
				order = append(order, p.Ingredient)
			}
			by[p.Ingredient] += sign * p.Grams
		}
	}
	count(a, 1)
	count(b, -1)
	sum := 0.0
	for _, in := range order {
		sum += math.Abs(by[in])
	}
	return sum
}

// fat holds the fat that is put in as fat, and what the additions bring, against the flour.
// The milk that gives way is not asked for its fat: the scale would chase a few grams of
// butter (modelling choice).
func (s *solver) fat() term {
	var fat, flour float64
	for i, r := range s.p.Reference {
		flour += r.Grams * lift.FlourBody(r.Ingredient)
		if s.putInAsFat(i, r) {
			fat += r.Grams * fatPerGram(r.Ingredient)
		}
	}
	if flour <= 0 { // nothing that the fat is for
		return term{coeff: make([]float64, len(s.p.Lines)), scale: 1}
	}
	per := s.p.Targets.Of(batter.HoldFat, fat/flour)
	t := s.linear(func(in *food.Ingredient) float64 { return fatPerGram(in) - per*lift.FlourBody(in) }, 0, math.Max(fat, 1))
	for j, l := range s.p.Lines {
		if l.Role != food.RoleFat {
			t.coeff[j] = -per * lift.FlourBody(l.Ingredient)
		}
	}
	return t
}

// putInAsFat tells whether a part of the reference counts for the fat: a line of the base by the role that it has
// here, or has by nature where something stands in for it; an addition always.
func (s *solver) putInAsFat(i int, r food.Part) bool {
	if i >= s.p.ReferenceLines {
		return true
	}
	for _, l := range s.p.Lines {
		if l.Ingredient == r.Ingredient {
			return l.Role == food.RoleFat
		}
	}
	return r.Ingredient.Role == food.RoleFat
}

func fatPerGram(in *food.Ingredient) float64 { return in.Release() * in.Fat / 100 }

const (
	saltySodium    = 250   // mg/100 g from which an ingredient is salted for taste (modelling choice)
	saltScaleFloor = 0.001 // g per g of batter, scale of the target for a base without salt (modelling choice)
)

// SaltPerGram is the salt in g that one gram brings to the taste: salt rows, salted butter, and
// cheese and bacon in full, since they are tasted in the bite even where the batter never meets
// their salt. The sodium of leaveners, self-raising flour
// and plain milk is nutrition, not taste.
func SaltPerGram(in *food.Ingredient) float64 {
	switch in.Role {
	case food.RoleLeavener, food.RoleSoda, food.RoleAcid, food.RoleFlour:
		return 0
	}
	if in.Sodium < saltySodium {
		return 0
	}
	return in.Sodium * food.SaltTasted / 100
}

// SaltPer100 is the salt in g that is tasted in 100 g of the batter between the pieces.
func SaltPer100(parts []food.Part) float64 {
	var salt, batter, mass float64
	for _, p := range parts {
		salt += p.Grams * SaltPerGram(p.Ingredient)
		batter += p.Grams * p.Ingredient.BatterMass()
		mass += p.Grams
	}
	if mass <= 0 {
		return 0
	}
	return 100 * salt / math.Max(batter, leastBatter*mass)
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
func Solve(ctx context.Context, p Problem) (Solution, error) {
	s, err := solve(ctx, p)
	if err != nil || !slices.Contains(p.Hold, batter.HoldStructure) || p.Strategy == batter.Leave || p.Strategy == batter.DryAddition {
		return s, err
	}
	return holdStructure(ctx, p, s)
}

func solve(ctx context.Context, p Problem) (Solution, error) {
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
	for i := range stages {
		s.prepare(&stages[i])
	}
	for range maxRounds {
		if err := ctx.Err(); err != nil {
			return Solution{}, err
		}
		var moved float64
		for i := range stages {
			if stages[i].before != nil {
				stages[i].before(x)
			}
			moved = math.Max(moved, s.run(stages[i], x))
		}
		if moved <= settled*s.mass || len(stages) == 1 {
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
	if s.soda > 0 {
		out = append(out, s.sodaStage(s.holds(batter.HoldTang)))
	} else if acids := s.movers(batter.HoldTang, food.RoleAcid); len(acids) > 0 || s.pulled(batter.HoldTang) {
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

func (s *solver) holds(h batter.Hold) bool {
	return batter.Offset{Hold: s.p.Hold, Targets: s.p.Targets}.Holds(h)
}

func (s *solver) pulled(h batter.Hold) bool {
	_, ok := s.p.Targets[h]
	return ok
}

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

// floor is the least grams of line j, ceiling the most: beyond it no advice makes sense, and
// targets that chase each other would grow without end.
func (s *solver) floor(j int) float64 {
	role := s.p.Lines[j].Role
	switch {
	case slices.Contains(s.p.AllowLow, role):
		return 0
	case role == food.RoleLiquid, role == food.RoleFlour:
		return bulkFloor * s.base[j]
	case role == food.RoleFat:
		return fatFloor * s.base[j]
	case role == food.RoleLeavener:
		return powderFloor * s.base[j]
	}
	return 0
}

func (s *solver) ceiling(j int) float64 {
	return s.base[j] * (1 + growsBy*(s.added/s.mass+s.pulledBy()))
}

// pulledBy is how far the cook pulls away from the reference, as a share of it; a meq of tang counts as a tenth.
func (s *solver) pulledBy() float64 {
	far := 0.0
	for hold, to := range s.p.Targets {
		if hold == batter.HoldTang {
			far = math.Max(far, math.Abs(to)*tangPulled)
		} else {
			far = math.Max(far, math.Abs(to-1))
		}
	}
	return far
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

// prepare fills in what a stage keeps from round to round. The unknowns are relative changes
// z_j = (x_j − base_j)/scale_j.
func (s *solver) prepare(st *stage) {
	n := len(st.lines)
	if st.direct != nil || n == 0 {
		return
	}
	buffer := make([]float64, (len(st.terms)+3)*n+2*len(st.terms))
	take := func(k int) []float64 {
		out := buffer[:k:k]
		buffer = buffer[k:]
		return out
	}
	for range st.terms {
		st.a = append(st.a, take(n))
	}
	st.v, st.lo, st.hi, st.b, st.rho = take(n), take(n), take(n), take(len(st.terms)), take(len(st.terms))
	for k, j := range st.lines {
		scale := s.lineScale(j)
		for i, t := range st.terms {
			st.a[i][k] = t.coeff[j] * scale / t.scale
		}
		st.v[k] = s.lineWeightOf(j, st.lines) / targetWeight
		st.lo[k], st.hi[k] = (s.floor(j)-s.base[j])/scale, (s.ceiling(j)-s.base[j])/scale
	}
}

// run solves one stage in place and returns how far, in g, any line moved.
func (s *solver) run(st stage, x []float64) float64 {
	if st.direct != nil {
		return st.direct(x)
	}
	if len(st.lines) == 0 {
		return 0
	}
	for i, t := range st.terms {
		r := t.value(x)
		for _, j := range st.lines { // the stage's lines at their base, the others where they stand
			r += t.coeff[j] * (s.base[j] - x[j])
		}
		r /= t.scale
		if st.holds[i] == batter.HoldFat && !s.pulled(batter.HoldFat) && math.Abs(r) <= relativeLeft {
			r = 0 // a gram of butter is not chased (modelling choice)
		}
		st.b[i] = -r
	}
	z := leastChange(st.a, st.b, st.v, st.lo, st.hi, st.rho)
	var moved float64
	for k, j := range st.lines {
		v := math.Max(s.floor(j), s.base[j]+z[k]*s.lineScale(j)) // the last digit must not fall below
		moved = math.Max(moved, math.Abs(v-x[j]))
		x[j] = v
	}
	return moved
}

// report says what is left of each target of a stage and which lines are stuck.
func (s *solver) report(st stage, x []float64, out *Solution) {
	atBound := true
	for _, j := range st.lines {
		near := settled * s.lineScale(j)
		if x[j] > s.floor(j)+near && x[j] < s.ceiling(j)-near || st.direct != nil {
			atBound = false
		}
	}
	for i, h := range st.holds {
		left, worth := s.left(h, st.terms[i], x)
		if !worth {
			continue
		}
		reason := AtBound
		switch {
		case len(st.lines) == 0:
			reason = NothingTo
		case st.direct != nil:
			reason = Apart
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
		if s.soda > 0 || s.pulled(batter.HoldTang) {
			left := s.tang(x) - s.tangAt
			return left, math.Abs(left) > tangLeft
		}
		per := 100 * v / s.batterMass(x)
		return per, math.Abs(per) > tangLeft
	case batter.HoldSweetness, batter.HoldSalt:
		per := v / s.batterMass(x) // of the batter that came of it, which is what is tasted
		return per, math.Abs(per)*s.account > relativeLeft*t.scale
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

// batterMass is the mass in g of the batter account, never nothing.
func (s *solver) batterMass(x []float64) float64 {
	return math.Max(s.total(x, (*food.Ingredient).BatterMass), leastBatter*s.mass)
}
