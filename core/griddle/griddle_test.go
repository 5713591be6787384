package griddle_test

import (
	"context"
	"fmt"
	"math"
	"slices"
	"testing"
	"time"

	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/griddle"
	"upbeatladle/core/heat"
	"upbeatladle/core/keep"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
)

var seven = time.Date(2026, 11, 26, 7, 0, 0, 0, time.UTC)

func line(id string, g float64) batter.Line {
	in := food.Reference().ByID(id)
	return batter.Line{ID: id, Ingredient: in, Amount: g, Unit: measure.Gram, Role: in.Role}
}

func variation(name string, form batter.Form, ml float64, adds ...batter.Addition) batter.Variation {
	return batter.Variation{
		Name: name, Form: form,
		Base: batter.Base{Name: "M", School: batter.School{RestMin: 15}, Lines: []batter.Line{
			line("plain_flour", 500), line("granulated_sugar", 50), line("baking_powder", 20), line("salt_fine", 5),
			{ID: "egg_whole", Ingredient: food.Reference().ByID("egg_whole"), Amount: 4, Unit: measure.Each, Role: food.RoleEgg}, line("milk_whole", 780), line("butter_unsalted", 80),
		}},
		Additions: adds,
		Offset:    batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: batter.BySweetness, Hold: batter.DefaultHold},
		Portion:   batter.Portion{VolumeML: ml},
	}
}

func kitchen() batter.Kitchen {
	k := batter.DefaultKitchen()
	k.Griddles = []batter.Griddle{
		{ID: "long", Name: "The long plate", WidthMM: 700, DepthMM: 400, MinC: 120, MaxC: 230, Dial: batter.Numbers},
		{ID: "pan", Name: "Crêpe pan", Round: true, WidthMM: 260, DepthMM: 260},
	}
	k.Irons = []batter.Iron{{ID: "pier", Name: "Pier iron", Round: true, WidthMM: 180, LengthMM: 180, DepthMM: 28, GapMM: 6, Moulds: 2}}
	return k
}

func lay(t testing.TB, v batter.Variation, on string, a griddle.Adjust) griddle.Bowl {
	t.Helper()
	b, err := griddle.Lay(context.Background(), v, kitchen(), on, 0, 0, 0, a)
	require.NoError(t, err)
	return b
}

// board is a morning that is told event by event.
type board struct {
	t      testing.TB
	live   griddle.Board
	events []griddle.Event
	now    time.Time
	waited time.Duration // what is told happened so long ago
	s      griddle.State
}

func open(t testing.TB) *board {
	b := &board{t: t, now: seven, live: griddle.BoardOf(griddle.PlatesOf(kitchen()))}
	b.look()
	return b
}

func (b *board) look() { b.s = b.live.State(b.now) }

func (b *board) tell(e griddle.Event) string {
	e.ID, e.At = fmt.Sprintf("e%d", len(b.events)), b.now.Add(-b.waited)
	if e.At.Before(seven) {
		e.At = seven
	}
	e.WaitedMS = b.now.Sub(e.At).Milliseconds()
	b.events = append(b.events, e)
	b.live.Take(e)
	b.look()
	return e.ID
}

func (b *board) pass(d time.Duration) { b.now = b.now.Add(d); b.look() }

func (b *board) puts(bowl griddle.Bowl) string {
	return b.tell(griddle.Event{Kind: griddle.PutOn, Plate: bowl.Plate, Batch: "a bowl", Bowl: &bowl})
}

// does the first thing to do, as the space bar does.
func (b *board) does() griddle.Act {
	require.NotEmpty(b.t, b.s.Todo)
	return b.does1(b.s.Todo[0])
}

func (b *board) does1(todo griddle.Todo) griddle.Act {
	switch {
	case todo.Tell != nil:
		x := todo.Tell
		b.tell(griddle.Event{Kind: x.Kind, Plate: x.Plate, Place: x.Place, Portion: x.Portion, Of: x.Of, C: x.C, Mark: x.Mark})
	case todo.Act == griddle.DoJudge:
		b.tell(griddle.Event{Kind: griddle.Judged, Of: todo.Of, Verdict: griddle.Right})
	case todo.Act == griddle.DoBag:
		b.tell(griddle.Event{Kind: griddle.Bagged, Tray: todo.Tray, Count: 4})
	}
	return todo.Act
}

