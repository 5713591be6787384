package heat

import (
	"math"
	"slices"

	"upbeatladle/core/batter"
)

// Read-outs of a cook.
const (
	flipShare  = 0.60 // of the batter's thickness has set when it is time to flip (fitted with setBareC; the weakest number here)
	waitDose   = 0.85 // of the wished colour that the first side waits for
	waitMore   = 1.35 // times the flip's time that it waits at most,
	waitMoreS  = 45.0 // or so many seconds beyond it
	secondDose = 0.5  // of the wished colour that the second side waits for
	shedFrom   = 0.06 // share of its mass that a batter of shedWater usually loses (modelling choice)
	shedWater  = 0.53 // share of water in it
	shedMore   = 0.8  // more for each share of water above
	gummyShare = 0.8  // of that, below which it eats moist (modelling choice)
	slowSecond = 1.3  // times the first side that the second may wait for its colour, where it comes late (modelling choice)
	rawSecond  = 2.0  // times the first side, after which a middle that is still raw is given up (modelling choice)

	ironDose = 0.8 // of the wished colour an iron waits for (fitted)

	eggsSetC  = 74.0  // °C: eggs and everything else are safe (common guidance; the local code decides)
	mostSideS = 900.0 // s, after which a side is given up
)

// The cautious set: the worst that contact, steam and setting are likely to be (modelling choices).
const (
	carefulContact = 0.75 // times the contact
	carefulSteam   = 0.5  // times the steam that condenses inside
	carefulPores   = 0.75 // times the vapour's way through the pores
	carefulK       = 2.0  // K more to set
)

// Browning of a face: dose a second at 140 °C for the standard batter, and the rise in temperature
// that browns ten times as fast (fitted; published colour of baking 55-130 K, from memory).
const (
	brownRate    = 0.0115 // 1/s
	brownC       = 140.0
	brownZ       = 40.0
	brownFromC   = 105.0 // a wet face does not brown
	brownFadeK   = 10.0
	sugarOfUsual = 0.0435 // reducing sugar and its equals in the standard batter, share of the mass
	sucroseCount = 0.3    // of sucrose counts as reducing (modelling choice)
	sugarBare    = 0.01   // browns without any sugar (modelling choice)
	proteinUsual = 0.06
	sugarPower   = 0.7
	proteinPower = 0.5
)

// Browns is how fast the matter browns beside the standard batter, 1.
func (m Matter) Browns() float64 {
	return math.Pow((m.Reducing+sucroseCount*m.Sucrose+sugarBare)/sugarOfUsual, sugarPower) * math.Pow(math.Max(0, m.Protein)/proteinUsual, proteinPower)
}

// browning is the dose a second of a face of t °C.
func browning(factor, t float64) float64 {
	wake := math.Min(1, math.Max(0, (t-brownFromC)/brownFadeK))
	return wake * brownRate * factor * math.Pow(10, (t-brownC)/brownZ)
}

// Edges of the shades [dose], and the dose in the middle of each (modelling choice).
const (
	goldenFrom = 0.5
	deepFrom   = 2.0
	burntFrom  = 4.5
)

var wished = map[batter.Colour]float64{batter.Pale: 0.35, batter.Golden: 1, batter.Deep: 2.6}

// target is the dose that a portion is cooked to: golden unless the cook says otherwise.
func (p *Portion) target() float64 {
	if d, ok := wished[p.Colour]; ok {
		return d
	}
	return wished[batter.Golden]
}

// ColourOf names a dose.
func ColourOf(dose float64) batter.Colour {
	switch {
	case dose < goldenFrom:
		return batter.Pale
	case dose < deepFrom:
		return batter.Golden
	case dose < burntFrom:
		return batter.Deep
	}
	return batter.Burnt
}

// Shade is a dose as a place between 0, raw, and 1, black: where it is drawn.
func Shade(dose float64) float64 { return 1 - math.Pow(0.5, dose) }

// Frozen is a kind of frozen piece in the batter.
type Frozen struct {
	KgPerM2 float64 // of plate under the portion
	Water   float64 // share of its mass
	FromC   float64 // °C
	PerM2   float64 // pieces
	DiamMM  float64
	OnTop   bool // laid on after pouring: they meet the cells beside them until the flip
}

