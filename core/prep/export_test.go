package prep

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"acidGPerMeq":  acidGPerMeq,
	"solubleAsh":   solubleAsh,
	"correctionAt": correctionAt,
	"maxSampleC":   maxSampleC,
	"leafy":        leafy,
	"pureWater":    pureWater,
	"reducible":    reducible,
	"squeezable":   squeezable,
	"steeps":       steeps,
	"nutFat":       nutFat,
	"nutFibre":     nutFibre,
}