func (b *board) bowl(key string) griddle.BowlNow {
	at := slices.IndexFunc(b.s.Bowls, func(x griddle.BowlNow) bool { return x.Key == key })
	require.GreaterOrEqual(b.t, at, 0)
	return b.s.Bowls[at]
}

func acts(s griddle.State) (out []griddle.Act) {
	for _, t := range s.Todo {
		out = append(out, t.Act)
	}
	return out
}

func TestTheFirstOneIsATestAndTheRestFollowsIt(t *testing.T) {
	b := open(t)
	v := variation("Plain", batter.Pancake, 60)
	key := b.puts(lay(t, v, "long", griddle.Adjust{}))
	require.Equal(t, griddle.DoOn, b.does())
	assert.Equal(t, griddle.DoHot, b.s.Todo[0].Act)
	assert.False(t, b.s.Todo[0].Due, "it takes its minutes")
	b.pass(9 * time.Minute)
	require.Equal(t, griddle.DoHot, b.does())
	require.Equal(t, griddle.DoPour, b.does())
	assert.NotContains(t, acts(b.s), griddle.DoPour, "the plate waits for the first one")
	first := b.bowl(key)
	b.pass(time.Duration(first.FirstS-20) * time.Second)
	at := slices.IndexFunc(b.s.Todo, func(x griddle.Todo) bool { return x.Act == griddle.DoFlip })
	assert.False(t, b.s.Todo[at].Due)
	assert.Equal(t, griddle.DoOven, b.s.Todo[0].Act, "a hand is free for the oven")
	b.pass(20 * time.Second)
	require.Equal(t, griddle.DoFlip, b.does())
	b.pass(time.Duration(first.SecondS) * time.Second)
	require.Equal(t, griddle.DoLift, b.does())
	require.Equal(t, griddle.DoJudge, b.s.Todo[0].Act)
	require.Len(t, b.s.Rack, 1)

	pale := slices.IndexFunc(first.Effects, func(e griddle.Effect) bool { return e.Verdict == griddle.Pale })
	next := lay(t, v, "long", first.After(griddle.Pale))
	b.tell(griddle.Event{Kind: griddle.Judged, Of: key, Verdict: griddle.Pale, Bowl: &next})
	now := b.bowl(key)
	assert.NotEqual(t, first.Dial, now.Dial)
	assert.Equal(t, "dial to "+now.Dial, first.Effects[pale].Says, "what the verdict promised is what it does")
	assert.True(t, now.Testing, "the next one is looked at again")
	assert.Contains(t, b.s.Todo[0].Title, "Set the long plate", "somebody has to turn the dial")
	assert.Contains(t, b.s.Todo[0].Text, now.Dial)
	require.Equal(t, griddle.DoHot, b.does())
	require.Equal(t, griddle.DoPour, b.does())
	assert.NotContains(t, acts(b.s), griddle.DoPour)
}

// A raw one is nobody's breakfast: it is off the rack, and the rest gets longer on the second side.
func TestARawOneIsOffTheRack(t *testing.T) {
	b := open(t)
	v := variation("Plain", batter.Pancake, 60)
	first := lay(t, v, "long", griddle.Adjust{})
	key := b.puts(first)
	id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
	b.pass(3 * time.Minute)
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
	b.pass(2 * time.Minute)
	b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
	require.Equal(t, 1, b.s.Rack[0].Count)
	next := lay(t, v, "long", first.After(griddle.Raw))
	b.tell(griddle.Event{Kind: griddle.Judged, Of: key, Verdict: griddle.Raw, Bowl: &next})
	assert.Empty(t, b.s.Rack)
	assert.GreaterOrEqual(t, next.FirstS+next.SecondS, first.FirstS+first.SecondS)
	assert.Less(t, next.GriddleC, first.GriddleC)
}

