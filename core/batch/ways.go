package batch

import (
	"fmt"
	"math"

	"upbeatladle/core/batter"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/words"
)

// How far the rest may follow what was poured too much, and what is worth a top-up (modelling choices).
const (
	mostScaleUp = 1.25
	leastTopUp  = 0.4 // of the slack of a line; below it, it stays as it is
)

const levelOff = "Level it off"

// AskKind is what waits for an answer.
type AskKind string

// What can wait for an answer.
const (
	AskOver  AskKind = "over"
	AskSpill AskKind = "spill"
)

// Ask is something that the cook decides; nothing is changed until then.
type Ask struct {
	Kind   AskKind  `json:"kind"`
	Task   string   `json:"task"`
	Label  string   `json:"label"`
	Grams  float64  `json:"grams"` // too much, or spilt
	Text   string   `json:"text"`
	LeftMM *float64 `json:"left_mm,omitzero"` // what it pours if it is left so
	Ways   []Way    `json:"ways"`             // the best first
}

// Way is one way out.
type Way struct {
	Choice  Choice         `json:"choice"`
	Lead    string         `json:"lead"`
	Text    string         `json:"text"`
	Grams   float64        `json:"grams,omitzero"`   // less, or more
	Percent float64        `json:"percent,omitzero"` // more of all
	Fills   []measure.Fill `json:"fills,omitzero"`   // what is spooned out
	Rows    []WayRow       `json:"rows,omitzero"`
	Count   int            `json:"count"`
	Again   int            `json:"again"` // lines to weigh again
	PoursMM *float64       `json:"pours_mm,omitzero"`
}

// WayRow is what becomes of a line.
type WayRow struct {
	Label    string  `json:"label"`
	From     float64 `json:"from_g"`
	To       float64 `json:"to_g"`
	Add      float64 `json:"add_g"` // what is between the two, as they are told
	Decimals int     `json:"decimals"`
}

// rowOf is what becomes of a line, on its scale step, so that it adds up for whoever reads it across.
func rowOf(t Task, from, to float64) WayRow {
	from = measure.Round(from, t.Step)
	return WayRow{t.Label, from, to, to - from, t.Decimals}
}

// ask is what waits for an answer; the first of it.
func (f *folding) ask(amounts map[string]float64) *Ask {
	for _, t := range f.Plan.Tasks {
		if over := f.over(t); over > 0 {
			return f.askOver(t, over, amounts)
		}
	}
	for _, s := range f.spills {
		if !s.settled {
			return f.askSpill(s, amounts)
		}
	}
	return nil
}

func (f *folding) askOver(t Task, over float64, amounts map[string]float64) *Ask {
	asked := f.asks(t)
	a := &Ask{Kind: AskOver, Task: t.ID, Label: t.Label, Grams: over, LeftMM: f.pours(amounts)}
	a.Text = fmt.Sprintf("%s over %s.", words.Grams(over, t.Step), words.Grams(asked, t.Step))
	as := func(in float64) *float64 { return f.pours(with(amounts, t.Line, in)) }
	alone := f.alone(t)
	out := Way{Choice: SpoonOut, Lead: "Spoon it out", Grams: -over, Count: f.count(), PoursMM: as(asked)}
	if i := f.item(t.Line); i.Fills != nil {
		out.Fills, _ = i.Fills(over)
	}
	onTop := t.Bowl == mixing.BowlDry || f.item(t.Line).Ingredient != nil && f.item(t.Line).Ingredient.HasCells()
	switch {
	case alone:
		out.Text = fmt.Sprintf("Only %s is in there, so what you take out is clean. The scale counts down.", words.Lower(t.Label))
	case onTop:
		out.Text = "It lies on top: take it off where you poured it. The scale counts down."
	default:
		out.Text = "It has run into the rest: what you take out takes some of that along. The scale counts down."
	}
	if p := f.done[t.ID]; p.byFills && p.extra == 0 {
		out.Lead, out.Text = levelOff, "Take the heap off again with the back of a knife."
	}
	leave := Way{Choice: Leave, Lead: "Leave it so", Text: "Nothing is weighed again.", Count: f.count(), PoursMM: a.LeftMM}
	up, canScale := f.scaledUp(t, amounts)
	switch {
	case t.Bowl == mixing.BowlJug:
		jug := Way{Choice: ToJug, Lead: "Leave it in the jug", Text: "It waits there for the test with the rest, and goes in only if the test asks for it.", Count: f.count(), PoursMM: as(asked)}
		a.Ways = []Way{out, jug}
	case alone, onTop, out.Lead == levelOff:
		a.Ways = []Way{out}
	}
	if canScale {
		a.Ways = append(a.Ways, up)
	}
	if back, ok := f.holdBack(t, amounts); ok {
		a.Ways = append([]Way{back}, append(a.Ways, leave)...)
		if a.Ways[1].Choice != SpoonOut {
			a.Ways = append(a.Ways, out)
		}
		return a
	}
	if len(a.Ways) == 0 || a.Ways[0].Choice != SpoonOut { // it is mixed already: leaving or scaling touches less
		a.Ways = append(a.Ways, leave, out)
		return a
	}
	a.Ways = append(a.Ways, leave)
	return a
}

