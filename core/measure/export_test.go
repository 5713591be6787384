package measure

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"spoonTolerance": spoonTolerance,
	"heaped":         heapedHolds,
	"rounded":        roundedHolds,
	"scant":          scantHolds,
}
