package api

import (
	"context"
	"errors"
	"net/http"
	"runtime"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// How much is worked out at once, and how much may wait for it (modelling choices): a tablet
// asks once at a time, so a queue of a few dozen is a kitchen full of them.
const (
	queueLength = 64
	queueWait   = 5 * time.Second
)

// gate lets so many requests through at once; a short queue waits, the rest is turned away.
type gate struct {
	slots   chan struct{}
	waiting chan struct{}
}

func newGate(atOnce int) gate {
	return gate{make(chan struct{}, atOnce), make(chan struct{}, queueLength)}
}

var errBusy = errors.New("too much is being worked out already")

// enter waits for a slot; leave must be called when err is nil.
func (g gate) enter(ctx context.Context) error {
	select {
	case g.slots <- struct{}{}:
		return nil
	default:
	}
	select {
	case g.waiting <- struct{}{}:
	default:
		return errBusy
	}
	defer func() { <-g.waiting }()
	patience := time.NewTimer(queueWait)
	defer patience.Stop()
	select {
	case g.slots <- struct{}{}:
		return nil
	case <-patience.C:
		return errBusy
	case <-ctx.Done():
		return ctx.Err()
	}
}

func (g gate) leave() { <-g.slots }

// slow are the requests that take long by their nature; they queue for themselves, so that a
// drag on the bench never waits behind them.
var slow = map[string]bool{
	"/api/v1/simulations": true, archive: true, pantryFile: true,
}

// atOnce limits what is worked out at the same time. Reading what is kept, and streams, are free.
func (s *Server) atOnce(c *gin.Context) {
	if c.Request.Method == http.MethodGet || c.Request.Method == http.MethodHead || !strings.HasPrefix(c.Request.URL.Path, "/api/") {
		c.Next()
		return
	}
	g := s.quick
	switch {
	case slow[c.Request.URL.Path]:
		g = s.slow
	case c.Request.URL.Path == session:
		g = s.knocks
	}
	if err := g.enter(c.Request.Context()); err != nil {
		s.refuse(c, err)
		return
	}
	defer g.leave()
	c.Next()
}

// busy answers a request that found the queue full.
func (s *Server) busy(c *gin.Context) {
	c.Header("Retry-After", strconv.Itoa(int(queueWait/time.Second)))
	s.fail(c, http.StatusServiceUnavailable, "busy", "Too much is being worked out at the moment. Nothing was lost: try again in a few seconds.")
}

func gates() (quick, slow gate) {
	return newGate(2 * runtime.GOMAXPROCS(0)), newGate(max(1, runtime.GOMAXPROCS(0)/2))
}
