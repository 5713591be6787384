package api

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"strconv"
	"strings"

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

// kitchen returns the kitchen that variations are worked out in. A failure is answered.
func (s *Server) kitchen(c *gin.Context) (k document.OwnKitchen, revision int64, ok bool) {
	k, revision, err := s.kitchenOf(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return k, 0, false
	}
	return k, revision, true
}

func (s *Server) kitchenOf(ctx context.Context) (k document.OwnKitchen, revision int64, err error) {
	_, k, revision, err = s.ground(ctx)
	return k, revision, err
}

// readKitchen reads it from the database.
func (s *Server) readKitchen(ctx context.Context) (k document.OwnKitchen, revision int64, err error) {
	body, revision, err := s.store.Kitchen(ctx)
	if err != nil {
		return k, 0, err
	}
	if body == nil {
		return document.DefaultOwnKitchen(), 0, nil
	}
	if k, err = document.DecodeKitchen(body); err != nil { // it stands in nobody's way: the usual one serves until it is saved again
		s.log.Error("the kitchen cannot be read", "err", err)
		return document.DefaultOwnKitchen(), revision, nil
	}
	return k, revision, nil
}

// GetKitchen returns what the cook works with.
func (s *Server) GetKitchen(c *gin.Context) {
	k, revision, ok := s.kitchen(c)
	if !ok {
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
	k, err := document.DecodeKitchen(data)
	if err != nil {
		s.refuse(c, err)
		return
	}
	body, err := k.Encode()
	if err != nil {
		s.refuse(c, err)
		return
	}
	revision, err = s.store.PutKitchen(c.Request.Context(), body, revision)
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
