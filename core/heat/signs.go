package heat

import "upbeatladle/core/batter"

// Sign is something to wait for; Shown names its drawing.
type Sign struct {
	Shown string
	Text  string
}

// Look is what a bowl is like to whoever stands at the plate.
type Look struct {
	Form   batter.Form
	GasML  float64 // per 100 g of flour-type body; NaN without any
	Whips  bool    // whipped whites lift it: they bubble too
	Hidden bool    // its own colour hides the browning
	Light  bool    // the iron has a light or a tone of its own
	Whole  bool    // one cake of the whole bowl
}

// littleGas is the gas below which bubbles are not waited for [ml per 100 g of flour-type body]:
// where the lift gauge calls it flat.
const littleGas = 250.0

// Bubbles tells whether bubbles that stay open can be waited for.
func (l Look) Bubbles() bool {
	return (l.Form == batter.Pancake || l.Form == batter.DropScone) && (l.GasML >= littleGas || l.Whips)
}

// dancesC is the plate's temperature in °C from which a drop of water dances; cooler it sizzles where it falls (common
// practice, no source).
const dancesC = 150.0

// HotSigns say that a plate of so many °C is hot, to whoever has no thermometer; none for an iron with a light of its own.
func (l Look) HotSigns(plateC float64, fat batter.Fat) []string {
	if l.Form == batter.Waffle && l.Light {
		return nil
	}
	out := []string{"a drop of water sizzles where it falls"}
	if plateC >= dancesC {
		out[0] = "a drop of water dances and is gone"
	}
	if (fat == batter.Butter || fat == batter.Both) && l.Form != batter.Waffle {
		out = append(out, "butter foams, then hushes")
	}
	return out
}

// FirstSigns say when the first side is done, or an iron may be opened.
func (l Look) FirstSigns() []Sign {
	switch l.Form {
	case batter.Waffle:
		out := []Sign{{"steam", "the steam drops to a wisp"}, {"lid", "the lid lifts by itself: if it pulls, wait"}}
		if l.Light {
			return append(out, Sign{"light", "its own light or tone"})
		}
		return append(out, Sign{"closed", "do not open early: it tears"})
	case batter.Crepe:
		return []Sign{{"dull", "the shine is gone to the middle"}, {"rim", "the rim browns and lifts"}, {"slides", "it slides when you shake the pan"}}
	}
	out := []Sign{{"rim", "rim dry and dull"}, {"lets_go", "lets go of the plate"}}
	if l.Whole {
		out = []Sign{{"rim", "rim set: lift it and let the wet top run under"}, {"lets_go", "top nearly dry, lets go all round"}}
	}
	if l.Bubbles() {
		return append([]Sign{{"bubbles", "bubbles stay open"}}, out...)
	}
	under := Sign{"look", "golden underneath"}
	if l.Hidden {
		under = Sign{"look", "firm underneath: its colour hides the gold"}
	}
	return append(out, under)
}

// SecondSigns say when the second side is done; none for an iron.
func (l Look) SecondSigns() []Sign {
	switch l.Form {
	case batter.Waffle:
		return nil
	case batter.Crepe:
		return []Sign{{"look", "freckled underneath"}, {"slides", "slides free"}}
	}
	look := Sign{"look", "look underneath"}
	if l.Hidden {
		look = Sign{"look", "go by feel and clock: its colour hides the gold"}
	}
	return []Sign{{"springs", "springs back"}, {"dry_rim", "no wet at the rim"}, look}
}