// Change is a new setting of the plate on the way.
type Change struct{ FromS, PlateC float64 }

// Portion is what is cooked, and on what.
type Portion struct {
	Layers    []Layer
	Frozen    []Frozen
	PlateC    float64
	Changes   []Change // after the start, in order: a hot start, then lower
	FlipC     float64  // what the plate is turned to at the flip; 0 when it stays
	AltitudeM float64
	Contact   float64 // times the usual contact: 1, or what the first one cooked showed
	Iron      bool    // a plate on both faces, and no flip
	Colour    batter.Colour
	NoStarch  bool // nothing in it turns gummy: what steams off is not looked at
	Patted    bool // a grated cake: patted flat, it gives off water for long
	Cautious  bool // the worst that contact, steam and setting are likely to be
	Cells     int  // 0 for the usual number

	Record bool // the moments on the way, for the curves

	longStep float64 // s; 0 for the usual
	air      *air    // of AltitudeM, when it is there already
	untilSet bool    // the second side ends as soon as it is safe
}

// Times are when what is done; automatic where they are 0.
type Times struct{ FirstS, SecondS float64 }

// Moment is the state at a time, for the curves.
type Moment struct {
	AtS     float64 `json:"at_s"`
	BottomC float64 `json:"bottom_c"` // of the first face, wherever it lies
	CentreC float64 `json:"centre_c"`
	TopC    float64 `json:"top_c"`
	Set     float64 `json:"set_share"` // of the batter
	First   float64 `json:"shade_first"`
	Second  float64 `json:"shade_second"`
	SteamG  float64 `json:"steam_g_m2_s"`
}

// Cooked is what came of it.
type Cooked struct {
	CueS            float64 // s until it may be flipped; NaN when it never may
	FirstS, SecondS float64 // s; the second is 0 in an iron
	SetAfterS       float64 // s after the flip (in an iron: after closing) until all of it has set and was hot enough; NaN when never
	CentreC         float64 // °C half-way up the batter at the end
	DoseFirst       float64
	DoseSecond      float64
	Lost            float64 // share of the poured mass that left as steam
	Gummy           bool    // so little of it that it eats moist
	Firm            float64 // of fruit, 1 raw to 0 soft; NaN without any
	Thawed          bool    // every frozen piece
	Sets            bool    // all of the batter has set and was hot enough
	Curve           []Moment

	setLast bool    // the second side had its colour before its middle had set
	balance float64 // the worst relative error of the heat account
	slab    *slab
}

// patient tells whether the second side's colour comes late, so that it may take longer than the
// first: the dial goes down after the flip, frozen pieces lie on top, or it is a grated cake.
func (p *Portion) patient(flipS float64) bool {
	if p.onTop() {
		return true
	}
	at := p.PlateC
	for _, ch := range p.Changes {
		if ch.FromS >= flipS && ch.PlateC < at {
			return true
		}
		at = ch.PlateC
	}
	if p.FlipC > 0 && p.FlipC < at {
		return true
	}
	return p.Patted
}

// onTop tells whether frozen pieces lie on top.
func (p *Portion) onTop() bool {
	return slices.ContainsFunc(p.Frozen, func(f Frozen) bool { return f.OnTop })
}

// contactOf is a face on the plate.
func (p *Portion) contactOf(plateC, times float64) face {
	if p.Contact > 0 {
		times *= p.Contact
	}
	if p.Cautious {
		times *= carefulContact
	}
	return face{plate: true, plateC: plateC, contact: times * contactWet, dry: times * contactDry}
}

