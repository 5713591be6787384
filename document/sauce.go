package document

import (
	"errors"
	"fmt"
	"slices"

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
}

// SauceTarget is when it is done: one of them. Servings go with what one of them weighs.
type SauceTarget struct {
	Brix         *float64 `json:"brix,omitzero"`
	MassG        *float64 `json:"mass_g,omitzero"`
	TemperatureC *float64 `json:"temperature_c,omitzero"`
	Servings     *int     `json:"servings,omitzero"`
	ServingG     *float64 `json:"serving_g,omitzero"`
}

// SauceWish asks for a sauce to be worked out.
type SauceWish struct {
	Sauce *Sauce `json:"sauce"`
}

// SauceAnswer is a pot that was worked out.
type SauceAnswer struct {
	Lines      []SauceLine          `json:"lines"`
	Start      sauce.State          `json:"start"`
	End        sauce.State          `json:"end"`
	WaterOffG  float64              `json:"water_off_g"`
	SievedG    float64              `json:"sieved_g,omitzero"`
	JuiceG     float64              `json:"juice_g,omitzero"`
	Stops      []sauce.Stop         `json:"stops"`
	Steps      []string             `json:"steps"`
	Servings   int                  `json:"servings"`
	ServingG   float64              `json:"serving_g"`
	SugarsG    float64              `json:"sugars_g_per_serving"`
	SweetG     float64              `json:"sweet_as_sugar_g_per_serving"`
	Texture    string               `json:"texture"`
	KeepDays   int                  `json:"keep_days"`
	Cautions   []string             `json:"cautions"`
	Allergens  []string             `json:"allergens"`
	MayContain []string             `json:"may_contain"`
	Text       string               `json:"allergen_text"`
	Nutrition  *worksheet.Nutrients `json:"nutrition_per_100g"`
}

// SauceLine is a line as it goes into the pot.
type SauceLine struct {
	Ingredient string  `json:"ingredient"`
	Label      string  `json:"label"`
	Grams      float64 `json:"grams"`
}

// anySyrup leaves it to the lines which syrup it is.
const anySyrup = "syrup"

// maxSauceLines is how many lines a pot takes (modelling choice: a page).
const maxSauceLines = 40

// WorkSauce answers a SauceWish. The error is Problems.
func WorkSauce(w SauceWish, s Setting) (SauceAnswer, error) {
	if w.Sauce == nil {
		return SauceAnswer{}, Refusal("/sauce", "missing", "Give the sauce.")
	}
	p, err := w.Sauce.pot("/sauce", s)
	if err != nil {
		return SauceAnswer{}, err
	}
	r, err := sauce.Work(p)
	var wrong *sauce.Problem
	if errors.As(err, &wrong) {
		return SauceAnswer{}, Refusal("/sauce/"+wrong.Field, wrong.Code, "%s", wrong.Text)
	}
	if err != nil {
		return SauceAnswer{}, err
	}
	return sauceAnswer(r), nil
}

// pot reads a sauce.
func (a Sauce) pot(at string, s Setting) (sauce.Pot, error) {
	r := &reader{table: s.Table, ids: map[string]bool{}}
	k := s.Kitchen.Domain()
	switch {
	case a.Format != SauceFormat:
		r.p.Add(at+"/format", "wrong_format", "“%s” is not a sauce; a sauce says “%s”.", clip(a.Format), SauceFormat)
	case a.Version != Version:
		r.p.Add(at+"/version", "wrong_version", "Version %d of a sauce is not known here; %d is.", a.Version, Version)
	case len(a.Lines) > maxSauceLines:
		r.p.Add(at+"/lines", "too_many", "%d lines are too many; %d is the most.", len(a.Lines), maxSauceLines)
	}
	if a.Kind != anySyrup {
		choice(r, at+"/kind", a.Kind, sauce.Kinds, "", "kind of sauce")
	}
	if err := r.p.OrNil(); err != nil {
		return sauce.Pot{}, err
	}
	p := sauce.Pot{AltitudeM: k.AltitudeM, Browned: a.Browned, Minutes: r.within(at+"/minutes", a.Minutes, 1, 48*60, 0, "The minutes that it stands"),
		Overrun: r.within(at+"/overrun_pct", a.OverrunPct, 1, 250, 0, "The overrun in %")}
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
	if p.Kind = sauce.Kind(a.Kind); a.Kind == anySyrup {
		p.Kind = sauce.SyrupOf(p.Parts)
	}
	return p, r.p.OrNil()
}

func sauceAnswer(r sauce.Result) SauceAnswer {
	var used []*food.Ingredient
	out := SauceAnswer{Start: r.Start, End: r.End, WaterOffG: r.WaterOff, SievedG: r.Sieved, JuiceG: r.LiquidG, Stops: r.Stops, Steps: r.Steps, Servings: r.Servings,
		ServingG: r.ServingG, SugarsG: r.SugarsG, SweetG: r.Sweet, Texture: r.Texture, KeepDays: r.KeepDays, Cautions: r.Cautions, Lines: []SauceLine{}}
	for _, p := range r.Parts {
		used = append(used, p.Ingredient)
		out.Lines = append(out.Lines, SauceLine{p.Ingredient.ID, p.Ingredient.Label(), p.Grams})
		for _, m := range safety.MindFor(p.Ingredient) {
			if !slices.Contains(out.Cautions, m) {
				out.Cautions = append(out.Cautions, m)
			}
		}
	}
	a := safety.AllergensOf(used)
	out.Allergens, out.MayContain, out.Text = append([]string{}, a.Contains...), append([]string{}, a.May...), a.Text()
	if r.Total.Mass > 0 {
		out.Nutrition = worksheet.NutrientsOf(r.Total, 100/r.Total.Mass)
	}
	return out
}
