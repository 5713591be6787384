package heat

import (
	"fmt"
	"testing"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/internal/rules"
)

// What the model stops at, what practice says of irons and crêpes, what a verdict moves: one row a value.
func TestRules(t *testing.T) {
	span := func(s Span) string { return rules.N(s.Low) + " to " + rules.N(s.High) }
	rules.Check(t, map[string]rules.Do{
		"value": func(t testing.TB, g rules.Given) string {
			v, ok := map[string]float64{
				"egg": eggsSetC, "flip": flipShare, "set": setBareC, "set by sugar": setPerPct,
				"first waits": waitDose, "first at most": waitMore, "first at most s": waitMoreS, "second waits": secondDose, "second late": slowSecond, "raw": rawSecond,
				"iron waits": ironDose, "given up": mostSideS,
				"careful contact": carefulContact, "careful steam": carefulSteam, "careful pores": carefulPores, "careful K": carefulK,
				"wet": contactWet, "dry": contactDry, "second face": secondFace, "iron face": ironFace, "returns": plateReturnS, "iron returns": ironReturnS,
				"steam": steamStays, "depth": steamDepth, "pores": poreShare, "rises from": riseFromC, "gas": GasOnPlate,
				"slice": sliceTimes, "slice less": sliceLessK, "soft": SoftTo, "hard": HardFrom, "on top": onTopFrom, "on top contact": onTopContact, "thaws": frozenC,
				"gummy from": shedFrom, "gummy water": shedWater, "gummy more": shedMore, "gummy share": gummyShare,
				"hot start": hotStartK, "hot for": HotStartS, "clock": timeStep, "coolest": coolestPlate, "hottest": hottestPlate,
				"first least": firstLeast, "first most": firstMost, "second least": secondLeast, "second most": secondMost,
				"plate up": PlateUpMin, "iron up": IronUpMin, "crepe": CrepeC, "crepe low": CrepeLowC, "crepe high": CrepeHighC, "unjudged": UnjudgedMM, "thickest": ThickestMM,
				"butter burns": ButterBurnsC, "dances": dancesC, "bubbles": littleGas, "most shift": mostShiftC, "least contact": leastContact,
			}[g.At(0)]
			if !ok {
				t.Fatalf("nobody knows %q", g.At(0))
			}
			return rules.N(v)
		},
		"sets": func(t testing.TB, g rules.Given) string {
			return rules.N(Matter{Sugars: g.F(t, 0), Water: 1 - g.F(t, 0)}.SetC())
		},
		"browns": func(t testing.TB, g rules.Given) string {
			return rules.N(Matter{Reducing: g.F(t, 0), Sucrose: g.F(t, 1), Protein: g.F(t, 2)}.Browns())
		},
		"dose":    func(t testing.TB, g rules.Given) string { return rules.N(browning(1, g.F(t, 0))) },
		"shade":   func(t testing.TB, g rules.Given) string { return string(ColourOf(g.F(t, 0))) },
		"wished":  func(_ testing.TB, g rules.Given) string { return rules.N(wished[batter.Colour(g.At(0))]) },
		"softens": func(t testing.TB, g rules.Given) string { return rules.N(softens(g.F(t, 0))) },
		"iron":    func(t testing.TB, g rules.Given) string { return span(IronTimes(g.F(t, 0))) },
		"crepe": func(t testing.TB, g rules.Given) string {
			first, second := CrepeTimes(g.F(t, 0))
			return span(first) + ", " + span(second)
		},
		"turns": func(t testing.TB, g rules.Given) string {
			return string(TurnOf(g.At(0) == "weak").For(g.F(t, 1)))
		},
		"learns": func(_ testing.TB, g rules.Given) string {
			shift, contact := Learn(Verdict(g.At(0)), 0, 1)
			return fmt.Sprintf("%+g K, %g", shift, contact)
		},
		"says": func(t testing.TB, g rules.Given) string {
			return DialMap{Dial: batter.Dial(g.At(0))}.Say(g.F(t, 1))
		},
		"greases": func(t testing.TB, g rules.Given) string {
			return rules.N(Grease(batter.Fat(g.At(0)), batter.When(g.At(1)), batter.Form(g.At(2)), 100, g.At(3) == "lacy", 1, 4))
		},
		"fat": func(_ testing.TB, g rules.Given) string {
			f, ok := ReadFat(g.At(0))
			if !ok {
				return "-"
			}
			return string(f)
		},
		"boils": func(t testing.TB, g rules.Given) string { return rules.N(BoilsAt(g.F(t, 0))) },
		"slice": func(_ testing.TB, g rules.Given) string {
			return rules.N(SliceOf(food.Reference().ByID(g.At(0)), 40, 20).ThickMM)
		},
	})
}