// However often it is turned down, a plate that stands where it was told to stand is not called too cool.
func TestThePlateIsRightWhereItWasTold(t *testing.T) {
	b := open(t)
	v := variation("Plain", batter.Pancake, 60)
	v.Cooking.PlateC = 140
	for _, one := range []griddle.Bowl{lay(t, v, "long", griddle.Adjust{}), lay(t, variation("Thin", batter.Crepe, 60), "pan", griddle.Adjust{PlateC: 165})} {
		for range 3 {
			b.puts(one)
			assert.Equal(t, griddle.StandsWell, b.s.Read(one.Plate, one.GriddleC, false).Stands, "%s at %g, %v", one.Name, one.GriddleC, one.WindowC)
			assert.Contains(t, one.Window, "to")
			one = lay(t, v, "long", one.After(griddle.Raw))
			b = open(t)
		}
	}
}

func TestEveryFormIsLaidAndJudged(t *testing.T) {
	for _, one := range []struct {
		form batter.Form
		ml   float64
		on   string
	}{{batter.Pancake, 60, "long"}, {batter.Crepe, 60, "pan"}, {batter.Waffle, 180, "pier"}, {batter.DropScone, 25, "long"}} {
		v := variation(string(one.form), one.form, one.ml)
		b := lay(t, v, one.on, griddle.Adjust{})
		assert.Empty(t, b.Trouble, one.form)
		require.Len(t, b.Effects, len(griddle.Verdicts))
		assert.Equal(t, one.form == batter.Waffle, b.SecondS == 0)
		for _, e := range b.Effects {
			assert.NotEmpty(t, e.Says, "%s %s", one.form, e.Verdict)
			after := lay(t, v, one.on, b.After(e.Verdict))
			if len(after.WindowC) == 2 {
				assert.GreaterOrEqual(t, after.GriddleC, after.WindowC[0], "%s %s: the plate is called too cool where it was told to stand", one.form, e.Verdict)
				assert.LessOrEqual(t, after.GriddleC, after.WindowC[1], "%s %s", one.form, e.Verdict)
			}
			whole := b.FirstS + b.SecondS
			switch e.Verdict {
			case griddle.Torn:
				assert.Greater(t, after.FirstS, b.FirstS)
			case griddle.Raw:
				assert.GreaterOrEqual(t, after.FirstS+after.SecondS, whole, one.form)
			}
		}
		_, err := griddle.Lay(context.Background(), v, kitchen(), map[bool]string{true: "long", false: "pier"}[one.form == batter.Waffle], 0, 0, 0, griddle.Adjust{})
		assert.Error(t, err, "a waffle goes into an iron, and nothing else does")
	}
}

// Discs never overlap and never hang over the rim, and as many are drawn as fit.
func TestPlacesLieOnThePlate(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d, w, h := rapid.Float64Range(40, 300).Draw(t, "d"), rapid.Float64Range(100, 900).Draw(t, "w"), rapid.Float64Range(100, 900).Draw(t, "h")
		places := portion.Places(d, w, h)
		assert.Len(t, places, portion.Fit(d, w, h))
		for i, p := range places {
			assert.True(t, p.X >= d/2-1e-6 && p.X <= w-d/2+1e-6 && p.Y >= d/2-1e-6 && p.Y <= h-d/2+1e-6, "%v on %g × %g", p, w, h)
			for _, q := range places[:i] {
				assert.GreaterOrEqual(t, math.Hypot(p.X-q.X, p.Y-q.Y), d, "they do not touch")
			}
		}
	})
}

// The bowl with the fewest allergens goes first, and what the plate carries over is said, and stays said.
func TestBowlsGoInTheOrderOfTheirAllergens(t *testing.T) {
	b := open(t)
	sesame := b.puts(lay(t, variation("Sesame", batter.Pancake, 60, batter.Addition{Line: line("sesame_seeds", 40), Stage: batter.StageFoldIn}), "long", griddle.Adjust{}))
	plain := b.puts(lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}))
	assert.Equal(t, plain, b.s.Plates[0].Bowl)
	assert.Equal(t, []string{sesame}, b.s.Plates[0].Line)

	c := open(t)
	sesame = c.puts(lay(t, variation("Sesame", batter.Pancake, 60, batter.Addition{Line: line("sesame_seeds", 40), Stage: batter.StageFoldIn}), "long", griddle.Adjust{}))
	id := c.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: sesame})
	plain = c.puts(lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}))
	c.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
	c.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
	c.tell(griddle.Event{Kind: griddle.Ended, Of: sesame})
	at := slices.IndexFunc(c.s.Todo, func(x griddle.Todo) bool { return x.Act == griddle.DoWash })
	require.GreaterOrEqual(t, at, 0, "%v", acts(c.s))
	assert.Contains(t, c.s.Todo[at].Text, "Sesame was on it")
	assert.NotContains(t, c.s.Todo[at].Text, "free")
	c.does1(c.s.Todo[at])
	c.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: plain})
	assert.Equal(t, []string{"sesame"}, c.bowl(plain).Carried, "washed or not")
}