// Cook cooks a portion. With times of 0 a side ends when it is ready, by docs/maths.md section 18.
func Cook(p Portion, times Times) Cooked {
	n := p.Cells
	if n == 0 {
		n = usualCells
	}
	around := p.air
	if around == nil {
		around = airAt(p.AltitudeM)
	}
	s := newSlab(p.Layers, n, around)
	r := run{p: p, s: s, target: p.target()}
	s.iron = p.Iron
	if p.Cautious {
		s.stays, s.pore = steamStays*carefulSteam, poreShare*carefulPores
		for i := range s.set {
			s.set[i] += carefulK
		}
	}
	for i := range s.n {
		r.mass0 += s.dry[i] + s.wet[i]
		if !p.Layers[s.layer[i]].Fruit {
			r.batter0 += s.dry[i] + s.wet[i]
			r.batterWet0 += s.wet[i]
			r.thick += s.poured[i]
		}
	}
	if r.batter0 <= 0 || r.thick <= 0 {
		return Cooked{CueS: math.NaN(), SetAfterS: math.NaN(), Firm: math.NaN()}
	}
	for _, f := range p.Frozen {
		s.sink = append(s.sink, f.draws(p.startC(), r.thick))
	}
	r.browns = [2]float64{p.Layers[0].Matter.Browns(), p.Layers[len(p.Layers)-1].Matter.Browns()}
	return r.cook(times)
}

func (p *Portion) startC() float64 {
	for _, l := range p.Layers {
		if !l.Fruit {
			return l.StartC
		}
	}
	return 0
}

// Heat capacities of fruit, frozen and thawed [J/kgK] (from memory).
const (
	iceHeat   = 2000.0
	fruitHeat = 3800.0
)

// draws is what frozen pieces take from a batter of so many metres: to thaw, and to be as warm as
// it was. Around a ball in a still bed the heat comes with a Nusselt number of two.
func (f Frozen) draws(startC, thick float64) thawing {
	wants := f.KgPerM2 * (iceHeat*math.Max(0, frozenC-f.FromC) + meltJ*f.Water + fruitHeat*math.Max(0, startC-frozenC))
	radius := f.DiamMM / 2000
	if radius <= 0 || thick <= 0 {
		return thawing{}
	}
	const bedK = 0.45 // W/mK of batter
	area := f.PerM2 * 4 * math.Pi * radius * radius
	out := thawing{wants: wants, per: area * bedK / radius / thick}
	if f.OnTop {
		out.above = onTopFrom
	}
	return out
}

// run is a cook under way.
type run struct {
	p                                 Portion
	s                                 *slab
	target                            float64
	mass0, batter0, batterWet0, thick float64
	browns                            [2]float64 // of the first face and the other
	dose                              [2]float64
	plateC                            float64 // of the plate, or of both of an iron, now
	t                                 float64
	left                              float64 // kg of steam
	flipped                           bool
	balance                           float64
	curve                             []Moment
	faces                             [2]float64
}

// setting is what the plate is turned to at a time.
func (r *run) setting() float64 {
	if r.flipped && r.p.FlipC > 0 {
		return r.p.FlipC
	}
	c := r.p.PlateC
	for _, ch := range r.p.Changes {
		if r.t >= ch.FromS {
			c = ch.PlateC
		}
	}
	return c
}

// advance moves on by dt; the faces' food-side temperatures brown them.
func (r *run) advance(dt float64) {
	back := plateReturnS
	if r.p.Iron {
		back = ironReturnS
	}
	to := r.setting()
	half := math.Exp(-dt / 2 / back)
	mid := to + (r.plateC-to)*half // the plate in the middle of the step, exactly
	r.plateC = to + (mid-to)*half
	var below, above face
	if r.p.Iron {
		below = r.p.contactOf(mid, ironFace)
		above = below
	} else {
		times := 1.0
		if r.flipped {
			times = secondFace
			if r.p.onTop() {
				times *= onTopContact
			}
		}
		below = r.p.contactOf(mid, times)
	}
	lower, upper := r.s.step(dt, below, above)
	first, second := 0, 1
	if r.flipped {
		first, second = 1, 0
	}
	r.dose[first] += dt * browning(r.browns[first], lower)
	if r.p.Iron {
		r.dose[second] += dt * browning(r.browns[second], upper)
	}
	r.faces = [2]float64{lower, upper}
	r.left += r.s.steam
	rate := r.s.steam / dt
	r.t += dt
	if scale := math.Abs(r.s.in) + math.Abs(r.s.out) + math.Abs(r.s.stored); scale > 0 {
		r.balance = math.Max(r.balance, math.Abs(r.s.in-r.s.out-r.s.stored)/scale)
	}
	if r.p.Record {
		r.note(rate)
	}
}

