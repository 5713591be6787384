package portion

import (
	"context"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
)

// Spot is one piece in the drawing: where its middle lies in mm from the middle of the portion
// and above the plate, and how it is turned.
type Spot struct {
	X, Y, Z float64
	Turn    float64 // degrees, of its length
	Kind    int     // which inclusion

	lengthMM float64
}

// Kind is one kind of piece to draw.
type Kind struct {
	Pieces             float64
	LengthMM, HeightMM float64
	Among              float64 // share of the portions that get it; 0 means all
}

const (
	maxSpots = 400 // drawn at most; the rest would only blur (modelling choice)
	tries    = 12  // to find a place that is free
)

// Draw lays pieces out in a disc (or, when lengthMM is above zero, a rectangle) of a poured
// thickness, from a random source of the caller's: the same source gives the same picture.
// The number drawn is the mean, rounded; drawn tells the share when there are too many.
func Draw(rng *rand.Rand, widthMM, lengthMM, thicknessMM float64, kinds []Kind) (spots []Spot, drawn float64) {
	var total float64
	for _, k := range kinds {
		total += math.Round(k.Pieces)
	}
	drawn = math.Min(1, maxSpots/math.Max(1, total))
	for i, k := range kinds {
		for range int(math.Round(math.Round(k.Pieces) * drawn)) {
			s := Spot{Turn: 180 * rng.Float64(), Kind: i, lengthMM: k.LengthMM}
			for range tries {
				s.X, s.Y = place(rng, widthMM, lengthMM, k.LengthMM)
				if free(spots, s) {
					break
				}
			}
			s.Z = k.HeightMM/2 + rng.Float64()*math.Max(0, thicknessMM-k.HeightMM)
			spots = append(spots, s)
		}
	}
	return spots, drawn
}

func place(rng *rand.Rand, width, length, size float64) (x, y float64) {
	if length > 0 {
		return (rng.Float64() - 0.5) * math.Max(0, width-size), (rng.Float64() - 0.5) * math.Max(0, length-size)
	}
	r := math.Max(0, width/2-size/2) * math.Sqrt(rng.Float64())
	a := 2 * math.Pi * rng.Float64()
	return r * math.Cos(a), r * math.Sin(a)
}

func free(spots []Spot, s Spot) bool {
	for _, o := range spots {
		if math.Hypot(o.X-s.X, o.Y-s.Y) < (o.lengthMM+s.lengthMM)*0.45 {
			return false
		}
	}
	return true
}

// MaxThrows is the most pieces and portions that are simulated at once (modelling choice: about
// half a second).
const MaxThrows = 30e6

// ErrTooMany says that a simulation would take too long.
var ErrTooMany = errors.New("too many to simulate")

// Throws is how much of MaxThrows one bowl takes.
func Throws(n int, kinds []Kind) float64 {
	sum := float64(n) * float64(1+len(kinds))
	for _, k := range kinds {
		sum += math.Round(k.Pieces)
	}
	return sum
}

// Simulation is what a number of simulated bowls gave.
type Simulation struct {
	Mean, None []float64 // per kind: mean pieces a portion, share of portions without any
	AnyNone    float64   // share of portions that have none of any kind
	Histogram  []float64 // share of portions by the number of pieces of all kinds together
}

// Simulate ladles n portions out of so many bowls in which each piece of each kind lies
// anywhere, from a random source of the caller's. It agrees with Chance where that has an
// answer, and answers what has no closed form: several kinds at once. More than MaxPortions or
// MaxThrows are ErrTooMany; a context that ends is its own error.
func Simulate(ctx context.Context, rng *rand.Rand, bowls, n int, share float64, kinds []Kind) (Simulation, error) {
	out := Simulation{Mean: make([]float64, len(kinds)), None: make([]float64, len(kinds))}
	if n <= 0 || bowls <= 0 {
		return out, nil
	}
	if n > MaxPortions || float64(bowls)*Throws(n, kinds) > MaxThrows {
		return Simulation{}, fmt.Errorf("%d bowls of %d portions: %w", bowls, n, ErrTooMany)
	}
	counts := make([]int, n*len(kinds))
	for range bowls {
		if err := ctx.Err(); err != nil {
			return Simulation{}, err
		}
		clear(counts)
		for k, kind := range kinds {
			among := 1.0
			if kind.Among > 0 {
				among = kind.Among
			}
			its := int(math.Round(float64(n) * among)) // the first portions, whichever they are
			for range int(math.Round(kind.Pieces)) {
				// A piece lies in portion i with the portion's share, else it stays in the bowl.
				if i := int(rng.Float64() * among / share); i < its {
					counts[k*n+i]++
				}
			}
		}
		for i := range n {
			sum := 0
			for k := range kinds {
				c := counts[k*n+i]
				sum += c
				out.Mean[k] += float64(c)
				if c == 0 {
					out.None[k]++
				}
			}
			if sum == 0 {
				out.AnyNone++
			}
			for len(out.Histogram) <= sum {
				out.Histogram = append(out.Histogram, 0)
			}
			out.Histogram[sum]++
		}
	}
	all := float64(bowls * n)
	for k := range kinds {
		out.Mean[k] /= all
		out.None[k] /= all
	}
	for i := range out.Histogram {
		out.Histogram[i] /= all
	}
	out.AnyNone /= all
	return out, nil
}
