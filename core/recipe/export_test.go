package recipe

import (
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// CueRows are the shapes of the cues as they are written.
func CueRows() (out []string) {
	for _, c := range cues {
		out = append(out, c.text)
	}
	return out
}

// CuesIn are the shapes that are heard in a sentence.
func CuesIn(sentence string) (out []string) {
	r := reader{names: indexOf(food.Reference()), kitchen: batter.DefaultKitchen()}
	for _, c := range r.listen(sentence, 0).cues() {
		out = append(out, c.text)
	}
	return out
}

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
	"little":       little, "recapReach": recapReach, "certainlyGrams": certainlyGrams, "leastInKilos": leastInKilos,
	"pendingWords": pendingWords, "questionWords": questionWords, "longestFinish": longestFinish, "imperialPintML": imperialPintML,
}
