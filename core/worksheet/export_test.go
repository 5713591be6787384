package worksheet

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"worthS":          worthS,
	"worthC":          worthC,
	"darkTint":        darkTint,
	"sliceCover":      sliceCover,
	"frozenMostG":     frozenMostG,
	"mountainM":       mountainM,
	"byHandMM":        byHandMM,
	"spreadS":         spreadS,
	"gratedCakeShare": gratedCakeShare,
	"proved":          proved,
	"usualIronC":      usualIronC,
	"beatenEgg":       beatenEgg,
	"leastOverG":      leastOverG,
}
