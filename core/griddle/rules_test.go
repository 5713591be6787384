package griddle_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"upbeatladle/core/batter"
	"upbeatladle/core/griddle"
	"upbeatladle/core/keep"
	"upbeatladle/core/portion"
	"upbeatladle/internal/rules"
)

func TestRules(t *testing.T) {
	seconds := func(s float64) time.Duration { return time.Duration(s * float64(time.Second)) }
	bowl := func(plate string, first, second float64) griddle.Bowl {
		return griddle.Bowl{Name: "Ours", Plate: plate, GriddleC: 175, FirstS: first, SecondS: second, Count: 9, PortionML: 60, DiameterMM: 100, Places: []portion.At{{X: 60, Y: 60}, {X: 180, Y: 60}}, Hold: keep.HoldOf(batter.Pancake)}
	}
	pour := func(b *board, one griddle.Bowl, place int) string {
		key := b.s.Bowls
		of := ""
		if len(key) > 0 {
			of = key[0].Key
		} else {
			of = b.puts(one)
		}
		return b.tell(griddle.Event{Kind: griddle.Poured, Plate: one.Plate, Place: place, Of: of})
	}
	judged := func(b *board) string {
		switch x := b.s.Bowls[0]; {
		case x.Early > 0:
			return "early"
		case x.Late > 0:
			return "late"
		}
		return "right"
	}
	rules.Check(t, map[string]rules.Do{
		"figure": rules.Figure(griddle.Figures),
		"flips": func(t testing.TB, g rules.Given) string {
			b := open(t)
			id := pour(b, bowl("long", g.F(t, 0), 80), 1)
			b.pass(seconds(g.F(t, 1)))
			b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
			return judged(b)
		},
		"lifts": func(t testing.TB, g rules.Given) string {
			b := open(t)
			id := pour(b, bowl("long", 100, g.F(t, 0)), 1)
			b.pass(seconds(100))
			b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
			b.pass(seconds(g.F(t, 1)))
			b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
			return judged(b)
		},
		"iron": func(t testing.TB, g rules.Given) string {
			b := open(t)
			one := bowl("pier", g.F(t, 0), 0)
			one.Form = batter.Waffle
			id := pour(b, one, 1)
			b.pass(seconds(g.F(t, 1)))
			b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
			return judged(b)
		},
		"trays": func(t testing.TB, g rules.Given) string {
			b := open(t)
			one := bowl("long", 100, 80)
			first, second := pour(b, one, 1), pour(b, one, 2)
			b.pass(seconds(100))
			for _, id := range []string{first, second} {
				b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
			}
			b.pass(seconds(80))
			b.tell(griddle.Event{Kind: griddle.Lifted, Portion: first})
			b.pass(seconds(g.F(t, 0)))
			b.tell(griddle.Event{Kind: griddle.Lifted, Portion: second})
			return fmt.Sprint(len(b.s.Rack))
		},
		"verdict": func(t testing.TB, g rules.Given) string {
			was := bowl("long", 100, 80)
			switch g.At(1) {
			case "crepe":
				was.Form = batter.Crepe
				return rules.N(was.After(griddle.Verdict(g.At(0))).SecondS)
			case "iron":
				was.Form = batter.Waffle
			}
			switch to := was.After(griddle.Verdict(g.At(0))); g.At(1) {
			case "plate":
				return rules.N(to.PlateC - was.GriddleC)
			default:
				return rules.N(to.FirstS)
			}
		},
		"history": func(_ testing.TB, g rules.Given) string { // of bowls that follow each other on a plate, washed between or not
			b := open(t)
			var last string
			for i := range 3 {
				one := bowl("long", 100, 80)
				one.Batch, one.Suspects, one.Contains = fmt.Sprint(i), strings.Fields(g.At(i)), strings.Fields(g.At(i))
				last = b.puts(one)
				id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: last})
				b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id, To: griddle.ToBin})
				if i < 2 {
					b.tell(griddle.Event{Kind: griddle.Ended, Of: last})
					if g.At(3) == "washed" {
						b.tell(griddle.Event{Kind: griddle.Wiped, Plate: "long", Of: last})
					}
				}
			}
			carried := slices.Sorted(slices.Values(b.bowl(last).Carried))
			if len(carried) == 0 {
				return "-"
			}
			return strings.Join(carried, " ")
		},
		"lays": func(t testing.TB, g rules.Given) string {
			b := open(t)
			one := bowl("long", 100, 80)
			one.Place = []string{"Berries"}
			pour(b, one, 1)
			b.pass(seconds(g.F(t, 0)))
			return rules.YesNo(slices.Contains(acts(b.s), griddle.DoPlace))
		},
		"cools": func(t testing.TB, g rules.Given) string {
			b := bowl("long", 100, 80)
			b.Places, b.PouredMM = b.Places[:1], g.F(t, 1)
			if g.At(0) == "iron" {
				b.Form = batter.Waffle
			}
			return rules.N(b.DropK())
		},
		"reads": func(t testing.TB, g rules.Given) string {
			b := open(t)
			one := bowl("long", 100, 80)
			one.GriddleC, one.WindowC = g.F(t, 1), []float64{g.F(t, 1) - 1, g.F(t, 1) + 1}
			pour(b, one, 1)
			require.NotEmpty(t, b.s.Bowls)
			return string(b.s.Read("long", g.F(t, 0), false).Stands)
		},
	})
}
