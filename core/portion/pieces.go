package portion

import (
	"math"

	"gonum.org/v1/gonum/stat/distuv"
)

// Placing says how pieces get into a portion.
type Placing string

// The placings.
const (
	Folded Placing = "folded" // stirred through the bowl: chance decides
	Placed Placing = "placed" // laid on or under each portion: whole pieces, shared out
)

// Chance is how a number of pieces spreads over portions that are ladled from one bowl:
// each piece lands in a given portion with the portion's share of the bowl (binomial,
// docs/maths.md section 14).
type Chance struct {
	Pieces float64 // in the bowl
	Share  float64 // of the bowl in one portion
}

// Mean is the expected number of pieces in a portion.
func (c Chance) Mean() float64 { return c.Pieces * c.Share }

// binomial takes whole pieces.
func (c Chance) binomial() distuv.Binomial {
	return distuv.Binomial{N: math.Round(c.Pieces), P: math.Min(1, c.Share)}
}

// Fewer is the chance of a portion with fewer than k pieces.
func (c Chance) Fewer(k int) float64 {
	if k <= 0 {
		return 0
	}
	if c.Pieces < 0.5 {
		return 1
	}
	return c.binomial().CDF(float64(k - 1))
}

// None is the chance of a portion without a piece.
func (c Chance) None() float64 {
	return math.Pow(1-math.Min(1, c.Share), math.Round(c.Pieces))
}

// Quantile is the least number of pieces that a share q of the portions does not exceed.
func (c Chance) Quantile(q float64) int {
	b := c.binomial()
	if b.N < 1 {
		return 0
	}
	reach := 6*math.Sqrt(b.N*b.P*(1-b.P)) + 2
	low, high := math.Max(-1, math.Floor(b.Mean()-reach)), math.Min(b.N, math.Ceil(b.Mean()+reach))
	if low >= 0 && b.CDF(low) >= q {
		low = -1
	}
	for high < b.N && b.CDF(high) < q {
		high = math.Min(b.N, 2*high+1)
	}
	for high-low > 1 { // CDF(low) < q ≤ CDF(high)
		if mid := math.Floor((low + high) / 2); b.CDF(mid) >= q {
			high = mid
		} else {
			low = mid
		}
	}
	return int(high)
}

// Between is the chance of from to below pieces, the last not counted.
func (c Chance) Between(from, below int) float64 {
	if below-from == 1 {
		return c.Probability(from)
	}
	return c.Fewer(below) - c.Fewer(from)
}

// Probability is the chance of exactly k pieces.
func (c Chance) Probability(k int) float64 {
	b := c.binomial()
	if b.N < 1 || b.P >= 1 { // nothing to share out, or all of it in one portion
		if float64(k) == b.N*b.P {
			return 1
		}
		return 0
	}
	return b.Prob(float64(k))
}

// SharedOut gives whole pieces to each of n portions: so many everywhere, and one more in
// extra of them.
func SharedOut(pieces float64, n int) (each, extra int) {
	if n <= 0 {
		return 0, 0
	}
	whole := int(math.Floor(pieces + 1e-9))
	return whole / n, whole % n
}

// BiteMM is the side of one bite (modelling choice).
const BiteMM = 25.0

// biteArea is the area in mm² around a bite in which the middle of a piece is met, however it
// is turned: for two convex outlines A₁ + A₂ + P₁·P₂/2π (Santaló, mean Minkowski sum), here of
// the square bite and an oval piece, whose outline is Ramanujan's.
func biteArea(lengthMM, widthMM float64) float64 {
	a, b := lengthMM/2, widthMM/2
	outline := math.Pi * (3*(a+b) - math.Sqrt((3*a+b)*(a+3*b)))
	return BiteMM*BiteMM + math.Pi*a*b + 4*BiteMM*outline/(2*math.Pi)
}

// BiteShare is the share of bites that meet one of n pieces of a length and width on an area
// in mm².
func BiteShare(n, lengthMM, widthMM, areaMM2 float64) float64 {
	if areaMM2 <= 0 {
		return 0
	}
	return 1 - math.Exp(-n*biteArea(lengthMM, widthMM)/areaMM2)
}

// Stiffen is how much stiffer a batter with a volume fraction phi of pieces is than without:
// Chateau, Ovarlez & Trung 2008 with the densest packing 0.57.
func Stiffen(phi float64) float64 {
	const densest = 0.57
	phi = math.Min(phi, densest*0.98) // beyond, it is a heap of pieces
	return math.Sqrt((1 - phi) * math.Pow(1-phi/densest, -2.5*densest))
}
