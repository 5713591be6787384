package mixing

import (
	"errors"
	"fmt"
	"math"

	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/words"
)

// Looks is how a test came out where there is no ruler.
type Looks string

// The looks.
const (
	Mounds      Looks = "mounds"       // it stays where it was poured
	JustSpreads Looks = "just_spreads" // it runs as it should
	Runs        Looks = "runs"         // it runs off
)

// AllLooks lists them.
var AllLooks = []Looks{Mounds, JustSpreads, Runs}

const (
	looksStep = 0.3 // ml/g of L* from just spreading to a mound, or to running: a class (modelling choice)
	enoughMM  = 1.0 // a ruler tells no less (modelling choice)
)

// What a test may say; beyond is a slip of the keys (modelling choices).
const (
	LeastTestML, MostTestML = 5, 1000
	LeastTestMM, MostTestMM = 20, 500
)

// Test is how a batter poured, so many minutes after it was mixed: by ruler, or in words.
type Test struct {
	Minutes              float64
	VolumeML, DiameterMM float64 // both above zero, or Says
	Says                 Looks
}

// Correction is what a test asks of the bowl. Without Grams nothing is to be stirred in.
type Correction struct {
	YieldStress float64 // of the batter as it was tested, Pa
	TargetMM    float64 // what the volume that was tested should run to at that minute; 0 in words
	Now, After  flow.Class
	Item        Item    // what is stirred in: the base's liquid
	Grams       float64 // rounded to its step
	Most        bool    // as much as the bowl takes at once
	ThenMM      float64 // what the volume that was tested should run to with that in it; 0 in words
	Text        string
}

// Errors of a test that says nothing, told apart with errors.Is.
var (
	ErrNotJudged = errors.New("this batter is not judged on its thickness")
	ErrTooThin   = errors.New("it ran out as thin as any batter does, so a ruler says nothing here")
)

// Correct turns a test round: what the batter was like at that minute, what it should have been
// like then, with the water that is still to come, and how much of the base's liquid makes up
// for the difference. Kept is what waits in the jug [g]. Formulas: docs/maths.md section 17.
func (r Recipe) Correct(t Test, kept float64) (Correction, error) {
	if !r.Judged {
		return Correction{}, ErrNotJudged
	}
	o := order{Recipe: r}
	liquid, ok := o.main()
	if !ok { // yogurt or curd alone do not thin it: what is in every kitchen does
		liquid = Item{Label: "Milk or water", Step: 1}
	}
	short, c, err := r.short(t)
	if err != nil {
		return Correction{}, err
	}
	settled := r.Thickness.L()
	c.Now, c.After, c.Item = flow.ClassOf(settled-short), flow.ClassOf(settled-short), liquid
	wider := t.DiameterMM - c.TargetMM
	if t.Says != "" {
		wider = 0
	}
	perGram, step := o.perGram(), math.Max(liquid.Step, 0.1)
	asked := math.Max(0, short) * r.Thickness.Body / perGram
	switch {
	case t.Says == Runs, wider > narrowMM:
		c.Text = o.tooThin(t.Minutes, short, kept)
		return c, nil
	case asked < step, t.Says == "" && wider > -enoughMM:
		c.Text = "It is right. Pour."
		if t.Minutes < r.RestMin {
			c.Text = "It is right for this minute. Let it rest, then pour."
		}
		return c, nil
	}
	c.Grams = math.Round(math.Min(asked, mostSplash*r.MassG)/step) * step
	c.Most = asked > mostSplash*r.MassG
	c.After = flow.ClassOf(settled - short + c.Grams*perGram/r.Thickness.Body)
	c.Text = fmt.Sprintf("Stir in %s, with a few turns only, and test again.", FromJug(c.Grams, kept, step, liquid.Lower()))
	if c.TargetMM > 0 { // τ ∝ D⁻⁵, ln τ = c − b·(L* − 2)
		c.ThenMM = t.DiameterMM * math.Exp(c.Grams*perGram/r.Thickness.Body*r.Calibration.B/5)
	}
	if c.Most {
		c.Text += " That is as much as the bowl takes at once."
	}
	return c, nil
}

