package portion

import (
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// Shape is how something lies on a portion.
type Shape string

// The shapes.
const (
	Pool   Shape = "pool"   // it runs
	Heap   Shape = "heap"   // it stands
	Pat    Shape = "pat"    // cut, not yet melted
	Dust   Shape = "dust"   // all over
	Pieces Shape = "pieces" // each for itself
	Inside Shape = "inside" // under the batter that was poured over it
)

// Lying is something that goes on, as it lies: its shape, how wide and high, where its middle is from the middle of the portion.
type Lying struct {
	Shape          Shape
	WideMM, HighMM float64
	X, Y           float64 // mm
	Pieces         int
}

// How things lie (modelling choices).
const (
	syrupMM    = 1.5  // deep where it runs
	sauceMM    = 4.0  // where it is thick
	patMM      = 5.0  // high
	dustMM     = 0.3  // high
	heapHigh   = 0.4  // of its width
	thickBody  = 0.05 // of body a gram, or
	thickSolid = 1.2  // g of fibre, protein and starch in 100 g, from which it stands thick
	standsFat  = 18.0 // g of fat in 100 g from which what is spooned stands
	standsProt = 6.0  // or of protein
	insideHigh = 0.4  // of the portion's thickness
	aside      = 0.45 // of the way to the rim, where there is more than one
	mostPieces = 60   // that are drawn
)

// Lies is how grams of something lie on or in a portion so many mm across and thick. The n-th of several lies beside the others.
func Lies(in *food.Ingredient, grams float64, place batter.Place, acrossMM, thickMM float64, n, of int) Lying {
	density := in.PieceDensity()
	if in.Density > 0 && in.Piece.Density == 0 {
		density = in.Density
	}
	mm3 := grams / density * 1000
	l := shaped(in, grams, mm3)
	if place == batter.Middle {
		high := math.Max(1, insideHigh*thickMM)
		l = Lying{Shape: Inside, HighMM: high, WideMM: math.Sqrt(mm3 / high * 4 / math.Pi)}
	}
	if l.Shape == Dust || l.Shape == Pieces {
		l.WideMM = acrossMM
		return l
	}
	if l.WideMM > acrossMM { // it stays on, thicker
		l.HighMM *= l.WideMM * l.WideMM / (acrossMM * acrossMM)
		l.WideMM = acrossMM
	}
	if of > 1 {
		room := math.Min(aside*acrossMM/2, (acrossMM-l.WideMM)/2)
		turn := 2*math.Pi*float64(n)/float64(of) - math.Pi/4
		l.X, l.Y = room*math.Cos(turn), room*math.Sin(turn)
	}
	return l
}

func shaped(in *food.Ingredient, grams, mm3 float64) Lying {
	round := func(high float64) float64 { return math.Sqrt(mm3 / high * 4 / math.Pi) }
	switch {
	case in.Group == food.GroupFat && in.Minds(food.CodeMelt):
		return Lying{Shape: Pat, HighMM: patMM, WideMM: math.Sqrt(mm3 / patMM)}
	case in.Group == food.GroupSugar, in.Group == food.GroupPowder, in.Group == food.GroupSpice:
		return Lying{Shape: Dust, HighMM: dustMM}
	case in.Piece.Known() && in.Piece.MassG > 0:
		_, _, high := in.PieceSize()
		return Lying{Shape: Pieces, HighMM: high, Pieces: int(math.Min(mostPieces, math.Round(grams/in.Piece.MassG)))}
	case in.Fat > standsFat && in.Water > 20 || in.Protein > standsProt && in.Water > 60:
		wide := math.Cbrt(mm3 * 6 / (math.Pi * heapHigh))
		return Lying{Shape: Heap, WideMM: wide, HighMM: heapHigh * wide}
	case in.Body > thickBody || in.Fibre+in.Protein+in.Starch > thickSolid:
		return Lying{Shape: Pool, HighMM: sauceMM, WideMM: round(sauceMM)}
	}
	return Lying{Shape: Pool, HighMM: syrupMM, WideMM: round(syrupMM)}
}
