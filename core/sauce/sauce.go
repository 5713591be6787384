package sauce

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
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
}

// State is a pot at a moment.
type State struct {
	MassG    float64  `json:"mass_g"`
	VolumeML float64  `json:"volume_ml"`
	Brix     *float64 `json:"brix,omitzero"`    // of what is dissolved; nothing where there is no water
	BoilsC   *float64 `json:"boils_c,omitzero"` // at this altitude
}

// Stop is a way to see that it is done, the surest first.
type Stop struct {
	By   string `json:"by"` // weight · temperature · refractometer · eye
	Text string `json:"text"`
}

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
	Servings int
	ServingG float64
	SugarsG  float64 // a serving
	Sweet    float64 // a serving, as g of white sugar taste
	Texture  string
	KeepDays int
	Cautions []string
	Total    food.Total // at the end
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
}

var usuals = map[Kind]usual{
	Compote: {0, 40, 5}, FruitSyrup: {65, 20, 30}, SugarSyrup: {66, 20, 30}, Caramel: {0, 20, 14}, Cream: {0, 25, 1}, Butter: {0, 10, 14},
	Macerated: {0, 40, 2}, Nut: {0, 20, 14}, Dairy: {0, 40, 2}, Filling: {0, 30, 2},
}

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
	if t.Servings > 0 { // once as it is, to see what it gives
		p.Target = Target{}
		r, err := work(p)
		if err != nil {
			return r, err
		}
		if r.Total.Mass <= 0 {
			return r, problem("lines", "empty", "Nothing is left in the pot.")
		}
		factor := float64(t.Servings) * t.ServingG / r.Total.Mass
		p.Parts = slices.Clone(p.Parts)
		for i := range p.Parts {
			p.Parts[i].Grams *= factor
		}
		r, err = work(p)
		r.Servings, r.ServingG = t.Servings, t.ServingG
		r.serve()
		return r, err
	}
	r, err := work(p)
	if err == nil {
		r.ServingG = usuals[p.Kind].servingG
		if t.ServingG > 0 {
			r.ServingG = t.ServingG
		}
		r.Servings = int(r.Total.Mass/r.ServingG + 1e-9)
		r.serve()
	}
	return r, err
}

