package worksheet

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/portion"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// countText is a number of eggs: "2 eggs", "1½ eggs", "about 1.7 eggs".
func countText(n float64, in *food.Ingredient) string {
	word := "yolk"
	switch {
	case in.IsWholeEgg():
		word = "egg"
	case in.IsEggWhite():
		word = "white"
	}
	half := math.Round(2*n) / 2
	if math.Abs(n-half) > nearEgg {
		return fmt.Sprintf("about %.1f %ss", n, word)
	}
	whole := int(half)
	text := fmt.Sprint(whole)
	if half > float64(whole) {
		text = strings.TrimPrefix(text+"½", "0")
	}
	if half > 1 {
		word += "s"
	}
	return text + " " + word
}

// kinds of the notes that are no warning.
var kinds = map[string]NoteKind{
	"swapped": Advice, "heavy": Advice, "altitude": Advice, "spoon_left": Advice, "eggs": Advice, "no_liquid": Advice,
	"flourless": Advice, "grated_cake": Advice, "soda_offer": Advice, "eggs_whole": Advice, "half_egg": Advice, "bleed": Advice, "structure_softer": Advice, "bitter": Advice, "digests": Advice, "underfull": Advice, "base_out_of_band": Advice,
	"tang_left": Advice, "lift_left": Advice, "soda_follows": Advice, "base_soapy": Advice,
}

func (w *described) note(code, line, format string, args ...any) {
	kind := Warning
	if k, ok := kinds[code]; ok {
		kind = k
	}
	if w.trusted() && !alwaysMinded[code] {
		kind = Known
	}
	w.out.Notes = append(w.out.Notes, Note{code, kind, line, w.named(fmt.Sprintf(format, args...))})
}

// alwaysMinded are the notes that a recipe as written and a plain base are not spared: what may hurt, what was done on
// the way, and what does not fit this kitchen. Everything else pleased whoever wrote it, and is only described.
var alwaysMinded = map[string]bool{
	"rest_long": true, "tub_stale": true, "stock_short": true, "overfull": true, "underfull": true, "no_portion": true, "too_many_portions": true, "strong": true,
	"altitude": true, "eggs_whole": true, "half_egg": true, "swapped": true, "flourless": true, "grated_cake": true,
}

// trusted tells whether the bowl is somebody's recipe and nobody asked for another: as it was written, or a plain base.
func (w *measured) trusted() bool {
	return w.asWritten() || len(w.v.Additions) == 0 && len(w.v.Offset.Targets) == 0 && w.v.Reference.Lines == nil && !w.v.Reference.AsWritten
}

// asWritten tells whether the bowl is still the one that the recipe was written with.
func (w *measured) asWritten() bool {
	return w.v.Reference.AsWritten && len(w.v.Offset.Targets) == 0 && w.v.Reference.Lines == nil && slices.EqualFunc(w.v.Additions, w.v.Reference.Additions, func(a, b batter.Addition) bool {
		a.ID, b.ID = "", "" // the reference needs none
		a.Ingredient, b.Ingredient = nil, nil
		return a == b
	}) && slices.EqualFunc(w.raw, w.v.Reference.Additions, func(p food.Part, a batter.Addition) bool { return p.Ingredient.ID == a.Ingredient.ID })
}

// named calls the reference what it is: the base, or the recipe that was written with its
// additions in it.
func (w *measured) named(text string) string {
	if !w.v.Reference.AsWritten {
		return text
	}
	return asRecipe.Replace(text)
}

var asRecipe = strings.NewReplacer("the base", "the recipe", "The base", "The recipe")

// labels of the lines with a role that stand at their bound.
func (w *described) stuckLabels(role food.Role) []string {
	var out []string
	for i, l := range w.out.Lines {
		if i < len(w.solution.Stuck) && w.solution.Stuck[i] && l.Role == role {
			out = append(out, fmt.Sprintf("%s at %s", words.Lower(l.Label), words.Grams(l.Weigh, l.Step)))
		}
	}
	return out
}

