package device

import (
	"context"
	"fmt"
	"io"
	"math"
	"net"
	"strconv"
	"strings"
	"sync"
	"time"
)

// ProbeName is the probe among the readings; the others are named by the ids of their plates.
const ProbeName = "probe"

// Heats are readings in °C, by the plate's id or ProbeName.
type Heats map[string]float64

// Thermometer reads surfaces and a probe.
type Thermometer interface {
	// Read takes one reading of each.
	Read(ctx context.Context) (Heats, error)
	// Simulated tells whether it is a stand-in; known after the first reading.
	Simulated() bool
	// Set turns the dial of a simulated plate, or sticks the simulated probe into something [°C]; on a real one it is
	// ErrNotSimulated.
	Set(ctx context.Context, name string, c float64) error
	// Pour cools a simulated plate by so many K; on a real one it is ErrNotSimulated.
	Pour(ctx context.Context, name string, k float64) error
}

const greetThermometer = "hello thermometer 1"

// NetThermometer is a thermometer reached over TCP, one connection a reading.
type NetThermometer struct {
	addr string
	mu   sync.Mutex
	sim  bool
}

var _ Thermometer = (*NetThermometer)(nil)

// NewNetThermometer returns the thermometer at an address.
func NewNetThermometer(addr string) *NetThermometer { return &NetThermometer{addr: addr} }

func (t *NetThermometer) ask(ctx context.Context, command string, onlySimulated bool) (string, error) {
	line, simulated, err := askOnce(ctx, t.addr, greetThermometer, command, onlySimulated)
	if err == nil {
		t.mu.Lock()
		t.sim = simulated
		t.mu.Unlock()
	}
	return line, err
}

// Simulated implements Thermometer.
func (t *NetThermometer) Simulated() bool {
	t.mu.Lock()
	defer t.mu.Unlock()
	return t.sim
}

// Read implements Thermometer.
func (t *NetThermometer) Read(ctx context.Context) (Heats, error) {
	line, err := t.ask(ctx, "read", false)
	if err != nil {
		return nil, err
	}
	h, ok := parseHeats(line)
	if !ok {
		return nil, ErrNonsense
	}
	return h, nil
}

// Set implements Thermometer.
func (t *NetThermometer) Set(ctx context.Context, name string, c float64) error {
	return t.told(t.ask(ctx, fmt.Sprintf("set %s %.1f", name, c), true))
}

// Pour implements Thermometer.
func (t *NetThermometer) Pour(ctx context.Context, name string, k float64) error {
	return t.told(t.ask(ctx, fmt.Sprintf("pour %s %.1f", name, k), true))
}

func (t *NetThermometer) told(line string, err error) error {
	if err == nil && !strings.HasPrefix(line, "ok ") {
		err = ErrNonsense
	}
	return err
}

// parseHeats reads "heat long 156.2 probe 66.0".
func parseHeats(line string) (Heats, bool) {
	f := strings.Fields(line)
	if len(f) < 1 || f[0] != "heat" || len(f)%2 != 1 {
		return nil, false
	}
	out := Heats{}
	for i := 1; i < len(f); i += 2 {
		c, err := strconv.ParseFloat(f[i+1], 64)
		if err != nil || !(c > -60 && c < 600) {
			return nil, false
		}
		out[f[i]] = c
	}
	return out, true
}

// How a simulated plate behaves (the cooking model's recovery; the rest modelling choices).
const (
	roomC       = 22.0
	heatUpS     = 110.0 // s, time constant from cold
	recoverS    = 40.0  // s, after a pour
	simHeatK    = 0.4   // K, of its reading
	probeAtRest = roomC
)

// SimulatedThermometer is a stand-in: plates that heat up to their dial, cool when they are poured on and recover, and
// a probe that reads what it is stuck into. It is safe for concurrent use.
type SimulatedThermometer struct {
	mu     sync.Mutex
	now    func() time.Time
	plates map[string]*simPlate
	probe  float64
	wobble float64
}

type simPlate struct {
	set, from float64
	since     time.Time
	drop      float64 // K below, at dropped
	dropped   time.Time
}

// NewSimulatedThermometer returns one with cold plates of these ids.
func NewSimulatedThermometer(now func() time.Time, plates ...string) *SimulatedThermometer {
	s := &SimulatedThermometer{now: now, plates: map[string]*simPlate{}, probe: probeAtRest}
	for _, p := range plates {
		s.plates[p] = &simPlate{set: roomC, from: roomC, since: now(), dropped: now()}
	}
	return s
}

func (p *simPlate) at(now time.Time) float64 {
	up := p.set + (p.from-p.set)*math.Exp(-now.Sub(p.since).Seconds()/heatUpS)
	return up - p.fallen(now)
}

func (p *simPlate) fallen(now time.Time) float64 {
	return p.drop * math.Exp(-now.Sub(p.dropped).Seconds()/recoverS)
}

// Set turns a dial, or sticks the probe into something [°C].
func (s *SimulatedThermometer) Set(name string, c float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if name == ProbeName {
		s.probe = c
		return
	}
	now := s.now()
	p := s.plates[name]
	if p == nil {
		p = &simPlate{set: roomC, from: roomC, since: now}
		s.plates[name] = p
	}
	p.from, p.since, p.set, p.drop = p.at(now), now, c, 0
}

// Pour cools a plate by so many K, from which it recovers.
func (s *SimulatedThermometer) Pour(name string, k float64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if p := s.plates[name]; p != nil {
		now := s.now()
		p.drop, p.dropped = p.fallen(now)+k, now
	}
}

// Read is what it shows.
func (s *SimulatedThermometer) Read() Heats {
	s.mu.Lock()
	defer s.mu.Unlock()
	now := s.now()
	s.wobble = math.Mod(s.wobble+0.7, 2*math.Pi)
	out := Heats{ProbeName: s.probe + simHeatK/2*math.Sin(s.wobble)}
	for id, p := range s.plates {
		out[id] = p.at(now) + simHeatK*math.Sin(s.wobble)
	}
	return out
}

func (s *SimulatedThermometer) obey(f []string) string {
	if len(f) == 1 && f[0] == "read" {
		line := "heat"
		for id, c := range s.Read() {
			line += fmt.Sprintf(" %s %.1f", id, c)
		}
		return line
	}
	if len(f) == 3 && (f[0] == "set" || f[0] == "pour") {
		c, err := strconv.ParseFloat(f[2], 64)
		if err != nil || !(c > -60 && c < 600) {
			return "error not a temperature"
		}
		if f[0] == "set" {
			s.Set(f[1], c)
		} else {
			s.Pour(f[1], c)
		}
		return "ok " + f[0]
	}
	return "error unknown command"
}

// ServeThermometer speaks for the thermometer on a listener until the context ends.
func ServeThermometer(ctx context.Context, l net.Listener, s *SimulatedThermometer) error {
	return serve(ctx, l, func(conn net.Conn) { answerLines(conn, greetThermometer, s.obey) })
}

// answerLines greets as a stand-in and answers line by line.
func answerLines(conn net.Conn, greeting string, obey func([]string) string) {
	if _, err := io.WriteString(conn, greeting+" "+simulatedWord+"\n"); err != nil {
		return
	}
	for sc := lines(conn); sc.Scan(); {
		if _, err := io.WriteString(conn, obey(strings.Fields(sc.Text()))+"\n"); err != nil {
			return
		}
	}
}
