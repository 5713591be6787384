// Package keep tells how long what comes off the plate may wait, how it is frozen, and how it is made hot
// again. Every limit stands with “follow your local code”: the food's own temperature, by probe, outranks
// all of them. Rules and constants: docs/maths.md section 20.
package keep

import (
	"fmt"
	"math"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/safety"
	"upbeatladle/core/words"
)

// LocalCode stands beside every limit.
const LocalCode = "follow your local code"

// The oven that things wait in [°C] (common practice 65 to 95, no source; 80 to 95 keeps food above 63).
const (
	OvenLowC  = 80
	OvenHighC = 95
	OvenC     = 85
)

// Food waits hot at or above these, by probe [°C].
const (
	HotUSC = 57 // US Food Code
	HotUKC = 63 // UK food hygiene regulations
)

// ReheatC is what the middle is made hot to again; in the UK ReheatUKC for ReheatUKMin minutes does as well [°C]
// (common guidance, from memory).
const (
	ReheatC     = 74
	ReheatUKC   = 70
	ReheatUKMin = 2
)

// nearEnd is the share of a limit from which it is said that it ends (modelling choice).
const nearEnd = 0.8

// Hold is how something waits in the oven.
type Hold struct {
	Minutes float64 `json:"minutes"` // that it stays good; from when the first of a tray came off the plate
	How     string  `json:"how"`
	After   string  `json:"after"` // what becomes of it
	OnTray  int     `json:"on_tray"`
}

// HoldOf is how a form waits (minutes: common practice, no source; how many lie on a tray in one layer: modelling
// choice, a tray of 30 × 40 cm).
func HoldOf(f batter.Form) Hold {
	switch f {
	case batter.Waffle:
		return Hold{10, "on a rack, not on a tray", "it softens", 6}
	case batter.Crepe:
		return Hold{30, "stacked under a damp cloth", "the rim dries", 20}
	}
	return Hold{20, "on a tray, in one layer", "it dries and turns leathery", 8}
}

// Waiting says how long something may still wait.
type Waiting string

// The ways.
const (
	Fine  Waiting = "fine"
	Soon  Waiting = "soon"  // send it next
	Over  Waiting = "over"  // it is past its best: send it at once, or do not serve it as good
	Unfit Waiting = "unfit" // too long, and too cool, to be served

	UsedUp Waiting = "used" // of a pack
)

// Rack is how the rack stands.
type Rack struct {
	OvenOn bool
	FoodC  float64 // of the food, by probe; NaN when nobody looked
}

// Cool tells whether what waits is known to be too cool, or waits in no oven: then its time above 5 °C counts.
func (r Rack) Cool() bool { return !r.OvenOn || r.FoodC < HotUSC }

// Look is what there is to say of something that waits.
type Look struct {
	State   Waiting `json:"state"`
	HeldMin float64 `json:"held_min"`
	LeftMin float64 `json:"left_min"` // below zero when it is over
	Text    string  `json:"text,omitzero"`
}

// Turn is from when on there is something else to say of what waits.
type Turn struct {
	AfterMin float64
	State    Waiting
	Text     string
}

// Course is what there is to say of something of a form the longer it waits, from the beginning.
func (r Rack) Course(f batter.Form) []Turn {
	h := HoldOf(f)
	all := []Turn{
		{0, Fine, ""},
		{nearEnd * h.Minutes, Soon, "Send it now: " + h.After + "."},
		{h.Minutes, Over, "Past its best: " + h.After + ". Send it at once or put it aside."},
	}
	if r.Cool() {
		all = append(all,
			Turn{safety.ChillAgainWithinMin, Over, "Not hot for 2 h: eat it now, do not chill or freeze it."},
			Turn{safety.UseWithinMin, Unfit, fmt.Sprintf("Above 5 °C and not hot for %s: throw it away.", words.Minutes(safety.UseWithinMin))})
	}
	return all
}

// At looks at something of a form that waits for so many minutes.
func (r Rack) At(f batter.Form, held time.Duration) Look {
	waited := math.Max(0, held.Minutes())
	l := Look{HeldMin: waited, LeftMin: HoldOf(f).Minutes - waited}
	for _, t := range r.Course(f) {
		if waited >= t.AfterMin {
			l.State, l.Text = t.State, t.Text
		}
	}
	return l
}

