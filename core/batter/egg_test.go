package batter_test

import (
	"testing"

	"upbeatladle/core/batter"
	"upbeatladle/internal/evidence"
)

// What is in an egg of each US size: the national table's edible weights.
func TestEggSizes(t *testing.T) {
	edible := map[string]float64{"medium": 44, "large": 50, "extra large": 56, "jumbo": 63}
	for _, e := range batter.EggSizes {
		if e.Where == "US, Canada" {
			evidence.Check(t, evidence.Claim{What: e.Name + " US egg, edible", Unit: "g", Kind: evidence.Memory, Source: "USDA SR Legacy", Tie: evidence.Fitted, Outside: edible[e.Name], Ours: e.EdibleG(), Tolerance: 1})
		}
	}
}
