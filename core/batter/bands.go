package batter

// Band is the range in which a gauge is called in band.
type Band struct{ Low, High float64 }

// Contains tells whether v lies in the band, edges included.
func (b Band) Contains(v float64) bool { return v >= b.Low && v <= b.High }

// thicknessBands on L* [ml/g] by form (modelling choice, fitted to common practice).
var thicknessBands = map[Form]Band{
	DropScone: {1.4, 1.9},
	Pancake:   {1.75, 2.35},
	Waffle:    {1.6, 2.3},
	Crepe:     {2.2, 3.4},
}

// ThicknessBand returns the band of L* for a form; flourless batters have none.
func ThicknessBand(f Form) (Band, bool) {
	b, ok := thicknessBands[f]
	return b, ok
}

// Bands around the base where no outside band exists: shares of the base below and above
// it (modelling choice until trials say better).
const (
	drierShare     = 0.15 // moisture is a trait: every purée makes a batter moister at equal thickness, and keeps it soft
	moisterShare   = 0.25
	sweetnessShare = 0.12
	structureShare = 0.25 // balance.StructureWord
	sweetnessFloor = 0.5  // g per 100 g, so that an unsweetened base has a band at all
)

func around(base, share, floor float64) Band {
	w := max(share*base, floor)
	return Band{max(0, base-w), base + w}
}

// MoistureBand is the band around the base's water [g per 100 g dry matter].
func MoistureBand(base float64) Band {
	return Band{(1 - drierShare) * base, (1 + moisterShare) * base}
}

// SweetnessBand is the band around the base's own sweetness [g sucrose-equivalent per 100 g
// batter].
func SweetnessBand(base float64) Band { return around(base, sweetnessShare, sweetnessFloor) }

// StructureBand is the band around the base's setting protein [g per 100 g].
func StructureBand(base float64) Band { return around(base, structureShare, 0) }

// Salt may differ by so much without being tasted as another batter (modelling choices): a share
// of the base's, at least saltFloor g per 100 g.
const (
	saltShare = 0.15
	saltFloor = 0.05
)

// SaltBand is the band around the base's own salt [g per 100 g of batter].
func SaltBand(base float64) Band { return around(base, saltShare, saltFloor) }

// Gas per 100 g of flour-type body [ml at 25 °C]: below is flat, above is coarse, salty and
// collapses; between, from fluffyAbove on, it is very fluffy (modelling choice).
const (
	flatBelow   = 250
	fluffyAbove = 500
	coarseAbove = 1000
)

// LiftBand is the band of gas by form. What is rolled thin, or holds up by egg alone, needs
// none.
func LiftBand(f Form) Band {
	if f == Crepe || f == Flourless {
		return Band{0, fluffyAbove}
	}
	return Band{flatBelow, coarseAbove}
}

// Acid left per 100 g batter [meq] (modelling choices): below is soapy and browns fast, up
// to mild it is neutral and tender, above tangy it is tangy and paler.
const (
	soapyBelow = -0.8
	mildAbove  = 1.8
	tangyAbove = 2.5
)

// TangBand is the band of the acid that is left.
func TangBand() Band { return Band{soapyBelow, tangyAbove} }

// TangWord names the acid that is left.
func TangWord(meq float64) string {
	switch {
	case meq < soapyBelow:
		return "soapy"
	case meq <= mildAbove:
		return "neutral"
	case meq <= tangyAbove:
		return "mild"
	}
	return "tangy"
}
