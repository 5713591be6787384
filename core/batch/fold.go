package batch

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"upbeatladle/core/flow"
	"upbeatladle/core/happen"
	"upbeatladle/core/measure"
	"upbeatladle/core/mixing"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// At says where a task stands.
type At string

// Where a task can stand.
const (
	ToCome  At = "to_come"
	In      At = "done"
	LeftOut At = "left_out"
	More    At = "top_up" // it is in, and a little more is asked for
)

// State is a batch as far as it has come.
type State struct {
	Tasks   []TaskNow  `json:"tasks"`
	Bowls   []BowlNow  `json:"bowls"`
	Now     string     `json:"now,omitzero"` // the task; empty when all is done
	Weighed int        `json:"weighed"`
	ToWeigh int        `json:"to_weigh"`
	Factor  float64    `json:"factor"` // of the plan, after what was poured too much
	Count   int        `json:"count"`
	PoursMM *float64   `json:"pours_mm,omitzero"` // just mixed, with what is really in it
	PlanMM  *float64   `json:"plan_mm,omitzero"`  // as planned
	Ask     *Ask       `json:"ask,omitzero"`      // waits for an answer
	KeptG   float64    `json:"kept_g"`            // waits in the jug
	SplashG float64    `json:"splash_g"`          // was stirred in
	Liquid  string     `json:"liquid,omitzero"`   // the line that is stirred in
	Clock   Clock      `json:"clock"`
	MixedAt *time.Time `json:"mixed_at,omitzero"`
	RestAt  *time.Time `json:"rest_since,omitzero"`
	RestEnd *time.Time `json:"rest_until,omitzero"`
	Test    TestNow    `json:"test"`
	Made    bool       `json:"made"`
	Offer   *Offer     `json:"offer,omitzero"` // for the variation, when the batch is done
	Last    *Last      `json:"last,omitzero"`  // what “take back” takes back
	Events  int        `json:"events"`
	BowlG   float64    `json:"bowl_from_g"` // what is put on the scale and is no bowl weighs less

	jugG float64 // that was kept back in all
}

// Doing is what is being done, in a few words; empty when all is.
func (s State) Doing() string {
	for _, t := range s.Tasks {
		if t.ID == s.Now {
			return t.doing(t.Text)
		}
	}
	return ""
}

// Text tells a batch in a few lines: what was weighed, what was done, what it contains.
func (s State) Text(p Plan) string {
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", p.Name)
	switch {
	case s.Count == 1:
		fmt.Fprintf(&b, "%s\n", words.Upper(p.Form.Said(1)))
	case s.Count > 1:
		fmt.Fprintf(&b, "%d %s\n", s.Count, p.Form.Said(s.Count))
	}
	for _, t := range s.Tasks {
		switch {
		case t.Kind == Weigh && t.At == In:
			fmt.Fprintf(&b, "- %s: %s\n", t.Label, words.Grams(t.InG, math.Min(t.Step, 0.1)))
		case t.Kind == Weigh && t.At == LeftOut:
			fmt.Fprintf(&b, "- %s: left out\n", t.Label)
		case t.Kind == Weigh:
			fmt.Fprintf(&b, "- %s: %s, not yet\n", t.Label, words.Grams(t.AsksG, t.Step))
		}
	}
	if s.SplashG > 0 {
		fmt.Fprintf(&b, "Stirred in: %s\n", words.Grams(s.SplashG, 0.1))
	}
	fmt.Fprintf(&b, "%s\n", p.AllergenText)
	return b.String()
}

// Used is what really went in of each ingredient [g]; what waits in the jug goes back.
func (s State) Used() map[string]float64 {
	out := map[string]float64{}
	for _, t := range s.Tasks {
		if t.Kind != Weigh {
			if t.Ingredient != "" && t.At != LeftOut { // what goes on comes out of its tub
				out[t.Ingredient] += t.Grams
			}
			continue
		}
		out[t.Ingredient] += t.InG
		if t.Line == s.Liquid {
			out[t.Ingredient] += s.SplashG - s.jugG
		}
	}
	return out
}

