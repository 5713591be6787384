package document

import (
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/sauce"
)

// ToppingsWish asks what is usually put on.
type ToppingsWish struct{}

// ToppingsAnswer lists what is usually put on, as this shelf has it.
type ToppingsAnswer struct {
	Items []Topping `json:"items"`
}

// Topping is something bought with its usual amount.
type Topping struct {
	Ingredient string       `json:"ingredient"`
	Says       string       `json:"says"`
	Label      string       `json:"label"`
	EachG      float64      `json:"each_g"`
	StepG      float64      `json:"step_g"`
	MostG      float64      `json:"most_g"`
	Kind       batter.Place `json:"kind"`
	Allergens  []string     `json:"allergens"`
	MayContain []string     `json:"may_contain"`
}

// Toppings answers a ToppingsWish.
func Toppings(s Setting) ToppingsAnswer {
	out := ToppingsAnswer{Items: []Topping{}}
	for _, t := range sauce.Toppings {
		in := s.Table.ByID(t.Ingredient)
		if in == nil {
			continue
		}
		out.Items = append(out.Items, Topping{in.ID, t.Says, in.Label(), t.EachG, t.StepG, MaxEachG, t.Place, append([]string{}, in.Allergens...), append([]string{}, in.MayContain...)})
	}
	for _, in := range s.Table.All() { // tubs, and what the kitchen calls its own
		if in.Role == food.RoleTopping && in.Own != nil && in.Own.Table == nil {
			says := "a spoon"
			if in.Own.Stale() {
				says = "past its days"
			}
			out.Items = append(out.Items, Topping{in.ID, says, in.Name, ownEachG, OwnStepG, MaxEachG, batter.OnTop, append([]string{}, in.Allergens...), append([]string{}, in.MayContain...)})
		}
	}
	return out
}

// What of a tub is put on, and by how much more or less of anything of the house [g] (common practice, no source).
const (
	ownEachG = 25
	OwnStepG = 5
)
