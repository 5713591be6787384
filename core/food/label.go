package food

import (
	"errors"
	"fmt"
	"math"
)

// Label is what a pack states per 100 g: g, but energy in kcal. Carbohydrate as labels in
// Europe count it, without fibre. What a pack does not state is NaN.
type Label struct {
	Energy, Fat, Carbohydrate, Sugars, Fibre, Protein, Salt float64
}

// Salt and sodium. What tastes of salt is sodium chloride; what a label calls salt is defined.
const (
	SaltTasted  = 58.44 / 22.99 / 1000 // g of sodium chloride with 1 mg of sodium (molar masses): what is weighed and tasted
	SaltOnLabel = 2.5 / 1000           // g of “salt” on a label for 1 mg of sodium (Regulation (EU) No 1169/2011, Annex I)
)

// How label values are filled up.
const (
	ashBesideSalt  = 0.4  // g of other minerals (modelling choice, the middle of the table)
	labelEnergy    = 0.15 // share by which a label's energy may differ: rounding of every figure
	labelEnergyMin = 6.0  // kcal
)

// FromLabel makes an ingredient out of what its pack states and of a similar row of the table,
// which lends whatever packs do not say: shelf, role, how sugars divide, acid, density, body,
// release, pieces, tint. What was estimated is listed in Own.Estimated. The id is the
// caller's. The error joins one sentence for each figure that cannot be true.
func FromLabel(name string, l Label, like *Ingredient) (*Ingredient, error) {
	if like == nil {
		return nil, errors.New("choose an ingredient that is most like it, for what the pack does not say")
	}
	var bad []error
	for _, v := range []struct {
		name string
		g    float64
		must bool
	}{
		{"fat", l.Fat, true}, {"carbohydrate", l.Carbohydrate, true}, {"sugars", l.Sugars, true}, {"protein", l.Protein, true},
		{"fibre", l.Fibre, false}, {"salt", l.Salt, false},
	} {
		switch {
		case math.IsNaN(v.g) && v.must:
			bad = append(bad, fmt.Errorf("%s is missing: every pack states it", v.name))
		case v.g < 0 || v.g > 100:
			bad = append(bad, fmt.Errorf("%s is %g g in 100 g, which cannot be", v.name, v.g))
		}
	}
	if l.Sugars > l.Carbohydrate+partSlack {
		bad = append(bad, fmt.Errorf("%g g sugars are more than the carbohydrate (%g g), which they are part of", l.Sugars, l.Carbohydrate))
	}
	if len(bad) > 0 {
		return nil, errors.Join(bad...)
	}
	out := *like
	out.Name, out.Notes = name, ""
	out.Own = &Own{Name: name}
	guess := func(v *float64, def float64, what string) {
		if math.IsNaN(*v) {
			*v = def
			out.Own.Estimated = append(out.Own.Estimated, what)
		}
	}
	guess(&l.Fibre, like.Fibre, "fibre")
	guess(&l.Salt, like.Sodium*SaltOnLabel, "salt")
	c := Composition{
		Protein: l.Protein, Fat: l.Fat, Carbohydrate: l.Carbohydrate + l.Fibre, Sugars: l.Sugars, Fibre: l.Fibre,
		Sodium: l.Salt / SaltOnLabel, Ash: l.Salt + ashBesideSalt, Alcohol: like.Alcohol, Acid: like.Acid, CO2: like.CO2,
	}
	c.Water = 100 - c.Protein - c.Fat - c.Carbohydrate - c.Ash - c.Alcohol
	if c.Water < 0 && c.Water > -2 { // rounding of the pack
		c.Ash, c.Water = math.Max(0, c.Ash+c.Water), 0
	}
	if c.Water < 0 {
		return nil, fmt.Errorf("the parts come to more than 100 g: %.1f g too much", -c.Water)
	}
	if like.Sugars > 0 {
		k := l.Sugars / math.Max(like.Sugars, like.Sucrose+like.Glucose+like.Fructose+like.Lactose+like.Maltose) // the row is rounded
		c.Sucrose, c.Glucose, c.Fructose, c.Lactose, c.Maltose = k*like.Sucrose, k*like.Glucose, k*like.Fructose, k*like.Lactose, k*like.Maltose
	} else {
		c.Sucrose = l.Sugars
	}
	if left := l.Carbohydrate - l.Sugars; like.Starch > 0 {
		c.Starch = left * like.Starch / math.Max(like.Starch, like.Carbohydrate-like.Sugars-like.Fibre)
	}
	c.Energy = c.EnergyFromParts(like.Group)
	if e := l.Energy; !math.IsNaN(e) && math.Abs(e-c.Energy) > math.Max(labelEnergyMin, labelEnergy*c.Energy) {
		return nil, fmt.Errorf("the energy is %.0f kcal, the other figures give about %.0f: one of them is misread, or it is kJ", e, c.Energy)
	}
	out.Own.Estimated = append(out.Own.Estimated, "water", "ash", "single sugars", "starch", "acid", "density", "body", "release")
	if b := binding(&c); like.Group == GroupPuree && like.Body > 0 && binding(&like.Composition) > 0 {
		out.Body = math.Min(pureeBodyCap, like.Body*b/binding(&like.Composition))
	}
	out.Composition = c
	out.CompositionSource = "label; the rest estimated from " + like.Name
	return &out, nil
}

// Thickening power of a purée: 9 per g of fibre that binds, 2.5 per g of gelatinised starch,
// at most 0.6 per g (modelling choice of the reference table).
const (
	bodyPerFibre  = 9
	bodyPerStarch = 2.5
	pureeBodyCap  = 0.6
)

func binding(c *Composition) float64 { return (bodyPerFibre*c.Fibre + bodyPerStarch*c.Starch) / 100 }

// PureeBody is the thickening power per gram of a purée that no row of the table describes.
// Starch counts once it was cooked.
func (c *Composition) PureeBody(cooked bool) float64 {
	d := *c
	if !cooked {
		d.Starch = 0
	}
	return math.Min(pureeBodyCap, binding(&d))
}
