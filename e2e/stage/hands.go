package stage

import (
	"context"
	"fmt"

	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/chromedp"
)

// Touch makes the tab one that is worked with fingers.
func (p *Page) Touch() error {
	return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true})
		return err
	}))
}

// FirstVisit asks the program itself for everything, as a tab does before anything is kept on the tablet.
func (p *Page) FirstVisit() error {
	return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		if _, err := cdp.Call(ctx, t, network.Enable, network.EnableParams{}); err != nil {
			return err
		}
		if _, err := cdp.Call(ctx, t, network.SetCacheDisabled, network.SetCacheDisabledParams{CacheDisabled: true}); err != nil {
			return err
		}
		_, err := cdp.Call(ctx, t, network.SetBypassServiceWorker, network.SetBypassServiceWorkerParams{Bypass: true})
		return err
	}))
}

// swipeSteps are the moves of a finger that scrolls.
const swipeSteps = 12

// Swipe puts a finger on the first match of a CSS selector and draws it dy pixels down the screen, or up.
func (p *Page) Swipe(css string, dy float64) error { return p.finger(css, 0, dy) }

// Drag puts a finger there and draws it dx pixels to the right, or to the left.
func (p *Page) Drag(css string, dx float64) error { return p.finger(css, dx, 0) }

func (p *Page) finger(css string, dx, dy float64) error {
	at, err := Ask[[]float64](p, fmt.Sprintf(`(() => { const r = document.querySelector(%q).getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`, css))
	if err != nil {
		return fmt.Errorf("swiping %s: %w", css, err)
	}
	return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		touch := func(kind input.DispatchTouchEventType, points ...*input.TouchPoint) error {
			_, err := cdp.Call(ctx, t, input.DispatchTouchEvent, input.DispatchTouchEventParams{Type: kind, TouchPoints: append([]*input.TouchPoint{}, points...)})
			return err
		}
		if err := touch("touchStart", &input.TouchPoint{X: at[0], Y: at[1]}); err != nil {
			return err
		}
		for i := 1; i <= swipeSteps; i++ {
			if err := touch("touchMove", &input.TouchPoint{X: at[0] + dx*float64(i)/swipeSteps, Y: at[1] + dy*float64(i)/swipeSteps}); err != nil {
				return err
			}
		}
		return touch("touchEnd")
	}))
}

// MouseDrag presses the mouse at a place of the window, moves it to another and lets go.
func (p *Page) MouseDrag(x, y, toX, toY float64) error {
	return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		mouse := func(kind input.DispatchMouseEventType, x, y float64) error {
			_, err := cdp.Call(ctx, t, input.DispatchMouseEvent, input.DispatchMouseEventParams{Type: kind, X: x, Y: y, Button: input.MouseButtonLeft, ClickCount: 1})
			return err
		}
		if err := mouse("mousePressed", x, y); err != nil {
			return err
		}
		for i := 1; i <= swipeSteps; i++ {
			share := float64(i) / swipeSteps
			if err := mouse("mouseMoved", x+share*(toX-x), y+share*(toY-y)); err != nil {
				return err
			}
		}
		return mouse("mouseReleased", toX, toY)
	}))
}

// Hold presses the mouse on the middle of the first match of a CSS selector until an expression is true.
func (p *Page) Hold(css, until string) error {
	at, err := Ask[[]float64](p, fmt.Sprintf(`(() => { const r = document.querySelector(%q).getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2] })()`, css))
	if err != nil {
		return fmt.Errorf("holding %s: %w", css, err)
	}
	mouse := func(kind input.DispatchMouseEventType) error {
		return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
			_, err := cdp.Call(ctx, t, input.DispatchMouseEvent, input.DispatchMouseEventParams{Type: kind, X: at[0], Y: at[1], Button: input.MouseButtonLeft, ClickCount: 1})
			return err
		}))
	}
	if err := mouse("mousePressed"); err != nil {
		return err
	}
	held := p.Wait(until)
	if err := mouse("mouseReleased"); err != nil {
		return err
	}
	return held
}

// SlowDown makes the tablet's processor so many times slower.
func (p *Page) SlowDown(times float64) error {
	return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetCPUThrottlingRate, emulation.SetCPUThrottlingRateParams{Rate: times})
		return err
	}))
}

// ForcedColours paints the page in the system's own colours, as for who needs contrast, or no longer.
func (p *Page) ForcedColours(on bool) error {
	value := "none"
	if on {
		value = "active"
	}
	return p.Do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetEmulatedMedia, emulation.SetEmulatedMediaParams{Features: []*emulation.MediaFeature{{Name: "forced-colors", Value: value}}})
		return err
	}))
}
