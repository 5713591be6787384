package griddle

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/happen"
	"upbeatladle/core/keep"
	"upbeatladle/core/words"
)

// Plate is a plate, a pan or an iron of the kitchen.
type Plate struct {
	ID      string  `json:"id"`
	Name    string  `json:"name"`
	Iron    bool    `json:"iron,omitzero"`
	Round   bool    `json:"round,omitzero"`
	WidthMM float64 `json:"width_mm"` // of all of it,
	DepthMM float64 `json:"depth_mm"`
	MouldMM float64 `json:"mould_mm,omitzero"` // and of one waffle
	LongMM  float64 `json:"long_mm,omitzero"`

	Takes   []batter.Form `json:"takes"`              // forms that go on it,
	BestFor []batter.Form `json:"best_for,omitempty"` // and those that it is made for
}

// PlatesOf are those of a kitchen.
func PlatesOf(k batter.Kitchen) []Plate {
	var out []Plate
	flat := slices.DeleteFunc(slices.Clone(batter.Forms), func(f batter.Form) bool { return f == batter.Waffle })
	for _, g := range k.Griddles {
		p := Plate{ID: g.ID, Name: g.Name, Round: g.Round, WidthMM: g.WidthMM, DepthMM: g.DepthMM, Takes: flat}
		if g.Round {
			p.BestFor = []batter.Form{batter.Crepe}
		}
		out = append(out, p)
	}
	for _, i := range k.Irons {
		across, rows := grid(i)
		out = append(out, Plate{ID: i.ID, Name: i.Name, Iron: true, Round: i.Round, WidthMM: float64(across) * i.WidthMM,
			DepthMM: float64(rows) * i.LengthMM, MouldMM: i.WidthMM, LongMM: i.LengthMM, Takes: []batter.Form{batter.Waffle}})
	}
	return out
}

// Phase is where a place stands.
type Phase string

// The phases.
const (
	Free   Phase = "free"
	Waits  Phase = "waits" // for the verdict, or for the plate
	First  Phase = "first"
	Second Phase = "second"
	Shut   Phase = "shut" // an iron
	Idle   Phase = "idle" // nothing is poured there any more
)

// State is a board at a moment.
type State struct {
	Plates   []PlateNow `json:"plates"`
	Bowls    []BowlNow  `json:"bowls"`
	Todo     []Todo     `json:"todo"` // the most urgent first
	Rack     []Tray     `json:"rack"` // what has the least time left first
	Flat     []Flat     `json:"flat"` // in the freezer, not bagged yet
	OvenOn   bool       `json:"oven_on"`
	FoodC    *float64   `json:"food_c,omitzero"`
	FoodAt   *time.Time `json:"food_at,omitzero"`
	FoodSays string     `json:"food_says"`
	OvenC    float64    `json:"oven_c"`
	Served   int        `json:"served"`
	OnPlates int        `json:"on_plates"` // that cook now
	OnRack   int        `json:"on_rack"`
	LastOff  *time.Time `json:"last_off,omitzero"`
	Stopped  bool       `json:"stopped"`
	Closed   bool       `json:"closed"`
	Last     *Last      `json:"last,omitzero"`
	Events   int        `json:"events"`
	Cautions []string   `json:"cautions"`
}

// Last is what “take back” takes back.
type Last struct {
	Event string `json:"event"`
	Text  string `json:"text"`
}

// PlateNow is a plate with what is on it.
type PlateNow struct {
	Plate
	Bowl   string     `json:"bowl,omitzero"` // that is poured on it
	Line   []string   `json:"line"`          // bowls that follow, those with the fewest allergens first
	Use    int        `json:"use"`           // so many places of those that fit
	Fit    int        `json:"fit"`
	OnAt   *time.Time `json:"on_at,omitzero"`
	Hot    bool       `json:"hot"`
	Places []PlaceNow `json:"places"`
	Says   string     `json:"says,omitzero"` // why nothing is poured
	Mind   string     `json:"mind,omitzero"` // the change of pan that comes, or came
}

