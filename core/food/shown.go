package food

import "math"

// ShownFigure is a property of an ingredient beside the table's value for the same.
type ShownFigure struct {
	Name     string   `json:"name"`
	Unit     string   `json:"unit"`
	Value    float64  `json:"value"`
	Table    *float64 `json:"table,omitzero"`
	Decimals int      `json:"decimals"`
}

// Rest is what is neither water nor sugars [g in 100 g]; never below zero, which the rounding of
// a table can make it.
func (in *Ingredient) Rest() float64 { return max(0, 100-in.Water-in.Sugars) }

// OwnFigures says whose the figures of an ingredient are, and since when.
type OwnFigures struct {
	Ingredient    string        `json:"ingredient"`
	Name          string        `json:"name"`
	MadeOn        string        `json:"made_on,omitzero"`
	AgeDays       int           `json:"age_days"`
	KeepsDays     int           `json:"keeps_days,omitzero"`
	Stale         bool          `json:"stale"`
	Measured      []string      `json:"measured"`
	Estimated     []string      `json:"estimated"`
	StandsFor     string        `json:"stands_for,omitzero"`
	StandsForName string        `json:"stands_for_name,omitzero"`
	Shows         []ShownFigure `json:"shows,omitzero"`
}

// OwnFiguresOf describes the cook's figures of the ingredient with an id.
func OwnFiguresOf(id string, o *Own) OwnFigures {
	out := OwnFigures{
		Ingredient: id, Name: o.Name, MadeOn: o.MadeOn, AgeDays: o.AgeDays, KeepsDays: o.KeepDays, Stale: o.Stale(),
		Measured: append([]string{}, o.Measured...), Estimated: append([]string{}, o.Estimated...), // never null on the wire
	}
	if o.Table != nil {
		out.StandsFor, out.StandsForName = o.Table.ID, o.Table.Name
	}
	return out
}

// Figures compares what matters in a batter with another row for the same; nil compares with
// none.
func Figures(in, row *Ingredient) []ShownFigure {
	out := []ShownFigure{}
	for _, f := range []struct {
		name, unit string
		of         func(*Ingredient) float64
		decimals   int
	}{
		{"water", "g in 100 g", func(i *Ingredient) float64 { return i.Water }, 1},
		{"sugars", "g in 100 g", func(i *Ingredient) float64 { return i.Sugars }, 1},
		{"salt", "g in 100 g", func(i *Ingredient) float64 { return i.Sodium * SaltOnLabel }, 2},
		{"body", "of flour's", func(i *Ingredient) float64 { return i.Body }, 2},
		{"gives to the batter", "% of its water", func(i *Ingredient) float64 { return 100 * i.Release() }, 0},
		{"a piece", "g", func(i *Ingredient) float64 { return i.Piece.MassG }, 2},
	} {
		v := f.of(in)
		least := 0.5 * math.Pow(10, -float64(f.decimals)) // less shows as nothing
		if v < least && (row == nil || f.of(row) < least) || f.name == "gives to the batter" && !in.HasCells() {
			continue
		}
		shown := ShownFigure{Name: f.name, Unit: f.unit, Value: v, Decimals: f.decimals}
		if row != nil {
			t := f.of(row)
			shown.Table = &t
		}
		out = append(out, shown)
	}
	return out
}
