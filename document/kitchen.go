package document

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/heat"
	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
)

// KitchenFormat is the kitchen document.
const KitchenFormat = "upbeat-ladle/kitchen"

// Ladle is a ladle, cup or scoop with its measured volume.
type Ladle struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	VolumeML *float64 `json:"volume_ml"`
}

// Griddle is a plate or a pan; a round one needs its width only.
type Griddle struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	Round   bool     `json:"round,omitzero"`
	WidthCM *float64 `json:"width_cm"`
	DepthCM *float64 `json:"depth_cm,omitzero"`
	MinC    *float64 `json:"min_c,omitzero"`
	MaxC    *float64 `json:"max_c,omitzero"`

	Dial      string     `json:"dial,omitzero"`        // what stands on its knob: words, numbers, gas
	Marks     []DialMark `json:"marks,omitzero"`       // what its marks give, as far as it was mapped
	ShiftC    *float64   `json:"shift_c,omitzero"`     // that it is hotter than its marks say: what the first one cooked showed
	Contact   *float64   `json:"contact,omitzero"`     // times the usual contact, likewise
	HeatUpMin *float64   `json:"heat_up_min,omitzero"` // until it is hot
}

// DialMark is what a mark of a dial gives.
type DialMark struct {
	Mark string   `json:"mark"`
	C    *float64 `json:"c"`
}

// Iron is a waffle iron; a round one needs its width only.
type Iron struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	Round    bool     `json:"round,omitzero"`
	WidthMM  *float64 `json:"width_mm"`
	LengthMM *float64 `json:"length_mm,omitzero"`
	DepthMM  *float64 `json:"depth_mm"`
	GapMM    *float64 `json:"gap_mm"`
	Moulds   *float64 `json:"moulds"`

	TakesG    *float64 `json:"takes_g,omitzero"`  // of batter, one that came out well, weighed
	Light     bool     `json:"light,omitzero"`    // it has a light or a tone of its own
	ClosedS   *float64 `json:"closed_s,omitzero"` // until that came
	HeatUpMin *float64 `json:"heat_up_min,omitzero"`
}

// OwnKitchen is the kitchen document: what the cook works with.
type OwnKitchen struct {
	Format        string    `json:"format"`
	Version       int       `json:"version"`
	Name          string    `json:"name"`
	Measures      string    `json:"measures,omitzero"`
	EggG          *float64  `json:"egg_g,omitzero"`
	ScaleStepG    *float64  `json:"scale_step_g,omitzero"`
	LeavenerStepG *float64  `json:"leavener_step_g,omitzero"`
	AltitudeM     *float64  `json:"altitude_m,omitzero"`
	Ladles        []Ladle   `json:"ladles,omitzero"`
	Griddles      []Griddle `json:"griddles,omitzero"`
	Irons         []Iron    `json:"irons,omitzero"`
	LetterKeys    *bool     `json:"letter_keys,omitzero"`
	Units         string    `json:"units,omitzero"`
	Currency      string    `json:"currency,omitzero"`
	MugML         *float64  `json:"mug_ml,omitzero"`
	GlassML       *float64  `json:"glass_ml,omitzero"`
	HandfulML     *float64  `json:"handful_ml,omitzero"`
	HeapedG       *float64  `json:"heaped_g,omitzero"`     // of plain flour in a heaped tablespoon
	FlourMethod   string    `json:"flour_method,omitzero"` // how this kitchen's recipes fill a cup with flour
	Words         []OwnWord `json:"words,omitzero"`        // what it calls its ingredients
}

// OwnWord is a word of the kitchen's own for an ingredient, by which recipes are read.
type OwnWord struct {
	Word       string `json:"word"`
	Ingredient string `json:"ingredient"`
}

// withWords is the version of a kitchen that has words or a heaped spoon of its own.
const withWords = 2

// maxWords and maxWord bound them: how many, and how many letters (modelling choices).
const (
	maxWords = 200
	maxWord  = 60
)

