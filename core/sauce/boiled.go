package sauce

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/core/words"
)

// boil takes the water off, to the target or to what is usual, of what stands on the stove; what is late is stirred in
// afterwards. A °Brix and a weight are met when all is in, a temperature when it comes off the heat.
func (w *pot) boil(t food.Total, late []food.Part, brix, share float64) error {
	after := food.Whole(late)
	w.boiled = t
	w.boiled.Add(after, -1)
	off, err := w.boiledTo(w.boiled, after, brix, share)
	if err != nil {
		return err
	}
	w.WaterOff += off
	w.stop = without(w.boiled, off)
	w.Total = w.stop
	w.Total.Add(after, 1)
	return nil
}

// boiledTo is how much water boils off to reach the target, or what is usual: to a °Brix, or a share of the water.
func (w *pot) boiledTo(t, late food.Total, brix, share float64) (float64, error) {
	off, all := 0.0, t
	all.Add(late, 1)
	switch g := w.Target; {
	case g.Brix > 0 && dissolved(all) <= 0:
		return 0, problem("target/brix", "no_sugar", "Nothing is dissolved in it, so it never reads anything. Add sugar, or ask for a weight.")
	case g.Brix > 0:
		if off = offToBrix(all, g.Brix); off < -1e-9 {
			return 0, problem("target/brix", "not_more", "It reads %.0f °Brix as it goes in, and boiling only raises that. Begin with more water, or ask for more.", brixOf(all))
		}
		if off > t.Water {
			return 0, problem("target/brix", "too_dry", "What is stirred in at the end brings so much water that %.0f °Brix cannot be had: let it boil with the rest, or ask for less.", g.Brix)
		}
	case g.MassG > 0:
		if off = all.Mass - g.MassG; off < 0 {
			return 0, problem("target/mass_g", "not_less", "%.4g g is more than goes in (%.4g g). Boiling only takes away.", g.MassG, all.Mass)
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
		off = math.Max(0, math.Min(t.Water, offToBrix(all, brix)))
	default:
		off = share * t.Water
	}
	if off > t.Water+1e-9 {
		return 0, problem("target/mass_g", "too_dry", "There is only %.0f g of water in the pot: it cannot lose %.0f g.", t.Water, off)
	}
	return math.Min(off, t.Water), nil
}

// How sure the judges of a pot are (modelling choices).
const (
	clouds    = 0.02 // of it fat, and the glass of a refractometer is cloudy
	tellsC    = 1.5  // K between start and stop, below which a probe is a weak judge
	brixReads = 80.0 // °Brix up to which a refractometer reads
)

// seen says by what it is seen that it has boiled down, the surest first.
func (w *pot) seen(eye string) {
	a, z := w.state(w.boiled), w.state(w.stop)
	shows := "of it, without the pot: weigh that empty first"
	if w.EmptyG > 0 {
		shows = fmt.Sprintf("with the pot stop at %.0f g", z.MassG+w.EmptyG)
	}
	w.Stops = []Stop{{By: ByWeight, At: z.MassG, From: a.MassG, Text: shows}}
	var glass, probe []Stop
	if a.Brix != nil && z.Brix != nil && w.stop.Fat < clouds*w.stop.Mass && *z.Brix <= brixReads {
		glass = []Stop{{By: ByRefractometer, At: *z.Brix, From: *a.Brix, Text: "cool the drop to 20 °C first"}}
	}
	weak := false
	if a.BoilsC != nil && z.BoilsC != nil {
		apart := *z.BoilsC - *a.BoilsC
		weak = apart < tellsC
		probe = []Stop{{By: ByTemperature, At: *z.BoilsC, From: *a.BoilsC, Text: words.Either(weak, fmt.Sprintf("only %.1f K from start to stop: a weak judge", apart), "boiling, in the middle")}}
	}
	if weak {
		w.Stops = append(append(w.Stops, glass...), probe...)
	} else {
		w.Stops = append(append(w.Stops, probe...), glass...)
	}
	w.Stops = append(w.Stops, Stop{By: ByEye, Text: eye})
}

func isEgg(in *food.Ingredient) bool { return slices.Contains(in.Allergens, "egg") }

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
		if n := counted(p); n > 0 {
			label := words.Lower(p.Ingredient.Label())
			if n > 1 && (strings.HasSuffix(label, "stick") || strings.HasSuffix(label, "pod") || strings.HasSuffix(label, "leaf")) {
				label = strings.Replace(label+"s", "leafs", "leaves", 1)
			}
			out[i] = fmt.Sprintf("%.0f %s (%s)", n, label, words.Grams(p.Grams, stepOf(p.Grams)))
		}
	}
	return words.List(out)
}

