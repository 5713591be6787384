package heat

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/internal/evidence"
)

// The slab against closed solutions of heat conduction (Carslaw & Jaeger; any textbook of heat
// transfer): plain matter of k 0.45 W/mK and ρc 3.4 MJ/m³K.

const (
	plainK   = 0.45
	plainRho = 1000.0
	plainCp  = 3400.0
)

func plainTables(k, rho, cp float64) *tables {
	t := &tables{}
	for i := range t.vs {
		t.vs[i], t.ks[i], t.cs[i] = 1/rho, k/rho, cp
	}
	return t
}

// plainSlab of so many mm, without water, at 20 °C.
func plainSlab(mm float64, n int) *slab {
	s := newSlab([]Layer{{Matter: Matter{Carbohydrate: 1}, ThickMM: mm, StartC: 20, Rise: 1}}, n, airAt(0))
	s.tables[0] = plainTables(plainK, plainRho, plainCp)
	for i := range s.n {
		s.dry[i] = s.poured[i] * plainRho
	}
	return s
}

// runFor takes equal steps and keeps the worst of the heat account.
func (s *slab) runFor(seconds, dt float64, below, above face) (worst float64) {
	for range int(math.Round(seconds / dt)) {
		s.step(dt, below, above)
		if scale := math.Abs(s.in) + math.Abs(s.out) + math.Abs(s.stored); scale > 0 {
			worst = math.Max(worst, math.Abs(s.in-s.out-s.stored)/scale)
		}
	}
	return worst
}

// at interpolates the temperature at a height in m.
func (s *slab) at(x float64) float64 {
	var low, mid, last float64
	for i := range s.n {
		mid = low + s.dz[i]/2
		if mid >= x {
			if i == 0 {
				return s.t[0] + (s.t[1]-s.t[0])*(x-mid)/((s.dz[0]+s.dz[1])/2)
			}
			return s.t[i-1] + (s.t[i]-s.t[i-1])*(x-last)/(mid-last)
		}
		last = mid
		low += s.dz[i]
	}
	return s.t[s.n-1]
}

func still() face { return face{still: true} }

func contact(h, c float64) face { return face{plate: true, plateC: c, contact: h, dry: h} }

func TestAThickSlabFollowsTheLawOfConduction(t *testing.T) {
	alpha := plainK / (plainRho * plainCp)
	step := func(x, t float64) float64 { return 20 + 100*math.Erfc(x/(2*math.Sqrt(alpha*t))) }
	flow := func(x, t, h float64) float64 {
		a := x / (2 * math.Sqrt(alpha*t))
		return 20 + 160*(math.Erfc(a)-math.Exp(h*x/plainK+h*h*alpha*t/(plainK*plainK))*math.Erfc(a+h*math.Sqrt(alpha*t)/plainK))
	}
	for _, grid := range []struct {
		n             int
		dt, tolerance float64
	}{{24, 1, 0.65}, {64, 0.25, 0.15}} {
		hot := plainSlab(50, grid.n)
		assert.Less(t, hot.runFor(60, grid.dt, contact(1e9, 120), still()), 1e-9)
		for _, mm := range []float64{1, 3, 6} {
			evidence.Check(t, evidence.Claim{What: fmt.Sprintf("face held at 120 °C, %g mm in, 60 s, %d cells", mm, grid.n), Unit: "°C", Kind: evidence.Law, Source: "conduction into a thick slab", Outside: step(mm/1000, 60), Ours: hot.at(mm / 1000), Tolerance: grid.tolerance})
		}
		plate := plainSlab(50, grid.n)
		plate.runFor(60, grid.dt, contact(300, 180), still())
		for _, mm := range []float64{1, 3, 6} {
			evidence.Check(t, evidence.Claim{What: fmt.Sprintf("plate of 180 °C behind 300 W/m²K, %g mm in, 60 s, %d cells", mm, grid.n), Unit: "°C", Kind: evidence.Law, Source: "conduction behind a contact", Outside: flow(mm/1000, 60, 300), Ours: plate.at(mm / 1000), Tolerance: grid.tolerance})
		}
	}
}

