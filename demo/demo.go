// Package demo writes the demo kitchen, Halyard Hatch: a breakfast hatch at the end of a
// ferry pier. Everything in it is invented.
package demo

import (
	"context"
	"embed"
	"fmt"
	"io/fs"
	"slices"
	"time"

	"upbeatladle/core/batter"
	"upbeatladle/core/food"
	"upbeatladle/core/keep"
	"upbeatladle/document"
	"upbeatladle/kitchen"
	"upbeatladle/starter"
	"upbeatladle/store"
)

//go:embed kitchen.json pantry.json packs.json bases/*.json variations/*.json
var files embed.FS

// Write saves the demo kitchen into a store without documents, as a whole or not at all: the
// bases, then the variations with a reference to the base that they stand on. The last
// variation of the folder is the first that the bench shows. A kitchen that was saved first
// stays as it is, and everything is worked out for it; documents that are there are left alone.
func Write(ctx context.Context, st *store.Store, table *food.Table, today time.Time) error {
	return st.Together(ctx, func(tx *store.Tx) error {
		empty, err := tx.Empty(ctx)
		if err != nil || !empty {
			return err
		}
		return write(ctx, tx, table, today)
	})
}

func write(ctx context.Context, st *store.Tx, table *food.Table, today time.Time) error {
	own, err := kitchenOf(ctx, st)
	if err != nil {
		return fmt.Errorf("writing the demo's kitchen: %w", err)
	}
	shelf, err := pantry(ctx, st, table, today)
	if err != nil {
		return err
	}
	in := document.Setting{Table: shelf, Kitchen: own, Today: today}
	bases := map[string]store.Document{}
	err = each("bases", func(data []byte) error {
		s, err := document.SummariseBase(ctx, data, in)
		if err != nil {
			return err
		}
		d, err := st.Create(ctx, store.Base, kitchen.ContentOf(s), "")
		bases[d.Name] = d
		return err
	})
	if err != nil {
		return err
	}
	if err := packs(ctx, st, today); err != nil {
		return err
	}
	pots, err := sauces(ctx, st, in)
	if err != nil {
		return err
	}
	return each("variations", func(data []byte) error {
		v, err := document.DecodeVariation(data)
		if err != nil {
			return err
		}
		saved, ok := bases[v.Base.Name]
		if !ok {
			return fmt.Errorf("there is no base %q", v.Base.Name)
		}
		b, err := document.DecodeBase(saved.Body)
		if err != nil {
			return err
		}
		v.Base.Lines, v.Base.Style, v.Base.School = b.Lines, b.Style, b.School
		v.Base.BaseRef = &document.BaseRef{ID: saved.ID, Revision: saved.Revision}
		if p, ok := goesOn[v.Name]; ok {
			p.Sauce, p.SauceRef = pots[p.Text].Sauce, pots[p.Text].SauceRef
			p.Text += fmt.Sprintf(", %.0f g", *p.EachG)
			v.Parts = append(v.Parts, p)
		}
		full, err := v.Encode()
		if err != nil {
			return err
		}
		s, err := document.SummariseVariation(ctx, full, in)
		if err != nil {
			return err
		}
		_, err = st.Create(ctx, store.Variation, kitchen.ContentOf(s), "")
		return err
	})
}

// goesOn is what of the house goes on the demo's variations, by the name of the sauce.
var goesOn = map[string]document.Part{
	"Plum & almond waffle":  {Kind: string(batter.OnTop), Text: "Plum compote", EachG: grams(30)},
	"Sweet potato & sesame": {Kind: string(batter.OnTop), Text: "Plum compote", EachG: grams(25)},
	"Rhubarb & ginger":      {Kind: string(batter.OnTop), Text: "Ginger cream", EachG: grams(25)},
}

func grams(g float64) *float64 { return &g }

// kept are the worked examples that the demo's kitchen makes.
var kept = []string{"Plum compote", "Orange syrup", "Ginger cream"}

