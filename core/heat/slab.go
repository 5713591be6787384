package heat

import (
	"math"

	"upbeatladle/core/food"
)

// The model's parameters. "Fitted" is a modelling choice moved by hand until times of practice
// came out; none is a measurement.
const (
	contactWet    = 550.0 // W/m²K to a wet face (fitted; contact frying from memory 200-1200)
	contactDry    = 290.0 // W/m²K to a dry one (fitted)
	secondFace    = 0.9   // times that for the domed second face (fitted)
	ironFace      = 0.45  // times that in an iron: its power, the steam film, the fat (fitted)
	DropPerMM     = 2.1   // K that a plate falls for each mm poured (modelling choice)
	plateReturnS  = 40.0  // s in which a plate recovers (modelling choice)
	IronDropPerMM = 5.3   // K that an iron falls for each mm poured (modelling choice)
	ironReturnS   = 90.0  // s in which it recovers (modelling choice)

	airC       = 25.0 // °C of the kitchen (modelling choice, usual values here and below)
	airHumid   = 0.4
	topFace    = 8.0     // W/m²K of still air
	emissivity = 0.9     //
	stefan     = 5.67e-8 // W/m²K⁴ (constant of nature)
	lewis      = 0.9     // Le^⅔
	airHeat    = 1.1 * 1007.0

	steamStays = 0.40  // share of the steam that condenses inside (fitted)
	steamDepth = 0.004 // m in which it does (fitted)
	poreShare  = 0.30  // of the ideal vapour transport in the pores (fitted)
	coolestC   = 2.0   // K below boiling from which no steam condenses any more (modelling choice)

	riseFromC = 30.0 // °C where the batter begins to rise (modelling choice)
	gasFruit  = 0.20 // of apple and its like

	firstStepS = 0.05 // s, then a quarter longer each time
	stepGrowth = 1.25
	longStepS  = 1.0
	usualCells = 24
	meetK      = 0.05 // K that the linear step may be off
	mostTries  = 6
	mostCells  = 160
)

// Layer is one layer of what lies on the plate, the lowest first.
type Layer struct {
	Matter  Matter
	ThickMM float64 // as poured or as cut
	StartC  float64
	Gas     float64 // share of its volume as poured
	Rise    float64 // cooked over poured thickness; 1 for a slice
	Fruit   bool    // a slice: it softens and does not set
}

// GasOnPlate is the share of gas in a batter on the hot plate (modelling choice).
const GasOnPlate = 0.12

// SliceOf is a slice of fruit or vegetable of a height.
func SliceOf(in *food.Ingredient, mm, startC float64) Layer {
	m := MatterOf(food.Whole([]food.Part{{Ingredient: in, Grams: 100}}))
	return Layer{Matter: m, ThickMM: math.Min(mm, thickestSlice), StartC: startC, Gas: gasFruit, Rise: 1, Fruit: true}
}

// thickestSlice is how thick a slice is worked with [mm]; thicker is not fruit on a pancake.
const thickestSlice = 25.0

// slab is the stack in cells that follow the matter: dry solids stay in their cell. Figures are
// for one m² of plate, index 0 lies on it.
type slab struct {
	n                      int
	dry, wet, t, most      [mostCells]float64 // kg, kg, °C, highest °C so far
	wet0, poured           [mostCells]float64 // kg and m at the start
	layer                  [mostCells]int
	layers                 []Layer
	tables                 []*tables
	set                    []float64 // °C of each layer
	air                    *air
	pore, stays            float64
	warm, moist            [mostCells]float64 // J and kg of steam that has condensed and comes in with the next step
	firm                   [mostCells]float64 // 1 raw to 0 soft, of fruit
	sink                   []thawing
	k, dz, heat, g         [mostCells]float64 // properties of the step
	a, beta, gain          [mostCells]float64 // T = a + β·gain
	low, diag, high, right [mostCells]float64
	temp, water            [mostCells]float64

	in, out, stored float64 // J/m² of the last step: through the faces, with condensate, kept
	steam           float64 // kg/m² that left in the last step
	iron            bool
	flipped         bool
}

