package sauce_test

import (
	"fmt"

	"upbeatladle/core/food"
	"upbeatladle/core/sauce"
)

func examplePot() sauce.Pot {
	row := food.Reference().ByID
	return sauce.Pot{Kind: sauce.Compote, Parts: []food.Part{{Ingredient: row("plum_diced"), Grams: 800}, {Ingredient: row("granulated_sugar"), Grams: 120}}}
}

// A compote: what boils off, and when to stop.
func ExampleWork() {
	r, err := sauce.Work(examplePot())
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Printf("%.0f g go in, %.0f g of water go, %.0f g are left\n", r.Start.MassG, r.WaterOff, r.Total.Mass)
	fmt.Println(r.Stops[0].By, r.Stops[0].Text)
	fmt.Println(r.Servings, "servings,", r.Texture)
	// Output:
	// 920 g go in, 84 g of water go, 836 g are left
	// weight of it, without the pot: weigh that empty first
	// 20 servings, loose, with juice
}

// How the pot stands when it is put on the scale.
func ExampleResult_At() {
	r, _ := sauce.Work(examplePot())
	now, err := r.At(sauce.Reading{ScaleG: 870})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Printf("%.0f g %s: %s\n", now.Figure, now.Head, now.Says)
	_, err = r.At(sauce.Reading{ScaleG: 1200})
	fmt.Println(err)
	// Output:
	// 34 g still to boil off: stay with it: nearly there
	// 1200 g are more than went in (920 g): weigh the empty pot first, or zero the scale with it on.
}

// The same sauce in another size.
func ExampleResult_Of() {
	r, _ := sauce.Work(examplePot())
	half, err := r.Of(r.Total.Mass / 2)
	fmt.Printf("%.0f g of plums, %v\n", half.Parts[0].Grams, err)
	// Output:
	// 400 g of plums, <nil>
}
