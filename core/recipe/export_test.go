package recipe

// Figures are the values of practice that testdata/rules.tsv names.
var Figures = map[string]float64{
	"pintCups":     pintCups,
	"byTable":      byTable,
	"typo":         typo,
	"longestClaim": longestClaim,
	"unmet":        unmet,
	"leastGrams":   leastGrams,
	"soon":         soon,
	"reach":        reach,
	"panReach":     panReach,
	"lookFor":      lookFor,
	"thickeningG":  thickeningG,
	"sameWithin":   sameWithin,
	"oddDose":      oddDose,
	"namedWorth":   namedWorth,
	"beside":       beside,
	"longestSide":  longestSide,
}
