package document_test

import (
	"errors"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/document"
)

// Any wish for a preparation is answered, or refused in words; its answer can be written.
func TestEveryPreparationIsAnswered(t *testing.T) {
	in := document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen()}
	table := food.Reference().All()
	rapid.Check(t, func(t *rapid.T) {
		r := rand.New(rand.NewPCG(rapid.Uint64().Draw(t, "seed"), 3))
		for range 40 {
			bench := pick(r, prep.Benches)
			from := pick(r, table)
			for range 40 {
				if prep.Suits(bench.Method, from) {
					break
				}
				from = pick(r, table)
			}
			w := document.PreparationWish{Method: string(bench.Method), From: from.ID}
			for _, to := range []**float64{
				&w.HaveG, &w.WantG, &w.Count, &w.RefusePct, &w.Minutes, &w.SaltG, &w.WithG, &w.LeavesG, &w.TargetG, &w.TargetML, &w.TargetBrix, &w.AfterG, &w.Brix,
			} {
				if r.IntN(3) == 0 {
					g := pick(r, []float64{0, 1e-6, 1, 12, 99, 300, 1e5, 1e12, randomGrams(r)})
					*to = &g
				}
			}
			if r.IntN(3) == 0 {
				w.With = pick(r, table).ID
			}
			w.Salt, w.AsBought, w.Pressed, w.TopUp = r.IntN(2) == 0, r.IntN(2) == 0, r.IntN(2) == 0, r.IntN(2) == 0
			out, err := document.Prepare(w, in)
			var problems document.Problems
			if errors.As(err, &problems) {
				continue
			}
			if assert.NoError(t, err) {
				_, err := document.Answer(out)
				assert.NoError(t, err, "%s of %s: %+v", w.Method, w.From, wish(w))
			}
		}
	})
}

func wish(w document.PreparationWish) string {
	text, _ := document.Answer(w)
	return string(text)
}