func TestOnePortionOfTheWholeBowl(t *testing.T) {
	b := open(t)
	v := variation("One", batter.Pancake, 60)
	v.Portion.Count = 1
	key := b.puts(lay(t, v, "long", griddle.Adjust{}))
	id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
	b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
	assert.Equal(t, 1, b.bowl(key).Lifted)
	assert.NotContains(t, acts(b.s), griddle.DoJudge, "there is no rest that it could teach")
	assert.NotContains(t, acts(b.s), griddle.DoPour)
	assert.Nil(t, b.s.LastOff)
}

// Two tablets press the same at once: it happened once.
func TestMeetingTicksAreOne(t *testing.T) {
	b := open(t)
	key := b.puts(lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}))
	first := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
	b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
	assert.Equal(t, 1, b.bowl(key).Poured)
	b.pass(3 * time.Minute)
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: first})
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: first})
	assert.Equal(t, griddle.Second, b.s.Plates[0].Places[0].Phase)
	assert.Equal(t, "flipped 1", b.s.Last.Text)
	b.tell(griddle.Event{Kind: griddle.TookBack, Undoes: b.s.Last.Event})
	assert.Equal(t, griddle.Second, b.s.Plates[0].Places[0].Phase, "the second flip stands in for the first")
}

// The laws of any morning, whatever is pressed when: nothing is lost or made up, the head of the list is the most
// urgent, and nothing waits over its limit without a word.
func TestAnyMorning(t *testing.T) {
	bowls := []griddle.Bowl{
		lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}),
		lay(t, variation("Crêpe", batter.Crepe, 60), "pan", griddle.Adjust{}),
		lay(t, variation("Waffle", batter.Waffle, 180, batter.Addition{Line: line("walnuts_chopped", 40), Stage: batter.StageFoldIn}), "pier", griddle.Adjust{}),
		lay(t, variation("Nut", batter.Pancake, 60, batter.Addition{Line: line("walnuts_chopped", 40), Stage: batter.StageFoldIn}), "long", griddle.Adjust{}),
	}
	rapid.Check(t, func(rt *rapid.T) {
		b := open(t)
		for _, x := range rapid.Permutation(bowls).Draw(rt, "bowls") {
			b.puts(x)
		}
		for range rapid.IntRange(5, 60).Draw(rt, "presses") {
			b.pass(time.Duration(rapid.IntRange(0, 150).Draw(rt, "seconds")) * time.Second)
			b.waited = time.Duration(rapid.SampledFrom([]int{0, 0, 0, 20, 200, 1700}).Draw(rt, "waited")) * time.Second
			switch n := rapid.IntRange(0, 9).Draw(rt, "what"); {
			case n < 6 && len(b.s.Todo) > 0:
				b.does1(b.s.Todo[rapid.IntRange(0, min(2, len(b.s.Todo)-1)).Draw(rt, "which")])
			case n == 6 && len(b.s.Rack) > 0:
				kind := rapid.SampledFrom([]griddle.EventKind{griddle.Served, griddle.Thrown, griddle.Frozen}).Draw(rt, "kind")
				b.tell(griddle.Event{Kind: kind, Tray: b.s.Rack[0].Key, Count: rapid.IntRange(0, 4).Draw(rt, "n")})
			case n == 7 && b.s.Last != nil:
				b.tell(griddle.Event{Kind: griddle.TookBack, Undoes: b.s.Last.Event})
			case n == 8:
				c := rapid.Float64Range(40, 90).Draw(rt, "c")
				b.tell(griddle.Event{Kind: griddle.Probed, C: &c})
			default:
				b.tell(griddle.Event{Kind: rapid.SampledFrom(griddle.Rows.Kinds()).Draw(rt, "any"), Plate: "long", Place: rapid.IntRange(0, 30).Draw(rt, "place"), Portion: "e9", Of: "e1", Tray: "e12"})
			}
			holds(rt, b.s, b.now)
		}
		again := griddle.Fold(griddle.PlatesOf(kitchen()), b.events, b.now)
		assert.Equal(rt, again, b.s, "the same events are the same board, however often it was looked at on the way")
		stands := slices.DeleteFunc(slices.Clone(b.events), func(e griddle.Event) bool { return e.Kind == griddle.TookBack || b.live.TookBack(e.ID) })
		without := griddle.Fold(griddle.PlatesOf(kitchen()), stands, b.now)
		without.Events = len(b.events)
		assert.Equal(rt, without, b.s, "what was taken back never was")
	})
}

