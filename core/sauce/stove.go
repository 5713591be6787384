package sauce

import (
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/food"
	"upbeatladle/core/prep"
	"upbeatladle/core/words"
)

// How a pot stands on the stove (modelling choices; 0.1 g a minute and cm² is what 750 W that reach the water of a pot of
// 160 mm boil off, at 2257 kJ/kg).
const (
	UsualPotMM    = 160.0
	MinPotMM      = 60.0
	MaxPotMM      = 600.0
	offPerCM2     = 0.1  // g a minute and cm²
	tooFar        = 0.01 // of what it should weigh, from which water is stirred back in
	nearlyMinutes = 2.0  // before the stop: stay with it
	scorched      = 0.6  // of what it should weigh, below which no probe that hangs in it ever reads
)

func (p Pot) wide() float64 {
	if p.WideMM > 0 {
		return p.WideMM
	}
	return UsualPotMM
}

// LevelMM is how high so many ml stand in a pot so many mm across.
func LevelMM(ml, wideMM float64) float64 { return ml * 1000 / (math.Pi * wideMM * wideMM / 4) }

// RateG is how many g of water a minute boil off a pot so many mm across, without a lid at a lively simmer.
func RateG(wideMM float64) float64 { return offPerCM2 * math.Pi * wideMM * wideMM / 400 }

// Drawing is a pot in section, to scale [mm].
type Drawing struct {
	WideMM   float64 `json:"wide_mm"`
	HighMM   float64 `json:"high_mm"`
	StartMM  float64 `json:"start_mm"` // level as it begins to boil down; of what is strained after the sieve
	StopMM   float64 `json:"stop_mm"`
	EmptyG   float64 `json:"empty_g,omitzero"` // the pot itself, where it was weighed
	Boils    bool    `json:"boils"`
	OffG     float64 `json:"off_g"` // from the start of the boil to the stop
	RateG    float64 `json:"rate_g_per_min"`
	Minutes  float64 `json:"minutes"`
	StopG    float64 `json:"-"`                     // as it comes off the heat; what is stirred in afterwards is not in it
	StopWith float64 `json:"stop_scale_g,omitzero"` // what the scale shows then, with the pot
}

// highest and lowest wall that is drawn [mm], and how much of it stays free (modelling choices: what foams needs a third).
const (
	lowestWall = 60.0
	freeWall   = 1.5
)

// InPot is the pot in section.
func (r Result) InPot() Drawing {
	wide := r.pot.wide()
	d := Drawing{WideMM: wide, EmptyG: r.pot.EmptyG, StartMM: LevelMM(r.Start.VolumeML, wide), StopMM: LevelMM(r.End.VolumeML, wide), Boils: r.boiled.Mass > 0}
	if d.Boils {
		d.StartMM = LevelMM(stateOf(r.boiled, r.pot.AltitudeM).VolumeML, wide)
		d.StopMM = LevelMM(stateOf(r.stop, r.pot.AltitudeM).VolumeML, wide)
		d.OffG, d.StopG = r.boiled.Mass-r.stop.Mass, r.stop.Mass
		d.RateG = RateG(wide)
		d.Minutes = d.OffG / d.RateG
		if d.EmptyG > 0 {
			d.StopWith = d.EmptyG + d.StopG
		}
	}
	d.HighMM = math.Max(lowestWall, freeWall*math.Max(d.StartMM, d.StopMM))
	return d
}

// Reading is what a cook sees of a pot: one of them.
type Reading struct {
	ScaleG       float64 // with the pot, where that was weighed
	Brix         float64 // cooled to 20 °C
	TemperatureC float64 // boiling
}

// Watch is the figure that is watched, and what is said of it.
type Watch struct {
	Figure float64 `json:"figure"`
	Unit   string  `json:"unit"`
	Head   string  `json:"head"` // what the figure is
	Says   string  `json:"says"` // what to do, in a few words
}

// Watched is what is watched of a pot before anything was read of it.
func (r Result) Watched() Watch {
	d := r.InPot()
	switch {
	case r.pot.Kind == Caramel:
		return Watch{amberC, "°C", "to amber, then off the heat", "then pour in what waits, slowly and warm"}
	case d.Boils:
		return Watch{d.OffG, "g", "to boil off, about " + words.Minutes(math.Ceil(d.Minutes)), fmt.Sprintf("%.0f g a minute, stirring", d.RateG)}
	case r.pot.Kind == Cream:
		return Watch{r.End.VolumeML, "ml", fmt.Sprintf("whipped, out of %.0f ml", r.Start.VolumeML), r.Texture}
	case r.pot.Kind == Macerated:
		return Watch{r.JuiceG, "g", "of juice are drawn", "the sugar in it"}
	}
	return Watch{r.Total.Mass, "g", "stirred together", r.Texture}
}

// Now is a pot in the middle of its work.
type Now struct {
	State
	By      By      `json:"by"`
	LevelMM float64 `json:"level_mm"`
	ToGoG   float64 `json:"to_go_g"` // that still boil off; below zero too much did
	Minutes float64 `json:"minutes"` // until then
	Share   float64 `json:"share"`   // of what is to boil off that is gone, 0 to 1
	Done    bool    `json:"done"`
	Watch
}

// Beside is the stops with what each judge shows now.
func (r Result) Beside(now Now) []Stop {
	out := slices.Clone(r.Stops)
	for i := range out {
		s := &out[i]
		switch s.By {
		case ByWeight:
			s.Now = &now.MassG
		case ByRefractometer:
			s.Now = now.Brix
		case ByTemperature:
			s.Now = now.BoilsC
		}
		if s.Now != nil && s.At != s.From {
			share := math.Max(0, math.Min(1, (*s.Now-s.From)/(s.At-s.From)))
			s.Share = &share
		}
	}
	return out
}

