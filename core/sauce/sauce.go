package sauce

import (
	"fmt"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/words"
)

// Kind is what is made.
type Kind string

// The kinds.
const (
	Compote    Kind = "compote"
	FruitSyrup Kind = "fruit_syrup" // strained, then boiled down
	SugarSyrup Kind = "sugar_syrup"
	Caramel    Kind = "caramel"
	Cream      Kind = "cream"
	Butter     Kind = "butter" // flavoured, or browned
	Macerated  Kind = "macerated"
	Nut        Kind = "nut" // nut butter or chocolate, thinned
	Dairy      Kind = "dairy"
	Filling    Kind = "filling"
)

// Kinds lists them.
var Kinds = []Kind{Compote, FruitSyrup, SugarSyrup, Caramel, Cream, Butter, Macerated, Nut, Dairy, Filling}

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
	By   By
	At   float64 // what the device shows then: g, °Brix or °C; 0 by eye
	From float64 // what it showed at the start
	Text string
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

// Result is a pot that was worked out.
type Result struct {
	Parts    []food.Part // scaled to the servings that are wanted
	Start    State
	End      State
	WaterOff float64 // g that boil or spit off
	Sieved   float64 // g that stay in the sieve
	LiquidG  float64 // of macerated fruit: the juice that was drawn, with the sugar in it
	Stops    []Stop
	Steps    []string
	Serve    string // before it goes on, in a sentence; empty when there is nothing to do
	Servings int
	ServingG float64
	SugarsG  float64 // a serving
	Sweet    float64 // a serving, as g of white sugar taste
	Texture  string
	KeepDays int
	Cautions []string
	When     batter.MadeWhen
	Served   Served
	Total    food.Total // at the end

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

// What is usual of a kind (common practice, no source).
type usual struct {
	brix     float64 // to which it is boiled; 0: it is not
	servingG float64
	keepDays int
	when     batter.MadeWhen
	served   Served
	place    batter.Place // on top where nothing else is said
}

var usuals = map[Kind]usual{
	Compote: {0, 40, 5, batter.MadeBefore, Warm, batter.OnTop}, FruitSyrup: {65, 20, 30, batter.MadeBefore, Cold, batter.OnTop}, SugarSyrup: {66, 20, 30, batter.MadeBefore, Cold, batter.OnTop}, Caramel: {0, 20, 14, batter.MadeBefore, Warm, batter.OnTop},
	Cream: {0, 25, 1, batter.MadeResting, Cold, batter.OnTop}, Butter: {0, 10, 14, batter.MadeBefore, Cold, batter.OnTop}, Macerated: {0, 40, 2, batter.MadeBefore, Cold, batter.OnTop}, Nut: {0, 20, 14, batter.MadeResting, Warm, batter.OnTop},
	Dairy: {0, 40, 2, batter.MadeResting, Cold, batter.OnTop}, Filling: {0, 30, 2, batter.MadeBefore, Cold, batter.Middle},
}

// Place is where it usually goes.
func (r Result) Place() batter.Place { return usuals[r.pot.Kind].place }

// UsualG is what one serving of a kind usually weighs [g].
func UsualG(k Kind) float64 { return usuals[k].servingG }

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

// Made is which kind it is.
func (r Result) Made() Kind { return r.pot.Kind }

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
	t, wanted := p.Target, 0
	for _, v := range []float64{t.Brix, t.MassG, t.TemperatureC} {
		if v != 0 {
			wanted++
		}
	}
	if t.MassG != 0 && t.Servings != 0 { // both say how much
		wanted++
	}
	switch {
	case !slices.Contains(Kinds, p.Kind):
		return problem("kind", "unknown_choice", "Say what it is to be.")
	case wanted > 1:
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

// pot is a pot that is being worked out.
type pot struct {
	Pot
	Result
}

func work(in Pot) (Result, error) {
	w := &pot{Pot: in}
	start := food.Whole(in.Parts)
	u := usuals[in.Kind]
	w.Result.Parts, w.Result.pot, w.Start = in.Parts, in, w.state(start)
	w.KeepDays, w.When, w.Result.Served = u.keepDays, u.when, u.served
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
	var err error
	switch in.Kind {
	case Compote:
		err = w.compote(start)
	case FruitSyrup:
		err = w.fruitSyrup(start)
	case SugarSyrup:
		err = w.syrup(start)
	case Caramel:
		err = w.caramel(start)
	case Cream:
		err = w.cream(start)
	case Butter:
		err = w.butter(start)
	case Macerated:
		err = w.macerate(start)
	default:
		err = w.stirred(start)
	}
	if err != nil {
		return Result{}, err
	}
	w.table()
	w.End = w.state(w.Total)
	if in.Kind == Cream {
		w.End.VolumeML *= 1 + w.overrun()/100
		w.End.BoilsC = nil
	}
	w.cautions()
	return w.Result, nil
}

func (w *pot) state(t food.Total) State { return stateOf(t, w.AltitudeM) }

func stateOf(t food.Total, altitudeM float64) State {
	s := State{MassG: t.Mass}
	if d := t.Density(); d > 0 {
		s.VolumeML = t.Mass / d
	}
	if t.Water > 0 && t.Sugars > 0 && t.Fat < butterIs*t.Mass { // fat neither boils nor reads
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

// BoiledDown tells whether a kind is boiled down to something.
func BoiledDown(k Kind) bool {
	return k == Compote || k == FruitSyrup || k == SugarSyrup || k == Caramel
}

func isSteeped(in *food.Ingredient) bool { return in.Is(food.Steeps) }

// steep says what is done with leaves, pods and sticks.
func (w *pot) steep(leaves []food.Part) {
	switch {
	case w.Kind == Caramel:
		w.step("Steep %s for 10 min in what is poured in later, warm, and strain.", named(leaves))
	case BoiledDown(w.Kind):
		w.step("Put %s in with the rest, and take it out at the end.", named(leaves))
	case w.Kind == Cream:
		w.step("Warm the cream, steep %s in it for 10 min, strain, and chill it overnight or for 4 h: warm it does not whip.", named(leaves))
	default:
		w.step("Steep %s for 10 min in what is warm and wet of it, and strain.", named(leaves))
	}
}

// table says how it comes to the table.
func (w *pot) table() {
	switch hot := BoiledDown(w.Kind) || w.Browned; {
	case w.Result.Served == Warm && w.When != batter.MadeAtLast && w.Kind != Nut:
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
	boiled := BoiledDown(w.Kind)
	say(boiled, hotSugar)
	say(w.Kind == Caramel && w.Total.Fat > 0, foamsUp)
	say(w.Kind == Caramel || w.Browned || w.has(isSpirit) != nil, fire)
	say(!boiled && w.has(isEgg) != nil, "It has egg in it: heat it to 74 °C in the middle, by a probe, before anybody eats of it.")
	say(w.Kind == Cream || w.Kind == Dairy, "In the fridge until it is served, and not out of it for more than 2 h; follow your local code.")
	say(true, "Keeps "+w.keeps())
}
