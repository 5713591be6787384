package food

// Values are the values of practice that testdata/rules.tsv names.
var Values = map[string]float64{
	"gamma":         gamma,
	"darkest":       darkest,
	"sliceWidth":    sliceWidth,
	"sliceFlat":     sliceFlat,
	"ashBesideSalt": ashBesideSalt,
	"bodyPerFibre":  bodyPerFibre,
	"pureeBodyCap":  pureeBodyCap,
	"energyFloor":   energyFloor,
}