func TestAPlaneWallBetweenTwoPlates(t *testing.T) {
	// the first six roots of ζ tan ζ = 2.667 (half the wall 4 mm)
	const bi, half = 300 * 0.004 / plainK, 0.004
	var roots []float64
	for n := range 6 {
		lo, hi := float64(n)*math.Pi, float64(n)*math.Pi+math.Pi/2-1e-12
		for range 200 {
			if mid := (lo + hi) / 2; mid*math.Tan(mid) < bi {
				lo = mid
			} else {
				hi = mid
			}
		}
		roots = append(roots, lo)
	}
	alpha := plainK / (plainRho * plainCp)
	series := func(x, t float64) float64 {
		var sum float64
		for _, z := range roots {
			sum += 4 * math.Sin(z) / (2*z + math.Sin(2*z)) * math.Exp(-z*z*alpha*t/(half*half)) * math.Cos(z*x/half)
		}
		return 180 - 160*sum
	}
	s := plainSlab(8, 64)
	at := 0.0
	for _, until := range []float64{30, 60, 120} {
		s.runFor(until-at, 0.25, contact(300, 180), contact(300, 180))
		at = until
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("middle of 8 mm between plates of 180 °C after %g s", until), Unit: "°C", Kind: evidence.Law, Source: "plane wall, Fourier's series", Outside: series(0, until), Ours: s.at(half), Tolerance: 0.2})
	}
	for i := range s.n / 2 {
		assert.InDelta(t, s.t[i], s.t[s.n-1-i], 1e-9, "both halves are the same")
	}
}

func TestABoilingFrontEatsIntoTheSlab(t *testing.T) {
	// One-phase Stefan problem: face 160 °C, wet at 100 °C, k 0.3, ρc 2 MJ/m³K. λ·exp(λ²)·erf λ = St/√π.
	const k, rc, w = 0.3, 2e6, 400.0
	s := newSlab([]Layer{{Matter: Matter{Carbohydrate: .6, Water: .4}, ThickMM: 10, StartC: 100, Rise: 1}}, 96, airAt(0))
	s.air.b, s.pore, s.stays = 0.002, 0, 0
	tab := plainTables(k, 1000, rc/1000)
	s.tables[0] = tab
	for i := range s.n {
		s.dry[i], s.wet[i], s.t[i], s.most[i] = s.poured[i]*1000, s.poured[i]*w, 100, 100
	}
	st := rc * 60 / (w * latentJ)
	lo, hi := 0.0, 2.0
	for range 100 {
		if mid := (lo + hi) / 2; mid*math.Exp(mid*mid)*math.Erf(mid) < st/math.Sqrt(math.Pi) {
			lo = mid
		} else {
			hi = mid
		}
	}
	var left, at float64
	for _, until := range []float64{60, 200} {
		for range int((until - at) / 0.25) {
			s.step(0.25, contact(1e9, 160), still())
			left += s.steam
		}
		at = until
		want := 2 * lo * math.Sqrt(k/rc*until) * w
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("water boiled off behind a dry front after %g s", until), Unit: "kg/m²", Kind: evidence.Law, Source: "Stefan's solution", Outside: want, Ours: left, Tolerance: 0.015 * want})
	}
}

func TestNothingHappensWithoutADrive(t *testing.T) {
	s := newSlab([]Layer{{Matter: standard, ThickMM: 7, StartC: 20, Gas: GasOnPlate, Rise: 1.6}}, 24, airAt(0))
	assert.Less(t, s.runFor(300, 1, contact(500, 20), still()), 1e-9)
	for i := range s.n {
		assert.InDelta(t, 20, s.t[i], 1e-6)
	}
}

