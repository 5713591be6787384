package worksheet

import (
	"math"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/lift"
	"upbeatladle/core/words"
)

// Keys of the gauges.
const (
	Thickness = "thickness"
	Moisture  = "moisture"
	Sweetness = "sweetness"
	Lifting   = "lift"
	Tang      = "tang"
	Salt      = "salt"
	Structure = "structure"
)

// Level tolerances: a gauge is level when it is no further from the base than this.
const (
	levelThickness = 0.03 // ml/g, what the solver also calls met
	levelShare     = 0.02 // of the base (modelling choice)
	levelSweetness = 0.05 // g per 100 g (modelling choice)
	levelTang      = 0.15 // meq per 100 g (modelling choice)
	levelLift      = 5    // ml per 100 g (modelling choice)
	levelSalt      = 0.02 // g per 100 g (modelling choice: a tenth of a gram in a bowl)
)

// across fills in one property of the four bowls, and where it was pulled to. The property is
// in the unit of the gauge, in which a pull of the tang counts too.
func (w *solved) across(g Gauge, of func(bowl) float64) Gauge {
	g.OfBase, g.OfAll, g.OfWeighed, g.OfMeasured = finite(of(w.plain)), finite(of(w.with)), finite(of(w.weighed)), finite(of(w.bySpoon))
	if w.include.Cups {
		g.OfWeighed = g.OfMeasured
	}
	if _, ok := w.v.Offset.Targets[batter.Hold(g.Key)]; ok && g.OfBase != nil {
		g.Target = finite(w.v.Offset.Targets.Of(batter.Hold(g.Key), *g.OfBase))
	}
	return g
}

func (w *described) gauges() {
	w.out.Gauges = Gauges{w.thickness(), w.moisture(), w.sweetness(), w.lift(), w.tang(), w.salt(), w.structure()}
	for _, g := range w.out.Gauges.All() {
		g.Verdict, g.VerdictText = brief(*g), w.named(g.VerdictText)
	}
	w.pulls()
}

// judge sets the state against a band; level says how near the goal is level. What a recipe was
// written with, or what was pulled, is never out of the band: it pleases whoever wrote or wished
// it. Bands are for bases of our own making.
func (w *solved) judge(g Gauge, band batter.Band, level float64) Gauge {
	if goal := g.Goal(); (w.v.Reference.AsWritten || g.Target != nil) && !math.IsNaN(goal) {
		band.Low, band.High = math.Min(band.Low, goal), math.Max(band.High, goal)
	}
	g.Low, g.High = &band.Low, &band.High
	switch {
	case math.IsNaN(g.After()) || math.IsNaN(g.Goal()):
		g.State = Unknown
	case math.Abs(g.After()-g.Goal()) <= level:
		g.State = Level
	case band.Contains(g.After()):
		g.State = InBand
	case g.After() > band.High:
		g.State = High
	default:
		g.State = Low
	}
	return g
}

// compare says "as X as the base" in the gauge's own words, or that it is where it was pulled.
func compare(g Gauge, same, low, high string) Gauge {
	switch {
	case g.State == Level && g.Target != nil:
		g.VerdictText = words.Upper(words.Either(g.Goal() > g.Base(), g.HighText, g.LowText)) + ", as you set it"
	case g.State == Level:
		g.VerdictText = same
	case g.State == InBand && g.Target != nil:
		g.VerdictText = words.Upper(words.Either(g.After() > g.Goal(), g.HighText, g.LowText)) + " than you set it"
	case g.State == InBand:
		g.VerdictText = "A touch " + words.Either(g.After() > g.Base(), g.HighText, g.LowText)
	case g.State == Low:
		g.VerdictText = low
	case g.State == High:
		g.VerdictText = high
	}
	return g
}

// outOf names what lies outside a band, where that is more than less or more of it.
var outOf = map[string][2]string{
	Thickness: {"too thick", "too thin"},
	Lifting:   {"too flat", "too much gas"},
	Tang:      {"soapy", "tangy"},
	Salt:      {"bland", "salty"},
}

// brief says in one to three words where a gauge stands: "level" is as the reference.
func brief(g Gauge) string {
	low, high := g.LowText, g.HighText
	if out, ok := outOf[g.Key]; ok {
		low, high = out[0], out[1]
	}
	switch g.State {
	case Level:
		return words.Either(g.Target == nil, "level", "your mark")
	case InBand:
		return "a bit " + words.Either(g.After() > g.Goal(), g.HighText, g.LowText)
	case Low:
		return low
	case High:
		return high
	}
	return "not judged"
}

