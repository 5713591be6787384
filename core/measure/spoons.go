package measure

import (
	"fmt"
	"math"
	"strings"
)

// spoonTolerance is the relative error below which a shorter wording is preferred to
// a nearer one (modelling choice: a levelled spoon is not better than that).
const spoonTolerance = 0.015

// fractions that cups and spoons come in, with how they are printed.
var (
	cupFractions  = []fraction{{0, ""}, {1. / 4, "¼"}, {1. / 3, "⅓"}, {1. / 2, "½"}, {2. / 3, "⅔"}, {3. / 4, "¾"}}
	tbspFractions = []fraction{{0, ""}, {1. / 2, "½"}}
	tspFractions  = []fraction{{0, ""}, {1. / 8, "⅛"}, {1. / 4, "¼"}, {3. / 8, "⅜"}, {1. / 2, "½"}, {5. / 8, "⅝"}, {3. / 4, "¾"}, {7. / 8, "⅞"}}
)

// quarters are the teaspoon steps that are worth measuring beside a cup.
var quarters = []fraction{{0, ""}, {1. / 4, "¼"}, {1. / 2, "½"}, {3. / 4, "¾"}}

type fraction struct {
	v    float64
	text string
}

// term of a spoon text: a number of one vessel.
type spoonTerm struct {
	ml   float64
	text string
}

// nearestTerms returns the terms of a vessel just below and just above ml.
func nearestTerms(ml, vessel float64, fr []fraction, one, many string) []spoonTerm {
	n := math.Floor(ml / vessel)
	var below, above spoonTerm
	above.ml = math.Inf(1)
	for _, k := range []float64{n, n + 1} {
		for _, f := range fr {
			t := spoonTerm{ml: (k + f.v) * vessel}
			word := many
			if k+f.v <= 1 {
				word = one
			}
			switch {
			case k == 0 && f.v == 0:
			case k == 0:
				t.text = f.text + " " + word
			default:
				t.text = fmt.Sprintf("%.0f%s %s", k, f.text, word)
			}
			if t.ml <= ml+1e-9 && t.ml >= below.ml {
				below = t
			}
			if t.ml > ml+1e-9 && t.ml < above.ml {
				above = t
			}
		}
	}
	return []spoonTerm{below, above}
}

// SpoonText says a mass in cups and spoons of the standard: "1¼ cups + 1 tbsp",
// "¼ cup less ¾ tsp", "⅛ tsp". Density in g/ml; without one the text is empty, as it
// is for nothing at all. Less than half of ⅛ tsp is "a pinch".
func (st Standard) SpoonText(grams, density float64) string {
	text, _ := st.Spoon(grams, density)
	return text
}

// Spoon is SpoonText together with the grams that the words really give.
func (st Standard) Spoon(grams, density float64) (text string, given float64) {
	if density <= 0 || grams <= 0 || math.IsNaN(grams) || math.IsInf(grams, 0) {
		return "", 0
	}
	ml := grams / density
	if pinch := st.Tsp / PinchPerTsp; ml < pinch*1.5 {
		return "a pinch", pinch * density
	}
	// What to start from, largest vessel that is worth taking out first.
	var starts []spoonTerm
	beside := tspFractions // what a second, smaller term is measured with
	switch {
	case ml >= st.Cup/4*0.9:
		starts = nearestTerms(ml, st.Cup, cupFractions, "cup", "cups")
		beside = quarters
	case ml >= st.Tbsp*0.98:
		starts = nearestTerms(ml, st.Tbsp, tbspFractions, "tbsp", "tbsp")
	default:
		starts = nearestTerms(ml, st.Tsp, tspFractions, "tsp", "tsp")
	}
	type say struct {
		text string
		ml   float64
		cost int
	}
	var best *say
	consider := func(text string, got float64, cost int) {
		if got <= 0 {
			return
		}
		c := &say{strings.TrimSpace(text), got, cost}
		if best == nil {
			best = c
			return
		}
		eb, ec := math.Abs(best.ml-ml)/ml, math.Abs(got-ml)/ml
		okB, okC := eb <= spoonTolerance, ec <= spoonTolerance
		switch {
		case okB && okC && cost != best.cost:
			if cost < best.cost {
				best = c
			}
		case okC != okB:
			if okC {
				best = c
			}
		case ec < eb-1e-12:
			best = c
		}
	}
	for _, s := range starts {
		if math.IsInf(s.ml, 1) {
			continue
		}
		consider(s.text, s.ml, 1)
		rest := ml - s.ml
		joint := " + "
		if rest < 0 {
			rest, joint = -rest, " less "
		}
		if s.ml == 0 {
			joint = ""
		}
		small := nearestTerms(rest, st.Tsp, beside, "tsp", "tsp")
		small = append(small, nearestTerms(rest, st.Tbsp, tbspFractions, "tbsp", "tbsp")...)
		for _, t := range small {
			if t.ml <= 0 || math.IsInf(t.ml, 1) || (strings.HasSuffix(t.text, "tsp") && t.ml >= st.Tbsp*0.99) {
				continue
			}
			cost := 2
			if joint == " less " {
				cost = 3
			}
			if joint == " less " {
				consider(s.text+joint+t.text, s.ml-t.ml, cost)
			} else {
				consider(s.text+joint+t.text, s.ml+t.ml, cost)
			}
		}
	}
	return best.text, best.ml * density
}
