package sauce

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// Target is when a pot is done: one of them, or none for what is usual.
type Target struct {
	Brix         float64
	MassG        float64
	TemperatureC float64
	Servings     int // with ServingG: the pot is scaled to them
	ServingG     float64
}

// Pot is what goes in and what is wanted of it.
type Pot struct {
	Kind      Kind
	Parts     []food.Part
	Target    Target
	AltitudeM float64
	Browned   bool    // of butter: until its solids are brown
	Minutes   float64 // that macerated fruit stands
	Overrun   float64 // of whipped cream: % more volume; 0 as usual
	WideMM    float64 // the pot across; 0: UsualPotMM
	EmptyG    float64 // the pot itself; 0: it was not weighed, and the scale is zeroed with it on
	Served    Served  // warm or cold; empty as usual
}

// Served is how it comes to the table.
type Served string

// The two ways.
const (
	Warm Served = "warm"
	Cold Served = "cold"
)

// State is a pot at a moment.
type State struct {
	MassG    float64  `json:"mass_g"`
	VolumeML float64  `json:"volume_ml"`
	Brix     *float64 `json:"brix,omitzero"`    // of what is dissolved; nothing where there is no water
	BoilsC   *float64 `json:"boils_c,omitzero"` // at this altitude
}

// Stop is a way to see that it is done, the surest first.
type Stop struct {
	By    By       `json:"by"`
	At    float64  `json:"at,omitzero"` // what the device shows then: g, °Brix or °C; nothing by eye
	From  float64  `json:"-"`           // what it showed at the start
	Unit  string   `json:"unit,omitzero"`
	Now   *float64 `json:"now,omitzero"`   // by a reading
	Share *float64 `json:"share,omitzero"` // of the way from the start to the stop
	Text  string   `json:"text"`
}

// By is what judges a pot.
type By string

// The judges.
const (
	ByWeight        By = "weight"
	ByRefractometer By = "refractometer"
	ByTemperature   By = "temperature"
	ByEye           By = "eye"
)

// unitOf is what a judge of a pot shows.
var unitOf = map[By]string{ByWeight: "g", ByRefractometer: "°Brix", ByTemperature: "°C"}

// Result is a pot that was worked out. Its fields have the names that they are published under.
type Result struct {
	Kind     Kind            `json:"kind"` // which syrup it is
	KindName string          `json:"kind_name"`
	Parts    []food.Part     `json:"-"` // scaled to the servings that are wanted
	Start    State           `json:"start"`
	End      State           `json:"end"`
	WaterOff float64         `json:"water_off_g"`       // that boils or spits off
	Sieved   float64         `json:"sieved_g,omitzero"` // that stays in the sieve
	JuiceG   float64         `json:"juice_g,omitzero"`  // that macerated fruit drew, with the sugar in it
	Stops    []Stop          `json:"stops"`
	Steps    []string        `json:"steps"`
	Serve    string          `json:"serve,omitzero"` // before it goes on, in a sentence; empty when there is nothing to do
	Servings int             `json:"servings"`
	ServingG float64         `json:"serving_g"`
	SugarsG  float64         `json:"sugars_g_per_serving"`
	Sweet    float64         `json:"sweet_as_sugar_g_per_serving"` // as g of white sugar taste
	Texture  string          `json:"texture"`
	KeepDays int             `json:"keep_days"`
	Cautions []string        `json:"cautions"`
	When     batter.MadeWhen `json:"when"`
	Served   Served          `json:"served"`
	Place    batter.Place    `json:"place"` // where it usually goes
	Total    food.Total      `json:"-"`     // at the end

	pot    Pot
	boiled food.Total // as it begins to boil down; nothing where it is not boiled
	stop   food.Total // as it comes off the heat
	colour string     // that it takes by itself; else its parts lend it
}

// Problem is what is wrong with a pot, as a sentence for a field.
type Problem struct{ Field, Code, Text string }

func (p *Problem) Error() string { return p.Text }

func problem(field, code, format string, args ...any) error {
	return &Problem{field, code, fmt.Sprintf(format, args...)}
}

// UsualG is what one serving of a kind usually weighs [g].
func UsualG(k Kind) float64 { return rowOf(k).servingG }

// How pots behave (modelling choices, unless they say otherwise).
const (
	compoteOff   = 0.12 // of the water that a compote simmers off
	pressedOut   = 0.75 // of the sap of cooked fruit that runs through the sieve
	spitsOff     = 0.06 // of the water of what is poured into hot sugar
	leastWhips   = 25.0 // % of fat below which cream does not whip (common practice: 30 and more)
	wellWhips    = 30.0
	usualOverrun = 100.0
	mostSweet    = 18.0 // g of sugar in 100 g of whipped cream from which it weeps
	drawnMost    = 0.5  // of its water that fruit gives up to sugar,
	drawnSugar   = 0.25 // g of sugar a g of fruit at which it gives up 63 % of that,
	drawnMin     = 45.0 // and minutes likewise
	usualStands  = 45.0 // min
	maxBrix      = 99.0
	maxC         = 190.0
	burnsC       = 190.0
	MaxServings  = 2000
	butterIs     = 0.4 // of it is fat, or it is no butter
)

