package batch_test

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"os"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"upbeatladle/core/batch"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/worksheet"
	"upbeatladle/internal/draws"
)

// Every draw works a whole kitchen out, with its cooking.
func TestMain(m *testing.M) { os.Exit(draws.Main(m)) }

var (
	in    = food.Reference().ByID
	seven = time.Date(2026, 11, 26, 7, 0, 0, 0, time.UTC)
)

func line(id string, g float64) batter.Line {
	return batter.Line{ID: id, Ingredient: in(id), Amount: g, Unit: measure.Gram, Role: in(id).Role}
}

// beetroot is a morning's bowl: a milk base with a purée, so that some milk waits in the jug.
func beetroot() batter.Variation {
	return batter.Variation{
		Name: "Beetroot", Form: batter.Pancake,
		Base: batter.Base{Name: "M", School: batter.School{RestMin: 15}, Lines: []batter.Line{
			line("plain_flour", 500), line("granulated_sugar", 50), line("baking_powder", 20), line("salt_fine", 5),
			{ID: "egg_whole", Ingredient: in("egg_whole"), Amount: 4, Unit: measure.Each, Role: food.RoleEgg}, line("milk_whole", 780), line("butter_unsalted", 80),
		}},
		Additions: []batter.Addition{{Line: line("beetroot_cooked", 320), Stage: batter.StageBatter}, {Line: line("walnuts_chopped", 60), Stage: batter.StageFoldIn}},
		Offset:    batter.Offset{Strategy: batter.HoldBackLiquid, SugarBy: batter.BySweetness, Hold: batter.DefaultHold},
		Portion:   batter.Portion{VolumeML: 60},
	}
}

func begin(t require.TestingT, v batter.Variation) batch.Making {
	m, err := batch.Begin(context.Background(), v, batter.DefaultKitchen())
	require.NoError(t, err)
	return m
}

// log is a batch that somebody works on, a minute an event.
type log struct {
	batch.Making
	events []batch.Event
}

func (l *log) do(e batch.Event) batch.State {
	e.ID, e.At = fmt.Sprint("e", len(l.events)), seven.Add(time.Duration(len(l.events))*time.Minute)
	if e.Knew == 0 {
		e.Knew = len(l.events)
	}
	l.events = append(l.events, e)
	return l.Fold(l.events)
}

func (l *log) weigh(id string, g float64) batch.State {
	return l.do(batch.Event{Kind: batch.Weighed, Task: "weigh-" + id, Grams: &g})
}

// all weighs everything as it is asked, up to a task.
func (l *log) all(until string) batch.State {
	s := l.Fold(l.events)
	for s.Now != "" && s.Now != until {
		t := task(s, s.Now)
		if t.Kind == batch.Weigh {
			g := t.AsksG
			s = l.do(batch.Event{Kind: batch.Weighed, Task: t.ID, Grams: &g, Adds: t.At == batch.More})
		} else {
			s = l.do(batch.Event{Kind: batch.Done, Task: t.ID})
		}
	}
	return s
}

func task(s batch.State, id string) batch.TaskNow {
	at := slices.IndexFunc(s.Tasks, func(t batch.TaskNow) bool { return t.ID == id })
	if at < 0 {
		return batch.TaskNow{}
	}
	return s.Tasks[at]
}

// What the sheet asks for is the list, gram by gram, in the list's bowls; and the steps use it all.
func TestTheSheetAsksForTheList(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := beetroot()
		v.Form = rapid.SampledFrom([]batter.Form{batter.Pancake, batter.Waffle, batter.Crepe, batter.DropScone}).Draw(t, "form")
		v.Base.School.Bowls = rapid.SampledFrom(batter.AllBowls).Draw(t, "bowls")
		shelf := food.Reference().All()
		v.Additions = nil
		for i := range rapid.IntRange(0, 4).Draw(t, "additions") {
			l := line(rapid.SampledFrom(shelf).Draw(t, "ingredient").ID, rapid.Float64Range(0, 300).Draw(t, "g"))
			l.ID = fmt.Sprint("a", i)
			v.Additions = append(v.Additions, batter.Addition{Line: l, Stage: rapid.SampledFrom(batter.Stages).Draw(t, "stage")})
		}
		sheet, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
		if err != nil {
			t.Skip("not a variation")
		}
		m := begin(t, v)
		s := m.Fold(nil)
		uses, asks := map[string]float64{}, map[string]float64{}
		for _, one := range s.Tasks {
			for _, u := range one.Uses {
				uses[u.ID] += u.G
			}
			if one.Kind == batch.Weigh {
				asks[one.Line] += one.AsksG
				assert.GreaterOrEqual(t, one.Slack, one.Step)
				var filled float64
				for _, f := range one.Fills {
					g := f.Grams * float64(f.Times)
					if f.Out {
						g = -g
					}
					filled += g
				}
				if len(one.Fills) > 0 {
					assert.NotEmpty(t, one.Measure)
					at := slices.IndexFunc(sheet.Lines, func(l worksheet.Line) bool { return l.ID == one.Line })
					assert.InDelta(t, *sheet.Lines[at].MeasureG, filled, 1e-6*math.Max(1, filled), "cups and spoons one by one are those of the list: %s", one.Measure)
				}
			}
		}
		for _, l := range sheet.Lines {
			assert.InDelta(t, l.Weigh, asks[l.ID], 1e-9, l.ID)
			if l.Weigh > 0 {
				assert.InDelta(t, l.Weigh, uses[l.ID], 1e-6, l.ID)
			}
		}
		assert.NotEmpty(t, m.Plan.AllergenText)
		l := &log{Making: m}
		end := l.all("")
		assert.Empty(t, end.Now)
		assert.Nil(t, end.Ask, "what was weighed as asked asks for nothing")
		assert.Equal(t, end.ToWeigh, end.Weighed)
		if end.PoursMM != nil {
			assert.InDelta(t, *end.PlanMM, *end.PoursMM, 1e-6)
		}
	})
}

