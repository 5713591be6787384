package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/measure"
	"upbeatladle/document"
)

// CreateWorksheet works a variation document out; nothing is saved.
func (s *Server) CreateWorksheet(c *gin.Context) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	in, ok := s.setting(c)
	if !ok {
		return
	}
	out, err := document.Work(c.Request.Context(), data, in)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Data(http.StatusOK, "application/json", out)
}

// ReadAmount reads an amount as a cook types it.
func (s *Server) ReadAmount(c *gin.Context) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	var in struct {
		Text *string `json:"text"`
	}
	if err := document.Strict(data, &in); err != nil {
		s.refuse(c, err)
		return
	}
	if in.Text == nil {
		s.refuse(c, document.Refusal("/text", "missing", "Say the amount as text."))
		return
	}
	v, err := measure.ParseAmount(*in.Text)
	if err != nil {
		s.refuse(c, document.Refusal("/text", "not_an_amount", "That is not an amount. Type it like 200, 1.5, 1½ or 1 1/2."))
		return
	}
	c.JSON(http.StatusOK, Amount{Amount: v})
}
