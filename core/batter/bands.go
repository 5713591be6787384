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

// Width of the sweetness band around the base (modelling choice until trials say better).
const (
	sweetnessShare = 0.12
	sweetnessFloor = 0.5 // g per 100 g, so that an unsweetened base has a band at all
)

// SweetnessBand is the band around the base's own sweetness [g sucrose-equivalent or g
// sugars per 100 g batter].
func SweetnessBand(base float64) Band {
	w := max(sweetnessShare*base, sweetnessFloor)
	return Band{max(0, base-w), base + w}
}
