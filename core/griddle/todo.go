package griddle

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/keep"
	"upbeatladle/core/words"
)

// Act is what is done next.
type Act string

// The acts.
const (
	DoOn     Act = "on"
	DoHot    Act = "hot"
	DoWash   Act = "wash"
	DoGrease Act = "grease"
	DoTurn   Act = "turn"
	DoPour   Act = "pour"
	DoPlace  Act = "place"
	DoFlip   Act = "flip"
	DoLift   Act = "lift"
	DoJudge  Act = "judge"
	DoStir   Act = "stir"
	DoOven   Act = "oven"
	DoBag    Act = "bag"
)

// Todo is one thing to do. Tell is the event that says it is done; nil where a choice is made first.
type Todo struct {
	Act    Act        `json:"act"`
	Title  string     `json:"title"`
	Text   string     `json:"text"`
	Number int        `json:"number,omitzero"` // of the place
	Of     string     `json:"of,omitzero"`     // the bowl
	Tray   string     `json:"tray,omitzero"`   // what lies flat
	DueAt  *time.Time `json:"due_at,omitzero"` // nil: whenever there is a hand free
	ByAt   *time.Time `json:"by_at,omitzero"`  // from when it is late
	Due    bool       `json:"due"`
	Late   bool       `json:"late"`
	Tell   *Tell      `json:"tell,omitzero"`

	rank int
}

// Tell is an event without its name and its time.
type Tell struct {
	Kind    EventKind `json:"kind"`
	Plate   string    `json:"plate,omitzero"`
	Place   int       `json:"place,omitzero"`
	Portion string    `json:"portion,omitzero"`
	Of      string    `json:"of,omitzero"`
	C       *float64  `json:"c,omitzero"`
	Mark    string    `json:"mark,omitzero"`
}

// The ranks of what is to be done: what burns comes first, then what the rest waits for, then a hand that is free.
const (
	rankBurns = iota
	rankJudge
	rankReady // in a moment
	rankPour
	rankLater // may wait
	rankToCome
)

func after(t time.Time, s float64) *time.Time {
	x := t.Add(time.Duration(s * float64(time.Second)))
	return &x
}

// telling is a fold on its way to what is shown of it at a moment. It changes nothing in the fold.
type telling struct {
	*fold
	now time.Time
	out State
}

// tell fills in what is shown.
func (f *telling) tell() {
	f.out.OvenOn, f.out.Stopped, f.out.Closed, f.out.Served, f.out.Last = f.ovenOn, f.stopped, f.closed, f.served, f.last
	if f.foodAt != nil {
		c, at := f.foodC, *f.foodAt
		f.out.FoodC, f.out.FoodAt = &c, &at
	}
	f.out.Todo, f.out.Rack, f.out.Cautions = []Todo{}, []Tray{}, []string{}
	f.out.Flat = append([]Flat{}, f.flat...)
	f.out.OvenC, f.out.FoodSays = keep.OvenC, f.oven().Said()
	f.platesNow()
	f.bowlsNow()
	f.rackNow()
	f.forOven()
	f.forFlat()
	f.inOrder()
}

// platesNow tells of every plate, and when the last piece is off them.
func (f *telling) platesNow() {
	var last time.Time
	for _, p := range f.plates {
		now, ends := f.plateNow(p)
		f.out.Plates = append(f.out.Plates, now)
		if ends.After(last) {
			last = ends
		}
	}
	if !last.IsZero() {
		f.out.LastOff = &last
	}
}

// bowlsNow tells of every bowl, what it asks for, and its cautions, each once.
func (f *telling) bowlsNow() {
	f.out.Bowls = []BowlNow{}
	for _, key := range f.order {
		b := f.bowls[key]
		f.out.Bowls = append(f.out.Bowls, b.BowlNow)
		f.forBowl(b)
		for _, c := range b.Cautions {
			if !slices.Contains(f.out.Cautions, c) {
				f.out.Cautions = append(f.out.Cautions, c)
			}
		}
	}
}

// forOven asks for the oven while anything is to wait in it.
func (f *telling) forOven() {
	if !f.out.OvenOn && len(f.order) > 0 && (f.out.OnPlates > 0 || len(f.out.Rack) > 0) && !f.out.Closed {
		f.todo(Todo{Act: DoOven, Title: fmt.Sprintf("Oven to %d °C", keep.OvenC), Text: "and the plates for the table in it, to warm", Due: true, Tell: &Tell{Kind: Oven}, rank: rankLater})
	}
}