// backTries is how often the liquid that makes up for an addition is halved in on: to well under a scale's step.
const backTries = 40

// holdBack is how much less of the base's liquid makes up for an addition that was poured too much, while that liquid is
// still to weigh: the batter then runs as it was planned.
func (f *folding) holdBack(t Task, amounts map[string]float64) (Way, bool) {
	liquid, ok := f.bowl.Liquid()
	if !ok || !f.bowl.Judged || !f.item(t.Line).Addition {
		return Way{}, false
	}
	l, ok := f.Plan.task("weigh-" + liquid.ID)
	if !ok || f.done[l.ID] == nil || f.done[l.ID].at != ToCome || f.done[l.ID].in > 0 || f.done[l.ID].less > 0 {
		return Way{}, false
	}
	runs := func(in, of float64) float64 {
		return f.bowl.With(with(with(amounts, t.Line, in), liquid.ID, of)).Thickness.L()
	}
	asked := f.asks(l)
	want := runs(f.asks(t), asked)
	kept := 0.0
	if line, g := f.jug(); line == liquid.ID {
		kept = g
	}
	low, high := math.Min(asked, kept), asked
	if !(runs(f.done[t.ID].in, low) < want && want < runs(f.done[t.ID].in, high)) {
		return Way{}, false
	}
	for range backTries {
		if mid := (low + high) / 2; runs(f.done[t.ID].in, mid) < want {
			low = mid
		} else {
			high = mid
		}
	}
	less := measure.Round(asked-high, l.Step)
	if less < l.Step {
		return Way{}, false
	}
	return Way{
		Choice: HoldBack, Lead: "Hold back more " + liquid.Lower(), Grams: -less, Count: f.count(),
		Text: fmt.Sprintf("It is still to weigh: take %s instead of %s.", words.Grams(asked-less, l.Step), words.Grams(asked, l.Step)),
		Rows: []WayRow{rowOf(l, asked, asked-less)}, PoursMM: f.pours(with(with(amounts, t.Line, f.done[t.ID].in), liquid.ID, asked-less)),
	}, true
}

// with is amounts with another one of a line.
func with(amounts map[string]float64, line string, grams float64) map[string]float64 {
	out := make(map[string]float64, len(amounts))
	for k, v := range amounts {
		out[k] = v
	}
	out[line] = grams
	return out
}

// alone tells whether nothing else is in a task's bowl.
func (f *folding) alone(t Task) bool {
	for _, other := range f.Plan.Tasks {
		if other.Bowl == t.Bowl && other.ID != t.ID && f.done[other.ID].in > 0 {
			return false
		}
	}
	return true
}

// scaledUp is what becomes of the rest when all follows what is in of a task.
func (f *folding) scaledUp(t Task, amounts map[string]float64) (Way, bool) {
	factor := f.factorFor(t)
	if t.Grams <= 0 || factor <= f.factor || factor > mostScaleUp {
		return Way{}, false
	}
	w := Way{Choice: ScaleUp, Lead: "Scale up the rest", Percent: 100 * (factor/f.factor - 1), Count: f.Plan.countAt(factor), Text: "All but the eggs follow; the liquid takes up their water."}
	then := with(amounts, t.Line, f.done[t.ID].in)
	for _, other := range f.Plan.Tasks {
		p := f.done[other.ID]
		if other.Kind != Weigh || other.Counted || other.ID == t.ID || p.at == LeftOut {
			continue
		}
		from, to := f.asks(other), f.asksAt(other, factor)
		if p.at == In {
			if from = p.in; to-from < f.worth(other) {
				continue
			}
			w.Again++
		}
		then[other.Line] = to
		if to != from {
			w.Rows = append(w.Rows, rowOf(other, from, to))
		}
	}
	if !f.hasCounted() {
		w.Text = "All the rest follows."
	}
	w.PoursMM = f.pours(then)
	return w, true
}

// factorFor is how many times the plan what is in of a task makes; some of a liquid stands in for eggs.
func (f *folding) factorFor(t Task) float64 {
	water := f.eggWater(t)
	return (f.done[t.ID].in + water) / (t.Grams + water)
}

