package prep

import "upbeatladle/core/food"

// Treatment is a preparation of an addition inside a variation: the addition is weighed as it
// is, prepared, and what is left goes into the bowl.
type Treatment struct {
	Method  Method
	Salt    bool
	BeforeG float64 // weighed before and after, of any amount; zero when not weighed
	AfterG  float64
	Brix    float64 // read of what goes into the bowl, at 20 °C
	SizeMM  float64 // of its pieces
}

// Named is a treatment as documents and the shelf name it.
type Named struct {
	ID     string `json:"id"`
	Label  string `json:"label"`
	Method Method `json:"-"`
	Salt   bool   `json:"-"`
}

// Treatments lists the preparations that make sense in a variation; the others make a tub.
var Treatments = []Named{
	{"squeeze", "squeezed", Squeeze, false},
	{"salt_squeeze", "salted and squeezed", Squeeze, true},
	{"thaw", "thawed and drained", Thaw, false},
	{"toss", "tossed in flour", Toss, false},
	{"plump", "plumped in water", Plump, false},
	{"toast", "toasted", Toast, false},
	{"reduce", "boiled down", Reduce, false},
}

// leastG is worked with when there is nothing yet [g].
const leastG = 1e-3

// For lists the treatments that suit an ingredient.
func For(in *food.Ingredient) []Named {
	var out []Named
	for _, n := range Treatments {
		if Suits(n.Method, in) {
			out = append(out, n)
		}
	}
	return out
}

// Treated is what goes into the bowl of so many grams of an ingredient: the prepared
// ingredient, its mass, and the working. Without a method, weights before and after say that
// water was lost. Salt and flour come from the shelf; nil is the table as shipped. The error is a
// *Problem.
func (t Treatment) Treated(shelf *food.Table, in *food.Ingredient, grams float64) (product *food.Ingredient, left float64, work *Result, err error) {
	product, left = in, grams
	method := t.Method
	if method == "" && t.AfterG > 0 {
		method = Reduce
		if in.HasCells() {
			method = Squeeze
		}
	}
	switch {
	case t.AfterG > 0 && t.BeforeG <= 0:
		return nil, 0, nil, problem("weight_before_g", "missing", "Give the weight before too: the loss is the difference.")
	case method != "":
		j := Job{Shelf: shelf, Method: method, From: in, Salt: t.Salt, HaveG: max(grams, leastG)}
		if t.AfterG > 0 { // weighed as weighed first, so that it is told as it was typed
			if _, err := Work(Job{Shelf: shelf, Method: method, From: in, Salt: t.Salt, HaveG: t.BeforeG, AfterG: t.AfterG}); err != nil {
				return nil, 0, nil, err
			}
			j.AfterG = j.HaveG * t.AfterG / t.BeforeG
		}
		r, err := Work(j)
		if err != nil {
			return nil, 0, nil, err
		}
		product, left = r.Product, min(r.ProductG, r.ProductG*grams/leastG)
		work = &r
	}
	if t.Brix > 0 {
		if product, err = WithBrix(product, t.Brix); err != nil {
			return nil, 0, nil, err
		}
	}
	if t.SizeMM > 0 {
		product = Sized(product, t.SizeMM)
	}
	return product, left, work, nil
}

// Label names the treatment; empty when there is none.
func (t Treatment) Label() string {
	for _, n := range Treatments {
		if n.Method == t.Method && n.Salt == t.Salt {
			return n.Label
		}
	}
	if t.AfterG > 0 {
		return "weighed after"
	}
	return ""
}
