// Package mixing writes the order of work for one recipe: which bowl, what first, how much waits
// in the jug, when to stop, how long to rest, how to test, what goes in last. Every gram of the
// ledger is used by exactly one step. Formulas: docs/maths.md section 17.
package mixing

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/portion"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

const (
	steepMin   = 10   // min in warm liquid (common practice, no source)
	leastEach  = 1    // g a portion, below which it is said for the batch (modelling choice)
	mostKept   = 0.20 // of the liquid waits for the test at most: with less a batter stands, and late stirring toughens (modelling choice)
	leastKept  = 0.02 // of the liquid, below which nothing is kept back (modelling choice)
	doubtShare = 0.5  // of what the additions loosen or thicken is in doubt (modelling choice)
	mostSplash = 0.05 // of the bowl's mass is stirred in at once (common practice, no source)
	leastDry   = 0.10 // of the bowl's mass, below which the dry has no bowl of its own and no well (modelling choice)
	narrowMM   = 5.0  // a pancake that much narrower can be seen (modelling choice)
)

// Item is one line of the ledger on its way into the batter.
type Item struct {
	ID         string
	Ingredient *food.Ingredient // as it goes in: prepared or dried
	Label      string
	Role       food.Role
	Addition   bool
	Stage      batter.Stage // of an addition
	WeighG     float64      // weighed out
	IntoG      float64      // what of it goes in, after its preparation
	Step       float64      // of the scale, g
	Prepare    string       // how it is prepared first; empty when it is not
	Reduced    bool         // dried to IntoG under "dry the addition"

	Carries map[string]float64 // of a common batter: the grams of each line of the base that are in it

	Fills  func(grams float64) ([]measure.Fill, string) // the cups and spoons for grams of it, and what they are called; empty when only a scale can tell
	InCups bool                                         // is how it is told, where that can be
}

// says is so much of it, weighed or measured.
func (i Item) says(grams float64) string {
	if i.InCups && i.Fills != nil {
		if _, text := i.Fills(grams); text != "" {
			return text
		}
	}
	return words.Grams(grams, i.Step)
}

// Lower is its name inside a sentence.
func (i Item) Lower() string { return words.Lower(i.Label) }

// amount is the item with what goes in of it.
func (i Item) amount() string { return i.Lower() + " " + i.says(i.IntoG) }

// Recipe is what is mixed.
type Recipe struct {
	Form    batter.Form
	Base    batter.Base
	Items   []Item
	RestMin float64
	Mixed   bool    // it begins with batter that is mixed already
	KeptG   float64 // waits for the test, when that is settled; 0 works it out
	Offset  bool    // the liquid was worked out for the additions; else the bowl is as somebody wrote it
	Judged  bool    // on thickness

	// The bowl before pieces are folded in.
	MassG, Density float64
	Parts          []food.Part
	PartLines      []string // the line of the ledger behind each part
	Thickness      flow.Thickness
	Calibration    flow.Calibration
	PortionML      float64
	TestML         float64 // that is poured on the cold plate for the spread test
	Count          int
	Spreads        bool    // a portion lies free on the plate
	HotMM          float64 // so wide, once it is poured hot; 0 where nobody says

	Cooking *Cooking // nil: the steps end where the batter is ready
	Asides  []Aside  // what is made beside it
}

// Aside is something of the house that is made beside the batter and goes on.
type Aside struct {
	Name  string
	Grams float64          // for all portions
	Tub   *food.Ingredient // it is there already
	When  batter.MadeWhen
	Steps []string // how it is made
	Serve string   // before it goes on; may be empty
	Mind  []string // cautions of its making
}

// Use is so many grams of a line that go in at a step.
type Use struct {
	ID string  `json:"line"`
	G  float64 `json:"grams"`
}

// Step is one step of the order. Code names the steps that something else refers to.
type Step struct {
	Number  int     `json:"step"`
	Text    string  `json:"text"`
	Code    string  `json:"code,omitzero"`
	Minutes float64 `json:"minutes,omitzero"` // of a rest
	Skip    string  `json:"skip,omitzero"`    // what leaving a rest out changes
	Ruler   bool    `json:"ruler,omitzero"`   // the test can be told by a ruler, not only in words
	Helper  Helper  `json:"helper,omitzero"`  // who may help with it
	Uses    []Use   `json:"uses,omitzero"`

	Mind []string         `json:"-"` // cautions of its own
	Tub  *food.Ingredient `json:"-"` // that so many g are taken out of
	TubG float64          `json:"-"`
}

