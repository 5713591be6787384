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
// tablets a few dozen. Strangers, who come from where no tablet is in, share what is not kept for those that are.
const (
	mostLines     = 256
	mostLinesEach = 32  // from one address
	mostStrangers = 192 // the rest is kept for known tablets
	leastShare    = 6   // of a stranger, as long as there is any left
	shareOfRest   = 4   // a stranger may have a quarter of what is left, so that a few cannot have all
	strangerIdle  = 15 * time.Second
	sayFirst      = 10 * time.Second      // for the first byte of a call
	breathe       = 50 * time.Millisecond // when the machine has no more files to give
)

// tlsHandshake is the first byte of a call that wants TLS (RFC 8446, section 5.1).
const tlsHandshake = 0x16

// Capped limits the connections at once, in all and from each address; one too many is closed, and so is one of a stranger on which
// nothing happens. Known tells which addresses tablets that are in come from.
func Capped(l net.Listener, known func(netip.Addr) bool) net.Listener {
	return &capped{Listener: l, known: known, open: map[netip.Prefix]int{}}
}

type capped struct {
	net.Listener
	known func(netip.Addr) bool

	mu             sync.Mutex
	sum, strangers int
	open           map[netip.Prefix]int
}

func (c *capped) Accept() (net.Conn, error) {
	for {
		conn, err := c.Listener.Accept()
		if err != nil {
			return nil, err
		}
		from := FromOf(conn.RemoteAddr().String())
		if l := c.enter(conn, from); l != nil {
			return l, nil
		}
		_ = conn.Close() // nobody listens to why
	}
}

func (c *capped) enter(conn net.Conn, from netip.Addr) *line {
	c.mu.Lock()
	defer c.mu.Unlock()
	at, stranger := NetOf(from), !c.known(from)
	if c.sum >= mostLines || c.open[at] >= mostLinesEach {
		return nil
	}
	if left := mostStrangers - c.strangers; stranger && (left <= 0 || c.open[at] >= max(leastShare, left/shareOfRest)) {
		return nil
	}
	c.sum++
	c.open[at]++
	if stranger {
		c.strangers++
	}
	l := &line{Conn: conn}
	l.end = sync.OnceFunc(func() { c.leave(at, stranger) })
	l.stir()
	if stranger {
		l.mu.Lock()
		l.watch = time.AfterFunc(strangerIdle, func() { c.look(l, from) })
		l.mu.Unlock()
	}
	return l
}

func (c *capped) leave(at netip.Prefix, stranger bool) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.sum--
	if stranger {
		c.strangers--
	}
	if c.open[at]--; c.open[at] == 0 {
		delete(c.open, at)
	}
}

// look closes a line on which nothing happened, and comes again for one on which something did. Who has come in meanwhile is left alone.
func (c *capped) look(l *line, from netip.Addr) {
	if c.known(from) {
		return
	}
	l.mu.Lock()
	idle := time.Since(l.last)
	if idle < strangerIdle {
		l.watch.Reset(strangerIdle - idle)
	}
	l.mu.Unlock()
	if idle >= strangerIdle {
		_ = l.Close()
	}
}

// line is a connection that is counted.
type line struct {
	net.Conn
	end func()

	mu    sync.Mutex
	last  time.Time // something came or went
	watch *time.Timer
}

func (l *line) stir() {
	l.mu.Lock()
	l.last = time.Now()
	l.mu.Unlock()
}

func (l *line) Read(p []byte) (int, error) {
	n, err := l.Conn.Read(p)
	l.stir()
	return n, err
}

func (l *line) Write(p []byte) (int, error) {
	n, err := l.Conn.Write(p)
	l.stir()
	return n, err
}

func (l *line) Close() error {
	l.end()
	l.mu.Lock()
	if l.watch != nil {
		l.watch.Stop()
	}
	l.mu.Unlock()
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