// PlaceNow is a place with what lies on it.
type PlaceNow struct {
	Number  int        `json:"number"`
	Place   int        `json:"place"`
	X       float64    `json:"x_mm"`
	Y       float64    `json:"y_mm"`
	MM      float64    `json:"across_mm"`
	Phase   Phase      `json:"phase"`
	Bowl    string     `json:"bowl,omitzero"`
	Portion string     `json:"portion,omitzero"`
	Nth     int        `json:"nth,omitzero"` // of its bowl
	Test    bool       `json:"test,omitzero"`
	Since   *time.Time `json:"since,omitzero"`
	DueAt   *time.Time `json:"due_at,omitzero"`
	ByAt    *time.Time `json:"by_at,omitzero"`
	ForS    float64    `json:"for_s,omitzero"` // of this side
	Next    *Todo      `json:"next,omitzero"`  // what a touch does
}

// Saw is the time that one was really on the plate [s, to 5]; in an iron the first is the time closed.
type Saw struct {
	FirstS  float64 `json:"first_s"`
	SecondS float64 `json:"second_s,omitzero"`
}

// sawWorthS is by how many s the clock has to differ from the plan for a cook's own minutes to be offered (modelling choice).
const sawWorthS = 10.0

// saw is what one took, by the ticks of its cook; nil where it is as planned.
func (b *bowl) saw(c *cake) *Saw {
	to5 := func(from, to time.Time) float64 { return 5 * math.Round(to.Sub(from).Seconds()/5) }
	switch {
	case c == nil || c.gone.IsZero():
		return nil
	case b.Iron():
		s := &Saw{FirstS: to5(c.poured, c.gone)}
		if math.Abs(s.FirstS-b.FirstS) < sawWorthS {
			return nil
		}
		return s
	case c.flipped.IsZero():
		return nil
	}
	s := &Saw{to5(c.poured, c.flipped), to5(c.flipped, c.gone)}
	if s.FirstS < shortest || s.SecondS < shortest || math.Abs(s.FirstS-b.FirstS) < sawWorthS && math.Abs(s.SecondS-b.SecondS) < sawWorthS {
		return nil
	}
	return s
}

// BowlNow is a bowl as far as it has come.
type BowlNow struct {
	Key string `json:"key"`
	Bowl
	Poured  int     `json:"poured"`
	Lifted  int     `json:"lifted"`
	Early   int     `json:"early"` // flips and lifts that came too early,
	Late    int     `json:"late"`  // and too late
	Testing bool    `json:"testing"`
	Judge   bool    `json:"judge"`         // the first one waits for a verdict
	Stir    string  `json:"stir,omitzero"` // before more is poured
	Verdict Verdict `json:"verdict,omitzero"`
	Ended   bool    `json:"ended"`
	Saw     *Saw    `json:"saw,omitzero"` // what the first one took, where that was right and is worth keeping

	Carried []string `json:"carried,omitempty"` // allergens of what lay on the same plate before, washed or not
}

// Tray is what waits in the oven together.
type Tray struct {
	Key   string    `json:"key"`
	Bowl  string    `json:"bowl"`
	Count int       `json:"count"`
	Since time.Time `json:"since"`
	How   string    `json:"how"`
	Limit float64   `json:"limit_min"`
	keep.Look
	MayFreeze bool   `json:"may_freeze"`
	NoFreeze  string `json:"no_freeze,omitzero"`

	Course []Turn `json:"course"` // what there is to say when, for a tablet that the program is away from
}

// Turn is a moment from which on there is something else to say of a tray.
type Turn struct {
	At    time.Time    `json:"at"`
	State keep.Waiting `json:"state"`
	Text  string       `json:"text,omitzero"`
}