// TaskNow is a task with where it stands. Its amounts and words are those of this bowl by now.
type TaskNow struct {
	Task
	At       At       `json:"at"`
	AsksG    float64  `json:"asks_g"` // in all, or of the top-up
	LowG     float64  `json:"low_g"`
	HighG    float64  `json:"high_g"`
	InG      float64  `json:"in_g"`
	FillsIn  int      `json:"fills_in"`
	FillsAll int      `json:"fills_all"`
	Extra    int      `json:"extra,omitzero"`
	Spooning bool     `json:"spooning,omitzero"`  // what is too much is spooned out
	Missing  []string `json:"missing,omitzero"`   // tasks of a step whose lines are not in yet
	Behind   []string `json:"behind,omitzero"`    // tasks before a weigh-in, of bowls that were left before they were in
	Late     string   `json:"late,omitzero"`      // how what was forgotten still goes in
	LeaveOut string   `json:"leave_out,omitzero"` // and what leaving it out does
}

// BowlNow is a bowl with what is in it.
type BowlNow struct {
	mixing.Bowl
	InG float64 `json:"in_g"`
}

// Clock is the time that a bowl with egg or milk has been outside the fridge.
type Clock struct {
	Since    *time.Time `json:"since,omitzero"` // it runs since then; none: it stands
	BeforeS  float64    `json:"before_s"`       // seconds outside before that
	InFridge bool       `json:"in_fridge"`
	AwayS    float64    `json:"away_s,omitzero"`   // of it before it was known: what started it waited on its tablet
	ChillBy  *time.Time `json:"chill_by,omitzero"` // until then it may be chilled again
	UseBy    *time.Time `json:"use_by,omitzero"`   // until then it must be used
	Says     ClockWords `json:"says"`
}

// ClockWords are what the clock of a bowl says; a time follows where it is so far.
type ClockWords struct {
	Stands string `json:"stands"` // while it does not run
	Fine   string `json:"fine"`   // before chill_by, which follows
	Soon   string `json:"soon"`   // before use_by, which follows
	Over   string `json:"over"`
	Away   string `json:"away,omitzero"` // beside any of them
}

// TestNow is what is known of the batter's thickness.
type TestNow struct {
	TargetMM *float64 `json:"target_mm,omitzero"` // that a portion runs to just mixed
	RestedMM *float64 `json:"rested_mm,omitzero"` // and after the rest
	Should   string   `json:"should,omitzero"`    // how it pours when it is right, in words
	Advice   *Advice  `json:"advice,omitzero"`    // of the last test, until something is stirred in
	Splash   *Splash  `json:"splash,omitzero"`    // as much as a cook splashes in unasked: what can just be seen
	Count    int      `json:"count"`
}

// Splash is so much of the base's liquid.
type Splash struct {
	Grams   float64 `json:"grams"`
	Label   string  `json:"label"`
	Measure string  `json:"measure"`
}

// Advice is what a test asks of the bowl.
type Advice struct {
	Grams    float64        `json:"grams"`
	Label    string         `json:"label"`
	Measure  string         `json:"measure"`
	Fills    []measure.Fill `json:"fills,omitzero"`
	FromJug  bool           `json:"from_jug"`
	From     string         `json:"from,omitzero"`      // where it comes from, when some of it waits in the jug
	TargetMM *float64       `json:"target_mm,omitzero"` // at the minute of the test
	WasMM    *float64       `json:"was_mm,omitzero"`
	ThenMM   *float64       `json:"then_mm,omitzero"` // what it should run to with that in it
	Minutes  float64        `json:"minutes"`
	Now      flow.Class     `json:"class_now,omitzero"`
	After    flow.Class     `json:"class_after,omitzero"`
	Text     string         `json:"text"`
	Stress   float64        `json:"yield_stress_pa,omitzero"`
	Looks    mixing.Looks   `json:"says,omitzero"`
}

