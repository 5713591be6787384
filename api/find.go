package api

import (
	"net/http"

	"github.com/gin-gonic/gin"
)

// Find answers GET /search.
func (s *Server) Find(c *gin.Context, p FindParams) {
	found, err := s.kitchen.Find(c.Request.Context(), value(p.Q))
	if err != nil {
		s.refuse(c, err)
		return
	}
	out := FoundList{Items: make([]FoundItem, len(found))}
	for i, f := range found {
		out.Items[i] = FoundItem{Kind: FoundItemKind(f.Kind), Id: f.ID, Name: f.Name}
		if f.Form != "" {
			form := Form(f.Form)
			out.Items[i].Form = &form
		}
	}
	c.JSON(http.StatusOK, out)
}