// Flat is what lies flat in the freezer until it can be bagged.
type Flat struct {
	Key   string    `json:"key"`
	Bowl  string    `json:"bowl"`
	Count int       `json:"count"`
	Since time.Time `json:"since"`
	DueAt time.Time `json:"due_at"`
	Each  int       `json:"each"` // that a pack usually has
}

// How a board is run (modelling choices).
const (
	readyS     = 6.0  // before it is due a cook gets ready; earlier is early
	firstWaits = 0.15 // of the first side it may stay on,
	nextWaits  = 0.20 // of the second,
	ironWaits  = 0.10 // and in an iron
	leastWaits = 8.0  // s, and never less
	placeBy    = 0.25 // of the first side pieces may be laid on, while the top is wet
	trayS      = 180  // s within which what is lifted lies on one tray and counts as the first of it
	sameHeatC  = 3.0  // K that nobody sets anew
)

type cake struct {
	id, bowl              string
	place, nth            int
	test, placed          bool
	poured, flipped, gone time.Time
}

type plate struct {
	Plate
	line    []string
	onAt    time.Time
	set     *setting // what its dial stands at; nil while nobody has said that it is hot
	greased string   // the bowl
	turned  turned   // where a step of the heat left it
	wiped   string   // for the bowl
	before  string   // the bowl that was poured last
	had     []string // allergens that lay on it
	use     map[string]int
	numbers []int
	cakes   []*cake           // that lie on it
	cleared map[int]time.Time // when the last one was taken off a place
}

// turned is a step of a bowl's heat that a plate stands at.
type turned struct {
	bowl string
	at   batter.HeatAt
}

// stands is the step of a bowl's heat that a plate stands at.
func (p *plate) stands(b *bowl) batter.HeatAt {
	if p.turned.bowl == b.Key {
		return p.turned.at
	}
	if _, ok := b.turnAt(batter.AtMixing); ok {
		return batter.AtMixing
	}
	return batter.AtPour
}

// turnAt is what a bowl wants of the plate at a moment.
func (b *bowl) turnAt(at batter.HeatAt) (HeatTurn, bool) {
	i := slices.IndexFunc(b.Turns, func(t HeatTurn) bool { return t.At == at })
	if i < 0 {
		return HeatTurn{}, false
	}
	return b.Turns[i], true
}

// setting is where a plate is set: its heat, and how far its dial is known to be off.
type setting struct{ c, shiftC float64 }

func (b *bowl) setting() *setting { return &setting{b.GriddleC, b.Adjust.ShiftC} }

type bowl struct {
	BowlNow
	plate *plate
	putOn time.Time
	test  string // the portion that is the test
}

// fold is what the events come to; nothing in it goes by the time at which it is looked at.
type fold struct {
	plates  []*plate
	bowls   map[string]*bowl
	order   []string
	cakes   map[string]*cake
	rack    []*tray
	flat    []Flat
	foodC   float64
	foodAt  *time.Time
	numbers int

	ovenOn, stopped, closed bool

	served int
	last   *Last
}

type tray struct {
	key, bowl string
	since     time.Time
	pieces    []string // portions
}

// Board is a morning at the plates as it goes on: what happens is taken one by one, and it says how it stands at a
// moment. Events that came too late to mean anything change nothing; what waited on its tablet counts from when it
// happened, and never from before what it needs. It is not safe for concurrent use; what it says is nobody else's.
type Board struct {
	*happen.Story[Event, *Event, *fold]
}

// BoardOf is a board on which nothing happened yet.
func BoardOf(plates []Plate) Board {
	return Board{happen.Begin[Event, *Event](func() *fold {
		f := &fold{bowls: map[string]*bowl{}, cakes: map[string]*cake{}, foodC: math.NaN()}
		for _, p := range plates {
			f.plates = append(f.plates, &plate{Plate: p, use: map[string]int{}, cleared: map[int]time.Time{}})
		}
		return f
	}, (*fold).take)}
}

// State is how the board stands at a moment.
func (b Board) State(at time.Time) State {
	t := telling{fold: b.Fold(), now: at}
	t.out.Events = len(b.Events())
	t.tell()
	return t.out
}

