package api

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"net/http"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
	"rsc.io/qr"

	"upbeatladle/document"
	"upbeatladle/document/question"
	"upbeatladle/house"
	"upbeatladle/store"
)

// GetSession tells whether this tablet has to give the passcode.
func (s *Server) GetSession(c *gin.Context) {
	out := Session{Passcode: s.door.House != nil, SignedIn: s.door.House == nil}
	if s.door.House != nil {
		t, err := s.door.House.Who(c.Request.Context(), tokenOf(c.Request))
		if err != nil && !errors.Is(err, house.ErrOutside) {
			s.refuse(c, err)
			return
		}
		if out.SignedIn = err == nil; out.SignedIn {
			out.Tablet = &t.ID
		}
	}
	c.JSON(http.StatusOK, out)
}

// SignIn lets a tablet in that gives the passcode. One that was in before is signed out first,
// so that an old cookie opens nothing.
func (s *Server) SignIn(c *gin.Context) {
	var wish SignIn
	if !s.withHouse(c) || !s.decode(c, &wish) {
		return
	}
	ctx := c.Request.Context()
	token, t, err := s.door.House.SignIn(ctx, house.FromOf(c.Request.RemoteAddr), wish.Passcode, value(wish.Name))
	if err != nil {
		s.log.Warn("a passcode was refused", "from", c.RemoteIP(), "err", err)
		s.refuse(c, err)
		return
	}
	if was, err := s.door.House.Who(ctx, tokenOf(c.Request)); err == nil {
		if err := s.door.House.SignOut(ctx, was.ID); err != nil && !errors.Is(err, store.ErrNotFound) {
			s.refuse(c, err)
			return
		}
	}
	s.log.Info("a tablet came in", "from", c.RemoteIP(), "tablet", t.ID)
	http.SetCookie(c.Writer, cookie(c.Request, token, house.InFor()))
	c.JSON(http.StatusOK, Session{Passcode: true, SignedIn: true, Tablet: &t.ID})
}

// SignOut signs this tablet out.
func (s *Server) SignOut(c *gin.Context) {
	if !s.withHouse(c) {
		return
	}
	t, err := s.door.House.Who(c.Request.Context(), tokenOf(c.Request))
	if err == nil {
		err = s.door.House.SignOut(c.Request.Context(), t.ID)
	}
	if err != nil && !errors.Is(err, house.ErrOutside) && !errors.Is(err, store.ErrNotFound) {
		s.refuse(c, err)
		return
	}
	if err == nil {
		s.log.Info("a tablet signed out", "from", c.RemoteIP(), "tablet", t.ID)
	}
	http.SetCookie(c.Writer, cookie(c.Request, "", 0))
	c.Status(http.StatusNoContent)
}

func (s *Server) withHouse(c *gin.Context) bool {
	if s.door.House == nil {
		s.fail(c, http.StatusNotFound, "no_passcode", "This kitchen is open on its own machine only and asks for no passcode. Start it with “serve --lan” to let other tablets in.")
		return false
	}
	return true
}

// GetHouse tells how other tablets come in, and which are in.
func (s *Server) GetHouse(c *gin.Context) {
	d := s.door
	out := House{Open: d.Open, Passcode: d.House != nil, Secure: c.Request.TLS != nil, Doors: []HouseDoor{}, Tablets: []Tablet{}, Guests: []Guest{}}
	if d.URLs != nil {
		for _, u := range d.URLs() {
			out.Doors = append(out.Doors, doorOf(u))
		}
	}
	if d.Own != nil {
		own, print := true, d.Own.Fingerprint()
		out.OwnCertificate, out.Fingerprint = &own, &print
		if len(out.Doors) > 0 {
			trust := "http" + strings.TrimPrefix(out.Doors[0].Url, "https")
			out.Trust = &trust
		}
	}
	if d.House != nil {
		mine := tablet(c).ID
		out.Tablet = &mine
		tablets, err := d.House.Tablets(c.Request.Context())
		if err != nil {
			s.refuse(c, err)
			return
		}
		for _, t := range tablets {
			out.Tablets = append(out.Tablets, Tablet{Id: t.ID, Name: t.Name, Since: t.Since, SeenAt: t.Seen, Until: t.Until})
		}
	}
	if s.guests != nil {
		guests, err := s.guests.Guests(c.Request.Context())
		if err != nil {
			s.refuse(c, err)
			return
		}
		for _, g := range guests {
			out.Guests = append(out.Guests, Guest{Id: g.ID, Card: g.Card, Name: g.Name, Until: g.Until})
		}
	}
	c.JSON(http.StatusOK, out)
}