// Offer is what a batch taught about its variation.
type Offer struct {
	Text      string   `json:"text,omitzero"`
	Thickness *float64 `json:"thickness,omitzero"` // the target of the variation, times its reference
	Doses     []Dose   `json:"doses,omitzero"`
}

// Dose is an addition that was dosed to taste [g].
type Dose struct {
	Line    string  `json:"line"`
	Label   string  `json:"label"`
	Planned float64 `json:"planned_g"`
	Grams   float64 `json:"grams"`
	Amount  float64 `json:"amount"` // of the variation's own line, in its unit
}

// Last is the last thing that happened and can be taken back.
type Last struct {
	Event string `json:"event"`
	Text  string `json:"text"`
}

// progress is where a task is while events are folded.
type progress struct {
	at       At
	in       float64
	fills    int
	extra    int
	settled  bool // too much, and left so
	spooning bool
	byFills  bool
	taste    bool // as much as tasted right
	heap     float64
	less     float64 // g that it asks for less, since an addition was poured too much
	when     int     // how many events there were when it was last set
	since    time.Time
}

// folding is a state on its way.
type folding struct {
	*Making
	done   map[string]*progress
	factor float64
	more   float64 // that went to the jug
	splash float64
	spills []spill
	ticks  []tick
	fridge bool
	mixing time.Time // when the last of it went in
	mixed  *time.Time
	rest   *time.Time
	last   *Last
	advice *Advice
	tests  int
	made   bool
	landed time.Time // when the last one did
}

// tick is something that the bowl's clock goes by.
type tick struct {
	at     time.Time
	kind   EventKind // IntoFridge, OutFridge, or what put egg or milk in
	shared bool      // by the share of a common batter
	waited time.Duration
}

type spill struct {
	id, bowl string
	grams    float64
	settled  bool
}

// Bowl is a batch as it goes on: what happens is taken one by one, in the order in which it landed. Landing never runs
// backwards: a clock that was set back stands still. What waited on its tablet happened so much before it landed, and clocks
// go by that. It is not safe for concurrent use; what it says is nobody else's.
type Bowl struct {
	*happen.Story[Event, *Event, *folding]
}

// Bowl is a bowl to which nothing happened yet.
func (m *Making) Bowl() Bowl {
	return Bowl{happen.Begin[Event, *Event](func() *folding {
		f := &folding{Making: m, done: map[string]*progress{}, factor: 1}
		for _, t := range m.Plan.Tasks {
			f.done[t.ID] = &progress{at: ToCome}
		}
		return f
	}, (*folding).next)}
}

// State is how far it has come. A bowl that took its share of a common batter goes on with the clock of that; nil where it
// took none.
func (b Bowl) State(common *Clock) State { return b.Fold().state(len(b.Events()), common) }

// Earliest is when an event can have happened at the earliest, after what is there: what it needs came first. It is the zero
// time when it needs nothing.
func (b Bowl) Earliest(e Event) time.Time { return b.Fold().needs(e) }

// Fold is the state after events.
func (m *Making) Fold(events []Event) State { return m.FoldAfter(events, nil) }

// FoldAfter is Fold for a bowl that took its share of a common batter.
func (m *Making) FoldAfter(events []Event, common *Clock) State { return m.after(events).State(common) }

func (m *Making) after(events []Event) Bowl {
	b := m.Bowl()
	for _, e := range events {
		b.Take(e)
	}
	return b
}

// next takes the n-th event.
func (f *folding) next(n int, e Event, counts bool) {
	waited := e.Said().Waited()
	f.landed = happen.Later(f.landed, e.At.Add(waited))
	e.At = f.landed.Add(-waited)
	if !counts || !Rows.Means(e.Kind, e) {
		return
	}
	e.At = happen.Later(e.At, f.needs(e))
	f.take(e, n)
	f.stand(e)
	if f.last != nil && f.last.Event == e.ID && waited >= time.Minute {
		f.last.Text += fmt.Sprintf(", %s before it landed", words.Minutes(waited.Minutes()))
	}
}