func check(p Pot) error {
	if len(p.Parts) == 0 {
		return problem("lines", "missing", "Say what goes into the pot.")
	}
	t, wanted := p.Target, 0
	for _, v := range []float64{t.Brix, t.MassG, t.TemperatureC, float64(t.Servings)} {
		if v != 0 {
			wanted++
		}
	}
	switch {
	case !slices.Contains(Kinds, p.Kind):
		return problem("kind", "unknown_choice", "Say what it is to be.")
	case wanted > 1:
		return problem("target", "two_targets", "Give one target: °Brix, a weight, a temperature, or servings.")
	case t.Brix < 0 || t.Brix > maxBrix:
		return problem("target/brix", "out_of_range", "A syrup reads between 0 and %.0f °Brix: at 100 there is no water left in it.", maxBrix)
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
	w.Result.Parts = in.Parts
	w.Start = w.state(start)
	w.KeepDays = usuals[in.Kind].keepDays
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
	w.End = w.state(w.Total)
	if in.Kind == Cream {
		w.End.VolumeML *= 1 + w.overrun()/100
		w.End.BoilsC = nil
	}
	w.cautions()
	return w.Result, nil
}

func (w *pot) state(t food.Total) State {
	s := State{MassG: t.Mass}
	if d := t.Density(); d > 0 {
		s.VolumeML = t.Mass / d
	}
	if t.Water > 0 && t.Sugars > 0 {
		b, c := brixOf(t), boils(t, w.AltitudeM)
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

// boiledTo is how much water boils off to reach the target, or what is usual: to a °Brix, or a share of the water.
func (w *pot) boiledTo(t food.Total, brix, share float64) (float64, error) {
	off := 0.0
	switch g := w.Target; {
	case g.Brix > 0:
		if off = offToBrix(t, g.Brix); off < -1e-9 {
			return 0, problem("target/brix", "not_more", "It reads %.0f °Brix as it goes in, and boiling only raises that. Begin with more water, or ask for more.", brixOf(t))
		}
	case g.MassG > 0:
		if off = t.Mass - g.MassG; off < 0 {
			return 0, problem("target/mass_g", "not_less", "%.4g g is more than goes in (%.4g g). Boiling only takes away.", g.MassG, t.Mass)
		}
	case g.TemperatureC > 0:
		if now := boils(t, w.AltitudeM); g.TemperatureC < now-0.05 {
			return 0, problem("target/temperature_c", "not_more", "It boils at %.1f °C as it goes in: it is never cooler than that and boiling.", now)
		}
		ok := true
		if off, ok = offToTemperature(t, g.TemperatureC, w.AltitudeM); !ok {
			return 0, problem("target/temperature_c", "no_sugar", "It never boils so hot: there is too little sugar in it. Add sugar, or ask for less.")
		}
	case brix > 0:
		off = math.Max(0, offToBrix(t, brix))
	default:
		off = share * t.Water
	}
	if off > t.Water+1e-9 {
		return 0, problem("target/mass_g", "too_dry", "There is only %.0f g of water in the pot: it cannot lose %.0f g.", t.Water, off)
	}
	return math.Min(off, t.Water), nil
}

// stopsFor are the ways to see that a pot is done.
func (w *pot) stopsFor(t food.Total, eye string) {
	s := w.state(t)
	if s.BoilsC != nil && *s.Brix >= 50 {
		w.Stops = append(w.Stops, Stop{"temperature", fmt.Sprintf("it boils at %.1f °C here", *s.BoilsC)})
	}
	w.Stops = append([]Stop{{"weight", fmt.Sprintf("%.0f g in the pot", t.Mass)}}, w.Stops...)
	if s.Brix != nil && t.Fat < 0.02*t.Mass { // fat clouds the glass
		w.Stops = append(w.Stops, Stop{"refractometer", fmt.Sprintf("%.0f °Brix, cooled to 20 °C", *s.Brix)})
	}
	w.Stops = append(w.Stops, Stop{"eye", eye})
}

// byEye is how a syrup looks, by its °Brix when it is hot (common practice, no source).
func byEye(brix float64) string {
	switch {
	case brix < 50:
		return "it wets a cold spoon and runs off like water"
	case brix < 62:
		return "it coats a spoon thinly"
	case brix < 70:
		return "it falls off a cold spoon in slow drops"
	case brix < 78:
		return "the last drops hang together in a sheet"
	case brix < 85:
		return "it pulls a short thread between two fingers of cold wet tongs"
	case brix < 92:
		return "a drop in cold water makes a soft ball"
	}
	return "a drop in cold water turns hard"
}

func (w *pot) has(is func(*food.Ingredient) bool) []food.Part {
	var out []food.Part
	for _, p := range w.Pot.Parts {
		if is(p.Ingredient) {
			out = append(out, p)
		}
	}
	return out
}

// named lists parts with their grams.
func named(parts []food.Part) string {
	out := make([]string, len(parts))
	for i, p := range parts {
		out[i] = fmt.Sprintf("%s %s", words.Grams(p.Grams, stepOf(p.Grams)), words.Lower(p.Ingredient.Label()))
	}
	return words.List(out)
}

func stepOf(g float64) float64 {
	if g < 10 {
		return 0.1
	}
	return 1
}

func (w *pot) step(format string, args ...any) {
	w.Steps = append(w.Steps, fmt.Sprintf(format, args...))
}

func isStarch(in *food.Ingredient) bool { return in.Group == food.GroupStarch }
func isAcid(in *food.Ingredient) bool   { return in.Group == food.GroupAcid || in.Acid > 50 }
func isSpirit(in *food.Ingredient) bool { return in.Alcohol > 5 }
func isFlavour(in *food.Ingredient) bool {
	return in.Group == food.GroupSpice || in.Group == food.GroupHerb || in.Group == food.GroupZest
}

func not(all ...func(*food.Ingredient) bool) func(*food.Ingredient) bool {
	return func(in *food.Ingredient) bool {
		return !slices.ContainsFunc(all, func(is func(*food.Ingredient) bool) bool { return is(in) })
	}
}

func (w *pot) compote(t food.Total) error {
	off, err := w.boiledTo(t, 0, compoteOff)
	if err != nil {
		return err
	}
	w.WaterOff, w.Total = off, without(t, off)
	w.step("Put %s into a wide pan and bring it slowly to the boil.", named(w.has(not(isStarch, isAcid, isSpirit))))
	w.step("Simmer without a lid, stirring, until %.0f g are left (%.0f g of water go).", w.Total.Mass, off)
	if s := w.has(isStarch); s != nil {
		w.step("Stir %s smooth with a little cold water, stir it in, and let it boil for a minute.", named(s))
	}
	if s := w.has(isAcid); s != nil {
		w.step("Off the heat: stir in %s.", named(s))
	}
	w.spirit()
	w.stopsFor(w.Total, words.Either(w.has(isStarch) != nil, "a spoon drawn over the bottom leaves a lane that closes slowly", "a spoon drawn over the bottom leaves a lane for a moment"))
	w.Texture = words.Either(w.has(isStarch) != nil, "thick, it stays where it is put", "loose, with juice")
	return nil
}

func (w *pot) spirit() {
	if s := w.has(isSpirit); s != nil {
		w.step("Off the heat and away from the flame: stir in %s. Not all of its alcohol goes.", named(s))
	}
}

// SyrupOf is the syrup that parts make: one of fruit where there is fruit in it.
func SyrupOf(parts []food.Part) Kind {
	for _, p := range parts {
		if isFruit(p.Ingredient) {
			return FruitSyrup
		}
	}
	return SugarSyrup
}

func isFruit(in *food.Ingredient) bool {
	return in.HasCells() || in.Group == food.GroupPuree || in.Group == food.GroupFreshPiece || in.Group == food.GroupFrozenPiece
}

func (w *pot) fruitSyrup(t food.Total) error {
	fruit := w.has(isFruit)
	if fruit == nil {
		return problem("lines", "no_fruit", "There is no fruit in it: add some, or make a sugar syrup.")
	}
	through := food.Total{}
	for _, p := range w.Pot.Parts {
		if !isFruit(p.Ingredient) {
			through.Add(food.Whole([]food.Part{p}), 1)
			continue
		}
		sap := prep.Sap(p.Ingredient)
		if sap.Water <= 0 {
			continue
		}
		through.Add(food.Whole([]food.Part{{Ingredient: sap, Grams: pressedOut * p.Grams * p.Ingredient.Water / sap.Water}}), 1)
	}
	w.Sieved = t.Mass - through.Mass
	off, err := w.boiledTo(through, usuals[FruitSyrup].brix, 0)
	if err != nil {
		return err
	}
	w.WaterOff, w.Total = off, without(through, off)
	w.step("Simmer %s with a lid on until it falls apart, 10 to 15 min.", named(fruit))
	w.step("Strain it and press: about %.0f g run through, %.0f g stay in the sieve.", through.Mass, w.Sieved)
	if rest := w.has(not(isFruit, isSpirit)); rest != nil {
		w.step("Add %s and stir until it is clear.", named(rest))
	}
	w.step("Boil down to %.0f g.", w.Total.Mass)
	w.spirit()
	w.stopsFor(w.Total, byEye(brixOf(w.Total)))
	w.Texture = syrupWord(brixOf(w.Total))
	return nil
}

// syrupWord is how a cold syrup runs.
func syrupWord(brix float64) string {
	switch {
	case brix < 55:
		return "thin, it soaks in"
	case brix < 68:
		return "pours, and stays on top a while"
	case brix < 78:
		return "thick when cold"
	}
	return "too stiff to pour when cold, and it may turn to sugar again"
}

func (w *pot) syrup(t food.Total) error {
	if w.has(isSugar) == nil {
		return problem("lines", "no_sugar", "There is no sugar or syrup in it.")
	}
	off, err := w.boiledTo(t, usuals[SugarSyrup].brix, 0)
	if err != nil {
		return err
	}
	w.WaterOff, w.Total = off, without(t, off)
	w.step("Stir %s over a low heat until no grain is left; then do not stir any more.", named(w.has(not(isSpirit, isFlavour))))
	if s := w.has(isFlavour); s != nil {
		w.step("Put %s in, and strain it out at the end.", named(s))
	}
	if w.has(isAcid) == nil && brixOf(w.Total) > 68 {
		w.step("A few drops of lemon juice keep it from turning to sugar again.")
	}
	if off > 0.5 {
		w.step("Boil down to %.0f g (%.0f g of water go).", w.Total.Mass, off)
	}
	w.spirit()
	w.stopsFor(w.Total, byEye(brixOf(w.Total)))
	w.Texture = syrupWord(brixOf(w.Total))
	return nil
}

// A caramel by its water [% of its mass] when it is cold (common practice, no source).
const (
	caramelBrittle = 3.0
	caramelFirm    = 8.0
	caramelThick   = 17.0
)

// CaramelWord is how a caramel of so much water in 100 g stands when it is cold.
func CaramelWord(water float64) string {
	switch {
	case water < caramelBrittle:
		return "brittle: it cracks"
	case water < caramelFirm:
		return "firm: it is cut, not poured"
	case water < caramelThick:
		return "thick: a spoon of it keeps its shape"
	}
	return "pourable, also cold"
}

func (w *pot) caramel(t food.Total) error {
	sugar := w.has(isSugar)
	if sugar == nil {
		return problem("lines", "no_sugar", "There is no sugar in it.")
	}
	first := food.Whole(append(slices.Clone(sugar), w.has(isWater)...))
	later := t
	later.Add(first, -1)
	gone := first.Water
	spat := spitsOff * later.Water
	both := without(t, gone+spat)
	off := 0.0
	if w.Target != (Target{}) {
		var err error
		if off, err = w.boiledTo(both, 0, 0); err != nil {
			return err
		}
	}
	w.WaterOff, w.Total = gone+spat+off, without(both, off)
	if s := w.has(isFlavour); s != nil && later.Fat > 0 {
		w.step("Steep %s in the warm cream for 10 min, strain.", named(s))
	}
	if water := w.has(isWater); water != nil {
		w.step("Stir %s over a low heat until it is clear; then leave it alone and swirl the pan.", named(append(slices.Clone(sugar), water...)))
	} else {
		w.step("Melt %s dry, a third at a time, in a wide pan of light colour; swirl, do not stir.", named(sugar))
	}
	if w.has(isAcid) == nil {
		w.step("A few drops of lemon juice against crystals; a wet brush down the sides.")
	}
	w.step("Stop at the colour of amber, 170 to 175 °C; it goes on by itself, and burns from %.0f °C on.", burnsC)
	if rest := w.has(not(isSugar, isWater, isAcid, isFlavour, isSpirit)); rest != nil {
		w.step("Off the heat pour %s in slowly, warm, with a long handle: it foams up to four times as high and spits. Stir until it is smooth.", named(rest))
		w.step("Boil it up once more, until %.0f g are left.", w.Total.Mass)
	}
	w.spirit()
	share := 100 * w.Total.Water / w.Total.Mass
	w.Texture = CaramelWord(share)
	w.stopsFor(w.Total, "a drop, cooled on a cold plate: "+w.Texture)
	return nil
}

func (w *pot) overrun() float64 {
	if w.Pot.Overrun > 0 {
		return w.Pot.Overrun
	}
	return usualOverrun
}

func (w *pot) cream(t food.Total) error {
	fat := 100 * t.Fat / t.Mass
	if fat < leastWhips {
		return problem("lines", "too_lean", "It has %.0f g of fat in 100 g and does not whip: take cream of 30 to 40 %%, and less of the rest.", fat)
	}
	w.Total = t
	w.step("Chill bowl, whisk and cream, below 6 °C.")
	w.step("Whisk %s to soft peaks, about twice the volume.", named(w.has(not(isSpirit))))
	if s := w.has(isSpirit); s != nil {
		w.step("Fold in %s at the end.", named(s))
	}
	w.Stops = []Stop{{"eye", "the whisk leaves a track that stays, and a peak bends over; grainy is one turn before butter"}}
	w.Texture = "soft peaks"
	if fat < wellWhips {
		w.Texture = "soft, it sinks within half an hour"
	}
	if sugar := 100 * t.Sugars / t.Mass; sugar > mostSweet {
		w.Texture += fmt.Sprintf("; with %.0f g of sugar in 100 g it weeps soon", sugar)
	}
	return nil
}

func (w *pot) butter(t food.Total) error {
	if t.Fat < 0.4*t.Mass {
		return problem("lines", "no_butter", "It has %.0f g of fat in 100 g: that is no butter. Take more butter.", 100*t.Fat/t.Mass)
	}
	fats := w.has(func(in *food.Ingredient) bool { return in.Group == food.GroupFat })
	rest := w.has(func(in *food.Ingredient) bool { return in.Group != food.GroupFat })
	if !w.Browned {
		w.Total = t
		w.step("Beat %s soft, not melted.", named(fats))
		if rest != nil {
			w.step("Work in %s, a little at a time. Roll it in paper and chill it.", named(rest))
		}
		w.Texture = "spreads"
		w.Stops = []Stop{{"eye", "even, with no wet streak"}}
		return nil
	}
	w.WaterOff = food.Whole(fats).Water
	w.Total = without(t, w.WaterOff)
	w.step("Melt %s in a wide light pan and let it bubble: %.0f g of water go first.", named(fats), w.WaterOff)
	w.step("When it goes quiet and foams again, swirl until the solids are hazel brown, then pour it out of the pan at once, solids and all.")
	if rest != nil {
		w.step("Stir in %s once it is below 100 °C.", named(rest))
	}
	w.Stops = []Stop{{"weight", fmt.Sprintf("%.0f g in the pan", w.Total.Mass)}, {"eye", "hazel brown at the bottom, and it smells of nuts; black is burnt"}}
	w.Texture = "pours warm, sets cold"
	return nil
}

// Drawn is the share of its water that fruit gives up to so many g of sugar a g of it in so many minutes (modelling choice:
// it rises with both and ends at half).
func Drawn(sugarPerFruit, minutes float64) float64 {
	return drawnMost * (1 - math.Exp(-sugarPerFruit/drawnSugar)) * (1 - math.Exp(-minutes/drawnMin))
}

func (w *pot) macerate(t food.Total) error {
	fruit := w.has(isFruit)
	if fruit == nil {
		return problem("lines", "no_fruit", "There is no fruit that could draw juice.")
	}
	minutes := w.Minutes
	if minutes <= 0 {
		minutes = usualStands
	}
	in := food.Whole(fruit)
	rest := t
	rest.Add(in, -1)
	w.LiquidG = in.Water*Drawn(rest.Sugars/in.Mass, minutes) + rest.Mass
	w.Total = t
	w.step("Stir %s under %s, and let it stand for %.0f min, turned once.", named(w.has(not(isFruit))), named(fruit), minutes)
	w.step("About %.0f g of juice are drawn, the sugar in it.", w.LiquidG)
	w.Stops = []Stop{{"eye", "the fruit lies in its own juice and no grain is left"}}
	w.Texture = "fruit in juice"
	return nil
}

func (w *pot) stirred(t food.Total) error {
	w.Total = t
	melts := w.has(func(in *food.Ingredient) bool { return in.Fat > 20 && in.Water < 10 })
	switch {
	case w.Kind == Nut && melts != nil:
		w.step("Warm %s gently over a water bath, no hotter than 45 °C.", named(melts))
		w.step("Stir in %s, all of it, hand-warm, until it shines: a little water makes it seize, enough makes it smooth.", named(w.has(not(func(in *food.Ingredient) bool { return in.Fat > 20 && in.Water < 10 }))))
	case w.Kind == Filling && w.has(isStarch) != nil:
		w.step("Stir %s smooth, and let it boil for a minute; cool it before it is filled.", named(w.Pot.Parts))
	default:
		w.step("Stir %s smooth.", named(w.Pot.Parts))
	}
	water := 100 * t.Water / t.Mass
	switch {
	case w.Kind == Filling && water > 60 && w.has(isStarch) == nil:
		w.Texture = "loose: it leaks, so at most a spoon in a portion, or boil it down"
	case w.Kind == Filling:
		w.Texture = "stays inside, up to a fifth of the portion"
	case water < 25:
		w.Texture = "thick, it pours warm"
	case water < 60:
		w.Texture = "pours slowly"
	default:
		w.Texture = "spoons and runs"
	}
	w.Stops = []Stop{{"eye", "smooth, without streaks"}}
	return nil
}

// Cautions of hot sugar and of the rest (common practice, no source).
const (
	hotSugar = "Syrup and caramel burn deeper than water and stick: never touch or taste it, long handle, dry cloth, cold water at hand, children away."
	foamsUp  = "Cream and butter foam up in hot sugar: pour slowly, warm, into a pan four times as high."
	fire     = "A lid for fire within reach; spirit never near a flame."
)

func (w *pot) cautions() {
	say := func(yes bool, text string) {
		if yes {
			w.Cautions = append(w.Cautions, text)
		}
	}
	boiled := w.Kind == Compote || w.Kind == FruitSyrup || w.Kind == SugarSyrup || w.Kind == Caramel
	say(boiled, hotSugar)
	say(w.Kind == Caramel && w.Total.Fat > 0, foamsUp)
	say(w.Kind == Caramel || w.Browned || w.has(isSpirit) != nil, fire)
	say(w.Kind == Cream || w.Kind == Dairy, "In the fridge until it is served, and not out of it for more than 2 h; follow your local code.")
	say(true, fmt.Sprintf("Keeps about %d %s in the fridge, covered; follow your local code.", w.KeepDays, words.Either(w.KeepDays == 1, "day", "days")))
}
