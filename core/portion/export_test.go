package portion

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"dustMM":     dustMM,
	"heapHigh":   heapHigh,
	"thickBody":  thickBody,
	"thickSolid": thickSolid,
	"standsProt": standsProt,
	"aside":      aside,
	"stillShare": stillShare,
	"layerShare": layerShare,
}
