package batch

import (
	"fmt"
	"math"

	"upbeatladle/core/words"
)

// Glance is what a list tells of a batch.
type Glance struct {
	Count, Weighed, ToWeigh int
	Made                    bool
	Doing                   string // in a few words; empty when all is done
	Clock                   Clock
}

// Glance folds events over a plan alone, without working its bowl out: a list of a hundred bowls costs what a list costs. What
// only the bowl tells is left out: a step whose amounts moved since it was planned is told by its number.
func (p Plan) Glance(events []Event, common *Clock) Glance {
	m := Making{Plan: p}
	f := m.after(events).Fold()
	g := Glance{Count: f.count(), Made: f.made, Clock: f.clocked(common)}
	now, step, steps := f.now(), 0, 0
	moved := false
	amounts := f.amounts()
	for _, t := range p.Tasks {
		if t.Kind != Weigh {
			steps++
			if t.ID == now {
				step = steps
			}
			continue
		}
		g.ToWeigh++
		if at := f.done[t.ID].at; at == In || at == LeftOut {
			g.Weighed++
		}
		moved = moved || math.Abs(amounts[t.Line]-t.Grams) > t.Slack
	}
	if t, ok := p.task(now); ok {
		if g.Doing = t.doing(t.Text); moved && t.Kind == Do {
			g.Doing = fmt.Sprintf("step %d of %d", step, steps)
		}
	}
	return g
}

// doing is a task in a few words, its step told so.
func (t Task) doing(text string) string {
	switch t.Kind {
	case Weigh:
		return "weighing " + words.Lower(t.Label)
	case Rest:
		return "resting"
	case Test:
		return "the test"
	}
	return short(text)
}
