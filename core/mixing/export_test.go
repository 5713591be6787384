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
	"settles":    settles,
}

// TooThin is what is said of a batter that runs more than it should, for testdata/rules.tsv.
func TooThin(r Recipe, minutes, short, kept float64) string {
	return (&order{Recipe: r}).tooThin(minutes, short, kept)
}