func (r *run) note(rate float64) {
	s := r.s
	bottom, top := r.faces[0], r.faces[1]
	if r.flipped {
		bottom, top = top, bottom
	}
	r.curve = append(r.curve, Moment{r.t, bottom, s.middle(), top, s.setShare(), Shade(r.dose[0]), Shade(r.dose[1]), 1000 * rate})
}

// middle is the temperature half-way up the batter, between the middles of the cells.
func (s *slab) middle() float64 {
	half := s.batterThick() / 2
	var at, lastMid, last float64
	begun := false
	for i := range s.n {
		if s.layers[s.layer[i]].Fruit {
			continue
		}
		mid := at + s.dz[i]/2
		if mid >= half {
			if !begun {
				return s.t[i]
			}
			return last + (s.t[i]-last)*(half-lastMid)/(mid-lastMid)
		}
		at += s.dz[i]
		begun, lastMid, last = true, mid, s.t[i]
	}
	return last
}

func (s *slab) batterThick() float64 {
	var sum float64
	for i := range s.n {
		if !s.layers[s.layer[i]].Fruit {
			sum += s.dz[i]
		}
	}
	return sum
}

// setShare is the share of the batter's thickness that has set, between the middles of the cells.
func (s *slab) setShare() float64 {
	total := s.batterThick()
	var set, lastOver, lastHalf float64
	begun := false
	for i := range s.n {
		if s.layers[s.layer[i]].Fruit {
			continue
		}
		half, over := s.dz[i]/2, s.most[i]-s.set[s.layer[i]]
		switch gap := lastHalf + half; { // from the last middle to this one
		case !begun:
			if over >= 0 {
				set += half
			}
		case over >= 0 && lastOver >= 0:
			set += gap
		case over >= 0:
			set += gap * over / (over - lastOver)
		case lastOver >= 0:
			set += gap * lastOver / (lastOver - over)
		}
		begun, lastOver, lastHalf = true, over, half
	}
	if lastOver >= 0 && begun {
		set += lastHalf
	}
	if total <= 0 {
		return 0
	}
	return math.Min(1, set/total)
}

// front is how high the batter has set from its lower face, as a share of its thickness,
// interpolated between the middles of the cells.
func (s *slab) front() float64 {
	total := s.batterThick()
	var at, lastMid, lastOver, top float64
	begun := false
	for i := range s.n {
		if s.layers[s.layer[i]].Fruit {
			continue
		}
		mid := at + s.dz[i]/2
		over := s.most[i] - s.set[s.layer[i]]
		if over < 0 {
			if !begun || lastOver < 0 {
				return top
			}
			return (lastMid + (mid-lastMid)*lastOver/(lastOver-over)) / total
		}
		at += s.dz[i]
		begun, lastMid, lastOver, top = true, mid, over, at/total
	}
	return 1
}

// through tells whether all of the batter has set, and was hot enough for egg.
func (s *slab) through() bool {
	for i := range s.n {
		if !s.layers[s.layer[i]].Fruit && s.most[i] < math.Max(eggsSetC, s.set[s.layer[i]]) {
			return false
		}
	}
	return true
}

// thawed tells whether every frozen piece is.
func (s *slab) thawed() bool {
	return !slices.ContainsFunc(s.sink, func(f thawing) bool { return f.wants > 0 })
}

// needs is the share of its mass that such a batter usually loses.
func (r *run) needs() float64 {
	return shedFrom + shedMore*(r.batterWet0/r.batter0-shedWater)
}

// paces a phase: short steps after pouring and flipping.
type pace struct{ dt, long float64 }

func (r *run) pace() *pace {
	long := r.p.longStep
	if long == 0 {
		long = longStepS
	}
	return &pace{math.Min(firstStepS, long), long}
}