// notes says what gave way, where the model ends, and what is not worked out yet.
func (w *described) notes() {
	for _, r := range w.solution.Reports {
		w.report(r)
	}
	if s := w.standIn(); s != "" {
		w.note("swapped", "", "%s: every target is held to the base as it was.%s", words.Upper(s), w.swapCosts())
	}
	w.fillingNotes()
	t := w.out.Gauges.Thickness
	switch {
	case w.v.Form == batter.Flourless:
		w.note("flourless", "", "A flourless batter is thin: small portions, two spatulas. Its thickness is not judged.")
	case t.State == Unknown:
		w.note("grated_cake", "", "There is more in pieces than in batter. Treat it as a grated cake: press a test one together before you weigh out the rest.")
	case !flow.InModel(t.After()) && !w.asWritten() && !(t.State == Level && !flow.InModel(t.Base())):
		w.note("out_of_range", "", "At %.2f ml of liquid a gram of body this is outside what the thickness figures were made for. Trust the ladle, not the figure.", t.After())
	}
	if usual, ok := batter.ThicknessBand(w.v.Form); ok && t.State == Level && t.Target == nil && !w.v.Reference.AsWritten && !usual.Contains(t.Base()) {
		w.note("base_out_of_band", "", "It pours like the base, and the base itself is %s than %s usually are: %.2f ml of liquid to a gram that thickens it, where %.2f to %.2f is usual.",
			words.Either(t.Base() > usual.High, "thinner", "thicker"), w.v.Form.Said(2), t.Base(), usual.Low, usual.High)
	}
	w.structureNotes()
	w.liftNotes()
	w.flavourNotes()
	w.bitterNotes()
	if t.State != Unknown && math.Abs(t.ByMeasure()-t.After()) > spoonDrift {
		w.note("spoon_left", "", "Measured by cups and spoons it pours %s than weighed, by %s. The scale is surer.",
			words.Either(t.ByMeasure() > t.After(), "thinner", "thicker"), percentOff(t.ByMeasure(), t.After()))
	}
	if rest := w.v.Base.Rest(w.v.Form, w.k); rest > safety.DiscardAfterMin && safety.Spoils(w.inBatter()) {
		w.note("rest_long", "", "A mixed batter with egg or milk keeps one day in the fridge, by the usual rule; this one would stand %s. After a day discard it. Your local code decides.", words.Minutes(rest))
	}
	w.pantryNotes()
	if w.out.Portion.Count == 0 {
		w.note("no_portion", "", "The bowl does not fill one portion of %.0f ml.", w.out.Portion.VolumeML)
	}
}

// spoonDrift is the difference between spoons and scale that is worth a sentence [ml/g]
// (modelling choice: twice what the solver calls met).
const spoonDrift = 0.06

// tears says what a batter does that does not set: only what is flipped tears when it is.
func tears(f batter.Form) string {
	if f == batter.Waffle {
		return "may stick, or break as the iron opens"
	}
	return "may tear when it is turned"
}

// fails tells whether a bowl sets so much less than its reference that it is likely to tear or
// to stick. Flourless batters are small and turned with two spatulas, whatever they set.
func (w *solved) fails(g Gauge) bool {
	if w.v.Form == batter.Flourless || g.State == Level || g.After() >= g.Base() {
		return false
	}
	return g.After() < balance.StructureWarn*g.Base() || g.After() < balance.StructureLeast && g.After() < balance.StructureWord*g.Base()
}

// structureNotes says how much weaker the batter sets, and suggests a whole egg.
// How much of a portion's volume a filling may be before it runs out at the side (modelling choices; common practice is a
// spoon in a ladle).
const (
	fillsMost  = 0.20
	looseFills = 0.10 // where it runs
)

