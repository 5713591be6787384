package kitchen

import (
	"cmp"
	"context"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/document"
	"upbeatladle/starter"
	"upbeatladle/store"
)

// SauceListed is a sauce in the list.
type SauceListed struct {
	ID       string
	Revision int64
	Sauce    document.Sauce
	Answer   document.SauceAnswer
	Trouble  string // why it cannot be worked out
}

// Sauces lists the saved ones by their names, each worked out.
func (k *Kitchen) Sauces(ctx context.Context) ([]SauceListed, error) {
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, err
	}
	docs, err := k.store.All(ctx, store.Sauce)
	if err != nil {
		return nil, err
	}
	out := make([]SauceListed, 0, len(docs))
	for _, d := range docs {
		one := SauceListed{ID: d.ID, Revision: d.Revision}
		if one.Sauce, err = document.DecodeSauce(d.Body); err == nil {
			one.Answer, err = document.WorkSauce(document.SauceWish{Sauce: &one.Sauce}, in)
		}
		if err != nil {
			one.Sauce.Name, one.Trouble = d.Name, document.Sentence(err)
		}
		out = append(out, one)
	}
	slices.SortStableFunc(out, func(a, b SauceListed) int { return cmp.Compare(a.Sauce.Name, b.Sauce.Name) })
	return out, nil
}

// SauceUse is a variation that a sauce goes on.
type SauceUse struct {
	ID        string
	Revision  int64
	Name      string
	Form      batter.Form
	Place     batter.Place
	EachG     float64
	Colour    string
	WideMM    float64
	OnMM      float64 // how wide the sauce lies on it
	Says      string  // sugar of the whole serving, and what may be held back
	Allergens string  // allergens of the whole serving
	Older     bool    // it has an earlier state of the sauce
	Trouble   string
}

// SauceUses lists the variations that a sauce goes on.
func (k *Kitchen) SauceUses(ctx context.Context, id string) ([]SauceUse, error) {
	d, err := k.store.Get(ctx, store.Sauce, id)
	if err != nil {
		return nil, err
	}
	in, err := k.Setting(ctx)
	if err != nil {
		return nil, err
	}
	docs, err := k.store.All(ctx, store.Variation)
	if err != nil {
		return nil, err
	}
	out := []SauceUse{}
	for _, doc := range docs {
		v, err := document.DecodeVariation(doc.Body)
		if err != nil {
			continue // it names no sauce that could be read
		}
		for _, p := range v.Parts {
			if p.SauceRef == nil || p.SauceRef.ID != id {
				continue
			}
			u := SauceUse{ID: doc.ID, Revision: doc.Revision, Name: v.Name, Form: batter.Form(v.Form), Place: batter.Place(p.Kind), Older: p.SauceRef.Revision != d.Revision}
			if p.EachG != nil {
				u.EachG = *p.EachG
			}
			w, err := v.Worksheet(ctx, in)
			if err != nil {
				u.Trouble = document.Sentence(err)
				out = append(out, u)
				continue
			}
			u.Allergens = w.AllergenText
			if w.Served != nil {
				u.Says = w.Served.Text
				for _, on := range w.Served.Drawn {
					if on.Text == p.Text {
						u.OnMM = on.WideMM
					}
				}
			}
			if w.Batter.Colour != nil {
				u.Colour = w.Batter.Colour.Hex
			}
			if w.Portion.DiameterMM != nil {
				u.WideMM = *w.Portion.DiameterMM
			}
			out = append(out, u)
		}
	}
	return out, nil
}

// SauceExamples are worked examples to begin with.
func (k *Kitchen) SauceExamples() ([]document.Sauce, error) {
	all, err := starter.Sauces()
	if err != nil {
		return nil, err
	}
	out := make([]document.Sauce, 0, len(all))
	for _, data := range all {
		a, err := document.DecodeSauce(data)
		if err != nil {
			return nil, err
		}
		out = append(out, a)
	}
	return out, nil
}
