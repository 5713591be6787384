// Package question is the table of everything that is worked out and not kept: one row a
// question, with its name, the wish it decodes and the function that answers. HTTP, the command
// line and a WebAssembly build serve the table; none of them knows a question by itself.
package question

import (
	"context"
	"reflect"

	"upbeatladle/core/base"
	"upbeatladle/core/batch"
	"upbeatladle/core/worksheet"
	"upbeatladle/document"
)

// Question is one row.
type Question struct {
	Name string // also its path under /api/v1
	Says string // what it answers, for whoever lists the table

	wish, out reflect.Type // for the test that holds them against the contract
	answer    func(context.Context, document.Setting, []byte) (any, error)
}

// Answer decodes a wish strictly, answers it in a setting and encodes the answer. The error is
// document.Problems for a wish that cannot be worked with, or the context's.
func (q Question) Answer(ctx context.Context, in document.Setting, wish []byte) ([]byte, error) {
	out, err := q.answer(ctx, in, wish)
	if err != nil {
		return nil, err
	}
	return document.Answer(out)
}

// Named finds a question.
func Named(name string) (Question, bool) {
	for _, q := range Table {
		if q.Name == name {
			return q, true
		}
	}
	return Question{}, false
}

// ask makes a row of a wish and the function that answers it.
func ask[Wish, Out any](name, says string, answer func(context.Context, document.Setting, Wish) (Out, error)) Question {
	return Question{name, says, reflect.TypeFor[Wish](), reflect.TypeFor[Out](), func(ctx context.Context, in document.Setting, data []byte) (any, error) {
		var wish Wish
		if err := document.Strict(data, &wish); err != nil {
			return nil, err
		}
		return answer(ctx, in, wish)
	}}
}

// Table lists every question.
var Table = []Question{
	{"worksheets", "a variation document: everything that is shown of it", reflect.TypeFor[document.Variation](), document.WorksheetType, worksheets},
	ask("scalings", "a batch of another size", func(ctx context.Context, in document.Setting, w document.ScaleWish) (document.Scaled, error) {
		return document.Scale(ctx, w, in)
	}),
	ask("eggs", "what is in an egg that was weighed in its shell", func(_ context.Context, _ document.Setting, w document.EggWish) (document.EggAnswer, error) {
		return document.InShell(w)
	}),
	ask("first-pieces", "a plate after the first one cooked on it", func(_ context.Context, _ document.Setting, w document.FirstPieceWish) (document.FirstPieceAnswer, error) {
		return document.FirstPiece(w)
	}),
	ask("pulling", "what has to be out before some bowls are made: ingredients, tools", func(ctx context.Context, in document.Setting, w document.PullingWish) (batch.Pulling, error) {
		return document.Pull(ctx, w, in)
	}),
	ask("toppings", "what is usually put on, with usual amounts", func(_ context.Context, in document.Setting, _ document.ToppingsWish) (document.ToppingsAnswer, error) {
		return document.Toppings(in), nil
	}),
	ask("sauce", "a pot: what boils off, when to stop, what it makes, what is in it", func(_ context.Context, in document.Setting, w document.SauceWish) (document.SauceAnswer, error) {
		return document.WorkSauce(w, in)
	}),
	ask("correction", "what a spread test asks of the bowl: so many grams, or nothing", func(ctx context.Context, in document.Setting, w document.CorrectionWish) (worksheet.Correction, error) {
		return document.Correct(ctx, w, in)
	}),
	ask("plain-bases", "the plain base behind a recipe that was written with its additions", func(ctx context.Context, in document.Setting, w document.PlainBaseWish) (document.Base, error) {
		return document.PlainBase(ctx, w, in)
	}),
	ask("swaps", "what can stand in for a line of the base", func(_ context.Context, in document.Setting, w document.SwapWish) (items[document.Swap], error) {
		found, err := document.Swaps(w, in)
		return items[document.Swap]{found}, err
	}),
	ask("comparisons", "two variations side by side", func(ctx context.Context, in document.Setting, w document.ComparisonWish) (document.Comparison, error) {
		return document.Compare(ctx, w, in)
	}),
	ask("loads", "how much of an addition gives so many bites, pieces, or such a load", func(ctx context.Context, in document.Setting, w document.LoadWish) (load, error) {
		g, err := document.LoadFor(ctx, w, in)
		return load{g}, err
	}),
	ask("simulations", "pieces ladled out of simulated bowls", func(ctx context.Context, in document.Setting, w document.SimulationWish) (document.Simulation, error) {
		return document.Simulate(ctx, w, in)
	}),
	ask("preparations", "what a preparation does to an ingredient", func(_ context.Context, in document.Setting, w document.PreparationWish) (document.Preparation, error) {
		return document.Prepare(w, in)
	}),
	ask("measurements", "a pantry item of what was measured", func(_ context.Context, in document.Setting, w document.MeasurementWish) (document.PantryItem, error) {
		return document.Measure(w, in)
	}),
	ask("labels", "a pantry item of what a pack states", func(_ context.Context, in document.Setting, w document.LabelWish) (document.PantryItem, error) {
		return document.FromLabel(w, in)
	}),
	ask("readings", "what is understood of a pasted recipe", func(ctx context.Context, in document.Setting, w document.ReadingWish) (document.Reading, error) {
		return document.Read(ctx, w, in)
	}),
	{"fingerprints", "a base document: its traits beside what is usual", reflect.TypeFor[document.Base](), reflect.TypeFor[base.Fingerprint](), fingerprints},
	ask("amounts", "an amount as a cook types it", func(_ context.Context, in document.Setting, w document.AmountWish) (document.Amount, error) {
		return document.ReadAmount(w, in)
	}),
}

func worksheets(ctx context.Context, in document.Setting, data []byte) (any, error) {
	v, err := document.DecodeVariation(data)
	if err != nil {
		return nil, err
	}
	sheet, err := v.Worksheet(ctx, in)
	return document.AsDocument(&sheet), err
}

func fingerprints(ctx context.Context, in document.Setting, data []byte) (any, error) {
	b, err := document.DecodeBase(data)
	if err != nil {
		return base.Fingerprint{}, err
	}
	return b.Fingerprint(ctx, in)
}

type (
	items[T any] struct {
		Items []T `json:"items"`
	}
	load struct {
		AmountG float64 `json:"amount_g"`
	}
)
