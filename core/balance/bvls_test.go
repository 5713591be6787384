package balance_test

import (
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
		x, err := balance.BVLS(a, b, lo, hi)
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
		x, err := balance.BVLS(a, b, lo, hi)
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
			return balance.BVLS(mat.NewDense(1, 1, one), one, []float64{2}, one)
		},
		"NaN bound": func() ([]float64, error) {
			return balance.BVLS(mat.NewDense(1, 1, one), one, []float64{math.NaN()}, one)
		},
		"too few rows": func() ([]float64, error) {
			return balance.BVLS(mat.NewDense(1, 2, []float64{1, 1}), one, make([]float64, 2), make([]float64, 2))
		},
		"a column of zeros": func() ([]float64, error) {
			return balance.BVLS(mat.NewDense(2, 1, nil), []float64{1, 1}, []float64{-1}, one)
		},
	} {
		_, err := f()
		assert.ErrorIs(t, err, balance.ErrNoAnswer, name)
	}
}
