package recipe

import (
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// Words of a pot on the stove: with them a sentence of what no batter has is a pot of its own.
var onTheStove = set("boil boiled boiling simmer simmered simmering bubble bubbles bubbled caramelise caramelize macerate thickens syrupy")

// ends closes a sentence: what is only boiled in it is a pot.
func (p *placing) ends() {
	r := p.r
	after := r.done && !p.onTheStove()
	if r.pot > 0 || len(p.said) > longestSentence/4 || !after && !p.onTheStove() {
		return
	}
	from := len(r.out.Lines)
	for from > 0 && len(r.out.Lines[from-1].At) > 0 && r.out.Lines[from-1].At[0].From >= p.speech.at {
		from--
	}
	if !r.cooked(r.out.Lines[from:], true) || after && !allWithAmounts(r.out.Lines[from:]) {
		return
	}
	r.since = from
	r.allSince(batter.OnTop)
	r.since = len(r.out.Lines)
}

// allWithAmounts tells whether at least two lines have an amount.
func allWithAmounts(lines []Line) bool {
	n := 0
	for _, l := range lines {
		if l.Amount > 0 {
			n++
		}
	}
	return n > 1
}

// until are what a pot is cooked or whipped to.
var until = []shape{
	shapeOf("until|till|til ?it|they|its|theyre|that ?is|are ?all|really soft|tender|jammy|syrupy|thick|amber|dissolved"), shapeOf("until|till|til it|they falls|fall|fell|collapse|burst"),
	shapeOf("until|till|til it|they coats|coat"), shapeOf("to soft|stiff|firm peaks"),
}

func (p *placing) onTheStove() bool {
	for i, t := range p.toks {
		if onTheStove[t.text] {
			return true
		}
		for _, sh := range until {
			if _, ok := p.matches(sh, i); ok {
				return true
			}
		}
	}
	return false
}

// Pot is what is cooked or stirred beside the batter: a sauce, what goes on, a filling.
type Pot struct {
	Name  string // as the text calls it, or by what it is
	Place batter.Place
	Own   bool // the cook made it one
}

// beginPot begins a pot, or goes on with the one of the same name.
func (r *reader) beginPot(name string, place batter.Place) {
	if place == "" {
		place = batter.OnTop
	}
	r.since = len(r.out.Lines)
	if name != "" {
		if i := slices.IndexFunc(r.out.Pots, func(o Pot) bool { return stem(fold(o.Name)) == stem(fold(name)) }); i >= 0 {
			r.pot = i + 1
			return
		}
	}
	r.out.Pots = append(r.out.Pots, Pot{Name: name, Place: place})
	r.pot = len(r.out.Pots)
}

// potBefore makes a pot of what was told before the batter is begun, when none of it is a batter's: fruit, sugar, fat and spice.
func (r *reader) potBefore() {
	if r.pot == 0 && r.cooked(r.out.Lines[min(r.since, len(r.out.Lines)):], false) {
		r.allSince(batter.OnTop)
	}
}

// cooked tells whether lines are what a pot has and no batter: several, something sweet among them, no flour but what thickens, no
// powder, whole egg or salt; water and milk only where they are boiled.
func (r *reader) cooked(lines []Line, boiled bool) bool {
	sweet := false
	for _, l := range lines {
		in := l.Ingredient
		switch {
		case r.saysNothing(l):
			continue
		case l.Place != "" || in == nil || in.Role == food.RoleSalt, inBatterOnly(in) && !(boiled && r.thickens(l)):
			return false
		case !boiled && (in.Group == food.GroupLiquid && in.Sugars < fruitJuice || in.Role == food.RoleDairy):
			return false
		}
		sweet = sweet || in.Role == food.RoleSugar || in.Group == food.GroupSyrup || in.Role == food.RolePiece || in.Role == food.RolePuree
	}
	return sweet && len(lines) > 1
}

// saysNothing tells whether a line may stand in a pot as well as in a batter: what only goes with it, the fat of a pan, salt when the
// batter is done.
func (r *reader) saysNothing(l Line) bool {
	return l.Place != "" && l.Amount <= 0 || l.Place == batter.InPan && isFat(l) || r.done && l.Ingredient != nil && l.Ingredient.Role == food.RoleSalt
}

// fruitJuice is from how much sugar a liquid is a juice [g/100 g] (modelling choice).
const fruitJuice = 7

// allSince makes a pot of everything since the last began.
func (r *reader) allSince(place batter.Place) {
	if r.pot == 0 {
		r.out.Pots = append(r.out.Pots, Pot{Place: place})
		r.pot = len(r.out.Pots)
	}
	r.out.Pots[r.pot-1].Place = place
	for i := r.since; i < len(r.out.Lines); i++ {
		r.out.Lines[i].Place, r.out.Lines[i].Pot = place, r.pot
	}
	r.pot = 0
}

// keepPots drops the pots of fewer than two lines: what is one thing only goes on as it is.
func (r *reader) keepPots() {
	var kept []Pot
	for n := range r.out.Pots {
		var mine []int
		for i, l := range r.out.Lines {
			if l.Pot == n+1 {
				mine = append(mine, i)
			}
		}
		to := 0
		if r.out.Pots[n].Name == "" && !r.isPot(mine) { // only a vessel was named
			for _, i := range mine {
				r.out.Lines[i].Place = ""
				if r.out.Lines[i].Amount <= 0 {
					r.out.Lines[i].AskHowMuch()
				}
			}
		} else if len(mine) > 1 && slices.ContainsFunc(mine, func(i int) bool { return r.out.Lines[i].Amount > 0 }) {
			kept = append(kept, r.out.Pots[n])
			to = -len(kept) // not to be met again
		}
		for _, i := range mine {
			r.out.Lines[i].Pot = to
		}
	}
	for i := range r.out.Lines {
		r.out.Lines[i].Pot = -min(0, r.out.Lines[i].Pot)
	}
	r.out.Pots = kept
}

// isPot tells whether lines are what is cooked by itself: more than the butter that melts.
func (r *reader) isPot(lines []int) bool {
	return len(lines) > 1 && slices.ContainsFunc(lines, func(i int) bool {
		in := r.out.Lines[i].Ingredient
		return in != nil && in.Group != food.GroupFat && in.Role != food.RoleSalt && !inBatterOnly(in)
	})
}

// placed turns the places of lines in a talk into those of what was given.
func (r *reader) placed(w whole) {
	to := func(s Span) Span { return Span{w.where(s.From), w.where(s.To-1) + 1} }
	for i := range r.out.Lines {
		for k, s := range r.out.Lines[i].At {
			r.out.Lines[i].At[k] = to(s)
		}
	}
	for i, s := range r.out.Also {
		r.out.Also[i] = to(s)
	}
}