// Earliest is when an event can have happened at the earliest, after what is there: a flip not before its pour. It is
// the zero time when it needs nothing.
func (b Board) Earliest(e Event) time.Time { return b.Fold().needs(e) }

// Fold is a board at a moment, after what happened, in the order in which it landed.
func Fold(plates []Plate, events []Event, at time.Time) State {
	b := BoardOf(plates)
	for _, e := range events {
		b.Take(e)
	}
	return b.State(at)
}

func (f *fold) take(_ int, e Event, counts bool) {
	if !counts || !Rows.Means(e.Kind, e) {
		return
	}
	e.At = happen.Later(e.At, f.needs(e))
	if text := f.apply(e); text != "" {
		if waited := e.Said().Waited(); waited >= time.Minute {
			text += fmt.Sprintf(", %s before it landed", words.Minutes(waited.Minutes()))
		}
		f.last = &Last{e.ID, text}
		f.settle()
	}
}

// needs is when what an event builds on was there.
func (f *fold) needs(e Event) (at time.Time) {
	if c := f.cakes[e.Portion]; c != nil {
		return happen.Later(c.poured, c.flipped)
	}
	switch e.Kind {
	case Poured:
		if p := f.plate(e.Plate); p != nil {
			at = p.cleared[e.Place]
			if b := f.active(p); b != nil {
				at = happen.Later(at, b.putOn)
			}
		}
	case Judged, Stirred, Ended:
		if b := f.bowls[e.Of]; b != nil {
			at = b.putOn
			if c := f.cakes[b.test]; c != nil {
				at = happen.Later(at, c.gone)
			}
		}
	case Served, Thrown, Frozen, Bagged:
		for _, t := range f.rack {
			if t.key == e.Tray {
				for _, id := range t.pieces {
					at = happen.Later(at, f.cakes[id].gone)
				}
			}
		}
		for _, x := range f.flat {
			if x.Key == e.Tray {
				at = happen.Later(at, x.Since)
			}
		}
	}
	return at
}

func (f *fold) plate(id string) *plate {
	at := slices.IndexFunc(f.plates, func(p *plate) bool { return p.ID == id })
	if at < 0 {
		return nil
	}
	return f.plates[at]
}

// active is the bowl that is poured on a plate: the one that lies on it, else the first that is not through.
func (f *fold) active(p *plate) *bowl {
	if len(p.cakes) > 0 {
		return f.bowls[p.cakes[0].bowl]
	}
	for _, key := range p.line {
		if b := f.bowls[key]; b.open() {
			return b
		}
	}
	return nil
}

// open tells whether more of a bowl is poured.
func (b *bowl) open() bool { return !b.Ended && b.Poured < b.Count && b.Trouble == "" }

// apply does what an event says, and says what was done; empty when it changes nothing.
func (f *fold) apply(e Event) string {
	p := f.plate(e.Plate)
	switch e.Kind {
	case PutOn:
		return f.putOn(e)
	case Poured:
		return f.pour(e, p)
	case Placed, Flipped, Lifted:
		return f.onPortion(e)
	case Judged, Stirred, Ended:
		return f.onBowl(e)
	case Served, Thrown, Frozen:
		return f.offRack(e)
	case Bagged:
		at := slices.IndexFunc(f.flat, func(x Flat) bool { return x.Key == e.Tray })
		if at < 0 {
			return ""
		}
		n := f.flat[at].Count
		f.flat = slices.Delete(f.flat, at, at+1)
		return fmt.Sprintf("bagged %d", n)
	case Oven:
		f.ovenOn = !e.Off
		return words.Either(e.Off, "oven off", "oven on")
	case Probed:
		if f.foodAt == nil || !e.At.Before(*f.foodAt) { // a later reading outranks one that waited
			f.foodC, f.foodAt = *e.C, &e.At
		}
		return fmt.Sprintf("food %.0f °C", *e.C)
	case Stopped:
		f.stopped = !e.Off
		return words.Either(e.Off, "poured on", "stopped pouring")
	case Closed:
		f.closed = true
		return "board put away"
	}
	if p == nil {
		return ""
	}
	return f.onPlate(e, p)
}

