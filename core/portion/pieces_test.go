package portion_test

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat/distuv"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/portion"
	"upbeatladle/internal/evidence"
)

// Poisson λ = 3: none 0.0498, fewer than two 0.1991; λ = 8: fewer than four 0.0424 (closed
// form; gonum stat/distuv). A binomial of many pieces comes close.
func TestChanceComesCloseToPoisson(t *testing.T) {
	many := func(mean float64) portion.Chance { return portion.Chance{Pieces: 20000, Share: mean / 20000} }
	evidence.Check(t, evidence.Claim{What: "chance of none, λ = 3", Unit: "", Kind: evidence.Law, Source: "Poisson", Outside: 0.0498, Ours: many(3).None(), Tolerance: 1e-4})
	evidence.Check(t, evidence.Claim{What: "chance of fewer than 2, λ = 3", Unit: "", Kind: evidence.Law, Source: "Poisson", Outside: 0.1991, Ours: many(3).Fewer(2), Tolerance: 1e-4})
	evidence.Check(t, evidence.Claim{What: "chance of fewer than 4, λ = 8", Unit: "", Kind: evidence.Law, Source: "Poisson", Outside: 0.0424, Ours: many(8).Fewer(4), Tolerance: 1e-4})
	assert.InDelta(t, distuv.Poisson{Lambda: 8}.Prob(6), many(8).Probability(6), 1e-4)
}

func TestQuantilesAreThoseOfTheBinomial(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := portion.Chance{Pieces: float64(rapid.IntRange(0, 500).Draw(t, "n")), Share: rapid.Float64Range(0.01, 0.5).Draw(t, "p")}
		q := rapid.Float64Range(0.05, 0.95).Draw(t, "q")
		k := c.Quantile(q)
		if c.Pieces == 0 {
			assert.Zero(t, k)
			return
		}
		b := distuv.Binomial{N: c.Pieces, P: c.Share}
		assert.GreaterOrEqual(t, b.CDF(float64(k)), q-1e-9)
		if k > 0 {
			assert.Less(t, b.CDF(float64(k-1)), q+1e-9)
		}
		var sum float64
		for i := range int(c.Pieces) + 1 {
			sum += c.Probability(i)
		}
		assert.InDelta(t, 1, sum, 1e-9)
	})
}

// Share of 25 mm bites that meet a 10 mm piece on a 105 mm pancake (closed form, Minkowski sum).
func TestBiteShare(t *testing.T) {
	area := math.Pi * 105 * 105 / 4
	for n, want := range map[float64]float64{4: 0.426, 8: 0.671, 12: 0.811, 20: 0.938} {
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("bites of 25 mm that meet one of %g pieces of 10 mm, 105 mm pancake", n), Unit: "", Kind: evidence.Law, Source: "Minkowski sum", Outside: want, Ours: portion.BiteShare(n, 10, 10, area), Tolerance: 0.0005})
	}
	// A cheese shred of 25 by 3 mm against a 25 mm bite: Barbier's and Santaló's mean outline.
	shred := portion.BiteShare(10, 25, 3, area)
	assert.Greater(t, shred, portion.BiteShare(10, 3, 3, area))
	assert.Less(t, shred, portion.BiteShare(10, 25, 25, area))
}

// Chateau, Ovarlez & Trung 2008: 1.088, 1.217, 1.425 at 10, 20 and 30 %.
func TestStiffening(t *testing.T) {
	for phi, want := range map[float64]float64{0: 1, 0.1: 1.088, 0.2: 1.217, 0.3: 1.425} {
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("stiffening at %g of pieces", phi), Unit: "×", Kind: evidence.Published, Source: "Chateau, Ovarlez & Trung 2008", Tie: evidence.Copied, Outside: want, Ours: portion.Stiffen(phi), Tolerance: 0.001})
	}
}

// Beris et al. 1985, from memory: 10 mm and 200 kg/m³ need 0.93 Pa.
func TestSuspension(t *testing.T) {
	evidence.Check(t, evidence.Claim{What: "yield stress that holds 10 mm and 200 kg/m³", Unit: "Pa", Kind: evidence.Memory, Source: "Beris et al. 1985", Tie: evidence.Copied, Outside: 0.93, Ours: portion.HoldsStill(10, 0.2), Tolerance: 0.005})
	standard, crepe := 22.0, 3.0 // L* 2.0 and 2.9
	assert.False(t, portion.SinkingOf(18, 1.28, standard, 1, 1.06).Moves, "a standard batter holds about 20 mm of chip")
	assert.True(t, portion.SinkingOf(10, 1.28, crepe, 0.3, 1.08).Moves, "a crêpe batter does not")
	assert.False(t, portion.SinkingOf(3, 1.28, crepe, 1, 1.08).Moves)
	float := portion.SinkingOf(30, 0.5, crepe, 1, 1.08)
	assert.True(t, float.Moves)
	assert.False(t, float.Down)
}

