package device

import (
	"context"
	"errors"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"net"
	"slices"
	"strconv"
	"strings"
	"sync"
	"time"

	"upbeatladle/core/prep"
)

// How the simulated scale behaves (modelling choices after an ordinary kitchen scale).
const (
	simMaxG     = 5000.0
	simStepG    = 1.0
	simSettleS  = 0.35 // s, time constant
	simSwingHz  = 1.6  // the platform swings while it settles
	simNoiseG   = 0.15 // g, standard deviation
	simDriftGH  = 2.0  // g an hour
	simSteadyS  = 0.8  // s inside one step before it calls itself steady
	simInterval = 50 * time.Millisecond
)

// How the cook pours who plays on it (modelling choices after a jug and a spoon).
const (
	pourGS      = 140.0 // g/s in full stream
	dribbleGS   = 7.0   // g/s at the end
	dribbleLast = 24.0  // g of a pour that dribble, or
	dribblePart = 0.12  // of it, if that is less
	lateS       = 0.25  // s from seeing to stopping, at most: what overshoots
	handG       = 260.0 // g that a hand on the pan weighs,
	handS       = 1.5   // s that it stays
	bowlG       = 420.0 // g of the bowl that is put on
	overShare   = 0.05  // of a pour that is too much, and
	overG       = 3.0   // g more
)

// Play is what somebody does at a simulated scale.
type Play string

// The plays.
const (
	PlayPour Play = "pour" // pours so many grams more, roughly
	PlayOver Play = "over" // pours them and does not look
	PlayBowl Play = "bowl" // puts an empty bowl on
	PlayHand Play = "hand" // leans on it for a moment
	PlayLift Play = "lift" // takes the bowl off, with what is in it
	PlayBack Play = "back" // and puts it back
)

// Plays lists them.
var Plays = []Play{PlayPour, PlayOver, PlayBowl, PlayHand, PlayLift, PlayBack}

// SimulatedScale is a stand-in: a load is put on it, it swings, settles, drifts and can be
// tared. It is safe for concurrent use.
type SimulatedScale struct {
	mu                 sync.Mutex
	rng                *rand.Rand
	load, from, tare   float64
	since, quiet, hour float64 // s since the load changed, s of rest, h since the start
	shown              float64
	step               float64 // g; 0 is simStepG
	ounces             bool

	pour, poured, late float64 // g to pour, g of it that are in, s of reaction that are left
	hand               float64 // s that a hand still leans on it
	lifted             float64 // g that were taken off
}

// NewSimulatedScale returns an empty scale with a source of noise.
func NewSimulatedScale(seed uint64) *SimulatedScale {
	return &SimulatedScale{rng: rand.New(rand.NewPCG(seed, seed)), since: math.Inf(1)}
}

// Put lays a load on it, instead of what was there.
func (s *SimulatedScale) Put(grams float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.from, s.load, s.since, s.quiet = s.load, grams, 0, 0
}

// pours tells whether a play wants to know how much.
func (p Play) pours() bool { return p == PlayPour || p == PlayOver }

// Play does something at it; grams are those of a pour.
func (s *SimulatedScale) Play(p Play, grams float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	switch p {
	case PlayBowl:
		s.from, s.load, s.since, s.quiet, s.pour = s.load, bowlG, 0, 0, 0
	case PlayOver:
		s.pour, s.poured, s.late = (1+overShare)*grams+overG, 0, lateS*s.rng.Float64()
	case PlayPour:
		s.pour, s.poured, s.late = grams, 0, lateS*s.rng.Float64()
	case PlayHand:
		s.hand, s.quiet = handS, 0
	case PlayLift:
		s.lifted += s.load
		s.from, s.load, s.since, s.quiet, s.pour = s.load, 0, 0, 0, 0
	case PlayBack:
		s.from, s.load, s.since, s.quiet, s.lifted = s.load, s.load+s.lifted, 0, 0, 0
	}
}

// Shows sets the step of its display [g], and whether it shows ounces.
func (s *SimulatedScale) Shows(step float64, ounces bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.step, s.ounces = step, ounces
}