// forFlat asks for the bags of what lies flat in the freezer.
func (f *telling) forFlat() {
	for _, x := range f.flat {
		due := x.DueAt
		t := Todo{Act: DoBag, Title: fmt.Sprintf("Bag %d", x.Count), Text: f.bowls[x.Bowl].Name + ": " + keep.FreezeHow(f.bowls[x.Bowl].Form), Of: x.Bowl, Tray: x.Key, DueAt: &due, Due: !f.now.Before(due), rank: rankLater}
		if !t.Due {
			t.rank = rankToCome
		}
		f.todo(t)
	}
}

// inOrder puts first what burns, then what the rest waits for.
func (f *telling) inOrder() {
	slices.SortStableFunc(f.out.Todo, func(a, b Todo) int {
		if a.rank != b.rank {
			return a.rank - b.rank
		}
		at := func(t Todo) time.Time {
			switch {
			case t.rank == rankBurns && t.ByAt != nil:
				return *t.ByAt
			case t.rank >= rankPour && t.rank < rankToCome || t.DueAt == nil:
				return time.Time{}
			}
			return *t.DueAt
		}
		return cmp.Or(at(a).Compare(at(b)), a.Number-b.Number)
	})
}

func (f *telling) todo(t Todo) {
	if !f.out.Closed {
		f.out.Todo = append(f.out.Todo, t)
	}
}

// forBowl is what a bowl itself asks for.
func (f *telling) forBowl(b *bowl) {
	switch {
	case b.Judge:
		t := Todo{Act: DoJudge, Title: "Judge the first", Text: "How did the first one come out?", Of: b.Key, Due: true, rank: rankJudge}
		if c := f.cakes[b.test]; c != nil {
			t.Number = b.plate.numbers[c.place-1]
			t.Title = fmt.Sprintf("Judge %d", t.Number)
		}
		f.todo(t)
	case b.Stir != "" && b.open():
		f.todo(Todo{Act: DoStir, Title: "Stir it in", Text: b.Stir, Of: b.Key, Due: true, Tell: &Tell{Kind: Stirred, Of: b.Key}, rank: rankJudge})
	}
}

// plateNow is a plate as it stands, and about when the last one is off it; zero when nothing is to come.
func (f *telling) plateNow(p *plate) (PlateNow, time.Time) {
	out := PlateNow{Plate: p.Plate, Line: []string{}, Places: []PlaceNow{}}
	if !p.onAt.IsZero() {
		at := p.onAt
		out.OnAt = &at
	}
	b := f.active(p)
	for _, key := range p.line {
		if x := f.bowls[key]; x != b && x.open() {
			out.Line = append(out.Line, key)
		}
	}
	if b == nil {
		return out, time.Time{}
	}
	out.Bowl, out.Use, out.Fit = b.Key, p.use[b.Key], len(b.Places)
	out.Hot = p.isHot(b)
	free := f.forPlate(p, b, &out)
	left := f.left(b) // no more places are asked for than there are portions
	for n, at := range b.Places {
		c := f.at(p, n+1)
		if c == nil && n >= out.Use {
			continue
		}
		place := PlaceNow{Number: p.numbers[n], Place: n + 1, X: at.X, Y: at.Y, MM: b.DiameterMM, Phase: Idle, Bowl: b.Key}
		if b.Iron() {
			place.MM = p.MouldMM
		}
		switch {
		case c != nil:
			f.cooks(b, c, &place)
		case b.open() && !f.out.Stopped:
			f.offers(p, b, &place, free && left > 0 && (!b.Testing || n == 0))
			if place.Phase == Free {
				left--
			}
		}
		out.Places = append(out.Places, place)
	}
	return out, f.ends(p, b)
}

// isHot tells whether a plate stands where a bowl wants it.
func (p *plate) isHot(b *bowl) bool {
	return p.set != nil && math.Abs(p.set.c-b.GriddleC) < sameHeatC && p.set.shiftC == b.Adjust.ShiftC
}

// wash says why a plate is washed before a bowl; empty when it need not be. It promises nothing.
func (f *telling) wash(p *plate, b *bowl) string {
	if p.before == "" || p.before == b.Key {
		return ""
	}
	var gone []string
	for _, a := range p.had {
		if !slices.Contains(b.Suspects, a) {
			gone = append(gone, a)
		}
	}
	if len(gone) == 0 {
		return ""
	}
	return fmt.Sprintf("%s was on it and is not named for %s. Traces can stay: tell who asks, or take another pan.", words.Upper(words.List(gone)), words.Lower(b.Name))
}

