package balance

import "math"

const (
	leastSteps  = 100   // of Newton's method; a handful do
	leastSettle = 1e-14 // relative: the residual moves no more
	leastOver   = 1e-3  // share of the promised slope that a whole step may rise again with
	leastHalves = 60    // of a step that is too long
)

// leastChange returns the z that minimises
//
//	Σ_i (a_i·z − b_i)² + Σ_j v_j·z_j²   with lo ≤ z ≤ hi
//
// for a few targets (rows of a) and any number of lines: bounded-variable least squares whose
// every unknown is pulled toward zero, v > 0. It is solved where it is small, in the residuals
// ρ of the targets: z_j = clamp(−(aᵀρ)_j / v_j), and ρ minimises a strictly convex, piecewise
// quadratic function, which Newton's method with an exact line search ends in finitely many steps. The
// work grows with the lines, not with their cube, and no system is singular. The tests hold it
// against the active-set method of Stark & Parker 1995. Formulas: docs/maths.md section 6.
//
// rho is where the search for the residuals begins, and where it ended: the next problem of the
// same kind is mostly near. nil begins where no line moves.
func leastChange(a [][]float64, b, v, lo, hi, rho []float64) []float64 {
	m, n := len(a), len(v)
	buffer := make([]float64, n+3*m+m*m)
	z, at, grad, step, jac := buffer[:n], buffer[n:n+m], buffer[n+m:n+2*m], buffer[n+2*m:n+3*m], buffer[n+3*m:]
	if rho == nil {
		rho = make([]float64, m)
		for i := range rho {
			rho[i] = -b[i]
		}
	}
	// value sets z for the residuals r and returns what is minimised over them.
	value := func(r []float64) float64 {
		var sum float64
		for i := range r {
			sum += r[i]*r[i]/2 + b[i]*r[i]
		}
		for j := range z {
			var s float64
			for i := range r {
				s += a[i][j] * r[i]
			}
			z[j] = math.Max(lo[j], math.Min(hi[j], -s/v[j]))
			sum -= z[j]*s + v[j]*z[j]*z[j]/2
		}
		return sum
	}
	now := value(rho)
	next := now
	for range leastSteps {
		var size, most float64
		for i := range grad {
			grad[i] = rho[i] + b[i]
			size += math.Abs(rho[i]) + math.Abs(b[i])
			for j := range z {
				grad[i] -= a[i][j] * z[j]
				size += math.Abs(a[i][j] * z[j])
			}
			most = math.Max(most, math.Abs(grad[i]))
		}
		if most <= leastSettle*size {
			break
		}
		clear(jac)
		for i := range m {
			jac[i*m+i] = 1
			step[i] = -grad[i]
		}
		for j := range z {
			if z[j] <= lo[j] || z[j] >= hi[j] {
				continue
			}
			for i := range m {
				for k := range m {
					jac[i*m+k] += a[i][j] * a[k][j] / v[j]
				}
			}
		}
		descent := newton(jac, step, grad)
		// slope is how what is minimised rises along the step, so far on it; at and z are set for it.
		slope := func(share float64) (sum float64) {
			for i := range at {
				at[i] = rho[i] + share*step[i]
			}
			next = value(at)
			for i := range at {
				g := at[i] + b[i]
				for j := range z {
					g -= a[i][j] * z[j]
				}
				sum += g * step[i]
			}
			return sum
		}
		if slope(1) > leastOver*-descent { // beyond a bound that was met on the way: to where it stops falling
			low, high := 0.0, 1.0
			for range leastHalves {
				if mid := (low + high) / 2; slope(mid) > 0 {
					high = mid
				} else {
					low = mid
				}
			}
			slope(low)
		}
		if !(next < now) { // rounding is all that is left
			slope(0)
			break
		}
		now = next
		copy(rho, at)
	}
	return z
}

// newton solves jac·step = step in place by Gaussian elimination; jac is symmetric and at least
// the unit matrix. What rounding leaves singular stays out. It returns grad·step, the slope.
func newton(jac, step, grad []float64) float64 {
	m := len(step)
	for i := range m {
		p := jac[i*m+i]
		for k := i + 1; k < m; k++ {
			f := jac[k*m+i] / p
			for l := i; l < m; l++ {
				jac[k*m+l] -= f * jac[i*m+l]
			}
			step[k] -= f * step[i]
			jac[k*m+k] = math.Max(jac[k*m+k], 1) // a Schur complement of I + A·Aᵀ is never less
		}
	}
	var slope float64
	for i := m - 1; i >= 0; i-- {
		for k := i + 1; k < m; k++ {
			step[i] -= jac[i*m+k] * step[k]
		}
		step[i] /= jac[i*m+i]
		slope += grad[i] * step[i]
	}
	return slope
}
