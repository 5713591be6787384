package balance_test

import (
	"errors"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/mat"
	"pgregory.net/rapid"

	"upbeatladle/core/balance"
)

// random problem with m ≥ n and a well-conditioned matrix.
func drawProblem(t *rapid.T) (a *mat.Dense, b []float64) {
	n := rapid.IntRange(1, 6).Draw(t, "n")
	m := n + rapid.IntRange(0, 5).Draw(t, "extra")
	a = mat.NewDense(m+n, n, nil)
	b = make([]float64, m+n)
	for i := range m {
		for j := range n {
			a.Set(i, j, rapid.Float64Range(-3, 3).Draw(t, "a"))
		}
		b[i] = rapid.Float64Range(-5, 5).Draw(t, "b")
	}
	for j := range n { // as the stages have it, every unknown is pulled a little toward zero
		a.Set(m+j, j, math.Sqrt(1e-3))
	}
	return a, b
}

// Without a bound in the way the answer is that of the normal equations, solved by gonum.
func TestUnboundedAnswerSolvesTheNormalEquations(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := drawProblem(t)
		_, n := a.Dims()
		lo, hi := make([]float64, n), make([]float64, n)
		for j := range n {
			lo[j], hi[j] = math.Inf(-1), math.Inf(1)
		}
		x, err := bvls(a, b, lo, hi)
		require.NoError(t, err)
		var normal mat.Dense
		normal.Mul(a.T(), a)
		var rhs, want mat.VecDense
		rhs.MulVec(a.T(), mat.NewVecDense(len(b), b))
		require.NoError(t, want.SolveVec(&normal, &rhs))
		for j := range n {
			assert.InDelta(t, want.AtVec(j), x[j], 1e-6*(1+math.Abs(want.AtVec(j))))
		}
	})
}

// Karush-Kuhn-Tucker: the gradient is zero between the bounds and points outward at one.
func TestBoundedAnswerSatisfiesKKT(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := drawProblem(t)
		m, n := a.Dims()
		lo, hi := make([]float64, n), make([]float64, n)
		for j := range n {
			lo[j] = rapid.Float64Range(-2, 0.5).Draw(t, "lo")
			hi[j] = lo[j] + rapid.Float64Range(0, 2).Draw(t, "room")
			if rapid.Bool().Draw(t, "open") {
				hi[j] = math.Inf(1)
			}
		}
		x, err := bvls(a, b, lo, hi)
		require.NoError(t, err)
		for j := range n {
			require.GreaterOrEqual(t, x[j], lo[j])
			require.LessOrEqual(t, x[j], hi[j])
			var g float64 // of ½|Ax−b|²
			for i := range m {
				r := -b[i]
				for k := range n {
					r += a.At(i, k) * x[k]
				}
				g += a.At(i, j) * r
			}
			switch {
			case lo[j] == hi[j]:
			case x[j] == lo[j]:
				assert.GreaterOrEqual(t, g, -1e-7)
			case x[j] == hi[j]:
				assert.LessOrEqual(t, g, 1e-7)
			default:
				assert.InDelta(t, 0, g, 1e-7)
			}
		}
	})
}

func TestBVLSRefusesWhatIsNoProblem(t *testing.T) {
	one := []float64{1}
	for name, f := range map[string]func() ([]float64, error){
		"crossed bounds": func() ([]float64, error) {
			return bvls(mat.NewDense(1, 1, one), one, []float64{2}, one)
		},
		"NaN bound": func() ([]float64, error) {
			return bvls(mat.NewDense(1, 1, one), one, []float64{math.NaN()}, one)
		},
		"too few rows": func() ([]float64, error) {
			return bvls(mat.NewDense(1, 2, []float64{1, 1}), one, make([]float64, 2), make([]float64, 2))
		},
		"a column of zeros": func() ([]float64, error) {
			return bvls(mat.NewDense(2, 1, nil), []float64{1, 1}, []float64{-1}, one)
		},
	} {
		_, err := f()
		assert.ErrorIs(t, err, errNoAnswer, name)
	}
}

// errNoAnswer is returned when the least-squares problem has no unique answer or its
// bounds contradict each other.
var errNoAnswer = errors.New("the least-squares problem has no unique answer")

// kktSlack is the gradient, relative to the size of the problem, below which a variable at
// a bound is left there.
const kktSlack = 1e-11