// fillingNotes tells of what is laid into the middle and will not stay there.
func (w *described) fillingNotes() {
	ml := w.v.Portion.VolumeML
	for _, b := range w.v.Beside {
		if b.Place != batter.Middle {
			continue
		}
		most, why := fillsMost, ""
		if b.House != nil && b.House.Loose {
			most, why = looseFills, " It is loose: starch, or less water, keeps more of it inside."
		}
		in := 0.0
		for _, p := range b.OnEach() {
			in += p.Grams / p.Ingredient.PieceDensity()
		}
		if in > most*ml {
			w.note("leaks", "", "%s in the middle runs out at the side: at most %.0f g in a portion of %.0f ml.%s", quoted(b.Text), b.EachG*most*ml/in, ml, why)
		}
	}
}

func (w *described) structureNotes() {
	if w.solution.Eggs > 0 {
		w.note("eggs", "", "%s more %s to hold the structure.", words.Upper(words.Number(w.solution.Eggs)), words.Either(w.solution.Eggs == 1, "egg", "eggs"))
		return
	}
	g := w.out.Gauges.Structure
	if slices.ContainsFunc(w.solution.Reports, func(r balance.Report) bool { return r.Target == batter.HoldStructure }) || g.Base() <= 0 {
		return
	}
	lost := 100 * (1 - g.After()/g.Base())
	switch {
	case w.fails(g):
		w.note("structure", "", "It sets %.0f %% weaker than the base and %s: give it one more egg (hold structure does it), or more flour.", lost, tears(w.v.Form))
	case g.After() < balance.StructureWord*g.Base():
		w.note("structure_softer", "", "It sets %.0f %% weaker than the base: softer%s. One more egg, or a little flour, firms it.", lost,
			words.Either(w.v.Form == batter.Waffle, ", so let it brown well before you open the iron", ", so let it set well before you turn it"))
	}
}

const (
	heavyMore   = 1.2   // times the powder that such a load takes at most (common practice, no source)
	heavyShare  = 0.25  // of the bowl from which additions are heavy to lift (modelling choice)
	sayAltitude = 300.0 // m from which altitude is worth a sentence (modelling choice)
)

// liftNotes minds soda and powder, colour, altitude and weight.
func (w *described) liftNotes() {
	w.sodaFollows()
	w.sodaNotes()
	w.greyNotes()
	if room := lift.Expansion(w.k.AltitudeM); math.Abs(w.k.AltitudeM) >= sayAltitude && w.weighed.lift.GasML() > 0 {
		w.note("altitude", "", "At %.0f m the same gas fills %.0f %% %s room: a base that was written for sea level takes %.0f %% %s powder and soda here%s.",
			w.k.AltitudeM, 100*math.Abs(room-1), words.Either(room > 1, "more", "less"), 100*math.Abs(1-1/room), words.Either(room > 1, "less", "more"),
			words.Either(room > 1, ", and a splash more liquid, for it dries faster", ""))
	}
	if gas := w.gas(w.weighed) * lift.Expansion(w.k.AltitudeM); gas > w.gas(w.plain)+1 && portion.Sinks(gas) {
		w.note("collapses", "", "So much gas is more than the crumb holds: it rises and sinks back. With less powder it stands higher.")
	}
	var added float64
	for _, p := range w.made {
		added += p.Grams
	}
	if mass := w.weighed.whole.Mass; added > heavyShare*mass && w.weighed.lift.OwnGasML > 0 && w.out.Gauges.Lift.State != High && !w.asWritten() && !portion.Sinks(heavyMore*w.gas(w.weighed)*lift.Expansion(w.k.AltitudeM)) {
		w.note("heavy", "", "Additions are %.0f %% of the bowl. If the first one comes out flat, such a load takes up to %.0f %% more powder.", 100*added/mass, 100*(heavyMore-1))
	}
}

