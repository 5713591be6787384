package api

import (
	"encoding/json"
	"errors"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/store"
)

// saved is a saved document as it goes out: the envelope with the document as it was kept.
type saved struct {
	ID        string          `json:"id"`
	Revision  int64           `json:"revision"`
	UpdatedAt time.Time       `json:"updated_at"`
	Document  json.RawMessage `json:"document"`
}

func savedOf(d store.Document) saved {
	return saved{d.ID, d.Revision, d.UpdatedAt, json.RawMessage(d.Body)}
}

// conflict is the problem that a stale save gets, with both sides of it.
type conflict struct {
	Problem
	Current saved           `json:"current"`
	Yours   json.RawMessage `json:"yours"`
}

// answer sends a saved document with its revision as entity tag. One that is no JSON any more
// is said to be damaged; it can still be taken out as it is.
func (s *Server) answer(c *gin.Context, status int, d store.Document) {
	if !json.Valid(d.Body) {
		s.fail(c, http.StatusUnprocessableEntity, "damaged", "“"+d.Name+"” is damaged and cannot be opened. Take it out as JSON to see what is left of it, or put it aside.")
		return
	}
	c.Header("ETag", strconv.Quote(strconv.FormatInt(d.Revision, 10)))
	c.JSON(status, savedOf(d))
}

func (s *Server) list(c *gin.Context, kind store.Kind, after *string, limit *int) {
	n := 100
	if limit != nil {
		n = *limit
	}
	if n < 1 || n > 200 {
		s.fail(c, http.StatusBadRequest, "limit", "Ask for 1 to 200 at a time.")
		return
	}
	items, next, err := s.kitchen.List(c.Request.Context(), kind, value(after), n)
	if err != nil {
		s.refuse(c, err)
		return
	}
	out := Listing{Items: []ListItem{}}
	for _, d := range items {
		item := ListItem{Id: d.ID, Name: d.Name, Form: Form(d.Form), Revision: d.Revision, UpdatedAt: d.UpdatedAt, Verdict: d.Verdict}
		var picture Picture
		if json.Unmarshal(d.Picture, &picture) == nil {
			item.Picture = &picture
		}
		out.Items = append(out.Items, item)
	}
	if next != "" {
		out.Next = &next
	}
	c.JSON(http.StatusOK, out)
}

func (s *Server) create(c *gin.Context, kind store.Kind, key *string) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	d, err := s.kitchen.Create(c.Request.Context(), kind, data, value(key))
	s.created(c, d, err)
}

// created answers a save of something new.
func (s *Server) created(c *gin.Context, d store.Document, err error) {
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Location", c.Request.URL.Path+"/"+d.ID)
	s.answer(c, http.StatusCreated, d)
}

func (s *Server) get(c *gin.Context, kind store.Kind, id string) {
	d, err := s.kitchen.Get(c.Request.Context(), kind, id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.answer(c, http.StatusOK, d)
}

func (s *Server) put(c *gin.Context, kind store.Kind, id string, match *string) {
	revision, err := strconv.ParseInt(strings.Trim(value(match), `"`), 10, 64)
	if err != nil {
		s.fail(c, http.StatusPreconditionRequired, "if_match", `Say which revision you changed: If-Match: "3".`)
		return
	}
	data, ok := s.body(c)
	if !ok {
		return
	}
	d, yours, err := s.kitchen.Put(c.Request.Context(), kind, id, revision, data)
	var stale *store.ConflictError
	switch {
	case errors.As(err, &stale):
		c.Header("Content-Type", problemType)
		c.JSON(http.StatusConflict, conflict{
			Problem: Problem{
				Type: "tag:upbeat-ladle:conflict", Title: "Changed on another tablet", Status: http.StatusConflict,
				Detail: "Somebody saved this since you opened it. Nothing was overwritten: keep one of the two.",
			},
			Current: savedOf(stale.Current), Yours: yours,
		})
	case err != nil:
		s.refuse(c, err)
	default:
		s.answer(c, http.StatusOK, d)
	}
}

func (s *Server) remove(c *gin.Context, kind store.Kind, id string) {
	if err := s.kitchen.PutAside(c.Request.Context(), kind, id); err != nil {
		s.refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *Server) restore(c *gin.Context, kind store.Kind, id string) {
	d, err := s.kitchen.BringBack(c.Request.Context(), kind, id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.answer(c, http.StatusOK, d)
}

// ListVariations lists saved variations.
func (s *Server) ListVariations(c *gin.Context, p ListVariationsParams) {
	s.list(c, store.Variation, p.After, p.Limit)
}

// CreateVariation saves a new variation.
func (s *Server) CreateVariation(c *gin.Context, p CreateVariationParams) {
	s.create(c, store.Variation, p.IdempotencyKey)
}

// GetVariation returns a saved variation.
func (s *Server) GetVariation(c *gin.Context, id Id) { s.get(c, store.Variation, id) }

// PutVariation saves over a revision.
func (s *Server) PutVariation(c *gin.Context, id Id, p PutVariationParams) {
	s.put(c, store.Variation, id, p.IfMatch)
}

// DeleteVariation puts a variation aside.
func (s *Server) DeleteVariation(c *gin.Context, id Id) { s.remove(c, store.Variation, id) }

// RestoreVariation brings it back.
func (s *Server) RestoreVariation(c *gin.Context, id Id) { s.restore(c, store.Variation, id) }

// ListBases lists saved bases.
func (s *Server) ListBases(c *gin.Context, p ListBasesParams) {
	s.list(c, store.Base, p.After, p.Limit)
}

// CreateBase saves a new base.
func (s *Server) CreateBase(c *gin.Context, p CreateBaseParams) {
	s.create(c, store.Base, p.IdempotencyKey)
}

// GetBase returns a saved base.
func (s *Server) GetBase(c *gin.Context, id Id) { s.get(c, store.Base, id) }

// PutBase saves over a revision.
func (s *Server) PutBase(c *gin.Context, id Id, p PutBaseParams) { s.put(c, store.Base, id, p.IfMatch) }

// DeleteBase puts a base aside.
func (s *Server) DeleteBase(c *gin.Context, id Id) { s.remove(c, store.Base, id) }

// RestoreBase brings it back.
func (s *Server) RestoreBase(c *gin.Context, id Id) { s.restore(c, store.Base, id) }
