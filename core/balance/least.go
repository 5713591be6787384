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
	if rho == nil {
		rho = make([]float64, m)
		for i := range rho {
			rho[i] = -b[i]
		}
	}
	l := least{
		a: a, b: b, v: v, lo: lo, hi: hi, rho: rho,
		z: buffer[:n], at: buffer[n : n+m], grad: buffer[n+m : n+2*m], step: buffer[n+2*m : n+3*m], jac: buffer[n+3*m:],
	}
	now := l.value(rho)
	for range leastSteps {
		if l.settled() {
			break
		}
		descent := l.direct()
		rise, next := l.slope(1)
		if rise > leastOver*-descent { // beyond a bound that was met on the way
			next = l.lowest()
		}
		if !(next < now) { // rounding is all that is left
			l.slope(0)
			break
		}
		now = next
		copy(rho, l.at)
	}
	return l.z
}

// least is a search for the residuals. The problem and rho are the caller's, and only rho of them
// is written to; the rest is one buffer, of which z is handed out at the end.
type least struct {
	a              [][]float64
	b, v, lo, hi   []float64
	rho            []float64 // where the search stands
	z              []float64 // the lines' changes for what was asked last
	at, grad, step []float64 // the place on the way, the gradient at rho, the way
	jac            []float64 // of the gradient, m × m
}

// value sets z for the residuals r and returns what is minimised over them.
func (l *least) value(r []float64) float64 {
	var sum float64
	for i := range r {
		sum += r[i]*r[i]/2 + l.b[i]*r[i]
	}
	for j := range l.z {
		var s float64
		for i := range r {
			s += l.a[i][j] * r[i]
		}
		l.z[j] = math.Max(l.lo[j], math.Min(l.hi[j], -s/l.v[j]))
		sum -= l.z[j]*s + l.v[j]*l.z[j]*l.z[j]/2
	}
	return sum
}

// settled sets the gradient at rho, z being set for it, and tells whether it is as good as none.
func (l *least) settled() bool {
	var size, most float64
	for i := range l.grad {
		l.grad[i] = l.rho[i] + l.b[i]
		size += math.Abs(l.rho[i]) + math.Abs(l.b[i])
		for j := range l.z {
			l.grad[i] -= l.a[i][j] * l.z[j]
			size += math.Abs(l.a[i][j] * l.z[j])
		}
		most = math.Max(most, math.Abs(l.grad[i]))
	}
	return most <= leastSettle*size
}

// direct sets the step by Newton's method and returns how steeply it falls.
func (l *least) direct() float64 {
	m := len(l.rho)
	clear(l.jac)
	for i := range m {
		l.jac[i*m+i] = 1
		l.step[i] = -l.grad[i]
	}
	for j := range l.z {
		if l.z[j] <= l.lo[j] || l.z[j] >= l.hi[j] {
			continue
		}
		for i := range m {
			for k := range m {
				l.jac[i*m+k] += l.a[i][j] * l.a[k][j] / l.v[j]
			}
		}
	}
	return newton(l.jac, l.step, l.grad)
}

// slope is how what is minimised rises along the step, so far on it, and what it is there; at and z are set for it.
func (l *least) slope(share float64) (rise, value float64) {
	for i := range l.at {
		l.at[i] = l.rho[i] + share*l.step[i]
	}
	value = l.value(l.at)
	for i := range l.at {
		g := l.at[i] + l.b[i]
		for j := range l.z {
			g -= l.a[i][j] * l.z[j]
		}
		rise += g * l.step[i]
	}
	return rise, value
}

// lowest goes along the step to where it stops falling, and returns what is minimised there.
func (l *least) lowest() float64 {
	low, high := 0.0, 1.0
	for range leastHalves {
		mid := (low + high) / 2
		if rise, _ := l.slope(mid); rise > 0 {
			high = mid
		} else {
			low = mid
		}
	}
	_, value := l.slope(low)
	return value
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