// isSugar tells what makes syrup and caramel.
func isSugar(in *food.Ingredient) bool {
	return in.Group == food.GroupSugar || in.Group == food.GroupSyrup || in.Sugars > 60 && in.Fat < 5
}

func isWater(in *food.Ingredient) bool { return in.Water > 99 }

// Work works a pot out. The error is *Problem.
func Work(p Pot) (Result, error) {
	if err := check(p); err != nil {
		return Result{}, err
	}
	t := p.Target
	p.Target.Servings, p.Target.ServingG = 0, 0
	r, err := work(p)
	if err != nil {
		return r, err
	}
	r.ServingG = UsualG(p.Kind)
	if t.ServingG > 0 {
		r.ServingG = t.ServingG
	}
	if t.Servings > 0 { // so much more or less of all
		if r, err = r.scaled(float64(t.Servings) * r.ServingG); err != nil {
			return r, err
		}
		r.Servings, r.ServingG = t.Servings, t.ServingG
	} else {
		r.Servings = int(r.Total.Mass/r.ServingG + 1e-9)
	}
	r.pot.Target = t
	r.serve()
	return r, nil
}

// Of is the same sauce in another size: grams of it at the end. The error is *Problem.
func (r Result) Of(grams float64) (Result, error) {
	out, err := r.scaled(grams)
	if err == nil {
		out.ServingG = r.ServingG
		out.Servings = int(out.Total.Mass/out.ServingG + 1e-9)
		out.serve()
	}
	return out, err
}

func (r Result) scaled(grams float64) (Result, error) {
	if r.Total.Mass <= 0 {
		return r, problem("lines", "empty", "Nothing is left in the pot.")
	}
	p, factor := r.pot, grams/r.Total.Mass
	p.Target.Servings, p.Target.ServingG = 0, 0
	p.Target.MassG *= factor
	p.Parts = slices.Clone(p.Parts)
	for i := range p.Parts {
		p.Parts[i].Grams *= factor
	}
	return work(p)
}

func check(p Pot) error {
	if len(p.Parts) == 0 {
		return problem("lines", "missing", "Say what goes into the pot.")
	}
	t := p.Target
	switch {
	case rowOf(p.Kind) == nil:
		return problem("kind", "unknown_choice", "Say what it is to be.")
	case t.wanted() > 1:
		return problem("target", "two_targets", "Give one target: °Brix, a weight, or a temperature; with °Brix or a temperature servings may be counted.")
	case t.Brix < 0 || t.Brix > maxBrix:
		return problem("target/brix", "out_of_range", "A syrup reads between 0 and %.0f °Brix: at 100 there is no water left in it.", maxBrix)
	case p.Served != "" && p.Served != Warm && p.Served != Cold:
		return problem("served", "unknown_choice", "It is served warm or cold.")
	case t.Servings > 0 && t.ServingG <= 0:
		return problem("target/serving_g", "missing", "Say how many grams a serving has.")
	case t.Servings < 0 || t.Servings > MaxServings:
		return problem("target/servings", "out_of_range", "Servings count from 1 to %d.", MaxServings)
	case t.TemperatureC != 0 && (t.TemperatureC < 60 || t.TemperatureC > maxC):
		return problem("target/temperature_c", "out_of_range", "Sugar is cooked between 100 and %.0f °C; above it burns.", burnsC)
	case t.MassG < 0:
		return problem("target/mass_g", "out_of_range", "A weight is above zero.")
	}
	return nil
}

// wanted is how many targets are given: a weight and servings are two, since both say how much.
func (t Target) wanted() (n int) {
	for _, is := range []bool{t.Brix != 0, t.MassG != 0, t.TemperatureC != 0, t.MassG != 0 && t.Servings != 0} {
		if is {
			n++
		}
	}
	return n
}

// pot is a pot that is being worked out.
type pot struct {
	Pot
	Result
	row *row
}

func work(in Pot) (Result, error) {
	w := &pot{Pot: in, row: rowOf(in.Kind)}
	start := food.Whole(in.Parts)
	w.Result.Kind, w.KindName = in.Kind, w.row.name
	w.Result.Parts, w.Result.pot, w.Start = in.Parts, in, w.state(start)
	w.KeepDays, w.When, w.Result.Served, w.Place = w.row.keepDays, w.row.when, w.row.served, w.row.place
	if in.Served != "" {
		w.Result.Served = in.Served
	}
	if leaves := w.has(isSteeped); leaves != nil { // they leave with what they came with; what they give weighs nothing
		w.Pot.Parts = w.has(not(isSteeped))
		w.Sieved = food.Whole(leaves).Mass
		start = food.Whole(w.Pot.Parts)
		w.steep(leaves)
		if len(w.Pot.Parts) == 0 {
			return Result{}, problem("lines", "nothing_to_steep_in", "There is nothing to steep it in: add water, cream or butter.")
		}
	}
	if err := w.row.work(w, start); err != nil {
		return Result{}, err
	}
	for i := range w.Stops {
		w.Stops[i].Unit = unitOf[w.Stops[i].By]
	}
	w.table()
	w.End = w.state(w.Total)
	if in.Kind == Cream {
		w.End.VolumeML *= 1 + w.overrun()/100
		w.Start.BoilsC, w.End.BoilsC = nil, nil // nobody boils it
	}
	w.fits()
	w.cautions()
	return w.Result, nil
}

