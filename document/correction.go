package document

import (
	"context"

	"upbeatladle/core/mixing"
	"upbeatladle/core/worksheet"
)

// maxTestMin is how long after mixing a batter is tested; later is a slip of the keys (modelling choice).
const maxTestMin = 48 * 60

// CorrectionWish is a test of a bowl: by ruler, or in words.
type CorrectionWish struct {
	Variation *Variation `json:"variation"`
	Minutes   *float64   `json:"minutes,omitzero"` // since it was mixed; without it, just mixed, or after the rest
	Rested    bool       `json:"rested,omitzero"`
	Test      PourTest   `json:"test"`
}

// PourTest is how a ladle of it ran.
type PourTest struct {
	VolumeML   *float64 `json:"volume_ml,omitzero"`
	DiameterMM *float64 `json:"diameter_mm,omitzero"`
	Says       string   `json:"says,omitzero"` // mounds · just_spreads · runs
}

// Correct answers a CorrectionWish. The error is Problems.
func Correct(ctx context.Context, w CorrectionWish, s Setting) (worksheet.Correction, error) {
	v, k, err := inner(w.Variation, "/variation", s)
	if err != nil {
		return worksheet.Correction{}, err
	}
	r := &reader{}
	whenRested := 0.0
	if w.Rested {
		whenRested = -1
	}
	t := mixing.Test{Minutes: r.within("/minutes", w.Minutes, 0, maxTestMin, whenRested, "The minutes since it was mixed")}
	byRuler := w.Test.VolumeML != nil || w.Test.DiameterMM != nil
	switch {
	case byRuler && w.Test.Says != "":
		r.p.Add("/test", "two_tests", "Give the ladle and how wide it ran, or say how it ran: one of the two.")
	case byRuler:
		r.need("/test/volume_ml", w.Test.VolumeML, mixing.LeastTestML, mixing.MostTestML, "The ladle of the test, in ml,")
		r.need("/test/diameter_mm", w.Test.DiameterMM, mixing.LeastTestMM, mixing.MostTestMM, "How wide it ran, in mm,")
		t.VolumeML, t.DiameterMM = or(w.Test.VolumeML), or(w.Test.DiameterMM)
	case w.Test.Says == "":
		r.p.Add("/test", "missing", "Pour a ladle on a flat cold plate: tell how much it was and how wide it ran, or say whether it mounds, just spreads or runs.")
	default:
		t.Says = choice(r, "/test/says", w.Test.Says, mixing.AllLooks, "", "way that a batter runs")
	}
	if err := r.p.OrNil(); err != nil {
		return worksheet.Correction{}, err
	}
	c, err := worksheet.Correct(ctx, v, k, t)
	return c, pointed(err, "/variation")
}
