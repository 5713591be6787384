package device

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"strings"
	"sync"
	"time"
)

// NetScale is a scale reached over TCP. It connects by itself, again and again, and never makes
// a caller wait for the device.
type NetScale struct {
	addr string
	now  func() time.Time

	mu      sync.Mutex
	state   State
	conn    net.Conn
	answers chan string // of the command under way
	watch   map[chan State]struct{}
	command sync.Mutex // one at a time
}

var _ Scale = (*NetScale)(nil)

// NewNetScale returns a scale at an address; Run talks to it.
func NewNetScale(addr string, now func() time.Time) *NetScale {
	return &NetScale{addr: addr, now: now, state: State{Link: Connecting, Says: ErrNoAnswer.Error()}, watch: map[chan State]struct{}{}}
}

// Run talks to the scale until the context ends.
func (s *NetScale) Run(ctx context.Context) {
	wait := retryFirst
	for ctx.Err() == nil {
		began := s.now()
		err := s.talk(ctx)
		if ctx.Err() != nil {
			return
		}
		link := Connecting
		if errors.Is(err, ErrNonsense) {
			link = Nonsense
		} else if s.now().Sub(began) > silentAfter { // it was there
			wait = retryFirst
		}
		s.set(func(st *State) { st.Link, st.Says = link, says(link) })
		t := time.NewTimer(wait)
		select {
		case <-t.C:
		case <-ctx.Done():
			t.Stop()
			return
		}
		wait = min(2*wait, retryLast)
	}
}

func says(l Link) string {
	switch l {
	case Live:
		return ""
	case Nonsense:
		return ErrNonsense.Error()
	}
	return ErrNoAnswer.Error()
}

// talk is one connection, from greeting to end.
func (s *NetScale) talk(ctx context.Context) error {
	dialer := net.Dialer{Timeout: answerWithin}
	conn, err := dialer.DialContext(ctx, "tcp", s.addr)
	if err != nil {
		return err
	}
	defer conn.Close()
	stop := context.AfterFunc(ctx, func() { conn.Close() })
	defer stop()
	r := lines(conn)
	greeting, err := next(conn, r, answerWithin)
	if err != nil {
		return err
	}
	if !strings.HasPrefix(greeting, greetScale) {
		return ErrNonsense
	}
	s.set(func(st *State) { st.Simulated = strings.HasSuffix(greeting, " "+simulatedWord) })
	s.mu.Lock()
	s.conn = conn
	s.mu.Unlock()
	defer func() {
		s.mu.Lock()
		s.conn = nil
		s.mu.Unlock()
	}()
	strange, lately, since := 0, 0, s.now()
	for {
		line, err := next(conn, r, silentAfter)
		if now := s.now(); now.Sub(since) >= time.Second {
			lately, since = 0, now
		}
		if lately++; lately > mostASecond { // hung up on, and called again later
			return ErrNonsense
		}
		var late net.Error
		switch {
		case errors.As(err, &late) && late.Timeout():
			s.set(func(st *State) { st.Link, st.Says = Silent, says(Silent) })
			r = lines(conn)
			continue
		case errors.Is(err, bufio.ErrTooLong):
			return ErrNonsense
		case err != nil:
			return err
		}
		if w, ok := parseWeight(line); ok {
			strange = 0
			w.At = s.now()
			s.set(func(st *State) { st.Weight, st.Link, st.Says = w, Live, "" })
			continue
		}
		if strings.HasPrefix(line, "ok ") || strings.HasPrefix(line, "error ") {
			s.answer(line)
			continue
		}
		if strange++; strange >= nonsenseFrom {
			s.set(func(st *State) { st.Link, st.Says = Nonsense, says(Nonsense) })
		}
	}
}

func lines(r io.Reader) *bufio.Scanner {
	sc := bufio.NewScanner(r)
	sc.Buffer(make([]byte, maxLine), maxLine)
	return sc
}

// next waits for a line.
func next(conn net.Conn, r *bufio.Scanner, within time.Duration) (string, error) {
	if err := conn.SetReadDeadline(time.Now().Add(within)); err != nil {
		return "", err
	}
	if r.Scan() {
		return strings.TrimSpace(r.Text()), nil
	}
	if err := r.Err(); err != nil {
		return "", err
	}
	return "", io.EOF
}

func (s *NetScale) answer(line string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.answers != nil {
		select {
		case s.answers <- line:
		default:
		}
	}
}

// set changes the state and tells everybody who watches. A slow watcher misses what was in
// between, never the last.
func (s *NetScale) set(f func(*State)) {
	s.mu.Lock()
	defer s.mu.Unlock()
	f(&s.state)
	for c := range s.watch {
		select {
		case <-c:
		default:
		}
		c <- s.state
	}
}

// State implements Scale.
func (s *NetScale) State() State {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.state
}

// Watch implements Scale.
func (s *NetScale) Watch(ctx context.Context) <-chan State {
	c := make(chan State, 1)
	s.mu.Lock()
	defer s.mu.Unlock()
	c <- s.state
	s.watch[c] = struct{}{}
	context.AfterFunc(ctx, func() {
		s.mu.Lock()
		defer s.mu.Unlock()
		delete(s.watch, c)
		close(c)
	})
	return c
}

// Tare implements Scale.
func (s *NetScale) Tare(ctx context.Context) error { return s.say(ctx, "tare") }

// Put implements Scale.
func (s *NetScale) Put(ctx context.Context, grams float64) error {
	if !s.State().Simulated {
		return ErrNotSimulated
	}
	return s.say(ctx, fmt.Sprintf("put %.1f", grams))
}

// Play implements Scale.
func (s *NetScale) Play(ctx context.Context, p Play, grams float64) error {
	if !s.State().Simulated {
		return ErrNotSimulated
	}
	if p.pours() {
		return s.say(ctx, fmt.Sprintf("%s %.2f", p, grams))
	}
	return s.say(ctx, string(p))
}

// say sends a command and waits for its answer.
func (s *NetScale) say(ctx context.Context, command string) error {
	s.command.Lock()
	defer s.command.Unlock()
	answers := make(chan string, 1)
	s.mu.Lock()
	conn := s.conn
	s.answers = answers
	s.mu.Unlock()
	defer func() {
		s.mu.Lock()
		s.answers = nil
		s.mu.Unlock()
	}()
	if conn == nil {
		return ErrNoAnswer
	}
	if err := conn.SetWriteDeadline(time.Now().Add(answerWithin)); err != nil {
		return ErrNoAnswer
	}
	if _, err := io.WriteString(conn, command+"\n"); err != nil {
		return ErrNoAnswer
	}
	late := time.NewTimer(answerWithin)
	defer late.Stop()
	select {
	case a := <-answers:
		if strings.HasPrefix(a, "ok ") {
			return nil
		}
		return ErrNonsense
	case <-late.C:
		return ErrNoAnswer
	case <-ctx.Done():
		return ctx.Err()
	}
}
