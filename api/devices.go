package api

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/prep"
	"upbeatladle/device"
	"upbeatladle/document"
)

// Pace of the stream (modelling choices): a quiet scale is heard of once a second, so that the
// age of its last reading can be shown; a page that takes longer to listen has gone.
const (
	heartbeat   = time.Second
	pageListens = 10 * time.Second
)

// scaleState is the state on the wire.
func (s *Server) scaleState(st device.State) ScaleState {
	out := ScaleState{Link: ScaleStateLink(st.Link), Steady: st.Weight.Steady, Over: st.Weight.Over, Simulated: st.Simulated, Says: st.Says}
	if !st.Weight.At.IsZero() {
		age := s.now().Sub(st.Weight.At).Seconds()
		out.Grams, out.AgeS = &st.Weight.Grams, &age
	}
	return out
}

func (s *Server) withScale(c *gin.Context) bool {
	if s.scale == nil {
		s.fail(c, http.StatusNotFound, "no_scale", "No scale is connected: type the weight in.")
		return false
	}
	return true
}

// GetScale returns the scale now.
func (s *Server) GetScale(c *gin.Context) {
	if s.withScale(c) {
		c.JSON(http.StatusOK, s.scaleState(s.scale.State()))
	}
}

// WatchScale streams the scale as server-sent events. The server's write deadline is for
// answers; a stream moves its own on with every event.
func (s *Server) WatchScale(c *gin.Context) {
	if s.scale == nil { // tells a page not to ask again
		c.Status(http.StatusNoContent)
		return
	}
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
	states := s.scale.Watch(ctx)
	beat := time.NewTicker(heartbeat)
	defer beat.Stop()
	for {
		var st device.State
		select {
		case now, ok := <-states:
			if !ok {
				return
			}
			st = now
		case <-beat.C:
			if !s.stillIn(c) { // signed out since
				return
			}
			st = s.scale.State()
		case <-ctx.Done():
			return
		case <-s.closing:
			return
		}
		data, err := json.Marshal(s.scaleState(st))
		if err == nil {
			err = rc.SetWriteDeadline(time.Now().Add(pageListens))
		}
		if err == nil {
			_, err = fmt.Fprintf(c.Writer, "event: scale\ndata: %s\n\n", data)
		}
		if err != nil || rc.Flush() != nil {
			return
		}
	}
}

// TareScale makes what is on the scale zero.
func (s *Server) TareScale(c *gin.Context) {
	if s.withScale(c) {
		s.done(c, s.scale.Tare(c.Request.Context()))
	}
}

// LoadScale puts a load on a simulated scale.
func (s *Server) LoadScale(c *gin.Context) {
	var load ScaleLoad
	if !s.withScale(c) || !s.decode(c, &load) {
		return
	}
	if !(load.Grams >= 0 && load.Grams <= 500_000) {
		s.refuse(c, document.Refusal("/grams", "out_of_range", "A load must lie between 0 and 500 kg."))
		return
	}
	s.done(c, s.scale.Put(c.Request.Context(), load.Grams))
}

// done answers a command to a device.
func (s *Server) done(c *gin.Context, err error) {
	if err != nil {
		s.deviceFailed(c, err)
		return
	}
	c.Status(http.StatusNoContent)
}

func (s *Server) deviceFailed(c *gin.Context, err error) {
	switch {
	case errors.Is(err, device.ErrNotSimulated):
		s.fail(c, http.StatusConflict, "not_simulated", sentenceOf(err))
	case errors.Is(err, device.ErrNoAnswer), errors.Is(err, device.ErrNonsense), errors.Is(err, device.ErrNoSample):
		s.fail(c, http.StatusBadGateway, "device", sentenceOf(err))
	default:
		s.refuse(c, err)
	}
}

// sentenceOf is an error's text as a sentence.
func sentenceOf(err error) string {
	text := []rune(err.Error())
	if len(text) == 0 {
		return ""
	}
	return string(append([]rune{text[0] - 'a' + 'A'}, text[1:]...)) + "."
}

// TakeReading takes one reading of the refractometer and corrects it to 20 °C.
func (s *Server) TakeReading(c *gin.Context) {
	if s.refractometer == nil {
		s.fail(c, http.StatusNotFound, "no_refractometer", "No refractometer is connected: type the reading in.")
		return
	}
	r, err := s.refractometer.Read(c.Request.Context())
	if err != nil {
		s.deviceFailed(c, err)
		return
	}
	at, err := prep.AtTwenty(r.Brix, r.SampleC)
	if err != nil {
		s.refuse(c, document.Refusal("/sample_c", "out_of_range", "%s", err))
		return
	}
	c.JSON(http.StatusOK, BrixReading{Brix: at, Shown: r.Brix, SampleC: r.SampleC})
}

// PutSample puts a sample on a simulated refractometer.
func (s *Server) PutSample(c *gin.Context) {
	var v BrixSample
	if s.refractometer == nil {
		s.fail(c, http.StatusNotFound, "no_refractometer", "No refractometer is connected: type the reading in.")
		return
	}
	if !s.decode(c, &v) {
		return
	}
	if !(v.Brix >= 0 && v.Brix <= prep.MaxBrix) {
		s.refuse(c, document.Refusal("/brix", "out_of_range", "A sample must lie between 0 and %d °Brix.", prep.MaxBrix))
		return
	}
	if _, err := prep.AtTwenty(v.Brix, v.SampleC); err != nil {
		s.refuse(c, document.Refusal("/sample_c", "out_of_range", "%s", err))
		return
	}
	s.done(c, s.refractometer.Sample(c.Request.Context(), device.Reading{Brix: v.Brix, SampleC: v.SampleC}))
}
