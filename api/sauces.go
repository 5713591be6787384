package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/batter"
	"upbeatladle/core/sauce"
	"upbeatladle/document"
)

// listSauces lists the saved sauces.
func (s *Server) listSauces(c *gin.Context) {
	all, err := s.kitchen.Sauces(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		ID        string         `json:"id"`
		Revision  int64          `json:"revision"`
		Document  document.Sauce `json:"document"`
		Kind      sauce.Kind     `json:"made"`
		Servings  int            `json:"servings"`
		ServingG  float64        `json:"serving_g"`
		Place     batter.Place   `json:"place,omitzero"`
		StepG     float64        `json:"step_g"`
		MostG     float64        `json:"most_g"`
		Colour    string         `json:"colour"`
		Allergens string         `json:"allergen_text"`
		Trouble   string         `json:"trouble,omitzero"`
	}
	out := struct {
		Items []item `json:"items"`
	}{[]item{}}
	for _, a := range all {
		out.Items = append(out.Items, item{a.ID, a.Revision, a.Sauce, a.Answer.Kind, a.Answer.Servings, a.Answer.ServingG, a.Answer.Place, document.OwnStepG, document.MaxEachG, a.Answer.Colour, a.Answer.Text, a.Trouble})
	}
	c.JSON(http.StatusOK, out)
}

// ListSauceUses lists what a sauce goes on.
func (s *Server) ListSauceUses(c *gin.Context, id Id) {
	all, err := s.kitchen.SauceUses(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		ID        string       `json:"id"`
		Revision  int64        `json:"revision"`
		Name      string       `json:"name"`
		Form      batter.Form  `json:"form"`
		Place     batter.Place `json:"place"`
		EachG     float64      `json:"each_g"`
		Colour    string       `json:"colour,omitzero"`
		WideMM    float64      `json:"wide_mm,omitzero"`
		OnMM      float64      `json:"on_mm,omitzero"`
		Says      string       `json:"says"`
		Allergens string       `json:"allergen_text"`
		Older     bool         `json:"older"`
		Trouble   string       `json:"trouble,omitzero"`
	}
	out := struct {
		Items []item `json:"items"`
	}{[]item{}}
	for _, u := range all {
		out.Items = append(out.Items, item(u))
	}
	c.JSON(http.StatusOK, out)
}

// ListSauceExamples lists worked examples.
func (s *Server) ListSauceExamples(c *gin.Context) {
	all, err := s.kitchen.SauceExamples()
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, map[string]any{"items": all, "kinds": sauce.Choices()})
}
