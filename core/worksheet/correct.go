package worksheet

import (
	"context"

	"upbeatladle/core/batter"
	"upbeatladle/core/flow"
	"upbeatladle/core/mixing"
)

// Correction is what a test of the batter asks of the bowl.
type Correction struct {
	YieldStressPa    float64    `json:"yield_stress_pa"`
	TargetDiameterMM *float64   `json:"target_diameter_mm,omitzero"` // what the volume that was tested should run to at that minute
	ClassNow         flow.Class `json:"class_now"`
	ClassAfter       flow.Class `json:"class_after"`
	Add              []Splash   `json:"add"` // nothing when it is right, or too thin
	Text             string     `json:"text"`
}

// Splash is what is stirred in.
type Splash struct {
	Line       string  `json:"line"`
	Ingredient string  `json:"ingredient"`
	Label      string  `json:"label"`
	Grams      float64 `json:"grams"`
	Measure    string  `json:"measure"` // in cups and spoons
}

// Correct answers a test of this bowl, so many minutes after mixing; below zero is after the rest.
// The error is batter.Problems, for the field "test" where the test says nothing.
func Correct(ctx context.Context, v batter.Variation, k batter.Kitchen, t mixing.Test) (Correction, error) {
	v, said, err := counted(ctx, v, k)
	if err != nil {
		return Correction{}, err
	}
	s, err := inGrams(v, k).solve(ctx, false)
	if err != nil {
		return Correction{}, err
	}
	w := describe(s, said)
	w.mixing()
	r := w.recipe()
	if t.Minutes < 0 {
		t.Minutes = r.RestMin
	}
	kept := 0.0
	for _, step := range w.out.Mixing {
		if step.Code == mixing.CodeTest {
			for _, u := range step.Uses {
				kept += u.G
			}
		}
	}
	c, err := r.Correct(t, kept)
	if err != nil {
		var p batter.Problems
		p.Add(batter.Field{Part: batter.OfWish, Name: "test"}, "no_test", "%s", mixing.SaysOf(err))
		return Correction{}, p
	}
	out := Correction{YieldStressPa: c.YieldStress, ClassNow: c.Now, ClassAfter: c.After, Add: []Splash{}, Text: c.Text}
	if c.TargetMM > 0 {
		out.TargetDiameterMM = &c.TargetMM
	}
	if c.Grams > 0 {
		one := Splash{Line: c.Item.ID, Ingredient: c.Item.Ingredient.ID, Label: c.Item.Label, Grams: c.Grams}
		for i, l := range w.out.Lines {
			if l.ID == c.Item.ID {
				one.Measure, _ = w.spoons(w.v.Base.Lines[i], c.Grams)
			}
		}
		out.Add = append(out.Add, one)
	}
	return out, nil
}