// needs is when what an event builds on was there.
func (f *folding) needs(e Event) (at time.Time) {
	switch e.Kind {
	case Done, Skipped:
		t, _ := f.Plan.task(e.Task)
		for _, u := range t.Uses {
			if p := f.done["weigh-"+u.ID]; p != nil {
				at = happen.Later(at, p.since)
			}
		}
		if t.Kind == Rest && f.rest != nil {
			at = happen.Later(at, *f.rest)
		}
	case Tested, StirredIn:
		if f.mixed != nil {
			at = *f.mixed
		}
	}
	return at
}

// take counts one event.
func (f *folding) take(e Event, n int) {
	p := f.done[e.Task]
	t, _ := f.Plan.task(e.Task)
	tell := func(format string, args ...any) { f.last = &Last{e.ID, fmt.Sprintf(format, args...)} }
	switch e.Kind {
	case Weighed, Filled, Done, Skipped, Chose:
		switch {
		case p != nil:
			f.tick(t, p, e, n, tell)
		case e.Kind == Chose:
			f.settleSpill(e, tell)
		}
	case Spilled:
		f.spill(e)
		tell("the spill of %s", words.Grams(*e.Grams, 1))
	case Tested:
		f.test(e)
		tell("the test")
	case StirredIn:
		f.splash += *e.Grams
		f.advice = nil
		tell("%s stirred in", words.Grams(*e.Grams, 0.1))
	case IntoFridge:
		f.ticks, f.fridge = append(f.ticks, tick{at: e.At, kind: e.Kind, waited: e.Said().Waited()}), true
		tell("into the fridge")
	case OutFridge:
		f.ticks = append(f.ticks, tick{at: e.At, kind: e.Kind, waited: e.Said().Waited()})
		if f.fridge {
			f.fridge = false
			tell("out of the fridge")
		}
	case Made:
		f.made = true
		tell("that it is made")
	}
}

// tick takes what happened to a task.
func (f *folding) tick(t Task, p *progress, e Event, n int, tell func(string, ...any)) {
	met := p.when > e.Knew && p.at != ToCome // another tablet did it meanwhile
	switch e.Kind {
	case Weighed:
		if !met && t.Kind == Weigh {
			f.weighed(t, p, e, n)
			tell("%s, %s", t.Label, words.Grams(p.in, t.Step))
		}
	case Filled:
		if !met && t.Kind == Weigh {
			all := f.filled(t, p, e, n)
			tell("%s, %d of %d in", t.Label, p.fills, all)
		}
	case Done:
		if p.at == ToCome && t.Kind != Weigh {
			p.at, p.when = In, n+1
			tell("the step “%s”", short(t.Text))
		}
	case Skipped:
		if p.at == More { // no more of it goes in
			p.at, p.when = In, n+1
			tell("%s, left as it is", t.Label)
		}
		if p.at == ToCome {
			p.at, p.when = LeftOut, n+1
			tell("%s", words.Either(t.Kind == Weigh, t.Label+", left out", "the skipped “"+short(t.Text)+"”"))
		}
	case Chose:
		f.choose(t, p, e, tell)
	}
}

// weighed takes a weight off the scale.
func (f *folding) weighed(t Task, p *progress, e Event, n int) {
	g := *e.Grams
	if e.Adds {
		g += p.in
	}
	*p = progress{at: In, in: g, when: n + 1, since: e.At, settled: e.Taste && t.Dosed, taste: e.Taste && t.Dosed}
	f.chill(t, e)
}

// filled takes spoons and cups that are in, and returns how many there are in all.
func (f *folding) filled(t Task, p *progress, e Event, n int) int {
	all := f.fills(t)
	*p = progress{at: ToCome, byFills: true, fills: min(*e.Fills, len(all)), extra: e.Extra, when: n + 1, since: e.At}
	for i, one := range all[:p.fills] {
		p.in += signed(one)
		if i == p.fills-1 {
			p.in += float64(p.extra) * one.Grams
			if e.Heaped {
				p.heap = heapOf(one)
				p.in += p.heap
			}
		}
	}
	if p.fills == len(all) {
		p.at = In
	}
	f.chill(t, e)
	return len(all)
}

