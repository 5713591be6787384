package batter

import (
	"fmt"
	"strings"

	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// mostNamed is how many additions a proposed name tells one by one (modelling choice: what a title holds).
const mostNamed = 3

// ProposedName is what a variation is called while nobody has named it: its additions in their
// order, “Carrot, walnuts & cardamom”, and its base where there are none.
func (v Variation) ProposedName() string {
	var of []*food.Ingredient
	for _, a := range v.Additions {
		of = append(of, a.Ingredient)
	}
	if name := NamedBy(of); name != "" {
		return name
	}
	return v.Base.Name
}

// NamedBy is a name out of ingredients, each told once; empty without any.
func NamedBy(of []*food.Ingredient) string {
	var names []string
	had := map[string]bool{}
	for _, in := range of {
		if label := words.Lower(in.Label()); !had[label] {
			had[label] = true
			names = append(names, label)
		}
	}
	if over := len(names) - mostNamed; over > 0 {
		names = append(names[:mostNamed:mostNamed], fmt.Sprintf("%d more", over))
	}
	if last := len(names) - 1; last > 0 {
		names = []string{strings.Join(names[:last], ", ") + " & " + names[last]}
	}
	return words.Upper(strings.Join(names, ""))
}