// How high a pot is, as a share of its width, and how much higher what boils or foams in it stands (modelling choices; cream
// in hot sugar foams up to four times as high).
const (
	potHigh     = 0.6
	boilsHigher = 1.5
	foamsHigher = 4.0
)

// fits warns of a pot that was named and is too small.
func (w *pot) fits() {
	if w.WideMM <= 0 || !w.row.boiled {
		return
	}
	times := boilsHigher
	if w.row.kind == Caramel && w.Total.Fat > 0 {
		times = foamsHigher
	}
	high, ml := potHigh*w.WideMM, w.Start.VolumeML
	if stands := times * LevelMM(ml, w.WideMM); stands > high {
		wide := w.WideMM * math.Cbrt(stands/high)
		w.Cautions = append(w.Cautions, fmt.Sprintf("%.0f mm across is too small a pot: it would boil over. Take one of %.0f mm or more, or make less.", w.WideMM, 10*math.Ceil(wide/10)))
	}
}

func (w *pot) state(t food.Total) State { return stateOf(t, w.AltitudeM) }

func stateOf(t food.Total, altitudeM float64) State {
	s := State{MassG: t.Mass}
	if d := t.Density(); d > 0 {
		s.VolumeML = t.Mass / d
	}
	if t.Water > 0 && t.Sugars+t.Polyols > 0 && t.Fat < butterIs*t.Mass { // fat neither boils nor reads
		b, c := brixOf(t), boils(t, altitudeM)
		s.Brix, s.BoilsC = &b, &c
	}
	return s
}

func (r *Result) serve() {
	if r.Total.Mass <= 0 || r.ServingG <= 0 {
		return
	}
	share := r.ServingG / r.Total.Mass
	r.SugarsG, r.Sweet = r.Total.Sugars*share, r.Total.Sweetness()*share
}

func isSteeped(in *food.Ingredient) bool { return in.Is(food.Steeps) }

// steep says what is done with leaves, pods and sticks.
func (w *pot) steep(leaves []food.Part) {
	switch {
	case w.row.kind == Caramel:
		w.step("Steep %s for 10 min in what is poured in later, warm, and strain.", named(leaves))
	case w.row.boiled:
		w.step("Put %s in with the rest, and take it out at the end.", named(leaves))
	case w.row.kind == Cream:
		w.step("Warm the cream, steep %s in it for 10 min, strain, and chill it overnight or for 4 h: warm it does not whip.", named(leaves))
	default:
		w.step("Steep %s for 10 min in what is warm and wet of it, and strain.", named(leaves))
	}
}

// table says how it comes to the table.
func (w *pot) table() {
	switch hot := w.row.boiled || w.Browned; {
	case w.Result.Served == Warm && w.When != batter.MadeAtLast && w.row.kind != Nut:
		w.Serve = "Warm it gently, stirring, while the last ones cook."
	case w.Result.Served == Cold && hot:
		w.Serve = "Let it cool with the lid off, then chill it, within 2 h."
	}
}

// Cautions of hot sugar and of the rest (common practice, no source).
const (
	hotSugar = "Syrup and caramel burn deeper than water and stick: never touch or taste it, long handle, dry cloth, the cold tap near, children away."
	foamsUp  = "Cream and butter foam up in hot sugar: pour slowly, warm, into a pan four times as high."
	fire     = "A lid for fire within reach; spirit never near a flame."
)

// keeps says how long a sauce keeps.
func (r Result) keeps() string {
	return fmt.Sprintf("about %d %s in the fridge, covered; follow your local code.", r.KeepDays, words.Either(r.KeepDays == 1, "day", "days"))
}

// CautionsOf are the cautions as they stand beside those of other things: what is only about this sauce names it.
func (r Result) CautionsOf(name string) []string {
	out := slices.Clone(r.Cautions)
	for i, c := range out {
		if c == "Keeps "+r.keeps() {
			out[i] = name + " keeps " + r.keeps()
		}
	}
	return out
}

func (w *pot) cautions() {
	say := func(yes bool, text string) {
		if yes {
			w.Cautions = append(w.Cautions, text)
		}
	}
	boiled := w.row.boiled
	say(boiled, hotSugar)
	say(w.row.kind == Caramel && w.Total.Fat > 0, foamsUp)
	say(w.row.kind == Caramel || w.Browned || w.has(isSpirit) != nil, fire)
	say(!boiled && w.has(isEgg) != nil, "It has egg in it: heat it to 74 °C in the middle, by a probe, before anybody eats of it.")
	say(w.row.kind == Cream || w.row.kind == Dairy, "In the fridge until it is served, and not out of it for more than 2 h; follow your local code.")
	say(true, "Keeps "+w.keeps())
}