// Helper is who may help with a step (common practice): children pour what is dry, mash, whisk and fold; heat, knife and
// iron are an adult's.
type Helper string

// The helpers; empty where nobody says.
const (
	ChildHelps Helper = "child"
	AdultOnly  Helper = "adult"
)

// The codes.
const (
	CodeAsideFirst = "aside_first" // something that goes on is made before anything is weighed
	CodeAside      = "aside"       // it is made meanwhile
	CodeAsideLast  = "aside_last"  // it is made or warmed while the last ones cook

	CodeRest   = "rest"
	CodeTest   = "test"
	CodeHeat   = "heat" // the plate is switched on
	CodeGrease = "grease"
	CodeUnder  = "under" // what lies under the batter
	CodePour   = "pour"
	CodePlace  = "place" // what lies on it or in its middle
	CodeFirst  = "first" // the first side
	CodeFlip   = "flip"  // an iron is closed
	CodeDone   = "done"
	CodeServe  = "serve"
)

// order builds the steps.
type order struct {
	Recipe
	steps  []Step
	helper Helper // with the steps that are made now
	melted bool   // butter was melted
}

func (o *order) step(uses []Item, format string, args ...any) *Step {
	s := Step{Text: fmt.Sprintf(format, args...), Helper: o.helper}
	for _, i := range uses {
		s.Uses = append(s.Uses, Use{i.ID, i.WeighG})
	}
	o.steps = append(o.steps, s)
	return &o.steps[len(o.steps)-1]
}

func amounts(items []Item) string {
	var out []string
	for _, i := range items {
		out = append(out, i.amount())
	}
	return words.List(out)
}

// laidOut is a recipe with its items where they go in, without those that are weighed out as nothing.
func laidOut(r Recipe) (o *order, where map[place][]Item) {
	r.Judged = r.Judged && !math.IsNaN(r.Thickness.L()) // what thickens may come with the pieces
	r.Items = slices.DeleteFunc(slices.Clone(r.Items), func(i Item) bool { return i.WeighG <= 0 })
	o, where = &order{Recipe: r}, map[place][]Item{}
	for _, i := range r.Items {
		p := o.placeOf(i)
		where[p] = append(where[p], i)
	}
	return o, where
}

// Order is the order of work for a recipe.
func Order(r Recipe) []Step {
	o, where := laidOut(r)
	kept, from := o.keepBack(where[wet])
	o.asides(batter.MadeBefore)
	o.infuse(where[infused], where[wet], len(where[whites]) > 0)
	o.prepare()
	o.helper = ChildHelps
	powders := dryWork{where[sifted], where[dry], o.MassG}
	wetThere := len(where[wet])+len(where[melted])+len(where[whites]) > 0
	switch o.Base.Bowls(o.Form) {
	case batter.OneWetFirst:
		o.wet(words.Either(o.Mixed, "Into the bowl, with a few turns", "In the big bowl, whisk"), where[wet], where[whites], kept, from)
		o.fat("bowl", where[melted])
		o.heat(o.RestMin <= 0)
		o.into(powders, wetThere)
	case batter.OneDryFirst:
		o.dry(powders)
		o.fat("", where[melted])
		o.heat(o.RestMin <= 0)
		o.wet(o.onto(powders), where[wet], where[whites], kept, from)
		o.combine(powders, wetThere, true)
	default:
		o.dry(powders)
		o.wet("In the wet bowl", where[wet], where[whites], kept, from)
		o.fat("wet bowl", where[melted])
		o.heat(o.RestMin <= 0)
		o.combine(powders, wetThere, false)
	}
	if g := where[grated]; len(g) > 0 {
		o.step(g, "Stir in %s, squeezed loose so that it does not clump.", amounts(g))
	}
	o.helper = ""
	o.test(kept, from)
	o.heat(o.RestMin > 0 && o.RestMin <= soonRest)
	o.rest(where[late])
	o.helper = ChildHelps
	if g := where[folded]; len(g) > 0 {
		o.step(g, "Fold in %s last.", amounts(g))
	}
	o.helper = ""
	if w := where[whites]; len(w) > 0 {
		s := o.step(nil, "Whip the %s to soft peaks in a clean, dry bowl, fold in last of all, in three goes, and cook at once. By hand that is 3 to 5 min: change arms, or take a machine.", o.whiteWords(w))
		for _, i := range w {
			s.Uses = append(s.Uses, Use{i.ID, i.WeighG * i.Ingredient.White()})
		}
	}
	o.helper = AdultOnly
	o.atPlate(where[under], where[onTop])
	o.helper = ""
	if o.Cooking == nil || o.Cooking.First == "" { // the steps end before anything is served
		o.asides(batter.MadeAtLast)
	}
	for i := range o.steps {
		o.steps[i].Number = i + 1
	}
	return o.steps
}

