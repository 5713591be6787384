package api

import (
	"encoding/json"
	"errors"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/store"
)

// savedKitchen is the kitchen with its revision.
type savedKitchen struct {
	Revision int64                `json:"revision"`
	Document json.RawMessage      `json:"document"`
	Form     document.KitchenForm `json:"form"`
}

// GetKitchen returns what the cook works with.
func (s *Server) GetKitchen(c *gin.Context) {
	k, revision, err := s.kitchen.Own(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.sendKitchen(c, k, revision)
}

func (s *Server) sendKitchen(c *gin.Context, k document.OwnKitchen, revision int64) {
	body, err := k.Encode()
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("ETag", strconv.Quote(strconv.FormatInt(revision, 10)))
	c.JSON(http.StatusOK, savedKitchen{revision, body, document.FormOfKitchen()})
}

// GetSetting returns what a figure depends on beside what is asked; the stamp of a setting that is known is answered with nothing.
func (s *Server) GetSetting(c *gin.Context, p GetSettingParams) {
	d, err := s.kitchen.SettingDocument(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	tag := strconv.Quote(d.Stamp)
	c.Header("ETag", tag)
	if value(p.IfNoneMatch) == tag {
		c.Status(http.StatusNotModified)
		return
	}
	c.JSON(http.StatusOK, d)
}

// PutKitchen saves it.
func (s *Server) PutKitchen(c *gin.Context, p PutKitchenParams) {
	revision, err := strconv.ParseInt(strings.Trim(value(p.IfMatch), `"`), 10, 64)
	if err != nil {
		s.fail(c, http.StatusPreconditionRequired, "if_match", `Say which revision you changed: If-Match: "3".`)
		return
	}
	data, ok := s.body(c)
	if !ok {
		return
	}
	k, revision, err := s.kitchen.PutOwn(c.Request.Context(), data, revision)
	var stale *store.KitchenConflictError
	switch {
	case errors.As(err, &stale):
		s.fail(c, http.StatusConflict, "conflict", "Another tablet changed the kitchen since you opened it. Nothing was overwritten: open it again.")
	case err != nil:
		s.refuse(c, err)
	default:
		s.sendKitchen(c, k, revision)
	}
}

// ListKitchens lists the states that the kitchen had.
func (s *Server) ListKitchens(c *gin.Context) {
	past, err := s.kitchen.EarlierOwn(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	type earlier struct {
		Revision int64           `json:"revision"`
		SavedAt  time.Time       `json:"saved_at"`
		Document json.RawMessage `json:"document"`
	}
	out := []earlier{}
	for _, p := range past {
		out = append(out, earlier{p.Revision, p.SavedAt, p.Body})
	}
	c.JSON(http.StatusOK, gin.H{"items": out})
}