// What a tablet kept while the program was away counts from when it happened, never from before what it builds on, and is told.
func TestWhatWaitedOnATablet(t *testing.T) {
	b := open(t)
	key := b.puts(lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}))
	b.pass(10 * time.Minute)
	b.tell(griddle.Event{Kind: griddle.IsHot, Plate: "long"})
	b.tell(griddle.Event{Kind: griddle.Judged, Of: key}) // poured on without a verdict
	b.pass(28 * time.Minute)
	b.waited = 28 * time.Minute
	pour := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1})
	place := func() griddle.PlaceNow { return b.s.Plates[0].Places[0] }
	assert.Equal(t, seven.Add(10*time.Minute), *place().Since)
	assert.Contains(t, b.s.Last.Text, "28 min before it landed")
	b.waited = 35 * time.Minute // longer than its pour: a tablet whose clock was off
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: pour})
	assert.Equal(t, seven.Add(10*time.Minute), *place().Since, "a flip is not before its pour")
	b.waited = 20 * time.Minute
	b.tell(griddle.Event{Kind: griddle.Lifted, Portion: pour})
	require.Len(t, b.s.Rack, 1)
	assert.Equal(t, seven.Add(18*time.Minute), b.s.Rack[0].Since, "the oven's clock runs since then")
	assert.InDelta(t, 20, b.s.Rack[0].HeldMin, 0.01)
	b.waited = 25 * time.Minute
	again := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1})
	assert.Equal(t, seven.Add(18*time.Minute), b.live.Earliest(griddle.Event{Kind: griddle.Flipped, Portion: again}), "a place is free when the last one is off")
	fresh, old := 50.0, 66.0
	b.waited = 0
	b.tell(griddle.Event{Kind: griddle.Probed, C: &fresh})
	b.waited = 15 * time.Minute
	b.tell(griddle.Event{Kind: griddle.Probed, C: &old})
	assert.Equal(t, fresh, *b.s.FoodC, "what was read later counts")
}

func holds(t *rapid.T, s griddle.State, now time.Time) {
	poured, lifted := 0, 0
	for _, b := range s.Bowls {
		assert.LessOrEqual(t, b.Poured, b.Count)
		poured, lifted = poured+b.Poured, lifted+b.Lifted
	}
	assert.Equal(t, poured, lifted+s.OnPlates, "what was poured lies on a plate or is off it")
	numbers := map[int]bool{}
	for _, p := range s.Plates {
		for _, x := range p.Places {
			assert.False(t, numbers[x.Number], "a number is one place")
			numbers[x.Number] = true
			if x.Since != nil {
				assert.False(t, x.Since.After(now), "nothing happened later than now")
				assert.False(t, x.Since.Before(seven), "or before the board was begun")
			}
			if x.Phase == griddle.First || x.Phase == griddle.Second || x.Phase == griddle.Shut {
				require.NotNil(t, x.Next)
				assert.True(t, x.ByAt.After(*x.DueAt))
			}
		}
	}
	asked := map[string]int{}
	for _, x := range s.Todo {
		if x.Act == griddle.DoPour {
			asked[x.Of]++
		}
	}
	for _, b := range s.Bowls {
		assert.LessOrEqual(t, asked[b.Key], b.Count-b.Poured, "no more is asked for than there is")
	}
	onRack := 0
	for _, r := range s.Rack {
		onRack += r.Count
		assert.Positive(t, r.Count)
		said := r.Course[0]
		for _, x := range r.Course {
			if !x.At.After(now) {
				said = x
			}
		}
		assert.Equal(t, r.State, said.State, "a tablet alone says the same")
		assert.Equal(t, r.Text, said.Text)
		if now.Sub(r.Since).Minutes() >= r.Limit {
			assert.NotEqual(t, keep.Fine, r.State, "over its limit")
			assert.NotEmpty(t, r.Text)
		}
	}
	assert.Equal(t, s.OnRack, onRack)
	sawLater := false
	for i, x := range s.Todo {
		assert.NotEmpty(t, x.Title)
		sawLater = sawLater || !x.Due && x.ByAt == nil
		if x.Late {
			assert.True(t, x.Due)
			for _, before := range s.Todo[:i] {
				assert.False(t, !before.Due, "what is late stands before what is to come")
			}
		}
	}
}

