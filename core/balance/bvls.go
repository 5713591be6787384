package balance

import (
	"errors"
	"math"

	"gonum.org/v1/gonum/mat"
)

// ErrNoAnswer is returned when the least-squares problem has no unique answer or its
// bounds contradict each other.
var ErrNoAnswer = errors.New("the least-squares problem has no unique answer")

// kktSlack is the gradient, relative to the size of the problem, below which a variable at
// a bound is left there.
const kktSlack = 1e-11

// BVLS returns the x that minimises |A·x − b|² with lo ≤ x ≤ hi, by the active-set method
// of Stark & Parker 1995 ("Bounded-variable least squares: an algorithm and applications",
// Computational Statistics 10). A is m×n with m ≥ n and of full column rank; a variable
// with lo = hi stays there. The answer satisfies the Karush-Kuhn-Tucker conditions: the
// gradient is zero for variables between their bounds and points outward at a bound.
func BVLS(a *mat.Dense, b, lo, hi []float64) ([]float64, error) {
	m, n := a.Dims()
	if m < n || len(b) != m || len(lo) != n || len(hi) != n {
		return nil, ErrNoAnswer
	}
	const (
		free = iota
		low
		high
	)
	x, state := make([]float64, n), make([]int, n)
	for j := range x {
		if !(lo[j] <= hi[j]) {
			return nil, ErrNoAnswer
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
				return nil, errors.Join(ErrNoAnswer, err)
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
	return nil, ErrNoAnswer
}