func (f *folding) hasCounted() bool {
	for _, t := range f.Plan.Tasks {
		if t.Counted {
			return true
		}
	}
	return false
}

// worth is the least that is worth topping up of a line.
func (f *folding) worth(t Task) float64 { return math.Max(t.Step, leastTopUp*t.Slack) }

// choose takes one of the ways.
func (f *folding) choose(t Task, p *progress, e Event, tell func(string, ...any)) {
	if f.over(t) <= 0 {
		return
	}
	switch e.Choice {
	case SpoonOut:
		over := f.over(t)
		if p.byFills { // the spoon that was too much is out again
			p.in, p.extra, p.heap = p.in-over, 0, 0
		} else {
			p.at, p.spooning = ToCome, true
		}
		tell("spooning %s out", words.Lower(t.Label))
	case HoldBack:
		back, ok := f.holdBack(t, f.amounts())
		if !ok {
			return
		}
		liquid, _ := f.bowl.Liquid()
		f.done["weigh-"+liquid.ID].less = -back.Grams
		p.settled = true
		tell("%s held back for %s", words.Grams(-back.Grams, 1), words.Lower(t.Label))
	case ToJug:
		if t.Bowl != mixing.BowlJug {
			return
		}
		f.more += p.in - f.asks(t)
		p.settled = true
		tell("%s left in the jug", words.Lower(t.Label))
	case ScaleUp:
		if factor := f.factorFor(t); factor > f.factor && factor <= mostScaleUp {
			f.factor = factor
			p.settled = true
			for _, other := range f.Plan.Tasks {
				if q := f.done[other.ID]; other.Kind == Weigh && !other.Counted && other.ID != t.ID && q.at == In && f.asks(other)-q.in >= f.worth(other) {
					q.at = More
				}
			}
			tell("scaling up for %s", words.Lower(t.Label))
		}
	case Leave:
		p.settled = true
		tell("%s, left so", words.Lower(t.Label))
	}
}

// spill takes what was spilt out of a bowl, of each line its share: what lies in a bowl lies there mixed.
func (f *folding) spill(e Event) {
	var in float64
	for _, t := range f.Plan.Tasks {
		if t.Bowl == e.Bowl && t.Kind == Weigh {
			in += f.done[t.ID].in
		}
	}
	lost := math.Min(*e.Grams, in)
	if lost <= 0 {
		return
	}
	for _, t := range f.Plan.Tasks {
		if p := f.done[t.ID]; t.Bowl == e.Bowl && t.Kind == Weigh {
			p.in *= 1 - lost/in
		}
	}
	f.spills = append(f.spills, spill{id: spillPrefix + e.ID, bowl: e.Bowl, grams: lost})
}

func (f *folding) askSpill(s spill, amounts map[string]float64) *Ask {
	a := &Ask{Kind: AskSpill, Task: s.id, Grams: s.grams, LeftMM: f.pours(amounts)}
	for _, b := range f.Plan.Bowls {
		if b.Key == s.bowl {
			a.Label = words.Upper(b.Name)
			a.Text = fmt.Sprintf("About %s of the %s is gone.", words.Grams(s.grams, 1), b.Name)
		}
	}
	up := Way{Choice: TopUp, Lead: "Weigh it in again", Text: "Each line's share of what is gone.", Count: f.count()}
	then := amounts
	for _, t := range f.Plan.Tasks {
		if p := f.done[t.ID]; t.Bowl == s.bowl && t.Kind == Weigh && p.at == In && f.asks(t)-p.in >= t.Step/2 {
			up.Rows = append(up.Rows, rowOf(t, p.in, f.asks(t)))
			up.Again++
			then = with(then, t.Line, f.asks(t))
		}
	}
	up.PoursMM = f.pours(then)
	leave := Way{Choice: Leave, Lead: "Go on with what there is", Text: "Nothing is weighed again; it makes a little less.", PoursMM: a.LeftMM, Count: f.fewer(amounts)}
	a.Ways = []Way{up, leave}
	return a
}

// fewer is how many portions a bowl makes by its mass.
func (f *folding) fewer(amounts map[string]float64) int {
	if f.bowl.MassG <= 0 {
		return f.count()
	}
	share := math.Min(1, f.bowl.With(amounts).MassG/f.bowl.MassG/f.factor)
	return int(math.Floor(float64(f.Plan.Count)*f.factor*share + 1e-9))
}

