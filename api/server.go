// Package api serves the contract in openapi.yaml with Gin: it decodes through
// document/, keeps in store/, and asks the core for every figure.
package api

//go:generate go tool oapi-codegen -config oapi-codegen.yaml openapi.yaml
//go:generate go run ./prune

import (
	"io"
	"io/fs"
	"log/slog"
	"mime"
	"net"
	"net/http"
	"path"
	"runtime/debug"
	"strings"
	"sync"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"upbeatladle/core/food"
	"upbeatladle/device"
	"upbeatladle/document/question"
	"upbeatladle/house"
	"upbeatladle/kitchen"
	"upbeatladle/store"
)

// Limits of the server (modelling choice).
const (
	headerTimeout = 10 * time.Second
	readTimeout   = time.Minute     // a megabyte over a Wi-Fi of 20 kB/s
	writeTimeout  = 2 * time.Minute // the front end over the same
	idleTimeout   = 2 * time.Minute
	maxHeader     = 32 << 10

	fileTimeout = 10 * time.Minute // for a file or a whole kitchen, each way
)

// Paths with rules of their own: streams are not compressed, the pantry file may be larger.
const (
	archive    = "/api/v1/archive"
	streams    = "/events" // is how their paths end
	pantryFile = "/api/v1/pantry-file"
	session    = "/api/v1/session"
)

// policy lets pages use what ships with the program and nothing else. Element Plus sets
// style attributes, which style-src-attr allows; inline scripts and style sheets are not.
const policy = "default-src 'self'; img-src 'self' data:; style-src 'self'; style-src-attr 'unsafe-inline'; " +
	"object-src 'none'; base-uri 'self'; frame-ancestors 'none'; form-action 'self'"

// permissions are what a page may ask of a tablet: that its screen stays on over a sheet, and to sound. The rest is denied by name.
const permissions = "accelerometer=(), autoplay=(self), browsing-topics=(), camera=(), clipboard-read=(), display-capture=(), " +
	"encrypted-media=(), fullscreen=(), gamepad=(), geolocation=(), gyroscope=(), hid=(), idle-detection=(), local-fonts=(), magnetometer=(), microphone=(), midi=(), " +
	"payment=(), picture-in-picture=(), publickey-credentials-get=(), screen-wake-lock=(self), serial=(), storage-access=(), usb=(), window-management=(), xr-spatial-tracking=()"

// Parts is what a server is made of.
type Parts struct {
	Store *store.Store
	Table *food.Table // as shipped, without own ingredients
	Pages fs.FS       // the built front end
	Log   *slog.Logger
	Now   func() time.Time

	Scale         device.Scale         // nil when there is none
	Refractometer device.Refractometer // nil when there is none
	Thermometer   device.Thermometer   // nil when there is none
	Printer       device.LabelPrinter  // nil when there is none

	Door Door

	Closing <-chan struct{} // closed when the program is about to end; streams end then
}

// Server answers the API.
type Server struct {
	kitchen *kitchen.Kitchen
	log     *slog.Logger
	now     func() time.Time

	scale         device.Scale
	refractometer device.Refractometer
	heats         heats
	printer       device.LabelPrinter
	lease         lease
	gates         gates
	unread        unread
	closing       <-chan struct{}

	door      Door
	guests    *house.House // links for guests; there also where nobody is asked for a passcode
	listening struct {
		mu   sync.Mutex
		all  int
		each map[string]int // streams of each tablet
	}
}

var _ ServerInterface = (*Server)(nil)

// New returns the handler of the whole program: API, health and the front end.
func New(p Parts) http.Handler {
	s := &Server{kitchen: kitchen.New(p.Store, p.Table, p.Log, p.Now), log: p.Log, now: p.Now, scale: p.Scale, refractometer: p.Refractometer, heats: heats{from: p.Thermometer}, printer: p.Printer, closing: p.Closing, door: p.Door, guests: p.Door.House}
	if s.guests == nil {
		s.guests = house.New(p.Store, p.Now)
	}
	s.listening.each = map[string]int{}
	s.gates = newGates()
	guard := http.NewCrossOriginProtection()
	guard.SetDenyHandler(http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) {
		writeProblem(w, http.StatusForbidden, Problem{Title: "Not from here", Detail: "Another site asked for this in your name, so it was not done. Open the bench itself and try again."})
	}))
	return guarded(guard.Handler(s.routes(p.Pages)))
}

