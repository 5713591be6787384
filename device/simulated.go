package device

import (
	"context"
	"errors"
	"fmt"
	"io"
	"math"
	"math/rand/v2"
	"net"
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
	simInterval = 200 * time.Millisecond
)

// SimulatedScale is a stand-in: a load is put on it, it swings, settles, drifts and can be
// tared. It is safe for concurrent use.
type SimulatedScale struct {
	mu                 sync.Mutex
	rng                *rand.Rand
	load, from, tare   float64
	since, quiet, hour float64 // s since the load changed, s of rest, h since the start
	shown              float64
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
	swing := (s.from - s.load) * math.Exp(-s.since/simSettleS) * math.Cos(2*math.Pi*simSwingHz*s.since)
	if math.IsInf(s.since, 1) {
		swing = 0
	}
	if s.load > simMaxG {
		return Weight{Over: true}
	}
	g := s.load - s.tare + swing + simDriftGH*s.hour + simNoiseG*s.rng.NormFloat64()
	rounded := math.Round(g/simStepG)*simStepG + 0 // −0 is 0
	if math.Abs(swing) < simStepG/2 {
		s.quiet += d.Seconds()
	} else {
		s.quiet = 0
	}
	if math.Abs(g-s.shown) > 0.7*simStepG || s.quiet < simSteadyS { // a shown figure does not flicker between two
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
				if say(weightLine(s.After(simInterval))) != nil {
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
	case len(f) == 2 && f[0] == "put":
		g, err := strconv.ParseFloat(f[1], 64)
		if err != nil || !(g >= 0 && g <= 100*simMaxG) {
			return "error not a weight"
		}
		s.Put(g)
		return "ok put"
	}
	return "error unknown command"
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
	return serve(ctx, l, func(conn net.Conn) {
		if _, err := io.WriteString(conn, greetRefractometer+" "+simulatedWord+"\n"); err != nil {
			return
		}
		for sc := lines(conn); sc.Scan(); {
			if _, err := io.WriteString(conn, s.obey(strings.Fields(sc.Text()))+"\n"); err != nil {
				return
			}
		}
	})
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

// StandIns starts both stand-ins on free ports of this machine and returns their addresses.
// They end with the context.
func StandIns(ctx context.Context) (scale, refractometer string, err error) {
	ls, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return "", "", err
	}
	lr, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return "", "", errors.Join(err, ls.Close())
	}
	seed := rand.Uint64()
	go ServeScale(ctx, ls, NewSimulatedScale(seed))                 //nolint:errcheck // ends with the context
	go ServeRefractometer(ctx, lr, NewSimulatedRefractometer(seed)) //nolint:errcheck // ends with the context
	return ls.Addr().String(), lr.Addr().String(), nil
}
