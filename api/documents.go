package api

import (
	"context"
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

// listPage lists documents of a kind, last changed first.
func (s *Server) listPage(c *gin.Context, kind store.Kind) {
	n := 100
	if limit := c.Query("limit"); limit != "" {
		var err error
		if n, err = strconv.Atoi(limit); err != nil {
			n = 0
		}
	}
	if n < 1 || n > 200 {
		s.fail(c, http.StatusBadRequest, "limit", "Ask for 1 to 200 at a time.")
		return
	}
	items, next, err := s.kitchen.List(c.Request.Context(), kind, c.Query("after"), n)
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		ID        string          `json:"id"`
		Name      string          `json:"name"`
		Form      string          `json:"form"`
		Revision  int64           `json:"revision"`
		UpdatedAt time.Time       `json:"updated_at"`
		Verdict   string          `json:"verdict"`
		Picture   json.RawMessage `json:"picture,omitempty"`
	}
	out := struct {
		Items []item `json:"items"`
		Next  string `json:"next,omitempty"`
	}{[]item{}, next}
	for _, d := range items {
		out.Items = append(out.Items, item{d.ID, d.Name, d.Form, d.Revision, d.UpdatedAt, d.Verdict, d.Picture})
	}
	c.JSON(http.StatusOK, out)
}

// create saves something new.
func (s *Server) create(c *gin.Context, save func(ctx context.Context, data []byte, key string) (store.Document, error)) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	d, err := save(c.Request.Context(), data, idempotencyKey(c))
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

func (s *Server) put(c *gin.Context, kind store.Kind, id string) {
	revision, err := strconv.ParseInt(strings.Trim(c.GetHeader("If-Match"), `"`), 10, 64)
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
