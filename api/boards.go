package api

import (
	"bytes"
	"context"
	"maps"
	"net/http"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/core/griddle"
	"upbeatladle/device"
	"upbeatladle/document"
	"upbeatladle/kitchen"
)

// boardNow is a board as it goes out.
type boardNow struct {
	ID        string        `json:"id"`
	Name      string        `json:"name"`
	StartedAt time.Time     `json:"started_at"`
	Now       time.Time     `json:"now"`
	State     griddle.State `json:"state"`
	Heats     heatsNow      `json:"heats"`

	Reads map[string]griddle.Reading `json:"reads"` // of the thermometers at the plates
}

// heatsNow is what the thermometers read, as it goes out.
type heatsNow struct {
	Link      string             `json:"link"`
	Simulated bool               `json:"simulated"`
	Says      string             `json:"says"`
	Plates    map[string]float64 `json:"plates"`
	ProbeC    *float64           `json:"probe_c,omitempty"`
}

// heats asks the thermometer at most once a second, however many tablets look.
type heats struct {
	from device.Thermometer
	mu   sync.Mutex
	at   time.Time
	last heatsNow
}

// freshFor is how long a reading is passed on (modelling choice: a plate moves by less than its own noise meanwhile).
const freshFor = 900 * time.Millisecond

func (h *heats) now(ctx context.Context, at time.Time) heatsNow {
	if h.from == nil {
		return heatsNow{Link: "none", Plates: map[string]float64{}}
	}
	h.mu.Lock()
	defer h.mu.Unlock()
	return h.fresh(ctx, at).clone()
}

// clone is one of its own, for whoever writes into it.
func (h heatsNow) clone() heatsNow {
	h.Plates = maps.Clone(h.Plates)
	if h.ProbeC != nil {
		c := *h.ProbeC
		h.ProbeC = &c
	}
	return h
}

func (h *heats) fresh(ctx context.Context, at time.Time) heatsNow {
	if age := at.Sub(h.at); age >= 0 && age < freshFor {
		return h.last
	}
	got, err := h.from.Read(ctx)
	h.at = at
	if err != nil {
		h.last = heatsNow{Link: "silent", Simulated: h.from.Simulated(), Says: sentenceOf(device.ErrNoAnswer), Plates: map[string]float64{}}
		return h.last
	}
	h.last = heatsNow{Link: "live", Simulated: h.from.Simulated(), Plates: map[string]float64{}}
	for name, c := range got {
		if name == device.ProbeName {
			h.last.ProbeC = &c
		} else {
			h.last.Plates[name] = c
		}
	}
	return h.last
}

func (s *Server) boardNow(ctx context.Context, b kitchen.BoardNow) boardNow {
	out := boardNow{b.ID, b.Name, b.StartedAt, b.At, b.State, s.heats.now(context.WithoutCancel(ctx), s.now()), map[string]griddle.Reading{}}
	for plate, c := range out.Heats.Plates {
		out.Reads[plate] = b.State.Read(plate, c, b.Fahrenheit)
	}
	return out
}

// beginBoard begins a morning at the plates.
func (s *Server) beginBoard(c *gin.Context) {
	b, err := s.kitchen.BeginBoard(c.Request.Context(), idempotencyKey(c))
	s.answerNow(c, http.StatusCreated, s.boardNow(c.Request.Context(), b), err)
}

// listBoards lists the boards.
func (s *Server) listBoards(c *gin.Context) {
	all, err := s.kitchen.Boards(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	type item struct {
		ID        string    `json:"id"`
		Name      string    `json:"name"`
		StartedAt time.Time `json:"started_at"`
		Closed    bool      `json:"closed"`
		Served    int       `json:"served"`
		Poured    int       `json:"poured"`
		Bowls     []string  `json:"bowls"`
		Trouble   string    `json:"trouble,omitempty"`
	}
	out := []item{}
	for _, b := range all {
		one := item{ID: b.ID, Name: b.Name, StartedAt: b.StartedAt, Closed: b.State.Closed, Served: b.State.Served, Bowls: []string{}, Trouble: b.Trouble}
		for _, x := range b.State.Bowls {
			one.Bowls, one.Poured = append(one.Bowls, x.Name), one.Poured+x.Poured
		}
		out = append(out, one)
	}
	c.JSON(http.StatusOK, map[string]any{"items": out})
}

// followHeat lets simulated plates do what real ones do: they heat up when they are switched on, and cool where they
// are poured on. Nobody stands at a stand-in.
func (s *Server) followHeat(ctx context.Context, data []byte, st griddle.State) {
	var e griddle.Event
	t := s.heats.from
	if t == nil || !t.Simulated() || document.Strict(data, &e) != nil || e.Plate == "" {
		return
	}
	for _, p := range st.Plates {
		if p.ID != e.Plate || p.Bowl == "" {
			continue
		}
		for _, b := range st.Bowls {
			switch {
			case b.Key != p.Bowl:
			case e.Kind == griddle.SwitchOn || e.Kind == griddle.IsHot:
				_ = t.Set(ctx, e.Plate, b.OnAt()) // a stand-in that is gone reads as silent anyway
			case e.Kind == griddle.Turned:
				if to, ok := b.TurnedTo(e); ok && to.C > 0 {
					_ = t.Set(ctx, e.Plate, to.C)
				}
			case e.Kind == griddle.Poured:
				_ = t.Pour(ctx, e.Plate, b.DropK())
			}
		}
	}
}

// GetThermometer returns what the thermometers read.
func (s *Server) GetThermometer(c *gin.Context) {
	s.send(c, http.StatusOK, s.heats.now(c.Request.Context(), s.now()))
}

// SimulateHeat turns the dial of a simulated plate, or sticks the simulated probe into something.
func (s *Server) SimulateHeat(c *gin.Context) {
	var w HeatSet
	if s.heats.from == nil {
		s.fail(c, http.StatusNotFound, "no_thermometer", "No thermometer is connected: type the reading in.")
		return
	}
	if !s.decode(c, &w) {
		return
	}
	if !(w.C >= -30 && w.C <= 400) {
		s.refuse(c, document.Refusal("/c", "out_of_range", "A temperature must lie between -30 and 400 °C."))
		return
	}
	name := device.ProbeName
	if w.Plate != nil {
		name = *w.Plate
	}
	if name == "" || len(name) > 64 || bytes.ContainsAny([]byte(name), " \n\r\t") {
		s.refuse(c, document.Refusal("/plate", "unknown_plate", "Name the plate by its id."))
		return
	}
	s.done(c, s.heats.from.Set(c.Request.Context(), name, w.C))
}
