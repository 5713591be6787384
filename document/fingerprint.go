package document

import (
	"context"

	"upbeatladle/core/base"
	"upbeatladle/core/food"
	"upbeatladle/core/safety"
)

// AllergenText tells the allergens of the base, and of what stands beside it, in one line; a line whose ingredient is not on the
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
		if l.AsRead != "" {
			notKnown = append(notKnown, "“"+clip(l.AsRead)+"”")
		}
	}
	for _, p := range b.Parts {
		if len(p.Lines) == 0 {
			notKnown = append(notKnown, "“"+clip(p.Text)+"”")
		}
		for _, l := range p.Lines {
			if in := s.Table.ByID(l.Ingredient); in != nil {
				used = append(used, in)
			} else {
				notKnown = append(notKnown, "“"+clip(p.Text)+"”")
			}
		}
	}
	if len(b.Lines) == 0 {
		notKnown = append(notKnown, "everything in it")
	}
	return safety.AllergensOf(used, notKnown...).Text()
}

// Fingerprint reads the traits of the base. The error is Problems.
func (b Base) Fingerprint(ctx context.Context, s Setting) (base.Fingerprint, error) {
	v, k, err := b.Domain(s)
	if err != nil {
		return base.Fingerprint{}, err
	}
	f, err := base.FingerprintOf(ctx, v, k)
	return f, pointed(err, "")
}
