package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/document/question"
)

// ask answers one question of the table; nothing is saved. ?include= names what is worked out
// only when it is asked for.
func (s *Server) ask(q question.Question) gin.HandlerFunc {
	return func(c *gin.Context) {
		data, ok := s.body(c)
		if !ok {
			return
		}
		in, ok := s.setting(c)
		if !ok {
			return
		}
		var err error
		if in.Include, err = document.ReadInclude(c.Query("include")); err != nil {
			s.refuse(c, err)
			return
		}
		out, err := q.Answer(c.Request.Context(), in, data)
		if err != nil {
			s.refuse(c, err)
			return
		}
		c.Data(http.StatusOK, "application/json", out)
	}
}