// onPlate folds what happened to a plate.
func (f *fold) onPlate(e Event, p *plate) string {
	if e.Kind == SwitchOn {
		p.onAt = e.At
		return "switched on " + words.Lower(p.Name)
	}
	b := f.active(p)
	if b == nil {
		return ""
	}
	switch e.Kind {
	case Turned:
		to, ok := b.TurnedTo(e)
		if !ok {
			return ""
		}
		was, _ := b.turnAt(p.stands(b))
		p.turned = turned{b.Key, to.At}
		return words.Lower(p.Name) + " " + words.Lower(to.From(was.C))
	case IsHot:
		p.set = b.setting()
		return words.Lower(p.Name) + " is hot"
	case Greased:
		p.greased = b.Key
		return "greased " + words.Lower(p.Name)
	case Wiped:
		p.wiped = b.Key
		return "washed " + words.Lower(p.Name)
	case Uses:
		if e.Count < 1 || e.Count > len(b.Places) {
			return ""
		}
		p.use[b.Key] = e.Count
		return fmt.Sprintf("%d places on %s", e.Count, words.Lower(p.Name))
	}
	return ""
}

// settle numbers the places in use of the bowls that are poured, in the order in which they came.
func (f *fold) settle() {
	for _, p := range f.plates {
		if b := f.active(p); b != nil {
			f.number(p, p.use[b.Key])
		}
	}
}

// number gives so many places of a plate numbers; those that have one keep it.
func (f *fold) number(p *plate, n int) {
	for len(p.numbers) < n {
		f.numbers++
		p.numbers = append(p.numbers, f.numbers)
	}
}

func (f *fold) putOn(e Event) string {
	if e.Bowl == nil {
		return ""
	}
	p := f.plate(e.Bowl.Plate)
	if p == nil || len(e.Bowl.Places) == 0 {
		return ""
	}
	b := &bowl{BowlNow: BowlNow{Key: e.ID, Bowl: *e.Bowl, Testing: e.Bowl.Count > 1}, plate: p, putOn: e.At}
	f.bowls[e.ID] = b
	f.order = append(f.order, e.ID)
	p.line = append(p.line, e.ID)
	f.sort(p)
	p.use[e.ID] = b.KeepsUp()
	return words.Lower(b.Name) + " on " + words.Lower(p.Name)
}

// sort puts the bowls that are not begun in the order of their allergens.
func (f *fold) sort(p *plate) {
	if begun := slices.IndexFunc(p.line, func(key string) bool { return f.bowls[key].Poured == 0 }); begun >= 0 {
		ByAllergens(p.line[begun:], func(key string) Bowl { return f.bowls[key].Bowl })
	}
}

func (f *fold) pour(e Event, p *plate) string {
	if p == nil {
		return ""
	}
	b := f.active(p)
	if b == nil || !b.open() || e.Of != "" && e.Of != b.Key || e.Place < 1 || e.Place > len(b.Places) || f.at(p, e.Place) != nil {
		return ""
	}
	b.Poured++
	c := &cake{id: e.ID, bowl: b.Key, place: e.Place, nth: b.Poured, poured: e.At}
	if b.Testing && b.test == "" {
		c.test, b.test = true, e.ID
	}
	b.carry(p.had)
	p.had = union(p.had, append(slices.Clone(b.Contains), b.NotKnown...))
	p.before = b.Key
	if p.onAt.IsZero() {
		p.onAt = e.At
	}
	p.set, p.greased = b.setting(), b.Key
	if p.turned.bowl != b.Key { // whoever pours has turned it
		p.turned = turned{b.Key, batter.AtPour}
	}
	f.number(p, e.Place)
	p.cakes = append(p.cakes, c)
	f.cakes[c.id] = c
	return fmt.Sprintf("poured %d", p.numbers[e.Place-1])
}