// Said is what the food's own temperature says.
func (r Rack) Said() string {
	switch {
	case math.IsNaN(r.FoodC):
		return fmt.Sprintf("Look with a probe: the food stays at %d °C or more (UK %d).", HotUSC, HotUKC)
	case r.FoodC < HotUSC:
		return fmt.Sprintf("%.0f °C is too cool to wait: serve it, or make it hot to %d °C.", r.FoodC, ReheatC)
	case r.FoodC < HotUKC:
		return fmt.Sprintf("%.0f °C holds by the US Food Code (%d), not in the UK (%d).", r.FoodC, HotUSC, HotUKC)
	}
	return fmt.Sprintf("%.0f °C is hot enough to wait.", r.FoodC)
}

// Freezing.
const (
	CoolMin  = 20 // cool on a rack before they go in, 15 at least (common practice, no source)
	FlatMin  = 60 // lie in one layer before they are bagged, 45 at least: then they no longer stick (common practice, no source)
	KeepDays = 60 // keep their quality so long at −18 °C (common practice, no source)
)

// BagAfter is how long it takes from the rack until something of a form can be bagged: crêpes stack, with paper between.
func BagAfter(f batter.Form) time.Duration {
	if f == batter.Crepe {
		return CoolMin * time.Minute
	}
	return (CoolMin + FlatMin) * time.Minute
}

// FreezeHow is how something of a form is frozen.
func FreezeHow(f batter.Form) string {
	if f == batter.Crepe {
		return "cool on a rack 15 to 20 min, then stack them with paper between and bag them"
	}
	return "cool on a rack 15 to 20 min, then lie flat in the freezer 45 to 60 min, until they no longer stick"
}

// MayFreeze tells whether what waited so long may still be frozen; the sentence says why not.
func MayFreeze(l Look) (bool, string) {
	if l.State == Unfit || l.HeldMin >= safety.ChillAgainWithinMin {
		return false, "It waited too long to be frozen: what was warm for 2 h is eaten now or thrown away."
	}
	return true, ""
}

// UseBy is the day by which a pack is used.
func UseBy(made time.Time) time.Time { return made.AddDate(0, 0, KeepDays) }

// Reheat is how a frozen one of a form is made hot again, the best way first.
func Reheat(f batter.Form) []string {
	to := fmt.Sprintf("until the middle reads %d °C (UK: %d °C for %d min)", ReheatC, ReheatUKC, ReheatUKMin)
	thawed := "Thawed in the fridge and eaten the same day: cold is fine, it was cooked through."
	switch f {
	case batter.Waffle:
		return []string{"Toaster, straight from frozen, two rounds, " + to + ".", "Oven 200 °C, on the rack, 6 to 8 min, " + to + ".", "Microwave, 30 to 45 s, until soft, then a minute in the hot iron or toaster, crisp, " + to + ".", thawed}
	case batter.Crepe:
		return []string{"Pan, thawed, medium heat, half a minute a side, " + to + ".", "Microwave, covered, 20 to 30 s each, " + to + ".", thawed}
	}
	return []string{"Oven 180 °C, covered, 8 to 10 min, " + to + ".", "Toaster, straight from frozen, " + to + ".", "Pan with a lid, low heat, 2 min a side, " + to + ".", "Microwave, covered, 30 to 45 s each, turned once, " + to + ".", thawed}
}

// UsualPack is how many pieces a pack usually has (common practice, no source), and soonDays from when its day is near (modelling
// choice).
const (
	UsualPack = 4
	soonDays  = 7
)

// Packed says how a pack stands that is used by a day, with so many pieces left: Fine, Soon, Over, or UsedUp.
func Packed(useBy, today time.Time, left int) (state Waiting, days int, says string) {
	days = int(useBy.Sub(today).Hours() / 24)
	switch {
	case left == 0:
		return UsedUp, days, "used up"
	case days < 0:
		return Over, days, "past its day: look at it before anybody eats it, and follow your local code"
	case days <= soonDays:
		return Soon, days, fmt.Sprintf("%d days left: use it next", days)
	}
	return Fine, days, fmt.Sprintf("%d days left", days)
}