// sodaNotes minds one where the other belongs, and soap.
func (w *described) sodaNotes() {
	l, tang, band := w.weighed.lift, w.out.Gauges.Tang, batter.TangBand()
	switch {
	case l.SodaG > 0 && !w.with.lift.Sour && !w.plain.lift.Sour: // whatever was dried out of it
		w.note("soda_not_sour", "", "There is soda, but nothing sour for it to work on: it tastes of soap. Use %s of baking powder instead.", words.Grams(lift.PowderFor(lift.SodaGas(l.SodaG, l.AcidMeq)), 0.1))
	case l.SodaG > 0 && tang.After() < band.Low && tang.Base() < band.Low && l.SodaG < w.plain.lift.SodaG+w.k.LeavenStep:
		w.note("base_soapy", "", "The base itself has more soda than its acid takes, and stays soapy. Take %s less.", words.Grams(l.SodaG-l.AcidMeq/lift.MeqPerGram, 0.1))
	case l.SodaG > 0 && tang.State == Low:
		w.note("soapy", "", "More soda than the acid takes: soapy, and it browns fast. Take %s less%s.", words.Grams(l.SodaG-l.AcidMeq/lift.MeqPerGram, 0.1),
			words.Either(w.sodaPinned(), ", or unpin the soda that you pinned or added", ""))
	case l.SodaG == 0 && l.Sour && tang.After() > band.High && !w.asWritten() && w.plain.lift.GasML() > 0:
		soda := sodaFor(tang.After()-band.High, w.weighed.account.Mass)
		w.note("soda_offer", "", "It is tangy. %s of soda in place of %s of the powder would take the edge off; one is not the other.",
			words.Grams(soda, 0.1), words.Grams(lift.PowderFor(lift.SodaGas(soda, l.AcidMeq)), 0.1))
	}
}

// greyNotes minds fruit that so much soda turns.
func (w *described) greyNotes() {
	if !(w.weighed.lift.SodaToAcid() >= lift.GreyAbove) {
		return
	}
	i := slices.IndexFunc(w.made, func(p food.Part) bool { return p.Ingredient.Colour.PHSensitive && p.Grams > 0 })
	if i < 0 {
		return
	}
	in := w.made[i].Ingredient
	whose := words.Either(w.plain.lift.SodaToAcid() >= lift.GreyAbove, " than the base has", "")
	w.note("grey", "", "So much soda for the acid turns %s %s: a little less soda%s, or a squeeze of lemon, keeps its colour.",
		words.Lower(in.Label()), words.Either(in.Is(food.Reddens), "red", "green-grey"), words.Either(w.sodaPinned(), " (you pinned it)", whose))
}

// sodaFollows says that soda rose with the acid of an addition, and how to keep it tart.
func (w *described) sodaFollows() {
	if w.solution.Reports == nil && len(w.v.Additions) == 0 {
		return
	}
	for i, l := range w.v.Base.Lines {
		if more := w.weigh[i] - w.base[i]; lift.IsSoda(l.Ingredient) && more >= w.k.Step(l) {
			var sour []string
			for _, p := range w.made {
				if p.Ingredient.Acid >= lift.SourMeq && !balance.TastesSour(p.Ingredient) && p.Grams > 0 {
					sour = append(sour, words.Lower(p.Ingredient.Label()))
				}
			}
			w.note("soda_follows", l.ID, "%s more soda answers the acid of %s. If you want it tart, let the tang go.", words.Grams(more, w.k.Step(l)), words.Either(len(sour) > 0, words.List(sour), "what was added"))
		}
	}
}

func (w *measured) sodaPinned() bool {
	return slices.ContainsFunc(w.v.Base.Lines, func(l batter.Line) bool { return l.Locked && lift.IsSoda(l.Ingredient) }) ||
		slices.ContainsFunc(w.v.Additions, func(a batter.Addition) bool { return lift.IsSoda(a.Ingredient) })
}

// sodaFor is the soda in g that takes meq per 100 g away from a batter.
func sodaFor(meqPer100, batterG float64) float64 {
	return meqPer100 * batterG / 100 / lift.MeqPerGram
}

