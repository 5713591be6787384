package batter

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"unicode/utf8"

	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/prep"
)

// Bounds of a variation (docs/formats/README.md).
const (
	MaxLines     = 200
	MaxLineG     = 100_000 // g a line
	MinLineG     = 1e-6    // g a line that has anything at all
	MaxName      = 200     // characters
	MinPortionML = 5
	MaxPortionML = 1000
)

// Part is which part of a variation, or of a question about one, a problem is about.
type Part string

// The parts.
const (
	OfWhole     Part = ""
	OfBase      Part = "base"
	OfLine      Part = "line"      // of the base
	OfAddition  Part = "addition"  // in the bowl
	OfReference Part = "reference" // addition of the recipe as written
	OfOwnLine   Part = "own_line"  // of the base, where another stands in for it
	OfTargets   Part = "targets"
	OfPortion   Part = "portion"
	OfWish      Part = "wish" // what is asked beside the variation
)

// Field is what of a variation a problem is about: a part, which one of several, and what of it.
// What documents call it is theirs.
type Field struct {
	Part  Part
	Index int // of a line or an addition
	Name  string
}

// Problem is one thing in a variation that cannot be worked with.
type Problem struct {
	Field   Field
	Code    string
	Message string // a sentence a cook understands
}

// Problems is the error of everything that checks a variation.
type Problems []Problem

// Error joins the sentences.
func (p Problems) Error() string {
	s := make([]string, len(p))
	for i, q := range p {
		s[i] = q.Message
	}
	return strings.Join(s, "\n")
}

// OrNil returns the problems as an error, or nil when there are none.
func (p Problems) OrNil() error {
	if len(p) == 0 {
		return nil
	}
	return p
}

// Add notes a problem.
func (p *Problems) Add(f Field, code, format string, args ...any) {
	*p = append(*p, Problem{f, code, fmt.Sprintf(format, args...)})
}

// of names something of a field's part.
func (f Field) of(name string) Field {
	f.Name = name
	return f
}

// Check returns what is wrong with a base on its own.
func (b Base) Check(f Form, k Kitchen) Problems {
	var p Problems
	p.name(Field{Part: OfBase, Name: "name"}, b.Name)
	if len(b.Lines) == 0 {
		p.Add(Field{Part: OfBase, Name: "lines"}, "empty", "The base has nothing in it. Give it at least flour and a liquid.")
		return p
	}
	var flour, mass float64
	for i, l := range b.Lines {
		at := Field{Part: OfLine, Index: i}
		if l.Amount <= 0 && !bad(l.Amount) && !l.LeftOut {
			p.Add(at.of("amount"), "not_positive", "%s needs an amount above zero; take the line out if there is none.", l.Ingredient.Name)
			continue
		}
		g, ok := p.line(at, l, k)
		if !ok {
			continue
		}
		mass += g
		if l.Role == food.RoleFlour {
			flour += g
		}
	}
	if len(p) == 0 && flour <= 0 && f != Flourless {
		p.Add(Field{Part: OfBase, Name: "lines"}, "no_flour", "There is no flour in this base. Add some, or choose the form flourless.")
	}
	return p
}

// Check returns what is wrong with a variation, or nil.
func (v Variation) Check(k Kitchen) Problems {
	var p Problems
	p.name(Field{Name: "name"}, v.Name)
	if n := len(v.Base.Lines) + len(v.Additions); n > MaxLines {
		p.Add(Field{Name: "additions"}, "too_many", "%d lines and additions are too many; %d is the most.", n, MaxLines)
		return p
	}
	p = append(p, v.Base.Check(v.Form, k)...)
	for i, a := range v.Additions {
		at := Field{Part: OfAddition, Index: i}
		if g, ok := p.line(at, a.Line, k); ok {
			p.prepared(k.Shelf, at, a, g)
		}
	}
	for i, l := range v.Reference.Lines {
		p.line(Field{Part: OfOwnLine, Index: i}, l, k)
	}
	for i, a := range v.Reference.Additions {
		at := Field{Part: OfReference, Index: i}
		if g, ok := p.line(at, a.Line, k); ok {
			p.prepared(k.Shelf, at, a, g)
		}
	}
	p.targets(v.Offset.Targets)
	if f := v.Form; v.Portion.OneCake && !f.MayBeOne() {
		p.Add(Field{Part: OfPortion, Name: "one_cake"}, "not_this_form", "%s", map[Form]string{Waffle: "A waffle takes what its iron takes: it is not poured as one cake.", Crepe: "A crêpe is thin: pour it by the ladle, or choose another form for one cake."}[f])
	}
	if ml := v.Portion.VolumeML; bad(ml) || ml < MinPortionML || ml > MaxPortionML {
		p.Add(Field{Part: OfPortion, Name: "volume"}, "out_of_range", "A portion must be between %d and %d ml.", MinPortionML, MaxPortionML)
	} else {
		p.spread(v.Form, v.Portion)
	}
	return p
}

