package worksheet

import (
	"context"
	"fmt"
	"slices"

	"upbeatladle/core/batter"
)

// strategyNames are the ways to offset as the bench calls them.
var strategyNames = map[batter.Strategy]string{
	batter.HoldBackLiquid: "hold back liquid", batter.BuildUpFlour: "build up flour", batter.DryAddition: "dry the addition",
	batter.Shared: "shared", batter.Leave: "leave it",
}

// remainders are the notes on what is left of a held target. They name what was asked for.
var remainders = []string{
	"thickness_left", "sugar_floor", "sweetness_left", "salt_left", "fat_left", "tang_left", "lift_left", "structure_left", "batch_left",
}

// causes holds the rule that no advice trips a warning without a word: a warning that the
// variation would not have if everything were left as it is says which wish brings it.
func (w *described) causes(ctx context.Context) error {
	mine := func(n Note) bool { return n.Kind == Warning && !slices.Contains(remainders, n.Code) }
	if w.v.Offset.Strategy == batter.Leave || !slices.ContainsFunc(w.out.Notes, mine) {
		return nil
	}
	v := w.asked
	v.Offset.Strategy = batter.Leave
	s, err := inGrams(v, w.k).solve(ctx, true)
	if err != nil {
		return err
	}
	left := describe(s, nil)
	for i, n := range w.out.Notes {
		if mine(n) && !slices.ContainsFunc(left.out.Notes, func(o Note) bool { return o.Code == n.Code && o.Line == n.Line }) {
			w.out.Notes[i].Text += fmt.Sprintf(" It comes of “%s”: left as it is, it would not be so.", strategyNames[w.v.Offset.Strategy])
		}
	}
	return nil
}