// sauces saves the demo's sauces, and returns each as it goes on a variation.
func sauces(ctx context.Context, st *store.Tx, in document.Setting) (map[string]document.Part, error) {
	all, err := starter.Sauces()
	if err != nil {
		return nil, err
	}
	out := map[string]document.Part{}
	for _, data := range all {
		a, err := document.DecodeSauce(data)
		if err != nil {
			return nil, err
		}
		if !slices.Contains(kept, a.Name) {
			continue
		}
		s, err := document.SummariseSauce(data, in)
		if err != nil {
			return nil, fmt.Errorf("writing the demo's sauces: %w", err)
		}
		d, err := st.Create(ctx, store.Sauce, kitchen.ContentOf(s), "")
		if err != nil {
			return nil, err
		}
		out[a.Name] = document.Part{Sauce: &a, SauceRef: &document.BaseRef{ID: d.ID, Revision: d.Revision}}
	}
	return out, nil
}

// packs saves what is in the demo's freezer; the file says how many days ago each was made.
func packs(ctx context.Context, st *store.Tx, today time.Time) error {
	data, err := files.ReadFile("packs.json")
	if err != nil {
		return err
	}
	var all []struct {
		DaysAgo int           `json:"days_ago"`
		Pack    document.Pack `json:"pack"`
	}
	if err := document.Strict(data, &all); err != nil {
		return fmt.Errorf("writing the demo's freezer: %w", err)
	}
	for _, one := range all {
		made := today.AddDate(0, 0, -one.DaysAgo)
		one.Pack.MadeOn, one.Pack.UseBy, one.Pack.FrozenAt = made.Format("2006-01-02"), keep.UseBy(made).Format("2006-01-02"), made.UTC().Truncate(time.Second)
		one.Pack.Reheat = keep.Reheat(batter.Form(one.Pack.Form))
		text, err := one.Pack.Encode()
		if err != nil {
			return err
		}
		s, err := document.SummarisePack(text)
		if err != nil {
			return fmt.Errorf("writing the demo's freezer: %w", err)
		}
		if _, err := st.Create(ctx, store.Pack, kitchen.ContentOf(s), ""); err != nil {
			return err
		}
	}
	return nil
}

// kitchenOf is the kitchen that was saved, or the demo's, which is saved then.
func kitchenOf(ctx context.Context, st *store.Tx) (document.OwnKitchen, error) {
	body, revision, err := st.Kitchen(ctx)
	if err != nil {
		return document.OwnKitchen{}, err
	}
	if revision > 0 {
		return document.DecodeKitchen(body)
	}
	if body, err = files.ReadFile("kitchen.json"); err != nil {
		return document.OwnKitchen{}, err
	}
	k, err := document.DecodeKitchen(body)
	if err != nil {
		return k, err
	}
	if body, err = k.Encode(); err != nil {
		return k, err
	}
	_, err = st.PutKitchen(ctx, body, 0)
	return k, err
}

// pantry saves the demo's tubs and own ingredients, and returns the shelf with them. A tub in
// the file says how many days ago it was made; it is given its day here.
func pantry(ctx context.Context, st *store.Tx, table *food.Table, today time.Time) (*food.Table, error) {
	data, err := files.ReadFile("pantry.json")
	if err != nil {
		return nil, err
	}
	var all []struct {
		DaysAgo int                 `json:"days_ago,omitzero"`
		Item    document.PantryItem `json:"item"`
	}
	if err := document.Strict(data, &all); err != nil {
		return nil, fmt.Errorf("writing the demo's pantry: %w", err)
	}
	var items []document.PantryItem
	for _, one := range all {
		if one.DaysAgo > 0 {
			one.Item.MadeOn = today.AddDate(0, 0, -one.DaysAgo).Format("2006-01-02")
		}
		text, err := document.NewItem(one.Item).Encode()
		if err != nil {
			return nil, err
		}
		s, err := document.SummariseItem(ctx, text, document.Setting{Table: table, Today: today})
		if err != nil {
			return nil, fmt.Errorf("writing the demo's pantry: %w", err)
		}
		items = append(items, one.Item)
		if _, err := st.Create(ctx, store.Pantry, kitchen.ContentOf(s), ""); err != nil {
			return nil, err
		}
	}
	return document.Shelf(table, items, today)
}

// each hands every document of a folder to f, in the order of the file names.
func each(dir string, f func([]byte) error) error {
	entries, err := fs.ReadDir(files, dir)
	if err != nil {
		return err
	}
	for _, e := range entries {
		name := dir + "/" + e.Name()
		data, err := fs.ReadFile(files, name)
		if err == nil {
			err = f(data)
		}
		if err != nil {
			return fmt.Errorf("writing the demo's %s: %w", name, err)
		}
	}
	return nil
}
