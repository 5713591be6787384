// Package stage opens the real program with the demo kitchen and the real interface in
// headless Chromium, for the browser tests and for the screenshots.
package stage

import (
	"context"
	"crypto/sha256"
	"crypto/x509"
	"encoding/base64"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"sync"
	"testing/fstest"
	"time"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/chromedp"

	"upbeatladle/api"
	"upbeatladle/core/food"
	"upbeatladle/demo/copied"
	"upbeatladle/device"
	"upbeatladle/house"
	"upbeatladle/store"
	"upbeatladle/web"
)

// ErrNotBuilt says that the front end has to be built first.
var ErrNotBuilt = errors.New("the front end is not built: run make build")

// waitLimit is how long a condition in the page may take to come true.
const waitLimit = 20 * time.Second

// Kitchen is a running program with the demo data in a folder of its own.
type Kitchen struct {
	URL   string
	Store *store.Store
	Scale *device.SimulatedScale
	Glass *device.SimulatedRefractometer
	Heat  *device.SimulatedThermometer

	House    *house.House       // nil when nobody is asked for a passcode
	Own      *house.Certificate // likewise
	Passcode string

	parts api.Parts
	srv   *http.Server
	trust *http.Server
	addr  string
	off   func() // the devices
	end   func() // the talk with them
}

// Open starts the program on a free port with a fresh database in dir.
func Open(ctx context.Context, dir string, now func() time.Time) (*Kitchen, error) {
	if _, err := fs.Stat(web.Dist(), "index.html"); err != nil {
		return nil, ErrNotBuilt
	}
	st, err := copied.Open(ctx, filepath.Join(dir, "e2e.db"), now)
	if err != nil {
		return nil, err
	}
	k := &Kitchen{
		Store: st, addr: "127.0.0.1:0", Scale: device.NewSimulatedScale(1), Glass: device.NewSimulatedRefractometer(1), Heat: device.NewSimulatedThermometer(now),
		parts: api.Parts{Store: st, Table: food.Reference(), Pages: web.Dist(), Log: slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: slog.LevelError})), Now: now},
	}
	k.parts.Printer = device.NewFolderPrinter(filepath.Join(dir, "labels"))
	if err := k.plugIn(); err != nil {
		return nil, errors.Join(err, st.Close())
	}
	if err := k.Start(); err != nil {
		return nil, errors.Join(err, st.Close())
	}
	return k, nil
}

// OpenHouse starts the program as other tablets of a house reach it: with a passcode, over TLS with
// a certificate of its own.
func OpenHouse(ctx context.Context, dir string, now func() time.Time) (*Kitchen, error) {
	k, err := Open(ctx, dir, now)
	if err != nil {
		return nil, err
	}
	k.House = house.New(k.Store, now)
	k.Passcode, err = k.House.Begin(ctx)
	if err == nil {
		k.Own, err = house.OpenCertificate(filepath.Join(dir, "house"), nil, nil, time.Now)
	}
	if err == nil {
		err = k.Stop()
	}
	if err == nil {
		k.parts.Door = api.Door{House: k.House, Own: k.Own, Open: true, URLs: func() []string { return []string{"https://" + k.addr} }}
		err = k.Start()
	}
	if err != nil {
		return nil, errors.Join(err, k.Close())
	}
	return k, nil
}

// plugIn puts the simulated devices on the counter, reached over TCP as real ones would be.
func (k *Kitchen) plugIn() error {
	ctx, off := context.WithCancel(context.Background())
	k.off = off
	scale, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return err
	}
	glass, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return errors.Join(err, scale.Close())
	}
	heat, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return errors.Join(err, scale.Close(), glass.Close())
	}
	go device.ServeScale(ctx, scale, k.Scale)         //nolint:errcheck // ends with the context
	go device.ServeRefractometer(ctx, glass, k.Glass) //nolint:errcheck // ends with the context
	go device.ServeThermometer(ctx, heat, k.Heat)     //nolint:errcheck // ends with the context
	s := device.NewNetScale(scale.Addr().String(), time.Now)
	talk, end := context.WithCancel(context.Background())
	k.end = end
	go s.Run(talk)
	k.parts.Scale, k.parts.Refractometer = s, device.NewNetRefractometer(glass.Addr().String())
	k.parts.Thermometer = device.NewNetThermometer(heat.Addr().String())
	return nil
}