// stillDrinksMin is how long after mixing a batter that runs too far is waited for [min] (common practice, no source).
const stillDrinksMin = 10.0

// tooThin says what becomes of a batter that runs more than it should: it is waited for while its flour drinks, else so
// much of the base's own flour brings it back, once: body times (L* now over L* wanted less one). After whipped whites
// nothing is stirred in.
func (o *order) tooThin(minutes, short, kept float64) string {
	const runs = "It runs more than it should"
	if minutes < stillDrinksMin {
		return runs + ", but its flour still drinks: wait until 10 min after mixing, and test again."
	}
	jug := ""
	if kept > 0 {
		jug = " What is in the jug stays out."
	}
	var flour Item
	for _, i := range o.Items {
		if i.Role == food.RoleFlour && !i.Addition && i.IntoG > flour.IntoG {
			flour = i
		}
	}
	settled := o.Thickness.L()
	if o.Base.Whips() || flour.Ingredient == nil || flour.Ingredient.Body <= 0 {
		return runs + ": nothing is stirred in now, pour with a smaller ladle." + jug
	}
	step := math.Max(1, flour.Step)
	g := o.Thickness.Body * ((settled-math.Min(0, short))/settled - 1) / flour.Ingredient.Body
	g = math.Max(step, measure.Round(math.Min(g, mostSplash*o.MassG), step))
	return fmt.Sprintf("%s: whisk %s of %s smooth with a ladle of the batter and stir that in, once.%s", runs, words.Grams(g, step), flour.Lower(), jug)
}

// short is by how much L* [ml/g] the batter that was tested is thicker than it should be at that
// minute, below zero when it is thinner, with what is known of the correction.
func (r Recipe) short(t Test) (float64, Correction, error) {
	drunk := flow.RestShare(t.Minutes, flow.HydrationMin(r.Parts))
	should := flow.At(r.Parts, t.Minutes).L()
	if t.Says != "" {
		short := map[Looks]float64{Mounds: looksStep, Runs: -looksStep}[t.Says]
		return short, Correction{YieldStress: r.Calibration.YieldStress(should-short) * drunk}, nil
	}
	tau, ok := flow.StressOf(t.VolumeML, t.DiameterMM, r.Density)
	target, layer := flow.Spread(t.VolumeML, r.Calibration.YieldStress(should)*drunk, r.Density)
	if !ok || layer <= flow.MinLayerMM {
		return 0, Correction{}, ErrTooThin
	}
	return 5 * math.Log(target/t.DiameterMM) / r.Calibration.B, Correction{YieldStress: tau, TargetMM: target}, nil
}

// OneSplash is as much of the base's liquid as can just be seen in how the batter runs, on its scale step [g]: what a
// cook splashes in. Nothing where the batter is not judged on its thickness.
func (r Recipe) OneSplash() (float64, Item) {
	liquid, ok := r.Liquid()
	if !ok || !r.Judged || r.TestML <= 0 {
		return 0, liquid
	}
	o := order{Recipe: r}
	step := math.Max(liquid.Step, 0.1)
	d := r.SpreadAt(0)
	g := math.Max(step, math.Round(r.Splash(d-narrowMM, d, o.perGram())/step)*step)
	if math.IsNaN(g) || math.IsInf(g, 0) {
		return 0, liquid
	}
	return g, liquid
}

// SaysOf is what a cook is told of a test that says nothing.
func SaysOf(err error) string {
	switch {
	case errors.Is(err, ErrTooThin):
		return "It ran out as thin as any batter does: a ruler says nothing here. Say in words how it ran."
	}
	return "This batter is not judged on how thick it pours, so there is nothing to put right."
}