// next is the next step, not beyond what is left of the phase.
func (p *pace) next(left float64) float64 {
	dt := math.Min(p.dt, left)
	p.dt = math.Min(p.long, p.dt*stepGrowth)
	return dt
}

const least = 1e-9 // s

func (r *run) cook(times Times) Cooked {
	out := Cooked{CueS: math.NaN(), SetAfterS: math.NaN(), Firm: math.NaN()}
	if r.p.Iron {
		r.plateC = r.p.PlateC - IronDropPerMM*1000*r.thick
		r.closed(times, &out)
	} else {
		drop := DropPerMM * 1000 * r.thick
		r.plateC = r.p.PlateC - drop
		r.first(times, &out)
		r.s.flip()
		r.flipped = true
		r.plateC -= drop / 2
		r.second(times, &out)
	}
	out.CentreC, out.Sets = r.s.middle(), r.s.through()
	out.DoseFirst, out.DoseSecond = r.dose[0], r.dose[1]
	out.Lost = r.left / r.mass0
	out.Gummy = !r.p.NoStarch && r.left/r.batter0 < gummyShare*r.needs()
	out.Thawed = r.s.thawed()
	var fruit, firm float64
	for i := range r.s.n {
		if r.s.layers[r.s.layer[i]].Fruit {
			fruit += r.s.poured[i]
			firm += r.s.poured[i] * r.s.firm[i]
		}
	}
	if fruit > 0 {
		out.Firm = firm / fruit
	}
	out.Curve, out.balance, out.slab = r.curve, r.balance, r.s
	return out
}

// first is the first side: until it may be flipped and has its colour, or for its time.
func (r *run) first(times Times, out *Cooked) {
	end := mostSideS
	if times.FirstS > 0 {
		end = times.FirstS
	}
	before, beforeT := 0.0, 0.0
	for p := r.pace(); end-r.t > least; {
		r.advance(p.next(end - r.t))
		now := r.s.front()
		if math.IsNaN(out.CueS) && now >= flipShare {
			out.CueS = r.t
			if now > before {
				out.CueS = beforeT + (r.t-beforeT)*(flipShare-before)/(now-before)
			}
		}
		before, beforeT = now, r.t
		if times.FirstS > 0 || math.IsNaN(out.CueS) {
			continue
		}
		if r.dose[0] >= waitDose*r.target || r.t >= math.Max(waitMore*out.CueS, out.CueS+waitMoreS) {
			break
		}
	}
	out.FirstS = r.t
}

// second is the second side: until the coldest point is done and it has its colour, but no longer
// than the first once it is done; or for its time.
func (r *run) second(times Times, out *Cooked) {
	flip := r.t
	longest := out.FirstS
	if r.p.patient(flip) {
		longest *= slowSecond
	}
	end := flip + math.Min(mostSideS, rawSecond*out.FirstS)
	if times.SecondS > 0 {
		end = flip + times.SecondS
	}
	for p := r.pace(); end-r.t > least; {
		r.advance(p.next(end - r.t))
		if math.IsNaN(out.SetAfterS) && r.s.through() {
			out.SetAfterS = r.t - flip
			out.setLast = r.dose[1] >= secondDose*r.target
		}
		if times.SecondS > 0 {
			continue
		}
		done := !math.IsNaN(out.SetAfterS)
		if done && (r.p.untilSet || r.dose[1] >= secondDose*r.target && r.s.thawed() || r.t-flip >= longest) {
			break
		}
	}
	out.SecondS = r.t - flip
}

// closed is the time in an iron: until it has set and has its colour, or its time.
func (r *run) closed(times Times, out *Cooked) {
	end := mostSideS
	if times.FirstS > 0 {
		end = times.FirstS
	}
	for p := r.pace(); end-r.t > least; {
		r.advance(p.next(end - r.t))
		if math.IsNaN(out.SetAfterS) && r.s.through() {
			out.SetAfterS = r.t
		}
		if times.FirstS > 0 || math.IsNaN(out.SetAfterS) {
			continue
		}
		if r.p.untilSet {
			break
		}
		if r.dose[0] >= ironDose*r.target {
			break
		}
	}
	out.FirstS, out.CueS = r.t, r.t
}