// chill notes egg or milk that goes in.
func (f *folding) chill(t Task, e Event) {
	if t.Chilled {
		f.ticks = append(f.ticks, tick{e.At, e.Kind, t.Line == SharedLine, e.Said().Waited()})
	}
}

// ticked is the bowl's clock: it runs from the first egg or milk on, and stands in the fridge. It goes by when things happened, in
// whatever order they landed.
func (f *folding) ticked(common *Clock) (c Clock) {
	ticks := slices.Clone(f.ticks)
	slices.SortStableFunc(ticks, func(a, b tick) int { return a.at.Compare(b.at) })
	carried := false
	for _, t := range ticks {
		switch {
		case t.kind == IntoFridge:
			if c.Since != nil {
				c.BeforeS += t.at.Sub(*c.Since).Seconds()
				c.Since = nil
			}
			c.InFridge = true
		case t.kind == OutFridge:
			if c.InFridge {
				c.Since, c.InFridge = &t.at, false
			}
		case c.InFridge:
		default:
			if t.shared && common != nil && !carried {
				carried = true
				c.BeforeS += common.BeforeS
				if common.Since != nil && common.Since.Before(t.at) {
					c.Since = common.Since
				}
			}
			if c.Since == nil {
				c.Since = &t.at
				c.AwayS += t.waited.Seconds()
			}
		}
	}
	return c
}

// stand notes when the bowl was mixed and when its rest began.
func (f *folding) stand(e Event) {
	at := e.At
	if e.Task != "" {
		f.mixing = happen.Later(f.mixing, e.At)
		at = f.mixing
	}
	t, ok := f.Plan.task(f.now())
	mixing := ok && (t.Kind == Weigh || t.Kind == Do && f.before(t, Test, Rest))
	if mixing {
		f.mixed, f.rest = nil, nil
		return
	}
	if f.mixed == nil {
		f.mixed = &at
	}
	if t.Kind == Rest && f.rest == nil {
		f.rest = &at
	}
}

// before tells whether a task comes before the first of some kinds.
func (f *folding) before(t Task, kinds ...Kind) bool {
	for _, other := range f.Plan.Tasks {
		if other.ID == t.ID {
			return true
		}
		if slices.Contains(kinds, other.Kind) {
			return false
		}
	}
	return false
}

// now is the first task that is not done.
func (f *folding) now() string {
	for _, t := range f.Plan.Tasks {
		if at := f.done[t.ID].at; at == ToCome || at == More {
			return t.ID
		}
	}
	return ""
}

// asks is what a task asks for by now, in all.
func (f *folding) asks(t Task) float64 { return f.asksAt(t, f.factor) }

func (f *folding) asksAt(t Task, factor float64) float64 {
	g := t.asksAt(factor)
	if water := f.eggWater(t); water > 0 && factor > 1 {
		g = measure.Round(t.Grams*factor+water*(factor-1), t.Step)
	}
	if p := f.done[t.ID]; p != nil && p.less > 0 {
		g = measure.Round(math.Max(0, g-p.less), t.Step)
	}
	return g
}

// eggWater is the base's liquid with as much water as the eggs of the plan [g]: so much of it stands in for eggs that do
// not follow when all else does. Nothing for any other line.
func (f *folding) eggWater(t Task) (g float64) {
	liquid, ok := f.bowl.Liquid()
	if !ok || t.Line != liquid.ID || !(liquid.Ingredient.Water > 0) {
		return 0
	}
	for _, egg := range f.Plan.Tasks {
		if in := f.item(egg.Line).Ingredient; egg.Kind == Weigh && egg.Counted && in != nil {
			g += egg.Grams * in.Water / liquid.Ingredient.Water
		}
	}
	return g
}

