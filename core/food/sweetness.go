package food

// Relative sweetness, sucrose = 1 (published tables, from memory; fructose as tasted warm).
// Sugars that the table does not split (galactose among them) count only in the total.
const (
	sweetSucrose  = 1.00
	sweetFructose = 1.30
	sweetGlucose  = 0.74
	sweetMaltose  = 0.33
	sweetLactose  = 0.16
	sweetPolyols  = 0.65 // erythritol
)

// Sweetness is the sucrose equivalent in g: per 100 g for an ingredient, absolute for a
// Total (docs/maths.md section 4).
func (c *Composition) Sweetness() float64 {
	return sweetSucrose*c.Sucrose + sweetFructose*c.Fructose + sweetGlucose*c.Glucose +
		sweetMaltose*c.Maltose + sweetLactose*c.Lactose + sweetPolyols*c.Polyols
}
