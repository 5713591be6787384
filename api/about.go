package api

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"upbeatladle/about"
)

// GetAbout answers GET /about.
func (s *Server) GetAbout(c *gin.Context) {
	notices, err := about.Notices()
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, gin.H{"version": about.Version, "commit": about.Commit, "notices": notices})
}