// targets checks how far the gauges were pulled.
func (p *Problems) targets(t Targets) {
	for _, h := range Pulled {
		v, ok := t[h]
		switch {
		case !ok:
		case h == HoldTang && !(math.Abs(v) <= MaxTangPull):
			p.Add(Field{Part: OfTargets, Name: string(h)}, "out_of_range", "The tang can be pulled up to %g meq per 100 g to either side.", MaxTangPull)
		case h != HoldTang && !(v >= MinPull && v <= MaxPull):
			p.Add(Field{Part: OfTargets, Name: string(h)}, "out_of_range", "It can be pulled to between %g and %g times of what it was.", MinPull, MaxPull)
		}
	}
}

func bad(v float64) bool { return math.IsNaN(v) || math.IsInf(v, 0) }

func (p *Problems) name(at Field, name string) {
	switch {
	case strings.TrimSpace(name) == "":
		p.Add(at, "missing", "Give it a name.")
	case utf8.RuneCountInString(name) > MaxName:
		p.Add(at, "too_long", "The name is longer than %d characters.", MaxName)
	}
}

// line checks amount and unit of a line and returns its grams.
func (p *Problems) line(at Field, l Line, k Kitchen) (float64, bool) {
	name := l.Ingredient.Name
	switch {
	case bad(l.Amount):
		p.Add(at.of("amount"), "not_a_number", "The amount of %s is not a number.", name)
		return 0, false
	case l.Amount < 0:
		p.Add(at.of("amount"), "negative", "The amount of %s is below zero.", name)
		return 0, false
	}
	g, err := k.Grams(l)
	switch {
	case errors.Is(err, measure.ErrNoDensity):
		p.Add(at.of("unit"), "no_density", "%s cannot be measured by the %s: nobody has weighed a cup of it. Give grams.", name, l.Unit)
	case errors.Is(err, measure.ErrNotCounted):
		p.Add(at.of("unit"), "not_counted", "%s does not come in pieces with a known weight. Give grams.", name)
	case errors.Is(err, measure.ErrCanSize):
		p.Add(at.of("unit"), "can_size", "Say how much is in a can of %s: size_g or size_ml.", name)
	case errors.Is(err, measure.ErrNotWeighed):
		p.Add(at.of("unit"), "not_weighed", "Nobody has weighed your %s yet: fill it with water, weigh that, and tell the Kitchen. Or give grams.", l.Unit)
	case errors.Is(err, measure.ErrUnknownUnit):
		p.Add(at.of("unit"), "unknown_unit", "The unit %q is not known. Use one of %s.", l.Unit, unitList())
	case g > MaxLineG:
		p.Add(at.of("amount"), "too_much", "%s comes to %.0f kg; %d kg a line is the most.", name, g/1000, MaxLineG/1000)
	case g > 0 && g < MinLineG:
		p.Add(at.of("amount"), "too_little", "%s is less than any scale shows. Take the line out, or give more.", name)
	default:
		return g, true
	}
	return 0, false
}

// prepared checks that the preparation of an addition can be true.
func (p *Problems) prepared(shelf *food.Table, at Field, a Addition, grams float64) {
	_, _, _, err := a.Prep.Treated(shelf, a.Ingredient, max(grams, 1))
	var wrong *prep.Problem
	if !errors.As(err, &wrong) {
		return
	}
	p.Add(at.of("prep."+wrong.Field), wrong.Code, "%s", wrong.Message)
}

func unitList() string {
	s := make([]string, len(measure.Units))
	for i, u := range measure.Units {
		s[i] = string(u)
	}
	return strings.Join(s, ", ")
}
