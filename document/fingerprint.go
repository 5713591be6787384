package document

import (
	"context"

	"upbeatladle/core/food"
	"upbeatladle/core/safety"
	"upbeatladle/core/worksheet"
)

// RatioJSON is one trait of a base beside what is usual.
type RatioJSON struct {
	Key      string `json:"key"`
	Name     string `json:"name"`
	Unit     string `json:"unit"`
	Value    num    `json:"value"`
	Low      *num   `json:"low,omitzero"`
	High     *num   `json:"high,omitzero"`
	State    string `json:"state"`
	Decimals int    `json:"decimals"`
}

// Fingerprint is what tells a base apart.
type Fingerprint struct {
	Ratios    []RatioJSON `json:"ratios"`
	Sentences []string    `json:"sentences"`
	Class     string      `json:"class,omitzero"`
	FlourG    num         `json:"flour_g"`
	Trouble   bool        `json:"trouble,omitzero"` // it cannot be worked out, and a sentence says why
}

// AllergenText tells the allergens of the base in one line; a line whose ingredient is not on the
// shelf is named as not known.
func (b Base) AllergenText(s Setting) string {
	var used []*food.Ingredient
	var notKnown []string
	for _, l := range b.Lines {
		if in := s.Table.ByID(l.Ingredient); in != nil {
			used = append(used, in)
		} else {
			notKnown = append(notKnown, "“"+clip(l.Ingredient)+"”")
		}
	}
	if len(b.Lines) == 0 {
		notKnown = append(notKnown, "everything in it")
	}
	return safety.AllergensOf(used, notKnown...).Text()
}

// Fingerprint reads the traits of the base. The error is batter.Problems.
func (b Base) Fingerprint(ctx context.Context, s Setting) (Fingerprint, error) {
	v, k, err := b.Domain(s)
	if err != nil {
		return Fingerprint{}, err
	}
	f, err := worksheet.FingerprintOf(ctx, v, k)
	if err != nil {
		return Fingerprint{}, err
	}
	out := Fingerprint{Ratios: []RatioJSON{}, Sentences: some(f.Sentences), Class: f.Class, FlourG: num(f.FlourG)}
	for _, r := range f.Ratios {
		j := RatioJSON{Key: r.Key, Name: r.Name, Unit: r.Unit, Value: num(r.Value), State: string(r.State), Decimals: r.Decimals}
		if r.Band != nil {
			j.Low, j.High = ptr(&r.Band.Low), ptr(&r.Band.High)
		}
		out.Ratios = append(out.Ratios, j)
	}
	return out, nil
}