func (w *solved) thickness() Gauge {
	g := w.across(Gauge{Key: Thickness, Label: "Thickness", Unit: "ml/g", LowText: "thicker", HighText: "thinner", Decimals: 2},
		func(b bowl) float64 { return b.thick.L() })
	band, ok := batter.ThicknessBand(w.v.Form)
	if !ok || math.IsNaN(g.Base()) || w.flour <= 0 {
		g.State, g.VerdictText = Unknown, "A flourless batter is not judged on thickness"
		return g
	}
	g = w.judge(g, band, levelThickness)
	if w.weighed.grated() {
		g.State, g.VerdictText = Unknown, "More pieces than batter: a cake, not judged on thickness"
		return g
	}
	form := w.v.Form.Said(1)
	return compare(g, "Pours like the base", "Too thick for "+form, "Too thin for "+form)
}

func (w *solved) moisture() Gauge {
	g := w.across(Gauge{Key: Moisture, Label: "Moisture", Unit: "g water/100 g dry", LowText: "drier", HighText: "moister", Decimals: 0}, bowl.moisture)
	band := batter.MoistureBand(g.Base())
	if _, pulled := w.v.Offset.Targets[batter.HoldThickness]; pulled && !math.IsNaN(g.After()) { // that is what a thicker batter is
		band.Low, band.High = math.Min(band.Low, g.After()), math.Max(band.High, g.After())
	}
	g = compare(w.judge(g, band, levelShare*g.Base()), "As moist as the base", "Much drier than the base", "Much moister than the base")
	if g.State == InBand && g.After() > g.Base() {
		g.VerdictText = "Moister than the base: keeps soft"
	}
	return g
}

func (w *solved) sweetness() Gauge {
	g := w.across(Gauge{Key: Sweetness, Label: "Sweetness", Unit: "g/100 g", LowText: "less sweet", HighText: "sweeter", Decimals: 1}, bowl.sweetness)
	g = w.judge(g, batter.SweetnessBand(g.Base()), math.Max(levelShare*g.Goal(), levelSweetness))
	return compare(g, "As sweet as the base", "Less sweet than the base", "Sweeter than the base")
}

func (w *solved) lift() Gauge {
	room := lift.Expansion(w.k.AltitudeM)
	g := w.across(Gauge{Key: Lifting, Label: "Lift", Unit: "ml/100 g flour", LowText: "flatter", HighText: "fluffier", Decimals: 0},
		func(b bowl) float64 { return room * b.lift.Per100() })
	if w.v.Base.Style == batter.Yeast {
		g = Gauge{Key: g.Key, Label: g.Label, Unit: g.Unit, LowText: g.LowText, HighText: g.HighText, State: Unknown}
		g.VerdictText = "Yeast makes its own gas: the proving time decides"
		return g
	}
	g = w.judge(g, batter.LiftBand(w.v.Form), math.Max(levelShare*g.Goal(), levelLift))
	if g.State == Unknown {
		g.VerdictText = "No flour to hold bubbles"
		return g
	}
	return compare(g, "Lifts like the base", "Flat: too little gas for the flour", "Too much gas: coarse, and it collapses")
}

func (w *solved) tang() Gauge {
	g := w.across(Gauge{Key: Tang, Label: "Tang", Unit: "meq/100 g", LowText: "milder", HighText: "tangier", Decimals: 1},
		func(b bowl) float64 { return b.lift.Tang(b.account.Mass) })
	g = w.judge(g, batter.TangBand(), levelTang)
	return compare(g, words.Upper(batter.TangWord(g.After()))+", as the base", "Soapy: soda with no acid left", "Tangy, and paler")
}

func (w *solved) salt() Gauge {
	g := w.across(Gauge{Key: Salt, Label: "Salt", Unit: "g/100 g", LowText: "less salty", HighText: "saltier", Decimals: 2},
		func(b bowl) float64 { return balance.SaltPer100(b.parts) })
	g = w.judge(g, batter.SaltBand(g.Base()), math.Max(levelShare*g.Base(), levelSalt))
	return compare(g, "As salty as the base", "Blander than the base", "Saltier than the base")
}

func (w *solved) structure() Gauge {
	g := w.across(Gauge{Key: Structure, Label: "Structure", Unit: "g/100 g", LowText: "weaker", HighText: "firmer", Decimals: 1},
		func(b bowl) float64 { return balance.Structure(b.parts) })
	g = w.judge(g, batter.StructureBand(g.Base()), levelShare*g.Base())
	weak := "Weaker than the base"
	if w.fails(g) {
		weak = "Weak: " + tears(w.v.Form)
	}
	return compare(g, "Holds like the base", weak, "Firmer than the base")
}
