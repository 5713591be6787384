package api

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"net/netip"
	"os"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/document"
	"upbeatladle/house"
	"upbeatladle/store"
)

// How bodies are heard (modelling choices). What arrives behind its head costs nothing, on a machine that is busy too;
// who lets the program wait for the rest holds one of a few places.
const (
	atHand         = 2 * time.Second
	bodyTimeout    = 10 * time.Second // for a document
	slowestPerS    = 4 << 10          // bytes of a file
	mostUnread     = 8
	mostUnreadEach = 2         // from one address
	mostHeardOut   = 256 << 20 // bytes of a body that is refused for its size
)

// heardAs says of a path how much is heard, and what is said of more. The zero value is for documents.
type heardAs struct {
	most    int64
	tooMuch string
	file    bool // it takes the time that it takes, as long as it goes on
}

var heards = map[string]heardAs{
	session:    {most: 4 << 10, tooMuch: "No passcode is so long."},
	pantryFile: {most: document.MaxPantryBytes, tooMuch: fmt.Sprintf("The file is larger than %d MB. A pantry takes a few hundred kB: leave out what you do not use.", document.MaxPantryBytes>>20), file: true},
	archive:    {most: document.MaxArchiveBytes, tooMuch: fmt.Sprintf("The file is larger than %d MB: no kitchen of this program is.", document.MaxArchiveBytes>>20), file: true},
}

func heardOf(path string) heardAs {
	if h, ok := heards[path]; ok {
		return h
	}
	return heardAs{most: document.MaxBytes, tooMuch: fmt.Sprintf("That is more than %d kB. A variation takes a few; nothing was saved.", document.MaxBytes>>10)}
}

// unread counts the bodies that are waited for. It is safe for concurrent use.
type unread struct {
	mu   sync.Mutex
	all  int
	each map[netip.Prefix]int
}

// enter takes a place; leave must be called when ok.
func (u *unread) enter(from netip.Prefix) (leave func(), ok bool) {
	u.mu.Lock()
	defer u.mu.Unlock()
	if u.all >= mostUnread || u.each[from] >= mostUnreadEach {
		return nil, false
	}
	if u.each == nil {
		u.each = map[netip.Prefix]int{}
	}
	u.all++
	u.each[from]++
	return func() {
		u.mu.Lock()
		defer u.mu.Unlock()
		u.all--
		if u.each[from]--; u.each[from] == 0 {
			delete(u.each, from)
		}
	}, true
}

// scratchKey is where a handler finds the file that a large body was heard into.
const scratchKey = "scratch"

// heard reads the whole body before anything waits for it: a tablet that leaves in the middle of a sentence stops nobody.
func (s *Server) heard(c *gin.Context) {
	r := c.Request
	if r.Body == nil || r.Body == http.NoBody || r.ContentLength == 0 {
		c.Next()
		return
	}
	as := heardOf(r.URL.Path)
	var into io.Writer
	var memory bytes.Buffer
	into = &memory
	if r.URL.Path == archive {
		f, err := s.kitchen.Scratch()
		if err != nil {
			s.refuse(c, err)
			return
		}
		defer f.Close()
		c.Set(scratchKey, f)
		into = f
	}
	leave, err := s.hear(c, into, as)
	if leave != nil {
		defer leave()
	}
	var large *http.MaxBytesError
	var disk *fs.PathError
	switch {
	case err == nil:
		if leave != nil { // the place is free again as soon as all is heard
			leave()
		}
		r.Body = io.NopCloser(&memory)
		c.Next()
	case errors.As(err, &large):
		s.fail(c, http.StatusRequestEntityTooLarge, "too_large", as.tooMuch)
		s.hearOut(c, r.Body)
	case errors.Is(err, errBusy):
		s.log.Warn("too many bodies are waited for", "path", r.URL.Path, "from", c.RemoteIP())
		s.busy(c)
	case errors.As(err, &disk) && !errors.Is(err, os.ErrDeadlineExceeded):
		s.refuse(c, err)
	case errors.Is(err, os.ErrDeadlineExceeded):
		s.log.Warn("a body did not arrive in time", "path", r.URL.Path, "from", c.RemoteIP())
		s.fail(c, http.StatusRequestTimeout, "slow", "The rest of it did not arrive in time. Nothing was saved; send it again.")
	default:
		s.fail(c, http.StatusBadRequest, "unreadable", "The request broke off before its end. Nothing was saved; send it again.")
	}
}

// hear copies a body as far as it may be heard. The place that a slow one took has to be left, when it took one.
func (s *Server) hear(c *gin.Context, into io.Writer, as heardAs) (leave func(), err error) {
	rc := http.NewResponseController(c.Writer)
	body := http.MaxBytesReader(c.Writer, c.Request.Body, as.most)
	began := time.Now()
	_ = rc.SetReadDeadline(began.Add(bodyTimeout)) // what cannot be timed is a test's
	done := make(chan error, 1)
	go func() {
		_, err := io.Copy(into, reading(func(p []byte) (int, error) {
			n, err := body.Read(p)
			if n > 0 && as.file { // it earns its time
				began = began.Add(time.Duration(n) * time.Second / slowestPerS)
				_ = rc.SetReadDeadline(earlier(began, time.Now()).Add(bodyTimeout))
			}
			return n, err
		}))
		done <- err
	}()
	patience := time.NewTimer(atHand)
	defer patience.Stop()
	select {
	case err = <-done:
	case <-patience.C:
		var ok bool
		if leave, ok = s.unread.enter(house.NetOf(house.FromOf(c.Request.RemoteAddr))); !ok {
			_ = rc.SetReadDeadline(time.Now())
			<-done
			return nil, errBusy
		}
		leave = sync.OnceFunc(leave)
		err = <-done
	}
	if err != nil { // nor is the rest waited for when it is answered
		_ = rc.SetReadDeadline(time.Now())
	} else {
		_ = rc.SetReadDeadline(time.Time{})
	}
	return leave, err
}

// hearOut hears the rest of what is refused for its size, so that the answer is read and not lost in a reset.
func (s *Server) hearOut(c *gin.Context, rest io.Reader) {
	_ = http.NewResponseController(c.Writer).SetReadDeadline(time.Now().Add(bodyTimeout))
	_, _ = io.CopyN(io.Discard, rest, mostHeardOut)
}

// reading is a function as a reader.
type reading func([]byte) (int, error)

func (r reading) Read(p []byte) (int, error) { return r(p) }

func earlier(a, b time.Time) time.Time {
	if b.Before(a) {
		return b
	}
	return a
}

// scratch is the file that a large body was heard into, at its beginning.
func scratch(c *gin.Context) (store.Scratch, error) {
	f := c.MustGet(scratchKey).(store.Scratch)
	_, err := f.Seek(0, io.SeekStart)
	return f, err
}
