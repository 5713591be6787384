package document_test

import (
	"context"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"runtime"
	"slices"
	"strconv"
	"sync"
	"testing"

	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/document"
)

// howMany random documents a run works out: as many as usual, or what RANDOM_DOCUMENTS says.
func howMany(t *testing.T, usual int) int {
	if n, err := strconv.Atoi(os.Getenv("RANDOM_DOCUMENTS")); err == nil {
		return n
	}
	if testing.Short() {
		return usual / 20
	}
	return usual
}

// eachRandom hands so many random documents to f, on every core.
func eachRandom(t *testing.T, usual int, f func(seed uint64, v document.Variation)) {
	n := howMany(t, usual)
	var wg sync.WaitGroup
	next := make(chan uint64)
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for seed := range next {
				f(seed, randomVariation(rand.New(rand.NewPCG(seed, 7))))
			}
		})
	}
	for seed := range n {
		next <- uint64(seed)
	}
	close(next)
	wg.Wait()
}

func pick[T any](r *rand.Rand, all []T) T { return all[r.IntN(len(all))] }

// grams spreads amounts over what a kitchen weighs, and now and then far beyond it.
func randomGrams(r *rand.Rand) float64 {
	switch r.IntN(12) {
	case 0:
		return math.Exp(r.Float64()*18 - 6) // 2.5 mg to 160 kg
	case 1:
		return pick(r, []float64{5e-324, 1e-9, 0.2, 1, 100_000})
	}
	return math.Round(math.Exp(r.Float64()*6.5) * 10 / 10)
}

// randomVariation draws a document: sometimes a batter that a cook would know, sometimes
// anything that the grammar allows.
func randomVariation(r *rand.Rand) document.Variation {
	table := food.Reference().All()
	amount := func(g float64) *float64 { g = min(g, 100_000); return &g }
	v := document.Variation{
		Format: document.VariationFormat, Version: document.Version, Name: "Drawn", Form: string(pick(r, batter.Forms)),
		Base: &document.BasePart{Name: "Drawn"},
	}
	line := func(id string, g float64) document.Line {
		return document.Line{Ingredient: id, Amount: amount(g), Unit: "g", Locked: r.IntN(15) == 0}
	}
	if r.IntN(3) > 0 { // like a batter
		flour := pick(r, food.Reference().Shelf(food.GroupFlour)).ID
		liquid := pick(r, []string{"milk_whole", "buttermilk_cultured", "water", "kefir_plain", "oat_drink", "yogurt_plain", "cottage_cheese"})
		v.Base.Lines = []document.Line{line(flour, 200+100*r.Float64()), line(liquid, 250+500*r.Float64()), line("egg_whole", 50+150*r.Float64())}
		for _, l := range []struct {
			id   string
			most float64
		}{{"butter_unsalted", 90}, {"granulated_sugar", 80}, {"baking_powder", 14}, {"baking_soda", 6}, {"salt_fine", 6}, {"honey", 40}} {
			if r.IntN(2) == 0 {
				v.Base.Lines = append(v.Base.Lines, line(l.id, 0.5+l.most*r.Float64()))
			}
		}
		if r.IntN(4) == 0 {
			v.Base.Lines = append(v.Base.Lines, line(pick(r, table).ID, randomGrams(r)))
		}
	} else {
		if v.Form != string(batter.Flourless) {
			v.Base.Lines = append(v.Base.Lines, line(pick(r, food.Reference().Shelf(food.GroupFlour)).ID, randomGrams(r)))
		}
		for range r.IntN(7) {
			v.Base.Lines = append(v.Base.Lines, line(pick(r, table).ID, randomGrams(r)))
		}
	}
	for range r.IntN(4) {
		in := pick(r, table)
		a := document.Addition{Line: line(in.ID, 250*r.Float64())}
		if r.IntN(6) == 0 {
			a.Amount = amount(randomGrams(r))
		}
		if r.IntN(4) == 0 {
			a.Stage = string(pick(r, batter.Stages))
		}
		if fits := prep.For(in); len(fits) > 0 && r.IntN(3) == 0 {
			a.Prep = pick(r, fits).ID
		}
		if r.IntN(8) == 0 {
			share := 0.01 + 0.99*r.Float64()
			a.ShareOfBowl = &share
		}
		if r.IntN(8) == 0 {
			each := float64(r.IntN(12))
			a.PlacedPerPortion = &each
		}
		v.Additions = append(v.Additions, a)
	}
	v.Offset = &document.Offset{Strategy: string(pick(r, batter.Strategies))}
	if r.IntN(2) == 0 {
		v.Offset.Hold = []string{}
		for _, h := range batter.Holds {
			if r.IntN(3) > 0 {
				v.Offset.Hold = append(v.Offset.Hold, string(h))
			}
		}
	}
	if r.IntN(4) == 0 {
		v.Offset.SugarBy, v.Offset.AllowLow = string(batter.ByTotalSugars), []string{"liquid", "flour", "fat"}
	}
	if r.IntN(2) == 0 {
		ml := 5 + math.Round(pick(r, []float64{60, 200, 995})*r.Float64())
		v.Portion = &document.Portion{VolumeML: &ml}
		if r.IntN(4) == 0 {
			to := math.Round(40 + 200*r.Float64())
			v.Portion.Spread = pick(r, []*document.Spread{{By: "itself"}, {By: "hand", ToMM: &to}})
		}
		if r.IntN(5) == 0 {
			count := float64(1 + r.IntN(pick(r, []int{20, 5000})))
			v.Portion.Count = &count
		}
	}
	if r.IntN(8) == 0 && v.Form != string(batter.Waffle) && v.Form != string(batter.Crepe) {
		v.Portion = &document.Portion{OneCake: true}
	}
	if r.IntN(8) == 0 {
		each := 0.5 + math.Round(20*r.Float64())
		v.Parts = append(v.Parts, document.Part{Kind: string(batter.InPan), Text: "for the pan", Lines: []document.PartLine{{Ingredient: pick(r, food.Reference().Shelf(food.GroupFat)).ID}}, EachG: &each})
	}
	if r.IntN(6) == 0 {
		first, second, c := 20+300*r.Float64(), 20+300*r.Float64(), 130+80*r.Float64()
		v.Cook = pick(r, []*document.Cooking{
			{Own: []document.OwnMinutes{{FirstS: &first, SecondS: &second, C: &c, From: "typed"}}},
			{Heat: []document.HeatStep{{At: "mixing", Mark: "6"}, {At: "pour", C: &c}, {At: "flip", C: &second}}},
		})
		if c := &v.Cook.Heat; len(*c) > 0 && (second < 60 || second > 300) {
			*c = (*c)[:2]
		}
	}
	if r.IntN(5) == 0 { // written as it is, or with one addition more or less by now
		v.Reference = &document.Reference{Kind: document.AsWrittenReference, Additions: slices.Clone(v.Additions)}
		if len(v.Additions) > 0 && r.IntN(2) == 0 {
			v.Additions = v.Additions[1:]
		}
	}
	if r.IntN(5) == 0 {
		pull := 0.5 + 1.5*r.Float64()
		v.Offset.Targets = pick(r, []*document.Targets{{Thickness: &pull}, {Sweetness: &pull, Salt: &pull}, {Lift: &pull}, {Tang: &pull}, {Fat: &pull, Thickness: &pull}})
	}
	if r.IntN(3) == 0 {
		rest, egg, high := float64(r.IntN(48*60)), 30+60*r.Float64(), 4000*r.Float64()
		v.Kitchen = &document.Kitchen{RestMin: &rest, EggG: &egg, AltitudeM: &high, Measures: pick(r, []string{"us", "metric", "imperial", "au"})}
	}
	return v
}

