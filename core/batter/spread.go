package batter

import "math"

// SpreadBy is who makes a portion as wide as it lies.
type SpreadBy string

// The ways. Nothing said is what the form and the thickness ask for.
const (
	ByItself SpreadBy = "itself" // it runs out and is left alone
	ByHand   SpreadBy = "hand"   // the cook spreads it: with the spoon, by patting, by tilting the pan
)

// SpreadBys are both.
var SpreadBys = []SpreadBy{ByItself, ByHand}

// Spread is how wide the cook wants a portion on the plate.
type Spread struct {
	By   SpreadBy
	ToMM float64 // across, by hand only
}

// How wide [mm] and how thin [mm of layer] a hand spreads (modelling choices).
const (
	LeastSpreadMM = 40
	MostSpreadMM  = 400
	thinnest      = 3.0
	thickest      = 16.0
	thinnestCrepe = 0.8
	thickestCrepe = 3.0
)

// SpreadRange is between which diameters in mm a hand can spread ml of a form.
func SpreadRange(f Form, ml float64) (low, high float64) {
	thin, thick := thinnest, thickest
	if f == Crepe {
		thin, thick = thinnestCrepe, thickestCrepe
	}
	disc := func(mm float64) float64 { return 2 * math.Sqrt(ml*1000/(math.Pi*mm)) }
	return math.Max(LeastSpreadMM, disc(thick)), math.Min(MostSpreadMM, disc(thin))
}

// spread checks how wide a portion is wanted.
func (p *Problems) spread(f Form, portion Portion) {
	s := portion.Spread
	at := Field{Part: OfPortion, Name: "spread"}
	switch {
	case s.By == "":
	case f == Waffle:
		p.Add(at, "in_an_iron", "A waffle takes the shape of its iron: let it be as wide as that.")
	case s.By == ByHand && !(LeastSpreadMM <= s.ToMM && s.ToMM <= MostSpreadMM):
		p.Add(at, "out_of_range", "A portion is spread to between %d and %d mm across.", LeastSpreadMM, MostSpreadMM)
	}
}