// sizes of the cells of a layer [m]: small at both faces, growing to the middle.
func sizes(thick float64, n int, ratio float64) []float64 {
	out := make([]float64, n)
	var sum float64
	for i := range out {
		out[i] = math.Pow(ratio, float64(min(i, n-1-i)))
		sum += out[i]
	}
	for i := range out {
		out[i] *= thick / sum
	}
	return out
}

// newSlab stacks layers into about n cells; n is even.
func newSlab(layers []Layer, n int, a *air) *slab {
	s := &slab{layers: layers, air: a, pore: poreShare, stays: steamStays}
	var all float64
	for _, l := range layers {
		all += l.ThickMM
	}
	for i, l := range layers {
		cells, ratio := n, math.Pow(1.12, 32/float64(n))
		if len(layers) > 1 {
			cells, ratio = max(6, int(math.Round(float64(n)*l.ThickMM/all))), 1.18
		}
		tab := tabulate(l.Matter)
		s.tables = append(s.tables, tab)
		s.set = append(s.set, l.Matter.SetC())
		at, f := place(l.StartC)
		free := l.Matter.dry()*between(&tab.vs, at, f) + l.Matter.Water*between(&tab.vw, at, f) // m³/kg
		for _, dz := range sizes(l.ThickMM/1000, cells, ratio) {
			if s.n == mostCells {
				break
			}
			kg := dz * (1 - l.Gas) / free
			c := s.n
			s.dry[c], s.wet[c], s.t[c], s.most[c] = kg*l.Matter.dry(), kg*l.Matter.Water, l.StartC, l.StartC
			s.wet0[c], s.poured[c], s.layer[c], s.firm[c] = s.wet[c], dz, i, 1
			s.n++
		}
	}
	return s
}

// properties fills conductivity, thickness and heat capacity of every cell.
func (s *slab) properties() {
	for i := range s.n {
		tab, l := s.tables[s.layer[i]], &s.layers[s.layer[i]]
		p, f := place(s.t[i])
		v := s.dry[i]*between(&tab.vs, p, f) + s.wet[i]*between(&tab.vw, p, f)
		kv := s.dry[i]*between(&tab.ks, p, f) + s.wet[i]*between(&tab.kw, p, f)
		s.heat[i] = s.dry[i]*between(&tab.cs, p, f) + s.wet[i]*between(&tab.cw, p, f)
		risen := math.Min(1, math.Max(0, (s.most[i]-riseFromC)/(s.set[s.layer[i]]-riseFromC)))
		s.dz[i] = math.Max(v, s.poured[i]*(1+(l.Rise-1)*risen))
		gas := 1 - v/s.dz[i]
		x := s.wet[i] / s.dry[i]
		s.k[i] = kv / v
		if gas > 0 {
			inPore := 0.0241 + 7.2e-5*s.t[i] + s.pore*waterActivity(x, s.air.b)*between(&s.air.vapour, p, f)
			s.k[i] = PorousK(s.k[i], inPore, gas)
		}
	}
	for i := range s.n - 1 {
		if s.layer[i] == s.layer[i+1] {
			// weighted by size: near boiling k rises steeply, and this converges best
			sum := s.dz[i] + s.dz[i+1]
			s.g[i] = (s.k[i]*s.dz[i] + s.k[i+1]*s.dz[i+1]) / sum / (sum / 2)
		} else {
			s.g[i] = 1 / (s.dz[i]/(2*s.k[i]) + s.dz[i+1]/(2*s.k[i+1]))
		}
	}
}

