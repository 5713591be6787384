// Package base judges a base batter on its own: its baker's percentages and what they do, beside
// what is usual for its form and style.
package base

import (
	"context"
	"fmt"
	"math"

	"upbeatladle/core/balance"
	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/words"
	"upbeatladle/core/worksheet"
)

// Ratio is one trait of a base, beside what is usual for its form.
type Ratio struct {
	Key      string               `json:"key"`
	Name     string               `json:"name"`
	Unit     string               `json:"unit"`
	Brief    string               `json:"brief,omitzero"` // the unit where there is little room: “%” for “% of flour”
	Value    float64              `json:"value"`
	Low      *float64             `json:"low,omitzero"` // nil when nothing is usual
	High     *float64             `json:"high,omitzero"`
	State    worksheet.GaugeState `json:"state"` // in_band · low · high · unknown
	Decimals int                  `json:"decimals"`
}

// in sets what is usual for the trait.
func (r Ratio) in(b batter.Band, usual bool) Ratio {
	if usual {
		r.Low, r.High = &b.Low, &b.High
	}
	return r
}

// Fingerprint tells bases apart: baker's percentages and what they do.
type Fingerprint struct {
	Ratios    []Ratio  `json:"ratios"`
	Sentences []string `json:"sentences"`
	Class     string   `json:"class,omitzero"`
	FlourG    float64  `json:"flour_g"`
	Trouble   bool     `json:"trouble,omitzero"` // it cannot be worked out, and a sentence says why
}

// usual are baker's percentages by form: g per 100 g of flour and starch (common practice, no
// source).
var usual = map[batter.Form]map[string]batter.Band{
	batter.Pancake:   {"liquid": {Low: 105, High: 175}, "egg": {Low: 15, High: 55}, "fat": {Low: 4, High: 28}, "sugar": {Low: 2, High: 20}, "salt": {Low: 0.4, High: 1.6}},
	batter.DropScone: {"liquid": {Low: 65, High: 125}, "egg": {Low: 15, High: 55}, "fat": {Low: 0, High: 20}, "sugar": {Low: 3, High: 28}, "salt": {Low: 0, High: 1.6}},
	batter.Waffle:    {"liquid": {Low: 85, High: 180}, "egg": {Low: 18, High: 75}, "fat": {Low: 12, High: 60}, "sugar": {Low: 0, High: 25}, "salt": {Low: 0.3, High: 1.6}},
	batter.Crepe:     {"liquid": {Low: 170, High: 300}, "egg": {Low: 15, High: 95}, "fat": {Low: 0, High: 28}, "sugar": {Low: 0, High: 18}, "salt": {Low: 0.2, High: 2}},
}

// usualOf is what a style keeps to where it differs from its form (common practice, no
// source): sour milk and curd are thicker than milk, so more goes in; some stand on their eggs.
var usualOf = map[batter.Style]map[string]batter.Band{
	"cultured":     {"liquid": {Low: 120, High: 215}},
	"yogurt":       {"liquid": {Low: 120, High: 215}},
	"curd":         {"liquid": {Low: 150, High: 300}, "egg": {Low: 30, High: 125}},
	batter.Whipped: {"egg": {Low: 25, High: 125}},
}

// bandOf is what is usual for a trait; false when nothing is.
func bandOf(v batter.Variation, key string) (batter.Band, bool) {
	if b, ok := usualOf[v.Base.Style][key]; ok {
		return b, true
	}
	b, ok := usual[v.Form][key]
	return b, ok
}

// soda against acid: what most recipes keep to (common practice, no source).
var sodaBand = batter.Band{Low: 0.4, High: 1.1}

const (
	twice = 1.7 // times the middle of the usual is called twice (modelling choice)
	half  = 0.6
)

// made is what a base is made of [g].
type made struct {
	flour, liquid, egg, fat, sugar, salt, powder float64
	parts                                        []food.Part
}

func madeOf(v batter.Variation, lines []worksheet.Line) (m made) {
	for i, l := range v.Base.Lines {
		g, in := *lines[i].Base, l.Ingredient
		m.parts = append(m.parts, food.Part{Ingredient: in, Grams: g})
		switch {
		case in.IsFlour() || l.Role == food.RoleFlour:
			m.flour += g
		case in.Group == food.GroupEgg:
			m.egg += g
		case l.Role == food.RoleLiquid, in.Group == food.GroupLiquid, in.Group == food.GroupCulturedDairy:
			m.liquid += g
		case l.Role == food.RoleFat:
			m.fat += g
		case l.Role == food.RoleSugar:
			m.sugar += g
		}
		if l.Role == food.RoleLeavener && in.CO2 > 0 {
			m.powder += g
		}
		m.salt += g * balance.SaltPerGram(in)
	}
	return m
}