// At is how a pot stands by a reading. The error is *Problem.
func (r Result) At(now Reading) (Now, error) {
	from := r.boiled
	if from.Mass <= 0 {
		return Now{}, problem("now", "not_boiled", "Nothing boils off here: it is judged by eye.")
	}
	if r.pot.Kind == Caramel && now.TemperatureC > 0 {
		return r.ofSugar(now.TemperatureC), nil
	}
	gone, by := 0.0, ByWeight
	switch {
	case now.ScaleG > 0:
		in := now.ScaleG - r.pot.EmptyG
		if gone = from.Mass - in; gone < -tooFar*from.Mass {
			return Now{}, problem("now/scale_g", "more_than_went_in", "%.0f g are more than went in (%.0f g)%s.", in, from.Mass,
				words.Either(r.pot.EmptyG > 0, ": is something else on the scale?", ": weigh the empty pot first, or zero the scale with it on"))
		}
	case now.Brix > prep.MaxBrix:
		return Now{}, problem("now/brix", "out_of_range", "A refractometer reads up to %d °Brix.", prep.MaxBrix)
	case now.Brix > 0:
		by, gone = ByRefractometer, offToBrix(from, now.Brix)
	case now.TemperatureC > 0:
		by = ByTemperature
		if boils(from, r.pot.AltitudeM) < now.TemperatureC {
			var ok bool
			if gone, ok = offToTemperature(from, now.TemperatureC, r.pot.AltitudeM); !ok || from.Mass-gone < scorched*r.stop.Mass {
				return Now{}, problem("now/temperature_c", "too_hot", "It would be nearly dry to boil at %.1f °C: is the probe on the bottom of the pot?", now.TemperatureC)
			}
		}
	default:
		return Now{}, problem("now", "missing", "Weigh the pot, or say what the probe or the refractometer shows.")
	}
	gone = math.Max(0, gone)
	if most := from.Water; gone > most+tooFar*from.Mass {
		return Now{}, problem("now/"+map[By]string{ByWeight: "scale_g", ByRefractometer: "brix", ByTemperature: "temperature_c"}[by], "too_dry",
			"That would be without any water: there are only %.0f g in it. Is the pot on the scale?", most)
	}
	gone = math.Min(gone, from.Water)
	t := without(from, gone)
	out := Now{State: stateOf(t, r.pot.AltitudeM), By: by, ToGoG: t.Mass - r.stop.Mass}
	out.LevelMM = LevelMM(out.VolumeML, r.pot.wide())
	if off := from.Mass - r.stop.Mass; off > 0 {
		out.Share = math.Min(1, gone/off)
	} else {
		out.Share = 1
	}
	out.Minutes = math.Max(0, out.ToGoG/RateG(r.pot.wide()))
	out.Watch = Watch{Figure: math.Abs(out.ToGoG), Unit: "g", Head: "still to boil off"}
	switch over := -out.ToGoG; {
	case over > tooFar*r.stop.Mass && over >= 1:
		out.Head = "too much is gone"
		out.Done, out.Says = true, fmt.Sprintf("too far: off the heat, and stir in %.0f g of hot water, slowly, at arm's length", over)
	case out.ToGoG < 0.5:
		out.Done, out.Says = true, "off the heat"
	case out.Minutes <= nearlyMinutes:
		out.Says = "stay with it: nearly there"
	default:
		out.Says = fmt.Sprintf("about %s more", words.Minutes(math.Ceil(out.Minutes)))
	}
	return out, nil
}

// ofSugar is how the sugar of a caramel stands by its temperature [°C], before anything is poured in.
func (r Result) ofSugar(c float64) Now {
	from, stop := 100.0, amberC
	for _, s := range r.Stops {
		if s.By == ByTemperature {
			from, stop = s.From, s.At
		}
	}
	near := stop - (amberC - amberFrom)
	boils := c
	out := Now{Watch: Watch{Figure: c, Unit: "°C", Head: "the sugar"}, State: State{MassG: r.Start.MassG, VolumeML: r.Start.VolumeML, BoilsC: &boils}, By: ByTemperature, Share: math.Max(0, math.Min(1, (c-from)/(stop-from)))}
	out.LevelMM = LevelMM(out.VolumeML, r.pot.wide())
	switch {
	case c >= burnsC:
		out.Done, out.Says = true, "burnt: off the heat, let it cool, and begin again"
	case c >= math.Max(darkC, stop+(darkC-amberC)):
		out.Done, out.Says = true, "dark, and bitter soon: off the heat at once"
	case c >= near:
		out.Done, out.Says = true, words.Either(stop == amberC, "amber: off the heat", "there: off the heat")
	case c >= near-8:
		out.Says = "stay with it: nearly there"
	default:
		out.Says = "not yet; swirl, do not stir"
	}
	return out
}

// Point is a point of the boiling curve.
type Point struct {
	Brix   float64 `json:"brix"`
	BoilsC float64 `json:"boils_c"`
}

// Curve is where white sugar in water boils at an altitude [m], from water to the limit of what is asked.
func Curve(altitudeM float64) []Point {
	var out []Point
	for b := 0.0; b <= maxBrix-9; b += 2 {
		t := food.Total{Mass: 100, Composition: food.Composition{Water: 100 - b, Sugars: b, Sucrose: b, Carbohydrate: b}}
		out = append(out, Point{b, boils(t, altitudeM)})
	}
	return out
}
