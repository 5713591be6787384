package mixing

// Bowl is where some lines of the ledger are weighed into, in the order of work.
type Bowl struct {
	Name  string   `json:"name"`
	Lines []string `json:"lines"`
	Grams float64  `json:"grams"` // weighed into it
}

// bowlNames are the bowls in the order of work, with what goes into each.
var bowlNames = []struct {
	name   string
	places []place
}{
	{"dry bowl", []place{dry, sifted}}, {"wet jug", []place{wet, whites, melted}}, {"steep", []place{infused}}, {"stir in", []place{grated}},
	{"last", []place{late}}, {"fold in", []place{folded}}, {"under it", []place{under}}, {"on top", []place{onTop}},
}

// Bowls lists every line of a recipe once, those that are weighed out as nothing too.
func Bowls(r Recipe) []Bowl {
	o := &order{Recipe: r}
	var out []Bowl
	for _, b := range bowlNames {
		bowl := Bowl{Name: b.name}
		for _, p := range b.places {
			for _, i := range r.Items {
				if o.placeOf(i) == p {
					bowl.Lines = append(bowl.Lines, i.ID)
					bowl.Grams += i.WeighG
				}
			}
		}
		if len(bowl.Lines) > 0 {
			out = append(out, bowl)
		}
	}
	return out
}
