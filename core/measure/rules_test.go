package measure_test

import (
	"testing"

	"upbeatladle/core/measure"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(measure.Figures),
		"ml": func(_ testing.TB, g rules.Given) string {
			return rules.N(measure.Standards[g.At(0)].Volume(measure.Unit(g.At(1))))
		},
		"g": func(t testing.TB, g rules.Given) string {
			v, err := measure.Metric.ToGrams(1, measure.Unit(g.At(0)), measure.Subject{})
			if err != nil {
				t.Fatal(err)
			}
			return rules.N(v)
		},
		"amount": func(_ testing.TB, g rules.Given) string {
			v, err := measure.ParseAmount(g.At(0))
			if err != nil {
				return "asked"
			}
			return rules.N(v)
		},
		"rounds": func(t testing.TB, g rules.Given) string { return rules.N(measure.Round(g.F(t, 0), g.F(t, 1))) },
	})
}