// stream lets so much flow in as does in d seconds: a stream, then a dribble, and a little after it was
// to stop.
func (s *SimulatedScale) stream(d float64) {
	if s.pour <= 0 {
		return
	}
	rate, from := pourGS, s.pour-math.Min(dribbleLast, dribblePart*s.pour)
	if s.poured >= from {
		rate = dribbleGS
	}
	in := math.Min(rate*d*(0.8+0.4*s.rng.Float64()), math.Max(dribbleGS*d, from-s.poured))
	if s.poured >= s.pour {
		if s.late -= d; s.late <= 0 {
			s.pour = 0
			return
		}
	}
	s.poured += in
	s.load += in
	s.quiet = 0
}

// Tare makes what is shown zero.
func (s *SimulatedScale) Tare() {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.tare, s.hour = s.load, 0
}

// After is what it shows when so much time has gone by.
func (s *SimulatedScale) After(d time.Duration) Weight {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.since += d.Seconds()
	s.hour += d.Hours()
	s.stream(d.Seconds())
	step := s.step
	if step <= 0 {
		step = simStepG
	}
	swing := (s.from - s.load) * math.Exp(-s.since/simSettleS) * math.Cos(2*math.Pi*simSwingHz*s.since)
	if math.IsInf(s.since, 1) {
		swing = 0
	}
	if s.load > simMaxG {
		return Weight{Over: true}
	}
	noise := simNoiseG * math.Min(1, step/simStepG) * s.rng.NormFloat64()
	g := s.load - s.tare + swing + simDriftGH*s.hour + noise
	if s.hand > 0 {
		s.hand -= d.Seconds()
		g += handG * (1 + 0.2*s.rng.NormFloat64())
		s.quiet = 0
	}
	rounded := math.Round(g/step)*step + 0 // −0 is 0
	if math.Abs(swing) < step/2 && s.hand <= 0 && s.pour <= 0 {
		s.quiet += d.Seconds()
	} else {
		s.quiet = 0
	}
	if math.Abs(g-s.shown) > 0.7*step || s.quiet < simSteadyS { // a shown figure does not flicker between two
		s.shown = rounded
	}
	return Weight{Grams: s.shown, Steady: s.quiet >= simSteadyS}
}

// ServeScale speaks for the scale on a listener until the context ends.
func ServeScale(ctx context.Context, l net.Listener, s *SimulatedScale) error {
	return serve(ctx, l, func(conn net.Conn) {
		var mu sync.Mutex
		say := func(line string) error {
			mu.Lock()
			defer mu.Unlock()
			_, err := io.WriteString(conn, line+"\n")
			return err
		}
		if say(greetScale+" "+simulatedWord) != nil {
			return
		}
		done := make(chan struct{})
		go func() {
			defer close(done)
			for sc := lines(conn); sc.Scan(); {
				if say(s.obey(strings.Fields(sc.Text()))) != nil {
					return
				}
			}
		}()
		tick := time.NewTicker(simInterval)
		defer tick.Stop()
		for {
			select {
			case <-tick.C:
				if say(s.line(simInterval)) != nil {
					return
				}
			case <-done:
				return
			}
		}
	})
}

// obey does a command and says how it went.
func (s *SimulatedScale) obey(f []string) string {
	switch {
	case len(f) == 1 && f[0] == "tare":
		s.Tare()
		return "ok tare"
	case len(f) == 2 && (f[0] == "put" || Play(f[0]).pours()):
		g, err := strconv.ParseFloat(f[1], 64)
		if err != nil || !(g >= 0 && g <= 100*simMaxG) {
			return "error not a weight"
		}
		if f[0] == "put" {
			s.Put(g)
		} else {
			s.Play(Play(f[0]), g)
		}
		return "ok " + f[0]
	case len(f) == 1 && slices.Contains(Plays, Play(f[0])) && !Play(f[0]).pours():
		s.Play(Play(f[0]), 0)
		return "ok " + f[0]
	}
	return "error unknown command"
}