// The over-pour by hand: 24 g too much of 595; some of it stands in for the eggs, which do not follow, so the
// rest is scaled by (595 + 24 + their water) / (595 + their water).
func TestAnOverPour(t *testing.T) {
	l := &log{Making: begin(t, beetroot())}
	milk := task(l.Fold(nil), "weigh-milk_whole")
	require.Equal(t, mixing.BowlJug, milk.Bowl, "some of it waits for the test")
	l.all("weigh-milk_whole")
	assert.Nil(t, l.weigh("milk_whole", milk.AsksG+milk.Slack).Ask, "near enough")
	l.do(batch.Event{Kind: batch.TookBack, Undoes: "e" + fmt.Sprint(len(l.events)-1)})
	over := 24.0
	s := l.weigh("milk_whole", milk.AsksG+over)
	require.NotNil(t, s.Ask)
	assert.InDelta(t, over, s.Ask.Grams, 1e-9)
	assert.Greater(t, *s.Ask.LeftMM, *s.PlanMM, "left as it is, it runs wider")
	assert.Equal(t, batch.SpoonOut, s.Ask.Ways[0].Choice, "only milk is in the jug")
	choices := []batch.Choice{}
	for _, w := range s.Ask.Ways {
		choices = append(choices, w.Choice)
	}
	assert.Equal(t, []batch.Choice{batch.SpoonOut, batch.ToJug, batch.ScaleUp, batch.Leave}, choices)

	egg, white := food.Reference().ByID("egg_whole"), food.Reference().ByID("milk_whole")
	water := task(s, "weigh-egg_whole").AsksG * egg.Water / white.Water // of the eggs, as milk: they do not follow
	factor := (milk.AsksG + over + water) / (milk.AsksG + water)
	up := s.Ask.Ways[2]
	assert.InDelta(t, 100*(factor-1), up.Percent, 1e-9)
	assert.Equal(t, int(math.Floor(float64(l.Plan.Count)*factor)), up.Count)
	for _, row := range up.Rows { // read across, as it is told
		say := func(g float64) float64 { return math.Round(g*math.Pow10(row.Decimals)) / math.Pow10(row.Decimals) }
		assert.InDelta(t, say(row.To), say(row.From)+say(row.Add), 1e-9, row.Label)
	}
	s = l.do(batch.Event{Kind: batch.Chose, Task: "weigh-milk_whole", Choice: batch.ScaleUp})
	assert.Nil(t, s.Ask)
	left := l.Fold(append(slices.Clone(l.events), batch.Event{ID: "enough", Kind: batch.Skipped, Task: "weigh-plain_flour", Knew: 99}))
	assert.Equal(t, batch.In, task(left, "weigh-plain_flour").At, "there is no more flour")
	assert.Equal(t, 500.0, task(left, "weigh-plain_flour").InG)
	flour := task(s, "weigh-plain_flour")
	assert.Equal(t, batch.More, flour.At)
	assert.InDelta(t, math.Round(500*factor)-500, flour.AsksG, 1e-9)
	assert.Equal(t, batch.In, task(s, "weigh-egg_whole").At, "eggs stay")
	s = l.all("")
	assert.Nil(t, s.Ask)
	assert.InDelta(t, *s.PlanMM, *s.PoursMM, 0.6, "and it pours as planned; the eggs did not follow")
	for _, one := range s.Tasks {
		if one.Kind == batch.Weigh && !one.Counted && one.ID != "weigh-milk_whole" {
			assert.InDelta(t, one.Grams*factor, one.InG, math.Max(one.Step, 0.4*one.Slack)+1e-9, one.ID)
		}
	}
}

