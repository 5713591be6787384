package sauce

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"dryBelow":     dryBelow,
	"scorched":     scorched,
	"hexoseMol":    hexoseMol,
	"coldest":      coldest,
	"hottest":      hottest,
	"clouds":       clouds,
	"tellsC":       tellsC,
	"pressedOut":   pressedOut,
	"jamFrom":      jamFrom,
	"jamSets":      jamSets,
	"jamKeeps":     jamKeeps,
	"weakJamKeeps": weakJamKeeps,
	"softLow":      softLow,
	"softHigh":     softHigh,
	"caramelFrom":  caramelFrom,
	"potHigh":      potHigh,
	"boilsHigher":  boilsHigher,
	"foamsHigher":  foamsHigher,
	"nearWhole":    nearWhole,
}
