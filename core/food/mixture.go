package food

// Part is a mass of one ingredient.
type Part struct {
	Ingredient *Ingredient
	Grams      float64
}

// Total is what a mixture holds: its mass in g and the same constituents as Composition,
// now as absolute amounts (g; mg sodium, kcal, meq acid, g CO2), not per 100 g.
type Total struct {
	Mass float64
	Composition
}

// add puts grams of something of composition c into the total.
func (t *Total) add(c *Composition, grams float64) {
	t.Mass += grams
	t.Composition.add(c, grams/100)
}

// Add puts a share of another total into this one.
func (t *Total) Add(other Total, share float64) {
	t.Mass += share * other.Mass
	t.Composition.add(&other.Composition, share)
}

// add adds f times every constituent of o.
func (c *Composition) add(o *Composition, f float64) {
	c.Water += f * o.Water
	c.Protein += f * o.Protein
	c.Fat += f * o.Fat
	c.Carbohydrate += f * o.Carbohydrate
	c.Ash += f * o.Ash
	c.Alcohol += f * o.Alcohol
	c.Sugars += f * o.Sugars
	c.Sucrose += f * o.Sucrose
	c.Glucose += f * o.Glucose
	c.Fructose += f * o.Fructose
	c.Lactose += f * o.Lactose
	c.Maltose += f * o.Maltose
	c.Starch += f * o.Starch
	c.Polyols += f * o.Polyols
	c.Fibre += f * o.Fibre
	c.Sodium += f * o.Sodium
	c.Energy += f * o.Energy
	c.Acid += f * o.Acid
	c.CO2 += f * o.CO2
}

// Per100 is the composition of 100 g of the mixture; nothing at all when it is empty.
func (t Total) Per100() Composition {
	var c Composition
	if t.Mass > 0 {
		c.add(&t.Composition, 100/t.Mass)
	}
	return c
}

// Times is the composition with every constituent multiplied by k.
func (c *Composition) Times(k float64) Composition {
	var out Composition
	out.add(c, k)
	return out
}

// Plus is the composition with another one added.
func (c *Composition) Plus(o *Composition) Composition {
	out := *c
	out.add(o, 1)
	return out
}

// Minus is the composition less another one.
func (c *Composition) Minus(o *Composition) Composition {
	out := *c
	out.add(o, -1)
	return out
}

// Whole is the whole account of a mixture: everything in the bowl (docs/maths.md section 2).
func Whole(parts []Part) Total {
	var t Total
	for _, p := range parts {
		t.add(&p.Ingredient.Composition, p.Grams)
	}
	return t
}

// Batter is the batter account of a mixture: what is between the pieces. An ingredient
// that keeps its cells takes part with its release fraction only, and dry pieces take the
// water that they drink (docs/maths.md section 2). The account is full: everything is
// released and drunk.
func Batter(parts []Part) Total {
	var t Total
	for _, p := range parts {
		if r := p.Ingredient.Release(); r > 0 {
			t.add(&p.Ingredient.Composition, p.Grams*r)
		}
		if d := p.Ingredient.Drinks(); d > 0 {
			t.Mass -= p.Grams * d
			t.Water -= p.Grams * d
		}
	}
	return t
}

// Densities of the constituents at 20 °C [g/ml]: component polynomials of Choi & Okos
// 1986 (from memory); ethanol 0.789 (handbook value, from memory).
const (
	rhoWater        = 0.99574
	rhoProtein      = 1.31953
	rhoFat          = 0.91724
	rhoCarbohydrate = 1.59289
	rhoFibre        = 1.30418
	rhoAsh          = 2.41819
	rhoAlcohol      = 0.789
)

// Density is the gas-free density of the mixture in g/ml from its composition, volumes
// added (docs/maths.md section 5). It is 0 for an empty mixture.
func (t Total) Density() float64 {
	ml := t.Water/rhoWater + t.Protein/rhoProtein + t.Fat/rhoFat + (t.Carbohydrate-t.Fibre)/rhoCarbohydrate +
		t.Fibre/rhoFibre + t.Ash/rhoAsh + t.Alcohol/rhoAlcohol
	if ml <= 0 {
		return 0
	}
	return (t.Water + t.Protein + t.Fat + t.Carbohydrate + t.Ash + t.Alcohol) / ml
}

// PieceDensity is the density in g/ml of one piece: as tabulated, else from composition.
// Bulk density never serves here.
func (in *Ingredient) PieceDensity() float64 {
	if in.Piece.Density > 0 {
		return in.Piece.Density
	}
	return Whole([]Part{{in, 100}}).Density()
}