// A tick on the biggest board: forty places under way.
func BenchmarkFortyPlaces(b *testing.B) {
	k := kitchen()
	k.Griddles[0].WidthMM, k.Griddles[0].DepthMM = 1200, 900
	bowl, err := griddle.Lay(context.Background(), variation("Plain", batter.Pancake, 60), k, "long", 200, 0, 0, griddle.Adjust{})
	require.NoError(b, err)
	require.GreaterOrEqual(b, len(bowl.Places), 40)
	events := []griddle.Event{{ID: "bowl", At: seven, Kind: griddle.PutOn, Plate: "long", Batch: "a bowl", Bowl: &bowl}, {ID: "40", At: seven, Kind: griddle.Uses, Plate: "long", Count: 40}}
	for n := range 160 { // four rounds
		at := seven.Add(time.Duration(n) * 5 * time.Second)
		id := fmt.Sprint("p", n)
		events = append(events, griddle.Event{ID: id, At: at, Kind: griddle.Poured, Plate: "long", Place: n%40 + 1})
		if n < 120 {
			events = append(events, griddle.Event{ID: id + "f", At: at, Kind: griddle.Flipped, Portion: id}, griddle.Event{ID: id + "l", At: at, Kind: griddle.Lifted, Portion: id})
		}
	}
	plates := griddle.PlatesOf(k)
	for b.Loop() {
		if s := griddle.Fold(plates, events, seven.Add(20*time.Minute)); s.OnPlates != 40 {
			b.Fatal(s.OnPlates)
		}
	}
}

// What a bowl asks of its plate, once the plate has answered.
func BenchmarkLayFromMemory(b *testing.B) {
	memory, _ := lru.New[heat.Key, heat.Advice](64)
	ctx := heat.Remembering(context.Background(), memory)
	beet := batter.Addition{Line: line("beetroot_cooked", 200), Stage: batter.StageBatter}
	beet.ID = "beet"
	v, k := variation("Beetroot", batter.Pancake, 60, beet), kitchen()
	for b.Loop() {
		if _, err := griddle.Lay(ctx, v, k, "long", 0, 0, 0, griddle.Adjust{}); err != nil {
			b.Fatal(err)
		}
	}
}

// What the text of a board says is what the board shows.
func TestTheTextOfABoard(t *testing.T) {
	b := open(t)
	key := b.puts(lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}))
	id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
	b.pass(30 * time.Second)
	b.tell(griddle.Event{Kind: griddle.Flipped, Portion: id})
	b.pass(time.Hour)
	b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id})
	b.tell(griddle.Event{Kind: griddle.Judged, Of: key, Verdict: griddle.Dark})
	text := b.s.Text()
	for _, part := range []string{"Plain: 1 of", "1 off the plate (1 flipped or lifted early, 1 late); the first one: dark", "Contains egg, milk and wheat", "In the oven: 1 × Plain"} {
		assert.Contains(t, text, part)
	}
}

