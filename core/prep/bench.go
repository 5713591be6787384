package prep

import "upbeatladle/core/food"

// Ask is one thing that a preparation wants to know, by its name in a job.
type Ask string

// What can be asked.
const (
	AskAsBought   Ask = "as_bought"
	AskRefuse     Ask = "refuse_pct"
	AskCook       Ask = "cook"
	AskRipeness   Ask = "ripeness"
	AskMinutes    Ask = "minutes"
	AskSalt       Ask = "salt"
	AskWith       Ask = "with"
	AskWithG      Ask = "with_g"
	AskLeaves     Ask = "leaves_g"
	AskPressed    Ask = "pressed"
	AskTopUp      Ask = "top_up"
	AskTargetG    Ask = "target_g"
	AskTargetML   Ask = "target_ml"
	AskTargetBrix Ask = "target_brix"
	AskCount      Ask = "count"
	AskAfter      Ask = "after_g"
	AskBrix       Ask = "brix"
)

// Bench describes a preparation: what it is called, what it is for, what it asks.
type Bench struct {
	Method Method
	Title  string
	Says   string
	Asks   []Ask
}

// Benches describes every preparation, in the order of Methods.
var Benches = []Bench{
	{Trim, "Peel and core", "What is left of what you bought.", []Ask{AskRefuse, AskAfter}},
	{Puree, "Cook and purée", "How much water and sugar the purée really holds.", []Ask{AskAsBought, AskCook, AskAfter, AskBrix}},
	{Mash, "Mash by ripeness", "Starch turns to sugar as it ripens.", []Ask{AskAsBought, AskRipeness, AskAfter, AskBrix}},
	{Reduce, "Boil down", "Water goes, everything else stays.", []Ask{AskTargetG, AskTargetBrix, AskTargetML, AskAfter, AskBrix}},
	{Squeeze, "Grate, salt, squeeze", "What was wrung out need not be held back.", []Ask{AskAsBought, AskSalt, AskAfter}},
	{Thaw, "Thaw and drain", "The juice goes into the milk.", []Ask{AskAfter}},
	{Toss, "Toss in flour", "The flour that sticks counts in the batter.", []Ask{AskWith, AskWithG, AskAfter}},
	{Plump, "Plump", "Dry fruit that drank leaves the batter its water.", []Ask{AskWith, AskWithG, AskMinutes, AskAfter}},
	{Toast, "Toast", "A little water goes; the taste comes.", []Ask{AskAfter}},
	{Steep, "Steep and strain", "Steam and leaves keep milk back: top it up.", []Ask{AskLeaves, AskMinutes, AskPressed, AskTopUp, AskAfter}},
	{Zest, "Zest", "What one fruit gives, and its juice.", []Ask{AskCount, AskAfter}},
	{Sift, "Sift", "Lumps stay behind; a cup weighs less.", []Ask{AskAfter}},
}

// With lists what can be added in a preparation: flours to toss in, liquids to plump in.
func With(m Method, in *food.Ingredient) bool {
	switch m {
	case Toss:
		return in.IsFlour()
	case Plump:
		return in.Group == food.GroupLiquid || in.Group == food.GroupInfusion || in.ID == "spirit_40"
	}
	return false
}
