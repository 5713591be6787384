package griddle_test

import (
	"fmt"
	"time"

	"upbeatladle/core/griddle"
	"upbeatladle/core/portion"
)

// What a cook keeps up with on a plate for nine, and how long thirty take.
func ExampleBowl_Takes() {
	b := griddle.Bowl{FirstS: 140, SecondS: 100, Count: 30, Places: make([]portion.At, 9)}
	n := b.KeepsUp()
	fmt.Println(n, "at once,", b.Takes(b.Count, n).Round(time.Minute))
	// Output:
	// 6 at once, 23m0s
}

// What may carry nothing over goes first.
func ExampleByAllergens() {
	line := []griddle.Bowl{{Name: "walnut", Suspects: []string{"egg", "milk", "walnut"}}, {Name: "plain", Suspects: []string{"egg", "milk"}}}
	griddle.ByAllergens(line, func(b griddle.Bowl) griddle.Bowl { return b })
	fmt.Println(line[0].Name, "before", line[1].Name)
	// Output:
	// plain before walnut
}
