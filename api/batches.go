package api

import (
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/batch"
	"upbeatladle/document"
	"upbeatladle/kitchen"
)

// batchNow is a batch as it goes out.
type batchNow struct {
	ID        string            `json:"id"`
	StartedAt time.Time         `json:"started_at"`
	Now       time.Time         `json:"now"`
	From      *document.BaseRef `json:"from,omitempty"`
	Plan      batch.Plan        `json:"plan"`
	State     batch.State       `json:"state"`
}

func (s *Server) batchNow(b kitchen.BatchNow) batchNow {
	return batchNow{b.ID, b.StartedAt, s.now().UTC(), b.From, b.Plan, b.State}
}

// beginBatch begins a batch.
func (s *Server) beginBatch(c *gin.Context) {
	var w document.BowlWish
	if !s.decode(c, &w) {
		return
	}
	b, err := s.kitchen.BeginBatch(c.Request.Context(), w.Variation, w.From, idempotencyKey(c))
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Location", c.Request.URL.Path+"/"+b.ID)
	s.send(c, http.StatusCreated, s.batchNow(b))
}

// SplitBatches begins several bowls from one base.
func (s *Server) SplitBatches(c *gin.Context, p SplitBatchesParams) {
	var w struct {
		Bowls []document.BowlWish `json:"bowls"`
	}
	if !s.decode(c, &w) {
		return
	}
	all, said, err := s.kitchen.SplitBatches(c.Request.Context(), w.Bowls, value(p.IdempotencyKey))
	if err != nil {
		s.refuse(c, err)
		return
	}
	out := struct {
		Items []batchNow `json:"items"`
		Said  []string   `json:"said"`
	}{[]batchNow{}, said}
	for _, b := range all {
		out.Items = append(out.Items, s.batchNow(b))
	}
	s.send(c, http.StatusCreated, out)
}

// listBatches lists the batches.
func (s *Server) listBatches(c *gin.Context) {
	all, err := s.kitchen.Batches(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		ID        string      `json:"id"`
		Name      string      `json:"name"`
		Form      string      `json:"form"`
		StartedAt time.Time   `json:"started_at"`
		Count     int         `json:"count"`
		Weighed   int         `json:"weighed"`
		ToWeigh   int         `json:"to_weigh"`
		Made      bool        `json:"made"`
		Doing     string      `json:"doing"`
		From      string      `json:"from,omitempty"`
		Trouble   string      `json:"trouble,omitempty"`
		Clock     batch.Clock `json:"clock"`
	}
	out := struct {
		Items []item `json:"items"`
	}{[]item{}}
	for _, b := range all {
		from := ""
		if b.From != nil {
			from = b.From.ID
		}
		out.Items = append(out.Items, item{b.ID, b.Name, b.Form, b.StartedAt, b.Count, b.Weighed, b.ToWeigh, b.Made, b.Doing, from, b.Trouble, b.Clock})
	}
	s.send(c, http.StatusOK, out)
}