// Too much of an addition while the milk is still to weigh: the first way out is less milk, and it pours as planned.
func TestTooMuchOfAnAdditionHoldsBackMilk(t *testing.T) {
	l := &log{Making: begin(t, beetroot())}
	addition := task(l.Fold(nil), "weigh-beetroot_cooked")
	require.Positive(t, addition.AsksG)
	before := task(l.Fold(nil), "weigh-milk_whole").AsksG
	s := l.weigh("beetroot_cooked", addition.AsksG+60)
	require.NotNil(t, s.Ask)
	first := s.Ask.Ways[0]
	require.Equal(t, batch.HoldBack, first.Choice)
	assert.InDelta(t, *s.PlanMM, *first.PoursMM, 0.5)
	s = l.do(batch.Event{Kind: batch.Chose, Task: "weigh-beetroot_cooked", Choice: batch.HoldBack})
	assert.Nil(t, s.Ask)
	assert.InDelta(t, before+first.Grams, task(s, "weigh-milk_whole").AsksG, 1e-9)
	assert.InEpsilon(t, -60*(780-before)/addition.AsksG, first.Grams, 0.15, "as the plan holds back for each gram of it")
	s = l.all("")
	assert.InDelta(t, *s.PlanMM, *s.PoursMM, 0.5)

	l = &log{Making: begin(t, beetroot())}
	l.weigh("milk_whole", before)
	s = l.weigh("beetroot_cooked", addition.AsksG+60)
	for _, w := range s.Ask.Ways {
		assert.NotEqual(t, batch.HoldBack, w.Choice, "the milk is in")
	}
}

// The other ways: spooned out, the scale counts down to what was asked; in the jug, the test has it.
func TestWaysOut(t *testing.T) {
	at := func(choice batch.Choice) (*log, batch.State) {
		l := &log{Making: begin(t, beetroot())}
		l.all("weigh-milk_whole")
		milk := task(l.Fold(l.events), "weigh-milk_whole")
		l.weigh("milk_whole", milk.AsksG+24)
		return l, l.do(batch.Event{Kind: batch.Chose, Task: "weigh-milk_whole", Choice: choice})
	}
	l, s := at(batch.SpoonOut)
	milk := task(s, "weigh-milk_whole")
	assert.True(t, milk.Spooning)
	assert.Equal(t, "weigh-milk_whole", s.Now)
	s = l.weigh("milk_whole", milk.AsksG)
	assert.Nil(t, s.Ask)
	assert.InDelta(t, *s.PlanMM, *s.PoursMM, 1e-9)

	_, plain := at(batch.SpoonOut)
	l, s = at(batch.ToJug)
	assert.Nil(t, s.Ask)
	l.all("")
	kept := l.Fold(l.events).KeptG
	var planned float64
	for _, one := range plain.Tasks {
		if one.Kind == batch.Test {
			planned = one.Uses[0].G
		}
	}
	assert.InDelta(t, planned+24, kept, 1e-9, "it waits with the rest")
	now := l.Fold(l.events)
	for _, one := range now.Tasks {
		for _, u := range one.Uses {
			if u.ID == "milk_whole" && one.Kind == batch.Test {
				assert.InDelta(t, planned+24, u.G, 1e-9, "and the test has it")
			} else if u.ID == "milk_whole" {
				assert.InDelta(t, milk.AsksG-planned, u.G, 1e-9, "what goes into the bowl is as planned: %s", one.Text)
				assert.Contains(t, one.Text, fmt.Sprintf("Keep %.0f g", planned+24))
			}
		}
	}

	_, s = at(batch.Leave)
	assert.Nil(t, s.Ask)
	assert.Greater(t, *s.PoursMM, *s.PlanMM)
	for _, one := range s.Tasks {
		if one.Kind == batch.Do && one.Uses != nil && slices.ContainsFunc(one.Uses, func(u mixing.Use) bool { return u.ID == "milk_whole" }) {
			assert.NotEqual(t, one.Text, "", "the step tells what is in")
		}
	}
}

// Two tablets: the same tick sent twice, or by both at once, counts once; a weight given in knowledge of the
// first one takes its place.
func TestTicksThatMeet(t *testing.T) {
	l := &log{Making: begin(t, beetroot())}
	flour, knew := 500.0, 0
	first := batch.Event{ID: "one", At: seven, Kind: batch.Weighed, Task: "weigh-plain_flour", Grams: &flour, Knew: knew}
	other := 507.0
	second := batch.Event{ID: "two", At: seven, Kind: batch.Weighed, Task: "weigh-plain_flour", Grams: &other, Knew: knew}
	assert.Equal(t, 500.0, task(l.Fold([]batch.Event{first, first, second}), "weigh-plain_flour").InG)
	second.Knew = 1
	assert.Equal(t, 507.0, task(l.Fold([]batch.Event{first, second}), "weigh-plain_flour").InG)
}