// asksAt is what a task asks for in so many times the plan; eggs do not follow.
func (t Task) asksAt(factor float64) float64 {
	if t.Counted || factor == 1 {
		return t.Grams
	}
	return measure.Round(t.Grams*factor, t.Step)
}

func (m *Making) item(line string) mixing.Item {
	at := slices.IndexFunc(m.bowl.Items, func(i mixing.Item) bool { return i.ID == line })
	if at < 0 { // the plan is older than the rules
		return mixing.Item{}
	}
	return m.bowl.Items[at]
}

// fills are the cups and spoons of a task one by one.
func (f *folding) fills(t Task) []measure.Fill {
	fills := t.Fills
	if i := f.item(t.Line); f.factor != 1 && !t.Counted && i.Fills != nil {
		fills, _ = i.Fills(f.asks(t))
	}
	var out []measure.Fill
	for _, fill := range fills {
		for range fill.Times {
			out = append(out, fill)
		}
	}
	return out
}

// What a heap holds more than a level measure, times its fill (common practice, no source).
const (
	heapOfSpoon = 0.6
	heapOfCup   = 0.2
)

func heapOf(f measure.Fill) float64 {
	switch {
	case f.Out:
		return 0
	case f.Vessel == "cup":
		return heapOfCup * f.Grams
	case f.Vessel == "tbsp" || f.Vessel == "tsp":
		return heapOfSpoon * f.Grams
	}
	return 0
}

func signed(f measure.Fill) float64 {
	if f.Out {
		return -f.Grams
	}
	return f.Grams
}

// over is how much too much of a task is in, beyond what is near enough.
func (f *folding) over(t Task) float64 {
	p := f.done[t.ID]
	switch {
	case t.Kind != Weigh || t.Counted || p.settled || p.spooning || p.at != In && !p.byFills:
		return 0
	case p.byFills:
		if all := f.fills(t); p.extra > 0 && p.fills > 0 && p.fills <= len(all) {
			return float64(p.extra)*all[p.fills-1].Grams + p.heap
		}
		if p.heap > t.Slack {
			return p.heap
		}
		return 0
	}
	if over := p.in - f.asks(t); over > t.Slack+1e-9 {
		return over
	}
	return 0
}

// amounts are the grams of the lines as they are in, or will be.
func (f *folding) amounts() map[string]float64 {
	out := map[string]float64{}
	for _, t := range f.Plan.Tasks {
		if t.Kind != Weigh {
			continue
		}
		switch p := f.done[t.ID]; p.at {
		case In:
			out[t.Line] = p.in
		case LeftOut:
			out[t.Line] = 0
		default:
			out[t.Line] = f.asks(t)
		}
	}
	return out
}

// pours is how wide a portion runs just mixed, with these amounts in it; nil where no ruler tells.
func (f *folding) pours(amounts map[string]float64) *float64 {
	if !f.bowl.Judged || !f.bowl.Spreads {
		return nil
	}
	d := f.bowl.With(amounts).SpreadAt(0)
	if math.IsNaN(d) || math.IsInf(d, 0) {
		return nil
	}
	return &d
}

// jug is what waits for the test: the line, and how much of it.
func (f *folding) jug() (line string, grams float64) {
	for _, t := range f.Plan.Tasks {
		if t.Kind == Test && len(t.Uses) > 0 {
			return t.Uses[0].ID, t.Uses[0].G*f.factor + f.more
		}
	}
	return "", 0
}

