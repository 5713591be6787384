package api

import (
	"context"
	"errors"
	"net/http"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document/question"
)

// How much is worked out at once, and how much may wait for it (modelling choices): a tablet
// asks once at a time, so a queue of a few dozen is a kitchen full of them. A save waits longer: it is not asked again so soon.
const (
	queueLength = 64
	queueWait   = 5 * time.Second
	saveWait    = 20 * time.Second
)

// gate lets so many requests through at once; a short queue waits, the rest is turned away.
type gate struct {
	slots   chan struct{}
	waiting chan struct{}
	wait    time.Duration
}

func newGate(atOnce int) gate {
	return gate{make(chan struct{}, atOnce), make(chan struct{}, queueLength), queueWait}
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
	patience := time.NewTimer(g.wait)
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

// gates are the queues, each for itself, so that nothing waits behind what takes longer than it does: a save behind questions, a drag on
// the bench behind minutes of heat, any of them behind a whole kitchen that is read.
type gates struct {
	saves, questions, heat, slow, knocks gate
}

func newGates() gates {
	n := runtime.GOMAXPROCS(0)
	saves := newGate(4 * n)
	saves.wait = saveWait
	return gates{saves: saves, questions: newGate(2 * n), heat: newGate(max(1, n/2)), slow: newGate(max(1, n/2)), knocks: newGate(1)}
}

// slow are the requests that take long by their nature.
var slow = map[string]bool{
	"/api/v1/simulations": true, archive: true, pantryFile: true,
}

// hot are what a worksheet includes that is cooked for it.
var hot = []string{"cook", "curves", "heat_line"}

// of is the queue of a request that is no reading.
func (g gates) of(r *http.Request) gate {
	path := r.URL.Path
	_, asks := question.Named(strings.TrimPrefix(path, "/api/v1/"))
	switch {
	case path == session:
		return g.knocks
	case slow[path]:
		return g.slow
	case !asks:
		return g.saves
	case slices.ContainsFunc(strings.Split(r.URL.Query().Get("include"), ","), func(x string) bool { return slices.Contains(hot, x) }):
		return g.heat
	}
	return g.questions
}

// atOnce limits what is worked out at the same time. Reading what is kept, and streams, are free.
func (s *Server) atOnce(c *gin.Context) {
	if c.Request.Method == http.MethodGet || c.Request.Method == http.MethodHead || !strings.HasPrefix(c.Request.URL.Path, "/api/") {
		c.Next()
		return
	}
	g := s.gates.of(c.Request)
	if err := g.enter(c.Request.Context()); err != nil {
		if errors.Is(err, errBusy) {
			s.log.Warn("turned away at the gate", "path", c.Request.URL.Path, "from", c.RemoteIP())
		}
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
