package api

import (
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/base"
	"upbeatladle/document"
)

// ListBaseShelf lists every base with its fingerprint.
func (s *Server) ListBaseShelf(c *gin.Context) {
	bases, err := s.kitchen.BaseShelf(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	type shelved struct {
		ID          string           `json:"id"`
		Revision    int64            `json:"revision"`
		UpdatedAt   string           `json:"updated_at"`
		Document    document.Base    `json:"document"`
		Fingerprint base.Fingerprint `json:"fingerprint"`
		LineNames   []string         `json:"line_names"`
		Allergens   string           `json:"allergen_text"`
	}
	out := []shelved{}
	for _, b := range bases {
		out = append(out, shelved{b.ID, b.Revision, b.UpdatedAt.Format(time.RFC3339Nano), b.Base, b.Fingerprint, b.LineNames, b.Allergens})
	}
	s.send(c, http.StatusOK, map[string]any{"items": out})
}

// AddStarterBases puts the shipped bases on the shelf.
func (s *Server) AddStarterBases(c *gin.Context) {
	n, err := s.kitchen.AddStarters(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, Added{Added: n})
}
