package batch

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
)

// Pulling is what has to be out for some bowls before the work begins.
type Pulling struct {
	Lines  []Pull   `json:"lines"` // in the order of the shelf, the dry first
	Tools  []string `json:"tools"`
	Beside []string `json:"beside"` // for the pan and the table, in the cook's words
	// Bowls are what the list is for, each with what it contains.
	Bowls []PulledBowl `json:"bowls"`
}

// shortSlack is what nobody misses of a stock [g] (modelling choice: the last digit of a fine scale).
const shortSlack = 0.05

// PulledBowl is a bowl that a list is for.
type PulledBowl struct {
	Name         string `json:"name"`
	Count        int    `json:"count"`
	AllergenText string `json:"allergen_text"`
}

// Pull is one ingredient: so much of it for all bowls together.
type Pull struct {
	Ingredient string   `json:"ingredient"`
	Label      string   `json:"label"`
	Name       string   `json:"name"`
	Grams      float64  `json:"grams"` // that go in
	Decimals   int      `json:"decimals"`
	Bought     *float64 `json:"bought_g,omitzero"` // with what is thrown away of it
	Pieces     string   `json:"pieces,omitzero"`   // about how many of them: "5 × medium carrot"
	Have       *float64 `json:"have_g,omitzero"`   // what the pantry keeps count of
	Short      *float64 `json:"short_g,omitzero"`  // that is missing, in whole grams
	For        []string `json:"for"`               // the bowls
	Allergens  []string `json:"allergens,omitzero"`
	May        []string `json:"may_contain,omitzero"`
}

// shelfOrder puts what is weighed dry before what is wet, as it is pulled.
var shelfOrder = []food.Role{
	food.RoleFlour, food.RoleSugar, food.RoleLeavener, food.RoleSoda, food.RoleAcid, food.RoleSalt, food.RoleFlavour, food.RoleEgg, food.RoleLiquid,
	food.RoleDairy, food.RoleFat, food.RolePuree, food.RolePiece, food.RoleTopping,
}

// ToPull adds up what some bowls need.
func ToPull(all []Making) Pulling {
	out := Pulling{Lines: []Pull{}, Tools: []string{}, Beside: []string{}, Bowls: []PulledBowl{}}
	rows := map[string]*food.Ingredient{}
	for _, m := range all {
		out.Bowls = append(out.Bowls, PulledBowl{m.Plan.Name, m.Plan.Count, m.Plan.AllergenText})
		for _, t := range m.Plan.Tools {
			if !slices.Contains(out.Tools, t) {
				out.Tools = append(out.Tools, t)
			}
		}
		for _, p := range m.beside {
			if len(p.Each) == 0 && !slices.Contains(out.Beside, p.Text) {
				out.Beside = append(out.Beside, p.Text)
			}
		}
		for _, t := range m.Plan.Tasks {
			if t.Kind == Weigh {
				p := out.line(rows, m.item(t.Line).Ingredient, t.Label)
				p.add(t.Grams, t.Decimals, m.Plan.Name)
			}
		}
		if liquid, ok := m.bowl.Liquid(); ok { // what leaves keep is topped up with fresh
			if held := math.Round(m.bowl.Held()); held >= 1 {
				p := out.line(rows, liquid.Ingredient, liquid.Label)
				p.add(held, 0, m.Plan.Name)
			}
		}
		for _, b := range m.beside { // what goes on
			need := b.Each
			if h := b.House; h != nil {
				need = houseNeeds(h, b.Each, m.Plan.Count)
			}
			for _, part := range need {
				p := out.line(rows, part.Ingredient, part.Ingredient.Label())
				p.add(part.Grams*float64(m.Plan.Count), 0, m.Plan.Name)
			}
		}
	}
	for i := range out.Lines {
		out.Lines[i].count(rows[out.Lines[i].Ingredient])
	}
	slices.SortStableFunc(out.Lines, func(a, b Pull) int {
		return cmp.Compare(slices.Index(shelfOrder, rows[a.Ingredient].Role), slices.Index(shelfOrder, rows[b.Ingredient].Role))
	})
	return out
}

// houseNeeds is what a sauce of the house needs for a portion: its tub where that holds enough for all, else what goes in.
func houseNeeds(h *batter.House, each []food.Part, count int) []food.Part {
	if len(each) == 0 || count == 0 {
		return nil
	}
	all := each[0].Grams * float64(count)
	if h.OutOfTub(all) {
		return []food.Part{{Ingredient: h.Tub, Grams: each[0].Grams}}
	}
	parts, _ := h.Sized(all)
	for i := range parts {
		parts[i].Grams /= float64(count)
	}
	return parts
}

// line is the row of an ingredient, a new one when there is none.
func (l *Pulling) line(rows map[string]*food.Ingredient, in *food.Ingredient, label string) *Pull {
	at := slices.IndexFunc(l.Lines, func(p Pull) bool { return p.Ingredient == in.ID })
	if at < 0 {
		rows[in.ID] = in
		l.Lines = append(l.Lines, Pull{Ingredient: in.ID, Label: label, Name: in.Name, Allergens: in.Allergens, May: in.MayContain})
		at = len(l.Lines) - 1
	}
	return &l.Lines[at]
}

func (p *Pull) add(grams float64, decimals int, bowl string) {
	p.Grams += grams
	p.Decimals = max(p.Decimals, decimals)
	if !slices.Contains(p.For, bowl) {
		p.For = append(p.For, bowl)
	}
}

// count says how much that is as it is bought, and what the pantry has of it.
func (p *Pull) count(row *food.Ingredient) {
	if row.Refuse > 0 && row.Refuse < 100 {
		g := p.Grams / (1 - row.Refuse/100)
		p.Bought = &g
	}
	if row.UnitG > 0 && row.UnitName != "" {
		p.Pieces = fmt.Sprintf("%.0f × %s", math.Ceil(p.Grams/row.UnitG-0.1), row.UnitName)
	}
	if row.Stock > 0 {
		have := row.Stock
		p.Have = &have
		if short := math.Ceil(p.Grams - have - shortSlack); short > 0 {
			p.Short = &short
		}
	}
}