// place is where a line goes in.
type place int

const (
	dry place = iota
	sifted
	wet
	melted
	whites // eggs whose whites are whipped: the yolks go with the wet
	grated
	late // leaveners that wait for a long rest
	folded
	infused
	under
	onTop
)

func (o *order) placeOf(i Item) place {
	in := i.Ingredient
	if i.Addition {
		switch i.Stage {
		case batter.StageFoldIn:
			return folded
		case batter.StageOnPortion:
			return onTop
		case batter.StageUnderPortion:
			return under
		case batter.StageInfused:
			return infused
		case batter.StageBatter:
			if in.Group == food.GroupGrated || in.Group == food.GroupHerb {
				return grated
			}
		}
	}
	leavens := in.CO2 > 0 && !in.IsFlour()
	switch {
	case leavens && o.RestMin > safety.LeavenWaitsMin:
		return late
	case in.Group == food.GroupPowder:
		return sifted
	case i.Role == food.RoleFlour, i.Role == food.RoleLeavener, i.Role == food.RoleSoda, i.Role == food.RoleSalt, leavens,
		in.Group == food.GroupSugar, in.Group == food.GroupSpice, in.Group == food.GroupDryPiece, i.Addition && i.Stage == batter.StageDry:
		return dry
	case in.Group == food.GroupFat && in.Minds(food.CodeMelt):
		return melted
	case o.Base.Whips() && in.White() > 0:
		return whites
	}
	return wet
}

func (o *order) whiteWords(w []Item) string {
	var g float64
	count := ""
	for _, i := range w {
		g += i.IntoG * i.Ingredient.White()
		if i.Fills != nil && len(w) == 1 {
			_, count = i.Fills(i.WeighG)
		}
	}
	if strings.HasSuffix(count, "egg") || strings.HasSuffix(count, "eggs") {
		return fmt.Sprintf("whites of %s, about %.0f g,", count, g)
	}
	return fmt.Sprintf("egg whites, about %.0f g,", g)
}

// keepBack is how much of which liquid waits in the jug for the test: only where an addition
// that is in the bowl by then makes the advice doubtful, and never more than a fifth.
func (o *order) keepBack(items []Item) (kept float64, from Item) {
	if !o.Judged || !o.Offset {
		return 0, Item{}
	}
	var liquid float64
	for _, i := range items {
		if i.Role == food.RoleLiquid && !i.Addition {
			liquid += i.IntoG
			if i.IntoG > from.IntoG {
				from = i
			}
		}
	}
	if o.KeptG > 0 && from.ID != "" {
		return math.Min(o.KeptG, from.IntoG), from
	}
	l := math.Max(0, o.Thickness.L())
	var doubt float64
	for _, i := range o.Items {
		if i.Addition && i.Stage.InBowl() && i.Stage != batter.StageFoldIn {
			doubt += doubtShare * i.IntoG * (math.Abs(flow.LiquidPerGram(i.Ingredient)) + l*i.Ingredient.Body)
		}
	}
	kept = measure.Round(math.Min(doubt, math.Min(mostKept*liquid, from.IntoG)), from.Step)
	if !(kept >= leastKept*liquid) || kept <= 0 {
		return 0, Item{}
	}
	return math.Min(kept, math.Floor(mostKept*liquid/from.Step+1e-9)*from.Step), from
}