// routes are what the contract names, health and the front end.
func (s *Server) routes(pages fs.FS) *gin.Engine {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.Use(s.logged, s.recovered, gzip.Gzip(gzip.BestSpeed, gzip.WithCustomShouldCompressFn(compressed)), s.admitted, s.heard, s.atOnce, s.remembering)
	r.GET("/healthz", s.health)
	RegisterHandlersWithOptions(r, s, GinServerOptions{
		BaseURL:      "/api/v1",
		ErrorHandler: func(c *gin.Context, err error, status int) { s.fail(c, status, "bad_request", plain(err)) },
	})
	v1 := r.Group("/api/v1")
	for _, q := range question.Table {
		v1.POST("/"+q.Name, s.ask(q))
	}
	for _, k := range s.kinds() {
		s.keeps(v1, k)
	}
	r.NoMethod(func(c *gin.Context) {
		s.fail(c, http.StatusMethodNotAllowed, "method", "This address does not take "+c.Request.Method+".")
	})
	r.NoRoute(s.pages(pages))
	return r
}

func (s *Server) logged(c *gin.Context) {
	start := time.Now()
	c.Next()
	level := slog.LevelDebug
	if c.Writer.Status() >= 500 {
		level = slog.LevelError
	}
	s.log.LogAttrs(c.Request.Context(), level, "request", slog.String("method", c.Request.Method),
		slog.String("path", toldPath(c.Request.URL.Path)), slog.Int("status", c.Writer.Status()), slog.Duration("took", time.Since(start)))
}

// remembering lets what is asked of the plate twice be worked out once.
func (s *Server) remembering(c *gin.Context) {
	c.Request = c.Request.WithContext(s.kitchen.Remembering(c.Request.Context()))
}

// toldPath is a path as it is logged: a guest's link opens a card, so it is nobody else's.
func toldPath(p string) string {
	for _, secret := range []string{"/api/v1/guests/", "/guest/"} {
		if strings.HasPrefix(p, secret) {
			return secret + "…"
		}
	}
	return p
}

func (s *Server) recovered(c *gin.Context) {
	defer func() {
		if v := recover(); v != nil {
			s.log.Error("a handler panicked", "panic", v, "path", c.Request.URL.Path, "stack", string(debug.Stack()))
			s.fail(c, http.StatusInternalServerError, "internal", "The program stumbled over this. Nothing was saved; what is on the screen is still yours.")
		}
	}()
	c.Next()
}

// compressed tells which answers are: on this machine packing costs more than sending, and
// streams are read as they come.
func compressed(c *gin.Context) bool {
	far := net.ParseIP(c.RemoteIP())
	if path := c.Request.URL.Path; path == archive || strings.HasSuffix(path, streams) && c.Request.Method == http.MethodGet {
		return false
	}
	return strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") && far != nil && !far.IsLoopback()
}

// guarded sends the headers that guard a page with every answer, refusals as well.
func guarded(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", policy)
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Permissions-Policy", permissions)
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		if r.TLS != nil {
			h.Set("Strict-Transport-Security", strictTransport)
		}
		if strings.HasPrefix(r.URL.Path, "/api/") {
			h.Set("Cache-Control", "no-store")
		}
		next.ServeHTTP(w, r)
	})
}

func (s *Server) health(c *gin.Context) {
	if err := s.kitchen.Healthy(c.Request.Context()); err != nil {
		s.fail(c, http.StatusServiceUnavailable, "store", "The database does not answer.")
		return
	}
	c.JSON(http.StatusOK, gin.H{"status": "ok"})
}

// pages serves the front end; a path without a file is an area of the app.
func (s *Server) pages(dist fs.FS) gin.HandlerFunc {
	return func(c *gin.Context) {
		p := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		switch {
		case strings.HasPrefix(c.Request.URL.Path, "/api/"):
			s.fail(c, http.StatusNotFound, "not_found", "There is nothing at this address.")
			return
		case c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead:
			s.fail(c, http.StatusMethodNotAllowed, "method", "This address does not take "+c.Request.Method+".")
			return
		}
		if f, err := fs.Stat(dist, p); p == "" || err != nil || f.IsDir() {
			if path.Ext(p) != "" {
				s.fail(c, http.StatusNotFound, "not_found", "There is no such file.")
				return
			}
			p = "index.html"
		}
		data, err := fs.ReadFile(dist, p)
		if err != nil {
			c.String(http.StatusServiceUnavailable, "The front end is not built. Run: make build\n")
			return
		}
		if strings.HasPrefix(p, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			c.Header("Cache-Control", "no-cache")
		}
		kind := mime.TypeByExtension(path.Ext(p))
		if path.Ext(p) == ".webmanifest" {
			kind = "application/manifest+json"
		}
		if kind == "" {
			kind = http.DetectContentType(data)
		}
		c.Data(http.StatusOK, kind, data)
	}
}

// body reads a request body; a failure is answered and ok is false.
func (s *Server) body(c *gin.Context) (data []byte, ok bool) {
	if kind, _, err := mime.ParseMediaType(c.GetHeader("Content-Type")); err != nil || kind != "application/json" {
		s.fail(c, http.StatusUnsupportedMediaType, "content_type", "Send JSON, with the content type application/json.")
		return nil, false
	}
	data, err := io.ReadAll(c.Request.Body) // it is all there, see heard
	if err != nil {
		s.refuse(c, err)
		return nil, false
	}
	return data, true
}