func (f *folding) settleSpill(e Event, tell func(string, ...any)) {
	for i := range f.spills {
		s := &f.spills[i]
		if s.id != e.Task || s.settled || e.Choice != TopUp && e.Choice != Leave {
			continue
		}
		s.settled = true
		for _, t := range f.Plan.Tasks {
			p := f.done[t.ID]
			if t.Bowl != s.bowl || t.Kind != Weigh || p.at != In {
				continue
			}
			if e.Choice == TopUp && !t.Counted && f.asks(t)-p.in >= t.Step/2 {
				p.at = More
			}
		}
		tell("%s", words.Either(e.Choice == TopUp, "topping up the spill", "the spill, left so"))
	}
}

// test works out what a test asks for. The bowl should run as the plan does at that minute; how much
// that takes goes by what is really in it.
func (f *folding) test(e Event) {
	f.tests++
	a := &Advice{Looks: mixing.Looks(e.Says), WasMM: e.DiameterMM}
	f.advice = a
	if f.mixed != nil {
		a.Minutes = math.Max(0, e.At.Sub(*f.mixed).Minutes())
	}
	t := mixing.Test{Minutes: a.Minutes, Says: mixing.Looks(e.Says)}
	if e.VolumeML != nil && e.DiameterMM != nil {
		t.VolumeML, t.DiameterMM = *e.VolumeML, *e.DiameterMM
	}
	_, kept := f.jug()
	kept = math.Max(0, kept-f.splash)
	share := 1.0
	if f.bowl.MassG > 0 {
		share = f.bowl.With(f.amounts()).MassG / f.bowl.MassG
	}
	c, err := f.bowl.Times(share).Correct(t, kept)
	if err != nil {
		a.Text = mixing.SaysOf(err)
		return
	}
	a.Text, a.Stress, a.Now, a.After = c.Text, c.YieldStress, c.Now, c.After
	if c.TargetMM > 0 {
		a.TargetMM = &c.TargetMM
	}
	if c.Grams > 0 {
		a.Grams, a.Label, a.FromJug = c.Grams, c.Item.Label, kept >= c.Grams
		switch {
		case a.FromJug:
			a.From = "from the jug"
		case kept > 0:
			a.From = fmt.Sprintf("the %s in the jug, then open the bottle: %s", words.Grams(kept, 1), words.Grams(c.Grams-kept, 1))
		}
		if c.Item.Fills != nil {
			a.Fills, a.Measure = c.Item.Fills(c.Grams)
		}
		if c.ThenMM > 0 {
			a.ThenMM = &c.ThenMM
		}
	}
}

// What is worth taking over into a variation (modelling choice: what a ruler tells).
const offerMM = 2.0

// offer is what a batch that is made says of its variation: how thick it was really wanted, as a target, and
// what was dosed to taste. Nil when there is nothing to say.
func (f *folding) offer(amounts map[string]float64) *Offer {
	var o Offer
	for _, t := range f.Plan.Tasks {
		if p := f.done[t.ID]; p.taste && t.Grams > 0 && math.Abs(p.in-f.asks(t)) >= t.Step {
			o.Doses = append(o.Doses, Dose{Line: t.Line, Label: t.Label, Planned: f.asks(t), Grams: p.in})
		}
	}
	f.thicker(&o, amounts)
	if o.Thickness == nil && o.Doses == nil {
		return nil
	}
	return &o
}

func (f *folding) thicker(o *Offer, amounts map[string]float64) {
	liquid, ok := f.bowl.Liquid()
	if !ok || !f.bowl.Judged {
		return
	}
	t, _ := f.Plan.task("weigh-" + liquid.ID)
	planned := with(amounts, liquid.ID, f.asks(t))
	made := f.poured(amounts)
	as, is := f.bowl.With(planned), f.bowl.With(made)
	was, now := as.Thickness.L(), is.Thickness.L()
	if math.IsNaN(was) || math.IsNaN(now) || was <= 0 || math.Abs(is.SpreadAt(0)-as.SpreadAt(0)) < offerMM {
		return
	}
	more := made[liquid.ID] - planned[liquid.ID]
	to := math.Max(batter.MinPull, math.Min(batter.MaxPull, f.target*now/was))
	o.Text = fmt.Sprintf("%s %s %s went in than was planned.", words.Grams(math.Abs(more), liquid.Step), words.Either(more > 0, "more", "less"), liquid.Lower())
	o.Thickness = &to
}

// poured are amounts as they went into the bowl: without what stayed in the jug, with what was stirred in.
func (f *folding) poured(amounts map[string]float64) map[string]float64 {
	liquid, ok := f.bowl.Liquid()
	if !ok {
		return amounts
	}
	line, kept := f.jug()
	if line != liquid.ID {
		kept = 0
	}
	return with(amounts, liquid.ID, math.Max(0, amounts[liquid.ID]-kept+f.splash))
}