// Unplug switches the devices off; the program has to live with it.
func (k *Kitchen) Unplug() { k.off() }

// Start listens again after Stop, on the same port.
func (k *Kitchen) Start() error {
	l, err := net.Listen("tcp", k.addr)
	if err != nil {
		return err
	}
	k.addr = l.Addr().String()
	k.URL = "http://" + k.addr
	k.srv = &http.Server{Handler: api.New(k.parts), ErrorLog: slog.NewLogLogger(slog.DiscardHandler, slog.LevelWarn)}
	api.Harden(k.srv, k.parts.Door)
	if k.Own == nil {
		go k.srv.Serve(l) //nolint:errcheck // ends with ErrServerClosed
		return nil
	}
	k.URL = "https://" + k.addr
	k.srv.TLSConfig = house.TLS()
	k.srv.TLSConfig.GetCertificate = k.Own.Get
	k.trust = &http.Server{Handler: api.Trust(k.parts.Pages, k.parts.Door)}
	api.Harden(k.trust, k.parts.Door)
	secure, plain := house.Split(l)
	go k.srv.ServeTLS(secure, "", "") //nolint:errcheck // ends with ErrServerClosed
	go k.trust.Serve(plain)           //nolint:errcheck // likewise
	return nil
}

// Stop makes the program unreachable; the database stays open.
func (k *Kitchen) Stop() error {
	if k.trust != nil {
		return errors.Join(k.srv.Close(), k.trust.Close())
	}
	return k.srv.Close()
}

// Newer makes the program carry another build of the front end from its next start on: the same,
// with files changed.
func (k *Kitchen) Newer(change func(name string, data []byte) []byte) error {
	pages := fstest.MapFS{}
	err := fs.WalkDir(web.Dist(), ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		data, err := fs.ReadFile(web.Dist(), name)
		pages[name] = &fstest.MapFile{Data: change(name, data)}
		return err
	})
	k.parts.Pages = pages
	return err
}

// Close ends the program.
func (k *Kitchen) Close() error {
	k.off()
	k.end()
	return errors.Join(k.Stop(), k.Store.Close())
}

// Browser is a headless Chromium with an empty profile.
type Browser struct {
	ctx    context.Context
	cancel func()
}

// Trusts makes a browser trust whatever a root signed, as a tablet that it was put on.
func Trusts(root []byte) chromedp.ExecAllocatorOption {
	c, err := x509.ParseCertificate(root)
	if err != nil {
		panic(err) // of our own making
	}
	key := sha256.Sum256(c.RawSubjectPublicKeyInfo)
	return chromedp.Flag("ignore-certificate-errors-spki-list", base64.StdEncoding.EncodeToString(key[:]))
}

// OpenBrowser starts Chromium with a profile in dir.
func OpenBrowser(ctx context.Context, dir string, more ...chromedp.ExecAllocatorOption) (*Browser, error) {
	profile, err := os.MkdirTemp(dir, "profile")
	if err != nil {
		return nil, err
	}
	opts := append(chromedp.DefaultExecAllocatorOptions[:],
		chromedp.NoSandbox, chromedp.DisableGPU, chromedp.UserDataDir(profile),
		chromedp.Flag("disable-quic", true), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("hide-scrollbars", false), chromedp.WindowSize(1280, 800),
	)
	if path, err := exec.LookPath("chromium-headless-shell"); err == nil {
		opts = append(opts, chromedp.ExecPath(path)) // the same engine without the windows of a desktop
	}
	allocator, cancelAllocator := chromedp.NewExecAllocator(ctx, append(opts, more...)...)
	first, cancelFirst := chromedp.NewContext(allocator)
	b := &Browser{first, func() { cancelFirst(); cancelAllocator() }}
	if err := chromedp.Do(first); err != nil {
		b.cancel()
		return nil, fmt.Errorf("starting Chromium (make chromium installs Debian's): %w", err)
	}
	return b, nil
}

// Close ends Chromium.
func (b *Browser) Close() { b.cancel() }

