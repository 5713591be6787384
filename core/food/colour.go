package food

import (
	"fmt"
	"math"
	"strconv"
)

// RGB is a colour in linear light, 0-1.
type RGB [3]float64

const (
	gamma    = 2.2  // of a screen, near enough to sRGB
	darkest  = 0.02 // reflectance of any wet surface, below which nothing is (Fresnel at water, from memory: 2 to 4 %)
	scatters = 0.15 // strength that anything pale counts at least, for it scatters (modelling choice)
)

// ParseHex reads "#A06030".
func ParseHex(hex string) (RGB, bool) {
	var c RGB
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

// Hex is the colour as documents write it.
func (c RGB) Hex() string {
	var v [3]int
	for i := range v {
		v[i] = int(math.Round(255 * math.Pow(c[i], 1/gamma)))
	}
	return fmt.Sprintf("#%02X%02X%02X", v[0], v[1], v[2])
}

// absorption is K/S of a reflectance, Kubelka & Munk 1931: unlike light, it adds up when
// pigments are mixed, so that a little cocoa browns much batter.
func absorption(reflectance float64) float64 {
	r := math.Max(darkest, math.Min(1, reflectance))
	return (1 - r) * (1 - r) / (2 * r)
}

// reflectance is the way back.
func reflectance(ks float64) float64 { return 1 + ks - math.Sqrt(ks*ks+2*ks) }

// Pigments gathers what colours a mixture (docs/maths.md section 11).
type Pigments struct {
	sum  RGB     // of what darkens
	mass float64 // that is coloured
	Dark float64
}

// Add puts grams of an ingredient in, as far as they are released, and tells how much that darkens.
func (p *Pigments) Add(in *Ingredient, released float64) (darkens float64) {
	hex := in.Colour.Tint
	if hex == "" {
		hex = in.Colour.Hex
	}
	c, ok := ParseHex(hex)
	if !ok {
		return 0
	}
	p.mass += released * math.Max(scatters, in.Colour.Strength)
	for i := range p.sum {
		ks := released * in.Colour.Strength * absorption(c[i])
		p.sum[i] += ks
		darkens += ks
	}
	p.Dark += darkens
	return darkens
}

// Colour is how the mixture looks; false when nothing in it has a colour.
func (p Pigments) Colour() (RGB, bool) {
	var out RGB
	if p.mass <= 0 {
		return out, false
	}
	for i := range out {
		out[i] = reflectance(p.sum[i] / p.mass)
	}
	return out, true
}