// bvls returns the x that minimises |A·x − b|² with lo ≤ x ≤ hi, by the active-set method
// of Stark & Parker 1995 ("Bounded-variable least squares: an algorithm and applications",
// Computational Statistics 10). A is m×n with m ≥ n and of full column rank; a variable
// with lo = hi stays there. The answer satisfies the Karush-Kuhn-Tucker conditions: the
// gradient is zero for variables between their bounds and points outward at a bound.
func bvls(a *mat.Dense, b, lo, hi []float64) ([]float64, error) {
	m, n := a.Dims()
	if m < n || len(b) != m || len(lo) != n || len(hi) != n {
		return nil, errNoAnswer
	}
	const (
		free = iota
		low
		high
	)
	x, state := make([]float64, n), make([]int, n)
	for j := range x {
		if !(lo[j] <= hi[j]) {
			return nil, errNoAnswer
		}
		// A warm start with everything free, from the point of the box nearest to zero.
		x[j] = math.Min(math.Max(0, lo[j]), hi[j])
		if lo[j] == hi[j] {
			state[j] = low
		}
	}
	raw := a.RawMatrix()
	residual := func(r []float64) {
		for i := range r {
			r[i] = b[i]
			for j, v := range raw.Data[i*raw.Stride : i*raw.Stride+n] {
				r[i] -= v * x[j]
			}
		}
	}
	r := make([]float64, m)
	idx := make([]int, 0, n)
	var qr mat.QR
	justFreed := -1
	for range 10 * (n + 1) * (n + 1) {
		// Solve among the free variables; step back to the first bound that is crossed.
		for {
			idx = idx[:0]
			for j, s := range state {
				if s == free {
					idx = append(idx, j)
				}
			}
			if len(idx) == 0 {
				break
			}
			residual(r)
			sub := mat.NewDense(m, len(idx), nil)
			for i := range m {
				for k, j := range idx {
					sub.Set(i, k, raw.Data[i*raw.Stride+j])
				}
			}
			qr.Factorize(sub)
			var step mat.VecDense
			if err := qr.SolveVecTo(&step, false, mat.NewVecDense(m, r)); err != nil {
				return nil, errors.Join(errNoAnswer, err)
			}
			alpha, hit, side := 1.0, -1, free
			for k, j := range idx {
				d := step.AtVec(k)
				switch {
				case x[j]+d < lo[j]:
					if t := (lo[j] - x[j]) / d; t < alpha {
						alpha, hit, side = t, j, low
					}
				case x[j]+d > hi[j]:
					if t := (hi[j] - x[j]) / d; t < alpha {
						alpha, hit, side = t, j, high
					}
				}
			}
			for k, j := range idx {
				x[j] += alpha * step.AtVec(k)
			}
			if hit < 0 {
				break
			}
			state[hit] = side
			x[hit] = lo[hit]
			if side == high {
				x[hit] = hi[hit]
			}
			if hit == justFreed {
				break // rounding would make it cycle
			}
		}
		// The bound variable whose release helps most, if any does.
		residual(r)
		best, gain := -1, 0.0
		for j, s := range state {
			if s == free || lo[j] == hi[j] {
				continue
			}
			var g, norm float64
			for i := range m {
				v := raw.Data[i*raw.Stride+j]
				g += v * r[i]
				norm += math.Abs(v * b[i])
			}
			if s == high {
				g = -g
			}
			if g > gain && g > kktSlack*(1+norm) && j != justFreed {
				best, gain = j, g
			}
		}
		if best < 0 {
			return x, nil
		}
		state[best], justFreed = free, best
	}
	return nil, errNoAnswer
}

// Few targets over many lines: the answer in the space of the targets is the one that the
// active-set method of Stark & Parker finds in the space of the lines.
func TestLeastChangeAgreesWithTheActiveSetMethod(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		drawn := func(low, high float64, label string) float64 { // to a thousandth: what is told apart by 1e-73 is no target
			return math.Round(1000*rapid.Float64Range(low, high).Draw(t, label)) / 1000
		}
		m, n := rapid.IntRange(1, 2).Draw(t, "m"), rapid.IntRange(1, 7).Draw(t, "n")
		rows, b := make([][]float64, m), make([]float64, m)
		v, lo, hi := make([]float64, n), make([]float64, n), make([]float64, n)
		full, rhs := mat.NewDense(m+n, n, nil), make([]float64, m+n)
		for i := range m {
			rows[i] = make([]float64, n)
			b[i] = drawn(-4, 4, "b")
			rhs[i] = b[i]
			for j := range n {
				rows[i][j] = drawn(-3, 3, "a")
				full.Set(i, j, rows[i][j])
			}
		}
		for j := range n {
			v[j] = rapid.SampledFrom([]float64{1e-3, 1e-2}).Draw(t, "v")
			full.Set(m+j, j, math.Sqrt(v[j]))
			lo[j] = -drawn(0, 1, "lo")
			hi[j] = rapid.SampledFrom([]float64{0, 1, 30, math.Inf(1)}).Draw(t, "hi")
		}
		want, err := bvls(full, rhs, lo, hi)
		require.NoError(t, err)
		got := balance.LeastChange(rows, b, v, lo, hi, nil)
		cost := func(x []float64) (sum float64) { // there is one least: who costs as much is there
			for i := range rows {
				left := -b[i]
				for j := range x {
					left += rows[i][j] * x[j]
				}
				sum += left * left
			}
			for j := range x {
				sum += v[j] * x[j] * x[j]
			}
			return sum
		}
		theirs, ours := cost(want), cost(got)
		require.LessOrEqual(t, ours, theirs+1e-9*(1+theirs), "never worse than the active-set method")
		for j := range n {
			require.True(t, got[j] >= lo[j]-1e-9 && got[j] <= hi[j]+1e-9, "within its bounds")
			if theirs <= ours+1e-9*(1+ours) {
				assert.InDelta(t, want[j], got[j], 1e-3*(1+math.Abs(want[j])))
			}
		}
	})
}

// What made a linear system singular is answered all the same.
func TestLeastChangeAnswersWhatIsSingular(t *testing.T) {
	inf := math.Inf(1)
	for name, a := range map[string][][]float64{
		"nothing moves it": {{0, 0}}, "twice the same target": {{1, 2}, {1, 2}}, "of very different size": {{1e15, 1e-15}, {1, 1}},
	} {
		z := balance.LeastChange(a, make([]float64, len(a), 2), []float64{1e-3, 1e-3}, []float64{-1, -1}, []float64{inf, inf}, nil)
		assert.Equal(t, []float64{0, 0}, z, name)
		b := make([]float64, len(a))
		b[0] = 3
		for _, v := range balance.LeastChange(a, b, []float64{1e-3, 1e-3}, []float64{-1, -1}, []float64{inf, inf}, nil) {
			assert.False(t, math.IsNaN(v) || math.IsInf(v, 0), name)
		}
	}
}
