package api

import (
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/document"
)

// ListPreparations lists the benches and what each suits.
func (s *Server) ListPreparations(c *gin.Context) {
	in, ok := s.setting(c)
	if !ok {
		return
	}
	out := PreparationList{}
	for _, b := range prep.Benches {
		bench := PreparationBench{
			Method: string(b.Method), Title: b.Title, Says: b.Says, From: []Choice{}, With: []Choice{}, Start: startOf(b.Start()),
			TargetHint: optional(b.TargetHint()), WithHint: optional(b.WithHint()), Cautions: append([]string{}, b.Cautions()...),
			Cooks: []Choice{}, Ripenesses: []Choice{},
		}
		for _, a := range b.Asks {
			bench.Asks = append(bench.Asks, string(a))
			switch a {
			case prep.AskCook:
				bench.Cooks = choices(prep.CookWords)
			case prep.AskRipeness:
				bench.Ripenesses = choices(prep.SkinWords)
			}
		}
		for _, in := range inShelfOrder(in.Table) {
			if prep.Suits(b.Method, in) {
				choice := Choice{Id: in.ID, Label: in.Name}
				if b.Method == prep.Puree {
					usual := string(prep.UsualCook(in))
					choice.Usual = &usual
				}
				bench.From = append(bench.From, choice)
			}
			if prep.With(b.Method, in) {
				bench.With = append(bench.With, Choice{Id: in.ID, Label: in.Name})
			}
		}
		out.Items = append(out.Items, bench)
	}
	c.JSON(http.StatusOK, out)
}

func startOf(s prep.Start) PreparationStart {
	var out PreparationStart
	if s.Count > 0 {
		out.Count = &s.Count
	} else {
		out.HaveG = &s.HaveG
	}
	if s.Salt {
		out.Salt = &s.Salt
	}
	if s.AsBought {
		out.AsBought = &s.AsBought
	}
	if s.Ripeness != "" {
		r := PreparationStartRipeness(s.Ripeness)
		out.Ripeness = &r
	}
	return out
}

func optional(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

func choices(all []prep.Said) []Choice {
	out := make([]Choice, len(all))
	for i, s := range all {
		out[i] = Choice{Id: s.ID, Label: s.Label}
	}
	return out
}

// inShelfOrder is the table in the order in which the shelf shows its groups: what is prepared
// most stands first.
func inShelfOrder(t *food.Table) []*food.Ingredient {
	all := slices.Clone(t.All())
	slices.SortStableFunc(all, func(a, b *food.Ingredient) int {
		return slices.Index(food.Groups, a.Group) - slices.Index(food.Groups, b.Group)
	})
	return all
}

// ownOf is what an ingredient's own figures look like on the wire.
func ownOf(in *food.Ingredient) *OwnFigures {
	o := document.Own(in)
	if o == nil {
		return nil
	}
	out := &OwnFigures{Ingredient: o.Ingredient, Name: o.Name, AgeDays: o.AgeDays, Stale: o.Stale, Measured: o.Measured, Estimated: o.Estimated}
	for to, v := range map[**string]string{&out.MadeOn: o.MadeOn, &out.StandsFor: o.StandsFor, &out.StandsForName: o.StandsForName} {
		if v != "" {
			*to = &v
		}
	}
	if o.KeepsDays > 0 {
		out.KeepsDays = &o.KeepsDays
	}
	return out
}
