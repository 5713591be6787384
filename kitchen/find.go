package kitchen

import (
	"cmp"
	"context"
	"slices"

	"upbeatladle/core/recipe"
	"upbeatladle/core/words"
	"upbeatladle/store"
)

// Found is one thing that a search found.
type Found struct {
	Kind string // variation · base · sauce · ingredient · tub
	ID   string
	Name string
	Form string // of a variation or a base
}

// ofEach is how many of a kind are told at most (modelling choice: what a hand scrolls through).
const ofEach = 8

// Find looks for what is typed among variations, bases, sauces, ingredients and tubs: the best of each kind first, of equals what
// changed last. Nothing typed is what changed last, and no ingredient.
func (k *Kitchen) Find(ctx context.Context, text string) ([]Found, error) {
	out := []Found{}
	for _, kind := range []store.Kind{store.Variation, store.Base, store.Sauce} {
		docs, err := k.All(ctx, kind)
		if err != nil {
			return nil, err
		}
		type ranked struct {
			Found
			rank int
		}
		var found []ranked
		for _, d := range docs {
			if rank, ok := recipe.Meets(d.Name, text); ok {
				found = append(found, ranked{Found{string(kind), d.ID, d.Name, words.Either(kind == store.Sauce, "", d.Form)}, rank})
			}
		}
		slices.SortStableFunc(found, func(a, b ranked) int { return cmp.Compare(a.rank, b.rank) })
		for _, f := range found[:min(ofEach, len(found))] {
			out = append(out, f.Found)
		}
	}
	if text == "" {
		return out, nil
	}
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, err
	}
	found := recipe.Search(in.Table, text, "")
	for _, i := range found[:min(ofEach, len(found))] {
		kind := "ingredient"
		if i.Own != nil {
			kind = "tub"
		}
		out = append(out, Found{kind, i.ID, i.Name, ""})
	}
	return out, nil
}