// PutPasscode sets another passcode.
func (s *Server) PutPasscode(c *gin.Context) {
	var wish PasscodeChange
	if !s.withHouse(c) || !s.decode(c, &wish) {
		return
	}
	own, _, err := s.kitchen.Own(c.Request.Context())
	if err != nil {
		s.refuse(c, err)
		return
	}
	err = s.door.House.Change(c.Request.Context(), house.FromOf(c.Request.RemoteAddr), tablet(c).ID, wish.Passcode, wish.Next, own.Name)
	if errors.Is(err, house.ErrWrong) { // the tablet is in: it is the field that is wrong
		err = document.Refusal("/passcode", "wrong", "That is not the passcode that is set.")
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.log.Info("another passcode was set", "tablet", tablet(c).ID)
	c.Status(http.StatusNoContent)
}

// SignTabletOut signs another tablet out.
func (s *Server) SignTabletOut(c *gin.Context, id Id) {
	if !s.withHouse(c) {
		return
	}
	err := s.door.House.SignOut(c.Request.Context(), id)
	if err == nil {
		s.log.Info("a tablet was signed out", "by", tablet(c).ID, "tablet", id)
	}
	s.done(c, err)
}

// InviteGuest makes a link to one card.
func (s *Server) InviteGuest(c *gin.Context) {
	var wish GuestWish
	if !s.decode(c, &wish) {
		return
	}
	if wish.Days < 1 || wish.Days > house.GuestDays {
		s.refuse(c, document.Refusal("/days", "out_of_range", "A link opens its card for 1 to %d days.", house.GuestDays))
		return
	}
	token, g, err := s.guests.Invite(c.Request.Context(), wish.Card, wish.Days)
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.log.Info("a guest's link was made", "by", tablet(c).ID, "link", g.ID, "card", g.Card, "until", g.Until)
	out := GuestLink{Id: g.ID, Path: "/guest/" + token, Until: g.Until, Doors: []HouseDoor{}}
	if s.door.URLs != nil {
		for _, u := range s.door.URLs() {
			out.Doors = append(out.Doors, doorOf(u+out.Path))
		}
	}
	c.JSON(http.StatusCreated, out)
}

// TakeGuestBack takes a link back.
func (s *Server) TakeGuestBack(c *gin.Context, id Id) {
	err := s.guests.TakeBack(c.Request.Context(), id)
	if err == nil {
		s.log.Info("a guest's link was taken back", "by", tablet(c).ID, "link", id)
	}
	s.done(c, err)
}

// guestCard is a card as a guest sees it: worked out now, with the kitchen's name.
type guestCard struct {
	Kitchen   string          `json:"kitchen"`
	Units     string          `json:"units,omitempty"`
	Until     time.Time       `json:"until"`
	Document  json.RawMessage `json:"document"`
	Worksheet json.RawMessage `json:"worksheet"`
}

// GetGuestCard shows the card of a link, and nothing else of the kitchen.
func (s *Server) GetGuestCard(c *gin.Context, token string) {
	ctx := c.Request.Context()
	g, err := s.guests.Guest(ctx, token)
	var d store.Document
	if err == nil {
		d, err = s.kitchen.Get(ctx, store.Variation, g.Card)
	}
	if errors.Is(err, store.ErrNotFound) {
		s.fail(c, http.StatusNotFound, "no_guest", "This link opens nothing any more. Ask the kitchen for another.")
		return
	}
	if err != nil {
		s.refuse(c, err)
		return
	}
	s.log.Info("a guest's link was used", "from", c.RemoteIP(), "link", g.ID)
	in, ok := s.setting(c)
	if !ok {
		return
	}
	in.Include.Cook, in.Include.Cups = true, in.Kitchen.Units == "cups"
	worksheets, _ := question.Named("worksheets")
	sheet, err := worksheets.Answer(ctx, in, d.Body)
	if err != nil {
		s.refuse(c, err)
		return
	}
	c.JSON(http.StatusOK, guestCard{in.Kitchen.Name, in.Kitchen.Units, g.Until, d.Body, sheet})
}

// doorOf is an address with the square that a camera reads.
func doorOf(u string) HouseDoor {
	out := HouseDoor{Url: u}
	code, err := qr.Encode(u, qr.M)
	if err != nil {
		return out // too long for one; the address is there
	}
	var path strings.Builder
	for y := range code.Size {
		for x := 0; x < code.Size; x++ {
			run := 0
			for code.Black(x+run, y) {
				run++
			}
			if run > 0 {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", x, y, run, run)
				x += run
			}
		}
	}
	out.Size, out.Dark = code.Size, path.String()
	return out
}

// locked answers who has to wait before the next passcode.
func (s *Server) locked(c *gin.Context, wait time.Duration) {
	seconds := int(math.Ceil(wait.Seconds()))
	c.Header("Retry-After", strconv.Itoa(seconds))
	again := "in a minute"
	if minutes := (seconds + 59) / 60; minutes > 1 {
		again = fmt.Sprintf("in %d minutes", minutes)
	}
	s.fail(c, http.StatusTooManyRequests, "locked", "Too many wrong passcodes. Try again "+again+"; whoever is signed in stays signed in.")
}
