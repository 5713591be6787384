package recipe

import (
	"strings"

	"upbeatladle/core/batter"
)

// headedPlaces are headings over what is not in the batter.
var headedPlaces = map[string]batter.Place{
	"topping": batter.OnTop, "toppings": batter.OnTop, "top": batter.OnTop, "to top": batter.OnTop, "on top": batter.OnTop, "garnish": batter.OnTop, "glaze": batter.OnTop,
	"icing": batter.OnTop, "frosting": batter.OnTop, "crumble": batter.OnTop, "decoration": batter.OnTop, "to decorate": batter.OnTop, "to finish": batter.OnTop,
	"filling": batter.Middle, "fillings": batter.Middle, "the filling": batter.Middle, "to fill": batter.Middle,
	"sauce": batter.OnSide, "syrup": batter.OnSide, "compote": batter.OnSide, "caramel": batter.OnSide, "coulis": batter.OnSide, "dip": batter.OnSide,
	"custard": batter.OnSide, "whipped cream": batter.OnSide, "side": batter.OnSide,
	"pan": batter.InPan, "frying": batter.InPan, "to fry": batter.InPan, "griddle": batter.InPan, "iron": batter.InPan, "greasing": batter.InPan, "cooking": batter.InPan,
	"to serve": batter.Serving, "serving": batter.Serving, "serve with": batter.Serving,
	"belag": batter.OnTop, "garniture": batter.OnTop, "cobertura": batter.OnTop, "copertura": batter.OnTop, "fullung": batter.Middle, "relleno": batter.Middle,
	"ripieno": batter.Middle, "vulling": batter.Middle, "nadzienie": batter.Middle, "zum servieren": batter.Serving, "pour servir": batter.Serving, "para servir": batter.Serving,
	"per servire": batter.Serving, "om te serveren": batter.Serving, "do podania": batter.Serving,
}

// placeOf is the place that a heading speaks of, or none.
func placeOf(heading string) batter.Place {
	key := strings.TrimSpace(strings.Trim(fold(heading), ":.-# "))
	return headedPlaces[strings.TrimPrefix(strings.TrimPrefix(key, "for the "), "for ")]
}

// saidPlaces are words in a line that say so of this one.
var saidPlaces = []struct {
	words string
	place batter.Place
}{
	{"for the pan", batter.InPan}, {"for frying", batter.InPan}, {"for greasing", batter.InPan}, {"for the griddle", batter.InPan}, {"for cooking", batter.InPan},
	{"for the iron", batter.InPan}, {"to fry", batter.InPan}, {"for brushing", batter.InPan}, {"to grease", batter.InPan},
	{"for topping", batter.OnTop}, {"for the top", batter.OnTop}, {"on top", batter.OnTop}, {"for dusting", batter.OnTop}, {"to dust", batter.OnTop}, {"to decorate", batter.OnTop},
	{"to drizzle", batter.OnTop}, {"for drizzling", batter.OnTop}, {"for sprinkling", batter.OnTop}, {"to sprinkle", batter.OnTop}, {"for the filling", batter.Middle},
	{"to serve", batter.Serving}, {"for serving", batter.Serving}, {"on the side", batter.OnSide},
}

func placeSaid(folded string) batter.Place {
	for _, s := range saidPlaces {
		if strings.Contains(folded, s.words) {
			return s.place
		}
	}
	return ""
}