func TestSteamAndBoiling(t *testing.T) {
	for c, pa := range map[float64]float64{25: 3169, 60: 19950, 100: 101325, 120: 198700} {
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("saturated steam at %g °C", c), Unit: "Pa", Kind: evidence.Memory, Source: "steam tables", Outside: pa, Ours: SaturationPa(c), Tolerance: 0.005 * pa})
	}
	a := airAt(0)
	for c, k := range map[float64]float64{20: .066, 60: .552, 90: 4.36} {
		assert.InEpsilon(t, k, a.vapourK(c), 0.01, "vapour in the pores at %g °C (kept value)", c)
	}
	for x, c := range map[float64]float64{1: 100, 0.3: 101.5, 0.1: 113.57, 0.05: 128.76} {
		got, slope := a.boils(x)
		assert.InDelta(t, c, got, 0.06, "X = %g (kept value)", x)
		near, _ := a.boils(x + 1e-6)
		if x < 0.5 { // beyond, it does not move
			assert.InEpsilon(t, (near-got)/1e-6, slope, 0.01)
		}
		pa := antoine(antoineHigh, got)
		assert.InEpsilon(t, a.highPa, pa*waterActivity(x, a.b), 1e-6)
	}
	evidence.Check(t, evidence.Claim{What: "water boils at 1500 m", Unit: "°C", Kind: evidence.Memory, Source: "tables of boiling points by altitude", Outside: 95.0, Ours: BoilsAt(1500), Tolerance: 0.3})
	assert.InDelta(t, 100, BoilsAt(0), 0.05)
	assert.InDelta(t, 0.2213, PorousK(.5, .03, .5), 1e-4, "Maxwell's law")
	assert.InDelta(t, 0.5, PorousK(.5, .03, 0), 1e-12)
	assert.InDelta(t, 0.5, PorousK(.5, .5, .3), 1e-12)
}

// The heat that went in is in the slab, in the steam, and nowhere else: by the final state, with
// other sums than the steps make.
func TestTheHeatIsWhereItWent(t *testing.T) {
	for share, tolerance := range map[float64]float64{0: 0.005, 0.4: 0.015} {
		s := newSlab([]Layer{{Matter: standard, ThickMM: 7, StartC: 20, Gas: GasOnPlate, Rise: 1.6}}, 24, airAt(0))
		s.stays = share
		var in, steam float64
		for range 180 {
			for i := range s.n {
				in -= s.warm[i] // condensate gives back what the plate gave before
			}
			s.step(1, contact(400, 170), still())
			in += s.in
			steam += s.steam
		}
		sensible := func(t *[mostC + 2]float64, c float64) float64 { // ∫ cp dT from 20 °C
			var sum float64
			for x := 20.0; x < c; x += 0.1 {
				p, f := place(x)
				sum += 0.1 * between(t, p, f)
			}
			return sum
		}
		want := steam * (latentJ + sensible(&s.tables[0].cw, 100)) // what left was hot
		for i := range s.n {
			want += s.warm[i] + s.dry[i]*sensible(&s.tables[0].cs, s.t[i]) + s.wet[i]*sensible(&s.tables[0].cw, s.t[i])
		}
		require.Greater(t, steam, 0.0)
		assert.InEpsilon(t, want, in, tolerance, "a share of %g condenses", share)
	}
}

var (
	standard = Matter{Water: .53, Protein: .06, Fat: .08, Carbohydrate: .305, Fibre: .010, Ash: .015, Sugars: .065, Sucrose: .045, Reducing: .020}
	thinner  = Matter{Water: .60, Protein: .06, Fat: .05, Carbohydrate: .265, Fibre: .009, Ash: .016, Sugars: .049, Sucrose: .025, Reducing: .024}
	pureed   = Matter{Water: .572, Protein: .052, Fat: .065, Carbohydrate: .286, Fibre: .012, Ash: .013, Sugars: .093, Sucrose: .058, Reducing: .035}
	waffle   = Matter{Water: .50, Protein: .06, Fat: .125, Carbohydrate: .29, Fibre: .010, Ash: .015, Sugars: .055, Sucrose: .035, Reducing: .020}
	apple    = Matter{Water: .856, Protein: .003, Fat: .002, Carbohydrate: .112, Fibre: .024, Ash: .003, Sugars: .104, Sucrose: .021, Reducing: .083}
)
