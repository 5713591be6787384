package api_test

import (
	"bufio"
	"crypto/tls"
	"crypto/x509"
	"encoding/json"
	"io"
	"log/slog"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"testing/fstest"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/demo/copied"
	"upbeatladle/device"
	"upbeatladle/house"
	"upbeatladle/store"
)

const passcode = "quince-kettle-amber-drum"

// lan is a kitchen that other tablets come into, over TLS with its own certificate.
type lan struct {
	t     *testing.T
	st    *store.Store
	house *house.House
	own   *house.Certificate
	at    string // host and port
	time  *movable
	log   *journal
}

// journal is what the program logs.
type journal struct {
	mu sync.Mutex
	strings.Builder
}

func (j *journal) Write(p []byte) (int, error) {
	j.mu.Lock()
	defer j.mu.Unlock()
	return j.Builder.Write(p)
}

func (j *journal) text() string {
	j.mu.Lock()
	defer j.mu.Unlock()
	return j.String()
}

type movable struct {
	mu sync.Mutex
	by time.Duration
}

func (m *movable) now() time.Time {
	m.mu.Lock()
	defer m.mu.Unlock()
	return time.Now().Add(m.by)
}

func (m *movable) pass(d time.Duration) {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.by += d
}

func openHouse(t *testing.T) lan {
	t.Helper()
	ctx, m := t.Context(), &movable{}
	st, err := copied.Open(ctx, filepath.Join(t.TempDir(), "api.db"), m.now)
	require.NoError(t, err)
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	h := house.New(st, m.now)
	h.Work = house.Work{Memory: 64, Passes: 1}
	require.NoError(t, h.Set(ctx, passcode, "Halyard Hatch"))
	own, err := house.OpenCertificate(filepath.Join(t.TempDir(), "house"), nil, []string{"hatch.local"}, time.Now)
	require.NoError(t, err)
	door := api.Door{House: h, Own: own, Names: []string{"hatch.local"}, Open: true, URLs: func() []string { return []string{"https://" + l.Addr().String()} }}
	on, err := device.StandIns(ctx, time.Now)
	require.NoError(t, err)
	s := device.NewNetScale(on.Scale, time.Now)
	go s.Run(ctx)
	pages := fstest.MapFS{
		"index.html": {Data: []byte("<!doctype html>bench")}, "assets/a.css": {Data: []byte("a{}")},
		"trust.html": {Data: []byte(`<!doctype html><a href="{{.On}}">on</a> {{.Fingerprint}}`)},
	}
	said := &journal{}
	secured := house.TLS()
	secured.GetCertificate = own.Get
	srv := &http.Server{TLSConfig: secured, ErrorLog: slog.NewLogLogger(slog.DiscardHandler, slog.LevelWarn), Handler: api.New(api.Parts{
		Store: st, Table: food.Reference(), Pages: pages, Log: slog.New(slog.NewTextHandler(said, nil)), Now: m.now, Scale: s, Refractometer: device.NewNetRefractometer(on.Refractometer), Door: door,
	})}
	api.Harden(srv, door)
	trust := &http.Server{Handler: api.Trust(pages, door)}
	api.Harden(trust, door)
	secure, plain := house.Split(l)
	go srv.ServeTLS(secure, "", "") //nolint:errcheck // ends with ErrServerClosed
	go trust.Serve(plain)           //nolint:errcheck // likewise
	t.Cleanup(func() { _, _ = srv.Close(), trust.Close(); assert.NoError(t, st.Close()) })
	return lan{t, st, h, own, l.Addr().String(), m, said}
}

// tablet is a browser of its own that trusts the house's certificate.
func (l lan) tablet() *http.Client { return l.tabletAt("127.0.0.1") }

// tabletAt is one at an address of its own.
func (l lan) tabletAt(from string) *http.Client {
	root, err := x509.ParseCertificate(l.own.Root())
	require.NoError(l.t, err)
	roots := x509.NewCertPool()
	roots.AddCert(root)
	jar, err := cookiejar.New(nil)
	require.NoError(l.t, err)
	at := &net.Dialer{LocalAddr: &net.TCPAddr{IP: net.ParseIP(from)}}
	tr := &http.Transport{TLSClientConfig: &tls.Config{RootCAs: roots}, ForceAttemptHTTP2: true, DialContext: at.DialContext}
	l.t.Cleanup(tr.CloseIdleConnections)
	return &http.Client{Transport: tr, Jar: jar, Timeout: 30 * time.Second}
}

