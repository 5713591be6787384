package recipe

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// once keeps everything that is told more than once as one line: said again with the same amount, named without one, counted out,
// told in parts after its sum or as a sum after its parts. Another amount of the same is asked: both, or instead?
func (r *reader) once() {
	o := onceOf{kitchen: r.kitchen, sponge: r.sponge, all: r.out.Lines, measured: map[string]bool{}, groups: map[string]bool{}}
	for _, l := range r.out.Lines {
		if l.Ingredient != nil && l.Amount > 0 {
			o.measured[where(l)] = true
			o.groups[group(l)] = true
		}
	}
	for i, l := range r.out.Lines {
		o.at = i
		if !o.known(l) {
			o.kept = append(o.kept, l)
		}
	}
	r.out.Lines = o.kept
}

// where is what a line is of, and where it goes.
func where(l Line) string { return fmt.Sprintf("%s %s %d", l.Ingredient.ID, l.Place, l.Pot) }

type onceOf struct {
	kitchen   batter.Kitchen
	all, kept []Line
	at        int
	sponge    bool
	measured  map[string]bool // with an amount, by what and where
	groups    map[string]bool
}

// plainKinds are what a cook means who says flour, sugar, milk, butter or oil and nothing else.
var plainKinds = set("plain_flour granulated_sugar milk_whole butter_unsalted vegetable_oil")

func group(l Line) string { return fmt.Sprintf("%s %s %d", l.Ingredient.Group, l.Place, l.Pot) }

// byItsGroup tells whether a line says another one again by its general name: "the flour, 250 g" of what was spelt flour.
func (o *onceOf) byItsGroup(l Line) bool {
	if !plainKinds[l.Ingredient.ID] {
		return false
	}
	at := slices.IndexFunc(o.kept, func(k Line) bool {
		return k.Ingredient != nil && k.Ingredient != l.Ingredient && k.Ingredient.Role == l.Ingredient.Role && group(k) == group(l) && k.Unit == l.Unit && k.Amount == l.Amount
	})
	if at >= 0 && l.says {
		o.kept[at].again(l)
		return true
	}
	return false
}

// known tells whether a line says nothing new.
func (o *onceOf) known(l Line) bool {
	switch {
	case l.Ingredient == nil:
		return false
	case l.Amount <= 0:
		return o.named(l)
	case l.more:
		return false
	case l.perHead && slices.ContainsFunc(o.all, func(k Line) bool { return k.Ingredient == l.Ingredient && k.Amount > 0 && !k.perHead }):
		return true
	case o.ofTheEggs(l), o.sumOf(l), o.byItsGroup(l):
		return true
	}
	at := slices.IndexFunc(o.kept, func(k Line) bool {
		return k.Ingredient == l.Ingredient && k.Amount > 0 && (k.Place == l.Place && k.Pot == l.Pot || l.recap && o.same(k, l))
	})
	return at >= 0 && o.again(at, l)
}

// named tells whether a food without an amount is told elsewhere.
func (o *onceOf) named(l Line) bool {
	had := o.measured[where(l)] || o.ofTheEggs(l) || plainKinds[l.Ingredient.ID] && o.groups[group(l)]
	o.measured[where(l)] = true
	served := l.Place != batter.InPan && l.Place != "" // of a pot that is there
	return had || served && slices.ContainsFunc(o.all, func(k Line) bool { return k.Ingredient == l.Ingredient && k.Pot > 0 && k.Amount > 0 })
}

// again keeps a line with the one that has the same food: said again, or asked.
func (o *onceOf) again(at int, l Line) bool {
	k := &o.kept[at]
	if o.same(*k, l) || o.partsOf(*k, l) {
		k.again(l)
		return true
	}
	if k.Status != Read || l.Status != Read || o.sponge && l.Place == "" {
		return false
	}
	if x, y := o.grams(*k), o.grams(l); x > 0 && y > 0 && y < little*x && (l.Unit == measure.Tsp || l.Unit == measure.Tbsp || l.Unit == measure.Pinch) { // "I toss them in a teaspoon of flour": no other amount of it
		l.doubt(k.Says()+" of it was said before. Does this go in too?", nil)
		o.kept = append(o.kept, l)
		return true
	}
	l.doubt(k.Says()+" of it was said before: both, or instead?", nil)
	k.doubt(l.Says()+" of it was said later: both, or instead?", nil)
	k.Rival, l.Rival, l.later = len(o.kept)+1, at+1, true
	o.kept = append(o.kept, l)
	return true
}

// again marks that a line was told another time.
func (l *Line) again(other Line) {
	l.Note = joined(l.Note, "said again: "+other.Text)
	l.At = append(l.At, other.At...)
	l.Again = append(l.Again, other)
}

// sameWithin is how far two measures of one amount may lie apart: a cup and its grams (modelling choice).
const sameWithin = 0.06

// little is up to which part of an amount another one of the same food is no other word for it (modelling choice).
const little = 0.05

// same tells whether two lines of one ingredient say the same amount.
func (o *onceOf) same(a, b Line) bool {
	if a.Unit == b.Unit {
		return math.Abs(a.Amount-b.Amount) < 1e-6*a.Amount && a.Fill == b.Fill
	}
	x, y := o.grams(a), o.grams(b)
	return x > 0 && y > 0 && math.Abs(x-y) <= sameWithin*x
}

func (o *onceOf) grams(l Line) float64 {
	g, err := o.kitchen.Grams(batter.Line{Ingredient: l.Ingredient, Amount: l.Amount, Unit: l.Unit, CanG: l.SizeG, CanML: l.SizeML, Fill: l.Fill})
	if err != nil {
		return 0
	}
	return g
}

// ofTheEggs tells whether whites or yolks are those of the eggs that are there.
func (o *onceOf) ofTheEggs(l Line) bool {
	return (l.Unit == measure.Each || l.Amount <= 0) && (l.Ingredient.IsEggWhite() || l.Ingredient.ID == "egg_yolk") && slices.ContainsFunc(o.kept, func(k Line) bool {
		return k.Ingredient != nil && k.Ingredient.IsWholeEgg() && k.Unit == measure.Each && k.Amount >= l.Amount
	})
}

// partsOf tells whether a line is a part of the amount before it: with what is told of it later it makes that up.
func (o *onceOf) partsOf(k, l Line) bool {
	if k.Unit != l.Unit || l.Amount >= k.Amount {
		return false
	}
	sum, n := 0.0, 0
	for _, x := range o.all {
		if x.Ingredient == l.Ingredient && x.Place == l.Place && x.Pot == l.Pot && x.Unit == l.Unit && !x.more {
			sum += x.Amount
			n++
		}
	}
	return n > 2 && math.Abs(sum-2*k.Amount) < 1e-6*k.Amount
}

// sumOf tells whether a line is the sum of several before it, of one kind of food.
func (o *onceOf) sumOf(l Line) bool {
	sum, n := 0.0, 0
	for i := len(o.kept) - 1; i >= 0; i-- {
		k := o.kept[i]
		if k.Ingredient == nil || k.Place != l.Place || k.Pot != l.Pot || k.Unit != l.Unit || !kin(k.Ingredient, l.Ingredient) {
			continue
		}
		sum += k.Amount
		if n++; n > 1 && math.Abs(sum-l.Amount) < 1e-6*l.Amount {
			return true
		}
	}
	return false
}

// kin tells whether foods are summed up under one name: flours.
func kin(a, b *food.Ingredient) bool {
	return a == b || a.Group == b.Group && (a.Group == food.GroupFlour || a.Group == food.GroupSugar)
}