// flavourNotes warn of strong flavourings before they take over.
func (w *described) flavourNotes() {
	for i, a := range w.v.Additions {
		d := w.out.Lines[len(w.v.Base.Lines)+i].Dose
		if a.Ingredient.Is(food.Strong) && (d.Word == "bold" || d.Word == "past bold") {
			w.note("strong", a.ID, "%s is strong: from %s on it takes over.", a.Ingredient.Label(), words.Grams(d.Bold, d.Step))
		}
	}
}

// sweetens is the sugar in g that one gram of something bitter asks for (common practice, no
// source: recipes with cocoa have about as much more sugar as cocoa).
const sweetens = 1.0

// leastSugar is the sugar in g a portion that is worth a sentence (modelling choice).
const leastSugar = 0.5

// bitterNotes proposes sugar for cocoa and its like, less what is sweeter already, and minds raw
// fruit whose enzymes work on milk and egg.
func (w *described) bitterNotes() {
	var bitter float64
	var names []string
	for i, p := range w.made {
		if p.Ingredient.Is(food.Bitter) && p.Grams > 0 {
			bitter += p.Grams * (1 - p.Ingredient.Water/100)
			names = append(names, words.Lower(p.Ingredient.Label()))
		}
		if p.Ingredient.Is(food.Digests) && p.Grams > 0 && slices.ContainsFunc(w.weighed.parts, curdles) {
			w.note("digests", w.v.Additions[w.inBowlAt(i)].ID, "Raw %s makes milk bitter and lets egg weep: cook it first, or put it on top.", words.Lower(p.Ingredient.Label()))
		}
	}
	s := w.out.Gauges.Sweetness
	more := sweetens*bitter - math.Max(0, s.After()-s.Base())*w.weighed.account.Mass/100
	if portions := float64(max(1, w.out.Portion.Count)); more/portions >= leastSugar {
		w.note("bitter", "", "%s is bitter: about %s more sugar rounds it, if you want it no less sweet to the taste. Pull the sweetness up, or leave it dark.", words.Upper(words.List(names)), words.Grams(more, w.k.ScaleStep))
	}
}

// curdles tells whether a part has the milk or egg that raw fruit works on.
func curdles(p food.Part) bool {
	return slices.Contains(p.Ingredient.Allergens, "milk") || slices.Contains(p.Ingredient.Allergens, "egg")
}

// inBowlAt is which addition the n-th one in the bowl is.
func (w *described) inBowlAt(n int) int {
	for i, a := range w.v.Additions {
		if a.Stage.InBowl() {
			if n == 0 {
				return i
			}
			n--
		}
	}
	return 0
}

// shareless is from where on a share says nothing: it is one of as good as nothing [%] (modelling choice).
const shareless = 200

// percentOff is how far a figure is from the one it should be, in words.
func percentOff(v, from float64) string {
	switch off := 100 * math.Abs(v/from-1); {
	case !(off < shareless):
		return "a lot"
	case off < 1:
		return "less than 1 %"
	default:
		return fmt.Sprintf("%.0f %%", off)
	}
}

