package recipe

import (
	"slices"

	"upbeatladle/core/food"
	"upbeatladle/core/measure"
)

// forOne says that amounts are those of one person.
var forOne = []shape{shapeOf("thats|is|makes|feeds|for ?for one|a person|head|portion|guest"), shapeOf("per|each person|head|guest|portion")}

func (s *speech) tellsOfOne() bool { return s.hears(forOne, 0, len(s.toks)) }

// fries tells whether a sentence has come to the pan, with a batter that is told.
func (s *speech) fries() bool {
	return slices.ContainsFunc(s.toks, func(t token) bool { return frying[t.text] }) &&
		slices.ContainsFunc(s.r.out.Lines, func(l Line) bool { return l.Ingredient != nil && l.Ingredient.IsFlour() && l.Place == "" })
}

// cooks tells whether a sentence without an amount of food says how the batter is cooked or left.
func (s *speech) cooks() bool {
	return !slices.ContainsFunc(s.qs, func(q quantity) bool { return q.amount > 0 && s.foodAt(q.end) > 0 }) &&
		slices.ContainsFunc(s.toks, func(t token) bool { return cooking[t.text] }) && s.r.isWhole()
}

// isWhole tells whether a batter is told: flour, and what makes it wet.
func (r *reader) isWhole() bool {
	flour, wet := false, false
	for _, l := range r.out.Lines {
		if l.Ingredient != nil && l.Place == "" && l.Amount > 0 {
			flour = flour || l.Ingredient.IsFlour()
			wet = wet || l.Ingredient.IsWholeEgg() || l.Ingredient.Group == food.GroupLiquid || l.Ingredient.Role == food.RoleDairy
		}
	}
	return flour && wet
}

var cooking = set("flip turn turned bake baked fry fried rest cook overnight side sides")

// frying are words of what is done with a batter that is ready.
var frying = set("flip turn turned side sides pan iron griddle skillet fry fried bake baked bubbles makes pancake pancakes waffle waffles hot rest ladle scoop")

// finishes tells whether a sentence only names what goes on when all is done: "Maple syrup and berries."
func (s *speech) finishes() bool {
	if !s.r.fried || slices.ContainsFunc(s.qs, func(q quantity) bool { return q.unit != measure.Each || q.amount > 2 || q.vague != "" }) {
		return false
	}
	i := 0
	for i < len(s.toks) && (leads[s.text(i)] || s.text(i) == "with" || stop[s.text(i)] && s.foodAt(i) == 0) {
		i++
	}
	in, n := s.r.names.exactly(s.toks[i:])
	if n == 0 || len(s.toks) > longestFinish {
		return false
	}
	return len(s.toks)-i-n > 2 || !slices.ContainsFunc(s.r.out.Lines, func(l Line) bool { return l.Ingredient == in && l.Place == "" }) // "Butter last."
}

// longestFinish is up to how many words a sentence may have that only tells what goes on (modelling choice).
const longestFinish = 16
