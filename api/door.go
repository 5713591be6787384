package api

import (
	"errors"
	"html/template"
	"io/fs"
	"net"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"upbeatladle/house"
	"upbeatladle/store"
)

// Door is how the program is reached. The zero value is this machine alone, where nobody is
// asked for a passcode.
type Door struct {
	House *house.House       // who may come in; nil when nobody is asked
	Own   *house.Certificate // the house's own, nil when it has none
	Names []string           // that the program answers to besides this machine's own
	Open  bool               // whether other tablets can come in
	URLs  func() []string    // where they come in
}

// cookieName is what a tablet is known by, see cookie.
const cookieName = "ladle"

// strictTransport asks browsers never to come without TLS again, for a year.
const strictTransport = "max-age=31536000"

// Limits of what listens (modelling choices): a kitchen full of tablets, and what one of them opens.
const (
	mostStreams     = 64
	mostStreamsEach = 8
)

// answers tells whether a call names this program: its own machine, the address that was called
// itself, or a configured name. Another name may have been pointed here by a stranger.
func (d Door) answers(r *http.Request) bool {
	host := hostOf(r)
	ip := net.ParseIP(host)
	switch {
	case host == "localhost", ip != nil && ip.IsLoopback():
		return true
	case !d.Open:
		return false
	case ip != nil:
		at, _ := r.Context().Value(http.LocalAddrContextKey).(net.Addr)
		return at != nil && house.FromOf(at.String()).Unmap().String() == ip.String()
	}
	return slices.Contains(d.Names, host)
}

// hostOf is the name that was called, without its port.
func hostOf(r *http.Request) string {
	host := r.Host
	if h, _, err := net.SplitHostPort(host); err == nil {
		host = h
	}
	return strings.ToLower(strings.TrimSuffix(strings.Trim(host, "[]"), "."))
}

// Harden sets timeouts on a server and makes it answer only to its own names.
func Harden(h *http.Server, d Door) {
	h.ReadTimeout, h.ReadHeaderTimeout = readTimeout, headerTimeout
	h.WriteTimeout, h.IdleTimeout, h.MaxHeaderBytes = writeTimeout, idleTimeout, maxHeader
	next := h.Handler
	h.Handler = guarded(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !d.answers(r) {
			says := "This bench answers on 127.0.0.1 and localhost only."
			if d.Open {
				says = "This bench answers to its own address and to the names it was started with (--host), not to this one."
			}
			writeProblem(w, http.StatusMisdirectedRequest, Problem{Title: "Wrong address", Detail: says})
			return
		}
		next.ServeHTTP(w, r)
	}))
}

// cookie is what a tablet is known by: no script reads it, no other site sends it, and over TLS
// only this very host gets it.
func cookie(r *http.Request, token string, keep time.Duration) *http.Cookie {
	c := &http.Cookie{Name: cookieName, Value: token, Path: "/", HttpOnly: true, SameSite: http.SameSiteStrictMode, MaxAge: int(keep / time.Second)}
	if r.TLS != nil {
		c.Name, c.Secure = "__Host-"+cookieName, true
	}
	if keep <= 0 {
		c.MaxAge = -1
	}
	return c
}

func tokenOf(r *http.Request) string {
	c, err := r.Cookie(cookie(r, "", 0).Name)
	if err != nil {
		return ""
	}
	return c.Value
}

// anyone may ask for these: whether a passcode is wanted, to give it, and the card of a guest's link.
func anyone(path string) bool {
	return path == session || strings.HasPrefix(path, "/api/v1/guests/")
}

const tabletKey = "tablet"

// admitted lets through whoever gave the passcode, for whatever is asked of the API, reading as well.
func (s *Server) admitted(c *gin.Context) {
	path := c.Request.URL.Path
	if s.door.House == nil || !strings.HasPrefix(path, "/api/") || anyone(path) {
		c.Next()
		return
	}
	t, err := s.door.House.Who(c.Request.Context(), tokenOf(c.Request))
	if err != nil {
		if errors.Is(err, house.ErrOutside) {
			s.log.Info("turned away at the door", "from", c.RemoteIP(), "path", path)
		}
		s.refuse(c, err)
		return
	}
	s.door.House.Meet(house.FromOf(c.Request.RemoteAddr))
	c.Set(tabletKey, t)
	c.Next()
}

// tablet is who asks; one without an id where nobody is asked for a passcode.
func tablet(c *gin.Context) store.Tablet {
	t, _ := c.Get(tabletKey)
	known, _ := t.(store.Tablet)
	return known
}

// stillIn tells a stream whether who listens may go on.
func (s *Server) stillIn(c *gin.Context) bool {
	if s.door.House == nil {
		return true
	}
	_, err := s.door.House.Who(c.Request.Context(), tokenOf(c.Request))
	return !errors.Is(err, house.ErrOutside)
}

// listen counts a stream; ok is false when there are too many, which is answered.
func (s *Server) listen(c *gin.Context) (leave func(), ok bool) {
	who := tablet(c).ID
	s.listening.mu.Lock()
	defer s.listening.mu.Unlock()
	if s.listening.all >= mostStreams || who != "" && s.listening.each[who] >= mostStreamsEach {
		c.Header("Retry-After", "5")
		s.fail(c, http.StatusServiceUnavailable, "busy", "Too many pages follow the scale already. Close one of them; the weight can also be typed in.")
		return nil, false
	}
	s.listening.all++
	s.listening.each[who]++
	return func() {
		s.listening.mu.Lock()
		defer s.listening.mu.Unlock()
		s.listening.all--
		if s.listening.each[who]--; s.listening.each[who] <= 0 {
			delete(s.listening.each, who)
		}
	}, true
}

// Trust answers calls without TLS where there is the house's own certificate: a page that tells
// how a tablet comes to trust it, the certificate itself, and the way on.
func Trust(pages fs.FS, d Door) http.Handler {
	return guarded(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		w.Header().Set("Cache-Control", "no-store")
		switch {
		case !d.answers(r):
			writeProblem(w, http.StatusMisdirectedRequest, Problem{Title: "Wrong address", Detail: "This bench answers to its own address and to the names it was started with (--host), not to this one."})
		case r.Method != http.MethodGet && r.Method != http.MethodHead, strings.HasPrefix(r.URL.Path, "/api/"):
			writeProblem(w, http.StatusForbidden, Problem{Title: "Not in the open", Detail: "This kitchen talks over https only. Open its page by https and try again; nothing was done."})
		case r.URL.Path == "/upbeat-ladle.crt":
			w.Header().Set("Content-Type", "application/x-x509-ca-cert")
			w.Header().Set("Content-Disposition", `attachment; filename="upbeat-ladle.crt"`)
			_, _ = w.Write(d.Own.Root())
		case strings.HasPrefix(r.URL.Path, "/assets/") && !strings.HasSuffix(r.URL.Path, "/"), r.URL.Path == "/favicon.svg":
			http.FileServerFS(pages).ServeHTTP(w, r)
		default:
			page, err := template.ParseFS(pages, "trust.html")
			if err != nil {
				http.Error(w, "The front end is not built. Run: make build", http.StatusServiceUnavailable)
				return
			}
			on := url.URL{Scheme: "https", Host: r.Host, Path: r.URL.Path}
			w.Header().Set("Content-Type", "text/html; charset=utf-8")
			_ = page.Execute(w, map[string]string{"On": on.String(), "Fingerprint": d.Own.Fingerprint()}) // the caller has gone when this fails
		}
	}))
}