// Page is one tab. Errors that it writes to the console are kept.
type Page struct {
	ctx    context.Context
	cancel func()
	mu     sync.Mutex
	errs   []string
}

// Page opens a tab of a size on a clean profile of its own.
func (b *Browser) Page(width, height int64) (*Page, error) {
	ctx, cancel := chromedp.NewContext(b.ctx, chromedp.WithNewBrowserContext())
	p := &Page{ctx: ctx, cancel: cancel}
	messages := chromedp.Console(ctx)
	go func() {
		for m, err := range messages {
			if err != nil {
				return
			}
			if m.Type == chromedp.ConsoleError || m.Type == chromedp.ConsoleException || m.Type == chromedp.ConsoleWarning {
				p.mu.Lock()
				p.errs = append(p.errs, string(m.Type)+": "+m.Text+" "+m.URL)
				p.mu.Unlock()
			}
		}
	}()
	if err := p.Do(chromedp.EmulateViewport(width, height), still, awake); err != nil {
		cancel()
		return nil, err
	}
	return p, nil
}

// still asks the page for no motion, so that what is seen has come to rest.
var still = chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
	_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{
		Features: []*emulation.MediaFeature{{Name: "prefers-reduced-motion", Value: "reduce"}},
	})
	return err
})

// awake keeps the focus in the page while other tabs open and close beside it: a field that
// blurs because a tab of another test was closed would hide its list.
var awake = chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
	_, err := cdp.Call(ctx, t, emulation.SetFocusEmulationEnabled, emulation.SetFocusEmulationEnabledParams{Enabled: true})
	return err
})

// Close closes the tab.
func (p *Page) Close() { p.cancel() }

// Console returns the warnings and errors so far.
func (p *Page) Console() []string {
	p.mu.Lock()
	defer p.mu.Unlock()
	return append([]string(nil), p.errs...)
}

// ForgetConsole drops what was written so far, after a part that has to fail.
func (p *Page) ForgetConsole() {
	p.mu.Lock()
	defer p.mu.Unlock()
	p.errs = nil
}

// Do runs actions in the tab.
func (p *Page) Do(steps ...chromedp.Action[chromedp.Void]) error {
	return chromedp.Do(p.ctx, steps...)
}

// Ask evaluates an expression in the page.
func Ask[T any](p *Page, expression string) (T, error) {
	return chromedp.Run(p.ctx, chromedp.Evaluate[T](expression))
}

// Wait waits until an expression is true in the page.
func (p *Page) Wait(expression string) error {
	limit := time.NewTimer(waitLimit)
	defer limit.Stop()
	look := time.NewTicker(15 * time.Millisecond)
	defer look.Stop()
	for {
		ok, err := Ask[bool](p, "!!("+expression+")")
		if err != nil || ok {
			return err
		}
		select {
		case <-look.C:
		case <-limit.C:
			text, _ := Ask[string](p, "document.body.innerText")
			focus, _ := Ask[string](p, "document.activeElement?.outerHTML.slice(0, 200) ?? ''")
			at, _ := Ask[string](p, "location.href")
			return fmt.Errorf("never true: %s\nat: %s\nconsole: %v\nfocus: %s\non the page:\n%s", expression, at, p.Console(), focus, text)
		case <-p.ctx.Done():
			return p.ctx.Err()
		}
	}
}

// Click clicks the first match of a CSS selector once it has come to rest and nothing lies
// over it.
func (p *Page) Click(css string) error {
	atRest := fmt.Sprintf(`(() => {
		const e = document.querySelector(%q)
		if (!e) return false
		e.scrollIntoView({ block: 'center', inline: 'nearest' })
		const r = e.getBoundingClientRect(), was = window.__rest
		window.__rest = [r.x, r.y, r.width, r.height].join()
		const hit = document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2)
		return was === window.__rest && r.width > 0 && (e.contains(hit) || hit?.contains(e))
	})()`, css)
	if err := p.Wait(atRest); err != nil {
		return fmt.Errorf("clicking %s: %w", css, err)
	}
	return p.Do(chromedp.Click(chromedp.CSS(css)))
}

// Shot writes a PNG of the window.
func (p *Page) Shot(file string) error {
	png, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	if err != nil {
		return err
	}
	return os.WriteFile(file, png, 0o644)
}
