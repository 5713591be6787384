package question_test

import (
	"context"
	"fmt"

	"upbeatladle/core/food"
	"upbeatladle/document"
	"upbeatladle/document/question"
)

// A question is a row of the table: a wish goes in as JSON, an answer comes out.
func ExampleQuestion_Answer() {
	q, _ := question.Named("amounts")
	here := document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen()}
	out, err := q.Answer(context.Background(), here, []byte(`{"text":"1 lb 2 oz","in":"g"}`))
	fmt.Printf("%s%v\n", out, err)
	_, err = q.Answer(context.Background(), here, []byte(`{"text":"1.250 g"}`))
	fmt.Println(err)
	// Output:
	// {"amount":510.291,"unit":"g"}
	// <nil>
	// /text: Is that 1250 g or 1.25 g? Type the one that you mean, without a mark between thousands.
}

// What is not in the table is not asked.
func ExampleNamed() {
	_, ok := question.Named("weather")
	fmt.Println(ok)
	q, _ := question.Named("sauce")
	fmt.Println(q.Says)
	// Output:
	// false
	// a pot: what boils off, when to stop, what it makes, what is in it
}
