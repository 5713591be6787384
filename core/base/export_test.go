package base

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"twice": twice,
	"half":  half,
}
