package food

import (
	"slices"

	"gonum.org/v1/gonum/stat"
)

// Stated tells which of the properties that Estimate may fill in the cook gave.
type Stated struct{ Body, Release, Density, Acid bool }

// Estimate fills in what nobody stated of an own ingredient, so that nothing that a rule needs
// is silently none: release, body, density and acid, by its composition where that tells and else
// the middle of its group in the table (modelling choice). It returns what was estimated.
func (t *Table) Estimate(in *Ingredient, stated Stated) (estimated []string) {
	fill := func(given bool, to *float64, value float64, name string) {
		if !given && value != 0 {
			*to = value
			estimated = append(estimated, name)
		}
	}
	if in.HasCells() {
		release := t.middle(in.Group, func(r *Ingredient) float64 { return r.ReleaseFraction })
		if !stated.Release {
			in.ReleaseFraction = release
			estimated = append(estimated, "release")
		}
	}
	switch in.Group {
	case GroupPuree:
		body := in.PureeBody(true)
		if body <= 0 { // neither fibre nor starch is stated
			body = t.middle(in.Group, func(r *Ingredient) float64 { return r.Body })
		}
		fill(stated.Body, &in.Body, body, "body")
	case GroupFlour, GroupStarch, GroupPowder, GroupSpice, GroupCulturedDairy, GroupEgg:
		fill(stated.Body, &in.Body, t.middle(in.Group, func(r *Ingredient) float64 { return r.Body }), "body")
	}
	switch in.Group {
	case GroupLiquid, GroupInfusion, GroupSyrup, GroupExtract, GroupAcid, GroupPuree, GroupFat, GroupCulturedDairy, GroupEgg:
		fill(stated.Density, &in.Density, Total{Composition: in.Composition}.Density(), "density")
	default:
		fill(stated.Density, &in.Density, t.middle(in.Group, func(r *Ingredient) float64 { return r.Density }), "density")
	}
	switch in.Group {
	case GroupPuree, GroupFreshPiece, GroupFrozenPiece, GroupCulturedDairy, GroupAcid:
		fill(stated.Acid, &in.Acid, t.middle(in.Group, func(r *Ingredient) float64 { return r.Acid }), "acid")
	}
	return estimated
}

// middle is the median of a property over the rows of a group that ship with the program.
func (t *Table) middle(g Group, of func(*Ingredient) float64) float64 {
	var all []float64
	for _, r := range t.rows {
		if r.Group == g && r.Own == nil {
			all = append(all, of(r))
		}
	}
	if len(all) == 0 {
		return 0
	}
	slices.Sort(all)
	return stat.Quantile(0.5, stat.Empirical, all, nil)
}