// nearWhole is how far from a whole number pieces are still counted (modelling choice).
const nearWhole = 0.1

// counted is how many pieces of a whole spice, a pod or a stick it is; 0 where it is not counted.
func counted(p food.Part) float64 {
	one := p.Ingredient.UnitG
	if !p.Ingredient.Is(food.Steeps) || one <= 0 {
		return 0
	}
	n := p.Grams / one
	if whole := math.Round(n); whole >= 1 && math.Abs(n-whole) <= nearWhole {
		return whole
	}
	return 0
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

// either tells whether one of them holds.
func either(all ...func(*food.Ingredient) bool) func(*food.Ingredient) bool {
	return func(in *food.Ingredient) bool {
		return slices.ContainsFunc(all, func(is func(*food.Ingredient) bool) bool { return is(in) })
	}
}

func not(all ...func(*food.Ingredient) bool) func(*food.Ingredient) bool {
	return func(in *food.Ingredient) bool {
		return !slices.ContainsFunc(all, func(is func(*food.Ingredient) bool) bool { return is(in) })
	}
}

// What a jam is (common practice): it sets by its soluble solids, its fruit and its acid; from so many °Brix on the lemon
// boils with the fruit, unless pectin sets it.
const (
	jamFrom = 55.0 // °Brix that are asked for
	jamSets = 60.0 // °Brix from which it sets, up to 65, at about pH 3.3; 104 to 105 °C at sea level
)

// How long jam keeps in the fridge [days] (common practice; the house's and the local code's word goes before it).
const (
	jamKeeps     = 30 // from jamSets on, in clean hot jars
	weakJamKeeps = 14
)

func isPectin(in *food.Ingredient) bool { return in.ID == "pectin" }

func (w *pot) compote(t food.Total) error {
	late := either(isStarch, isAcid, isSpirit)
	jam := w.Target.Brix >= jamFrom
	pectin := w.has(isPectin)
	if jam && pectin == nil {
		late = either(isStarch, isSpirit)
	}
	simmers := w.has(not(late))
	if simmers == nil {
		return problem("lines", "no_fruit", "There is nothing in it to simmer: add fruit.")
	}
	if err := w.boil(t, w.has(late), 0, compoteOff); err != nil {
		return err
	}
	w.step("Put %s into a wide pan and bring it slowly to the boil.", named(simmers))
	w.step("Simmer without a lid, stirring, until %.0f g are left (%.0f g of water go)%s.", w.stop.Mass, w.WaterOff, w.minutes())
	if s := w.has(isStarch); s != nil {
		w.step("Stir %s smooth with a few spoons of the juice, cooled, stir it in, and let it boil for a minute.", named(s))
	}
	switch s := w.has(isAcid); {
	case s == nil || jam && pectin == nil:
	case jam:
		w.step("At the very end stir in %s: the pectin sets with it.", named(s))
	default:
		w.step("Off the heat: stir in %s.", named(s))
	}
	w.spirit()
	w.seen(words.Either(w.has(isStarch) != nil, "a spoon drawn over the bottom leaves a lane that closes slowly", "a spoon drawn over the bottom leaves a lane for a moment"))
	w.Texture = words.Either(w.has(isStarch) != nil, "thick, it stays where it is put", "loose, with juice")
	if jam {
		w.jam(pectin != nil)
	}
	return nil
}

// jam says how one sets, and how long it keeps.
func (w *pot) jam(pectin bool) {
	w.KeepDays = weakJamKeeps
	w.Texture = "soft: it sets from 60 °Brix on"
	if brixOf(w.Total) >= jamSets-0.5 {
		w.KeepDays = jamKeeps
		w.step("Fill it at once into clean jars as hot as the jam, to the brim, and close them.")
		w.Texture = words.Either(pectin || w.has(isAcid) != nil, "sets when it is cold, in a day", "thick; without acid it sets little: lemon, to about pH 3.3, makes it set")
	}
	if !pectin {
		w.step("Set: a drop on a cold plate wrinkles under a finger, at 104 to 105 °C at sea level.")
	}
}

// How long fruit simmers until it is soft [min] (common practice, no source): the first row that names it.
var fruitMinutes = []struct {
	names     []string
	low, high float64
}{
	{[]string{"apple", "pear", "quince"}, 10, 15},
	{[]string{"dried", "raisins", "prune", "dates"}, 15, 20},
	{[]string{"rhubarb", "apricot", "plum", "fig"}, 5, 8},
}

// Soft and thawed berries and all other soft fruit [min].
const softLow, softHigh = 3.0, 5.0

// minutes is how long its fruit takes to be soft: what takes longest decides. Nothing where there is none, or it is a purée
// that is soft already.
func (w *pot) minutes() string {
	low, high := 0.0, 0.0
	for _, p := range w.has(isFruit) {
		if p.Ingredient.Group == food.GroupPuree {
			continue
		}
		l, h := softLow, softHigh
		for _, r := range fruitMinutes {
			if slices.ContainsFunc(strings.Split(p.Ingredient.ID, "_"), func(word string) bool { return slices.Contains(r.names, word) }) {
				l, h = r.low, r.high
				break
			}
		}
		if h > high {
			low, high = l, h
		}
	}
	if high == 0 {
		return ""
	}
	return fmt.Sprintf("; the fruit is soft after %.0f to %.0f min", low, high)
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

// isFruit is what falls apart in a pot and gives juice: zest flavours, nuts and chocolate are none, dried fruit is.
func isFruit(in *food.Ingredient) bool {
	switch in.Group {
	case food.GroupPuree, food.GroupGrated, food.GroupFreshPiece, food.GroupFrozenPiece:
		return true
	}
	return in.Group == food.GroupDryPiece && in.Sugars > driedSugar && in.Fat < driedFat
}

// What tells dried fruit from other dry pieces [g in 100 g] (modelling choice).
const (
	driedSugar = 30.0
	driedFat   = 5.0
)

func (w *pot) fruitSyrup(t food.Total) error {
	fruit := w.has(isFruit)
	if fruit == nil {
		return problem("lines", "no_fruit", "There is no fruit in it: add some, or make a sugar syrup.")
	}
	through, sap := food.Total{}, 0.0
	for _, p := range w.Pot.Parts {
		if !isFruit(p.Ingredient) {
			through.Add(food.Whole([]food.Part{p}), 1)
			continue
		}
		juice := prep.Sap(p.Ingredient)
		if juice.Water <= 0 {
			continue
		}
		runs := pressedOut * p.Grams * p.Ingredient.Water / juice.Water
		sap += runs
		through.Add(food.Whole([]food.Part{{Ingredient: juice, Grams: runs}}), 1)
	}
	w.Sieved += t.Mass - through.Mass
	if err := w.boil(through, w.has(isSpirit), w.row.brix, 0); err != nil {
		return err
	}
	w.step("Simmer %s with a lid on until it falls apart, 10 to 15 min.", named(fruit))
	w.step("Strain it and press: about %.0f g run through, %.0f g stay in the sieve.", sap, t.Mass-through.Mass)
	if rest := w.has(not(isFruit, isSpirit)); rest != nil {
		w.step("Add %s and stir until it is clear.", named(rest))
	}
	w.step("Boil down to %.0f g (%.0f g of water go).", w.stop.Mass, w.WaterOff)
	w.spirit()
	w.seen(byEye(brixOf(w.stop)))
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
	late := w.has(either(isSpirit, isFlavour))
	if err := w.boil(t, late, w.row.brix, 0); err != nil {
		return err
	}
	w.step("Stir %s over a low heat until no grain is left; then do not stir any more.", named(w.has(not(isSpirit, isFlavour))))
	if w.has(isAcid) == nil && brixOf(w.stop) > 68 {
		w.step("A few drops of lemon juice keep it from turning to sugar again.")
	}
	if w.WaterOff > 0.5 {
		w.step("Boil down to %.0f g (%.0f g of water go).", w.stop.Mass, w.WaterOff)
	}
	if s := w.has(isFlavour); s != nil {
		w.step("Off the heat: stir in %s.", named(s))
	}
	w.spirit()
	w.seen(byEye(brixOf(w.stop)))
	w.Texture = syrupWord(brixOf(w.Total))
	return nil
}

// amberC is where sugar is stopped [°C] (common practice: 170 to 175), and darkC where it turns bitter (from memory).
const (
	amberC      = 172.0
	caramelFrom = 155.0 // straw, the palest (from memory)
	amberFrom   = 168.0
	darkC       = 180.0
)

// amber is the colour at which sugar is stopped (modelling choice).
const amber = "#9C5518"

// A caramel by its water [% of its mass] when it is cold (common practice, no source).
const (
	caramelBrittle = 3.0
	caramelFirm    = 8.0
	caramelThick   = 17.0
)

// caramelText is where the sugar of a caramel is stopped, in words.
func caramelText(c float64) string {
	switch {
	case c == amberC:
		return "the colour of amber, 170 to 175 °C"
	case c < 165:
		return fmt.Sprintf("%.0f °C, the colour of straw: mild", c)
	case c < darkC:
		return fmt.Sprintf("%.0f °C, the colour of amber", c)
	}
	return fmt.Sprintf("%.0f °C, dark, and near bitter", c)
}

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
	if sugar == nil || food.Whole(sugar).Sugars <= 0 {
		return problem("lines", "no_sugar", "There is no sugar in it that browns.")
	}
	stop := w.Target.TemperatureC
	if stop == 0 {
		stop = amberC
	} else if stop < caramelFrom || stop >= burnsC {
		return problem("target/temperature_c", "out_of_range", "Sugar turns to caramel between %.0f and %.0f °C; above it is burnt.", caramelFrom, burnsC)
	}
	w.Target.TemperatureC = 0                                    // it is the sugar's, not that of the pot at the end
	first := food.Whole(w.has(either(isSugar, isWater, isAcid))) // what is in the pan until it is amber
	later := t
	later.Add(first, -1)
	w.WaterOff = first.Water + spitsOff*later.Water
	if err := w.boil(without(t, w.WaterOff), w.has(isSpirit), 0, 0); err != nil {
		return err
	}
	rest := w.has(not(isSugar, isWater, isAcid, isFlavour, isSpirit))
	spice := w.has(isFlavour)
	acid := w.has(isAcid)
	if wet := append(w.has(isWater), acid...); wet != nil {
		w.step("Stir %s over a low heat until it is clear; then leave it alone and swirl the pan.", named(append(slices.Clone(sugar), wet...)))
		w.step("It boils for 8 to 12 min until it takes colour.")
	} else {
		w.step("Melt %s dry, a third at a time, in a wide pan of light colour, 6 to 10 min; swirl, do not stir.", named(sugar))
	}
	if acid == nil {
		w.step("A few drops of lemon juice against crystals; a wet brush down the sides.")
	}
	at := caramelText(stop)
	w.step("Stop at %s; it goes on by itself, and burns from %.0f °C on.", at, burnsC)
	if spice != nil {
		w.step("Off the heat: stir in %s.", named(spice))
	}
	if rest != nil {
		w.step("Off the heat pour %s in slowly, warm, with a long handle: it foams up to four times as high and spits. Stir until it is smooth.", named(rest))
		w.step("Boil it up once more, until %.0f g are left.", w.stop.Mass)
	}
	w.spirit()
	share := 100 * w.Total.Water / w.Total.Mass
	w.Texture = CaramelWord(share)
	w.seen("a drop, cooled on a cold plate: " + w.Texture)
	w.Stops = slices.DeleteFunc(w.Stops, func(s Stop) bool { return s.By == ByTemperature || s.By == ByRefractometer })
	w.Stops = append([]Stop{{By: ByTemperature, At: stop, From: *w.state(first).BoilsC, Text: "the sugar, before anything is poured in: " + at}}, w.Stops...)
	w.colour = amber
	return nil
}
