package measure

import (
	"math"
	"strconv"
)

// spoonTolerance is the relative error below which a shorter wording is preferred to
// a nearer one (modelling choice: a levelled spoon is not better than that).
const spoonTolerance = 0.015

// fraction of a vessel that it comes in, with how it is printed.
type fraction struct {
	v    float64
	text string
}

// Fractions that cups and spoons come in.
var (
	cupFractions  = []fraction{{0, ""}, {1. / 4, "¼"}, {1. / 3, "⅓"}, {1. / 2, "½"}, {2. / 3, "⅔"}, {3. / 4, "¾"}}
	tbspFractions = []fraction{{0, ""}, {1. / 2, "½"}}
	tspFractions  = []fraction{{0, ""}, {1. / 8, "⅛"}, {1. / 4, "¼"}, {3. / 8, "⅜"}, {1. / 2, "½"}, {5. / 8, "⅝"}, {3. / 4, "¾"}, {7. / 8, "⅞"}}
	// quarters are the teaspoon steps that are worth measuring beside a cup.
	quarters = []fraction{{0, ""}, {1. / 4, "¼"}, {1. / 2, "½"}, {3. / 4, "¾"}}
)

// vessel is a cup or a spoon of the standard.
type vessel struct {
	ml        float64
	one, many string
	fractions []fraction
}

// scoop is a number of one vessel.
type scoop struct {
	ml    float64
	whole float64
	part  fraction
	of    vessel
}

func (s scoop) append(b []byte) []byte {
	if s.whole > 0 {
		b = strconv.AppendFloat(b, s.whole, 'f', 0, 64)
	}
	b = append(b, s.part.text...)
	b = append(b, ' ')
	if s.whole+s.part.v <= 1 {
		return append(b, s.of.one...)
	}
	return append(b, s.of.many...)
}

// around returns the scoops of the vessel just below (perhaps none) and just above ml.
func (v vessel) around(ml float64) (below, above scoop) {
	n := math.Floor(ml / v.ml)
	low, high := 0.0, math.Inf(1)
	var under, over struct {
		whole float64
		part  int
	}
	for _, k := range [2]float64{n, n + 1} {
		for i, f := range v.fractions {
			switch at := (k + f.v) * v.ml; {
			case at <= ml+1e-9 && at >= low:
				low, under.whole, under.part = at, k, i
			case at > ml+1e-9 && at < high:
				high, over.whole, over.part = at, k, i
			}
		}
	}
	return scoop{low, under.whole, v.fractions[under.part], v}, scoop{high, over.whole, v.fractions[over.part], v}
}

// phrase is a wording: a scoop, perhaps with a second one added or taken away.
type phrase struct {
	first, second scoop
	less          bool
	ml            float64
	cost          int // fewer is shorter
}

func (p phrase) String() string {
	b := make([]byte, 0, 40)
	if p.first.ml > 0 {
		b = p.first.append(b)
	}
	if p.second.ml > 0 {
		switch {
		case p.less:
			b = append(b, " less "...)
		case p.first.ml > 0:
			b = append(b, " + "...)
		}
		b = p.second.append(b)
	}
	return string(b)
}

// better tells whether a is to be preferred to b for ml: within the tolerance the shorter
// one, else the nearer one.
func better(a, b phrase, ml float64) bool {
	ea, eb := math.Abs(a.ml-ml)/ml, math.Abs(b.ml-ml)/ml
	okA, okB := ea <= spoonTolerance, eb <= spoonTolerance
	switch {
	case okA && okB && a.cost != b.cost:
		return a.cost < b.cost
	case okA != okB:
		return okA
	}
	return ea < eb-1e-12
}

// phraseFor finds the wording for ml in the cups and spoons of the standard.
func (st Standard) phraseFor(ml float64) phrase {
	cup := vessel{st.Cup, "cup", "cups", cupFractions}
	tbsp := vessel{st.Tbsp, "tbsp", "tbsp", tbspFractions}
	tsp := vessel{st.Tsp, "tsp", "tsp", tspFractions}
	// The largest vessel that is worth taking out, and what stands beside it.
	from, beside := tsp, tsp
	switch {
	case ml >= st.Cup/4*0.9:
		from, beside.fractions = cup, quarters
	case ml >= st.Tbsp*0.98:
		from = tbsp
	}
	best := phrase{ml: math.Inf(1)}
	consider := func(p phrase) {
		if p.ml > 0 && (math.IsInf(best.ml, 1) || better(p, best, ml)) {
			best = p
		}
	}
	below, above := from.around(ml)
	for _, first := range [2]scoop{below, above} {
		consider(phrase{first: first, ml: first.ml, cost: 1})
		rest := ml - first.ml
		less := rest < 0
		for _, v := range [2]vessel{beside, tbsp} {
			low, high := v.around(math.Abs(rest))
			for _, second := range [2]scoop{low, high} {
				if second.ml <= 0 || v.ml == st.Tsp && second.ml >= st.Tbsp*0.99 {
					continue
				}
				if less {
					consider(phrase{first, second, true, first.ml - second.ml, 3})
				} else {
					consider(phrase{first, second, false, first.ml + second.ml, 2})
				}
			}
		}
	}
	return best
}