func (o *order) infuse(items, wet []Item, whites bool) {
	var into []string
	var g float64
	egg := whites
	for _, i := range wet {
		egg = egg || i.Ingredient.Group == food.GroupEgg
		if i.Role == food.RoleLiquid && !i.Addition {
			into = append(into, i.Lower())
			g += i.IntoG
		}
	}
	for _, i := range items {
		if g <= 0 {
			o.step([]Item{i}, "Steep %s in a little warm liquid for %d min, strain and press: the base has no liquid of its own to steep it in.", i.amount(), steepMin)
			continue
		}
		o.step([]Item{i}, "Warm the %s, steep %s in it for %d min, strain, press what is left, and top up with fresh to %.0f g: %s.%s", words.List(into), i.amount(), steepMin, g, i.keeps(),
			words.Either(egg, " Let it cool to hand-warm and pour it into the egg in a thin stream, whisking: warm liquid sets egg.", ""))
	}
}

// Held is the liquid that everything steeped in a bowl keeps [g], and that is topped up with fresh.
func (r Recipe) Held() (g float64) {
	for _, i := range r.Items {
		if i.Addition && i.Stage == batter.StageInfused {
			g += i.held()
		}
	}
	return g
}

func (i Item) held() float64 { return i.Ingredient.Uptake * i.WeighG }

// keeps says how much of the liquid what is steeped holds back.
func (i Item) keeps() string {
	if held := i.held(); held >= 1 {
		return fmt.Sprintf("it keeps about %.0f g, and some goes in steam", held)
	}
	return "leaves and steam keep some"
}

// prepare tells what is done to additions before they go in; the step that takes them in counts
// their grams.
func (o *order) prepare() {
	for _, i := range o.Items {
		if i.Prepare != "" {
			o.step(nil, "%s, %s: %s It should come to %s.", i.Label, words.Grams(i.WeighG, i.Step), i.Prepare, words.Grams(i.IntoG, i.Step))
		}
		if i.Reduced {
			how := words.Either(i.Ingredient.Group == food.GroupGrated, "Salt, squeeze and drain", "Reduce")
			o.step(nil, "%s the %s from %s to %s, and weigh it below 30 °C.", how, i.Lower(), words.Grams(i.WeighG, i.Step), words.Grams(i.IntoG, i.Step))
		}
	}
}

// dryWork is what goes in dry.
type dryWork struct {
	sift, rest []Item
	bowlG      float64
}

func (d dryWork) all() []Item { return append(slices.Clone(d.sift), d.rest...) }

// little tells whether there is too little of it for a bowl of its own, and for a well.
func (d dryWork) little() bool {
	var g float64
	for _, i := range d.all() {
		g += i.IntoG
	}
	return g < leastDry*d.bowlG
}

func (o *order) dry(d dryWork) {
	if len(d.sift) > 0 {
		o.step(d.sift, "Sift %s: it lumps.", amounts(d.sift))
	}
	if len(d.rest) > 0 {
		o.step(d.rest, "Whisk together in %s: %s%s.", words.Either(d.little(), "a cup", "the big bowl"), amounts(d.rest), words.Either(len(d.sift) > 0, ", and what is sifted", ""))
	}
}

// onto begins the step that pours the wet onto the dry in the one bowl.
func (o *order) onto(d dryWork) string {
	switch {
	case len(d.all()) == 0:
		return "In the big bowl, whisk"
	case o.Base.Smooth(o.Form):
		return "Into the middle of the same bowl, a little at a time and whisked smooth before there is more"
	}
	return "Into the middle of the same bowl"
}

// into puts the dry into the one bowl where the wet is.
func (o *order) into(d dryWork, wet bool) {
	all := d.all()
	if len(all) == 0 {
		if !o.Mixed {
			o.step(nil, "Beat it even.")
		}
		return
	}
	how := words.Either(len(d.sift) > 0, "Sift over it, first what lumps", "Over it")
	s := o.step(all, "%s: %s. ", how, amounts(all))
	switch {
	case !wet:
		s.Text = strings.TrimSpace(s.Text)
	case o.Mixed:
		s.Text += "Stir it smooth with a spoon of the batter first, then fold it in with a few turns."
	case d.little():
		s.Text += "Whisk it in."
	case o.Base.Smooth(o.Form):
		s.Text += "Whisk from the middle until smooth."
	case o.Base.Toughens():
		s.Text += "Fold until just combined. Stop while it is lumpy: stirring makes it tough."
	default:
		s.Text += "Fold until just combined. A few lumps are fine."
	}
}

