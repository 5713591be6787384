package house

import (
	"errors"
	"net"
	"net/netip"
	"sync"
	"syscall"
	"time"
)

// How many may be connected at once (modelling choices): a browser opens six, a household of
// tablets a few dozen.
const (
	MostLines     = 256
	MostLinesEach = 32
	sayFirst      = 10 * time.Second      // for the first byte of a call
	breathe       = 50 * time.Millisecond // when the machine has no more files to give
)

// tlsHandshake is the first byte of a call that wants TLS (RFC 8446, section 5.1).
const tlsHandshake = 0x16

// Capped limits the connections at once, in all and from each address; one too many is closed.
func Capped(l net.Listener, all, each int) net.Listener {
	return &capped{Listener: l, all: all, each: each, open: map[netip.Addr]int{}}
}

type capped struct {
	net.Listener
	all, each int

	mu   sync.Mutex
	sum  int
	open map[netip.Addr]int
}

func (c *capped) Accept() (net.Conn, error) {
	for {
		conn, err := c.Listener.Accept()
		if err != nil {
			return nil, err
		}
		from := FromOf(conn.RemoteAddr().String())
		if c.enter(from) {
			return &line{Conn: conn, end: sync.OnceFunc(func() { c.leave(from) })}, nil
		}
		_ = conn.Close() // nobody listens to why
	}
}

func (c *capped) enter(from netip.Addr) bool {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.sum >= c.all || c.open[from] >= c.each {
		return false
	}
	c.sum++
	c.open[from]++
	return true
}

func (c *capped) leave(from netip.Addr) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.sum--
	if c.open[from]--; c.open[from] == 0 {
		delete(c.open, from)
	}
}

type line struct {
	net.Conn
	end func()
}

func (l *line) Close() error {
	l.end()
	return l.Conn.Close()
}

// FromOf is the address of who calls, without its port; the zero address when it is none.
func FromOf(remote string) netip.Addr {
	at, err := netip.ParseAddrPort(remote)
	if err != nil {
		return netip.Addr{}
	}
	return at.Addr().Unmap().WithZone("")
}

// Split sorts the calls of one listener by their first byte into those that want TLS and those
// that do not, so that who types the address without “https” is still met. Closing either closes both.
func Split(l net.Listener) (secure, plain net.Listener) {
	s := &split{from: l, gone: make(chan struct{})}
	a, b := &side{split: s, calls: make(chan net.Conn)}, &side{split: s, calls: make(chan net.Conn)}
	go s.sort(a.calls, b.calls)
	return a, b
}

type split struct {
	from net.Listener
	once sync.Once
	gone chan struct{}
	err  error // why no more come; read once gone is closed
}

func (s *split) end(err error) {
	s.once.Do(func() {
		s.err = err
		close(s.gone)
	})
}

func (s *split) sort(secure, plain chan<- net.Conn) {
	for {
		conn, err := s.from.Accept()
		if passing(err) {
			time.Sleep(breathe)
			continue
		}
		if err != nil {
			s.end(err)
			return
		}
		go func() {
			_ = conn.SetReadDeadline(time.Now().Add(sayFirst))
			first := make([]byte, 1)
			if _, err := conn.Read(first); err != nil {
				_ = conn.Close()
				return
			}
			_ = conn.SetReadDeadline(time.Time{})
			to := plain
			if first[0] == tlsHandshake {
				to = secure
			}
			select {
			case to <- &begun{Conn: conn, first: first}:
			case <-s.gone:
				_ = conn.Close()
			}
		}()
	}
}

// passing tells whether a call failed for a reason that passes.
func passing(err error) bool {
	return errors.Is(err, syscall.EMFILE) || errors.Is(err, syscall.ENFILE) || errors.Is(err, syscall.ECONNABORTED)
}

// side is one of the two listeners.
type side struct {
	split *split
	calls chan net.Conn
}

func (s *side) Accept() (net.Conn, error) {
	select {
	case c := <-s.calls:
		return c, nil
	case <-s.split.gone:
		return nil, errors.Join(net.ErrClosed, s.split.err)
	}
}

func (s *side) Addr() net.Addr { return s.split.from.Addr() }

func (s *side) Close() error {
	err := s.split.from.Close()
	s.split.end(net.ErrClosed)
	if errors.Is(err, net.ErrClosed) {
		return nil
	}
	return err
}

// begun is a connection whose first byte was read already.
type begun struct {
	net.Conn
	first []byte
}

func (b *begun) Read(p []byte) (int, error) {
	if len(b.first) > 0 && len(p) > 0 {
		n := copy(p, b.first)
		b.first = b.first[n:]
		return n, nil
	}
	return b.Conn.Read(p)
}
