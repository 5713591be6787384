package worksheet

import (
	"context"
	"math"

	"upbeatladle/core/batter"
)

// previews works the variation out under every strategy, the chosen one among them.
func (w *described) previews(ctx context.Context) error {
	for _, s := range batter.Strategies {
		other := &w.solved
		if s != w.v.Offset.Strategy {
			v := w.asked
			v.Offset.Strategy = s
			var err error
			if other, err = inGrams(v, w.k).solve(ctx, true); err != nil {
				return err
			}
		}
		lead, _ := other.weighLead(len(other.lines))
		p := Preview{
			Strategy: s, Lead: lead, Reports: len(other.solution.Reports), Count: other.pot().Count(other.v.Portion.VolumeML),
			Thickness: other.weighed.thick.L(), Sweet: other.weighed.sweetness(),
		}
		for i, l := range w.v.Base.Lines {
			p.Weigh = append(p.Weigh, Weighed{l.ID, other.weigh[i]})
		}
		if math.IsNaN(p.Thickness) {
			p.Thickness = 0
		}
		w.out.Strategies = append(w.out.Strategies, p)
	}
	return nil
}