// Whatever happens, in whatever order: taking all of it back leads to the beginning, nothing is negative,
// and there is always something to do or it is done.
func TestAnyOrderOfEvents(t *testing.T) {
	m := begin(t, beetroot())
	start, err := json.Marshal(m.Fold(nil).Tasks)
	require.NoError(t, err)
	rapid.Check(t, func(t *rapid.T) {
		var events []batch.Event
		tasks := []string{"", "nothing"}
		for _, one := range m.Plan.Tasks {
			tasks = append(tasks, one.ID)
		}
		for i := range rapid.IntRange(0, 40).Draw(t, "n") {
			g, n, d := rapid.Float64Range(0, 900).Draw(t, "g"), rapid.IntRange(0, 9).Draw(t, "fills"), rapid.Float64Range(20, 400).Draw(t, "mm")
			ml := 60.0
			e := batch.Event{
				ID: fmt.Sprint(i), At: seven.Add(time.Duration(rapid.IntRange(-5, 90).Draw(t, "s")) * time.Second), Kind: rapid.SampledFrom(batch.Rows.Kinds()).Draw(t, "kind"),
				Task: rapid.SampledFrom(tasks).Draw(t, "task"), Bowl: rapid.SampledFrom([]string{"dry", "wet", "jug", "?"}).Draw(t, "bowl"), Grams: &g, Fills: &n,
				Choice: rapid.SampledFrom(batch.Choices).Draw(t, "choice"), Knew: i, VolumeML: &ml, DiameterMM: &d, Adds: rapid.Bool().Draw(t, "adds"), Heaped: rapid.Bool().Draw(t, "heaped"),
				WaitedMS: rapid.SampledFrom([]int64{0, 0, 0, 900, 60_000, 1_680_000, -5}).Draw(t, "waited"),
			}
			if e.Kind == batch.TookBack && i > 0 {
				e.Undoes = fmt.Sprint(rapid.IntRange(0, i-1).Draw(t, "undoes"))
			}
			events = append(events, e)
		}
		s := m.Fold(events)
		live := m.Bowl()
		for _, e := range events {
			live.Take(e)
			live.State(nil)
		}
		assert.Equal(t, s, live.State(nil), "however often it was looked at on the way")
		_, err := json.Marshal(s) // no NaN, no infinity
		require.NoError(t, err)
		for _, one := range s.Tasks {
			assert.GreaterOrEqual(t, one.InG, -1e-9, one.ID)
			assert.LessOrEqual(t, one.FillsIn, max(one.FillsAll, one.FillsIn))
		}
		assert.GreaterOrEqual(t, s.KeptG, 0.0)
		assert.GreaterOrEqual(t, s.Clock.BeforeS, 0.0)
		if s.Ask != nil {
			assert.NotEmpty(t, s.Ask.Ways)
		}
		glance := m.Plan.Glance(events, nil)
		assert.Equal(t, s.Clock, glance.Clock, "a list tells the same")
		assert.Equal(t, s.Made, glance.Made)
		assert.Equal(t, s.ToWeigh, glance.ToWeigh)
		if s.Factor == 1 {
			assert.Equal(t, [2]int{s.Count, s.Weighed}, [2]int{glance.Count, glance.Weighed})
		}
		assert.Equal(t, s.Doing() == "", glance.Doing == "")
		again := m.Fold(append(slices.Clone(events), events...)) // sent twice
		a, _ := json.Marshal(s.Tasks)
		b, _ := json.Marshal(again.Tasks)
		assert.JSONEq(t, string(a), string(b))
		back := slices.Clone(events)
		for _, e := range events {
			back = append(back, batch.Event{ID: "back" + e.ID, At: seven, Kind: batch.TookBack, Undoes: e.ID})
		}
		all, err := json.Marshal(m.Fold(back).Tasks)
		require.NoError(t, err)
		assert.JSONEq(t, string(start), string(all))
	})
}

func TestCupsAndSpoons(t *testing.T) {
	l := &log{Making: begin(t, beetroot())}
	flour := task(l.Fold(nil), "weigh-plain_flour")
	require.Greater(t, flour.FillsAll, 2)
	fill := func(n, extra int) batch.State {
		return l.do(batch.Event{Kind: batch.Filled, Task: flour.ID, Fills: &n, Extra: extra})
	}
	s := fill(1, 0)
	assert.Equal(t, flour.ID, s.Now, "one is in, more to come")
	assert.InDelta(t, flour.Fills[0].Grams, task(s, flour.ID).InG, 1e-9)
	s = fill(flour.FillsAll, 0)
	assert.NotEqual(t, flour.ID, s.Now)
	assert.Nil(t, s.Ask, "what spoons cannot say is no over-pour")
	s = fill(flour.FillsAll, 1)
	require.NotNil(t, s.Ask)
	last := flour.Fills[len(flour.Fills)-1]
	assert.InDelta(t, last.Grams, s.Ask.Grams, 1e-9, "one too many of the last")
	s = l.do(batch.Event{Kind: batch.Chose, Task: flour.ID, Choice: batch.SpoonOut})
	assert.Nil(t, s.Ask)
	assert.InDelta(t, filledG(flour), task(s, flour.ID).InG, 1e-6)
	n := flour.FillsAll
	s = l.do(batch.Event{Kind: batch.Filled, Task: flour.ID, Fills: &n, Heaped: true})
	require.NotNil(t, s.Ask, "a heaped spoon")
	assert.InDelta(t, 0.6*last.Grams, s.Ask.Grams, 1e-9)
	assert.Equal(t, "Level it off", s.Ask.Ways[0].Lead)
	s = l.do(batch.Event{Kind: batch.Chose, Task: flour.ID, Choice: batch.SpoonOut})
	assert.Nil(t, s.Ask)
	assert.InDelta(t, filledG(flour), task(s, flour.ID).InG, 1e-6)
}

