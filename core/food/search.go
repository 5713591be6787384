package food

import (
	"slices"
	"strings"
)

// rank of a match: lower is better.
const (
	rankExact = iota
	rankNameStart
	rankWordStart
	rankInside
	rankGroup
	noMatch
)

// Search returns the ingredients that match every word of the query, best first: names
// that begin with it, then names with a word that does, then those that contain it, then
// those whose group does; equals stand by group and then as in the table. An empty query matches all. A group other than "" keeps only
// that group.
func (t *Table) Search(query string, group Group) []*Ingredient {
	words := strings.Fields(strings.ToLower(query))
	type hit struct {
		in   *Ingredient
		rank int
	}
	var hits []hit
	for _, in := range t.rows {
		if group != "" && in.Group != group {
			continue
		}
		rank := rankExact
		if whole := strings.Join(words, " "); whole != strings.ToLower(in.Name) {
			for i, w := range words {
				rank = max(rank, matchWord(in, w, i == 0))
			}
		}
		if rank < noMatch {
			hits = append(hits, hit{in, rank})
		}
	}
	slices.SortStableFunc(hits, func(a, b hit) int {
		if a.rank != b.rank {
			return a.rank - b.rank
		}
		return slices.Index(Groups, a.in.Group) - slices.Index(Groups, b.in.Group)
	})
	out := make([]*Ingredient, len(hits))
	for i, h := range hits {
		out[i] = h.in
	}
	return out
}

func matchWord(in *Ingredient, word string, first bool) int {
	name := strings.ToLower(in.Name)
	switch {
	case name == word || in.ID == word:
		return rankExact
	case first && strings.HasPrefix(name, word):
		return rankNameStart
	}
	for _, w := range strings.FieldsFunc(name, func(r rune) bool { return r == ' ' || r == ',' || r == '(' || r == '-' }) {
		if strings.HasPrefix(w, word) {
			return rankWordStart
		}
	}
	if strings.Contains(name, word) || strings.Contains(in.ID, word) {
		return rankInside
	}
	if strings.Contains(string(in.Group), word) {
		return rankGroup
	}
	return noMatch
}
