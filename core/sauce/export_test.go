package sauce

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"scorched":   scorched,
	"hexoseMol":  hexoseMol,
	"coldest":    coldest,
	"hottest":    hottest,
	"clouds":     clouds,
	"tellsC":     tellsC,
	"pressedOut": pressedOut,
}