// Bounds of what a kitchen holds; beyond them a figure is a slip of the keys (modelling choice).
const (
	maxThings          = 40
	minPlate, maxPlate = 10, 300 // cm
	minMould, maxMould = 30, 600 // mm
	minDeep, maxDeep   = 3, 80   // mm
	maxMoulds          = 24
	minOwnML, maxOwnML = 10, 1000 // ml of a mug, a glass, a handful
	minHeapedG         = 8        // g of flour: a level tablespoon
	maxHeapedG         = 40       // g of flour
	maxShiftC          = 60       // K
	minContact         = 0.5
	maxContact         = 1.5
	maxHeatUpMin       = 60
	minTakesG          = 10
	maxTakesG          = 1000
	minClosedS         = 30
	maxClosedS         = 900
)

// Limit is what a figure of the kitchen may be, and the step of the hand on it.
type Limit struct {
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	Step float64 `json:"step"`
}

// KitchenForm is what whoever draws a form for the kitchen needs: the limits of its figures by
// name, and things as they are when they are new.
type KitchenForm struct {
	Limits  map[string]Limit `json:"limits"`
	Ladle   Ladle            `json:"ladle"`
	Griddle Griddle          `json:"griddle"`
	Iron    Iron             `json:"iron"`
	Eggs    []EggSize        `json:"eggs"`
	Dials   []DialForm       `json:"dials"`

	Measures []MeasuresForm `json:"measures"`
}

// MeasuresForm is a set of cups and spoons, told with what its cup holds.
type MeasuresForm struct {
	Measures string `json:"measures"`
	Says     string `json:"says"`
}

// DialForm is what a dial shows.
type DialForm struct {
	Dial  batter.Dial `json:"dial"`
	Marks []string    `json:"marks"`
}

// EggSize is what a country calls an egg, and what is in it.
type EggSize struct {
	Label string  `json:"label"`
	EggG  float64 `json:"egg_g"`
}

// EggWish asks what is in an egg that was weighed in its shell.
type EggWish struct {
	ShellG *float64 `json:"shell_g"`
}

// EggAnswer is that.
type EggAnswer struct {
	EggG float64 `json:"egg_g"`
}

// InShell answers an EggWish. The error is Problems.
func InShell(w EggWish) (EggAnswer, error) {
	r := &reader{}
	r.need("/shell_g", w.ShellG, minEggG, maxEggG, "An egg in its shell in g")
	g := batter.EggSize{ShellG: or(w.ShellG)}.EdibleG()
	return EggAnswer{math.Round(10*g) / 10}, r.p.OrNil()
}

// FormOfKitchen returns it. New things have usual sizes (common practice, no source).
func FormOfKitchen() KitchenForm {
	v := func(f float64) *float64 { return &f }
	var eggs []EggSize
	for _, e := range batter.EggSizes {
		eggs = append(eggs, EggSize{fmt.Sprintf("%s, %s: %.0f g in the shell", e.Where, e.Name, e.ShellG), math.Round(e.EdibleG())})
	}
	var dials []DialForm
	for _, d := range batter.Dials {
		dials = append(dials, DialForm{d, heat.Marks(d)})
	}
	var measures []MeasuresForm
	for _, st := range []measure.Standard{measure.Metric, measure.US, measure.Imperial, measure.Australian} {
		measures = append(measures, MeasuresForm{st.Name, st.Says()})
	}
	return KitchenForm{
		Eggs: eggs, Dials: dials, Measures: measures,
		Limits: map[string]Limit{
			"egg_g": {minEggG, maxEggG, 1}, "altitude_m": {minAltM, maxAltM, 50}, "scale_step_g": {minStepG, maxStepG, 1}, "leavener_step_g": {minStepG, maxStepG, 0.1},
			"volume_ml": {batter.MinPortionML, batter.MaxPortionML, 5}, "width_cm": {minPlate, maxPlate, 1}, "depth_cm": {minPlate, maxPlate, 1},
			"min_c": {minPlateC, maxPlateC, 5}, "max_c": {minPlateC, maxPlateC, 5}, "width_mm": {minMould, maxMould, 5}, "length_mm": {minMould, maxMould, 5},
			"depth_mm": {minDeep, maxDeep, 1}, "gap_mm": {1, maxDeep, 1}, "moulds": {1, maxMoulds, 1}, "heat_up_min": {1, maxHeatUpMin, 1}, "takes_g": {minTakesG, maxTakesG, 5}, "closed_s": {minClosedS, maxClosedS, 5}, "own_ml": {minOwnML, maxOwnML, 5}, "heaped_g": {minHeapedG, maxHeapedG, 1},
		},
		Ladle:   Ladle{Name: "Ladle", VolumeML: v(60)},
		Griddle: Griddle{Name: "Plate", WidthCM: v(50), DepthCM: v(30), HeatUpMin: v(heat.PlateUpMin)},
		Iron:    Iron{Name: "Iron", Round: true, WidthMM: v(180), DepthMM: v(26), GapMM: v(9), Moulds: v(1), HeatUpMin: v(heat.IronUpMin)},
	}
}

