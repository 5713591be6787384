package document

import (
	"errors"
	"fmt"
	"slices"
	"strings"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
	"upbeatladle/core/sauce"
	"upbeatladle/core/worksheet"
)

// SauceFormat is the sauce document.
const SauceFormat = "upbeat-ladle/sauce"

// Sauce is a pot: what goes in and what is wanted of it.
type Sauce struct {
	Format     string       `json:"format"`
	Version    int          `json:"version"`
	Name       string       `json:"name"`
	Kind       string       `json:"kind"`
	Lines      []Line       `json:"lines"`
	Target     *SauceTarget `json:"target,omitzero"`
	Browned    bool         `json:"browned,omitzero"`     // of butter
	Minutes    *float64     `json:"minutes,omitzero"`     // that macerated fruit stands
	OverrunPct *float64     `json:"overrun_pct,omitzero"` // of whipped cream
	Served     string       `json:"served,omitzero"`      // warm · cold; as usual
	PotMM      *float64     `json:"pot_mm,omitzero"`      // across; as usual
	PotG       *float64     `json:"pot_g,omitzero"`       // the empty pot
	Note       string       `json:"note,omitzero"`
}

// SauceTarget is when it is done: one of °Brix, weight, temperature. Servings go with what one of them weighs, and may
// stand beside a °Brix or a temperature.
type SauceTarget struct {
	Brix         *float64 `json:"brix,omitzero"`
	MassG        *float64 `json:"mass_g,omitzero"`
	TemperatureC *float64 `json:"temperature_c,omitzero"`
	Servings     *int     `json:"servings,omitzero"`
	ServingG     *float64 `json:"serving_g,omitzero"`
}

// SauceWish asks for a sauce to be worked out, and how it stands by what a device shows.
type SauceWish struct {
	Sauce *Sauce        `json:"sauce"`
	Now   *SauceReading `json:"now,omitzero"`
}

// SauceReading is what is seen of a pot: one of them.
type SauceReading struct {
	ScaleG       *float64 `json:"scale_g,omitzero"` // with the pot, where its weight is known
	Brix         *float64 `json:"brix,omitzero"`
	TemperatureC *float64 `json:"temperature_c,omitzero"`
}

// SauceAnswer is a pot that was worked out.
type SauceAnswer struct {
	sauce.Result
	Lines      []SauceLine          `json:"lines"`
	Pot        sauce.Drawing        `json:"pot"`
	Watch      sauce.Watch          `json:"watch"` // before anything was read
	Now        *sauce.Now           `json:"now,omitzero"`
	Colour     string               `json:"colour"`
	Allergens  []string             `json:"allergens"`
	MayContain []string             `json:"may_contain"`
	Text       string               `json:"allergen_text"`
	Nutrition  *worksheet.Nutrients `json:"nutrition_per_100g"`
	Curve      []sauce.Point        `json:"curve"` // where sugar in water boils in this kitchen
	Tub        PantryItem           `json:"tub"`   // what is kept of it
}

// SauceLine is a line as it goes into the pot.
type SauceLine struct {
	Ingredient string   `json:"ingredient"`
	Label      string   `json:"label"`
	Grams      float64  `json:"grams"`
	Allergens  []string `json:"allergens"`
	MayContain []string `json:"may_contain"`
}

// Bounds of a sauce (modelling choices: a page, a line, a stock pot).
const (
	maxSauceLines = 40
	maxSauceName  = 120    // letters
	maxPotG       = 20_000 // g, the empty pot
)

// WorkSauce answers a SauceWish. The error is Problems.
func WorkSauce(w SauceWish, s Setting) (SauceAnswer, error) {
	if w.Sauce == nil {
		return SauceAnswer{}, Refusal("/sauce", "missing", "Give the sauce.")
	}
	r, err := w.Sauce.work("/sauce", s.Table, s.Kitchen.Domain())
	if err != nil {
		return SauceAnswer{}, err
	}
	out := w.Sauce.answer(r, s)
	if w.Now == nil {
		return out, nil
	}
	rd := &reader{}
	now, err := r.At(sauce.Reading{ScaleG: rd.above("/now/scale_g", w.Now.ScaleG, "The weight"), Brix: rd.above("/now/brix", w.Now.Brix, "The °Brix"),
		TemperatureC: rd.above("/now/temperature_c", w.Now.TemperatureC, "The temperature")})
	if len(rd.p) > 0 {
		return out, rd.p
	}
	if err = refusalOfSauce("", err); err != nil {
		return out, err
	}
	out.Now, out.Stops = &now, r.Beside(now)
	return out, nil
}

// refusalOfSauce turns a *sauce.Problem into the error of a document.
func refusalOfSauce(at string, err error) error {
	var wrong *sauce.Problem
	if errors.As(err, &wrong) {
		return Refusal(at+"/"+wrong.Field, wrong.Code, "%s", wrong.Text)
	}
	return err
}

