package mixing

import (
	"fmt"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// Tools are what has to be out before the work begins, by what the steps ask for (common practice, no source).
func Tools(r Recipe) []string {
	o, where := laidOut(r)
	var out []string
	add := func(yes bool, tool string) {
		if yes && !slices.Contains(out, tool) {
			out = append(out, tool)
		}
	}
	has := func(is func(Item) bool) bool {
		for _, i := range o.Items {
			if is(i) {
				return true
			}
		}
		return false
	}
	group := func(g food.Group) bool { return has(func(i Item) bool { return i.Ingredient.Group == g }) }
	two := o.Base.Bowls(o.Form) == batter.TwoBowls
	kept, _ := o.keepBack(where[wet])
	add(true, words.Either(two, "a big bowl and a bowl for the wet", "a big bowl"))
	add(kept > 0, "a jug for the liquid")
	add(len(where[whites]) > 0, "a clean, dry bowl and a whisk for the whites")
	add(true, words.Either(o.Base.Smooth(o.Form), "a whisk", "a whisk and a spatula to fold with"))
	add(len(where[sifted]) > 0 || len(where[infused]) > 0, "a sieve")
	add(len(where[melted]) > 0 || len(where[infused]) > 0, "a small pan")
	add(group(food.GroupGrated) || group(food.GroupZest), "a grater with its guard")
	add(has(func(i Item) bool {
		return i.Ingredient.Minds(food.CodeKnife) || i.Ingredient.Minds(food.CodeKnifeRound)
	}), "a board and a knife")
	add(has(func(i Item) bool { return i.Reduced || i.Prepare != "" && i.Ingredient.Group == food.GroupGrated }), "a cloth or a sieve to squeeze in")
	add(o.TestML > 0, fmt.Sprintf("a ladle of %.0f ml", o.TestML))
	add(o.Judged && o.Spreads && o.Form != batter.Crepe, "a cold plate and a ruler for the test")
	add(o.Form != batter.Waffle, words.Either(o.Form == batter.Flourless || o.Cooking != nil && o.Cooking.Turn != "", "two turners", "a turner"))
	switch o.Form {
	case batter.Crepe:
		add(true, "a plate and a damp cloth over it")
	case batter.Waffle:
		add(true, "a rack, so that they stay crisp")
	default:
		add(true, "a tray lined with paper")
	}
	add(o.Cooking != nil && o.Cooking.Probe, "a probe thermometer")
	for _, a := range o.Asides {
		add(slices.ContainsFunc(a.Steps, func(s string) bool { return strings.Contains(strings.ToLower(s), "strain") }), "a sieve")
		add(a.Tub == nil, "a pot or bowl for "+words.Lower(a.Name))
		add(a.Tub != nil, "the tub of "+words.Lower(a.Name))
	}
	return out
}

// Late is how something that was forgotten still goes into a batter that is mixed already, or what leaving it
// out does.
func (i Item) Late() (add, leave string) {
	in := i.Ingredient
	switch {
	case i.Role == food.RoleSoda, i.Role == food.RoleLeavener:
		return "Stir it smooth with a spoon of the batter, fold that in with a few turns, and cook soon.", "Without it they stay flat."
	case i.Role == food.RoleSalt:
		return "Dissolve it in a spoon of warm liquid and fold that in.", "Without it they taste flat; salt them at the table."
	case in.Group == food.GroupSugar, in.Group == food.GroupSyrup:
		return "Dissolve it in a little of the liquid and fold that in.", "Without it they stay pale and less sweet; sweeten them at the table."
	case in.Group == food.GroupEgg:
		return "Beat it until it runs, then fold it in with a few turns.", "Without it they set softer and may tear as you turn them."
	case in.IsFlour():
		return "Whisk it smooth with some of the batter first, then fold that in; it will be a little tougher.", "Without it the batter runs too wide and does not set."
	case in.Group == food.GroupFat:
		return "Melt it, let it cool to hand-warm, and fold it in last.", "Without it they stick more: grease the plate well."
	case i.Addition && i.Stage == batter.StageFoldIn:
		return "Fold it in now, with a few turns.", "They will be without it."
	case i.Addition && (i.Stage == batter.StageOnPortion || i.Stage == batter.StageUnderPortion):
		return "There is time: it goes on at the plate.", "They will be without it."
	case flow.LiquidPerGram(in) > 0.4:
		return "Stir it in a little at a time with a few turns, and test how it runs.", "Without it the batter stays thicker."
	}
	return "Fold it in with a few turns.", "They will be without it."
}

// Liquid is what is stirred in when a batter is too thick: the base's largest liquid that loosens.
func (r Recipe) Liquid() (Item, bool) { return (&order{Recipe: r}).main() }

// Times is so much more of the same bowl.
func (r Recipe) Times(f float64) Recipe {
	r.MassG *= f
	r.Thickness.Liquid *= f
	r.Thickness.Body *= f
	return r
}
