package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
)

// PutText keeps the text of a recipe, once; the same text again gives the same id.
func (s *Server) PutText(c *gin.Context) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	var v RecipeText
	if err := document.Strict(data, &v); err != nil {
		s.refuse(c, err)
		return
	}
	id, err := s.kitchen.KeepText(c.Request.Context(), v.Text)
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.text(c, id)
}

// GetText returns a text that was kept.
func (s *Server) GetText(c *gin.Context, id Id) { s.text(c, id) }

func (s *Server) text(c *gin.Context, id string) {
	t, err := s.kitchen.Text(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, KeptText{Id: id, Text: t.Text})
}
