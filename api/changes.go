package api

import (
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/store"
)

// decode reads a strict request body into v; a failure is answered and ok is false.
func (s *Server) decode(c *gin.Context, v any) bool {
	data, ok := s.body(c)
	if !ok {
		return false
	}
	if err := document.Strict(data, v); err != nil {
		s.refuse(c, err)
		return false
	}
	return true
}

// send writes an answer that holds a document in the document's own encoding.
func (s *Server) send(c *gin.Context, status int, v any) {
	out, err := document.Answer(v)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Data(status, "application/json", out)
}

// ListVersions lists the named states of a variation.
func (s *Server) ListVersions(c *gin.Context, id Id) {
	found, err := s.kitchen.Versions(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	out := VersionList{Items: []Version{}}
	for _, v := range found {
		out.Items = append(out.Items, Version{Name: v.Name, Revision: v.Revision, NamedAt: v.NamedAt})
	}
	c.JSON(http.StatusOK, out)
}

// NameVersion names a saved state.
func (s *Server) NameVersion(c *gin.Context, id Id) {
	var wish struct {
		Name     string `json:"name"`
		Revision int64  `json:"revision"`
	}
	if !s.decode(c, &wish) {
		return
	}
	name := strings.TrimSpace(wish.Name)
	if name == "" || len([]rune(name)) > 200 {
		s.refuse(c, document.Refusal("/name", "missing", "Give this version a name of at most 200 characters."))
		return
	}
	v, err := s.kitchen.NameVersion(c.Request.Context(), id, name, wish.Revision)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusCreated, Version{Name: v.Name, Revision: v.Revision, NamedAt: v.NamedAt})
}

// UnnameVersion takes the name from a state.
func (s *Server) UnnameVersion(c *gin.Context, id Id, revision int64) {
	if err := s.kitchen.UnnameVersion(c.Request.Context(), id, revision); err != nil {
		s.refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// ListBin lists what was put aside.
func (s *Server) ListBin(c *gin.Context) {
	aside, err := s.kitchen.Bin(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	out := Bin{Items: []Aside{}}
	for _, a := range aside {
		out.Items = append(out.Items, Aside{Kind: AsideKind(a.Kind), Id: a.ID, Name: a.Name, PutAsideAt: a.At, Until: a.Until})
	}
	c.JSON(http.StatusOK, out)
}

// LookAside shows what was put aside.
func (s *Server) LookAside(c *gin.Context, kind string, id Id) {
	of, there := s.kindAt(kind)
	if !there || of == store.Pantry {
		s.refuse(c, store.ErrNotFound)
		return
	}
	name, text, err := s.kitchen.LookAside(c.Request.Context(), of, id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, LookedAside{Name: name, Text: text})
}

// Purge takes what was put aside away for good.
func (s *Server) Purge(c *gin.Context, kind string, id Id) {
	of, there := s.kindAt(kind)
	err := store.ErrNotFound
	if there {
		err = s.kitchen.Purge(c.Request.Context(), of, id)
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

// states lists what is kept of a document's past, the newest first.
func (s *Server) states(c *gin.Context, kind store.Kind, id string) {
	found, err := s.kitchen.States(c.Request.Context(), kind, id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		Revision int64     `json:"revision"`
		SavedAt  time.Time `json:"saved_at"`
		Name     string    `json:"name,omitempty"`
		Changed  []string  `json:"changed,omitempty"`
	}
	out := []item{}
	for _, f := range found {
		out = append(out, item{f.Revision, f.SavedAt, f.Name, f.Changed})
	}
	c.JSON(http.StatusOK, map[string]any{"items": out})
}

// state returns a document as it was saved then.
func (s *Server) state(c *gin.Context, kind store.Kind, id string) {
	revision, err := strconv.ParseInt(c.Param("revision"), 10, 64)
	if err != nil {
		s.fail(c, http.StatusBadRequest, "bad_request", "A revision is a whole number.")
		return
	}
	d, err := s.kitchen.Revision(c.Request.Context(), kind, id, revision)
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.answer(c, http.StatusOK, d)
}
