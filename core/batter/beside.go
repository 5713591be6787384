package batter

import "upbeatladle/core/food"

// Beside is something of a serving that is not in the batter. No figure of the batter knows of it;
// its allergens and its cautions count.
type Beside struct {
	Place Place
	Text  string             // in the cook's words
	Uses  []*food.Ingredient // none when nobody knows what it is
	Grams []float64          // of them in all, NaN where nobody said; may be shorter
	EachG float64            // g of it on a portion, which then counts; 0 when nobody said
	House *House             // a sauce of the house; nil for what is bought
}

// House is something of the house that goes on: a sauce that is cooked or stirred.
type House struct {
	Name     string
	Product  *food.Ingredient // as it is put on
	Tub      *food.Ingredient // of it, in the pantry; nil when there is none
	When     MadeWhen
	Serve    string   // what is done with it before it goes on, a sentence; may be empty
	Cautions []string // of its making
	Loose    bool     // it runs out of the middle
	// Sized is what goes in, and how it is made, for grams of it at the end.
	Sized func(grams float64) (parts []food.Part, steps []string)
}

// MadeWhen is the part of the morning in which something of the house is made.
type MadeWhen string

// The parts of a morning.
const (
	MadeBefore  MadeWhen = "before"   // anybody mixes: it cools, draws or keeps
	MadeResting MadeWhen = "resting"  // while the batter rests: it does not wait long
	MadeAtLast  MadeWhen = "last_pan" // while the last ones cook: it does not wait at all
)

// Eaten is what of it is on a portion and not the fat of the plate, which is counted with the plate.
func (b Beside) Eaten() []food.Part {
	if b.Place == InPan {
		return nil
	}
	return b.OnEach()
}

// OutOfTub tells whether there is a tub that holds grams of it, and has not grown old.
func (h *House) OutOfTub(grams float64) bool {
	return h.Tub != nil && h.Tub.Stock >= grams && !h.Tub.Own.Stale()
}

// OnEach is what of it is on a portion: by what of each is in it, else in equal parts.
func (b Beside) OnEach() []food.Part {
	if b.EachG <= 0 || len(b.Uses) == 0 {
		return nil
	}
	if b.House != nil {
		return []food.Part{{Ingredient: b.House.Product, Grams: b.EachG}}
	}
	all := 0.0
	for i := range b.Uses {
		if i >= len(b.Grams) || !(b.Grams[i] > 0) {
			all = 0
			break
		}
		all += b.Grams[i]
	}
	out := make([]food.Part, len(b.Uses))
	for i, in := range b.Uses {
		share := 1 / float64(len(b.Uses))
		if all > 0 {
			share = b.Grams[i] / all
		}
		out[i] = food.Part{Ingredient: in, Grams: share * b.EachG}
	}
	return out
}
