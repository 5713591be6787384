package api

import (
	"bytes"
	"context"
	"errors"
	"net/http"
	"strconv"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/kitchen"
	"upbeatladle/store"
)

// kept is a kind of document that the kitchen keeps, as the contract's tag "kept" has it: a row. What a row says of a kind
// is what sets it apart; the rest every kind has: get, put over a revision with both sides of a conflict, put aside, bring back.
type kept struct {
	path   string // of all of them
	kind   store.Kind
	list   gin.HandlerFunc                                                            // nil: by pages, as they are kept
	create func(ctx context.Context, data []byte, key string) (store.Document, error) // nil: none is made by hand
	past   bool                                                                       // its states can be asked for
	goes   *goesOn                                                                    // events happen to it; it is not saved over
}

// goesOn is a kind of document that events happen to.
type goesOn struct {
	name  string // of its stream
	begin gin.HandlerFunc
	now   func(ctx context.Context, id string) (any, error)
	tell  func(ctx context.Context, id string, data []byte, waited time.Duration) (any, error)
	beats bool // it is told anew once a second
}

// kinds are the kinds that are kept.
func (s *Server) kinds() []kept {
	made := func(kind store.Kind) func(context.Context, []byte, string) (store.Document, error) {
		return func(ctx context.Context, data []byte, key string) (store.Document, error) {
			return s.kitchen.Create(ctx, kind, data, key)
		}
	}
	return []kept{
		{path: "/variations", kind: store.Variation, create: made(store.Variation), past: true},
		{path: "/bases", kind: store.Base, create: made(store.Base), past: true},
		{path: "/sauces", kind: store.Sauce, create: made(store.Sauce), list: s.listSauces},
		{path: "/pantry", kind: store.Pantry, create: s.kitchen.CreateItem, list: s.listPantry},
		{path: "/packs", kind: store.Pack, list: s.listPacks},
		{path: "/batches", kind: store.Batch, list: s.listBatches, goes: &goesOn{name: "batch", begin: s.beginBatch,
			now: func(ctx context.Context, id string) (any, error) {
				b, err := s.kitchen.Batch(ctx, id)
				return s.batchNow(b), err
			},
			tell: func(ctx context.Context, id string, data []byte, waited time.Duration) (any, error) {
				b, err := s.kitchen.Tell(ctx, id, data, waited)
				return s.batchNow(b), err
			}}},
		{path: "/boards", kind: store.Board, list: s.listBoards, goes: &goesOn{name: "board", begin: s.beginBoard, beats: true,
			now: func(ctx context.Context, id string) (any, error) {
				b, err := s.kitchen.Board(ctx, id)
				return s.boardNow(ctx, b), err
			},
			tell: func(ctx context.Context, id string, data []byte, waited time.Duration) (any, error) {
				b, err := s.kitchen.TellBoard(ctx, id, data, waited)
				if err == nil {
					s.followHeat(ctx, data, b.State)
				}
				return s.boardNow(ctx, b), err
			}}},
	}
}

// kindAt is the kind under a name of the contract: "variations".
func (s *Server) kindAt(name string) (store.Kind, bool) {
	for _, k := range s.kinds() {
		if k.path == "/"+name {
			return k.kind, true
		}
	}
	return "", false
}

// keeps serves a kind.
func (s *Server) keeps(r gin.IRouter, k kept) {
	all, one := r.Group(k.path), r.Group(k.path+"/:id")
	of := func(f func(*gin.Context, store.Kind, string)) gin.HandlerFunc {
		return func(c *gin.Context) { f(c, k.kind, c.Param("id")) }
	}
	if k.list == nil {
		k.list = func(c *gin.Context) { s.listPage(c, k.kind) }
	}
	all.GET("", k.list)
	one.DELETE("", of(s.remove))
	if k.goes != nil {
		s.goesOn(all, one, k)
		return
	}
	if k.create != nil {
		all.POST("", func(c *gin.Context) { s.create(c, k.create) })
	}
	one.GET("", of(s.get))
	one.PUT("", of(s.put))
	one.POST("/restore", of(s.restore))
	if k.past {
		one.GET("/revisions", of(s.states))
		one.GET("/revisions/:revision", of(s.state))
	}
}

// goesOn serves a kind that events happen to.
func (s *Server) goesOn(all, one gin.IRouter, k kept) {
	answer := func(c *gin.Context) {
		out, err := k.goes.now(c.Request.Context(), c.Param("id"))
		s.answerNow(c, http.StatusOK, out, err)
	}
	all.POST("", k.goes.begin)
	one.GET("", answer)
	one.POST("/restore", func(c *gin.Context) {
		if _, err := s.kitchen.BringBack(c.Request.Context(), k.kind, c.Param("id")); err != nil {
			s.refuse(c, err)
			return
		}
		answer(c)
	})
	one.GET("/document", func(c *gin.Context) {
		name, data, err := s.kitchen.Export(c.Request.Context(), k.kind, c.Param("id"), "json")
		if err != nil {
			s.refuse(c, err)
			return
		}
		c.Header("Content-Disposition", `attachment; filename="`+document.Slug(name)+`.json"`)
		c.Data(http.StatusOK, "application/json", data)
	})
	one.POST("/events", func(c *gin.Context) {
		waited, ok := s.waited(c)
		if !ok {
			return
		}
		data, ok := s.body(c)
		if !ok {
			return
		}
		out, err := k.goes.tell(c.Request.Context(), c.Param("id"), data, waited)
		s.answerNow(c, http.StatusOK, out, err)
	})
	one.GET("/events", func(c *gin.Context) {
		id := c.Param("id")
		if _, err := k.goes.now(c.Request.Context(), id); err != nil {
			s.refuse(c, err)
			return
		}
		s.stream(c, k.goes.name, k.goes.beats, func(ctx context.Context) <-chan struct{} { return s.kitchen.Watch(ctx, id) }, func(ctx context.Context) ([]byte, error) {
			now, err := k.goes.now(ctx, id)
			if err != nil {
				return nil, err
			}
			data, err := document.Answer(now)
			return bytes.TrimSpace(data), err
		})
	})
}

// answerNow sends how something stands.
func (s *Server) answerNow(c *gin.Context, status int, out any, err error) {
	switch {
	case errors.Is(err, kitchen.ErrFull):
		s.fail(c, http.StatusConflict, "full", sentenceOf(err))
	case err != nil:
		s.refuse(c, err)
	default:
		s.send(c, status, out)
	}
}

// longestWait is the longest that a letter can have waited [ms]: whoever says more was away for longer than anything is under way.
const longestWait = 31 * 24 * 3600 * 1000

// waited is how long a letter says that it waited on its tablet.
func (s *Server) waited(c *gin.Context) (time.Duration, bool) {
	text := c.GetHeader("Waited-Ms")
	if text == "" {
		return 0, true
	}
	ms, err := strconv.ParseInt(text, 10, 64)
	if err != nil {
		s.fail(c, http.StatusBadRequest, "bad_request", "Waited-Ms is a whole number of milliseconds.")
		return 0, false
	}
	return time.Duration(min(max(0, ms), longestWait)) * time.Millisecond, true
}

// idempotencyKey names a call that makes something, so that a repeated one makes nothing more.
func idempotencyKey(c *gin.Context) string { return c.GetHeader("Idempotency-Key") }