func (l lan) ask(c *http.Client, method, path, body string, headers ...string) (*http.Response, string) {
	l.t.Helper()
	req, err := http.NewRequest(method, "https://"+l.at+path, strings.NewReader(body))
	require.NoError(l.t, err)
	req.Header.Set("Content-Type", "application/json")
	for i := 0; i < len(headers); i += 2 {
		if headers[i] == "Host" {
			req.Host = headers[i+1]
		}
		req.Header.Set(headers[i], headers[i+1])
	}
	resp, err := c.Do(req)
	require.NoError(l.t, err)
	defer resp.Body.Close()
	said, err := io.ReadAll(resp.Body)
	require.NoError(l.t, err)
	return resp, string(said)
}

func (l lan) signIn(c *http.Client) {
	l.t.Helper()
	resp, said := l.ask(c, "POST", "/api/v1/session", `{"passcode":"`+passcode+`","name":"at the bowl"}`)
	require.Equal(l.t, http.StatusOK, resp.StatusCode, said)
}

func (l lan) cookies(c *http.Client) []*http.Cookie {
	return c.Jar.Cookies(&url.URL{Scheme: "https", Host: l.at, Path: "/"})
}

// operations are all that the contract lists, each with an address that may exist.
func operations(t *testing.T) (out [][2]string) {
	t.Helper()
	doc, err := openapi3.NewLoader().LoadFromFile("openapi.yaml")
	require.NoError(t, err)
	fill := strings.NewReplacer("{id}", "x", "{revision}", "1", "{kind}", "variation", "{token}", "x")
	for path, item := range doc.Paths.Map() {
		for method := range item.Operations() {
			out = append(out, [2]string{method, "/api/v1" + fill.Replace(path)})
		}
	}
	require.Greater(t, len(out), 60)
	return out
}

// Without the passcode there is nothing, reading as well as writing; the contract is the list.
func TestWithoutThePasscodeThereIsNothing(t *testing.T) {
	l := openHouse(t)
	stranger := l.tablet()
	for _, op := range operations(t) {
		resp, said := l.ask(stranger, op[0], op[1], `{}`)
		switch op[1] {
		case "/api/v1/session": // the door itself
		case "/api/v1/guests/x":
			assert.Equal(t, http.StatusNotFound, resp.StatusCode)
		default:
			assert.Equal(t, http.StatusUnauthorized, resp.StatusCode, "%v: %s", op, said)
			assert.Contains(t, said, "not signed in", op)
		}
		assert.NotEmpty(t, resp.Header.Get("Strict-Transport-Security"))
	}
	for _, path := range []string{"/api/v1/session/../variations", "/api/v1/guests/../variations", "/api//v1/variations", "/api/v1/guests/%2e%2e/variations"} {
		resp, said := l.ask(stranger, "GET", path, "")
		assert.NotContains(t, said, "Beetroot", path)
		assert.NotEqual(t, http.StatusOK, resp.StatusCode, path)
	}
	resp, said := l.ask(stranger, "GET", "/v/anything", "")
	assert.Equal(t, http.StatusOK, resp.StatusCode, "the empty page is nobody's secret")
	assert.Contains(t, said, "bench")
	l.signIn(stranger)
	resp, said = l.ask(stranger, "GET", "/api/v1/variations", "")
	assert.Equal(t, http.StatusOK, resp.StatusCode)
	assert.Contains(t, said, "Beetroot")
}

func TestTheCookieIsOutOfReach(t *testing.T) {
	l := openHouse(t)
	c := l.tablet()
	resp, _ := l.ask(c, "POST", "/api/v1/session", `{"passcode":"`+passcode+`"}`)
	require.Len(t, resp.Cookies(), 1)
	got := resp.Cookies()[0]
	assert.Equal(t, "__Host-ladle", got.Name)
	assert.True(t, got.HttpOnly)
	assert.True(t, got.Secure)
	assert.Equal(t, http.SameSiteStrictMode, got.SameSite)
	assert.Equal(t, "/", got.Path)
	assert.Empty(t, got.Domain)
	assert.Equal(t, "no-store", resp.Header.Get("Cache-Control"))
	_, said := l.ask(c, "GET", "/api/v1/house", "")
	assert.NotContains(t, said, got.Value, "the program never tells it again")
	// Signing in anew ends what this tablet was known by.
	l.signIn(c)
	stale := l.tablet()
	resp, _ = l.ask(stale, "GET", "/api/v1/kitchen", "", "Cookie", got.Name+"="+got.Value)
	assert.Equal(t, http.StatusUnauthorized, resp.StatusCode)
}

