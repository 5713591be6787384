package api

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
)

// Pace of a stream (modelling choices): once a second it is known whether a page still listens and may; one that takes
// longer to listen has gone.
const (
	heartbeat   = time.Second
	pageListens = 10 * time.Second
)

// stream sends server-sent events of one name, each with the full state: one at once when next has one, one for
// every wake, and one a heartbeat where beats is set. The server's write deadline is for answers; a stream moves
// its own on with every event.
func (s *Server) stream(c *gin.Context, name string, beats bool, wake func(context.Context) <-chan struct{}, next func(context.Context) ([]byte, error)) {
	leave, ok := s.listen(c)
	if !ok {
		return
	}
	defer leave()
	rc := http.NewResponseController(c.Writer)
	if err := rc.SetReadDeadline(time.Time{}); err != nil {
		s.refuse(c, err)
		return
	}
	c.Header("Content-Type", "text/event-stream")
	c.Header("X-Accel-Buffering", "no")
	c.Status(http.StatusOK)
	ctx := c.Request.Context()
	woken := wake(ctx)
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	send := func(text []byte) bool {
		if rc.SetWriteDeadline(time.Now().Add(pageListens)) != nil {
			return false
		}
		_, err := c.Writer.Write(text)
		return err == nil && rc.Flush() == nil
	}
	event := func() bool {
		data, err := next(ctx)
		return err == nil && send(fmt.Appendf(nil, "event: %s\ndata: %s\n\n", name, data))
	}
	if !event() {
		return
	}
	for {
		select {
		case _, ok := <-woken:
			if !ok || !event() {
				return
			}
		case <-beat.C:
			if !s.stillIn(c) { // signed out since
				return
			}
			if beats && !event() || !beats && !send([]byte(":\n\n")) {
				return
			}
		case <-ctx.Done():
			return
		case <-s.closing:
			return
		}
	}
}
