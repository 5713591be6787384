package worksheet

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/words"
)

// Steps of the hand on a gauge (modelling choices): a share of the reference's figure, and for the
// tang meq per 100 g of batter.
const (
	pullStep     = 0.05
	pullTangStep = 0.5
)

// pulls says how far each gauge can be pulled; nothing where no offset would follow, or where the
// reference has none of it to be more or less of.
func (w *described) pulls() {
	if w.v.Offset.Strategy == batter.Leave {
		return
	}
	for _, g := range w.out.Gauges.All() {
		hold := batter.Hold(g.Key)
		if !slices.Contains(batter.Pulled, hold) || g.State == Unknown || math.IsNaN(g.Base()) {
			continue
		}
		p := Pull{Hold: hold, At: 1, Rest: 1, Low: batter.MinPull, High: batter.MaxPull, Step: pullStep, Figure: pullStep * g.Base()}
		if hold == batter.HoldTang {
			p = Pull{Hold: hold, Low: -batter.MaxTangPull, High: batter.MaxTangPull, Step: pullTangStep, Figure: pullTangStep}
		}
		if p.Figure <= 0 {
			continue
		}
		if at, ok := w.v.Offset.Targets[hold]; ok {
			p.At = at
		}
		p.Text = w.named(pulledText(*g, p))
		if hold == batter.HoldLift {
			p.Choices = inWords(p)
		}
		g.Pull = &p
	}
}

// What the words of the lift mean, times the reference (modelling choices).
const (
	flatterLift  = 0.8
	fluffierLift = 1.25
)

// inWords are the three words of the lift; the one on whose side the gauge stands is chosen.
func inWords(p Pull) []PullChoice {
	at := p.At - p.Rest
	still := math.Abs(at) < p.Step/100
	return []PullChoice{{fluffierLift, "fluffier", !still && at > 0}, {1, "as it is", still}, {flatterLift, "flatter and softer", !still && at < 0}}
}

// pulledText is where a gauge stands in words: "as the base", "10 % sweeter than the base".
func pulledText(g Gauge, p Pull) string {
	by := p.At - p.Rest
	if math.Abs(by) < p.Step/100 {
		return "as the base"
	}
	way := words.Either(by > 0, g.HighText, g.LowText)
	if p.Hold == batter.HoldTang {
		return words.Either(math.Abs(by) <= p.Step, "a touch ", words.Either(math.Abs(by) > 4*p.Step, "much ", "")) + way + " than the base"
	}
	return fmt.Sprintf("%.0f %% %s than the base", 100*math.Abs(by), way)
}