func TestAStolenCookieEndsWithSigningOut(t *testing.T) {
	l := openHouse(t)
	mine, thief := l.tablet(), l.tablet()
	l.signIn(mine)
	stolen := l.cookies(mine)[0]
	worksFor := func() int {
		resp, _ := l.ask(thief, "GET", "/api/v1/kitchen", "", "Cookie", stolen.Name+"="+stolen.Value)
		return resp.StatusCode
	}
	require.Equal(t, http.StatusOK, worksFor())

	// It follows the scale as well, until the moment the tablet signs out.
	req, err := http.NewRequest("GET", "https://"+l.at+"/api/v1/devices/scale/events", nil)
	require.NoError(t, err)
	req.Header.Set("Cookie", stolen.Name+"="+stolen.Value)
	stream, err := thief.Do(req)
	require.NoError(t, err)
	defer stream.Body.Close()
	_, err = bufio.NewReader(stream.Body).ReadString('\n')
	require.NoError(t, err)
	resp, _ := l.ask(mine, "DELETE", "/api/v1/session", "")
	assert.Equal(t, http.StatusNoContent, resp.StatusCode)
	assert.Equal(t, http.StatusUnauthorized, worksFor())
	_, err = io.Copy(io.Discard, stream.Body)
	assert.NoError(t, err, "the stream ended")

	// A tablet that was lost is signed out from another.
	l.signIn(mine)
	lost := l.tablet()
	l.signIn(lost)
	var there api.House
	_, said := l.ask(mine, "GET", "/api/v1/house", "")
	require.NoError(t, json.Unmarshal([]byte(said), &there))
	require.Len(t, there.Tablets, 2)
	for _, tb := range there.Tablets {
		if tb.Id != *there.Tablet {
			resp, _ = l.ask(mine, "DELETE", "/api/v1/house/tablets/"+tb.Id, "")
			assert.Equal(t, http.StatusNoContent, resp.StatusCode)
		}
	}
	resp, _ = l.ask(lost, "GET", "/api/v1/kitchen", "")
	assert.Equal(t, http.StatusUnauthorized, resp.StatusCode)
	l.time.pass(8 * 24 * time.Hour)
	resp, _ = l.ask(mine, "GET", "/api/v1/kitchen", "")
	assert.Equal(t, http.StatusUnauthorized, resp.StatusCode, "a week without being seen")
}

func TestWrongPasscodesAreSlowedDown(t *testing.T) {
	l := openHouse(t)
	in, c := l.tablet(), l.tabletAt("127.0.0.2")
	l.signIn(in)
	for range 4 {
		resp, said := l.ask(c, "POST", "/api/v1/session", `{"passcode":"plum"}`)
		assert.Equal(t, http.StatusUnauthorized, resp.StatusCode)
		assert.Contains(t, said, "not the passcode")
	}
	resp, said := l.ask(c, "POST", "/api/v1/session", `{"passcode":"plum"}`)
	assert.Equal(t, http.StatusTooManyRequests, resp.StatusCode)
	assert.Equal(t, "60", resp.Header.Get("Retry-After"))
	assert.Contains(t, said, "in a minute")
	resp, _ = l.ask(c, "POST", "/api/v1/session", `{"passcode":"`+passcode+`"}`)
	assert.Equal(t, http.StatusTooManyRequests, resp.StatusCode, "the right one waits as well")
	resp, _ = l.ask(in, "GET", "/api/v1/kitchen", "")
	assert.Equal(t, http.StatusOK, resp.StatusCode, "who is in stays in")
	for range 6 { // slips of who is in lock nobody out
		resp, _ = l.ask(in, "PUT", "/api/v1/house/passcode", `{"passcode":"plum","next":"plum-ferry-oak-zest"}`)
		assert.Equal(t, http.StatusBadRequest, resp.StatusCode)
	}
	l.time.pass(2 * time.Minute)
	l.signIn(c) // the right one is a new beginning
	for body, where := range map[string]string{
		`{"passcode":"plum","next":"plum-ferry-oak-zest"}`:         "/passcode",
		`{"passcode":"` + passcode + `","next":"password123"}`:     "/next",
		`{"passcode":"` + passcode + `","next":"Halyard Hatch 7"}`: "/next",
	} {
		resp, said = l.ask(in, "PUT", "/api/v1/house/passcode", body)
		assert.Equal(t, http.StatusBadRequest, resp.StatusCode)
		assert.Contains(t, said, `"pointer":"`+where+`"`)
	}
	resp, _ = l.ask(in, "PUT", "/api/v1/house/passcode", `{"passcode":"`+passcode+`","next":"plum-ferry-oak-zest"}`)
	assert.Equal(t, http.StatusNoContent, resp.StatusCode)
	resp, _ = l.ask(in, "GET", "/api/v1/kitchen", "")
	assert.Equal(t, http.StatusOK, resp.StatusCode)
	resp, _ = l.ask(c, "GET", "/api/v1/kitchen", "")
	assert.Equal(t, http.StatusUnauthorized, resp.StatusCode)
	resp, _ = l.ask(c, "POST", "/api/v1/session", strings.Repeat("x", 5000))
	assert.Equal(t, http.StatusRequestEntityTooLarge, resp.StatusCode)
}