// invert turns a gain of heat [J/m²] of cell i into its temperature, its water and how the
// temperature moves with the gain.
func (s *slab) invert(i int, gain float64) (t, wet, slope float64) {
	c, m, x0 := s.heat[i], s.dry[i], s.wet[i]/s.dry[i]
	t = s.t[i] + gain/c
	if t <= s.air.boilsC { // as nearly all are: nothing boils below
		return t, s.wet[i], 1 / c
	}
	bound, _ := s.air.boils(x0)
	if t <= bound || x0 <= driestX {
		return t, s.wet[i], 1 / c
	}
	// c·(T_b(X) − T₀) + m·L·(X₀ − X) = gain, falling in X
	rest := func(x float64) (float64, float64, float64) {
		b, db := s.air.boils(x)
		return c*(b-s.t[i]) + m*latentJ*(x0-x) - gain, c*db - m*latentJ, b
	}
	if r, _, b := rest(driestX); r < 0 { // dry: the rest is felt
		return b - r/c, m * driestX, 1 / c
	}
	lo, hi := driestX, x0
	x := math.Max(lo, x0-math.Max(0, gain-c*(bound-s.t[i]))/(m*latentJ))
	var b float64
	for range 40 {
		r, dr, now := rest(x)
		b = now
		if math.Abs(r) <= 1e-9*(math.Abs(gain)+1) {
			break
		}
		if r > 0 {
			lo = x
		} else {
			hi = x
		}
		next := x - r/dr
		if !(next > lo && next < hi) {
			next = (lo + hi) / 2
		}
		if next == x {
			break
		}
		x = next
	}
	_, db := s.air.boils(x)
	return b, m * x, db / (c*db - m*latentJ)
}

// face is what a side of the slab meets: a plate behind a contact, or the room.
type face struct {
	plate   bool
	plateC  float64 // °C
	contact float64 // W/m²K to a wet face
	dry     float64 // W/m²K to a dry one
	still   bool    // nothing passes
}

// through is the contact in series with half the face cell i [W/m²K].
func (f face) through(s *slab, i int) float64 {
	wet := 1.0
	if s.wet0[i] > 0 {
		wet = math.Min(1, s.wet[i]/s.wet0[i])
	}
	return 1 / (1/(f.dry+(f.contact-f.dry)*wet) + s.dz[i]/(2*s.k[i]))
}

// toRoom is the heat that a face of t °C gives to the room [W/m²], how that moves with t, and the
// water that dries off [kg/m²s].
func (s *slab) toRoom(t, x float64) (q, slope, dries float64) {
	tk, ak := t+kelvin, airC+kelvin
	h := topFace + emissivity*stefan*(tk*tk+ak*ak)*(tk+ak)
	ps := SaturationPa(math.Min(t, s.air.boilsC))
	per := topFace / (airHeat * lewis) * molarWater / (gasR * (t + airC + 2*kelvin) / 2)
	dries = math.Max(0, per*(waterActivity(x, s.air.b)*ps-airHumid*SaturationPa(airC)))
	slope = h
	if dries > 0 && t < s.air.boilsC {
		slope += latentJ * per * waterActivity(x, s.air.b) * ps * math.Ln10 * antoineLow[1] / ((antoineLow[2] + t) * (antoineLow[2] + t))
	}
	return h*(t-airC) + latentJ*dries, slope, dries
}

// step moves the slab on by dt seconds: backward Euler, linearised until it fits. It returns the
// temperature of the food at the lower and the upper plate (the cell's own where there is none).
func (s *slab) step(dt float64, below, above face) (bottomC, topC float64) {
	s.properties()
	s.begin()
	thawed := s.thaw(dt)
	e := edges{below: below, above: above, room: !above.plate && !above.still}
	if below.plate {
		e.low = below.through(s, 0)
	}
	if above.plate {
		e.high = above.through(s, s.n-1)
	}
	source := s.right
	for try := range mostTries {
		if e.room {
			e.linear = s.temp[s.n-1]
			e.q, e.slope, e.dries = s.toRoom(e.linear, s.wet[s.n-1]/s.dry[s.n-1])
		}
		s.rows(dt, &source, &e)
		s.solve()
		if s.meets(try == mostTries-1) {
			break
		}
	}
	qLow, qHigh := s.passed(dt, &e)
	s.stored = 0
	for i := range s.n {
		s.in += s.warm[i]
		s.stored += s.gain[i]
	}
	s.out += thawed
	s.commit(dt, e.dries)
	bottomC = s.t[0] + qLow*s.dz[0]/(2*s.k[0])
	topC = s.t[s.n-1] + qHigh*s.dz[s.n-1]/(2*s.k[s.n-1])
	return bottomC, topC
}

// edges is what a step does at the two faces.
type edges struct {
	below, above     face
	low, high        float64 // contact with the plates [W/m²K]
	room             bool    // the upper face is open
	q, slope, linear float64 // what it gives to the room [W/m²] at linear °C, and how that moves with its temperature
	dries            float64 // kg/m²s
}