// report says in words what a target has left. Every sentence names what to do.
func (w *described) report(r balance.Report) {
	perPortion := math.Abs(r.Left) * w.out.Portion.MassG
	left := words.Grams(perPortion, leftStep(perPortion))
	t := w.out.Gauges.Thickness
	thinner := words.Either(r.Left > 0, "thinner", "thicker")
	against := "by " + percentOff(t.After(), t.Goal())
	if math.IsNaN(t.After()) || math.IsNaN(t.Base()) {
		against = "with nothing left that thickens"
	}
	pours := fmt.Sprintf("%s than the base, %s", thinner, against)
	switch r.Target {
	case batter.HoldThickness:
		switch {
		case r.Reason == balance.NoLiquid:
			w.note("no_liquid", "", "Nothing in this base loosens it enough to be held back, so the flour moves instead.")
		case w.v.Offset.Strategy == batter.DryAddition && r.Left < 0:
			w.note("thickness_left", "", "Nothing to dry: the additions make it thicker, %s. Hold back liquid adds milk instead.", against)
		case w.v.Offset.Strategy == batter.DryAddition:
			w.note("thickness_left", "", "Even squeezed or reduced as far as it goes it runs %s. Use less, or hold back liquid.", pours)
		case r.Reason == balance.NothingTo:
			w.note("thickness_left", "", "No line is free to move for thickness: it runs %s. Unpin a line, or squeeze or reduce the addition.", pours)
		default:
			stuck := append(w.stuckLabels(food.RoleLiquid), w.stuckLabels(food.RoleFlour)...)
			gave := words.Either(len(stuck) > 0, "Even with "+words.List(stuck), "The offsets have nothing left to give:")
			w.note("thickness_left", "", "%s it runs %s. Use less, squeeze or reduce the addition, or build up flour.", gave, pours)
		}
	case batter.HoldSweetness:
		sweeter := words.Either(r.Left > 0, "sweeter", "less sweet")
		switch {
		case r.Reason == balance.NothingTo:
			w.note("sweetness_left", "", "The base has no sugar that is free to move: %s a portion %s than the base.", left, sweeter)
		case r.Left > 0:
			w.note("sugar_floor", "", "All the sugar is held back and it is still %s a portion sweeter than the base; it browns sooner, so lower the heat.", left)
		default:
			w.note("sweetness_left", "", "It stays %s a portion less sweet than the base.", left)
		}
	case batter.HoldSalt:
		w.note("salt_left", "", "%s: %s of salt a portion %s than the base.",
			words.Either(r.Reason == balance.NothingTo, "The base has no salt that is free to move", "The salt has nothing left to give"), words.Grams(perPortion, 0.1), words.Either(r.Left > 0, "more", "less"))
	case batter.HoldFat:
		why := words.Either(r.Left > 0, "The additions bring more fat than the base's own can make up for", "The fat cannot follow the flour")
		w.note("fat_left", "", "%s: %.0f %% %s for the flour than in the base.", why, 100*math.Abs(r.Left), words.Either(r.Left > 0, "richer", "leaner"))
	case batter.HoldTang:
		why := "there is no soda or acid free to move"
		if r.Reason == balance.Apart {
			why = words.Either(r.Left > 0, "more soda would grey the fruit and taste of soap", "the base's soda stays, and it meets more of it")
		}
		w.note("tang_left", "", "It ends %s than the base: %s.", words.Either(r.Left > 0, "tangier", "milder"), why)
	case batter.HoldLift:
		why := "there is no powder free to move"
		if r.Reason == balance.AtBound {
			why = words.Either(r.Left > 0, "half of the powder always stays, for its second half comes in the heat", "the powder has grown as far as makes sense")
		}
		w.note("lift_left", "", "The gas for the flour stays %.0f %% %s the base: %s.", 100*math.Abs(r.Left), words.Either(r.Left > 0, "above", "below"), why)
	case batter.HoldStructure:
		w.note("structure_left", "", "%s it still sets %.0f %% weaker than the base: smaller portions, two spatulas, or build up flour.",
			words.Either(r.Reason == balance.NothingTo, "There is no whole egg to add to, so", "Even with two more eggs"), -100*r.Left)
	case batter.HoldBatchSize:
		w.note("batch_left", "", "The batch comes out %.0f %% %s than the base.", 100*math.Abs(r.Left), words.Either(r.Left > 0, "bigger", "smaller"))
	}
}

// leftStep is how finely a leftover is told: tenths below 3 g.
func leftStep(g float64) float64 {
	if g < 3 {
		return 0.1
	}
	return 1
}

// briefly is how many changed lines the verdict names; the ledger has them all.
const briefly = 3