// Only the program's own names are answered, and no other site acts in a cook's name.
func TestHostsAndOrigins(t *testing.T) {
	l := openHouse(t)
	c := l.tablet()
	l.signIn(c)
	_, port, err := net.SplitHostPort(l.at)
	require.NoError(t, err)
	for host, want := range map[string]int{
		"localhost": 200, "127.0.0.1:" + port: 200, "hatch.local:" + port: 200, "HATCH.local.": 200,
		"192.168.1.77": 421, "kitchen.example.com": 421, "hatch.local.example.com": 421, "": 421,
	} {
		if host == "" {
			continue
		}
		resp, _ := l.ask(c, "GET", "/api/v1/session", "", "Host", host)
		assert.Equal(t, want, resp.StatusCode, host)
	}
	for _, from := range [][]string{{"Origin", "https://kitchen.example.com"}, {"Sec-Fetch-Site", "cross-site"}, {"Sec-Fetch-Site", "same-site"}} {
		for _, op := range [][2]string{{"POST", "/api/v1/session"}, {"DELETE", "/api/v1/session"}, {"POST", "/api/v1/variations"}, {"PUT", "/api/v1/kitchen"}} {
			resp, _ := l.ask(c, op[0], op[1], `{"passcode":"`+passcode+`"}`, from...)
			assert.Equal(t, http.StatusForbidden, resp.StatusCode, "%v %v", from, op)
		}
	}
}

// Who comes and goes, who is turned away and what a guest opens is logged, and nothing that opens a door.
func TestWhatIsLogged(t *testing.T) {
	l := openHouse(t)
	c := l.tablet()
	l.ask(c, "GET", "/api/v1/kitchen", "")
	l.ask(c, "POST", "/api/v1/session", `{"passcode":"plum-and-nothing"}`)
	l.signIn(c)
	var list struct{ Items []struct{ ID, Name string } }
	_, said := l.ask(c, "GET", "/api/v1/variations", "")
	require.NoError(t, json.Unmarshal([]byte(said), &list))
	var link api.GuestLink
	_, said = l.ask(c, "POST", "/api/v1/house/guests", `{"card":"`+list.Items[0].ID+`","days":7}`)
	require.NoError(t, json.Unmarshal([]byte(said), &link))
	token := strings.TrimPrefix(link.Path, "/guest/")
	l.ask(l.tablet(), "GET", "/api/v1/guests/"+token, "")
	l.ask(c, "DELETE", "/api/v1/house/guests/"+link.Id, "")
	cookies := l.cookies(c)
	l.ask(c, "DELETE", "/api/v1/session", "")
	log := l.log.text()
	for _, event := range []string{"turned away at the door", "a passcode was refused", "a tablet came in", "a guest's link was made", "a guest's link was used", "a guest's link was taken back", "a tablet signed out"} {
		assert.Contains(t, log, event)
	}
	for _, secret := range []string{passcode, "plum-and-nothing", token, cookies[0].Value} {
		assert.NotContains(t, log, secret)
	}
}