// settles is the water in 100 g from which cultured milk settles in its carton (modelling choice: buttermilk and kefir do,
// yogurt does not pour).
const settles = 88.0

func (o *order) wet(where string, items, eggs []Item, kept float64, from Item) {
	var parts []string
	var uses []Use
	for _, i := range items {
		if i.ID == from.ID && kept > 0 {
			uses = append(uses, Use{i.ID, i.WeighG - kept})
			i.IntoG -= kept
		} else {
			uses = append(uses, Use{i.ID, i.WeighG})
		}
		parts = append(parts, i.amount())
	}
	var yolks float64
	for _, i := range eggs {
		if share := 1 - i.Ingredient.White(); share > 0 {
			yolks += i.IntoG * share
			uses = append(uses, Use{i.ID, i.WeighG * share})
		}
	}
	if yolks > 0 {
		parts = append(parts, fmt.Sprintf("the yolks, about %.0f g", yolks))
	}
	if len(parts) == 0 {
		return
	}
	text := where + ": " + words.List(parts) + "."
	for _, i := range items {
		if i.Ingredient.Group == food.GroupCulturedDairy && i.Ingredient.Water > settles {
			text += fmt.Sprintf(" Shake the carton of %s before you pour: it settles.", i.Lower())
			break
		}
	}
	if kept > 0 {
		text += fmt.Sprintf(" Keep %s of the %s back for the test, in its jug.", from.says(kept), from.Lower())
	}
	if len(eggs) > 0 {
		text += " Keep the egg whites aside in a clean, dry bowl, without a trace of yolk."
	}
	o.steps = append(o.steps, Step{Text: text, Uses: uses, Helper: o.helper})
}

// fat melts what is hard, for a bowl that has a name, or to be poured in with the rest.
func (o *order) fat(bowl string, items []Item) {
	if len(items) == 0 {
		return
	}
	was := o.helper
	o.helper = AdultOnly
	defer func() { o.helper = was }()
	for _, i := range items {
		o.melted = o.melted || slices.Contains(i.Ingredient.Allergens, "milk")
	}
	where := "pour it in last"
	if bowl != "" {
		where = "stir it into the " + bowl + " last"
	}
	o.step(items, "Melt %s, let it cool to hand-warm, %s: in fridge-cold milk it sets in lumps.", amounts(items), where)
}

// combine brings dry and wet together; in the one bowl they are there already.
func (o *order) combine(d dryWork, wet, one bool) {
	pour := words.Either(one, "", "Pour into a well in the dry and ")
	switch {
	case len(d.all()) == 0:
		o.step(nil, "Beat it even.")
	case !wet: // everything else waits for its own step
	case d.little():
		o.step(nil, "Whisk the dry into it.")
	case o.Base.Smooth(o.Form) && one:
		o.step(nil, "Whisk from the middle until smooth.")
	case o.Base.Smooth(o.Form):
		o.step(nil, "Pour a little at a time into a well in the dry and whisk from the middle: first to a smooth paste, then with the rest until smooth.")
	case o.Base.Toughens():
		o.step(nil, "%s until just combined. Stop while it is lumpy: stirring makes it tough.", words.Upper(pour+"fold"))
	default:
		o.step(nil, "%s until just combined. A few lumps are fine.", words.Upper(pour+"fold"))
	}
}

// InCups is the recipe told in cups and spoons, where they can say it.
func (r Recipe) InCups() Recipe {
	r.Items = slices.Clone(r.Items)
	for i := range r.Items {
		r.Items[i].InCups = true
	}
	return r
}