// carry keeps what else lay on the plate that a bowl was poured on.
func (b *bowl) carry(had []string) {
	for _, a := range had {
		if !slices.Contains(b.Contains, a) && !slices.Contains(b.NotKnown, a) && !slices.Contains(b.Carried, a) {
			b.Carried = append(b.Carried, a)
		}
	}
}

func union(a, b []string) []string {
	out := append(slices.Clone(a), b...)
	slices.Sort(out)
	return slices.Compact(out)
}

func (f *fold) at(p *plate, place int) *cake {
	for _, c := range p.cakes {
		if c.place == place {
			return c
		}
	}
	return nil
}

// onPortion moves a portion on.
func (f *fold) onPortion(e Event) string {
	c := f.cakes[e.Portion]
	if c == nil || !c.gone.IsZero() {
		return ""
	}
	b := f.bowls[c.bowl]
	p := b.plate
	number := p.numbers[c.place-1]
	switch {
	case e.Kind == Placed && !c.placed && c.flipped.IsZero():
		c.placed = true
		return fmt.Sprintf("laid on %d", number)
	case e.Kind == Flipped && !b.Iron() && c.flipped.IsZero():
		b.mark(e.At, c.poured, b.FirstS, firstWaits)
		c.flipped, c.placed = e.At, true
		return fmt.Sprintf("flipped %d", number)
	case e.Kind == Lifted && (b.Iron() || !c.flipped.IsZero() || e.To == ToBin):
		if b.Iron() {
			b.mark(e.At, c.poured, b.FirstS, ironWaits)
		} else if !c.flipped.IsZero() {
			b.mark(e.At, c.flipped, b.SecondS, nextWaits)
		}
		c.gone, p.cleared[c.place] = e.At, e.At
		p.cakes = slices.DeleteFunc(p.cakes, func(x *cake) bool { return x == c })
		b.Lifted++
		if c.test {
			b.Judge = true
		}
		switch e.To {
		case ToGuest:
			f.served++
			return fmt.Sprintf("served %d", number)
		case ToBin:
			return fmt.Sprintf("threw %d away", number)
		}
		f.rackUp(b, c)
		return fmt.Sprintf("lifted %d", number)
	}
	return ""
}

// mark counts what was done early or late.
func (b *bowl) mark(at, since time.Time, forS, share float64) {
	s := at.Sub(since).Seconds()
	switch {
	case s < forS-readyS:
		b.Early++
	case s > forS+waits(forS, share):
		b.Late++
	}
}

func waits(forS, share float64) float64 { return math.Max(leastWaits, share*forS) }

// rackUp puts what was lifted on the tray of its bowl, or on a new one.
func (f *fold) rackUp(b *bowl, c *cake) {
	for _, t := range f.rack {
		if t.bowl == b.Key && len(t.pieces) > 0 && len(t.pieces) < b.Hold.OnTray && c.gone.Sub(t.since) <= trayS*time.Second && !c.gone.Before(t.since) {
			t.pieces = append(t.pieces, c.id)
			return
		}
	}
	f.rack = append(f.rack, &tray{c.id, b.Key, c.gone, []string{c.id}})
}