// work reads a sauce and works it out. The error is Problems.
func (a Sauce) work(at string, table *food.Table, k batter.Kitchen) (sauce.Result, error) {
	p, err := a.pot(at, table, k)
	if err != nil {
		return sauce.Result{}, err
	}
	r, err := sauce.Work(p)
	return r, refusalOfSauce(at, err)
}

// pot reads a sauce.
func (a Sauce) pot(at string, table *food.Table, k batter.Kitchen) (sauce.Pot, error) {
	r := &reader{table: table, ids: map[string]bool{}}
	switch {
	case a.Format != SauceFormat:
		r.p.Add(at+"/format", "wrong_format", "“%s” is not a sauce; a sauce says “%s”.", clip(a.Format), SauceFormat)
	case a.Version != Version:
		r.p.Add(at+"/version", "wrong_version", "Version %d of a sauce is not known here; %d is.", a.Version, Version)
	case len(a.Lines) > maxSauceLines:
		r.p.Add(at+"/lines", "too_many", "%d lines are too many; %d is the most.", len(a.Lines), maxSauceLines)
	}
	if a.Kind != string(sauce.Syrup) {
		choice(r, at+"/kind", a.Kind, sauce.Kinds(), "", "kind of sauce")
	}
	if err := r.p.OrNil(); err != nil {
		return sauce.Pot{}, err
	}
	p := sauce.Pot{AltitudeM: k.AltitudeM, Browned: a.Browned, Minutes: r.within(at+"/minutes", a.Minutes, 1, 48*60, 0, "The minutes that it stands"),
		Overrun: r.within(at+"/overrun_pct", a.OverrunPct, 1, 250, 0, "The overrun in %"), Served: sauce.Served(a.Served),
		WideMM: r.within(at+"/pot_mm", a.PotMM, sauce.MinPotMM, sauce.MaxPotMM, 0, "The pot across, in mm,"), EmptyG: r.within(at+"/pot_g", a.PotG, 1, maxPotG, 0, "The empty pot, in g,")}
	if len([]rune(a.Name)) > maxSauceName {
		r.p.Add(at+"/name", "too_long", "The name is longer than %d letters.", maxSauceName)
	}
	if len([]rune(a.Note)) > maxNote {
		r.p.Add(at+"/note", "too_long", "The note is longer than %d characters.", maxNote)
	}
	for i, l := range a.Lines {
		line, ok := r.line(fmt.Sprintf("%s/lines/%d", at, i), l, fmt.Sprintf("s%d", i+1))
		if !ok {
			continue
		}
		g, err := k.Grams(line)
		if err != nil || !(g > 0 && g <= batter.MaxLineG) {
			r.p.Add(fmt.Sprintf("%s/lines/%d/amount", at, i), "out_of_range", "%s needs an amount above zero that can be weighed, up to %d kg.", line.Ingredient.Label(), batter.MaxLineG/1000)
			continue
		}
		p.Parts = append(p.Parts, food.Part{Ingredient: line.Ingredient, Grams: g})
	}
	if t := a.Target; t != nil {
		p.Target = sauce.Target{Brix: r.above(at+"/target/brix", t.Brix, "The °Brix"), MassG: r.above(at+"/target/mass_g", t.MassG, "The weight"),
			TemperatureC: r.above(at+"/target/temperature_c", t.TemperatureC, "The temperature"), ServingG: r.above(at+"/target/serving_g", t.ServingG, "A serving")}
		if t.Servings != nil {
			if *t.Servings < 1 {
				r.p.Add(at+"/target/servings", "not_positive", "Servings are counted from 1.")
			}
			p.Target.Servings = *t.Servings
		}
	}
	if p.Kind = sauce.Kind(a.Kind); p.Kind == sauce.Syrup {
		p.Kind = sauce.SyrupOf(p.Parts)
	}
	return p, r.p.OrNil()
}

func (a Sauce) answer(r sauce.Result, s Setting) SauceAnswer {
	out := SauceAnswer{Result: r, Lines: []SauceLine{}, Pot: r.InPot(), Watch: r.Watched(), Colour: r.Colour(), Curve: sauce.Curve(s.Kitchen.Domain().AltitudeM)}
	out.Cautions = slices.Clone(r.Cautions)
	for _, p := range r.Parts {
		out.Lines = append(out.Lines, SauceLine{p.Ingredient.ID, p.Ingredient.Label(), p.Grams, append([]string{}, p.Ingredient.Allergens...), append([]string{}, p.Ingredient.MayContain...)})
		for _, m := range safety.MindFor(p.Ingredient) {
			if !slices.Contains(out.Cautions, m) {
				out.Cautions = append(out.Cautions, m)
			}
		}
	}
	al := safety.AllergensOf(r.Used())
	out.Allergens, out.MayContain, out.Text = append([]string{}, al.Contains...), append([]string{}, al.May...), al.Text()
	if r.Total.Mass > 0 {
		out.Nutrition = worksheet.NutrientsOf(r.Total, 100/r.Total.Mass)
	}
	out.Tub = a.tub(r, s)
	return out
}

