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
	redStain   = "#A8401C" // what turmeric turns to (modelling choice)
	greyShare  = 0.5       // of the mixture when it does (modelling choice)
	tintsShare = 0.15      // least share of what darkens it that is worth naming (modelling choice)
	darkest    = 0.02      // reflectance of any wet surface, below which nothing is (Fresnel at water, from memory: 2 to 4 %)
	scatters   = 0.15      // strength that anything pale counts at least, for it scatters (modelling choice)
)

// absorption is K/S of a reflectance, Kubelka & Munk 1931: unlike light, it adds up when
// pigments are mixed, so that a little cocoa browns much batter.
func absorption(reflectance float64) float64 {
	r := math.Max(darkest, math.Min(1, reflectance))
	return (1 - r) * (1 - r) / (2 * r)
}

// reflectance is the way back.
func reflectance(ks float64) float64 { return 1 + ks - math.Sqrt(ks*ks+2*ks) }

// tint mixes the colours of the bowl by mass, strength and release (docs/maths.md section 11).
func (w *solved) tint() *Tint {
	var mix rgb
	var all, dark float64
	darkens := map[*food.Ingredient]float64{}
	for _, p := range w.weighed.parts {
		hex := p.Ingredient.Colour.Tint
		if hex == "" {
			hex = p.Ingredient.Colour.Hex
		}
		c, ok := parseHex(hex)
		if !ok {
			continue
		}
		released := p.Grams * p.Ingredient.Release()
		weight := released * p.Ingredient.Colour.Strength
		all += released * math.Max(scatters, p.Ingredient.Colour.Strength)
		for i := range mix {
			ks := weight * absorption(c[i])
			mix[i] += ks
			dark += ks
			darkens[p.Ingredient] += ks
		}
	}
	if all <= 0 {
		return nil
	}
	for i := range mix {
		mix[i] = reflectance(mix[i] / all)
	}
	out := &Tint{Reason: "the colour of the base"}
	for _, a := range w.v.Additions {
		if a.Stage.InBowl() && darkens[a.Ingredient] > tintsShare*dark && (out.of == nil || darkens[a.Ingredient] > darkens[out.of]) {
			out.of = a.Ingredient
		}
	}
	if strongest := out.of; strongest != nil {
		out.Reason = words.Lower(strongest.Label()) + " tints it"
		if strongest.Colour.PHSensitive && w.weighed.lift.SodaToAcid() >= lift.GreyAbove {
			turned, name := greyGreen, "grey-green"
			if strongest.Is(food.Reddens) {
				turned, name = redStain, "red"
			}
			grey, _ := parseHex(turned)
			for i := range mix {
				mix[i] = (1-greyShare)*mix[i] + greyShare*grey[i]
			}
			out.Reason = "soda turns " + words.Lower(strongest.Label()) + " " + name
		}
	}
	out.Hex = mix.hex()
	return out
}