// begin sets what the step begins with: the heat that has condensed, and each cell's line of temperature by gain.
func (s *slab) begin() {
	for i := range s.n {
		s.right[i] = s.warm[i]
		s.temp[i] = s.t[i]
		s.gain[i] = 0
		if x := s.wet[i] / s.dry[i]; x > driestX && s.t[i] >= s.air.boilsC-1e-9 {
			if b, db := s.air.boils(x); s.t[i] >= b-1e-9 {
				s.beta[i] = db / (s.heat[i]*db - s.dry[i]*latentJ)
				s.a[i] = s.t[i]
				continue
			}
		}
		s.beta[i], s.a[i] = 1/s.heat[i], s.t[i]
	}
}

// rows sets up the equations of a step of dt seconds for the gains, by the cells' lines.
func (s *slab) rows(dt float64, source *[mostCells]float64, e *edges) {
	n := s.n
	for i := range n {
		var down, up float64
		if i > 0 {
			down = s.g[i-1]
		}
		if i < n-1 {
			up = s.g[i]
		}
		all, r := down+up, source[i]
		if i > 0 {
			r += dt * down * (s.a[i-1] - s.a[i])
			s.low[i] = -dt * down * s.beta[i-1]
		}
		if i < n-1 {
			r += dt * up * (s.a[i+1] - s.a[i])
			s.high[i] = -dt * up * s.beta[i+1]
		}
		if i == 0 && e.below.plate {
			all += e.low
			r += dt * e.low * (e.below.plateC - s.a[i])
		}
		if i == n-1 {
			switch {
			case e.above.plate:
				all += e.high
				r += dt * e.high * (e.above.plateC - s.a[i])
			case e.room:
				all += e.slope
				r -= dt * (e.q + e.slope*(s.a[i]-e.linear))
			}
		}
		s.diag[i], s.right[i] = 1+dt*all*s.beta[i], r
	}
}

// meets takes temperatures and water from the gains, and tells whether the lines that were solved
// meet them; where not, and it is not the last try, the lines are laid anew.
func (s *slab) meets(last bool) bool {
	worst := 0.0
	for i := range s.n {
		t, wet, db := s.invert(i, s.gain[i])
		worst = math.Max(worst, math.Abs(s.a[i]+s.beta[i]*s.gain[i]-t))
		s.temp[i], s.water[i] = t, wet
		if !last {
			s.right[i] = t - db*s.gain[i] // the next line, kept apart until it is needed
			s.low[i] = db
		}
	}
	if worst < meetK || last {
		return true
	}
	for i := range s.n {
		s.a[i], s.beta[i] = s.right[i], s.low[i]
	}
	return false
}

// passed is the heat that went in through the faces from the plates [W/m²], by the same lines that
// were solved; in and out are set by it.
func (s *slab) passed(dt float64, e *edges) (qLow, qHigh float64) {
	n := s.n
	lastLow, lastHigh := s.a[0]+s.beta[0]*s.gain[0], s.a[n-1]+s.beta[n-1]*s.gain[n-1]
	s.in, s.out = 0, 0
	if e.below.plate {
		qLow = e.low * (e.below.plateC - lastLow)
		s.in += dt * qLow
	}
	switch {
	case e.above.plate:
		qHigh = e.high * (e.above.plateC - lastHigh)
		s.in += dt * qHigh
	case e.room:
		s.out += dt * (e.q + e.slope*(lastHigh-e.linear))
	}
	return qLow, qHigh
}

// solve is Thomas's algorithm for the gains.
func (s *slab) solve() {
	n := s.n
	for i := 1; i < n; i++ {
		f := s.low[i] / s.diag[i-1]
		s.diag[i] -= f * s.high[i-1]
		s.right[i] -= f * s.right[i-1]
	}
	s.gain[n-1] = s.right[n-1] / s.diag[n-1]
	for i := n - 2; i >= 0; i-- {
		s.gain[i] = (s.right[i] - s.high[i]*s.gain[i+1]) / s.diag[i]
	}
}