// With is the recipe with other amounts of some of its lines in the bowl [g].
func (r Recipe) With(grams map[string]float64) Recipe {
	r.Parts, r.Items = slices.Clone(r.Parts), slices.Clone(r.Items)
	carried := map[string]float64{} // by a common batter
	for _, item := range r.Items {
		for id, g := range item.Carries {
			carried[id] += g
		}
	}
	for i, item := range r.Items {
		g, ok := grams[item.ID]
		if !ok || item.WeighG <= 0 {
			continue
		}
		share := g / item.WeighG
		r.Items[i].WeighG, r.Items[i].IntoG = g, item.IntoG*share
		for j, id := range r.PartLines {
			if own := r.Parts[j].Grams - carried[id]; id == item.ID {
				r.Parts[j].Grams += own * (share - 1)
			}
		}
		for j, id := range r.PartLines {
			r.Parts[j].Grams += item.Carries[id] * (share - 1)
		}
		for id := range item.Carries {
			carried[id] *= share
		}
	}
	pot := portion.BowlOf(r.Parts, portion.Air(r.Form))
	r.Thickness, r.MassG, r.Density = flow.Of(r.Parts), pot.MassG, pot.Density()
	return r
}

// SpreadAt is the diameter in mm of the test's ladle on a flat cold plate so many minutes after mixing.
func (r Recipe) SpreadAt(minutes float64) float64 {
	tau := r.Calibration.YieldStress(flow.At(r.Parts, minutes).L()) * flow.RestShare(minutes, flow.HydrationMin(r.Parts))
	d, _ := flow.Spread(r.TestML, tau, r.Density)
	return d
}

// Splash is the liquid in g that widens a portion from one diameter to another [mm], for what
// loosens the batter by perGram [ml/g]: the spread law turned round, never more than a bowl
// takes at once. Water that is still to come out of whole cells is in the target already.
func (r Recipe) Splash(fromMM, toMM, perGram float64) float64 {
	if fromMM <= 0 || toMM <= fromMM || perGram <= 0 {
		return 0
	}
	deltaL := 5 * math.Log(toMM/fromMM) / r.Calibration.B // τ ∝ D⁻⁵, ln τ = c − b·(L* − 2)
	return math.Min(deltaL*r.Thickness.Body/perGram, mostSplash*r.MassG)
}

// test tells how to find out whether the thickness is right, and uses what was kept back.
func (o *order) test(kept float64, from Item) {
	if !o.Judged || o.TestML <= 0 {
		return
	}
	var s *Step
	ruler := o.Spreads && o.Form != batter.Crepe
	stop := ""
	if kept > 0 {
		stop = fmt.Sprintf(" When it is right, stop: what is left of the %s stays out.", from.says(kept))
	}
	switch {
	case !ruler:
		thicker := ""
		if kept > 0 {
			thicker = fmt.Sprintf(" Thicker than that: stir in from the %s %s that you kept back, a third at a time.%s", from.says(kept), from.Lower(), stop)
		} else if o.liquid() != "" {
			thicker = fmt.Sprintf(" Thicker than that: stir in %s, a spoon at a time.", o.liquid())
		}
		s = o.step(nil, "Test: %s%s", o.inWords(), thicker)
	default:
		now := o.SpreadAt(0)
		text := fmt.Sprintf("Spread test, batter below 30 °C: %.0f ml on a flat cold plate should run to about %.0f mm", o.TestML, now)
		if o.RestMin > 0 {
			text += fmt.Sprintf(" now, or to %.0f mm if you test after the rest", o.SpreadAt(o.RestMin))
		}
		if o.HotMM > 0 {
			text += fmt.Sprintf(" (on the hot plate it lies %.0f mm wide)", o.HotMM)
		}
		text += "."
		if liquid := o.liquid(); liquid != "" {
			splash := math.Max(1, o.Splash(now-narrowMM, now, o.perGram()))
			text += fmt.Sprintf(" %.0f mm narrower: stir in %s%s, at most %.0f g at once, and test again.%s", narrowMM, words.Either(kept > 0 && splash > kept, "", "about "),
				FromJug(splash, kept, 1, liquid), math.Max(splash, mostSplash*o.MassG), stop)
		}
		if o.Calibration == flow.Prior {
			text += " No test has set this kitchen's ruler yet: go by how the first one cooks, and note what it ran to."
		}
		s = o.step(nil, "%s", text)
	}
	s.Code, s.Ruler = CodeTest, ruler
	if kept > 0 {
		s.Uses = append(s.Uses, Use{from.ID, kept})
	}
}

