package food

// Shelf lists the ingredients of a group in the order of the table; of all groups when it is "".
func (t *Table) Shelf(group Group) []*Ingredient {
	if group == "" {
		return t.rows
	}
	var out []*Ingredient
	for _, in := range t.rows {
		if in.Group == group {
			out = append(out, in)
		}
	}
	return out
}