// A link shows one card: what is in it and its allergens, and nothing else of the kitchen.
func TestAGuestSeesOneCard(t *testing.T) {
	l := openHouse(t)
	c, guest := l.tablet(), l.tablet()
	l.signIn(c)
	var list struct{ Items []struct{ ID, Name string } }
	_, said := l.ask(c, "GET", "/api/v1/variations", "")
	require.NoError(t, json.Unmarshal([]byte(said), &list))
	card := list.Items[0]
	for _, days := range []string{"0", "31", `"7"`} {
		resp, _ := l.ask(c, "POST", "/api/v1/house/guests", `{"card":"`+card.ID+`","days":`+days+`}`)
		assert.Equal(t, http.StatusBadRequest, resp.StatusCode, days)
	}
	resp, said := l.ask(c, "POST", "/api/v1/house/guests", `{"card":"`+card.ID+`","days":7}`)
	require.Equal(t, http.StatusCreated, resp.StatusCode, said)
	var link api.GuestLink
	require.NoError(t, json.Unmarshal([]byte(said), &link))
	require.Len(t, link.Doors, 1)
	assert.Equal(t, "https://"+l.at+link.Path, link.Doors[0].Url)
	assert.NotEmpty(t, link.Doors[0].Dark)
	shown := "/api/v1/guests/" + strings.TrimPrefix(link.Path, "/guest/")
	resp, said = l.ask(guest, "GET", shown, "")
	require.Equal(t, http.StatusOK, resp.StatusCode, said)
	var seen struct{ Document struct{ Name string } }
	require.NoError(t, json.Unmarshal([]byte(said), &seen))
	assert.Equal(t, card.Name, seen.Document.Name)
	assert.Contains(t, said, `"allergen_text"`)
	for _, op := range operations(t) {
		if op[1] == "/api/v1/session" || strings.HasPrefix(op[1], "/api/v1/guests/") {
			continue
		}
		resp, _ = l.ask(guest, op[0], op[1], `{}`)
		assert.Equal(t, http.StatusUnauthorized, resp.StatusCode, "%v", op)
	}
	resp, _ = l.ask(guest, "DELETE", shown, "")
	assert.Equal(t, http.StatusMethodNotAllowed, resp.StatusCode)
	// Put aside, taken back, and over: it opens nothing.
	gone := func() string {
		resp, said := l.ask(guest, "GET", shown, "")
		assert.Equal(t, http.StatusNotFound, resp.StatusCode)
		return said
	}
	l.ask(c, "DELETE", "/api/v1/variations/"+card.ID, "")
	assert.Contains(t, gone(), "opens nothing any more")
	l.ask(c, "POST", "/api/v1/variations/"+card.ID+"/restore", "")
	resp, _ = l.ask(guest, "GET", shown, "")
	assert.Equal(t, http.StatusOK, resp.StatusCode)
	resp, _ = l.ask(c, "DELETE", "/api/v1/house/guests/"+link.Id, "")
	assert.Equal(t, http.StatusNoContent, resp.StatusCode)
	gone()
}

// Who comes without TLS learns how to trust the house, and gets nothing else.
func TestWithoutTLSThereIsOnlyHowToTrust(t *testing.T) {
	l := openHouse(t)
	get := func(method, path string, headers ...string) (*http.Response, string) {
		req, err := http.NewRequest(method, "http://"+l.at+path, nil)
		require.NoError(t, err)
		if len(headers) > 0 {
			req.Host = headers[1]
		}
		resp, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer resp.Body.Close()
		said, err := io.ReadAll(resp.Body)
		require.NoError(t, err)
		return resp, string(said)
	}
	resp, said := get("GET", "/v/some-thing")
	assert.Equal(t, http.StatusOK, resp.StatusCode)
	assert.Contains(t, said, `href="https://`+l.at+`/v/some-thing"`)
	assert.Contains(t, said, l.own.Fingerprint())
	assert.Empty(t, resp.Header.Get("Strict-Transport-Security"))
	resp, said = get("GET", "/upbeat-ladle.crt")
	assert.Equal(t, "application/x-x509-ca-cert", resp.Header.Get("Content-Type"))
	_, err := x509.ParseCertificate([]byte(said))
	assert.NoError(t, err)
	for _, op := range [][2]string{{"GET", "/api/v1/session"}, {"POST", "/api/v1/session"}, {"POST", "/"}, {"GET", "/api/v1/variations"}} {
		resp, said = get(op[0], op[1])
		assert.Equal(t, http.StatusForbidden, resp.StatusCode, op)
		assert.Contains(t, said, "https only")
	}
	resp, _ = get("GET", "/", "Host", "kitchen.example.com")
	assert.Equal(t, http.StatusMisdirectedRequest, resp.StatusCode, "the way on never leads elsewhere")
	resp, said = get("GET", `/"><script>alert(1)</script>`)
	assert.Equal(t, http.StatusOK, resp.StatusCode)
	assert.NotContains(t, said, "<script>")
}

// So many may listen, and one tablet does not take all places.
func TestStreamsAreCounted(t *testing.T) {
	l := openHouse(t)
	greedy, other := l.tablet(), l.tablet()
	l.signIn(greedy)
	l.signIn(other)
	listen := func(c *http.Client) (*http.Response, func()) {
		resp, err := c.Get("https://" + l.at + "/api/v1/devices/scale/events")
		require.NoError(t, err)
		return resp, func() { _ = resp.Body.Close() }
	}
	for range 8 {
		resp, end := listen(greedy)
		defer end()
		require.Equal(t, http.StatusOK, resp.StatusCode)
	}
	resp, end := listen(greedy)
	end()
	assert.Equal(t, http.StatusServiceUnavailable, resp.StatusCode)
	resp, end = listen(other)
	end()
	assert.Equal(t, http.StatusOK, resp.StatusCode)
}