// DefaultOwnKitchen is the kitchen of a database that has none yet.
func DefaultOwnKitchen() OwnKitchen {
	return OwnKitchen{Format: KitchenFormat, Version: Version, Name: "My kitchen", Measures: measure.Metric.Name}
}

// DecodeKitchen reads and checks a kitchen document. The error is Problems.
func DecodeKitchen(data []byte) (OwnKitchen, error) {
	var k OwnKitchen
	if err := Strict(data, &k); err != nil {
		return OwnKitchen{}, err
	}
	if err := headerUpTo(withWords, k.Format, k.Version, KitchenFormat); err != nil {
		return OwnKitchen{}, err
	}
	r := &reader{ids: map[string]bool{}}
	r.named("", k.Name)
	base := Kitchen{Measures: k.Measures, AltitudeM: k.AltitudeM, EggG: k.EggG, ScaleStepG: k.ScaleStepG, LeavenerStepG: k.LeavenerStepG}
	r.kitchen(&base)
	for i := range r.p { // those are its own fields here
		r.p[i].Pointer = trimKitchen(r.p[i].Pointer)
	}
	if k.Units != "" && !slices.Contains([]string{"grams", "cups"}, k.Units) {
		r.p.Add("/units", "unknown_choice", "“%s” is not a way to show amounts. Use grams or cups.", clip(k.Units))
	}
	if k.FlourMethod != "" {
		choice(r, "/flour_method", k.FlourMethod, measure.FlourMethods, "", "way to measure flour")
	}
	if len([]rune(k.Currency)) > 8 {
		r.p.Add("/currency", "too_long", "Write the currency in at most 8 characters.")
	}
	for at, v := range map[string]*float64{"/mug_ml": k.MugML, "/glass_ml": k.GlassML, "/handful_ml": k.HandfulML} {
		r.within(at, v, minOwnML, maxOwnML, 0, "A measure of your own in ml")
	}
	r.within("/heaped_g", k.HeapedG, minHeapedG, maxHeapedG, 0, "A heaped tablespoon of flour in grams")
	r.words(k.Words)
	for _, n := range []int{len(k.Ladles), len(k.Griddles), len(k.Irons)} {
		if n > maxThings {
			r.p.Add("", "too_many", "More than %d of a kind are too many for one kitchen.", maxThings)
			return OwnKitchen{}, r.p
		}
	}
	for i, l := range k.Ladles {
		at := fmt.Sprintf("/ladles/%d", i)
		r.thing(at, l.ID, l.Name)
		r.need(at+"/volume_ml", l.VolumeML, batter.MinPortionML, batter.MaxPortionML, "A ladle in ml")
	}
	for i, g := range k.Griddles {
		at := fmt.Sprintf("/griddles/%d", i)
		r.thing(at, g.ID, g.Name)
		r.need(at+"/width_cm", g.WidthCM, minPlate, maxPlate, "A plate in cm")
		if !g.Round {
			r.need(at+"/depth_cm", g.DepthCM, minPlate, maxPlate, "A plate in cm")
		}
		r.within(at+"/min_c", g.MinC, minPlateC, maxPlateC, 0, "The plate in °C")
		r.within(at+"/max_c", g.MaxC, minPlateC, maxPlateC, 0, "The plate in °C")
		if g.MinC != nil && g.MaxC != nil && *g.MinC > *g.MaxC {
			r.p.Add(at+"/max_c", "out_of_range", "The hottest of the plate is below its coolest.")
		}
		r.within(at+"/shift_c", g.ShiftC, -maxShiftC, maxShiftC, 0, "What the first one showed, in °C,")
		r.within(at+"/contact", g.Contact, minContact, maxContact, 0, "The contact of the plate")
		r.within(at+"/heat_up_min", g.HeatUpMin, 1, maxHeatUpMin, 0, "The minutes until it is hot")
		r.dial(at, g)
	}
	for i, n := range k.Irons {
		at := fmt.Sprintf("/irons/%d", i)
		r.thing(at, n.ID, n.Name)
		r.need(at+"/width_mm", n.WidthMM, minMould, maxMould, "A waffle in mm")
		if !n.Round {
			r.need(at+"/length_mm", n.LengthMM, minMould, maxMould, "A waffle in mm")
		}
		r.need(at+"/depth_mm", n.DepthMM, minDeep, maxDeep, "The height of a waffle in mm")
		r.need(at+"/gap_mm", n.GapMM, 1, maxDeep, "The gap of the plates in mm")
		r.need(at+"/moulds", n.Moulds, 1, maxMoulds, "The number of waffles at once")
		r.within(at+"/takes_g", n.TakesG, minTakesG, maxTakesG, 0, "The batter of one in g")
		r.within(at+"/closed_s", n.ClosedS, minClosedS, maxClosedS, 0, "The time until its light, in s,")
		r.within(at+"/heat_up_min", n.HeatUpMin, 1, maxHeatUpMin, 0, "The minutes until it is hot")
	}
	return k, r.p.OrNil()
}

