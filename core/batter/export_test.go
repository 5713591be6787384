package batter

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"fineBody":   fineBody,
	"leastSwap":  leastSwap,
	"tartLimit":  tartLimit,
	"creamy":     creamy,
	"mildLimit":  mildLimit,
	"leastWet":   leastWet,
	"mostSalty":  mostSalty,
	"OwnWithin":  OwnWithin,
	"OwnWithinK": OwnWithinK,
	"wholeNear":  wholeNear,
	"leastEgg":   leastEgg,
	"heatLow":    HeatReach.Low,
	"heatHigh":   HeatReach.High,
	"sideLow":    SideReach.Low,
	"sideHigh":   SideReach.High,
	"fatLow":     FatReach.Low,
	"fatHigh":    FatReach.High,
}