// The last places are asked for as long as there is batter for them, and not one more.
func TestNoMoreIsPouredThanThereIs(t *testing.T) {
	b := open(t)
	v := variation("Few", batter.Pancake, 60)
	v.Portion.Count = 5
	key := b.puts(lay(t, v, "long", griddle.Adjust{}))
	b.tell(griddle.Event{Kind: griddle.Judged, Of: key})
	for n := range 3 {
		b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: n + 1, Of: key})
	}
	pours := 0
	for _, a := range acts(b.s) {
		if a == griddle.DoPour {
			pours++
		}
	}
	assert.Equal(t, 2, pours)
}

// What nobody could look up lies on the plate too.
func TestWhatIsNotKnownIsCarriedOver(t *testing.T) {
	b := open(t)
	v := variation("Sprinkled", batter.Pancake, 60)
	v.Beside = []batter.Beside{{Place: batter.Middle, Text: "Sprinkles of the harbourmaster"}}
	first := lay(t, v, "long", griddle.Adjust{})
	require.NotEmpty(t, first.NotKnown)
	key := b.puts(first)
	id := b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: key})
	plain := b.puts(lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{}))
	b.tell(griddle.Event{Kind: griddle.Lifted, Portion: id, To: griddle.ToBin})
	b.tell(griddle.Event{Kind: griddle.Ended, Of: key})
	assert.Contains(t, acts(b.s), griddle.DoWash)
	b.tell(griddle.Event{Kind: griddle.Poured, Plate: "long", Place: 1, Of: plain})
	assert.Contains(t, b.bowl(plain).Carried[0], "Sprinkles")
}

// A reading is told in the kitchen's degrees and set against the window: 160 °C are 320 °F.
func TestAReadingIsSetAgainstTheWindow(t *testing.T) {
	b := open(t)
	bowl := lay(t, variation("Plain", batter.Pancake, 60), "long", griddle.Adjust{})
	b.puts(bowl)
	low, high := bowl.WindowC[0], bowl.WindowC[1]
	for c, want := range map[float64]griddle.Stands{low - 5: griddle.TooCool, (low + high) / 2: griddle.StandsWell, high + 5: griddle.TooHot} {
		assert.Equal(t, want, b.s.Read("long", c, false).Stands)
	}
	assert.Equal(t, "320 °F", b.s.Read("long", 160, true).Text)
	assert.Equal(t, griddle.Unjudged, b.s.Read("pan", 160, false).Stands)
}

// What goes on at the table never met the plate: it is told with the serving, and is on no label.
func TestWhatGoesOnAtTheTableNeverMetThePlate(t *testing.T) {
	v := variation("Syrup and nuts", batter.Pancake, 60)
	v.Beside = []batter.Beside{{Place: batter.OnTop, Text: "Walnuts", Uses: []*food.Ingredient{food.Reference().ByID("walnuts_chopped")}, EachG: 8}}
	b := lay(t, v, "long", griddle.Adjust{})
	assert.NotContains(t, b.Allergens, "walnut")
	assert.NotContains(t, b.Suspects, "walnut")
	assert.Contains(t, b.Served, "walnut")
	assert.Contains(t, b.Serve, "Walnuts", "and it is said when it goes on")
}

// A bowl that came out too thick takes no more out of its jug than is in it; the rest is named for the bottle.
func TestABoardTakesNoMoreThanTheJugHolds(t *testing.T) {
	v := variation("Beetroot", batter.Pancake, 60, batter.Addition{Line: line("beetroot_cooked", 320), Stage: batter.StageBatter})
	for _, kept := range []float64{0, 10, 61, 500} {
		b, err := griddle.Lay(context.Background(), v, kitchen(), "long", 0, 1, kept, griddle.Adjust{})
		require.NoError(t, err)
		for _, e := range b.Effects {
			if e.Verdict != griddle.Thick {
				continue
			}
			require.Greater(t, e.StirG, 10.0)
			switch {
			case kept == 0:
				assert.NotContains(t, e.Stir, "jug")
			case kept >= e.StirG:
				assert.Contains(t, e.Stir, fmt.Sprintf("%.0f g of whole milk from the jug", e.StirG))
			default:
				assert.Contains(t, e.Stir, fmt.Sprintf("the %.0f g of whole milk in the jug, then open the bottle: %.0f g more", kept, e.StirG-kept))
			}
		}
	}
}
