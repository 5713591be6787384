package api

import (
	"context"
	"encoding/json"
	"errors"
	"net/http"
	"slices"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/prep"
	"upbeatladle/device"
	"upbeatladle/document"
)

// scaleState is the state on the wire.
func (s *Server) scaleState(st device.State) ScaleState {
	out := ScaleState{Link: ScaleStateLink(st.Link), Steady: st.Weight.Steady, Over: st.Weight.Over, Simulated: st.Simulated, Says: st.Says}
	if batch, name := s.lease.held(s.now()); batch != "" {
		out.Batch, out.BatchName = &batch, &name
	}
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

// WatchScale streams the scale as server-sent events.
func (s *Server) WatchScale(c *gin.Context) {
	if s.scale == nil { // tells a page not to ask again
		c.Status(http.StatusNoContent)
		return
	}
	s.stream(c, "scale", true, s.scaleMoves, func(context.Context) ([]byte, error) { return json.Marshal(s.scaleState(s.scale.State())) })
}

// scaleMoves wakes for every reading, and when the scale goes to another batch.
func (s *Server) scaleMoves(ctx context.Context) <-chan struct{} {
	states := s.scale.Watch(ctx)
	out := make(chan struct{}, 1)
	go func() {
		defer close(out)
		for range states {
			select {
			case out <- struct{}{}:
			default:
			}
		}
	}()
	return out
}

// leaseFor is how long a batch has the scale when nobody asks again (modelling choice: longer than a tablet is
// out of the Wi-Fi, shorter than a cook waits for it).
const leaseFor = 30 * time.Second

// lease is which batch has the scale.
type lease struct {
	mu          sync.Mutex
	batch, name string
	until       time.Time
}

func (l *lease) held(now time.Time) (batch, name string) {
	l.mu.Lock()
	defer l.mu.Unlock()
	if now.After(l.until) {
		return "", ""
	}
	return l.batch, l.name
}

// LeaseScale gives the scale to a batch, or leaves it with the one that has it.
func (s *Server) LeaseScale(c *gin.Context) {
	var w ScaleLease
	if !s.withScale(c) || !s.decode(c, &w) {
		return
	}
	l := &s.lease
	if w.Release != nil && *w.Release { // also of a batch that is not there any more
		l.mu.Lock()
		if l.batch == w.Batch {
			l.until = time.Time{}
		}
		l.mu.Unlock()
		c.JSON(http.StatusOK, s.scaleState(s.scale.State()))
		return
	}
	b, err := s.kitchen.Batch(c.Request.Context(), w.Batch)
	if err != nil {
		s.refuse(c, err)
		return
	}
	l.mu.Lock()
	if now := s.now(); now.After(l.until) || l.batch == w.Batch || w.Take != nil && *w.Take {
		l.batch, l.name, l.until = w.Batch, b.Plan.Name, now.Add(leaseFor)
	}
	l.mu.Unlock()
	c.JSON(http.StatusOK, s.scaleState(s.scale.State()))
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
	if load.Play == nil {
		s.done(c, s.scale.Put(c.Request.Context(), load.Grams))
		return
	}
	play := device.Play(*load.Play)
	if !slices.Contains(device.Plays, play) {
		s.refuse(c, document.Refusal("/play", "unknown_choice", "A simulated scale plays pour, over, bowl, hand, lift and back."))
		return
	}
	s.done(c, s.scale.Play(c.Request.Context(), play, load.Grams))
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
