package mixing

import (
	"slices"

	"upbeatladle/core/batter"
)

// Bowl is where some lines of the ledger are weighed into, in the order of work.
type Bowl struct {
	Key   string   `json:"key"` // what it is: BowlDry, …
	Name  string   `json:"name"`
	Lines []string `json:"lines"`
	Grams float64  `json:"grams"` // weighed into it
}

// The bowls.
const (
	BowlOne    = "bowl" // the only one
	BowlDry    = "dry"
	BowlWet    = "wet"
	BowlJug    = "jug" // a liquid of which some waits for the test
	BowlPan    = "pan"
	BowlWhites = "whites"
	BowlSteep  = "steep"
	BowlStir   = "stir_in"
	BowlLast   = "last"
	BowlFold   = "fold_in"
	BowlUnder  = "under"
	BowlTop    = "on_top"
)

type bowlPlace struct {
	key, name string
	places    []place
}

// bowlsOf are the bowls in the order of work, with what goes into each.
func bowlsOf(s batter.Bowls) []bowlPlace {
	first := []bowlPlace{{BowlDry, "dry bowl", []place{dry, sifted}}, {BowlWet, "wet bowl", []place{wet}}}
	switch s {
	case batter.OneWetFirst:
		first = []bowlPlace{{BowlOne, "bowl", []place{wet, sifted, dry}}}
	case batter.OneDryFirst:
		first = []bowlPlace{{BowlOne, "bowl", []place{dry, sifted, wet}}}
	}
	return append(first, bowlPlace{BowlWhites, "bowl for the whites", []place{whites}}, bowlPlace{BowlJug, "jug", nil}, bowlPlace{BowlPan, "small pan", []place{melted}},
		bowlPlace{BowlSteep, "steep", []place{infused}}, bowlPlace{BowlStir, "stir in", []place{grated}}, bowlPlace{BowlLast, "last", []place{late}},
		bowlPlace{BowlFold, "fold in", []place{folded}}, bowlPlace{BowlUnder, "under it", []place{under}}, bowlPlace{BowlTop, "on top", []place{onTop}})
}

// Bowls lists every line of a recipe once, those that are weighed out as nothing too. The liquid of which
// some is kept back has a jug of its own.
func Bowls(r Recipe) []Bowl {
	o, where := laidOut(r)
	kept, from := o.keepBack(where[wet])
	inJug := func(i Item) bool { return kept > 0 && i.ID == from.ID }
	var out []Bowl
	for _, b := range bowlsOf(o.Base.Bowls(o.Form)) {
		bowl := Bowl{Key: b.key, Name: b.name}
		add := func(i Item) {
			bowl.Lines = append(bowl.Lines, i.ID)
			bowl.Grams += i.WeighG
		}
		for _, i := range r.Items {
			if b.key == BowlJug && inJug(i) {
				add(i)
			}
		}
		for _, p := range b.places {
			for _, i := range r.Items {
				if o.placeOf(i) == p && !inJug(i) {
					add(i)
				}
			}
		}
		if len(bowl.Lines) > 0 {
			out = append(out, bowl)
		}
	}
	return slices.Clip(out)
}