// forPlate asks for what a plate needs before it is poured on, and tells whether it may be.
func (f *telling) forPlate(p *plate, b *bowl, out *PlateNow) bool {
	out.Mind = f.wash(p, b)
	turn := f.turns(p, b)
	if turn != nil && len(p.cakes) > 0 {
		turn.rank = rankReady
		f.todo(*turn)
	}
	switch {
	case !b.open() || f.out.Stopped || f.out.Closed:
		return false
	case len(p.cakes) > 0 && (turn != nil || p.stands(b) == batter.AtTurn):
		out.Says = "Poured again when these are off"
		return false
	case len(p.cakes) == 0: // nothing is being poured on it yet
		ask := f.before(p, b, out, turn)
		if ask != nil {
			f.todo(*ask)
			out.Says = ask.Title
			return false
		}
	}
	switch {
	case b.Judge:
		out.Says = "How was the first?"
		return false
	case b.Stir != "":
		out.Says = "Stir first"
		return false
	case b.test != "":
		out.Says = "The first one is a test"
		return false
	}
	return true
}

// before is the next thing that a plate needs before the first is poured on it; nil when it has all.
func (f *telling) before(p *plate, b *bowl, out *PlateNow, turn *Todo) *Todo {
	name, heat := words.Lower(p.Name), b.setTo()
	ask := func(act Act, kind EventKind, title, text string, due *time.Time) *Todo {
		t := Todo{Act: act, Title: title, Text: text, Of: b.Key, DueAt: due, Due: due == nil || !f.now.Before(*due), Tell: &Tell{Kind: kind, Plate: p.ID}, rank: rankPour}
		if !t.Due {
			t.rank = rankToCome
		}
		return &t
	}
	switch {
	case out.Mind != "" && p.wiped != b.Key:
		return ask(DoWash, Wiped, "Wash "+name, out.Mind, nil)
	case p.onAt.IsZero():
		return ask(DoOn, SwitchOn, "Switch on "+name, fmt.Sprintf("%s; hot in about %s", heat, words.Minutes(b.PreheatMin)), nil)
	case !out.Hot && p.set == nil:
		return ask(DoHot, IsHot, words.Upper(name)+" hot?", strings.TrimSuffix(heat+"; "+b.HotSigns, "; "), after(p.onAt, 60*b.PreheatMin))
	case !out.Hot:
		return ask(DoHot, IsHot, "Set "+name, heat, nil)
	case turn != nil:
		return turn
	case b.GreaseOnce != "" && p.greased != b.Key:
		return ask(DoGrease, Greased, "Grease "+name, b.GreaseOnce, nil)
	}
	return nil
}

// setTo is what a plate is set to for a bowl, in words.
func (b *bowl) setTo() string {
	heat := words.Either(b.Dial == "", b.HeatText, b.Dial+", "+b.HeatText)
	if t, ok := b.turnAt(batter.AtMixing); ok {
		heat = t.To
	}
	if b.HotStart != "" {
		heat += ". Hot start: " + b.HotStart
	}
	return heat
}

// turns is what a plate is to be turned to now, by the bowl's heat in steps; nil while it stands there. What has been
// flipped decides for all that lie on it.
func (f *telling) turns(p *plate, b *bowl) *Todo {
	at := batter.AtPour
	if _, ok := b.turnAt(batter.AtTurn); ok && slices.ContainsFunc(p.cakes, func(c *cake) bool { return !c.flipped.IsZero() }) {
		at = batter.AtTurn
	}
	want, ok := b.turnAt(at)
	is, _ := b.turnAt(p.stands(b))
	if !ok || want.At == is.At || want.C == is.C && want.Mark == is.Mark {
		return nil
	}
	tell := &Tell{Kind: Turned, Plate: p.ID, Mark: want.Mark}
	if want.Mark == "" {
		tell.C = &want.C
	}
	return &Todo{Act: DoTurn, Title: want.From(is.C), Text: p.Name, Of: b.Key, Due: true, Tell: tell, rank: rankPour}
}

// offers is a place that is free: it may always be poured on by a touch, and is asked for when it is its turn.
func (f *telling) offers(p *plate, b *bowl, place *PlaceNow, asked bool) {
	place.Phase = Waits
	next := Todo{Act: DoPour, Title: fmt.Sprintf("Pour %d", place.Number), Text: pourText(b.Bowl), Number: place.Number, Of: b.Key, Due: true,
		Tell: &Tell{Kind: Poured, Plate: p.ID, Place: place.Place, Of: b.Key}, rank: rankPour}
	place.Next = &next
	if !asked {
		return
	}
	place.Phase = Free
	f.todo(next)
}

// left is how many of a bowl are still to be poured.
func (f *telling) left(b *bowl) int { return b.Count - b.Poured }

func pourText(b Bowl) string {
	return words.Either(len(b.Pour) == 0, fmt.Sprintf("%.0f ml", b.PortionML), strings.Join(b.Pour, " "))
}

