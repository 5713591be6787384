package sauce

import "upbeatladle/core/batter"

// Topping is something bought that is usually put on a portion.
type Topping struct {
	Ingredient string // id of the table
	Says       string // "a pat", "a drizzle"
	EachG      float64
	StepG      float64
	Place      batter.Place
}

// Toppings are the usual ones with usual amounts (common practice, no source).
var Toppings = []Topping{
	{"butter_unsalted", "a pat", 8, 1, batter.OnTop},
	{"maple_syrup", "a drizzle", 20, 5, batter.OnTop},
	{"honey", "a drizzle", 15, 5, batter.OnTop},
	{"golden_syrup", "a drizzle", 20, 5, batter.OnTop},
	{"icing_sugar", "a dusting", 3, 1, batter.OnTop},
	{"granulated_sugar", "a sprinkle", 5, 1, batter.OnTop},
	{"lemon_juice", "a squeeze", 5, 1, batter.OnTop},
	{"whipped_cream", "a spoon", 25, 5, batter.OnTop},
	{"sour_cream", "a spoon", 25, 5, batter.OnTop},
	{"yogurt_strained", "a spoon", 30, 5, batter.OnTop},
	{"jam_fruit", "a spoon", 20, 5, batter.OnTop},
	{"ice_cream", "a scoop", 35, 5, batter.OnTop},
	{"chocolate_syrup", "a drizzle", 20, 5, batter.OnTop},
	{"lemon_curd", "a spoon", 20, 5, batter.OnTop},
	{"hazelnut_spread", "a smear", 20, 5, batter.OnTop},
	{"peanut_butter", "a smear", 15, 5, batter.OnTop},
	{"blueberry_fresh", "a handful", 30, 5, batter.OnTop},
	{"strawberry_diced", "a handful", 40, 5, batter.OnTop},
	{"walnuts_chopped", "a sprinkle", 8, 1, batter.OnTop},
	{"almonds_flaked", "a sprinkle", 5, 1, batter.OnTop},
	{"chocolate_chips", "a sprinkle", 10, 1, batter.OnTop},
}