// FingerprintOf reads the traits of a plain base.
func FingerprintOf(ctx context.Context, v batter.Variation, k batter.Kitchen) (Fingerprint, error) {
	v.Additions, v.Portion.Count = nil, 0
	v.Offset = batter.Offset{Strategy: batter.Leave, SugarBy: batter.BySweetness}
	w, err := worksheet.Work(ctx, v, k, worksheet.Include{})
	if err != nil {
		return Fingerprint{}, err
	}
	m := madeOf(v, w.Lines)
	f := Fingerprint{FlourG: m.flour, Class: string(w.Batter.Class)}
	percent := func(key, name string, g float64, decimals int) {
		if m.flour <= 0 {
			return
		}
		r := Ratio{Key: key, Name: name, Unit: "% of flour", Brief: "%", Value: 100 * g / m.flour, Decimals: decimals}
		f.add(r.in(bandOf(v, key)))
	}
	percent("liquid", "liquid", m.liquid, 0)
	percent("egg", "egg", m.egg, 0)
	percent("fat", "fat", m.fat, 0)
	percent("sugar", "sugar", m.sugar, 0)
	percent("salt", "salt", m.salt, 1)
	for _, g := range w.Gauges.All() {
		r := Ratio{Key: g.Key, Name: words.Lower(g.Label), Unit: g.Unit, Value: g.Base(), Decimals: g.Decimals}
		switch g.Key {
		case worksheet.Thickness:
			r = r.in(g.Band())
		case worksheet.Lifting:
			r.Brief = "ml"
			r = r.in(batter.LiftBand(v.Form), v.Form != batter.Flourless && v.Base.Style != batter.Yeast && !v.Base.Whips())
		case worksheet.Tang:
			r = r.in(batter.TangBand(), v.Form != batter.Flourless)
		case worksheet.Moisture, worksheet.Salt: // said against the flour
			continue
		}
		if !math.IsNaN(r.Value) {
			f.add(r)
		}
	}
	if ratio := lift.Of(m.parts).SodaToAcid(); !math.IsNaN(ratio) {
		f.add(Ratio{Key: "soda", Name: "soda against acid", Unit: "meq/meq", Value: ratio, Decimals: 2}.in(sodaBand, true))
	}
	f.say(v, m.powder, m.flour)
	return f, nil
}

func (f *Fingerprint) add(r Ratio) {
	r.State = worksheet.Unknown
	if r.Low != nil {
		switch {
		case r.Value < *r.Low-1e-9:
			r.State = worksheet.Low
		case r.Value > *r.High+1e-9:
			r.State = worksheet.High
		default:
			r.State = worksheet.InBand
		}
	}
	f.Ratios = append(f.Ratios, r)
}

// say puts what is unusual into sentences.
func (f *Fingerprint) say(v batter.Variation, powder, flour float64) {
	say := func(format string, args ...any) { f.Sentences = append(f.Sentences, fmt.Sprintf(format, args...)) }
	for _, r := range f.Ratios {
		if r.State != worksheet.Low && r.State != worksheet.High {
			continue
		}
		name := words.Upper(r.Name)
		if r.Key == worksheet.Lifting && powder > 0 {
			name = "Powder"
		}
		times := ""
		if middle := (*r.Low + *r.High) / 2; middle > 0 {
			switch ratio := r.Value / middle; {
			case ratio > twice:
				times = fmt.Sprintf(", %.1f times the usual", ratio)
			case ratio < half && r.Value > 0:
				times = ", less than " + words.Either(ratio < 0.35, "a third", "two thirds") + " of the usual"
			}
		}
		what := words.Either(r.Unit == "% of flour" || r.Key == worksheet.Lifting, "for this flour", "for "+v.Form.Said(2))
		if r.Value == 0 {
			say("%s is low %s: there is none, and %.*f to %.*f is usual.", name, what, r.Decimals, *r.Low, r.Decimals, *r.High)
			continue
		}
		say("%s is %s %s: %.*f where %.*f to %.*f is usual%s.", name, words.Either(r.State == worksheet.High, "high", "low"), what,
			r.Decimals, r.Value, r.Decimals, *r.Low, r.Decimals, *r.High, times)
	}
	if len(f.Sentences) == 0 {
		switch {
		case v.Form == batter.Flourless:
			say("No flour: thin, small portions, two spatulas. Nothing is judged.")
		case flour > 0:
			say("Everything lies where it usually does for %s.", v.Form.Said(2))
		}
	}
}