// The pieces of all portions, with what stays in the bowl, sum to what went in.
func TestFirstToLastConservesPieces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 60).Draw(t, "n")
		ml := rapid.Float64Range(20, 200).Draw(t, "ml")
		volume := ml * float64(n) / (1 - portion.BowlLoss)
		pieces := rapid.Float64Range(0, 500).Draw(t, "pieces")
		s := portion.Sinking{Moves: rapid.Bool().Draw(t, "moves"), Down: rapid.Bool().Draw(t, "down"), Speed: rapid.Float64Range(0, 5).Draw(t, "speed")}
		var sum float64
		for _, v := range portion.FirstToLast(pieces, n, volume, ml, rapid.Float64Range(0, 30).Draw(t, "rest"), s) {
			assert.GreaterOrEqual(t, v, -1e-9)
			sum += v
		}
		assert.LessOrEqual(t, sum, pieces+1e-6)
		assert.GreaterOrEqual(t, sum, 0.7*pieces-1e-6, "what is missing lies in the bowl")
	})
}

func TestSinkingPiecesEndInTheLastPortions(t *testing.T) {
	s := portion.FirstToLast(100, 10, 1025, 100, 15, portion.Sinking{Moves: true, Down: true, Speed: 0.05})
	assert.Greater(t, s[9], 3*s[0])
	f := portion.FirstToLast(100, 10, 1025, 100, 15, portion.Sinking{Moves: true, Speed: 0.05})
	assert.Greater(t, f[0], 3*f[9])
	assert.Nil(t, portion.FirstToLast(100, 0, 1, 1, 0, portion.Sinking{}))
}

func TestSharedOut(t *testing.T) {
	each, extra := portion.SharedOut(53, 12)
	assert.Equal(t, []int{4, 5}, []int{each, extra})
	rapid.Check(t, func(t *rapid.T) {
		n, pieces := rapid.IntRange(1, 50).Draw(t, "n"), rapid.IntRange(0, 500).Draw(t, "pieces")
		each, extra := portion.SharedOut(float64(pieces), n)
		assert.Equal(t, pieces, each*n+extra)
		assert.Less(t, extra, n)
	})
}

// Scoops by definition: number 16, 20 and 12 hold 59.1, 47.3 and 78.9 ml.
func TestScoops(t *testing.T) {
	for n, ml := range map[float64]float64{16: 59.1, 20: 47.3, 12: 78.9} {
		evidence.Check(t, evidence.Claim{What: fmt.Sprintf("scoop no. %g", n), Unit: "ml", Kind: evidence.Law, Source: "definition: scoops to a US quart", Outside: ml, Ours: portion.ScoopML(n), Tolerance: 0.05})
	}
}

func TestFit(t *testing.T) {
	assert.Equal(t, 8, portion.Fit(100, 460, 230), "four by two on a plate of 46 by 23 cm")
	assert.Equal(t, 0, portion.Fit(300, 250, 250))
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.Float64Range(40, 300).Draw(t, "d")
		w, h := rapid.Float64Range(100, 900).Draw(t, "w"), rapid.Float64Range(100, 900).Draw(t, "h")
		n := portion.Fit(d, w, h)
		assert.LessOrEqual(t, float64(n)*math.Pi*d*d/4, w*h, "discs never cover more than the plate")
		assert.Equal(t, n, portion.Fit(d, h, w))
		assert.LessOrEqual(t, portion.Fit(d+20, w, h), n)
	})
}

func TestIron(t *testing.T) {
	deep := batter.Iron{Round: true, WidthMM: 180, LengthMM: 180, DepthMM: 28, GapMM: 6, Moulds: 1}
	share, advised := portion.Fill(deep, 200, 1.6, 1)
	assert.InDelta(t, 200*1.6/portion.MouldML(deep), share, 1e-12)
	assert.InDelta(t, math.Pi*180*180/4*28*0.62/1000, portion.MouldML(deep), 1e-9)
	back, _ := portion.Fill(deep, advised, 1.6, 1)
	assert.InDelta(t, 0.85, back, 1e-9, "the advised ladle fills it well and leaves room at the rim")
	deep.TakesG = 180
	share, advised = portion.Fill(deep, 200, 1.6, 0.9)
	assert.InDelta(t, 200, advised, 1e-9, "what a good one was weighed at outranks the mould")
	assert.InDelta(t, 0.85, share, 1e-9)
	assert.InDelta(t, 1.1, portion.Rise(0), 1e-9)
	assert.InDelta(t, 1.9*(1-0.35), portion.Rise(1e6), 1e-6, "and sinks back by a third of it at most")
}