// commit takes the step over: temperatures, water, the steam's way, what dried off, softening.
func (s *slab) commit(dt, dries float64) {
	n := s.n
	var boiled [mostCells]float64
	for i := range n {
		boiled[i] = math.Max(0, s.wet[i]-s.water[i])
		s.t[i], s.wet[i] = s.temp[i], s.water[i]+s.moist[i]
		s.most[i] = math.Max(s.most[i], s.t[i])
		s.warm[i], s.moist[i] = 0, 0
		if s.layers[s.layer[i]].Fruit {
			s.firm[i] *= math.Exp(-dt * softens(s.t[i]))
		}
	}
	s.steam = 0
	for i := range n {
		if boiled[i] <= 0 {
			continue
		}
		s.steam += boiled[i]
		passes, dir, end := s.stays*boiled[i], 1, n
		if s.iron { // as much steam comes over the middle as goes
			if end = n / 2; i >= n/2 {
				dir, end = -1, n/2-1
			}
		}
		for j := i + dir; j != end && passes > 1e-12; j += dir {
			cool := s.air.boilsC - coolestC
			if s.t[j] >= cool {
				continue
			}
			takes := passes * (1 - math.Exp(-s.dz[j]/steamDepth))
			takes = math.Min(takes, math.Max(0, (s.heat[j]*(cool-s.t[j])-s.warm[j])/latentJ))
			s.warm[j] += takes * latentJ
			s.moist[j] += takes
			s.steam -= takes
			passes -= takes
		}
	}
	if dried := math.Min(dries*dt, s.wet[n-1]-driestX*s.dry[n-1]); dried > 0 {
		s.wet[n-1] -= dried
		s.steam += dried
	}
}

// flip turns the slab over.
func (s *slab) flip() {
	s.flipped = !s.flipped
	reverse := func(v *[mostCells]float64) {
		for i, j := 0, s.n-1; i < j; i, j = i+1, j-1 {
			v[i], v[j] = v[j], v[i]
		}
	}
	for _, v := range []*[mostCells]float64{&s.dry, &s.wet, &s.t, &s.most, &s.wet0, &s.poured, &s.warm, &s.moist, &s.firm} {
		reverse(v)
	}
	for i, j := 0, s.n-1; i < j; i, j = i+1, j-1 {
		s.layer[i], s.layer[j] = s.layer[j], s.layer[i]
	}
}

// Softening of fruit and vegetables (fitted to "3-6 mm soften, 9 mm and more stay crunchy").
const (
	softRate = 0.006 // 1/s at softC
	softC    = 90.0
	softZ    = 20.0 // K for ten times as fast
	softMost = 105.0
)

func softens(c float64) float64 {
	return softRate * math.Pow(10, (math.Min(c, softMost)-softC)/softZ)
}

// thawing is a kind of frozen piece: so much heat a m² is wanted from the cells of the batter
// around it, through so much conductance, until it is thawed and as warm as the batter was.
type thawing struct {
	wants float64 // J/m²
	per   float64 // W/K for each m² of plate and m of batter
	above float64 // share of the batter's thickness below which they do not reach before the flip; 0 when they lie all through
}

// thaw takes from every batter cell what frozen pieces draw in the step, and returns the sum.
func (s *slab) thaw(dt float64) float64 {
	var all float64
	for k := range s.sink {
		f := &s.sink[k]
		from := 0.0
		if !s.flipped {
			from = f.above * s.batterThick()
		}
		at := 0.0
		for i := range s.n {
			if f.wants <= 0 || s.layers[s.layer[i]].Fruit {
				continue
			}
			at += s.dz[i]
			if at-s.dz[i]/2 < from {
				continue
			}
			takes := math.Min(f.wants, dt*f.per*s.dz[i]*math.Max(0, s.t[i]-frozenC))
			takes = math.Min(takes, 0.5*s.heat[i]*math.Max(0, s.t[i]-frozenC)) // never past the ice
			f.wants -= takes
			s.right[i] -= takes
			all += takes
		}
	}
	return all
}

// Frozen pieces that are laid on reach so far down before the flip, as a share of the batter's thickness from the
// plate, and hold the second face so far off the plate (fitted: five berries of 6 g in all make the second side of a
// pancake half a minute to a minute longer and leave the first as it is).
const (
	onTopFrom    = 0.5
	onTopContact = 0.75 // times the contact of the second face
)

const frozenC = -1.0 // °C at which fruit thaws (from memory)
