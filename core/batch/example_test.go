package batch_test

import (
	"context"
	"fmt"

	"upbeatladle/core/batch"
	"upbeatladle/core/batter"
)

// A bowl is begun: its plan is frozen, step by step.
func ExampleBegin() {
	m, err := batch.Begin(context.Background(), beetroot(), batter.DefaultKitchen())
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(m.Plan.Count, "portions;", m.Plan.AllergenText)
	for _, t := range m.Plan.Tasks[:3] {
		fmt.Printf("%s %s %.0f g\n", t.Kind, t.Ingredient, t.Grams)
	}
	// Output:
	// 28 portions; Contains egg, milk, walnut and wheat · Some makes may carry other nuts · check every pack
	// weigh plain_flour 500 g
	// weigh granulated_sugar 31 g
	// weigh baking_powder 20 g
}

// What has to be out before it is made.
func ExampleToPull() {
	m, _ := batch.Begin(context.Background(), beetroot(), batter.DefaultKitchen())
	for _, i := range batch.ToPull([]batch.Making{m}).Lines[:3] {
		fmt.Printf("%.0f g %s\n", i.Grams, i.Label)
	}
	// Output:
	// 500 g Plain wheat flour
	// 31 g White sugar
	// 20 g Baking powder
}