func TestForgottenLeftOutAndSpilt(t *testing.T) {
	l := &log{Making: begin(t, beetroot())}
	for _, one := range l.Plan.Tasks {
		if one.Kind == batch.Weigh && one.Line != "butter_unsalted" && one.Line != "salt_fine" {
			l.weigh(one.Line, one.Grams)
		}
	}
	now := l.Fold(l.events)
	assert.Equal(t, []string{"weigh-salt_fine"}, task(now, "weigh-egg_whole").Behind, "its bowl was left before it was in")
	assert.Empty(t, task(now, "weigh-granulated_sugar").Behind)
	s := l.do(batch.Event{Kind: batch.Skipped, Task: "weigh-salt_fine"})
	missing := map[string][]string{}
	for _, one := range s.Tasks {
		missing[one.ID] = one.Missing
	}
	assert.Contains(t, fmt.Sprint(missing), "weigh-butter_unsalted", "it shows before the step")
	assert.NotContains(t, fmt.Sprint(slices.Concat(slices.Collect(maps.Values(missing))...)), "weigh-salt_fine", "what is left out on purpose is not missed")
	for _, one := range l.Plan.Tasks {
		if one.Kind == batch.Do {
			s = l.do(batch.Event{Kind: batch.Done, Task: one.ID})
		}
	}
	butter := task(s, "weigh-butter_unsalted")
	assert.Contains(t, butter.Late, "Melt it")
	assert.NotEmpty(t, butter.LeaveOut)
	assert.Equal(t, butter.ID, s.Now, "found later")

	dry := s.Bowls[0].InG
	lost := 100.0
	s = l.do(batch.Event{Kind: batch.Spilled, Bowl: mixing.BowlDry, Grams: &lost})
	require.NotNil(t, s.Ask)
	assert.InDelta(t, dry-lost, s.Bowls[0].InG, 1e-9)
	assert.Less(t, s.Ask.Ways[1].Count, s.Ask.Ways[0].Count, "going on makes fewer")
	s = l.do(batch.Event{Kind: batch.Chose, Task: s.Ask.Task, Choice: batch.TopUp})
	flour := task(s, "weigh-plain_flour")
	assert.Equal(t, batch.More, flour.At)
	assert.InDelta(t, 500*lost/dry, flour.AsksG, 1e-9, "its share of what is gone")
}

// The clock of a bowl runs outside the fridge only (2 h/4 h rule), from the first egg or milk.
func TestTheClockOutsideTheFridge(t *testing.T) {
	m := begin(t, beetroot())
	g := 200.0
	at := func(min int) time.Time { return seven.Add(time.Duration(min) * time.Minute) }
	events := []batch.Event{{ID: "flour", At: at(0), Kind: batch.Weighed, Task: "weigh-plain_flour", Grams: &g}}
	assert.Nil(t, m.Fold(events).Clock.Since, "flour keeps")
	events = append(events, batch.Event{ID: "egg", At: at(10), Kind: batch.Weighed, Task: "weigh-egg_whole", Grams: &g})
	c := m.Fold(events).Clock
	assert.Equal(t, at(10), *c.Since)
	assert.Equal(t, at(130), *c.ChillBy)
	assert.Equal(t, at(250), *c.UseBy)
	events = append(events, batch.Event{ID: "in", At: at(40), Kind: batch.IntoFridge})
	c = m.Fold(events).Clock
	assert.Nil(t, c.Since)
	assert.Equal(t, 1800.0, c.BeforeS)
	events = append(events, batch.Event{ID: "out", At: at(100), Kind: batch.OutFridge}, batch.Event{ID: "set back", At: at(20), Kind: batch.Made})
	c = m.Fold(events).Clock
	assert.Equal(t, at(190), *c.ChillBy, "90 min are left")
}

