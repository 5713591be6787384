package worksheet

import (
	"fmt"
	"math"
	"strconv"

	"upbeatladle/core/food"
	"upbeatladle/core/lift"
	"upbeatladle/core/words"
)

// rgb is a colour in linear light, 0-1.
type rgb [3]float64

func parseHex(hex string) (rgb, bool) {
	var c rgb
	if len(hex) != 7 {
		return c, false
	}
	for i := range c {
		v, err := strconv.ParseUint(hex[1+2*i:3+2*i], 16, 8)
		if err != nil {
			return c, false
		}
		c[i] = math.Pow(float64(v)/255, gamma)
	}
	return c, true
}

func (c rgb) hex() string {
	var v [3]int
	for i := range v {
		v[i] = int(math.Round(255 * math.Pow(c[i], 1/gamma)))
	}
	return fmt.Sprintf("#%02X%02X%02X", v[0], v[1], v[2])
}

const (
	gamma      = 2.2       // of a screen, near enough to sRGB
	greyGreen  = "#7C8A6E" // what anthocyanin turns to beyond neutral (modelling choice)
	greyShare  = 0.5       // of the mixture when it does (modelling choice)
	tintsShare = 0.15      // least share of the tint that is worth naming (modelling choice)
)

// tint mixes the colours of everything in the bowl by mass and strength, in linear light: a
// rough guide, not a promise (modelling choice).
func (w *work) tint() *Tint {
	var mix rgb
	var all float64
	shares := map[*food.Ingredient]float64{}
	for _, p := range w.weighed.parts {
		c, ok := parseHex(p.Ingredient.Colour.Hex)
		if !ok {
			continue
		}
		weight := p.Grams * p.Ingredient.Colour.Strength * p.Ingredient.Release()
		shares[p.Ingredient] += weight
		all += weight
		for i := range mix {
			mix[i] += weight * c[i]
		}
	}
	if all <= 0 {
		return nil
	}
	for i := range mix {
		mix[i] /= all
	}
	out := &Tint{Reason: "the colour of the base"}
	var strongest *food.Ingredient
	for _, a := range w.v.Additions {
		if a.Stage.InBowl() && shares[a.Ingredient] > tintsShare*all && (strongest == nil || shares[a.Ingredient] > shares[strongest]) {
			strongest = a.Ingredient
		}
	}
	if strongest != nil {
		out.Reason = words.Lower(strongest.Label()) + " tints it"
		if strongest.Colour.PHSensitive && w.weighed.lift.SodaToAcid() >= lift.GreyAbove {
			grey, _ := parseHex(greyGreen)
			for i := range mix {
				mix[i] = (1-greyShare)*mix[i] + greyShare*grey[i]
			}
			out.Reason = "soda turns " + words.Lower(strongest.Label()) + " grey-green"
		}
	}
	out.Hex = mix.hex()
	return out
}
