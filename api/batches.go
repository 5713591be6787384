package api

import (
	"bytes"
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/batch"
	"upbeatladle/document"
	"upbeatladle/kitchen"
	"upbeatladle/store"
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

// BeginBatch begins a batch.
func (s *Server) BeginBatch(c *gin.Context, p BeginBatchParams) {
	var w document.BowlWish
	if !s.decode(c, &w) {
		return
	}
	b, err := s.kitchen.BeginBatch(c.Request.Context(), w.Variation, w.From, value(p.IdempotencyKey))
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

// ListBatches lists the batches.
func (s *Server) ListBatches(c *gin.Context) {
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

// GetBatch returns a batch as far as it has come.
func (s *Server) GetBatch(c *gin.Context, id Id) {
	b, err := s.kitchen.Batch(c.Request.Context(), id)
	s.answerBatch(c, b, err)
}

func (s *Server) answerBatch(c *gin.Context, b kitchen.BatchNow, err error) {
	if errors.Is(err, kitchen.ErrFull) {
		s.fail(c, http.StatusConflict, "full", sentenceOf(err))
		return
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.send(c, http.StatusOK, s.batchNow(b))
}

// TellBatch adds an event.
func (s *Server) TellBatch(c *gin.Context, id Id, p TellBatchParams) {
	data, ok := s.body(c)
	if !ok {
		return
	}
	b, err := s.kitchen.Tell(c.Request.Context(), id, data, waited(p.WaitedMs))
	s.answerBatch(c, b, err)
}

// longestWait is the longest that a letter can have waited [ms]: whoever says more was away for longer than anything is under way.
const longestWait = 31 * 24 * 3600 * 1000

// waited is how long a letter says that it waited on its tablet.
func waited(ms *int64) time.Duration {
	if ms == nil {
		return 0
	}
	return time.Duration(min(max(0, *ms), longestWait)) * time.Millisecond
}

// WatchBatch streams a batch as server-sent events, the full state in each.
func (s *Server) WatchBatch(c *gin.Context, id Id) {
	if _, err := s.kitchen.Batch(c.Request.Context(), id); err != nil {
		s.refuse(c, err)
		return
	}
	s.stream(c, "batch", false, func(ctx context.Context) <-chan struct{} { return s.kitchen.Watch(ctx, id) }, func(ctx context.Context) ([]byte, error) {
		b, err := s.kitchen.Batch(ctx, id)
		if err != nil {
			return nil, err
		}
		data, err := document.Answer(s.batchNow(b))
		return bytes.TrimSpace(data), err
	})
}

// DeleteBatch puts a batch aside.
func (s *Server) DeleteBatch(c *gin.Context, id Id) { s.remove(c, store.Batch, id) }

// RestoreBatch brings it back.
func (s *Server) RestoreBatch(c *gin.Context, id Id) {
	if _, err := s.kitchen.BringBack(c.Request.Context(), store.Batch, id); err != nil {
		s.refuse(c, err)
		return
	}
	s.GetBatch(c, id)
}

// ExportBatch sends a batch as an open document.
func (s *Server) ExportBatch(c *gin.Context, id Id) {
	name, data, err := s.kitchen.ExportBatch(c.Request.Context(), id)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Content-Disposition", `attachment; filename="`+document.Slug(name)+`.json"`)
	c.Data(http.StatusOK, "application/json", data)
}