// weighLead says what to weigh out otherwise than the base, naming at most so many lines,
// and what of the rest.
func (w *solved) weighLead(most int) (lead, reason string) {
	var changed []string
	var same []string
	for i, l := range w.lines {
		switch {
		case l.From == FromAddition:
			if l.DryTo != nil {
				changed = append(changed, fmt.Sprintf("%s dried to %s", words.Lower(l.Label), words.Grams(*l.DryTo, w.k.ScaleStep)))
			}
		case l.Offset != nil && *l.Offset != 0, w.standsIn(w.v.Base.Lines[i].Ingredient):
			changed = append(changed, words.Lower(l.Label)+" "+w.says(l))
		default:
			same = append(same, words.Lower(l.Label)+" "+w.says(l))
		}
	}
	if len(changed) == 0 {
		reason = words.Either(len(w.v.Additions) == 0, "nothing is added yet", "nothing has to give way")
		if w.asWritten() {
			reason = "as it was written"
		}
		if w.v.Offset.Strategy == batter.Leave && len(w.v.Additions) > 0 {
			reason = "no offsets, as you asked"
		}
		return "Weigh the base as it is", reason
	}
	reason = "every line moves"
	if len(same) > 0 {
		reason = "as the base: " + strings.Join(same, ", ")
	}
	if w.v.Offset.Strategy == batter.DryAddition && w.ownParts() == nil {
		reason = "the whole base as it is"
	}
	if len(changed) > most {
		changed = append(changed[:most-1:most-1], fmt.Sprintf("and %s more", words.Number(len(changed)-most+1)))
		return words.Upper(strings.Join(changed[:most-1], ", ") + " " + changed[most-1]), reason
	}
	return words.Upper(strings.Join(changed, ", ")), reason
}

// says is how much of a line goes in, weighed or measured.
func (w *solved) says(l Line) string {
	if w.include.Cups && l.Measure != "" {
		return l.Measure
	}
	return words.Grams(l.Weigh, l.Step)
}

// verdict is the line at the foot: what to weigh, what it makes, what to mind.
func (w *described) verdict() {
	lead, reason := w.weighLead(briefly)
	w.say("weigh", lead, reason)

	p := w.out.Portion
	names := w.v.Form.Said(p.Count)
	lead = fmt.Sprintf("%d %s", p.Count, names)
	if p.Count == 1 {
		lead = "One " + strings.SplitN(names, " ", 2)[1]
	}
	reason = fmt.Sprintf("%.0f ml each", p.VolumeML)
	if w.v.Portion.OneCake {
		lead, reason = "One cake", fmt.Sprintf("the whole bowl, %.0f ml", p.VolumeML)
	}
	if p.DiameterMM != nil {
		reason = fmt.Sprintf("%.0f mm across, %s", *p.DiameterMM, reason)
	}
	w.say("portion", lead, reason)

	if s := w.standIn(); s != "" {
		w.say("swap", words.Upper(s), "held to the base as it was")
	}
	w.drift(w.out.Gauges.All())
	w.say("allergens", w.allergens.Lead(), w.allergens.Rest())
}

func (w *described) say(kind, lead, reason string) {
	w.out.Verdict = append(w.out.Verdict, Verdict{kind, w.named(lead), w.named(reason)})
}

// drift says in one clause which gauges ended outside their band.
func (w *described) drift(gauges []*Gauge) {
	var out []*Gauge
	for _, g := range gauges {
		if g.State == Low || g.State == High {
			out = append(out, g)
		}
	}
	if len(out) == 0 {
		return
	}
	first := out[0]
	reason := fmt.Sprintf("%.*f, the base %.*f", first.Decimals, first.After(), first.Decimals, first.Base())
	if len(out) > 1 {
		var others []string
		for _, g := range out[1:] {
			others = append(others, words.Lower(g.VerdictText))
		}
		reason = "and " + words.List(others)
	}
	w.say("drift", first.VerdictText, reason)
}