// SpoonText says a mass in cups and spoons of the standard: "1¼ cups + 1 tbsp",
// "¼ cup less ¾ tsp", "⅛ tsp". Density in g/ml; without one the text is empty, as it
// is for nothing at all. Less than half of ⅛ tsp is "a pinch".
func (st Standard) SpoonText(grams, density float64) string {
	text, _ := st.Spoon(grams, density)
	return text
}

// Spoon is SpoonText together with the grams that the words really give. Spooning what was
// spooned gives the same words.
func (st Standard) Spoon(grams, density float64) (text string, given float64) {
	p, text := st.settled(grams, density)
	return text, p.ml * density
}

// settled is the wording for a mass, and what it says; nothing without a density.
func (st Standard) settled(grams, density float64) (p phrase, text string) {
	if density <= 0 || grams <= 0 || math.IsNaN(grams) || math.IsInf(grams, 0) {
		return phrase{}, ""
	}
	ml := grams / density
	if pinch := st.Tsp / PinchPerTsp; ml < pinch*1.5 {
		return phrase{ml: pinch}, "a pinch"
	}
	p = st.phraseFor(ml)
	for range 5 { // another wording may suit what this one gives; it comes to rest at once or at the next
		q := st.phraseFor(p.ml)
		if q.says(p) {
			break
		}
		p = q
	}
	return p, p.String()
}

// says tells whether two wordings are the same.
func (p phrase) says(q phrase) bool {
	same := func(a, b scoop) bool {
		return a.ml == b.ml && (a.ml <= 0 || a.of.one == b.of.one && a.part.text == b.part.text)
	}
	return p.less == q.less && same(p.first, q.first) && same(p.second, q.second)
}

// Fill is one cup or spoon that is filled level, so many times.
type Fill struct {
	Vessel string  `json:"vessel"` // cup, tbsp, tsp, pinch or each
	Size   string  `json:"size"`   // of it that is filled: 1, ½, …
	Times  int     `json:"times"`
	Grams  float64 `json:"grams"`        // of one
	Out    bool    `json:"out,omitzero"` // taken out again: "less ¾ tsp"
}

// The measures that are bought as such, for the fractions that are none.
var madeOf = map[string][]fraction{
	"⅔": {{1. / 3, "⅓"}, {1. / 3, "⅓"}}, "¾": {{1. / 2, "½"}, {1. / 4, "¼"}}, "⅜": {{1. / 4, "¼"}, {1. / 8, "⅛"}},
	"⅝": {{1. / 2, "½"}, {1. / 8, "⅛"}}, "⅞": {{1. / 2, "½"}, {1. / 4, "¼"}, {1. / 8, "⅛"}},
}

// Fills are the cups and spoons that SpoonText names, one after the other, by those that are in a
// drawer: ¾ cup is ½ and ¼. Their grams add up to what Spoon gives.
func (st Standard) Fills(grams, density float64) []Fill {
	p, text := st.settled(grams, density)
	switch {
	case text == "":
		return nil
	case p.first.of.ml == 0 && p.second.of.ml == 0:
		return []Fill{{"pinch", "1", 1, p.ml * density, false}}
	}
	out := p.first.fills(density, false)
	return append(out, p.second.fills(density, p.less)...)
}

func (s scoop) fills(density float64, out bool) []Fill {
	if s.ml <= 0 {
		return nil
	}
	var all []Fill
	if s.whole > 0 {
		all = append(all, Fill{s.of.one, "1", int(s.whole), s.of.ml * density, out})
	}
	parts := madeOf[s.part.text]
	if parts == nil && s.part.v > 0 {
		parts = []fraction{s.part}
	}
	for _, f := range parts {
		if n := len(all); n > 0 && all[n-1].Size == f.text {
			all[n-1].Times++
			continue
		}
		all = append(all, Fill{s.of.one, f.text, 1, f.v * s.of.ml * density, out})
	}
	return all
}