// Whatever the grammar lets in is answered: with a worksheet, or with a sentence for the cook.
// Never with a failure, never with a figure that is no number.
func TestEveryDocumentIsAnswered(t *testing.T) {
	var worked, refused, failed sync.Map
	count := func(m *sync.Map) (n int) {
		m.Range(func(any, any) bool { n++; return true })
		return n
	}
	in := document.Setting{Table: food.Reference(), Kitchen: document.DefaultOwnKitchen()}
	eachRandom(t, 4_000, func(seed uint64, v document.Variation) {
		defer func() {
			if p := recover(); p != nil {
				failed.Store(seed, fmt.Sprint("panic: ", p))
			}
		}()
		text, err := v.Encode()
		if err != nil {
			failed.Store(seed, err.Error())
			return
		}
		_, err = document.Work(context.Background(), text, in)
		var problems document.Problems
		switch {
		case err == nil:
			worked.Store(seed, true)
		case errors.As(err, &problems):
			refused.Store(seed, problems[0].Message)
		default:
			failed.Store(seed, err.Error())
		}
	})
	said := map[string]bool{}
	failed.Range(func(seed, why any) bool {
		if len(said) < 5 && !said[why.(string)] {
			said[why.(string)] = true
			text, _ := randomVariation(rand.New(rand.NewPCG(seed.(uint64), 7))).Encode()
			t.Errorf("document %d: %s\n%s", seed, why, text)
		}
		return true
	})
	why := map[string]int{}
	refused.Range(func(_, said any) bool { why[said.(string)]++; return true })
	for said, n := range why {
		if n > 20 {
			t.Logf("%d: %s", n, said)
		}
	}
	t.Logf("%d documents worked out, %d refused in words, %d failed", count(&worked), count(&refused), count(&failed))
	require.Greater(t, count(&worked), 3*count(&refused), "most of what is drawn should be worked out")
}