// liftText is what to look for, and what goes on as soon as it is off.
func liftText(b Bowl) string {
	return b.Done + words.Either(b.Serve == "", "", ". "+b.Serve)
}

// cooks is a place with a portion on it.
func (f *telling) cooks(b *bowl, c *cake, place *PlaceNow) {
	f.out.OnPlates++
	place.Portion, place.Nth, place.Test = c.id, c.nth, c.test
	since, forS, share, act, kind := c.poured, b.FirstS, firstWaits, DoFlip, Flipped
	text := strings.Join(append([]string{b.First}, b.Flip...), ". ")
	place.Phase = First
	switch {
	case b.Iron():
		place.Phase, share, act, kind, text = Shut, ironWaits, DoLift, Lifted, liftText(b.Bowl)
	case !c.flipped.IsZero():
		place.Phase, since, forS, share, act, kind, text = Second, c.flipped, b.SecondS, nextWaits, DoLift, Lifted, liftText(b.Bowl)
	}
	place.Since, place.ForS = &since, forS
	place.DueAt, place.ByAt = after(since, forS), after(since, forS+waits(forS, share))
	if !c.placed && len(b.Place) > 0 && c.flipped.IsZero() {
		f.lays(b, c, place)
	}
	next := Todo{Act: act, Title: fmt.Sprintf("%s %d", words.Either(act == DoFlip, "Flip", "Lift"), place.Number), Text: text, Number: place.Number, Of: b.Key,
		DueAt: place.DueAt, ByAt: place.ByAt, Tell: &Tell{Kind: kind, Portion: c.id}}
	f.rank(&next)
	place.Next = &next
	f.todo(next)
}

// lays asks for the pieces, while the top is wet.
func (f *telling) lays(b *bowl, c *cake, place *PlaceNow) {
	by := after(c.poured, placeBy*b.FirstS)
	if f.now.After(*by) {
		return
	}
	f.todo(Todo{Act: DoPlace, Title: fmt.Sprintf("Lay on %d", place.Number), Text: strings.Join(b.Place, " "), Number: place.Number, Of: b.Key, DueAt: &c.poured, ByAt: by, Due: true,
		Tell: &Tell{Kind: Placed, Portion: c.id}, rank: rankBurns})
}

// rank says how urgent something with a time is.
func (f *telling) rank(t *Todo) {
	left := t.DueAt.Sub(f.now).Seconds()
	t.Due, t.Late = left <= 0, t.ByAt != nil && f.now.After(*t.ByAt)
	switch {
	case t.Due:
		t.rank = rankBurns
	case left <= readyS:
		t.rank = rankReady
	default:
		t.rank = rankToCome
	}
}

// ends is about when the last one of a plate is off it.
func (f *telling) ends(p *plate, b *bowl) time.Time {
	at := f.now
	for _, c := range p.cakes {
		end := after(c.poured, b.FirstS+b.SecondS)
		if !c.flipped.IsZero() {
			end = after(c.flipped, b.SecondS)
		}
		if end.After(at) {
			at = *end
		}
	}
	if f.out.Stopped || f.out.Closed {
		if len(p.cakes) == 0 {
			return time.Time{}
		}
		return at
	}
	loads := 0
	for _, key := range p.line {
		x := f.bowls[key]
		if n := f.left(x); x.open() && n > 0 {
			loads++
			at = at.Add(x.Takes(n, p.use[key]))
		}
	}
	if loads == 0 && len(p.cakes) == 0 {
		return time.Time{}
	}
	return at
}

// rackNow is what waits, what has the least time left first; of one kind that is the oldest.
func (f *telling) rackNow() {
	for _, t := range f.rack {
		if len(t.pieces) == 0 {
			continue
		}
		b := f.bowls[t.bowl]
		look := f.look(t, f.now)
		may, not := keep.MayFreeze(look)
		one := Tray{Key: t.key, Bowl: t.bowl, Count: len(t.pieces), Since: t.since, How: b.Hold.How, Limit: b.Hold.Minutes, Look: look, MayFreeze: may, NoFreeze: not}
		for _, x := range f.oven().Course(b.Form) {
			one.Course = append(one.Course, Turn{*after(t.since, 60*x.AfterMin), x.State, x.Text})
		}
		f.out.Rack, f.out.OnRack = append(f.out.Rack, one), f.out.OnRack+one.Count
	}
	slices.SortStableFunc(f.out.Rack, func(a, b Tray) int { return cmp.Or(cmp.Compare(a.LeftMin, b.LeftMin), a.Since.Compare(b.Since)) })
}