func (f *fold) onBowl(e Event) string {
	b := f.bowls[e.Of]
	if b == nil {
		return ""
	}
	switch e.Kind {
	case Stirred:
		if b.Stir == "" {
			return ""
		}
		b.Stir = ""
		return "stirred it in"
	case Ended:
		if b.Ended {
			return ""
		}
		b.Ended = true
		return "no more of " + words.Lower(b.Name)
	}
	if e.Verdict == "" { // poured on without a verdict
		if !b.Testing {
			return ""
		}
		b.Testing, b.Judge, b.test = false, false, ""
		return "poured on without a verdict"
	}
	if !b.Judge {
		return ""
	}
	for _, x := range b.Effects {
		if x.Verdict == e.Verdict {
			b.Stir = x.Stir
		}
	}
	if e.Verdict == Raw { // it is nobody's breakfast
		for _, t := range f.rack {
			t.pieces = slices.DeleteFunc(t.pieces, func(id string) bool { return id == b.test })
		}
	}
	if e.Verdict == Torn { // it stuck
		b.plate.greased = ""
	}
	if e.Verdict == Right {
		b.Saw = b.saw(f.cakes[b.test])
	}
	b.Judge, b.test, b.Verdict, b.Testing = false, "", e.Verdict, e.Verdict != Right
	if e.Bowl != nil {
		was := len(b.Places)
		b.Bowl = *e.Bowl
		if len(b.Places) < was {
			b.plate.use[b.Key] = min(b.plate.use[b.Key], len(b.Places))
		}
	}
	for key, next := range e.Also {
		if x := f.bowls[key]; x != nil && x.Poured == 0 {
			x.Bowl = next
			x.plate.use[key] = min(x.plate.use[key], len(next.Places))
		}
	}
	return "the first one: " + verdictLabels[e.Verdict]
}

// offRack takes so many off a tray.
func (f *fold) offRack(e Event) string {
	at := slices.IndexFunc(f.rack, func(t *tray) bool { return t.key == e.Tray })
	if at < 0 || len(f.rack[at].pieces) == 0 {
		return ""
	}
	t := f.rack[at]
	n := len(t.pieces)
	if e.Count > 0 {
		n = min(n, e.Count)
	}
	if e.Kind == Frozen {
		look := f.look(t, e.At)
		if ok, _ := keep.MayFreeze(look); !ok {
			return ""
		}
		f.flat = append(f.flat, Flat{Key: e.ID, Bowl: t.bowl, Count: n, Since: e.At, DueAt: e.At.Add(keep.BagAfter(f.bowls[t.bowl].Form)), Each: min(n, keep.UsualPack)})
	}
	t.pieces = t.pieces[n:]
	switch e.Kind {
	case Served:
		f.served += n
		return fmt.Sprintf("sent %d", n)
	case Thrown:
		return fmt.Sprintf("threw %d away", n)
	}
	return fmt.Sprintf("%d into the freezer", n)
}

func (f *fold) oven() keep.Rack { return keep.Rack{OvenOn: f.ovenOn, FoodC: f.foodC} }

func (f *fold) look(t *tray, at time.Time) keep.Look {
	return f.oven().At(f.bowls[t.bowl].Form, at.Sub(t.since))
}

// Text tells a board in a few lines: what came of every bowl, and what it contains.
func (s State) Text() string {
	var b strings.Builder
	for _, x := range s.Bowls {
		fmt.Fprintf(&b, "%s: %d of %d poured, %d off the plate", x.Name, x.Poured, x.Count, x.Lifted)
		if x.Early+x.Late > 0 {
			fmt.Fprintf(&b, " (%d flipped or lifted early, %d late)", x.Early, x.Late)
		}
		if x.Verdict != "" {
			fmt.Fprintf(&b, "; the first one: %s", verdictLabels[x.Verdict])
		}
		fmt.Fprintf(&b, "\n%s\n", x.Allergens)
	}
	for _, t := range s.Rack {
		fmt.Fprintf(&b, "In the oven: %d × %s, %.0f min\n", t.Count, s.name(t.Bowl), t.HeldMin)
	}
	for _, t := range s.Flat {
		fmt.Fprintf(&b, "Flat in the freezer: %d × %s\n", t.Count, s.name(t.Bowl))
	}
	fmt.Fprintf(&b, "Served: %d\n", s.Served)
	return b.String()
}

func (s State) name(key string) string {
	for _, b := range s.Bowls {
		if b.Key == key {
			return b.Name
		}
	}
	return ""
}