// line is what it says after so much time.
func (s *SimulatedScale) line(d time.Duration) string {
	w := s.After(d)
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.ounces {
		w.Grams /= gramsPerOunce
		return weightLine(w, 2) + " oz"
	}
	if s.step > 0 && s.step < 0.1 {
		return weightLine(w, 2)
	}
	return weightLine(w, 1)
}

// How the simulated refractometer errs (modelling choices after a hand-held digital one).
const simReadNoise = 0.05 // °Brix, standard deviation

// SimulatedRefractometer is a stand-in with a sample on its glass, or none. It shows what the
// sample reads at its own temperature; correcting that to 20 °C is the reader's business.
type SimulatedRefractometer struct {
	mu     sync.Mutex
	rng    *rand.Rand
	sample *Reading // °Brix at 20 °C
}

// NewSimulatedRefractometer returns one with a clean glass.
func NewSimulatedRefractometer(seed uint64) *SimulatedRefractometer {
	return &SimulatedRefractometer{rng: rand.New(rand.NewPCG(seed, seed))}
}

// Put lays a sample on the glass: its true °Brix at 20 °C and its temperature.
func (s *SimulatedRefractometer) Put(r Reading) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.sample = &r
}

// Read is what it shows; ok is false with a clean glass.
func (s *SimulatedRefractometer) Read() (r Reading, ok bool) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.sample == nil {
		return Reading{}, false
	}
	shown := s.sample.Brix
	if up, err := prep.AtTwenty(shown, s.sample.SampleC); err == nil {
		shown -= up - shown // warm samples read low
	}
	return Reading{math.Max(0, shown+simReadNoise*s.rng.NormFloat64()), s.sample.SampleC}, true
}

// ServeRefractometer speaks for the refractometer on a listener until the context ends.
func ServeRefractometer(ctx context.Context, l net.Listener, s *SimulatedRefractometer) error {
	return serve(ctx, l, func(conn net.Conn) { answerLines(conn, greetRefractometer, s.obey) })
}

func (s *SimulatedRefractometer) obey(f []string) string {
	switch {
	case len(f) == 1 && f[0] == "read":
		r, ok := s.Read()
		if !ok {
			return "error no sample"
		}
		return fmt.Sprintf("brix %.1f %.1f", r.Brix, r.SampleC)
	case len(f) == 3 && f[0] == "sample":
		r, ok := parseReading("brix " + f[1] + " " + f[2])
		if !ok {
			return "error not a sample"
		}
		s.Put(r)
		return "ok sample"
	}
	return "error unknown command"
}

// serve answers every connection until the context ends.
func serve(ctx context.Context, l net.Listener, answer func(net.Conn)) error {
	var all sync.WaitGroup
	defer all.Wait()
	stop := context.AfterFunc(ctx, func() { l.Close() })
	defer stop()
	for {
		conn, err := l.Accept()
		if err != nil {
			if ctx.Err() != nil || errors.Is(err, net.ErrClosed) {
				return nil
			}
			return err
		}
		all.Go(func() {
			defer conn.Close()
			end := context.AfterFunc(ctx, func() { conn.Close() })
			defer end()
			answer(conn)
		})
	}
}

// Addresses are where devices are reached; empty: there is none.
type Addresses struct{ Scale, Refractometer, Thermometer string }

// StandIns starts all stand-ins on free ports of this machine and returns their addresses. They end with the context.
func StandIns(ctx context.Context, now func() time.Time) (Addresses, error) {
	var all [3]net.Listener
	for i := range all {
		l, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			for _, open := range all[:i] {
				err = errors.Join(err, open.Close())
			}
			return Addresses{}, err
		}
		all[i] = l
	}
	seed := rand.Uint64()
	go ServeScale(ctx, all[0], NewSimulatedScale(seed))                 //nolint:errcheck // ends with the context
	go ServeRefractometer(ctx, all[1], NewSimulatedRefractometer(seed)) //nolint:errcheck // ends with the context
	go ServeThermometer(ctx, all[2], NewSimulatedThermometer(now))      //nolint:errcheck // ends with the context
	return Addresses{all[0].Addr().String(), all[1].Addr().String(), all[2].Addr().String()}, nil
}
