package sauce

import (
	"slices"

	"upbeatladle/core/food"
)

// Used lists what is in a sauce, strained or not: what was in the pot leaves its allergens there.
func (r Result) Used() []*food.Ingredient {
	var out []*food.Ingredient
	for _, p := range r.Parts {
		if !slices.Contains(out, p.Ingredient) {
			out = append(out, p.Ingredient)
		}
	}
	return out
}

// Product is the sauce as an ingredient of its own, as it is put on.
func (r Result) Product(id, name string) *food.Ingredient {
	out := &food.Ingredient{ID: id, Name: name, Group: food.GroupTopping, Role: food.RoleTopping, Composition: r.Total.Per100(), Density: r.Total.Density(),
		CompositionSource: "worked out from what went into the pot"}
	if r.End.VolumeML > 0 {
		out.Density = r.Total.Mass / r.End.VolumeML
	}
	cost, priced := 0.0, true
	for _, p := range r.Parts {
		in := p.Ingredient
		out.Body += p.Grams * in.Body / r.Total.Mass
		for _, a := range in.Allergens {
			if !slices.Contains(out.Allergens, a) {
				out.Allergens = append(out.Allergens, a)
			}
		}
		for _, a := range in.MayContain {
			if !slices.Contains(out.MayContain, a) {
				out.MayContain = append(out.MayContain, a)
			}
		}
		if !in.IsWater() {
			cost += p.Grams * in.Price
			priced = priced && in.Price > 0
		}
	}
	out.MayContain = slices.DeleteFunc(out.MayContain, func(a string) bool { return slices.Contains(out.Allergens, a) })
	if priced {
		out.Price = cost / r.Total.Mass
	}
	out.Colour = food.Colour{Hex: r.Colour(), Strength: 1}
	return out
}

// Colour is how the sauce looks, roughly: sugar and fat that browned have the colour at which they were stopped.
func (r Result) Colour() string {
	var mix food.Pigments
	for _, p := range r.Parts {
		in := p.Ingredient
		if r.colour != "" && (r.pot.Kind == Caramel && isSugar(in) || r.pot.Kind == Butter && in.Group == food.GroupFat) {
			in = &food.Ingredient{Colour: food.Colour{Hex: r.colour, Strength: 1}}
		}
		mix.Add(in, p.Grams)
	}
	if c, ok := mix.Colour(); ok {
		return c.Hex()
	}
	return pale
}

// pale is what has no colour of its own: a clear syrup (modelling choice).
const pale = "#E9D8A6"