func (f *folding) state(events int, common *Clock) State {
	amounts := f.amounts()
	s := State{
		Now: f.now(), Factor: f.factor, Count: f.count(), PoursMM: f.pours(amounts), PlanMM: f.pours(nil), SplashG: f.splash, Clock: f.clocked(common),
		MixedAt: f.mixed, RestAt: f.rest, Made: f.made, Last: f.last, Events: events, BowlG: bowlFromG, Tasks: []TaskNow{}, Bowls: []BowlNow{},
	}
	f.sayTasks(&s, amounts)
	if liquid, ok := f.bowl.Liquid(); ok {
		s.Liquid = liquid.ID
	}
	if line, kept := f.jug(); line != "" {
		s.Liquid = line
		if p := f.done["weigh-"+line]; p != nil && p.at == In {
			s.jugG, s.KeptG = kept, math.Max(0, kept-f.splash)
		}
	}
	s.RestEnd, s.Test = f.restEnd(), f.testNow()
	s.Ask = f.ask(amounts)
	switch {
	case f.made:
		s.PoursMM, s.Offer = f.pours(f.poured(amounts)), f.offer(amounts)
	case f.more > 0: // it waits beside the bowl
		if line, _ := f.jug(); line != "" {
			s.PoursMM = f.pours(with(amounts, line, amounts[line]-f.more))
		}
	}
	return s
}

// sayTasks tells of every task and of what is in every bowl.
func (f *folding) sayTasks(s *State, amounts map[string]float64) {
	told := f.told(amounts)
	in := map[string]float64{}
	for _, t := range f.Plan.Tasks {
		now := f.taskNow(t)
		if t.Kind == Weigh {
			s.ToWeigh++
			if now.At == In || now.At == LeftOut {
				s.Weighed++
			}
			in[t.Bowl] += f.done[t.ID].in
		} else if step, ok := told[t.ID]; ok {
			now.Text, now.InCups, now.Uses = step.Text, step.inCups, step.Uses
		}
		s.Tasks = append(s.Tasks, now)
	}
	for _, b := range f.Plan.Bowls {
		s.Bowls = append(s.Bowls, BowlNow{b, in[b.Key]})
	}
}

// restEnd is when the rest is over; nil before it begins.
func (f *folding) restEnd() *time.Time {
	if f.rest == nil {
		return nil
	}
	var end *time.Time
	for _, t := range f.Plan.Tasks {
		if t.Kind == Rest {
			at := f.rest.Add(time.Duration(t.Minutes * float64(time.Minute)))
			end = &at
		}
	}
	return end
}

// testNow is what the first test has to show, and what the last one asked for.
func (f *folding) testNow() TestNow {
	out := TestNow{Advice: f.advice, Count: f.tests}
	if f.bowl.Judged {
		out.Should = f.bowl.Should()
	}
	if f.bowl.Judged && f.bowl.Spreads {
		now, rested := f.bowl.SpreadAt(0), f.bowl.SpreadAt(f.bowl.RestMin)
		out.TargetMM, out.RestedMM = &now, &rested
	}
	if g, liquid := f.bowl.OneSplash(); g > 0 {
		out.Splash = &Splash{Grams: g, Label: liquid.Label}
		if liquid.Fills != nil {
			_, out.Splash.Measure = liquid.Fills(g)
		}
	}
	return out
}

// clocked is the clock, after that of a common batter, with until when and what it says.
func (f *folding) clocked(common *Clock) Clock {
	c := f.ticked(common)
	c.Says = ClockWords{
		Away:   away(c.AwayS / 60),
		Stands: words.Either(c.InFridge, "in the fridge: the clock stands", "starts with the first egg or milk"),
		Fine:   fmt.Sprintf("out of the fridge, %s at", words.Minutes(safety.ChillAgainWithinMin)),
		Soon:   "do not chill it again, use it by",
		Over:   fmt.Sprintf("over %s: discard it", words.Minutes(safety.UseWithinMin)),
	}
	if c.Since != nil {
		chill, use := c.until(safety.ChillAgainWithinMin), c.until(safety.UseWithinMin)
		c.ChillBy, c.UseBy = &chill, &use
	}
	return c
}

// away says how much of a bowl's time nobody but its tablet knew of, from a minute on.
func away(minutes float64) string {
	if minutes < 1 {
		return ""
	}
	return words.Minutes(minutes) + " of it while away"
}

func (c Clock) until(minutes float64) time.Time {
	return c.Since.Add(time.Duration((minutes*60 - c.BeforeS) * float64(time.Second)))
}

// count is how many portions it is by now.
func (f *folding) count() int { return f.Plan.countAt(f.factor) }