// dial reads what stands on a plate's knob: the temperatures of its marks must rise with them.
func (r *reader) dial(at string, g Griddle) []batter.Mark {
	if g.Dial == "" {
		if len(g.Marks) > 0 {
			r.p.Add(at+"/dial", "missing", "Say what stands on the knob: words, numbers or gas.")
		}
		return nil
	}
	dial := choice(r, at+"/dial", g.Dial, batter.Dials, "", "dial")
	names := heat.Marks(dial)
	var out []batter.Mark
	for i, m := range g.Marks {
		mark := fmt.Sprintf("%s/marks/%d", at, i)
		place := slices.Index(names, m.Mark)
		if place < 0 {
			r.p.Add(mark+"/mark", "unknown_choice", "“%s” is not on that dial. It has %s.", clip(m.Mark), strings.Join(names, ", "))
			continue
		}
		r.need(mark+"/c", m.C, minPlateC, maxPlateC, "The plate in °C")
		if slices.ContainsFunc(out, func(o batter.Mark) bool { return o.At == float64(place) }) {
			r.p.Add(mark+"/mark", "duplicate", "“%s” stands twice.", m.Mark)
		}
		out = append(out, batter.Mark{At: float64(place), C: or(m.C)})
	}
	slices.SortFunc(out, func(a, b batter.Mark) int { return cmp.Compare(a.At, b.At) })
	for i := 1; i < len(out); i++ {
		if out[i].C <= out[i-1].C {
			r.p.Add(at+"/marks", "out_of_order", "A higher mark has to be hotter: %s is %.0f °C and %s is %.0f °C.", names[int(out[i-1].At)], out[i-1].C, names[int(out[i].At)], out[i].C)
		}
	}
	return out
}

func trimKitchen(pointer string) string {
	const own = "/kitchen"
	if len(pointer) > len(own) && pointer[:len(own)] == own {
		return pointer[len(own):]
	}
	return pointer
}

func (r *reader) named(at, name string) {
	if name == "" {
		r.p.Add(at+"/name", "missing", "Give it a name.")
	} else if len([]rune(name)) > batter.MaxName {
		r.p.Add(at+"/name", "too_long", "The name is longer than %d characters.", batter.MaxName)
	}
}

func (r *reader) thing(at, id, name string) {
	r.named(at, name)
	switch {
	case id == "":
		r.p.Add(at+"/id", "missing", "It needs an id.")
	case r.ids[id]:
		r.p.Add(at+"/id", "duplicate", "The id “%s” stands twice.", clip(id))
	}
	r.ids[id] = true
}

func (r *reader) need(at string, v *float64, low, high float64, what string) {
	if v == nil {
		r.p.Add(at, "missing", "%s is missing.", what)
		return
	}
	r.within(at, v, low, high, 0, what)
}

// Encode writes the document.
func (k OwnKitchen) Encode() ([]byte, error) {
	k.Version = Version
	if len(k.Words) > 0 || k.HeapedG != nil {
		k.Version = withWords
	}
	return encode(k)
}

