package prep

import (
	"fmt"
	"slices"

	"upbeatladle/core/food"
)

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

// Start is what a bench asks for before the cook says anything.
type Start struct {
	HaveG, Count   float64
	Salt, AsBought bool
	Ripeness       Ripeness
}

// A bench starts with a kilo, or with two fruits (modelling choices: round, and enough to see).
const startG, startCount = 1000, 2

// Start is how the bench opens: as cooks mostly have it.
func (b Bench) Start() Start {
	s := Start{HaveG: startG, Salt: slices.Contains(b.Asks, AskSalt), AsBought: b.Method == Puree || b.Method == Mash}
	if slices.Contains(b.Asks, AskCount) {
		s.HaveG, s.Count = 0, startCount
	}
	if slices.Contains(b.Asks, AskRipeness) {
		s.Ripeness = Ripe
	}
	return s
}

// TargetHint is what happens when no target is named; empty where none is asked.
func (b Bench) TargetHint() string {
	if b.Method != Reduce {
		return ""
	}
	return fmt.Sprintf("%.0f %% of the water off", 100*usualBoilOff)
}

// WithHint is what it is put in when nothing is named; empty where nothing is asked.
func (b Bench) WithHint() string {
	switch b.Method {
	case Toss:
		return "plain flour"
	case Plump:
		return "water"
	}
	return ""
}

// Cautions are what is minded at the bench.
func (b Bench) Cautions() []string {
	switch b.Method {
	case Squeeze, Zest:
		return []string{"Grater: use the guard, and stop before your fingers do."}
	case Trim:
		return []string{"Knife: claw grip, fingertips back; cut a flat side first where it rolls."}
	case Reduce, Puree, Steep:
		return []string{"Hot steam and hot purée burn: long spoon, lid away from you."}
	}
	return nil
}

// Said is one of a few things to choose from, in a cook's words.
type Said struct{ ID, Label string }

// CookWords are the ways to cook before puréeing, SkinWords the ripenesses by the look of the skin.
var (
	CookWords = []Said{{string(Boil), "boil in pieces"}, {string(BoilWhole), "boil whole"}, {string(Steam), "steam"}, {string(Stew), "stew"}, {string(Roast), "roast"}, {string(Raw), "leave raw"}}
	SkinWords = []Said{{string(Firm), "green tips"}, {string(Ripe), "yellow"}, {string(VeryRipe), "brown spots"}}
)

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
		return in.Group == food.GroupLiquid || in.Group == food.GroupInfusion || in.Is(food.Drink)
	}
	return false
}
