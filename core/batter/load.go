package batter

// Ceilings of the volume fraction of pieces in a portion by form (common practice, modelling
// choice): above, a pancake tears and a waffle leaks. A crêpe takes fine pieces only.
var loadCeilings = map[Form]float64{
	Pancake: 0.25, DropScone: 0.25, Flourless: 0.25, Waffle: 0.15, Crepe: 0.10,
}

// LoadCeiling is the volume fraction of pieces that a portion of the form carries.
func LoadCeiling(f Form) float64 { return loadCeilings[f] }

// CrepePieceMM is the largest piece in mm that a crêpe takes (common practice, no source).
const CrepePieceMM = 4.0

// Sugar in g per 100 g from which a dry piece scorches on an iron (modelling choice).
const ScorchSugar = 30.0