// What a tablet kept while the program was away counts from when it happened: whatever waited, and in whatever order it landed,
// the clock of the bowl is the one that a program which was never away would have.
func TestTheClockOfATabletThatWasAway(t *testing.T) {
	m := begin(t, beetroot())
	rapid.Check(t, func(t *rapid.T) {
		g := 200.0
		type happened struct {
			e      batch.Event
			landed time.Time
		}
		var all []happened
		gone, back := rapid.IntRange(0, 200).Draw(t, "gone"), rapid.IntRange(200, 300).Draw(t, "back")
		for i, s := range rapid.SliceOfNDistinct(rapid.IntRange(0, 300*60), 1, 12, rapid.ID[int]).Draw(t, "seconds") {
			e := batch.Event{ID: fmt.Sprint(i), At: seven.Add(time.Duration(s) * time.Second)}
			switch e.Kind = rapid.SampledFrom([]batch.EventKind{batch.Weighed, batch.IntoFridge, batch.OutFridge}).Draw(t, "kind"); e.Kind {
			case batch.Weighed:
				e.Task, e.Grams, e.Knew = "weigh-"+rapid.SampledFrom([]string{"egg_whole", "milk_whole", "plain_flour"}).Draw(t, "line"), &g, 100
			}
			landed := e.At
			if rapid.Bool().Draw(t, "of the tablet that goes") && s > gone*60 && s < back*60 {
				landed = seven.Add(time.Duration(back) * time.Minute)
			}
			all = append(all, happened{e, landed})
		}
		fold := func(by func(happened) time.Time, waits bool) batch.Clock {
			now := slices.Clone(all)
			slices.SortStableFunc(now, func(a, b happened) int {
				if c := by(a).Compare(by(b)); c != 0 {
					return c
				}
				return a.e.At.Compare(b.e.At) // a tablet's letters land in the order in which they were written
			})
			var events []batch.Event
			for _, h := range now {
				if waits {
					h.e.WaitedMS = h.landed.Sub(h.e.At).Milliseconds()
				}
				events = append(events, h.e)
			}
			c := m.Fold(events).Clock
			c.AwayS, c.Says.Away = 0, ""
			c.Says = batch.ClockWords{}
			return c
		}
		never := fold(func(h happened) time.Time { return h.e.At }, false)
		assert.Equal(t, never, fold(func(h happened) time.Time { return h.landed }, true))
	})
	// The bowl of the complaint: egg in at 8:30, known at 10:57.
	g, half, late := 200.0, seven.Add(90*time.Minute), int64(147*60_000)
	c := m.Fold([]batch.Event{{ID: "egg", At: half, WaitedMS: late, Kind: batch.Weighed, Task: "weigh-egg_whole", Grams: &g}}).Clock
	assert.Equal(t, half, *c.Since)
	assert.Equal(t, half.Add(2*time.Hour), *c.ChillBy)
	assert.Equal(t, "147 min of it while away", c.Says.Away)
	assert.Contains(t, m.Fold([]batch.Event{{ID: "egg", At: half, WaitedMS: late, Kind: batch.Weighed, Task: "weigh-egg_whole", Grams: &g}}).Last.Text, "147 min before it landed")
}

// The test turns round what was left out, at every minute, and counts a splash that nobody asked for.
func TestATestOfTheBowl(t *testing.T) {
	m := begin(t, beetroot())
	rapid.Check(t, func(t *rapid.T) {
		l := &log{Making: m}
		var test string
		for _, one := range l.Plan.Tasks {
			if one.Kind == batch.Test {
				test = one.ID
			}
		}
		s := l.all(test)
		require.NotNil(t, s.MixedAt)
		_, r, err := worksheet.Recipe(context.Background(), beetroot(), batter.DefaultKitchen(), worksheet.Include{})
		require.NoError(t, err)
		missing := rapid.Float64Range(5, 60).Draw(t, "missing milk")
		short := r.With(map[string]float64{"milk_whole": task(s, "weigh-milk_whole").InG - missing})
		minutes := rapid.Float64Range(0, 30).Draw(t, "minutes")
		tau := flow.Prior.YieldStress(flow.At(short.Parts, minutes).L()) * flow.RestShare(minutes, flow.HydrationMin(r.Parts))
		ml := 60.0
		d, _ := flow.Spread(ml, tau, r.Density)
		e := batch.Event{ID: "t", At: s.MixedAt.Add(time.Duration(minutes * float64(time.Minute))), Kind: batch.Tested, VolumeML: &ml, DiameterMM: &d}
		got := l.Fold(append(slices.Clone(l.events), e))
		a := got.Test.Advice
		require.NotNil(t, a)
		if *a.TargetMM-d < 1 {
			t.Skip("a ruler does not tell")
		}
		assert.InDelta(t, missing, a.Grams, 1.5, "at %.1f min: %s", minutes, a.Text)
		if a.Grams > 0 {
			assert.InDelta(t, *a.TargetMM, *a.ThenMM, 0.4, "and then it runs as it should")
		}
		splash := 24.0
		got = l.Fold(append(slices.Clone(l.events), e, batch.Event{ID: "s", At: e.At, Kind: batch.StirredIn, Grams: &splash}))
		assert.Nil(t, got.Test.Advice, "test again")
		assert.InDelta(t, s.KeptG-splash, got.KeptG, 1e-9)
	})
}

// What stayed in the jug, or went in on top, is offered to the variation: worked out with it, the batter is
// as thick as this bowl was.
func TestWhatABatchTeaches(t *testing.T) {
	l := &log{Making: begin(t, beetroot())}
	l.all("")
	s := l.do(batch.Event{Kind: batch.Made})
	require.NotNil(t, s.Offer, "nothing of the jug was poured")
	assert.Contains(t, s.Offer.Text, fmt.Sprintf("%.0f g less whole milk", s.KeptG))
	assert.Less(t, *s.PoursMM, *s.PlanMM)
	all := s.KeptG
	l = &log{Making: begin(t, beetroot())}
	l.all("")
	l.do(batch.Event{Kind: batch.StirredIn, Grams: &all})
	assert.Nil(t, l.do(batch.Event{Kind: batch.Made}).Offer, "all of it was: as planned")

	l = &log{Making: begin(t, beetroot())}
	l.all("")
	more := all + 40
	l.do(batch.Event{Kind: batch.StirredIn, Grams: &more})
	offer := l.do(batch.Event{Kind: batch.Made}).Offer
	require.NotNil(t, offer)
	v := beetroot()
	v.Offset.Targets = batter.Targets{batter.HoldThickness: *offer.Thickness}
	w, err := worksheet.Work(context.Background(), v, batter.DefaultKitchen(), worksheet.Include{})
	require.NoError(t, err)
	was, err := worksheet.Work(context.Background(), beetroot(), batter.DefaultKitchen(), worksheet.Include{})
	require.NoError(t, err)
	assert.InDelta(t, was.Lines[5].Weigh+40, w.Lines[5].Weigh, 6, "the milk that it really took, but for its sugar")
}