// words reads the words of a kitchen: each once. What they are of need not be in the pantry any more; then they say nothing.
func (r *reader) words(words []OwnWord) {
	if len(words) > maxWords {
		r.p.Add("/words", "too_many", "More than %d words of your own are too many.", maxWords)
		return
	}
	had := map[string]bool{}
	for i, w := range words {
		at := fmt.Sprintf("/words/%d", i)
		key := strings.ToLower(strings.TrimSpace(w.Word))
		switch {
		case key == "":
			r.p.Add(at+"/word", "missing", "Say the word.")
		case len([]rune(key)) > maxWord:
			r.p.Add(at+"/word", "too_long", "A word of your own has at most %d letters.", maxWord)
		case w.Ingredient == "":
			r.p.Add(at+"/ingredient", "missing", "Say which ingredient “%s” is.", clip(w.Word))
		case had[key]:
			r.p.Add(at+"/word", "twice", "“%s” is there twice.", clip(w.Word))
		}
		had[key] = true
	}
}

// taught are the words of a kitchen as the reader of recipes takes them.
func (k OwnKitchen) taught(table *food.Table) (out []recipe.Taught) {
	for _, w := range k.Words {
		if in := table.ByID(w.Ingredient); in != nil {
			out = append(out, recipe.Taught{Word: w.Word, Ingredient: in})
		}
	}
	return out
}

// Domain is the kitchen as the core works with it.
func (k OwnKitchen) Domain() batter.Kitchen {
	out := batter.DefaultKitchen()
	k.into(&out)
	return out
}

// into fills the domain's kitchen with what the document of it says.
func (k *OwnKitchen) into(out *batter.Kitchen) {
	if st, ok := measure.Standards[k.Measures]; ok {
		out.Measures = st
	}
	out.Measures.Mug, out.Measures.Glass, out.Measures.Handful = or(k.MugML), or(k.GlassML), or(k.HandfulML)
	if k.HeapedG != nil {
		if level, err := out.Grams(batter.Line{Ingredient: food.Reference().ByID("plain_flour"), Amount: 1, Unit: measure.Tbsp}); err == nil && level > 0 {
			out.Measures.Heaped = max(1, *k.HeapedG/level)
		}
	}
	for _, f := range []struct {
		from *float64
		to   *float64
	}{{k.EggG, &out.EggG}, {k.ScaleStepG, &out.ScaleStep}, {k.LeavenerStepG, &out.LeavenStep}, {k.AltitudeM, &out.AltitudeM}} {
		if f.from != nil {
			*f.to = *f.from
		}
	}
	for _, l := range k.Ladles {
		out.Ladles = append(out.Ladles, batter.Ladle{ID: l.ID, Name: l.Name, VolumeML: or(l.VolumeML)})
	}
	for _, g := range k.Griddles {
		plate := batter.Griddle{
			ID: g.ID, Name: g.Name, Round: g.Round, WidthMM: 10 * or(g.WidthCM), DepthMM: 10 * or(g.DepthCM), MinC: or(g.MinC), MaxC: or(g.MaxC),
			Dial: batter.Dial(g.Dial), Marks: (&reader{}).dial("", g), ShiftC: or(g.ShiftC), Contact: or(g.Contact), HeatUpMin: or(g.HeatUpMin),
		}
		if g.Round {
			plate.DepthMM = plate.WidthMM
		}
		out.Griddles = append(out.Griddles, plate)
	}
	for _, n := range k.Irons {
		iron := batter.Iron{
			ID: n.ID, Name: n.Name, Round: n.Round, WidthMM: or(n.WidthMM), LengthMM: or(n.LengthMM), DepthMM: or(n.DepthMM),
			GapMM: or(n.GapMM), Moulds: int(or(n.Moulds)), TakesG: or(n.TakesG), Light: n.Light, ClosedS: or(n.ClosedS), HeatUpMin: or(n.HeatUpMin),
		}
		if n.Round {
			iron.LengthMM = iron.WidthMM
		}
		out.Irons = append(out.Irons, iron)
	}
}

// in puts a variation into a kitchen: what the document says of its kitchen outranks what
// the kitchen says of itself.
func (v Variation) in(k OwnKitchen) Variation {
	var own Kitchen
	if v.Kitchen != nil {
		own = *v.Kitchen
	}
	own.owned = &k
	v.Kitchen = &own
	return v
}
