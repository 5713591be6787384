package griddle

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"leastPlace": leastPlace,
	"shortest":   shortest,
	"MostPieces": MostPieces,
	"sameHeatC":  sameHeatC,
	"sawWorthS":  sawWorthS,
}