// FromJug tells so much of a liquid [g], on a step of the scale, by where it comes from: out of the jug as far as that goes, and no
// further; then the bottle is opened.
func FromJug(grams, kept, step float64, liquid string) string {
	switch more := grams - kept; {
	case kept <= 0:
		return words.Grams(grams, step) + " of " + liquid
	case more < step/2:
		return words.Grams(grams, step) + " of " + liquid + " from the jug"
	default:
		return fmt.Sprintf("the %s of %s in the jug, then open the bottle: %s more", words.Grams(kept, step), liquid, words.Grams(more, step))
	}
}

// main is the base's largest liquid that loosens.
func (o *order) main() (Item, bool) {
	var found Item
	for _, i := range o.Items {
		if i.Role == food.RoleLiquid && !i.Addition && (found.ID == "" || i.IntoG > found.IntoG) && flow.LiquidPerGram(i.Ingredient) > 0 {
			found = i
		}
	}
	return found, found.ID != ""
}

func (o *order) liquid() string {
	if i, ok := o.main(); ok {
		return i.Lower()
	}
	return "milk or water"
}

func (o *order) perGram() float64 {
	if i, ok := o.main(); ok {
		return math.Max(0.1, flow.LiquidPerGram(i.Ingredient)-math.Max(0, o.Thickness.L())*i.Ingredient.Body)
	}
	return 1
}

// Should is how the batter pours when it is right, in words.
func (r Recipe) Should() string { return (&order{Recipe: r}).inWords() }

// inWords is the thickness without a ruler, for what is not poured free.
func (o *order) inWords() string {
	if o.Form == batter.Crepe {
		return "it should coat the back of a spoon like thin cream, and run round the pan as you tilt it."
	}
	switch flow.ClassOf(o.Thickness.L()) {
	case flow.Runny:
		return "it should run off the spoon like cream."
	case flow.Thin:
		return "it should run off the spoon in a thin ribbon that sinks in at once."
	case flow.Standard:
		return "it should fall from the spoon in a ribbon that lies for a moment before it sinks in."
	case flow.Thick:
		return "it should fall from the spoon in soft folds that stay."
	}
	if o.Form == batter.DropScone {
		return "it should drop from the spoon in a heap that settles by itself."
	}
	return "it should drop from the spoon in lumps and want spreading."
}

func (o *order) rest(late []Item) {
	if o.RestMin > 0 {
		var used []*food.Ingredient
		for _, i := range o.Items {
			if !i.Addition || i.Stage.InBowl() {
				used = append(used, i.Ingredient)
			}
		}
		fridge := safety.Spoils(used) && o.RestMin >= safety.FridgeFromMin
		text := fmt.Sprintf("Rest %s%s.", words.Minutes(o.RestMin), words.Either(fridge, ", covered, in the fridge", ""))
		if len(late) > 0 {
			text += " The powder waits: over so long a rest it would spend its gas."
		}
		if o.RestMin > safety.DiscardAfterMin && safety.Spoils(used) {
			text += " Mixed batter with egg or milk keeps one day in the fridge: after that, discard it."
		}
		s := o.step(nil, "%s", text)
		s.Code, s.Minutes = CodeRest, o.RestMin
		s.Skip = words.Either(o.Base.Toughens(), "Without the rest the flour has drunk less: it runs wider at first and eats a little tougher.", "Without the rest the flour has drunk less, so it runs wider at first.")
	}
	o.asides(batter.MadeResting)
	o.heat(o.RestMin > soonRest)
	if len(late) > 0 {
		o.step(late, "Just before you cook, whisk in %s, stirred smooth with a spoon of the batter.", amounts(late))
	}
}

// perPortion is the share of a portion of what does not go through the bowl.
func (o *order) perPortion(i Item) string {
	if o.Count == 0 {
		return words.Grams(i.IntoG, i.Step) + " in all"
	}
	g := i.IntoG / float64(o.Count)
	if g < leastEach {
		return words.Grams(i.IntoG, i.Step) + " shared out over all"
	}
	return words.Grams(g, 0.1) + " a portion"
}

// Told joins the texts, for tests and exports.
func Told(steps []Step) string {
	var out []string
	for _, s := range steps {
		out = append(out, s.Text)
	}
	return strings.Join(out, "\n")
}