// tub is what is kept of a sauce that was made today. It has the sauce's name, so that whatever goes by the sauce finds it.
func (a Sauce) tub(r sauce.Result, s Setting) PantryItem {
	p := ItemOf(r.Product(Slug(a.Name), strings.TrimSpace(a.Name)))
	keep, stock := float64(r.KeepDays), significant(r.Total.Mass)
	p.MadeOn, p.KeepsDays, p.StockG, p.PricePerKg = s.Day(), &keep, &stock, nil
	return p
}

// house is a sauce as it goes on portions; its tub is the pantry's item of its name.
func (a Sauce) house(r sauce.Result, table *food.Table) *batter.House {
	h := &batter.House{Name: strings.TrimSpace(a.Name), Product: r.Product(Slug(a.Name), strings.TrimSpace(a.Name)), When: r.When, Serve: r.Serve, Cautions: r.CautionsOf(strings.TrimSpace(a.Name)), Loose: r.Loose()}
	for _, own := range table.All() { // of several the fullest that has not grown old
		if own.Own == nil || own.Own.Table != nil || own.Role != food.RoleTopping || own.Name != h.Name {
			continue
		}
		if h.Tub == nil || h.Tub.Own.Stale() && !own.Own.Stale() || h.Tub.Own.Stale() == own.Own.Stale() && own.Stock > h.Tub.Stock {
			h.Tub = own
		}
	}
	h.Sized = func(grams float64) ([]food.Part, []string) {
		one, err := r.Of(grams)
		if err != nil { // it was worked out in its own size
			return nil, nil
		}
		return one.Parts, one.Steps
	}
	return h
}

// DecodeSauce reads a sauce document strictly. The error is Problems.
func DecodeSauce(data []byte) (Sauce, error) {
	var a Sauce
	if err := Strict(data, &a); err != nil {
		return a, err
	}
	return a, header(a.Format, a.Version, SauceFormat)
}

// Encode writes the document.
func (a Sauce) Encode() ([]byte, error) { return encode(a) }

// SummariseSauce reads a sauce and works it out, so that nothing is saved that cannot be made. The error is Problems.
func SummariseSauce(data []byte, s Setting) (Summary, error) {
	a, err := DecodeSauce(data)
	if err != nil {
		return Summary{}, err
	}
	if strings.TrimSpace(a.Name) == "" {
		return Summary{}, Refusal("/name", "missing", "Name the sauce.")
	}
	r, err := a.work("", s.Table, s.Kitchen.Domain())
	if err != nil {
		return Summary{}, err
	}
	al := safety.AllergensOf(r.Used())
	drawn, err := Answer(pictureJSON{Count: r.Servings, Colour: r.Colour(), Allergens: al.Text(), Suspects: al.Suspects()})
	if err != nil {
		return Summary{}, err
	}
	text, err := a.Encode()
	return Summary{Name: strings.TrimSpace(a.Name), Form: string(r.Kind), Verdict: fmt.Sprintf("%d servings of %.0f g", r.Servings, r.ServingG), Picture: drawn, Body: text}, err
}

// Uses tells whether a sauce names an ingredient; none names nothing.
func (a *Sauce) Uses(id string) bool { return a != nil && names(a.Lines, id) }

// Export writes a sauce in an open format. The error is Problems.
func (a Sauce) Export(as string, s Setting) ([]byte, error) {
	if as == "json" {
		return a.Encode()
	}
	r, err := a.work("", s.Table, s.Kitchen.Domain())
	if err != nil {
		return nil, err
	}
	w := a.answer(r, s)
	var b strings.Builder
	heading, item, step, say := "", "", "", oneLine
	if as == "markdown" {
		heading, item, step, say = "## ", "- ", "1. ", escapeMarkdown
		b.WriteString("# ")
	}
	fmt.Fprintf(&b, "%s\n\n%d servings of %.0f g\n%s\n\n%sWhat goes in\n\n", say(strings.TrimSpace(a.Name)), w.Servings, w.ServingG, say(w.Text), heading)
	for _, l := range w.Lines {
		fmt.Fprintf(&b, "%s%s %s\n", item, spokenGrams(l.Grams), say(l.Label))
	}
	fmt.Fprintf(&b, "\n%sHow\n\n", heading)
	for _, t := range append(slices.Clone(w.Steps), w.Serve) {
		if t != "" {
			fmt.Fprintf(&b, "%s%s\n", step, say(t))
		}
	}
	fmt.Fprintf(&b, "\n%sDone when\n\n", heading)
	for _, st := range w.Stops {
		at := ""
		if st.At != 0 {
			at = fmt.Sprintf("%.4g %s: ", st.At, st.Unit)
		}
		fmt.Fprintf(&b, "%s%s%s\n", item, say(at), say(st.Text))
	}
	fmt.Fprintf(&b, "\n%sMind\n\n", heading)
	for _, c := range w.Cautions {
		fmt.Fprintf(&b, "%s%s\n", item, say(c))
	}
	return []byte(b.String()), nil
}

// spokenGrams writes a mass as it is weighed for a pot.
func spokenGrams(g float64) string {
	if g < 10 {
		return fmt.Sprintf("%.1f g", g)
	}
	return fmt.Sprintf("%.0f g", g)
}