func TestALateRestAndToolsAndCautions(t *testing.T) {
	m := begin(t, beetroot())
	assert.Contains(t, fmt.Sprint(m.Plan.Tools), "a small pan")
	assert.Contains(t, fmt.Sprint(m.Plan.Tools), "ladle of 60 ml")
	assert.Contains(t, fmt.Sprint(task(m.Fold(nil), "weigh-egg_whole").Mind), "Raw egg")
	assert.True(t, task(m.Fold(nil), "weigh-egg_whole").Counted)
	l := &log{Making: m}
	var rest string
	for _, one := range m.Plan.Tasks {
		if one.Kind == batch.Rest {
			rest = one.ID
		}
	}
	s := l.all(rest)
	require.NotNil(t, s.RestEnd)
	assert.Equal(t, 15*time.Minute, s.RestEnd.Sub(*s.RestAt))
	assert.Equal(t, rest, s.Now)
	s = l.do(batch.Event{Kind: batch.Skipped, Task: rest})
	assert.NotEqual(t, rest, s.Now, "one tap")
}

func BenchmarkFold(b *testing.B) {
	l := &log{Making: begin(b, beetroot())}
	l.all("")
	for b.Loop() {
		l.Fold(l.events)
	}
}

func filledG(t batch.TaskNow) (g float64) {
	for _, f := range t.Fills {
		if f.Out {
			g -= f.Grams * float64(f.Times)
		} else {
			g += f.Grams * float64(f.Times)
		}
	}
	return g
}

// A dose to taste is never too much, and is offered to the variation.
func TestDosedToTaste(t *testing.T) {
	v := beetroot()
	v.Additions = append(v.Additions, batter.Addition{Line: line("ginger_ground", 2), Stage: batter.StageBatter})
	m := begin(t, v)
	require.True(t, task(m.Fold(nil), "weigh-ginger_ground").Dosed)
	require.False(t, task(m.Fold(nil), "weigh-plain_flour").Dosed)
	l := &log{Making: m}
	g := 3.1
	s := l.do(batch.Event{Kind: batch.Weighed, Task: "weigh-ginger_ground", Grams: &g, Taste: true})
	assert.Nil(t, s.Ask)
	l.all("")
	kept := l.Fold(l.events).KeptG
	l.do(batch.Event{Kind: batch.StirredIn, Grams: &kept})
	s = l.do(batch.Event{Kind: batch.Made})
	require.NotNil(t, s.Offer)
	assert.Equal(t, []batch.Dose{{Line: "ginger_ground", Label: task(s, "weigh-ginger_ground").Label, Planned: 2, Grams: 3.1}}, s.Offer.Doses)
	l.events[0].Taste = false
	assert.NotNil(t, m.Fold(l.events).Ask, "weighed as asked it would be too much")
}

// One list for several bowls: grams add up, what is thrown away is bought along, what the pantry has is told.
func TestAPullingListForSeveralBowls(t *testing.T) {
	carrot := beetroot()
	carrot.Name = "Carrot"
	grated := *in("carrot_grated")
	grated.Stock = 100
	carrot.Additions = []batter.Addition{{Line: batter.Line{ID: "carrot", Ingredient: &grated, Amount: 244, Unit: measure.Gram, Role: grated.Role}, Stage: batter.StageBatter}}
	carrot.Beside = []batter.Beside{{Place: batter.OnTop, Text: "Syrup", Uses: []*food.Ingredient{in("maple_syrup")}, EachG: 20}, {Place: batter.OnTop, Text: "Butter", Uses: []*food.Ingredient{in("butter_unsalted")}, EachG: 8}}
	list := batch.ToPull([]batch.Making{begin(t, beetroot()), begin(t, carrot)})
	of := func(id string) batch.Pull {
		return list.Lines[slices.IndexFunc(list.Lines, func(p batch.Pull) bool { return p.Ingredient == id })]
	}
	assert.InDelta(t, 1000, of("plain_flour").Grams, 1e-9)
	assert.Equal(t, []string{"Beetroot", "Carrot"}, of("plain_flour").For)
	assert.Equal(t, []string{"Beetroot"}, of("walnuts_chopped").For)
	c := of("carrot_grated")
	portions := float64(list.Bowls[1].Count)
	assert.InDelta(t, 20*portions, of("maple_syrup").Grams, 1e-9, "what goes on each")
	assert.InDelta(t, 160+8*portions, of("butter_unsalted").Grams, 1e-9, "two bowls' own and what goes on")
	assert.InDelta(t, 244/(1-0.11), *c.Bought, 1e-9)
	assert.Equal(t, "4 × medium carrot", c.Pieces)
	assert.InDelta(t, 144, *c.Short, 1e-9)
	assert.Equal(t, "8 × large egg, no shell", of("egg_whole").Pieces)
	assert.Equal(t, "plain_flour", list.Lines[0].Ingredient)
	assert.Contains(t, list.Bowls[0].AllergenText, "walnut")
	assert.Contains(t, list.Tools, "a grater with its guard")
}

