package batter

import (
	"fmt"
	"math"

	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// wholeNear is how far from a whole egg a batch is made with the whole one; beyond it takes half of one (modelling choice).
const wholeNear = 0.25

// leastEgg is the part of an egg below which it is left out (modelling choice).
const leastEgg = 0.25

// ScaleAmount is a line's amount in a batch that is factor times as large. Eggs stay whole or halves,
// none below a quarter of one, and said tells when that moved them; other amounts keep four significant
// digits.
func ScaleAmount(l Line, factor float64) (amount float64, said string) {
	v := l.Amount * factor
	if IsEggs(l) {
		if v < leastEgg {
			return 0, fmt.Sprintf("%.2g of %s is left out: the liquid takes up its water.", v, l.Ingredient.Label())
		}
		eggs := math.Round(v)
		if math.Abs(eggs-v) > wholeNear+1e-9 || eggs < 1 {
			eggs = math.Max(0.5, math.Round(2*v)/2)
		}
		if math.Abs(eggs-v) > 0.05 {
			said = fmt.Sprintf("%.3g of %s became %s.", v, l.Ingredient.Label(), halves(eggs))
		}
		return eggs, said
	}
	return significant(v, 4), ""
}

// IsEggs tells whether a line is eggs by number.
func IsEggs(l Line) bool { return l.Unit == measure.Each && l.Ingredient.Group == food.GroupEgg }

// halves is a number of halves in words: "½", "1½", "2".
func halves(v float64) string {
	whole := math.Floor(v)
	switch {
	case v == whole:
		return fmt.Sprintf("%.0f", whole)
	case whole == 0:
		return "half of one"
	}
	return fmt.Sprintf("%.0f½", whole)
}

// significant rounds to n significant digits.
func significant(v float64, n int) float64 {
	if v == 0 {
		return 0
	}
	scale := math.Pow(10, float64(n-1)-math.Floor(math.Log10(math.Abs(v))))
	return math.Round(v*scale) / scale
}

// Scaled is the variation in a batch that is factor times as large, with what whole eggs
// moved on the way. Its reference is the batch with no egg rounded, so that the batter stays
// the one that the cook trusts.
func (v Variation) Scaled(factor float64) (Variation, []string) {
	var said []string
	out := v
	scale := func(l Line) Line {
		amount, s := ScaleAmount(l, factor)
		if s != "" {
			said = append(said, s)
		}
		l.Amount, l.LeftOut = amount, amount <= 0 && l.Amount > 0
		return l
	}
	exact := func(l Line) Line {
		l.Amount *= factor
		return l
	}
	out.Base.Lines, out.Additions, out.Reference.Additions, out.Reference.Lines = nil, nil, nil, nil
	for _, l := range v.Base.Lines {
		out.Base.Lines = append(out.Base.Lines, scale(l))
	}
	for _, l := range v.ReferenceLines() {
		out.Reference.Lines = append(out.Reference.Lines, exact(l))
	}
	for _, a := range v.Additions {
		a.Line = scale(a.Line)
		out.Additions = append(out.Additions, a)
	}
	for _, a := range v.Reference.Additions {
		a.Line = exact(a.Line)
		out.Reference.Additions = append(out.Reference.Additions, a)
	}
	return out, said
}

// ScaledExactly is so many times the variation, eggs not rounded: a part of a larger batter.
func (v Variation) ScaledExactly(factor float64) Variation {
	out, _ := v.Scaled(factor)
	for i, l := range v.Base.Lines {
		out.Base.Lines[i].Amount = l.Amount * factor
	}
	for i, a := range v.Additions {
		out.Additions[i].Amount = a.Amount * factor
	}
	out.Reference.Lines = nil
	if v.Reference.Lines != nil {
		for _, l := range v.Reference.Lines {
			l.Amount *= factor
			out.Reference.Lines = append(out.Reference.Lines, l)
		}
	}
	return out
}

// ReferenceLines are the base's lines in the bowl that targets are taken from.
func (v Variation) ReferenceLines() []Line {
	if v.Reference.Lines != nil {
		return v.Reference.Lines
	}
	return v.Base.Lines
}