func (p *Plan) countAt(factor float64) int { return int(math.Floor(float64(p.Count)*factor + 1e-9)) }

// toldStep is a step in grams and in cups.
type toldStep struct {
	mixing.Step
	inCups string
}

// told are the steps, by their tasks, with what is really in the bowl and in the jug; nil while they are as planned, or where
// the plan has other steps than today's rules.
func (f *folding) told(amounts map[string]float64) map[string]toldStep {
	moved := false
	for _, t := range f.Plan.Tasks {
		moved = moved || t.Kind == Weigh && math.Abs(amounts[t.Line]-t.Grams) > t.Slack
	}
	if !moved {
		return nil
	}
	now := f.bowl.With(amounts)
	_, now.KeptG = f.jug()
	grams, cups := mixing.Order(now), mixing.Order(now.InCups())
	out := map[string]toldStep{}
	for n, s := range grams {
		if n < len(cups) {
			out[stepID(s)] = toldStep{s, cups[n].Text}
		}
	}
	steps := 0
	for _, t := range f.Plan.Tasks {
		if t.Kind == Weigh {
			continue
		}
		if steps++; out[t.ID].Text == "" {
			return nil
		}
	}
	if steps != len(grams) || steps != len(cups) {
		return nil
	}
	return out
}

func (f *folding) taskNow(t Task) TaskNow {
	p := f.done[t.ID]
	now := TaskNow{Task: t.clone(), At: p.at, InG: p.in, FillsIn: p.fills, Extra: p.extra, Spooning: p.spooning}
	if t.Kind != Weigh {
		for _, u := range t.Uses {
			if w := f.done["weigh-"+u.ID]; p.at == ToCome && w != nil && (w.at == ToCome || w.at == More) {
				now.Missing = append(now.Missing, "weigh-"+u.ID)
			}
		}
		return now
	}
	now.Behind = f.behind(t)
	now.AsksG = f.asks(t)
	if p.at == More {
		now.AsksG -= p.in
	}
	slack := t.Slack
	if t.Counted { // as many as asked for, whatever they weigh
		slack = countedSlack * t.Grams
	}
	now.LowG, now.HighG = now.AsksG-slack, now.AsksG+slack
	now.FillsAll = len(f.fills(t))
	if i := f.item(t.Line); i.Fills != nil && now.AsksG != t.Grams {
		now.Fills, now.Measure = i.Fills(now.AsksG)
	}
	if i := f.item(t.Line); (p.at == ToCome || p.at == More) && i.Ingredient != nil && f.used(t.Line) {
		now.Late, now.LeaveOut = i.Late()
	}
	return now
}

// behind are the tasks before a weigh-in that are not in, of other bowls that something is in.
func (f *folding) behind(t Task) []string {
	begun := map[string]bool{}
	for _, other := range f.Plan.Tasks {
		begun[other.Bowl] = begun[other.Bowl] || f.done[other.ID].in > 0
	}
	var out []string
	for _, other := range f.Plan.Tasks {
		if other.ID == t.ID {
			break
		}
		if other.Kind == Weigh && other.Bowl != t.Bowl && begun[other.Bowl] && f.done[other.ID].at == ToCome {
			out = append(out, other.ID)
		}
	}
	return out
}

// bowlFromG is what the lightest bowl weighs [g] (modelling choice: a paper cup is lighter than any bowl on a counter).
const bowlFromG = 20

// countedSlack is how far eggs may weigh from what was reckoned (modelling choice: the sizes of a box).
const countedSlack = 0.3

// used tells whether a step that takes a line in is done.
func (f *folding) used(line string) bool {
	for _, t := range f.Plan.Tasks {
		if f.done[t.ID].at == In && slices.ContainsFunc(t.Uses, func(u mixing.Use) bool { return u.ID == line }) {
			return true
		}
	}
	return false
}

// short is the beginning of a step.
func short(text string) string {
	r := []rune(text)
	if len(r) <= 40 {
		return text
	}
	return string(r[:40]) + "…"
}