// A scooped cup is heavier (Beranbaum as GNU units carries it: 141.7 g against 120.5 g).
func TestTheCupThatIsScooped(t *testing.T) {
	m := begin(t, beetroot())
	assert.Contains(t, task(m.Fold(nil), "weigh-plain_flour").CupMind, fmt.Sprintf("about %.0f g too much", 500*(141.7/120.5-1)))
}

// Several bowls from one base: what is weighed in all is what the bowls are on their own, gram by gram; the common
// batter is as dry as the driest needs it, and its eggs are whole.
func TestSeveralBowlsFromOneBase(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var all []batter.Variation
		pool := []string{"beetroot_cooked", "courgette_grated", "banana_mashed", "walnuts_chopped", "ginger_ground", "lemon_juice", "ginger_ground"}
		for i := range rapid.IntRange(1, 3).Draw(t, "bowls") {
			v := beetroot()
			v.Name = fmt.Sprint("bowl ", i)
			v.Base.School.Bowls = rapid.SampledFrom(batter.AllBowls).Draw(t, "in bowls")
			v.Base.School.RestMin = rapid.SampledFrom([]float64{0, 15, 180}).Draw(t, "rest")
			id := rapid.SampledFrom(pool).Draw(t, "addition")
			l := line(id, rapid.Float64Range(1, 300).Draw(t, "g"))
			l.ID = "a"
			v.Additions = []batter.Addition{{Line: l, Stage: batter.StageBatter}}
			v.Portion.Count = rapid.SampledFrom([]int{0, 3, 12, 40}).Draw(t, "count")
			all = append(all, v)
		}
		s, err := batch.Split(context.Background(), all, batter.DefaultKitchen())
		require.NoError(t, err)
		common := map[string]float64{}
		for _, one := range s.Common.Plan.Tasks {
			if one.Kind == batch.Weigh {
				common[one.Line] = one.Grams
			}
		}
		eggs := common["egg_whole"] / 50
		assert.InDelta(t, math.Round(eggs), eggs, 0.03, "whole eggs")
		shared := map[string]float64{}
		for i, m := range s.Bowls {
			own, err := worksheet.Work(context.Background(), func() batter.Variation {
				v := all[i].ScaledExactly(s.Factors[i])
				v.Portion.Count = 0
				return v
			}(), batter.DefaultKitchen(), worksheet.Include{})
			require.NoError(t, err)
			back := map[string]float64{}
			for _, one := range m.Plan.Tasks {
				if one.Kind == batch.Weigh {
					back[one.Line] += one.Grams
				}
			}
			for _, l := range own.Lines {
				got := back[l.ID] + s.Shares[i].Grams[l.ID]
				assert.InDelta(t, l.Weigh, got, l.Step/2+1e-6, "%s of %s", l.ID, m.Plan.Name)
				assert.GreaterOrEqual(t, l.Weigh+l.Step/2, s.Shares[i].Grams[l.ID], "nothing has to come out again")
			}
			for id, g := range s.Shares[i].Grams {
				shared[id] += g
			}
			l := &log{Making: m}
			end := l.all("")
			assert.Nil(t, end.Ask)
			assert.Equal(t, own.Portion.Count, end.Count)
			if end.PoursMM != nil {
				assert.InDelta(t, *end.PlanMM, *end.PoursMM, 0.5, m.Plan.Name)
				assert.InDelta(t, *own.Portion.DiameterMM, *end.PoursMM, 12, "about as wide as on its own")
			}
		}
		for id, g := range common {
			assert.InDelta(t, shared[id], g, 1.01, "all of the common batter is shared out: %s", id)
		}
		if len(all) == 1 {
			assert.Len(t, s.Bowls, 1)
		}
	})
	two, err := batch.Split(context.Background(), []batter.Variation{beetroot(), beetroot()}, batter.DefaultKitchen())
	require.NoError(t, err)
	early := seven.Add(-time.Hour)
	g := 1000.0
	carried := two.Bowls[0].FoldAfter([]batch.Event{{ID: "s", At: seven, Kind: batch.Weighed, Task: "weigh-shared", Grams: &g}}, &batch.Clock{Since: &early, BeforeS: 600})
	assert.Equal(t, early, *carried.Clock.Since, "the common batter's hour counts")
	assert.Equal(t, 600.0, carried.Clock.BeforeS)
	other := beetroot()
	other.Base.Lines[0].Amount = 400
	_, err = batch.Split(context.Background(), []batter.Variation{beetroot(), other}, batter.DefaultKitchen())
	assert.ErrorContains(t, err, "another base")
	whipped := beetroot()
	whipped.Base.Style = batter.Whipped
	s, err := batch.Split(context.Background(), []batter.Variation{whipped, whipped}, batter.DefaultKitchen())
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(s.Said), "cannot be shared")
}
