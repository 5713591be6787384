package batch_test

import (
	"fmt"
	"testing"
	"time"

	"upbeatladle/core/batch"
	"upbeatladle/internal/rules"
)

// Values of practice, one row each.
func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(batch.Figures),
		"clock": func(t testing.TB, g rules.Given) string { // minutes outside the fridge: egg in, into the fridge, out, in, out, now
			m := begin(t, beetroot())
			grams := 200.0
			kinds := []batch.EventKind{batch.Weighed, batch.IntoFridge, batch.OutFridge, batch.IntoFridge, batch.OutFridge}
			var events []batch.Event
			for i, kind := range kinds {
				e := batch.Event{ID: fmt.Sprint(i), At: seven.Add(time.Duration(g.F(t, i)) * time.Minute), Kind: kind}
				if kind == batch.Weighed {
					e.Task, e.Grams = "weigh-egg_whole", &grams
				}
				events = append(events, e)
			}
			c := m.Fold(events).Clock
			return rules.N(c.ChillBy.Sub(seven).Minutes()) + ", " + rules.N(c.UseBy.Sub(seven).Minutes())
		},
	})
}
