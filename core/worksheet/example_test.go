package worksheet_test

import (
	"context"
	"fmt"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/worksheet"
)

// exampleBowl is a plain base with 200 g of beetroot purée.
func exampleBowl() batter.Variation {
	row := func(id string, amount float64, unit measure.Unit) batter.Line {
		in := food.Reference().ByID(id)
		return batter.Line{ID: id, Ingredient: in, Amount: amount, Unit: unit, Role: in.Role}
	}
	return batter.Variation{
		Name: "Beetroot", Form: batter.Pancake,
		Base: batter.Base{Name: "Plain", Lines: []batter.Line{
			row("plain_flour", 250, measure.Gram), row("milk_whole", 400, measure.Gram), row("egg_whole", 2, measure.Each), row("butter_unsalted", 50, measure.Gram), row("granulated_sugar", 30, measure.Gram),
		}},
		Additions: []batter.Addition{{Line: row("beetroot_cooked", 200, measure.Gram), Stage: batter.StageBatter}},
		Offset:    batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: batter.BySweetness, Hold: batter.DefaultHold},
		Portion:   batter.Portion{VolumeML: 60},
	}
}

// What is weighed out, once the water and the sugar of the purée are held back.
func ExampleWork() {
	w, err := worksheet.Work(context.Background(), exampleBowl(), batter.DefaultKitchen(), worksheet.Include{})
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, l := range w.Lines {
		fmt.Printf("%.0f g %s, %s\n", l.Weigh, l.Label, l.State)
	}
	fmt.Println(w.AllergenText)
	// Output:
	// 250 g Plain wheat flour, as_it_is
	// 287 g Whole milk, less
	// 100 g Hen egg, as_it_is
	// 50 g Butter, as_it_is
	// 19 g White sugar, less
	// 200 g Beetroot, as_it_is
	// Contains egg, milk and wheat · Check every pack
}

// How two worksheets differ, line by line.
func ExampleCompare() {
	ctx, k := context.Background(), batter.DefaultKitchen()
	less := exampleBowl()
	less.Additions[0].Amount = 100
	before, _ := worksheet.Work(ctx, less, k, worksheet.Include{})
	after, _ := worksheet.Work(ctx, exampleBowl(), k, worksheet.Include{})
	for _, c := range worksheet.Compare(before, after) {
		if c.Change != worksheet.Same {
			fmt.Printf("%s: %.0f, now %.0f g\n", c.Label, *c.Before, *c.After)
		}
	}
	// Output:
	// Whole milk: 344, now 287 g
	// White sugar: 24, now 19 g
	// Beetroot: 100, now 200 g
}

// So many portions as the bowl gives by itself.
func ExampleNaturalCount() {
	n, err := worksheet.NaturalCount(context.Background(), exampleBowl(), batter.DefaultKitchen())
	fmt.Println(n, err)
	// Output:
	// 14 <nil>
}