// The simulation agrees with the closed form within its own standard error.
func TestSimulationAgreesWithTheBinomial(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	const bowls, n = 2000, 20
	share := 0.975 / n
	kinds := []portion.Kind{{Pieces: 90}, {Pieces: 30}}
	s := simulate(t, rng, bowls, n, share, kinds)
	for k, kind := range kinds {
		c := portion.Chance{Pieces: kind.Pieces, Share: share}
		se := math.Sqrt(c.None() * (1 - c.None()) / (bowls * n))
		assert.InDelta(t, c.None(), s.None[k], 5*se)
		assert.InDelta(t, c.Mean(), s.Mean[k], 5*math.Sqrt(c.Mean()/(bowls*n)))
	}
	together := portion.Chance{Pieces: 120, Share: share}
	assert.InDelta(t, together.None(), s.AnyNone, 0.002)
	var sum float64
	for _, h := range s.Histogram {
		sum += h
	}
	assert.InDelta(t, 1, sum, 1e-9)
	half := simulate(t, rng, bowls, n, share, []portion.Kind{{Pieces: 90, Among: 0.5}})
	assert.InDelta(t, 0.5, half.None[0], 0.01, "half of the portions get none of it")
	assert.InDelta(t, s.Mean[0], half.Mean[0], 0.1, "and the others twice as many")
	again := simulate(t, rand.New(rand.NewPCG(1, 2)), bowls, n, share, kinds)
	assert.Equal(t, s, again, "the caller's seed decides")
}

func TestDrawingHoldsThePiecesItSays(t *testing.T) {
	kinds := []portion.Kind{{Pieces: 12.4, LengthMM: 8, HeightMM: 6}, {Pieces: 3, LengthMM: 14, HeightMM: 14}}
	spots, drawn := portion.Draw(rand.New(rand.NewPCG(1, 1)), 100, 0, 9, kinds)
	require.Len(t, spots, 15)
	assert.Equal(t, 1.0, drawn)
	for _, s := range spots {
		assert.LessOrEqual(t, math.Hypot(s.X, s.Y)+kinds[s.Kind].LengthMM/2, 50.001, "inside the pancake")
	}
	again, _ := portion.Draw(rand.New(rand.NewPCG(1, 1)), 100, 0, 9, kinds)
	assert.Equal(t, spots, again)
	_, drawn = portion.Draw(rand.New(rand.NewPCG(1, 1)), 100, 0, 9, []portion.Kind{{Pieces: 9000, LengthMM: 1}})
	assert.Less(t, drawn, 1.0)
}

func BenchmarkSimulate(b *testing.B) {
	kinds := []portion.Kind{{Pieces: 240}, {Pieces: 60}}
	for b.Loop() {
		simulate(b, rand.New(rand.NewPCG(1, 2)), 2000, 25, 0.975/25, kinds)
	}
}

func simulate(t require.TestingT, rng *rand.Rand, bowls, n int, share float64, kinds []portion.Kind) portion.Simulation {
	s, err := portion.Simulate(context.Background(), rng, bowls, n, share, kinds)
	require.NoError(t, err)
	return s
}

// Discs in a round pan, gap counted: the pan over the disc for two to seven (closed form: circles in a circle), and the
// check of practice, three of 106 mm that touch in 230 mm.
func TestDiscsInAPan(t *testing.T) {
	const gap = 5.0
	for n, ratio := range map[int]float64{1: 1, 2: 2, 3: 1 + 2/math.Sqrt(3), 4: 1 + math.Sqrt2, 5: 1 + 1/math.Sin(math.Pi/5), 7: 3} {
		d := 80.0
		floor := ratio*(d+gap) - gap
		assert.Len(t, portion.InPan(d, floor+1e-6), n, "%d in %.1f mm", n, floor)
		if n > 1 {
			assert.Less(t, len(portion.InPan(d, floor-0.1)), n)
		}
	}
	assert.Len(t, portion.InPan(106-gap, 230-gap), 3)
	rapid.Check(t, func(t *rapid.T) {
		d, floor := rapid.Float64Range(40, 200).Draw(t, "d"), rapid.Float64Range(100, 500).Draw(t, "floor")
		places := portion.InPan(d, floor)
		for i, p := range places {
			if math.Hypot(p.X-floor/2, p.Y-floor/2)+d/2 > floor/2+1e-6 {
				t.Fatalf("%v sticks out of %g mm", p, floor)
			}
			for _, q := range places[:i] {
				if math.Hypot(p.X-q.X, p.Y-q.Y) < d+gap-1e-6 {
					t.Fatalf("%v and %v lie closer than the turner", p, q)
				}
			}
		}
		if d <= floor {
			assert.NotEmpty(t, places)
			assert.GreaterOrEqual(t, len(portion.InPan(d, floor+40)), len(places))
		} else {
			assert.Empty(t, places)
		}
	})
}
