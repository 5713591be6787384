package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/measure"
	"upbeatladle/core/recipe"
)

// defaultFlourG scales doses when no batch is named: the range per 100 g of flour.
const defaultFlourG = 100

// ListIngredients searches the shelf.
func (s *Server) ListIngredients(c *gin.Context, p ListIngredientsParams) {
	flour, limit := float64(defaultFlourG), 50
	if p.FlourG != nil {
		flour = *p.FlourG
	}
	if p.Limit != nil {
		limit = *p.Limit
	}
	if !(flour > 0 && flour <= batter.MaxLineG) {
		s.fail(c, http.StatusBadRequest, "flour", "The flour of the batch must be above zero and at most 100 kg.")
		return
	}
	if limit < 1 || limit > 500 {
		s.fail(c, http.StatusBadRequest, "limit", "Ask for 1 to 500 at a time.")
		return
	}
	in, ok := s.setting(c)
	if !ok {
		return
	}
	found := recipe.Search(in.Table, value(p.Q), food.Group(value(p.Group)))
	out := IngredientList{Items: []Ingredient{}, Allergens: food.Allergens}
	k := in.Kitchen.Domain()
	for _, in := range found[:min(limit, len(found))] {
		out.Items = append(out.Items, shown(in, flour, k))
	}
	c.JSON(http.StatusOK, out)
}

func value(s *string) string {
	if s == nil {
		return ""
	}
	return *s
}

// shown is an ingredient as the shelf shows it, with its dose for a batch.
func shown(in *food.Ingredient, flour float64, k batter.Kitchen) Ingredient {
	d := batter.DoseOf(in, flour, 0)
	out := Ingredient{
		Id: in.ID, Name: in.Name, Label: in.Label(), Group: string(in.Group), Role: string(in.Role),
		StepG: k.Step(batter.Line{Ingredient: in, Role: in.Role}),
		Dose: Dose{
			LightG: d.Light, UsualG: d.Usual, BoldG: d.Bold, MaxG: d.Max, StepG: d.Step, Decimals: d.Digits, Word: DoseWord(d.Word),
		},
		WaterG: in.Water, SugarsG: in.Sugars, RestG: in.Rest(), Own: ownOf(in),
		UsualStage: Stage(batter.UsualStage(in)), Allergens: append([]string{}, in.Allergens...),
	}
	if in.Colour.Hex != "" {
		out.Colour = &in.Colour.Hex
	}
	if in.IsFlour() {
		var ways []FlourMethod
		for _, m := range measure.FlourMethods {
			ways = append(ways, FlourMethod(m))
		}
		out.FlourMethods = &ways
	}
	for _, u := range measure.Units {
		if _, err := k.Grams(batter.Line{Ingredient: in, Amount: 1, Unit: u}); err == nil {
			out.Units = append(out.Units, Unit(u))
		}
	}
	return out
}
