package mixing

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"looksStep":  looksStep,
	"enoughMM":   enoughMM,
	"steepMin":   steepMin,
	"leastEach":  leastEach,
	"leastKept":  leastKept,
	"doubtShare": doubtShare,
	"leastDry":   leastDry,
	"narrowMM":   narrowMM,
	"soonRest":   soonRest,
}
