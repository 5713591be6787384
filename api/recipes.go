package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/kitchen"
)

// KeepRecipe saves a variation with the pots that it brings, each a sauce of the house: all or none.
func (s *Server) KeepRecipe(c *gin.Context, _ KeepRecipeParams) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	kept, err := s.kitchen.KeepRecipe(c.Request.Context(), data, idempotencyKey(c))
	s.recipe(c, http.StatusCreated, kept, err)
}

// ForgetRecipe puts a recipe aside with the sauces that came with it.
func (s *Server) ForgetRecipe(c *gin.Context, id Id) {
	if err := s.kitchen.ForgetRecipe(c.Request.Context(), id); err != nil {
		s.refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// RestoreRecipe brings both back.
func (s *Server) RestoreRecipe(c *gin.Context, id Id) {
	kept, err := s.kitchen.BringRecipe(c.Request.Context(), id)
	s.recipe(c, http.StatusOK, kept, err)
}

func (s *Server) recipe(c *gin.Context, status int, kept kitchen.KeptRecipe, err error) {
	if err != nil {
		s.refuse(c, err)
		return
	}
	out := struct {
		Variation saved   `json:"variation"`
		Sauces    []saved `json:"sauces"`
	}{savedOf(kept.Variation), []saved{}}
	for _, d := range kept.Sauces {
		out.Sauces = append(out.Sauces, savedOf(d))
	}
	c.JSON(status, out)
}
